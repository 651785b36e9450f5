"""What `read` and `outline` show: how pages were read, pages, changes, copies; and doubtful words beside a finding."""

from __future__ import annotations

from array import array
from dataclasses import replace

import pytest

from tests.samples import SAMPLES
from yarnex.core.comparing.copies import copies_among
from yarnex.core.document import Change, Cite, Fragments, Mark, Page, Problem, Span
from yarnex.core.document.outline import outline_of
from yarnex.core.errors import UnreadableError
from yarnex.core.reading import ReadOptions, read_data
from yarnex.output import as_json, markdown, table_csv
from yarnex.output.reports import coverage, doubts, outline_report, read_report


def read(name):
    return read_data(SAMPLES[name](), name, ReadOptions("skip"))[0].document


@pytest.fixture
def scanned():
    """A document of three pages: printed, recognised with a doubtful word, and not read."""
    document = read("lease.pdf")
    pages = (
        Page(1, "i", 595, 842, "text", 104, "printed"), Page(2, "1", 595, 842, "text", 104, "recognised", 90), Page(3, "", 595, 842, "no_text", 0),
    )  # fmt: skip
    old = document.fragments
    sure = array("B", [100] * len(old.starts))
    sure[3] = 41
    fragments = Fragments(old.starts, old.ends, old.pages, old.boxes, old.lines, sure)
    problem = Problem("a picture without text that could be read", "page 3", "look at it in the file")
    return replace(document, pages=pages, fragments=fragments, problems=(problem,))


def text_of(report):
    return markdown.render(report)


@pytest.mark.parametrize(
    ("name", "said"),
    [
        ("lease.pdf", "2 of 2 pages"),
        ("rents.ods", "1 of 1 sheet"),
        ("deck.pptx", "2 of 2 slides"),
        ("call.vtt", "all"),
        ("offer.html", "1 of 1 page"),
    ],
)
def test_coverage(name, said):
    assert coverage(read(name)) == said


def test_how_pages_were_read_is_said(scanned):
    shown = text_of(read_report([scanned], [], []))
    assert "2 of 3 pages (1 recognised)" in shown
    assert "page 3: a picture without text that could be read; look at it in the file" in shown


def test_a_line_for_each_page(scanned):
    rows = table_csv.render(read_report([scanned], [], [], each_page=True))
    for part in ("printed number", "recognised, turned by 90", "a picture, not read"):
        assert part.lower() in rows.lower().replace("°", "")


def test_changes_and_comments_with_their_places():
    document = read("lease.docx")
    at = document.text.index("rent")
    document = replace(
        document,
        changes=(Change("deleted", "£11,000", "Ida", "2026-04-03T09:00:00Z", at),),
        marks=(Mark(Span(at, at + 4), "comment", "Owen: why so high?"),),
    )
    shown = text_of(read_report([document], [], [], changes=True))
    for part in ("deleted", "£11,000", "Ida, 2026-04-03", "Owen: why so high?"):
        assert part in shown
    entry = as_json.document_entry(document)
    assert entry["changes"] == [
        {"type": "deleted", "text": "£11,000", "author": "Ida", "date": "2026-04-03T09:00:00Z", "at": at}
    ]
    assert entry["comments"][0]["cite"]["quote"] == "rent"


def test_what_was_not_read_and_copies():
    first, again = read("lease.odt"), replace(read("lease.odt"), path="copy.odt")
    shown = text_of(
        read_report(
            [first, again],
            [UnreadableError("locked with a password", where="c.pdf", do="save a copy")],
            ["x.exe"],
            copies_among([first, again]),
        )
    )
    assert "copy.odt: the same file as lease.odt" in shown
    assert "locked with a password; save a copy" in shown
    assert "1 other file of formats that are not read: x.exe" in shown


def test_outline_shows_printed_numbers_only_where_they_differ():
    headed = read("wool.epub")
    headed = replace(headed, pages=tuple(replace(p, label=str(p.number + 4)) for p in headed.pages))
    assert "Printed" in text_of(outline_report([(headed, outline_of(headed))]))
    plain = read("deck.pptx")
    assert "Printed" not in text_of(outline_report([(plain, outline_of(plain))]))
    assert "No headings found." in text_of(outline_report([(read("rents.csv"), ())]))


def test_doubtful_words_are_said_beside_their_quote(scanned):
    start, end = scanned.fragments.starts[2], scanned.fragments.ends[5]
    cite = Cite(scanned, Span(start, end))
    word = scanned.text[scanned.fragments.starts[3] : scanned.fragments.ends[3]]
    assert cite.doubtful == (word,)
    assert cite.to_dict()["doubtful"] == [word]
    assert doubts([cite, cite]) == [f"recognised with doubt: {word}; check the page"]
    assert doubts([Cite(scanned, Span(0, scanned.fragments.ends[1]))]) == []
