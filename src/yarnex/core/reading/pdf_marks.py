"""What pdfium knows of one page -> words with boxes, drawn lines, black bars.

pdfium is called through pypdfium2; the few functions that are called for every word go through prototypes that pass
plain addresses, as building a pointer object for each call takes longer than the call.
"""

from __future__ import annotations

import ctypes
import unicodedata
from collections.abc import Callable
from typing import Any

import pypdfium2 as pdfium
import pypdfium2.raw as raw

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.words import AS_RAISED, REDACTED, PageMarks, Rule, Shade, Word
from yarnex.core.reading.pdf_annotations import Annotations, annotations_of

TOKEN = pattern(r"[^\s\x00-\x1f\ufffe\uffff]+[\x02\ufffe]?")  # pdfium marks a hyphen at a line end with these
LINE = pattern(r"[^\r\n]+")
LIGATURES = str.maketrans(
    {
        "ﬀ": "ff",
        "ﬁ": "fi",
        "ﬂ": "fl",
        "ﬃ": "ffi",
        "ﬄ": "ffl",
        "ﬅ": "st",
        "ﬆ": "st",
        "\u200b": "",
        "\ue000": "",
        "\ufeff": "",
        "\x02": "-",
        "\ufffe": "-",
    }
)
UNITS_RAISED = ("m", "ft", "cm", "km", "mm", "in", "yd")
TOUCHING = 0.06  # of the size of type: letters of one word
SMALL, LIFTED = 0.85, 0.15  # of the size of type beside them
ASCENT, DESCENT = 0.78, 0.22  # of the size of type, above and below the line: usual for text faces
THIN = 2.6  # points: a path flatter than this is a line
DARK = 70  # of 255: a fill darker than this hides what is under it
MAX_SEGMENTS = 2000  # of a path; one with more is a drawing, not a table
SPARSE = 25  # words: a page with fewer, mostly covered by a picture, is a picture with a stamp or a line on it
HEAVY = ("bold", "black", "heavy", "-bd", "demi")


def _direct(function: Any, result: Any, *arguments: Any) -> Any:
    """A pdfium function that takes and gives plain numbers and addresses."""
    return ctypes.CFUNCTYPE(result, *arguments)(ctypes.cast(function, ctypes.c_void_p).value or 0)


_P, _I, _F = ctypes.c_void_p, ctypes.c_int, ctypes.c_float
loose_box = _direct(raw.FPDFText_GetLooseCharBox, _I, _P, _I, _P)
char_origin = _direct(raw.FPDFText_GetCharOrigin, _I, _P, _I, _P, _P)
char_angle = _direct(raw.FPDFText_GetCharAngle, _F, _P, _I)
render_mode = _direct(raw.FPDFTextObj_GetTextRenderMode, _I, _P)
text_object = _direct(raw.FPDFText_GetTextObject, _P, _P, _I)
font_size = _direct(raw.FPDFText_GetFontSize, ctypes.c_double, _P, _I)
object_font = _direct(raw.FPDFTextObj_GetFont, _P, _P)
object_matrix = _direct(raw.FPDFPageObj_GetMatrix, _I, _P, _P)
get_object = _direct(raw.FPDFPage_GetObject, _P, _P, _I)
object_type = _direct(raw.FPDFPageObj_GetType, _I, _P)
object_bounds = _direct(raw.FPDFPageObj_GetBounds, _I, _P, _P, _P, _P, _P)
fill_colour = _direct(raw.FPDFPageObj_GetFillColor, _I, _P, _P, _P, _P, _P)
draw_mode = _direct(raw.FPDFPath_GetDrawMode, _I, _P, _P, _P)
count_segments = _direct(raw.FPDFPath_CountSegments, _I, _P)
path_segment = _direct(raw.FPDFPath_GetPathSegment, _P, _P, _I)
segment_point = _direct(raw.FPDFPathSegment_GetPoint, _I, _P, _P, _P)
segment_type = _direct(raw.FPDFPathSegment_GetType, _I, _P)
font_name = _direct(raw.FPDFFont_GetBaseFontName, ctypes.c_size_t, _P, _P, ctypes.c_size_t)
font_weight = _direct(raw.FPDFFont_GetWeight, _I, _P)

Place = Callable[[float, float, float, float], tuple[float, float, float, float]]
Bar = tuple[float, float, float, float, int]


def page_marks(pdf: Any, index: int, form: Any = None) -> tuple[PageMarks, Annotations]:
    """Marks of one page, and what hangs on it. Raises PdfiumError for a page that cannot be loaded.

    form: the document's form environment, None where it has no form.
    """
    page = pdf[index]
    width, height = page.get_size()
    turn = page.get_rotation()
    text_page = raw.FPDFText_LoadPage(page.raw)
    if not text_page:
        raise pdfium.PdfiumError("no text page")
    try:
        runs = _direction(text_page)  # degrees anticlockwise in which the text of the page runs
        place = _placer(page, runs if runs is not None else turn)
        turned = ((runs if runs is not None else turn) - turn) % 360
        if turned in (90, 270):
            width, height = height, width
        words, owners = _words(text_page, place, straight=not runs)
        address = _address(page.raw)
        count = raw.FPDFPage_CountObjects(page.raw)
        rules, bars, pictures, shades, covered = _drawings(address, count, place)
        notes = annotations_of(page, pdf.raw, form, place) if raw.FPDFPage_GetAnnotCount(page.raw) else Annotations()
        bars += [(*area, count + 1) for area in notes.redactions]
        if bars:
            words = _black_out(address, count, words, owners, bars)
        words += [w for _, w in notes.words]
        unseen = (
            sum(render_mode(o) == raw.FPDF_TEXTRENDERMODE_INVISIBLE for o in owners[:200] if o)
            > 0.5 * min(len(owners), 200)
            > 0
        )
    finally:
        raw.FPDFText_ClosePage(text_page)
    state = "text" if words else ("no_text" if pictures else "blank")
    if words and pictures and (len(words) < 4 or (len(words) < SPARSE and covered > 0.6 * width * height)):
        state = "no_text"
    elif words and garbled([w.text for w in words]):
        state = "garbled"
    page.close()
    source = "" if state == "blank" else "hidden" if unseen else "printed"
    return PageMarks(index + 1, width, height, words, rules, pictures, state, source, turned, shades), notes


def garbled(words: list[str]) -> bool:
    """True where the letters that the file records are not those that it shows (a missing or wrong Unicode map).

    Signs that no text uses, or Latin letters of which hardly any are vowels, give it away.
    """
    text = "".join(words)
    if len(text) < 60:
        return False
    if text.isascii():
        odd = len(CONTROL.findall(text))
    else:
        odd = sum(1 for c in NOT_ASCII.findall(text) if c == "\ufffd" or unicodedata.category(c) in ("Co", "Cn", "Cc"))
    if odd > 0.12 * len(text):
        return True
    latin = len(LATIN.findall(text))
    vowels = len(VOWEL.findall(text))
    if latin <= 150 or vowels >= 0.25 * latin:
        return False
    symbols = sum(not c.isalnum() for c in text)
    return vowels < 0.17 * latin or symbols > 0.45 * len(text)


CONTROL = pattern(r"[\x00-\x1f\x7f]")
NOT_ASCII = pattern(r"[^\x20-\x7e]")
LATIN = pattern(r"[A-Za-z]")
VOWEL = pattern(r"[aeiouyAEIOUY]")


def _direction(text_page: Any) -> int | None:
    """Degrees anticlockwise in which most of a page's text runs (0, 90, 180, 270); None where it has none."""
    count = raw.FPDFText_CountChars(text_page)
    if count <= 0:
        return None
    page = _address(text_page)
    step = max(1, count // 24)
    votes: dict[int, int] = {}
    for i in range(0, count, step):
        angle = char_angle(page, i)
        if angle >= 0:
            near = -round(angle * 180 / 3.141592653589793 / 90) % 4 * 90  # pdfium counts clockwise
            votes[near] = votes.get(near, 0) + 1
    return max(votes, key=lambda a: votes[a]) if votes else None


def _address(pointer: Any) -> int:
    return ctypes.cast(pointer, ctypes.c_void_p).value or 0


def _placer(page: Any, turn: int) -> Place:
    """A function from PDF coordinates to points from the top left of the page, turned so that its text is upright."""
    left, bottom, right, top = page.get_bbox()  # as shown: cropped, and inherited where the page itself names no box
    if turn == 0:
        return lambda x0, y0, x1, y1: (x0 - left, top - y1, x1 - left, top - y0)
    if turn == 90:
        return lambda x0, y0, x1, y1: (y0 - bottom, x0 - left, y1 - bottom, x1 - left)
    if turn == 180:
        return lambda x0, y0, x1, y1: (right - x1, y0 - bottom, right - x0, y1 - bottom)
    return lambda x0, y0, x1, y1: (top - y1, right - x1, top - y0, right - x0)


def _words(text_page: Any, place: Place, straight: bool) -> tuple[list[Word], list[int]]:
    """The words of a page in the file's order, and the text object that each came from.

    straight: the text runs from left to right in the page's own coordinates, so that base lines can be used.
    """
    count = raw.FPDFText_CountChars(text_page)
    if count <= 0:
        return [], []
    buffer = (ctypes.c_ushort * (count + 1))()
    raw.FPDFText_GetText(text_page, 0, count, buffer)
    text = bytes(buffer).decode("utf-16-le", "replace").split("\x00", 1)[0]
    exact = len(text) == count
    page = _address(text_page)
    origin = (ctypes.c_double * 2)()
    x_at = ctypes.addressof(origin)
    y_at = x_at + 8
    last = (ctypes.c_float * 4)()  # FS_RECTF: left, top, right, bottom
    last_at = ctypes.addressof(last)
    first = (ctypes.c_float * 4)()
    first_at = ctypes.addressof(first)
    char_of = raw.FPDFText_GetCharIndexFromTextIndex
    new = tuple.__new__
    styles: dict[int, tuple[float, bool]] = {}
    fonts: dict[int, bool] = {}
    words: list[Word] = []
    owners: list[int] = []
    before = 0.0, 0.0, 0.0  # base line, size of type and end of the word before
    for line in LINE.finditer(text):
        tokens = [(*m.span(), m.group()) for m in TOKEN.finditer(text, line.start(), line.end())]
        if not exact:
            tokens = [(char_of(text_page, a), char_of(text_page, b - 1) + 1, token) for a, b, token in tokens]
            tokens = [t for t in tokens if t[0] >= 0 and t[1] > 0]
        if not tokens:
            continue
        owner = text_object(page, tokens[0][0]) or 0
        one = len(tokens) == 1 or owner == (text_object(page, tokens[-1][0]) or 0)
        for a, b, token in tokens:
            if not char_origin(page, a, x_at, y_at) or not loose_box(page, b - 1, last_at):
                continue
            if not one:
                owner = text_object(page, a) or 0
            style = styles.get(owner)
            if style is None:
                style = styles[owner] = _style(page, a, owner, fonts)
            size = style[0] or abs(last[1] - last[3])
            left, base = (
                origin  # the height is taken from the line and the size: what fonts say of theirs cannot be relied on
            )
            right = last[2]
            if not straight:
                if not loose_box(page, a, first_at):
                    continue
                edges = min(first[0], last[0]), min(first[3], last[3]), max(first[2], last[2]), max(first[1], last[1])
                x0, top, x1, bottom = place(*edges)
                base = bottom - (bottom - top - size) / 2 if bottom - top > size else bottom
                words.append(
                    new(Word, (token.translate(LIGATURES) or token, x0, base - size, x1, base, size, style[1], 100))
                )
                owners.append(owner)
                continue
            lifted = before[0] + LIFTED * before[1] < base < before[0] + before[1]
            if (
                token.isdigit()
                and len(token) < 3
                and size < SMALL * before[1]
                and lifted
                and 0 <= left - before[2] < size
            ):
                token = token.translate(AS_RAISED)
                base, size, _ = before
            joined = words and token[0].isalpha() and words[-1].text[-1].isalpha() and (base, size) == before[:2]
            if joined and abs(left - before[2]) < TOUCHING * size and len(token) == 1:
                text_so_far, *box_so_far = words[-1][:5]  # letters that the file sets one by one
                words[-1] = new(Word, (text_so_far + token, *box_so_far[:2], right, box_so_far[3], size, style[1], 100))
                before = base, size, right
                continue
            before = base, size, right
            note = None
            if b - a == len(token) > 1 and token[-1].isdigit():  # the number of a note, or a square
                mark = text_object(page, b - 1) or 0
                at = b - 2 if b - a > 2 and token[-2].isdigit() and (text_object(page, b - 2) or 0) == mark else b - 1
                if mark != owner and char_origin(page, at, x_at, y_at):
                    small = _style(page, at, mark, fonts)[0] < SMALL * size
                    if small and origin[1] > base + LIFTED * size and loose_box(page, at - 1, first_at):
                        token, sign = token[: at - a], token[at - a :].translate(AS_RAISED)
                        if token.endswith(UNITS_RAISED):
                            token += sign  # m²
                        else:
                            note = sign, place(origin[0], base - DESCENT * size, right, base + ASCENT * size)
                            right = first[2]
            box = place(left if left < right else last[0], base - DESCENT * size, right, base + ASCENT * size)
            if not token.isascii() or "\x02" in token:
                token = token.translate(LIGATURES)
                if not token:
                    continue
            words.append(new(Word, (token, *box, size, style[1], 100)))
            owners.append(owner)
            if note is not None:
                words.append(new(Word, (note[0], *note[1], size, style[1], 100)))
                owners.append(owner)
    return words, owners


_matrix = ctypes.c_float * 6
_name = ctypes.c_char * 256


def _style(page: int, char: int, owner: int, fonts: dict[int, bool]) -> tuple[float, bool]:
    """Size of type as shown (the text matrix may scale it) and whether the font is a bold one."""
    size: float = font_size(page, char)
    matrix = _matrix()
    if owner and object_matrix(owner, ctypes.addressof(matrix)):
        scale = (matrix[1] ** 2 + matrix[3] ** 2) ** 0.5
        size = size * scale if 0.01 < scale < 100 and size * scale < 200 else size
    font = object_font(owner) if owner else None
    if not font:
        return size, False
    if font not in fonts:
        name = _name()
        font_name(font, ctypes.addressof(name), 256)
        said = name.value.decode("latin-1", "replace").lower()
        fonts[font] = font_weight(font) >= 600 or any(mark in said for mark in HEAVY)
    return size, fonts[font]


def _drawings(page: int, count: int, place: Place) -> tuple[list[Rule], list[Bar], int, list[Shade], float]:
    """Straight lines, dark bars (with their place in drawing order), pictures, shaded areas, area under pictures."""
    shaded: list[Shade] = []
    covered = 0.0
    rules: list[Rule] = []
    bars: list[Bar] = []
    pictures = 0
    edges = (ctypes.c_float * 4)()
    at = [ctypes.addressof(edges) + 4 * i for i in range(4)]
    colour = (ctypes.c_uint * 4)()
    shades = [ctypes.addressof(colour) + 4 * i for i in range(4)]
    modes = (ctypes.c_int * 2)()
    mode_at, stroke_at = ctypes.addressof(modes), ctypes.addressof(modes) + 4
    for index in range(count):
        item = get_object(page, index)
        kind = object_type(item)
        if kind == raw.FPDF_PAGEOBJ_IMAGE:
            pictures += 1
            if object_bounds(item, *at):
                x0, top, x1, bottom = place(*edges)
                covered += (x1 - x0) * (bottom - top)
            continue
        if kind != raw.FPDF_PAGEOBJ_PATH or not object_bounds(item, *at):
            continue
        x0, top, x1, bottom = place(*edges)
        wide, tall = x1 - x0, bottom - top
        if tall <= THIN or wide <= THIN:
            if max(wide, tall) > 6:
                rules.append(Rule(x0, top, x1, bottom))
            continue
        draw_mode(item, mode_at, stroke_at)
        filled, stroked = modes
        simple = count_segments(item) <= 6
        dark = False
        if filled and simple and wide > 6 and 4 < tall < 200:
            fill_colour(item, *shades)
            dark = max(colour[:3]) < DARK and colour[3] > 200
            if dark:
                bars.append((x0, top, x1, bottom, index))
            elif colour[3] > 100 and min(colour[:3]) < 246:
                shaded.append(Shade(x0, top, x1, bottom, (colour[0], colour[1], colour[2])))
        if stroked and not simple:
            rules += _lines_of(item, place)
        elif stroked or (filled and simple and not dark and wide > 12 and tall < 260):
            rules += [Rule(x0, top, x1, top), Rule(x0, bottom, x1, bottom)]
            rules += [Rule(x0, top, x0, bottom), Rule(x1, top, x1, bottom)]
    return rules, bars, pictures, shaded, covered


def _lines_of(item: int, place: Place) -> list[Rule]:
    """The level and upright lines of a path that draws many, such as a whole grid."""
    matrix = _matrix()
    object_matrix(item, ctypes.addressof(matrix))
    a, b, c, d, e, f = matrix
    point = (ctypes.c_float * 2)()
    at = ctypes.addressof(point)
    rules: list[Rule] = []
    last: tuple[float, float] | None = None
    for index in range(min(count_segments(item), MAX_SEGMENTS)):
        segment = path_segment(item, index)
        if not segment_point(segment, at, at + 4):
            continue
        x, y = point
        here = a * x + c * y + e, b * x + d * y + f
        if segment_type(segment) == raw.FPDF_SEGMENT_LINETO and last is not None:
            x0, top, x1, bottom = place(
                min(here[0], last[0]), min(here[1], last[1]), max(here[0], last[0]), max(here[1], last[1])
            )
            if min(x1 - x0, bottom - top) <= 1 and max(x1 - x0, bottom - top) > 6:
                rules.append(Rule(x0, top, x1, bottom))
        last = here
    return rules


def _black_out(page: int, count: int, words: list[Word], owners: list[int], bars: list[Bar]) -> list[Word]:
    """Words under a dark bar are taken out; a mark for the bar takes their place.

    Light words on a dark ground that were drawn after it (a table heading) stay.
    """
    order: dict[int, int] = {}
    light: dict[int, bool] = {}
    colour = (ctypes.c_uint * 4)()
    shades = [ctypes.addressof(colour) + 4 * i for i in range(4)]
    for index in range(count):
        item = get_object(page, index)
        if object_type(item) == raw.FPDF_PAGEOBJ_TEXT:
            order[item] = index
            fill_colour(item, *shades)
            light[item] = sum(colour[:3]) > 330
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
            kept.append(_bar_word(bars[hiding], word.size)._replace(top=word.top, bottom=word.bottom))
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
