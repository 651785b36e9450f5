"""Answers weighed against each other and against there being none."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.document import Cite, Span
from yarnex.core.search import weighing
from yarnex.core.search.weighing import EVIDENCE, Answer, likely_there, weighed
from yarnex.core.values import Duration, Money, Text, YesNo

PAPER = (
    "The letting is for seven years. It may be renewed for two years. The term is seven years. Rent is due quarterly."
)


@pytest.fixture
def paper(document):
    return document(PAPER)


@pytest.fixture(autouse=True)
def plain_weights(monkeypatch):
    """Only the constant and one share count, so that a test can set an answer's worth."""
    plain = {"one": -1.0, "score": 4.0}
    monkeypatch.setattr(weighing, "answer_weights", lambda: tuple(plain.get(e, 0.0) for e in EVIDENCE))


def answer(paper, words, value, score, kind="duration", at=0):
    start = paper.text.index(words, at)
    evidence = tuple(1.0 if e == "one" else score if e == "score" else 0.0 for e in EVIDENCE)
    span = Span(start, start + len(words))
    return Answer(kind, value, span, Cite(paper, span), evidence, "")


def years(number):
    return Duration(Decimal(number), "years")


def test_the_best_comes_first_and_shares_leave_room_for_none(paper):
    ranked = weighed([answer(paper, "two years", years(2), 0.2), answer(paper, "seven years", years(7), 0.9)])
    assert [a.value for a in ranked] == [years(7), years(2)]
    assert 0 < ranked[1].score < ranked[0].score < 1
    assert sum(a.score for a in ranked) < 1


def test_the_same_value_in_two_places_adds_up(paper):
    alone = weighed([answer(paper, "seven years", years(7), 0.5), answer(paper, "two years", years(2), 0.6)])
    assert alone[0].value == years(2)
    again = answer(paper, "seven years", years(7), 0.5, at=40)
    both = weighed([answer(paper, "seven years", years(7), 0.5), answer(paper, "two years", years(2), 0.6), again])
    assert both[0].value == years(7)
    assert both[0].score == both[-1].score
    assert len(both) == 3


def test_two_passages_are_two_answers_and_two_noes_do_not_add_up(paper):
    words = [answer(paper, w, Text("x"), 0.5, "text") for w in ("The letting", "Rent is due")]
    assert weighed(words)[0].score < 0.5
    noes = [answer(paper, w, YesNo(False), 0.5, "yes_no") for w in ("The letting", "Rent is due")]
    assert weighed(noes)[0].score < 0.5


def test_no_answers_stay_none():
    assert weighed([]) == []


@given(st.lists(st.floats(-3, 3), min_size=1, max_size=8))
def test_shares_are_likelihoods(scores):
    from yarnex.core.reading.text import read_text

    paper = read_text(PAPER.encode(), "paper.txt", "0" * 64)
    ranked = weighed([answer(paper, PAPER[i : i + 1], years(i + 1), s) for i, s in enumerate(scores)])
    assert all(0 <= a.score <= 1 for a in ranked)
    shares = [round(a.score, 5) for a in ranked]
    assert shares == sorted(shares, reverse=True)
    assert sum(a.score for a in ranked) <= 1


def money(amount, currency="GBP"):
    return Money(Decimal(amount), currency)


@pytest.mark.parametrize(
    ("one", "other", "same"),
    [
        (money("61480000"), money("61500000"), True),
        (money("61480000"), money("61600000"), False),
        (money("55000"), money("60000"), False),
        (money("61480000"), money("61500000", "EUR"), False),
        (money("-61480000"), money("61500000"), False),
        (money("1234.56"), money("1230"), True),
    ],
)
def test_a_rounded_sum_says_the_same_as_the_exact_one(paper, one, other, same):
    both = weighed([answer(paper, "seven years", one, 0.5, "money"), answer(paper, "two years", other, 0.5, "money")])
    alone = weighed([answer(paper, "seven years", one, 0.5, "money")])
    assert (both[0].score > alone[0].score) is same


def test_equal_hours_add_up_and_passages_do_not(paper):
    for kind, adds in (("time", True), ("text", False)):
        both = [answer(paper, w, Text("07:25"), 0.5, kind) for w in ("seven years", "two years")]
        assert (weighed(both)[0].score > weighed(both[:1])[0].score) is adds


def test_what_else_is_offered_in_the_same_place_speaks_for_it(paper):
    best = answer(paper, "seven years", years(7), 0.9)
    words = answer(paper, "The letting is for seven years.", Text("seven years"), 0.6, "text")
    apart = answer(paper, "Rent is due quarterly.", Text("quarterly"), 0.6, "text")
    beside, elsewhere = weighed([best, words]), weighed([best, apart])
    assert likely_there(beside) > beside[0].score
    assert likely_there(elsewhere) == elsewhere[0].score
