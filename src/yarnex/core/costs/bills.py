"""Document -> bills: where one begins, who sent it, its number and days, and its lines with quantities and prices."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from yarnex.core.costs.kinds import kind_of_charge, role_of
from yarnex.core.costs.model import Bill, BillLine
from yarnex.core.document import Document, Span
from yarnex.core.document.model import Cell, Table
from yarnex.core.figures.printed import read_printed
from yarnex.core.figures.scales import read_scale
from yarnex.core.patterns import pattern
from yarnex.core.terms.identity import identify
from yarnex.core.values import find_dates, find_organisations
from yarnex.core.values.dates import date_order
from yarnex.core.values.money import usual_dollar

AMOUNT = pattern(r"\b(?:amount|total|charge[sd]?|sum|value|cost|line\s+total|net|payable|balance)\b", re.IGNORECASE)
QUANTITY = pattern(r"\b(?:qty|quantity|units?|hours|hrs|no\.?|days|number)\b", re.IGNORECASE)
PRICE = pattern(r"\b(?:rate|unit\s+price|price|each|per\s+unit|unit\s+cost)\b", re.IGNORECASE)
CODE = pattern(r"\b(?:code|item\s+no|sku|ref\.?|procedure)\b", re.IGNORECASE)
DATE = pattern(r"\bdate\b", re.IGNORECASE)
NUMBER = pattern(
    r"\b(?:(?:tax\s+)?invoice|bill|estimate|quotation|quote|credit\s+note|receipt|statement|account|our\s+ref(?:erence)?)\s*(?:no\.?|number|nr\.?|#|ref\.?)?\s*[:.]?\s*(?P<number>(?=[A-Z0-9/-]*\d)(?:[A-Z]{1,5}[-/]?\d[\w/-]{0,18}|\d[\w/-]{1,18}))\b",
    re.IGNORECASE,
)
BILL_WORDS = pattern(
    r"\b(?:invoice|bill\b|estimate|quotation|credit\s+note|statement\s+of\s+account|receipt|amount\s+due|to\s+pay|total\s+due)\b",
    re.IGNORECASE,
)
DUE = pattern(r"\b(?:due(?:\s+date)?|payable\s+by|pay\s+by|payment\s+due)\s*:?\s*", re.IGNORECASE)
CUSTOMER = pattern(
    r"(?:\b(?:bill(?:ed)?\s+to|invoice\s+to|customer|client|patient|account\s+of)\s*:?\s*|\ATo:?\s+)(?P<name>[A-Z][^,\n\t(:–]{3,60})",
    re.IGNORECASE,
)
TRAILING = pattern(
    r"\A(?P<what>.*?\D)\s+(?P<quantity>\d[\d.,]*)\s*(?P<unit>h|hrs?|hours?|km|miles|m²|m2|m|days?|nights?|weeks?|kg|units?|pcs?|each)?(?:\s+(?P<price>\d[\d,]*\.\d{2}))?\Z"
)
MERGED_PRICE = pattern(r"\A(?P<what>.*?\D)\s+(?P<price>\d[\d,]*\.\d{2})\Z")
KINDS = (
    (pattern(r"\bcredit\s+note\b", re.IGNORECASE), "credit note"),
    (pattern(r"\b(?:estimate|quotation|quote)\b", re.IGNORECASE), "estimate"),
    (pattern(r"\breceipt\b", re.IGNORECASE), "receipt"),
)
LEAST_LINES = 2


@dataclass(frozen=True, slots=True)
class _Columns:
    amount: int
    quantity: int
    price: int
    code: int
    date: int
    merged: bool  # quantity or price stand in the column of the description


def bills_of(document: Document) -> tuple[Bill, ...]:
    """The bills of a document, in order."""
    order = date_order(document.text)
    out: list[Bill] = []
    start = 0
    for table in document.tables:
        columns = _columns(document, table)
        if columns is None:
            continue
        lines = tuple(_lines(document, table, columns))
        head = _head_span(document, table, start)
        words = head.of(document.text) + " " + _heading_words(document, table)
        charges = sum(line.role == "charge" for line in lines)
        totals = sum(line.role in ("total", "subtotal") for line in lines)
        billing = identify(document).kind in ("invoice", "purchase_order", "estimate", "statement_of_account", "bill")
        if charges < 1 or not totals or not (BILL_WORDS.search(words) or billing) or len(lines) < LEAST_LINES:
            continue
        if not NUMBER.search(words) and not billing:
            continue
        out.append(_bill(document, table, head, words, lines, order))
        start = table.span.end
    return tuple(out)


def _heading_words(document: Document, table: Table) -> str:
    return " ".join(c.span.of(document.text) for c in table.cells if c.row < max(1, table.header_rows))


def _head_span(document: Document, table: Table, start: int) -> Span:
    """What stands over a bill's lines: back to the bill before it, but on its own page."""
    page = document.pages_of(table.span)[0]
    first = table.span.start
    for block in reversed([b for b in document.blocks if start <= b.span.start < table.span.start]):
        if page and document.pages_of(block.span)[1] and document.pages_of(block.span)[1] < page:
            break
        if block.kind == "furniture":
            continue
        first = block.span.start
    return Span(first, max(table.span.start, first + 1))


def _columns(document: Document, table: Table) -> _Columns | None:
    """Which column holds amounts; None where none does."""
    heads: dict[int, str] = {}
    for cell in table.cells:
        if cell.row < table.header_rows:
            words = " ".join(cell.span.of(document.text).split())
            heads[cell.column] = f"{heads.get(cell.column, '')} {words}".strip()
    counts: dict[int, int] = {}
    for cell in table.cells:
        if cell.row >= table.header_rows and cell.column > 0 and _amounts(cell.span.of(document.text)):
            counts[cell.column] = counts.get(cell.column, 0) + 1
    if not counts:
        return None
    named = [c for c in sorted(counts, reverse=True) if AMOUNT.search(heads.get(c, ""))]
    if not named and heads:
        return None
    amount = named[0] if named else max(counts)
    if any(re.search(r"\b(?:presented|allowed|approved|claimed)\b", h, re.IGNORECASE) for h in heads.values()):
        return None

    def one(form: re.Pattern[str], *, but: tuple[int, ...] = ()) -> int:
        return next((c for c, h in heads.items() if c not in (0, amount, *but) and form.search(h)), -1)

    quantity = one(QUANTITY)
    price = one(PRICE, but=(quantity,))
    merged = bool(QUANTITY.search(heads.get(0, "")))
    return _Columns(amount, quantity, price, one(CODE), one(DATE), merged)


def _amounts(text: str) -> list[Decimal]:
    """The money amounts of a cell: one, or several that stand on lines of their own."""
    words = " ".join(text.split())
    one = read_printed(words)
    if one is not None and one.value is not None and (re.search(r"\d", words) or words.lower() == "nil"):
        return [one.value * one.scale]
    parts = words.split(" ")
    if len(parts) > 1 and all(re.fullmatch(r"\(?[£$€]?-?\d[\d,]*\.\d{2}\)?", p) for p in parts):
        return [r.value for p in parts if (r := read_printed(p)) is not None and r.value is not None]
    return []


def _lines(document: Document, table: Table, columns: _Columns) -> Iterator[BillLine]:
    order = date_order(document.text)
    for row in range(table.header_rows, table.rows):
        cells = {c.column: c for c in table.row_cells(row)}
        if columns.amount not in cells:
            continue
        amounts = _amounts(cells[columns.amount].span.of(document.text))
        if not amounts:
            continue
        span = Span(min(c.span.start for c in cells.values()), max(c.span.end for c in cells.values()))
        for place, amount in enumerate(amounts):
            parts = {c: _part(document, cell, cells[columns.amount], place, len(amounts)) for c, cell in cells.items()}
            yield _line(parts, columns, amount, span, order)


def _part(document: Document, cell: Cell, amount: Cell, place: int, count: int) -> str:
    """The words of a cell that belong to the nth amount of its row: those printed on its line or on the lines up to the next."""
    text = document.text
    if count == 1 or not document.fragments.boxes:
        words = " ".join(cell.span.of(text).split())
        return words if count == 1 or place == 0 else ""

    def tops(span: Span) -> list[tuple[float, str]]:
        inside = document.fragments.within(span)
        return [
            (document.fragments.boxes[4 * i + 1], text[document.fragments.starts[i] : document.fragments.ends[i]])
            for i in inside
        ]

    lines = sorted({round(t) for t, _ in tops(amount.span)})
    if len(lines) < count:
        return " ".join(cell.span.of(text).split()) if place == 0 else ""
    low = (
        (lines[place - 1] + lines[place]) / 2 if place else float("-inf")
    )  # an amount stands beside the middle of its words
    high = (lines[place] + lines[place + 1]) / 2 if place + 1 < len(lines) else float("inf")
    return " ".join(word for top, word in tops(cell.span) if low < top + 1 <= high)


def _line(parts: dict[int, str], columns: _Columns, amount: Decimal, span: Span, order: object) -> BillLine:
    what = parts.get(0, "") or next(
        (v for c, v in sorted(parts.items()) if c not in (columns.amount, columns.quantity, columns.price)), ""
    )
    role = role_of(what)
    quantity, unit, price = None, "", None
    if role == "charge":
        if columns.quantity >= 0:
            m = re.match(r"(\d[\d.,]*)\s*(.*)", parts.get(columns.quantity, ""))
            read = read_printed(m[1]) if m else None
            quantity, unit = (read.value, m[2].strip()) if read and m else (None, "")
        if columns.price >= 0:
            read = read_printed(parts.get(columns.price, ""))
            price = read.value if read else None
        if quantity is None and (columns.merged or (columns.quantity >= 0 and not parts.get(columns.quantity))):
            m = TRAILING.match(what)
            if m:
                told = read_printed(m["quantity"])
                if told is not None:
                    what, quantity, unit = m["what"].strip(), told.value, m["unit"] or ""
                    if m["price"] and price is None and (p := read_printed(m["price"])) is not None:
                        price = p.value
            elif price is None and (m := MERGED_PRICE.match(what)) and (p := read_printed(m["price"])) is not None:
                what, price = m["what"].strip(), p.value
    words = parts.get(columns.date, "") if columns.date >= 0 else what
    served = next((f.value.day for f in find_dates(words)), None) if role == "charge" else None
    if (
        role in ("payment", "adjustment")
        and amount > 0
        and re.match(r"(?:less|discount|credit|rebate|excess)", what, re.IGNORECASE)
    ):
        amount = -amount
    return BillLine(
        what.strip(" :"),
        amount,
        role,
        kind_of_charge(what, role),
        span,
        quantity,
        unit,
        price,
        parts.get(columns.code, "") if columns.code >= 0 else "",
        served,
    )


def _bill(document: Document, table: Table, head: Span, words: str, lines: tuple[BillLine, ...], order: object) -> Bill:
    number = NUMBER.search(words)
    kind = next((name for form, name in KINDS if form.search(words[:600])), "invoice")
    due_at = DUE.search(words)
    days = list(find_dates(words, date_order(document.text)))
    due = next(
        (d.value.day for d in days if due_at and d.span.start >= due_at.end() and d.span.start - due_at.end() < 4), None
    )
    dated = _dated(words, days, due)
    customer = CUSTOMER.search(words)
    dollar = usual_dollar(document.text)
    currency = next(
        (
            c
            for c in (
                read_scale(_heading_words(document, table), dollar).currency,
                read_scale(" ".join(line.what for line in lines), dollar).currency,
            )
            if c
        ),
        "",
    )
    currency = currency or _currency_in(table.span.of(document.text) + words, dollar)
    provider = provider_in(document, head, customer["name"].strip() if customer else "")
    return Bill(
        document,
        kind,
        provider,
        number["number"] if number else "",
        dated,
        due,
        customer["name"].strip() if customer else "",
        currency,
        lines,
        table.span,
        head,
    )


def _currency_in(words: str, dollar: str) -> str:
    from yarnex.core.values import find_money

    found = next(find_money(words, dollar), None)
    return (found.value.currency or "") if found else ""


def _dated(words: str, days: list, due: date | None) -> date | None:  # type: ignore[type-arg]
    """The day of the bill: labelled, else beside its number, else the first that is no due day and no day of work."""
    for found in days:
        before = words[max(0, found.span.start - 24) : found.span.start]
        if re.search(r"\b(?:date|dated|invoice\s+date)\s*:?\s*\Z", before, re.IGNORECASE) and not DUE.search(before):
            day: date = found.value.day
            return day
    for found in days:
        before = words[max(0, found.span.start - 60) : found.span.start]
        if (
            not re.search(r"\b(?:due|work|job|site|period|from|to|between|on)\b[^\n]{0,30}\Z", before, re.IGNORECASE)
            and found.value.day != due
        ):
            first: date = found.value.day
            return first
    return None


ADDRESS = pattern(
    r"\s+(?:·|\||–|-)\s+|,\s|\s+(?=\d)|\s+(?:Unit|Suite|PO\s+Box|Tel|GST|VAT|ABN|Invoice|INVOICE|Tax|TAX|The\s+Old)\b|\t|\n"
)


def provider_in(document: Document, head: Span, customer: str) -> str:
    """Who sent a bill: the heading or first line over it, by its full name where the head gives that too."""
    text = document.text
    first = ""
    for block in document.blocks:
        if not head.start <= block.span.start < head.end or block.kind == "furniture":
            continue
        words = re.sub(r"\A[^\w(]+", "", " ".join(block.span.of(text).split()))
        if not words or BILL_WORDS.match(words) or words.lower().startswith(("tax invoice", "page ")):
            continue
        first = ADDRESS.split(words)[0].strip(" .,:")
        break
    found = [f.value.name.split("\n")[-1].strip() for f in find_organisations(head.of(text))]
    names = [n for n in found if not customer or n.lower() not in customer.lower()]
    same = [n for n in names if first and n.split()[0].lower() == first.split()[0].lower()]
    return max([first, *same], key=len) if first else (names[0] if names else "")
