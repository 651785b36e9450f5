"""PDF files with a text layer -> Document, through pdfium. Drawn bars over words read as blacked out."""

from __future__ import annotations

import math
import re
from array import array
from collections.abc import Callable, Sequence
from statistics import median
from typing import Any

import pypdfium2 as pdfium
import pypdfium2.raw as raw

from yarnex.core.document import Document, Mark, Page, Problem, Span
from yarnex.core.document.cite import DOUBTFUL
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.boxes import boxes_beside
from yarnex.core.reading.layout.columns import regions_of
from yarnex.core.reading.layout.continued_tables import join_tables
from yarnex.core.reading.layout.furniture import printed_labels, split_furniture
from yarnex.core.reading.layout.headings import full_numbers, mark_headings
from yarnex.core.reading.layout.linear import Linear, lay_out
from yarnex.core.reading.layout.lines import rows_of, segments_of
from yarnex.core.reading.layout.paragraphs import Draft, join_parts, paragraphs_of, usual_pitch
from yarnex.core.reading.layout.ruled_tables import ruled_tables
from yarnex.core.reading.layout.spaced_tables import spaced_tables
from yarnex.core.reading.layout.tables import TableDraft
from yarnex.core.reading.layout.words import PLACEHOLDER, PageMarks, Row, Word
from yarnex.core.reading.pdf_annotations import Annotations, Area
from yarnex.core.reading.pdf_marks import page_marks
from yarnex.core.reading.ranges import ranges
from yarnex.core.reading.recognising import LONG_SIDE, Recogniser
from yarnex.core.reading.shades import colour_name


def read_pdf(
    data: bytes,
    path: str,
    sha256: str,
    recognise: Recogniser | None = None,
    progress: Callable[[int, int], None] | None = None,
) -> Document:
    """The document in a PDF file's bytes. Raises UnreadableError for locked and broken files.

    recognise: reads pages without usable text from their picture; None leaves them unread, and says so.
    progress: called after each page with its number and the number of pages.
    """
    try:
        pdf = pdfium.PdfDocument(data)
    except pdfium.PdfiumError as error:
        if "assword" in str(error):
            raise UnreadableError(
                "locked with a password", where=path, do="save a copy without the password and read that"
            ) from None
        raise UnreadableError("not a complete PDF", where=path, do="fetch or export the file again") from None
    try:
        return _read_pages(pdf, path, sha256, recognise, progress)
    finally:
        pdf.close()


def _read_pages(
    pdf: Any, path: str, sha256: str, recognise: Recogniser | None, progress: Callable[[int, int], None] | None
) -> Document:
    pages: list[PageMarks] = []
    hanging: list[Annotations] = []
    form = None
    if pdf.get_formtype() != raw.FORMTYPE_NONE:
        pdf.init_forms()
        form = pdf.formenv.raw if pdf.formenv else None
    garbled: list[int] = []
    for index in range(len(pdf)):
        try:
            marks, notes = page_marks(pdf, index, form)
        except (pdfium.PdfiumError, ValueError):
            marks, notes = PageMarks(index + 1, 0, 0, [], state="failed", source=""), Annotations()
        if marks.state == "garbled":
            garbled.append(index + 1)
        if marks.state in ("no_text", "garbled") and recognise is not None:
            marks = _recognised_page(pdf, index, marks, recognise)
        pages.append(marks)
        hanging.append(notes)
        if progress is not None:
            progress(index + 1, len(pdf))
    if not pages:
        raise UnreadableError("a PDF without pages", where=path, do="fetch or export the file again")
    problems = []
    if garbled:
        read_again = [n for n in garbled if pages[n - 1].source == "recognised"]
        if read_again:
            problems.append(
                Problem(
                    "letters recorded wrongly in the file, so read from the picture of the page",
                    _pages_in_words(read_again),
                    serious=False,
                )
            )
    for page in pages:
        if page.state == "garbled":
            page.words, page.state, page.source = [], "no_text", ""
    return document_of(
        pages, path, sha256, recorded_labels=_recorded_labels(pdf), outline=_outline(pdf), title=pdf.get_metadata_value("Title").strip(),
        attachments=_attachments(pdf), hanging=hanging, problems=problems, properties=_properties(pdf),
    )  # fmt: skip


def _recognised_page(pdf: Any, index: int, marks: PageMarks, recognise: Recogniser) -> PageMarks:
    """The page read from its picture."""
    page = pdf[index]
    width, height = page.get_size()
    if not 0 < width < 15_000 or not 0 < height < 15_000:
        return marks
    scale = LONG_SIDE / max(width, height)
    try:
        picture = page.render(scale=scale, may_draw_forms=True).to_pil()
    except (pdfium.PdfiumError, MemoryError, ValueError):
        return marks
    finally:
        page.close()
    return recognised_marks(
        PageMarks(index + 1, width, height, [], pictures=max(1, marks.pictures), state="no_text", source=""),
        picture,
        scale,
        recognise,
    )


def recognised_marks(marks: PageMarks, picture: Any, scale: float, recognise: Recogniser) -> PageMarks:
    """A page's marks filled from its picture; the state stays "no_text" where nothing was recognised."""
    found = recognise(picture, scale)
    marks.words, marks.rules, marks.skew, marks.turned = found.words, found.rules, found.skew, found.turned
    marks.struck = found.struck
    if found.turned in (90, 270):
        marks.width, marks.height = marks.height, marks.width
    if found.words:
        marks.state, marks.source = "text", "recognised"
    elif min(picture.convert("L").getextrema()) > 225:
        marks.state = "blank"
    return marks


def document_of(
    pages: list[PageMarks], path: str, sha256: str, *, format: str = "pdf", recorded_labels: Sequence[str] = (), outline: Sequence[tuple[int, str, int]] = (),
    title: str = "", attachments: Sequence[str] = (), hanging: Sequence[Annotations] = (), problems: Sequence[Problem] = (),
    properties: Sequence[tuple[str, str]] = (),
) -> Document:  # fmt: skip
    """Marks of all pages -> the document. outline: the file's own, as (level from 1, title, page)."""
    drafts, furniture, labels = lay_out_pages(pages)
    titles = frozenset(" ".join(t.split()).lower() for _, t, _ in outline)
    words_on = [len(p.words) for p in pages]
    cover = (
        frozenset({1})
        if len(pages) > 2 and 0 < words_on[0] < 130 and words_on[0] < 0.5 * max(words_on)
        else frozenset()
    )
    drafts = mark_headings(drafts, titles, cover)
    full_numbers(drafts)
    linear = Linear(recognised=any(p.source == "recognised" for p in pages))
    body_end = lay_out(drafts, furniture, linear)
    _turn_back(linear, pages)
    for number, notes in enumerate(hanging, start=1):
        _hang(linear, number, notes)
    page_list = tuple(
        Page(
            p.number, (recorded_labels[i] if i < len(recorded_labels) else "") or labels[i], p.width, p.height, p.state, len(p.words),
            p.source if p.words else "", p.turned,
        )
        for i, p in enumerate(pages)
    )  # fmt: skip
    found = [*_page_problems(pages), *problems]
    if attachments:
        found.append(
            Problem(
                f"holds {len(attachments)} attached file{'s' * (len(attachments) > 1)}, not read: {', '.join(attachments)}",
                do="save them from the PDF and read them too",
                serious=False,
            )
        )
    return Document(
        path, format, sha256, "".join(linear.parts), body_end, page_list, tuple(linear.blocks), tuple(linear.tables),
        tuple(linear.sections), linear.fragments(), tuple(found), title, attachments=tuple(attachments), properties=tuple(properties),
        marks=tuple(sorted(linear.marks, key=lambda m: (m.span, m.kind, m.value))),
    )  # fmt: skip


def _turn_back(linear: Linear, pages: list[PageMarks]) -> None:
    """Boxes of pages that lay askew, from the straightened page to the page as it is."""
    askew = {p.number: p for p in pages if abs(p.skew) >= 0.05}
    for i, number in enumerate(linear.pages if askew else ()):
        page = askew.get(number)
        if page is None:
            continue
        x0, top, x1, bottom = linear.boxes[4 * i : 4 * i + 4]
        x, y = (x0 + x1) / 2 - page.width / 2, (top + bottom) / 2 - page.height / 2
        cosine, sine = math.cos(math.radians(page.skew)), math.sin(math.radians(page.skew))
        dx, dy = x * cosine - y * sine - x, x * sine + y * cosine - y
        linear.boxes[4 * i : 4 * i + 4] = array("f", (x0 + dx, top + dy, x1 + dx, bottom + dy))


def _hang(linear: Linear, page: int, notes: Annotations) -> None:
    """Comments, links and names of fields become marks on the words that stand in their areas."""
    if not (notes.comments or notes.links or notes.words):
        return
    here = [i for i, p in enumerate(linear.pages) if p == page]

    def inside(area: Area) -> list[int]:
        x0, top, x1, bottom = area
        out = []
        for i in here:
            a, b, c, d = linear.boxes[4 * i : 4 * i + 4]
            if x0 - 1 <= (a + c) / 2 <= x1 + 1 and top - 1 <= (b + d) / 2 <= bottom + 1:
                out.append(i)
        return out

    for area, kind, value in [
        *((a, "comment", v) for a, v in notes.comments),
        *((a, "link", v) for a, v in notes.links),
    ]:
        found = inside(area) or (here[:1] if kind == "comment" else [])
        for places in _runs(found):
            linear.marks.append(Mark(Span(linear.starts[places[0]], linear.ends[places[-1]]), kind, value))
            if kind == "comment":
                break
    for name, word in notes.words:
        if name:
            for i in inside((word.x0, word.top, word.x1, word.bottom)):
                linear.marks.append(Mark(Span(linear.starts[i], linear.ends[i]), "field", name))


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
        long_rules = [r for r in page.rules if r.horizontal and r.x1 - r.x0 > 60]
        for place, table in enumerate(found):
            mark = Word(PLACEHOLDER + str(place), table.x0, table.top, table.x1, table.bottom, 10.0, False)
            kept.extend(segments_of([mark]))
        areas = [(t.x0, t.top, t.x1, t.bottom) for t in found]
        boxes = boxes_beside(kept, page.rules, page.shades, areas, page.width)
        boxed = {id(s) for box in boxes for s in box}
        regions = [*regions_of([s for s in kept if id(s) not in boxed]), *boxes]
        for region in regions:
            region_rows = rows if len(regions) == 1 and not found else rows_of(region)
            if not region_rows:
                continue
            x0, x1 = min(r.x0 for r in region_rows), max(r.x1 for r in region_rows)
            separators = sorted({(r.top + r.bottom) / 2 for r in long_rules if r.x0 < x1 and r.x1 > x0})
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
            for draft in parts[-1] if id(region[0]) in boxed else ():
                draft.boxed = True
    furniture = [
        Draft("furniture", [(page.number, [w for s in row.segments for w in s.words])])
        for page, rows in zip(pages, furniture_rows, strict=True)
        for row in rows
    ]
    for page_drafts in parts:
        _shade(page_drafts, pages)
        _mark_labels(page_drafts)
        _mark_notes(page_drafts, pages)
    drafts = join_tables(join_parts(parts), furniture)
    return drafts, furniture, printed_labels(furniture_rows)


LABEL_WORDS = 8  # of a label that stands above its value in a cell
NOTE_MARK = pattern(r"(?:[¹²³⁴⁵⁶⁷⁸⁹]{1,2}|[*†‡§]{1,3}|\[\d{1,2}\]|\(?\d{1,2}\)?)(?=\s|[A-Z])")


def _mark_notes(drafts: list[Draft], pages: list[PageMarks]) -> None:
    """Small type low on a page that opens with a note's mark is a footnote: the text above does not run on into it."""
    sizes = [d.size for d in drafts if d.kind == "paragraph" for _ in d.lines]
    if not sizes:
        return
    usual = median(sizes)
    for draft in drafts:
        if draft.kind != "paragraph" or draft.size > 0.93 * usual:
            continue
        page, words = draft.lines[0]
        low = words[0].top > 0.6 * pages[page - 1].height
        if low and NOTE_MARK.match(draft.text):
            draft.kind = "note"


def _mark_labels(drafts: list[Draft]) -> None:
    """Cells of a form, whose label stands in small type above the value, know where the label ends."""
    for draft in drafts:
        for cell in draft.table.cells if draft.table is not None else ():
            if len(cell.lines) < 2 or cell.marks:
                continue
            label, value = cell.lines[0], cell.lines[1]
            if label.size < 0.85 * value.size and label.bottom <= value.middle and len(label.words) <= LABEL_WORDS:
                cell.marks.append((0, len(label.text), "label", label.text))


def _shade(drafts: list[Draft], pages: list[PageMarks]) -> None:
    """Cells on a coloured ground know its colour: the smallest filled area around their first word."""
    for draft in drafts:
        shades = pages[draft.table_page - 1].shades if draft.table is not None else []
        for cell in draft.table.cells if draft.table is not None and shades else ():
            if not cell.lines:
                continue
            word = cell.lines[0].words[0]
            x, y = (word.x0 + word.x1) / 2, (word.top + word.bottom) / 2
            around = [s for s in shades if s.x0 <= x <= s.x1 and s.top <= y <= s.bottom]
            if around:
                cell.shade = colour_name(min(around, key=lambda s: (s.x1 - s.x0) * (s.bottom - s.top)).colour)


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


def _runs(numbers: list[int]) -> list[list[int]]:
    """Numbers in order -> stretches without gaps."""
    out: list[list[int]] = []
    for n in numbers:
        if out and n == out[-1][-1] + 1:
            out[-1].append(n)
        else:
            out.append([n])
    return out


def _outline(pdf: Any) -> list[tuple[int, str, int]]:
    """The file's own outline: level from 1, title, page (0 where it leads nowhere)."""
    out: list[tuple[int, str, int]] = []
    try:
        for item in pdf.get_toc(max_depth=6):
            title = item.get_title() if hasattr(item, "get_title") else item.title
            place = item.get_dest() if hasattr(item, "get_dest") else None
            page = place.get_index() if place is not None else getattr(item, "page_index", None)
            out.append((item.level + 1, " ".join(title.split()), (page + 1) if page is not None else 0))
            if len(out) > 20_000:
                break
    except (pdfium.PdfiumError, ValueError):
        return out
    return [o for o in out if o[1]]


def _attachments(pdf: Any) -> list[str]:
    """Names of files attached to a PDF."""
    try:
        return [
            " ".join(pdf.get_attachment(i).get_name().split()) or f"attachment {i + 1}"
            for i in range(min(pdf.count_attachments(), 500))
        ]
    except (pdfium.PdfiumError, ValueError):
        return []


def _properties(pdf: Any) -> list[tuple[str, str]]:
    """Who made the file and when, as it records them; dates in ISO 8601 where they parse (ISO 32000-1, 7.9.4)."""
    out = []
    if author := pdf.get_metadata_value("Author").strip():
        out.append(("author", author))
    for key, label in (("CreationDate", "created"), ("ModDate", "changed")):
        if m := re.match(r"D:(\d{4})(\d{2})(\d{2})", pdf.get_metadata_value(key)):
            out.append((label, "-".join(m.groups())))
    return out


def _pages_in_words(numbers: list[int]) -> str:
    return f"page{'s' * (len(numbers) > 1)} {ranges(numbers)}"


def _page_problems(pages: list[PageMarks]) -> list[Problem]:
    out = []
    for state, what, do in (
        ("no_text", "a picture without text that could be read", "look at it in the file"),
        ("failed", "damaged, nothing could be read", "fetch or export the file again"),
    ):
        numbers = [p.number for p in pages if p.state == state]
        if numbers:
            out.append(Problem(what, _pages_in_words(numbers), do))
    recognised = [p for p in pages if p.source == "recognised" and p.words]
    if recognised:
        doubtful = [w.text for p in recognised for w in p.words if w.certainty < DOUBTFUL]
        what = "recognised from a picture"
        if doubtful:
            shown = ", ".join(f"“{w}”" for w in doubtful[:6])
            what += f"; {len(doubtful)} of {sum(len(p.words) for p in recognised)} words doubtful ({shown}{' …' if len(doubtful) > 6 else ''})"
        out.append(
            Problem(
                what,
                _pages_in_words([p.number for p in recognised]),
                "check what matters against the page",
                serious=False,
            )
        )
    for page in pages:
        if page.struck:
            words = " ".join(page.struck)
            out.append(
                Problem(
                    f"words struck out by hand left out: “{words[:200]}”",
                    f"page {page.number}",
                    "look at the page",
                    serious=False,
                )
            )
    turned = [p.number for p in pages if p.turned]
    if turned:
        out.append(
            Problem("lying on its side or upside down; read turned upright", _pages_in_words(turned), serious=False)
        )
    return out
