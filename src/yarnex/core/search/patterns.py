"""Answers that are neither values nor words: hours of the day, how often something happens, identifiers."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from decimal import Decimal

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.lines import Line
from yarnex.core.values import (
    Duration,
    Found,
    Quantity,
    Text,
    Value,
)
from yarnex.core.values.numbers import ORDINAL_WORDS, WORDS, read_words

CLOCK = pattern(
    r"\b(?:[01]?\d|2[0-3]):[0-5]\d\s*(?:[ap]\.?\s?m\.?)?(?![\d:])|\b(?:1?\d|2[0-3])\.[0-5]\d\s*[ap]\.?\s?m\.?"
    r"|(?:(?<=\b(?:at|by|to)\s)|(?<=\b(?:from|till|says|said)\s)|(?<=\b(?:about|after|until)\s)|(?<=\b(?:around|before)\s))(?:[01]?\d|2[0-3])\.[0-5]\d(?!\d|:|\s?[%x×])"
    r"|\b\d{1,2}\s*[ap]\.?\s?m\b\.?|\b(?:noon|midnight)\b"
    r"|\b(?:five|ten|quarter|twenty|twenty-five|half)(?:\s+minutes)?\s+(?:to|past)\s+(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b",
    re.IGNORECASE,
)
ON_A_DAY = pattern(r"\b(?:what|which)\s+(?:\w+\s+)?(?:day|date)\b", re.IGNORECASE)
A_DATE = pattern(r"\b(?:what|which)\s+(?:is|was|are|were)\s+(?:the\s+)?(?:[\w-]+\s+){1,2}(?:day|date)\b", re.IGNORECASE)
MAY = pattern(r"May\s+(?!(?:19|20)\d\d|of\b|and\b|or\b|to\b|until\b)[a-z]")
TO = pattern(r"\s*(?:to|until|till|and|–|—|-)\s*", re.IGNORECASE)
BETWEEN, AND = pattern(r"\bbetween\s+\Z", re.IGNORECASE), pattern(r"\s+and\s+", re.IGNORECASE)
OFTEN = pattern(
    rf"\b(?:(?:(?:not|no)\s+more\s+(?:often\s+)?than|at\s+(?:most|least)|up\s+to|only)\s+)?(?:once|twice|(?:{WORDS}|\d{{1,2}})\s+(?:\(\d{{1,2}}\)\s+)?times)\s+(?:an?|per|each|every|in\s+(?:each|every|any))\s+(?:calendar\s+)?(?:day|week|month|quarter|year)\b"
    rf"|\b(?:(?:not|no)\s+more\s+(?:often\s+)?than\s+|at\s+most\s+|up\s+to\s+|only\s+)(?:once|twice|(?P<times>{WORDS}|\d{{1,2}})\s+times)\b|\b(?:every|each)\s+(?:(?P<n>{ORDINAL_WORDS}|{WORDS})\s+)?(?P<unit>day|week|month|quarter|year|hour)s?\b|\b(?:once|twice|at least once)\s+(?:a|an|each|every|in every|in each)\s+[\w ]{{3,20}}?(?=[,.;]|\s(?:and|on|in|by)\b|\Z)"
    rf"|(?<=\bmet\s)(?:{WORDS}|\d{{1,2}})\s+times\b|(?<=\bheld\s)(?:{WORDS}|\d{{1,2}})\s+(?:meetings|times)\b"
    r"|\b(?:quarterly|monthly|weekly|fortnightly|annually|daily|yearly|half-yearly|semi-annually)(?:\s+in\s+(?:advance|arrears?))?",
    re.IGNORECASE,
)
CODE = pattern(
    r"\b[A-Z]{2}\d{2}(?: ?[A-Z\d]{4}){2,7}(?: ?[A-Z\d]{1,3})?\b"  # an account number of ISO 13616
    r"|(?<![\w+,.])(?:\+\d{1,3}[ -]?(?:\(0\)[ -]?)?|[A-Z]{2} )?\(?\d{2,5}\)?(?:[ -]\d{2,5}){1,5}\b"  # of a telephone, of a tax register
    r"|\b(?=[A-Za-z\d/.-]*\d)[A-Z\d]{1,12}(?:[-/.][A-Za-z\d]{1,12})+\b|\b[A-Z]{2,12}\s?\d{3,}[A-Z\d]*\b|\b(?=[A-Z\d]{6,}\b)[A-Z]*\d[A-Z\d]*\b"
)
# "a sum equal to five months' rent": a sum that is told as so many times another one.
MULTIPLE = pattern(
    rf"(?:a\s+sum\s+equal\s+to\s+)?\b(?:{WORDS}|\d{{1,3}})(?:\s*\(\d{{1,3}}\))?\s+(?:calendar\s+|full\s+)?(?:months?|weeks?|years?|quarters?)['’]s?\s+(?:\w+\s+){{0,2}}?"
    r"(?:rent|salary|pay|fees?|wages|premiums?|charges?|interest|instalments?|purchases|sales|remuneration)\b(?:\s+and\s+(?:the\s+)?service\s+charge)?",
    re.IGNORECASE,
)
MONTH_DAY = pattern(r"\b(?P<n>[12]?\d|3[01])(?:st|nd|rd|th)\b(?!\s+(?:of\s+)?(?!each|every|the\b)[A-Z])")
OF_THE_MONTH = pattern(r"\bday\s+of\s+(?:the|each|every|a)\s+(?:month|quarter)\b", re.IGNORECASE)
PLAIN_NUMBER = pattern(
    r"\d{1,3}(?:\.\d{1,3})*|\d{4}"
)  # a clause, a decimal or a year identifies nothing that is asked for
SUM_BEFORE = pattern(r"[£$€]\s?[\d,]*\Z|\d,\Z")
_month = "January|February|March|April|May|June|July|August|September|October|November|December"
# Times that are told without a day of the year: "November 2029", "the end of March", "since 2021", "the last Thursday of each month".
PERIOD = pattern(
    rf"(?:the\s+)?(?:last|first|final)\s+(?:{WORDS}|\d{{1,3}})(?:\s*\(\d{{1,3}}\))?\s+(?:business\s+|working\s+)?(?:days?|weeks?|months?)\s+of\s+(?:the|each|every|its)\s+(?:\w+\s)?\w+"
    rf"|(?:the\s+)?(?:{ORDINAL_WORDS}|\d{{1,2}}(?:st|nd|rd|th))\s+(?:Business|business|working|calendar)\s+[Dd]ay\s+(?:after|following|before|of)\s+(?:(?:its|the|that|such|each)\s+)?\w+"
    rf"|(?:the\s+)?(?:end|start|beginning|middle|close|anniversary)\s+of\s+(?:the\s+)?(?:(?:year|month|quarter)\s+\w+|(?:{_month})\b(?:\s+(?:19|20)\d\d)?|(?:19|20)\d\d)"
    rf"|(?:the\s+)?(?:{ORDINAL_WORDS}|last|\d{{1,2}}(?:st|nd|rd|th))\s+day\s+of\s+(?:the|each|every|a|any|that)\s+(?:calendar\s+|following\s+|next\s+)?(?:month|quarter|week|year)(?:\s+(?:following|after)\s+[\w’' -]{{3,30}})?"
    r"|(?:(?<=\bat\s)|(?<=\bby\s)|(?<=\bto\s)|(?<=\buntil\s)|(?<=\bon\s))the\s+end\s+of\s+(?:the|each|every|a|any)\s+(?:calendar\s+|following\s+|next\s+|working\s+|financial\s+)?(?:shift|month|quarter|week|year|day|season)(?:\s+(?:following|after)\s+[\w’' -]{3,30})?"
    r"|(?:the\s+)?(?:first|second|third|fourth|last)\s+(?:half|quarter)\s+of\s+(?:19|20)\d\d|(?:the\s+)?week\s+of\s+(?:the\s+)?\d{1,2}(?:st|nd|rd|th)?\s+[A-Z][a-z]+"
    rf"|(?:the\s+)?(?:first|last|second|third|every|each)\s+(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day(?:\s+(?:of|in)\s+(?:each|every|the|a)\s+\w+)?"
    rf"|(?:the\s+)?\b(?:[12]?\d|3[01])(?:st|nd|rd|th)?\s+(?:of\s+)?(?:{_month})\s+(?:in|of)\s+(?:each|every|any)\s+(?:calendar\s+)?year"
    rf"|(?:(?<=\bruns\sto\s)|(?<=\bends\son\s)|(?<=\bending\son\s))(?:[12]?\d|3[01])(?:st|nd|rd|th)?\s+(?:{_month})\b(?!,?\s+\d{{4}})"
    rf"|(?:(?:early|late|mid|each|every)[\s-])?(?<!\d\s)(?<!\d(?:st|nd|rd|th)\s)(?<!\d(?:st|nd|rd|th)\sof\s)\b(?:{_month})\b(?!\s+(?:the\s+)?\d{{1,2}}(?:st|nd|rd|th)?\b(?!\d))(?:,?\s+(?:19|20)\d\d)?"
    r"|(?:(?:the\s+)?(?:spring|summer|autumn|winter)(?:\s+of)?\s+(?:19|20)\d\d)|\b(?:Easter|Christmas|Michaelmas)\b(?:\s+(?:19|20)\d\d)?"
    r"|(?:(?<=\bin\s)|(?<=\bsince\s)|(?<=\bfrom\s)|(?<=\bof\s)|(?<=\bby\s)|(?<=\buntil\s)|(?<=\baround\s)|(?<=\babout\s)|(?<=\bduring\s)|(?<=\bfounded\s)|(?<=\bestablished\s)|(?<=\bbuilt\s)|(?<=\bincorporated\s)|(?<=\bopened\s)|(?<=\best\.\s))(?:1[6-9]|20)\d\d\b(?![-/.]\d)",
)
PATTERNS = {"period": PERIOD, "time": CLOCK, "often": OFTEN, "code": CODE, "multiple": MULTIPLE, "day": MONTH_DAY}


def kinds_sought(kinds: Sequence[str], question: str) -> list[tuple[int, str]]:
    """The kinds of answers to look for in lines, each with its rank among those wanted: a sum may be told as a multiple of
    another one, a day of each month by its number.
    """
    out = [(rank, kind) for rank, kind in enumerate(kinds)]
    out += [(rank, "multiple") for rank, kind in out if kind == "money"]
    if not ON_A_DAY.search(question):
        later = 1 if A_DATE.search(question) else 0
        out += [(rank + later, "period") for rank, kind in out if kind == "date"]
    return [*out, (0, "day")] if OF_THE_MONTH.search(question) else out


def pattern_finder(inquiry: Inquiry, kind: str) -> Callable[[Line], list[Found[Value]]]:
    """What finds times of day, and how often something happens, in a line."""

    def found(line: Line) -> list[Found[Value]]:
        text = inquiry.passages.text
        if kind == "code":
            return [
                Found(Text(on_one_line(m.group())), Span(*m.span()))
                for m in PATTERNS[kind].finditer(text, line.values.start, line.values.end)
                if not PLAIN_NUMBER.fullmatch(m.group()) and not SUM_BEFORE.search(text, line.values.start, m.start())
            ]
        matches = list(PATTERNS[kind].finditer(text, line.values.start, line.values.end))
        if kind == "time":
            return [Found(Text(on_one_line(s.of(text))), s) for s in _hours(text, [Span(*m.span()) for m in matches])]
        if kind == "period":  # "May" may begin a sentence; the month of a whole date is none
            dates = [f.span for f in inquiry.values.dates(line)]
            matches = [
                m
                for m in matches
                if not MAY.match(text, m.start()) and not any(Span(*m.span()).overlaps(d) for d in dates)
            ]
        return [Found(_read(kind, m), Span(m.start(), m.end())) for m in matches]

    return found


def _hours(text: str, times: list[Span]) -> list[Span]:
    """Times of day, those with only "to" or the like between them as one: "from 6 a.m. to 9 p.m."."""
    out: list[Span] = []
    for time in times:
        between = bool(out) and BETWEEN.search(text, max(0, out[-1].start - 9), out[-1].start) is not None
        if out and (AND if between else TO).fullmatch(text, out[-1].end, time.start):
            out[-1] = Span(out[-1].start, time.end)
        else:
            out.append(time)
    return out


def _read(kind: str, m: re.Match[str]) -> Value:
    """'every fourth year' is a length of four years; everything else stays in its words."""
    if (
        kind == "often"
        and m["times"]
        and (count := read_words(m["times"]) or Decimal(m["times"] if m["times"].isdigit() else 0))
    ):
        return Quantity(count)
    if kind == "often" and m["unit"]:
        number = read_words(m["n"]) if m["n"] else Decimal(1)
        if number:
            return Duration(number, m["unit"].lower() + "s")
    if kind == "day":
        return Quantity(Decimal(m["n"]))
    return Text(on_one_line(m.group()))
