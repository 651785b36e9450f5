"""Documents -> which of them, and which of their pages, say the same: copies under other names, near copies, repeats."""

from __future__ import annotations

import zlib
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

from yarnex.core.document import Document, Span
from yarnex.core.patterns import pattern

RUN = 5  # words in a row that are compared
LEAST = 20  # words: shorter pages and documents are alike by chance
NEAR = 0.5  # share of words in common from which two documents are near copies
SKETCH = 1_000  # runs kept of a document: those with the smallest hashes (Broder's bottom-k sketch)
WORD = pattern(r"\w+")


@dataclass(frozen=True, slots=True)
class Copy:
    """kind: "same file", "same text", "near copy" or "repeated page". share: in per cent, of words in common.

    first_page, page: the pages that say the same, 0 where whole documents do.
    """

    kind: str
    first: Document
    second: Document
    share: int
    first_page: int = 0
    page: int = 0

    def __str__(self) -> str:
        if self.kind == "repeated page":
            where = f"page {self.first_page}" + ("" if self.first is self.second else f" of {self.first.path}")
            return f"{self.second.path}: page {self.page} repeats {where}"
        if self.kind == "near copy":
            return f"{self.second.path}: shares about {self.share} % of its words with {self.first.path}"
        return f"{self.second.path}: the {self.kind} as {self.first.path}"


def copies_among(documents: Sequence[Document]) -> tuple[Copy, ...]:
    """Copies, near copies and repeated pages, in the order of the documents."""
    out: list[Copy] = []
    texts = [WORD.findall(d.text[: d.body_end].lower()) for d in documents]
    by_file: dict[str, int] = {}
    by_text: dict[str, int] = {}
    copied: set[int] = set()
    for i, document in enumerate(documents):
        text = " ".join(texts[i])
        for kind, known, key in (("same file", by_file, document.sha256), ("same text", by_text, text)):
            if kind == "same text" and len(texts[i]) < LEAST:
                continue
            if key in known and i not in copied:
                out.append(Copy(kind, documents[known[key]], document, 100))
                copied.add(i)
            known.setdefault(key, i)
    sketches = [
        _sketch(words) if len(words) >= LEAST and i not in copied else frozenset() for i, words in enumerate(texts)
    ]
    holders: dict[int, list[int]] = defaultdict(list)
    for i, sketch in enumerate(sketches):
        for run in sketch:
            holders[run].append(i)
    shared: dict[tuple[int, int], int] = defaultdict(int)
    for places in holders.values():
        if len(places) <= 20:  # a run that stands in more documents is a form's own words
            for x, a in enumerate(places):
                for b in places[x + 1 :]:
                    shared[a, b] += 1
    for (a, b), count in sorted(shared.items()):
        if count < NEAR / 2 * min(len(sketches[a]), len(sketches[b])) * (
            min(len(sketches[a]), len(sketches[b])) / max(len(sketches[a]), len(sketches[b]))
        ):
            continue  # too few for a near copy, however the sketches fall
        both = sorted(sketches[a] | sketches[b])[:SKETCH]
        alike = sum(run in sketches[a] and run in sketches[b] for run in both) / max(1, len(both))
        overlap = 2 * alike / (1 + alike)  # from the share of the union to the share of one document
        if overlap >= NEAR:
            out.append(Copy("near copy", documents[a], documents[b], min(99, round(100 * overlap))))
    return tuple(out + _repeated_pages(documents, copied))


def _sketch(words: list[str]) -> frozenset[int]:
    runs = {zlib.crc32(" ".join(words[i : i + RUN]).encode("utf-8", "replace")) for i in range(len(words) - RUN + 1)}
    return frozenset(sorted(runs)[:SKETCH])


def _repeated_pages(documents: Sequence[Document], copied: set[int]) -> list[Copy]:
    first: dict[tuple[str, ...], tuple[Document, int]] = {}
    out: list[Copy] = []
    for i, document in enumerate(documents):
        if i in copied or document.paging != "page" or not document.pages:
            continue
        words: dict[int, list[str]] = defaultdict(list)
        fragments = document.fragments
        for start, end, page in zip(fragments.starts, fragments.ends, fragments.pages, strict=True):
            if start < document.body_end:
                words[page] += WORD.findall(Span(start, end).of(document.text).lower())
        for page in sorted(words):
            key = tuple(words[page])
            if page and len(key) >= LEAST:
                if key in first:
                    out.append(Copy("repeated page", *first[key][:1], document, 100, first[key][1], page))
                else:
                    first[key] = document, page
    return out
