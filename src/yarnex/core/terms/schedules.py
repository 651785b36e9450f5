"""Tables of sums over time -> schedules: "Year 1 | GBP 40,000 | ..."."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from decimal import Decimal

from yarnex.core.document import Cite, Span, Table
from yarnex.core.patterns import pattern
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.typed_places import typed_value
from yarnex.core.terms.values_in_lines import LineValues, line_values_of
from yarnex.core.values import Found, Money, Schedule, ScheduleCell, ScheduleRow, Value
from yarnex.core.values.money import CODES, SIGNS
from yarnex.core.values.numbers import read_digits

PERIOD_HEAD = pattern(r"\b(?:period|lease year|year|years|months?|from|date|term)\b", re.IGNORECASE)
RANGE = pattern(
    r"\A\s*(?:(?:lease\s+|contract\s+)?(?:years?|months?|quarters?)\s+)?(?P<a>\d{1,3})(?:\s*(?:-|–|—|to|through|and|&)\s*(?:(?:year|month|quarter)\s+)?(?P<b>\d{1,3}))?\b",
    re.IGNORECASE,
)
# "Within one year", "Between two and five years", "H2 25/26", "Later": when debts fall due
AHEAD = pattern(
    r"(?:within|in|between|after|over|less\s+than|more\s+than|beyond|from)\b[^.]{0,30}\byears?|later(?:\s+years)?|thereafter"
    r"|(?:FY\s?|H[12]\s|Q[1-4]\s)?(?:(?:19|20)?\d\d/\d\d|(?:19|20)\d\d)|on\s+demand",
    re.IGNORECASE,
)
TOTAL = pattern(r"\s*(?:grand\s+)?(?:total|sum|aggregate)\b", re.IGNORECASE)
SIGN = pattern(rf"(?:{'|'.join(re.escape(x) for x in sorted(SIGNS, key=len, reverse=True))}|\b(?:{'|'.join(CODES)})\b)")
UNIT = pattern(r"\b(lease year|contract year|year|month|quarter)", re.IGNORECASE)
PER = (
    (pattern(r"(?:per|/|a)\s*(?:rentable\s+)?(?:sq|square)[.\s]*f|psf", re.IGNORECASE), "sq_ft_year"),
    (pattern(r"(?:per|/|a)\s*(?:sq|square)[.\s]*m", re.IGNORECASE), "sq_m_year"),
    (pattern(r"month", re.IGNORECASE), "month"),
    (pattern(r"quarter", re.IGNORECASE), "quarter"),
    (pattern(r"annual|year|per annum|p\.?a\b", re.IGNORECASE), "year"),
)
STEP = pattern(  # "Months 5-16: " before $14,420.00: a step of a schedule that is written out in words
    r"\b(?P<label>(?:(?:lease|contract)\s+)?(?P<unit>year|month|quarter)s?\s+(?P<a>\d{1,3})(?:\s*(?:-|–|—|to|through|and|&)\s*(?:(?:year|month|quarter)\s+)?(?P<b>\d{1,3}))?)"
    r"\s*[:=,–—-]?\s*(?:(?:at|of|is)\s+)?(?=[A-Z£€$₹])",
    re.IGNORECASE,
)
BETWEEN_STEPS = 60  # letters from one step to the next: "a month; ", "(abated); "
LEAST_STEPS = 2
Step = tuple[re.Match[str], Found[Value]]
LONGEST_SUM = 40  # letters, with what it is paid for
LEAD = 200  # letters before the first step that may say of what they are
OF_STEPS = (
    (pattern(r"\b(?:monthly|(?:per|a|each) (?:calendar )?month)\b|/\s?mo", re.IGNORECASE), "month"),
    (pattern(r"\bquarterly\b|\b(?:per|a|each) quarter\b", re.IGNORECASE), "quarter"),
    (pattern(r"\b(?:annual|yearly|annum|p\.a)\b|\b(?:per|a|each) year\b", re.IGNORECASE), "year"),
)
MOSTLY = 0.7  # share of the rows of a column that must hold a sum
PREFERRED = ("year", "month", "quarter", "sq_ft_year", "sq_m_year", None)


def column_per(head: str) -> str | None:
    """What the sums of a column are paid for, by its heading."""
    return next((per for form, per in PER if form.search(head)), None)


def column_heads(table: Table, text: str) -> dict[int, str]:
    """The heading of each column, the lines of several heading rows joined."""
    heads: dict[int, str] = {}
    for row in range(table.header_rows):
        cells = table.row_cells(row)
        starts = {cell.column for cell in cells}
        for cell in cells:
            for column in range(cell.column, cell.column + cell.column_span):
                if column > cell.column and column in starts:
                    break  # a heading that only reaches over the next column's
                heads[column] = f"{heads.get(column, '')} {cell.span.of(text)}".strip()
    return heads


def find_schedules(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Tables with a column of periods and a column of sums that the term's names or headings speak of."""
    document, text = passages.document, passages.text
    for block in document.blocks:
        if block.kind != "table":
            continue
        table = document.tables[block.table]
        if table.rows - table.header_rows < 2 or table.columns < 2:
            continue
        heads = column_heads(table, text)
        periods = _period_column(table, heads, text)
        if periods is None:
            continue
        chosen = _sum_column(term, passages, table, heads, passages.headings_of(block), periods)
        if chosen is None:
            continue
        column, per, weight = chosen
        rows = _rows(passages, table, heads, periods, column, per)
        if len(rows) >= 2:
            cite = Cite(document, table.span)
            yield Candidate(
                "stated",
                _schedule(rows, heads, periods, column),
                cite,
                cite,
                weight,
                "schedule",
                f"a table by period, column {heads.get(column, '')!r}",
            )


def schedules_in_words(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Steps written out in one cell, paragraph or list, as "Months 1-12: $900; Months 13-24: $950", behind words that name the term."""
    if not term.names:
        return
    document = passages.document
    for steps in steps_in_words(passages, Span(0, document.body_end)):
        told = lead_of_steps(passages, steps)
        if told is None:
            continue
        before, headings, in_cell = told
        named = any(p.search(before) for p in term.names)
        headed = any(p.search(headings) for p in (*term.headings, *term.names))
        if any(p.search(before) for p in term.excludes) or not (named or (headed and not in_cell)):
            continue
        rows = []
        for step in steps:
            period = _period(step[0]["label"], "")
            assert period is not None  # STEP's labels are RANGE's
            rows.append(ScheduleRow(*period, sum_of_step(step, before)))
        if term.units and any(row.amount.per not in term.units for row in rows):
            continue
        cite = Cite(document, Span(steps[0][0].start(), steps[-1][1].span.end))
        weight = 0.9 if named else 0.7
        yield Candidate("stated", Schedule(tuple(rows)), cite, cite, weight, "schedule", "steps written out in words")


def steps_in_words(passages: Passages, place: Span) -> Iterator[list[Step]]:
    """Runs of steps at a place, each step of the time right after the one before, with the sums they tell."""
    run: list[Step] = []
    for step in STEP.finditer(passages.text, place.start, place.end):
        found = passages.values_in("money", Span(step.end(), step.end() + LONGEST_SUM))
        if not found or found[0].span.start != step.end() or not _in_one(passages, step.start(), step.end()):
            continue
        if run:
            before, sum_before = run[-1]
            near = 0 <= step.start() - sum_before.span.end <= BETWEEN_STEPS
            alike = step["unit"].lower() == before["unit"].lower()
            if not (near and alike) or int(step["a"]) != int(before["b"] or before["a"]) + 1:
                if len(run) >= LEAST_STEPS:
                    yield run
                run = []
        run.append((step, found[0]))
    if len(run) >= LEAST_STEPS:
        yield run


def _in_one(passages: Passages, label: int, value: int) -> bool:
    """True where a label and its value stand in one cell, or in one paragraph, be it over several lines."""
    document = passages.document
    cells = [document.cell_at(Span(place, place + 1)) for place in (label, value)]
    return document.block_at(label) is document.block_at(value) and cells[0] == cells[1]


def sum_of_step(step: Step, before: str) -> Money:
    """The sum of a step, paid for what stands behind it, or else for what the words that lead to the steps say."""
    value = step[1].value
    assert isinstance(value, Money)
    usual = next((per for form, per in OF_STEPS if form.search(before)), None)
    return Money(value.amount, value.currency, value.per or usual)


def lead_of_steps(passages: Passages, steps: Sequence[Step]) -> tuple[str, str, bool] | None:
    """What leads to steps: the row up to their cell, or their paragraph, or the one before a list of them; the headings over
    them; True where they stand in a cell. None in running heads.
    """
    document, text, start = passages.document, passages.text, steps[0][0].start()
    block = document.block_at(start)
    if block is None or block.kind == "furniture":
        return None
    cell = document.cell_at(Span(start, steps[0][0].end()))
    if cell is not None:
        begin = min(c.span.start for c in cell[0].row_cells(cell[1].row))
    else:
        begin = max(block.span.start if start - block.span.start > len("(iii) ") else 0, start - LEAD)
    return text[begin:start], passages.headings_of(block), cell is not None


def schedule_of_column(passages: Passages, table: Table, column: int) -> Schedule | None:
    """What a column of sums says for each period of its table; None where it has no sums or the table no periods."""
    if table.rows - table.header_rows < 2:
        return None
    heads = column_heads(table, passages.text)
    periods = _period_column(table, heads, passages.text)
    if periods is None or column <= periods:
        return None
    rows = _rows(passages, table, heads, periods, column, column_per(heads.get(column, "")))
    return (
        _schedule(rows, heads, periods, column)
        if len(rows) >= MOSTLY * (table.rows - table.header_rows) and len(rows) >= 2
        else None
    )


def _schedule(rows: tuple[ScheduleRow, ...], heads: dict[int, str], periods: int, column: int) -> Schedule:
    return Schedule(rows, heads.get(column, ""), sum(c != periods for c in range(column)))


def _rows(
    passages: Passages, table: Table, heads: dict[int, str], periods: int, column: int, per: str | None
) -> tuple[ScheduleRow, ...]:
    """The rows of a table by period, totals left out, with the sums of one column."""
    text = passages.text
    currency = _currency(passages, table, heads.get(column, ""))
    rows: list[ScheduleRow] = []
    values = line_values_of(passages)
    for row in range(table.header_rows, table.rows):
        cell, first = table.at(row, column), table.at(row, periods)
        label = first.span.of(text) if first else ""
        if TOTAL.match(label) or TOTAL.match(_first(table, row, text)):
            continue
        period = _period(label, heads.get(periods, "")) or (label, label)
        money = _money(passages, cell.span, per) if cell else None
        if money is not None and cell is not None and label:
            _, scaled = typed_value(cell.span, values, passages, label)  # "£m" over the column
            amount = scaled.value.amount if scaled is not None and isinstance(scaled.value, Money) else money.amount
            money = Money(amount, money.currency or currency, money.per)
            rows.append(
                ScheduleRow(
                    period[0], period[1], money, _others(passages, table, heads, row, (periods, column), values)
                )
            )
    return tuple(rows)


def _others(
    passages: Passages, table: Table, heads: dict[int, str], row: int, told: tuple[int, int], values: LineValues
) -> tuple[ScheduleCell, ...]:
    """What the columns that are not told say for a row of a table."""
    out = []
    for column in range(table.columns):
        cell = table.at(row, column)
        words = " ".join(cell.span.of(passages.text).split()) if cell is not None and column not in told else ""
        if cell is None or not words or cell.column != column:
            continue
        _, found = typed_value(cell.span, values, passages, heads.get(column, ""))
        head = heads.get(column, "")
        again = sum(of == head for of in list(heads.values())[:column]) + 1
        name = f"{head} ({again})" if head and again > 1 else head or f"column {column + 1}"
        out.append(ScheduleCell(name, words, found.value if found is not None else None))
    return tuple(out)


def _period_column(table: Table, heads: dict[int, str], text: str) -> int | None:
    """The column that says for when a row's sums are: one with dates before one with numbers of years."""
    best: tuple[int, int] | None = None
    for column in range(min(3, table.columns)):
        cells = [c.span.of(text) for r in range(table.header_rows, table.rows) if (c := table.at(r, column))]
        parsed = [p for c in cells if not TOTAL.match(c) and (p := _period(c, heads.get(column, "")))]
        named = bool(PERIOD_HEAD.search(heads.get(column, "")))
        if not parsed and not (named and column == 0):
            continue
        whole = len(parsed) >= 0.8 * max(1, len([c for c in cells if not TOTAL.match(c)]))
        if not whole and not named:
            continue
        dated = sum(bool(re.match(r"\d{4}-", p[0])) for p in parsed) > 0.5 * len(cells)
        rank = (4 if dated else 0) + (2 if named else 0) + (1 if column == 0 else 0)
        if (named or whole) and (best is None or rank > best[0]) and (column == 0 or dated):
            best = (rank, column)
    return best[1] if best else None


def _currency(passages: Passages, table: Table, head: str) -> str | None:
    """The currency that a column's heading or the words over the table name."""
    near = passages.text[max(0, table.span.start - 200) : table.span.start]
    sign = SIGN.search(head) or SIGN.search(near)
    if sign:
        return passages.currency(sign.group())
    return passages.usual_currency


def _first(table: Table, row: int, text: str) -> str:
    cell = table.at(row, 0)
    return cell.span.of(text) if cell else ""


def _sum_column(
    term: Term, passages: Passages, table: Table, heads: dict[int, str], headings: str, periods: int
) -> tuple[int, str | None, float] | None:
    """The column of sums that belongs to the term: a yearly one before a monthly one before a rate by area."""
    best: tuple[int, int, str | None, float] | None = None
    for column in range(periods + 1, table.columns):
        cells = [table.at(r, column) for r in range(table.header_rows, table.rows)]
        filled = [c for c in cells if c is not None]
        money = sum(_money(passages, c.span, None) is not None for c in filled)
        if not filled or money < MOSTLY * len(cells):
            continue
        head = heads.get(column, "")
        named = any(p.search(plain_label(head)) for p in term.names)
        near = any(p.search(headings) for p in (*term.headings, *term.names))
        before = passages.text[max(0, table.span.start - 300) : table.span.start].lower()
        near = near or any(p.search(before) for p in term.names)
        if any(p.search(head) for p in term.excludes) or not (named or near):
            continue
        per = column_per(head)
        if term.units and per not in term.units:
            continue
        rank = PREFERRED.index(per) - (10 if named and near else 0)
        if best is None or rank < best[0]:
            best = (rank, column, per, 0.92 if named or near else 0.7)
    return best[1:] if best else None


def _money(passages: Passages, span: Span, per: str | None) -> Money | None:
    """A cell's sum; bare figures take no currency, and what the column says it is paid for."""
    found: list[Found[Value]] = passages.values_in("money", span)
    if found:
        value = found[0].value
        assert isinstance(value, Money)
        return Money(value.amount, value.currency, value.per or per)
    words = span.of(passages.text).strip()
    if re.fullmatch(r"[\d,. ]{3,}", words) and (amount := read_digits(words, money=True)) is not None and amount >= 10:
        return Money(Decimal(amount), None, per)
    return None


def _period(label: str, head: str) -> tuple[str, str] | None:
    """From and to: ISO dates where the label holds two, else "Lease Year 3" to "Lease Year 5"."""
    from yarnex.core.values import find_dates

    days = [f.value.day.isoformat() for f in find_dates(label)]
    if len(days) >= 2:
        return days[0], days[1]
    if len(days) == 1:
        return days[0], ""
    m = RANGE.match(label)
    if m:
        unit = UNIT.search(label) or UNIT.search(head)
        name = f"{unit[1].title()} " if unit else ""
        return f"{name}{int(m['a'])}", f"{name}{int(m['b'] or m['a'])}"
    words = " ".join(label.split())
    return (words, words) if AHEAD.fullmatch(words) else None
