"""What stands over a table, and what it tells: statement, basis, scale, period, qualifiers."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.document import Document, Span
from yarnex.core.document.model import Table
from yarnex.core.figures.calendar import Heading, YearEnds, read_heading
from yarnex.core.figures.lines import line_vocabulary
from yarnex.core.figures.scales import NOTHING, Scale, read_scale
from yarnex.core.patterns import pattern

NEAR = 3  # blocks before a table that may caption it
SHORT = 160  # characters of a line that captions
_whole = pattern(
    r"(?:all\s+(?:amounts|figures)|(?:amounts|figures)\s+(?:are\s+)?(?:in|stated|presented|expressed)|presented\s+in|expressed\s+in|rounded\s+to)[^.\n]{0,120}",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Over:
    """statement, basis: "" where the headings tell neither. captions: nearest first. period: that the headings name."""

    statement: str
    basis: str
    scale: Scale
    period: Heading | None
    marks: tuple[str, ...]
    captions: tuple[str, ...]


def captions_of(document: Document, table: Table) -> tuple[str, ...]:
    """The words over a table, nearest first: short lines directly before it, then the headings of its sections."""
    place = document.block_index_at(table.span.start)
    out: list[str] = []
    for block in reversed(document.blocks[max(0, place - NEAR) : place]):
        words = " ".join(block.span.of(document.text).split())
        if block.table >= 0 or block.kind == "item":
            break
        if block.kind == "furniture":
            continue
        if len(words) > SHORT:
            break
        out.append(words)
        if block.kind == "heading":
            break
    out += [s.name for s in reversed(document.section_path(table.span.start)) if s.name not in out]
    return tuple(out)


@lru_cache(maxsize=32)
def whole_scale(document: Document, dollar: str) -> Scale:
    """The scale that the document states for all its figures ("all amounts in thousands of euros"), NOTHING where none."""
    for m in _whole.finditer(document.text):
        found = read_scale(m.group(), dollar)
        if found.factor:
            return found
    return NOTHING


def over_table(document: Document, table: Table, ends: YearEnds, dollar: str) -> Over:
    """What the headings over a table tell."""
    vocabulary = line_vocabulary()
    captions = captions_of(document, table)
    statement, basis, scale, period = "", "", NOTHING, None
    marks: list[str] = []
    for caption in captions:
        low = caption.lower()
        statement = statement or _first(vocabulary.statements, low)
        basis = basis or _first(vocabulary.bases, low)
        if len(caption) <= SHORT and not scale.factor:
            scale = scale.over(read_scale(caption, dollar)) if not _amount_in(caption) else scale
        said = read_heading(caption, ends)
        if period is None and said.period is not None and (said.sure and not re.fullmatch(r"\d{4}", caption)):
            period = said
        marks += [m for m in said.marks if m in ("unaudited", "audited", "pro forma", "restated") and m not in marks]
    return Over(statement, basis, scale, period, tuple(marks), captions)


def _first(pairs: tuple[tuple[str, str], ...], low: str) -> str:
    return next((name for words, name in pairs if re.search(rf"\b{re.escape(words)}\b", low)), "")


def _amount_in(caption: str) -> bool:
    """True where a caption tells an amount ("£250 million bonds"), which is no scale of the table."""
    return bool(re.search(r"[£$€₹]\s?\d", caption))


def row_span(table: Table, row: int) -> Span:
    """The words of a whole row."""
    cells = table.row_cells(row)
    return Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
