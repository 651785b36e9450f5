"""The workbook: typed cells, links, schedules, what was not found; the same bytes each time."""

from __future__ import annotations

import io
from datetime import datetime

import openpyxl
import pytest

from yarnex.core.terms import abstract_all
from yarnex.output.wording import in_form
from yarnex.output.workbook import abstract_workbook

PAPER = """# Wool supply agreement

This Agreement is made on 4 May 2025 between Skerra Growers Limited (the "Supplier") and Weir Mills Limited (the "Buyer").

| Year | Minimum purchase (£) |
| --- | --- |
| 1 June 2025 – 31 May 2026 | 40,000 |
| 1 June 2026 – 31 May 2027 | 45,000 |

The Buyer shall pay each invoice within forty days of its date. Overdue sums bear interest at 4.5 per cent a year.
"""


@pytest.fixture
def filled(document):
    return abstract_all([document(PAPER, "wool.md")])


def cells(book, name):
    return [[c.value for c in row] for row in book[name].iter_rows()]


def test_cells_hold_dates_and_numbers(filled):
    book = openpyxl.load_workbook(io.BytesIO(abstract_workbook(filled, [])))
    assert book.sheetnames == ["Terms", "Schedules", "Further values", "Not found", "How it was made"]
    rows = {row[1]: row for row in cells(book, "Terms")}
    assert rows["Date of the agreement"][2] == datetime(2025, 5, 4)
    assert rows["Payment within"][2] == 40
    assert rows["Interest on late payment"][2] == pytest.approx(0.045)
    assert "forty days" in rows["Payment within"][5]
    sheet = book["Terms"]
    assert any(c.hyperlink for row in sheet.iter_rows() for c in row)
    steps = cells(book, "Schedules")[1:]
    assert [(r[2], r[3], r[4], r[5]) for r in steps] == [
        (datetime(2025, 6, 1), datetime(2026, 5, 31), 40000, "GBP"), (datetime(2026, 6, 1), datetime(2027, 5, 31), 45000, "GBP"),
    ]  # fmt: skip
    assert any(row[1] == "Governing law" and row[2] == "not found" for row in cells(book, "Not found"))


def test_further_values_and_other_columns_are_typed(document):
    text = PAPER.replace(
        "| Year | Minimum purchase (£) |\n| --- | --- |\n",
        "| Year | Minimum purchase (£) | Bales |\n| --- | --- | --- |\n",
    )
    text = text.replace("40,000 |", "40,000 | 300 |").replace("45,000 |", "45,000 | at least 320 |")
    text += "\nUnder any order, overdue sums bear interest at 6 per cent a year.\n"
    book = openpyxl.load_workbook(io.BytesIO(abstract_workbook(abstract_all([document(text, "wool.md")]), [])))
    heads, *steps = cells(book, "Schedules")
    assert [row[heads.index("Bales")] for row in steps] == [300, 320]
    notes = [c.comment.text for row in book["Schedules"].iter_rows() for c in row if c.comment]
    assert notes == ["Words: at least 320"]
    told = [row[1:4] for row in cells(book, "Further values")[1:]]
    assert ["Interest on late payment", "conflicting", pytest.approx(0.06)] in told


def test_the_same_bytes_each_time(filled):
    assert abstract_workbook(filled, []) == abstract_workbook(filled, [])


@pytest.mark.parametrize(
    ("label", "form", "words"),
    [
        ("Date of the agreement", "YYYY-MM-DD", "2025-05-04"), ("Date of the agreement", "DD/MM/YYYY", "04/05/2025"), ("Minimum purchases, a year", "thousands", "GBP 40 thousands"),
        ("Payment within", "months", "40 days"), ("Payment within", "days", "40 days"),
    ],
)  # fmt: skip
def test_values_in_the_form_that_a_sheet_asks_for(filled, label, form, words):
    finding = next(f for f in filled[0].findings if f.term.label == label)
    assert in_form(finding.value, form) == words
