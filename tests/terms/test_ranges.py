"""Ranges told whole, sums as spoken, and what other words of a paper replace."""

from __future__ import annotations

from decimal import Decimal

import pytest

from yarnex.core.document import Span
from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.question import understand as asked
from yarnex.core.terms.abstract import abstract
from yarnex.core.terms.identity import document_date
from yarnex.core.terms.measures import units_named
from yarnex.core.terms.model import Sheet, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.ranges import range_beginning, range_ending
from yarnex.core.terms.variations import superseded
from yarnex.core.values import Duration, Money, Percent, Text
from yarnex.core.values.numbers import find_counts
from yarnex.core.words import stems_of


@pytest.mark.parametrize(
    ("text", "last", "whole"),
    [
        ("in 10 to 12 weeks", "12 weeks", "10 to 12 weeks"),
        ("between five and nine weeks", "nine weeks", "between five and nine weeks"),
        ("a hundred and forty to a hundred and fifty weeks", "hundred and fifty weeks", None),
        ("is raised from 10 to 12 weeks", "12 weeks", ""),
        ("for 12 weeks", "12 weeks", ""),
    ],
)
def test_where_a_range_stands_that_a_value_ends(text, last, whole):
    at = text.index(last)
    found = range_ending(text, 0, Span(at, at + len(last)), Duration(Decimal(12), "weeks"))
    if whole == "":
        assert found is None
    else:
        assert found is not None
        assert found.of(text).endswith(whole or "forty to a hundred and fifty weeks")


def test_words_end_no_range():
    assert range_ending("1 to x", 0, Span(5, 6), Text("x")) is None


def test_an_abstract_tells_a_range_whole():
    document = read_text(
        b"# Offer\n\nLead time: 10 to 12 weeks\n\nWarranty: 24 months\n", "offer.md", "0" * 64, markdown=True
    )
    terms = (Term("lead", "Lead time", "", "duration"), Term("warranty", "Warranty", "", "duration"))
    lead, warranty = abstract(document, Sheet("own", "Own", (), terms)).findings
    assert lead.value == Text("10 to 12 weeks")
    assert warranty.value == Duration(Decimal(24), "months")


@pytest.mark.parametrize(
    ("words", "counts"),
    [
        ("we had eighty – sorry, seventy – million undrawn", ["80", "70000000"]),
        ("several million pounds", []),
        ("a million pounds", ["1000000"]),
        ("thirty-one million", ["31000000"]),
    ],
)
def test_numbers_as_spoken(words, counts):
    assert [f.value for f in find_counts(words)] == [Decimal(c) for c in counts]


@pytest.mark.parametrize("line", ["Thursday 4 June 2026, 9.30 a.m.", "4 June 2026", "Thrapsley, 4 June 2026"])
def test_the_date_of_a_paper_may_stand_with_its_weekday_and_hour(line):
    document = read_text(
        f"BRACKENFOLD MILLS\n\nYear-end call\n\n{line}\n\nWe begin with the year.\n".encode(), "call.txt", "0" * 64
    )
    assert document_date(document) == "2026-06-04"


@pytest.mark.parametrize(
    ("words", "units"),
    [
        ("litres an hour", {"l/h"}),
        ("litres", {"litres"}),
        ("miles an hour", {"mph"}),
        ("in square feet", {"sq_ft"}),
    ],
)
def test_the_unit_that_words_name(words, units):
    assert units_named(stems_of(words)) == units


CHANGED = """# Agreement

## 1. General

1.1 Each party's liability is limited to one hundred per cent of the fees paid in the year.

1.2 The fee is paid in twenty days.

## 2. Special terms

2.1 In clause 1.1, "one hundred per cent" is replaced by "one hundred and forty per cent".

2.2 In clause 1.2, for the first year only, "twenty days" is replaced by "thirty days".
"""


@pytest.mark.parametrize(("words", "is_old"), [("one hundred per cent", True), ("twenty days", False)])
def test_a_value_that_other_words_replace_in_every_case(words, is_old):
    passages = Passages(read_text(CHANGED.encode(), "a.md", "0" * 64, markdown=True))
    at = passages.text.index(words)
    sentence = passages.sentence_at(at)
    assert sentence is not None
    assert superseded(passages, sentence.span, Span(at, at + len(words))) is is_old


@pytest.mark.parametrize(
    ("line", "question", "value"),
    [
        ("Head: 31 m. Note: 1 bar = 10.2 m of water.", "What head is given?", "31"),
        ("As the outcome cannot be told, no provision has been made for the fine.", "Has a provision been made for the fine?", "no"),
    ],
)  # fmt: skip
def test_what_is_no_answer(line, question, value):
    inquiry = Inquiry(read_text(f"# Paper\n\n{line}\n".encode(), "p.md", "0" * 64, markdown=True))
    found = ask(inquiry, asked(question))[0]
    told = found.value.to_dict()["value"] if found.value is not None else None
    assert str(told) in {value, {"no": "False"}.get(value, value)}


PRICES = """# Offer

| Qty | Item | Unit price (EUR) | Extended (EUR) |
| --- | --- | --- | --- |
| 6 | Baling press | 41,500.00 | 249,000.00 |
"""


def test_the_price_of_one_stands_in_the_column_of_unit_prices():
    inquiry = Inquiry(read_text(PRICES.encode(), "offer.md", "0" * 64, markdown=True))
    found = ask(inquiry, understand("What does one baling press cost, without tax?"))[0]
    assert found.value == Money(Decimal("41500.00"), "EUR")


@pytest.mark.parametrize(
    ("text", "value", "range_"),
    [
        ("The yield slipped from 9.1 to 8.4 per cent.", "8.4 per cent", ""),
        ("The share eased from 12 to 11 %.", "11 %", ""),
        ("It takes 9.1 to 9.4 per cent.", "9.4 per cent", "9.1 to 9.4 per cent"),
    ],
)
def test_what_moves_from_one_value_to_another_is_no_range(text, value, range_):
    at = text.index(value)
    found = range_ending(text, 0, Span(at, at + len(value)), Percent(Decimal("1")))
    assert (found.of(text).strip() if found is not None else "") == range_


@pytest.mark.parametrize(
    ("text", "first", "whole"),
    [
        ("profit of £5 million to £6 million", "£5 million", "£5 million to £6 million"),
        ("GBP 5m to GBP 6m", "GBP 5m", "GBP 5m to GBP 6m"),
        ("growth of 3% to 5%", "3%", "3% to 5%"),
        ("fell by £5 million to £38 million", "£5 million", None),
        ("cut from £5 million to £4 million", "£5 million", None),
        ("£5 million, to be paid", "£5 million", None),
    ],
)
def test_a_range_from_its_first_sum(text, first, whole):
    value = Percent(Decimal(3)) if "%" in first else Money(Decimal(5_000_000), "GBP")
    at = text.index(first)
    found = range_beginning(text, Span(at, at + len(first)), len(text), value)
    assert (found.of(text) if found else None) == whole
