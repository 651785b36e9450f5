"""One row a term, one cell a document; what can be turned into the same unit is, with the working."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from yarnex.core.document import Document
from yarnex.core.terms import Abstract, Finding, Term
from yarnex.core.values import Money, Quantity, comparable, same_value
from yarnex.core.values.quantities import convert

SAME, DIFFERS, WORDING, GAP, NOWHERE, SINGLE = "same", "differs", "wording", "gap", "nowhere", "single"


@dataclass(frozen=True, slots=True)
class Row:
    """A term over all documents.

    status: "same", "differs", "wording" (texts, to be read side by side), "gap" (the same or wording, but some documents
    say nothing), "nowhere", or "single" (one document only). notes: for each document, how its value compares
    ("= 10.02 per sq ft a year"), "" where there is nothing to say.
    """

    term: Term
    cells: tuple[Finding, ...]
    status: str
    notes: tuple[str, ...]

    @property
    def missing(self) -> tuple[str, ...]:
        """Paths of the documents that say nothing."""
        return tuple(c.document.path for c in self.cells if not c.found)


@dataclass(frozen=True, slots=True)
class Comparison:
    """documents: the columns. amendments: documents that are laid over one of them, with its path."""

    documents: tuple[Document, ...]
    amendments: tuple[tuple[Document, str], ...]
    rows: tuple[Row, ...]

    @property
    def tally(self) -> str:
        """How the terms stand, in one line: "99 of 130 terms stated: 15 the same, 29 differ, ..."."""
        count = Counter(row.status for row in self.rows)
        stated = len(self.rows) - count[NOWHERE]
        said = {SAME: "the same", DIFFERS: "differ", WORDING: "in words to read side by side", GAP: "in some only"}
        parts = ", ".join(f"{count[status]} {words}" for status, words in said.items() if count[status])
        return f"{stated} of {len(self.rows)} terms stated" + (f": {parts}" if parts else "")


def compare(abstracts: Sequence[Abstract]) -> Comparison:
    """Set filled sheets side by side. Amendments are no columns of their own: their changes stand in what they amend."""
    columns = [a for a in abstracts if not a.amends]
    amendments = tuple((a.document, a.amends) for a in abstracts if a.amends)
    rows = []
    for term in _terms(columns):
        cells = tuple(a.finding(term.id) or _not_asked(a, term) for a in columns)
        rows.append(_row(term, cells))
    return Comparison(tuple(a.document for a in columns), amendments, tuple(rows))


def _terms(columns: Sequence[Abstract]) -> list[Term]:
    """The terms of all sheets, each once; those of the sheet that most documents share come first."""
    times = Counter(a.sheet.name for a in columns)
    ordered = sorted(columns, key=lambda a: -times[a.sheet.name])
    out: dict[str, Term] = {}
    for item in ordered:
        for term in item.sheet.terms:
            out.setdefault(term.id, term)
    return list(out.values())


def _not_asked(abstract: Abstract, term: Term) -> Finding:
    return Finding(abstract.document, term, "not_found", why=(f"not asked for in the sheet {abstract.sheet.name!r}",))


def _row(term: Term, cells: tuple[Finding, ...]) -> Row:
    found = [c for c in cells if c.found]
    notes = _notes(cells)
    if not found:
        return Row(term, cells, NOWHERE, notes)
    if len(cells) == 1:
        return Row(term, cells, SINGLE, notes)
    valued = [c for c in found if c.value is not None]
    if term.type == "text":
        alike = (
            all(same_value(valued[0].value, c.value) for c in valued[1:]) and len(valued) == len(found)
            if valued
            else True
        )
        status = SAME if alike and len(found) == len(cells) else (WORDING if len(found) == len(cells) else GAP)
    elif len(valued) == len(found) and all(same_value(valued[0].value, c.value) for c in valued[1:]):
        status = SAME if len(found) == len(cells) else GAP
    else:
        status = DIFFERS
    return Row(term, cells, status, notes)


def _notes(cells: tuple[Finding, ...]) -> tuple[str, ...]:
    """What each sum or area is in the unit of the first document that has one."""
    base = next((c.value for c in cells if isinstance(c.value, Money | Quantity)), None)
    notes = []
    for cell in cells:
        note = ""
        if isinstance(base, Money) and isinstance(cell.value, Money):
            if base.currency != cell.value.currency:
                note = f"in {cell.value.currency or 'no stated currency'}: not compared with {base.currency or 'none'}"
            elif (changed := comparable(cell.value, base)) is not None:
                note = changed[1]
        elif (
            isinstance(base, Quantity)
            and isinstance(cell.value, Quantity)
            and base.unit
            and cell.value.unit != base.unit
        ):
            other = convert(cell.value, base.unit)
            note = f"= {other.value:,.1f} {base.unit.replace('_', ' ')}" if other else ""
        notes.append(note)
    return tuple(notes)
