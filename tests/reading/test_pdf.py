"""PDF files drawn for the purpose: columns, furniture, hyphens, headings, tables, black bars."""

from __future__ import annotations

import io

import pytest

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.pdf import read_pdf

WORDS = [
    "the",
    "tenant",
    "pays",
    "the",
    "rent",
    "on",
    "each",
    "quarter",
    "day",
    "to",
    "the",
    "landlord",
    "without",
    "delay",
    "and",
    "keeps",
    "the",
    "yard",
    "clean",
]


def read(data: bytes) -> Document:
    return read_pdf(data, "a.pdf", "0" * 64)


def lines(canvas, rows, x=60, y=760, step=15, font="Times-Roman", size=11):
    """Rows of text from the top down."""
    canvas.setFont(font, size)
    for row in rows:
        canvas.drawString(x, y, row)
        y -= step
    return y


def texts(document: Document, kind: str | None = None) -> list[str]:
    return [b.span.of(document.text) for b in document.blocks if kind in (None, b.kind)]


def prose(start: str, count: int) -> list[str]:
    """Lines of nearly one length, the first of which begins with `start`."""
    return [f"{start} " + " ".join(WORDS[:13]), *[" ".join(WORDS[i % 5 : i % 5 + 14]) for i in range(count - 1)]]


def test_lines_are_joined_to_paragraphs_and_a_gap_parts_them(pdf):
    def page(c):
        y = lines(
            c,
            [
                "The tenant shall keep the premises in good repair and condition during the",
                "whole of the term and shall pay for it.",
            ],
        )
        lines(c, ["The landlord shall insure the building against fire and other risks."], y=y - 14)

    assert texts(read(pdf(page))) == [
        "The tenant shall keep the premises in good repair and condition during the whole of the term and shall pay for it.",
        "The landlord shall insure the building against fire and other risks.",
    ]


def test_a_paragraph_goes_on_over_the_page_end(pdf):
    document = read(
        pdf(
            lambda c: lines(c, ["The tenant shall not without the written consent of the landlord make", "any change to the outside of the building and shall not put up any"], y=90),
            lambda c: lines(c, ["sign that can be seen from the street."]),
        )
    )  # fmt: skip
    (block,) = document.blocks
    assert document.pages_of(block.span) == (1, 2)
    assert block.span.of(document.text).endswith("put up any sign that can be seen from the street.")


def test_hyphens_at_line_ends_go_but_for_words_that_the_document_writes_with_one(pdf):
    rows = [
        "The rent is pay-",
        "able on the first day. A non-",
        "exclusive right, a long-term lease and a long-",
        "term loan are meant.",
    ]
    text = read(pdf(lambda c: lines(c, rows))).text
    assert "payable on" in text
    assert "non-exclusive" in text
    assert "long-term loan" in text


def test_running_headers_and_page_numbers_are_kept_out(pdf):
    def page(number):
        def draw(c):
            c.drawString(60, 815, "Lease of the Carding Shed")
            c.drawString(290, 25, str(number))
            lines(c, prose(f"{number}.1", 6))

        return draw

    document = read(pdf(*[page(n) for n in range(1, 5)]))
    assert [p.label for p in document.pages] == ["1", "2", "3", "4"]
    assert "Carding Shed" not in document.text[: document.body_end]
    assert texts(document, "furniture").count("Lease of the Carding Shed") == 4


def test_roman_front_matter_keeps_its_printed_labels(pdf):
    def page(label):
        def draw(c):
            c.drawString(290, 25, label)
            lines(c, prose("Words", 6))

        return draw

    document = read(pdf(*[page(label) for label in ("i", "ii", "iii", "1", "2", "3")]))
    assert [p.label for p in document.pages] == ["i", "ii", "iii", "1", "2", "3"]


def test_recorded_page_labels_win(pdf):
    import pikepdf

    plain = pikepdf.open(io.BytesIO(pdf(*[lambda c: lines(c, prose("Words", 5))] * 3)))
    plain.Root.PageLabels = pikepdf.Dictionary(Nums=pikepdf.Array([0, pikepdf.Dictionary(S=pikepdf.Name.D, P="A-")]))
    out = io.BytesIO()
    plain.save(out)
    assert [p.label for p in read(out.getvalue()).pages] == ["A-1", "A-2", "A-3"]


def test_two_columns_are_read_one_after_the_other(pdf):
    def page(c):
        c.setFont("Times-Bold", 14)
        c.drawString(60, 800, "TERMS OF BUSINESS OF THE MILL")
        left = [f"Left column line number {i} of the text" for i in range(12)]
        right = [f"Right column line number {i} of the text" for i in range(12)]
        lines(c, left, x=60, y=770)
        lines(c, right, x=320, y=763)

    text = read(pdf(page)).text
    order = [text.index(f"{side} column line number {i} of") for side in ("Left", "Right") for i in range(12)]
    assert order == sorted(order)


@pytest.mark.parametrize("ruled", [True, False])
def test_tables_ruled_and_by_white_space(pdf, ruled):
    rows = [
        ("Period", "Rent a year", "Rent a month"),
        ("Year 1", "£12,000.00", "£1,000.00"),
        ("Year 2", "£13,200.00", "£1,100.00"),
        ("Year 3", "£14,400.00", "£1,200.00"),
    ]

    def page(c):
        lines(c, ["The rent is stated in the table that follows and is payable in advance."], y=790)
        for r, row in enumerate(rows):
            c.setFont("Times-Bold" if r == 0 else "Times-Roman", 11)
            for k, cell in enumerate(row):
                c.drawString(70 + 150 * k, 740 - 20 * r, cell)
        if ruled:
            c.grid([60, 210, 360, 500], [754 - 20 * r for r in range(5)])

    document = read(pdf(page))
    (table,) = document.tables
    assert table.ruled is ruled
    assert (table.rows, table.columns, table.header_rows) == (4, 3, 1)
    assert [[c.span.of(document.text) for c in table.row_cells(r)] for r in range(4)] == [list(row) for row in rows]


def test_merged_cells_keep_their_span(pdf):
    def page(c):
        for x, y, text in (
            (70, 740, "Rent for the whole term"), (70, 720, "Year 1"), (220, 720, "£10"), (370, 720, "net"), (70, 700, "Year 2"),
            (220, 700, "£11"), (370, 700, "net"),
        ):  # fmt: skip
            c.drawString(x, y, text)
        for y in (754, 734, 714, 694):
            c.line(60, y, 500, y)
        c.line(60, 754, 60, 694)
        c.line(500, 754, 500, 694)
        for x in (210, 360):
            c.line(x, 734, x, 694)

    document = read(pdf(page))
    (table,) = document.tables
    assert table.row_cells(0)[0].column_span == 3
    assert table.at(0, 2) == table.at(0, 0)
    assert table.at(1, 1).span.of(document.text) == "£10"


def test_cells_that_wrap_are_one_cell(pdf):
    def page(c):
        grid = [
            ("Item", "Provision"),
            ("Tenant's Proportionate", "4.37%"),
            ("Permitted use", "Spinning and dyeing of wool and"),
            ("Deposit", "£5,000"),
        ]
        y = 760
        for left, right in grid:
            c.drawString(70, y, left)
            c.drawString(230, y, right)
            if left.startswith("Tenant"):
                y -= 13
                c.drawString(70, y, "share of costs")
            if left.startswith("Permitted"):
                y -= 13
                c.drawString(230, y, "the sale of yarn")
            c.line(60, y - 6, 500, y - 6)
            y -= 22

    document = read(pdf(page))
    (table,) = document.tables
    rows = [[c.span.of(document.text) for c in table.row_cells(r)] for r in range(table.rows)]
    assert ["Tenant's Proportionate share of costs", "4.37%"] in rows
    assert ["Permitted use", "Spinning and dyeing of wool and the sale of yarn"] in rows


def test_clauses_have_numbers_headings_and_sections(pdf):
    def page(c):
        y = lines(c, ["4. REPAIR AND USE"], font="Times-Bold")
        y = lines(
            c,
            ["4.1 The tenant shall keep the premises in repair as stated in clause", "4.2 and shall decorate them."],
            y=y - 8,
        )
        y = lines(c, ["4.2 The tenant shall not:"], y=y - 8)
        y = lines(c, ["(a) store oil on the premises; or", "(b) burn waste."], x=80, y=y - 8)
        y = lines(c, ["FIRST SCHEDULE"], x=240, y=y - 12, font="Times-Bold")
        y = lines(c, ["RIGHTS"], x=265, y=y - 4, font="Times-Bold")
        lines(c, ["1. The right to use the yard at all times of the day, subject to the rules."], y=y - 8)

    document = read(pdf(page))
    numbers = {b.number: b.span.of(document.text) for b in document.blocks if b.number}
    assert numbers["4.1"].endswith("as stated in clause 4.2 and shall decorate them.")
    assert numbers["4.2(a)"].startswith("(a) store oil")
    assert [(s.number, s.heading) for s in document.sections] == [("4", "REPAIR AND USE"), ("FIRST SCHEDULE", "RIGHTS")]
    last = document.blocks[-1]
    assert document.sections[last.section].number == "FIRST SCHEDULE"


def test_run_in_headings_name_their_clause(pdf):
    def page(c):
        c.drawString(60, 760, "7.1")
        c.setFont("Times-Bold", 11)
        c.drawString(90, 760, "Quiet enjoyment.")
        c.setFont("Times-Roman", 11)
        c.drawString(180, 760, "The tenant may hold the premises in peace during the term.")

    (section,) = read(pdf(page)).sections
    assert section.name == "7.1 Quiet enjoyment"


def test_a_list_of_contents_begins_no_sections(pdf):
    def contents(c):
        lines(c, ["CONTENTS"], font="Times-Bold")
        lines(c, [f"{i}. Part number {i} {'.' * 40} {i}" for i in range(1, 8)], y=730)

    document = read(
        pdf(
            contents,
            lambda c: lines(c, ["1. PART NUMBER 1"], font="Times-Bold") and lines(c, prose("It says that", 6), y=730),
        )
    )
    assert [(s.name, document.pages_of(s.span)[0]) for s in document.sections] == [
        ("CONTENTS", 1),
        ("1 PART NUMBER 1", 2),
    ]


def test_words_under_a_black_bar_are_not_read(pdf):
    def page(c):
        c.drawString(60, 760, "Account number 12345678 at the bank in Thrapsley.")
        c.setFillGray(0)
        x = 60 + c.stringWidth("Account number ", "Times-Roman", 11)
        c.rect(x, 757, c.stringWidth("12345678", "Times-Roman", 11), 12, fill=1, stroke=0)

    text = read(pdf(page)).text
    assert "1234" not in text
    assert "Account number ███" in text
    assert "at the bank" in text


def test_boxes_lie_on_their_words_whatever_the_font_says_of_its_height(pdf):
    document = read(pdf(lambda c: c.drawString(60, 700, "Rent")))
    ((page, box),) = document.boxes_of(document.blocks[0].span)
    assert page == 1
    assert (round(box.x0), round(box.top), round(box.bottom)) == (60, 133, 144)


def test_boxes_hold_where_the_page_inherits_its_size_or_is_cropped(pdf):
    import pikepdf

    plain = pikepdf.open(
        io.BytesIO(pdf(lambda c: c.drawString(60, 700, "Rent"), lambda c: c.drawString(60, 700, "Rent")))
    )
    plain.Root.Pages.MediaBox = plain.pages[0].MediaBox
    del plain.pages[0].MediaBox
    plain.pages[1].CropBox = pikepdf.Array([10, 0, 595, 800])
    out = io.BytesIO()
    plain.save(out)
    document = read(out.getvalue())
    boxes = {page: (round(box.x0), round(box.top)) for page, box in document.boxes_of(document.blocks[0].span)}
    boxes |= {page: (round(box.x0), round(box.top)) for page, box in document.boxes_of(document.blocks[-1].span)}
    assert boxes == {1: (60, 133), 2: (50, 91)}


def test_light_words_on_a_dark_ground_stay(pdf):
    def page(c):
        c.setFillGray(0)
        c.rect(55, 752, 300, 20, fill=1, stroke=0)
        c.setFillGray(1)
        c.drawString(60, 758, "Schedule of rents")

    assert read(pdf(page)).text == "Schedule of rents"


def test_every_word_has_a_box_on_its_page(pdf):
    document = read(pdf(lambda c: lines(c, prose("Here", 4))))
    boxes = list(document.boxes_of(document.blocks[0].span))
    assert len(boxes) == document.words
    assert all(page == 1 and 0 < b.x0 < b.x1 < 595 and 0 < b.top < b.bottom < 842 for page, b in boxes)


def test_a_turned_page_is_read_as_shown(pdf):
    import pikepdf

    plain = pikepdf.open(io.BytesIO(pdf(lambda c: lines(c, prose("Here", 5)))))
    plain.pages[0].Rotate = 180
    out = io.BytesIO()
    plain.save(out)
    assert read(out.getvalue()).words > 40


def test_a_page_that_is_a_picture_is_said(pdf):
    from PIL import Image
    from reportlab.lib.utils import ImageReader

    def picture(c):
        c.drawImage(ImageReader(Image.new("L", (60, 80), 200)), 50, 50, 400, 600)

    document = read(pdf(lambda c: lines(c, prose("Here", 5)), picture, picture))
    assert [p.state for p in document.pages] == ["text", "no_text", "no_text"]
    assert document.pages_read == 1
    (problem,) = document.problems
    assert str(problem) == "pages 2-3: a picture without text that could be read; look at it in the file"


def test_a_blank_page_is_no_problem(pdf):
    document = read(pdf(lambda c: lines(c, prose("Here", 5)), lambda c: None))
    assert [p.state for p in document.pages] == ["text", "blank"]
    assert document.problems == ()


@pytest.mark.parametrize(
    ("damage", "what"),
    [(lambda d: d[:200], "not a complete PDF"), (lambda d: b"%PDF-1.7\n" + b"x" * 500, "not a complete PDF")],
)
def test_broken_files_are_named(pdf, damage, what):
    with pytest.raises(UnreadableError, match=what):
        read(damage(pdf(lambda c: lines(c, ["Words"]))))


def test_a_password_is_named(pdf):
    import pikepdf

    plain = pikepdf.open(io.BytesIO(pdf(lambda c: lines(c, ["Words"]))))
    out = io.BytesIO()
    plain.save(out, encryption=pikepdf.Encryption(owner="owner", user="user"))
    with pytest.raises(UnreadableError, match="locked with a password"):
        read(out.getvalue())


def raised(canvas, before: str, figure: str, x: float, y: float) -> None:
    """Words with a small figure set above their line."""
    text = canvas.beginText(x, y)
    text.setFont("Times-Roman", 11)
    text.textOut(before)
    text.setRise(4)
    text.setFont("Times-Roman", 7)
    text.textOut(figure)
    canvas.drawText(text)


@pytest.mark.parametrize(
    ("before", "figure", "read_as"),
    [
        ("Fine, washed 4.55", "2", "4.55 ²"),
        ("Area of the shed 1,240 m", "2", "1,240 m²"),
        ("as told above", "13", "above ¹³"),
    ],
)
def test_figures_above_the_line_are_no_digits_of_a_number(pdf, before, figure, read_as):
    document = read(pdf(lambda c: raised(c, before, figure, 60, 700)))
    assert document.text.endswith(read_as)


def test_a_framed_box_is_read_by_itself(pdf):
    def page(c):
        lines(c, [line[:60] for line in prose("The", 9)], y=760)
        c.rect(400, 640, 140, 130)
        lines(c, ["Rent £9,000 a year", "Area 300 m²", "From 1 June 2027"], x=410, y=750)

    found = texts(read(pdf(page)))
    box = next(t for t in found if "Rent £9,000" in t)
    assert "tenant" not in box and "Area 300 m²" in box
    assert any("landlord" in t and "Area" not in t for t in found)


def test_labels_in_small_type_above_their_values_are_labels(pdf):
    from yarnex.core.terms.passages import Passages

    def page(c):
        c.grid([60, 220, 380], [700, 740, 780])
        for x, y, label, value in [(65, 768, "Received by", "Nell Oakroyd"), (225, 768, "Bales", "64"), (65, 728, "Lorry", "KX26 PLD"), (225, 728, "Weighed on", "4 May 2026")]:  # fmt: skip
            lines(c, [label], x=x, y=y, size=7)
            lines(c, [value], x=x, y=y - 14)

    labelled = Passages(document := read(pdf(page))).labelled
    assert {(row.label, row.value.of(document.text)) for row in labelled} == {
        ("Received by", "Nell Oakroyd"),
        ("Bales", "64"),
        ("Lorry", "KX26 PLD"),
        ("Weighed on", "4 May 2026"),
    }


def test_lines_that_do_not_stand_under_each_other_are_two_paragraphs(pdf):
    def page(c):
        lines(c, ["Weir Bank plc", "Tel. 01632 960 555"], x=420, y=760)
        lines(c, ["Our ref. WB/7781"], y=730)
        lines(c, prose("The", 4), y=690)

    found = texts(read(pdf(page)))
    assert any("Our ref." in t and "Tel." not in t for t in found)
