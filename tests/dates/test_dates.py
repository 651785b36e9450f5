"""Days of agreements: stated, worked out, recurring, and rules whose first day is not known."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.dates import dates_of, dates_of_all
from yarnex.core.dates.business_days import add_business_days, calendar_of, rolled
from yarnex.core.terms.passages import Passages

LEASE = """LEASE OF THE DYE HOUSE

This Lease is made on 4 May 2026 between:

(1) Calder Estates Limited (the "Landlord"); and

(2) Brackenfold Mills Limited (the "Tenant").

1. Definitions

1.1 "Commencement Date" means 1 June 2026.

1.2 "Review Date" means 1 June 2029 and 1 June 2032.

1.3 "Break Date" means 31 May 2031.

1.4 The "Rent Start Date" is the date that is ninety days after the Commencement Date.

1.5 "Business Day" means a day other than a Saturday, a Sunday or a public holiday in England.

2. Term

2.1 The Landlord lets the dye house to the Tenant for a term of ten years from and including the Commencement Date.

2.2 The Tenant may end this Lease on the Break Date by giving not more than twelve months' nor less than six months' notice before the Break Date.

3. Rent

3.1 The Tenant shall ask for a valuation not less than three months before each Review Date.

3.2 The Tenant shall send its accounts within 30 days after the end of each calendar year.

3.3 The Tenant shall pay within 10 Business Days after receipt of a demand.

3.4 The Tenant shall deliver the plans within five Business Days after the Commencement Date.

3.5 The Landlord shall pay the deposit back by the third anniversary of the Commencement Date.
"""


@pytest.fixture
def items(document):
    return dates_of(document(LEASE))


def on(items, day: str):
    return [i for i in items if i.day == date.fromisoformat(day)]


@pytest.mark.parametrize(
    ("day", "state", "working"),
    [
        ("2026-05-04", "stated", ""),
        ("2026-06-01", "stated", ""),
        ("2026-08-30", "computed", "days after"),
        ("2036-05-31", "computed", "1 June 2026 + 10 years"),
        ("2030-11-30", "computed", "6 months"),
        ("2030-05-31", "computed", "12 months"),
        ("2029-03-01", "computed", "3 months before 1 June 2029"),
        ("2032-03-01", "computed", "3 months before 1 June 2032"),
        ("2027-01-30", "computed", "30 days after 31 December 2026"),
        ("2026-06-08", "computed", "5 business days after 1 June 2026"),
        ("2029-06-01", "computed", "anniversary no. 3"),
    ],
)
def test_finds_and_works_out_days(items, day, state, working):
    found = on(items, day)
    assert found, day
    assert any(i.state == state and working in "; ".join(i.working) for i in found), [
        (i.state, i.working) for i in found
    ]


def test_every_item_has_a_cite_and_a_computed_one_its_working(items):
    assert all(i.cites and i.cites[0].quote for i in items)
    assert all(i.working for i in items if i.state == "computed")


def test_a_rule_without_a_start_is_shown_as_such(items):
    (rule,) = [i for i in items if i.state == "rule" and "demand" in i.what]
    assert rule.day is None
    assert "receipt of a demand" in rule.notes[0]
    assert rule.who == "Tenant"


def test_what_comes_again_says_so(items):
    again = [i for i in items if i.recurs == "every year" and i.day]
    assert [i.day.year for i in again] == list(range(2027, 2037))


def test_the_papers_own_business_day_is_used_and_named(document, items):
    calendar = calendar_of(Passages(document(LEASE)))
    assert (calendar.place, calendar.country, calendar.subdivision) == ("England", "GB", "ENG")
    found = on(items, "2026-06-08")[0]
    assert any("public holidays of England" in w for w in found.working)
    assert any("Business Day" in c.quote for c in found.cites)


def test_counting_business_days_leaves_out_holidays():
    import holidays

    english = holidays.country_holidays("GB", subdiv="ENG")
    free = lambda day: day.weekday() >= 5 or day in english  # noqa: E731
    assert add_business_days(date(2026, 12, 23), 2, free) == date(2026, 12, 29)
    assert add_business_days(date(2026, 12, 29), -2, free) == date(2026, 12, 23)
    assert rolled(date(2026, 12, 26), free) == date(2026, 12, 29)


@given(st.dates(date(2000, 1, 1), date(2099, 1, 1)), st.integers(1, 60))
def test_counting_forth_and_back_over_weekdays(day, count):
    free = lambda d: d.weekday() >= 5  # noqa: E731
    start = rolled(day, free)
    assert add_business_days(add_business_days(start, count, free), -count, free) == start


AMENDMENT = """FIRST AMENDMENT TO LEASE

This First Amendment is dated 2 March 2028 and amends the Lease of the Dye House dated 4 May 2026 between Calder Estates Limited (the "Landlord") and Brackenfold Mills Limited (the "Tenant").

1. The definition of Break Date in clause 1.3 is deleted and replaced by: "Break Date" means 31 May 2033.
"""


def test_what_an_amendment_changes_is_followed(document):
    items = dates_of_all([document(LEASE, "lease.txt"), document(AMENDMENT, "amendment.txt")])
    assert any(i.day == date(2033, 5, 31) for i in items)
    old = [i for i in items if i.day == date(2031, 5, 31) and i.document.path == "lease.txt"]
    assert all(i.state == "superseded" or "Break" not in i.what for i in old)


@pytest.mark.parametrize(
    ("words", "day"),
    [
        ("The option may be exercised until 30 June 2027.", "2027-06-30"),
        ("The offer stands for 90 days from the date of this letter.", "2026-08-02"),
        ("The Supplier shall reply within 14 days after 1 July 2026.", "2026-07-15"),
        ("Payment is due 3 weeks from 1 July 2026.", "2026-07-22"),
        ("It ends on the last day of the sixth full month after 15 May 2026.", "2026-11-30"),
    ],
)
def test_single_sentences(document, words, day):
    paper = document(f"LETTER\n\nDated 4 May 2026\n\n1. {words}\n", "letter.txt")
    assert on(dates_of(paper), day), [(i.day, i.what) for i in dates_of(paper)]


@pytest.mark.parametrize(
    "words",
    [
        "The rent is paid for twelve months.",
        "A warranty of 24 months is given.",
        "Six years of experience are asked for.",
    ],
)
def test_lengths_that_end_nothing(document, words):
    paper = document(f"AGREEMENT\n\nDated 4 May 2026\n\n1. {words}\n", "agreement.txt")
    assert [i for i in dates_of(paper) if i.state == "computed"] == []


@given(st.text("The Tenant shall within 5 days after of 1 May 2026 notice. each year before", max_size=90))
def test_any_words_give_items_with_cites(words):
    from yarnex.core.reading.text import read_text

    paper = read_text(f"AGREEMENT\n\n1. {words}\n".encode(), "a.txt", "0" * 64, markdown=False)
    assert all(i.cites for i in dates_of(paper))


SCHEDULE = """# Agreement for fleece

This Agreement is made on 4 May 2026.

## Schedule 1 Least purchases

| Season | Period | Least purchase (£) |
| --- | --- | --- |
| 1 | 2 May 2027 – 1 May 2028 | 120,000 |
| 2 | 3 May 2029 – 2 May 2030 | 135,000 |
"""


def test_the_days_of_a_range_in_a_cell_are_one_item(document):
    found = [(i.day, i.until, i.what) for i in dates_of(document(SCHEDULE, "fleece.md")) if i.until is not None]
    assert found == [
        (date(2027, 5, 2), date(2028, 5, 1), "Period: Season 1"),
        (date(2029, 5, 3), date(2030, 5, 2), "Period: Season 2"),
    ]
