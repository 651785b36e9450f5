"""What is counted, measured or coded: which number, sum or code answers, and what a yes, a party or a period tells."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.patterns import OFTEN
from yarnex.core.search.question import kinds_of
from yarnex.core.values import YesNo

PAPER = """# Report on the spinning line

We built the line in 1998; 43 spinning frames in 12 halls have followed it.

There are 31 cones: 19 of lambswool and twelve of mohair.

GBP 41 million of the GBP 60 million have been spent on the dyehouse.

The rent of the hall includes steam but not gas or water.

The stock records may be seen not more than three (3) times a year.

Subject: the wool store - policy KL-20931 - our ref 26/FQ/0417

The connected load is 38 kW. The scar on the drum is 9 cm long. There is a chance of about 12 per cent that it cracks.

The carding machine draws wool of 19.5 micron.

The burning of the shed was put down to a heater. The cause of the fire was a lamp.
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "line.md", "0" * 64, markdown=True))


@pytest.mark.parametrize(
    ("question", "answer"),
    [
        ("How many frames have they built?", "43 spinning frames"),
        ("How many cones are there?", "31 cones"),
        ("How much has been spent on the dyehouse?", "GBP 41 million"),
        ("What is the policy number?", "KL-20931"),
        ("How much power does it draw?", "38 kW"),
        ("How long is the scar?", "9 cm"),
        ("What is the chance of a crack?", "12 per cent"),
        ("How fine is the wool?", "19.5 micron"),
    ],
)
def test_the_value_that_is_asked(paper, question, answer):
    assert ask(paper, understand(question))[0].text == answer


@pytest.mark.parametrize(
    ("question", "yes"), [("Does the rent include steam?", True), ("Does the rent include gas?", False)]
)
def test_what_is_included_but_not_the_rest(paper, question, yes):
    assert ask(paper, understand(question))[0].value == YesNo(yes)


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("What is the likelihood of rain?", "percent"),
        ("How likely is it to fail?", "percent"),
        ("How damp was the air?", "percent"),
        ("By how much can the term be extended?", "duration"),
        ("What can the beam carry?", "number"),
        ("How much may she lift?", "number"),
        ("How long is the corridor?", "duration"),
        ("What warning must be given?", "duration"),
        ("Which engineers were called?", "party"),
        ("Against whom is the claim made?", "party"),
        ("What was set aside for the repair?", "money"),
        ("What do the trustees want a year?", "money"),
        ("How big is the loan?", "money"),
        ("How did sales change?", "percent"),
        ("What started the fire?", "text"),
        ("For which claim are rights reserved?", "text"),
        ("How much water escaped?", "number"),
    ],
)
def test_the_kind_that_a_question_wants(question, kind):
    assert kinds_of(question)[0][0] == kind


@pytest.mark.parametrize(
    "words",
    ["not more than three (3) times a year", "twice in each calendar year", "at least four times per quarter", "once a month"],
)  # fmt: skip
def test_how_often(words):
    assert OFTEN.search(f"It is looked at {words}, as a rule.").group() == words


AGREEMENT = """# Warehousing Agreement

This Agreement is made between Tarn Stores Limited (the "Keeper") and Brackenfold Mills Limited (the "Depositor").

Notices to the Depositor go to 4 Weir Lane, Thrapsley.
"""


def test_a_party_is_no_deposit():
    inquiry = Inquiry(read_text(AGREEMENT.encode(), "store.md", "0" * 64, markdown=True))
    assert ask(inquiry, understand("Is there a deposit?"))[0].state == "not_found"


POLICY = """# Commercial insurance policy

| Item | Detail |
| --- | --- |
| Insurer | Tarn Mutual Limited |
| Insured | Brackenfold Mills plc |
| Premium | £3,300.00 |

We may end this policy on 45 days' notice. You may end this policy on 17 days' notice.
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [("How much notice may the insured give?", "17 days"), ("How much notice may the insurer give?", "45 days")],
)  # fmt: skip
def test_who_we_and_you_are_in_a_policy(question, text):
    inquiry = Inquiry(read_text(POLICY.encode(), "cover.md", "0" * 64, markdown=True))
    assert text in {f.text for f in ask(inquiry, understand(question))[:1]}
