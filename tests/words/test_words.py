"""Stems, words without meaning, and groups of words that mean the same."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.words import known_synonyms, stem, stems_of, tokens


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("renewals", "renewed"), ("paid", "payable"), ("Expiry", "expires"), ("terminate", "TERMINATION"), ("instalments", "installment"),
        ("tenant's", "tenant"), ("directors’", "director"), ("metres", "meter"),
    ],
)  # fmt: skip
def test_forms_of_a_word_have_one_stem(one, other):
    assert stem(one) == stem(other)


@pytest.mark.parametrize(("one", "other"), [("insurer", "insured"), ("employer", "employee"), ("lender", "lend")])
def test_words_for_two_sides_are_told_apart(one, other):
    assert stem(one) != stem(other)


def test_words_without_meaning_are_left_out():
    assert stems_of("What is the deposit, and when do we get it back?") == ("deposit", "back")
    assert stems_of("not before") == ("not", "befor")


@given(st.text(max_size=200))
def test_tokens_stand_where_they_say(text):
    last = 0
    for token in tokens(text):
        assert last <= token.start < token.end <= len(text)
        assert token.stem
        last = token.end


@pytest.mark.parametrize(
    ("word", "other"),
    [("vacate", "quit"), ("turnover", "sales"), ("sacked", "dismissed"), ("poach", "entice"), ("uptime", "available")],
)
def test_other_words_for_it(word, other):
    assert stems_of(other) in known_synonyms().of(stems_of(word))


def test_a_phrase_is_known_as_a_whole():
    assert stems_of("act of god") in known_synonyms().of(stems_of("force majeure"))
