"""What a document is once read: one linear text, and arrays that map it back to pages, cells and boxes.

In: nothing; `yarnex.core.reading` builds these. Out: immutable values that every later stage takes.
"""

from yarnex.core.document.cite import Cite
from yarnex.core.document.model import (
    Block,
    Box,
    Cell,
    Change,
    Document,
    Fragments,
    Mark,
    Page,
    Problem,
    Section,
    Span,
    Table,
    TaggedFact,
)

__all__ = [
    "Block",
    "Box",
    "Cell",
    "Change",
    "Cite",
    "Document",
    "Fragments",
    "Mark",
    "Page",
    "Problem",
    "Section",
    "Span",
    "Table",
    "TaggedFact",
]
