"""Values that are not written out in full, alone and in papers."""

from __future__ import annotations

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.reading import read_document
from yarnex.core.search import ask_all
from yarnex.core.terms.loose_values import days_without_year, fractions
from yarnex.core.terms.values_in_lines import _lies
from yarnex.core.values.numbers import find_counts


@pytest.mark.parametrize(
    ("words", "shares"),
    [
        ("about one fifth of the price", ["20"]),
        ("two-thirds of it", ["66.67"]),
        ("half of the bill", ["50"]),
        ("Half is payable on delivery", ["50"]),
        ("three quarters of its value", ["75"]),
        ("a quarter of a year", []),
        ("in the half, sales rose", []),
        ("a third party of the group", []),
        ("each quarter", []),
    ],
)
def test_fractions_in_words(words, shares):
    assert [str(v) for v, _, _ in fractions(words)] == shares


@pytest.mark.parametrize(
    ("words", "near", "days"),
    [
        ("it came yesterday, 13 August", date(2025, 8, 14), [date(2025, 8, 13)]),
        ("by January 4th", date(2025, 12, 20), [date(2026, 1, 4)]),
        ("on the 29th of February", date(2024, 3, 1), [date(2024, 2, 29)]),
        ("on 13 August 2024", date(2025, 8, 14), []),
        ("on 1 May in each year", date(2025, 8, 14), []),
        ("31 April", date(2025, 8, 14), []),
        ("listed for 5 October next year", date(2025, 11, 19), [date(2026, 10, 5)]),
        ("on 3 March last year", date(2025, 2, 1), [date(2024, 3, 3)]),
    ],
)
def test_days_without_a_year(words, near, days):
    assert [d for d, _ in days_without_year(words, near)] == days


@pytest.mark.parametrize(
    ("words", "day"),
    [
        ("they must be used by 31 March", date(2027, 3, 31)),
        ("he had reported corrosion on 14 April", date(2026, 4, 14)),
        ("corrosion seen on 14 April", date(2027, 4, 14)),
    ],
)
def test_the_words_before_a_day_tell_on_which_side_it_lies(words, day):
    assert [d for d, _ in days_without_year(words, date(2026, 10, 19), _lies)] == [day]


@given(st.dates(date(1990, 1, 1), date(2060, 12, 31)), st.integers(-150, 150))
def test_a_day_is_taken_in_the_nearest_year(day, apart):
    near = date.fromordinal(day.toordinal() + apart)
    ((found, _),) = days_without_year(f"on {day.day} {day:%B}", near)
    assert found == day or abs((found - near).days) <= abs(apart)


@pytest.mark.parametrize(
    ("words", "values"),
    [
        ("six point four million over", ["6400000"]),
        ("two and a half million a mile", ["2500000"]),
        ("we pay 5.6 million in all", ["5600000"]),
        ("nine point five and 7", ["9.5", "7"]),
        ("stage one, stage two", ["1", "2"]),
        ("ninety-eight and a half million", ["98500000"]),
        ("a million and a half", ["1500000"]),
        ("nine and three quarters", ["9.75"]),
        ("thirteen point two four five", ["13.245"]),
    ],
)
def test_numbers_as_spoken(words, values):
    assert [f"{f.value.normalize():f}" for f in find_counts(words)] == values


CALL = """WEBVTT

00:00:01.000 --> 00:00:05.000
<v Chair>Good morning. It is 4 June 2026. Sales were £9 million.

00:00:06.000 --> 00:00:12.000
<v Finance Director>The boiler house came in six point four million over budget. We counted two million bobbins.
"""

LOG = """<html><body><h1>Incident report</h1><p>4 June 2026</p><table><tr><th>Time</th><th>What happened</th></tr>
<tr><td>06:35</td><td>Alarm rang in the dye house</td></tr><tr><td>07:10</td><td>Water shut off at the main</td></tr>
<tr><td>15:40</td><td>Floor of the dye house dry</td></tr></table></body></html>"""


def read(folder, name, text):
    (folder / name).write_text(text, "utf-8")
    return read_document(folder / name)


def test_millions_in_a_call_are_money_and_counted_things_are_not(tmp_path):
    paper = read(tmp_path, "call.vtt", CALL)
    (asked,) = ask_all([paper], [("1", "How much over budget did the boiler house come in?")])
    finding = asked.findings[0][0]
    assert finding.value.to_dict()["value"] == 6400000
    assert "no currency said" in " ".join(finding.working)


def test_the_hour_that_opens_a_row_of_a_log(tmp_path):
    paper = read(tmp_path, "log.html", LOG)
    asked = ask_all([paper], [("1", "At what time was the water shut off?"), ("2", "When was the floor dry?")])
    assert [a.findings[0][0].text for a in asked] == ["07:10", "15:40"]


RECORD = """# Inspection record

Object: Loom 4, 48 healds
Owner: Brackenfold Mills plc
Inspected: 6 May 2026
Report date: 11 May 2026

## Guarantee

18 months from the test, not beyond 24 months from delivery. Belts are guaranteed for six months.

## Findings

The belt broke on 4 May and the loom was stopped until the 6th. The inspector shall come within not less than 20 nor more than 40 days. (b) three belts were renewed. It is looked after by a sole keeper. Pennard Tarn Surveyors came too.
"""


@pytest.mark.parametrize(
    ("question", "text"),
    [
        ("How many healds has the loom?", "48 healds"),
        ("How long is the guarantee?", "18 months from the test"),
        ("Until when was the loom stopped?", "6th"),
        ("What is the least time in which the inspector comes?", "20"),
        ("How many keepers look after it?", "sole"),
        ("Which surveyors came?", "Pennard Tarn Surveyors"),
    ],
)
def test_values_of_a_record(tmp_path, question, text):
    (asked,) = ask_all([read(tmp_path, "record.md", RECORD)], [("1", question)])
    assert text in asked.findings[0][0].text
