"""Readings kept in SQLite, one for each content of a file, so that an unchanged file is not read again.

In a binder (a folder with yarnex.toml or .yarnex/) they are kept in its .yarnex/ folder, else in the user's cache.
Every entry carries a checksum. A store that is damaged is set aside and a new one begun; one that cannot be
written is done without. Two runs at once are safe: SQLite locks, and an entry is written whole or not at all.
"""

from __future__ import annotations

import hashlib
import sqlite3
import time
from collections.abc import Callable
from pathlib import Path

from yarnex.core.prepared import user_cache
from yarnex.core.reading.files import SETTINGS

FILE = "readings.sqlite"
FOLDER = ".yarnex"
MAX_KEPT = 2_000_000_000  # bytes in one store; the entries not used for longest go first
WAIT = 20.0  # seconds for another run's lock
SHAPE = "CREATE TABLE IF NOT EXISTS readings (key TEXT PRIMARY KEY, data BLOB NOT NULL, sum BLOB NOT NULL, used INTEGER NOT NULL) WITHOUT ROWID"


def binder_of(folder: Path) -> Path | None:
    """The binder around a folder: the nearest folder, itself first, with settings or a store."""
    try:
        whole = folder.resolve()
    except OSError:
        return None
    for candidate in (whole, *whole.parents):
        if (candidate / SETTINGS).is_file() or (candidate / FOLDER).is_dir():
            return candidate
    return None


def store_for(folder: Path, say: Callable[[str], None]) -> Store | None:
    """The store for work in a folder, None where none can be opened. say: told when a damaged one is set aside."""
    binder = binder_of(folder)
    places = [binder / FOLDER] if binder is not None else []
    places.append(user_cache())
    for place in places:
        try:
            place.mkdir(mode=0o700, parents=True, exist_ok=True)
            return Store(place / FILE, say)
        except (OSError, sqlite3.Error):
            continue
    return None


class Store:
    """Readings by key. Raises OSError or sqlite3.Error where the file can neither be opened nor replaced."""

    def __init__(self, file: Path, say: Callable[[str], None]) -> None:
        self.file = file
        self._say = say
        try:
            self._open()
        except sqlite3.OperationalError:
            raise
        except sqlite3.DatabaseError:
            self._set_aside()
        self._fresh: dict[str, int] = {}

    def _open(self) -> None:
        fresh = not self.file.exists()
        self._base = sqlite3.connect(self.file, timeout=WAIT, isolation_level=None)
        if fresh:
            self.file.chmod(0o600)
        self._base.execute("PRAGMA synchronous=NORMAL")
        self._base.execute(SHAPE)
        self._base.execute("SELECT key, sum, used FROM readings LIMIT 1").fetchone()

    def _set_aside(self) -> None:
        """Move a damaged store out of the way and begin a new one."""
        self._base.close()
        number = 1
        while (aside := self.file.with_name(f"{self.file.stem}.damaged-{number}{self.file.suffix}")).exists():
            number += 1
        self.file.replace(aside)
        for journal in ("-journal", "-wal", "-shm"):
            self.file.with_name(self.file.name + journal).unlink(missing_ok=True)
        self._say(
            f"{self.file.as_posix()}: the store of readings is damaged; set aside as {aside.name}, and the documents are read again"
        )
        self._open()

    def get(self, key: str) -> bytes | None:
        """What is kept under a key, None where nothing is, or what is there is damaged (then it goes)."""
        try:
            row = self._base.execute("SELECT data, sum FROM readings WHERE key = ?", (key,)).fetchone()
        except sqlite3.OperationalError:
            return None
        except sqlite3.DatabaseError:
            self._set_aside()
            return None
        if row is None:
            return None
        data = bytes(row[0])
        if hashlib.sha256(data).digest() != bytes(row[1]):
            self._say(f"{self.file.as_posix()}: a kept reading is damaged; the document is read again")
            self.drop(key)
            return None
        self._fresh[key] = int(time.time())
        return data

    def put(self, key: str, data: bytes) -> None:
        """Keep bytes under a key. A store that cannot be written (full disk, locked) is left as it is."""
        try:
            self._base.execute(
                "INSERT OR REPLACE INTO readings VALUES (?, ?, ?, ?)",
                (key, data, hashlib.sha256(data).digest(), int(time.time())),
            )
        except sqlite3.OperationalError:
            return
        except sqlite3.DatabaseError:
            self._set_aside()

    def drop(self, key: str) -> None:
        """Forget what is kept under a key."""
        try:
            self._base.execute("DELETE FROM readings WHERE key = ?", (key,))
        except sqlite3.Error:
            return

    def close(self) -> None:
        """Note what was used, let go of the oldest entries where there is too much, and close."""
        try:
            if self._fresh:
                self._base.execute("BEGIN")
                self._base.executemany(
                    "UPDATE readings SET used = ? WHERE key = ?", [(t, k) for k, t in self._fresh.items()]
                )
                self._base.execute("COMMIT")
            if self.file.stat().st_size > MAX_KEPT:
                self._let_go()
        except (sqlite3.Error, OSError):
            pass
        finally:
            self._base.close()

    def _let_go(self) -> None:
        (total,) = self._base.execute("SELECT total(length(data)) FROM readings").fetchone()
        for key, size in self._base.execute("SELECT key, length(data) FROM readings ORDER BY used").fetchall():
            if total < 0.7 * MAX_KEPT:
                break
            self.drop(key)
            total -= size
        self._base.execute("VACUUM")
