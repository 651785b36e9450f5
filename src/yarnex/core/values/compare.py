"""Values side by side: whether two are the same, and what makes them comparable where their units differ."""

from __future__ import annotations

import re
from decimal import Decimal

from yarnex.core.values.durations import in_months
from yarnex.core.values.quantities import convert, round_figures, unit_factor
from yarnex.core.values.types import (
    DateValue,
    Duration,
    ListOf,
    Money,
    Party,
    Percent,
    Quantity,
    Schedule,
    Text,
    Value,
    YesNo,
)

PLAIN = {ord(mark): plain for mark, plain in ("’'", "‘'", '“"', '”"', "–-", "—-")}
YEARLY = {
    "year": Decimal(1),
    "month": Decimal(12),
    "quarter": Decimal(4),
    "week": Decimal(365) / 7,
    "day": Decimal(365),
}


def plain_words(text: str) -> str:
    """Words for comparing: lower case, one kind of quotation mark and dash, single blanks, no final full stop."""
    text = text.lower().translate(PLAIN)
    return re.sub(r"\s+", " ", text).strip(" .,;:")


def same_value(a: Value | None, b: Value | None) -> bool:
    """True where two values say the same: 12 months is one year, 100 sq m is 1,076.39 sq ft, case is no difference."""
    if a is None or b is None:
        return a is b
    if isinstance(a, Duration) and isinstance(b, Duration):
        months = in_months(a), in_months(b)
        if None not in months:
            return months[0] == months[1]
        days = _days(a), _days(b)
        return days[0] == days[1] if None not in days else a == b
    if isinstance(a, Quantity) and isinstance(b, Quantity):
        if a.unit and b.unit and a.unit != b.unit:
            other = convert(b, a.unit)
            return other is not None and abs(other.value - a.value) <= abs(a.value) * Decimal("0.002")
        return a.value == b.value
    if isinstance(a, Money) and isinstance(b, Money):
        changed = comparable(b, a)
        amount = changed[0].amount if changed else b.amount
        close = abs(amount - a.amount) <= (abs(a.amount) * Decimal("0.001") if changed else 0)
        return close and a.currency == b.currency and (changed is not None or a.per == b.per or None in (a.per, b.per))
    if isinstance(a, Text | Party) and isinstance(b, Text | Party):
        return plain_words(_said(a)) == plain_words(_said(b))
    if isinstance(a, ListOf) and isinstance(b, ListOf):
        return sorted(map(plain_words, a.items)) == sorted(map(plain_words, b.items))
    if isinstance(a, DateValue | Percent | YesNo | Schedule):
        return a == b
    return False


def _said(value: Text | Party) -> str:
    return value.words if isinstance(value, Text) else value.name


def _days(length: Duration) -> Decimal | None:
    factor = {"days": 1, "weeks": 7}.get(length.unit)
    return length.value * factor if factor else None


def comparable(money: Money, like: Money) -> tuple[Money, str] | None:
    """`money` as it would be if paid for the same as `like`, with the working; None where no change is needed or known.

    Years, months and quarters are turned into each other, and so are square feet and square metres. Currencies never.
    """
    if money.per == like.per or not money.per or not like.per or money.currency != like.currency:
        return None
    area, period = _parts(money.per)
    other_area, other_period = _parts(like.per)
    if (area is None) != (other_area is None) or (period is None) != (other_period is None):
        return None
    factor = Decimal(1)
    steps = []
    if period != other_period and period in YEARLY and other_period in YEARLY:
        factor *= YEARLY[period] / YEARLY[other_period]
        steps.append(f"{_short(YEARLY[period] / YEARLY[other_period])} {period}s to the {other_period}")
    if area and other_area and area != other_area:
        step = unit_factor(other_area, area)
        if not step:
            return None
        factor *= step
        steps.append(f"1 {other_area} = {_short(step)} {area}")
    amount = round(money.amount * factor, 2)
    return Money(
        amount, money.currency, like.per
    ), f"{money.amount:,f} x {_short(factor)} = {amount:,f} ({'; '.join(steps)})"


def _short(value: Decimal) -> str:
    """A factor to six figures, without idle zeros."""
    return f"{round_figures(value).normalize():f}"


def _parts(per: str) -> tuple[str | None, str | None]:
    m = re.fullmatch(r"(sq_ft|sq_m)(?:_(\w+))?", per)
    if m:
        return m[1], m[2]
    return None, per


ROUNDED_TO = 3  # figures of a sum that is the same as a more exact one


def same_rounded(one: Value | None, other: Value | None) -> bool:
    """True for a sum told exactly and the same one rounded to three or more figures: £61,480,000 and £61.5 million."""
    if not (
        isinstance(one, Money) and isinstance(other, Money) and one.currency == other.currency and one.per == other.per
    ):
        return False
    coarse, fine = sorted((abs(one.amount), abs(other.amount)), key=lambda a: len(a.normalize().as_tuple().digits))
    digits = coarse.normalize().as_tuple()
    if len(digits.digits) < ROUNDED_TO or coarse == 0 or (one.amount < 0) is not (other.amount < 0):
        return False
    return abs(fine - coarse) * 2 <= Decimal(1).scaleb(int(digits.exponent))
