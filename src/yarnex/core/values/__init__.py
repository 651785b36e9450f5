"""Text -> typed values with spans: dates, durations, money, percentages, quantities, parties; and comparing them.

In: a piece of text. Out: `Found` values, left to right, each with the span it was read from (counted from the start
of that text) and, where the words allow two readings, which one was taken and why.
"""

from yarnex.core.values.compare import comparable, same_rounded, same_value
from yarnex.core.values.dates import DateOrder, date_order, find_dates
from yarnex.core.values.durations import add_duration, find_durations
from yarnex.core.values.money import find_money
from yarnex.core.values.numbers import find_counts, read_number
from yarnex.core.values.parties import PartyRole, find_organisations, find_party_roles, find_sides
from yarnex.core.values.percent import find_percents
from yarnex.core.values.quantities import find_quantities
from yarnex.core.values.types import (
    DateValue,
    Duration,
    Found,
    ListOf,
    Money,
    Party,
    Percent,
    Quantity,
    Schedule,
    ScheduleCell,
    ScheduleRow,
    Text,
    Value,
    YesNo,
)

__all__ = [
    "DateOrder",
    "DateValue",
    "Duration",
    "Found",
    "ListOf",
    "Money",
    "Party",
    "PartyRole",
    "Percent",
    "Quantity",
    "Schedule",
    "ScheduleCell",
    "ScheduleRow",
    "Text",
    "Value",
    "YesNo",
    "add_duration",
    "comparable",
    "date_order",
    "find_counts",
    "find_dates",
    "find_durations",
    "find_money",
    "find_organisations",
    "find_party_roles",
    "find_percents",
    "find_quantities",
    "find_sides",
    "read_number",
    "same_rounded",
    "same_value",
]  # fmt: skip
