"""Books (EPUB 3) -> Document: the chapters in the order of the spine, each a page."""

from __future__ import annotations

from urllib.parse import unquote

from lxml import etree

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.html import PageReader, parse_page, styles_of
from yarnex.core.reading.package import BROKEN, Package
from yarnex.core.reading.structure import structure

OPF = "{http://www.idpf.org/2007/opf}"
DC = "{http://purl.org/dc/elements/1.1/}"


def read_epub(data: bytes, path: str, sha256: str) -> Document:
    """The document in a book's bytes. Raises UnreadableError where it is none."""
    package = Package(data, path, "EPUB")
    try:
        container = package.xml("META-INF/container.xml")
        opf = next(e.get("full-path") or "" for e in container.iter() if etree.QName(e).localname == "rootfile")
        root = package.xml(opf)
    except (*BROKEN, StopIteration):
        raise UnreadableError("not a complete EPUB", where=path, do="fetch or export it again") from None
    if "META-INF/encryption.xml" in package.names and b"EncryptedData" in package.bytes_of("META-INF/encryption.xml"):
        raise UnreadableError("locked against reading", where=path, do="get a copy without the lock")
    folder = opf.rpartition("/")[0]
    items = {e.get("id"): e.get("href") or "" for e in root.iter(f"{OPF}item")}
    spine = [items[e.get("idref")] for e in root.iter(f"{OPF}itemref") if e.get("idref") in items]
    reader = PageReader()
    problems: list[Problem] = []
    for number, href in enumerate(spine, start=1):
        name = "/".join(filter(None, [folder, unquote(href.split("#")[0])]))
        try:
            page = parse_page(package.bytes_of(name), path)
        except (*BROKEN, UnreadableError):
            problems.append(
                Problem("a chapter that cannot be read", f"part {number} ({href})", "fetch or export the book again")
            )
            continue
        reader.styles, reader.page = styles_of(page), number
        reader.read(page)
    title = next((e.text.strip() for e in root.iter(f"{DC}title") if e.text), "")
    author = next((e.text.strip() for e in root.iter(f"{DC}creator") if e.text), "")
    return assemble(
        structure(reader.drafts), path=path, format="epub", sha256=sha256, pages=len(spine), problems=[*problems, *reader.problems()], title=title,
        properties=[("author", author)] if author else (), paging="page",
    )  # fmt: skip
