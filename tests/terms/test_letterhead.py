"""Who sends a paper, who signs it and what it is about; prices that follow from each other."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, load_sheet
from yarnex.core.terms.identity import identify
from yarnex.core.terms.letterhead import issuer_of, signature_of, subject_of


@pytest.mark.parametrize(
    ("paragraphs", "name"),
    [
        (["Loom & Heddle AB, Norra Kajen 4, Sundvik. 3 May 2026"], "Loom & Heddle AB"),
        (["WEIR & SONS", "Mill Lane 7, Thrapsley 3 April 2026"], "WEIR & SONS"),
        (["Offer for six looms", "Tarn Spindler & Zoon, Havenweg 12, Oudeveer 2 May 2026"], "Tarn Spindler & Zoon"),
        (["To: Brackenfold Mills Limited", "Heddle Tools Ltd, Weir Lane 4"], "Heddle Tools Ltd"),
        (["For the mill, call BM/2026/7. Heddle Werke GmbH, Ring 2"], "Heddle Werke GmbH"),
        (["Notes of a walk round the mill"], None),
    ],
)  # fmt: skip
def test_the_sender_is_named_at_the_head(document, paragraphs, name):
    found = issuer_of(document("\n\n".join([*paragraphs, "We thank you for your call and offer the looms below."])))
    assert (found.quote if found else None) == name


LETTER = [
    "Weir Bank plc, 2 Cloth Hall Street, Kirkholm",
    "Dear Ms Ackroyd",
    "Overdraft facility",
    "We are glad to offer an overdraft of up to £350,000 until 30 September 2027.",
    "Yours sincerely",
    "Ruth Garsdale",
    "Relationship manager",
]


def test_a_letter_is_signed_below_its_close_and_names_its_subject(document):
    paper = document("\n\n".join(LETTER))
    assert " ".join(signature_of(paper).quote.split()) == "Ruth Garsdale Relationship manager"
    assert subject_of(paper).quote == "Overdraft facility"
    filled = {f.term.id: f.text for f in abstract(paper, load_sheet("correspondence")).findings}
    assert filled["sender"] == "Weir Bank plc"
    assert filled["subject"] == "Overdraft facility"
    assert filled["signed_by"] == "Ruth Garsdale Relationship manager"


@pytest.mark.parametrize(
    "paragraphs",
    [
        ["Dear Sirs", "We write about the roof of the shed, which leaks."],
        ["Give my regards to the foreman when he is back at the mill."],
    ],
)
def test_no_subject_and_no_close(document, paragraphs):
    paper = document("\n\n".join(paragraphs))
    assert subject_of(paper) is None
    assert signature_of(paper) is None


def bid(document, *paragraphs: str):
    paper = document("\n\n".join(["Heddle Tools Ltd, Weir Lane 4, Kirkholm 2 May 2026", *paragraphs]))
    return paper, {f.term.id: f for f in abstract(paper, load_sheet("proposal")).findings}


@pytest.mark.parametrize(
    ("said", "term", "amount", "working"),
    [
        ("We have pleasure in offering six of our looms for a total of £417,000, delivered.", "unit_price", 69_500, "417,000 / 6 = 69,500.00"),
        ("We offer four of our looms at £20,000 each.", "total_price", 80_000, "4 x 20,000 = 80,000"),
    ],
)  # fmt: skip
def test_prices_of_one_and_of_all_follow_from_each_other(document, said, term, amount, working):
    _, filled = bid(document, said)
    assert (filled[term].state, filled[term].value.amount) == ("computed", amount)
    assert filled[term].working == (working,)


def test_the_price_of_an_extra_is_not_that_of_one(document):
    _, filled = bid(
        document,
        "We have pleasure in offering six of our looms for a total of £417,000, delivered.",
        "A dust hood, at £640 a set, keeps the hall clean.",
    )
    assert filled["unit_price"].value.amount == 69_500


def test_a_letter_that_makes_an_offer_is_a_proposal_with_its_date(document):
    paper, _ = bid(document, "Dear members of the Board", "We have pleasure in offering six of our looms for £417,000.")
    found = identify(paper)
    assert found.kind == "proposal"
    assert found.dated.quote == "2 May 2026"
