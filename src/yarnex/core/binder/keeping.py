"""Reading with a store: unchanged files come from it, the others are read in processes and kept."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator, Sequence

from yarnex._version import __version__
from yarnex.core.binder.store import Store
from yarnex.core.errors import UnreadableError
from yarnex.core.prepared import made_by
from yarnex.core.reading.files import ReadOptions, chosen, outer_file, read_bytes_of
from yarnex.core.reading.formats import ending_of
from yarnex.core.reading.outcome import Reading
from yarnex.core.reading.packing import unpack

Told = Callable[[int, str, int, int], None]
BATCH = 256  # files looked up before the first of those that must be read is read


def reader_version() -> str:
    """Changes whenever the code that reads may give another result."""
    return f"{__version__} {made_by('core/reading', 'core/document')}"


def key_of(digest: str, path: str, options: ReadOptions) -> str:
    """Under which key the readings of a content are kept; the ending counts, as it decides between text formats."""
    return f"{digest}{ending_of(path)}|{options.key}|{reader_version()}"


def read_kept(
    paths: Sequence[str], options: ReadOptions, store: Store | None, told: Told | None = None, processes: int = 0
) -> Iterator[Reading]:
    """The readings of each path, in order. told: called with the number of files done, a path, a page and its pages."""
    finished = 0

    def page_told(path: str, page: int, of: int) -> None:
        if told is not None:
            told(finished, path, page, of)

    for first in range(0, len(paths), BATCH):
        batch = paths[first : first + BATCH]
        known: dict[str, list[Reading]] = {}
        keys: dict[str, str] = {}
        missing: list[str] = []
        for path in batch:
            if path in known or path in keys:
                continue
            outer = outer_file(path)
            try:
                digest = hashlib.sha256(read_bytes_of(outer)).hexdigest()
            except UnreadableError as error:
                known[path] = [Reading(path, None, UnreadableError(error.what, where=path, do=error.do))]
                continue
            keys[path] = key_of(digest, outer, options)
            found = _kept(store, keys[path], outer) if store is not None else None
            if found is None:
                missing.append(path)
            else:
                known[path] = _inside(found, path, outer)
        fresh = _read([outer_file(p) for p in missing], options, page_told, processes)
        waiting = dict(zip(missing, range(len(missing)), strict=True))
        for path in batch:
            if path in known:
                readings = known[path]
            elif path in waiting:
                outer, found, data = next(fresh)
                if store is not None and data:
                    store.put(keys[path], data)
                readings = known[path] = _inside(found, path, outer)
            else:
                continue
            finished += 1
            if told is not None:
                told(finished, path, 0, 0)
            yield from readings
        for _ in fresh:  # lets the reading processes end
            pass


def _read(
    paths: list[str], options: ReadOptions, told: Callable[[str, int, int], None], processes: int
) -> Iterator[tuple[str, list[Reading], bytes]]:
    if paths:
        from yarnex.core.reading.pool import read_many

        yield from read_many(paths, options, told=told, processes=processes)


def _kept(store: Store, key: str, path: str) -> list[Reading] | None:
    data = store.get(key)
    if data is None:
        return None
    try:
        return unpack(data, path)
    except ValueError:
        store.drop(key)
        return None


def _inside(found: list[Reading], path: str, outer: str) -> list[Reading]:
    if path == outer:
        return found
    try:
        return chosen(found, path)
    except UnreadableError as error:
        return [Reading(path, None, error)]
