"""What a paper says of its changes to another: which clauses it strikes out, replaces or adds, and which words."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.model import Sheet, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.rule import Computed, Findings, Rule
from yarnex.core.terms.variations import long_sentences, rewordings_in
from yarnex.core.values import ListOf

DELETES = pattern(r"\b(?:is|are)\s+(?:hereby\s+)?(?:deleted|removed|struck out|cancelled|of no further)", re.IGNORECASE)
REPLACES = pattern(r"\b(?:replaced|substituted|amended|restated)\b", re.IGNORECASE)
ADDS = pattern(r"\b(?:added|inserted|adding|inserting)\b", re.IGNORECASE)
CLAUSE = pattern(
    r"(?:\b(?:Section|Clause|Article|Paragraph)s?\s+|,\s*|\band\s+)(?P<n>\d{1,2}(?:\.\d{1,3})+|\d{1,2}(?=\s*\())",
    re.IGNORECASE,
)
# "Section 3.05 (Sales Kick-Out)", "the last sentence of clause 7": a place of the agreement that is changed, as it is written
_numbered = r"(?:\d{1,3}(?:\.\d{1,3})*(?:\([a-z\d]{1,4}\))*|[A-Z]\b)"
_kinds = r"(?:Sections?|Clauses?|Articles?|Paragraphs?|Conditions?|Schedules?|Exhibits?|Annex|Appendix|Part)"
PLACE = pattern(
    rf"(?:\bthe\s+(?:\w+\s+){{1,3}}of\s+)?\b{_kinds}\s+(?!of\b|to\b){_numbered}(?:(?:,\s+|\s+and\s+){_numbered}(?=[\s,;.]))*(?:\s+of\s+{_kinds}\s+{_numbered})?(?:\s+\((?!the\b)[A-Za-z][^()]{{2,60}}\))?",
    re.IGNORECASE,
)
OF_THIS = pattern(r"\s+(?:of|to)\s+this\b", re.IGNORECASE)
SENTENCE = pattern(r"[^.;]+(?:\.(?=\d)[^.;]+)*[.;]?")


# "The payment described in clause 8 is reduced from four months' rent to two months' rent"
FROM_TO = pattern(
    r"(?P<what>(?:[^.;:\n]|\.(?=\d)){4,90}?)\s+(?:(?:is|are|shall\s+be)\s+(?:hereby\s+)?(?:reduced|increased|raised|lowered|cut|extended|shortened|changed)|goes|go|rises?|falls?)\s+from\s+(?P<old>[^.;,]{1,20}(?:\.\d[^.;,]{0,30})?[^.;,]{0,30}?)\s+to\s+(?P<new>[^;,]{1,60}?)(?=\s+(?:and|on|from|with|once|when|where|if)\b|[;,.]?\s*\Z|[;,.]\s)",
    re.IGNORECASE,
)


def with_changes(sheet: Sheet) -> Sheet:
    """The sheet of what is changed, with the terms of the change before its own."""
    own = {term.id for term in sheet.terms}
    return replace(sheet, terms=(*(t for t in _change_terms() if t.id not in own), *sheet.terms))


@lru_cache(maxsize=1)
def _change_terms() -> tuple[Term, ...]:
    from yarnex.core.terms.sheets import load_sheet

    return load_sheet("change").terms


def struck_out(passages: Passages) -> Iterator[tuple[str, Span]]:
    """Numbers of the clauses that a paper takes out of another, each with the passage that does it."""
    for passage in long_sentences(passages):
        words = passage.of(passages.text)
        m = DELETES.search(words)
        if m and not REPLACES.search(words[m.end() : m.end() + 40]):
            for clause in CLAUSE.finditer(words):
                before = words[max(0, clause.start() - 30) : clause.start()].lower()
                if "sentence" not in before and "sub" not in before:
                    yield clause["n"], passage


MARK = pattern(r"\W*(?:\(?[a-z\d]{1,3}[.)]\s+)?")


def without_mark(words: str) -> str:
    """Words without the number or letter of their paragraph."""
    return words[len(m.group()) if (m := MARK.match(words)) else 0 :]


def _told(passages: Passages, places: list[tuple[str, Span]]) -> Computed | None:
    if not places:
        return None
    items = tuple(dict.fromkeys(" ".join(words.split()) for words, _ in places))
    cites = tuple(Cite(passages.document, span) for span in dict.fromkeys(span for _, span in places))
    return Computed(ListOf(items), "; ".join(items), (), cites, "stated")


def _places_in(passages: Passages, passage: Span) -> list[str]:
    words = passage.of(passages.text)
    found = [m for m in PLACE.finditer(words) if not OF_THIS.match(words, m.end())]
    return [m.group() for m in found]


def clauses_struck_out(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The places that are deleted and nothing put in their place, as the paper names them."""
    told: list[tuple[str, Span]] = []
    for passage in dict.fromkeys(span for _, span in struck_out(passages)):
        told += [(words, passage) for words in _places_in(passages, passage)]
    return _told(passages, told)


def clauses_replaced(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The places for which the paper gives other words, or that it adds."""
    told: list[tuple[str, Span]] = []
    for passage in long_sentences(passages):
        words = passage.of(passages.text)
        for m in SENTENCE.finditer(words):
            sentence = Span(passage.start + m.start(), passage.start + m.end())
            verb = REPLACES.search(m.group()) or ADDS.search(m.group())
            if verb is None or not re.search(r"\b(?:is|are|by)\b", m.group()):
                continue
            before = Span(sentence.start, sentence.start + verb.start())
            told += [(place, passage) for place in _places_in(passages, before)[:1]]
    return _told(passages, told)


def words_replaced(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The words that are put in place of others, with the places where they stand."""
    told = []
    for before, after, clauses, at in rewordings_in(passages):
        where = f" ({', '.join(clauses)})" if clauses else ""
        told.append((f"“{before}” becomes “{after}”{where}", at))
    for passage in long_sentences(passages):
        for m in FROM_TO.finditer(passage.of(passages.text)):
            at = Span(passage.start + m.start(), passage.start + m.end())
            if not any(at.overlaps(span) for _, span in told):
                what = without_mark(m["what"])
                told.append((f"{what}: “{m['old']}” becomes “{m['new']}”", at))
    return _told(passages, told)


CHANGE_RULES: dict[str, Rule] = {
    "clauses_struck_out": clauses_struck_out,
    "clauses_replaced": clauses_replaced,
    "words_replaced": words_replaced,
}
