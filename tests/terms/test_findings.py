"""Terms found in the words of a lease: each kind of evidence, each state, and what must not be found."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, load_sheet
from yarnex.core.terms.model import Finding
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.output.wording import said


@pytest.fixture
def find(document):
    """The finding for a term in a lease of these words, shown as people see it."""

    def make(term: str, *paragraphs: str) -> Finding:
        return abstract(document("\n\n".join(paragraphs)), load_sheet("lease")).finding(term)

    return make


@pytest.mark.parametrize(
    ("term", "words", "value"),
    [
        # labels and particulars
        ("deposit", "Security deposit: £5,000", "£5,000"),
        ("permitted_use", "Permitted use: spinning of wool", "spinning of wool"),
        ("floor_area", "Net internal area: 2,310 square metres", "2,310 sq m"),
        ("break_notice", "Break notice: six months", "6 months"),
        # definitions
        ("base_rent", '"Initial Rent" means ten thousand pounds (£10,000) per annum.', "£10,000 a year"),
        ("rent_start", '"Rent Commencement Date" means the 1st day of June 2026.', "1 June 2026"),
        ("service_charge_share", '"Tenant\'s Proportion" means 41.5 per cent.', "41.5 %"),
        ("deposit", 'The tenant has paid the sum of £5,000 (the "Deposit"), being half a year of rent.', "£5,000"),
        ("rent_days", '"Rent Days" means 25 March, 24 June, 29 September and 25 December in each year.', "25 March; 24 June; 29 September; 25 December"),
        ("review_dates", '"Review Dates" means 1 March 2029 and 1 March 2031.', "1 March 2029; 1 March 2031"),
        # wording
        ("term_length", "TO HOLD from and including 1 May 2026 for the term of twenty-five (25) years.", "25 years"),
        ("lease_start", "TO HOLD from and including the 1st day of May 2026 for the term of ten years.", "1 May 2026"),
        ("lease_end", "The Term is extended through and including September 30, 2034.", "30 September 2034"),
        ("break_date", "The Lessee may determine this Lease on the 30th day of April 2031 by notice.", "30 April 2031"),
        ("break_notice", "The Tenant may determine this Lease on any day by giving not less than nine months' notice.", "9 months"),
        ("renewal_notice", "Tenant may extend the Term by written notice not less than 270 days before the Expiration Date.", "270 days"),
        ("late_interest", "Interest on arrears is payable at the rate of ten per cent (10%) per annum.", "10 %"),
        ("late_grace", "If rent is not paid within fourteen (14) days of its due date, interest is payable on it.", "14 days"),
        ("holdover_rent", "A tenant who remains in possession after the term pays rent equal to 150% of the rent.", "150 %"),
        ("deposit_return_days", "The Landlord shall return the Deposit within 30 days after the end of the term.", "30 days"),
        ("deposit_top_up", "The Tenant shall restore the Deposit within ten working days of a drawing.", "10 business days"),
        ("management_fee", "The Landlord may include a management fee not exceeding twelve per cent of the other costs.", "12 %"),
        ("liability_insurance", "The Tenant shall maintain public liability insurance of at least £5,000,000.", "£5,000,000"),
        ("default_money", "If the rent is in arrear for twenty-one (21) days the Landlord may re-enter.", "21 days"),
        ("relocation", "The Landlord may on sixty days' notice relocate the Tenant to another block.", "60 days"),
        ("allowance", "The Landlord shall pay the Tenant a contribution of £45,000 towards its works.", "£45,000"),
        ("governing_law", "This Lease is governed by the laws of Ireland and the parties submit to its courts.", "Ireland"),
        ("governing_law", "This letter is governed by Irish law.", "Irish law"),
        ("energy_rating", "The energy performance rating of the Premises is B.", "B"),
        ("rent_per_area", "The rent is paid at a rent of €95.00 per square metre per annum.", "€95 per sq m a year"),
        # yes or no
        ("upwards_only", "The reviewed rent shall not be less than the rent payable before the review.", "yes"),
        ("upwards_only", "The rent shall be the market rent, whether that be higher than, lower than or the same as before.", "no"),
        ("change_of_control", "A change in the control of the Lessee is deemed to be an assignment.", "yes"),
        ("schedule_of_condition", "The Tenant shall not be obliged to put the Premises in any better state than now.", "yes"),
        ("email_notice", "A notice may not be given by e-mail.", "no"),
        ("renewal_rights_waived", "The Lessee renounces any entitlement to a new tenancy.", "yes"),
    ],
)  # fmt: skip
def test_what_is_found(find, term, words, value):
    finding = find(term, "LEASE", words)
    assert said(finding) == value
    assert finding.state == "stated"
    assert finding.cites[0].quote in finding.document.text
    assert finding.text in finding.document.text


@pytest.mark.parametrize(
    ("term", "words"),
    [
        ("deposit", "The Landlord shall deposit the keys at the office."),
        ("term_length", "An option to renew for a term of five years from the end is given."),
        ("break_notice", "On an event of default the Landlord may terminate this Lease by ten days' notice."),
        ("liability_insurance", "The Landlord shall maintain general liability insurance of at least £5,000,000."),
        ("late_grace", "If rent is unpaid for 21 days the Landlord may re-enter."),
        ("landlord_break", "On an event of default the Landlord may terminate this Lease by notice."),
        ("purchase_option", "The Tenant has no rights beyond those stated."),
        ("turnover_rent", "The Tenant pays the rent stated in the schedule."),
        ("rent_per_area", "The first payment of rent, being £34,985.30, is due on 1 October 2026."),
        ("service_charge_cap", "To pay on demand 62 per cent of all costs that the Landlord incurs."),
        ("opening_hours", "No sign visible from Bobbin Lane or the canal, except on the gate."),
        ("renewal_options", "The Tenant has no right to renew this Lease."),
        ("deposit_return_days", "Within ten days of a request the Tenant shall return the plans and papers."),
    ],
)
def test_what_must_not_be_found(find, term, words):
    finding = find(term, "LEASE", words)
    assert finding.state == "not_found"
    assert finding.value is None
    assert finding.why[0].startswith("looked in")


def test_not_found_comes_with_the_nearest_mentions(find):
    finding = find("guarantor", "LEASE", "No guarantee is given for the duties of the tenant under this lease.")
    assert finding.state == "not_found"
    assert "No guarantee is given" in finding.near[0].quote


def test_a_line_left_empty_is_blank(find):
    finding = find(
        "service_charge_estimate",
        "THIRD SCHEDULE",
        "SERVICE CHARGE",
        "The estimate for the period of the first year is the sum of £ ____________ plus VAT.",
    )
    assert (finding.state, finding.value) == ("blank", None)


@pytest.mark.parametrize(
    ("line", "blanks"),
    [
        ("Parking spaces . . . . . . . . . . . . 12", 0),
        ("Parking spaces ............ 12 Repairs ............ iv", 0),
        ("Parking spaces: ............", 1),
        ("Parking spaces: ............ for cars", 1),
        ("Dated ............ 2026", 1),
        ("Term: ............ years from 3 May", 1),
    ],
)
def test_dots_that_lead_to_a_page_number_are_no_blank(document, line, blanks):
    assert len(Passages(document(f"LEASE\n\n{line}\n\nThe tenant pays.")).gaps) == blanks


def test_a_blank_elsewhere_is_no_second_statement(find):
    finding = find(
        "lease_date",
        "This Lease is dated 3 April 2026.",
        "The rating at the date of this Lease is D and its number is ..............",
    )
    assert (finding.state, len(finding.cites), finding.working) == ("stated", 1, ())


def test_words_blacked_out_are_redacted(find):
    finding = find("deposit_account", "LEASE", "It is held in account number ██████████, and earns interest.")
    assert (finding.state, finding.value) == ("redacted", None)


def test_two_different_statements_conflict_and_both_are_cited(find):
    finding = find(
        "break_notice",
        "Break notice: six months",
        "BREAK OPTION",
        "The Tenant may determine this Lease on 1 May 2030 by giving not less than nine months' notice.",
    )
    assert finding.state == "conflicting"
    assert len(finding.cites) == 2
    assert "also stated as “" in finding.working[0]
    assert {c.quote for c in finding.cites} >= {"Break notice: six months"}


def test_the_same_statement_twice_is_no_conflict(find):
    finding = find(
        "term_length",
        "Term: 10 years",
        "TO HOLD the premises for the term of one hundred and twenty months from 1 May 2026.",
    )
    assert finding.state == "stated"


def test_a_formula_without_its_base_day_stays_in_words(find):
    finding = find("rent_start", '"Rent Commencement Date" means the date on which the landlord delivers the keys.')
    assert (finding.state, finding.value) == ("stated", None)
    assert finding.text.startswith("the date on which")


def test_a_special_condition_is_told_with_the_main_clause(find):
    finding = find(
        "decoration",
        "4. DECORATION. To paint the outside in every third year.",
        "FIFTH SCHEDULE",
        "SPECIAL CONDITIONS",
        "1. Decoration. To paint the outside in every fourth year only.",
    )
    assert "fourth year" in finding.text
    assert "the main clause says: “To paint the outside in every third year.”" in finding.working[0]


def test_a_list_is_taken_with_its_items(find):
    finding = find(
        "break_conditions",
        "8.2 A notice under clause 8.1 is of no effect unless:",
        "(a) all rents have been paid; and",
        "(b) the premises are given up.",
    )
    assert finding.text.endswith("(b) the premises are given up.")


def test_a_finding_without_a_cite_cannot_be_built(document):
    term = load_sheet("lease").term("deposit")
    with pytest.raises(ValueError, match="without a cite"):
        Finding(document("words"), term, "stated")
    with pytest.raises(ValueError, match="no state"):
        Finding(document("words"), term, "guessed")


def test_every_term_gets_a_finding_even_for_words_that_say_nothing(document):
    filled = abstract(document("Nothing of interest."), load_sheet("lease"))
    assert len(filled.findings) == len(load_sheet("lease").terms)
    assert {f.state for f in filled.findings} == {"not_found"}


@pytest.mark.parametrize(
    ("text", "label"),
    [("1.2 Landlord:", "Landlord"), ("Rent (a year) *", "Rent"), ("  Term  length ", "Term length")],
)
def test_labels_are_bared(text, label):
    assert plain_label(text) == label


def test_definitions_end_where_the_next_begins(document):
    passages = Passages(
        document(
            '"Plan" means the plan. It is for guidance. "Rent" means £10 a year.\n\nThe "Break Date" is 1 May 2030.'
        )
    )
    meanings = {d.name: d.meaning.of(passages.text) for d in passages.definitions}
    assert meanings == {"Plan": "the plan. It is for guidance.", "Rent": "£10 a year.", "Break Date": "1 May 2030."}
