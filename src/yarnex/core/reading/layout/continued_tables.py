"""Tables that the end of a page cuts -> one table; headings repeated on the next page are taken out of its rows."""

from __future__ import annotations

from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft
from yarnex.core.reading.layout.words import Segment, Word

NEAR = 6.0  # points by which columns may stand apart on two pages


def join_tables(drafts: list[Draft], furniture: list[Draft]) -> list[Draft]:
    """The same drafts with continued tables joined; repeated headings are added to `furniture`.

    A table goes on where the next page begins with a table of the same headings, or of the same columns and none.
    """
    out: list[Draft] = []
    for draft in drafts:
        last = next((d for d in reversed(out) if d.kind != "note"), None)
        if (
            draft.table is not None
            and last is not None
            and last.table is not None
            and draft.table_page == _last_page(last) + 1
            and _goes_on(last.table, draft.table)
        ):
            _append(last, draft, furniture)
            continue
        out.append(draft)
    return out


def _last_page(draft: Draft) -> int:
    assert draft.table is not None
    return max([draft.table_page, *(c.page for c in draft.table.cells)])


def _heads(table: TableDraft) -> str:
    return " ".join(s.text for c in table.cells if c.row < table.header_rows for s in c.lines)


def _goes_on(first: TableDraft, second: TableDraft) -> bool:
    heads = _heads(second)
    if heads:
        return sorted(heads.lower().split()) == sorted(_heads(first).lower().split())
    if first.columns != second.columns or not first.header_rows or first.ruled != second.ruled:
        return False
    return abs(first.x0 - second.x0) < NEAR and abs(first.x1 - second.x1) < 2 * NEAR


def _columns(table: TableDraft) -> list[tuple[float, float]]:
    """Left and right edge of the words of each column."""
    out = []
    for column in range(table.columns):
        lines = [s for c in table.cells if c.column == column and c.column_span == 1 for s in c.lines]
        out.append((min((s.x0 for s in lines), default=0.0), max((s.x1 for s in lines), default=0.0)))
    return out


def _append(last: Draft, draft: Draft, furniture: list[Draft]) -> None:
    """Rows of a table put under those of the table that it goes on with, in its columns."""
    first, second = last.table, draft.table
    assert first is not None and second is not None
    repeated = [w for c in second.cells if c.row < second.header_rows for s in c.lines for w in s.words]
    if repeated:
        furniture.append(Draft("furniture", [(draft.table_page, repeated)]))
    edges = _columns(first) if first.columns != second.columns else []
    shift = first.rows - second.header_rows
    for cell in second.cells:
        if cell.row < second.header_rows:
            continue
        if edges:
            first.cells += _placed(cell, edges, cell.row + shift, draft.table_page)
        else:
            cell.row += shift
            cell.page = draft.table_page
            first.cells.append(cell)
    first.rows += second.rows - second.header_rows


def _placed(cell: CellDraft, edges: list[tuple[float, float]], row: int, page: int) -> list[CellDraft]:
    """A cell's words given to the columns of another table, by where they stand."""
    found: dict[int, list[Word]] = {}
    for line in cell.lines:
        for word in line.words:
            away = [max(left - word.x1, word.x0 - right, 0.0) if right else 1e6 for left, right in edges]
            found.setdefault(min(range(len(edges)), key=lambda i: away[i]), []).append(word)
    return [
        CellDraft(row, column, 1, 1, [Segment(words)], indent=cell.indent, shade=cell.shade, page=page)
        for column, words in sorted(found.items())
    ]
