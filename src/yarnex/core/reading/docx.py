"""Word files (.docx, ECMA-376) -> Document: numbering worked out, insertions kept, deletions left out and said."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace

from lxml import etree

from yarnex.core.document import Change, Document, Problem
from yarnex.core.document.clause_numbers import number_of
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.docx_numbering import Numbering, read_numbering
from yarnex.core.reading.docx_styles import Styles, read_styles
from yarnex.core.reading.inline import Inline
from yarnex.core.reading.layout.headings import contents_of, full_numbers, run_in_heading
from yarnex.core.reading.layout.paragraphs import DIVISION, Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import Segment
from yarnex.core.reading.names import W, attribute, local_name, switched_on
from yarnex.core.reading.package import BROKEN, Package, core_properties
from yarnex.core.reading.shades import colour_name, parse_colour

LABEL_WORDS, VALUE_WORDS = 8, 15  # at most, of what stands before a tab and behind it in a list of particulars
SKIPPED = {
    "Fallback",
    "instrText",
    "pPr",
    "rPr",
    "tblPr",
    "tblGrid",
    "sectPr",
    "delInstrText",
}


def read_docx(data: bytes, path: str, sha256: str) -> Document:
    """The document in a .docx, .docm or .dotx file's bytes. Raises UnreadableError where it is none."""
    package = Package(data, path, "Word file (.docx)")
    main = next((n for n in package.names if re.fullmatch(r"word/document\d*\.xml", n)), "word/document.xml")
    try:
        body = package.xml(main)
    except BROKEN:
        raise UnreadableError(
            "not a complete Word file (.docx)", where=path, do="open it in its own program and save it again"
        ) from None
    reader = _Reader(read_styles(package.optional("word/styles.xml")))
    reader.numbering = read_numbering(package.optional("word/numbering.xml"))
    reader.notes = _notes(package)
    reader.comments = _comments(package)
    reader.read_body(body)
    furniture = _furniture(package, reader)
    title, properties = core_properties(package)
    drafts = reader.drafts
    in_contents = contents_of(drafts)
    for place, draft in enumerate(drafts):
        if place in in_contents:
            draft.kind, draft.number, draft.level, draft.heading = "paragraph", "", 0, ""
    _order_levels(drafts)
    full_numbers(drafts)
    document = assemble(
        drafts, path=path, format="docx", sha256=sha256, furniture=furniture, pages=reader.page, paging="page" if reader.page else "",
        problems=reader.problems(), title=title, properties=properties,
    )  # fmt: skip
    return replace(
        document,
        changes=_changes(document),
        marks=tuple(m for m in document.marks if m.kind not in ("inserted", "deleted")),
    )


def _changes(document: Document) -> tuple[Change, ...]:
    """The tracked changes, from the marks that were set while reading."""
    out = []
    for mark in document.marks:
        if mark.kind in ("inserted", "deleted"):
            author, date, text = mark.value.split("\t", 2)
            words = mark.span.of(document.text) if mark.kind == "inserted" else text
            out.append(
                Change(mark.kind, words, author, date, mark.span.start if mark.kind == "inserted" else mark.span.end)
            )
    return tuple(out)


def _notes(package: Package) -> dict[tuple[str, str], etree._Element]:
    """Foot- and endnotes by kind and id; separators are left out."""
    out: dict[tuple[str, str], etree._Element] = {}
    for kind in ("footnote", "endnote"):
        root = package.optional(f"word/{kind}s.xml")
        for note in root if root is not None else ():
            if attribute(note, "type") in ("", "normal"):
                out[kind, attribute(note, "id")] = note
    return out


def _comments(package: Package) -> dict[str, str]:
    """Comments by id: who wrote them and what they say."""
    out: dict[str, str] = {}
    root = package.optional("word/comments.xml")
    for item in root if root is not None else ():
        words = " ".join(" ".join(t.text or "" for t in p.iter(f"{W}t")) for p in item.iter(f"{W}p"))
        out[attribute(item, "id")] = f"{attribute(item, 'author')}: {' '.join(words.split())}".strip(": ")
    return out


def _furniture(package: Package, reader: _Reader) -> list[Draft]:
    """Headers and footers, each different text once."""
    out: list[Draft] = []
    seen: set[str] = set()
    for name in sorted(package.names):
        if not name.startswith(("word/header", "word/footer")) or not name.endswith(".xml"):
            continue
        root = package.optional(name)
        for paragraph in root.iter(f"{W}p") if root is not None else ():
            words = reader.inline(paragraph).words()
            text = " ".join(w.text for w in words)
            if words and text not in seen:
                seen.add(text)
                out.append(Draft("furniture", [(0, words)]))
    reader.pending.clear()
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
    styles: Styles
    numbering: Numbering = field(default_factory=Numbering)
    notes: dict[tuple[str, str], etree._Element] = field(default_factory=dict)
    drafts: list[Draft] = field(default_factory=list)
    page: int = 0  # 0 until the file proves that it records pages
    inserted: int = 0
    deleted: int = 0
    pictures: int = 0
    hidden: int = 0  # words set as hidden
    comments: dict[str, str] = field(default_factory=dict)
    remarks: int = 0
    pending: list[tuple[str, etree._Element]] = field(default_factory=list)  # notes and text boxes met in a paragraph
    tabbed: dict[int, list[Inline]] = field(
        default_factory=dict
    )  # columns of paragraphs with tabs, by their draft's id

    def problems(self) -> list[Problem]:
        out = []
        if self.inserted or self.deleted:
            said = (
                f"tracked changes: {self.inserted} inserted and read as accepted, {self.deleted} deleted and left out"
            )
            out.append(Problem(said, do="yarnex read --changes shows them", serious=False))
        if self.remarks:
            out.append(
                Problem(
                    f"{self.remarks} comment{'s' * (self.remarks > 1)} in the margin, kept apart from the text",
                    do="yarnex read --changes shows them",
                    serious=False,
                )
            )
        if self.hidden:
            out.append(
                Problem(
                    f"{self.hidden} word{'s' * (self.hidden > 1)} set as hidden left out",
                    do="look at them in the file itself",
                    serious=False,
                )
            )
        if not self.drafts:
            out.append(Problem("no text in it" + (" (pictures only)" if self.pictures else "")))
        return out

    def read_body(self, root: etree._Element) -> None:
        if next(root.iter(f"{W}lastRenderedPageBreak"), None) is not None:
            self.page = 1
        for body in root.iter(f"{W}body"):
            self.blocks(body, self.drafts)
        self.drafts = self._tables_of_tabs()

    def _tables_of_tabs(self) -> list[Draft]:
        """Paragraphs in a row that are cut into as many columns by tabs become a table; a list of contents does not."""
        out: list[Draft] = []
        run: list[Draft] = []
        for draft in [*self.drafts, None]:
            columns = self.tabbed.get(id(draft)) if draft is not None else None
            if run and (columns is None or len(columns) != len(self.tabbed[id(run[0])])):
                out += _table_of_tabs(run, self.tabbed)
                run = []
            if columns is not None and draft is not None:
                run.append(draft)
            elif draft is not None:
                out.append(draft)
        return out

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
                _mark_deleted(item, out)

    def flush(self, out: list[Draft]) -> None:
        """Notes and text boxes stand as blocks of their own after the paragraph that holds them."""
        pending, self.pending = self.pending, []
        for kind, element in pending:
            if kind == "note":
                words = [w for p in element.iter(f"{W}p") for w in self.inline(p).words()]
                if words:
                    out.append(Draft("note", [(self.page, words)]))
            else:
                self.blocks(element, out)

    def paragraph(self, element: etree._Element, out: list[Draft]) -> None:
        start_page = self.page
        inline = self.inline(element)
        style = self.styles.of(element)
        number, depth = self.numbering.next_number(element, style)
        inline.page = start_page if start_page == self.page else self._page_of(element, start_page)
        for part in inline.lines():
            part.page = inline.page
            draft = part.draft()
            if draft is not None:
                typed, rest = number_of(draft.text)
                draft.number = number or typed
                self.classify(draft, style.heading_level, depth, draft.text if number else rest, bool(number))
                out.append(draft)
                if draft.kind == "paragraph" and not draft.number and len(columns := part.columns()) > 1:
                    self.tabbed[id(draft)] = columns
                number = ""
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

    def inline(self, paragraph: etree._Element) -> Inline:
        """The words of a paragraph with their marks; a word may be spread over runs with different looks."""
        inline = Inline(self.page)
        open_comments: dict[str, int] = {}

        def walk(element: etree._Element, heavy: bool) -> None:
            for item in element:
                name = local_name(item)
                if name in SKIPPED:
                    continue
                if name in ("del", "moveFrom"):
                    self.deleted += 1
                    gone = "".join(t.text or "" for t in item.iter(f"{W}delText", f"{W}t"))
                    if gone.strip():
                        inline.mark(max(0, inline.at - 1), "deleted", _change(item, gone))
                elif name == "r":
                    properties = item.find(f"{W}rPr")
                    if properties is not None and switched_on(properties.find(f"{W}vanish")):
                        self.hidden += len("".join(t.text or "" for t in item.iter(f"{W}t")).split())
                    elif properties is not None and (figures := _raised_figures(item, properties)):
                        inline.put_raised(figures, self.styles.run_bold(item, heavy))
                    else:
                        walk(item, self.styles.run_bold(item, heavy))
                elif name == "t":
                    inline.put(item.text or "", heavy)
                elif name in ("tab", "ptab"):
                    inline.tab(heavy)
                elif name in ("br", "cr"):
                    if attribute(item, "type") in ("page", "column"):
                        inline.put(" ", heavy)
                    else:
                        inline.break_line(heavy)
                elif name in ("noBreakHyphen", "softHyphen"):
                    inline.put("-" if name == "noBreakHyphen" else "", heavy)
                elif name == "sym":
                    inline.put(_symbol(item), heavy)
                elif name == "lastRenderedPageBreak":
                    self.page += 1
                elif name in ("footnoteReference", "endnoteReference"):
                    note = self.notes.get((name.removesuffix("Reference"), attribute(item, "id")))
                    if note is not None:
                        self.pending.append(("note", note))
                elif name == "commentRangeStart":
                    open_comments[attribute(item, "id")] = inline.at
                elif name == "commentReference":
                    said = self.comments.get(attribute(item, "id"), "")
                    if said:
                        self.remarks += 1
                        inline.mark(
                            min(open_comments.get(attribute(item, "id"), inline.at), max(0, inline.at - 1)),
                            "comment",
                            said,
                        )
                elif name == "txbxContent":
                    self.pending.append(("box", item))
                elif name == "checkBox":
                    ticked = item.find(f"{W}checked")
                    inline.put(
                        "☒" if switched_on(ticked if ticked is not None else item.find(f"{W}default")) else "☐", heavy
                    )
                elif name in ("ins", "moveTo"):
                    self.inserted += 1
                    start = inline.at
                    walk(item, heavy)
                    inline.mark(start, "inserted", _change(item, ""))
                else:
                    self.pictures += name == "blip"
                    walk(item, heavy)

        walk(paragraph, self.styles.of(paragraph).bold)
        return inline

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
                    draft = self._cell(cell, row_place, column, width)
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
        _mark_labels(cells)
        return TableDraft(cells, row_place + 1, columns, header, True, 0, 0, 0, 0)

    def _cell(self, cell: etree._Element, row: int, column: int, width: int) -> CellDraft:
        """One cell, a line for each of its paragraphs."""
        draft = CellDraft(row, column, 1, width, [])
        ground = cell.find(f"{W}tcPr/{W}shd")
        colour = parse_colour(attribute(ground, "fill")) if ground is not None else None
        draft.shade = colour_name(colour) if colour else ""
        offset = 0
        for paragraph in cell.iter(f"{W}p"):
            for inner in [part.draft() for part in self.inline(paragraph).lines()]:
                if inner is None:
                    continue
                draft.lines.append(Segment(inner.lines[0][1]))
                draft.marks += [(a + offset, b + offset, kind, value) for a, b, kind, value in inner.marks]
                offset += len(inner.text) + 1
                if not draft.indent:
                    left = paragraph.find(f"{W}pPr/{W}ind")
                    said = attribute(left, "left") or attribute(left, "start")
                    draft.indent = int(said) / 20 if said.lstrip("-").isdigit() else 0.0
        return draft


def _raised_figures(run: etree._Element, properties: etree._Element) -> str:
    """The figures of a run that is set above the line and holds nothing else, "" for others."""
    raised = properties.find(f"{W}vertAlign")
    if raised is None or attribute(raised, "val") != "superscript":
        return ""
    if any(local_name(child) not in ("rPr", "t") for child in run):
        return ""
    text = "".join(t.text or "" for t in run.iter(f"{W}t"))
    return text if text.isdigit() else ""


def _table_of_tabs(run: list[Draft], tabbed: dict[int, list[Inline]]) -> list[Draft]:
    rows = [tabbed[id(d)] for d in run]
    texts = [[" ".join(w.text for w in part.words()) for part in row] for row in rows]
    label = all(len(t[0].split()) <= LABEL_WORDS and not re.search(r";\Z|[a-z]{4}\.\Z", t[0]) for t in texts)
    contents = all(re.fullmatch(r"\d{1,4}|[ivxl]{1,6}", t[-1]) for t in texts) and len(run) > 2
    long = any(len(t.split()) > VALUE_WORDS or t.startswith("means ") for row in texts for t in row[1:])
    if len(run) < 2 or not label or contents or long:
        return run
    cells = [part.cell(r, c) for r, row in enumerate(rows) for c, part in enumerate(row)]
    table = TableDraft(cells, len(rows), len(rows[0]), 0, False, 0, 0, 0, 0)
    table.header_rows = header_rows(table)
    return [Draft("table", table=table, table_page=run[0].lines[0][0])]


def _mark_labels(cells: list[CellDraft]) -> None:
    """Cells that stand side by side, each with a short line over others, are a form: "Customer" over a name and address."""
    by_row: dict[int, list[CellDraft]] = {}
    for cell in cells:
        if cell.lines:
            by_row.setdefault(cell.row, []).append(cell)
    for filled in by_row.values():
        if len(filled) < 2 or any(len(c.lines) < 2 for c in filled):
            continue
        heads = [c.lines[0].text for c in filled]
        if all(re.fullmatch(r"[A-Z][^\d.,;:]{1,30}", h) and len(h.split()) <= 3 for h in heads):
            for cell, head in zip(filled, heads, strict=True):
                cell.marks.append((0, len(head), "label", head))


def _change(item: etree._Element, text: str) -> str:
    return "\t".join((attribute(item, "author"), attribute(item, "date"), " ".join(text.split())))


def _mark_deleted(item: etree._Element, out: list[Draft]) -> None:
    """A deletion between paragraphs hangs on the end of the last one."""
    gone = "".join(t.text or "" for t in item.iter(f"{W}delText", f"{W}t"))
    if out and out[-1].lines and gone.strip():
        length = len(out[-1].text)
        out[-1].marks.append((length - 1, length, "deleted", _change(item, gone)))


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
