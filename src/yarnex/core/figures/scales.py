"""Units and scales as headings say them: "£’000", "$ millions, except per share", "Rs in crore", "(pence)", "% of sales"."""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import Decimal

from yarnex.core.patterns import pattern
from yarnex.core.values.money import CODES, NAMES, SIGNS

_sign = "|".join(re.escape(s) for s in sorted([*SIGNS, *CODES], key=len, reverse=True))
_name = "|".join(re.escape(n) for n in sorted(NAMES, key=len, reverse=True))
MULTIPLES = {"thousand": 1_000, "million": 1_000_000, "billion": 1_000_000_000, "crore": 10_000_000, "lakh": 100_000}
_many = r"(?P<k>['’‘`]?\s?000s?\b|thousands?\b|k\b)|(?P<m>millions?\b|mn\b|mio\b|m\b)|(?P<b>billions?\b|bn\b)|(?P<c>crores?\b|cr\b)|(?P<l>lakhs?\b|lacs?\b)"
_after_sign = pattern(rf"(?<![\w])(?P<sign>(?-i:{_sign}))\s*(?:in\s+|[-–(]\s*)?(?:{_many})?", re.IGNORECASE)
_before_name = pattern(rf"(?:{_many})\s*(?:of\s+)?(?P<name>(?-i:{_sign})|(?:{_name})\b)", re.IGNORECASE)
_name_first = pattern(rf"(?P<name>(?:{_name}))\b\s*(?:in\s+|[-–(]\s*)?(?:{_many})", re.IGNORECASE)
_bare = pattern(rf"(?:\bin\s+|\A\(?|\()(?:{_many})", re.IGNORECASE)
_brackets = pattern(r"[(\[]([^()\[\]]{1,40})[)\]]\s*(?:,\s*not\s+(?:above|below|less|more)\b.*)?\Z")
_measures = pattern(
    r"\A(?:%|per\s?cent|percentage|pence|cents|p|times|x|days|years|months|hours|tonnes?\b.*|megalit.*|lit.*|m[²³23]|sq.*|km.*|kwh|mwh|gwh|kg|no\.?|number|units?"
    r"|thousands?|millions?|mb|gb|headcount|bps?|basis points|pence per share|cents per share)\Z",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Scale:
    """currency: ISO code, "" where none is named. factor: what numbers are multiplied by, 0 where nothing says. unit: other units."""

    currency: str = ""
    factor: int = 0
    unit: str = ""

    def over(self, other: Scale) -> Scale:
        """This one, with what it leaves open taken from another (of a wider heading)."""
        if self.unit or (self.currency and self.factor):
            return self
        return Scale(self.currency or other.currency, self.factor or other.factor, self.unit or other.unit)


NOTHING = Scale()


def read_scale(text: str, dollar: str = "USD") -> Scale:
    """The currency and scale that a heading states, and its unit where it is no money.

    >>> read_scale("2025 £’000"), read_scale("in millions of euros")
    (Scale(currency='GBP', factor=1000, unit=''), Scale(currency='EUR', factor=1000000, unit=''))
    """
    for form in (_after_sign, _before_name, _name_first):
        best = None
        for m in form.finditer(text):
            word = m.groupdict().get("sign") or m.groupdict().get("name") or ""
            if re.match(r"\s*\d", text[m.end() :]) and not _factor(m):
                continue  # an amount, not a heading: "£250 million"
            if best is None or (_factor(m) and not best.factor):
                best = Scale(_currency(word, dollar), _factor(m))
        if best is not None:
            return best
    low = text.lower()
    if re.search(r"(?:\A|[\s(])(?:%|per\s?cent)(?:[\s),]|\Z)", low):
        return Scale(unit="percent")
    if re.search(r"\bpence\b", low):
        return Scale(unit="pence")
    if re.search(r"\bcents\b", low):
        return Scale(unit="cents")
    bare = _bare.search(text)
    return Scale(factor=_factor(bare)) if bare else NOTHING


def read_row_unit(label: str, dollar: str = "USD") -> tuple[Scale, str]:
    """What the brackets at the end of a row's label say of its unit, and the label without them.

    >>> read_row_unit("Leakage (megalitres a day)")
    (Scale(currency='', factor=1, unit='megalitres a day'), 'Leakage')
    """
    m = _brackets.search(label)
    if m is None:
        return NOTHING, label
    inside = m[1].strip()
    scale = read_scale(inside, dollar)
    rest = label[: m.start()].strip()
    if scale.unit or scale.currency:
        return Scale(scale.currency, scale.factor or 1, scale.unit), rest
    if _measures.match(inside):
        factor = {"thousand": 1000, "thousands": 1000, "million": 1_000_000, "millions": 1_000_000}.get(
            inside.lower(), 1
        )
        return Scale(factor=factor, unit="" if factor > 1 else inside.lower()), rest
    return NOTHING, label


def _factor(m: re.Match[str]) -> int:
    for name, factor in (("k", 1_000), ("m", 1_000_000), ("b", 1_000_000_000), ("c", 10_000_000), ("l", 100_000)):
        if m.groupdict().get(name):
            return factor
    return 0


def _currency(word: str, dollar: str) -> str:
    if word == "$" or word.lower() in ("dollar", "dollars"):
        return dollar
    return SIGNS.get(word) or NAMES.get(word.lower(), "") or (word.upper() if word.upper() in CODES else "")


def factor_of(scale: Scale) -> Decimal:
    """The multiplier as a decimal, 1 where nothing was said."""
    return Decimal(scale.factor or 1)
