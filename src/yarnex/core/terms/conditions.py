"""The condition under which a value holds: what the same sentence says of when, unless, and which of two.

A value without its condition is wrong: the words that limit it are given with it, verbatim.
"""

from __future__ import annotations

import re

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import cut
from yarnex.core.terms.passages import Passages

LONGEST = 200  # characters of a condition
CHOICE = pattern(
    r"\b(?:the\s+)?(?:greater|greatest|lesser|least|higher|highest|lower|lowest|larger|smaller|earlier|earliest|later|latest|longer|shorter|sum)\s+of\b|\bwhichever\s+(?:is|occurs|comes)\b",
    re.IGNORECASE,
)
LIMIT = pattern(
    r"\b(?:provided\s+(?:always\s+)?that|on\s+condition\s+that|subject\s+(?:always\s+)?to|unless|except(?:\s+(?:that|for|where|if|as))?|save\s+(?:that|for|where)|but\s+not|other\s+than"
    r"|or,?\s+if\s+(?:later|earlier|greater|less|higher|lower)|only\s+if|if\s+and\s+only\s+if|so\s+long\s+as|for\s+so\s+long\s+as|plus|less\s+(?=the|any))\b",
    re.IGNORECASE,
)
STOP = pattern(r";|\.(?=\s|\Z)|:(?=\s)")


def condition_of(passages: Passages, value: Span) -> str:
    """The words of the sentence around a value that limit it or name what else may apply; "" where there are none."""
    sentence = passages.sentence_at(value.start)
    if sentence is None or sentence.span.end - sentence.span.start > 900:
        return ""
    text, span = passages.text, sentence.span
    for m in CHOICE.finditer(text, span.start, span.end):
        reach = value.start - m.end() if m.end() <= value.start else m.start() - value.end
        if -1 <= reach < 160 and not STOP.search(text, min(m.end(), value.end), max(m.start(), value.start)):
            return _words(passages, Span(min(m.start(), value.start), span.end), value)
    found = []
    for m in LIMIT.finditer(text, span.start, span.end):
        if value.start <= m.start() < value.end or (m.end() < value.start and value.start - m.end() > 240):
            continue
        end = STOP.search(text, m.end(), span.end)
        stop = end.start() if end else span.end
        if m.start() > value.end and STOP.search(text, value.end, m.start()):
            continue
        words = cut(text, Span(m.start(), stop), Span(m.start(), m.end()), LONGEST).of(text)
        found.append(" ".join(words.split()).rstrip(" ,"))
    return found[0] if found else ""


# What in a cell or after a label goes beyond the bare value: "£400 a month, reviewed yearly", "20 days after consent, not later than 30 June".
GOES_BEYOND = pattern(
    r"\b(?:or|if|unless|until|after|before|plus|less|subject\s+to|provided|except|save|not\s+(?:later|earlier|less|more)|no\s+(?:later|earlier|less|more)|at\s+(?:least|most)|up\s+to|whichever|earlier|later|(?:of\s+)?which|minimum|maximum|min\.?|max\.?|then|thereafter|rising|reviewed|indexed)\b",
    re.IGNORECASE,
)


def told_with(passages: Passages, value: Span) -> str:
    """The whole words of the cell in which a value stands, where they say more of it than its row's label and itself; else ""."""
    found = passages.document.cell_at(value)
    if found is None or found[1].column == 0:
        return ""
    words = found[1].span.of(passages.text)
    rest = words.replace(value.of(passages.text), " ", 1)
    return " ".join(words.split()) if len(words) <= LONGEST and GOES_BEYOND.search(rest) else ""


def _words(passages: Passages, span: Span, keep: Span) -> str:
    text = passages.text
    end = STOP.search(text, max(keep.end, span.start), span.end)
    whole = Span(span.start, end.start() if end else span.end)
    return " ".join(
        cut(text, whole, Span(whole.start, min(whole.end, max(keep.end, whole.start + 1))), LONGEST).of(text).split()
    )
