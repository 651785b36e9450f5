"""The value that words tell: "The target is five minutes." answers "what is the target?" with five minutes."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.search.evidence import HOW_MANY_UNITS
from yarnex.core.terms.candidates import quote_around
from yarnex.core.terms.values_in_lines import of_type

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.question import Question
    from yarnex.core.search.weighing import Answer
    from yarnex.core.values import Found, Value

# "What is the target?", "and liabilities?": the name of a thing, and nothing that is said or done of it.
OF_A_THING = pattern(
    r"(?:and\s+|but\s+)?(?:what(?:['’]s|\s+(?:is|are|was|were|had\s+been|will\s+be|would\s+be))\s+(?:the|its|their|our|his|her|an?)?\s*)?(?:(?!(?:for|to|about|called|made|said|done|in|on|with)\b)[\w’'%-]+\s*){1,5}\?*",
    re.IGNORECASE,
)
# What may stand between the name of a thing and its value.
ONLY_LEADS = pattern(
    r"[\s:=,(–-]*(?:(?:is|are|was|were|be|been|being|of|at|to|stood|stands?|came|comes|amount(?:s|ed)?|has|have|had|now|still|set|put|only|just|about|some|around|roughly|approximately|nearly|almost|over|the|an?|a\s+total\s+of)[\s:(]+)*",
    re.IGNORECASE,
)
KINDS = ("date", "money", "percent", "duration", "number")  # five minutes are a length of time
NAMED = 0.7  # how surely a word must name the thing
FAR = 48  # characters between the name and the value


def told_by_words(inquiry: Inquiry, question: Question, answer: Answer) -> Answer:
    """The answer, with the value in place of the words where these tell just that of the thing asked for: right behind its name,
    or alone in the cell or behind the label that names it.
    """
    if answer.kind != "text":
        return answer
    text = inquiry.passages.text
    if question.kinds[0] == "duration" and HOW_MANY_UNITS.search(question.text):  # "Days lost were 61."
        numbers = [f for line in inquiry.matcher.lines.at(answer.span) for f in inquiry.values.numbers(line)]
        return _valued(inquiry, answer, numbers[0]) if len({f.span for f in numbers}) == 1 else answer
    if question.kinds[0] != "text" or not OF_A_THING.fullmatch(question.text):
        return answer
    ways = [
        way
        for idea in question.ideas
        if idea.weight >= NAMED and not idea.carried
        for way, worth in idea.ways
        if worth >= NAMED
    ]
    for line in inquiry.matcher.lines.at(answer.span):
        if not (line.values.start <= answer.span.start < line.values.end):
            continue
        values = sorted(
            (f for kind in KINDS for f in (inquiry.values.finder(kind) or _none)(line)), key=lambda f: f.span
        )
        whole = [
            f
            for f in values
            if not text[answer.span.start : f.span.start].strip(" :")
            and not text[f.span.end : answer.span.end].strip(" .;)")
        ]
        if line.kind in ("cell", "named") and len(whole) == 1:
            return _valued(inquiry, answer, whole[0])
        names = sorted({at for way in ways for at in line.own.get(way[0], ()) if all(w in line.own for w in way)})
        behind = [f for f in values if any(_leads_to(text, at, f.span) for at in names)]
        if len({f.span for f in behind}) == 1:
            return _valued(inquiry, answer, behind[0])
    return answer


def _none(line: object) -> list[Found[Value]]:
    return []


def _leads_to(text: str, name: int, value: Span) -> bool:
    """True where a value stands right behind the word at a place."""
    word = re.compile(r"[\w’'-]+").match(text, name)
    if word is None or not word.end() <= value.start <= word.end() + FAR:
        return False
    return ONLY_LEADS.fullmatch(text, word.end(), value.start) is not None


def _valued(inquiry: Inquiry, answer: Answer, found: Found[Value]) -> Answer:
    quote = quote_around(inquiry.passages, found.span)
    kind = of_type(found.value)
    working = (found.reading,) if found.reading else ()
    return replace(answer, kind=kind, value=found.value, span=found.span, quote=quote, finding=None, working=working)
