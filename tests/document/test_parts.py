"""Parts of a document: pages and sections asked for, the outline, paths of a table's cells."""

from __future__ import annotations

import pytest

from tests.samples import SAMPLES
from yarnex.core.document import Cite, Span
from yarnex.core.document.cite import clock
from yarnex.core.document.narrowing import narrowed, page_spans, parse_pages, section_spans, sections_named
from yarnex.core.document.outline import outline_of
from yarnex.core.document.table_paths import column_path, row_path
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.reading.shades import colour_name, parse_colour

LEASE = "LEASE\n\n1. RENT\n\n1.1 The rent is £500.\n\n2. REPAIR\n\n2.1 The Tenant shall repair.\n\n2.2 The Landlord shall insure.\n"


@pytest.mark.parametrize(
    ("said", "ranges"),
    [
        ("3", ((3, 3),)),
        ("20-23", ((20, 23),)),
        ("3,7-9", ((3, 3), (7, 9))),
        ("12-", ((12, 999_999),)),
        (" 1 – 2 ", ((1, 2),)),
    ],
)
def test_pages_as_written(said, ranges):
    assert parse_pages(said) == ranges


@pytest.mark.parametrize("said", ["", "0", "9-3", "a", "1,,2", "-4", "1.5"])
def test_what_is_no_range_of_pages(said):
    with pytest.raises(ValueError):
        parse_pages(said)


def test_part_of_a_document_keeps_its_places(document):
    whole = document(LEASE)
    part = narrowed(whole, section_spans(whole, "2"))
    assert len(part.text) == len(whole.text)
    assert "repair" in part.text.lower()
    assert "£500" not in part.text
    at = part.text.index("The Landlord")
    assert Cite(part, Span(at, at + 12)).place == Cite(whole, Span(at, at + 12)).place
    assert [b.number for b in part.blocks if b.number] == ["2", "2.1", "2.2"]


@pytest.mark.parametrize(
    ("wanted", "names"),
    [("2", ["2 REPAIR"]), ("repair", ["2 REPAIR"]), ("Section 1", ["1 RENT"]), ("lease", ["LEASE"]), ("moon", [])],
)
def test_sections_by_number_or_words(document, wanted, names):
    paper = document(LEASE)
    assert [s.name for s in sections_named(paper, wanted.removeprefix("Section "))] == names


def test_a_clause_without_a_heading_can_be_asked_for(document):
    paper = document(LEASE)
    (span,) = section_spans(paper, "2.2")
    assert span.of(paper.text) == "2.2 The Landlord shall insure."


def test_pages_of_a_text_with_form_feeds():
    paper = read_data(SAMPLES["lease.txt"](), "lease.txt")[0].document
    part = narrowed(paper, page_spans(paper, parse_pages("2")))
    assert "Deposit" not in part.text
    assert "a rent of" in part.text


def test_the_outline_gives_pages_of_the_file_and_as_printed(pdf):
    def page(number, title):
        def draw(c):
            c.setFont("Times-Bold", 18)
            c.drawString(60, 760, title)
            c.setFont("Times-Roman", 11)
            for i in range(20):
                c.drawString(
                    60, 720 - 15 * i, "The words of this part go on for a line of the page, as reports do, and on."
                )
            c.drawString(290, 30, number)

        return draw

    paper = read_data(
        pdf(page("iii", "At a glance"), page("iv", "Outlook"), page("1", "Review"), page("2", "Risks")),
        "a.pdf",
        ReadOptions("skip"),
    )[0].document
    assert [(e.section.heading, e.first_page, e.last_page, e.printed_first) for e in outline_of(paper)] == [
        ("At a glance", 1, 1, "iii"), ("Outlook", 2, 2, "iv"), ("Review", 3, 3, "1"), ("Risks", 4, 4, "2"),
    ]  # fmt: skip
    assert outline_of(paper)[0].to_dict()["target"] == "a.pdf#page=1"


def test_paths_of_cells(document):
    paper = document(
        "| £000 | 2026 | 2025 |\n|---|---|---|\n| Non-current assets | | |\n| Mill | 800 | 790 |\n| Looms | 200 | 180 |\n| | 1,000 | 970 |\n| Current assets | | |\n| Wool | 90 | 80 |\n",
        "a.md",
    )
    (table,) = paper.tables
    cell = next(c for c in table.cells if c.span.of(paper.text) == "90")
    assert (row_path(table, cell.row, paper.text), column_path(table, cell, paper.text)) == (
        ("Current assets", "Wool"),
        ("2026",),
    )
    total = next(c for c in table.cells if c.span.of(paper.text) == "970")
    assert row_path(table, total.row, paper.text) == ("Non-current assets",)


@pytest.mark.parametrize(
    ("said", "name"),
    [
        ("#C6EFCE", "light green"), ("rgb(255, 0, 0)", "red"), ("#fff", ""), ("FFFFEB9C", None), ("navy", "dark blue"), ("#808080", "grey"), ("transparent", None),
        ("rgba(0,0,0,0)", None), ("#ffc000", "orange"), ("gold", "yellow"),
    ],
)  # fmt: skip
def test_colours_in_plain_words(said, name):
    colour = parse_colour(said)
    assert (colour_name(colour) if colour else None) == name or name is None


def test_clock():
    assert [clock(s) for s in (0, 59.9, 727, 36_000)] == ["00:00:00", "00:00:59", "00:12:07", "10:00:00"]
