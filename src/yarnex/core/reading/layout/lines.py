"""Words -> segments (no wide gap inside) and rows (segments on one base line)."""

from __future__ import annotations

import re
from collections.abc import Iterable

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.words import PLACEHOLDER, Row, Segment, Word

GAP = 1.05  # a gap wider than this many times the size of type parts two segments
MARKER = pattern(
    r"(?:(?:section|clause|article|paragraph|schedule|§)?\s?\(?(?:\d{1,3}(?:\.\d{1,3}){0,4}|[a-z]{1,2}|[ivxlc]{1,6})[.):]{0,2}"
    r"|[•●▪◦‣∙·*–—-])",
    re.IGNORECASE,
)


def segments_of(words: Iterable[Word]) -> list[Segment]:
    """Words in the order in which the file gives them -> segments; a jump back or down starts a new one."""
    segments: list[Segment] = []
    run: list[Word] = []
    last_x1 = last_top = last_bottom = last_size = 0.0
    for word in words:
        _, x0, top, x1, bottom, size, _, _ = word
        if run:
            gap = x0 - last_x1
            overlap = (last_bottom if last_bottom < bottom else bottom) - (last_top if last_top > top else top)
            wide = size if size > last_size else last_size
            apart = overlap < 0.5 * (bottom - top) and overlap < 0.5 * (last_bottom - last_top)
            if apart or gap > GAP * wide or gap < -last_size:
                segments.append(Segment(run))
                run = []
        run.append(word)
        last_x1, last_top, last_bottom, last_size = x1, top, bottom, size
    if run:
        segments.append(Segment(run))
    return segments


def rows_of(segments: list[Segment]) -> list[Row]:
    """Segments -> rows from top to bottom; small type beside large joins the row whose middle it meets."""
    rows: list[list[Segment]] = []
    for segment in sorted(segments, key=lambda s: (s.middle, s.x0)):
        if rows:
            height = min(segment.bottom - segment.top, rows[-1][0].bottom - rows[-1][0].top)
            if abs(segment.middle - rows[-1][0].middle) < 0.35 * height:
                rows[-1].append(segment)
                continue
        rows.append([segment])
    return [Row(_joined(sorted(row, key=lambda s: s.x0))) for row in rows]


def _joined(segments: list[Segment]) -> list[Segment]:
    """Segments of one row: close neighbours become one, and a clause number joins the words it introduces."""
    out = [segments[0]]
    for segment in segments[1:]:
        last = out[-1]
        gap = segment.x0 - last.x1
        marker = len(out) == 1 and len(last.words) <= 2 and MARKER.fullmatch(last.text) and gap < 6.5 * segment.size
        numeric = last.text[:1].isdigit() and segment.text[:1].isdigit() and last.text.isdigit()
        drawn = last.text.startswith(PLACEHOLDER) or segment.text.startswith(PLACEHOLDER)
        if not drawn and (gap <= GAP * max(last.size, segment.size) or (marker and not numeric)):
            out[-1] = Segment(last.words + segment.words)
        else:
            out.append(segment)
    return out
