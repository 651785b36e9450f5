"""Changes that a document makes to its own text: special terms, endorsements and later parts that put other words in.

In: findings and passages. Out: findings in which the operative value stands, with both cites.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import date

from yarnex.core.document import Cite, Span
from yarnex.core.document.sentences import sentences
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.phrases import says
from yarnex.core.terms.candidates import TYPED, candidate, fits, is_named
from yarnex.core.terms.model import DELETED, Candidate, Finding, Further, Term, before_it, quoted
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.values import (
    DateValue,
    Text,
    Value,
    YesNo,
    find_dates,
    same_value,
)

_q = r"[“\"]([^”\"]{1,80}?)[.,]?[”\"]"
REWORDS = tuple(
    pattern(form, re.IGNORECASE)
    for form in (
        rf"{_q}[^“”\"]{{0,120}}?\b(?:replaced|substituted)\s+(?:with|by)\s+{_q}",
        rf"replacing\s+{_q}\s+(?:with|by)\s+{_q}",
        rf"(?:the\s+words?\s+|the\s+figures?\s+)?{_q}[^“”\"]{{0,60}}?\b(?:shall\s+|is\s+to\s+|are\s+to\s+)?(?:reads?|be\s+read\s+as)\s+{_q}",
        rf"\bfor\s+(?:the\s+(?:words?|figures?|date|sum|expression)\s+)?{_q}\s*,?\s*(?:there\s+(?:is|are|shall\s+be)\s+)?(?:substituted?|inserted?|read)\s+(?:the\s+(?:words?|figures?|date|sum|expression)\s+)?{_q}",
        rf"\b(?:delet(?:e|ing)|strik(?:e|ing)(?:\s+out)?|remov(?:e|ing)|omit(?:ting)?)\s+(?:the\s+(?:words?|figures?|date|sum|expression)\s+)?{_q}[^“”\"]{{0,60}}?\b(?:insert(?:ing)?|substitut(?:e|ing)|put(?:ting)?|replac(?:e|ing)\s+(?:it|them)\s+(?:with|by))\s+(?:in\s+(?:its|their)\s+place\s+)?(?:the\s+(?:words?|figures?|date|sum|expression)\s+)?{_q}",
        rf"{_q}\s+(?:(?:is|are|be|shall\s+be)\s+)?(?:deleted|struck\s+out|removed|omitted)\s+and\s+{_q}\s+(?:(?:is|are|be|shall\s+be)\s+)?(?:inserted|substituted|put\s+in\s+its\s+place)",
        r"the\s+(?:figure|sum|amount|rate|period|percentage)\s+of\s+([^\s,;“”\"][^,;“”\"]{0,40}?)\s+in\s+(?:clause|section|paragraph|condition)[^,;“”\"]{0,40}?\b(?:replaced|substituted)\s+(?:with|by)\s+([^\s,;“”\"]+(?:\s[^\s,;“”\"]+){0,3}?)(?=[,;.]?(?:\s|\Z))",
    )
)
PLACE = pattern(r"\b(?:sections?|clauses?|paragraphs?|conditions?|articles?)\s+(\d[\d.]*\d|\d)", re.IGNORECASE)


CASE = pattern(
    r"\b(?:if|where|unless|in respect of|in the case of|in relation to|for the (?:first|second|last|purposes?)|in the (?:first|second|last)|during|only|until)\b",
    re.IGNORECASE,
)


def rewordings_in(passages: Passages) -> list[tuple[str, str, tuple[str, ...], Span]]:
    """Each "old words" become "new words" of a document: both, the numbers of the clauses named, and the place."""
    kept = passages.__dict__.get("_rewordings")
    if kept is not None:
        return kept  # type: ignore[no-any-return]
    out: list[tuple[str, str, tuple[str, ...], Span]] = []
    low = passages.low
    if any(w in low for w in ("replac", "substitut", " read ", " reads ", "insert")):
        for span in long_sentences(passages):
            words = span.of(passages.text)
            for form in REWORDS:
                for m in form.finditer(words):
                    at = Span(span.start + m.start(), span.start + m.end())
                    out.append((m[1], m[2], tuple(PLACE.findall(words[: m.end()])), at))
    if "instead of" in low:
        for span in _all_sentences(passages):
            words = span.of(passages.text)
            for m in INSTEAD.finditer(words):
                at = Span(span.start + m.start(), span.start + m.end())
                out.append((m["old"], m["new"], tuple(PLACE.findall(words[: m.end()])), at))
    passages.__dict__["_rewordings"] = out
    return out


# "The cap in clause 10.2 is 200% instead of 100%."
INSTEAD = pattern(
    r"\b(?:in|under)\s+(?:clause|section|paragraph|condition|article)\s+\d[\d.]*\s+(?:is|are|shall\s+be|becomes?)\s+(?P<new>[^\s,;][^,;]{0,40}?)\s+instead\s+of\s+(?P<old>[^\s,;][^,;]{0,40}?)(?=[,.;]?(?:\s|\Z))",
    re.IGNORECASE,
)


def _all_sentences(passages: Passages) -> Iterator[Span]:
    """The sentences of paragraphs and of the cells of tables, where order forms set their special terms."""
    yield from (s.span for s in passages.sentences)
    for table in passages.document.tables:
        for cell in table.cells:
            words = cell.span.of(passages.text)
            if len(words) > 20:
                yield from (Span(cell.span.start + s.start, cell.span.start + s.end) for s in sentences(words))


def reworded(old: Finding, amendment: Passages, name: str) -> Finding:
    """The finding with the words that a passage puts in place of those it was taken from, in the clause that it names."""
    if (
        not old.usable
        or old.state == "amended"
        or old.term.type not in ("duration", "percent", "money", "number", "date", "text")
    ):
        return old
    place = _clause_of(amendment, old.cites[0]) if old.cites[0].document is amendment.document else old.cites[0].section
    for before, after, clauses, at in rewordings_in(amendment):
        inside, around = before.lower() in old.text.lower(), old.text.lower() in before.lower()
        if not (inside or around) or not any(re.search(rf"(?<![\d.]){re.escape(c)}(?![\d.])", place) for c in clauses):
            continue
        if old.cites[0].document is amendment.document and at.overlaps(old.cites[0].span):
            continue
        text = re.sub(re.escape(before), after, old.text, flags=re.IGNORECASE) if inside else after
        cite = Cite(amendment.document, at)
        said = ", ".join(filter(None, (name, cite.place)))
        sentence = amendment.sentence_at(at.start)
        whole = sentence.span.of(amendment.text) if sentence is not None else ""
        if CASE.search(whole):  # it changes one case: the rule stays, and the exception is told with it
            told = f"but {quoted(after)} in a special case: {quoted(whole, 200)} ({said})"
            return replace(
                old,
                cites=(*old.cites, Cite(amendment.document, sentence.span if sentence else at)),
                working=(*old.working, told),
                further=(*old.further, Further("special_case", _parsed_again(old, after, amendment), after, cite)),
            )
        return replace(
            old, state="amended", value=_parsed_again(old, text, amendment), text=text, cites=(cite, *old.cites), confidence=min(old.confidence, 0.9),
            working=(f"{said}: {quoted(before)} becomes {quoted(after)}; before: {quoted(old.text)}",), further=before_it(old),
        )  # fmt: skip
    return old


PUT_IN = 0.9  # weight of a value that a paper puts in place of another


def from_rewordings(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Typed terms of a paper that changes another: the value put in place of one, where the sentence or the heading of its clause
    names the term.
    """
    if term.type not in TYPED or not (term.names or term.headings):
        return
    for before, after, _, at in rewordings_in(passages):
        found = [f for f in passages.values_in(term.type, at) if fits(term, f.value)]
        new = [f for f in found if f.span.of(passages.text).lower() in after.lower()]
        if passages.low.count(before.lower()) > 1:
            continue  # it changes its own text, which is told with what was there before
        if len(new) != 1 or not any(True for _ in passages.finders[term.type](before)):
            continue
        block, sentence = passages.document.block_at(at.start), passages.sentence_at(at.start)
        heading = plain_label(block.heading) if block is not None else ""
        words = sentence.span.of(passages.text) if sentence is not None else ""
        said = QUOTED.sub(" ", words)
        named = bool(heading) and is_named((*term.headings, *term.names), heading)
        if term.type == "date" and OPENS.search(term.label):
            named = False  # a term that is changed gets another end
        if not named and not any((m := p.search(said)) and len(m.group()) >= LONG_NAME for p in term.names):
            continue
        if says(term.excludes, words):
            continue
        why = f"put in place of {quoted(before)}"
        yield candidate(passages, term, new[0], PUT_IN, "rewording", why)


OPENS = pattern(r"\b(?:start|begin|commence|first)", re.IGNORECASE)
QUOTED = pattern(r"[“\"][^”\"]*[”\"]")
LONG_NAME = 6  # letters: "date" and "term" stand in too many sentences


def superseded(passages: Passages, place: Span, value: Span) -> bool:
    """True where other words of the document replace, in every case, those that hold a value.

    place: of the line in which it stands; value: of its words.
    """
    if clauses_taken_out(passages) and taken_out_by(passages, Cite(passages.document, value)) is not None:
        return True
    words, section = value.of(passages.text).lower(), ""
    for before, _, clauses, at in rewordings_in(passages):
        low = before.lower()
        if at.overlaps(place) or not (low in words or words in low):
            continue
        section = section or _clause_of(passages, Cite(passages.document, value))
        named = any(re.search(rf"(?<![\d.]){re.escape(c)}(?![\d.])", section) for c in clauses)
        sentence = passages.sentence_at(at.start)
        if named and not (sentence is not None and CASE.search(sentence.span.of(passages.text))):
            return True
    return False


def varied_within(findings: Sequence[Finding], passages: Passages) -> Iterator[Finding]:
    """Findings with what special terms, endorsements and the like of the same document change in its clauses."""
    for finding in findings:
        yield without_effect(reworded(finding, passages, ""), passages)


# "Clause 12.5 (publicity) does not apply.": a clause of the same paper that its special terms take out, in every case.
TAKEN_OUT = pattern(
    r"\b(?:clauses?|sections?|paragraphs?|conditions?|articles?)\s+(?P<number>\d[\d.]*\d|\d+)(?:\s*\([^)]{1,60}\))?(?:\s+(?:of|in)\s+(?:this|these|the)\s+(?:agreement|(?:general|standard|subscription|main)?\s*(?:terms|conditions)(?:\s+and\s+conditions)?))?"
    r"\s+(?:(?:does|do|shall|will)\s+not\s+(?:apply|have\s+effect)|(?:is|are|has\s+been)\s+(?:disapplied|excluded|struck\s+out))(?:\s+to\s+this\s+\w+)?\s*[.;]?\s*\Z",
    re.IGNORECASE,
)
CHANGES_OTHERS = frozenset(("amendment", "side_letter"))  # kinds of paper that speak of another's clauses


def clauses_taken_out(passages: Passages) -> list[tuple[str, Span]]:
    """The numbers of the clauses that a document says do not apply, whatever the case, and where it says so."""
    kept = passages.__dict__.get("_taken_out")
    if kept is not None:
        return kept  # type: ignore[no-any-return]
    out: list[tuple[str, Span]] = []
    low = passages.low
    if any(w in low for w in ("not apply", "not have effect", "disapplied", "excluded", "struck out")):
        from yarnex.core.terms.identity import identify  # which itself reads passages

        if identify(passages.document).kind not in CHANGES_OTHERS:
            for span in _all_sentences(passages):
                words = span.of(passages.text)
                m = TAKEN_OUT.search(words)
                if m is not None and not CASE.search(words):
                    out.append((m["number"], span))
    passages.__dict__["_taken_out"] = out
    return out


def taken_out_by(passages: Passages, place: Cite) -> Span | None:
    """Where the document says that the clause in which a place stands does not apply; None where it does not."""
    if place.document is not passages.document or not clauses_taken_out(passages):
        return None
    clause = _clause_of(passages, place)
    for number, at in clauses_taken_out(passages):
        if not at.overlaps(place.span) and re.search(rf"(?<![\d.]){re.escape(number)}(?!\d|\.\d)", clause):
            return at
    return None


OWN_NUMBER = pattern(r"\(?(\d[\d.]*\d)\)?\s")


def _clause_of(passages: Passages, place: Cite) -> str:
    """The section in which a place stands, and the number with which its own sentence opens where a paragraph holds several."""
    sentence = passages.sentence_at(place.span.start)
    own = OWN_NUMBER.match(sentence.span.of(passages.text)) if sentence is not None else None
    return f"{place.section} {own[1]}" if own is not None else place.section


def without_effect(old: Finding, passages: Passages) -> Finding:
    """The finding as deleted, where the clause that it was taken from does not apply; what it allowed is then not allowed."""
    if not old.usable or old.state not in ("stated", "conflicting") or not old.cites:
        return old
    at = taken_out_by(passages, old.cites[0])
    if at is None:
        return old
    allowed = isinstance(old.value, YesNo) and old.value.yes
    words = Cite(passages.document, at)
    return replace(
        old, state="amended", value=YesNo(False) if allowed else None,
        text=words.quote.strip() if allowed else f"{DELETED}{quoted(old.text)})", cites=(words, *old.cites), further=before_it(old),
        working=(f"{words.place}: {quoted(words.quote)}; without it: {quoted(old.text)}",),
    )  # fmt: skip


def _parsed_again(old: Finding, text: str, passages: Passages) -> Value | None:
    """The value of reworded text, in the term's type."""
    if old.term.type == "text":
        return Text(" ".join(text.split()))
    return next((found.value for found in passages.finders[old.term.type](text)), None)


def long_sentences(passages: Passages) -> list[Span]:
    """Blocks as whole, for sentences that list what is deleted over several semicolons."""
    return [b.span for _, b in passages.blocks if b.kind not in ("table", "heading")]


LATER_PART = pattern(
    r"\b(?:variation|varied|amend\w*|revised|addend\w*|supplement\w*|endorsement|change[sd]?|letter|new terms|increase)\b",
    re.IGNORECASE,
)
FROM = pattern(
    r"\b(?:with effect from|effect(?:ive)?(?: from| on)?|appl(?:y|ies) from|as from|from|on and after)\s+(?:and including\s+)?\Z",
    re.IGNORECASE,
)


def applies_from(passages: Passages, span: Span) -> date | None:
    """The day from which a place of a document applies, where the heading over it or the part that it stands in says so."""
    document = passages.document
    found = document.cell_at(span)
    if found is not None:
        table, cell = found
        head = " ".join(column_path(table, cell, passages.text))
        for day in find_dates(head):
            if FROM.search(head[: day.span.start]):
                return day.value.day
    block = document.block_at(span.start)
    headings = passages.headings_of(block) if block is not None else ""
    if not LATER_PART.search(headings):
        return None
    start = document.sections[block.section].span.start if block is not None and block.section >= 0 else 0
    for found_day in passages.values_in("date", Span(start, span.start)):
        before = passages.text[max(start, found_day.span.start - 40) : found_day.span.start]
        if FROM.search(before) and isinstance(found_day.value, DateValue):
            return found_day.value.day
    return None


def latest_part(best: Candidate, rivals: Sequence[Candidate], passages: Passages) -> tuple[Candidate, date] | None:
    """Of candidates that differ, the one in a part that applies from a later day than the others' parts; None where no part says."""
    dated = [(c, applies_from(passages, c.text.span)) for c in (best, *rivals)]
    later = [(day, -i, c) for i, (c, day) in enumerate(dated) if day is not None]
    if not later:
        return None
    day, _, winner = max(later, key=lambda x: (x[0], x[1]))
    others = [d for c, d in dated if c is not winner and not same_value(c.value, winner.value)]
    return (winner, day) if all(d is None or d < day for d in others) else None


PREVAILS = pattern(
    r"\b(?:(?:shall|will|is\s+to|are\s+to)\s+)?(?:prevails?|takes?\s+(?:precedence|priority)|has\s+priority|have\s+priority)(?:\s+over)?\b",
    re.IGNORECASE,
)
_parts = (
    r"special\s+(?:terms?|conditions?|provisions?)|order\s+forms?|particulars|schedules?|annex(?:es)?|appendix|appendices|exhibits?|endorsements?|statements?\s+of\s+work|main\s+body|clauses"
    r"|(?:general|standard)\s+(?:terms|conditions)|terms\s+and\s+conditions|summary"
)
PARTS = pattern(rf"\b(?:{_parts})\b", re.IGNORECASE)
# "within 25 days unless the Order Form says otherwise"
GIVES_WAY = pattern(
    rf"\bunless\s+(?:otherwise\s+(?:stated|agreed|specified|provided|set\s+out)\s+in\s+(?:the\s+|an?\s+|any\s+)?(?:relevant\s+|applicable\s+)?(?:{_parts})"
    rf"|(?:the\s+|an?\s+|any\s+)?(?:relevant\s+|applicable\s+)?(?:{_parts})\s+(?:states?|says?|provides?|specif(?:y|ies)|sets?\s+out)\s+(?:otherwise|another|a\s+different))\b",
    re.IGNORECASE,
)


def that_gives_way(
    best: Candidate, rivals: Sequence[Candidate], passages: Passages
) -> tuple[Candidate, Candidate, str] | None:
    """Of candidates that differ, the one that holds, the one that holds only unless another part says otherwise, and those
    words; None where no words say so.
    """
    words = {id(c): _gives_way(c, passages) for c in (best, *rivals)}
    for holding in (best, *rivals):
        others = [c for c in (best, *rivals) if not same_value(c.value, holding.value)]
        if words[id(holding)] == "" and others and all(words[id(c)] for c in others):
            return holding, others[0], words[id(others[0])]
    return None


def _gives_way(candidate: Candidate, passages: Passages) -> str:
    sentence = passages.sentence_at(candidate.text.span.start)
    found = GIVES_WAY.search(passages.text, sentence.span.start, sentence.span.end) if sentence is not None else None
    return " ".join(found.group().split()) if found is not None else ""


def precedence_of(passages: Passages) -> tuple[tuple[str, ...], Cite] | None:
    """The parts of a document in the order in which its own words let them prevail, and those words; None without any."""
    for sentence in passages.sentences:
        if "prevail" not in sentence.low and "precedence" not in sentence.low and "priority" not in sentence.low:
            continue
        words = sentence.span.of(passages.text)
        verb = PREVAILS.search(words)
        parts = [" ".join(m.group().lower().split()) for m in PARTS.finditer(words)]
        first = PARTS.search(words)
        if verb and first and first.start() < verb.start() and len(dict.fromkeys(parts)) > 1:
            return tuple(dict.fromkeys(parts)), Cite(passages.document, sentence.span)
    return None


def by_precedence(best: Candidate, rivals: Sequence[Candidate], passages: Passages) -> tuple[Candidate, Cite] | None:
    """Of candidates that differ, the one in the part that prevails, with the words that say so; None where no order decides."""
    order = precedence_of(passages)
    if order is None:
        return None
    ranked = [(_part_rank(c, order[0], passages), i, c) for i, c in enumerate((best, *rivals))]
    first = min(ranked, key=lambda r: (r[0], r[1]))
    others = [rank for rank, _, c in ranked if not same_value(c.value, first[2].value)]
    return (first[2], order[1]) if others and all(first[0] < rank for rank in others) else None


def _part_rank(candidate: Candidate, order: Sequence[str], passages: Passages) -> int:
    """The place of a candidate's part in the order; clauses, and what no part is named for, come where clauses stand."""
    block = passages.document.block_at(candidate.text.span.start)
    headings = passages.headings_of(block) if block is not None else ""
    for rank, part in enumerate(order):
        if part.rstrip("s") in headings:
            return rank
    general = [
        i
        for i, part in enumerate(order)
        if part in ("clauses", "main body") or "terms and" in part or part.startswith(("general", "standard"))
    ]
    return general[0] if general else len(order)
