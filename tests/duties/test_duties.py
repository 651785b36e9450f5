"""Who must do what: subjects, lists, passives, "you", exceptions; and what binds nobody."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.duties import duties_of, requirements_of

HEAD = """AGREEMENT FOR THE SUPPLY OF FLEECE

This Agreement is made on 4 May 2026 between:

(1) Brackenfold Mills Limited (the "Buyer"); and

(2) Highmoor Wool Limited (the "Supplier").

"""


@pytest.fixture
def found(document):
    def make(words: str, head: str = HEAD):
        return [(d.who, d.force, d.kind) for d in duties_of(document(head + words + "\n", "agreement.txt"))]

    return make


@pytest.mark.parametrize(
    ("words", "who", "force", "kind"),
    [
        ("1. The Supplier shall deliver the bales within ten days of each order.", "Supplier", "must", "delivery"),
        ("1. The Buyer must pay each invoice within 30 days.", "Buyer", "must", "payment"),
        (
            "1. The Supplier shall not sell the Fleece to any spinner in Hebblethorpe.",
            "Supplier",
            "must_not",
            "restriction",
        ),
        ("1. The Buyer, at its own cost, shall insure the bales in its store.", "Buyer", "must", "insurance"),
        ("1. The Supplier undertakes to keep records of each clip for six years.", "Supplier", "must", "reporting"),
        ("1. The bales shall be weighed by the Supplier before they leave.", "Supplier", "must", "other"),
        (
            "1. Each party shall keep the terms of this Agreement confidential.",
            "both parties",
            "must",
            "confidentiality",
        ),
        ("1. The Supplier insures the bales until they are unloaded.", "Supplier", "must", "insurance"),
        ("1. The Buyer may reject a bale within five days of its delivery.", "Buyer", "may", "delivery"),
        ("1. Neither party may assign this Agreement.", "both parties", "may", "other"),
        ("1. The Supplier is responsible for the cleaning of the lorries.", "Supplier", "must", "upkeep"),
        ("1. The Buyer agrees to permit the Supplier to inspect the store.", "Buyer", "must", "access"),
        ("1. The Buyer shall, if the Supplier so asks, return the wool sheets.", "Buyer", "must", "delivery"),
    ],
)
def test_finds_the_party_and_the_force(found, words, who, force, kind):
    assert (who, force, kind) in found(words)


@pytest.mark.parametrize(
    "words",
    [
        "1. “Fleece” shall mean the wool of one shearing.",
        "1. This Agreement shall be governed by the law of England.",
        "1. This Agreement shall continue in force until it is ended.",
        "1. The Supplier shall be entitled to interest on late payments.",
        "1. Notices shall be deemed received on the next working day.",
        "1. The price was agreed in March after long talks.",
        "1. Wool will vary from clip to clip.",
    ],
)
def test_what_binds_nobody_is_left_out(found, words):
    assert [d for d in found(words) if d[1] != "may"] == []


def test_items_of_a_list_take_the_party_of_its_lead_in(document):
    paper = document(
        HEAD
        + "1. The Supplier shall:\n\n(a) grade every bale;\n\n(b) mark it with the farm's number; and\n\n(c) not mix clips.\n\n2. The Buyer shall pay.\n",
        "agreement.txt",
    )
    duties = duties_of(paper)
    listed = [d for d in duties if d.who == "Supplier"]
    assert [d.force for d in listed] == ["must", "must", "must_not"]
    assert all(any("The Supplier shall" in c.quote for c in d.cites) for d in listed)


def test_covenants_in_the_infinitive_take_the_party_of_their_heading(document):
    lease = (
        'LEASE\n\nThis Lease is made on 4 May 2026 between (1) Calder Estates Limited (the "Landlord") and (2) Brackenfold Mills Limited (the "Tenant").\n\n'
        "3. THE TENANT'S COVENANTS\n\n3.1 To pay the rent on the days stated.\n\n3.2 Not to keep more than 40 drums in the yard.\n\n3.3 Within 21 days of any assignment to give notice of it to the Landlord.\n\n"
        "4. THE LANDLORD'S COVENANTS\n\n4.1 To keep the roof in repair.\n"
    )
    told = [(d.who, d.force) for d in duties_of(document(lease, "lease.txt"))]
    assert told == [("Tenant", "must"), ("Tenant", "must_not"), ("Tenant", "must"), ("Landlord", "must")]


def test_when_on_what_condition_to_whom_and_what_else(document):
    words = "1. If a bale is wet, the Supplier shall inform the Buyer within two days, failing which the Supplier bears the loss."
    (duty, *_) = duties_of(document(HEAD + words + "\n", "agreement.txt"))
    assert duty.by == "within two days"
    assert duty.condition == "If a bale is wet"
    assert duty.to == "Buyer"
    assert duty.otherwise.startswith("failing which")
    assert duty.name == "Highmoor Wool Limited"


def test_in_a_policy_you_are_the_policyholder(found):
    policy = "POLICY OF INSURANCE\n\nPolicy schedule and wording. The insurer agrees to insure the policyholder for the period of insurance.\n\n"
    told = found(
        "6.1 You must tell us within 14 days if the mill is left empty.\n\n6.2 We will pay within 30 days.\n\n6.3 The alarm must be set every night.",
        policy,
    )
    assert ("Policyholder", "must", "other") in told or ("Policyholder", "must", "notice") in told
    assert any(who == "Insurer" for who, _, _ in told)


def test_a_passive_is_told_by_context_and_says_so(document):
    paper = document(
        HEAD + "1. The Supplier shall grade every bale. Records of grading shall be kept for six years.\n",
        "agreement.txt",
    )
    passive = [d for d in duties_of(paper) if "Records" in d.what]
    assert [(d.who, d.sure) for d in passive] == [("Supplier", False)]


@given(st.text("The Supplier Buyer shall must not may deliver: (a) pay; to. each party ", max_size=120))
def test_any_words_give_duties_with_party_and_cite(words):
    from yarnex.core.reading.text import read_text

    paper = read_text((HEAD + f"1. {words}\n").encode(), "a.txt", "0" * 64, markdown=False)
    assert all(d.who and d.cites[0].quote for d in duties_of(paper))


CALL = """CALL FOR TENDERS

Six carding machines for Brackenfold Mills Limited. Tenders must be received by 3 October 2026.

PART B REQUIREMENTS

| No. | Requirement | Limit |
| --- | --- | --- |
| B1 | Output of each machine | at least 300 kg/h |
| B2 | Noise | not more than 80 dB(A) |
| B3 | A second voltage is welcome | |

PART C CORRECTIONS

B2 is replaced by: not more than 82 dB(A).
"""


def test_requirements_are_numbered_and_corrections_stand_with_them(document):
    found = {r.number: r for r in requirements_of(document(CALL, "call.md"))}
    assert found["B1"].limit == "at least 300 kg/h"
    assert found["B1"].mandatory
    assert not found["B3"].mandatory
    assert "82 dB(A)" in found["B2"].replaced


LEAD = """# Agreement

This Agreement is made between (1) Calder Estates Limited (the "Supplier") and (2) Brackenfold Mills Limited (the "Distributor").

## 1. Duties of the Distributor

1.1 The Distributor shall promote the yarn.

1.2 {words}

1.3 The Supplier shall deliver the yarn within ten days.
"""


@pytest.mark.parametrize(
    ("words", "owing"),
    [
        ("New yarns shall be offered first to the Distributor.", "Supplier"),
        ("Complaints shall be answered within one day.", "Distributor"),
        ("The yarn shall be stored dry.", "Distributor"),
    ],
)
def test_nobody_owes_a_duty_to_himself(document, words, owing):
    found = duties_of(document(LEAD.format(words=words), "a.md"))
    (duty,) = [d for d in found if d.cites[0].quote.startswith(("1.2", words[:9]))]
    assert (duty.who, duty.sure) == (owing, False)
