from __future__ import annotations

from yarnex.core.search import roster

PAPER = """# Sheds of the mill

Site 1 – Weir Yard. The oldest shed, with two carding engines.

Site 2 – Low Shed. Used for bales.

03 Mill Lane. A yard with a weighbridge.

04 Skerra Gate. Rented since 2019.

Canal Wharf (site 5). Six bays on the water.

We also looked at Tarn House (site 6), which stands empty. The gate at Canal Wharf (site 5) sticks.
"""


def test_entries_of_several_styles_are_one_list_by_number(document):
    found = roster(document(PAPER, "sheds.md"), "sites")
    assert [(i.number, i.text) for i in found.items] == [
        ("1", "Weir Yard"),
        ("2", "Low Shed"),
        ("3", "Mill Lane"),
        ("4", "Skerra Gate"),
        ("5", "Canal Wharf"),
        ("6", "Tarn House"),
    ]
    assert found.gaps == ()


def test_a_gap_in_the_numbers_is_said(document):
    found = roster(document(PAPER.replace("04 Skerra Gate. Rented since 2019.", ""), "sheds.md"), "sites")
    assert [i.number for i in found.items] == ["1", "2", "3", "5", "6"]
    assert "4" in " ".join(found.gaps)


def test_numbers_of_other_things_make_no_list(document):
    text = "01 Weir Yard. One.\n\n02 Low Shed. Two.\n\n03 Mill Lane. Three.\n\n04 Skerra Gate. Four.\n\n05 Wharf Row. Five."
    assert "numbered as" not in roster(document(text), "lenders").source


def test_a_word_that_the_patterns_use_themselves_is_no_trouble(document):
    paper = document(PAPER, "sheds.md")
    for of in ("names", "numbers", "and", "ones"):
        assert "numbered as" not in roster(paper, of).source
