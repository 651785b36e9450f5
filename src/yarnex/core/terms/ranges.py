"""Ranges: a value that only ends one, as "12 weeks" does in "10 to 12 weeks", is told with its beginning."""

from __future__ import annotations

import re

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values import Duration, Money, Percent, Quantity, Value
from yarnex.core.values.numbers import NUMBER

RANGE_TO = pattern(
    rf"(?:\bbetween\s+(?:an?\s+)?[£$€]?\s?(?:{NUMBER})\s*(?:%|[a-z]+)?\s+and\s+|(?<![\d.,])(?:[£$€]\s?|\b(?-i:[A-Z]{{3}})\s)?(?:\ban?\s+)?(?:{NUMBER})\s*(?:%|[a-z]+)?\s*(?:–|—|\bto\b|-)\s*)(?:an?\s+)?\Z",
    re.IGNORECASE,
)
# "is raised from 10 to 12 weeks" tells of two values and is no range.
CHANGED_FROM = pattern(
    r"\b(?:increas|reduc|rais|lower|chang|amend|extend|cut|r[io]se|fell|fall|grew|grow|shorten|move|went|go(?:es)?|up|down|slip|eas|drop|declin|climb|improv|advanc|weaken|narrow|widen|dip|jump|edg|sank|sunk|slid|doubl|halv|strengthen)\w*\b[^.;]{0,60}\bfrom\s*\Z",
    re.IGNORECASE,
)
BY = pattern(r"\bby\s+(?:about\s+|some\s+)?\Z", re.IGNORECASE)  # "fell by £5 million to £38 million"
# "4 per cent a year above the base rate of the Bank": the margin alone says too little.
OVER_A_RATE = pattern(
    r"(?:[ \u00a0]+(?:a[ \u00a0]+year|per[ \u00a0]+annum|p\.a\.))?[ \u00a0]+(?:above|over|below)[ \u00a0]+(?:the[ \u00a0]+)?[^.;,()\n\t]{3,60}?(?=[.;,()\n\t]|[ \u00a0]+(?:from|on|until|for|to|and|as|in\s+force)\b|\Z)",
    re.IGNORECASE,
)
SEEN = 60  # characters before a value in which the range that it ends may begin


# "£66 to 68 million": what is read as the sum is only where the range begins.
RANGE_ON = pattern(
    rf"\s*(?:%|m|bn|million|[a-z]+)?\s*(?:–|—|\bto\b|-|\band\b)\s*[£$€]?\s?(?:{NUMBER})\s*(?:%|\s?(?:m|bn|k|million|billion|[a-z]+)\b)?",
    re.IGNORECASE,
)
_to = r"\s*(?:–|—|\bto\b|-)\s*"
SUM_ON = pattern(
    rf"{_to}(?:[£$€]|[A-Z]{{3}}[ \u00a0])\s?(?:{NUMBER})(?:\s?(?:m|bn|k|million|billion|lakhs?|crores?)\b)?"
)
SHARE_ON = pattern(rf"{_to}(?:{NUMBER})\s?(?:%|per\s?cent\b)", re.IGNORECASE)
BETWEEN = pattern(r"\bbetween\s+\Z", re.IGNORECASE)


SHARE = pattern(r"%|\bper\s?cent\b", re.IGNORECASE)


def range_beginning(text: str, place: Span, end: int, value: Value | None) -> Span | None:
    """Where the range stands that a sum begins, "£5 million to £6 million", after "between" or not; None for any other value."""
    if not isinstance(value, Money | Percent):
        return None
    if BETWEEN.search(text[max(0, place.start - 12) : place.start]):
        upper = RANGE_ON.match(text, place.end, end)
    else:
        upper = (SUM_ON if isinstance(value, Money) else SHARE_ON).match(text, place.end, end)
        if BY.search(text, max(0, place.start - SEEN), place.start):
            return None
        if CHANGED_FROM.search(text, max(0, place.start - 120), place.start):
            return None
    return Span(place.start, upper.end()) if upper is not None else None


def range_ending(text: str, start: int, place: Span, value: Value | None) -> Span | None:
    """Where the range stands that a value ends; None for a single value and for the new value of a change.

    start: of the line or sentence. place: of the value. Only sums, shares, lengths and numbers end ranges.
    """
    if not isinstance(value, Duration | Quantity | Percent | Money):
        return None
    lower = RANGE_TO.search(text[max(start, place.start - SEEN) : place.start])
    if lower is None or CHANGED_FROM.search(text[max(start, place.start - 120) : place.start - len(lower.group())]):
        return None
    if SHARE.search(lower.group()) and not isinstance(value, Percent):
        return None  # "rose 3.2 % to £25.1 million"
    if lower.group().rstrip().endswith("to") and BY.search(
        text, max(start, place.start - SEEN), place.start - len(lower.group())
    ):
        return None
    return Span(place.start - len(lower.group()), place.end)
