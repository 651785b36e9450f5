"""The parts of a document as read. All are immutable; every place in them is a span of the linear text."""

from __future__ import annotations

from array import array
from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property


@dataclass(frozen=True, slots=True, order=True)
class Span:
    """Characters [start, end) of a document's linear text, counted from 0."""

    start: int
    end: int

    def of(self, text: str) -> str:
        """The words of this span in `text`."""
        return text[self.start : self.end]

    def holds(self, other: Span) -> bool:
        """True where `other` lies wholly inside."""
        return self.start <= other.start and other.end <= self.end

    def overlaps(self, other: Span) -> bool:
        """True where the two share at least one character."""
        return self.start < other.end and other.start < self.end


@dataclass(frozen=True, slots=True)
class Box:
    """A rectangle on a page, in points (1/72 inch) from the page's top left corner."""

    x0: float
    top: float
    x1: float
    bottom: float


@dataclass(frozen=True, slots=True)
class Page:
    """One page of the file.

    number: from 1 in the file; a slide of a presentation, a sheet of a workbook.
    label: the number printed on it, or recorded for it, "" where there is none. width, height: points, 0 unknown.
    state: "text", "no_text" (a picture or nothing that can be read as text), "blank" or "failed".
    source: how its text got here: "printed", "hidden" (an invisible layer under a picture of the page),
    "recognised" (from a picture) or "" where there is none. turned: degrees clockwise by which it is shown turned.
    name: a sheet's name or a slide's title.
    """

    number: int
    label: str
    width: float
    height: float
    state: str
    words: int
    source: str = ""
    turned: int = 0
    name: str = ""
    hidden: bool = False  # a sheet or slide that the file itself hides


@dataclass(frozen=True, slots=True)
class Cell:
    """One cell of a table; `row` and `column` count from 0 and name its top left place.

    indent: how far its words stand in from the column's left edge, in points (0 where not known).
    shade: the colour of its ground in plain words ("light green"), "" for none.
    """

    row: int
    column: int
    row_span: int
    column_span: int
    span: Span
    indent: float = 0.0
    shade: str = ""


@dataclass(frozen=True, slots=True)
class Table:
    """A grid of cells. `header_rows` says how many rows at the top are headings; ruled: drawn with lines."""

    span: Span
    rows: int
    columns: int
    header_rows: int
    cells: tuple[Cell, ...]
    ruled: bool

    def at(self, row: int, column: int) -> Cell | None:
        """The cell that covers this place, spans included; None where the grid has a hole."""
        for cell in self.cells:
            if cell.row <= row < cell.row + cell.row_span and cell.column <= column < cell.column + cell.column_span:
                return cell
        return None

    def row_cells(self, row: int) -> tuple[Cell, ...]:
        """The cells that begin in this row, left to right."""
        return tuple(c for c in self.cells if c.row == row)


@dataclass(frozen=True, slots=True)
class Block:
    """A run of text with one role.

    kind: "heading", "paragraph", "item" (numbered or bulleted), "table", "note" (foot- or endnote), "furniture".
    number: the printed or worked-out number ("4.2", "(a)", "First Schedule"), "" where there is none.
    heading: the words of a heading that stands in the block ("Repair" in "4.5 Repair. To put and keep ...").
    level: depth, 1 at the top; 0 for blocks that are not numbered or headings.
    section: the place among the document's sections, -1 before the first.
    table: the place among the document's tables, -1 where it is none.
    """

    kind: str
    span: Span
    number: str = ""
    heading: str = ""
    level: int = 0
    section: int = -1
    table: int = -1


@dataclass(frozen=True, slots=True)
class Section:
    """A headed part of a document: its own text up to the next heading of the same or a higher level."""

    number: str
    heading: str
    level: int
    span: Span
    parent: int = -1

    @property
    def name(self) -> str:
        """Number and heading as a person would say them: "4.5 Repair"."""
        return " ".join(filter(None, [self.number, self.heading]))


@dataclass(frozen=True, slots=True)
class Mark:
    """Something that the file records about a span: where it stands, or what hangs on it.

    kind: "cell" (value "Sheet1!C14"), "formula", "time" (seconds from the start, as text), "speaker", "anchor",
    "link" (an address), "comment" (words of a remark), "field" (name of a form field), "hidden" (not shown by
    the file itself), "doubtful" (recognised with little certainty; value in per cent), "shown_as", "change",
    "label" (the name of what the rest of a form's cell holds).
    """

    span: Span
    kind: str
    value: str


@dataclass(frozen=True, slots=True)
class Change:
    """A tracked change. kind: "inserted" or "deleted"; at: where in the linear text it stands (or stood)."""

    kind: str
    text: str
    author: str
    date: str
    at: int


@dataclass(frozen=True, slots=True)
class TaggedFact:
    """A fact of Inline XBRL 1.1, as tagged: nothing is worked out here but the text that it covers.

    concept: its name with prefix. printed: the words covered, continuations included. nil: tagged as nothing.
    dimensions: (axis, member) pairs. start: "" for an instant. factor: 10 to the power of the scale.
    hidden: stands in the hidden part. span: None where it covers no visible text.
    """

    concept: str
    printed: str
    span: Span | None
    numeric: bool
    entity: str
    start: str
    end: str
    dimensions: tuple[tuple[str, str], ...]
    unit: str
    scale: int
    negative: bool
    format: str
    decimals: str
    nil: bool
    hidden: bool
    identity: str = ""
    inside: str = ""  # the identity of the fact that it is nested in


@dataclass(frozen=True, slots=True)
class Problem:
    """Something that could not be read, or was left out, and what to do about it."""

    what: str
    where: str = ""
    do: str = ""
    serious: bool = True  # False: worth knowing, but nothing is missing

    def __str__(self) -> str:
        return "; ".join(filter(None, [f"{self.where}: {self.what}" if self.where else self.what, self.do]))


@dataclass(frozen=True, slots=True, eq=False)
class Fragments:
    """Arrays of one entry for each printed fragment (a word, or the part of it on one line), in text order.

    starts, ends: offsets into the linear text. pages: file page, 0 where the format has none.
    boxes: four numbers a fragment (x0, top, x1, bottom), in points; empty where the format has no geometry.
    lines: the line in a text file, from 1; empty for other formats.
    certainty: per cent, for words recognised from a picture (100 for printed ones); empty where all are printed.
    """

    starts: array[int]
    ends: array[int]
    pages: array[int]
    boxes: array[float] = field(default_factory=lambda: array("f"))
    lines: array[int] = field(default_factory=lambda: array("i"))
    certainty: array[int] = field(default_factory=lambda: array("B"))

    def within(self, span: Span) -> range:
        """Indices of the fragments that overlap `span`."""
        first = bisect_right(self.ends, span.start)
        last = first
        while last < len(self.starts) and self.starts[last] < span.end:
            last += 1
        return range(first, last)


@dataclass(frozen=True, eq=False)
class Document:
    """One file as read.

    path: as the user gave it, with "/". text: the linear text; blocks are parted by line ends. Running headers,
    footers and page numbers stand after `body_end`, out of every paragraph.
    paging: what its pages are: "page", "slide", "sheet", or "" where the format has none.
    parent: the file (a mail, an archive) that encloses this one. attachments: names of what this one encloses.
    properties: what the file records of itself ("author", "from", "sent" ...), in a fixed order.
    """

    path: str
    format: str
    sha256: str
    text: str
    body_end: int
    pages: tuple[Page, ...]
    blocks: tuple[Block, ...]
    tables: tuple[Table, ...]
    sections: tuple[Section, ...]
    fragments: Fragments
    problems: tuple[Problem, ...] = ()
    recorded_title: str = ""
    paging: str = "page"
    parent: str = ""
    attachments: tuple[str, ...] = ()
    properties: tuple[tuple[str, str], ...] = ()
    marks: tuple[Mark, ...] = ()
    changes: tuple[Change, ...] = ()
    tagged: tuple[TaggedFact, ...] = ()
    whole: Document | None = None  # what this is a part of, where only some pages or a section were asked for

    def __repr__(self) -> str:
        return f"Document({self.path!r}, {len(self.text)} characters)"

    @property
    def name(self) -> str:
        """The file's own name, without its folder."""
        return self.path.rsplit("/", 1)[-1]

    @property
    def pages_read(self) -> int:
        """How many pages gave text, or have none to give."""
        return sum(page.state in ("text", "blank") for page in self.pages)

    @property
    def words(self) -> int:
        """Words read, running headers and footers not counted."""
        return bisect_right(self.fragments.ends, self.body_end)

    @cached_property
    def _block_starts(self) -> list[int]:
        return [block.span.start for block in self.blocks]

    @cached_property
    def _marks_by_kind(self) -> dict[str, tuple[list[int], list[Mark]]]:
        out: dict[str, tuple[list[int], list[Mark]]] = {}
        for mark in sorted(self.marks, key=lambda m: (m.span.start, m.span.end)):
            starts, marks = out.setdefault(mark.kind, ([], []))
            starts.append(mark.span.start)
            marks.append(mark)
        return out

    def mark_at(self, kind: str, offset: int) -> Mark | None:
        """The mark of this kind that covers an offset (the last to begin), None where there is none."""
        starts, marks = self._marks_by_kind.get(kind, ([], []))
        place = bisect_right(starts, offset) - 1
        return marks[place] if place >= 0 and offset < marks[place].span.end else None

    def block_at(self, offset: int) -> Block | None:
        """The block that holds this offset, None between blocks."""
        place = bisect_right(self._block_starts, offset) - 1
        if place >= 0 and offset < self.blocks[place].span.end:
            return self.blocks[place]
        return None

    def block_index_at(self, offset: int) -> int:
        """The place of the last block that starts at or before this offset (-1 before the first)."""
        return bisect_right(self._block_starts, offset) - 1

    def pages_of(self, span: Span) -> tuple[int, int]:
        """First and last file page of a span; (0, 0) where the format records none."""
        inside = self.fragments.within(span)
        pages = [self.fragments.pages[i] for i in inside]
        return (min(pages), max(pages)) if pages else (0, 0)

    def page(self, number: int) -> Page | None:
        """The page with this number in the file."""
        return self.pages[number - 1] if 1 <= number <= len(self.pages) else None

    def line_of(self, span: Span) -> int:
        """The line of a text file on which the span begins, from 1; 0 for formats without lines."""
        inside = self.fragments.within(span)
        return self.fragments.lines[inside[0]] if inside and self.fragments.lines else 0

    def boxes_of(self, span: Span) -> Iterator[tuple[int, Box]]:
        """Page and rectangle of each printed fragment of the span."""
        for i in self.fragments.within(span):
            if self.fragments.boxes:
                yield self.fragments.pages[i], Box(*self.fragments.boxes[4 * i : 4 * i + 4])

    def section_path(self, offset: int) -> tuple[Section, ...]:
        """The sections around an offset, outermost first."""
        block = self.block_at(offset)
        path: list[Section] = []
        place = block.section if block else -1
        while place >= 0:
            path.append(self.sections[place])
            place = self.sections[place].parent
        return tuple(reversed(path))

    def cell_at(self, span: Span) -> tuple[Table, Cell] | None:
        """The table and cell that hold the span, None outside tables."""
        block = self.block_at(span.start)
        if block is None or block.table < 0:
            return None
        table = self.tables[block.table]
        for cell in table.cells:
            if cell.span.holds(span):
                return table, cell
        return None
