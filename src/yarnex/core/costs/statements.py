"""Payment notices and statements: what was presented and allowed for each bill, and what was paid when."""

from __future__ import annotations

import re
from decimal import Decimal

from yarnex.core.costs.model import Claimed, Payment
from yarnex.core.document import Cite, Document, Span
from yarnex.core.document.model import Table
from yarnex.core.figures.printed import read_printed
from yarnex.core.figures.scales import read_scale
from yarnex.core.patterns import pattern
from yarnex.core.values import find_dates, find_money
from yarnex.core.values.dates import date_order
from yarnex.core.values.money import usual_dollar

PRESENTED = pattern(r"\b(?:presented|claimed|billed|submitted|invoiced|charged)\b", re.IGNORECASE)
ALLOWED = pattern(r"\b(?:allowed|approved|accepted|paid|payable|covered|agreed)\b", re.IGNORECASE)
REASON = pattern(r"\b(?:reason|remark|note|code|comment|explanation)s?\b", re.IGNORECASE)
PAID = pattern(
    r"\A\s*(?:less:?\s+)?(?:interim\s+)?(?:paid|payment(?:\s+received)?|remitted|transferred)\b", re.IGNORECASE
)


def _head(document: Document, table: Table, column: int) -> str:
    return " ".join(
        " ".join(c.span.of(document.text).split())
        for c in table.cells
        if c.row < table.header_rows and c.column == column
    )


def _row_span(table: Table, row: int) -> Span:
    cells = table.row_cells(row)
    return Span(min(c.span.start for c in cells), max(c.span.end for c in cells))


def claims_of(document: Document) -> list[Claimed]:
    """Rows of tables with a column of what was presented and one of what was allowed."""
    out = []
    for table in document.tables:
        heads = {c: _head(document, table, c) for c in range(table.columns)}
        asked = next((c for c, h in heads.items() if c and PRESENTED.search(h)), -1)
        given = next((c for c, h in heads.items() if c and c != asked and ALLOWED.search(h)), -1)
        why = next((c for c, h in heads.items() if c and REASON.search(h)), -1)
        if asked < 0 or given < 0:
            continue
        for row in range(table.header_rows, table.rows):
            cells = {c.column: " ".join(c.span.of(document.text).split()) for c in table.row_cells(row)}
            if 0 not in cells or re.match(r"(?:sub-?)?total\b", cells[0], re.IGNORECASE):
                continue
            a, b = read_printed(cells.get(asked, "")), read_printed(cells.get(given, ""))
            if a is None and b is None:
                continue
            reason = cells.get(why, "") if why >= 0 else ""
            reason = "" if reason in ("–", "-", "—") else _reason_words(document, reason)
            out.append(
                Claimed(
                    document,
                    cells[0],
                    a.value if a else None,
                    b.value if b else None,
                    reason,
                    Cite(document, _row_span(table, row)),
                )
            )
    return out


def _reason_words(document: Document, code: str) -> str:
    """A numbered reason in the words that the document gives for it."""
    if re.fullmatch(r"\(?\w{1,3}\)?", code):
        m = re.search(
            rf"\b(?:reason|note|code)\s*{re.escape(code.strip('()'))}\s*[:.–-]\s*([^\n]{{5,300}})",
            document.text,
            re.IGNORECASE,
        )
        if m:
            return " ".join(m[1].split())
    return code


def _usual_currency(document: Document, dollar: str) -> str:
    """The currency of the first amount or heading that names one; "" where none does."""
    for table in document.tables:
        for column in range(table.columns):
            if found := read_scale(_head(document, table, column), dollar).currency:
                return found
    amount = next(find_money(document.text, dollar), None)
    return (amount.value.currency or "") if amount else ""


def payments_of(document: Document) -> list[Payment]:
    """Rows that say that a sum was paid, with its day where it is told."""
    order, dollar = date_order(document.text), usual_dollar(document.text)
    usual = _usual_currency(document, dollar)
    out = []
    for table in document.tables:
        for row in range(table.rows):
            cells = table.row_cells(row)
            words = {c.column: " ".join(c.span.of(document.text).split()) for c in cells}
            if 0 not in words or not PAID.match(words[0]) or len(cells) < 2:
                continue
            amounts = [r for c, w in words.items() if c and (r := read_printed(w, dollar)) is not None and r.value]
            if not amounts:
                continue
            day = next((f.value.day for f in find_dates(words[0], order)), None)
            unit = (
                amounts[-1].unit
                or read_scale(" ".join(_head(document, table, c) for c in range(table.columns)), dollar).currency
                or usual
            )
            value = abs(amounts[-1].value or Decimal(0)) * amounts[-1].scale
            out.append(
                Payment(
                    document,
                    day,
                    value,
                    unit if len(unit) == 3 else "",
                    words[0],
                    Cite(document, _row_span(table, row)),
                )
            )
    return out
