"""A JSON head, a text and arrays of numbers as one run of bytes, and back: how what is kept between runs is written.

The form is our own: the head, the text and each array, every one behind its length, compressed together with zlib (whose own
checksum tells damage). Plain data only: nothing in it is executed.
"""

from __future__ import annotations

import json
import struct
import sys
import zlib
from array import array
from collections.abc import Sequence
from typing import Any

MAX_UNPACKED = 4_000_000_000


def framed(magic: bytes, head: dict[str, Any], text: str, arrays: Sequence[array[Any]]) -> bytes:
    """All of it as bytes that begin with `magic`."""
    parts = [
        json.dumps(head, ensure_ascii=True, separators=(",", ":")).encode(),
        text.encode("utf-8", "surrogatepass"),
    ]
    for values in arrays:
        if sys.byteorder == "big":
            values = values[:]
            values.byteswap()
        parts.append(values.tobytes())
    return magic + zlib.compress(b"".join(struct.pack("<Q", len(p)) + p for p in parts), 1)


def unframed(magic: bytes, data: bytes, codes: Sequence[str]) -> tuple[dict[str, Any], str, list[array[Any]]]:
    """The head, the text and the arrays, of these type codes. Raises ValueError for anything that `framed` did not make."""
    if not data.startswith(magic):
        raise ValueError("kept by another version")
    try:
        unpacker = zlib.decompressobj()
        body = unpacker.decompress(data[len(magic) :], MAX_UNPACKED)
        if not unpacker.eof:
            raise ValueError("cut short")
        parts = []
        at = 0
        for _ in range(2 + len(codes)):
            (length,) = struct.unpack_from("<Q", body, at)
            at += 8
            if at + length > len(body):
                raise ValueError("cut short")
            parts.append(body[at : at + length])
            at += length
        arrays: list[array[Any]] = []
        for code, raw in zip(codes, parts[2:], strict=True):
            values: array[Any] = array(code)
            values.frombytes(raw)
            if sys.byteorder == "big":
                values.byteswap()
            arrays.append(values)
        return json.loads(parts[0]), parts[1].decode("utf-8", "surrogatepass"), arrays
    except (zlib.error, struct.error, UnicodeDecodeError, RecursionError) as error:
        raise ValueError(f"what was kept is damaged ({type(error).__name__})") from None
