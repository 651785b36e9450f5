"""Documents -> all bills, payments and checks, with totals raw and after corrections."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any

from yarnex.core.costs.against_records import day_checks
from yarnex.core.costs.bills import bills_of
from yarnex.core.costs.checks import bill_checks, copy_checks, marked_copies
from yarnex.core.costs.model import Bill, Claimed, Payment
from yarnex.core.costs.statements import claims_of, payments_of
from yarnex.core.document import Document
from yarnex.core.figures.checks import Check
from yarnex.core.values.types import plain_number


@dataclass(frozen=True, slots=True)
class Costs:
    """Everything that documents charge and pay. Bills that repeat others are kept and marked; estimates are not counted."""

    bills: tuple[Bill, ...]
    claims: tuple[Claimed, ...]
    payments: tuple[Payment, ...]
    checks: tuple[Check, ...]

    def counted(self) -> tuple[Bill, ...]:
        """Bills that count: no copies, no estimates."""
        return tuple(b for b in self.bills if not b.copy_of and b.kind not in ("estimate", "receipt"))

    def totals(self) -> list[dict[str, Any]]:
        """Totals by currency: as printed, after corrections; by provider, kind, month and document; allowed, paid, outstanding."""
        out: list[dict[str, Any]] = []
        for currency in dict.fromkeys(b.currency for b in self.bills):
            of = [b for b in self.bills if b.currency == currency and b.kind not in ("estimate", "receipt")]
            kept = [b for b in self.counted() if b.currency == currency]
            raw = _sum(_printed(b) for b in of)
            corrected = _sum(corrected_total(b) for b in kept)
            out.append(_total("as printed", "", raw, currency, len(of)))
            if len(of) > len(kept):
                out.append(
                    _total(
                        "copies left out",
                        "",
                        -_sum(_printed(b) for b in of if b.copy_of),
                        currency,
                        len(of) - len(kept),
                    )
                )
            wrong = _sum(corrected_total(b) - _printed(b) for b in kept)
            if wrong:
                out.append(
                    _total("sums corrected", "", wrong, currency, sum(corrected_total(b) != _printed(b) for b in kept))
                )
            out.append(_total("after corrections", "", corrected, currency, len(kept)))
            for by, key in (
                ("provider", lambda b: b.provider),
                ("document", lambda b: b.document.path),
                ("month", lambda b: f"{b.dated:%Y-%m}" if b.dated else "not dated"),
            ):
                groups: dict[str, list[Bill]] = defaultdict(list)
                for bill in kept:
                    groups[key(bill)].append(bill)
                for name, bills in groups.items():
                    out.append(_total(by, name, _sum(corrected_total(b) for b in bills), currency, len(bills)))
            kinds: dict[str, Decimal] = defaultdict(Decimal)
            for bill in kept:
                for line in bill.charges:
                    kinds[line.kind] += line.amount
            for name, amount in sorted(kinds.items(), key=lambda k: -k[1]):
                out.append(_total("kind", name, amount, currency, 0))
            allowed = [c for c in self.claims if c.allowed is not None]
            if allowed:
                out.append(
                    _total("allowed", "", _sum(c.allowed or Decimal(0) for c in allowed), currency, len(allowed))
                )
            paid = [p for p in self.payments if p.currency in (currency, "")]
            if paid:
                out.append(_total("paid", "", _sum(p.amount for p in paid), currency, len(paid)))
                owed = _sum(c.allowed or Decimal(0) for c in allowed) if allowed else corrected
                of_what = "allowed" if allowed else "after corrections"
                out.append(_total(f"{of_what} less paid", "", owed - _sum(p.amount for p in paid), currency, 0))
        if not self.bills:
            for currency in dict.fromkeys(p.currency for p in self.payments):
                paid = [p for p in self.payments if p.currency == currency]
                out.append(_total("paid", "", _sum(p.amount for p in paid), currency, len(paid)))
        return out


def _sum(values: Iterable[Decimal]) -> Decimal:
    return sum(values, Decimal(0))


def _total(of: str, name: str, amount: Decimal, currency: str, count: int) -> dict[str, Any]:
    return {
        "of": of,
        "name": name or None,
        "amount": plain_number(amount),
        "currency": currency,
        "bills": count or None,
    }


def _printed(bill: Bill) -> Decimal:
    return bill.printed_total if bill.printed_total is not None else bill.added_total


def corrected_total(bill: Bill) -> Decimal:
    """The total that follows from the lines: tax at its own rate on what the lines come to; the printed one where they agree."""
    printed = _printed(bill)
    charged = _sum(line.amount for line in bill.lines if line.role in ("charge", "adjustment"))
    subtotal = next((line.amount for line in bill.lines if line.role == "subtotal"), None)
    taxes = [line for line in bill.lines if line.role == "tax"]
    if subtotal is None or subtotal == charged or not subtotal:
        tax = _sum(line.amount for line in taxes)
        return (
            charged + tax
            if charged and charged + tax != printed and abs(charged + tax - printed) < printed / 2
            else printed
        )
    rates = [
        Decimal(m[1])
        for line in taxes
        if (m := re.search(r"(\d+(?:\.\d+)?)\s*(?:%|per\s?cent)", line.what, re.IGNORECASE))
    ]
    tax = (
        _sum(charged * r / 100 for r in rates)
        if len(rates) == len(taxes)
        else _sum(line.amount * charged / subtotal for line in taxes)
    )
    return (charged + tax).quantize(Decimal("0.01"))


def costs_of(documents: Sequence[Document]) -> Costs:
    """The costs that documents tell, each charge once."""
    bills = marked_copies([b for d in documents for b in bills_of(d)])
    claims = [_matched(c, bills) for d in documents for c in claims_of(d)]
    payments = tuple(p for d in documents for p in payments_of(d))
    checks = [c for b in bills if not b.copy_of for c in bill_checks(b)]
    checks += list(copy_checks(bills))
    checks += [_against(c, bills) for c in claims if c.matched]
    checks += list(day_checks(bills, documents))
    return Costs(bills, tuple(claims), payments, tuple(checks))


def _matched(claim: Claimed, bills: Sequence[Bill]) -> Claimed:
    """The bill that a row of a statement names by its number."""
    for bill in bills:
        if bill.number and re.search(rf"(?<![\w-]){re.escape(bill.number)}(?![\w-])", claim.bill):
            return replace(claim, matched=bill.name)
    return claim


def _against(claim: Claimed, bills: Sequence[Bill]) -> Check:
    bill = next(b for b in bills if b.name == claim.matched)
    printed = _printed(bill)
    agrees = claim.presented is None or claim.presented == printed
    what = (
        f"{claim.bill}: presented {claim.presented:,}, the bill says {printed:,}"
        if claim.presented is not None
        else claim.bill
    )
    return Check(
        "claimed",
        agrees,
        what,
        (claim.cite,),
        (),
        None if agrees or claim.presented is None else claim.presented - printed,
        bill.currency,
    )
