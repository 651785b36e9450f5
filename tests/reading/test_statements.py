"""Statements of figures set by white space: columns, headings of several lines, totals, tables over two pages, columns of prose."""

from __future__ import annotations

import pytest

from yarnex.core.document.table_paths import column_path, row_path
from yarnex.core.reading import ReadOptions, read_data

SKIP = ReadOptions("skip")
PROSE = "The mill was bought in the spring and its looms were moved there in the course of the summer months."


def figures(c, rows, y, rights=(380, 460, 540), label=60, size=10, lead=15):
    """Rows of a statement: the label at the left, figures flush right."""
    for i, (name, *values) in enumerate(rows):
        c.setFont("Times-Roman", size)
        c.drawString(label, y - lead * i, name)
        for right, value in zip(rights[len(rights) - len(values) :], values, strict=True):
            c.drawRightString(right, y - lead * i, value)
    return y - lead * len(rows)


def heads(c, lines, y, rights=(380, 460, 540), lead=11):
    c.setFont("Times-Bold", 9)
    for i, line in enumerate(lines):
        for right, word in zip(rights, line, strict=True):
            c.drawRightString(right, y - lead * i, word)
    return y - lead * len(lines) - 6


ROWS = [
    ("Sales of yarn", "4", "8,204", "7,960"),
    ("Cost of wool", "", "(5,118)", "(4,902)"),
    ("Wages", "5", "(1,940)", "(1,877)"),
    ("Operating profit", "", "1,146", "1,181"),
]
MORE = [("Finance costs", "6", "(212)", "(240)"), ("", "", "934", "941"), ("Tax", "7", "–", "(188)")]


def read(pdf, *pages):
    return read_data(pdf(*pages), "report.pdf", SKIP)[0].document


def grid(document, table):
    return [[c.span.of(document.text) for c in table.row_cells(r)] for r in range(table.rows)]


def test_headings_wider_than_their_figures(pdf):
    def page(c):
        y = heads(
            c, [("", "Year ended 31", "Year ended 31"), ("", "March 2026", "March 2025"), ("Note", "£000", "£000")], 700
        )
        figures(c, ROWS + MORE, y)

    document = read(pdf, page)
    (table,) = document.tables
    assert table.header_rows == 1
    cell = next(c for c in table.cells if c.span.of(document.text) == "7,960")
    assert column_path(table, cell, document.text) == ("Year ended 31 March 2025 £000",)
    assert row_path(table, cell.row, document.text) == ("Sales of yarn",)
    assert grid(document, table)[1] == ["Sales of yarn", "4", "8,204", "7,960"]
    assert grid(document, table)[6] == ["934", "941"]  # a total without a name is a row of its own
    assert grid(document, table)[7] == ["Tax", "7", "–", "(188)"]


def test_groups_name_the_rows_under_them(pdf):
    rows = [
        ("Non-current assets",),
        ("Mill and land", "1", "4,000", "3,900"),
        ("Looms", "2", "900", "950"),
        ("", "", "4,900", "4,850"),
        ("Current assets",),
        ("Wool in store", "3", "700", "650"),
        ("Cash", "", "120", "95"),
    ]

    def page(c):
        figures(c, rows, heads(c, [("Note", "2026", "2025")], 700))

    document = read(pdf, page)
    (table,) = document.tables
    cell = next(c for c in table.cells if c.span.of(document.text) == "650")
    assert row_path(table, cell.row, document.text) == ("Current assets", "Wool in store")
    assert column_path(table, cell, document.text) == ("2025",)


def test_a_table_goes_on_over_the_page(pdf):
    def first(c):
        y = figures(c, ROWS, heads(c, [("Note", "2026", "2025")], 200))
        assert y > 60

    def second(c):
        y = figures(c, MORE, heads(c, [("Note", "2026", "2025")], 780))
        for i in range(6):
            c.drawString(60, y - 30 - 14 * i, PROSE)

    document = read(pdf, first, second)
    (table,) = document.tables
    assert table.rows == 1 + len(ROWS) + len(MORE)
    assert sorted({document.pages_of(c.span)[0] for c in table.cells}) == [1, 2]
    cell = next(c for c in table.cells if c.span.of(document.text) == "(188)")
    assert column_path(table, cell, document.text) == ("2025",)
    assert document.pages_of(cell.span) == (2, 2)


def test_two_tables_with_the_same_headings_stay_two(pdf):
    def page(c):
        y = figures(c, ROWS, heads(c, [("Note", "2026", "2025")], 700))
        c.setFont("Times-Bold", 10)
        c.drawString(60, y - 14, "The Company alone")
        figures(c, MORE + ROWS[:1], heads(c, [("Note", "2026", "2025")], y - 30))

    document = read(pdf, page)
    assert [t.rows for t in document.tables] == [5, 5]


@pytest.mark.parametrize("columns", [2, 3])
def test_columns_of_prose_are_read_one_after_the_other(pdf, columns):
    width = 480 / columns

    def page(c):
        c.setFont("Times-Roman", 8)
        for column in range(columns):
            for i in range(30):
                c.drawString(
                    55 + column * width,
                    760 - 11 * i,
                    f"Column {column + 1} says in line {i + 1} of wool"[: int(width / 3.6)],
                )

    text = read(pdf, page).text
    assert text.index("Column 1 says in line 30") < text.index("Column 2 says in line 1 ")
    assert "Column 1 says in line 1" in text


def test_a_running_header_that_names_the_section_is_furniture(pdf):
    def page(name):
        def draw(c):
            c.setFont("Times-Roman", 8)
            c.drawString(60, 815, "Brackenfold Mills plc")
            c.drawRightString(540, 815, name)
            c.setFont("Times-Roman", 11)
            for i in range(14):
                c.drawString(60, 740 - 15 * i, PROSE)

        return draw

    document = read(pdf, *(page(n) for n in ("Review", "Strategy", "Risks", "Outlook")))
    assert "Brackenfold Mills plc" not in document.text[: document.body_end]
    assert "Strategy" not in document.text[: document.body_end]


def test_footnotes_do_not_run_into_the_text(pdf):
    def page(c):
        for i in range(20):
            c.drawString(60, 760 - 15 * i, PROSE[:90])
        c.setFont("Times-Roman", 7)
        c.drawString(60, 60, "1 Wool of the first clip only.")

    document = read(pdf, page)
    assert [b.span.of(document.text) for b in document.blocks if b.kind == "note"] == ["1 Wool of the first clip only."]


def test_shaded_cells_know_their_colour(pdf):
    from reportlab.lib.colors import HexColor

    def page(c):
        c.setFillColor(HexColor("#C6EFCE"))
        c.rect(300, 640, 120, 20, stroke=1, fill=1)
        c.setFillColor(HexColor("#000000"))
        for x in (60, 180, 300):
            c.rect(x, 640, 120, 20)
            c.rect(x, 660, 120, 20)
        for x, top, under in ((66, "Site", "Canal Works"), (186, "Rent", "£42,000"), (306, "State", "Agreed")):
            c.drawString(x, 666, top)
            c.drawString(x, 646, under)

    document = read(pdf, page)
    (table,) = document.tables
    assert [c.shade for c in table.row_cells(1)] == ["", "", "light green"]


CALENDAR = [
    ("Results for the half year announced", "Wednesday 18 November 2026"),
    ("Shares quoted without the dividend", "Thursday 17 December 2026"),
    ("Register closed for the interim dividend", "Friday 18 December 2026"),
    ("Last day to choose shares instead of cash", "Friday 8 January 2027"),
    ("Interim dividend paid to shareholders", "Friday 29 January 2027"),
    ("End of the financial year of the mills", "Wednesday 31 March 2027"),
]


def calendar(c, y):
    c.setFont("Times-Bold", 11)
    c.drawString(60, y, "Dates for shareholders")
    c.setFont("Times-Roman", 10)
    for i, (event, day) in enumerate(CALENDAR):
        c.drawString(60, y - 18 - 14 * i, event)
        c.drawRightString(540, y - 18 - 14 * i, day)
    return y - 18 - 14 * len(CALENDAR)


def test_labels_and_days_side_by_side_are_rows_and_not_columns(pdf):
    document = read(pdf, lambda c: calendar(c, 760))
    (table,) = document.tables
    assert [
        tuple(" ".join(cell.span.of(document.text).split()) for cell in table.row_cells(row))
        for row in range(table.rows)
    ] == CALENDAR


def test_what_follows_a_contents_table_is_no_entry_of_it(pdf):
    def page(c):
        c.setFont("Times-Bold", 14)
        c.drawString(60, 780, "Contents")
        c.setFont("Times-Roman", 10)
        for i, (name, number) in enumerate(
            [("Chair's letter", "3"), ("Wool bought", "5"), ("Yarn sold", "8"), ("The mills", "9")]
        ):
            c.drawString(60, 750 - 14 * i, name)
            c.drawRightString(540, 750 - 14 * i, number)
        end = calendar(c, 660)
        c.setFont("Times-Bold", 11)
        c.drawString(60, end - 20, "What may change")
        c.setFont("Times-Roman", 10)
        c.drawString(60, end - 36, PROSE)

    document = read(pdf, page)
    headings = [" ".join(b.span.of(document.text).split()) for b in document.blocks if b.kind == "heading"]
    assert "Dates for shareholders" in headings
    assert "What may change" in headings
