"""Questions answered by a document's own lists: its figures by line and period, its bills, days worked out, persons."""

from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest

from yarnex.core.figures import figures_of
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.from_figures import lines_named, of_figures
from yarnex.core.search.question import kinds_of
from yarnex.core.words import stems_of

REPORT = """# Annual report of Brackenfold Mills plc

for the year ended 31 March 2026

## Consolidated income statement

for the year ended 31 March 2026

| | 2026 £'000 | 2025 £'000 |
| --- | --- | --- |
| Revenue | 8,412 | 7,901 |
| Cost of sales | (5,100) | (4,900) |
| Gross profit | 3,312 | 3,001 |
| Profit for the year | 640 | 512 |

Signed by Ann Rowley, Finance Director, on 4 June 2026.
"""

BILL = """# Calder Bank Plumbing Ltd

Invoice no. CB-2207

Date: 12 February 2026

Due: 14 March 2026

Bill to: Brackenfold Mills Limited

| Description | Amount £ |
| --- | --- |
| Call-out | 310.00 |
| Pump hire | 144.00 |
| Subtotal | 454.00 |
| VAT at 20% | 90.80 |
| Total due | 544.80 |
"""


def answer(document, words):
    finding = ask(Inquiry(document), understand(words))[0]
    return finding.text or finding.state


@pytest.mark.parametrize(
    ("words", "amount"),
    [
        ("What was the turnover for the year?", "8412000"),
        ("What was revenue last year?", "7901000"),
        ("What was profit for the year in 2025?", "512000"),
    ],
)
def test_a_line_and_a_period_are_answered_by_the_figure(document, words, amount):
    figures = figures_of(document(REPORT, "report.md"))
    offers = list(of_figures(figures, words, frozenset(stems_of(words))))
    assert [str(o.value.amount) for o in offers] == [amount]
    assert offers[0].cites


def test_a_change_is_not_answered_by_one_figure(document):
    figures = figures_of(document(REPORT, "report.md"))
    assert not list(of_figures(figures, "By how much did revenue rise?", frozenset(["rise"])))


def test_the_longest_name_of_a_line_counts(document):
    assert [line.id for line, _ in lines_named("What was gross profit?")] == ["gross_profit"]


def test_a_person_is_found_by_role(document):
    assert answer(document(REPORT, "report.md"), "Who is the finance director?") == "Ann Rowley"


@pytest.mark.parametrize(
    ("words", "expected"),
    [
        ("What does the plumbing bill come to?", Decimal("544.80")),
        ("When is the plumber's bill due?", date(2026, 3, 14)),
    ],
)
def test_bills_answer_for_their_totals_and_days(document, words, expected):
    got = ask(Inquiry(document(BILL, "bill.md")), understand(words))[0]
    assert getattr(got.value, "amount", None) == expected or getattr(got.value, "day", None) == expected


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("What final payout per share is proposed?", "money"),
        ("Which date decides who is paid?", "date"),
        ("What size of loan was signed?", "money"),
    ],
)
def test_what_a_question_asks_for(words, first):
    assert kinds_of(words)[0][0] == first
