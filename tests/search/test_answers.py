"""Questions answered from made-up papers; what they do not say is not found."""

from __future__ import annotations

import json

import pytest

from yarnex.core.errors import YarnexError
from yarnex.core.search import Inquiry, ask, ask_all, read_questions, roster, understand
from yarnex.core.search.starters import starters
from yarnex.core.search.weighing import EVIDENCE, answer_weights
from yarnex.output.wording import said

LEASE = """LEASE OF THE DYE HOUSE

This Lease is made on 4 May 2026 between:

(1) Calder Estates Limited (the "Landlord"); and

(2) Brackenfold Mills Limited (the "Tenant").

1. Term

1.1 The Landlord lets the dye house to the Tenant for a term of seven years from and including 1 June 2026.

1.2 The Tenant may end this Lease on 31 May 2029 by giving not less than six months' written notice.

2. Rent

2.1 The Tenant shall pay a yearly rent of £61,500 by equal quarterly payments in advance.

2.2 If rent is late, interest is payable at four per cent above the base rate.

3. Use

3.1 The premises may be used for the dyeing and finishing of yarn. Not to keep more than 40 drums of dye in the yard.

3.2 The Tenant shall paint the outside in every third year.

4. Insurance

4.1 The Landlord shall insure the building. The Tenant shall hold public liability insurance of not less than £2,000,000.
"""

INCIDENT = """INCIDENT REPORT

Date: 9 March 2026

The leak was found at 5.40 a.m. on 8 March 2026 by Ada Thorne of Weir Security Limited.

The cause was a split hose under the sink. The water stood 30 mm deep over 55 square metres.

Nobody was hurt.
"""


@pytest.fixture
def asked(document):
    def make(text: str, words: str):
        return ask(Inquiry(document(text)), understand(words))[0]

    return make


@pytest.mark.parametrize(
    ("words", "answer"),
    [
        ("How much is the rent?", "£61,500 a year"), ("Who is the landlord?", "Calder Estates Limited"), ("Who rents the premises?", "Brackenfold Mills Limited"),
        ("When does the lease begin?", "1 June 2026"), ("When does the lease end?", "31 May 2033"), ("How much notice to end the lease early?", "6 months"),
        ("When can the tenant leave early?", "31 May 2029"), ("May the tenant leave early?", "yes"), ("How much public liability cover must there be?", "£2,000,000"),
        ("How many drums of dye may be kept?", "40"), ("How often must the outside be painted?", "3 years"), ("What interest is charged on late rent?", "4 %"),
    ],
)  # fmt: skip
def test_answers_from_a_lease(asked, words, answer):
    finding = asked(LEASE, words)
    assert said(finding) == answer, finding.why
    assert finding.cites


@pytest.mark.parametrize(
    ("words", "answer"),
    [
        ("At what time was the leak found?", "5.40 a.m."), ("Who found the leak?", "Ada Thorne of Weir Security Limited"), ("How deep was the water?", "30 mm"),
        ("What area was flooded?", "55 sq m"), ("On what date was the leak found?", "8 March 2026"),
    ],
)  # fmt: skip
def test_answers_from_a_report_of_an_incident(asked, words, answer):
    assert said(asked(INCIDENT, words)) == answer


def test_a_reason_is_given_in_the_document_s_words(asked):
    assert "split hose under the sink" in asked(INCIDENT, "What caused the leak?").text


@pytest.mark.parametrize(
    "words",
    [
        "What is the performance bond?",
        "How many parking spaces are there?",
        "Who is the broker?",
        "What is the capital of France?",
    ],
)
def test_what_is_not_said_is_not_found(asked, words):
    finding = asked(LEASE, words)
    assert finding.state == "not_found"
    assert finding.why


def test_each_document_answers_for_itself(document):
    papers = [
        document(LEASE, "a.txt"),
        document(LEASE.replace("£61,500", "£48,250"), "b.txt"),
        document(INCIDENT, "c.txt"),
    ]
    (row,) = ask_all(papers, [("1", "How much is the rent?")])
    assert [said(f[0]) for f in row.findings] == ["£61,500 a year", "£48,250 a year", "not found"]
    assert [f[0].document.path for f in row.findings] == ["a.txt", "b.txt", "c.txt"]


def test_blanks_are_filled_for_each_document(document):
    (row,) = ask_all([document(LEASE, "a.txt")], [("1", "How much is the rent in {name}?")])
    assert said(row.findings[0][0]) == "£61,500 a year"


def test_a_quote_stands_in_the_document(document):
    paper = document(LEASE)
    for found in ask_all([paper], [("1", "What may the premises be used for?"), ("2", "Who insures the building?")]):
        for finding in found.findings[0]:
            for cite in finding.cites:
                assert cite.quote in paper.text


@pytest.mark.parametrize(
    ("name", "text", "questions"),
    [
        ("q.txt", "# mine\nWho?\n\nWhen is it?\n", [("1", "Who?"), ("2", "When is it?")]),
        ("q.json", json.dumps([{"id": "a", "question": "Who?"}, "When?"]), [("a", "Who?"), ("2", "When?")]),
        ("q.yaml", "questions:\n- id: x\n  question: Who?\n", [("x", "Who?")]),
    ],
)
def test_lists_of_questions(tmp_path, name, text, questions):
    (tmp_path / name).write_text(text)
    assert read_questions(tmp_path / name) == questions


@pytest.mark.parametrize(
    ("name", "text", "fault"),
    [
        ("q.json", "[{", "not JSON"), ("q.yaml", "a: [", "not YAML"), ("q.txt", "\n\n", "no list of questions"), ("q.json", '[{"id": 1}]', "entry 1 holds no question"),
        ("q.txt", "a b c?\n" * 501, "501 questions"),
    ],
)  # fmt: skip
def test_mistakes_in_a_list_of_questions(tmp_path, name, text, fault):
    (tmp_path / name).write_text(text)
    with pytest.raises(YarnexError, match=fault):
        read_questions(tmp_path / name)


def test_starters_can_be_answered(document):
    paper = document(LEASE)
    proposed = starters([paper])
    assert len(proposed) >= 4
    for _, words, why in proposed:
        assert why
        assert ask(Inquiry(paper), understand(words))[0].found, words


def test_every_piece_of_evidence_has_a_weight():
    assert len(answer_weights()) == len(EVIDENCE)


BOARD = """# Annual report

## Board of directors

| No. | Director | Since |
| --- | --- | --- |
| 1 | Ada Thorne | 2019 |
| 2 | Bram Holroyd | 2020 |
| 4 | Cleo Marsden | 2024 |
| | Total | 3 |

## Sites

The mill works at these sites:

1. Low Weir Mill
2. The dye house
3. Fellgate store

## Risks

### Risk 1, price of fleece

It may rise.

### Risk 2, flood

The weir may overflow.
"""


@pytest.mark.parametrize(
    ("of", "items"),
    [
        ("directors", ["Ada Thorne", "Bram Holroyd", "Cleo Marsden"]),
        ("sites", ["Low Weir Mill", "The dye house", "Fellgate store"]),
        ("risks", ["Risk 1, price of fleece", "Risk 2, flood"]),
        ("moons", []),
    ],
)
def test_rosters(document, of, items):
    found = roster(document(BOARD, "report.md"), of)
    assert [i.text for i in found.items] == items
    assert all(i.cites for i in found.items)


def test_a_gap_in_the_numbering_is_said(document):
    assert roster(document(BOARD, "report.md"), "directors").gaps == ("3",)


def test_the_same_from_python(document):
    import yarnex

    papers = [document(LEASE, "a.txt"), document(INCIDENT, "b.txt")]
    assert [f.state for f in yarnex.find(papers, "How much is the rent?")] == ["stated", "not_found"]
    assert len(yarnex.roster(document(BOARD, "r.md"), "sites").items) == 3


def test_asked_side_by_side_the_answers_are_the_same(document):
    papers = [document(LEASE, "a.txt"), document(INCIDENT, "b.txt"), document(BOARD, "c.md")]
    asked = [("1", "How much is the rent?"), ("2", "And when is it paid?"), ("3", "Who are the directors of {name}?")]

    def told(processes):
        return [
            (
                row.question.text,
                [[(f.state, f.text, [c.place for c in f.cites]) for f in found] for found in row.findings],
            )
            for row in ask_all(papers, asked, processes=processes)
        ]

    assert told(2) == told(1)
    assert ask_all([], asked, processes=2)[0].findings == ()


FORM = """DELIVERY FORM

Order number: BM-2207-4
Driver: Ada Thorne
Telephone (home): ██████████
Received by: ______________________

The bales weighed 4,120 kg. They were unloaded at 7.40 a.m. by two men.
"""


@pytest.mark.parametrize(
    ("words", "state", "text"),
    [
        ("What is the order number?", "stated", "BM-2207-4"),
        ("What is the driver's home telephone number?", "redacted", ""),
        ("Who received them?", "blank", ""),
        ("At what time were the bales unloaded?", "stated", "7.40 a.m."),
    ],
)
def test_identifiers_gaps_and_times_are_answers(asked, words, state, text):
    found = asked(FORM, words)
    assert (found.state, found.text) == (state, text)


@pytest.mark.parametrize(
    ("words", "times"),
    [
        ("below 1.40:1", []),
        ("off by 6.35, I think", ["6.35"]),
        ("at 8.10 a.m. sharp", ["8.10 a.m."]),
        ("from 07:25 to 17.30", ["07:25", "17.30"]),
        ("about half past six", ["half past six"]),
        ("a ratio of 3.25 and 4.10 per cent", []),
    ],
)
def test_times_of_day_are_told_from_other_figures(words, times):
    from yarnex.core.search.patterns import CLOCK

    assert [m.group().strip() for m in CLOCK.finditer(words)] == times


TALK = """WEBVTT

00:01.000 --> 00:04.000
<v Rosa Quill>When did you last see the bales dry?

00:05.000 --> 00:09.000
<v Tom Varley>Ten past four. I wrote it in the book.

00:10.000 --> 00:13.000
<v Rosa Quill>Was the sprinkler alarm working?

00:14.000 --> 00:18.000
<v Tom Varley>No. It had been off since Tuesday.
"""


@pytest.mark.parametrize(
    ("words", "value"),
    [("When were the bales last seen dry?", "Ten past four"), ("Was the sprinkler alarm working?", False)],
)
def test_the_reply_answers_and_not_the_question(tmp_path, words, value):
    from yarnex.core.reading import read_document

    (tmp_path / "talk.vtt").write_text(TALK, "utf-8")
    found = ask(Inquiry(read_document(tmp_path / "talk.vtt")), understand(words))[0]
    assert found.value is not None
    assert found.value.to_dict()["value"] == value
    assert "?" not in found.cites[0].quote


UNITS = """<html><body><h1>Data of the carding machine</h1><table><tr><th>Item</th><th>Unit</th><th>Value</th></tr>
<tr><td>Weight</td><td>kg</td><td>3140</td></tr><tr><td>Floor area (sq m)</td><td></td><td>22</td></tr></table></body></html>"""


@pytest.mark.parametrize(
    ("words", "number", "unit"),
    [("How heavy is the machine?", 3140, "kg"), ("What floor area does it need?", 22, "sq_m")],
)
def test_a_bare_figure_takes_the_unit_beside_it(tmp_path, words, number, unit):
    from yarnex.core.reading import read_document

    (tmp_path / "data.html").write_text(UNITS, "utf-8")
    found = ask(Inquiry(read_document(tmp_path / "data.html")), understand(words))[0]
    assert found.value is not None
    assert (float(found.value.to_dict()["value"]), found.value.to_dict()["unit"]) == (number, unit)
