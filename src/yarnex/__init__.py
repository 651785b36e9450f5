"""Yarnex reads contracts, reports and records on your own machine and hands over cited answers.

From Python the same work as on the command line is a few calls with typed results:

    import yarnex
    document = yarnex.read("canal-works.pdf")
    for finding in yarnex.abstract(document).findings:
        print(finding.term.label, finding.state, finding.text)
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from yarnex._version import __version__

if TYPE_CHECKING:
    from yarnex.core.briefing import Briefing
    from yarnex.core.comparing import Comparison
    from yarnex.core.costs import Costs
    from yarnex.core.dates import DatedItem
    from yarnex.core.document import Document
    from yarnex.core.document.outline import OutlineEntry
    from yarnex.core.duties import Duty, Requirement
    from yarnex.core.figures import Figure
    from yarnex.core.figures.checks import Check
    from yarnex.core.flags import Flag
    from yarnex.core.search import Roster
    from yarnex.core.terms import Abstract, Finding

__all__ = [
    "__version__",
    "abstract",
    "abstract_all",
    "brief",
    "check_figures",
    "compare",
    "costs",
    "dates",
    "duties",
    "figures",
    "find",
    "flags",
    "outline",
    "read",
    "read_all",
    "requirements",
    "roster",
]


def read(path: str | Path) -> Document:
    """The document in a file. Raises yarnex.core.errors.UnreadableError with what is wrong and what to do."""
    from yarnex.core.reading import read_document

    return read_document(path)


def read_all(path: str | Path) -> tuple[Document, ...]:
    """The documents in a file: those of an archive, a mail and what is attached to it.

    What in it could not be read is left out. Raises yarnex.core.errors.UnreadableError where the file itself cannot be read.
    """
    from yarnex.core.reading import read_file

    return tuple(r.document for r in read_file(path) if r.document is not None)


def outline(document: Document) -> tuple[OutlineEntry, ...]:
    """The sections of a document with their pages."""
    from yarnex.core.document.outline import outline_of

    return outline_of(document)


def abstract(document: Document, sheet: str = "auto") -> Abstract:
    """The sheet (by name, a YAML file, or "auto" for the one of the document's kind) filled for one document."""
    return abstract_all([document], sheet)[0]


def abstract_all(documents: Sequence[Document], sheet: str = "auto", as_of: date | None = None) -> tuple[Abstract, ...]:
    """Each document's sheet filled, with amendments laid over what they amend: all, or those in force on a day."""
    from yarnex.core.figures.headlines import with_headlines
    from yarnex.core.terms import abstract_all as fill

    return tuple(with_headlines(a) for a in fill(documents, sheet, as_of))


def find(documents: Sequence[Document], question: str) -> tuple[Finding, ...]:
    """The best answer of each document, in their order; `not_found` with the nearest mentions where one says nothing."""
    from yarnex.core.search import ask_all

    (asked,) = ask_all(documents, [("1", question)])
    return tuple(found[0] for found in asked.findings)


def figures(document: Document, of: str = "") -> tuple[Figure, ...]:
    """The reported amounts of a document; of: only those of a line, as people say it ("profit after tax")."""
    from yarnex.core.figures import figures_of
    from yarnex.core.figures.asked import figures_named

    found = figures_of(document)
    return tuple(f for meaning in figures_named(found, of) for f in meaning.figures) if of else found


def check_figures(documents: Sequence[Document]) -> tuple[Check, ...]:
    """Sums, identities, repeated and tagged figures, comparatives and formulas of the documents, each in order or not."""
    from yarnex.core.figures import figures_of
    from yarnex.core.figures.checks import check_figures as check
    from yarnex.core.figures.spread import company_of

    return check([f for d in documents for f in figures_of(d)], {d.path: company_of(d) for d in documents})


def dates(documents: Sequence[Document]) -> tuple[DatedItem, ...]:
    """Deadlines and events of the documents by day, rules without a first day last; amendments laid over."""
    from yarnex.core.dates import dates_of_all

    return dates_of_all(documents)


def duties(document: Document) -> tuple[Duty, ...]:
    """Who must, must not or may do what."""
    from yarnex.core.duties import duties_of

    return duties_of(document)


def requirements(document: Document) -> tuple[Requirement, ...]:
    """What a call, guideline or policy asks for."""
    from yarnex.core.duties import requirements_of

    return requirements_of(document)


def costs(documents: Sequence[Document]) -> Costs:
    """Bills line by line, payments, totals and what does not add up."""
    from yarnex.core.costs import costs_of

    return costs_of(documents)


def roster(document: Document, of: str) -> Roster:
    """Every item of a named list in a document, with its cites."""
    from yarnex.core.search import roster as list_items

    return list_items(document, of)


def compare(documents: Sequence[Document], sheet: str = "auto") -> Comparison:
    """Terms x documents, values compared as values."""
    from yarnex.core.comparing import compare as set_side_by_side

    return set_side_by_side(abstract_all(documents, sheet))


def flags(documents: Sequence[Document], as_of: date, sheet: str = "lease", rules: str = "lease") -> tuple[Flag, ...]:
    """The rulebook applied. as_of: the day from which "has ended" is judged."""
    from yarnex.core.flags import apply_rules, load_rulebook
    from yarnex.core.terms import load_sheet

    return apply_rules(abstract_all(documents, sheet), load_rulebook(rules, load_sheet(sheet)), as_of)


def brief(documents: Sequence[Document], as_of: date, sheet: str = "lease", rules: str = "lease") -> Briefing:
    """The briefing: comparison, flags, dates and open questions."""
    from yarnex.core.briefing import brief as build
    from yarnex.core.flags import load_rulebook
    from yarnex.core.terms import load_sheet

    return build(abstract_all(documents, sheet), load_rulebook(rules, load_sheet(sheet)), as_of)
