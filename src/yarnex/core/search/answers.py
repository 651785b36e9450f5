"""A question asked of one document: the terms of its sheet and all its lines, weighed against each other.

In: a `Question` and an `Inquiry` (a document made ready to be asked). Out: findings, best first; `not_found` with the
nearest mentions where nothing answers.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from yarnex.core.document import Cite, Document, Span
from yarnex.core.search.question import Question
from yarnex.core.terms import Abstract, Finding, Term, abstract
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.by_words import Hit, Idea, Matcher, matcher_of
from yarnex.core.terms.candidates import cut, list_items, on_one_line, quote_around, shortened
from yarnex.core.terms.conditions import condition_of
from yarnex.core.terms.lines import Line
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import LineValues, of_type
from yarnex.core.values import Found, Text, Value, YesNo, same_value
from yarnex.core.words import stems_of

ENOUGH = 0.5  # an answer under this is none; set on measured cases, see bench/answers.py
NEAR_SHOWN = 3
KIND_STEP = 0.07  # what an answer of the second-likeliest kind loses
TERM_WEIGHT = 1.15  # what the sheets' own terms count for
CLOCK = re.compile(
    r"\b(?:[01]?\d|2[0-3])[.:][0-5]\d\s*(?:[ap]\.?\s?m\.?)?(?!\d)|\b\d{1,2}\s*[ap]\.?\s?m\b\.?|\b(?:noon|midnight)\b"
    r"|\b(?:five|ten|quarter|twenty|twenty-five|half)(?:\s+minutes)?\s+(?:to|past)\s+(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b",
    re.IGNORECASE,
)
NO = re.compile(
    r"\b(?:not|no|never|none|neither|nor|without|unless|cannot|isn['’]t|aren['’]t|wasn['’]t|didn['’]t|don['’]t|doesn['’]t|can['’]t|won['’]t|nothing|nobody|excluded|excludes|prohibited|refused?|unable|waive[sd]?|non-\w+)\b",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Answer:
    """What one source offers: a value (None for words), its place, what to quote, and how well it answers (about 0 to 1)."""

    kind: str
    value: Value | None
    span: Span
    quote: Cite
    score: float
    source: str
    why: str
    finding: Finding | None = None
    working: tuple[str, ...] = ()


class Inquiry:
    """One document, ready to be asked; what is costly is made when first needed."""

    def __init__(self, document: Document) -> None:
        self.document = document

    @cached_property
    def abstract(self) -> Abstract:
        return abstract(self.document, sheet_for(self.document))

    @cached_property
    def passages(self) -> Passages:
        return self.abstract.passages

    @cached_property
    def matcher(self) -> Matcher:
        return matcher_of(self.passages)

    @cached_property
    def values(self) -> LineValues:
        return LineValues(self.passages)

    @cached_property
    def named(self) -> list[tuple[Finding, tuple[frozenset[str], ...]]]:
        """Findings with the stems of their label and of each other way in which people ask for them."""
        out = []
        for finding in self.abstract.findings:
            ways = [
                frozenset(stems_of(w))
                for w in (finding.term.label, *finding.term.asked, finding.term.id.replace("_", " "))
            ]
            out.append((finding, tuple(w for w in dict.fromkeys(ways) if w)))
        return out


def ask(inquiry: Inquiry, question: Question) -> list[Finding]:
    """Findings that answer, best first; the last resort is one `not_found`."""
    if question.outside:
        return [_none(inquiry, question, "this asks about the world, not about the documents")]
    answers = _merged([*from_terms(inquiry, question), *from_lines(inquiry, question)])
    if not answers or answers[0].score < ENOUGH:
        return [_none(inquiry, question, "no passage answers it", answers)]
    return [_finding(inquiry, question, a) for a in answers[:8] if a is answers[0] or a.score >= ENOUGH]


# ------------------------------------------------------------------ sources
def from_terms(inquiry: Inquiry, question: Question) -> list[Answer]:
    """Filled terms of the document's sheet whose label or other names are what is asked for."""
    out = []
    total = sum(inquiry.matcher._weight(i) for i in question.ideas) or 1.0
    for finding, ways in inquiry.named:
        if finding.state == "not_found":
            continue
        best = max((_alike(inquiry, question.ideas, way, total) for way in ways), default=0.0)
        if best < 0.45:
            continue
        kind = of_type(finding.value) if finding.value is not None else finding.term.type
        step = _step(question, kind if finding.state not in ("blank", "redacted") else question.kinds[0])
        if step is None:
            continue
        span = finding.cites[0].span
        score = best * min(1.0, finding.confidence + 0.05) * TERM_WEIGHT - step
        out.append(
            Answer(
                kind, finding.value, span, finding.cites[0], score, "term", f"the term {finding.term.label!r}", finding
            )
        )
    return out


def _alike(inquiry: Inquiry, ideas: Sequence[Idea], label: frozenset[str], total: float) -> float:
    """How far the ideas of a question and the words of a label are the same: both shares, the lesser counting more."""
    used: set[str] = set()
    covered = 0.0
    for idea in ideas:
        best = 0.0
        for way, worth in idea.ways:
            if label.issuperset(way):
                used.update(way)
                best = max(best, worth)
        covered += inquiry.matcher._weight(idea) * best
    asked, named = covered / total, len(used) / len(label)
    return 0.6 * min(asked, named) + 0.4 * max(asked, named) if used else 0.0


def from_lines(inquiry: Inquiry, question: Question) -> list[Answer]:
    """Values and passages in the lines that say what is asked for."""
    out: list[Answer] = []
    for kind in question.kinds:
        step = _step(question, kind)
        if step is None:
            continue
        finder = _clock(inquiry) if kind == "time" else inquiry.values.finder(kind)
        for hit in inquiry.matcher.ranked(question.ideas, finder, limit=6):
            made = _answer(inquiry, question, kind, hit, step)
            if made is not None:
                out.append(made)
    return out


def _clock(inquiry: Inquiry):  # type: ignore[no-untyped-def]
    def times(line: Line) -> list[Found[Value]]:
        text = inquiry.passages.text
        return [
            Found(Text(on_one_line(m.group())), Span(m.start(), m.end()))
            for m in CLOCK.finditer(text, line.values.start, line.values.end)
        ]

    return times


def _step(question: Question, kind: str) -> float | None:
    """What an answer of this kind loses for not being of the likeliest one; None where it is none of those wanted."""
    if kind in question.kinds:
        return KIND_STEP * question.kinds.index(kind)
    if kind in ("text", "list", "schedule") and {"text", "list"} & set(question.kinds):
        return KIND_STEP
    if question.kinds == ("yes_no",) and kind == "text":
        return 2 * KIND_STEP
    return None if question.sure else 4 * KIND_STEP


def _answer(inquiry: Inquiry, question: Question, kind: str, hit: Hit, step: float) -> Answer | None:
    passages = inquiry.passages
    missing = 0.05 * len(hit.missing)
    if hit.found is not None:
        quote = quote_around(passages, hit.found.span)
        working = (hit.found.reading,) if hit.found.reading else ()
        return Answer(
            kind,
            hit.found.value,
            hit.found.span,
            quote,
            hit.score - step - missing,
            "lines",
            "the words stand by it",
            None,
            working,
        )
    line = hit.line
    score = hit.score - step - missing - 0.05
    if kind == "yes_no":
        value, at = _yes_or_no(passages, line, question)
        return Answer(
            kind,
            value,
            at,
            Cite(passages.document, cut(passages.text, line.span, at)),
            score,
            "lines",
            "these words decide it",
        )
    if kind == "list":
        term = Term("asked", "asked", "", "list")
        items = list_items(term, passages, line.values)
        if items is None:
            return None
        return Answer(kind, items[0], items[1], quote_around(passages, items[1]), score, "lines", "what stands there")
    piece = shortened(passages.text, line.values)
    return Answer(
        "text",
        Text(on_one_line(piece.of(passages.text))),
        piece,
        Cite(passages.document, cut(passages.text, line.span, piece)),
        score,
        "lines",
        "the passage says it",
    )


def _yes_or_no(passages: Passages, line: Line, question: Question) -> tuple[YesNo, Span]:
    """Yes, unless the clause that answers denies it, or the question does."""
    words = line.values.of(passages.text)
    places = [p for idea in question.ideas for way, _ in idea.ways for w in way for p in line.own.get(w, ())]
    middle = sum(places) // len(places) if places else line.values.start
    start = max(line.values.start, middle - 120)
    near = passages.text[start : min(line.values.end, middle + 120)]
    denied = len(NO.findall(near)) % 2 == 1
    asked_no = bool(NO.search(question.text))
    del words
    return YesNo(denied is asked_no), line.values


# ------------------------------------------------------------------ the answer
def _merged(answers: list[Answer]) -> list[Answer]:
    """Best first; answers that say the same in the same place are one, and gain by each other."""
    out: list[Answer] = []
    for answer in sorted(answers, key=lambda a: (-round(a.score, 4), a.span.start, a.source)):
        same = next((i for i, o in enumerate(out) if _same(o, answer)), None)
        if same is None:
            out.append(answer)
        elif out[same].source != answer.source:
            kept = out[same] if out[same].finding is not None or answer.finding is None else answer
            score = max(out[same].score, answer.score) + 0.08
            out[same] = Answer(
                kept.kind, kept.value, kept.span, kept.quote, score, kept.source, kept.why, kept.finding, kept.working
            )
    return sorted(out, key=lambda a: (-round(a.score, 4), a.span.start))


def _same(one: Answer, other: Answer) -> bool:
    if not one.quote.span.overlaps(other.quote.span):
        return False
    if one.kind == other.kind == "text":
        return True
    return (
        one.kind == other.kind
        and one.value is not None
        and other.value is not None
        and same_value(one.value, other.value)
    )


def _finding(inquiry: Inquiry, question: Question, answer: Answer) -> Finding:
    document = inquiry.document
    term = Term("answer", question.text, "", answer.kind if answer.kind != "time" else "text")
    confidence = round(max(0.05, min(0.95, 0.25 + 0.6 * answer.score)), 3)
    why = (f"{answer.source}: {answer.why}",)
    known = answer.finding
    if known is not None:
        kept = Term(known.term.id, known.term.label, known.term.group, known.term.type)
        return Finding(
            document, kept, known.state, known.value, known.text, confidence, known.cites, known.working, why=why
        )
    words = answer.span.of(inquiry.passages.text)
    working = list(answer.working)
    condition = (
        condition_of(inquiry.passages, answer.span) if answer.kind not in ("text", "list", "yes_no", "time") else ""
    )
    if condition and condition not in words:
        working.append(f"with the condition “{condition}”")
    return Finding(
        document, term, "stated", answer.value, on_one_line(words), confidence, (answer.quote,), tuple(working), why=why
    )


def _none(inquiry: Inquiry, question: Question, why: str, answers: Sequence[Answer] = ()) -> Finding:
    term = Term("answer", question.text, "", "text")
    near = tuple(dict.fromkeys(a.quote for a in answers[:NEAR_SHOWN]))
    return Finding(inquiry.document, term, "not_found", near=near, why=(why,))
