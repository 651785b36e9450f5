"""Values found by plain words: lines, ideas, units, and sheets of one's own that hold only labels."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, parse_sheet
from yarnex.core.terms.by_words import ideas_of, matcher_of
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import LineValues
from yarnex.output.wording import said

OFFER = """# Offer for a carding machine

We quote for one machine of type K9 as described below.

| Property | Requirement | Offered |
| --- | --- | --- |
| Weight, dry | max. 5,200 kg | 4,870 kg |
| Noise at 2 m | max. 80 dB(A) | 77 dB(A) |
| Throughput | | 310 kg |

Warranty: 18 months from delivery.

A longer warranty, to 36 months in all, costs €2,400.

The machine will be with you sixteen weeks after your order.

Our engineer is at your door within nine hours of a call.
"""


def find(document, words: str, kind: str):
    passages = Passages(document(OFFER, "offer.md"))
    hits = matcher_of(passages).ranked(ideas_of(words), LineValues(passages).finder(kind))
    return hits[0].found.span.of(passages.text) if hits else None


@pytest.mark.parametrize(
    ("words", "kind", "value"),
    [
        ("how heavy is it when dry", "number", "4,870 kg"),
        ("sound level", "number", "77 dB(A)"),
        ("guarantee period", "duration", "18 months"),
        ("delivery after the order", "duration", "sixteen weeks"),
        ("price of the extended warranty", "money", "€2,400"),
        ("time until the engineer comes after a call", "duration", "nine hours"),
    ],
)
def test_the_value_that_the_words_ask_for(document, words, kind, value):
    assert find(document, words, kind) == value


MINE = """sheet: "mine"
label: "Mine"
terms:
  - {label: "Dry weight", type: "number", required: true}
  - {label: "Warranty", type: "duration", format: "years"}
  - {label: "Penalty for delay", type: "percent", required: true}
  - {label: "Currency", type: "text", names: ["currency"], allowed: ["EUR", "GBP"]}
"""


def test_a_sheet_of_labels_alone_is_filled(document):
    filled = abstract(document(OFFER, "offer.md"), parse_sheet(MINE, "mine.yaml"))
    assert said(filled.finding("dry_weight")) == "4,870 kg"
    assert said(filled.finding("warranty")) == "18 months"  # no whole number of years
    missing = filled.finding("penalty_for_delay")
    assert missing.state == "not_found"
    assert missing.why


def test_words_that_stand_nowhere_find_nothing(document):
    assert find(document, "moon landing", "number") is None


@pytest.mark.parametrize(
    ("text", "kind", "values"),
    [
        ("It covers 12 mills and 3 barns under clause 14 since 2019.", "number", ["12", "3"]),
        ("See Schedule 2, item 7 and note 4.", "number", []),
        ("At minus 28 °C it holds 5.5 bar.", "number", ["minus 28 °C", "5.5 bar"]),
        ("The ratio is 1.25:1 at 10:15.", "number", ["1.25:1"]),
        ('This is made between Hebble Wool Limited (the "Seller") and Dr Ada Thorne. The Seller pays.', "party", ["Hebble Wool Limited", "Seller", "Dr Ada Thorne", "Seller"]),
    ],
)  # fmt: skip
def test_values_of_a_type_in_a_line(document, text, kind, values):
    passages = Passages(document(text))
    finder = LineValues(passages).finder(kind)
    found = [
        f.span.of(passages.text)
        for line in matcher_of(passages).lines.lines
        if line.kind == "sentence"
        for f in finder(line)
    ]
    assert found == values


def test_a_bare_figure_takes_currency_and_scale_from_over_it(document):
    text = "Costs in €'000\n\n| Item | 2025 |\n| --- | --- |\n| Carding | 1,250 |\n"
    passages = Passages(document(text, "t.md"))
    hits = matcher_of(passages).ranked(ideas_of("cost of carding"), LineValues(passages).finder("money"))
    assert hits[0].found.value.to_dict() == {"type": "money", "value": 1250000, "currency": "EUR"}


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("Paid in Australia.\n\n| Item | Price ($) |\n| --- | --- |\n| Carding | 40 |\n", ["AUD 40"]),
        ("A frame is $30. @\n\n| Item | Price |\n| --- | --- |\n| Carding | 40 |\n", ["USD 40"]),
        ("A frame is $30. @\n\n| Total | 40 |\n| --- | --- |\n| Carding total | 40.00 |\n", ["USD 40"]),
        ("A frame is $30. @\n\n| Item | Frames |\n| --- | --- |\n| Carding total | 40 |\n", []),
    ],
)
def test_bare_figures_of_a_column_are_sums_where_it_says_so(document, text, found):
    passages = Passages(document(text.replace("@", "The frames stand in dry barns. " * 8), "t.md"))
    values = LineValues(passages)
    cells = [line for line in matcher_of(passages).lines.lines if line.kind == "cell"]
    sums = [f.value for line in cells for f in values.finder("money")(line)]
    assert [f"{v.currency} {v.amount.normalize():f}" for v in sums] == found
