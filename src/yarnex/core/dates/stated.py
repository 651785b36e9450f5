"""Days that a document states: in definitions, rows, sentences; and the terms of its sheet that are days."""

from __future__ import annotations

import re
from dataclasses import replace

from yarnex.core.dates.anchors import Anchors
from yarnex.core.dates.kinds import kind_of
from yarnex.core.dates.model import DatedItem
from yarnex.core.dates.wording import sentence_span, short_what, who_in
from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.abstract import LEADER
from yarnex.core.values import DateValue, Found, Value

TERM_KINDS = (
    (pattern(r"^(?:document|lease|contract|agreement|deed|policy|order|report)_date$"), "document"),
    (pattern(r"notice|last_day|option_by"), "notice"), (pattern(r"review"), "review"), (pattern(r"end|expir|matur|until"), "end"),
    (pattern(r"pay|due|premium|instal"), "payment"), (pattern(r"start|added|commenc|begin|effective|drawdown|inception"), "start"), (pattern(r"dated|(?:document|lease|contract|agreement|deed|policy|order|report)_date|signature|date_of"), "document"),
)  # fmt: skip
GENERIC = pattern(r"(?:period|date|from|to|year|lease year|term|payment|item|step)s?", re.IGNORECASE)
DONE = pattern(
    r"\b(?:was|were|has\s+been|have\s+been|had\s+been)\s+(?:\w+\s+)?\w+(?:ed|en|de|ld|nt)\s+(?:on|by|in)\s+\Z",
    re.IGNORECASE,
)
REFERENCE = pattern(r"\b(?:dated|made\s+(?:on|the)|letter\s+of|as\s+of)\s+(?:the\s+)?\Z", re.IGNORECASE)


def term_items(anchors: Anchors) -> list[DatedItem]:
    """The day-valued terms of the filled sheet, with what the sheet calls them; those worked out with their working."""
    out = []
    for finding in anchors.filled.findings:
        if (
            not isinstance(finding.value, DateValue)
            or not finding.usable
            or finding.confidence < 0.55
            or finding.state == "conflicting"
            or finding.term.id == "end_before_change"  # a day on which nothing ends any more
        ):
            continue
        if finding.term.id.startswith("other_") and finding.state != "computed":
            continue  # given by its own row below
        kind = next((k for form, k in TERM_KINDS if form.search(finding.term.id)), "deadline")
        state = "computed" if finding.state == "computed" else "stated"
        notes = ("changed by an amendment",) if finding.state == "amended" else ()
        who = who_in(anchors.document, finding.cites[0].quote)
        out.append(
            DatedItem(
                anchors.document,
                finding.value.day,
                finding.term.label,
                kind,
                state,
                finding.cites,
                who,
                working=finding.working,
                notes=notes,
                weight=3,
            )
        )
    return out


def stated_items(anchors: Anchors) -> list[DatedItem]:
    """Every full date in the text, once for each sentence or row, with what that says."""
    passages, document = anchors.passages, anchors.document
    rows = {(r.row.start, r.row.end): r.label for r in passages.labelled}
    out: list[DatedItem] = []
    for found in passages.values("date"):
        if not isinstance(found.value, DateValue) or found.span.start >= document.body_end:
            continue
        span = sentence_span(passages, found.span.start)
        words = span.of(document.text)
        if LEADER.search(words):
            continue
        at = found.span.start - span.start
        label = next(
            (label for (start, end), label in rows.items() if start <= found.span.start < end and end - start <= 400),
            "",
        )
        held = document.cell_at(found.span)
        if held is not None and (
            label.strip(" .()").isdigit() or GENERIC.fullmatch(label) or label in held[1].span.of(document.text)
        ):
            label = ""  # a row's number, "Period" or the cell itself says nothing
        table_head = _column_head(anchors, found.span) if not label else ""
        if table_head and (last := _ends_range(document.text, out, found)) is not None:
            out[-1] = replace(last, until=found.value.day)
            continue
        what = table_head or short_what(words, at, at + found.span.end - found.span.start)
        if label and not GENERIC.fullmatch(label):
            what = label if len(words) <= 160 else f"{label}: {what}"
        clause = (
            f"{label} {words[max(0, at - 90) : at + 60]}"
            if label
            else f"{table_head} {words[max(0, at - 110) : at + 70]}"
        )
        kind = kind_of(clause)
        if REFERENCE.search(words[:at]):
            kind = "document"
        elif DONE.search(words[:at]) and kind == "deadline":
            kind = "event"
        weight = 2 if label or table_head else 1
        out.append(
            DatedItem(
                document,
                found.value.day,
                what,
                kind,
                "stated",
                (Cite(document, span),),
                who_in(document, words),
                reading=found.reading,
                weight=weight,
            )
        )
    return out


def _ends_range(text: str, before: list[DatedItem], found: Found[Value]) -> DatedItem | None:
    """The item before, where this day ends the range that it begins in the same cell: "1 May 2026 – 30 April 2027"."""
    if not before or before[-1].day is None or before[-1].until is not None:
        return None
    at = before[-1].cites[0].span
    same_cell = text[at.start : found.span.start].rpartition("\t")[2]
    joined = re.search(r"\d\s*(?:–|—|-|to)\s*\Z", same_cell)
    return before[-1] if joined and at.start <= found.span.start < at.end else None


def _column_head(anchors: Anchors, span: Span) -> str:
    """For a date in a table of several columns: its column's heading and the words of its row."""
    held = anchors.document.cell_at(span)
    if held is None:
        return ""
    table, cell = held
    text = anchors.document.text
    head = " ".join(
        " ".join(c.span.of(text).split())
        for c in table.cells
        if c.row < table.header_rows and c.column <= cell.column < c.column + c.column_span
    )
    first = next((c for c in table.row_cells(cell.row) if c.column == 0), None)
    name = " ".join(first.span.of(text).split()) if first is not None and first is not cell else ""
    if name.isdigit() and (over := table.at(0, 0)) is not None and table.header_rows:
        name = f"{' '.join(over.span.of(text).split())} {name}"  # "Lease Year 3"
    words = ": ".join(filter(None, [head, name]))
    return words[:120]
