"""Which papers report figures: told by their kind, without looking for any."""

from __future__ import annotations

from yarnex.core.document import Document
from yarnex.core.terms.identity import identify

REPORTING = frozenset(
    ["annual_report", "half_year_report", "quarterly_report", "presentation", "spreadsheet", "results_call", "research_note", "memo"]
)  # fmt: skip


def reports_figures(document: Document) -> bool:
    """Whether a paper is of a kind that reports figures."""
    return bool(document.tagged) or identify(document).kind in REPORTING
