"""Persons that a paper names, by title, role, label or mark; and what is no person."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.reading.text import read_text
from yarnex.core.search import roster
from yarnex.core.search.people import people_of


def found(document, text, name="note.md"):
    return [(item.text, item.detail) for item in people_of(document(text, name))]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Dr Pia Lund came.", [("Dr Pia Lund", "")]),
        ("Mrs P. Lund came.", [("Mrs P. Lund", "")]),
        ("Mr Tom de la Haye came.", [("Mr Tom de la Haye", "")]),
        ("Professor Ada O'Brien spoke.", [("Professor Ada O'Brien", "")]),
        ("Ms Rowley's note was read.", [("Ms Rowley", "")]),
        ("Ann Rowley, site manager, wrote it.", [("Ann Rowley", "site manager")]),
        ("Ann Rowley, the site manager, wrote it.", [("Ann Rowley", "the site manager")]),
        ("Ann Rowley (night supervisor) wrote it.", [("Ann Rowley", "night supervisor")]),
        ("T. Ince, Facilities Manager, turned it off.", [("T. Ince", "Facilities Manager")]),
        ("Signed by Ann Rowley, Company Secretary.", [("Ann Rowley", "Company Secretary")]),
        ("Chair of the Board, Mrs Ann Rowley, was told.", [("Mrs Ann Rowley", "Chair of the Board")]),
        ("Written by: Ann Rowley", [("Ann Rowley", "")]),
        ("Witness: Tom Ince", [("Tom Ince", "")]),
        ("Inspected by T. B. Ince", [("T. B. Ince", "")]),
    ],
)
def test_a_person_with_title_and_role(document, text, expected):
    assert found(document, text) == expected


@pytest.mark.parametrize(
    "text",
    [
        "Calder Bank Plumbing Ltd, the owner, left.",
        "Low Weir Mill, Hebblethorpe, was shut.",
        "The Fire Officer was told.",
        "Monday, the owner said, would do.",
        "Mr March Limited of Mill Lane sold it.",
        "North Yorkshire is wet.",
        "Prepared by the board.",
        "",
    ],
)
def test_what_is_no_person(document, text):
    assert found(document, text) == []


@pytest.mark.parametrize(
    ("text", "people"),
    [
        ("Ann Rowley, site manager, came. Mr Rowley left.", 1),  # one surname, and nothing that tells them apart
        ("Dr Pia Lund came. P. Lund, the assessor, left.", 1),
        ("Dr Pia Lund came. Mr Tom Lund left.", 2),
        ("Dr Pia Lund came. Dr Pia Lund left. Dr Pia Lund came again.", 1),
        ("Mr Tom Ince and Mrs Ann Rowley met Dr Pia Lund.", 3),
    ],
)
def test_several_forms_of_a_name_are_one_person(document, text, people):
    assert len(found(document, text)) == people


def test_each_mention_is_cited_up_to_six(document):
    (item,) = people_of(document("Dr Pia Lund came. " * 9, "note.md"))
    assert len(item.cites) == 6
    assert all("Lund" in cite.quote for cite in item.cites)


def test_the_longest_form_and_the_first_role_are_kept(document):
    (person,) = found(document, "Mr Ince, the foreman, rang. Later Tom Ince, site manager, came.")
    assert person == ("Mr Tom Ince", "the foreman")


def test_a_roster_of_people_names_its_source(document):
    listed = roster(document("Dr Pia Lund met Mr Tom Ince.", "note.md"), "people")
    assert [item.text for item in listed.items] == ["Dr Pia Lund", "Mr Tom Ince"]
    assert "people" in listed.source


def test_a_qualified_roster_of_people_is_no_list_of_everyone(document):
    listed = roster(document("Dr Pia Lund met Mr Tom Ince.", "note.md"), "people hurt")
    assert not listed.items


@given(st.text(alphabet=st.characters(exclude_categories=["Cs", "Cc"]), max_size=200))
def test_any_text_gives_names_that_stand_in_it(text):
    document = read_text(text.encode("utf-8", "ignore"), "any.txt", "0" * 64)
    for item in people_of(document):
        for cite in item.cites:
            assert cite.quote
            assert cite.span.of(document.text).strip()


@pytest.mark.parametrize(
    "text",
    [
        "The Wool Exchange (owner) was shut. A wool exchange is a market.",
        "The shop is in the Mill Precinct, owner unknown. “Mill Precinct” means the yard.",
        "An Upper Sorter, operator of the belt, is needed. The upper sorter sits above.",
    ],
)
def test_things_with_capitals_are_nobody(document, text):
    assert found(document, text) == []
