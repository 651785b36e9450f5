"""Bands: rows that hold for a range of days, sums or shares, and whether the value that a question names lies within.

"More than £1,000 but not more than £5,000", "1 May 2026 – 30 April 2027", "30 June 2027 and after": a question about
£3,200 or about 1 August 2026 is answered by the row whose band holds it.
"""

from __future__ import annotations

import re
from calendar import monthrange
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Document, Span
from yarnex.core.number_names import ORDINALS, UNITS, counted
from yarnex.core.patterns import pattern
from yarnex.core.values import (
    DateValue,
    Money,
    Percent,
    Quantity,
    find_dates,
    find_money,
    find_percents,
    find_quantities,
)
from yarnex.core.values.dates import MONTHS

Limit = date | Decimal
BETWEEN = pattern(
    r"\s*(?:to|–|—|-|and|until|through|up\s+to|,?\s*(?:but|and)\s+(?:not|no)\s+(?:(?:more|less|later|earlier)\s+than|above|below|over|under|exceeding|after|before)"
    r"|,?\s*(?:but|and)\s+(?:up\s+to|below|under|less\s+than|at\s+most|before)|,?\s*(?:both\s+)?inclusive\s+to)\s*",
    re.IGNORECASE,
)
OVER = pattern(r"\b(?:more\s+than|over|above|exceeding|exceeds|after|greater\s+than)\s*\Z|>\s*\Z", re.IGNORECASE)
FROM = pattern(
    r"\b(?:from|since|on\s+or\s+after|(?:not|no)\s+(?:less|earlier)\s+than|at\s+least|starting|beginning)\s*(?:and\s+including\s+)?\Z|[≥]\s*\Z",
    re.IGNORECASE,
)
UNDER = pattern(r"\b(?:below|under|less\s+than|before|fewer\s+than)\s*\Z|<\s*\Z", re.IGNORECASE)
UP_TO = pattern(
    r"\b(?:up\s+to|until|till|to|(?:not|no)\s+(?:more|later)\s+than|not\s+exceeding|at\s+most|on\s+or\s+before|ending)\s*(?:and\s+including\s+)?\Z|[≤]\s*\Z",
    re.IGNORECASE,
)
ONWARDS = pattern(
    r"\s*(?:(?:and|or)\s+(?:after|later|above|more|over|higher|thereafter|onwards)|onwards?|thereafter|\+)",
    re.IGNORECASE,
)
DOWNWARDS = pattern(r"\s*(?:and|or)\s+(?:before|earlier|below|less|under|lower|fewer)\b", re.IGNORECASE)
LABEL_AT_MOST = 160


@dataclass(frozen=True, slots=True)
class Band:
    """kind: "date", "money", "percent" or a unit. None for a limit that is open; `over`, `under`: the limit itself is out."""

    kind: str
    low: Limit | None
    high: Limit | None
    over: bool = False
    under: bool = False

    def holds(self, value: Limit) -> bool:
        """True where a value of the band's kind lies within it."""
        if self.low is not None and (value < self.low or (self.over and value == self.low)):  # type: ignore[operator]
            return False
        return self.high is None or not (value > self.high or (self.under and value == self.high))  # type: ignore[operator]


_months = "|".join(MONTHS)
MONTH = pattern(
    rf"(?:(?P<from>\b(?:from|since|after|starting\s+in|beginning\s+in)\s+)|(?P<until>\b(?:until|till|before|up\s+to|to)\s+))?(?<!\d\s)(?<!\d(?:st|nd|rd|th)\s)\b(?P<month>{_months})\s+(?P<year>(?:19|20)\d\d)\b",
    re.IGNORECASE,
)


def months_in(words: str) -> Iterator[tuple[date, date, re.Match[str]]]:
    """The months told without a day, "May 2028": their first and last days, and where they stand."""
    for m in MONTH.finditer(words):
        year, month = int(m["year"]), MONTHS[m["month"].lower()]
        yield date(year, month, 1), date(year, month, monthrange(year, month)[1]), m


def asked_about(question: str) -> list[tuple[str, Limit, Span]]:
    """What a question names, of which it asks what holds then or there: `measures_in` it, and months told without a day ("month").

    Of "from May 2028" its last day, when what begins in it holds; of "until May 2028" its first; else one in its middle.
    """
    out = measures_in(question)
    for first, last, m in months_in(question):
        day = last if m["from"] else first if m["until"] else first.replace(day=15)
        out.append(("month", day, Span(*m.span())))
    return out


def measures_in(words: str) -> list[tuple[str, Limit, Span]]:
    """The days, sums, shares and measured numbers that some words name, left to right: kind, value, place."""
    out: list[tuple[str, Limit, Span]] = []
    for found in find_dates(words):
        if isinstance(found.value, DateValue) and found.value.day is not None:
            out.append(("date", found.value.day, found.span))
    for kind, finder in (("money", find_money), ("percent", find_percents), ("", find_quantities)):
        for other in finder(words):
            value = other.value
            if any(other.span.overlaps(s) for _, _, s in out):
                continue
            if isinstance(value, Money):
                out.append((kind, value.amount, other.span))
            elif isinstance(value, Percent):
                out.append((kind, value.value, other.span))
            elif isinstance(value, Quantity):
                out.append((value.unit or "", value.value, other.span))
    return sorted(out, key=lambda m: m[2].start)


def bands_in(words: str) -> Iterator[Band]:
    """The bands that a row's label names. A day, sum or share that stands alone is a band of its own."""
    found = measures_in(words)
    ends = {Span(*m.span("month")).start: last for _, last, m in months_in(words)}
    found += [("date", first, Span(m.start("month"), m.end())) for first, _, m in months_in(words)]
    found.sort(key=lambda f: f[2].start)
    place = 0
    while place < len(found):
        kind, low, span = found[place]
        before = words[: span.start]
        if place + 1 < len(found) and found[place + 1][0] == kind:
            _, high, next_span = found[place + 1]
            high = ends.get(next_span.start, high)
            between = words[span.end : next_span.start]
            if BETWEEN.fullmatch(between):
                falling = type(low) is type(high) and low > high  # type: ignore[operator]
                over = bool(OVER.search(before)) if not falling else "not" in between
                under = (
                    bool(UNDER.search(before))
                    if falling
                    else bool(re.search(r"\b(?:but|and)\s+(?:below|under|less|before)", between))
                )
                yield Band(kind, high, low, over=False, under=under) if falling else Band(kind, low, high, over, under)
                place += 2
                continue
        after = words[span.end :]
        if ONWARDS.match(after) or FROM.search(before):
            yield Band(kind, low, None)
        elif DOWNWARDS.match(after):
            yield Band(kind, None, low)
        elif OVER.search(before):
            yield Band(kind, low, None, over=True)
        elif UNDER.search(before):
            yield Band(kind, None, low, under=True)
        elif UP_TO.search(before):
            yield Band(kind, None, low)
        else:
            yield Band(kind, low, ends.get(span.start, low))
        place += 1


def label_of_row(document: Document, place: Span) -> str:
    """What stands in the cells of a row left of the one at a place, " – " between a day and the next; "" outside tables."""
    found = document.cell_at(place)
    if found is None:
        return ""
    table, cell = found
    left = [c for c in table.row_cells(cell.row) if c.column < cell.column]
    return " – ".join(" ".join(c.span.of(document.text).split()) for c in left)[:LABEL_AT_MOST]


def _in_month(band: Band, day: Limit) -> bool:
    """True for a band of a single day in the month of another day."""
    one = band.low if band.low == band.high else None
    return isinstance(one, date) and isinstance(day, date) and (one.year, one.month) == (day.year, day.month)


NTH_YEAR = pattern(
    rf"\b(?:(?P<nth>{'|'.join(ORDINALS)})\s+(?:(?:lease|contract|policy|rent|agreement|loan|full|whole)\s+)?year|(?:lease|contract|policy|rent)?\s*year\s+(?P<number>\d{{1,2}}|{'|'.join(UNITS)}))\b",
    re.IGNORECASE,
)


def day_of_year(question: str, document: Document, place: Span) -> date | None:
    """The day on which the year that a question counts, "in the second year", begins in the table of periods that stands at a
    place; None where it counts none, or no table of periods stands there.
    """
    year, found = NTH_YEAR.search(question), document.cell_at(place)
    if year is None or found is None:
        return None
    nth = counted(year["nth"] or year["number"])
    table, cell = found
    begins: list[date] = []
    for row in range(table.header_rows, table.rows):
        beside = table.at(row, cell.column)
        label = label_of_row(document, beside.span) if beside is not None else ""
        begins += [b.low for b in bands_in(label) if isinstance(b.low, date) and b.low != b.high]
    return min(begins) + relativedelta(years=nth - 1) if begins and nth else None


def within(asked: list[tuple[str, Limit, Span]], label: str) -> float:
    """1 where a value asked about lies in a band that a label names, -1 where it names bands but none holds it, else 0."""
    out = 0.0
    bands = list(bands_in(label)) if asked and label else []
    for kind, value, _ in asked:
        mine = [b for b in bands if b.kind == ("date" if kind == "month" else kind)]
        if any(b.holds(value) or (kind == "month" and _in_month(b, value)) for b in mine):
            return 1.0
        if mine:
            out = -1.0
    return out
