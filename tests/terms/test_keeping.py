"""What is made of a document before it is asked, kept as bytes: the same again, for the same document only, and never damaged."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from yarnex.core.document import Span
from yarnex.core.document.framing import framed, unframed
from yarnex.core.reading.text import read_text
from yarnex.core.terms.by_words import ideas_of, matcher_of
from yarnex.core.terms.identity import identify
from yarnex.core.terms.keeping import key_of_content, packed, unpacked
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.sheets import load_sheet, parse_sheet, shipped_sheets
from yarnex.core.terms.values_in_lines import line_values_of

PAPER = """# LEASE OF THE DYE SHED

This lease is made on 4 May 2026 between Weir House Limited (the Landlord) and Brackenfold Mills plc (the "Tenant").

1. "Term" means five years from 1 June 2026, and 7.5% of it is free of rent.

2. Deposit: £4,000

Charges:

| Item | Sum | Note |
| --- | --- | --- |
| Service charge | £1,200 | 1 |
| Insurance | £310 | 2 |

Note 1: for the yard only.

3. The tenant's bank: ________
"""
PARTS = ("sentences", "labelled", "definitions", "roles", "gaps", "row_sentences", "headings")


def made_again(text: str) -> tuple[Passages, Passages]:
    first = Passages(read_text(text.encode(), "shed.md", "0" * 64, markdown=True))
    again = read_text(text.encode(), "shed.md", "0" * 64, markdown=True)
    return first, unpacked(again, packed(first))


def all_lines(passages: Passages) -> list[object]:
    return list(matcher_of(passages).lines.lines)


def same(first: Passages, again: Passages) -> None:
    for part in PARTS:
        assert getattr(first, part) == getattr(again, part), part
    one, other = matcher_of(first).lines, matcher_of(again).lines
    assert all_lines(first) == all_lines(again)
    assert [list(line.own) for line in one.lines] == [list(line.own) for line in other.lines]
    assert {w: list(p) for w, p in one.postings.items()} == {w: list(p) for w, p in other.postings.items()}
    assert all(
        one.naming(word) == other.naming(word) and one.rarity(word) == other.rarity(word) for word in one.postings
    )
    for kind in first.finders:
        assert first.values(kind) == [
            f
            for line in again._pieces
            for f in again.values_in(kind, line)  # a paragraph or cell at a time
        ], kind


def test_all_of_it_comes_back():
    first, again = made_again(PAPER)
    same(first, again)
    known, kept = identify(first.document), identify(again.document)
    assert (known.kind, known.title_text, known.why, known.language) == (
        kept.kind,
        kept.title_text,
        kept.why,
        kept.language,
    )
    assert [p.quote for p in known.parties] == [p.quote for p in kept.parties] != []


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.sampled_from(PAPER.split("\n\n")) | st.text("aTé£%14.,:|()\n ", max_size=40), min_size=1, max_size=8)
)
def test_whatever_the_document(parts):
    same(*made_again("\n\n".join(["Terms", *parts])))


def test_it_answers_alike_and_makes_only_the_lines_it_looks_at():
    first, again = made_again(PAPER)
    ideas = ideas_of("deposit")
    answers = [
        [(h.line, h.found, h.score, h.own) for h in matcher_of(p).ranked(ideas, line_values_of(p).finder("money"))]
        for p in (first, again)
    ]
    assert answers[0] == answers[1] != []
    kept = matcher_of(again).lines.lines
    assert 0 < len(kept._lines) < len(kept)
    assert kept[-1] == kept[len(kept) - 1]
    assert kept[1:3] == [kept[1], kept[2]]
    with pytest.raises(IndexError):
        kept[len(kept)]


def test_the_key_is_of_the_content():
    paper = read_text(PAPER.encode(), "shed.md", "0" * 64, markdown=True)
    elsewhere = replace(paper, path="other/place.md")
    changed = read_text(PAPER.replace("five", "six").encode(), "shed.md", "0" * 64, markdown=True)
    parted = replace(paper, blocks=paper.blocks[:-1])
    assert key_of_content(paper) == key_of_content(elsewhere)
    assert len({key_of_content(p) for p in (paper, changed, parted)}) == 3
    assert key_of_content(replace(paper, whole=paper)) == ""  # of a mere part nothing is kept


@pytest.mark.parametrize("damage", [b"", b"YRNXLNS1", b"YRNXLNS1 and more", b"of another kind"])
def test_what_is_damaged_is_told(damage):
    paper = read_text(PAPER.encode(), "shed.md", "0" * 64, markdown=True)
    with pytest.raises(ValueError, match=r"kept|cut short"):
        unpacked(paper, damage)


def test_what_lacks_a_part_is_told():
    first, _ = made_again(PAPER)
    head, text, arrays = unframed(b"YRNXLNS1", packed(first), "iiiiihi")
    del head["roles"]
    with pytest.raises(ValueError, match="damaged"):
        unpacked(first.document, framed(b"YRNXLNS1", head, text, arrays))


@pytest.mark.parametrize("name", shipped_sheets())
def test_a_shipped_sheet_comes_back_as_it_was_parsed(name):
    from yarnex.core.packs import pack_text

    def told(sheet):
        return [
            {
                k: tuple(getattr(v, "text", v) for v in value) if isinstance(value, tuple) else value
                for k, value in ((f, getattr(term, f)) for f in term.__slots__)
            }
            for term in sheet.terms
        ]

    kept, parsed = load_sheet(name), parse_sheet(*pack_text("sheets", name), True)
    assert told(kept) == told(parsed)
    assert (kept.name, kept.label, kept.kinds, kept.include, kept.particulars) == (
        parsed.name,
        parsed.label,
        parsed.kinds,
        parsed.include,
        parsed.particulars,
    )


def test_no_value_is_looked_for_where_none_is_known_to_stand():
    _, again = made_again(PAPER)
    assert again.values_in("money", Span(0, 30)) == []
    assert not again._values
