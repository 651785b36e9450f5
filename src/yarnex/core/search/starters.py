"""Questions worth asking of some documents: from their kinds, and from what is odd, missing or conflicting in them."""

from __future__ import annotations

from collections.abc import Sequence

from yarnex.core.document import Document
from yarnex.core.terms import abstract
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.computed import shown_date
from yarnex.core.terms.identity import identify
from yarnex.core.values import DateValue

MOST_OF_ONE = 8
FORMS = {
    "money": "How much is the {}?", "date": "When is the {}?", "duration": "How long is the {}?", "percent": "What is the {}?", "number": "What is the {}?",
    "party": "Who is the {}?", "yes_no": "Is this so: {}?", "text": "What does it say about {}?", "list": "What are the {}?", "schedule": "What is the {}?",
}  # fmt: skip


def starters(documents: Sequence[Document]) -> list[tuple[Document, str, str]]:
    """For each document, questions that it answers, with why each is worth asking."""
    from yarnex.core.figures.headlines import with_headlines

    out: list[tuple[Document, str, str]] = []
    for document in documents:
        filled = with_headlines(abstract(document, sheet_for(document)))
        label = identify(document).label.lower()
        odd: list[tuple[str, str]] = []
        usual: list[tuple[str, str]] = []
        for finding in filled.findings:
            term = finding.term
            words = (
                term.asked[0][:1].upper() + term.asked[0][1:] + "?"
                if term.asked and term.asked[0].split()[0] in ASKED
                else ""
            )
            question = words or FORMS[term.type].format(term.label[:1].lower() + term.label[1:])
            if finding.state == "conflicting":
                odd.append((question, "it is stated more than once, differently"))
            elif finding.state == "amended":
                odd.append((question, "a later part or paper changed it"))
            elif finding.state in ("blank", "redacted"):
                odd.append(
                    (question, "the place for it is left blank" if finding.state == "blank" else "it is blacked out")
                )
            elif finding.found and term.required:
                usual.append((question, f"people ask it of every {label}"))
            elif finding.state == "computed" and isinstance(finding.value, DateValue):
                usual.append((question, f"it follows from other terms: {shown_date(finding.value.day)}"))
        out += [(document, q, why) for q, why in dict.fromkeys([*odd[: MOST_OF_ONE // 2], *usual])][:MOST_OF_ONE]
    return out


ASKED = (
    "who",
    "when",
    "how",
    "what",
    "which",
    "may",
    "can",
    "is",
    "are",
    "does",
    "where",
    "why",
    "until",
    "within",
    "at",
    "to",
    "on",
    "from",
)
