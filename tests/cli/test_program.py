"""The installed program, run as a user would on files in a temporary folder."""

from __future__ import annotations

import io
import json
import os
import re
import shutil
import signal
import subprocess
import time
import zipfile
from pathlib import Path

import pypdf
import pytest
from docx import Document as Word

from tests.conftest import PROGRAM
from yarnex.cli.main import app

ROOT = Path(__file__).parent.parent.parent
AS_OF = ("--as-of", "2026-11-23")
LEASE = 'LEASE\n\nThis Lease is dated 3 April 2026.\n\n(1) TEASEL ESTATES LIMITED, a company (the "Landlord").\n\nDeposit: £5,000\n\nTerm: ten years\n'


def letters(text: str) -> str:
    """Only what any two ways of reading agree on: letters and digits."""
    return re.sub(r"[\W_]+", "", text.replace("ﬁ", "fi").replace("ﬂ", "fl"))


def read_another_way(path: Path) -> str:
    if path.suffix == ".pdf":
        return letters("".join(page.extract_text() for page in pypdf.PdfReader(path).pages))
    word = Word(str(path))
    words = [p.text for p in word.paragraphs] + [c.text for t in word.tables for r in t.rows for c in r.cells]
    accepted = re.findall(r"<w:t(?: [^>]*)?>([^<]*)</w:t>", word.element.xml)
    with zipfile.ZipFile(path) as package:
        notes = [package.read(n).decode() for n in package.namelist() if n == "word/footnotes.xml"]
    return letters("".join(words)) + letters("".join(accepted)) + letters(re.sub(r"<[^>]*>", "", "".join(notes)))


def all_cites(value: object) -> list[dict]:
    """Every cite anywhere in a JSON result."""
    if isinstance(value, dict):
        if {"quote", "start", "document"} <= value.keys():
            return [value]
        return [c for v in value.values() for c in all_cites(v)]
    return [c for v in value for c in all_cites(v)] if isinstance(value, list) else []


@pytest.mark.parametrize("command", [["abstract"], ["compare"], ["flags", *AS_OF], ["brief", *AS_OF]])
def test_every_quote_stands_in_its_document_read_another_way(yarnex, premises, command):
    done = yarnex(command[0], premises, "--json", *command[1:])
    assert done.returncode == 0, done.stderr
    cites = all_cites(json.loads(done.stdout))
    assert len(cites) > 60
    plain = {p.as_posix(): read_another_way(p) for p in premises.iterdir()}
    for cite in cites:
        # cells of a table and joined pages are read in another order elsewhere, so their lines are looked for one by one
        for line in re.split(r"[\n\t]", cite["quote"].replace("█", "")):
            words = letters(line)
            text = plain[cite["document"]]
            assert words in text or all(letters(w) in text for w in line.split()), cite


def test_every_page_of_a_cite_holds_its_words(yarnex, premises):
    done = yarnex("abstract", premises, "--json")
    pages = {
        p.as_posix(): [letters(page.extract_text()) for page in pypdf.PdfReader(p).pages]
        for p in premises.glob("*.pdf")
    }
    checked = 0
    for cite in all_cites(json.loads(done.stdout)):
        if cite["page"] is None or "█" in cite["quote"]:
            continue
        on = "".join(pages[cite["document"]][cite["page"] - 1 : cite["last_page"]])
        assert all(letters(w) in on for w in re.split(r"[\s-]+", cite["quote"])), cite
        checked += 1
    assert checked > 80


def test_the_same_input_gives_the_same_bytes(yarnex, premises, tmp_path):
    for ending in ("html", "md", "csv", "json"):
        outs = []
        for seed in ("1", "2"):
            out = tmp_path / f"{seed}.{ending}"
            done = yarnex("brief", premises, "-o", out, *AS_OF, env={**os.environ, "PYTHONHASHSEED": seed})
            assert done.returncode == 0, done.stderr
            outs.append(out.read_bytes())
        assert outs[0] == outs[1]


def test_documents_are_never_changed(yarnex, premises):
    before = {p: p.read_bytes() for p in premises.iterdir()}
    yarnex("brief", premises, *AS_OF)
    assert {p: p.read_bytes() for p in premises.iterdir()} == before


def test_no_command_opens_a_connection(premises, tmp_path):
    """Every socket that Python would open is refused, and the work still gets done."""
    refuse = "import socket\ndef no(*a, **k): raise RuntimeError('a connection')\nsocket.socket.connect = no\nsocket.create_connection = no\nsocket.getaddrinfo = no\n"
    script = (
        refuse
        + "import sys\nfrom yarnex.cli.main import main\nsys.argv = ['yarnex', 'brief', sys.argv[1], '--json', '--as-of', '2026-11-23']\nmain()\n"
    )
    done = subprocess.run(
        [str(PROGRAM.parent / "python"), "-c", script, str(premises)], capture_output=True, text=True, timeout=120
    )
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["command"] == "brief"


def test_the_demo_leaves_the_pages_that_it_names(yarnex, tmp_path):
    done = yarnex("demo", "trial")
    assert done.returncode == 0, done.stderr
    assert "$ yarnex compare trial/premises -o trial/premises.html" in done.stderr
    assert (tmp_path / "trial" / "briefing.html").stat().st_size > 50_000
    again = yarnex("demo", "trial")
    assert again.returncode == 2
    assert "a folder that is not empty; name another, or add --force" in again.stderr


def test_the_demo_shows_what_it_was_written_to_show(yarnex, premises):
    done = yarnex("brief", premises, "--json", *AS_OF)
    result = json.loads(done.stdout)["briefing"]
    rows = {r["term"]: {c["document"].rsplit("/", 1)[-1]: c for c in r["cells"]} for r in result["comparison"]["rows"]}
    canal, fell, north = "canal-works.pdf", "fellgate-park.docx", "northbridge-yard.pdf"
    assert rows["break_notice"][canal]["state"] == "amended"
    assert rows["break_notice"][canal]["value"] == {"type": "duration", "value": 4, "unit": "months"}
    assert rows["break_notice"][north]["state"] == "conflicting"
    assert rows["term_length"][north]["state"] == "conflicting"
    assert rows["lease_end"][fell]["value"] == {"type": "date", "value": "2034-02-28"}
    assert rows["lease_end"][fell]["state"] == "computed"
    assert rows["lease_date"][fell]["state"] == "blank"
    assert rows["deposit_account"][north]["state"] == "redacted"
    assert rows["floor_area"][canal]["value"]["value"] == 30200
    assert rows["deposit"][canal]["value"]["value"] == 40770
    raised = {(f["document"].rsplit("/", 1)[-1], f["rule"]) for f in result["flags"]}
    for name, rule in (
        (canal, "full_repair_old_building"), (canal, "absolute_discretion"), (north, "words_and_figures_disagree"),
        (north, "landlord_can_end"), (north, "dates_contradict"), (north, "uncapped_indexation"), (north, "ambiguous_date"), (fell, "repair_limited"),
    ):  # fmt: skip
        assert (name, rule) in raised
    for name, rule in (
        (canal, "landlord_can_end"),
        (canal, "unlimited_guarantee"),
        (fell, "uncapped_indexation"),
        (fell, "full_repair"),
        (fell, "absolute_discretion"),
    ):
        assert (name, rule) not in raised


def test_without_its_amendment_the_lease_is_judged_as_it_stands(yarnex, premises):
    done = yarnex("flags", premises / "canal-works.pdf", "--json", *AS_OF)
    raised = {f["rule"]: f for f in json.loads(done.stdout)["flags"]}
    assert {"landlord_can_end", "unlimited_guarantee", "deposit_without_return_date"} <= raised.keys()
    assert raised["rent_table_does_not_compute"]["notes"] == ["6.10 x 27,000 sq ft = 164,700.00, not 167,400.00"]


# ------------------------------------------------------------------ ways to fail
def encrypted(pdf) -> bytes:
    import pikepdf

    out = io.BytesIO()
    plain = pikepdf.open(io.BytesIO(pdf(lambda c: c.drawString(50, 700, "words"))))
    plain.save(out, encryption=pikepdf.Encryption(owner="o", user="u"))
    return out.getvalue()


def pictures(pdf) -> bytes:
    from PIL import Image
    from reportlab.lib.utils import ImageReader

    return pdf(*[lambda c: c.drawImage(ImageReader(Image.new("L", (9, 9), 99)), 0, 0, 500, 800)] * 2)


BAD = {
    "empty.txt": (lambda pdf: b"", "an empty file; fetch or export it again"),
    "locked.pdf": (encrypted, "locked with a password; save a copy without the password and read that"),
    "truncated.pdf": (
        lambda pdf: pdf(lambda c: c.drawString(50, 700, "words"))[:300],
        "not a complete PDF; fetch or export the file again",
    ),
    "pictures.pdf": (pictures, "a picture without text that could be read, 0 of 2 pages read; look at it in the file"),
    "fake.docx": (
        lambda pdf: b"no zip",
        "not a complete Word file (.docx); open it in its own program and save it again",
    ),
    "strange.txt": (lambda pdf: bytes(range(256)) * 30, "not text in any known encoding; save it as UTF-8 text"),
}


@pytest.mark.parametrize("name", BAD)
@pytest.mark.parametrize("command", ["read", "abstract", "compare", "flags", "brief"])
def test_one_bad_file_is_named_in_one_line_and_the_others_go_on(yarnex, tmp_path, pdf, name, command):
    make, message = BAD[name]
    (tmp_path / name).write_bytes(make(pdf))
    (tmp_path / "lease.txt").write_text(LEASE)
    done = yarnex(command, name, "lease.txt", "--json")
    assert done.returncode == 1
    assert "Traceback" not in done.stderr
    result = json.loads(done.stdout)
    assert "lease.txt" in [d["path"] for d in result["documents"]]
    if command != "read" or name != "pictures.pdf":
        assert done.stderr.splitlines()[0] == f"{name}: {message}"
        assert [u["path"] for u in result["unread"]] == [name]


@pytest.mark.parametrize("name", BAD)
def test_nothing_readable_at_all(yarnex, tmp_path, pdf, name):
    (tmp_path / name).write_bytes(BAD[name][0](pdf))
    done = yarnex("abstract", name)
    assert done.returncode == 3
    assert name in done.stderr
    assert "Traceback" not in done.stderr


@pytest.mark.parametrize(
    ("arguments", "code", "message"),
    [
        (["abstract", "none.pdf"], 2, "none.pdf: no such file or folder; check the name"),
        (["abstract", "folder"], 3, "folder: no documents in it; yarnex reads .pdf, .docx, "),
        (["abstract", "lease.txt", "--sheet", "spindle"], 2, "spindle: no such file; name a file or one of: acquisition, agreement"),
        (["sheets", "check", "broken.yaml"], 2, "broken.yaml, line 4, type: 'sum' is none of"),
        (["sheets", "copy", "loan", "there.md"], 2, "--out there.md: .md is not a format; use .yaml, .yml"),
        (["compare", "lease.txt", "-o", "a.xlsx"], 2, "--out a.xlsx: .xlsx is not a format"),
        (["abstract", "lease.txt", "--sheet", "broken.yaml"], 2, "broken.yaml, line 4, type: 'sum' is none of"),
        (["flags", "lease.txt", "--rules", "rules.yaml"], 2, "rules.yaml, line 5: 'moon' is no term of the sheet 'lease'"),
        (["flags", "lease.txt", "--as-of", "soon"], 2, "--as-of: 'soon' is no day; write it as YYYY-MM-DD"),
        (["abstract", "lease.txt", "-o", "a.xslx"], 2, "--out a.xslx: .xslx is not a format; use .md, .csv, .html, .json"),
        (["abstract", "lease.txt", "-o", "there.md"], 2, "--out there.md: already there; add --force to replace it"),
        (["abstract", "notes.md", "-o", "notes.md", "--force"], 2, "--out notes.md: one of the documents; name another file; documents are never changed"),
        (["show", "lease.txt", "--quote", "no such words"], 1, "lease.txt: the words 'no such words' not found in it"),
        (["show", "lease.txt", "--quote", "Deposit", "--png", "a.png"], 2, "only pages of a PDF or a picture can be drawn"),
        (["compare", "--frobnicate"], 2, "No such option: --frobnicate"),
        (["weave"], 2, "No such command 'weave'"),
    ],
)  # fmt: skip
def test_wrong_use_gets_one_clear_line(yarnex, tmp_path, arguments, code, message):
    (tmp_path / "folder").mkdir()
    (tmp_path / "lease.txt").write_text(LEASE)
    (tmp_path / "there.md").write_text("old")
    (tmp_path / "notes.md").write_text("# Lease\n\nDeposit: £5\n")
    (tmp_path / "broken.yaml").write_text('sheet: "s"\nlabel: "S"\nterms:\n  - {id: "a", label: "A", type: "sum"}\n')
    rule = 'rulebook: "r"\nlabel: "R"\nsheet: "lease"\nrules:\n  - {id: "x", label: "X", severity: "low", why: "w", plain: "p", remedy: "r", when: {found: "moon"}}\n'
    (tmp_path / "rules.yaml").write_text(rule)
    done = yarnex(*arguments)
    assert done.returncode == code
    assert message in done.stderr
    assert "Traceback" not in done.stderr
    assert (tmp_path / "there.md").read_text() == "old"


@pytest.mark.skipif(not Path("/dev/full").exists(), reason="no full disk to write to")
def test_a_full_disk(yarnex, tmp_path):
    (tmp_path / "lease.txt").write_text(LEASE)
    with Path("/dev/full").open("w") as full:
        done = subprocess.run(
            [str(PROGRAM), "abstract", "lease.txt", "--json"],
            cwd=tmp_path,
            stdout=full,
            stderr=subprocess.PIPE,
            text=True,
            timeout=60,
        )
    assert done.returncode == 2
    assert "standard output: cannot be written (No space left on device)" in done.stderr
    assert "Traceback" not in done.stderr


def test_a_full_disk_on_out_leaves_what_was_there(tmp_path, monkeypatch, capsys):
    (tmp_path / "lease.txt").write_text(LEASE)
    out = tmp_path / "a.md"
    out.write_text("old")

    def full(descriptor):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    assert app(["abstract", str(tmp_path / "lease.txt"), "-o", str(out), "--force"], standalone_mode=False) == 2
    assert "cannot be written (No space left on device)" in capsys.readouterr().err
    assert out.read_text() == "old"
    assert sorted(p.name for p in tmp_path.iterdir()) == ["a.md", "lease.txt"]


def listening() -> None:
    """Let a program hear an interruption also where the tests themselves were started in the background."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)


def test_an_interruption_leaves_nothing_half_written(premises, tmp_path):
    many = tmp_path / "many"
    many.mkdir()
    for i in range(60):
        shutil.copy(premises / "canal-works.pdf", many / f"{i}.pdf")
    out = tmp_path / "a.html"
    running = subprocess.Popen(
        [str(PROGRAM), "brief", str(many), "--no-store", "-o", str(out)],
        stderr=subprocess.PIPE,
        text=True,
        preexec_fn=listening,
    )
    time.sleep(1.5)
    running.send_signal(signal.SIGINT)
    _, said = running.communicate(timeout=90)
    assert running.returncode == 130
    assert "interrupted; no output file was written or changed" in said
    assert "Traceback" not in said
    assert not list(tmp_path.glob(".a.html*"))
    assert not out.exists()


def test_a_reader_that_goes_away_is_no_error(premises):
    done = subprocess.run(
        f"'{PROGRAM}' abstract '{premises}' --json | head -c 100",
        shell=True,
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert "Traceback" not in done.stderr
    assert "Broken" not in done.stderr


# ------------------------------------------------------------------ what is shown
def test_read_says_what_each_document_is(yarnex, premises):
    done = yarnex("read", premises, "--json")
    kinds = {d["path"].rsplit("/", 1)[-1]: d["kind"] for d in json.loads(done.stdout)["documents"]}
    assert kinds == {
        "canal-works.pdf": "lease",
        "canal-works-amendment.docx": "amendment",
        "fellgate-park.docx": "lease",
        "northbridge-yard.pdf": "lease",
    }


def test_show_marks_the_words(yarnex, premises, tmp_path):
    done = yarnex("show", premises / "canal-works.pdf", "--page", "4", "--quote", "initial rent", "--png", "page.png")
    assert done.returncode == 0, done.stderr
    assert '>>"Initial Rent<<' in done.stdout or ">>Initial Rent<<" in done.stdout
    assert "p. 4 (printed 2)" in done.stdout
    assert (tmp_path / "page.png").read_bytes().startswith(b"\x89PNG")


@pytest.mark.parametrize("command", ["abstract", "compare", "flags", "brief"])
def test_a_paper_of_another_kind_is_named(yarnex, tmp_path, command):
    (tmp_path / "cake.txt").write_text("RECIPE\n\nTake two eggs and a pound of flour, and bake for an hour.\n")
    done = yarnex(command, "cake.txt", "--sheet", "lease")
    assert done.returncode == 0
    assert done.stderr == "cake.txt: not recognised as a lease; read as one all the same, so check that this fits\n"


def test_without_documents_the_current_folder_is_read(yarnex, tmp_path):
    (tmp_path / "lease.txt").write_text(LEASE)
    assert "lease.txt" in yarnex("read").stdout


def test_version_and_help(yarnex):
    assert re.fullmatch(r"yarnex \d+\.\d+\.\d+\n", yarnex("--version").stdout)
    for command in ("read", "abstract", "compare", "flags", "brief", "show", "demo"):
        done = yarnex(command, "--help")
        assert done.returncode == 0
        assert "Example: yarnex" in " ".join(done.stdout.split())


def test_start_up_stays_light():
    """Heavy packages are loaded only by the commands that need them."""
    code = "import sys, yarnex.cli.main; print([m for m in ('pypdfium2', 'lxml', 'pint', 'babel', 'jinja2', 'yaml', 'PIL') if m in sys.modules])"
    done = subprocess.run([str(PROGRAM.parent / "python"), "-c", code], capture_output=True, text=True, timeout=60)
    assert done.stdout.strip() == "[]"


def test_the_readme_shows_what_happens(yarnex, premises, tmp_path):
    shutil.copytree(premises, tmp_path / "premises")
    (block,) = re.findall(r"```console\n(.*?)```", (ROOT / "README.md").read_text(), re.DOTALL)
    runs = re.findall(r"\$ yarnex (.*)\n((?:(?!\$ ).*\n?)*)", block)
    assert len(runs) == 2
    for command, shown in runs:
        done = yarnex(*command.split())
        assert (done.stdout + done.stderr).split() == shown.split()


def test_from_python():
    import yarnex as package

    assert callable(package.read)
    assert package.__version__
