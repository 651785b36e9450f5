"""A table on a page before its words have places in the linear text, and which of its rows are headings."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.words import Segment

FIGURE = pattern(r"[(£$€-]?\s?\d[\d.,%)]*")

PERIOD = pattern(
    r"(?:(?:FY\s?|H[12]\s?|Q[1-4]\s?)?(?:19|20)\d\d(?:\s?[/–-]\s?\d{2,4})?\s?[AEFB]?|(?:FY|H[12]|Q[1-4])\s?['’]?\d{2}"
    r"|(?:\d{1,2}\s+)?(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)[a-z]*\.?\s+(?:\d{1,2},\s+)?(?:19|20)\d\d)"
    r"(?:[\s(]+(?:actual|forecast|budget|plan|planned|estimate|estimated|expected|target|projected|restated|audited|unaudited)\)?)?",
    re.IGNORECASE,
)


@dataclass(slots=True)
class CellDraft:
    row: int
    column: int
    row_span: int
    column_span: int
    lines: list[Segment]
    marks: list[tuple[int, int, str, str]] = field(default_factory=list)  # as in Draft
    indent: float = 0.0
    shade: str = ""
    page: int = 0  # where it is not the page that the table begins on


@dataclass(slots=True)
class TableDraft:
    """A table on one page, before its words have places in the linear text."""

    cells: list[CellDraft]
    rows: int
    columns: int
    header_rows: int
    ruled: bool
    x0: float
    top: float
    x1: float
    bottom: float


def header_rows(draft: TableDraft) -> int:
    """How many rows at the top name the columns: they hold no figures where the rows below do, or are set in bold."""
    by_row: dict[int, list[CellDraft]] = {}
    for cell in draft.cells:
        if cell.lines:
            by_row.setdefault(cell.row, []).append(cell)
    if len(by_row) < 2:
        return 0
    bold = [all(line.bold for c in by_row.get(r, []) for line in c.lines) and r in by_row for r in range(draft.rows)]
    figures = [
        any(c.column > 0 and FIGURE.match(c.lines[0].text) for c in by_row.get(r, [])) for r in range(draft.rows)
    ]
    for r in range(min(3, draft.rows - 1)):  # years over columns are figures that name them
        beside = [c.lines[0].text for c in by_row.get(r, []) if c.column > 0]
        if beside and all(PERIOD.fullmatch(t) for t in beside) and any(figures[r + 1 :]):
            figures[r] = all(
                PERIOD.fullmatch(c.lines[0].text)
                for s in range(r + 1, draft.rows)
                for c in by_row.get(s, [])
                if c.column > 0
            )
    count = 0
    while (
        count < min(4, draft.rows - 1)
        and not figures[count]
        and (
            (bold[count] and not all(bold))
            or (any(figures[count + 1 :]) and draft.columns > 2 and (count == 0 or bold[count]))
        )
    ):
        count += 1
    if count == 0 and bold[0] and not all(bold):
        count = 1
    return count
