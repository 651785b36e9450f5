"""The commands for figures, charts, dates, duties and costs, run as a user would on the demo's papers."""

from __future__ import annotations

import csv
import io
import json
import shutil
from datetime import date

import openpyxl
import pytest
import vobject

from yarnex.demo import CLAIM, CONTRACTS, REPORTS, copy_documents

DAY = ("--as-of", "2026-11-23")


@pytest.fixture(scope="module")
def papers(tmp_path_factory):
    folder = tmp_path_factory.mktemp("papers")
    copy_documents(folder / "reports", REPORTS)
    copy_documents(folder / "claim", CLAIM)
    copy_documents(folder / "premises")
    copy_documents(folder / "contracts", CONTRACTS)
    return folder


def found(done) -> dict:
    assert done.returncode in (0, 1), done.stderr
    return json.loads(done.stdout)


def test_a_line_is_found_by_the_name_that_people_use(yarnex, papers):
    done = yarnex("figures", papers / "reports" / "annual-report-2026.pdf", "turnover", "--json")
    values = {(f["period"]["end"], f["value"]) for f in found(done)["figures"] if f["statement"] == "profit_or_loss"}
    assert values == {("2026-06-30", 61480000), ("2025-06-30", 57905000)}


def test_what_is_ambiguous_is_answered_with_each_meaning(yarnex, papers):
    done = yarnex("figures", papers / "reports" / "annual-report-2026.pdf", "debt")
    assert done.returncode == 0
    for meaning in ("Borrowings", "Borrowings, current", "Borrowings, non-current"):
        assert f"{meaning}: " in done.stdout


def test_a_name_that_no_figure_has_is_said(yarnex, papers):
    done = yarnex("figures", papers / "reports" / "annual-report-2026.pdf", "wool in transit")
    assert done.returncode == 1
    assert "not found" in done.stdout


def test_the_planted_slip_is_the_only_failed_check(yarnex, papers):
    done = yarnex("figures", papers / "reports", "--check", "--json")
    assert done.returncode == 1
    failed = [c for c in found(done)["checks"] if not c["passed"]]
    assert [(c["kind"], c["difference"]) for c in failed] == [("cast", 90000)]
    assert "9,390" in failed[0]["what"]


def test_every_cite_of_a_figure_stands_where_it_says(yarnex, papers):
    from yarnex import read

    path = papers / "reports" / "annual-report-2026.pdf"
    paper = read(path)
    for figure in found(yarnex("figures", path, "--json"))["figures"]:
        for cite in figure["cites"]:
            assert paper.text[cite["start"] : cite["end"]] == cite["quote"]
            assert figure["as_printed"].split()[0] in cite["quote"].replace("\n", " ")


def test_figures_as_csv_and_workbook(yarnex, papers, tmp_path):
    path = papers / "reports" / "annual-report-2026.pdf"
    assert yarnex("figures", path, "-o", "f.csv").returncode == 0
    rows = list(csv.DictReader(io.StringIO((tmp_path / "f.csv").read_text("utf-8"))))
    assert any(r["label"] == "Revenue" and r["value"] == "61480000" and r["page"] == "2" for r in rows)
    assert yarnex("figures", papers / "reports", "--by", "period", "-o", "f.xlsx").returncode == 0
    book = openpyxl.load_workbook(tmp_path / "f.xlsx")
    assert book.sheetnames == ["Spread", "Figures"]
    cells = [c for row in book["Spread"].iter_rows() for c in row]
    assert any(isinstance(c.value, str) and c.value.startswith("=ROUND(") for c in cells)
    assert all(
        isinstance(c.value, int | float)
        for c in next(iter(book["Spread"].iter_rows(min_row=2, max_row=2, min_col=2, max_col=2)))[:1]
    )
    shown = openpyxl.load_workbook(tmp_path / "f.xlsx", data_only=True)["Spread"]
    assert shown.cell(1, 2).value


def test_a_spread_in_the_terminal_cuts_no_number(yarnex, papers):
    done = yarnex("figures", papers / "reports", "--by", "period")
    assert done.returncode == 0
    assert "61,480" in done.stdout
    assert "GBP" in done.stdout
    assert "Operating margin" in done.stdout


def test_tables_are_listed_and_written_out(yarnex, papers, tmp_path):
    path = papers / "reports" / "annual-report-2026.pdf"
    tables = found(yarnex("figures", path, "--tables", "--json"))["tables"]
    number = next(t["table"] for t in tables if "income statement" in t["over"][0])
    assert yarnex("figures", path, "--table", number, "-o", "t.csv").returncode == 0
    rows = list(csv.reader(io.StringIO((tmp_path / "t.csv").read_text("utf-8"))))
    assert ["Revenue", "4", "61,480", "57,905"] in rows
    assert yarnex("figures", path, "--table", 99).returncode == 2


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (("figures", "--by", "colour"), "use period or company"),
        (("figures", "--basis", "own"), "use consolidated, company, segment"),
        (("dates", "--kind", "party"), "is no kind"),
        (("dates", "--from", "May"), "write it as YYYY-MM-DD"),
        (("chart", "--of", "revenue"), "name one that ends in .png or .svg"),
        (("chart", "-o", "x.png"), "name a line"),
        (("chart", "--of", "revenue", "-o", "x.png", "--size", "big"), "write it as 1280x800"),
        (("chart", "--of", "revenue", "-o", "x.gif"), "is not a format"),
        (("chart", "--of", "revenue", "-o", "x.png", "--colours", "red"), "are no colours"),
    ],
)
def test_wrong_use_gets_one_clear_line(yarnex, papers, arguments, says):
    done = yarnex(arguments[0], papers / "reports", *arguments[1:])
    assert done.returncode == 2
    assert says in done.stderr
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize("ending", ["png", "svg"])
def test_a_chart_is_the_same_each_time(yarnex, papers, tmp_path, ending):
    for name in ("one", "two"):
        done = yarnex(
            "chart",
            papers / "reports" / "annual-report-2026.pdf",
            "--of",
            "revenue",
            "--growth",
            "-o",
            f"{name}.{ending}",
        )
        assert done.returncode == 0, done.stderr
    one, two = ((tmp_path / f"{n}.{ending}").read_bytes() for n in ("one", "two"))
    assert one == two
    assert one[:4] == b"\x89PNG" if ending == "png" else b"annual-report-2026.pdf p. 1, 2" in one


@pytest.mark.parametrize(
    "options",
    [
        ("--of", "revenue", "--by", "segment"),
        ("--of", "net debt", "--type", "lines"),
        ("--of", "operating profit", "--type", "waterfall"),
        ("--of", "revenue", "--of", "operating profit", "--no-values", "--title", "Two lines"),
    ],
)
def test_charts_of_every_type(yarnex, papers, tmp_path, options):
    done = yarnex("chart", papers / "reports" / "annual-report-2026.pdf", *options, "-o", "c.png")
    assert done.returncode == 0, done.stderr
    assert (tmp_path / "c.png").stat().st_size > 10_000


def test_nothing_to_draw_is_said_and_nothing_written(yarnex, papers, tmp_path):
    done = yarnex("chart", papers / "reports", "--of", "bales of wool", "-o", "c.png")
    assert done.returncode == 1
    assert "nothing was drawn" in done.stderr
    assert not (tmp_path / "c.png").exists()


def test_deadlines_of_a_lease(yarnex, papers):
    done = yarnex("dates", papers / "premises" / "canal-works.pdf", "--json", *DAY)
    days = {(d["date"], d["state"]) for d in found(done)["dates"]}
    assert {("2031-03-31", "stated"), ("2030-09-30", "computed"), ("2036-03-31", "computed")} <= days


def test_a_lease_with_its_amendment_keeps_superseded_days_marked(yarnex, papers):
    done = yarnex(
        "dates",
        papers / "premises" / "canal-works.pdf",
        papers / "premises" / "canal-works-amendment.docx",
        "--json",
        *DAY,
    )
    states = {d["state"] for d in found(done)["dates"]}
    assert "computed" in states
    alone = found(yarnex("dates", papers / "premises" / "canal-works.pdf", "--json", *DAY))["dates"]
    assert {d["date"] for d in alone if d["what"] == "Break date"} != {
        d["date"] for d in found(done)["dates"] if d["what"] == "Break date"
    } or "superseded" in states


def test_dates_can_be_narrowed(yarnex, papers):
    done = yarnex(
        "dates",
        papers / "premises" / "canal-works.pdf",
        "--from",
        "2030-01-01",
        "--to",
        "2031-12-31",
        "--kind",
        "notice",
        "--about",
        "break",
        "--json",
        *DAY,
    )
    assert [d["date"] for d in found(done)["dates"]] == ["2030-09-30"]


def test_the_calendar_opens_in_another_program(yarnex, papers, tmp_path):
    path = papers / "premises" / "canal-works.pdf"
    for name in ("a.ics", "b.ics"):
        assert yarnex("dates", path, "-o", name, "--alarm", "14", *DAY).returncode == 0
    data = (tmp_path / "a.ics").read_bytes()
    assert data == (tmp_path / "b.ics").read_bytes()
    calendar = vobject.readOne(data.decode())
    events = list(calendar.vevent_list)
    uids = [e.uid.value for e in events]
    assert len(set(uids)) == len(uids)
    (notice,) = [e for e in events if e.dtstart.value == date(2030, 9, 30)]
    assert "notice to break" in notice.summary.value
    assert "canal-works.pdf, p. 7" in notice.description.value
    assert notice.valarm.trigger.value.days == -14


def test_a_timeline_and_a_workbook_of_dates(yarnex, papers, tmp_path):
    path = papers / "premises" / "canal-works.pdf"
    assert yarnex("dates", path, "-o", "t.png", *DAY).returncode == 0
    assert (tmp_path / "t.png").read_bytes()[:4] == b"\x89PNG"
    assert yarnex("dates", path, "-o", "d.xlsx", *DAY).returncode == 0
    sheet = openpyxl.load_workbook(tmp_path / "d.xlsx")["Dates"]
    assert any(
        hasattr(row[0].value, "year") and row[0].value.date() == date(2030, 9, 30) for row in sheet.iter_rows(min_row=2)
    )


def test_a_chronology_of_a_file_says_where_accounts_differ(yarnex, papers):
    done = yarnex("dates", papers / "claim", "--together", "--gap", "14", *DAY)
    assert done.returncode == 0
    assert "gives the time as" in done.stdout
    assert "days without an event" in done.stdout
    flood = [
        d
        for d in found(yarnex("dates", papers / "claim", "--together", "--json", *DAY))["dates"]
        if d["date"] == "2026-02-09"
    ]
    assert {"06:20", "06:45"} <= {d["time"] for d in flood}


def test_duties_by_party_and_as_a_checklist(yarnex, papers):
    path = papers / "premises" / "canal-works.pdf"
    duties = found(yarnex("duties", path, "--party", "landlord", "--json"))["duties"]
    assert {d["who"] for d in duties} <= {"Landlord", "both parties"}
    assert any("insure the Building" in d["what"] and d["kind"] == "insurance" for d in duties)
    boxes = yarnex("duties", path, "--party", "tenant", "--kind", "payment", "--checklist")
    assert boxes.returncode == 0
    assert "☐" in boxes.stdout
    assert "canal-works.pdf: Tenant" in boxes.stdout


def test_duties_as_a_workbook(yarnex, papers, tmp_path):
    assert yarnex("duties", papers / "contracts", "--checklist", "-o", "d.xlsx").returncode == 0
    sheet = openpyxl.load_workbook(tmp_path / "d.xlsx")["Checklist"]
    assert sheet.max_row > 20


def test_costs_find_the_copy_and_the_wrong_sum(yarnex, papers):
    done = yarnex("costs", papers / "claim", "--json")
    assert done.returncode == 1
    result = found(done)
    totals = {t["of"]: t["amount"] for t in result["totals"] if t["name"] is None}
    assert totals == {
        "as printed": 3318,
        "copies left out": -660.6,
        "sums corrected": -21.6,
        "after corrections": 2635.8,
        "allowed": 1975.2,
        "paid": 1475.2,
        "allowed less paid": 500,
    }
    assert {c["kind"] for c in result["checks"] if not c["passed"]} == {"lines", "copy"}
    assert sum(c["amount"] for c in result["charges"] if c["counted"] and c["role"] == "charge") == pytest.approx(
        550.5 + 1646
    )


def test_costs_as_a_workbook_with_formulas(yarnex, papers, tmp_path):
    assert yarnex("costs", papers / "claim", "-o", "c.xlsx").returncode == 1
    book = openpyxl.load_workbook(tmp_path / "c.xlsx")
    assert book.sheetnames == ["Charges", "Bills", "Payments", "Checks"]
    assert book["Bills"].cell(2, 6).value.startswith("=SUM(Charges!M2:")
    assert yarnex("costs", papers / "claim", "--provider", "wharfe", "-o", "w.md").returncode == 1
    assert "Calder Bank" not in (tmp_path / "w.md").read_text("utf-8").split("## Not in order")[-1].split("##")[1]


@pytest.mark.parametrize("command", ["figures", "dates", "duties", "costs"])
def test_a_broken_file_stops_only_itself(yarnex, papers, tmp_path, command):
    shutil.copytree(papers / "claim", tmp_path / "file")
    (tmp_path / "file" / "broken.pdf").write_bytes(b"%PDF-1.7 nothing")
    done = yarnex(command, "file", "--json")
    assert done.returncode == 1
    assert "broken.pdf" in done.stderr
    assert "Traceback" not in done.stderr
    assert json.loads(done.stdout)["unread"]


@pytest.mark.parametrize("command", ["figures", "dates", "duties", "costs"])
@pytest.mark.parametrize("ending", ["md", "html", "json", "csv"])
def test_every_list_is_written_in_every_format(yarnex, papers, tmp_path, command, ending):
    done = yarnex(command, papers / "claim", "-o", f"out.{ending}")
    assert (tmp_path / f"out.{ending}").stat().st_size > 100, done.stderr
    if ending == "csv":
        assert list(csv.reader(io.StringIO((tmp_path / "out.csv").read_text("utf-8"))))


@pytest.mark.parametrize("command", ["figures", "dates", "duties", "costs"])
def test_the_order_of_files_changes_nothing(yarnex, papers, command):
    files = sorted((papers / "claim").iterdir())
    key = {"figures": "figures", "dates": "dates", "duties": "duties", "costs": "charges"}[command]
    one, other = (found(yarnex(command, *order, "--json"))[key] for order in (files, files[::-1]))
    assert sorted(map(json.dumps, one)) == sorted(map(json.dumps, other))
