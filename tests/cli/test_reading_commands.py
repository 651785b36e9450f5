"""The program on files of many formats: what is read, its outline, parts of it, and the store between two runs."""

from __future__ import annotations

import json
import signal
import subprocess
import time

import pytest

from tests.cli.test_program import listening
from tests.conftest import PROGRAM
from tests.samples import SAMPLES

LEASE = "LEASE\n\nTHIS LEASE is dated 3 April 2026.\n\n1. RENT\n\n1.1 Initial Rent: £12,500 a year.\n\n2. DEPOSIT\n\n2.1 Deposit: £4,000.\n"


@pytest.fixture
def mixed(tmp_path):
    for name in ("offer.html", "offer.eml", "rents.xlsx", "call.vtt", "bundle.zip", "deck.pptx", "lease.docx"):
        (tmp_path / name).write_bytes(SAMPLES[name]())
    (tmp_path / "lease.txt").write_text(LEASE)
    return tmp_path


def test_a_folder_of_everything(yarnex, mixed):
    done = yarnex("read", ".", "--json")
    result = json.loads(done.stdout)
    entries = {d["path"]: d for d in result["documents"]}
    assert entries["rents.xlsx"]["paging"] == "sheet"
    assert entries["offer.eml"]["attachments"] == ["rents.csv"]
    assert entries["offer.eml/rents.csv"]["parent"] == "offer.eml"
    assert entries["bundle.zip/papers/offer.html"]["kind"] == entries["offer.html"]["kind"]
    assert [u["path"] for u in result["unread"]] == ["bundle.zip/x.exe"]
    assert {
        "kind": "same file",
        "document": "offer.html",
        "of": "bundle.zip/papers/offer.html",
        "share": 100,
        "page": None,
        "of_page": None,
    } in result["copies"]
    assert done.returncode == 1


def test_outline_and_its_json(yarnex, mixed):
    assert "2 DEPOSIT" in yarnex("outline", "lease.txt").stdout
    sections = json.loads(yarnex("outline", "deck.pptx", "--json").stdout)["sections"]
    assert [(s["heading"], s["first_page"], s["last_page"]) for s in sections] == [
        ("Choice of premises", 1, 1),
        ("Rent by year", 2, 2),
    ]
    assert len(json.loads(yarnex("outline", "offer.html", "--depth", "1", "--json").stdout)["sections"]) == 1


def test_commands_can_be_kept_to_pages_and_sections(yarnex, mixed):
    found = {
        f["term"]: f["state"]
        for f in json.loads(yarnex("abstract", "lease.txt", "--section", "Deposit", "--json").stdout)["findings"]
    }
    whole = {f["term"]: f["state"] for f in json.loads(yarnex("abstract", "lease.txt", "--json").stdout)["findings"]}
    assert whole["deposit"] == found["deposit"] == "stated"
    assert (whole["base_rent"], found["base_rent"]) == ("stated", "not_found")
    slides = json.loads(yarnex("outline", "deck.pptx", "--pages", "2", "--json").stdout)
    assert slides["documents"][0]["path"] == "deck.pptx"
    done = yarnex("abstract", "lease.txt", "deck.pptx", "--pages", "9", "--json")
    assert (done.returncode, "lease.txt: pages 9 not in it; left out" in done.stderr) == (3, True)


@pytest.mark.parametrize(
    ("arguments", "message"),
    [
        (["read", "lease.txt", "--pages", "x"], "--pages: x is no page or range of pages; write 12, 20-23 or 3,7-9"),
        (
            ["read", "lease.txt", "--scans", "guess"],
            "--scans: 'guess' is no way to read scans; use recognise, tesseract, skip",
        ),
        (["outline", "lease.txt", "--depth", "0"], "Invalid value for '--depth'"),
    ],
)
def test_wrong_use(yarnex, mixed, arguments, message):
    done = yarnex(*arguments)
    assert (done.returncode, message in done.stderr) == (2, True)


def test_each_page_and_changes(yarnex, mixed):
    pages = yarnex("read", "rents.xlsx", "--each-page").stdout
    assert "Notes" in pages
    assert "hidden" in pages
    assert "None recorded in the file." in yarnex("read", "lease.docx", "--changes").stdout


def test_a_document_inside_another_file(yarnex, mixed):
    done = yarnex("show", "bundle.zip/papers/offer.html", "--quote", "£12,500")
    assert (done.returncode, ">>£12,500<<" in done.stdout) == (0, True)
    assert yarnex("read", "bundle.zip/none.txt").returncode == 3


def test_the_second_run_takes_what_was_kept(yarnex, mixed):
    first = yarnex("read", ".", "--json")
    assert (mixed / ".cache" / "readings.sqlite").exists()
    assert yarnex("read", ".", "--json").stdout == first.stdout
    (mixed / ".cache" / "readings.sqlite").write_bytes(b"broken" * 1000)
    third = yarnex("read", ".", "--json")
    assert third.stdout == first.stdout
    assert "the store of readings is damaged; set aside as readings.damaged-1.sqlite" in third.stderr


def test_nothing_is_kept_when_asked_not_to(yarnex, mixed):
    yarnex("read", "lease.txt", "--no-store")
    assert not (mixed / ".cache").exists()


def test_a_binder_keeps_its_own_readings(yarnex, mixed):
    (mixed / "yarnex.toml").write_text("")
    yarnex("read", ".")
    assert (mixed / ".yarnex" / "readings.sqlite").exists()
    assert not any(".yarnex" in d["path"] for d in json.loads(yarnex("read", ".", "--json").stdout)["documents"])


def test_an_interrupted_run_goes_on_where_it_stopped(yarnex, tmp_path):
    import os

    for i in range(60):
        (tmp_path / f"{i:02d}.docx").write_bytes(SAMPLES["lease.docx"]())
        (tmp_path / f"{i:02d}.txt").write_text(LEASE + f"\n{i}\n" + "The Tenant shall repair.\n\n" * 4000)
    environment = os.environ | {"YARNEX_CACHE": str(tmp_path / ".cache")}
    with subprocess.Popen(
        [str(PROGRAM), "read", "."],
        cwd=tmp_path,
        env=environment,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        preexec_fn=listening,
    ) as run:
        time.sleep(2.0)
        run.send_signal(signal.SIGINT)
        run.communicate(timeout=60)
    assert run.returncode in (0, 130)
    done = yarnex("read", ".", "--json")
    assert len(json.loads(done.stdout)["documents"]) == 120
    assert "damaged" not in done.stderr


def test_words_of_a_document_cannot_forge_the_terminal(yarnex, tmp_path):
    (tmp_path / "a.html").write_text("<h1>Lease \x1b[2J\u202eevil</h1><p>words</p>")
    out = yarnex("outline", "a.html").stdout
    assert "\x1b" not in out
    assert "\u202e" not in out


def test_find_and_roster_from_the_command_line(yarnex, premises, tmp_path):
    lease = premises / "canal-works.pdf"
    done = yarnex("find", "When can the tenant leave early?", lease, "--json")
    assert done.returncode == 0, done.stderr
    (answer,) = json.loads(done.stdout)["answers"]
    assert answer["findings"][0]["value"] == {"type": "date", "value": "2031-03-31"}
    (tmp_path / "q.txt").write_text("How much is the deposit?\nWhat is the performance bond?\n")
    done = yarnex("find", "--questions", "q.txt", premises, "-o", "grid.csv")
    assert done.returncode == 0, done.stderr
    assert "How much is the deposit?" in (tmp_path / "grid.csv").read_text()
    done = yarnex("find", "--questions", "q.txt", "--only-missing", lease, "--json")
    assert [a["question"] for a in json.loads(done.stdout)["answers"]] == ["What is the performance bond?"]
    done = yarnex("find", "What is the capital of France?", lease)
    assert done.returncode == 1
    assert "asks about the world" in done.stderr
    done = yarnex("find", lease)
    assert "Questions worth asking" in done.stdout
    done = yarnex("roster", "insured risks", lease, "--expect", "99")
    assert done.returncode == 1
    done = yarnex("roster", lease)
    assert done.returncode == 2
    assert "nothing to list" in done.stderr


def test_sheets_from_the_command_line(yarnex, premises, tmp_path):
    assert "loan" in yarnex("sheets", "list").stdout
    assert "Covenant ratios" in yarnex("sheets", "show", "loan").stdout
    assert yarnex("sheets", "copy", "loan", "mine.yaml").returncode == 0
    assert "a sound sheet" in yarnex("sheets", "check", "mine.yaml").stderr
    done = yarnex("sheets", "draft", premises, "-o", "draft.yaml")
    assert done.returncode == 0, done.stderr
    assert yarnex("sheets", "check", "draft.yaml").returncode == 0
    done = yarnex("abstract", premises / "canal-works.pdf", "--sheet", "draft.yaml", "-o", "a.xlsx")
    assert done.returncode == 0, done.stderr
    assert (tmp_path / "a.xlsx").read_bytes().startswith(b"PK")
    done = yarnex("abstract", premises, "--screen", "--json")
    assert done.returncode == 1
    assert {s["stays"] for s in json.loads(done.stdout)["screened"]} == {True, False}
