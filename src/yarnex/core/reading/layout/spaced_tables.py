"""Rows of a region -> the same rows, with stretches that align in columns by white space made into tables."""

from __future__ import annotations

import itertools
import re

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.figure_columns import NUMERIC, Columns, figure_columns, place_of, recut
from yarnex.core.reading.layout.tables import FIGURE, CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import PLACEHOLDER, Row, Segment

CLOSE_GAP = 0.55  # of the size of type: wider than between words, for a value under the others of its column
MIN_GAP = 4.0  # points of white space between columns
LEADING = pattern(r"[.…]+")
PAGE = pattern(r"\d{1,4}|[ivxl]{1,6}")
LEADER = pattern(r"(?:\.\s?){4,}|…{2,}")


def spaced_tables(rows: list[Row], separators: list[float]) -> list[Row | TableDraft]:
    """Rows of one region -> the same rows, with stretches that align in columns made into tables.

    separators: heights at which a line is drawn across, for tables ruled only between rows.
    """
    out: list[Row | TableDraft] = []
    printed = {id(r) for r in rows}
    rows = _cut_at_leaders(rows)
    led = {id(r) for r in rows if id(r) not in printed}
    rows = _cut_at_columns(rows)
    i = 0
    while i < len(rows):
        if not _multi(rows[i]):
            out.append(rows[i])
            i += 1
            continue
        end = _before_second_head(rows, i, _stretch_end(rows, i))
        end = next((j for j in range(i + 1, end) if (id(rows[j]) in led) != (id(rows[i]) in led)), end)
        end = _before_more_columns(rows, i, end)
        draft = _aligned(rows[i:end], separators, led=id(rows[i]) in led) if end - i >= 2 else None
        if draft is None:
            out.append(rows[i])
            i += 1
        else:
            head = _lines_above(rows, i, draft, out)
            if head:
                del out[len(out) - head :]
                draft = _aligned(rows[i - head : end], separators) or draft
            out.append(draft)
            i = end
    return out


def _cut_at_leaders(rows: list[Row]) -> list[Row]:
    """Neighbouring rows in which dots lead from a label to its value lose the dots; those of a list of contents do not."""
    cut: list[Row | None] = []
    for row in rows:
        words = [w for s in row.segments for w in s.words]
        dots = [i for i, w in enumerate(words) if LEADING.fullmatch(w.text)]
        left, right = (words[: dots[0]], words[dots[-1] + 1 :]) if dots else ([], [])
        whole = left and right and len(dots) == dots[-1] - dots[0] + 1 and sum(len(words[i].text) for i in dots) > 3
        paged = len(right) == 1 and PAGE.fullmatch(right[0].text)
        cut.append(Row([Segment(left), Segment(right)]) if whole and not paged else None)
    return [
        made if made is not None and any(c is not None for c in (*cut[max(0, i - 1) : i], *cut[i + 1 : i + 2])) else row
        for i, (row, made) in enumerate(zip(rows, cut, strict=True))
    ]


def _cut_at_columns(rows: list[Row]) -> list[Row]:
    """Rows in which a label runs close up to its value are cut where the rows around them begin that column."""
    out = list(rows)
    for i, row in enumerate(rows):
        *left, last = row.segments
        if len(last.words) < 2 or row.text.startswith(PLACEHOLDER):
            continue
        around = [r for r in (*rows[max(0, i - 3) : i], *rows[i + 1 : i + 4]) if len(r.segments) == 2 + len(left)]
        edges = [r.segments[-1].x0 for r in around]
        words = last.words
        for k in range(1, len(words)):
            gap = words[k].x0 - words[k - 1].x1
            if gap > CLOSE_GAP * row.size and sum(abs(words[k].x0 - e) < 0.8 for e in edges) >= 2:
                out[i] = Row([*left, Segment(words[:k]), Segment(words[k:])])
                break
    return out


def _before_second_head(rows: list[Row], start: int, end: int) -> int:
    """Where a stretch runs into the headings of the next table, the end of the first one."""
    head = rows[start].text
    for place in range(start + 2, end):
        row = rows[place]
        titled = len(rows[place - 1].segments) == 1 and not _is_figures(rows[place - 1])
        if len(row.segments) > 1 and ((row.text == head and len(row.segments) > 2) or (titled and _is_head(row))):
            while place - 1 > start + 1 and len(rows[place - 1].segments) == 1 and not _is_figures(rows[place - 1]):
                place -= 1
            return place
    return end


MORE_ROWS = 3  # of a table of several columns


def _before_more_columns(rows: list[Row], start: int, end: int) -> int:
    """Where a form of labels and values runs, over an empty line, into a table of more columns, the end of the form."""
    if _is_head(rows[start]):
        return end  # years stand over the columns of one table
    for place in range(start + 1, end - MORE_ROWS + 1):
        table = rows[place : place + MORE_ROWS]
        apart = rows[place].top - rows[place - 1].bottom > rows[place].size
        several = all(len(r.segments) > 2 for r in table) and all(len(r.segments) <= 2 for r in rows[start:place])
        # what stands only over the later columns heads them
        if apart and several and rows[start].x0 < table[0].segments[1].x0:
            return place
    return end


MONTH_END = pattern(r"(?:January|February|March|April|May|June|July|August|September|October|November|December)\Z")
UNIT = pattern(r"(?:[£$€¥]|(?:US|A|NZ|C|HK|S)?\$|Rs\.?|[A-Z]{3})\s?(?:[’']?000s?|m|million|bn|k)?", re.IGNORECASE)


def _is_head(row: Row) -> bool:
    """True for a row of years or of units, as stands over the columns of a statement."""
    years = sum(bool(YEAR.fullmatch(s.text)) for s in row.segments)
    units = sum(bool(UNIT.fullmatch(s.text)) for s in row.segments)
    rest = [s for s in row.segments if not YEAR.fullmatch(s.text) and not UNIT.fullmatch(s.text)]
    return years + units >= 1 and not any(NUMERIC.fullmatch(s.text) for s in rest) and not _is_figures(row)


def _lines_above(rows: list[Row], start: int, draft: TableDraft, out: list[Row | TableDraft]) -> int:
    """How many rows above a table are first lines of its column headings: close, and wholly right of the row labels."""
    count = 0
    labels = max(
        (c.lines[0].x1 for c in draft.cells if c.column == 0 and c.row >= draft.header_rows and c.lines),
        default=draft.x0,
    )
    while count < 3 and start - count > 0 and len(out) > count and out[-1 - count] is rows[start - count - 1]:
        row, below = rows[start - count - 1], rows[start - count]
        close = below.top - row.bottom < 0.55 * row.size
        if not close or row.x0 < labels or row.x1 > draft.x1 + 4 or row.text.startswith(PLACEHOLDER):
            break
        count += 1
    return count


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
        if not _multi(row) and row.size > 1.15 * max(r.size for r in rows[start:end]):
            break  # a title in larger type heads what comes next
        alone = not _multi(row) and end - start == 1 and row.top - before.bottom > row.size
        if alone and row.text.isupper() and not _is_head(rows[start]):
            break  # the paper's title below the sender's address
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


def _aligned(rows: list[Row], separators: list[float], led: bool = False) -> TableDraft | None:
    """A stretch of rows -> a table, None where its columns do not hold. led: dots lead from column to column."""
    columns_of_figures = figure_columns(rows)
    if columns_of_figures is not None:
        return _figures(rows, columns_of_figures, separators)
    multi = [r for r in rows if _multi(r)]
    body = multi[1:] if len(multi) >= 4 else multi
    most = max(len(r.segments) for r in multi)
    gaps = None
    for row in sorted(body, key=lambda r: -len(r.segments)):
        met = _free(row) if gaps is None else _meet(gaps, _free(row))
        total = gaps is not None and 2 * len(row.segments) < most  # its label may stand across columns
        if _inner(met) and not (total and len(_inner(met)) < len(_inner(gaps or []))):
            gaps = met
    columns = sorted(_inner(gaps or []))
    if not columns or (len(multi) < 3 and (len(multi) < 2 or (most < 3 and not led))):
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


def _figures(rows: list[Row], columns: Columns, separators: list[float]) -> TableDraft:
    """A statement of figures: columns from the figures, header lines cut between words."""
    start = next((i for i, r in enumerate(rows) if _is_figures(r)), 0)
    while start and len(rows[start - 1].segments) == 1 and rows[start - 1].x1 < columns.cuts[0]:
        start -= 1  # the name of the first group of rows
    heads = [recut(r, columns) for r in rows[:start]]
    x0, x1 = min(r.x0 for r in rows), max(r.x1 for r in rows)
    inside = [y for y in separators if rows[0].top - 3 < y < rows[-1].bottom + 3]
    levels = _levels(heads, columns)
    groups = levels + _logical_rows(rows[start:], columns.cuts, inside)
    cells: list[CellDraft] = []
    for place, group in enumerate(groups):
        found: dict[tuple[int, int], list[Segment]] = {}
        for row in group:
            for segment in row.segments:
                found.setdefault(place_of(segment, columns, header=place < len(levels)), []).append(segment)
        for (first, last), lines in sorted(found.items()):
            ordered = sorted(lines, key=lambda s: (s.middle, s.x0))
            indent = max(0.0, ordered[0].x0 - x0) if first == 0 else 0.0
            cells.append(CellDraft(place, first, 1, last - first + 1, ordered, indent=indent))
    draft = TableDraft(cells, len(groups), len(columns.cuts) + 1, 0, False, x0, rows[0].top, x1, rows[-1].bottom)
    draft.header_rows = min(len(levels), draft.rows - 1)
    return draft


def _levels(heads: list[Row], columns: Columns) -> list[list[Row]]:
    """Header lines -> levels of headings: lines that follow closely are one, a line that spans columns is its own."""
    out: list[list[Row]] = []
    spanned = False
    for row in heads:
        spans = any(b > a for a, b in (place_of(s, columns, True) for s in row.segments))
        apart = bool(out) and row.top - out[-1][-1].bottom > 0.7 * row.size
        if not out or spans or spanned or apart:
            out.append([row])
        else:
            out[-1].append(row)
        spanned = spans
    return out


def _is_figures(row: Row) -> bool:
    """True for a row of the body: a label with figures, not years or units over columns."""
    figures = [s for s in row.segments if NUMERIC.fullmatch(s.text) and not SCALE.fullmatch(s.text)]
    if not figures or (len(row.segments) == len(figures) and all(YEAR.fullmatch(s.text) for s in figures)):
        return False
    label = row.segments[0] if row.segments[0] not in figures else None
    if label is None or not re.search(r"[A-Za-z]{2}", label.text):
        return len(figures) >= 2 and not any(YEAR.fullmatch(s.text) for s in figures)
    return not all(YEAR.fullmatch(s.text) for s in figures)


SCALE = pattern(r"(?:[£$€¥]|[A-Z]{1,3}\$?)\s?[’']?0{3}s?")
YEAR = pattern(r"(?:19|20)\d\d(?:[/–-]\d{2,4})?[¹²³*†]?")


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


def _second_pair(row: Row, before: Row, here: set[int], above: set[int]) -> bool:
    """True for a label with its value of their own, beside which the first columns are empty: "Order no.   BM-7" below an
    address. What wraps seldom opens with capitals and figures in each column.
    """
    if 0 in here or len(here) < 2 or not here <= above or len(row.segments) != len(here):
        return False
    label, *values = row.segments
    short = len(label.words) <= 3 and label.text[:1].isupper() and not label.text.endswith((",", "-"))
    beside = before.segments[-len(row.segments)]
    return (
        short
        and beside.text[:1].isupper()
        and len(beside.words) <= 3
        and all(re.match(r"[A-Z\d£$€]", v.text) for v in values)
    )


def _own_label(row: Row, here: set[int]) -> bool:
    """True for one cell beside an empty first column that opens with a label: "Date: 11 May 2026" below a number."""
    return 0 not in here and len(row.segments) == 1 and LABELLED.match(row.text) is not None


LABELLED = pattern(r"(?:[A-Z][a-z]+(?:\s[a-z]+){0,2}|[A-Z]{3,12}):\s\S|(?:No|Nr|Ref)\.?:?\s[A-Z/-]*\d")


def _above_indented(row: Row, before: Row, after: Row | None) -> bool:
    """True for a line in the first column that stands flush with the one above and over one that is set in: a group's name."""
    set_in = 0.8 * row.size
    return (
        after is not None
        and row.text[:1].isupper()
        and not any(c.isdigit() for c in row.text)
        and abs(before.x0 - row.x0) < set_in / 2
        and after.x0 > row.x0 + set_in
        and len(after.segments) > 1
    )


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
        if not any(
            sum(0 in filled(r) and any(FIGURE.fullmatch(s.text) for s in r.segments[1:]) for r in group) > 1
            for group in groups
        ):
            return groups  # else the lines are drawn only above totals
    steps = [b.top - a.top for a, b in itertools.pairwise(rows)]
    clear = [s for s, r in zip(steps, rows[1:], strict=True) if s > 0.6 * r.size]
    lead = min(clear, default=0.0)
    uneven = bool(clear) and max(clear) > 1.25 * lead
    groups = [[rows[0]]]
    for step, row, after in zip(steps, rows[1:], [*rows[2:], None], strict=True):
        before = groups[-1][-1]
        here = filled(row)
        overlapping = row.top < before.bottom - 0.35 * row.size
        close = step <= 1.12 * lead
        partial = 0 not in here or len(here) == 1
        wrapped = 0 not in here and close and not any(FIGURE.fullmatch(s.text) for s in row.segments)
        first = before.segments[0].text
        lone = here == {0} and close and (first.count("(") > first.count(")") or row.text[:1].islower())
        dated = YEAR.fullmatch(row.segments[0].text) and MONTH_END.search(before.text)
        carried = (
            filled(before) == {0}
            and len(groups[-1]) == 1
            and 0 in here
            and len(here) > 1
            and (row.text[:1].islower() or bool(dated))
        )
        head = len(groups) == 1 and close and not any(FIGURE.match(s.text) for r in (before, row) for s in r.segments)
        head = head and not any(LABELLED.match(s.text) for s in row.segments)
        # in two columns, capitals in both cells are a label and its value rather than the second line of a head
        head = head and not (
            len(cuts) == 1 and here == filled(before) == {0, 1} and all(s.text[:1].isupper() for s in row.segments)
        )
        if all(NUMERIC.fullmatch(s.text) for s in row.segments) and not overlapping:
            groups.append([row])  # a total without a label
            continue
        if not overlapping and here == {0} and _above_indented(row, before, after):
            groups.append([row])
            continue
        if not overlapping and (_second_pair(row, before, here, filled(before)) or _own_label(row, here)):
            groups.append([row])
            continue
        if (
            overlapping
            or (uneven and close and (partial or len(groups[-1]) == 0))
            or wrapped
            or (carried and step <= 1.4 * lead)
            or lone
            or (head and uneven)
        ):
            groups[-1].append(row)
        else:
            groups.append([row])
    return groups
