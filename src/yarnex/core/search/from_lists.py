"""Answers from what the document's own lists hold: its figures, its bills, and the days worked out from others.

In: an inquiry's document and a question. Out: offers, each with a value, its place, and how like what is asked it is.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from yarnex.core.costs import Bill
from yarnex.core.dates import DatedItem
from yarnex.core.document import Cite
from yarnex.core.figures import Figure, FigurePeriod
from yarnex.core.figures.asked import _rank
from yarnex.core.figures.calendar import moved_to, read_heading, year_ends
from yarnex.core.figures.lines import CONTEXT_ONLY, Line, line_vocabulary, name_key
from yarnex.core.values import DateValue, Money, Percent, Quantity, Value
from yarnex.core.words import stems_of

YEAR_BEFORE = re.compile(
    r"\b(?:last|previous|prior)\s+year(?:'s)?\b|\ba\s+year\s+(?:before|earlier)\b|\bthe\s+year\s+before\b|\bcomparative\b",
    re.IGNORECASE,
)
OWN = re.compile(
    r"\b(?:parent(?:\s+company)?|company\s+alone|holding\s+company|on\s+its\s+own|separate)\b", re.IGNORECASE
)
HALF = re.compile(r"\b(?:half[\s-]?year|six\s+months|interim|first\s+half|H1)\b", re.IGNORECASE)
FULL = re.compile(r"\b(?:full[\s-]year|whole\s+year|twelve\s+months|annual|for\s+the\s+year)\b", re.IGNORECASE)
MONTH_OF = re.compile(
    r"\b(?:at|in|by|to|of)\s+(?:the\s+end\s+of\s+)?((?:January|February|March|April|May|June|July|August|September|October|November|December)\s+20\d\d)\b",
    re.IGNORECASE,
)
CHANGES = re.compile(
    r"\b(?:by\s+how\s+much|how\s+much\s+(?:more|less|higher|lower)|rise|rose|fall|fell|grow|grew|increase|decrease|change|cut|exceed)",
    re.IGNORECASE,
)
BILL_TOTAL = re.compile(
    r"\b(?:come\s+to|comes\s+to|came\s+to|total|amount|charged?|cost|bill(?:ed)?|invoice|pay|paid|owed|due)\b",
    re.IGNORECASE,
)
BEFORE_TAX = re.compile(r"\b(?:before|without|excluding|net\s+of|ex)\s+(?:tax|vat|gst)\b", re.IGNORECASE)
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


def lines_named(words: str) -> list[tuple[Line, frozenset[str]]]:
    """The standard lines that a question names, the longest names first, each with the stems that name it."""
    plain = re.sub(r"[’']s\b|[?!,;]", " ", words)
    parts = plain.split()
    out: list[tuple[Line, frozenset[str]]] = []
    taken: set[int] = set()
    vocabulary = line_vocabulary().by_name
    for length in range(min(8, len(parts)), 0, -1):
        for start in range(len(parts) - length + 1):
            places = set(range(start, start + length))
            key = name_key(" ".join(parts[start : start + length]))
            if places & taken or not key or key in CONTEXT_ONLY or key not in vocabulary:
                continue
            taken |= places
            stems = frozenset(stems_of(" ".join(parts[start : start + length])))
            out += [(line, stems) for line in vocabulary[key]]
    return out


def figure_value(figure: Figure) -> Value | None:
    """A figure as a typed value; None where the document says that there is none."""
    if figure.value is None:
        return None
    if len(figure.unit) == 3 and figure.unit.isupper():
        return Money(figure.value, figure.unit)
    if figure.unit == "percent":
        return Percent(figure.value)
    return Quantity(figure.value, figure.unit or None)


def of_figures(figures: Sequence[Figure], words: str, ideas: frozenset[str]) -> Iterator[Offer]:
    """The figures of the lines that a question names, for the period and basis that it names, else the report's own."""
    if not figures or CHANGES.search(words):
        return
    document = figures[0].document
    basis = ("company",) if OWN.search(words) else ("consolidated", "", "consolidated, previously stated")
    for line, stems in lines_named(words):
        held = [
            f
            for f in figures
            if f.item == line.id and f.value is not None and f.basis in basis and not {"as reported"} & set(f.marks)
        ]
        period = wanted_period(document.text, words, line.nature, held)
        if period is not None:
            held = [
                f
                for f in held
                if f.period is not None
                and (f.period == period or (f.period.end == period.end and (not f.period.months or not period.months)))
            ]
        if not held:
            continue
        best = min(held, key=_rank)
        value = figure_value(best)
        if value is None:
            continue
        left = ideas - stems - PERIOD_STEMS
        alike = len(ideas - left) / max(1, len(ideas))
        kind = "money" if isinstance(value, Money) else "percent" if isinstance(value, Percent) else "number"
        when = f" ({best.period.words})" if best.period else ""
        yield Offer(kind, value, best.as_printed, best.cites, alike, f"the figure {best.label!r}{when}")


PERIOD_STEMS = frozenset(
    stems_of(
        "year half period end first second last previous march september june december january month group at for in 2023 2024 2025 2026 2027 full company parent whole"
    )
)


def wanted_period(text: str, words: str, nature: str, held: Sequence[Figure]) -> FigurePeriod | None:
    """The period that a question is about: the one it names, the year before where it says so, else the report's own."""
    ends = year_ends(text)
    month = MONTH_OF.search(words)
    said = read_heading(month[1] if month else re.sub(r"[?]", " ", words), ends)
    stock = nature in ("stock", "ratio")
    told = [f.period for f in held if f.period is not None]
    if said.period is not None and (said.period.end in {p.end for p in told}):
        return (
            FigurePeriod(said.period.end)
            if stock
            else said.period
            if said.period.months
            else next((p for p in told if p.end == said.period.end), None)
        )
    main = ends.main or (max(told, key=lambda p: (p.end, p.months)) if told else None)
    if main is None:
        return None
    months = main.months
    if HALF.search(words) and any(p.months == 6 for p in told):
        months = 6
    elif FULL.search(words) and any(p.months == 12 for p in told):
        months = 12
    end: date = main.end
    if months != main.months:
        ended = [p.end for p in told if p.months == months]
        end = max(ended, default=end)
    if YEAR_BEFORE.search(words):
        end = moved_to(end, end.year - 1)
    return FigurePeriod(end) if stock else FigurePeriod(end, months)


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
    elif bill.dated is not None and re.search(r"\bdate[ds]?\b|\bwhen\b", low) and not due:
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
