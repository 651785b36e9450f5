"""A document's own financial calendar, and the period that a heading names in it.

In: the linear text; a heading. Out: the day on which its financial year ends; what a heading says of period and qualifiers,
and the words that are left ("Revenue" of "Revenue H1 25/26").
"""

from __future__ import annotations

import re
from calendar import monthrange
from collections import Counter
from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import lru_cache

from dateutil.relativedelta import relativedelta

from yarnex.core.figures.model import FigurePeriod
from yarnex.core.patterns import pattern
from yarnex.core.values.dates import MONTHS, SHORT, DateOrder, date_order, find_dates
from yarnex.core.values.numbers import read_words

_month = "|".join([*MONTHS, *(rf"{s}\b\.?" for s in SHORT if s not in MONTHS)])
_count = r"(?:\d{1,2}|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|eighteen|thirteen|twenty-six|thirty-nine|fifty-two|fifty-three)"
LENGTH = rf"(?:(?P<count>{_count})[\s-]+(?P<unit>months?|weeks?|quarters?)|(?P<half>half[\s-]?years?)|(?P<quarter>quarters?)|(?:financial\s+|fiscal\s+|full\s+)?(?P<year>years?))"
_to = r"(?:\s+period)?\s*(?:ended|ending|to|end)\s+(?:on\s+)?"
_ended = pattern(rf"\b{LENGTH}{_to}(?P<rest>)", re.IGNORECASE)
_at = pattern(r"\b(?:as\s+)?(?:at|of|on)\s+(?:the\s+)?\Z", re.IGNORECASE)
_year_end = pattern(
    rf"\b(?:fiscal|financial)?\s*years?\s+(?:ended|ending|to|ends?)(?:\s+(?:on|each))?\s+(?:(?P<d1>\d{{1,2}})(?:st|nd|rd|th)?\s+(?P<m1>{_month})|(?P<m2>{_month})\s+(?P<d2>\d{{1,2}}))",
    re.IGNORECASE,
)
_two_years = r"(?P<y1>(?:19|20)\d\d|\d\d)\s?[/–-]\s?(?P<y2>(?:19|20)?\d\d)"
_part = r"(?P<part>[HQ][1-4]|(?:first|second)\s+half|(?:first|second|third|fourth)\s+quarter|(?P<m>\d{1,2})M|nine\s+months|half[\s-]year|LTM|TTM)"
_fiscal = pattern(
    rf"(?<![\w/.,£$€-])(?:{_part}\b[\s,-]*(?:of\s+)?)?(?P<fy>(?:FY|fiscal(?:\s+year)?|financial\s+year|year)\s?['’]?)?(?:{_two_years}|['’]?(?P<y>(?:19|20)\d\d)|(?P<short>(?<=FY)\d\d|(?<=FY\s)\d\d|(?<=['’])\d\d))(?![\d/]|[.,]\d|%)",
    re.IGNORECASE,
)
_part_alone = pattern(rf"\A\s*{_part}\s*\Z", re.IGNORECASE)
_glued_part = pattern(
    r"\b(?P<part>[HQ][1-4]|[1-4][HQ])\s*(?P<fy>FY)?\s*['’]?(?P<y>(?:20)?\d\d)(?![\d/–-])", re.IGNORECASE
)
_month_year = pattern(rf"(?<!\d )\b(?P<m>{_month})[\s-]+['’]?(?P<y>(?:19|20)\d\d|\d\d)\b", re.IGNORECASE)

# "Jan-Sep 2026", "January to June 2026": from the first day of the one month to the last of the other.
_month_to_month = pattern(
    rf"\b(?P<from>{_month})\s*(?:[-–—]|to|through)\s*(?P<m>{_month})[\s-]+['’]?(?P<y>(?:19|20)\d\d|\d\d)\b",
    re.IGNORECASE,
)

QUALIFIERS = {
    "restated": r"\b(?:as\s+)?(?:re-?stated|re-?presented|reclassified)\b",
    "as reported": r"\bas\s+(?:first\s+|previously\s+|originally\s+)?(?:reported|stated)\b|\bpreviously\s+(?:reported|stated)\b",
    "unaudited": r"\b(?:not\s+audited|un-?audited)\b", "audited": r"(?<!not )(?<!un)(?<!un-)\baudited\b", "reviewed": r"\breviewed\b",
    "forecast": r"\b(?:forecasts?|projected|projection|estimated?|guidance|outlook|plan(?:ned)?|budget(?:ed)?|expected)\b",
    "target": r"\btargets?\b", "actual": r"\bactuals?\b", "pro forma": r"\bpro[\s-]?forma\b",
    "continuing": r"\bcontinuing\s+operations\b", "discontinued": r"\bdiscontinued\s+operations\b",
}  # fmt: skip
_qualifiers = {name: pattern(form, re.IGNORECASE) for name, form in QUALIFIERS.items()}


@dataclass(frozen=True, slots=True)
class YearEnds:
    """month, day: when the financial year ends, 0 where the document does not say. known: exact ends, by year.

    lengths: how long the periods that the document itself names as ending on a day are, in months.
    main: the period that the document reports on. order: how its dates in figures are read.
    """

    month: int
    day: int
    known: tuple[tuple[int, date], ...]
    lengths: tuple[tuple[date, int], ...]
    main: FigurePeriod | None
    order: DateOrder

    def end_of(self, year: int) -> date | None:
        """The last day of the financial year that ends in a calendar year."""
        exact = dict(self.known).get(year)
        if exact:
            return exact
        if not self.month:
            return None
        last = monthrange(year, self.month)[1]
        return date(year, self.month, last if self.day >= monthrange(2023, self.month)[1] else min(self.day, last))

    def length_of(self, day: date) -> int:
        """Months of the period that ends on this day, 0 where the document names none."""
        if self.month and (day.month, day.day) == (self.month, min(self.day, monthrange(day.year, self.month)[1])):
            return 12
        return dict(self.lengths).get(day, 0)


@dataclass(frozen=True, slots=True)
class Heading:
    """What a heading says. period: None where it names none. sure: False where a bare year was read as a period.

    dated: a bare date, which may end a period or be an instant. rest: the words that are left. marks: qualifiers.
    """

    period: FigurePeriod | None
    rest: str
    marks: tuple[str, ...] = ()
    sure: bool = True
    dated: bool = False
    hint: str = ""


def months_of(m: re.Match[str]) -> tuple[int, int]:
    """Months and weeks of a matched length."""
    if m["half"]:
        return 6, 0
    if m["year"]:
        return 12, 0
    if m["quarter"] and not m["count"]:
        return 3, 0
    count = int(m["count"]) if m["count"].isdigit() else int(read_words(m["count"]) or 0)
    unit = m["unit"].lower()
    if unit.startswith("week"):
        return {52: 12, 53: 12, 26: 6, 13: 3, 39: 9, 27: 6, 14: 3}.get(count, 0), count
    return count * (3 if unit.startswith("quarter") else 1), 0


def ended_periods(text: str, order: DateOrder) -> list[tuple[int, int, FigurePeriod]]:
    """Every "six months ended 30 September 2025" of a text: start, end, period. "and 2024" behind it adds one more."""
    out = []
    for m in _ended.finditer(text):
        behind = text[m.end() : m.end() + 40]
        day = next((d for d in find_dates(behind, order) if d.span.start <= 1), None)
        if day is None:
            continue
        months, weeks = months_of(m)
        if not months:
            continue
        end = m.end() + day.span.end
        out.append((m.start(), end, FigurePeriod(day.value.day, months, weeks if weeks in (52, 53) else 0)))
        more = re.match(r"\s*(?:,|and|&)\s*((?:19|20)\d\d)\b", text[end : end + 14])
        if more:
            out.append((m.start(), end + more.end(), FigurePeriod(moved_to(day.value.day, int(more[1])), months)))
    return out


def moved_to(day: date, year: int) -> date:
    """The same day of another year; the last of a month stays the last."""
    last = monthrange(year, day.month)[1]
    return date(year, day.month, last if day.day >= monthrange(day.year, day.month)[1] else min(day.day, last))


@lru_cache(maxsize=32)
def year_ends(text: str) -> YearEnds:
    """The financial calendar that a document's own words show."""
    order = date_order(text)
    periods = [p for _, _, p in ended_periods(text, order)]
    votes: Counter[tuple[int, int]] = Counter()
    known: dict[int, date] = {}
    for p in periods:
        if p.months == 12:
            votes[(p.end.month, p.end.day if not p.weeks else 0)] += 1
            if p.weeks:
                known[p.end.year if p.end.month > 1 or p.end.day > 15 else p.end.year - 1] = p.end
    for m in _year_end.finditer(text):
        name = (m["m1"] or m["m2"]).lower().rstrip(".")
        votes[(MONTHS.get(name) or SHORT.get(name, 0), int(m["d1"] or m["d2"]))] += 1
    (month, day), _ = votes.most_common(1)[0] if votes else ((0, 0), 0)
    if not month:
        closing = Counter(
            (d.value.day.month, d.value.day.day)
            for d in find_dates(text, order)
            if d.value.day.day == monthrange(d.value.day.year, d.value.day.month)[1]
            and re.search(
                r"\b(?:as\s+at|at|as\s+of)\s+\Z", text[max(0, d.span.start - 8) : d.span.start], re.IGNORECASE
            )
        )
        if closing:
            (month, day), _ = closing.most_common(1)[0]
    lengths: dict[date, Counter[int]] = {}
    for p in periods:
        lengths.setdefault(p.end, Counter())[p.months] += 1
    early = [p for _, _, p in ended_periods(text[:6000], order)]
    main = early[0] if early else (Counter(periods).most_common(1)[0][0] if periods else None)
    ends = YearEnds(
        month, day or 31, tuple(sorted(known.items())),
        tuple(sorted((d, c.most_common(1)[0][0]) for d, c in lengths.items())), main, order,
    )  # fmt: skip
    named = named_at_head(text, ends) if main is None else None
    return replace(ends, main=named[0]) if named is not None else ends


HEAD = 300  # characters in which a report says what it reports on


def named_at_head(text: str, ends: YearEnds) -> tuple[FigurePeriod, int, int] | None:
    """The part of a year that the head of a report names, "Third quarter 2026", with where it stands; None where it names none.

    Where nothing tells when the financial year ends, it is taken as the calendar year.
    """
    for form in (_fiscal, _glued_part):
        for m in form.finditer(text, 0, HEAD):
            found = _fiscal_period(m, ends) if m["part"] else None
            if found is not None and found[0].months in (3, 6, 9):
                return found[0], m.start(), m.end()
    return None


def read_heading(text: str, ends: YearEnds) -> Heading:
    """The period, the qualifiers and the other words of a heading."""
    words = " ".join(text.split())
    words = re.sub(r"(?<=[\w)])[¹²³⁴⁵⁶⁷⁸⁹*†‡]+", "", words)
    marks = tuple(name for name, form in _qualifiers.items() if form.search(words))
    for form in _qualifiers.values():
        words = form.sub(" ", words)
    words = re.sub(r"\(\s*\)", " ", words)
    for start, end, period in ended_periods(words, ends.order)[:1]:
        return Heading(period, _left(words, start, end), marks)
    span = _month_to_month.search(words)
    if span is not None and (first := _month_number(span["from"])) < (last_month := _month_number(span["m"])):
        year = int(span["y"]) + (2000 if int(span["y"]) < 100 else 0)
        last = date(year, last_month, monthrange(year, last_month)[1])
        return Heading(FigurePeriod(last, last_month - first + 1), _left(words, *span.span()), marks)
    day = next(find_dates(words, ends.order), None)
    if day is not None:
        lead = words[: day.span.start]
        at = _at.search(lead)
        start = at.start() if at else day.span.start
        return Heading(
            FigurePeriod(day.value.day), _left(words, start, day.span.end), marks, dated=not at, hint=day.reading
        )
    for form in (_fiscal, _glued_part):
        for m in form.finditer(words):
            found = _fiscal_period(m, ends)
            if found is not None:
                period, sure = found
                return Heading(period, _left(words, m.start(), m.end()), marks, sure=sure)
    month = _month_year.search(words)
    if month is not None:
        year = int(month["y"]) + (2000 if int(month["y"]) < 100 else 0)
        number = _month_number(month["m"])
        if number:
            last = date(year, number, monthrange(year, number)[1])
            return Heading(
                FigurePeriod(last, ends.length_of(last)), _left(words, *month.span()), marks, sure=False, dated=True
            )
    if _part_alone.match(words) and ends.main and ends.main.months < 12:
        return Heading(ends.main, "", marks, sure=False)
    return Heading(None, _tidy(words), marks)


def _month_number(name: str) -> int:
    """1 to 12 for the name of a month, whole or short; 0 for other words."""
    name = name.lower().rstrip(".")
    return MONTHS.get(name) or SHORT.get(name, 0)


def _fiscal_period(m: re.Match[str], ends: YearEnds) -> tuple[FigurePeriod, bool] | None:
    groups = m.groupdict()
    named = bool(groups.get("fy") or groups.get("part") or groups.get("y1"))
    if groups.get("y2"):
        first, second = groups["y1"], groups["y2"]
        start = int(first) + (2000 if len(first) == 2 else 0)
        year = int(second) + (start // 100 * 100 if len(second) == 2 else 0)
        if year != start + 1:
            return None
    else:
        shown = groups.get("y") or groups.get("short") or ""
        year = int(shown) + (2000 if len(shown) == 2 else 0)
    if not 1950 <= year <= 2100:
        return None
    end = ends.end_of(year)
    part = (groups.get("part") or "").upper()
    if end is None:
        if not named and not part:
            return None
        end = date(year, 12, 31)
    months, end = _part_of_year(part, groups.get("m") or "", end)
    if part and not groups.get("y2") and not groups.get("fy"):
        same = [d for d, length in ends.lengths if length == months and d.year == year]
        if len(same) == 1:
            end = same[0]  # the document itself names that period
    weeks = 0
    return FigurePeriod(end, months, weeks), named


def _part_of_year(part: str, count: str, end: date) -> tuple[int, date]:
    def back(months: int) -> date:
        moved = end - relativedelta(months=months)
        whole = end.day == monthrange(end.year, end.month)[1]
        return moved.replace(day=monthrange(moved.year, moved.month)[1]) if whole else moved

    if part[:1].isdigit() and part[1:2] in ("H", "Q"):
        part = part[1] + part[0]
    low = part.lower()
    if low.startswith(("first h", "half")) or part == "H1":
        return 6, back(6)
    if low.startswith("second h") or part == "H2":
        return 6, end
    quarters = {"first q": 1, "second q": 2, "third q": 3, "fourth q": 4}
    number = next((n for k, n in quarters.items() if low.startswith(k)), 0) or (
        int(part[1]) if re.fullmatch(r"Q[1-4]", part) else 0
    )
    if number:
        return 3, back(12 - 3 * number)
    if count or low.startswith("nine"):
        months = int(count) if count else 9
        return months, back(12 - months)
    return 12, end


def _left(words: str, start: int, end: int) -> str:
    return _tidy(f"{words[:start]} {words[end:]}")


def _tidy(words: str) -> str:
    return re.sub(r"\s+", " ", re.sub(r"\(\s*\)", " ", words)).strip(" ,;:–-")


def before(day: date, months: int) -> date:
    """The day before a period of so many months that ends on `day` begins: the date of its opening balances."""
    moved = day - relativedelta(months=months)
    if (day + timedelta(days=1)).day == 1:
        moved = moved.replace(day=monthrange(moved.year, moved.month)[1])
    return moved
