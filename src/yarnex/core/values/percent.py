"""Percentages in digits, words and basis points."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import BOTH, DIGITS, WORDS, read_number
from yarnex.core.values.types import Found, Percent

_sign = r"(?:\s?%|\s?‰|\s?(?:per\s?cent(?:um)?|percentage\s+points?|pct)\b\.?|\s+points?(?=\s+(?:over|above|below|under|on\s+top\s+of|plus)\b))"
_shown = pattern(r"[%‰]|per\s?cent|pct\b|\bpoints?\b|bps\b", re.IGNORECASE)
_form = pattern(
    rf"(?P<words>{WORDS}){_sign}\s*\(\s*(?P<shown>{DIGITS})\s?%\s*\)|(?P<number>{BOTH}){_sign}|(?P<points>{BOTH})\s?(?:basis\s+points?|bps)\b",
    re.IGNORECASE,
)


def find_percents(text: str) -> Iterator[Found[Percent]]:
    """Each percentage, left to right; "2½ per cent" is 2.5, "150 basis points" 1.5."""
    if not _shown.search(text):  # told much sooner than by all the numbers
        return
    for m in _form.finditer(text):
        if m["words"]:
            value, reading = read_number(f"{m['words']} ({m['shown']})")
        else:
            value, reading = read_number(m["number"] or m["points"])
        if value is None:
            continue
        if m["points"]:
            value /= 100
        elif "‰" in m.group():
            value /= 10
        yield Found(Percent(value), Span(*m.span()), reading)
