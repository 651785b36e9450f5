"""What hangs on PDF pages, and pages whose text cannot be taken as it is: fields, comments, links, redactions, turned pages."""

from __future__ import annotations

import io

import pikepdf
import pytest
from pikepdf import Array, Dictionary, Name, String

from yarnex.core.document import Cite, Span
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.reading.pdf_annotations import _set
from yarnex.core.reading.pdf_marks import garbled

SKIP = ReadOptions("skip")


def words(c):
    for i, line in enumerate(
        (
            "LEASE OF THE WEIGHHOUSE",
            "The Tenant is Brackenfold Mills Limited.",
            "The rent is 12,500 pounds a year.",
            "The account is 4471 2209.",
        )
    ):
        c.drawString(70, 760 - 40 * i, line)


def edited(data, *, annotations=(), change=None):
    """A PDF with annotations on its first page, and whatever else `change` does to it."""
    with pikepdf.open(io.BytesIO(data)) as pdf:
        made = [pdf.make_indirect(Dictionary(Type=Name.Annot, **a)) for a in annotations]
        if made:
            pdf.pages[0].Annots = Array(made)
        fields = [a for a in made if "/FT" in a]
        if fields:
            pdf.Root.AcroForm = Dictionary(Fields=Array(fields), DA=String("/Helv 10 Tf 0 g"), DR=Dictionary())
        if change:
            change(pdf)
        out = io.BytesIO()
        pdf.save(out)
    return read_data(out.getvalue(), "lease.pdf", SKIP)[0].document


def rect(x0, y0, x1, y1):
    return Array([x0, y0, x1, y1])


def test_values_of_form_fields_are_read_where_they_stand(pdf):
    document = edited(
        pdf(words),
        annotations=[
            {
                "Subtype": Name.Widget,
                "Rect": rect(270, 752, 420, 772),
                "FT": Name.Tx,
                "T": String("term"),
                "V": String("ten years"),
            },
            {
                "Subtype": Name.Widget,
                "Rect": rect(300, 710, 314, 724),
                "FT": Name.Btn,
                "T": String("vat"),
                "V": Name.Yes,
                "AS": Name.Yes,
            },
        ],
    )
    assert "ten years" in document.text
    at = document.text.index("ten years")
    assert document.mark_at("field", at).value == "term"
    assert Cite(document, Span(at, at + 9)).pages == (1, 1)


def test_comments_hang_on_the_words_under_them(pdf):
    document = edited(
        pdf(words),
        annotations=[
            {
                "Subtype": Name.Highlight,
                "Rect": rect(70, 676, 260, 694),
                "Contents": String("Too high"),
                "T": String("Ida"),
                "QuadPoints": Array([70, 694, 260, 694, 70, 676, 260, 676]),
            }
        ],
    )
    (mark,) = [m for m in document.marks if m.kind == "comment"]
    assert mark.value == "Ida: Too high"
    assert "rent" in mark.span.of(document.text)
    assert "Too high" not in document.text


def test_hidden_annotations_are_not_shown(pdf):
    document = edited(
        pdf(words),
        annotations=[
            {"Subtype": Name.FreeText, "Rect": rect(300, 600, 500, 620), "Contents": String("secret note"), "F": 2}
        ],
    )
    assert "secret" not in document.text


def test_free_text_is_text_of_the_page(pdf):
    document = edited(
        pdf(words),
        annotations=[
            {
                "Subtype": Name.FreeText,
                "Rect": rect(70, 600, 500, 620),
                "Contents": String("Agreed by both on 3 April 2026"),
            }
        ],
    )
    assert "Agreed by both on 3 April 2026" in document.text


def test_links_are_kept(pdf):
    document = edited(
        pdf(words),
        annotations=[
            {
                "Subtype": Name.Link,
                "Rect": rect(70, 750, 260, 775),
                "A": Dictionary(S=Name.URI, URI=String("https://mills.example/lease")),
            }
        ],
    )
    assert {m.value for m in document.marks if m.kind == "link"} == {"https://mills.example/lease"}


def test_what_is_marked_for_redaction_is_not_read(pdf):
    document = edited(pdf(words), annotations=[{"Subtype": Name.Redact, "Rect": rect(140, 634, 240, 655)}])
    assert "4471" not in document.text
    assert "█" in document.text


def test_attached_files_are_named(pdf):
    def attach(file):
        file.attachments["rents.csv"] = b"Unit,Rent\n"

    document = edited(pdf(words), change=attach)
    assert document.attachments == ("rents.csv",)
    assert "holds 1 attached file, not read: rents.csv" in str(document.problems[0])


@pytest.mark.parametrize("turn", [90, 180, 270])
def test_pages_turned_in_the_file(pdf, turn):
    def rotate(file):
        file.pages[0].Rotate = turn

    document = edited(pdf(words), change=rotate)
    assert "The rent is 12,500 pounds a year." in document.text
    assert document.pages[0].turned == (360 - turn) % 360
    at = document.text.index("12,500")
    ((_, box),) = document.boxes_of(Span(at, at + 6))
    assert box.x1 - box.x0 > box.bottom - box.top  # upright


def test_text_set_on_its_side_is_read_upright(pdf):
    def sideways(c):
        c.rotate(90)
        for i in range(6):
            c.drawString(100, -100 - 20 * i, f"The rent of unit {i} is 12,500 pounds a year.")

    document = read_data(pdf(sideways), "a.pdf", SKIP)[0].document
    assert "The rent of unit 3 is 12,500 pounds a year." in document.text
    assert any("read turned upright" in p.what for p in document.problems)


@pytest.mark.parametrize(
    ("text", "wrong"),
    [
        ("The Tenant shall pay the rent to the Landlord on the usual quarter days and keep the premises in repair " * 3, False),
        ("7KH 7HQDQW VKDOO SD\\ WKH UHQW WR WKH /DQGORUG RQ WKH XVXDO TXDUWHU GD\\V DQG NHHS WKH SUHPLVHV LQ UHSDLU " * 4, True),
        ("\ue012\ue045\ue077 \ue012\ue033 \ue045\ue001 " * 20, True), ("\ufffd\ufffd\ufffd rent \ufffd\ufffd " * 20, True), ("412,680 389,145 (71,344) 4 2025 £000 " * 20, False),
        ("BV GmbH XS-114 KW dB(A) kV " * 2, False), ("", False), ("Ενοίκιο και εγγύηση του ακινήτου σύμφωνα με τη σύμβαση " * 5, False),
    ],
)  # fmt: skip
def test_letters_that_the_file_records_wrongly(text, wrong):
    assert garbled(text.split()) is wrong


def test_words_of_a_field_are_set_inside_it():
    placed = _set("ten years from\nthe first day", (100.0, 200.0, 160.0, 260.0))
    assert [w.text for w in placed] == ["ten", "years", "from", "the", "first", "day"]
    assert all(100 <= w.x0 < 160 and 200 <= w.top < 260 for w in placed)


def test_a_hidden_text_layer_is_said_to_be_one(pdf):
    from PIL import Image
    from reportlab.lib.utils import ImageReader

    def scan(c):
        c.drawImage(ImageReader(Image.new("L", (60, 80), 230)), 0, 0, 595, 842)
        text = c.beginText(70, 700)
        text.setTextRenderMode(3)
        for i in range(12):
            text.textLine(f"The words of line {i} lie under the picture of the page.")
        c.drawText(text)

    document = read_data(pdf(scan), "a.pdf", SKIP)[0].document
    assert document.pages[0].source == "hidden"
    assert "line 11" in document.text
