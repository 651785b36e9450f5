from __future__ import annotations

import pytest

from yarnex.core.search import ask_all, understand
from yarnex.core.search.opposites import contrary, opposed_to, opposites
from yarnex.core.search.yes_no import decided_by_term


@pytest.mark.parametrize(
    ("question", "told", "opposed"),
    [
        ("What is the gross rent?", "net rent a year", True),
        ("What is the gross rent?", "gross rent, of which net", False),
        ("What is the rent?", "net rent a year", False),
        ("What does a bale weigh dry?", "Weight, wet", True),
        ("What is the closing balance?", "Balance brought forward", True),
        ("How often is the inside painted?", "the outside every third year", True),
        ("What is the price including VAT?", "£900 plus VAT", True),
        ("Which side is the northern gate on?", "the southern gate", True),
        ("Gross and net, what are they?", "net rent", False),
    ],
)
def test_words_that_rule_each_other_out(question, told, opposed):
    assert opposed_to(question, told) is opposed


@pytest.mark.parametrize(
    ("question", "told", "denied"),
    [
        ("Is the lift working?", "The lift is out of use since 2021.", True),
        ("Is the lift working?", "The lift is in use again.", False),
        ("Is the deposit refundable?", "a non-refundable deposit", True),
        ("Is the lift old?", "The lift is out of use.", False),
        ("Is the mill certified under ISO 14001?", "ISO 14001: audit booked for May", True),
        ("Is the licence still valid?", "The licence expired in June 2024.", True),
        ("Is the second stair mandatory?", "second stair: desirable", True),
    ],
)
def test_a_state_that_denies_another(question, told, denied):
    assert contrary(question, told) is denied


@pytest.mark.parametrize("key", ["opposites", "states"])
def test_no_word_stands_on_two_sides_of_a_set(key):
    for sides in opposites(key):
        patterns = [s.pattern for s in sides]
        assert len(set(patterns)) == len(patterns)


def test_the_sum_of_the_other_side_is_outdone(document):
    paper = document("# Rent\n\n| | £ |\n|---|---|\n| Gross rent | 1,200 |\n| Net rent | 900 |\n", "rent.md")
    for question, amount in (("What is the net rent?", 900), ("What is the gross rent?", 1200)):
        ((found,),) = (a.findings[:1] for a in ask_all([paper], [("1", question)]))
        assert found[0].value.amount == amount


@pytest.mark.parametrize(
    ("question", "words", "yes"),
    [
        ("Was frost to blame?", "The engineer rules out frost.", False),
        ("Is shrinkage accredited?", "Shrinkage is outside the scope of the accreditation.", False),
        ("Had the pipe been lagged?", "The pipe hadn't been lagged.", False),
        ("Does the cover reach the yard?", "The yard falls outside the cover.", False),
        ("Is the yard insured?", "The yard is insured.", True),
    ],
)
def test_what_denies(question, words, yes):
    assert decided_by_term(understand(question), words).yes is yes
