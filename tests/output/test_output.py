"""Renderers: what a report becomes in each format, and words of documents that try to forge it."""

from __future__ import annotations

import csv
import io
import json
import re
from datetime import date
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lxml import html as parser

from yarnex.core.briefing import brief
from yarnex.core.comparing import compare
from yarnex.core.errors import OutputError, UnreadableError
from yarnex.core.flags import apply_rules, load_rulebook
from yarnex.core.terms import abstract_all, load_sheet
from yarnex.core.values import DateValue, Duration, ListOf, Money, Percent, Quantity, Schedule, ScheduleRow, YesNo
from yarnex.output import as_json, html, markdown, table_csv, write
from yarnex.output.reports import abstract_report, briefing_report, compare_report, flags_report, read_report
from yarnex.output.safe import no_formula, visible
from yarnex.output.terminal import cut_quote, show
from yarnex.output.wording import shown

D = Decimal
AS_OF = date(2026, 11, 23)
NASTY = """LEASE

(1) =CMD|'/c calc'!A1 LIMITED, a company (the "Landlord"); and

Permitted use: <script>alert(1)</script> and \u202eevil\u202c \x1b[31mred

Deposit: £5,000

Break notice: six months
"""
PLAIN = """LEASE

This Lease is dated 3 April 2026 and made between TEASEL ESTATES LIMITED, a company (the "Landlord"), and BRACKENFOLD MILLS LIMITED, a company (the "Tenant").

Permitted use: spinning

Deposit: £4,000

Floor area: 1,000 square feet

Rent: £10.00 per square foot a year
"""
METRIC = (
    PLAIN.replace("1,000 square feet", "100 square metres")
    .replace("£10.00 per square foot", "£100.00 per square metre")
    .replace("TEASEL", "BURDOCK")
)


@pytest.fixture
def filled(document):
    return abstract_all(
        [document(NASTY, "nasty.txt"), document(PLAIN, "plain.txt"), document(METRIC, "metric.txt")],
        load_sheet("lease"),
    )


@pytest.fixture
def reports(filled):
    book = load_rulebook("lease", load_sheet("lease"))
    unread = [UnreadableError("locked with a password", where="b.pdf", do="unlock it")]
    return {
        "abstract": abstract_report(filled, why=True),
        "compare": compare_report(compare(filled), filled),
        "flags": flags_report(apply_rules(filled, book, AS_OF), filled, book.label),
        "brief": briefing_report(brief(filled, book, AS_OF, unread)),
        "read": read_report([a.document for a in filled], unread, ["x.exe"]),
    }


KINDS = ["abstract", "compare", "flags", "brief", "read"]


@pytest.mark.parametrize("kind", KINDS)
def test_html_stands_alone_and_every_cite_opens_a_passage(reports, kind):
    page = parser.fromstring(html.render(reports[kind]))
    assert not page.xpath("//script | //link | //img | //iframe | //object | //*[starts-with(@src, 'http')]")
    assert "default-src 'none'" in page.xpath("//meta[@http-equiv]/@content")[0]
    ids = set(page.xpath("//*/@id"))
    targets = [a.removeprefix("#") for a in page.xpath("//a[@class='cite']/@href")]
    assert set(targets) <= ids
    assert targets or kind == "read"


def test_html_shows_words_of_documents_as_words(reports):
    text = html.render(reports["abstract"])
    assert "<script>alert" not in text
    assert "&lt;script&gt;" in text
    assert "\u202e" not in text
    assert "\x1b" not in text
    assert "\\u202e" in text


def test_the_passage_holds_the_quote(reports, filled):
    page = parser.fromstring(html.render(reports["compare"]))
    marks = {m.text_content() for m in page.xpath("//div[@class='passage']//mark")}
    deposit = filled[1].finding("deposit")
    assert deposit.cites[0].quote in marks


@pytest.mark.parametrize("kind", KINDS)
def test_csv_has_one_width_and_no_formulas(reports, kind):
    rows = list(csv.reader(io.StringIO(table_csv.render(reports[kind]))))
    assert len({len(r) for r in rows}) == 1
    assert rows[0] == list(table_csv.HEADS)
    assert not any(re.match(r"\s*[=+@]", cell) for r in rows for cell in r)
    assert len(rows) > 2


@pytest.mark.parametrize("kind", KINDS)
def test_markdown_tables_keep_their_columns(reports, kind):
    text = markdown.render(reports[kind])
    assert text.startswith("# ")
    table: list[int] = []
    for line in text.splitlines():
        if line.startswith("|"):
            table.append(len(re.findall(r"(?<!\\)\|", line)))
        else:
            assert len(set(table)) <= 1
            table = []
    assert "<script>" not in text


@pytest.mark.parametrize("kind", KINDS)
def test_the_terminal_is_plain_when_piped(reports, kind):
    out = io.StringIO()
    show(reports[kind], file=out)
    text = out.getvalue()
    assert "\x1b" not in text
    assert max(map(len, text.splitlines())) <= 100


def test_the_briefing_has_all_its_parts(reports):
    titles = [s.title for s in reports["brief"].sections]
    for part in (
        "Summary",
        "The documents",
        "Key terms side by side",
        "Key dates",
        "Open questions",
        "How this was made",
    ):
        assert part in titles
    assert any("locked with a password" in w for w in reports["brief"].warnings)


@given(
    st.lists(st.sampled_from(["the", "rent", "is", "paid", "quarterly,", "each"]), min_size=1, max_size=80), st.data()
)
def test_a_cut_quote_keeps_the_words_in_sight_and_adds_none(tokens, data):
    quote = " ".join(tokens)
    start = data.draw(st.integers(0, len(tokens) - 1))
    words = " ".join(tokens[start : start + data.draw(st.integers(1, 4))])
    cut = cut_quote(quote, words, 60)
    assert words in cut
    assert cut.removeprefix("… ").removesuffix(" …") in quote
    assert len(cut) <= 60 + 6


def test_a_paper_of_another_kind_is_said_to_be_one(document):
    papers = [document("RECIPE\n\nTake two eggs.", "cake.txt"), document(PLAIN, "plain.txt")]
    filled = abstract_all(papers, load_sheet("lease"))
    for report in (
        abstract_report(filled),
        compare_report(compare(filled), filled),
        flags_report([], filled, "Review"),
    ):
        assert [w for w in report.warnings if "not recognised as a lease" in w] == [
            "cake.txt: not recognised as a lease; read as one all the same, so check that this fits"
        ]


def test_rents_by_different_areas_are_compared(filled):
    row = next(r for r in compare(filled[1:]).rows if r.term.id == "rent_per_area")
    assert row.status == "differs"
    assert "x 0.092903 = 9.29" in row.notes[1]
    area = next(r for r in compare(filled[1:]).rows if r.term.id == "floor_area")
    assert area.notes[1] == "= 1,076.4 sq ft"


def test_the_status_of_rows(filled):
    rows = {r.term.id: r for r in compare(filled).rows}
    assert rows["deposit"].status == "differs"
    assert rows["lease_date"].missing == ("nasty.txt",)
    assert rows["purchase_option"].status == "nowhere"
    assert rows["floor_area"].status == "differs"
    single = compare(filled[:1]).rows
    assert {r.status for r in single} <= {"single", "nowhere"}


def test_json_numbers_hold_the_exact_decimal(filled):
    text = as_json.dumps({"a": Decimal("0.10"), "b": [Decimal("12345678901234567890.5")], "c": {}, "d": [], "e": "ü\n"})
    assert '"a": 0.10' in text
    assert "12345678901234567890.5" in text
    assert json.loads(text, parse_float=Decimal)["b"] == [Decimal("12345678901234567890.5")]
    entry = json.loads(
        as_json.dumps(as_json.run("abstract", [filled[0].document], [], findings=as_json.findings(filled)))
    )
    assert set(entry["findings"][0]) == {
        "document",
        "term",
        "label",
        "state",
        "value",
        "text",
        "confidence",
        "cites",
        "working",
        "further",
        "near",
        "check",
    }


@pytest.mark.parametrize(
    ("text", "safe"),
    [
        ("=1+1", "'=1+1"), ("+cmd", "'+cmd"), ("@x", "'@x"), ("-cmd", "'-cmd"), (" =x", "' =x"), ("-5.00", "-5.00"), ("12 %", "12 %"), ("plain", "plain"),
        ("a=b", "a=b"), ("\t=x", "'\t=x"),
    ],
)  # fmt: skip
def test_cells_that_a_spreadsheet_would_run(text, safe):
    assert no_formula(text) == safe


@given(st.text(max_size=60))
def test_nothing_that_forges_output_gets_through(text):
    out = visible(text)
    assert not re.search("[\x00-\x08\x0b-\x1f\x7f-\x9f\u202a-\u202e\u2066-\u2069]", out)


@pytest.mark.parametrize(
    ("value", "text"),
    [
        (DateValue(date(2026, 3, 1)), "1 March 2026"),
        (Money(D("84500.00"), "EUR", "year"), "€84,500 a year"),
        (Money(D("7041.67"), "EUR"), "€7,041.67"),
        (Money(D("22.5"), "GBP", "sq_ft_year"), "£22.50 per sq ft a year"),
        (Money(D("1200"), None), "1,200"),
        (Percent(D("7.50")), "7.5 %"),
        (Quantity(D("629.40"), "sq_m"), "629.4 sq m"),
        (Duration(D(1), "months"), "1 month"),
        (Duration(D(10), "business_days"), "10 business days"),
        (YesNo(False), "no"),
        (ListOf(("2024-03-01", "1 April")), "1 March 2024; 1 April"),
        (Schedule((ScheduleRow("2026-05-01", "2027-04-30", Money(D(10), "GBP", "year")),)), "1 May 2026 to 30 April 2027: £10 a year"),
        (Schedule((ScheduleRow("Year 1", "Year 1", Money(D(10), "GBP")),)), "Year 1: £10"),
    ],
)  # fmt: skip
def test_values_in_words(value, text):
    assert shown(value) == text


def test_a_file_is_written_whole_or_not_at_all(tmp_path):
    out = tmp_path / "a.md"
    write.write(out, "first")
    assert out.read_text() == "first"
    with pytest.raises(OutputError, match="cannot be written"):
        write.write(tmp_path / "none" / "a.md", "x")
    assert [p.name for p in tmp_path.iterdir()] == ["a.md"]


@pytest.mark.parametrize(
    ("name", "force", "what"),
    [
        ("a.xslx", False, ".xslx is not a format; use .md, .csv, .html, .json"),
        ("noending", False, "no ending is not a format"),
        ("there.md", False, "already there; add --force"),
        ("folder.md", True, "a folder, not a file"),
        ("none/a.md", False, "no such folder"),
        ("lease.md", True, "one of the documents"),
    ],
)
def test_output_files_that_are_refused(tmp_path, name, force, what):
    (tmp_path / "there.md").write_text("old")
    (tmp_path / "lease.md").write_text("lease")
    (tmp_path / "folder.md").mkdir()
    with pytest.raises(OutputError, match=re.escape(what)):
        write.check_out(tmp_path / name, [str(tmp_path / "lease.md")], force)
