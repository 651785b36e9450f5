"""Orders, notes, licences and letters as people set them out: what their sheets find, and what is left alone."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms.abstract import abstract, sheet_for
from yarnex.core.terms.identity import identify, kind_amended
from yarnex.core.terms.passages import Passages, bare_label
from yarnex.core.values import DateValue, Duration, Money, Party, Percent


def filled(text: str, name: str = "paper.txt"):
    document = read_text(text.encode(), name, "0" * 64, markdown=name.endswith(".md"))
    found = abstract(document, sheet_for(document)).findings
    return {f.term.id: f for f in found}


ORDER = """BRACKENFOLD MILLS PLC                                   PURCHASE ORDER
Low Weir Mill, Weir Lane                                No. PO-26-0077
                                                        Date: 9 May 2026
To: Tarn Combs Ltd, Tarnby                              Page 1 of 1

Ship to: Goods Inwards, Low Weir Mill      Your quotation: TC/88 of 2 May 2026

Line  Part         Description                          Qty   Unit      Price     Amount EUR
10    TC-4         Top comb                               3   each      410.00      1,230.00
20    TC-9         Circle comb                           11   set        52.50        577.50
                                                          Freight                    60.00
                                                          Total EUR               1,867.50

Delivery required: 19 June 2026
Payment 45 days from invoice, 10% retained until accepted.
Late delivery: 2% of the order a week, up to 9%.
Our general conditions apply.
"""


@pytest.mark.parametrize(
    ("term", "value"),
    [
        ("supplier", Party("Tarn Combs Ltd")),
        ("delivery_date", DateValue(date(2026, 6, 19))),
        ("total", Money(Decimal("1867.50"), "EUR")),
        ("payment_within", Duration(45, "days")),
        ("retention", Percent(10)),
        ("late_delivery", Percent(2)),
        ("late_delivery_cap", Percent(9)),
    ],
)
def test_an_order(term, value):
    assert filled(ORDER)[term].value == value


def test_the_head_and_the_lines_of_an_order():
    document = read_text(ORDER.encode(), "order.txt", "0" * 64)
    assert identify(document).kind == "purchase_order"
    labels = {r.label: r.value.of(document.text) for r in Passages(document).labelled}
    assert labels["No"] == "PO-26-0077"
    assert labels["Date"] == "9 May 2026"
    assert "BRACKENFOLD MILLS PLC" not in labels or labels["BRACKENFOLD MILLS PLC"] == "PURCHASE ORDER"
    table = next(t for t in document.tables if t.columns > 3)
    assert [c.span.of(document.text) for c in table.row_cells(2)][-3:] == ["set", "52.50", "577.50"]
    assert not any(f.text == "PURCHASE ORDER" for f in abstract(document, sheet_for(document)).findings)


@pytest.mark.parametrize(
    ("label", "bare"),
    [("Total EUR", "Total"), ("Fee a year", "Fee"), ("Rent p.a.", "Rent"), ("Set-up", "Set-up"), ("Total £", "Total")],
)
def test_a_label_without_its_tail(label, bare):
    assert bare_label(label) == bare


VARIED = """# DEED OF VARIATION

**Parties:** (1) Tarn Estates Limited ("Landlord"); (2) Brackenfold Mills plc ("Tenant"); (3) Hagg Textiles Limited ("Guarantor")

**Lease:** the lease of the Combing Hall dated 4 May 2019.

1. **Term.** In the particulars, for "3 May 2029" there is substituted "3 May 2033".
2. **Break.** The Tenant may instead end the Lease on 3 May 2030 by at least seven months' written notice, if it has paid a sum of £12,000.
3. **Costs.** The service charge share goes from 11.5 % to 13.25 % on 1 June 2026.
4. **Guarantee.** The Guarantor's liability is reduced to four months' rent, and ends on 3 May 2030.
"""


def test_an_amendment_alone_takes_the_sheet_of_what_it_amends():
    document = read_text(VARIED.encode(), "deed.md", "0" * 64, markdown=True)
    assert (identify(document).kind, kind_amended(document)) == ("amendment", "lease")
    found = filled(VARIED, "deed.md")
    assert found["landlord"].value == Party("Tarn Estates Limited")
    assert found["lease_end"].text == "3 May 2033"
    assert not found["lease_start"].found
    assert found["break_date"].text == "3 May 2030"
    assert found["break_notice"].value == Duration(7, "months")
    assert found["service_charge_share"].value == Percent(Decimal("13.25"))
    assert found["guarantee_months"].value == Duration(4, "months")


SERVICE = """SERVICE AGREEMENT

between BRACKENFOLD MILLS PLC (the Company) and DR ELLA VENN (the Executive), 4 May 2026

1. Post. The Executive is employed as Head of Dyeing from 1 June 2026.
2. Trial. The first five months are probationary.
3. Hours. 36 a week and such more as the work needs.
4. Salary. £71,500 a year, paid on the 27th of the month.
5. Bonus. At the Board's discretion, to a most of 22 per cent of salary; not less than £4,000 in the first year.
6. Leave. 26 days and public holidays.
7. Pension. The Company pays 8 per cent of salary.
8. Sickness. Full pay for 11 weeks.
"""


def test_a_short_contract_of_employment():
    document = read_text(SERVICE.encode(), "service.txt", "0" * 64)
    assert identify(document).kind == "employment"
    found = filled(SERVICE)
    assert found["bonus"].value == Percent(22)
    assert found["salary"].value == Money(71500, "GBP", "year")
    assert found["annual_leave"].value == Duration(26, "days")
    assert found["hours"].found


NOTE = """PROMISSORY NOTE

$640,000.00                                              Tarnby, Vermont

FOR VALUE RECEIVED, BRACKENFOLD MILLS, INC., a Delaware corporation ("Maker"), promises to pay to the order of TARN RIVER BANK, N.A. ("Holder") the principal sum of Six Hundred Forty Thousand Dollars ($640,000.00).

1. Interest. The unpaid principal shall bear interest at a fixed rate of six percent (6%) per annum.
"""


def test_a_note_names_its_sides_and_its_rate():
    found = filled(NOTE)
    assert found["borrower"].value == Party("BRACKENFOLD MILLS, INC.")
    assert isinstance(found["lender"].value, Party) and found["lender"].value.name.startswith("TARN RIVER BANK")
    assert found["facility_amount"].value == Money(640000, "USD")
    assert found["interest_rate"].value == Percent(6)
    assert not any(
        f.found for name, f in found.items() if "default" in f.term.label.lower() and f.term.type == "percent"
    )


def test_a_cell_that_says_more_than_its_value():
    text = "# Heads of terms\n\n| Point | What is proposed |\n|---|---|\n| Price | £265,000, of which £20,000 when the roof is mended |\n| Law | England |\n"
    price = next(f for f in filled(text, "heads.md").values() if f.text == "£265,000")
    assert any("of which £20,000" in line for line in price.working)


def test_the_only_value_under_a_heading_and_what_is_none():
    text = "SUBLEASE AGREEMENT\n\n1. Term. The term begins on 1 March 2026 and expires on 30 May 2031, one day before the Master Lease expires. The Landlord and the Tenant so agree.\n"
    found = filled(text)
    assert not found["term_length"].found or found["term_length"].text != "one day"
