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
    tried: set[tuple[int, ...]] = set()
    for step in range(12, 37):
        x = x0 + width * step / 48
        sides = tuple([1 if s.x1 <= x else 2 if s.x0 >= x else 0 for s in order])
        if sides in tried or sides.count(1) < MIN_LINES or sides.count(2) < MIN_LINES:
            continue  # parts the lines as an x before it did
        tried.add(sides)
        band: list[Segment] = []
        for segment in [*order, None]:
            if segment is not None and (segment.x1 <= x or segment.x0 >= x):
                band.append(segment)
                continue
            found = _columns_in(band, x)  # a line across, or the end: what stood above it is a band of its own
            if found is not None and (best is None or found[0] > best[0]):
                best = found
            band = []
    return best[1] if best else None


def _columns_in(band: list[Segment], x: float) -> tuple[tuple[int, float], tuple[float, float, float, float]] | None:
    """Two columns of prose on either side of x: in the whole band, else in its longest part between white gaps.

    A heading above the columns, or a table below them, may leave the gutter free too.
    """
    if len(band) < 2 * MIN_LINES:
        return None
    on_left = sum(s.x1 <= x for s in band)
    if on_left < MIN_LINES or len(band) - on_left < MIN_LINES:
        return None
    pieces = _pieces(band)
    for length in range(len(pieces), 0, -1):
        for first in range(len(pieces) - length + 1):
            part = [s for piece in pieces[first : first + length] for s in piece]
            left = [s for s in part if s.x1 <= x]
            right = [s for s in part if s.x0 >= x]
            if (
                len(left) >= MIN_LINES
                and len(right) >= MIN_LINES
                and _prose(left)
                and _prose(right)
                and not _rows(left, right)
            ):
                edges = max(s.x1 for s in left), min(s.x0 for s in right)
                score = len(left) + len(right), edges[1] - edges[0]
                top = min(left[0].middle, right[0].middle)
                return score, (*edges, top, max(left[-1].middle, right[-1].middle))
    return None


def _pieces(band: list[Segment]) -> list[list[Segment]]:
    """A band cut at white gaps that run across it; at most the widest seven."""
    gaps = []
    reach = band[0].bottom
    for i in range(1, len(band)):
        space = band[i].top - reach
        if space > 0.6 * band[i].size:
            gaps.append((space, i))
        reach = max(reach, band[i].bottom)
    cuts = sorted(i for _, i in sorted(gaps, reverse=True)[:7])
    return [band[a:b] for a, b in zip([0, *cuts], [*cuts, len(band)], strict=True)]


def _rows(left: list[Segment], right: list[Segment]) -> bool:
    """True for the labels and values of a table without lines: side by side, and no line carries on the one above."""
    lines = sorted(s.middle for s in left)
    beside = sum(any(abs(s.middle - y) < 0.3 * s.size for y in lines) for s in right)
    carried = max(sum(s.text[:1].islower() for s in side) / len(side) for side in (left, right))
    short = sum(len(s.words) for s in right) <= 4.5 * len(right)
    return short and beside >= 0.9 * max(len(right), 0.8 * len(left)) and carried <= 0.1


def _prose(segments: list[Segment]) -> bool:
    """Lines of running text: several words each, most of them as wide as the column."""
    words = sum(len(s.words) for s in segments) / len(segments)
    if words < MIN_WORDS:
        return False
    widths = sorted(s.x1 - s.x0 for s in segments)
    usual = widths[int(0.85 * (len(widths) - 1))]  # of a full line; the side may hold more than one column
    return sum(w > 0.72 * usual for w in widths) >= 0.5 * len(widths)
