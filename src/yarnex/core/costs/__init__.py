"""Costs: Document(s) -> bills with their lines, payments, totals raw and corrected, and what does not add up."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

from yarnex.core.costs.model import Bill, BillLine, Payment

if TYPE_CHECKING:
    from yarnex.core.costs.gather import Costs, costs_of

__all__ = ["Bill", "BillLine", "Costs", "Payment", "costs_of"]

_LATE = {"Costs": "gather", "costs_of": "gather"}  # loaded when first asked for, for a light start


def __getattr__(name: str) -> Any:
    if name not in _LATE:
        raise AttributeError(f"no {name} in {__name__}")
    return getattr(import_module(f"{__name__}.{_LATE[name]}"), name)
