"""Agreements, letters and notes in everyday words, and what special terms take out of them."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms.abstract import abstract, sheet_for
from yarnex.core.terms.letterhead import addressee_of
from yarnex.core.terms.sheets import load_sheet
from yarnex.core.terms.signatures import signatories_of
from yarnex.core.values import Duration, Money, Party, Percent, YesNo


def filled(sheet: str, text: str):
    document = read_text(text.encode(), "paper.md", "0" * 64, markdown=True)
    found = abstract(document, load_sheet(sheet) if sheet else sheet_for(document))
    return {f.term.id: f for f in found.findings}


SUPPLY = """# Tops supply agreement

Made on 4 May 2026 between **Hagg Fold Combing Limited** (the "Seller") and **Brackenfold Mills plc** (the "Buyer").

**1. Price.** The price follows the wool index each quarter, but never by more than 7% in a year.

**2. Payment.** 35 days after the date of the invoice. A discount of 2% is allowed for payment within eight days.

**3. Term.** Two years. It goes on from year to year after that unless either gives five months' notice.

**4. Ending.** Either may end it at once if the other breaks it and does not put matters right within 19 days of being told. The Buyer may end it on 80 days' notice if the Seller's mill changes hands.

**5. General.** Assignment needs the other's written leave. A quarrel goes to one arbitrator.
"""


@pytest.mark.parametrize(
    ("term", "value"),
    [
        ("payment_terms", Duration(35, "days")),
        ("price_increase_cap", Percent(7)),
        ("non_renewal_notice", Duration(5, "months")),
        ("renews_by_itself", YesNo(True)),
        ("cure_period", Duration(19, "days")),
        ("assignment_allowed", YesNo(False)),
    ],
)
def test_supply_in_plain_words(term, value):
    assert filled("distribution", SUPPLY)[term].value == value


@pytest.mark.parametrize("term", ["termination_for_convenience"])
def test_what_holds_in_one_case_only_is_no_general_right(term):
    assert not filled("distribution", SUPPLY)[term].found


def test_the_other_of_two_parties():
    found = filled(
        "loan",
        '# Facility letter\n\n**Fellgate Bank plc** to **Brackenfold Mills plc** (the "Company"), 4 May 2026\n\nWe offer a loan of £90,000.\n',
    )
    assert (found["borrower"].text, found["lender"].text, found["lender"].state) == (
        "Brackenfold Mills plc",
        "Fellgate Bank plc",
        "computed",
    )


LETTER = """BRACKENFOLD MILLS PLC

22 September 2026

Ms Noor Haddad
14 Linden Terrace
Port Lannet

Dear Noor

Your post as Technical Buyer

We are glad to offer you the post.
"""


def test_to_whom_a_letter_goes():
    person = read_text(LETTER.encode(), "offer.txt", "0" * 64)
    firm = read_text(
        b"Harker Quill LLP\n\n19 October 2026\n\nCalder Estates Limited\nBy post\n\nDear Sirs\n\nWe act for the mill.\n",
        "a.txt",
        "0" * 64,
    )
    none = read_text(b"Notes of a meeting\n\nThe mill is dry.\n", "b.txt", "0" * 64)
    assert [c and c.quote for c in map(addressee_of, (person, firm, none))] == [
        "Ms Noor Haddad",
        "Calder Estates Limited",
        None,
    ]


def test_who_asks_and_who_is_asked():
    notes = "# Interview with Jonah Pike, carder\n\nRecorded on 11 August 2026 at 10.20 a.m. in the works office by Cleo Marsden.\n\n**CM:** Where were you when the fire broke out?\n\n**JP:** By the card, some six metres from it.\n\n**CM:** Were you alone there?\n\n**JP:** Yes, until the shift changed.\n\n**CM:** Who came next?\n\n**JP:** Marek came.\n"
    found = filled("minutes", notes)
    told = {name: found[name].text for name in ("interviewee", "chair", "time", "place", "present")}
    assert told == {
        "interviewee": "Jonah Pike",
        "chair": "Cleo Marsden",
        "time": "10.20 a.m.",
        "place": "works office",
        "present": "Cleo Marsden; Jonah Pike",
    }


@pytest.mark.parametrize(
    ("text", "signed"),
    [
        (
            "Signed for the Seller: Teresa Okafor, Director          Signed for the Buyer: Ada Thorne, Chair",
            [("Teresa Okafor", "the Seller"), ("Ada Thorne", "the Buyer")],
        ),
        (
            "FELLSIDE FELTS, INC.\nBy: ____________\nName: Otto Pryce\nTitle: President",
            [("Otto Pryce", "FELLSIDE FELTS, INC")],
        ),
    ],
)
def test_for_whom_they_sign(text, signed):
    document = read_text(f"Agreement\n\nThe parties agree.\n\n{text}\n".encode(), "a.txt", "0" * 64)
    assert [(s.name, s.party) for s in signatories_of(document)] == signed


ORDER = """# Order form and terms

## 1. Special terms

1.1 Clause 3.2 (publicity) does not apply.

## 3. Terms

3.1 A change of control of the Customer does not require consent.

3.2 The Supplier may use the Customer's name and logo in its publicity.
"""


@pytest.mark.parametrize(
    ("term", "state", "answer"), [("name_may_be_used", "amended", False), ("control_needs_consent", "stated", False)]
)
def test_clauses_taken_out_and_denials(term, state, answer):
    found = filled("software", ORDER)[term]
    assert (found.state, found.value) == (state, YesNo(answer))


def test_a_clause_that_does_not_apply_in_one_case_stands():
    text = ORDER.replace("does not apply.", "does not apply where the Customer is a charity.")
    assert filled("software", text)["name_may_be_used"].value == YesNo(True)


YEARS = """# Investor presentation

## Five years

| £m | 2022 | 2023 | 2024 | 2025E |
| --- | --- | --- | --- | --- |
| Revenue | 81.3 | 84.9 | 88.2 | 98.5 |

We now expect full-year revenue of between £97 million and £100 million.
"""


def test_the_latest_year_that_is_past():
    assert filled("report", YEARS)["revenue"].value == Money(88_200_000, "GBP")


def test_what_is_expected_is_no_result():
    text = "# Results call\n\nOn outlook: we now expect full-year revenue of between 97 and 100 million pounds.\n"
    assert not filled("report", text)["revenue"].found


def test_what_stands_behind_the_word_guidance_is_no_result():
    text = "# Results call\n\nGuidance for the year to June. Capital investment of three to four million pounds.\n"
    assert not filled("report", text)["capital_expenditure"].found
    text = "# Results call\n\nGuidance was met. Capital investment was three million pounds.\n"
    assert filled("report", text)["capital_expenditure"].value == Money(3_000_000, "GBP")


ORDER_TABLE = """# Subscription agreement

This Agreement is between **Loomwise Software GmbH** and the customer named in the Order Form.

| Order Form | |
| --- | --- |
| Customer | Brackenfold Mills plc |
| Special terms | Clause 4.2 does not apply. The cap in clause 10.2 is 180% instead of 100%. |

4. **Charges.** 4.1 Fees are due yearly. 4.2 The Supplier may use the Customer's name in its publicity.

10. **Liability.** 10.1 Neither party is liable for lost profit. 10.2 Otherwise liability in a year is limited to 100% of the fees of that year.

Signed: Dr. Hedwig Brandt, Managing Director, Loomwise Software GmbH
Signed: Joss Fenn, Operations Director, Brackenfold Mills plc
"""


@pytest.mark.parametrize(
    ("term", "value"),
    [
        ("name_may_be_used", YesNo(False)),
        ("liability_cap_percent", Percent(180)),
        ("supplier", Party("Loomwise Software GmbH")),
    ],
)
def test_special_terms_in_the_table_of_an_order(term, value):
    assert filled("software", ORDER_TABLE)[term].value == value


def test_each_who_signs_with_post_and_firm():
    document = read_text(ORDER_TABLE.encode(), "a.md", "0" * 64, markdown=True)
    told = [(s.name, s.post, s.party) for s in signatories_of(document)]
    assert told == [
        ("Dr. Hedwig Brandt", "Managing Director", "Loomwise Software GmbH"),
        ("Joss Fenn", "Operations Director", "Brackenfold Mills plc"),
    ]


@pytest.mark.parametrize(
    ("words", "amount"),
    [("Net debt fell by £5.3 million to £38.8 million.", 38_800_000), ("Net debt was £38.8 million.", 38_800_000)],
)
def test_what_a_figure_came_to_and_not_by_how_much(words, amount):
    text = f"# Annual report\n\n## Review\n\n{words}\n\n## Outlook\n\nWe look ahead.\n"
    assert filled("report", text)["net_debt"].value == Money(amount, "GBP")


def test_the_sum_lent_is_no_part_repaid():
    text = "# Term loan\n\n2.1 The Lender makes available a loan facility in an aggregate amount equal to £6,400,000.\n\n5.2 A Loan may be repaid in part (but by a minimum of £250,000).\n"
    assert filled("loan", text)["facility_amount"].value == Money(6_400_000, "GBP")
