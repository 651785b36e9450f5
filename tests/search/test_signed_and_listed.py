"""Has it been signed, and what are the risks: the places for signatures, and lists by their own heading."""

from __future__ import annotations

import pytest

from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.signed import ACCEPTS, SIGNS

AGREEMENT = """CARRIAGE AGREEMENT

This agreement is made on 4 May 2026 between Tarn Haulage Limited (the "Carrier") and Brackenfold Mills plc (the "Customer").

1. The Carrier carries yarn for the Customer.

"""
BOTH = "Signed for Tarn Haulage Limited: /s/ Ada Thorne\n\nSigned for Brackenfold Mills plc: ____________________\n"
COLUMNS = (
    "TARN HAULAGE LIMITED              BRACKENFOLD MILLS PLC\n"
    "By: /s/ Ada Thorne                By: ____________________\n"
    "Name: Ada Thorne                  Name: Bram Holroyd\n"
    "Title: Director                   Title: Secretary\n"
)


def asked(document, words, question, name="a.txt"):
    return ask(Inquiry(document(words, name)), understand(question))[0]


@pytest.mark.parametrize("signatures", [BOTH, COLUMNS])
@pytest.mark.parametrize(
    ("question", "state"),
    [
        ("Has the Carrier signed?", "stated"),
        ("Has Tarn Haulage signed it?", "stated"),
        ("Has Brackenfold signed?", "blank"),
        ("Did the Customer sign?", "blank"),
        ("Has it been signed?", "blank"),
    ],
)
def test_whose_place_is_empty(document, signatures, question, state):
    found = asked(document, AGREEMENT + signatures, question)
    assert found.state == state
    assert found.cites


@pytest.mark.parametrize(
    ("question", "asks"),
    [
        ("Has the Carrier signed?", True), ("Did the Customer sign it?", True), ("Was it countersigned?", True),
        ("Is there any sign of damp?", False), ("Was there a sign at the gate?", False), ("Who signed?", False),
    ],
)  # fmt: skip
def test_what_asks_for_a_signature(question, asks):
    assert bool(SIGNS.search(question)) is asks


@pytest.mark.parametrize(
    ("question", "asks"),
    [("Has the offer been accepted?", True), ("Has the company accepted?", True), ("Has the insurer accepted liability?", False), ("Was the claim accepted?", False)],
)  # fmt: skip
def test_what_asks_for_an_acceptance(question, asks):
    assert bool(ACCEPTS.search(question)) is asks


def test_a_companys_number_is_no_telephone(document):
    words = (
        "Tarn Haulage Limited, company number 04417730, of 3 Ford Street, carries yarn for the mill and its yards.\n"
    )
    assert asked(document, words, "What is the phone number of Tarn Haulage?").state == "not_found"


def test_a_row_of_several_things_is_not_denied_as_a_whole(document):
    words = "# House rules\n\n| Thing | Allowed | Thing | Allowed |\n|---|---|---|---|\n| Dogs | No | Smoking in the yard | Yes |\n"
    found = asked(document, words, "Is smoking in the yard allowed?", "rules.md")
    assert found.value is None or found.value.yes


def test_without_a_place_for_signatures_nothing_is_said_of_them(document):
    assert asked(document, AGREEMENT, "Has the Carrier signed?").state != "blank"


@pytest.mark.parametrize(
    ("question", "items"),
    [
        ("What are the main risks?", ["Price of fleece", "Flood of the yard", "One buyer for tops"]),
        ("Which are the next steps?", ["Ask for two quotes", "Visit the dye house"]),
    ],
)
def test_a_list_answers_by_its_heading(document, question, items):
    words = (
        "# Note on premises\n\n## Risks\n\n1. Price of fleece\n2. Flood of the yard\n3. One buyer for tops\n\n"
        "## Next steps\n\n1. Ask for two quotes\n2. Visit the dye house\n\n## End\n\nThat is all.\n"
    )
    found = asked(document, words, question, "note.md")
    assert found.state == "stated"
    assert [part.strip() for part in found.text.split(";")] == items


POLICY = """# Mill policy

Underwritten by Tarn Mutual Limited for Brackenfold Mills plc.

| Section | Cover | Sum insured | Excess |
|---|---|---|---|
| A | Buildings | £900,000 | £1,000 |
| B | Terrorism | Not insured | — |
| C | Liability to staff | £5,000,000 | Nil |

## What we do not pay for

- moth and rust;
- cyber loss of any kind;

## State of the plant

The hoist is out of use since 2 May 2026. The boiler was mended and runs.
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("Is terrorism covered?", False),
        ("Is cyber loss covered?", False),
        ("Is the hoist working?", False),
        ("What is the excess for liability to staff?", "Nil"),
        ("What is the sum insured of liability to staff?", "£5,000,000"),
    ],
)
def test_rows_lists_and_states_that_say_no(document, question, text):
    found = asked(document, POLICY, question, "policy.md")
    assert found.state == "stated"
    assert (found.value.yes if isinstance(text, bool) else found.text) == text
