"""Costs: Document(s) -> bills with their lines, payments, totals raw and corrected, and what does not add up."""

from yarnex.core.costs.gather import Costs, costs_of
from yarnex.core.costs.model import Bill, BillLine, Payment

__all__ = ["Bill", "BillLine", "Costs", "Payment", "costs_of"]
