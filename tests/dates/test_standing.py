"""Days that come again: lists of days in each year, the nth day of each month, business days, the usual quarter days."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.dates import dates_of
from yarnex.core.reading.text import read_text

LEASE = """# Lease of the carding shed

This Lease is made on 2 March 2026 between (1) Calder Estates Limited (the "Landlord") and (2) Brackenfold Mills Limited (the "Tenant").

## 1. Term

1.1 The term is two years from and including 1 April 2026.

## 2. Days

2.1 {clause}

## 3. Law

3.1 {law}
"""


@pytest.fixture
def again(document):
    def make(clause: str, law: str = "Nothing else is agreed."):
        lease = document(LEASE.format(clause=clause, law=law), "lease.md")
        return [item for item in dates_of(lease) if item.recurs]

    return make


@pytest.mark.parametrize(
    ("clause", "recurs", "count", "first", "last"),
    [
        (
            "The Tenant shall pay the rent on 25 March, 24 June, 29 September and 25 December in each year.",
            "4 times a year",
            8,
            date(2026, 6, 24),
            date(2028, 3, 25),
        ),
        (
            "The Tenant shall pay the rent on the usual quarter days.",
            "each quarter day",
            8,
            date(2026, 6, 24),
            date(2028, 3, 25),
        ),
        (
            "The test dates are 30 June and 31 December in each year.",
            "2 times a year",
            4,
            date(2026, 6, 30),
            date(2027, 12, 31),
        ),
        ("The Tenant shall sweep the flues on each 1 May.", "every year", 2, date(2026, 5, 1), date(2027, 5, 1)),
        ("Interest is payable on the first day of each month.", "every month", 24, date(2026, 4, 1), date(2028, 3, 1)),
        ("Interest is payable on the 15th of each month.", "every month", 24, date(2026, 4, 15), date(2028, 3, 15)),
        ("Interest is payable on the last day of each month.", "every month", 24, date(2026, 4, 30), date(2028, 3, 31)),
        (
            "The Tenant shall report by the tenth day of each quarter.",
            "every quarter",
            8,
            date(2026, 4, 10),
            date(2028, 1, 10),
        ),
        (
            "The Landlord shall deliver a statement on the last business day of each quarter.",
            "every quarter",
            8,
            date(2026, 6, 30),
            date(2028, 3, 31),
        ),
        (
            "The Tenant shall pay on the third working day of each month.",
            "every month",
            24,
            date(2026, 4, 3),
            date(2028, 3, 3),
        ),
    ],
)
def test_days_that_come_again_are_set_out_over_the_term(again, clause, recurs, count, first, last):
    found = again(clause)
    assert {item.recurs for item in found} == {recurs}
    assert len(found) == count
    assert (found[0].day, found[-1].day) == (first, last)
    assert all(item.working and item.cites[0].quote for item in found)


@pytest.mark.parametrize(
    "clause",
    [
        "The rent for the quarter from 25 March to 24 June is reduced.",  # no word that it comes each year
        "The accounts are due within 30 days after the last day of each month.",  # counted from it, not on it
        "The fair was held on 1 May 2025 in each year of plenty.",  # a day of one year
        "Each may sell.",
    ],
)
def test_days_that_do_not_come_again_by_themselves(again, clause):
    assert not [
        item for item in again(clause) if item.working and "each" in item.working[0] and "day of" in item.working[0]
    ]


def test_a_last_day_that_is_a_holiday_gives_way_to_the_business_day_before(again):
    found = again(
        "The Tenant shall pay on the last business day of each quarter.",
        "This Lease is governed by the law of England and Wales.",
    )
    assert date(2027, 12, 31) in {item.day for item in found}
    assert all("public holidays of England" in item.working[-1] for item in found)


def test_a_day_moves_to_the_next_business_day_where_the_paper_says_so(again):
    found = again(
        "The Tenant shall pay on 1 May in each year or, if that is no business day, on the next business day."
    )
    assert [item.day for item in found] == [date(2026, 5, 1), date(2027, 5, 3)]  # 1 May 2027 is a Saturday
    assert "moves to the next one" in found[0].working[-1]


def test_without_a_known_term_it_stays_a_rule(document):
    words = (
        '# Licence agreement\n\nThis Licence is made between (1) Calder Estates Limited (the "Licensor") and (2) Brackenfold Mills Limited (the "Licensee").\n\n'
        "1. Fee\n\n1.1 The Licensee shall pay the fee on the first day of each month.\n"
    )
    (rule,) = [item for item in dates_of(document(words, "licence.md")) if item.recurs]
    assert (rule.day, rule.state, rule.recurs) == (None, "rule", "every month")


def test_the_first_day_counts_where_the_term_is_from_and_including_it(document):
    days = {item.day for item in dates_of(document(LEASE.format(clause="Nothing.", law="Nothing."), "lease.md"))}
    assert date(2028, 3, 31) in days
    assert date(2028, 4, 1) not in days


@given(st.integers(1, 31), st.sampled_from(["January", "February", "June", "December"]))
def test_any_day_of_a_year_is_found_in_each_year_of_the_term(day, month):
    clause = f"The Tenant shall paint the doors on {day} {month} in each year."
    lease = read_text(LEASE.format(clause=clause, law="Nothing.").encode(), "lease.md", "0" * 64, markdown=True)
    found = [item for item in dates_of(lease) if item.recurs == "every year"]
    assert len(found) == 2
    for item in found:
        assert date(2026, 4, 1) <= item.day <= date(2028, 3, 31)
        assert item.day.strftime("%B") == month
        assert item.day.day <= day
