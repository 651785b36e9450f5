"""Reading in processes: order, faults of one file, bounds; and the form in which readings travel."""

from __future__ import annotations

import contextlib
import os
import time
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import SAMPLES
from yarnex.core.document.storing import from_bytes, to_bytes
from yarnex.core.errors import UnreadableError, YarnexError
from yarnex.core.reading import Reading, ReadOptions, read_data
from yarnex.core.reading import pool as pool_module
from yarnex.core.reading.packing import pack, unpack
from yarnex.core.reading.pool import read_many

SKIP = ReadOptions(scans="skip")


@pytest.mark.parametrize("name", sorted(SAMPLES))
def test_a_document_survives_the_journey(name):
    readings = read_data(SAMPLES[name](), name, SKIP)
    again = unpack(pack(readings, name), f"elsewhere/{name}")
    assert [r.path for r in again] == [f"elsewhere/{r.path}" for r in readings]
    for old, new in zip(readings, again, strict=True):
        if old.document is None:
            assert str(new.error) == f"elsewhere/{old.error}"
            continue
        assert new.document.parent == (f"elsewhere/{old.document.parent}" if old.document.parent else "")
        for field in (
            "text",
            "pages",
            "blocks",
            "tables",
            "sections",
            "problems",
            "marks",
            "tagged",
            "changes",
            "properties",
            "body_end",
            "paging",
        ):
            assert getattr(new.document, field) == getattr(old.document, field)
        assert list(new.document.fragments.starts) == list(old.document.fragments.starts)
        assert list(new.document.fragments.boxes) == list(old.document.fragments.boxes)
        assert to_bytes(from_bytes(to_bytes(old.document))) == to_bytes(old.document)


@given(st.binary(max_size=400))
def test_other_bytes_are_refused(data):
    with pytest.raises(ValueError):
        from_bytes(b"YRNXDOC1" + data)


@given(st.integers(0, 10_000), st.integers(0, 255))
def test_a_damaged_pack_is_refused_or_read(place, value):
    data = bytearray(pack(read_data(SAMPLES["lease.md"](), "lease.md", SKIP), "lease.md"))
    data[place % len(data)] = value
    with contextlib.suppress(ValueError):
        unpack(bytes(data), "lease.md")


@pytest.fixture
def papers(tmp_path):
    names = []
    for i in range(12):
        path = tmp_path / f"{i:02d}.txt"
        path.write_text(f"LEASE {i}\n\nDeposit: £{i},000\n")
        names.append(path.as_posix())
    return names


def test_results_come_in_the_order_given(papers):
    found = list(read_many(papers[::-1], SKIP, processes=3))
    assert [path for path, _, _ in found] == papers[::-1]
    assert all(f"LEASE {11 - i}" in r[0].document.text for i, (_, r, _) in enumerate(found))


def replaced(monkeypatch, act):
    """A reader that acts on files named 05, in the reading processes too (they are forked)."""
    real = pool_module.read_file

    def read_file(path, options):
        if path.endswith("05.txt"):
            act()
        return real(path, options)

    monkeypatch.setattr(pool_module, "read_file", read_file)


def crash():
    os.kill(os.getpid(), 9)


def hang():
    time.sleep(60)


def starve():
    raise MemoryError


def fault():
    raise KeyError("x")


@pytest.mark.skipif(os.name != "posix", reason="the processes are forked")
@pytest.mark.parametrize(
    ("act", "message"),
    [
        (crash, "its reader broke down"), (hang, "not read within 1 seconds; split it or export it again"), (starve, "too large to read in the memory allowed"),
        (fault, r"its reader failed \(KeyError at \S+ line \d+\); export it again, and report this fault"),
    ],
)  # fmt: skip
def test_one_bad_file_never_takes_the_run_with_it(monkeypatch, papers, act, message):
    replaced(monkeypatch, act)
    found = list(read_many(papers, SKIP, processes=2, stall=1.0))
    assert [i for i, (_, r, _) in enumerate(found) if r[0].document is None] == [5]
    with pytest.raises(UnreadableError, match=message):
        raise found[5][1][0].error
    assert found[5][2] == b""  # a failure is not kept


def test_wrong_use_stops_the_run(papers):
    with pytest.raises(YarnexError, match="no way to read scans"):
        scan = papers[0].replace("00.txt", "a.png")
        Path(scan).write_bytes(SAMPLES["scan.png"]())
        list(read_many([scan], ReadOptions(scans="guess")))


def test_progress_is_told(tmp_path):
    (tmp_path / "a.pdf").write_bytes(SAMPLES["lease.pdf"]())
    told = []
    list(read_many([(tmp_path / "a.pdf").as_posix()], SKIP, told=lambda *of: told.append(of[1:])))
    assert told == [(1, 2), (2, 2)]


def test_nothing_to_read():
    assert list(read_many([], SKIP)) == []
    assert Reading("a", None).error is None
