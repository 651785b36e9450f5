"""Units set into one another: there and back again, and what measures another thing is never the same."""

from __future__ import annotations

from decimal import Decimal
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values import Quantity, same_value
from yarnex.core.values.quantities import CONVERTIBLE, UNITS, convert, round_figures, unit_factor

KINDS = {
    "length": ("m", "cm", "mm", "km", "ft", "miles"),
    "area": ("sq_m", "sq_ft", "sq_yd", "acre", "ha"),
    "mass": ("kg", "g", "t", "tonnes", "lb", "oz"),
    "volume": ("cu_m", "litres", "ml"),
    "speed": ("km/h", "m/s", "mph", "knots"),
    "flow": ("m3/h", "m3/s", "l/s", "l/min", "l/h"),
    "pressure": ("bar", "kPa", "psi"),
    "power": ("kW", "MW"),
}


def test_every_unit_that_is_converted_is_one_that_is_read():
    assert set(CONVERTIBLE) <= set(UNITS)
    assert {u for units in KINDS.values() for u in units} == set(CONVERTIBLE)


@pytest.mark.parametrize("kind", KINDS)
def test_there_and_back_again(kind):
    for one, other in combinations(KINDS[kind], 2):
        assert abs(unit_factor(one, other) * unit_factor(other, one) - 1) < Decimal("1e-12")


@pytest.mark.parametrize(("kind", "another"), list(combinations(KINDS, 2)))
def test_what_measures_another_thing_is_not_converted(kind, another):
    one, other = KINDS[kind][0], KINDS[another][0]
    assert unit_factor(one, other) == 0
    assert convert(Quantity(Decimal(1), one), other) is None


@pytest.mark.parametrize(
    ("one", "other", "same"),
    [
        (("1120", "sq_ft"), ("104", "sq_m"), True),
        (("5093", "lb"), ("2310", "kg"), True),
        (("540", "m3/h"), ("150", "l/s"), True),
        (("540", "m3/h"), ("160", "l/s"), False),
        (("3", "bar"), ("300", "kPa"), True),
        (("12", "m/s"), ("12", "km/h"), False),
        (("12", "m/s"), ("12", "kg"), False),
    ],
)
def test_the_same_amount_in_two_units(one, other, same):
    first, second = (Quantity(Decimal(value), unit) for value, unit in (one, other))
    assert same_value(first, second) is same
    assert same_value(second, first) is same


@given(st.decimals(Decimal("0.001"), 10**9, places=3), st.integers(1, 9))
def test_rounding_keeps_so_many_figures(value, figures):
    rounded = round_figures(value, figures)
    assert abs(rounded - value) <= abs(value) * Decimal(5) * Decimal(10) ** -figures


@given(st.sampled_from(sorted(CONVERTIBLE)), st.decimals(1, 10**6, places=2))
def test_a_unit_is_itself(unit, value):
    quantity = Quantity(value, unit)
    assert convert(quantity, unit) == quantity
