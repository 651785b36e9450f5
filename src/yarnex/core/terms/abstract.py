"""The sheet of a document, filled: candidates weighed, rivals compared, what follows worked out."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date

from yarnex.core.document import Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import TYPED, on_one_line
from yarnex.core.terms.computed import RULES, formula_words, of_an_extra, shown_date
from yarnex.core.terms.conditions import condition_of, told_with, with_its_start
from yarnex.core.terms.finders import FINDERS
from yarnex.core.terms.model import Candidate, Finding, Further, Sheet, Term, quoted
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.ranges import OVER_A_RATE, range_ending
from yarnex.core.terms.untold_gaps import untold_gaps
from yarnex.core.terms.variations import by_precedence, latest_part, that_gives_way, varied_within
from yarnex.core.values import Duration, Percent, Quantity, Text, same_rounded, same_value

CONFLICT_FLOOR = 0.8  # evidence weaker than this never makes a conflict
CONFLICT_MARGIN = 0.05
NEAR_SHOWN = 3
SENTENCES = ("cue", "definition", "words")  # finders that read values in sentences
ENDORSED = pattern(r"\b(?:endorsements?|riders?)\b", re.IGNORECASE)
PART_AT_MOST = 0.6  # confidence in what holds for a part only
OF_A_PART = 0.1  # how much less a value counts as the general rule where it holds for one part only
PART_ONLY = pattern(
    r"(?:\W|\(?[\da-z]{1,4}[.)]\s)*(?i:in respect of|with respect to|in relation to|as regards|in the case of|for|at|during)\s[^,;.]{0,70}"
    r"\b(?!(?:January|February|March|April|May|June|July|August|September|October|November|December|Sections?|Clauses?|Articles?|Paragraphs?|Schedules?|Annex|Appendix|Exhibit|Regulation)\b)[A-Z][a-z]+s?\s(?:\d{1,3}|[A-Z])(?![\w.,]*\d)\b"
)
AUTO = "auto"  # the sheet of each document's kind
LEADER = pattern(r"(?:\.\s?){5,}")  # a line of a contents page
SPECIAL = pattern(r"special (?:condition|provision|term)s?", re.IGNORECASE)


@dataclass(frozen=True)
class Abstract:
    """The findings of one document, in the sheet's order."""

    document: Document
    sheet: Sheet
    findings: tuple[Finding, ...]
    passages: Passages
    amends: str = ""  # the path of the document that this one amends
    amended_by: tuple[str, ...] = ()
    not_yet: tuple[tuple[str, date], ...] = ()  # amendments that take effect later than the day asked for
    deleted_clauses: tuple[str, ...] = ()  # numbers of the clauses that amendments took out

    def finding(self, term: str) -> Finding | None:
        """The finding for a term's id."""
        return next((f for f in self.findings if f.term.id == term), None)


BETTER_WORKED_OUT = ("signatories",)  # a block of signatures tells more than the words "signed by"


def candidates_of(term: Term, passages: Passages) -> list[Candidate]:
    """All candidates of all finders, strongest first; among equals, the first in the document."""
    found = [c for finder in FINDERS for c in finder(term, passages)]
    if term.figure:
        found = [_after_the_change(c, passages) for c in found if not _looks_ahead(c, passages)]
        found = [c for c in found if not _is_a_change(c, passages)]
    return sorted(
        found, key=lambda c: (-round(c.weight - OF_A_PART * _is_of_a_part(c), 3), c.text.span.start, c.finder)
    )


# What is hoped for is no result: "we now expect full-year sales of ...".
LOOKS_AHEAD = pattern(
    r"\b(?:we|i|board|directors|management|group|company|it|is|are)\s+(?:\w+\s+){0,2}(?:expects?|expected|anticipates?|forecasts?|guid(?:e|es|ing)|targets?|aims?|plans?|projects?|budgets?|hopes?)\b(?:\s+(?:to|that|of|for|full|a|an|the|our|its|between|\w+)\b)?"
    r"|\b(?:outlook|guidance|forecast|target|budget)\s+(?:for|is|of|remains|range)\b|\bnext\s+(?:financial\s+)?year\b",
    re.IGNORECASE,
)


AS_GUIDANCE = pattern(r"[^.]{0,40}\b(?:guidance|outlook)\b[^.]{0,60}\.?\s*\Z", re.IGNORECASE)
PAST = pattern(r"\b(?:was|were|rose|fell|came|had|stood|grew|spent|invested)\b")


def _looks_ahead(candidate: Candidate, passages: Passages) -> bool:
    """True for a value in a sentence that says before it what is expected, or without a verb of the past behind "Guidance for
    the year."
    """
    if candidate.finder not in SENTENCES:
        return False
    sentence = passages.sentence_at(candidate.text.span.start)
    if sentence is None:
        return False
    if LOOKS_AHEAD.search(passages.text, sentence.span.start, candidate.text.span.start):
        return True
    before = passages.sentence_at(max(0, sentence.span.start - 2))
    guided = before is not None and before.block == sentence.block and AS_GUIDANCE.match(before.span.of(passages.text))
    return bool(guided) and PAST.search(sentence.low) is None


A_CHANGE = pattern(
    r"\b(?:rose|risen|fell|fallen|grew|grown|increased|decreased|reduced|improved|declined|dropped|went\s+(?:up|down)|up|down)\s+by\s+(?:about\s+|some\s+|over\s+)?\Z",
    re.IGNORECASE,
)


TO_IT = pattern(r",?\s+to\s+(?=[£$€\d])")


def _after_the_change(candidate: Candidate, passages: Passages) -> Candidate:
    """The candidate with what it came to, "to £38.8 million", where its value is only by how much it rose or fell."""
    to_it = TO_IT.match(passages.text, candidate.text.span.end) if _is_a_change(candidate, passages) else None
    if to_it is None:
        return candidate
    there = Span(to_it.end(), min(len(passages.text), to_it.end() + 40))
    came_to = next((f for f in passages.values_in("money", there) if f.span.start == there.start), None)
    if came_to is None:
        return candidate
    return replace(candidate, value=came_to.value, text=Cite(passages.document, came_to.span))


def _is_a_change(candidate: Candidate, passages: Passages) -> bool:
    """True for a value by which something rose or fell, which is not what it came to."""
    at = candidate.text.span.start
    return candidate.finder in SENTENCES and A_CHANGE.search(passages.text, max(0, at - 40), at) is not None


def _is_of_a_part(candidate: Candidate) -> bool:
    """True for what a sentence says of some numbered part only, "For Mill 4 the period is ...", and for what
    an endorsement says without taking the place of the general rule.
    """
    if candidate.finder not in SENTENCES or isinstance(candidate.value, Text):
        return False
    words = candidate.quote.quote
    added = ENDORSED.search(candidate.quote.section) is not None and VARIES.search(words) is None
    return added or PART_ONLY.match(words) is not None


def abstract(
    document: Document, sheet: Sheet, passages: Passages | None = None, known: Mapping[str, Finding] | None = None, *,
    mentions: bool = True,
) -> Abstract:  # fmt: skip
    """Fill the sheet for one document. Every term gets a finding, `not_found` ones with the nearest mentions.

    passages: those of the document, where they were made before. known: findings for terms that are not in the sheet, from
    which others may be worked out. mentions: whether those that were not found are given with the nearest mentions.
    """
    passages = passages or Passages(document)
    findings = dict(known or {})
    for term in sheet.terms:
        findings[term.id] = _chosen(term, candidates_of(term, passages), passages, mentions)
    for _ in range(2):  # a computed value may be what another one needs
        for term in sheet.terms:
            if term.compute and (
                _open(findings[term.id]) or of_an_extra(term, findings) or term.compute in BETTER_WORKED_OUT
            ):
                made = RULES[term.compute](term, findings, passages)
                if made is not None:
                    findings[term.id] = Finding(
                        document, term, made.state, made.value, made.text, min(_least(made.cites, findings), 0.9), made.cites,
                        made.working, why=(f"worked out by the rule {term.compute!r}",),
                    )  # fmt: skip
    for term in sheet.terms:
        if term.compute and term.type == "date" and _open(findings[term.id]) and findings[term.id].state != "stated":
            cite = formula_words(term, passages)
            if cite is not None:
                findings[term.id] = Finding(
                    document,
                    term,
                    "stated",
                    None,
                    cite.quote,
                    0.62,
                    (cite,),
                    ("a formula; the day that it counts from is not known",),
                )
    filled = tuple(varied_within(tuple(findings[t.id] for t in sheet.terms), passages))
    more = tuple(other_particulars(filled, passages, lists=sheet.particulars == "all")) if sheet.particulars else ()
    gaps = tuple(untold_gaps((*filled, *more), passages)) if sheet.particulars else ()
    return Abstract(document, sheet, (*filled, *more, *gaps), passages)


def sheet_for(document: Document, name: str = AUTO) -> Sheet:
    """The sheet of this name or file; with "auto", the one for the document's kind. Raises PackError."""
    from yarnex.core.terms.changes import with_changes
    from yarnex.core.terms.identity import CHANGES_ANOTHER, identify, kind_amended
    from yarnex.core.terms.sheets import OTHER, load_sheet, sheet_for_kind

    if name != AUTO:
        return load_sheet(name)
    kind = identify(document).kind
    if kind in CHANGES_ANOTHER:
        return with_changes(load_sheet(sheet_for_kind(kind_amended(document) or kind)))
    return load_sheet(OTHER if kind == "unknown" and not _agrees(document) else sheet_for_kind(kind))


AGREES = pattern(
    r"\b(hereby|part(?:y|ies)|agree(?:s|d|ments?)?|shall|covenants?|undertakes?|terminat\w+|warrants?|indemnif\w+|liable|governed)\b",
    re.IGNORECASE,
)
WORDS_OF_AGREEMENT = 3  # different ones


def _agrees(document: Document) -> bool:
    """True for a paper of no known kind that is worded as an agreement."""
    found = {m.group().lower() for m in AGREES.finditer(document.text[:20_000])}
    return len(found) >= WORDS_OF_AGREEMENT


def abstract_all(
    documents: Sequence[Document], sheet: Sheet | str = AUTO, as_of: date | None = None
) -> tuple[Abstract, ...]:
    """Fill each document's sheet; amendments among them are laid over the documents that they amend.

    as_of: the day whose terms are wanted; amendments that take effect later are left out. None for the latest terms.

    sheet: a sheet, its name or file, or "auto" for the sheet of each document's kind; an amendment takes that of what it amends.
    """
    from yarnex.core.terms.amendments import lay_over, sheets_of_bases

    chosen = [sheet if isinstance(sheet, Sheet) else sheet_for(document, sheet) for document in documents]
    if sheet == AUTO:
        chosen = sheets_of_bases(documents, chosen)
    return lay_over([abstract(d, s) for d, s in zip(documents, chosen, strict=True)], as_of)


def _open(finding: Finding) -> bool:
    """True where a rule may fill the term: nothing was found, or only a formula in words."""
    return finding.state in ("not_found", "blank") or (finding.state == "stated" and finding.value is None)


def _least(cites: Sequence[Cite], findings: dict[str, Finding]) -> float:
    """The lowest confidence among the findings that share these cites."""
    used = [f.confidence for f in findings.values() if f.cites and any(c in f.cites for c in cites)]
    return min(used, default=0.85)


def _of_the_title(candidate: Candidate, document: Document) -> bool:
    """True for what stands in the paper's title, or in the line that goes on from it: "for the year ended 31 March"."""
    from yarnex.core.terms.identity import identify

    title, at = identify(document).title, candidate.text.span.start
    if title is None or not title.span.start <= at <= title.span.end + AFTER_TITLE:
        return False
    return at < title.span.end or GOES_ON.match(document.text, title.span.end) is not None


AFTER_TITLE = 60  # letters
GOES_ON = pattern(r"\s*(?:for|as\s+at|at|to)\b", re.IGNORECASE)


WORDS_AT_ALL = pattern(r"[^\W\d_]{3,}")
FOR_COMPARISON = pattern(r"\((?:[\w ]{0,24}\s)?(?:19|20)\d\d(?:[/-]\d\d)?:\s*(?:[£$€]\s?)?\Z")  # "(2024: £9.8 million)"
LESS_SURE = 0.025


def _as_sure_beside(other: Candidate, shown: Sequence[Candidate]) -> bool:
    """True for a value of a sentence that is quoted already, where it is found as surely as the first and is none for comparison."""
    before = other.text.document.text[max(0, other.text.span.start - 48) : other.text.span.start]
    return (
        other.weight >= shown[0].weight - LESS_SURE
        and FOR_COMPARISON.search(before) is None
        and not any(other.text.span.overlaps(c.text.span) for c in shown)
    )


MOST_PLACES = 12  # told for a term of which there may be several


def _chosen(term: Term, found: list[Candidate], passages: Passages, mentions: bool = True) -> Finding:
    document = passages.document
    if not found or found[0].weight < 0.5:
        looked = _looked_for(term, passages)
        near = tuple(_nearest(term, passages)) if mentions else ()
        return Finding(document, term, "not_found", near=near, why=(looked,), rivals=tuple(found))
    best, exception = _rule_before_exception(found, term)
    same = [
        c
        for c in found
        if c is not best and c.state == best.state and same_value(c.value, best.value) and c.value is not None
    ]
    rivals = (
        [] if term.several else [c for c in found if c is not best and c is not exception and _differs(best, c, term)]
    )
    if _of_the_title(best, document):
        rivals = []  # what the title says is the paper's own; others are of what it tells
    if exception is None and not term.several and not _is_of_a_part(best):
        parts = [c for c in rivals if _is_of_a_part(c)]
        exception = parts[0] if parts else None
        rivals = [c for c in rivals if c not in parts]
    if rivals and term.type in TYPED and not SPECIAL.search(best.quote.section):
        cases = [c for c in rivals if _is_special_case(c)]
        exception = exception or (cases[0] if cases else None)
        rivals = [c for c in rivals if c not in cases]
    places = {(c.quote.span.start // 40) for c in same} - {best.quote.span.start // 40}
    confidence = min(0.98, best.weight + 0.02 * min(3, len(places)))
    why = (
        f"{best.finder}: {best.why}",
        *(f"rival ({c.weight:.2f}, {c.finder}): {c.text.quote[:80]}" for c in found[1:4]),
    )
    state, cites, working = best.state, [best.quote], list(best.working)
    further: list[Further] = []
    later = latest_part(best, rivals, passages) if rivals else None
    if later is not None:
        before = next(c for c in (best, *rivals) if not same_value(c.value, later[0].value))
        best, state = later[0], "amended"
        confidence = min(0.9, best.weight)
        cites = [best.quote, before.quote]
        further.append(_further("before", before))
        working = [
            f"applies from {shown_date(later[1])}; before: {quoted(before.text.quote)} ({before.quote.place})",
            *best.working,
        ]
    elif rivals and (prevailing := by_precedence(best, rivals, passages)) is not None:
        before = next(c for c in (best, *rivals) if not same_value(c.value, prevailing[0].value))
        best = prevailing[0]
        confidence = min(0.85, best.weight)
        cites = [best.quote, prevailing[1], before.quote]
        further.append(_further("overridden", before))
        working = [
            f"prevails over {quoted(before.text.quote)} ({before.quote.place}): {quoted(prevailing[1].quote)}",
            *best.working,
        ]
    elif rivals and (decided := that_gives_way(best, rivals, passages)) is not None:
        best, default, words = decided
        cites = [best.quote, default.quote]
        further.append(_further("overridden", default))
        working = [f"in place of {quoted(default.text.quote)} ({default.quote.place}): {quoted(words)}", *best.working]
    elif rivals:
        state = "conflicting"
        confidence = min(confidence, 0.6)
        for rival in _different(rivals)[:3]:
            cites.append(rival.quote)
            further.append(_further("conflicting", rival))
            working.append(f"also stated as {quoted(rival.text.quote)} ({rival.quote.place})")
    elif term.type == "text" and best.state == "stated" and not term.several:
        special = bool(SPECIAL.search(best.quote.section))
        for other in found[1:]:
            apart = not other.quote.span.overlaps(best.quote.span)
            if bool(SPECIAL.search(other.quote.section)) is not special and apart and other.weight >= 0.7:
                which = "the main clause says" if special else "a special condition adds or varies"
                cites.append(other.quote)
                further.append(_further("also_stated" if special else "special_case", other))
                working.append(f"{which}: {quoted(other.text.quote)} ({other.quote.place})")
                break
    elif term.several:
        shown = [best]
        for other in found[1:]:
            beside = any(other.quote.span.overlaps(c.span) for c in cites)  # in a sentence that is quoted anyway
            if (
                len(shown) < MOST_PLACES
                and other.weight >= 0.7
                and other.value is not None
                and (term.type != "text" or len(WORDS_AT_ALL.findall(other.text.quote)) > 1)
                and not (beside and (term.type == "text" or not _as_sure_beside(other, shown)))
                and not any(same_value(other.value, c.value) for c in shown)
            ):
                shown.append(other)
                if not beside:
                    cites.append(other.quote)
                further.append(_further("also_stated", other))
                told = f"{quoted(other.text.quote)} ({other.quote.place})" if term.type != "text" else other.quote.place
                working.append(f"also stated: {told}")  # of a text the cite holds the words
    else:
        second = next(
            (c for c in same if abs(c.quote.span.start - best.quote.span.start) > 200 and c.weight > 0.7), None
        )
        if second is not None and best.state == "stated" and term.type != "text":
            cites.append(second.quote)
    if best.finder in SENTENCES and term.type in TYPED and best.value is not None:
        condition = condition_of(passages, best.text.span)
        if condition and condition not in best.text.quote:
            working.append(f"with the condition {quoted(condition, 220)}")
    elif best.finder == "label" and term.type in TYPED and best.value is not None:
        whole_cell = told_with(passages, best.text.span)
        if whole_cell:
            working.append(f"stated as {quoted(whole_cell, 220)}")
    if isinstance(best.value, Quantity) and (again := _in_another_unit(best, found)) is not None:
        further.append(_further("also_stated", again))
        working.append(f"also stated as {quoted(again.text.quote)} ({again.quote.place})")
    if _is_of_a_part(best) and not term.several:
        confidence = min(confidence, PART_AT_MOST)
        working.append("said of one part only; no general rule was found")
    if exception is not None:
        cites.append(exception.quote)
        further.append(_further("special_case", exception))
        working.append(
            f"but {quoted(exception.text.quote)} in a special case: {quoted(exception.quote.quote, 160)} ({exception.quote.place})"
        )
    value, words = best.value, best.text.quote
    if state == "stated" and (whole := range_ending(passages.text, best.quote.span.start, best.text.span, value)):
        words = whole.of(passages.text)
        value = Text(on_one_line(words))
    elif (
        state == "stated"
        and isinstance(value, Percent)
        and (over := OVER_A_RATE.match(passages.text, best.text.span.end))
    ):
        words = passages.text[best.text.span.start : over.end()]
    elif isinstance(value, Duration) and best.value is value:
        words = on_one_line(with_its_start(passages.text, best.text.span, best.quote.span.start).of(passages.text))
    return Finding(
        document, term, state, value, words, confidence, tuple(cites), tuple(working), tuple(further), why=why, rivals=tuple(found),
    )  # fmt: skip


def _in_another_unit(best: Candidate, found: Sequence[Candidate]) -> Candidate | None:
    """The candidate that says the same in another unit: "629.4 sq m" and "6,775 sq ft"."""
    unit = best.value.unit if isinstance(best.value, Quantity) else None
    for other in found:
        if (
            isinstance(other.value, Quantity)
            and other.value.unit not in (unit, None)
            and same_value(other.value, best.value)
        ):
            return other
    return None


def _further(role: str, candidate: Candidate) -> Further:
    return Further(role, candidate.value, on_one_line(candidate.text.quote), candidate.quote)


LIMITED = pattern(
    r"\b(?:in respect of|in the case of|in relation to|as regards|where|if|until|only|that (?:are|is)|which (?:are|is)|for (?:the |any |each |all )?(?:first|second|third|last|products?|goods|items?|premises|[A-Z]\w+))\b"
)


def _is_special_case(candidate: Candidate) -> bool:
    """True for what a special term says of some cases only: "invoices for goods that are kept cold are payable ..."."""
    words = candidate.quote.quote
    special = SPECIAL.search(candidate.quote.section) is not None
    return special and LIMITED.search(words) is not None and VARIES.search(words) is None


def _rule_before_exception(found: list[Candidate], term: Term) -> tuple[Candidate, Candidate | None]:
    """The general rule, and the special term that departs from it for some cases only."""
    best = found[0]
    if (
        term.type not in TYPED
        or term.several
        or not SPECIAL.search(best.quote.section)
        or not LIMITED.search(best.quote.quote)
    ):
        return best, None
    if VARIES.search(best.quote.quote):
        return best, None
    for other in found[1:]:
        general = other.weight >= CONFLICT_FLOOR and not SPECIAL.search(other.quote.section)
        if general and _differs(other, replace(best, weight=other.weight), term):
            return other, best
    return best, None


VARIES = pattern(
    r"\b(?:instead of|in place of|is (?:amended|replaced|varied)|shall read|notwithstanding)\b", re.IGNORECASE
)


def _different(rivals: list[Candidate]) -> list[Candidate]:
    """Rivals without those that say the same in the same place."""
    out: list[Candidate] = []
    for rival in rivals:
        if not any(r.quote.span.overlaps(rival.quote.span) for r in out):
            out.append(rival)
    return out


def _differs(best: Candidate, other: Candidate, term: Term) -> bool:
    """True where another candidate is strong, says something else, and stands somewhere else."""
    if best.state != "stated" or other.state != "stated" or term.type not in (*TYPED, "yes_no"):
        return False
    if best.value is None or other.value is None or other.quote.span.overlaps(best.quote.span):
        return False
    strong = other.weight >= max(CONFLICT_FLOOR, best.weight - CONFLICT_MARGIN)
    return strong and not same_value(best.value, other.value) and not same_rounded(best.value, other.value)


def _looked_for(term: Term, passages: Passages) -> str:
    kinds = []
    if term.names:
        kinds.append("labels and definitions")
    if term.headings:
        kinds.append("clause headings")
    if term.cues or term.yes or term.no:
        kinds.append(f"the wording of {len(passages.sentences)} sentences")
    return "looked in " + ", ".join(kinds) if kinds else "worked out from other terms only"


def _nearest(term: Term, passages: Passages) -> Iterator[Cite]:
    """Sentences that name the term without giving a value for it."""
    shown = 0
    phrases = [p for p in passages.possible((*term.near, *term.names, *term.headings)) if len(p.text) > 4]
    for sentence in passages.sentences_for(phrases):
        if len(sentence.low) > 25 and any(p.search(sentence.low) for p in phrases):
            if LEADER.search(sentence.low):
                continue
            yield Cite(passages.document, sentence.span)
            shown += 1
            if shown == NEAR_SHOWN:
                return
