"""Part of a document as a document: what lies outside is blanked, so that every place and cite stays what it was."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import replace

from yarnex.core.document.model import Document, Section, Span


def parse_pages(said: str) -> tuple[tuple[int, int], ...]:
    """Ranges of pages as a person writes them: "20-23", "3,7-9", "12-" (to the end). Raises ValueError.

    >>> parse_pages("3,7-9")
    ((3, 3), (7, 9))
    """
    out = []
    for part in said.split(","):
        m = re.fullmatch(r"\s*(\d{1,6})\s*(?:([-–])\s*(\d{1,6})?)?\s*", part)
        if not m or int(m[1]) < 1:
            raise ValueError(part.strip() or said)
        first = int(m[1])
        last = int(m[3]) if m[3] else 999_999 if m[2] else first
        if last < first:
            raise ValueError(part.strip())
        out.append((first, last))
    return tuple(out)


def page_spans(document: Document, pages: Iterable[tuple[int, int]]) -> tuple[Span, ...]:
    """The stretches of the text that stand on these file pages."""
    wanted = tuple(pages)
    out: list[Span] = []
    fragments = document.fragments
    for start, end, page in zip(fragments.starts, fragments.ends, fragments.pages, strict=True):
        if any(first <= page <= last for first, last in wanted):
            if out and start - out[-1].end <= 1:
                out[-1] = Span(out[-1].start, end)
            else:
                out.append(Span(start, end))
    return tuple(out)


def sections_named(document: Document, wanted: str) -> tuple[Section, ...]:
    """Sections by number ("4.2", "Section 4.2", "First Schedule"), else all whose heading holds the words.

    A section inside another that was found too is not given again.
    """
    bare = " ".join(wanted.lower().split()).rstrip(".")
    by_number = [
        s
        for s in document.sections
        if s.number
        and bare
        in (s.number.lower().rstrip("."), re.sub(r"^(?:section|clause|article)\s+", "", s.number.lower()).rstrip("."))
    ]
    found = (
        by_number[:1]
        or [s for s in document.sections if bare == s.name.lower()]
        or [s for s in document.sections if bare in s.name.lower()]
    )
    return tuple(s for s in found if not any(o is not s and o.span.holds(s.span) for o in found))


def section_spans(document: Document, wanted: str) -> tuple[Span, ...]:
    """The stretches of the text under sections, or a numbered clause, that a person names; numbers go before words."""
    found = tuple(s.span for s in sections_named(document, wanted))
    bare = re.sub(r"^(?:section|clause|article)\s+", "", " ".join(wanted.lower().split()).rstrip("."))
    numbered = any(s.number and bare in s.number.lower() for s in document.sections if s.span in found)
    if not found or (bare[:1].isdigit() and not numbered):
        clause = tuple(b.span for b in document.blocks if b.number and b.number.lower().rstrip(".") == bare)[:1]
        return clause or found
    return found


def narrowed(document: Document, spans: Iterable[Span]) -> Document:
    """The document with only these stretches of its text; the rest is blank, and no block, table or mark is left there."""
    kept = sorted(spans)
    letters = [" "] * len(document.text)
    for span in kept:
        letters[span.start : span.end] = document.text[span.start : span.end]
    for place, letter in enumerate(document.text):
        if letter == "\n":
            letters[place] = "\n"

    def inside(span: Span) -> Span | None:
        """The part of a span that is kept (its first to last kept letter)."""
        parts = [s for s in kept if s.overlaps(span)]
        if not parts:
            return None
        return Span(max(span.start, parts[0].start), min(span.end, max(p.end for p in parts)))

    blocks = tuple(replace(b, span=part) for b in document.blocks if (part := inside(b.span)))
    tables = tuple(
        replace(t, cells=tuple(c for c in t.cells if any(s.holds(c.span) for s in kept))) for t in document.tables
    )
    return replace(
        document, text="".join(letters), blocks=blocks, tables=tables, marks=tuple(m for m in document.marks if inside(m.span)),
        tagged=tuple(t for t in document.tagged if t.span is None or inside(t.span)), whole=document.whole or document,
    )  # fmt: skip
