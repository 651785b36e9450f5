"""Which of several values answers: in one sentence, in brackets for comparison, in a column, in a yes or a no."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.values import Money, Party, Schedule, YesNo
from yarnex.core.words import stems_of

PAPER = """# Agreement on the Combing Hall

This Agreement is made on 4 May 2026 between (1) Tarn Estates Limited (the "Landlord") and (2) Brackenfold Mills Limited (the "Tenant").

## 1. Terms

1.1 The notice is twelve weeks for the Landlord and seven weeks for the Tenant.

1.2 The parties confirm that the keys were handed over on 3 June 2026, that the rent started on 9 July 2026, and that the hall was then empty.

1.3 The insurer's share of a loss is 31.5 per cent (2024: 28.4 per cent).

1.4 The right to park is personal to Brackenfold Mills Limited.

1.5 The Landlord's promise binds a purchaser of the hall only if that purchaser so agrees.

1.6 Neither party shall speak to the press about the hall without the consent of the other, except where a court orders it.

1.7 The Landlord may end this Agreement without cause on nine weeks' notice.

1.8 A written claim follows within 35 days after the end of the season, and by post.

1.9 The sorting line was bought from the receivers of a former spinner at Hagg Fold.

## 2. Rent

| Year | Annual rent | Monthly instalment | Limit per lease year |
| --- | --- | --- | --- |
| 1 | £24,000 | £2,000 | £90,000 |
| 2 | £25,200 | £2,100 | £95,000 |
| 3 | £26,400 | £2,200 | £99,000 |

## 3. Bill

| Item | Amount |
| --- | --- |
| Carriage | £310.00 |
| GST 15% | £46.50 |
| Total | £356.50 |
"""


@pytest.fixture(scope="module")
def paper():
    return Inquiry(read_text(PAPER.encode(), "hall.md", "0" * 64, markdown=True))


def told(paper, question):
    return ask(paper, understand(question))[0]


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What notice does the Tenant get?", "seven weeks"),
        ("When did the rent start?", "9 July 2026"),
        ("What is the insurer's share of a loss?", "31.5 per cent"),
        ("What was the insurer's share of a loss in 2024?", "28.4 per cent"),
        ("What is the monthly instalment in year 2?", "£2,100"),
        ("What is the limit in year 3?", "£99,000"),
        ("When must the written claim follow?", "within 35 days after the end of the season"),
    ],
)
def test_the_value_that_belongs_to_what_is_asked(paper, question, text):
    assert text in told(paper, question).text


@pytest.mark.parametrize(
    ("question", "yes"),
    [
        ("May an assignee use the right to park?", False),
        ("Is a purchaser of the hall bound automatically?", False),
        ("May they speak to the press without consent where a court orders it?", True),
        ("May they speak to the press about the hall?", False),
    ],
)
def test_a_yes_or_no_reads_conditions_and_exceptions(paper, question, yes):
    assert told(paper, question).value == YesNo(yes)


def test_a_sum_for_each_year_is_a_schedule_of_the_column_that_is_asked_for(paper):
    found = told(paper, "What is the monthly instalment for each year?")
    assert isinstance(found.value, Schedule)
    assert [int(row.amount.amount) for row in found.value.rows] == [2000, 2100, 2200]


def test_another_s_right_is_not_the_tenant_s(paper):
    found = told(paper, "On what notice may the Tenant end the agreement without cause?")
    assert "nine" not in found.text


def test_no_firm_is_named_by_the_question_s_own_place(paper):
    found = told(paper, "From which company was the sorting line at Hagg Fold bought?")
    assert found.state == "not_found" or (isinstance(found.value, Party) and "Hagg" not in found.value.name)


def test_a_rate_in_a_label_is_a_share_and_its_sum_is_none(paper):
    lines = [line for line in paper.matcher.lines.lines if line.kind == "cell"]
    shares = [str(f.value.value) for line in lines for f in paper.values.percents(line)]
    assert shares == ["15"]


def test_sums_are_for_what_their_column_says(paper):
    lines = [line for line in paper.matcher.lines.lines if line.kind == "cell" and line.label == "2"]
    sums = [f.value for line in lines for f in paper.values.money(line)]
    assert [(int(s.amount), s.per) for s in sums if isinstance(s, Money)] == [
        (25200, "year"), (2100, "month"), (95000, "year"),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("What is the rent for each year?", "schedule"),
        ("List the yearly purchases.", "schedule"),
        ("Give the annual leave.", "duration"),
        ("What is paid for each month of delay?", "money"),
        ("At what time, by the log, was the gate shut?", "time"),
    ],
)
def test_the_kind_that_a_question_wants(question, kind):
    assert understand(question).kinds[0] == kind


def test_words_that_only_stand_for_a_thing_are_not_looked_for():
    assert stems_of("has anything been said to anyone", stop=False) == ()


def test_a_sum_of_a_workbook_is_told_as_the_cell_holds_it(tmp_path):
    from openpyxl import Workbook

    from yarnex.core.reading import ReadOptions, read_all

    book = Workbook()
    sheet = book.active
    sheet.append(["£m", "June 2026", "June 2027"])
    sheet.append(["Net debt", 19.90472, 18.25])
    for cell in sheet[2][1:]:
        cell.number_format = "0.0"
    book.save(tmp_path / "plan.xlsx")
    document = next(iter(read_all([tmp_path / "plan.xlsx"], ReadOptions()))).document
    found = told(Inquiry(document), "What is net debt at June 2026?")
    assert int(found.value.amount) == 19_904_720
    assert any("the cell holds 19.90472" in step for step in found.working)
