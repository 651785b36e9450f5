"""A passage on the terminal, and a picture of its page with the words marked."""

from __future__ import annotations

import sys
from pathlib import Path

from rich.text import Text

from yarnex.core.document import Cite, Span
from yarnex.core.document.passage import Passage
from yarnex.core.errors import OutputError
from yarnex.output.safe import visible
from yarnex.output.terminal import console_for

SCALE = 2.0  # pixels for a point: 144 to the inch
MARK = (250, 214, 90)


def show_passage(passage: Passage, *, no_color: bool = False) -> None:
    """Print the passage block by block with its place; the words asked for are marked."""
    console = console_for(sys.stdout, no_color)
    document = passage.document
    cite = Cite(document, passage.marked[0] if passage.marked else passage.whole)
    console.print(Text(visible(document.path), style="bold"), Text(visible(cite.place), style="dim"), sep="  ")
    for block in document.blocks:
        if not block.span.overlaps(passage.whole) or block.kind == "furniture":
            continue
        span = Span(max(block.span.start, passage.whole.start), min(block.span.end, passage.whole.end))
        text = Text(style="bold" if block.kind == "heading" else "")
        at = span.start
        for mark in passage.marked:
            if span.holds(mark):
                text.append(visible(document.text[at : mark.start]))
                plain = not sys.stdout.isatty()
                words = visible(mark.of(document.text))
                text.append(f">>{words}<<" if plain else words, style="reverse")
                at = mark.end
        text.append(visible(document.text[at : span.end]).replace("\t", " | "))
        console.print()
        console.print(text)
    console.print()
    console.print(Text(f"opens at {cite.target}", style="dim"))


def picture(passage: Passage, out: Path, source: Path, force: bool) -> None:
    """Write a PNG of the page on which the passage begins. Raises OutputError where that is not possible."""
    document = passage.document
    first = Cite(document, passage.marked[0] if passage.marked else passage.whole).pages[0]
    where = f"--png {out.as_posix()}"
    if document.format not in ("pdf", "png", "jpeg", "tiff") or not first or document.parent:
        raise OutputError("only pages of a PDF or a picture can be drawn", where=where, do="leave --png out")
    if out.suffix.lower() != ".png":
        raise OutputError(f"{out.suffix or 'no ending'} is no picture format here", where=where, do="use .png")
    if out.exists() and not force:
        raise OutputError("already there", where=where, do="add --force to replace it")
    import pypdfium2 as pdfium
    from PIL import ImageChops, ImageDraw

    page = document.page(first)
    turned = page.turned if page is not None else 0
    if document.format == "pdf":
        with pdfium.PdfDocument(source) as pdf:
            image = pdf[first - 1].render(scale=SCALE, rotation=turned).to_pil().convert("RGB")
    else:
        from PIL import Image

        with Image.open(source) as picture:
            picture.seek(first - 1)
            image = picture.convert("RGB").rotate(-turned, expand=True)
        if page is not None and page.width:
            image = image.resize((round(page.width * SCALE), round(page.height * SCALE)))
    wash = image.copy()
    draw = ImageDraw.Draw(wash)
    draw.rectangle((0, 0, *wash.size), fill=(255, 255, 255))
    for mark in passage.marked:
        for place, box in document.boxes_of(mark):
            if place == first:
                draw.rectangle((box.x0 * SCALE, box.top * SCALE, box.x1 * SCALE, box.bottom * SCALE), fill=MARK)
    try:
        ImageChops.multiply(image, wash).save(out)
    except OSError as error:
        out.unlink(missing_ok=True)
        raise OutputError(
            f"cannot be written ({error.strerror or error})", where=where, do="free space or name another place"
        ) from None
