"""Rows side by side, and the parts of a briefing: what is compared, what is left open, and in what order."""

from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.briefing import brief
from yarnex.core.comparing import compare
from yarnex.core.document import Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.flags import load_rulebook
from yarnex.core.terms import abstract_all, load_sheet

AS_OF = date(2026, 11, 23)


@pytest.fixture
def filled(document):
    """Filled lease sheets of documents made of these paragraphs."""

    def make(*leases: list[str]):
        papers = [document("\n\n".join(["LEASE", *words]), f"{'abc'[i]}.txt") for i, words in enumerate(leases)]
        return abstract_all(papers, load_sheet("lease"))

    return make


@pytest.fixture
def briefing(filled):
    def make(*leases: list[str], unread=(), as_of=AS_OF):
        return brief(filled(*leases), load_rulebook("lease", load_sheet("lease")), as_of, unread)

    return make


@pytest.mark.parametrize(
    ("term", "one", "two", "status"),
    [
        ("deposit", "Deposit: £4,000", "Deposit: GBP 4,000.00", "same"),
        ("deposit", "Deposit: £4,000", "Deposit: €4,000", "differs"),
        ("deposit", "Deposit: £4,000", "Permitted use: a mill", "gap"),
        ("deposit", "Deposit: £4,000", "Deposit: £ ________", "differs"),
        ("break_notice", "Break notice: six months", "Break notice: 6 months", "same"),
        ("break_notice", "Break notice: six months", "Break notice: 180 days", "differs"),
        ("term_length", "Term: two years", "Term: twenty-four months", "same"),
        ("late_interest", "Interest rate: 4%", "Interest rate: four per cent", "same"),
        ("lease_start", "Commencement date: 1 May 2026", "Commencement date: 2026-05-01", "same"),
        ("floor_area", "Floor area: 1,000 square feet", "Floor area: 92.903 square metres", "same"),
        ("floor_area", "Floor area: 1,000 square feet", "Floor area: 1,000 square metres", "differs"),
        ("permitted_use", "Permitted use: spinning of wool", "Permitted use: weaving", "wording"),
        ("permitted_use", "Permitted use: spinning of wool", "Permitted use: spinning of wool", "same"),
        ("permitted_use", "Permitted use: spinning of wool", "Deposit: £4,000", "gap"),
        ("upwards_only", "The reviewed rent shall not be less than the rent payable before the review.", "The rent may go up or down: it shall be the market rent, whether that be higher than, lower than or the same as before.", "differs"),
        ("purchase_option", "Deposit: £4,000", "Deposit: £4,000", "nowhere"),
    ],
)  # fmt: skip
def test_the_status_of_a_row(filled, term, one, two, status):
    row = next(r for r in compare(filled([one], [two])).rows if r.term.id == term)
    assert row.status == status


def test_sums_in_other_currencies_are_said_not_to_be_compared(filled):
    row = next(r for r in compare(filled(["Deposit: £4,000"], ["Deposit: €4,000"])).rows if r.term.id == "deposit")
    assert row.notes == ("", "in EUR: not compared with GBP")


def test_an_amendment_is_no_column_of_its_own(document):
    lease = document('LEASE\n\nThis Lease is dated 3 April 2026.\n\n(1) TEASEL ESTATES LIMITED (the "Landlord")\n\n(2) BRACKENFOLD MILLS LIMITED (the "Tenant")\n\nDeposit: £4,000')  # fmt: skip
    change = document('DEED OF VARIATION\n\nThis deed between TEASEL ESTATES LIMITED (the "Landlord") and BRACKENFOLD MILLS LIMITED (the "Tenant") is supplemental to a lease dated 3 April 2026.', "change.txt")  # fmt: skip
    result = compare(abstract_all([lease, change], load_sheet("lease")))
    assert [d.path for d in result.documents] == ["paper.txt"]
    assert [(d.path, of) for d, of in result.amendments] == [("change.txt", "paper.txt")]


def test_nothing_to_compare():
    assert compare([]).rows == ()


def test_key_dates_come_in_order_and_the_past_is_marked(briefing):
    made = briefing(
        ["Commencement date: 1 May 2025", "Term: ten years"], ["Commencement date: 1 June 2027"],
    )  # fmt: skip
    days = [(k.day, k.what, k.past) for k in made.dates]
    assert days == sorted(days)
    assert (date(2025, 5, 1), "Start of the term", True) in days
    assert (date(2035, 4, 30), "End of the term", False) in days
    assert (date(2027, 6, 1), "Start of the term", False) in days
    assert any("Next date: 1 June 2027" in line for line in made.summary)


def test_the_as_of_date_decides_what_is_past(briefing):
    words = ["Commencement date: 1 May 2025"]
    assert {k.past for k in briefing(words, as_of=date(2025, 4, 30)).dates} == {False}
    assert {k.past for k in briefing(words, as_of=date(2025, 5, 1)).dates} == {False}
    assert {k.past for k in briefing(words, as_of=date(2025, 5, 2)).dates} == {True}


@pytest.mark.parametrize(
    ("kind", "what", "words"),
    [
        ("blank", "Deposit", ["Deposit: £ ____________"]),
        ("conflicting", "Deposit", ["Deposit: £4,000", "The Tenant has paid the sum of £5,000 (the \"Deposit\")."]),
        ("unparsed", "Deposit", ["Deposit: as agreed between the parties"]),
        ("not_found", "Governing law", ["Deposit: £4,000"]),
    ],
)  # fmt: skip
def test_open_questions(briefing, kind, what, words):
    asked = [q for q in briefing(words).questions if q.what == what]
    assert [q.kind for q in asked] == [kind]
    assert asked[0].document == "a.txt"
    if kind == "not_found":
        assert asked[0].detail.startswith("looked in")
    else:
        assert asked[0].cites


def test_unread_files_come_first_among_the_questions(briefing):
    lost = UnreadableError("locked with a password", where="d.pdf", do="unlock it")
    made = briefing(["Deposit: £ ____________"], unread=[lost])
    assert (made.questions[0].document, made.questions[0].kind) == ("d.pdf", "unread")
    assert "1 file could not be read." in made.summary
    order = ["unread", "conflicting", "unparsed", "blank", "redacted", "not_found"]
    kinds = [q.kind for q in made.questions]
    assert kinds == sorted(kinds, key=order.index)


def test_pages_that_could_not_be_read_are_open_questions(document):
    from dataclasses import replace

    paper = replace(
        document("LEASE\n\nDeposit: £4,000"),
        problems=(Problem("page 2 is a picture", do="run text recognition"), Problem("a note", serious=False)),
    )
    made = brief(abstract_all([paper], load_sheet("lease")), load_rulebook("lease", load_sheet("lease")), AS_OF)
    unread = [q for q in made.questions if q.kind == "unread"]
    assert [q.what for q in unread] == ["page 2 is a picture; run text recognition"]


def test_the_title_and_summary_say_what_was_read(briefing):
    assert briefing(["Deposit: £4,000"]).title == "Briefing on a.txt"
    two = briefing(["Deposit: £4,000"], ["Deposit: £5,000"])
    assert two.title == "Briefing on 2 documents"
    assert f"1 of {len(two.comparison.rows)} terms stated: 1 differ." in two.summary
    assert "a.txt: nothing of high severity." in two.summary
    assert two.summary[0].startswith("Flags: ")
