"""What else a thing is called: groups of words and phrases from the vocabulary."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import load_entries, pack_text
from yarnex.core.prepared import prepared
from yarnex.core.words.stems import stem, stems_of

Stems = tuple[str, ...]
PARTICLES = frozenset(
    ["out", "off", "up", "down", "back", "over", "away", "in", "on", "into", "through", "upon", "across", "together"]
)
NEGATIONS = (("not",), ("no",))  # what is left of "shall not" means nothing by itself


@dataclass(frozen=True, slots=True)
class Synonyms:
    """others: for a word or phrase as stems, the other words and phrases of its groups, nearest group first; everyday: the
    same for what is not quite the same thing. longest: of a phrase, in words.
    """

    others: dict[Stems, tuple[Stems, ...]]
    everyday: dict[Stems, tuple[Stems, ...]]
    longest: int

    def of(self, words: Stems) -> tuple[Stems, ...]:
        return self.others.get(words, ())

    def knows(self, words: Stems) -> bool:
        """Whether a word or phrase has others of either sort."""
        return words in self.others or words in self.everyday


def key_of(member: str) -> Stems:
    """The stems that stand for a word or phrase: what says something, and the particle that gives a verb its sense."""
    plain = stems_of(member)
    if len(plain) == 1 and len(words := member.split()) > 1 and any(w in PARTICLES for w in words):
        return tuple(stem(w) for w in words if w in PARTICLES or stem(w) in plain)
    whole = plain or stems_of(member, stop=True)
    return () if len(whole) == 1 and not plain else whole  # a word like "only" says nothing by itself


@lru_cache(maxsize=1)
def known_synonyms() -> Synonyms:
    """The groups of `packs/vocabulary/synonyms.yaml`. Raises PackError for mistakes in it."""
    return Synonyms(*prepared("synonyms", _from_pack))


def _from_pack() -> tuple[dict[Stems, tuple[Stems, ...]], dict[Stems, tuple[Stems, ...]], int]:
    text, name = pack_text("vocabulary", "synonyms")
    entry = load_entries(text, name)
    faults: list[str] = []
    found = {kind: _others(entry.get(kind, []), name, faults) for kind in ("groups", "everyday")}
    if faults:
        raise PackError("\n".join(faults))
    longest = max((len(k) for kind in found.values() for k in kind), default=1)
    return found["groups"], found["everyday"], longest


def _others(groups: list[object], name: str, faults: list[str]) -> dict[Stems, tuple[Stems, ...]]:
    others: dict[Stems, dict[Stems, None]] = {}
    for line in groups:
        members = [m.strip() for m in line.split(";")] if isinstance(line, str) else []
        if len(members) < 2 or not all(members):
            faults.append(f"{name}: {line!r} is no group; write two or more words with ; between them")
            continue
        keys = list(dict.fromkeys(key_of(m) for m in members))
        keys = [k for k in keys if k and k not in NEGATIONS]
        for key in keys:
            bag = others.setdefault(key, {})
            bag.update((k, None) for k in keys if k != key)
    return {k: tuple(v) for k, v in others.items()}
