"""Workbooks (XLSX, XLSM) and delimited text (CSV, TSV) -> Document: a sheet is a page, each cell a citable place.

A cell reads as it is shown (12.5%); its stored value and its formula hang on it as marks. Hidden sheets, rows and
columns are read too and said, as a hidden row may hold what matters.
"""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from itertools import groupby
from typing import Any

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.inline import Inline, heading
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft, header_rows
from yarnex.core.reading.number_format import shown
from yarnex.core.reading.package import BROKEN, Package, core_properties
from yarnex.core.reading.shades import colour_name, parse_colour

MAX_CELLS = 3_000_000
TITLE_LENGTH = 160


@dataclass(slots=True)
class SheetCell:
    """One filled cell: place from 0, the words shown, and what hangs on them as (kind, value)."""

    row: int
    column: int
    text: str
    bold: bool = False
    shade: str = ""
    indent: float = 0.0
    row_span: int = 1
    column_span: int = 1
    marks: list[tuple[str, str]] = field(default_factory=list)


@dataclass(slots=True)
class Sheet:
    name: str
    cells: list[SheetCell]
    hidden: bool = False
    hidden_rows: list[int] = field(default_factory=list)  # from 1
    hidden_columns: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)


def letters(column: int) -> str:
    """The letters of a column counted from 0.

    >>> letters(27)
    'AB'
    """
    out = ""
    column += 1
    while column:
        column, rest = divmod(column - 1, 26)
        out = chr(65 + rest) + out
    return out


def sheet_drafts(sheet: Sheet, page: int, by_row: bool = False) -> list[Draft]:
    """A sheet -> its name as heading, then titles and tables; tables are parted by empty rows.

    by_row: places are told as rows and columns of a text file, not as cells of a workbook.
    """
    drafts: list[Draft] = [] if by_row else [heading(sheet.name, 1, page)]
    rows: dict[int, list[SheetCell]] = {}
    for cell in sheet.cells:
        rows.setdefault(cell.row, []).append(cell)
    ordered = sorted(rows)
    blocks = [
        [r for _, r in group] for _, group in groupby(enumerate(ordered), key=lambda pair: pair[1] - pair[0])
    ] if not by_row else ([ordered] if ordered else [])  # fmt: skip
    for block in blocks:
        lead: list[int] = []
        while (
            block
            and len(rows[block[0]]) == 1
            and not by_row
            and (len(block) == 1 or len(lead) < 6)
            and _is_title(rows[block[0]][0])
        ):
            lead.append(block.pop(0))
        for row in lead:
            cell = rows[row][0]
            inline = _inline(sheet, cell, page, by_row)
            draft = inline.draft()
            if draft is not None:
                if cell.bold and len(cell.text) < TITLE_LENGTH and block:
                    draft.kind, draft.level, draft.heading = "heading", 2, draft.text
                drafts.append(draft)
        if block:
            drafts.append(
                Draft("table", table=_table([c for r in block for c in rows[r]], sheet, page, by_row), table_page=page)
            )
    return drafts


def _is_title(cell: SheetCell) -> bool:
    return not re.fullmatch(r"[\d.,%()£$€ -]+", cell.text)


def _inline(sheet: Sheet, cell: SheetCell, page: int, by_row: bool) -> Inline:
    inline = Inline(page)
    inline.put(cell.text, cell.bold)
    where = (
        f"row {cell.row + 1}, column {letters(cell.column)}"
        if by_row
        else f"{_quoted(sheet.name)}!{letters(cell.column)}{cell.row + 1}"
    )
    inline.mark(0, "cell", where)
    for kind, value in cell.marks:
        inline.mark(0, kind, value)
    return inline


def _quoted(name: str) -> str:
    """A sheet's name as formulas write it."""
    return name if re.fullmatch(r"[A-Za-z_]\w*", name) else "'" + name.replace("'", "''") + "'"


def _table(cells: list[SheetCell], sheet: Sheet, page: int, by_row: bool) -> TableDraft:
    used_rows = sorted({c.row for c in cells})
    used_columns = sorted({c.column for c in cells})
    row_at = {r: i for i, r in enumerate(used_rows)}
    column_at = {c: i for i, c in enumerate(used_columns)}
    out: list[CellDraft] = []
    for cell in sorted(cells, key=lambda c: (c.row, c.column)):
        wide = max(1, sum(cell.column <= c < cell.column + cell.column_span for c in used_columns))
        tall = max(1, sum(cell.row <= r < cell.row + cell.row_span for r in used_rows))
        draft = _inline(sheet, cell, page, by_row).cell(
            row_at[cell.row], column_at[cell.column], tall, wide, cell.shade
        )
        draft.indent = cell.indent
        out.append(draft)
    table = TableDraft(out, len(used_rows), len(used_columns), 0, True, 0, 0, 0, 0)
    table.header_rows = header_rows(table)
    return table


def sheet_problems(sheets: Iterable[Sheet]) -> list[Problem]:
    out = []
    for sheet in sheets:
        if sheet.hidden:
            out.append(Problem("a hidden sheet; read all the same", f"sheet {sheet.name}", serious=False))
        if sheet.hidden_rows:
            from yarnex.core.reading.ranges import ranges

            out.append(
                Problem(
                    f"hidden rows {ranges(sheet.hidden_rows)}; read all the same", f"sheet {sheet.name}", serious=False
                )
            )
        if sheet.hidden_columns:
            out.append(
                Problem(
                    f"hidden columns {', '.join(sheet.hidden_columns)}; read all the same",
                    f"sheet {sheet.name}",
                    serious=False,
                )
            )
        out += [Problem(note, f"sheet {sheet.name}", serious=False) for note in sheet.notes]
    return out


# ------------------------------------------------------------------ XLSX
def read_xlsx(data: bytes, path: str, sha256: str) -> Document:
    """The document in a workbook's bytes. Raises UnreadableError where it is none."""
    package = Package(data, path, "workbook (.xlsx)")
    import warnings

    import openpyxl

    _check_parts(package, path)
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            values = openpyxl.load_workbook(io.BytesIO(data), data_only=True)
            formulas = openpyxl.load_workbook(io.BytesIO(data), data_only=False, rich_text=False)
    except (*BROKEN, TypeError, AttributeError, AssertionError):
        raise UnreadableError(
            "not a complete workbook (.xlsx)", where=path, do="open it in a spreadsheet program and save it again"
        ) from None
    sheets: list[Sheet] = []
    problems: list[Problem] = []
    total = 0
    uncounted = 0
    for worksheet in formulas.worksheets:
        sheet, missing = _sheet(worksheet, values[worksheet.title])
        total += len(sheet.cells)
        uncounted += missing
        if total > MAX_CELLS:
            raise UnreadableError(f"more than {MAX_CELLS:,} filled cells", where=path, do="split it")
        sheets.append(sheet)
    for other in formulas.chartsheets:
        problems.append(
            Problem("a chart; only the numbers on other sheets are read", f"sheet {other.title}", serious=False)
        )
    if uncounted:
        problems.append(
            Problem(
                f"{uncounted} formula{'s' * (uncounted > 1)} without a stored result",
                do="open it in a spreadsheet program, save it and read it again",
            )
        )
    links = [n for n in package.names if n.startswith("xl/externalLinks/externalLink")]
    if links:
        problems.append(
            Problem(
                f"formulas refer to {len(links)} other file{'s' * (len(links) > 1)}; their last stored results are read",
                serious=False,
            )
        )
    if any(n.endswith("vbaProject.bin") for n in package.names):
        problems.append(Problem("holds macros; they are neither run nor read", serious=False))
    problems += sheet_problems(sheets)
    title, properties = core_properties(package)
    drafts = [d for page, sheet in enumerate(sheets, start=1) for d in sheet_drafts(sheet, page)]
    return assemble(
        drafts, path=path, format="xlsx", sha256=sha256, pages=len(sheets), page_names=[s.name for s in sheets], paging="sheet",
        hidden_pages=frozenset(i for i, s in enumerate(sheets, start=1) if s.hidden), problems=problems, title=title, properties=properties,
    )  # fmt: skip


def _check_parts(package: Package, path: str) -> None:
    """Refuse a workbook with a part that unpacks beyond the limits, before the library unpacks it."""
    for name in package.names:
        if name.endswith((".xml", ".rels")):
            try:
                head = package.bytes_of(name)[:4096]
            except BROKEN as error:
                raise UnreadableError(
                    f"a part that cannot be unpacked ({error})", where=path, do="save it again in its own program"
                ) from None
            if b"<!DOCTYPE" in head or b"<!ENTITY" in head:
                raise UnreadableError(
                    "a part that declares entities, which workbooks never need",
                    where=path,
                    do="save it again in a spreadsheet program",
                )


def _sheet(worksheet: Any, values: Any) -> tuple[Sheet, int]:
    spans = {}
    covered: set[tuple[int, int]] = set()
    for area in worksheet.merged_cells.ranges:
        if area.size["rows"] * area.size["columns"] > 100_000:
            continue
        spans[area.min_row, area.min_col] = area.size["rows"], area.size["columns"]
    cells: list[SheetCell] = []
    uncounted = 0
    for row in worksheet.iter_rows():
        for cell in row:
            if cell.value is None or (cell.row, cell.column) in covered:
                continue
            formula = (
                cell.value
                if isinstance(cell.value, str) and cell.value.startswith("=") and cell.data_type == "f"
                else ""
            )
            if not formula and cell.data_type == "f":
                formula = str(getattr(cell.value, "text", "") or getattr(cell.value, "ref", "") or "array formula")
            stored = values.cell(cell.row, cell.column).value if formula else cell.value
            if formula and stored is None:
                uncounted += 1
                text = formula
            else:
                text = shown(stored, cell.number_format)
            if not text.strip():
                continue
            tall, wide = spans.get((cell.row, cell.column), (1, 1))
            marks = [("formula", formula)] if formula else []
            if isinstance(stored, int | float) and not isinstance(stored, bool) and str(stored) != text:
                marks.append(("stored", repr(stored)))
            if cell.comment is not None and cell.comment.text:
                marks.append(("comment", f"{cell.comment.author or ''}: {cell.comment.text}".strip(": ")))
            cells.append(
                SheetCell(
                    cell.row - 1, cell.column - 1, text, bool(cell.font and cell.font.b), _fill(cell),
                    float(cell.alignment.indent or 0) * 9 if cell.alignment else 0.0, tall, wide, marks,
                )
            )  # fmt: skip
    rows = [n for n, d in worksheet.row_dimensions.items() if d.hidden]
    columns = [n for n, d in worksheet.column_dimensions.items() if d.hidden]
    filled = {c.row + 1 for c in cells}
    return Sheet(
        worksheet.title, cells, worksheet.sheet_state != "visible", sorted(r for r in rows if r in filled), sorted(columns, key=lambda c: (len(c), c)),
    ), uncounted  # fmt: skip


def _fill(cell: Any) -> str:
    fill = cell.fill
    if fill is None or fill.fill_type != "solid":
        return ""
    said = fill.fgColor.rgb if fill.fgColor is not None and fill.fgColor.type == "rgb" else ""
    colour = parse_colour(str(said)[-6:]) if said else None
    return colour_name(colour) if colour else ""


# ------------------------------------------------------------------ CSV, TSV
def read_csv(data: bytes, path: str, sha256: str) -> Document:
    """The table in a delimited text file. Each place is a row and column (RFC 7111 counts rows from 1)."""
    from yarnex.core.reading.text import decode

    text, problem = decode(data, path)
    problems = [problem] if problem else []
    delimiter, doubt = sniff_delimiter(text)
    if doubt:
        problems.append(Problem(doubt, serious=False))
    cells: list[SheetCell] = []
    try:
        reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=False)
        widths: dict[int, int] = {}
        for r, row in enumerate(reader):
            widths[len(row)] = widths.get(len(row), 0) + (1 if any(v.strip() for v in row) else 0)
            cells += [SheetCell(r, c, value) for c, value in enumerate(row) if value.strip()]
            if len(cells) > MAX_CELLS:
                raise UnreadableError(f"more than {MAX_CELLS:,} filled cells", where=path, do="split it")
    except csv.Error as error:
        raise UnreadableError(
            f"not a table of delimited text ({error})", where=path, do="save it again as CSV"
        ) from None
    usual = max(widths, key=lambda w: widths[w], default=0)
    odd = sum(n for w, n in widths.items() if w != usual)
    if odd:
        problems.append(
            Problem(f"{odd} row{'s' * (odd > 1)} with more or fewer cells than the usual {usual}", serious=False)
        )
    name = path.rsplit("/", 1)[-1]
    form = "tsv" if delimiter == "\t" else "csv"
    return assemble(
        sheet_drafts(Sheet(name, cells), 0, by_row=True),
        path=path,
        format=form,
        sha256=sha256,
        problems=problems,
        paging="",
    )


def sniff_delimiter(text: str) -> tuple[str, str]:
    """The delimiter that parts the first rows into the same number of cells, and a doubt to tell ("" for none).

    The guess is checked by parsing: the delimiter for which most rows agree on a width above one wins.
    """
    sample = "\n".join(text.splitlines()[:200])
    best = (",", 0.0, 1)
    for delimiter in (",", ";", "\t", "|"):
        try:
            widths = [len(r) for r in csv.reader(io.StringIO(sample), delimiter=delimiter) if r]
        except csv.Error:
            continue
        if not widths:
            continue
        usual = max(set(widths), key=lambda w: (widths.count(w), w))
        share = widths.count(usual) / len(widths) if usual > 1 else 0.0
        if (share, usual) > (best[1], best[2]):
            best = delimiter, share, usual
    if best[1] == 0:
        return ",", "" if "," not in sample else "no delimiter parts its rows alike; commas were taken"
    return best[0], "" if best[1] >= 0.5 else "its rows have many different widths, so columns may not line up"
