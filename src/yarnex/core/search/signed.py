"""Has it been signed: the places for signatures that a paper holds, filled or left blank.

In: a question such as "has the buyer signed?". Out: a finding, `blank` where a line for it is empty, yes where all asked about
are filled with a conformed signature ("/s/"); None where no place tells.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.question import Question
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.passages import BLANK
from yarnex.core.values import DateValue, Party, YesNo, find_dates, find_organisations
from yarnex.core.values.parties import is_organisation
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry

# "Has the buyer signed?", "did they sign it?"; not "is there any sign of damp?"
SIGNS = pattern(
    r"\A(?:and\s+|but\s+)?(?:has|have|had|is|are|was|were|did|do|does)\b.*\b(?:(?:counter-?)?signed|executed|(?<!\ba\s)(?<!\bno\s)(?<!\bany\s)(?<!\bthe\s)(?<!\bgood\s)(?<!\bbad\s)sign)\b",
    re.IGNORECASE,
)
# "Has the offer been accepted?" asks for a signature, "has liability been accepted?" does not.
ACCEPTS = pattern(
    r"\A(?:and\s+|but\s+)?(?:has|have|had|was|were|did)\b(?!.*\b(?:liability|claims?|invoices?|bills?|goods|lots?|delivery|works?|tenders?|bids?|risks?|loss|blame)\b).*\b(?:accepted|acknowledged)(?:\s+(?:it|this|(?:the\s+)?(?:offer|terms|letter|agreement)))?\W*\Z",
    re.IGNORECASE,
)
# What leads to a line for a signature, on the same line before it.
LEADS = pattern(
    r"\b(?:signed|signature|agreed|accepted|acknowledged|approved|executed|countersigned)\b[^.;\n]{0,60}\Z"
    r"|(?:\A|\s)by:?\s*\Z|\A\s*for\s+(?:and\s+on\s+behalf\s+of\s+)?[^.;\n]{2,60}\Z",
    re.IGNORECASE,
)
FOR_WHOM = pattern(r"\b(?:[Ff]or|FOR|behalf\s+of)\s+(?:the\s+)?[A-Z]")  # the line itself says whose it is
OTHER = pattern(r"\b(?:date[d]?|name|title|position|address|place|witness(?:ed)?|amount|no)\W*\Z", re.IGNORECASE)
CONFORMED = pattern(r"(?:/s/\s*|\b[Ss]igned\)?:?\s+(?:by\s+)?)(?P<who>[A-Z][\w.’'-]*(?:\s+[A-Z][\w.’'-]*){0,3})")
# "On what date did the buyer sign?", "when was it countersigned by the tenant?"
SIGNED_WHEN = pattern(
    r"\A(?:and\s+)?(?:when|(?:on\s+|by\s+)?(?:what|which)\s+(?:day|date))\b.*\b(?:(?:counter-?)?sign(?:ed)?|accept(?:ed)?|execut(?:e|ed))\b(?!\s+(?:cop(?:y|ies)|version|original|page))",
    re.IGNORECASE,
)
COUNTERSIGNED = pattern(r"\bcounter-?sign", re.IGNORECASE)
ACCEPTED = pattern(r"\baccept(?:s|ed)?\b", re.IGNORECASE)
DAY_LINE = pattern(r"\b(?:Dated?|DATED?|Date\s+signed|Signed\s+on)\s*:?[ \t]+(?P<day>[^\n\t;]{0,40})")
DAY_BEHIND = 140  # characters behind a signature in which its day stands
A_PERSON = pattern(r"\b(?:he|she)\b", re.IGNORECASE)
NEAR = 220  # characters around a place in which the party that it is for is named
SURE = 0.9


@dataclass(frozen=True, slots=True)
class Place:
    """span: the line. filled: whether a signature stands there. around: the words that tell whose it is."""

    span: Span
    filled: bool
    around: str


def signed_or_not(inquiry: Inquiry, question: Question) -> Finding | None:
    """What the places for signatures say to the question."""
    if question.kinds != ("yes_no",) or not (SIGNS.search(question.text) or ACCEPTS.search(question.text)):
        return None
    places = _of_those_asked(inquiry, question)[0]
    if not places:
        return None
    document, term = inquiry.document, Term("answer", question.text, "", "yes_no")
    cites = tuple(Cite(document, p.span) for p in places)
    empty = [c for c, p in zip(cites, places, strict=True) if not p.filled]
    why = ("the places for signatures",)
    if empty:
        return Finding(document, term, "blank", None, "", SURE, tuple(empty), why=why)
    words = on_one_line(places[0].span.of(document.text))
    return Finding(document, term, "stated", YesNo(True), words, SURE, cites, why=why)


def when_signed(inquiry: Inquiry, question: Question) -> Finding | None:
    """The day beside the signature of one whom a question names, "on what date did the buyer sign?", `blank` where its place is
    empty; None where no such place tells, or nobody is named.
    """
    if question.kinds[0] != "date" or not SIGNED_WHEN.search(question.text):
        return None
    places, named = _of_those_asked(inquiry, question)
    if not named and COUNTERSIGNED.search(question.text):
        places = places[-1:]  # that of whoever signs last
    elif not named:
        return None
    document, text = inquiry.document, inquiry.document.text
    term, why = Term("answer", question.text, "", "date"), ("the day beside the signature",)
    others = sorted(p.span.start for p in _places(inquiry))
    if ACCEPTED.search(question.text):
        places = [p for p in places if ACCEPTED.search(p.span.of(text)) or ACCEPTED.search(p.around)]
    for place in places:
        end = min([place.span.end + DAY_BEHIND, *(o for o in others if o > place.span.start)])
        day = DAY_LINE.search(text, place.span.start, min(end, document.body_end))
        if day is None:
            continue
        if BLANK.search(day["day"]) or not day["day"].strip():
            return Finding(document, term, "blank", None, "", SURE, (Cite(document, Span(*day.span())),), why=why)
        for found in find_dates(day["day"]):
            if isinstance(found.value, DateValue):
                cite = Cite(document, Span(*day.span()))
                return Finding(document, term, "stated", found.value, found.span.of(day["day"]), SURE, (cite,), why=why)
    return None


def _of_those_asked(inquiry: Inquiry, question: Question) -> tuple[list[Place], set[str]]:
    """The places for the signatures of those whom a question names, and their names; all places where it names nobody."""
    places = list(_places(inquiry))
    found = find_organisations(inquiry.document.text[: inquiry.document.body_end])
    names = {f.value.name for f in found if " of the " not in f.value.name.lower()}  # "Minutes of the Committee of ..."
    asked = frozenset(stems_of(question.text))
    roles = {role: name for role, name in inquiry.values.roles.items() if asked.issuperset(stems_of(role))}
    named = {n for n in names if asked & set(stems_of(n)[:1])} | {*roles.values()}
    if not named:
        roles = _by_the_sheet(inquiry, question)
        named = {*roles.values()}
    if named:
        called = {*map(_first, named), *(role.lower() for role in roles)}
        own = [p for p in places if any(n in p.around.lower() for n in called)]
        others = {_first(n) for n in names - named} - {_first(n) for n in named}
        places = [p for p in own if not any(o in p.around.lower() for o in others)] or own
    return places, named


def _by_the_sheet(inquiry: Inquiry, question: Question) -> dict[str, str]:
    """Those whom a question calls by what the sheet calls a party, "the tenant", or by "he" or "she"."""
    asked = frozenset(stems_of(question.text))
    terms = [t for t in inquiry.sheet.terms if t.type == "party" and asked.issuperset(stems_of(t.label))]
    filled = inquiry.fill(terms) if terms else []
    out = {f.term.label: f.value.name for f in filled if f.found and isinstance(f.value, Party)}
    if not out and A_PERSON.search(question.text):
        out = {role: name for role, name in inquiry.values.roles.items() if not is_organisation(name)}
    return out


def _first(name: str) -> str:
    """The first two words of a name, which the others of the same paper do not share."""
    return " ".join(re.findall(r"[^\W_]+", name.lower())[:2])


def _places(inquiry: Inquiry) -> Iterator[Place]:
    """Lines for signatures: those led up to by "signed", "by" and the like, and conformed signatures."""
    document = inquiry.document
    for block in document.blocks:
        if block.kind in ("furniture", "note"):
            continue
        cells = [c.span for c in document.tables[block.table].cells] if block.kind == "table" else [block.span]
        for span in (piece for cell in cells for piece in _pieces(inquiry, cell)):
            words = span.of(document.text)
            filled = CONFORMED.search(words)
            empty = next(
                (
                    m
                    for m in BLANK.finditer(words)
                    if (lead := _led_by(inquiry, span, words[: m.start()])) and not OTHER.search(lead)
                ),
                None,
            )
            found = filled or empty
            if found is None:
                continue
            begin = span.start if len(words) < NEAR else span.start + found.start()
            end = span.end if len(words) < NEAR else span.start + found.end()
            yield Place(Span(begin, end), filled is not None, _around(inquiry, span))


SIGNED_EACH = pattern(r"\b(?:(?:Counter)?[Ss]igned|Accepted|Agreed)\b(?=[^.;\n]{0,60}(?::|_{3}))")


def _pieces(inquiry: Inquiry, span: Span) -> list[Span]:
    """A line for signatures, or where there are several on one, each: "Signed: A. Venn   Countersigned: ______"."""
    starts = [span.start + m.start() for m in SIGNED_EACH.finditer(span.of(inquiry.document.text))]
    if len(starts) < 2 or span.end - span.start > 2 * NEAR:
        return [span]
    ends = [*starts[1:], span.end]
    return [Span(a, b) for a, b in zip([span.start, *starts[1:]], ends, strict=True)]


def _led_by(inquiry: Inquiry, span: Span, before: str) -> str:
    """The words that lead to a blank, where they lead to a signature; "" where they do not."""
    line = before.rsplit("\n", 1)[-1]
    if not line.strip():
        found = inquiry.document.cell_at(span)
        if found is not None and found[1].column:
            beside = found[0].at(found[1].row, found[1].column - 1)
            line = beside.span.of(inquiry.document.text) if beside is not None else ""
    return line if LEADS.search(line) else ""


def _around(inquiry: Inquiry, span: Span) -> str:
    """The words of the same column of a table, or of the paragraphs before and behind."""
    document = inquiry.document
    found = document.cell_at(span)
    if found is not None:
        table, cell = found
        cells = [c for r in range(table.rows) for c in table.row_cells(r)]
        told = [c for c in cells if c.column == cell.column or (c.row == cell.row and c.column == cell.column - 1)]
        return "\n".join(c.span.of(document.text) for c in told)
    own = span.of(document.text)
    return own if FOR_WHOM.search(own) else document.text[max(0, span.start - NEAR) : span.end + NEAR // 2]
