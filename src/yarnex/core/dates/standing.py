"""Days that come again by themselves: "on 25 March and 29 September in each year", "the last business day of each quarter".

In: a document with its anchors. Out: an item for each such day over the term, or a rule where the term is not known. The
usual quarter days are those of England and Wales: 25 March, 24 June, 29 September, 25 December (Lady Day to Christmas).
"""

from __future__ import annotations

import re
from calendar import monthrange
from collections.abc import Iterator
from datetime import date, timedelta

from dateutil.relativedelta import relativedelta

from yarnex.core.dates.anchors import Anchors
from yarnex.core.dates.business_days import Calendar, add_business_days, calendar_of, rolled
from yarnex.core.dates.kinds import kind_of
from yarnex.core.dates.model import DatedItem
from yarnex.core.dates.recurring import DAY_MONTH, month_day, term_bounds, yearly
from yarnex.core.dates.wording import sentence_span, short_what, who_in
from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import ORDINAL_WORDS, read_words

EACH_YEAR = pattern(
    r"\A[^.;:]{0,50}?\b(?:(?:in|of)\s+(?:each|every|any)\s+(?:calendar\s+)?year|each\s+year|every\s+year|annually|yearly)\b",
    re.IGNORECASE,
)
EVERY = pattern(
    r"\b(?:each|every|annually\s+on|yearly\s+on|quarterly\s+on|half-yearly\s+on|tested\s+on|payable\s+quarterly\s+in\s+\w+\s+on)\s+(?:the\s+)?\Z",
    re.IGNORECASE,
)
BESIDE = pattern(r"\A\s*(?:,|and|or|,\s*and|,\s*or)\s+(?:the\s+)?\Z", re.IGNORECASE)
NTH = pattern(
    rf"\b(?:(?P<which>last|{ORDINAL_WORDS})|(?P<number>\d{{1,2}})(?:st|nd|rd|th))\s+(?:(?P<business>business|working)\s+)?(?:calendar\s+)?(?:day\s+)?(?:of|in)\s+(?:each|every)\s+"
    r"(?:calendar\s+|successive\s+)?(?P<each>month|quarter|three\s+months)\b",
    re.IGNORECASE,
)
COUNTED_FROM = pattern(r"\b(?:after|before|following|from|since|of|until)\s+(?:the\s+)?\Z", re.IGNORECASE)
QUARTER_DAYS = pattern(r"\b(?:usual|English|common)\s+quarter\s+days\b", re.IGNORECASE)
USUAL = ((3, 25), (6, 24), (9, 29), (12, 25))
NEXT_DAY = pattern(r"\b(?:next|following|succeeding)\s+(?:business|working)\s+day\b", re.IGNORECASE)


def standing_items(anchors: Anchors) -> list[DatedItem]:
    """Every day that a sentence says comes again each year, quarter or month."""
    passages = anchors.passages
    text = passages.text
    calendar = calendar_of(passages)
    out: list[DatedItem] = []
    seen: set[int] = set()
    for form in (NTH, DAY_MONTH, QUARTER_DAYS):
        for m in form.finditer(text, 0, anchors.document.body_end):
            span = sentence_span(passages, m.start())
            if m.start() in seen or span.start in seen or span.end - span.start > 1500:
                continue
            found = list(_days(anchors, m, form, span, calendar))
            if found:
                seen.add(span.start)
                out += found
    return out


def _days(
    anchors: Anchors, m: re.Match[str], form: re.Pattern[str], span: Span, calendar: Calendar
) -> Iterator[DatedItem]:
    words = span.of(anchors.document.text)
    at = m.start() - span.start
    first, last = term_bounds(anchors)
    if form is NTH:
        if COUNTED_FROM.search(words[:at]):
            return
        months = 1 if m["each"].lower() == "month" else 3
        recurs, days = ("every month" if months == 1 else "every quarter"), _of_months(m, months, first, last, calendar)
        why = m.group()
    elif form is QUARTER_DAYS:
        recurs, days = (
            "each quarter day",
            tuple(sorted(d for month, day in USUAL for d in yearly(month, day, first, last))),
        )
        why = "the usual quarter days are 25 March, 24 June, 29 September and 25 December"
    else:
        named = _list_of_days(words, at)
        if not named:
            return
        recurs = "every year" if len(named) == 1 else f"{len(named)} times a year"
        days = tuple(sorted({d for x in named for d in yearly(*month_day(x), first, last)}))
        why = f"{', '.join(x.group() for x in named)} in each year"
    working: tuple[str, ...] = (why,)
    if NEXT_DAY.search(words) and days:
        free = calendar.free()
        days = tuple(dict.fromkeys(rolled(day, free) for day in days))
        working += (f"a day that is no business day moves to the next one; {calendar.words}",)
    elif form is NTH and m["business"]:
        working += (calendar.words,)
    what = short_what(words, at, m.end() - m.start())
    kind, who = kind_of(words), who_in(anchors.document, words)
    cites = (Cite(anchors.document, span), *([calendar.cite] if calendar.cite is not None and len(working) > 1 else []))
    if kind in ("mention", "document"):
        kind = "deadline"
    if not days:
        yield DatedItem(
            anchors.document,
            None,
            what,
            kind,
            "rule",
            cites,
            who,
            recurs=recurs,
            notes=("its first and last day are not known",),
        )
    for day in days:
        yield DatedItem(anchors.document, day, what, kind, "computed", cites, who, working=working, recurs=recurs)


def _list_of_days(words: str, at: int) -> list[re.Match[str]]:
    """The days without a year that stand beside each other from a place on, where the sentence says that they come each year."""
    found = [m for m in DAY_MONTH.finditer(words) if m.start() >= at]
    held: list[re.Match[str]] = []
    for m in found:
        if held and not BESIDE.match(words[held[-1].end() : m.start()]):
            break
        held.append(m)
    if not held:
        return []
    told = EACH_YEAR.match(words[held[-1].end() :]) or EVERY.search(words[:at])
    return held if told else []


def _of_months(
    m: re.Match[str], months: int, first: date | None, last: date | None, calendar: Calendar
) -> tuple[date, ...]:
    """That day of each month, or of each quarter of the calendar year, over the term; over five years where its end is not known."""
    if first is None:
        return ()
    until = last or first + relativedelta(years=5)
    which = m["which"]
    nth = int(m["number"]) if m["number"] else 0 if which.lower() == "last" else int(read_words(which) or 0)
    if not which and not m["number"]:
        return ()
    free = calendar.free()
    out = []
    opening = date(first.year, first.month - (first.month - 1) % months, 1)
    while opening <= until:
        after = opening + relativedelta(months=months)
        if m["business"]:
            day = (
                add_business_days(after, -1, free)
                if nth == 0
                else add_business_days(opening - timedelta(days=1), nth, free)
            )
        elif nth == 0:
            day = after - timedelta(days=1)
        else:
            day = opening.replace(day=min(nth, monthrange(opening.year, opening.month)[1]))
        if first <= day <= until and opening <= day < after:
            out.append(day)
        opening = after
    return tuple(out)
