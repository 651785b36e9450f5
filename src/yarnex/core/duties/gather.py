"""Document -> its duties, in the order of the text."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from yarnex.core.document import Block, Cite, Document, Span
from yarnex.core.document.sentences import sentences
from yarnex.core.duties.actors import Actors
from yarnex.core.duties.kinds import duty_vocabulary, kind_of_duty
from yarnex.core.duties.model import Duty
from yarnex.core.patterns import pattern
from yarnex.core.terms.abstract import LEADER
from yarnex.core.terms.passages import Passages

MODAL = pattern(
    r"\b(?P<not1>(?:shall|must|may|will|can)\s*not|cannot|(?:agree[sd]?|undertakes?|covenants?|has\s+agreed|have\s+agreed|promises?)\s+not\s+to)\b"
    r"|\b(?P<must>shall|must|will|agrees?\s+(?:that\s+(?:it|he|she|they)\s+(?:shall|will)|to(?!\s+(?:an?|the|any|such|that|this|it)\b))|undertakes?\s+to|covenants?\s+(?:with\s+[^,:;]{3,40}\s+)?to|is\s+required\s+to|are\s+required\s+to|is\s+obliged\s+to|are\s+obliged\s+to|is\s+to|are\s+to|is\s+responsible\s+for|are\s+responsible\s+for|needs?\s+to|has\s+to|have\s+to|bears?\s+the\s+cost|(?:is|are)\s+payable)\b"
    r"|(?<!\d\s)\b(?P<may>may)\b(?!\s+(?:be|have|not|\d))",
    re.IGNORECASE,
)
ITEM_VERB = pattern(
    r"\A\s*(?:[(\[]?(?:\d{1,3}(?:\.\d{1,3})*|[a-zA-Z]|[ivxIVX]{1,5})[.)\]]*\s+)?(?:[A-Z][\w’'/-]*(?:\s+[\w’'/-]+){0,4}\.\s+)?(?P<not>[Nn]ot\s+)?[Tt]o\s+(?P<verb>(?!(?:the|an?|our|your|all|any|each|its|their|his|her|this|that|these|those|whom|which|be)\b)[a-z]+)\b"
)
INNER_VERB = pattern(
    r"(?:\A|,\s+|;\s+|[a-z]\s+(?=not\s+to\b))(?:and\s+|then\s+|but\s+)?(?P<not>not\s+)?to\s+(?P<verb>[a-z]{3,})\b(?!\s+(?:extent|time|whom|which))"
)
PRESENT = pattern(
    r"\b(?:pays|insures|keeps|maintains|provides|bears|delivers|supplies|carries|trains|repairs|replaces|arranges|undertakes|indemnifies|submits|encrypts|notifies|reports|collects|returns|sends|tests|reimburses|credits|guarantees|holds|procures|installs|trains|has\s+(?:an?|the|its|every|each)\s+[^,.;]{3,60}\s+(?:carried\s+out|made|tested|inspected|reviewed))\b"
)
PRESENT_PASSIVE = pattern(
    r"\b(?:is|are)\s+(?:\w+ly\s+)?(?:painted|marked|labelled|packed|fitted|equipped|installed|trained|paid|kept|delivered|reconciled|returned|sent|provided|given|held|reviewed|tested|inspected|credited|insured|supplied|replaced|repaired|on\s+site|due)\b"
)
SUBORDINATE = pattern(r"\b(?:before|after|until|when|once|as\s+soon\s+as|while|if)\b[^,.;]*", re.IGNORECASE)
BORNE = pattern(
    r"(?:painted|marked|labelled|packed|fitted|equipped|installed|trained|delivered|supplied|insured|on\s+site)\Z",
    re.IGNORECASE,
)
# A sentence with a verb of its own states what is; one without names what is wanted: "Two references for similar looms".
FINITE = pattern(
    r"\b(?:is|are|was|were|be|been|has|have|had|do|does|did|can|could|may|might|will|would|should|means?|applies|apply|passes|pass|wishes|wants|intends|expects|consists|includes|remains?|counts?|depends|exceeds|contains|covers|begins?|ends|runs|takes|makes|gives|goes|go|comes|stands)\b|‘[^’]+’\s+the\b",
    re.IGNORECASE,
)
ASIDE = pattern(r"\b(?:as|that|which|what|who|whom|if|when|where|while|than)\s+(?:\w+\s+){0,4}\Z", re.IGNORECASE)
PAYERS = (
    "Tenant",
    "Lessee",
    "Licensee",
    "Borrower",
    "Customer",
    "Buyer",
    "Purchaser",
    "Hirer",
    "Policyholder",
    "Client",
    "Distributor",
    "Employer",
)
ACTIONS = pattern(r"\b(?:recommend\w*|prevention|actions?|next\s+steps|to\s+do|corrective|remedial)\b", re.IGNORECASE)
TERMS = pattern(r"\b(?:conditions?|terms|delivery|service|training|warranty|obligations?)\b", re.IGNORECASE)
NEGATED = pattern(
    r"\A\s*(?:[(\[]?\w{1,4}[.)\]]+\s*|[\d.]{1,8}\s+)?(?:nothing|no\s+\w+|neither|nor)\b|\b(?:provided|except|save)\s+that\s+no\s+\w+|\bneither\s+\w+\s+nor\b",
    re.IGNORECASE,
)
WITHIN = pattern(
    r"\b(?:(?:by|before|not\s+later\s+than|no\s+later\s+than|on\s+or\s+before|within|not\s+less\s+than|at\s+least|until)\s+(?![£€$₹])(?=[^,;.]{0,70}(?:\d|day|week|month|year|quarter|expir|end\b|date))[^,;.]{3,90}"
    r"|(?:at\s+least\s+)?(?:once|twice)\s+(?:a|in|every|each)[^,;.]{2,40}|(?:each|every)\s+(?:\w+\s+)?(?:day|week|month|quarter|year|three\s+months|six\s+months)\b|(?:daily|weekly|monthly|quarterly|annually|yearly|half-yearly)\b|in\s+every\s+\w+\s+year(?:\s+of\s+the\s+\w+)?|for\s+(?:\w+\s+)?(?:\w+\s+)?(?:years?|months?|days?|weeks?)\s+(?:after|from|following)[^,;.]{3,50}|on\s+demand|forthwith|immediately|promptly|as\s+soon\s+as[^,;.]{3,50})",
    re.IGNORECASE,
)
CONDITION = pattern(
    r"(?:\A|(?<=[,;(]\s)|(?<=\s))(?P<words>(?:if|where|when|whenever|unless|provided\s+that|subject\s+to|on\s+condition\s+that|in\s+the\s+event\s+(?:of|that)|except\s+(?:that|where|in))\b[^;.]{4,160}?)(?=,|;|\.|\Z)",
    re.IGNORECASE,
)
OTHERWISE = pattern(
    r"\b(?:failing\s+which|in\s+default\s+(?:of\s+which|whereof)|otherwise|if\s+(?:it|he|she|they|you|the\s+\w+)\s+(?:fails?|does\s+not|do\s+not))\b[^.]{5,200}",
    re.IGNORECASE,
)
PAST = pattern(r"\b(?:would|has\s+been|had|was|were)\b", re.IGNORECASE)
PLEASE = pattern(r"\A\s*(?:[(\[]?\w{1,3}[.)\]]\s*)?(?:Please|Kindly)\s+(?P<do>[^.]{4,200})", re.IGNORECASE)
IMPERATIVE = pattern(
    r"\A(?:Fit|Install|Replace|Repair|Keep|Send|Provide|Check|Review|Move|Store|Label|Train|Remove|Inspect|Test|Return|Insure|Obtain|Record|Report|Ensure|Do\s+not|Never|Always|Use|Submit|Complete|Sign|Notify|Update|Write|Arrange|Agree|Lift|Raise|Ask)\s+(?!(?:number|no|date|of|by|name|room|form|type|kind|reference|time|sheet|page|status|house)\b)(?=[a-z\d])[\w’'-]+\s+\w+"
)
OWN_RECORDS = ("incident_report", "record")  # what they recommend, the one who keeps them must do
NARRATIVE = frozenset(["annual_report", "half_year_report", "interim_report", "quarterly_report", "results_call", "presentation", "transcript", "interview", "record", "incident_report", "email", "letter", "study", "invoice", "statement", "minutes", "spreadsheet", "memo"])  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Lead:
    """The lead-in of a list: who, and how its items are meant."""

    who: str
    force: str
    until: int  # the section of its items
    span: Span
    level: int


def duties_of(document: Document, passages: Passages | None = None) -> tuple[Duty, ...]:
    """The duties of a document: one for each sentence or list item that binds somebody. passages: its own, where they were made."""
    passages = passages or Passages(document)
    actors = Actors(passages)
    narrative = actors.kind in NARRATIVE
    bound: Counter[str] = Counter()
    out: list[Duty] = []
    lead: _Lead | None = None
    section, last_who = -2, ""
    for _, block in passages.blocks:
        text = block.span.of(document.text)
        if block.section != section:
            section, last_who = block.section, ""
        if block.kind == "heading" or LEADER.search(text):
            continue
        lead = _kept(lead, block, text)
        if block.table >= 0:
            out += _of_table(document, actors, block, narrative)
            continue
        for span in _sentence_spans(block, text):
            words = span.of(document.text)
            for duty in _of_sentence(document, actors, block, span, words, lead, last_who, bound, narrative=narrative):
                out.append(duty)
                if duty.who and duty.sure:
                    bound[duty.who] += duty.force != "may"
                    last_who = duty.who
            if words.rstrip().endswith((":", ":–", ":-", "—")) and (made := _lead_in(actors, block, words)) is not None:
                lead = made
    return tuple(_once(out))


def _sentence_spans(block: Block, text: str) -> Iterator[Span]:
    for s in sentences(text, semicolons=False):
        yield Span(block.span.start + s.start, block.span.start + s.end)


def _kept(lead: _Lead | None, block: Block, text: str) -> _Lead | None:
    """A lead-in holds for the items right under it."""
    if lead is None:
        return None
    if block.kind == "item" or re.match(r"\s*[(\[]?(?:[a-z]|[ivx]{1,5}|\d{1,2})[.)\]]\s", text):
        return lead if block.section == lead.until or block.level > lead.level else None
    return None


def _lead_in(actors: Actors, block: Block, words: str) -> _Lead | None:
    m = next(reversed(list(MODAL.finditer(words))), None)
    who = actors.in_subject(words[: m.start()]) if m else actors.of_heading(words)
    if not who and m and (pronoun := re.search(r"\b(he|she)\s*\Z", words[: m.start()], re.IGNORECASE)):
        who = actors.of_pronoun(pronoun[1], "")
    if not who:
        who = actors.of_heading(words)
    if not who or (m is None and not duty_vocabulary().lead_ins.search(words)):
        return None
    force = "must_not" if m and m["not1"] else "may" if m and m["may"] else "must"
    return _Lead(who, force, block.section, block.span, block.level)


def _of_sentence(
    document: Document, actors: Actors, block: Block, span: Span, words: str, lead: _Lead | None, last_who: str, bound: Counter[str], *, narrative: bool
) -> Iterator[Duty]:  # fmt: skip
    item = ITEM_VERB.match(words)
    if item is not None and len(words.split()) >= 4:
        who = (lead.who if lead else actors.over(block)) or last_who or actors.usual(bound)
        if who:
            yield _made(
                document,
                actors,
                span,
                words,
                who,
                "must_not" if item["not"] else "must",
                words[item.start("verb") :],
                sure=bool(lead) or bool(actors.over(block)),
            )
            return
    asked = PLEASE.match(words)
    if asked is not None:
        yield _made(document, actors, span, words, actors.speakers[1], "must", asked["do"])
        return
    if (
        lead is not None
        and not MODAL.search(words.split(":")[0][:120])
        and re.match(r"\s*(?:[(\[]?\w{1,4}[.)\]]\s*)?[a-z]", words)
        and len(words.split()) >= 4
    ):
        negated = bool(re.match(r"\s*(?:[(\[]?\w{1,4}[.)\]]\s*)?not\s", words))
        force = "must_not" if negated and lead.force == "must" else lead.force
        duty = _made(document, actors, span, words, lead.who, force, re.sub(r"\A\s*[(\[]?\w{1,4}[.)\]]\s*", "", words))
        yield replace(duty, cites=(*duty.cites, Cite(document, lead.span)))
        return
    over = "" if narrative else actors.over(block)
    opening = re.match(
        r"\s*(?:[(\[]?\w{1,3}(?:\.\d{1,3})*[.)\]]?\s+)?(?:Within|At|On|In|If|Upon|By|After|Before|During|Save|Where|Unless|Not\s+(?:less|later|more))\b[^.]{8,}?\b(?P<not>not\s+)?to\s+(?P<verb>[a-z]{3,})\b",
        words,
    )
    inner = (opening or INNER_VERB.search(words)) if over and not MODAL.search(words) else None
    if inner is not None:
        yield _made(
            document, actors, span, words, over, "must_not" if inner["not"] else "must", words[inner.start("verb") :]
        )
        return
    if (
        narrative
        and block.kind != "heading"
        and ACTIONS.search(" ".join(s.heading for s in document.section_path(block.span.start)[-1:]))
    ):
        told = re.sub(r"\A\s*[(\[]?\w{1,3}[.)\]]\s*", "", words)
        if (
            re.match(r"[A-Z][a-z]+\s+(?!is\b|was\b|are\b|were\b|has\b)\w+", told)
            and not MODAL.search(told)
            and not re.search(r"\b(?:is|was|are|were|had|has)\b", told[:60])
            and len(told.split()) >= 3
            and not told.lower().startswith("target")
        ):
            yield _made(document, actors, span, words, actors.own_side, "must", told, sure=False)
            return
    if not narrative and (made := _in_present(document, actors, block, span, words)) is not None:
        yield made
        return
    if (
        narrative
        and IMPERATIVE.match(words)
        and actors.kind in ("incident_report", "email", "letter", "record", "minutes")
    ):
        yield _made(
            document,
            actors,
            span,
            words,
            actors.over(block) or (actors.own_side if actors.kind in OWN_RECORDS else actors.speakers[1]),
            "must",
            words,
            sure=False,
        )
        return
    yield from _by_modals(document, actors, block, span, words, last_who, bound, narrative=narrative)


def _in_present(document: Document, actors: Actors, block: Block, span: Span, words: str) -> Duty | None:
    """Duties told as what is: "The Supplier insures the goods", "Parts are kept available for ten years"."""
    if MODAL.search(words) or re.match(r"\s*(?:[\d.]{1,8}\s+)?This\s", words):
        return None
    m = PRESENT.search(words)
    aside = m is not None and ASIDE.search(words[: m.start()])  # "such risks as the Landlord insures"
    who = actors.in_subject(words[: m.start()]) if m and not aside else ""
    call = actors.kind == "call_for_proposals"
    told_of_itself = call and who != actors.bound_by_default and not WITHIN.search(words)
    if m and who and not told_of_itself:
        return _made(document, actors, span, words, who, "must", words[m.start() :])
    if (m := PRESENT_PASSIVE.search(words)) is not None and (
        WITHIN.search(words) or (call and BORNE.search(m.group()))
    ):
        who = actors.by_phrase(words[m.end() :])
        passive = who or actors.over(block) or actors.bound_by_default
        return _made(document, actors, span, words, passive, "must", words, sure=bool(who)) if passive else None
    numbered = re.match(r"\s*(?:[A-Z]\d{0,2}(?:\.\d+)?\s+|\(\w\)\s+)", block.span.of(document.text))
    if (
        call
        and numbered
        and not (FINITE.search(SUBORDINATE.sub(" ", words)) or PRESENT.search(words))
        and re.search(r"\d|\bwithin\b|\bone\b|\btwo\b|\bfor each\b", words)
        and len(words.split()) >= 6
    ):
        return _made(
            document,
            actors,
            span,
            words,
            actors.bound_by_default,
            "must",
            re.sub(r"\A\s*(?:[A-Z]\d{0,2}(?:\.\d+)?|\(\w\))\s+", "", words),
            sure=False,
        )
    return None


def _by_modals(
    document: Document,
    actors: Actors,
    block: Block,
    span: Span,
    words: str,
    last_who: str,
    bound: Counter[str],
    *,
    narrative: bool,
) -> Iterator[Duty]:
    call = actors.kind == "call_for_proposals"
    if KEY.match(words):
        return
    done_to, before_who = 0, actors.at_start(words)
    seen: set[tuple[str, str]] = set()
    for m in MODAL.finditer(words):
        if m.start() < done_to:
            continue
        force = "must_not" if m["not1"] else "may" if m["may"] else "must"
        after = words[m.end() :].lstrip()
        subject = words[done_to : m.start()]
        subject = re.split(r"[;:]\s", subject)[-1]
        if IN_CONDITION.match(subject):
            continue
        modal = m.group().lower()
        if force == "may" and (asked := REQUIRES.match(after)) is not None:
            other = actors.called(asked["whom"])
            if other:
                asker = actors.in_subject(subject) or "the other"
                duty = _made(document, actors, span, words, other, "must", asked["what"])
                yield replace(duty, condition=duty.condition or f"if {asker} requires it")
                before_who, done_to = actors.in_subject(subject) or before_who, m.end()
                continue
        if narrative and _only_tells(actors, words, modal, subject):
            before_who = actors.in_subject(subject) or before_who
            continue
        if narrative and modal in ("will", "may", "is to", "are to") and not _binds(actors, words, modal, subject):
            before_who = actors.in_subject(subject) or before_who
            continue
        if _is_none(after, subject, m, narrative=narrative, party=bool(actors.in_subject(subject))):
            before_who = actors.in_subject(subject) or before_who
            continue
        passive = re.match(
            r"(?:also\s+|then\s+|not\s+|at\s+all\s+times\s+)?be\s+(?:\w+ly\s+)?\w+(?:ed|en|t|de|ne|un|ld|pt|ght)\b|be\s+(?:made|paid|given|kept|set|sent|put|done|held|borne|met)\b",
            after,
        ) or modal.endswith("payable")
        who, sure = (actors.by_phrase(words[m.end() :]), True) if passive else (actors.in_subject(subject), True)
        if done_to and not passive and before_who and re.search(r",?\s(?:and|but)(?:\s+also)?\s*\Z", subject):
            who = before_who  # "…, and shall": the subject is that of the clause before
        if PERFECT.match(after):
            continue  # what must have come about first is a condition
        if ENTITLES.match(after) and force == "must":
            force = "may"
        if not who and not passive and CARRIED_ON.search(subject):
            who, sure = before_who or last_who, bool(before_who)
        if not who and DISPUTE.match(subject):
            who, sure = "both parties", False
        if not who and not passive and MADE.search(subject) and MADE_WELL.match(after):
            who, sure = next((r for r in MAKERS if r in actors.roles), ""), False
        if passive and not who and modal.startswith("will") and call and not actors.in_subject(subject):
            who, sure = (
                next(iter(actors.roles), actors.speakers[0]),
                False,
            )  # what the one who calls says will be done, he does
        if NEGATED.search(subject) and force == "must":
            force = "must_not"
        if not who and not passive:
            who = actors.in_subject(re.sub(r",[^,]{3,120},\s*\Z", " ", subject))  # "the Tenant, at its own cost, shall"
        pronoun = re.search(r"\b(it|he|she|they)\s*\Z", subject, re.IGNORECASE)
        if not who and pronoun is not None:
            who = actors.of_pronoun(pronoun[1], before_who or last_who or actors.in_condition(subject))
        receiver = actors.in_subject(subject) if passive and not who and RECEIVED.search(after) else ""
        if receiver and actors.other_than(receiver):
            who, sure = actors.other_than(receiver), False
        if not who and force != "may":
            sure = False
            payer = next((r for r in PAYERS if r in actors.roles), "") if modal.endswith("payable") else ""
            if not payer and OWED.search(subject) and re.match(r"(?:\w+\s+)?be\s+(?:paid|made)\b", after):
                payer = next((r for r in PAYERS if r in actors.roles), "")
            if passive and "Employee" in actors.roles and GIVEN_TO_STAFF.search(subject):
                payer = actors.other_than("Employee")
            who = (
                payer
                or actors.owner_in(subject)
                or actors.over(block)
                or (actors.bound_by_default if passive or narrative or call else "")
                or last_who
                or actors.usual(bound)
            )
        if not who:
            continue
        before_who = who
        key = (who, force)
        if key in seen and force == "may":
            continue
        seen.add(key)
        if not re.search(r"\w{3}", after) or LEADS_IN.search(after):
            continue  # a lead-in; its items follow
        if re.match(r"(?:and|but|or)\s+(?:may|shall|must|will)\b", after):
            continue
        shorter = NEXT_MODAL.sub("", after)
        after = (
            shorter if re.search(r"\w{3}", shorter) else after
        )  # else "shall not, and shall procure that others do not, …"
        what = after if not passive else re.sub(r"\s+", " ", f"{subject.strip()} {m.group()} {after}")
        yield _made(document, actors, span, words, who, force, what, sure=sure)
        done_to = m.end()
        if force == "must" and len(seen) >= 3:
            break


# "…, and shall", "and within thirty days shall": the subject is that of the clause before.
CARRIED_ON = pattern(
    r"(?:\A|\s)(?:and|but|or)(?:\s+(?:also|then|thereafter|in\s+that\s+case|at\s+its\s+own\s+\w+))?(?:\s*,?\s*(?:within|on|at|by|in|not\s+later\s+than)\s[^,;]{3,60}?)?,?\s*\Z",
    re.IGNORECASE,
)
DISPUTE = pattern(
    r"\s*(?:[\d.()a-z]{1,6}\s+)?(?:any|a|all|every|if\s+(?:a|any|the|it))?\s*(?:disputes?|differences?|disagreements?|controvers\w+|it\s+is\s+not\s+(?:settled|resolved)|if\s+it\s+is\s+not\s+(?:settled|resolved))\b",
    re.IGNORECASE,
)
MAKERS = ("Supplier", "Seller", "Vendor", "Manufacturer", "Contractor", "Provider", "Licensor", "Consultant")
MADE = pattern(
    r"\b(?:Products?|Goods|Services?|Deliver\w+|Equipment|Works?|Software|Items?|Materials?)\s*(?:,[^,]*,)?\s*\Z"
)
MADE_WELL = pattern(
    r"\A(?:conform|comply|be\s+(?:free|of|fit|new)|have|meet|correspond|match|perform|remain|if\s+properly)\b",
    re.IGNORECASE,
)


PERFECT = pattern(r"(?:first\s+|within\s[^,;]{5,60}?\s|not\s+)?have\s+(?:first\s+)?\w+(?:ed|en|pt|id)\b", re.IGNORECASE)
ENTITLES = pattern(
    r"(?:at\s+all\s+times\s+)?have\s+(?:the\s+)?(?:free\s+|full\s+)?(?:right|access|option|power|liberty|use)\b",
    re.IGNORECASE,
)
OWED = pattern(
    r"\b(?:shortfall|deficit|balance|rents?|fees?|charges?|invoices?|price|interest|premium|instalments?|deposit|arrears)\b",
    re.IGNORECASE,
)
NEXT_MODAL = pattern(
    r",?\s+(?:and|but)\s+(?:also\s+|(?:within|on|at|by)\s[^,;]{3,40}?\s)?(?:shall|must|may)\b.*\Z",
    re.IGNORECASE | re.DOTALL,
)
KEY = pattern(r"\s*\w{1,2}\s*:\s*(?:must|shall|should|may)\b")  # to a mark: "M: must be met"
LEADS_IN = pattern(r"(?:\b(?:shall|must|will|may)(?:\s+not)?|\bthat)\s*[:—–-]?\s*\Z")
# "If the Tenant is required to …": the modal belongs to a condition.
IN_CONDITION = pattern(
    r"\s*(?:[\d.]{1,8}\s+|[(\[]?\w{1,3}[.)\]]\s+)?(?:If|Where|When|Whenever|Unless|Should)\s+(?:[^\s,]+\s+){1,5}\Z"
)
# What a firm gives to those who work for it, where a passive does not say who.
GIVEN_TO_STAFF = pattern(
    r"\b(?:salary|bonus|pay|rest|leave|allowance|holiday|pension|expenses|wages|overtime|commission)\b", re.IGNORECASE
)


REQUIRES = pattern(
    r"require\s+(?:the\s+)?(?P<whom>us|you|[A-Z][\w’'-]+(?:\s+[A-Z][\w’'-]+){0,3})\s+to\s+(?P<what>[a-z][^;.]{5,200})"
)
BINDING = pattern(
    r"\b(?:agree\w*|undertak\w*|covenant\w*|required|obliged|obligation|entitled|condition|licen[cs]e|regulat\w*|terms\s+of|under\s+the|tender|by\s+law|consent|resolution|unless)\b",
    re.IGNORECASE,
)


def _only_tells(actors: Actors, words: str, modal: str, subject: str) -> bool:
    """True in a report or talk for what is foreseen, hoped or held necessary, and what cannot be said: nobody is bound."""
    if actors.kind in ("letter", "email", "minutes", "record", "incident_report"):
        return False
    if modal.startswith(("cannot", "can not")):
        return True
    own = bool(re.search(r"\b(?:we|I)\s*\Z", subject, re.IGNORECASE)) or not actors.in_subject(subject)
    foreseen = modal in ("will", "will not", "must", "has to", "have to", "need to", "needs to", "may not")
    limit = re.search(r"\b(?:more|less|fewer|exceed|below|above)\b", words)
    return own and foreseen and not BINDING.search(words) and not limit


def _binds(actors: Actors, words: str, modal: str, subject: str) -> bool:
    """False for the "will" and "may" of somebody who tells what is coming."""
    if re.search(
        r"\b(?:must|require|agreed|obliged)\b|\byou\s+(?:may|must)\b", words, re.IGNORECASE
    ) or actors.kind in ("letter", "email", "minutes"):
        return True
    return modal == "will" and bool(actors.in_subject(subject))


RECEIVED = pattern(
    r"\A(?:also\s+)?be\s+(?:paid|given|reimbursed|provided|supplied|sent|informed|notified|indemnified|credited|refunded|compensated)\b",
    re.IGNORECASE,
)
# What limits a liability, or takes something out of a clause, asks nothing of anybody.
LIMIT_OF = pattern(
    r"\bliabilit(?:y|ies)\b[^.;]{0,160}\Z|\b(?:does|do)\s+not\s+apply\b[^.;]*\Z|\bfor\s+which\s+(?:it|he|she|they)\s*\Z|\b(?:date|time|day|period)\s+(?:by|on|from|within|in)\s+which\s[^.;]{0,60}\Z",
    re.IGNORECASE,
)
PARTY_MAY = pattern(r"\A(?:begin|end|run|pass|apply|cease|terminate|commence\s+on|include|expire)\b", re.IGNORECASE)


# What a thing does by itself: "the Term shall absolutely cease", "time shall not be of the essence".
THING_STATES = pattern(
    r"(?:not\s+)?(?:absolutely\s+|of\s+itself\s+|thereupon\s+|then\s+|automatically\s+|also\s+)?(?:cease|determine\b|breach|operate|be\s+of\s+the\s+essence|be\s+varied|be\s+brought\s+in|exceed|change|rank|amount|equal|fall|rise|increase|count|occur|happen|accrue|be\s+(?:in\s+writing|in\s+addition|in\s+proportion|suspended|less\s+than\s+the|more\s+than\s+the))\b",
    re.IGNORECASE,
)


def _is_none(after: str, subject: str, m: re.Match[str], *, narrative: bool, party: bool = False) -> bool:
    """True where the words state what holds and bind nobody."""
    if duty_vocabulary().no_duty.match(after) and not (party and PARTY_MAY.match(after)):
        return True
    if not party and THING_STATES.match(after) and not (NEGATED.search(subject) and re.match(r"exceed|change", after)):
        return True
    if NEGATED.search(subject) and re.match(r"be\s+payable\b", after):
        return True
    if m.group().lower() in ("is to", "are to") and re.match(
        r"(?:the|a|an|any|be\s+(?:found|seen|construed|read))\b", after
    ):
        return True
    if re.match(
        r"be\s+(?:[$€£₹]|\d|January|February|March|April|May|June|July|August|September|October|November|December)",
        after,
    ):
        return True
    if re.match(r"(?:be|have\s+been)\s+(?:the|a|an|no|of|in|less|more|at)\b", after) and m.group().lower() in (
        "shall",
        "will",
    ):
        return True
    if re.match(
        r"\s*(?:[(\[]?[\w.]{1,6}[.)\]]?\s+)?(?:no|nothing)\b", subject, re.IGNORECASE
    ) and m.group().lower().endswith("payable"):
        return True
    if LIMIT_OF.search(subject):
        return True
    tail = subject.strip().lower()
    if tail.endswith((" as", " which", " that", "as it", "what", "who", "whom", "whose")) and not tail.endswith(
        ("agrees that", "agreed that")
    ):
        return True
    if re.search(r"\b(?:means|“[^”]*”\s+means)\b", subject):
        return True
    return bool(narrative and m.group().lower() == "shall" and PAST.search(subject))


def _made(
    document: Document, actors: Actors, span: Span, words: str, who: str, force: str, what: str, *, sure: bool = True
) -> Duty:
    plain = re.sub(r"\s+", " ", what).strip(" .;,:–-")
    if not sure and who:
        who = _not_its_own(who, plain, actors.roles)
    short = plain if len(plain) <= 160 else plain[:158].rpartition(" ")[0] + " …"
    by = WITHIN.search(words)
    condition = CONDITION.search(words)
    other = OTHERWISE.search(words)
    to = ""
    for m in re.finditer(
        r"\b(?:to|upon|with|inform|notify|pay|give|tell|send|reimburse|indemnify)\s+(?:the\s+)?", words
    ):
        found = actors._role_form.match(words, m.end())
        if found and actors._as_role(found.group()) != who:
            to = actors._as_role(found.group())
            break
    return Duty(
        document, who, short, force, kind_of_duty(words, force), (Cite(document, span),), _when(by.group(), words[by.end() :]) if by else "", _one(condition["words"])[:160] if condition else "",
        to, _one(other.group())[:200] if other else "", actors.names.get(who, ""), sure,
    )  # fmt: skip


def _not_its_own(who: str, what: str, roles: Sequence[str]) -> str:
    """The other of two parties where a duty told by context only is owed to the one it was given to: "pay the Tenant …"."""
    others = [r for r in roles if r.lower() != who.lower()]
    owed = re.search(
        rf"\b(?:to|pay|give|tell|inform|notify|credit|reimburse|compensate|offer)\s+(?:it\s+first\s+to\s+)?(?:the\s+)?{re.escape(who)}\b(?!['’]s)",
        what,
    )
    return others[0] if owed and len(others) == 1 and who in roles else who


WHEN_ENDS = pattern(
    r"\s+(?=(?:if|unless|where|provided)\b|(?:the|each|either|both)\s+(?:[A-Z][\w’'-]*\s+){1,3}(?:shall|must|will|may)\b)"
)


def _when(words: str, after: str) -> str:
    """The time of a duty: up to a condition or to the one who must, and not cut within a word."""
    plain = WHEN_ENDS.split(_one(words))[0]
    if plain == _one(words) and re.match(r"\w", after) and words[-1:].isalnum():
        plain = plain.rpartition(" ")[0] + " …"
    return plain.strip(" ,")


def _one(words: str) -> str:
    return re.sub(r"\s+", " ", words).strip(" ,")


def _of_table(document: Document, actors: Actors, block: Block, narrative: bool) -> Iterator[Duty]:
    """Rows that bind: "Delivery | All goods within six weeks", under a heading of obligations, or with a modal in them."""
    table = document.tables[block.table]
    for row in range(table.header_rows, table.rows):
        cells = table.row_cells(row)
        if not cells:
            continue
        span = Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
        words = span.of(document.text)
        m = next((m for m in MODAL.finditer(words) if not m["may"]), None)
        if m is not None and not _is_none(
            words[m.end() :].lstrip(), words[: m.start()].rsplit("\t", 1)[-1], m, narrative=narrative
        ):
            who = actors.in_subject(re.split(r"[\t\n.]", words[: m.start()])[-1]) or actors.by_phrase(words)
            who, sure = (who, True) if who else (actors.over(block), False)
            if who:
                yield _made(
                    document,
                    actors,
                    span,
                    words,
                    who,
                    "must_not" if m["not1"] else "must",
                    re.split(r"[\t\n]", words)[-1] if "\t" in words else words,
                    sure=sure,
                )
        elif (
            not narrative
            and len(words.split()) >= 6
            and (made := _in_present(document, actors, block, span, words)) is not None
        ):
            yield made
        elif any(IMPERATIVE.match(c.span.of(document.text)) for c in cells) and actors.kind in NARRATIVE:
            yield _made(
                document,
                actors,
                span,
                words,
                actors.speakers[1],
                "must",
                next(c.span.of(document.text) for c in cells if IMPERATIVE.match(c.span.of(document.text))),
                sure=False,
            )


def _once(duties: list[Duty]) -> Iterator[Duty]:
    seen: set[tuple[str, str, int]] = set()
    for duty in duties:
        key = (duty.who, duty.force, duty.cites[0].span.start)
        if duty.force == "may" and key in seen:
            continue
        if (duty.who, duty.what, duty.cites[0].span.start) not in seen:
            seen.add((duty.who, duty.what, duty.cites[0].span.start))
            seen.add(key)
            yield duty
