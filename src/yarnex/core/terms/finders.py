"""The finders: each brings candidates for a term, independently of the others, with a weight and a reason.

A finder takes (term, passages) and yields `Candidate`s; FINDERS lists them in the order in which they are asked.
Weights are shares of 1: what stands opposite its own label is near 1, a clause under a fitting heading near 0.8.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from yarnex.core.terms.by_words import from_plain_words
from yarnex.core.terms.clauses import from_headed_clauses, from_headed_lists, from_headed_values
from yarnex.core.terms.labels import from_definitions, from_labels, from_roles, from_schedules, from_table_cells
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.variations import from_rewordings
from yarnex.core.terms.wording import from_answers, from_cues

Finder = Callable[[Term, Passages], Iterator[Candidate]]
FINDERS: tuple[Finder, ...] = (
    from_labels,
    from_definitions,
    from_roles,
    from_table_cells,
    from_schedules,
    from_cues,
    from_answers,
    from_headed_clauses,
    from_headed_lists,
    from_headed_values,
    from_rewordings,
    from_plain_words,
)
