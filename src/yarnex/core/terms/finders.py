"""The finders: each brings candidates for a term, independently of the others, with a weight and a reason.

A finder takes (term, passages) and yields `Candidate`s; FINDERS lists them in the order in which they are asked.
Weights are shares of 1: what stands opposite its own label is near 1, the only sum in a clause about it near 0.5.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

from yarnex.core.document import Cite, Span
from yarnex.core.phrases import FOLLOW_START, LEAD_END, Phrase, says
from yarnex.core.reading.layout.paragraphs import number_of
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import BLACKED_OUT, BLANK, Labelled, Passages, Sentence, plain_label
from yarnex.core.terms.schedules import find_schedules
from yarnex.core.values import Found, ListOf, Money, Party, Quantity, Text, Value, YesNo, find_organisations

Finder = Callable[[Term, Passages], Iterator[Candidate]]
TYPED = ("date", "money", "percent", "number", "duration")
BARE_PERIODS = ("year", "month", "quarter", "week")  # rents are often stated without saying for how long
MAX_QUOTE = 480  # characters
REACH = 30  # characters before a cue, and twice as many after the value, whose words may rule it out
REFERENCE = re.compile(
    r"\A.{0,50}?\b(?:described|set out|specified|stated|payable|defined|contained|shown)\b[^.;]{0,60}\b(?:Schedule|clause|Clause|Section|Exhibit|Part|paragraph|Particulars|Appendix|Annex)\b"
)
PASSING = re.compile(r"\A(?:see|as (?:set out|stated|defined|described)|refer to|per)\b", re.IGNORECASE)
DAY = re.compile(
    r"(?:(?P<d>\d{1,2})(?:st|nd|rd|th)?\s+(?:day\s+of\s+)?(?P<m>January|February|March|April|May|June|July|August|September|October|November|December)"
    r"|(?P<m2>January|February|March|April|May|June|July|August|September|October|November|December)\s+(?P<d2>\d{1,2})(?:st|nd|rd|th)?)(?!\s*,?\s*\d{4})",
)


def _named(names: tuple[Phrase, ...], label: str) -> bool:
    return any(p.whole is not None and p.whole.fullmatch(label) for p in names)


def _quote(passages: Passages, span: Span) -> Cite:
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
    return Cite(passages.document, _cut(passages.text, whole, span))


def _cut(text: str, whole: Span, keep: Span) -> Span:
    if whole.end - whole.start <= MAX_QUOTE:
        return whole
    spare = max(0, MAX_QUOTE - (keep.end - keep.start))
    start = max(whole.start, keep.start - spare // 2)
    end = min(whole.end, keep.end + spare // 2)
    while start > whole.start and not text[start - 1].isspace():
        start -= 1
    while end < whole.end and not text[end].isspace():
        end += 1
    return Span(start, end)


def _fits(term: Term, value: Value) -> bool:
    if isinstance(value, Quantity):
        return not term.units or value.unit in term.units
    if isinstance(value, Money) and term.units:
        bare = value.per is None and any(unit in BARE_PERIODS for unit in term.units)
        return bare or value.per in term.units
    return True


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


def _candidate(
    passages: Passages, term: Term, found: Found[Value], weight: float, finder: str, why: str, quote: Cite | None = None
) -> Candidate:
    value = _with_period(term, found.value, passages, found.span)
    working = (found.reading,) if found.reading else ()
    text = Cite(passages.document, found.span)
    return Candidate("stated", value, text, quote or _quote(passages, found.span), weight, finder, why, working)


def _gap(
    passages: Passages, span: Span, state: str, weight: float, finder: str, why: str, quote: Cite | None = None
) -> Candidate:
    text = Cite(passages.document, span)
    return Candidate(state, None, text, quote or _quote(passages, span), weight, finder, why)


# ------------------------------------------------------------------ labels and definitions
def from_labels(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Particulars tables and lines that read "Label: value"."""
    for row in passages.labelled:
        if not term.names or not _named(term.names, row.label):
            continue
        weight = {"table": 0.94, "line": 0.9, "heading": 0.66}[row.source]
        if row.source == "heading" and row.value.end - row.value.start > 160 and term.type != "text":
            continue
        yield from _from_value_words(
            term, passages, row.value, row.row, weight, "label", f"stands opposite the label {row.label!r}", row
        )


def _from_value_words(
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
    quote = Cite(passages.document, _cut(passages.text, row, Span(span.start, min(span.end, span.start + 200))))
    gaps = passages.gaps_in(span)
    if gaps and len(BLANK.sub("", BLACKED_OUT.sub("", words)).strip(" .,:;€£$/20")) < 4:
        yield _gap(passages, gaps[0][0], gaps[0][1], weight, finder, why, quote)
        return
    if term.type in TYPED:
        found = [f for f in passages.values_in(term.value_type, span) if _fits(term, f.value)]
        if found:
            yield _candidate(passages, term, found[0], weight, finder, why, quote)
        elif gaps:
            yield _gap(passages, gaps[0][0], gaps[0][1], weight - 0.1, finder, why, quote)
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
            piece = _shortened(passages.text, span)
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
        name = _party_name(words)
        if name:
            at = span.start + words.find(name)
            yield Candidate(
                "stated", Party(name), Cite(passages.document, Span(at, at + len(name))), quote, weight, finder, why
            )
    elif term.type == "text":
        piece = _shortened(passages.text, span)
        if not PASSING.match(words):
            cite = Cite(passages.document, piece)
            weight -= 0.3 if len(words) < 160 and REFERENCE.search(words) else 0.0  # the substance stands elsewhere
            yield Candidate("stated", Text(_said(cite.quote)), cite, quote, weight, finder, why)
    elif term.type == "list":
        items = _list_items(term, passages, span)
        if items is not None:
            value, inside = items
            yield Candidate("stated", value, Cite(passages.document, inside), quote, weight, finder, why)
    elif term.type == "yes_no":
        for answer, phrases in ((True, term.yes), (False, term.no)):
            if says(phrases, words):
                yield Candidate("stated", YesNo(answer), Cite(passages.document, span), quote, weight, finder, why)
                break


def _said(quote: str) -> str:
    """Words for a value: line ends and tabs of the linear text become blanks."""
    return re.sub(r"\s+", " ", quote).strip(" ;,")


def _party_name(words: str) -> str:
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


def _shortened(text: str, span: Span) -> Span:
    """A text value: the first sentences of a passage, up to some 300 characters, without a closing reference."""
    words = span.of(text)
    end = len(words)
    if end > 320:
        stop = max(words.rfind(". ", 0, 320), words.rfind("; ", 0, 320))
        end = stop + 1 if stop > 60 else words.rfind(" ", 0, 320)
    m = re.search(r"\s*\((?:Section|Clause|clause|see|paragraph)\b[^()]*\)\s*\Z", words[:end])
    if m:
        end = m.start()
    return Span(span.start, span.start + max(1, len(words[:end].rstrip(" ;,"))))


def _list_items(term: Term, passages: Passages, span: Span) -> tuple[ListOf, Span] | None:
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
    parts = [p.strip(" .") for p in re.split(r";\s*|,\s+and\s+|,\s+|\s+and\s+", words) if p.strip(" .")]
    return (ListOf(tuple(parts)), span) if parts else None


def from_definitions(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Defined terms: "X" means ...; and sums or days that a bracket names: EUR 500 (the "Deposit")."""
    for definition in passages.definitions:
        if not term.names or not _named(term.names, definition.name):
            continue
        why = f"defined as {definition.name!r}"
        if not definition.inline:
            yield from _from_value_words(
                term, passages, definition.meaning, definition.sentence, 0.92, "definition", why
            )
        elif term.type in TYPED:
            found = [f for f in passages.values_in(term.value_type, definition.meaning) if _fits(term, f.value)]
            if found and definition.meaning.end - found[-1].span.end < 90:
                quote = Cite(passages.document, _cut(passages.text, definition.sentence, found[-1].span))
                yield _candidate(
                    passages, term, found[-1], 0.9, "definition", f"called {definition.name!r} where it stands", quote
                )


def from_roles(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Parties by the role that the parties clause gives them."""
    if term.type != "party":
        return
    for place, (party, span, sentence) in enumerate(passages.roles):
        role = re.sub(r"\A(?:the|each|an?)\s+", "", party.role, flags=re.IGNORECASE)
        if _named(term.names, role):
            quote = Cite(passages.document, _cut(passages.text, sentence, span))
            weight = 0.95 - min(0.04, 0.002 * place)
            text = Cite(passages.document, span)
            yield Candidate("stated", Party(party.name), text, quote, weight, "parties", f"named as {party.role!r}")


# ------------------------------------------------------------------ sentences
def _context_bonus(term: Term, headings: str) -> float:
    bonus = 0.0
    last = headings.rsplit(" / ", 1)[-1]
    if term.headings and any(p.whole is not None and p.whole.search(last) for p in term.headings):
        bonus += 0.07
    elif term.headings and any(p.whole is not None and p.whole.search(headings) for p in term.headings):
        bonus += 0.05
    if re.search(r"special (?:condition|provision|term)s?|rider|addend", headings):
        bonus += 0.06
    if re.search(r"recital|background|whereas|\bform of\b|certificate\Z", last):
        bonus -= 0.14
    return bonus


SUBJECT = re.compile(
    r"\A(?:[\W\d]|(?:section|clause)\s)*(?:[A-Z][\w'’ ]{2,40}\.\s+)?(?:the\s+)?(?:(?P<landlord>landlord|lessor|licensor|owner)|(?P<tenant>tenant|lessee|licensee|occupier))\s+"
    r"(?:shall|must|will|covenants|agrees|may|is\s+to)\b",
    re.IGNORECASE,
)


def subject_of(sentence: str) -> str:
    """Whose duty a sentence states: "landlord", "tenant", or "" where it does not open with either."""
    m = SUBJECT.match(sentence)
    return "" if m is None else ("landlord" if m["landlord"] else "tenant")


def from_cues(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Sentences in which the words around a value are those of the term."""
    if not (term.cues or term.clause_cues) or term.type not in (*TYPED, "text", "list", "party"):
        return
    text = passages.text
    for sentence in passages.sentences:
        words = sentence.span.of(text)
        low = words.lower()
        cues = [(i, c) for i, c in enumerate(term.cues) if not c.key or c.key in low]
        if term.clause_cues and any(p.whole is not None and p.whole.search(sentence.headings) for p in term.headings):
            cues += [(i, c) for i, c in enumerate(term.clause_cues) if not c.key or c.key in low]
        if not cues or (term.type not in TYPED and says(term.excludes, words)):
            continue
        if (term.by and subject_of(words) not in ("", term.by)) or (term.requires and not says(term.requires, words)):
            continue
        bonus = _context_bonus(term, sentence.headings)
        for place, cue in cues:
            weight = max(0.7, 0.86 - 0.015 * place) + bonus
            why = f"the sentence says {cue.text!r}"
            if term.type in TYPED:
                yield from _typed_by_cue(term, passages, sentence, cue, weight, why)
            elif term.type == "list":
                if cue.whole is not None and cue.whole.search(words):
                    items = _list_items(term, passages, sentence.span)
                    if items is not None:
                        yield Candidate(
                            "stated",
                            items[0],
                            Cite(passages.document, items[1]),
                            _quote(passages, items[1]),
                            weight,
                            "cue",
                            why,
                        )
            else:
                yield from _text_by_cue(term, passages, sentence, cue, weight, why)


def _typed_by_cue(
    term: Term, passages: Passages, sentence: Sentence, cue: Phrase, weight: float, why: str
) -> Iterator[Candidate]:
    text, span = passages.text, sentence.span
    spots: list[tuple[Span, Found[Value] | None, str]] = [
        (f.span, f, "") for f in passages.values_in(term.value_type, span) if _fits(term, f.value)
    ]
    spots += [(gap, None, state) for gap, state in passages.gaps_in(span)]
    if cue.has_slot:
        assert cue.before is not None and cue.after is not None
        for at, found, state in spots:
            lead = cue.before.search(text[span.start : at.start])
            if (
                lead
                and cue.after.match(text[at.end : span.end])
                and not _excluded(term, text, span, span.start + lead.start(), at)
            ):
                if found is not None:
                    yield _candidate(passages, term, found, weight, "cue", why)
                else:
                    yield _gap(passages, at, state, weight - 0.15, "cue", why)
                return
        return
    assert cue.whole is not None
    m = cue.whole.search(text, span.start, span.end)
    if not m:
        return
    after = [
        (s.start - m.end(), s, f, state) for s, f, state in spots if s.start >= m.start() and s.start - m.end() < 160
    ]
    before = [
        (m.start() - s.end + 60, s, f, state) for s, f, state in spots if s.end <= m.start() and m.start() - s.end < 80
    ]
    nearest = min([*after, *before], key=lambda spot: spot[0], default=None)
    if nearest is None:
        return
    distance, at, found, state = nearest
    if _excluded(term, text, span, m.start(), at):
        return
    weight -= 0.04 + min(0.1, max(0, distance) * 0.001)
    if found is not None:
        yield _candidate(passages, term, found, weight, "cue", why + ", and this is the value nearest to it")
    else:
        yield _gap(passages, at, state, weight - 0.15, "cue", why)


def _excluded(term: Term, text: str, sentence: Span, cue: int, value: Span) -> bool:
    """True where the words of the cue, or those close to the value, say that it is about something else."""
    start = max(sentence.start, min(cue, value.start) - REACH)
    near = text[start : min(sentence.end, value.end + 2 * REACH)]
    return says(term.excludes, near) is not None


def _with_items(passages: Passages, span: Span) -> Span:
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


def _without_number(passages: Passages, span: Span) -> Span:
    """The span without the clause number that opens its block."""
    block = passages.document.block_at(span.start)
    if block is None or not block.number or block.span.start != span.start:
        return span
    words = span.of(passages.text)
    _, rest = number_of(words)
    return Span(span.end - len(rest), span.end) if rest.strip() and words.endswith(rest) else span


def _text_by_cue(
    term: Term, passages: Passages, sentence: Sentence, cue: Phrase, weight: float, why: str
) -> Iterator[Candidate]:
    text, span = passages.text, sentence.span
    if cue.whole is not None:
        if (
            cue.whole.search(text, span.start, span.end)
            and term.type == "text"
            and (not term.value_says or says(term.value_says, span.of(text)))
        ):
            whole = _with_items(passages, span)
            piece = _shortened(text, _without_number(passages, whole))
            cite = Cite(passages.document, piece)
            quote = _quote(passages, span) if whole == span else Cite(passages.document, _cut(text, whole, piece))
            yield Candidate("stated", Text(_said(cite.quote)), cite, quote, weight - 0.06, "cue", why)
        return
    assert cue.before is not None and cue.after is not None
    lead = re.compile(cue.before.pattern.removesuffix(LEAD_END), re.IGNORECASE)
    m = lead.search(text, span.start, span.end)
    if not m:
        return
    start = m.end()
    end = span.end
    closing = cue.after.pattern.removeprefix(FOLLOW_START)
    if closing:
        stop = re.compile(r"\s*,?\s*" + closing, re.IGNORECASE).search(text, start, span.end)
        if not stop:
            return
        end = stop.start()
    stop = re.compile(r";|,?\s+(?:provided that|PROVIDED|and for no other)\b").search(text, start, end)
    if stop:
        end = stop.start()
    start += len(re.match(r"[\s,:;–-]*", text[start:end]).group())  # type: ignore[union-attr]
    piece = Span(start, start + len(text[start:end].rstrip(' .,;:”"')))
    words = piece.of(text).strip()
    if not words or (term.value_says and not says(term.value_says, words)):
        return
    if (gap := BLANK.match(words) or BLACKED_OUT.match(words)) and len(words) - gap.end() < 4:
        yield _gap(passages, piece, "redacted" if "█" in words else "blank", weight - 0.15, "cue", why)
    elif term.type == "party":
        name = _party_name(words)
        if name:
            at = start + text[start:end].find(name)
            yield Candidate(
                "stated",
                Party(name),
                Cite(passages.document, Span(at, at + len(name))),
                _quote(passages, piece),
                weight,
                "cue",
                why,
            )
    else:
        piece = _shortened(text, piece)
        cite = Cite(passages.document, piece)
        yield Candidate(
            "stated",
            Text(_said(cite.quote)),
            cite,
            _quote(passages, Span(piece.start, piece.start + 1)),
            weight,
            "cue",
            why,
        )


def from_answers(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Yes-or-no terms: sentences whose words decide them."""
    if term.type != "yes_no":
        return
    for sentence in passages.sentences:
        words = sentence.span.of(passages.text)
        if says(term.excludes, words):
            continue
        bonus = _context_bonus(term, sentence.headings)
        for answer, phrases in ((True, term.yes), (False, term.no)):
            m = says(phrases, words)
            if m:
                at = Span(sentence.span.start + m.start(), sentence.span.start + m.end())
                yield Candidate(
                    "stated", YesNo(answer), Cite(passages.document, at), _quote(passages, at), 0.82 + bonus, "words",
                    f"the words {m.group()!r} decide it",
                )  # fmt: skip


# ------------------------------------------------------------------ headed clauses
def from_headed_clauses(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Text terms: clauses whose heading names the term."""
    if not term.headings or term.type != "text":
        return
    document, text = passages.document, passages.text
    for place, block in enumerate(document.blocks):
        if not block.heading or block.kind == "furniture":
            continue
        heading = plain_label(block.heading)
        exact = _named(term.headings, heading)
        if not exact and not (
            len(heading) < 60 and any(p.whole is not None and p.whole.match(heading) for p in term.headings)
        ):
            continue
        span = _clause_text(passages, place)
        if span is not None and term.by and subject_of(span.of(text)) not in ("", term.by):
            continue
        if span is None or says(term.excludes, span.of(text)[:400]):
            continue
        if term.value_says and not says(term.value_says, span.of(text)):
            continue
        piece = _shortened(text, _without_number(passages, span))
        cite = Cite(document, piece)
        weight = 0.8 if exact else 0.7
        if re.search(r"special (?:condition|provision)s?", passages.headings_of(block)):
            weight -= 0.08  # it varies the main clause, which says more
        yield Candidate(
            "stated", Text(_said(cite.quote)), cite, cite, weight, "heading", f"the clause is headed {heading!r}"
        )


def _clause_text(passages: Passages, place: int) -> Span | None:
    """The words of a clause: after a run-in heading, or the blocks under a heading up to some 500 characters."""
    document, text = passages.document, passages.text
    block = document.blocks[place]
    if block.kind != "heading":
        words = block.span.of(text)
        at = words.find(block.heading)
        at = at + len(block.heading) if at >= 0 else 0
        at += len(re.match(r"[\s.:–—-]*", words[at:]).group())  # type: ignore[union-attr]
        start = block.span.start + at
        end = block.span.end
    else:
        if place + 1 >= len(document.blocks):
            return None
        start, end = document.blocks[place + 1].span.start, document.blocks[place + 1].span.end
        if document.blocks[place + 1].kind in ("heading", "furniture"):
            return None
    following = place + (2 if block.kind == "heading" else 1)
    level = block.level
    while end - start < 260 and following < len(document.blocks):
        after = document.blocks[following]
        if after.kind in ("heading", "furniture", "table") or after.heading or (0 < after.level <= level):
            break
        end = after.span.end
        following += 1
    return Span(start, end) if end > start else None


def from_schedules(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Rents and other sums that change over time, from tables."""
    if term.type == "schedule":
        yield from find_schedules(term, passages)


def from_table_cells(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Cells of larger tables whose row or column heading names the term; a total row counts most."""
    if term.type not in ("number", "money", "percent") or not term.names:
        return
    document, text = passages.document, passages.text
    for table in document.tables:
        if table.columns < 3 or not table.header_rows:
            continue
        heads = {c.column: plain_label(c.span.of(text)) for r in range(table.header_rows) for c in table.row_cells(r)}
        for row in range(table.header_rows, table.rows):
            cells = table.row_cells(row)
            first = plain_label(cells[0].span.of(text)) if cells and cells[0].column == 0 else ""
            total = bool(re.match(r"total\b|aggregate\b|together\b", first, re.IGNORECASE))
            for cell in cells:
                head = heads.get(cell.column, "")
                by_head = _named(term.names, head) and (total or table.rows - table.header_rows == 1)
                by_row = _named(term.names, first) and cell.column > 0
                if not (by_head or by_row):
                    continue
                for value in _cell_values(term, passages, cell.span, head):
                    why = f"the cell under {head!r}, row {first!r}"
                    yield _candidate(passages, term, value, 0.84 if total or by_row else 0.78, "table", why)
                    break


def _cell_values(term: Term, passages: Passages, span: Span, head: str) -> Iterator[Found[Value]]:
    """A cell's value; a bare figure takes its unit from the column's heading."""
    from yarnex.core.values import find_counts
    from yarnex.core.values.quantities import UNITS

    typed = [f for f in passages.values_in(term.value_type, span) if _fits(term, f.value)]
    yield from typed
    if typed or term.type != "number":
        return
    unit = next(
        (u for u in (term.units or tuple(UNITS)) if u in UNITS and re.search(rf"\b{UNITS[u]}", head, re.IGNORECASE)),
        None,
    )
    count = next(iter(find_counts(span.of(passages.text))), None)
    if unit and count is not None:
        yield Found(Quantity(count.value, unit), Span(span.start + count.span.start, span.start + count.span.end))


FINDERS: tuple[Finder, ...] = (
    from_labels,
    from_definitions,
    from_roles,
    from_table_cells,
    from_schedules,
    from_cues,
    from_answers,
    from_headed_clauses,
)
