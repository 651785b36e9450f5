"""Figures, checks, spreads and tables -> Reports and CSV."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from decimal import Decimal

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.figures.asked import Meant
from yarnex.core.figures.checks import KINDS, Check
from yarnex.core.figures.headings import captions_of
from yarnex.core.figures.model import STATEMENTS, Figure, FigurePeriod
from yarnex.core.figures.spread import Spread, SpreadCell
from yarnex.output.report import Cell, Report, Section, Table, TableRow
from yarnex.output.reports import warnings_of
from yarnex.output.safe import no_formula
from yarnex.output.wording import counted, one_line

MOST_PERIODS = 6
UNIT_WORDS = {"percent": "%", "pence": "p", "cents": "c", "times": "x"}


def number_words(value: Decimal | None) -> str:
    """A value in plain units with thousands parted: decimals as printed, but none behind whole thousands or millions."""
    if value is None:
        return "n/a"
    if abs(value) >= 1000:
        value = value.normalize()
    return f"{value:,f}".replace("-", "−")


def aligned(texts: Sequence[str]) -> list[str]:
    """Numbers of one column with their decimal points in line once they are set to the right.

    >>> aligned(["1.5", "12"])
    ['1.5', '12\u2007\u2007']
    """
    most = max((len(t.partition(".")[2]) for t in texts if "." in t), default=0)
    out = []
    for text in texts:
        decimals = len(text.partition(".")[2]) if "." in text else -1
        missing = most - max(decimals, 0) + (1 if decimals < 0 and most else 0)
        out.append(text + "\u2007" * missing if text else text)  # a blank as wide as a digit
    return out


def unit_words(figure: Figure) -> str:
    """The unit in words: "GBP", "pence a share", "%"."""
    unit = UNIT_WORDS.get(figure.unit, figure.unit) if figure.unit not in ("pence", "cents") else figure.unit
    return f"{unit} a {figure.per}" if figure.per else unit


def _period_words(period: FigurePeriod | None) -> str:
    return period.words if period else "period not told"


def _page(figure: Figure) -> str:
    first, _ = figure.cite.pages
    return f"p. {first}" if first and not figure.cite.cell else figure.cite.place


def figures_report(
    documents: Sequence[Document], figures: Sequence[Figure], unread: Sequence[UnreadableError]
) -> Report:
    """Each table of figures as lines by periods, then the numbers of sentences."""
    sections = []
    for document in documents:
        held = [f for f in figures if f.document is document]
        if not held:
            sections.append(Section(f"{document.path}", lines=("no figures found in it",)))
            continue
        sections.append(Section(f"{document.path}: {counted(len(held), 'figure')}"))
        for place in dict.fromkeys(f.table for f in held if f.table >= 0):
            sections.append(_table_section(document, place, [f for f in held if f.table == place]))
        spoken = [f for f in held if f.table < 0]
        if spoken:
            sections.append(_list_section("In sentences", spoken))
    return Report(
        "Figures", f"{counted(len(figures), 'figure')}, in plain units", tuple(sections), warnings_of(documents, unread)
    )


def _table_section(document: Document, place: int, figures: list[Figure]) -> Section:
    periods = list(dict.fromkeys(f.period for f in figures))
    lines: dict[tuple[int, str], list[Figure]] = {}
    for f in figures:
        lines.setdefault((f.row, f.label), []).append(f)
    captions = captions_of(document, document.tables[place])
    title = f"{captions[0] if captions else 'Table'}, {_page(figures[0])}"
    basis = next((f.basis for f in figures if f.basis), "")
    marks = ", ".join(dict.fromkeys(m for f in figures for m in f.marks if m in ("unaudited", "audited", "restated")))
    lead = " · ".join(filter(None, [STATEMENTS.get(figures[0].statement, ""), basis, marks]))
    if len(periods) > MOST_PERIODS:
        return _list_section(title, figures, lead)
    columns = {
        p: aligned(
            [
                number_words(next((f.value for f in fs if f.period == p), None))
                if any(f.period == p for f in fs)
                else ""
                for fs in lines.values()
            ]
        )
        for p in periods
    }
    rows = []
    for i, fs in enumerate(lines.values()):
        first = fs[0]
        group = " › ".join(first.path[:-1])
        cells = [Cell(one_line(first.label))]
        for p in periods:
            found = next((f for f in fs if f.period == p), None)
            cells.append(Cell(columns[p][i], cites=found.cites if found else (), notes=()))
        cells.append(Cell(unit_words(first)))
        rows.append(TableRow(tuple(cells), group=group))
    heads = ("Line", *(_period_words(p) for p in periods), "Unit")
    return Section(
        title,
        lead=(lead,) if lead else (),
        table=Table(heads, tuple(rows), (10, *(5 for _ in periods), 4), tuple(range(1, 1 + len(periods)))),
    )


def _list_section(title: str, figures: Sequence[Figure], lead: str = "") -> Section:
    values = aligned([number_words(f.value) for f in figures])
    rows = []
    for f, value in zip(figures, values, strict=True):
        notes = tuple(filter(None, [", ".join(filter(None, [f.basis, *f.marks])), f.hint]))
        rows.append(
            TableRow(
                (
                    Cell(one_line(f.label), notes=notes),
                    Cell(value, cites=f.cites),
                    Cell(unit_words(f)),
                    Cell(_period_words(f.period)),
                    Cell(f"{_page(f)}, “{f.as_printed}”"),
                )
            )
        )
    return Section(
        title,
        lead=(lead,) if lead else (),
        table=Table(("Line", "Value", "Unit", "Period", "Where, as printed"), tuple(rows), (10, 6, 4, 6, 7), (1,)),
    )


def meant_report(
    asked: Sequence[tuple[str, Document, tuple[Meant, ...]]],
    unread: Sequence[UnreadableError],
    documents: Sequence[Document],
) -> Report:
    """What each name found in each document: one line a period, each meaning of an ambiguous name on its own."""
    from yarnex.core.figures.asked import best_of_each_period

    sections = []
    for name, document, meanings in asked:
        if not meanings:
            sections.append(Section(f"{name}: {document.path}", lines=("not found",)))
            continue
        for meaning in meanings:
            best = best_of_each_period(meaning.figures) if meaning.line else meaning.figures
            title = f"{meaning.line.label if meaning.line else name}: {document.path}"
            lead = f"one meaning of “{name}”" if len(meanings) > 1 else ""
            sections.append(_list_section(title, best, lead))
    return Report(
        "Figures", ", ".join(dict.fromkeys(n for n, _, _ in asked)), tuple(sections), warnings_of(documents, unread)
    )


def checks_report(checks: Sequence[Check], documents: Sequence[Document], unread: Sequence[UnreadableError]) -> Report:
    """Failed checks with both places and the difference, then how many passed."""
    failed = [c for c in checks if not c.passed]
    rows = []
    for check in failed:
        off = (
            number_words(check.difference) + (f" {check.unit}" if check.unit else "")
            if check.difference is not None
            else ""
        )
        rows.append(
            TableRow(
                (
                    Cell(check.what, notes=tuple(filter(None, [*check.working, check.note]))),
                    Cell(off),
                    Cell(check.cites[0].document.name, cites=check.cites),
                ),
                group=KINDS[check.kind],
            )
        )
    lines = []
    for kind, words in KINDS.items():
        of_kind = [c for c in checks if c.kind == kind]
        if of_kind:
            good = sum(c.passed for c in of_kind)
            lines.append(f"{words}: {counted(len(of_kind), 'check')}, {good} in order, {len(of_kind) - good} not")
    sections = (
        [Section("Not in order", table=Table(("What", "Difference", "Where"), tuple(rows), (12, 5, 8)))]
        if rows
        else [Section("", lines=("No check failed.",))]
    )
    sections.append(Section("Checked", lines=tuple(lines) or ("nothing that could be checked",)))
    return Report(
        "Checks of figures",
        f"{counted(len(checks), 'check')}, {len(failed)} not in order; rounding is no failure",
        tuple(sections),
        warnings_of(documents, unread),
    )


WIDE = 4  # columns of a spread that stand side by side; more go below


def spread_report(result: Spread, documents: Sequence[Document], unread: Sequence[UnreadableError]) -> Report:
    """Standard lines by columns, then ratios with their formulas. Money in thousands where every amount is a whole number of them."""
    sections = []
    companies = list(dict.fromkeys(c.company for c in result.columns))
    money = [c.value for r in result.rows for c in r.cells if c and len(c.unit) == 3]
    scale = Decimal(1000) if money and all(v % 1000 == 0 for v in money) else Decimal(1)
    for kind, title in (("line", "Lines"), ("ratio", "Ratios and growth")):
        held = [r for r in result.rows if r.kind == kind]
        for start in range(0, len(result.columns), WIDE):
            places = range(start, min(start + WIDE, len(result.columns)))
            shown = [r for r in held if any(r.cells[i] for i in places)]
            if not shown:
                continue
            texts = {i: aligned([_cell_words(r.cells[i], scale) for r in shown]) for i in places}
            rows = []
            for j, row in enumerate(shown):
                cells = [Cell(row.label, notes=tuple(filter(None, [row.note, row.formula])) if start == 0 else ())]
                for i in places:
                    cell = row.cells[i]
                    cells.append(
                        Cell(
                            texts[i][j] if cell else "–",
                            cites=cell.cites if cell else (),
                            state="computed" if cell and cell.formula and kind == "line" else "",
                        )
                    )
                unit = next((c.unit for c in row.cells if c), "")
                thousands = " thousand" if scale > 1 and len(unit) == 3 else ""
                cells.append(Cell(UNIT_WORDS.get(unit, unit) + thousands))
                rows.append(TableRow(tuple(cells)))
            heads = (
                "Line",
                *(
                    (f"{result.columns[i].company}, " if len(companies) > 1 else "") + result.columns[i].label
                    for i in places
                ),
                "Unit",
            )
            more = " (continued)" if start else ""
            sections.append(
                Section(
                    title + more,
                    table=Table(heads, tuple(rows), (9, *(5 for _ in places), 4), tuple(range(1, 1 + len(places)))),
                )
            )
    if not sections:
        sections.append(Section("", lines=("No standard lines were found.",)))
    if result.notes:
        sections.append(Section("To note", lines=result.notes))
    return Report("Spread", " · ".join(companies), tuple(sections), warnings_of(documents, unread))


def _cell_words(cell: SpreadCell | None, scale: Decimal) -> str:
    if cell is None:
        return ""
    return number_words(cell.value / scale if len(cell.unit) == 3 else cell.value)


def tables_report(documents: Sequence[Document], unread: Sequence[UnreadableError]) -> Report:
    """All tables with number, page, caption and size."""
    rows = []
    for document in documents:
        for place, table in enumerate(document.tables, start=1):
            first, last = document.pages_of(table.span)
            page = "" if not first else f"{first}" if first == last else f"{first}–{last}"
            captions = captions_of(document, table)
            rows.append(
                TableRow(
                    (
                        Cell(str(place)),
                        Cell(page),
                        Cell(captions[0] if captions else ""),
                        Cell(f"{table.rows} rows x {table.columns} columns"),
                        Cell(one_line(table.span.of(document.text))[:60]),
                    ),
                    group=document.path,
                )
            )
    section = (
        Section("", table=Table(("Table", "Page", "Over it", "Size", "Begins"), tuple(rows), (2, 2, 8, 6, 9)))
        if rows
        else Section("", lines=("no tables",))
    )
    return Report("Tables", counted(len(rows), "table"), (section,), warnings_of(documents, unread))


def one_table(document: Document, place: int) -> Report:
    """One table as it stands."""
    table = document.tables[place]
    grid = [[Cell() for _ in range(table.columns)] for _ in range(table.rows)]
    for cell in table.cells:
        grid[cell.row][cell.column] = Cell(" ".join(cell.span.of(document.text).split()))
    heads = [" ".join(filter(None, (grid[r][c].text for r in range(table.header_rows)))) for c in range(table.columns)]
    rows = [TableRow(tuple(cells)) for cells in grid[table.header_rows :]]
    shape = Table(
        tuple(heads),
        tuple(rows),
        tuple(8 if c == 0 else 4 for c in range(table.columns)),
        tuple(range(1, table.columns)),
    )
    first, _ = document.pages_of(table.span)
    return Report(
        f"Table {place + 1}", f"{document.path}{f', page {first}' if first else ''}", (Section("", table=shape),)
    )


def table_csv(document: Document, place: int) -> str:
    """One table cell for cell (RFC 4180); a cell over several places stands in its first. Text that a spreadsheet would run is made safe."""
    table = document.tables[place]
    grid = [["" for _ in range(table.columns)] for _ in range(table.rows)]
    for cell in table.cells:
        grid[cell.row][cell.column] = " ".join(cell.span.of(document.text).split())
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n")
    writer.writerows(
        [[no_formula(c) if c[:1] not in "-–−(" or not any(d.isdigit() for d in c) else c for c in row] for row in grid]
    )
    return buffer.getvalue()


def figures_csv(figures: Sequence[Figure]) -> str:
    """A row a figure (RFC 4180), values as plain numbers."""
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n")
    writer.writerow(["document", "statement", "path", "label", "line", "basis", "period end", "months", "value", "unit", "per", "as printed", "marks", "page", "place", "target"])  # fmt: skip
    for f in figures:
        value = "" if f.value is None else f"{f.value.normalize():f}"
        period = (f.period.end.isoformat(), str(f.period.months or "")) if f.period else ("", "")
        words = [f.document.path, f.statement, " › ".join(f.path), f.label, f.item, f.basis, *period]
        writer.writerow(
            [
                *map(no_formula, words),
                value,
                *map(no_formula, [f.unit, f.per]),
                no_formula(f.as_printed),
                "; ".join(f.marks),
                str(f.cite.pages[0] or ""),
                no_formula(f.cite.place),
                f.cite.target,
            ]
        )
    return buffer.getvalue()
