"""Answers, questions worth asking and rosters as reports and a workbook."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.search import Asked, Roster
from yarnex.core.search.answers import PART_OF
from yarnex.core.terms import Finding
from yarnex.core.terms.model import quoted
from yarnex.output.report import Cell, Report, Section, Table, TableRow
from yarnex.output.reports import finding_cell, state_cell, warnings_of
from yarnex.output.wording import STATE_WORDS, counted, one_line, said
from yarnex.output.workbook import Forms, finding_cells, height_of, link_to, new_book

MOST_COLUMNS = 5  # documents that stand side by side


def found_report(
    results: Sequence[Asked], documents: Sequence[Document], unread: Sequence[UnreadableError] = (), *,
    every: bool = False, quote: int | None = None, why: bool = False,
) -> Report:  # fmt: skip
    """Answers: one document, a row a question; a few, a column each; many, for each question a row for each that answers."""
    if len(documents) == 1:
        rows = []
        for result in results:
            found = result.findings[0]
            shown = found if every or result.question.exhaustive else _parts_of(found)
            for place, finding in enumerate(shown):
                cell = _answer_cell(finding, quote, why)
                rows.append(TableRow((Cell("" if place else result.question.text), cell, state_cell(finding))))
        table = Table(("Question", "Answer", "State"), tuple(rows), (7, 16, 3))
        sections = [Section("", table=table)]
    elif len(documents) <= MOST_COLUMNS:
        rows = []
        for result in results:
            parts = [_parts_of(found) for found in result.findings]
            for place in range(max(map(len, parts))):
                cells = [_answer_cell(p[place], quote, why, nearest=1) if place < len(p) else Cell("") for p in parts]
                rows.append(TableRow((Cell("" if place else result.question.text), *cells)))
        heads = ("Question", *(d.name for d in documents))
        sections = [Section("", table=Table(heads, tuple(rows), (5, *(7 for _ in documents))))]
    else:
        sections = [_by_document(result, quote, why) for result in results]
    none = sum(not r.answered for r in results)
    about = f"{counted(len(results), 'question')}, {counted(len(documents), 'document')}" + (
        f"; {none} without an answer" if none else ""
    )
    return Report("Answers", about, tuple(sections), warnings_of(documents, unread))


def _parts_of(found: Sequence[Finding]) -> Sequence[Finding]:
    """The best finding; where a question of several parts was answered by its parts, one for each."""
    return found if any(PART_OF in f.why for f in found) else found[:1]


def _by_document(result: Asked, quote: int | None, why: bool) -> Section:
    """The answers of many documents to one question; those that do not answer are named, the nearest mention first."""
    parts = [_parts_of(found) for found in result.findings]
    told = [(place, f) for several in parts if any(p.found for p in several) for place, f in enumerate(several)]
    rows = tuple(
        TableRow((Cell("" if place else f.document.path), _answer_cell(f, quote, why), state_cell(f)))
        for place, f in told
    )
    silent = [several[0] for several in parts if not any(p.found for p in several)]
    lines = (
        [f"Not found in {counted(len(silent), 'document')}: {', '.join(f.document.path for f in silent)}."]
        if silent
        else []
    )
    if silent and not rows:
        lines += [
            f"Nearest: {quoted(c.quote, 160)} ({f.document.path}, {c.place})." for f in silent for c in f.near[:1]
        ][:3]
    table = Table(("Document", "Answer", "State"), rows, (9, 15, 3)) if rows else None
    return Section(result.question.text, table=table, lines=tuple(lines))


def _answer_cell(finding: Finding, quote: int | None, why: bool, nearest: int = 3) -> Cell:
    if not finding.found:
        near = tuple(f"nearest: {quoted(c.quote, 160)} ({c.place or c.document.name})" for c in finding.near[:nearest])
        return Cell("not found", notes=("; ".join(finding.why), *near), state="not_found")
    cell = finding_cell(finding, "; ".join(finding.why) if why else "")
    if quote is not None:
        words = one_line(finding.cites[0].quote)
        words = words if len(words) <= quote else words[:quote].rsplit(" ", 1)[0] + " …"
        cell = Cell(cell.text, words, cell.cites, cell.notes, cell.state)
    return cell


def starters_report(proposed: Sequence[tuple[Document, str, str]], unread: Sequence[UnreadableError] = ()) -> Report:
    """Questions worth asking."""
    rows = tuple(TableRow((Cell(q), Cell(reason)), d.path) for d, q, reason in proposed)
    documents = list(dict.fromkeys(d for d, _, _ in proposed))
    table = Table(("Question", "Why"), rows, (10, 10))
    lines = () if rows else ("Nothing in these documents suggests a question.",)
    return Report(
        "Questions worth asking",
        "",
        (Section("", table=table if rows else None, lines=lines),),
        warnings_of(documents, unread),
    )


def roster_report(
    lists: Sequence[Roster], of: str, expected: int | None, unread: Sequence[UnreadableError] = (), *, why: bool = False
) -> Report:
    """The items of each document, numbered."""
    sections = []
    for item in lists:
        told = any(i.detail for i in item.items)
        rows = tuple(
            TableRow(
                (
                    Cell(str(n)),
                    Cell(i.text),
                    *([Cell(i.detail)] if told else []),
                    Cell("; ".join(dict.fromkeys(c.place for c in i.cites))),
                )
            )
            for n, i in enumerate(item.items, start=1)
        )
        lines = [] if rows else [f"No list of {of} was found."]
        if item.gaps:
            lines.append(f"Missing in the numbering: {', '.join(item.gaps)}.")
        if item.duplicates:
            lines.append(f"Standing more than once: {'; '.join(item.duplicates[:8])}.")
        if why and item.source:
            lines.append(f"Taken from {item.source}.")
            lines += [f"Left out: {words} ({reason})." for words, reason in item.left_out[:20]]
        heads = ("", "Item", "What is told of it", "Where") if told else ("", "Item", "Where")
        table = Table(heads, rows, (1, 10, 10, 7) if told else (1, 12, 9)) if rows else None
        sections.append(Section(item.document.path, (counted(len(item.items), "item"),), table, lines=tuple(lines)))
    count = sum(len(r.items) for r in lists)
    about = counted(count, "item") + (f"; {expected} expected" if expected is not None and expected != count else "")
    return Report(f"Roster: {of}", about, tuple(sections), warnings_of([r.document for r in lists], unread))


def answers_workbook(results: Sequence[Asked], documents: Sequence[Document], folder: str = "") -> bytes:
    """The answers as a grid, question by document; one a row with real dates and numbers and their words; the unanswered.

    folder: the folder of the workbook, so that links to the documents are relative to it.
    """
    buffer = io.BytesIO()
    book = new_book(buffer, "Answers")
    forms = Forms(book)
    head = forms.get(bold=True, bg_color="#E4E8EE", bottom=1)
    grid: Any = book.add_worksheet("Grid")
    grid.write_row(0, 0, ["Question", *(d.path for d in documents)], head)
    grid.set_row(0, height_of(*((d.path, 25) for d in documents)))
    grid.set_column(0, 0, 48)
    grid.set_column(1, max(1, len(documents)), 28)
    for row, result in enumerate(results, start=1):
        grid.write_string(row, 0, result.question.text, forms.get(bold=True))
        heights = [(result.question.text, 44)]
        for column, found in enumerate(result.findings, start=1):
            page = f" ({found[0].cites[0].place})" if found[0].cites and found[0].cites[0].place else ""
            words = f"{one_line(said(found[0]))[:300]}{page}" if found[0].found else STATE_WORDS[found[0].state]
            grid.write_string(row, column, words, forms.get(**({} if found[0].found else {"font_color": "#777777"})))
            heights.append((words, 25))
        grid.set_row(row, height_of(*heights))
    grid.freeze_panes(1, 1)
    answers: Any = book.add_worksheet("Answers")
    missing: Any = book.add_worksheet("Not found")
    answers.write_row(0, 0, ["Question", "Document", "Answer", "State", "Page", "Words of the document"], head)
    missing.write_row(0, 0, ["Question", "Document", "Nearest mention", "Page"], head)
    for sheet, widths in ((answers, (48, 30, 28, 12, 14, 70)), (missing, (48, 30, 70, 14))):
        for place, width in enumerate(widths):
            sheet.set_column(place, place, width)
        sheet.freeze_panes(1, 0)
    answered = unanswered = 0
    for result in results:
        for document, found in zip(documents, result.findings, strict=True):
            if found[0].found:
                answered += 1
                answers.write_row(answered, 0, [result.question.text, document.path], forms.get())
                finding_cells(answers, forms, answered, 2, found[0], folder)
                quotes = " … ".join(c.quote for c in found[0].cites)
                heights = [(result.question.text, 44), (document.path, 27), (said(found[0]), 25), (quotes, 70)]
                answers.set_row(answered, height_of(*heights))
            else:
                unanswered += 1
                missing.write_row(unanswered, 0, [result.question.text, document.path], forms.get())
                for cite in found[0].near[:1]:
                    missing.write_string(unanswered, 2, one_line(cite.quote)[:2000], forms.get(font_color="#444444"))
                    link_to(missing, forms, unanswered, 3, cite, folder)
                near = [(c.quote, 70) for c in found[0].near[:1]]
                missing.set_row(unanswered, height_of((result.question.text, 44), (document.path, 27), *near))
    for sheet in (grid, answers, missing):
        sheet.set_landscape()
        sheet.repeat_rows(0)
        sheet.fit_to_pages(1, 0)
    answers.autofilter(0, 0, max(1, answered), 5)
    book.close()
    return buffer.getvalue()
