"""A question asked of one document: the terms of its sheet and all its lines, weighed against each other.

In: a `Question` and an `Inquiry` (a document made ready to be asked). Out: findings, best first; `not_found` with the
nearest mentions where nothing answers.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from decimal import Decimal
from functools import cached_property
from typing import TYPE_CHECKING

from yarnex.core.document import Cite, Document, Span
from yarnex.core.search.bands import Limit, label_of_row, measures_in, within
from yarnex.core.search.cues import change_fit, cue_fit, cues_asked, cues_said, if_not_fit, numbered_fit
from yarnex.core.search.from_lists import Offer, of_bills, of_dates
from yarnex.core.search.limits import within_limit
from yarnex.core.search.question import Question
from yarnex.core.search.roster_model import RosterItem
from yarnex.core.search.weighing import EVIDENCE, Answer, likely_there, weighed
from yarnex.core.terms import Finding, Sheet, Term, abstract
from yarnex.core.terms.abstract import Abstract, sheet_for
from yarnex.core.terms.by_words import Hit, Idea, Matcher, matcher_of
from yarnex.core.terms.candidates import cut, list_items, on_one_line, quote_around, shortened
from yarnex.core.terms.computed import ENDS, LENGTHS, NON_RENEWAL, STARTS
from yarnex.core.terms.conditions import condition_of
from yarnex.core.terms.identity import identify
from yarnex.core.terms.lines import Line
from yarnex.core.terms.measures import period_asked, units_asked, units_named
from yarnex.core.terms.model import quoted
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import BLACKED_OUT, BLANK, Passages
from yarnex.core.terms.values_in_lines import LineValues, of_type
from yarnex.core.values import (
    DateValue,
    Duration,
    Found,
    Money,
    Party,
    Percent,
    Quantity,
    Text,
    Value,
    YesNo,
    same_value,
)
from yarnex.core.values.numbers import NUMBER, ORDINAL_WORDS, WORDS, read_words
from yarnex.core.words import stem, stems_of

if TYPE_CHECKING:
    from yarnex.core.costs import Bill
    from yarnex.core.dates import DatedItem
    from yarnex.core.figures import Figure

ENOUGH = 0.42  # an answer less likely there is none; set on measured cases, see bench/answers.py
YEAR = re.compile(r"\b(?:19|20)\d\d\b")
# What may be below nothing; every other sum in brackets is one that the statement takes off.
SIGNED = re.compile(
    r"\b(?:net|balance|profit|loss|result|change|movement|surplus|deficit|difference|flow|gain|swing|variance|adjustment|correction)\b",
    re.IGNORECASE,
)
RANGE_TO = re.compile(
    rf"(?:\bbetween\s+(?:{NUMBER})(?:\s+[a-z]+)?\s+and\s+|(?<![\d.,])[£$€]?\s?(?:{NUMBER})\s*(?:%|[a-z]+)?\s*(?:–|—|\bto\b|-)\s*)\Z",
    re.IGNORECASE,
)
# "is raised from 10 to 12 weeks" tells of two values and is no range.
CHANGED_FROM = re.compile(
    r"\b(?:increas|reduc|rais|lower|chang|amend|extend|cut|r[io]se|fell|fall|grew|grow|shorten|move|went|go(?:es)?|up|down)\w*\b[^.;]{0,60}\bfrom\s*\Z",
    re.IGNORECASE,
)
SMALL_MONEY = ("pence", "cents", "penny", "p")
WHOLE = frozenset(map(stem, ("total", "altogether", "overall", "aggregate")))
OF_A_SIDE = 0.3  # how much a party's role in a question counts where terms are compared with it
NAMES_PARTY = 0.7  # how surely a word of the question means a party's role
SUBJECT = 48  # characters at the start of a sentence in which its subject stands
NEAR_SHOWN = 3
AS_WELL = 3.0  # how much less worth, in the model's own measure, another place may be that is cited for the same value
MOST_PLACES = 3
LEAST_ALIKE = 0.3
SURE_YES = 0.5  # the same for a yes or no read from a passage: any sentence has one or the other in it
GAP_NAMED = 0.5  # share of what is asked for that must stand by a blank or blacked-out place
EXACT = 0.95
LIKE_EXACT = 0.75  # beside a filled term that names exactly what is asked, others must be as like it as this
QUALIFIERS = frozenset(
    map(stem, ("early", "late", "renew", "extend", "break", "review", "renewal", "extension", "overdue", "additional"))
)  # make another thing of what they stand by
DECIDES = 0.6  # how like a term must be to a yes-or-no question for its being there to answer it
# "May we …?" asks what is allowed: that a sum or a share stands there does not say.
OF_A_RIGHT = re.compile(
    r"(?:and\s+|but\s+|so\s+)?(?:may|can|could|must|shall|should|would|will|does|do|did)\b", re.IGNORECASE
)
UNRIVALLED = ("text", "list", "party", "yes_no")  # what two places say in different words is no conflict
RIVAL = 0.5  # how likely a second, different answer must be beside the best to be told, or to make a conflict
BASES = frozenset(
    (
        *STARTS,
        *LENGTHS,
        *ENDS,
        *NON_RENEWAL,
        "break_date",
        "break_notice",
        "base_rent",
        "floor_area",
        "rent_schedule",
        "rent_start",
        "minimum_purchase_schedule",
        "payment_schedule",
        "repayment_schedule",
    )
)
CLOCK = re.compile(
    r"\b(?:[01]?\d|2[0-3]):[0-5]\d\s*(?:[ap]\.?\s?m\.?)?(?![\d:])|\b(?:1?\d|2[0-3])\.[0-5]\d\s*[ap]\.?\s?m\.?"
    r"|(?:(?<=\b(?:at|by|to)\s)|(?<=\b(?:from|till|says|said)\s)|(?<=\b(?:about|after|until)\s)|(?<=\b(?:around|before)\s))(?:[01]?\d|2[0-3])\.[0-5]\d(?!\d|:|\s?[%x×])"
    r"|\b\d{1,2}\s*[ap]\.?\s?m\b\.?|\b(?:noon|midnight)\b"
    r"|\b(?:five|ten|quarter|twenty|twenty-five|half)(?:\s+minutes)?\s+(?:to|past)\s+(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b",
    re.IGNORECASE,
)
OFTEN = re.compile(
    rf"\bevery\s+(?:(?P<n>{ORDINAL_WORDS}|{WORDS})\s+)?(?P<unit>day|week|month|quarter|year|hour)s?\b|\b(?:once|twice|at least once)\s+(?:a|an|each|every|in every|in each)\s+[\w ]{{3,20}}?(?=[,.;]|\s(?:and|on|in|by)\b|\Z)"
    r"|\b(?:quarterly|monthly|weekly|fortnightly|annually|daily|yearly|half-yearly|semi-annually)(?:\s+in\s+(?:advance|arrears?))?",
    re.IGNORECASE,
)
REPORTING = frozenset(
    ["annual_report", "half_year_report", "quarterly_report", "presentation", "spreadsheet", "results_call", "research_note", "memo"]
)  # fmt: skip
CODE = re.compile(
    r"\b(?=[A-Za-z\d/.-]*\d)[A-Z\d]{1,12}(?:[-/.][A-Za-z\d]{1,12})+\b|\b[A-Z]{2,12}\s?\d{3,}[A-Z\d]*\b|\b(?=[A-Z\d]{6,}\b)[A-Z]*\d[A-Z\d]*\b|\b\d{2,4}(?:[ -]\d{2,5}){1,5}\b"
)
PATTERNS = {"time": CLOCK, "often": OFTEN, "code": CODE}
YES = re.compile(
    r"(?:[\w .'’-]{2,40}:\s+)?(?P<yes>yes|yeah|yep|correct|that['’]s right|i did|we did|i was|it was)\b|(?:[\w .'’-]{2,40}:\s+)?(?P<no>no|nope|never)\b(?!\.\s?\d|\s+(?:later|less|more))",
    re.IGNORECASE,
)
NO = re.compile(
    r"\b(?:not(?!\s+(?:less|more|later|earlier|fewer|exceed\w*|only|unreasonabl\w+|limited\s+to|be\s+unreasonabl\w+))|no(?!\s+(?:later|less|more|fewer))|never|none|neither|nor|cannot|isn['’]t|aren['’]t|wasn['’]t|didn['’]t"
    r"|don['’]t|doesn['’]t|can['’]t|won['’]t|nothing|nobody|excluded|excludes|prohibited|refused?|unable|waive[sd]?|non-\w+)\b",
    re.IGNORECASE,
)


class Inquiry:
    """One document, ready to be asked; what is costly is made when first needed, and of the sheet only the terms asked for."""

    def __init__(self, document: Document, sheet: Sheet | None = None) -> None:
        self.document = document
        self.sheet = sheet or sheet_for(document)
        self.passages = Passages(document)
        self._filled: dict[str, Finding] = {}

    @cached_property
    def figures(self) -> tuple[Figure, ...]:
        """The document's figures, where it is a paper that reports any."""
        if identify(self.document).kind not in REPORTING and not self.document.tagged:
            return ()
        from yarnex.core.figures import figures_of

        return figures_of(self.document)

    @cached_property
    def bills(self) -> tuple[Bill, ...]:
        from yarnex.core.costs.bills import bills_of

        return bills_of(self.document)

    @cached_property
    def people(self) -> list[RosterItem]:
        from yarnex.core.search.people import people_of

        return people_of(self.document)

    @cached_property
    def dates(self) -> tuple[DatedItem, ...]:
        """Days that are worked out from others."""
        from yarnex.core.dates.anchors import Anchors
        from yarnex.core.dates.relative import relative_items

        filled = Abstract(
            self.document,
            self.sheet,
            tuple(self.fill([t for t in self.sheet.terms if t.type in ("date", "duration")])),
            self.passages,
        )
        return tuple(relative_items(Anchors(filled)))

    @cached_property
    def matcher(self) -> Matcher:
        return matcher_of(self.passages)

    @cached_property
    def values(self) -> LineValues:
        return LineValues(self.passages)

    @cached_property
    def names(self) -> list[tuple[Term, tuple[frozenset[str], ...]]]:
        """The sheet's terms with the stems of their label and of each other way in which people ask for them."""
        return [(t, _ways(t)) for t in self.sheet.terms]

    def particulars(self, wanted: Callable[[str], bool]) -> list[Finding]:
        """What stands under labels of the document's own that are wanted."""
        if not self.sheet.particulars:
            return []
        lists = self.sheet.particulars == "all"
        return list(other_particulars((), self.passages, lists=lists, wanted=wanted))

    def asked(self, question: Question) -> Question:
        """The question without the words of the file's own name, which the paper itself does not say."""
        named = frozenset(stems_of(self.document.name.replace(".", " ").replace("_", " ").replace("-", " ")))
        kept = tuple(
            i
            for i in question.ideas
            if not named.issuperset(i.name) or any(w in self.matcher.lines.postings for w in i.name)
        )
        return replace(question, ideas=kept) if kept and len(kept) < len(question.ideas) else question

    @cached_property
    def sides(self) -> frozenset[tuple[str, ...]]:
        """The stems of the roles that the paper gives its parties."""
        return frozenset(stems_of(role) for role in self.values.roles)

    def fill(self, terms: Sequence[Term]) -> list[Finding]:
        """The findings of some terms; those that others are worked out from are filled with them."""
        wanted = [t for t in terms if t.id not in self._filled]
        if wanted:
            needed = {t.id for t in wanted}
            if any(t.compute for t in wanted):
                needed |= BASES
            part = tuple(t for t in self.sheet.terms if t.id in needed and t.id not in self._filled)
            sheet = replace(self.sheet, terms=part, particulars="")
            for finding in abstract(self.document, sheet, self.passages).findings:
                self._filled[finding.term.id] = finding
        return [self._filled[t.id] for t in terms]


def _ways(term: Term) -> tuple[frozenset[str], ...]:
    ways = [frozenset(stems_of(w)) for w in (term.label, *term.asked, term.id.replace("_", " "))]
    return tuple(w for w in dict.fromkeys(ways) if w)


def ask(inquiry: Inquiry, question: Question, limit: int = 8) -> list[Finding]:
    """Findings that answer, best first, at most `limit`; one `not_found` with the nearest mentions where none does."""
    question = inquiry.asked(question)
    if question.outside:
        return [_none(inquiry, question, "this asks about the world, not about the documents")]
    if (compared := within_limit(inquiry, question)) is not None:
        return [compared]
    answers = answers_of(inquiry, question)
    read = bool(answers) and answers[0].kind == "yes_no" and answers[0].finding is None
    if not answers or likely_there(answers) < (SURE_YES if read else ENOUGH):
        return [_none(inquiry, question, "no passage answers it", answers)]
    found = [
        _finding(inquiry, question, a)
        for a in answers[:limit]
        if a is answers[0] or a.score >= RIVAL * answers[0].score
    ]
    best = _with_rival(found, answers)
    return [_with_places(best, answers), *found[1:]]


def _with_places(best: Finding, answers: Sequence[Answer]) -> Finding:
    """The finding, cited also where the document says the same nearly as well: a summary and the clause it sums up."""
    first = answers[0]
    if best.state != "stated" or best.value is None or not best.cites or isinstance(best.value, Text | YesNo):
        return best
    cites = list(best.cites)
    for other in answers[1:]:
        same = other.value is not None and other.kind == first.kind and same_value(other.value, first.value)
        near = other.worth > first.worth - AS_WELL and all(not other.quote.span.overlaps(c.span) for c in cites)
        if same and near and len(cites) < MOST_PLACES:
            cites.append(other.quote)
    return replace(best, cites=tuple(cites))


def _with_rival(found: list[Finding], answers: Sequence[Answer]) -> Finding:
    """The best finding, `conflicting` where the document as surely says something else elsewhere."""
    best = found[0]
    if best.state != "stated" or best.value is None or answers[0].finding is not None or answers[0].kind in UNRIVALLED:
        return best
    for other, answer in zip(found[1:], answers[1:], strict=False):
        apart = not other.cites[0].span.overlaps(best.cites[0].span)
        sure = answer.kind == answers[0].kind and other.state == "stated"
        if sure and apart and other.value is not None and not same_value(other.value, best.value):
            told = f"also stated as {quoted(other.text)} ({other.cites[0].place})"
            return replace(
                best, state="conflicting", cites=(*best.cites, other.cites[0]), working=(*best.working, told)
            )
    return best


# ------------------------------------------------------------------ sources
def answers_of(inquiry: Inquiry, question: Question) -> list[Answer]:
    """All answers of all sources, best first."""
    offered = _offered(inquiry, question)
    in_vain = max((alike for f, alike in offered if f.state == "not_found"), default=0.0)
    answers = [*from_terms(inquiry, question, offered), *from_lists(inquiry, question), *from_lines(inquiry, question)]
    if asked := measures_in(question.text):
        answers = [_in_band(inquiry, a, asked) for a in answers]
    answers = [_cued(inquiry, question, _measured(question, a)) for a in answers]
    answers = _of_the_party(inquiry, question, answers)
    return weighed(_beside_each_other(answers, in_vain))


def _of_the_party(inquiry: Inquiry, question: Question, answers: list[Answer]) -> list[Answer]:
    """The answers with whether their sentence is about another party than the one asked about, and does not name that one."""
    roles = {role: frozenset(stems_of(role)) for role in inquiry.values.roles}
    ways = {way for idea in question.ideas for way, worth in idea.ways if worth >= NAMES_PARTY}
    asked = [role for role, stems in roles.items() if tuple(stems) in ways]
    if len(asked) != 1 or len(roles) < 2:
        return answers
    out = []
    for answer in answers:
        sentence = inquiry.passages.sentence_at(answer.span.start)
        words = sentence.span.of(inquiry.passages.text) if sentence is not None else ""
        others = any(role in words[:SUBJECT] for role in roles if role not in asked)
        if others and asked[0] not in words:
            evidence = list(answer.evidence)
            evidence[EVIDENCE.index("other_party")] = 1.0
            answer = replace(answer, evidence=tuple(evidence))
        out.append(answer)
    return out


def _measured(question: Question, answer: Answer) -> Answer:
    """The answer with whether its unit, or the time it is for, is what is asked, and whether it has a value at all."""
    value, names = answer.value, question.stems
    fit = 0.0
    if isinstance(value, Quantity) and (wanted := units_named(names) or units_asked(names)):
        fit = 1.0 if value.unit in wanted else -1.0
    elif isinstance(value, Money):
        period = period_asked(names)
        if period and value.per:
            fit = 1.0 if value.per.startswith(period) else -1.0
        elif value.per and not names.isdisjoint(WHOLE):
            fit = -1.0
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("unit_fit")] = fit
    years = YEAR.findall(question.text)
    if years and isinstance(value, DateValue) and value.day is not None:
        evidence[EVIDENCE.index("year_off")] = float(str(value.day.year) not in years)
    gap = answer.evidence[EVIDENCE.index("gap")]
    evidence[EVIDENCE.index("valueless")] = float(value is None and not gap)
    return replace(answer, evidence=tuple(evidence))


def _cued(inquiry: Inquiry, question: Question, answer: Answer) -> Answer:
    """The answer with what the words right around its value say of it: the least or the most, a start, the new one."""
    if answer.value is None or answer.kind in ("text", "list", "schedule", "yes_no", "gap"):
        return answer
    text, value = inquiry.passages.text, answer.span
    if answer.finding is not None:
        at = text.find(answer.finding.text, value.start, value.end) if answer.finding.text else -1
        if at < 0 or answer.finding.state == "computed":
            return answer
        value = Span(at, at + len(answer.finding.text))
    sentence = inquiry.passages.sentence_at(value.start)
    cell = inquiry.document.cell_at(value)
    around = cell[1].span if cell is not None else sentence.span if sentence is not None else value
    fit = cue_fit(cues_asked(question.text), cues_said(text, value, around.start, around.end), answer.kind)
    row = label_of_row(inquiry.document, value)
    opening = row.split(" – ")[0]
    told = {
        "cue_fit": fit,
        "change": change_fit(question.text, text, value, around.start, around.end),
        "if_not": if_not_fit(question.text, text, value, around.start),
        "numbered": numbered_fit(question.text, f"{row} {around.of(text)}", opening),
    }
    evidence = list(answer.evidence)
    for name, amount in told.items():
        evidence[EVIDENCE.index(name)] = amount
    return replace(answer, evidence=tuple(evidence))


def _in_band(inquiry: Inquiry, answer: Answer, asked: list[tuple[str, Limit, Span]]) -> Answer:
    """The answer with whether the row it stands in holds for a day, sum or share that the question names."""
    fits = within(asked, label_of_row(inquiry.document, answer.span))
    if not fits:
        return answer
    evidence = list(answer.evidence)
    evidence[EVIDENCE.index("in_range")] = fits
    return replace(answer, evidence=tuple(evidence))


def _offered(inquiry: Inquiry, question: Question) -> list[tuple[Finding, float]]:
    """Terms of the sheet, and the document's own labels, that are like what is asked, filled, with how like they are."""
    total = sum(_telling(inquiry, i) for i in question.ideas) or 1.0
    near = {t.id: s for t, ways in inquiry.names if (s := _likeness(inquiry, question, ways, total)) >= LEAST_ALIKE}
    filled = inquiry.fill([t for t in inquiry.sheet.terms if t.id in near])
    alike: dict[str, float] = {}

    def like(label: str) -> bool:
        if label not in alike:
            stems = frozenset(stems_of(label))
            alike[label] = _alike(inquiry, question.ideas, stems, total) if stems else 0.0
        return alike[label] >= LEAST_ALIKE

    own = inquiry.particulars(like)
    return [*((f, near[f.term.id]) for f in filled), *((f, alike[f.term.label]) for f in own)]


def _beside_each_other(answers: list[Answer], in_vain: float) -> list[Answer]:
    """Answers with how far a likelier term outdoes them, and how far a term like it was sought in vain."""
    alike, outdone, vain, exact = (EVIDENCE.index(n) for n in ("alike", "outdone", "in_vain", "exact"))
    best = max((a.evidence[alike] for a in answers), default=0.0)
    if any(
        a.evidence[alike] > EXACT and a.finding is not None for a in answers
    ):  # what is merely like it is another thing
        answers = [a for a in answers if a.finding is None or a.evidence[alike] >= LIKE_EXACT]
    elif in_vain > EXACT:  # what was sought in vain is not what is merely like it
        other = [a for a in answers if a.finding is not None and a.kind != "gap" and a.evidence[alike] < in_vain]
        answers = [a for a in answers if not any(a is o or (a.kind == o.kind and a.value == o.value) for o in other)]
    out = []
    for answer in answers:
        evidence = list(answer.evidence)
        evidence[outdone] = max(0.0, best - evidence[alike])
        evidence[vain] = max(0.0, in_vain - max(best, evidence[alike]))
        evidence[exact] = float(evidence[alike] > EXACT)
        out.append(replace(answer, evidence=tuple(evidence)))
    return out


def from_terms(inquiry: Inquiry, question: Question, offered: Sequence[tuple[Finding, float]]) -> list[Answer]:
    """Answers by filled terms, each with how like what is asked for its names are."""
    out = []
    for finding, alike in offered:
        if finding.state == "not_found":
            continue
        gap = finding.state in ("blank", "redacted")
        finding = _with_unit(inquiry, finding)
        kind = "gap" if gap else of_type(finding.value) if finding.value is not None else finding.term.type
        value = finding.value
        decides = alike >= DECIDES and (kind in ("text", "list") or not OF_A_RIGHT.match(question.text))
        if question.kinds == ("yes_no",) and kind != "yes_no" and not gap and decides:
            kind, value = "yes_no", YesNo(not NO.search(finding.text[:160]) or bool(NO.search(question.text)))
        rank = 0 if gap else _rank(question, kind)
        if rank is None:
            continue
        evidence = _evidence(
            question, kind, rank, term=1.0, alike=alike, confidence=finding.confidence, gap=float(gap),
            worked_out=float(finding.state == "computed"), conflicting=float(finding.state == "conflicting"),
            **_where_it_stands(inquiry, question, finding.cites[0].span, finding.text),
        )  # fmt: skip
        cite = finding.cites[0]
        out.append(Answer(kind, value, cite.span, cite, evidence, f"the term {finding.term.label!r}", finding))
    return out


def _with_unit(inquiry: Inquiry, finding: Finding) -> Finding:
    """The finding with the unit that stands beside its bare figure, in a cell of its own or in the row's label."""
    value = finding.value
    if not isinstance(value, Quantity) or value.unit is not None or not finding.cites:
        return finding
    for line in inquiry.matcher.lines.at(finding.cites[0].span):
        for found in inquiry.values.numbers(line) if line.kind == "cell" else ():
            measured = found.value
            if isinstance(measured, Quantity) and measured.value == value.value and measured.unit is not None:
                return replace(finding, value=measured)
    return finding


def from_lists(inquiry: Inquiry, question: Question) -> list[Answer]:
    """Answers by the document's figures, bills and worked-out days."""
    ideas = frozenset(w for idea in question.ideas for w in idea.name)
    offers: list[Offer] = []
    if inquiry.figures and {"money", "number", "percent"} & set(question.kinds):
        from yarnex.core.search.from_figures import of_figures

        offers += of_figures(inquiry.figures, question.text, ideas)
    if {"money", "date"} & set(question.kinds):
        offers += of_bills(inquiry.bills, question.text, ideas)
    if "date" in question.kinds:
        offers += of_dates(inquiry.dates, question.text, ideas)
    if question.kinds and question.kinds[0] == "party":
        offers += _of_people(inquiry, question)
    out = []
    for offer in offers:
        rank = _rank(question, offer.kind)
        if rank is None:
            continue
        computed = bool(offer.working)
        evidence = _evidence(
            question,
            offer.kind,
            rank,
            term=1.0,
            alike=offer.alike,
            confidence=offer.confidence,
            worked_out=float(computed),
        )
        term = Term("answer", question.text, "", offer.kind)
        finding = Finding(
            inquiry.document,
            term,
            "computed" if computed else "stated",
            offer.value,
            offer.text,
            offer.confidence,
            offer.cites,
            offer.working,
        )
        out.append(Answer(offer.kind, offer.value, offer.cites[0].span, offer.cites[0], evidence, offer.why, finding))
    return out


def _of_people(inquiry: Inquiry, question: Question) -> Iterator[Offer]:
    """The persons beside whose names, or in whose role, stands what is asked for."""
    for person in inquiry.people:
        for cite in person.cites[:4]:
            sentence = inquiry.passages.sentence_at(cite.span.start)
            near = sentence.span.of(inquiry.document.text) if sentence is not None else cite.quote
            words = frozenset(stems_of(f"{person.detail} {near}"))
            covered = [
                max((worth for way, worth in idea.ways if words.issuperset(way)), default=0.0)
                for idea in question.ideas
            ]
            alike = sum(covered) / max(1, len(covered))
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


def _where_it_stands(inquiry: Inquiry, question: Question, cite: Span, words: str) -> dict[str, float]:
    """What the line in which an answer of a term or a list stands says of the question."""
    at = inquiry.passages.text.find(words, cite.start, cite.end) if words else -1
    hit = inquiry.matcher.at(question.ideas, cite, Span(at, at + len(words)) if at >= 0 else None)
    if hit is None:
        return {}
    return {
        "its_score": min(hit.score, 1.4), "its_coverage": hit.coverage, "its_missing": min(4.0, len(hit.missing)),
        "its_own": hit.own, "its_rarest": hit.rarest, "its_pairs": hit.pairs, "cell": float(hit.line.kind == "cell"),
    }  # fmt: skip


def _likeness(inquiry: Inquiry, question: Question, ways: Sequence[frozenset[str]], total: float) -> float:
    return max((_alike(inquiry, question.ideas, way, total) for way in ways), default=0.0)


def _evidence(question: Question, kind: str, rank: int, **given: float) -> tuple[float, ...]:
    """The evidence for an answer as numbers, in the order of EVIDENCE."""
    given |= {
        "rank": float(rank), "yes_no": float(kind == "yes_no"), "unsure": float(not question.sure), "text": float(kind in ("text", "list")),
        "text_for_value": float(kind in ("text", "list") and question.sure and question.kinds[0] not in ("text", "list")), "one": 1.0,
    }  # fmt: skip
    return tuple(given.get(name, 0.0) for name in EVIDENCE)


def _telling(inquiry: Inquiry, idea: Idea) -> float:
    """How much an idea tells of a term: which side of the paper it concerns its name seldom says."""
    of_a_side = any(worth >= NAMES_PARTY and way in inquiry.sides for way, worth in idea.ways)
    return inquiry.matcher.weight(idea) * (OF_A_SIDE if of_a_side else 1.0)


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
        covered += _telling(inquiry, idea) * best
    asked, named = covered / total, len(used) / len(label)
    other = 0.75 if (label - used) & QUALIFIERS else 1.0
    return other * asked * (0.4 + 0.6 * named) if used else 0.0


def from_lines(inquiry: Inquiry, question: Question) -> list[Answer]:
    """Values and passages in the lines that say what is asked for."""
    out: list[Answer] = []
    for rank, kind in enumerate(question.kinds):
        finder = _patterns(inquiry, kind) if kind in PATTERNS else inquiry.values.finder(kind)
        hits = inquiry.matcher.ranked(question.ideas, finder, limit=8, seconds=2)
        for place, hit in enumerate(hits):
            others = [h.score for h in hits if h is not hit and not h.second]
            evidence = _evidence(
                question, kind, 0 if _is_small_money(question, hit) else rank, score=min(hit.score, 1.4), coverage=hit.coverage, named=hit.named, fit=hit.fit, missing=min(4.0, len(hit.missing)),
                first=float(place == 0), second=float(hit.second), cell=float(hit.line.kind == "cell"), label=float(hit.line.kind == "named"), short=min(1.0, 12 / max(1, hit.line.size)), own=hit.own, rarest=hit.rarest, pairs=hit.pairs,
                close=hit.score / max(0.2, hit.coverage), lead=max(-0.5, min(0.5, hit.score - max(others, default=0.0))),
                few=1 / max(1, len(question.ideas)),
            )  # fmt: skip
            made = _answer(inquiry, question, kind, hit, evidence)
            if made is not None:
                out.append(made)
    return [*out, *_gaps(inquiry, question)]


def _gaps(inquiry: Inquiry, question: Question) -> Iterator[Answer]:
    """Places left blank or blacked out beside which stands what is asked for."""
    if question.kinds == ("yes_no",):
        return

    def found(line: Line) -> list[Found[Value]]:
        return [Found(Text(state), span) for span, state in inquiry.passages.gaps_in(line.values)]

    hits = inquiry.matcher.ranked(question.ideas, found, limit=3)
    for place, hit in enumerate(hits):
        assert hit.found is not None
        if hit.coverage < GAP_NAMED:
            continue
        quote = quote_around(inquiry.passages, hit.found.span)
        evidence = _evidence(
            question, "gap", 0, gap=1.0, score=min(hit.score, 1.4), coverage=hit.coverage, named=hit.named, missing=min(4.0, len(hit.missing)), first=float(place == 0),
            cell=float(hit.line.kind == "cell"), short=min(1.0, 12 / max(1, hit.line.size)), own=hit.own, rarest=hit.rarest, pairs=hit.pairs,
            close=hit.score / max(0.2, hit.coverage), few=1 / max(1, len(question.ideas)), lead=max(-0.5, min(0.5, hit.score - max((h.score for h in hits if h is not hit), default=0.0))),
        )  # fmt: skip
        state = hit.found.value.words if isinstance(hit.found.value, Text) else "blank"
        finding = Finding(inquiry.document, Term("answer", question.text, "", "text"), state, None, "", 0.5, (quote,))
        yield Answer("gap", None, hit.found.span, quote, evidence, "left open where it should stand", finding)


def _is_small_money(question: Question, hit: Hit) -> bool:
    """True for pence and cents where a sum is asked for: 4.2 pence is a dividend."""
    value = hit.found.value if hit.found is not None else None
    return question.kinds[0] == "money" and isinstance(value, Quantity) and value.unit in SMALL_MONEY


def _patterns(inquiry: Inquiry, kind: str) -> Callable[[Line], list[Found[Value]]]:
    """What finds times of day, and how often something happens, in a line."""

    def found(line: Line) -> list[Found[Value]]:
        text = inquiry.passages.text
        matches = PATTERNS[kind].finditer(text, line.values.start, line.values.end)
        return [Found(_read(kind, m), Span(m.start(), m.end())) for m in matches]

    return found


def _read(kind: str, m: re.Match[str]) -> Value:
    """'every fourth year' is a length of four years; everything else stays in its words."""
    if kind == "often" and m["unit"]:
        number = read_words(m["n"]) if m["n"] else Decimal(1)
        if number:
            return Duration(number, m["unit"].lower() + "s")
    return Text(on_one_line(m.group()))


def _rank(question: Question, kind: str) -> int | None:
    """The place of a kind among those wanted; None where it is none of them."""
    if kind in question.kinds:
        return question.kinds.index(kind)
    if kind in ("text", "list", "schedule") and {"text", "list"} & set(question.kinds):
        return len(question.kinds) - 1
    if question.kinds == ("yes_no",) and kind == "text":
        return 2
    return None if question.sure else len(question.kinds)


def _answer(inquiry: Inquiry, question: Question, kind: str, hit: Hit, evidence: tuple[float, ...]) -> Answer | None:
    passages, line = inquiry.passages, hit.line
    text, document = passages.text, passages.document
    if hit.found is not None:
        quote = quote_around(passages, hit.found.span)
        working = (hit.found.reading,) if hit.found.reading else ()
        value, span = hit.found.value, hit.found.span
        lower = RANGE_TO.search(text[max(line.values.start, span.start - 40) : span.start])
        if lower and CHANGED_FROM.search(
            text[max(line.span.start, span.start - 120) : span.start - len(lower.group())]
        ):
            lower = None
        if lower and isinstance(value, Duration | Quantity | Percent | Money):  # "10 to 12 weeks" is no single value
            span = Span(span.start - len(lower.group()), span.end)
            value = Text(on_one_line(span.of(text)))
        return Answer(kind, value, span, quote, evidence, "the words stand by it", None, working)
    if kind == "yes_no":
        value = _yes_or_no(passages, line, question)
        return Answer(
            kind,
            value,
            line.values,
            Cite(document, cut(text, line.span, line.values)),
            evidence,
            "these words decide it",
        )
    if kind == "list":
        items = list_items(Term("asked", "asked", "", "list"), passages, line.values)
        if items is None:
            return None
        return Answer(kind, items[0], items[1], quote_around(passages, items[1]), evidence, "what stands there")
    if passages.gaps_in(line.values) and not BLANK.sub("", BLACKED_OUT.sub("", line.values.of(text))).strip(" .:-–"):
        return None
    piece = shortened(text, line.values)
    quote = Cite(document, cut(text, line.span, piece))
    return Answer("text", Text(on_one_line(piece.of(text))), piece, quote, evidence, "the passage says it")


def _yes_or_no(passages: Passages, line: Line, question: Question) -> YesNo:
    """Yes, unless the clause that answers denies it, or the question does."""
    places = [p for idea in question.ideas for way, _ in idea.ways for w in way for p in line.own.get(w, ())]
    plain = YES.match(text := passages.text, line.values.start, line.values.end)
    if plain is not None and (plain["no"] or passages.document.marks):
        return YesNo((plain["yes"] is not None) is not bool(NO.search(question.text)))
    middle = sum(places) // len(places) if places else line.values.start
    start = max(line.values.start, middle - 120)
    near = text[start : min(line.values.end, middle + 120)]
    denied = len(NO.findall(near)) % 2 == 1
    return YesNo(denied is bool(NO.search(question.text)))


# ------------------------------------------------------------------ the answer
def _finding(inquiry: Inquiry, question: Question, answer: Answer) -> Finding:
    document = inquiry.document
    term = Term("answer", question.text, "", answer.kind if answer.kind not in PATTERNS else "text")
    confidence = round(max(0.01, min(0.99, answer.score)), 3)
    why = (answer.why,)
    known = answer.finding
    if known is not None and isinstance(known.value, Money) and known.state == "stated":
        known = replace(known, value=_without_sign(question, answer).value)
    if known is not None and type(known.value) is type(answer.value):
        kept = Term(known.term.id, known.term.label, known.term.group, known.term.type)
        return Finding(
            document, kept, known.state, known.value, known.text, confidence, known.cites, known.working, why=why
        )
    if known is not None:  # a term that is there, or not, decides a yes or no
        state = "stated" if known.state in ("computed", "conflicting") else known.state
        return Finding(document, term, state, answer.value, known.text, confidence, known.cites, known.working, why=why)
    words = answer.span.of(inquiry.passages.text)
    answer = _without_sign(question, answer)
    working = list(answer.working)
    condition = (
        condition_of(inquiry.passages, answer.span) if answer.kind not in ("text", "list", "yes_no", *PATTERNS) else ""
    )
    if condition and condition not in words:
        working.append(f"with the condition “{condition}”")
    return Finding(
        document, term, "stated", answer.value, on_one_line(words), confidence, (answer.quote,), tuple(working), why=why
    )


def _without_sign(question: Question, answer: Answer) -> Answer:
    """A sum that is printed in brackets because it is taken off, asked for as what it is: "what was paid?"."""
    value = answer.value
    if isinstance(value, Money) and value.amount is not None and value.amount < 0 and not SIGNED.search(question.text):
        return replace(answer, value=replace(value, amount=-value.amount))
    return answer


def _none(inquiry: Inquiry, question: Question, why: str, answers: Sequence[Answer] = ()) -> Finding:
    term = Term("answer", question.text, "", "text")
    near: list[Cite] = []
    for answer in answers:
        if len(near) < NEAR_SHOWN and all(not answer.quote.span.overlaps(c.span) for c in near):
            near.append(answer.quote)
    return Finding(inquiry.document, term, "not_found", near=tuple(near), why=(why,))
