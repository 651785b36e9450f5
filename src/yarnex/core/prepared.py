"""What is made of the program's own packs and patterns alone, kept in the user's cache so that the next run starts sooner.

In: a name, and how the thing is made. Out: the same thing, from the file where it was made before by the same code from the
same packs. Nothing of a user's documents, sheets or questions is in it. A file that is damaged or of another version is
passed over, and one that cannot be written is done without.
"""

from __future__ import annotations

import hashlib
import marshal
import os
import sys
from collections.abc import Callable
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from typing import Any, TypeVar

Made = TypeVar("Made")
FOLDER = "prepared"
SUM = hashlib.sha256().digest_size
PACKAGE = Path(__file__).resolve().parents[1]


def user_cache() -> Path:
    """The folder for what can be made again: $YARNEX_CACHE, else where the system keeps a user's caches."""
    if named := os.environ.get("YARNEX_CACHE"):
        return Path(named)
    import platformdirs

    return Path(platformdirs.user_cache_dir("yarnex", appauthor=False))


@lru_cache(maxsize=16)
def made_by(*places: str) -> str:
    """Changes whenever files of these folders of the package may have changed: by their names, sizes and times."""
    digest = hashlib.sha256()
    for place in places:
        for folder, within, names in os.walk(PACKAGE / place):
            within.sort()
            for name in sorted(names):
                if name.endswith((".py", ".yaml", ".txt")):
                    about = Path(folder, name).stat()
                    digest.update(f"{name} {about.st_size} {about.st_mtime_ns}\n".encode())
    return digest.hexdigest()[:16]


def prepared(name: str, make: Callable[[], Made]) -> Made:
    """What `make` gives (of dicts, lists, tuples, sets, text and numbers only), kept under a name."""
    kept = recalled(name)
    if kept is not None:
        return kept  # type: ignore[no-any-return]
    made = make()
    keep(name, made)
    return made


def recalled(name: str) -> Any | None:
    """What is kept under a name by this version of the program, None where nothing is."""
    try:
        data = _file(name).read_bytes()
        if hashlib.sha256(data[SUM:]).digest() != data[:SUM]:
            return None
        return marshal.loads(data[SUM:])
    except (OSError, ValueError, EOFError, TypeError):
        return None


_run = {"keeps": True}


def keep_nothing() -> None:
    """From here on this run writes no file; what earlier ones have kept serves."""
    _run["keeps"] = False


def keep(name: str, value: Any) -> None:
    """Keep it, whole or not at all; those of earlier versions go."""
    if not _run["keeps"]:
        return
    file = _file(name)
    data = marshal.dumps(value)
    fresh = file.with_name(f"{file.name}.{os.getpid()}")
    with suppress(OSError):
        file.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        for old in file.parent.iterdir():
            if old.name.startswith(f"{name}-") and old != file:
                old.unlink(missing_ok=True)
        try:
            fresh.write_bytes(hashlib.sha256(data).digest() + data)
            fresh.replace(file)
        finally:
            fresh.unlink(missing_ok=True)


def _file(name: str) -> Path:
    return user_cache() / FOLDER / f"{name}-{sys.hexversion:x}-{made_by('core', 'packs')}"
