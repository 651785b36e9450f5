"""Built-in checks that compare what a document states in several places. Each gives its cites and its working."""

from __future__ import annotations

import itertools
import re
from collections.abc import Callable
from datetime import date
from decimal import Decimal

from yarnex.core.document import Cite, Table
from yarnex.core.terms import Abstract
from yarnex.core.terms.computed import shown_date
from yarnex.core.terms.model import quoted
from yarnex.core.terms.schedules import column_heads, column_per
from yarnex.core.values import DateValue, Money, Quantity, Schedule, find_money

Result = tuple[tuple[Cite, ...], tuple[str, ...]]
Check = Callable[[Abstract, date], Result | None]
TOLERANCE = Decimal("0.02")  # of a currency unit for each month of a year: printed tables round


def dates_in_order(abstract: Abstract, as_of: date) -> Result | None:
    """Dates that cannot stand together: an end before the start, a break outside the term."""
    days = {}
    for name in ("lease_start", "lease_end", "break_date", "rent_start"):
        finding = abstract.finding(name)
        if finding and isinstance(finding.value, DateValue) and finding.state != "conflicting":
            days[name] = finding
    notes = []
    cites: list[Cite] = []
    for early, late in (
        ("lease_start", "lease_end"),
        ("lease_start", "break_date"),
        ("break_date", "lease_end"),
        ("rent_start", "lease_end"),
    ):
        if early in days and late in days:
            a, b = days[early].value, days[late].value
            assert isinstance(a, DateValue) and isinstance(b, DateValue)
            if a.day > b.day:
                notes.append(
                    f"{days[early].term.label} {shown_date(a.day)} lies after {days[late].term.label.lower()} {shown_date(b.day)}"
                )
                cites += [days[early].cites[0], days[late].cites[0]]
    return (tuple(cites), tuple(notes)) if notes else None


def term_against_dates(abstract: Abstract, as_of: date) -> Result | None:
    """A stated end that is not the start plus the stated term."""
    from yarnex.core.terms.computed import term_end

    end, start, length = (abstract.finding(n) for n in ("lease_end", "lease_start", "term_length"))
    if not end or not start or not length or end.state != "stated" or not isinstance(end.value, DateValue):
        return None
    without = {f.term.id: f for f in abstract.findings if f.term.id != "lease_end"}
    made = term_end(end.term, without, abstract.passages) if start.state == length.state == "stated" else None
    if made is None or not isinstance(made.value, DateValue):
        return None
    apart = abs((made.value.day - end.value.day).days)
    if apart <= 1:
        return None  # whether the first day counts is often left open
    note = f"{made.working[-1]}, but the document says that it ends on {shown_date(end.value.day)} ({apart} days apart)"
    return (end.cites[0], *made.cites[:2]), (note,)


def rent_table(abstract: Abstract, as_of: date) -> Result | None:
    """A rent table in which rate x area, or twelve months, do not give the yearly rent."""
    document, text = abstract.document, abstract.document.text
    area = abstract.finding("floor_area")
    size = (
        area.value
        if area and isinstance(area.value, Quantity) and area.state == "stated" and area.confidence >= 0.8
        else None
    )
    cites: list[Cite] = []
    notes: list[str] = []
    for table in document.tables:
        heads = column_heads(table, text)
        columns = {
            column_per(h): c
            for c, h in reversed(heads.items())
            if column_per(h) and re.search(r"rent|instal|rate|square|month|annual|year", h, re.IGNORECASE)
        }
        if "year" not in columns or not re.search(r"rent|rate|instal", " ".join(heads.values()), re.IGNORECASE):
            continue
        for row in range(table.header_rows, table.rows):
            yearly, monthly = _sum(table, row, columns.get("year"), text), _sum(table, row, columns.get("month"), text)
            rate = _sum(table, row, columns.get("sq_ft_year"), text) or _sum(table, row, columns.get("sq_m_year"), text)
            said = []
            if yearly and monthly and yearly > monthly and abs(monthly * 12 - yearly) > 12 * TOLERANCE:
                said.append(f"12 x {monthly:,} = {monthly * 12:,}, not {yearly:,}")
            unit = "sq_ft" if columns.get("sq_ft_year") is not None else "sq_m"
            if (
                yearly
                and rate
                and size
                and size.unit == unit
                and abs(rate * size.value - yearly) > max(Decimal(1), yearly / 2000)
            ):
                said.append(
                    f"{rate:,} x {size.value:,} {unit.replace('_', ' ')} = {rate * size.value:,.2f}, not {yearly:,}"
                )
            if said:
                cells = list(table.row_cells(row))
                cites.append(Cite(document, type(cells[0].span)(cells[0].span.start, cells[-1].span.end)))
                notes += said
    return (tuple(cites), tuple(notes)) if notes else None


def _sum(table: Table, row: int, column: int | None, text: str) -> Decimal | None:
    cell = table.at(row, column) if column is not None else None
    if cell is None:
        return None
    words = cell.span.of(text)
    money = next(iter(find_money(words)), None)
    if money is not None:
        return money.value.amount
    bare = re.fullmatch(r"\s*\d[\d,]*(?:\.\d+)?\s*", words)
    return Decimal(bare.group().strip().replace(",", "")) if bare else None


def words_and_figures(abstract: Abstract, as_of: date) -> Result | None:
    """A number whose words and figures disagree, anywhere in the document."""
    cites, notes = [], []
    passages = abstract.passages
    for kind in ("money", "duration", "percent", "number"):
        for found in passages.values(kind):
            if "the words say" in found.reading:
                sentence = passages.sentence_at(found.span.start)
                cites.append(Cite(passages.document, sentence.span if sentence else found.span))
                notes.append(f"{quoted(found.span.of(passages.text))}: {found.reading}")
    return (tuple(cites), tuple(notes)) if notes else None


def ambiguous_dates(abstract: Abstract, as_of: date) -> Result | None:
    """Dates in figures that can be read with the day or the month first."""
    passages = abstract.passages
    found = [f for f in passages.values("date") if f.reading.startswith("ambiguous")]
    if not found:
        return None
    return tuple(Cite(passages.document, f.span) for f in found[:4]), tuple(
        f"{f.span.of(passages.text)} is {f.reading}" for f in found[:4]
    )


def cap_has_ended(abstract: Abstract, as_of: date) -> Result | None:
    """A cap on the service charge or rent that runs only to a day that has passed."""
    cites, notes = [], []
    for name in ("service_charge_cap", "review_cap", "review_cap_amount"):
        finding = abstract.finding(name)
        if finding is None or not finding.usable:
            continue
        cite = finding.cites[0]
        m = re.search(
            r"(?:ending on or before|until|to and including|up to(?: and including)?|prior to|before)\s+(?:the\s+)?",
            cite.quote,
        )
        days = list(abstract.passages.values_in("date", cite.span)) if cite.document is abstract.document else []
        for day in days:
            at = day.span.start - cite.span.start
            if m and 0 <= at - m.end() < 12 and isinstance(day.value, DateValue) and day.value.day < as_of:
                cites.append(cite)
                notes.append(f"{finding.term.label}: it ran to {shown_date(day.value.day)}, before {shown_date(as_of)}")
    return (tuple(cites), tuple(notes)) if notes else None


def schedule_gaps(abstract: Abstract, as_of: date) -> Result | None:
    """A rent schedule with dates in which one step does not begin on the day after the last."""
    finding = abstract.finding("rent_schedule")
    if finding is None or not isinstance(finding.value, Schedule):
        return None
    notes = []
    rows = finding.value.rows
    for before, after in itertools.pairwise(rows):
        try:
            end, start = date.fromisoformat(before.to), date.fromisoformat(after.from_)
        except ValueError:
            continue
        if (start - end).days != 1:
            kind = "gap" if start > end else "overlap"
            notes.append(f"{kind} between {shown_date(end)} and {shown_date(start)}")
    return (finding.cites[:1], tuple(notes)) if notes else None


def deposit_large(abstract: Abstract, as_of: date) -> Result | None:
    """A deposit of more than six months' rent."""
    deposit, rent = abstract.finding("deposit"), abstract.finding("base_rent")
    if not deposit or not rent or not isinstance(deposit.value, Money) or not isinstance(rent.value, Money):
        return None
    months = {"year": Decimal(12), "month": Decimal(1), "quarter": Decimal(3)}.get(rent.value.per or "")
    if not months or deposit.value.currency != rent.value.currency or not rent.value.amount:
        return None
    held = deposit.value.amount / (rent.value.amount / months)
    if held <= 6:
        return None
    note = f"{deposit.value.amount:,} / {rent.value.amount / months:,.2f} a month = {held:.1f} months' rent"
    return (deposit.cites[0], rent.cites[0]), (note,)


CHECKS: dict[str, Check] = {
    "dates_in_order": dates_in_order,
    "term_against_dates": term_against_dates,
    "rent_table": rent_table,
    "words_and_figures": words_and_figures,
    "ambiguous_dates": ambiguous_dates,
    "cap_has_ended": cap_has_ended,
    "schedule_gaps": schedule_gaps,
    "deposit_large": deposit_large,
}
