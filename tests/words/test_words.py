"""Stems, words without meaning, and groups of words that mean the same."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.words import known_synonyms, known_thesaurus, stem, stems_of, tokens
from yarnex.core.words.thesaurus import DERIVED, MAIN, OTHER


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


@pytest.mark.parametrize(
    ("form", "verb"),
    [("taken", "take"), ("withdrew", "withdraw"), ("repaid", "repayment"), ("broke", "breaking"), ("went", "going")],
)
def test_irregular_past_forms_have_the_stem_of_their_verb(form, verb):
    assert stem(form) == stem(verb)


@pytest.mark.parametrize("word", ["found", "ground", "left", "wound", "spoke", "saw"])
def test_past_forms_that_are_words_of_their_own_stay_what_they_were(word):
    from yarnex.core.words.stems import _past_forms

    assert word not in _past_forms()


@pytest.mark.parametrize(
    ("word", "other", "nearness"),
    [("guarantee", "guarantor", DERIVED), ("repair", "mend", MAIN), ("doctor", "physician", MAIN), ("guarantee", "secure", OTHER)],
)  # fmt: skip
def test_words_that_are_near(word, other, nearness):
    assert (stems_of(other), nearness) in known_thesaurus().near(stems_of(word))


def test_every_line_of_the_thesaurus_is_found_and_sorted():
    lines = known_thesaurus().data.decode().splitlines()
    keys = [line.split("\t")[0] for line in lines]
    assert keys == sorted(keys, key=str.encode)
    assert len(keys) > 40_000
    for key in (*keys[:: len(keys) // 200], keys[0], keys[-1]):
        assert known_thesaurus().near(tuple(key.split())), key


@given(st.text(max_size=20))
def test_a_word_that_is_not_in_the_thesaurus_is_near_to_none(word):
    found = known_thesaurus().near((word, "qqqq"))
    assert found == ()


def test_the_thesaurus_has_the_stems_that_are_used_now():
    """The file is made with the stems; where they change it is to be built again."""
    for word in ("lease", "guarantee", "insurance", "repairs", "taken", "licence", "employee"):
        assert known_thesaurus().near(stems_of(word)), word


def test_words_of_everyday_speech_are_kept_apart_from_those_of_the_trade():
    synonyms = known_synonyms()
    assert stems_of("conflict") in synonyms.everyday[stems_of("clash")]
    assert stems_of("conflict") not in synonyms.of(stems_of("clash"))
    assert synonyms.knows(stems_of("clash"))
    assert not synonyms.knows(("qqqq",))
