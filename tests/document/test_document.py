from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.document import Cite, Span
from yarnex.core.document.passage import find_passage
from yarnex.core.document.sentences import sentences

LEASE = """LEASE
=====

1.  RENT.  The yearly rent is £10,000. It is payable in advance.

2.  USE.  As a mill only.

    (a)  not on Sundays.
"""


def test_a_cite_takes_its_quote_from_the_document(document):
    lease = document(LEASE)
    at = lease.text.index("£10,000")
    cite = Cite(lease, Span(at, at + 7))
    assert cite.quote == "£10,000"
    assert cite.section == "1 RENT"
    assert cite.place == "line 4, 1 RENT"
    assert cite.target == "paper.txt#line=3,4"
    entry = cite.to_dict()
    assert lease.text[entry["start"] : entry["end"]] == entry["quote"]


@pytest.mark.parametrize("span", [Span(5, 5), Span(-1, 3), Span(3, 10_000), Span(9, 2)])
def test_a_cite_outside_the_document_cannot_be_built(document, span):
    with pytest.raises(ValueError, match="is no passage of"):
        Cite(document(LEASE), span)


def test_items_are_cited_below_their_clause(document):
    lease = document(LEASE)
    at = lease.text.index("not on Sundays")
    assert Cite(lease, Span(at, at + 3)).section == "2 USE, 2(a)"


def test_links_are_percent_encoded(document):
    lease = document(LEASE, "Lease & more #2.txt")
    assert Cite(lease, Span(0, 5)).target.startswith("Lease%20%26%20more%20%232.txt#line=")


def test_spans():
    assert Span(0, 10).holds(Span(2, 10))
    assert not Span(0, 10).holds(Span(2, 11))
    assert Span(0, 3).overlaps(Span(2, 5))
    assert not Span(0, 3).overlaps(Span(3, 5))


@pytest.mark.parametrize(
    ("wanted", "found"),
    [
        ({"section": "2"}, "2. USE. As a mill only.\n(a) not on Sundays."),
        ({"section": "use"}, "2. USE. As a mill only.\n(a) not on Sundays."),
        ({"section": "2(a)"}, "(a) not on Sundays."),
        (
            {"quote": "PAYABLE  in\nadvance"},
            "LEASE\n1. RENT. The yearly rent is £10,000. It is payable in advance.\n2. USE. As a mill only.",
        ),
    ],
)
def test_passages_are_found(document, wanted, found):
    lease = document(LEASE)
    passage = find_passage(lease, **wanted)
    assert passage is not None
    assert passage.whole.of(lease.text) == found


@pytest.mark.parametrize("wanted", [{}, {"page": 9}, {"section": "9"}, {"quote": "no such words"}, {"quote": "  "}])
def test_what_is_not_there_is_none(document, wanted):
    assert find_passage(document(LEASE), **wanted) is None


@pytest.mark.parametrize(
    ("text", "parts"),
    [
        ("It is due. It is paid.", ["It is due.", "It is paid."]),
        ("See No. 4 of it. Then pay.", ["See No. 4 of it.", "Then pay."]),
        ("Carder Ltd. holds it; and so on", ["Carder Ltd. holds it;", "and so on"]),
        ("Section 3.01. The rent is due.", ["Section 3.01. The rent is due."]),
        ("From 8 a.m. to 5 p.m. The gate is shut.", ["From 8 a.m. to 5 p.m.", "The gate is shut."]),
        ('He said "no." They left.', ['He said "no."', "They left."]),
        ("Row one\nRow two", ["Row one", "Row two"]),
    ],
)
def test_sentences(text, parts):
    assert [s.of(text) for s in sentences(text)] == parts


@given(st.text("abc .;?!\nNo.Section4.1(\"'", max_size=80))
def test_sentences_cover_every_word_in_order(text):
    spans = list(sentences(text))
    assert "".join("".join(s.of(text).split()) for s in spans) == "".join(text.split())
    assert all(a.end <= b.start for a, b in itertools.pairwise(spans))
