"""Findings of several documents in, rows out: terms x documents, values compared as values, gaps and differences marked."""

from yarnex.core.comparing.rows import Comparison, Row, compare

__all__ = ["Comparison", "Row", "compare"]
