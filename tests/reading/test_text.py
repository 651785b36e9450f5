from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.errors import UnreadableError
from yarnex.core.reading.text import decode, read_text


def read(text: str, markdown: bool = False):
    return read_text(text.encode(), "a.txt", "0" * 64, markdown)


def test_paragraphs_clauses_and_lines():
    document = read(
        "LEASE\n=====\n\n1.  The tenant pays\n    the rent.\n\n2.  USE.  As a mill\n    only.\n\n    (a)  by day; and\n\n    (b)  by night.\n"
    )
    assert [(b.kind, b.number) for b in document.blocks] == [
        ("heading", ""),
        ("item", "1"),
        ("item", "2"),
        ("item", "2(a)"),
        ("item", "2(b)"),
    ]
    assert document.blocks[1].span.of(document.text) == "1. The tenant pays the rent."
    assert document.line_of(document.blocks[1].span) == 4
    assert document.blocks[2].heading == "USE"


def test_a_table_in_type_is_a_table():
    document = read(
        "Period      Rent a year   Rent a month\nYear 1      £12,000       £1,000\nYear 2      £13,200       £1,100\nYear 3      £14,400       £1,200\n"
    )
    (table,) = document.tables
    assert table.at(2, 1).span.of(document.text) == "£13,200"


def test_markdown_headings_lists_tables_and_emphasis():
    document = read(
        "# Lease\n\nThe **Rent** is *due* now.\n\n- one\n- two\n\n| Item | Sum |\n|---|---|\n| Rent | £10 |\n\nUse\n---\nAs a mill: ____\n",
        markdown=True,
    )
    assert [(s.heading, s.level) for s in document.sections] == [("Lease", 1), ("Use", 2)]
    assert "The Rent is due now." in document.text
    assert document.tables[0].at(1, 1).span.of(document.text) == "£10"
    assert "____" in document.text


@pytest.mark.parametrize(
    ("data", "text", "said"),
    [
        ("£10 a year".encode(), "£10 a year", False),
        ("£10 a year".encode("utf-8-sig"), "£10 a year", False),
        ("Ünter".encode("utf-16"), "Ünter", False),
        ("Le loyer est payable à l’avance, au début de chaque trimestre, à Genève.".encode("cp1252"), None, True),
    ],
)
def test_encodings(data, text, said):
    got, problem = decode(data, "a.txt")
    assert text is None or got == text
    assert (problem is not None) is said


def test_data_that_is_no_text_is_said():
    with pytest.raises(UnreadableError, match="not text in any known encoding"):
        decode(bytes(range(256)) * 20, "a.txt")


@given(st.text(st.characters(exclude_categories=("Cc", "Cs"), include_characters="\n\t"), max_size=400))
def test_any_text_is_read_and_every_block_stands_in_it(text):
    for markdown in (False, True):
        document = read(text, markdown)
        ends = [b.span.end for b in document.blocks]
        assert ends == sorted(ends)
        assert all(document.text[s] != " " for s in document.fragments.starts)
        assert list(document.fragments.starts) == sorted(document.fragments.starts)


def test_tables_drawn_with_signs():
    text = "Rents of the sites\n\n+------+---------+\n| Site | Rent    |\n+======+=========+\n| Mill | £12,500 |\n| Weir | £8,000  |\n+------+---------+\n\nAll without VAT.\n"
    document = read_text(text.encode(), "a.txt", "0" * 64)
    (table,) = document.tables
    assert (table.rows, table.columns, table.header_rows) == (3, 2, 1)
    assert [c.span.of(document.text) for c in table.row_cells(2)] == ["Weir", "£8,000"]
    assert document.line_of(table.row_cells(2)[1].span) == 7
    assert document.text.endswith("All without VAT.")


def test_dots_lead_from_a_label_to_its_value_but_not_to_a_page():
    text = "Terms of sale\n\nPayment terms ........ 30 days\nDue date ............. 11 September 2026\n\nRent ........ 3\nRepair ...... 9\n"
    document = read_text(text.encode(), "a.txt", "0" * 64)
    assert [[c.span.of(document.text) for c in t.cells] for t in document.tables] == [
        ["Payment terms", "30 days", "Due date", "11 September 2026"]
    ]
    assert "........ 3" in document.text


def test_lines_of_labels_are_paragraphs_of_their_own():
    text = "# Report\n\nClient: Brackenfold Mills plc\nObject: Pattern book\nSeen: 3 May 2026\n\nNote: the book is wet.\nIt dries slowly.\n"
    document = read(text, True)
    assert [b.span.of(document.text) for b in document.blocks if b.kind == "paragraph"] == [
        "Client: Brackenfold Mills plc", "Object: Pattern book", "Seen: 3 May 2026", "Note: the book is wet. It dries slowly.",
    ]  # fmt: skip
