"""PDF files with a text layer -> Document, through pdfium. Drawn bars over words read as blacked out."""

from __future__ import annotations

from typing import Any

import pypdfium2 as pdfium

from yarnex.core.document import Document, Page, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.layout.columns import regions_of
from yarnex.core.reading.layout.furniture import printed_labels, split_furniture
from yarnex.core.reading.layout.headings import full_numbers, mark_headings
from yarnex.core.reading.layout.linear import Linear, lay_out
from yarnex.core.reading.layout.lines import rows_of, segments_of
from yarnex.core.reading.layout.paragraphs import Draft, join_parts, paragraphs_of, usual_pitch
from yarnex.core.reading.layout.ruled_tables import ruled_tables
from yarnex.core.reading.layout.spaced_tables import spaced_tables
from yarnex.core.reading.layout.tables import TableDraft
from yarnex.core.reading.layout.words import PLACEHOLDER, PageMarks, Row, Word
from yarnex.core.reading.pdf_marks import page_marks


def read_pdf(data: bytes, path: str, sha256: str) -> Document:
    """The document in a PDF file's bytes. Raises UnreadableError for locked and broken files."""
    try:
        pdf = pdfium.PdfDocument(data)
    except pdfium.PdfiumError as error:
        if "assword" in str(error):
            raise UnreadableError(
                "locked with a password", where=path, do="save a copy without the password and read that"
            ) from None
        raise UnreadableError("not a complete PDF", where=path, do="fetch or export the file again") from None
    try:
        return _read_pages(pdf, path, sha256)
    finally:
        pdf.close()


def _read_pages(pdf: Any, path: str, sha256: str) -> Document:
    problems: list[Problem] = []
    pages: list[PageMarks] = []
    for index in range(len(pdf)):
        try:
            pages.append(page_marks(pdf, index))
        except pdfium.PdfiumError:
            pages.append(PageMarks(index + 1, 0, 0, [], state="failed"))
    if not pages:
        raise UnreadableError("a PDF without pages", where=path, do="fetch or export the file again")
    drafts, furniture, labels = lay_out_pages(pages)
    recorded = _recorded_labels(pdf)
    titles = frozenset(title.strip().lower() for title in _outline_titles(pdf))
    words_on = [len(p.words) for p in pages]
    cover = (
        frozenset({1})
        if len(pages) > 2 and 0 < words_on[0] < 130 and words_on[0] < 0.5 * max(words_on)
        else frozenset()
    )
    drafts = mark_headings(drafts, titles, cover)
    full_numbers(drafts)
    linear = Linear()
    body_end = lay_out(drafts, furniture, linear)
    problems += _page_problems(pages)
    page_list = tuple(
        Page(p.number, recorded[i] or labels[i], p.width, p.height, p.state, len(p.words)) for i, p in enumerate(pages)
    )
    title = pdf.get_metadata_value("Title").strip()
    return Document(
        path, "pdf", sha256, "".join(linear.parts), body_end, page_list, tuple(linear.blocks), tuple(linear.tables),
        tuple(linear.sections), linear.fragments(), tuple(problems), title,
    )  # fmt: skip


def lay_out_pages(pages: list[PageMarks]) -> tuple[list[Draft], list[Draft], list[str]]:
    """Marks of all pages -> drafts of the text, drafts of the furniture, and each page's printed number."""
    tables: list[list[TableDraft]] = []
    segmented = []
    for page in pages:
        found, rest = ruled_tables(page.words, page.rules)
        tables.append(found)
        segmented.append((segments_of(rest), found))
    all_rows = [rows_of(segments) for segments, _ in segmented]
    body, furniture_rows = split_furniture(pages, all_rows)
    pitch = usual_pitch([row for rows in body for row in rows if len(row.segments) == 1])
    parts: list[list[Draft]] = []  # a column or a page each
    for page, rows, (segments, found), out in zip(pages, body, segmented, furniture_rows, strict=True):
        gone = {id(w) for row in out for s in row.segments for w in s.words}
        kept = [s for s in segments if id(s.words[0]) not in gone]
        separators = sorted({(r.top + r.bottom) / 2 for r in page.rules if r.horizontal and r.x1 - r.x0 > 60})
        for place, table in enumerate(found):
            mark = Word(PLACEHOLDER + str(place), table.x0, table.top, table.x1, table.bottom, 10.0, False)
            kept.extend(segments_of([mark]))
        regions = regions_of(kept)
        for region in regions:
            region_rows = rows if len(regions) == 1 and not found else rows_of(region)
            if not region_rows:
                continue
            items = [
                _table_or_row(item, found)
                for item in spaced_tables(_tables_apart(region_rows) if found else region_rows, separators)
            ]
            lines = [i for i in items if isinstance(i, Row)]
            if lines:
                edges = min(r.x0 for r in lines), max(r.x1 for r in lines)
                if len(lines) < 4 and len(regions) == 1:
                    margin = min(edges[0], page.width * 0.15)
                    edges = margin, max(edges[1], page.width - margin)
            else:
                edges = 0.0, page.width
            parts.append(paragraphs_of(page.number, items, edges, pitch))
    furniture = [
        Draft("furniture", [(page.number, [w for s in row.segments for w in s.words])])
        for page, rows in zip(pages, furniture_rows, strict=True)
        for row in rows
    ]
    return join_parts(parts), furniture, printed_labels(furniture_rows)


def _tables_apart(rows: list[Row]) -> list[Row]:
    """Rows in which the mark of a drawn table stands beside words: the table becomes a row of its own."""
    out: list[Row] = []
    for row in rows:
        marks = [s for s in row.segments if s.text.startswith(PLACEHOLDER)]
        rest = [s for s in row.segments if not s.text.startswith(PLACEHOLDER)]
        out += ([Row(rest)] if rest else []) + [Row([m]) for m in marks]
    return out


def _table_or_row(item: Row | TableDraft, tables: list[TableDraft]) -> Row | TableDraft:
    if isinstance(item, Row) and len(item.segments) == 1 and item.segments[0].text.startswith(PLACEHOLDER):
        return tables[int(item.segments[0].text[1:])]
    return item


def _recorded_labels(pdf: Any) -> list[str]:
    """Page labels recorded in the file; "" for all where it records none."""
    return [pdf.get_page_label(i) or "" for i in range(len(pdf))]


def _outline_titles(pdf: Any) -> list[str]:
    titles = []
    try:
        for item in pdf.get_toc(max_depth=6):
            titles.append(item.get_title() if hasattr(item, "get_title") else item.title)
    except pdfium.PdfiumError:
        return titles
    return titles


def _page_problems(pages: list[PageMarks]) -> list[Problem]:
    out = []
    for state, what, do in (
        ("no_text", "a picture without text", "have it recognised (OCR) or read it by eye"),
        ("failed", "damaged, nothing could be read", "fetch or export the file again"),
    ):
        numbers = [p.number for p in pages if p.state == state]
        if numbers:
            out.append(Problem(what, f"page{'s' * (len(numbers) > 1)} {_ranges(numbers)}", do))
    return out


def _ranges(numbers: list[int]) -> str:
    """Page numbers as a person writes them.

    >>> _ranges([1, 2, 3, 7])
    '1-3, 7'
    """
    runs: list[list[int]] = []
    for n in numbers:
        if runs and n == runs[-1][-1] + 1:
            runs[-1].append(n)
        else:
            runs.append([n])
    return ", ".join(str(r[0]) if len(r) == 1 else f"{r[0]}-{r[-1]}" for r in runs)
