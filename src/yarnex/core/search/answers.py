"""A question asked of one document: the terms of its sheet and all its lines, weighed against each other.

In: a `Question` and an `Inquiry` (a document made ready to be asked). Out: findings, best first; `not_found` with the
nearest mentions where nothing answers.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from yarnex.core.document import Cell, Cite, Span, Table
from yarnex.core.document.sentences import sentences
from yarnex.core.document.table_paths import column_path
from yarnex.core.number_names import ORDINALS
from yarnex.core.patterns import pattern
from yarnex.core.search.bands import NTH_YEAR, asked_about, label_of_row
from yarnex.core.search.duties_asked import duties_asked
from yarnex.core.search.elapsed import elapsed_asked, elapsed_fit, names_a_time, split_year_fit
from yarnex.core.search.evidence import (
    EXACT,
    LIKE_EXACT,
    VALUED,
    Likeness,
    as_amended,
    as_bounded,
    beside_each_other,
    beside_the_earlier,
    by_its_name,
    competing,
    cued,
    evidence_of,
    in_band,
    measured,
    near_the_earlier,
    of_another_thing,
    of_the_party,
    place_of_value,
    that_hold_then,
    where_it_stands,
)
from yarnex.core.search.fitting import REASON, WHY, that_may_stand
from yarnex.core.search.from_lists import BEFORE_TAX, Offer, is_the_tax, of_bills, of_dates
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.limits import within_limit
from yarnex.core.search.listed import listed_there
from yarnex.core.search.patterns import CLOCK, CODE, OFTEN, PATTERNS, kinds_sought, pattern_finder
from yarnex.core.search.periods import rows_asked_for
from yarnex.core.search.question import WHICH_DAYS, YEAR, Question, understand
from yarnex.core.search.respective import told_in_order
from yarnex.core.search.signed import signed_or_not, when_signed
from yarnex.core.search.steps import step_asked_for
from yarnex.core.search.telling import finding_of, none_of
from yarnex.core.search.told_value import told_by_words
from yarnex.core.search.weighing import EVIDENCE, Answer, by_worth, likely_there, weighed
from yarnex.core.search.where_discussed import where_discussed
from yarnex.core.search.who import of_parties
from yarnex.core.search.year_before import as_it_was_before, without_time
from yarnex.core.search.yes_no import (
    ALLOWS,
    DENIES,
    OF_OTHERS,
    PERSONAL,
    YES,
    decided_by_exception,
    decided_by_term,
    yes_or_no,
)
from yarnex.core.terms import Finding, Term
from yarnex.core.terms.by_words import BEFORE_IT, COMPARED, SAY_LITTLE, Hit, Idea
from yarnex.core.terms.candidates import cut, fits, list_items, on_one_line, quote_around, shortened
from yarnex.core.terms.conditions import RUNS_FROM
from yarnex.core.terms.lines import Line
from yarnex.core.terms.model import quoted
from yarnex.core.terms.passages import BLACKED_OUT, BLANK, Passages
from yarnex.core.terms.ranges import range_beginning, range_ending
from yarnex.core.terms.schedules import schedule_of_column
from yarnex.core.terms.values_in_lines import of_type
from yarnex.core.terms.variations import taken_out_by
from yarnex.core.values import (
    DateValue,
    Duration,
    Found,
    ListOf,
    Party,
    Quantity,
    Text,
    Value,
    YesNo,
    find_dates,
    same_value,
)
from yarnex.core.values.ticks import ticked_answer
from yarnex.core.words import stems_of

ENOUGH = 0.43  # an answer less likely there is none; set on measured cases, see bench/answers.py
SMALL_MONEY = ("pence", "cents", "penny", "p")
ENOUGH_UNNAMED = 0.55  # the same where the paper does not name the thing that is asked for
ENOUGH_OF_A_GAP = 0.25  # the same for a place that is left blank or blacked out: to show it gives no wrong value
ALONE = 0.2  # how much likelier a question by itself must be answered than one that leans on the one before it
NAME = pattern(
    r"(?:[A-Z][\w.'’&-]*|of|the|and|de|van|von|y)(?:\s+(?:[A-Z][\w.'’&-]*|of|the|and|de|van|von|y)){1,5}(?:\s*<\S+@\S+>)?"
)
AS_WELL = 3.0  # how much less worth, in the model's own measure, another place may be that is cited for the same value
MOST_PLACES = 3
LONGEST_LIST = 900  # characters of a sentence that lists things
CLAIMED = 0.15  # share of what is asked for that must go with another value of the sentence than that of a term
MOST_HITS, MOST_IF_LEANS = 8, 24  # lines of a kind that are weighed: what a question leaves unsaid many lines say
LEAST_ALIKE = 0.3
SURE_YES = 0.5  # the same for a yes or no read from a passage: any sentence has one or the other in it
GAP_NAMED = 0.5  # share of what is asked for that must stand by a blank or blacked-out place
DECIDES = 0.6  # how like a term must be to a yes-or-no question for its being there to answer it
# "May we …?" asks what is allowed and "is it …?" what a thing is: that a sum or a share stands there does not say.
WHAT_IT_IS = pattern(
    r"(?:and\s+|but\s+|so\s+)?(?:(?:may|can|could|must|shall|should|would|will|does|do|did)\b|(?:is|was)\s+(?:it|this|that|he|she)\b)",
    re.IGNORECASE,
)
UNRIVALLED = ("text", "list", "party", "yes_no")  # what two places say in different words is no conflict
RIVAL = 0.5  # how likely a second, different answer must be beside the best to be told, or to make a conflict
NOT_THERE = pattern(
    r"n\.?/?a\.?|not\s+(?:available|applicable|given|stated)|tb[acd]|[-–—.?]*", re.IGNORECASE
)  # in a cell
ON_REQUEST = pattern(
    r"\b(?:available|supplied|provided|given|sent)\s+(?:up)?on\s+request\b|\bto\s+(?:be\s+(?:advised|confirmed|announced|determined|notified|supplied|assigned)|follow)\b|\bnot\s+(?:yet\s+)?(?:available|known|decided)\b",
    re.IGNORECASE,
)
# No line of a form left empty, but a thing that nobody has settled.
OPEN_YET = pattern(
    r"(?<![\[(])\bto\s+be\s+(?:assigned|appointed|nominated|named|agreed|decided|determined)(?=\s*\Z)", re.IGNORECASE
)
# "at the previous year end": not the value of now.
OF_BEFORE = pattern(
    r"\b(?:previous|prior|preceding|last)\s+(?:\w+\s+)?(?:year|period|half|quarter|month|time)|\b(?:year|half|quarter|month)s?\s+(?:ago|earlier|before)\b|\bbeforehand\b|\bwas\s+\w+\s+before\b",
    re.IGNORECASE,
)
OF_DEED = 2.5  # how much more than the thing that does it counts what it does on the day that is asked for
SURELY = 0.7  # what a way to name a thing must be worth to tell one column from another
NUMBER_OF = pattern(r"[^.:\n]{2,40}:\s+(?=[^\s]*\d|[A-Z]{2})[^.]*\Z")  # "Policy number: MS 553"
DECIDES_SO = pattern(
    r"\b(?:is|are|was|were|has|have|had|do|does|did|may|can|could|must|shall|will|would|should|yes|no|not|none|never|without|in-?\w+ed|ex\w+ed|only|if|unless|allowed|permitted|required|free|waived)\b",
    re.IGNORECASE,
)
ONLY_A_DAY = pattern(
    r"(?:\w+day,?\s+)?(?:\d{1,2}(?:st|nd|rd|th)?\s+\w+\s+\d{4}|\w+\s+\d{1,2},?\s+\d{4}|[\d./-]{6,10}|[£€$]?\s?[\d,.]+\s?%?)\.?"
)
FEW_WORDS = 12  # of a line that says no more than that


def ask(inquiry: Inquiry, question: Question, limit: int = 8) -> list[Finding]:
    """Findings that answer, best first, at most `limit`; one `not_found` with the nearest mentions where none does.

    A question of two parts, "what is the deposit and when do we get it back?", is answered by its parts, each with PART_OF among
    its reasons, where both are told, or where nothing answers it as one.
    """
    told = [_ask(inquiry, part, limit)[0] for part in question.parts or ()]
    if not told or not all(f.found for f in told):
        whole = _ask(inquiry, question, limit)
        if whole[0].found or not any(f.found for f in told):
            return whole
    return [replace(f, why=(*f.why, PART_OF)) if f.found else f for f in told]


PART_OF = "it answers a part of the question"


def _ask(inquiry: Inquiry, question: Question, limit: int) -> list[Finding]:
    question = inquiry.asked(question)
    if question.outside:
        return [none_of(inquiry, question, "this asks about the world, not about the documents")]
    if (compared := within_limit(inquiry, question)) is not None:
        return [compared]
    if (signed := signed_or_not(inquiry, question)) is not None:
        return [signed]
    if (day := when_signed(inquiry, question)) is not None:
        return [day]
    if (duties := duties_asked(inquiry, question)) is not None:
        return [duties]
    if (discussed := where_discussed(inquiry, question)) is not None:
        return [discussed]
    if (step := step_asked_for(inquiry, question)) is not None:
        return [step]
    now, before = _of_the_time_before(inquiry, question)
    if before is not None:
        return [before]
    answers = told_in_order(inquiry, question, answers_of(inquiry, question))
    if now is not None:  # what it is now is no answer
        places = [place_of_value(inquiry, a) if a.kind in VALUED else None for a in answers]
        answers = [a for a, at in zip(answers, places, strict=True) if at is None or not at.overlaps(now)]
    read = bool(answers) and answers[0].kind == "yes_no" and answers[0].finding is None
    least = SURE_YES if read else ENOUGH if inquiry.says(question.thing) else ENOUGH_UNNAMED
    gap = (
        bool(answers)
        and answers[0].kind == "gap"
        and question.kinds != ("yes_no",)
        and answers[0].score >= ENOUGH_OF_A_GAP
    )
    if not gap and (not answers or likely_there(answers) < least):
        listed = listed_there(inquiry, question)
        if listed is not None:
            return [listed]
        of_others = by_worth(inquiry.of_others.get(question.text, ()))
        if answers and of_others and of_others[0].worth <= answers[0].worth:
            of_others = []  # what is said of this party is nearer
        why = (
            "no passage answers it" if not of_others else "no passage answers it; the nearest is said of another party"
        )
        return [none_of(inquiry, question, why, [*of_others[:1], *answers])]
    if gap and (yet := OPEN_YET.search(answers[0].quote.quote)) is not None:
        return [none_of(inquiry, question, f"the document says {quoted(yet.group())}", answers)]
    found = [
        finding_of(inquiry, question, told_by_words(inquiry, question, a))
        for a in answers[:limit]
        if a is answers[0] or a.score >= RIVAL * answers[0].score
    ]
    best = _with_rival(found, answers)
    return [_with_places(best, answers), *found[1:]]


def _of_the_time_before(inquiry: Inquiry, question: Question) -> tuple[Span | None, Finding | None]:
    """Where stands what is asked for, where it is asked for the year or the like before; and its value of then that stands beside it."""
    words = without_time(question.text)
    if not words:
        return None, None
    plain = inquiry.asked(understand(words))
    now = answers_of(inquiry, plain)
    if not now or likely_there(now) < ENOUGH:
        return None, None
    best = told_by_words(inquiry, plain, now[0])
    before = as_it_was_before(inquiry, best)
    return place_of_value(inquiry, best), finding_of(inquiry, question, before) if before is not None else None


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
    """All answers of all sources, best first.

    Where a question may lean on the one before it or stand alone, those of the reading that is answered more surely.
    """
    if (known := inquiry.answered.get(question)) is not None:
        return known
    inquiry.answered = {question: _answers_of(inquiry, question)}
    return inquiry.answered[question]


def _answers_of(inquiry: Inquiry, question: Question) -> list[Answer]:
    earlier = answers_of(inquiry, inquiry.asked(question.before)) if question.before is not None else []
    answers = _answers_as_read(inquiry, question, earlier)
    if question.alone is not None:
        alone = _answers_as_read(inquiry, inquiry.asked(question.alone))
        if not alone or not answers:
            return alone or answers
        leaning, by_itself = likely_there(answers), likely_there(alone)
        untold = leaning < SURE_YES <= ENOUGH_UNNAMED <= by_itself
        if untold or by_itself > leaning + (0.0 if question.reads_alone else ALONE):
            return alone
    return answers


def _answers_as_read(inquiry: Inquiry, question: Question, earlier: Sequence[Answer] = ()) -> list[Answer]:
    by_terms, in_vain = _by_terms(inquiry, question)
    told = any(a.kind == "date" and _is_exact(a) and a.finding.state == "stated" for a in by_terms if a.finding)
    answers = [*by_terms, *from_lists(inquiry, question, days=not told), *from_lines(inquiry, question)]
    answers = rows_asked_for(
        inquiry, question, answers, lambda kind, at, evidence: _of_column(inquiry, question, kind, at, evidence)
    )
    asked = asked_about(question.text)
    if asked or NTH_YEAR.search(question.text) or names_a_time(question.text):
        answers = [in_band(inquiry, question, a, asked) for a in that_hold_then(inquiry, question, answers)]
    parts = question.compound or (
        (question.thing,) if question.thing is not None and question.kinds == ("text",) and question.sure else ()
    )
    answers = [
        of_another_thing(inquiry, parts, cued(inquiry, question, measured(question, as_bounded(inquiry, question, a))))
        for a in answers
    ]
    if BEFORE_TAX.search(question.text):
        places = ((a, place_of_value(inquiry, a) or a.span) for a in answers)
        answers = [a for a, at in places if not is_the_tax(question.text, label_of_row(inquiry.document, at))]
    answers, of_another = of_the_party(inquiry, question, answers)
    inquiry.of_others[question.text] = of_another
    if earlier:
        answers = [near_the_earlier(inquiry, earlier, a) for a in answers]
        answers = beside_the_earlier(inquiry, question, earlier[0], answers)
    answers = as_amended(question, answers)
    answers = that_may_stand(inquiry, question, answers)
    if question.kinds[0] == "schedule" and question.sure and any(a.kind == "schedule" for a in answers):
        answers = [a for a in answers if a.kind in ("schedule", "list")]  # a sum of one year is no list of them
    return weighed(
        beside_each_other(by_its_name(question, answers), in_vain), inquiry.nearness_to(question), of_another
    )


WHEN_WRITTEN = pattern(
    r"\b(?:when|on\s+what\s+(?:day|date))\s+(?:was|is)\s+(?:the\s+|this\s+|their\s+|our\s+|your\s+)?"
    r"(?P<paper>it|this|document|paper|letter|offer|quot(?:e|ation)|bid|tender|proposal|report|survey|notes?|memo|minutes|statement|certificate|opinion"
    r"|invoice|bill|order|agreement|contract|deed|lease|licence|policy|notice|application|claim)\s+"
    r"(?:written|made|sent|given|issued|published|released|prepared|drawn\s+up|put\s+in|submitted|dated)(?:\s+(?:out|to\s+\w+))?\s*\?*\Z",
    re.IGNORECASE,
)


STILL_TO_COME = pattern(
    r"(?:and\s+|but\s+)?(?:by\s+|until\s+|from\s+)?when\s+(?:must|may|can|should|shall|will)\b", re.IGNORECASE
)
OF_THAT = pattern(r"\b(?:on|of|to|for)\s+(?:that|this|it|them|these|those)\W*\Z", re.IGNORECASE)  # "the cap on that"


def _by_terms(inquiry: Inquiry, question: Question) -> tuple[list[Answer], float]:
    """Answers by terms of the sheet, and the document's own labels, that are like what is asked; how like it is one sought in vain.

    Where a term just like it is told, those that are merely like it are not filled: beside it they would not stand.
    """
    near, own = _like(inquiry, question)
    likest = {term for term, alike in near.items() if alike >= LIKE_EXACT}
    for wanted in (likest, set(near)) if max(near.values(), default=0.0) > EXACT else (set(near),):
        filled = inquiry.fill([t for t in inquiry.sheet.terms if t.id in wanted])
        offered = [*((f, near[f.term.id]) for f in filled), *own]
        answers = from_terms(inquiry, question, offered)
        if any(map(_is_exact, answers)):
            break
    told = {f.term.id for f, _ in offered if f.state != "not_found"}
    vain = (
        s for f, s in offered if f.state == "not_found" and not (f.term.type == "yes_no" and f.term.detail_of in told)
    )
    return answers, max(vain, default=0.0)  # whether the courts' say is exclusive may well be untold


def _is_exact(answer: Answer) -> bool:
    """True for a told term that is just what is asked for, of the kind that is wanted."""
    return answer.finding is not None and answer.evidence[ALIKE] > EXACT and not answer.evidence[RANK]


ALIKE, RANK = EVIDENCE.index("alike"), EVIDENCE.index("rank")


def _like(inquiry: Inquiry, question: Question) -> tuple[dict[str, float], list[tuple[Finding, float]]]:
    """The terms of the sheet that are like what is asked, by their id, and what stands under such labels of the document's own,
    with how like they are.
    """
    thing = question.thing if question.leans and not OF_THAT.search(question.text) else None
    likeness = Likeness(inquiry, question.ideas, thing)
    near = {
        t.id: s
        for t, ways in inquiry.names
        if _may_be_asked(question, t.type)
        and (s := likeness.to_term(ways)) >= LEAST_ALIKE
        and not (t.compute == "document_date" and STILL_TO_COME.match(question.text))
        and not is_the_tax(question.text, t.label)
    }
    if (written := WHEN_WRITTEN.search(question.text)) is not None and inquiry.is_called(written["paper"]):
        near |= {t.id: 1.0 for t in inquiry.sheet.terms if t.compute == "document_date"}
    alike: dict[str, float] = {}

    def like(label: str) -> bool:
        if label not in alike:
            stems = frozenset(stems_of(label))
            alike[label] = 0.0 if is_the_tax(question.text, label) else likeness.to_label(stems)
        return alike[label] >= LEAST_ALIKE

    own = inquiry.particulars(like)
    return near, [(f, alike[f.term.label]) for f in own]


NEVER_ANOTHER = ("money", "percent", "number", "duration", "date")


def _may_be_asked(question: Question, kind: str) -> bool:
    """False for a kind of value that is surely not asked for: no sum tells who lets the premises."""
    return (
        not question.sure
        or kind not in NEVER_ANOTHER
        or kind in question.kinds
        or question.kinds[0] in ("yes_no", "text", "list", "schedule", "time")
    )


def from_terms(inquiry: Inquiry, question: Question, offered: Sequence[tuple[Finding, float]]) -> list[Answer]:
    """Answers by filled terms, each with how like what is asked for its names are."""
    out = []
    for finding, alike in offered:
        if finding.state == "not_found":
            continue
        gap = finding.state in ("blank", "redacted")
        if not gap and _of_another_column(inquiry, question, finding):
            continue
        finding = _with_unit(inquiry, finding)
        kind = "gap" if gap else of_type(finding.value) if finding.value is not None else finding.term.type
        if isinstance(finding.value, Text) and finding.term.type in VALUED:
            kind = finding.term.type  # a range
        value = finding.value
        if finding.term.items in ("date", "day") and isinstance(finding.value, ListOf) and "date" in question.kinds:
            if FROM_WHEN.match(question.text):
                continue  # one day is asked for, not those that come round
            kind = "date"  # several days
            if (one := _of_its_days(question, finding)) is not None:
                value = one
        decides = alike >= DECIDES and (kind in ("text", "list") or not WHAT_IT_IS.match(question.text))
        if question.kinds == ("yes_no",) and kind != "yes_no" and not gap and decides:
            kind, value = "yes_no", decided_by_term(question, finding.text)
        elif kind == "yes_no" and (excepted := decided_by_exception(question, finding.cites[0].quote)) is not None:
            value = excepted  # what the rule denies, its exception allows
        elif kind == "yes_no" and PERSONAL.search(finding.text) and OF_OTHERS.search(question.text):
            value = decided_by_term(question, finding.text)  # "personal: yes" is a no to "may another use it?"
        elif kind == "text" and question.kinds[0] == "party" and NAME.fullmatch(finding.text):
            kind, value = "party", Party(finding.text.split("<")[0].strip())
        elif kind in ("text", "date") and question.kinds[0] == "time" and (clock := _only_time(finding)):
            kind, value = "time", Text(clock)
        elif kind == "text" and question.kinds[0] == "code" and CODE.fullmatch(finding.text.strip()):
            kind = "code"
        if question.kinds[0] == "often" and kind == "duration" and not _is_frequency(finding):
            continue  # how long something may take is not how often it may be done
        rank = 0 if gap else _rank(question, kind)
        if rank == 0 and kind == "date" and isinstance(value, DateValue) and WHICH_DAYS.match(question.text):
            rank = 1  # days are asked for, not one
        if rank == 1 and kind == "duration" and question.kinds[0] == "date" and not _limits(finding):
            rank = question.kinds.index(kind)
        if rank is None:
            continue
        evidence = evidence_of(
            question, kind, rank, term=1.0, alike=alike, confidence=finding.confidence, gap=float(gap),
            worked_out=float(finding.state == "computed"), conflicting=float(finding.state == "conflicting" and bool(finding.rivals)),
            **_told_where(inquiry, question, kind, finding, alike),
        )  # fmt: skip
        if kind == "text" and WHERE.match(question.text):
            evidence = _given(evidence, "cue_fit", _names_a_place(inquiry, finding.text))
        cite = finding.cites[0]
        if (range_ := _range_at(inquiry, finding)) is not None:  # "10 to 12 weeks" is no single value
            words, quote = Text(on_one_line(range_.of(inquiry.passages.text))), quote_around(inquiry.passages, range_)
            out.append(Answer(kind, words, range_, quote, evidence, f"the term {finding.term.label!r}"))
            continue
        answer = Answer(kind, value, cite.span, cite, evidence, f"the term {finding.term.label!r}", finding)
        if (before := _as_it_was(inquiry, question, answer)) is not None:
            out.append(before)
            continue
        if finding.term.figure and OF_BEFORE.search(question.text):
            continue  # a headline is this period's; the statements tell the one before
        out += [answer, *_others_there(inquiry, question, answer)]
        if (held := _held_in(inquiry, question, answer, alike)) is not None:
            out.append(held)
    return out


def _held_in(inquiry: Inquiry, question: Question, answer: Answer, alike: float) -> Answer | None:
    """The one value of the kind asked for that the words of a term hold: "you must tell us within 10 working days"."""
    finding, wanted = answer.finding, question.kinds[0]
    if answer.kind != "text" or finding is None or not question.sure or wanted not in ("duration", "money", "percent"):
        return None
    place = finding.cites[0].span
    values = inquiry.passages.values_in(wanted, place)
    if len(values) != 1 or alike < HELD_ALIKE:
        return None
    found = values[0]
    evidence = evidence_of(
        question, wanted, 0, term=1.0, alike=alike, confidence=finding.confidence,
        **where_it_stands(inquiry, question, wanted, place, found.span.of(inquiry.passages.text)),
    )  # fmt: skip
    quote = quote_around(inquiry.passages, found.span)
    return Answer(wanted, found.value, found.span, quote, evidence, f"in the words of the term {finding.term.label!r}")


HELD_ALIKE = 0.7  # how like a term must be to what is asked for its only value to answer


FROM_WHEN = pattern(r"(?:and\s+)?(?:from|since)\s+(?:when|what|which)\b", re.IGNORECASE)
NTH_OF_DAYS = pattern(rf"\b(?P<nth>{'|'.join(ORDINALS)}|last|final)\b", re.IGNORECASE)


def _of_its_days(question: Question, finding: Finding) -> DateValue | None:
    """The day that a question counts out of several, "the second review"; None where it counts none of them."""
    nth = NTH_OF_DAYS.search(question.text)
    if nth is None or not isinstance(finding.value, ListOf):
        return None
    days = [found.value for item in finding.value.items for found in find_dates(item)]
    whole = [d for d in days if isinstance(d, DateValue) and d.day is not None]
    place = ORDINALS.get(nth["nth"].lower(), 0)
    if len(whole) != len(finding.value.items) or place > len(whole):
        return None
    return sorted(whole, key=lambda d: d.day)[int(place) - 1]


def _limits(finding: Finding) -> bool:
    """True for a length of time that ends what may be done, "within 14 days", beside one after which something ends."""
    quote = finding.cites[0].quote
    at = quote.find(finding.text) if finding.text else -1
    return at < 0 or LIMITS.search(quote, max(0, at - 24), at) is not None


def _is_frequency(finding: Finding) -> bool:
    """True for a length of time that says how often something is done: "every five years"."""
    words = rf"\b(?:every|each)\s+{re.escape(finding.text)}"
    return OFTEN.search(finding.text) is not None or re.search(words, finding.cites[0].quote) is not None


def _of_another_column(inquiry: Inquiry, question: Question, finding: Finding) -> bool:
    """True for the cell of a row under one heading, where another heading of the table says what is asked for."""
    if finding.state not in ("stated", "conflicting") or not finding.text:
        return False
    document, cite = inquiry.document, finding.cites[0].span
    at = document.text.find(finding.text, cite.start, cite.end)
    found = document.cell_at(Span(at, at + len(finding.text))) if at >= 0 else None
    if found is None or not found[0].header_rows or found[0].columns < 3:
        return False
    table, cell = found
    heads = {
        c.column: frozenset(stems_of(" ".join(column_path(table, c, document.text)))) for c in table.row_cells(cell.row)
    }
    row = frozenset(stems_of(" ".join(c.span.of(document.text) for c in table.row_cells(cell.row))))
    own = heads.get(cell.column, frozenset()) | row
    others = [h - own for column, h in heads.items() if column != cell.column]

    def says(stems: frozenset[str], idea: Idea) -> bool:
        return any(stems.issuperset(way) for way, worth in idea.ways if worth >= SURELY)

    return any(not says(own, idea) and any(says(h, idea) for h in others) for idea in question.ideas)


OF_A_YEAR = pattern(r"\b(?:this|the|last|next)\s+(?:\w+\s+)?year\b", re.IGNORECASE)


def _columns_named(inquiry: Inquiry, question: Question, kind: str, table: Table, cell: Cell) -> float:
    """How much more of what is asked for is the head of another column of such values than that of a cell, 0 to 1.

    What the heads of all those columns say, or none does, tells nothing of them.
    """
    text, ideas = inquiry.document.text, question.ideas
    finder = pattern_finder(inquiry, kind) if kind in PATTERNS else inquiry.values.finder(kind)
    heads: dict[int, frozenset[str]] = {}
    for other in table.row_cells(cell.row):
        there = (
            [line for line in inquiry.matcher.lines.at(other.span) if line.kind == "cell"] if other is not cell else []
        )
        if other is cell or (kind == "text" and there) or (finder is not None and any(finder(line) for line in there)):
            words = frozenset(stems_of(" ".join(column_path(table, other, text)))) - SAY_LITTLE
            heads[other.column] = words
    if len(heads) < 2 or not heads.get(cell.column):
        return 0.0
    claims = dict.fromkeys(heads, 0.0)
    total = 0.0
    for idea in ideas:
        if idea.name == ("year",) and OF_A_YEAR.search(question.text):
            continue  # when, not what
        named = {
            column: max((worth * len(way) / len(head) for way, worth in idea.ways if worth >= SURELY and head.issuperset(way)), default=0.0)
            for column, head in heads.items()
        }  # fmt: skip
        if len(set(named.values())) > 1:
            total += idea.weight
            for column, share in named.items():
                claims[column] += idea.weight * share
    return (max(claims.values()) - claims[cell.column]) / total if total else 0.0


def _as_it_was(inquiry: Inquiry, question: Question, answer: Answer) -> Answer | None:
    """The value that the sentence of a term's gives for before, "down from £12.4 million (2021: £14 million)", where that is asked for."""
    finding = answer.finding
    years = set(YEAR.findall(question.text))
    before = OF_BEFORE.search(question.text) is not None
    if finding is None or finding.state != "stated" or answer.kind not in VALUED or not (before or years):
        return None
    finder, text = inquiry.values.finder(answer.kind), inquiry.passages.text
    for line in inquiry.matcher.lines.at(answer.quote.span):
        for found in finder(line) if finder is not None and line.kind in ("sentence", "named") else ():
            start = max(line.values.start, found.span.start - 40)
            compared = COMPARED.search(text, start, found.span.start)
            if (before and BEFORE_IT.search(text, start, found.span.start)) or (compared and compared["year"] in years):
                quote = quote_around(inquiry.passages, found.span)
                return Answer(answer.kind, found.value, found.span, quote, answer.evidence, "what it was before")
    return None


def _only_time(finding: Finding) -> str:
    """The time of day that stands where a term was told, "Sunday 15 June, 06:50"; "" where there is none, or several."""
    found = {m.group() for m in CLOCK.finditer(finding.cites[0].quote)}
    return on_one_line(found.pop()) if len(found) == 1 else ""


def _told_where(inquiry: Inquiry, question: Question, kind: str, finding: Finding, alike: float) -> dict[str, float]:
    """Evidence of the words around a term's value. Those of a worked-out one are those that it was worked out from: they
    need not say what is asked, where the term's own names do."""
    told = where_it_stands(inquiry, question, kind, finding.cites[0].span, finding.text)
    if finding.state == "computed" and "its_coverage" in told:
        told["its_coverage"] = max(told["its_coverage"], alike)
        told["its_missing"] *= 1 - alike
    return told


def _others_there(inquiry: Inquiry, question: Question, answer: Answer) -> Iterator[Answer]:
    """The other values of the sentence in which a term's stands, where more of what is asked for goes with them: of "twelve
    months, or nine for seed" the nine months, where seed is asked about.
    """
    claimed, finding = answer.evidence[EVIDENCE.index("outclaimed")], answer.finding
    if claimed < CLAIMED or finding is None or finding.state != "stated" or answer.kind not in VALUED:
        return
    text, cite = inquiry.passages.text, answer.quote.span
    at = text.find(finding.text, cite.start, cite.end)
    finder = inquiry.values.any_of(competing(question, answer.kind))
    if at < 0 or finder is None:
        return
    for hit in inquiry.matcher.each_at(question.ideas, Span(at, at + len(finding.text)), finder):
        if hit.found is None or hit.outclaimed >= claimed:
            continue
        if _of_an_aside(inquiry, question, Span(at, at + len(finding.text)), hit.found.span):
            continue
        kind = of_type(hit.found.value)
        if kind == answer.kind and not fits(finding.term, hit.found.value):
            continue
        evidence = list(answer.evidence)
        evidence[EVIDENCE.index("outclaimed")] = hit.outclaimed
        evidence[EVIDENCE.index("rank")] = float(_rank(question, kind) or 0)
        quote = quote_around(inquiry.passages, hit.found.span)
        yield Answer(
            kind,
            hit.found.value,
            hit.found.span,
            quote,
            tuple(evidence),
            f"where {finding.term.label!r} is told",
        )


BRACKETED = pattern(r"\([^()]*\)")


def _of_an_aside(inquiry: Inquiry, question: Question, main: Span, other: Span) -> bool:
    """True for a value in brackets beside a sentence's own one where the brackets name nothing that is asked for but what the
    sentence or its heading names too: "within 14 days (and tell the police within 24 hours)".
    """
    text, sentence = inquiry.passages.text, inquiry.passages.sentence_at(main.start)
    if sentence is None:
        return False
    asides = BRACKETED.finditer(text, sentence.span.start, sentence.span.end)
    aside = next((m for m in asides if m.start() <= other.start < m.end()), None)
    if aside is None or aside.start() <= main.start < aside.end():
        return False
    inside = frozenset(stems_of(aside.group()))
    around = text[sentence.span.start : aside.start()] + text[aside.end() : sentence.span.end]
    outside = frozenset(stems_of(f"{around} {sentence.headings}"))
    named = [{stem for way, _ in idea.ways for stem in way} for idea in question.ideas]
    return not any(stems & inside and not stems & outside for stems in named)


def _range_at(inquiry: Inquiry, finding: Finding) -> Span | None:
    """Where a range stands of which a term's value is the upper end; None where it is a value of its own."""
    if finding.state != "stated" or not finding.text:
        return None
    text, cite = inquiry.passages.text, finding.cites[0].span
    at = text.find(finding.text, cite.start, cite.end)
    return range_ending(text, cite.start, Span(at, at + len(finding.text)), finding.value) if at >= 0 else None


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


def from_lists(inquiry: Inquiry, question: Question, *, days: bool = True) -> list[Answer]:
    """Answers by the document's figures, bills and, if `days`, worked-out days."""
    ideas = frozenset(w for idea in question.ideas for w in idea.name)
    offers: list[Offer] = []
    if inquiry.figures and {"money", "number", "percent"} & set(question.kinds):
        from yarnex.core.search.from_figures import of_figures

        offers += of_figures(inquiry.figures, question.text, ideas)
    if {"money", "date"} & set(question.kinds):
        offers += of_bills(inquiry.bills, question.text, ideas)
    if days and "date" in question.kinds:
        offers += of_dates(inquiry.dates, question.text, ideas)
    if question.kinds and question.kinds[0] == "party":
        offers += of_parties(inquiry, question)
    out = []
    for offer in offers:
        rank = _rank(question, offer.kind)
        if rank is None:
            continue
        computed = bool(offer.working)
        evidence = evidence_of(
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
        answer = Answer(offer.kind, offer.value, offer.cites[0].span, offer.cites[0], evidence, offer.why, finding)
        out.append(_as_it_was(inquiry, question, answer) or answer)
    return out


def from_lines(inquiry: Inquiry, question: Question) -> list[Answer]:
    """Values and passages in the lines that say what is asked for."""
    out: list[Answer] = []
    for rank, kind in kinds_sought(question.kinds, question.text):
        if kind == "schedule":
            out += _columns(inquiry, question, rank)
            continue
        finder = pattern_finder(inquiry, kind) if kind in PATTERNS else inquiry.values.finder(kind)
        hits = inquiry.matcher.ranked(
            question.ideas, finder, limit=MOST_IF_LEANS if question.leans else MOST_HITS, seconds=2
        )
        if kind == "time" and question.kinds[0] == "date":  # "until 5 p.m. on 9 May": the day is asked for
            hits = [h for h in hits if not inquiry.passages.values_in("date", h.line.values)]
        if kind in VALUED and names_a_time(question.text):
            hits = [*hits, *_in_rows_then(inquiry, question, finder, hits)]
        for place, hit in enumerate(hits):
            evidence = evidence_of(
                question, kind, _rank_of(inquiry, question, hit, rank), **_of_hit(question, hit, hits), first=float(place == 0), fit=hit.fit,
                second=float(hit.second), label=float(hit.line.kind == "named"), outclaimed=_outclaimed(inquiry, question, kind, hit),
            )  # fmt: skip
            if hit.found is not None and hit.line.kind == "cell":
                evidence = _of_column(inquiry, question, kind, hit.found.span, evidence)
            elif hit.found is None and hit.line.kind == "cell" and kind == "text":
                evidence = _of_column(inquiry, question, kind, hit.line.values, evidence)
            if kind == "text" and WHY.search(question.text):
                evidence = _given(
                    evidence, "cue_fit", float(REASON.search(hit.line.span.of(inquiry.passages.text)) is not None)
                )
            elif kind == "text" and WHERE.match(question.text):
                evidence = _given(evidence, "cue_fit", _names_a_place(inquiry, hit.line.span.of(inquiry.passages.text)))
            made = _answer(inquiry, question, kind, hit, evidence)
            if made is not None:
                out.append(made)
    return [*out, *_gaps(inquiry, question)]


WHERE = pattern(r"(?:and\s+|but\s+)?(?:(?:from|to)\s+)?where\b", re.IGNORECASE)
A_PLACE = pattern(
    r"\b(?:[Ii]n|[Aa]t|[Tt]o|[Ff]rom|[Nn]ear|[Oo]n|[Bb]eside|[Bb]ehind|[Oo]utside)\s+(?:(?:the|its|our|your|an?)\s+)?(?:[a-z]+\s+)?"
    r"(?!(?:\w+\s+)?(?:Date|Day|Term|January|February|March|April|May|June|July|August|September|October|November|December|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Board|Company|Group|Committee|Agreement|Lease|Contract|Act|Schedule|Section|Clause|Article|Part|Part(?:y|ies)|Directors?|Chair\w*|Chief|Government|State|Note|Annex|Appendix|Table|Figure|Mr|Mrs|Ms|Dr|Business|Working|Year)\b)(?P<name>[A-Z][a-z][\w’'-]*)"
)


def _names_a_place(inquiry: Inquiry, words: str) -> float:
    """1 for words that say where: "in London", not "at Completion"."""
    return float(
        any(
            inquiry.passages.defined(m["name"]) is None and m["name"] not in inquiry.values.roles
            for m in A_PLACE.finditer(words)
        )
    )


def _given(evidence: tuple[float, ...], name: str, amount: float) -> tuple[float, ...]:
    """The evidence with one of its numbers, by its name in EVIDENCE."""
    place = EVIDENCE.index(name)
    return (*evidence[:place], amount, *evidence[place + 1 :])


def _in_rows_then(
    inquiry: Inquiry, question: Question, finder: Callable[[Line], list[Found[Value]]] | None, known: Sequence[Hit]
) -> Iterator[Hit]:
    """Values in rows that hold at the time after a start that a question names: "Between one and two years"."""
    months = elapsed_asked(question.text)
    for table in inquiry.document.tables if finder is not None else ():
        for row in range(table.header_rows, table.rows):
            cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
            label = cells[0].span.of(inquiry.document.text) if cells else ""
            if len(cells) < 2 or (elapsed_fit(months, label) or split_year_fit(question.text, label)) <= 0:
                continue
            for cell in cells[1:]:
                if not any(h.found is not None and h.found.span.overlaps(cell.span) for h in known):
                    yield from inquiry.matcher.each_at(question.ideas, cell.span, finder)[:1]


def _of_column(
    inquiry: Inquiry, question: Question, kind: str, value: Span, evidence: tuple[float, ...]
) -> tuple[float, ...]:
    """The evidence with how far the head of another column of the table is what is asked for."""
    place = inquiry.document.cell_at(value)
    if place is None or place[0].columns < 3 or not place[0].header_rows:
        return evidence
    given = list(evidence)
    given[EVIDENCE.index("other_column")] = _columns_named(inquiry, question, kind, *place)
    return tuple(given)


def _of_hit(question: Question, hit: Hit, hits: Sequence[Hit]) -> dict[str, float]:
    """What the line of a hit says of the question, and how far it is ahead of the other lines."""
    others = max((h.score for h in hits if h is not hit and not h.second), default=0.0)
    return {
        "score": min(hit.score, 1.4), "coverage": hit.coverage, "named": hit.named, "missing": min(4.0, len(hit.missing)), "own": hit.own, "rarest": hit.rarest,
        "pairs": hit.pairs, "cell": float(hit.line.kind == "cell"), "short": min(1.0, 12 / max(1, hit.line.size)), "close": hit.score / max(0.2, hit.coverage),
        "few": 1 / max(1, len(question.ideas)), "lead": max(-0.5, min(0.5, hit.score - others)),
    }  # fmt: skip


def _columns(inquiry: Inquiry, question: Question, rank: int) -> Iterator[Answer]:
    """Columns of sums by period in which, or over which, stands what is asked for."""
    document = inquiry.document
    seen: set[tuple[Span, int]] = set()
    hits = inquiry.matcher.ranked(
        question.ideas, lambda line: inquiry.values.money(line) if line.kind == "cell" else [], limit=20
    )
    for hit in hits:
        assert hit.found is not None
        place = document.cell_at(hit.found.span)
        if place is None or (place[0].span, place[1].column) in seen:
            continue
        table, cell = place
        seen.add((table.span, cell.column))
        schedule = schedule_of_column(inquiry.passages, table, cell.column)
        if schedule is None:
            continue
        evidence = evidence_of(question, "schedule", rank, **_of_hit(question, hit, hits), first=float(len(seen) == 1))
        yield Answer(
            "schedule", schedule, table.span, Cite(document, table.span), evidence, "a column of sums by period"
        )


LEADER = pattern(r"(?:\.\s?){5,}\s*(?:\d+|[ivxlc]+)?\s*\Z")


def _gaps(inquiry: Inquiry, question: Question) -> Iterator[Answer]:
    """Places left blank or blacked out beside which stands what is asked for."""
    if question.kinds == ("yes_no",):
        return

    def found(line: Line) -> list[Found[Value]]:
        return [Found(Text(state), span) for span, state in inquiry.passages.gaps_in(line.values)]

    hits = inquiry.matcher.ranked(question.ideas, found, limit=3)
    for place, hit in enumerate(hits):
        assert hit.found is not None
        if hit.coverage < GAP_NAMED or LEADER.search(hit.line.span.of(inquiry.passages.text)):
            continue  # dots lead to a page of the contents
        quote = quote_around(inquiry.passages, hit.found.span)
        evidence = evidence_of(question, "gap", 0, **_of_hit(question, hit, hits), first=float(place == 0), gap=1.0)
        state = hit.found.value.words if isinstance(hit.found.value, Text) else "blank"
        finding = Finding(inquiry.document, Term("answer", question.text, "", "text"), state, None, "", 0.5, (quote,))
        yield Answer("gap", None, hit.found.span, quote, evidence, "left open where it should stand", finding)


def _is_small_money(question: Question, hit: Hit) -> bool:
    """True for pence and cents where a sum is asked for: 4.2 pence is a dividend."""
    value = hit.found.value if hit.found is not None else None
    return question.kinds[0] == "money" and isinstance(value, Quantity) and value.unit in SMALL_MONEY


def _outclaimed(inquiry: Inquiry, question: Question, kind: str, hit: Hit) -> float:
    """How much more of what is asked for goes with another value of the line, be it of another kind that may be wanted."""
    if kind not in VALUED and kind not in PATTERNS and kind != "party":
        return 0.0
    kinds = competing(question, kind)
    days = kind in ("date", "period") and question.kinds[0] == "date"
    if hit.found is None or (len(kinds) < 2 and not days) or hit.outclaimed:
        return hit.outclaimed
    finder = _days_and_months(inquiry) if days else inquiry.values.any_of(kinds)
    ideas = (
        question.ideas
        if not days
        else tuple(replace(i, weight=i.weight * OF_DEED) if i == question.deed else i for i in question.ideas)
    )
    others = inquiry.matcher.each_at(ideas, hit.found.span, finder)
    return next((o.outclaimed for o in others if o.found is not None and o.found.span == hit.found.span), 0.0)


def _days_and_months(inquiry: Inquiry) -> Callable[[Line], list[Found[Value]]]:
    """What finds whole dates and times told without a day, "July 2030", in a line."""
    periods = pattern_finder(inquiry, "period")
    return lambda line: sorted((*inquiry.values.dates(line), *periods(line)), key=lambda f: f.span)


def _rank_of(inquiry: Inquiry, question: Question, hit: Hit, rank: int) -> int:
    """The place of a hit's kind among those wanted; "21 days after receipt" tells a day nearly as a date does."""
    if _is_small_money(question, hit):
        return 0
    if rank > 1 and question.kinds[0] == "date" and hit.found is not None and isinstance(hit.found.value, Duration):
        text, place = inquiry.passages.text, hit.found.span
        runs = RUNS_FROM.match(text, place.end) is not None
        limit = BY_WHEN.search(question.text) and LIMITS.search(text, max(0, place.start - 24), place.start)
        return 1 if runs or limit else rank
    return rank


# "By when must it be reported?" is told by "within 14 days" as well as by a day.
BY_WHEN = pattern(
    r"\bwhen\s+must\b|\b(?:by|until|till)\s+(?:when|what|which)\b|\bdeadline\b|\bat\s+(?:the\s+)?latest\b",
    re.IGNORECASE,
)
LIMITS = pattern(r"\b(?:within|(?:not|no)\s+later\s+than|inside|at\s+most)\s+(?:the\s+)?\Z", re.IGNORECASE)


def _rank(question: Question, kind: str) -> int | None:
    """The place of a kind among those wanted; None where it is none of them."""
    if kind == "duration" and question.kinds[0] == "date" and kind in question.kinds and BY_WHEN.search(question.text):
        return 1
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
        range_ = range_ending(text, line.span.start, span, value) or range_beginning(text, span, line.span.end, value)
        if range_ is not None:
            span, value = range_, Text(on_one_line(range_.of(text)))
        return Answer(kind, value, span, quote, evidence, "the words stand by it", None, working)
    if LEADER.search(line.span.of(text)):
        return None  # a line of the contents tells nothing
    if kind == "yes_no":
        words = line.values.of(text)
        if line.kind == "cell" and not re.search(r"[^\W\d_]{2}", words) and ticked_answer(words) is None:
            return None  # a figure decides nothing
        if NUMBER_OF.match(words) and not DECIDES_SO.search(words):
            return None  # nor does the number or date of something
        value = yes_or_no(passages, line, question)
        if value.yes and ALLOWS.search(words) and taken_out_by(passages, Cite(document, line.span)) is not None:
            value = YesNo(False)  # the clause that would allow it does not apply
        if inquiry.matcher.lines.spoken and (YES.match(words) or DENIES.search(words)):
            given = list(evidence)
            given[EVIDENCE.index("cue_fit")] = 1.0
            evidence = tuple(given)
        return Answer(
            kind,
            value,
            line.values,
            Cite(document, cut(text, line.span, line.values)),
            evidence,
            "these words decide it",
        )
    if kind == "list":
        items = list_items(Term("asked", "asked", "", "list"), passages, _through_semicolons(passages, line))
        if items is None:
            return None
        return Answer(kind, items[0], items[1], quote_around(passages, items[1]), evidence, "what stands there")
    if passages.gaps_in(line.values) and not BLANK.sub("", BLACKED_OUT.sub("", line.values.of(text))).strip(" .:-–"):
        return None
    words = line.values.of(text).strip()
    if NOT_THERE.fullmatch(words) or (line.size < FEW_WORDS and ON_REQUEST.search(words)):
        return None
    if question.kinds[0] == "party" and ONLY_A_DAY.fullmatch(words.rsplit(":", 1)[-1].strip()):
        return None  # a day is nobody
    piece = shortened(text, line.values)
    quote = Cite(document, cut(text, line.span, piece))
    return Answer("text", Text(on_one_line(piece.of(text))), piece, quote, evidence, "the passage says it")


def _through_semicolons(passages: Passages, line: Line) -> Span:
    """The words of a line; with all that follows in its paragraph up to the end of the sentence where it opens a list, "the
    following go: section 3; section 12; and ...".
    """
    words = line.values.of(passages.text)
    if line.kind != "sentence" or not words.rstrip().endswith(";") or ": " not in words:
        return line.values
    block = passages.document.blocks[line.block].span
    for sentence in sentences(block.of(passages.text), semicolons=False):
        whole = Span(block.start + sentence.start, block.start + sentence.end)
        if whole.start <= line.values.start < whole.end and whole.end - whole.start <= LONGEST_LIST:
            return Span(line.values.start, whole.end)
    return line.values
