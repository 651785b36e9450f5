"""Charges for days that another document contradicts: something charged after it had ended, a visit that did not take place.

In: bills and the documents read with them. Out: a failed check with both places for each. Only sentences of other documents
that name the sender of the bill and say that the thing had ended, or had not happened, count.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from datetime import date
from decimal import ROUND_HALF_UP, Decimal

from yarnex.core.costs.model import Bill, BillLine
from yarnex.core.document import Cite, Document
from yarnex.core.figures.checks import Check, shown
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.passages import Passages, Sentence
from yarnex.core.values import find_dates
from yarnex.core.values.dates import date_order

ENDED = pattern(
    r"\b(?:no\s+longer\s+(?:needed|required|in\s+use|there|stored|hired|on\s+(?:hire|site))|not\s+(?:needed|required|used)\s+(?:after|from|since)|off[\s-]hired?|"
    r"(?:were|was|been|all)\s+(?:taken\s+(?:away|out)|collected|returned|handed\s+back|removed|released|emptied|vacated|stopped|switched\s+off|cancelled|discontinued|terminated)|"
    r"(?:storage|hire|rental|service|monitoring|cover|work)\s+(?:ended|stopped|ceased|finished)|(?:ended|stopped|ceased)\s+(?:the\s+)?(?:storage|hire|rental|service|monitoring|work))\b",
    re.IGNORECASE,
)
ABSENT = pattern(
    r"\b(?:did\s+not|didn['’]t|never|failed\s+to)\s+(?:come|attend|arrive|appear|turn\s+up|show\s+up|visit|work|take\s+place|happen)\b|"
    r"\b(?:no\s+one|nobody|none\s+of\s+(?:them|their\s+\w+))(?:\s+[\w’'-]+){0,5}?\s+(?:came|attended|arrived|turned\s+up|visited|was\s+(?:here|there|on\s+site))\b|"
    r"\b(?:visit|appointment|attendance|session|delivery)\s+(?:was|had\s+been)\s+(?:cancelled|called\s+off|put\s+off|postponed)\b",
    re.IGNORECASE,
)
COMMON = frozenset(
    [
        "the",
        "and",
        "of",
        "for",
        "ltd",
        "limited",
        "inc",
        "llc",
        "llp",
        "plc",
        "co",
        "company",
        "services",
        "service",
        "group",
        "city",
        "harbour",
        "north",
        "south",
        "east",
        "west",
        "new",
        "general",
        "national",
        "international",
    ]
)


def day_checks(bills: Sequence[Bill], documents: Sequence[Document]) -> Iterator[Check]:
    """A failed check for each charge whose day or period another document contradicts."""
    telling = [(document, sentence) for document in documents for sentence in _telling(document)]
    if not telling:
        return
    for bill in bills:
        called = _called(bill.provider)
        if bill.copy_of or called is None:
            continue
        for line in bill.lines:
            if line.role != "charge":
                continue
            days = [f.value.day for f in find_dates(line.what, date_order(bill.document.text))]
            if not days:
                continue
            for document, sentence in telling:
                words = sentence.span.of(document.text)
                if document is bill.document or not called.search(words):
                    continue
                check = _contradicted(bill, line, min(days), max(days), document, sentence, words)
                if check is not None:
                    yield check


def _telling(document: Document) -> Iterator[Sentence]:
    for sentence in Passages(document).sentences:
        words = sentence.span.of(document.text)
        if ENDED.search(words) or ABSENT.search(words):
            yield sentence


def _called(provider: str) -> re.Pattern[str] | None:
    """The first word of a sender's name that is its own: by that others call it."""
    own = next((w for w in re.findall(r"[^\W\d_]{4,}", provider) if w.lower() not in COMMON), None)
    return re.compile(rf"\b{re.escape(own)}\b", re.IGNORECASE) if own else None


def _contradicted(
    bill: Bill, line: BillLine, first: date, last: date, document: Document, sentence: Sentence, words: str
) -> Check | None:
    cites = (bill.cite(line), Cite(document, sentence.span))
    told = [f.value.day for f in find_dates(words, date_order(document.text))]
    if ABSENT.search(words):
        day = next((d for d in told if d == first == last), None)
        if day is None:
            return None
        what = f"{bill.name}: {line.what}: charged for {day.isoformat()}, which another document contradicts: “{on_one_line(words)}”"
        return Check("day", False, what, cites, (), line.amount, bill.currency)
    end = next((d for d in told if first < d < last), None)
    if end is None:
        return None
    whole, over = (last - first).days, (last - end).days
    share = (line.amount * over / whole).quantize(Decimal("0.01"), ROUND_HALF_UP)
    what = f"{bill.name}: {line.what}: charged to {last.isoformat()}; another document says that it ended on {end.isoformat()}: “{on_one_line(words)}”"
    working = (f"{over} of {whole} days: {shown(line.amount)} x {over} / {whole} = {share:,} before tax",)
    return Check("day", False, what, cites, working, share, bill.currency)
