"""Rosters of what records hold: senders, bills, payments, dated entries, people, rows that meet a condition, speakers."""

from __future__ import annotations

import pytest

from yarnex.core.search import roster
from yarnex.core.search.people import people_of

RECORD = """# Flood at the dye house

Report written by Ann Rowley, site manager, on 4 March 2026.

## 2 March 2026

Mr Tom Ince found water under vat 3 at 6.10 a.m. and rang Dr Pia Lund of the insurer.

## 3 March 2026

T. Ince and two fitters from Calder Bank Plumbing Ltd lifted the floor.

## 9 March 2026

The floor was dry. Rowley told the insurer.

## Vats

| No. | Vat | Needs relining? | Condition |
| --- | --- | --- | --- |
| 1 | North vat | – | Sound |
| 2 | Middle vat | Yes | Worn |
| 3 | South vat | Yes | Beyond repair |
"""

BILLS = """# Calder Bank Plumbing Ltd

Unit 4, Tenter Street, Hebblethorpe · VAT no. 412 7788 10 · 01422 555 019

Invoice no. CB-2207

Date: 12 February 2026

Bill to: Brackenfold Mills Limited

| Description | Amount £ |
| --- | --- |
| Call-out | 310.00 |
| Pump hire | 144.00 |
| Total due | 454.00 |

# Rushbearing Electrical Ltd

Invoice no. 881

Date: 14 February 2026

Bill to: Brackenfold Mills Limited

| Description | Amount £ |
| --- | --- |
| Rewiring of pump | 88.00 |
| Cable | 12.00 |
| Total due | 100.00 |
"""

PAID = """# Payment notice

| What | Amount £ |
| --- | --- |
| Paid 1 April 2026 (interim) | 300.00 |
| Paid 2 May 2026 | 254.00 |
"""

CALL = """Brackenfold Mills results call

[09:00:05] ANN ROWLEY: Welcome. Sales rose.

[09:01:10] TOM INCE: Why do not costs fall?

[09:01:30] ANN ROWLEY: Wool was dear.

[09:02:00] PIA LUND: And next year, what do you expect?
"""


def texts(document, of):
    return [item.text for item in roster(document, of).items]


@pytest.mark.parametrize(
    ("source", "of", "expected"),
    [
        (RECORD, "dated entries", ["2 March 2026", "3 March 2026", "9 March 2026"]),
        (RECORD, "people named", ["Ann Rowley", "Mr Tom Ince", "Dr Pia Lund"]),
        (BILLS, "providers", ["Calder Bank Plumbing Ltd", "Rushbearing Electrical Ltd"]),
        (PAID, "payments made", ["300.00 GBP, 2026-04-01", "254.00 GBP, 2026-05-02"]),
    ],
)
def test_what_a_record_holds_is_listed_in_order(document, source, of, expected):
    assert texts(document(source, "r.md"), of) == expected


def test_a_bill_is_listed_by_number_sender_and_day(document):
    assert texts(document(BILLS, "r.md"), "invoices") == [
        "CB-2207, Calder Bank Plumbing Ltd, 2026-02-12",
        "881, Rushbearing Electrical Ltd, 2026-02-14",
    ]


def test_a_provider_comes_with_address_registration_telephone_and_bills(document):
    detail = roster(document(BILLS, "r.md"), "suppliers").items[0].detail
    assert "Unit 4, Tenter Street, Hebblethorpe" in detail
    assert "VAT no. 412 7788 10" in detail
    assert "01422 555 019" in detail
    assert detail.endswith("bill CB-2207")


@pytest.mark.parametrize(
    ("of", "names"), [("vats needing relining", ["Middle", "South"]), ("vats beyond repair", ["South"])]
)
def test_rows_are_kept_that_meet_the_condition(document, of, names):
    got = texts(document(RECORD, "r.md"), of)
    assert len(got) == len(names)
    assert all(name in text for name, text in zip(names, got, strict=True))


def test_one_person_under_several_forms_of_a_name_is_one(document):
    people = {item.text: item for item in people_of(document(RECORD, "r.md"))}
    assert len(people["Mr Tom Ince"].cites) >= 1
    assert people["Ann Rowley"].detail == "site manager"
    assert "T. Ince" not in people


def test_organisations_and_months_are_no_people(document):
    assert people_of(document("Mr March Limited of Mill Lane sold it. Calder Bank Plumbing, the owner, left.")) == []


def test_those_who_ask_are_told_from_those_who_answer(document):
    call = document(CALL, "call.txt")
    assert [t.lower() for t in texts(call, "people who asked questions")] == ["tom ince", "pia lund"]
    assert [t.lower() for t in texts(call, "speakers")] == ["ann rowley", "tom ince", "pia lund"]


def test_a_list_in_a_table_ends_at_its_total(document):
    table = """# Loans

| Loan | £ |
| --- | --- |
| Bank loan | 100 |
| Bond | 200 |
| Total | 300 |
| Within one year | 50 |
"""
    assert texts(document(table, "r.md"), "loans") == ["Bank loan", "Bond"]
