from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.terms import abstract, load_sheet
from yarnex.core.terms.computed import nth_month_end, shown_date
from yarnex.output.wording import said


@pytest.fixture
def lease(document):
    def make(*paragraphs: str):
        return abstract(document("\n\n".join(["LEASE", *paragraphs])), load_sheet("lease"))

    return make


@pytest.mark.parametrize(
    ("day", "count", "full", "result"),
    [
        (date(2025, 3, 1), 84, True, date(2032, 2, 29)),
        (date(2021, 3, 2), 120, True, date(2031, 3, 31)),
        (date(2021, 3, 2), 1, False, date(2021, 4, 30)),
        (date(2024, 1, 31), 1, True, date(2024, 2, 29)),
    ],
)
def test_the_last_day_of_the_nth_month(day, count, full, result):
    assert nth_month_end(day, count, full) == result


@pytest.mark.parametrize(
    ("term", "paragraphs", "value", "working"),
    [
        ("lease_end", ["TO HOLD from and including 1 March 2019 for the term of fifteen (15) years."], "28 February 2034", "1 March 2019 + 15 years - 1 day"),
        (
            "lease_end",
            ['"Commencement Date" means 1 March 2027.', '"Expiry Date" means the last day of the eighty-fourth full month after the Commencement Date.'],
            "28 February 2034",
            "Commencement Date is 1 March 2027",
        ),
        (
            "lease_end",
            ['The "Rent Commencement Date" is 2 March 2021.', "The Term begins on the Rent Commencement Date and expires on the last day of the 120th full calendar month thereafter."],
            "31 March 2031",
            "the first full month counted ends on 30 April 2021",
        ),
        ("rent_start", ['"Commencement Date" means 1 March 2027.', '"Rent Start Date" means the day three months after the Commencement Date.'], "1 June 2027", "3 months after that is 1 June 2027"),
        ("rent_free", ["Commencement date: 1 April 2026", "Rent commencement date: 1 October 2026"], "6 months", "1 April 2026 to 1 October 2026 = 6 months"),
        ("break_notice_by", ["Break date: 31 March 2031", "Break notice: six months"], "30 September 2030", "31 March 2031 - 6 months"),
        ("term_length", ["Commencement date: 1 March 2027", "Expiry date: 28 February 2034"], "7 years", "both included = 7 years"),
        ("rent_per_area", ["Annual rent: £148,500", "Floor area: 27,000 square feet"], "£5.50 per sq ft a year", "148,500 / 27,000 sq ft = 5.50"),
        ("assignment_lock_in", ["Not to assign the whole before the third anniversary of the 1st day of March 2019."], "1 March 2022", "its anniversary no. 3 is 1 March 2022"),
    ],
)  # fmt: skip
def test_what_follows_is_worked_out_with_its_working(lease, term, paragraphs, value, working):
    finding = lease(*paragraphs).finding(term)
    assert said(finding) == value
    assert finding.state == "computed"
    assert any(working in step for step in finding.working)
    assert finding.cites


@pytest.mark.parametrize(
    ("term", "paragraphs"),
    [
        ("lease_end", ["Commencement date: 1 March 2027"]),
        ("break_notice_by", ["Break date: 31 March 2031", "Break notice: ten business days"]),
        ("break_notice_by", ["Break date: 31 March 2031", "Break notice: six months", "BREAK OPTION", "The Tenant may determine this Lease by giving not less than nine months' notice."]),
        ("rent_per_area", ["Annual rent: £148,500"]),
        ("rent_free", ["Commencement date: 1 April 2026", "Rent commencement date: 1 April 2026"]),
    ],
)  # fmt: skip
def test_nothing_is_worked_out_from_what_is_missing_or_disputed(lease, term, paragraphs):
    assert lease(*paragraphs).finding(term).state == "not_found"


def test_a_schedule_is_read_row_by_row(document):
    text = "# Lease\n\n## Rent\n\n| Period | Yearly rent | Monthly rent |\n|---|---|---|\n| 1 May 2026 to 30 April 2027 | £12,000 | £1,000 |\n| 1 May 2027 to 30 April 2028 | £13,200 | £1,100 |\n"
    filled = abstract(document(text, "a.md"), load_sheet("lease"))
    rows = filled.finding("rent_schedule").value.rows
    assert [(r.from_, r.to, str(r.amount.amount), r.amount.per) for r in rows] == [
        ("2026-05-01", "2027-04-30", "12000", "year"),
        ("2027-05-01", "2028-04-30", "13200", "year"),
    ]
    assert filled.finding("rent_schedule_month").value.rows[0].amount.amount == 1000
    assert said(filled.finding("base_rent")) == "£12,000 a year"


def test_dates_are_shown_as_people_write_them():
    assert shown_date(date(2026, 3, 1)) == "1 March 2026"


def test_lengths_that_disagree_give_both_ends(document):
    text = (
        "# Lease of the Shed\n\nThis Lease is made on 4 May 2026 between Tarn Limited (the “Landlord”) and Fell Limited (the “Tenant”).\n\n"
        "| Item | Particular |\n| --- | --- |\n| Commencement date | 1 June 2026 |\n| Term | Ten years |\n\n"
        "# 1 Letting\n\n1.1 The Landlord lets the Shed to the Tenant from and including 1 June 2026 for the term of fifteen (15) years.\n"
    )
    from yarnex.core.terms import abstract_all

    (filled,) = abstract_all([document(text, "shed.md")])
    assert filled.finding("term_length").state == "conflicting"
    end = filled.finding("lease_end")
    assert end.state == "conflicting"
    assert any("31 May 2036" in w for w in end.working)
    assert any("31 May 2041" in w for w in end.working)
    assert end.confidence <= 0.6
