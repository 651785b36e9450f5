"""Figures: Document -> reported amounts, each with label, period, basis and plain value; checks, spreads and ratios."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

from yarnex.core.figures.model import Figure, FigurePeriod

if TYPE_CHECKING:
    from yarnex.core.figures.gather import figures_of

__all__ = ["Figure", "FigurePeriod", "figures_of"]

_LATE = {"figures_of": "gather"}  # loaded when first asked for, for a light start


def __getattr__(name: str) -> Any:
    if name not in _LATE:
        raise AttributeError(f"no {name} in {__name__}")
    return getattr(import_module(f"{__name__}.{_LATE[name]}"), name)
