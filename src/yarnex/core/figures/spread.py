"""A spread: reports of one or several companies set out on one template of standard lines, with ratios and twelve-month sums.

In: figures. Out: columns (company and period), rows of cells, each a figure or worked out from figures, with working.
Ratios are the usual ones of financial analysis (as in Penman, "Financial Statement Analysis and Security Valuation", and in
CFA Institute's curriculum); what goes into each stands in its formula.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from yarnex.core.document import Cite, Document
from yarnex.core.figures.asked import by_rank
from yarnex.core.figures.calendar import moved_to
from yarnex.core.figures.lines import Line, line_vocabulary
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.terms.identity import identify
from yarnex.core.values.types import plain_number

LEAST = 3  # lines that a column must have
NOT_SPREAD = frozenset(["as reported", "forecast", "target", "pro forma", "discontinued"])


@dataclass(frozen=True, slots=True)
class SpreadColumn:
    """Whose figures and for which period. currency: "" where several were met. trailing: twelve months worked out."""

    company: str
    period: FigurePeriod
    currency: str
    basis: str = ""
    trailing: bool = False

    @property
    def label(self) -> str:
        return f"{self.period.words}{' (worked out)' if self.trailing else ''}"


@dataclass(frozen=True, slots=True)
class SpreadCell:
    """A value with its sources. formula: how it was worked out, "" where it is printed."""

    value: Decimal
    unit: str
    figures: tuple[Figure, ...]
    formula: str = ""

    @property
    def cites(self) -> tuple[Cite, ...]:
        return tuple(c for f in self.figures for c in f.cites)


@dataclass(frozen=True, slots=True)
class SpreadRow:
    """One line or ratio over all columns. note: a difference in what the documents call it. kind: "line" or "ratio"."""

    id: str
    label: str
    kind: str
    cells: tuple[SpreadCell | None, ...]
    note: str = ""
    formula: str = ""


@dataclass(frozen=True, slots=True)
class Spread:
    columns: tuple[SpreadColumn, ...]
    rows: tuple[SpreadRow, ...]
    notes: tuple[str, ...] = ()

    def to_dict(self) -> dict[str, object]:
        """Columns and rows as JSON."""

        def cell(c: SpreadCell | None) -> dict[str, object] | None:
            if c is None:
                return None
            return {
                "value": plain_number(c.value),
                "unit": c.unit or None,
                "formula": c.formula or None,
                "cites": [x.to_dict() for x in c.cites],
            }

        return {
            "columns": [{"company": c.company, "period": c.period.to_dict(), "currency": c.currency or None, "basis": c.basis or None, "trailing": c.trailing} for c in self.columns],
            "rows": [{"line": r.id, "label": r.label, "kind": r.kind, "note": r.note, "formula": r.formula or None, "cells": [cell(c) for c in r.cells]} for r in self.rows],
            "notes": list(self.notes),
        }  # fmt: skip


def company_of(document: Document) -> str:
    """Whose report a document is: the organisation that its opening names first, else the name of its file."""
    identity = identify(document)
    return identity.parties[0].quote if identity.parties else document.name


Values = dict[str, SpreadCell]


def spread(
    documents: Sequence[Document], figures: Sequence[Figure], by: str = "period", basis: str = "consolidated"
) -> Spread:
    """Standard lines x columns. by: "period": every period of every company, newest first, or "company": each company's
    latest period of the length that most of them have. basis: "consolidated" or "company"."""
    companies = {d.path: company_of(d) for d in documents}
    merged = _same_company(list(companies.values()))
    companies = {path: merged[name] for path, name in companies.items()}
    held: dict[tuple[str, FigurePeriod], dict[str, list[Figure]]] = defaultdict(lambda: defaultdict(list))
    for f in figures:
        if (
            f.item
            and f.value is not None
            and f.period is not None
            and (f.basis or "consolidated") == basis
            and not NOT_SPREAD & set(f.marks)
        ):
            if f.statement in ("segments", "changes_in_equity") or (f.source == "sentence" and f.hint):
                continue
            held[(companies[f.document.path], f.period)][f.item].append(f)
    columns = _columns(held, by)
    made = [(column, _values(held, column)) for column in columns]
    made = _with_trailing(made) if by == "period" else made
    rows = _line_rows(made) + _ratio_rows(made)
    currencies = {c.currency for c, _ in made if c.currency}
    notes = [f"Amounts in {', '.join(sorted(currencies))}; currencies are not converted"] if len(currencies) > 1 else []
    return Spread(tuple(c for c, _ in made), tuple(rows), tuple(notes))


def _same_company(names: list[str]) -> dict[str, str]:
    """Names of which one begins with the other are one company's; the longest is kept."""
    out = {}
    for name in names:
        same = [n for n in names if n.lower().startswith(name.lower()) or name.lower().startswith(n.lower())]
        out[name] = max(same, key=len)
    return out


def _columns(held: dict[tuple[str, FigurePeriod], dict[str, list[Figure]]], by: str) -> list[SpreadColumn]:
    told = []
    for (company, period), lines in held.items():
        if period.months and len(lines) >= LEAST:
            told.append((company, period, lines))
    days = {(c, p.end) for c, p, _ in told}
    for (company, period), lines in held.items():
        if not period.months and len(lines) >= LEAST and (company, period.end) not in days:
            told.append((company, period, lines))
    told.sort(key=lambda t: (t[0], -t[1].end.toordinal(), -t[1].months))
    if by == "company":
        lengths: dict[int, set[str]] = defaultdict(set)
        for company, period, _ in told:
            lengths[period.months].add(company)
        best = max(lengths, key=lambda m: (len(lengths[m]), m), default=0)
        latest: dict[str, tuple[str, FigurePeriod, dict[str, list[Figure]]]] = {}
        for company, period, lines in told:
            if period.months == best or company not in lengths[best]:
                latest.setdefault(company, (company, period, lines))
        told = list(latest.values())
    return [
        SpreadColumn(c, p, _currency(lines), next((f.basis for fs in lines.values() for f in fs if f.basis), ""))
        for c, p, lines in told
    ]


def _currency(lines: dict[str, list[Figure]]) -> str:
    units = {f.unit for fs in lines.values() for f in fs if len(f.unit) == 3 and f.unit.isupper()}
    return units.pop() if len(units) == 1 else ""


def _values(held: dict[tuple[str, FigurePeriod], dict[str, list[Figure]]], column: SpreadColumn) -> Values:
    """One figure for each line: of the period itself, and of its last day for what is measured at a date."""
    out: Values = {}
    for period in dict.fromkeys((column.period, FigurePeriod(column.period.end))):
        for item, figures in held.get((column.company, period), {}).items():
            best = min(figures, key=lambda f: (f.rounding > 500_000, by_rank(f)))
            if item not in out and best.value is not None:
                out[item] = SpreadCell(best.value, best.unit, (best,))
    return out


def _with_trailing(made: list[tuple[SpreadColumn, Values]]) -> list[tuple[SpreadColumn, Values]]:
    """Twelve months to an interim date: the last full year, and the interim period, less the same period a year before."""
    out = list(made)
    for column, values in made:
        months = column.period.months
        if months in (0, 12):
            continue
        end = column.period.end
        before = next(
            (
                v
                for c, v in made
                if c.company == column.company and c.period == FigurePeriod(moved_to(end, end.year - 1), months)
            ),
            None,
        )
        year = next(
            (
                v
                for c, v in made
                if c.company == column.company and c.period.months == 12 and 0 < (end - c.period.end).days < 370
            ),
            None,
        )
        if before is None or year is None:
            continue
        lines: Values = {}
        for item, cell in values.items():
            line = line_vocabulary().lines[item]
            if line.nature == "stock":
                lines[item] = cell
            elif (
                line.nature == "flow"
                and item in before
                and item in year
                and cell.unit == before[item].unit == year[item].unit
            ):
                parts = (year[item], cell, before[item])
                words = f"{_short(parts[0].value)} + {_short(parts[1].value)} − {_short(parts[2].value)}"
                lines[item] = SpreadCell(
                    parts[0].value + parts[1].value - parts[2].value,
                    cell.unit,
                    tuple(f for p in parts for f in p.figures),
                    words,
                )
        if sum(1 for c in lines.values() if c.formula) >= LEAST:
            trailing = SpreadColumn(column.company, FigurePeriod(end, 12), column.currency, column.basis, trailing=True)
            out.insert(out.index((column, values)) + 1, (trailing, lines))
    return out


def _short(value: Decimal) -> str:
    return f"{value:,f}".removesuffix(".0")


def _line_rows(made: list[tuple[SpreadColumn, Values]]) -> list[SpreadRow]:
    rows = []
    for line in line_vocabulary().lines.values():
        cells = tuple(values.get(line.id) for _, values in made)
        if not any(cells):
            continue
        called = {f.label for c in cells if c for f in c.figures}
        note = f"called {', '.join(sorted(called))}" if _differ(line, called) else ""
        rows.append(SpreadRow(line.id, line.label, "line", cells, note))
    return rows


def _differ(line: Line, called: set[str]) -> bool:
    from yarnex.core.figures.lines import name_key

    return len({name_key(c) for c in called} - {name_key(line.label)}) > 1


def _ratio(
    name: str, top: str, bottom: str, *, percent: bool = False, days: bool = False, whole_year: bool = False
) -> tuple[str, str, Callable[[Values, FigurePeriod], SpreadCell | None]]:
    """A ratio of two lines (or a sum of lines, parted by +): its name, its formula, and how to work it out."""
    labels = line_vocabulary().lines

    def words(side: str) -> str:
        return " + ".join(labels[i.strip()].label.lower() for i in side.split("+"))

    formula = f"{words(top)} / {words(bottom)}{' x days' if days else ''}"

    def work(values: Values, period: FigurePeriod) -> SpreadCell | None:
        if whole_year and period.months != 12:
            return None
        parts: list[list[SpreadCell]] = []
        for side in (top, bottom):
            cells = [values.get(i.strip()) for i in side.split("+")]
            if any(c is None for c in cells):
                return None
            parts.append([c for c in cells if c is not None])
        if len({c.unit for side in parts for c in side}) > 1:
            return None
        above, below = (sum((c.value for c in side), Decimal(0)) for side in parts)
        if days or top == "tax":
            above = abs(above)  # costs and balances owed are printed with either sign
        below = abs(below)
        if not below:
            return None
        length = Decimal(365) * period.months / 12 if days else Decimal(100) if percent else Decimal(1)
        value = (above / below * length).quantize(Decimal("0.1") if percent or days else Decimal("0.01"))
        shown = f"{_short(above)} / {_short(below)}"
        return SpreadCell(
            value,
            "percent" if percent else "days" if days else "times",
            tuple(f for side in parts for c in side for f in c.figures),
            shown,
        )

    return name, formula, work


def _ratios() -> list[tuple[str, str, Callable[[Values, FigurePeriod], SpreadCell | None]]]:
    return [
        _ratio("Gross margin", "gross_profit", "revenue", percent=True),
        _ratio("EBITDA margin", "adjusted_ebitda", "revenue", percent=True),
        _ratio("Operating margin", "operating_profit", "revenue", percent=True),
        _ratio("Net margin", "profit", "revenue", percent=True),
        _ratio("Effective tax rate", "tax", "profit_before_tax", percent=True),
        _ratio("Interest cover (operating profit)", "operating_profit", "finance_costs"),
        _ratio("Current ratio", "current_assets", "current_liabilities"),
        _ratio("Net debt to EBITDA", "net_debt", "adjusted_ebitda", whole_year=True),
        _ratio("Net debt to equity", "net_debt", "total_equity", percent=True),
        _ratio("Equity ratio", "total_equity", "total_assets", percent=True),
        _ratio("Return on equity (closing)", "profit", "total_equity", percent=True, whole_year=True),
        _ratio("Receivable days", "receivables", "revenue", days=True),
        _ratio("Operating cash flow to net debt", "operating_cash_flow", "net_debt", percent=True, whole_year=True),
    ]


def _ratio_rows(made: list[tuple[SpreadColumn, Values]]) -> list[SpreadRow]:
    rows = []
    for item, label in (
        ("revenue", "Growth of revenue"),
        ("operating_profit", "Growth of operating profit"),
        ("profit", "Growth of profit"),
    ):
        cells = tuple(_growth(made, column, values, item) for column, values in made)
        if any(cells):
            rows.append(
                SpreadRow(f"growth_{item}", label, "ratio", cells, formula="against the same period a year before")
            )
    for name, formula, work in _ratios():
        cells = tuple(work(values, column.period) for column, values in made)
        if any(cells):
            rows.append(SpreadRow(name.lower().replace(" ", "_"), name, "ratio", cells, formula=formula))
    return rows


def _growth(
    made: list[tuple[SpreadColumn, Values]], column: SpreadColumn, values: Values, item: str
) -> SpreadCell | None:
    if item not in values or not column.period.months or column.trailing:
        return None
    earlier: date = moved_to(column.period.end, column.period.end.year - 1)
    for other, before in made:
        same = other.company == column.company and other.period.months == column.period.months and not other.trailing
        if (
            same
            and abs((other.period.end - earlier).days) <= 7
            and item in before
            and before[item].unit == values[item].unit
            and before[item].value > 0
        ):
            value = ((values[item].value / before[item].value - 1) * 100).quantize(Decimal("0.1"))
            words = f"{_short(values[item].value)} / {_short(before[item].value)} − 1"
            return SpreadCell(value, "percent", (*values[item].figures, *before[item].figures), words)
    return None
