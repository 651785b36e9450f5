"""People that a document names, each once, with role and contact where told beside the name.

In: a document. Out: roster items. A person is told by a title ("Dr A. Rowan"), by a role behind the name ("Ann Rowan, site
manager"), by a label before it ("Written by: Ann Rowan"), or by a transcript's or mail's own marks; a bare pair of capital
words is not enough.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from yarnex.core.document import Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.roster_model import RosterItem
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.words import stems_of

PERSON_WORDS = frozenset(stems_of("people person witness individual staff name contact"))
_name = r"(?:[A-Z][’'])?[A-Z][a-zà-öø-ÿ]+(?:[’'-][A-Z]?[a-zà-öø-ÿ]+)*"
_initials = r"(?:[A-Z]\.[ -]?){1,3}"
_particle = r"(?:(?:de|van|von|der|den|la|le|du|da|di|bin|al|ter)\s+){0,2}"
_title = r"(?:Mr|Mrs|Ms|Miss|Mx|Dr|Prof|Professor|Sir|Dame|Lady|Lord|Rev|Reverend|Judge|Captain|Sergeant)\.?"
TITLED = pattern(rf"\b(?P<title>{_title})[ ]+(?P<name>(?:{_initials}[ ]?|{_name}[ ]+){{0,3}}{_particle}{_name})")
_full = rf"(?:{_initials}[ ]?|{_name}[ ]+(?:[A-Z]\.[ ]+)?(?:{_name}[ ]+)?){_particle}{_name}"
_role = (
    r"[a-z -]{0,40}\b(?:manager|director|officer|engineer|supervisor|foreman|technician|clerk|secretary|treasurer|chair(?:man|woman|person)?|accountant|auditor|"
    r"solicitor|lawyer|attorney|surveyor|architect|assessor|adjuster|inspector|nurse|doctor|physician|surgeon|therapist|driver|operator|guard|assistant|solicitor|editor|producer|teacher|principal|dean|professor|counsel|barrister|valuer|broker|planner|designer|developer|buyer|seller|landlord|employee|researcher|scientist|chemist|veterinarian|surgeon|handler|analyst|"
    r"consultant|conservator|plumber|electrician|tenant|owner|witness|administrator|coordinator|executive|partner|buyer|broker|agent|caretaker|registrar|president|trustee|head\s+of[a-z ]{2,30})\b"
)
WITH_ROLE = pattern(
    rf"(?<![\w’'-])(?P<name>{_full})\s*(?:,\s*|\s+[–-]\s+|\s*\()(?P<role>(?i:(?:the|our|its|an?)\s+)?(?i:{_role}))"
)
_done = r"\b(?:[Ww]ritten|[Pp]repared|[Ss]igned|[Rr]eported|[Dd]iscovered|[Aa]ttended|[Aa]pproved|[Ii]nspected|[Cc]hecked|[Ii]ssued|[Rr]eviewed|[Cc]ompleted|[Tt]aken)\s+by"
LABEL = pattern(
    rf"(?:\bName|{_done}|\b(?:Witness|Author|Contact|Attention|Attn|Supervisor|Driver|Interviewer|Interviewee))\s*[:\t]\s*(?P<name>{_full})"
)
DONE_BY = pattern(rf"{_done}\s+(?P<name>{_full})(?!\s+[A-Z&])")
OPENERS = pattern(
    r"\A(?:(?:Later|Then|When|After|Before|Today|Yesterday|Here|There|And|But|Also|While|As|If|Both|Our|Their|His|Her)\s+)+"
)
NOT_NAMES = pattern(
    r"\b(?:Ltd|Limited|Inc|LLC|LLP|GmbH|plc|Company|Trust|Association|Bank|Council|Department|Street|Road|Lane|Museum|House|Report|Store|Room|Board|Group|Services?|The|This|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|January|February|March|April|May|June|July|August|September|October|November|December|Manager|Director|Officer|Insurer|Chair|Facilities|Collections|Managing|Chief|General|Senior)\b"
)


@dataclass
class _Person:
    name: str
    title: str
    role: str
    spans: list[Span] = field(default_factory=list)


def people_of(document: Document) -> list[RosterItem]:
    """Everyone named, in the order in which the document first names them."""
    people: list[_Person] = []
    for start, end, name, title, role in sorted(_found(document)):
        known = next((p for p in people if _same(p, name)), None)
        if known is None:
            people.append(_Person(name, title, role, [Span(start, end)]))
            continue
        if len(name) > len(known.name):
            known.name = name
        known.title, known.role = known.title or title, known.role or role
        known.spans.append(Span(start, end))
    return [
        RosterItem(f"{p.title} {p.name}".strip(), tuple(Cite(document, s) for s in p.spans[:6]), "", p.role)
        for p in people
    ]


def _found(document: Document) -> Iterator[tuple[int, int, str, str, str]]:
    text = document.text
    defined = set(re.findall(r"[“\"]([A-Z][^”\"\n]{2,40})[”\"]", text))
    for mark in document.marks:
        if mark.kind == "speaker" and mark.value and " " in mark.value:
            yield (
                mark.span.start,
                mark.span.end,
                on_one_line(mark.value).title() if mark.value.isupper() else on_one_line(mark.value),
                "",
                "",
            )
    for form in (TITLED, WITH_ROLE, LABEL, DONE_BY):
        for m in form.finditer(text):
            groups = m.groupdict()
            name = on_one_line(groups["name"])
            name = re.sub(r"[’']s\Z", "", name)
            name = OPENERS.sub("", name)
            if form is not TITLED and re.match(rf"{_title}\s", name):
                continue  # found by its title already
            if NOT_NAMES.search(name) or (" " not in name and form is not TITLED):
                continue
            if form is not TITLED and (_is_thing(text, m.start("name"), name) or name in defined):
                continue
            role = on_one_line(groups.get("role") or "")
            if form is TITLED:
                before = re.search(
                    r"(?:\A|[\n\t.;])\s*(?P<role>[A-Z][A-Za-z ]{3,40}),\s*\Z", text[max(0, m.start() - 60) : m.start()]
                )
                behind = re.match(
                    rf"\s*[,(]\s*(?P<role>(?i:(?:the|our|its|an?)\s+)?(?i:{_role}))", text[m.end() : m.end() + 80]
                )
                role = on_one_line((before or behind)["role"]) if before or behind else ""  # type: ignore[index]
            yield m.start("name"), m.end("name"), name, on_one_line(groups.get("title") or "").rstrip("."), role


def _is_thing(text: str, start: int, name: str) -> bool:
    """True for a name with "the" before it, and for one whose last word the document also writes small."""
    before = re.search(r"\b(?:the|a|an|any|each|such|said)\s+\Z", text[max(0, start - 8) : start], re.IGNORECASE)
    return before is not None or re.search(rf"\b{re.escape(name.split()[-1].lower())}\b", text) is not None


def _same(person: _Person, name: str) -> bool:
    """True where two names may be one person's: one surname, and given names or initials that do not differ."""
    one, other = person.name.split(), name.split()
    if one[-1].lower() != other[-1].lower():
        return False
    if len(one) == 1 or len(other) == 1:
        return True
    first, second = one[0].rstrip("."), other[0].rstrip(".")
    short = min(len(first), len(second))
    return first[:short].lower() == second[:short].lower() if short == 1 else first.lower() == second.lower()
