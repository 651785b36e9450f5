"""What the layout stages work on: words with boxes, drawn rules, and the page that holds them."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import NamedTuple

REDACTED = "█"
AS_RAISED = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")  # how figures above the line are written
PLACEHOLDER = "\ue000"  # stands among the segments for a drawn table; private use, so never printed


class Word(NamedTuple):
    """A printed word: text without white space, its box, size of type in points, and whether it is bold.

    certainty: per cent, under 100 only for words recognised from a picture.
    """

    text: str
    x0: float
    top: float
    x1: float
    bottom: float
    size: float
    bold: bool
    certainty: int = 100


class Rule(NamedTuple):
    """A drawn straight line; horizontal where its height is under its width."""

    x0: float
    top: float
    x1: float
    bottom: float

    @property
    def horizontal(self) -> bool:
        return self.x1 - self.x0 >= self.bottom - self.top


class Shade(NamedTuple):
    """A filled area, with its colour as red, green and blue from 0 to 255."""

    x0: float
    top: float
    x1: float
    bottom: float
    colour: tuple[int, int, int]


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
    source: str = "printed"
    turned: int = 0
    shades: list[Shade] = field(default_factory=list)
    struck: list[str] = field(default_factory=list)  # words crossed out on a recognised page
    skew: float = 0.0  # degrees by which a recognised page lay askew


class Segment:
    """Words that stand side by side without a wide gap: a line of a paragraph, or a cell's line."""

    __slots__ = ("bottom", "size", "text", "top", "words", "x0", "x1")

    def __init__(self, words: list[Word]) -> None:
        first, last = words[0], words[-1]
        self.words = words
        self.x0 = first.x0
        self.x1 = last.x1
        self.top = first.top if first.top < last.top else last.top
        self.bottom = first.bottom if first.bottom > last.bottom else last.bottom
        self.size = first.size if first.size > last.size else last.size
        self.text = " ".join([w[0] for w in words])

    @property
    def bold(self) -> bool:
        return all(w.bold for w in self.words)

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
