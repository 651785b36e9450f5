"""Is a value within its limit: "is 45 km/h of wind allowed?", where the paper gives its limit in metres per second.

The limit is the number of the same nature that stands by what is asked; both are set in one unit, and the working is shown.
"""

from __future__ import annotations

import re
from decimal import Decimal
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.bands import measures_in
from yarnex.core.search.question import Question
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import Hit, Idea, ideas_of
from yarnex.core.terms.candidates import quote_around
from yarnex.core.values import Money, Percent, Quantity, Value, YesNo
from yarnex.core.values.quantities import convert

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry

ASKS = pattern(
    r"\b(?:within|allowed|permitted|acceptable|below|under|above|over|exceed\w*|more\s+than|less\s+than|enough|too|limit|maximum|minimum|reach\w*|meets?)\b",
    re.IGNORECASE,
)
BEYOND = pattern(
    r"\b(?:above|over|exceed\w*|more\s+than|too\s+(?:much|high|fast|loud|heavy|big|large|strong|hot|many))\b",
    re.IGNORECASE,
)
SHORT = pattern(r"\b(?:below|under|less\s+than|too\s+(?:little|low|slow|light|small|cold|few))\b", re.IGNORECASE)
AT_LEAST = pattern(
    r"\b(?:at\s+least|(?:not|no)\s+less\s+than|(?:not|no)\s+fewer\s+than|minimum|min\.?|lowest|not\s+below)\b|≥",
    re.IGNORECASE,
)
NEAR = 60  # characters before a value in which the words stand that say which way the limit goes
COVERED = 0.55  # share of what is asked for that must stand by the limit


def within_limit(inquiry: Inquiry, question: Question) -> Finding | None:
    """Yes or no with the working, None where the question gives no value to compare or no passage a limit for it."""
    if question.kinds != ("yes_no",) or not ASKS.search(question.text):
        return None
    asked = [(kind, value, span) for kind, value, span in measures_in(question.text) if isinstance(value, Decimal)]
    if len(asked) != 1:
        return None
    kind, value, span = asked[0]
    finder = inquiry.values.finder("money" if kind == "money" else "percent" if kind == "percent" else "number")
    hits = inquiry.matcher.ranked(_without(question, span), finder, limit=6)
    for hit in hits:
        limit = _in_unit(hit, kind)
        if limit is not None and hit.coverage >= COVERED:
            return _answer(inquiry, question, hit, kind, value, limit)
    return None


def _without(question: Question, span: Span) -> tuple[Idea, ...]:
    """What is asked for but the value itself and the words of comparing."""
    return ideas_of(ASKS.sub(" ", question.text[: span.start] + " " + question.text[span.end :]))


def _in_unit(hit: Hit, kind: str) -> Decimal | None:
    """The limit as a number in the unit that the question uses; None where the two do not measure the same thing."""
    value: Value | None = hit.found.value if hit.found is not None else None
    if isinstance(value, Money):
        return value.amount if kind == "money" else None
    if isinstance(value, Percent):
        return value.value if kind == "percent" else None
    if isinstance(value, Quantity) and value.unit is not None and kind:
        same = convert(value, kind)
        return same.value if same is not None else None
    return None


def _plain(value: Decimal) -> str:
    """A number without the noughts that a conversion leaves behind it."""
    return f"{value:f}".rstrip("0").rstrip(".") if "." in f"{value:f}" else f"{value:f}"


def _answer(inquiry: Inquiry, question: Question, hit: Hit, kind: str, value: Decimal, limit: Decimal) -> Finding:
    assert hit.found is not None
    text = inquiry.passages.text
    place = hit.found.span
    words = place.of(text)
    before = text[max(hit.line.span.start, place.start - NEAR) : place.start]
    least = bool(AT_LEAST.search(before))
    fits = value >= limit if least else value <= limit
    asks_beyond = bool(BEYOND.search(question.text)) and not re.search(r"\bnot\b", question.text)
    asks_short = bool(SHORT.search(question.text))
    yes = value > limit if asks_beyond else value < limit if asks_short else fits
    unit = f" {kind}" if kind not in ("money", "percent") else " %" if kind == "percent" else ""
    steps = []
    if isinstance(hit.found.value, Quantity) and hit.found.value.unit != kind:
        steps.append(f"{words} = {_plain(limit)} {kind}")
    sign = "=" if value == limit else "<" if value < limit else ">"
    steps.append(
        f"{_plain(value)}{unit} {sign} {_plain(limit)}{unit}, which is the {'least' if least else 'most'} that is named"
    )
    quote: Cite = quote_around(inquiry.passages, place)
    term = Term("answer", question.text, "", "yes_no")
    confidence = round(min(0.9, 0.4 + 0.5 * hit.coverage), 3)
    why = ("the value asked about set beside the limit",)
    return Finding(inquiry.document, term, "computed", YesNo(yes), words, confidence, (quote,), tuple(steps), why=why)
