"""Zipped packages (Office Open XML, OpenDocument, EPUB) and XML from files that may be hostile: limits in one place."""

from __future__ import annotations

import io
import zipfile
import zlib
from typing import Any

from lxml import etree

from yarnex.core.errors import UnreadableError

MAX_MEMBERS = 20_000
MAX_PART = 300_000_000  # bytes of one part once unpacked
MAX_TOTAL = 1_500_000_000  # bytes of all parts that are read
MAX_RATIO = 400  # unpacked to packed; more, over some size, is a trap
RATIO_FROM = 20_000_000
PARSER_OPTIONS: dict[str, Any] = {
    "resolve_entities": False, "no_network": True, "load_dtd": False, "dtd_validation": False, "huge_tree": False,
    "remove_comments": True, "remove_pis": True,
}  # fmt: skip
BROKEN = (
    zipfile.BadZipFile, KeyError, SyntaxError, NotImplementedError, RuntimeError, OSError, EOFError, ValueError,
    zlib.error, IndexError,
)  # fmt: skip


class Package:
    """A zip file whose parts are read within limits. Raises UnreadableError when opened on something else."""

    def __init__(self, data: bytes, path: str, kind: str) -> None:
        self._read = 0
        try:
            self.zip = zipfile.ZipFile(io.BytesIO(data))
            names = self.zip.namelist()
        except BROKEN:
            raise UnreadableError(
                f"not a complete {kind}", where=path, do="open it in its own program and save it again"
            ) from None
        if len(names) > MAX_MEMBERS:
            raise UnreadableError(f"holds more than {MAX_MEMBERS:,} parts", where=path, do="split it")
        self.names = names
        self._known = frozenset(names)
        self.path = path

    def bytes_of(self, name: str) -> bytes:
        """One part, unpacked. Raises KeyError where it is missing and ValueError where it breaks a limit."""
        info = self.zip.getinfo(name)
        if info.file_size > MAX_PART or (
            info.file_size > RATIO_FROM and info.file_size > MAX_RATIO * max(1, info.compress_size)
        ):
            raise ValueError(f"{name} unpacks to {info.file_size:,} bytes")
        self._read += info.file_size
        if self._read > MAX_TOTAL:
            raise ValueError("the parts unpack to more than 1.5 GB")
        if info.flag_bits & 1:
            raise ValueError(f"{name} is encrypted")
        with self.zip.open(info) as part:
            data = part.read(info.file_size + 1)
        if len(data) > info.file_size:
            raise ValueError(f"{name} is larger than it says")
        return data

    def xml(self, name: str) -> etree._Element:
        """One part as XML."""
        return parse_xml(self.bytes_of(name))

    def optional(self, name: str) -> etree._Element | None:
        """One part as XML, None where it is missing or broken."""
        if name not in self._known:
            return None
        try:
            return self.xml(name)
        except BROKEN:
            return None

    def relations(self, part: str) -> dict[str, str]:
        """Ids of a part's relationships -> names of the parts that they point to (Open Packaging Conventions)."""
        folder, _, name = part.rpartition("/")
        root = self.optional(f"{folder}/_rels/{name}.rels" if folder else f"_rels/{name}.rels")
        out: dict[str, str] = {}
        for item in root if root is not None else ():
            if item.get("TargetMode") == "External":
                continue
            target = item.get("Target") or ""
            steps = [] if target.startswith("/") else folder.split("/")
            for step in target.split("/"):
                if step == ".." and steps:
                    steps.pop()
                elif step not in ("", ".", ".."):
                    steps.append(step)
            out[item.get("Id") or ""] = "/".join(s for s in steps if s)
        return out


def parse_xml(data: bytes) -> etree._Element:
    """XML without entities, external references, comments and network."""
    return etree.fromstring(data, etree.XMLParser(**PARSER_OPTIONS))


def core_properties(package: Package) -> tuple[str, tuple[tuple[str, str], ...]]:
    """Recorded title, and the other properties (Dublin Core) that say who and when."""
    root = package.optional("docProps/core.xml")
    found: dict[str, str] = {}
    for item in root if root is not None else ():
        name = etree.QName(item).localname if isinstance(item.tag, str) else ""
        if item.text and item.text.strip():
            found[name] = item.text.strip()
    wanted = {"creator": "author", "lastModifiedBy": "last changed by", "created": "created", "modified": "changed"}
    return found.get("title", ""), tuple((label, found[name]) for name, label in wanted.items() if name in found)
