"""Schedules as the tables that they are in the document: periods, sums, and what the other columns say."""

from __future__ import annotations

from yarnex.core.document import Span
from yarnex.core.terms import Abstract, Finding
from yarnex.core.values import Money, Schedule
from yarnex.output.report import Cell, Section, Table, TableRow
from yarnex.output.wording import money, period


def other_columns(schedule: Schedule) -> tuple[str, ...]:
    """The headings of a schedule's other columns, in the order of the document."""
    return tuple(dict.fromkeys(cell.column for row in schedule.rows for cell in row.others))


def schedule_sections(abstract: Abstract) -> list[Section]:
    """A section for each table that a schedule was taken from and that has more columns than the schedule tells."""
    of_tables: dict[tuple[str, Span], Section] = {}
    for finding in abstract.findings:
        section = _section(finding, f"{finding.term.label}, whole: {abstract.document.path}")
        if section is not None:
            of_tables.setdefault((finding.cites[0].document.path, finding.cites[0].span), section)
    return list(of_tables.values())


def _section(finding: Finding, title: str) -> Section | None:
    schedule = finding.value
    if not isinstance(schedule, Schedule) or not finding.usable or not other_columns(schedule):
        return None
    columns = other_columns(schedule)
    rows = []
    for row in schedule.rows:
        words = {cell.column: cell.text for cell in row.others}
        amount = Money(row.amount.amount, row.amount.currency)
        cells = [period(row.from_, row.to), *(words.get(column, "") for column in columns)]
        cells.insert(1 + schedule.before, money(amount))
        rows.append(TableRow(tuple(Cell(text) for text in cells)))
    heads = ["Period", *columns]
    heads.insert(1 + schedule.before, schedule.column or "Amount")
    numeric = tuple(range(1, len(heads)))
    cite = finding.cites[0]
    elsewhere = cite.document.name if cite.document is not finding.document else ""
    lead = (", ".join(filter(None, ("Every column of the table", elsewhere, cite.place))) + ".",)
    return Section(
        title, lead, Table(tuple(heads), tuple(rows), tuple(3 if not i else 2 for i in range(len(heads))), numeric)
    )
