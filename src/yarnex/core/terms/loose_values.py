"""Values that are not written out in full: fractions in words, days without a year, millions of no named currency.

In: words of a document. Out: values with their places in them. Whether they may be taken so, what stands around them tells.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from contextlib import suppress
from datetime import date
from decimal import Decimal

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.dates import MONTHS, day_number
from yarnex.core.values.numbers import ORDINAL_WORDS

MILLIONS = pattern(r"(?:million|billion)\Z", re.IGNORECASE)
SOME_MILLIONS = pattern(r"million|billion", re.IGNORECASE)
# A thing that is counted, and no sum: "two million litres", "1.2 million customers".
OF_THINGS = pattern(
    r"\s+(?!(?:a|an|and|or|on|in|over|under|above|below|of|to|from|for|per|each|every|undrawn|drawn|at|by|more|less|this|last|next|since|so|after|before|with|is|was|as|the|it|we|you|that|which|half|year|today|now|net|gross|extra|total|in|out|off|up|down|back|when|if|because|but|then|altogether|annually|yearly)\b)(?:[a-z]+\s+)?[a-z]+s\b",
    re.IGNORECASE,
)
FRACTION = pattern(
    r"\b(?:(?P<n>a|an|one|two|three|four|five)[\s-](?P<d>halves|half|thirds?|quarters?|fifths?|sixths?|eighths?|tenths?|twelfths?)|(?<!the )(?<!this )(?<!first )(?<!second )(?<!last )(?<!other )(?P<half>half))\b"
    r"(?=\s+(?:of|the|its|their|his|her|is|are|was|were|shall|must|will)\b|\s*(?:[,.;)]|\Z))(?!\s+of\s+(?:a\s+)?(?:year|month|day|hour)|\s+the\s+(?:year|month|day|hour))",
    re.IGNORECASE,
)
DAY_ALONE = pattern(
    rf"\b(?:(?:(?P<d1>\d{{1,2}})(?:st|nd|rd|th)?\s+(?:of\s+)?|(?:the\s+)?(?P<d3>{ORDINAL_WORDS})\s+(?:day\s+)?of\s+)(?P<m1>{'|'.join(MONTHS)})|(?P<m2>{'|'.join(MONTHS)})\s+(?:the\s+)?(?P<d2>\d{{1,2}})(?:st|nd|rd|th)?)\b(?!\s*,?\s*\d{{4}}|[.:]\d|,?\s+(?:in\s+)?(?:each|every|of\s+each))",
    re.IGNORECASE,
)
PARTS = {"hal": 2, "thi": 3, "qua": 4, "fif": 5, "six": 6, "eig": 8, "ten": 10, "twe": 12}
TIMES = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5}


def fractions(words: str) -> list[tuple[Decimal, Span, str]]:
    """Fractions in words as percentages to two places, with their place: "one fifth of the price" is 20."""
    out = []
    for m in FRACTION.finditer(words):
        share = Decimal(100) * TIMES[m["n"].lower()] / PARTS[m["d"].lower()[:3]] if m["n"] else Decimal(50)
        if share <= 100:
            out.append((share.quantize(Decimal("0.01")).normalize() + 0, Span(*m.span()), m.group()))
    return out


YEAR_AFTER = pattern(r"\s*,?\s+(?:of\s+)?(next|last|this)\s+year\b", re.IGNORECASE)


def days_without_year(words: str, near: date, lies: Callable[[str], int] = lambda _: 0) -> list[tuple[date, Span]]:
    """Days that lack a year, in the year in which they are nearest to another day; the next or the last such day where what leads
    to it, told to `lies`, says that it is still to come (1) or past (-1).
    """
    out = []
    for m in DAY_ALONE.finditer(words):
        day, month = day_number(m["d1"] or m["d2"] or m["d3"]), MONTHS[(m["m1"] or m["m2"]).lower()]
        found = []
        for year in (near.year - 1, near.year, near.year + 1):
            with suppress(ValueError):  # no such day in that year
                found.append(date(year, month, day))
        side = lies(words[: m.start()]) if found else 0
        if told := YEAR_AFTER.match(words, m.end()):  # "5 October next year"
            year = near.year + {"next": 1, "last": -1, "this": 0}[told[1].lower()]
            found, side = [d for d in found if d.year == year] or found, 0
        wanted = [d for d in found if (d - near).days * side >= 0] or found
        if wanted:
            out.append((min(wanted, key=lambda d: abs((d - near).days)), Span(*m.span())))
    return out
