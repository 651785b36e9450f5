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


PROSE = [
    "the mill will be handed over when",
    "the roof is tight, the floor is dry",
    "and the keys of every door are in",
    "the hands of the foreman, who signs",
    "for them on the day and keeps one.",
]


def lines(texts: list[str], x: float, y: float, pitch: float, bold: bool = False) -> list[Segment]:
    return [Segment([word(w, x, y + pitch * i, bold=bold)]) for i, w in enumerate(texts)]


def prose(x: float, y: float, pitch: float = 12) -> list[Segment]:
    """Five full lines of seven words each."""
    out = []
    for i, text in enumerate(PROSE):
        at, words = x, []
        for w in text.split():
            words.append(word(w, at, y + pitch * i))
            at += 5 * len(w) + 3
        out.append(Segment(words))
    return out


def cells(rows: list[tuple[str, str]], x: float, far: float, y: float, pitch: float = 17) -> list[Segment]:
    out = []
    for i, (label, value) in enumerate(rows):
        out += [Segment([word(label, x, y + pitch * i)]), Segment([word(value, far - 5 * len(value), y + pitch * i)])]
    return out


PRICES = [("Roof", "£211,900"), ("Ground", "£84,200"), ("Floor", "£97,450"), ("Doors", "£9,100")]


def texts_of(regions) -> list[list[str]]:
    return [[s.text for s in sorted(r, key=lambda s: (s.middle, s.x0))] for r in regions]


def test_columns_that_hold_small_tables_are_read_one_after_the_other():
    left = [*prose(50, 50), *cells(PRICES, 50, 210, 121), *prose(50, 203)]
    right = [*cells(PRICES[:3], 260, 420, 55), *prose(260, 118), *prose(260, 185)]
    regions = regions_of(left + right)
    assert [len(r) for r in regions] == [len(left), len(right)]
    assert {id(s) for s in regions[0]} == {id(s) for s in left}


def test_a_side_bar_without_running_text_is_a_column():
    bar = cells(
        [("Span", "18 m"), ("Height", "6.4 m"), ("Load", "35 kN"), ("Doors", "four"), ("Area", "900")], 50, 150, 53, 19
    )
    text = [*prose(180, 50), *prose(180, 120), *prose(180, 190)]
    assert [len(r) for r in regions_of(bar + text)] == [len(bar), len(text)]


def test_a_table_across_the_page_is_not_torn_by_columns_above_and_below_it():
    above = [*prose(50, 50), *prose(260, 50)]
    heading = lines(["Prices"], 50, 130, 12, bold=True)
    across = cells(PRICES, 50, 430, 145)
    below = [*prose(50, 230), *prose(260, 230)]
    found = texts_of(regions_of(above + heading + across + below))
    table = next(r for r in found if "Roof" in r)
    assert table[:3] == ["Prices", "Roof", "£211,900"]
    assert len(table) == 1 + 2 * len(PRICES)


def test_labels_in_the_margin_are_no_column():
    margin = lines(["Roof", "Ground", "Floor", "Doors", "Lights", "Keys"], 50, 50, 24)
    text = [s for i in range(3) for s in prose(120, 50 + 60 * i)]
    assert len(regions_of(margin + text)) == 1


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
