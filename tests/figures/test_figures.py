"""Figures of tables, sentences and tags, from small reports in the test itself."""

from __future__ import annotations

from decimal import Decimal

import pytest

from yarnex.core.figures import figures_of
from yarnex.core.figures.asked import best_of_each_period, figures_named
from yarnex.core.figures.checks import check_figures
from yarnex.core.figures.series import chart_series, parts_of_sum
from yarnex.core.figures.spread import spread
from yarnex.core.reading.html import read_html

REPORT = """# Brackenfold Holdings Limited

# Annual report for the year ended 30 June 2026

Revenue rose by 6.2 per cent to £61.5 million in the year to 30 June 2026. Operating profit was £6.8 million (2025: £6.0 million).

The allowance for expected credit losses was £412,000. We expect revenue of £64 million next year.

## Consolidated income statement

| | Note | 2026 £’000 | 2025 £’000 |
| --- | --- | --- | --- |
| Revenue | 4 | 61,480 | 57,905 |
| Cost of sales | | (39,962) | (37,988) |
| Gross profit | | 21,518 | 19,917 |
| Other costs | 5 | (14,694) | (13,920) |
| Operating profit | | 6,824 | 5,997 |
| Exceptional items | | – | n/a |
| Earnings per share (pence) | | | |
| Basic | 8 | 14.99 | 14.59 |

## Consolidated statement of financial position

| | 2026 £’000 | 2025 £’000 |
| --- | --- | --- |
| Total assets | 60,059 | 57,137 |
| Current liabilities | | |
| Borrowings | (2,400) | (2,000) |
| Non-current liabilities | | |
| Borrowings | (16,200) | (17,100) |
| Total liabilities | (34,429) | (34,585) |
| Net assets | 25,630 | 22,552 |

## Segments

| £’000 | Revenue 2026 | Revenue 2025 |
| --- | --- | --- |
| Worsted yarn | 34,210 | 32,470 |
| Woollen yarn | 27,270 | 25,435 |
| Group | 61,480 | 57,905 |

## Statement of changes in equity

| £’000 | Share capital | Retained earnings | Total |
| --- | --- | --- | --- |
| At 1 July 2025 | 2,400 | 20,152 | 22,552 |
| Profit for the year | – | 3,598 | 3,598 |
| Dividends | – | (520) | (520) |
| At 30 June 2026 | 2,400 | 23,230 | 25,630 |

## Correction of an error

| £’000, year ended 30 June 2025 | As reported | Adjustment | As restated |
| --- | --- | --- | --- |
| Revenue | 58,300 | (395) | 57,905 |
"""


@pytest.fixture
def report(document):
    return document(REPORT, "annual.md")


def one(figures, label, end, months=None, source="table"):
    found = [
        f for f in figures
        if f.label == label and f.source == source and f.period and f.period.end.isoformat() == end and (months is None or f.period.months == months)
    ]  # fmt: skip
    assert found, (label, end)
    return found[0]


def test_figures_of_statements_carry_period_unit_and_plain_value(report):
    figures = figures_of(report)
    revenue = one(figures, "Revenue", "2026-06-30", 12)
    assert (revenue.value, revenue.unit, revenue.as_printed, revenue.basis, revenue.statement) == (
        Decimal(61_480_000),
        "GBP",
        "61,480",
        "consolidated",
        "profit_or_loss",
    )
    assert revenue.cite.quote == "61,480"
    assert "Revenue" in revenue.cites[0].quote
    assets = one(figures, "Total assets", "2025-06-30", 0)
    assert assets.value == 57_137_000
    assert one(figures, "Gross profit", "2025-06-30").value == 19_917_000


def test_note_numbers_are_no_figures_and_nil_is_not_none(report):
    figures = figures_of(report)
    assert not [f for f in figures if f.as_printed in ("4", "5", "8")]
    nil = one(figures, "Exceptional items", "2026-06-30")
    none = one(figures, "Exceptional items", "2025-06-30")
    assert nil.value == 0
    assert none.value is None


def test_amounts_a_share_are_not_scaled(report):
    eps = one(figures_of(report), "Basic", "2026-06-30")
    assert (eps.value, eps.unit, eps.per, eps.item) == (Decimal("14.99"), "pence", "share", "eps_basic")


def test_the_same_label_is_told_apart_by_its_heading(report):
    borrowings = [f.item for f in figures_of(report) if f.label == "Borrowings"]
    assert borrowings == ["borrowings_current"] * 2 + ["borrowings_noncurrent"] * 2


def test_segments_movements_and_restatements(report):
    figures = figures_of(report)
    segment = one(figures, "Revenue – Worsted yarn", "2026-06-30")
    assert (segment.basis, segment.value, segment.item) == ("segment", 34_210_000, "")
    opening = one(figures, "Retained earnings", "2025-06-30", 0)
    assert opening.value == 20_152_000
    dividends = one(figures, "Dividends – Retained earnings", "2026-06-30", 12)
    assert (dividends.value, dividends.unit, dividends.per) == (-520_000, "GBP", "")
    marks = {f.as_printed: f.marks for f in figures if f.as_printed in ("58,300", "57,905") and f.marks}
    assert marks == {"58,300": ("as reported",), "57,905": ("restated",)}


def test_numbers_in_sentences_have_label_and_period(report):
    spoken = {(f.label, f.as_printed): f for f in figures_of(report) if f.source == "sentence"}
    revenue = spoken["Revenue", "£61.5 million"]
    assert (revenue.value, revenue.period.months, revenue.item) == (Decimal("61500000"), 12, "revenue")
    before = spoken["Operating profit", "£6.0 million"]
    assert before.period.end.isoformat() == "2025-06-30"
    assert spoken["Allowance for expected credit losses", "£412,000"].value == 412_000
    assert "forecast" in spoken["Revenue", "£64 million"].marks


def test_points_of_a_list_of_highlights_tell_figures_and_the_year_before(document):
    paper = document(
        "# Weir Yarns plc\n\n## Results for the first quarter ended 30 September 2028\n\n### Highlights\n\n"
        "- Revenue £18.6 million (2027: £17.1 million), up 8.8 per cent\n- Earnings per share 3.4 pence (2027: 3.0 pence)\n\n"
        "We expect capital expenditure of about £6 million for the year. Our largest customer took £4.0 million.\n",
        "quarter.md",
    )
    told = {(f.label, f.as_printed, f.period.end.isoformat() if f.period else "") for f in figures_of(paper)}
    assert told == {
        ("Revenue", "£18.6 million", "2028-09-30"),
        ("Revenue", "£17.1 million", "2027-09-30"),
        ("Earnings per share", "3.4 pence", "2028-09-30"),
        ("Earnings per share", "3.0 pence", "2027-09-30"),
        ("Capital expenditure", "£6 million", ""),
    }


def test_a_line_of_the_period_is_that_line(document):
    paper = document(
        "# Weir Yarns plc\n\nTrading update for the six months to 31 December 2028\n\nTurnover for the half year was about £24 million "
        "(2027: £21.5 million). Net debt at the period end was £6.4 million. The interim dividend will be 3.1p.\n",
        "update.md",
    )
    lines = {(f.item, f.as_printed) for f in figures_of(paper)}
    assert {("revenue", "£24 million"), ("revenue", "£21.5 million"), ("net_debt", "£6.4 million")} <= lines
    assert not [f for f in figures_of(paper) if "will be" in f.label]


def test_people_ask_in_their_own_words(report):
    figures = figures_of(report)
    (sales,) = figures_named(figures, "sales")
    assert {f.period.end.year for f in best_of_each_period(sales.figures)} == {2025, 2026}
    assert [m.line.id for m in figures_named(figures, "debt")] == ["borrowings_current", "borrowings_noncurrent"]
    assert figures_named(figures, "wool in transit") == ()
    (by_words,) = figures_named(figures, "other costs")
    assert by_words.line is None


def test_checks_pass_on_a_sound_report(report):
    checks = check_figures(figures_of(report))
    assert [c.what for c in checks if not c.passed and c.kind != "restated"] == []
    assert [c.difference for c in checks if c.kind == "restated"] == [-395_000]
    assert {"cast", "balance"} <= {c.kind for c in checks}


@pytest.mark.parametrize(
    ("right", "wrong", "kind", "says"),
    [
        ("| Gross profit | | 21,518 | 19,917 |", "| Gross profit | | 21,581 | 19,917 |", "cast", "printed is 21,581"),
        ("| Net assets | 25,630 | 22,552 |", "| Net assets | 25,360 | 22,552 |", "balance", "not so"),
        ("to £61.5 million in the year", "to £65.1 million in the year", "same", "£65.1 million"),
        ("| Worsted yarn | 34,210 | 32,470 |", "| Worsted yarn | 34,201 | 32,470 |", "cast", "printed is 61,480"),
        (
            "| At 30 June 2026 | 2,400 | 23,230 | 25,630 |",
            "| At 30 June 2026 | 2,400 | 23,230 | 25,603 |",
            "cast",
            "25,603",
        ),
    ],
)
def test_a_slip_is_found_with_both_places(document, right, wrong, kind, says):
    assert right in REPORT
    checks = check_figures(figures_of(document(REPORT.replace(right, wrong), "slip.md")))
    failed = [c for c in checks if not c.passed and c.kind == kind]
    assert any(says in c.what for c in failed), [c.what for c in checks if not c.passed]
    assert all(c.cites for c in failed)


def test_rounding_is_no_failure(document):
    table = "# Annual report for the year ended 30 June 2026\n\n| £m | 2026 | 2025 |\n| --- | --- | --- |\n| Wool | 1.4 | 2.0 |\n| Dye | 1.4 | 3.0 |\n| Total | 2.9 | 5.0 |\n"
    assert all(c.passed for c in check_figures(figures_of(document(table, "rounded.md"))))


def test_interim_columns_of_bare_years_are_interim_periods(document):
    paper = "# Half-year report for the six months ended 31 December 2025\n\nThe year ended 30 June 2025 was audited.\n\n## Segments\n\n| £’000 | 2025 External revenue | 2024 External revenue |\n| --- | --- | --- |\n| Yarn | 100 | 90 |\n| Dye | 50 | 40 |\n"
    periods = {(f.period.end.isoformat(), f.period.months) for f in figures_of(document(paper, "half.md"))}
    assert periods == {("2025-12-31", 6), ("2024-12-31", 6)}


HALF = """# Brackenfold Holdings Limited

# Half-year report for the six months ended 31 December 2026

## Consolidated income statement

| £’000 | Six months ended 31 December 2026 | Six months ended 31 December 2025 | Year ended 30 June 2026 |
| --- | --- | --- | --- |
| Revenue | 31,900 | 30,120 | 61,480 |
| Gross profit | 11,200 | 10,510 | 21,518 |
| Operating profit | 3,500 | 3,295 | 6,824 |
| Profit for the period | 2,000 | 1,945 | 3,598 |
"""


def test_a_spread_sets_lines_side_by_side_and_works_out_twelve_months(document):
    papers = [document(REPORT, "annual.md"), document(HALF, "half.md")]
    made = spread(papers, [f for d in papers for f in figures_of(d)])
    labels = [c.label for c in made.columns]
    assert labels[:2] == ["6 months to 31 Dec 2026", "year to 31 Dec 2026 (worked out)"]
    rows = {r.id: r for r in made.rows}
    trailing = rows["revenue"].cells[1]
    assert trailing.value == 61_480_000 + 31_900_000 - 30_120_000
    assert "61,480,000" in trailing.formula
    assert rows["gross_margin"].cells[0].value == Decimal("35.1")
    assert rows["growth_revenue"].cells[0].value == Decimal("5.9")
    assert all(cell is None or cell.cites for row in made.rows for cell in row.cells)
    assert made.to_dict()["columns"][0]["company"]


def test_a_spread_by_company_gives_each_its_latest_period(document):
    other = HALF.replace("Brackenfold Holdings Limited", "Fleece Brothers Limited").replace("31,900", "12,000")
    papers = [document(HALF, "half.md"), document(other, "other.md")]
    made = spread(papers, [f for d in papers for f in figures_of(d)], by="company")
    assert len(made.columns) == 2
    assert len({c.company for c in made.columns}) == 2


def test_series_for_charts(report):
    figures = figures_of(report)
    data = chart_series([report], figures, ["revenue"])
    assert [p.value for p in data.series[0].points] == [57_905_000, 61_480_000]
    parts = chart_series([report], figures, ["revenue"], "segment")
    assert [p.label for p in parts.series[0].points] == ["Worsted yarn", "Woollen yarn"]
    assert chart_series([report], figures, ["bales"]) is None
    sum_of = parts_of_sum(figures, "operating profit")
    assert sum_of is not None
    assert sum(p.value for p in sum_of.series[0].points[:-1]) == sum_of.series[0].points[-1].value


TAGGED = """<html xmlns="http://www.w3.org/1999/xhtml" xmlns:ix="http://www.xbrl.org/2013/inlineXBRL" xmlns:xbrli="http://www.xbrl.org/2003/instance">
<body><div style="display:none"><ix:header><ix:resources>
<xbrli:context id="y"><xbrli:entity><xbrli:identifier scheme="x">B</xbrli:identifier></xbrli:entity><xbrli:period><xbrli:startDate>2025-07-01</xbrli:startDate><xbrli:endDate>2026-06-30</xbrli:endDate></xbrli:period></xbrli:context>
<xbrli:context id="d"><xbrli:entity><xbrli:identifier scheme="x">B</xbrli:identifier></xbrli:entity><xbrli:period><xbrli:instant>2026-06-30</xbrli:instant></xbrli:period></xbrli:context>
<xbrli:unit id="gbp"><xbrli:measure>iso4217:GBP</xbrli:measure></xbrli:unit>
</ix:resources></ix:header></div>
<h1>Annual report for the year ended 30 June 2026</h1>
<table><tr><th></th><th>2026 £’000</th></tr>
<tr><td>Revenue</td><td><ix:nonFraction name="a:Revenue" contextRef="y" unitRef="gbp" scale="3" decimals="-3" format="ixt:num-dot-decimal">61,480</ix:nonFraction></td></tr>
<tr><td>Finance costs</td><td>(<ix:nonFraction name="a:FinanceCosts" contextRef="y" unitRef="gbp" scale="3" decimals="-3" sign="-" format="ixt:num-dot-decimal">1,472</ix:nonFraction>)</td></tr>
<tr><td>Cash</td><td><ix:nonFraction name="a:Cash" contextRef="d" unitRef="gbp" scale="3" decimals="-3" format="ixt:num-comma-decimal">3.127</ix:nonFraction></td></tr></table>
</body></html>"""


def test_tagged_facts_are_exact_and_stand_before_what_is_printed():
    paper = read_html(TAGGED.encode(), "report.xhtml", "0" * 64)
    figures = {f.label: f for f in figures_of(paper)}
    assert (figures["Revenue"].value, figures["Revenue"].source, figures["Revenue"].period.months) == (
        61_480_000,
        "tagged",
        12,
    )
    assert figures["Finance costs"].value == -1_472_000
    assert (figures["Cash"].value, figures["Cash"].period.months) == (3_127_000, 0)
    assert figures["Revenue"].concept == "a:Revenue"
    assert all(c.passed for c in check_figures(list(figures.values())))


def test_a_tagged_cost_is_added_up_with_the_sign_of_its_column():
    def fact(name: str, words: str) -> str:
        return f'<ix:nonFraction name="a:{name}" contextRef="y" unitRef="gbp" scale="3" decimals="-3" format="ixt:num-dot-decimal">{words}</ix:nonFraction>'

    start = TAGGED.index("<tr><td>Revenue")
    rows = "".join(
        f"<tr><td>{label}</td><td>{open_}{fact(name, words)}{close}</td><td>{earlier}</td></tr>"
        for label, name, open_, words, close, earlier in (
            ("Profit before taxation", "ProfitBeforeTax", "", "4,797", "", "4,668"),
            ("Taxation", "Tax", "(", "1,199", ")", "(1,167)"),
            ("Profit for the year", "Profit", "", "3,598", "", "3,501"),
        )
    )
    paper = read_html((TAGGED[:start] + rows + TAGGED[TAGGED.index("</table>") :]).encode(), "report.xhtml", "0" * 64)
    figures = figures_of(paper)
    assert {f.value for f in figures if f.concept == "a:Tax"} == {1_199_000}  # exact, as it is tagged
    casts = [c for c in check_figures(figures) if c.kind == "cast"]
    assert casts
    assert all(c.passed for c in casts)


def test_a_figure_as_json(report):
    shown = one(figures_of(report), "Revenue", "2026-06-30").to_dict()
    assert {"document", "label", "statement", "basis", "period", "value", "unit", "as_printed", "cites"} <= shown.keys()
    assert shown["period"] == {"end": "2026-06-30", "months": 12}
