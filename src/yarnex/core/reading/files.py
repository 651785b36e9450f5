"""Which files to read, and reading them: one file can give several documents (a mail with attachments, an archive)."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError, YarnexError
from yarnex.core.reading.formats import Format, format_of, readable
from yarnex.core.reading.outcome import Reading

MAX_BYTES = 1_000_000_000
MAX_DEPTH = 4  # archives and mails inside each other
SCANS = ("recognise", "tesseract", "skip")


@dataclass(frozen=True, slots=True)
class ReadOptions:
    """How to read. scans: what to do with pictures of text: "recognise", "tesseract" (that program) or "skip"."""

    scans: str = "recognise"
    threads: int = 0  # for recognition; 0: as many as the machine has
    progress: Callable[[str, int, int], None] | None = None  # told the path, the page just read and how many there are

    @property
    def key(self) -> str:
        """A text that is the same for options that read alike."""
        return self.scans


SETTINGS = "yarnex.toml"  # of the binder, no document


def find_files(paths: Iterable[str | Path]) -> tuple[list[str], list[str]]:
    """Files named, and those in folders named (and below) that a reader may take, each once.

    A document inside an archive or mail is named by its path there ("bundle.zip/lease.pdf"). Links in folders that
    lead out of them are not followed. Returns (files to read, files in folders passed over because no reader takes
    them), both in a fixed order: as named, and inside a folder by name. Raises YarnexError for a path that does
    not exist.
    """
    wanted: list[str] = []
    passed: list[str] = []
    for path in map(Path, paths):
        if path.is_dir():
            for folder, folders, names in os.walk(path):
                folders[:] = sorted(f for f in folders if not f.startswith("."))
                for name in sorted(names):
                    if name.startswith((".", "~$")) or name == SETTINGS:
                        continue
                    found = (Path(folder) / name).as_posix()
                    (wanted if readable(name) else passed).append(found)
        elif path.exists() or _container_of(path) is not None:
            wanted.append(path.as_posix())
        else:
            raise YarnexError("no such file or folder", where=path.as_posix(), do="check the name")
    return list(dict.fromkeys(wanted)), list(dict.fromkeys(passed))


def _container_of(path: Path) -> Path | None:
    """The file on disk inside which a path lies ("bundle.zip" of "bundle.zip/lease.pdf")."""
    return next((p for p in path.parents if p.is_file()), None)


def outer_file(path: str) -> str:
    """The file on disk that a path names or lies inside of; the path itself where there is none."""
    if Path(path).exists():
        return path
    outer = _container_of(Path(path))
    return outer.as_posix() if outer is not None else path


def read_bytes_of(path: str | Path) -> bytes:
    """A file's bytes. Raises UnreadableError with what is wrong and what to do."""
    shown = Path(path).as_posix()
    try:
        if Path(path).stat().st_size > MAX_BYTES:
            raise UnreadableError("larger than 1 GB", where=shown, do="split it")
        data = Path(path).read_bytes()
    except PermissionError:
        raise UnreadableError("no permission to read it", where=shown, do="change its permissions or copy it") from None
    except OSError as error:
        raise UnreadableError(f"cannot be opened ({error.strerror or error})", where=shown) from None
    if not data.strip():
        raise UnreadableError("an empty file", where=shown, do="fetch or export it again")
    return data


def read_data(data: bytes, path: str, options: ReadOptions | None = None, depth: int = 0) -> list[Reading]:
    """The documents in a file's bytes, the file's own first. Raises UnreadableError where the file gives none."""
    options = options or ReadOptions()
    if not data.strip():
        raise UnreadableError("an empty file", where=path, do="fetch or export it again")
    format = format_of(data, path)
    if format.holds_files and depth >= MAX_DEPTH:
        raise UnreadableError(
            f"more than {MAX_DEPTH} archives or mails inside each other", where=path, do="unpack it by hand"
        )
    try:
        return _read(format, data, path, options, depth)
    except (MemoryError, RecursionError):
        raise UnreadableError(
            "too large or too deeply nested to read", where=path, do="split it or export it again"
        ) from None


def _read(format: Format, data: bytes, path: str, options: ReadOptions, depth: int) -> list[Reading]:
    digest = hashlib.sha256(data).hexdigest()

    def inner(content: bytes, name: str) -> list[Reading]:
        return read_data(content, name, options, depth + 1)

    if format.name == "zip":
        from yarnex.core.reading.archive import read_zip

        return read_zip(data, path, readable, inner)
    if format.name in ("mail", "mailbox"):
        from yarnex.core.reading.mail import read_mail, read_mailbox

        return (read_mail if format.name == "mail" else read_mailbox)(data, path, digest, inner)
    if format.name in ("pdf", "picture"):
        from yarnex.core.reading.pdf import read_pdf
        from yarnex.core.reading.pictures import read_picture
        from yarnex.core.reading.recognising import recogniser

        told = options.progress
        progress = (lambda page, of: told(path, page, of)) if told is not None else None
        read = read_pdf if format.name == "pdf" else read_picture
        return [Reading(path, read(data, path, digest, recogniser(options.scans, options.threads), progress))]
    return [Reading(path, format.reader()(data, path, digest))]


def read_file(path: str | Path, options: ReadOptions | None = None) -> list[Reading]:
    """The documents in a file on disk, or of a member of an archive or mail. Raises UnreadableError."""
    shown = Path(path).as_posix()
    outer = outer_file(shown)
    found = read_data(read_bytes_of(outer), outer, options)
    return found if outer == shown else chosen(found, shown)


def chosen(found: list[Reading], path: str) -> list[Reading]:
    """Of a container's documents the one with this path, and what is inside it."""
    kept = [r for r in found if r.path == path or r.path.startswith(path + "/")]
    if not kept:
        raise UnreadableError("not in the file that the path names", where=path, do="check the name")
    return kept


def read_document(path: str | Path, options: ReadOptions | None = None) -> Document:
    """The document in a file (for a mail, the mail itself). Raises UnreadableError with what is wrong and what to do."""
    for reading in read_file(path, options):
        if reading.error is not None:
            raise reading.error
        if reading.document is not None:
            return reading.document
    raise UnreadableError("no document in it", where=Path(path).as_posix())


def read_all(paths: Iterable[str], options: ReadOptions | None = None) -> Iterator[Reading]:
    """Each file's documents or error, in the order given, one after the other in this process."""
    for path in paths:
        try:
            yield from read_file(path, options)
        except UnreadableError as error:
            yield Reading(path, None, error)
