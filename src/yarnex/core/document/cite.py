"""Cites: document, page, section and verbatim quote, always made from a span."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from urllib.parse import quote as percent_encoded

from yarnex.core.document.model import Document, Span


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
        """The place in words for a person: "p. 22 (printed 18), 4.2 Repairs"."""
        first, last = self.pages
        words = []
        if first:
            words.append(f"p. {first}" if last in (None, first) else f"pp. {first}-{last}")
            if self.page_label and self.page_label != str(first):
                words[-1] += f" (printed {self.page_label})"
        elif line := self.document.line_of(self.span):
            words.append(f"line {line}")
        elif not self.section and (number := self.paragraph):
            words.append(f"paragraph {number}")
        if self.section:
            words.append(self.section)
        return ", ".join(words)

    @property
    def paragraph(self) -> int:
        """Which paragraph of the document, from 1 (for formats without pages)."""
        return self.document.block_index_at(self.span.start) + 1

    @property
    def target(self) -> str:
        """A link that opens elsewhere: PDF page (RFC 8118), line of text (RFC 5147), else the file."""
        path = percent_encoded(self.document.path)
        if self.document.format == "pdf" and self.pages[0]:
            return f"{path}#page={self.pages[0]}"
        if line := self.document.line_of(self.span):
            return f"{path}#line={line - 1},{line}"
        return path

    def to_dict(self) -> dict[str, Any]:
        """The cite as a JSON object."""
        first, last = self.pages
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
        }
