"""What a figure was before, what words tell of a thing, values told in order, follow-ups, places and those who do a deed."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.answers import PART_OF
from yarnex.core.search.opposites import with_the_other
from yarnex.core.search.year_before import without_time
from yarnex.core.values import YesNo

REPORT = """# Skelbrook Spinners plc: trading update

| £m | 2027 | 2026 |
| --- | --- | --- |
| Revenue | 88.4 | 81.9 |
| Net debt | 12.4 | 1,041.5 |
| Profit before tax | 6.2 | 7.1 |

Order intake was £23.4 million (2026: £20.9 million). There were nine stoppages in the quarter (last quarter: seventeen).

Covenants are net debt no more than 3.25 times EBITDA and interest cover of at least 4.5 times; they were 1.9 and 8.3.

The board now expects profit of £6.5 million to £7.5 million for the year. Trucks cost £2.1 million and silos £0.8 million.

The quarantine is seven weeks. Assets were £31.5 million and liabilities £12.8 million. Shifts lost were 44.

Headroom was £4.4 million. The board met seven times. Its auditors are Pell Marrow LLP. After each audited year the Company pays a dividend.
"""
HIRE = """# Hire of looms

Between Pennine Loom Hire Ltd (the "Owner") and Brackenfold Mills plc (the "Hirer").

1.1 The Hirer pays commission of 7% of turnover, and the commission shall not be less than £21,000 a year. The Owner keeps £9,000 of the deposit of £14,000.

1.2 The Owner insures its liability for £300,000 any one loom and £2 million any one mill.

1.3 Carriage by rail costs £240. A late return costs £35.

| Carriage, by distance | Charge |
| --- | --- |
| Per loom, up to 60 miles | £80.00 |
| Per loom, over 60 miles | £125.00 |

1.4 The deposit is repaid without interest. Prices are stated excluding VAT. He denies any earlier loss.

1.5 Notice shall be not less than 45 nor more than 100 days. The looms are handed back within 30 days of the end and cleaned by the Hirer within 12.

1.6 Returns of the count are sent by the fourth day of each month. Waste is cleared at the end of each shift. A stoppage is told within the hour.

1.7 Welsh law governs. The disputes go to arbitration in Swansea before one arbitrator. Letters go to Quay House, Neath.

1.8 The counting is done by the data agent, Trelleck Metering Services.

Signed for the Hirer: Rohan Desai, Director

Signed for the Owner: Una Pell, Manager
"""


def paper(text, name):
    return Inquiry(read_text(text.encode(), name, "0" * 64, markdown=True))


@pytest.fixture(scope="module")
def report():
    return paper(REPORT, "update.md")


@pytest.fixture(scope="module")
def hire():
    return paper(HIRE, "hire.md")


def test_what_follows_a_limit_need_not_be_its_actual_value():
    inquiry = paper(
        "# Loan\n\nInterest cover shall be at least 4.5 times. It was 3 May 2026 when the bank agreed to that.\n",
        "a.md",
    )
    assert told(inquiry, "What was the interest cover?").text == "4.5 times"


def test_what_it_is_now_is_not_what_it_was(report):
    finding = told(report, "What was headroom the year before?")
    assert finding.state == "not_found"
    assert told(report, "What was headroom?").value.to_dict()["value"] == 4_400_000


def told(inquiry, *questions):
    before = None
    for words in questions:
        before = understand(words, "", before)
    return ask(inquiry, before)[0]


@pytest.mark.parametrize(
    ("questions", "kind", "amount"),
    [
        (("What was revenue the year before?",), "money", 81_900_000),
        (("What was order intake the year before?",), "money", 20_900_000),
        (("What was net debt a year earlier?",), "money", 1_041_500_000),
        (("What was revenue?", "And the year before?"), "money", 81_900_000),
        (("How many stoppages were there?", "And the previous quarter?"), "number", 17),
        (("What was interest cover?",), "number", 8.3),
        (("What is the quarantine?",), "duration", 7),
        (("What are its assets?",), "money", 31_500_000),
        (("What are its assets?", "And liabilities?"), "money", 12_800_000),
        (("How many shifts were lost?",), "number", 44),
    ],
)
def test_values_that_stand_beside_others(report, questions, kind, amount):
    given = told(report, *questions).value.to_dict()
    assert (given["type"], float(given["value"])) == (kind, amount)


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What profit is now expected?", "£6.5 million to £7.5 million"),
        ("How often did the board meet?", "seven times"),
        ("Who audits it?", "Pell Marrow LLP"),
    ],
)
def test_words_of_the_report(report, question, text):
    assert told(report, question).text == text


@pytest.mark.parametrize(
    ("questions", "text"),
    [
        (("What is the commission?",), "7%"),
        (("How much of the deposit is kept?",), "£9,000"),
        (("What does carriage of a loom over 60 miles cost?",), "£125.00"),
        (("What is paid for a late return?",), "£35"),
        (("What is the shortest notice?",), "45"),
        (("How soon are the looms cleaned?",), "12"),
        (("When are returns sent?",), "the fourth day of each month"),
        (("When is waste cleared?",), "the end of each shift"),
        (("How fast must a stoppage be told?",), "the hour"),
        (("How many arbitrators are there?",), "one"),
        (("Who does the counting?",), "Trelleck Metering Services"),
        (("What liability cover is there for each loom?", "And for a mill?"), "£2 million any one mill"),
        (("Who signed for Brackenfold?",), "Rohan Desai"),
    ],
)
def test_answers_of_the_hire(hire, questions, text):
    assert told(hire, *questions).text.startswith(text.split(" any")[0])


@pytest.mark.parametrize(
    ("question", "words"),
    [("Which law applies?", "Welsh"), ("Where are disputes heard?", "Swansea"), ("Where do letters go?", "Neath")],
)
def test_short_sentences_and_places(hire, question, words):
    assert words in told(hire, question).text


@pytest.mark.parametrize(
    "question", ["Does the deposit bear interest?", "Do prices include VAT?", "Was there an earlier loss?"]
)
def test_denied_without_a_not(hire, question):
    assert told(hire, question).value == YesNo(False)


@pytest.mark.parametrize(
    ("words", "rest"),
    [
        ("What were sales the year before?", "What were sales?"),
        ("What was the previous year's margin?", "What was margin?"),
        ("What were sales in 2025, the year before?", ""),
        ("The year before?", ""),
        ("What does it cost a year before tax?", ""),
    ],
)
def test_questions_without_their_time(words, rest):
    assert without_time(words).replace("'s", "") == rest


@pytest.mark.parametrize(
    ("question", "behind", "before", "other"),
    [
        ("How loud is it without the guard?", "", "61 dB; with the optional guard ", True),
        ("How loud is it with the guard?", "", "61 dB; with the optional guard ", False),
        ("How loud is it without the guard?", " with the guard", "", True),
        ("How loud is it?", " with the guard", "", False),
    ],
)
def test_with_and_without(question, behind, before, other):
    assert with_the_other(question, behind, before) is other


@pytest.mark.parametrize(
    ("before", "words", "kinds"),
    [
        ("How soon must damage be told?", "And a claim made?", "duration"),
        ("What is paid on delivery?", "And when it is tested?", "money"),
        ("What share is hedged?", "What was that in March?", "percent"),
    ],
)
def test_follow_ups_ask_for_the_same_kind(before, words, kinds):
    assert understand(words, "", understand(before)).kinds[0] == kinds


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("What is the least number of bales?", "number"),
        ("How much does the boiler burn in a day?", "number"),
        ("What is her job?", "text"),
        ("What are the most hours a guard may work?", "duration"),
        ("From what salary is consent needed?", "money"),
        ("How soon must we say why we object?", "duration"),
        ("What are stocks?", "money"),
        ("What commission is paid?", "percent"),
        ("Which court decides?", "text"),
    ],
)
def test_kinds_of_answer(words, kind):
    assert understand(words).kinds[0] == kind


LEASE = """# Lease of the Dye Shed

Between Pennine Sheds Ltd (the "Landlord") and Brackenfold Mills plc (the "Tenant").

## 1 Rent

The rent is £18,000 a year.

## 2 Deposit

The Tenant has paid a deposit of £4,500. The Landlord shall return the deposit within 21 days after the end of the term.

## 3 Repair of the roof

The Tenant keeps the shed in repair. The directors of the Tenant met on 3 May 2026 and thought of moss.
"""


@pytest.fixture(scope="module")
def lease():
    return paper(LEASE, "lease.md")


def test_a_question_of_two_parts_is_answered_by_its_parts(lease):
    first, second = ask(lease, understand("What is the deposit and when do we get it back?"))
    assert (first.text, second.text) == ("£4,500", "within 21 days after the end of the term")
    assert PART_OF in first.why
    assert PART_OF in second.why


def test_a_part_that_nothing_answers_leaves_the_whole(lease):
    findings = ask(lease, understand("What is the pension and who is the actuary?"))
    assert [f.state for f in findings] == ["not_found"]


@pytest.mark.parametrize(
    ("words", "parts"),
    [
        ("What is the deposit and when is it returned?", ("What is the deposit?", "when is it returned?")),
        ("Is there a deposit, and if so, how much is it?", None),
        ("What is the deposit?", None),
        ("Who and when?", None),
    ],
)
def test_the_parts_of_a_question(words, parts):
    found = understand(words).parts
    assert (tuple(p.text for p in found) if found else None) == parts


@pytest.mark.parametrize(
    ("question", "items"),
    [
        ("Which sections deal with repair?", ("3 Repair of the roof",)),
        ("Which pages discuss the deposit?", ("2 Deposit",)),
        ("Which pages mention moss?", None),
        ("Which parts cover upkeep?", ("3 Repair of the roof",)),
        ("Which pages discuss pensions?", ()),
    ],
)
def test_where_something_is_discussed(lease, question, items):
    finding = told(lease, question)
    if items is None:  # no heading names it, but a sentence does
        assert "moss" in finding.cites[0].quote
    elif items:
        assert finding.value.items == items
    else:
        assert finding.state == "not_found"


def test_who_they_are_is_not_told_by_what_they_do(lease):
    assert told(lease, "Who are the directors?").state == "not_found"


@pytest.mark.parametrize(
    ("question", "words"),
    [
        ("What are the landlord's obligations?", "return the deposit"),
        ("What duties does the Tenant have?", "keep"),
        ("What must the landlord do?", "return the deposit"),
    ],
)
def test_the_duties_of_a_party(lease, question, words):
    finding = told(lease, question)
    assert words in finding.text
    assert finding.value.to_dict()["type"] == "list"


def test_the_dots_of_contents_are_no_blank():
    inquiry = paper(
        "# Lease\n\nContents\n\n7. Landlord's covenants ..........................\n\n## 1 Rent\n\nThe rent is £9,000.\n",
        "a.md",
    )
    assert told(inquiry, "What are the landlord's covenants?").state == "not_found"


POLICY = """# Fire policy

Mill Mutual Ltd (the "Insurer") insures Brackenfold Mills plc (the "Insured").

6. Telling us of a claim. The Insured must tell the Insurer of each loss within 21 days (9 days where rioters did it, whom it must also report to the police within 36 hours).
"""


@pytest.mark.parametrize(
    ("question", "words"),
    [("Within how many days must a loss be told?", "21 days"), ("How soon must a loss by rioters be told?", "9 days")],
)
def test_values_in_brackets_only_where_the_brackets_name_what_is_asked_for(question, words):
    inquiry = Inquiry(read_text(POLICY.encode(), "policy.md", "0" * 64, markdown=True))
    assert ask(inquiry, understand(question))[0].text.endswith(words)
