"""Words as a search sees them: stems, words that carry no meaning, and what else a thing is called.

In: text. Out: tokens with their stems and places; groups of words and phrases that mean the same.
"""

from yarnex.core.words.stems import STOP_WORDS, Token, stem, stems_of, tokens
from yarnex.core.words.synonyms import Synonyms, known_synonyms
from yarnex.core.words.thesaurus import Thesaurus, known_thesaurus

__all__ = [
    "STOP_WORDS",
    "Synonyms",
    "Thesaurus",
    "Token",
    "known_synonyms",
    "known_thesaurus",
    "stem",
    "stems_of",
    "tokens",
]
