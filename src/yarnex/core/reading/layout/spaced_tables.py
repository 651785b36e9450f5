"""Rows of a region -> the same rows, with stretches that align in columns by white space made into tables."""

from __future__ import annotations

import itertools
import re

from yarnex.core.reading.layout.tables import FIGURE, CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import PLACEHOLDER, Row, Segment

MIN_GAP = 4.0  # points of white space between columns
LEADER = re.compile(r"(?:\.\s?){4,}|…{2,}")


def spaced_tables(rows: list[Row], separators: list[float]) -> list[Row | TableDraft]:
    """Rows of one region -> the same rows, with stretches that align in columns made into tables.

    separators: heights at which a line is drawn across, for tables ruled only between rows.
    """
    out: list[Row | TableDraft] = []
    i = 0
    while i < len(rows):
        if not _multi(rows[i]):
            out.append(rows[i])
            i += 1
            continue
        end = _stretch_end(rows, i)
        draft = _aligned(rows[i:end], separators) if end - i >= 2 else None
        if draft is None:
            out.append(rows[i])
            i += 1
        else:
            out.append(draft)
            i = end
    return out


def _multi(row: Row) -> bool:
    return len(row.segments) > 1 and not LEADER.search(row.text)


def _free(row: Row) -> list[tuple[float, float]]:
    """The white intervals of a row, from far left to far right."""
    edges = [(-1e6, row.segments[0].x0)]
    reach = row.segments[0].x1
    for segment in row.segments[1:]:
        if segment.x0 > reach:
            edges.append((reach, segment.x0))
        reach = max(reach, segment.x1)
    edges.append((reach, 1e6))
    return edges


def _meet(a: list[tuple[float, float]], b: list[tuple[float, float]]) -> list[tuple[float, float]]:
    out = []
    for a0, a1 in a:
        for b0, b1 in b:
            lo, hi = max(a0, b0), min(a1, b1)
            if hi - lo >= MIN_GAP:
                out.append((lo, hi))
    return out


def _inner(gaps: list[tuple[float, float]]) -> list[tuple[float, float]]:
    return [g for g in gaps if g[0] > -1e5 and g[1] < 1e5]


def _stretch_end(rows: list[Row], start: int) -> int:
    """One past the last row of the table that may begin at `start`."""
    gaps = _free(rows[start])
    end = start + 1
    last_multi = start
    while end < len(rows):
        row, before = rows[end], rows[end - 1]
        if row.top - before.bottom > 2.2 * row.size or row.text.startswith(PLACEHOLDER):
            break
        met = _meet(gaps, _free(row))
        if _multi(row):
            if not _inner(met):
                if end - start <= 2 and len(row.segments) > len(rows[start].segments):
                    met = _free(row)  # the rows before were a heading across columns
                else:
                    break
            last_multi = end
        else:
            segment = row.segments[0]
            inner = _inner(gaps)
            first_gap = min(g[1] for g in inner) if inner else 0.0
            crosses = any(segment.x0 < g[0] - 1 and segment.x1 > g[1] + 1 for g in inner)
            if crosses or not _inner(met) or (segment.x1 < first_gap and not _multi_soon(rows, end)):
                break
            if segment.x0 >= first_gap - 1:
                last_multi = end  # a wrapped cell to the right belongs to the table
        gaps = met
        end += 1
    tail = last_multi + 1
    if tail < len(rows) and _wraps(rows[last_multi], rows[tail]):
        tail += 1
    return tail


def _multi_soon(rows: list[Row], place: int) -> bool:
    return any(_multi(r) for r in rows[place + 1 : place + 4])


def _wraps(above: Row, below: Row) -> bool:
    """True where `below` is the last line of the first cell of `above`."""
    first = above.segments[0]
    close = below.top - above.bottom < 0.6 * below.size
    opened = first.text.count("(") > first.text.count(")")
    return close and len(below.segments) == 1 and (opened or below.text[:1].islower()) and below.x1 < above.x1


def _aligned(rows: list[Row], separators: list[float]) -> TableDraft | None:
    """A stretch of rows -> a table, None where its columns do not hold."""
    multi = [r for r in rows if _multi(r)]
    body = multi[1:] if len(multi) >= 4 else multi
    most = max(len(r.segments) for r in multi)
    gaps = None
    for row in sorted(body, key=lambda r: -len(r.segments)):
        met = _free(row) if gaps is None else _meet(gaps, _free(row))
        if _inner(met):
            gaps = met
    columns = sorted(_inner(gaps or []))
    if not columns or (len(multi) < 3 and (len(multi) < 2 or most < 3)):
        return None
    cuts = [_cut_in(a, b, rows) for a, b in columns]
    if len(cuts) == 1 and _narrow_text(multi, cuts[0]):
        return None
    x0, x1 = min(r.x0 for r in rows), max(r.x1 for r in rows)
    groups = _logical_rows(rows, cuts, [y for y in separators if rows[0].top - 3 < y < rows[-1].bottom + 3])
    cells: list[CellDraft] = []
    for place, group in enumerate(groups):
        found: dict[tuple[int, int], list[Segment]] = {}
        for row in group:
            for segment in row.segments:
                first = sum(segment.x0 >= cut - 0.5 for cut in cuts)
                last = sum(segment.x1 > cut + 0.5 for cut in cuts)
                if last > first and (segment.x1 - cuts[last - 1]) < 0.15 * (segment.x1 - segment.x0):
                    last -= 1
                found.setdefault((first, max(first, last)), []).append(segment)
        for (first, last), lines in sorted(found.items()):
            cells.append(CellDraft(place, first, 1, last - first + 1, sorted(lines, key=lambda s: (s.middle, s.x0))))
    draft = TableDraft(cells, len(groups), len(cuts) + 1, 0, False, x0, rows[0].top, x1, rows[-1].bottom)
    draft.header_rows = header_rows(draft)
    return draft


def _cut_in(left: float, right: float, rows: list[Row]) -> float:
    """Where to part two columns inside their gap: in its widest stretch that headings leave free too."""
    covered = sorted(
        (max(left, s.x0), min(right, s.x1)) for r in rows for s in r.segments if s.x0 < right and s.x1 > left
    )
    best, at, reach = 0.0, (left + right) / 2, left
    for start, end in [*covered, (right, right)]:
        if start - reach > best:
            best, at = start - reach, (reach + start) / 2
        reach = max(reach, end)
    return at if best >= 1.5 else (left + right) / 2


def _narrow_text(rows: list[Row], cut: float) -> bool:
    """True for two-part rows that are no table: most left cells are single short marks."""
    left = [s for r in rows for s in r.segments if s.x1 <= cut]
    return bool(left) and sum(len(s.text) <= 2 for s in left) > 0.8 * len(left)


def _logical_rows(rows: list[Row], cuts: list[float], separators: list[float]) -> list[list[Row]]:
    """Printed rows -> rows of the table, each with the printed lines that its cells wrap over."""

    def filled(row: Row) -> set[int]:
        return {sum((s.x0 + s.x1) / 2 >= cut for cut in cuts) for s in row.segments}

    starts = sum(0 in filled(r) for r in rows)
    if len(separators) >= 2 and len(separators) + 1 >= 0.6 * starts:
        groups: list[list[Row]] = []
        last = -1
        for row in rows:
            middle = (row.top + row.bottom) / 2
            place = sum(y < middle for y in separators)
            if place == last:
                groups[-1].append(row)
            else:
                groups.append([row])
            last = place
        return groups
    steps = [b.top - a.top for a, b in itertools.pairwise(rows)]
    clear = [s for s, r in zip(steps, rows[1:], strict=True) if s > 0.6 * r.size]
    lead = min(clear, default=0.0)
    uneven = bool(clear) and max(clear) > 1.25 * lead
    groups = [[rows[0]]]
    for step, row in zip(steps, rows[1:], strict=True):
        before = groups[-1][-1]
        here = filled(row)
        overlapping = row.top < before.bottom - 0.35 * row.size
        close = step <= 1.12 * lead
        partial = 0 not in here or len(here) == 1
        wrapped = 0 not in here and close and not any(FIGURE.fullmatch(s.text) for s in row.segments)
        first = before.segments[0].text
        lone = here == {0} and close and (first.count("(") > first.count(")") or row.text[:1].islower())
        head = len(groups) == 1 and close and not any(FIGURE.match(s.text) for r in (before, row) for s in r.segments)
        if (
            overlapping
            or (uneven and close and (partial or len(groups[-1]) == 0))
            or wrapped
            or lone
            or (head and uneven)
        ):
            groups[-1].append(row)
        else:
            groups.append([row])
    return groups
