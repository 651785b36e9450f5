"""The headline figures of a report's sheet: its own period's, of the group, from the statements rather than the sentences."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Cite, Span
from yarnex.core.errors import PackError
from yarnex.core.figures.asked import by_rank
from yarnex.core.figures.calendar import named_at_head, year_ends
from yarnex.core.figures.gather import figures_of
from yarnex.core.figures.lines import line_vocabulary
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.figures.reporting import reports_figures
from yarnex.core.terms import Finding, Further, Sheet, Term
from yarnex.core.terms.abstract import Abstract
from yarnex.core.terms.computed import shown_date
from yarnex.core.terms.values_in_lines import WORKBOOKS
from yarnex.core.values import DateValue, Duration, Money, Percent, Quantity, Value

OF_THE_GROUP = ("consolidated", "", "consolidated, previously stated")
NOT_REPORTED = frozenset(("forecast", "target", "as reported"))
PERIOD_END, PERIOD_LENGTH = "period_end", "period_length"
OUTFLOWS = frozenset(("capital_expenditure", "finance_costs", "tax_charge"))
PRINTED, SAID = 0.95, 0.85  # confidence in a figure of a table or a tagged one, and in one of a sentence


def check_figures_of(sheet: Sheet, name: str) -> None:
    """Raises PackError, with file and line, where a term of a sheet is said to be a line of the statements that is none."""
    known = line_vocabulary().lines
    faults = [
        f"{name}, line {term.line}: {item!r} is no line of the statements; write an id of line_items.yaml"
        for term in sheet.terms
        for item in term.figure
        if item not in known
    ]
    if faults:
        raise PackError("\n".join(faults))


def with_headlines(filled: Abstract) -> Abstract:
    """The abstract of a report with its headline figures; another paper's as it is."""
    if not any(f.term.figure for f in filled.findings) or not reports_figures(filled.document):
        return filled
    figures = figures_of(filled.document)
    told = (headline(f, figures) or _from_the_head(f) or f for f in filled.findings)
    return replace(filled, findings=tuple(told))


def _from_the_head(finding: Finding) -> Finding | None:
    """The report's period as its head names it, "Third quarter 2026", where no sentence tells when it ended."""
    if finding.found or finding.term.id not in (PERIOD_END, PERIOD_LENGTH):
        return None
    document = finding.document
    ends = year_ends(document.text)
    named = named_at_head(document.text, ends)
    if named is None:
        return None
    period, start, end = named
    value: Value = (
        DateValue(period.end) if finding.term.id == PERIOD_END else Duration(Decimal(period.months), "months")
    )
    cite = Cite(document, Span(start, end))
    year = "the calendar year, as no other is told" if not ends.month else "the year that the paper tells"
    working = (f"{cite.quote} of {year}: {period.months} months to {shown_date(period.end)}",)
    text = shown_date(period.end) if finding.term.id == PERIOD_END else f"{period.months} months"
    return Finding(document, finding.term, "computed", value, text, SAID, (cite,), working)


def headline(finding: Finding, figures: Sequence[Figure]) -> Finding | None:
    """The finding of a term that is a figure, from a report's figures; None where they do not hold it for its own period."""
    found = headline_figure(finding.term, figures)
    value = figure_value(found) if found is not None else None
    if found is None or value is None:
        return None
    told = []
    if isinstance(value, Money) and value.amount < 0 and finding.term.id in OUTFLOWS:
        value = replace(value, amount=-value.amount)
        told.append(f"printed as an outflow: {found.as_printed}")
    confidence = SAID if found.source == "sentence" else PRINTED
    when = found.period.words if found.period else "no period told"
    told.insert(0, f"{found.label}, {when}" + (f", {found.basis}" if found.basis else ""))
    why = (f"the figure {found.label!r} of the report's own period",)
    before = _year_before(found, figures)
    further: tuple[Further, ...] = ()
    if before is not None and before.period is not None and (then := figure_value(before)) is not None:
        told.append(f"a year before: {before.as_printed} ({before.period.words})")
        further = (Further("year_before", then, before.as_printed, before.cites[0]),)
    return Finding(
        finding.document, finding.term, "stated", value, found.as_printed, confidence, found.cites, tuple(told), further, why=why,
    )  # fmt: skip


WEEK = timedelta(days=7)  # by which the ends of two years that are counted in weeks may lie apart


def _year_before(now: Figure, figures: Sequence[Figure]) -> Figure | None:
    """The same figure of the same period a year before, where the paper gives it."""
    if now.period is None:
        return None
    end = now.period.end - relativedelta(years=1)
    held = [
        f
        for f in figures
        if f.item == now.item and f.value is not None and f.unit == now.unit and f.basis in OF_THE_GROUP
        and NOT_REPORTED.isdisjoint(f.marks) and f.period is not None and abs(f.period.end - end) <= WEEK
        and f.period.months == now.period.months
    ]  # fmt: skip
    return min(held, key=lambda f: (f.source != now.source, by_rank(f)), default=None)


def headline_figure(term: Term, figures: Sequence[Figure]) -> Figure | None:
    """The group's figure of the report's own period for a term, the first of its lines that is reported."""
    main = year_ends(figures[0].document.text).main if figures and term.figure else None
    if main is None:
        return None
    lines = line_vocabulary().lines
    end = _latest_reported(figures, main)
    for item in term.figure:  # the nearest meaning first
        own = FigurePeriod(end, 0 if item in lines and lines[item].nature in ("stock", "ratio") else main.months)
        held = [
            f
            for f in figures
            if f.item == item and f.value is not None and f.basis in OF_THE_GROUP and NOT_REPORTED.isdisjoint(f.marks)
            and not (item == "cash" and f.value < 0)  # taken off a debt
            and f.period is not None and f.period.end == own.end and f.period.months in (0, own.months)
        ]  # fmt: skip
        if held:
            return min(held, key=by_rank)
    return None


def _latest_reported(figures: Sequence[Figure], main: FigurePeriod) -> date:
    """The end of a report's own period; of a workbook, which has no title that tells it, of the latest year that is no forecast."""
    if figures[0].document.format not in WORKBOOKS:
        return main.end
    ends = Counter(
        f.period.end
        for f in figures
        if f.period is not None and f.period.months == main.months and NOT_REPORTED.isdisjoint(f.marks)
    )
    most = max(ends.values(), default=0)
    return max((end for end, count in ends.items() if 2 * count >= most), default=main.end)


def figure_value(figure: Figure) -> Value | None:
    """A figure as a typed value; None where the document says that there is none."""
    if figure.value is None:
        return None
    if len(figure.unit) == 3 and figure.unit.isupper():
        return Money(figure.value, figure.unit)
    if figure.unit == "percent":
        return Percent(figure.value)
    return Quantity(figure.value, figure.unit or None)
