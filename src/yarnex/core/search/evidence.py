"""What speaks for an answer or against it, as numbers in the order of EVIDENCE: how like a term is to what is asked, what the
line it stands in names, what stands around it, and what the other answers are.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from yarnex.core.document import Cell, Cite, Span, Table
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.search.bands import Limit, day_of_year, label_of_row, within
from yarnex.core.search.cues import (
    change_fit,
    counted_in,
    cue_fit,
    cues_asked,
    cues_said,
    if_not_fit,
    numbered_fit,
    wants_old,
)
from yarnex.core.search.elapsed import elapsed_asked, elapsed_fit, split_year_fit, value_that_holds
from yarnex.core.search.inquiry import Inquiry, Way
from yarnex.core.search.opposites import opposed_to, with_the_other
from yarnex.core.search.question import AUXILIARY, CODE_WORDS, Question
from yarnex.core.search.weighing import EVIDENCE, Answer, likely_there
from yarnex.core.terms.by_words import COMPARED, Idea
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.measures import period_asked, units_asked, units_named
from yarnex.core.terms.variations import applies_from, superseded
from yarnex.core.values import (
    DateValue,
    Duration,
    Money,
    Party,
    Quantity,
    YesNo,
)
from yarnex.core.values.parties import is_organisation
from yarnex.core.words import stem, stems_of
from yarnex.core.words.synonyms import Stems

YEAR = pattern(r"\b(?:19|20)\d\d\b")
WHOLE = frozenset(map(stem, ("total", "altogether", "overall", "aggregate")))
OF_A_SIDE = 0.3  # how much a party's role in a question counts where terms are compared with it
NAMES_PARTY = 0.7  # how surely a word of the question means a party's role
BEFORE_ASKED = pattern(
    r"\b(?:last|previous|prior|earlier|before|comparative|preceding|compared|was\s+it)\b", re.IGNORECASE
)
# "31.5 per cent (2024: 28.4 per cent)"
COMPARED_BEHIND = pattern(r"\s*\((?:[\w ]{0,24}\s)?(?P<year>(?:19|20)\d\d)\s*:")
ASKED_INSTEAD = pattern(r"\((?:you|they|we)\s+(?:had\s+)?(?:asked|called|wished)\s+for\s+\Z", re.IGNORECASE)
NOT_WHOLE = -3.0  # what a number with decimals counts for, as a unit that fits counts 1
HOW_MANY = pattern(r"\bhow\s+many\b", re.IGNORECASE)
OPENING_WORDS = 6  # of a question in which its subject stands
OF_A_PERSON = pattern(r"\b(?:he|she)\b", re.IGNORECASE)
DOES = pattern(r"(?:.{0,24}\b)?(?:may|can|could|must|shall|should|does|do|did|will|would)\s", re.IGNORECASE)
ACTS = pattern(r"\s+(?:may|shall|must|can|is\s+entitled|has\s+the\s+right|agrees|undertakes|will)\b")
SUBJECT_ASKED = pattern(
    r"(?:and\s+|but\s+|so\s+)?(?:may|can|could|must|shall|should|does|do|will|would)\s+the\s+(?P<who>[a-z]{3,})\b",
    re.IGNORECASE,
)
SUBJECT = 48  # characters at the start of a sentence in which its subject stands
COUNTED = frozenset(("each", "for_all"))  # what the head of a column says of the sums below it
OF_ITS_OWN = frozenset(("later", "earlier", "actual"))  # "3 times until 2027 and 2.5 times thereafter"
BALANCES = frozenset(("opening", "closing"))
EXACT = 0.88
ROW_ABOVE = 3  # characters before a gap in which the row above it ends
ONLY = pattern(r"\bonly\b", re.IGNORECASE)  # a sentence that holds for the days that it names, and no others
FAR = 1500  # characters from the answer before, beyond which an answer does not go on with it
VALUED = ("date", "money", "percent", "number", "duration")
NEARLY_AS_LIKE = 0.1
LIKE_EXACT = 0.75  # beside a filled term that names exactly what is asked, others must be as like it as this
QUALIFIERS = frozenset(
    map(stem, ("early", "late", "renew", "extend", "break", "review", "renewal", "extension", "overdue", "additional"))
)  # make another thing of what they stand by


def of_the_party(inquiry: Inquiry, question: Question, answers: list[Answer]) -> tuple[list[Answer], list[Answer]]:
    """The answers with whether their sentence is about another party than the one asked about: it does not name that one,
    or says of another what is asked of that one. "The Tenant may end it" is no answer to "may the landlord end it?".

    Out: what may answer, and what is said of another outright.
    """
    roles = voices_of(inquiry) or {role: (stems_of(role),) for role in inquiry.values.roles}
    ways = {way for idea in question.ideas for way, worth in idea.ways if worth >= NAMES_PARTY}
    asked = [role for role, names in roles.items() if not ways.isdisjoint(names)]
    if not asked and OF_A_PERSON.search(question.text):  # "what does she pay in?"
        asked = [role for role, name in inquiry.values.roles.items() if not is_organisation(name)]
    if not asked and (subject := SUBJECT_ASKED.match(question.text)) is not None:  # "may the bank": by the party's name
        asked = [role for role, name in inquiry.values.roles.items() if stem(subject["who"]) in stems_of(name)]
    if len(asked) != 1 or len(roles) < 2:
        return answers, []
    of_another: list[Answer] = []
    opening = stems_of(" ".join(question.text.split()[:OPENING_WORDS]))
    as_subject = DOES.match(question.text) is not None and any(set(n) & set(opening) for n in roles[asked[0]])
    out = []
    for answer in answers:
        sentence = inquiry.passages.sentence_at(answer.span.start)
        words = sentence.span.of(inquiry.passages.text) if sentence is not None else ""
        named = [(at, role) for role in roles if 0 <= (at := _place_of(role, words)) < SUBJECT]
        others = any(role not in asked for _, role in named)
        first = min(named)[1] if named else ""
        told = answer.quote.quote
        if as_subject and (short := _said_in_short(inquiry, asked[0], answer)) is not None:
            out.append(short)
            continue
        if _place_of(asked[0], told) < 0 and any(
            re.search(rf"\bby\s+(?:the\s+)?{re.escape(r)}\b", told) for r in roles if r not in asked
        ):
            of_another.append(answer)  # what another pays or does
            continue
        if others and (_place_of(asked[0], words) < 0 or (as_subject and first not in asked)):
            evidence = list(answer.evidence)
            if as_subject and _place_of(asked[0], words) < 0 and ACTS.match(words, min(named)[0] + len(first)):
                of_another.append(answer)  # another's right
                continue
            evidence[EVIDENCE.index("other_party")] = 1.0
            answer = replace(answer, evidence=tuple(evidence))
        out.append(answer)
    return out, of_another


def _said_in_short(inquiry: Inquiry, role: str, answer: Answer) -> Answer | None:
    """A yes or no by what the same paragraph says of the party in short: "The Owner may assign; the Hirer may not."."""
    block = inquiry.document.block_at(answer.span.start) if answer.kind == "yes_no" else None
    if block is None or block.kind == "table":
        return None
    text = inquiry.passages.text
    found = re.compile(rf"\b{re.escape(role)}\s+(?:may|shall|can|must|will|does|is)(?P<no>\s+not)?\s*[.;,]").search(
        text, answer.span.start, block.span.end
    )
    if found is None:
        return None
    quote = Cite(inquiry.document, Span(answer.quote.span.start, max(answer.quote.span.end, found.end())))
    return replace(answer, value=YesNo(found["no"] is None), finding=None, quote=quote, span=Span(*found.span()))


# Who speaks and who is spoken to in papers that say "we" and "you" rather than name roles, by the sheet of the paper.
VOICES: dict[str, dict[str, str]] = {
    "insurance": {"we": "insurer underwriter company", "you": "insured policyholder assured"},
    "employment": {"we": "employer company", "you": "employee"},
    "loan": {"we": "lender bank", "you": "borrower customer"},
    "proposal": {"we": "bidder tenderer supplier seller contractor", "you": "customer buyer purchaser client"},
}


def voices_of(inquiry: Inquiry) -> dict[str, tuple[Stems, ...]]:
    """ "we" and "you" with the stems of what each is called, where a paper of a known kind speaks so."""
    voices, text = VOICES.get(inquiry.sheet.name, {}), inquiry.passages.text
    said = [len(re.findall(rf"\b{voice}\b", text, re.IGNORECASE)) for voice in voices]
    if not all(said) or sum(said) < sum(text.count(role) for role in inquiry.values.roles):
        return {}
    return {voice: tuple(stems_of(word) for word in words.split()) for voice, words in voices.items()}


def _place_of(role: str, words: str) -> int:
    """Where a party's role stands in some words; -1 where it does not."""
    if not role.islower():
        return words.find(role)
    found = re.search(rf"\b{role}\b", words, re.IGNORECASE)
    return found.start() if found is not None else -1


def measured(question: Question, answer: Answer) -> Answer:
    """The answer with whether its unit, or the time it is for, is what is asked, and whether it has a value at all."""
    value, names = answer.value, question.stems
    fit = 0.0
    if isinstance(value, Quantity) and A_RATIO.search(question.text) and _per_so_many(answer):
        fit = 1.0
    elif isinstance(value, Quantity) and (wanted := units_named(names) or units_asked(names)):
        fit = 1.0 if value.unit in wanted else -1.0
    elif isinstance(value, Quantity) and value.unit is None and HOW_MANY.search(question.text):
        fit = 0.0 if value.value == int(value.value) and not _is_designator(answer) else NOT_WHOLE
        fit += _of_how_many(question, answer)  # things are counted in whole numbers
        fit += _counts_what_is_asked(question, answer)
    elif isinstance(value, Quantity) and HOW_MANY.search(question.text) and value.unit not in NO_MEASURE:
        fit = 0.0 if names & frozenset(stems_of(str(value.unit))) else NOT_WHOLE  # things are counted, not weighed
    elif isinstance(value, Quantity) and value.unit == "times" and not ASKS_RATIO.search(question.text):
        fit = -1.0
    elif isinstance(value, Money) and (part := _of_how_much(question, answer)):
        fit = part
    elif isinstance(value, Money):
        by_word = BY_PERIOD.search(question.text)  # "the monthly rent in the first year" is asked for by the month
        period = period_asked(stems_of(by_word.group()) if by_word else names)
        if period and value.per:
            fit = 1.0 if value.per.startswith(period) else -1.0
        elif value.per and not names.isdisjoint(WHOLE):
            fit = -1.0
        elif not period and _by_the_one_asked(question, answer):
            fit = 1.0
    elif isinstance(value, Duration) and (counted := HOW_MANY_UNITS.search(question.text)):
        fit = 0.0 if _of_a_size(counted["unit"], value.unit) else -1.0
    elif answer.kind == "code":
        fit = _says_whose_code(question, answer)
    elif isinstance(value, Party) and (asked := question.thing) is not None:
        fit = NAMED_SO_TOO * any(set(way) <= set(stems_of(value.name)) for way, worth in asked.ways if worth == 1)
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("unit_fit")] = fit
    if (
        isinstance(value, Quantity)
        and value.unit is None
        and HOW_MANY.search(question.text)
        and _of_how_many(question, answer) > 0
    ):
        evidence[EVIDENCE.index("outclaimed")] = 0.0  # the word for what is counted stands by the other one
    if isinstance(value, Money) and _of_how_much(question, answer) > 0:
        evidence[EVIDENCE.index("outclaimed")] = 0.0
    text, start = answer.quote.document.text, answer.quote.span.start
    compared = COMPARED.search(text, max(start, answer.span.start - 60), answer.span.start)
    if compared and (compared["year"] or "earlier") not in question.text and not BEFORE_ASKED.search(question.text):
        evidence[EVIDENCE.index("year_off")] = 1.0
    if (
        ASKED_INSTEAD.search(text, max(start, answer.span.start - 40), answer.span.start)
        and "ask" not in question.text.lower()
    ):
        evidence[EVIDENCE.index("year_off")] = 1.0  # "0.8 mg (you asked for 1.0)"
    years = YEAR.findall(question.text)
    beside = COMPARED_BEHIND.match(text, answer.span.end) if years else None
    if beside and beside["year"] in years:
        evidence[EVIDENCE.index("year_off")] = 1.0  # the one in the brackets is that year's
    if years and isinstance(value, DateValue) and value.day is not None:
        evidence[EVIDENCE.index("year_off")] = float(str(value.day.year) not in years)
    gap = answer.evidence[EVIDENCE.index("gap")]
    evidence[EVIDENCE.index("valueless")] = float(value is None and not gap and not _is_formula(answer))
    return replace(answer, evidence=tuple(evidence))


CALLED_SO = 0.6  # how surely a word means what is asked for: a court's claim is a case
A_FORMULA = pattern(
    r"(?:the\s+)?(?:earlier|earliest|later|latest|first)\s+(?:of|to\s+occur)\b|(?:the\s+)?(?:date|day)\s+(?:that\s+is|on\s+which|which\s+is)\b",
    re.IGNORECASE,
)


def _is_formula(answer: Answer) -> bool:
    """True for a term that is told as how its day is found: "the earlier of 60 days after delivery and the day of opening"."""
    return answer.kind == "date" and answer.finding is not None and A_FORMULA.match(answer.finding.text) is not None


NAMED_SO_TOO = 0.4  # a firm's name says what it is: "Which adjusters", "Tarn Adjusters"
BEFORE_CODE = pattern(r"(?P<noun>[A-Za-z]+)(?:\s+(?:no|nr|number|ref|reference))?\.?:?\s*\Z", re.IGNORECASE)


def _says_whose_code(question: Question, answer: Answer) -> float:
    """1 for a number right behind the word for what it is the number of, -1 behind the word for something else."""
    before = BEFORE_CODE.search(answer.quote.document.text, max(0, answer.span.start - 40), answer.span.start)
    if before is None:
        return 0.0
    noun = stems_of(before["noun"])
    own = {i.name for i in question.ideas}
    if noun in own and noun not in CODE_WORDS:
        return 1.0
    if any(way == noun and worth >= CALLED_SO for i in question.ideas for way, worth in i.ways):
        return 0.0
    return -1.0 if OTHER_CODE.fullmatch(before["noun"]) and noun not in own else 0.0


OTHER_CODE = pattern(
    r"policy|invoice|order|claim|ref|reference|case|file|account|contract|job|permit|licen[cs]e|report", re.IGNORECASE
)
ASKS_RATIO = pattern(
    r"\b(?:ratio|times|multiple|cover(?:age)?|leverage|gearing|covenant|debt\s+(?:to|over|may|can|must|compared|is\s+allowed|cover)|ebitda|how\s+(?:many|often))\b",
    re.IGNORECASE,
)
BY_PERIOD = pattern(r"\b(?:year|month|week|dai|quarter|hour)ly\b|\bannual\b", re.IGNORECASE)
HOW_MANY_UNITS = pattern(
    r"\bhow\s+many\s+(?:\w+\s+)?(?P<unit>minute|hour|day|week|month|quarter|year)s\b", re.IGNORECASE
)
SIZES = (("minutes", "hours"), ("days", "weeks", "business_days"), ("months", "quarters", "years"))


def _of_a_size(unit: str, other: str) -> bool:
    """True for units of time in which much the same lengths are counted."""
    return any(f"{unit.lower()}s" in size and other in size for size in SIZES)


A_RATIO = pattern(r"\b(?:ratio|density|for\s+every|per)\b", re.IGNORECASE)
PER_SO_MANY = pattern(
    r"\s+(?:(?!per\b)[a-z]+\s+){0,2}(?:per|for\s+(?:every|each)|(?:in|to|out\s+of)\s+every)\s+\d[\d,.]*(?:\s+(?:square\s+|cubic\s+)?[a-z]+)?"
)


def _per_so_many(answer: Answer) -> bool:
    """True for a number that is told of so many others: "five spaces per 1,000 square feet"."""
    return PER_SO_MANY.match(answer.quote.document.text, answer.span.end) is not None


# "Reason 3: ...", "under clause 4": the number names one of several, and counts none.
DESIGNATES = pattern(
    r"(?:\A|\n|\t)\s*[A-Z][a-z]+\s\Z|\b(?:reason|note|clause|section|paragraph|schedule|article|condition|exclusion|appendix|annex|exhibit|item|lot|stage|phase|part|page|room|bay|unit|level|figure|table|plate|claim|invoice|order|job|no|number)\.?\s\Z",
    re.IGNORECASE,
)
NAMED_SO = pattern(r"\s?[:.)–—-](?=\s)|\(")


def _is_designator(answer: Answer) -> bool:
    """True for a number that names one of several things and counts none."""
    text, place = answer.quote.document.text, answer.span
    before = DESIGNATES.search(text, max(0, place.start - 24), place.start)
    if before is None:
        return False
    opens = before.group()[:1] in "\n\t" or before.start() == 0
    return not opens or NAMED_SO.match(text, place.end) is not None


NO_MEASURE = ("times", "spaces", None)
# "37 of the 41 employees": the first tells of some, the second of all.
OF_ALL = pattern(
    r"\s+(?:out\s+)?of\s+(?:(?:the|its|our|their|these|those|all|some)\s+)?(?:[\w’']+['’]s?\s+)?\d", re.IGNORECASE
)
SOME_OF = pattern(
    r"\b\d[\d,]*\s+(?:out\s+)?of\s+(?:(?:the|its|our|their|these|those|all|some)\s+)?(?:[\w’']+['’]s?\s+)?\Z",
    re.IGNORECASE,
)

OF_THE_SUM = pattern(
    r"\s+(?:out\s+)?of\s+(?:the|its|our|their|a\s+total\s+of)\s+(?:(?:[a-z]+\s+){1,3}of\s+)?(?:[A-Z]{3}\s|[£$€])?\d"
)
SOME_OF_THE_SUM = pattern(
    r"\d[\d.,]*\s?(?:million|billion|thousand|m|bn|k)?\s+(?:out\s+)?of\s+(?:the|its|our|their|a\s+total\s+of)\s+(?:(?:[a-z]+\s+){1,3}of\s+)?\Z"
)


OF_ALL_OF_THEM = pattern(
    r"\bhow\s+many\s+(?:[\w’'-]+\s+){1,3}(?:are|were)\s+there\b(?:\s+(?:in\s+(?:all|issue|total)|altogether))?\W*\Z",
    re.IGNORECASE,
)


def _of_the_whole(question: Question, answer: Answer, whole: re.Pattern[str], some: re.Pattern[str]) -> float:
    """1 for the first of two values of which the second is the whole, -1 for the second; the other way round where a
    question asks for all of it; 0 where neither is part of the other.

    whole: what stands behind the first one. some: what stands before the second.
    """
    text, place = answer.quote.document.text, answer.span
    before = max(0, place.start - 40)
    fit = float(whole.match(text, place.end) is not None) or -float(some.search(text, before, place.start) is not None)
    return -fit if not WHOLE.isdisjoint(question.stems) or OF_ALL_OF_THEM.search(question.text) else fit


BY_ONE_ASKED = pattern(r"\b(?:per|an?|each|every|by\s+the)\s+(?P<one>[a-z]{2,}(?:\s+[a-z]{2,})?)", re.IGNORECASE)
BY_ONE_SAID = pattern(
    r"\s*(?:\([^)]{1,20}\)\s*)?(?:per|/|an?|(?:for\s+)?(?:each|every))\s*(?P<one>[a-z]{2,}(?:\s+[a-z]{2,})?)",
    re.IGNORECASE,
)


def _by_the_one_asked(question: Question, answer: Answer) -> bool:
    """True for a sum by the thing that a question names one of: "for a bale" and "£7 per bale"."""
    text = answer.quote.document.text
    end = answer.quote.span.end
    words = answer.finding.text if answer.finding is not None else ""
    start = text.find(words, answer.span.start, answer.span.end) if words else answer.span.start
    at = start + len(words) if words else answer.span.end
    said = [*BY_ONE_SAID.finditer(text, start, at), BY_ONE_SAID.match(text, at, max(at, end))]
    by = {stems_of(m["one"])[:1] for m in said if m is not None}
    return any(stems_of(m["one"])[:1] in by for m in BY_ONE_ASKED.finditer(question.text))


def _of_how_much(question: Question, answer: Answer) -> float:
    """How far a sum is the part of another that is asked for: "131 million of the 160 million"."""
    return _of_the_whole(question, answer, OF_THE_SUM, SOME_OF_THE_SUM)


# "31 cones: 19 of lambswool and twelve of mohair": the sum of the parts comes first.
THEN_PARTS = pattern(
    r"(?:\s+[a-z][\w’'-]*){1,3}(?::|,\s+of\s+which)\s+(?:\d|two|three|four|five|six|seven|eight|nine|ten)"
)
A_PART = pattern(r"\d(?:\s+[a-z][\w’'-]*){1,3}(?::|,\s+of\s+which)\s[^.;:]{0,40}\Z")
IN_PARTS = 0.5


SAID_OF_IT = 16  # characters behind a number in which is said what is counted


def _says_it(question: Question, here: str, elsewhere: str) -> bool:
    """True where the words here name the last thing that a question asks for, and those elsewhere do not: "how many are stained?"."""
    last = next((i for i in reversed(question.ideas) if i.weight >= 1.0), None)
    if last is None:
        return False
    ways = [way for way, worth in last.ways if worth >= CALLED_SO]
    told, other = frozenset(stems_of(here)), frozenset(stems_of(elsewhere))
    return any(told.issuperset(w) for w in ways) and not any(other.issuperset(w) for w in ways)


def _of_how_many(question: Question, answer: Answer) -> float:
    """How far a number is the one of two that is asked for, where the second tells of how many, or the first of parts."""
    text, place = answer.quote.document.text, answer.span
    if (parts := THEN_PARTS.match(text, place.end)) is not None:
        return (
            -IN_PARTS
            if _says_it(question, text[parts.end() : parts.end() + SAID_OF_IT], text[place.end : parts.end()])
            else IN_PARTS
        )
    if (part := A_PART.search(text, max(0, place.start - 60), place.start)) is not None:
        return IN_PARTS if _says_it(question, text[place.end : place.end + SAID_OF_IT], part.group()) else -IN_PARTS
    return _of_the_whole(question, answer, OF_ALL, SOME_OF)


COUNTED_THING = pattern(
    rf"\bhow\s+many\s+(?P<things>(?:(?!{AUXILIARY}\b)[\w’'-]+\s+){{1,4}}?){AUXILIARY}\b", re.IGNORECASE
)
# What a number counts: the words behind it up to a preposition, a verb or the end of the phrase.
BEHIND_NUMBER = pattern(
    r"(?:\s+\(\d+\))?(?P<things>(?:\s+(?!(?:of|in|on|at|for|to|by|from|per|and|or|with|a|an|the|is|are|was|were|have|has|had|will|may|must|shall|that|which|who)\b)[a-z][\w’'-]*){1,3})"
)
COUNTS_IT = 0.3  # how much it speaks for a number that it counts what is asked
COUNTS_OTHER = 0.4  # and against one that counts other things


def _counts_what_is_asked(question: Question, answer: Answer) -> float:
    """How far the words behind a number are what a question "how many ..." counts; less than 0 where they are another thing."""
    asked, told = COUNTED_THING.search(question.text), BEHIND_NUMBER.match(answer.quote.document.text, answer.span.end)
    if asked is None or told is None:
        return 0.0
    head = stems_of(asked["things"])[-1:]
    ways = {
        way for idea in question.ideas if head and head[0] in idea.name for way, worth in idea.ways if worth >= 0.75
    }
    if not ways:
        return 0.0
    stems = stems_of(told["things"])
    if any(set(way) <= set(stems) for way in ways):
        return COUNTS_IT
    return -COUNTS_OTHER if told["things"].rstrip().endswith("s") else 0.0


def of_another_thing(inquiry: Inquiry, parts: Sequence[Idea], answer: Answer) -> Answer:
    """The answer with how far its place lacks a part of the thing asked for: "relocation" where an allowance is for a car.

    parts: those of a thing asked for by several words, see `Question.compound`.
    """
    if not parts or answer.kind == "yes_no":
        return answer
    term = answer.finding.term if answer.finding is not None else None
    label = (
        frozenset(stems_of(" ".join((term.label, *term.asked))))
        if term is not None and term.id != "answer"
        else frozenset()
    )
    span = answer.quote.span
    lines = inquiry.matcher.lines.at(span)
    if answer.kind == "gap":  # in a form the row above says whose telephone it is
        lines = [*lines, *inquiry.matcher.lines.at(Span(max(0, span.start - ROW_ABOVE), max(1, span.start - 1)))]
    named = []
    for part in parts:
        by_label = max((worth for way, worth in part.ways if label.issuperset(way)), default=0.0)
        named.append(by_label or max((inquiry.matcher.named_at(line, part) for line in lines), default=0.0))
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("other_thing")] = 1.0 - min(named)
    return replace(answer, evidence=tuple(evidence))


# "All prices exclude value added tax": said once, for all sums of the paper.
TAX_OF_ALL = pattern(
    r"\b(?:all\s+(?:the\s+)?)?(?:amounts|prices|sums|figures|fees|rates|charges|costs)\b[^.;\n]{0,60}\b(?:(?P<out>leave\s+out|do\s+not\s+include|exclud\w+|exclusive\s+of|net\s+of|without|before|plus)|includ\w+|inclusive\s+of)\s+(?:any\s+|all\s+)?(?:vat|gst|value\s+added\s+tax|goods\s+and\s+services\s+tax|sales\s+tax|tax)\b",
    re.IGNORECASE,
)
SAYS_TAX = pattern(r"\b(?:vat|gst|tax)\b", re.IGNORECASE)


def _of_all_sums(inquiry: Inquiry, question: Question, answer: Answer, near: str) -> str:
    """What the paper says of tax in all its sums, for a sum beside which nothing is said of it; "" where it is not asked."""
    if answer.kind != "money" or not SAYS_TAX.search(question.text) or SAYS_TAX.search(near):
        return ""
    told = TAX_OF_ALL.search(inquiry.passages.text)
    return "" if told is None else "excluding tax" if told["out"] else "including tax"


RATE_HEAD = pattern(r"\b(?:rate|unit|price)s?\b(?!\s+for)", re.IGNORECASE)
AMOUNT_HEAD = pattern(r"\b(?:amount|total|sum|value|extended)s?\b", re.IGNORECASE)
BESIDE = 50  # letters on each side of a value that say which of several it is


ASKS_PLAINLY = pattern(
    r"(?:and\s+)?what\s+(?:is|are|was|were)\s+(?:the|its|their|our)\b(?!.*\b(?:limit|cap|ceiling|floor|threshold|target|covenant|requirement|allowance)s?\b)",
    re.IGNORECASE,
)
BOUND_UNASKED = -0.3  # "what is the commission": that it "shall not be less than" a sum tells it less well
BOUNDS = frozenset(("least", "most"))
BOUNDED = ("money", "percent", "number", "duration")


def as_bounded(inquiry: Inquiry, question: Question, answer: Answer) -> Answer:
    """The answer, or where the most or the least is asked for and its own value is neither, the one value of its kind in the
    same sentence that is: "5% a week, up to 30%" gives at most 30%.
    """
    asked = cues_asked(question.text) & BOUNDS
    at = place_of_value(inquiry, answer)
    sentence = inquiry.passages.sentence_at(answer.span.start)
    if len(asked) != 1 or answer.kind not in BOUNDED or at is None or sentence is None:
        return answer
    text, span = inquiry.passages.text, sentence.span
    if not cues_said(text, at, span.start, span.end).isdisjoint(SAYS_A_BOUND):
        return answer
    bounds = [
        f for f in inquiry.passages.values_in(answer.kind, span)
        if not f.span.overlaps(at) and asked & cues_said(text, f.span, span.start, span.end)
    ]  # fmt: skip
    if len(bounds) != 1 or bounds[0].span.start < at.start:
        return answer
    told = f"of “{on_one_line(span.of(text))}” what bounds it"
    return replace(
        answer, value=bounds[0].value, span=bounds[0].span, quote=Cite(inquiry.document, span), finding=None, working=(told,)
    )  # fmt: skip


SAYS_A_BOUND = frozenset(("least", "most", "limit", "threshold", "under"))


def place_of_value(inquiry: Inquiry, answer: Answer) -> Span | None:
    """Where the value of an answer stands; None for what is worked out."""
    if answer.finding is None:
        return answer.span
    words = answer.finding.text
    at = inquiry.passages.text.find(words, answer.span.start, answer.span.end) if words else -1
    return Span(at, at + len(words)) if at >= 0 and answer.finding.state != "computed" else None


def cued(inquiry: Inquiry, question: Question, answer: Answer) -> Answer:
    """The answer with what the words right around its value say of it: the least or the most, a start, the new one."""
    if answer.value is None or answer.kind in ("text", "list", "schedule", "yes_no", "gap"):
        return answer
    text, value = inquiry.passages.text, place_of_value(inquiry, answer)
    if value is None:
        return answer
    sentence = inquiry.passages.sentence_at(value.start)
    cell = inquiry.document.cell_at(value)
    around = cell[1].span if cell is not None else sentence.span if sentence is not None else value
    row = label_of_row(inquiry.document, value)
    said = cues_said(text, value, around.start, around.end) - BALANCES
    if cell is not None and not WHOLE.isdisjoint(stems_of(row.split(" – ")[0])):
        said |= {"whole"}
    head = " ".join(column_path(*cell, text)) if cell is not None else ""
    for label in (head, row.split(" – ")[0]) if cell is not None else ():
        said |= cues_said(label, Span(len(label), len(label)), 0, len(label)) & BALANCES
    if head and not said & COUNTED:
        said |= cues_said(head, Span(len(head), len(head)), 0, len(head)) & COUNTED
        if not said & COUNTED:
            said |= {"each"} if RATE_HEAD.search(head) else {"for_all"} if AMOUNT_HEAD.search(head) else frozenset()
    asked = cues_asked(question.text)
    fit = cue_fit(asked, said, answer.kind)
    if (
        not fit
        and not asked & BOUNDS
        and said & BOUNDS
        and not cues_asked(question.text)
        and ASKS_PLAINLY.match(question.text)
    ):
        fit = BOUND_UNASKED
    change = change_fit(question.text, text, value, around.start, around.end)
    if not change and answer.finding is None:
        old = superseded(inquiry.passages, around, value)
        if old or applies_from(inquiry.passages, value) is not None:
            change = 1.0 if old is wants_old(question.text) else -1.0
    if_not = if_not_fit(question.text, text, value, around.start)
    if if_not > 0:  # what would be but for the change is what was before it
        change = 1.0
    opening = row.split(" – ")[0]
    near = text[max(around.start, value.start - BESIDE) : min(around.end, value.end + BESIDE)]
    told = {
        "opposed": float(
            opposed_to(question.text, f"{row} {head} {near} {_of_all_sums(inquiry, question, answer, near)}")
            or with_the_other(question.text, text[value.end : around.end], text[around.start : value.start])
            or _beyond_it(question.text, opening)
            or not _as_far_ahead(question, f"{row} {head} {around.of(text)}")
        ),
        "cue_fit": fit,
        "change": change,
        "if_not": if_not,
        "numbered": numbered_fit(question.text, f"{row} {around.of(text)}", opening),
    }
    evidence = list(answer.evidence)
    if (
        cell is not None
        and not question.leans
        and told["numbered"] == 1.0
        and answer.kind in ("money", "percent", "number")
    ):
        heads = " ".join(" ".join(column_path(cell[0], c, text)) for c in cell[0].row_cells(cell[1].row))
        if counted_in(question.text, heads, opening):
            evidence[EVIDENCE.index("in_range")] = 1.0
    if cell is not None and answer.finding is None and _is_comparative(question, *cell, text):
        evidence[EVIDENCE.index("year_off")] = 1.0
    if asked & said & OF_ITS_OWN:
        evidence[EVIDENCE.index("outclaimed")] = 0.0  # the word for it stands by the other of the two
    for name, amount in told.items():
        evidence[EVIDENCE.index(name)] = amount
    return replace(answer, evidence=tuple(evidence))


def _is_comparative(question: Question, table: Table, cell: Cell, text: str) -> bool:
    """True for a value in the second of two columns of years, the later one first, where no earlier time is asked about."""
    if YEAR.search(question.text) or BEFORE_ASKED.search(question.text):
        return False
    years = {
        c.column: found[-1]
        for c in table.row_cells(cell.row)
        if (found := YEAR.findall(" ".join(column_path(table, c, text))))
    }
    columns = sorted(years)
    return len(columns) == 2 and years[columns[0]] > years[columns[1]] and cell.column == columns[1]


BEYOND = r"over|above|more\s+than|longer\s+than|greater\s+than|beyond|exceeding"
UP_TO = r"up\s+to|under|below|less\s+than|within|not\s+(?:over|above|exceeding|more\s+than)"
A_MEASURE = r"\s+(?P<much>[£$€]?\d[\d.,]*\s*[a-z]*)"
SIDE_OF = tuple(pattern(rf"(?<!not\s)\b(?:{words}){A_MEASURE}", re.IGNORECASE) for words in (BEYOND, UP_TO))


def _beyond_it(question: str, row: str) -> bool:
    """True for a row on the other side of a measure than a question: "over 100 miles", "up to 100 miles"."""
    asked = [{m["much"].lower() for m in side.finditer(question)} for side in SIDE_OF]
    told = [{m["much"].lower() for m in side.finditer(row)} for side in SIDE_OF] if any(asked) else []
    return bool(told) and any(asked[i] & told[1 - i] and not asked[i] & told[i] for i in (0, 1))


# "What do they guide to?": what has come out is no answer.
AHEAD_ASKED = pattern(r"\b(?:guid(?:e|es|ed|ing|ance)|forecasts?|outlook)\b", re.IGNORECASE)
AHEAD_SAID = pattern(
    r"\b(?:guid(?:e|es|ed|ing|ance)|forecasts?|outlook|expect\w*|anticipat\w*|targets?|targeting|plan(?:s|ned)?|budget\w*|aims?|will|shall|should|would|intend\w*|project(?:s|ed|ions?)|estimate[sd]?|next|ahead|coming|this\s+(?:financial\s+)?year|likely|medium[-\s]term|see(?:s|ing)?|looking|hope[sd]?)\b"
    r"|\b20\d\d\s?E\b|\bE\b|[’']ll\b",
    re.IGNORECASE,
)


def _as_far_ahead(question: Question, words: str) -> bool:
    """False where guidance is asked for and the words around a value look ahead to nothing."""
    return not AHEAD_ASKED.search(question.text) or AHEAD_SAID.search(words) is not None


def as_amended(question: Question, answers: Sequence[Answer]) -> list[Answer]:
    """The answers with what an amendment makes of them: the value before and the one after, each for its own question."""
    wanted = wants_old(question.text)
    place = EVIDENCE.index("change")
    amended = [
        a for a in answers if a.finding is not None and a.finding.state == "amended" and len(a.finding.cites) > 1
    ]
    if not amended:
        return list(answers)
    out = []
    for answer in answers:
        new = any(answer is a for a in amended)
        before = any(
            answer.kind == a.kind and any(c.span.overlaps(answer.span) for c in a.finding.cites[1:] if a.finding)
            for a in amended
            if a.finding is not None and not new
        )
        if new or before:
            evidence = list(answer.evidence)
            evidence[place] = 1.0 if before is wanted else -1.0
            answer = replace(answer, evidence=tuple(evidence))
        out.append(answer)
    return out


def in_band(inquiry: Inquiry, question: Question, answer: Answer, asked: list[tuple[str, Limit, Span]]) -> Answer:
    """The answer with whether the row it stands in holds for a day, sum or share that the question names."""
    if answer.finding is not None and answer.finding.state == "computed":
        return answer  # worked out of several rows
    day = day_of_year(question.text, inquiry.document, answer.span) if not question.leans else None
    counted = [("date", day, Span(0, 0))] if day is not None else []
    row = label_of_row(inquiry.document, answer.span)
    fits = (
        within([*asked, *counted], row)
        or elapsed_fit(elapsed_asked(question.text), row)
        or split_year_fit(question.text, row)
    )
    sentence = inquiry.passages.sentence_at(answer.span.start) if not fits else None
    days = [a for a in asked if a[0] in ("date", "month")] if answer.kind not in ("date", "time") else []
    if sentence is not None and days:
        words = sentence.span.of(inquiry.passages.text)
        fits = within(days, words)
        if fits < 0 and not ONLY.search(words):
            fits = 0.0
    if not fits:
        return answer
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("in_range")] = fits
    return replace(answer, evidence=tuple(evidence))


def that_hold_then(inquiry: Inquiry, question: Question, answers: Sequence[Answer]) -> list[Answer]:
    """The answers; of a sentence that gives a share or sum for each of several times after a start, only the one that holds
    when the question asks.
    """
    text, out = inquiry.passages.text, []
    taken: list[Span] = []
    for answer in answers:
        sentence = inquiry.passages.sentence_at(answer.span.start)
        if answer.finding is not None or answer.kind not in ("percent", "money") or sentence is None:
            out.append(answer)
            continue
        values = sorted(inquiry.passages.values_in(answer.kind, sentence.span), key=lambda f: f.span)
        place = value_that_holds(inquiry.passages, question.text, sentence.span, [f.span for f in values])
        if place is None:
            out.append(answer)
        elif place not in taken:
            taken.append(place)
            value = next(f.value for f in values if f.span == place)
            evidence = list(answer.evidence)
            for name, amount in (("in_range", 1.0), ("outclaimed", 0.0), ("second", 0.0)):
                evidence[EVIDENCE.index(name)] = amount
            quote = Cite(inquiry.document, sentence.span)
            told = f"of “{on_one_line(sentence.span.of(text))}” what holds then"
            out.append(replace(answer, value=value, span=place, quote=quote, evidence=tuple(evidence), working=(told,)))
    return out


def near_the_earlier(inquiry: Inquiry, earlier: Sequence[Answer], answer: Answer) -> Answer:
    """The answer with how near it stands to what answers the question that it leans on, as surely as that one is answered."""
    there, here = earlier[0].quote.span, answer.quote.span
    apart = max(0, here.start - there.end, there.start - here.end)
    block = inquiry.document.block_at(there.start)
    near = 1.0 if apart == 0 or (block is not None and block.span.overlaps(here)) else max(0.0, 1 - apart / FAR) / 2
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("follows")] = near * likely_there(earlier)
    return replace(answer, evidence=tuple(evidence))


BY_EITHER = pattern(r"\b(?:either|both|each)\s+(?:side|party|parties|of\s+them)\b|\bby\s+either\b", re.IGNORECASE)


def beside_the_earlier(
    inquiry: Inquiry, question: Question, earlier: Answer, answers: Sequence[Answer]
) -> list[Answer]:
    """The answers; to "and for a depot?" the value that answered the question before counts less where another of its kind stands
    beside it, of "£500,000 any one vehicle and £4 million any one location" the second, or where its line names no depot.
    """
    there = place_of_value(inquiry, earlier)
    if there is None or not question.elliptical or earlier.kind not in VALUED:
        return list(answers)
    sentence = inquiry.passages.sentence_at(there.start)
    around = earlier.quote.span if sentence is None else sentence.span
    if BY_EITHER.search(around.of(inquiry.passages.text)):
        return list(answers)  # the same of both
    places = [place_of_value(inquiry, a) if a.kind == earlier.kind else None for a in answers]
    beside = any(p is not None and around.overlaps(p) and not there.overlaps(p) for p in places)
    own = [i for i in question.ideas if not i.carried and i.weight >= 1.0]
    said = any(
        inquiry.matcher.named_at(line, i) >= NAMES_PARTY for i in own for line in inquiry.matcher.lines.at(there)
    )
    if not beside and (said or not own):
        return list(answers)
    out = []
    for answer, place in zip(answers, places, strict=True):
        if place is not None and there.overlaps(place):
            evidence = list(answer.evidence)
            evidence[EVIDENCE.index("outclaimed")] = 1.0
            answer = replace(answer, evidence=tuple(evidence))
        out.append(answer)
    return out


def by_its_name(question: Question, answers: list[Answer]) -> list[Answer]:
    """The answers without lines that share one word with "who gives the information?", where a term is just what it asks for."""
    alike, exact = EVIDENCE.index("alike"), max((a.evidence[EVIDENCE.index("alike")] for a in answers), default=0.0)
    if len(question.ideas) > 1 or question.kinds[0] != "party" or exact <= EXACT:
        return answers
    kinds = {a.kind for a in answers if a.finding is not None and a.evidence[alike] > EXACT}
    return [a for a in answers if a.finding is not None or a.kind not in kinds]


def beside_each_other(answers: list[Answer], in_vain: float) -> list[Answer]:
    """Answers with how far a likelier term outdoes them, and how far a term like it was sought in vain."""
    alike, outdone, vain, exact = (EVIDENCE.index(n) for n in ("alike", "outdone", "in_vain", "exact"))
    best = max((a.evidence[alike] for a in answers), default=0.0)
    if any(
        a.evidence[alike] > EXACT and a.finding is not None for a in answers
    ):  # what is merely like it is another thing
        answers = [a for a in answers if a.finding is None or a.evidence[alike] >= LIKE_EXACT]
    elif in_vain > EXACT:  # what was sought in vain is not what is merely like it
        other = [
            a
            for a in answers
            if a.finding is not None and a.kind not in ("gap", "code") and a.evidence[alike] < in_vain - NEARLY_AS_LIKE
        ]
        answers = [a for a in answers if not any(a is o or (a.kind == o.kind and a.value == o.value) for o in other)]
    places = [a.quote.span for a in answers if best and a.evidence[alike] == best]
    out = []
    for answer in answers:
        evidence = list(answer.evidence)
        there = any(answer.quote.span.overlaps(place) for place in places)
        evidence[outdone] = 0.0 if there else max(0.0, best - evidence[alike])
        evidence[vain] = max(0.0, in_vain - max(best, evidence[alike]))
        evidence[exact] = float(evidence[alike] > EXACT)
        out.append(replace(answer, evidence=tuple(evidence)))
    return out


COMPETE = ("money", "percent", "duration")
# What may as well be a sum as a share, or a length of time.
OF_EITHER = pattern(
    r"\b(?:fees?|charges?|penalt(?:y|ies)|caps?|limits?|ceiling|retention|damages|commission|bonus|discount|rebate|excess|deductible|deposit|levy|margin|uplift|premium|contribution|allowance|compensation)\b",
    re.IGNORECASE,
)


def competing(question: Question, kind: str) -> tuple[str, ...]:
    """The kinds of values among which what is asked for may go with one or the other: a fee is a sum or a share."""
    if kind not in COMPETE or not OF_EITHER.search(question.text):
        return (kind,)
    return (kind, *(k for k in question.kinds if k in COMPETE and k != kind))


def where_it_stands(inquiry: Inquiry, question: Question, kind: str, cite: Span, words: str) -> dict[str, float]:
    """What the line in which an answer of a term or a list stands says of the question."""
    at = inquiry.passages.text.find(words, cite.start, cite.end) if words else -1
    finder = inquiry.values.any_of(competing(question, kind)) if kind in VALUED else None
    hit = inquiry.matcher.at(question.ideas, cite, Span(at, at + len(words)) if at >= 0 else None, finder)
    if hit is None:
        return {}
    return {
        "its_score": min(hit.score, 1.4), "its_coverage": hit.coverage, "its_missing": min(4.0, len(hit.missing)),
        "its_own": hit.own, "its_rarest": hit.rarest, "its_pairs": hit.pairs, "outclaimed": hit.outclaimed, "cell": float(hit.line.kind == "cell"),
    }  # fmt: skip


class Likeness:
    """How like a question is to the names of terms, to everyday questions for them and to labels, 0 to 1."""

    def __init__(self, inquiry: Inquiry, ideas: Sequence[Idea], thing: Idea | None = None) -> None:
        """thing: what must be named, where the other ideas are those of the question before."""
        self.weights = [telling(inquiry, i) for i in ideas]
        self.total = sum(self.weights) or 1.0
        self.thing = next((place for place, idea in enumerate(ideas) if idea == thing), None)
        self.ways: dict[str, list[tuple[int, Stems, float]]] = {}  # by their first word
        for place, idea in enumerate(ideas):
            for way, worth in idea.ways:
                self.ways.setdefault(way[0], []).append((place, way, worth))

    def to_term(self, ways: Sequence[Way]) -> float:
        """To the likest of some ways to ask for a term."""
        return max((worth * self.to_label(way) for way, worth in ways), default=0.0)

    def to_label(self, label: frozenset[str]) -> float:
        """How far the ideas of the question and the words of a label are the same: both shares, the lesser counting more."""
        used: set[str] = set()
        best: dict[int, float] = {}
        for word in label:
            for place, way, worth in self.ways.get(word, ()):
                if label.issuperset(way):
                    used.update(way)
                    best[place] = max(best.get(place, 0.0), worth)
        if not used or (self.thing is not None and self.thing not in best):
            return 0.0
        covered = sum(self.weights[place] * worth for place, worth in sorted(best.items()))
        other = 0.75 if (label - used) & QUALIFIERS else 1.0
        return other * covered / self.total * (0.4 + 0.6 * len(used) / len(label))


def evidence_of(question: Question, kind: str, rank: int, **given: float) -> tuple[float, ...]:
    """The evidence for an answer as numbers, in the order of EVIDENCE."""
    given |= {
        "rank": float(rank), "yes_no": float(kind == "yes_no"), "unsure": float(not question.sure), "text": float(kind in ("text", "list")),
        "text_for_value": float(kind in ("text", "list") and question.sure and question.kinds[0] not in ("text", "list")), "one": 1.0,
    }  # fmt: skip
    return tuple(given.get(name, 0.0) for name in EVIDENCE)


def telling(inquiry: Inquiry, idea: Idea) -> float:
    """How much an idea tells of a term: which side of the paper it concerns its name seldom says."""
    of_a_side = any(worth >= NAMES_PARTY and way in inquiry.sides for way, worth in idea.ways)
    return inquiry.matcher.weight(idea) * (OF_A_SIDE if of_a_side else 1.0)
