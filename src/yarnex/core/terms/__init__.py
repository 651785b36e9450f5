"""A document and a sheet in, findings out: what the document says for each term, with evidence, or that it does not.

Several finders bring candidates; the best one wins, close rivals that differ make the finding `conflicting`. Terms
that follow from others are computed with their working, and amendments are laid over what they amend.
"""

from yarnex.core.terms.abstract import Abstract, abstract, abstract_all
from yarnex.core.terms.model import Candidate, Finding, Further, Sheet, Term
from yarnex.core.terms.sheets import load_sheet, parse_sheet

__all__ = [
    "Abstract",
    "Candidate",
    "Finding",
    "Further",
    "Sheet",
    "Term",
    "abstract",
    "abstract_all",
    "load_sheet",
    "parse_sheet",
]
