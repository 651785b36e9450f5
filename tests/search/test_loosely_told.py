"""Times without a day, values of before, and cells that are known by a code."""

from __future__ import annotations

import pytest

from yarnex.core.search import Inquiry, ask, understand
from yarnex.core.search.patterns import CODE, PERIOD
from yarnex.core.search.question import kinds_of, thing_asked


def asked(document, words, question, name="a.txt"):
    return ask(Inquiry(document(words, name)), understand(question))[0]


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("The facility runs to November 2029.", ["November 2029"]),
        ("She stays until the end of March.", ["the end of March"]),
        ("paid on the last Thursday of each month", ["the last Thursday of each month"]),
        ("built in 1887 and extended in 1926", ["1887", "1926"]),
        ("on 6 November and June 30, 2026", []),
        ("a floor of 1,600 m and an area of 2014.5", []),
        ("out of use since 2021", ["2021"]),
        ("at the end of year five", ["the end of year five"]),
    ],
)
def test_times_without_a_day(words, found):
    assert [m.group() for m in PERIOD.finditer(words)] == found


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("Tel. 01632 960 417", ["01632 960 417"]),
        ("or +44 (0)1632 960 733", ["+44 (0)1632 960 733"]),
        ("VAT reg. GB 417 2290 55", ["GB 417 2290 55"]),
        ("GB29 NWBK 6016 1331 9268 19", ["GB29 NWBK 6016 1331 9268 19"]),
        ("sort code 09-14-22, account 55018273", ["09-14-22", "55018273"]),
        ("a sum of 1,200 40 times", []),
    ],
)
def test_codes(words, found):
    assert [m.group() for m in CODE.finditer(words)] == found


@pytest.mark.parametrize(
    ("question", "kind"),
    [
        ("How big is the deposit?", "money"),
        ("How big is the yard in square metres?", "number"),
        ("What loan to value will the bank go to?", "percent"),
        ("What margin over base is charged?", "percent"),
        ("How much steam must be saved?", "number"),
        ("How much rent is owed?", "money"),
        ("What is the sort code?", "code"),
        ("How far ahead must orders be placed?", "duration"),
        ("By what time of day must lots arrive?", "time"),
        ("What is the excess, in time?", "duration"),
        ("From which budget line is it paid?", "text"),
    ],
)
def test_what_kind_is_asked_for(question, kind):
    assert kinds_of(question)[0][0] == kind


@pytest.mark.parametrize(
    ("question", "thing"),
    [
        ("Which courts decide?", "courts"),
        ("What yearly spend triggers the rebate?", "yearly spend"),
        ("What surcharge applies once we pass it?", "surcharge"),
        ("What ownership change now counts as a transfer?", "ownership change"),
        ("What is the service charge?", "service charge"),
        ("When is it due?", ""),
    ],
)
def test_the_thing_without_its_verb(question, thing):
    assert thing_asked(question) == thing


CALL = """Wool Growers Group plc
Half-year results call, 11 September 2026

Operator: Good morning. The lines are open.

Marit Sand: Sales came in at forty-seven point two million pounds. We closed with net debt of £8.9 million, down from £12.4
million at Christmas. The dividend of 2.1 pence is payable on 6 November.

Ken Oduya: Could you say more on wool?

Marit Sand: We have covered about seventy per cent of the need. The loan runs to November 2029.

Ken Oduya: Thank you.

Operator: That ends the call.
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What is net debt?", "£8.9 million"),
        ("What was net debt at the previous year end?", "£12.4 million"),
        ("When is the dividend payable?", "6 November"),
        ("Until when does the loan run?", "November 2029"),
    ],
)
def test_a_call_written_as_turns(document, question, text):
    found = asked(document, CALL, question)
    assert " ".join(found.text.split()) == text


LEDGER = """Supplier,Invoice,Invoice date,Due,Net,VAT,Gross,Status
Tarn Haulage Ltd,TH-201,14/05/2026,13/06/2026,2759.94,551.99,3311.93,Paid
Fell Dyes,FD-17,30/06/2026,30/07/2026,4120.00,824.00,4944.00,Disputed
Weir Power,WP-9,02/07/2026,01/08/2026,3900.00,780.00,4680.00,Open
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("What is the gross amount of TH-201?", "3311.93"),
        ("What is the status of invoice WP-9?", "Open"),
        ("What is the date of invoice FD-17?", "30/06/2026"),
        ("What is the net amount of FD-17?", "4120.00"),
    ],
)
def test_a_row_is_known_by_its_code(document, question, text, tmp_path):
    from yarnex.core.reading.files import ReadOptions, read_file

    path = tmp_path / "ledger.csv"
    path.write_text(LEDGER, "utf-8")
    paper = read_file(path.as_posix(), ReadOptions())[0].document
    assert ask(Inquiry(paper), understand(question))[0].text == text
