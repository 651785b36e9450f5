"""What a question asks for."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.search.answers import _may_be_asked
from yarnex.core.search.question import understand


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("How much is the deposit?", "money"), ("What does the loom cost?", "money"), ("When does it end?", "date"), ("By what date must it be claimed?", "date"),
        ("How long is the notice?", "duration"), ("Within what time must it be repaired?", "duration"), ("How many days of holiday are there?", "duration"),
        ("What percentage of sales is paid?", "percent"), ("At what rate is tax charged?", "percent"), ("How many spindles are there?", "number"),
        ("How heavy is the machine?", "number"), ("Who insures the mill?", "party"), ("Which company rents it?", "party"), ("May it be sublet?", "yes_no"),
        ("According to the report, had the roof leaked before?", "yes_no"), ("Is there a cap, and how much is it?", "money"), ("Why was it late?", "text"),
        ("Where is the wool kept?", "text"), ("At what time was it found?", "time"), ("How often is rent paid?", "often"), ("Which days are rent days?", "date"),
        ("What is the moisture of the fleece, as a share of its weight?", "percent"), ("What moisture is allowed in the bales?", "percent"),
        ("What is the greatest weight of a bale?", "number"), ("What is the highest fee?", "money"), ("What floor area do they rent?", "number"),
        ("What fire cover must the mill have?", "money"), ("Which old gearing is named?", "percent"), ("What ratio must be kept?", "number"),
    ],
)  # fmt: skip
def test_the_kind_of_answer(words, kind):
    assert understand(words).kinds[0] == kind


def test_what_a_thing_is_tells_the_kind_where_the_form_does_not():
    assert "money" in understand("What is the deposit?").kinds
    assert not understand("What is the governing law?").sure


def test_a_question_that_follows_leans_on_the_one_before():
    before = understand("What is the fee for storage?")
    after = understand("And in the second year?", before=before)
    assert after.kinds == before.kinds
    assert {i.name for i in before.ideas} <= {i.name for i in after.ideas}


@pytest.mark.parametrize("words", ["And if the supplier gave notice?", "And once the mill is bought?"])
def test_a_question_that_only_names_a_case_asks_for_the_same_thing(words):
    before = understand("At what percentage of cost is stock taken back?")
    assert understand(words, before=before).kinds == before.kinds


@pytest.mark.parametrize("words", ["What is the capital of Norway?", "Tell me a joke about sheep"])
def test_questions_about_the_world_are_known_as_such(words):
    assert understand(words).outside


@given(st.text(max_size=120))
def test_any_words_are_understood_somehow(words):
    question = understand(words)
    assert question.kinds
    assert 0 < len(question.kinds) < 9


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("What late charge applies?", "money"),
        ("What is the order number?", "code"),
        ("Under what reference is the claim filed?", "code"),
        ("What did the inspector find?", "text"),
        ("For what may the samples be used?", "text"),
        ("What was the confirmed rent start?", "date"),
        ("What is the cut-off for entries?", "date"),
        ("What minimum shelf life must the dye have?", "duration"),
        ("How fast may the charges grow?", "percent"),
        ("How many contract years does it last?", "duration"),
        ("What employer's liability limit is required?", "money"),
        ("Is there a ceiling on the price, and what is it?", "money"),
        ("What rise in wool lets it raise the price?", "percent"),
        ("What was bought from the director's firm?", "money"),
        ("What does she contribute?", "money"),
    ],
)
def test_the_head_of_a_question_tells_the_kind(words, kind):
    assert understand(words).kinds[0] == kind


@pytest.mark.parametrize(
    ("words", "names"),
    [
        ("What late charge applies?", {("late",), ("charg",), ("appli",)}),
        ("How late may the lorry be?", {("lorri",)}),
        ("On what day does the hire run out?", {("hire",), ("run", "out")}),
        ("What share of the price is held back?", {("price",), ("hold", "back")}),
        ("How soon is a fitter on site?", {("fitter",), ("on", "site")}),
        ("When did the board sign off the accounts?", {("board",), ("sign", "off"), ("account",)}),
    ],
)
def test_what_is_sought_keeps_what_says_something(words, names):
    assert {i.name for i in understand(words).ideas} == names


def test_a_number_in_words_also_seeks_the_figure_of_a_row():
    third = next(i for i in understand("What is due in the third season?").ideas if i.name == ("third",))
    assert ("3",) in dict(third.ways)


@pytest.mark.parametrize(
    ("words", "leans"),
    [
        ("With what limit?", True),
        ("And in the second year?", True),
        ("How long does it last?", True),
        ("To what is that limited?", True),
        ("How long an interval lies between the two inspections of the boiler that it names?", False),
    ],
)
def test_a_question_leans_on_the_one_before_where_it_points_back(words, leans):
    assert understand(words, before=understand("What is the excess for flood?")).leans is leans


def test_without_a_question_before_nothing_leans():
    assert not understand("How long does it last?").leans


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("Above what sum is consent needed?", "money"),
        ("Under which clause may it be ended?", "text"),
        ("To what level is the fee raised?", "text"),
    ],
)
def test_more_forms(question, kind):
    assert understand(question).kinds[0] == kind


@pytest.mark.parametrize(
    ("question", "sought"),
    [
        ("How much must be paid to leave?", "multiple"),
        ("On which day of the month is it paid?", "day"),
        ("How long is it?", ""),
    ],
)
def test_kinds_that_are_sought_too(question, sought):
    from yarnex.core.search.patterns import kinds_sought

    asked = understand(question)
    more = [kind for _, kind in kinds_sought(asked.kinds, question) if kind not in asked.kinds]
    assert (sought in more) if sought else not more


@pytest.mark.parametrize(
    ("kind", "text", "found"),
    [
        ("multiple", "he shall pay a sum equal to five months' rent and VAT", ["a sum equal to five months' rent"]),
        ("multiple", "not more than eighteen (18) months’ rent and service charge", ["eighteen (18) months’ rent and service charge"]),
        ("multiple", "within five months after the rent day", []),
        ("day", "Quarterly, on the 9th, in cash", ["9th"]),
        ("day", "on the 9th day of May", ["9th"]),
        ("day", "on 9th May 2026", []),
    ],
)  # fmt: skip
def test_patterns(kind, text, found):
    from yarnex.core.search.patterns import PATTERNS

    assert [m.group() for m in PATTERNS[kind].finditer(text)] == found


@pytest.mark.parametrize(
    ("question", "kind", "may"),
    [
        ("Who is the landlord?", "party", True),
        ("Who is the landlord?", "money", False),
        ("How large is the deposit?", "money", True),
        ("When does the term end?", "money", False),
        ("When does the term end?", "duration", True),
        ("May they end it early?", "duration", True),
        ("Who is the landlord?", "text", True),
    ],
)
def test_what_kind_of_term_may_answer(question, kind, may):
    assert _may_be_asked(understand(question), kind) is may
