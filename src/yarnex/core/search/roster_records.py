"""Rosters of what records hold: who sent the bills, the bills themselves, payments made, and entries that open with a day.

In: a document and what the items are. Out: a `RosterOffer`, or None where that is not what is asked for.
"""

from __future__ import annotations

import re

from yarnex.core.costs.bills import bills_of
from yarnex.core.costs.model import Bill
from yarnex.core.costs.statements import payments_of
from yarnex.core.dates.chronology import entries_of
from yarnex.core.document import Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.people import PERSON_WORDS, people_of
from yarnex.core.search.roster_model import RosterItem, RosterOffer
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.words import stems_of

SENDERS = frozenset(stems_of("supplier provider vendor contractor biller payee firm business"))
PEOPLE = frozenset(stems_of("people person witness individual staff"))
BILLS = frozenset(stems_of("invoice bill estimate receipt"))
PAYMENTS = frozenset(stems_of("payment remittance instalment"))
ENTRIES = frozenset(stems_of("entry visit consultation appointment session diary"))
_road = r"Street|Road|Lane|Avenue|Square|Quay|Wharf|Yard|Park|Place|Way|Drive|Close|Row|Walk|Boulevard|Court|House|Estate|Studios?"
ADDRESS = pattern(
    rf"(?:\b(?:Unit|Suite|Floor|PO\s+Box)\s+\w+,\s+)?(?:\d+[A-Za-z]?\s+)?(?:[A-Z][\w’'-]+\s+){{1,4}}(?:{_road})\b(?:,\s+(?!(?:GST|VAT|Tax)\b)[A-Z][\w’'-]+(?:\s+(?!(?:GST|VAT|Tax|Invoice)\b)[A-Z\d][\w’'-]*){{0,3}})*"
    r"|\bPO\s+Box\s+\d+[^\n\t·|:.]{0,40}"
)
REGISTERED = pattern(
    r"\b(?:GST|VAT|ABN|ACN|EIN|TIN|NIF|company|reg(?:istered|istration)?)\b\.?\s*(?:no\.?|number|nr\.?|#)?\s*:?\s*(?:[A-Z]{2}\s?)?\d[\d -]{4,16}\d",
    re.IGNORECASE,
)
CONTACT = pattern(
    r"[\w.+-]+@[\w-]+(?:\.[\w-]+)+|(?<![\w-])(?:\+\d{1,3}[ ()-]*)?\(?0\d{1,4}\)?(?:[ -]\d{2,5}){1,4}(?![\w-])"
)


def from_records(document: Document, of: str) -> RosterOffer | None:
    """The senders of bills, bills, payments or dated entries of a document, where one of them is asked for."""
    asked = stems_of(of)
    if PEOPLE & set(asked) and set(asked) <= PERSON_WORDS:
        found = people_of(document)
        return RosterOffer(1.0, "the people that the document names", found) if found else None
    head = next((s for s in asked if s in SENDERS | BILLS | PAYMENTS | ENTRIES), "")
    if not head:
        return None
    if head in ENTRIES:
        return _entries(document)
    if head in PAYMENTS:
        return _payments(document)
    bills = bills_of(document)
    if not bills:
        return None
    if head in SENDERS:
        return _senders(document, bills)
    items = [
        RosterItem(
            _bill_words(bill),
            (Cite(document, bill.head),),
            bill.number if bill.number.isdigit() and len(bill.number) < 3 else "",
            _told(bill),
        )
        for bill in bills
        if head == "estim" or bill.kind != "estimate"
    ]
    return RosterOffer(1.0, "the bills that the document holds", items)


def _bill_words(bill: Bill) -> str:
    return ", ".join(
        filter(None, [bill.number or bill.kind, bill.provider, bill.dated.isoformat() if bill.dated else ""])
    )


def _told(bill: Bill) -> str:
    total = bill.printed_total
    return f"total {total:,} {bill.currency}".rstrip() if total is not None else ""


def _senders(document: Document, bills: tuple[Bill, ...]) -> RosterOffer:
    """Each sender once, with address, registration and contact as its bills print them, and the bills' numbers."""
    by_name: dict[str, list[Bill]] = {}
    for bill in bills:
        if bill.provider:
            by_name.setdefault(bill.provider, []).append(bill)
    items = []
    for name, sent in by_name.items():
        words = sent[0].head.of(document.text)
        customer = sent[0].customer
        own = words[: words.find(customer)] if customer and customer in words else words
        found = [m.group() for form in (ADDRESS, REGISTERED, CONTACT) for m in [form.search(own)] if m]
        numbers = ", ".join(dict.fromkeys(bill.number for bill in sent if bill.number))
        detail = "; ".join(
            [
                *(on_one_line(f).strip(" ,;") for f in found),
                *([f"{'bills' if ',' in numbers else 'bill'} {numbers}"] if numbers else []),
            ]
        )
        items.append(RosterItem(name, tuple(Cite(document, bill.head) for bill in sent), "", detail))
    return RosterOffer(1.0, "the senders of the bills that the document holds", items)


def _payments(document: Document) -> RosterOffer | None:
    paid = payments_of(document)
    items = [
        RosterItem(
            f"{p.amount:,.2f}{' ' + p.currency if p.currency else ''}" + (f", {p.day.isoformat()}" if p.day else ""),
            (p.cite,),
            "",
            p.towards,
        )
        for p in paid
    ]
    return RosterOffer(1.0, "the payments that the document tells of", items) if len(items) > 1 else None


def _entries(document: Document) -> RosterOffer | None:
    items = [
        RosterItem(
            on_one_line(document.text[span.start : span.end]),
            (Cite(document, Span(span.start, max(end, span.end))),),
            "",
            on_one_line(document.text[span.end : end])[:120].lstrip(" ,.:–-"),
        )
        for span, end in entries_of(document)
    ]
    return RosterOffer(1.0, "the entries that open with a day", items) if len(items) > 1 else None
