"""Rows of a table that hold for what a question names, and other things that tell one value from its neighbours."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.values import Money, YesNo

PAPER = """# Licence of the drying loft

between Tarn Estates Limited (the "Licensor") and Brackenfold Mills Limited (the "Licensee"), 4 May 2026.

## 1. Fee

| From | To | Monthly | Yearly |
| --- | --- | --- | --- |
| 1 June 2026 | 31 May 2027 | £310 | £3,720 |
| 1 June 2027 | 31 May 2028 | £325 | £3,900 |
| 1 June 2028 | 31 May 2029 | £342 | £4,104 |

## 2. Leaving

2.1 If the Licensor sells the loft the Licensee is paid five months' fee within eight weeks after the sale.

2.2 Only the points on costs and secrecy are binding before the keys are handed over.

2.4 The Licensor pays for the boiler for six weeks in any ten months.

2.3 On signing the Licensee shall pay a deposit of £900, and shall deposit an additional £150 in June 2027.

## 3. Outlook

3.1 The fee paid for the old loft came to £2,950 last year.
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "loft.md", "0" * 64, markdown=True))


def told(paper, question):
    return ask(paper, understand(question))[0]


@pytest.mark.parametrize(
    ("question", "amount", "per"),
    [
        ("What is the monthly fee from June 2027?", 325, "month"),
        ("What is the yearly fee from June 2028?", 4104, "year"),
        ("What is the monthly fee in the first year?", 310, "month"),
        ("What is the monthly fee in the third year?", 342, "month"),
        ("What is the yearly fee in the second year?", 3900, "year"),
    ],
)
def test_the_row_of_a_month_or_a_counted_year(paper, question, amount, per):
    assert told(paper, question).value == Money(amount, "GBP", per)


def test_months_of_a_fee_are_no_time_after_it(paper):
    assert told(paper, "How many months' fee is the Licensee paid if the loft is sold?").text.startswith("five months")


def test_the_months_that_only_frame_a_time(paper):
    assert told(paper, "For how long does the Licensor pay for the boiler?").text == "six weeks"


def test_what_only_other_things_are(paper):
    assert told(paper, "Is the deposit binding before the keys are handed over?").value == YesNo(False)


def test_what_was_added(paper):
    assert told(paper, "How much more was deposited?").value == Money(150, "GBP")


ORDER = """# Order

| Item | Qty | Price | Amount |
| --- | --- | --- | --- |
| Combing leathers | 4 | £12.50 | £50.00 |
| Drive belts | 2 | £31.00 | £62.00 |
| Total | | | £112.00 |

Signed: Ella Venn for Brackenfold Mills Limited Countersigned: ____________ for Tarn Estates Limited
"""


def test_the_price_of_one_and_who_has_signed():
    order = Inquiry(read_text(ORDER.encode(), "order.md", "0" * 64, markdown=True))
    assert told(order, "What does a drive belt cost?").value == Money(31, "GBP")
    assert told(order, "Has Brackenfold Mills signed?").value == YesNo(True)
    assert told(order, "Has Tarn Estates signed?").state == "blank"


def test_guidance_looks_ahead(paper):
    assert told(paper, "What fee for the old loft do they guide to?").state == "not_found"


@pytest.mark.parametrize(
    ("question", "first"),
    [
        ("What is the number of the loss report?", "code"),
        ("What is the number of the policy?", "code"),
        ("What is the number of looms?", "number"),
        ("What happens to the cover on a takeover?", "text"),
        ("How old is the boiler?", "duration"),
        ("How high is net debt?", "money"),
        ("How high is the loft?", "number"),
        ("To which reference rate is the interest linked?", "text"),
        ("At which times may the loft be entered?", "time"),
        ("What does the Licensee get for leaving?", "money"),
        ("What does the Licensor give towards the roof?", "money"),
    ],
)
def test_the_kind_that_is_asked_for(question, first):
    assert understand(question).kinds[0] == first


@pytest.mark.parametrize(
    ("question", "name"),
    [("Who provides the yarn?", ("provid",)), ("How much more was paid?", ("addit",))],
)
def test_words_that_say_more_than_they_seem(question, name):
    assert name in {i.name for i in understand(question).ideas}
