from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.flags import apply_rules, load_rulebook, parse_rulebook
from yarnex.core.terms import abstract_all, load_sheet

AS_OF = date(2026, 11, 23)
LEAD = ["LEASE", "This Lease is made between the Landlord and the Tenant."]


@pytest.fixture
def raised(document):
    """The ids of the rules that a lease of these words raises."""

    def make(*paragraphs: str, rules: str = "lease", name: str = "paper.txt") -> dict[str, object]:
        sheet = load_sheet("lease")
        book = load_rulebook(rules, sheet)
        filled = abstract_all([document("\n\n".join([*LEAD, *paragraphs]), name)], sheet)
        return {f.rule.id: f for f in apply_rules(filled, book, AS_OF)}

    return make


@pytest.mark.parametrize(
    ("rule", "words"),
    [
        ("uncapped_indexation", ["Each year the rent shall be increased in line with the Consumer Prices Index."]),
        ("upwards_only_review", ["The reviewed rent shall not be less than the rent payable before."]),
        ("landlord_can_end", ["The Landlord may terminate this Lease by six months' notice if it wishes to redevelop the mill."]),
        ("one_sided_break", ["The Landlord may terminate this Lease by six months' notice if it wishes to redevelop the mill."]),
        ("no_break_long_term", ["Term: 20 years"]),
        ("break_conditions", ["The notice is of no effect unless there is no subsisting material breach."]),
        ("break_is_personal", ["BREAK OPTION", "The right in clause 9 is personal to the Tenant and ends on an assignment."]),
        ("no_renewal_option", ["The rent is £10,000 a year."]),
        ("renewal_rights_given_up", ["The Lessee renounces any entitlement to a new tenancy."]),
        ("relocation_right", ["The Landlord may on sixty days' notice relocate the Tenant."]),
        ("dates_contradict", ["Commencement date: 1 May 2026", "Expiry date: 1 April 2026"]),
        ("dates_contradict", ["Commencement date: 1 May 2026", "Term: ten years", "Expiry date: 30 April 2046"]),
        ("undefined_start", ["Commencement date: ____________"]),
        ("uncapped_service_charge", ["SERVICE CHARGE", "The Tenant shall pay the Tenant's Proportion of the service charge."]),
        ("deposit_without_return_date", ["The Tenant has paid a deposit of £5,000."]),
        ("full_repair", ["The Tenant shall put and keep the Premises in good repair and condition."]),
        ("full_repair_old_building", ["The Premises are part of a former mill built in 1874.", "The Tenant shall put and keep the Premises in good repair."]),
        ("absolute_discretion", ["Consent may be refused in the Landlord's absolute discretion."]),
        ("change_of_control", ["A change in the control of the Lessee is deemed to be an assignment."]),
        ("unlimited_guarantee", ["(3) BRACKENFOLD HOLDINGS LIMITED, a company (the \"Guarantor\").", "The Guarantor shall make good all loss."]),
        ("words_and_figures_disagree", ["The yearly rent is ten thousand pounds (£11,000)."]),
        ("ambiguous_date", ["Made on 03/04/2026."]),
        ("blank_fields", ["Deposit: £ __________"]),
        ("holding_over_costly", ["A tenant who remains in possession after the term shall pay rent equal to 200% of the rent."]),
        ("cap_has_ended", ["3. CAP ON SERVICE CHARGE. In each year ending on or before 31 December 2023, the service charge shall not exceed the amount for the preceding year increased by five per cent."]),
        ("deposit_large", ["Deposit: £9,000", "Annual rent: £12,000"]),
        ("sweep_up_services", ["and such other services as the Landlord considers useful"]),
        ("no_set_off", ["paying the rent without any deduction or set-off"]),
        # strengths
        ("repair_limited", ["The Tenant shall not be obliged to put the Premises in any better state than now."]),
        ("review_both_ways", ["The rent shall be the market rent, whether that be higher than, lower than or the same."]),
        ("consent_reasonable", ["The Tenant shall not assign without consent, which shall not be unreasonably withheld."]),
    ],
)  # fmt: skip
def test_rules_that_hold(raised, rule, words):
    flag = raised(*words)[rule]
    assert flag.cites or flag.notes
    for cite in flag.cites:
        assert cite.quote in flag.document.text


@pytest.mark.parametrize(
    ("rule", "words"),
    [
        ("uncapped_indexation", ["Each year the rent shall be increased in line with the Consumer Prices Index.", "RENT REVIEW", "The increase shall not exceed three per cent."]),
        ("one_sided_break", ["The Landlord may terminate this Lease by notice to redevelop.", "The Tenant may terminate this Lease on 1 May 2030 by six months' notice."]),
        ("full_repair_old_building", ["A former mill built in 1874.", "The Tenant shall keep the Premises in repair, but is not obliged to put them in any better state than now."]),
        ("unlimited_guarantee", ['(3) BRACKENFOLD HOLDINGS LIMITED, a company (the "Guarantor").', "The liability of the Guarantor shall not exceed a sum equal to twelve months' rent."]),
        ("deposit_without_return_date", ["The Tenant has paid a deposit of £5,000.", "The Landlord shall return the deposit within 30 days after the end of the term."]),
        ("dates_contradict", ["Commencement date: 1 May 2026", "Term: ten years", "Expiry date: 30 April 2036"]),
        ("no_renewal_option", ["OPTION TO RENEW", "The Tenant may renew this Lease for five years by notice."]),
        ("subordination_unprotected", ["This Lease is subordinate to any mortgage, provided that the holder agrees not to disturb the Tenant."]),
        ("ambiguous_date", ["Made on 03/04/2026 and ending on 28/02/2030."]),
        ("uncapped_service_charge", ["SERVICE CHARGE", "The Tenant shall pay the service charge.", "The service charge shall not exceed the amount for the preceding year increased by four per cent."]),
        ("upwards_only_review", ["The rent may go up or down."]),
    ],
)  # fmt: skip
def test_rules_that_must_not_be_raised(raised, rule, words):
    assert rule not in raised(*words)


def test_a_rule_about_what_is_missing_says_where_it_looked(raised):
    flag = raised("The rent is £10,000 a year.")["no_quiet_enjoyment"]
    assert "not found (looked in clause headings, the wording of" in flag.notes[0]


def test_flags_come_worst_first(raised):
    order = ["high", "medium", "low", "strength"]
    severities = [
        f.rule.severity
        for f in raised("The Landlord may refuse in its absolute discretion. Made on 03/04/2026.").values()
    ]
    assert severities == sorted(severities, key=order.index)


def test_a_rent_table_that_does_not_compute(raised):
    table = "| Period | Rate per square foot | Yearly rent | Monthly rent |\n|---|---|---|---|\n| Year 1 | £5.00 | £10,000 | £833.33 |\n| Year 2 | £5.50 | £11,500 | £900.00 |\n"
    flag = raised("Floor area: 2,000 square feet", "# Rent", table, name="a.md")["rent_table_does_not_compute"]
    assert flag.notes == ("12 x 900.00 = 10,800.00, not 11,500", "5.50 x 2,000 sq ft = 11,000.00, not 11,500")


def test_a_schedule_with_a_gap(raised):
    table = "| Period | Yearly rent |\n|---|---|\n| 1 May 2026 to 30 April 2027 | £10,000 |\n| 1 June 2027 to 30 April 2028 | £11,000 |\n"
    assert raised("# Rent", table, name="a.md")["rent_schedule_gap"].notes == (
        "gap between 30 April 2027 and 1 June 2027",
    )


@pytest.mark.parametrize(
    ("when", "holds"),
    [
        ('{value: "renewal_notice < 7 months"}', True),
        ('{value: "renewal_notice < 5 months"}', False),
        ('{value: "renewal_notice > 100 days"}', True),
        ('{value: "lease_start < rent_start"}', True),
        ('{value: "rent_start < lease_start"}', False),
        ('{value: "lease_start >= 1 May 2026"}', True),
        ('{value: "late_interest = 4 %"}', True),
        ('{value: "deposit < 5 %"}', False),
        ('{not: {found: "guarantor"}}', True),
        ('{any: [{found: "guarantor"}, {found: "deposit"}]}', True),
        ('{all: [{found: "guarantor"}, {found: "deposit"}]}', False),
        ('{says: ["keep the gate shut"], by: "tenant"}', True),
        ('{says: ["keep the gate shut"], by: "landlord"}', False),
        ('{says: ["gate"], unless: ["shut"]}', False),
        ('{says: ["gate"], under: ["moon"]}', False),
    ],
)
def test_conditions(document, when, holds):
    sheet = load_sheet("lease")
    rule = f'rulebook: "r"\nlabel: "R"\nsheet: "lease"\nrules:\n  - {{id: "x", label: "X", severity: "low", why: "w", plain: "p", remedy: "r", when: {when}}}\n'
    words = [
        *LEAD, "Renewal notice: six months", "Commencement date: 1 May 2026", "Rent commencement date: 1 June 2026", "Interest rate: 4%", "Deposit: £5,000",
        "The Tenant shall keep the gate shut.",
    ]  # fmt: skip
    filled = abstract_all([document("\n\n".join(words))], sheet)
    assert bool(apply_rules(filled, parse_rulebook(rule, "r.yaml", sheet), AS_OF)) is holds
