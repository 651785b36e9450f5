"""Values told apart from what they are of: "net debt no more than 3.0 times and cover of at least 4.0 times; they were 1.4 and 7.8"."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.cues import cues_asked, cues_said
from yarnex.core.search.evidence import place_of_value
from yarnex.core.values import Quantity
from yarnex.core.values.numbers import read_digits

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.question import Question
    from yarnex.core.search.weighing import Answer

_number = r"\d{1,4}(?:[.,]\d{1,3})?"
_alone = r"(?=\s?(?:times|x)?\s*(?:[.;,()]|\Z))"  # "it was 3 May" tells no ratio
THEY_WERE = pattern(
    rf"\b(?:they|these|the\s+(?:two|ratios|actual\s+figures|figures|levels))\s+(?:were|are|stood\s+at|came\s+to|amounted\s+to|had\s+been|was)\s+(?P<values>{_number}(?:\s?(?:times|x|%))?(?:,\s+{_number}(?:\s?(?:times|x|%))?)*\s+and\s+{_number}){_alone}",
    re.IGNORECASE,
)
IT_WAS = pattern(
    rf"\b(?:it|this|the\s+(?:actual\s+)?(?:ratio|figure|level|cover|value|result))\s+(?:was|is|stood\s+at|came\s+to)\s+(?P<values>{_number}){_alone}",
    re.IGNORECASE,
)
IN_ORDER = pattern(_number)
BEHIND = 320  # characters behind the values to which they are told
AT_MOST = 4
LIMITS = frozenset(("least", "most", "limit", "threshold", "under", "required"))


def told_in_order(inquiry: Inquiry, question: Question, answers: list[Answer]) -> list[Answer]:
    """The answers; in place of the limit of what is asked for its actual value, where that is told behind all the limits in the
    same order. Only where the actual value is asked for.
    """
    if not answers or answers[0].kind != "number" or "actual" not in cues_asked(question.text):
        return answers
    best = answers[0]
    at, text = place_of_value(inquiry, best), inquiry.passages.text
    sentence = inquiry.passages.sentence_at(at.start) if at is not None else None
    if at is None or sentence is None or not cues_said(text, at, sentence.span.start, sentence.span.end) & LIMITS:
        return answers
    after, last = sentence.span.end - 1, sentence.span.end + BEHIND
    told = THEY_WERE.search(text, after, last) or IT_WAS.search(text, after, last)
    limits = [f for f in inquiry.passages.values_in("number", sentence.span) if _same_unit(f.value, best.value)]
    place = next((i for i, f in enumerate(limits) if f.span.overlaps(at)), -1)
    values = list(IN_ORDER.finditer(told["values"])) if told is not None else []
    if told is None or place < 0 or not 0 < len(values) == len(limits) <= AT_MOST:
        return answers
    amount = read_digits(values[place].group())
    if amount is None:
        return answers
    start = told.start("values") + values[place].start()
    span = Span(start, told.start("values") + values[place].end())
    there = inquiry.passages.sentence_at(start)
    quote = Cite(inquiry.document, there.span if there is not None else span)
    unit = best.value.unit if isinstance(best.value, Quantity) else None
    working = (f"value {place + 1} of {len(values)}, in the order of “{' '.join(sentence.span.of(text).split())}”",)
    actual = replace(
        best, value=Quantity(amount, unit), span=span, quote=quote, finding=None, why="told in the same order", working=working
    )  # fmt: skip
    return [actual, *answers[1:]]


def _same_unit(one: object, other: object) -> bool:
    return isinstance(one, Quantity) and isinstance(other, Quantity) and one.unit == other.unit
