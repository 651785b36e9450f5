"""Pictures of pages (PNG, JPEG, TIFF of many pages) -> Document, by recognition."""

from __future__ import annotations

import io
import struct
import warnings
from typing import Any

from PIL import Image, UnidentifiedImageError

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.layout.words import PageMarks
from yarnex.core.reading.pdf import document_of, recognised_marks
from yarnex.core.reading.recognising import MAX_PIXELS, Recogniser

BROKEN = (
    OSError, ValueError, SyntaxError, EOFError, MemoryError, TypeError, KeyError, IndexError, ZeroDivisionError, OverflowError, struct.error,
    Image.DecompressionBombError, Image.DecompressionBombWarning, UnidentifiedImageError, AttributeError,
)  # fmt: skip
MAX_PAGES = 2_000
USUAL_DPI = 200.0  # taken where the picture does not say


def read_picture(data: bytes, path: str, sha256: str, recognise: Recogniser | None, progress: Any = None) -> Document:
    """The document in a picture's bytes. Raises UnreadableError for broken pictures."""
    pages: list[PageMarks] = []
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(data), formats=("PNG", "JPEG", "TIFF"))
            count = min(getattr(picture, "n_frames", 1), MAX_PAGES)
    except BROKEN:
        raise UnreadableError(
            "not a complete picture, or too large", where=path, do="scan or export it again"
        ) from None
    form = (picture.format or "picture").lower().replace("mpo", "jpeg")
    for number in range(1, count + 1):
        try:
            picture.seek(number - 1)
            if picture.width * picture.height > MAX_PIXELS:
                raise ValueError("too many pixels")
            dpi = _dpi(picture)
            frame = _upright(picture)
        except BROKEN:
            pages.append(PageMarks(number, 0, 0, [], state="failed"))
            continue
        scale = dpi / 72
        marks = PageMarks(number, frame.width / scale, frame.height / scale, [], pictures=1, state="no_text")
        pages.append(recognised_marks(marks, frame, scale, recognise) if recognise else marks)
        if progress:
            progress(number, count)
    return document_of(pages, path, sha256, format=form, title="")


def _dpi(picture: Any) -> float:
    said = picture.info.get("dpi", (0, 0))
    dpi: float = float(said[0]) if isinstance(said, tuple) and said and said[0] else 0.0
    if not 60 <= dpi <= 1300 or max(picture.width, picture.height) / dpi > 30:
        longest = float(max(picture.size))
        return max(USUAL_DPI if longest > 1400 else 96.0, longest / 20)
    return dpi


def _upright(picture: Any) -> Any:
    """The picture turned as its own record says, on white where it is see-through."""
    from PIL import ImageOps

    frame = ImageOps.exif_transpose(picture.copy()) or picture.copy()
    if frame.mode in ("RGBA", "LA", "PA") or "transparency" in frame.info:
        ground = Image.new("RGBA", frame.size, (255, 255, 255, 255))
        frame = Image.alpha_composite(ground, frame.convert("RGBA"))
    if frame.mode == "I;16":
        return frame.point(lambda v: v / 256).convert("L")
    return frame.convert("L")
