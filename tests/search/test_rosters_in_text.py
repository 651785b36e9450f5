"""Rosters that stand in running text, in list items below a sentence, and in one part of a table."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.reading.html import read_html
from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.roster_lines import numbered_items, parts_behind_colon
from yarnex.core.search.rosters import roster


@pytest.mark.parametrize(
    ("words", "items"),
    [
        ("The risks are: (1) fire; (2) flood, also of the cellar; and (3) theft. They were reviewed.", ["fire", "flood, also of the cellar", "theft"]),
        ("It leaves out (a) taxes, (b) refunds and (c) gifts.", ["taxes", "refunds", "gifts"]),
        ("Under (i) rent, (ii) rates and (iii) repairs", ["rent", "rates", "repairs"]),
        ("(1) one; (2) two", []),
        ("See (2) and (3) and (4).", []),
        ("Paid (in 2026) by (1) A, (2) B with (a) x, (b) y, and (3) C.", ["A", "B with (a) x, (b) y", "C"]),
    ],
)  # fmt: skip
def test_items_that_a_sentence_counts(words, items):
    assert [span.of(words) for _, span in numbered_items(words)] == items


@pytest.mark.parametrize(
    ("words", "parts"),
    [
        ("Attached are: Annex A (Plan); Annex B (Works); and Annex C (Rules).", ["Annex A (Plan)", "Annex B (Works)", "Annex C (Rules)"]),
        ("It is so: one; two.", []),
        ("No colon here; none; at all.", []),
        (f"Long: {'x' * 200}; b; c", []),
    ],
)  # fmt: skip
def test_parts_behind_a_colon(words, parts):
    assert [span.of(words) for span in parts_behind_colon(words)] == parts


@given(st.text(alphabet="(123abciv); :.,and \n", max_size=120))
def test_places_lie_in_the_words_and_in_order(words):
    for spans in ([s for _, s in numbered_items(words)], parts_behind_colon(words)):
        assert all(0 <= s.start <= s.end <= len(words) for s in spans)
        assert all(one.end <= other.start for one, other in pairwise(spans))


REPORT = """# Report of the Mill

## Principal risks

The risks of the next months are those of the last report: (1) failure of the boiler; (2) fire; (3) loss of a large customer; and (4) price of wool.

Risk 1, failure of the boiler

Raised to high.

Risk 2, fire

Not changed.

## Annexes

The following are attached to this report: Annex A (Plan); Annex B (List of machines); Annex C (Insurance).

## Prices

### Part A Yarn

| Product | Price |
| --- | --- |
| Total fleece yarn | £4.10 |
| Lambswool yarn | £6.20 |

### Part B Cloth

| Product | Price |
| --- | --- |
| Tweed | £21.00 |
| Total | £31.30 |
"""


@pytest.mark.parametrize(
    ("of", "items"),
    [
        ("principal risks", ["failure of the boiler", "fire", "loss of a large customer", "price of wool"]),
        ("annexes", ["Annex A (Plan)", "Annex B (List of machines)", "Annex C (Insurance)"]),
        ("products in Part A", ["Total fleece yarn", "Lambswool yarn"]),
        ("products in Part B", ["Tweed"]),
    ],
)
def test_rosters_of_a_report(of, items):
    document = read_text(REPORT.encode(), "report.md", "0" * 64, markdown=True)
    assert [i.text for i in roster(document, of).items] == items


def test_list_items_below_a_sentence_that_names_them():
    page = (
        "<html><body><h2>6. Data</h2><p>The sub-processors are listed below; a new one is told in advance.</p>"
        "<ul><li>Fell Hosting AB</li><li>Tarn Mail Limited</li></ul><h2>7. End</h2><p>Signed.</p></body></html>"
    )
    document = read_html(page.encode(), "page.html", "0" * 64)
    assert [i.text for i in roster(document, "sub-processors").items] == ["Fell Hosting AB", "Tarn Mail Limited"]
    assert [b.kind for b in document.blocks][2:4] == ["item", "item"]


def test_the_parties_with_their_roles():
    words = (
        '# Loan\n\nThis Agreement is made on 4 May 2026 between (1) Tarn Bank plc (the "Lender") and (2) Brackenfold Mills'
        ' Limited (the "Borrower").\n\n## 1. Loan\n\n1.1 The Lender lends £10,000. It may ask for a guarantee.\n'
    )
    document = read_text(words.encode(), "loan.md", "0" * 64, markdown=True)
    assert [i.text for i in roster(document, "parties").items] == [
        "Tarn Bank plc (Lender)",
        "Brackenfold Mills Limited (Borrower)",
    ]


def test_who_is_asked_for_by_role_is_not_one_of_another_role():
    words = (
        '# Loan\n\nThis Agreement is made on 4 May 2026 between (1) Tarn Bank plc (the "Lender") and (2) Brackenfold Mills'
        ' Limited (the "Borrower").\n\n## 1. Loan\n\n1.1 The Lender may ask for a guarantee from another.\n'
    )
    inquiry = Inquiry(read_text(words.encode(), "loan.md", "0" * 64, markdown=True))
    assert ask(inquiry, understand("Who is the guarantor?"))[0].state == "not_found"
    assert ask(inquiry, understand("Who is the lender?"))[0].text == "Tarn Bank plc"


WORKSHEET = """# Report on Low Weir Mill

## Shareholder relations

### Calendar

Results come out in May.

### Glossary

A bale is 180 kg.

## Sales that count

Gross takings do not include: (a) duties on yarn; (b) refunds for damp bales; (c) sales of old looms; and (d) gifts to schools.

No part of the shed may be used for: (a) dyeing; (b) storing solvents; (c) sleeping; (d) keeping dogs; or (e) welding, and exclusions from insurance apply.

## Holders

On 4 May 2026 the company knew of the following holdings: Calder Trust, 14 per cent; Tarn Fund, 8 per cent; Ada Thorne, 5 per cent.

Members of the safety committee are: Ann Rowley (chair), Sam Oke and Lil Dent, with an adviser.

## What is needed

| No. | Requirement |
| --- | --- |
| R1 | Runs on rails |
| R2 | Lifts two tonnes |
| R3 | Stops by itself |

R4 Each hoist is painted green.

R5 Spare parts are kept for ten years.

Offers are sent in by June.
"""


@pytest.fixture(scope="module")
def worksheet():
    return read_text(WORKSHEET.encode(), "report.md", "0" * 64, markdown=True)


@pytest.mark.parametrize(
    ("of", "items"),
    [
        ("exclusions from gross takings", ["duties on yarn", "refunds for damp bales", "sales of old looms", "gifts to schools"]),
        ("shareholdings", ["Calder Trust, 14 per cent", "Tarn Fund, 8 per cent", "Ada Thorne, 5 per cent"]),
        ("requirements", ["R1 Runs on rails", "R2 Lifts two tonnes", "R3 Stops by itself", "R4 Each hoist is painted green.", "R5 Spare parts are kept for ten years."]),
    ],
)  # fmt: skip
def test_the_list_whose_lead_says_most_is_taken_and_whole(worksheet, of, items):
    assert [item.text for item in roster(worksheet, of).items] == items
