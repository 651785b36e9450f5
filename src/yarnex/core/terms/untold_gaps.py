"""Blanks and blacked-out places that no term asked for: each told with the words that lead to it, places for signatures left out.

In: the findings so far and the document's passages. Out: a finding `blank` or `redacted` for each place, in the order of
the document.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from yarnex.core.document import Cite, Span
from yarnex.core.document.table_paths import column_path, row_label
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import cut, on_one_line
from yarnex.core.terms.model import Finding, Term
from yarnex.core.terms.passages import Passages

GROUP = "Left blank or blacked out"
CONFIDENCE = 0.86
# What leads to a place for a signature, or to the name and office of the one who signs.
TO_A_SIGNATURE = pattern(
    r"(?:\b(?:by|its|name|title|witness|position|capacity|director|secretary|directors|occupation|agreed|accepted|acknowledged)"
    r"|\b(?:(?:counter)?signed|signature|signatory|witnessed|presence\s+of)\b[^:;.\n]{0,60}|(?:\A|[.;:,]\s|(?:director|accepted)\s)for\s+(?:the\s+)?(?-i:[A-Z])[\w’'-]*(?:\s(?-i:[A-Z])[\w’'-]*)*|\baffixed\s+hereto)\W*\Z",
    re.IGNORECASE,
)
OF_A_SIGNATURE = pattern(
    r"\W*(?:name|title|director|secretary|notary|authori[sz]ed|witness|by|its|for\s+and\s+on\s+behalf|(?:deputy|head|chief|managing)\s)\b",
    re.IGNORECASE,
)
AN_OFFICE = pattern(r"\s*(?:[A-Z][\w.’'-]*\s+){1,4}(?:Director|Secretary|Partner|Manager|Officer)\b|\s*[A-Z]\.\s?[A-Z]")
TRAILING = pattern(
    r"(?:\s+(?:is|are|was|were|shall\s+be|will\s+be|being|of|for|to|the|a|an|the\s+sum\s+of|on|at|by))*[\s:;,€£$([]*\Z",
    re.IGNORECASE,
)
LEADING = pattern(r"[\s\W_\d]+|(?:and|or|that|the|a|an)\s+", re.IGNORECASE)
SENTENCE_END = pattern(r"[.;]\s+(?=[A-Z(“\"\d])|\n|\t|[;:]\s")
LONGEST, SHORTEST = 70, 12  # letters of a label


def untold_gaps(findings: Sequence[Finding], passages: Passages) -> Iterator[Finding]:
    """Findings for the blanks and blacked-out places that none of `findings` tells."""
    told = [
        c.span for f in findings if f.state in ("blank", "redacted") for c in f.cites if c.document is passages.document
    ]
    used: dict[str, int] = {}
    before = 0
    for gap, state in passages.gaps:
        label = _label(gap, before, passages)
        before = gap.end
        if not label or any(t.overlaps(gap) for t in told):
            continue
        name = re.sub(r"\W+", "_", label.lower()).strip("_")[:60]
        used[name] = used.get(name, 0) + 1
        if used[name] > 1:
            name += f"_{used[name]}"
        block = passages.document.block_at(gap.start)
        row = block.span if block is not None and block.kind != "table" else gap
        held = passages.document.cell_at(Span(gap.start, gap.start + 1))
        if held is not None:
            cells = held[0].row_cells(held[1].row)
            row = Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
        quote = Cite(passages.document, cut(passages.text, row, gap))
        term = Term(f"gap_{name}", label, GROUP, "text")
        yield Finding(passages.document, term, state, cites=(quote,), confidence=CONFIDENCE)


def _label(gap: Span, before: int, passages: Passages) -> str:
    """The words that lead to a gap; "" for a signature, and for a gap to which no words lead."""
    document, text = passages.document, passages.text
    held = document.cell_at(Span(gap.start, gap.start + 1))
    if held is not None:
        table, cell = held
        inside = on_one_line(text[cell.span.start : gap.start])
        of_row = on_one_line(row_label(table, cell.row, text)) if cell.column else ""
        head = on_one_line(" ".join(column_path(table, cell, text)))
        label = ": ".join(dict.fromkeys(filter(None, (of_row, head, _tidied(inside)))))
        signs = TO_A_SIGNATURE.search(inside or of_row) or OF_A_SIGNATURE.match(text, gap.end, cell.span.end)
        return "" if signs or not re.search(r"[A-Za-z]{3}", label) else label[:LONGEST]
    block = document.block_at(gap.start)
    if block is None or block.kind in ("furniture", "toc"):
        return ""
    start = max(block.span.start, before)
    lead = text[start : gap.start]
    if TO_A_SIGNATURE.search(lead) or AN_OFFICE.match(text, gap.end) or OF_A_SIGNATURE.match(text, gap.end):
        return ""
    ends = [m.end() for m in SENTENCE_END.finditer(lead.rstrip()) if len(lead.rstrip()) - m.end() >= SHORTEST]
    label = _tidied(lead[ends[-1] if ends else 0 :])
    if label and len(label) < SHORTEST and block.span.start < start:  # "Signed for the Tenant: ____ Date: ____"
        of_line = _tidied(text[block.span.start : start].partition("__")[0].partition("..")[0])
        label = f"{of_line}: {label}" if of_line else label
    return "" if _is_contents(label, passages) else label


def _is_contents(label: str, passages: Passages) -> bool:
    """True for a line of a list of contents, whose dots led to a page: it names a section."""
    words = _words(label)
    return len(label) > len("Term") and any(_words(name).endswith(words) for name in passages.long_section_names)


def _words(text: str) -> str:
    return " ".join(re.findall(r"\w+", text.lower()))


def _tidied(words: str) -> str:
    """Words that lead to a gap as a label: without what only joins them to it, and cut at the front where they are long."""
    words = on_one_line(words)
    words = TRAILING.sub("", words).strip()
    if len(words) > LONGEST:
        words = words[-LONGEST:].partition(" ")[2]
    while (m := LEADING.match(words)) is not None and m.end() < len(words):
        words = words[m.end() :]
    return words[:1].upper() + words[1:] if re.search(r"[A-Za-z]{3}", words) else ""
