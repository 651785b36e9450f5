"""Where sentences begin and end inside a piece of text."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document.model import Span
from yarnex.core.patterns import pattern

_end = pattern(r"[.?!][\"”’')\]]*(?=\s+[\"“‘'(\[]?[A-Z0-9“]|\s+\((?:[a-z]|[ivx]{2,4})\)\s)|;(?=\s)|\n")
STARTS = r"(?:The|If|In|On|Any|All|No|This|Each|Tenant|Landlord|It|One|Two|Three|A|An|He|She|We|They|There|When|After|Both|Some|Most|Its|Our|His|Her|I|You|Then|At|As|For|But|Mr|Mrs|Ms|Dr|That|These|Nobody|Everyone|By|From|To)\s"
_numbered = pattern(r"\b(?:no|nos|vol|art|cl|para|sec|p|pp|item)\.\Z")
_abbreviation = pattern(
    r"(?:\b(?:No|Nos|Art|Sec|Cl|Para|Sch|Mr|Mrs|Ms|Dr|Prof|St|Co|Ltd|Inc|Corp|L\.P|L\.L\.C|plc|p\.l\.c|Rs|vs|v|e\.g|i\.e|etc|approx|cf|sq|ft|m|[Rr]eg|[Rr]ef|[Tt]el|[Ee]xt|[Ff]ig|pp?|[Vv]ol|[Dd]ept|Hon|Rev|[Ii]ncl|[Ee]xcl"
    r"|a\.m|p\.m|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec|U\.S|U\.K)|\b[A-Z]|(?:\A|\n)\s*(?:(?:Section|Clause|Article|Paragraph)\s+)?[\dIVX]{1,4}(?:\.\d+)*)\.\Z"
)


def sentences(text: str, *, semicolons: bool = True) -> Iterator[Span]:
    """Spans of the sentences of `text`, left to right, without the white space between them.

    semicolons: end a sentence at a semicolon too, as the parts of a long clause are best read one by one.
    A line end always parts sentences; a full stop after an abbreviation, an initial or a clause number does not.
    """
    start = 0
    for m in _end.finditer(text):
        mark = m.group()[0]
        if (
            mark == "."
            and _numbered.search(text, max(start, m.start() - 5), m.start() + 1)
            and text[m.end() : m.end() + 3].lstrip()[:1].isdigit()
        ):
            continue  # "engine no. 4"
        if mark == ";" and not semicolons:
            continue
        if mark == "." and _abbreviation.search(text[max(start, m.start() - 24) : m.start() + 1]):
            followed = text[m.end() : m.end() + 40].lstrip()
            clock = text[m.start() - 3 : m.start() + 1].lower() in ("a.m.", "p.m.")
            if not re.match(
                STARTS if clock else r"(?:The|If|In|On|Any|All|No|This|Each|Tenant|Landlord|It)\s", followed
            ) or re.search(r"\b[A-Z]\.\Z", text[: m.start() + 1]):
                continue
            if re.search(
                r"(?:\A|\n)\s*(?:(?:Section|Clause|Article|Paragraph)\s+)?[\dIVX]{1,4}(?:\.\d+)*\.\Z",
                text[start : m.start() + 1],
            ):
                continue
        yield from _trimmed(text, start, m.end())
        start = m.end()
    yield from _trimmed(text, start, len(text))


def _trimmed(text: str, start: int, end: int) -> Iterator[Span]:
    while start < end and text[start].isspace():
        start += 1
    while end > start and text[end - 1].isspace():
        end -= 1
    if start < end:
        yield Span(start, end)
