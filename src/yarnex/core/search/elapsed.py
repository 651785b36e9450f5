"""How long after its start something holds: "within two years", "between one and two years", "two per cent if it falls after that
and within forty-two months".

In: a question that names a year counted from the start, a length of time or a day, and the label of a row or a sentence with
several values. Out: whether the row, or one of the values, holds for what is asked about.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from yarnex.core.document import Span
from yarnex.core.number_names import ORDINALS
from yarnex.core.patterns import pattern
from yarnex.core.terms.passages import Passages
from yarnex.core.values import DateValue, find_dates
from yarnex.core.values.numbers import WORDS, read_words

_number = rf"(?:{WORDS}|\d{{1,3}})(?:\s*\(\d{{1,3}}\))?"
_unit = r"(?:year|month)s?"
_than = r"(?:(?:in\s+)?more\s+than|over|after|later\s+than|exceeding|beyond|longer\s+than)"
_within = (
    r"(?:within|in|(?:in\s+)?less\s+than|up\s+to|under|before|by|(?:not|no)\s+(?:more|later)\s+than|not\s+exceeding)"
)
# Forms of a label, the whole of it up to an end that tells no length.
BOTH = pattern(
    rf"(?:due\s+)?(?:between\s+|from\s+)?(?P<low>{_number})(?:\s+(?P<low_unit>{_unit}))?\s*(?:and|to|–|—|-)\s*(?P<high>{_number})\s+(?P<unit>{_unit})\b",
    re.IGNORECASE,
)
AFTER_AND_WITHIN = pattern(
    rf"(?:due\s+)?{_than}\s+(?P<low>{_number})(?:\s+(?P<low_unit>{_unit}))?,?\s+(?:but|and)\s+{_within}\s+(?P<high>{_number})\s+(?P<unit>{_unit})\b",
    re.IGNORECASE,
)
WITHIN = pattern(
    rf"(?:due\s+)?(?:on\s+demand\s+or\s+)?{_within}\s+(?P<high>{_number})\s+(?P<unit>{_unit})\b", re.IGNORECASE
)
BEYOND = pattern(
    rf"(?:due\s+)?{_than}\s+(?P<low>{_number})\s+(?P<unit>{_unit})\b|(?P<low_first>{_number})\s+(?P<unit_first>{_unit})\s+(?:or|and)\s+(?:more|over|later|longer|after)\b",
    re.IGNORECASE,
)
# What a sentence says of one of its values.
OF_A_VALUE = (
    (AFTER_AND_WITHIN, "both"),
    (pattern(rf"\b(?:after\s+that|thereafter|then|afterwards)\s+(?:and|but)\s+{_within}\s+(?P<high>{_number})\s+(?P<unit>{_unit})\b", re.IGNORECASE), "next"),
    (pattern(rf"\b{_within}\s+(?:the\s+)?(?:first\s+)?(?P<high>{_number})\s+(?P<unit>{_unit})\b|\b(?:in|during)\s+the\s+first\s+(?P<high_first>{_number})\s+(?P<unit_first>{_unit})\b", re.IGNORECASE), "within"),
    (pattern(rf"\b{_than}\s+(?P<low>{_number})\s+(?P<unit>{_unit})\b", re.IGNORECASE), "beyond"),
    (pattern(r"\b(?:after\s+that|thereafter|afterwards|from\s+then\s+on|later)\b", re.IGNORECASE), "rest"),
)  # fmt: skip
_ordinal = "|".join(ORDINALS)
YEAR_OF = pattern(
    rf"\bin\s+(?:the\s+|its\s+)?(?:(?P<nth>{_ordinal})\s+year|year\s+(?P<number>{_number}))\b", re.IGNORECASE
)
FIRST_YEARS = pattern(
    rf"\b(?:in|within|during|over)\s+(?:the\s+)?(?:first|next|coming)\s+(?:(?P<n>{_number})\s+)?(?P<unit>{_unit})\b|\bwithin\s+(?P<n_within>{_number})\s+(?P<unit_within>{_unit})\b",
    re.IGNORECASE,
)
LATER = pattern(
    rf"\b(?:after|beyond|in\s+more\s+than|more\s+than|over)\s+(?P<n>{_number})\s+(?P<unit>{_unit})\b", re.IGNORECASE
)
BETWEEN = pattern(
    rf"\bbetween\s+(?:years?\s+)?(?P<low>{_number})\s+and\s+(?P<high>{_number})(?:\s+(?P<unit>{_unit}))?\b",
    re.IGNORECASE,
)
COUNTED_FROM = pattern(
    r"\b(?:of|after|from|following|since)\s+(?:the\s+)?(?P<name>[A-Z][A-Za-z]+(?:\s+[A-Z][A-Za-z]+){0,3})"
)
LITTLE = Decimal("0.5")  # of a month: a point just within or just beyond a limit


def elapsed_asked(question: str) -> Decimal | None:
    """How many months after the start the time lies that a question names: "in the second year" is eighteen; None where it
    names none.
    """
    if (m := BETWEEN.search(question)) is not None:
        size = 1 if (m["unit"] or "years").lower().startswith("month") else 12
        return (_count(m["low"]) + _count(m["high"])) / 2 * size
    if (m := YEAR_OF.search(question)) is not None:
        nth = ORDINALS[m["nth"].lower()] if m["nth"] else _count(m["number"])
        return Decimal(12 * int(nth) - 6)
    if (m := LATER.search(question)) is not None:
        return _months(m["n"], m["unit"]) + LITTLE
    if (m := FIRST_YEARS.search(question)) is not None:
        return _months(m["n"] or m["n_within"] or "1", m["unit"] or m["unit_within"]) - LITTLE
    return None


def names_a_time(question: str) -> bool:
    """True for a question that names a time after a start, or a split year."""
    return elapsed_asked(question) is not None or bool(_split_years(question))


def elapsed_fit(months: Decimal | None, label: str) -> float:
    """1 where a row's label opens with a length of time in which a point lies, -1 where it lies outside, 0 where it opens with none.

    >>> elapsed_fit(18, "Between one and two years"), elapsed_fit(18, "Within one year"), elapsed_fit(18, "Trade debtors")
    (1.0, -1.0, 0.0)
    """
    if months is None:
        return 0.0
    label = " ".join(label.split()).lstrip("–—-•· ")
    for form in (AFTER_AND_WITHIN, BOTH, WITHIN, BEYOND):
        if (m := form.match(label)) is not None:
            low, high = _limits(m)
            return 1.0 if months > low and (high is None or months <= high) else -1.0
    return 0.0


TWO_YEARS = pattern(r"(?<![\d/])(?:20)?(?P<first>\d\d)\s?[/–-]\s?(?:20)?(?P<second>\d\d)(?![\d/])")


def _split_years(words: str) -> set[int]:
    """Years that run over two calendar years, "2031/32" or "31/32", by the last two figures of the first."""
    found = ((int(m["first"]), int(m["second"])) for m in TWO_YEARS.finditer(words))
    return {first for first, second in found if second == (first + 1) % 100}


def split_year_fit(question: str, label: str) -> float:
    """1 where a row is of the split year that a question names, -1 where it is of another, 0 where either names none.

    >>> split_year_fit("What falls due in 2031/32?", "31/32"), split_year_fit("What falls due in 2031/32?", "30/31")
    (1.0, -1.0)
    """
    asked, said = _split_years(question), _split_years(label)
    return 0.0 if not asked or not said else 1.0 if asked & said else -1.0


def _limits(m: re.Match[str]) -> tuple[Decimal, Decimal | None]:
    """The months between which something holds by the words of a match; None for no end."""
    given = m.groupdict()
    low = given.get("low") or given.get("low_first")
    unit = given.get("unit") or given.get("unit_first") or "years"
    high = given.get("high") or given.get("high_first")
    return (
        _months(low, given.get("low_unit") or unit) if low else Decimal(0),
        _months(high, unit) if high else None,
    )


def value_that_holds(passages: Passages, question: str, sentence: Span, values: Sequence[Span]) -> Span | None:
    """Of several values of a sentence, each for a time after a start, the one that holds at the time that a question names;
    None where the sentence is none of that form, or the question names no time.
    """
    if len(values) < 2:
        return None
    text, months = passages.text, elapsed_asked(question)
    if months is None:
        start = _start(passages, sentence.of(text))
        days = [f.value.day for f in find_dates(question) if isinstance(f.value, DateValue) and f.value.day is not None]
        if start is None or len(days) != 1:
            return None
        months = _between(start, days[0])
    edges = [v.start for v in values[1:]] + [sentence.end]
    last, found = Decimal(0), None
    for value, edge in zip(values, edges, strict=True):
        piece = text[value.end : edge]
        low, high = last, None  # months
        for form, sort in OF_A_VALUE:
            if (m := form.search(piece)) is None:
                continue
            given = _limits(m) if sort != "rest" else (last, None)
            low = given[0] if sort in ("both", "beyond") else last
            high = given[1]
            if high is not None and high <= low:
                return None  # a part of what was told before, not what comes after it
            break
        else:
            return None
        if found is None and months > low and (high is None or months <= high):
            found = value
        last = high if high is not None else low
    return found


def _start(passages: Passages, words: str) -> date | None:
    """The day from which a sentence counts, by the name that the paper gives it."""
    for m in COUNTED_FROM.finditer(words):
        for row in passages.labelled:
            if row.label.strip(" :.").lower() == m["name"].lower():
                days = passages.values_in("date", row.value)
                if days and isinstance(days[0].value, DateValue):
                    return days[0].value.day
        for definition in passages.definitions:
            if definition.name.lower() == m["name"].lower():
                days = passages.values_in("date", definition.meaning)
                if days and isinstance(days[0].value, DateValue):
                    return days[0].value.day
    return None


def _between(start: date, day: date) -> Decimal:
    """Months from one day to another, with days as parts of one."""
    return Decimal((day.year - start.year) * 12 + day.month - start.month) + Decimal(day.day - start.day) / 31


def _count(words: str) -> Decimal:
    word = re.sub(r"\s*\(.*", "", words).strip()
    return Decimal(word) if word.isdigit() else read_words(word) or Decimal(0)


def _months(number: str, unit: str) -> Decimal:
    return _count(number) * (1 if unit.lower().startswith("month") else 12)
