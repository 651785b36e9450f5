"""The built-in checks: what they compare, the working they give, and what they leave alone."""

from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.flags.checks import CHECKS
from yarnex.core.terms import abstract, load_sheet

AS_OF = date(2026, 11, 23)


@pytest.fixture
def check(document):
    """The notes of one check on a lease of these paragraphs; None where it has nothing to say."""

    def run(name: str, *paragraphs: str):
        filled = abstract(document("\n\n".join(["# LEASE", *paragraphs]), "a.md"), load_sheet("lease"))
        result = CHECKS[name](filled, AS_OF)
        if result is None:
            return None
        cites, notes = result
        assert cites
        assert notes
        assert all(c.quote in filled.document.text for c in cites)
        return notes

    return run


def rent_table(*rows: str, head: str = "Period | Rate per square foot | Annual rent | Monthly rent") -> str:
    return "\n".join([f"| {head} |", "|" + "---|" * (head.count("|") + 1), *(f"| {r} |" for r in rows)])


AREA = "Floor area: 2,000 square feet"


@pytest.mark.parametrize(
    ("name", "paragraphs", "notes"),
    [
        (
            "dates_in_order",
            ["Commencement date: 1 May 2026", "Expiry date: 30 April 2025"],
            ("Start of the term 1 May 2026 lies after end of the term 30 April 2025",),
        ),
        (
            "dates_in_order",
            ["Commencement date: 1 May 2026", "Expiry date: 30 April 2036", "Break date: 1 May 2037"],
            ("Break date 1 May 2037 lies after end of the term 30 April 2036",),
        ),
        (
            "term_against_dates",
            ["Commencement date: 1 May 2026", "Term: ten years", "Expiry date: 30 April 2037"],
            ("1 May 2026 + 10 years - 1 day, as the first day counts = 30 April 2036, but the document says that it ends on 30 April 2037 (365 days apart)",),
        ),
        ("rent_table", ["## Rent", AREA, rent_table("Year 1 | £5.00 | £10,400 | £866.67", "Year 2 | £5.50 | £11,000 | £916.67")], ("5.00 x 2,000 sq ft = 10,000.00, not 10,400",)),
        ("rent_table", ["## Rent", rent_table("Year 1 | £5.00 | £10,000 | £900.00", "Year 2 | £5.50 | £11,000 | £916.67")], ("12 x 900.00 = 10,800.00, not 10,000",)),
        ("words_and_figures", ["The Tenant shall give seven (6) months' notice."], None),
        ("ambiguous_dates", ["Made on 03/04/2026."], None),
        ("cap_has_ended", ["## Service charge", "In each year ending on or before 31 December 2023 the service charge shall not exceed the amount for the preceding year increased by five per cent."], None),
        ("schedule_gaps", ["## Rent", rent_table("1 May 2026 to 30 April 2027 | £10", "15 April 2027 to 30 April 2028 | £11", head="Period | Annual rent")], None),
        ("deposit_large", ["Deposit: £9,000", "Annual rent: £12,000"], ("9,000 / 1,000.00 a month = 9.0 months' rent",)),
        ("deposit_large", ["Deposit: £9,000", "Rent: £1,000 per month"], ("9,000 / 1,000.00 a month = 9.0 months' rent",)),
    ],
)  # fmt: skip
def test_what_does_not_agree(check, name, paragraphs, notes):
    found = check(name, *paragraphs)
    assert found is not None
    if notes is not None:
        assert found == notes


@pytest.mark.parametrize(
    ("name", "paragraphs"),
    [
        ("dates_in_order", ["Commencement date: 1 May 2026", "Expiry date: 30 April 2036", "Break date: 1 May 2031"]),
        ("dates_in_order", ["Commencement date: ________", "Expiry date: 30 April 2036"]),
        ("term_against_dates", ["Commencement date: 1 May 2026", "Term: ten years", "Expiry date: 1 May 2036"]),
        ("term_against_dates", ["Commencement date: 1 May 2026", "Term: ten years"]),
        ("rent_table", ["## Rent", AREA, rent_table("Year 1 | £5.00 | £10,000 | £833.33", "Year 2 | £5.50 | £11,000 | £916.67")]),
        ("rent_table", ["## Rent", "Floor area: 185.8 square metres", rent_table("Year 1 | £5.00 | £10,000 | £833.33", "Year 2 | £5.50 | £11,000 | £916.67")]),
        ("rent_table", ["## Insurance", rent_table("Fire | £10,000 | £900", "Flood | £11,000 | £950", head="Risk | Yearly premium | Monthly premium")]),
        ("words_and_figures", ["The Tenant shall give seven (7) months' notice and pay ten thousand pounds (£10,000)."]),
        ("ambiguous_dates", ["Made on 03/04/2026 and ending on 28/02/2030."]),
        ("ambiguous_dates", ["Made on 3 April 2026."]),
        ("cap_has_ended", ["## Service charge", "In each year ending on or before 31 December 2033 the service charge shall not exceed the amount for the preceding year increased by five per cent."]),
        ("cap_has_ended", ["## Service charge", "The service charge shall not exceed the amount for the preceding year increased by five per cent."]),
        ("schedule_gaps", ["## Rent", rent_table("1 May 2026 to 30 April 2027 | £10", "1 May 2027 to 30 April 2028 | £11", head="Period | Annual rent")]),
        ("schedule_gaps", ["## Rent", rent_table("Year 1 | £10", "Year 3 | £11", head="Period | Annual rent")]),
        ("deposit_large", ["Deposit: £5,000", "Annual rent: £12,000"]),
        ("deposit_large", ["Deposit: £9,000", "Annual rent: €12,000"]),
        ("deposit_large", ["Deposit: £9,000"]),
    ],
)  # fmt: skip
def test_what_agrees_or_cannot_be_judged(check, name, paragraphs):
    assert check(name, *paragraphs) is None


def test_every_check_has_a_case_of_both_kinds():
    for test in (test_what_does_not_agree, test_what_agrees_or_cannot_be_judged):
        assert {case[0] for case in test.pytestmark[0].args[1]} == set(CHECKS)


@pytest.mark.parametrize("name", sorted(CHECKS))
def test_checks_have_nothing_to_say_of_words_without_terms(check, name):
    assert check(name, "The yard is swept on Mondays.") is None
