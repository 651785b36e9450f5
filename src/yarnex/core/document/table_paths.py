"""A cell's row label path and column header path: what a figure is, as the table itself says."""

from __future__ import annotations

import re

from yarnex.core.document.model import Cell, Table
from yarnex.core.patterns import pattern

FIGURE = pattern(r"[(\[–—-]*\s?[£$€¥]?\s?\(?\d|[–—-]\Z")


def _words(cell: Cell, text: str) -> str:
    return " ".join(cell.span.of(text).split())


def row_label(table: Table, row: int, text: str) -> str:
    """The words that name a row: its first cell, where that is no figure; "" for a total without a name."""
    cells = table.row_cells(row)
    first = next((c for c in cells if c.column == 0), None)
    if first is None or (
        len(cells) > 1 and FIGURE.match(first.span.of(text)) and all(FIGURE.match(c.span.of(text)) for c in cells)
    ):
        return ""
    return _words(first, text)


def name_of_row(table: Table, row: int, text: str) -> str:
    """The words that name a row: those of its first cell, or of the second where the first is but a number."""
    label = " ".join(row_label(table, row, text).split())
    group = table.at(row, 0)
    second = table.at(row, 1) if group is not None and group.row_span > 1 else None
    if group is not None and second is not None and re.search(r"[A-Za-z]{3}", second.span.of(text)):
        return " ".join(f"{group.span.of(text)}, {second.span.of(text)}".split())[:90]
    if re.fullmatch(r"[\W\d]*|[A-Z]{0,3}[\d-]*|[A-Z]\.?", label):
        second = table.at(row, 1)
        words = " ".join(second.span.of(text).split()) if second is not None else ""
        return f"{label} {words}".strip() if re.search(r"[A-Za-z]{3}", words) else label if len(label) > 3 else ""
    return label[:90]


def is_group(table: Table, row: int, text: str) -> bool:
    """True for a row that only names the rows under it."""
    cells = table.row_cells(row)
    return (
        row >= table.header_rows
        and len(cells) == 1
        and cells[0].column == 0
        and not FIGURE.match(cells[0].span.of(text))
    )


def row_path(table: Table, row: int, text: str) -> tuple[str, ...]:
    """Labels from the outermost group to the row itself: ("Non-current assets", "Borrowings").

    A group ends where the next one begins, and at a row that stands less far in than the group's own label.
    """
    label = row_label(table, row, text)
    path: list[str] = [label] if label else []
    first = next((c for c in table.row_cells(row) if c.column == 0), None)
    indent = first.indent if first is not None else 0.0
    for above in range(row - 1, table.header_rows - 1, -1):
        cells = table.row_cells(above)
        head = next((c for c in cells if c.column == 0), None)
        if (
            is_group(table, above, text)
            and head is not None
            and not (is_group(table, row, text) and head.indent >= indent)
        ):
            path.insert(0, _words(head, text))
            if head.indent <= 0.5:
                break
            indent = head.indent
    return tuple(path)


def column_path(table: Table, cell: Cell, text: str) -> tuple[str, ...]:
    """Headings over a cell from the top down; one that spans several columns counts for each."""
    out: list[str] = []
    for row in range(table.header_rows):
        head = table.at(row, cell.column)
        if head is not None and head.row == row:
            words = _words(head, text)
            if words and (not out or out[-1] != words):
                out.append(words)
    return tuple(out)
