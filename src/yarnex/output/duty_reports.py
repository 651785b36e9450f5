"""Duties and requirements -> Reports and workbooks."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any

from yarnex.core.document import Document
from yarnex.core.duties import Duty, Requirement
from yarnex.core.errors import UnreadableError
from yarnex.output.report import Cell, Report, Section, Table, TableRow
from yarnex.output.reports import warnings_of
from yarnex.output.wording import counted, one_line
from yarnex.output.workbook import Forms, link_to, new_book

FORCE_WORDS = {"must": "must", "must_not": "must not", "may": "may"}


def wanted(duty: Duty, party: str, kinds: Sequence[str], rights: bool) -> bool:
    """True for a duty that the user's choice lets through; duties of both parties count for each of them."""
    low = party.lower()
    of_party = not low or low in duty.who.lower() or low in duty.name.lower() or duty.who == "both parties"
    timed = duty.force == "may" and bool(duty.by)  # a right that must be used in time is work to do
    return of_party and (not kinds or duty.kind in kinds) and (rights or duty.force != "may" or timed)


def duties_report(
    duties: Sequence[Duty], documents: Sequence[Document], unread: Sequence[UnreadableError], *, checklist: bool
) -> Report:
    """A table for each document: who, what, when; in the order of the text, or as boxes by party."""
    sections = []
    for document in documents:
        held = [d for d in duties if d.document is document]
        if not held:
            sections.append(Section(document.path, lines=("no duties found in it",)))
            continue
        if checklist:
            for who in sorted({d.who for d in held}, key=str.lower):
                rows = [_row(d, checklist) for d in sorted((d for d in held if d.who == who), key=lambda d: not d.by)]
                sections.append(
                    Section(
                        f"{document.path}: {who}",
                        table=Table(("", "What", "By when, how often", "Kind"), tuple(rows), (1, 16, 6, 4)),
                    )
                )
            continue
        rows = [_row(d, checklist) for d in held]
        sections.append(
            Section(
                document.path, table=Table(("Who", "What", "By when, how often", "Kind"), tuple(rows), (4, 15, 6, 4))
            )
        )
    return Report(
        "Checklist" if checklist else "Duties",
        counted(len(duties), "duty", "duties"),
        tuple(sections),
        warnings_of(documents, unread),
    )


def _row(duty: Duty, checklist: bool) -> TableRow:
    notes = []
    if duty.condition:
        notes.append(f"condition: {duty.condition}")
    if duty.otherwise:
        notes.append(f"else: {duty.otherwise}")
    if duty.to:
        notes.append(f"to: {duty.to}")
    if not duty.sure:
        notes.append("who is told by context")
    said = one_line(duty.what)
    whole = said[:1].isupper() and any(
        f" {m} " in f" {said[:110].lower()} " for m in ("shall", "must", "will", "is", "are", "may")
    )
    what = said if whole else f"{FORCE_WORDS[duty.force]} {said[:1].lower()}{said[1:]}"
    first = Cell("☐") if checklist else Cell(duty.who, notes=(duty.name,) if duty.name else ())
    return TableRow((first, Cell(what, cites=duty.cites[:1], notes=tuple(notes)), Cell(duty.by), Cell(duty.kind)))


def duties_workbook(duties: Sequence[Duty], folder: str = "", *, checklist: bool = False) -> bytes:
    """One row a duty, with a column to tick."""
    buffer = io.BytesIO()
    book = new_book(buffer, "Duties")
    forms = Forms(book)
    sheet: Any = book.add_worksheet("Checklist" if checklist else "Duties")
    heads = [
        "Done",
        "Document",
        "Who",
        "Name",
        "Force",
        "What",
        "By when, how often",
        "Condition",
        "To",
        "Else",
        "Kind",
        "Told by",
        "Page",
        "Words of the document",
    ]
    sheet.write_row(0, 0, heads, forms.get(bold=True, bg_color="#E4E8EE", bottom=1))
    for place, width in enumerate([6, 24, 16, 24, 9, 60, 28, 30, 14, 30, 14, 10, 12, 70]):
        sheet.set_column(place, place, width)
    for row, d in enumerate(duties, start=1):
        told = "sentence" if d.sure else "context"
        sheet.write_row(
            row,
            0,
            [
                "",
                d.document.path,
                d.who,
                d.name,
                FORCE_WORDS[d.force],
                d.what,
                d.by,
                d.condition,
                d.to,
                d.otherwise,
                d.kind,
                told,
            ],
            forms.get(),
        )
        link_to(sheet, forms, row, 12, d.cites[0], folder)
        sheet.write_string(row, 13, one_line(d.cites[0].quote)[:2000], forms.get(font_color="#444444"))
    if duties:
        sheet.data_validation(1, 0, len(duties), 0, {"validate": "list", "source": ["yes", "no", "n/a"]})
    sheet.freeze_panes(1, 3)
    sheet.autofilter(0, 0, max(1, len(duties)), len(heads) - 1)
    book.close()
    return buffer.getvalue()


def requirements_report(
    found: Sequence[Requirement], documents: Sequence[Document], unread: Sequence[UnreadableError]
) -> Report:
    """A numbered checklist; what a later correction changed says so."""
    sections = []
    for document in documents:
        held = [r for r in found if r.document is document]
        rows = []
        for r in held:
            notes = (f"corrected: {r.replaced}",) if r.replaced else ()
            rows.append(
                TableRow(
                    (
                        Cell(r.number),
                        Cell(one_line(r.what), cites=r.cites[:1], notes=notes),
                        Cell(r.limit),
                        Cell("mandatory" if r.mandatory else "optional"),
                    )
                )
            )
        table = Table(("No.", "Requirement", "Limit", ""), tuple(rows), (2, 16, 6, 3))
        sections.append(
            Section(document.path, table=table)
            if rows
            else Section(document.path, lines=("no requirements found in it",))
        )
    return Report("Requirements", counted(len(found), "requirement"), tuple(sections), warnings_of(documents, unread))


def requirements_workbook(found: Sequence[Requirement], folder: str = "") -> bytes:
    """One row a requirement, with columns to fill in."""
    buffer = io.BytesIO()
    book = new_book(buffer, "Requirements")
    forms = Forms(book)
    sheet: Any = book.add_worksheet("Requirements")
    heads = ["No.", "Requirement", "Limit", "Mandatory", "Corrected", "Met", "Remark", "Document", "Page"]
    sheet.write_row(0, 0, heads, forms.get(bold=True, bg_color="#E4E8EE", bottom=1))
    for place, width in enumerate([8, 80, 30, 10, 40, 8, 30, 24, 12]):
        sheet.set_column(place, place, width)
    for row, r in enumerate(found, start=1):
        sheet.write_row(
            row,
            0,
            [r.number, one_line(r.what), r.limit, "yes" if r.mandatory else "no", r.replaced, "", "", r.document.path],
            forms.get(),
        )
        link_to(sheet, forms, row, 8, r.cites[0], folder)
    sheet.freeze_panes(1, 1)
    book.close()
    return buffer.getvalue()
