"""Numbers in digits, with either kind of separator, and in English words."""

from __future__ import annotations

import re
from collections.abc import Iterator
from decimal import Decimal

from yarnex.core.document import Span
from yarnex.core.number_names import ORDINALS, TENS, UNITS
from yarnex.core.patterns import pattern
from yarnex.core.values.types import Found

SCALES = {
    "hundred": 100,
    "thousand": 1_000,
    "million": 1_000_000,
    "billion": 1_000_000_000,
    "lakh": 100_000,
    "crore": 10_000_000,
}
FRACTIONS = {
    "half": Decimal("0.5"), "third": Decimal(1) / 3, "quarter": Decimal("0.25"), "quarters": Decimal("0.25"),
    "thirds": Decimal(1) / 3, "halves": Decimal("0.5"),
}  # fmt: skip
SIGNS = {"½": Decimal("0.5"), "¼": Decimal("0.25"), "¾": Decimal("0.75"), "⅓": Decimal(1) / 3, "⅔": Decimal(2) / 3}

_word = "|".join(sorted([*UNITS, *TENS, *SCALES], key=len, reverse=True))
_ordinal = "|".join(sorted(ORDINALS, key=len, reverse=True))
_joint = r"(?:(?:(?<=hundred)|(?<=thousand)|(?<=million)|(?<=billion)|(?<=lakh)|(?<=crore))\s+and\s+|[\s-]+)"
_unit = "|".join(sorted(UNITS, key=len, reverse=True))
# Behind whole numbers: "six point four", "two and a half", and what either is of: "million".
_part = rf"(?:\s+point\s+(?:{_unit})\b(?:\s+(?:{_unit})\b)*|\s+and\s+(?:a|one|three)[\s-](?:half|quarters?|third)\b)"
WORDS = rf"(?:\b(?:{_word})\b(?:{_joint}(?:{_word})\b(?![\s-](?:half|quarters?|thirds?)\b))*(?:{_part}(?:\s+(?:{'|'.join(SCALES)})\b)?)?)"
ORDINAL_WORDS = rf"(?:(?:\b(?:{_word})\b(?:\s+and\s+|[\s-]+))*\b(?:{_ordinal})\b)"
DIGITS = (
    r"(?<![\w.,])(?:\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d{1,2}(?:,\d{2})+,\d{3}(?:\.\d+)?|\d{1,3}(?:\.\d{3})+(?:,\d+)?"
    r"|\d{1,3}(?:['’ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)?)(?:\s?[½¼¾⅓⅔])?(?![\d]|[.,]\d)|(?<!\w)[½¼¾⅓⅔]"
)
NUMBER = rf"(?:{DIGITS}|{WORDS})"
_opens = rf"(?=[\d{''.join(SIGNS)}]|\b[{''.join(sorted({w[0] for w in _word.split('|')}))}])"  # most places are ruled out by it at once
BOTH = rf"(?:{_opens}(?:{WORDS}\s*\(\s*(?:{DIGITS})\s*\)|(?:{DIGITS})\s*\(\s*{WORDS}\s*\)|{NUMBER}))"  # "seven (7)"

_digits = pattern(DIGITS)
_words = pattern(WORDS, re.IGNORECASE)
_both = pattern(BOTH, re.IGNORECASE)
# "5.6 million", "twenty-six – million"
_scaled = pattern(
    rf"(?P<number>{DIGITS}|{WORDS})(?:\s+|\s+[–—-]\s+)(?P<times>thousand|million|billion)\b", re.IGNORECASE
)


SCALE_ALONE = pattern(r"hundred|thousand|million|billion|lakh|crore", re.IGNORECASE)
ONE_BEFORE = pattern(r"\b(?:an?|the|per)\s+\Z", re.IGNORECASE)


def read_digits(text: str, *, money: bool = False) -> Decimal | None:
    """A number in digits; None where the separators make no number.

    With both separators the last one is the decimal one. A lone comma before three digits parts thousands, else it
    is a decimal comma; a lone point is a decimal point, but in money a point before three digits parts thousands.

    >>> read_digits("84.500,00"), read_digits("1,250"), read_digits("2½")
    (Decimal('84500.00'), Decimal('1250'), Decimal('2.5'))
    """
    text = re.sub(r"[\s'’]", "", text)
    extra = Decimal(0)
    if text and text[-1] in SIGNS:
        extra, text = SIGNS[text[-1]], text[:-1]
        if not text:
            return extra
    if "," in text and "." in text:
        decimal = max(text.rfind(","), text.rfind("."))
        head, *groups = re.split(r"[.,]", text[:decimal])
        if (
            text[decimal] in text[:decimal]
            or not head
            or any(len(g) not in (2, 3) for g in groups)
            or len(groups[-1]) != 3
        ):
            return None
        whole, part = re.sub(r"[.,]", "", text[:decimal]), text[decimal + 1 :]
        plain = f"{whole}.{part}"
    elif "," in text:
        head, *groups = text.split(",")
        if all(len(g) == 3 for g in groups) or (len(groups) > 1 and len(groups[-1]) == 3):
            plain = head + "".join(groups)
        elif len(groups) == 1:
            plain = f"{head}.{groups[0]}"
        else:
            return None
    elif text.count(".") > 1 and not re.fullmatch(r"\d{1,3}(?:\.\d{3})+", text):
        return None  # two numbers side by side, or none
    elif text.count(".") > 1 or (money and re.fullmatch(r"[1-9]\d{0,2}\.\d{3}", text)):
        plain = text.replace(".", "")
    else:
        plain = text
    return Decimal(plain) + extra if re.fullmatch(r"\d+(?:\.\d+)?", plain) else None


def read_words(text: str) -> Decimal | None:
    """A cardinal or ordinal number in words; None where the words make no number.

    >>> read_words("Eighty-four thousand five hundred"), read_words("one hundred twentieth")
    (Decimal('84500'), Decimal('120'))
    >>> read_words("six point four million"), read_words("a million and a half")
    (Decimal('6400000'), Decimal('1500000'))
    """
    parts = re.split(r"[\s-]+", text.lower().strip())
    if "point" in parts:
        return _with_decimals(parts)
    total, group = Decimal(0), Decimal(0)
    seen, last = False, ""
    i = 0
    while i < len(parts):
        part = parts[i]
        if part == "and" or (part == "a" and i + 1 < len(parts) and parts[i + 1] in FRACTIONS):
            i += 1
            continue
        following = parts[i + 1] if i + 1 < len(parts) else ""
        if seen and following in FRACTIONS and part in UNITS:
            group += UNITS[part] * FRACTIONS[following]
            i += 2
            continue
        if part in FRACTIONS and seen and parts[i - 1] == "a":
            if last in SCALES:
                total += FRACTIONS[part] * SCALES[last]  # "a million and a half"
            else:
                group += FRACTIONS[part]
        elif part in UNITS:
            if UNITS.get(last):
                return None  # "two and four" are two numbers
            group += UNITS[part]
        elif part in TENS:
            group += TENS[part]
        elif part == "hundred" or part == "hundredth":
            group = (group or Decimal(1)) * 100
        elif part in SCALES:
            total += (group or 1) * SCALES[part]
            group = Decimal(0)
        elif part in ORDINALS:
            group += ORDINALS[part]
        else:
            return None
        seen, last = True, part
        i += 1
    return total + group if seen else None


def _with_decimals(parts: list[str]) -> Decimal | None:
    """Words with "point" among them: the whole, its digits one by one, and what it is all times of."""
    at = parts.index("point")
    digits = [p for p in parts[at + 1 :] if p not in SCALES]
    times = [SCALES[p] for p in parts[at + 1 :] if p in SCALES]
    whole = read_words(" ".join(parts[:at]))
    if whole is None or not digits or len(times) > 1 or any(UNITS.get(d, 10) > 9 for d in digits):
        return None
    return Decimal(f"{whole}.{''.join(str(UNITS[d]) for d in digits)}") * (times[0] if times else 1)


def read_year_words(text: str) -> int | None:
    """A year in words: "Two Thousand and Nineteen", "nineteen ninety-eight", "twenty twenty-five"."""
    parts = [p for p in re.split(r"[\s-]+", text.lower()) if p and p != "and"]
    if (
        parts
        and parts[0] in ("nineteen", "twenty")
        and "thousand" not in parts
        and "hundred" not in parts
        and len(parts) > 1
    ):
        rest = read_words(" ".join(parts[1:]))
        return (UNITS.get(parts[0], 20)) * 100 + int(rest) if rest is not None and 10 <= rest < 100 else None
    value = read_words(" ".join(parts))
    return int(value) if value is not None and 1800 <= value <= 2200 else None


def read_number(text: str, *, money: bool = False) -> tuple[Decimal | None, str]:
    """A number in digits, words, or both ("seven (7)"), and a remark where the two disagree.

    Where they disagree the words are taken, as the usual rule for documents has it.
    """
    digits = _digits.search(text)
    words = _words.search(text)
    by_digits = read_digits(digits.group(), money=money) if digits else None
    by_words = read_words(words.group()) if words else None
    if by_digits is not None and by_words is not None:
        if by_digits != by_words:
            return by_words, f"the words say {by_words:f}, the figures {by_digits:f}; the words are taken"
        return by_words, ""
    return (by_digits if by_digits is not None else by_words), ""


def find_counts(text: str) -> Iterator[Found[Decimal]]:
    """Each number, left to right, in digits, words or both; with its "million", and as spoken: "six point four"."""
    scaled = [
        Found(value * SCALES[m["times"].lower()], Span(*m.span()))
        for m in _scaled.finditer(text)
        if (value := read_number(m["number"])[0]) is not None
    ]
    for m in _both.finditer(text):
        span = Span(*m.span())
        while scaled and scaled[0].span.end <= span.start:
            yield scaled.pop(0)
        if scaled and scaled[0].span.overlaps(span):
            continue
        value, reading = read_number(m.group())
        if SCALE_ALONE.fullmatch(m.group()) and not ONE_BEFORE.search(text, 0, m.start()):
            continue  # "several million" tells no number
        if value is not None:
            yield Found(value, span, reading)
    yield from scaled
