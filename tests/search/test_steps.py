"""Questions about a counted month, quarter or year, answered by a step of a schedule written out in words."""

from __future__ import annotations

import pytest

from yarnex.core.reading.text import read_text
from yarnex.core.search import Inquiry, ask, understand

LEASE = """# Lease

Landlord: Halden Estates LLC

| Item | Detail |
| --- | --- |
| Base Rent | Months 1-12: $900; Months 13-30: $950; Months 31-42: $990 |
| Parking | 3 spaces at $40 a month each |

## 4. Service charge

The annual service charge is capped at: Year 1 $300; Year 2 $330; Year 3 $360.
"""


@pytest.fixture(scope="module")
def lease():
    return Inquiry(read_text(LEASE.encode(), "lease.md", "0" * 64, markdown=True))


@pytest.mark.parametrize(
    ("question", "amount", "quote"),
    [
        ("What is the rent in month 20?", "950", "Months 13-30: $950"),
        ("How much is the base rent in the 12th month?", "900", "Months 1-12: $900"),
        ("What rent is paid in month thirteen?", "950", "Months 13-30: $950"),
        ("What is the rent in the second year?", "950", "Months 13-30: $950"),
        ("How much is the service charge in year 2?", "330", "Year 2 $330"),
        ("How much is the service charge in the third year?", "360", "Year 3 $360"),
        ("How much is the service charge in month 14?", "330", "Year 2 $330"),
    ],
)
def test_the_step_that_holds_answers(lease, question, amount, quote):
    (found,) = ask(lease, understand(question))
    assert str(found.value.amount) == amount
    assert quote in found.cites[0].quote


@pytest.mark.parametrize(
    "question",
    [
        "How much is the dyeing fee in month 20?",
        "How much is the monthly service charge in year 2?",
    ],
)
def test_no_step_is_taken_for_another_thing_or_part(lease, question):
    from yarnex.core.search.steps import step_asked_for

    assert step_asked_for(lease, lease.asked(understand(question))) is None


@pytest.mark.parametrize("question", ["What is the rent in month 50?", "What is the rent in the third year?"])
def test_where_no_one_step_holds_that_is_said_with_the_steps(lease, question):
    (found,) = ask(lease, understand(question))
    assert found.state == "not_found"
    assert "Months 13-30: $950" in found.near[0].quote
