"""A value set beside the limit that a paper gives for it, in whatever unit."""

from __future__ import annotations

from decimal import Decimal

import pytest

from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.values.quantities import unit_factor

MANUAL = """# Manual of the yard crane

The crane must not be used in a wind of more than 12 m/s. Loads of up to 2.5 tonnes may be lifted.

The pump of the dye house delivers at least 90 m3/h. The noise at the gate is limited to 70 dB(A).

Orders of more than £20,000 need two signatures. Moisture of the fleece is not more than 16 per cent.
"""


@pytest.mark.parametrize(
    ("question", "yes", "step"),
    [
        ("Is a wind of 45 km/h within the limit?", False, "12 m/s = 43.2 km/h"),
        ("Is a wind of 40 km/h within the limit?", True, "12 m/s = 43.2 km/h"),
        ("Does a wind of 50 km/h exceed the limit?", True, "12 m/s = 43.2 km/h"),
        ("Is a load of 2,400 kg allowed?", True, "2.5 tonnes = 2500 kg"),
        ("Is a load of 6,000 lb allowed?", False, ""),
        ("Is 20 l/s of the dye house pump enough?", False, "90 m3/h = 25 l/s"),
        ("Is moisture of 15 per cent of the fleece acceptable?", True, "15 % < 16 %"),
        ("Is moisture of 18% of the fleece too much?", True, "18 % > 16 %"),
    ],
)
def test_the_limit_decides_and_the_working_is_shown(document, question, yes, step):
    found = ask(Inquiry(document(MANUAL, "manual.md")), understand(question))[0]
    assert found.state == "computed"
    assert found.value is not None
    assert found.value.to_dict()["value"] is yes
    assert any(step in s for s in found.working)
    assert found.cites[0].quote


@pytest.mark.parametrize(
    "question", ["Is the crane yellow?", "Is a wind of 45 km/h pleasant?", "Is 45 kg within the limit of wind?"]
)
def test_where_nothing_is_to_be_compared_nothing_is(document, question):
    found = ask(Inquiry(document(MANUAL, "manual.md")), understand(question))[0]
    assert found.state != "computed"


@pytest.mark.parametrize(
    ("unit", "other", "factor"),
    [("km/h", "m/s", "0.277778"), ("knots", "km/h", "1.852"), ("mph", "km/h", "1.609344"), ("m3/h", "l/s", "0.277778"), ("lb", "kg", "0.453592"), ("bar", "kPa", "100"), ("litres", "cu_m", "0.001"), ("kg", "m", "0")],
)  # fmt: skip
def test_factors_between_units(unit, other, factor):
    assert abs(unit_factor(unit, other) - Decimal(factor)) < Decimal("0.000001")


@pytest.mark.parametrize(
    ("question", "yes"),
    [
        ("Is an order of £18,000 below the limit for two signatures?", True),
        ("Does an order of £25,000 exceed the limit for two signatures?", True),
        ("Is noise of 72 dB(A) at the gate allowed?", False),
        ("Is noise of 70 dB(A) at the gate within the limit?", True),
    ],
)
def test_limits_in_the_same_unit(document, question, yes):
    found = ask(Inquiry(document(MANUAL, "manual.md")), understand(question))[0]
    assert found.value is not None
    assert found.value.to_dict()["value"] is yes
