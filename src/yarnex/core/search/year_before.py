"""What a figure was before: "what were sales the year before?" of "£212.6m (2025: £205.6m)" or of the next column of a table."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from yarnex.core.document import Cell, Span, Table
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.search.evidence import place_of_value
from yarnex.core.terms.by_words import BEFORE_IT
from yarnex.core.terms.candidates import quote_around
from yarnex.core.values import Money, Quantity, Value
from yarnex.core.values.numbers import read_digits

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.weighing import Answer

_time = r"(?:financial\s+|full\s+)?(?:year|half|half-year|quarter|month|period)"
TIME_BEFORE = pattern(
    rf"[,\s]*(?:\b(?:in|for|at|of|during)\s+)?(?:\b(?:the|its)\s+)?\b(?:{_time}\s+before(?!\s+\w)|(?:previous|prior|preceding)\s+{_time}(?:['’]s)?(?:\s+end)?)\b|[,\s]*\b(?:a|one)\s+year\s+(?:ago|earlier|before(?!\s+\w))\b",
    re.IGNORECASE,
)
YEAR = pattern(r"\b(?:19|20)\d\d\b")
HEAD_YEAR = pattern(
    r"\b(?:19|20)\d\d\b|(?<=\bFY)\d\d\b|(?<=\bFY\s)\d\d\b|(?<=\bFY[’'])\d\d\b|(?<=\bH[12]\s)\d\d\b|(?<=\bQ[1-4]\s)\d\d\b"
)
OPENS_BESIDE = pattern(
    rf"\s*\((?:[\w ]{{0,24}}?(?:19|20)\d\d|(?:last|prior|previous)\s+{_time})?:?\s*(?:(?:about|some)\s+)?\Z",
    re.IGNORECASE,
)
# "eleven accidents in the quarter (last quarter: fourteen)"
OPENS_LATER = pattern(
    rf"[^.;:()\d]{{1,40}}\((?:(?:last|prior|previous)\s+{_time}|(?:the\s+)?{_time}\s+before|before|a\s+year\s+(?:ago|before|earlier)):\s*(?:(?:about|some)\s+)?\Z",
    re.IGNORECASE,
)
CLOSES = pattern(r"(?:\s?(?:m|bn|million|billion|per\s+share))?\s*[);,]")


def without_time(words: str) -> str:
    """A question without its "the year before"; "" where it has none, or nothing else.

    >>> without_time("What were sales the year before?")
    'What were sales?'
    """
    rest = TIME_BEFORE.sub("", words)
    return rest if rest != words and not YEAR.search(words) and re.search(r"\w{3,}\W+\w", rest) else ""


def as_it_was_before(inquiry: Inquiry, now: Answer) -> Answer | None:
    """The answer with the value that stands beside it for the time before; None where none does.

    now: what answers the question without its time. Beside it means in brackets right behind it, behind "against" or "up from" in
    the same sentence, or in the column of the year before in the same row.
    """
    place, text = place_of_value(inquiry, now), inquiry.passages.text
    if place is None or now.kind not in ("money", "percent", "number", "duration"):
        return None
    cell = inquiry.document.cell_at(place)
    if cell is not None and cell[0].header_rows:
        there = _of_the_year_before(*cell, text)
    else:
        sentence = inquiry.passages.sentence_at(place.start)
        there = _behind(text, place, sentence.span.end) if sentence is not None else None
    finder = inquiry.values.finder(now.kind)
    if there is None or finder is None:
        return None
    if cell is not None and (scaled := _as_scaled(inquiry, now, place, there)) is not None:
        quote = quote_around(inquiry.passages, there)
        return replace(now, value=scaled, span=there, quote=quote, finding=None, why=BESIDE, working=())
    lines = inquiry.matcher.lines.at(there)
    found = next(
        (f for line in lines for f in finder(line) if f.span.overlaps(there) and _may_be(text, place, f.span, cell)),
        None,
    )
    if found is None:
        return None
    quote = quote_around(inquiry.passages, found.span)
    return replace(
        now, value=found.value, span=found.span, quote=quote, finding=None, why=BESIDE, working=()
    )  # fmt: skip


BESIDE = "it stands beside the value for the time after it"
PRINTED = pattern(r"\d[\d.,  '’]*\d|\d")


def _as_scaled(inquiry: Inquiry, now: Answer, place: Span, there: Span) -> Value | None:
    """The value of a cell in the measure in which its neighbour in the row was read, "printed in thousands"; None where it has no
    figure of its own.
    """
    printed, other = (PRINTED.search(span.of(inquiry.passages.text)) for span in (place, there))
    own, before = (read_digits(m.group()) if m is not None else None for m in (printed, other))
    value = now.value
    if not own or before is None or not isinstance(value, Money | Quantity):
        return None
    amount = value.amount if isinstance(value, Money) else value.value
    if amount is None:
        return None
    scaled = before * (abs(amount) / own)
    if there.of(inquiry.passages.text).strip().startswith(("(", "-", "−")):
        scaled = -scaled
    return replace(value, amount=scaled) if isinstance(value, Money) else replace(value, value=scaled)


def _behind(text: str, place: Span, end: int) -> Span | None:
    """What stands behind a value up to the end of its sentence."""
    return Span(place.end, end) if end > place.end else None


def _may_be(text: str, place: Span, other: Span, cell: tuple[Table, Cell] | None) -> bool:
    """True for a value that is told as that of before."""
    if cell is not None:
        return True
    if other.start < place.end:
        return False
    between = text[place.end : other.start]
    if OPENS_BESIDE.fullmatch(between) or OPENS_LATER.fullmatch(between):
        return CLOSES.match(text, other.end) is not None
    return BEFORE_IT.search(between) is not None and not re.search(r"[;:]", between)


def _of_the_year_before(table: Table, cell: Cell, text: str) -> Span | None:
    """The cell of the same row in the column of the year before."""
    head = " ".join(column_path(table, cell, text))
    years = HEAD_YEAR.findall(head)
    if not years:
        return None
    before = str(int(years[-1]) - 1).zfill(len(years[-1]))
    heads = {
        c.column: " ".join(column_path(table, c, text)) for c in table.row_cells(cell.row) if c.column != cell.column
    }
    same = [column for column, words in heads.items() if words == head.replace(years[-1], before)]
    named = same or [column for column, words in heads.items() if before in HEAD_YEAR.findall(words)]
    if len(named) != 1:
        return None
    return next(c.span for c in table.row_cells(cell.row) if c.column == named[0])
