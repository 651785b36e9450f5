"""Days that come again: the end of each financial year, each test date, each calendar quarter, every 1 May."""

from __future__ import annotations

import re
from calendar import monthrange
from dataclasses import dataclass
from datetime import date, timedelta
from typing import TYPE_CHECKING

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Cite, Span
from yarnex.core.figures.calendar import year_ends
from yarnex.core.patterns import pattern
from yarnex.core.values.dates import MONTHS, SHORT

if TYPE_CHECKING:
    from yarnex.core.dates.anchors import Anchors

EACH = pattern(
    r"\A\s*(?:the\s+)?(?:(?P<edge>end|close|last\s+day|expiry|start|beginning|first\s+day|anniversary)\s+of\s+)?(?P<each>each|every|any|that|the\s+relevant|a)\s+(?:successive\s+|subsequent\s+|such\s+|later\s+)?(?P<what>[A-Za-z][\w’' -]{2,40})",
    re.IGNORECASE,
)
_month = "|".join([*MONTHS, *(m for m in SHORT if m not in MONTHS)])
DAY_MONTH = pattern(
    rf"\b(?:(?P<d1>\d{{1,2}})(?:st|nd|rd|th)?(?:\s+day)?(?:\s+of)?\s+(?P<m1>{_month})|(?P<m2>{_month})\s+(?P<d2>\d{{1,2}})(?:st|nd|rd|th)?)\b(?!\s*,?\s*(?:19|20)\d\d)",
    re.IGNORECASE,
)
YEARS = (
    "contract year",
    "lease year",
    "licence year",
    "agreement year",
    "operating year",
    "rent year",
    "insurance year",
)


@dataclass(frozen=True, slots=True)
class Recurrence:
    """words: how often. days: the days themselves, over the term where that is known; empty where they are not known."""

    words: str
    days: tuple[date, ...]
    why: str = ""
    cites: tuple[Cite, ...] = ()


def recurrence_in(rest: str, anchors: Anchors) -> Recurrence | None:
    """The recurring day that the words after "after" or "before" name; None where they name none."""
    bare = re.sub(
        r"\A\s*(?:(?:the|each|every|any|a|relevant|applicable|such)\s+)*", "", rest, flags=re.IGNORECASE
    ).lower()
    for name, (days, cite) in anchors.several.items():
        if bare.startswith(name) and not bare[len(name) : len(name) + 1].isalnum():
            return Recurrence("each time", days, f"{name} stands for {len(days)} days", (cite,))
    m = EACH.match(rest)
    year_bare = re.match(
        r"\s*(?:the\s+)?(?:end\s+of\s+)?(?:the\s+)?(?:calendar\s+|financial\s+|fiscal\s+)?year(?:\s+ends?)?\b",
        rest,
        re.IGNORECASE,
    )
    if m is None and not year_bare:
        return None
    each = (m["each"] if m else "each").lower()
    what = re.sub(r"\s+", " ", m["what"] if m else year_bare.group().lower()).lower() if m or year_bare else ""  # type: ignore[union-attr]
    sure = each in ("each", "every", "any") or bool(m and m["edge"])
    if not sure and not year_bare:
        return None
    first, last = term_bounds(anchors)
    for name in YEARS:
        if what.startswith(name) or (
            year_bare and "contract year" in anchors.passages.low and "financial" not in what and "calendar" not in what
        ):
            start = anchors.term("commencement_date", "start_date", "lease_start", "period_start")
            if start is None:
                return Recurrence("every year", ())
            ends = tuple(start.day + relativedelta(years=n) - timedelta(days=1) for n in range(1, 16))
            kept = tuple(d for d in ends if last is None or d <= last)
            return Recurrence(
                "every year",
                kept,
                f"{start.why}; a year of the agreement ends on the day before its anniversary",
                start.cites,
            )
    if re.match(r"(?:end\s+of\s+)?(?:the\s+)?(?:financial|fiscal|accounting)\s+year", what):
        held = year_ends(anchors.document.text)
        explicit = re.search(
            rf"(?:financial|fiscal|accounting)\s+years?\b[^.\n]{{0,60}}?(?:{DAY_MONTH.pattern})",
            anchors.document.text,
            re.IGNORECASE,
        )
        if explicit:
            month, day = month_day(explicit)
            cite = Cite(anchors.document, Span(*explicit.span()))
            return Recurrence(
                "every year",
                yearly(month, day, first, last),
                f"the financial year ends on {day} {list(MONTHS)[month - 1].title()}",
                (cite,),
            )
        if held.month:
            return Recurrence(
                "every year",
                yearly(held.month, held.day, first, last),
                "by the financial year that the document names",
            )
        return Recurrence("every year", ())
    if what.startswith("calendar year"):
        return Recurrence("every year", yearly(12, 31, first, last), "a calendar year ends on 31 December")
    if re.match(r"(?:calendar\s+|financial\s+)?quarter", what):
        return Recurrence("every quarter", ())
    if re.match(r"(?:calendar\s+)?month", what):
        return Recurrence("every month", ())
    if re.match(r"week|day\b|business\s+day", what):
        return Recurrence("every week" if what.startswith("week") else "every day", ())
    name = what.split(" of ")[0].strip()
    for definition in anchors.passages.definitions:
        if name.startswith(definition.name.lower()):
            found = list(DAY_MONTH.finditer(definition.sentence.of(anchors.document.text)))
            if found:
                again = sorted({d for x in found for d in yearly(*month_day(x), first, last)})
                return Recurrence(
                    "each time",
                    tuple(again),
                    f"{definition.name}: {', '.join(x.group() for x in found)} in each year",
                    (Cite(anchors.document, definition.sentence),),
                )
    if name.startswith(("test date", "testing date", "review date", "payment date", "calculation date")):
        for m2 in re.finditer(
            rf"[^.\n]*\b(?:{re.escape(name)}s?|tested)\b[^.\n]*", anchors.document.text, re.IGNORECASE
        ):
            found = list(DAY_MONTH.finditer(m2.group()))
            if found:
                again = sorted({d for x in found for d in yearly(*month_day(x), first, last)})
                return Recurrence(
                    "each time",
                    tuple(again),
                    f"{name}s are {' and '.join(x.group() for x in found)} in each year",
                    (Cite(anchors.document, Span(m2.start() + len(m2.group()) - len(m2.group().lstrip()), m2.end())),),
                )
    return Recurrence(f"{each} {name}"[:60], ()) if each in ("each", "every", "any") else None


def anniversaries(day: date, anchors: Anchors) -> tuple[date, ...]:
    """The anniversaries of a day within the term; of ten years where the term is not known."""
    _, last = term_bounds(anchors)
    made = [day + relativedelta(years=n) for n in range(1, 11)]
    return tuple(d for d in made if last is None or d <= last)


def month_day(m: re.Match[str]) -> tuple[int, int]:
    name = (m["m1"] or m["m2"]).lower()
    return MONTHS.get(name) or SHORT[name], int(m["d1"] or m["d2"])


def term_bounds(anchors: Anchors) -> tuple[date | None, date | None]:
    start = (
        anchors.term(
            "lease_start", "start_date", "commencement_date", "period_start", "drawdown_date", "effective_date"
        )
        or anchors.own_date()
    )
    end = anchors.term("lease_end", "initial_term_end", "term_end", "end_date", "period_end", "final_maturity")
    return (start.day if start else None), (end.day if end else None)


def yearly(month: int, day: int, first: date | None, last: date | None) -> tuple[date, ...]:
    """That day in each year of the term; of the five years from its start where the term is not known."""
    if first is None:
        return ()
    until = last or first + relativedelta(years=5)
    out = []
    for year in range(first.year, until.year + 1):
        made = date(year, month, min(day, monthrange(year, month)[1]))
        if first <= made <= until:
            out.append(made)
    return tuple(out)
