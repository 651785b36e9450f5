"""Running headers, footers and page numbers: what recurs at the edges of pages is kept out of the text."""

from __future__ import annotations

import re
from collections import defaultdict
from itertools import pairwise

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.words import PageMarks, Row

EDGE_ROWS = 3  # rows looked at from the top and from the bottom of a page
EDGE_SHARE = 0.14  # of the page's height, from either edge
ROMAN = pattern(r"[ivxlc]{1,7}\Z", re.IGNORECASE)
NUMBER = pattern(r"\d{1,4}\Z")
LONE = pattern(
    r"(?:page\s+)?[-–—(\[]?\s?(?:\d{1,4}|[ivxlc]{1,7})\s?[-–—)\]]?(?:\s*(?:of|/)\s*\d{1,4})?\Z", re.IGNORECASE
)
ROMAN_VALUES = {"i": 1, "v": 5, "x": 10, "l": 50, "c": 100}


def roman_value(text: str) -> int:
    """The value of a roman number up to 399; 0 where it is not one.

    >>> roman_value("xiv")
    14
    """
    letters = [ROMAN_VALUES.get(c, 0) for c in text.lower()]
    if not letters or 0 in letters:
        return 0
    total = sum(-v if v < max(letters[i + 1 :], default=0) else v for i, v in enumerate(letters))
    return total if to_roman(total) == text.lower() else 0


def to_roman(value: int) -> str:
    """A number from 1 to 399 in small roman letters."""
    out = ""
    for size, letters in (
        (100, "c"),
        (90, "xc"),
        (50, "l"),
        (40, "xl"),
        (10, "x"),
        (9, "ix"),
        (5, "v"),
        (4, "iv"),
        (1, "i"),
    ):
        while value >= size:
            out += letters
            value -= size
    return out


def _key(row: Row) -> str:
    """The row's words with numbers taken out, so that it matches itself on other pages."""
    return " ".join(
        "#" if NUMBER.match(t) or ROMAN.match(t) else re.sub(r"\d+", "#", t) for t in row.text.lower().split()
    )


def _parts(edge: str, row: Row) -> list[tuple[str, str, int, int]]:
    """The first and last part of a row of several, with their places: one recurs where the other names the section."""
    if len(row.segments) < 2:
        return []
    height = round(row.top / 3)
    first, last = row.segments[0], row.segments[-1]
    found = [
        (edge, first.text.lower(), height, round(first.x0 / 3)),
        (edge, last.text.lower(), height, round(last.x1 / 3)),
    ]
    return [f for f in found if len(f[1]) > 5 and not any(c.isdigit() for c in f[1][:1])]


def split_furniture(pages: list[PageMarks], rows: list[list[Row]]) -> tuple[list[list[Row]], list[list[Row]]]:
    """Rows of each page -> (rows of the text, rows of furniture), each list page by page."""
    seen: dict[tuple[str, str], list[int]] = defaultdict(list)
    parts: dict[tuple[str, str, int, int], set[int]] = defaultdict(
        set
    )  # words that stand in the same place on many pages
    edges: list[list[tuple[str, Row]]] = []
    for place, (page, page_rows) in enumerate(zip(pages, rows, strict=True)):
        near: list[tuple[str, Row]] = []
        for row in page_rows[:EDGE_ROWS]:
            if row.bottom < EDGE_SHARE * page.height:
                near.append(("top", row))
        for row in page_rows[-EDGE_ROWS:]:
            if row.top > (1 - EDGE_SHARE) * page.height:
                near.append(("bottom", row))
        edges.append(near)
        for edge, row in near:
            seen[edge, _key(row)].append(place)
            for part in _parts(edge, row):
                parts[part].add(place)
    with_text = sum(1 for r in rows if r)
    enough = 2 if with_text <= 6 else max(3, min(6, with_text // 8))
    body: list[list[Row]] = []
    furniture: list[list[Row]] = []
    for place, (page, page_rows, near) in enumerate(zip(pages, rows, edges, strict=True)):
        out: list[Row] = []
        for edge, row in near:
            if DIVISION_LINE.match(row.text) and not _same_beside(edges, place, row):
                continue
            recurs = _recurs(seen[edge, _key(row)], enough, with_text)
            recurs = recurs or (with_text > 2 and any(len(parts[part]) >= max(3, enough) for part in _parts(edge, row)))
            outermost = row is page_rows[0] or row is page_rows[-1]
            alone = outermost and bool(LONE.match(row.text)) and len(page_rows) > 1 and _apart(page, page_rows, row)
            if (recurs and _outside(edge, row, near, seen, enough, with_text)) or alone:
                out.append(row)
        kept = set(map(id, out))
        body.append([r for r in page_rows if id(r) not in kept])
        furniture.append(out)
    return body, furniture


def _recurs(places: list[int], enough: int, with_text: int) -> bool:
    """True for words on enough pages; on two pages only where these follow each other: a letterhead on the first and the
    third page heads two papers."""
    pages = sorted(set(places))
    beside = any(b - a == 1 for a, b in pairwise(pages))
    return with_text > 1 and len(pages) >= enough and (len(pages) > 2 or beside)


def _outside(
    edge: str,
    row: Row,
    near: list[tuple[str, Row]],
    seen: dict[tuple[str, str], list[int]],
    enough: int,
    with_text: int,
) -> bool:
    """True where nothing of the page's own stands between the row and the edge: the headings of a table that stand under a
    title recur on many pages and are no running header. Words without figures on most pages may stand below a section's name."""
    rows = [r for e, r in near if e == edge]
    if edge == "bottom":
        rows.reverse()
    outer = rows[: next(i for i, r in enumerate(rows) if r is row)]
    if all(_recurs(seen[edge, _key(r)], enough, with_text) or LONE.match(r.text) for r in outer):
        return True
    return len(set(seen[edge, _key(row)])) * 2 >= with_text >= 3 and not re.search(r"\d", row.text)


DIVISION_LINE = pattern(
    r"(?:schedule|part|article|chapter|exhibit|appendix|annex|annexure|attachment)\s+(?:\d{1,3}|[ivxlc]{1,7}|[a-z])\b",
    re.IGNORECASE,
)


def _same_beside(edges: list[list[tuple[str, Row]]], place: int, row: Row) -> bool:
    """True where the page before or after has the very same line at its edge: "Schedule 1" once is a heading."""
    beside = [r.text for i in (place - 1, place + 1) if 0 <= i < len(edges) for _, r in edges[i]]
    return row.text in beside


def _apart(page: PageMarks, rows: list[Row], row: Row) -> bool:
    """A lone number counts as a page number where it stands clear of the text and near the edge."""
    place = next(i for i, r in enumerate(rows) if r is row)
    other = rows[1] if place == 0 else rows[place - 1]
    gap = other.top - row.bottom if place == 0 else row.top - other.bottom
    return gap > 0.8 * row.size and (row.bottom < 0.1 * page.height or row.top > 0.88 * page.height)


def printed_labels(furniture: list[list[Row]]) -> list[str]:
    """The number printed on each page, "" where none: the one token that grows by one from page to page."""
    slots: dict[tuple[str, int], dict[int, str]] = defaultdict(dict)
    for place, rows in enumerate(furniture):
        for row in rows:
            for token_place, token in enumerate(row.text.split()):
                bare = token.strip("-–—()[].,|")
                if NUMBER.match(bare) or (ROMAN.match(bare) and roman_value(bare)):
                    kind = "number" if NUMBER.match(bare) else "roman"
                    slots[f"{_key(row)}|{kind}", token_place][place] = bare
    labels = [""] * len(furniture)
    strength = [0] * len(furniture)
    for found in slots.values():
        values = {p: int(t) if t.isdigit() else roman_value(t) for p, t in found.items()}
        for page, token in found.items():
            run = sum(values[p] - p == values[page] - page for p in values)
            lone = any(len(row.text.split()) == 1 and token in row.text for row in furniture[page])
            if (run >= 2 or len(furniture) <= 2 or (lone and 0 < values[page] <= page + 1)) and run > strength[page]:
                labels[page], strength[page] = token, run
    return labels
