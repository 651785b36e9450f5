"""Values that follow from others: dates counted from defined dates, lengths, last days for notice, rents by area.

A rule takes (term, findings so far, passages) and gives a `Computed`, or None where something it needs is missing.
Each step of the working is a sentence with the values it used; the cites are those of the values.
"""

from __future__ import annotations

import calendar
import re
from datetime import date, timedelta
from decimal import Decimal
from typing import cast

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.phrases import says
from yarnex.core.terms.changes import CHANGE_RULES
from yarnex.core.terms.model import Finding, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.rule import Computed, Findings, Rule
from yarnex.core.values import (
    DateValue,
    Duration,
    ListOf,
    Money,
    Party,
    Quantity,
    Schedule,
    Text,
    add_duration,
    find_dates,
    find_durations,
    find_organisations,
)
from yarnex.core.values.numbers import ORDINAL_WORDS, read_words


def shown_date(day: date) -> str:
    """A date as people write it: 1 March 2025."""
    return f"{day.day} {calendar.month_name[day.month]} {day.year}"


def shown_duration(length: Duration) -> str:
    """A length of time as people write it: "9 months", "1 year", "10 business days"."""
    unit = length.unit.replace("_", " ")
    return f"{length.value.normalize():f} {unit[:-1] if length.value == 1 else unit}"


def _date_of(findings: Findings, *names: str) -> tuple[date, Finding] | None:
    for name in names:
        finding = findings.get(name)
        if finding is not None and isinstance(finding.value, DateValue) and finding.state != "conflicting":
            return finding.value.day, finding
    return None


def _length_of(findings: Findings, *names: str) -> tuple[Duration, Finding] | None:
    for name in names:
        finding = findings.get(name)
        if finding is not None and isinstance(finding.value, Duration) and finding.state != "conflicting":
            return finding.value, finding
    return None


def _cites(*findings: Finding) -> tuple[Cite, ...]:
    """The cites behind several findings, each once."""
    out: list[Cite] = []
    for finding in findings:
        for cite in finding.cites:
            if all((c.document, c.span) != (cite.document, cite.span) for c in out):
                out.append(cite)
    return tuple(out)


# ------------------------------------------------------------------ dates counted from a defined date
_ordinal = rf"(?:{ORDINAL_WORDS}|\d{{1,3}}(?:st|nd|rd|th))"
NTH_MONTH = pattern(
    rf"last day of the (?P<n>{_ordinal})\s*(?:\((?P<d>\d{{1,3}})(?:st|nd|rd|th)?\))?\s*(?P<full>full\s+)?(?:calendar\s+)?month\s+(?P<to>after|following|from|thereafter)\s*(?:the\s+)?(?P<name>(?:\d{{1,2}}(?:st|nd|rd|th)?\s+(?:of\s+)?)?[A-Z][\w'’ ]{{2,50}}?)?(?=[\s,.;)(]*(?:\Z|[,.;()]|\b(?:unless|subject|or|and|in|which|whichever|of)\b))",
    re.IGNORECASE,
)
ANNIVERSARY = pattern(
    rf"(?P<eve>(?:day|date)\s+(?:immediately\s+)?(?:before|preceding|prior to)\s+)?(?:the\s+)?(?P<n>{_ordinal})\s*(?:\(\d{{1,3}}(?:st|nd|rd|th)?\)\s*)?anniversary\s+of\s+(?:the\s+)?(?P<name>[\w'’ ,]{{3,60}})",
    re.IGNORECASE,
)
AFTER = pattern(r"(?P<to>after|following|from|before|prior to|preceding)\s+(?:the\s+)?(?P<name>[A-Z][\w'’ ]{2,50})")


def resolve_date(name: str, findings: Findings, passages: Passages) -> tuple[date, str, tuple[Cite, ...]] | None:
    """The day that a defined date stands for: by its own definition, or by the finding of that name."""
    name = name.strip()
    for found in find_dates(name):
        return found.value.day, shown_date(found.value.day), ()
    for length in range(len(name.split()), 0, -1):
        short = " ".join(name.split()[:length])
        definition = passages.defined(short)
        if definition is not None:
            dates = passages.values_in("date", definition.meaning)
            if dates and isinstance(dates[-1].value, DateValue):
                cite = Cite(passages.document, definition.sentence)
                day = dates[-1 if definition.inline else 0].value
                assert isinstance(day, DateValue)
                return day.day, f"{short} is {shown_date(day.day)}", (cite,)
        for finding in findings.values():
            if isinstance(finding.value, DateValue) and any(p.fullmatch(short) for p in finding.term.names):
                return finding.value.day, f"{short} is {shown_date(finding.value.day)}", finding.cites
    return None


def nth_month_end(day: date, count: int, full: bool) -> date:
    """The last day of the `count`-th month after `day`; full: only whole months count, and one that starts on `day` is whole.

    >>> nth_month_end(date(2025, 3, 1), 84, True), nth_month_end(date(2021, 3, 2), 120, True)
    (datetime.date(2032, 2, 29), datetime.date(2031, 3, 31))
    """
    first = day.replace(day=1) if full and day.day == 1 else day.replace(day=1) + relativedelta(months=1)
    month = first + relativedelta(months=count - 1)
    return month.replace(day=calendar.monthrange(month.year, month.month)[1])


def _ordinal_number(text: str) -> int:
    digits = re.match(r"\d+", text)
    return int(digits.group()) if digits else int(read_words(text) or 0)


def date_by_formula(words: Span, findings: Findings, passages: Passages) -> Computed | None:
    """A date from a formula in the document's words: "the last day of the eighty-fourth full month after ..."."""
    text = words.of(passages.text)
    m = NTH_MONTH.search(text)
    if m:
        name = m["name"] or _date_named_before(text[: m.start()])
        base = resolve_date(name, findings, passages) if name else None
        count = int(m["d"]) if m["d"] else _ordinal_number(m["n"])
        if base and count:
            day = nth_month_end(base[0], count, bool(m["full"]))
            start = Span(words.start + m.start(), words.start + m.end())
            kind = "full month" if m["full"] else "month"
            first = nth_month_end(base[0], 1, bool(m["full"]))
            working = (
                f"{base[1]}", f"the first {kind} counted ends on {shown_date(first)}",
                f"the last day of {kind} {count} is {shown_date(day)}",
            )  # fmt: skip
            return Computed(
                DateValue(day), start.of(passages.text), working, (Cite(passages.document, start), *base[2])
            )
    m = ANNIVERSARY.search(text)
    if m:
        base = resolve_date(m["name"], findings, passages)
        count = _ordinal_number(m["n"])
        if base and count:
            day = base[0] + relativedelta(years=count)
            steps = [base[1], f"its anniversary no. {count} is {shown_date(day)}"]
            if m["eve"]:
                day -= timedelta(days=1)
                steps.append(f"the day before is {shown_date(day)}")
            start = Span(words.start + m.start(), words.start + m.end())
            return Computed(
                DateValue(day), start.of(passages.text), tuple(steps), (Cite(passages.document, start), *base[2])
            )
    for length in find_durations(text):
        behind = AFTER.match(text[length.span.end :].lstrip(" '’"))
        if not behind or re.search(r"\b(?:earlier|later|whichever|either)\b", text):
            continue
        base = resolve_date(behind["name"], findings, passages)
        back = behind["to"].lower() in ("before", "prior to", "preceding")
        counted = add_duration(base[0], length.value, back=back) if base else None
        if base and counted:
            start = Span(words.start + length.span.start, words.start + length.span.end)
            how = "before" if back else "after"
            told = (base[1], f"{shown_duration(length.value)} {how} that is {shown_date(counted)}")
            return Computed(
                DateValue(counted),
                text[length.span.start :].strip(" .")[:120],
                told,
                (Cite(passages.document, start), *base[2]),
            )
    return None


def _date_named_before(text: str) -> str:
    """The last capitalised "... Date" before a "thereafter"."""
    found = re.findall(r"((?:[A-Z][\w'’]+\s+){0,4}Date)\b", text)
    return found[-1] if found else ""


def by_formula(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """A date term's formula, in its definition or in a sentence that one of its cues without a value matches."""
    for definition in passages.definitions:
        if any(p.fullmatch(definition.name) for p in term.names):
            found = date_by_formula(
                definition.meaning if not definition.inline else definition.sentence, findings, passages
            )
            if found:
                return found
    for row in passages.labelled:
        if any(p.fullmatch(row.label) for p in term.names):
            found = date_by_formula(row.value, findings, passages)
            if found:
                return found
    for sentence in passages.sentences_for(term.near):
        words = sentence.span.of(passages.text)
        if any(c.search(words) for c in term.near) and not says(term.excludes, words):
            found = date_by_formula(sentence.span, findings, passages)
            if found:
                return found
    return None


def formula_words(term: Term, passages: Passages) -> Cite | None:
    """The words of a date formula for a term whose base day is not known: "the last day of the 120th full month ..."."""
    for sentence in passages.sentences_for(term.near):
        words = sentence.span.of(passages.text)
        if any(c.search(words) for c in term.near) and not says(term.excludes, words):
            m = NTH_MONTH.search(words) or ANNIVERSARY.search(words)
            if m:
                return Cite(passages.document, Span(sentence.span.start + m.start(), sentence.span.start + m.end()))
    return None


# ------------------------------------------------------------------ rules by name
STARTS = ("lease_start", "start_date", "commencement_date", "period_start", "drawdown_date", "effective_date")
LENGTHS = ("term_length", "initial_term", "hire_period", "period_length", "term")
ENDS = ("lease_end", "initial_term_end", "term_end", "end_date", "period_end", "final_maturity")
NON_RENEWAL = ("non_renewal_notice", "renewal_notice")


def term_end(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The formula where the document gives one, else start + term - 1 day (a term "from and including" its first day)."""
    found = by_formula(term, findings, passages)
    if found:
        return found
    start, length = _date_of(findings, *STARTS), _length_of(findings, *LENGTHS)
    if start and not length:
        return _ends_that_disagree(start, findings)
    if not start or not length:
        return None
    last = add_duration(start[0], length[0])
    if last is None:
        return None
    words = " ".join(c.quote for c in (*start[1].cites, *length[1].cites)).lower()
    exclusive = bool(re.search(r"\bfrom (?!and including)(?:but excluding )?", words)) and "from but excluding" in words
    day = last if exclusive else last - timedelta(days=1)
    step = f"{shown_date(start[0])} + {shown_duration(length[0])}" + (
        "" if exclusive else " - 1 day, as the first day counts"
    )
    return Computed(DateValue(day), shown_date(day), (f"{step} = {shown_date(day)}",), _cites(start[1], length[1]))


def _ends_that_disagree(start: tuple[date, Finding], findings: Findings) -> Computed | None:
    """The end by each of the lengths that a paper gives; None where it does not give two that differ."""
    stated = next((f for t in LENGTHS if (f := findings.get(t)) is not None and f.state == "conflicting"), None)
    if stated is None:
        return None
    lengths = [c.value for c in stated.rivals if isinstance(c.value, Duration) and c.quote in stated.cites]
    ends: dict[date, str] = {}
    for length in lengths:
        last = add_duration(start[0], length)
        if last is not None:
            day = last - timedelta(days=1)
            ends.setdefault(day, f"{shown_date(start[0])} + {shown_duration(length)} - 1 day = {shown_date(day)}")
    if len(ends) < 2:
        return None
    told = ("the lengths that the paper gives disagree", *ends.values())
    day = next(iter(ends))
    return Computed(DateValue(day), shown_date(day), told, _cites(start[1], stated), "conflicting")


def term_length(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Whole months from start to end, both days included."""
    start, end = _date_of(findings, *STARTS), _date_of(findings, *ENDS)
    if not start or not end or end[0] <= start[0]:
        return None
    between = relativedelta(end[0] + timedelta(days=1), start[0])
    months = between.years * 12 + between.months
    if between.days or not months:
        return None
    length = Duration(Decimal(months // 12), "years") if months % 12 == 0 else Duration(Decimal(months), "months")
    working = f"{shown_date(start[0])} to {shown_date(end[0])}, both included = {shown_duration(length)}"
    return Computed(length, shown_duration(length), (working,), _cites(start[1], end[1]))


def rent_free(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The time for which no rent is payable: between the two days that a clause names, or from the start of the term to that of rent."""
    for sentence in passages.sentences:
        said = NO_RENT.search(sentence.low)
        days = passages.values_in("date", sentence.span) if said is not None else []
        first, last = (days[0], days[1]) if len(days) > 1 else (None, None)
        if said is None or first is None or last is None or first.span.start < sentence.span.start + said.start():
            continue
        assert isinstance(first.value, DateValue) and isinstance(last.value, DateValue)
        if not BETWEEN_DAYS.fullmatch(passages.text[first.span.end : last.span.start]):
            continue
        length = _between(first.value.day, last.value.day + timedelta(days=1))
        if length is not None:
            working = f"{shown_date(first.value.day)} to {shown_date(last.value.day)}, both included = {shown_duration(length)} without rent"
            return Computed(length, shown_duration(length), (working,), (Cite(passages.document, sentence.span),))
    start, rent = _date_of(findings, "lease_start"), _date_of(findings, "rent_start")
    if not start or not rent or rent[0] <= start[0]:
        return None
    length = _between(start[0], rent[0])
    if length is None:
        return None
    working = f"{shown_date(start[0])} to {shown_date(rent[0])} = {shown_duration(length)} before rent starts"
    return Computed(length, shown_duration(length), (working,), _cites(start[1], rent[1]))


# "forty equal quarterly instalments"
EVERY = {"monthly": 1, "quarterly": 3, "half-yearly": 6, "six-monthly": 6, "annual": 12, "yearly": 12}
REPEATED = pattern(rf"\b(?:instal?lments?|payments)\b|\b(?P<every>{'|'.join(EVERY)})\b", re.IGNORECASE)


def last_instalment(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The day of the last of a number of regular instalments, counted from the first; at the end of each month, where the first
    falls on the end of one.
    """
    first, count = findings.get("first_instalment"), findings.get("instalment_count")
    if (
        first is None
        or count is None
        or not isinstance(first.value, DateValue)
        or not isinstance(count.value, Quantity)
    ):
        return None
    told = next((m["every"].lower() for m in REPEATED.finditer(count.cites[0].quote) if m["every"]), None)
    number = int(count.value.value)
    if told is None or number < 2 or first.state != "stated":
        return None
    day = first.value.day
    months = EVERY[told] * (number - 1)
    last = day + relativedelta(months=months)
    if (day + timedelta(days=1)).day == 1:
        last += relativedelta(day=31)
    working = f"{shown_date(day)} + {number - 1} times {EVERY[told]} months = {shown_date(last)}"
    return Computed(DateValue(last), shown_date(last), (working,), _cites(first, count))


NO_RENT = pattern(r"\bno\s+(?:\w+\s+){0,2}rent\s+(?:shall\s+be|is|will\s+be)\s+(?:payable|due|paid)\b")
BETWEEN_DAYS = pattern(r"\W*(?:to|until|up\s+to|through|till|and)(?:\s+and\s+including)?(?:\s+the)?\W*")
LONGEST_FREE = 4  # years without rent; more is no incentive but something else


def _between(first: date, end: date) -> Duration | None:
    """Whole months from one day to the day after the last, or else days; None where the days are no period without rent."""
    between = relativedelta(end, first)
    if end <= first or between.years > LONGEST_FREE:
        return None
    if between.days:
        return Duration(Decimal((end - first).days), "days")
    return Duration(Decimal(between.years * 12 + between.months), "months")


def _notice_by(date_names: tuple[str, ...], *notice: str) -> Rule:
    def rule(term: Term, findings: Findings, passages: Passages) -> Computed | None:
        day, length = _date_of(findings, *date_names), _length_of(findings, *notice)
        last = add_duration(day[0], length[0], back=True) if day and length else None
        if not day or not length or last is None:
            return None
        working = f"{shown_date(day[0])} - {shown_duration(length[0])} = {shown_date(last)}, that day included"
        return Computed(DateValue(last), shown_date(last), (working,), _cites(day[1], length[1]))

    return rule


def first_rent(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The first rent of the schedule, for leases that state rent only there."""
    schedule = findings.get("rent_schedule")
    if schedule is None or not isinstance(schedule.value, Schedule):
        return None
    row = schedule.value.rows[0]
    working = f"first row of the rent schedule: {row.from_} to {row.to}"
    return Computed(row.amount, f"{row.amount.amount:,f}", (working,), schedule.cites)


def _schedule(findings: Findings) -> tuple[Schedule, Finding] | None:
    """The first schedule among the findings."""
    for finding in findings.values():
        if isinstance(finding.value, Schedule) and finding.value.rows:
            return finding.value, finding
    return None


def first_of_schedule(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The sum of the first row of the document's schedule, where the schedule alone states it."""
    found = _schedule(findings)
    if found is None:
        return None
    row = found[0].rows[0]
    told = f"first row of {found[1].term.label.lower()}: {row.from_}" + (f" to {row.to}" if row.to else "")
    return Computed(row.amount, f"{row.amount.amount:,f}", (told,), found[1].cites)


def _date_of_schedule(place: int) -> Rule:
    def rule(term: Term, findings: Findings, passages: Passages) -> Computed | None:
        found = _schedule(findings)
        if found is None:
            return None
        days = []
        for row in found[0].rows:
            try:
                days.append(date.fromisoformat(row.from_))
            except ValueError:
                return None
        day = days[place]
        which = "first" if place == 0 else "last"
        return Computed(
            DateValue(day), shown_date(day), (f"{which} row of {found[1].term.label.lower()}",), found[1].cites
        )

    return rule


def parties(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Everyone to whom the parties clause gives a role, each once, with the role."""
    names: dict[str, str] = {}
    cites: list[Cite] = []
    said: set[str] = set()
    for party, _, sentence in passages.roles:
        if party.name.lower() not in said:  # capitals where they sign
            said.add(party.name.lower())
            names[party.name] = party.role
            cites.append(Cite(passages.document, sentence))
    if not names:
        return _by_number(passages) or _by_letter(passages)
    working = tuple(f"{name} is called {role}" for name, role in names.items())
    return Computed(ListOf(tuple(names)), "; ".join(names), working, tuple(dict.fromkeys(cites)))


NUMBERED_PARTY = pattern(r"\((?:\d|[A-Z])\)\s+(?P<name>[A-Z][^\n;]{3,120})")
AT_THE_HEAD = 12  # blocks in which the parties stand


def _by_number(passages: Passages) -> Computed | None:
    """The organisations that open numbered paragraphs at the head, "(1) Tarn Mills Limited of ...", where no role is given."""
    names: dict[str, Cite] = {}
    for block in passages.document.blocks[:AT_THE_HEAD]:
        for at in NUMBERED_PARTY.finditer(passages.text, block.span.start, block.span.end):
            first = next(iter(find_organisations(at["name"])), None)
            if first is not None and first.span.start == 0:
                start = at.start("name")
                names.setdefault(first.value.name, Cite(passages.document, Span(start, start + first.span.end)))
    if len(names) < 2:
        return None
    return Computed(
        ListOf(tuple(names)), "; ".join(names), ("numbered at the head of the paper",), tuple(names.values())
    )


def _by_letter(passages: Passages) -> Computed | None:
    """Who writes a letter and to whom it goes, as its parties."""
    from yarnex.core.terms.letterhead import addressee_of, issuer_of

    writes, reads = issuer_of(passages.document), addressee_of(passages.document)
    if writes is None or reads is None:
        return None
    names = (" ".join(writes.quote.split()), " ".join(reads.quote.split()))
    return Computed(ListOf(names), "; ".join(names), ("the sender and the reader of the letter",), (writes, reads))


def addressee(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """To whom a letter goes."""
    from yarnex.core.terms.letterhead import addressee_of

    named = addressee_of(passages.document)
    if named is None:
        return None
    words = " ".join(named.quote.split())
    value = Party(words) if term.type == "party" else Text(words)
    return Computed(value, words, ("named in the address of the letter",), (named,))


# Of two sides of an agreement; where all of its names but one are known by their roles, the other one is the other side.
OTHER_SIDE = {
    a: b
    for one, other in (
        ("lender", "borrower"), ("supplier", "customer"), ("supplier", "distributor"), ("landlord", "tenant"), ("licensor", "licensee"), ("seller", "buyer"),
        ("insurer", "policyholder"), ("client", "consultant"), ("lessor", "lessee"),
    )
    for a, b in ((one, other), (other, one))
}  # fmt: skip
HEAD = 1500  # characters at the top of a paper in which it names its parties
JOINED = pattern(r"\b(?:between|to|and|with|from|among|by)\b", re.IGNORECASE)


WRITES, READS = ("lender", "landlord"), ("borrower", "tenant")  # of letters that offer a facility, or change a lease


def _side_of_letter(term: Term, passages: Passages) -> Computed | None:
    """The side of an agreement that writes a letter about it, or the one to which the letter goes."""
    from yarnex.core.terms.letterhead import addressee_of, issuer_of

    if term.id not in (*WRITES, *READS) or "Dear " not in passages.document.text[:HEAD]:
        return None
    writes = term.id in WRITES
    named = (issuer_of if writes else addressee_of)(passages.document)
    if named is None:
        return None
    words = " ".join(named.quote.split())
    return Computed(Party(words), words, ("who writes the letter" if writes else "to whom the letter goes",), (named,))


def other_side(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The one of two organisations named at the head of an agreement that has no other part in it.

    Both must stand in one sentence or line that joins them, as in "A Bank plc to B Mills plc (the Company)".
    """
    return _beside_the_known(term, findings, passages) or _side_of_letter(term, passages)


def _beside_the_known(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    counterpart = findings.get(OTHER_SIDE.get(term.id, "")) or next(
        (f for name, f in findings.items() if OTHER_SIDE.get(name) == term.id), None
    )
    if counterpart is None or not isinstance(counterpart.value, Party) or not counterpart.usable:
        return None
    known = counterpart.value.name.lower()
    document = passages.document
    named: dict[str, Span] = {}
    for found in find_organisations(document.text[:HEAD]):
        named.setdefault(found.value.name.lower(), found.span)
    strangers = [span for name, span in named.items() if name != known]
    if len(strangers) == 1 and (beside := _beside_the_customer(counterpart, strangers[0], passages)) is not None:
        return beside
    if len(named) < 2 or known not in named:
        return None
    sentence = passages.sentence_at(named[known].start)
    if sentence is None:
        return None
    others = [s for name, s in named.items() if name != known and sentence.span.start <= s.start < sentence.span.end]
    if len(others) != 1:
        return None
    first, second = sorted((others[0], named[known]), key=lambda s: s.start)
    if not JOINED.search(document.text, first.end, second.start):
        return None
    cite = Cite(document, others[0])
    name = " ".join(cite.quote.split())
    working = (f"of the two parties named together, the other is the {counterpart.term.label.lower()}",)
    return Computed(Party(name), name, working, (cite,))


OF_A_PERSON = pattern(
    r"\b(?i:interview|statement|evidence|account|conversation|examination)\s+(?:with|of|by|from|given\s+by)\s+(?P<name>(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof)\.?\s)?[A-Z][\w’'-]+(?:\s(?:(?:van|von|de|der|la|le)\s)*[A-Z][\w’'-]+){1,3})"
)
IN_THE_CHAIR = pattern(
    r"(?P<name>(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof)\.?\s)?[A-Z][\w’'-]+(?:\s(?:(?:van|von|de|der|la|le)\s)*[A-Z][\w’'-]+){1,3}),?\s+(?:\((?:in\s+the\s+)?chair(?:man|woman|person|ing)?\)|in\s+the\s+chair\b)"
)


def interviewee(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The person whose interview or statement the title says it is."""
    from yarnex.core.terms.identity import identify

    title = identify(passages.document).title
    m = OF_A_PERSON.search(passages.text, title.span.start, title.span.end) if title is not None else None
    return _person(passages, Span(*m.span("name")), "named in the title") if m is not None else None


def chair(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The one of those present beside whose name "chair" stands."""
    m = IN_THE_CHAIR.search(passages.text)
    return _person(passages, Span(*m.span("name")), "said to be in the chair") if m is not None else None


def title(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The paper's own title."""
    from yarnex.core.terms.identity import identify

    return _words_at(identify(passages.document).title, "the title")


def _person(passages: Passages, place: Span, where: str) -> Computed:
    cite = Cite(passages.document, place)
    return Computed(Party(cite.quote), cite.quote, (where,), (cite,))


def issuer(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The organisation of the letterhead, the header or the title."""
    from yarnex.core.terms.letterhead import issuer_of

    named = issuer_of(passages.document)
    if named is None:
        return None
    return Computed(Party(named.quote), named.quote, ("named at the head of the paper",), (named,))


def signature(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The name below the close of a letter, with the post."""
    from yarnex.core.terms.letterhead import signature_of

    return _words_at(signature_of(passages.document), "below the close of the letter")


def sender(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The organisation of the letterhead, else who signs."""
    from yarnex.core.terms.letterhead import issuer_of, signature_of

    head = issuer_of(passages.document)
    if head is not None:
        return _words_at(head, "named at the head of the paper")
    return _words_at(signature_of(passages.document), "below the close of the letter")


def author(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Who signs a report, else the organisation in its first two lines; a header or a footer may be the reader's."""
    from yarnex.core.terms.letterhead import issuer_of, signature_of

    signed = signature_of(passages.document)
    if signed is not None:
        return _words_at(signed, "below the close")
    head = issuer_of(passages.document)
    first = [b for b in passages.document.blocks if b.kind not in ("furniture", "note")][:2]
    at_the_top = head is not None and any(b.span.start <= head.span.start < b.span.end for b in first)
    return _words_at(head, "named at the head of the paper") if at_the_top else None


def subject(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The line below the salutation, or the one that opens with "Re"."""
    from yarnex.core.terms.letterhead import subject_of

    return _words_at(subject_of(passages.document), "the line that says what the letter is about")


def signatories(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Those who sign, with their posts and for whom, from the blocks of signatures; else who stands below the close of a letter."""
    from yarnex.core.terms.letterhead import signature_of
    from yarnex.core.terms.signatures import signatories_of

    found = signatories_of(passages.document)
    if not found:
        below = signature_of(passages.document)
        words = " ".join(below.quote.split()) if below is not None else ""
        return (
            Computed(ListOf((words,)), words, ("below the close of the letter",), (below,))
            if below is not None
            else None
        )
    told = tuple(s.name + (f", {s.post}" if s.post else "") + (f", for {s.party}" if s.party else "") for s in found)
    return Computed(
        ListOf(told), "; ".join(told), ("the names in the blocks of signatures",), tuple(s.cite for s in found)[:6]
    )


def _words_at(cite: Cite | None, where: str) -> Computed | None:
    if cite is None:
        return None
    words = " ".join(cite.quote.split())
    return Computed(Text(words), words, (where,), (cite,))


def price_of_one(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The total price divided by the number of units that it is for, where no price of one is given."""
    total, count = _price("total_price", findings), _units(findings)
    if total is None or count is None:
        return None
    price, words = cast(Money, total.value), f"{cast(Money, total.value).amount:,f}"
    each = round(price.amount / count[0], 2)
    working = f"{words} / {count[0]:,f} = {each:,f}"
    return Computed(Money(each, price.currency), f"{each:,f}", (working,), _cites(total, count[1]))


def of_an_extra(term: Term, findings: Findings) -> bool:
    """True for a price of one that, for all the units, comes to less than half of the total: it is that of an extra."""
    one, total, count = _price("unit_price", findings), _price("total_price", findings), _units(findings)
    if term.compute != "price_of_one" or one is None or total is None or count is None:
        return False
    price, whole = cast(Money, one.value), cast(Money, total.value)
    return price.currency == whole.currency and 2 * price.amount * count[0] < whole.amount


def price_of_all(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The price of one times the number of units, where no total is given."""
    one, count = _price("unit_price", findings), _units(findings)
    if one is None or count is None:
        return None
    price = cast(Money, one.value)
    total = price.amount * count[0]
    working = f"{count[0]:,f} x {price.amount:,f} = {total:,f}"
    return Computed(Money(total, price.currency), f"{total:,f}", (working,), _cites(one, count[1]))


def _price(name: str, findings: Findings) -> Finding | None:
    """A price that the paper states without another beside it."""
    found = findings.get(name)
    return found if found is not None and found.state == "stated" and isinstance(found.value, Money) else None


def _units(findings: Findings) -> tuple[Decimal, Finding] | None:
    """How many units are offered: a whole number over one."""
    found = findings.get("quantity")
    if found is None or found.state != "stated" or not isinstance(found.value, Quantity):
        return None
    count = found.value.value
    return (count, found) if count > 1 and count == int(count) else None


def speakers(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Everyone whose words a transcript marks as theirs, in the order in which they first speak."""
    document = passages.document
    names: dict[str, Cite] = {}
    for mark in document.marks:
        if mark.kind == "speaker" and mark.value and mark.value not in names:
            names[mark.value] = Cite(document, mark.span)
    if not names:
        return None
    cites = tuple(names.values())[:8]
    whole = tuple(_in_full(name, document.text) for name in names)
    told = tuple(f"{short} is taken for {name}" for short, name in zip(names, whole, strict=True) if short != name)
    return Computed(ListOf(whole), "; ".join(whole), (f"{len(names)} people speak", *told), cites)


def _beside_the_customer(counterpart: Finding, place: Span, passages: Passages) -> Computed | None:
    """The one organisation that an agreement names at its head, "between Weir Ltd and the customer named in the order"."""
    sentence = passages.sentence_at(place.start)
    words = sentence.span.of(passages.text) if sentence is not None else ""
    if not re.search(rf"\bbetween\b.*\bthe\s+{re.escape(counterpart.term.label.lower())}\b", words, re.IGNORECASE):
        return None
    cite = Cite(passages.document, place)
    name = " ".join(cite.quote.split())
    return Computed(Party(name), name, (f"named at the head beside the {counterpart.term.label.lower()}",), (cite,))


INITIALS = pattern(r"[A-Z]{2,3}")
NAMED_IN_FULL = pattern(r"(?<![\w.])[A-Z][a-z][\w’'-]*(?:[ \u00a0][A-Z][a-z][\w’'-]*){1,2}(?!\w)")


def _in_full(initials: str, text: str) -> str:
    """The one name in a text of which some letters are the initials; the letters themselves where there is none, or several."""
    if not INITIALS.fullmatch(initials):
        return initials
    names = {m.group() for m in NAMED_IN_FULL.finditer(text) if "".join(w[0] for w in m.group().split()) == initials}
    return names.pop() if len(names) == 1 else initials


def rent_by_area(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """Yearly rent divided by the area let, or the rent itself where it is stated by area."""
    rent, area = findings.get("base_rent"), findings.get("floor_area")
    if rent is not None and isinstance(rent.value, Money) and (rent.value.per or "").startswith("sq_"):
        return Computed(rent.value, rent.text, (f"the rent is stated by area: {rent.text}",), rent.cites)
    if rent is None or area is None or not isinstance(rent.value, Money) or not isinstance(area.value, Quantity):
        return None
    factor = {"year": 1, "month": 12, "quarter": 4}.get(rent.value.per or "")
    if not factor or area.value.unit not in ("sq_ft", "sq_m") or not area.value.value:
        return None
    yearly = rent.value.amount * factor
    each = round(yearly / area.value.value, 2)
    unit = area.value.unit.replace("_", " ")
    steps = [f"{rent.value.amount:,f} x {factor} = {yearly:,f} a year"] if factor > 1 else []
    steps.append(f"{yearly:,f} / {area.value.value:,f} {unit} = {each:,f} per {unit} a year")
    money = Money(each, rent.value.currency, f"{area.value.unit}_year")
    return Computed(money, f"{each:,f} per {unit} a year", tuple(steps), _cites(rent, area))


def document_date(term: Term, findings: Findings, passages: Passages) -> Computed | None:
    """The date that stands at the head of the document, for letters and the like that do not say "dated"."""
    from yarnex.core.terms.identity import identify

    blank = findings[term.id]
    if blank.state == "blank" and blank.cites[0].span.start < len(passages.text) // 2:
        return None  # the document leaves its own date open; that of a draft or a cover is another one
    dated = identify(passages.document).dated
    found = passages.values_in("date", dated.span) if dated else []
    if dated is None or not found or not isinstance(found[0].value, DateValue):
        return None
    return Computed(found[0].value, dated.quote, ("the date at the head of the document",), (dated,))


PRICES = frozenset(("quantity", "unit_price", "total_price"))
SCHEDULES = frozenset(("rent_schedule", "minimum_purchase_schedule", "payment_schedule", "repayment_schedule"))
DAYS = SCHEDULES | frozenset((*STARTS, *LENGTHS, *ENDS, *NON_RENEWAL, "break_date", "break_notice", "rent_start"))
# Of the rules that work with other findings, the ids of those; all other rules look at the paper alone.
WORKS_WITH: dict[str, frozenset[str]] = {
    **dict.fromkeys(("price_of_one", "price_of_all"), PRICES),
    **dict.fromkeys(("first_of_schedule", "first_date_of_schedule", "last_date_of_schedule", "first_rent"), SCHEDULES),
    **dict.fromkeys(
        ("formula", "term_end", "term_length", "rent_free", "non_renewal_by", "break_notice_by", "renewal_notice_by"),
        DAYS,
    ),
    "rent_by_area": frozenset(("base_rent", "floor_area")),
    "last_instalment": frozenset(("first_instalment", "instalment_count")),
}
RULES: dict[str, Rule] = {
    "document_date": document_date,
    "formula": by_formula,
    "term_end": term_end,
    "parties": parties,
    "issuer": issuer,
    "addressee": addressee,
    "interviewee": interviewee,
    "chair": chair,
    "title": title,
    "other_side": other_side,
    "price_of_one": price_of_one,
    "sender": sender,
    "author": author,
    "signature": signature,
    "signatories": signatories,
    "subject": subject,
    "price_of_all": price_of_all,
    "speakers": speakers,
    "first_of_schedule": first_of_schedule,
    "first_date_of_schedule": _date_of_schedule(0),
    "last_date_of_schedule": _date_of_schedule(-1),
    "non_renewal_by": _notice_by(ENDS, *NON_RENEWAL),
    "term_length": term_length,
    "rent_free": rent_free,
    "break_notice_by": _notice_by(("break_date",), "break_notice"),
    "renewal_notice_by": _notice_by(("lease_end",), "renewal_notice"),
    "first_rent": first_rent,
    "rent_by_area": rent_by_area,
    "last_instalment": last_instalment,
    **CHANGE_RULES,
}
