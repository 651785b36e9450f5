"""Rows of a table that hold for what a question names: a day, a month, "the second year", "instalment 20".

In: answers from cells of a table. Out: the same with, beside each from a row that holds for something else, the one from the
same column in the row that holds for what is asked about.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import date

from yarnex.core.document import Cell, Span, Table
from yarnex.core.search.bands import NTH_YEAR, Limit, asked_about, bands_in, day_of_year, label_of_row, within
from yarnex.core.search.cues import numbered_fit
from yarnex.core.search.evidence import BY_PERIOD, VALUED
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.question import Question
from yarnex.core.search.weighing import Answer
from yarnex.core.terms.candidates import quote_around

Asked = list[tuple[str, Limit, Span]]
MOST_TABLES = 2  # in which answers are looked for in other rows
OfColumn = Callable[[str, Span, tuple[float, ...]], tuple[float, ...]]


def rows_asked_for(
    inquiry: Inquiry, question: Question, answers: Sequence[Answer], of_column: OfColumn
) -> list[Answer]:
    """The answers, with those that stand in the same tables in the one row that holds for what the question names.

    of_column: gives the evidence of an answer at a place with what the head of its column says.
    """
    asked = asked_about(question.text)
    counts = not question.leans and NTH_YEAR.search(question.text) is not None
    found = [a for a in answers if a.finding is None and a.kind in VALUED]
    out = list(answers)
    seen: list[Span] = []
    for answer in found:
        place = inquiry.document.cell_at(answer.span)
        if place is None or not place[1].column or place[0].span in seen or len(seen) >= MOST_TABLES:
            continue
        table, cell = place
        seen.append(table.span)
        day = day_of_year(question.text, inquiry.document, answer.span) if counts else None
        wanted: Asked = [*asked, *([("date", day, Span(0, 0))] if isinstance(day, date) else [])]
        rows = [c.row for c in _column(table, cell.column) if _fit(inquiry, question, wanted, table, c) == 1.0]
        if len(rows) != 1:
            continue
        there = [c for c in table.row_cells(rows[0]) if any(a.span.overlaps(c.span) for a in found)]
        if there and not BY_PERIOD.search(question.text):
            continue  # found already; other columns tell other things
        for other in table.row_cells(rows[0]):
            if not other.column or any(a.span.overlaps(other.span) and a.kind == answer.kind for a in found):
                continue
            made = _there(inquiry, answer, other)
            if made is not None:
                out.append(replace(made, evidence=of_column(made.kind, made.span, made.evidence)))
    return out


def _column(table: Table, column: int) -> list[Cell]:
    found = (table.at(row, column) for row in range(table.header_rows, table.rows))
    return [c for c in found if c is not None and c.span.end > c.span.start]


def _fit(inquiry: Inquiry, question: Question, asked: Asked, table: Table, cell: Cell) -> float:
    """1 where a row holds for what is asked about, by its period or by its number."""
    label = label_of_row(inquiry.document, cell.span)
    if asked and any(True for _ in bands_in(label)):
        return within(asked, label)
    return numbered_fit(question.text, label, label.split(" – ")[0])


def _there(inquiry: Inquiry, answer: Answer, cell: Cell) -> Answer | None:
    """An answer like another one, by the value in another cell of its column."""
    finder = inquiry.values.finder(answer.kind)
    for line in inquiry.matcher.lines.at(cell.span):
        for found in finder(line) if finder is not None and line.kind == "cell" else ():
            return replace(
                answer,
                value=found.value,
                span=found.span,
                quote=quote_around(inquiry.passages, found.span),
                working=(found.reading,) if found.reading else (),
                why="the row that holds for what is asked about",
            )
    return None
