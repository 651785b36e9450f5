"""Amounts of money with currency and what they are paid for; words and figures side by side are checked."""

from __future__ import annotations

import re
from collections.abc import Iterator
from decimal import Decimal

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import DIGITS, WORDS, read_digits, read_words
from yarnex.core.values.types import Found, Money

# ISO 4217 codes; a bare dollar sign is taken as US dollars only where the document names no other dollar.
SIGNS = {
    "US$": "USD", "A$": "AUD", "AU$": "AUD", "C$": "CAD", "CA$": "CAD", "NZ$": "NZD", "HK$": "HKD", "S$": "SGD", "R$": "BRL",
    "$": "USD", "£": "GBP", "€": "EUR", "¥": "JPY", "₹": "INR", "Rs.": "INR", "Rs": "INR", "₩": "KRW", "₺": "TRY", "zł": "PLN",
}  # fmt: skip
CODES = [
    "USD",
    "EUR",
    "GBP",
    "AUD",
    "CAD",
    "NZD",
    "HKD",
    "SGD",
    "CHF",
    "JPY",
    "INR",
    "SEK",
    "NOK",
    "DKK",
    "PLN",
    "CZK",
    "HUF",
    "ZAR",
    "BRL",
    "MXN",
    "CNY",
    "KRW",
    "TRY",
    "AED",
    "SAR",
    "ILS",
]
NAMES = {
    "euro": "EUR", "euros": "EUR", "pound": "GBP", "pounds": "GBP", "pounds sterling": "GBP", "sterling": "GBP", "dollar": "USD",
    "dollars": "USD", "us dollars": "USD", "united states dollars": "USD", "u.s. dollars": "USD", "australian dollars": "AUD",
    "canadian dollars": "CAD", "rupees": "INR", "swiss francs": "CHF", "yen": "JPY",
}  # fmt: skip
SCALES = {
    "k": 1_000, "thousand": 1_000, "m": 1_000_000, "mn": 1_000_000, "million": 1_000_000, "bn": 1_000_000_000,
    "billion": 1_000_000_000, "lakh": 100_000, "lac": 100_000, "crore": 10_000_000,
}  # fmt: skip

_marks = "|".join(re.escape(s) for s in sorted(SIGNS, key=len, reverse=True))
_sign = rf"(?-i:{_marks}|(?:{'|'.join(CODES)})\b)"
_name = "|".join(re.escape(n) for n in sorted(NAMES, key=len, reverse=True))
_scale = r"(?:\s?(?P<scale{0}>million|billion|thousand|crores?|lakhs?|lacs?|bn|mn|m|k)\b)?"
_figure = rf"(?P<neg>-|−)?(?P<open>\((?=[^()]{{1,24}}\)))?(?:(?P<sign>{_sign})\s?(?P<inner>\()?(?P<d1>{DIGITS}){_scale.format(1)}(?(inner)\))|(?P<d2>{DIGITS}){_scale.format(2)}\s?(?P<code>[€£](?!\d)|(?-i:{'|'.join(CODES)})\b|(?:{_name})\b))"
_figure = _figure.replace(r"(?<![\w.,])", "", 1)  # a sign stands before the first digits
_words = rf"(?P<words>{WORDS})(?:\s+and\s+(?P<cents>\d{{1,2}})/100)?\s+(?P<unit>{_name})\b(?:\s+and\s+(?P<minor>{WORDS})\s+(?:cents?|pence|penny))?"
_form = pattern(rf"(?:{_words}(?:\s*\(\s*(?P<shown>[^()]{{2,28}})\s*\))?)|(?:(?<![\w.,]){_figure})", re.IGNORECASE)

_signs = tuple(dict.fromkeys((*SIGNS, *CODES)))
_stems = (*dict.fromkeys(n.removesuffix("s") for n in NAMES if " " not in n and "." not in n), "franc")

PERIODS = {
    "year": r"per\s+annum|p\.?\s?a\b\.?|(?:a|per|each|every)\s+(?:lease\s+|calendar\s+)?year|/\s?(?:yr|year)|yearly|annually|for\s+a\s+full\s+year|exclusive\s+per\s+annum",
    "month": r"p\.?c\.?m\.?\b|(?:a|per|each|every)\s+(?:calendar\s+)?month|/\s?month|monthly",
    "quarter": r"(?:a|per|each|every)\s+quarter|quarterly",
    "week": r"(?:a|per|each|every)\s+week|weekly",
    "day": r"(?:a|per|each|every|for\s+each)\s+day|daily|per\s+diem",
    "hour": r"(?:an|per|each)\s+hour|hourly",
}
_area = r"(?:rentable\s+|usable\s+|net\s+)?(?P<area>square\s+f(?:oo|ee)t|sq\.?\s?f(?:oo|ee)?t\.?|sf\b|psf\b|square\s+met(?:re|er)s?|sq\.?\s?m(?:et(?:re|er)s?)?\b\.?|m²|m2\b)"
_per_area = pattern(
    rf"\s*,?\s*(?:(?:per|a|for\s+each|for\s+every|/)\s*{_area}|(?P<psf>psf)\b)(?:(?:\s+of\s+[\w\s]{{3,30}}?)?(?:(?P<time>\s*,?\s*(?:{PERIODS['year']}))|(?P<month>\s*(?:{PERIODS['month']}))))?",
    re.IGNORECASE,
)
_per_period = {
    unit: pattern(rf"\s*,?\s*(?:\([^()]{{1,30}}\)\s*)?(?:{form})", re.IGNORECASE) for unit, form in PERIODS.items()
}


def _names_a_currency(text: str) -> bool:
    """False only for a text without any sign, code or name of one."""
    if any(sign in text for sign in _signs):
        return True
    low = text.lower()
    return any(name in low for name in _stems)


def find_money(text: str, dollar: str = "USD") -> Iterator[Found[Money]]:
    """Each amount, left to right; a malformed figure ("£1,00,0") is left alone, not guessed.

    dollar: the currency that a bare dollar sign or the word stands for in this document.
    """
    if not _names_a_currency(text):  # told much sooner than by all the numbers
        return
    for m in _form.finditer(text):
        found = _from_words(m, dollar) if m["words"] else _from_figure(m, dollar)
        if found is None:
            continue
        amount, currency, reading = found
        start, end = m.start(), m.end()
        if m["open"]:
            if text[end : end + 1] == ")" and not text[max(0, start - 40) : start].strip():
                amount, end = -amount, end + 1  # alone in brackets: a negative figure of a table
            else:
                start += 1
        per, end = _paid_for(text, end)
        reading = reading or ("the paper does not say whose dollars these are" if currency == "" else "")
        yield Found(Money(amount, currency or None, per), Span(start, end), reading)


def _currency(sign: str, dollar: str) -> str | None:
    if sign in ("$",):
        return dollar
    for table in (SIGNS, {c: c for c in CODES}):
        if sign in table:
            return table[sign]
    low = sign.lower()
    if low in ("dollar", "dollars"):
        return dollar
    return NAMES.get(low)


def _from_figure(m: re.Match[str], dollar: str) -> tuple[Decimal, str | None, str] | None:
    sign = m["sign"] or m["code"] or ""
    currency = _currency(sign, dollar)
    if currency is None:
        return None  # "rs" or "usd" in the middle of ordinary words
    value = read_digits(m["d1"] or m["d2"], money=True)
    if value is None:
        return None
    scale = m["scale1"] or m["scale2"]
    if scale:
        value *= SCALES[scale.lower().removesuffix("s")]
    return (-value if m["inner"] or m["neg"] else value), currency, ""


def _from_words(m: re.Match[str], dollar: str) -> tuple[Decimal, str | None, str] | None:
    value = read_words(m["words"])
    if value is None:
        return None
    value += Decimal(m["cents"] or 0) / 100
    if m["minor"] and (minor := read_words(m["minor"])) is not None:
        value += minor / 100
    currency = _currency(m["unit"], dollar)
    shown = next(find_money(m["shown"], dollar), None) if m["shown"] else None
    if shown is not None and shown.value.amount != value:
        return value, currency, f"the words say {value:,f}, the figures {shown.value.amount:,f}; the words are taken"
    return value, (shown.value.currency if shown else None) or currency, ""


def _paid_for(text: str, end: int) -> tuple[str | None, int]:
    """What follows an amount: per year, per square foot ..., and where that ends."""
    area = _per_area.match(text, end)
    if area and (area["area"] or area["psf"]):
        feet = (area["area"] or "ft").lower().replace(" ", "")
        unit = "sq_ft" if re.search(r"f(?:oo|ee)?t|sf|ft", feet) else "sq_m"
        if area["time"]:
            unit += "_year"
        elif area["month"]:
            unit += "_month"
        return unit, area.end()
    for unit, form in _per_period.items():
        m = form.match(text, end)
        if m:
            behind = _per_area.match(text, m.end())
            if behind and behind["area"] and unit in ("year", "month"):
                feet = "sq_ft" if "f" in behind["area"].lower() else "sq_m"
                return f"{feet}_{unit}", behind.end()
            return unit, m.end()
    return None, end


# What in a paper shows whose dollars it counts, beside the currency's own name: places, taxes, registers, numbers of phones and banks.
DOLLAR_SIGNS = {
    "AUD": (r"\bAUD\b|A\$|Australian dollar", r"\bAustralia\b|\bABN\b|(?:\bGST\b|\b[Gg]oods\s+and\s+[Ss]ervices\s+[Tt]ax\b)[^\n.]{0,12}\b10(?:\.0+)?\s?(?:%|per cent)|\bA\.?C\.?N\.?\s\d{3}|\b(?:NSW|VIC|QLD|TAS)\s\d{4}|\+61\s?\d"),
    "CAD": (r"\bCAD\b|C\$|Canadian dollar", r"\bCanada\b|\b(?:Ontario|Quebec|Alberta|British Columbia|Manitoba)\b|\bHST\b"),
    "NZD": (r"\bNZD\b|NZ\$|New Zealand dollar", "|".join((
        r"\bNew Zealand\b|\bAotearoa\b|\bNZBN\b|\+64\s?\d|\b\w+\.(?:co|org|govt|ac)\.nz\b",
        r"(?<![\w█-])(?:\d{2}|█+)-(?:\d{4}|█+)-(?:\d{7}|█+)-\d{2,3}\b",  # bank, branch, account and suffix
        r"(?:\bGST\b|\b[Gg]oods\s+and\s+[Ss]ervices\s+[Tt]ax\b)[^\n.]{0,12}\b15(?:\.0+)?\s?(?:%|per cent)",  # its rate of goods and services tax; Australia's is 10
        r"\d{2}:\d{2}:\d{2} \+1[23]00\b",  # the time of a mail
    ))),
    "SGD": (r"\bSGD\b|S\$|Singapore dollar", r"\bSingapore\b"),
    "HKD": (r"\bHKD\b|HK\$|Hong Kong dollar", r"\bHong Kong\b"),
}  # fmt: skip


def usual_dollar(text: str) -> str:
    """The currency that a bare dollar sign means in this document: the one that it names most, else US dollars.

    Where no dollar is named, places, taxes and numbers of other dollar countries count. "" where nothing tells whose dollars
    they are and the paper is not American: it writes its days before their months, or speaks of a tax on goods and services.
    """
    if re.search(r"US\$|\bUSD\b|United States dollar", text):
        return "USD"
    for place in (0, 1):
        counts = {code: len(re.findall(patterns[place], text)) for code, patterns in DOLLAR_SIGNS.items()}
        best = max(counts, key=lambda c: counts[c])
        if counts[best]:
            return best
    return "" if ELSEWHERE.search(text) and not AMERICAN.search(text) else "USD"


_month = r"(?:January|February|March|April|May|June|July|August|September|October|November|December)"
ELSEWHERE = pattern(
    rf"\bGST\b|\b[Gg]oods\s+and\s+[Ss]ervices\s+[Tt]ax\b|\b\d{{1,2}}(?:st|nd|rd|th)?\s+{_month}\s+(?:19|20)\d\d\b"
)
AMERICAN = pattern(
    rf"\b{_month}\s+\d{{1,2}},?\s+(?:19|20)\d\d\b|\b(?:Inc|Corp)\.|\bLLC\b|\bU\.?S\.?A?\b|\bUnited\s+States\b|,\s[A-Z]{{2}}\s\d{{5}}\b"
)
