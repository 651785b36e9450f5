"""What papers that change others say of the change, before the terms of what they change."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, abstract_all
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.changes import PLACE
from yarnex.output.wording import said

VARIATION = """# DEED OF VARIATION

Dated 4 May 2028

Between Weir Estates Limited (the "Landlord") and Brackenfold Mills Limited (the "Tenant"), supplemental to a lease of Unit 7, Fuller Yard dated 9 June 2024 (the "Lease").

1. This variation takes effect from 1 July 2028. But for this deed the Term would expire on 8 June 2029.

2. The following are deleted from the Lease: Section 4.6 (Open yard); Section 9 (Signs); and the last sentence of Section 2 of Exhibit C.

3. In clause 3.2 of the Lease "three months" is replaced with "five months". Clause 8 of the Lease is replaced by the following: "The Tenant insures the looms."

4. The sum described in clause 5.1(b) is reduced from £900 to £700.

5. From the same day the Premises include, in addition to Unit 7, Unit 8 containing 410 square metres (the "Additional Premises").

6. The condition in clause 7.1(a) is waived. The Landlord will not, before 1 March 2029, seek any payment towards the new roof.

7. Save as varied the Lease remains in full force.
"""


@pytest.fixture
def filled(document):
    made = document(VARIATION, "variation.md")
    return abstract(made, sheet_for(made))


@pytest.mark.parametrize(
    ("term", "words"),
    [
        ("changed_agreement_date", "9 June 2024"),
        ("changes_effective", "1 July 2028"),
        ("end_before_change", "8 June 2029"),
        ("clauses_struck_out", "Section 4.6 (Open yard); Section 9 (Signs); the last sentence of Section 2 of Exhibit C"),
        ("clauses_replaced", "clause 3.2; Clause 8"),
        ("words_replaced", "“three months” becomes “five months” (3.2); The sum described in clause 5.1(b): “£900” becomes “£700”"),
        ("area_added", "410 sq m"),
        ("rights_waived", "The condition in clause 7.1(a) is waived."),
        ("not_before", "1 March 2029"),
        ("otherwise_unchanged", "Save as varied the Lease remains in full force."),
    ],
)  # fmt: skip
def test_what_is_changed(filled, term, words):
    assert said(filled.finding(term)) == words


def test_the_terms_of_the_change_stand_before_those_of_what_is_changed(filled):
    ids = [t.id for t in filled.sheet.terms]
    assert filled.sheet.name == "lease"
    assert ids.index("otherwise_unchanged") < ids.index("landlord")


def test_other_papers_have_no_terms_of_a_change(document):
    lease = document(
        "# LEASE\n\nThis Lease is made on 1 May 2024.\n\n1 Rent\n\nThe Tenant pays £900 a month.\n", "lease.md"
    )
    filled = abstract_all([lease, document(VARIATION, "variation.md")])
    assert filled[0].finding("clauses_struck_out") is None
    assert filled[1].finding("clauses_struck_out").found


@pytest.mark.parametrize(
    ("text", "places"),
    [
        ("Sections 1.01 and 4.03 of the Lease", ["Sections 1.01 and 4.03"]),
        ("clause 8.2(c) and Schedule 3", ["clause 8.2(c)", "Schedule 3"]),
        ("the first two sentences of clause 7", ["the first two sentences of clause 7"]),
        ("a section of the mill", []),
    ],
)
def test_places_as_they_are_written(text, places):
    assert [m.group() for m in PLACE.finditer(text)] == places
