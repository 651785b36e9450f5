"""A result into a file: the format by its ending, whole or not at all, and never over an input."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable, Iterable, Mapping
from pathlib import Path

from yarnex.core.errors import OutputError

FORMATS = (".md", ".csv", ".html", ".json")


def check_out(out: Path, inputs: Iterable[str], force: bool, formats: tuple[str, ...] = FORMATS) -> None:
    """Raises OutputError before any work is done where the file cannot or must not be written."""
    shown = out.as_posix()
    if out.suffix.lower() not in formats:
        raise OutputError(
            f"{out.suffix or 'no ending'} is not a format", where=f"--out {shown}", do=f"use {', '.join(formats)}"
        )
    if out.is_dir():
        raise OutputError("a folder, not a file", where=f"--out {shown}", do="name a file in it")
    if not out.parent.is_dir():
        raise OutputError("no such folder", where=f"--out {out.parent.as_posix()}", do="make it first")
    if any(out.resolve() == Path(path).resolve() for path in inputs):
        raise OutputError(
            "one of the documents", where=f"--out {shown}", do="name another file; documents are never changed"
        )
    if out.exists() and not force:
        raise OutputError("already there", where=f"--out {shown}", do="add --force to replace it")


def write(out: Path, content: str | bytes) -> None:
    """Write the whole content, or leave what was there: a full disk or an interruption never leaves half a file."""
    handle, name = -1, ""
    try:
        handle, name = tempfile.mkstemp(prefix=f".{out.name}.", dir=out.parent)
        with os.fdopen(handle, "wb") as file:
            file.write(content.encode("utf-8") if isinstance(content, str) else content)
            file.flush()
            os.fsync(file.fileno())
        Path(name).chmod(0o666 & ~_umask())
        Path(name).replace(out)
    except OSError as error:
        raise OutputError(
            f"cannot be written ({error.strerror or error})",
            where=f"--out {out.as_posix()}",
            do="free space or name another place",
        ) from None
    finally:
        if name:
            Path(name).unlink(missing_ok=True)


def _umask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask


def in_format(out: Path, renderers: Mapping[str, Callable[[], str | bytes]]) -> str | bytes:
    """The content in the format that the file's ending asks for."""
    return renderers[out.suffix.lower()]()
