"""What a figure is: one reported amount, with everything that is needed to compare it with another."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from yarnex.core.document import Cite, Document, Span
from yarnex.core.values.types import plain_number

STATEMENTS = {
    "financial_position": "Financial position",
    "profit_or_loss": "Profit or loss",
    "comprehensive_income": "Comprehensive income",
    "cash_flows": "Cash flows",
    "changes_in_equity": "Changes in equity",
    "segments": "Segments",
    "summary": "Summaries over several periods",
    "per_share": "Per share",
    "indicators": "Indicators and ratios",
    "note": "Notes and other tables",
    "text": "Numbers in sentences",
}


@dataclass(frozen=True, slots=True, order=True)
class FigurePeriod:
    """What a figure covers. end: its last day, or the day itself. months: its length, 0 for an instant (or none told).

    weeks: 52 or 53 where the period is counted in weeks; 0 else.
    """

    end: date
    months: int = 0
    weeks: int = 0

    def to_dict(self) -> dict[str, Any]:
        out: dict[str, Any] = {"end": self.end.isoformat(), "months": self.months or None}
        return out | ({"weeks": self.weeks} if self.weeks else {})

    @property
    def words(self) -> str:
        """In short words: "6 months to 30 Sep 2025", "at 31 Mar 2025"."""
        day = f"{self.end.day} {self.end:%b %Y}"
        if self.weeks:
            return f"{self.weeks} weeks to {day}"
        if not self.months:
            return f"at {day}"
        return f"year to {day}" if self.months == 12 else f"{self.months} months to {day}"


@dataclass(frozen=True, slots=True)
class Figure:
    """One reported amount.

    label: the row's own words (with the column's, where the columns name things and not periods).
    path: the labels around it, outermost first, the label last. item: the standard line that it is, "" where none.
    statement: a key of STATEMENTS. basis: "consolidated", "company", "segment", or "" where nothing tells.
    value: exact, in plain units (thousands and millions resolved), None where the cell says that there is none ("n/a").
    unit: an ISO 4217 code, "percent", "pence", "times", the document's own word for another unit, "" for a bare number.
    per: "share" for amounts a share. scale: what the printed number was multiplied by. marks: qualifiers such as
    "restated", "unaudited", "forecast", "as reported". source: "table", "sentence", "tagged" (Inline XBRL).
    concept, dimensions: of a tagged fact. table, row, column: its place, -1 outside tables.
    """

    document: Document
    span: Span
    label: str
    path: tuple[str, ...]
    value: Decimal | None
    as_printed: str
    unit: str = ""
    per: str = ""
    scale: Decimal = Decimal(1)
    period: FigurePeriod | None = None
    statement: str = "note"
    basis: str = ""
    item: str = ""
    marks: tuple[str, ...] = ()
    source: str = "table"
    concept: str = ""
    dimensions: tuple[tuple[str, str], ...] = ()
    table: int = -1
    row: int = -1
    column: int = -1
    hint: str = ""  # which reading was taken, where the words allow two
    around: Span | None = None  # the row or sentence in which it stands

    @property
    def cite(self) -> Cite:
        """The place of the number itself."""
        return Cite(self.document, self.span)

    @property
    def cites(self) -> tuple[Cite, ...]:
        """The row or sentence that states it (the number itself where there is none)."""
        return (Cite(self.document, self.around or self.span),)

    @property
    def rounding(self) -> Decimal:
        """By how much the printed number may be off: half of its last printed digit, in plain units."""
        m = re.search(r"\d\.(\d+)", self.as_printed.replace(",", ""))
        decimals = len(m[1]) if m else 0
        return self.scale / 2 / Decimal(10**decimals)

    def to_dict(self) -> dict[str, Any]:
        """DESIGN's JSON of a figure."""
        extra = {"concept": self.concept, "dimensions": [list(d) for d in self.dimensions]} if self.concept else {}
        return {
            "document": self.document.path, "label": self.label, "path": list(self.path), "item": self.item or None,
            "statement": self.statement, "basis": self.basis or None, "period": self.period.to_dict() if self.period else None,
            "value": None if self.value is None else plain_number(self.value), "unit": self.unit or None, "per": self.per or None,
            "scale": plain_number(self.scale), "as_printed": self.as_printed, "marks": list(self.marks), "source": self.source, **extra,
            "reading": self.hint, "place": self.cite.place, "cites": [c.to_dict() for c in self.cites],
        }  # fmt: skip
