"""What the words around a value say of it, and how that fits what is asked."""

from __future__ import annotations

import pytest

from yarnex.core.document import Span
from yarnex.core.search import ask_all, understand
from yarnex.core.search.cues import (
    change_fit,
    counted_in,
    cue_fit,
    cues_asked,
    cues_said,
    if_not_fit,
    numbered_fit,
    wants_old,
)


def place(text, words):
    at = text.index(words)
    return text, Span(at, at + len(words)), 0, len(text)


@pytest.mark.parametrize(
    ("question", "text", "value", "kind", "fit"),
    [
        ("When did cover begin?", "Cover runs from 1 May 2026 to 30 April 2027.", "1 May 2026", "date", 1),
        ("When did cover begin?", "Cover runs from 1 May 2026 to 30 April 2027.", "30 April 2027", "date", -1),
        ("When did cover end?", "Cover runs from 1 May 2026 to 30 April 2027.", "30 April 2027", "date", 1),
        ("What is the most it pays?", "The insurer pays up to £4,000.", "£4,000", "money", 1),
        ("What is the most it pays?", "Cover of not less than £4,000 is held.", "£4,000", "money", -1),
        ("What is the lowest flow?", "Flow min. 500 m3/h", "500 m3/h", "number", 1),
        ("Above what sum is consent needed?", "Works that exceed £9,000 need consent.", "£9,000", "money", 1),
        ("What is the most it rises by?", "If it is more than £9,000 a sum is paid.", "£9,000", "money", -1),
        ("What is the cap on the fee?", "No fee above £9,000 is paid.", "£9,000", "money", 1),
        ("By how much did revenue rise?", "Revenue rose by £3 million.", "£3 million", "money", 1),
        ("How long is the term?", "The term runs from two years hence.", "two years", "duration", 0),
        ("What is the rent?", "The rent is £4,000.", "£4,000", "money", 0),
    ],
)
def test_what_is_asked_and_what_is_said(question, text, value, kind, fit):
    assert cue_fit(cues_asked(question), cues_said(*place(text, value)), kind) == fit


@pytest.mark.parametrize(
    ("question", "value", "fit"),
    [
        ("What is the fee now?", "£60", 1),
        ("What is the fee now?", "£45", -1),
        ("What was the fee originally?", "£45", 1),
        ("What was the fee originally?", "£60", -1),
        ("Who pays?", "£12", 0),
    ],
)
@pytest.mark.parametrize(
    "text",
    [
        "The fee is increased from £45 to £60 for each bale; carriage stays at £12.",
        "In clause 4 “£45” is replaced by “£60”; carriage stays at £12.",
    ],
)
def test_the_old_and_the_new(text, question, value, fit):
    assert change_fit(question, *place(text, value)) == fit


@pytest.mark.parametrize(
    ("question", "fit"),
    [("When does the lease end?", -1), ("When would the lease have ended without the deed?", 1)],
)
def test_what_only_would_have_been(question, fit):
    text, value, start, _ = place("But for this deed the lease would have ended on 4 May 2030.", "4 May 2030")
    assert if_not_fit(question, text, value, start) == fit


@pytest.mark.parametrize(
    ("question", "words", "row", "fit"),
    [
        ("What is the limit of item 3?", "item 3 is limited to £5", "", 1),
        ("What is the limit of item 3?", "item 4 is limited to £5", "", -1),
        ("What is the twentieth instalment?", "", "20", 1),
        ("What is the twentieth instalment?", "", "19", -1),
        ("What is the rent in year 4?", "", "3 to 5", 1),
        ("What is the rent in the second year?", "", "3 through 5", -1),
        ("Which suite is let?", "suite 4", "2", 0),
    ],
)
def test_things_named_by_number(question, words, row, fit):
    assert numbered_fit(question, words, row) == fit


def test_an_amended_value_is_told_as_it_is_now(document):
    paper = document(
        "SIDE LETTER\n\n1. The storage fee in clause 4 of the Agreement is increased from £45 to £60 for each bale.\n\n"
        "2. The notice period is reduced from nine months to six months.\n",
        "letter.txt",
    )
    asked = ask_all([paper], [("1", "What is the storage fee now?"), ("2", "How long is the notice period now?")])
    assert [a.findings[0][0].text for a in asked] == ["£60", "six months"]


TERMS = """# Agreement

This Agreement is made on 4 May 2026 between (1) Brackenfold Mills Limited (the "Lessee") and (2) Calder Estates Limited (the "Lessor").

## 1. Use

1.1 The Lessee shall not assign or underlet the shed.

1.2 The Lessee may end this Agreement on 4 May 2029 by notice.

1.3 If the Lessee stays on it shall pay rent at two hundred per cent of the rent last payable.
"""


@pytest.mark.parametrize(
    ("question", "state", "words"),
    [
        ("May the tenant sublet?", "stated", "underlet"),
        ("May we let it to another firm?", "not_found", ""),
        ("Is there a guarantor?", "not_found", ""),
    ],
)
def test_what_is_asked_of_a_right_is_not_answered_by_a_sum(document, question, state, words):
    ((found,),) = (a.findings[0][:1] for a in ask_all([document(TERMS, "agreement.md")], [("1", question)]))
    assert found.state == state
    assert words in (found.cites[0].quote if found.cites else "")


def test_is_there_does_not_lean_on_the_question_before():
    before = understand("What is the yearly rent?")
    assert not understand("Is there a guarantor?", "", before).leans
    assert understand("And in the second year?", "", before).leans


@pytest.mark.parametrize(
    ("question", "first"),
    [
        ("Until when does the lease run?", "date"),
        ("To how much was the fee raised?", "money"),
        ("What part of the loss do we bear?", "percent"),
        ("How long does the contract run?", "duration"),
        ("When is it due, and who pays?", "date"),
        ("What was bought from the firm on whose board she sits?", "money"),
    ],
)
def test_the_kind_of_answer(question, first):
    assert understand(question).kinds[0] == first


BILL = "# Bill\n\n| Work | Qty | Rate | Amount |\n|---|---|---|---|\n| Carding | 64 | £3.10 | £198.40 |\n| Washing | 480 | £2.58 | £1,238.40 |\n"


@pytest.mark.parametrize(
    ("question", "amount"),
    [("What was charged for carding?", "198.40"), ("What is the rate for carding?", "3.10"), ("What was paid for washing?", "1238.40")],
)  # fmt: skip
def test_a_sum_for_all_and_one_for_each_stand_in_columns_of_their_own(document, question, amount):
    ((found,),) = (a.findings[:1] for a in ask_all([document(BILL, "bill.md")], [("1", question)]))
    assert str(found[0].value.amount) == amount


@pytest.mark.parametrize(
    ("question", "heads", "row", "fits"),
    [
        ("How much is the twentieth instalment?", "No. Instalment Interest", "20", True),
        ("How much is the twentieth instalment?", "No. Instalment Interest", "2", False),
        ("What is the fee in the second extension?", "Period Fee", "7 to 9 (second extension)", True),
        ("And the second estimate?", "Item Estimate", "2. Drying the fleece", False),
        ("What is paid in all?", "No. Instalment", "20", False),
    ],
)
def test_rows_that_tell_what_is_counted(question, heads, row, fits):
    assert counted_in(question, heads, row) is fits


@pytest.mark.parametrize(
    ("question", "old"),
    [
        ("When would it have ended without the amendment?", True), ("What was the rent before?", True), ("What is the rent now?", False), ("When does it end without notice?", False),
    ],
)  # fmt: skip
def test_what_asks_for_the_old_value(question, old):
    assert wants_old(question) is old


def test_either_value_of_a_bound_is_bounded():
    text = "kept for not less than twelve weeks, or nine weeks for noils"
    at = text.index("nine weeks")
    assert "least" in cues_said(text, Span(at, at + 10), 0, len(text))
