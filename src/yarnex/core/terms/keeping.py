"""What is made of a document before anything is asked of it, as bytes and back, so that a later run need not make it again.

Its sentences, labelled values, definitions, parties' roles and gaps, what kind of paper it is, and its lines with their stems.
Of the document's text only the names of labels, definitions and parties are in it; all else is numbers that point into it.
"""

from __future__ import annotations

import hashlib
from array import array
from collections.abc import Sequence
from itertools import accumulate, chain
from typing import Any, overload

from yarnex.core.document import Cite, Document, Span
from yarnex.core.document.framing import framed, unframed
from yarnex.core.terms.by_words import Matcher, hold_matcher, matcher_of
from yarnex.core.terms.identity import KNOWN, Identity, identify
from yarnex.core.terms.lines import Line, Lines, MadeBefore
from yarnex.core.terms.passages import VALUE_STARTS, Definition, Labelled, Passages, Sentence
from yarnex.core.values import PartyRole

MAGIC = b"YRNXLNS1"
KEPT_VALUES = (
    "date",
    "money",
    "percent",
    "duration",
)  # types whose places are known at once; others take longer to find
KINDS = ("sentence", "cell", "heading", "named")
CODES = "iiiiihi"  # lines, where each begins, their blocks, postings, how many of each word, their shares, counts


def key_of_content(document: Document) -> str:
    """The same for documents of the same text, paragraphs, tables and marks, wherever their files lie; "" for a mere part of a
    document, of which nothing is kept.
    """
    if document.whole is not None:
        return ""
    told = (
        document.sha256, document.format, document.body_end, document.recorded_title, document.properties, document.attachments,
        [(b.kind, b.span.start, b.span.end, b.number, b.heading, b.level, b.section, b.table) for b in document.blocks],
        [(t.rows, t.columns, t.header_rows, [(c.row, c.column, c.span.start) for c in t.cells]) for t in document.tables],
        [(s.number, s.heading, s.parent) for s in document.sections], [(m.kind, m.span.start, m.span.end) for m in document.marks],
    )  # fmt: skip
    digest = hashlib.sha256(document.text.encode("utf-8", "surrogatepass"))
    digest.update(repr(told).encode("utf-8", "surrogatepass"))
    return digest.hexdigest()


def packed(passages: Passages) -> bytes:
    """What was made of a document, its lines among it, as bytes."""
    document, lines = passages.document, matcher_of(passages).lines
    known = identify(document)
    words = list(lines.postings)
    numbers = {word: place for place, word in enumerate(words)}
    labels: dict[str, int] = {}
    shares: dict[float, int] = {}
    told: list[list[int]] = []
    for line in lines.lines:
        record = [*_ends(line.span), *_ends(line.values), KINDS.index(line.kind), line.size]
        record += [labels.setdefault(line.label, len(labels)), len(line.names), len(line.own)]
        record += [_number(word, words, numbers) for word in line.names]
        for word, places in line.own.items():
            record += [numbers[word], len(places), *places]
        for word, share in line.around.items():
            record += [numbers[word], shares.setdefault(share, len(shares))]
        told.append(record)
    head: dict[str, Any] = {
        "words": words, "labels": list(labels), "shares": [*shares, 1.0],
        "sentences": list(chain.from_iterable((*_ends(s.span), s.block) for s in passages.sentences)),
        "labelled": [[r.label, *_ends(r.value), *_ends(r.row), r.source] for r in passages.labelled],
        "definitions": [[d.name, *_ends(d.meaning), *_ends(d.sentence), d.inline] for d in passages.definitions],
        "roles": [[p.name, p.role, *_ends(span), *_ends(said)] for p, span, said in passages.roles],
        "values": {kind: [f.span.start for f in passages.values(kind)] for kind in KEPT_VALUES},
        "currency": passages.usual_currency,
        "gaps": [[*_ends(span), state] for span, state in passages.gaps],
        "identity": [
            known.kind, known.label, _ends_of(known.title), _ends_of(known.dated), known.why, [_ends_of(p) for p in known.parties],
            _ends_of(known.version), known.language,
        ],
    }  # fmt: skip
    postings = list(lines.postings.values())
    numbered = {1.0: -1, **shares}
    arrays = [
        array("i", chain.from_iterable(told)),
        array("i", accumulate((len(record) for record in told), initial=0)),
        array("i", [line.block for line in lines.lines]),
        array("i", chain.from_iterable(postings)),
        array("i", map(len, postings)),
        array("h", (numbered[share] for word in lines.postings for share in lines.naming(word).values())),
        array("i", [lines.counts.get(word, 0) for word in words[: len(postings)]]),
    ]
    return framed(MAGIC, head, "", arrays)


def unpacked(document: Document, data: bytes) -> Passages:
    """The passages of a document with all that `packed` kept of it. Raises ValueError for anything that it did not make."""
    head, _, arrays = unframed(MAGIC, data, CODES)
    passages = Passages(document)
    try:
        spots = iter(head["sentences"])
        text = passages.text
        blocks = document.blocks
        sentences = [
            Sentence(Span(a, b), place, passages.headings_of(blocks[place]), text[a:b].lower())
            for a, b, place in zip(spots, spots, spots, strict=True)
        ]
        passages.__dict__.update(
            sentences=sentences,
            labelled=[Labelled(n, Span(a, b), Span(c, d), source) for n, a, b, c, d, source in head["labelled"]],
            definitions=[Definition(n, Span(a, b), Span(c, d), inline) for n, a, b, c, d, inline in head["definitions"]],
            roles=[(PartyRole(n, role), Span(a, b), Span(c, d)) for n, role, a, b, c, d in head["roles"]],
            usual_currency=head["currency"],
            gaps=[(Span(a, b), state) for a, b, state in head["gaps"]],
            **{VALUE_STARTS: {kind: sorted(head["values"][kind]) for kind in KEPT_VALUES}},
        )  # fmt: skip
        kind, label, title, dated, why, parties, version, language = head["identity"]
        known = Identity(
            kind, label, _cite(document, title), _cite(document, dated), tuple(why),
            tuple(Cite(document, Span(*p)) for p in parties), _cite(document, version), language,
        )  # fmt: skip
        document.__dict__[KNOWN] = known
        hold_matcher(passages, Matcher(Lines(passages, _Kept(head, arrays))))
    except (KeyError, TypeError, IndexError) as error:
        raise ValueError(f"what was kept is damaged ({type(error).__name__})") from None
    return passages


class _Kept(MadeBefore):
    """Lines as numbers, each made into a line when first looked at."""

    def __init__(self, head: dict[str, Any], arrays: Sequence[array[int]]) -> None:
        self._words: list[str] = head["words"]
        self._labels: list[str] = head["labels"]
        self._shares: list[float] = head["shares"]
        self._told, self._starts, self.blocks, postings, lengths, self._counted, counts = arrays
        self._places: dict[str, tuple[int, int]] = {}
        ends = accumulate(lengths, initial=0)
        self.postings = {}
        start = next(ends)
        for word, end in zip(self._words, ends, strict=False):
            self.postings[word] = postings[start:end]
            self._places[word] = (start, end)
            start = end
        self.counts = dict(zip(self._words, counts, strict=False))
        self._lines: dict[int, Line] = {}

    def shares_of(self, word: str) -> Sequence[float]:
        """How much each of a stem's postings counts: 1 for a line that holds it."""
        start, end = self._places.get(word, (0, 0))
        return [self._shares[place] for place in self._counted[start:end]]

    def __len__(self) -> int:
        return len(self._starts) - 1

    @overload
    def __getitem__(self, place: int) -> Line: ...
    @overload
    def __getitem__(self, place: slice) -> Sequence[Line]: ...
    def __getitem__(self, place: int | slice) -> Line | Sequence[Line]:
        if isinstance(place, slice):
            return [self[i] for i in range(*place.indices(len(self)))]
        place = range(len(self))[place]
        line = self._lines.get(place)
        if line is None:
            line = self._lines[place] = self._line(place)
        return line

    def _line(self, place: int) -> Line:
        words, shares = self._words, self._shares
        told = self._told[self._starts[place] : self._starts[place + 1]].tolist()
        start, end, first, last, kind, size, label, names, owned = told[:9]
        at = 9 + names
        own: dict[str, list[int]] = {}
        for _ in range(owned):
            count = told[at + 1]
            own[words[told[at]]] = told[at + 2 : at + 2 + count]
            at += 2 + count
        around = {words[w]: shares[s] for w, s in zip(told[at::2], told[at + 1 :: 2], strict=True)}
        return Line(
            Span(start, end), Span(first, last), KINDS[kind], self.blocks[place], own, around, size, self._labels[label],
            tuple(words[w] for w in told[9 : 9 + names]),
        )  # fmt: skip


def _number(word: str, words: list[str], numbers: dict[str, int]) -> int:
    """The number of a word, a new one for a name's word that stands in no line."""
    if word not in numbers:
        numbers[word] = len(words)
        words.append(word)
    return numbers[word]


def _ends(span: Span) -> tuple[int, int]:
    return span.start, span.end


def _ends_of(cite: Cite | None) -> tuple[int, int] | None:
    return _ends(cite.span) if cite is not None else None


def _cite(document: Document, ends: Sequence[int] | None) -> Cite | None:
    return Cite(document, Span(*ends)) if ends is not None else None
