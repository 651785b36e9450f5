"""Events of records: days and times in many forms, mails in a thread, accounts that differ."""

from __future__ import annotations

from datetime import date

import pytest

import yarnex
from yarnex.core.dates import dates_of, dates_of_all
from yarnex.core.dates.chronology import spoken_time, time_in
from yarnex.core.dates.gather import together

INCIDENT = """INCIDENT REPORT

Date of report: 10 March 2026

1. What happened

At 05:40 on 9 March 2026 the night man found water under the dye vats. The main was shut at 05:55. The next morning the fitters came. Two weeks later the floor was dry.

The vats had last been tested in November 2025. The building dates from 1874.

2. Visits

11 March 2026 – The surveyor took readings.

The readings at 14:20 were high.

23rd March – The surveyor came again.
"""


def told(items):
    return [(i.day.isoformat() if i.day else None, i.time, i.precision) for i in items]


def test_days_times_and_precision(document):
    found = told(dates_of(document(INCIDENT)))
    for wanted in [
        ("2026-03-09", "05:40", "day"),
        ("2026-03-09", "05:55", "day"),
        ("2026-03-10", "", "day"),
        ("2026-03-24", "", "day"),
        ("2025-11-01", "", "month"),
        ("2026-03-11", "", "day"),
        ("2026-03-11", "14:20", "day"),
        ("2026-03-23", "", "day"),
    ]:
        assert wanted in found, wanted


def test_relative_days_show_what_they_count_from(document):
    (later,) = [i for i in dates_of(document(INCIDENT)) if i.day == date(2026, 3, 24)]
    assert later.state == "computed"
    assert "Two weeks later counted from 2026-03-10" in later.working[0]


@pytest.mark.parametrize(
    ("words", "time"),
    [
        ("at 8.10 a.m.", "08:10"),
        ("came at 14:05", "14:05"),
        ("by 5.52 on the Sunday", "05:52"),
        ("at 9 pm", "21:00"),
        ("12.15 pm", "12:15"),
        ("12 a.m.", "00:00"),
    ],
)
def test_reads_clock_times(words, time):
    assert time_in(words) == time


@pytest.mark.parametrize(
    "words",
    ["paid 12.50 in cash", "clause 3.15 says", "a ratio of 2.05 times", "£8.30", "grew 4.25 per cent", "rows 10 to 12"],
)
def test_decimals_and_clauses_are_no_times(words):
    assert time_in(words) == ""


@pytest.mark.parametrize(
    ("words", "time", "open_half"),
    [
        ("Twenty to six.", "05:40", True),
        ("half past nine in the evening", "21:30", False),
        ("quarter to eight in the morning", "07:45", False),
    ],
)
def test_reads_spoken_times(words, time, open_half):
    shown, remark = spoken_time(words)
    assert shown == time
    assert bool(remark) is open_half


MAIL = b"""From: Maud Ackroyd <maud@brackenfold.example>
To: claims@lowpennine.example
Date: Thu, 12 Mar 2026 08:00:00 +0000
Subject: RE: flood
Content-Type: text/plain; charset=utf-8

Thank you for your letter, which reached us yesterday.

From: Claims
Sent: Tuesday, 10 March 2026 4:48 PM
To: Maud Ackroyd

We have appointed an adjuster. She can come on 17 March.
"""


def test_a_thread_of_mails_gives_each_its_day(tmp_path):
    (tmp_path / "thread.eml").write_bytes(MAIL)
    paper = yarnex.read(tmp_path / "thread.eml")
    items = dates_of(paper)
    found = told(items)
    assert ("2026-03-10", "16:48", "day") in found
    assert ("2026-03-11", "", "day") in found
    assert ("2026-03-17", "", "day") in found
    quoted = next(i for i in items if i.time == "16:48")
    assert quoted.who == "Claims"
    assert "appointed an adjuster" in quoted.cites[0].quote


def test_two_accounts_of_one_event_are_joined_and_their_differences_said(document):
    other = "STATEMENT\n\nDated 12 March 2026\n\nAt 06:10 on 9 March 2026 the night man found water under the dye vats. The main was shut at 05:55.\n"
    items = together(dates_of_all([document(INCIDENT, "report.txt"), document(other, "statement.txt")]))
    found = [i for i in items if "night man" in i.what and i.day]
    assert {i.time for i in found} == {"05:40", "06:10"}
    assert all("gives the time as" in i.notes[0] for i in found)


def test_the_same_event_told_twice_is_one_with_both_cites(document):
    other = "STATEMENT\n\nDated 12 March 2026\n\nOn 11 March 2026 the surveyor took readings.\n"
    items = together(dates_of_all([document(INCIDENT, "report.txt"), document(other, "statement.txt")]))
    (visit,) = [i for i in items if "took readings" in i.what]
    assert {c.document.path for c in visit.cites} == {"report.txt", "statement.txt"}
