from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values.numbers import find_counts, read_digits, read_number, read_words, read_year_words

UNITS = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
]
TENS = ["-", "-", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"]


def spoken(n: int) -> str:
    """A number below a million in words, written the plain way."""
    if n < 20:
        return UNITS[n]
    if n < 100:
        return TENS[n // 10] + (f"-{UNITS[n % 10]}" if n % 10 else "")
    if n < 1000:
        return f"{UNITS[n // 100]} hundred" + (f" and {spoken(n % 100)}" if n % 100 else "")
    return f"{spoken(n // 1000)} thousand" + (f" {spoken(n % 1000)}" if n % 1000 else "")


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1,250", "1250"),
        ("1,250.50", "1250.50"),
        ("1.250,50", "1250.50"),
        ("12,5", "12.5"),
        ("1.234.567", "1234567"),
        ("1 234 567", "1234567"),
        ("1'234.50", "1234.50"),
        ("1,00,000", "100000"),
        ("2½", "2.5"),
        ("¾", "0.75"),
        ("7", "7"),
    ],
)
def test_digits_with_either_separator(text, value):
    assert read_digits(text) == Decimal(value)


@pytest.mark.parametrize("text", ["1,00,0", "", "1.2.3,4,5", "x", "95.00 14.50"])
def test_malformed_digits_are_no_number(text):
    assert read_digits(text) is None


def test_a_point_before_three_digits_parts_thousands_only_in_money():
    assert read_digits("12.500") == Decimal("12.500")
    assert read_digits("12.500", money=True) == Decimal("12500")


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("Eighty-four thousand five hundred", 84500),
        ("one hundred twentieth", 120),
        ("six million five hundred thousand", 6500000),
        ("twenty-eight", 28),
        ("a hundred apples", None),
        ("two and one-half", "2.5"),
        ("three and a half", "3.5"),
        ("two lakh", 200000),
    ],
)
def test_words(text, value):
    assert read_words(text) == (None if value is None else Decimal(value))


@given(st.integers(min_value=0, max_value=999_999))
def test_every_number_reads_back_from_its_words(n):
    assert read_words(spoken(n)) == n


@given(st.integers(min_value=0, max_value=10**12), st.integers(min_value=0, max_value=99))
def test_every_number_reads_back_from_both_kinds_of_digits(whole, cents):
    english = f"{whole:,}.{cents:02d}"
    swapped = english.translate(str.maketrans(",.", ".,"))
    expected = Decimal(f"{whole}.{cents:02d}")
    assert read_digits(english) == expected
    if whole >= 1000:
        assert read_digits(swapped) == expected


@pytest.mark.parametrize(
    ("text", "year"),
    [
        ("Two Thousand and Nineteen", 2019),
        ("two thousand twenty-five", 2025),
        ("nineteen ninety-eight", 1998),
        ("twenty twenty-six", 2026),
        ("seven", None),
    ],
)
def test_years_in_words(text, year):
    assert read_year_words(text) == year


def test_words_prevail_where_words_and_figures_disagree():
    value, remark = read_number("seven (8)")
    assert value == 7
    assert "the words say 7, the figures 8" in remark
    assert read_number("seven (7)") == (Decimal(7), "")


def test_counts_have_spans():
    text = "two (2) options and 14 days"
    assert [(f.value, f.span.of(text)) for f in find_counts(text)] == [(2, "two (2)"), (14, "14")]


@given(st.text("0123456789., ()abcdeghinortwxy½-", max_size=40))
def test_any_text_gives_numbers_inside_it(text):
    for found in find_counts(text):
        assert 0 <= found.span.start < found.span.end <= len(text)


@given(st.integers(0, 99))
def test_names_of_numbers_read_back(n):
    from yarnex.core.number_names import ORDINALS, spelled

    assert read_words(spelled(n)) == n
    last = spelled(n, ordinal=True).rpartition("-")[2]
    assert n == 0 or ORDINALS[last] == (n % 10 if "-" in spelled(n, ordinal=True) else n)


@pytest.mark.parametrize("n", [-1, 100])
def test_numbers_without_a_name(n):
    from yarnex.core.number_names import spelled

    assert spelled(n) == ""


@pytest.mark.parametrize(
    ("words", "value"),
    [
        ("two and four", None),
        ("two four", None),
        ("one hundred and twenty", 120),
        ("two thousand and nineteen", 2019),
        ("three million and five", 3_000_005),
        ("twenty-four", 24),
    ],
)
def test_two_numbers_side_by_side_are_not_added(words, value):
    assert read_words(words) == (None if value is None else Decimal(value))


@pytest.mark.parametrize(
    ("text", "numbers"),
    [
        ("between two and four looms", ["2", "4"]),
        ("one hundred and four looms", ["104"]),
        ("six looms and nine spindles", ["6", "9"]),
        ("two and a half days", ["2.5"]),
    ],
)
def test_and_joins_only_after_hundreds(text, numbers):
    assert [f"{c.value:f}" for c in find_counts(text)] == numbers


@given(st.integers(1, 19), st.integers(1, 19))
def test_two_small_numbers_stay_two(one, other):
    from yarnex.core.number_names import spelled

    assert read_words(f"{spelled(one)} and {spelled(other)}") is None


@pytest.mark.parametrize(
    ("word", "number"),
    [("third", 3), ("Third", 3), ("3rd", 3), ("three", 3), ("12", 12), ("20th", 20), ("²", 0), ("", 0)],
)
def test_one_word_that_counts(word, number):
    from yarnex.core.number_names import counted

    assert counted(word) == number
