"""The index that tells which papers come nearest to a question, in a file, in memory and when the file is damaged."""

from __future__ import annotations

import sqlite3

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.binder import store_for
from yarnex.core.reading import ReadOptions
from yarnex.core.search import ask_all, nearest_paths, understand
from yarnex.core.search.passage_index import FILE, PassageIndex, _expression, _token, entries_of

LEASE = "The Tenant shall pay a deposit of £4,000 to the Landlord.\n\nThe rent is £30,000 a year.\n"
YARN = "The supplier delivers forty bales of fleece each month.\n\nPrices rise by 2 per cent a year.\n"
MINUTES = "The board met on 4 May 2026.\n\nIt was decided to repair the boiler house.\n"


@pytest.fixture
def index(document):
    made = PassageIndex(None)
    for name, text in (("lease", LEASE), ("yarn", YARN), ("minutes", MINUTES)):
        made.add(name, entries_of([document(text, f"{name}.txt")]))
    return made


@pytest.mark.parametrize(
    ("question", "nearest"),
    [
        ("How large is the deposit?", "lease"),
        ("How many bales are delivered?", "yarn"),
        ("What was resolved about the boiler house?", "minutes"),
        ("How much is the security deposit?", "lease"),
        ("By how much do prices increase?", "yarn"),
    ],
)
def test_the_paper_that_speaks_of_it_comes_nearest(index, question, nearest):
    near = index.nearness(["lease", "yarn", "minutes"], [understand(question)])
    assert max(near, key=near.__getitem__) == nearest
    assert all(0 <= n <= 1.4 for n in near.values())


def test_of_several_questions_the_best_counts(index):
    one = index.nearness(["yarn"], [understand("How many bales are delivered?")])["yarn"]
    both = index.nearness(["yarn"], [understand("Who chairs it?"), understand("How many bales are delivered?")])["yarn"]
    assert both >= one > 0


def test_papers_not_asked_for_and_not_known_do_not_count(index):
    near = index.nearness(["minutes", "unknown"], [understand("How large is the deposit?")])
    assert near == {"minutes": 0.0, "unknown": 0.0}


def test_it_is_kept_in_a_file_and_a_paper_is_taken_in_once(tmp_path, document):
    first = PassageIndex(tmp_path / FILE)
    first.add("lease", entries_of([document(LEASE, "lease.txt")]))
    first.add("lease", entries_of([document(LEASE, "lease.txt")]))
    first.close()
    again = PassageIndex(tmp_path / FILE)
    assert again.has("lease")
    assert not again.has("yarn")
    assert again._base.execute("SELECT count(*) FROM papers").fetchone() == (1,)
    assert again.nearness(["lease"], [understand("How large is the deposit?")])["lease"] > 0.5


def test_two_runs_that_take_in_the_same_paper_leave_each_line_once(tmp_path, document):
    first, second = PassageIndex(tmp_path / FILE), PassageIndex(tmp_path / FILE)
    second.add("minutes", entries_of([document(MINUTES, "minutes.txt")]))
    first.add("lease", entries_of([document(LEASE, "lease.txt")]))
    lines = first._base.execute("SELECT count(*) FROM lines").fetchone()
    second.add("lease", entries_of([document(LEASE, "lease.txt")]))
    assert first._base.execute("SELECT count(*) FROM lines").fetchone() == lines
    assert second.nearness(["minutes"], [understand("How large is the deposit?")])["minutes"] == 0


@pytest.mark.parametrize("content", [b"no data base at all, but long enough to look like one" * 40, b""])
def test_a_damaged_file_is_begun_anew(tmp_path, document, content):
    (tmp_path / FILE).write_bytes(content)
    index = PassageIndex(tmp_path / FILE)
    index.add("lease", entries_of([document(LEASE, "lease.txt")]))
    assert index.has("lease")


def test_where_no_file_can_be_made_memory_serves(tmp_path, document):
    index = PassageIndex(tmp_path / "no such folder" / FILE)
    index.add("lease", entries_of([document(LEASE, "lease.txt")]))
    assert index.has("lease")


def test_what_another_version_has_made_goes(tmp_path, document):
    old = PassageIndex(tmp_path / FILE, "1")
    old.add("lease", entries_of([document(LEASE, "lease.txt")]))
    old.close()
    assert PassageIndex(tmp_path / FILE, "1").has("lease")
    assert not PassageIndex(tmp_path / FILE, "2").has("lease")
    with sqlite3.connect(tmp_path / FILE) as base:
        base.execute("DROP TABLE made_by")
    assert not PassageIndex(tmp_path / FILE, "2").has("lease")


@given(st.text(min_size=1, max_size=12).filter(lambda s: not s.isspace()))
def test_any_stem_can_be_asked_for(stem):
    index = PassageIndex(None)
    index._base.execute("INSERT INTO lines (rowid, said) VALUES (1, ?)", (_token(stem),))
    rows = index._base.execute("SELECT rowid FROM lines WHERE lines MATCH ?", (_expression("said", [(stem,)]),))
    found = [row for (row,) in rows]
    assert (
        found == [1] or not _token(stem).isascii()
    )  # a sign of no script's letters may be passed over, but never fails


def papers(folder):
    out = []
    for name, text in (("a.txt", LEASE), ("b.txt", YARN), ("c.txt", MINUTES)):
        (folder / name).write_text(text, "utf-8")
        out.append((folder / name).as_posix())
    return out


def test_the_nearest_of_some_files(tmp_path, monkeypatch):
    monkeypatch.setenv("YARNEX_CACHE", (tmp_path / "cache").as_posix())
    (tmp_path / "papers").mkdir()
    paths = papers(tmp_path / "papers")
    store = store_for(tmp_path / "papers", print)
    for _ in range(2):  # made, then from the file
        assert nearest_paths(paths, ["How large is the deposit?"], 1, ReadOptions(), store) == paths[:1]
    assert store.file.with_name(FILE).exists()
    assert nearest_paths(paths, ["How many bales?", "Who met?"], 2, ReadOptions(), store) == paths[1:]
    assert nearest_paths(paths, ["How many bales?"], 3, ReadOptions(), None) == paths
    store.close()


def test_a_file_that_cannot_be_read_is_kept_so_that_it_is_told(tmp_path):
    paths = [*papers(tmp_path), (tmp_path / "d.pdf").as_posix(), (tmp_path / "gone.txt").as_posix()]
    (tmp_path / "d.pdf").write_bytes(b"%PDF-1.7 broken")
    assert nearest_paths(paths, ["How many bales?"], 1, ReadOptions(), None) == [paths[1], *paths[3:]]


def test_where_nothing_comes_near_one_is_asked_all_the_same(tmp_path):
    paths = papers(tmp_path)
    assert len(nearest_paths(paths, ["Zebras?"], 2, ReadOptions(), None)) == 1


def test_what_is_made_of_a_paper_is_kept_for_the_next_run_and_answers_alike(tmp_path, document, monkeypatch):
    store = tmp_path / "readings.sqlite"
    asked = [("1", "How large is the deposit?"), ("2", "And the rent?"), ("3", "Who insures?")]

    def told() -> list[object]:
        papers = [document(LEASE, "lease.txt"), document(YARN, "yarn.txt")]
        rows = ask_all(papers, asked, store=store)
        return [[f.to_dict() for f in found] for row in rows for found in row.findings]

    first = told()
    assert len(sqlite3.connect(store.with_name(FILE)).execute("SELECT key FROM made").fetchall()) == 2

    def never(*_: object) -> None:
        raise AssertionError("made though it is kept")

    monkeypatch.setattr("yarnex.core.terms.lines.Lines._build", never)
    assert told() == first


def test_what_is_kept_but_damaged_is_made_again(tmp_path, document):
    store = tmp_path / "readings.sqlite"
    asked = [("1", "How large is the deposit?")]
    (first,) = ask_all([document(LEASE, "lease.txt")], asked, store=store)
    base = sqlite3.connect(store.with_name(FILE))
    base.execute("UPDATE made SET data = x'5952'")
    base.commit()
    (again,) = ask_all([document(LEASE, "lease.txt")], asked, store=store)
    assert [f.to_dict() for f in again.findings[0]] == [f.to_dict() for f in first.findings[0]]
    assert base.execute("SELECT length(data) FROM made").fetchone()[0] > 100  # and kept anew
