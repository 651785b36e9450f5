"""Segments -> regions in reading order: pages set in two or more columns are read column by column."""

from __future__ import annotations

from yarnex.core.reading.layout.words import Segment

MIN_LINES = 5  # lines on each side before a gutter is believed
MIN_WORDS = 3.5  # words a line on average: prose, not the cells of a table


def regions_of(segments: list[Segment], depth: int = 0) -> list[list[Segment]]:
    """Segments of a page -> groups, each to be read from top to bottom before the next."""
    if len(segments) < 2 * MIN_LINES or depth > 2:
        return [segments] if segments else []
    gutter = _gutter(segments)
    if gutter is None:
        return [segments]
    left_edge, right_edge, top, bottom = gutter
    above = [s for s in segments if s.middle < top]
    below = [s for s in segments if s.middle > bottom]
    inside = [s for s in segments if top <= s.middle <= bottom]
    left = [s for s in inside if s.x1 <= left_edge + 1]
    right = [s for s in inside if s.x0 >= right_edge - 1]
    return [
        *regions_of(above, depth),
        *regions_of(left, depth + 1),
        *regions_of(right, depth + 1),
        *regions_of(below, depth),
    ]


def _gutter(segments: list[Segment]) -> tuple[float, float, float, float] | None:
    """The widest believable vertical gap: its left and right edge, and the band of the page where it runs."""
    x0, x1 = min(s.x0 for s in segments), max(s.x1 for s in segments)
    width = x1 - x0
    if sum(s.x1 - s.x0 > 0.6 * width for s in segments) > 0.5 * len(segments):
        return None  # most lines run across: one column
    order = sorted(segments, key=lambda s: s.middle)
    best: tuple[tuple[int, float], tuple[float, float, float, float]] | None = None
    for step in range(12, 37):
        x = x0 + width * step / 48
        left: list[Segment] = []
        right: list[Segment] = []
        for segment in [*order, None]:
            if segment is not None and segment.x1 <= x:
                left.append(segment)
            elif segment is not None and segment.x0 >= x:
                right.append(segment)
            else:  # a line across, or the end: what stood above it is a band of its own
                if len(left) >= MIN_LINES and len(right) >= MIN_LINES and _prose(left) and _prose(right):
                    edges = max(s.x1 for s in left), min(s.x0 for s in right)
                    score = len(left) + len(right), edges[1] - edges[0]
                    if best is None or score > best[0]:
                        top = min(left[0].middle, right[0].middle)
                        best = score, (*edges, top, max(left[-1].middle, right[-1].middle))
                left, right = [], []
    return best[1] if best else None


def _prose(segments: list[Segment]) -> bool:
    """Lines of running text: several words each, most of them as wide as the column."""
    words = sum(len(s.words) for s in segments) / len(segments)
    if words < MIN_WORDS:
        return False
    x0, x1 = min(s.x0 for s in segments), max(s.x1 for s in segments)
    full = sum(s.x1 - s.x0 > 0.72 * (x1 - x0) for s in segments)
    return full >= 0.5 * len(segments)
