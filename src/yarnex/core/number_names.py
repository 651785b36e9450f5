"""English names of whole numbers, for reading them in text and for writing out numbered lists."""

from __future__ import annotations

import re

_cardinals = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
]
_ordinals = [
    "zeroth",
    "first",
    "second",
    "third",
    "fourth",
    "fifth",
    "sixth",
    "seventh",
    "eighth",
    "ninth",
    "tenth",
    "eleventh",
    "twelfth",
    "thirteenth",
    "fourteenth",
    "fifteenth",
    "sixteenth",
    "seventeenth",
    "eighteenth",
    "nineteenth",
]
_tens = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]

UNITS = {name: value for value, name in enumerate(_cardinals)}
TENS = {name: 10 * place for place, name in enumerate(_tens, start=2)}
ORDINALS = (
    {name: value for value, name in enumerate(_ordinals) if value}
    | {name[:-1] + "ieth": value for name, value in TENS.items()}
    | {"hundredth": 100}
)


def spelled(value: int, *, ordinal: bool = False) -> str:
    """A number from 0 to 99 in words, "" beyond.

    >>> spelled(21), spelled(21, ordinal=True), spelled(30, ordinal=True)
    ('twenty-one', 'twenty-first', 'thirtieth')
    """
    if not 0 <= value < 100:
        return ""
    names = _ordinals if ordinal else _cardinals
    if value < 20:
        return names[value]
    ten, unit = _tens[value // 10 - 2], value % 10
    if unit:
        return f"{ten}-{names[unit]}"
    return ten[:-1] + "ieth" if ordinal else ten


def counted(word: str) -> int:
    """The whole number that one word counts, by its name or in figures, 0 where it counts none.

    >>> counted("third"), counted("3rd"), counted("three"), counted("3"), counted("many")
    (3, 3, 3, 3, 0)
    """
    low = word.lower()
    if figures := re.fullmatch(r"([0-9]+)(?:st|nd|rd|th)?", low):
        return int(figures[1])
    return ORDINALS.get(low) or UNITS.get(low) or 0
