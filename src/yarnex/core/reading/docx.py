"""Word files (.docx, ECMA-376) -> Document: numbering worked out, insertions kept, deletions left out and said."""

from __future__ import annotations

import io
import zipfile
from dataclasses import dataclass, field

from lxml import etree

from yarnex.core.document import Document, Page, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.docx_numbering import Numbering, read_numbering
from yarnex.core.reading.docx_styles import Styles, read_styles
from yarnex.core.reading.layout.headings import contents_of, full_numbers, run_in_heading
from yarnex.core.reading.layout.linear import Linear, lay_out
from yarnex.core.reading.layout.paragraphs import DIVISION, Draft, number_of
from yarnex.core.reading.layout.tables import CellDraft, TableDraft
from yarnex.core.reading.layout.words import Segment, Word
from yarnex.core.reading.names import W, attribute, local_name

MAX_PART = 200_000_000  # bytes of one part once unpacked: more is taken for a trap
PARSER_OPTIONS = {
    "resolve_entities": False,
    "no_network": True,
    "huge_tree": False,
    "remove_comments": True,
    "remove_pis": True,
}
SKIPPED = {
    "del",
    "moveFrom",
    "Fallback",
    "instrText",
    "delText",
    "pPr",
    "rPr",
    "tblPr",
    "tblGrid",
    "sectPr",
    "delInstrText",
}


def read_docx(data: bytes, path: str, sha256: str) -> Document:
    """The document in a .docx file's bytes. Raises UnreadableError where it is none."""
    broken = {"where": path, "do": "open it in a word processor and save it again"}
    try:
        package = zipfile.ZipFile(io.BytesIO(data))
        body = _part(package, "word/document.xml")
    except (
        zipfile.BadZipFile,
        KeyError,
        etree.XMLSyntaxError,
        NotImplementedError,
        RuntimeError,
        OSError,
        EOFError,
        ValueError,
    ):
        raise UnreadableError("not a complete Word file (.docx)", **broken) from None
    with package:
        reader = _Reader(package, read_styles(_optional(package, "word/styles.xml")))
        reader.numbering = read_numbering(_optional(package, "word/numbering.xml"))
        reader.notes = _notes(package)
        reader.read_body(body)
        furniture = _furniture(package, reader)
        title = _core_title(package)
    drafts = reader.drafts
    in_contents = contents_of(drafts)
    for place, draft in enumerate(drafts):
        if place in in_contents:
            draft.kind, draft.number, draft.level, draft.heading = "paragraph", "", 0, ""
    _order_levels(drafts)
    full_numbers(drafts)
    linear = Linear(geometry=False)
    body_end = lay_out(drafts, furniture, linear)
    words_on: dict[int, int] = {}
    for page in linear.pages:
        words_on[page] = words_on.get(page, 0) + 1
    pages = tuple(
        Page(n, "", 0, 0, "text" if n in words_on else "blank", words_on.get(n, 0)) for n in range(1, reader.page + 1)
    )
    return Document(
        path, "docx", sha256, "".join(linear.parts), body_end, pages, tuple(linear.blocks), tuple(linear.tables),
        tuple(linear.sections), linear.fragments(), tuple(reader.problems()), title,
    )  # fmt: skip


def _part(package: zipfile.ZipFile, name: str) -> etree._Element:
    if package.getinfo(name).file_size > MAX_PART:
        raise ValueError(f"{name} unpacks to more than {MAX_PART} bytes")
    return etree.fromstring(package.read(name), etree.XMLParser(**PARSER_OPTIONS))  # type: ignore[arg-type]


def _optional(package: zipfile.ZipFile, name: str) -> etree._Element | None:
    try:
        return _part(package, name)
    except (KeyError, etree.XMLSyntaxError, ValueError):
        return None


def _core_title(package: zipfile.ZipFile) -> str:
    root = _optional(package, "docProps/core.xml")
    if root is None:
        return ""
    return next((e.text.strip() for e in root.iter("{http://purl.org/dc/elements/1.1/}title") if e.text), "")


def _notes(package: zipfile.ZipFile) -> dict[tuple[str, str], etree._Element]:
    """Foot- and endnotes by kind and id; separators are left out."""
    out: dict[tuple[str, str], etree._Element] = {}
    for kind in ("footnote", "endnote"):
        root = _optional(package, f"word/{kind}s.xml")
        for note in root if root is not None else ():
            if attribute(note, "type") in ("", "normal"):
                out[kind, attribute(note, "id")] = note
    return out


def _furniture(package: zipfile.ZipFile, reader: _Reader) -> list[Draft]:
    """Headers and footers, each different text once."""
    out: list[Draft] = []
    seen: set[str] = set()
    for name in sorted(package.namelist()):
        if not name.startswith(("word/header", "word/footer")) or not name.endswith(".xml"):
            continue
        root = _optional(package, name)
        for paragraph in root.iter(f"{W}p") if root is not None else ():
            words = reader.words(paragraph)
            text = " ".join(w.text for w in words)
            if words and text not in seen:
                seen.add(text)
                out.append(Draft("furniture", [(0, words)]))
    return out


def _order_levels(drafts: list[Draft]) -> None:
    """Headings found by look alone take the level below the schedule or heading that they stand in."""
    base = 0
    for draft in drafts:
        if draft.kind == "heading" and DIVISION.match(draft.number or draft.heading):
            draft.level = 1
            base = 1
        elif draft.level and base and draft.level < 9 and not draft.number.lower().startswith(("article", "schedule")):
            styled = draft.kind == "heading" and draft.level == 1 and not draft.number
            base = 0 if styled else base
            draft.level += base


@dataclass(slots=True)
class _Reader:
    package: zipfile.ZipFile
    styles: Styles
    numbering: Numbering = field(default_factory=Numbering)
    notes: dict[tuple[str, str], etree._Element] = field(default_factory=dict)
    drafts: list[Draft] = field(default_factory=list)
    page: int = 0  # 0 until the file proves that it records pages
    inserted: int = 0
    deleted: int = 0
    pictures: int = 0
    pending: list[tuple[str, etree._Element]] = field(default_factory=list)  # notes and text boxes met in a paragraph

    def problems(self) -> list[Problem]:
        out = []
        if self.inserted or self.deleted:
            said = (
                f"tracked changes: {self.inserted} inserted and read as accepted, {self.deleted} deleted and left out"
            )
            out.append(Problem(said, do="look at the changes in the file itself", serious=False))
        if not self.drafts:
            out.append(Problem("no text in it" + (" (pictures only)" if self.pictures else "")))
        return out

    def read_body(self, root: etree._Element) -> None:
        if next(root.iter(f"{W}lastRenderedPageBreak"), None) is not None:
            self.page = 1
        for body in root.iter(f"{W}body"):
            self.blocks(body, self.drafts)

    def blocks(self, parent: etree._Element, out: list[Draft]) -> None:
        for item in parent:
            name = local_name(item)
            if name == "p":
                self.paragraph(item, out)
            elif name == "tbl":
                table = self.table(item)
                if table is not None:
                    out.append(Draft("table", table=table, table_page=self.page))
                self.flush(out)
            elif name in ("sdt", "sdtContent", "ins", "customXml", "smartTag", "moveTo"):
                self.blocks(item, out)
            elif name in ("del", "moveFrom"):
                self.deleted += 1

    def flush(self, out: list[Draft]) -> None:
        """Notes and text boxes stand as blocks of their own after the paragraph that holds them."""
        pending, self.pending = self.pending, []
        for kind, element in pending:
            if kind == "note":
                words = [w for p in element.iter(f"{W}p") for w in self.words(p)]
                if words:
                    out.append(Draft("note", [(self.page, words)]))
            else:
                self.blocks(element, out)

    def paragraph(self, element: etree._Element, out: list[Draft]) -> None:
        start_page = self.page
        words = self.words(element)
        style = self.styles.of(element)
        number, depth = self.numbering.next_number(element, style)
        if words:
            draft = Draft(
                "paragraph", [(start_page if start_page == self.page else self._page_of(element, start_page), words)]
            )
            draft.bold = all(w.bold for w in words)
            typed, rest = number_of(draft.text)
            draft.number = number or typed
            self.classify(draft, style.heading_level, depth, draft.text if number else rest, bool(number))
            out.append(draft)
        self.flush(out)

    def _page_of(self, element: etree._Element, start: int) -> int:
        """The page on which a paragraph starts: a break before its first word moves it to the next."""
        for item in element.iter(f"{W}t", f"{W}lastRenderedPageBreak"):
            if local_name(item) == "lastRenderedPageBreak":
                return start + 1
            if (item.text or "").strip():
                return start
        return start

    def classify(self, draft: Draft, styled: int, depth: int, rest: str, automatic: bool) -> None:
        text = draft.text
        short = len(text) < 130 and not text.endswith((";", ","))
        division = DIVISION.match(draft.number or text)
        if styled and (short or len(text) < 200):
            draft.kind, draft.level = "heading", styled
            draft.heading = rest.strip(" .:")
        elif short and draft.bold and not text.endswith((".", ":")) and (division or draft.number or text.isupper()):
            draft.kind, draft.heading = "heading", rest.strip(" .:") if draft.number else text
            draft.level = 1 if not draft.number or division else self._depth(draft.number, depth)
        elif draft.number:
            draft.level = self._depth(draft.number, depth)
            if automatic:
                bold = _leading_bold(draft)
                draft.heading = (
                    bold or run_in_heading(Draft("paragraph", draft.lines), "1", "1 " + text) or _title_of(text)
                )
            else:
                draft.heading = run_in_heading(draft, draft.number, rest)
        if draft.kind == "heading" and division and not draft.number:
            words = text.split()
            draft.number, draft.heading = " ".join(words[:2]).strip(" .:–—-"), " ".join(words[2:]).strip(" .:–—-")

    @staticmethod
    def _depth(number: str, depth: int) -> int:
        bare = number.split()[-1]
        if bare[:1].isdigit():
            return bare.strip(".").count(".") + 1
        return 9 if not number[:1].isalpha() or len(number) <= 3 else max(1, depth)

    def words(self, paragraph: etree._Element) -> list[Word]:
        """The words of a paragraph; a word may be spread over runs with different looks."""
        letters: list[str] = []
        bold: list[bool] = []
        base = self.styles.of(paragraph).bold

        def put(text: str, heavy: bool) -> None:
            letters.append(text)
            bold.extend([heavy] * len(text))

        def walk(element: etree._Element, heavy: bool) -> None:
            for item in element:
                name = local_name(item)
                if name in SKIPPED:
                    self.deleted += name in ("del", "moveFrom")
                elif name == "r":
                    walk(item, self.styles.run_bold(item, heavy))
                elif name == "t":
                    put(item.text or "", heavy)
                elif name in ("tab", "br", "cr", "ptab"):
                    put(" ", heavy)
                elif name in ("noBreakHyphen", "softHyphen"):
                    put("-" if name == "noBreakHyphen" else "", heavy)
                elif name == "sym":
                    put(_symbol(item), heavy)
                elif name == "lastRenderedPageBreak":
                    self.page += 1
                elif name in ("footnoteReference", "endnoteReference"):
                    note = self.notes.get((name.removesuffix("Reference"), attribute(item, "id")))
                    if note is not None:
                        self.pending.append(("note", note))
                elif name == "txbxContent":
                    self.pending.append(("box", item))
                elif name == "ins":
                    self.inserted += 1
                    walk(item, heavy)
                else:
                    self.pictures += name == "blip"
                    walk(item, heavy)

        walk(paragraph, base)
        text = "".join(letters)
        out: list[Word] = []
        offset = 0
        for token in text.split():
            at = text.index(token, offset)
            offset = at + len(token)
            out.append(Word(token, 0, 0, 0, 0, 10.0, bold[at]))
        return out

    def table(self, element: etree._Element) -> TableDraft | None:
        cells: list[CellDraft] = []
        open_merges: dict[int, CellDraft] = {}
        row_place = -1
        columns = 0
        heads = 0
        for row in _rows(element):
            row_place += 1
            heads += next(row.iter(f"{W}tblHeader"), None) is not None and heads == row_place
            column = 0
            for cell in _cells(row):
                properties = cell.find(f"{W}tcPr")
                width, merge = 1, None
                if properties is not None:
                    grid = properties.find(f"{W}gridSpan")
                    width = max(1, min(100, int(attribute(grid, "val") or 1))) if grid is not None else 1
                    merge = properties.find(f"{W}vMerge")
                if merge is not None and attribute(merge, "val") != "restart" and column in open_merges:
                    open_merges[column].row_span += 1
                else:
                    draft = CellDraft(row_place, column, 1, width, self._cell_lines(cell))
                    cells.append(draft)
                    if merge is not None:
                        open_merges[column] = draft
                    else:
                        open_merges.pop(column, None)
                column += width
            columns = max(columns, column)
        if not any(c.lines for c in cells):
            return None
        first = [line.bold for c in cells if c.row == 0 for line in c.lines]
        others = [line.bold for c in cells if c.row > 0 for line in c.lines]
        header = heads or int(bool(first) and all(first) and not all(others) and row_place > 0)
        return TableDraft(cells, row_place + 1, columns, header, True, 0, 0, 0, 0)

    def _cell_lines(self, cell: etree._Element) -> list[Segment]:
        lines = []
        for paragraph in cell.iter(f"{W}p"):
            if words := self.words(paragraph):
                lines.append(Segment(words))
        return lines


def _rows(table: etree._Element) -> list[etree._Element]:
    return [row for row in table.iter(f"{W}tr") if next(row.iterancestors(f"{W}tbl")) is table]


def _cells(row: etree._Element) -> list[etree._Element]:
    return [cell for cell in row.iter(f"{W}tc") if next(cell.iterancestors(f"{W}tr")) is row]


def _symbol(item: etree._Element) -> str:
    code = attribute(item, "char")
    value = int(code, 16) if code else 0
    return "•" if value >= 0xF000 or not value else chr(value)


def _leading_bold(draft: Draft) -> str:
    words = draft.lines[0][1]
    bold: list[str] = []
    for word in words:
        if not word.bold:
            break
        bold.append(word.text)
    if 0 < len(bold) <= 12 and len(bold) < len(words) and bold[0][:1].isupper():
        return " ".join(bold).strip(" .:–—-")
    return ""


def _title_of(text: str) -> str:
    """A short numbered line that is all title: "Rent" or "Rent review"."""
    if len(text) < 60 and len(text.split()) <= 7 and text[:1].isupper() and not text.endswith((".", ";", ":", ",")):
        return text
    return ""
