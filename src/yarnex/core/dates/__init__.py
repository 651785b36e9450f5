"""Dates: Document(s) -> deadlines worked out, and events in order; each with what it is, who it concerns, and its cites."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

from yarnex.core.dates.model import DatedItem

if TYPE_CHECKING:
    from yarnex.core.dates.gather import dates_of, dates_of_all

__all__ = ["DatedItem", "dates_of", "dates_of_all"]

_LATE = {"dates_of": "gather", "dates_of_all": "gather"}  # loaded when first asked for, for a light start


def __getattr__(name: str) -> Any:
    if name not in _LATE:
        raise AttributeError(f"no {name} in {__name__}")
    return getattr(import_module(f"{__name__}.{_LATE[name]}"), name)
