"""`find` run on files in a folder: what is answered, what is left open, what is not there, and the same each time."""

from __future__ import annotations

import csv
import json
from pathlib import Path

import openpyxl
import pytest

NOTE = """STORAGE NOTE

Order number: BM-2207-4
Keeper: Ada Thorne
Telephone: ██████████

1. Storage

1.1 Brackenfold Mills keeps 240 bales in the lower shed at £3.20 a bale each week.

1.2 Bales must be taken away within six to eight weeks of the notice.

2. Water

2.1 The shed was found wet at 6.40 a.m. on 9 March 2026. The water stood 30 mm deep.
"""

REBATES = """<html><body><h1>Rebates of Highmoor Wool Limited</h1><table><tr><th>Purchases in the year</th><th>Rebate</th></tr>
<tr><td>Up to £100,000</td><td>1%</td></tr><tr><td>More than £100,000 but not more than £250,000</td><td>2%</td></tr>
<tr><td>More than £250,000</td><td>3.5%</td></tr></table><p>Rebates are paid within 30 days after the year.</p></body></html>"""


@pytest.fixture
def papers(tmp_path: Path) -> Path:
    folder = tmp_path / "papers"
    folder.mkdir()
    (folder / "note.txt").write_text(NOTE, "utf-8")
    (folder / "rebates.html").write_text(REBATES, "utf-8")
    return folder


def answers(yarnex, papers, *questions, document="note.txt"):
    listed = papers.parent / "questions.json"
    listed.write_text(json.dumps([{"id": q, "question": q} for q in questions]), "utf-8")
    done = yarnex("find", "--questions", listed, "--json", papers / document)
    told = json.loads(done.stdout)
    return done, {a["question"]: a["findings"][0] for a in told["answers"]}


def test_values_gaps_and_what_is_not_there(yarnex, papers):
    asked = {
        "What is the order number?": ("stated", "BM-2207-4"),
        "What is the keeper's telephone number?": ("redacted", ""),
        "How deep was the water?": ("stated", "30 mm"),
        "At what time was the shed found wet?": ("stated", "6.40 a.m."),
        "What does a bale cost each week?": ("stated", "£3.20"),
        "Who audits the accounts?": ("not_found", ""),
    }
    done, found = answers(yarnex, papers, *asked)
    assert done.returncode == 0, done.stderr
    for question, (state, words) in asked.items():
        answer = found[question]
        assert answer["state"] == state, question
        assert words in (answer["text"] or ""), question


def test_a_range_is_told_as_a_range(yarnex, papers):
    question = "Within how many weeks must bales be taken away?"
    _, found = answers(yarnex, papers, question)
    assert found[question]["text"] == "six to eight weeks"
    assert found[question]["value"]["type"] == "text"


@pytest.mark.parametrize(("sum_", "share"), [("£80,000", 1), ("£250,000", 2), ("£250,001", 3.5)])
def test_the_row_that_holds_for_a_sum(yarnex, papers, sum_, share):
    question = f"What rebate is due on purchases of {sum_}?"
    _, found = answers(yarnex, papers, question, document="rebates.html")
    assert float(found[question]["value"]["value"]) == share


def test_every_quote_stands_in_the_file(yarnex, papers):
    _, found = answers(yarnex, papers, "What is the order number?", "How deep was the water?", "Who is the keeper?")
    text = " ".join(NOTE.split())
    for answer in found.values():
        for cite in answer.get("cites") or []:
            assert " ".join(cite["quote"].split()) in text


def test_a_grid_of_questions_and_documents(yarnex, papers):
    (papers.parent / "list.txt").write_text(
        "What rebate is due on purchases of £180,000?\nHow deep was the water?\n", "utf-8"
    )
    done = yarnex("find", "--questions", papers.parent / "list.txt", papers, "-o", papers.parent / "grid.csv")
    assert done.returncode == 0, done.stderr
    rows = list(csv.DictReader((papers.parent / "grid.csv").read_text("utf-8-sig").splitlines()))
    told = {(r["item"], r["about"]): r["says"] for r in rows}
    assert told["How deep was the water?", "note.txt"] == "30 mm"
    assert told["How deep was the water?", "rebates.html"] == "not found"
    assert told["What rebate is due on purchases of £180,000?", "rebates.html"] == "2 %"


def test_the_same_question_twice_gives_the_same_bytes(yarnex, papers):
    one, other = (yarnex("find", "How deep was the water?", papers, "--json") for _ in range(2))
    assert one.stdout == other.stdout


def test_nothing_answers_and_says_so(yarnex, papers):
    done = yarnex("find", "Which vineyard makes the wine?", papers / "rebates.html")
    assert done.returncode == 1
    assert "not found" in done.stdout.lower()


@pytest.mark.parametrize(
    ("content", "says"),
    [("[]", "no list of questions"), ("[1]", "holds no question"), ("{", "not JSON")],
)
def test_a_bad_list_gets_one_line(yarnex, papers, content, says):
    (papers.parent / "bad.json").write_text(content, "utf-8")
    done = yarnex("find", "--questions", papers.parent / "bad.json", papers)
    assert done.returncode != 0
    assert says in done.stderr
    assert "Traceback" not in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1


def test_only_the_nearest_of_some_papers_is_asked(yarnex, papers):
    first = yarnex("find", "How deep did the water stand?", str(papers), "--nearest", "1", "--json")
    assert [d["path"] for d in json.loads(first.stdout)["documents"]] == [str(papers / "note.txt")]
    assert "asked of the 1 that come nearest, of 2 documents" in first.stderr
    again = yarnex("find", "How deep did the water stand?", str(papers), "--nearest", "1", "--json")
    assert again.stdout == first.stdout
    every = yarnex("find", "How deep did the water stand?", str(papers), "--nearest", "5", "--json")
    assert len(json.loads(every.stdout)["documents"]) == 2
    assert "nearest" not in every.stderr


def test_a_list_of_questions_as_a_workbook(yarnex, papers, tmp_path):
    (tmp_path / "list.txt").write_text("How deep did the water stand?\nWho is the keeper?\n", "utf-8")
    out = tmp_path / "grid.xlsx"
    assert yarnex("find", "--questions", str(tmp_path / "list.txt"), str(papers), "-o", str(out)).returncode == 0
    book = openpyxl.load_workbook(out)
    assert [c.value for c in book["Grid"]["A"]][1:] == ["How deep did the water stand?", "Who is the keeper?"]
    assert any(row[2].value == 30 and row[4].hyperlink for row in book["Answers"].iter_rows(min_row=2))
