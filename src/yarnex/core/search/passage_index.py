"""Which papers come nearest to a question, told without opening them: their passages in a full-text index of SQLite (FTS5).

In: documents, once each; then questions. Out: for each paper how much of what is asked for its best passages name. A passage
is a paragraph or a row of a table, with what it stands under. The index holds stems and numbers of passages, no text, and what
is made of each document before it is asked (see `terms.keeping`); it can be thrown away and made again at any time.
"""

from __future__ import annotations

import re
import sqlite3
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from itertools import chain
from math import log
from pathlib import Path

from yarnex.core.document import Document
from yarnex.core.prepared import made_by
from yarnex.core.search.question import Question
from yarnex.core.terms.by_words import Idea, matcher_of
from yarnex.core.terms.keeping import key_of_content, packed, unpacked
from yarnex.core.terms.lines import LABEL, Line
from yarnex.core.terms.passages import Passages

FILE = "passages.sqlite"
SHAPE = (
    "CREATE TABLE IF NOT EXISTS made_by (version TEXT NOT NULL)",
    "CREATE TABLE IF NOT EXISTS papers (id INTEGER PRIMARY KEY, key TEXT UNIQUE NOT NULL, lines INTEGER NOT NULL)",
    "CREATE VIRTUAL TABLE IF NOT EXISTS lines USING fts5"
    "(said, named, around, content='', tokenize=\"unicode61 remove_diacritics 0\")",
    "CREATE TABLE IF NOT EXISTS made (key TEXT PRIMARY KEY, data BLOB NOT NULL) WITHOUT ROWID",
)
LINES = 1_000_000  # more than a paper has: the row of a line is the paper's number times this, plus the line's place
WAIT = 5.0  # seconds for another run's lock
SAID, NAMED, AROUND = 1.0, 0.95, 0.55  # what a word counts in a line itself, in its labels, in what it stands under
LONGEST = 4  # lines of a passage
APART = 4  # words that may stand between those of a phrase
BESTS = (1.0, 0.2, 0.1)  # what a paper's best, second and third line count
MOST_BYTES = 2_000_000_000


Entries = tuple[list[tuple[str, str, str]], list[tuple[str, bytes]]]


def index_beside(store: Path | None) -> PassageIndex:
    """The index that lies beside the store of readings in this file; one in memory for None."""
    return PassageIndex(store.with_name(FILE) if store is not None else None, made_by("core", "packs"))


class PassageIndex:
    """The index in a file, or in memory where none is given or it cannot be used. version: of what makes the lines; a file
    of another is begun anew.
    """

    def __init__(self, file: Path | None, version: str = "") -> None:
        self._base = _opened(file, version)

    def has(self, key: str) -> bool:
        """Whether the paper's lines are in it."""
        return self._base.execute("SELECT 1 FROM papers WHERE key = ?", (key,)).fetchone() is not None

    def add(self, key: str, entries: Entries) -> None:
        """Take in what `entries_of` made of a paper, whole or not at all."""
        rows, made = entries
        try:
            self._base.execute("BEGIN IMMEDIATE")
            taken = self._base.execute("INSERT OR IGNORE INTO papers (key, lines) VALUES (?, ?)", (key, len(rows)))
            if not taken.rowcount:  # another run was first
                self._base.execute("ROLLBACK")
                return
            paper = taken.lastrowid or 0
            self._base.executemany(
                "INSERT INTO lines (rowid, said, named, around) VALUES (?, ?, ?, ?)",
                ((paper * LINES + place, *row) for place, row in enumerate(rows[:LINES])),
            )
            self._base.executemany("INSERT OR IGNORE INTO made VALUES (?, ?)", made)
            self._base.execute("COMMIT")
        except sqlite3.Error:
            with suppress(sqlite3.Error):
                self._base.execute("ROLLBACK")
            self._base = _into_memory(self._base)
            if not self.has(key):
                self.add(key, entries)

    def passages_of(self, document: Document, key: str) -> Passages | None:
        """What an earlier run has made of a document and kept under this key; None where there is none, or it is damaged."""
        with suppress(sqlite3.Error, ValueError):
            row = self._base.execute("SELECT data FROM made WHERE key = ?", (key,)).fetchone()
            return unpacked(document, row[0]) if row is not None else None
        return None

    def keep(self, key: str, passages: Passages) -> None:
        """Keep what was made of a document for later runs, where that can be."""
        with suppress(sqlite3.Error):
            self._base.execute("INSERT OR REPLACE INTO made VALUES (?, ?)", (key, packed(passages)))

    def nearness(self, keys: Sequence[str], questions: Sequence[Question]) -> dict[str, float]:
        """For each paper how much of a question its best lines name, 0 to about 1.3; of several questions the best."""
        papers = dict(self._base.execute("SELECT key, id FROM papers"))
        wanted = {papers[key]: key for key in keys if key in papers}
        out = dict.fromkeys(keys, 0.0)
        for question in questions:
            best: dict[int, list[float]] = defaultdict(list)
            for row, score in self._scores(question.ideas, wanted).items():
                best[row // LINES].append(score)
            for paper, scores in best.items():
                told = sum(s * share for s, share in zip(sorted(scores, reverse=True), BESTS, strict=False))
                out[wanted[paper]] = max(out[wanted[paper]], round(told, 6))
        return out

    def _scores(self, ideas: Sequence[Idea], wanted: dict[int, str]) -> dict[int, float]:
        """For each line that names anything asked for, the share of it that it names, rare things counting more."""
        count = self._base.execute("SELECT total(lines) FROM papers").fetchone()[0]
        found = [self._naming(idea, wanted) for idea in ideas]
        weights = [
            idea.weight * log(1 + (count + 1) / (sum(worth >= NAMED for worth in rows.values()) + 0.5))
            for idea, rows in zip(ideas, found, strict=True)
        ]
        total = sum(weights) or 1.0
        out: dict[int, float] = defaultdict(float)
        for rows, weight in zip(found, weights, strict=True):
            for row, worth in rows.items():
                out[row] += weight * worth / total
        return out

    def _naming(self, idea: Idea, wanted: dict[int, str]) -> dict[int, float]:
        """The lines of the wanted papers that name an idea, with how surely."""
        by_worth: dict[float, list[tuple[str, ...]]] = defaultdict(list)
        for way, worth in idea.ways:
            by_worth[worth].append(way)
        asked = [
            (worth * factor, _expression(column, ways))
            for worth, ways in by_worth.items()
            for column, factor in (("said", SAID), ("named", NAMED), ("around", AROUND))
        ]
        out: dict[int, float] = {}
        for worth, expression in sorted(asked):  # the surest last, as it counts
            found = self._base.execute("SELECT rowid FROM lines WHERE lines MATCH ?", (expression,))
            out.update(dict.fromkeys(chain.from_iterable(found), worth))
        return out if len(wanted) == self._papers() else {r: w for r, w in out.items() if r // LINES in wanted}

    def _papers(self) -> int:
        return int(self._base.execute("SELECT count(*) FROM papers").fetchone()[0])

    def close(self) -> None:
        self._base.close()


def entries_of(documents: Sequence[Document]) -> Entries:
    """What the index holds of a paper, of a mail or archive that of all that it encloses: its passages, and what is made of
    each document before it is asked.
    """
    read = [Passages(document) for document in documents]
    rows = [row for passages in read for row in _rows(matcher_of(passages).lines.lines)]
    keyed = [(key_of_content(passages.document), passages) for passages in read]
    return rows, [(key, packed(passages)) for key, passages in keyed if key]


def _rows(lines: Iterable[Line]) -> Iterator[tuple[str, str, str]]:
    """For each passage its own words in order, those of its labels, and those that it stands under."""
    for passage in _passages(lines):
        own = sorted({(at, word) for line in passage for word, places in line.own.items() for at in places})
        named: dict[str, None] = {}
        around: dict[str, None] = {}
        for line in passage:
            for word, share in line.around.items():
                (named if share >= LABEL - 0.06 else around)[word] = None
        yield (
            _words(w for _, w in own),
            _words(named),
            _words(sorted(around.keys() - named.keys() - {w for _, w in own})),
        )


def _passages(lines: Iterable[Line]) -> Iterator[list[Line]]:
    """The lines of each paragraph, cut where it is long, and of each row of a table."""
    together: dict[tuple[int, int], list[Line]] = {}
    for line in lines:
        place = (line.block, line.span.start if line.kind == "cell" else -1)
        together.setdefault(place, []).append(line)
    for found in together.values():
        yield from (found[at : at + LONGEST] for at in range(0, len(found), LONGEST))


def _words(stems: Iterable[str]) -> str:
    return " ".join(map(_token, stems))


def _token(stem: str) -> str:
    """A stem as one word to the index, whatever signs are in it."""
    return stem if stem.isalnum() else re.sub(r"[\W_]", lambda m: f"z{ord(m.group()):x}z", stem)


def _expression(column: str, ways: Iterable[tuple[str, ...]]) -> str:
    """What is asked of a column in FTS5's language: any of the words, or the words of any of the phrases near each other."""
    said = []
    for way in ways:
        words = [f'"{_token(w)}"' for w in way]
        near = f"NEAR({' '.join(words)}, {APART})" if column == "said" else f"({' AND '.join(words)})"
        said.append(words[0] if len(words) == 1 else near)
    return f"{column} : ({' OR '.join(said)})"


def _opened(file: Path | None, version: str) -> sqlite3.Connection:
    if file is not None:
        for _ in range(2):
            try:
                if file.exists() and file.stat().st_size > MOST_BYTES:
                    file.unlink()
                fresh = not file.exists()
                base = sqlite3.connect(file, timeout=WAIT, isolation_level=None)
                if fresh:
                    file.chmod(0o600)
                base.execute("PRAGMA synchronous=OFF")  # lost, it is made again
                if (made_by := _version_of(base)) == version:
                    return base
                if made_by is None:
                    return _shaped(base, version)
                base.close()
                file.unlink()
            except sqlite3.OperationalError:
                break
            except (sqlite3.DatabaseError, OSError):  # damaged: nothing is lost with it
                with suppress(OSError):
                    file.unlink(missing_ok=True)
    return _shaped(sqlite3.connect(":memory:", isolation_level=None), version)


def _version_of(base: sqlite3.Connection) -> str | None:
    """Of what made an index; None for one without tables."""
    tables = {str(name) for (name,) in base.execute("SELECT name FROM sqlite_master")}
    if "made_by" not in tables:
        return "none was kept" if tables else None
    return str(base.execute("SELECT version FROM made_by").fetchone()[0])


def _shaped(base: sqlite3.Connection, version: str = "") -> sqlite3.Connection:
    base.execute("BEGIN IMMEDIATE")
    for statement in SHAPE:
        base.execute(statement)
    base.execute("INSERT INTO made_by SELECT ? WHERE NOT EXISTS (SELECT 1 FROM made_by)", (version,))
    base.execute("COMMIT")
    base.execute("SELECT count(*) FROM papers").fetchone()
    return base


def _into_memory(base: sqlite3.Connection) -> sqlite3.Connection:
    """A copy in memory of an index that cannot be written to; an empty one where it cannot be read."""
    memory = sqlite3.connect(":memory:", isolation_level=None)
    try:
        base.backup(memory)
    except sqlite3.Error:
        memory = sqlite3.connect(":memory:", isolation_level=None)
    base.close()
    return _shaped(memory)
