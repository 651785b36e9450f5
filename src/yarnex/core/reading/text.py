"""Plain text and Markdown -> Document. A text file is laid out as a page of type of one width."""

from __future__ import annotations

import html
import itertools
import re

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.layout.headings import full_numbers, mark_headings
from yarnex.core.reading.layout.linear import LINE_HEIGHT, Linear
from yarnex.core.reading.layout.lines import rows_of, segments_of
from yarnex.core.reading.layout.paragraphs import Draft, paragraphs_of
from yarnex.core.reading.layout.spaced_tables import spaced_tables
from yarnex.core.reading.layout.tables import CellDraft, TableDraft
from yarnex.core.reading.layout.words import Row, Segment, Word

COLUMN = 5.0  # points for a character; the size of type below keeps two blanks a gap inside a line
SIZE = 10.0
RULE = pattern(r"\s*([-=_*~#+])(?:\s?\1){2,}\s*\Z")
NUMBERED = pattern(r"(?P<number>\d{1,2})\s+(?=[A-Z])")  # "3 How to send"
TOKEN = pattern(r"\S+")
ENTITY = pattern(
    r"&(?:#\d{2,5}|#x[\da-fA-F]{2,5}|[a-zA-Z]{2,8}\d?);"
)  # HTML's names of letters, which Markdown may use


def decode(data: bytes, path: str) -> tuple[str, Problem | None]:
    """Bytes -> text in the encoding that they are in; a guess is said. Raises UnreadableError for data that is no text."""
    for mark, encoding in ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16")):
        if data.startswith(mark):
            try:
                return data.decode(encoding), None
            except UnicodeDecodeError:
                break
    try:
        text = data.decode("utf-8")
        if "\x00" not in text:
            return text, None
    except UnicodeDecodeError:
        pass
    from charset_normalizer import from_bytes

    best = from_bytes(data).best()
    if best is None or sum(c < " " and c not in "\n\r\t\f" for c in str(best)) > 0.02 * len(str(best)) + 2:
        raise UnreadableError("not text in any known encoding", where=path, do="save it as UTF-8 text")
    guess = Problem(
        f"read as {best.encoding}, the likeliest encoding", do="save it as UTF-8 if words look wrong", serious=False
    )
    return str(best), guess


def read_text(data: bytes, path: str, sha256: str, markdown: bool = False) -> Document:
    """The document in a text file's bytes; each place is a line of the file, form feeds part pages."""
    text, problem = decode(data, path)
    text = text.replace("\r\n", "\n").replace("\r", "\n").expandtabs(8)
    if markdown:
        text = ENTITY.sub(lambda m: html.unescape(m.group()).replace("\u00a0", " "), text)
    sheets = text.split("\f")
    if len(sheets) > 1 and not sheets[-1].strip():
        sheets.pop()
    drafts: list[Draft] = []
    before = 0
    for number, sheet in enumerate(sheets, start=1):
        page = number if len(sheets) > 1 else 0
        lines = sheet.split("\n")
        drafts += _markdown(lines, page, before) if markdown else line_drafts(lines, page, before)
        before += len(lines) - (1 if number < len(sheets) else 0)  # the line goes on after a form feed
    drafts = mark_headings(drafts, frozenset(), frozenset())
    for draft in drafts:
        if draft.kind == "heading" and not draft.number and (m := NUMBERED.match(draft.heading)):
            draft.number, draft.heading = m["number"], draft.heading[m.end() :]
    full_numbers(drafts)
    return assemble(
        drafts, path=path, format="md" if markdown else "txt", sha256=sha256, pages=len(sheets) if len(sheets) > 1 else 0,
        paging="page" if len(sheets) > 1 else "", problems=(problem,) if problem else (), linear=Linear(geometry=False, line_numbers=True),
    )  # fmt: skip


def read_markdown(data: bytes, path: str, sha256: str) -> Document:
    """The document in a Markdown file's bytes."""
    return read_text(data, path, sha256, markdown=True)


def _line_of(word: Word) -> int:
    return int(word.top // LINE_HEIGHT) + 1


def _words(line: str, number: int, bold: bool = False) -> list[Word]:
    """Words of line `number` (from 1), set where they stand in the file."""
    top = (number - 1) * LINE_HEIGHT
    return [
        Word(m.group(), m.start() * COLUMN, top, m.end() * COLUMN, top + SIZE, SIZE, bold) for m in TOKEN.finditer(line)
    ]


def _underlined(lines: list[str]) -> set[int]:
    """Lines (from 1) that have a line of dashes or the like under them and are short enough for a heading."""
    return {
        i for i, (line, under) in enumerate(itertools.pairwise(lines), start=1)
        if RULE.match(under) and line.strip() and len(line.strip()) < 80 and (i < 2 or not lines[i - 2].strip())
    }  # fmt: skip


def line_drafts(lines: list[str], page: int = 0, before: int = 0, width: int = 0) -> list[Draft]:
    """Lines of plain text -> paragraphs, tables and underlined headings. before: lines of the file above them; width: letters
    that a full line has at the least.
    """
    boxed = next((i for i in range(len(lines) - 1) if _boxed(lines[i]) and _boxed(lines[i + 1])), None)
    if boxed is not None:
        end = next((i for i in range(boxed, len(lines)) if not _boxed(lines[i])), len(lines))
        table = _pipe_table([(before + i + 1, lines[i]) for i in range(boxed, end)], page)
        drawn = [table] if table.table is not None and table.table.cells else []
        rest = line_drafts(lines[end:], page, before + end, width)
        return line_drafts(lines[:boxed], page, before, width) + drawn + rest
    titles = _titles(lines)
    words = [
        w
        for i, line in enumerate(lines, start=before + 1)
        if not RULE.match(line) or "_" in line
        for w in _words(BULLET.sub(r"\1–", line), i, bold=i - before in titles)
    ]
    if not words:
        return []
    rows = rows_of(segments_of(words))
    items = spaced_tables(rows, [])
    only_rows = [i for i in items if isinstance(i, Row)]
    edges = (min(r.x0 for r in only_rows), max(r.x1 for r in only_rows)) if only_rows else (0.0, 400.0)
    edges = (edges[0], max(edges[1], width * COLUMN))
    drafts = paragraphs_of(page, items, edges, LINE_HEIGHT / SIZE)
    underlined = _underlined(lines)
    for draft in drafts:
        if draft.lines and draft.kind == "paragraph" and _line_of(draft.lines[0][1][0]) - before in underlined:
            draft.bold = True
    return drafts


BULLET = pattern(r"\A(\s*)[-*](?=\s+\S)")
# "3 How to send", "2. Cause", "Outlook": a line that may be a title; what follows tells.
TITLE = pattern(r"(?P<number>\d{1,2}(?:\.\d{1,2})*|[A-Z](?=\.\s))?\.?\s*(?P<words>[A-Z][^:@£$€\t]*[\w)’'])")
OF_LISTS = pattern(r"\A[-*–•]\s|\S\s{3,}\S.*\S\s{2,}\S")  # a point, or cells set apart
TITLE_LETTERS, TITLE_WORDS = 70, 9
PROSE, LONG_PROSE = 5, 9  # words of a line that is prose, below a numbered title and below one without a number


def _titles(lines: list[str]) -> set[int]:
    """The lines (from 1) that are titles: short, without a stop, and with prose, points or clauses of theirs below."""
    out = set()
    for place, line in enumerate(lines):
        bare = line.strip()
        m = TITLE.fullmatch(bare) if len(bare) <= TITLE_LETTERS and len(bare.split()) <= TITLE_WORDS else None
        if (
            m is None
            or re.search(r"\s{2,}(?!\S*\Z)|\s{3,}", bare)
            or (m["number"] and not re.match(r"(?:[\d.]+|[A-Z]\.)\s", bare))
        ):
            continue
        below = next((n.strip() for n in lines[place + 1 :] if n.strip()), "")
        above = lines[place - 1].strip() if place else ""
        number = m["number"] or ""
        if number:
            other = TITLE.fullmatch(below)
            listed = other is not None and other["number"] is not None and not other["number"].startswith(f"{number}.")
            listed_below = next((n.strip() for n in lines[place + 1 :] if n.strip() and n.strip() != below), "")
            prose = (
                len(below.split()) >= PROSE
                or listed_below.startswith(("(a)", "(i)", "(1)"))
                or below.startswith((f"{number}.", "(a)", "(i)"))
                or OF_LISTS.search(below)
            )
            if prose and not listed and (not above or above.endswith((".", ";", ":")) or number.count(".")):
                out.add(place + 1)
            continue
        beside = not above and place + 1 < len(lines) and lines[place + 1].strip()
        if beside and (OF_LISTS.search(below) or (len(below.split()) >= LONG_PROSE and below[:1].isupper())):
            out.add(place + 1)
    return out


BOXED = pattern(r"\s*(?:\|.*\|.*\||\+(?:[-=:]{2,}\+)+)\s*\Z")


def _boxed(line: str) -> bool:
    """True for a line of a table drawn with bars, dashes and plus signs."""
    return bool(BOXED.match(line))


# ------------------------------------------------------------------ Markdown
def _markdown(lines: list[str], page: int, before: int) -> list[Draft]:
    """Headings, lists, pipe tables and paragraphs of CommonMark; emphasis marks are taken off."""
    drafts: list[Draft] = []
    table: list[tuple[int, str]] = []
    open_paragraph: Draft | None = None
    fenced = False
    for number, line in enumerate([*lines, ""], start=before + 1):
        bare = line.strip()
        if bare.startswith("```"):
            fenced = not fenced
            continue
        if bare.startswith("|") and not fenced:
            table.append((number, bare))
            open_paragraph = None
            continue
        if table:
            drafts.append(_pipe_table(table, page))
            table = []
        heading = re.match(r"\s{0,3}(#{1,6})\s+(.*?)\s*#*\s*\Z", line)
        if not bare:
            open_paragraph = None
        elif RULE.match(line):
            if open_paragraph is not None and bare[0] in "=-":
                open_paragraph.kind, open_paragraph.level = "heading", 1 if bare[0] == "=" else 2
                open_paragraph.heading = open_paragraph.text
            open_paragraph = None
        elif heading and not fenced:
            words = _marked(" " * (len(heading[1]) + 1) + heading[2], number)
            draft = Draft("heading", [(page, words)], level=len(heading[1]), heading=" ".join(w.text for w in words))
            if words:
                drafts.append(draft)
            open_paragraph = None
        else:
            starts = re.match(
                r"\s*(?:[-*+]|\d{1,3}[.)])\s+|\s*\*\*[^*]{1,60}(?::\*\*|\*\*:)", line
            )  # a point, or a label
            words = _marked(re.sub(r"\A(\s*)[-*+>](\s)", r"\1 \2", line), number)
            if not words:
                continue
            if open_paragraph is not None and LABELLED.match(open_paragraph.text):
                starts = starts or LABELLED.match(bare)  # lines that each name a thing, as at the head of a report
            if open_paragraph is None or starts:
                open_paragraph = Draft("paragraph", size=SIZE)
                drafts.append(open_paragraph)
            open_paragraph.lines.append((page, words))
    return drafts


LABELLED = pattern(r"[A-Z][\w’'/ -]{1,32}:\s+\S")


def _marked(line: str, number: int) -> list[Word]:
    """Words without emphasis marks; those between ** are bold."""
    out: list[Word] = []
    bold = False
    for word in _words(line, number):
        opens = word.text.count("**") + word.text.count("__")
        text = (
            word.text
            if re.fullmatch(r"_+[.,;:]?", word.text)
            else re.sub(r"\*\*|__(?=\w)|(?<=\w)__|\A[*_](?=\w)|(?<=\w)[*_](?=[.,;:!?)]*\Z)|`", "", word.text)
        )
        if text:
            out.append(word._replace(text=text, bold=bold or opens > 0))
        if opens % 2 and text != word.text:
            bold = not bold
    return out


def _pipe_table(lines: list[tuple[int, str]], page: int) -> Draft:
    rows: list[list[Segment | None]] = []
    header = 0
    for number, line in lines:
        if re.fullmatch(r"\s*[|+]?[\s:|+=-]+[|+]?\s*", line):
            header = 1 if len(rows) == 1 else header
            continue
        parts = line.strip().strip("|").split("|")
        rows.append([Segment(words) if (words := _marked(cell, number)) else None for cell in parts])
    cells = [
        CellDraft(r, c, 1, 1, [segment])
        for r, row in enumerate(rows)
        for c, segment in enumerate(row)
        if segment is not None
    ]
    columns = max((len(r) for r in rows), default=0)
    return Draft("table", table=TableDraft(cells, len(rows), columns, header, True, 0, 0, 0, 0), table_page=page)
