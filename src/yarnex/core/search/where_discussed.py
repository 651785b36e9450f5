"""Where a paper deals with something: the sections whose headings name it, else the pages that speak of it."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import Idea, ideas_of
from yarnex.core.values import ListOf
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.question import Question

PAGES_ASKED = pattern(
    r"(?:and\s+)?(?:on\s+)?(?:which|what)\s+(?:pages?|sections?|parts?|chapters?|slides?|sheets?)\s+(?:of\s+(?:it|the\s+\w+)\s+)?"
    r"(?:discuss(?:es)?|deals?\s+with|covers?|treats?|describes?|mentions?|(?:talks?|speaks?|says?\s+(?:any|some)thing)\s+(?:about|of)|(?:is|are)\s+about|concerns?)\s+(?P<what>[^?]{2,80}?)\W*",
    re.IGNORECASE,
)
NAMED = 0.7  # how surely words must name each part of what is asked
BY_HEADING, BY_WORDS = 0.85, 0.6  # how sure a place is that its heading names, and one that only speaks of it
MOST = 12


def where_discussed(inquiry: Inquiry, question: Question) -> Finding | None:
    """The places that deal with what a question asks for, in the order of the paper; None where it asks for no places, or none do."""
    asked = PAGES_ASKED.fullmatch(question.text)
    ideas = ideas_of(asked["what"]) if asked is not None else ()
    if not ideas:
        return None
    document = inquiry.document
    for least in (1.0, NAMED):  # in its own words, else in others for it
        titled = [s for s in document.sections if s.heading and _names(frozenset(stems_of(s.heading)), ideas, least)]
        headed = titled[:MOST]
        if not headed:
            continue
        places = [f"{s.name}{_pages(Cite(document, s.span))}" for s in headed]
        heads = tuple(Cite(document, _heading_of(document, s.span)) for s in headed)
        return _told(inquiry, question, places, heads, BY_HEADING, "its heading names it")
    told = [
        s for s in inquiry.passages.sentences if _names(frozenset(stems_of(s.span.of(document.text))), ideas, NAMED)
    ]
    by_page = Counter(document.pages_of(s.span)[0] for s in told)
    firsts: dict[int, Cite] = {}
    for sentence in told:
        firsts.setdefault(document.pages_of(sentence.span)[0], Cite(document, sentence.span))
    pages = sorted(sorted(by_page, key=lambda p: -by_page[p])[:MOST])
    if not pages:
        return None
    if pages == [0]:  # no pages: the places of the sentences
        found = tuple(Cite(document, s.span) for s in told[:MOST])
        return _told(inquiry, question, [c.place for c in found], found, BY_WORDS, "these words speak of it")
    places = [f"p. {p} ({by_page[p]} time{'s' if by_page[p] > 1 else ''})" for p in pages]
    return _told(inquiry, question, places, tuple(firsts[p] for p in pages), BY_WORDS, "these pages speak of it")


def _told(
    inquiry: Inquiry, question: Question, places: Sequence[str], cites: tuple[Cite, ...], confidence: float, why: str
) -> Finding:
    term = Term("answer", question.text, "", "list")
    return Finding(
        inquiry.document, term, "stated", ListOf(tuple(places)), "; ".join(places), confidence, cites, why=(why,)
    )


def _names(stems: frozenset[str], ideas: Sequence[Idea], least: float) -> bool:
    return all(any(worth >= least and stems.issuperset(way) for way, worth in idea.ways) for idea in ideas)


def _heading_of(document: Document, section: Span) -> Span:
    """The block with the heading of a section."""
    block = document.block_at(section.start)
    return block.span if block is not None else section


def _pages(cite: Cite) -> str:
    first, last = cite.pages
    return "" if not first else f", p. {first}" if first == last else f", pp. {first}–{last}"
