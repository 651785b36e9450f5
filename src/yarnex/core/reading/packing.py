"""The readings of one file -> bytes and back, with paths told from the file's own, so that a copy elsewhere reads alike."""

from __future__ import annotations

import json
import struct
from dataclasses import replace

from yarnex.core.document.storing import from_bytes, to_bytes
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.outcome import Reading


def pack(readings: list[Reading], path: str) -> bytes:
    """The readings of the file at `path` as bytes."""

    def inside(place: str) -> str:
        return place.removeprefix(path) if place.startswith(path) else place

    out = [struct.pack("<I", len(readings))]
    for reading in readings:
        error = reading.error
        head = [inside(reading.path), [error.what, inside(error.where), error.do] if error is not None else None]
        document = reading.document
        body = (
            to_bytes(
                replace(
                    document,
                    path=inside(document.path),
                    parent="/" if document.parent == path else inside(document.parent),
                )
            )
            if document is not None
            else b""
        )
        for part in (json.dumps(head).encode(), body):
            out.append(struct.pack("<Q", len(part)) + part)
    return b"".join(out)


def unpack(data: bytes, path: str) -> list[Reading]:
    """The readings in these bytes for a file now at `path`. Raises ValueError for anything that `pack` did not make."""
    try:
        (count,) = struct.unpack_from("<I", data)
        at = 4
        parts: list[bytes] = []
        for _ in range(2 * count):
            (length,) = struct.unpack_from("<Q", data, at)
            if at + 8 + length > len(data):
                raise ValueError("cut short")
            parts.append(data[at + 8 : at + 8 + length])
            at += 8 + length
        out = []
        for head, body in zip(parts[::2], parts[1::2], strict=True):
            place, said = json.loads(head)
            error = UnreadableError(said[0], where=path + said[1], do=said[2]) if said else None
            document = from_bytes(body) if body else None
            if document is not None:
                parent = path if document.parent == "/" else path + document.parent if document.parent else ""
                document = replace(document, path=path + document.path, parent=parent)
            out.append(Reading(path + place, document, error))
    except (struct.error, KeyError, TypeError, IndexError) as error:
        raise ValueError(f"kept readings are damaged ({type(error).__name__})") from None
    return out
