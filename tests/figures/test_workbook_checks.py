"""Formulas of workbooks: numbers typed over them, totals that stop short, hidden sheets."""

from __future__ import annotations

import io

import openpyxl
import pytest

from yarnex.core.figures.workbooks import workbook_checks
from yarnex.core.reading.spreadsheet import read_xlsx


def book(fill) -> bytes:
    made = openpyxl.Workbook()
    fill(made)
    buffer = io.BytesIO()
    made.save(buffer)
    return buffer.getvalue()


def typed_over(made):
    sheet = made.active
    sheet.append(["Line", 2024, 2025, 2026])
    sheet.append(["Wool", 10, 12, 14])
    sheet.append(["Twice", "=B2*2", 25, "=D2*2"])


def stops_short(made):
    sheet = made.active
    sheet.append(["Line", "Amount"])
    for amount in (10, 20, 30):
        sheet.append(["Bale", amount])
    sheet.append(["Total", "=SUM(B2:B3)"])


def linked(made):
    made.active.append(["Price", "='[rates.xlsx]Sheet1'!A1"])


def hidden(made):
    made.active.append(["Line", 1])
    sheet = made.create_sheet("Old")
    sheet.append(["Old price", 7])
    sheet.sheet_state = "hidden"


def sound(made):
    sheet = made.active
    sheet.append(["Line", "Amount"])
    sheet.append(["Bale", 10])
    sheet.append(["Bale", 20])
    sheet.append(["Total", "=SUM(B2:B3)"])


@pytest.mark.parametrize(
    ("fill", "says"),
    [
        (typed_over, "typed in between formulas"),
        (stops_short, "leaves out"),
        (linked, "link to another file"),
        (hidden, "is hidden"),
    ],
)
def test_says_what_deserves_a_look(fill, says):
    found = [c.what for c in workbook_checks(read_xlsx(book(fill), "prices.xlsx", "0" * 64))]
    assert any(says in what for what in found), found


def test_a_sound_workbook_gives_nothing():
    assert list(workbook_checks(read_xlsx(book(sound), "sound.xlsx", "0" * 64))) == []
