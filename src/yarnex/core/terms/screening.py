"""Which documents lack a term that the sheet requires, or have another value than it allows.

In: filled sheets. Out: for each document the terms by which it drops out, with the reason; none where it stays.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from yarnex.core.document import Cite
from yarnex.core.terms.abstract import Abstract
from yarnex.core.terms.model import Finding, Term
from yarnex.core.values import YesNo

LACKING = {
    "not_found": "not found", "blank": "left blank", "redacted": "blacked out", "conflicting": "stated more than once, differently",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Lack:
    """A required term that a document does not meet. near: the nearest mentions, or where it says otherwise."""

    term: Term
    why: str
    cites: tuple[Cite, ...]


@dataclass(frozen=True, slots=True)
class Screened:
    """A document and what it lacks; it stays in where that is nothing."""

    abstract: Abstract
    lacks: tuple[Lack, ...]

    @property
    def stays(self) -> bool:
        return not self.lacks


def screen(abstracts: Sequence[Abstract]) -> tuple[Screened, ...]:
    """Judge each document that is no amendment of another one by its sheet's required terms and allowed values."""
    return tuple(Screened(a, tuple(lack for f in a.findings if (lack := _lack(f)))) for a in abstracts if not a.amends)


def missed(findings: Sequence[Finding]) -> tuple[tuple[Finding, int], ...]:
    """What a document lacks, each with the number of its details that are lacking with it.

    Details of what is itself lacking are not missed one by one: without a turnover rent there are no sales reports.
    """
    absent = {f.term.id for f in findings if not f.found}
    with_it = Counter(f.term.detail_of for f in findings if not f.found and f.term.detail_of in absent)
    return tuple(
        (f, with_it[f.term.id]) for f in findings if not f.found and (f.term.required or f.term.detail_of not in absent)
    )


def _lack(finding: Finding) -> Lack | None:
    term = finding.term
    if term.required and finding.state in LACKING:
        return Lack(term, LACKING[finding.state], finding.cites or finding.near)
    if term.allowed and finding.usable and not is_allowed(finding):
        return Lack(term, f"says {finding.text!r}; allowed: {', '.join(term.allowed)}", finding.cites)
    return None


def is_allowed(finding: Finding) -> bool:
    """True where a finding's words name one of the values that the sheet allows."""
    words = (
        ("yes" if finding.value.yes else "no") if isinstance(finding.value, YesNo) else " ".join(finding.text.split())
    )
    low = words.lower()
    return any(
        allowed.lower() == low or (len(allowed) > 3 and allowed.lower() in low) for allowed in finding.term.allowed
    )
