"""How answers, rosters, sheets and screenings are shown: in the terminal, Markdown, CSV and JSON."""

from __future__ import annotations

import io
import json

import openpyxl
import pytest

from yarnex.core.search import ask_all, roster
from yarnex.core.search.starters import starters
from yarnex.core.terms import abstract_all, load_sheet
from yarnex.core.terms.screening import screen
from yarnex.output import answer_reports, as_json, markdown, reports, table_csv

LEASE = """LEASE

This Lease is made on 4 May 2026 between Calder Estates Limited (the "Landlord") and Brackenfold Mills Limited (the "Tenant").

1.1 The Tenant shall pay a yearly rent of £61,500.

1.2 The deposit is £9,000.
"""


@pytest.fixture
def papers(document):
    return [document(LEASE, "a.txt"), document(LEASE.replace("£61,500", "£70,000"), "b.txt")]


@pytest.fixture
def answered(papers):
    return ask_all(papers, [("1", "How much is the rent?"), ("2", "What is the performance bond?")])


def test_a_grid_of_questions_and_documents(papers, answered):
    report = answer_reports.found_report(answered, papers)
    assert report.about == "2 questions, 2 documents; 1 without an answer"
    text = markdown.render(report)
    assert "£61,500 a year" in text
    assert "£70,000 a year" in text
    assert text.count("not found") >= 2
    rows = table_csv.render(report).splitlines()
    assert any("How much is the rent?" in r and "a.txt" in r and "£61,500 a year" in r for r in rows)


def test_one_document_has_a_row_a_question(papers):
    answered = ask_all(papers[:1], [("1", "How much is the rent?")])
    report = answer_reports.found_report(answered, papers[:1], quote=30, why=True)
    (row,) = report.sections[0].table.rows
    assert row.cells[0].text == "How much is the rent?"
    assert row.cells[1].quote.startswith("1.1 The Tenant shall pay a")
    assert len(row.cells[1].quote) <= 34
    assert row.cells[1].notes


def test_answers_as_json(answered):
    entries = json.loads(as_json.dumps(as_json.answers(answered)))
    assert [e["id"] for e in entries] == ["1", "2"]
    assert [f["document"] for e in entries for f in e["findings"]][:1] == ["a.txt"]
    assert {f["state"] for f in entries[1]["findings"]} == {"not_found"}


def test_starters_are_grouped_by_document(papers):
    report = answer_reports.starters_report(starters(papers))
    assert {r.group for r in report.sections[0].table.rows} == {"a.txt", "b.txt"}
    assert answer_reports.starters_report([]).sections[0].lines


def test_a_roster_shown_and_as_json(document):
    paper = document("# Sites\n\nThe sites are:\n\n1. Low Weir\n2. High Weir\n4. Tarn\n", "s.md")
    found = roster(paper, "sites")
    report = answer_reports.roster_report([found], "sites", 4, why=True)
    assert report.about == "3 items; 4 expected"
    assert any("Missing in the numbering: 3" in line for line in report.sections[0].lines)
    entry = as_json.rosters([found], "sites", 4)
    assert entry["count"] == 3
    assert entry["expected"] == 4
    assert [i["number"] for i in entry["items"]] == ["1", "2", "4"]
    none = answer_reports.roster_report([roster(paper, "moons")], "moons", None)
    assert none.sections[0].lines == ("No list of moons was found.",)


def test_sheets_and_screening_shown(papers):
    assert "Loan or facility" in markdown.render(reports.sheets_report([load_sheet("loan")]))
    assert "required" in markdown.render(reports.sheet_report(load_sheet("loan")))
    judged = screen(abstract_all(papers))
    text = markdown.render(reports.screen_report(judged))
    assert "drops out" in text
    assert as_json.screened(judged)[0]["lacks"][0]["why"]


def test_an_abstract_says_what_to_check_and_what_is_required_but_missing(papers):
    report = reports.abstract_report(abstract_all(papers[:1]))
    section = report.sections[0]
    assert any("terms found" in line for line in section.lead)
    assert any(line.startswith("Required but not found") for line in section.lines)


def test_many_documents_have_a_row_each_and_the_silent_ones_are_named(document):
    papers = [document(LEASE.replace("9,000", f"{n},000"), f"{n}.txt") for n in range(1, 7)]
    papers.append(document("Nothing of the kind stands here.", "note.txt"))
    answered = ask_all(papers, [("1", "How much is the deposit?"), ("2", "What is the performance bond?")])
    first, second = answer_reports.found_report(answered, papers).sections
    assert [r.cells[0].text for r in first.table.rows] == [f"{n}.txt" for n in range(1, 7)]
    assert first.table.rows[3].cells[1].text == "£4,000"
    assert first.lines == ("Not found in 1 document: note.txt.",)
    assert second.title == "What is the performance bond?"
    assert second.lines[0].startswith("Not found in 7 documents: 1.txt, 2.txt")


def test_answers_as_a_workbook(papers, answered):
    data = answer_reports.answers_workbook(answered, papers)
    assert data == answer_reports.answers_workbook(answered, papers)
    book = openpyxl.load_workbook(io.BytesIO(data))
    assert book.sheetnames == ["Grid", "Answers", "Not found"]
    grid = [[c.value for c in row] for row in book["Grid"].iter_rows()]
    assert grid[0] == ["Question", "a.txt", "b.txt"]
    assert grid[1][1].startswith("£61,500 a year")
    assert grid[2][1:] == ["not found", "not found"]
    rows = [[c.value for c in row] for row in book["Answers"].iter_rows(min_row=2)]
    assert [r[:3] for r in rows] == [
        ["How much is the rent?", "a.txt", 61500],
        ["How much is the rent?", "b.txt", 70000],
    ]
    assert "yearly rent of £61,500" in rows[0][5]
    assert [r[1].value for r in book["Not found"].iter_rows(min_row=2)] == ["a.txt", "b.txt"]
