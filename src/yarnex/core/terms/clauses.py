"""The finder that goes by the headings of clauses."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Cite, Span
from yarnex.core.document.table_paths import name_of_row
from yarnex.core.patterns import pattern
from yarnex.core.phrases import says
from yarnex.core.terms.candidates import (
    TYPED,
    candidate,
    fits,
    is_between_days,
    is_named,
    on_one_line,
    quote_around,
    shortened,
    without_number,
)
from yarnex.core.terms.identity import identify
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.wording import is_others_duty
from yarnex.core.values import ListOf, Text, same_value
from yarnex.core.words import stems_of

ONLY_ONE = 0.76  # weight of a value that is the only one of its type in a clause with a term's name


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
        if (rows := _rows_of_table_at(passages, span)) is not None:
            inside = Cite(document, Span(span.start, min(span.end, span.start + 480)))
            why = f"the rows of the table under the heading {heading!r}"
            yield Candidate("stated", rows, inside, inside, 0.78 if exact else 0.68, "heading", why)
            continue
        if _is_grid(passages, span):
            continue  # readings by the hour, and the like, tell nothing as running words
        piece = shortened(text, without_number(passages, span))
        cite = Cite(document, piece)
        if _only_named(piece.of(text), block.heading):
            continue
        weight = 0.8 if exact else 0.7
        if re.search(r"special (?:condition|provision)s?", passages.headings_of(block)):
            weight -= 0.08  # it varies the main clause, which says more
        yield Candidate(
            "stated", Text(on_one_line(cite.quote)), cite, cite, weight, "heading", f"the clause is headed {heading!r}"
        )


def from_headed_values(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Typed terms: the one value of their type in a clause headed with one of their names, "7. Bonus. At the Board's discretion,
    up to 40 per cent of salary."
    """
    if not term.names or term.type not in TYPED:
        return
    document = passages.document
    for place, block in enumerate(document.blocks):
        if not block.heading or block.kind == "furniture" or not is_named(term.names, plain_label(block.heading)):
            continue
        span = _clause_text(passages, place)
        if span is None or (term.by and is_others_duty(span.of(passages.text), term.by)):
            continue
        found = [
            f
            for f in passages.values_in(term.type, span)
            if fits(term, f.value) and not is_between_days(passages, f.value, f.span)
        ]
        if not found or any(not same_value(f.value, found[0].value) for f in found):
            continue
        quote = quote_around(passages, found[0].span)
        if says(term.excludes, quote.quote) or (term.requires and not says(term.requires, span.of(passages.text))):
            continue
        why = f"the only such value in the clause headed {block.heading!r}"
        yield candidate(passages, term, found[0], ONLY_ONE, "heading", why)


def _rows_of_table_at(passages: Passages, span: Span) -> ListOf | None:
    """The names of a table's rows, where a clause is a table of several columns."""
    block = passages.document.block_at(span.start)
    if block is None or block.kind != "table":
        return None
    table = passages.document.tables[block.table]
    names = [name_of_row(table, r, passages.text) for r in range(table.header_rows, table.rows)]
    named = tuple(dict.fromkeys(n for n in names if re.search(r"[A-Za-z]{3}", n)))
    return ListOf(named[:MOST_ITEMS]) if table.columns > 2 and table.header_rows and len(named) > 1 else None


def _is_grid(passages: Passages, span: Span) -> bool:
    """True for a table of three or more columns."""
    block = passages.document.block_at(span.start)
    return block is not None and block.kind == "table" and passages.document.tables[block.table].columns > 2


def _only_named(words: str, heading: str) -> bool:
    """True where a clause's words are but its heading again, as in a list of clauses."""
    return set(stems_of(words)) <= set(stems_of(heading))


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


MOST_ITEMS = 80
ITEM_LENGTH = 220  # characters of an item that is shown


ANNEXED = pattern(r"(?:[\w-]+\s)?(?:annex|appendix|schedule|exhibit|attachment)\b", re.IGNORECASE)
ITEM_WORDS = (
    12  # of a sentence that is an entry of a list set in a paragraph: "Borough of Thrapsley (2022): two looms."
)


def from_headed_lists(term: Term, passages: Passages) -> Iterator[Candidate]:
    """List terms: every item under a heading that names the term: list items, sub-headings, or rows of a table."""
    if not term.headings or term.type != "list" or term.items != "text":
        return
    document, text = passages.document, passages.text
    for place, block in enumerate(document.blocks):
        heading = plain_label(block.heading) if block.heading else ""
        if not heading or block.kind == "furniture" or not is_named(term.headings, heading):
            continue
        items, end = _items_under(passages, place)
        if len(items) < 2:
            continue
        spans = [without_number(passages, s) for s in items[:MOST_ITEMS]]
        words = tuple(on_one_line(Span(s.start, min(s.end, s.start + ITEM_LENGTH)).of(text)).rstrip(".") for s in spans)
        quote = Cite(document, Span(spans[0].start, min(end, spans[0].start + 480)))
        inside = Cite(document, Span(spans[0].start, spans[-1].end))
        why = f"{len(items)} items under the heading {heading!r}"
        yield Candidate("stated", ListOf(words), inside, quote, 0.84, "heading", why)


NUMBERED_SENTENCE = pattern(r"\(?(?:[A-Z]\d{1,2}|\d{1,2}\.\d{1,2}|[a-z](?=\)))[.)]?\s")


def _numbered_in_a_row(text: str, said: list[Span]) -> list[Span]:
    """Sentences that open with a number of their own ("B1 Injury. B2 War."), each with those behind it that have none."""
    if not said or NUMBERED_SENTENCE.match(text, said[0].start) is None:
        return []
    out: list[Span] = []
    for span in said:
        if NUMBERED_SENTENCE.match(text, span.start) is not None:
            out.append(span)
        else:
            out[-1] = Span(out[-1].start, span.end)
    return out


def _items_under(passages: Passages, place: int) -> tuple[list[Span], int]:
    """The items of the section that a heading opens, and where it ends."""
    document, text = passages.document, passages.text
    level = document.blocks[place].level
    items: list[Span] = []
    headed: list[tuple[int, Span]] = []
    rows: list[Span] = []
    said: list[Span] = []  # sentences that stand right under the heading
    end = document.blocks[place].span.end
    for block in document.blocks[place + 1 :]:
        if block.kind == "furniture":
            continue
        if block.kind == "heading" and (block.level <= level or ANNEXED.match(block.span.of(text))):
            break
        end = block.span.end
        if block.kind == "heading":
            headed.append((block.level, block.span))
        elif block.kind == "table":
            table = document.tables[block.table]
            for row in range(table.header_rows, table.rows):
                cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
                if cells and re.search(r"[A-Za-z]{3}", cells[0].span.of(text)):
                    rows.append(cells[0].span)
                elif len(cells) > 1:
                    rows.append(cells[1].span)
        elif block.kind == "item" or block.number:
            items.append(block.span)
        elif not headed:
            said += [s.span for s in passages.sentences if block.span.holds(s.span)]
    top = min((depth for depth, _ in headed), default=0)
    in_a_row = said if all(len(s.of(text).split()) <= ITEM_WORDS for s in said) else _numbered_in_a_row(text, said)
    return (items or rows or [s for depth, s in headed if depth == top] or in_a_row), end
