"""Durations, percentages, quantities."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values.durations import add_duration, find_durations, in_months
from yarnex.core.values.percent import find_percents
from yarnex.core.values.quantities import convert, find_quantities, unit_factor
from yarnex.core.values.types import Duration, Quantity


@pytest.mark.parametrize(
    ("text", "value", "unit", "quote"),
    [
        ("seven (7) years", "7", "years", "seven (7) years"),
        ("180 days", "180", "days", "180 days"),
        ("3 (three) years", "3", "years", "3 (three) years"),
        ("30 (thirty) days", "30", "days", "30 (thirty) days"),
        ("within the hour", "1", "hours", "the hour"),
        ("within a week", "1", "weeks", "a week"),
        ("ten business days", "10", "business_days", "ten business days"),
        ("five working days' notice", "5", "business_days", "five working days"),
        ("eighteen months", "18", "months", "eighteen months"),
        ("FIFTEEN (15) YEARS", "15", "years", "FIFTEEN (15) YEARS"),
        ("five (5) Lease Years each", "5", "years", "five (5) Lease Years"),
        ("one hundred twenty (120) days", "120", "days", "one hundred twenty (120) days"),
        ("five years and six months", "66", "months", "five years and six months"),
        ("a fortnight and two fortnights", "4", "weeks", "two fortnights"),
        ("48 hours' notice", "48", "hours", "48 hours"),
        ("30 calendar days", "30", "days", "30 calendar days"),
    ],
)
def test_reads_durations(text, value, unit, quote):
    found = list(find_durations(text))
    assert [(f.value, f.span.of(text)) for f in found] == [(Duration(Decimal(value), unit), quote)]


@pytest.mark.parametrize("text", ["the fifth Lease Year", "£30 days late", "in each year", "no days", "yearly"])
def test_no_duration(text):
    assert list(find_durations(text)) == []


@pytest.mark.parametrize(
    ("day", "length", "back", "result"),
    [
        (date(2026, 8, 31), Duration(Decimal(6), "months"), True, date(2026, 2, 28)),
        (date(2025, 1, 31), Duration(Decimal(1), "months"), False, date(2025, 2, 28)),
        (date(2024, 2, 29), Duration(Decimal(1), "years"), False, date(2025, 2, 28)),
        (date(2026, 3, 1), Duration(Decimal(180), "days"), False, date(2026, 8, 28)),
        (date(2026, 3, 1), Duration(Decimal("1.5"), "years"), False, date(2027, 9, 1)),
        (date(2026, 3, 1), Duration(Decimal(10), "business_days"), False, None),
        (date(2026, 3, 1), Duration(Decimal("0.5"), "days"), False, None),
    ],
)
def test_counting_on_the_calendar(day, length, back, result):
    assert add_duration(day, length, back=back) == result


@given(st.dates(date(1900, 1, 1), date(2150, 1, 1)), st.integers(0, 600))
def test_months_forth_and_back_come_within_the_length_of_a_month(day, months):
    forth = add_duration(day, Duration(Decimal(months), "months"))
    assert forth is not None
    back = add_duration(forth, Duration(Decimal(months), "months"), back=True)
    assert back is not None
    assert 0 <= (day - back).days <= 3


def test_months_of_a_length():
    assert in_months(Duration(Decimal(2), "years")) == 24
    assert in_months(Duration(Decimal(2), "days")) is None


@pytest.mark.parametrize(
    ("text", "values"),
    [
        ("four per centum (4%) a year", ["4"]),
        ("2½ per cent", ["2.5"]),
        ("three point eight per cent", ["3.8"]),
        ("2.4 points over base, six points in all", ["2.4"]),
        ("seven and one-half per cent", ["7.5"]),
        ("150 basis points", ["1.5"]),
        ("forty-nine percent (49%)", ["49"]),
        ("23.6 per cent and 5 %", ["23.6", "5"]),
        ("3‰", ["0.3"]),
        ("12 percentage points", ["12"]),
        ("per centum", []),
        ("the 5 percentages", []),
    ],
)
def test_percentages(text, values):
    assert [f.value.value for f in find_percents(text)] == [Decimal(v) for v in values]


@pytest.mark.parametrize(
    ("text", "value", "unit"),
    [
        ("3,850 square feet", "3850", "sq_ft"),
        ("104 sq. m. of floor", "104", "sq_m"),
        ("12 m² net", "12", "sq_m"),
        ("within four (4) miles", "4", "miles"),
        ("eighteen (18) car parking spaces", "18", "spaces"),
        ("five kN/m²", "5", "kN/m2"),
        ("7.5 tonnes", "7.5", "tonnes"),
        ("2 hectares", "2", "ha"),
    ],
)
def test_quantities(text, value, unit):
    assert [f.value for f in find_quantities(text)] == [Quantity(Decimal(value), unit)]


@pytest.mark.parametrize("text", ["£12 m", "$3.40 per square foot", "12 months", "5 million", "4 managers"])
def test_no_quantity(text):
    assert list(find_quantities(text)) == []


def test_units_are_converted_exactly():
    assert unit_factor("acre", "ha") == Decimal("0.404685642240")
    assert convert(Quantity(Decimal(100), "sq_m"), "sq_ft") == Quantity(Decimal("1076.39"), "sq_ft")
    assert convert(Quantity(Decimal(1), "sq_m"), "kg") is None
    assert convert(Quantity(Decimal(1), "spaces"), "kg") is None
