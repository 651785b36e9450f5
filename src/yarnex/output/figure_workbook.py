"""Figures and spreads -> a workbook with real numbers, formulas for ratios and checked sums, and links to the pages."""

from __future__ import annotations

import io
from collections.abc import Sequence
from datetime import datetime
from typing import Any

from yarnex.core.figures.checks import Check
from yarnex.core.figures.model import Figure
from yarnex.core.figures.spread import Spread
from yarnex.output.wording import one_line
from yarnex.output.workbook import Forms, link_to, new_book

FORMATS = {"percent": '0.0##"%"', "times": '0.00"x"'}


def number_format(unit: str, value: Any) -> str:
    """Excel's number format for a unit; negatives in brackets, as accounts print them."""
    if unit in FORMATS:
        return FORMATS[unit]
    whole = value == value.to_integral_value()
    return "#,##0_);(#,##0)" if whole else "#,##0.00##_);(#,##0.00##)"


def figures_workbook(
    figures: Sequence[Figure], result: Spread | None, checks: Sequence[Check], folder: str = ""
) -> bytes:
    """Sheets: Spread (where asked), Figures, Checks."""
    buffer = io.BytesIO()
    book = new_book(buffer, "Figures")
    forms = Forms(book)
    if result is not None:
        _spread(book, forms, result, folder)
    _figures(book, forms, figures, folder)
    if checks:
        _checks(book, forms, checks, folder)
    book.close()
    return buffer.getvalue()


def _head(sheet: Any, forms: Forms, heads: Sequence[str], widths: Sequence[int]) -> None:
    sheet.write_row(0, 0, heads, forms.get(bold=True, bg_color="#E4E8EE", bottom=1))
    for place, width in enumerate(widths):
        sheet.set_column(place, place, width)
    sheet.set_landscape()
    sheet.fit_to_pages(1, 0)
    sheet.repeat_rows(0)


def _figures(book: Any, forms: Forms, figures: Sequence[Figure], folder: str) -> None:
    sheet = book.add_worksheet("Figures")
    heads = [
        "Document",
        "Statement",
        "Path",
        "Label",
        "Line",
        "Basis",
        "Period end",
        "Months",
        "Value",
        "Unit",
        "Per",
        "As printed",
        "Marks",
        "Page",
    ]
    _head(sheet, forms, heads, [24, 18, 34, 34, 18, 13, 12, 8, 18, 10, 8, 14, 16, 12])
    for row, f in enumerate(figures, start=1):
        sheet.write_row(
            row, 0, [f.document.path, f.statement, " › ".join(f.path), one_line(f.label), f.item, f.basis], forms.get()
        )
        if f.period:
            sheet.write_datetime(
                row,
                6,
                datetime(f.period.end.year, f.period.end.month, f.period.end.day),
                forms.get(num_format="yyyy-mm-dd", align="left"),
            )
            if f.period.months:
                sheet.write_number(row, 7, f.period.months, forms.get())
        if f.value is not None:
            sheet.write_number(row, 8, float(f.value), forms.get(num_format=number_format(f.unit, f.value)))
        sheet.write_row(row, 9, [f.unit, f.per, f.as_printed, "; ".join(f.marks)], forms.get())
        link_to(sheet, forms, row, 13, f.cite, folder)
    sheet.freeze_panes(1, 4)
    sheet.autofilter(0, 0, max(1, len(figures)), 13)


def _spread(book: Any, forms: Forms, result: Spread, folder: str) -> None:
    sheet = book.add_worksheet("Spread")
    heads = ["Line", *(f"{c.company}\n{c.label}" for c in result.columns), "Unit", "Formula"]
    _head(sheet, forms, heads, [46, *(24 for _ in result.columns), 10, 50])
    sheet.set_row(0, 60)  # company, however long, and period
    places = {r.id: i for i, r in enumerate(result.rows, start=1)}
    for row, line in enumerate(result.rows, start=1):
        sheet.write_string(row, 0, line.label, forms.get(bold=line.kind == "line"))
        for column, cell in enumerate(line.cells, start=1):
            if cell is None:
                continue
            form = forms.get(num_format=number_format(cell.unit, cell.value), text_wrap=False)
            formula = _formula(cell.figures, places, column, line.id, cell.unit, result)
            if formula:
                sheet.write_formula(row, column, formula, form, float(cell.value))
            else:
                sheet.write_number(row, column, float(cell.value), form)
            words = "\n".join(
                [
                    *([cell.formula] if cell.formula else []),
                    *(f"{f.document.name}, {f.cite.place}: {f.as_printed}" for f in cell.figures),
                ]
            )
            sheet.write_comment(row, column, words[:3000], {"x_scale": 2.2})
        sheet.write_string(row, 1 + len(result.columns), next((c.unit for c in line.cells if c), ""), forms.get())
        sheet.write_string(
            row, 2 + len(result.columns), "; ".join(filter(None, [line.formula, line.note])), forms.get()
        )
    sheet.freeze_panes(1, 1)


def _formula(
    figures: Sequence[Figure], places: dict[str, int], column: int, line: str, unit: str, result: Spread
) -> str:
    """A ratio of two lines of the same column as a formula on their cells; "" for what is printed or made otherwise."""
    if line in places and unit in ("percent", "times") and len(figures) == 2 and not line.startswith("growth"):
        top, bottom = (f.item for f in figures)
        rows = {r.id: r for r in result.rows if r.kind == "line"}
        if top in rows and bottom in rows and rows[top].cells[column - 1] and rows[bottom].cells[column - 1]:
            letter = _letters(column)
            above = f"{letter}{places[top] + 1}"
            above = f"ABS({above})" if top == "tax" else above
            return f"=ROUND({above}/ABS({letter}{places[bottom] + 1}){'*100,1' if unit == 'percent' else ',2'})"
    return ""


def _letters(column: int) -> str:
    out = ""
    column += 1
    while column:
        column, rest = divmod(column - 1, 26)
        out = chr(65 + rest) + out
    return out


def _checks(book: Any, forms: Forms, checks: Sequence[Check], folder: str) -> None:
    sheet = book.add_worksheet("Checks")
    _head(
        sheet,
        forms,
        ["Kind", "In order", "What", "Working", "Difference", "Unit", "Page", "Other page"],
        [12, 9, 70, 60, 16, 8, 12, 12],
    )
    for row, check in enumerate(sorted(checks, key=lambda c: c.passed), start=1):
        mark = {} if check.passed else {"bg_color": "#FFF3CD"}
        sheet.write_row(
            row,
            0,
            [
                check.kind,
                "yes" if check.passed else "no",
                check.what,
                "; ".join([*check.working, check.note]).strip("; "),
            ],
            forms.get(**mark),
        )
        if check.difference is not None:
            sheet.write_number(
                row,
                4,
                float(check.difference),
                forms.get(num_format=number_format(check.unit, check.difference), **mark),
            )
        sheet.write_string(row, 5, check.unit, forms.get(**mark))
        for place, cite in enumerate(check.cites[:2]):
            link_to(sheet, forms, row, 6 + place, cite, folder)
    sheet.freeze_panes(1, 0)
