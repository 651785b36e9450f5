"""What a number measures: the units in which a weight, a flow or a noise is given, so that 7 m is no noise."""

from __future__ import annotations

from collections.abc import Iterable

from yarnex.core.words import stem

# Words for what is measured, and the units of `core.values.quantities` in which it is given.
MEASURES: tuple[tuple[str, str], ...] = (
    ("weight mass weigh heavy load payload", "kg t tonnes lb g mg oz kPa kN/m2"),
    ("noise sound loud decibel", "dB(A)"),
    ("flow throughput discharge", "m3/h m3/s l/s l/min l/h megalitres/day US_gpm"),
    ("consumption fuel", "l/h litres gallons l/min kWh"),
    ("power output", "kW MW hp kVA"),
    ("voltage", "volts"),
    ("pressure", "bar mbar kPa psi"),
    ("head lift", "m ft bar kPa psi"),
    ("temperature cold warm hot heat", "°C °F degrees"),
    ("speed velocity wind", "km/h mph m/s knots rpm"),
    ("distance radius far length long width wide height high depth deep thickness diameter", "m km miles mm cm ft in"),
    ("fine fineness micron", "micron"),
    ("area size floorspace large big floor", "sq_m sq_ft sq_yd ha acre"),
    ("volume capacity", "cu_m litres ml gallons megalitres"),
    ("energy", "kWh MWh"),
    ("storage memory", "TB GB MB"),
    ("ratio cover leverage gearing multiple", "times"),
)  # fmt: skip
_by_word = {
    stem(word): frozenset(u.replace("_gpm", " gpm") for u in units.split())
    for words, units in MEASURES
    for word in words.split()
}

# Words for what is given as a part of a hundred.
SHARES = "humidity moisture purity yield occupancy utilisation turnout stake shareholding holding leverage gearing solvency efficiency efficient purity accuracy"
_shares = frozenset(stem(word) for word in SHARES.split())


def is_share(stems: Iterable[str]) -> bool:
    """True for words that ask for a part of a hundred."""
    return not _shares.isdisjoint(stems)


def units_asked(stems: Iterable[str]) -> frozenset[str]:
    """The units that answer what some words ask for; none where they measure nothing that is known."""
    out: frozenset[str] = frozenset()
    for word in stems:
        out |= _by_word.get(word, frozenset())
    return out


NAMED_UNITS = {
    frozenset(("squar", "feet")): "sq_ft", frozenset(("squar", "foot")): "sq_ft", frozenset(("squar", "meter")): "sq_m", frozenset(("mile",)): "miles",
    frozenset(("kilomet",)): "km", frozenset(("kilogram",)): "kg", frozenset(("tonn",)): "tonnes", frozenset(("liter",)): "litres",
    frozenset(("liter", "hour")): "l/h", frozenset(("liter", "second")): "l/s", frozenset(("liter", "minut")): "l/min", frozenset(("kilomet", "hour")): "km/h",
    frozenset(("mile", "hour")): "mph", frozenset(("meter", "second")): "m/s", frozenset(("cubic", "meter", "hour")): "m3/h", frozenset(("cubic", "meter", "second")): "m3/s",
}  # fmt: skip
PERIOD_WORDS = {
    "year": ("yearly", "annual"),
    "month": ("monthly",),
    "week": ("weekly",),
    "day": ("daily",),
    "quarter": ("quarterly",),
    "hour": ("hourly",),
}


def units_named(stems: Iterable[str]) -> frozenset[str]:
    """The unit that some words name outright: "in square feet"."""
    have = set(stems)
    named = [words for words in NAMED_UNITS if words <= have]
    return frozenset(NAMED_UNITS[words] for words in named if not any(words < other for other in named))


def period_asked(stems: Iterable[str]) -> str:
    """The period for which a sum is asked: "the monthly fee"; "" where the words name none or several."""
    have = set(stems)
    found = [period for period, words in PERIOD_WORDS.items() if any(stem(w) in have for w in words)]
    return found[0] if len(found) == 1 else ""
