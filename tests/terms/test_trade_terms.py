"""Terms that people of a trade look for, in the ways in which their papers put them."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, load_sheet
from yarnex.output.wording import said

TERMS = [
    ("loan", "| Item | Terms |\n| --- | --- |\n| Early repayment | On 8 working days' notice, in parts of £40,000 |", "prepayment_notice", "8 business days"),
    ("loan", "| Item | Terms |\n| --- | --- |\n| Early repayment | On 8 working days' notice, in parts of £40,000 |", "prepayment_minimum", "£40,000"),
    ("loan", "The loan may be drawn in parts of £90,000 or more.", "smallest_drawing", "£90,000"),
    ("loan", "Spending on plant not above £310,000 in any year.", "capex_limit", "£310,000"),
    ("loan", "A certificate signed by a director is due within 35 days after each quarter.", "certificate_due", "35 days"),
    ("loan", "It receives a valuation showing a market value of not less than £2,400,000.", "valuation_required", "£2,400,000"),
    ("loan", "The guarantee is limited. Under the guarantee its liability shall not exceed £510,000.", "guarantee_limit", "£510,000"),
    ("loan", "The Guarantor shall pay within four Business Days of written demand.", "guarantee_demand", "4 business days"),
    ("loan", "This guarantee ends on 30 June 2031.", "guarantee_ends", "30 June 2031"),
    ("loan", "The Borrower shall pay no dividend while a payment is late.", "dividends_restricted", "The Borrower shall pay no dividend while a payment is late."),
    ("loan", "It is repaid by ten equal quarterly instalments, the first falling due on 30 June 2028.", "instalment_count", "10"),
    ("loan", "It is repaid by ten equal quarterly instalments, the first falling due on 30 June 2028.", "first_instalment", "30 June 2028"),
    ("loan", "It is repaid by ten equal quarterly instalments, the first falling due on 30 June 2028.", "last_instalment", "30 September 2030"),
    ("loan", "It is repaid by four annual instalments, the first falling due on 15 June 2028.", "last_instalment", "15 June 2031"),
    ("loan", "Interest accrues at 2.4 per cent. a year over Bank Rate. Sums not paid when due bear interest at a further 3 per cent.", "margin", "2.4 %"),
    ("loan", "Interest accrues at 2.4 per cent. a year over Bank Rate. Sums not paid when due bear interest at a further 3 per cent.", "default_rate", "3 %"),
    ("loan", "A fee of 2 per cent. of the amount prepaid is payable before 2030.", "prepayment_fee_rate", "2 %"),
    ("loan", "The Loan does not exceed 60 per cent. of the value of the mill.", "loan_to_value", "60 %"),
    ("loan", "We may transfer our rights on giving you eight Business Days' notice.", "transfer_notice", "8 business days"),
    ("distribution", "The Buyer orders at least 90 tonnes in each year.", "minimum_quantity", "90 tonnes"),
    ("distribution", "The price is £6.10 a kilogram delivered until 30 June 2030.", "unit_price", "£6.10"),
    ("distribution", "Orders are placed at least 30 days before delivery.", "order_ahead", "30 days"),
    ("distribution", "It shall replace rejected goods within 12 days.", "replaced_within", "12 days"),
    ("distribution", "The agent earns commission of 7% of the net price.", "commission", "7 %"),
    ("distribution", "The Buyer may deduct 2% of the price for each week of delay, up to 11%.", "delay_damages", "2 %"),
    ("distribution", "The Buyer may deduct 2% of the price for each week of delay, up to 11%.", "delay_damages_most", "11 %"),
    ("distribution", "The Buyer has a discount of 1.5% if it is paid within 9 days.", "prompt_payment_discount", "1.5 %"),
    ("distribution", "The Buyer may inspect the sheds on five days' notice.", "audit_notice", "5 days"),
    ("distribution", "## Force majeure\n\nNeither party answers for events beyond its control. If such an event lasts more than 70 days either may end the agreement.", "force_majeure_end", "70 days"),
    ("services", "The Customer keeps 8% of each bill back. 8% of the price is kept back until acceptance.", "retention", "8 %"),
    ("services", "The Carrier's contract manager is Bettina Lorne.", "led_by", "Bettina Lorne"),
    ("services", "Damage must be reported within 6 days.", "claims_reported_within", "6 days"),
    ("services", "The Carrier may not subcontract more than 25% of the loads.", "subcontract_limit", "25 %"),
    ("consultancy", "7. Liability. £300,000 in all, save for fraud.", "liability_cap", "£300,000"),
    ("consultancy", "We keep what we learn to ourselves for four years.", "confidentiality_period", "4 years"),
    ("consultancy", "Late sums bear 3% above base rate.", "late_interest", "3 %"),
    ("employment", "## Hours\n\nYou work 38 hours a week.", "weekly_hours", "38 hours"),
    ("employment", "You report to the Head Dyer.", "reports_to", "Head Dyer"),
    ("employment", "## Probation\n\nThe first four months are a probation. During it either side may end this contract on two weeks' notice.", "probation_notice", "2 weeks"),
    ("employment", "## Sickness\n\nYou are paid in full for six weeks and at half pay for the next ten weeks.", "half_pay_period", "10 weeks"),
    ("acquisition", "The Seller sells 12,000 shares.", "number_of_shares", "12,000"),
    ("acquisition", "£200,000 is deposited with Fell Trust Company as escrow agent.", "escrow_agent", "Fell Trust Company"),
    ("acquisition", "Until completion the Seller shall not spend more than £30,000 on one asset.", "spending_before_completion", "£30,000"),
    ("acquisition", "| Heading | Terms |\n| --- | --- |\n| Parties | Seller: Mrs Ada Venn. Buyer: Weir Mills plc. |", "seller", "Mrs Ada Venn"),
    ("acquisition", "| Heading | Terms |\n| --- | --- |\n| Warranties | The usual. Claims: not below £4,000 each and £40,000 in all |", "de_minimis", "£4,000"),
    ("acquisition", "| Heading | Terms |\n| --- | --- |\n| Warranties | The usual. Claims: not below £4,000 each and £40,000 in all |", "basket", "£40,000"),
    ("acquisition", "Earn-out of 15 per cent of EBITDA above £500,000, not to exceed £90,000. It is an earn-out not to exceed £90,000.", "earn_out_share", "15 %"),
    ("acquisition", "Until 28 February 2028 the Seller will not negotiate with anyone else.", "exclusive_until", "28 February 2028"),
    ("services", "The Customer may deduct five per cent of the charge for that quarter, subject to a maximum of twenty per cent.", "service_credit", "5 %"),
    ("services", "The Customer may deduct five per cent of the charge for that quarter, subject to a maximum of twenty per cent.", "service_credit_cap", "20 %"),
    ("services", "Work outside the scope is charged at £72.50 an hour.", "hourly_rate", "£72.50 an hour"),
    ("services", "If they do not settle the dispute within 28 days either may sue.", "disputes_settled_within", "28 days"),
    ("record", "The repairs are expected to take nine weeks.", "time_needed", "9 weeks"),
    ("record", "The sample room, of 46 square metres, was destroyed.", "area_affected", "46 sq m"),
    ("equipment_finance", "The rate is 5.1 % flat, equivalent to 6.2 % a year.", "effective_rate", "6.2 %"),
    ("proposal", "We suggest 20% on order and 80% on delivery.", "payment_terms", "We suggest 20% on order and 80% on delivery."),
    ("confidentiality", "For a year the Recipient shall not engage in a competing business within 30 km of the mill.", "non_compete_within", "30 km"),
    ("report", "The gross margin was 41.5 per cent.", "gross_margin", "41.5 %"),
    ("report", "The facility is £30 million, of which £12 million was drawn.", "drawn_facilities", "£12,000,000"),
    ("report", "The order book stood at £33.2 million.", "order_book", "£33,200,000"),
    ("report", "The largest customer took 18 per cent of sales.", "largest_customer", "18 %"),
    ("report", "The pension scheme had a deficit of £7.7 million.", "pension_deficit", "£7,700,000"),
    ("report", "The Chief Executive was paid £640,000 in all.", "chief_executive_pay", "£640,000"),
    ("report", "## Debt maturities\n\n| Year | £m |\n| --- | --- |\n| 2029 | 20.5 |\n| 2030 | 31.0 |", "maturity_schedule", "2029: £20,500,000\n2030: £31,000,000"),
    ("report", "LEI: 5493001KJTIIGC8Y1R12", "entity_identifier", "5493001KJTIIGC8Y1R12"),
    ("lease", "The Tenant shall paint the exterior in every third year, the interior in every sixth year and both in the last three months.", "decorate_inside", "6 years"),
    ("lease", "No rent shall be payable for the period from 1 May 2028 to 31 August 2028, both dates inclusive.", "rent_free", "4 months"),
    ("call_for_proposals", "The method statement may not run over 18 pages.", "pages_allowed", "18"),
    ("call_for_proposals", "Bidders show accounts with turnover of not less than £1.4 million.", "turnover_required", "£1,400,000"),
    ("call_for_proposals", "A bidder names four references.", "number_of_references", "4"),
    ("call_for_proposals", "Delay damages are £700 a day, limited to 12% of the price.", "delay_damages_sum", "£700 a day"),
    ("call_for_proposals", "Delay damages are £700 a day, limited to 12% of the price.", "delay_damages_cap", "12 %"),
    ("call_for_proposals", "The defects period is 30 months.", "warranty_period", "30 months"),
    ("call_for_proposals", "Prices are per shift and hold until 31 May 2029.", "prices_fixed_until", "31 May 2029"),
    ("call_for_proposals", "## How we choose\n\nPrice over ten years 55%, method 45%.", "price_weight", "55 %"),
    ("call_for_proposals", "REQUEST FOR PROPOSALS No. WM/31/007", "reference", "WM/31/007"),
    ("call_for_proposals", "Seven cleaners are expected to transfer under the regulations.", "staff_transfer", "Seven cleaners are expected to transfer under the regulations."),
    ("proposal", "The lift costs £41,000, erection £6,200. That makes £47,200 before VAT.", "total_price", "£47,200"),
    ("proposal", "The lift costs £41,000, erection £6,200. That makes £47,200 before VAT.", "installation_price", "£6,200"),
    ("proposal", "We take off 3.5% if you order before June.", "discount", "3.5 %"),
    ("proposal", "For each full week of delay we allow 0.4% of the price, at most 6%.", "delay_damages", "0.4 %"),
    ("proposal", "For each full week of delay we allow 0.4% of the price, at most 6%.", "delay_damages_cap", "6 %"),
    ("proposal", "We have 85 staff and had turnover of £7.1 million.", "staff_count", "85"),
    ("proposal", "We have 85 staff and had turnover of £7.1 million.", "bidder_turnover", "£7,100,000"),
    ("report", "Sales came in at £19.2 million, up 4%.", "revenue", "£19,200,000"),
    ("report", "Operating profit before one-offs was £2.6 million. One-offs were £0.3 million.", "operating_profit", "£2,600,000"),
    ("report", "Operating profit before one-offs was £2.6 million. One-offs were £0.3 million.", "exceptional_amount", "£300,000"),
    ("report", "The order book stands at nine weeks.", "order_book_length", "9 weeks"),
    ("report", "Capital spending for the year will be £4 million.", "capex_expected", "£4,000,000"),
    ("report", "Bank facilities are £33 million. The facilities run until May 2032.", "facilities_total", "£33,000,000"),
    ("report", "Bank facilities are £33 million. The facilities run until May 2032.", "facilities_run_until", "May 2032"),
    ("report", "The finance director will leave on 31 January 2030.", "board_change_date", "31 January 2030"),
    ("report", "Interest was covered 5.1 times, against a covenant of at least 3.5 times.", "covenant_cover", "3.5"),
    ("report", "Half-year results will be announced on 19 February 2030.", "next_report", "19 February 2030"),
    ("report", "The stock is insured, subject to an excess of £90,000.", "insured_deductibles", "£90,000"),
    ("distribution", "It then continues until ended by either party on not less than five months' notice.", "termination_for_convenience", "5 months"),
    ("distribution", "The terms are confidential during the Term and for three years afterwards.", "confidentiality_period", "3 years"),
    ("distribution", "The Seller shall within eleven days replace Goods that do not conform.", "replaced_within", "11 days"),
    ("lease", "Tenant's Share is increased from 9.4% to 12.8%.", "service_charge_share", "12.8 %"),
    ("lease", "Tenant shall deposit an additional $4,000, so that the Security Deposit will be $21,500.", "deposit", "US$21,500"),
    ("lease", "Tenant may extend for five years at 96% of fair market rent.", "renewal_rent_share", "96 %"),
    ("lease", "Tenant may terminate the Lease effective June 30, 2031 by giving notice on or before September 30, 2030 and paying a fee of $44,000.", "break_notice_by", "30 September 2030"),
    ("lease", "Tenant may terminate the Lease effective June 30, 2031 by giving notice on or before September 30, 2030 and paying a fee of $44,000.", "break_fee_sum", "US$44,000"),
    ("lease", "The Tenant may use eight spaces at £60 per space per month.", "parking_charge", "£60"),
    ("distribution", "The Seller shall credit the Buyer with a rebate of 2 per cent on all Goods above 300 tonnes.", "rebate", "The Seller shall credit the Buyer with a rebate of 2 per cent on all Goods above 300 tonnes."),
    ("distribution", "## Orders and delivery\n\n2.1 The Buyer shall give a forecast each month.\n\n2.2 The Seller shall deliver DDP Weir Mill.", "delivery", "The Seller shall deliver DDP Weir Mill."),
    ("proposal", "Each pump has a flow of 90 l/s, weighs 1,900 kg and uses 9 l/h at full load. Noise is 72 dB(A) at 7 m.", "output", "90 l/s"),
    ("proposal", "Each pump has a flow of 90 l/s, weighs 1,900 kg and uses 9 l/h at full load. Noise is 72 dB(A) at 7 m.", "weight", "1,900 kg"),
    ("proposal", "Each pump has a flow of 90 l/s, weighs 1,900 kg and uses 9 l/h at full load. Noise is 72 dB(A) at 7 m.", "consumption", "9 l/h"),
    ("proposal", "Each pump has a flow of 90 l/s, weighs 1,900 kg and uses 9 l/h at full load. Noise is 72 dB(A) at 7 m.", "sound_level", "72 dB(A)"),
    ("proposal", "The motor draws 55 kW.", "power", "55 kW"),
    ("report", "Capital spending for the year should be near £5 million.", "capex_expected", "£5,000,000"),
    ("report", "We have £28 million of bank lines, of which £11 million was in use.", "facilities_total", "£28,000,000"),
    ("report", "We have £28 million of bank lines, of which £11 million was in use.", "drawn_facilities", "£11,000,000"),
    ("call_for_proposals", "Tenders cannot be withdrawn for 140 days.", "bid_validity", "140 days"),
    ("call_for_proposals", "The rates stay as they are until 31 May 2031.", "prices_fixed_until", "31 May 2031"),
    ("change", "The term of the Lease is extended for 50 months.", "extended_by", "50 months"),
]  # fmt: skip


@pytest.mark.parametrize(("sheet", "text", "term", "words"), TERMS, ids=[f"{s}-{t}" for s, _, t, _ in TERMS])
def test_a_term_as_papers_put_it(document, sheet, text, term, words):
    filled = abstract(document(f"# Paper\n\n{text}\n", "paper.md"), load_sheet(sheet))
    assert said(filled.finding(term)) == words


@pytest.mark.parametrize(
    ("sheet", "text", "term"),
    [
        ("insurance", "For flood we will not pay more than £75,000.", "sum_insured"),
        ("insurance", "You must tell us within 5 days if the mill is left unoccupied.", "claim_notification"),
        ("report", "We aim to hold gearing below 60 per cent and keep an investment-grade rating.", "credit_rating"),
        ("report", "We aim to hold gearing below 60 per cent and keep an investment-grade rating.", "covenants"),
        ("report", "The Directors have assessed the prospects of the Group over the four years to 31 March 2029.", "period_length"),
        ("report", "The Company has guaranteed half of that company's bank loan of £36,000,000.", "guarantees"),
        ("proposal", "The retention is replaced by a bank guarantee, valid until 1 May 2028.", "valid_until"),
        ("employment", "On duty you work four hours, in every week.", "probation_notice"),
        ("record", "The sample room, of 46 square metres, was destroyed.", "number_affected"),
        ("record", "In my opinion the fire was caused by a failed switch, last inspected in May.", "opinion"),
        ("loan", "It is repaid by ten equal quarterly instalments, the first falling due on 30 June 2028.", "final_maturity"),
        ("loan", "A fee of £900 is payable, and a commitment fee of 1 per cent. The arrangement fee is £900.", "arrangement_fee"),
        ("distribution", "Collection within the booked hour is 96% a month, however late.", "delay_damages"),
        ("call_for_proposals", "A performance bond must be given within 14 days of the award.", "delivery_time"),
        ("call_for_proposals", "Delay damages are £700 a day, limited to 12% of the price.", "delay_damages"),
        ("lease", "Section 41 (Right of First Offer) of the Lease is deleted.", "purchase_option"),
        ("report", "Gross margin 41.2 per cent (2027: 40.0 per cent)", "operating_margin"),
        ("correspondence", "We gave you notice by e-mail on 17 June 2028.", "deadline"),
    ],
)  # fmt: skip
def test_what_is_no_such_term(document, sheet, text, term):
    filled = abstract(document(f"# Paper\n\n{text}\n", "paper.md"), load_sheet(sheet))
    assert not filled.finding(term).found


LETTER = """Weir Carriers Ltd
Shed Lane, Skelbrook

14 August 2028

Dear Ms Venn

Your claim for the lot of 2 August

Our man inspected the bales on 9 August. We allow £4,100 for the wet bales and £650 for sorting.

Please let me have the weigh notes by Wednesday 23 August. The file will be closed on 5 October next year.

Yours sincerely
Ada Moss
"""


@pytest.mark.parametrize(
    ("term", "values"),
    [
        ("deadline", ["2028-08-23"]),
        ("events", ["2028-08-09", "2029-10-05", "2028-08-02"]),
        ("sums", ["4100", "650"]),
    ],
)
def test_a_letter_tells_its_days_without_years_and_all_its_sums(document, term, values):
    finding = abstract(document(LETTER, "letter.txt"), load_sheet("correspondence")).finding(term)
    told = [finding.value, *(f.value for f in finding.further)]
    assert [v.day.isoformat() if term != "sums" else str(v.amount) for v in told] == values
    if term != "sums":
        assert any("no year said" in step for step in finding.working)


def test_a_value_for_comparison_is_no_further_value(document):
    text = "The final dividend is 9.65 pence. With the interim dividend that makes 14.50 pence (2024: 13.90 pence) for the year.\n"
    finding = abstract(document(f"# Annual report 2025\n\n{text}", "paper.md"), load_sheet("report")).finding(
        "dividend"
    )
    assert "13.90 pence" not in [f.text for f in finding.further]
