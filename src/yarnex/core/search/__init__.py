"""Questions in plain words, answered from the documents: findings with cites, or `not_found` with the nearest mentions.

In: documents and questions. Out: for each question the findings of each document, never mixed. What the words ask for is
understood without any document (`question`); what answers is weighed from the filled terms and all lines (`answers`).
"""

from yarnex.core.search.answers import Inquiry, ask
from yarnex.core.search.ask_all import Asked, ask_all, read_questions
from yarnex.core.search.question import Question, understand
from yarnex.core.search.roster_model import Roster, RosterItem
from yarnex.core.search.rosters import roster
from yarnex.core.search.starters import starters

__all__ = [
    "Asked",
    "Inquiry",
    "Question",
    "Roster",
    "RosterItem",
    "ask",
    "ask_all",
    "read_questions",
    "roster",
    "starters",
    "understand",
]
