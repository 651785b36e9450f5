"""Values that stand beside others: in columns, in ranges, as part of a whole, before and after, in an exception."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.values import YesNo

PAPER = """# Papers of the Combing Hall

## Loan

| No. | Due | Opening balance | Instalment | Closing balance |
| --- | --- | --- | --- | --- |
| 7 | 3 May 2027 | £70,000.00 | £5,000.00 | £65,400.00 |
| 8 | 3 June 2027 | £65,400.00 | £5,000.00 | £60,750.00 |

## Rates

| For €1 | |
| --- | --- |
| US dollar | 1.09 |
| Danish krone | 7.46 |

## Report

Turnover up 6.3% on the year before. The first dividend is 4.2p a share, the tax charge 24.5 per cent.

Dame Isobel Tarn will retire as Chair on 3 July 2027 and be succeeded by Marcus Lindholm.

On 8 July 2026 the mill signed a credit line with three banks, maturing in July 2030.

The burner gives off 64 mg/kWh of nitrogen oxides.

## Sale

The Buyer shall offer work to at least 37 of the Seller's 41 spinners.

Neither party may assign this agreement without consent, except that the Buyer may assign it to its lenders.

The inside is painted in the last three months of the Term.

Gearing may not exceed 3.4 times until 31 December 2027 and 2.6 times thereafter. Cover must be four times (actual: 9.2 times).

Audited accounts are to be sent within 121 days of the year end and management accounts within 31 days of the month end.

A breach may be cured within 21 days, not more than three times in all.

Please answer by Wednesday 19 August 2026, as the board meets on the 20th.

Signed for and on behalf of Fellgate Bank plc by: Idris Pell, Director
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "hall.md", "0" * 64, markdown=True))


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What is the balance after the seventh instalment?", "£65,400.00"),
        ("What is the balance before the seventh instalment?", "£70,000.00"),
        ("At what rate are dollars converted?", "1.09"),
        ("How fast did turnover grow?", "6.3%"),
        ("How much is the first dividend a share?", "4.2p"),
        ("Who will be the next chair?", "Marcus Lindholm"),
        ("When does the credit line mature?", "July 2030"),
        ("How many spinners must be offered work?", "37"),
        ("How high may gearing be after 2027?", "2.6 times"),
        ("What is the actual cover?", "9.2 times"),
        ("Within how many days of the year end are audited accounts to be sent?", "121 days"),
        ("How often may a breach be cured?", "three times"),
        ("When does the board meet?", "the 20th"),
        ("Who signed for the bank?", "Idris Pell"),
        ("When is the inside painted?", "the last three months of the Term"),
    ],
)
def test_the_one_that_is_asked_for(paper, question, text):
    assert text in ask(paper, understand(question))[0].text


@pytest.mark.parametrize(
    ("question", "answer"),
    [("May the Buyer assign it to its lenders?", True), ("May the Seller assign the agreement?", False)],
)
def test_an_exception_answers_for_what_it_names(paper, question, answer):
    assert ask(paper, understand(question))[0].value == YesNo(answer)
