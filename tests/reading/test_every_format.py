"""Each format: what must survive of a small file, and what its reader says of a broken one."""

from __future__ import annotations

import contextlib
import io

import pytest

from tests.samples import CAPTIONS, MAIL, OFFICE, RENT, SAMPLES, docx, opendocument, packed
from yarnex.core.document import Cite, Span
from yarnex.core.errors import UnreadableError
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.reading.formats import FORMATS, READABLE, format_of

SKIP = ReadOptions(scans="skip")


def read(name, data=None):
    readings = read_data(SAMPLES[name]() if data is None else data, name, SKIP)
    return readings[0].document


def words_of(document, cell):
    return cell.span.of(document.text)


def cite_of(document, words):
    at = document.text.index(words)
    return Cite(document, Span(at, at + len(words)))


@pytest.mark.parametrize(
    ("name", "format", "words"),
    [
        ("lease.pdf", "pdf", RENT), ("lease.docx", "docx", RENT), ("rents.xlsx", "xlsx", "£12,500"), ("deck.pptx", "pptx", "Canal Works"),
        ("lease.odt", "odt", RENT), ("rents.ods", "ods", "£12,500"), ("deck.odp", "odp", "Three sites"), ("wool.epub", "epub", "Wool is combed."),
        ("results.xhtml", "xhtml", "8,204"), ("offer.html", "html", "£12,500 a year."), ("offer.eml", "eml", "at £12,500 a year."),
        ("call.vtt", "vtt", "twelve thousand five hundred."), ("call.srt", "srt", "What is the rent?"), ("rents.csv", "csv", "12.500"),
        ("lease.rtf", "rtf", "a rent of £12,500 a year"), ("lease.txt", "txt", RENT), ("lease.md", "md", "Ten years"),
    ],
)  # fmt: skip
def test_the_words_survive(name, format, words):
    document = read(name)
    assert document.format == format
    assert words in document.text
    assert not any(p.serious for p in document.problems) or name == "rents.xlsx"  # its sum was never worked out


@pytest.mark.parametrize("name", sorted(set(SAMPLES) - {"bundle.zip", "box.mbox"}))
def test_content_decides_before_the_ending(name):
    if name.endswith((".csv", ".md", ".txt", ".srt", ".eml")):
        return  # told apart by their ending, or read as text
    assert format_of(SAMPLES[name](), "paper.txt").name == format_of(SAMPLES[name](), name).name


@pytest.mark.parametrize(
    "ending", sorted(e for f in FORMATS for e in f.endings if f.name not in ("text", "markdown", "csv", "html"))
)
def test_a_file_that_is_not_what_its_ending_says(ending):
    with pytest.raises(UnreadableError) as caught:
        read_data(b"\x01\x02 not what the name says \x03", f"paper{ending}", SKIP)
    assert str(caught.value).startswith(f"paper{ending}: ")
    assert ";" in str(caught.value)


def test_every_ending_has_one_reader():
    assert len(READABLE) == len(set(READABLE)) == sum(len(f.endings) for f in FORMATS)


@pytest.mark.parametrize(
    ("data", "name", "message"),
    [
        (
            b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + "EncryptedPackage".encode("utf-16-le"),
            "a.docx",
            "locked with a password",
        ),
        (
            b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + b"\0" * 600,
            "a.xls",
            "an old or closed Office format .*; save it as .xlsx",
        ),
        (b"GIF89a" + b"\0" * 9, "a.gif", ".gif is not a format that can be read; give .pdf"),
    ],
)
def test_formats_that_are_not_read(data, name, message):
    with pytest.raises(UnreadableError, match=message):
        read_data(data, name, SKIP)


def test_old_word_files_need_another_program(monkeypatch):
    monkeypatch.setattr("shutil.which", lambda name: None)
    data = b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + "WordDocument".encode("utf-16-le")
    with pytest.raises(
        UnreadableError, match=r"the old Word format \(.doc\); install LibreOffice, or save it as .docx"
    ):
        read_data(data, "a.doc", SKIP)


class TestWebPages:
    def test_structure_and_hidden_text(self):
        document = read("offer.html")
        assert [(b.kind, b.level, b.number, b.span.of(document.text)) for b in document.blocks if b.kind != "table"] == [
            ("heading", 1, "", "Offer of premises"), ("paragraph", 0, "", "The rent is £12,500 a year. ¹"), ("heading", 2, "", "Terms"),
            ("item", 9, "(a)", "Term of ten years"), ("item", 9, "(b)", "Break in year five"),
        ]  # fmt: skip
        assert "var rent" not in document.text
        assert "9,000" not in document.text
        assert "2 words that the page hides left out (“Floor: £9,000”)" in str(document.problems[0])
        assert cite_of(document, "12,500").target == "offer.html#:~:text=12%2C500"

    def test_spans_and_signs_of_a_table(self):
        document = read("offer.html")
        rents, deposit = document.tables
        assert (rents.rows, rents.columns, rents.header_rows) == (3, 3, 2)
        assert words_of(document, rents.at(1, 0)) == "Unit"
        assert words_of(document, rents.at(0, 2)) == "Rent"
        assert [words_of(document, c) for c in rents.row_cells(2)] == ["Weighhouse", "£ 12,500", "12,900"]
        assert [words_of(document, c) for c in deposit.cells] == ["Deposit", "£4,000"]

    def test_tagged_facts(self):
        document = read("results.xhtml")
        facts = {t.concept: t for t in document.tagged}
        revenue, profit, cash = facts["m:Revenue"], facts["m:Profit"], facts["m:Cash"]
        assert (revenue.printed, revenue.scale, revenue.unit, revenue.start, revenue.end) == (
            "8,204",
            3,
            "iso4217:GBP",
            "2025-04-01",
            "2026-03-31",
        )
        assert revenue.span.of(document.text) == "8,204"
        assert (profit.negative, profit.span.of(document.text)) == (True, "112")
        assert (cash.scale, cash.start, cash.end, cash.dimensions, cash.inside) == (
            6,
            "",
            "2026-03-31",
            (("m:Basis", "m:Company"),),
            "m:Policy",
        )
        assert facts["m:Policy"].printed == "Cash of 1.5 million at two banks."
        assert (facts["m:Id"].hidden, facts["m:Id"].span) == (True, None)
        assert not document.problems  # what is hidden there is data, not words kept from the reader

    @pytest.mark.parametrize(
        ("style", "shown"),
        [
            ("display:none", False),
            ("visibility:hidden", False),
            ("font-size:0", False),
            ("display:none;display:block", True),
            ("color:red", True),
        ],
    )
    def test_what_is_hidden(self, style, shown):
        document = read("a.html", f'<html><body><p>Rent</p><p style="{style}">secret floor</p></body></html>'.encode())
        assert ("secret" in document.text) is shown
        assert bool(document.problems) is not shown

    def test_nothing_outside_the_page_is_opened(self, tmp_path):
        (tmp_path / "x").write_text("stolen words")
        page = f'<?xml version="1.0"?><!DOCTYPE html [<!ENTITY x SYSTEM "file://{tmp_path}/x">]><html xmlns="http://www.w3.org/1999/xhtml"><body><p>a &x; b</p></body></html>'
        assert "stolen" not in read("a.xhtml", page.encode()).text

    def test_controls_show_what_they_hold(self):
        page = '<body><p>Term <input value="ten years"> <input type="checkbox" checked> furnished <input type="hidden" value="no"></p></body>'
        assert read("a.html", page.encode()).text == "Term ten years ☒ furnished"


class TestWorkbooks:
    def test_cells_as_shown_with_what_they_hold(self):
        document = read("rents.xlsx")
        share = cite_of(document, "12.5%")
        assert (share.place, share.target) == ("Rents!C2", "rents.xlsx#Rents!C2")
        assert document.mark_at("stored", share.span.start).value == "0.125"
        assert [m.value for m in document.marks if m.kind == "formula"] == ["=SUM(B2:B3)"]
        assert [(p.name, p.hidden) for p in document.pages] == [("Rents", False), ("Notes", True)]

    def test_what_is_hidden_is_read_and_said(self):
        document = read("rents.xlsx")
        said = [str(p) for p in document.problems]
        assert "sheet Rents: hidden rows 3; read all the same" in said
        assert "sheet Notes: a hidden sheet; read all the same" in said
        assert "1 formula without a stored result; open it in a spreadsheet program, save it and read it again" in said
        assert "Not for the landlord" in document.text

    @pytest.mark.parametrize(
        ("data", "rows", "delimiter"),
        [
            (b"Unit,Rent\nA,1\nB,2\n", [["Unit", "Rent"], ["A", "1"], ["B", "2"]], ","),
            (b"Unit;Rent\nA;1,5\nB;2,5\n", [["Unit", "Rent"], ["A", "1,5"], ["B", "2,5"]], ";"),
            (b"Unit\tRent\nA\t1\n", [["Unit", "Rent"], ["A", "1"]], "\t"),
            (b'Unit,Note\nA,"two, rooms"\n', [["Unit", "Note"], ["A", "two, rooms"]], ","),
        ],
    )
    def test_delimiters(self, data, rows, delimiter):
        document = read("a.csv", data)
        (table,) = document.tables
        assert [[words_of(document, c) for c in table.row_cells(r)] for r in range(table.rows)] == rows

    def test_places_in_delimited_text(self):
        document = read("rents.csv")
        cite = cite_of(document, "Dyehouse")
        assert (cite.place, cite.target) == ("row 3, column A", "rents.csv#row=3")

    def test_uneven_rows_are_said(self):
        assert "1 row with more or fewer cells than the usual 2" in [
            str(p) for p in read("a.csv", b"a,b\nc,d\ne,f,g\n").problems
        ]

    def test_sheets_of_opendocument(self):
        document = read("rents.ods")
        assert cite_of(document, "£12,500").place == "Rents!B1"
        assert [m.value for m in document.marks if m.kind == "formula"] == ["=[.B1]*2"]
        assert "sheet Rents: hidden rows 2; read all the same" in [str(p) for p in document.problems]


class TestSlides:
    def test_titles_tables_charts_and_notes(self):
        document = read("deck.pptx")
        assert [(s.heading, document.pages_of(s.span)[0]) for s in document.sections] == [
            ("Choice of premises", 1),
            ("Rent by year", 2),
        ]
        table, chart = document.tables
        assert [words_of(document, c) for c in table.cells] == ["Site", "Rent", "Canal Works", "£42,000"]
        assert [words_of(document, c) for c in chart.cells] == ["Rent, £000", "2026", "42", "2027", "44.5"]
        assert [b.span.of(document.text) for b in document.blocks if b.kind == "note"] == [
            "Say that the rent is negotiable."
        ]
        assert cite_of(document, "Canal Works").place == "slide 1, Choice of premises"

    def test_slides_of_opendocument(self):
        document = read("deck.odp")
        assert [(b.kind, b.span.of(document.text)) for b in document.blocks] == [
            ("heading", "Premises"),
            ("paragraph", "Three sites"),
        ]
        assert document.pages[0].name == "Premises"


class TestTexts:
    def test_opendocument_text(self):
        document = read("lease.odt")
        assert [(b.kind, b.span.of(document.text)) for b in document.blocks][:3] == [
            ("heading", "Lease"),
            ("paragraph", RENT),
            ("note", "Excluding VAT."),
        ]
        (table,) = document.tables
        assert [(c.row, c.column, c.column_span, words_of(document, c)) for c in table.cells] == [
            (0, 0, 2, "Term"),
            (1, 0, 1, "Years"),
            (1, 1, 1, "10"),
        ]

    def test_hidden_words_and_comments_of_opendocument(self):
        style = (
            '<style:style style:name="H" style:family="text"><style:text-properties text:display="none"/></style:style>'
        )
        body = '<text:p>Rent <text:span text:style-name="H">nil </text:span>due<office:annotation><dc:creator>Ida</dc:creator><text:p>check</text:p></office:annotation> now</text:p>'
        document = read("a.odt", opendocument("text", body, style))
        assert document.text == "Rent due now"
        assert [m.value for m in document.marks if m.kind == "comment"] == ["Ida: check"]
        assert "1 words set as hidden left out" in str(document.problems[0])

    def test_pages_of_text_by_form_feeds(self):
        document = read("lease.txt")
        assert len(document.pages) == 2
        assert cite_of(document, RENT).pages == (2, 2)
        assert cite_of(document, "Deposit").pages == (1, 1)

    def test_chapters_of_a_book(self):
        document = read("wool.epub")
        assert document.recorded_title == "Handbook of wool"
        assert [(s.heading, document.pages_of(s.span)[0]) for s in document.sections] == [
            ("Scouring", 1),
            ("Carding", 2),
        ]

    def test_turns_of_a_plain_transcript(self):
        turns = "\n\n".join(f"[09:3{i}:12] IDA TEASEL: It is point {i}." for i in range(4))
        document = read("a.txt", turns.encode())
        assert cite_of(document, "point 2").place == "09:32:12 IDA TEASEL"
        assert cite_of(document, "point 2").target == "a.txt#line=4,5"


class TestTranscripts:
    def test_turns_speakers_and_times(self):
        document = read("call.vtt")
        assert [b.span.of(document.text) for b in document.blocks] == [
            "Call about the premises, 3 April 2026", "Ida Teasel: Good morning. The rent is twelve thousand five hundred.", "Owen Fell: Thank you.",
        ]  # fmt: skip
        cite = cite_of(document, "twelve thousand")
        assert (cite.place, cite.target) == ("00:00:04 Ida Teasel", "call.vtt#t=4.2")

    def test_names_in_subtitles(self):
        assert cite_of(read("call.srt"), "What is").place == "00:00:05 OWEN FELL"

    def test_malformed_cues_are_counted(self):
        document = read("a.vtt", (CAPTIONS + "\n99:99 --> x\nlost\n").encode())
        assert any("of 4 cues are malformed" in p.what for p in document.problems)

    def test_no_cues(self):
        with pytest.raises(UnreadableError, match="no cue with times and words"):
            read("a.vtt", b"WEBVTT\n\nNOTE nothing\n")


class TestMail:
    def test_each_mail_of_a_chain_is_wrapped_at_its_own_width(self):
        body = f"Dear Ida, {'we agree to all of it and thank you for it ' * 4}.\n\n> The ship berthed on 19 May and the wool was delivered to\n> Goole on the 22nd, as we told you.\n>> Is it dry?\n"
        document = read("a.eml", f"From: a@b.example\nSubject: Wool\n\n{body}".encode())
        words = [b.span.of(document.text) for b in document.blocks if b.kind == "paragraph"]
        assert words[1:] == [
            "The ship berthed on 19 May and the wool was delivered to Goole on the 22nd, as we told you.", "Is it dry?",
        ]  # fmt: skip

    def test_headers_words_and_attachment(self):
        mail, attached = read_data(MAIL, "offer.eml", SKIP)
        document = mail.document
        (headers,) = document.tables
        assert [words_of(document, c) for c in headers.row_cells(3)] == ["Subject:", "Rent of the Weighhouse – offer"]
        assert [b.span.of(document.text) for b in document.blocks if b.kind != "table"] == [
            "We offer the Weighhouse at £12,500 a year.", "Sent: 1 April 2026", "Could you let us know the rent?",
        ]  # fmt: skip
        assert dict(document.properties)["sent"] == "2026-04-03T09:30:00+01:00"
        assert document.attachments == ("rents.csv",)
        assert (attached.path, attached.document.parent, attached.document.format) == (
            "offer.eml/rents.csv",
            "offer.eml",
            "csv",
        )

    def test_a_box_of_mails(self):
        readings = read_data(SAMPLES["box.mbox"](), "box.mbox", SKIP)
        assert [r.path for r in readings] == ["box.mbox/0001.eml", "box.mbox/0001.eml/rents.csv", "box.mbox/0002.eml"]
        assert "From our side, agreed." in readings[2].document.text

    def test_a_mail_in_a_mail(self):
        outer = (
            b"From: a@b.example\r\nSubject: Fwd\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=z\r\n\r\n--z\r\nContent-Type: text/plain\r\n\r\nSee below.\r\n--z\r\nContent-Type: message/rfc822\r\n\r\n"
            + MAIL
            + b"\r\n--z--\r\n"
        )
        assert [(r.path, r.document.parent) for r in read_data(outer, "o.eml", SKIP)] == [
            ("o.eml", ""), ("o.eml/part 2.eml", "o.eml"), ("o.eml/part 2.eml/rents.csv", "o.eml/part 2.eml"),
        ]  # fmt: skip


class TestArchives:
    def test_members_and_what_is_passed_over(self):
        readings = read_data(SAMPLES["bundle.zip"](), "bundle.zip", SKIP)
        assert [(r.path, r.document.format if r.document else str(r.error)) for r in readings] == [
            ("bundle.zip/papers/call.srt", "srt"), ("bundle.zip/papers/offer.html", "html"), ("bundle.zip/x.exe", "bundle.zip/x.exe: of a format that is not read"),
        ]  # fmt: skip
        assert all(r.document.parent == "bundle.zip" for r in readings if r.document)

    def test_names_that_lead_out_stay_inside(self):
        (reading,) = read_data(packed({"../../etc/x.txt": "words"}), "b.zip", SKIP)
        assert reading.path == "b.zip/etc/x.txt"

    @pytest.mark.parametrize(
        ("parts", "message"),
        [
            ({"a.txt": b"x" * 40_000_000}, "beyond the limits"),
            ({"a.pdf": b"junk"}, "not a complete PDF"),
            ({"a.txt": b""}, "an empty file"),
        ],
    )
    def test_members_that_are_not_read(self, parts, message):
        (reading,) = read_data(packed(parts), "b.zip", SKIP)
        assert message in str(reading.error)

    def test_too_many_archives_inside_each_other(self):
        data = packed({"a.txt": "words"})
        for depth in range(6):
            data = packed({f"{depth}.zip": data})
        (reading,) = read_data(data, "b.zip", SKIP)
        assert "archives or mails inside each other" in str(reading.error)


class TestWord:
    def edited(self, change):
        import zipfile

        out = io.BytesIO()
        with zipfile.ZipFile(io.BytesIO(docx())) as old, zipfile.ZipFile(out, "w") as new:
            for item in old.namelist():
                data = old.read(item)
                new.writestr(item, change(data.decode()).encode() if item == "word/document.xml" else data)
            new.writestr(
                "word/comments.xml",
                '<w:comments xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:comment w:id="1" w:author="Ida"><w:p><w:r><w:t>Too high</w:t></w:r></w:p></w:comment></w:comments>',
            )
        return read("a.docx", out.getvalue())

    def test_tracked_changes_are_kept_apart(self):
        document = self.edited(lambda x: x.replace(
            "a rent of £12,500.00", 'a rent of </w:t></w:r><w:del w:author="Ida" w:date="2026-04-03T09:00:00Z"><w:r><w:delText>£11,000 </w:delText></w:r></w:del><w:ins w:author="Owen" w:date="2026-04-04T09:00:00Z"><w:r><w:t>£12,000</w:t></w:r></w:ins><w:r><w:t>'))  # fmt: skip
        assert "a rent of £12,000 a year" in document.text
        assert [(c.kind, c.text, c.author, c.date[:10]) for c in document.changes] == [
            ("deleted", "£11,000", "Ida", "2026-04-03"),
            ("inserted", "£12,000", "Owen", "2026-04-04"),
        ]

    def test_comments_and_hidden_words(self):
        document = self.edited(lambda x: x.replace(
            "a rent of £12,500.00", 'a <w:commentRangeStart w:id="1"/>rent</w:t></w:r><w:r><w:commentReference w:id="1"/></w:r><w:r><w:rPr><w:vanish/></w:rPr><w:t> secretly</w:t></w:r><w:r><w:t xml:space="preserve"> of £12,500.00').replace("<w:t>The Tenant", "<w:t>The Tenant"))  # fmt: skip
        assert "secretly" not in document.text
        assert [m.value for m in document.marks if m.kind == "comment"] == ["Ida: Too high"]
        assert {p.what for p in document.problems} == {
            "1 comment in the margin, kept apart from the text",
            "1 word set as hidden left out",
        }


def test_bombs_of_xml_are_not_followed():
    lines = "".join(f'<!ENTITY a{i} "{f"&a{i - 1};" * 10 if i else "ha" * 10}">' for i in range(10))
    page = f'<?xml version="1.0"?><!DOCTYPE x [{lines}]><html xmlns="http://www.w3.org/1999/xhtml"><body><p>before &a9; after</p></body></html>'
    assert len(read("a.xhtml", page.encode()).text) < 1000
    content = f'<?xml version="1.0"?><!DOCTYPE x [{lines}]><office:document-content {OFFICE}><office:body><office:text><text:p>&a9;</text:p></office:text></office:body></office:document-content>'
    with contextlib.suppress(UnreadableError):
        assert len(read("a.odt", packed({"content.xml": content, "META-INF/manifest.xml": "<m/>"})).text) < 1000
