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


_word = r"[^\s,;:.()]+"
_goes_on = (
    r"and|or|but|unless|if|provided|except|subject|which|by|to|in\s+(?:the\s+case|which)|on\s+which|be|is|are|was|were|shall|must|may|will|can"
    r"|has|have|had|you|we|they|he|she|it|this|that|within"
)
_happens = r"(?:is|are|was|were|has|have|had)\s+(?:been\s+|become\s+)?(?!(?:needed|required|charged|allowed|permitted|added|deemed|reduced|increased|granted|assumed)\b)(?:\w{2,}ed|sent|made|given|due|paid|held|met|known|told|taken|drawn|put|served)\b"
_event = rf"(?P<what>\s+(?:between\s+{_word}\s+and\s+)?{_word}(?:\s+(?:between\s+{_word}\s+and\s+{_word}|(?!(?:{_goes_on})\b){_word})){{0,13}}(?:\s+{_happens})?)"
RUNS_FROM = pattern(rf"\s+(?:after|before|from|following|prior\s+to|later|earlier)\b{_event}")
# "within 30 days of its date"; but not "30 days of leave"
RUNS_OF = pattern(
    rf"\s+of(?=\s+(?:its|the|that|this|each|any|such|a|an|receipt|receiving|delivery|date|notice|demand|service|signature|completion|being|becoming|learning|knowing)\b){_event}"
)
LEFT_OPEN = pattern(
    r"\s+(?:without|requiring|asking|stating|specifying|giving|including|being|on|in|at|of|for)\Z", re.IGNORECASE
)
OF_WHICH_DAY = pattern(
    r"(?:(?<=\b(?:date|year|time))|(?<=\bmonth)|(?<=\bday))\s+(?:(?:on|in|at)\s+which|when|that)\s[^,;.:()]{2,70}(?=[,;.:()]|\Z)"
)
DETERMINER = pattern(r"(?<=\s)(?:the|an?|each|any|either|neither|its|their|his|her|both)(?=\s)", re.IGNORECASE)
LEADS_ON = pattern(
    r"\b(?:after|before|from|following|to|later|earlier|of|in|on|at|for|by|with|under|between|upon|until|during|about|against|through|all|such|than|as|\w+(?:ing|ed))\s+\Z",
    re.IGNORECASE,
)
NEW_LINE = pattern(r"[\n\t]")
WITHIN = pattern(
    r"\b(?:within|at\s+least|not\s+(?:less|more|later)\s+than|no\s+later\s+than|on\s+the)\s+\Z", re.IGNORECASE
)


def with_its_start(text: str, length: Span, first: int) -> Span:
    """A length of time with what it runs from and the words that limit it, "within 35 days after the end of the quarter".

    first: where the sentence begins, before which nothing is taken.
    """
    runs = RUNS_FROM.match(text, length.end) or RUNS_OF.match(text, length.end)
    if runs is None:
        return length
    within = WITHIN.search(text, max(first, length.start - 24), length.start)
    line = NEW_LINE.search(text, length.end, runs.end("what"))
    end = line.start() if line is not None else runs.end("what")
    for word in DETERMINER.finditer(text, runs.start("what") + 2, end):
        if not LEADS_ON.search(text, length.end, word.start()):  # another clause: "of the damage either party may ..."
            end = word.start()
            break
    end = length.end + len(text[length.end : end].rstrip())
    if (left := LEFT_OPEN.search(text, length.end, end)) is not None:
        end = left.start()
    elif (which := OF_WHICH_DAY.match(text, end)) is not None:
        end = which.end()
    return Span(within.start() if within else length.start, end)


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
