"""What a cell shows, from what it holds and its number format."""

from __future__ import annotations

from datetime import date, datetime, time, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.reading.number_format import shown
from yarnex.core.reading.spreadsheet import letters, sniff_delimiter


@pytest.mark.parametrize(
    ("value", "format", "words"),
    [
        (0.125, "0.0%", "12.5%"), (0.125, "0%", "13%"), (12500, "£#,##0", "£12,500"), (-1204, "#,##0;(#,##0)", "(1,204)"), (0, "#,##0;(#,##0);–", "–"),
        (1234567.891, "#,##0.00", "1,234,567.89"), (-5, "0.00", "-5.00"), (1234567, '#,##0,"k"', "1,235k"), (1234567, "0.0,,", "1.2"), (3, "General", "3"),
        (0.1 + 0.2, "General", "0.3"), (7, "000", "007"), (5, '"Unit "0', "Unit 5"), (1.5, "0.0#", "1.5"), (1.0, "0.##", "1"), (2, '[$€-2] #,##0.00', "€ 2.00"),
        (0.5, "# ?/?", "0.5"), (1e15, "General", "1E+15"), (True, "General", "TRUE"), ("words", "@", "words"), (None, "0", ""),
        (date(2026, 4, 3), "dd/mm/yyyy", "03/04/2026"), (date(2026, 4, 3), "d mmmm yyyy", "3 April 2026"), (date(2026, 4, 3), "mmm-yy", "Apr-26"),
        (datetime(2026, 4, 3, 14, 5), "dd/mm/yy hh:mm", "03/04/26 14:05"), (datetime(2026, 4, 3, 14, 5), "h:mm AM/PM", "2:05 PM"), (time(9, 30), "h:mm", "9:30"),
        (datetime(2026, 4, 3), "General", "2026-04-03"), (timedelta(hours=30, minutes=5), "[h]:mm", "30:05:00"), (Decimal("1.005"), "0.00", "1.01"),
    ],
)  # fmt: skip
def test_as_shown(value, format, words):
    assert shown(value, format) == words


@given(
    st.one_of(st.integers(), st.floats(), st.text(max_size=5)),
    st.text(alphabet='0#?.,%;()[]"\\_*-+$£eE/hmsdyAPM ', max_size=14),
)
def test_any_format_gives_some_words(value, format):
    assert isinstance(shown(value, format), str)


@pytest.mark.parametrize(("column", "name"), [(0, "A"), (25, "Z"), (26, "AA"), (701, "ZZ"), (702, "AAA")])
def test_letters(column, name):
    assert letters(column) == name


@given(st.text(max_size=200))
def test_any_text_has_a_delimiter(text):
    assert sniff_delimiter(text)[0] in ",;\t|"
