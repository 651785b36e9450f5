"""Who a duty binds: roles, names, "you" and "we", the lead-in or heading over an item, the passive's "by"."""

from __future__ import annotations

import re
from collections import Counter
from functools import cached_property

from yarnex.core.dates.wording import ROLES
from yarnex.core.document import Block, Document
from yarnex.core.duties.kinds import duty_vocabulary
from yarnex.core.patterns import pattern
from yarnex.core.terms.identity import identify
from yarnex.core.terms.passages import Passages
from yarnex.core.values import find_organisations

MUTUAL = pattern(
    r"\b(?:each\s+party|both\s+parties|the\s+parties|either\s+party|neither\s+party|each\s+of\s+the\s+parties|the\s+other\s+party)\b",
    re.IGNORECASE,
)
REPORTS = ("annual_report", "half_year_report", "interim_report", "quarterly_report")
ONE_PARTY = pattern(r"\b(?:the|a|any|every)\s+(?:\w+\s+)?party(?:\s+(?!to\b)\w+){0,12}\s*\Z", re.IGNORECASE)
PAPER = pattern(
    r"\b(?:report|record|statement|invoice|form|minutes|letter|schedule|page|draft|confidential|agreement|notes?|memo\w*|policy|summary|log|assessment|review|survey|claim|from|to|date|dear|subject)\b|[:\t|]|\d",
    re.IGNORECASE,
)
PRONOUN = pattern(r"\b(?P<you>you)\b|\b(?P<we>we)\b", re.IGNORECASE)
LOWER_ROLES = (
    "supplier", "contractor", "bidder", "tenderer", "applicant", "vendor", "proposer", "customer", "purchaser", "buyer", "employee", "employer", "tenant", "landlord", "borrower", "lender",
    "licensee", "licensor", "insurer", "policyholder", "member", "user", "operator", "owner", "manufacturer", "shareholders", "directors", "trustees", "museum", "board", "company", "group",
)  # fmt: skip


class Actors:
    """The parties of one document, and how to tell which of them a sentence binds."""

    def __init__(self, passages: Passages) -> None:
        self.passages = passages
        self.document: Document = passages.document
        self.kind = identify(self.document).kind

    @cached_property
    def names(self) -> dict[str, str]:
        """Role -> the party's name."""
        return {party.role: party.name for party, _, _ in self.passages.roles}

    @cached_property
    def roles(self) -> tuple[str, ...]:
        """Roles that the document writes with a capital, the longest first."""
        used = [
            r
            for r in (*self.names, *ROLES)
            if len(re.findall(rf"\b{re.escape(r)}\b", self.document.text)) >= (1 if r in self.names else 3)
        ]
        short = [
            w
            for name in self.names.values()
            if (w := name.split()[0])
            and len(w) > 3
            and len(re.findall(rf"\b{re.escape(w)}\s+(?:shall|will|may|must)\b", self.document.text)) >= 2
        ]
        return tuple(sorted(dict.fromkeys([*used, *short]), key=len, reverse=True))

    @cached_property
    def _role_form(self) -> re.Pattern[str]:
        upper = (
            "|".join(re.escape(r) + (r"(?:s\b|\b)" if not r.endswith("s") else r"\b") for r in self.roles) or r"(?!)"
        )
        return re.compile(rf"\b(?:{upper})(?!['’]s\b|['’](?=\s))")

    @cached_property
    def _first_words(self) -> frozenset[str]:
        """First words of the organisations that the paper names: it may call them by these alone."""
        return frozenset(f.value.name.split()[0] for f in find_organisations(self.document.text))

    @cached_property
    def _any_form(self) -> re.Pattern[str]:
        upper = "|".join(re.escape(r) for r in self.roles) or r"(?!)"
        return re.compile(rf"\b(?:{upper})\b", re.IGNORECASE)

    @cached_property
    def speakers(self) -> tuple[str, str]:
        """Who "we" and "you" are: by the kind of paper, by a definition, else the sender and the addressee of a letter or mail."""
        known = duty_vocabulary().speakers.get(self.kind)
        if known:
            return known
        properties = dict(self.document.properties)
        sender = properties.get("from", "").partition("<")[0].strip()
        addressee = properties.get("to", "").partition("<")[0].strip()
        served = next(
            (
                name
                for role, name in self.names.items()
                if role in ("Insured", "Policyholder", "Customer", "Client", "Claimant", "Tenant", "Account holder")
            ),
            "",
        )
        if self.kind in REPORTS or self.kind in ("results_call", "presentation"):
            return self.bound_by_default, "the reader"
        if served and not addressee:
            return sender or "the writer", served
        m = re.search(
            r"\bDear\s+((?:Mr|Mrs|Ms|Dr|Miss)?\.?\s*[A-Z][\w’'-]+(?:\s+[A-Z][\w’'-]+)?)", self.document.text[:3000]
        )
        return sender or "the writer", addressee or (m[1] if m else "the addressee")

    @cached_property
    def own_side(self) -> str:
        """Whose paper it is: the name at its head, else the first organisation that it names, else the addressee."""
        head = self.document.text.lstrip().partition("\n")[0].strip()
        words = [w for w in head.split() if w[:1].isalpha() and w.lower() not in ("of", "and", "for", "the", "de", "&")]
        if 2 <= len(words) <= 8 and all(w[0].isupper() for w in words) and not PAPER.search(head) and len(head) < 70:
            return head
        parties = identify(self.document).parties
        return parties[0].quote if parties else self.speakers[1]

    @cached_property
    def bound_by_default(self) -> str:
        """Who a passive binds where nothing tells: "you" in a paper that speaks so, the supplier of a call, the group of a report."""
        if self.kind in duty_vocabulary().speakers:
            return self.speakers[1]
        if self.kind in REPORTS or self.kind in ("report", "results_call", "presentation"):
            return "the Group" if re.search(r"\bthe\s+Group\b", self.document.text) else "the Company"
        return ""

    @cached_property
    def persons(self) -> tuple[str, ...]:
        """Roles of people: those whose names have no legal form."""
        return tuple(
            r
            for r, name in self.names.items()
            if next(find_organisations(name), None) is None and len(name.split()) <= 5
        )

    def of_pronoun(self, pronoun: str, last: str) -> str:
        """Whom "she" or "it" means: the one person of the paper, else the party named last."""
        if pronoun.lower() in ("she", "he"):
            return self.persons[0] if len(self.persons) == 1 else last
        return last if last not in self.persons else next((r for r in self.names if r not in self.persons), last)

    def other_than(self, who: str) -> str:
        """The other of the two parties of a paper; "" where there are not just two."""
        main = [r for r in self.names if r in self.roles]
        return next((r for r in main if r != who), "") if len(main) == 2 and who in main else ""

    def owner_in(self, words: str) -> str:
        """The party whose thing a subject is: "Reports to the Recipient's board"."""
        found = list(re.finditer(rf"\b(?:{'|'.join(map(re.escape, self.roles)) or '(?!)'})(?=['’]s?\s)", words))
        return self._as_role(found[-1].group()) if found else ""

    def in_subject(self, words: str) -> str:
        """The party that a subject names: the last role in it, mutual words, or a pronoun."""
        found = list(self._role_form.finditer(words))
        if found:
            tail = words[found[-1].end() :]
            if re.search(r"\b(?:he|she)\s*\Z", tail, re.IGNORECASE):
                return ""
            between = words[found[-2].end() : found[-1].start()] if len(found) > 1 else ""
            joined = re.fullmatch(r"\s*,?\s*(?:and|or)\s+(?:the\s+)?", between)
            if joined and len(found) > 1 and self._as_role(found[-2].group()) != self._as_role(found[-1].group()):
                return f"{self._as_role(found[-2].group())} and {self._as_role(found[-1].group())}"
            if len(tail.split()) <= 6 or tail.lstrip().startswith((",", "(")):
                return self._as_role(found[-1].group())
        if MUTUAL.search(words) or ONE_PARTY.search(words):
            return "both parties"
        pronoun = list(PRONOUN.finditer(words))
        if pronoun and len(words[pronoun[-1].end() :].split()) <= 3:
            return self.speakers[1] if pronoun[-1]["you"] else self.speakers[0]
        low = re.search(
            rf"\b(?:the|each|every|any|an?|no)\s+(?:\w+\s+)?({'|'.join(LOWER_ROLES)})\s*(?:also|then|thereafter|alone)?\s*\Z",
            words,
            re.IGNORECASE,
        )
        if low:
            return low[1]
        named = re.search(
            r"(?:\A|[,;:.]\s+|\band\s+|\d{4}\s+)(?:the\s+)?([A-Z][\w&’'-]+(?:\s+(?:of\s+)?[A-Z][\w&’'-]+){0,5})\s*\Z",
            words,
        )
        sure = named and (" " in named[1] or named[1] in self._first_words)
        return (
            named[1]
            if named
            and sure
            and not re.match(
                r"(?:This|These|He|She|It|They|We|You|I|Who|Nothing|Nobody|Both|Neither|Either|Any|All|Each|No|If|In|On|The|Such|That|Every|Where|When|Rent|Notice|Payment|Section|Clause|Schedule)\b",
                named[1],
            )
            else ""
        )

    def at_start(self, words: str) -> str:
        """The party with which a sentence begins, "" where it begins otherwise."""
        opening = re.match(r"\s*(?:[\d.]{1,8}\s+|[(\[]?\w{1,3}[.)\]]\s+)?(?:The\s+|the\s+)?", words)
        found = self._role_form.match(words, opening.end() if opening else 0)
        return (
            self._as_role(found.group())
            if found and not words[found.end() :].startswith(("’s", "'s", "’ ", "' "))
            else ""
        )

    def in_condition(self, words: str) -> str:
        """The party named in the condition that opens a sentence: "If the Supplier agrees, it may …"."""
        found = (
            self._role_form.search(words)
            if re.match(r"\s*(?:[\d.]{1,8}\s+)?(?:If|Where|When|Unless)\b", words)
            else None
        )
        return self._as_role(found.group()) if found else ""

    def called(self, words: str) -> str:
        """Whom "us", "you" or a name means."""
        if words in ("us", "you"):
            return self.speakers[words == "you"]
        return self._as_role(words) if self._role_form.fullmatch(words) else ""

    def _as_role(self, words: str) -> str:
        return next((r for r in self.roles if words == r or words == r + "s"), words)

    def by_phrase(self, words: str) -> str:
        """The party that a passive names: "shall be given by the Tenant"."""
        m = re.search(r"\bby\s+(?:the\s+|each\s+|either\s+)?(.{2,40})", words)
        if not m:
            return ""
        found = self._role_form.match(m[1])
        if found:
            return self._as_role(found.group())
        if re.match(r"(?:both\s+|the\s+)?parties\b", m[1]):
            return "both parties"
        return self.speakers[0] if re.match(r"us\b", m[1]) else self.speakers[1] if re.match(r"you\b", m[1]) else ""

    def of_heading(self, words: str) -> str:
        """The party whose covenants or obligations a heading announces: "TENANT'S COVENANTS", "Obligations of the Supplier"."""
        if not duty_vocabulary().lead_ins.search(words):
            return ""
        found = list(self._any_form.finditer(words))
        if len({self._as_role(f.group().title()) for f in found}) == 1 or (
            found
            and re.search(
                r"['’]s?\s+(?:covenants|obligations|duties|undertakings|responsibilities)", words, re.IGNORECASE
            )
        ):
            return self._as_role(found[0].group().title() if found[0].group().isupper() else found[0].group())
        if found and re.search(
            r"\bcovenants?\s+with\b|\bundertakes?\s+(?:to|with)\b|\bagrees?\s+(?:to|with)\b|\bshall\b|\bmust\b",
            words,
            re.IGNORECASE,
        ):
            return self._as_role(found[0].group().title() if found[0].group().isupper() else found[0].group())
        return ""

    def over(self, block: Block) -> str:
        """The party of the headings over a block, the nearest first; "" where they name none."""
        for section in reversed(self.document.section_path(block.span.start)):
            if who := self.of_heading(section.heading):
                return who
        return ""

    def usual(self, before: Counter[str]) -> str:
        """The party bound most often so far; "" at the start."""
        return before.most_common(1)[0][0] if before else ""
