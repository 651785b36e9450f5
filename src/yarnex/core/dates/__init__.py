"""Dates: Document(s) -> deadlines worked out, and events in order; each with what it is, who it concerns, and its cites."""

from __future__ import annotations

from yarnex.core.dates.gather import dates_of, dates_of_all
from yarnex.core.dates.model import DatedItem

__all__ = ["DatedItem", "dates_of", "dates_of_all"]
