"""Filled sheets -> a workbook: terms x documents with typed cells, the quotes beside them, schedules, and what was not found.

In: abstracts or a comparison's abstracts. Out: the bytes of an .xlsx file (Office Open XML, ECMA-376); the same input
gives the same bytes.
"""

from __future__ import annotations

import io
import re
from collections.abc import Sequence
from datetime import datetime
from decimal import Decimal
from math import ceil
from pathlib import PurePosixPath
from typing import Any
from urllib.parse import quote as url_quote

from yarnex._version import __version__
from yarnex.core.document import Cite
from yarnex.core.errors import UnreadableError
from yarnex.core.terms import Abstract, Finding
from yarnex.core.terms.identity import document_date, identify
from yarnex.core.values import DateValue, Duration, Money, Percent, Quantity, Schedule, Value
from yarnex.output.schedule_tables import other_columns
from yarnex.output.wording import STATE_WORDS, one_line, own_words, said, shown, to_check

MOST_LINES = 12
MOST_CHARACTERS = 32_000  # a cell holds 32,767
MADE = datetime(2000, 1, 1)
CURRENCY_FORM = "[$%s] #,##0.00"
SCHEDULE_HEADS = ("Document", "Schedule", "From", "To", "Amount", "Currency", "Per", "Page")


class Forms:
    """Cell formats, made when first used."""

    def __init__(self, book: Any) -> None:
        self.book = book
        self.made: dict[tuple[tuple[str, Any], ...], Any] = {}

    def get(self, **given: Any) -> Any:
        key = tuple(sorted({"valign": "top", "text_wrap": True, **given}.items()))
        if key not in self.made:
            self.made[key] = self.book.add_format(dict(key))
        return self.made[key]


def new_book(buffer: io.BytesIO, title: str) -> Any:
    """An empty workbook whose bytes depend on nothing but what is put in."""
    import xlsxwriter

    options = {
        "in_memory": True,
        "default_date_format": "yyyy-mm-dd",
        "strings_to_formulas": False,
        "strings_to_urls": False,
    }
    book = xlsxwriter.Workbook(buffer, options)
    book.set_properties({"title": title, "created": MADE})
    return book


def abstract_workbook(abstracts: Sequence[Abstract], unread: Sequence[UnreadableError], folder: str = "") -> bytes:
    """The workbook of filled sheets.

    folder: the folder of the workbook, so that links to the documents are relative to it.
    """
    buffer = io.BytesIO()
    book = new_book(buffer, "Abstract")
    forms = Forms(book)
    _terms(book, forms, abstracts, folder)
    _schedules(book, forms, abstracts, folder)
    _further(book, forms, abstracts, folder)
    _missing(book, forms, abstracts, folder)
    _made(book, forms, abstracts, unread)
    book.close()
    return buffer.getvalue()


def _rows(abstracts: Sequence[Abstract]) -> list[tuple[str, str, str]]:
    """Id, group and label of each term that any document has a finding for, in the order of the sheets."""
    out: dict[str, tuple[str, str, str]] = {}
    for item in abstracts:
        for finding in item.findings:
            if finding.found:
                out.setdefault(finding.term.id, (finding.term.id, finding.term.group, finding.term.label))
    return sorted(out.values(), key=lambda r: r[0].startswith("other_"))


def _terms(book: Any, forms: Forms, abstracts: Sequence[Abstract], folder: str) -> None:
    sheet = book.add_worksheet("Terms")
    head, group_form = forms.get(bold=True, bg_color="#E4E8EE", bottom=1), forms.get(italic=True, font_color="#555555")
    sheet.write_row(0, 0, ["Group", "Term"], head)
    for place, item in enumerate(abstracts):
        column = 2 + 4 * place
        sheet.write(0, column, item.document.path, head)
        sheet.write_row(0, column + 1, ["State", "Page", "Words of the document"], head)
        sheet.set_column(column, column, 26)
        sheet.set_column(column + 1, column + 1, 10)
        sheet.set_column(column + 2, column + 2, 18)
        sheet.set_column(column + 3, column + 3, 60)
    sheet.set_row(0, height_of(*((a.document.path, 24) for a in abstracts)))
    sheet.set_column(0, 0, 20)
    sheet.set_column(1, 1, 30)
    for row, (name, group, label) in enumerate(_rows(abstracts), start=1):
        sheet.write_string(row, 0, group, group_form)
        sheet.write_string(row, 1, label, forms.get(bold=True))
        wrapped = [(label, 28)]
        for place, item in enumerate(abstracts):
            finding = item.finding(name)
            if finding is not None and finding.found:
                finding_cells(sheet, forms, row, 2 + 4 * place, finding, folder)
                wrapped += [(" … ".join(one_line(c.quote) for c in finding.cites), 62), (said(finding), 26)]
        sheet.set_row(row, height_of(*wrapped))
    sheet.freeze_panes(1, 2)
    sheet.autofilter(0, 0, max(1, len(_rows(abstracts))), 1 + 4 * len(abstracts))
    sheet.set_landscape()
    sheet.repeat_rows(0)
    sheet.fit_to_pages(1, 0)


def finding_cells(sheet: Any, forms: Forms, row: int, column: int, finding: Finding, folder: str) -> None:
    """The value as a real date or number, its state, its page as a link, and the words."""
    mark = {"bg_color": "#FFF3CD"} if to_check(finding) or finding.state == "conflicting" else {}
    value_cell(sheet, forms, row, column, finding.value if finding.usable else None, said(finding), **mark)
    words = own_words(finding)
    notes = [*([f"Words: {words}"] if words else []), *finding.working]
    if notes:
        sheet.write_comment(row, column, "\n".join(notes)[:3000], {"x_scale": 2.5, "y_scale": 1.5})
    state = STATE_WORDS[finding.state] or "stated"
    sheet.write_string(row, column + 1, state + ("; check" if to_check(finding) else ""), forms.get(**mark))
    if finding.cites:
        link_to(sheet, forms, row, column + 2, finding.cites[0], folder)
        quotes = " … ".join(one_line(c.quote) for c in finding.cites)
        sheet.write_string(row, column + 3, quotes[:MOST_CHARACTERS], forms.get(font_color="#444444"))


def value_cell(sheet: Any, forms: Forms, row: int, column: int, value: Value | None, words: str, **mark: str) -> None:
    """A value as a real date or number with its unit; the words where it is neither."""
    if isinstance(value, DateValue):
        day = datetime(value.day.year, value.day.month, value.day.day)
        sheet.write_datetime(row, column, day, forms.get(num_format="yyyy-mm-dd", align="left", **mark))
    elif isinstance(value, Money):
        form = CURRENCY_FORM % value.currency if value.currency else "#,##0.00"
        if value.per:
            form += f'" per {value.per.replace("_", " ")}"'
        sheet.write_number(row, column, _number(value.amount), forms.get(num_format=form, align="left", **mark))
    elif isinstance(value, Percent):
        form = forms.get(num_format="0.00##%", align="left", **mark)
        sheet.write_number(row, column, _number(value.value / 100), form)
    elif isinstance(value, Quantity | Duration):
        unit = (value.unit or "").replace("_", " ").replace('"', "")
        digits = "#,##0" if value.value == value.value.to_integral_value() else "#,##0.###"
        form = forms.get(num_format=f'{digits}" {unit}"' if unit else "General", align="left", **mark)
        sheet.write_number(row, column, _number(value.value), form)
    else:
        sheet.write_string(row, column, words[:MOST_CHARACTERS], forms.get(**mark))


def height_of(*cells: tuple[str, int]) -> float:
    """How high a row must be, in points: wrapped text does not make it higher by itself. cells: words, and how many
    characters a line of theirs holds.
    """
    lines = max(
        (sum(ceil(max(1, len(line)) / width) for line in words.split("\n")) for words, width in cells), default=1
    )
    return 15 * min(lines, MOST_LINES) + 2


def _letters(words: str) -> set[str]:
    return set(re.findall(r"[^\W\d_]{2,}", words.lower()))


def _number(value: Decimal) -> float:
    return float(value)


def link_to(sheet: Any, forms: Forms, row: int, column: int, cite: Cite, folder: str) -> None:
    """The page, opening the file there; the section where the format has no pages."""
    page = cite.pages[0]
    shown = f"p. {page}" if page else (cite.section or cite.place or "text")[:60]
    path = PurePosixPath(cite.target.partition("#")[0])
    fragment = cite.target.partition("#")[2]
    try:
        relative = path.relative_to(folder) if folder and not path.is_absolute() else path
    except ValueError:
        relative = path
    target = url_quote(relative.as_posix(), safe="/:") + (f"#{fragment}" if fragment else "")
    if len(target) < 2000:
        sheet.write_url(row, column, f"external:{target}", forms.get(font_color="#0B57D0", underline=1), shown)
    else:
        sheet.write_string(row, column, shown, forms.get())


def _schedules(book: Any, forms: Forms, abstracts: Sequence[Abstract], folder: str) -> None:
    sheet = book.add_worksheet("Schedules")
    told = [f.value for item in abstracts for f in item.findings if isinstance(f.value, Schedule)]
    others = list(dict.fromkeys(column for schedule in told for column in other_columns(schedule)))
    sheet.write_row(
        0,
        0,
        [*SCHEDULE_HEADS, *others],
        forms.get(bold=True, bg_color="#E4E8EE", bottom=1),
    )
    sheet.set_column(0, 1, 32)
    sheet.set_column(2, len(SCHEDULE_HEADS) + len(others) - 1, 14)
    row = 1
    for item in abstracts:
        for finding in item.findings:
            if not isinstance(finding.value, Schedule):
                continue
            for step in finding.value.rows:
                sheet.write_row(row, 0, [item.document.path, finding.term.label], forms.get())
                for column, words in ((2, step.from_), (3, step.to)):
                    try:
                        sheet.write_datetime(
                            row, column, datetime.fromisoformat(words), forms.get(num_format="yyyy-mm-dd", align="left")
                        )
                    except ValueError:
                        sheet.write_string(row, column, words, forms.get())
                sheet.write_number(row, 4, _number(step.amount.amount), forms.get(num_format="#,##0.00"))
                sheet.write_row(
                    row, 5, [step.amount.currency or "", (step.amount.per or "").replace("_", " ")], forms.get()
                )
                link_to(sheet, forms, row, 7, finding.cites[0], folder)
                for cell in step.others:
                    at = len(SCHEDULE_HEADS) + others.index(cell.column)
                    value_cell(sheet, forms, row, at, cell.value, cell.text)
                    if cell.value is not None and not _letters(cell.text) <= _letters(shown(cell.value)):
                        sheet.write_comment(row, at, f"Words: {cell.text}"[:3000])
                row += 1
    if row == 1:
        sheet.write_string(1, 0, "No schedules were found.", forms.get())
    sheet.freeze_panes(1, 0)


def _further(book: Any, forms: Forms, abstracts: Sequence[Abstract], folder: str) -> None:
    """Values told beside a term's own: also stated, in a special case, before a change, conflicting."""
    sheet = book.add_worksheet("Further values")
    heads = ["Document", "Term", "What it is", "Value", "Page", "Words of the document"]
    sheet.write_row(0, 0, heads, forms.get(bold=True, bg_color="#E4E8EE", bottom=1))
    for column, width in enumerate((32, 28, 16, 26, 18, 60)):
        sheet.set_column(column, column, width)
    told = [(item, finding, further) for item in abstracts for finding in item.findings for further in finding.further]
    for row, (item, finding, further) in enumerate(told, start=1):
        about = [item.document.path, finding.term.label, further.role.replace("_", " ")]
        sheet.write_row(row, 0, about, forms.get())
        value_cell(sheet, forms, row, 3, further.value, one_line(further.text))
        link_to(sheet, forms, row, 4, further.cite, folder)
        quote = one_line(further.cite.quote)
        sheet.write_string(row, 5, quote[:MOST_CHARACTERS], forms.get(font_color="#444444"))
        sheet.set_row(row, height_of((quote, 62), (one_line(further.text), 26)))
    if not told:
        sheet.write_string(1, 0, "No further values were found.", forms.get())
    sheet.freeze_panes(1, 0)


def _missing(book: Any, forms: Forms, abstracts: Sequence[Abstract], folder: str) -> None:
    sheet = book.add_worksheet("Not found")
    sheet.write_row(
        0,
        0,
        ["Document", "Term", "State", "Where it was looked for", "Nearest mention", "Page"],
        forms.get(bold=True, bg_color="#E4E8EE", bottom=1),
    )
    sheet.set_column(0, 1, 30)
    sheet.set_column(2, 2, 12)
    sheet.set_column(3, 4, 60)
    row = 1
    for item in abstracts:
        for finding in item.findings:
            if finding.state not in ("not_found", "blank", "redacted"):
                continue
            sheet.write_row(
                row,
                0,
                [item.document.path, finding.term.label, STATE_WORDS[finding.state], "; ".join(finding.why)],
                forms.get(),
            )
            cites = finding.near or finding.cites
            if cites:
                sheet.write_string(row, 4, one_line(cites[0].quote)[:MOST_CHARACTERS], forms.get(font_color="#444444"))
                link_to(sheet, forms, row, 5, cites[0], folder)
            row += 1
    sheet.freeze_panes(1, 0)


def _made(book: Any, forms: Forms, abstracts: Sequence[Abstract], unread: Sequence[UnreadableError]) -> None:
    sheet = book.add_worksheet("How it was made")
    sheet.set_column(0, 0, 40)
    sheet.set_column(1, 6, 22)
    lines = [
        f"yarnex {__version__}", "Every quoted passage stands in the document at the page given; values marked as worked out carry their working as a note.",
        "Cells with a coloured ground should be checked by eye first. No language model and no network were used.",
    ]  # fmt: skip
    for row, line in enumerate(lines):
        sheet.write_string(row, 0, line)
    start = len(lines) + 1
    sheet.write_row(
        start,
        0,
        ["Document", "Kind", "Title", "Date", "Sheet", "Pages read", "SHA-256"],
        forms.get(bold=True, bg_color="#E4E8EE", bottom=1),
    )
    for row, item in enumerate(abstracts, start=start + 1):
        document, identity = item.document, identify(item.document)
        pages = f"{document.pages_read} of {len(document.pages)}" if document.pages else "all"
        sheet.write_row(
            row,
            0,
            [
                document.path,
                identity.label,
                identity.title_text,
                document_date(document),
                item.sheet.name,
                pages,
                document.sha256,
            ],
            forms.get(),
        )
    for row, error in enumerate(unread, start=start + 1 + len(abstracts)):
        sheet.write_row(row, 0, [error.where, "not read", error.what], forms.get())
