"""What all finders share: candidates made from spans, with their quote, their words and their value in the term's type."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Cite, Span
from yarnex.core.document.clause_numbers import number_of
from yarnex.core.patterns import pattern
from yarnex.core.phrases import Phrase, says
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import BLANK, Labelled, Passages, is_only_gap
from yarnex.core.values import Duration, Found, ListOf, Money, Party, Quantity, Text, Value, YesNo, find_organisations
from yarnex.core.values.ticks import ticked_answer

TYPED = ("date", "money", "percent", "number", "duration")
BARE_PERIODS = ("year", "month", "quarter", "week")  # rents are often stated without saying for how long
MAX_QUOTE = 480  # characters
PASSING = pattern(r"\A(?:see|as (?:set out|stated|defined|described)|refer to|per)\b", re.IGNORECASE)
NO_NUMBER = pattern(  # what stands in place of a number
    r"\W*(?:no|none|nil|unlimited|not|n/a|as|to be|tb[acd]|see|by|any|all|each|per|various|varies|included|subject)\b",
    re.IGNORECASE,
)
REFERENCE = pattern(
    r"\A.{0,50}?\b(?:described|set out|specified|stated|payable|defined|contained|shown)\b[^.;]{0,60}\b(?:Schedule|clause|Clause|Section|Exhibit|Part|paragraph|Particulars|Appendix|Annex)\b|\A[^.;]{0,40}\b(?:under|in|by)\s+(?:Schedule|clause|Clause|Section|section|Exhibit|Part|paragraph|Appendix|Annex)\s+[\dA-Z.()]+\W*\Z"
)


DAY = pattern(
    r"(?:(?P<d>\d{1,2})(?:st|nd|rd|th)?\s+(?:day\s+of\s+)?(?P<m>January|February|March|April|May|June|July|August|September|October|November|December)"
    r"|(?P<m2>January|February|March|April|May|June|July|August|September|October|November|December)\s+(?P<d2>\d{1,2})(?!\d)(?:st|nd|rd|th)?)(?!\s*,?\s*\d{4})",
)


def is_named(names: tuple[Phrase, ...], label: str) -> bool:
    """True for a label that is one of some names."""
    return place_of_name(names, label) is not None


def place_of_name(names: tuple[Phrase, ...], label: str) -> int | None:
    """Which of some names a label is, the first; None where it is none of them."""
    low = label.lower()
    for place, name in enumerate(names):
        if not name.has_slot and name.may_stand_in(low) and name.whole.fullmatch(label) is not None:
            return place
    return None


def quote_around(passages: Passages, span: Span) -> Cite:
    """The sentence around a span, or the table row; long ones are cut at white space on both sides of it."""
    found = passages.document.cell_at(span)
    if found is not None:
        table, cell = found
        row = list(table.row_cells(cell.row))
        whole = Span(min(c.span.start for c in row), max(c.span.end for c in row)) if row else cell.span
        whole = whole if whole.holds(span) else cell.span
    else:
        sentence = passages.sentence_at(span.start)
        whole = sentence.span if sentence is not None else span
        if span.end > whole.end:
            last = passages.sentence_at(span.end - 1)
            whole = Span(whole.start, last.span.end if last else span.end)
    return Cite(passages.document, cut(passages.text, whole, span))


def cut(text: str, whole: Span, keep: Span, limit: int = MAX_QUOTE) -> Span:
    """The part of `whole` around `keep` that is at most `limit` characters long, cut at white space."""
    if whole.end - whole.start <= limit:
        return whole
    spare = max(0, limit - (keep.end - keep.start))
    start = max(whole.start, keep.start - spare // 2)
    end = min(whole.end, keep.end + spare // 2)
    while start > whole.start and not text[start - 1].isspace():
        start -= 1
    while end < whole.end and not text[end].isspace():
        end += 1
    return Span(start, end)


def fits(term: Term, value: Value) -> bool:
    if isinstance(value, Quantity):
        return not term.units or value.unit in term.units
    if isinstance(value, Money) and term.units:
        bare = value.per is None and any(unit in BARE_PERIODS for unit in term.units)
        return bare or value.per in term.units
    return True


BEFORE_A_DAY = pattern(r"\s+(?:before|prior\s+to)\b", re.IGNORECASE)


def is_between_days(passages: Passages, value: Value | None, span: Span) -> bool:
    """True for a length of time that only tells how far one day is from another: "one day before the Lease expires"."""
    return isinstance(value, Duration) and BEFORE_A_DAY.match(passages.text, span.end) is not None


def _with_period(term: Term, value: Value, passages: Passages, span: Span) -> Value:
    """Money without a period takes the one that the words before it say: "the yearly rent of"."""
    if not isinstance(value, Money) or value.per or not term.units:
        return value
    sentence = passages.sentence_at(span.start)
    before = passages.text[max(sentence.span.start if sentence else 0, span.start - 80) : span.start].lower()
    for words, per in (
        (r"\b(?:yearly|annual|annually|per annum)\b", "year"),
        (r"\bmonthly\b", "month"),
        (r"\bquarterly\b", "quarter"),
    ):
        if per in term.units and re.search(words, before):
            return Money(value.amount, value.currency, per)
    return value


def candidate(
    passages: Passages, term: Term, found: Found[Value], weight: float, finder: str, why: str, quote: Cite | None = None
) -> Candidate:
    value = _with_period(term, found.value, passages, found.span)
    working = (found.reading,) if found.reading else ()
    text = Cite(passages.document, found.span)
    return Candidate("stated", value, text, quote or quote_around(passages, found.span), weight, finder, why, working)


def gap_candidate(
    passages: Passages, span: Span, state: str, weight: float, finder: str, why: str, quote: Cite | None = None
) -> Candidate:
    text = Cite(passages.document, span)
    return Candidate(state, None, text, quote or quote_around(passages, span), weight, finder, why)


def on_one_line(quote: str) -> str:
    """Words for a value: line ends and tabs of the linear text become blanks."""
    return re.sub(r"\s+", " ", quote).strip(" ;,")


def party_name(words: str) -> str:
    if BLANK.match(words.strip()):
        return ""
    first = next(iter(find_organisations(words)), None)
    if first is not None and first.span.start < 4:
        return first.value.name
    head = re.split(
        r"\s*[;\n\t]|,\s+(?!(?:LLC|L\.P|Inc|Ltd|Limited|LP\b))|\s+\((?!\w{1,4}\))|\s+of\s+\d|\s+c/o\s",
        words.strip(),
        maxsplit=1,
    )[0].strip(' .,"“”')
    return (
        head
        if 2 < len(head) < 90
        and re.search(r"[A-Z]", head)
        and not PASSING.match(head)
        and head.lower() not in ("none", "n/a")
        else ""
    )


def shortened(text: str, span: Span) -> Span:
    """A text value: the first sentences of a passage, up to some 300 characters, without a closing reference."""
    words = span.of(text)
    end = len(words)
    if end > 320:
        stop = max((m.start() for m in re.finditer(r"[.;](?=\s)", words[:320])), default=-1)
        end = stop + 1 if stop > 60 else words.rfind(" ", 0, 320)
    m = re.search(r"\s*\((?:Section|Clause|clause|see|paragraph)\b[^()]*\)\s*\Z", words[:end])
    if m:
        end = m.start()
    return Span(span.start, span.start + max(1, len(words[:end].rstrip(" ;,"))))


# "must hold: (a) a price sheet; (b) a diagram; and (c) ..."
LETTERED = pattern(r"[\s:,–—-]*\((?:a|i|1)\)\s")
NEXT_ITEM = pattern(r"[;,.]?\s*(?:and\s+|or\s+)?\((?P<mark>[a-z]|[ivx]{1,4}|\d{1,2})\)\s+")
MOST_ITEMS = 30


def enumerated(passages: Passages, place: int) -> tuple[ListOf, Span] | None:
    """The lettered items that follow a place, in the same paragraph or in those behind it; None where none follow."""
    text, document = passages.text, passages.document
    if LETTERED.match(text, place) is None:
        return None
    at = document.block_index_at(place)
    end = document.blocks[at].span.end
    for block in document.blocks[at + 1 : at + 1 + MOST_ITEMS]:
        if block.kind != "item" or not NEXT_ITEM.match(block.span.of(text)):
            break
        end = block.span.end
    marks = list(NEXT_ITEM.finditer(text, place, end))
    if len(marks) < 2:
        return None
    edges = [m.start() for m in marks[1:]] + [end]
    items = [on_one_line(text[m.end() : e]).strip(" .;,") for m, e in zip(marks, edges, strict=True)]
    return ListOf(tuple(i for i in items if i)), Span(marks[0].end(), end)


def list_items(term: Term, passages: Passages, span: Span) -> tuple[ListOf, Span] | None:
    if term.items == "date":
        dates = passages.values_in("date", span)
        if dates:
            days = tuple(f.value.day.isoformat() for f in dates)  # type: ignore[union-attr]
            return ListOf(days), Span(dates[0].span.start, dates[-1].span.end)
        return None
    if term.items == "day":
        found = list(DAY.finditer(passages.text, span.start, span.end))
        if len(found) >= 2:
            days = tuple(f"{int(m['d'] or m['d2'])} {m['m'] or m['m2']}" for m in found)
            return ListOf(days), Span(found[0].start(), found[-1].end())
        return None
    words = span.of(passages.text)
    _, colon, listed = words.partition(": ")
    listed = listed if colon else words
    between = r";\s*(?:and\s+|or\s+)?" if colon and ";" in listed.rstrip("; ") else r";\s*|,\s+and\s+|,\s+|\s+and\s+"
    parts = [p.strip(" .;") for p in re.split(between, listed) if p.strip(" .;")]
    return (ListOf(tuple(parts)), span) if parts else None


def from_value_words(
    term: Term,
    passages: Passages,
    span: Span,
    row: Span,
    weight: float,
    finder: str,
    why: str,
    labelled: Labelled | None = None,
) -> Iterator[Candidate]:
    """What a labelled place or a definition says, in the term's type."""
    words = span.of(passages.text)
    quote = Cite(passages.document, cut(passages.text, row, Span(span.start, min(span.end, span.start + 200))))
    gaps = passages.gaps_in(span)
    if gaps and is_only_gap(words):
        yield gap_candidate(passages, gaps[0][0], gaps[0][1], weight, finder, why, quote)
        return
    if term.type in TYPED:
        found = [f for f in passages.values_in(term.value_type, span) if fits(term, f.value)]
        if not found and labelled is not None and labelled.source == "table":
            found = _bare_figure(term, passages, span)
        if found:
            yield candidate(passages, term, found[0], weight, finder, why, quote)
        elif gaps:
            yield gap_candidate(passages, gaps[0][0], gaps[0][1], weight - 0.1, finder, why, quote)
        elif re.fullmatch(r"[\d.,\s()–-]+", words) or (term.type == "number" and not NO_NUMBER.match(words)):
            return  # a bare number in a table of other things, or the heading of a column
        elif labelled is not None and not PASSING.match(words) and len(words) < 160 and labelled.source != "heading":
            yield Candidate(
                "stated",
                None,
                Cite(passages.document, span),
                quote,
                weight - 0.3,
                finder,
                why + ", not in the wanted form",
            )
        elif finder == "definition" and term.type == "date" and re.search(r"\b(?:date|day)\b", words):
            piece = shortened(passages.text, span)
            yield Candidate(
                "stated",
                None,
                Cite(passages.document, piece),
                quote,
                weight - 0.28,
                finder,
                why + ", as a formula without a date",
            )
    elif term.type == "party":
        name = party_name(words)
        if name:
            at = span.start + words.find(name)
            yield Candidate(
                "stated", Party(name), Cite(passages.document, Span(at, at + len(name))), quote, weight, finder, why
            )
    elif term.type == "text":
        piece = shortened(passages.text, span)
        if not PASSING.match(words):
            cite = Cite(passages.document, piece)
            weight -= 0.3 if len(words) < 160 and REFERENCE.search(words) else 0.0  # the substance stands elsewhere
            yield Candidate("stated", Text(on_one_line(cite.quote)), cite, quote, weight, finder, why)
    elif term.type == "list":
        items = list_items(term, passages, span)
        if items is not None:
            value, inside = items
            yield Candidate("stated", value, Cite(passages.document, inside), quote, weight, finder, why)
    elif term.type == "yes_no" and (ticked := ticked_answer(words)) is not None:
        yield Candidate("stated", YesNo(ticked), Cite(passages.document, span), quote, weight, finder, why)
    elif term.type == "yes_no":
        for answer, phrases in ((True, term.yes), (False, term.no)):
            if says(phrases, words):
                yield Candidate("stated", YesNo(answer), Cite(passages.document, span), quote, weight, finder, why)
                break


def _bare_figure(term: Term, passages: Passages, span: Span) -> list[Found[Value]]:
    """The bare figure that a labelled cell holds, with the currency or unit that its table is in."""
    from yarnex.core.terms.lines import Line
    from yarnex.core.terms.values_in_lines import line_values_of

    finder = line_values_of(passages).finder(term.type)
    line = Line(span, span, "cell", passages.document.block_index_at(span.start))
    return [f for f in finder(line) if fits(term, f.value)] if finder is not None else []


def context_bonus(term: Term, headings: str) -> float:
    bonus = 0.0
    last = headings.rsplit(" / ", 1)[-1]
    if term.headings and any(p.search(last) for p in term.headings):
        bonus += 0.07
    elif term.headings and any(p.search(headings) for p in term.headings):
        bonus += 0.05
    if re.search(r"special (?:condition|provision|term)s?|rider|addend", headings):
        bonus += 0.06
    if re.search(r"recital|background|whereas|\bform of\b|certificate\Z", last):
        bonus -= 0.14
    return bonus


def without_number(passages: Passages, span: Span) -> Span:
    """The span without the clause number that opens its block."""
    block = passages.document.block_at(span.start)
    if block is None or not block.number or block.span.start != span.start:
        return span
    words = span.of(passages.text)
    _, rest = number_of(words)
    return Span(span.end - len(rest), span.end) if rest.strip() and words.endswith(rest) else span


def with_items(passages: Passages, span: Span) -> Span:
    """A sentence that introduces a list, together with the list's items, up to some 400 characters."""
    if not span.of(passages.text).endswith((":", "–", "—")):
        return span
    blocks = passages.document.blocks
    place = passages.document.block_index_at(span.start)
    if blocks[place].span.end != span.end:
        return span
    end = span.end
    for block in blocks[place + 1 :]:
        if block.level <= blocks[place].level or block.kind != "item" or block.span.end - span.start > 400:
            break
        end = block.span.end
    return Span(span.start, end)
