"""What looks like an answer and is none: another sort of the thing, a measure, a reference, another's payment; and who signed when."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.ask_all import ask_all
from yarnex.core.values import DateValue, Duration, ListOf, Money, Percent, Quantity, YesNo

PAPER = """# Agreement on the carding shed

This Agreement is made on 4 May 2026 between (1) Tarn Estates Limited (the "Landlord") and (2) Ada Thorne (the "Manager").

## 1. Terms

1.1 The Manager is paid a stay bonus equal to 30 per cent of her salary on 1 June 2028.

1.2 There shall be six bays for every 900 square metres of the shed.

1.3 The most that is paid for the roof is 125 per cent of the estimate, that is to say £84,500.

1.4 The shed shall be aired for not less than fifteen minutes, or forty minutes in the case of mohair.

1.5 The Landlord may sell the shed. The Manager may keep two benches in it without the Landlord's consent, and may not move the looms without the Landlord's consent.

1.6 Heavy carts may come between 6.30 a.m. and 5.15 p.m. on weekdays.

1.7 Money that is late bears 4 per cent a year above the base rate of Calder Bank plc.

1.8 The output slipped from 31 to 27.5 per cent of the plan.

1.9 The hire ends on the earlier of 90 days after the fair and the day on which the new shed opens.

1.10 If the shed is let to a rival the Manager must be told within 16 working days.

1.11 The shed is inspected on 3 March 2027, 5 April 2029 and 7 May 2031.

1.12 On 3 May 2026 the Company took a loan from two banks.

## 2. Accounts

| Paid by | Share |
| --- | --- |
| Pension, by the Landlord | 9% |
| Pension, by the Manager | 4% |

## 3. Sums claimed

| Claim | Asked £ | Allowed £ | Reason |
| --- | --- | --- | --- |
| Slater | 410.00 | 410.00 | – |
| Glazier | 96.00 | nil | 2 |

Reason 1: the bill came twice.

Reason 2: windows of the lodge are not part of the shed.

Date of inspection: ____________

Name: Bram Holroyd   Telephone:

Signed for the Landlord: ____________________ Date: ________

Signed by the Manager: /s/ Ada Thorne Date: 9 May 2026
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "shed.md", "0" * 64, markdown=True))


def told(paper, question):
    return ask(paper, understand(question))[0]


@pytest.mark.parametrize(
    "question",
    ["What joining bonus is paid?", "What travel allowance was agreed?", "Which banks gave the loan?", "Who repairs the gate?"],
)  # fmt: skip
def test_another_thing_is_no_answer(paper, question):
    assert told(paper, question).state == "not_found"


@pytest.mark.parametrize(
    ("question", "value"),
    [
        ("What bonus is paid for staying?", Percent(30)),
        ("What is the most that is paid for the roof?", Money(84_500, "GBP")),
        ("How long must the shed be aired for mohair?", Duration(40, "minutes")),
        ("How long must the shed be aired?", Duration(15, "minutes")),
        ("How soon must the Manager be told if the shed is let to a rival?", Duration(16, "business_days")),
        ("What does the Manager pay into the pension?", Percent(4)),
    ],
)
def test_which_value(paper, question, value):
    assert told(paper, question).value == value


def test_the_ratio_and_not_what_it_is_of(paper):
    found = told(paper, "What ratio of bays must there be?")
    assert isinstance(found.value, Quantity)
    assert found.value.value == 6
    assert found.text == "six bays for every 900 square metres"


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("What is charged on money that is late?", "4 per cent a year above the base rate of Calder Bank plc"),
        ("When does the hire end?", "the earlier of 90 days after the fair and the day on which the new shed opens"),
        ("Between what hours may carts come?", "6.30 a.m. and 5.15 p.m."),
        ("Why was the glazier not paid?", "windows of the lodge are not part of the shed"),
        ("By how much did output slip? What is it now?", "27.5 per cent"),
    ],
)
def test_words_that_are_told(paper, question, words):
    assert words in told(paper, question).text


@pytest.mark.parametrize(
    ("question", "yes"),
    [
        ("Does the Manager need permission for two benches?", False),
        ("May the Manager move the looms without the Landlord's consent?", False),
    ],
)
def test_leave_that_is_needed_or_not(paper, question, yes):
    assert told(paper, question).value == YesNo(yes)


@pytest.mark.parametrize(
    ("question", "state", "day"),
    [
        ("On what date did the Landlord sign?", "blank", ""),
        ("When did the Manager sign?", "stated", "2026-05-09"),
        ("On what day did she sign?", "stated", "2026-05-09"),
    ],
)
def test_when_each_signed(paper, question, state, day):
    found = told(paper, question)
    assert found.state == state
    assert not day or (isinstance(found.value, DateValue) and found.value.day.isoformat() == day)


@pytest.mark.parametrize(
    "question", ["What is the date of inspection on the form?", "What is Bram Holroyd's telephone number?"]
)
def test_places_left_blank(paper, question):
    assert told(paper, question).state == "blank"


def test_answers_do_not_depend_on_what_was_asked_before():
    plan = "# Hire of two looms\n\n| No. | Payment date | Instalment |\n| --- | --- | --- |\n" + "".join(
        f"| {n} | 3 {m} 2026 | 410.00 |\n" for n, m in ((1, "March"), (2, "June"), (3, "September"))
    )
    paper = read_text(plan.encode(), "hire.md", "0" * 64, markdown=True)
    questions = ["What was the down payment?", "Show the payment schedule.", "When is the last instalment due?"]
    alone = ask_all([paper], [("1", questions[-1])])[0].findings[0][0]
    after = ask_all([paper], [(str(i), q) for i, q in enumerate(questions)])[-1].findings[0][0]
    assert (alone.state, alone.text) == (after.state, after.text)


def test_days_that_come_round_are_not_from_when(paper):
    found = told(paper, "On which days is the shed inspected?")
    assert "2027" in found.text
    assert not isinstance(found.value, ListOf) or len(found.value.items) == 3


NOTES = """# Enquiry for a pump at Low Weir Mill

## 1. What is wanted

| Item | Wanted |
| --- | --- |
| Lift, greatest | min. 34 m |

## 2. Units

| Quantity | Unit | Note |
| --- | --- | --- |
| Lift | m | 1 psi = 0.703 m of water |

## 3. What is left out of it

The following are no part of the order: the sluice (item 7); the screen (item 9); and painting.

All prices exclude value added tax unless the offer says otherwise.

The price of the spare impeller is £715.00.
"""


@pytest.fixture(scope="module")
def notes():
    return Inquiry(read_text(NOTES.encode(), "enquiry.md", "0" * 64, markdown=True))


def test_how_one_unit_converts_is_no_answer(notes):
    found = ask(notes, understand("And what lift?"))[0]
    assert found.value.value == 34


def test_a_list_runs_through_its_semicolons(notes):
    found = ask(notes, understand("Which items are no part of the order?"))[0]
    assert found.value == ListOf(("the sluice (item 7)", "the screen (item 9)", "painting"))


def test_what_is_said_once_of_tax_holds_for_all_sums(notes):
    plain = ask(notes, understand("What is the price of the spare impeller?"))[0]
    assert plain.value.amount == 715
    with_tax = ask(notes, understand("What is the price of the spare impeller including VAT?"))[0]
    assert not isinstance(with_tax.value, Money) or with_tax.confidence < plain.confidence - 0.2


LETTER = """# Offer for hoists

Tarn Hoists Ltd offers six hoists to Brackenfold Mills plc for £46,000.

The first hoist comes forty days after the order and the others after seventy.

The Mill shall not pledge, let or sell the hoists before they are paid.

| Item | Detail |
| --- | --- |
| Site engineer | to be appointed |
| Paint | green |

A stay bonus of 30 per cent of pay is given to the foreman.
"""


@pytest.fixture(scope="module")
def letter():
    return Inquiry(read_text(LETTER.encode(), "letter.md", "0" * 64, markdown=True))


@pytest.mark.parametrize(
    "question",
    [
        "Which hoists are pledged for the price?",
        "Who is the site engineer?",
        "How large is the joining bonus?",
    ],
)
def test_what_is_not_said_is_not_found(letter, question):
    assert ask(letter, understand(question))[0].state == "not_found"


@pytest.mark.parametrize(
    ("question", "unit", "light"),
    [
        ("For how many weeks does the bid stand?", "week", True),
        ("How many weeks does delivery take?", "week", True),
        ("To how many weeks is the notice cut?", "week", False),
        ("Which holidays fall on week days?", "day", False),
    ],
)
def test_the_unit_of_a_length_that_is_asked_for_says_little(question, unit, light):
    weight = next(i.weight for i in understand(question).ideas if i.name == (unit,))
    assert (weight < 0.5) is light


def test_what_nobody_has_settled_is_told_with_its_words(letter):
    found = ask(letter, understand("Who is the site engineer?"))[0]
    assert found.why == ("the document says “to be appointed”",)
    assert "to be appointed" in found.near[0].quote


DEALING = """# Dealing agreement

This agreement is made on 5 May 2026 between (1) Tarn Yarns Limited (the "Maker") and (2) Brackenfold Shops Limited (the "Dealer").

## 8. Ending

8.1 The Maker may terminate this agreement without giving a reason on seven months' notice.

8.2 The Dealer shall tell the Maker of a sale of its shares at least forty days ahead.
"""


@pytest.mark.parametrize(
    ("question", "found"),
    [
        ("On what notice may the maker terminate without a reason?", "seven months"),
        ("On what notice may the dealer terminate without a reason?", ""),
    ],
)
def test_what_is_the_right_of_another_takes_its_share(question, found):
    paper = Inquiry(read_text(DEALING.encode(), "dealing.md", "0" * 64, markdown=True))
    answer = ask(paper, understand(question))[0]
    assert (found in answer.text and answer.found) if found else answer.state == "not_found"
    if not found:
        assert "said of another party" in answer.why[0] and "8.1 The Maker may" in answer.near[0].quote


CAPS = """# Terms of the dye works

Our liability for the works is limited to £900,000 in all.

The deduction for delay is 2 per cent a week, at most 12 per cent.

The bond is three months' rent and is given back when the works end.
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What is the cap on liability?", "£900,000"),
        ("What is the ceiling on the delay deduction?", "12 per cent."),
        ("What is the cap on overtime?", ""),
        ("What is the limit on noise?", ""),
    ],
)
def test_a_cap_on_another_thing_is_no_answer(question, text):
    paper = Inquiry(read_text(CAPS.encode(), "terms.md", "0" * 64, markdown=True))
    assert ask(paper, understand(question))[0].text == text


def test_a_length_that_measures_a_sum_is_no_time():
    paper = Inquiry(read_text(CAPS.encode(), "terms.md", "0" * 64, markdown=True))
    found = ask(paper, understand("How soon is the bond given back?"))[0]
    assert not isinstance(found.value, Duration) and "when the works end" in found.text
