"""What a duty and a requirement are."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from yarnex.core.document import Cite, Document

FORCES = ("must", "must_not", "may")


@dataclass(frozen=True, slots=True)
class Duty:
    """Who must do what.

    who: a role or name, several joined by " and "; "" where the document does not tell. sure: False where who was told by
    the words around and not by the sentence itself. force: "must", "must_not" or "may".
    by: words for when or how often. condition: words that it hangs on. to: to whom. otherwise: what happens if not.
    """

    document: Document
    who: str
    what: str
    force: str
    kind: str
    cites: tuple[Cite, ...]
    by: str = ""
    condition: str = ""
    to: str = ""
    otherwise: str = ""
    name: str = ""  # the party's own name, where the document tells it
    sure: bool = True

    def to_dict(self) -> dict[str, Any]:
        """DESIGN's JSON of a duty."""
        return {
            "document": self.document.path, "who": self.who or None, "name": self.name or None, "what": self.what, "must": self.force != "may", "force": self.force,
            "kind": self.kind, "by": self.by or None, "condition": self.condition or None, "to": self.to or None, "otherwise": self.otherwise or None,
            "who_told": "sentence" if self.sure else "context", "cites": [c.to_dict() for c in self.cites],
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Requirement:
    """One thing that a call, guideline or policy asks for. number: as printed. mandatory: False for what is only welcome.

    limit: words of a figure that must be met. replaced: words of a later correction, "" where there is none.
    """

    document: Document
    number: str
    what: str
    mandatory: bool
    limit: str
    cites: tuple[Cite, ...]
    replaced: str = ""

    def to_dict(self) -> dict[str, Any]:
        """The requirement as JSON."""
        return {
            "document": self.document.path, "number": self.number or None, "what": self.what, "mandatory": self.mandatory, "limit": self.limit or None,
            "replaced": self.replaced or None, "cites": [c.to_dict() for c in self.cites],
        }  # fmt: skip
