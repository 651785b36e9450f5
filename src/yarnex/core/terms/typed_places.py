"""The typed value that a cell or another short labelled place holds first."""

from __future__ import annotations

import re

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.lines import Line
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import LineValues
from yarnex.core.values import Found, Quantity, Value

ORDER = ("money", "date", "percent", "duration", "number")
AROUND_A_NUMBER = pattern(
    r"(?i:min|max|minimum|maximum|at|least|most|up|to|about|approx|approximately|over|under|each|per|a|an|of|the|total|in|all|circa|ca|plus|below|above|nearly|some|more|less|than|not)\b\.?|[\s.,;:()≥≤<>=~≈+*†-]"
)


def typed_value(span: Span, values: LineValues, passages: Passages, label: str = "") -> tuple[str, Found[Value] | None]:
    """The value that a short labelled place holds first, by type; none in longer words."""
    words = span.of(passages.text)
    place = passages.document.block_index_at(span.start)
    line = Line(span, span, "cell", place, label=label)
    best: tuple[int, str, Found[Value]] | None = None
    for kind in ORDER:
        finder = values.finder(kind)
        for found in finder(line)[:1] if finder else ():
            share = (found.span.end - found.span.start) / max(1, len(words))
            opens = (
                isinstance(found.value, Quantity) and found.value.unit is not None and found.span.start == span.start
            )
            if kind == "number" and not opens and not _is_all(span, found.span, passages.text):
                continue
            if (share > 0.3 or found.span.start - span.start < 12) and (best is None or found.span.start < best[0]):
                best = (found.span.start, kind, found)
    return (best[1], best[2]) if best else ("text", None)


def more_values(span: Span, first: Found[Value], values: LineValues, passages: Passages) -> list[Found[Value]]:
    """The other values that a short labelled place holds beside its first, left to right: sums, days, shares, lengths, and
    numbers with a unit.
    """
    place = passages.document.block_index_at(span.start)
    line = Line(span, span, "cell", place)
    out = [first]
    for kind in ORDER:
        finder = values.finder(kind)
        for found in finder(line) if finder else ():
            counted = not isinstance(found.value, Quantity) or found.value.unit is not None
            if counted and not any(found.span.overlaps(told.span) for told in out):
                out.append(found)
    return sorted(out[1:], key=lambda found: found.span.start)


def _is_all(place: Span, value: Span, text: str) -> bool:
    """True where a cell holds a number and nothing else that says something: no range, code, or thing by that name."""
    rest = f"{text[place.start : value.start]} {text[value.end : place.end]}"
    return not AROUND_A_NUMBER.sub("", re.sub(r"\([^()]*\)", " ", rest)).strip()
