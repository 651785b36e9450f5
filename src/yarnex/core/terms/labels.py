"""Finders that go by names: particulars and labelled lines, defined terms, party roles, tables."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Cite, Span, Table
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import (
    TYPED,
    candidate,
    cut,
    fits,
    from_value_words,
    is_between_days,
    is_named,
    place_of_name,
)
from yarnex.core.terms.lines import Line
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Labelled, Passages, bare_label, plain_label
from yarnex.core.terms.schedules import find_schedules, schedules_in_words
from yarnex.core.terms.values_in_lines import LineValues, line_values_of
from yarnex.core.values import Found, Party, Quantity, Value, same_value

BARE_NUMBER = pattern(r"\d{0,3}|[A-Z]?")
AT_ONCE = 12  # characters within which a paragraph with a title gives the value that the title names: "Price. £1,960,000, of ..."


def from_labels(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Particulars tables and lines that read "Label: value"."""
    for row in passages.labelled:
        if term.names and term.type in TYPED and row.source == "table":
            yield from _from_the_label(term, passages, row)
        label = row.label
        if term.type == "money" and term.names and not is_named(term.names, label):
            label = bare_label(label)
        first = place_of_name(term.names, label)  # names stand strongest first
        if first is None and term.type == "party" and label.endswith("s"):
            first = place_of_name(term.names, label[:-1])  # "Tenants"
        if first is None:
            continue
        weight = {"table": 0.94, "line": 0.9, "heading": 0.66}[row.source] - 0.006 * min(first, 5)
        if row.source == "heading" and term.type == "text":
            weight = (
                OF_A_TITLE  # a paragraph whose own title is the term's name tells more than words like it elsewhere
            )
        long = row.source == "heading" and row.value.end - row.value.start > 160 and term.type != "text"
        why = f"stands opposite the label {row.label!r}"
        for found in from_value_words(term, passages, row.value, row.row, weight, "label", why, row):
            if long and (found.text is None or found.text.span.start > row.value.start + AT_ONCE):
                continue
            if row.source != "heading" or not is_between_days(passages, found.value, found.text.span):
                yield found


def _from_the_label(term: Term, passages: Passages, row: Labelled) -> Iterator[Candidate]:
    """A value that ends the label itself: "VAT at 20 % ... £40" tells the rate beside the sum."""
    place = Span(row.row.start, row.value.start)
    for found in passages.values_in(term.value_type, place):
        name = VALUE_JOINED.sub("", passages.text[place.start : found.span.start])
        rest = passages.text[found.span.end : place.end].strip(" \t\n.,:;)")
        if not rest and fits(term, found.value) and is_named(term.names, plain_label(name)):
            yield candidate(passages, term, found, 0.88, "label", f"ends the label {row.label!r}")


OF_A_TITLE = 0.82


VALUE_JOINED = pattern(r"[\s(@:,–-]*\b(?:at|of|@)?[\s(@:,–-]*\Z", re.IGNORECASE)


def from_definitions(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Defined terms: "X" means ...; and sums or days that a bracket names: EUR 500 (the "Deposit")."""
    for definition in passages.definitions:
        if not term.names or not is_named(term.names, definition.name):
            continue
        why = f"defined as {definition.name!r}"
        if not definition.inline:
            yield from from_value_words(
                term, passages, definition.meaning, definition.sentence, 0.92, "definition", why
            )
        elif term.type in TYPED:
            found = [f for f in passages.values_in(term.value_type, definition.meaning) if fits(term, f.value)]
            if found and definition.meaning.end - found[-1].span.end < 90:
                quote = Cite(passages.document, cut(passages.text, definition.sentence, found[-1].span))
                yield candidate(
                    passages, term, found[-1], 0.9, "definition", f"called {definition.name!r} where it stands", quote
                )


def from_roles(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Parties by the role that the parties clause gives them."""
    if term.type != "party":
        return
    for place, (party, span, sentence) in enumerate(passages.roles):
        role = re.sub(r"\A(?:the|each|an?)\s+", "", party.role, flags=re.IGNORECASE)
        if is_named(term.names, role):
            quote = Cite(passages.document, cut(passages.text, sentence, span))
            weight = 0.95 - min(0.04, 0.002 * place)
            text = Cite(passages.document, span)
            yield Candidate("stated", Party(party.name), text, quote, weight, "parties", f"named as {party.role!r}")


def from_schedules(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Rents and other sums that change over time, from tables and where they are written out step by step."""
    if term.type == "schedule":
        yield from find_schedules(term, passages)
        yield from schedules_in_words(term, passages)


def from_table_cells(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Cells of larger tables whose row or column heading names the term; a total row counts most."""
    if term.type not in ("number", "money", "percent", "duration") or not term.names:
        return
    document, text = passages.document, passages.text
    line_values = line_values_of(passages)
    for table in document.tables:
        if table.columns < 3 and not (table.columns == 2 and table.header_rows):
            continue
        heads = {c.column: plain_label(c.span.of(text)) for r in range(table.header_rows) for c in table.row_cells(r)}
        earlier = _other_years(heads)
        yield from _same_all_down(term, passages, table, heads, line_values)
        if term.type == "duration":
            continue
        for row in range(table.header_rows, table.rows):
            cells = table.row_cells(row)
            first = plain_label(cells[0].span.of(text)) if cells and cells[0].column == 0 else ""
            named = 0
            if BARE_NUMBER.fullmatch(first) and len(cells) > 2:  # "1 | Gross revenue | 9,400,000"
                first, named = plain_label(cells[1].span.of(text)), 1
            total = bool(re.match(r"total\b|aggregate\b|together\b", first, re.IGNORECASE))
            for cell in cells:
                head = heads.get(cell.column, "")
                if total and "year" in term.units:
                    continue  # what all years come to is no yearly sum
                by_head = is_named(term.names, head) and (total or table.rows - table.header_rows == 1)
                by_row = is_named(term.names, first) and cell.column > named
                if not (by_head or by_row):
                    continue
                if by_row and cell.column in earlier:
                    continue
                for value in _cell_values(term, passages, cell.span, line_values):
                    why = f"the cell under {head!r}, row {first!r}"
                    yield candidate(passages, term, value, 0.84 if total or by_row else 0.78, "table", why)
                    break


YEAR_HEAD = pattern(
    r"\W*(?:(?:FY|HY|year|half\s+year|31\s+\w+|30\s+\w+)\s*)?(?P<year>(?:19|20)\d\d)(?:[/–-]\d\d)?\W*(?P<mark>[A-Za-z]*)\W*",
    re.IGNORECASE,
)
FORECAST = pattern(r"e|f|b|p|est\w*|forecast|budget|plan|target|projected|outlook", re.IGNORECASE)


def _other_years(heads: dict[int, str]) -> set[int]:
    """The columns of a table by years that are not the latest one that is past: earlier years, and forecasts ("2027E")."""
    years: dict[int, tuple[int, bool]] = {}
    for column, head in heads.items():
        if m := YEAR_HEAD.fullmatch(head):
            years[column] = int(m["year"]), FORECAST.fullmatch(m["mark"]) is not None
    past = [year for year, forecast in years.values() if not forecast]
    if len(years) < 2 or not past:
        return set()
    return {column for column, (year, forecast) in years.items() if forecast or year != max(past)}


def _same_all_down(
    term: Term, passages: Passages, table: Table, heads: dict[int, str], line_values: LineValues
) -> Iterator[Candidate]:
    """The value that a column named like the term holds in two or more rows, and no other one."""
    for column, head in heads.items():
        if column == 0 or not is_named(term.names, head):
            continue
        found = [
            next(_cell_values(term, passages, cell.span, line_values), None)
            for row in range(table.header_rows, table.rows)
            for cell in table.row_cells(row)
            if cell.column == column
        ]
        values = [f for f in found if f is not None]
        if len(values) > 1 and all(same_value(v.value, values[0].value) for v in values):
            why = f"all {len(values)} rows under {head!r} say it"
            yield candidate(passages, term, values[0], 0.88, "table", why)


def _cell_values(term: Term, passages: Passages, span: Span, values: LineValues) -> Iterator[Found[Value]]:
    """A cell's values of the term's type; a bare figure takes its currency or unit from its heading or caption."""
    finder = values.finder(term.type)
    line = Line(span, span, "cell", passages.document.block_index_at(span.start))
    for found in finder(line) if finder is not None else ():
        if fits(term, found.value):
            yield found
        elif isinstance(found.value, Quantity) and found.value.unit is None and term.units:
            unit = _unit_over(term, passages, span)
            if unit:
                yield Found(Quantity(found.value.value, unit), found.span)


def _unit_over(term: Term, passages: Passages, span: Span) -> str:
    """The one of the term's units that the heading of a cell's column names."""
    from yarnex.core.values.quantities import UNITS

    found = passages.document.cell_at(span)
    head = " ".join(column_path(*found, passages.text)) if found else ""
    return next((u for u in term.units if u in UNITS and re.search(rf"\b{UNITS[u]}", head, re.IGNORECASE)), "")
