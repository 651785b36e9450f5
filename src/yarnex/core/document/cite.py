"""Cites: document, page, section and verbatim quote, always made from a span."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from urllib.parse import quote as percent_encoded

from yarnex.core.document.model import Document, Span

DOUBTFUL = 80  # per cent: a recognised word less certain than this is said to be so


@dataclass(frozen=True, slots=True, eq=False)
class Cite:
    """A place in a document. The quote is taken from the document itself, so a wrong quote cannot be built."""

    document: Document
    span: Span

    def __post_init__(self) -> None:
        if not 0 <= self.span.start < self.span.end <= len(self.document.text):
            raise ValueError(f"{self.span} is no passage of {self.document.path}")

    @property
    def quote(self) -> str:
        """The words as they stand; a line end of the linear text (between cells or blocks) is kept."""
        return self.span.of(self.document.text)

    @property
    def pages(self) -> tuple[int | None, int | None]:
        """First and last file page, None where the format records none."""
        first, last = self.document.pages_of(self.span)
        return first or None, last or None

    @property
    def page_label(self) -> str:
        """The number printed on the first page, "" where there is none."""
        page = self.document.page(self.pages[0] or 0)
        return page.label if page else ""

    @property
    def section(self) -> str:
        """Section and clause of the span's start: "Fourth Schedule RENT DEPOSIT, 2"."""
        path = self.document.section_path(self.span.start)
        names = [path[-1].name] if path else []
        if path and len(path) > 1 and not path[-1].number[:1].isalpha() and path[0].number[:1].isalpha():
            names.insert(0, path[0].name)  # "1" alone says little inside a schedule
        block = self.document.block_at(self.span.start)
        if block and block.number and (not path or block.number != path[-1].number):
            names.append(block.number)
        return ", ".join(names)

    @property
    def place(self) -> str:
        """The place in words for a person: "p. 22 (printed 18), 4.2 Repairs", "Sheet1!C14", "00:12:07 Speaker"."""
        document, (first, last) = self.document, self.pages
        words = []
        if cell := self.cell:
            return cell
        if document.paging == "sheet" and first:
            page = document.page(first)
            return page.name if page and page.name else f"sheet {first}"
        if (moment := self.seconds) is not None:
            speaker = document.mark_at("speaker", self.span.start)
            return " ".join(filter(None, [clock(moment), speaker.value if speaker else ""]))
        if first and document.paging:
            one, many = ("slide", "slides") if document.paging == "slide" else ("p.", "pp.")
            words.append(f"{one} {first}" if last in (None, first) else f"{many} {first}-{last}")
            if self.page_label and self.page_label != str(first):
                words[-1] += f" (printed {self.page_label})"
        elif line := document.line_of(self.span):
            words.append(f"line {line}")
        elif not self.section and (number := self.paragraph):
            words.append(f"paragraph {number}")
        if self.section:
            words.append(self.section)
        return ", ".join(words)

    @property
    def cell(self) -> str:
        """The cell of a workbook that the span begins in: "Sheet1!C14"; "" elsewhere."""
        mark = self.document.mark_at("cell", self.span.start)
        return mark.value if mark else ""

    @property
    def seconds(self) -> float | None:
        """The time in a recording at which the words are said; None where the format records none."""
        mark = self.document.mark_at("time", self.span.start)
        return float(mark.value) if mark else None

    @property
    def doubtful(self) -> tuple[str, ...]:
        """Words of the span that were recognised from a picture with little certainty."""
        shares = self.document.fragments.certainty
        inside = self.document.fragments.within(self.span) if shares else ()
        starts, ends = self.document.fragments.starts, self.document.fragments.ends
        return tuple(self.document.text[starts[i] : ends[i]] for i in inside if shares[i] < DOUBTFUL)

    @property
    def paragraph(self) -> int:
        """Which paragraph of the document, from 1 (for formats without pages)."""
        return self.document.block_index_at(self.span.start) + 1

    @property
    def target(self) -> str:
        """A link that opens elsewhere.

        PDF page (RFC 8118), line of text (RFC 5147), row of a CSV file (RFC 7111), time of a recording (W3C Media
        Fragments), cell of a workbook, words of a web page (W3C text fragment); else the file.
        """
        document = self.document
        path = percent_encoded(document.path)
        if document.format == "pdf" and self.pages[0]:
            return f"{path}#page={self.pages[0]}"
        if cell := self.cell:
            if document.format in ("csv", "tsv"):
                return f"{path}#row={''.join(c for c in cell if c.isdigit())}"
            return f"{path}#{percent_encoded(cell, safe='!')}"
        if document.format in ("vtt", "srt") and (moment := self.seconds) is not None:
            return f"{path}#t={moment:g}"
        if line := document.line_of(self.span):
            return f"{path}#line={line - 1},{line}"
        if document.format in ("html", "xhtml"):
            return f"{path}#:~:text={_text_fragment(self.quote)}"
        return path

    def to_dict(self) -> dict[str, Any]:
        """The cite as a JSON object."""
        first, last = self.pages
        doubtful = {"doubtful": list(self.doubtful)} if self.doubtful else {}
        return {
            "document": self.document.path,
            "page": first,
            "last_page": last,
            "page_label": self.page_label,
            "section": self.section,
            "quote": self.quote,
            "start": self.span.start,
            "end": self.span.end,
            "target": self.target,
            "place": self.place,
            **doubtful,
        }


def clock(seconds: float) -> str:
    """Seconds as hours, minutes and seconds.

    >>> clock(727)
    '00:12:07'
    """
    whole = int(seconds)
    return f"{whole // 3600:02d}:{whole % 3600 // 60:02d}:{whole % 60:02d}"


def _text_fragment(quote: str) -> str:
    """The words of a link to a passage: whole where short, else its first and last words (W3C text fragments)."""
    words = quote.split()

    def encoded(part: list[str]) -> str:
        return percent_encoded(" ".join(part), safe="").replace("-", "%2D")

    return encoded(words) if len(words) <= 8 else f"{encoded(words[:4])},{encoded(words[-4:])}"
