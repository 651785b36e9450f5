"""The neutral form of every result: sections of tables, cards and lines, whose cells carry their cites."""

from __future__ import annotations

from dataclasses import dataclass, field

from yarnex.core.document import Cite


@dataclass(frozen=True, slots=True)
class Cell:
    """text: what it says. quote: the document's own words where they differ. notes: working and remarks.

    state: a finding's state or a severity, "" for plain cells.
    """

    text: str = ""
    quote: str = ""
    cites: tuple[Cite, ...] = ()
    notes: tuple[str, ...] = ()
    state: str = ""


@dataclass(frozen=True, slots=True)
class TableRow:
    """group: the heading under which the row stands; mark: "differs", "gap" ... for comparisons."""

    cells: tuple[Cell, ...]
    group: str = ""
    mark: str = ""


@dataclass(frozen=True, slots=True)
class Table:
    heads: tuple[str, ...]
    rows: tuple[TableRow, ...]
    weights: tuple[int, ...] = ()  # relative widths of the columns
    numeric: tuple[int, ...] = ()  # columns of numbers, set to the right with their decimal points in line


@dataclass(frozen=True, slots=True)
class Card:
    """A flag, or another item that reads better as a block than as a row. tag: a severity or kind."""

    tag: str
    title: str
    about: str
    body: tuple[tuple[str, str], ...]
    cites: tuple[Cite, ...] = ()
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Section:
    title: str
    lead: tuple[str, ...] = ()
    table: Table | None = None
    cards: tuple[Card, ...] = ()
    lines: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Report:
    title: str
    about: str
    sections: tuple[Section, ...]
    warnings: tuple[str, ...] = field(default=())
