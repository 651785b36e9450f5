"""Rows and values that hold for a time after a start: "between one and two years", "two per cent after that", "2031/32"."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.elapsed import elapsed_asked, elapsed_fit, split_year_fit
from yarnex.core.values import Money, Percent

PAPER = """# Loan letter

| Item | Detail |
| --- | --- |
| Lender | Calder Bank plc |
| Borrower | Brackenfold Mills plc |
| Release Date | 14 March 2024 |

## 1. Repaying early

1.1 The charge for repaying early is the following share of the sum repaid: five per cent if it is repaid within eighteen months of the Release Date, three per cent if it is repaid after that and within three years, and two per cent afterwards.

1.2 Of the roof fund £90,000 may be drawn in the first four years, £20,000 of it within twelve months.

## 2. Debts

The debts fall due as follows:

| £'000 | 2026 | 2025 |
| --- | --- | --- |
| Within one year | 310 | 280 |
| Between one and two years | 420 | 310 |
| Between two and five years | 960 | 730 |
| After five years | 150 | 615 |

## 3. Wool to be bought

| Season | £m |
| --- | --- |
| 26/27 | 1.4 |
| 27/28 | 1.9 |
| 28/29 | 2.3 |
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "loan.md", "0" * 64, markdown=True))


@pytest.mark.parametrize(
    ("question", "months"),
    [
        ("What falls due in the second year?", 18), ("And in year four?", 42), ("What is due within two years?", 23.5), ("in the next year", 11.5),
        ("after five years", 60.5), ("between two and five years", 42), ("between three and nine months", 6), ("When is it due?", None),
    ],
)  # fmt: skip
def test_months_that_a_question_names(question, months):
    assert elapsed_asked(question) == months


@pytest.mark.parametrize(
    ("months", "label", "fit"),
    [
        (6, "Within one year", 1), (18, "Within one year", -1), (18, "One to two years", 1), (18, "1 – 2 years", 1), (42, "Over two but within five years", 1), (42, "More than two years and not more than five years", 1),
        (70, "After five years", 1), (18, "5 years or more", -1), (18, "Trade creditors", 0), (None, "Within one year", 0), (4, "Between three and nine months", 1),
    ],
)  # fmt: skip
def test_which_labels_hold(months, label, fit):
    assert elapsed_fit(months, label) == fit


@pytest.mark.parametrize(
    ("question", "label", "fit"),
    [
        ("in 2027/28", "27/28", 1), ("in 2027/28", "28/29", -1), ("in 2027-28", "2027/28", 1), ("in 2027", "27/28", 0), ("on 27/3", "27/28", 0), ("in 2099/00", "99/00", 1),
    ],
)  # fmt: skip
def test_split_years(question, label, fit):
    assert split_year_fit(question, label) == fit


@pytest.mark.parametrize(
    ("question", "share"),
    [
        ("What does it cost to repay in the first year?", 5),
        ("What charge applies to a repayment on 2 May 2026?", 3),
        ("What charge applies to a repayment on 1 June 2029?", 2),
    ],
)
def test_the_share_that_holds_then(paper, question, share):
    found = ask(paper, understand(question))[0]
    assert found.value == Percent(share)
    assert "the following share" in found.cites[0].quote


@pytest.mark.parametrize(
    ("question", "amount"),
    [
        ("How much of the debts falls due in the second year?", 420_000),
        ("Which debts fall due after five years? How much?", 150_000),
        ("How much wool is to be bought in 2027/28?", 1_900_000),
    ],
)
def test_the_row_that_holds_then(paper, question, amount):
    found = ask(paper, understand(question))[0]
    assert isinstance(found.value, Money)
    assert found.value.amount == amount


def test_a_part_of_a_sum_is_no_later_one(paper):
    from yarnex.core.search.elapsed import value_that_holds

    passages = paper.passages
    sentence = passages.sentence_at(passages.text.find("Of the roof fund")).span
    sums = [f.span for f in passages.values_in("money", sentence)]
    assert value_that_holds(passages, "What may be drawn in the first year?", sentence, sums) is None
