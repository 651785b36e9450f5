"""What hangs on a PDF page beside its text: values of form fields, comments, links, areas marked for redaction."""

from __future__ import annotations

import ctypes
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import pypdfium2.raw as raw

from yarnex.core.reading.layout.words import Word

Area = tuple[float, float, float, float]  # x0, top, x1, bottom, in points from the top left
MAX_ANNOTATIONS = 5_000
REMARKS = {
    raw.FPDF_ANNOT_TEXT, raw.FPDF_ANNOT_HIGHLIGHT, raw.FPDF_ANNOT_UNDERLINE, raw.FPDF_ANNOT_SQUIGGLY, raw.FPDF_ANNOT_STRIKEOUT,
    raw.FPDF_ANNOT_STAMP, raw.FPDF_ANNOT_CARET, raw.FPDF_ANNOT_SQUARE, raw.FPDF_ANNOT_CIRCLE, raw.FPDF_ANNOT_INK,
}  # fmt: skip
FORM_SIZE = 9.0  # points: what fields are usually set in


@dataclass(slots=True)
class Annotations:
    """words: of fields and free text, set where they are shown. comments and links: where, and what they say."""

    words: list[tuple[str, Word]] = field(default_factory=list)  # name of the field ("" for free text), word
    comments: list[tuple[Area, str]] = field(default_factory=list)
    links: list[tuple[Area, str]] = field(default_factory=list)
    redactions: list[Area] = field(default_factory=list)


def annotations_of(
    page: Any, document: Any, form: Any, place: Callable[[float, float, float, float], Area]
) -> Annotations:
    """All annotations of a page that carry words or cover them. form: the document's form environment, or None."""
    out = Annotations()
    count = raw.FPDFPage_GetAnnotCount(page.raw)
    for index in range(min(count, MAX_ANNOTATIONS)):
        annotation = raw.FPDFPage_GetAnnot(page.raw, index)
        if not annotation:
            continue
        try:
            _read(annotation, document, form, place, out)
        finally:
            raw.FPDFPage_CloseAnnot(annotation)
    return out


def _read(annotation: Any, document: Any, form: Any, place: Callable[..., Area], out: Annotations) -> None:
    kind = raw.FPDFAnnot_GetSubtype(annotation)
    rect = raw.FS_RECTF()
    if not raw.FPDFAnnot_GetRect(annotation, ctypes.byref(rect)):
        return
    area = place(
        min(rect.left, rect.right), min(rect.top, rect.bottom), max(rect.left, rect.right), max(rect.top, rect.bottom)
    )
    if raw.FPDFAnnot_GetFlags(annotation) & 2:  # hidden (ISO 32000-1, table 165)
        return
    if kind == raw.FPDF_ANNOT_REDACT:
        out.redactions.append(area)
    elif kind == raw.FPDF_ANNOT_WIDGET and form is not None:
        value = _field_value(annotation, form)
        if value:
            name = _text(lambda b, n: raw.FPDFAnnot_GetFormFieldName(form, annotation, b, n))
            out.words += [(name, w) for w in _set(value, area)]
    elif kind == raw.FPDF_ANNOT_FREETEXT:
        out.words += [("", w) for w in _set(_string(annotation, b"Contents"), area)]
    elif kind == raw.FPDF_ANNOT_LINK:
        link = raw.FPDFAnnot_GetLink(annotation)
        action = raw.FPDFLink_GetAction(link) if link else None
        if action:
            size = raw.FPDFAction_GetURIPath(document, action, None, 0)
            buffer = ctypes.create_string_buffer(max(1, size))
            if size > 1 and raw.FPDFAction_GetURIPath(document, action, buffer, size):
                out.links.append((area, buffer.value.decode("utf-8", "replace")))
    elif kind in REMARKS:
        said = _string(annotation, b"Contents")
        if said.strip():
            who = _string(annotation, b"T")
            out.comments.append((area, f"{who}: {' '.join(said.split())}".strip(": ")))


def _field_value(annotation: Any, form: Any) -> str:
    """What a field shows: text, the chosen line, or a box that is ticked or not."""
    kind = raw.FPDFAnnot_GetFormFieldType(form, annotation)
    if kind in (raw.FPDF_FORMFIELD_CHECKBOX, raw.FPDF_FORMFIELD_RADIOBUTTON):
        return "☒" if raw.FPDFAnnot_IsChecked(form, annotation) else "☐"
    if kind in (raw.FPDF_FORMFIELD_TEXTFIELD, raw.FPDF_FORMFIELD_COMBOBOX, raw.FPDF_FORMFIELD_LISTBOX):
        return _text(lambda b, n: raw.FPDFAnnot_GetFormFieldValue(form, annotation, b, n))
    return ""


def _text(call: Callable[[Any, int], int]) -> str:
    """A text that pdfium gives as UTF-16: asked once for its length, once for itself."""
    size = call(None, 0)
    if size <= 2:
        return ""
    buffer = (ctypes.c_ushort * (size // 2))()
    call(buffer, size)
    return bytes(buffer).decode("utf-16-le", "replace").split("\x00", 1)[0]


def _string(annotation: Any, key: bytes) -> str:
    return _text(lambda b, n: raw.FPDFAnnot_GetStringValue(annotation, key, b, n))


def _set(text: str, area: Area) -> list[Word]:
    """Words of a field, set line by line from the top of its area."""
    x0, top, x1, bottom = area
    lines = text.replace("\r\n", "\n").replace("\r", "\n").split("\n")
    size = min(FORM_SIZE, max(5.0, (bottom - top) / max(1, len(lines))))
    single = len(lines) == 1 and bottom - top < 3 * size
    y = (top + bottom - size) / 2 if single else top + 1
    out: list[Word] = []
    for line in lines:
        x = x0 + 1
        for token in line.split():
            width = 0.5 * size * len(token)
            if x + width > x1 and x > x0 + 1 and not single:
                x, y = x0 + 1, y + 1.2 * size
            out.append(Word(token, x, y, x + width, y + size, size, False))
            x += width + 0.3 * size
        y += 1.2 * size
    return out
