"""Lines -> paragraphs, headings and items: where one ends and the next begins, on a page and over its end."""

from __future__ import annotations

import itertools
import re
from collections import Counter
from dataclasses import dataclass, field
from statistics import median

from yarnex.core.document.clause_numbers import CLAUSE, number_of
from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.tables import TableDraft
from yarnex.core.reading.layout.words import Row, Segment, Word

DIVISION = pattern(
    r"(?:article|part|schedule|exhibit|appendix|annex|annexure|attachment|chapter)\b(?!\s+(?:of|to|for|from|and|in)\b)|\w+ (?:schedule|appendix|annex)\b",
    re.IGNORECASE,
)
DEFINED = pattern(r"[“\"'‘][A-Z][^”\"]{1,60}[”\"'’]\s+(?:means|has the meaning|mean|includes|shall)")
SHORT = 0.45  # of the width: prose never leaves more than that of a line empty before it goes on
LABELLED = pattern(r"[A-Z][\w'’ /().-]{1,40}:\s")
CLOSED = pattern(r"[.:;?!][\"”’')]*\Z")


@dataclass(slots=True)
class Draft:
    """A block before it has its place in the linear text: its lines with the page of each."""

    kind: str  # "paragraph", "heading", "note", "furniture", "table"
    lines: list[tuple[int, list[Word]]] = field(default_factory=list)
    table: TableDraft | None = None
    table_page: int = 0
    size: float = 0.0
    bold: bool = False
    centred: bool = False
    left: float = 0.0
    full: bool = False  # the last line reaches the right edge
    boxed: bool = False  # stands in a box beside the text, which goes on past it
    number: str = ""
    heading: str = ""
    level: int = 0
    marks: list[tuple[int, int, str, str]] = field(default_factory=list)  # start, end (in `text`), kind, value

    @property
    def text(self) -> str:
        return " ".join(w.text for _, words in self.lines for w in words)


def paragraphs_of(page: int, items: list[Row | TableDraft], edges: tuple[float, float], pitch: float) -> list[Draft]:
    """Rows and tables of a region -> drafts. edges: left and right of the text; pitch: usual line distance / size."""
    left, right = edges
    drafts: list[Draft] = []
    before: Row | None = None
    shared = Counter(round(i.x0 / 2) for i in items if isinstance(i, Row))
    for item in items:
        if isinstance(item, TableDraft):
            drafts.append(Draft("table", table=item, table_page=page))
            before = None
            continue
        words = [w for s in item.segments for w in s.words]
        line = Segment(words)
        aligned = max(shared[round(item.x0 / 2) + d] for d in (-1, 0, 1)) >= 4
        centred = not aligned and _centred(item, left, right)
        if (
            before is not None
            and drafts[-1].kind == "paragraph"
            and not _breaks(drafts[-1], before, item, line, centred, pitch, right)
        ):
            drafts[-1].lines.append((page, words))
            drafts[-1].bold = drafts[-1].bold and line.bold
        else:
            drafts.append(
                Draft("paragraph", [(page, words)], size=line.size, bold=line.bold, centred=centred, left=item.x0)
            )
        drafts[-1].full = item.x1 > right - 0.12 * (right - left)
        before = item
    return drafts


def _centred(row: Row, left: float, right: float) -> bool:
    space = row.x0 - left, right - row.x1
    return min(space) > 0.04 * (right - left) and abs(space[0] - space[1]) < 0.06 * (right - left)


def _breaks(draft: Draft, before: Row, row: Row, line: Segment, centred: bool, pitch: float, right: float) -> bool:
    """True where the row begins a new block."""
    distance = row.top - before.top
    if distance > 1.32 * pitch * max(line.size, 1) or distance < -1 or abs(line.size - draft.size) > 0.8:
        return True
    if row.x1 < before.x0 or row.x0 > before.x1:
        return True  # lines of one paragraph stand under each other
    tail = before.text
    closed = bool(CLOSED.search(tail))
    bold = line.bold
    if (
        draft.bold
        and not bold
        and ((len(draft.lines) == 1 and len(tail) < 90 and not draft.full) or CLAUSE.match(line.text))
    ):
        return True
    if not draft.bold and bold and closed:
        return True
    if draft.centred and (bold != draft.bold or not draft.full):
        return centred or not draft.full
    if centred != draft.centred and (not draft.full or (centred and closed and line.text.isupper())):
        return True
    if FIRST_ITEM.match(line.text) and before.x1 < draft.left + ENDS_EARLY * (right - draft.left):
        return not POINTING.search(tail)
    if starts_item(line.text) and (row.x0 <= draft.left + 2 or closed or tail.endswith((" and", " or", ","))):
        return not _reference(tail, line.text)
    if line.text[0] in "“\"'‘" and DEFINED.match(line.text):
        return True
    if (
        line.text[:1].isupper()
        and not draft.full
        and before.x1 < draft.left + SHORT * (right - draft.left)
        and not POINTING.search(tail)
    ):
        return True  # a line that ends so early ends its paragraph
    shorter = before.x1 < right - 0.18 * (right - draft.left)
    if not shorter or not line.text[:1].isupper():
        return False
    if closed or (len(draft.lines) > 1 and before.x0 < row.x0 - 8):
        return True
    return bool(LABELLED.match(line.text))


def starts_item(text: str) -> bool:
    """True where a line opens with a clause number, letter or bullet."""
    return bool(number_of(text)[0])


FIRST_ITEM = pattern(r"\((?:a|i|1)\)\s")  # opens a list, where the line ahead of it ends early: "We do not cover"
ENDS_EARLY = 0.6  # share of the width


POINTING = pattern(
    r"(?:sections?|clauses?|articles?|paragraphs?|schedules?|exhibits?|appendix|annex|parts?|items?|rules?|nos?\.)\Z",
    re.IGNORECASE,
)


def _reference(before: str, line: str) -> bool:
    """ "... under Section / 4.2 of this" is a reference that the line end cut, not a new clause."""
    if POINTING.search(before):
        return True
    number, rest = number_of(line)
    open_end = not CLOSED.search(before) and not re.search(r"(?:\b(?:and|or|that)|[,–—-])\Z", before)
    if number[:1].isalpha() and len(number) > 2:  # "Section 4.2 of ...", "Third Schedule."
        return (not CLOSED.search(before) and not before.isupper()) or (rest[:1] in ".,;)" and bool(rest))
    if rest[:1] in ",;)" and rest:
        return True
    if number[:1].isdigit() and re.search(r"\b(?:and|or|to|of|in|the)\Z", before, re.IGNORECASE) and rest[:1].islower():
        return True
    return open_end and rest[:1].islower()


def join_parts(parts: list[list[Draft]]) -> list[Draft]:
    """Blocks of all columns and pages in one list; a paragraph that the end of one cuts is joined to its rest."""
    out: list[Draft] = []
    for drafts in parts:
        fresh = list(drafts)
        last = next((d for d in reversed(out) if d.kind != "note" and not d.boxed), None)
        head = next((d for d in fresh if d.kind != "note"), None)
        if head is not None and head.boxed:
            head = None
        if last and head and last.kind == head.kind == "paragraph" and _continues(last, head):
            last.lines.extend(head.lines)
            last.full = head.full
            fresh.remove(head)
        out.extend(fresh)
    return out


def _continues(last: Draft, head: Draft) -> bool:
    if abs(last.size - head.size) > 0.8 or last.centred or head.centred or last.bold != head.bold:
        return False
    number, rest = number_of(head.text)
    if number:
        return _reference(last.text, head.text) and bool(re.match(r"[a-z,;]", rest))
    if head.text[:1].islower():
        return last.full or not CLOSED.search(last.text)
    if CLOSED.search(last.text):
        return False
    return last.full or (len(last.text) > 50 and last.text.rsplit(" ", 1)[-1].islower())


def usual_pitch(rows: list[Row]) -> float:
    """The median distance between neighbouring lines, as a multiple of their size of type."""
    steps = [
        (b.top - a.top) / b.size
        for a, b in itertools.pairwise(rows)
        if 0.8 * b.size < b.top - a.top < 2.4 * b.size and abs(a.size - b.size) < 0.6
    ]
    return median(steps) if len(steps) >= 4 else 1.25
