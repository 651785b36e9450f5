"""Business days by place: which days do not count, and counting without them.

Public holidays come from the `holidays` package. Where a document says what a business day is, its own words are named.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta

from yarnex.core.document import Cite
from yarnex.core.patterns import pattern
from yarnex.core.terms.passages import Passages

# Places as documents name them -> country and subdivision of ISO 3166.
PLACES = {
    "england and wales": ("GB", "ENG"), "england": ("GB", "ENG"), "wales": ("GB", "WLS"), "scotland": ("GB", "SCT"), "northern ireland": ("GB", "NIR"),
    "london": ("GB", "ENG"), "united kingdom": ("GB", ""), "ireland": ("IE", ""), "dublin": ("IE", ""), "new york": ("US", "NY"), "california": ("US", "CA"),
    "delaware": ("US", "DE"), "texas": ("US", "TX"), "illinois": ("US", "IL"), "ohio": ("US", "OH"), "pennsylvania": ("US", "PA"), "massachusetts": ("US", "MA"),
    "oregon": ("US", "OR"), "washington": ("US", "WA"), "florida": ("US", "FL"), "georgia": ("US", "GA"), "united states": ("US", ""),
    "new south wales": ("AU", "NSW"), "victoria": ("AU", "VIC"), "queensland": ("AU", "QLD"), "sydney": ("AU", "NSW"), "melbourne": ("AU", "VIC"),
    "australia": ("AU", ""), "new zealand": ("NZ", ""), "wellington": ("NZ", "WGN"), "auckland": ("NZ", "AUK"), "ontario": ("CA", "ON"), "toronto": ("CA", "ON"),
    "canada": ("CA", ""), "india": ("IN", ""), "mumbai": ("IN", "MH"), "singapore": ("SG", ""), "hong kong": ("HK", ""), "germany": ("DE", ""),
    "france": ("FR", ""), "netherlands": ("NL", ""), "belgium": ("BE", ""), "spain": ("ES", ""), "italy": ("IT", ""), "sweden": ("SE", ""), "denmark": ("DK", ""),
}  # fmt: skip
_names = "|".join(sorted((re.escape(p) for p in PLACES), key=len, reverse=True))
_place = pattern(rf"\b(?:{_names})\b", re.IGNORECASE)
_law = pattern(r"\b(?:governed\s+by|laws?\s+of)\b[^.\n]{0,90}", re.IGNORECASE)
_term = pattern(r"\A(?:business|working|banking)\s+days?\Z", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Calendar:
    """place: as the document names it, "" where only weekends are known to be free. cite: the words that define it."""

    place: str
    country: str
    subdivision: str
    cite: Cite | None = None

    @property
    def words(self) -> str:
        """The calendar in words, for a working."""
        days = f"public holidays of {self.place}" if self.country else "no public holidays, as no place is named"
        return f"Saturdays, Sundays and {days} left out" if self.country else f"Saturdays and Sundays left out; {days}"

    def free(self) -> Callable[[date], bool]:
        """A test for days that do not count."""
        if not self.country:
            return lambda day: day.weekday() >= 5
        import holidays

        held = holidays.country_holidays(self.country, subdiv=self.subdivision or None)
        return lambda day: day.weekday() >= 5 or day in held


def calendar_of(passages: Passages) -> Calendar:
    """The calendar of a document: by its definition of a business day, else by its governing law."""
    for definition in passages.definitions:
        if _term.match(definition.name):
            words = definition.sentence.of(passages.text)
            m = _place.search(words)
            cite = Cite(passages.document, definition.sentence)
            country, part = PLACES[m.group().lower()] if m else ("", "")
            if m or not (law := _by_law(passages)):
                return Calendar(m.group() if m else "", country, part, cite)
            return Calendar(law, *PLACES[law.lower()], cite)
    law = _by_law(passages)
    return Calendar(law, *PLACES[law.lower()]) if law else Calendar("", "", "")


def _by_law(passages: Passages) -> str:
    for m in _law.finditer(passages.text):
        if place := _place.search(m.group()):
            return place.group()
    return ""


def add_business_days(day: date, count: int, free: Callable[[date], bool]) -> date:
    """The day that lies `count` business days after `day` (before it where count is negative); `day` itself does not count.

    >>> add_business_days(date(2025, 8, 29), 2, lambda d: d.weekday() >= 5)
    datetime.date(2025, 9, 2)
    """
    step = timedelta(days=1 if count >= 0 else -1)
    left = abs(count)
    while left:
        day += step
        left -= not free(day)
    return day


def rolled(day: date, free: Callable[[date], bool]) -> date:
    """The day itself, or the next one that is no free day ("the following business day")."""
    while free(day):
        day += timedelta(days=1)
    return day
