"""Word files: numbering, tables, notes, text boxes, tracked changes, recorded pages."""

from __future__ import annotations

import io
import zipfile

import docx
import pytest
from docx.oxml import parse_xml
from docx.oxml.ns import nsdecls, qn

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.docx import read_docx
from yarnex.core.reading.docx_numbering import Numbering, read_numbering
from yarnex.core.reading.docx_styles import Style

W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'


def read(word) -> Document:
    buffer = io.BytesIO()
    word.save(buffer)
    return read_docx(buffer.getvalue(), "a.docx", "0" * 64)


def put(word, xml: str, text: str = "") -> None:
    """Append raw runs to a new paragraph."""
    paragraph = word.add_paragraph(text)
    for element in parse_xml(f"<w:p {nsdecls('w')}>{xml}</w:p>"):
        paragraph._p.append(element)


def listed(word, text: str, level: int, list_id: int = 77) -> None:
    paragraph = word.add_paragraph(text)
    properties = paragraph._p.get_or_add_pPr()
    properties.append(
        parse_xml(f'<w:numPr {nsdecls("w")}><w:ilvl w:val="{level}"/><w:numId w:val="{list_id}"/></w:numPr>')
    )


def with_list(word, *levels: tuple[str, str]) -> None:
    numbering = word.part.numbering_part.element
    made = "".join(
        f'<w:lvl w:ilvl="{i}"><w:start w:val="1"/><w:numFmt w:val="{form}"/><w:lvlText w:val="{text}"/></w:lvl>'
        for i, (form, text) in enumerate(levels)
    )
    first = numbering.find(qn("w:num"))
    first.addprevious(parse_xml(f'<w:abstractNum {nsdecls("w")} w:abstractNumId="77">{made}</w:abstractNum>'))
    numbering.append(parse_xml(f'<w:num {nsdecls("w")} w:numId="77"><w:abstractNumId w:val="77"/></w:num>'))


def test_automatic_numbers_are_worked_out():
    word = docx.Document()
    with_list(word, ("decimal", "%1."), ("decimal", "%1.%2"), ("lowerLetter", "(%3)"), ("lowerRoman", "(%4)"))
    for text, level in (
        ("Rent", 0), ("The tenant pays it.", 1), ("On time:", 1), ("in spring; and", 2), ("in autumn,", 2), ("early", 3), ("late", 3), ("Use", 0), ("As a mill.", 1),
    ):  # fmt: skip
        listed(word, text, level)
    document = read(word)
    assert [b.number for b in document.blocks] == [
        "1",
        "1.1",
        "1.2",
        "1.2(a)",
        "1.2(b)",
        "1.2(b)(i)",
        "1.2(b)(ii)",
        "2",
        "2.1",
    ]
    assert "1.1" not in document.text  # the numbers are shown by the word processor and stand nowhere in the text


@pytest.mark.parametrize(
    ("form", "text", "numbers"),
    [
        ("upperRoman", "Article %1", ["Article I", "Article II", "Article III"]),
        ("upperLetter", "%1)", ["A)", "B)", "C)"]),
        ("decimalZero", "%1", ["01", "02", "03"]),
        ("ordinalText", "%1 Schedule", ["First Schedule", "Second Schedule", "Third Schedule"]),
        ("cardinalText", "Part %1", ["Part One", "Part Two", "Part Three"]),
        ("bullet", "•", ["", "", ""]),
    ],
)
def test_forms_of_numbers(form, text, numbers):
    from lxml import etree

    root = etree.fromstring(
        f'<w:numbering {W}><w:abstractNum w:abstractNumId="1"><w:lvl w:ilvl="0"><w:numFmt w:val="{form}"/><w:lvlText w:val="{text}"/></w:lvl></w:abstractNum>'
        '<w:num w:numId="5"><w:abstractNumId w:val="1"/></w:num></w:numbering>'
    )
    lists = read_numbering(root)
    paragraph = etree.fromstring(
        f'<w:p {W}><w:pPr><w:numPr><w:ilvl w:val="0"/><w:numId w:val="5"/></w:numPr></w:pPr></w:p>'
    )
    assert [lists.next_number(paragraph, Style())[0] for _ in numbers] == numbers


def test_no_list_no_number():
    from lxml import etree

    assert Numbering().next_number(etree.fromstring(f"<w:p {W}/>"), Style()) == ("", 0)


def test_headings_by_style_make_sections():
    word = docx.Document()
    word.add_heading("Repair", 1)
    word.add_paragraph("The tenant keeps the mill in repair.")
    word.add_heading("Use", 1)
    word.add_paragraph("As a mill.")
    document = read(word)
    assert [(s.heading, s.level) for s in document.sections] == [("Repair", 1), ("Use", 1)]
    assert document.sections[0].span.of(document.text) == "Repair\nThe tenant keeps the mill in repair."


def test_insertions_are_kept_and_deletions_left_out_and_said():
    word = docx.Document()
    put(
        word,
        '<w:del w:id="1"><w:r><w:delText>nine</w:delText></w:r></w:del><w:ins w:id="2"><w:r><w:t>three</w:t></w:r></w:ins><w:r><w:t xml:space="preserve"> per cent</w:t></w:r>',
        "a rise of ",
    )
    document = read(word)
    assert document.text == "a rise of three per cent"
    (problem,) = document.problems
    assert "1 inserted and read as accepted, 1 deleted and left out" in problem.what
    assert not problem.serious


def test_tables_keep_merged_cells():
    word = docx.Document()
    table = word.add_table(3, 3)
    for r, row in enumerate((("Rent", "", ""), ("Year 1", "£10", "net"), ("Year 2", "£11", "net"))):
        for c, text in enumerate(row):
            table.cell(r, c).text = text
    table.cell(0, 0).merge(table.cell(0, 2))
    table.cell(1, 2).merge(table.cell(2, 2))
    document = read(word)
    (made,) = document.tables
    assert made.at(0, 2).span.of(document.text) == "Rent"
    assert made.at(2, 2).span.of(document.text).startswith("net")
    assert made.at(1, 1).span.of(document.text) == "£10"


def test_headers_and_footers_stand_apart():
    word = docx.Document()
    word.sections[0].header.paragraphs[0].text = "Draft of the mill"
    word.add_paragraph("The rent is £10.")
    document = read(word)
    assert document.text[: document.body_end] == "The rent is £10."
    assert document.blocks[-1].kind == "furniture"


def test_text_boxes_and_notes_are_read():
    word = docx.Document()
    put(
        word,
        '<w:r><w:pict xmlns:v="urn:schemas-microsoft-com:vml"><v:shape><v:textbox><w:txbxContent><w:p><w:r><w:t>In the box.</w:t></w:r></w:p></w:txbxContent></v:textbox></v:shape></w:pict></w:r>',
        "Before the box.",
    )
    put(word, '<w:r><w:footnoteReference w:id="2"/></w:r>', "With a note")
    buffer = io.BytesIO()
    word.save(buffer)
    out = io.BytesIO()
    with zipfile.ZipFile(buffer) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            new.writestr(name, old.read(name))
        new.writestr(
            "word/footnotes.xml",
            f'<w:footnotes {W}><w:footnote w:id="2"><w:p><w:r><w:t>The note.</w:t></w:r></w:p></w:footnote></w:footnotes>',
        )
    document = read_docx(out.getvalue(), "a.docx", "0" * 64)
    assert [(b.kind, b.span.of(document.text)) for b in document.blocks] == [
        ("paragraph", "Before the box."),
        ("paragraph", "In the box."),
        ("paragraph", "With a note"),
        ("note", "The note."),
    ]


def test_recorded_page_breaks_give_pages():
    word = docx.Document()
    word.add_paragraph("On the first page.")
    put(word, "<w:r><w:lastRenderedPageBreak/><w:t>On the second page.</w:t></w:r>")
    document = read(word)
    assert [document.pages_of(b.span) for b in document.blocks] == [(1, 1), (2, 2)]


def test_without_recorded_breaks_there_are_no_pages():
    word = docx.Document()
    word.add_paragraph("Anywhere.")
    document = read(word)
    assert document.pages == ()
    assert document.pages_of(document.blocks[0].span) == (0, 0)


def test_a_word_spread_over_runs_is_one_word():
    word = docx.Document()
    paragraph = word.add_paragraph()
    for part in ("Ten", "ant", " pays"):
        paragraph.add_run(part).bold = part == "Ten"
    assert read(word).text == "Tenant pays"


@pytest.mark.parametrize("data", [b"PK\x03\x04 not a zip", b"plain words", b"PK\x05\x06" + b"\0" * 18])
def test_what_is_no_word_file_is_said(data):
    with pytest.raises(UnreadableError, match="not a complete Word file"):
        read_docx(data, "a.docx", "0" * 64)


def test_entities_are_not_expanded():
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as package:
        body = f'<!DOCTYPE x [<!ENTITY secret SYSTEM "file:///etc/hostname">]><w:document {W}><w:body><w:p><w:r><w:t>a&secret;b</w:t></w:r></w:p></w:body></w:document>'
        package.writestr("word/document.xml", body)
    try:
        text = read_docx(out.getvalue(), "a.docx", "0" * 64).text
    except UnreadableError:
        return
    assert text in ("ab", "a", "a b")


def test_raised_figures_do_not_run_into_numbers():
    word = docx.Document()
    for before, figure in (("The price is £4.55", "2"), ("The shed has 1,240 m", "2")):
        paragraph = word.add_paragraph(before)
        paragraph.add_run(figure).font.superscript = True
    assert read(word).text == "The price is £4.55 ²\nThe shed has 1,240 m²"


def test_labels_before_a_tab_make_a_table_and_numbered_clauses_do_not():
    word = docx.Document()
    for line in ("Quotation no.\tQ-7731", "Valid until\t30 June 2026", "Weekly charge\t£1,240 plus VAT"):
        word.add_paragraph(line)
    word.add_paragraph("1.\tThe Keeper shall store the bales in the dry.")
    word.add_paragraph("2.\tThe Owner shall pay each month.")
    for line in ("Storage\t3", "Payment\t4", "Ending\t7"):  # a list of contents
        word.add_paragraph(line)
    document = read(word)
    assert [(t.rows, t.columns) for t in document.tables] == [(3, 2)]
    assert document.tables[0].at(1, 1).span.of(document.text) == "30 June 2026"


def test_a_long_value_behind_a_tab_stays_a_paragraph():
    word = docx.Document()
    for name in ("“Bale”", "“Store”"):
        word.add_paragraph(f"{name}\tmeans anything that the Owner brings and the Keeper takes in")
    assert not read(word).tables


@pytest.mark.parametrize(
    ("lines", "blocks"),
    [
        (["Start: 1 July 2026", "Deposit: £2,480"], ["Start: 1 July 2026", "Deposit: £2,480"]),
        (["Ivo Kirk", "Manager"], ["Ivo Kirk", "Manager"]),
        (["the bales are stored in the dry and", "counted each month by the Keeper"], ["the bales are stored in the dry and counted each month by the Keeper"]),
        (["Yours sincerely", "", "Ivo Kirk"], ["Yours sincerely", "Ivo Kirk"]),
    ],
)  # fmt: skip
def test_line_ends_inside_a_paragraph(lines, blocks):
    word = docx.Document()
    paragraph = word.add_paragraph(lines[0])
    for line in lines[1:]:
        paragraph.add_run().add_break()
        paragraph.add_run(line)
    document = read(word)
    assert [b.span.of(document.text) for b in document.blocks] == blocks


def test_cells_side_by_side_that_open_with_a_label_know_it():
    word = docx.Document()
    table = word.add_table(rows=1, cols=2)
    table.cell(0, 0).text = "Keeper\nKirk & Dyson Storage Ltd\nUnit 3, Weir Road"
    table.cell(0, 1).text = "Customer\nBrackenfold Mills Limited\nSkerra Road"
    document = read(word)
    assert [m.value for m in document.marks if m.kind == "label"] == ["Keeper", "Customer"]
