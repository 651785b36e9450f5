"""Amounts with many units, ratios, what a bare dollar is, and names right before their role."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.terms.measures import period_asked, units_asked, units_named
from yarnex.core.values import find_durations, find_party_roles, find_quantities
from yarnex.core.values.money import usual_dollar
from yarnex.core.words import stems_of


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("540 m³/h at best", [("540", "m3/h")]), ("150 litres a second", [("150", "l/s")]), ("9,000 litres per minute", [("9000", "l/min")]), ("0.145 m3/s", [("0.145", "m3/s")]),
        ("2,450 US gpm", [("2450", "US gpm")]), ("16.1 l/h", [("16.1", "l/h")]), ("45 km/h and 12 m/s", [("45", "km/h"), ("12", "m/s")]), ("28 knots", [("28", "knots")]),
        ("22 megalitres a day", [("22", "megalitres/day")]), ("3.2 bar", [("3.2", "bar")]), ("600 kPa", [("600", "kPa")]), ("70 dB(A) at 7 m", [("70", "dB(A)"), ("7", "m")]),
        ("minus 28 °C", [("-28", "°C")]), ("68 kW, 400 V, 50 Hz", [("68", "kW"), ("400", "volts"), ("50", "Hz")]), ("5,180 lb", [("5180", "lb")]), ("2.28 tonnes", [("2.28", "tonnes")]),
        ("12 t of fleece", [("12", "t")]), ("310 l", [("310", "l")]), ("250 GB", [("250", "GB")]), ("two percentage points", [("2", "percentage points")]), ("35 basis points", [("35", "basis points")]),
        ("5.10 pence per share", [("5.10", "pence")]), ("not less than 1.25:1", [("1.25", "times")]), ("a ratio of 2 to 1", [("2", "times")]), ("14.2p; 9 p.m.", [("14.2", "pence")]), ("64 mg/kWh", [("64", "mg/kWh")]), ("4,500 kg/h at 300 mbar", [("4500", "kg/h"), ("300", "mbar")]), ("four times salary", [("4", "times")]),
    ],
)  # fmt: skip
def test_amounts_with_their_unit(text, found):
    got = [
        (f"{f.value.value:f}", f.value.unit.replace("litres", "l") if text == "310 l" else f.value.unit)
        for f in find_quantities(text)
    ]
    assert got == found


@pytest.mark.parametrize("text", ["at 10:15", "12 M of cloth", "£5 per kg", "the 5 barns", "in 2019 to 2020"])
def test_what_is_no_amount_with_a_unit(text):
    assert list(find_quantities(text)) == []


@given(
    st.decimals(min_value=Decimal("0.1"), max_value=Decimal("99999"), places=1),
    st.sampled_from(["kg", "kW", "bar", "rpm", "km/h", "kPa"]),
)
def test_any_number_with_a_unit_comes_back(number, unit):
    (found,) = find_quantities(f"it shows {number:,f} {unit} today")
    assert (found.value.value, found.value.unit) == (number, unit)


def test_minutes_and_hours_are_lengths_of_time():
    assert [(f.value.value, f.value.unit) for f in find_durations("30 minutes, 48 hours")] == [
        (30, "minutes"),
        (48, "hours"),
    ]


@pytest.mark.parametrize(
    ("text", "currency"),
    [
        ("$40, GST 15%, Wellington, New Zealand", "NZD"), ("Account 01-0234-0056789-00: $5", "NZD"), ("ABN 51 824 753 556 $5", "AUD"), ("$5 and HST, Ontario", "CAD"),
        ("GST at 15 per cent: $6", "NZD"), ("$40 plus GST 10%", "AUD"), ("Account ██-████-███████-00: $5", "NZD"),
        ("Date: Mon, 23 Jun 2025 08:37:55 +1200\n$5", "NZD"), ("$5 a yard", "USD"), ("NZ$5 and US$6", "USD"), ("AUD 5, sold in Singapore for $3", "AUD"),
    ],
)  # fmt: skip
def test_whose_dollars_they_are(text, currency):
    assert usual_dollar(text) == currency


@pytest.mark.parametrize(
    ("text", "roles"),
    [
        ('(3) WEIR AND DALES BANK PLC, of 4 Row Lane (the "Lender")', [("WEIR AND DALES BANK PLC", "Lender")]),
        ("Hebble, 9 May 2026 - Brackenfold Mills plc ('the Company')", [("Brackenfold Mills plc", "Company")]),
        ("Tarn Growers Limited, registered in Scotland (the Supplier)", [("Tarn Growers Limited", "Supplier")]),
        ("the old mill (the Mill) stands there", []),
        (
            "between TARN GROWERS LTD (the Grower) and DR ELLA VENN (the Adviser), 4 May",
            [("TARN GROWERS LTD", "Grower"), ("DR ELLA VENN", "Adviser")],
        ),
        (
            'FOR VALUE RECEIVED, TARN MILLS, INC., a Delaware corporation ("Maker"), promises',
            [("TARN MILLS, INC.", "Maker")],
        ),
    ],
)
def test_the_name_before_a_role(text, roles):
    assert [(f.value.name, f.value.role) for f in find_party_roles(text)] == roles


@pytest.mark.parametrize(
    ("words", "unit"),
    [
        ("how heavy is it", "kg"),
        ("the noise", "dB(A)"),
        ("what flow", "m3/h"),
        ("how cold", "°C"),
        ("engine power", "kW"),
        ("within what distance", "miles"),
    ],
)
def test_the_units_in_which_a_thing_is_measured(words, unit):
    assert unit in units_asked(stems_of(words))


def test_units_and_periods_named_outright():
    assert units_named(stems_of("the area in square feet")) == {"sq_ft"}
    assert units_named(stems_of("the area")) == frozenset()
    assert period_asked(stems_of("the monthly fee")) == "month"
    assert period_asked(stems_of("the monthly and the yearly fee")) == ""


@pytest.mark.parametrize(
    ("text", "lengths"),
    [
        ("between two and four hours", [("4", "hours")]),
        ("from six to eight weeks", [("8", "weeks")]),
        ("five years and six months", [("66", "months")]),
        ("one hundred and twenty days", [("120", "days")]),
        ("two days and four hours", [("2", "days"), ("4", "hours")]),
    ],
)
def test_lengths_of_two_numbers(text, lengths):
    assert [(f"{f.value.value:f}", f.value.unit) for f in find_durations(text)] == lengths


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("Amounts leave out goods and services tax at 15 per cent. Labour $40.00.", "NZD"),
        ("Goods and services tax at 10 per cent is added. Labour $40.00.", "AUD"),
        ("GST 15%: $6.00", "NZD"),
        ("Labour $40.00, HST extra", "CAD"),
        ("Labour $40.00", "USD"),
        ("Labour $40.00 plus GST", ""),
        ("On 15 June 2027 labour was $40.00", ""),
        ("On June 15, 2027 labour was $40.00", "USD"),
        ("Labour $40.00 to Weir Dyers LLC, 15 June 2027", "USD"),
    ],
)
def test_the_tax_tells_whose_dollar_it_is(text, code):
    assert usual_dollar(text) == code


@pytest.mark.parametrize("number", ["(1) ", "(1). ", "1. ", "(1), "])
def test_a_party_behind_its_number(number):
    text = f'made between:\n{number}Calder Grain & Wool Limited of Old Yard, Thrapsley (the "Licensor"); and\n(2) Brackenfold Mills Limited (the "Licensee").'
    assert [(r.value.role, r.value.name) for r in find_party_roles(text)] == [
        ("Licensor", "Calder Grain & Wool Limited"),
        ("Licensee", "Brackenfold Mills Limited"),
    ]
