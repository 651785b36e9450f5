"""Runs of text with looks and marks -> words and marks that keep their places once white space is collapsed."""

from __future__ import annotations

import re

from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft
from yarnex.core.reading.layout.words import AS_RAISED, Segment, Word

SIZE = 10.0
SQUARED = re.compile(r"(?<![^\W\d_])(?:[cmk]?m|ft|in|yd)\Z|(?<!\d)10\Z")  # m², 10⁶


class Inline:
    """The words of one paragraph or cell, put together run by run.

    `put` adds text, `open` begins a mark and `close` ends it. White space is collapsed to single spaces at the end.
    """

    __slots__ = ("_bold", "_letters", "_marks", "page")

    def __init__(self, page: int = 0) -> None:
        self.page = page
        self._letters: list[str] = []
        self._bold: list[bool] = []
        self._marks: list[tuple[int, int, str, str]] = []

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
