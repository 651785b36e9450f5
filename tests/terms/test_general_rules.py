"""The general rule before what holds for a part; labels that name nothing; numbers that are none; parties that are none."""

from __future__ import annotations

from decimal import Decimal

import pytest

from yarnex.core.terms import abstract, parse_sheet
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import Passages
from yarnex.core.values import Duration, find_party_roles

SHEET = """sheet: "s"
label: "S"
terms:
  - {id: "excess", label: "Excess, time", type: "duration", cues: ["bear the first <value>"]}
  - {id: "period", label: "Indemnity period", type: "duration", names: ["[maximum] indemnity period"], cues: ["indemnity period ... <value>"]}
  - {id: "law", label: "Law", type: "text", cues: ["governed by [the] [law] [of] <value>"]}
  - {id: "whole", label: "Whole agreement", type: "text", headings: ["whole agreement"]}
  - {id: "fee", label: "Fee", type: "money", names: ["fee"]}
"""


@pytest.fixture
def filled(document):
    return lambda text: abstract(document(text, "paper.md"), parse_sheet(SHEET, "s.yaml"))


def test_what_holds_for_a_part_is_told_beside_the_general_rule(filled):
    found = filled(
        "# Policy\n\nFor loss at Mill 4 you bear the first 96 hours.\n\nFor every other loss you bear the first 12 hours.\n"
    ).finding("excess")
    assert found.value == Duration(Decimal(12), "hours")
    assert any("96 hours" in w for w in found.working)
    assert [(f.role, f.value) for f in found.further] == [("special_case", Duration(Decimal(96), "hours"))]
    assert found.state == "stated"


def test_what_holds_for_a_part_only_is_no_sure_general_rule(filled):
    found = filled("# Policy\n\nIn respect of Mill 4 you bear the first 96 hours.\n").finding("excess")
    assert found.confidence <= 0.6
    assert "one part only" in found.working[-1]


def test_a_date_makes_no_part(filled):
    found = filled("# Policy\n\nFor losses before May 4 you bear the first 96 hours.\n").finding("excess")
    assert found.confidence > 0.6


def test_a_clause_that_is_referred_to_makes_no_part(filled):
    found = filled("# Policy\n\nFor the purposes of Section 4 you bear the first 96 hours.\n").finding("excess")
    assert found.confidence > 0.6


def test_an_endorsement_adds_to_the_rule_and_does_not_replace_it(filled):
    text = "# 1 Cover\n\nOn each loss you bear the first 12 hours.\n\n# 2 Endorsements\n\nWhere the dye vats fail you bear the first 48 hours.\n"
    assert filled(text).finding("excess").value == Duration(Decimal(12), "hours")


def test_a_column_that_says_the_same_all_down(filled):
    table = "| Item | Limit | Indemnity period |\n| --- | --- | --- |\n| 1 Revenue | £900 | 18 months |\n| 2 Costs | £80 | {} |\n"
    assert filled("# Cover\n\n" + table.format("18 months")).finding("period").value == Duration(Decimal(18), "months")
    assert filled("# Cover\n\n" + table.format("6 months")).finding("period").state == "not_found"


@pytest.mark.parametrize(
    ("sentence", "law"),
    [
        ("It is governed by the law of Scotland, and the Scottish courts have sole jurisdiction.", "Scotland"),
        ("It is governed by the law of Malta, and letters will be in Maltese.", "Malta"),
        ("It is governed by the law of England and Wales.", "England and Wales"),
        (
            "It is governed by the laws of Trinidad and Tobago and the parties submit to its courts.",
            "Trinidad and Tobago",
        ),
    ],
)
def test_the_law_ends_where_the_next_clause_begins(filled, sentence, law):
    assert filled(f"# Agreement\n\n{sentence}\n").finding("law").text.removeprefix("laws of ") == law


def test_a_heading_alone_is_no_clause(filled):
    found = filled("# 7 Whole agreement\n\nWhole agreement.\n")
    assert found.finding("whole").state == "not_found"


def test_a_bare_number_under_a_label_is_no_sum(filled):
    found = filled("# Wet bales\n\n| Kind | Bales |\n| --- | --- |\n| Fee | 63 |\n")
    assert found.finding("fee").state == "not_found"


def particulars(document, text):
    passages = Passages(document(text, "paper.md"))
    return {
        f.term.label: f.value.to_dict() if f.value else f.state for f in other_particulars((), passages, lists=True)
    }


@pytest.mark.parametrize(
    ("cell", "kind"),
    [("3–9 °C", None), ("12 × 2 cones", None), ("UK 044 118 270", None), ("Rack 7 (left)", None), ("1–7", None), ("min. 20 kg", "number"), ("8 m, braced", "number"), ("14", "number")],
)  # fmt: skip
def test_cells_that_hold_a_number_and_those_that_do_not(document, cell, kind):
    found = particulars(
        document, f"# List\n\n| Thing | Maker | Note |\n| --- | --- | --- |\n| Loom | Tarn | {cell} |\n"
    )
    assert found.get("Loom: Note", {"type": None})["type"] == kind


def test_counts_below_a_sentence_with_a_sum_are_no_money(document):
    text = "# Bales\n\nThe drying cost $640.00.\n\n| Kind | Wet | Lost |\n| --- | --- | --- |\n| Fine | 22 | 3 |\n"
    assert particulars(document, text)["Fine: Wet"]["type"] == "number"


def test_a_price_for_a_month_is_money_and_no_month(document):
    text = "# Prices\n\nAll prices in €.\n\n| Module | Users | Price per month |\n| --- | --- | --- |\n| Core | 9 | 420.00 |\n"
    assert particulars(document, text)["Core: Price per month"]["type"] == "money"


def test_rows_of_contents_signatures_and_drawings_are_no_particulars(document):
    text = (
        "# Schedules\n\n| Schedule | Of |\n| --- | --- |\n| First | Rent review |\n| Second | Repairs |\n\n# Rent review\n\nOn 1 May.\n\n# Repairs\n\nBy the tenant.\n\n"
        "| | |\n| --- | --- |\n| Name A. Tarn | Name: B. Fell |\n| TARN HOLDINGS, L.P. By | Fell GP |\n| Trade name | Fellspun |\n"
    )
    found = particulars(document, text)
    assert "Trade name" in found
    assert not {"First", "Second", "Name A. Tarn", "TARN HOLDINGS, L.P. By"} & set(found)


@pytest.mark.parametrize(
    ("text", "roles"),
    [
        (
            'Tarn Estates Limited (the "Landlord") lets Unit 2 (the "Premises") to Fell Limited (the "Tenant").',
            ["Landlord", "Tenant"],
        ),
        ('Fell Limited (the "Guarantor") stands behind Lease 4 (the "Lease").', ["Guarantor"]),
    ],
)
def test_things_defined_in_brackets_are_no_parties(text, roles):
    assert [f.value.role for f in find_party_roles(text)] == roles
