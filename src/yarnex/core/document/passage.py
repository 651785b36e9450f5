"""Finding the passage that a person asks for: by page, by section, by its words."""

from __future__ import annotations

import re
from dataclasses import dataclass

from yarnex.core.document.model import Document, Span
from yarnex.core.document.narrowing import section_spans


@dataclass(frozen=True, slots=True, eq=False)
class Passage:
    """whole: what to show. marked: the words asked for inside it; empty where a page or section was asked for."""

    document: Document
    whole: Span
    marked: tuple[Span, ...]


def find_passage(
    document: Document, *, page: int | None = None, section: str | None = None, quote: str | None = None
) -> Passage | None:
    """The passage, None where it is not in the document. With a quote, the blocks around its places on that page."""
    whole = Span(0, document.body_end)
    if page is not None:
        on_page = [
            i
            for i, p in enumerate(document.fragments.pages)
            if p == page and document.fragments.starts[i] < document.body_end
        ]
        if not on_page:
            return None
        whole = Span(document.fragments.starts[on_page[0]], document.fragments.ends[on_page[-1]])
    if section is not None:
        found = next(iter(section_spans(document, section)), None)
        if found is None:
            return None
        whole = Span(max(whole.start, found.start), min(whole.end, found.end))
        if whole.end <= whole.start:
            return None
    if quote is None:
        return Passage(document, whole, ()) if page is not None or section is not None else None
    words = quote.split()
    if not words:
        return None
    pattern = re.compile(
        r"\s+".join(re.sub(r"['’‘]", "['’‘]", re.sub(r'["“”]', '["“”]', re.escape(w))) for w in words), re.IGNORECASE
    )
    marked = tuple(Span(*m.span()) for m in pattern.finditer(document.text, whole.start, whole.end))
    if not marked:
        return None
    if page is not None or section is not None:
        return Passage(document, whole, marked)
    first = document.block_at(marked[0].start)
    place = document.block_index_at(marked[0].start)
    start = document.blocks[max(0, place - 1)].span.start if first else marked[0].start
    after = min(len(document.blocks) - 1, document.block_index_at(marked[0].end - 1) + 1)
    end = min(document.blocks[after].span.end, document.body_end)
    return Passage(document, Span(start, max(end, marked[0].end)), tuple(m for m in marked if m.end <= end))
