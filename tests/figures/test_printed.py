"""Printed numbers: what is one, what it is worth, and what is none."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.figures.printed import read_printed

NUMBERS = [
    ("1,204", "1204", 1, ""),
    ("(1,204)", "-1204", 1, ""),
    ("-1,204", "-1204", 1, ""),
    ("−3.5", "-3.5", 1, ""),
    ("–", "0", 1, ""),
    ("nil", "0", 1, ""),
    ("£1,041.0m", "1041.0", 1_000_000, "GBP"),
    ("€48.2 million", "48.2", 1_000_000, "EUR"),
    ("Rs 3.2 crore", "3.2", 10_000_000, "INR"),
    ("US$ 400", "400", 1, "USD"),
    ("18.74p", "18.74", 1, "pence"),
    ("65.1%", "65.1", 1, "percent"),
    ("(13.2%)", "-13.2", 1, "percent"),
    ("12.5 per cent", "12.5", 1, "percent"),
    ("(1.5 points)", "-1.5", 1, "percentage points"),
    ("3.8x", "3.8", 1, "times"),
    ("389.1²", "389.1", 1, ""),
    ("1 204 000", "1204000", 1, ""),
    ("12,34,567", "1234567", 1, ""),
    (".75", "0.75", 1, ""),
    ("1,204*", "1204", 1, ""),
]


@pytest.mark.parametrize(("text", "value", "scale", "unit"), NUMBERS)
def test_reads_numbers_as_printed(text, value, scale, unit):
    read = read_printed(text)
    assert read is not None
    assert (read.value, read.scale, read.unit) == (Decimal(value), scale, unit)


@pytest.mark.parametrize("text", ["n/a", "N/A", "not applicable", "n.m."])
def test_a_cell_may_say_that_there_is_no_number(text):
    read = read_printed(text)
    assert read is not None
    assert read.value is None


@pytest.mark.parametrize(
    "text",
    [
        "",
        "Revenue",
        "11, 12",
        "(3) to (6)",
        "15 October 2031",
        "6:00",
        "1.1.2",
        "Not quantified",
        "(1,204",
        "2024/25",
        "Series A",
    ],
)
def test_words_ranges_and_dates_are_no_number(text):
    assert read_printed(text) is None


def test_a_dollar_is_the_papers_own_and_sides_are_kept():
    assert read_printed("$12", "NZD").unit == "NZD"
    assert read_printed("1,000 Cr").side == "Cr"


@given(st.decimals(min_value=0, max_value=10**9, places=2, allow_nan=False))
def test_brackets_turn_the_sign(value):
    plain, bracketed = read_printed(f"{value:,}"), read_printed(f"({value:,})")
    assert plain.value == value
    assert bracketed.value == -value


@given(st.text("0123456789.,()-–%£$€pmxbn¹²* ", max_size=14))
def test_any_text_gives_a_number_or_nothing(text):
    read = read_printed(text)
    assert read is None or read.value is None or isinstance(read.value, Decimal)
