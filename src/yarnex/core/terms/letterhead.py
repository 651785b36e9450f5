"""Who sends a paper: the organisation of its letterhead, its header or footer, or the address at its top."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Block, Cite, Document, Span
from yarnex.core.values.parties import find_organisations

HEAD_BLOCKS = 6  # blocks from the top among which a letterhead stands
TO = re.compile(
    r"(?:\A|[\n\t.;]\s*)(?:to|for|attention|attn\.?|fao|bill(?:ed)? to|prepared for|submitted to|client|customer|buyer)\b\W*\Z",
    re.IGNORECASE,
)
# "Weir & Sons, Mill Lane 7, Thrapsley": a name, then a street with its number
ADDRESSED = re.compile(
    r"(?P<name>[A-Z][\w&.'’-]*(?:[ \u00a0](?:[A-Z][\w&.'’-]*|&|and|of|de|und|et|y|och|og)){1,6}),\s+(?=(?:[\w.'’-]+\s){0,3}\d{1,4}[a-zA-Z]?\b,|\d{1,4}[a-zA-Z]?\s+[A-Z])"
)
PARTED = re.compile(r"\s+[–—|·•-]\s+|\s{2,}|\t")
LOUD_NAME = re.compile(r"[A-Z][\w.'’-]*(?:\s(?:[A-Z][\w.'’-]*|&|AND|and|of|OF))*\s(?:&|AND|and)\s[\w.'’ -]+")


def issuer_of(document: Document) -> Cite | None:
    """The name of the organisation that sends the paper, as printed; None where its top, header and footer name none.

    Names that follow "to" or "for" are those of the reader, not of the sender.
    """
    return next(_names(document), None)


def _names(document: Document) -> Iterator[Cite]:
    body = [b for b in document.blocks if b.kind not in ("furniture", "note", "table")][:HEAD_BLOCKS]
    furniture = [b for b in document.blocks if b.kind == "furniture"][:4]
    for block in (*body[:2], *furniture, *body[2:]):
        words = block.span.of(document.text)
        for found in find_organisations(words):
            if len(found.value.name.split()) > 1 and not TO.search(words[: found.span.start]):
                yield _cite(document, block, found.span)
        if (m := ADDRESSED.match(words)) and block.kind != "furniture":
            yield _cite(document, block, Span(*m.span("name")))
        if block.kind == "furniture":
            first = PARTED.split(words.strip())[0]
            if _is_name(first):
                start = words.index(first)
                yield _cite(document, block, Span(start, start + len(first)))
        elif block in body[:2] and (m := LOUD_NAME.fullmatch(words.strip())) and len(words.split()) <= 7:
            yield _cite(document, block, Span(words.index(m.group()), words.index(m.group()) + len(m.group())))


def _is_name(words: str) -> bool:
    """Two to six words of which all but the linking ones begin with capitals, with a sign that joins names."""
    parts = words.split()
    return 2 <= len(parts) <= 6 and "&" in parts and all(p[:1].isupper() or p in ("&", "and", "of") for p in parts)


def _cite(document: Document, block: Block, inside: Span) -> Cite:
    return Cite(document, Span(block.span.start + inside.start, block.span.start + inside.end))
