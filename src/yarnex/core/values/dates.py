"""Dates in the forms that contracts use. Figures alone are read in the order that the document's other dates show."""

from __future__ import annotations

import calendar
import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from functools import lru_cache

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import ORDINAL_WORDS, WORDS, read_words, read_year_words
from yarnex.core.values.types import DateValue, Found

MONTHS = {name.lower(): i for i, name in enumerate(calendar.month_name) if name}
SHORT = {name.lower(): i for i, name in enumerate(calendar.month_abbr) if name} | {"sept": 9}
_month = "|".join([*MONTHS, *(rf"{s}\b\.?" for s in SHORT if s not in MONTHS)])
_day = rf"(?:\d{{1,2}}(?:\s?(?:st|nd|rd|th))?|{ORDINAL_WORDS})"
_year = rf"(?:\d{{4}}|(?:two\s+thousand|nineteen\s+hundred|nineteen|twenty)(?:[\s-]+(?:and\s+)?{WORDS})?)"

_forms = pattern(
    rf"""(?<![\w/.-])(?:
      (?P<d1>{_day})\s+(?:(?:day\s+)?of\s+)?(?P<m1>{_month})\s*,?\s*(?:in\s+the\s+year\s+)?(?P<y1>{_year})(?!\d)
    | (?P<m2>{_month})\s+(?:the\s+)?(?P<d2>{_day})\s*,?\s*(?P<y2>{_year})(?!\d)
    | (?P<y3>\d{{4}})-(?P<m3>\d{{2}})-(?P<d3>\d{{2}})(?!\d)
    | (?P<a>\d{{1,2}})(?P<sep>[/.-])(?P<b>\d{{1,2}})(?P=sep)(?P<y4>\d{{4}}|\d{{2}})(?![\d/])
    | last\s+day\s+of\s+(?P<m5>{_month})\s*,?\s*(?P<y5>\d{{4}})
    )""",
    re.IGNORECASE | re.VERBOSE,
)


_in_figures = pattern(r"(?<![\w/.-])(?P<a>\d{1,2})(?P<sep>[/.-])(?P<b>\d{1,2})(?P=sep)(?:\d{4}|\d{2})(?![\d/])")


@dataclass(frozen=True, slots=True)
class DateOrder:
    """Which of day and month stands first in a document's dates in figures. day_first None: it does not show."""

    day_first: bool | None
    why: str


@lru_cache(maxsize=64)
def date_order(text: str) -> DateOrder:
    """What the document's own dates show: a first number over 12 is a day, a second one over 12 a day too."""
    found = [m for m in _in_figures.finditer(text) if not _is_code(text, m.start())]
    for m in found:
        first, second = int(m["a"]), int(m["b"])
        if 12 < first <= 31 and second <= 12:
            return DateOrder(True, f"day first, as {m.group()} shows")
        if 12 < second <= 31 and first <= 12:
            return DateOrder(False, f"month first, as {m.group()} shows")
    for m in found:
        if m["sep"] == ".":
            return DateOrder(True, "day first, as dates with points are written")
    return DateOrder(None, "nothing in the document shows whether day or month stands first")


_code_before = pattern(r"\b(?:code|account|phone|tel|fax|no|number|ref(?:erence)?)[\s.:]{0,4}\Z", re.IGNORECASE)


def _is_code(text: str, start: int) -> bool:
    """True where figures between hyphens are a bank's sort code or the like: "sort code 09-11-22"."""
    return _code_before.search(text, max(0, start - 16), start) is not None


UNKNOWN = DateOrder(None, "nothing in the document shows whether day or month stands first")


def _month_number(text: str) -> int:
    bare = text.lower().rstrip(".")
    return MONTHS.get(bare) or SHORT[bare]


def day_number(text: str) -> int:
    """The day of a month in figures or words, "2nd", "twenty-second"; 0 where the words are no number."""
    digits = re.match(r"\d+", text)
    return int(digits.group()) if digits else int(read_words(text) or 0)


def _year_number(text: str) -> int:
    return int(text) if text.isdigit() else (read_year_words(text) or 0)


def _made(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day) if 1800 <= year <= 2200 else None
    except ValueError:
        return None


def find_dates(text: str, order: DateOrder = UNKNOWN) -> Iterator[Found[DateValue]]:
    """Each full date, left to right. Days that no calendar has (31 April) are left alone.

    order: from `date_order` of the whole document; without it dates such as 01/03/2025 are read day first and said
    to be ambiguous, with the other reading.
    """
    for m in _forms.finditer(text):
        if m["sep"] and _is_code(text, m.start()):
            continue
        span, reading = Span(*m.span()), ""
        day: date | None
        if m["m1"]:
            day = _made(_year_number(m["y1"]), _month_number(m["m1"]), day_number(m["d1"]))
        elif m["m2"]:
            day = _made(_year_number(m["y2"]), _month_number(m["m2"]), day_number(m["d2"]))
        elif m["m3"]:
            day = _made(int(m["y3"]), int(m["m3"]), int(m["d3"]))
        elif m["m5"]:
            year, month = int(m["y5"]), _month_number(m["m5"])
            day = _made(year, month, calendar.monthrange(year, month)[1]) if 1800 <= year <= 2200 else None
        else:
            if re.search(
                r"(?:clauses?|sections?|paragraphs?|articles?|nos?\.)\s+\Z",
                text[max(0, m.start() - 14) : m.start()],
                re.IGNORECASE,
            ):
                continue  # a clause number
            day, reading = _from_figures(int(m["a"]), int(m["b"]), m["y4"], order)
        if day is not None:
            yield Found(DateValue(day), span, reading)


def _from_figures(a: int, b: int, year_text: str, order: DateOrder) -> tuple[date | None, str]:
    year = int(year_text)
    if year < 100:
        year += 2000 if year < 70 else 1900
    day_first, month_first = _made(year, b, a), _made(year, a, b)
    if day_first and month_first and day_first != month_first:
        if order.day_first is None:
            return (
                day_first,
                f"ambiguous: {day_first.isoformat()} with the day first, {month_first.isoformat()} with the month first",
            )
        return (day_first if order.day_first else month_first), order.why
    return day_first or month_first, ""
