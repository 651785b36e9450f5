"""Runs of text with looks and marks -> words and marks that keep their places once white space is collapsed."""

from __future__ import annotations

import re

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft
from yarnex.core.reading.layout.words import AS_RAISED, Segment, Word

SIZE = 10.0
SQUARED = pattern(r"(?<![^\W\d_])(?:[cmk]?m|ft|in|yd)\Z|(?<!\d)10\Z")  # m², 10⁶


class Inline:
    """The words of one paragraph or cell, put together run by run.

    `put` adds text, `open` begins a mark and `close` ends it. White space is collapsed to single spaces at the end.
    """

    __slots__ = ("_bold", "_breaks", "_letters", "_marks", "_tabs", "page")

    def __init__(self, page: int = 0) -> None:
        self.page = page
        self._letters: list[str] = []
        self._bold: list[bool] = []
        self._marks: list[tuple[int, int, str, str]] = []
        self._breaks: list[int] = []
        self._tabs: list[int] = []

    def put(self, text: str, bold: bool = False) -> None:
        """Add a run of text."""
        self._letters.extend(text)
        self._bold.extend([bold] * len(text))

    def put_raised(self, text: str, bold: bool = False) -> None:
        """Add figures set above the line: the number of a note stands apart from the word before it, a square does not."""
        before = "".join(self._letters[-8:])
        if re.fullmatch(r"\d{1,3}", text) and before.strip():
            text = text.translate(AS_RAISED)
            if not before[-1].isspace() and not SQUARED.search(before):
                self.put(" ", bold)
        self.put(text, bold)

    def break_line(self, bold: bool = False) -> None:
        """Go on in a new line of the same paragraph."""
        self._breaks.append(len(self._letters))
        self.put("\n", bold)

    def tab(self, bold: bool = False) -> None:
        """Go on at the next stop."""
        self._tabs.append(len(self._letters))
        self.put("\t", bold)

    def lines(self) -> list[Inline]:
        """The paragraph, cut at the line ends that part labels, addresses and names, not at those inside sentences."""
        if not self._breaks:
            return [self]
        ends = [*self._breaks, len(self._letters)]
        texts = ["".join(self._letters[a:b]).strip() for a, b in zip([0, *self._breaks], ends, strict=True)]
        cuts = [at for at, above, below in zip(self._breaks, texts, texts[1:], strict=False) if _parts(above, below)]
        if "" in texts:
            cuts = sorted({*cuts, *(at for at, below in zip(self._breaks, texts[1:], strict=False) if not below)})
        return self._cut(cuts)

    def columns(self) -> list[Inline]:
        """The paragraph, cut at its tabs; empty parts are left out."""
        return [part for part in self._cut(self._tabs) if not part.empty]

    def _cut(self, places: list[int]) -> list[Inline]:
        out = []
        for start, end in zip([0, *places], [*places, len(self._letters)], strict=True):
            part = Inline(self.page)
            part._letters, part._bold = self._letters[start:end], self._bold[start:end]
            part._marks = [
                (max(a, start) - start, min(b, end) - start, kind, value)
                for a, b, kind, value in self._marks
                if start <= a < end or a < start < b
            ]
            part._tabs = [t - start for t in self._tabs if start < t < end]
            out.append(part)
        return out

    @property
    def at(self) -> int:
        """Where the next letter will stand; give it to `mark` as the start."""
        return len(self._letters)

    @property
    def empty(self) -> bool:
        return not "".join(self._letters).strip()

    def mark(self, start: int, kind: str, value: str) -> None:
        """Mark what was put since `start`."""
        if start < len(self._letters) or kind in ("deleted", "comment"):
            self._marks.append((start, len(self._letters), kind, value))

    def words(self) -> list[Word]:
        """The words, each bold where its first letter is."""
        return self._settle()[0]

    def _settle(self) -> tuple[list[Word], list[tuple[int, int, str, str]]]:
        places = [0] * (len(self._letters) + 1)  # raw offset -> offset once collapsed
        words: list[Word] = []
        token: list[str] = []
        heavy = False
        length = 0
        for i, letter in enumerate(self._letters):
            if letter.isspace():
                if token:
                    words.append(Word("".join(token), 0, 0, 0, 0, SIZE, heavy))
                    token = []
                places[i] = length
                continue
            if not token:
                if words:
                    length += 1
                heavy = self._bold[i]
            places[i] = length
            token.append(letter)
            length += 1
        if token:
            words.append(Word("".join(token), 0, 0, 0, 0, SIZE, heavy))
        places[-1] = length
        marks = []
        text = "".join(self._letters)
        for start, end, kind, value in self._marks:
            raw = text[start:end]
            inner = start + len(raw) - len(raw.lstrip())
            outer = end - (len(raw) - len(raw.rstrip()))
            if inner >= outer:  # it hangs on a gap: on the letter before, else on the one after
                inner = len(text[:start].rstrip()) - 1
                inner = inner if inner >= 0 else len(text) - len(text[end:].lstrip()) if text[end:].strip() else -1
                outer = inner + 1
            if inner >= 0:
                marks.append((places[inner], places[outer - 1] + 1, kind, value))
        return words, marks

    def draft(self, kind: str = "paragraph") -> Draft | None:
        """A block of these words, None where there are none."""
        words, marks = self._settle()
        if not words:
            return None
        return Draft(kind, [(self.page, words)], size=SIZE, bold=all(w.bold for w in words), marks=marks)

    def cell(self, row: int, column: int, row_span: int = 1, column_span: int = 1, shade: str = "") -> CellDraft:
        """A cell of these words (it may be empty)."""
        words, marks = self._settle()
        return CellDraft(row, column, row_span, column_span, [Segment(words)] if words else [], marks, shade=shade)


LABEL_LINE = pattern(r"[A-Z][^:.;]{1,40}:\s+\S")  # "Deposit: £500"
SHORT_LINE = 6  # words


def _parts(above: str, below: str) -> bool:
    """True for a line end after or before a labelled line, or between two short lines that begin with capitals."""
    if LABEL_LINE.match(above) or LABEL_LINE.match(below):
        return below[:1].isupper()
    short = max(len(above.split()), len(below.split())) <= SHORT_LINE
    return short and above[:1].isupper() and (below[:1].isupper() or below[:1].isdigit()) and not above.endswith(",")


def plain_words(text: str, bold: bool = False) -> list[Word]:
    """Words without a place on a page."""
    return [Word(token, 0, 0, 0, 0, SIZE, bold) for token in text.split()]


def heading(text: str, level: int, page: int = 0, number: str = "") -> Draft:
    """A heading that the format itself marks as one."""
    words = plain_words(f"{number} {text}" if number else text, True)
    return Draft(
        "heading", [(page, words)], size=SIZE, bold=True, level=level, heading=" ".join(text.split()), number=number
    )


def paragraph(text: str, page: int = 0, kind: str = "paragraph") -> Draft:
    """A block of plain words; `text` must hold at least one."""
    return Draft(kind, [(page, plain_words(text))], size=SIZE)
