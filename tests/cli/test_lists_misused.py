"""The commands for figures, dates, duties, costs and charts, used wrongly or on papers that hold nothing of the kind."""

from __future__ import annotations

import json

import pytest

NOTE = "A note.\n\nThe wool was dry.\n"


@pytest.fixture
def note(tmp_path):
    (tmp_path / "note.txt").write_text(NOTE, "utf-8")
    (tmp_path / "broken.pdf").write_bytes(b"%PDF-1.7\nno more")
    (tmp_path / "bill.md").write_text(
        "# Calder Bank Plumbing Ltd\n\nInvoice no. CB-2207\n\nDate: 12 February 2026\n\n| Description | Amount £ |\n| --- | --- |\n| Call-out | 310.00 |\n| Total | 310.00 |\n",
        "utf-8",
    )
    return tmp_path


@pytest.mark.parametrize(
    ("arguments", "code", "says"),
    [
        (("figures", "note.txt", "--by", "colour"), 2, "colour"),
        (("figures", "note.txt", "--table", "9"), 2, "9"),
        (("figures", "note.txt", "--of", "revenue"), 1, "revenue"),
        (("dates", "note.txt", "--from", "yesterday"), 2, "yesterday"),
        (("dates", "note.txt", "--kind", "party"), 2, "party"),
        (("dates", "note.txt", "--as-of", "2026-13-01"), 2, "2026-13-01"),
        (("duties", "note.txt", "--kind", "colour"), 2, "colour"),
        (("costs", "note.txt", "--kind", "colour"), 2, "colour"),
        (("chart", "note.txt", "--of", "revenue", "-o", "x.png"), 1, "revenue"),
        (("chart", "note.txt", "--of", "revenue", "-o", "x.gif"), 2, ".gif"),
        (("chart", "note.txt", "--of", "revenue", "--type", "pie", "-o", "x.png"), 2, "pie"),
        (("chart", "note.txt", "--of", "revenue", "--size", "big", "-o", "x.png"), 2, "big"),
        (("chart", "note.txt", "--of", "revenue", "--colours", "red", "-o", "x.png"), 2, "red"),
        (("roster", "note.txt"), 2, "list"),
    ],
)
def test_one_clear_line_says_what_is_wrong(yarnex, note, arguments, code, says):
    done = yarnex(*arguments)
    told = done.stderr + done.stdout
    assert done.returncode == code, told
    assert says in told
    assert "Traceback" not in told
    assert not list(note.glob("x.*"))


@pytest.mark.parametrize("command", ["figures", "dates", "duties", "costs"])
def test_a_paper_that_holds_nothing_of_the_kind_says_so(yarnex, note, command):
    done = yarnex(command, "note.txt")
    assert done.returncode in (0, 1)
    assert "Traceback" not in done.stderr
    assert done.stdout.strip()


@pytest.mark.parametrize("command", ["figures", "dates", "duties", "costs"])
def test_a_broken_file_is_named_and_the_others_go_on(yarnex, note, command):
    done = yarnex(command, "broken.pdf", "bill.md", "--json")
    assert done.returncode == 1
    result = json.loads(done.stdout)
    assert "broken.pdf" in json.dumps(result["unread"])
    assert any(d["path"] == "bill.md" for d in result["documents"])


def test_costs_and_the_roster_of_their_senders_agree(yarnex, note):
    costs = json.loads(yarnex("costs", "bill.md", "--json").stdout)
    senders = json.loads(yarnex("roster", "providers", "bill.md", "--json").stdout)
    assert (
        {c["provider"] for c in costs["charges"]}
        == {i["text"] for i in senders["items"]}
        == {"Calder Bank Plumbing Ltd"}
    )


def test_a_file_is_not_overwritten_unless_told(yarnex, note):
    (note / "costs.csv").write_text("mine", "utf-8")
    assert yarnex("costs", "bill.md", "-o", "costs.csv").returncode == 2
    assert (note / "costs.csv").read_text("utf-8") == "mine"
    assert yarnex("costs", "bill.md", "-o", "costs.csv", "--force").returncode == 0
    assert "Call-out" in (note / "costs.csv").read_text("utf-8")


def test_the_same_input_gives_the_same_bytes(yarnex, note):
    for command in ("dates", "duties", "costs", "figures"):
        assert yarnex(command, "bill.md", "--json").stdout == yarnex(command, "bill.md", "--json", "--no-store").stdout
