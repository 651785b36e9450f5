"""Presentations (PPTX) -> Document: slides as pages, titles as headings, tables, the numbers of charts, notes."""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from decimal import Decimal
from typing import Any

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.inline import Inline, heading, paragraph
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import TableDraft, header_rows
from yarnex.core.reading.number_format import shown
from yarnex.core.reading.package import BROKEN, Package, core_properties
from yarnex.core.reading.structure import structure

FURNITURE = ("DATE", "FOOTER", "SLIDE_NUMBER")


def read_pptx(data: bytes, path: str, sha256: str) -> Document:
    """The document in a presentation's bytes. Raises UnreadableError where it is none."""
    package = Package(data, path, "presentation (.pptx)")
    from pptx import Presentation
    from pptx.exc import PythonPptxError

    try:
        for name in package.names:
            if name.endswith((".xml", ".rels")):
                package.bytes_of(name)
        deck = Presentation(io.BytesIO(data))
        slides = list(deck.slides)
    except (*BROKEN, PythonPptxError, TypeError, AttributeError):
        raise UnreadableError(
            "not a complete presentation (.pptx)", where=path, do="open it in its program and save it again"
        ) from None
    drafts: list[Draft] = []
    furniture: list[Draft] = []
    names: list[str] = []
    hidden: list[int] = []
    problems: list[Problem] = []
    for number, slide in enumerate(slides, start=1):
        reader = _SlideReader(number)
        try:
            reader.read(slide)
        except (*BROKEN, PythonPptxError, TypeError, AttributeError) as error:
            problems.append(
                Problem(
                    f"a damaged part ({type(error).__name__}); the rest is read",
                    f"slide {number}",
                    "save the presentation again",
                )
            )
        drafts += reader.drafts
        furniture += reader.furniture
        names.append(reader.title)
        if slide._element.get("show") in ("0", "false"):
            hidden.append(number)
        if reader.pictures and not reader.drafts:
            problems.append(Problem("a picture without text", f"slide {number}", "look at it in the file"))
        elif reader.pictures:
            problems.append(
                Problem(
                    f"{reader.pictures} picture{'s' * (reader.pictures > 1)}, whose words are not read",
                    f"slide {number}",
                    serious=False,
                )
            )
    problems += [Problem("a hidden slide; read all the same", f"slide {n}", serious=False) for n in hidden]
    title, properties = core_properties(package)
    return assemble(
        structure(drafts), path=path, format="pptx", sha256=sha256, furniture=furniture, pages=len(slides), page_names=names, paging="slide",
        hidden_pages=frozenset(hidden), problems=problems, title="" if title == "PowerPoint Presentation" else title, properties=properties,
    )  # fmt: skip


ROW = 300_000  # a third of an inch, in the file's units: shapes that begin within it stand in one row
CARD = 60  # letters of a caption or a figure
FIGURE = pattern(
    r"[+–−-]?\s?(?:[£$€¥₹]|[A-Z]{2,3}\$?)?\s?[+–−-]?\(?\d[\d.,]*\)?\s?(?:%|[a-zA-Z]{1,3}\b|million|billion|per cent|pence)?"
)


class _SlideReader:
    """Gathers the drafts of one slide."""

    def __init__(self, number: int) -> None:
        self.number = number
        self.title = ""
        self.pictures = 0
        self.drafts: list[Draft] = []
        self.furniture: list[Draft] = []

    def read(self, slide: Any) -> None:
        head = slide.shapes.title
        if head is not None and head.has_text_frame and head.text_frame.text.strip():
            self.title = " ".join(head.text_frame.text.split())
            self.drafts.append(heading(self.title, 1, self.number))
        shapes = [s for s in _flat(slide.shapes) if head is None or s.shape_id != head.shape_id]
        ordered = sorted(shapes, key=lambda s: ((s.top or 0) // ROW, s.left or 0))
        cards = _cards(ordered)
        for shape in ordered:
            if shape.shape_id not in cards:
                self._shape(shape)
            elif (rows := cards[shape.shape_id]) is not None:
                self.drafts.append(Draft("table", table=_grid(rows, header=0), table_page=self.number))
        if slide.has_notes_slide and slide.notes_slide.notes_text_frame is not None:
            for para in slide.notes_slide.notes_text_frame.paragraphs:
                if para.text.strip():
                    self.drafts.append(paragraph(para.text, self.number, "note"))

    def _shape(self, shape: Any) -> None:
        if getattr(shape, "has_table", False) and shape.has_table:
            self.drafts.append(Draft("table", table=_table(shape.table), table_page=self.number))
        elif getattr(shape, "has_chart", False) and shape.has_chart:
            self._chart(shape.chart)
        elif shape.has_text_frame:
            kind = str(shape.placeholder_format.type) if shape.is_placeholder else ""
            for para in shape.text_frame.paragraphs:
                inline = Inline(self.number)
                for run in para.runs:
                    inline.put(run.text, bool(run.font.bold))
                if inline.empty and para.text.strip():
                    inline.put(para.text)
                draft = inline.draft()
                if draft is None:
                    continue
                if any(word in kind for word in FURNITURE):
                    draft.kind = "furniture"
                    self.furniture.append(draft)
                else:
                    self.drafts.append(draft)
        elif shape.shape_type is not None and "PICTURE" in str(shape.shape_type):
            self.pictures += 1

    def _chart(self, chart: Any) -> None:
        """The numbers behind a chart, as the table from which it is drawn."""
        if chart.has_title and chart.chart_title.has_text_frame and chart.chart_title.text_frame.text.strip():
            self.drafts.append(paragraph(chart.chart_title.text_frame.text, self.number))
        for plot in chart.plots:
            series = list(plot.series)
            categories = [str(c) for c in plot.categories]
            count = max([len(categories), *(len(list(s.values)) for s in series)], default=0)
            if not series or not count:
                continue
            rows = [["", *(s.name or "" for s in series)]]
            for i in range(count):
                row = [categories[i] if i < len(categories) else str(i + 1)]
                for one in series:
                    values = list(one.values)
                    value = values[i] if i < len(values) else None
                    row.append("" if value is None else shown(Decimal(repr(value)), _format_of(one)))
                rows.append(row)
            self.drafts.append(Draft("table", table=_grid(rows, header=1), table_page=self.number))


def _cards(shapes: list[Any]) -> dict[int, list[list[str]] | None]:
    """Big figures with their captions, as label and value: rows of a table by the id of the shape in whose place it stands.

    A card is one shape of two paragraphs, or a shape with one below it; the ids of the other shapes go with None.
    """
    out: dict[int, list[list[str]] | None] = {}
    lines = {s.shape_id: _lines_of(s) for s in shapes}
    pairs: list[tuple[list[int], list[str]]] = []
    for place, shape in enumerate(shapes):
        own = lines[shape.shape_id]
        if len(own) == 2 and (card := _card(own)):
            pairs.append(([shape.shape_id], card))
        elif len(own) == 1:
            below = next(
                (
                    s for s in shapes[place + 1 :]
                    if len(lines[s.shape_id]) == 1 and abs((s.left or 0) - (shape.left or 0)) < ROW
                    and (shape.top or 0) < (s.top or 0) <= (shape.top or 0) + (shape.height or 0) + ROW
                ),
                None,
            )  # fmt: skip
            if below is not None and (card := _card([*own, *lines[below.shape_id]])):
                pairs.append(([shape.shape_id, below.shape_id], card))
    if len(pairs) >= 2:
        out = {i: None for ids, _ in pairs for i in ids}
        out[pairs[0][0][0]] = [card for _, card in pairs]
    return out


def _card(two: list[str]) -> list[str] | None:
    """[label, value] of a short caption and a figure, in whichever order they stand."""
    figures = [bool(FIGURE.match(t)) for t in two]
    if sum(figures) != 1 or any(len(t) > CARD for t in two):
        return None
    value = figures.index(True)
    return [two[1 - value], two[value]] if re.search(r"[A-Za-z]{2}", two[1 - value]) else None


def _lines_of(shape: Any) -> list[str]:
    if getattr(shape, "has_table", False) or not shape.has_text_frame:
        return []
    return [" ".join(p.text.split()) for p in shape.text_frame.paragraphs if p.text.strip()]


def _format_of(series: Any) -> str:
    """The number format that a chart's data carries in the file."""
    for element in series._element.iter():
        if str(element.tag).endswith("}formatCode") and element.text:
            return str(element.text)
    return "General"


def _flat(shapes: Any) -> Iterator[Any]:
    for shape in shapes:
        if shape.shape_type is not None and "GROUP" in str(shape.shape_type):
            yield from _flat(shape.shapes)
        else:
            yield shape


def _table(table: Any) -> TableDraft:
    cells = []
    for r, row in enumerate(table.rows):
        for c, cell in enumerate(row.cells):
            if cell.is_spanned:
                continue
            inline = Inline()
            for para in cell.text_frame.paragraphs:
                for run in para.runs:
                    inline.put(run.text, bool(run.font.bold))
                inline.put("\n")
            tall, wide = (cell.span_height, cell.span_width) if cell.is_merge_origin else (1, 1)
            cells.append(inline.cell(r, c, tall, wide))
    draft = TableDraft(cells, len(table.rows), len(table.columns), 0, True, 0, 0, 0, 0)
    draft.header_rows = int(bool(table.first_row) and len(table.rows) > 1) or header_rows(draft)
    return draft


def _grid(rows: list[list[str]], header: int) -> TableDraft:
    cells = []
    for r, row in enumerate(rows):
        for c, text in enumerate(row):
            inline = Inline()
            inline.put(text, r < header)
            cells.append(inline.cell(r, c))
    return TableDraft(cells, len(rows), max(map(len, rows)), header, True, 0, 0, 0, 0)
