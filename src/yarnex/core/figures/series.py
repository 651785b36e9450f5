"""Figures -> series for a chart: by period, by segment, by company, or as the parts that make up a sum."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from yarnex.core.document import Cite, Document
from yarnex.core.figures.asked import best_of_each_period, figures_named
from yarnex.core.figures.checks import cast_checks
from yarnex.core.figures.lines import lines_meant, name_key
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.figures.spread import company_of


@dataclass(frozen=True, slots=True)
class Point:
    """label: where it stands on the axis. key: what it is ordered by."""

    label: str
    value: Decimal
    figure: Figure

    @property
    def cite(self) -> Cite:
        return self.figure.cite


@dataclass(frozen=True, slots=True)
class Series:
    name: str
    points: tuple[Point, ...]


@dataclass(frozen=True, slots=True)
class ChartData:
    """title: what is shown. unit: as `Figure.unit`, with what it is per. kind: "series" or "parts" (the last is the sum)."""

    title: str
    unit: str
    series: tuple[Series, ...]
    kind: str = "series"
    notes: tuple[str, ...] = ()


WAYS = ("period", "segment", "company")


def chart_series(
    documents: Sequence[Document], figures: Sequence[Figure], names: Sequence[str], by: str = "period"
) -> ChartData | None:
    """The series that names ask for; None where no figure has such a name. Forecasts and targets are left out, which is noted."""
    if by == "segment":
        return _by_segment(figures, names[0])
    companies = {d.path: company_of(d) for d in documents}
    series: list[Series] = []
    notes: list[str] = []
    unit = ""
    for name in names:
        for company in dict.fromkeys(companies.values()):
            held = [f for f in figures if companies[f.document.path] == company and f.basis in ("consolidated", "")]
            meanings = figures_named(held, name)
            if not meanings:
                notes.append(f"{name}: nothing found for {company}")
                continue
            meaning = meanings[0]
            best = [f for f in best_of_each_period(meaning.figures) if f.period is not None and f.value is not None]
            if not best:
                continue
            length = _usual_length([f.period for f in best if f.period])
            left = [f for f in best if f.period and f.period.months != length]
            best = sorted(
                (f for f in best if f.period and f.period.months == length),
                key=lambda f: f.period.end if f.period else 0,
            )
            if left:
                notes.append(f"{name}: {len(left)} of other lengths of time left out")
            units = {_unit(f) for f in best}
            if len(units | ({unit} if unit else set())) > 1:
                notes.append(f"{name}, {company}: in another unit, left out")
                continue
            unit = units.pop()
            label = meaning.line.label if meaning.line else name
            title = (
                label if len(set(companies.values())) == 1 else company if len(names) == 1 else f"{label}, {company}"
            )
            points = tuple(
                Point(_short(f.period), abs(f.value) if f.value is not None else Decimal(0), f)
                if _cost(f)
                else Point(_short(f.period), f.value or Decimal(0), f)
                for f in best
                if f.period
            )
            series.append(Series(title, points))
    if not series:
        return None
    if by == "company":
        points = tuple(Point(s.name, s.points[-1].value, s.points[-1].figure) for s in series)
        latest = {p.figure.period for p in points}
        if len(latest) > 1:
            notes.append("the latest period of each company, which differ")
        return ChartData(", ".join(names), unit, (Series(", ".join(names), points),), notes=tuple(notes))
    title = ", ".join(dict.fromkeys(m.label if (m := next(iter(lines_meant(n)), None)) else n for n in names))
    return ChartData(title, unit, tuple(series), notes=tuple(notes))


def _cost(figure: Figure) -> bool:
    """Costs and debts that are printed in brackets are drawn upwards."""
    return bool(
        figure.value is not None
        and figure.value < 0
        and figure.as_printed.startswith(("(", "-", "−", "–"))
        and figure.item
        in (
            "finance_costs",
            "tax",
            "borrowings",
            "borrowings_current",
            "borrowings_noncurrent",
            "total_liabilities",
            "capex",
            "ppe_purchases",
            "employee_costs",
            "cost_of_sales",
            "depreciation",
            "dividends_paid",
            "interest_paid",
        )
    )


def _usual_length(periods: Sequence[FigurePeriod]) -> int:
    counts = {p.months: sum(q.months == p.months for q in periods) for p in periods}
    return max(counts, key=lambda m: (counts[m], m))


def _unit(figure: Figure) -> str:
    return f"{figure.unit} a {figure.per}" if figure.per else figure.unit


def _short(period: FigurePeriod) -> str:
    if not period.months:
        return f"{period.end.day} {period.end:%b %Y}"
    return (
        f"{period.months}m to\n{period.end:%b %Y}"
        if period.months != 12
        else f"{period.end:%Y}"
        if period.end.month == 12
        else f"year to\n{period.end:%b %Y}"
    )


def _by_segment(figures: Sequence[Figure], name: str) -> ChartData | None:
    """One bar group a segment, one series a period, of figures such as "Revenue – Spinning"."""
    wanted = {
        name_key(name),
        *(name_key(line.label) for line in lines_meant(name)),
        *(name_key(n) for line in lines_meant(name) for n in line.names),
    }
    held: dict[FigurePeriod, dict[str, Figure]] = {}
    for f in figures:
        measure, mark, part = f.label.partition(" – ")
        if f.basis != "segment" or not mark or f.period is None or f.value is None or f.table < 0:
            continue
        key = name_key(measure)
        if key in wanted or key.removeprefix(name_key("external") + " ") in wanted:
            held.setdefault(f.period, {}).setdefault(part, f)
    if not held:
        return None
    parts = list(dict.fromkeys(p for lines in held.values() for p in lines))
    series = []
    for period in sorted(held, key=lambda p: p.end)[-4:]:
        points = tuple(
            Point(p, held[period][p].value or Decimal(0), held[period][p]) for p in parts if p in held[period]
        )
        series.append(Series(period.words, points))
    return ChartData(f"{name[:1].upper()}{name[1:]} by segment", _unit(series[-1].points[0].figure), tuple(series))


def parts_of_sum(figures: Sequence[Figure], name: str) -> ChartData | None:
    """The lines that a table adds up to a total of this name; None where no table does so to the digit."""
    wanted = [f for m in figures_named(figures, name) for f in m.figures]
    spans = {(f.document.path, f.span) for f in wanted}
    best = None
    for check in cast_checks(figures):
        total = check.parts[-1]
        fits = (total.document.path, total.span) in spans or name_key(name) in name_key(total.label)
        if check.passed and fits and len(check.parts) > 2 and (best is None or len(check.parts) > len(best.parts)):
            best = check
    if best is None:
        return None
    total = best.parts[-1]
    points = tuple(Point(f.label, f.value or Decimal(0), f) for f in best.parts)
    when = f", {total.period.words}" if total.period and str(total.period.end.year) not in total.label else ""
    return ChartData(f"{total.label}{when}", _unit(total), (Series(total.label, points),), kind="parts")
