"""Which lines are headings, which clauses carry one, how deep they stand, and what a list of contents is."""

from __future__ import annotations

import pytest

from yarnex.core.document import Document
from yarnex.core.reading.layout.furniture import split_furniture
from yarnex.core.reading.layout.headings import body_size, contents_of, full_numbers, mark_headings
from yarnex.core.reading.layout.paragraphs import Draft
from yarnex.core.reading.layout.words import PageMarks, Row, Segment, Word


def draft(text: str, page: int = 1, size: float = 10, bold: bool = False, centred: bool = False) -> Draft:
    words, x = [], 60.0
    for token in text.split():
        words.append(Word(token, x, 100, x + 5 * len(token), 100 + size, size, bold))
        x += 5 * len(token) + 3
    return Draft("paragraph", [(page, words)], size=size, bold=bold, centred=centred, left=60)


BODY = "The tenant shall keep the premises clean and shall pay the rent on every quarter day of the term."


def marked(*drafts: Draft, titles: frozenset[str] = frozenset()) -> list[Draft]:
    return mark_headings([*drafts, draft(BODY), draft(BODY)], titles, frozenset())[: len(drafts)]


@pytest.mark.parametrize(
    ("one", "heading"),
    [
        (draft("RENT AND OUTGOINGS", centred=True), "RENT AND OUTGOINGS"),
        (draft("4. RENT AND OUTGOINGS"), "RENT AND OUTGOINGS"),
        (draft("4. Rent and outgoings", bold=True), "Rent and outgoings"),
        (draft("Rent and outgoings", size=14), "Rent and outgoings"),
        (draft("Rent and outgoings", bold=True), "Rent and outgoings"),
        (draft("SECOND SCHEDULE", centred=True), ""),
    ],
)
def test_headings(one, heading):
    found = marked(one)[0]
    assert (found.kind, found.heading) == ("heading", heading)


@pytest.mark.parametrize(
    "one",
    [
        draft("The tenant shall pay the rent."),
        draft("4.1 The tenant shall pay the rent on the quarter days"),
        draft("BRACKENFOLD MILLS LIMITED", centred=True),
        draft("Rent: £4,000", bold=True),
        draft("(a) the rent", bold=True),
        draft("rent and outgoings", size=14),
        draft("RENT AND", centred=True),
        draft("12"),
        draft("and the following:", bold=True),
    ],
)
def test_no_headings(one):
    assert marked(one)[0].kind == "paragraph"


def test_the_outline_of_the_file_names_headings():
    assert marked(draft("Where the rent is paid"))[0].kind == "paragraph"
    assert marked(draft("Where the rent is paid"), titles=frozenset({"where the rent is paid"}))[0].kind == "heading"


@pytest.mark.parametrize(
    ("text", "heading"),
    [
        ("4.5 Repair. The tenant shall keep the premises in repair.", "Repair"),
        ("4.5 REPAIR AND DECORATION. The tenant shall keep the premises in repair.", "REPAIR AND DECORATION"),
        ("4.5 Repair of the Yard: The tenant shall sweep it.", "Repair of the Yard"),
        ("4.5 The tenant shall keep the premises in repair.", ""),
        ("4.5 Welsh law governs. The courts are those of Swansea.", ""),
        ("4.5 The landlord then has a right. The tenant may object.", ""),
        ("Repair. The tenant shall keep the premises in repair.", ""),
    ],
)
def test_run_in_headings(text, heading):
    assert marked(draft(text))[0].heading == heading


def test_a_division_and_its_title_on_the_next_line_are_one_heading():
    joined = mark_headings(
        [draft("FOURTH SCHEDULE", centred=True), draft("RENT DEPOSIT", centred=True), draft(BODY)],
        frozenset(),
        frozenset(),
    )
    assert [(d.number, d.heading) for d in joined[:1]] == [("FOURTH SCHEDULE", "RENT DEPOSIT")]
    assert len(joined) == 2


def test_clauses_of_a_schedule_stand_below_it():
    found = marked(
        draft("1. RENT"), draft("1.1 The rent is paid yearly."), draft("FIRST SCHEDULE", centred=True), draft("1. The yard is swept daily.")
    )  # fmt: skip
    assert [d.level for d in found] == [1, 2, 1, 2]


@pytest.mark.parametrize(
    ("numbers", "full"),
    [
        (["8.2", "(a)", "(b)", "(i)", "(ii)", "8.3", "(a)"], ["8.2", "8.2(a)", "8.2(b)", "8.2(b)(i)", "8.2(b)(ii)", "8.3", "8.3(a)"]),
        (["2", "(h)", "(i)", "(j)"], ["2", "2(h)", "2(i)", "2(j)"]),
        (["Section 3.1", "(a)"], ["Section 3.1", "3.1(a)"]),
        (["8", "(1)", "(2)"], ["8", "8(1)", "8(2)"]),
        (["8", "•", "(a)"], ["8", "•", "8(a)"]),
    ],
)  # fmt: skip
def test_items_get_the_number_of_their_clause(numbers, full):
    drafts = [draft("words") for _ in numbers]
    for one, number in zip(drafts, numbers, strict=True):
        one.number = number
    full_numbers(drafts)
    assert [d.number for d in drafts] == full


def test_contents_are_a_list_and_what_follows_is_not():
    drafts = [
        draft("CONTENTS"), draft("1. Rent ........................ 3"), draft("2. Repair ...................... 4"),
        draft("1. RENT", page=2, bold=True), draft(BODY, page=2),
    ]  # fmt: skip
    assert contents_of(drafts) == frozenset({1, 2})


def test_body_size_is_that_of_most_words():
    assert body_size([draft("HEADING", size=16), draft(BODY, size=9), draft("note", size=7)]) == 9
    assert body_size([]) == 10


def row_at(text: str, top: float) -> Row:
    return Row(
        [Segment([Word(t, 60 + 40 * i, top, 95 + 40 * i, top + 10, 10, False) for i, t in enumerate(text.split())])]
    )


def pages_of(*rows: list[Row]) -> tuple[list[list[Row]], list[list[Row]]]:
    marks = [PageMarks(number=i + 1, width=595, height=842, words=[]) for i in range(len(rows))]
    return split_furniture(marks, list(rows))


def test_what_recurs_at_the_edges_is_furniture_whatever_its_number():
    body, furniture = pages_of(
        *[
            [row_at(f"Lease of the mill {n}", 30), row_at(f"Clause words number {'abcd'[n]}", 200), row_at("Teasel Estates", 810)]
            for n in range(4)
        ]
    )  # fmt: skip
    assert [[r.text for r in rows] for rows in body] == [[f"Clause words number {c}"] for c in "abcd"]
    assert all(len(rows) == 2 for rows in furniture)


def test_what_recurs_in_the_middle_of_pages_is_text():
    body, furniture = pages_of(*[[row_at("The rent is paid", 400), row_at("each year", 420)] for _ in range(4)])
    assert all(len(rows) == 2 for rows in body)
    assert furniture == [[], [], [], []]


def test_a_number_alone_at_the_foot_is_a_page_number_even_on_one_page():
    _, furniture = pages_of([row_at("The rent is paid", 400), row_at("7", 810)])
    assert [r.text for r in furniture[0]] == ["7"]
    _, furniture = pages_of([row_at("The rent is paid", 790), row_at("7", 801)])
    assert furniture == [[]], "it stands hard under the text, so it may belong to it"


def test_sections_without_words_for_their_heading_keep_their_number(document):
    made: Document = document("# Lease\n\n## 1\n\nThe rent is paid.\n\n## 2\n\nThe yard is swept.\n", "a.md")
    assert [s.name for s in made.sections] == ["Lease", "1", "2"]
