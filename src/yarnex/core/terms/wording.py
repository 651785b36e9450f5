"""Finders that go by the wording of sentences: cues around a value, and words that decide a yes or no."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.phrases import Phrase, says
from yarnex.core.terms.candidates import (
    TYPED,
    candidate,
    context_bonus,
    cut,
    enumerated,
    fits,
    gap_candidate,
    list_items,
    on_one_line,
    quote_around,
    shortened,
    with_items,
    without_number,
)
from yarnex.core.terms.lines import Line
from yarnex.core.terms.model import SIDES, Candidate, Term
from yarnex.core.terms.passages import Passages, Sentence
from yarnex.core.terms.values_in_lines import LineValues, line_values_of
from yarnex.core.values import Found, Text, Value, YesNo

REACH = 30  # characters before a cue, and twice as many after the value, whose words may rule it out
_side = "|".join(sorted({n for names in SIDES.values() for n in names.split("|")}, key=len, reverse=True))
SUBJECT = pattern(
    r"\A(?:[\W\d]|(?:section|clause)\s)*(?:[A-Z][\w'’ ]{2,40}\.\s+)?(?:the\s+)?(?P<side>" + _side + r")\s+"
    r"(?:shall|must|will|covenants|agrees|may|is\s+to|undertakes)\b",
    re.IGNORECASE,
)


def is_others_duty(sentence: str, by: str) -> bool:
    """True where a sentence opens with a duty or right of another party than the side `by`."""
    m = SUBJECT.match(sentence)
    return m is not None and m["side"].lower() not in SIDES[by].split("|")


def from_cues(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Sentences in which the words around a value are those of the term."""
    if not (term.cues or term.clause_cues) or term.type not in (*TYPED, "text", "list", "party"):
        return
    possible = passages.possible(term.cues)
    ranked = [(i, c) for i, c in enumerate(term.cues) if c in possible]
    in_clause = [(i, c) for i, c in enumerate(term.clause_cues) if c.may_stand_in(passages.low)]
    if not ranked and not in_clause:
        return
    bonuses: dict[str, float] = {}
    headed: dict[str, bool] = {}
    typed = term.type in TYPED
    line_values = line_values_of(passages) if term.type == "party" else None
    sentences = (*passages.sentences, *passages.row_sentences) if typed else passages.sentences
    said: dict[int, list[tuple[int, Phrase]]] = {}
    said_in_clause: dict[int, list[tuple[int, Phrase]]] = {}
    for cues_here, out in ((ranked, said), (in_clause, said_in_clause)):
        for place, cue in cues_here:
            for at in passages.places_of(cue):
                out.setdefault(at, []).append((place, cue))
    for at in sorted({*said, *said_in_clause}):
        if at >= len(sentences):
            break
        sentence = sentences[at]
        if not typed and passages.document.blocks[sentence.block].kind == "heading":
            continue  # a heading names a clause; what it says stands below
        if not typed and sentence.span.end <= passages.title_start:
            continue  # the sender's own name and address
        cues = said.get(at, [])
        if at in said_in_clause:
            if sentence.headings not in headed:
                headed[sentence.headings] = any(p.search(sentence.headings) for p in term.within or term.headings)
            if headed[sentence.headings]:
                cues = [*cues, *said_in_clause[at]]
        if not cues:
            continue
        found_here = _values_of(term, passages, sentence) if typed else []
        if typed and not found_here and not passages.gaps_in(sentence.span):
            continue
        words = sentence.span.of(passages.text)
        if not typed and says(term.excludes, words):
            continue
        if term.by and is_others_duty(words, term.by):
            continue
        if term.requires and not says(term.requires, words) and not says(term.requires, sentence.headings):
            continue
        if sentence.headings not in bonuses:
            bonuses[sentence.headings] = context_bonus(term, sentence.headings)
        bonus = bonuses[sentence.headings]
        for place, cue in cues:
            weight = max(0.7, 0.86 - 0.015 * place) + bonus
            why = f"the sentence says {cue.text!r}"
            if typed:
                yield from _typed_by_cue(term, passages, sentence, found_here, cue, weight, why)
            elif line_values is not None and cue.has_slot:
                yield from _party_by_cue(term, passages, sentence, cue, weight, why, line_values)
            elif term.type == "list":
                if (lead := cue.search(words)) is not None:
                    items = enumerated(passages, sentence.span.start + lead.end()) or list_items(
                        term, passages, _through_semicolons(passages, at)
                    )
                    if items is not None:
                        yield Candidate(
                            "stated",
                            items[0],
                            Cite(passages.document, items[1]),
                            quote_around(passages, items[1]),
                            weight,
                            "cue",
                            why,
                        )
            else:
                yield from _text_by_cue(term, passages, sentence, cue, weight, why, _what_it_heads(passages, at))


def _through_semicolons(passages: Passages, at: int) -> Span:
    """Sentence number `at` with the parts of it that stand behind semicolons."""
    first = last = passages.sentences[at]
    for part in passages.sentences[at + 1 :]:
        if part.block != first.block or not last.span.of(passages.text).endswith(";"):
            break
        last = part
    return Span(first.span.start, last.span.end)


# A few words with a full stop and no verb, before the sentence that they are the title of: "Idle looms. Sums that ..."
TITLE_WORDS = 6
TITLED_PARAGRAPHS = 3
BARE_NUMBER = pattern(r"\W*(?:[a-z]{0,2}\d{1,3}|[a-z])[.)]?\W*")
NO_TITLE = pattern(
    r"\d|:|\A\W*(?:to|this|all|no|any|the)\b|\b(?:is|are|was|were|be|has|have|do|does|shall|will|must|may|can|not)\b",
    re.IGNORECASE,
)


def _is_title(passages: Passages, at: int) -> bool:
    this = passages.sentences[at]
    words = without_number(passages, this.span).of(passages.text)
    goes_on = at + 1 < len(passages.sentences) and passages.sentences[at + 1].block == this.block
    return goes_on and words.endswith(".") and len(words.split()) <= TITLE_WORDS and not NO_TITLE.search(words)


def _opens_paragraph(passages: Passages, at: int) -> bool:
    """True for the first sentence of a paragraph, a bare number before it left aside."""
    block = passages.sentences[at].block
    if at and BARE_NUMBER.fullmatch(passages.sentences[at - 1].low):
        at -= 1
    return at == 0 or passages.sentences[at - 1].block != block


def _what_it_heads(passages: Passages, at: int) -> Span | None:
    """The sentence that follows sentence number `at` where that is only its title, else None.

    Paragraphs are titled together: most of those under the same headings must begin with such words, and three at least.
    """
    sentences = passages.sentences
    if not _is_title(passages, at) or not _opens_paragraph(passages, at):
        return None
    together = [
        i
        for i, s in enumerate(sentences)
        if s.headings == sentences[at].headings and _opens_paragraph(passages, i) and not BARE_NUMBER.fullmatch(s.low)
    ]
    titled = sum(_is_title(passages, i) for i in together)
    return sentences[at + 1].span if titled >= max(TITLED_PARAGRAPHS, len(together) / 2) else None


def _values_of(term: Term, passages: Passages, sentence: Sentence) -> Sequence[Found[Value]]:
    """The values of a term's type in a sentence; days without a year too, where the paper or the date beside them tells it."""
    if term.value_type == "date":
        return line_values_of(passages).dates(Line(sentence.span, sentence.span, "sentence", sentence.block))
    return passages.values_in(term.value_type, sentence.span)


def _typed_by_cue(
    term: Term,
    passages: Passages,
    sentence: Sentence,
    values: Sequence[Found[Value]],
    cue: Phrase,
    weight: float,
    why: str,
) -> Iterator[Candidate]:
    text, span = passages.text, sentence.span
    spots: list[tuple[Span, Found[Value] | None, str]] = [
        (f.span, f, "")
        for f in values
        if fits(term, f.value) and (not term.value_says or says(term.value_says, f.span.of(text)))
    ]
    spots += [(gap, None, state) for gap, state in passages.gaps_in(span)]
    spots = [spot for spot in spots if not passages.is_required(spot[0])]
    if cue.has_slot:
        for at, found, state in spots:
            lead = cue.before.search(text[span.start : at.start])
            if (
                lead
                and cue.after.match(text[at.end : span.end])
                and not _excluded(term, text, span, span.start + lead.start(), at)
            ):
                if found is not None:
                    yield candidate(passages, term, found, weight, "cue", why)
                else:
                    yield gap_candidate(passages, at, state, weight - 0.15, "cue", why)
                if not term.several:
                    return
        return
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
        yield candidate(passages, term, found, weight, "cue", why + ", and this is the value nearest to it")
    else:
        yield gap_candidate(passages, at, state, weight - 0.15, "cue", why)


def _party_by_cue(
    term: Term, passages: Passages, sentence: Sentence, cue: Phrase, weight: float, why: str, values: LineValues
) -> Iterator[Candidate]:
    """Names of parties and persons that stand where the cue has its slot."""
    text, span = passages.text, sentence.span
    if not cue.may_stand_in(sentence.low):
        return
    line = Line(span, span, "sentence", sentence.block)
    for found in values.parties(line):
        lead = cue.before.search(text[span.start : found.span.start])
        if (
            lead
            and cue.after.match(text[found.span.end : span.end])
            and not _excluded(term, text, span, span.start + lead.start(), found.span)
        ):
            yield candidate(passages, term, found, weight, "cue", why)
            return


def _excluded(term: Term, text: str, sentence: Span, cue: int, value: Span) -> bool:
    """True where the words of the cue, or those close to the value, say that it is about something else."""
    start = max(sentence.start, min(cue, value.start) - REACH)
    near = text[start : min(sentence.end, value.end + 2 * REACH)]
    return says(term.excludes, near) is not None


# Where the words after a cue go on to something else: "the law of Scotland, and its courts have jurisdiction".
NEXT_CLAUSE = pattern(
    r";|,?\s+(?:provided that|PROVIDED|and for no other)\b"
    r"|,?\s+and\s+(?:(?:the|its|all|any|each|every|their|no)\s+)?(?:\w+\s+){1,3}?(?:submits?|agrees?|ha(?:ve|s)|shall|will|may|must)\b"
)


def _text_by_cue(
    term: Term, passages: Passages, sentence: Sentence, cue: Phrase, weight: float, why: str, headed: Span | None
) -> Iterator[Candidate]:
    text, span = passages.text, sentence.span
    if not cue.has_slot:
        if (
            cue.whole.search(text, span.start, span.end)
            and term.type == "text"
            and (not term.value_says or says(term.value_says, span.of(text)))
        ):
            whole = with_items(passages, headed or span)
            piece = shortened(text, without_number(passages, whole))
            cite = Cite(passages.document, piece)
            quote = (
                quote_around(passages, whole)
                if whole == (headed or span)
                else Cite(passages.document, cut(text, whole, piece))
            )
            yield Candidate("stated", Text(on_one_line(cite.quote)), cite, quote, weight - 0.06, "cue", why)
        return
    m = cue.lead.search(text, span.start, span.end)
    if not m:
        return
    start = without_number(passages, Span(m.end(), span.end)).start if m.end() == span.start else m.end()
    for gap, state in passages.gaps_in(Span(start, span.end)):
        if gap.start - start <= 3:
            yield gap_candidate(passages, gap, state, weight - 0.15, "cue", why)
            return
    end = span.end
    if cue.closing is not None:
        stop = cue.closing.search(text, start, span.end)
        if not stop:
            return
        end = stop.start()
    stop = NEXT_CLAUSE.search(text, start, end)
    if stop:
        end = stop.start()
    start += len(re.match(r"[\s,:;–-]*", text[start:end]).group())  # type: ignore[union-attr]
    piece = Span(start, start + len(text[start:end].rstrip(' .,;:”"')))
    if (
        re.search(r"\b(?:[ap]\.m|Inc|Ltd|Corp|Co|L\.P|p\.l\.c)\Z", piece.of(text))
        and text[piece.end : piece.end + 1] == "."
    ):
        piece = Span(piece.start, piece.end + 1)
    words = piece.of(text).strip()
    if not words or (term.value_says and not says(term.value_says, words)):
        return
    piece = shortened(text, piece)
    cite = Cite(passages.document, piece)
    quote = quote_around(passages, Span(piece.start, piece.start + 1))
    yield Candidate("stated", Text(on_one_line(cite.quote)), cite, quote, weight, "cue", why)


EXCEPTED = pattern(r"\b(?:except|unless|save|but|provided|without|other\s+than|only)\b", re.IGNORECASE)

NEGATION = pattern(r"\b(?:not|no|never|neither|nor|cannot)\b", re.IGNORECASE)


def _by_column_heads(term: Term, passages: Passages) -> Iterator[Candidate]:
    """What the headings of columns decide: "Six months to 30 June (unaudited)"."""
    for table in passages.document.tables:
        for row in range(table.header_rows):
            for cell in table.row_cells(row):
                words = cell.span.of(passages.text)
                for answer, phrases in ((True, term.yes), (False, term.no)):
                    if m := says(phrases, words):
                        at = Cite(passages.document, Span(cell.span.start + m.start(), cell.span.start + m.end()))
                        whole = Cite(passages.document, cell.span)
                        why = f"the heading of a column says {m.group()!r}"
                        yield Candidate("stated", YesNo(answer), at, whole, 0.74, "words", why)


def from_answers(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Yes-or-no terms: sentences whose words decide them."""
    if term.type != "yes_no":
        return
    deciding = passages.possible((*term.yes, *term.no))
    yield from _by_column_heads(term, passages)
    for sentence in passages.sentences_for(deciding):
        words = sentence.span.of(passages.text)
        if says(term.excludes, words) or passages.document.blocks[sentence.block].kind == "heading":
            continue
        bonus = context_bonus(term, sentence.headings)
        denied = says(term.no, words)
        for answer, phrases in ((True, term.yes), (False, term.no)):
            m = denied if answer is False else says(phrases, words)
            negated = m and answer and denied and NEGATION.search(m.group())
            if m and denied and negated and not EXCEPTED.search(words, m.start(), max(m.end(), denied.end())):
                continue  # "a change of control does not require consent" says nothing of consent being needed
            if m:
                at = Span(sentence.span.start + m.start(), sentence.span.start + m.end())
                yield Candidate(
                    "stated", YesNo(answer), Cite(passages.document, at), quote_around(passages, at), 0.82 + bonus, "words",
                    f"the words {m.group()!r} decide it",
                )  # fmt: skip
