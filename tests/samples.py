"""A small sound file of each format, made on the spot in the words of one scenario."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Callable

RENT = "The Tenant shall pay a rent of £12,500.00 a year, in advance on the usual quarter days."


def packed(parts: dict[str, str | bytes]) -> bytes:
    """A zip file of these parts, always the same bytes."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as package:
        for name, content in parts.items():
            package.writestr(zipfile.ZipInfo(name, (2026, 1, 1, 0, 0, 0)), content, zipfile.ZIP_DEFLATED)
    return out.getvalue()


def pdf() -> bytes:
    from reportlab.pdfgen.canvas import Canvas

    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(595, 842), invariant=1)
    for page in (1, 2):
        canvas.setFont("Times-Bold", 14)
        canvas.drawString(70, 760, f"{page}. RENT")
        canvas.setFont("Times-Roman", 11)
        for i in range(6):
            canvas.drawString(70, 730 - 14 * i, RENT)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def docx() -> bytes:
    from docx import Document

    out = io.BytesIO()
    paper = Document()
    paper.add_heading("Lease of the Weighhouse", 1)
    paper.add_paragraph(RENT)
    table = paper.add_table(rows=2, cols=2)
    for cell, text in zip(
        (c for r in table.rows for c in r.cells), ("Term", "Ten years", "Deposit", "£4,000"), strict=True
    ):
        cell.text = text
    paper.save(out)
    return out.getvalue()


def xlsx() -> bytes:
    from openpyxl import Workbook

    book = Workbook()
    sheet = book.active
    sheet.title = "Rents"
    sheet.append(["Unit", "Rent", "Share"])
    sheet.append(["Weighhouse", 12500, 0.125])
    sheet.append(["Dyehouse", 8000, 0.08])
    sheet["B4"] = "=SUM(B2:B3)"
    sheet["B2"].number_format = "£#,##0"
    sheet["C2"].number_format = "0.0%"
    sheet.row_dimensions[3].hidden = True
    notes = book.create_sheet("Notes")
    notes["A1"] = "Not for the landlord"
    notes.sheet_state = "hidden"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def pptx() -> bytes:
    from pptx import Presentation
    from pptx.chart.data import CategoryChartData
    from pptx.enum.chart import XL_CHART_TYPE
    from pptx.util import Inches

    deck = Presentation()
    slide = deck.slides.add_slide(deck.slide_layouts[5])
    slide.shapes.title.text = "Choice of premises"
    table = slide.shapes.add_table(2, 2, Inches(1), Inches(2), Inches(6), Inches(1)).table
    for place, text in enumerate(("Site", "Rent", "Canal Works", "£42,000")):
        table.cell(place // 2, place % 2).text = text
    slide.notes_slide.notes_text_frame.text = "Say that the rent is negotiable."
    second = deck.slides.add_slide(deck.slide_layouts[5])
    second.shapes.title.text = "Rent by year"
    data = CategoryChartData()
    data.categories = ["2026", "2027"]
    data.add_series("Rent, £000", (42.0, 44.5))
    second.shapes.add_chart(XL_CHART_TYPE.COLUMN_CLUSTERED, Inches(1), Inches(2), Inches(6), Inches(4), data)
    out = io.BytesIO()
    deck.save(out)
    return out.getvalue()


OFFICE = (
    'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" '
    'xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" '
    'xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:presentation="urn:oasis:names:tc:opendocument:xmlns:presentation:1.0" '
    'xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:dc="http://purl.org/dc/elements/1.1/" '
    'xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0"'
)


def opendocument(kind: str, body: str, styles: str = "") -> bytes:
    """An OpenDocument file of a kind ("text", "spreadsheet", "presentation") with this body."""
    content = f"<office:document-content {OFFICE}><office:automatic-styles>{styles}</office:automatic-styles><office:body><office:{kind}>{body}</office:{kind}></office:body></office:document-content>"
    return packed(
        {
            "mimetype": f"application/vnd.oasis.opendocument.{kind}",
            "content.xml": content,
            "META-INF/manifest.xml": "<manifest/>",
        }
    )


def odt() -> bytes:
    return opendocument(
        "text",
        '<text:h text:outline-level="1">Lease</text:h>'
        f'<text:p>{RENT}<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p>Excluding VAT.</text:p></text:note-body></text:note></text:p>'
        '<table:table><table:table-row><table:table-cell table:number-columns-spanned="2"><text:p>Term</text:p></table:table-cell><table:covered-table-cell/></table:table-row>'
        "<table:table-row><table:table-cell><text:p>Years</text:p></table:table-cell><table:table-cell><text:p>10</text:p></table:table-cell></table:table-row></table:table>",
    )


def ods() -> bytes:
    row = '<table:table-row><table:table-cell><text:p>Rent</text:p></table:table-cell><table:table-cell office:value="12500" table:formula="of:=[.B1]*2"><text:p>£12,500</text:p></table:table-cell></table:table-row>'
    return opendocument(
        "spreadsheet",
        f'<table:table table:name="Rents">{row}<table:table-row table:visibility="collapse"><table:table-cell><text:p>Secret</text:p></table:table-cell></table:table-row></table:table>',
    )


def odp() -> bytes:
    page = '<draw:page><draw:frame presentation:class="title" svg:y="1cm" svg:x="1cm"><draw:text-box><text:p>Premises</text:p></draw:text-box></draw:frame><draw:frame svg:y="5cm" svg:x="1cm"><draw:text-box><text:p>Three sites</text:p></draw:text-box></draw:frame></draw:page>'
    return opendocument("presentation", page)


def epub() -> bytes:
    return packed({
        "mimetype": "application/epub+zip",
        "META-INF/container.xml": '<container xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="OPS/book.opf"/></rootfiles></container>',
        "OPS/book.opf": '<package xmlns="http://www.idpf.org/2007/opf" xmlns:dc="http://purl.org/dc/elements/1.1/"><metadata><dc:title>Handbook of wool</dc:title><dc:creator>I. Teasel</dc:creator></metadata>'
        '<manifest><item id="a" href="one.xhtml"/><item id="b" href="two.xhtml"/></manifest><spine><itemref idref="a"/><itemref idref="b"/></spine></package>',
        "OPS/one.xhtml": '<html xmlns="http://www.w3.org/1999/xhtml"><body><h1>Scouring</h1><p>Wool is washed.</p></body></html>',
        "OPS/two.xhtml": '<html xmlns="http://www.w3.org/1999/xhtml"><body><h1>Carding</h1><p>Wool is combed.</p></body></html>',
    })  # fmt: skip


XBRL = """<?xml version="1.0"?>
<html xmlns="http://www.w3.org/1999/xhtml" xmlns:ix="http://www.xbrl.org/2013/inlineXBRL" xmlns:xbrli="http://www.xbrl.org/2003/instance" xmlns:xbrldi="http://xbrl.org/2006/xbrldi">
<head><title>Results</title></head><body>
<div style="display:none"><ix:header><ix:hidden><ix:nonNumeric name="m:Id" contextRef="y">BM</ix:nonNumeric></ix:hidden><ix:resources>
<xbrli:context id="y"><xbrli:entity><xbrli:identifier scheme="s">BM</xbrli:identifier></xbrli:entity><xbrli:period><xbrli:startDate>2025-04-01</xbrli:startDate><xbrli:endDate>2026-03-31</xbrli:endDate></xbrli:period></xbrli:context>
<xbrli:context id="e"><xbrli:entity><xbrli:identifier scheme="s">BM</xbrli:identifier><xbrli:segment><xbrldi:explicitMember dimension="m:Basis">m:Company</xbrldi:explicitMember></xbrli:segment></xbrli:entity><xbrli:period><xbrli:instant>2026-03-31</xbrli:instant></xbrli:period></xbrli:context>
<xbrli:unit id="g"><xbrli:measure>iso4217:GBP</xbrli:measure></xbrli:unit>
<xbrli:unit id="p"><xbrli:divide><xbrli:unitNumerator><xbrli:measure>iso4217:GBP</xbrli:measure></xbrli:unitNumerator><xbrli:unitDenominator><xbrli:measure>xbrli:shares</xbrli:measure></xbrli:unitDenominator></xbrli:divide></xbrli:unit>
</ix:resources></ix:header></div>
<h1>Brackenfold Mills</h1>
<table><tr><th>£000</th><th>2026</th></tr>
<tr><td>Revenue</td><td><ix:nonFraction name="m:Revenue" contextRef="y" unitRef="g" scale="3" decimals="-3" format="ixt:num-dot-decimal">8,204</ix:nonFraction></td></tr>
<tr><td>Loss</td><td>(<ix:nonFraction name="m:Profit" contextRef="y" unitRef="g" scale="3" sign="-">112</ix:nonFraction>)</td></tr></table>
<p><ix:nonNumeric name="m:Policy" contextRef="y" continuedAt="more">Cash of <ix:nonFraction name="m:Cash" contextRef="e" unitRef="g" scale="6">1.5</ix:nonFraction> million</ix:nonNumeric> was held,
<ix:continuation id="more">at two banks.</ix:continuation></p></body></html>"""

MAIL = b"""From: Ida Teasel <ida@teasel.example>\r
To: Brackenfold Mills <office@brackenfold.example>\r
Subject: =?utf-8?q?Rent_of_the_Weighhouse_=E2=80=93_offer?=\r
Date: Fri, 3 Apr 2026 09:30:00 +0100\r
MIME-Version: 1.0\r
Content-Type: multipart/mixed; boundary="b"\r
\r
--b\r
Content-Type: multipart/alternative; boundary="c"\r
\r
--c\r
Content-Type: text/plain; charset="utf-8"\r
Content-Transfer-Encoding: quoted-printable\r
\r
We offer the Weighhouse at =C2=A312,500 a year.\r
\r
> Sent: 1 April 2026\r
> Could you let us know the rent?\r
--c\r
Content-Type: text/html; charset="utf-8"\r
\r
<p>We offer the Weighhouse at &pound;12,500 a year.</p>\r
--c--\r
--b\r
Content-Type: text/csv\r
Content-Disposition: attachment; filename="../rents.csv"\r
\r
Unit,Rent\r
Weighhouse,12500\r
--b--\r
"""

CAPTIONS = """WEBVTT

NOTE
Call about the premises, 3 April 2026

00:00:01.000 --> 00:00:04.000
<v Ida Teasel>Good morning. The rent is

00:00:04.200 --> 00:00:06.000
<v Ida Teasel>twelve thousand five hundred.

00:01:10.000 --> 00:01:12.000
<v Owen Fell>Thank you.
"""

SUBTITLES = """1
00:00:01,000 --> 00:00:04,000
IDA TEASEL: Good morning.

2
00:00:05,000 --> 00:00:07,500
OWEN FELL: What is the rent?
"""

PAGE = """<!DOCTYPE html><html><head><title>Offer</title><style>.off{display:none}</style><script>var rent = 1;</script></head><body>
<h1>Offer of premises</h1><p id="rent">The rent is <b>£12,500</b> a year.<sup>1</sup></p><p class="off">Floor: £9,000</p>
<h2>Terms</h2><table><tr><th rowspan="2">Unit</th><th colspan="2">Rent</th></tr><tr><th>2026</th><th>2027</th></tr><tr><td>Weighhouse</td><td>£ 12,500</td><td>12,900</td></tr></table>
<ol type="a"><li>Term of ten years</li><li>Break in year five</li></ol><dl><dt>Deposit</dt><dd>£4,000</dd></dl></body></html>"""


def picture(form: str, pages: int = 1) -> bytes:
    """A scan of a short page."""
    from PIL import Image, ImageDraw, ImageFont

    font = ImageFont.load_default(28)
    frames = []
    for number in range(1, pages + 1):
        page = Image.new("L", (1000, 500), 255)
        draw = ImageDraw.Draw(page)
        for i, line in enumerate(
            (f"Page {number} of the licence", "The licence fee is 640 pounds a month.", "It ends on 30 April 2027.")
        ):
            draw.text((80, 80 + 60 * i), line, fill=0, font=font)
        frames.append(page)
    out = io.BytesIO()
    frames[0].save(out, form, dpi=(150, 150), **({"save_all": True, "append_images": frames[1:]} if pages > 1 else {}))
    return out.getvalue()


RTF = rb"{\rtf1\ansi\ansicpg1252 {\b LEASE}\par\par The Tenant shall pay a rent of \'a312,500 a year.\par {\trowd\cellx2000\cellx4000 Term\cell Ten years\cell\row}}"
MBOX = (
    b"From ida@teasel.example Fri Apr  3 09:30:00 2026\r\n"
    + MAIL
    + b"\r\nFrom owen@fell.example Fri Apr  3 10:00:00 2026\r\nFrom: owen@fell.example\r\nSubject: Re: rent\r\n\r\n>From our side, agreed.\r\n"
)

SAMPLES: dict[str, Callable[[], bytes]] = {
    "lease.pdf": pdf, "lease.docx": docx, "rents.xlsx": xlsx, "deck.pptx": pptx, "lease.odt": odt, "rents.ods": ods, "deck.odp": odp, "wool.epub": epub,
    "results.xhtml": XBRL.encode, "offer.html": PAGE.encode, "offer.eml": lambda: MAIL, "box.mbox": lambda: MBOX, "call.vtt": CAPTIONS.encode,
    "call.srt": SUBTITLES.encode, "rents.csv": lambda: b"Unit;Rent;Share\nWeighhouse;12.500;12,5%\nDyehouse;8.000;8%\n", "lease.rtf": lambda: RTF,
    "scan.png": lambda: picture("PNG"), "scan.tiff": lambda: picture("TIFF", 2), "scan.jpg": lambda: picture("JPEG"),
    "lease.txt": lambda: b"LEASE\n=====\n\nDeposit: \xc2\xa34,000\n\f1. RENT\n\n" + RENT.encode(), "lease.md": lambda: b"# Lease\n\n| Term | Ten years |\n|---|---|\n| Rent | 5 |\n",
    "bundle.zip": lambda: packed({"papers/offer.html": PAGE, "papers/call.srt": SUBTITLES, "x.exe": b"MZ"}),
}  # fmt: skip
