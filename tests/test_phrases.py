from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.phrases import PhraseError, compile_phrase


@pytest.mark.parametrize(
    ("phrase", "text"),
    [
        ("without consent", "WITHOUT\n  consent"),
        ("not [to] assign", "Not to assign"),
        ("not [to] assign", "not assign"),
        ("(absolute|sole) discretion", "in its sole discretion"),
        ("rent ... index", "the rent shall follow the Index"),
        ("landlord may", "the Lessor may"),
        ("tenant's share", "the Lessee’s share"),
        ("renounc*", "renouncing it"),
        ("value-added tax", "value–added tax"),
        ("landlord at once", "the landlord, at once"),
        ("(in|by) [equal] [quarterly] payments", "by equal payments"),
    ],
)
def test_phrases_that_match(phrase, text):
    assert compile_phrase(phrase).search(text)


@pytest.mark.parametrize(
    ("phrase", "text"),
    [
        ("sole discretion", "console discretion"),
        ("rent ... index", "the rent; the index"),
        ("rent ... index", "rent " + "x " * 70 + "index"),
        ("tenant may", "the landlord may"),
        ("break", "breakage"),
        ("not [to] assign", "not to be assigned"),
    ],
)
def test_phrases_that_do_not(phrase, text):
    assert not compile_phrase(phrase).search(text)


@pytest.mark.parametrize(
    ("phrase", "what"),
    [
        ("", "empty"),
        ("a (b", "left open"),
        ("a) b", r"\) without"),
        ("a ] b", r"\] without"),
        ("a | b", "outside brackets"),
        ("licen(c|s)e", "inside a word"),
        ("<value> and <value>", "more than once"),
    ],
)
def test_mistakes_are_named(phrase, what):
    with pytest.raises(PhraseError, match=what):
        compile_phrase(phrase)


def test_a_slot_has_two_sides():
    phrase = compile_phrase("pay [a] rent of <value> a year")
    assert phrase.has_slot
    assert phrase.before.search("shall pay a rent of ")
    assert phrase.before.search("shall pay rent of “")
    assert phrase.after.match(" a year")
    assert not phrase.before.search("shall pay a rent of some ")


@pytest.mark.parametrize(
    ("phrase", "text", "may"),
    [
        ("not less than (x|y) written [prior] notice", "not less than x written notice", True),
        ("not less than (x|y) written [prior] notice", "a written notice", False),
        ("landlord may", "the lessor may", True),
        ("landlord may", "the owner may", False),
        ("(a|(b|c)) d", "anything", True),
        ("renounc*", "renouncing", True),
        ("(rent (is|of)|fee)", "anything", True),
    ],
)
def test_a_quick_test_rules_out_most_texts(phrase, text, may):
    assert compile_phrase(phrase).may_stand_in(text) is may


@given(
    st.text("abc rentfeothlandlord", max_size=40),
    st.sampled_from(["rent ... fee", "(rent|fee) of", "landlord [the] rent", "(a|b) rent c*", "tenant's rent"]),
)
def test_the_quick_test_never_rules_out_a_match(text, phrase):
    compiled = compile_phrase(phrase)
    if compiled.whole.search(text):
        assert compiled.may_stand_in(text.lower())


@given(st.text("ab c()[]|*.<>value'-", max_size=30))
def test_any_phrase_compiles_or_is_refused(text):
    try:
        phrase = compile_phrase(text)
    except PhraseError:
        return
    assert phrase.search(text) is None or not phrase.has_slot


def test_a_bracket_may_close_before_a_gap():
    phrase = compile_phrase("statutory auditor ... on behalf of <value>")
    assert phrase.before.search("Ann Rowley (senior statutory auditor), for and on behalf of ")
    assert not phrase.before.search("statutory auditors' fees on behalf of ")
