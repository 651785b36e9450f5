"""Rows that hold for a range of days, sums or shares."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.bands import Band, asked_about, bands_in, label_of_row, measures_in, within


@pytest.mark.parametrize(
    ("label", "question", "expected"),
    [
        ("12 May 2028 – 11 May 2031", "What is the rent from May 2028?", 1.0),
        ("12 May 2026 – 11 May 2028", "What is the rent from May 2028?", -1.0),
        ("12 May 2026 – 11 May 2028", "What is the rent until May 2028?", 1.0),
        ("April 2026 to March 2027", "What was charged in March 2027?", 1.0),
        ("April 2026 to March 2027", "What was charged in April 2027?", -1.0),
        ("31 March 2027", "What falls due in March 2027?", 1.0),
        ("30 April 2027", "What falls due in March 2027?", -1.0),
        ("Carding", "What falls due in March 2027?", 0.0),
    ],
)
def test_a_month_lies_in_a_band_or_not(label, question, expected):
    assert within(asked_about(question), label) == expected


@pytest.mark.parametrize(
    ("label", "asked", "expected"),
    [
        ("More than £1,000 but not more than £5,000", "a bale of £3,200", 1.0),
        ("More than £1,000 but not more than £5,000", "a bale of £5,000", 1.0),
        ("More than £1,000 but not more than £5,000", "a bale of £1,000", -1.0),
        ("More than £5,000", "a bale of £5,000.01", 1.0),
        ("Up to £1,000", "a bale of £1,000", 1.0),
        ("Up to £1,000", "a bale of £1,001", -1.0),
        ("Below 96.0% but not below 90.0%", "a share of 90.0%", 1.0),
        ("Below 96.0% but not below 90.0%", "a share of 96.0%", -1.0),
        ("Below 90.0%", "a share of 84%", 1.0),
        ("97% or more", "a share of 98.5%", 1.0),
        ("1 May 2026 – 30 April 2027", "on 2 August 2026", 1.0),
        ("1 May 2026 – 30 April 2027", "on 1 May 2027", -1.0),
        ("From 1 May 2026 to 30 April 2027", "on 30 April 2027", 1.0),
        ("30 June 2027 and after", "at 31 December 2028", 1.0),
        ("30 June 2027 and after", "at 31 December 2026", -1.0),
        ("Before 1 May 2026", "on 30 April 2026", 1.0),
        ("31 March 2027", "at 31 March 2027", 1.0),
        ("Carding and combing", "on 31 March 2027", 0.0),
        ("31 March 2027", "for £4", 0.0),
    ],
)
def test_a_value_lies_in_a_band_or_not(label, asked, expected):
    assert within(measures_in(asked), label) == expected


def test_open_and_closed_ends():
    (band,) = bands_in("More than £1,000 but not more than £5,000")
    assert band == Band("money", Decimal(1000), Decimal(5000), over=True)
    (later,) = bands_in("30 June 2027 and after")
    assert later.low == date(2027, 6, 30)
    assert later.high is None


@given(st.text(max_size=80), st.text(max_size=80))
def test_any_words_give_one_of_three_answers(label, asked):
    assert within(measures_in(asked), label) in (-1.0, 0.0, 1.0)


@given(st.decimals(1, 10**6, places=2), st.decimals(1, 10**6, places=2))
def test_a_range_holds_its_ends_and_nothing_beyond(one, other):
    low, high = sorted((one, other))
    (band, *rest) = bands_in(f"£{low} to £{high}")
    assert not rest
    assert band.holds(low)
    assert band.holds(high)
    assert not band.holds(high + Decimal("0.01"))
    assert not band.holds(low - Decimal("0.01"))


REBATES = """<html><body><h1>Rebates of Highmoor Wool</h1><table><tr><th>Purchases in the year</th><th>Rebate</th></tr>
<tr><td>Up to £100,000</td><td>1%</td></tr><tr><td>More than £100,000 but not more than £250,000</td><td>2%</td></tr>
<tr><td>More than £250,000</td><td>3.5%</td></tr></table></body></html>"""


@pytest.fixture
def rebates(tmp_path):
    from yarnex.core.reading import read_document

    (tmp_path / "rebates.html").write_text(REBATES, "utf-8")
    return read_document(tmp_path / "rebates.html")


@pytest.mark.parametrize(("sum_", "share"), [("£80,000", "1"), ("£180,000", "2"), ("£900,000", "3.5")])
def test_the_row_whose_band_holds_the_sum_answers(rebates, sum_, share):
    found = ask(Inquiry(rebates), understand(f"What rebate is due on purchases of {sum_}?"))[0]
    assert found.value is not None
    assert str(found.value.value) == share


def test_the_label_of_a_row_is_what_stands_left_of_the_cell(rebates):
    table = rebates.tables[0]
    cell = next(c for c in table.cells if c.span.of(rebates.text) == "2%")
    assert label_of_row(rebates, cell.span) == "More than £100,000 but not more than £250,000"
    assert label_of_row(rebates, rebates.blocks[0].span) == ""


def test_two_bands_of_one_label_are_read_apart():
    kinds = [b.kind for b in bands_in("From 1 May 2026 to 30 April 2027, up to £1,000")]
    assert kinds == ["date", "money"]
