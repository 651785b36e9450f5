"""Web pages (HTML, XHTML, Inline XBRL) -> Document: the text that a browser would show, in its order.

Scripts go; text that the page hides is left out and said. Tables keep their spans, ids stay as anchors.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from lxml import etree, html

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.assemble import assemble, with_tagged
from yarnex.core.reading.inline import Inline
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft
from yarnex.core.reading.package import PARSER_OPTIONS
from yarnex.core.reading.shades import colour_name, parse_colour
from yarnex.core.reading.structure import structure
from yarnex.core.reading.xbrl import IX, InlineXbrl

SKIPPED = frozenset(
    [
        "script",
        "style",
        "noscript",
        "template",
        "head",
        "iframe",
        "object",
        "embed",
        "applet",
        "audio",
        "video",
        "svg",
        "math",
        "canvas",
        "map",
        "area",
        "link",
        "meta",
        "base",
        "datalist",
        "frame",
        "frameset",
        "noframes",
        "param",
        "source",
        "track",
    ]
)
BLOCKS = frozenset(
    [
        "address",
        "article",
        "aside",
        "blockquote",
        "body",
        "center",
        "dd",
        "details",
        "dialog",
        "div",
        "dl",
        "dt",
        "fieldset",
        "figcaption",
        "figure",
        "footer",
        "form",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "header",
        "hgroup",
        "hr",
        "html",
        "legend",
        "li",
        "main",
        "menu",
        "nav",
        "ol",
        "p",
        "pre",
        "section",
        "summary",
        "table",
        "tbody",
        "td",
        "tfoot",
        "th",
        "thead",
        "tr",
        "ul",
        "caption",
        "optgroup",
        "option",
        "select",
        "textarea",
    ]
)
MAX_SPAN = 200
MAX_DEPTH = 400
HIDING = pattern(
    r"display\s*:\s*none|visibility\s*:\s*(?:hidden|collapse)|font-size\s*:\s*0(?:px|pt|em|rem|%)?\s*(?:;|\Z|!)|opacity\s*:\s*0(?:\.0+)?\s*(?:;|\Z|!)",
    re.IGNORECASE,
)
BOLD_STYLE = pattern(r"font-weight\s*:\s*(?:bold|bolder|[6-9]00)", re.IGNORECASE)
PLAIN_STYLE = pattern(r"font-weight\s*:\s*(?:normal|lighter|[1-4]00)", re.IGNORECASE)
GROUND = pattern(r"background(?:-color)?\s*:\s*([^;]+)", re.IGNORECASE)
RULE = pattern(r"([^{}]+)\{([^{}]*)\}")
SIMPLE = pattern(r"(?:[a-z][a-z0-9]*)?(?:[.#][\w-]+)?\Z", re.IGNORECASE)


def read_html(data: bytes, path: str, sha256: str, format: str = "") -> Document:
    """The document in a web page's bytes. Raises UnreadableError where there is none."""
    root = parse_page(data, path)
    reader = PageReader(styles_of(root), page=1)  # a web page is one page
    if any(isinstance(e.tag, str) and e.tag.startswith(f"{{{IX}}}") for e in root.iter()):
        reader.xbrl = InlineXbrl(root)
    reader.read(root)
    title = next((" ".join(text_of(e).split()) for e in root.iter() if _name(e) == "title"), "")
    form = format or ("xhtml" if path.lower().endswith((".xhtml", ".xht")) else "html")
    properties = [
        (str(e.get("name")).lower(), " ".join(str(e.get("content")).split()))
        for e in root.iter()
        if _name(e) == "meta" and str(e.get("name")).lower() in ("author", "date") and e.get("content")
    ]
    document = assemble(
        structure(reader.drafts), path=path, format=form, sha256=sha256, pages=1,
        problems=reader.problems(), title=title, properties=properties
    )  # fmt: skip
    return with_tagged(document, reader.xbrl.facts(document)) if reader.xbrl else document


def parse_page(data: bytes, path: str) -> etree._Element:
    """The tree of a page: as XML where it is well formed XHTML, else as browsers read HTML."""
    head = data[:4000].lstrip(b"\xef\xbb\xbf \t\r\n")
    if head.startswith(b"<?xml") or b"http://www.w3.org/1999/xhtml" in head:
        try:
            return etree.fromstring(data, etree.XMLParser(**{**PARSER_OPTIONS, "huge_tree": True}))
        except (etree.XMLSyntaxError, ValueError):
            pass
    from yarnex.core.reading.text import decode

    declared = re.search(rb"""charset\s*=\s*["']?\s*([\w-]+)""", head[:2500], re.IGNORECASE)
    text = ""
    if declared:
        try:
            text = data.decode(declared[1].decode("ascii"), "strict")
        except (LookupError, UnicodeDecodeError):
            text = ""
    if not text:
        text, _ = decode(data, path)
    try:
        root = html.document_fromstring(
            re.sub(r"\A\s*<\?xml[^>]*\?>", "", text), parser=html.HTMLParser(huge_tree=False, remove_comments=True)
        )
    except (etree.ParserError, etree.XMLSyntaxError, ValueError):
        raise UnreadableError("a web page without content", where=path, do="save the page again") from None
    return root


def text_of(element: etree._Element) -> str:
    """All words inside an element, as they stand."""
    return "".join(str(t) for t in element.itertext())


def _name(element: etree._Element) -> str:
    tag = element.tag
    return tag.rsplit("}", 1)[-1].lower() if isinstance(tag, str) else ""


def styles_of(root: etree._Element) -> dict[str, str]:
    """What the page's own style sheets say of simple selectors (name, .class, #id, name.class), as one text each."""
    out: dict[str, str] = {}
    for element in root.iter():
        if _name(element) != "style":
            continue
        text = re.sub(r"/\*.*?\*/", "", text_of(element), flags=re.DOTALL)
        text = re.sub(r"@(?:media|supports|page|font-face|import)[^{;]*(?:\{(?:[^{}]*\{[^{}]*\})*[^{}]*\}|;)", "", text)
        for selectors, body in RULE.findall(text):
            for selector in selectors.split(","):
                if SIMPLE.match(selector.strip()):
                    key = selector.strip().lower()
                    out[key] = f"{out.get(key, '')};{body}"
    return out


@dataclass(slots=True)
class PageReader:
    """Walks a page and gathers drafts. `page`: the page that its blocks are put on, for books of several files."""

    styles: dict[str, str] = field(default_factory=dict)
    page: int = 0
    drafts: list[Draft] = field(default_factory=list)
    xbrl: InlineXbrl | None = None
    hidden_words: int = 0
    hidden_sample: str = ""
    inline: Inline | None = None
    lists: list[list[object]] = field(default_factory=list)
    numbered: str = ""

    def problems(self) -> list[Problem]:
        if not self.hidden_words:
            return []
        said = f"{self.hidden_words} word{'s' * (self.hidden_words > 1)} that the page hides left out (“{self.hidden_sample}”)"
        return [Problem(said, do="look at the page's source if they matter", serious=False)]

    def read(self, root: etree._Element) -> None:
        self.inline = Inline(self.page)
        self._walk(root, False, 0)
        self._flush()

    # ------------------------------------------------------------ the walk
    def style(self, element: etree._Element) -> str:
        """All that is said of an element's look, the nearest last."""
        name = _name(element)
        parts = [self.styles.get(name, "")]
        for one in (element.get("class") or "").lower().split():
            parts += [self.styles.get(f".{one}", ""), self.styles.get(f"{name}.{one}", "")]
        if identity := (element.get("id") or "").lower():
            parts += [self.styles.get(f"#{identity}", ""), self.styles.get(f"{name}#{identity}", "")]
        return ";".join(p for p in [*parts, element.get("style") or ""] if p)

    def hides(self, element: etree._Element, style: str) -> bool:
        if element.get("hidden") is not None or (_name(element) == "input" and element.get("type") == "hidden"):
            return True
        shown = re.findall(r"display\s*:\s*([\w-]+)", style, re.IGNORECASE)
        if shown and shown[-1].lower() != "none":
            style = re.sub(r"display\s*:\s*none", "", style, flags=re.IGNORECASE)
        return bool(HIDING.search(style))

    def _flush(self, kind: str = "paragraph") -> None:
        if self.inline is not None and not self.inline.empty:
            for part in self.inline.lines():
                draft = part.draft(kind)
                if draft is not None:
                    draft.number, self.numbered = self.numbered or draft.number, ""
                    self.drafts.append(draft)
        self.inline = Inline(self.page)

    def _walk(self, element: etree._Element, bold: bool, depth: int) -> None:
        name = _name(element)
        if name in SKIPPED or not isinstance(element.tag, str) or depth > MAX_DEPTH:
            return
        if element.tag.startswith(f"{{{IX}}}") and name in ("header", "hidden", "references", "resources", "footnote"):
            return
        style = self.style(element)
        if self.hides(element, style):
            text = " ".join(_own_text(element).split())
            if text and name != "input":
                self.hidden_words += len(text.split())
                self.hidden_sample = self.hidden_sample or text[:80]
            return
        if BOLD_STYLE.search(style) or name in ("b", "strong", "th"):
            bold = True
        elif PLAIN_STYLE.search(style):
            bold = False
        if re.fullmatch(r"h[1-6]", name):
            self._heading(element, int(name[1]), depth)
        elif name == "table":
            self._table(element, bold, depth)
        elif name in ("ol", "ul", "menu"):
            self._flush()
            self.lists.append(
                [
                    name,
                    int(element.get("start") or 1) if (element.get("start") or "1").isdigit() else 1,
                    element.get("type") or "",
                ]
            )
            self._children(element, bold, depth)
            self._flush()
            self.lists.pop()
        elif name == "dl":
            self._terms(element, bold, depth)
        elif name == "li":
            self._flush()
            if _leads_away(element):  # a line of the page's own contents list
                self._children(element, bold, depth)
                self._flush("note")
                return
            if self.lists and self.lists[-1][0] == "ol":
                value = element.get("value") or ""
                if value.isdigit():
                    self.lists[-1][1] = int(value)
                self.numbered = _list_number(int(str(self.lists[-1][1])), str(self.lists[-1][2]))
                self.lists[-1][1] = int(str(self.lists[-1][1])) + 1
            self._children(element, bold, depth)
            bulleted = bool(self.lists) and self.lists[-1][0] != "ol"  # numbered ones become items by their number
            self._flush("item" if bulleted else "paragraph")
        elif name == "br":
            if self.inline is None:
                self.inline = Inline(self.page)
            self.inline.break_line(bold)
        elif name == "hr":
            self._flush()
        elif name in ("input", "textarea", "select"):
            self._control(element, name, bold)
        elif name in BLOCKS:
            self._flush()
            self._children(element, bold, depth)
            self._flush()
        else:
            self._inline(element, name, bold, depth)

    def _children(self, element: etree._Element, bold: bool, depth: int) -> None:
        self._put(element.text or "", bold)
        for child in element:
            self._walk(child, bold, depth + 1)
            self._put(child.tail or "", bold)

    def _put(self, text: str, bold: bool) -> None:
        if self.inline is None:
            self.inline = Inline(self.page)
        if text:
            self.inline.put(text, bold)

    def _inline(self, element: etree._Element, name: str, bold: bool, depth: int) -> None:
        """Words inside a line, with the marks that hang on them."""
        assert self.inline is not None
        inline, start = self.inline, self.inline.at
        if name == "img" and element.get("alt"):
            return  # a picture's description is not the page's text
        if name in ("sup", "sub") and not inline.empty:
            text = text_of(element).strip()
            if name == "sup" and text.isdigit() and element.find(".//*[@id]") is None:
                inline.put_raised(text, bold)
                return
            if re.fullmatch(r"[\[(]?(?:\d{1,3}|[a-z*†‡§])[\])]?", text) and name == "sup":
                self._put(" ", bold)  # a note's mark does not run into the word or number before it
        self._children(element, bold, depth)
        if self.inline is not inline:
            return  # a block inside a line ended it
        if element.tag.startswith(f"{{{IX}}}") and self.xbrl is not None:
            inline.mark(start, "tagged", self.xbrl.key_of(element))
        if name == "a" and (element.get("href") or "").startswith(("http://", "https://", "mailto:")):
            inline.mark(start, "link", str(element.get("href")))
        if anchor := element.get("id") or (element.get("name") if name == "a" else None):
            inline.mark(start, "anchor", anchor)

    def _control(self, element: etree._Element, name: str, bold: bool) -> None:
        """What a form's field shows."""
        kind = (element.get("type") or "text").lower()
        if name == "input" and kind in ("checkbox", "radio"):
            self._put("☒ " if element.get("checked") is not None else "☐ ", bold)
        elif name == "input" and kind not in ("password", "submit", "button", "reset", "image", "file"):
            self._put(f" {element.get('value') or ''} ", bold)
        elif name == "textarea":
            self._put(text_of(element), bold)
        elif name == "select":
            chosen = [o for o in element.iter() if _name(o) == "option" and o.get("selected") is not None]
            self._put(" ".join(text_of(o) for o in chosen), bold)

    def _heading(self, element: etree._Element, level: int, depth: int) -> None:
        self._flush()
        before = len(self.drafts)
        self._children(element, True, depth)
        self._flush("heading")
        for draft in self.drafts[before:]:
            draft.kind, draft.level, draft.heading = "heading", level, draft.text

    def _terms(self, element: etree._Element, bold: bool, depth: int) -> None:
        """A list of terms and what they stand for, as a table of two columns."""
        self._flush()
        cells: list[CellDraft] = []
        row = -1
        for item in element.iter():
            name = _name(item)
            if name == "dt" or (name == "dd" and row < 0):
                row += 1
            if name in ("dt", "dd"):
                cells.append(self._cell(item, row, int(name == "dd"), 1, 1, bold or name == "dt", depth, ""))
        merged: dict[tuple[int, int], CellDraft] = {}
        for cell in cells:
            if (known := merged.get((cell.row, cell.column))) is not None:
                known.lines += cell.lines
            else:
                merged[cell.row, cell.column] = cell
        kept = [c for c in merged.values() if c.lines]
        if kept:
            self.drafts.append(
                Draft("table", table=TableDraft(kept, row + 1, 2, 0, True, 0, 0, 0, 0), table_page=self.page)
            )

    # ------------------------------------------------------------ tables
    def _table(self, element: etree._Element, bold: bool, depth: int) -> None:
        self._flush()
        for caption in element:
            if _name(caption) == "caption":
                self._children(caption, True, depth)
                self._flush()
        rows = _rows(element)
        laid_out = any(_name(e) == "table" and e is not element for e in element.iter()) or any(
            re.fullmatch(r"h[1-6]", _name(e)) for r in rows for c in r for e in c.iter()
        )
        width = max((sum(_span(c, "colspan") for c in _cells(r)) for r in rows), default=0)
        if laid_out or width < 2:
            for row in rows:
                for cell in _cells(row):
                    self._children(cell, bold, depth + 1)
                    self._flush()
            return
        draft = self._grid(rows, bold, depth)
        if draft is not None:
            self.drafts.append(Draft("table", table=draft, table_page=self.page))

    def _grid(self, rows: list[etree._Element], bold: bool, depth: int) -> TableDraft | None:
        cells: list[CellDraft] = []
        taken: set[tuple[int, int]] = set()
        heads = 0
        for r, row in enumerate(rows):
            if self.hides(row, self.style(row)):
                self.hidden_words += len(text_of(row).split())
                continue
            column = 0
            ground = _ground(row, self.style(row))
            in_head = next((True for a in row.iterancestors() if _name(a) == "thead"), False)
            inside = _cells(row)
            heads += (in_head or (bool(inside) and all(_name(c) == "th" for c in inside))) and heads == r
            for cell in inside:
                while (r, column) in taken:
                    column += 1
                wide, tall = _span(cell, "colspan"), _span(cell, "rowspan")
                taken.update((r + i, column + j) for i in range(tall) for j in range(wide))
                style = self.style(cell)
                if self.hides(cell, style):
                    self.hidden_words += len(text_of(cell).split())
                    column += wide
                    continue
                draft = self._cell(cell, r, column, tall, wide, bold, depth, _ground(cell, style) or ground)
                indent = re.search(
                    r"(?:padding-left|text-indent|margin-left)\s*:\s*(\d+(?:\.\d+)?)\s*(px|pt|em)", style
                )
                if indent:
                    draft.indent = float(indent[1]) * {"px": 0.75, "pt": 1.0, "em": 10.0}[indent[2]]
                cells.append(draft)
                column += wide
        if not any(c.lines for c in cells):
            return None
        columns = max(c.column + c.column_span for c in cells)
        return _without_spacers(TableDraft(cells, len(rows), columns, min(heads, len(rows) - 1), True, 0, 0, 0, 0))

    def _cell(
        self, element: etree._Element, row: int, column: int, tall: int, wide: int, bold: bool, depth: int, shade: str
    ) -> CellDraft:
        """One cell; its blocks are put in one line each, one after the other."""
        outer_drafts, outer_inline = self.drafts, self.inline
        self.drafts, self.inline = [], Inline(self.page)
        self._children(element, bold or _name(element) == "th", depth + 1)
        self._flush()
        inner, self.drafts, self.inline = self.drafts, outer_drafts, outer_inline
        cell = CellDraft(row, column, tall, wide, [], shade=shade)
        offset = 0
        from yarnex.core.reading.layout.words import Segment

        for draft in inner:
            for _, words in draft.lines:
                cell.lines.append(Segment(words))
            cell.marks += [(a + offset, b + offset, kind, value) for a, b, kind, value in draft.marks]
            offset += len(draft.text) + 1
        return cell


def _own_text(element: etree._Element) -> str:
    """The words of a hidden part, without the data of Inline XBRL, which is hidden by design and read as facts."""
    if isinstance(element.tag, str) and (element.tag == f"{{{IX}}}header" or _name(element) in SKIPPED):
        return ""
    return (element.text or "") + "".join(_own_text(c) + (c.tail or "") for c in element)


def _leads_away(item: etree._Element) -> bool:
    """True for a list item that is nothing but links to other places of the same page."""
    links = [a for a in item.iter() if _name(a) == "a" and (a.get("href") or "").startswith("#")]
    linked = "".join(text_of(a) for a in links).split()
    return bool(linked) and linked == text_of(item).split()


def _rows(table: etree._Element) -> list[etree._Element]:
    return [
        r
        for r in table.iter()
        if _name(r) == "tr" and next(a for a in r.iterancestors() if _name(a) == "table") is table
    ]


def _cells(row: etree._Element) -> list[etree._Element]:
    return [c for c in row if _name(c) in ("td", "th")]


def _span(cell: etree._Element, name: str) -> int:
    said = cell.get(name) or "1"
    return max(1, min(MAX_SPAN, int(said))) if said.isdigit() and len(said) < 6 else 1


def _ground(element: etree._Element, style: str) -> str:
    """The colour of an element's ground in plain words, "" for none or white."""
    said = GROUND.findall(style)
    colour = parse_colour(said[-1] if said else (element.get("bgcolor") or ""))
    return colour_name(colour) if colour else ""


def _list_number(value: int, kind: str) -> str:
    from yarnex.core.reading.layout.furniture import to_roman

    if kind in ("a", "A") and 1 <= value <= 26:
        letter = chr(ord("a") + value - 1)
        return f"({letter})" if kind == "a" else letter.upper() + "."
    if kind in ("i", "I") and 1 <= value < 400:
        return f"({to_roman(value)})" if kind == "i" else to_roman(value).upper() + "."
    return f"{value}."


def _without_spacers(draft: TableDraft) -> TableDraft:
    """Empty columns go, and signs set in cells of their own ("(", "£", "%") join the figure beside them."""
    by_row: dict[int, list[CellDraft]] = {}
    for cell in draft.cells:
        if cell.lines:
            by_row.setdefault(cell.row, []).append(cell)
    joined: list[CellDraft] = []
    for row in sorted(by_row):
        line = sorted(by_row[row], key=lambda c: c.column)
        place = 0
        while place < len(line):
            cell = line[place]
            text = " ".join(s.text for s in cell.lines)
            following = line[place + 1] if place + 1 < len(line) else None
            opening = re.fullmatch(r"[(£$€¥]|\(?[£$€¥]|[A-Z]{0,3}\$", text) is not None
            if following is not None and opening and re.match(r"[\d.(—–-]", following.lines[0].text):
                shift = len(text) + 1
                following.marks = cell.marks + [(a + shift, b + shift, k, v) for a, b, k, v in following.marks]
                following.lines = [*cell.lines, *following.lines]
                following.column_span += following.column - cell.column
                following.column = cell.column
                place += 1
                continue
            if (
                joined
                and joined[-1].row == row
                and re.fullmatch(r"[)%]+|pts?|bps?", text)
                and re.search(r"\d\Z", joined[-1].lines[-1].text)
            ):
                joined[-1].lines = [*joined[-1].lines, *cell.lines]
                joined[-1].column_span = cell.column + cell.column_span - joined[-1].column
                place += 1
                continue
            joined.append(cell)
            place += 1
    used = sorted({c.column for c in joined})
    order = {old: new for new, old in enumerate(used)}
    for cell in joined:
        last = cell.column + cell.column_span
        cell.column_span = max(1, sum(cell.column <= u < last for u in used))
        cell.column = order[cell.column]
    draft.cells, draft.columns = joined, len(used)
    if not draft.header_rows:
        from yarnex.core.reading.layout.tables import header_rows

        draft.header_rows = header_rows(draft)
    return draft
