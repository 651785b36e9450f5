"""The layout stages on their own: small pure functions."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.reading.layout.columns import regions_of
from yarnex.core.reading.layout.furniture import printed_labels, roman_value, to_roman
from yarnex.core.reading.layout.lines import rows_of, segments_of
from yarnex.core.reading.layout.paragraphs import number_of, starts_item
from yarnex.core.reading.layout.words import Row, Segment, Word


def word(text: str, x: float, y: float, size: float = 10, bold: bool = False) -> Word:
    return Word(text, x, y, x + 5 * len(text), y + size, size, bold)


def row_of(text: str, x: float = 50, y: float = 50) -> Row:
    return Row([Segment([word(text, x, y)])])


@pytest.mark.parametrize(
    ("text", "number", "rest"),
    [
        ("4.5 Repair. To put", "4.5", "Repair. To put"),
        ("Section 3.01. Term", "Section 3.01", "Term"),
        ("ARTICLE IV", "ARTICLE IV", ""),
        ("(a) the rent", "(a)", "the rent"),
        ("1. Landlord", "1", "Landlord"),
        ("Schedule 2 Rights", "Schedule 2", "Rights"),
        ("First Schedule", "First Schedule", ""),
        ("• item", "•", "item"),
        ("B. Landlord acquired it", "B", "Landlord acquired it"),
    ],
)
def test_clause_numbers(text, number, rest):
    assert number_of(text) == (number, rest)


@pytest.mark.parametrize(
    "text", ["12 months", "Section 4.2 of the lease is deleted", "the rent", "2026 was", "a) ", "£5.00"]
)
def test_no_clause_number(text):
    assert not starts_item(text)


@given(st.integers(1, 399))
def test_roman_numbers_read_back(n):
    assert roman_value(to_roman(n)) == n


@pytest.mark.parametrize("text", ["", "iiii", "vx", "abc", "ic"])
def test_no_roman_number(text):
    assert roman_value(text) == 0


def test_a_wide_gap_parts_a_line_and_a_clause_number_does_not():
    rows = rows_of(segments_of([word("Rent", 50, 50), word("payable", 75, 50), word("£10", 200, 50)]))
    assert [s.text for s in rows[0].segments] == ["Rent payable", "£10"]
    rows = rows_of(segments_of([word("4.1", 50, 50), word("Repairs", 90, 50), word("follow", 128, 50)]))
    assert [s.text for s in rows[0].segments] == ["4.1 Repairs follow"]


def test_rows_are_parted_by_their_middle():
    rows = rows_of(segments_of([word("one", 50, 50), word("two", 50, 64), word("beside", 200, 51)]))
    assert [r.text for r in rows] == ["one beside", "two"]


def test_short_cells_are_no_columns_of_prose():
    segments = [Segment([word("£10", 50 + 200 * c, 50 + 15 * r)]) for r in range(12) for c in range(2)]
    assert len(regions_of(segments)) == 1


def test_labels_come_from_the_number_that_counts_on():
    furniture = [[row_of("Lease 4822 page 7")], [row_of("Lease 4822 page 8")], [row_of("Lease 4822 page 9")]]
    assert printed_labels(furniture) == ["7", "8", "9"]


@given(
    st.lists(st.tuples(st.integers(0, 50), st.integers(0, 70), st.text("abc1.(", min_size=1, max_size=6)), max_size=40)
)
def test_no_word_is_lost_on_the_way_to_rows(marks):
    words = [word(text, 10.0 * x, 10.0 * y) for x, y, text in marks]
    rows = rows_of(segments_of(words)) if words else []
    assert sorted(w.text for r in rows for s in r.segments for w in s.words) == sorted(w.text for w in words)
    regions = regions_of(segments_of(words))
    assert sum(len(s.words) for region in regions for s in region) == len(words)
