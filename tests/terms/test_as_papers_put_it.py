"""Terms as papers put them: caps, deadlines, lists by letters, notes with bare numbers, blanks in forms, special terms for some cases."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms import abstract, parse_sheet
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.passages import Passages, is_only_gap
from yarnex.core.values import find_organisations
from yarnex.core.words import stems_of


def filled(sheet: str, text: str):
    document = read_text(text.encode(), "paper.md", "0" * 64, markdown=True)
    return abstract(document, sheet_for(document, sheet))


LEASE = """# Lease

The Tenant shall pay 7.5 per cent of the Estate Costs. The service charge shall not exceed £4,100 in any year.

The Tenant shall lodge £9,000 as a rent deposit. It shall be repaid within 30 days after the end.

On the first review the increase shall not be more than 12 per cent.
"""
POLICY = """# Policy

| Item | Detail |
| --- | --- |
| Period of cover | From 00:01 on 2 March 2026 to 24:00 on 1 March 2027 |
| Yearly premium | £3,300.00 |

We pay only in part if the looms are insured for less than 80 per cent of their cost, but never less than 35 per cent of it.

Boilers must be examined every 13 months. If you make no claim, the next premium is reduced by 6 per cent.
"""
CALL = """# Call for offers

Offers must reach the mill by noon on 3 June 2026. They must stay open for 75 days. Offers above £90,000 are not read.

A tender must hold: (a) a price sheet; (b) a drawing of the flue; and (c) two references.

There is a visit to the site on 5 May 2026. The order will be placed by 1 July 2026. Contact: Bram Holroyd, 01943 555 010.
"""
REPORT = """# Brackenfold Mills plc

## Annual report for the year ended 31 March 2026

### Notes

**1 Yarns.** Weaving yarns brought in £4 million.

**3 Employees.** The average number of employees was 212.

**6 Auditor.** Fees payable to Thackray Moore LLP were £41,000 for the audit of the group and £5,200 for other services.

**9 Commitments.** Plant contracted for but not provided came to £610,000.

**12 Contingent liabilities.** A roofer claims £80,000 and nothing is provided.

**14 Events after the year end.** On 2 May 2026 the group sold its dyehouse.
"""


@pytest.mark.parametrize(
    ("sheet", "text", "term", "words"),
    [
        ("lease", LEASE, "service_charge_share", "7.5 per cent"), ("lease", LEASE, "service_charge_cap_amount", "£4,100"), ("lease", LEASE, "deposit", "£9,000"), ("lease", LEASE, "deposit_return", "within 30 days"), ("lease", LEASE, "review_cap", "12 per cent"),
        ("insurance", POLICY, "period_end", "1 March 2027"), ("insurance", POLICY, "premium", "£3,300.00"), ("insurance", POLICY, "underinsurance", "80 per cent"), ("insurance", POLICY, "plant_examination", "13 months"), ("insurance", POLICY, "no_claims_reduction", "6 per cent"),
        ("call_for_proposals", CALL, "submission_deadline", "3 June 2026"), ("call_for_proposals", CALL, "bid_validity", "75 days"), ("call_for_proposals", CALL, "price_ceiling", "£90,000"), ("call_for_proposals", CALL, "site_visit", "5 May 2026"), ("call_for_proposals", CALL, "award_date", "1 July 2026"), ("call_for_proposals", CALL, "contact", "Bram Holroyd"),
        ("report", REPORT, "auditor", "Thackray Moore LLP"), ("report", REPORT, "audit_fees", "£41,000"), ("report", REPORT, "non_audit_fees", "£5,200"), ("report", REPORT, "employees", "212"), ("report", REPORT, "commitments", "£610,000"), ("report", REPORT, "litigation", "A roofer claims"), ("report", REPORT, "subsequent_events", "sold its dyehouse"),
    ],
)  # fmt: skip
def test_the_value_of_a_term(sheet, text, term, words):
    finding = filled(sheet, text).finding(term)
    assert finding.state in ("stated", "computed"), finding.why
    assert words in finding.text


def test_every_lettered_item_of_a_sentence_is_listed():
    items = filled("call_for_proposals", CALL).finding("contents").value.items
    assert items == ("a price sheet", "a drawing of the flue", "two references")


def test_the_insurer_is_named_at_the_head():
    text = "CALDER MUTUAL INSURANCE SOCIETY\nFIRE POLICY\n\nPolicyholder    Brackenfold Mills plc\nPolicy number   F/12\n\nWe insure the wool.\n"
    document = read_text(text.encode(), "fire.txt", "0" * 64)
    finding = abstract(document, sheet_for(document, "insurance")).finding("insurer")
    assert "calder mutual insurance society" in finding.text.lower()


SPECIAL = """sheet: "s"
label: "S"
terms:
  - {id: "pay", label: "Payment within", type: "duration", cues: ["paid within <value>"]}
"""


@pytest.mark.parametrize(
    ("special", "value", "told"),
    [
        ("Invoices for noils that are kept dry are paid within 70 days.", 30, "in a special case"),
        ("Invoices are paid within 70 days.", 70, ""),
    ],
)
def test_a_special_term_for_some_cases_leaves_the_rule(special, value, told):
    text = f"# 1 Payment\n\nInvoices are paid within 30 days.\n\n# 2 Order\n\nThe special terms prevail over the clauses.\n\n# 3 Special terms\n\n{special}\n"
    document = read_text(text.encode(), "paper.md", "0" * 64, markdown=True)
    found = abstract(document, parse_sheet(SPECIAL, "s.yaml")).finding("pay")
    assert found.value.value == value
    assert not told or any(told in w for w in found.working)


@pytest.mark.parametrize(
    ("words", "only"),
    [("IBAN ██████", True), ("£____", True), ("VAT ________", True), ("the Buyer, ______ of Otterdale", False), ("12 May ____", False)],
)  # fmt: skip
def test_what_is_only_a_gap(words, only):
    assert is_only_gap(words) is only


@pytest.mark.parametrize(
    ("text", "gaps"),
    [
        ("Name: Ann Venn  Telephone:\n\n1. The wool is kept dry.\n", 1),
        ("Name: Ann Venn  Telephone:\n\n01943 555 010\n", 0),
        ("Name: Ann Venn  Telephone: 01943 555 010\n", 0),
        ("E-mail:\n\nann@mill.example\n", 0),
    ],
)
def test_a_number_that_a_form_leaves_out(text, gaps):
    assert len(Passages(read_text(text.encode(), "form.txt", "0" * 64)).gaps) == gaps


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("On 27 May 2026 the Company signed.", []),
        ("In June the Council met.", []),
        ("The Otterdale Wool Society met.", ["Otterdale Wool Society"]),
        ("Tarn Mills Limited and the Bank of Calder", ["Tarn Mills Limited"]),
    ],
)
def test_names_of_organisations(text, names):
    assert [f.value.name.removeprefix("The ") for f in find_organisations(text)] == names


@pytest.mark.parametrize(
    ("parties", "names"),
    [
        (
            "(1) BRACKENFOLD MILLS PLC of Low Weir Mill; and\n(2) TARN LOOMS LIMITED of Bradford",
            ("BRACKENFOLD MILLS PLC", "TARN LOOMS LIMITED"),
        ),
        ("(1) Brackenfold Mills plc of Low Weir Mill", None),
    ],
)
def test_parties_that_are_numbered_and_given_no_role(parties, names):
    text = f"# Mutual secrecy agreement\n\nDated 2 June 2026\n\n{parties}\n\n1. Each keeps secret what it learns.\n\n2. Until 3 May 2027 Tarn Looms Limited shall not sell.\n"
    document = read_text(text.encode(), "secret.md", "0" * 64, markdown=True)
    found = abstract(document, sheet_for(document, "confidentiality")).finding("parties")
    assert (found.value.items if found.found else None) == names


@pytest.mark.parametrize(
    ("text", "term", "words"),
    [
        ("Interest on late sums runs at 4 per cent a year above the base rate of Calder Bank plc.", "late_interest", "4 per cent a year above the base rate of Calder Bank plc"),
        ("10.3 English law governs this Agreement.", "governing_law", "English"),
        ("Art. 4 Prolongation. It is prolonged tacitly by two years at a time unless cancelled five months before the end.", "renewal_term", "two years"),
        ("If the Seller comes under the control of a rival, the Buyer may end it within four months of being told.", "change_of_control_notice", "four months"),
        ("Nothing limits liability for death or fraud.", "liability_carve_outs", "death or fraud"),
        ("On ending, the Seller shall hand over the drawings.", "consequences_of_termination", "drawings"),
    ],
)  # fmt: skip
def test_clauses_that_many_agreements_have(text, term, words):
    finding = filled("agreement", f"# Agreement\n\nThis Agreement is made on 4 May 2026.\n\n{text}\n").finding(term)
    assert finding.found, finding.why
    assert words in finding.text


def test_all_who_sign_are_named_with_their_posts():
    text = "# Agreement\n\nWe agree.\n\nSigned for the Seller: /s/ Ada Thorne, Director\n\nSigned for the Buyer: /s/ Ines Calvert, Head of Engineering\n"
    items = filled("agreement", text).finding("signatories").value.items
    assert items == ("Ada Thorne, Director, for the Seller", "Ines Calvert, Head of Engineering, for the Buyer")


def test_a_name_of_small_words_is_a_name():
    assert stems_of("Set-up") == ("set", "up")
    assert stems_of("of the") == ()


RECORD = """# Condition report on the pattern cards

Prepared by Ada Thorne, for Brackenfold Mills plc

A tank above the card room leaked at about 3.15 a.m. on 5 May 2026. Three cards cannot be saved. The stain on the shelf comes from an older drip.

My rate is £51 an hour. For cleaning I quote £3,120. I first put this at £2,400; the price went up because the ink runs. The quotation holds until 3 July 2026.

I would put the loss in value at about 15 per cent. I am insured for professional liability up to £1 million.
"""


@pytest.mark.parametrize(
    ("term", "words"),
    [
        ("for_whom", "Brackenfold Mills plc"), ("event_date", "5 May 2026"), ("number_lost", "Three"), ("cause", "an older drip"), ("rate", "£51 an hour"), ("estimate", "£3,120"), ("estimate_first", "£2,400"),
        ("price_change_reason", "because the ink runs"), ("quotation_valid_until", "3 July 2026"), ("loss_of_value", "15 per cent"), ("indemnity_cover", "£1 million"),
    ],
)  # fmt: skip
def test_what_a_record_of_damage_tells(term, words):
    finding = filled("record", RECORD).finding(term)
    assert finding.found, finding.why
    assert words in finding.text


WORK = """# Contract of employment

between Brackenfold Mills plc ("the Company") and Ines Calvert ("you"), 2 March 2026

You are engaged as Weaver, reporting to the Foreman, with effect from 13 April 2026. You are paid £31,500 a year. The Company may pay you instead of notice. The Company insures your life for two times your salary. For five months after you leave you must not work for a weaver within 30 miles of Otterdale.
"""
HIRE = """# Equipment lease

Lessor: Severn Leasing Ltd. Lessee: Brackenfold Mills plc. Dated 20 April 2026.

1. Period. Fifty months from delivery. 2. The equipment costs £86,000. 3. 2% a month is charged on overdue rentals.

4. The Lessor may end the lease if a rental is more than nine days late. 5. The Lessee receives 90% of the net proceeds of a sale. 6. Holroyd Holdings Limited guarantees the rentals.
"""
DEALER = """# Exclusive distribution agreement

between Brackenfold Mills plc ("Manufacturer") and Nordgarn AB ("Dealer"), signed on 11 May 2026

Art. 1 Appointment. Manufacturer appoints Dealer as sole dealer for the yarns in Annex 1 in Sweden.

Art. 2 Targets. Dealer will buy for no less than €340,000 in the first year. Dealer keeps at least ten weeks' stock. Dealer's credit is capped at €90,000.

Art. 3 Claims. Visible faults must be notified within eight days of arrival. Manufacturer takes back unsold stock at 85 % of the price.
"""
LEAVE = """# Leave and licence agreement

Made at Nashik on this 4th day of June 2026 between Vasant Sheds Private Limited ("the Licensor") and Brackenfold Yarns Private Limited ("the Licensee").

1. The Licensor grants leave and licence to occupy Shed 4, Sahyadri Estate, admeasuring 3,900 sq. ft., for 24 months commencing from 1st July 2026.

2. The first 10 months shall be a lock-in period. The fee rises with an escalation of 6% after every 12 months. If two months' fee is in arrears the Licensor may revoke the licence.

3. If the Licensee fails to vacate it shall pay Rs. 4,000/- per day. Stamp duty shall be borne equally.
"""
LETTING = """# Short letting of a store

This letting is made the 3rd day of June 2026 between Moy Stores Limited ("the Lessor") and Brackenfold Mills plc ("the Lessee").

1. The Lessor lets the store at Quay Lane for a term of three years from the 1st day of July 2026. The rent is €21,000 per annum.

2. The Lessee may at any time after the 1st day of July 2027 end the letting on five months' notice, subject to payment of one month's rent. The Lessee refunds 8% of the cost of upkeep of the yard.

3. If rent is 18 days late, or another duty is not met within 25 days of notice, the Lessor may re-enter.
"""


@pytest.mark.parametrize(
    ("sheet", "text", "term", "words"),
    [
        ("lease", LEAVE, "lease_date", "4th day of June 2026"), ("lease", LEAVE, "premises", "Shed 4, Sahyadri Estate"), ("lease", LEAVE, "floor_area", "3,900 sq. ft."), ("lease", LEAVE, "term_length", "24 months"), ("lease", LEAVE, "lease_start", "1st July 2026"), ("lease", LEAVE, "lock_in_period", "10 months"), ("lease", LEAVE, "review_increase", "6%"), ("lease", LEAVE, "default_money", "two months"), ("lease", LEAVE, "holdover_charge", "4,000"), ("lease", LEAVE, "stamp_duty", "borne equally"),
        ("lease", LETTING, "base_rent", "€21,000"), ("lease", LETTING, "break_date", "1st day of July 2027"), ("lease", LETTING, "break_notice", "five months"), ("lease", LETTING, "break_fee", "one month's rent"), ("lease", LETTING, "service_charge_share", "8%"), ("lease", LETTING, "default_money", "18 days"), ("lease", LETTING, "default_other", "25 days"),
        ("employment", WORK, "job_title", "Weaver"), ("employment", WORK, "start_date", "13 April 2026"), ("employment", WORK, "salary", "£31,500"), ("employment", WORK, "pay_in_lieu", "instead of notice"), ("employment", WORK, "death_benefit", "two"), ("employment", WORK, "non_compete", "five months"),
        ("equipment_finance", HIRE, "cash_price", "£86,000"), ("equipment_finance", HIRE, "overdue_rate", "2%"), ("equipment_finance", HIRE, "default_grace", "nine days"), ("equipment_finance", HIRE, "sale_proceeds_share", "90%"), ("equipment_finance", HIRE, "guarantor", "Holroyd Holdings Limited"),
        ("distribution", DEALER, "agreement_date", "11 May 2026"), ("distribution", DEALER, "minimum_purchase", "€340,000"), ("distribution", DEALER, "stock_holding", "ten weeks"), ("distribution", DEALER, "credit_limit", "€90,000"), ("distribution", DEALER, "inspection_period", "eight days"), ("distribution", DEALER, "buy_back_price", "85 %"),
    ],
)  # fmt: skip
def test_terms_in_other_drafting(sheet, text, term, words):
    finding = filled(sheet, text).finding(term)
    assert finding.found, finding.why
    assert words in finding.text


TITLED = """# Hire purchase agreement

Part D: special conditions

D1. Idle looms. The instalments of a loom that stands idle are put off.

D2. Early settlement in year four. No fee is due on a settlement after 3 May 2027.

D3. Moving the looms. The looms may be moved within Otterdale.

12. The hirer may settle the agreement by paying the balance. The fee is two per cent if the settlement date falls within twenty months of the first payment date. (a) The owner may end the hire if the hirer fails to pay a sum within six business days of its due date.
"""


def test_the_words_before_a_sentence_are_its_title():
    finding = filled("equipment_finance", TITLED).finding("early_settlement")
    assert "No fee is due" in finding.text
    assert finding.text != "Early settlement in year four."


def test_time_for_a_fee_or_a_default_is_no_time_for_payment():
    abstracted = filled("equipment_finance", TITLED)
    assert not abstracted.finding("payment_terms").found
    assert "six business days" in abstracted.finding("default_grace").text


PRICES = """# Distribution agreement

1. The Supplier may change the price list once a year on not less than fifty days' notice. No increase shall exceed the change in the index of consumer prices over the eleven months to the date of the notice.

2. The Supplier may end this Agreement without cause on seven months' notice. The Supplier may end this Agreement on forty days' notice given within eighty days after a change of control.
"""


@pytest.mark.parametrize(
    ("term", "words"), [("price_change_notice", "fifty days"), ("termination_for_convenience", "seven months")]
)
def test_one_notice_is_not_in_conflict_with_that_of_another_thing(term, words):
    finding = filled("distribution", PRICES).finding(term)
    assert finding.state == "stated"
    assert finding.text == words
