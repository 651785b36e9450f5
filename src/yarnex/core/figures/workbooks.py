"""Checks on the formulas of a workbook: numbers typed over formulas, totals that leave a line out, links to other files."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterator
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Document, Span
from yarnex.core.document.model import Mark
from yarnex.core.patterns import pattern

if TYPE_CHECKING:
    from yarnex.core.figures.checks import Check

_cell = pattern(r"(?P<sheet>.+)!(?P<column>[A-Z]{1,3})(?P<row>\d+)\Z")
_sum = pattern(r"\A=SUM\(\$?([A-Z]{1,3})\$?(\d+):\$?([A-Z]{1,3})\$?(\d+)\)\Z", re.IGNORECASE)
_reference = pattern(r"(?<![A-Za-z!'\]])(\$?)([A-Z]{1,3})(\$?)(\d{1,7})(?![\w(])")


def _number(column: str) -> int:
    value = 0
    for letter in column:
        value = value * 26 + ord(letter) - 64
    return value


def _shape(formula: str, column: int, row: int) -> str:
    """A formula with its references counted from its own cell, so that copied formulas are the same."""

    def moved(m: re.Match[str]) -> str:
        across = m[2] if m[1] else f"C[{_number(m[2]) - column}]"
        down = m[4] if m[3] else f"R[{int(m[4]) - row}]"
        return across + down

    return _reference.sub(moved, formula)


def workbook_checks(document: Document) -> Iterator[Check]:
    """What in a workbook's formulas deserves a look. Nothing for other formats."""
    from yarnex.core.figures.checks import Check

    if document.paging != "sheet":
        return
    cells: dict[str, dict[tuple[int, int], tuple[Mark, str]]] = defaultdict(dict)
    for mark in document.marks:
        if mark.kind == "cell" and (m := _cell.match(mark.value)):
            behind = document.mark_at("formula", mark.span.start)
            cells[m["sheet"]][(int(m["row"]), _number(m["column"]))] = (mark, behind.value if behind else "")
    for held in cells.values():
        for (row, column), (mark, formula) in held.items():
            if not formula:
                continue
            cite = Cite(document, mark.span)
            if re.search(r"\[[^\]]+\.xls|'[A-Z]:\\|https?://|\[\d+\]", formula, re.IGNORECASE):
                yield Check("workbook", False, f"{mark.value}: a link to another file: {formula}", (cite,), (formula,))
            total = _sum.match(formula)
            if total and total[1] == total[3] and _number(total[1]) == column:
                yield from _left_out(document, held, row, column, int(total[2]), int(total[4]), mark, formula)
        yield from _typed_over(document, held)
    for page in document.pages:
        if page.hidden and page.words:
            start = next(
                (m.span for m in document.marks if m.kind == "cell" and document.pages_of(m.span)[0] == page.number),
                Span(0, min(1, len(document.text))),
            )
            if start.end > start.start:
                yield Check(
                    "workbook",
                    False,
                    f"sheet {page.name} is hidden; what it holds may be superseded",
                    (Cite(document, start),),
                )


def _left_out(
    document: Document,
    held: dict[tuple[int, int], tuple[Mark, str]],
    row: int,
    column: int,
    first: int,
    last: int,
    mark: Mark,
    formula: str,
) -> Iterator[Check]:
    """A sum over a run of cells that stops short of the numbers between it and the total."""
    from yarnex.core.figures.checks import Check

    between = [r for r in range(last + 1, row) if (r, column) in held and _is_number(document, held[(r, column)][0])]
    above = (
        [first - 1]
        if (first - 1, column) in held
        and _is_number(document, held[(first - 1, column)][0])
        and not re.fullmatch(r"(?:19|20)\d\d", held[(first - 1, column)][0].span.of(document.text).strip())
        else []
    )
    for r in (*above, *between):
        other = held[(r, column)][0]
        yield Check(
            "workbook",
            False,
            f"{mark.value}: {formula} leaves out {other.value} ({other.span.of(document.text)})",
            (Cite(document, mark.span), Cite(document, other.span)),
            (formula,),
        )


def _typed_over(document: Document, held: dict[tuple[int, int], tuple[Mark, str]]) -> Iterator[Check]:
    """A number between cells of its row that hold one and the same copied formula."""
    from yarnex.core.figures.checks import Check

    rows: dict[int, list[int]] = defaultdict(list)
    for row, column in held:
        rows[row].append(column)
    for row, columns in rows.items():
        for column in sorted(columns):
            mark, formula = held[(row, column)]
            if formula or not _is_number(document, mark):
                continue
            left, right = held.get((row, column - 1)), held.get((row, column + 1))
            if (
                left
                and right
                and left[1]
                and right[1]
                and _shape(left[1], column - 1, row) == _shape(right[1], column + 1, row)
            ):
                yield Check(
                    "workbook",
                    False,
                    f"{mark.value}: {mark.span.of(document.text)} is typed in between formulas such as {left[1]}",
                    (Cite(document, mark.span),),
                    (left[1],),
                )


def _is_number(document: Document, mark: Mark) -> bool:
    from yarnex.core.figures.printed import read_printed

    read = read_printed(mark.span.of(document.text))
    return read is not None and read.value is not None
