"""Answers as they are shown: exact words up to a length, and a row for each part of a question."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import ask_all
from yarnex.output.answer_reports import found_report

LEASE = "LEASE\n\n1. Deposit\n\nThe Tenant has paid a deposit of £4,500. The Landlord shall return the deposit within 21 days after the end of the term.\n"


@pytest.mark.parametrize("papers", [1, 2, 6])
def test_each_part_has_a_row(papers):
    documents = [read_text(LEASE.encode(), f"{n}.txt", f"{n}" * 64) for n in range(papers)]
    results = ask_all(documents, [("1", "What is the deposit and when do we get it back?")])
    (section,) = found_report(results, documents).sections
    cells = [[c.text for c in row.cells] for row in section.table.rows]
    told = {cell for row in cells for cell in row}
    assert {"£4,500"} <= told
    assert any("21 days" in cell for cell in told)
    assert len(cells) == (2 * papers if papers > 5 else 2)


def test_exact_words_are_quoted_once():
    document = read_text(LEASE.encode(), "1.txt", "1" * 64)
    (section,) = found_report(ask_all([document], [("1", "How much is the deposit?")]), [document], quote=24).sections
    assert section.table.rows[0].cells[1].quote == "The Tenant has paid a …"
