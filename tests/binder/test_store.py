"""Readings kept: found again by content, never half, safe with two runs, set aside when damaged."""

from __future__ import annotations

import sqlite3
import threading

import pytest

from tests.samples import SAMPLES
from yarnex.core.binder import Store, read_kept, store_for
from yarnex.core.binder.keeping import key_of
from yarnex.core.reading import ReadOptions
from yarnex.core.reading import pool as pool_module

SKIP = ReadOptions(scans="skip")


@pytest.fixture
def said():
    return []


@pytest.fixture
def store(tmp_path, said):
    (tmp_path / ".yarnex").mkdir()
    return Store(tmp_path / ".yarnex" / "readings.sqlite", said.append)


@pytest.fixture
def folder(tmp_path):
    for name in ("lease.docx", "offer.html", "bundle.zip", "bad.pdf"):
        (tmp_path / name).write_bytes(SAMPLES[name]() if name in SAMPLES else b"junk")
    return tmp_path


def paths(folder):
    return [p.as_posix() for p in sorted(folder.iterdir()) if p.is_file()]


def never(monkeypatch):
    """Reading a file again fails the test."""

    def refuse(path, options):
        raise AssertionError(path)

    monkeypatch.setattr(pool_module, "read_file", refuse)


def test_an_unchanged_file_is_not_read_again(folder, store, monkeypatch):
    wanted = [p for p in paths(folder) if "bad" not in p]
    first = list(read_kept(wanted, SKIP, store))
    never(monkeypatch)
    again = list(read_kept(wanted, SKIP, store))
    assert [(r.path, r.document.text if r.document else str(r.error)) for r in again] == [
        (r.path, r.document.text if r.document else str(r.error)) for r in first
    ]


def test_a_copy_elsewhere_is_known(folder, store, monkeypatch, tmp_path):
    list(read_kept([f"{folder}/offer.html"], SKIP, store))
    (folder / "sub").mkdir()
    (folder / "sub" / "copy.html").write_bytes((folder / "offer.html").read_bytes())
    never(monkeypatch)
    (reading,) = read_kept([f"{folder}/sub/copy.html"], SKIP, store)
    assert reading.document.path == f"{folder}/sub/copy.html"


def test_a_changed_file_is_read_again(folder, store):
    list(read_kept([f"{folder}/offer.html"], SKIP, store))
    (folder / "offer.html").write_text("<p>Other words</p>")
    (reading,) = read_kept([f"{folder}/offer.html"], SKIP, store)
    assert reading.document.text == "Other words"


def test_ending_and_options_make_another_key():
    digest = "0" * 64
    keys = {key_of(digest, "a.txt", SKIP), key_of(digest, "a.md", SKIP), key_of(digest, "a.txt", ReadOptions())}
    assert len(keys) == 3
    assert key_of(digest, "x/a.txt", SKIP) == key_of(digest, "b.TXT", SKIP)


def test_a_member_of_an_archive(folder, store):
    (reading,) = read_kept([f"{folder}/bundle.zip/papers/offer.html"], SKIP, store)
    assert "£12,500" in reading.document.text
    (missing,) = read_kept([f"{folder}/bundle.zip/none.txt"], SKIP, store)
    assert "not in the file that the path names" in str(missing.error)


def test_failures_are_told_each_time_and_not_kept(folder, store):
    for _ in range(2):
        (reading,) = read_kept([f"{folder}/bad.pdf"], SKIP, store)
        assert str(reading.error) == f"{folder}/bad.pdf: not a complete PDF; fetch or export the file again"


def test_a_damaged_entry_is_noticed(folder, store, said):
    list(read_kept([f"{folder}/offer.html"], SKIP, store))
    with sqlite3.connect(store.file) as base:
        base.execute("UPDATE readings SET data = substr(data, 1, 90)")
    base.close()
    (reading,) = read_kept([f"{folder}/offer.html"], SKIP, store)
    assert reading.document is not None
    assert said == [f"{store.file.as_posix()}: a kept reading is damaged; the document is read again"]


def test_a_damaged_store_is_set_aside(tmp_path, said):
    file = tmp_path / "readings.sqlite"
    file.write_bytes(b"no database " * 400)
    store = Store(file, said.append)
    store.put("a", b"words")
    assert store.get("a") == b"words"
    assert said == [
        f"{file.as_posix()}: the store of readings is damaged; set aside as readings.damaged-1.sqlite, and the documents are read again"
    ]
    assert (tmp_path / "readings.damaged-1.sqlite").exists()


def test_two_runs_at_once(tmp_path, said):
    file = tmp_path / "readings.sqlite"

    def run(name):
        store = Store(file, said.append)
        for i in range(60):
            store.put(f"{name}{i}", name.encode() * 1000)
        store.close()

    threads = [threading.Thread(target=run, args=(n,)) for n in "abc"]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    store = Store(file, said.append)
    assert all(store.get(f"{n}{i}") == n.encode() * 1000 for n in "abc" for i in range(60))
    assert not said


def test_where_readings_are_kept(tmp_path, monkeypatch, said):
    monkeypatch.setenv("YARNEX_CACHE", str(tmp_path / "cache"))
    (tmp_path / "plain").mkdir()
    (tmp_path / "binder" / "deep").mkdir(parents=True)
    (tmp_path / "binder" / "yarnex.toml").write_text("")
    assert store_for(tmp_path / "plain", said.append).file == tmp_path / "cache" / "readings.sqlite"
    assert (
        store_for(tmp_path / "binder" / "deep", said.append).file == tmp_path / "binder" / ".yarnex" / "readings.sqlite"
    )
    assert (tmp_path / "cache").stat().st_mode & 0o077 == 0
    assert store_for(tmp_path / "plain", said.append).file.stat().st_mode & 0o077 == 0


def test_the_oldest_entries_go(tmp_path, said, monkeypatch):
    monkeypatch.setattr("yarnex.core.binder.store.MAX_KEPT", 40_000)
    store = Store(tmp_path / "readings.sqlite", said.append)
    for i in range(10):
        store.put(str(i), bytes(8_000))
        store._base.execute("UPDATE readings SET used = ? WHERE key = ?", (i, str(i)))
    store.close()
    store = Store(tmp_path / "readings.sqlite", said.append)
    assert store.get("0") is None
    assert store.get("9") is not None
