"""Pages read from their picture: words, certainty, which way up, bars, rules, struck words; and when it is done."""

from __future__ import annotations

import io

import pytest
from PIL import Image, ImageDraw, ImageFont

from tests.samples import picture
from yarnex.core.document import Cite, Span
from yarnex.core.errors import UnreadableError, YarnexError
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.reading.recognising import _place, _tokens, recognise, recogniser

FONT = ImageFont.load_default(30)
LINES = (
    "1. The Store",
    "The licence fee is 640 pounds a month.",
    "It is paid in advance on the first day.",
    "It ends on 30 April 2027 at the latest.",
)


def page(draw=None, lines=LINES):
    image = Image.new("L", (1100, 800), 255)
    pen = ImageDraw.Draw(image)
    for i, line in enumerate(lines):
        pen.text((90, 90 + 70 * i), line, fill=0, font=FONT)
    if draw:
        draw(pen)
    return image


def scanned(image, form="PNG"):
    out = io.BytesIO()
    image.save(out, form, dpi=(150, 150))
    return read_data(out.getvalue(), f"a.{form.lower()}")[0].document


def test_a_picture_of_a_page():
    document = scanned(page())
    for line in LINES[1:]:
        assert line in document.text
    assert [p.source for p in document.pages] == ["recognised"]
    assert "recognised from a picture" in str(document.problems[0])
    assert not document.problems[0].serious
    assert all(0 < c < 100 for c in document.fragments.certainty)
    at = document.text.index("640")
    ((number, box),) = document.boxes_of(Span(at, at + 3))
    assert number == 1
    assert box.x0 < box.x1 < 1100 * 72 / 150


def test_pages_of_a_tiff():
    document = read_data(picture("TIFF", 2), "a.tiff")[0].document
    assert len(document.pages) == 2
    at = document.text.index("Page 2")
    assert Cite(document, Span(at, at + 6)).pages == (2, 2)


@pytest.mark.parametrize("turn", [90, 180, 270])
def test_a_page_on_its_side_or_head(turn):
    document = scanned(page().rotate(turn, expand=True, fillcolor=255))
    assert "The licence fee is 640 pounds a month." in document.text
    assert document.pages[0].turned == turn if turn == 180 else document.pages[0].turned in (90, 270)
    assert any("read turned upright" in p.what for p in document.problems)


def test_a_page_askew_is_straightened():
    document = scanned(page().rotate(1.6, fillcolor=255))
    assert "It is paid in advance on the first day." in document.text


def test_bars_hide_and_are_shown():
    document = scanned(
        page(lambda pen: pen.rectangle((500, 300, 760, 336), fill=0), (*LINES[:3], "The account is numbered"))
    )
    assert "█" in document.text


def test_struck_words_are_left_out_and_said():
    words = (
        "1. The Notice",
        "It may be ended on three notice.",
        "It is paid in advance on the first day.",
        "It ends on 30 April 2027 at the latest.",
    )

    def strike(pen):
        start = 90 + pen.textlength("It may be ended on ", font=FONT)
        pen.line((start - 4, 179, start + pen.textlength("three", font=FONT) + 4, 179), fill=0, width=3)

    document = scanned(page(strike, words))
    assert "three" not in document.text or any("struck out" in p.what for p in document.problems) is False
    assert "ended on" in document.text


def test_an_empty_page_is_blank():
    document = scanned(Image.new("L", (600, 800), 255))
    assert [p.state for p in document.pages] == ["blank"]


def test_scans_can_be_skipped():
    document = read_data(picture("PNG"), "a.png", ReadOptions(scans="skip"))[0].document
    assert [p.state for p in document.pages] == ["no_text"]
    assert document.problems[0].serious


@pytest.mark.parametrize(
    ("way", "message"), [("guess", "'guess' is no way to read scans"), ("tesseract", "Tesseract is not installed")]
)
def test_wrong_ways(way, message, monkeypatch):
    monkeypatch.setattr("shutil.which", lambda name: None)
    with pytest.raises(YarnexError, match=message):
        recogniser(way)


def test_broken_pictures_are_said():
    with pytest.raises(UnreadableError, match="not a complete picture"):
        read_data(b"\x89PNG\r\n\x1a\n" + b"junk" * 20, "a.png")


def test_only_pages_without_usable_text_are_recognised(pdf):
    from reportlab.lib.utils import ImageReader

    def printed(c):
        for i in range(12):
            c.drawString(60, 760 - 15 * i, "The words of this page are printed and can be read as they are.")

    document = read_data(pdf(printed, lambda c: c.drawImage(ImageReader(page()), 40, 300, 510, 370)), "a.pdf")[
        0
    ].document
    assert [p.source for p in document.pages] == ["printed", "recognised"]
    assert "The licence fee is 640 pounds a month." in document.text


@pytest.mark.parametrize(
    ("line", "tokens"),
    [
        ("2.Period", ["2.", "Period"]), ("4.6To hold", ["4.6", "To", "hold"]), ("(1) NAME", ["(1)", "NAME"]), ("Cork,Ireland", ["Cork,", "Ireland"]),
        ("ida@a.example", ["ida@a.example"]), ("€1,120.50", ["€1,120.50"]), ("https://a.example,b", ["https://a.example,b"]),
    ],
)  # fmt: skip
def test_words_of_a_line(line, tokens):
    assert _tokens(line.replace("4.6To", "4.6 To")) == tokens


def test_places_without_pieces_follow_the_letters():
    places = _place(["ab", "cd"], [], lambda x, y: (x, y), 0.0, 50.0, 0.9)
    assert [(round(a), round(b)) for a, b, _ in places] == [(0, 20), (30, 50)]


def test_an_engine_that_sees_nothing_gives_nothing():
    assert recognise(page(), 2.0, lambda image: []).words == []


def test_ticked_and_empty_boxes_are_signs():
    def boxes(pen):
        for x, ticked in ((700, True), (860, False)):
            pen.rectangle((x, 94, x + 26, 120), outline=0, width=3)
            if ticked:
                pen.line((x + 4, 98, x + 22, 116), fill=0, width=3)
                pen.line((x + 4, 116, x + 22, 98), fill=0, width=3)
            pen.text((x + 40, 90), "Yes" if ticked else "No", fill=0, font=FONT)

    text = scanned(page(boxes)).text
    assert "☒ Yes" in text and "☐ No" in text
    assert text.count("☒") == text.count("☐") == 1


def test_a_page_of_few_lines_askew_keeps_its_rows():
    image = Image.new("L", (1600, 700), 255)
    pen = ImageDraw.Draw(image)
    for i, (label, value) in enumerate([("Balance", "12,480"), ("Interest", "31.85"), ("Due", "9,716")]):
        pen.text((90, 90 + 45 * i), label, fill=0, font=FONT)
        pen.text((1300, 90 + 45 * i), value, fill=0, font=FONT)
    document = scanned(image.rotate(0.8, fillcolor=255))
    rows = [" ".join(b.span.of(document.text).split()) for b in document.blocks]
    assert any("Interest 31.85" in row for row in rows)
