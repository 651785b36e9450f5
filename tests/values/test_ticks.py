from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values.ticks import find_options, ticked_answer


@pytest.mark.parametrize(
    ("text", "options"),
    [
        ("☒ Yes ☐ No", [("Yes", True), ("No", False)]),
        ("Yes ☐ No ☒", [("Yes", False), ("No", True)]),
        ("[x] By lorry  [ ] By rail", [("By lorry", True), ("By rail", False)]),
        ("Access: ☐ lorry ☑ rail ☑ canal", [("lorry", False), ("rail", True), ("canal", True)]),
        ("☒", [("", True)]),
        ("no boxes at all", []),
        ("clauses (ix) and (x) of the lease", []),
    ],
)
def test_options_of_a_form(text, options):
    assert [(o.span.of(text), o.ticked) for o in find_options(text)] == options


@pytest.mark.parametrize(
    ("text", "answer"),
    [
        ("☒ Yes ☐ No", True),
        ("☐ Yes ☒ No — seen in 2020", False),
        ("Sprinklers ☑ Yes ☐ No", True),
        ("☐ Yes ☐ No", None),
        ("☒ Yes ☒ No", None),
        ("☒ leasehold ☐ freehold", None),
        ("☐", False),
    ],
)
def test_what_a_form_says(text, answer):
    assert ticked_answer(text) is answer


@given(st.text(alphabet="☒☐ []xXYesNo-:\n", max_size=40))
def test_options_lie_in_the_text_and_hold_no_boxes(text):
    for option in find_options(text):
        assert 0 <= option.span.start <= option.span.end <= len(text)
        assert "☒" not in option.span.of(text) and "☐" not in option.span.of(text)
