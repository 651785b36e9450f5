"""Rows of a statement of figures -> where its columns part, and its header words put under the right column.

Figures are set flush right, so that the figures of one column overlap each other and no others; the headings above
them are often wider than the column and stand close together. Columns are therefore taken from the figures, and
header lines are cut between words.
"""

from __future__ import annotations

import itertools
import re
from dataclasses import dataclass
from statistics import median

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.words import Row, Segment, Word

NUMERIC = pattern(
    r"(?:[(\[–—-]\s?)?(?:[A-Z]{0,3}[£$€¥]\s?)?(?:\(\s?)?\d[\d,.\s]*(?:%|p|x|bn|m|k|pts?|bps?)?\s?[)\]]?[*†‡¹²³]?"
    r"|[–—-]{1,2}|n/?[ams]|nil|\d{1,2}(?:\([a-z]\))?(?:,\s?\d{1,2}(?:\([a-z]\))?)*",
    re.IGNORECASE,
)
MIN_ROWS = 3


FLUSH = 3.5  # points by which the right edge of a heading may miss that of its figures (brackets hang out)
NOTE = pattern(r"notes?|ref\.?", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Columns:
    """cuts: the x at which columns part, left to right. rights: the right edge of each column of figures."""

    cuts: list[float]
    rights: list[float]

    def flush(self, x: float) -> int | None:
        """The column (from 1) whose figures end where a word ends."""
        near = [(abs(x - right), i) for i, right in enumerate(self.rights, start=1) if abs(x - right) <= FLUSH]
        return min(near)[1] if near else None


def figure_columns(rows: list[Row]) -> Columns | None:
    """How the columns of a statement stand; None where the rows are not mostly figures under each other."""
    numbers: list[Segment] = []
    labels: list[float] = []
    full = 0
    for row in rows:
        found = [s for s in row.segments[1 if len(row.segments) > 1 else 0 :] if NUMERIC.fullmatch(s.text)]
        others = [s for s in row.segments[1:] if not NUMERIC.fullmatch(s.text)]
        numbers += found
        if found and not others:
            full += 1
            if len(row.segments) > len(found):
                labels.append(row.segments[0].x1)
    if full < MIN_ROWS or len(numbers) < 2 * MIN_ROWS or full < 0.5 * sum(len(r.segments) > 1 for r in rows):
        return None
    notes = [s for row in rows[:6] for s in row.segments if NOTE.fullmatch(s.text)]
    columns = [
        c for c in _columns(numbers) if c[2] >= 2 or any(n.x0 - 6 <= (c[0] + c[1]) / 2 <= n.x1 + 6 for n in notes)
    ]
    if not columns or max(c[2] for c in columns) < MIN_ROWS:
        return None
    first = columns[0][0]
    fitting = [x for x in labels if x < first]
    cuts = [(max(fitting) + first) / 2 if fitting and max(fitting) > first - 40 else first - 6.0]
    cuts += [(left[1] + right[0]) / 2 for left, right in itertools.pairwise(columns)]
    if any(b - a < 4 for a, b in itertools.pairwise(cuts)):
        return None
    return Columns(cuts, [c[1] for c in columns])


def _columns(numbers: list[Segment]) -> list[tuple[float, float, int]]:
    """Figures that overlap from side to side -> (left, right, how many) of each column."""
    out: list[tuple[float, float, int]] = []
    for s in sorted(numbers, key=lambda s: s.x0):
        if out and s.x0 < out[-1][1] - 1:
            left, right, count = out[-1]
            out[-1] = left, max(right, s.x1), count + 1
        else:
            out.append((s.x0, s.x1, 1))
    return out


def recut(row: Row, columns: Columns) -> Row:
    """A row of headings with segments that run over a cut parted there.

    Headings stand flush with the figures under them, or leave a gap wider than those between their own words.
    """
    parts: list[Segment] = []
    for segment in row.segments:
        words = segment.words
        gaps = [b.x0 - a.x1 for a, b in itertools.pairwise(words)]
        usual = median(gaps) if gaps else 0.0
        run: list[Word] = [words[0]]
        for gap, word in zip(gaps, words[1:], strict=True):
            flush = columns.flush(run[-1].x1)
            ends = flush is not None and (word.x0 > columns.rights[flush - 1] - FLUSH)
            before = sum(_middle(run) >= cut for cut in columns.cuts)
            after = sum((word.x0 + word.x1) / 2 >= cut for cut in columns.cuts)
            wide = after > before and gap > 1.4 * usual and gap > 0.3 * word.size
            if ends or wide:
                parts.append(Segment(run))
                run = [word]
            else:
                run.append(word)
        parts.append(Segment(run))
    return Row(parts)


def _middle(words: list[Word]) -> float:
    return (words[0].x0 + words[-1].x1) / 2


def place_of(segment: Segment, columns: Columns, header: bool) -> tuple[int, int]:
    """First and last column of a segment: by its right edge for figures, by what it covers for headings."""
    cuts = columns.cuts
    middle = sum((segment.x0 + segment.x1) / 2 >= cut for cut in cuts)
    if not header:
        if NUMERIC.fullmatch(segment.text) and segment.x1 > cuts[0]:
            return middle, middle
        first = sum(segment.x0 >= cut - 0.5 for cut in cuts)
        return first, first
    flush = columns.flush(segment.x1)
    if flush is not None:
        return flush, flush
    edges = [float("-inf"), *cuts, float("inf")]
    covered = []
    for column in range(1 if middle else 0, len(edges) - 1):
        inside = min(segment.x1, edges[column + 1]) - max(segment.x0, edges[column])
        if inside > 0.3 * (segment.x1 - segment.x0) or inside > 24:
            covered.append(column)
    return (covered[0], covered[-1]) if covered else (middle, middle)
