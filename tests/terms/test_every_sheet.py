"""A small made-up paper of each kind: its kind is told, its sheet is chosen, and the terms that its readers want are found."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.identity import identify
from yarnex.output.wording import said

CONFIDENTIALITY = """# Confidentiality agreement

This Agreement is made on 9 February 2026 between:

(1) Brackenfold Mills Limited (the "Discloser"); and

(2) Fellgate Yarns Limited (the "Recipient").

## 1 Purpose

"Permitted Purpose" means deciding whether to buy the carding business of the Discloser.

## 2 Duties

2.1 The Recipient shall keep the Confidential Information secret and use it only for the Permitted Purpose.

2.2 Within eight Business Days of a written request the Recipient shall return or destroy all copies.

2.3 For fifteen months after the date of this Agreement the Recipient shall not solicit or employ any dyer of the Discloser.

## 3 Duration

3.1 The obligations in this Agreement continue for four years from its date.

## 4 Law

4.1 This Agreement is governed by the law of England and Wales, and the parties submit to the non-exclusive jurisdiction of the English courts.
"""

EMPLOYMENT = """# Contract of employment

This contract is made on 2 March 2026 between Brackenfold Mills Limited (the "Company") and Ms Ines Hartley (the "Employee").

| Particular | Term |
| --- | --- |
| Job title | Head Dyer |
| Start date | 1 April 2026 |
| Salary | £46,200 a year |
| Annual leave | 27 days |
| Probation | Six months |

## 5 Bonus

5.1 The Employee may be awarded a bonus of up to twelve per cent of salary.

## 6 Sickness

6.1 If the Employee is ill, the Company shall pay full salary for ten weeks.

## 7 Notice

7.1 The Employee shall give at least three months' notice, and the Company shall give at least four months' notice.

## 8 After the employment

8.1 The Employee shall not for eight months after the employment ends be engaged in a business that competes with the Company within 20 miles of the mill.

## 9 General

9.1 The normal retirement age is 67.

9.2 This contract is governed by the law of England and Wales.
"""

INSURANCE = """# Commercial property insurance policy

| Item | Detail |
| --- | --- |
| Policy number | KA-PR-55102 |
| Insurer | Tarn Mutual Insurance Limited |
| Policyholder | Brackenfold Mills Limited |
| Period of insurance | From 1 May 2026 to 30 April 2027, both dates inclusive |
| Total payable | £18,340.00 |

| Item | What is insured | Limit | Period |
| --- | --- | --- | --- |
| 1 | Gross profit | 640,000 | 18 months |
| 2 | Rent | 90,000 | 12 months |

For flood at Low Weir we will not pay more than £75,000.

You must tell us within 5 days if the mill is left unoccupied.

## Section 2 Excess

You bear the first £2,500 of every loss.

## Section 3 What is not insured

We do not insure:

(a) loss caused by wear and tear;

(b) loss caused by moth or vermin;

(c) loss by theft without forced entry.

## Section 4 Claims

You must tell us within 21 days of any loss. If legal proceedings are not begun within 18 months, the claim lapses.

## Section 5 Cancellation

We may cancel by sending 45 days' notice by registered post.

This policy is governed by the law of Scotland.
"""

SOFTWARE = """# Subscription order form

| Item | Detail |
| --- | --- |
| Order number | LOOM-20260114 |
| Supplier | Heddle Software Limited |
| Customer | Brackenfold Mills Limited |
| Order date | 14 January 2026 |
| Subscription start date | 1 February 2026 |
| Initial subscription term | 24 months |
| Annual subscription fee | £7,920.00 |

## Terms

3.1 The subscription renews for successive terms of twelve months unless either party gives at least sixty days' notice before the end of the term.

4.1 The Service will be available 99.2% of the time in each month.

5.1 Backups are kept for 20 days. Personal data are hosted in Ireland and the Netherlands.

5.2 The Supplier shall tell the Customer within 36 hours of becoming aware of a data breach.

6.1 For 60 days after the end of the subscription the Customer may download its data.

7.1 The total liability of each party in a year is limited to the fees paid in that year.
"""

EQUIPMENT = """# Hire purchase agreement

| Item | Detail |
| --- | --- |
| Agreement number | HP-7718 |
| Agreement date | 3 June 2026 |
| Owner | Weir Asset Finance Limited |
| Customer | Brackenfold Mills Limited |
| Goods | One ring spinning frame, serial number RS-4410 |
| Cash price (excluding VAT) | £212,000.00 |
| Initial payment | £32,000.00 |
| Amount financed | £180,000.00 |
| Hire period | 48 months |
| Rate | 5.9% per annum, fixed |
| Purchase option fee | £120.00 |

| No. | Payment date | Instalment (£) |
| --- | --- | --- |
| 1 | 3 September 2026 | 12,640.00 |
| 2 | 3 December 2026 | 12,640.00 |
| 3 | 3 March 2027 | 12,640.00 |

8.1 The Customer shall insure the Goods, with an excess not exceeding £4,000.
"""

SALE = """# Share purchase agreement

This Agreement is made on 11 May 2026 between:

(1) Corrie Thwaite Limited (the "Seller"); and

(2) Brackenfold Mills Limited (the "Buyer").

## 2 Sale and purchase

2.1 The Seller shall sell and the Buyer shall buy the Sale Shares.

## 3 Consideration

3.1 The purchase price is £3,150,000.

## 4 Completion

4.1 Completion shall take place on 30 June 2026.

## 6 Limitations

6.1 The total liability of the Seller shall not exceed £1,575,000.

6.2 No claim may be brought unless notice is given within eighteen months of Completion.
"""

CONSULTANCY = """# Consultancy agreement

This Agreement is made on 6 April 2026 between Brackenfold Mills Limited (the "Client") and Rowan Dale Advisers Limited (the "Consultant").

## 2 Services

2.1 The Consultant shall advise on the layout of the new spinning floor.

## 3 Fee

3.1 The Client shall pay a fee of £640 a day, and the fees shall not exceed £38,000 in all.

## 4 Status

4.1 The Consultant is an independent contractor and not an employee.

## 5 Ending

5.1 Either party may terminate this Agreement at any time on twenty days' notice.
"""

CALL = """# Invitation to tender: fork-lift trucks

Brackenfold Mills Limited wishes to buy four electric fork-lift trucks for its new store.

| Date | |
| --- | --- |
| Questions to be sent by | 8 June 2026 |
| Proposals to be received by | 22 June 2026, noon |
| Intended award | 6 July 2026 |

## A Submission

A proposal must remain open for acceptance for at least 75 days. The Mill will not pay more than £29,500 for each truck.

## B Requirements

1. Lifting capacity at least 2,000 kg.

2. Noise at most 68 dB(A).

3. Battery for one shift.

## C Contract

For each full week of delay the supplier pays 0.8% of the price, up to 8%. An engineer is on site within six hours of a call.

Parts are kept available for twelve years.
"""

PROPOSAL = """# Quotation Q-3301

To: Brackenfold Mills Limited

Date: 15 June 2026

We offer the fork-lift truck EL-20 as described in your invitation.

| Item | Price |
| --- | --- |
| Unit price | £28,750 |
| Total price | £115,000 |

Delivery: nine weeks after your order.

Warranty: 30 months from delivery.

The price holds for 80 days. Payment: 30 days after delivery.

An engineer is on site within five hours of your call.
"""

REPORT = """# Annual report for the year ended 31 March 2026

Brackenfold Mills plc

Revenue rose to £24.6 million (2025: £22.9 million).

The Board recommends a final dividend of 3.20 pence per share. It will be paid on 14 August 2026 to shareholders on the register on 10 July 2026.

At 31 March 2026 the Group had undrawn committed facilities of £4.5 million.

## Outlook

We expect capital investment of between £2 million and £3 million next year.

## Going concern

The Directors have a reasonable expectation that the Group can continue in operation.

The financial statements were approved by the Board on 4 June 2026.

Auditor: Lisle & Dunn LLP
"""

RECORD = """# Incident report

| Item | Detail |
| --- | --- |
| Date of incident | 19 January 2026 |
| Time | 6.20 a.m. |
| Place | Dye house, ground floor |
| Written by | Tamsin Roe, shift leader |

## What happened

A steam valve failed and 14 bales were soaked.

## Cause

The cause was a perished seal.

Estimated cost: £8,900.
"""

LETTER = """12 March 2026

Weir Asset Finance Limited

Dear Mr Holroyd,

Subject: early settlement of HP-7718

We write about our agreement HP-7718. Please send us a settlement figure by 27 March 2026. We confirm that the February instalment of £12,640.00 was paid.

Yours sincerely,

Ines Hartley
"""

MINUTES = """# Minutes of the board meeting of Brackenfold Mills Limited

Date: 14 April 2026

Present: Ada Thorne (chair), Bram Holroyd, Ines Hartley

## 3 New premises

It was resolved to sign the lease of Canal Works.

Bram Holroyd will send the drawings to the landlord by 30 April 2026.

Next meeting: 12 May 2026
"""

INVOICE = """# Invoice 60114

| Item | Detail |
| --- | --- |
| Invoice number | 60114 |
| Invoice date | 7 May 2026 |
| Due date | 6 June 2026 |

| Description | Amount (£) |
| --- | --- |
| Overhaul of winder | 1,480.00 |
| VAT at 20% | 296.00 |
| Total due | 1,776.00 |

Payment within 30 days of invoice.
"""

POLICY = """# Travel expenses policy

Version: 4

Effective from: 1 January 2026

## Scope

This policy applies to all employees of Brackenfold Mills Limited.

## Limits

A hotel may cost up to £140 a night. Claims must be sent within 45 days of the journey.

## Prohibited expenses

Employees must not claim for parking fines.
"""

STUDY = """# Laboratory test report

Report number: MT-219

Prepared for: Brackenfold Mills Limited

## Method

The yarn was tested in accordance with ISO 2062 on 18 samples.

## Results

The mean breaking strength was 612 cN. All samples passed.

## Limitations

Samples of dyed yarn were not tested.

## Conclusion

We conclude that the yarn meets the requirement.
"""

PAPERS = [
    ("confidentiality", CONFIDENTIALITY, {
        "discloser": "Brackenfold Mills Limited", "recipient": "Fellgate Yarns Limited", "agreement_date": "9 February 2026", "confidentiality_period": "4 years",
        "return_deadline": "8 business days", "non_solicitation": "15 months", "jurisdiction_exclusive": "no", "mutual": "no", "governing_law": "England and Wales",
    }),
    ("employment", EMPLOYMENT, {
        "employer": "Brackenfold Mills Limited", "employee": "Ms Ines Hartley", "job_title": "Head Dyer", "start_date": "1 April 2026", "salary": "£46,200 a year",
        "annual_leave": "27 days", "probation": "6 months", "bonus": "12 %", "sick_pay_period": "10 weeks", "notice_employee": "3 months", "notice_employer": "4 months",
        "non_compete": "8 months", "non_compete_radius": "20 miles", "retirement_age": "67",
    }),
    ("insurance", INSURANCE, {
        "insurer": "Tarn Mutual Insurance Limited", "policyholder": "Brackenfold Mills Limited", "policy_number": "KA-PR-55102", "period_start": "1 May 2026",
        "period_end": "30 April 2027", "premium": "£18,340", "excess_amount": "£2,500", "sum_insured": "£640,000", "claim_notification": "21 days", "time_limit": "18 months", "cancellation": "45 days",
        "governing_law": "Scotland",
    }),
    ("software", SOFTWARE, {
        "supplier": "Heddle Software Limited", "order_number": "LOOM-20260114", "order_date": "14 January 2026", "start_date": "1 February 2026", "initial_term": "24 months",
        "initial_term_end": "31 January 2028", "non_renewal_by": "2 December 2027", "annual_fee": "£7,920 a year", "uptime": "99.2 %", "backup": "20 days", "breach_notification": "36 hours",
        "data_export": "60 days", "renewal_term": "12 months",
    }),
    ("equipment_finance", EQUIPMENT, {
        "owner": "Weir Asset Finance Limited", "customer": "Brackenfold Mills Limited", "cash_price": "£212,000", "initial_payment": "£32,000", "amount_financed": "£180,000",
        "hire_period": "48 months", "interest_rate": "5.9 %", "purchase_option_fee": "£120", "instalment_amount": "£12,640", "first_payment_date": "3 September 2026",
        "last_payment_date": "3 March 2027", "insurance_excess": "£4,000", "agreement_date": "3 June 2026",
    }),
    ("acquisition", SALE, {
        "seller": "Corrie Thwaite Limited", "buyer": "Brackenfold Mills Limited", "price": "£3,150,000", "completion_date": "30 June 2026", "claim_limit": "£1,575,000",
        "claim_period": "18 months",
    }),
    ("consultancy", CONSULTANCY, {
        "client": "Brackenfold Mills Limited", "consultant": "Rowan Dale Advisers Limited", "fee": "£640 a day", "fee_cap": "£38,000", "termination_for_convenience": "20 days",
    }),
    ("call_for_proposals", CALL, {
        "questions_deadline": "8 June 2026", "submission_deadline": "22 June 2026", "award_date": "6 July 2026", "bid_validity": "75 days", "price_ceiling": "£29,500",
        "quantity": "4", "delay_damages": "0.8 %", "delay_damages_cap": "8 %", "response_time": "6 hours", "spare_parts": "12 years",
    }),
    ("proposal", PROPOSAL, {
        "unit_price": "£28,750", "total_price": "£115,000", "delivery_time": "9 weeks", "warranty": "30 months", "bid_validity": "80 days", "service_response": "5 hours",
        "document_date": "15 June 2026",
    }),
    ("report", REPORT, {
        "period_end": "31 March 2026", "revenue": "£24,600,000", "dividend": "3.2 pence", "dividend_payment_date": "14 August 2026", "dividend_record_date": "10 July 2026",
        "undrawn_facilities": "£4,500,000", "approval_date": "4 June 2026", "auditor": "Lisle & Dunn LLP",
    }),
    ("record", RECORD, {
        "event_date": "19 January 2026", "event_time": "6.20 a.m.", "author": "Tamsin Roe, shift leader", "cause": "The cause was a perished seal.", "number_affected": "14",
        "estimate": "£8,900",
    }),
    ("correspondence", LETTER, {"date": "12 March 2026", "deadline": "27 March 2026", "sums": "£12,640"}),
    ("minutes", MINUTES, {"date": "14 April 2026", "next_meeting": "12 May 2026", "dates_named": "30 April 2026"}),
    ("billing", INVOICE, {"document_date": "7 May 2026", "due_date": "6 June 2026", "total": "£1,776", "payment_terms": "30 days", "number": "60114"}),
    ("policy", POLICY, {"effective_date": "1 January 2026", "thresholds": "£140", "time_limits": "45 days", "version": "4"}),
    ("study", STUDY, {"reference": "MT-219", "sample_size": "18", "pass": "yes"}),
]  # fmt: skip


@pytest.mark.parametrize(("sheet", "text"), [(name, text) for name, text, _ in PAPERS], ids=[p[0] for p in PAPERS])
def test_the_sheet_of_its_kind_is_chosen(document, sheet, text):
    paper = document(text, "paper.md")
    assert sheet_for(paper).name == sheet, identify(paper)


@pytest.fixture(scope="module")
def filled():
    from yarnex.core.reading.text import read_text

    return {
        name: (paper := read_text(text.encode(), f"{name}.md", "0" * 64, markdown=True))
        and abstract(paper, sheet_for(paper, name))
        for name, text, _ in PAPERS
    }


@pytest.mark.parametrize(("sheet", "term", "value"), [(n, t, v) for n, _, terms in PAPERS for t, v in terms.items()])
def test_the_terms_that_its_readers_want(filled, sheet, term, value):
    finding = filled[sheet].finding(term)
    assert said(finding) == value, (finding.state, finding.why)


@pytest.mark.parametrize(
    ("sheet", "term"),
    [
        ("confidentiality", "standstill"), ("confidentiality", "liability_cap"), ("employment", "severance"), ("employment", "garden_leave"), ("insurance", "terrorism"),
        ("software", "escrow"), ("equipment_finance", "guarantor"), ("acquisition", "break_fee"), ("consultancy", "liability_cap"), ("proposal", "cancellation"),
        ("report", "viability"), ("record", "injuries"), ("billing", "bank_account"), ("policy", "age"), ("minutes", "votes"),
    ],
)  # fmt: skip
def test_what_a_paper_does_not_say_is_not_found(filled, sheet, term):
    assert filled[sheet].finding(term).state == "not_found", filled[sheet].finding(term).why


def test_all_exclusions_and_requirements_are_listed(filled):
    assert len(filled["insurance"].finding("exclusions").value.items) == 3
    assert len(filled["call_for_proposals"].finding("mandatory_requirements").value.items) == 3
