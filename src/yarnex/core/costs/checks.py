"""Checks on bills: do lines add up, does the tax compute, is a bill a copy of another."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from decimal import ROUND_HALF_UP, Decimal

from yarnex.core.costs.model import Bill
from yarnex.core.document import Cite
from yarnex.core.figures.checks import Check, shown

CENT = Decimal("0.01")
KINDS = {
    "lines": "Lines of bills added up",
    "tax": "Tax worked out again",
    "price": "Quantity times price",
    "copy": "Bills that stand twice",
    "claimed": "Bills against what was presented",
    "day": "Days charged against what other documents tell",
}


def _cents(value: Decimal) -> Decimal:
    return value.quantize(CENT, ROUND_HALF_UP)


def bill_checks(bill: Bill) -> Iterator[Check]:
    """Each subtotal and total against the lines before it, the tax by its rate, each line by quantity and price."""
    charged = Decimal(0)
    since: list[Decimal] = []
    subtotal: Decimal | None = None
    taxes = Decimal(0)
    for line in bill.lines:
        cite = (bill.cite(line),)
        if line.role in ("charge", "adjustment"):
            since.append(line.amount)
            charged += line.amount
            if line.quantity is not None and line.unit_price is not None and line.role == "charge":
                made = _cents(line.quantity * line.unit_price)
                yield Check(
                    "price",
                    made == _cents(line.amount),
                    f"{bill.name}: {line.what}: {shown(line.quantity)} x {shown(line.unit_price)} is {made:,}, printed {line.amount:,}",
                    cite,
                    (),
                    None if made == line.amount else line.amount - made,
                    bill.currency,
                )
        elif line.role == "tax":
            taxes += line.amount
            base = subtotal if subtotal is not None else charged
            rate = re.search(r"(\d+(?:\.\d+)?)\s*(?:%|per\s?cent)", line.what, re.IGNORECASE)
            if rate:
                made = _cents(base * Decimal(rate[1]) / 100)
                yield Check(
                    "tax",
                    made == _cents(line.amount),
                    f"{bill.name}: {line.what} of {base:,} is {made:,}, printed {line.amount:,}",
                    cite,
                    (f"{base:,} x {rate[1]} % = {made:,}",),
                    None if made == line.amount else line.amount - made,
                    bill.currency,
                )
        elif line.role == "subtotal":
            yield _sum(bill, line.what, since if subtotal is None else [charged], line.amount, cite)
            subtotal = line.amount
        elif line.role == "total":
            parts = [subtotal, taxes] if subtotal is not None else [charged, taxes]
            yield _sum(bill, line.what, [p for p in parts if p or len(parts) == 1], line.amount, cite)


def _sum(bill: Bill, what: str, parts: Sequence[Decimal], printed: Decimal, cite: tuple[Cite, ...]) -> Check:
    added = sum(parts, Decimal(0))
    working = " + ".join(f"{p:,}" for p in parts) + f" = {added:,}"
    return Check(
        "lines",
        added == printed,
        f"{bill.name}: {what}: the lines come to {added:,}, printed is {printed:,}",
        cite,
        (working,),
        None if added == printed else printed - added,
        bill.currency,
    )


def marked_copies(bills: Sequence[Bill]) -> tuple[Bill, ...]:
    """Bills with those marked that repeat an earlier one: the same sender and number, or the same lines."""
    out: list[Bill] = []
    for bill in bills:
        earlier = next((b for b in out if not b.copy_of and _same(b, bill)), None)
        if earlier is not None:
            place = Cite(earlier.document, earlier.head).place
            when = f" of {earlier.dated}" if earlier.dated else ""
            bill = replace(bill, copy_of=f"{earlier.name}{when} ({earlier.document.name}, {place})")
        out.append(bill)
    return tuple(out)


def _same(one: Bill, other: Bill) -> bool:
    lines = [line.amount for line in one.charges] == [line.amount for line in other.charges] and len(one.charges) > 1
    number = bool(one.number) and one.number == other.number and _sender(one) == _sender(other)
    return (number and (lines or one.printed_total == other.printed_total)) or (
        lines
        and _sender(one) == _sender(other)
        and [line.what for line in one.charges] == [line.what for line in other.charges]
    )


def _sender(bill: Bill) -> str:
    return re.sub(r"\W+", "", bill.provider.lower().replace("&", "and").replace("limited", "ltd"))


def copy_checks(bills: Sequence[Bill]) -> Iterator[Check]:
    """A failed check for each bill that stands twice."""
    for bill in bills:
        if bill.copy_of:
            when = f" of {bill.dated}" if bill.dated else ""
            yield Check(
                "copy",
                False,
                f"{bill.name}{when} repeats {bill.copy_of}; counted once",
                (Cite(bill.document, bill.head),),
                (),
                bill.printed_total,
                bill.currency,
            )
