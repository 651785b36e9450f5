"""What is kept between runs: the same as it was made, and nothing that is damaged."""

from __future__ import annotations

import pytest

from yarnex.core import prepared

MADE = {"rent": (("pay", "rent"), frozenset({"a", "b"})), "none": (None, True, 1.5, b"x")}


@pytest.fixture(autouse=True)
def cache(tmp_path, monkeypatch):
    monkeypatch.setenv("YARNEX_CACHE", str(tmp_path / "cache"))
    return tmp_path / "cache" / prepared.FOLDER


def never():
    raise AssertionError("made though it is kept")


def test_it_is_made_once(cache):
    assert prepared.prepared("words", lambda: MADE) == MADE
    assert prepared.prepared("words", never) == MADE
    assert len(list(cache.iterdir())) == 1


@pytest.mark.parametrize("damage", [b"", b"short", b"x" * 200])
def test_a_damaged_file_is_passed_over(cache, damage):
    prepared.prepared("words", lambda: MADE)
    (file,) = cache.iterdir()
    file.write_bytes(damage)
    assert prepared.prepared("words", lambda: {"again": 1}) == {"again": 1}


def test_a_bit_changed_is_noticed(cache):
    prepared.keep("words", MADE)
    (file,) = cache.iterdir()
    data = bytearray(file.read_bytes())
    data[-1] ^= 1
    file.write_bytes(bytes(data))
    assert prepared.recalled("words") is None


def test_what_another_version_has_made_is_not_taken_and_goes(cache, monkeypatch):
    prepared.keep("words", MADE)
    prepared.keep("patterns", MADE)
    monkeypatch.setattr(prepared, "made_by", lambda *places: "another")
    assert prepared.recalled("words") is None
    prepared.keep("words", {})
    assert sorted(f.name.split("-")[0] for f in cache.iterdir()) == ["patterns", "words"]


def test_where_nothing_can_be_kept_it_is_made_each_time(tmp_path, monkeypatch):
    (tmp_path / "file").write_text("no folder")
    monkeypatch.setenv("YARNEX_CACHE", str(tmp_path / "file"))
    assert prepared.prepared("words", lambda: MADE) == MADE
    assert prepared.prepared("words", dict) == {}


def test_a_run_that_is_to_keep_nothing_reads_only(cache, monkeypatch):
    prepared.keep("words", MADE)
    monkeypatch.setattr(prepared, "_run", {"keeps": True})
    prepared.keep_nothing()
    assert prepared.prepared("words", never) == MADE
    assert prepared.prepared("other", lambda: {"a": 1}) == {"a": 1}
    assert len(list(cache.iterdir())) == 1


def test_it_changes_with_the_files_that_make_it(tmp_path, monkeypatch):
    monkeypatch.setattr(prepared, "PACKAGE", tmp_path)
    (tmp_path / "packs").mkdir()
    file = tmp_path / "packs" / "words.yaml"
    file.write_text("one")
    before = prepared.made_by("packs")
    prepared.made_by.cache_clear()
    file.write_text("other")
    assert prepared.made_by("packs") != before
    prepared.made_by.cache_clear()
