"""The finding that is shown for an answer: its value as the document holds it, its words with what they run from, its condition.

In: an `Answer`. Out: a `Finding`; `not_found` with the nearest mentions where nothing answers.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal, InvalidOperation
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.evidence import PER_SO_MANY
from yarnex.core.search.fitting import REASON, WHY
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.patterns import PATTERNS
from yarnex.core.search.question import Question
from yarnex.core.search.weighing import Answer
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.conditions import condition_of, with_its_start
from yarnex.core.terms.ranges import OVER_A_RATE
from yarnex.core.values import DateValue, Duration, Money, Party, Percent, Quantity, YesNo
from yarnex.core.values.numbers import read_digits

if TYPE_CHECKING:
    from yarnex.core.terms.signatures import Signatory

# What may be below nothing; every other sum in brackets is one that the statement takes off.
SIGNED = pattern(
    r"\b(?:net|balance|profit|loss|result|change|movement|surplus|deficit|difference|flow|gain|swing|variance|adjustment|correction)\b",
    re.IGNORECASE,
)
# "The earlier of 60 days after delivery and the day of opening": one of the two alone would be half an answer.
EARLIER_OF = pattern(
    r"\b(?P<of>the\s+(?:earlier|earliest|later|latest|sooner|first\s+to\s+occur)\s+of)\b[^.;]*\Z", re.IGNORECASE
)
ENDS = pattern(r"[.;](?=\s|\Z)")
NEAR_SHOWN = 3


def finding_of(inquiry: Inquiry, question: Question, answer: Answer) -> Finding:
    """The finding that tells an answer: a term's own, or what a line says, with its condition."""
    document = inquiry.document
    term = Term("answer", question.text, "", answer.kind if answer.kind not in PATTERNS else "text")
    confidence = round(max(0.01, min(0.99, answer.score)), 3)
    why = (answer.why,)
    answer = _exact(answer)
    known = answer.finding
    if known is not None and isinstance(known.value, Money) and known.state == "stated":
        reasons = (*known.working, *(w for w in answer.working if w not in known.working))
        known = replace(known, value=_without_sign(question, answer).value, working=reasons)
    if (
        known is not None
        and isinstance(answer.value, YesNo)
        and isinstance(known.value, YesNo)
        and known.value != answer.value
    ):
        known = replace(known, value=answer.value, text=on_one_line(known.cites[0].quote))  # by what the rule excepts
    if known is not None and type(known.value) is type(answer.value):
        kept = Term(known.term.id, known.term.label, known.term.group, known.term.type)
        return Finding(
            document,
            kept,
            known.state,
            known.value,
            known.text,
            confidence,
            known.cites,
            known.working,
            why=why,
        )
    if known is not None:  # a term that is there, or not, decides a yes or no
        state = "stated" if known.state in ("computed", "conflicting") else known.state
        return Finding(document, term, state, answer.value, known.text, confidence, known.cites, known.working, why=why)
    words = _reason_told(inquiry, question, answer) or _with_what_is_counted(answer) or words_told(answer)
    cites: tuple[Cite, ...] = (answer.quote,)
    if (signer := _signer(inquiry, question, answer)) is not None:  # with post and for whom
        words = f"{signer.name}{', ' if signer.post else ''}{signer.post}, for {signer.party}"
        at = document.text.find(signer.party, answer.span.end, answer.span.end + FIRM_BEHIND)
        cites += (Cite(document, Span(at, at + len(signer.party))),) if at >= 0 else ()
    answer = _without_sign(question, answer)
    working = list(answer.working)
    condition = (
        condition_of(inquiry.passages, answer.span) if answer.kind not in ("text", "list", "yes_no", *PATTERNS) else ""
    )
    if condition and condition not in words:
        working.append(f"with the condition “{condition}”")
    return Finding(
        document, term, "stated", answer.value, on_one_line(words), confidence, cites, tuple(working), why=why
    )


# What a bare number counts, "ten units a week", and of how many it is one, "one claim in twenty".
_no_thing = r"(?:of|in|on|at|to|by|for|and|or|nor|is|are|was|were|be|may|can|shall|will|must|from|with|without|as|than|but|which|that|who|has|have|had|if|when|where|per|an?|the|it|he|she|they|we|you|more|less|not|after|before|during|until|since|over|under|up|down|out|each|every|so|then|only|both|means|says|shows|suggests|gives|makes|needs|does|plus|this|its|his|hers|theirs|ours|always|perhaps)\b"
COUNTED_THING = pattern(
    rf"\s(?:(?!{_no_thing})[a-z][a-z-]+\s){{0,2}}(?!{_no_thing})(?:[a-z][a-z-]*[a-rt-z]s|people|staff|children|men|women)\b(?:\s(?:an?|per|each|every)\s[a-z]+)?"
)
ONE_IN = pattern(r"\bone\s+(?:[a-z]+\s+)?in\s+\Z", re.IGNORECASE)


def _with_what_is_counted(answer: Answer) -> str:
    """A bare number in running text with the word for what it counts; "" for anything else."""
    value, document, at = answer.value, answer.quote.document, answer.span
    if not isinstance(value, Quantity) or value.unit is not None or document.cell_at(at) is not None:
        return ""
    thing = COUNTED_THING.match(document.text, at.end, answer.quote.span.end)
    share = ONE_IN.search(document.text, answer.quote.span.start, at.start)
    if thing is None and share is None:
        return ""
    return document.text[
        share.start() if share is not None else at.start : thing.end() if thing is not None else at.end
    ]


WROTE = pattern(r"\bwho(?:se)?\b.*\b(?:wrote|written|sent|sends|signed|signs|from)\b|\bfrom\s+whom\b", re.IGNORECASE)


def _reason_told(inquiry: Inquiry, question: Question, answer: Answer) -> str:
    """The whole sentence where a reason is asked for and the words taken out of it leave the reason behind; else ""."""
    if answer.kind != "text" or not WHY.search(question.text) or REASON.search(answer.span.of(inquiry.passages.text)):
        return ""
    sentence = inquiry.passages.sentence_at(answer.span.start)
    words = sentence.span.of(inquiry.passages.text) if sentence is not None else ""
    return words if REASON.search(words) else ""


FIRM_BEHIND = 200  # characters behind a signature in which the firm for which it is given is named


def _signer(inquiry: Inquiry, question: Question, answer: Answer) -> Signatory | None:
    """The signatory whose name an answer is, where a question asks who wrote or signed and it is said for whom."""
    if not isinstance(answer.value, Party) or not WROTE.search(question.text):
        return None
    from yarnex.core.terms.signatures import signatories_of  # its patterns are made for these questions alone

    return next((s for s in signatories_of(inquiry.document) if s.name == answer.value.name and s.party), None)


def _exact(answer: Answer) -> Answer:
    """A sum that a cell of a workbook shows rounded, as the cell holds it, with that as its working."""
    document, value = answer.quote.document, answer.value
    if not isinstance(value, Money) or document.paging != "sheet":
        return answer
    words = answer.finding.text if answer.finding is not None else answer.span.of(document.text)
    at = document.text.find(words, answer.span.start, answer.span.end) if words else -1
    held = document.mark_at("stored", at) if at >= 0 else None
    shown = read_digits(re.sub(r"[^\d.,]", "", words), money=True)
    if held is None or not shown:
        return answer
    try:
        stored = abs(Decimal(held.value))
    except InvalidOperation:
        return answer
    digits = shown.as_tuple().exponent
    if not stored or abs(stored - shown) * 2 > Decimal(1).scaleb(int(digits)):
        return answer
    exact = replace(value, amount=(value.amount * stored / shown).quantize(Decimal("0.01")).normalize())
    return replace(answer, value=exact, working=(*answer.working, f"shown as {words}; the cell holds {held.value}"))


def words_told(answer: Answer) -> str:
    """The words that answer; those of a length of time with what it runs from, without which it says too little."""
    text = answer.quote.document.text
    span = answer.span
    either = EARLIER_OF.search(text, max(answer.quote.span.start, span.start - 160), span.start)
    if isinstance(answer.value, Duration | DateValue) and either is not None:  # with what else it hangs on
        end = ENDS.search(text, span.end, answer.quote.span.end)
        return text[either.start("of") : end.start() if end else answer.quote.span.end].rstrip(" .;")
    if isinstance(answer.value, Duration):
        span = with_its_start(text, span, answer.quote.span.start)
    if isinstance(answer.value, Percent) and (over := OVER_A_RATE.match(text, span.end, answer.quote.span.end)):
        span = Span(span.start, over.end())  # a margin alone says too little
    if isinstance(answer.value, Quantity) and (per := PER_SO_MANY.match(text, span.end)):
        span = Span(span.start, per.end())
    return span.of(text)


def _without_sign(question: Question, answer: Answer) -> Answer:
    """A sum that is printed in brackets because it is taken off, asked for as what it is: "what was paid?"."""
    value = answer.value
    if isinstance(value, Money) and value.amount is not None and value.amount < 0 and not SIGNED.search(question.text):
        return replace(answer, value=replace(value, amount=-value.amount))
    return answer


def none_of(inquiry: Inquiry, question: Question, why: str, answers: Sequence[Answer] = ()) -> Finding:
    """A `not_found` with the nearest mentions among answers that are not likely enough. why: in a few words."""
    term = Term("answer", question.text, "", "text")
    near: list[Cite] = []
    for answer in answers:
        if len(near) < NEAR_SHOWN and all(not answer.quote.span.overlaps(c.span) for c in near):
            near.append(answer.quote)
    return Finding(inquiry.document, term, "not_found", near=tuple(near), why=(why,))
