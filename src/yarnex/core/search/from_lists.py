"""Answers from what the document's own lists hold: its figures, its bills, and the days worked out from others.

In: an inquiry's document and a question. Out: offers, each with a value, its place, and how like what is asked it is.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from yarnex.core.document import Cite
from yarnex.core.patterns import pattern
from yarnex.core.values import DateValue, Money, Value
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.costs import Bill
    from yarnex.core.dates import DatedItem

BILL_TOTAL = pattern(
    r"\b(?:come\s+to|comes\s+to|came\s+to|total|amount|charged?|cost|bill(?:ed)?|invoice|pay|paid|owed|due)\b",
    re.IGNORECASE,
)
BEFORE_TAX = pattern(r"\b(?:before|without|excluding|net\s+of|ex)\s+(?:tax|vat|gst)\b", re.IGNORECASE)
OF_TAX = pattern(
    r"\b(?:tax|vat|gst|duty)\b|\b(?:amount|total|balance)\s+(?:now\s+)?(?:due|payable)\b|\bgrand\s+total\b|\btotal\s+incl",
    re.IGNORECASE,
)


def is_the_tax(question: str, label: str) -> bool:
    """True for what is the tax itself, or what is to pay with it, where a question asks for something before it."""
    return BEFORE_TAX.search(question) is not None and OF_TAX.search(label) is not None and not LEFT_OUT.search(label)


LEFT_OUT = pattern(r"\b(?:before|without|excl\w*|net|ex|pre|profit|loss)\b", re.IGNORECASE)
ORDER = {"first": 0, "second": 1, "third": 2, "fourth": 3, "last": -1, "latest": -1}


@dataclass(frozen=True, slots=True)
class Offer:
    """kind and value of an answer, its place, the words and cites for it; alike: the share of the question that it is about."""

    kind: str
    value: Value
    text: str
    cites: tuple[Cite, ...]
    alike: float
    why: str
    working: tuple[str, ...] = ()
    confidence: float = 0.9


def of_bills(bills: Sequence[Bill], words: str, ideas: frozenset[str]) -> Iterator[Offer]:
    """What a bill comes to, when it is due or dated: of the sender whose name, or whose work, a question names."""
    if not bills:
        return
    scored = [(_bill_likeness(bill, ideas), place, bill) for place, bill in enumerate(bills)]
    best = max(s for s, _, _ in scored)
    if best <= 0:
        return
    same = [bill for s, _, bill in scored if s >= best - 1e-9]
    low = words.lower()
    nth = next((n for word, n in ORDER.items() if re.search(rf"\b{word}\b", low)), 0 if len(same) == 1 else None)
    if nth is None or not -len(same) <= nth < len(same):
        nth = 0
    bill = same[nth]
    place = (Cite(bill.document, bill.span),)
    if BILL_TOTAL.search(words):
        line = next(
            (x for x in reversed(bill.lines) if x.role == ("subtotal" if BEFORE_TAX.search(words) else "total")), None
        )
        if line is not None:
            yield Offer(
                "money",
                Money(line.amount, bill.currency or None),
                f"{line.amount:,}",
                (bill.cite(line),),
                min(0.95, 0.5 + best),
                f"the total of {bill.name}",
            )
    due = re.search(r"\bdue\b|\bmust\b.*\bpaid\b|\bpayable\b|\bpay\s+by\b", low)
    if due and bill.due is not None:
        yield Offer(
            "date", DateValue(bill.due), bill.due.isoformat(), place, min(0.95, 0.5 + best), f"when {bill.name} is due"
        )
    elif bill.dated is not None and OF_ITS_DATE.search(low) and not due:
        yield Offer(
            "date",
            DateValue(bill.dated),
            bill.dated.isoformat(),
            place,
            min(0.9, 0.4 + best),
            f"the date of {bill.name}",
        )


def _bill_likeness(bill: Bill, ideas: frozenset[str]) -> float:
    """How far a question names a bill's sender, number or work; words that every bill has count for nothing."""
    name = set(stems_of(f"{bill.provider} {bill.number}"))
    work = set(stems_of(" ".join(line.what for line in bill.charges)))
    asked = {i for i in ideas if i not in BILL_STEMS}
    shared = {
        a
        for a in asked
        if any(a == n or (len(a) > 4 and len(n) > 4 and (a.startswith(n[:5]) and n.startswith(a[:5]))) for n in name)
    }
    return 0.5 * len(shared) / max(1, len(asked)) + 0.15 * len((asked & work) - shared) / max(1, len(asked))


# "When was the water shut off?" asks a bill nothing of its own day.
OF_ITS_DATE = pattern(
    r"\bdate[ds]?\b|\bwhen\b.*\b(?:billed|bills?|invoiced?|invoices|issued|sent|drawn\s+up|made\s+out|charged)\b"
)
BILL_STEMS = frozenset(
    stems_of("invoice bill total amount tax included come pay paid first second third last charge cost due date")
)


NOTICE_ASKED = frozenset(stems_of("notice notify tell inform serve latest deadline last write give earliest exercise"))


def of_dates(items: Sequence[DatedItem], words_asked: str, ideas: frozenset[str]) -> Iterator[Offer]:
    """Days worked out from others, where the words that they are worked out from are those of the question."""
    asked = frozenset(stems_of(words_asked, stop=True))
    for item in items:
        if item.state != "computed" or item.day is None or item.precision != "day" or item.recurs:
            continue
        if item.kind == "notice" and not NOTICE_ASKED & asked:
            continue  # the day for a notice is not the day of what it is given for
        words = set(stems_of(f"{item.what} {item.cites[0].quote} {item.kind} last day"))
        alike = len(ideas & words) / max(1, len(ideas))
        if alike >= 0.5:
            yield Offer(
                "date", DateValue(item.day), item.day.isoformat(), item.cites, alike, "worked out", item.working, 0.85
            )
