"""Headline figures of a report's sheet: from the statements, of the group, for the report's own period."""

from __future__ import annotations

import io
from decimal import Decimal

import openpyxl
import pytest

import yarnex
from yarnex.core.errors import PackError
from yarnex.core.figures import figures_of
from yarnex.core.figures.headlines import (
    check_figures_of,
    figure_value,
    headline_figure,
    with_headlines,
)
from yarnex.core.figures.model import Figure
from yarnex.core.figures.reporting import reports_figures
from yarnex.core.reading.spreadsheet import read_xlsx
from yarnex.core.terms import abstract_all, parse_sheet
from yarnex.core.terms.sheets import load_sheet, shipped_sheets
from yarnex.core.values import Money, Percent, Quantity

REPORT = """# Brackenfold Holdings Limited

# Annual report for the year ended 30 June 2026

The retail shop had revenue of £2.4 million. We expect revenue of £64 million next year. Profit before tax of the dye works was £0.7 million.

## Consolidated income statement

| | 2026 £’000 | 2025 £’000 |
| --- | --- | --- |
| Revenue | 61,480 | 57,905 |
| Operating profit | 6,824 | 5,997 |
| Profit before taxation | 4,797 | 4,668 |
| Profit for the year | 3,598 | 3,501 |

## Consolidated statement of financial position

| | 2026 £’000 | 2025 £’000 |
| --- | --- | --- |
| Cash and cash equivalents | 3,127 | 2,604 |
| Total assets | 48,210 | 47,001 |
"""


@pytest.fixture
def report(document):
    return document(REPORT, "report.md")


@pytest.mark.parametrize(
    ("term", "amount"),
    [("revenue", 61_480_000), ("operating_profit", 6_824_000), ("profit_before_tax", 4_797_000), ("profit_after_tax", 3_598_000), ("cash", 3_127_000)],
)  # fmt: skip
def test_headlines_are_those_of_the_statements(report, term, amount):
    found = yarnex.abstract(report).finding(term)
    assert found.state == "stated"
    assert found.value == Money(Decimal(amount), "GBP")
    assert "30 Jun 2026" in found.working[0]


def test_a_headline_tells_the_year_before(report):
    found = yarnex.abstract(report).finding("revenue")
    assert [(f.role, f.value, f.text) for f in found.further] == [
        ("year_before", Money(Decimal(57_905_000), "GBP"), "57,905")
    ]
    assert any("a year before: 57,905" in w for w in found.working)


def test_without_the_statements_the_sentences_rival_each_other(report):
    (plain,) = abstract_all([report])
    assert plain.finding("revenue").value != Money(Decimal(61_480_000), "GBP")
    assert with_headlines(plain).finding("revenue").value == Money(Decimal(61_480_000), "GBP")


def test_other_papers_stay_as_they_are(document):
    lease = document("# Lease\n\nThe rent is £4,000 a year.\n", "lease.md")
    (filled,) = abstract_all([lease])
    assert not reports_figures(lease)
    assert with_headlines(filled) is filled


def test_a_term_that_is_no_figure_has_no_headline(report):
    sheet = load_sheet("report")
    figures = figures_of(report)
    auditor = next(t for t in sheet.terms if t.id == "auditor")
    assert headline_figure(auditor, figures) is None
    assert headline_figure(next(t for t in sheet.terms if t.id == "ebitda"), figures) is None


@pytest.mark.parametrize(
    ("unit", "value", "kind"),
    [("GBP", Decimal(4), Money), ("percent", Decimal(4), Percent), ("pence", Decimal(4), Quantity), ("GBP", None, type(None))],
)  # fmt: skip
def test_figures_as_values(report, unit, value, kind):
    figure = Figure(report, figures_of(report)[0].span, "x", ("x",), value, "4", unit)
    assert isinstance(figure_value(figure), kind)


def test_money_spent_is_told_without_its_sign_and_cash_taken_off_a_debt_is_no_cash(document):
    text = REPORT + (
        "\n## Consolidated statement of cash flows\n\n| | 2026 £’000 | 2025 £’000 |\n| --- | --- | --- |\n| Capital expenditure | (4,026) | (3,318) |\n"
    )
    text = text.replace("| Cash and cash equivalents | 3,127 | 2,604 |", "| Cash | (3,127) | (2,604) |")
    filled = yarnex.abstract(document(text, "report.md"))
    spent = filled.finding("capital_expenditure")
    assert spent.value == Money(Decimal(4_026_000), "GBP")
    assert "outflow" in spent.working[1]
    assert filled.finding("cash").value != Money(Decimal(-3_127_000), "GBP")


def test_every_figure_of_the_shipped_sheets_is_a_line_of_the_statements():
    for name in shipped_sheets():
        check_figures_of(load_sheet(name), name)


def test_a_figure_that_is_no_line_is_told_with_its_place():
    sheet = parse_sheet(
        'sheet: "s"\nlabel: "S"\nterms:\n  - {label: "Turnover", type: "money", figure: ["revenu"]}\n', "s.yaml"
    )
    with pytest.raises(PackError, match=r"s\.yaml, line 4: 'revenu' is no line"):
        check_figures_of(sheet, "s.yaml")


def test_a_model_in_a_workbook_gives_its_latest_year_that_is_no_forecast():
    book = openpyxl.Workbook()
    sheet = book.active
    sheet.append(["Brackenfold Holdings Limited, credit model"])
    sheet.append(["Year to 30 June, £m", "2025", "2026", "2027 forecast", "2028 forecast"])
    for row in (
        ("Revenue", 57.9, 61.5, 64.0, 66.0),
        ("EBITDA", 8.1, 9.4, 9.9, 10.2),
        ("Net debt", 20.1, 18.4, 17.0, 16.0),
    ):
        sheet.append(row)
    buffer = io.BytesIO()
    book.save(buffer)
    found = yarnex.abstract(read_xlsx(buffer.getvalue(), "model.xlsx", "0" * 64), "report")
    assert found.finding("revenue").value == Money(Decimal("61500000"), "GBP")
    assert found.finding("ebitda").value == Money(Decimal("9400000"), "GBP")
