"""Forms whose cells hold their labels, tables beside an address, titles before paragraphs, and turns of speakers."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.terms.identity import document_date
from yarnex.core.terms.passages import Passages


def read(words: str, name: str = "paper.txt"):
    return read_text(words.encode(), name, "0" * 64, markdown=name.endswith(".md"))


def labelled(words: str) -> dict[str, str]:
    paper = read(words)
    return {row.label: " ".join(row.value.of(paper.text).split()) for row in Passages(paper).labelled}


FORM = """CONDITION SURVEY

Client: Brackenfold Mills plc            Our ref: OT/5521
Inspected: 18 June 2026                  Weather: dry
Surveyor: Hamish Orr                     Issued: 3 July 2026

The mill is sound.
"""
BESIDE = """INVOICE

Bill to: Brackenfold Mills plc           Invoice no.  TL-204
         Low Weir Mill                   Date         14 May 2026
         Fellgate                        Your order   BM/PO/77
                                         Terms        30 days net

Please pay.
"""


def test_cells_that_hold_their_labels():
    found = labelled(FORM)
    assert {k: found[k] for k in ("Our ref", "Weather", "Surveyor", "Issued")} == {
        "Our ref": "OT/5521", "Weather": "dry", "Surveyor": "Hamish Orr", "Issued": "3 July 2026",
    }  # fmt: skip


def test_labels_and_values_beside_an_address():
    found = labelled(BESIDE)
    assert {k: found[k] for k in ("Invoice no", "Date", "Your order", "Terms")} == {
        "Invoice no": "TL-204", "Date": "14 May 2026", "Your order": "BM/PO/77", "Terms": "30 days net",
    }  # fmt: skip


PARAGRAPHS = [
    "Start. You begin on Monday 2 November 2026, as was said.",
    "Money. £46,200 a year, paid on the last Thursday of each month.",
    "Holidays. 27 days and the eight public holidays of the year.",
    "Trial. The first five months are a trial for both of us.",
]


def test_titles_before_paragraphs():
    paper = read("\n\n".join(PARAGRAPHS) + "\n")
    assert [b.heading for b in paper.blocks] == ["Start", "Money", "Holidays", "Trial"]


@pytest.mark.parametrize(
    "paragraphs", [PARAGRAPHS[:2], [f"Yes. I saw {n} of them by the gate that day." for n in "abcdef"]]
)
def test_no_titles_where_few_or_answers(paragraphs):
    assert not any(b.heading for b in read("\n\n".join(paragraphs) + "\n").blocks)


TURNS = [
    ("Ada Thorne (chair)", "Good morning."),
    ("Ken Oduya", "And the wool?"),
    ("Ada Thorne", "Covered."),
    ("Ken Oduya", "Thanks."),
    ("Operator", "That ends it."),
]


def test_turns_of_speakers_by_name():
    paper = read("\n\n".join(f"{who}: {words}" for who, words in TURNS) + "\n")
    assert [m.value for m in paper.marks if m.kind == "speaker"] == [
        "Ada Thorne",
        "Ken Oduya",
        "Ada Thorne",
        "Ken Oduya",
        "Operator",
    ]


def test_labels_of_a_form_are_no_speakers():
    paper = read(
        "\n\n".join(f"{label}: something" for label in ("Client", "Site", "Floor", "Use", "Rent", "Term")) + "\n"
    )
    assert not [m for m in paper.marks if m.kind == "speaker"]


def test_a_label_in_bold_begins_a_paragraph_of_markdown():
    paper = read("**Present:** Ada Thorne (chair)\n**Apologies:** Rhona Teal\n", "minutes.md")
    assert [b.span.of(paper.text) for b in paper.blocks] == ["Present: Ada Thorne (chair)", "Apologies: Rhona Teal"]


def test_marks_of_emphasis_before_a_comma_go():
    assert read("Signed: *Ada Thorne*, *Chair*.\n", "a.md").text.strip() == "Signed: Ada Thorne, Chair."


@pytest.mark.parametrize(
    ("words", "day"),
    [
        ("SIDE LETTER\n\n28 July 2026\n\nDear Ms Holroyd\n\nStorage Agreement dated 3 July 2026\n\nWe agree.\n", "2026-07-28"),
        ("Harker LLP\n\nOur ref: HQ/BM/93\n19 October 2026\n\nDear Sirs\n\nThe lease dated 1 June 2021 is broken.\n", "2026-10-19"),
        ("# Minutes\n\nHeld on Wednesday 3 June 2026 at 2.15 p.m. in the counting house\n", "2026-06-03"),
        ("Pay to sort code 09-14-22 and no other. The rest follows in a letter of its own.\n", ""),
    ],
)  # fmt: skip
def test_the_day_of_a_paper(words, day):
    assert document_date(read(words, "paper.md" if words.startswith("#") else "paper.txt")) == day
