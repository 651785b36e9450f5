"""Words and drawn rules -> tables drawn as grids; cells keep their spans."""

from __future__ import annotations

from yarnex.core.reading.layout.lines import segments_of
from yarnex.core.reading.layout.tables import CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import Rule, Word

TOUCH = 3.0  # points within which two rules meet


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
        if filled < 3 or draft.columns < 2 or draft.rows < 2:  # one shaded row heads a table that is not ruled
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
    draft.header_rows = header_rows(draft)
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
