"""What are the risks: the items of the list that a heading, a column or a lead-in names, where no term or sentence tells them.

In: a question that asks for things of one kind. Out: a finding whose value is the list; None where nothing lists them.
"""

from __future__ import annotations

import re

from yarnex.core.patterns import pattern
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.question import Question
from yarnex.core.search.rosters import roster
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import ideas_of
from yarnex.core.values import ListOf
from yarnex.core.words import stems_of

ASKS_FOR = pattern(
    r"\A(?:(?:and|please)\s+)?(?:(?:what|which|who)\s+(?:are|were)\s+(?:all\s+)?(?:of\s+)?(?:the|its|their|our|his|her)|list\s+(?:all\s+)?(?:the)?)\s+"
    r"(?:(?:main|key|principal|chief|most\s+important|major|various|different|several|named|listed|stated)\s+)?(?P<things>[^?,;]{3,60})\??\Z",
    re.IGNORECASE,
)
UNDER = pattern(r"\bunder '(?P<heading>.*)'")
MOST, SURE = 40, 0.6


def _says(heading: str, things: str) -> bool:
    """True where a heading names all that is asked for, in any words for it."""
    said = frozenset(stems_of(heading))
    return all(
        any(said.issuperset(way) and (len(way) > 1 or len(idea.name) == 1) for way, _ in idea.ways)
        for idea in ideas_of(things)
    )


def listed_there(inquiry: Inquiry, question: Question) -> Finding | None:
    """The list of what is asked for, by its own heading; at least two items."""
    asked = ASKS_FOR.match(question.text.strip())
    if asked is None or question.kinds[0] not in ("list", "text"):
        return None
    found = roster(inquiry.document, asked["things"].strip())
    if not 2 <= len(found.items) <= MOST:
        return None
    headed = UNDER.search(found.source)
    if headed and not _says(headed["heading"], asked["things"]):
        return None
    items = tuple(i.text for i in found.items)
    cites = tuple(i.cites[0] for i in found.items if i.cites)
    term = Term("answer", question.text, "", "list")
    why = (f"listed in {found.source}" if found.source else "a list of them",)
    return Finding(inquiry.document, term, "stated", ListOf(items), "; ".join(items), SURE, cites, why=why)
