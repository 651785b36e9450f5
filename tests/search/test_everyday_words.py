"""People ask in their own words; the papers speak in theirs."""

from __future__ import annotations

import pytest

from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.terms.by_words import ideas_of, matcher_of
from yarnex.core.terms.passages import Passages
from yarnex.core.words import known_synonyms, stems_of
from yarnex.core.words.synonyms import NEGATIONS, PARTICLES

AGREEMENT = """# Agreement for the combing of wool

This Agreement is made on 4 May 2026 between (1) Brackenfold Mills Limited (the "Customer") and (2) Calder Combing Limited (the "Supplier").

## 1. Term

1.1 This Agreement continues for an initial period of three years and then for successive periods of two years.

1.2 Either party may terminate it by not less than five months' written notice.

## 2. Price

2.1 The charge is £1.85 for each kilogram. Invoices are payable within 40 days.

2.2 Interest on overdue sums is payable at six per cent above the base rate.

2.3 The Supplier may increase the charge once a year by not more than three per cent.

## 3. Quality

3.1 Defective lots may be rejected within nine days of receipt.

3.2 The Supplier shall keep records of each lot for seven years.

## 4. Liability

4.1 The Supplier shall hold public liability insurance of not less than £4,000,000.

4.2 The Supplier's liability is limited to £900,000 in each year.

## 5. General

5.1 Each party shall keep the terms confidential for eight years after termination.

5.2 The law of Scotland governs this Agreement.
"""


@pytest.fixture(scope="module")
def agreement():
    from yarnex.core.reading.text import read_text

    return Inquiry(read_text(AGREEMENT.encode(), "combing.md", "0" * 64))


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("How much warning must be given to end it?", "five months"),
        ("What notice does one have to give to get out?", "five months"),
        ("For how long does it roll over?", "two years"),
        ("How long are we tied in at first?", "three years"),
        ("What does a kilo cost?", "£1.85"),
        ("How soon must bills be settled?", "40 days"),
        ("What is added to the base rate if we pay late?", "six per cent"),
        ("By how much may the price go up?", "three per cent"),
        ("How long is there to send back bad lots?", "nine days"),
        ("How long must papers on a lot be retained?", "seven years"),
        ("What is the most the supplier can be liable for?", "£900,000"),
        ("How long must it be kept secret?", "eight years"),
        ("Which law applies?", "Scotland"),
    ],
)
def test_the_answer_is_found_in_other_words(agreement, question, words):
    found = ask(agreement, understand(question))[0]
    assert found.state != "not_found", question
    assert words in (found.text or "") or words in found.cites[0].quote


@pytest.mark.parametrize(
    "question",
    [
        "Which deposit has been paid over?",
        "Who is the guarantor?",
        "When does the roof have to be painted?",
        "What is the performance bond?",
        "How many looms are hired?",
    ],
)
def test_what_it_does_not_say_is_not_found(agreement, question):
    assert ask(agreement, understand(question))[0].state == "not_found"


@pytest.mark.parametrize(
    ("words", "other"),
    [
        ("run out", ("expir",)),
        ("walk away", ("termin",)),
        ("sign off", ("approv",)),
        ("held back", ("retain",)),
        ("audits", ("auditor",)),
        ("owns", ("landlord",)),
        ("third", ("3",)),
        ("twelve", ("12",)),
    ],
)
def test_a_word_seeks_its_others(words, other):
    ways = {way for idea in ideas_of(words) for way, _ in idea.ways}
    assert other in ways


def test_a_particle_counts_only_with_its_verb():
    assert [i.name for i in ideas_of("the hire runs out")] == [("hire",), ("run", "out")]
    assert [i.name for i in ideas_of("out of the shed")] == [("shed",)]


def test_every_group_of_the_vocabulary_says_something():
    synonyms = known_synonyms()
    assert len(synonyms.others) > 1500
    for key, others in synonyms.others.items():
        assert key
        assert key not in NEGATIONS
        assert key not in others
        assert all(others)
    assert all(stems_of(p, stop=True) for p in PARTICLES)


def test_every_member_finds_every_other_of_its_group():
    synonyms = known_synonyms()
    for key, others in synonyms.others.items():
        assert all(key in synonyms.of(other) for other in others)


@pytest.mark.parametrize(
    ("line", "more"),
    [
        ("A performance bond of £4,000 is lodged.", True),
        (
            "The performance of the comb is tested each day by the overseer of the yard, who keeps the bond store.",
            False,
        ),
    ],
)
def test_the_words_of_a_phrase_must_stand_together(document, line, more):
    matcher = matcher_of(Passages(document(line)))
    (hit, *_) = matcher.ranked(ideas_of("performance bond"), None)
    assert (hit.coverage > 0.8) is more


def test_more_values_of_a_line_are_hits_of_their_own(document):
    paper = document("The store holds 40 bales in the loft and 25 bales in the cellar.")
    inquiry = Inquiry(paper)
    find = inquiry.values.finder("number")
    one = inquiry.matcher.ranked(ideas_of("bales in the cellar"), find)
    more = inquiry.matcher.ranked(ideas_of("bales in the cellar"), find, seconds=2)
    assert len(one) == 1
    assert [h.second for h in more] == [False, True]
    assert more[0].found is not None
    assert more[0].found.span.of(paper.text) == "25"
