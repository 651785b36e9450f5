"""Steps of a schedule written out in words: "what is the rent in month 20?" of "Base rent: months 1-12: $900; months 13-24: $950"."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.number_names import ORDINALS, UNITS, counted
from yarnex.core.patterns import pattern
from yarnex.core.search.question import Question
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import SAY_LITTLE, ideas_of
from yarnex.core.terms.candidates import quote_around
from yarnex.core.terms.schedules import Step, lead_of_steps, steps_in_words, sum_of_step
from yarnex.core.values import Money
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry

COUNTED = pattern(
    rf"\b(?:(?:in|for|during|of)\s+)?(?:the\s+)?(?:(?P<nth>{'|'.join(ORDINALS)}|\d{{1,3}}(?:st|nd|rd|th))\s+(?:(?:lease|contract|rent|calendar|full|whole)\s+)?(?P<of>month|quarter|year)"
    rf"|(?:lease\s+|contract\s+)?(?P<unit>month|quarter|year)\s+(?P<number>\d{{1,3}}|{'|'.join(UNITS)}))\b",
    re.IGNORECASE,
)
PAID_BY = pattern(r"\b(?:(?P<month>monthly)|(?P<quarter>quarterly)|(?P<year>annual(?:ly)?|yearly))\b", re.IGNORECASE)
MONTHS_IN = {"month": 1, "quarter": 3, "year": 12}
ANY_SUM = SAY_LITTLE | frozenset(stems_of("pay paid payable due owed cost costs"))  # said of any sum
SURE = 0.9
NO_STEP = "no one step of the schedule holds for that time"


def step_asked_for(inquiry: Inquiry, question: Question) -> Finding | None:
    """The sum of the one step that holds for the month, quarter or year that a question counts.

    `not_found` with the steps beside it where none holds, as for a year across two of them. None where it counts no time, where no
    steps stand behind all the other words it asks for, or where several sums do.
    """
    time = COUNTED.search(question.text)
    if time is None or question.leans or question.kinds[0] != "money":
        return None
    rest = question.text[: time.start()] + " " + question.text[time.end() :]
    asked = {stem for idea in ideas_of(PAID_BY.sub(" ", rest)) for stem in idea.name if stem not in ANY_SUM}
    if not asked:
        return None
    passages = inquiry.passages
    paid_by = PAID_BY.search(rest)
    found: dict[Money, Span] = {}
    others: list[Cite] = []  # steps of what is asked for, none of which holds for the time
    for steps in steps_in_words(passages, Span(0, passages.document.body_end)):
        told, step = lead_of_steps(passages, steps), step_of(time, steps)
        words = frozenset(stems_of(f"{told[0]} {told[1]}")) if told is not None else frozenset()
        # not by other words for it: those for a rent are those for a service charge too
        if told is None or not words.issuperset(asked):
            continue
        value = sum_of_step(step or steps[0], told[0])
        if paid_by is not None and value.per not in (None, paid_by.lastgroup):
            continue
        if step is None:
            others.append(Cite(inquiry.document, Span(steps[0][0].start(), steps[-1][1].span.end)))
        else:
            found.setdefault(value, Span(step[0].start(), step[1].span.end))
    term = Term("answer", question.text, "", "money")
    if others and not found:
        return Finding(inquiry.document, term, "not_found", near=tuple(others), why=(NO_STEP,))
    if len(found) != 1:
        return None
    ((value, place),) = found.items()
    cite = quote_around(passages, place)
    why = ("the step of a schedule that holds for the time asked about",)
    return Finding(inquiry.document, term, "stated", value, place.of(passages.text), SURE, (cite,), why=why)


def step_of(asked: re.Match[str], steps: Sequence[Step]) -> Step | None:
    """The step in which the time that a question counts lies as a whole: the second year in months 13 to 24."""
    nth = counted(asked["nth"] or asked["number"])
    first, last = _in_months(asked["of"] or asked["unit"], nth, nth)
    for step, found in steps:
        low, high = _in_months(step["unit"], int(step["a"]), int(step["b"] or step["a"]))
        if low <= first and last <= high:
            return step, found
    return None


def _in_months(unit: str, first: int, last: int) -> tuple[int, int]:
    """The months, counted from 1, in which "years 2 to 3" begin and end."""
    length = MONTHS_IN[unit.lower()]
    return (first - 1) * length + 1, last * length
