"""Mails (EML) and mail boxes (MBOX) -> Documents: headers as a table, the words, and what is attached.

Of the parts that say the same thing the plain one is read. Attachments become documents of their own, through the
reader of their format; each knows the mail that it came with.
"""

from __future__ import annotations

import email
import email.policy
import hashlib
import itertools
import re
from collections.abc import Callable
from dataclasses import replace
from email.message import EmailMessage
from email.utils import parsedate_to_datetime
from typing import Any

from yarnex.core.document import Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.inline import Inline
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import TableDraft
from yarnex.core.reading.outcome import Reading

HEADERS = ("From", "To", "Cc", "Date", "Subject")
MAX_ATTACHMENTS = 500
ReadInner = Callable[[bytes, str], list[Reading]]


def read_mail(data: bytes, path: str, sha256: str, inner: ReadInner) -> list[Reading]:
    """The mail and what is attached to it. inner: reads bytes under a path, for attachments."""
    try:
        message = email.message_from_bytes(data, policy=email.policy.default)
    except (ValueError, LookupError, IndexError, RecursionError):
        raise UnreadableError("not a complete mail", where=path, do="export it again") from None
    if not isinstance(message, EmailMessage) or not any(
        h in message for h in ("From", "To", "Subject", "Date", "Received")
    ):
        raise UnreadableError("a mail without headers", where=path, do="export it again")
    return _read(message, path, sha256, inner)


def read_mailbox(data: bytes, path: str, sha256: str, inner: ReadInner) -> list[Reading]:
    """Each mail of a box (RFC 4155), named by its place in it."""
    out: list[Reading] = []
    parts = re.split(rb"(?m)^From [^\r\n]*\r?\n", data)
    for number, part in enumerate((p for p in parts if p.strip()), start=1):
        part = re.sub(rb"(?m)^>(>*From )", rb"\1", part)
        name = f"{path}/{number:04d}.eml"
        try:
            out += [r if r.document is None or r.document.parent else replace(r, document=replace(r.document, parent=path))
                    for r in read_mail(part, name, hashlib.sha256(part).hexdigest(), inner)]  # fmt: skip
        except UnreadableError as error:
            out.append(Reading(name, None, error))
    if not data.lstrip().startswith(b"From ") and not any(r.document for r in out):
        raise UnreadableError("a mail box without mails", where=path, do="export it again")
    return out


def _read(message: EmailMessage, path: str, sha256: str, inner: ReadInner) -> list[Reading]:
    problems: list[Problem] = []
    headers = [(name, _header(message, name)) for name in HEADERS]
    headers = [(n, v) for n, v in headers if v]
    drafts: list[Draft] = []
    if headers:
        cells = []
        for row, (name, value) in enumerate(headers):
            for column, text in enumerate((f"{name}:", value)):
                inline = Inline()
                inline.put(text, column == 0)
                cells.append(inline.cell(row, column))
        drafts.append(Draft("table", table=TableDraft(cells, len(headers), 2, 0, True, 0, 0, 0, 0)))
    drafts += _body(message, path, problems)
    attached, others = _attachments(message, path, problems)
    found: list[Reading] = []
    for name, payload in attached:
        try:
            found += inner(payload, f"{path}/{name}")
        except UnreadableError as error:
            found.append(Reading(f"{path}/{name}", None, error))
    properties = [(name.lower(), value) for name, value in headers if name != "Subject"]
    sent = _sent(message)
    if sent:
        properties.append(("sent", sent))
    document = assemble(
        drafts, path=path, format="eml", sha256=sha256, problems=problems, title=_header(message, "Subject"), properties=properties,
        attachments=[name for name, _ in attached] + others,
    )  # fmt: skip
    children = [
        replace(r, document=replace(r.document, parent=r.document.parent or path)) if r.document is not None else r
        for r in found
    ]
    return [Reading(path, document), *children]


def _header(message: EmailMessage, name: str) -> str:
    try:
        return " ".join(str(message.get(name, "")).split())
    except (ValueError, LookupError, IndexError, AttributeError, TypeError):
        return ""


def _sent(message: EmailMessage) -> str:
    """When it was sent, as ISO 8601 with its own time zone; "" where the header does not parse."""
    try:
        return parsedate_to_datetime(str(message.get("Date", ""))).isoformat()
    except (ValueError, TypeError, IndexError, LookupError, AttributeError, OverflowError):
        return ""


def _content(part: EmailMessage) -> str:
    try:
        return str(part.get_content())
    except (LookupError, ValueError, AttributeError, TypeError):
        payload = part.get_payload(decode=True)
        return payload.decode("utf-8", "replace") if isinstance(payload, bytes) else ""


def _body(message: EmailMessage, path: str, problems: list[Problem]) -> list[Draft]:
    try:
        part = message.get_body(preferencelist=("plain", "html"))
    except (ValueError, LookupError, AttributeError, TypeError, IndexError):
        part = None
    if part is None:
        if not message.is_multipart() and message.get_content_maintype() != "text":
            return []
        problems.append(Problem("a mail without words of its own", serious=False))
        return []
    words = _content(part)  # type: ignore[arg-type]
    if part.get_content_subtype() == "html":
        from yarnex.core.reading.html import PageReader, parse_page, styles_of
        from yarnex.core.reading.structure import structure

        try:
            root = parse_page(words.encode("utf-8", "replace"), path)
        except UnreadableError:
            return []
        reader = PageReader(styles_of(root))
        reader.read(root)
        problems += reader.problems()
        return structure(reader.drafts)
    from yarnex.core.reading.text import line_drafts

    lines = words.replace("\r\n", "\n").replace("\r", "\n").expandtabs(8).split("\n")
    drafts: list[Draft] = []
    before = 0
    for mark, several in itertools.groupby(lines, _times_quoted):  # each mail of a chain is wrapped at its own width
        own = [QUOTED.sub("", line) for line in several]
        drafts += line_drafts(own, page=0, before=before, width=WRAPPED if mark else 0)
        before += len(own)
    return drafts


WRAPPED = 60  # letters of a line at which mails are wrapped at the least
QUOTED = pattern(r"\A(?:\s?>)+ ?")


def _times_quoted(line: str) -> int:
    """How many mails deep a line is quoted, by the marks that quoting put before it."""
    marks = QUOTED.match(line)
    return marks.group().count(">") if marks is not None else 0


def _attachments(
    message: EmailMessage, path: str, problems: list[Problem]
) -> tuple[list[tuple[str, bytes]], list[str]]:
    """Attached files with their names, and names of parts that are not read (pictures set in the text)."""
    out: list[tuple[str, bytes]] = []
    others: list[str] = []
    used: set[str] = set()
    for number, part in enumerate(message.walk()):
        if number == 0 or (part.is_multipart() and part.get_content_type() != "message/rfc822"):
            continue
        disposition = part.get_content_disposition()
        name = _file_name(part, number)
        if part.get_content_type() == "message/rfc822":
            inside = part.get_payload()
            payload = (
                bytes(inside[0]) if isinstance(inside, list) and inside and isinstance(inside[0], EmailMessage) else b""
            )
            name = name if name.endswith(".eml") else f"{name}.eml"
        elif disposition == "attachment" or (part.get_filename() and part.get_content_maintype() != "text"):
            raw = part.get_payload(decode=True)
            payload = raw if isinstance(raw, bytes) else b""
        else:
            continue
        if any(p.get_content_type() == "message/rfc822" for p in _parents(message, part)):
            continue
        if part.get_content_maintype() == "image" and disposition != "attachment":
            others.append(name)
            continue
        while name in used:
            stem, dot, ending = name.rpartition(".")
            name = f"{stem or name} (2){dot}{ending}" if dot else f"{name} (2)"
        used.add(name)
        out.append((name, payload))
        if len(out) >= MAX_ATTACHMENTS:
            problems.append(
                Problem(
                    f"more than {MAX_ATTACHMENTS} attachments; the rest is not read",
                    do="save them and read them as files",
                )
            )
            break
    return out, others


def _parents(root: EmailMessage, wanted: EmailMessage) -> list[EmailMessage]:
    """The parts around a part, from the outside in (the mail itself not counted)."""

    def search(part: Any, above: list[EmailMessage]) -> list[EmailMessage] | None:
        if part is wanted:
            return above
        for child in part.get_payload() if part.is_multipart() else []:
            found = search(child, [*above, part])
            if found is not None:
                return found
        return None

    return [p for p in (search(root, []) or []) if p is not root]


def _file_name(part: EmailMessage, number: int) -> str:
    """The attachment's own name, without folders or signs that could lead elsewhere."""
    try:
        said = part.get_filename() or ""
    except (ValueError, LookupError, AttributeError, TypeError):
        said = ""
    bare = re.sub(r"[\x00-\x1f\x7f]", "", said.replace("\\", "/").rsplit("/", 1)[-1]).strip(". ")
    return bare or f"part {number}"
