"""Bills in the layouts that senders use: labels in a row or in a column, prices by quantity, credits, estimates, receipts."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest

from yarnex.core.costs.bills import bills_of
from yarnex.core.costs.statements import claims_of, payments_of

HEAD_IN_A_ROW = """# Rushbearing Electrical Ltd

Tax invoice 881, 14 February 2026. Job: Low Weir Mill

| Item | Quantity | Unit price | Total |
| --- | --- | --- | --- |
| Rewiring, hours | 2.5 | £40.00 | £100.00 |
| Cable, metres | 30 | £0.40 | £12.00 |
| Net | | | £112.00 |
| VAT at 20% | | | £22.40 |
| Amount payable | | | £134.40 |
"""

CREDIT = """# Tenter Street Hire Ltd

CREDIT NOTE

Number: TS-20C

Date: 3 May 2026

| Description | Amount £ |
| --- | --- |
| Dryer not used, 5 days | 60.00 |
| Total credit | 60.00 |
"""

ESTIMATE = """# Calder Bank Plumbing Ltd

ESTIMATE no. E-14

Date: 2 May 2026

| Description | Amount £ |
| --- | --- |
| New pump | 900.00 |
| Fitting | 150.00 |
| Total | 1,050.00 |
"""

DOLLARS = """# Harrow Freight LLC

Invoice number: HF-7

Date: May 4, 2026

| Description | Amount (US$) |
| --- | --- |
| Ocean freight | 1,200.50 |
| Less discount | (200.50) |
| Total due | 1,000.00 |
"""

NOTICE = """# Payment notice

| Bill | Presented £ | Allowed £ | Note |
| --- | --- | --- | --- |
| Rushbearing Electrical Ltd, 881 | 134.40 | 112.00 | 1 |
| Calder Bank Plumbing Ltd, CB-2207 | 648.00 | 648.00 | |

| | £ |
| --- | --- |
| Paid 1 June 2026 | 400.00 |
| Paid 9 June 2026 (final) | 360.00 |

1 Tax is not allowed.
"""


@pytest.mark.parametrize(
    ("text", "kind", "provider", "number", "dated", "currency", "total"),
    [
        (HEAD_IN_A_ROW, "invoice", "Rushbearing Electrical Ltd", "881", date(2026, 2, 14), "GBP", "134.40"),
        (CREDIT, "credit note", "Tenter Street Hire Ltd", "TS-20C", date(2026, 5, 3), "GBP", "60.00"),
        (ESTIMATE, "estimate", "Calder Bank Plumbing Ltd", "E-14", date(2026, 5, 2), "GBP", "1050.00"),
        (DOLLARS, "invoice", "Harrow Freight LLC", "HF-7", date(2026, 5, 4), "USD", "1000.00"),
    ],
)
def test_the_head_of_a_bill(document, text, kind, provider, number, dated, currency, total):
    (bill,) = bills_of(document(text, "bill.md"))
    assert (bill.kind, bill.provider, bill.number, bill.dated, bill.currency) == (
        kind,
        provider,
        number,
        dated,
        currency,
    )
    assert abs(bill.printed_total) == Decimal(total)


def test_quantities_and_prices_are_read(document):
    (bill,) = bills_of(document(HEAD_IN_A_ROW, "bill.md"))
    first, second = bill.charges[:2]
    assert (first.quantity, first.unit_price, first.amount) == (Decimal("2.5"), Decimal("40.00"), Decimal("100.00"))
    assert (second.quantity, second.unit_price, second.amount) == (Decimal("30"), Decimal("0.40"), Decimal("12.00"))


def test_every_line_has_its_own_place_and_role(document):
    (bill,) = bills_of(document(HEAD_IN_A_ROW, "bill.md"))
    assert [line.role for line in bill.lines] == ["charge", "charge", "subtotal", "tax", "total"]
    quotes = [bill.cite(line).quote for line in bill.lines]
    assert len(set(quotes)) == len(quotes)
    assert "Cable" in quotes[1]


def test_a_discount_is_taken_off(document):
    (bill,) = bills_of(document(DOLLARS, "bill.md"))
    assert bill.added_total == Decimal("1000.00")


def test_a_charge_as_json(document):
    (bill,) = bills_of(document(HEAD_IN_A_ROW, "bill.md"))
    record = bill.charge_dict(bill.charges[0])
    assert record["provider"] == "Rushbearing Electrical Ltd"
    assert record["amount"] == 100
    assert record["currency"] == "GBP"
    assert record["counted"] is True
    assert record["cites"][0]["quote"]


def test_a_notice_tells_what_was_presented_allowed_and_paid(document):
    notice = document(NOTICE, "notice.md")
    assert [(c.presented, c.allowed) for c in claims_of(notice)] == [
        (Decimal("134.40"), Decimal("112.00")),
        (Decimal("648.00"), Decimal("648.00")),
    ]
    assert [(p.day, p.amount) for p in payments_of(notice)] == [
        (date(2026, 6, 1), Decimal("400.00")),
        (date(2026, 6, 9), Decimal("360.00")),
    ]


def test_a_table_that_is_no_bill_is_none(document):
    table = "# Looms\n\n| Loom | Width, cm |\n| --- | --- |\n| A | 160 |\n| B | 190 |\n| Total | 350 |\n"
    assert bills_of(document(table, "looms.md")) == ()
