"""Words that rule each other out: an answer beside "net" is not that to a question about the gross sum."""

from __future__ import annotations

import re
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import load_entries, pack_text
from yarnex.core.patterns import pattern
from yarnex.core.prepared import prepared
from yarnex.core.words import stem

Sides = tuple[re.Pattern[str], ...]


@lru_cache(maxsize=2)
def opposites(key: str = "opposites") -> tuple[Sides, ...]:
    """The sets of the vocabulary, each with a pattern a side. Raises PackError for a set of one side."""
    sides = prepared(f"sides_{key}", lambda: _from_pack(key))
    return tuple(tuple(pattern(words, re.IGNORECASE) for words in several) for several in sides)


def _from_pack(key: str) -> tuple[tuple[str, ...], ...]:
    text, name = pack_text("vocabulary", "opposites")
    out = []
    for line in load_entries(text, name).get(key, []):
        sides = [[re.escape(w.strip()) for w in side.split(";") if w.strip()] for side in str(line).split("|")]
        if len(sides) < 2 or not all(sides):
            raise PackError(f"{name}: {line!r} needs two sides or more, parted by |")
        out.append(tuple(rf"(?<![\w-])(?:{'|'.join(words)})s?(?![\w-])" for words in sides))
    return tuple(out)


def opposed_to(question: str, told: str) -> bool:
    """True where words told of an answer hold what is ruled out by words of the question, and not these themselves.

    >>> opposed_to("What is the gross rent?", "net rent a year")
    True
    >>> opposed_to("What is the gross rent?", "gross rent, of which net")
    False
    """
    return _ruled_out(question, told, "opposites")


WITH_IT = pattern(
    r"\b(?P<lacks>without|excluding|less|with|including|plus)\s+(?:(?:the|an?|any|its|their)\s+)?(?:(?:optional|additional|extra|fitted)\s+)?(?P<what>[a-z][a-z-]{2,})",
    re.IGNORECASE,
)
BEFORE_VALUE = pattern(r"(?:\s+[a-z][a-z-]+)?\s*[,:]?\s*(?:it\s+is\s+)?")  # between what it is with and a value
LACKS = ("without", "excluding", "less")


def with_the_other(question: str, behind: str, before: str = "") -> bool:
    """True where a value is said to be with what the question asks to do without, or the other way round.

    behind, before: the words of its sentence or cell behind the value, and those before it.

    >>> with_the_other("How loud is it without the hood?", " with the hood (option C)")
    True
    >>> with_the_other("How loud is it without the hood?", " without a hood")
    False
    """
    said = WITH_IT.match(behind.lstrip(" ,("))
    if said is None:
        said = next((m for m in WITH_IT.finditer(before) if BEFORE_VALUE.fullmatch(before, m.end())), None)
    if said is None:
        return False
    return any(
        stem(asked["what"]) == stem(said["what"])
        and (asked["lacks"].lower() in LACKS) is not (said["lacks"].lower() in LACKS)
        for asked in WITH_IT.finditer(question)
    )


def contrary(question: str, told: str) -> bool:
    """True where words tell the state that denies the one asked about: "is the lift working?", "out of use since May"."""
    return _ruled_out(question, told, "states")


def _ruled_out(question: str, told: str, key: str) -> bool:
    return any(
        not own.search(told) and any(other.search(told) for other in others) for own, others in _asked_of(question, key)
    )


@lru_cache(maxsize=64)
def _asked_of(question: str, key: str) -> tuple[tuple[re.Pattern[str], Sides], ...]:
    """The sides that a question names, each with those that it rules out; none of a set of which it names several."""
    out = []
    for sides in opposites(key):
        named = [side for side in sides if side.search(question)]
        if len(named) == 1:
            out.append((named[0], tuple(s for s in sides if s is not named[0])))
    return tuple(out)
