"""Boxes beside the text of a page: a frame or a coloured ground that holds words of its own, to be read by themselves."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from yarnex.core.reading.layout.words import Rule, Segment, Shade

NEAR = 2.5  # points by which the corners of a frame may miss each other
MOST_RULES = 120  # upright lines of a page; with more they are a grid or a drawing
MOST_WIDE = 0.6  # of the page: a wider frame stands around the text, not beside it
Area = tuple[float, float, float, float]


def boxes_beside(
    segments: list[Segment], rules: list[Rule], shades: list[Shade], tables: list[Area], width: float
) -> list[list[Segment]]:
    """The segments of each box that has other words beside it, from top to bottom; boxes in boxes count once.

    tables: areas of drawn tables, whose cells are no boxes. width: of the page, in points.
    """
    areas = [*_frames(rules), *((s.x0, s.top, s.x1, s.bottom) for s in shades)]
    areas = [
        a for a in dict.fromkeys(areas) if a[2] - a[0] < MOST_WIDE * width and not any(_meets(a, t) for t in tables)
    ]
    out: list[list[Segment]] = []
    taken: set[int] = set()
    for area in sorted(areas, key=lambda a: -(a[2] - a[0]) * (a[3] - a[1])):
        inside = [s for s in segments if id(s) not in taken and _holds(area, s)]
        if len(inside) < 2 or len(inside) == len(segments):
            continue
        if any(
            not _holds(area, s) and s.x0 < area[2] and s.x1 > area[0] and area[1] < s.middle < area[3] for s in segments
        ):
            continue  # words run across its edge: it is no box of theirs
        lines = {round(s.middle) for s in inside}
        beside = [s for s in segments if area[1] < s.middle < area[3] and not _holds(area, s)]
        prose = sum(len(s.words) >= 5 for s in beside)
        if len(lines) >= 2 and prose >= 2:
            taken.update(id(s) for s in inside)
            out.append(inside)
    return sorted(out, key=lambda box: min(s.top for s in box))


def _frames(rules: list[Rule]) -> Iterator[Area]:
    """Rectangles of four drawn lines."""
    upright = [r for r in rules if not r.horizontal and r.bottom - r.top > 20]
    level = [r for r in rules if r.horizontal and r.x1 - r.x0 > 40]
    if len(upright) > MOST_RULES:
        return
    for a, b in combinations(sorted(upright, key=lambda r: r.x0), 2):
        if b.x0 - a.x0 < 40 or abs(a.top - b.top) > NEAR or abs(a.bottom - b.bottom) > NEAR:
            continue
        spans = [r for r in level if abs(r.x0 - a.x0) < NEAR and abs(r.x1 - b.x1) < NEAR]
        if any(abs(r.top - a.top) < NEAR for r in spans) and any(abs(r.bottom - a.bottom) < NEAR for r in spans):
            yield a.x0, a.top, b.x1, a.bottom


def _holds(area: Area, segment: Segment) -> bool:
    x0, top, x1, bottom = area
    return segment.x0 >= x0 - 1 and segment.x1 <= x1 + 1 and top - 1 <= segment.middle <= bottom + 1


def _meets(a: Area, b: Area) -> bool:
    return a[0] < b[2] and a[2] > b[0] and a[1] < b[3] and a[3] > b[1]
