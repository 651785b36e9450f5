"""Parties and persons that answer a question for somebody: by their role, by what is said beside their names, by their signature."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.from_lists import Offer
from yarnex.core.values import Party
from yarnex.core.words import stems_of

if TYPE_CHECKING:
    from yarnex.core.search.inquiry import Inquiry
    from yarnex.core.search.question import Question
    from yarnex.core.search.roster_model import RosterItem


def of_parties(inquiry: Inquiry, question: Question) -> Iterator[Offer]:
    """The parties whose role is asked for, else the persons beside whose names stands what is; and those who sign."""
    by_role = list(_of_roles(inquiry, question))
    yield from by_role or _of_people(inquiry, question)
    yield from _of_signatories(inquiry, question)


def _of_signatories(inquiry: Inquiry, question: Question) -> Iterator[Offer]:
    """Those who sign, where a question asks who does, and for whom."""
    if not any(way == ("sign",) for idea in question.ideas for way, _ in idea.ways[:1]):
        return
    from yarnex.core.terms.signatures import signatories_of  # its patterns are made for these questions alone

    names = {stems_of(party.role): stems_of(party.name) for party, _, _ in inquiry.passages.roles}
    for one in signatories_of(inquiry.document):
        said = frozenset((*stems_of(f"sign signature {one.party} {one.post}"),))
        called = [pair for pair in names.items() if any(map(said.issuperset, pair))]  # by role or by name
        said |= {w for pair in called for words in pair for w in words}
        covered = [
            max((worth for way, worth in idea.ways if said.issuperset(way)), default=0.0) for idea in question.ideas
        ]
        alike = sum(covered) / max(1, len(covered))
        if alike >= 0.5:
            yield Offer("party", Party(one.name), one.name, (one.cite,), alike, "the name in the block of signatures")


def _of_roles(inquiry: Inquiry, question: Question) -> Iterator[Offer]:
    """The parties whose role is what is asked for and all that is: "who is being sued?" of the Defendant."""
    own = [i for i in question.ideas if not i.carried] if WHO_IT_IS.match(question.text) else []
    for party, span, quote in inquiry.passages.roles if own else ():
        role = frozenset(stems_of(party.role))
        alike = min(max((worth for way, worth in idea.ways if role.issuperset(way)), default=0.0) for idea in own)
        if alike >= HAS_THE_ROLE:
            cite = Cite(inquiry.document, quote if quote.start <= span.start < quote.end else span)
            yield Offer("party", Party(party.name), party.name, (cite,), alike, f"the party called {party.role}")


WHO_IT_IS = pattern(r"(?:and\s+|but\s+)?who\s+(?:is|are|was|were)\b", re.IGNORECASE)
HAS_THE_ROLE = 0.7  # how surely a question must name a party's role


def _said_of(inquiry: Inquiry, person: RosterItem, cite: Cite, sentence: Span) -> str:
    """The words of a sentence that may be of a person: those between the names of others, "Ann Lee (secretary), Bo Orr of Tarn
    Actuaries", and without what closes behind the name before.
    """
    text = inquiry.document.text
    at = text.find(person.text, cite.span.start, sentence.end)
    if at < 0:
        return sentence.of(text)
    others = [
        Span(place, place + len(other.text))
        for other in inquiry.people
        if other is not person and (place := text.find(other.text, sentence.start, sentence.end)) >= 0
    ]
    start = max((o.end for o in others if o.end <= at), default=sentence.start)
    end = min((o.start for o in others if o.start > at), default=sentence.end)
    closed = max(text.rfind(")", start, at), text.rfind(";", start, at))
    return text[max(start, closed + 1) : end]


OF_ANOTHER = 0.9  # what a sentence says as surely of another person counts for one


def _share_named(question: Question, words: str) -> float:
    """The share of what a question asks for that some words name."""
    stems = frozenset(stems_of(words))
    covered = [max((worth for way, worth in i.ways if stems.issuperset(way)), default=0.0) for i in question.ideas]
    return sum(covered) / max(1, len(covered))


def _of_people(inquiry: Inquiry, question: Question) -> Iterator[Offer]:
    """The persons beside whose names, or in whose role, stands what is asked for."""
    asks_who = WHO_IT_IS.match(question.text) is not None
    for person in inquiry.people:
        for cite in person.cites[:4]:
            sentence = inquiry.passages.sentence_at(cite.span.start)
            near = sentence.span.of(inquiry.document.text) if sentence is not None else cite.quote
            alike = _share_named(question, f"{person.detail} {near}")
            if (
                sentence is not None
                and asks_who
                and _share_named(question, _said_of(inquiry, person, cite, sentence.span)) < alike
            ):
                alike *= OF_ANOTHER
            if alike >= 0.5:
                span = sentence.span if sentence is not None else cite.span
                yield Offer(
                    "party",
                    Party(person.text),
                    person.text,
                    (Cite(inquiry.document, span),),
                    alike,
                    "a person named there",
                )
