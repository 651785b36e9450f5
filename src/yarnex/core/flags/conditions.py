"""The condition language of rulebooks.

A condition is a mapping with one key:

    all: [conditions]        every one holds              any: [conditions]     at least one holds
    not: condition           it does not hold             found: "term"         the document says something for the term
    missing: "term"          it says nothing              blank: "term"         a form line left empty ("any": for any term)
    redacted: "term"         blacked out ("any")          conflict: "term"      stated twice, differently ("any")
    unclear: "term"          stated without a value of the term's type
    yes: "term"  no: "term"  what a yes-or-no term says
    value: "term < 6 months" a typed value compared: < <= > >= = with a number and unit, a date, or another term
    says: [phrases]          a sentence that says one of them; with `unless: [phrases]` that it must not say,
                             `under: [phrases]` for its headings and `by: landlord|tenant` for whose duty it is
    check: "name"            one of the built-in checks, see `yarnex.core.flags.checks`

Holding conditions bring their evidence: cites, and notes on where was looked for what is missing.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any

from yarnex.core.document import Cite, Span
from yarnex.core.flags.checks import CHECKS
from yarnex.core.packs import Entry, texts
from yarnex.core.patterns import pattern
from yarnex.core.phrases import Phrase, PhraseError, compile_phrase, says
from yarnex.core.terms import Abstract, Finding, Sheet
from yarnex.core.terms.candidates import cut
from yarnex.core.terms.model import quoted
from yarnex.core.terms.wording import is_others_duty
from yarnex.core.values import (
    DateValue,
    Duration,
    Money,
    Percent,
    Quantity,
    YesNo,
    find_dates,
    find_durations,
    find_percents,
)

KEYS = (
    "all",
    "any",
    "not",
    "found",
    "missing",
    "blank",
    "redacted",
    "conflict",
    "unclear",
    "yes",
    "no",
    "value",
    "says",
    "check",
)
COMPARISON = pattern(r"(?P<term>[a-z_]+)\s*(?P<op><=|>=|<|>|=)\s*(?P<other>.+)\Z")
QUOTE = 320  # characters of a sentence that is cited
MAX_SAYS = 4  # sentences cited for one phrase condition


@dataclass(frozen=True, slots=True)
class Evidence:
    cites: tuple[Cite, ...] = ()
    notes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Subject:
    """What a rule is applied to."""

    abstract: Abstract
    as_of: date


Condition = Callable[[Subject], Evidence | None]


def build(entry: Any, sheet: Sheet, where: str, faults: list[str]) -> Condition:
    """A condition from its mapping; faults, with their lines, are added to `faults`."""
    if not isinstance(entry, Entry):
        faults.append(f"{where}: a condition must be a mapping with one of {', '.join(KEYS)}")
        return lambda subject: None
    at = f"{where.split(', line')[0]}, line {entry.line}"
    keys = [k for k in entry if k in KEYS]
    extra = [k for k in entry if k not in KEYS and not (keys == ["says"] and k in ("unless", "under", "by"))]
    if len(keys) != 1 or extra:
        faults.append(f"{at}: a condition needs exactly one of {', '.join(KEYS)}; it has {', '.join(entry) or 'none'}")
        return lambda subject: None
    key = keys[0]
    value = entry[key]
    if key in ("all", "any"):
        return _several(
            key, [build(item, sheet, at, faults) for item in (value if isinstance(value, list) else [value])]
        )
    if key == "not":
        inner = build(value, sheet, at, faults)
        return lambda subject: Evidence() if inner(subject) is None else None
    if key == "says":
        return _says(entry, at, faults)
    if key == "value":
        return _value(str(value), sheet, at, faults)
    if key == "check":
        if value not in CHECKS:
            faults.append(f"{at}: {value!r} is no check; known are {', '.join(sorted(CHECKS))}")
            return lambda subject: None
        return lambda subject: _checked(str(value), subject)
    known = {term.id for term in sheet.terms}
    if value not in known and not (value == "any" and key in ("blank", "redacted", "conflict")):
        faults.append(f"{at}: {value!r} is no term of the sheet {sheet.name!r}")
        return lambda subject: None
    return _state(key, str(value))


def _checked(name: str, subject: Subject) -> Evidence | None:
    result = CHECKS[name](subject.abstract, subject.as_of)
    return Evidence(*result) if result is not None else None


def _several(key: str, inner: list[Condition]) -> Condition:
    def condition(subject: Subject) -> Evidence | None:
        cites: list[Cite] = []
        notes: list[str] = []
        held = 0
        for each in inner:
            evidence = each(subject)
            if evidence is None:
                if key == "all":
                    return None
                continue
            held += 1
            cites += evidence.cites
            notes += evidence.notes
        return Evidence(tuple(cites), tuple(notes)) if held else None

    return condition


def _state(key: str, term: str) -> Condition:
    def holds(finding: Finding) -> bool:
        if key == "found":
            return finding.usable
        if key == "missing":
            return not finding.found
        if key in ("blank", "redacted"):
            return finding.state == key
        if key == "conflict":
            return finding.state == "conflicting"
        if key == "unclear":
            return finding.state == "stated" and finding.value is None
        return isinstance(finding.value, YesNo) and finding.value.yes is (key == "yes")

    def condition(subject: Subject) -> Evidence | None:
        findings = [f for f in subject.abstract.findings if term in ("any", f.term.id)]
        held = [f for f in findings if holds(f)]
        if not held:
            return None
        if key == "missing":
            finding = held[0]
            return Evidence(finding.near[:1], (f"{finding.term.label}: not found ({'; '.join(finding.why)})",))
        cites = tuple(c for f in held for c in (f.cites if key == "conflict" else f.cites[:1]))
        named = key in ("blank", "redacted", "conflict", "unclear")
        notes = tuple(_note(f, key) for f in held) if named else ()
        return Evidence(cites, notes)

    return condition


def _note(finding: Finding, key: str) -> str:
    if key == "conflict":
        return f"{finding.term.label}: {quoted(finding.text)}; {'; '.join(finding.working)}"
    said = {"blank": "left blank", "redacted": "blacked out", "unclear": "in words that give no value"}[key]
    return f"{finding.term.label}: {said}"


def _says(entry: Entry, at: str, faults: list[str]) -> Condition:
    groups: dict[str, tuple[Phrase, ...]] = {}
    for key in ("says", "unless", "under"):
        compiled = []
        for text in texts(entry, key):
            try:
                compiled.append(compile_phrase(text))
            except PhraseError as error:
                faults.append(f"{at}, {key}: {error}")
        groups[key] = tuple(compiled)
    by = entry.get("by", "")
    if by not in ("", "landlord", "tenant"):
        faults.append(f"{at}, by: {by!r} is neither landlord nor tenant")

    def condition(subject: Subject) -> Evidence | None:
        passages = subject.abstract.passages
        cites = []
        possible = passages.possible(groups["says"])
        for sentence in passages.sentences_for(possible):
            words = sentence.span.of(passages.text)
            said = says(groups["says"], words)
            if said is None or says(groups["unless"], words) is not None:
                continue
            if groups["under"] and says(groups["under"], sentence.headings) is None:
                continue
            if subject.abstract.deleted_clauses and _deleted(subject.abstract, sentence.span.start):
                continue
            if by and is_others_duty(words, by):
                continue
            start = sentence.span.start
            matched = Span(start + said.start(), start + said.end())
            cites.append(Cite(passages.document, cut(passages.text, sentence.span, matched, QUOTE)))
            if len(cites) == MAX_SAYS:
                break
        return Evidence(tuple(cites)) if cites else None

    return condition


def _deleted(abstract: Abstract, offset: int) -> bool:
    """True inside a clause that an amendment took out."""
    path = abstract.document.section_path(offset)
    return any(re.search(rf"(?<![\d.]){re.escape(n)}\Z", s.number) for s in path for n in abstract.deleted_clauses)


def _value(text: str, sheet: Sheet, at: str, faults: list[str]) -> Condition:
    m = COMPARISON.match(text)
    known = {term.id for term in sheet.terms}
    if not m or m["term"] not in known:
        faults.append(f'{at}: {text!r} is no comparison of a term, such as "renewal_notice < 6 months"')
        return lambda subject: None
    other = m["other"].strip()
    fixed = _measure_of_text(other)
    if fixed is None and other not in known:
        faults.append(f"{at}: {other!r} is neither a term nor a number with its unit, a percentage or a date")
        return lambda subject: None
    compare: Callable[[Any, Any], bool] = {
        "<": lambda a, b: a < b, "<=": lambda a, b: a <= b, ">": lambda a, b: a > b, ">=": lambda a, b: a >= b, "=": lambda a, b: a == b,
    }[m["op"]]  # fmt: skip

    def condition(subject: Subject) -> Evidence | None:
        left = subject.abstract.finding(m["term"])
        if left is None or left.value is None or not left.usable:
            return None
        cites = left.cites[:1]
        right = fixed
        if right is None:
            second = subject.abstract.finding(other)
            if second is None or second.value is None or not second.usable:
                return None
            right = measure(second.value)
            cites += second.cites[:1]
        mine = measure(left.value)
        if mine is None or right is None or mine[0] != right[0] or not compare(mine[1], right[1]):
            return None
        return Evidence(cites)

    return condition


def measure(value: object) -> tuple[str, Any] | None:
    """A value as (what is measured, size), so that only like is compared with like; months count as 30.4 days."""
    if isinstance(value, Duration):
        days: dict[str, Decimal | int] = {
            "hours": Decimal(1) / 24,
            "days": 1,
            "business_days": Decimal("1.4"),
            "weeks": 7,
            "months": Decimal("30.4"),
            "quarters": Decimal("91.3"),
            "years": 365,
        }
        return "time", value.value * Decimal(days[value.unit])
    if isinstance(value, Percent):
        return "percent", value.value
    if isinstance(value, DateValue):
        return "date", value.day
    if isinstance(value, Quantity):
        return f"number {value.unit or ''}", value.value
    if isinstance(value, Money):
        return f"money {value.currency}", value.amount
    return None


def _measure_of_text(text: str) -> tuple[str, Any] | None:
    for finder in (find_durations, find_percents, find_dates):
        found = next(iter(finder(text)), None)
        if found is not None:
            return measure(found.value)
    return ("number ", Decimal(text)) if re.fullmatch(r"\d+(?:\.\d+)?", text) else None
