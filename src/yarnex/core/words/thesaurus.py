"""What everyday words are near to: other words for what they mean, from `packs/vocabulary/thesaurus.txt`.

Source: the lexical database WordNet 3.1, Princeton University, brought into this form by tools/build_thesaurus.py; its
licence stands beside it. The trade's own words, weighed more, are in `synonyms.yaml`.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files

from yarnex.core.errors import PackError
from yarnex.core.words.synonyms import Stems

DERIVED, MAIN, OTHER = range(3)  # how near: a word made from it, what it mostly means, what it sometimes means


@dataclass(frozen=True, slots=True)
class Thesaurus:
    """The lines of the file, sorted by their first column, searched by halving."""

    data: bytes

    def near(self, words: Stems) -> tuple[tuple[Stems, int], ...]:
        """Other words and phrases for a word or phrase given as stems, each with DERIVED, MAIN or OTHER; nearest first."""
        columns = self._line(" ".join(words).encode()).split("\t")[1:]
        return tuple(
            (tuple(other.split()), nearness)
            for nearness, column in enumerate(columns)
            for other in column.split(";")
            if other
        )

    def _line(self, key: bytes) -> str:
        low, high = 0, len(self.data)
        while low < high:
            start = self.data.rfind(b"\n", 0, (low + high) // 2) + 1
            end = self.data.find(b"\n", start)
            end = len(self.data) if end < 0 else end
            found = self.data[start:end].split(b"\t", 1)[0]
            if found == key:
                return self.data[start:end].decode()
            if found < key:
                low = end + 1
            else:
                high = start
        return ""


@lru_cache(maxsize=1)
def known_thesaurus() -> Thesaurus:
    """The thesaurus that ships with the tool. Raises PackError where it cannot be read."""
    try:
        return Thesaurus((files("yarnex") / "packs" / "vocabulary" / "thesaurus.txt").read_bytes())
    except OSError as error:
        raise PackError(f"cannot be read ({error})", where="thesaurus.txt", do="install the program again") from None
