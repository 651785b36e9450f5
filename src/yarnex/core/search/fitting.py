"""Which answers a question rules out: words that tell no day or sum where one is asked for, or nobody where somebody is.

In: the answers of all sources. Out: those that may stand.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import pairwise

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.search.cues import wants_old
from yarnex.core.search.evidence import TAX_OF_ALL, VALUED
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.patterns import CODE
from yarnex.core.search.question import Question
from yarnex.core.search.signed import SIGNS
from yarnex.core.search.weighing import EVIDENCE, Answer
from yarnex.core.values import Party
from yarnex.core.values.numbers import WORDS
from yarnex.core.values.parties import is_organisation
from yarnex.core.words import stem, stems_of
from yarnex.core.words.synonyms import Stems

# What words must have that stand for a day, a sum or a length: a figure, or how it is fixed, or that there is none.
TELLS = pattern(
    rf"\d|\b(?:{WORDS}|after|before|until|till|within|when|while|during|once|twice|immediately|at once|promptly|forthwith|soon|reasonable|market|equal|half|quarter|third|nil|none|no|not|nothing|never"
    r"|unlimited|free|daily|weekly|monthly|quarterly|annually|yearly|every|each|day|date|month|year|end|start|expiry|completion|full|all|whole|cost|value|noon|midnight|morning|evening|spring|summer|autumn|winter|tomorrow|today"
    r"|january|february|march|april|may|june|july|august|september|october|november|december)\b",
    re.IGNORECASE,
)
SOMEBODY = pattern(
    r"[A-Z][a-z]|\b(?:the|an?(?!\.)|each|any|no|nobody|none|he|she|they|we|you|i|it|party|parties)\b"
)  # may stand for one
A_PERSON_OR_ROLE = pattern(
    r"\b[A-Z][\w.’'-]*\s+(?:(?:of|and|&|de|van)\s+)?[A-Z]|\b[A-Z]{2,3}\b|\b(?:(?:the|an?|each|any|either|both|its|their|our|your)\s+(?:[a-z-]+\s+){0,2}?(?:party|parties|company|owners?|tenants?|landlords?|lessors?|lessees?|licensees?|licensors?|buyers?|sellers?|suppliers?|customers?|lenders?|borrowers?|guarantors?|insurers?|insured|employers?|employees?|managers?|directors?|officers?|board|committee|council|bank|contractors?|agents?|experts?|arbitrators?|surveyors?|accountants?|auditors?|staff|team|bidders?|persons?|people)|no(?:body|\s+one)|he|she|they|we|you|i|us|them)\b"
)
A_PHONE = pattern(r"\b(?:tele)?phone\b|\bmobile\b|\bfax\b", re.IGNORECASE)
OF_A_REGISTER = pattern(
    r"\b(?:company|registered|registration|vat|tax|account|invoice|order|policy|claim|licen[cs]e)\s+(?:number|no\.?|code)\W*\Z",
    re.IGNORECASE,
)  # what leads to a number that is no telephone's
SIGNING = pattern(
    r"\b(?:(?:counter-?|un)?signed(?:\s+(?:by|on|for|at|this|as|copy)\b|\s*[:.])|(?:un)?signed\W*\Z|signatures?\b|executed\s+(?:by|as)\b|have\s+executed\b)|/s/",
    re.IGNORECASE,
)
LEGAL_FORM = pattern(r"[,\s]+(?:plc|limited|ltd|llp|llc|inc|corp|dac|gmbh|pte|pty)\b\.?", re.IGNORECASE)
OF_THE_DAY = pattern(
    r"\b\d{1,2}[.:]\d\d\b|\b[ap]\.?\s?m\b|\b(?:noon|midnight|morning|afternoon|evening|night(?!\s+(?:watch\w*|shift|security|porter|guard|staff|work\w*|duty))|dawn|dusk|o['’]clock|hours?|past|daytime|lunch\w*|midday)\b",
    re.IGNORECASE,
)
CONVERSION = pattern(r"\b1\s?[^\W\d][\w./²³]*\s?=\s?\d[\d.,]*\s?[^\W\d][\w./²³]*")  # "1 mile = 1.609 km"
WHO_IS = pattern(r"(?:and\s+)?who\s+(?:is|are|was|were)\s+(?:the|its|their|our|your)\s+[\w\s’'-]+\?\Z", re.IGNORECASE)
# "Which broker acted?" asks for one of a kind, "which party" or "which company" for any.
WHICH_OF_A_KIND = pattern(
    r"(?:and\s+)?(?:which|what)\s+(?!(?:part(?:y|ies)|sides?|compan(?:y|ies)|firms?|persons?|people|ones?|of|organi[sz]ations?|entit(?:y|ies)|business(?:es)?)\b)[\w’'-]+\s+[a-z]",
    re.IGNORECASE,
)
WHO_HAS_ROLE = pattern(
    r"(?:and\s+)?who\s+(?:is|are|was|were)\s+(?:the|its|their|our|your)\s+[\w’'-]+(?:\s+[\w’'-]+)?\s*\?\Z",
    re.IGNORECASE,
)
WHICH_FIRM = pattern(
    r"\b(?:which|what)\s+(?:firms?|compan(?:y|ies)|banks?|brokers?|insurers?|auditors?|suppliers?|lenders?)\b",
    re.IGNORECASE,
)


WHO_SIGNED = pattern(r"(?:and\s+)?who\s+(?:has\s+|have\s+)?(?:counter-?)?sign(?:s|ed)\b", re.IGNORECASE)
BY_SIGNATURE = ("the name in the block of signatures", "a person named there")  # persons sign, for firms


WHY = pattern(
    r"\A(?:and\s+|but\s+|so\s+)?why\b|\bfor\s+what\s+reason\b|\bwhat(?:['’]s|\s+is|\s+was)?\s+(?:the\s+)?reason\b",
    re.IGNORECASE,
)


REASON = pattern(
    r"\b(?:because|since|as\s+a\s+result\s+of|owing\s+to|due\s+to|on\s+account\s+of|caused\s+by|by\s+reason\s+of|thanks\s+to|so\s+that|in\s+order\s+to|the\s+reason|reasons?\b|therefore|hence|outside\s+(?:this|the)|excluded)\b",
    re.IGNORECASE,
)


def _who_sign(answers: Sequence[Answer]) -> list[Answer]:
    """Those named where something is signed; firms only where no person is."""
    persons = any(a.why in BY_SIGNATURE for a in answers)
    return [
        a
        for a in answers
        if a.why in BY_SIGNATURE
        or (a.finding is not None and a.kind in ("party", "list") and "sign" in stems_of(a.finding.term.label))
        or (
            SIGNING.search(a.quote.quote)
            and not (persons and isinstance(a.value, Party) and is_organisation(a.value.name))
        )
    ]


def that_may_stand(inquiry: Inquiry, question: Question, answers: Sequence[Answer]) -> list[Answer]:
    """The answers whose words can be what is asked for."""
    answers = [
        a for a in answers if a.kind != "number" or not (_tells_of_units(inquiry, a) or _is_measure_of(inquiry, a))
    ]
    answers = [a for a in answers if a.kind != "text" or not CONVERSION.search(_words_of(inquiry, a))]
    answers = [a for a in answers if not _is_echo(inquiry, question, a)]
    if _sort_and_thing(question)[0]:
        answers = [a for a in answers if not _of_another_sort(inquiry, question, a)]
    if wants_old(question.text):
        change = EVIDENCE.index("change")
        old = {a.kind for a in answers if a.evidence[change] > 0}  # where the old value is told, the new one is none
        answers = [a for a in answers if a.kind not in old or a.evidence[change] >= 0]
    if IS_DONE.match(question.text) and not DENIED.search(question.text):
        answers = [a for a in answers if a.kind != "text" or not FORBIDS.match(_words_of(inquiry, a))]
    if WHY.search(question.text):
        answers = [
            a for a in answers if a.kind != "text" or len(re.findall(r"[^\W\d_]{2,}", _words_of(inquiry, a))) > 1
        ]
    if (cap := CAP_ON.search(question.text)) is not None:
        answers = [a for a in answers if a.kind == "gap" or _caps_it(inquiry, question, cap["what"], a)]
    if question.kinds[0] == "money":
        answers = [a for a in answers if a.kind != "percent" or not _is_worked_out(inquiry, a)]
        answers = [a for a in answers if a.kind != "text" or not TAX_OF_ALL.match(_words_of(inquiry, a))]
    if (of_pay := MONTHS_OF.search(question.text)) is not None:
        answers = [a for a in answers if a.kind != "duration" or _is_of(inquiry, a, of_pay["what"])]
    elif HOW_SOON.match(question.text):
        answers = [a for a in answers if a.kind != "duration" or not _measures_a_sum(inquiry, question, a)]
    if question.kinds[0] == "party" and WHO_SIGNED.match(question.text):
        answers = _who_sign(answers)
    if question.kinds == ("yes_no",) and SIGNS.search(question.text):
        answers = [a for a in answers if SIGNING.search(a.quote.quote)]
    if question.sure and question.kinds[0] == "code":
        phone = A_PHONE.search(question.text) is not None
        return [a for a in answers if (a.finding is not None and not phone) or _has_number(inquiry, a, phone)]
    if question.sure and question.kinds[0] == "time":
        return [a for a in answers if a.kind != "text" or OF_THE_DAY.search(_words_of(inquiry, a))]
    if question.sure and question.kinds[0] in VALUED:
        return [a for a in answers if a.kind != "text" or TELLS.search(_words_of(inquiry, a))]
    if question.sure and question.kinds[0] == "party":
        answers = [a for a in answers if not _has_another_role(inquiry, question, a)]
        answers = [a for a in answers if a.kind != "party" or not _is_named(question, a)]
        return [a for a in answers if a.kind != "text" or _names_one(inquiry, question, a)]
    if WHO_ARE.match(question.text):
        answers = [a for a in answers if a.kind not in ("text", "list") or _names_somebody(inquiry, a)]
    if WHICH_FIRM.search(question.text):
        return [a for a in answers if a.kind not in ("text", "list") or _names_one(inquiry, question, a)]
    return list(answers)


WHO_ARE = pattern(r"(?:and\s+)?who\s+(?:are|were)\s+(?:the|its|their|our)\b", re.IGNORECASE)


def _names_somebody(inquiry: Inquiry, answer: Answer) -> bool:
    """True for words in which a person or firm stands by name: "the directors recommend ..." tells nobody who they are."""
    place = answer.span
    return any(
        f.span.overlaps(place) and isinstance(f.value, Party) and not f.reading  # by name, and no role
        for line in inquiry.matcher.lines.at(place)
        for f in inquiry.values.parties(line)
    )


# "Which looms are pledged?" is not told by "the Mill shall not pledge ...".
IS_DONE = pattern(
    r"(?:and\s+)?(?:which|what)\s+\w+(?:\s+\w+)?\s+(?:is|are|was|were|has\s+been|have\s+been)\s+\w+(?:ed|en|ld|nt|id|ut|ft)\b",
    re.IGNORECASE,
)
DENIED = pattern(r"\b(?:not|never|no|forbidden|prohibited|banned|excluded|restricted|ruled)\b", re.IGNORECASE)
FORBIDS = pattern(r"(?:\d[\d.]*\.?\s)?[^.;:]{0,60}?\b(?:shall|may|must|will)\s+not\b", re.IGNORECASE)


# "How many months' salary are due?" is told by "nine months' salary".
MONTHS_OF = pattern(
    r"\bhow\s+many\s+(?:weeks?|months?|years?|quarters?)['’]?s?['’]?\s+(?P<what>rent|salary|pay|wages?|fees?|premium|service\s+charge)\b",
    re.IGNORECASE,
)


# "What is the cap on the guarantee?" is not told by the cap on liability.
CAP_ON = pattern(
    r"\b(?:cap|limit|ceiling|maximum)\s+(?:on|for)\s+(?:the\s+|its\s+|their\s+|his\s+|her\s+)?(?P<what>[\w’'-]+(?:\s+[\w’'-]+){0,2})",
    re.IGNORECASE,
)
CAPPED = 0.4  # how surely a place must name what is capped


def _caps_it(inquiry: Inquiry, question: Question, what: str, answer: Answer) -> bool:
    """True for a place that names what is capped."""
    stems = frozenset(stems_of(what))
    things = [i for i in question.ideas if stems.issuperset(i.name)]
    told = frozenset(stems_of(answer.finding.term.label)) if answer.finding is not None else frozenset[str]()
    lines = inquiry.matcher.lines.at(answer.quote.span)
    return not things or any(
        any(told.issuperset(way) for way, worth in i.ways if worth >= CAPPED)
        or any(inquiry.matcher.named_at(line, i) >= CAPPED for line in lines)
        for i in things
    )


# "How soon must it be paid?" is not told by "a sum equal to eighteen months' rent".
HOW_SOON = pattern(
    r"(?:and\s+|but\s+)?(?:(?:within|in|after|by|for)\s+)?(?:how\s+(?:soon|quickly|fast|long|late|early)|when|what\s+time)\b",
    re.IGNORECASE,
)
OF_A_SUM = pattern(
    r"(?:['’]s?|\s+of)\s+(?:\w+\s+){0,2}?(?P<what>rent|salary|pay|wages?|fees?|interest|premiums?|charges?|turnover|sales|service\s+charge)\b",
    re.IGNORECASE,
)


def _measures_a_sum(inquiry: Inquiry, question: Question, answer: Answer) -> bool:
    """True for a length of time that only measures a sum, "three months' rent", of which nothing is asked."""
    text, place = inquiry.passages.text, answer.span
    if answer.finding is not None:
        at = text.find(answer.finding.text, place.start, place.end) if answer.finding.text else -1
        place = Span(at, at + len(answer.finding.text)) if at >= 0 else place
    sum_ = OF_A_SUM.match(text, place.end)
    return sum_ is not None and sum_["what"].lower().rstrip("s") not in question.text.lower()


def _is_of(inquiry: Inquiry, answer: Answer, what: str) -> bool:
    """True for a length of time of what is paid: "nine months' basic salary"."""
    if answer.finding is not None:
        return re.search(what, answer.quote.quote, re.IGNORECASE) is not None
    behind = inquiry.passages.text[answer.span.end : answer.span.end + 60]
    form = rf"\s*(?:['’]s?|of)\s+(?:[\w-]+\s+){{0,3}}{what}"
    return re.match(form, behind, re.IGNORECASE) is not None


def _has_number(inquiry: Inquiry, answer: Answer, phone: bool) -> bool:
    """True for a number that may be the one asked for: a company's own number is no telephone's."""
    if answer.kind not in ("text", "code"):
        return True
    text = inquiry.passages.text
    return any(
        not phone or not OF_A_REGISTER.search(text, max(0, m.start() - 40), m.start())
        for m in CODE.finditer(text, answer.span.start, answer.span.end)
    )


def _is_echo(inquiry: Inquiry, question: Question, answer: Answer) -> bool:
    """True for a cell that says only what the question gives: which invoice is disputed is not told by "Disputed"."""
    if answer.kind != "text" or question.kinds[0] == "yes_no" or inquiry.document.cell_at(answer.span) is None:
        return False
    said = frozenset(stems_of(_words_of(inquiry, answer)))
    return bool(said) and said <= frozenset(stems_of(question.text))


def _tells_of_units(inquiry: Inquiry, answer: Answer) -> bool:
    """True for a number that only says how one unit converts into another."""
    start, end = answer.quote.span.start, answer.quote.span.end
    words = _words_of(inquiry, answer)
    told = any(words in m.group() for m in CONVERSION.finditer(inquiry.passages.text, start, end))
    return told or CONVERSION.match(words) is not None


# "133 per cent of the estimate, that is to say £1,200,000": the sum is the answer.
COMES_TO = pattern(
    r"[^.;\n]{0,90}?,?\s(?:that\s+is(?:\s+to\s+say)?|i\.e\.|namely|being|which\s+(?:is|comes\s+to|makes)|equal\s+to|amounting\s+to)\s*,?\s+(?:(?:USD|EUR|GBP)\s?|[£$€])\d",
    re.IGNORECASE,
)


def _is_worked_out(inquiry: Inquiry, answer: Answer) -> bool:
    """True for a share behind which stands the sum that it comes to."""
    return answer.finding is None and COMES_TO.match(inquiry.passages.text, answer.span.end) is not None


PER = pattern(r"\b(?:per|for\s+(?:every|each)|(?:in|to|out\s+of)\s+every)\s+\Z", re.IGNORECASE)


def _is_measure_of(inquiry: Inquiry, answer: Answer) -> bool:
    """True for the number that another is told of: the 1,000 of "five spaces per 1,000 square feet"."""
    start = answer.span.start if answer.finding is None else -1
    return start >= 0 and PER.search(inquiry.passages.text, max(0, start - 16), start) is not None


def _has_another_role(inquiry: Inquiry, question: Question, answer: Answer) -> bool:
    """True where somebody is asked for by role, and the answer is one whom the paper only calls by another: "who is the
    guarantor?" is not answered by what the Landlord may ask for.
    """
    asks_role = WHO_IS.match(question.text) or WHICH_OF_A_KIND.match(question.text)
    if answer.kind != "party" or answer.finding is not None or not asks_role:
        return False
    called = answer.span.of(inquiry.passages.text).strip()
    if called not in inquiry.values.roles:
        return False
    ways = {way for idea in question.ideas for way, _ in idea.ways}
    return not any(frozenset(stems_of(called)).issuperset(way) for way in ways)


SMALL_WORDS = (
    "the a an any this such each its of for and or in to no all our your their his her by with as that which on at from"
)
# What may stand before a thing and makes no other sort of it: "the annual fee" is a fee.
NO_SORT = frozenset(
    stems_of(
        "the a an any this such each its total annual full-year half-year year period yearly monthly quarterly weekly maximum minimum new initial further said relevant aggregate gross net additional one two full whole same other first second last final current present agreed fixed of for and or in to per no all our your their his her by with as that which upon on at from"
    )
) | frozenset(SMALL_WORDS.split())


def _of_another_sort(inquiry: Inquiry, question: Question, answer: Answer) -> bool:
    """True for an answer of another sort of the thing: a "retention bonus", a "car allowance", where the bonus for signing or
    the allowance for moving is asked for.
    """
    if answer.kind in ("gap", "yes_no"):
        return False
    sorts, heads = _sort_and_thing(question)
    if not sorts or not heads:
        return False
    label = answer.finding.term.label if answer.finding is not None and answer.finding.term.id != "answer" else ""
    if " or " in label:  # "retention or signing bonus": which of them, the paper says
        label = ""
    told = frozenset(stems_of(f"{answer.quote.quote} {answer.quote.section} {label}"))
    if any(told.issuperset(way) for way in sorts):
        return False
    words = [m.group().lower() for m in WORD.finditer(f"{answer.quote.quote} . {label}")]
    named = [(before, here) for before, here in pairwise(["", *words]) if stem(here) in heads]
    return bool(named) and not any(not before or before in NO_SORT or stem(before) in NO_SORT for before, _ in named)


def _sort_and_thing(question: Question) -> tuple[list[Stems], frozenset[str]]:
    """The ways to name the sort of a thing that is asked for by two words, and the stems of the thing."""
    if len(question.compound) == 2:
        sort, thing = question.compound
        if NO_SORT.issuperset(sort.name):
            return [], frozenset()
        return [w for w, _ in sort.ways], frozenset(w[0] for w, worth in thing.ways if len(w) == 1 and worth >= NAMES)
    thing_ = question.thing
    if thing_ is None or len(thing_.name) != 2 or NO_SORT.issuperset(thing_.name[:1]):
        return [], frozenset()
    if thing_.name not in pairwise(stem(word) for word in WORD.findall(question.text.lower())):
        return [], frozenset()  # "paid for a late delivery" asks for no late payment
    ways = [w for w, worth in thing_.ways if worth >= NAMES]
    return [*ways, thing_.name[:1]], frozenset(thing_.name[1:])


NAMES = 0.7  # how surely another word must name a thing
WORD = pattern(r"[^\W\d_]+")


def _is_named(question: Question, answer: Answer) -> bool:
    """True for a name that the question itself gives: who sold Hill Farm is not Hill Farm."""
    name = stems_of(LEGAL_FORM.sub("", answer.value.name)) if isinstance(answer.value, Party) else ()
    return bool(name) and frozenset(stems_of(question.text)).issuperset(name)


def _names_one(inquiry: Inquiry, question: Question, answer: Answer) -> bool:
    """True for words that name somebody, where one is asked for; a firm or bank by a name that the question does not give."""
    if WHICH_FIRM.search(question.text):
        asked = frozenset(stems_of(question.text))
        parties = [p.value for line in inquiry.matcher.lines.at(answer.span) for p in inquiry.values.parties(line)]
        own = {*inquiry.values.roles.values()}  # a bank that lends is not the company to which it does
        return any(
            isinstance(p, Party) and not asked.issuperset(stems_of(p.name)) and p.name not in own for p in parties
        )
    if WHO_HAS_ROLE.match(question.text) and answer.finding is None:  # "who is the guarantor" wants a name
        said = answer.quote.quote
        parties = [p.value for line in inquiry.matcher.lines.at(answer.span) for p in inquiry.values.parties(line)]
        return any(isinstance(p, Party) and p.name in said for p in parties)
    if answer.finding is not None and answer.finding.term.id != "answer":
        words = _words_of(inquiry, answer)
        return A_PERSON_OR_ROLE.search(words) is not None or any(role in words for role in inquiry.values.roles)
    return SOMEBODY.search(_words_of(inquiry, answer)) is not None


def _words_of(inquiry: Inquiry, answer: Answer) -> str:
    return answer.finding.text if answer.finding is not None else answer.span.of(inquiry.passages.text)
