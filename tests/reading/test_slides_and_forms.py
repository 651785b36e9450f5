"""Cards of slides, forms whose labels and values take turns, years that head columns."""

from __future__ import annotations

import io

import pytest
from pptx import Presentation
from pptx.util import Inches

from yarnex.core.reading.layout.tables import CellDraft, TableDraft, header_rows
from yarnex.core.reading.layout.words import Segment, Word
from yarnex.core.reading.slides import read_pptx
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import SCALE

CARDS = [("£30.1m", "Revenue"), ("8.6 %", "Operating margin"), ("412", "People")]


def slide(*boxes: tuple[float, float, str]):
    deck = Presentation()
    page = deck.slides.add_slide(deck.slide_layouts[5])
    page.shapes.title.text = "Results"
    for x, y, text in boxes:
        page.shapes.add_textbox(Inches(x), Inches(y), Inches(2), Inches(0.5)).text_frame.text = text
    out = io.BytesIO()
    deck.save(out)
    return read_pptx(out.getvalue(), "a.pptx", "0" * 64)


def labelled(document) -> dict[str, str]:
    return {row.label: row.value.of(document.text) for row in Passages(document).labelled}


@pytest.mark.parametrize("above", [True, False])
def test_figures_over_or_under_captions_are_labelled(above):
    boxes = []
    for i, (figure, caption) in enumerate(CARDS):
        boxes += [
            (0.3 + 2.5 * i, 2.0, figure if above else caption),
            (0.3 + 2.5 * i, 2.6, caption if above else figure),
        ]
    assert labelled(slide(*boxes)) == {caption: figure for figure, caption in CARDS}


def test_a_card_may_be_one_shape():
    document = slide(*((0.3 + 2.5 * i, 2.0, f"{figure}\n{caption}") for i, (figure, caption) in enumerate(CARDS)))
    assert labelled(document) == {caption: figure for figure, caption in CARDS}


def test_plain_boxes_are_no_cards():
    document = slide((0.3, 2.0, "Costs fell"), (3.0, 2.0, "Prices rose"), (0.3, 2.6, "by 3 %"), (6.0, 4.0, "People"))
    assert not document.tables


def form(document, *rows: str):
    return labelled(document("\n".join(rows)))


def test_labels_and_values_that_take_turns(document):
    found = form(
        document,
        "Lender      Weir Bank plc      Margin      2.1 %",
        "Start       1 March 2027       Term        84 months",
        "Fee         £1,750             Reference   WB/7781",
    )
    assert found["Margin"] == "2.1 %"
    assert found["Lender"] == "Weir Bank plc"
    assert found["Term"] == "84 months"
    assert found["Fee"] == "£1,750"


def table(*rows: tuple[str, ...]) -> TableDraft:
    cells = [
        CellDraft(r, c, 1, 1, [Segment([Word(text, 0, 0, 0, 0, 10, False)])])
        for r, row in enumerate(rows)
        for c, text in enumerate(row)
    ]
    return TableDraft(cells, len(rows), len(rows[0]), 0, True, 0, 0, 0, 0)


@pytest.mark.parametrize(
    ("rows", "heads"),
    [
        ([("£000", "2027", "2028"), ("Rent", "205", "212")], 1),
        ([("", "FY26", "FY27E"), ("Rent", "205", "212")], 1),
        ([("", "31 March 2026", "31 March 2025"), ("Rent", "205", "212")], 1),
        ([("Built", "2014", "2017"), ("Bought", "2015", "2018")], 0),
        ([("Bales", "205", "212"), ("Lorries", "5", "6")], 0),
    ],
)
def test_years_over_columns_name_them(rows, heads):
    assert header_rows(table(*rows)) == heads


@pytest.mark.parametrize(
    ("words", "scale"),
    [("£000", "thousand"), ("€000s", "thousand"), ("£m", "million"), ("US$bn", "billion"), ("1000 kg", None), ("£2,000", None)],
)  # fmt: skip
def test_scales_of_headings(words, scale):
    found = SCALE.search(words)
    assert (found.lastgroup if found else None) == scale
