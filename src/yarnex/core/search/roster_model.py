"""What a roster, an item of it and a place that may hold one are."""

from __future__ import annotations

from dataclasses import dataclass, field

from yarnex.core.document import Cite, Document


@dataclass(frozen=True, slots=True)
class RosterItem:
    """text: the item's own words. number: as printed, "" where it has none. detail: what else is told of it."""

    text: str
    cites: tuple[Cite, ...]
    number: str = ""
    detail: str = ""


@dataclass(frozen=True, slots=True)
class Roster:
    """of: what was asked for. source: where the items stand. gaps: numbers missing in their numbering. left_out: text and reason."""

    document: Document
    of: str
    items: tuple[RosterItem, ...]
    source: str = ""
    gaps: tuple[str, ...] = ()
    duplicates: tuple[str, ...] = ()
    left_out: tuple[tuple[str, str], ...] = field(default=())


@dataclass(frozen=True, slots=True)
class RosterOffer:
    """A place that may be the list: how well it fits, what it is, and its items."""

    score: float
    source: str
    items: list[RosterItem]
