"""Lengths of time: "seven (7) years", "ten business days", "eighteen months", "five years and six months"."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import date, timedelta
from decimal import Decimal

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import BOTH, ORDINAL_WORDS, read_number, read_words
from yarnex.core.values.types import Duration, Found

UNITS = {
    "minute": "minutes", "hour": "hours", "day": "days", "week": "weeks", "fortnight": "weeks", "month": "months", "quarter": "quarters", "year": "years",
}  # fmt: skip
_unit = r"(?:minute|hour|day|week|fortnight|month|quarter|year)"
_qualifier = r"(?:(?P<business>business|working|banking|trading)|(?:consecutive|calendar|full|whole|complete|clear|lease|contract|rent|further|more|successive|additional)\s*)"
_form = pattern(
    rf"(?P<number>{BOTH})[\s-]+(?:(?:consecutive|full|further|additional|clear)\s+)?(?:{_qualifier}\s*)?(?P<unit>{_unit})(?:s|\(s\))?\b(?!['’]s\s+(?:day|date))",
    re.IGNORECASE,
)
_and = pattern(r"\s*(?:,|and|plus)\s*", re.IGNORECASE)


_every = pattern(
    rf"\b(?:every|each)\s+(?P<nth>{ORDINAL_WORDS}|\d{{1,2}}(?:nd|rd|th))\s+(?P<unit>year|month|week)\b",
    re.IGNORECASE,
)


def find_durations(text: str) -> Iterator[Found[Duration]]:
    """Each length of time, left to right; "five years and six months" is one of 66 months."""
    low = text.lower()
    if not any(unit in low for unit in UNITS):  # told much sooner than by all the numbers
        return
    counted = sorted((*_lengths(text), *_within_one(text)), key=lambda f: f.span.start)
    turns = [f for f in _turns(text) if not any(f.span.overlaps(c.span) for c in counted)]
    yield from sorted((*counted, *turns), key=lambda f: f.span.start)


_within = pattern(
    r"\bwithin\s+(?P<one>(?:the|an?)\s+(?:same\s+)?(?P<unit>hour|day|week|month|year))\b(?!\s+(?:of\s+\d|in\s+which|when|that|or\s+two)|['’])",
    re.IGNORECASE,
)


def _within_one(text: str) -> Iterator[Found[Duration]]:
    """ "Within the hour" is within one hour."""
    for m in _within.finditer(text):
        yield Found(Duration(Decimal(1), UNITS[m["unit"].lower()]), Span(*m.span("one")))


def _turns(text: str) -> Iterator[Found[Duration]]:
    """How often something comes round: "in every fifth year" is every five years."""
    for m in _every.finditer(text):
        count = read_words(m["nth"]) if not m["nth"][0].isdigit() else Decimal(re.sub(r"\D", "", m["nth"]))
        if count and count > 1:
            yield Found(
                Duration(Decimal(count), UNITS[m["unit"].lower()]), Span(*m.span()), f"every {m['nth']} {m['unit']}"
            )


def _lengths(text: str) -> Iterator[Found[Duration]]:
    before: Found[Duration] | None = None
    for m in _form.finditer(text):
        value, reading = read_number(m["number"])
        if value is None or re.search(r"[$£€]\s?\Z", text[: m.start()]):
            continue
        unit = "business_days" if m["business"] and m["unit"].lower() == "day" else UNITS[m["unit"].lower()]
        if m["unit"].lower() == "fortnight":
            value *= 2
        found = Found(Duration(value, unit), Span(*m.span()), reading)
        if before is not None:
            between = text[before.span.end : found.span.start]
            if before.value.unit == "years" and unit == "months" and value < 12 and _and.fullmatch(between):
                months = before.value.value * 12 + value
                before = Found(
                    Duration(months, "months"), Span(before.span.start, found.span.end), "years and months added"
                )
                continue
            yield before
        before = found
    if before is not None:
        yield before


def add_duration(day: date, length: Duration, *, back: bool = False) -> date | None:
    """The day that lies `length` after (or before) `day`; None for business days, which need a calendar, and hours.

    Calendar months: the same day of the month, or its last day where that month is shorter.

    >>> add_duration(date(2025, 8, 31), Duration(Decimal(6), "months"))
    datetime.date(2026, 2, 28)
    """
    count = int(length.value) if length.value == length.value.to_integral_value() else None
    sign = -1 if back else 1
    if count is None and length.unit == "years" and (length.value * 12) == (length.value * 12).to_integral_value():
        return day + relativedelta(months=sign * int(length.value * 12))
    if count is None or abs(count) > 20000:
        return None
    try:
        if length.unit == "days":
            return day + timedelta(days=sign * count)
        if length.unit == "weeks":
            return day + timedelta(weeks=sign * count)
        if length.unit in ("months", "quarters", "years"):
            months = count * {"months": 1, "quarters": 3, "years": 12}[length.unit]
            return day + relativedelta(months=sign * months)
    except (OverflowError, ValueError):
        return None
    return None


def in_months(length: Duration) -> Decimal | None:
    """The length in calendar months, None where it is counted in days."""
    factor = {"months": 1, "quarters": 3, "years": 12}.get(length.unit)
    return length.value * factor if factor else None
