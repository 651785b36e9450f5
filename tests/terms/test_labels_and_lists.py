"""Labels without their numbers, lists under headings, schedules in any column, and changes of words inside a paper."""

from __future__ import annotations

import pytest

from yarnex.core.reading.transcript import read_transcript
from yarnex.core.terms import abstract, parse_sheet
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.variations import precedence_of, reworded
from yarnex.output.wording import said


@pytest.mark.parametrize(
    ("text", "label"),
    [
        ("4.2 Term (years)", "Term"),
        ("Section 3 What is not insured", "What is not insured"),
        ("B. Requirements", "Requirements"),
        ("Part IV: Rights", "Rights"),
        ("(7) Notices", "Notices"),
        ("A notice", "A notice"),
        ("Parties", "Parties"),
        ("Price *", "Price"),
        ("2026 budget", "2026 budget"),
    ],
)
def test_a_label_without_its_number(text, label):
    assert plain_label(text) == label


SHEET = """sheet: "s"
label: "S"
terms:
  - {id: "sites", label: "Sites", type: "list", headings: ["sites"]}
  - {id: "fees", label: "Fees", type: "schedule", names: ["fee"]}
  - {id: "notice", label: "Notice", type: "duration", cues: ["give <value> notice"]}
  - {id: "price", label: "Price", type: "money", cues: ["the price is <value>"]}
  - {id: "owner", label: "Owner", type: "party", cues: ["owned by <value>"]}
"""


@pytest.fixture
def filled(document):
    def make(text: str):
        return abstract(document(text, "paper.md"), parse_sheet(SHEET, "s.yaml"))

    return make


@pytest.mark.parametrize(
    ("text", "items"),
    [
        ("# 2 Sites\n\n1. Low Weir\n2. High Weir\n", ("Low Weir", "High Weir")),
        ("# Sites\n\n| Name | Area |\n| --- | --- |\n| Tarn | 4 |\n| Fell | 5 |\n", ("Tarn", "Fell")),
        ("# Sites\n\n## Low Weir\n\nIt is wet.\n\n## High Weir\n\nIt is dry.\n", ("Low Weir", "High Weir")),
    ],
)
def test_every_item_under_a_heading(filled, text, items):
    assert filled(text).finding("sites").value.items == items


@pytest.mark.parametrize(
    "table",
    [
        "| No. | Date | Fee (£) |\n| --- | --- | --- |\n| 1 | 1 May 2026 | 900.00 |\n| 2 | 1 June 2026 | 950.00 |\n| | Total | 1,850.00 |",
        "| Year | Period | Fee (£) |\n| --- | --- | --- |\n| 1 | 1 May 2026 – 31 May 2026 | 900.00 |\n| 2 | 1 June 2026 – 30 June 2026 | 950.00 |",
    ],
)
def test_a_schedule_goes_by_its_column_of_dates(filled, table):
    value = filled(f"# Fees\n\n{table}\n").finding("fees").value
    assert [(r.from_, r.amount.amount, r.amount.currency) for r in value.rows] == [
        ("2026-05-01", 900, "GBP"),
        ("2026-06-01", 950, "GBP"),
    ]


@pytest.mark.parametrize(
    ("change", "state", "value"),
    [
        ('In clause 1.1 the words "six weeks" are replaced by "nine weeks".', "amended", "9 weeks"),
        (
            'For the first season only, clause 1.1 applies as if the words "six weeks" read "nine weeks".',
            "stated",
            "6 weeks",
        ),
        ('In clause 8.1 the words "six weeks" are replaced by "nine weeks".', "stated", "6 weeks"),
    ],
)
def test_words_put_in_place_of_others(filled, change, state, value):
    finding = filled(
        f"# 1 Ending\n\n1.1 A grower may give six weeks notice.\n\n# Special terms\n\n9.1 {change}\n"
    ).finding("notice")
    assert (finding.state, said(finding)) == (state, value)


def test_a_sum_put_in_place_of_another_is_in_the_dollars_of_the_paper(filled):
    finding = filled(
        "# 1 Price\n\n1.1 The price is $40 a bale, in Australia.\n\n# Special terms\n\n"
        '9.1 In clause 1.1 the words "$40" are replaced by "$55".\n'
    ).finding("price")
    assert (finding.state, finding.value.amount, finding.value.currency) == ("amended", 55, "AUD")


def test_turns_of_speakers_are_no_labels():
    said_aloud = "WEBVTT\n\n00:01.000 --> 00:02.000\n<v Ida Teasel>Is it dry?\n\n00:03.000 --> 00:04.000\n<v Owen Fell>Price: 40\n"
    spoken = Passages(read_transcript(said_aloud.encode(), "a.vtt", "0" * 64))
    labels = [f.term.label for f in other_particulars((), spoken, lists=True)]
    assert "Ida Teasel" not in labels
    assert "Owen Fell" not in labels


def test_a_finding_without_changes_stays_as_it_is(filled, document):
    finding = filled("# 1 Ending\n\n1.1 A grower may give six weeks notice.\n").finding("notice")
    assert reworded(finding, Passages(document("Nothing is changed.")), "other") is finding


def test_a_party_in_its_place(filled):
    assert (
        said(filled("The barn is owned by Tarn Growers Limited and let to others.").finding("owner"))
        == "Tarn Growers Limited"
    )
    assert filled("The barn is owned by somebody.").finding("owner").state == "not_found"


@pytest.mark.parametrize(
    ("words", "order"),
    [
        (
            "The special terms prevail over the clauses, and the clauses over the schedules.",
            ("special terms", "clauses", "schedules"),
        ),
        ("The Order Form takes precedence over the general conditions.", ("order form", "general conditions")),
        ("Wool prevails over cotton.", None),
    ],
)
def test_the_order_in_which_parts_prevail(document, words, order):
    found = precedence_of(Passages(document(words)))
    assert (found[0] if found else None) == order


@pytest.mark.parametrize(
    ("text", "labels"),
    [
        ("Carding: £900 a week. Washing and packing: £80, for 9 weeks.", ["Carding", "Washing and packing"]),
        ("Tenant: A. Croft, of Tarn House.", ["Tenant"]),
        ("Accepted: O. Fell Date: 7 May 2026", ["Accepted"]),
        ("Place: the wool store.", ["Place"]),
    ],
)
def test_labels_that_follow_each_other_in_a_paragraph(document, text, labels):
    rows = Passages(document(f"# Limits\n\n{text}\n", "paper.md")).labelled
    assert [r.label for r in rows] == labels


MATRIX = """# Compliance

| Item | Requirement | Offered | Statement |
|---|---|---|---|
| B1 | Flow min. 500 l/s | 520 l/s | complies |
| B2 | Warranty 24 months | 36 months from acceptance | exceeds |
| C5 | On site within 8 hours | see annex | complies |
"""


def test_what_is_offered_stands_under_the_name_of_what_is_required(document):
    from yarnex.core.terms import abstract, load_sheet
    from yarnex.core.terms.passages import Passages

    paper = document(MATRIX, "matrix.md")
    assert {r.label: r.value.of(paper.text) for r in Passages(paper).labelled} == {
        "Flow": "520 l/s",
        "Warranty": "36 months from acceptance",
        "On site": "see annex",
    }
    filled = {f.term.id: f for f in abstract(paper, load_sheet("proposal")).findings}
    assert (filled["warranty"].value.value, filled["warranty"].value.unit) == (36, "months")
    assert filled["service_response"].value is None or filled["service_response"].state == "not_found"


@pytest.mark.parametrize(
    ("row", "rate"), [("VAT 20%", 20), ("VAT at 17.5 per cent", 17.5), ("GST (15%)", 15), ("Discount 5 %", None)]
)
def test_a_rate_that_ends_the_label_of_a_sum(document, row, rate):
    from yarnex.core.terms import abstract, load_sheet

    paper = document(
        f"# Invoice 7\n\n| Net | £200.00 |\n|---|---|\n| {row} | £40.00 |\n| Total | £240.00 |\n", "bill.md"
    )
    found = {f.term.id: f for f in abstract(paper, load_sheet("billing")).findings}["tax_rate"]
    assert (float(found.value.value) if found.value else None) == rate
