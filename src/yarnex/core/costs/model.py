"""What a bill, a line of it and a payment are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from yarnex.core.document import Cite, Document, Span
from yarnex.core.values.types import plain_number

ROLES = ("charge", "subtotal", "tax", "total", "payment", "adjustment")
BILL_KINDS = ("invoice", "estimate", "credit note", "statement", "receipt")


@dataclass(frozen=True, slots=True)
class BillLine:
    """One line. role: one of ROLES. quantity with unit, unit_price: None where not printed. served: a day or period in its words."""

    what: str
    amount: Decimal
    role: str
    kind: str
    span: Span
    quantity: Decimal | None = None
    unit: str = ""
    unit_price: Decimal | None = None
    code: str = ""
    served: date | None = None


@dataclass(frozen=True, slots=True)
class Bill:
    """One bill, estimate or credit note; a file may hold several. number, provider: "" where not found.

    copy_of: words for the bill that this one repeats, "" for the first of it.
    """

    document: Document
    kind: str
    provider: str
    number: str
    dated: date | None
    due: date | None
    customer: str
    currency: str
    lines: tuple[BillLine, ...]
    span: Span
    head: Span
    copy_of: str = ""

    @property
    def charges(self) -> tuple[BillLine, ...]:
        return tuple(line for line in self.lines if line.role in ("charge", "tax", "adjustment"))

    @property
    def printed_total(self) -> Decimal | None:
        """The total as printed, the last one where there are several; None where there is none."""
        return next((line.amount for line in reversed(self.lines) if line.role == "total"), None)

    @property
    def added_total(self) -> Decimal:
        """The charges, taxes and adjustments added up."""
        return sum((line.amount for line in self.charges), Decimal(0))

    @property
    def name(self) -> str:
        """What a person would call it: "Brook & Sons, 1187"."""
        return (
            ", ".join(filter(None, [self.provider, self.number]))
            or f"{self.kind} on {Cite(self.document, self.head).place}"
        )

    def cite(self, line: BillLine) -> Cite:
        return Cite(self.document, line.span)

    def charge_dict(self, line: BillLine) -> dict[str, Any]:
        """DESIGN's JSON of a charge."""
        day = line.served or self.dated
        return {
            "document": self.document.path, "bill": self.number or None, "bill_kind": self.kind, "date": day.isoformat() if day else None,
            "bill_date": self.dated.isoformat() if self.dated else None, "due": self.due.isoformat() if self.due else None, "provider": self.provider or None,
            "what": line.what, "kind": line.kind, "role": line.role, "code": line.code or None, "quantity": None if line.quantity is None else plain_number(line.quantity),
            "unit": line.unit or None, "unit_price": None if line.unit_price is None else plain_number(line.unit_price), "amount": plain_number(line.amount),
            "currency": self.currency, "counted": not self.copy_of, "copy_of": self.copy_of or None, "cites": [self.cite(line).to_dict()],
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Payment:
    """Money paid. towards: what the document says it is for."""

    document: Document
    day: date | None
    amount: Decimal
    currency: str
    towards: str
    cite: Cite

    def to_dict(self) -> dict[str, Any]:
        return {
            "document": self.document.path, "date": self.day.isoformat() if self.day else None, "amount": plain_number(self.amount), "currency": self.currency,
            "towards": self.towards, "cites": [self.cite.to_dict()],
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Claimed:
    """A row of a payment notice or statement that names a bill: what was presented, what was allowed, and why."""

    document: Document
    bill: str
    presented: Decimal | None
    allowed: Decimal | None
    reason: str
    cite: Cite
    matched: str = ""

    def to_dict(self) -> dict[str, Any]:
        return {
            "document": self.document.path, "row": self.bill, "presented": None if self.presented is None else plain_number(self.presented),
            "allowed": None if self.allowed is None else plain_number(self.allowed), "reason": self.reason or None, "bill": self.matched or None, "cites": [self.cite.to_dict()],
        }  # fmt: skip
