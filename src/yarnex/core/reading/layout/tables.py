"""Rows and drawn rules -> tables of cells, ruled ones from the drawing and others from the white space."""

from __future__ import annotations

import itertools
import re
from dataclasses import dataclass

from yarnex.core.reading.layout.lines import segments_of
from yarnex.core.reading.layout.words import Row, Rule, Segment, Word

TOUCH = 3.0  # points within which two rules meet
MIN_GAP = 4.0  # points of white space between columns
LEADER = re.compile(r"(?:\.\s?){4,}|…{2,}")
FIGURE = re.compile(r"[(£$€-]?\s?\d[\d.,%)]*")
PLACEHOLDER = "\ue000"


@dataclass(slots=True)
class CellDraft:
    row: int
    column: int
    row_span: int
    column_span: int
    lines: list[Segment]


@dataclass(slots=True)
class TableDraft:
    """A table on one page, before its words have places in the linear text."""

    cells: list[CellDraft]
    rows: int
    columns: int
    header_rows: int
    ruled: bool
    x0: float
    top: float
    x1: float
    bottom: float


def _clusters(values: list[float]) -> list[float]:
    out: list[list[float]] = []
    for value in sorted(values):
        if out and value - out[-1][-1] <= TOUCH:
            out[-1].append(value)
        else:
            out.append([value])
    return [sum(c) / len(c) for c in out]


def ruled_tables(words: list[Word], rules: list[Rule]) -> tuple[list[TableDraft], list[Word]]:
    """Tables drawn as grids -> drafts, and the words outside them."""
    drafts: list[TableDraft] = []
    rest = words
    for group in _connected(rules):
        ys = _clusters([(r.top + r.bottom) / 2 for r in group if r.horizontal])
        xs = _clusters([(r.x0 + r.x1) / 2 for r in group if not r.horizontal])
        if len(ys) < 2 or not xs:
            continue
        left, right = min(r.x0 for r in group), max(r.x1 for r in group)
        xs = _clusters([*xs, left, right])
        if len(xs) < 3 or (len(ys) - 1) * (len(xs) - 1) > 4000:
            continue
        inside = [
            w
            for w in rest
            if xs[0] - 1 <= (w.x0 + w.x1) / 2 <= xs[-1] + 1 and ys[0] - 1 <= (w.top + w.bottom) / 2 <= ys[-1] + 1
        ]
        if len(inside) < 3:
            continue
        draft = _grid(inside, group, xs, ys)
        filled = sum(1 for c in draft.cells if c.lines)
        if filled < 3 or draft.columns < 2:
            continue
        gone = set(map(id, inside))
        rest = [w for w in rest if id(w) not in gone]
        drafts.append(draft)
    return drafts, rest


def _connected(rules: list[Rule]) -> list[list[Rule]]:
    """Rules that touch each other, directly or through others."""
    if len(rules) > 3000:
        return []
    parent = list(range(len(rules)))

    def root(i: int) -> int:
        while parent[i] != i:
            parent[i] = parent[parent[i]]
            i = parent[i]
        return i

    order = sorted(range(len(rules)), key=lambda i: rules[i].top)
    for place, i in enumerate(order):
        a = rules[i]
        for j in order[place + 1 :]:
            b = rules[j]
            if b.top > a.bottom + TOUCH:
                break
            if b.x0 <= a.x1 + TOUCH and a.x0 <= b.x1 + TOUCH:
                parent[root(i)] = root(j)
    groups: dict[int, list[Rule]] = {}
    for i in range(len(rules)):
        groups.setdefault(root(i), []).append(rules[i])
    return sorted(
        (g for g in groups.values() if len(g) >= 4), key=lambda g: (min(r.top for r in g), min(r.x0 for r in g))
    )


def _grid(words: list[Word], rules: list[Rule], xs: list[float], ys: list[float]) -> TableDraft:
    """Words and grid lines -> cells; neighbours without a drawn line between them are one cell."""
    rows, columns = len(ys) - 1, len(xs) - 1
    upright = [r for r in rules if not r.horizontal]
    level = [r for r in rules if r.horizontal]

    def walled(row: int, boundary: int) -> bool:
        top, bottom = ys[row], ys[row + 1]
        drawn = sum(
            max(0.0, min(bottom, r.bottom) - max(top, r.top))
            for r in upright
            if abs((r.x0 + r.x1) / 2 - xs[boundary]) <= TOUCH
        )
        return drawn > 0.5 * (bottom - top)

    def floored(boundary: int, column: int) -> bool:
        x0, x1 = xs[column], xs[column + 1]
        drawn = sum(
            max(0.0, min(x1, r.x1) - max(x0, r.x0))
            for r in level
            if abs((r.top + r.bottom) / 2 - ys[boundary]) <= TOUCH
        )
        return drawn > 0.5 * (x1 - x0)

    parent = list(range(rows * columns))

    def root(i: int) -> int:
        while parent[i] != i:
            i = parent[i]
        return i

    for row in range(rows):
        for column in range(columns):
            here = row * columns + column
            if column + 1 < columns and not walled(row, column + 1):
                parent[root(here + 1)] = root(here)
            if row + 1 < rows and not floored(row + 1, column):
                parent[root(here + columns)] = root(here)
    groups: dict[int, list[tuple[int, int]]] = {}
    for i in range(rows * columns):
        groups.setdefault(root(i), []).append(divmod(i, columns))
    cells: list[CellDraft] = []
    for places in groups.values():
        r0, r1 = min(p[0] for p in places), max(p[0] for p in places)
        c0, c1 = min(p[1] for p in places), max(p[1] for p in places)
        cells.append(CellDraft(r0, c0, r1 - r0 + 1, c1 - c0 + 1, []))
    cells.sort(key=lambda c: (c.row, c.column))
    for cell in cells:
        inside = [
            w
            for w in words
            if xs[cell.column] <= (w.x0 + w.x1) / 2 < xs[cell.column + cell.column_span] + 0.01
            and ys[cell.row] - 1 <= (w.top + w.bottom) / 2 < ys[cell.row + cell.row_span]
        ]
        cell.lines = sorted(segments_of(inside), key=lambda s: (round(s.middle / 3), s.x0))
    draft = TableDraft(cells, rows, columns, 0, True, xs[0], ys[0], xs[-1], ys[-1])
    _drop_empty(draft)
    draft.header_rows = _header_rows(draft)
    return draft


def _drop_empty(draft: TableDraft) -> None:
    """Rows and columns that hold no words (drawn borders, spacers) go."""
    for axis in ("row", "column"):
        count = draft.rows if axis == "row" else draft.columns
        used = sorted({getattr(c, axis) for c in draft.cells if c.lines})
        if len(used) == count:
            continue
        place = {old: new for new, old in enumerate(used)}
        kept: list[CellDraft] = []
        for cell in draft.cells:
            first = getattr(cell, axis)
            length = getattr(cell, f"{axis}_span")
            covered = [place[i] for i in range(first, first + length) if i in place]
            if covered:
                setattr(cell, axis, covered[0])
                setattr(cell, f"{axis}_span", len(covered))
                kept.append(cell)
        draft.cells = kept
        setattr(draft, f"{axis}s", len(used))


def _header_rows(draft: TableDraft) -> int:
    """How many rows at the top name the columns: they hold no figures where the rows below do, or are set in bold."""
    by_row: dict[int, list[CellDraft]] = {}
    for cell in draft.cells:
        if cell.lines:
            by_row.setdefault(cell.row, []).append(cell)
    if len(by_row) < 2:
        return 0
    bold = [all(line.bold for c in by_row.get(r, []) for line in c.lines) and r in by_row for r in range(draft.rows)]
    figures = [
        any(c.column > 0 and FIGURE.match(c.lines[0].text) for c in by_row.get(r, [])) for r in range(draft.rows)
    ]
    count = 0
    while (
        count < min(4, draft.rows - 1)
        and not figures[count]
        and (
            (bold[count] and not all(bold))
            or (any(figures[count + 1 :]) and draft.columns > 2 and (count == 0 or bold[count]))
        )
    ):
        count += 1
    if count == 0 and bold[0] and not all(bold):
        count = 1
    return count


# ------------------------------------------------------------------ white space
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
    draft.header_rows = _header_rows(draft)
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
