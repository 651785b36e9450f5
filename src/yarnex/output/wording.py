"""Values and states in words for people."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

from yarnex.core.terms import Finding
from yarnex.core.terms.computed import shown_date, shown_duration
from yarnex.core.values import (
    DateValue,
    Duration,
    ListOf,
    Money,
    Party,
    Percent,
    Quantity,
    Schedule,
    Text,
    Value,
    YesNo,
)

STATE_WORDS = {
    "stated": "", "computed": "worked out", "amended": "amended", "conflicting": "conflicting", "blank": "left blank",
    "redacted": "blacked out", "not_found": "not found",
}  # fmt: skip
PER_WORDS = {
    "year": "a year", "month": "a month", "quarter": "a quarter", "week": "a week", "day": "a day", "hour": "an hour",
    "sq_ft": "per sq ft", "sq_m": "per sq m", "sq_ft_year": "per sq ft a year", "sq_m_year": "per sq m a year",
    "sq_ft_month": "per sq ft a month", "sq_m_month": "per sq m a month",
}  # fmt: skip


def number(value: Decimal) -> str:
    """A number with thousands parted, without idle zeros."""
    text = f"{value:,f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def money(value: Money) -> str:
    """An amount with its currency and what it is paid for: "€84,500 a year"."""
    from babel.numbers import format_currency

    whole = value.amount == value.amount.to_integral_value()
    if value.currency:
        text = format_currency(
            value.amount, value.currency, format="¤#,##0" if whole else None, locale="en_GB", currency_digits=not whole
        )
    else:
        text = number(value.amount)
    per = PER_WORDS.get(value.per or "", "")
    return f"{text} {per}".strip()


def shown(value: Value) -> str:
    """A value on one line."""
    if isinstance(value, DateValue):
        return shown_date(value.day)
    if isinstance(value, Money):
        return money(value)
    if isinstance(value, Percent):
        return f"{number(value.value)} %"
    if isinstance(value, Quantity):
        return f"{number(value.value)} {(value.unit or '').replace('_', ' ')}".strip()
    if isinstance(value, Duration):
        return shown_duration(value)
    if isinstance(value, YesNo):
        return "yes" if value.yes else "no"
    if isinstance(value, ListOf):
        return "; ".join(_day(item) for item in value.items)
    if isinstance(value, Schedule):
        return "\n".join(f"{period(row.from_, row.to)}: {money(row.amount)}" for row in value.rows)
    if isinstance(value, Party):
        return value.name
    assert isinstance(value, Text)
    return value.words


def _day(text: str) -> str:
    try:
        return shown_date(date.fromisoformat(text))
    except ValueError:
        return text


def period(start: str, end: str) -> str:
    """From when to when, days in words: "1 May 2026 to 30 April 2027"."""
    start, end = _day(start), _day(end)
    return start if not end or start == end else f"{start} to {end}"


def counted(count: int, noun: str, many: str = "") -> str:
    """A number of things: "1 document", "3 documents"; many: a plural of its own ("duties")."""
    return f"{count} {noun if count == 1 else many or noun + 's'}"


def one_line(text: str) -> str:
    """Words on one line: line ends and tabs of the linear text become blanks."""
    return " ".join(text.split())


def said(finding: Finding) -> str:
    """What a cell shows for a finding."""
    if finding.deleted:
        return one_line(finding.text)
    if finding.state in ("not_found", "blank", "redacted"):
        return STATE_WORDS[finding.state]
    if finding.value is None:
        return one_line(finding.text)
    return in_form(finding.value, finding.term.show) if finding.term.show else shown(finding.value)


FACTORS = {"thousands": 1_000, "millions": 1_000_000, "whole": 1}
DATE_FORMS = {"YYYY-MM-DD": "%Y-%m-%d", "DD/MM/YYYY": "%d/%m/%Y", "MM/DD/YYYY": "%m/%d/%Y"}


def in_form(value: Value, form: str) -> str:
    """A value in the form that a sheet asks for; as usual where the value cannot be put in it.

    Dates: "YYYY-MM-DD" and the like. Money: in "thousands", "millions" or "whole" units, rounded. Durations: in
    "months", "days" or "years" where that is exact.
    """
    if isinstance(value, DateValue) and form in DATE_FORMS:
        return value.day.strftime(DATE_FORMS[form])
    if isinstance(value, Money) and form in FACTORS:
        rounded = round(value.amount / FACTORS[form], 0 if form == "whole" else 1)
        unit = "" if form == "whole" else f" {form}"
        return f"{value.currency or ''} {number(rounded)}{unit} {PER_WORDS.get(value.per or '', '')}".strip()
    if isinstance(value, Duration) and form != value.unit:
        factor = {("years", "months"): Decimal(12), ("quarters", "months"): Decimal(3), ("weeks", "days"): Decimal(7)}
        back = {("months", "years"): Decimal(12)}
        pair = (value.unit, form)
        if pair in factor:
            return shown_duration(Duration(value.value * factor[pair], form))
        if pair in back and value.value % back[pair] == 0:
            return shown_duration(Duration(value.value / back[pair], form))
    return shown(value)


CHECK_BELOW = 0.75  # confidence under which a finding should be looked at before it is used


def to_check(finding: Finding) -> bool:
    """True for a finding that should be checked by eye first: weak evidence, or words read with doubt from a picture."""
    return finding.usable and (finding.confidence < CHECK_BELOW or any(c.doubtful for c in finding.cites))


def own_words(finding: Finding) -> str:
    """The document's words, where they say it otherwise than `said`."""
    words = one_line(finding.text)
    if finding.state not in ("stated", "amended", "conflicting") or finding.deleted or finding.value is None:
        return ""
    if isinstance(finding.value, Text | Party | Schedule) or words.lower() == said(finding).lower():
        return ""
    return words
