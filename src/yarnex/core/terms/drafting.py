"""A first sheet for papers that have none: what several of them state under labels, definitions and headings.

In: documents of one kind. Out: proposed terms, in reading order, with the share of the documents that have each; and
the YAML of a sheet, ready to edit.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from yarnex.core.document import Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.lines import Line
from yarnex.core.terms.particulars import LINE_LABELS, SIGNING
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.sheets import label_phrase
from yarnex.core.terms.typed_places import typed_value
from yarnex.core.terms.values_in_lines import line_values_of
from yarnex.core.words import stems_of

Stems = frozenset[str]
ALIKE = 0.5  # share of the words of two labels that both have
MOST_TERMS = 60
SHORT_VALUE = 200  # characters of what stands opposite a label
HEADING_WORDS = 7
NO_TERM = pattern(
    r"(?:schedule|annex|appendix|exhibit|part|page|contents|table of contents|section|article|definitions?|interpretation|parties|background|recitals?)\b",
    re.IGNORECASE,
)


@dataclass(slots=True)
class Proposed:
    """A term that documents share. source: "label", "definition", "column" or "heading"."""

    label: str
    source: str
    place: float  # where it stands, as a share of its document
    types: Counter[str] = field(default_factory=Counter)
    variants: Counter[str] = field(default_factory=Counter)
    documents: set[str] = field(default_factory=set)
    example: str = ""


def propose(documents: Sequence[Document], share: float = 0.5) -> list[Proposed]:
    """Terms that at least `share` of the documents state; with one or two documents, all that any states."""
    found: dict[Stems, Proposed] = {}
    for document in documents:
        passages = Passages(document)
        for label, source, value in _stated(passages):
            kind = _type_of(value, source, passages)
            key = _alike(label, kind, source, found)
            item = found.setdefault(key, Proposed(label, source, value.start / max(1, len(document.text))))
            item.documents.add(document.path)
            item.variants[label] += 1
            item.types[kind] += 1
            item.example = item.example or " ".join(value.of(document.text).split())[:80]
    needed = max(1, round(share * len(documents))) if len(documents) > 2 else 1
    kept = [p for p in found.values() if len(p.documents) >= needed]
    kept.sort(
        key=lambda p: (-len(p.documents), {"label": 0, "definition": 1, "column": 1, "heading": 2}[p.source], p.place)
    )
    return sorted(kept[:MOST_TERMS], key=lambda p: (p.source == "heading", round(p.place, 2), p.label))


def _alike(label: str, kind: str, source: str, found: dict[Stems, Proposed]) -> Stems:
    """The key of a label met before that says the same in nearly the same words, for a value of the same type."""
    stems = frozenset(stems_of(label)) or frozenset((label.lower(),))
    if stems in found:
        return stems
    best, most = stems, ALIKE
    for key, item in found.items():
        share = len(stems & key) / len(stems | key)
        if share >= most and item.types[kind] and (item.source == "heading") == (source == "heading"):
            best, most = key, share
    return best


def _stated(passages: Passages) -> Iterator[tuple[str, str, Span]]:
    """Labels, definitions with a value, and headings of clauses, each with what they stand over."""
    for row in passages.labelled:
        short = row.value.end - row.value.start <= SHORT_VALUE
        if row.source != "heading" and short and len(row.label.split()) <= LINE_LABELS + 2 and _is_label(row.label):
            yield row.label, "label", row.value
    for definition in passages.definitions:
        if not definition.inline and _type_of(definition.meaning, "definition", passages) != "text":
            yield definition.name, "definition", definition.meaning
    blocks = passages.document.blocks
    for place, block in enumerate(blocks):
        heading = plain_label(block.heading) if block.heading else ""
        if heading and len(heading.split()) <= HEADING_WORDS and _is_label(heading) and not NO_TERM.match(heading):
            under = (
                block.span
                if block.kind != "heading"
                else (blocks[place + 1].span if place + 1 < len(blocks) else block.span)
            )
            if under.end - under.start > len(heading) + 10:
                yield heading.capitalize() if heading.isupper() else heading, "heading", under


def _is_label(words: str) -> bool:
    return bool(re.search(r"[A-Za-z]{3}", words)) and not SIGNING.match(words) and not re.search(r"\d{4}", words)


def _type_of(value: Span, source: str, passages: Passages) -> str:
    if source == "heading":
        return "text"
    words = value.of(passages.text).strip()
    if re.fullmatch(r"(?:yes|no)\W*", words, re.IGNORECASE):
        return "yes_no"
    if source == "definition":
        line = Line(value, value, "sentence", passages.document.block_index_at(value.start))
        for kind in ("money", "date", "duration", "percent"):
            finder = line_values_of(passages).finder(kind)
            if finder is not None and any(f.span.start - value.start < 30 for f in finder(line)):
                return kind
        return "text"
    return typed_value(value, line_values_of(passages), passages)[0]


def to_yaml(proposed: Sequence[Proposed], name: str, count: int) -> str:
    """The sheet as YAML, with remarks for the one who edits it."""
    lines = [
        f"# A first draft of a sheet, from {count} document{'s' * (count != 1)}. Take out what you do not need, give each term the name that",
        "# you use as its label, and set required: true where a document without it must be noticed.",
        "# names: what documents call it. hint: in plain words, where it stands. format, allowed, several: see the manual.",
        f"sheet: {_quoted(name)}", f"label: {_quoted(name.replace('_', ' ').capitalize())}", "terms:",
    ]  # fmt: skip
    for item in proposed:
        kind = item.types.most_common(1)[0][0]
        names = [v for v, _ in item.variants.most_common(4)]
        key = "headings" if item.source == "heading" else "names"
        lines += [
            f"  # in {len(item.documents)} of {count}; for example: {item.example}",
            f"  - label: {_quoted(item.label)}",
            f"    type: {_quoted(kind)}",
            f"    {key}: [{', '.join(_quoted(label_phrase(n)) for n in names)}]",
        ]
    return "\n".join(lines) + "\n"


def _quoted(text: str) -> str:
    return '"' + text.replace("\\", "\\\\").replace('"', '\\"') + '"'
