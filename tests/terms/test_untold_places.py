"""Blanks and blacked-out places that no term asks for, and places that tell more than one value."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, load_sheet, parse_sheet
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.untold_gaps import GROUP, untold_gaps
from yarnex.output.wording import shown

SHEET = """sheet: "s"
label: "S"
particulars: "all"
terms:
  - {id: "account", label: "Account", type: "text", names: ["account [number]"], cues: ["account number <value>"]}
"""


def gaps_of(document, text: str, name: str = "paper.md"):
    made = document(text, name)
    return [(f.state, f.term.label) for f in untold_gaps([], Passages(made))]


@pytest.mark.parametrize(
    ("text", "label"),
    [
        ("The Mill's address for service is ______________.", "Mill's address for service"),
        ("It holds the permit; the certificate number is ..............................", "Certificate number"),
        ("The parties certify that: the Opening Date is ________, 20__.", "Opening Date"),
        ("Signed for the Mill: ____________ Date: ____ May 2026", "Signed for the Mill: Date"),
        ("Name of buyer: ______________ Signed: ______________", "Name of buyer"),
        ("The Owner's telephone number is ██████████.", "Owner's telephone number"),
        ("| Test | Limit | Found |\n| --- | --- | --- |\n| Dust | 4 mg | ________ |", "Dust: Found"),
    ],
)
def test_a_gap_is_told_with_what_leads_to_it(document, text, label):
    state = "redacted" if "█" in text else "blank"
    assert gaps_of(document, text) == [(state, label)]


@pytest.mark.parametrize(
    "text",
    [
        "For the Mill: ________________",
        "By: ____________\nName: ____________\nTitle: ____________",
        "____________________\nDirector",
        "Signed by the Owner ________________ Director",
        "The common seal of the Mill was affixed hereto: ................",
        "Accepted for the Company: ________________",
        "# 1 Repairs\n\nThe Mill repairs.\n\n# Contents\n\n1 Repairs ......................",
    ],
)
def test_places_for_signatures_and_lines_of_contents_are_left_out(document, text):
    assert gaps_of(document, text) == []


def test_what_a_term_tells_is_not_told_again(document):
    text = "# Deposit\n\nIt stands in account number ██████████.\n\nThe bank's sort code is ██████.\n"
    filled = abstract(document(text, "paper.md"), parse_sheet(SHEET, "s.yaml"))
    told = [(f.term.id, f.term.group) for f in filled.findings if f.state == "redacted"]
    assert told == [("account", ""), ("gap_bank_s_sort_code", GROUP)]


@pytest.mark.parametrize(
    ("value", "first", "others"),
    [
        ("390 l, 24 hours", "390 litres", ["24 hours"]),
        ("0.25 per cent of the sum, minimum £750.00", "0.25 %", ["£750"]),
        ("£480", "£480", []),
    ],
)
def test_a_labelled_place_tells_all_its_values(document, value, first, others):
    passages = Passages(document(f"| Item | Terms |\n| --- | --- |\n| Reserve | {value} |\n", "paper.md"))
    found = next(iter(other_particulars([], passages, lists=True)))
    assert shown(found.value) == first
    assert [(f.role, shown(f.value)) for f in found.further] == [("also_stated", o) for o in others]


BILLS = """WEIR DRYING LTD

4 Fuller Road, Thrapsley                        TAX INVOICE
Tax no. 112-884-305                             Invoice no. 20817
01632 960 182                                   Date: 20 June 2026

Job: 25-1140 Due: 20 July 2026
Found: belt split along the seam. Old guard was loose. Both replaced.

Description                     Qty        Rate £      Amount £
Drying                          2          40.00       80.00
Subtotal                                               80.00
"""


def test_the_head_of_a_bill_is_read_label_by_label(document):
    filled = abstract(document(BILLS, "bill.txt"), load_sheet("billing"))
    told = {f.term.label: f.text for f in filled.findings if f.found}
    assert (told["Job"], filled.finding("due_date").text) == ("25-1140", "20 July 2026")
    assert filled.finding("number").text == "20817"
    assert told["Found"].startswith("belt split along the seam.")
    assert not any("Fuller Road" in label for label in told)


def test_a_line_of_heads_without_colons(document):
    line = "Invoice W-3309 Date 1 July 2026 Customer Brackenfold Mills Due 20 August 2026"
    text = f"<table><tr><th colspan=2>{line}</th></tr><tr><th>Item</th><th>Amount</th></tr><tr><td>Twine</td><td>£80</td></tr></table>"
    from yarnex.core.reading.html import read_html

    passages = Passages(read_html(text.encode(), "bill.html", "0" * 64))
    told = {row.label: row.value.of(passages.text) for row in passages.labelled}
    assert told["Invoice"] == "W-3309"
    assert (told["Date"], told["Due"]) == ("1 July 2026", "20 August 2026")


def test_columns_of_areas_and_ratios_are_no_sums(document):
    text = "# Areas\n\nRent £900 a month.\n\n| Floor | Square metres | Square feet |\n| --- | --- | --- |\n| Ground | 451.5 | 4,860 |\n"
    passages = Passages(document(text, "paper.md"))
    told = {f.term.label: shown(f.value) for f in other_particulars([], passages, lists=True)}
    assert told == {"Ground: Square metres": "451.5 sq m", "Ground: Square feet": "4,860 sq ft"}


@pytest.mark.parametrize(
    ("text", "labels"),
    [
        ("# Glossary\n\nNoils: short fibres left by the comb.\n\nCalendar: 4 May 2028\n", ["Calendar"]),
        ("# Bill 1\n\nDue: 4 May 2028\n\n# Bill 2\n\nDue: 9 June 2028\n", ["Bill 1: Due", "Bill 2: Due"]),
        ("| Item | Price | Reason |\n| --- | --- | --- |\n| Twine | £40 | 1 |\n", ["Twine: Price"]),
        ("| Item | Note |\n| --- | --- |\n| Contact | to be named |\n| Site | Low Weir |\n", ["Contact", "Site"]),
    ],
)
def test_which_labelled_places_are_told(document, text, labels):
    passages = Passages(document(text, "paper.md"))
    found = list(other_particulars([], passages, lists=True))
    assert [f.term.label for f in found] == labels
    assert [f.state for f in found if f.term.label == "Contact"] in ([], ["blank"])
