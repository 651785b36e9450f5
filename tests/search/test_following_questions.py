"""Questions that go on with the one before: their answers stand near its answer, and only their own words tell values apart."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand

PAPER = """# Agreement on the Wool Store

This Agreement is made on 4 May 2026 between (1) Tarn Estates Limited (the "Owner") and (2) Brackenfold Mills Limited (the "User").

## 1. Terms

1.1 The User may hand back up to three bays on any anniversary of the start, by giving eleven weeks' notice. Rent already paid is not returned.

1.2 The Owner shall give nine days' notice of an inspection.

1.3 Either party shall give fourteen days' notice of a change of its address.

1.4 Notice periods are ten months for the Mill Manager and four months for the Chief Financial Officer.

1.5 On delivery bales shall have a moisture of not more than sixteen per cent, or twelve per cent in the case of tops.

## 2. Cover

2.1 Breakdown of the baling press. The cover holds for a press that is serviced each year. Limit £70,000 for one loss.

2.2 Flood. The cover holds for the ground floor only. Limit £45,000 for one loss.

## 3. Staff

3.1 The storekeeper is paid £31,000 a year. She gives two months' notice.

## 4. Loan

4.1 The ratio of debt to earnings shall not exceed 2.75:1.

4.2 For the test dates falling on 30 June 2027 and 31 December 2027 only, the ratio is 3.10:1.
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "store.md", "0" * 64, markdown=True))


def told(paper, *questions):
    before = None
    for words in questions:
        before = understand(words, before=before)
    return ask(paper, before)[0]


@pytest.mark.parametrize(
    ("questions", "said"),
    [
        (("How many bays may be handed back?", "On how much notice?"), "eleven weeks"),
        (("What is the limit for the baling press?",), "70,000"),
        (("How much notice does the finance director get?",), "four months"),
        (("How much notice does the finance director get?", "And the mill manager?"), "ten months"),
        (("What moisture may tops have on delivery?",), "twelve per cent"),
        (("What ratio of debt to earnings is allowed at 31 December 2027?",), "3.10"),
    ],
)
def test_the_answer_is_the_one_that_the_question_goes_on_to(paper, questions, said):
    found = told(paper, *questions)
    assert said in found.text, (found.state, found.text)


@pytest.mark.parametrize(
    ("words", "leans"),
    [
        ("On how much notice?", True),
        ("Under what order number?", True),
        ("Within what distance?", True),
        ("On what day does it end?", True),
        ("On what day does the cover of the press end?", False),
        ("Which court decides?", False),
    ],
)
def test_a_question_without_a_verb_goes_on_with_the_one_before(words, leans):
    assert understand(words, before=understand("What may be handed back?")).leans is leans


def test_she_is_the_person_of_the_paper_and_not_what_was_asked_before():
    before = understand("How many bays may be handed back?")
    question = understand("What does she earn?", before=before)
    assert question.reads_alone
    assert question.alone is not None
    assert not understand("How long does it last?", before=before).reads_alone
    assert understand("And how long is the term?", before=before).reads_alone
    assert understand("And how long is the term?", before=before).alone is not None
    assert understand("And the term?", before=before).alone is None


def test_words_carried_over_are_marked_and_count_less():
    before = understand("What excess is borne after a flood?")
    question = understand("And after a fire?", before=before)
    carried = {i.name for i in question.ideas if i.carried}
    own = {i.name for i in question.ideas if not i.carried}
    assert ("flood",) in carried
    assert ("fire",) in own
    assert question.before == before


@pytest.mark.parametrize(
    ("words", "kinds"),
    [
        ("And gearing at March 2029?", ("percent", "number")),
        ("And the price in the second year?", ("money", "percent")),
        ("And in the first year?", ("duration", "text")),
    ],
)
def test_what_it_names_itself_says_the_kind_of_answer(words, kinds):
    before = understand("How long is the term?")
    assert understand(words, before=before).kinds[:2] == kinds


def test_the_last_answers_are_kept_for_the_next_question(paper):
    first = understand("How many bays may be handed back?")
    told(paper, "How many bays may be handed back?")
    asked = paper.asked(first)
    assert asked in paper.answered
    ask(paper, understand("What is the limit for the baling press?"))
    assert asked not in paper.answered


def test_a_long_row_of_follow_ups_nests_no_deeper_than_one(paper):
    question = understand("How many bays may be handed back?")
    for number in range(600):
        question = understand(f"And bay {number}?", before=question)
    assert question.before is not None
    assert question.before.before is None
    assert ask(paper, question)
