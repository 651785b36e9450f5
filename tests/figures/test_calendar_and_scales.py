"""Periods, scales and standard lines as headings and labels say them."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.figures.calendar import before, read_heading, year_ends
from yarnex.core.figures.lines import line_of, line_vocabulary, lines_meant, name_key
from yarnex.core.figures.scales import Scale, read_row_unit, read_scale

JUNE = year_ends("Accounts for the year ended 30 June 2026. The six months ended 31 December 2025 were good.")
DECEMBER = year_ends("Annual report for the year ended 31 December 2025.")

HEADINGS = [
    ("2026 £’000", "2026-06-30", 12, ()),
    ("2025 restated¹", "2025-06-30", 12, ("restated",)),
    ("Six months ended 31 December 2025 (unaudited)", "2025-12-31", 6, ("unaudited",)),
    ("Half year ended 31 December 2025", "2025-12-31", 6, ()),
    ("30 June 2026", "2026-06-30", 0, ()),
    ("As at 30 June 2026 (audited)", "2026-06-30", 0, ("audited",)),
    ("H1 25/26", "2025-12-31", 6, ()),
    ("FY26", "2026-06-30", 12, ()),
    ("FY 2025/26", "2026-06-30", 12, ()),
    ("Q1 FY26", "2025-09-30", 3, ()),
    ("9M FY26", "2026-03-31", 9, ()),
    ("2027 forecast", "2027-06-30", 12, ("forecast",)),
    ("Target 2025/26", "2026-06-30", 12, ("target",)),
    ("Three months to September 30, 2025", "2025-09-30", 3, ()),
    ("52 weeks ended 28 June 2026", "2026-06-28", 12, ()),
    ("Jun-26", "2026-06-30", 12, ()),
]


@pytest.mark.parametrize(("words", "end", "months", "marks"), HEADINGS)
def test_reads_the_period_of_a_heading(words, end, months, marks):
    said = read_heading(words, JUNE)
    assert said.period is not None
    assert (said.period.end.isoformat(), said.period.months, said.marks) == (end, months, marks)


@pytest.mark.parametrize(
    ("words", "left"),
    [
        ("Revenue 2026", "Revenue"),
        ("2026 External revenue", "External revenue"),
        ("Revenue H1 25/26", "Revenue"),
        ("Note", "Note"),
        ("Board (9)", "Board (9)"),
    ],
)
def test_keeps_what_is_no_period(words, left):
    assert read_heading(words, JUNE).rest == left


@pytest.mark.parametrize("words", ["Note", "Adjustment", "£250 million", "Series A, 3.42%", "Unit 2024"])
def test_headings_without_a_period(words):
    said = read_heading(words, year_ends("Nothing is said of years here."))
    assert said.period is None


def test_the_year_end_is_the_papers_own():
    assert (JUNE.month, JUNE.day) == (6, 30)
    assert JUNE.main.months == 12
    assert DECEMBER.end_of(2024) == date(2024, 12, 31)
    assert JUNE.length_of(date(2025, 12, 31)) == 6
    weeks = year_ends("Results for the 53 weeks ended 4 January 2026 and the 52 weeks ended 29 December 2024.")
    assert weeks.end_of(2025) == date(2026, 1, 4)


def test_opening_balances_stand_on_the_day_before():
    assert before(date(2026, 6, 30), 12) == date(2025, 6, 30)
    assert before(date(2026, 2, 28), 6) == date(2025, 8, 31)


@given(st.text("0123456789 HQFYM/–-'’abcd()", max_size=24))
def test_any_heading_is_read(text):
    read_heading(text, JUNE)


@pytest.mark.parametrize(
    ("words", "scale"),
    [
        ("2026 £’000", Scale("GBP", 1000)),
        ("£m unless stated", Scale("GBP", 1_000_000)),
        ("in millions of euros", Scale("EUR", 1_000_000)),
        ("(Rs in crore)", Scale("INR", 10_000_000)),
        ("US$ thousands", Scale("USD", 1000)),
        ("(in thousands)", Scale("", 1000)),
        ("Pence per share", Scale(unit="pence")),
        ("% of sales", Scale(unit="percent")),
        ("Note", Scale()),
        ("2026", Scale()),
    ],
)
def test_reads_the_scale_of_a_heading(words, scale):
    assert read_scale(words) == scale


@pytest.mark.parametrize(
    ("label", "scale", "bare"),
    [
        ("Basic earnings per share (pence)", Scale(factor=1, unit="pence"), "Basic earnings per share"),
        ("Leakage (megalitres a day)", Scale(factor=1, unit="megalitres a day"), "Leakage"),
        ("Gearing (%), not above", Scale(factor=1, unit="percent"), "Gearing"),
        ("Shares (thousand)", Scale(factor=1000), "Shares"),
        ("Profit attributable to owners (£’000)", Scale("GBP", 1000), "Profit attributable to owners"),
        ("Contract assets (unbilled revenue)", Scale(), "Contract assets (unbilled revenue)"),
    ],
)
def test_reads_the_unit_behind_a_label(label, scale, bare):
    assert read_row_unit(label) == (scale, bare)


@pytest.mark.parametrize(
    ("label", "path", "line"),
    [
        ("Turnover", (), "revenue"),
        ("Profit after taxation", (), "profit"),
        ("Borrowings", ("Current liabilities",), "borrowings_current"),
        ("Borrowings", ("Non-current liabilities",), "borrowings_noncurrent"),
        ("Borrowings", (), "borrowings"),
        ("Basic", ("Earnings per share (pence)",), "eps_basic"),
        ("Owners of the Company", ("Attributable to:",), "profit_owners"),
        ("Net debt¹ at period end", (), "net_debt"),
    ],
)
def test_knows_standard_lines_by_label_and_heading(label, path, line):
    assert line_of(label, path).id == line


@pytest.mark.parametrize(("label", "path"), [("Basic", ()), ("Wool bought", ()), ("Owners of the Company", ())])
def test_labels_that_are_no_standard_line(label, path):
    assert line_of(label, path) is None


def test_a_name_with_several_meanings_gives_each():
    assert [line.id for line in lines_meant("EPS")] == ["eps_basic", "eps_diluted"]
    assert [line.id for line in lines_meant("profit after tax")] == ["profit", "profit_owners"]
    assert lines_meant("bales of wool") == ()


def test_every_name_in_the_vocabulary_leads_to_its_line():
    for line in line_vocabulary().lines.values():
        for name in line.names:
            assert line in line_vocabulary().by_name[name_key(name)]


@pytest.mark.parametrize(
    ("heading", "end", "months"),
    [
        ("Jan-Sep 2026", date(2026, 9, 30), 9),
        ("January to June 2026", date(2026, 6, 30), 6),
        ("Apr–Jun 26", date(2026, 6, 30), 3),
    ],
)
def test_from_month_to_month(heading, end, months):
    period = read_heading(heading, DECEMBER).period
    assert (period.end, period.months) == (end, months)


@pytest.mark.parametrize(
    ("title", "end", "months"),
    [
        ("Tarn Garn ASA - Third quarter 2026", date(2026, 9, 30), 3),
        ("Tarn Garn, H1 2026", date(2026, 6, 30), 6),
        ("Tarn Garn, annual report 2026", None, 0),
    ],
)
def test_the_period_that_the_head_of_a_report_names(title, end, months):
    main = year_ends(f"{title}\n\nSales rose.").main
    assert (main.end, main.months) == (end, months) if end else main is None


@pytest.mark.parametrize(
    ("label", "line"),
    [("Earnings per share, NOK", "eps_basic"), ("Operating revenue, £m", "revenue"), ("Dividends, net", None)],
)
def test_a_unit_behind_the_name_of_a_line(label, line):
    found = line_of(label)
    assert (found.id if found else None) == line
