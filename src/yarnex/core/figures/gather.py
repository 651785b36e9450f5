"""Document -> its figures, in the order in which they stand: tagged ones, those of tables, those of sentences."""

from __future__ import annotations

from functools import lru_cache

from yarnex.core.document import Document
from yarnex.core.figures.model import Figure
from yarnex.core.figures.sentences import figures_in_sentences
from yarnex.core.figures.tables import figures_in_tables
from yarnex.core.figures.tagged import tagged_figures


@lru_cache(maxsize=16)
def figures_of(document: Document) -> tuple[Figure, ...]:
    """Every figure of a document. A number that is tagged is given once, with its tag."""
    tagged = tagged_figures(document)
    covered = {(f.span.start, f.span.end) for f in tagged}
    printed = [*figures_in_tables(document), *figures_in_sentences(document)]
    rest = [f for f in printed if not any(start < f.span.end and f.span.start < end for start, end in covered)]
    return tuple(sorted([*tagged, *rest], key=lambda f: (f.span.start, f.span.end)))
