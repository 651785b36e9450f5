"""A printed number, as it stands in a cell: "(1,204)", "£1,041.0m", "18.74p", "–", "n/a", "389.1²"."""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import Decimal

from yarnex.core.patterns import pattern
from yarnex.core.values.money import CODES, SCALES, SIGNS
from yarnex.core.values.numbers import read_digits

NIL = frozenset(["-", "–", "—", "−", "nil", "‒", "--"])
NONE = frozenset(["n/a", "na", "n.a.", "n.a", "n/m", "nm", "n.m.", "not applicable", "not available", "not disclosed"])
SUPERSCRIPTS = "¹²³⁴⁵⁶⁷⁸⁹⁰"
NOTE_MARKS = rf"(?:[{SUPERSCRIPTS}*†‡§#^]+|\[\w\])"
UNITS = {
    "%": "percent", "per cent": "percent", "percent": "percent", "p": "pence", "pence": "pence", "c": "cents", "¢": "cents", "cents": "cents",
    "x": "times", "times": "times", "points": "percentage points", "pts": "percentage points", "pp": "percentage points",
    "ppts": "percentage points", "bps": "basis points", "bp": "basis points",
}  # fmt: skip
_signs = "|".join(re.escape(s) for s in sorted([*SIGNS, *CODES], key=len, reverse=True))
_digits = r"\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d{1,2}(?:,\d{2})+,\d{3}(?:\.\d+)?|\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:\.\d+)?|\d+(?:[.,]\d+)?|\.\d+"
_form = pattern(
    rf"""(?P<open>[(\[])?\s*(?P<neg>[-−–+])?\s*(?P<sign>(?-i:{_signs}))?\s*(?P<open2>\()?\s*(?P<neg2>[-−–])?
    (?P<number>{_digits})\s?(?P<scale>million|billion|thousand|crores?|lakhs?|cr|bn|mn|m|k)?\s?
    (?P<unit>%|per\s?cent(?:age\s+points)?|pence|cents|p|c|¢|x|times|points|pts|pp|ppts|bps?)?(?P<code>\s(?:{"|".join(CODES)}))?
    \s*(?P<close>[)\]])?\s?(?P<unit2>%|p|x|m|bn)?\s*(?P<close2>\))?\s?(?P<side>Dr|Cr|DR|CR)?\s*(?P<marks>{NOTE_MARKS})?""",
    re.IGNORECASE | re.VERBOSE,
)


@dataclass(frozen=True, slots=True)
class Printed:
    """value: as printed, scale words not applied; None for "n/a". scale: what the cell itself says (m: a million).

    unit: as `Figure.unit`, "" where the cell says none.
    """

    value: Decimal | None
    scale: Decimal = Decimal(1)
    unit: str = ""
    side: str = ""  # "Dr" or "Cr"


def read_printed(text: str, dollar: str = "USD") -> Printed | None:
    """The number that a cell holds and nothing else; None where it holds words, a range or a date.

    >>> read_printed("(1,204)").value, read_printed("–").value, read_printed("n/a").value
    (Decimal('-1204'), Decimal('0'), None)
    """
    words = " ".join(text.split())
    bare = words.lower().rstrip(f"{SUPERSCRIPTS}*†‡")
    if bare in NIL or re.sub(rf"\A(?:{_signs})\s?", "", words) in NIL:
        return Printed(Decimal(0))
    if bare in NONE:
        return Printed(None)
    m = _form.fullmatch(words)
    if m is None:
        return None
    opened = bool(m["open"]) + bool(m["open2"])
    if opened != bool(m["close"]) + bool(m["close2"]):
        return None
    number = m["number"].replace("\u00a0", "").replace("\u202f", "").replace(" ", "")
    value = Decimal(number) if re.fullmatch(r"\.\d+", number) else read_digits(number)
    if value is None:
        return None
    negative = bool(opened) != (m["neg"] in ("-", "−", "–") or bool(m["neg2"]))
    scale, unit = Decimal(1), ""
    shown = (m["scale"] or "").lower()
    after = (m["unit2"] or "").lower()
    if after in ("m", "bn"):
        shown, after = after, ""
    side = (m["side"] or "").capitalize()
    if shown == "cr" and not m["sign"]:
        shown, side = "", "Cr"  # a credit balance; crores come with their currency
    if shown:
        scale = Decimal(
            SCALES.get(shown.rstrip("s") if shown not in SCALES else shown, 10_000_000 if shown == "cr" else 1)
        )
    if m["sign"]:
        unit = dollar if m["sign"] == "$" else SIGNS.get(m["sign"], m["sign"].upper())
    elif m["code"]:
        unit = m["code"].strip().upper()
    said = re.sub(r"\s+", " ", m["unit"] or after).lower()
    if said:
        unit = UNITS.get(said, unit or "percent")
    return Printed(-value if negative else value, scale, unit, side)
