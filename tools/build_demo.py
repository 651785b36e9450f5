"""Build the demo documents from their sources: two PDFs by different producers and two Word files.

    python tools/build_demo.py

Sources: tools/demo_documents/*.txt. Results: src/yarnex/demo/documents/. The same sources give the same files.

Marks in the sources: `# Heading` numbered clause group, plain lines numbered clauses below it, `- item` lettered item,
`## HEADING` division, `| a | b` table row, `1. text` numbered paragraph of a schedule, `**Words.**` bold lead,
`((old->new))` tracked change, `{{fn:...}}` footnote, `[[bar:...]]` words under a black bar, `!page` new page,
`!title`, `!sub`, `!front` lines of the front, `!contents`, `!box` text box, `!sign a | b` signatures.
"""

from __future__ import annotations

import io
import re
import zipfile
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path

HERE = Path(__file__).parent
SOURCES = HERE / "demo_documents"
TARGET = HERE.parent / "src" / "yarnex" / "demo" / "documents"
DAY = datetime(2026, 11, 2, 9, 0, tzinfo=UTC)


@dataclass
class Item:
    """kind: title, sub, front, contents, page, division, group, clause, letter, row, plain, box, sign."""

    kind: str
    text: str = ""
    number: str = ""
    cells: list[str] = field(default_factory=list)


def parse(name: str) -> list[Item]:
    items: list[Item] = []
    group = clause = letter = 0
    for line in (SOURCES / f"{name}.txt").read_text("utf-8").splitlines():
        if not line.strip():
            continue
        if line.startswith("!"):
            word, _, rest = line[1:].partition(" ")
            items.append(Item(word, rest, cells=[c.strip() for c in rest.split("|")] if word == "sign" else []))
        elif line.startswith("## "):
            items.append(Item("division", line[3:]))
            group = 0 if "SCHEDULE" in line or "ANNEX" in line else group
            clause = -1
        elif line.startswith("# "):
            group, clause, letter = group + 1, 0, 0
            items.append(Item("group", line[2:], str(group)))
        elif line.startswith("- "):
            letter += 1
            items.append(Item("letter", line[2:], f"({chr(96 + letter)})"))
        elif line.startswith("|"):
            items.append(
                Item(
                    "row",
                    cells=[c.strip() for c in line.strip("| ").split("|")]
                    if not line.startswith("| |")
                    else ["", *[c.strip() for c in line.strip("| ").split("|")]],
                )
            )
        elif clause < 0 or not group or line.startswith('"'):
            items.append(Item("plain", line))
        else:
            clause, letter = clause + 1, 0
            items.append(Item("clause", line, f"{group}.{clause}"))
    return items


def bare(text: str) -> str:
    """Text without marks, for producers that do not show them; tracked changes as accepted."""
    text = re.sub(r"\(\((.*?)->(.*?)\)\)", r"\2", text)
    return re.sub(r"\{\{fn:.*?\}\}", "", text)


# ------------------------------------------------------------------ Canal Works: ReportLab
def canal_works() -> bytes:
    from reportlab import rl_config
    from reportlab.lib.enums import TA_CENTER, TA_JUSTIFY
    from reportlab.lib.pagesizes import A4
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.lib.units import mm
    from reportlab.platypus import (
        BaseDocTemplate,
        Frame,
        NextPageTemplate,
        PageBreak,
        PageTemplate,
        Paragraph,
        Spacer,
        Table,
        TableStyle,
    )

    rl_config.invariant = 1
    items = parse("canal-works")
    body = ParagraphStyle("body", fontName="Times-Roman", fontSize=12, leading=17, alignment=TA_JUSTIFY, spaceAfter=7)
    centre = ParagraphStyle("centre", parent=body, alignment=TA_CENTER)
    head = ParagraphStyle("head", parent=body, fontName="Times-Bold", alignment=0, spaceBefore=10, keepWithNext=1)
    division = ParagraphStyle("division", parent=centre, fontName="Times-Bold", spaceBefore=14, keepWithNext=1)
    clause = ParagraphStyle("clause", parent=body, leftIndent=34, firstLineIndent=-34)
    letter = ParagraphStyle("letter", parent=body, leftIndent=60, firstLineIndent=-26)
    small = ParagraphStyle("small", parent=body, fontSize=10.5, leading=14, alignment=0, spaceAfter=0)

    def marked(text: str) -> str:
        text = text.replace("&", "&amp;")
        return re.sub(r"\*\*(.*?)\*\*", r"<b>\1</b>", bare(text))

    def front(canvas, doc) -> None:  # type: ignore[no-untyped-def]
        canvas.setFont("Times-Roman", 9)
        if doc.page > 1:
            canvas.drawCentredString(A4[0] / 2, 14 * mm, "i" * (doc.page - 1))

    def main(canvas, doc) -> None:  # type: ignore[no-untyped-def]
        canvas.setFont("Times-Italic", 9)
        canvas.drawString(28 * mm, A4[1] - 15 * mm, "Canal Works: Lease")
        canvas.drawRightString(A4[0] - 28 * mm, A4[1] - 15 * mm, "Teasel Estates / Brackenfold Mills")
        canvas.setFont("Times-Roman", 9)
        canvas.drawCentredString(A4[0] / 2, 14 * mm, str(doc.page - 2))

    buffer = io.BytesIO()
    document = BaseDocTemplate(
        buffer,
        pagesize=A4,
        title="Lease of Canal Works",
        author="Quill Harker LLP",
        leftMargin=28 * mm,
        rightMargin=28 * mm,
        topMargin=24 * mm,
        bottomMargin=24 * mm,
    )
    frame = Frame(28 * mm, 22 * mm, A4[0] - 56 * mm, A4[1] - 46 * mm)
    document.addPageTemplates(
        [PageTemplate("front", [frame], onPage=front), PageTemplate("main", [frame], onPage=main)]
    )
    story: list[object] = [Spacer(1, 60)]
    rows: list[list[object]] = []

    def flush() -> None:
        if not rows:
            return
        wide = A4[0] - 56 * mm - 12
        weights = {2: [0.32, 0.68], 3: [0.25, 0.5, 0.25], 4: [0.4, 0.2, 0.2, 0.2]}[len(rows[0])]
        table = Table(rows, colWidths=[wide * w for w in weights], repeatRows=1)
        table.setStyle(
            TableStyle(
                [
                    ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LINEBELOW", (0, 0), (-1, -1), 0.4, (0.6, 0.6, 0.6)),
                    ("LINEABOVE", (0, 0), (-1, 0), 0.8, (0, 0, 0)),
                    ("LINEBELOW", (0, 0), (-1, 0), 0.8, (0, 0, 0)),
                ]
            )
        )
        story.extend([Spacer(1, 4), table, Spacer(1, 8)])
        rows.clear()

    front_done = False
    for item in items:
        if item.kind != "row":
            flush()
        if item.kind == "title":
            story += [
                Paragraph(f"<b>{item.text}</b>", ParagraphStyle("t", parent=centre, fontSize=22, leading=30)),
                Spacer(1, 16),
            ]
        elif item.kind in ("sub", "front"):
            story += [Paragraph(marked(item.text), centre), Spacer(1, 12)]
        elif item.kind == "contents":
            story += [PageBreak(), Paragraph("CONTENTS", division)]
            for other in items:
                if other.kind == "group":
                    story.append(Paragraph(f"{other.number}. {other.text} {'.' * (60 - len(other.text))}", small))
                elif other.kind == "division" and "SCHEDULE" in other.text:
                    story.append(Paragraph(f"{other.text.title()} {'.' * (60 - len(other.text))}", small))
        elif item.kind == "page":
            story += [] if front_done else [NextPageTemplate("main")]
            front_done = True
            story.append(PageBreak())
        elif item.kind == "division":
            number, _, title = item.text.partition(": ")
            story.append(Paragraph(number, division))
            if title:
                story.append(Paragraph(title, division))
        elif item.kind == "group":
            story.append(Paragraph(f"{item.number}. {item.text.upper()}", head))
        elif item.kind == "clause":
            story.append(Paragraph(f"{item.number}&nbsp;&nbsp; {marked(item.text)}", clause))
        elif item.kind == "letter":
            story.append(Paragraph(f"{item.number}&nbsp; {marked(item.text)}", letter))
        elif item.kind == "row":
            style = ParagraphStyle("th", parent=small, fontName="Times-Bold") if not rows else small
            rows.append([Paragraph(marked(c), style) for c in item.cells])
        elif item.kind == "plain":
            story.append(Paragraph(marked(item.text), body))
        elif item.kind == "sign":
            story.append(Paragraph("EXECUTED as a deed by the parties on the date stated at the beginning.", body))
            for party in item.cells:
                story += [
                    Spacer(1, 18),
                    Paragraph(f"<b>{party}</b>", body),
                    Paragraph("Director: ______________________", body),
                    Paragraph("Witness: ______________________", body),
                ]
    flush()
    document.build(story)
    return buffer.getvalue()


# ------------------------------------------------------------------ Northbridge Yard: fpdf2, two columns
def northbridge_yard() -> bytes:
    from fpdf import FPDF

    items = parse("northbridge-yard")
    regular, heavy = _font("DejaVuSerif.ttf"), _font("DejaVuSerif-Bold.ttf")

    class Paper(FPDF):
        def footer(self) -> None:
            self.set_y(-13)
            self.set_font("serif", "", 8)
            self.cell(0, 5, f"Page {self.page_no()} of {{nb}}", align="C")

        def header(self) -> None:
            if self.page_no() > 1:
                self.set_font("serif", "", 8)
                self.set_y(8)
                self.cell(0, 5, "Northbridge Yard, Block C", align="L")
                self.set_y(18)

    paper = Paper(format="A4")
    paper.set_creation_date(DAY)
    paper.set_title("Northbridge Yard lease")
    paper.set_producer("fpdf2")
    if regular and heavy:
        paper.add_font("serif", "", regular)
        paper.add_font("serif", "B", heavy)
    else:
        raise SystemExit("the DejaVu Serif fonts are needed to build the demo documents")
    paper.set_auto_page_break(False)
    paper.set_margins(20, 18, 20)
    paper.add_page()
    width, gap = 170.0, 8.0
    column, columns = 0, 1
    size, leading = 11.5, 6.8
    top = 18.0

    def left() -> float:
        return 20 + column * ((width + gap) / 2)

    def wide() -> float:
        return width if columns == 1 else (width - gap) / 2

    def room(height: float) -> None:
        nonlocal column, top
        if paper.get_y() + height <= 278:
            return
        if columns == 2 and column == 0:
            column = 1
            paper.set_y(top)
        else:
            column = 0
            paper.add_page()
            top = 20.0
            paper.set_y(top)

    def lines_of(text: str, available: float, style: str = "") -> list[str]:
        paper.set_font("serif", style, size)
        out: list[str] = []
        line = ""
        for word in text.split():
            trial = f"{line} {word}".strip()
            if paper.get_string_width(trial) > available and line:
                out.append(line)
                line = word
            else:
                line = trial
        return [*out, line]

    def write(
        text: str, style: str = "", indent: float = 0, mark: str = "", align: str = "L", space: float = 2.6
    ) -> None:
        hidden = re.search(r"\[\[bar:(.*?)\]\]", text)
        text = bare(text)
        lead = re.match(r"\*\*(.*?)\*\*", text)
        plain = re.sub(r"\*\*|\[\[bar:|\]\]", "", text)
        for i, line in enumerate(lines_of(plain, wide() - indent - 1, style)):
            room(leading)
            y = paper.get_y()
            if i == 0 and mark:
                paper.set_font("serif", "", size)
                paper.set_xy(left(), y)
                paper.cell(indent, leading, mark)
            paper.set_xy(left() + indent, y)
            if i == 0 and lead:
                title = lead[1]
                paper.set_font("serif", "B", size)
                paper.cell(paper.get_string_width(title + " "), leading, title)
                paper.set_font("serif", "", size)
                paper.cell(0, leading, line[len(title) :].lstrip())
            else:
                paper.set_font("serif", style, size)
                paper.cell(wide() - indent, leading, line, align=align)
            if hidden:
                for word in [w for w in line.split() if w in hidden[1].split()]:
                    before = line[: line.index(word)]
                    x = left() + indent + paper.get_string_width(before) + 0.8
                    paper.set_fill_color(0, 0, 0)
                    paper.rect(x, y + 0.6, paper.get_string_width(word + " ") + 0.4, leading - 1.2, style="F")
            paper.set_y(y + leading)
        paper.set_y(paper.get_y() + space)

    rows: list[list[str]] = []

    def flush(headed: bool) -> None:
        if not rows:
            return
        weights = {2: (0.34, 0.66), 3: (0.24, 0.5, 0.26)}[len(rows[0])]
        for place, row in enumerate(rows):
            style = "B" if headed and place == 0 else ""
            wrapped = [lines_of(c, wide() * w - 3, style) for c, w in zip(row, weights, strict=True)]
            height = max(map(len, wrapped)) * leading + 1.6
            room(height)
            y, x = paper.get_y(), left()
            for lines, weight in zip(wrapped, weights, strict=True):
                paper.rect(x, y, wide() * weight, height)
                paper.set_font("serif", style, size)
                for i, line in enumerate(lines):
                    paper.set_xy(x + 1, y + 0.8 + i * leading)
                    paper.cell(wide() * weight - 2, leading, line)
                x += wide() * weight
            paper.set_y(y + height)
        paper.set_y(paper.get_y() + 4)
        rows.clear()

    for item in items:
        if item.kind != "row":
            flush(headed=columns == 1 and paper.page_no() > 1)
        if item.kind == "title":
            paper.set_y(30)
            paper.set_font("serif", "B", 17)
            paper.cell(width, 10, item.text, align="C")
            paper.set_y(46)
        elif item.kind in ("sub", "front"):
            write(item.text, align="C")
        elif item.kind == "page":
            columns, column = 1, 0
            paper.add_page()
            paper.set_y(20)
        elif item.kind == "division":
            room(24)
            paper.set_y(paper.get_y() + 3)
            write(item.text, "B", space=3)
        elif item.kind == "group":
            if columns == 1 and item.number == "1":
                columns = 2
                paper.add_page()
                top = 20.0
                paper.set_y(top)
            room(20)
            paper.set_y(paper.get_y() + 2)
            write(f"{item.number}. {item.text}", "B", space=1.6)
        elif item.kind == "clause":
            write(item.text, indent=10, mark=item.number)
        elif item.kind == "plain":
            m = re.match(r"(\d+\.)\s+(.*)", item.text)
            write(m[2] if m else item.text, indent=8 if m else 0, mark=m[1] if m else "")
        elif item.kind == "row":
            rows.append(item.cells)
        elif item.kind == "sign":
            write("SIGNED by the parties on the day and year first written.")
            for party in item.cells:
                room(30)
                paper.set_y(paper.get_y() + 6)
                write(party, "B")
                write("Director: ______________________")
    flush(headed=True)
    return bytes(paper.output())


def _font(name: str) -> str:
    found = sorted(Path("/usr/share/fonts").rglob(name))
    return str(found[0]) if found else ""


# ------------------------------------------------------------------ Word
def word(name: str, *, automatic: bool) -> bytes:
    """A Word file; automatic: clause numbers come from numbering.xml and stand nowhere in the text."""
    from docx import Document
    from docx.enum.text import WD_ALIGN_PARAGRAPH, WD_BREAK
    from docx.oxml import OxmlElement, parse_xml
    from docx.oxml.ns import nsdecls, qn
    from docx.shared import Pt

    document = Document()
    document.core_properties.created = document.core_properties.modified = DAY
    document.core_properties.title = ""
    document.core_properties.author = "Brackenfold Mills"
    style = document.styles["Normal"]
    style.font.name, style.font.size = "Georgia", Pt(11.5)
    style.paragraph_format.space_after, style.paragraph_format.line_spacing = Pt(8), 1.35
    numbering = document.part.numbering_part.element
    levels = [("decimal", "%1."), ("decimal", "%1.%2"), ("lowerLetter", "(%3)")]
    abstract = "".join(
        f'<w:lvl w:ilvl="{i}"><w:start w:val="1"/><w:numFmt w:val="{form}"/><w:lvlText w:val="{text}"/><w:lvlJc w:val="left"/>'
        f'<w:pPr><w:ind w:left="{620 * max(1, i)}" w:hanging="620"/></w:pPr></w:lvl>'
        for i, (form, text) in enumerate(levels)
    )
    first = numbering.find(qn("w:num"))
    made = parse_xml(
        f'<w:abstractNum {nsdecls("w")} w:abstractNumId="77"><w:multiLevelType w:val="multilevel"/>{abstract}</w:abstractNum>'
    )
    first.addprevious(made) if first is not None else numbering.append(made)
    numbering.append(parse_xml(f'<w:num {nsdecls("w")} w:numId="77"><w:abstractNumId w:val="77"/></w:num>'))
    section = document.sections[0]
    section.header.paragraphs[0].text = "Brackenfold Mills: papers on premises"
    footer = section.footer.paragraphs[0]
    footer.text = "Page "
    run = footer.add_run()
    for kind in ("begin", "end"):
        char = OxmlElement("w:fldChar")
        char.set(qn("w:fldCharType"), kind)
        if kind == "end":
            code = OxmlElement("w:instrText")
            code.text = "PAGE"
            run._r.append(code)
        run._r.append(char)
    notes: list[str] = []

    def fill(paragraph, text: str) -> None:  # type: ignore[no-untyped-def]
        for part in re.split(r"(\*\*.*?\*\*|\(\(.*?->.*?\)\)|\{\{fn:.*?\}\})", text):
            change = re.fullmatch(r"\(\((.*?)->(.*?)\)\)", part)
            note = re.fullmatch(r"\{\{fn:(.*?)\}\}", part)
            if part.startswith("**"):
                paragraph.add_run(part.strip("*")).bold = True
            elif change:
                for tag, inner, words in (("w:del", "w:delText", change[1]), ("w:ins", "w:t", change[2])):
                    paragraph._p.append(
                        parse_xml(
                            f'<{tag} {nsdecls("w")} w:id="9{len(words)}" w:author="Landlord" w:date="2026-11-02T09:00:00Z"><w:r><{inner} xml:space="preserve">{words}</{inner}></w:r></{tag}>'
                        )
                    )
            elif note:
                notes.append(note[1])
                paragraph._p.append(
                    parse_xml(
                        f'<w:r {nsdecls("w")}><w:rPr><w:vertAlign w:val="superscript"/></w:rPr><w:footnoteReference w:id="{len(notes) + 1}"/></w:r>'
                    )
                )
            elif part:
                paragraph.add_run(part)

    def numbered(paragraph, level: int) -> None:  # type: ignore[no-untyped-def]
        properties = paragraph._p.get_or_add_pPr()
        properties.append(
            parse_xml(f'<w:numPr {nsdecls("w")}><w:ilvl w:val="{level}"/><w:numId w:val="77"/></w:numPr>')
        )

    rows: list[list[str]] = []

    def flush() -> None:
        if not rows:
            return
        table = document.add_table(rows=0, cols=len(rows[0]))
        table.style = "Table Grid"
        for place, row in enumerate(rows):
            for cell, text in zip(table.add_row().cells, row, strict=True):
                cell.paragraphs[0].add_run(text).bold = place == 0
        document.add_paragraph()
        rows.clear()

    for item in parse(name):
        if item.kind != "row":
            flush()
        if item.kind == "title":
            paragraph = document.add_paragraph()
            paragraph.alignment = WD_ALIGN_PARAGRAPH.CENTER
            run = paragraph.add_run(item.text)
            run.bold, run.font.size = True, Pt(17)
        elif item.kind in ("sub", "front"):
            document.add_paragraph(item.text).alignment = WD_ALIGN_PARAGRAPH.CENTER
        elif item.kind == "page":
            document.add_paragraph().add_run().add_break(WD_BREAK.PAGE)
        elif item.kind in ("division", "group"):
            paragraph = document.add_paragraph(
                style="Heading 1" if item.kind == "group" or not automatic else "Heading 2"
            )
            manual = f"{item.number}. " if item.kind == "group" and not automatic else ""
            paragraph.add_run(manual + item.text)
            if item.kind == "group" and automatic:
                numbered(paragraph, 0)
        elif item.kind in ("clause", "letter"):
            paragraph = document.add_paragraph()
            fill(paragraph, item.text if automatic else f"{item.number} {item.text}")
            if automatic:
                numbered(paragraph, 1 if item.kind == "clause" else 2)
        elif item.kind == "row":
            rows.append(item.cells)
        elif item.kind == "box":
            paragraph = document.add_paragraph()
            shape = (
                f'<w:r {nsdecls("w")} xmlns:v="urn:schemas-microsoft-com:vml"><w:pict><v:shape style="width:360pt;height:40pt" stroked="t"><v:textbox><w:txbxContent>'
                f"<w:p><w:r><w:t>{item.text}</w:t></w:r></w:p></w:txbxContent></v:textbox></v:shape></w:pict></w:r>"
            )
            paragraph._p.append(parse_xml(shape))
        elif item.kind == "sign":
            document.add_paragraph("Signed by the parties:")
            for party in item.cells:
                document.add_paragraph(party)
                document.add_paragraph("Director: ______________________")
        else:
            fill(document.add_paragraph(), item.text)
    flush()
    buffer = io.BytesIO()
    document.save(buffer)
    return _settled(buffer.getvalue(), notes)


def _settled(data: bytes, notes: list[str]) -> bytes:
    """The package again with one date on every part, and with its footnotes."""
    w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"'
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as old, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        parts = {name: old.read(name) for name in old.namelist()}
        if notes:
            body = "".join(
                f'<w:footnote w:id="{i + 2}"><w:p><w:r><w:t>{text}</w:t></w:r></w:p></w:footnote>'
                for i, text in enumerate(notes)
            )
            marks = '<w:footnote w:type="separator" w:id="0"><w:p><w:r><w:separator/></w:r></w:p></w:footnote><w:footnote w:type="continuationSeparator" w:id="1"><w:p><w:r><w:continuationSeparator/></w:r></w:p></w:footnote>'
            parts["word/footnotes.xml"] = (
                f'<?xml version="1.0" encoding="UTF-8" standalone="yes"?><w:footnotes {w}>{marks}{body}</w:footnotes>'.encode()
            )
            parts["[Content_Types].xml"] = parts["[Content_Types].xml"].replace(
                b"</Types>",
                b'<Override PartName="/word/footnotes.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.footnotes+xml"/></Types>',
            )
            name = "word/_rels/document.xml.rels"
            parts[name] = parts[name].replace(
                b"</Relationships>",
                b'<Relationship Id="rIdNotes" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/footnotes" Target="footnotes.xml"/></Relationships>',
            )
        for name, content in parts.items():
            info = zipfile.ZipInfo(name, (2026, 11, 2, 9, 0, 0))
            info.compress_type = zipfile.ZIP_DEFLATED
            new.writestr(info, content)
    return out.getvalue()


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    for name, data in (
        ("canal-works.pdf", canal_works()),
        ("northbridge-yard.pdf", northbridge_yard()),
        ("fellgate-park.docx", word("fellgate-park", automatic=True)),
        ("canal-works-amendment.docx", word("canal-works-amendment", automatic=False)),
        ("aire-facility.docx", word("aire-facility", automatic=True)),
        ("fleece-supply.docx", word("fleece-supply", automatic=False)),
    ):
        (TARGET / name).write_bytes(data)
        print(f"{name}: {len(data):,} bytes")


if __name__ == "__main__":
    main()
