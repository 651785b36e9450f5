"""Blocks -> the linear text and the arrays that map it back to pages, cells and boxes."""

from __future__ import annotations

import re
from array import array
from collections.abc import Iterable
from dataclasses import dataclass, field

from yarnex.core.document import Block, Cell, Fragments, Mark, Section, Span, Table
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import TableDraft
from yarnex.core.reading.layout.turns import mark_turns
from yarnex.core.reading.layout.words import Word

LINE_HEIGHT = 12.0  # points from line to line of a text file, whose words are set as if on a page
HYPHENS = "-\u2010\u00ad\x02"
KEEP_HYPHEN = {
    "non",
    "self",
    "co",
    "ex",
    "mid",
    "half",
    "semi",
    "anti",
    "cross",
    "long",
    "short",
    "well",
    "sub",
    "high",
    "low",
    "full",
    "part",
}


@dataclass(slots=True)
class Linear:
    """The text under construction. `geometry`: words carry boxes; `line_numbers`: their height is a line of the file."""

    geometry: bool = True
    line_numbers: bool = False
    parts: list[str] = field(default_factory=list)
    length: int = 0
    starts: array[int] = field(default_factory=lambda: array("i"))
    ends: array[int] = field(default_factory=lambda: array("i"))
    pages: array[int] = field(default_factory=lambda: array("i"))
    lines: array[int] = field(default_factory=lambda: array("i"))
    boxes: array[float] = field(default_factory=lambda: array("f"))
    blocks: list[Block] = field(default_factory=list)
    tables: list[Table] = field(default_factory=list)
    sections: list[Section] = field(default_factory=list)
    marks: list[Mark] = field(default_factory=list)
    recognised: bool = False  # words carry their certainty
    certainty: array[int] = field(default_factory=lambda: array("B"))

    def mark(self, span: Span, marks: Iterable[tuple[int, int, str, str]]) -> None:
        """Keep marks given by their place inside a passage that has just been laid out."""
        for start, end, kind, value in marks:
            first, last = span.start + start, min(span.start + end, span.end)
            if first < last:
                self.marks.append(Mark(Span(first, last), kind, value))

    def add(self, text: str) -> None:
        self.parts.append(text)
        self.length += len(text)

    def words(self, lines: Iterable[tuple[int, list[Word]]], joined: dict[str, int]) -> Span:
        """Append words with single spaces; a word that a line end cut is put together again."""
        start = length = self.length
        parts, starts, ends, pages, boxes = self.parts, self.starts, self.ends, self.pages, self.boxes
        glue = True  # no space before the first word
        lines = list(lines)
        for place, (page, words) in enumerate(lines):
            following = lines[place + 1][1][0].text if place + 1 < len(lines) and lines[place + 1][1] else ""
            last = len(words) - 1
            for i, word in enumerate(words):
                text = word[0]
                if not glue:
                    parts.append(" ")
                    length += 1
                glue = False
                if i == last and following and text[-1] in HYPHENS and _cut(text, following):
                    glue = True
                    if _drops_hyphen(text, following, joined):
                        text = text[:-1]
                    elif text[-1] in "\u00ad\x02":
                        text = text[:-1] + "-"
                parts.append(text)
                starts.append(length)
                length += len(text)
                ends.append(length)
                pages.append(page)
                if self.line_numbers:
                    self.lines.append(int(word.top // LINE_HEIGHT) + 1)
                if self.geometry:
                    boxes.extend(word[1:5])
                if self.recognised:
                    self.certainty.append(word.certainty)
        self.length = length
        return Span(start, self.length)

    def fragments(self) -> Fragments:
        return Fragments(self.starts, self.ends, self.pages, self.boxes, self.lines, self.certainty)


def _cut(text: str, following: str) -> bool:
    """True where a hyphen at a line end stands inside a word."""
    return len(text) > 1 and text[-2].isalpha() and following[0].islower()


def _drops_hyphen(text: str, following: str, joined: dict[str, int]) -> bool:
    """Whether the hyphen at a line end only parts the word: what the rest of the document writes decides."""
    if text[-1] in "\u00ad":
        return True
    head = re.sub(r"\W+\Z|\A\W+", "", text).lower()
    tail = re.sub(r"\W+\Z", "", following).lower()
    whole, split = joined.get(head + tail, 0), joined.get(f"{head}-{tail}", 0)
    if whole or split:
        return whole >= split
    return head not in KEEP_HYPHEN and "-" not in head


def vocabulary(drafts: list[Draft]) -> dict[str, int]:
    """How often each word with or without an inner hyphen stands in the document; read only when hyphens ask."""
    cut = any(
        words and words[-1].text[-1] in HYPHENS and len(words[-1].text) > 1 for d in drafts for _, words in d.lines[:-1]
    )
    counts: dict[str, int] = {}
    if not cut:
        return counts
    for draft in drafts:
        for _, words in draft.lines:
            for word in words:
                bare = word.text.strip(".,;:()“”\"'").lower()
                counts[bare] = counts.get(bare, 0) + 1
    return counts


def lay_out(drafts: list[Draft], furniture: list[Draft], linear: Linear) -> int:
    """Fill `linear` with blocks in reading order, furniture last; returns where the body ends."""
    joined = vocabulary(drafts)
    mark_turns(drafts)
    stack: list[tuple[int, int]] = []  # (level, place in sections)
    open_sections: list[list[object]] = []
    for draft in drafts:
        filled = any(c.lines for c in draft.table.cells) if draft.table is not None else any(w for _, w in draft.lines)
        if not filled:
            continue
        if linear.length:
            linear.add("\n")
        if draft.kind == "table" and draft.table is not None:
            table = _table(draft.table, draft.table_page, linear, joined)
            linear.tables.append(table)
            linear.blocks.append(
                Block("table", table.span, section=stack[-1][1] if stack else -1, table=len(linear.tables) - 1)
            )
            continue
        span = linear.words(draft.lines, joined)
        linear.mark(span, draft.marks)
        if (draft.heading or draft.kind == "heading") and draft.level and draft.kind != "note":
            while stack and stack[-1][0] >= draft.level:
                open_sections[stack.pop()[1]][3] = span.start - 1
            open_sections.append(
                [draft.number, draft.heading, draft.level, -1, span.start, stack[-1][1] if stack else -1]
            )
            stack.append((draft.level, len(open_sections) - 1))
        elif draft.level and stack and draft.kind == "paragraph":
            while stack and stack[-1][0] >= draft.level:
                open_sections[stack.pop()[1]][3] = span.start - 1
        kind = "item" if draft.kind == "paragraph" and draft.number else draft.kind
        linear.blocks.append(
            Block(
                kind,
                span,
                draft.number,
                draft.heading,
                draft.level,
                section=stack[-1][1] if stack and kind != "note" else -1,
            )
        )
    body_end = linear.length
    for _, place in stack:
        open_sections[place][3] = body_end
    for number, heading, level, end, start, parent in open_sections:
        linear.sections.append(
            Section(str(number), str(heading), int(str(level)), Span(int(str(start)), int(str(end))), int(str(parent)))
        )
    for draft in furniture:
        if linear.length:
            linear.add("\n")
        span = linear.words(draft.lines, joined)
        linear.mark(span, draft.marks)
        linear.blocks.append(Block("furniture", span))
    return body_end


def _table(draft: TableDraft, page: int, linear: Linear, joined: dict[str, int]) -> Table:
    start = linear.length
    cells: list[Cell] = []
    row = 0
    for cell in sorted(draft.cells, key=lambda c: (c.row, c.column)):
        if not cell.lines:
            continue
        if cells:
            linear.add("\n" if cell.row != row else "\t")
        row = cell.row
        span = linear.words([(cell.page or page, line.words) for line in cell.lines], joined)
        linear.mark(span, cell.marks)
        cells.append(Cell(cell.row, cell.column, cell.row_span, cell.column_span, span, cell.indent, cell.shade))
    return Table(Span(start, linear.length), draft.rows, draft.columns, draft.header_rows, tuple(cells), draft.ruled)
