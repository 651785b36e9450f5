"""A document -> its sections with first and last page, in the file and as printed: what a reader turns to."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass

from yarnex.core.document.cite import Cite
from yarnex.core.document.model import Document, Section, Span


@dataclass(frozen=True, slots=True)
class OutlineEntry:
    """One section. Pages are file pages, None where the format has none; printed: the numbers printed on them."""

    document: Document
    section: Section
    first_page: int | None
    last_page: int | None
    printed_first: str
    printed_last: str

    def to_dict(self) -> dict[str, object]:
        """The entry as a JSON object."""
        return {
            "document": self.document.path, "number": self.section.number, "heading": self.section.heading, "level": self.section.level,
            "first_page": self.first_page, "last_page": self.last_page, "printed_first": self.printed_first, "printed_last": self.printed_last,
            "target": Cite(self.document, self.section.span).target,
        }  # fmt: skip


def outline_of(document: Document, depth: int = 9) -> tuple[OutlineEntry, ...]:
    """The sections down to a level, in the document's order."""
    out = []
    for section in document.sections:
        if section.level <= depth and section.span.start < section.span.end:
            first, last = _pages(document, section.span)
            page, end = document.page(first or 0), document.page(last or 0)
            out.append(
                OutlineEntry(
                    document, section, first or None, last or None, page.label if page else "", end.label if end else ""
                )
            )
    return tuple(out)


def _pages(document: Document, span: Span) -> tuple[int, int]:
    """First and last page of a section by its first and last word (0 for none), so that long sections cost no more."""
    fragments = document.fragments
    first = bisect_left(fragments.ends, span.start + 1)
    last = bisect_left(fragments.starts, span.end) - 1
    if first > last or first >= len(fragments.pages):
        return 0, 0
    return fragments.pages[first], fragments.pages[last]
