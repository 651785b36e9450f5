from __future__ import annotations

import os

import pytest

from yarnex.core.errors import UnreadableError, YarnexError
from yarnex.core.reading import find_files, read_all, read_document


def test_folders_are_walked_in_a_fixed_order(tmp_path):
    for name in ("b.txt", "a.md", "sub/c.txt", ".hidden.txt", "~$lock.docx", "x.exe", ".git/d.txt"):
        (tmp_path / name).parent.mkdir(exist_ok=True)
        (tmp_path / name).write_text("words")
    wanted, passed = find_files([tmp_path, tmp_path / "b.txt"])
    assert [p.removeprefix(tmp_path.as_posix() + "/") for p in wanted] == ["a.md", "b.txt", "sub/c.txt"]
    assert [p.rsplit("/", 1)[-1] for p in passed] == ["x.exe"]


def test_a_missing_path_is_said(tmp_path):
    with pytest.raises(YarnexError, match="no such file or folder; check the name"):
        find_files([tmp_path / "none"])


@pytest.mark.parametrize(
    ("name", "data", "what"),
    [
        ("a.txt", b"", "an empty file"),
        ("a.pdf", b" \n", "an empty file"),
        ("a.pdf", b"words", "not a complete PDF"),
        ("a.docx", b"words", "not a complete Word file"),
        ("a.png", b"\x89PNG", "not a complete PNG file"),
        ("a.heic", b"\x00\x00", ".heic is not a format that can be read"),
        ("a.xlsx", b"PK\x03\x04", "not a complete workbook"),
        ("a.zip", b"PK\x03\x04", "not a complete ZIP archive"),
    ],
)
def test_each_way_in_which_a_file_cannot_be_read(tmp_path, name, data, what):
    (tmp_path / name).write_bytes(data)
    with pytest.raises(UnreadableError, match=what) as caught:
        read_document(tmp_path / name)
    assert name in str(caught.value)


def test_the_content_decides_before_the_ending(tmp_path, pdf):
    (tmp_path / "lease.txt").write_bytes(pdf(lambda c: c.drawString(60, 700, "A lease in a PDF")))
    assert read_document(tmp_path / "lease.txt").format == "pdf"


@pytest.mark.skipif(os.geteuid() == 0, reason="the superuser may read everything")
def test_permission(tmp_path):
    path = tmp_path / "a.txt"
    path.write_text("words")
    path.chmod(0)
    with pytest.raises(UnreadableError, match="no permission to read it"):
        read_document(path)


def test_permission_and_other_errors_of_the_system(tmp_path, monkeypatch):
    path = tmp_path / "a.txt"
    path.write_text("words")

    def refuse(self):
        raise PermissionError(13, "Permission denied")

    monkeypatch.setattr("pathlib.Path.read_bytes", refuse)
    with pytest.raises(UnreadableError, match="no permission to read it"):
        read_document(path)


def test_one_bad_file_does_not_stop_the_others(tmp_path):
    (tmp_path / "a.pdf").write_bytes(b"junk")
    (tmp_path / "b.txt").write_text("words")
    first, second = read_all([str(tmp_path / "a.pdf"), str(tmp_path / "b.txt")])
    assert first.document is None
    assert second.document is not None
    assert len(second.document.sha256) == 64
