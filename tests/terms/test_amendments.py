from __future__ import annotations

import pytest

from yarnex.core.terms import abstract_all, load_sheet
from yarnex.core.terms.identity import identify
from yarnex.output.wording import said

LEASE = """LEASE

This Lease is dated 16 February 2026 and is made between:

(1) TEASEL ESTATES LIMITED, a company (the "Landlord"); and

(2) BRACKENFOLD MILLS LIMITED, a company (the "Tenant").

1.  PREMISES AND TERM.  Premises containing 27,000 square feet are let from and including 1 April 2026 for the term of ten (10) years.

2.  BREAK.  The Tenant may determine this Lease on 31 March 2031 by giving the Landlord not less than six months' prior notice.

2.1  The Landlord may determine this Lease at any time by nine months' notice if it wishes to redevelop.

3.  DEPOSIT.  The Tenant has paid a deposit of £37,125.
"""
CHANGE = """DEED OF VARIATION

This deed of variation is made on 21 September 2026 between TEASEL ESTATES LIMITED, a company (the "Landlord"), and BRACKENFOLD MILLS LIMITED, a company (the "Tenant").

BACKGROUND

(A)  This deed is supplemental to a lease dated 16 February 2026 of premises containing 27,000 square feet.

1.  AREA.  The Premises include the dye house, containing 3,200 square feet, for a total of 30,200 square feet.

2.  BREAK.  In clause 2 of the Lease, the words "six months' prior notice" are replaced with "four months' prior notice".

3.  Clause 2.1 is deleted from the Lease and is of no further effect.

4.  DEPOSIT.  The Tenant has paid more, so that the Deposit held is £40,770.
"""


@pytest.fixture
def laid_over(document):
    lease, change = document(LEASE, "lease.txt"), document(CHANGE, "change.txt")
    return abstract_all([change, lease], load_sheet("lease"))


def test_the_amendment_is_linked_by_date_and_parties(laid_over):
    change, lease = laid_over
    assert identify(change.document).kind == "amendment"
    assert change.amends == "lease.txt"
    assert lease.amended_by == ("change.txt",)


@pytest.mark.parametrize(
    ("term", "value"),
    [("floor_area", "30,200 sq ft"), ("deposit", "£40,770"), ("break_notice", "4 months")],
)
def test_new_values_are_amended_with_both_cites(laid_over, term, value):
    finding = laid_over[1].finding(term)
    assert (finding.state, said(finding)) == ("amended", value)
    assert {c.document.path for c in finding.cites} == {"lease.txt", "change.txt"}
    assert "before: " in finding.working[0] or "becomes" in finding.working[0]


def test_a_deleted_clause_leaves_no_value(laid_over):
    finding = laid_over[1].finding("landlord_break")
    assert finding.deleted
    assert not finding.usable
    assert finding.value is None
    assert laid_over[1].deleted_clauses == ("2.1",)


def test_what_follows_is_worked_out_again(laid_over):
    finding = laid_over[1].finding("break_notice_by")
    assert said(finding) == "30 November 2030"


def test_what_is_not_changed_stays(laid_over):
    finding = laid_over[1].finding("term_length")
    assert finding.state == "stated"
    assert {c.document.path for c in finding.cites} == {"lease.txt"}


def test_a_paper_that_names_another_lease_changes_nothing(document):
    other = CHANGE.replace("16 February 2026", "1 May 2019").replace("TEASEL", "BURDOCK")
    _, lease = abstract_all([document(other, "other.txt"), document(LEASE, "lease.txt")], load_sheet("lease"))
    assert lease.amended_by == ()


@pytest.mark.parametrize(
    ("first_lines", "kind"),
    [
        ("LEASE OF BUSINESS PREMISES\n\nThis Lease is made by the Landlord.", "lease"),
        ("FIRST AMENDMENT TO LEASE\n\nThis amendment is made.", "amendment"),
        ("LICENCE TO OCCUPY\n\nThe Licensor permits.", "licence"),
        ("PRIVATE - SIDE LETTER\n\nDear Sirs", "side_letter"),
        ("SUBLEASE\n\nThis sublease", "sublease"),
        ("RECIPE\n\nTake two eggs.", "unknown"),
    ],
)
def test_kinds(document, first_lines, kind):
    assert identify(document(first_lines)).kind == kind


def test_a_blank_date_is_not_filled_from_elsewhere(document):
    from yarnex.core.terms.identity import document_date

    assert document_date(document('LEASE\n\nThis Lease is dated ______ 2026.\n\n"Start" means 1 March 2027.')) == ""
    assert document_date(document("LEASE\n\nThis Lease is made the 3rd day of April 2026 between us.")) == "2026-04-03"


@pytest.mark.parametrize(
    ("line", "day"),
    [
        ("Thrapsley, 3 April 2026", "2026-04-03"),
        ("Date: 3 April 2026", "2026-04-03"),
        ("Commencement date: 3 April 2026", ""),
        ("Expiry: 3 April 2026", ""),
        ("DATED 3 April 2026", "2026-04-03"),
    ],
)
def test_the_date_of_the_paper_is_not_that_of_something_else(document, line, day):
    from yarnex.core.terms.identity import document_date

    assert document_date(document(f"LEASE\n\n{line}\n\nThe tenant pays the rent.")) == day
