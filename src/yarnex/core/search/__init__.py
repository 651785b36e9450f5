"""Questions in plain words, answered from the documents: findings with cites, or `not_found` with the nearest mentions.

In: documents and questions. Out: for each question the findings of each document, never mixed. What the words ask for is
understood without any document (`question`); what answers is weighed from the filled terms and all lines (`answers`).
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

from yarnex.core.search.answers import ask
from yarnex.core.search.ask_all import Asked, ask_all, read_questions
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.question import Question, understand
from yarnex.core.search.roster_model import Roster, RosterItem

if TYPE_CHECKING:
    from yarnex.core.search.nearest import nearest_paths
    from yarnex.core.search.rosters import roster

__all__ = [
    "Asked",
    "Inquiry",
    "Question",
    "Roster",
    "RosterItem",
    "ask",
    "ask_all",
    "nearest_paths",
    "read_questions",
    "roster",
    "understand",
]

_LATE = {"roster": "rosters", "nearest_paths": "nearest"}  # loaded when first asked for, for a light start


def __getattr__(name: str) -> Any:
    if name not in _LATE:
        raise AttributeError(f"no {name} in {__name__}")
    return getattr(import_module(f"{__name__}.{_LATE[name]}"), name)
