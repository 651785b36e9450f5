"""Results -> JSON, one object a run, with numbers that hold the exact decimal."""

from __future__ import annotations

import json
from collections.abc import Sequence
from decimal import Decimal
from typing import TYPE_CHECKING, Any

from yarnex._version import __version__
from yarnex.core.document import Cite
from yarnex.core.terms.identity import document_date, identify
from yarnex.output.wording import to_check

if TYPE_CHECKING:
    from yarnex.core.briefing import Briefing
    from yarnex.core.comparing import Comparison
    from yarnex.core.comparing.copies import Copy
    from yarnex.core.document import Document
    from yarnex.core.errors import UnreadableError
    from yarnex.core.flags import Flag
    from yarnex.core.search import Asked, Roster
    from yarnex.core.terms import Abstract
    from yarnex.core.terms.screening import Screened


def dumps(value: Any) -> str:
    """JSON with decimals written to the digit, which the standard encoder would turn into floats."""
    return _encode(value, 0) + "\n"


def _encode(value: Any, depth: int) -> str:
    pad, end = " " * (depth + 1), " " * depth
    if isinstance(value, Decimal):
        return f"{value:f}"
    if isinstance(value, dict):
        if not value:
            return "{}"
        return (
            "{\n"
            + ",\n".join(f"{pad}{json.dumps(str(k))}: {_encode(v, depth + 1)}" for k, v in value.items())
            + f"\n{end}}}"
        )
    if isinstance(value, list | tuple):
        if not value:
            return "[]"
        return "[\n" + ",\n".join(pad + _encode(v, depth + 1) for v in value) + f"\n{end}]"
    return json.dumps(value, ensure_ascii=False)


def document_entry(document: Document) -> dict[str, Any]:
    identity = identify(document)
    pages = [
        {
            "number": p.number, "label": p.label, "state": p.state, "source": p.source, "words": p.words, "turned": p.turned,
            "name": p.name, "hidden": p.hidden,
        }
        for p in document.pages
    ]  # fmt: skip
    return {
        "path": document.path, "format": document.format, "sha256": document.sha256, "kind": identity.kind, "title": identity.title_text,
        "date": document_date(document) or None, "evidence": list(identity.why), "parties": [p.quote for p in identity.parties],
        "version": identity.version.quote if identity.version else "", "language": identity.language,
        "recorded": {"title": document.recorded_title, **dict(document.properties)}, "parent": document.parent,
        "attachments": list(document.attachments), "paging": document.paging, "pages": len(document.pages) or None,
        "pages_read": document.pages_read if document.pages else None, "words": document.words,
        "page_labels": [p.label for p in document.pages], "page_states": [p.state for p in document.pages], "page_list": pages,
        "problems": [{"what": p.what, "where": p.where, "do": p.do, "serious": p.serious} for p in document.problems],
        "changes": [{"type": c.kind, "text": c.text, "author": c.author, "date": c.date, "at": c.at} for c in document.changes],
        "comments": [
            {"text": m.value, "cite": Cite(document, m.span).to_dict()} for m in document.marks if m.kind == "comment"
        ],
    }  # fmt: skip


def run(command: str, documents: Sequence[Document], unread: Sequence[UnreadableError], **parts: Any) -> dict[str, Any]:
    """The object of one run: version, command, documents, what could not be read, and the command's own parts."""
    return {
        "yarnex": __version__, "command": command, "documents": [document_entry(d) for d in documents],
        "unread": [{"path": e.where, "what": e.what, "do": e.do} for e in unread], **parts,
    }  # fmt: skip


def copies(found: Sequence[Copy]) -> list[dict[str, Any]]:
    return [
        {"kind": c.kind, "document": c.second.path, "of": c.first.path, "share": c.share, "page": c.page or None, "of_page": c.first_page or None}
        for c in found
    ]  # fmt: skip


def findings(abstracts: Sequence[Abstract]) -> list[dict[str, Any]]:
    return [f.to_dict() | {"check": to_check(f)} for a in abstracts for f in a.findings]


def answers(results: Sequence[Asked]) -> list[dict[str, Any]]:
    return [
        {
            "id": r.question.id,
            "question": r.question.text,
            "findings": [f.to_dict() for found in r.findings for f in found],
        }
        for r in results
    ]


def rosters(lists: Sequence[Roster], of: str, expected: int | None) -> dict[str, Any]:
    items = [
        {
            "document": r.document.path,
            "text": i.text,
            "number": i.number or None,
            "detail": i.detail or None,
            "cites": [c.to_dict() for c in i.cites],
        }
        for r in lists
        for i in r.items
    ]
    return {
        "of": of, "items": items, "count": len(items), "expected": expected, "gaps": [g for r in lists for g in r.gaps],
        "duplicates": [d for r in lists for d in r.duplicates],
    }  # fmt: skip


def screened(result: Sequence[Screened]) -> list[dict[str, Any]]:
    return [
        {
            "document": s.abstract.document.path, "stays": s.stays,
            "lacks": [{"term": x.term.id, "label": x.term.label, "why": x.why, "cites": [c.to_dict() for c in x.cites]} for x in s.lacks],
        }
        for s in result
    ]  # fmt: skip


def relations(abstracts: Sequence[Abstract]) -> list[dict[str, Any]]:
    later = {path: day for a in abstracts for path, day in a.not_yet}
    return [
        {"document": a.document.path, "amends": a.amends}
        | ({"not_in_force_before": later[a.document.path].isoformat()} if a.document.path in later else {})
        for a in abstracts
        if a.amends
    ]


def comparison(result: Comparison) -> dict[str, Any]:
    rows = [
        {
            "term": r.term.id, "label": r.term.label, "group": r.term.group, "status": r.status, "missing": list(r.missing),
            "cells": [c.to_dict() | {"note": n} for c, n in zip(r.cells, r.notes, strict=True)],
        }
        for r in result.rows
    ]  # fmt: skip
    return {
        "columns": [d.path for d in result.documents],
        "amendments": [{"document": d.path, "amends": b} for d, b in result.amendments],
        "rows": rows,
    }


def flags(result: Sequence[Flag]) -> list[dict[str, Any]]:
    return [f.to_dict() for f in result]


def briefing(result: Briefing) -> dict[str, Any]:
    dates = [
        {
            "document": k.finding.document.path, "date": k.day.isoformat(), "what": k.what, "term": k.finding.term.id, "state": k.finding.state,
            "past": k.past, "cites": [c.to_dict() for c in k.finding.cites], "working": list(k.finding.working),
        }
        for k in result.dates
    ]  # fmt: skip
    questions = [
        {
            "document": q.document,
            "kind": q.kind,
            "what": q.what,
            "detail": q.detail,
            "cites": [c.to_dict() for c in q.cites],
        }
        for q in result.questions
    ]
    return {
        "title": result.title, "as_of": result.as_of.isoformat(), "summary": list(result.summary), "comparison": comparison(result.comparison),
        "flags": flags(result.flags), "dates": dates, "questions": questions,
    }  # fmt: skip
