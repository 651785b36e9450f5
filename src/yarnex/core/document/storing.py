"""Document -> bytes and back, for handing it between processes and keeping it. Plain data only: nothing is executed.

A JSON head with everything but the text and the arrays, which follow as they are (see `framing`). `from_bytes` raises
ValueError for anything that `to_bytes` did not make.
"""

from __future__ import annotations

from array import array
from typing import Any

from yarnex.core.document.framing import framed, unframed
from yarnex.core.document.model import (
    Block,
    Cell,
    Change,
    Document,
    Fragments,
    Mark,
    Page,
    Problem,
    Section,
    Span,
    Table,
    TaggedFact,
)

MAGIC = b"YRNXDOC1"
ARRAYS = (("starts", "i"), ("ends", "i"), ("pages", "i"), ("boxes", "f"), ("lines", "i"), ("certainty", "B"))


def to_bytes(document: Document) -> bytes:
    """The document as bytes."""
    head: dict[str, Any] = {
        "path": document.path, "format": document.format, "sha256": document.sha256, "body_end": document.body_end,
        "pages": [[p.number, p.label, p.width, p.height, p.state, p.words, p.source, p.turned, p.name, p.hidden] for p in document.pages],
        "blocks": [[b.kind, b.span.start, b.span.end, b.number, b.heading, b.level, b.section, b.table] for b in document.blocks],
        "tables": [
            [t.span.start, t.span.end, t.rows, t.columns, t.header_rows, t.ruled,
             [[c.row, c.column, c.row_span, c.column_span, c.span.start, c.span.end, c.indent, c.shade] for c in t.cells]]
            for t in document.tables
        ],
        "sections": [[s.number, s.heading, s.level, s.span.start, s.span.end, s.parent] for s in document.sections],
        "problems": [[p.what, p.where, p.do, p.serious] for p in document.problems],
        "recorded_title": document.recorded_title, "paging": document.paging, "parent": document.parent,
        "attachments": document.attachments, "properties": document.properties,
        "marks": [[m.span.start, m.span.end, m.kind, m.value] for m in document.marks],
        "changes": [[c.kind, c.text, c.author, c.date, c.at] for c in document.changes],
        "tagged": [
            [t.concept, t.printed, [t.span.start, t.span.end] if t.span else None, t.numeric, t.entity, t.start, t.end, t.dimensions, t.unit,
             t.scale, t.negative, t.format, t.decimals, t.nil, t.hidden, t.identity, t.inside]
            for t in document.tagged
        ],
    }  # fmt: skip
    arrays: list[array[Any]] = []
    for name, code in ARRAYS:
        values: array[Any] = getattr(document.fragments, name)
        arrays.append(values if values.typecode == code else array(code, values))
    return framed(MAGIC, head, document.text, arrays)


def from_bytes(data: bytes) -> Document:
    """The document that `to_bytes` made these bytes of. Raises ValueError for anything else."""
    head, text, arrays = unframed(MAGIC, data, [code for _, code in ARRAYS])
    try:
        fragments = Fragments(**{name: values for (name, _), values in zip(ARRAYS, arrays, strict=True)})
        return _document(head, text, fragments)
    except (KeyError, TypeError, IndexError) as error:
        raise ValueError(f"a kept document is damaged ({type(error).__name__})") from None


def _document(head: dict[str, Any], text: str, fragments: Fragments) -> Document:
    return Document(
        path=head["path"], format=head["format"], sha256=head["sha256"], text=text, body_end=head["body_end"],
        pages=tuple(Page(*p) for p in head["pages"]),
        blocks=tuple(Block(k, Span(a, b), n, h, lv, s, t) for k, a, b, n, h, lv, s, t in head["blocks"]),
        tables=tuple(
            Table(Span(a, b), rows, columns, heads, tuple(Cell(r, c, rs, cs, Span(x, y), i, s) for r, c, rs, cs, x, y, i, s in cells), ruled)
            for a, b, rows, columns, heads, ruled, cells in head["tables"]
        ),
        sections=tuple(Section(n, h, lv, Span(a, b), p) for n, h, lv, a, b, p in head["sections"]), fragments=fragments,
        problems=tuple(Problem(*p) for p in head["problems"]), recorded_title=head["recorded_title"], paging=head["paging"], parent=head["parent"],
        attachments=tuple(head["attachments"]), properties=tuple((n, v) for n, v in head["properties"]),
        marks=tuple(Mark(Span(a, b), k, v) for a, b, k, v in head["marks"]), changes=tuple(Change(*c) for c in head["changes"]),
        tagged=tuple(
            TaggedFact(*[*t[:2], Span(*t[2]) if t[2] else None, *t[3:7], tuple((a, m) for a, m in t[7]), *t[8:]]) for t in head["tagged"]
        ),
    )  # fmt: skip
