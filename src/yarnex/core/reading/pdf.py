"""PDF files with a text layer -> Document, through pdfium. Drawn bars over words read as blacked out."""

from __future__ import annotations

import ctypes
import re
from typing import Any

import pypdfium2 as pdfium
import pypdfium2.raw as raw

from yarnex.core.document import Document, Page, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.layout.columns import regions_of
from yarnex.core.reading.layout.furniture import printed_labels, split_furniture
from yarnex.core.reading.layout.headings import full_numbers, mark_headings
from yarnex.core.reading.layout.linear import Linear, lay_out
from yarnex.core.reading.layout.lines import rows_of, segments_of
from yarnex.core.reading.layout.paragraphs import Draft, join_parts, paragraphs_of, usual_pitch
from yarnex.core.reading.layout.tables import PLACEHOLDER, TableDraft, ruled_tables, spaced_tables
from yarnex.core.reading.layout.words import REDACTED, PageMarks, Row, Rule, Word

TOKEN = re.compile(r"[^\s\x00-\x01\x03-\x1f\ufffe\uffff]+")
LIGATURES = str.maketrans(
    {"ﬀ": "ff", "ﬁ": "fi", "ﬂ": "fl", "ﬃ": "ffi", "ﬄ": "ffl", "ﬅ": "st", "ﬆ": "st", "\u200b": "", "\ufeff": ""}
)
THIN = 2.6  # points: a path flatter than this is a line
DARK = 70  # of 255: a fill darker than this hides what is under it


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
            pages.append(_page_marks(pdf, index))
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


# ------------------------------------------------------------------ pdfium
def _page_marks(pdf: Any, index: int) -> PageMarks:
    """Words with boxes, rules and black bars of one page."""
    page = pdf[index]
    width, height = page.get_size()
    place = _placer(page, width, height)
    text_page = raw.FPDFText_LoadPage(page.raw)
    if not text_page:
        raise pdfium.PdfiumError("no text page")
    try:
        words, owners = _words(text_page, place)
        rules, bars, pictures = _drawings(page.raw, place)
        if bars:
            words = _black_out(page.raw, words, owners, bars)
    finally:
        raw.FPDFText_ClosePage(text_page)
    state = "text" if words else ("no_text" if pictures else "blank")
    if words and pictures and len(words) < 4:
        state = "no_text"
    page.close()
    return PageMarks(index + 1, width, height, words, rules, pictures, state)


def _placer(page: Any, width: float, height: float) -> Any:
    """A function from PDF coordinates to points from the top left of the page as shown."""
    left, bottom, right, top = page.get_cropbox() if page.get_cropbox() else page.get_mediabox()
    turn = page.get_rotation()
    if turn == 0:
        return lambda x0, y0, x1, y1: (x0 - left, top - y1, x1 - left, top - y0)
    if turn == 90:
        return lambda x0, y0, x1, y1: (y0 - bottom, x0 - left, y1 - bottom, x1 - left)
    if turn == 180:
        return lambda x0, y0, x1, y1: (right - x1, y0 - bottom, right - x0, y1 - bottom)
    return lambda x0, y0, x1, y1: (top - y1, right - x1, top - y0, right - x0)


def _words(text_page: Any, place: Any) -> tuple[list[Word], list[int]]:
    """The words of a page in the file's order, and the text object that each came from."""
    count = raw.FPDFText_CountChars(text_page)
    if count <= 0:
        return [], []
    buffer = (ctypes.c_ushort * (count + 1))()
    raw.FPDFText_GetText(text_page, 0, count, buffer)
    text = bytes(buffer).decode("utf-16-le", "replace").split("\x00", 1)[0]
    exact = len(text) == count
    first, last = raw.FS_RECTF(), raw.FS_RECTF()
    first_at, last_at = ctypes.byref(first), ctypes.byref(last)
    loose, object_of, char_of = (
        raw.FPDFText_GetLooseCharBox,
        raw.FPDFText_GetTextObject,
        raw.FPDFText_GetCharIndexFromTextIndex,
    )
    styles: dict[int, tuple[float, bool]] = {}
    fonts: dict[int, bool] = {}
    words: list[Word] = []
    owners: list[int] = []
    for m in TOKEN.finditer(text):
        a, b = m.start(), m.end() - 1
        if not exact:
            a, b = char_of(text_page, a), char_of(text_page, b)
            if a < 0 or b < 0:
                continue
        if not loose(text_page, a, first_at) or not loose(text_page, b, last_at):
            continue
        holder = object_of(text_page, a)
        owner = ctypes.cast(holder, ctypes.c_void_p).value or 0
        style = styles.get(owner)
        if style is None:
            style = styles[owner] = _style(text_page, a, holder, fonts)
        size, bold = style
        x0, top, x1, bottom = place(
            min(first.left, last.left),
            min(first.bottom, last.bottom),
            max(first.right, last.right),
            max(first.top, last.top),
        )
        token = m.group()
        if not token.isascii():
            token = token.translate(LIGATURES)
            if not token:
                continue
        elif "\x02" in token:
            token = token.replace("\x02", "-")
        words.append(Word(token, x0, top, x1, bottom, size or bottom - top, bold))
        owners.append(owner)
    return words, owners


def _style(text_page: Any, char: int, holder: Any, fonts: dict[int, bool]) -> tuple[float, bool]:
    """Size of type as shown (the text matrix may scale it) and whether the font is a bold one."""
    box = raw.FS_RECTF()
    raw.FPDFText_GetLooseCharBox(text_page, char, ctypes.byref(box))
    size = raw.FPDFText_GetFontSize(text_page, char)
    matrix = raw.FS_MATRIX()
    if holder and raw.FPDFPageObj_GetMatrix(holder, ctypes.byref(matrix)):
        scale = (matrix.b**2 + matrix.d**2) ** 0.5
        size = size * scale if 0.01 < scale < 100 and size * scale < 200 else size
    font = raw.FPDFTextObj_GetFont(holder) if holder else None
    if not font:
        return size, False
    key = ctypes.cast(font, ctypes.c_void_p).value or 0
    if key not in fonts:
        name = ctypes.create_string_buffer(256)
        raw.FPDFFont_GetBaseFontName(font, name, 256)
        said = name.value.decode("latin-1", "replace").lower()
        weight = raw.FPDFFont_GetWeight(font)
        fonts[key] = weight >= 600 or any(mark in said for mark in ("bold", "black", "heavy", "-bd", "demi"))
    return size, fonts[key]


Bar = tuple[float, float, float, float, int]


def _drawings(page: Any, place: Any) -> tuple[list[Rule], list[Bar], int]:
    """Straight lines, dark bars (with their place in drawing order) and the number of pictures."""
    rules: list[Rule] = []
    bars: list[Bar] = []
    pictures = 0
    f = [ctypes.c_float() for _ in range(4)]
    refs = [ctypes.byref(c) for c in f]
    colour = [ctypes.c_uint() for _ in range(4)]
    shades = [ctypes.byref(c) for c in colour]
    mode, stroke = ctypes.c_int(), ctypes.c_int()
    for index in range(raw.FPDFPage_CountObjects(page)):
        item = raw.FPDFPage_GetObject(page, index)
        kind = raw.FPDFPageObj_GetType(item)
        if kind == raw.FPDF_PAGEOBJ_IMAGE:
            pictures += 1
            continue
        if kind != raw.FPDF_PAGEOBJ_PATH or not raw.FPDFPageObj_GetBounds(item, *refs):
            continue
        x0, top, x1, bottom = place(f[0].value, f[1].value, f[2].value, f[3].value)
        wide, tall = x1 - x0, bottom - top
        if tall <= THIN or wide <= THIN:
            if max(wide, tall) > 6:
                rules.append(Rule(x0, top, x1, bottom))
            continue
        raw.FPDFPath_GetDrawMode(item, ctypes.byref(mode), ctypes.byref(stroke))
        simple = raw.FPDFPath_CountSegments(item) <= 6
        dark = False
        if mode.value and simple and wide > 6 and 4 < tall < 200:
            raw.FPDFPageObj_GetFillColor(item, *shades)
            dark = max(c.value for c in colour[:3]) < DARK and colour[3].value > 200
            if dark:
                bars.append((x0, top, x1, bottom, index))
        if stroke.value or (mode.value and simple and not dark and wide > 12 and tall < 260):
            rules += [
                Rule(x0, top, x1, top),
                Rule(x0, bottom, x1, bottom),
                Rule(x0, top, x0, bottom),
                Rule(x1, top, x1, bottom),
            ]
    return rules, bars, pictures


def _black_out(page: Any, words: list[Word], owners: list[int], bars: list[Bar]) -> list[Word]:
    """Words under a dark bar are taken out; a mark for the bar takes their place.

    Light words on a dark ground that were drawn after it (a table heading) stay.
    """
    order: dict[int, int] = {}
    light: dict[int, bool] = {}
    colour = [ctypes.c_uint() for _ in range(4)]
    for index in range(raw.FPDFPage_CountObjects(page)):
        item = raw.FPDFPage_GetObject(page, index)
        if raw.FPDFPageObj_GetType(item) == raw.FPDF_PAGEOBJ_TEXT:
            key = ctypes.cast(item, ctypes.c_void_p).value or 0
            order[key] = index
            raw.FPDFPageObj_GetFillColor(item, *[ctypes.byref(c) for c in colour])
            light[key] = sum(c.value for c in colour[:3]) > 330
    kept: list[Word] = []
    used: set[int] = set()
    shown: set[int] = set()
    hidden_by: dict[int, int] = {}
    for i, (word, owner) in enumerate(zip(words, owners, strict=True)):
        x, y = (word.x0 + word.x1) / 2, (word.top + word.bottom) / 2
        for place, (x0, top, x1, bottom, index) in enumerate(bars):
            if x0 <= x <= x1 and top <= y <= bottom:
                if light.get(owner, False) and order.get(owner, -1) > index:
                    shown.add(place)
                else:
                    hidden_by[i] = place
    for i, word in enumerate(words):
        hiding = hidden_by.get(i)
        if hiding is None:
            kept.append(word)
        elif hiding not in used and hiding not in shown:
            used.add(hiding)
            kept.append(_bar_word(bars[hiding], word.size))
    for place, bar in enumerate(bars):
        if place not in used and place not in shown and bar[2] - bar[0] < 400 and bar[3] - bar[1] < 30:
            _insert(kept, _bar_word(bar, min(12.0, bar[3] - bar[1])))
    return kept


def _bar_word(bar: Bar, size: float) -> Word:
    x0, top, x1, bottom, _ = bar
    return Word(REDACTED * max(3, min(20, round((x1 - x0) / max(size * 0.55, 3)))), x0, top, x1, bottom, size, False)


def _insert(words: list[Word], bar: Word) -> None:
    """Put a bar without words under it after the nearest word to its left on the same line."""
    middle = (bar.top + bar.bottom) / 2
    near = [i for i, w in enumerate(words) if w.top - 1 <= middle <= w.bottom + 1 and w.x0 < bar.x0]
    if near:
        words.insert(max(near, key=lambda i: words[i].x1) + 1, bar)


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
            out.append(Problem(what, f"page {_ranges(numbers)}", do))
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
