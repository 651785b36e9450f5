"""Verbs with a particle are one idea, whether the vocabulary has them as trade words or as everyday ones."""

from __future__ import annotations

import pytest

from yarnex.core.terms.by_words import ideas_of
from yarnex.core.words import stem


@pytest.mark.parametrize(
    ("words", "name", "way"),
    [
        ("What do they knock off for lateness?", ("knock", "off"), ("deduct",)),
        ("Why was it turned down?", ("turn", "down"), ("refus",)),
        ("When is it handed out?", ("hand", "out"), ("distribut",)),
        ("What may be set off?", ("set", "off"), ("deduct",)),
    ],
)
def test_a_verb_with_its_particle_is_one_idea(words, name, way):
    idea = next(i for i in ideas_of(words) if i.name == name)
    assert way in {w for w, _ in idea.ways}


@pytest.mark.parametrize(
    ("form", "verb"), [("gave", "give"), ("lost", "lose"), ("felt", "feel"), ("got", "get"), ("gotten", "get")]
)
def test_irregular_past_forms(form, verb):
    assert stem(form) == stem(verb)
