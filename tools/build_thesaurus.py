"""Build the thesaurus of everyday words from the files of the lexical database WordNet (Princeton University).

    python tools/build_thesaurus.py FOLDER

FOLDER: its dictionary files (data.noun, index.noun, ..., index.sense; wndb(5WN) and senseidx(5WN) describe them).
Result: src/yarnex/packs/vocabulary/thesaurus.txt, a line for each word or pair of words, sorted, parted by tabs: the
stems; words derived from it; other words for what it mostly means; other words for what it sometimes means. Left out:
names, animals and plants, senses that are rare beside the others, and the meanings of more than two words.
"""

from __future__ import annotations

import sys
from collections import defaultdict
from pathlib import Path

from yarnex.core.words.synonyms import key_of

TARGET = Path(__file__).parent.parent / "src" / "yarnex" / "packs" / "vocabulary" / "thesaurus.txt"
PARTS = {"n": "noun", "v": "verb", "a": "adj", "s": "adj", "r": "adv"}
NUMBERED = {"1": "noun", "2": "verb", "3": "adj", "4": "adv", "5": "adj"}
LEFT_OUT = {"05", "20"}  # numbers of the files on animals and plants, lexnames(5WN)
DERIVED, INSTANCE = ("+", "\\"), "@i"
SENSES, SHARE, MAIN = 4, 0.05, 0.25  # senses looked at; shares of all uses from which one counts, and is a main one
LONGEST = 2
Stems = tuple[str, ...]


class Meaning:
    """One set of synonyms: its words, and its pointers as (mark, part of speech, place, own word, other word)."""

    def __init__(self, line: str) -> None:
        fields = line.split(" | ")[0].split()
        many = int(fields[3], 16)
        self.file = fields[1]
        self.words = [fields[4 + 2 * i].split("(")[0] for i in range(many)]
        rest = fields[4 + 2 * many :]
        self.pointers = [
            (rest[1 + 4 * i], PARTS[rest[3 + 4 * i]], rest[2 + 4 * i], int(rest[4 + 4 * i][:2], 16), int(rest[4 + 4 * i][2:], 16))
            for i in range(int(rest[0]))
        ]  # fmt: skip
        self.is_name = any(mark == INSTANCE for mark, *_ in self.pointers)


def stems(word: str) -> Stems:
    """The stems that stand for a word; none for a phrase of which the little words make the sense ("in spite of")."""
    key = key_of(word.replace("_", " "))
    return key if len(key) == word.count("_") + 1 else ()


def lines(path: Path) -> list[str]:
    return [line for line in path.read_text("utf-8").splitlines() if not line.startswith("  ")]


def built(folder: Path) -> dict[Stems, dict[Stems, int]]:
    """For each word, the others with how near they are: 0 derived, 1 a main sense, 2 another sense."""
    meanings = {
        (part, line[:8]): Meaning(line) for part in set(PARTS.values()) for line in lines(folder / f"data.{part}")
    }
    uses: dict[tuple[str, str, int], int] = {}
    for line in lines(folder / "index.sense"):
        sense, _, number, count = line.split()
        word, rest = sense.split("%")
        uses[word, NUMBERED[rest[0]], int(number)] = int(count)
    out: dict[Stems, dict[Stems, int]] = defaultdict(dict)

    def add(key: Stems, other: str, near: int) -> None:
        found = stems(other)
        if other.islower() and 0 < len(found) <= LONGEST and found != key:
            out[key][found] = min(near, out[key].get(found, near))

    for part in sorted(set(PARTS.values())):
        for line in lines(folder / f"index.{part}"):
            word, _, many, pointers, *rest = line.split()
            key = stems(word)
            if not word.replace("_", "").replace("-", "").isalpha() or not 0 < len(key) <= LONGEST:
                continue
            places = rest[int(pointers) + 2 :][: int(many)]
            total = sum(uses.get((word, part, i + 1), 0) for i in range(len(places)))
            for number, place in enumerate(places):
                share = uses.get((word, part, number + 1), 0) / total if total else float(not number)
                if (number >= SENSES and share < 2 * SHARE) or (number and share < SHARE):
                    continue
                meaning = meanings[part, place]
                if meaning.is_name or meaning.file in LEFT_OUT:
                    continue
                for other in meaning.words:
                    add(key, other, 1 if not number or share >= MAIN else 2)
                for mark, other_part, other_place, own, theirs in meaning.pointers:
                    if mark in DERIVED and own and meaning.words[own - 1].lower() == word:
                        add(key, meanings[other_part, other_place].words[theirs - 1], 0)
    return out


def main() -> None:
    found = built(Path(sys.argv[1]))
    rows = []
    for key, others in found.items():
        columns = [";".join(" ".join(o) for o in sorted(others) if others[o] == near) for near in range(3)]
        rows.append("\t".join((" ".join(key), *columns)).rstrip("\t"))
    TARGET.write_text("\n".join(sorted(rows, key=lambda r: r.split("\t")[0].encode())) + "\n", "utf-8")
    print(f"{len(rows)} words -> {TARGET.name}")


if __name__ == "__main__":
    main()
