from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values.dates import date_order, find_dates

DAYS = st.dates(min_value=date(1900, 1, 1), max_value=date(2100, 12, 31))


@pytest.mark.parametrize(
    ("text", "day", "quote"),
    [
        ("on 1 March 2025,", "2025-03-01", "1 March 2025"),
        ("March 1st 2025", "2025-03-01", "March 1st 2025"),
        ("March 1, 2025", "2025-03-01", "March 1, 2025"),
        ("the 1st day of March 2024", "2024-03-01", "1st day of March 2024"),
        ("1st day of March, Two Thousand Twenty-Five", "2025-03-01", "1st day of March, Two Thousand Twenty-Five"),
        (
            "14th day of February Two Thousand and Nineteen",
            "2019-02-14",
            "14th day of February Two Thousand and Nineteen",
        ),
        ("the ninth day of May 2026", "2026-05-09", "ninth day of May 2026"),
        ("2025-03-01", "2025-03-01", "2025-03-01"),
        ("28/02/2029", "2029-02-28", "28/02/2029"),
        ("02/28/2029", "2029-02-28", "02/28/2029"),
        ("3 Sept. 2026", "2026-09-03", "3 Sept. 2026"),
        ("the last day of February 2028", "2028-02-29", "last day of February 2028"),
    ],
)
def test_reads_dates(text, day, quote):
    assert [(f.value.day.isoformat(), f.span.of(text)) for f in find_dates(text)] == [(day, quote)]


@pytest.mark.parametrize(
    "text",
    [
        "31 April 2025",
        "2025-13-01",
        "March 2025",
        "clause 4.2.2019 of",
        "1 March",
        "30/02/2025",
        "May 2026 be good",
        "version 1.2.3",
    ],
)
def test_no_day_of_the_calendar(text):
    assert list(find_dates(text)) == []


def test_order_of_day_and_month_is_worked_out_from_the_document():
    text = "made 01/03/2025, ends 28/02/2029"
    first = next(iter(find_dates(text, date_order(text))))
    assert first.value.day == date(2025, 3, 1)
    assert "28/02/2029 shows" in first.reading
    american = "made 01/03/2025, ends 02/28/2029"
    assert next(iter(find_dates(american, date_order(american)))).value.day == date(2025, 1, 3)


def test_an_undecided_order_is_said_to_be_ambiguous():
    text = "made 01/03/2025"
    (found,) = find_dates(text, date_order(text))
    assert found.reading == "ambiguous: 2025-03-01 with the day first, 2025-01-03 with the month first"


def test_the_same_day_in_both_orders_is_not_ambiguous():
    (found,) = find_dates("05/05/2025")
    assert found.reading == ""


@given(DAYS)
def test_every_day_reads_back(day):
    for text in (
        f"{day.day} {day:%B} {day.year}",
        f"{day:%B} {day.day}, {day.year}",
        day.isoformat(),
        f"{day.day} {day:%b} {day.year}",
    ):
        assert [f.value.day for f in find_dates(f"from {text} on")] == [day]


@given(st.text("0123456789/.- JanuryFebMchApil,thds", max_size=50))
def test_a_quote_read_alone_gives_the_same_day(text):
    for found in find_dates(text):
        assert [f.value for f in find_dates(found.span.of(text))] == [found.value]
