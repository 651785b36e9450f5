"""Which reader takes a file: found by what the file holds (magic bytes, members of a package), then by its ending."""

from __future__ import annotations

import io
import re
import zipfile
from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from pathlib import PurePosixPath

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern

Reader = Callable[[bytes, str, str], Document]


@dataclass(frozen=True, slots=True)
class Format:
    """A file format: its endings, the module and function that read it, and whether it only holds other files."""

    name: str
    endings: tuple[str, ...]
    module: str
    function: str
    holds_files: bool = False

    def reader(self) -> Reader:
        """The function that turns bytes, path and digest into a document (its module is loaded only now)."""
        function: Reader = getattr(import_module(f"yarnex.core.reading.{self.module}"), self.function)
        return function


FORMATS = (
    Format("pdf", (".pdf",), "pdf", "read_pdf"),
    Format("docx", (".docx", ".dotx", ".docm"), "docx", "read_docx"),
    Format("xlsx", (".xlsx", ".xlsm"), "spreadsheet", "read_xlsx"),
    Format("pptx", (".pptx", ".ppsx", ".pptm"), "slides", "read_pptx"),
    Format("opendocument", (".odt", ".ods", ".odp", ".ott"), "opendocument", "read_opendocument"),
    Format("epub", (".epub",), "epub", "read_epub"),
    Format("picture", (".png", ".jpg", ".jpeg", ".tif", ".tiff"), "pictures", "read_picture"),
    Format("html", (".html", ".htm", ".xhtml", ".xht"), "html", "read_html"),
    Format("rtf", (".rtf",), "other_texts", "read_rtf"),
    Format("doc", (".doc",), "other_texts", "read_doc"),
    Format("csv", (".csv", ".tsv"), "spreadsheet", "read_csv"),
    Format("transcript", (".vtt", ".srt"), "transcript", "read_transcript"),
    Format("mail", (".eml",), "mail", "read_mail", holds_files=True),
    Format("mailbox", (".mbox",), "mail", "read_mailbox", holds_files=True),
    Format("zip", (".zip",), "archive", "read_zip", holds_files=True),
    Format("markdown", (".md", ".markdown"), "text", "read_markdown"),
    Format("text", (".txt", ".text"), "text", "read_text"),
)
BY_NAME = {f.name: f for f in FORMATS}
BY_ENDING = {ending: f for f in FORMATS for ending in f.endings}
READABLE = tuple(BY_ENDING)
OLE = b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1"  # Compound File Binary: Word 97, encrypted Office files
MAIL_HEAD = pattern(rb"\A(?:[A-Za-z][\w-]{1,40}:[^\n]*\r?\n(?:[ \t][^\n]*\r?\n)*){2,}\r?\n")
MAIL_FIELD = pattern(rb"^(?:from|received|return-path|delivered-to|message-id):", re.IGNORECASE | re.MULTILINE)
CUE = pattern(r"\A\s*\d+\s*\n\d{1,2}:\d{2}:\d{2}[,.]\d{3}\s*-->")
BINARY = frozenset(
    [
        ".gif",
        ".bmp",
        ".webp",
        ".heic",
        ".svg",
        ".xls",
        ".ppt",
        ".msg",
        ".exe",
        ".dll",
        ".so",
        ".gz",
        ".7z",
        ".rar",
        ".tar",
        ".mp3",
        ".mp4",
        ".mov",
        ".wav",
        ".avi",
        ".sqlite",
        ".db",
        ".bin",
        ".pyc",
        ".ico",
        ".woff",
        ".ttf",
    ]
)


def ending_of(path: str) -> str:
    """The ending of a path in small letters, with its dot."""
    return PurePosixPath(path).suffix.lower()


def readable(path: str) -> bool:
    """True where a reader takes files with this ending."""
    return ending_of(path) in BY_ENDING


def format_of(data: bytes, path: str) -> Format:
    """The format of a file. Raises UnreadableError where no reader takes it."""
    ending = ending_of(path)
    named = BY_ENDING.get(ending)
    if b"%PDF-" in data[:1024]:
        return BY_NAME["pdf"]
    if data.startswith((b"PK\x03\x04", b"PK\x05\x06")):
        return BY_NAME[_package_kind(data, named)]
    if data.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff", b"II*\x00", b"MM\x00*", b"II+\x00", b"MM\x00+")):
        return BY_NAME["picture"]
    if data.startswith(OLE):
        return _compound(data, path, ending)
    head = data[:2048].lstrip(b"\xef\xbb\xbf \t\r\n")
    if head.startswith(b"{\\rtf"):
        return BY_NAME["rtf"]
    if named is not None and named.name in (
        "docx",
        "xlsx",
        "pptx",
        "opendocument",
        "epub",
        "zip",
        "pdf",
        "picture",
        "doc",
    ):
        what = {"pdf": "not a complete PDF", "docx": "not a complete Word file (.docx)"}.get(
            named.name, f"not a complete {ending[1:].upper()} file"
        )
        do = "fetch or export the file again" if named.name == "pdf" else "open it in its own program and save it again"
        raise UnreadableError(what, where=path, do=do)
    low = head[:1024].lower()
    if head.startswith(b"WEBVTT"):
        return BY_NAME["transcript"]
    if low.startswith((b"<!doctype html", b"<html")) or (low.startswith(b"<?xml") and b"<html" in low):
        return BY_NAME["html"]
    if named is not None:
        return named
    if b"\x00" not in data[:4096] or data.startswith((b"\xff\xfe", b"\xfe\xff")):
        if MAIL_HEAD.match(data[:20_000]) and MAIL_FIELD.search(data[:20_000]):
            return BY_NAME["mail"]
        if CUE.match(head.decode("latin-1")):
            return BY_NAME["transcript"]
        if ending not in BINARY:
            return BY_NAME["text"]
    raise UnreadableError(
        f"{ending or 'a file without an ending'} is not a format that can be read",
        where=path,
        do=f"give {', '.join(READABLE)}",
    )


def _package_kind(data: bytes, named: Format | None) -> str:
    """What a zip file is, by its members."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as package:
            names = set(package.namelist()[:20_000])
            said = (
                package.read("mimetype")[:80]
                if "mimetype" in names and package.getinfo("mimetype").file_size < 200
                else b""
            )
    except (zipfile.BadZipFile, OSError, RuntimeError, NotImplementedError, ValueError, KeyError, IndexError, EOFError):
        return named.name if named is not None else "zip"
    if b"epub" in said or "META-INF/container.xml" in names:
        return "epub"
    if b"opendocument" in said or ("content.xml" in names and "META-INF/manifest.xml" in names):
        return "opendocument"
    for part, kind in (("word/document.xml", "docx"), ("xl/workbook.xml", "xlsx"), ("ppt/presentation.xml", "pptx")):
        if part in names:
            return kind
    if "[Content_Types].xml" in names:
        for folder, kind in (("word/", "docx"), ("xl/", "xlsx"), ("ppt/", "pptx")):
            if any(n.startswith(folder) for n in names):
                return kind
    return named.name if named is not None and named.name in ("docx", "xlsx", "pptx", "opendocument", "epub") else "zip"


def _compound(data: bytes, path: str, ending: str) -> Format:
    if "EncryptedPackage".encode("utf-16-le") in data:
        raise UnreadableError("locked with a password", where=path, do="save a copy without the password and read that")
    if "WordDocument".encode("utf-16-le") in data:
        return BY_NAME["doc"]
    newer = {".xls": ".xlsx", ".ppt": ".pptx", ".msg": ".eml"}.get(ending, "a newer format")
    raise UnreadableError(
        f"an old or closed Office format ({ending or 'no ending'})",
        where=path,
        do=f"save it as {newer} in its own program",
    )
