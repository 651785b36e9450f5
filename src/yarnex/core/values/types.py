"""What a value is: frozen, equal where the value is the same, with the JSON form that every output uses."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from typing import Any, Generic, TypeVar

from yarnex.core.document import Span

T_co = TypeVar("T_co", covariant=True)


@dataclass(frozen=True, slots=True)
class Found(Generic[T_co]):
    """A value and where it was read. reading: which reading was taken, where the words allow two; else ""."""

    value: T_co
    span: Span
    reading: str = ""


def plain_number(value: Decimal) -> int | Decimal:
    """The number as JSON shows it: whole where it is whole, exact where not."""
    if value == value.to_integral_value():
        return int(value)
    return value.normalize()


@dataclass(frozen=True, slots=True)
class DateValue:
    day: date

    def to_dict(self) -> dict[str, Any]:
        return {"type": "date", "value": self.day.isoformat()}


@dataclass(frozen=True, slots=True)
class Money:
    """An amount as the document states it, in major units (pounds, not pence), unrounded.

    currency: ISO 4217 code, None where only a bare figure is printed. per: what it is paid for: "year", "month",
    "quarter", "week", "day", "sq_ft", "sq_ft_year", "sq_m", "sq_m_year" ...; None where the words do not say.
    """

    amount: Decimal
    currency: str | None
    per: str | None = None

    def to_dict(self) -> dict[str, Any]:
        out: dict[str, Any] = {"type": "money", "value": plain_number(self.amount), "currency": self.currency}
        if self.per:
            out["per"] = self.per
        return out


@dataclass(frozen=True, slots=True)
class Percent:
    """12.5 means 12.5 %."""

    value: Decimal

    def to_dict(self) -> dict[str, Any]:
        return {"type": "percent", "value": plain_number(self.value)}


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number with its unit ("sq_ft", "sq_m", "miles", "spaces"); unit None for a bare count."""

    value: Decimal
    unit: str | None = None

    def to_dict(self) -> dict[str, Any]:
        out: dict[str, Any] = {"type": "number", "value": plain_number(self.value)}
        if self.unit:
            out["unit"] = self.unit
        return out


@dataclass(frozen=True, slots=True)
class Duration:
    """unit: hours, days, business_days, weeks, months, quarters or years; business days are never turned into days."""

    value: Decimal
    unit: str

    def to_dict(self) -> dict[str, Any]:
        return {"type": "duration", "value": plain_number(self.value), "unit": self.unit}


@dataclass(frozen=True, slots=True)
class Text:
    words: str

    def to_dict(self) -> dict[str, Any]:
        return {"type": "text", "value": self.words}


@dataclass(frozen=True, slots=True)
class Party:
    name: str

    def to_dict(self) -> dict[str, Any]:
        return {"type": "party", "value": self.name}


@dataclass(frozen=True, slots=True)
class YesNo:
    yes: bool

    def to_dict(self) -> dict[str, Any]:
        return {"type": "yes_no", "value": self.yes}


@dataclass(frozen=True, slots=True)
class ListOf:
    items: tuple[str, ...]

    def to_dict(self) -> dict[str, Any]:
        return {"type": "list", "value": list(self.items)}


@dataclass(frozen=True, slots=True)
class ScheduleCell:
    """What another column of a schedule says for a row: the column's heading, the cell's words, their value if they hold one."""

    column: str
    text: str
    value: Value | None = None

    def to_dict(self) -> dict[str, Any]:
        value = self.value.to_dict() if self.value is not None else None
        return {"column": self.column, "value": value, "text": self.text}


@dataclass(frozen=True, slots=True)
class ScheduleRow:
    """One step of a schedule. from_, to: ISO dates where the document gives dates, else its own words. amount: in the column
    that the schedule is for; others: what the other columns say.
    """

    from_: str
    to: str
    amount: Money
    others: tuple[ScheduleCell, ...] = ()

    def to_dict(self) -> dict[str, Any]:
        money = self.amount
        row = {"from": self.from_, "to": self.to, "value": plain_number(money.amount), "currency": money.currency}
        return row | {"per": money.per, "others": [cell.to_dict() for cell in self.others]}


@dataclass(frozen=True, slots=True)
class Schedule:
    """Sums by period. column: the heading of the column of sums, where they stand in a table; before: how many of its other
    columns stand before it.
    """

    rows: tuple[ScheduleRow, ...]
    column: str = field(default="", compare=False)
    before: int = field(default=0, compare=False)

    def to_dict(self) -> dict[str, Any]:
        return {"type": "schedule", "column": self.column, "rows": [row.to_dict() for row in self.rows]}


Value = DateValue | Money | Percent | Quantity | Duration | Text | Party | YesNo | ListOf | Schedule
