"""Tables of sums over time, and terms taken from the clause that is headed with their name."""

from __future__ import annotations

import pytest

from yarnex.core.terms import abstract, load_sheet
from yarnex.core.terms.schedules import column_heads, column_per
from yarnex.core.terms.values_in_lines import of_type
from yarnex.output.wording import said


@pytest.fixture
def filled(document):
    def make(*parts: str):
        return abstract(document("\n\n".join(["# Lease", *parts]), "a.md"), load_sheet("lease"))

    return make


def table(*rows: str) -> str:
    head, *body = rows
    return "\n".join([f"| {head} |", "|" + "---|" * (head.count("|") + 1), *(f"| {row} |" for row in body)])


def rows_of(filled, term="rent_schedule"):
    value = filled.finding(term).value
    return [(r.from_, r.to, str(r.amount.amount), r.amount.per, r.amount.currency) for r in value.rows] if value else []


def test_what_the_other_columns_say_stands_with_each_row(filled):
    rows = ("1|1 May 2026|£12,000|2.5%|Old mill|", "2|1 May 2027|£13,200|3%|Both mills|")
    made = filled("## Rent", table("No.|From|Annual rent|Rise|Covers|Covers", *rows)).finding("rent_schedule").value
    assert made.column == "Annual rent"
    others = [(c.column, c.text, of_type(c.value)) for c in made.rows[1].others]
    assert others == [("No.", "2", "number"), ("Rise", "3%", "percent"), ("Covers", "Both mills", "text")]
    assert made.rows[1].to_dict()["others"][1]["value"] == {"type": "percent", "value": 3}


def test_a_heading_that_reaches_over_the_next_column_is_not_that_column_s():
    from yarnex.core.document import Cell, Span, Table

    cells = ((0, 0, 1, "Period"), (0, 1, 2, "Rate per sq ft"), (0, 2, 1, "Yearly rent"))
    text, made = "", []
    for row, column, wide, words in cells:
        made.append(Cell(row, column, 1, wide, Span(len(text), len(text) + len(words))))
        text += words + "\t"
    table = Table(Span(0, len(text)), 1, 3, 1, tuple(made), True)
    assert column_heads(table, text) == {0: "Period", 1: "Rate per sq ft", 2: "Yearly rent"}


def test_columns_of_the_same_name_are_told_apart(filled):
    rows = ("1|£12,000|Old mill|North", "2|£13,200|Both mills|South")
    made = filled("## Rent", table("Year|Annual rent|Covers|Covers", *rows)).finding("rent_schedule").value
    assert [(c.column, c.text) for c in made.rows[0].others] == [("Covers", "Old mill"), ("Covers (2)", "North")]


@pytest.mark.parametrize(
    ("head", "per"),
    [
        ("Rent per annum", "year"),
        ("Annual Base Rent", "year"),
        ("Monthly instalment", "month"),
        ("Rate per square foot", "sq_ft_year"),
        ("£/sq m", "sq_m_year"),
        ("Quarterly", "quarter"),
        ("Rent", None),
    ],
)
def test_what_a_column_is_paid_for(head, per):
    assert column_per(head) == per


@pytest.mark.parametrize(
    ("label", "from_", "to"),
    [
        ("Year 1", "Year 1", "Year 1"),
        ("Years 1 to 3", "Year 1", "Year 3"),
        ("Years 1-3", "Year 1", "Year 3"),
        ("Lease Year 2", "Lease Year 2", "Lease Year 2"),
        ("Months 1 – 12", "Month 1", "Month 12"),
        ("1 May 2026 to 30 April 2027", "2026-05-01", "2027-04-30"),
        ("From 1 May 2026", "2026-05-01", ""),
        ("2026-05-01 - 2027-04-30", "2026-05-01", "2027-04-30"),
    ],
)
def test_periods(filled, label, from_, to):
    made = filled("## Rent", table("Period|Annual rent", f"{label}|£10,000", "Thereafter|£11,000"))
    assert rows_of(made)[0] == (from_, to, "10000", "year", "GBP")
    assert rows_of(made)[1][:2] == ("Thereafter", "Thereafter")


def test_the_yearly_column_is_taken_wherever_it_stands(filled):
    made = filled(
        "## Rent",
        table("Year|Per sq ft|Monthly rent|Annual rent", "1|£5.00|£1,000|£12,000", "2|£5.50|£1,100|£13,200"),
    )
    assert [r[2:4] for r in rows_of(made)] == [("12000", "year"), ("13200", "year")]
    assert [r[2:4] for r in rows_of(made, "rent_schedule_month")] == [("1000", "month"), ("1100", "month")]


def test_bare_figures_take_no_currency(filled):
    made = filled("## Rent", table("Year|Annual rent", "1|12,000", "2|13,200"))
    assert [r[2:] for r in rows_of(made)] == [("12000", "year", None), ("13200", "year", None)]


@pytest.mark.parametrize(
    "parts",
    [
        ["## Parking", table("Year|Spaces", "1|10", "2|12")],
        ["## Rent", table("Room|Colour", "Yard|Green", "Hall|White")],
        ["## Rent", table("Year|Annual rent", "1|£12,000")],
        ["## Insurance", table("Year|Sum insured", "1|£120,000", "2|£130,000")],
    ],
)
def test_tables_that_are_no_rent_schedule(filled, parts):
    assert filled(*parts).finding("rent_schedule").state == "not_found"


def test_the_whole_table_is_the_quote(filled):
    finding = filled("## Rent", table("Year|Annual rent", "1|£12,000", "2|£13,200")).finding("rent_schedule")
    assert "£12,000" in finding.cites[0].quote
    assert "£13,200" in finding.cites[0].quote


@pytest.mark.parametrize(
    ("parts", "rows"),
    [
        (
            [table("Item|Detail", "Rent|Months 1-4: abated; Months 5-16: $900.00; Months 17-28: $950.00", "Deposit|$1,800")],
            [("Month 5", "Month 16", "900.00", None, "USD"), ("Month 17", "Month 28", "950.00", None, "USD")],
        ),
        (
            ["## Rent", "The annual rent is: Years 1-3 at £40,000; Year 4 at £42,000; and Year 5 at £44,000, in advance."],
            [
                ("Year 1", "Year 3", "40000", "year", "GBP"),
                ("Year 4", "Year 4", "42000", "year", "GBP"),
                ("Year 5", "Year 5", "44000", "year", "GBP"),
            ],
        ),
        (
            ["## Money", "2.1 The Tenant shall pay rent per month:", "- Lease Years 1 to 2: $700;\n- Lease Years 3 to 4: $750."],
            [
                ("Lease Year 1", "Lease Year 2", "700", "month", "USD"),
                ("Lease Year 3", "Lease Year 4", "750", "month", "USD"),
            ],
        ),
        (
            ["## Rent", "The annual rent is: Quarter 1 to\nQuarter 4:\n£3,000; Quarters 5 to 8:\n£3,300."],
            [
                ("Quarter 1", "Quarter 4", "3000", "year", "GBP"),
                ("Quarter 5", "Quarter 8", "3300", "year", "GBP"),
            ],
        ),
        (["## Rent", "The annual rent is: Year 1 £3,000; Month 2 £3,300."], []),
        (["## Rent", "The annual rent is for Year 1:", "£3,000 and for Year 2:", "£3,300 at most."], []),
        (["## Insurance", "The sum insured is: Year 1 £3,000; Year 2 £3,300."], []),
        (["## Rent", "The rent in Year 1 is £3,000 and much later, once the works are done and the yard is open to all, in Year 2 £3,300."], []),
        (["## Rent", "The annual rent is: Year 1 £3,000; Year 4 £3,300."], []),
        (["## Rent", "The rent deposit is: Year 1 £3,000; Year 2 £3,300."], []),
    ],
)  # fmt: skip
def test_schedules_written_out_step_by_step(filled, parts, rows):
    assert rows_of(filled(*parts)) == rows


def test_steps_by_the_month_are_no_yearly_ones(filled):
    made = filled("The annual rent is: Year 1 £3,000; Year 2 £3,300.")
    assert made.finding("rent_schedule_month").state == "not_found"
    assert made.finding("rent_schedule").cites[0].quote == "Year 1 £3,000; Year 2 £3,300"


def test_heads_over_several_columns_name_each(document):
    from yarnex.core.document import Cell, Span, Table

    text = "Rent Yearly Monthly 12 1"
    cells = (
        Cell(0, 0, 1, 2, Span(0, 4)), Cell(1, 0, 1, 1, Span(5, 11)), Cell(1, 1, 1, 1, Span(12, 19)),
        Cell(2, 0, 1, 1, Span(20, 22)), Cell(2, 1, 1, 1, Span(23, 24)),
    )  # fmt: skip
    assert column_heads(Table(Span(0, 24), 3, 2, 2, cells, True), text) == {0: "Rent Yearly", 1: "Rent Monthly"}


@pytest.mark.parametrize(
    ("term", "parts", "begins"),
    [
        ("repairs", ["## 4 Repair", "The Tenant shall keep the inside of the Premises in good repair."], "The Tenant shall keep the inside"),
        ("alterations", ["## 5 Alterations", "The Tenant shall make no alteration without consent."], "The Tenant shall make no alteration"),
        ("permitted_use", ["## 6 Permitted Use", "No trade but spinning goes on in the Premises."], "No trade but spinning"),
        ("quiet_enjoyment", ["## 7 Quiet enjoyment", "The Landlord shall let the Tenant hold the Premises without interruption."], "The Landlord shall let the Tenant hold"),
    ],
)  # fmt: skip
def test_the_clause_headed_with_the_term(filled, term, parts, begins):
    finding = filled(*parts).finding(term)
    assert said(finding).startswith(begins)
    assert finding.cites[0].quote in finding.document.text


def test_a_clause_goes_on_with_its_items(filled):
    finding = filled("## 5 Alterations", "The Tenant shall not:", "(a) cut any beam; or", "(b) build in the yard.", "## 6 Signs", "No signs.").finding("alterations")  # fmt: skip
    assert "cut any beam" in said(finding)
    assert "build in the yard" in said(finding)
    assert "No signs" not in said(finding)


def test_a_heading_with_nothing_under_it_gives_nothing(filled):
    assert filled("## 5 Alterations", "## 6 Signs", "The Tenant shall put up no signs.").finding("alterations").state == "not_found"  # fmt: skip
