"""What a rule that works a value out takes and gives."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from yarnex.core.document import Cite
from yarnex.core.terms.model import Finding, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.values import Value

Findings = Mapping[str, Finding]


@dataclass(frozen=True, slots=True)
class Computed:
    """A value that follows from others or from the paper as a whole, its working, and what it rests on."""

    value: Value
    text: str
    working: tuple[str, ...]
    cites: tuple[Cite, ...]
    state: str = "computed"  # "conflicting" where it is worked out from statements that disagree; "stated" where it is read as it stands


Rule = Callable[[Term, Findings, Passages], Computed | None]
