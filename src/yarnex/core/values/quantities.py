"""Areas, lengths, weights, spaces and other amounts with a unit."""

from __future__ import annotations

import re
from collections.abc import Iterator
from decimal import Decimal
from functools import lru_cache

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import BOTH, read_number
from yarnex.core.values.types import Found, Quantity

# Unit as shown in the results, and the words for it. Names follow UCUM's plain words with "_" for blanks.
UNITS = {
    # rates stand before the plain units that they begin with
    "m3/h": r"(?:cubic\s+met(?:re|er)s?|m³|m3|cu\.?\s?m\.?)\s*(?:/|per|an)\s*(?:h|hr|hour)",
    "m3/s": r"(?:cubic\s+met(?:re|er)s?|m³|m3)\s*(?:/|per|a)\s*(?:s|sec|second)",
    "l/s": r"(?:lit(?:re|er)s?|l)\s*(?:/|per|a)\s*(?:s|sec|second)",
    "l/min": r"(?:lit(?:re|er)s?|l)\s*(?:/|per|a)\s*min(?:ute)?",
    "l/h": r"(?:lit(?:re|er)s?|l)\s*(?:/|per|an)\s*(?:h|hr|hour)",
    "megalitres/day": r"(?:megalit(?:re|er)s?|ML)\s*(?:/|per|a)\s*d(?:ay)?",
    "US gpm": r"(?:US\s+)?(?:gpm|gallons?\s+(?:per|a)\s+minute)",
    "km/h": r"(?:kilomet(?:re|er)s?|km)\s*(?:/|per|an)\s*h(?:our)?|kph",
    "mph": r"mph|miles?\s+(?:per|an)\s+hour",
    "m/s": r"(?:met(?:re|er)s?|m)\s*(?:/|per|a)\s*s(?:econd)?",
    "knots": r"knots?",
    "sq_ft": r"(?:rentable\s+|usable\s+|gross\s+|net\s+)?(?:square\s+f(?:ee|oo)t|sq\.?\s?f(?:ee|oo)?t\.?|s\.f\.|sf|ft²|ft2)",
    "sq_m": r"(?:square\s+met(?:re|er)s?|sq\.?\s?m(?:et(?:re|er)s?)?\.?|m²|m2)",
    "sq_yd": r"square\s+yards?|sq\.?\s?yds?\.?",
    "ha": r"hectares?|ha",
    "acre": r"acres?",
    "miles": r"miles?",
    "km": r"kilomet(?:re|er)s?|km",
    "micron": r"microns?|micromet(?:re|er)s?|[µμ]m",
    "mm": r"millimet(?:re|er)s?|mm",
    "in": r"inch(?:es)?",
    "cm": r"centimet(?:re|er)s?|cm",
    "m": r"met(?:re|er)s?|m",
    "ft": r"feet|foot|ft\.?",
    "cu_m": r"cubic\s+met(?:re|er)s?|m³|m3",
    "kN/m2": r"kN\s?/\s?m(?:²|2)|kN\s+per\s+(?:sq(?:uare)?\.?\s?m(?:et(?:re|er))?)|kilonewtons?\s+per\s+square\s+met(?:re|er)",
    "kg": r"kilogram(?:me)?s?|kg",
    "tonnes": r"(?:metric\s+)?tonn?es?",
    "lb": r"pounds?(?!\s+sterling)|lbs?\.?",
    "oz": r"ounces?|oz",
    "mg": r"milligram(?:me)?s?|mg",
    "g": r"gram(?:me)?s?|g",
    "t": r"t",
    "kWh": r"kilowatt[\s-]hours?|kWh",
    "MWh": r"megawatt[\s-]hours?|MWh",
    "kW": r"kilowatts?|kW",
    "MW": r"megawatts?|MW",
    "hp": r"horsepower|hp|bhp",
    "kVA": r"kVA",
    "volts": r"volts?|V",
    "Hz": r"hertz|Hz",
    "rpm": r"rpm|revolutions?\s+(?:per|a)\s+minute",
    "amps": r"amp(?:ere)?s?",
    "bar": r"bar",
    "mbar": r"millibars?|mbar",
    "kPa": r"kPa|kilopascals?",
    "psi": r"psi",
    "dB(A)": r"dB\s?\(?A\)?|dB|decibels?",
    "°C": r"°\s?C|degrees?\s+(?:C\b|Celsius|centigrade)",
    "°F": r"°\s?F|degrees?\s+(?:F\b|Fahrenheit)",
    "degrees": r"degrees?|°",
    "ml": r"millilit(?:re|er)s?|ml",
    "megalitres": r"megalit(?:re|er)s?|ML",
    "litres": r"lit(?:re|er)s?|l",
    "gallons": r"(?:US\s+|imperial\s+)?gallons?",
    "TB": r"terabytes?|TB",
    "GB": r"gigabytes?|GB",
    "MB": r"megabytes?|MB",
    "percentage points": r"percentage\s+points?|per\s?cent(?:age)?\s+points?",
    "basis points": r"basis\s+points?|bps?",
    "pence": r"pence|(?<=\d)p(?!\w|\.\w|\s?m\b)|p(?=\s+(?:per|an?|each)\s+[A-Za-z])|p(?=/[a-z])",
    "cents": r"cents?",
    "minutes": r"minutes?|mins?",
    "seconds": r"seconds?",
    "times": r"times(?!\s+(?:of|as|when))|x(?=[\s,.;)]|\Z)",
    "spaces": r"(?:\w+\s+){0,3}?(?:parking\s+|car\s+|van\s+|lorry\s+)?(?:spaces|bays|stalls)",
}
_form = pattern(
    rf"(?P<minus>(?:\bminus\s|(?<!\w)[-−–])\s?)?(?P<number>{BOTH})(?:\s?|-)(?:"
    + "|".join(f"(?P<u{i}>{p})(?!\\w)" for i, p in enumerate(UNITS.values()))
    + ")",
    re.IGNORECASE,
)
_names = list(UNITS)
CASED = ("m", "V", "ML", "t", "g", "l", "mg", "MW", "MB", "bar", "x", "p")  # shown like this and in no other case
# What a measure is taken by: "64 mg/kWh", "4,500 kg/h".
BY = pattern(r"\s?/\s?(?P<by>kWh|MWh|kg|h(?:our)?|hr|d(?:ay)?|year|yr|a|min|s|l|m[²³23]|km|t|ha)\b")
_ratio = pattern(
    r"(?<![\d.:])(?P<number>\d{1,3}(?:\.\d+)?)\s?(?::\s?1(?:\.0+)?|\s+to\s+(?:1(?:\.0+)?|one))(?!\d|[.:]\d)"
)


def find_quantities(text: str) -> Iterator[Found[Quantity]]:
    """Each number with a known unit, left to right; a unit's letter case matters only for "m" against "M"."""
    found: list[Found[Quantity]] = []
    for m in _form.finditer(text):
        if re.search(r"[$£€¥]\s?\Z", text[max(0, m.start() - 2) : m.start()]):
            continue  # money "per square foot" is no area
        place = next(i for i in range(len(_names)) if m[f"u{i}"])
        shown = m[f"u{place}"]
        if any(shown.lower() == c.lower() and shown != c for c in CASED):
            continue
        if _names[place] == "seconds" and shown.lower() == "second" and text[m.end("number")] == "-":
            continue  # "the twenty-second of May"
        value, reading = read_number(m["number"])
        if value is not None:
            below = (bool(m["minus"]) and _names[place] in ("°C", "°F")) or (m["minus"] or "").strip() == "minus"
            start = m.start() if below else m.start("number")
            by = BY.match(text, m.end())
            unit, end = (f"{_names[place]}/{by['by']}", by.end()) if by is not None else (_names[place], m.end())
            found.append(Found(Quantity(-value if below else value, unit), Span(start, end), reading))
    for m in _ratio.finditer(text):
        value, reading = read_number(m["number"])
        if value is not None and not any(f.span.overlaps(Span(*m.span())) for f in found):
            found.append(Found(Quantity(value, "times"), Span(*m.span()), reading))
    yield from sorted(found, key=lambda f: f.span)


# Exact by the international yard and pound agreement of 1959 and the SI; the whole of pint's own list takes too long to load.
DEFINITIONS = """
meter = [length]
kilogram = [mass]
foot = 0.3048 meter
inch = 0.0254 meter
yard = 3 foot
mile = 5280 foot
sq_ft = foot ** 2
sq_m = meter ** 2
sq_yd = yard ** 2
acre = 4840 yard ** 2
ha = 10000 meter ** 2
miles = mile
km = 1000 meter
cm = 0.01 meter
mm = 0.001 meter
m = meter
ft = foot
in = inch
cu_m = meter ** 3
kg = kilogram
tonnes = 1000 kilogram
t = 1000 kilogram
g = 0.001 kilogram
lb = 0.45359237 kilogram
oz = 0.028349523125 kilogram
second = [time]
km_h = 1000 meter / (3600 * second)
m_s = meter / second
mph = 1609.344 meter / (3600 * second)
knots = 1852 meter / (3600 * second)
litres = 0.001 meter ** 3
ml = 0.000001 meter ** 3
m3_h = meter ** 3 / (3600 * second)
m3_s = meter ** 3 / second
l_s = 0.001 meter ** 3 / second
l_min = 0.001 meter ** 3 / (60 * second)
l_h = 0.001 meter ** 3 / (3600 * second)
pascal = kilogram / meter / second ** 2
kPa = 1000 pascal
bar = 100000 pascal
psi = 6894.757293168 pascal
watt = kilogram * meter ** 2 / second ** 3
kW = 1000 watt
MW = 1000000 watt
"""
_plain = (
    "sq_ft",
    "sq_m",
    "sq_yd",
    "acre",
    "ha",
    "miles",
    "km",
    "cm",
    "mm",
    "m",
    "ft",
    "cu_m",
    "kg",
    "tonnes",
    "t",
    "g",
    "lb",
    "oz",
)
_more = ("mph", "knots", "litres", "ml", "kPa", "bar", "psi", "kW", "MW")
_quotients = ("km/h", "m/s", "m3/h", "m3/s", "l/s", "l/min", "l/h")
# Our names for units, and what the definitions above call them.
CONVERTIBLE = {u: u for u in (*_plain, *_more)} | {u: u.replace("/", "_") for u in _quotients}


def convert(quantity: Quantity, unit: str) -> Quantity | None:
    """The same amount in another unit, to six figures; None where the two do not measure the same thing."""
    if quantity.unit == unit:
        return quantity
    if quantity.unit is None or not (factor := unit_factor(quantity.unit, unit)):
        return None
    return Quantity(round_figures(quantity.value * factor), unit)


@lru_cache(maxsize=256)
def unit_factor(unit: str, other: str) -> Decimal:
    """How many of `other` one `unit` is; 0 where they do not measure the same thing."""
    if unit not in CONVERTIBLE or other not in CONVERTIBLE:
        return Decimal(0)
    import pint

    registry = pint.UnitRegistry(None, non_int_type=Decimal)
    for line in DEFINITIONS.strip().splitlines():
        registry.define(line)
    try:
        return Decimal(registry.Quantity(Decimal(1), CONVERTIBLE[unit]).to(CONVERTIBLE[other]).magnitude)
    except pint.DimensionalityError:
        return Decimal(0)


def round_figures(value: Decimal, figures: int = 6) -> Decimal:
    """Rounded to so many significant figures."""
    if not value:
        return value
    return round(value, figures - value.adjusted() - 1)
