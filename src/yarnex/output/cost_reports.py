"""Costs -> Reports and workbooks."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime
from decimal import Decimal
from typing import Any

from yarnex.core.costs import Bill, Costs
from yarnex.core.costs.checks import KINDS
from yarnex.core.costs.gather import corrected_total
from yarnex.core.document import Cite, Document
from yarnex.core.errors import UnreadableError
from yarnex.core.values.types import plain_number
from yarnex.output.figure_reports import aligned
from yarnex.output.report import Cell, Report, Section, Table, TableRow
from yarnex.output.reports import warnings_of
from yarnex.output.wording import counted, one_line
from yarnex.output.workbook import Forms, link_to, new_book

OF_WORDS = {
    "provider": "by provider", "document": "by document", "month": "by month", "kind": "by kind", "allowed": "paid and outstanding", "paid": "paid and outstanding",
    "allowed less paid": "paid and outstanding", "after corrections less paid": "paid and outstanding",
}  # fmt: skip


def narrowed(costs: Costs, kinds: Sequence[str], provider: str) -> Costs:
    """Only the bills of a provider, and only those with a charge of a kind."""
    bills = [
        b
        for b in costs.bills
        if provider.lower() in b.provider.lower() and (not kinds or any(line.kind in kinds for line in b.charges))
    ]
    if len(bills) == len(costs.bills):
        return costs
    kept = {b.name for b in bills}
    spans = {(b.document.path, b.span) for b in bills}
    checks = tuple(
        c
        for c in costs.checks
        if any(
            c.cites[0].document.path == path and (span.overlaps(c.cites[0].span) or c.kind == "copy")
            for path, span in spans
        )
    )
    return replace(
        costs,
        bills=tuple(bills),
        claims=tuple(c for c in costs.claims if c.matched in kept),
        payments=(),
        checks=checks,
    )


def bill_dict(bill: Bill) -> dict[str, Any]:
    """A bill as JSON."""
    printed = bill.printed_total
    return {
        "document": bill.document.path, "kind": bill.kind, "provider": bill.provider or None, "number": bill.number or None,
        "date": bill.dated.isoformat() if bill.dated else None, "due": bill.due.isoformat() if bill.due else None, "customer": bill.customer or None,
        "currency": bill.currency, "printed_total": None if printed is None else plain_number(printed), "corrected_total": plain_number(corrected_total(bill)),
        "copy_of": bill.copy_of or None, "cites": [Cite(bill.document, bill.span).to_dict()],
    }  # fmt: skip


def money(value: Decimal | int | None) -> str:
    """An amount to the cent, thousands parted."""
    return "" if value is None else f"{Decimal(value):,.2f}".replace("-", "−")


def costs_report(
    costs: Costs, documents: Sequence[Document], unread: Sequence[UnreadableError], kinds: Sequence[str]
) -> Report:
    """Totals first, then what is not in order, then each bill line by line."""
    sections = []
    totals = costs.totals()
    if totals:
        amounts = aligned([money(t["amount"]) for t in totals])
        rows = [
            TableRow(
                (Cell(t["name"] or t["of"]), Cell(amount), Cell(t["currency"]), Cell(str(t["bills"] or ""))),
                group=OF_WORDS.get(t["of"], "all"),
            )
            for t, amount in zip(totals, amounts, strict=True)
        ]
        sections.append(
            Section("Totals", table=Table(("Of", "Amount", "Currency", "Bills"), tuple(rows), (10, 6, 3, 3), (1,)))
        )
    failed = [c for c in costs.checks if not c.passed]
    if failed:
        rows = [
            TableRow(
                (
                    Cell(one_line(c.what), notes=c.working, cites=c.cites[:1]),
                    Cell(money(c.difference) + (f" {c.unit}" if c.difference is not None else "")),
                ),
                group=KINDS[c.kind],
            )
            for c in failed
        ]
        sections.append(Section("Not in order", table=Table(("What", "Difference"), tuple(rows), (16, 5))))
    for bill in costs.bills:
        sections.append(_bill_section(bill, kinds))
    if costs.claims:
        rows = [
            TableRow(
                (
                    Cell(one_line(c.bill), notes=(c.reason,) if c.reason else (), cites=(c.cite,)),
                    Cell(money(c.presented)),
                    Cell(money(c.allowed)),
                    Cell(c.matched or "no bill of that number"),
                )
            )
            for c in costs.claims
        ]
        sections.append(
            Section(
                "Presented and allowed",
                table=Table(("Row", "Presented", "Allowed", "Bill"), tuple(rows), (12, 5, 5, 8), (1, 2)),
            )
        )
    if costs.payments:
        rows = [
            TableRow(
                (
                    Cell(p.day.isoformat() if p.day else "day not told"),
                    Cell(money(p.amount)),
                    Cell(p.currency),
                    Cell(p.towards, cites=(p.cite,)),
                )
            )
            for p in costs.payments
        ]
        sections.append(
            Section(
                "Payments", table=Table(("Day", "Amount", "Currency", "What for"), tuple(rows), (4, 4, 3, 10), (1,))
            )
        )
    if not sections:
        sections.append(Section("", lines=("No bills, statements or payments were found.",)))
    good = sum(c.passed for c in costs.checks)
    return Report(
        "Costs",
        f"{counted(len(costs.bills), 'bill')}, {counted(len(costs.payments), 'payment')}; {good} of {counted(len(costs.checks), 'check')} in order",
        tuple(sections),
        warnings_of(documents, unread),
    )


def _bill_section(bill: Bill, kinds: Sequence[str]) -> Section:
    lines = [line for line in bill.lines if not kinds or line.kind in kinds]
    amounts = aligned([money(line.amount) for line in lines])
    rows = []
    for line, amount in zip(lines, amounts, strict=True):
        quantity = f"{line.quantity.normalize():f} {line.unit}".strip() if line.quantity is not None else ""
        price = money(line.unit_price) if line.unit_price is not None else ""
        rows.append(
            TableRow(
                (
                    Cell(one_line(line.what), cites=(bill.cite(line),)),
                    Cell(quantity),
                    Cell(price),
                    Cell(amount),
                    Cell(line.kind if line.role == "charge" else line.role),
                )
            )
        )
    told = [
        bill.kind,
        f"dated {bill.dated}" if bill.dated else "not dated",
        f"due {bill.due}" if bill.due else "",
        f"to {bill.customer}" if bill.customer else "",
        bill.currency,
    ]
    lead = [" · ".join(filter(None, told))]
    if bill.copy_of:
        lead.append(f"repeats {bill.copy_of}; not counted again")
    elif bill.kind == "estimate":
        lead.append("an estimate; not counted")
    return Section(
        f"{bill.name}, {Cite(bill.document, bill.head).place.partition(',')[0]}",
        lead=tuple(lead),
        table=Table(("What", "Quantity", "Price", "Amount", "Kind"), tuple(rows), (12, 4, 4, 5, 4), (2, 3)),
    )


def costs_workbook(costs: Costs, folder: str = "") -> bytes:
    """Charges with real numbers; bills whose totals are formulas on them; payments; checks."""
    buffer = io.BytesIO()
    book = new_book(buffer, "Costs")
    forms = Forms(book)
    head = forms.get(bold=True, bg_color="#E4E8EE", bottom=1)
    number = forms.get(num_format="#,##0.00_);(#,##0.00)")
    sheet: Any = book.add_worksheet("Charges")
    heads = [
        "Bill",
        "Counted",
        "Provider",
        "Number",
        "Bill date",
        "Date of service",
        "What",
        "Kind",
        "Role",
        "Quantity",
        "Unit",
        "Price",
        "Amount",
        "Currency",
        "Document",
        "Page",
    ]
    sheet.write_row(0, 0, heads, head)
    for place, width in enumerate([6, 9, 30, 12, 12, 14, 56, 12, 11, 10, 8, 12, 14, 9, 24, 12]):
        sheet.set_column(place, place, width)
    row = 1
    rows_of: dict[int, tuple[int, int]] = {}
    for place, bill in enumerate(costs.bills, start=1):
        first = row
        for line in bill.charges:
            counts = "no" if bill.copy_of or bill.kind in ("estimate", "receipt") else "yes"
            sheet.write_row(row, 0, [place, counts, bill.provider, bill.number], forms.get())
            for column, day in ((4, bill.dated), (5, line.served)):
                if day:
                    sheet.write_datetime(
                        row,
                        column,
                        datetime(day.year, day.month, day.day),
                        forms.get(num_format="yyyy-mm-dd", align="left"),
                    )
            sheet.write_row(row, 6, [one_line(line.what), line.kind, line.role], forms.get())
            if line.quantity is not None:
                sheet.write_number(row, 9, float(line.quantity), forms.get(num_format="General"))
            sheet.write_string(row, 10, line.unit, forms.get())
            if line.unit_price is not None:
                sheet.write_number(row, 11, float(line.unit_price), number)
            sheet.write_number(row, 12, float(line.amount), number)
            sheet.write_row(row, 13, [bill.currency, bill.document.path], forms.get())
            link_to(sheet, forms, row, 15, bill.cite(line), folder)
            row += 1
        rows_of[place] = (first + 1, row)
    sheet.freeze_panes(1, 0)
    sheet.autofilter(0, 0, max(1, row - 1), len(heads) - 1)
    totals: Any = book.add_worksheet("Bills")
    heads = [
        "Bill",
        "Provider",
        "Number",
        "Date",
        "Due",
        "Lines added up",
        "Printed total",
        "Difference",
        "Counted",
        "Remark",
        "Page",
    ]
    totals.write_row(0, 0, heads, head)
    for place, width in enumerate([6, 34, 14, 12, 12, 16, 16, 14, 9, 60, 12]):
        totals.set_column(place, place, width)
    for place, bill in enumerate(costs.bills, start=1):
        first, last = rows_of[place]
        totals.write_row(
            place, 0, [place, bill.provider, bill.number, str(bill.dated or ""), str(bill.due or "")], forms.get()
        )
        totals.write_formula(place, 5, f"=SUM(Charges!M{first}:M{last})", number, float(bill.added_total))
        printed = bill.printed_total
        if printed is not None:
            totals.write_number(place, 6, float(printed), number)
            totals.write_formula(place, 7, f"=G{place + 1}-F{place + 1}", number, float(printed - bill.added_total))
        totals.write_string(
            place, 8, "no" if bill.copy_of or bill.kind in ("estimate", "receipt") else "yes", forms.get()
        )
        totals.write_string(place, 9, f"repeats {bill.copy_of}" if bill.copy_of else "", forms.get())
        link_to(totals, forms, place, 10, Cite(bill.document, bill.head), folder)
    if costs.bills:
        end = len(costs.bills) + 1
        totals.write_string(end, 1, "Counted, lines added up", forms.get(bold=True))
        counted_sum = sum((b.added_total for b in costs.counted()), Decimal(0))
        totals.write_formula(end, 5, f'=SUMIF(I2:I{end},"yes",F2:F{end})', number, float(counted_sum))
    paid: Any = book.add_worksheet("Payments")
    paid.write_row(0, 0, ["Day", "Amount", "Currency", "What for", "Document", "Page"], head)
    for n, payment in enumerate(costs.payments, start=1):
        paid.write_string(n, 0, payment.day.isoformat() if payment.day else "", forms.get())
        paid.write_number(n, 1, float(payment.amount), number)
        paid.write_row(n, 2, [payment.currency, payment.towards, payment.document.path], forms.get())
        link_to(paid, forms, n, 5, payment.cite, folder)
    checks: Any = book.add_worksheet("Checks")
    checks.write_row(0, 0, ["Kind", "In order", "What", "Difference", "Page"], head)
    checks.set_column(2, 2, 90)
    for n, check in enumerate(sorted(costs.checks, key=lambda c: c.passed), start=1):
        checks.write_row(n, 0, [check.kind, "yes" if check.passed else "no", one_line(check.what)], forms.get())
        if check.difference is not None:
            checks.write_number(n, 3, float(check.difference), number)
        link_to(checks, forms, n, 4, check.cites[0], folder)
    book.close()
    return buffer.getvalue()
