"""Titles, points and columns of particulars in plain text, which has no type to tell them by."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms.passages import Passages


def blocks(text: str):
    document = read_text(text.encode(), "survey.txt", "0" * 64)
    return [(b.kind, b.number, b.span.of(document.text)) for b in document.blocks]


PROSE = "The wool store was dry on the day of our visit, and the floor sound throughout."


@pytest.mark.parametrize(
    ("text", "number", "title"),
    [
        (f"BRACKENFOLD\n\n2. Damp\n{PROSE}\n\nEnd.", "2", "2. Damp"),
        (f"BRACKENFOLD\n\n3 What we saw\n\n{PROSE}\n\nEnd.", "3", "3 What we saw"),
        (f"BRACKENFOLD\n\nOutlook\n{PROSE}\n\nEnd.", "", "Outlook"),
        ("BRACKENFOLD\n\nHighlights\n- Sales of yarn rose\n- Costs fell\n\nEnd.", "", "Highlights"),
        ("BRACKENFOLD\n\n4. Rent\n4.1 The rent is due each month and is not to be set off.\n", "4", "4. Rent"),
        (
            "BRACKENFOLD\n\n5. Reserve\nItem            Claimed     Advised\nYarn            £900        £700\n",
            "5",
            "5. Reserve",
        ),
    ],
)
def test_lines_that_are_titles(text, number, title):
    assert ("heading", number, title) in blocks(text)


@pytest.mark.parametrize(
    "text",
    [
        "Brackenfold Mills plc\nLow Weir Mill\nFellgate\n\nDear Noor\n",
        "1 Price of wool\n2 Housing market\n3 Energy\n4 Cloth\n",
        f"Outlook: {PROSE}\n\n{PROSE}\n",
        f"{PROSE}\n\nYours sincerely\n\nRhona Teal\nHead of People\n",
    ],
)
def test_lines_that_are_none(text):
    assert not [b for b in blocks(text) if b[0] == "heading"]


def test_points_are_items_of_their_own():
    found = blocks("Highlights\n- Sales up 4.8% to £118.6m\n- Debt of £41.3m\n")
    assert [kind for kind, _, _ in found] == ["heading", "item", "item"]


def test_numbered_particulars_have_their_label():
    text = "PARTICULARS\n\nItem 1   Lessor            Tarn Estates Limited\nItem 2   Term              Five years\nItem 10  Rent              £9,000 a year\n"
    labelled = Passages(read_text(text.encode(), "lease.txt", "0" * 64)).labelled
    assert [row.label for row in labelled] == ["Lessor", "Term", "Rent"]


STATEMENT = """Balance sheet at 31 March

                              2026        2025

Fixed assets

Looms                        1,250       1,300
Combs                          410         395
Total                        1,660       1,695
"""


def test_the_years_over_a_statement_stay_with_it():
    document = read_text(STATEMENT.encode(), "balance.txt", "0" * 64)
    table = next(t for t in document.tables if t.columns >= 3)
    assert table.header_rows
    assert "2026" in [c.span.of(document.text) for r in range(table.header_rows) for c in table.row_cells(r)]


LETTERHEAD = """TARN PHYSIOTHERAPY
4 Chapel Yard, Tarnby                                     Tel. 01632 960 700

DISCHARGE REPORT

Patient: Ivo Kirk        Date of birth: 3 June 1968       Our ref: TP/22
"""


def test_a_title_below_a_letterhead_is_no_row_of_it():
    document = read_text(LETTERHEAD.encode(), "report.txt", "0" * 64)
    assert any(b.kind == "heading" and b.span.of(document.text) == "DISCHARGE REPORT" for b in document.blocks)


def test_the_first_item_of_a_list_is_no_part_of_the_line_that_leads_to_it():
    text = "POLICY\n\n2. What is left out\n\nWe leave out\n(a) moth, rot and rust in any of the wool that is kept in the lofts;\n(b) looms that stand idle;\n(c) fines.\n"
    found = blocks(text)
    assert ("heading", "2", "2. What is left out") in found
    assert [w[:3] for k, _, w in found if k == "item"] == ["(a)", "(b)", "(c)"]


def test_notes_with_a_bare_number_have_a_title():
    notes = ("Looms", "Wages", "Rent of the lofts", "Events after the fair")
    text = "# Notes\n\n" + "\n\n".join(
        f"**{i} {t}.** The sum of it came to £{i} million in the year that ended in March."
        for i, t in enumerate(notes, 4)
    )
    document = read_text(text.encode(), "notes.md", "0" * 64, markdown=True)
    assert [b.heading for b in document.blocks if b.kind == "paragraph"] == list(notes)
