"""What the layout stages work on: words with boxes, drawn rules, and the page that holds them."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import NamedTuple

REDACTED = "█"


class Word(NamedTuple):
    """A printed word: text without white space, its box, size of type in points, and whether it is bold."""

    text: str
    x0: float
    top: float
    x1: float
    bottom: float
    size: float
    bold: bool


class Rule(NamedTuple):
    """A drawn straight line; horizontal where its height is under its width."""

    x0: float
    top: float
    x1: float
    bottom: float

    @property
    def horizontal(self) -> bool:
        return self.x1 - self.x0 >= self.bottom - self.top


@dataclass(slots=True)
class PageMarks:
    """All marks of one page that matter for its text."""

    number: int
    width: float
    height: float
    words: list[Word]
    rules: list[Rule] = field(default_factory=list)
    pictures: int = 0
    state: str = "text"


class Segment:
    """Words that stand side by side without a wide gap: a line of a paragraph, or a cell's line."""

    __slots__ = ("bold", "bottom", "size", "text", "top", "words", "x0", "x1")

    def __init__(self, words: list[Word]) -> None:
        self.words = words
        self.x0 = words[0].x0
        self.x1 = words[-1].x1
        self.top = min(w.top for w in words)
        self.bottom = max(w.bottom for w in words)
        self.size = words[0].size if len(words) == 1 else max(words[0].size, words[-1].size)
        self.bold = all(w.bold for w in words)
        self.text = " ".join([w.text for w in words])

    @property
    def middle(self) -> float:
        return (self.top + self.bottom) / 2

    def __repr__(self) -> str:
        return f"Segment({self.text!r} x {self.x0:.0f}-{self.x1:.0f} y {self.top:.0f})"


class Row:
    """Segments on one base line, left to right."""

    __slots__ = ("bottom", "segments", "top")

    def __init__(self, segments: list[Segment]) -> None:
        self.segments = segments
        self.top = min(s.top for s in segments)
        self.bottom = max(s.bottom for s in segments)

    @property
    def x0(self) -> float:
        return self.segments[0].x0

    @property
    def x1(self) -> float:
        return max(s.x1 for s in self.segments)

    @property
    def text(self) -> str:
        return " ".join(s.text for s in self.segments)

    @property
    def size(self) -> float:
        return max(s.size for s in self.segments)
