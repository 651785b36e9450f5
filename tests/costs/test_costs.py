"""Bills line by line: totals, copies, sums that do not add up, payments and what was allowed."""

from __future__ import annotations

from decimal import Decimal

import pytest

from yarnex.core.costs import costs_of
from yarnex.core.costs.kinds import kind_of_charge, role_of

BILL = """# Calder Bank Plumbing Ltd

Unit 4, Tenter Street, Hebblethorpe

Invoice no. CB-2207

Date: 12 February 2026

Due: 14 March 2026

Bill to: Brackenfold Mills Limited

| Description | Qty | Rate £ | Amount £ |
| --- | --- | --- | --- |
| Call-out, two fitters | 5.0 h | 62.00 | 310.00 |
| Pump hire, 3 days | 3 | 48.00 | 144.00 |
| Copper pipe | | | 96.50 |
| Sundries | | | nil |
| Less: discount | | | 10.50 |
| Subtotal | | | 540.00 |
| VAT at 20% | | | 108.00 |
| Total due | | | 648.00 |
"""


@pytest.fixture
def costs(document):
    def make(*texts: str):
        return costs_of([document(text, f"bill-{i}.md") for i, text in enumerate(texts)])

    return make


def test_a_bill_has_its_head_and_lines(costs):
    (bill,) = costs(BILL).bills
    assert (bill.provider, bill.number, bill.customer, bill.currency) == (
        "Calder Bank Plumbing Ltd",
        "CB-2207",
        "Brackenfold Mills Limited",
        "GBP",
    )
    assert (bill.dated.isoformat(), bill.due.isoformat()) == ("2026-02-12", "2026-03-14")
    first = bill.lines[0]
    assert (first.quantity, first.unit, first.unit_price, first.amount, first.kind) == (
        Decimal("5.0"),
        "h",
        Decimal("62.00"),
        Decimal("310.00"),
        "labour",
    )
    assert [line.role for line in bill.lines] == [
        "charge",
        "charge",
        "charge",
        "charge",
        "adjustment",
        "subtotal",
        "tax",
        "total",
    ]
    assert bill.printed_total == bill.added_total == Decimal("648.00")


def test_a_sound_bill_passes_every_check(costs):
    checks = costs(BILL).checks
    assert {c.kind for c in checks} == {"lines", "tax", "price"}
    assert all(c.passed for c in checks), [c.what for c in checks if not c.passed]


@pytest.mark.parametrize(
    ("right", "wrong", "kind", "difference"),
    [
        ("| Subtotal | | | 540.00 |", "| Subtotal | | | 450.00 |", "lines", "-90.00"),
        ("| VAT at 20% | | | 108.00 |", "| VAT at 20% | | | 118.00 |", "tax", "10.00"),
        ("| Pump hire, 3 days | 3 | 48.00 | 144.00 |", "| Pump hire, 3 days | 4 | 48.00 | 144.00 |", "price", "-48.00"),
    ],
)
def test_a_slip_is_found_to_the_penny(costs, right, wrong, kind, difference):
    failed = [c for c in costs(BILL.replace(right, wrong)).checks if not c.passed and c.kind == kind]
    assert [c.difference for c in failed][:1] == [Decimal(difference)]


def test_a_copy_is_counted_once_and_said(costs):
    again = BILL.replace("12 February 2026", "3 March 2026")
    found = costs(BILL, again)
    assert [bool(b.copy_of) for b in found.bills] == [False, True]
    assert any("counted once" in c.what for c in found.checks if c.kind == "copy")
    totals = {t["of"]: t["amount"] for t in found.totals() if t["name"] is None}
    assert totals["as printed"] == 1296
    assert totals["after corrections"] == 648


def test_another_bill_of_the_same_sender_is_no_copy(costs):
    other = (
        BILL.replace("CB-2207", "CB-2219")
        .replace("| Copper pipe | | | 96.50 |", "| Copper pipe | | | 86.50 |")
        .replace("540.00", "530.00")
        .replace("108.00", "106.00")
        .replace("648.00", "636.00")
    )
    assert not any(b.copy_of for b in costs(BILL, other).bills)


def test_a_wrong_sum_is_corrected_with_its_tax(costs):
    wrong = (
        BILL.replace("| Subtotal | | | 540.00 |", "| Subtotal | | | 450.00 |")
        .replace("108.00", "90.00")
        .replace("648.00", "540.00")
    )
    totals = {t["of"]: t["amount"] for t in costs(wrong).totals() if t["name"] is None}
    assert totals["as printed"] == 540
    assert totals["sums corrected"] == 108
    assert totals["after corrections"] == 648


def test_an_estimate_is_listed_and_not_counted(costs):
    found = costs(BILL.replace("Invoice no.", "Estimate no."))
    assert found.bills[0].kind == "estimate"
    assert found.counted() == ()


STATEMENT = """# Statement of claim payments

Date of this statement: 30 April 2026

| Supplier and invoice | Presented £ | Allowed £ | Reason |
| --- | --- | --- | --- |
| Calder Bank Plumbing Ltd, CB-2207 | 648.00 | nil | 1 |
| Wharfe Drying Services Ltd, WD/0931 | 1,996.80 | 1,975.20 | – |
| Total | 2,644.80 | 1,975.20 | |

Reason 1: repair of the pipe itself is not insured.

| Settlement | £ |
| --- | --- |
| Costs allowed | 1,975.20 |
| Less: excess | (500.00) |
| Paid 14 April 2026 (interim) | (900.00) |
| Paid 30 April 2026 | (575.20) |
"""


def test_a_statement_is_matched_with_the_bills_it_names(costs):
    found = costs(BILL, STATEMENT)
    first, second = found.claims
    assert (first.presented, first.allowed, first.matched) == (
        Decimal("648.00"),
        Decimal(0),
        "Calder Bank Plumbing Ltd, CB-2207",
    )
    assert first.reason == "repair of the pipe itself is not insured."
    assert second.matched == ""
    assert [(p.day.isoformat(), p.amount) for p in found.payments] == [
        ("2026-04-14", Decimal("900.00")),
        ("2026-04-30", Decimal("575.20")),
    ]
    assert all(c.passed for c in found.checks if c.kind == "claimed")
    totals = {t["of"]: t["amount"] for t in found.totals() if t["name"] is None}
    assert totals["paid"] == Decimal("1475.2")


def test_presented_sums_that_differ_from_the_bill_are_said(costs):
    found = costs(BILL, STATEMENT.replace("| 648.00 | nil", "| 684.00 | nil"))
    (wrong,) = [c for c in found.checks if c.kind == "claimed" and not c.passed]
    assert wrong.difference == 36


@pytest.mark.parametrize(
    ("label", "role"),
    [
        ("Sub-total", "subtotal"),
        ("VAT 20%", "tax"),
        ("Total payable", "total"),
        ("AMOUNT DUE NZ$", "total"),
        ("Paid on account", "payment"),
        ("Less: discount", "adjustment"),
        ("Net", "subtotal"),
        ("Net curtains", "charge"),
        ("Taxi to site", "charge"),
    ],
)
def test_labels_that_are_no_charges(label, role):
    assert role_of(label) == role


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("Dehumidifier hire", "hire"),
        ("Van, two days", "transport"),
        ("X-ray of hand", "treatment"),
        ("Emergency attendance", "labour"),
        ("Mystery", "other"),
    ],
)
def test_kinds_of_charges(words, kind):
    assert kind_of_charge(words) == kind


def test_papers_without_bills_have_no_costs(document):
    lease = document("LEASE\n\n| Item | Amount |\n| --- | --- |\n| Rent | £5,000 |\n| Deposit | £1,000 |\n", "lease.md")
    assert costs_of([lease]).bills == ()


HIRE = """# Tenter Street Hire Ltd

Invoice no. TS-19

Date: 1 May 2026

Bill to: Brackenfold Mills Limited

| Description | Amount £ |
| --- | --- |
| Dryer hire, 1 April 2026 to 1 May 2026 | 600.00 |
| Attendance on 4 April 2026 | 90.00 |
| Total due | 690.00 |
"""


@pytest.mark.parametrize(
    ("told", "share"),
    [
        ("The dryer of Tenter Street was no longer needed from 16 April 2026.", ["300.00"]),
        ("All dryers of Tenter Street were collected on 21 April 2026.", ["200.00"]),
        ("Nobody from Tenter Street came on 4 April 2026.", ["90.00"]),
        ("The dryers of Tenter Street were collected on 1 May 2026.", []),  # the day to which it is charged
        ("The van of Calder Bank was no longer needed from 16 April 2026.", []),  # another firm
        ("Tenter Street brought the dryer on 1 April 2026.", []),  # nothing had ended
    ],
)
def test_days_charged_that_another_document_contradicts_are_said_with_both_places(document, told, share):
    checks = costs_of([document(HIRE, "bill.md"), document(f"# Diary\n\n{told}\n", "diary.md")]).checks
    failed = [c for c in checks if c.kind == "day"]
    assert [str(c.difference) for c in failed] == share
    for check in failed:
        assert {cite.document.path for cite in check.cites} == {"bill.md", "diary.md"}
