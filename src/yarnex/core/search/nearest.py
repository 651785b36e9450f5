"""The papers of a large binder that come nearest to some questions, so that only those need be opened."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator, Sequence

from yarnex.core.binder import Store, read_kept
from yarnex.core.binder.keeping import key_of
from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.files import ReadOptions, outer_file, read_bytes_of
from yarnex.core.search.passage_index import entries_of, index_beside
from yarnex.core.search.question import understand
from yarnex.core.side_by_side import worked_at


def nearest_paths(
    paths: Sequence[str],
    questions: Sequence[str],
    most: int,
    options: ReadOptions,
    store: Store | None,
    told: Callable[[int, str, int, int], None] | None = None,
    processes: int = 1,
) -> list[str]:
    """At most `most` of the paths, those whose lines name most of what any of the questions asks for, in the order given.

    Files that cannot be read are kept among them, so that they are told. Papers not yet in the index are read and taken in;
    it stands beside the store. told: as for `read_kept`. processes: how many work at papers that are taken in.
    """
    if len(paths) <= most:
        return list(paths)
    index = index_beside(store.file if store is not None else None)
    try:
        keys: dict[str, str] = {}
        unread = set()
        for path in paths:
            try:
                digest = hashlib.sha256(read_bytes_of(outer_file(path))).hexdigest()
            except UnreadableError:
                unread.add(path)
                continue
            keys[path] = f"{key_of(digest, outer_file(path), options)}|{path[len(outer_file(path)) :]}"
        missing = [path for path, key in keys.items() if not index.has(key)]

        def to_take_in() -> Iterator[tuple[str, list[Document]]]:
            for path, documents, failed in _read(missing, options, store, told):
                if failed and not documents:
                    unread.add(path)
                else:
                    yield path, documents

        for path, entries in worked_at(entries_of, to_take_in(), min(processes, len(missing))):
            index.add(keys[path], entries)
        near = index.nearness(list(dict.fromkeys(keys.values())), [understand(q) for q in questions])
        order = sorted((p for p in paths if p not in unread), key=lambda p: -near[keys[p]])
        kept = unread | {p for p in order[:most] if near[keys[p]] > 0}
        return [p for p in paths if p in kept] or order[:1]
    finally:
        index.close()


def _read(
    paths: Sequence[str],
    options: ReadOptions,
    store: Store | None,
    told: Callable[[int, str, int, int], None] | None,
) -> Iterator[tuple[str, list[Document], bool]]:
    """Each path with the documents in it, and whether any of them could not be read."""
    found: dict[str, list[Document]] = {path: [] for path in paths}
    failed = set()
    place = 0
    for reading in read_kept(paths, options, store, told):
        while place < len(paths) - 1 and not reading.path.startswith(paths[place]):
            yield paths[place], found.pop(paths[place]), paths[place] in failed
            place += 1
        if reading.document is None:
            failed.add(paths[place])
        else:
            found[paths[place]].append(reading.document)
    for path in paths[place:]:
        yield path, found.pop(path), path in failed
