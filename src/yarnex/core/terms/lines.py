"""The lines of a document, as a search sees them: sentences, and table cells with the labels of their row and column.

Each line carries the stems of its own words with their places, and those of what it stands under or beside (headings,
the lead-in of a list, row and column labels, the sentence before), which count for less.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from math import log

from yarnex.core.document import Block, Cell, Span
from yarnex.core.document.table_paths import column_path, is_group, row_path
from yarnex.core.patterns import pattern
from yarnex.core.terms.passages import Passages
from yarnex.core.words import stem, stems_of, tokens

LABEL_FIRST = pattern(r"\s*(?P<label>[A-Z][\w'’/ -]{1,40}?):\s+(?=\S)")
LABEL, HEADING, LEAD_IN, BEFORE, CAPTION, BESIDE, OF_ROWS, ASKED, TOPIC, ITEMS = (
    0.95,
    0.55,
    0.7,
    0.35,
    0.5,
    0.4,
    0.7,
    0.8,
    0.5,
    0.6,
)
# A column that refers to notes behind the table, and the notes: "Reason | 4", "Reason 4: the pipe itself is not insured".
NOTE_HEAD = pattern(
    r"\b(?:reasons?|notes?|remarks?|comments?|refs?\.?|reference|explanation|footnotes?)\b", re.IGNORECASE
)
NOTE_CODE = pattern(r"\s*\(?(?:note\s+|see\s+)?(?P<code>\d{1,2}|[a-z]|\*{1,3}|[†‡§])\)?\.?\s*", re.IGNORECASE)
NOTE_OPENS = pattern(
    r"\s*(?:(?:reasons?|notes?|remarks?|comments?|refs?)\s+)?\(?(?P<code>\d{1,2}|[a-zA-Z]|\*{1,3}|[†‡§])\)?\s*[:.)–—-]?\s+(?=\S)",
    re.IGNORECASE,
)
NOTES_BEHIND = 12  # blocks behind a table in which its notes stand
BESIDE_DAY = 0.85
LONGEST_LABEL = 90  # characters
ROW_CODE = pattern(r"\s*(?:[A-Z]{1,3}[-. ]?\d{0,3}(?:\.\d{1,2})*|\d{1,3}(?:\.\d{1,2})*|[ivx]{1,5}|[a-z])[.)]?\s*")
WHEN_FIRST = pattern(
    r"\s*(?:(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)[a-z]*,?\s+)?(?:\d{1,2}[:.]\d\d\b(?!\s*[%\d])|\d{1,2}(?:st|nd|rd|th)?\s+[A-Z][a-z]{2,8}\b\.?(?:\s+\d{4})?|[A-Z][a-z]{2,8}\s+\d{1,2},?\s+\d{4}|\d{4}-\d\d-\d\d|\d{1,2}[./-]\d{1,2}[./-]\d{2,4})"
)


MOVED = pattern(r"\b(?:(?P<up>up|ahead)|down)\s+(?:by\s+)?(?:about\s+|some\s+)?[£$€]?\d", re.IGNORECASE)
IN_ALL = pattern(r"\b(?:that|which|this)\s+makes\b|\bin\s+all\b|\baltogether\b", re.IGNORECASE)
TOTAL_STEM = stem("total")
RISES, FALLS = stem("increase"), stem("decrease")


@dataclass(slots=True)
class Line:
    """span: what to quote. values: where a value may stand. own: stem -> places of its words in the document.

    around: stem -> how much it counts, for words that stand outside the line. kind: "sentence", "cell" or "heading".
    """

    span: Span
    values: Span
    kind: str
    block: int
    own: dict[str, list[int]] = field(default_factory=dict)
    around: dict[str, float] = field(default_factory=dict)
    size: int = 0
    label: str = ""
    names: tuple[str, ...] = ()  # stems of the label, defined name or role that the line is given under

    def near(self, words: tuple[str, ...], weight: float) -> None:
        for word in words:
            if self.around.get(word, 0.0) < weight:
                self.around[word] = weight


KEY = pattern(
    r"(?=[^\W_]*[A-Z])[A-Z\d]+(?:[-/.][A-Z\d]+)*(?<=\d)|[A-Z]+(?:[-/.][A-Z\d]+)+"
)  # what a row is known by: "KPE-S1"
# "GST 15%", "Yarn spoiled, 6,480 kg", "Lost production, 6 days"
RATE_IN = pattern(
    r"\d\s?(?:%|per\s?cent\b|(?:kg|g|t|tonnes?|lbs?|m|km|cm|mm|m²|m2|sq\.?\s?(?:m|ft)|litres?|l|kWh|MWh|(?:working\s+)?days?|weeks?|months?|years?|hours?|hrs?|miles?|units?|items?|bales?|pallets?|people|users?)\b)",
    re.IGNORECASE,
)
NUMBERED = pattern(r"\s*(?:No\.?\s*)?(?P<number>\d{1,3})[.)]?\s*")
RANGE = pattern(r"\s*(?:[A-Za-z]+\s+){0,2}(?P<a>\d{1,3})\s*(?:-|–|—|to|through|and|&)\s*(?P<b>\d{1,3})\b(?!\s*[%.,]\d)")


def _between(label: str) -> tuple[str, ...]:
    """The whole numbers inside a range that a label names: "3 through 5" also answers for 4."""
    m = RANGE.match(label)
    if m is None or not 0 < int(m["b"]) - int(m["a"]) <= 40:
        return ()
    return tuple(str(n) for n in range(int(m["a"]), int(m["b"]) + 1))


class MadeBefore(Sequence[Line]):
    """Lines that an earlier run has made, with what it knew of them all; each is made again when it is first looked at."""

    postings: dict[str, Sequence[int]]
    counts: dict[str, int]
    blocks: Sequence[int]  # of each line, the place of its block

    def shares_of(self, word: str) -> Sequence[float]:
        """How much each of a stem's postings counts: 1 for a line that holds it."""
        raise NotImplementedError


class Lines:
    """All lines of a document, with where each stem stands. made: those of this document, where they were made before."""

    def __init__(self, passages: Passages, made: MadeBefore | None = None) -> None:
        self.passages = passages
        self.document = passages.document
        self.text = passages.text
        self._made: list[Line] = []
        self.lines: Sequence[Line] = self._made if made is None else made
        self._heading_stems: dict[str, tuple[str, ...]] = {}
        self._naming: dict[str, dict[int, float]] = {}
        if made is not None:
            self.__dict__.update(postings=made.postings, counts=made.counts, _blocks=made.blocks)
            return
        self._build()
        self._add_defined()
        self._add_notes()

    @cached_property
    def spoken(self) -> bool:
        """True for a transcript, where one speaker answers the other."""
        return self.passages.is_spoken

    # ------------------------------------------------------------------ building
    def _build(self) -> None:
        by_block: dict[int, list[Span]] = {}
        for sentence in self.passages.sentences:
            by_block.setdefault(sentence.block, []).append(sentence.span)
        lead_ins: list[tuple[int, tuple[str, ...], Line]] = []
        asked: tuple[str, ...] = ()  # by the one who spoke before
        for place, block in self.passages.blocks:
            if block.kind == "table":
                self._add_table(place, block)
                continue
            level = block.level
            while lead_ins and lead_ins[-1][0] >= level:
                lead_ins.pop()
            leads = tuple(w for _, words, _ in lead_ins for w in words)
            before: tuple[str, ...] = ()
            reply, asked = asked, ()
            spans = by_block.get(place, [])
            topic: tuple[str, ...] = ()  # of the paragraph, which its first sentence tells
            for span in spans:
                line = self._sentence(span, place, block)
                line.near(leads, LEAD_IN)
                line.near(before, BEFORE)
                line.near(topic, TOPIC)
                if reply:
                    line.near(reply, ASKED if span is spans[0] else LEAD_IN)
                self._made.append(line)
                if lead_ins:
                    lead_ins[-1][2].near(tuple(line.own), ITEMS)  # what it says holds for each of its items
                topic = topic or tuple(line.own)
                question = span.of(self.text).rstrip().endswith("?")
                before = tuple(line.own) if not question else (*before, *line.own)
                asked = before if question and self.spoken else asked
                if question and not self.spoken:
                    reply = tuple(line.own)  # what follows answers it
            if spans and spans[-1].of(self.text).endswith((":", "—", "–")):
                lead_ins.append((level, stems_of(spans[-1].of(self.text)), self._made[-1]))

    def _headings(self, block: Block) -> tuple[str, ...]:
        words = self.passages.headings_of(block)
        if words not in self._heading_stems:
            self._heading_stems[words] = stems_of(words)
        return self._heading_stems[words]

    def _sentence(self, span: Span, place: int, block: Block) -> Line:
        line = Line(span, span, "heading" if block.kind == "heading" else "sentence", place)
        for token in tokens(span.of(self.text)):
            line.own.setdefault(token.stem, []).append(span.start + token.start)
            line.size += 1
        for m in MOVED.finditer(span.of(self.text)):  # "revenue up 4.8%" tells of a rise
            line.own.setdefault(RISES if m["up"] else FALLS, []).append(span.start + m.start())
        for m in IN_ALL.finditer(span.of(self.text)):
            line.own.setdefault(TOTAL_STEM, []).append(span.start + m.start())
        opening = LABEL_FIRST.match(span.of(self.text))
        if opening and line.size > len(opening["label"].split()):
            line.label = opening["label"]
            line.names = stems_of(opening["label"])
        line.near(self._headings(block), HEADING)
        if block.heading:
            line.near(stems_of(block.heading), HEADING + 0.1)
        return line

    def _add_table(self, place: int, block: Block) -> None:
        table = self.document.tables[block.table]
        required = self.passages.compliance(table)
        headings = self._headings(block)
        above = self.document.blocks[place - 1] if place else None
        caption = stems_of(above.span.of(self.text)[-200:]) if above is not None and above.kind != "table" else ()
        for row in range(table.rows):
            cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
            if not cells or (row < table.header_rows and table.rows > table.header_rows):
                continue
            whole = Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
            path = stems_of(" ".join(row_path(table, row, self.text)))
            numbered = NUMBERED.fullmatch(cells[0].span.of(self.text)) if not path and cells[0].column == 0 else None
            path = (*path, *((numbered["number"],) if numbered else ()), *_between(cells[0].span.of(self.text)))
            second = (
                cells[1].span.of(self.text)
                if len(cells) > 2 and ROW_CODE.fullmatch(cells[0].span.of(self.text))
                else ""
            )
            thing = stems_of(second) if len(second) < LONGEST_LABEL and not WHEN_FIRST.match(second) else ()
            first_head = stems_of(" ".join(column_path(table, cells[0], self.text))) if numbered else ()
            alone = is_group(table, row, self.text)
            all_words = stems_of(" ".join(c.span.of(self.text) for c in cells))
            labelled = cells[0].column == 0 and len(cells) > 1
            codes = [c for c in cells[1:] if len(cells) > 3 and KEY.fullmatch(c.span.of(self.text).strip())]
            keys = stems_of(" ".join(c.span.of(self.text) for c in codes))
            for cell in cells:
                if required is not None and cell.column == required[0]:
                    continue  # the name of what is offered beside it
                if labelled and cell is cells[0] and len(cells[0].span.of(self.text)) < LONGEST_LABEL:
                    if WHEN_FIRST.match(cells[0].span.of(self.text)):
                        self._made.append(self._when(place, cells, whole, all_words, headings))
                    elif RATE_IN.search(cells[0].span.of(self.text)):
                        self._made.append(self._when(place, cells[:1], whole, (), headings))
                    continue  # the label itself is the other cells' label
                line = Line(whole if whole.end - whole.start < 600 else cell.span, cell.span, "cell", place)
                words = cell.span.of(self.text)
                for token in tokens(words):
                    line.own.setdefault(token.stem, []).append(cell.span.start + token.start)
                    line.size += 1
                if not alone:
                    line.near(path, LABEL)
                    if cell is not cells[1 if len(cells) > 1 else 0]:
                        line.near(thing, LABEL)  # a row that opens with its number is named by what follows
                    line.near(first_head, OF_ROWS)
                    if cell not in codes:
                        line.near(keys, LABEL)
                    line.label = cells[0].span.of(self.text) if labelled else ""
                    line.names = path if labelled else ()
                line.near(stems_of(" ".join(column_path(table, cell, self.text))), LABEL - 0.05)
                line.near(all_words, BESIDE)
                line.near(caption, CAPTION)
                line.near(headings, HEADING)
                self._made.append(line)

    def _when(
        self, place: int, cells: Sequence[Cell], whole: Span, all_words: tuple[str, ...], headings: tuple[str, ...]
    ) -> Line:
        """The day or hour that opens a row of a log, which what stands beside it names; a rate in the label of a row."""
        line = Line(whole if whole.end - whole.start < 600 else cells[0].span, cells[0].span, "cell", place)
        for token in tokens(cells[0].span.of(self.text)):
            line.own.setdefault(token.stem, []).append(cells[0].span.start + token.start)
            line.size += 1
        line.near(all_words, BESIDE_DAY)
        line.near(headings, HEADING)
        return line

    def _add_defined(self) -> None:
        """Lines for what stands under a name: "Label: value", definitions, and parties by their role."""
        for row in self.passages.labelled:
            if row.source == "line":
                self._named(row.row, row.value, stems_of(row.label), row.label)
        for definition in self.passages.definitions:
            if not definition.inline:
                self._named(definition.sentence, definition.meaning, stems_of(definition.name), definition.name)
            elif definition.meaning.end > definition.meaning.start:
                start = max(definition.meaning.start, definition.meaning.end - 120)
                self._named(
                    definition.sentence, Span(start, definition.meaning.end), stems_of(definition.name), definition.name
                )
        for party, span, sentence in self.passages.roles:
            self._named(sentence, span, stems_of(party.role), party.role)

    def _add_notes(self) -> None:
        """To the notes behind a table, what the rows name that refer to them by number or letter in a column of notes."""
        for place, block in enumerate(self.document.blocks):
            if block.kind != "table":
                continue
            table = self.document.tables[block.table]
            referring: dict[str, tuple[str, ...]] = {}
            for row in range(table.header_rows, table.rows):
                cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
                for cell in cells[1:]:
                    code = NOTE_CODE.fullmatch(cell.span.of(self.text))
                    head = " ".join(column_path(table, cell, self.text)) if code is not None else ""
                    if code is None or not NOTE_HEAD.search(head):
                        continue
                    words = stems_of(" ".join(c.span.of(self.text) for c in cells if c is not cell))
                    referring[code["code"].lower()] = (
                        *referring.get(code["code"].lower(), ()),
                        *words,
                        *stems_of(head),
                    )
            for behind in (
                range(place + 1, min(place + 1 + NOTES_BEHIND, len(self.document.blocks))) if referring else ()
            ):
                note = self.document.blocks[behind]
                if note.kind == "table":
                    break
                opens = NOTE_OPENS.match(note.span.of(self.text))
                if opens is not None and opens["code"].lower() in referring:
                    for line in self._in_block(behind):
                        line.near(referring[opens["code"].lower()], BESIDE_DAY)

    def _named(self, span: Span, values: Span, names: tuple[str, ...], label: str) -> None:
        if not names:
            return
        place = self.document.block_index_at(span.start)
        line = Line(span, values, "named", place, label=label, names=names)
        for token in tokens(values.of(self.text)):
            line.own.setdefault(token.stem, []).append(values.start + token.start)
            line.size += 1
        line.near(names, LABEL)
        line.near(self._headings(self.document.blocks[place]), HEADING)
        self._made.append(line)

    # ------------------------------------------------------------------ asking
    @cached_property
    def postings(self) -> dict[str, Sequence[int]]:
        """For each stem the places of the lines that hold it or stand under it."""
        out: dict[str, list[int]] = {}
        for place, line in enumerate(self.lines):
            for word in line.own:
                out.setdefault(word, []).append(place)
            for word in line.around:
                if word not in line.own:
                    out.setdefault(word, []).append(place)
        return {word: tuple(places) for word, places in out.items()}

    def naming(self, word: str) -> dict[int, float]:
        """For each line that holds a stem 1, for each that stands under it how much that counts; by place, in order."""
        found = self._naming.get(word)
        if found is None:
            found = self._naming[word] = dict(zip(self.postings.get(word, ()), self._shares(word), strict=True))
        return found

    def _shares(self, word: str) -> Iterable[float]:
        if isinstance(self.lines, MadeBefore):
            return self.lines.shares_of(word)
        lines = (self.lines[place] for place in self.postings.get(word, ()))
        return (1.0 if word in line.own else line.around[word] for line in lines)

    @cached_property
    def _blocks(self) -> Sequence[int]:
        return [line.block for line in self.lines]

    @cached_property
    def _by_block(self) -> dict[int, list[int]]:
        out: dict[int, list[int]] = {}
        for place, block in enumerate(self._blocks):
            out.setdefault(block, []).append(place)
        return out

    def _in_block(self, block: int) -> list[Line]:
        return [self.lines[place] for place in self._by_block.get(block, ())]

    def at(self, place: Span) -> list[Line]:
        """The lines that a place overlaps: those in which a value at that place would stand."""
        found = self._in_block(self.document.block_index_at(place.start))
        return [line for line in found if line.span.overlaps(place)]

    @cached_property
    def counts(self) -> dict[str, int]:
        """For each stem how many lines hold it or are labelled with it."""
        out: dict[str, int] = {}
        for line in self.lines:
            for word in {*line.own, *(w for w, f in line.around.items() if f >= LABEL - 0.06)}:
                out[word] = out.get(word, 0) + 1
        return out

    def rarity(self, word: str) -> float:
        """How much a word tells: the logarithm of lines by lines that hold it (inverse document frequency)."""
        count = self.counts.get(word, 0)
        return log(1 + (len(self.lines) + 1) / (count + 0.5))
