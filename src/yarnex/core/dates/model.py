"""What a dated item is: a day with what happens or is due on it, or a rule whose first day is not known yet."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from yarnex.core.document import Cite, Document

KINDS = ("deadline", "notice", "payment", "start", "end", "review", "document", "event", "mention")
STATES = ("stated", "computed", "rule", "superseded")
PRECISIONS = ("day", "month", "year")


@dataclass(frozen=True, slots=True)
class DatedItem:
    """A dated item.

    day: the day; the first of the month or year where only that is told; None for a rule without a start.
    until: the last day of a span of days, None for a single day. time: "09:10", "" where none is told.
    what: in a few words. state: "stated", "computed" (with working), "rule", or "superseded" (a later paper changed it).
    recurs: words for how often it comes again ("every year"), "" for once. who: a party's role or name, "" where none is told.
    cites: the words of the document, best first. also: other things that happen on the same day, from the same document.
    """

    document: Document
    day: date | None
    what: str
    kind: str
    state: str
    cites: tuple[Cite, ...]
    who: str = ""
    time: str = ""
    precision: str = "day"
    until: date | None = None
    working: tuple[str, ...] = ()
    recurs: str = ""
    reading: str = ""
    notes: tuple[str, ...] = ()
    weight: int = 0  # of two accounts of one day in one document, the one with more weight names it

    def to_dict(self) -> dict[str, Any]:
        """DESIGN's JSON of a date."""
        return {
            "document": self.document.path, "date": self.day.isoformat() if self.day else None, "until": self.until.isoformat() if self.until else None,
            "time": self.time or None, "precision": self.precision, "what": self.what, "kind": self.kind, "state": self.state, "who": self.who or None,
            "recurs": self.recurs or None, "working": list(self.working), "reading": self.reading, "notes": list(self.notes),
            "cites": [c.to_dict() for c in self.cites],
        }  # fmt: skip
