"""Readers given anything: a document whose parts agree with each other, or one clear line; and the words of a line put together."""

from __future__ import annotations

import string

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import SAMPLES
from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.reading.inline import Inline, heading, paragraph
from yarnex.core.reading.layout.continued_tables import join_tables
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.tables import CellDraft, TableDraft
from yarnex.core.reading.layout.words import Segment, Word
from yarnex.core.reading.ranges import ranges
from yarnex.core.reading.structure import structure

SKIP = ReadOptions("skip")
MARKUP = st.text(alphabet=string.ascii_letters + string.digits + "<>/=\"' &;#!-\n\t£é\u202e\x00", max_size=300)


def sound(document: Document) -> None:
    """Every span lies in the text, blocks do not overlap, words stand where the arrays say."""
    end = len(document.text)
    last = 0
    for block in document.blocks:
        assert last <= block.span.start < block.span.end <= end
        last = block.span.end
        assert block.section < len(document.sections)
        assert block.table < len(document.tables)
    for table in document.tables:
        for cell in table.cells:
            assert table.span.start <= cell.span.start < cell.span.end <= table.span.end
            assert cell.row + cell.row_span <= table.rows + 100
    for section in document.sections:
        assert 0 <= section.span.start <= section.span.end <= end
    fragments = document.fragments
    assert len(fragments.starts) == len(fragments.ends) == len(fragments.pages)
    for start, stop in zip(fragments.starts, fragments.ends, strict=True):
        assert document.text[start:stop].strip()
    for mark in document.marks:
        assert 0 <= mark.span.start < mark.span.end <= end


def reads(data: bytes, name: str) -> None:
    """The data gives sound documents, or a line that names the file."""
    try:
        for reading in read_data(data, name, SKIP):
            if reading.document is not None:
                sound(reading.document)
            else:
                assert reading.error is not None
    except UnreadableError as error:
        assert str(error).startswith(name)


@pytest.mark.parametrize("name", sorted(SAMPLES))
def test_the_parts_of_a_sample_agree(name):
    for reading in read_data(SAMPLES[name](), name, SKIP):
        if reading.document is not None:
            sound(reading.document)


@settings(max_examples=60)
@given(MARKUP)
def test_any_web_page(text):
    reads(f"<html><body>{text}</body></html>".encode("utf-8", "replace"), "a.html")


@settings(max_examples=40)
@given(
    st.lists(st.tuples(st.integers(0, 4), st.integers(0, 4), st.text(string.ascii_letters, max_size=4)), max_size=12)
)
def test_any_spans_of_a_table(cells):
    rows = "".join(f'<tr><td colspan="{a}" rowspan="{b}">{t}</td><td>x</td></tr>' for a, b, t in cells)
    reads(f"<table>{rows}</table><p>end</p>".encode(), "a.html")


@settings(max_examples=60)
@given(st.text(max_size=300))
def test_any_text(text):
    reads(text.encode("utf-8", "replace"), "a.txt")
    reads(text.encode("utf-8", "replace"), "a.md")


@settings(max_examples=40)
@given(st.binary(max_size=200))
def test_any_bytes_under_any_name(data):
    for name in ("a.csv", "a.eml", "a.mbox", "a.vtt", "a.srt", "a.rtf", "a.pdf", "a.docx", "a.zip", "a"):
        reads(data, name)


@settings(max_examples=40)
@given(st.lists(st.tuples(st.floats(0, 4000), st.text(string.ascii_letters + " <>:&", max_size=20)), max_size=8))
def test_any_cues(cues):
    def clock(seconds):
        return f"{int(seconds) // 3600:02d}:{int(seconds) % 3600 // 60:02d}:{seconds % 60:06.3f}"

    reads(("WEBVTT\n\n" + "\n\n".join(f"{clock(s)} --> {clock(s + 2)}\n{t}" for s, t in cues)).encode(), "a.vtt")


@given(st.lists(st.tuples(st.text(" ab£\n\t", max_size=6), st.booleans()), max_size=8))
def test_runs_put_together_keep_their_marks(runs):
    inline = Inline()
    for text, marked in runs:
        start = inline.at
        inline.put(text)
        if marked:
            inline.mark(start, "m", text.strip())
    draft = inline.draft()
    whole = " ".join("".join(t for t, _ in runs).split())
    assert (draft.text if draft else "") == whole
    for start, end, _, value in draft.marks if draft else ():
        assert whole[start:end] == " ".join(value.split()) or not value


@given(st.lists(st.integers(1, 60)))
def test_ranges_name_each_number_once(numbers):
    named = []
    for part in filter(None, ranges(numbers).split(", ")):
        first, _, last = part.partition("-")
        named += range(int(first), int(last or first) + 1)
    assert named == sorted(set(numbers))


def test_headings_that_a_file_marks_are_believed():
    drafts = [
        heading("1. Rent", 1),
        paragraph("1.1 The rent is due."),
        heading("Repair", 1),
        paragraph("(a) Keep it."),
        paragraph("SHOUTED LINE"),
    ]
    found = structure(drafts)
    assert [(d.kind, d.level, d.number, d.heading) for d in found] == [
        ("heading", 1, "1", "Rent"), ("paragraph", 2, "1.1", ""), ("heading", 1, "", "Repair"), ("paragraph", 9, "(a)", ""), ("paragraph", 0, "", ""),
    ]  # fmt: skip


def table(page, rows, header=1, x0=60.0):
    cells = [
        CellDraft(r, c, 1, 1, [Segment([Word(t, x0 + 100 * c, 20.0 * r, x0 + 100 * c + 40, 20.0 * r + 10, 10, False)])])
        for r, row in enumerate(rows) for c, t in enumerate(row) if t
    ]  # fmt: skip
    return Draft(
        "table", table=TableDraft(cells, len(rows), len(rows[0]), header, False, x0, 0, x0 + 240, 100), table_page=page
    )


@pytest.mark.parametrize(
    ("second", "joined"),
    [
        (table(2, [("Item", "2026"), ("Wool", "5")]), True), (table(2, [("Item", "2025"), ("Wool", "5")]), False), (table(3, [("Item", "2026"), ("Wool", "5")]), False),
        (table(2, [("Wool", "5"), ("Yarn", "6")], header=0), True), (table(2, [("Wool", "5"), ("Yarn", "6")], header=0, x0=200.0), False),
    ],
)  # fmt: skip
def test_tables_that_go_on(second, joined):
    furniture = []
    found = join_tables([table(1, [("Item", "2026"), ("Looms", "9")]), second], furniture)
    assert (len(found) == 1) is joined
    assert bool(furniture) is (joined and second.table.header_rows == 1)
