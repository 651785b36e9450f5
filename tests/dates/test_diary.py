"""A diary with dated headings: what is said under a day belongs to it, and the past is told from what must be done."""

from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.dates import dates_of

DIARY = """# Record of the drying of the wool

Kept by Ann Rowley, wool technician. Instructed by telephone by 1 March 2026.

## 2 March 2026

First bales went into the dryer at 7.30 a.m. and the second at noon.

## 9 March 2026

The first bales came out this morning. I rang the insurer today.

{words}
"""


@pytest.fixture
def diary(document):
    def make(words: str = ""):
        return dates_of(document(DIARY.format(words=words), "record.md"))

    return make


def test_this_morning_is_the_morning_of_the_entry(diary):
    days = {item.day for item in diary() if "came out" in item.what or "rang the insurer" in item.what}
    assert days == {date(2026, 3, 9)}


def test_the_same_words_on_the_same_day_are_listed_once(diary):
    told = [(item.day, item.what) for item in diary()]
    assert len(told) == len(set(told))


def test_times_belong_to_the_day_of_their_entry(diary):
    timed = {(item.day, item.time) for item in diary() if item.time}
    assert (date(2026, 3, 2), "07:30") in timed


@pytest.mark.parametrize(
    ("words", "day", "kind"),
    [
        ("The mill agreed to the price by mail on 8 March 2026.", date(2026, 3, 8), "event"),
        ("The bales were weighed before dawn on 7 March 2026.", date(2026, 3, 7), "event"),
        ("The mill must send the list by 30 March 2026.", date(2026, 3, 30), "deadline"),
        ("Please send the list by 30 March 2026.", date(2026, 3, 30), "deadline"),
        ("Fit a leak detector above the store by 30 March 2026.", date(2026, 3, 30), "deadline"),
        ("The dryer is due back before 30 March 2026.", date(2026, 3, 30), "deadline"),
    ],
)
def test_what_was_done_is_told_from_what_must_be_done(diary, words, day, kind):
    kinds = {item.kind for item in diary(words) if item.day == day}
    assert kind in kinds
    assert kind != "event" or "deadline" not in kinds
