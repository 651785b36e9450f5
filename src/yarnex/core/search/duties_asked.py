"""What a party must and must not do, where a question asks for its obligations as a whole."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING

from yarnex.core.patterns import pattern
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import ideas_of
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.values import ListOf
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.question import Question

_duties = r"(?:main\s+|key\s+|principal\s+)?(?:obligations|duties|responsibilities|covenants|undertakings)"
DUTIES_ASKED = pattern(
    rf"(?:and\s+)?(?:what\s+(?:are|were)\s+(?:all\s+)?(?:the\s+|an?\s+)?(?P<whose>[\w -]{{2,40}}?)(?:['’]s|s['’])\s+{_duties}"
    rf"|what\s+(?:are|were)\s+(?:all\s+)?the\s+{_duties}\s+of\s+(?:the\s+)?(?P<of>[\w -]{{2,40}}?)"
    rf"|what\s+{_duties}\s+(?:does|do|has|have)\s+(?:the\s+)?(?P<who>[\w -]{{2,40}}?)(?:\s+(?:have|owe|bear))?"
    r"|what\s+must\s+the\s+(?P<must>[\w-]{3,20})\s+do)\W*",
    re.IGNORECASE,
)
BINDS = ("must", "must_not")
NAMED = 0.7  # how surely the question must name the party
SURE, MOST = 0.8, 40


def duties_asked(inquiry: Inquiry, question: Question) -> Finding | None:
    """The list of what binds the party that a question names; None where it asks for no duties, or the paper has none of it."""
    asked = DUTIES_ASKED.fullmatch(question.text)
    if asked is None:
        return None
    from yarnex.core.duties import duties_of  # only these questions need them

    ideas = ideas_of(next(filter(None, asked.groups())))
    mine = []
    for duty in duties_of(inquiry.document, inquiry.passages):
        called = frozenset(stems_of(f"{duty.who} {duty.name}"))
        by_name = all(any(worth >= NAMED and called.issuperset(way) for way, worth in idea.ways) for idea in ideas)
        if ideas and by_name and duty.force in BINDS and duty.cites:
            mine.append(duty)
    if not mine:
        return None
    items = tuple(on_one_line(f"not: {d.what}" if d.force == "must_not" else d.what) for d in mine[:MOST])
    term = Term("answer", question.text, "", "list")
    cites = tuple(d.cites[0] for d in mine[:MOST])
    working = (f"the first {MOST} of {len(mine)}",) if len(mine) > MOST else ()
    why = (f"what binds {mine[0].who}",)
    return Finding(inquiry.document, term, "stated", ListOf(items), "; ".join(items), SURE, cites, working, why=why)
