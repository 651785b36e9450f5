"""OpenDocument (ISO/IEC 26300) text, sheets and slides -> Document, from content.xml."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from typing import Any

from lxml import etree

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.inline import Inline
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import Segment
from yarnex.core.reading.package import BROKEN, Package
from yarnex.core.reading.shades import colour_name, parse_colour
from yarnex.core.reading.spreadsheet import Sheet, SheetCell, sheet_drafts, sheet_problems
from yarnex.core.reading.structure import structure

NS = "urn:oasis:names:tc:opendocument:xmlns:"
TEXT, TABLE, OFFICE, DRAW, STYLE = (f"{{{NS}{n}:1.0}}" for n in ("text", "table", "office", "drawing", "style"))
FO = f"{{{NS}xsl-fo-compatible:1.0}}"
PRESENTATION = f"{{{NS}presentation:1.0}}"
DC = "{http://purl.org/dc/elements/1.1/}"
LEFT_OUT = (
    "tracked-changes",
    "sequence-decls",
    "forms",
    "variable-decls",
    "user-field-decls",
    "bookmark",
    "soft-page-break",
)
MAX_REPEAT = 5_000


def read_opendocument(data: bytes, path: str, sha256: str) -> Document:
    """The document in an .odt, .ods or .odp file's bytes. Raises UnreadableError where it is none."""
    package = Package(data, path, "OpenDocument file")
    try:
        root = package.xml("content.xml")
    except BROKEN:
        locked = _locked(package)
        what = "locked with a password" if locked else "not a complete OpenDocument file"
        do = "save a copy without the password" if locked else "save it again in its own program"
        raise UnreadableError(what, where=path, do=do) from None
    body = root.find(f"{OFFICE}body")
    if body is None or not len(body):
        raise UnreadableError("an OpenDocument file without a body", where=path, do="save it again in its own program")
    content = body[0]
    title, properties = _meta(package)
    reader = _Reader(_styles(root, package.optional("styles.xml")))
    kind = etree.QName(content).localname
    common: dict[str, Any] = {"path": path, "sha256": sha256, "title": title, "properties": properties}
    if kind == "spreadsheet":
        sheets = [
            _sheet(t, reader)
            for t in content.iter(f"{TABLE}table")
            if next(t.iterancestors(f"{TABLE}table"), None) is None
        ]
        drafts = [d for page, sheet in enumerate(sheets, start=1) for d in sheet_drafts(sheet, page)]
        return assemble(
            drafts, format="ods", pages=len(sheets), page_names=[s.name for s in sheets], paging="sheet", problems=sheet_problems(sheets),
            hidden_pages=frozenset(i for i, s in enumerate(sheets, start=1) if s.hidden), **common,
        )  # fmt: skip
    if kind == "presentation":
        names = []
        slides = list(content.iter(f"{DRAW}page"))
        for reader.page, slide in enumerate(slides, start=1):
            names.append(reader.slide(slide))
        return assemble(
            structure(reader.drafts),
            format="odp",
            pages=len(slides),
            page_names=names,
            paging="slide",
            problems=reader.problems(),
            **common,
        )
    reader.page = 1 if next(content.iter(f"{TEXT}soft-page-break"), None) is not None else 0
    reader.blocks(content)
    return assemble(
        structure(reader.drafts),
        format="odt",
        pages=reader.page,
        paging="page" if reader.page else "",
        problems=reader.problems(),
        **common,
    )


def _locked(package: Package) -> bool:
    try:
        return b"encryption-data" in package.bytes_of("META-INF/manifest.xml")
    except BROKEN:
        return False


def _meta(package: Package) -> tuple[str, tuple[tuple[str, str], ...]]:
    root = package.optional("meta.xml")
    if root is None:
        return "", ()

    def said(tag: str) -> str:
        return next((e.text.strip() for e in root.iter(tag) if e.text and e.text.strip()), "")

    meta = f"{{{NS}meta:1.0}}"
    found = (
        ("author", said(f"{meta}initial-creator")),
        ("last changed by", said(f"{DC}creator")),
        ("created", said(f"{meta}creation-date")),
        ("changed", said(f"{DC}date")),
    )
    return said(f"{DC}title"), tuple((name, value) for name, value in found if value)


@dataclass(frozen=True, slots=True)
class _Look:
    bold: bool = False
    shade: str = ""
    level: int = 0
    hidden: bool = False


def _styles(*roots: etree._Element | None) -> dict[str, _Look]:
    """Styles by name, with what they inherit worked in."""
    raw: dict[str, tuple[str, _Look]] = {}
    for root in roots:
        for style in root.iter(f"{STYLE}style") if root is not None else ():
            bold = any(
                (p.get(f"{FO}font-weight") or "") in ("bold", "600", "700", "800", "900")
                for p in style.iter(f"{STYLE}text-properties")
            )
            hidden = any(p.get(f"{TEXT}display") == "none" for p in style.iter(f"{STYLE}text-properties"))
            ground = next(
                (
                    p.get(f"{FO}background-color")
                    for p in style.iter(f"{STYLE}table-cell-properties")
                    if p.get(f"{FO}background-color")
                ),
                "",
            )
            colour = parse_colour(ground or "")
            level = style.get(f"{STYLE}default-outline-level") or ""
            look = _Look(bold, colour_name(colour) if colour else "", int(level) if level.isdigit() else 0, hidden)
            raw.setdefault(style.get(f"{STYLE}name") or "", (style.get(f"{STYLE}parent-style-name") or "", look))
    out = {}
    for name in raw:
        look, parent, seen = raw[name][1], raw[name][0], {name}
        while parent in raw and parent not in seen:
            seen.add(parent)
            above = raw[parent][1]
            look = _Look(
                look.bold or above.bold,
                look.shade or above.shade,
                look.level or above.level,
                look.hidden or above.hidden,
            )
            parent = raw[parent][0]
        out[name] = look
    return out


@dataclass(slots=True)
class _Reader:
    styles: dict[str, _Look]
    drafts: list[Draft] = field(default_factory=list)
    page: int = 0
    notes: list[Draft] = field(default_factory=list)
    lists: list[int] = field(default_factory=list)
    changes: int = 0
    hidden: int = 0
    deleted: int = 0

    def problems(self) -> list[Problem]:
        out = []
        if self.changes:
            out.append(
                Problem(
                    f"tracked changes: {self.changes}, read as accepted",
                    do="look at the changes in the file itself",
                    serious=False,
                )
            )
        if self.hidden:
            out.append(
                Problem(
                    f"{self.hidden} words set as hidden left out", do="look at them in the file itself", serious=False
                )
            )
        return out

    def look(self, element: etree._Element, attribute: str = f"{TEXT}style-name") -> _Look:
        return self.styles.get(element.get(attribute) or "", _Look())

    def blocks(self, parent: etree._Element) -> None:
        for item in parent:
            name = etree.QName(item).localname if isinstance(item.tag, str) else ""
            if name in ("p", "h"):
                self.paragraph(item, name)
            elif name == "table":
                table = self.table(item)
                if table is not None:
                    self.drafts.append(Draft("table", table=table, table_page=self.page))
            elif name == "list":
                start = item.get(f"{TEXT}continue-numbering")
                self.lists.append(0 if start != "true" else self.lists[-1] if self.lists else 0)
                self.blocks(item)
                self.lists.pop()
            elif name == "tracked-changes":
                self.changes += sum(1 for _ in item.iter(f"{TEXT}changed-region"))
            elif name == "soft-page-break":
                self.page += 1
            elif name not in LEFT_OUT:
                self.blocks(item)

    def paragraph(self, element: etree._Element, name: str, into: list[Draft] | None = None) -> None:
        out = self.drafts if into is None else into
        inline = Inline(self.page)
        look = self.look(element)
        self.walk(element, inline, look.bold)
        draft = inline.draft()
        level = int(element.get(f"{TEXT}outline-level") or look.level or 1) if name == "h" else look.level
        if draft is not None:
            if level:
                draft.kind, draft.level, draft.heading = "heading", min(9, level), draft.text
            out.append(draft)
        out += self.notes
        self.notes = []

    def walk(self, element: etree._Element, inline: Inline, bold: bool) -> None:
        inline.put(element.text or "", bold)
        for child in element:
            name = etree.QName(child).localname if isinstance(child.tag, str) else ""
            if name == "s" or name in ("tab", "line-break"):
                inline.put(" ")
            elif name == "soft-page-break":
                self.page += 1
            elif name == "note":
                for part in child.iter(f"{TEXT}note-body"):
                    note = Inline(self.page)
                    for p in part.iter(f"{TEXT}p"):
                        note.put(" ")
                        self.walk(p, note, False)
                    draft = note.draft("note")
                    if draft is not None:
                        self.notes.append(draft)
            elif name == "annotation":
                words = " ".join(_all_text(p) for p in child.iter(f"{TEXT}p"))
                who = next((e.text or "" for e in child.iter(f"{DC}creator")), "")
                start = max(0, inline.at - 1)
                inline.mark(start, "comment", f"{who}: {' '.join(words.split())}".strip(": "))
            elif name in ("span", "a"):
                look = self.look(child)
                if look.hidden:
                    self.hidden += len(_all_text(child).split())
                else:
                    start = inline.at
                    self.walk(child, inline, look.bold or bold)
                    if name == "a" and (address := child.get("{http://www.w3.org/1999/xlink}href") or "").startswith(
                        "http"
                    ):
                        inline.mark(start, "link", address)
            elif name == "frame":
                for box in child.iter(f"{DRAW}text-box"):
                    self.blocks(box)
            elif name not in LEFT_OUT:
                self.walk(child, inline, bold)
            inline.put(child.tail or "", bold)

    def table(self, element: etree._Element) -> TableDraft | None:
        cells: list[CellDraft] = []
        heads = row_place = columns = 0
        for row in element.iter(f"{TABLE}table-row"):
            if next(row.iterancestors(f"{TABLE}table")) is not element:
                continue
            heads += next(row.iterancestors(f"{TABLE}table-header-rows"), None) is not None
            column = 0
            for cell in row:
                name = etree.QName(cell).localname
                repeat = _count(cell, "number-columns-repeated")
                if name == "table-cell":
                    inner: list[Draft] = []
                    outer, self.drafts = self.drafts, inner
                    self.blocks(cell)
                    self.drafts = outer
                    draft = CellDraft(
                        row_place,
                        column,
                        _count(cell, "number-rows-spanned"),
                        _count(cell, "number-columns-spanned"),
                        [],
                    )
                    draft.shade = self.look(cell, f"{TABLE}style-name").shade
                    offset = 0
                    for one in inner:
                        for words in [w for _, w in one.lines] or (
                            [c.words for k in one.table.cells for c in k.lines] if one.table else []
                        ):
                            draft.lines.append(Segment(words))
                        draft.marks += [(a + offset, b + offset, k, v) for a, b, k, v in one.marks]
                        offset += len(one.text) + 1
                    cells.append(draft)
                column += repeat if name in ("table-cell", "covered-table-cell") else 0
            columns = max(columns, column)
            row_place += 1
        if not any(c.lines for c in cells):
            return None
        table = TableDraft(cells, row_place, columns, heads, True, 0, 0, 0, 0)
        table.header_rows = heads or header_rows(table)
        return table

    def slide(self, slide: etree._Element) -> str:
        """Reads one slide; its title's words come back."""
        title = ""
        frames = [f for f in slide if etree.QName(f).localname in ("frame", "custom-shape", "g")]

        def place(frame: etree._Element) -> tuple[bool, float, float]:
            numbers = [re.match(r"[\d.]+", frame.get(f"{{{NS}svg-compatible:1.0}}{a}") or "") for a in ("y", "x")]
            y, x = (float(m.group()) if m else 0.0 for m in numbers)
            return frame.get(f"{PRESENTATION}class") != "title", round(y), x

        for frame in sorted(frames, key=place):
            before = len(self.drafts)
            self.blocks(frame)
            if frame.get(f"{PRESENTATION}class") == "title" and len(self.drafts) > before:
                head = self.drafts[before]
                head.kind, head.level, head.heading = "heading", 1, head.text
                title = title or head.text
        for notes in slide.iter(f"{PRESENTATION}notes"):
            inner: list[Draft] = []
            outer, self.drafts = self.drafts, inner
            self.blocks(notes)
            self.drafts = outer
            for draft in inner:
                if draft.kind != "table":
                    draft.kind = "note"
            self.drafts += inner
        return title


def _all_text(element: etree._Element) -> str:
    return " ".join(str(t) for t in element.itertext())


def _count(element: etree._Element, name: str) -> int:
    said = element.get(f"{TABLE}{name}") or "1"
    return max(1, min(MAX_REPEAT, int(said))) if said.isdigit() else 1


def _sheet(table: etree._Element, reader: _Reader) -> Sheet:
    cells: list[SheetCell] = []
    hidden_rows: list[int] = []
    row_place = 0
    for row in table.iter(f"{TABLE}table-row"):
        column = 0
        filled = False
        repeat_rows = row.get(f"{TABLE}number-rows-repeated") or "1"
        for cell in row:
            repeat = cell.get(f"{TABLE}number-columns-repeated") or "1"
            words = " ".join(" ".join(_all_text(p).split()) for p in cell if etree.QName(p).localname == "p")
            if words.strip() and etree.QName(cell).localname == "table-cell":
                look = reader.look(cell, f"{TABLE}style-name")
                marks = []
                if formula := cell.get(f"{TABLE}formula"):
                    marks.append(("formula", formula.split(":", 1)[-1]))
                if (stored := cell.get(f"{OFFICE}value")) and stored != words:
                    marks.append(("stored", stored))
                for note in cell.iter(f"{OFFICE}annotation"):
                    marks.append(("comment", " ".join(_all_text(p) for p in note.iter(f"{TEXT}p"))))
                for i in range(min(_count(cell, "number-columns-repeated"), 200)):
                    cells.append(
                        SheetCell(
                            row_place,
                            column + i,
                            words,
                            look.bold,
                            look.shade,
                            0.0,
                            _count(cell, "number-rows-spanned"),
                            _count(cell, "number-columns-spanned"),
                            marks,
                        )
                    )
                filled = True
            column += min(int(repeat), 20_000) if repeat.isdigit() else 1
        if row.get(f"{TABLE}visibility") in ("collapse", "filter") and filled:
            hidden_rows.append(row_place + 1)
        row_place += min(int(repeat_rows), 2_000_000) if repeat_rows.isdigit() else 1
    style = table.get(f"{TABLE}style-name") or ""
    display = next(
        (
            p.get(f"{TABLE}display")
            for s in table.getroottree().iter(f"{STYLE}style")
            if s.get(f"{STYLE}name") == style
            for p in s.iter(f"{STYLE}table-properties")
        ),
        None,
    )
    return Sheet(table.get(f"{TABLE}name") or "Sheet", cells, display == "false", hidden_rows)
