"""The most and the least of a sentence, a paper's own date, sums before tax, sums by the piece, and yes or no for one side."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.values import YesNo

LETTER = """Humber Carding Works Ltd
The Old Rope Walk, Skelbrook

19 February 2027

The Directors
Brackenfold Mills plc

Dear Directors

OFFER FOR THE CARDING OF NOILS

1. Price. We card noils for £0.41 per kilogram, and the first bale of each lot at £62 per bale. The price holds until 30 September 2027.

2. Delay. For each full day by which a lot is late we credit 0.7% of its price, up to 6%.

3. Minimum. You send 900 kg a month and in any case at least 350 kg.

4. Transfer. The Carder may assign; the Mill may not.

5. Machines. The Carder may run the cards at weekends only if the doors are shut.

6. Storage. The price includes pressing but not wrapping, labels or storage.

7. Restraint. For eight months after the end the Carder may not card for others at Skelbrook, but for trials of up to fourteen days.

8. Wet lots. For each hour by which a wet lot is dried we charge 1.2% of its price, up to 5%.

Yours faithfully
"""
BILL = """# INVOICE 3318

From: Humber Carding Works Ltd, to Brackenfold Mills plc, 4 March 2027

| Item | Amount |
| --- | --- |
| Carding of noils | £2,050.00 |
| VAT 20% | £410.00 |
| Amount due | £2,460.00 |
"""


def paper(text, name):
    return Inquiry(read_text(text.encode(), name, "0" * 64, markdown=name.endswith(".md")))


@pytest.fixture(scope="module")
def letter():
    return paper(LETTER, "offer.txt")


@pytest.fixture(scope="module")
def bill():
    return paper(BILL, "bill.md")


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What credit is given for each day of delay?", "0.7%"),
        ("What is the most that the credit for delay can come to?", "6%"),
        ("How large can the credit for a late lot be at most?", "6%"),
        ("How long may the Carder not card for others?", "eight months"),
        ("When was the offer made?", "19 February 2027"),
        ("When was the letter written?", "19 February 2027"),
        ("What does it cost to card a kilogram?", "£0.41"),
        ("What is the price for a bale?", "£62"),
    ],
)
def test_values(letter, question, text):
    found = ask(letter, understand(question))[0]
    assert found.text.startswith(text), (found.text, found.working)


def test_what_bounds_a_value_is_told_with_the_words_that_it_bounds(letter):
    found = ask(letter, understand("What is the most that the charge for a wet lot can come to?"))[0]
    assert any("1.2% of its price, up to 5%" in step for step in found.working)
    assert found.cites[0].quote.endswith("up to 5%.")


@pytest.mark.parametrize("question", ["When was the sample sent?", "When was the machine made?"])
def test_the_paper_s_own_date_is_of_nothing_else(letter, question):
    assert not ask(letter, understand(question))[0].text.startswith("19 February")


@pytest.mark.parametrize(
    ("question", "value"),
    [
        ("May the Carder assign?", True),
        ("May the Mill assign?", False),
        ("May the Carder run the cards at weekends?", True),
        ("Is pressing included?", True),
        ("Is wrapping included?", False),
    ],
)
def test_yes_or_no(letter, question, value):
    assert ask(letter, understand(question))[0].value == YesNo(value)


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("How much VAT was charged?", "£410.00"),
        ("What did the carding cost before VAT?", "£2,050.00"),
    ],
)
def test_tax_and_what_is_before_it(bill, question, text):
    assert ask(bill, understand(question))[0].text == text


def test_a_subject_makes_no_phrase_with_its_verb():
    names = [idea.name for idea in understand("May the bank transfer the deed?").ideas]
    assert ("bank",) in names
    assert ("transfer",) in names
    phrase = [idea.name for idea in understand("Is a bank transfer accepted?").ideas]
    assert ("bank", "transfer") in phrase


def test_parties_in_capitals_are_known_by_them_in_the_text():
    terms = "HIRE OF A CARD\n\nOWNER      Humber Carding Works Ltd, Skelbrook\nHIRER      Brackenfold Mills plc\nGOODS      One card\n\nThe Owner may assign; the Hirer may not.\n"
    hire = paper(terms, "hire.txt")
    assert {"Owner", "Hirer"} <= set(hire.values.roles)
    assert ask(hire, understand("May the hirer assign?"))[0].value == YesNo(False)


SERVICE = """# Service Agreement

This Agreement is made on 3 May 2027 between (1) Brackenfold Mills plc (the "Company") and (2) Imke Tolland (the "Overseer").

1. Notice. The Company must give ten months and the Overseer four. Neither need give a reason.

2. Restraint. For five months after the end the Company shall not hire the family of the Overseer. The Overseer shall not card for others for seven months.
"""


@pytest.mark.parametrize(
    ("question", "months"),
    [
        ("What notice must the Company give?", 10),
        ("For how long may she not card for others?", 7),
    ],
)
def test_who_is_called_she_is_the_only_person(question, months):
    found = ask(paper(SERVICE, "service.md"), understand(question))[0]
    assert (found.value.value, found.value.unit) == (months, "months")


def test_a_value_with_what_is_to_be_left_out_is_another():
    words = "# Card\n\n| Property | Value |\n| --- | --- |\n| Noise | 79 dB(A) with the cover; 86 dB(A) |\n"
    card = paper(words, "card.md")
    assert ask(card, understand("How loud is it without the cover?"))[0].value.value == 86
    assert ask(card, understand("How loud is it with the cover?"))[0].value.value == 79


@pytest.mark.parametrize(
    ("words", "question", "text"),
    [
        ("The yard keeps four old hand trucks at the gate.", "How many hand trucks are there?", "four old hand trucks"),
        ("She walks six miles a day.", "How far does she walk?", "six miles"),
        ("One card in fifty was worn.", "How many cards were worn?", "One card in fifty"),
        ("Some 38 were spoiled.", "How many were spoiled?", "38"),
    ],
)
def test_a_number_is_told_with_what_it_counts(words, question, text):
    found = ask(paper(f"# Yard\n\n{words}\n", "yard.md"), understand(question))[0]
    assert found.text.startswith(text)


@pytest.mark.parametrize(
    ("question", "leans"),
    [
        ("What is the most that the rent can rise by?", False),
        ("Is that the limit?", True),
        ("How long does that last?", True),
    ],
)
def test_that_points_back_only_where_it_stands_for_something(question, leans):
    assert understand(question, before=understand("How many spaces are there?")).leans is leans


def test_what_is_repaid_early_is_no_deposit():
    words = "# LOAN AGREEMENT\n\nThe Lender lends the Borrower £900,000.\n\n4.2 The Borrower may prepay the loan in sums of at least £60,000, on twelve days' notice.\n"
    assert not ask(paper(words, "loan.md"), understand("How much is the deposit?"))[0].found
