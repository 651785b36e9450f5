"""The finder that goes by the headings of clauses."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Cite, Span
from yarnex.core.phrases import says
from yarnex.core.terms.candidates import is_named, on_one_line, shortened, without_number
from yarnex.core.terms.identity import identify
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.wording import is_others_duty
from yarnex.core.values import Text


def from_headed_clauses(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Text terms: clauses whose heading names the term."""
    if not term.headings or term.type != "text":
        return
    document, text = passages.document, passages.text
    title = identify(document).title
    for place, block in enumerate(document.blocks):
        if not block.heading or block.kind == "furniture":
            continue
        if title is not None and title.span.overlaps(block.span):
            continue  # the title names the paper, not a clause of it
        heading = plain_label(block.heading)
        exact = is_named(term.headings, heading)
        if not exact and not (len(heading) < 60 and any(p.match(heading) for p in term.headings)):
            continue
        span = _clause_text(passages, place)
        if span is not None and term.by and is_others_duty(span.of(text), term.by):
            continue
        if span is None or says(term.excludes, span.of(text)[:400]):
            continue
        if term.value_says and not says(term.value_says, span.of(text)):
            continue
        piece = shortened(text, without_number(passages, span))
        cite = Cite(document, piece)
        weight = 0.8 if exact else 0.7
        if re.search(r"special (?:condition|provision)s?", passages.headings_of(block)):
            weight -= 0.08  # it varies the main clause, which says more
        yield Candidate(
            "stated", Text(on_one_line(cite.quote)), cite, cite, weight, "heading", f"the clause is headed {heading!r}"
        )


def _clause_text(passages: Passages, place: int) -> Span | None:
    """The words of a clause: after a run-in heading, or the blocks under a heading up to some 500 characters."""
    document, text = passages.document, passages.text
    block = document.blocks[place]
    if block.kind != "heading":
        words = block.span.of(text)
        at = words.find(block.heading)
        at = at + len(block.heading) if at >= 0 else 0
        at += len(re.match(r"[\s.:–—-]*", words[at:]).group())  # type: ignore[union-attr]
        start = block.span.start + at
        end = block.span.end
    else:
        if place + 1 >= len(document.blocks):
            return None
        start, end = document.blocks[place + 1].span.start, document.blocks[place + 1].span.end
        if document.blocks[place + 1].kind in ("heading", "furniture"):
            return None
    following = place + (2 if block.kind == "heading" else 1)
    level = block.level
    while end - start < 260 and following < len(document.blocks):
        after = document.blocks[following]
        if after.kind in ("heading", "furniture", "table") or after.heading or (0 < after.level <= level):
            break
        end = after.span.end
        following += 1
    return Span(start, end) if end > start else None
