from __future__ import annotations

import pytest

from yarnex.core.search import ask_all
from yarnex.core.terms import abstract, load_sheet
from yarnex.core.terms.signatures import signatories_of

OPENING = (
    'This agreement is made between HEDDLE STORES LIMITED (the "Keeper") and BRACKENFOLD MILLS LIMITED (the "Owner").'
)


@pytest.mark.parametrize(
    ("paragraphs", "found"),
    [
        (["For and on behalf of Heddle Stores Limited", "Name: Ivo Kirk", "Title: Director"], [("Ivo Kirk", "Heddle Stores Limited", "Director")]),
        (["(signed) N. Oakroyd"], [("N. Oakroyd", "", "")]),
        (["Signed by Nell Oakroyd, director"], [("Nell Oakroyd", "", "director")]),
        (["Signed for the Keeper: ____________ I. Kirk, Director"], [("I. Kirk", "the Keeper", "Director")]),
        (["KEEPER: HEDDLE STORES LIMITED", "By: ________", "Name: Ivo van der Kirk", "Title: Manager"], [("Ivo van der Kirk", "Keeper: HEDDLE STORES LIMITED", "Manager")]),
        (["Signed for the Owner: ____________ Date: ________"], []),
        (["For the Keeper: Ivo Kirk, Director For the Owner: Maud Ackroyd"], [("Ivo Kirk", "the Keeper", "Director"), ("Maud Ackroyd", "the Owner", "")]),
        (["Signed: Ivo Kirk for the Keeper; Maud Ackroyd for the Owner"], [("Ivo Kirk", "the Keeper", ""), ("Maud Ackroyd", "the Owner", "")]),
        (["Signed as a deed I. Kirk - M. Ackroyd - witness: P. Holt"], [("I. Kirk", "", ""), ("M. Ackroyd", "", "")]),
        (["Agreed for Brackenfold Mills Limited: Maud Ackroyd, 4 May 2026"], [("Maud Ackroyd", "Brackenfold Mills Limited", "")]),
        (["The bales are signed for at the gate by whoever takes them in."], []),
    ],
)  # fmt: skip
def test_who_signs_and_for_whom(document, paragraphs, found):
    made = signatories_of(document("\n\n".join([OPENING, *paragraphs])))
    assert [(s.name, s.party, s.post) for s in made] == found


def test_signatures_side_by_side(document):
    table = "| For Heddle Stores Limited | For Brackenfold Mills Limited |\n|---|---|\n| Ivo Kirk, Director | Maud Ackroyd, Chief Executive Officer |\n"
    made = signatories_of(document(f"# Deed\n\n{table}", "deed.md"))
    assert [(s.name, s.party) for s in made] == [
        ("Ivo Kirk", "Heddle Stores Limited"),
        ("Maud Ackroyd", "Brackenfold Mills Limited"),
    ]


def test_who_signs_is_asked_and_abstracted(document):
    paper = document("\n\n".join([OPENING, "For and on behalf of Heddle Stores Limited", "Name: Ivo Kirk", "Title: Director", "For and on behalf of Brackenfold Mills Limited", "Name: Maud Ackroyd"]))  # fmt: skip
    for question, name in (("Who signs for the keeper?", "Ivo Kirk"), ("Who signs for the owner?", "Maud Ackroyd")):
        ((found,),) = (a.findings[:1] for a in ask_all([paper], [("1", question)]))
        assert found[0].text == name
    told = {f.term.id: f.text for f in abstract(paper, load_sheet("agreement")).findings}["signatories"]
    assert "Ivo Kirk" in told
