"""ZIP archives -> the documents in them, within limits on number, depth, ratio and size. Nothing is unpacked to disk."""

from __future__ import annotations

import io
import re
import zipfile
import zlib
from collections.abc import Callable
from dataclasses import replace

from yarnex.core.errors import UnreadableError
from yarnex.core.reading.outcome import Reading

MAX_MEMBERS = 2_000
MAX_MEMBER = 500_000_000
MAX_TOTAL = 2_000_000_000
MAX_RATIO = 300  # unpacked to packed
RATIO_FROM = 10_000_000  # bytes from which the ratio is looked at
BROKEN = (
    zipfile.BadZipFile,
    NotImplementedError,
    RuntimeError,
    OSError,
    EOFError,
    ValueError,
    zlib.error,
    KeyError,
    IndexError,
)


def read_zip(
    data: bytes, path: str, readable: Callable[[str], bool], inner: Callable[[bytes, str], list[Reading]]
) -> list[Reading]:
    """Each member that a reader takes, read under the path archive/member. Raises UnreadableError for no archive."""
    try:
        archive = zipfile.ZipFile(io.BytesIO(data))
        members = [m for m in archive.infolist() if not m.is_dir()]
    except BROKEN:
        raise UnreadableError("not a complete ZIP archive", where=path, do="fetch or make it again") from None
    if len(members) > MAX_MEMBERS:
        raise UnreadableError(
            f"holds {len(members):,} files, more than {MAX_MEMBERS:,}", where=path, do="unpack it and read the folder"
        )
    out: list[Reading] = []
    total = 0
    for member in sorted(members, key=lambda m: m.filename):
        name = "/".join(
            s
            for s in re.sub(r"[\x00-\x1f]", "", member.filename.replace("\\", "/")).split("/")
            if s not in ("", ".", "..")
        )
        shown = f"{path}/{name}"
        base = name.rsplit("/", 1)[-1]
        if base.startswith((".", "~$")) or name.startswith("__MACOSX/"):
            continue
        if not readable(name):
            out.append(Reading(shown, None, UnreadableError("of a format that is not read", where=shown)))
            continue
        total += member.file_size
        if (
            member.file_size > MAX_MEMBER
            or total > MAX_TOTAL
            or (member.file_size > RATIO_FROM and member.file_size > MAX_RATIO * max(1, member.compress_size))
        ):
            out.append(Reading(shown, None, UnreadableError(
                f"unpacks to {member.file_size:,} bytes, which is beyond the limits", where=shown, do="unpack it by hand if you trust it")))  # fmt: skip
            continue
        if member.flag_bits & 1:
            out.append(
                Reading(
                    shown,
                    None,
                    UnreadableError("locked with a password", where=shown, do="unpack it and read the folder"),
                )
            )
            continue
        try:
            with archive.open(member) as part:
                content = part.read(member.file_size + 1)
            found = inner(content, shown)
        except UnreadableError as error:
            found = [Reading(shown, None, error)]
        except BROKEN:
            found = [
                Reading(
                    shown,
                    None,
                    UnreadableError("damaged inside the archive", where=shown, do="fetch or make the archive again"),
                )
            ]
        out += [
            replace(r, document=replace(r.document, parent=r.document.parent or path)) if r.document is not None else r
            for r in found
        ]
    if not any(r.document is not None for r in out) and not out:
        raise UnreadableError("an archive without documents", where=path)
    return out
