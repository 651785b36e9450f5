"""Drafts of a format without geometry -> Document: the last step that all such readers share."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from yarnex.core.document import Change, Document, Page, Problem, TaggedFact
from yarnex.core.reading.layout.linear import Linear, lay_out
from yarnex.core.reading.layout.paragraphs import Draft


def assemble(
    drafts: Sequence[Draft], *, path: str, format: str, sha256: str, furniture: Sequence[Draft] = (), pages: int = 0,
    page_names: Sequence[str] = (), hidden_pages: frozenset[int] = frozenset(), paging: str = "", problems: Sequence[Problem] = (), title: str = "",
    properties: Sequence[tuple[str, str]] = (), attachments: Sequence[str] = (), changes: Sequence[Change] = (),
    linear: Linear | None = None,
) -> Document:  # fmt: skip
    """The document made of drafts in reading order; `pages` counts slides, sheets or recorded pages, 0 for none."""
    linear = linear or Linear(geometry=False)
    body_end = lay_out(list(drafts), list(furniture), linear)
    words_on = Counter(linear.pages)
    page_list = tuple(
        Page(
            n, "", 0, 0, "text" if words_on[n] else "blank", words_on[n], "printed" if words_on[n] else "",
            name=page_names[n - 1] if n <= len(page_names) else "", hidden=n in hidden_pages,
        )
        for n in range(1, pages + 1)
    )  # fmt: skip
    found = list(problems)
    if not linear.starts and not any(p.serious for p in found):
        found.append(Problem("no text in it"))
    return Document(
        path, format, sha256, "".join(linear.parts), body_end, page_list, tuple(linear.blocks), tuple(linear.tables),
        tuple(linear.sections), linear.fragments(), tuple(found), title, paging, attachments=tuple(attachments),
        properties=tuple(properties), marks=tuple(sorted(linear.marks, key=lambda m: (m.span, m.kind, m.value))), changes=tuple(changes),
    )  # fmt: skip


def with_tagged(document: Document, tagged: Sequence[TaggedFact]) -> Document:
    """The same document with its tagged facts."""
    return replace(document, tagged=tuple(tagged))
