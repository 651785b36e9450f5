"""Checks on figures: do sums cast, do statements agree with each other, do the same figures agree wherever they stand.

In: documents and their figures. Out: checks, failed ones with both places and the difference; rounding is no failure.
Casting is the auditor's word for adding a column up (ISA 330 and usual practice); identities are those of IAS 1 and IAS 7.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from yarnex.core.document import Cite, Document
from yarnex.core.document.table_paths import is_group, row_label
from yarnex.core.figures.headings import row_span
from yarnex.core.figures.lines import line_of, name_key
from yarnex.core.figures.model import Figure
from yarnex.core.figures.tables import CHANGE
from yarnex.core.patterns import pattern
from yarnex.core.values.types import plain_number

KINDS = {
    "cast": "Columns and rows added up",
    "balance": "Statements agree with each other",
    "same": "The same figure in several places",
    "earlier": "Comparatives against the earlier report",
    "restated": "Figures that the document itself restates",
    "change": "Changes and per-share amounts worked out again",
    "tagged": "Tagged values against what is printed",
    "workbook": "Formulas of workbooks",
}
TOTAL = pattern(r"\A(?:sub-?|grand\s+)?totals?\b|\A(?:the\s+)?group\b|\Anet\s|\A\Z", re.IGNORECASE)
SUBTOTALS = frozenset(
    [
        "gross_profit", "operating_profit", "adjusted_operating_profit", "profit_before_tax", "profit", "total_comprehensive_income", "total_assets", "total_liabilities",
        "net_assets", "total_equity", "cash_from_operations", "operating_cash_flow", "investing_cash_flow", "financing_cash_flow", "change_in_cash", "cash_closing", "net_debt", "ebitda",
    ]
)  # fmt: skip  # lines that are worked out from those above them
OF_WHICH = pattern(r"\Aof\s+which\b|\Aincluding\b|\Amemorandum\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Check:
    """One check. passed: False where figures disagree by more than rounding. what: one sentence. working: the sum."""

    kind: str
    passed: bool
    what: str
    cites: tuple[Cite, ...]
    working: tuple[str, ...] = ()
    difference: Decimal | None = None
    unit: str = ""
    note: str = ""
    parts: tuple[Figure, ...] = ()  # of a sum: its parts, then its total

    def to_dict(self) -> dict[str, Any]:
        return {
            "kind": self.kind, "passed": self.passed, "what": self.what, "working": list(self.working),
            "difference": None if self.difference is None else plain_number(self.difference), "unit": self.unit or None, "note": self.note,
            "cites": [c.to_dict() for c in self.cites],
        }  # fmt: skip


def shown(value: Decimal) -> str:
    """A number with thousands parted, as short as it is exact."""
    value = value.normalize()
    return f"{value:,f}"


Grid = dict[tuple[int, int], Figure]


def cast_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """Columns of each table added up, then its rows."""
    tables: dict[tuple[str, int], list[Figure]] = defaultdict(list)
    for f in figures:
        if f.table >= 0 and f.value is not None:
            tables[(f.document.path, f.table)].append(f)
    for held in tables.values():
        document, table = held[0].document, held[0].document.tables[held[0].table]
        grid = {(f.row, f.column): _as_it_stands(f) for f in held}
        labels = {row: row_label(table, row, document.text) for row in range(table.rows)}
        groups = {row for row in range(table.rows) if is_group(table, row, document.text)}
        yield from _cast(document, grid, labels, groups, across=False)
        columns = sorted({c for _, c in grid})
        heads = {c: _head(grid, c) for c in columns}
        if any(re.search(r"\btotal\b|\bgroup\b", h, re.IGNORECASE) for h in heads.values()) and len(columns) > 2:
            turned = {(c, r): f for (r, c), f in grid.items()}
            yield from _cast(document, turned, heads, set(), across=True)


def _as_it_stands(figure: Figure) -> Figure:
    """A tagged figure with the sign that its column shows: a cost is tagged as positive and printed in brackets."""
    text, span = figure.document.text, figure.span
    bracketed = text[max(0, span.start - 1) : span.start] == "(" or text[span.start : span.start + 1] == "("
    turned = bool(figure.concept) and bracketed and figure.value is not None and figure.value > 0
    return replace(figure, value=-figure.value) if turned and figure.value is not None else figure


def _head(grid: Grid, column: int) -> str:
    one = next(f for (_, c), f in sorted(grid.items()) if c == column)
    table, text = one.document.tables[one.table], one.document.text
    cells = [c for c in table.cells if c.row < table.header_rows and c.column <= column < c.column + c.column_span]
    return " ".join(" ".join(c.span.of(text).split()) for c in cells)


def _cast(document: Document, grid: Grid, labels: dict[int, str], groups: set[int], *, across: bool) -> Iterator[Check]:
    """Walk the lines; one that is the sum of those before it, in most columns to the digit, must be so in every column."""
    rows = sorted({r for r, _ in grid})
    columns = sorted({c for _, c in grid})
    open_rows: list[int] = []
    start_of_group: list[int] = []
    for row in range(min(rows, default=0), max(rows, default=-1) + 1):
        if row in groups:
            start_of_group.append(len(open_rows))
            continue
        if row not in rows:
            continue
        label = labels.get(row, "")
        if OF_WHICH.match(label):
            continue
        found = _addends(grid, columns, row, open_rows, label)
        if found is not None:
            parts, signs, good, bad = found
            if good or bad:
                yield from _told(document, grid, row, parts, signs, good, bad, labels, across=across)
            if all(s == 1 for s in signs) or len(parts) == len(open_rows):
                cut = open_rows.index(parts[0])
                open_rows = [*open_rows[:cut], row]
                continue
        open_rows.append(row)


def _addends(
    grid: Grid, columns: list[int], row: int, open_rows: list[int], label: str
) -> tuple[list[int], list[int], list[int], list[int]] | None:
    """The run of lines before `row` that adds up to it, the columns in which it does, and those in which it does not."""
    line = line_of(label)
    total_like = bool(TOTAL.match(label)) or (line is not None and line.id in SUBTOTALS)
    best: tuple[list[int], list[int], list[int], list[int]] | None = None
    for first in range(len(open_rows) - 2, -1, -1):
        parts = open_rows[first:]
        for signs in ([1] * len(parts), [1] + [-1] * (len(parts) - 1)):
            good, bad, strong = _holds(grid, columns, row, parts, signs)
            likely = strong >= 2 or total_like or (strong == 1 and len(columns) == 1 and len(parts) > 2)
            if first == 0 and total_like and good and not bad and len(parts) > 2:
                strong, likely = strong or 1, True  # all lines of the table, within rounding
            if strong and likely and len(good) >= len(bad) and (best is None or len(bad) < len(best[3])):
                best = parts, signs, good, bad
        if best is not None and not best[3]:
            return best
    if best is None and total_like and len(columns) == 1 and _nearly(grid, columns[0], row, open_rows):
        return open_rows[:], [1] * len(open_rows), [], columns[:]
    return best


def _holds(
    grid: Grid, columns: list[int], row: int, parts: list[int], signs: list[int]
) -> tuple[list[int], list[int], int]:
    """The columns in which the parts add up to the line, those in which they do not, and in how many it is no chance."""
    good: list[int] = []
    bad: list[int] = []
    strong = 0
    for c in columns:
        cells: list[tuple[Figure, int]] = [
            (grid[(p, c)], s) for p, s in zip(parts, signs, strict=True) if (p, c) in grid
        ]
        if (row, c) not in grid or not cells:
            continue
        total: Figure = grid[(row, c)]
        if any(f.unit != total.unit or f.scale != total.scale for f, _ in cells) or total.unit in ("percent", "times"):
            continue
        told = sum(bool(f.value) for f, _ in cells)
        if told < 2 and not total.value:
            continue
        added = sum(((f.value or Decimal(0)) * s for f, s in cells), Decimal(0))
        off: Decimal = abs(added - (total.value or Decimal(0)))
        if off <= total.rounding * Decimal(len(cells) + 1):  # half of the last digit for each number
            good.append(c)
            strong += off == 0 and told >= 2 and abs(total.value or Decimal(0)) >= 200 * total.rounding
        else:
            bad.append(c)
    return good, bad, strong


def _nearly(grid: Grid, column: int, row: int, parts: list[int]) -> bool:
    """In a table of one column of amounts: a total near to its sum, which a slip explains and a chance does not."""
    total = grid[(row, column)].value or Decimal(0)
    cells = [grid[(p, column)] for p in parts if (p, column) in grid]
    if any(f.unit != grid[(row, column)].unit or f.scale != grid[(row, column)].scale for f in cells) or len(cells) < 3:
        return False
    off = abs(sum((f.value or Decimal(0)) for f in cells) - total)
    return total != 0 and grid[(row, column)].rounding * (len(cells) + 1) < off <= abs(total) / 10


def _told(
    document: Document, grid: Grid, row: int, parts: list[int], signs: list[int], good: list[int], bad: list[int], labels: dict[int, str], *, across: bool
) -> Iterator[Check]:  # fmt: skip
    for c in (*good, *bad):
        total = grid[(row, c)]
        cells = [(grid[(p, c)], s) for p, s in zip(parts, signs, strict=True) if (p, c) in grid]
        added = sum(((f.value or Decimal(0)) * s for f, s in cells), Decimal(0))
        name = total.label or labels.get(row) or "total"
        sum_words = " ".join(
            f"{'+' if s > 0 else '−'} {shown((f.value or Decimal(0)) / total.scale)}" for f, s in cells
        ).removeprefix("+ ")
        off = (total.value or Decimal(0)) - added
        what = f"{name}{f' ({total.period.words})' if total.period else ''}: the {len(cells)} {'amounts beside' if across else 'lines above'} come to {shown(added / total.scale)}, printed is {total.as_printed}"
        cites = (Cite(document, total.span), Cite(document, row_span(document.tables[total.table], cells[0][0].row)))
        working = (f"{sum_words} = {shown(added / total.scale)}",)
        yield Check("cast", c in good, what, cites, working, off, total.unit, parts=(*(f for f, _ in cells), total))


def balance_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """Assets = liabilities + equity; closing cash = cash of the financial position, for each document, basis and date."""
    held: dict[tuple[str, str, Any], dict[str, Figure]] = defaultdict(dict)
    for f in figures:
        if (
            f.value is not None
            and f.period is not None
            and f.source != "sentence"
            and f.statement in ("financial_position", "cash_flows", "profit_or_loss")
        ):
            held[(f.document.path, f.basis, f.period.end)].setdefault(
                f"{f.item}@{f.statement}" if f.item else f.label, f
            )
    for (_, _, day), lines in held.items():

        def line(item: str, statement: str = "financial_position", lines: dict[str, Figure] = lines) -> Figure | None:
            return lines.get(f"{item}@{statement}")

        assets, owed = line("total_assets"), line("total_liabilities")
        equity = line("net_assets") or line("total_equity")
        if assets and owed and equity:
            off = (assets.value or Decimal(0)) - abs(owed.value or Decimal(0)) - (equity.value or Decimal(0))
            yield _identity(
                f"Total assets less total liabilities is {equity.label.lower()} at {day:%d %b %Y}",
                off,
                (assets, owed, equity),
            )
        closing, cash = line("cash_closing", "cash_flows"), line("cash")
        if closing and cash:
            off = (closing.value or Decimal(0)) - (cash.value or Decimal(0))
            yield _identity(
                f"Closing cash of the cash flows is cash in the financial position at {day:%d %b %Y}",
                off,
                (closing, cash),
            )
        two = line("net_assets"), line("total_equity")
        if two[0] and two[1]:
            off = (two[0].value or Decimal(0)) - (two[1].value or Decimal(0))
            yield _identity(f"Net assets are total equity at {day:%d %b %Y}", off, (two[0], two[1]))


def _identity(what: str, off: Decimal, parts: tuple[Figure, ...]) -> Check:
    slack = sum((p.rounding for p in parts), Decimal(0)) * 2
    passed = abs(off) <= slack
    working = "; ".join(f"{p.label} {p.as_printed}" for p in parts)
    return Check(
        "balance",
        passed,
        what if passed else f"{what}: not so, by {shown(off)}",
        tuple(p.cite for p in parts),
        (working,),
        off,
        parts[0].unit,
    )


FIRM = frozenset(["as reported", "forecast", "target", "pro forma", "discontinued"])
CORE = frozenset(
    [
        "revenue", "gross_profit", "operating_profit", "adjusted_operating_profit", "profit_before_tax", "profit", "total_assets", "net_assets", "total_equity",
        "cash", "net_debt", "eps_basic", "eps_diluted", "eps_adjusted", "total_comprehensive_income", "operating_cash_flow", "cash_from_operations", "cash_opening",
        "cash_closing", "ebitda", "adjusted_ebitda", "ppe", "total_liabilities", "dividend_per_share", "employees", "gearing", "profit_owners", "intangibles", "inventories",
    ]
)  # fmt: skip  # lines that mean one thing wherever they stand


def _comparable(f: Figure) -> bool:
    return (
        f.item in CORE and f.value is not None and f.period is not None and f.basis in ("consolidated", "company", "") and not FIRM & set(f.marks)
        and f.statement not in ("segments", "changes_in_equity") and not (f.hint and f.source == "sentence" and not f.period.months)
    )  # fmt: skip


def same_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """The same line, period and basis in several places of one document must agree within what is printed."""
    held: dict[tuple[str, str, str, Any, str], list[Figure]] = defaultdict(list)
    for f in figures:
        if _comparable(f):
            held[(f.document.path, f.item, f.basis or "consolidated", f.period, f.unit)].append(f)
    for same in held.values():
        if len(same) < 2:
            continue
        finest = min(same, key=lambda f: (f.source == "sentence", f.rounding, f.span.start))
        for other in same:
            if other is finest or other.span == finest.span:
                continue
            off = abs(other.value or Decimal(0)) - abs(finest.value or Decimal(0))
            passed = abs(off) <= other.rounding + finest.rounding
            if not passed and (name_key(other.label) != name_key(finest.label) and other.source == "sentence"):
                continue  # a sentence that words it otherwise may speak of something else
            when = finest.period.words if finest.period else ""
            what = f"{finest.label} ({when}): {finest.as_printed} and {other.as_printed}"
            yield Check("same", passed, what, (finest.cite, other.cite), (), None if passed else off, finest.unit)


def earlier_checks(figures: Sequence[Figure], companies: dict[str, str]) -> Iterator[Check]:
    """The same line, period and basis in reports of one company at different dates: equal, restated, or different."""
    held: dict[tuple[str, str, str, Any, str], dict[str, Figure]] = defaultdict(dict)
    for f in figures:
        if _comparable(f) and f.source != "sentence":
            group = held[
                (companies.get(f.document.path, f.document.path), f.item, f.basis or "consolidated", f.period, f.unit)
            ]
            known = group.get(f.document.path)
            if known is None or f.rounding < known.rounding:
                group[f.document.path] = f
    for group in held.values():
        if len(group) < 2:
            continue
        finest, *others = sorted(group.values(), key=lambda f: (f.rounding, f.document.path))
        for other in others:
            off = abs(other.value or Decimal(0)) - abs(finest.value or Decimal(0))
            passed = abs(off) <= other.rounding + finest.rounding
            restated = "restated" in (*other.marks, *finest.marks)
            what = f"{finest.label} ({finest.period.words if finest.period else ''}): {finest.document.name} says {finest.as_printed}, {other.document.name} says {other.as_printed}"
            yield Check(
                "earlier",
                passed,
                what,
                (finest.cite, other.cite),
                (),
                None if passed else off,
                finest.unit,
                "restated, as one of them says" if restated and not passed else "",
            )


def restated_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """Rows that give an amount as first reported and as restated: not an error, but to be seen."""
    rows: dict[tuple[str, int, int], dict[str, Figure]] = defaultdict(dict)
    for f in figures:
        for mark in ("as reported", "restated"):
            if mark in f.marks and f.table >= 0 and f.value is not None:
                rows[(f.document.path, f.table, f.row)].setdefault(mark, f)
    for held in rows.values():
        if len(held) == 2 and held["as reported"].unit == held["restated"].unit:
            first, second = held["as reported"], held["restated"]
            off = (second.value or Decimal(0)) - (first.value or Decimal(0))
            if off:
                when = f" ({first.period.words})" if first.period else ""
                yield Check(
                    "restated",
                    False,
                    f"{first.label}{when}: {first.as_printed} as reported, {second.as_printed} as restated",
                    (first.cite, second.cite),
                    (),
                    off,
                    first.unit,
                )


def tagged_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """Each tagged number against the digits printed: the same but for scale and sign."""
    for f in figures:
        if f.source != "tagged" or f.value is None:
            continue
        digits = re.sub(r"\D", "", f.as_printed).lstrip("0") or "0"
        told = re.sub(r"\D", "", f"{f.value.normalize():f}").strip("0") or "0"
        passed = digits.rstrip("0") in (told, "") or told == digits.strip("0") or (digits == "0" and told == "0")
        yield Check(
            "tagged", passed, f"{f.label}: tagged {shown(f.value)}, printed {f.as_printed}", (f.cite,), (), None, f.unit
        )


def change_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """The columns of tables that give the change between two others, worked out again."""
    from yarnex.core.figures.printed import read_printed

    rows: dict[tuple[str, int, int], list[Figure]] = defaultdict(list)
    for f in figures:
        if f.table >= 0 and f.value is not None and f.period is not None and not {"target", "forecast"} & set(f.marks):
            rows[(f.document.path, f.table, f.row)].append(f)
    for held in rows.values():
        if len(held) != 2 or held[0].unit != held[1].unit:
            continue
        document, table = held[0].document, held[0].document.tables[held[0].table]
        newer, older = sorted(held, key=lambda f: f.period.end if f.period else None, reverse=True)  # type: ignore[arg-type,return-value]
        if not newer.value or not older.value or newer.period == older.period:
            continue
        for cell in table.row_cells(newer.row):
            head = " ".join(
                c.span.of(document.text) for c in table.cells if c.row < table.header_rows and c.column == cell.column
            )
            if cell.column <= max(newer.column, older.column) or not CHANGE.match(" ".join(head.split())):
                continue
            read = read_printed(cell.span.of(document.text))
            if read is None or read.value is None or read.unit not in ("percent", "percentage points"):
                continue
            if read.unit == "percent":
                made = (abs(newer.value) / abs(older.value) - 1) * 100
                slack = Decimal("0.06") + 100 * (newer.rounding + older.rounding) / abs(older.value)
                words = f"{newer.as_printed} / {older.as_printed} − 1 = {made:.1f} %"
            else:
                made, slack = newer.value - older.value, Decimal("0.11")
                words = f"{newer.as_printed} − {older.as_printed} = {made:.1f} points"
            passed = abs(made - read.value) <= slack
            yield Check(
                "change",
                passed,
                f"{newer.label}: change printed as {cell.span.of(document.text)}, worked out as {made:.1f}",
                (Cite(document, row_span(table, newer.row)),),
                (words,),
                None if passed else read.value - made,
                read.unit,
            )


def share_checks(figures: Sequence[Figure]) -> Iterator[Check]:
    """Basic earnings a share = profit attributable to owners / weighted average shares (IAS 33, paragraph 10)."""
    held: dict[tuple[str, Any], dict[str, Figure]] = defaultdict(dict)
    for f in figures:
        if (
            f.item in ("eps_basic", "profit_owners", "shares_basic")
            and f.value
            and f.period
            and f.basis in ("consolidated", "")
            and f.source != "sentence"
            and not f.marks.count("as reported")
        ):
            known = held[(f.document.path, f.period)].get(f.item)
            if known is None or f.rounding < known.rounding:
                held[(f.document.path, f.period)][f.item] = f
    for lines in held.values():
        if len(lines) != 3:
            continue
        eps, profit, count = lines["eps_basic"], lines["profit_owners"], lines["shares_basic"]
        made = (
            (profit.value or Decimal(0)) / (count.value or Decimal(1)) * (100 if eps.unit in ("pence", "cents") else 1)
        )
        passed = abs(made - (eps.value or Decimal(0))) <= max(
            eps.rounding * 2, Decimal("0.011") if eps.unit in ("pence", "cents") else Decimal("0.0051")
        )
        yield Check(
            "change",
            passed,
            f"Basic earnings per share ({eps.period.words if eps.period else ''}): printed {eps.as_printed}, worked out {made:.2f}",
            (eps.cite, profit.cite, count.cite),
            (f"{profit.as_printed} / {count.as_printed} = {made:.2f}",),
            None if passed else (eps.value or Decimal(0)) - made,
            eps.unit,
        )


def check_figures(figures: Sequence[Figure], companies: dict[str, str] | None = None) -> tuple[Check, ...]:
    """All checks on the figures of one or several documents. companies: whose report each document (by path) is."""
    from yarnex.core.figures.workbooks import workbook_checks

    documents = tuple(dict.fromkeys(f.document for f in figures))
    out = [
        *cast_checks(figures),
        *balance_checks(figures),
        *same_checks(figures),
        *earlier_checks(figures, companies or {}),
        *restated_checks(figures),
    ]
    out += [*change_checks(figures), *share_checks(figures), *tagged_checks(figures)]
    for document in documents:
        out += workbook_checks(document)
    seen: set[tuple[str, str]] = set()
    kept = []
    for check in out:
        if (check.kind, check.what) not in seen:
            seen.add((check.kind, check.what))
            kept.append(check)
    return tuple(
        sorted(kept, key=lambda c: (list(KINDS).index(c.kind), c.cites[0].document.path, c.cites[0].span.start))
    )
