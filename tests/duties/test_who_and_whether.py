"""Who owes a duty where the sentence does not say it outright, and sentences that look like duties and are none."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.duties import duties_of

HEAD = """AGREEMENT FOR THE SUPPLY OF FLEECE

This Agreement is made on 4 May 2026 between:

(1) Brackenfold Mills Limited (the "Buyer"); and

(2) Highmoor Wool Limited (the "Supplier").

"""


@pytest.fixture
def told(document):
    def make(words: str, head: str = HEAD):
        return [(d.who, d.force, d.what) for d in duties_of(document(head + words + "\n", "agreement.txt"))]

    return make


@pytest.mark.parametrize(
    ("words", "who", "force", "what"),
    [
        ("1. The Supplier shall accept each order and shall use reasonable endeavours to fill it in full.", "Supplier", "must", "use reasonable endeavours"),
        ("1. The Supplier may cancel orders not yet sent, and within thirty days shall buy back unopened bales.", "Supplier", "must", "buy back unopened bales"),
        ("1. The Supplier shall on request of the Buyer, not more than once a year, produce the policy, and shall have the Buyer named on it.", "Supplier", "must", "have the Buyer named"),
        ("1. Neither the Buyer nor any of its agents shall enter the sorting shed.", "Buyer", "must_not", "enter the sorting shed"),
        ("1. Neither party shall publish the price.", "both parties", "must_not", "publish the price"),
        ("1. The Supplier may raise its prices once a year. No price shall change before 1 September 2027.", "Supplier", "must_not", "change before 1 September 2027"),
        ("1. The party that learns of moth in a bale shall inform the other within a day.", "both parties", "must", "inform the other"),
        ("1. The indemnified party shall give prompt notice of a claim.", "both parties", "must", "give prompt notice"),
        ("1. Any dispute shall first be referred to the two managing directors.", "both parties", "must", "referred to the two"),
        ("1. The grades are to be reviewed by the parties every six months.", "both parties", "must", "reviewed by the parties"),
        ("1. On delivery the Goods shall have a moisture of not more than sixteen per cent.", "Supplier", "must", "have a moisture"),
        ("1. Any shortfall shall be paid within 28 days.", "Buyer", "must", "shortfall"),
        ("1. The Supplier may require the Buyer to return the wool sheets.", "Buyer", "must", "return the wool sheets"),
        ("1. The Buyer shall have access to the sorting shed at all times.", "Buyer", "may", "have access"),
        ("1. Where tax is required to be withheld, the Buyer shall pay such further sum as makes it good.", "Buyer", "must", "pay such further sum"),
    ],
)  # fmt: skip
def test_who_owes_it(told, words, who, force, what):
    found = [(w, f) for w, f, said in told(words) if what in said]
    assert len(found) == 1
    assert found[0][1] == force
    assert not who or found[0][0] == who


@pytest.mark.parametrize(
    "words",
    [
        "1. The Supplier's liability shall not exceed the greater of £500,000 and the price of the year.",
        "1. This clause does not apply to what is public or must be disclosed by law.",
        "1. Time shall not be of the essence in this Schedule.",
        "1. If the bales are lost, the Term shall absolutely cease.",
        "1. The price for the year shall then be reduced in proportion.",
        "1. A bleat heard in the yard shall not of itself breach this clause.",
        "1. No interest shall be payable for the first month.",
        "1. This Agreement is the whole agreement between the parties and replaces their letter of 3 May 2019.",
        "1. The Buyer shall first have offered the bales to its own mills.",
        "1. The amount shall be £4,000.",
        "1. Until the date by which samples must be received, grades are open.",
        "1. The Supplier shall not be released by any time given to the Buyer.",
    ],
)
def test_what_states_and_does_not_bind(told, words):
    assert told(words) == []


def test_a_month_is_no_permission(told):
    assert told("1. The Supplier delivered the first clip on 17 May 2026 and the second on 3 May 2027.") == []


def test_only_half_of_a_condition_is_a_duty(told):
    found = told("1. If the Supplier agrees to a request for a change, it may charge the fee in Schedule 2.")
    assert [f for _, f, _ in found] == ["may"]


EMPLOYMENT = """CONTRACT OF EMPLOYMENT

This contract is made between Brackenfold Mills Limited (the "Company") and Ada Thorne (the "Employee").

"""


@pytest.mark.parametrize(
    ("words", "who", "force"),
    [
        ("A rest of eleven hours shall be given after a night on call.", "Company", "must"),
        ("The salary shall be reviewed each year.", "Company", "must"),
        ("A bonus is payable with the April salary.", "Company", "must"),
        ("With the consent of the Company she may teach for up to ten days a year.", "Employee", "may"),
        ("She shall keep the recipes of the dye house secret.", "Employee", "must"),
    ],
)
def test_what_an_employer_gives_and_what_she_does(told, words, who, force):
    assert (who, force) in [(w, f) for w, f, _ in told(words, EMPLOYMENT)]


def test_items_under_she_shall_not_are_hers(document):
    paper = document(
        EMPLOYMENT
        + "She shall not for a year after the employment ends:\n\n(a) work for a spinner in Hebblethorpe; or\n\n(b) entice away any dyer.\n",
        "contract.txt",
    )
    found = [(d.who, d.force) for d in duties_of(paper) if "spinner" in d.what or "dyer" in d.what]
    assert found == [("Employee", "must_not"), ("Employee", "must_not")]


CALL = """CALL FOR TENDERS

Brackenfold Mills Limited (the "Mill") invites tenders for two looms. Tenders must be received by 3 October 2026.

"""


@pytest.mark.parametrize(
    ("words", "who"),
    [
        ("A1.1 Two references for looms of this width.", "supplier"),
        ("A1.2 Training: one day for four weavers, before the second loom is accepted.", "supplier"),
        ("A1.3 Spare parts are kept available for fifteen years after delivery.", "supplier"),
        ("A1.4 Each loom is painted green.", "supplier"),
        ("A1.5 A tender must remain open for 60 days.", "supplier"),
        ("A1.6 Late tenders will not be opened.", "Mill"),
    ],
)
def test_what_a_call_asks_of_whom(told, words, who):
    assert [w for w, _, what in told(words, CALL) if "received by" not in what] == [who]


@pytest.mark.parametrize(
    "words",
    [
        "A1.1 It wishes to buy two looms, with an option for 2 more.",
        "A1.2 The estimated value of the order is £120,000.",
        "A1.3 Weights are without oil, 20 kg of tools or spares.",
        "A1.4 In this call ‘order’ means the order of 1 November.",
        "The key to the marks\n\nM: must be met.",
    ],
)
def test_what_a_call_only_tells(told, words):
    assert [d for d in told(words, CALL) if "received by" not in d[2]] == []


REPORT = """ANNUAL REPORT AND ACCOUNTS

for the year ended 31 March 2026

Brackenfold Holdings plc and its subsidiaries (the Group)

"""


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("We will keep growing and must borrow to invest.", False),
        ("We cannot say whether any loss will arise.", False),
        ("Net debt may not be more than 75 per cent of the value of the mills.", True),
        ("Penmarrow Trust has agreed not to raise its holding above 20 per cent.", True),
        ("The holder of the other shares may require us to buy its 25 per cent in 2028.", True),
    ],
)
def test_a_report_foresees_much_and_promises_little(told, words, found):
    assert bool([f for _, f, _ in told(words, REPORT) if f != "may"]) is found


def test_the_paper_of_a_firm_binds_that_firm(document):
    paper = document(
        "Brackenfold Mills\n\nIncident report\n\nReport number: 7\n\nPrevention\n\nFit a float switch beneath the dye sink.\n",
        "incident-report.txt",
    )
    assert {d.who for d in duties_of(paper)} <= {"Brackenfold Mills"}


@given(
    st.text("The Supplier Buyer neither nor shall must not may require have access if where no, and: 1. ", max_size=140)
)
def test_any_mixture_gives_whole_duties(words):
    from yarnex.core.reading.text import read_text

    paper = read_text((HEAD + f"1. {words}\n").encode(), "a.txt", "0" * 64, markdown=False)
    for duty in duties_of(paper):
        assert duty.who
        assert duty.force in ("must", "must_not", "may")
        assert duty.what.strip()
