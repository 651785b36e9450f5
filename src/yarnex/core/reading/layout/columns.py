"""Segments -> regions in reading order: pages set in two or more columns are read column by column."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

from yarnex.core.reading.layout.lines import rows_of
from yarnex.core.reading.layout.words import PLACEHOLDER, Row, Segment

MIN_LINES = 5  # lines on each side before a gutter is believed
MIN_WORDS = 3.5  # words a line on average: prose, not the cells of a table
MIN_APART = 0.35  # share of a side's lines that stand beside no line of the other, before tables are read in columns
MIN_ROWS = 2  # rows of a table that runs across both columns
MIN_APART_BAR = 0.6  # the same for a side bar


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
        across = _table_across(order, x)
        band: list[Segment] = []
        for segment in [*order, None]:
            if segment is not None and (segment.x1 <= x or segment.x0 >= x) and id(segment) not in across:
                band.append(segment)
                continue
            # a line across, or the end: what stood above it is a band of its own
            found = _columns_in(_without_heading_below(band, x), x)
            if found is not None and (best is None or found[0] > best[0]):
                best = found
            band = []
    return best[1] if best else None


def _table_across(order: list[Segment], x: float) -> set[int]:
    """Ids of the segments of table rows that run across x: label to its left, value far inside the right column."""
    right = [s for s in order if s.x0 >= x]
    edge, width = min(s.x0 for s in right), max(s.x1 for s in right) - min(s.x0 for s in right)
    out: set[int] = set()
    run: list[list[Segment]] = []
    for row in [*_lines_of(order), []]:
        values = [s for s in row if s.x0 >= x]
        if values and len(values) < len(row) and min(s.x0 for s in values) > edge + 0.3 * width:
            run.append(row)
            continue
        if len(run) >= MIN_ROWS:
            out.update(id(s) for line in run for s in line)
        run = []
    return out


def _lines_of(order: list[Segment]) -> list[list[Segment]]:
    """Segments from top to bottom -> those at one height together."""
    lines: list[list[Segment]] = []
    for segment in order:
        if lines and abs(segment.middle - lines[-1][0].middle) < 0.25 * segment.size:
            lines[-1].append(segment)
        else:
            lines.append([segment])
    return lines


def _without_heading_below(band: list[Segment], x: float) -> list[Segment]:
    """A band less the bold or large lines at its foot with nothing beside or below: they head what follows."""
    while band and band[-1].x1 <= x and _stands_out(band[-1], band) and all(s.bottom < band[-1].top for s in band[:-1]):
        band = band[:-1]
    return band


def _stands_out(segment: Segment, band: list[Segment]) -> bool:
    usual = sorted(s.size for s in band)[len(band) // 2]
    return _bold(segment) or segment.size > 1.1 * usual


def _bold(segment: Segment) -> bool:
    return all(w.bold for w in segment.words)


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
    part = _longest(pieces, x, _prose_beside_prose)
    wider = _longest(pieces, x, _columns_set_apart)
    if part and wider:  # one may begin where the other ends
        wider = range(min(part.start, wider.start), max(part.stop, wider.stop))
    if wider and (not part or _goes_on(pieces, part, wider, x)):
        part = wider
    if not part:
        return None
    left, right = _sides([s for i in part for s in pieces[i]], x)
    edges = max(s.x1 for s in left), min(s.x0 for s in right)
    score = len(left) + len(right), edges[1] - edges[0]
    top = min(left[0].middle, right[0].middle)
    return score, (*edges, top, max(left[-1].middle, right[-1].middle))


def _longest(
    pieces: list[list[Segment]], x: float, parted: Callable[[list[Segment], list[Segment]], bool]
) -> range | None:
    """Places of the longest run of pieces that x parts into columns."""
    for length in range(len(pieces), 0, -1):
        for first in range(len(pieces) - length + 1):
            left, right = _sides([s for piece in pieces[first : first + length] for s in piece], x)
            if len(left) >= MIN_LINES and len(right) >= MIN_LINES and parted(left, right):
                return range(first, first + length)
    return None


def _sides(segments: list[Segment], x: float) -> tuple[list[Segment], list[Segment]]:
    return [s for s in segments if s.x1 <= x], [s for s in segments if s.x0 >= x]


def _goes_on(pieces: list[list[Segment]], part: range, wider: range, x: float) -> bool:
    """True where what the wider run adds stands in the columns too: no rows of a table across both."""
    sides = _sides([s for i in wider for s in pieces[i]], x)
    widths = [max(s.x1 for s in side) - min(s.x0 for s in side) for side in sides]
    for i in set(wider) - set(part):
        here = _sides(pieces[i], x)
        if not all(here) or _free(*here) >= MIN_APART:
            continue
        for side, width in zip(here, widths, strict=True):
            rows = rows_of(side)
            if sum(r.x1 - r.x0 > 0.72 * width or _bold(r.segments[0]) for r in rows) < 0.5 * len(rows):
                return False
    return True


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


def _prose_beside_prose(left: list[Segment], right: list[Segment]) -> bool:
    return _prose(left) and _prose(right) and not _rows(left, right)


def _columns_set_apart(left: list[Segment], right: list[Segment]) -> bool:
    """Text with small tables on each side, whose lines run at heights of their own, as those of a table do not.

    A side bar may hold no running text: then more of its lines must stand beside no line.
    """
    free = _free(left, right)
    if free < MIN_APART:
        return False
    holding = [_holds_prose(side) or _gutter(side) is not None for side in (left, right)]
    return all(holding) or (any(holding) and free >= MIN_APART_BAR and all(_full(rows_of(s)) for s in (left, right)))


def _free(left: list[Segment], right: list[Segment]) -> float:
    """Share of the lines, of the side that has fewer, that stand beside no line of the other."""
    few, many = sorted((left, right), key=len)
    heights = [s.middle for s in many]
    return sum(not any(abs(s.middle - y) < 0.25 * s.size for y in heights) for s in few) / len(few)


def _holds_prose(segments: list[Segment]) -> bool:
    """A column of running text, headings and small tables: its lines fill it, some of them going on in the next."""
    rows = [r for r in rows_of(segments) if not r.segments[0].text.startswith(PLACEHOLDER)]
    if len(rows) < MIN_LINES:
        return False
    full = _full(rows)
    carried = sum(r in full and len(r.segments) == 1 and n.segments[0].text[:1].islower() for r, n in pairwise(rows))
    return bool(full) and carried >= 2


def _full(rows: list[Row]) -> list[Row]:
    """The rows that fill their column, where at least half of them do; a row may be a label and its value."""
    width = max(r.x1 for r in rows) - min(r.x0 for r in rows)
    full = [r for r in rows if r.x1 - r.x0 > 0.72 * width]
    return full if len(full) >= 0.5 * len(rows) else []


def _prose(segments: list[Segment]) -> bool:
    """Lines of running text: several words each, most of them as wide as the column."""
    words = sum(len(s.words) for s in segments) / len(segments)
    if words < MIN_WORDS:
        return False
    widths = sorted(s.x1 - s.x0 for s in segments)
    usual = widths[int(0.85 * (len(widths) - 1))]  # of a full line; the side may hold more than one column
    return sum(w > 0.72 * usual for w in widths) >= 0.5 * len(widths)
