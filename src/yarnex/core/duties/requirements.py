"""Document -> the requirements of a call, guideline or policy: numbered rows and sentences that ask for something."""

from __future__ import annotations

import re
from dataclasses import replace

from yarnex.core.document import Cite, Document, Span
from yarnex.core.duties.model import Requirement
from yarnex.core.patterns import pattern
from yarnex.core.terms.passages import Passages

HEADED = pattern(
    r"\b(?:requirement|minimum|mandatory|criteri|specification|condition|must|limit|to be submitted|documents? required|what we need)\w*\b",
    re.IGNORECASE,
)
ASKS = pattern(
    r"\b(?:must|shall|is required|are required|mandatory|at least|not less than|no less than|not more than|no more than|minimum|maximum|not exceed|only if|will be rejected|may not|should|is welcome|preferred|desirable|optional)\b",
    re.IGNORECASE,
)
OPTIONAL = pattern(
    r"\b(?:should|preferred|desirable|optional|welcome|may be offered|if wished|nice to have)\b", re.IGNORECASE
)
LIMIT = pattern(
    r"\b(?:at least|not less than|no less than|minimum(?: of)?|not more than|no more than|maximum(?: of)?|not exceed(?:ing)?|up to|within|not later than|no later than|by|before|between)\s+[^.;,\n]{0,50}\d[^.;\n]{0,40}|\d[\d.,]*\s*(?:%|[A-Za-z/²³()]+)?\s+(?:or (?:more|less|better)|and above)", re.IGNORECASE
)  # fmt: skip
NUMBER = pattern(r"\A\s*([A-Z]{0,3}\d{1,3}(?:\.\d{1,3}){0,3}|[A-Z]\.\d+|\([a-z]\)|[a-z]\))[.)]?\s+")
CORRECTS = pattern(
    r"\b(?P<number>[A-Z]{0,3}\d{1,3}(?:\.\d{1,3}){0,3})\b[^.\n]{0,80}?\b(?:is replaced by|is corrected to|now reads|shall read|should read|is amended to|is changed to|instead of|is deleted|is withdrawn)\b[^.\n]{0,160}",
    re.IGNORECASE,
)


def requirements_of(document: Document) -> tuple[Requirement, ...]:
    """The requirements in their order, numbered as printed; a later correction of one stands with it."""
    passages = Passages(document)
    out: list[Requirement] = []
    for _, block in passages.blocks:
        if block.kind == "heading":
            continue
        if block.table >= 0:
            out += _of_table(document, block.table)
            continue
        text = block.span.of(document.text)
        if not ASKS.search(text) or CORRECTS.search(text):
            continue
        m = NUMBER.match(text)
        number = m[1] if m else block.number
        under = " ".join(s.heading for s in document.section_path(block.span.start))
        if not number and not HEADED.search(under):
            continue
        words = " ".join((text[m.end() :] if m else text).split())
        out.append(
            Requirement(document, number, words, _mandatory(words), _limit(words), (Cite(document, block.span),))
        )
    return tuple(_corrected(document, passages, out))


def _of_table(document: Document, place: int) -> list[Requirement]:
    table = document.tables[place]
    heads = " ".join(c.span.of(document.text) for c in table.cells if c.row < table.header_rows)
    under = " ".join(s.heading for s in document.section_path(table.span.start))
    asked = bool(HEADED.search(heads)) or bool(HEADED.search(under))
    out = []
    for row in range(table.header_rows, table.rows):
        cells = table.row_cells(row)
        if len(cells) < 2:
            continue
        words = [" ".join(c.span.of(document.text).split()) for c in cells]
        m = re.fullmatch(r"[A-Z]{0,3}\d{1,3}(?:\.\d{1,3}){0,3}[.)]?", words[0])
        body = " – ".join(w for w in (words[1:] if m else words) if w)
        if not (asked and (m or ASKS.search(body))) and not ASKS.search(body):
            continue
        span = Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
        out.append(
            Requirement(
                document,
                words[0].rstrip(".)") if m else "",
                body,
                _mandatory(body),
                _limit(body),
                (Cite(document, span),),
            )
        )
    return out


def _mandatory(words: str) -> bool:
    return not OPTIONAL.search(words) or bool(re.search(r"\b(?:must|shall|mandatory)\b", words, re.IGNORECASE))


def _limit(words: str) -> str:
    m = LIMIT.search(words)
    return " ".join(m.group().split()) if m else ""


def _corrected(document: Document, passages: Passages, found: list[Requirement]) -> list[Requirement]:
    """Requirements with the corrections that the document publishes further on."""
    out = list(found)
    for m in CORRECTS.finditer(document.text[: document.body_end]):
        for place, item in enumerate(out):
            if item.number and item.number == m["number"] and item.cites[0].span.start < m.start():
                sentence = passages.sentence_at(m.start())
                span = sentence.span if sentence else Span(m.start(), m.end())
                out[place] = replace(
                    item, replaced=" ".join(span.of(document.text).split()), cites=(*item.cites, Cite(document, span))
                )
    return out
