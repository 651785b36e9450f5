"""Which files to read, and which reader reads each."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError, YarnexError

READABLE = (".pdf", ".docx", ".txt", ".md")
MAX_BYTES = 1_000_000_000


@dataclass(frozen=True, slots=True)
class Reading:
    """The outcome for one file: a document, or the reason why there is none."""

    path: str
    document: Document | None
    error: UnreadableError | None = None


def find_files(paths: Iterable[str | Path]) -> tuple[list[str], list[str]]:
    """Files named, and those in folders named (and below) that a reader may take, each once.

    Returns (files to read, files in folders passed over because no reader takes them), both in a fixed order:
    as named, and inside a folder by name. Raises YarnexError for a path that does not exist.
    """
    wanted: list[str] = []
    passed: list[str] = []
    for path in map(Path, paths):
        if path.is_dir():
            for folder, folders, names in os.walk(path):
                folders[:] = sorted(f for f in folders if not f.startswith("."))
                for name in sorted(names):
                    if name.startswith((".", "~$")):
                        continue
                    found = (Path(folder) / name).as_posix()
                    (wanted if name.lower().endswith(READABLE) else passed).append(found)
        elif path.exists():
            wanted.append(path.as_posix())
        else:
            raise YarnexError("no such file or folder", where=path.as_posix(), do="check the name")
    return list(dict.fromkeys(wanted)), list(dict.fromkeys(passed))


def read_document(path: str | Path) -> Document:
    """The document in a file. Raises UnreadableError with what is wrong and what to do."""
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
    digest = hashlib.sha256(data).hexdigest()
    try:
        return _reader_for(data, shown)(data, shown, digest)
    except (MemoryError, RecursionError):
        raise UnreadableError(
            "too large or too deeply nested to read", where=shown, do="split it or export it again"
        ) from None


def read_all(paths: Iterable[str]) -> Iterator[Reading]:
    """Each file's document or error, in the order given."""
    for path in paths:
        try:
            yield Reading(path, read_document(path))
        except UnreadableError as error:
            yield Reading(path, None, error)


def _reader_for(data: bytes, path: str) -> Callable[[bytes, str, str], Document]:
    """The reader by magic bytes, then by the file's ending."""
    ending = Path(path).suffix.lower()
    if b"%PDF-" in data[:1024]:
        from yarnex.core.reading.pdf import read_pdf

        return read_pdf
    if ending == ".docx" or (data.startswith(b"PK\x03\x04") and b"word/" in data):
        from yarnex.core.reading.docx import read_docx

        return read_docx
    if ending == ".pdf":
        raise UnreadableError("not a complete PDF", where=path, do="fetch or export the file again")
    if ending in (".txt", ".md", ".text", ".markdown") or (ending not in _BINARY and b"\x00" not in data[:4096]):
        from yarnex.core.reading.text import read_text

        if ending in (".md", ".markdown"):
            return lambda d, p, h: read_text(d, p, h, markdown=True)
        return read_text
    raise UnreadableError(
        f"{ending or 'a file without an ending'} is not a format that can be read",
        where=path,
        do=f"give {', '.join(READABLE)}",
    )


_BINARY = (
    ".zip",
    ".png",
    ".jpg",
    ".jpeg",
    ".tif",
    ".tiff",
    ".gif",
    ".xlsx",
    ".xls",
    ".pptx",
    ".ppt",
    ".doc",
    ".odt",
    ".rtf",
    ".exe",
)
