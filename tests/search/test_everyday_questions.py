"""Terms asked for as people ask: everyday questions, the paper's own name, hours, and who wrote it."""

from __future__ import annotations

import pytest

import yarnex
from yarnex.core.errors import PackError
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search import inquiry as module
from yarnex.core.search.evidence import Likeness
from yarnex.core.search.inquiry import EVERYDAY, everyday_questions, ways_of
from yarnex.core.search.question import stems_asked
from yarnex.core.terms.sheets import load_sheet, shipped_sheets
from yarnex.core.words import stems_of

LEASE = """# Lease of the Carding Shed

This Lease is made on 4 May 2026 between (1) Tarn Estates Limited (the "Landlord") and (2) Brackenfold Mills Limited (the "Tenant").

## 1. Letting

1.1 The Landlord lets the Shed to the Tenant for a term of ten years from 1 June 2026.

1.2 The Tenant may determine this Lease on 31 May 2031 by giving to the Landlord not less than seven months' notice.

## 2. Money

2.1 The Tenant has paid to the Landlord a deposit of £9,400, which is repaid within 21 days after the end of the term.

2.2 Interest on arrears is payable at five per cent a year above the base rate.

## 3. Use

3.1 The gates are open from 6 a.m. to 9 p.m. on weekdays.

3.2 The special terms prevail over the clauses.
"""


@pytest.fixture
def lease(document):
    return Inquiry(document(LEASE, "shed.md"))


def told(inquiry, question):
    return ask(inquiry, understand(question))[0]


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("How long must we warn them if we want to leave early?", "seven months"),
        ("What do we put down as security?", "£9,400"),
        ("What is charged on money paid late?", "five per cent"),
        ("At what hours are the gates open?", "6 a.m. to 9 p.m."),
    ],
)
def test_everyday_questions_find_the_term(lease, question, text):
    assert text in told(lease, question).text


def test_the_paper_itself_is_light_in_a_question(lease):
    asked = lease.asked(understand("When does the lease end?"))
    weights = {i.name: i.weight for i in asked.ideas}
    assert weights[stems_of("lease")] < weights[stems_of("end")]


def test_questions_are_for_terms_that_a_sheet_has():
    known = {t.id for name in shipped_sheets() for t in load_sheet(name).terms}
    assert set(everyday_questions()) <= known


def test_being_like_an_everyday_question_counts_less_than_being_like_the_name(lease):
    term = next(t for t in lease.sheet.terms if t.id == "deposit")
    ways = dict(ways_of(term))
    assert ways[frozenset(stems_of("deposit"))] == 1.0
    assert EVERYDAY in ways.values()


def test_a_lone_word_that_asks_for_many_terms_asks_for_none():
    lone = [way for ways in everyday_questions().values() for way in ways if len(way) == 1]
    assert frozenset(stems_of("pay")) not in lone


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("how long does it last", "long last"),
        ("until when can they draw", "end draw"),
        ("on what date is it paid back", "pay back"),
    ],
)
def test_stems_of_a_question_without_its_frame(question, words):
    from yarnex.core.words import stem

    assert stems_asked(question) == {stem(w) for w in words.split()}


def test_likeness_takes_both_sides_into_account(lease):
    question = lease.asked(understand("How much is the deposit?"))
    likeness = Likeness(lease, question.ideas)
    whole, part = frozenset(stems_of("deposit")), frozenset(stems_of("return of the deposit in parts"))
    assert likeness.to_label(whole) > likeness.to_label(part) > 0
    assert likeness.to_label(frozenset(stems_of("parking"))) == 0


def test_a_mistake_in_the_questions_is_told(monkeypatch, tmp_path):
    everyday_questions.cache_clear()
    monkeypatch.setenv("YARNEX_CACHE", str(tmp_path))  # nothing is kept there yet
    monkeypatch.setattr(module, "pack_text", lambda *_: ("terms:\n  deposit: [1]\n", "questions.yaml"))
    with pytest.raises(PackError, match="deposit: write questions"):
        everyday_questions()
    everyday_questions.cache_clear()


MAIL = """From: Ada Croft <ada@mill.example>
To: Low Pennine <claims@pennine.example>
Date: Tue, 10 Feb 2026 09:40:00 +0000
Subject: Wet bales

The bales in the shed are wet. We sent the money to account no. 44-1182-7 on Friday.
"""


def test_who_wrote_a_mail_is_a_person_though_its_sheet_holds_a_line(tmp_path):
    (tmp_path / "wet.eml").write_text(MAIL, "utf-8")
    found = told(Inquiry(yarnex.read(tmp_path / "wet.eml")), "Who wrote this?")
    assert found.value is not None
    assert found.value.to_dict() == {"type": "party", "value": "Ada Croft"}


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("To which account was it sent?", "code"),
        ("Under which policy is it claimed?", "text"),
        ("In which country may they sell?", "text"),
    ],
)
def test_which_after_a_little_word(question, kind):
    assert understand(question).kinds[0] == kind
