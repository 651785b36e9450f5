"""Terms as other drafters put them, papers told by their subject or first cell, parties by "you", titles and lists in a row."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms.abstract import abstract, sheet_for
from yarnex.core.terms.candidates import list_items
from yarnex.core.terms.identity import identify, kind_amended
from yarnex.core.terms.letterhead import signature_of
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.signatures import signatories_of
from yarnex.core.terms.values_in_lines import AHEAD
from yarnex.core.values import DateValue, Duration, Money, Party, Percent, Quantity, find_party_roles


def read(text: str, name: str = "paper.md"):
    return read_text(text.encode(), name, "0" * 64, markdown=name.endswith(".md"))


def filled(text: str, sheet: str = "auto"):
    document = read(text, "paper.md" if text.startswith("#") else "paper.txt")
    return {f.term.id: f for f in abstract(document, sheet_for(document, sheet)).findings}


EMPLOYMENT = """# Contract of employment

Between Tarn Combers DAC, Weir Road, Drogheda ("the Company") and Ms Ada Kirk, 4 Chapel Row, Slane ("you").

1. **Start.** Your employment begins on 5 October 2026. Service with Heddle Spinners Ltd from 8 May 2017 counts as continuous.

2. **After you leave.** For five months you will not work for a comber, and for eleven months you will not solicit a customer.

3. **Secrecy.** You will not disclose recipes or prices, during the employment or for four years after it.

4. **Car.** The Company provides a car of a value of up to €39,000, or pays €640 a month instead.
"""
SALE = """# Asset sale agreement

This agreement is dated 3 March 2026.

(1) TARN COMBERS LIMITED, whose registered office is at Beck Mill (**Seller**)

(2) BRACKENFOLD MILLS PLC (**Buyer**)

**1 Price.** £1,410,000, of which the larger part is for the combs and the smaller part for the stock, as the parties agree it after the count that they make together on the day before completion, each bearing its own costs.

**2 Claims.** The Seller is not liable for single claims below £4,000, nor until all claims together pass £31,000.

**3 Costs.** Each party bears its own costs.

**4 Restraint.** For two years after Completion neither the Seller nor its parent competes with the business.
"""
BANK = """WEIR & HEDDLE BANK plc
2 Sessions Square, Thrapsley

6 July 2026

The Directors
Brackenfold Mills plc

Dear Directors

REVOLVING CREDIT FACILITY

We are pleased to offer you a revolving credit of £2,900,000. Non-utilisation: 0.7 per cent a year on what is not drawn. The credit runs for four years. You bear our solicitors' fees up to £8,100. To accept, sign the copy by 30 July 2026.

Yours faithfully

Ada Kirk
Director
"""
INJURY = """MEDICO-LEGAL REPORT

Prepared for:          Heddle Solicitors
Date of accident:      11 January 2026
Date of examination:   7 July 2026

1. Treatment

1.1 He stayed in hospital for five nights. He has attended seventeen of the twenty sessions that were offered.

2. Opinion

2.1 He is fit for light work from 1 October 2026. My fee for this report is £1,090 with tax.
"""
CALL = """# Invitation to tender: cleaning of the mill

Reference BM/CL/2026/7 · Issued 4 May 2026

The contract will run for four years from 1 July 2026. Its value is put at £310,000. The present contractor is Tarn Cleaners Limited.

| Step | Date |
| --- | --- |
| Tenders to be in | noon, 9 June 2026 |
| Last questions | 22 May 2026 |

A tender binds the tenderer for 75 days. For a missed round £35 are taken off the month's bill.
"""


@pytest.mark.parametrize(
    ("text", "term", "value"),
    [
        (EMPLOYMENT, "employer", Party("Tarn Combers DAC")),
        (EMPLOYMENT, "employee", Party("Ms Ada Kirk")),
        (EMPLOYMENT, "continuous_service", DateValue(date(2017, 5, 8))),
        (EMPLOYMENT, "non_solicit", Duration(Decimal(11), "months")),
        (EMPLOYMENT, "confidentiality_period", Duration(Decimal(4), "years")),
        (SALE, "seller", Party("TARN COMBERS LIMITED")),
        (SALE, "price", Money(Decimal(1410000), "GBP")),
        (SALE, "de_minimis", Money(Decimal(4000), "GBP")),
        (SALE, "basket", Money(Decimal(31000), "GBP")),
        (SALE, "restricted_period", Duration(Decimal(2), "years")),
        (BANK, "lender", Party("WEIR & HEDDLE BANK plc")),
        (BANK, "borrower", Party("Brackenfold Mills plc")),
        (BANK, "commitment_fee", Percent(Decimal("0.7"))),
        (BANK, "term_length", Duration(Decimal(4), "years")),
        (BANK, "legal_fees_cap", Money(Decimal(8100), "GBP")),
        (BANK, "acceptance_deadline", DateValue(date(2026, 7, 30))),
        (INJURY, "event_date", DateValue(date(2026, 1, 11))),
        (INJURY, "sessions", Quantity(Decimal(17), None)),
        (INJURY, "fit_from", DateValue(date(2026, 10, 1))),
        (INJURY, "report_fee", Money(Decimal(1090), "GBP")),
        (CALL, "contract_length", Duration(Decimal(4), "years")),
        (CALL, "estimated_value", Money(Decimal(310000), "GBP")),
        (CALL, "present_supplier", Party("Tarn Cleaners Limited")),
        (CALL, "submission_deadline", DateValue(date(2026, 6, 9))),
        (CALL, "questions_deadline", DateValue(date(2026, 5, 22))),
        (CALL, "bid_validity", Duration(Decimal(75), "days")),
    ],
)
def test_a_term_as_another_drafter_puts_it(text, term, value):
    assert filled(text)[term].value == value


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        (BANK, "loan"),
        (SALE, "share_purchase"),
        (INJURY, "record"),
        ("# Tarn Garn ASA - Third quarter 2026\n\nEBITDA fell in the quarter; the outlook is as before.", "quarterly_report"),
        ("Tarn Process Ltd\n\n11 August 2026\n\nBrackenfold Mills plc\n\nDear Ada\n\nHeat recovery: terms on which we would act\n\nWe shall measure the flows for a lump sum.\n\nYours sincerely\n\nIvo Kirk", "consultancy"),
    ],
)  # fmt: skip
def test_the_kind_of_a_paper(text, kind):
    assert identify(read(text, "paper.txt" if text.startswith(("Tarn", "WEIR")) else "paper.md")).kind == kind


def test_a_letter_of_we_and_you_changes_the_lease_that_it_names():
    text = "# Side letter\n\nDear Sirs\n\n" + "We refer to the Lease. While the Lease runs we accept rent monthly. " * 3
    assert kind_amended(read(text)) == "lease"


@pytest.mark.parametrize(
    ("text", "roles"),
    [
        ('Between Tarn Mills DAC ("the Company") and Ada Kirk ("you").', {"Company": "Tarn Mills DAC", "you": "Ada Kirk"}),
        ("TARN MILLS LIMITED (company number 22) of Beck Lane (Buyer)", {"Buyer": "TARN MILLS LIMITED"}),
        ("TARN MILLS LIMITED (Ireland) holds it.", {}),
    ],
)  # fmt: skip
def test_roles(text, roles):
    assert {f.value.role: f.value.name for f in find_party_roles(text)} == roles


@pytest.mark.parametrize(
    ("before", "ahead"),
    [("a report will be had by ", True), ("We were instructed by telephone on ", False), ("sent by noon on ", True), ("it lapses on ", True)],
)  # fmt: skip
def test_by_tells_of_a_day_only_right_before_it(before, ahead):
    assert (AHEAD.search(before) is not None) is ahead


def test_blocks_of_signatures_one_after_the_other():
    text = (
        "# Agreement\n\nTARN MILLS INC. By: /s/ Ada Kirk Name: Ada Kirk Title: President\n\n"
        "HEDDLE STORES LLC By: /s/ Ivo Orr Name: Ivo Orr Title: Manager"
    )
    assert [(s.name, s.party, s.post) for s in signatories_of(read(text))] == [
        ("Ada Kirk", "TARN MILLS INC", "President"),
        ("Ivo Orr", "HEDDLE STORES LLC", "Manager"),
    ]


@pytest.mark.parametrize(
    ("end", "name"),
    [
        ("Ivo Kirk ACII\nPartner", "Ivo Kirk ACII Partner"),
        ("Salvage has been sold.\n\nThat is all.", None),
    ],
)
def test_the_name_at_the_end_of_a_report(end, name):
    found = signature_of(read(f"PRELIMINARY REPORT\n\nThe wool was wet.\n\n{end}", "report.txt"))
    assert (" ".join(found.quote.split()) if found else None) == name


@pytest.mark.parametrize(
    ("words", "items"),
    [
        ("The main risks are: wool, above all merino; the euro; and fire.", ("wool, above all merino", "the euro", "fire")),
        ("wool, yarn and cloth", ("wool", "yarn", "cloth")),
    ],
)  # fmt: skip
def test_a_list_behind_a_colon_keeps_the_commas_of_its_items(words, items):
    document = read(words)
    passages = Passages(document)
    term = next(t for t in sheet_for(document, "report").terms if t.id == "principal_risks")
    listed, _ = list_items(term, passages, document.blocks[0].span)
    assert listed.items == items


EXCLUSIONS = """CYBER POLICY

Policy number      CY/22-7
Insurer            Tarn Specialty Limited
Period             from 1 April 2026 to 31 March 2027

Limit of liability £2,000,000
Sub-limits
  Ransom payments    £90,000

B. What is not covered

B1 Injury or damage to property. B2 War. B3 Failure of power that is not under your control, or of the internet.
"""


def test_sentences_with_numbers_of_their_own_are_a_list():
    found = filled(EXCLUSIONS)
    assert len(found["exclusions"].value.items) == 3
    assert found["insurer"].value == Party("Tarn Specialty Limited")


@pytest.mark.parametrize(
    ("line", "label", "value"),
    [
        ("Owner: Finance Director · Version 4 · In force from 1 May 2026", "owner", "Finance Director"),
        ("It has not been audited. Next report: 11 May 2027", "next report", "11 May 2027"),
    ],
)
def test_a_label_inside_a_line(line, label, value):
    passages = Passages(read(f"# Paper\n\n{line}"))
    rows = {r.label.lower(): r.value.of(passages.text) for r in passages.labelled}
    assert rows[label] == value


def test_a_rate_of_exchange_leaves_the_usual_currency():
    text = "Sales came to nine million pounds. We assume one euro twenty. The claim is four hundred thousand pounds."
    assert Passages(read(text)).usual_currency == "GBP"
