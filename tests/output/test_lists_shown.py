"""Figures, dates, duties and costs as they are shown and written: reports in every form, workbooks, calendars, pictures."""

from __future__ import annotations

import csv
import io
import json
import struct
from datetime import date
from decimal import Decimal

import openpyxl
import pytest
import vobject

import yarnex as api
from yarnex.core.dates import DatedItem
from yarnex.core.document import Cite, Span
from yarnex.core.duties import Duty
from yarnex.core.figures.series import chart_series, parts_of_sum
from yarnex.core.figures.spread import spread
from yarnex.output import cost_reports, date_reports, duty_reports, figure_reports, html, markdown, table_csv
from yarnex.output.figure_workbook import figures_workbook, number_format
from yarnex.output.pictures import Look, figure_picture
from yarnex.output.terminal import show

LEASE = """# Lease of the carding shed

This Lease is made on 2 March 2026 between (1) Calder Estates Limited (the "Landlord") and (2) Brackenfold Mills Limited (the "Tenant").

## 1. Term

1.1 The term is five years from and including 1 April 2026.

1.2 The Tenant may end this Lease on 31 March 2029 by giving the Landlord not less than six months' notice.

## 2. Duties

2.1 The Tenant shall pay the rent of £12,000 a year by equal quarterly payments on the usual quarter days.

2.2 The Tenant shall repair the roof within 30 days after notice from the Landlord.

2.3 The Landlord shall insure the building.

2.4 The Tenant must not assign this Lease.
"""

REPORT = """# Annual report of Brackenfold Mills plc

for the year ended 31 March 2026

## Consolidated income statement

for the year ended 31 March 2026

| | 2026 £'000 | 2025 £'000 |
| --- | --- | --- |
| Revenue | 8,412 | 7,901 |
| Cost of sales | (5,100) | (4,900) |
| Gross profit | 3,312 | 3,001 |
| Administrative expenses | (2,400) | (2,300) |
| Operating profit | 912 | 701 |
"""

BILL = """# Calder Bank Plumbing Ltd

Invoice no. CB-2207

Date: 12 February 2026

Bill to: Brackenfold Mills Limited

| Description | Amount £ |
| --- | --- |
| =Call-out | 310.00 |
| Pump hire | 144.00 |
| Total due | 455.00 |
"""


@pytest.fixture
def lease(document):
    return document(LEASE, "lease.md")


@pytest.fixture
def report(document):
    return document(REPORT, "report.md")


@pytest.fixture
def bill(document):
    return document(BILL, "bill.md")


def shown(report):
    """A report in each of the forms that a user may ask for."""
    plain = io.StringIO()
    show(report, no_color=True, file=plain)
    return {
        "terminal": plain.getvalue(),
        "html": html.render(report),
        "md": markdown.render(report),
        "csv": table_csv.render(report),
    }


# ---------------------------------------------------------------------- dates
def item(lease, day=None, **given):
    words = {"what": "Break date", "kind": "deadline", "state": "stated", "cites": (Cite(lease, Span(0, 10)),)} | given
    return DatedItem(lease, day, **words)


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ({"day": date(2026, 3, 2)}, "Mon 2 March 2026"),
        ({"day": date(2026, 3, 2), "time": "06:20"}, "Mon 2 March 2026 06:20"),
        ({"day": date(2026, 3, 1), "precision": "month"}, "March 2026"),
        ({"day": date(2026, 1, 1), "precision": "year"}, "2026"),
        ({}, "not fixed"),
    ],
)
def test_days_in_words(lease, given, words):
    assert date_reports.day_words(item(lease, **given)) == words


@pytest.mark.parametrize(
    ("day", "stands"),
    [
        (date(2026, 1, 14), "past"),
        (date(2026, 1, 15), "within 30 days"),
        (date(2026, 2, 14), "within 30 days"),
        (date(2026, 2, 15), "within 90 days"),
        (date(2026, 4, 15), "within 90 days"),
        (date(2026, 4, 16), "later"),
        (None, ""),
    ],
)
def test_where_a_day_stands(lease, day, stands):
    assert date_reports.standing(item(lease, day), date(2026, 1, 15)) == stands


@pytest.mark.parametrize(
    ("first", "last", "about", "kinds", "kept"),
    [
        (None, None, "", [], True),
        (date(2026, 3, 1), date(2026, 3, 31), "", [], True),
        (date(2026, 3, 3), None, "", [], False),
        (None, date(2026, 3, 1), "", [], False),
        (None, None, "break", [], True),
        (None, None, "BREAK date", [], True),
        (None, None, "rent", [], False),
        (None, None, "", ["deadline", "notice"], True),
        (None, None, "", ["payment"], False),
    ],
)
def test_what_the_user_s_choice_lets_through(lease, first, last, about, kinds, kept):
    assert date_reports.wanted(item(lease, date(2026, 3, 2)), first, last, about, kinds) is kept


def test_a_rule_without_a_day_is_left_out_where_days_are_asked_for(lease):
    assert date_reports.wanted(item(lease), None, None, "", [])
    assert not date_reports.wanted(item(lease), date(2026, 1, 1), None, "", [])


def test_a_calendar_has_an_entry_a_deadline_with_its_cite_and_alarms(lease):
    found = api.dates([lease])
    data = date_reports.calendar_file(found, [30, 7])
    assert data == date_reports.calendar_file(found, [30, 7])
    entries = list(vobject.readOne(data.decode()).vevent_list)
    days = {entry.dtstart.value: entry for entry in entries}
    notice = days[date(2028, 9, 30)]
    assert "six months" in notice.description.value
    assert "lease.md" in notice.description.value
    assert [alarm.trigger.value.days for alarm in notice.valarm_list] == [-30, -7]
    assert len({entry.uid.value for entry in entries}) == len(entries)


def test_dates_as_csv_and_workbook_hold_real_days(lease):
    found = api.dates([lease])
    rows = list(csv.DictReader(io.StringIO(date_reports.dates_csv(found, date(2026, 1, 1)))))
    assert {"2026-03-02", "2028-09-30", "2029-03-31", "2031-03-31"} <= {row["date"] for row in rows}
    book = openpyxl.load_workbook(io.BytesIO(date_reports.dates_workbook(found, date(2026, 1, 1))))
    days = {cell.value.date() for row in book.worksheets[0].iter_rows() for cell in row if cell.is_date and cell.value}
    assert date(2028, 9, 30) in days


@pytest.mark.parametrize("form", ["png", "svg"])
def test_a_timeline_is_the_same_each_time(lease, form):
    found = api.dates([lease])
    drawn = date_reports.timeline(found, date(2026, 6, 1), form)
    assert drawn == date_reports.timeline(found, date(2026, 6, 1), form)
    if form == "png":
        assert struct.unpack(">II", drawn[16:24])[0] == 1280
    else:
        assert b"<svg" in drawn[:600]


def test_a_timeline_of_nothing_is_drawn_too():
    assert date_reports.timeline([], date(2026, 6, 1), "png")[:4] == b"\x89PNG"


def test_dates_in_every_form_name_the_day_and_the_working(lease):
    report = date_reports.dates_report(api.dates([lease]), [lease], [], date(2026, 1, 15))
    for form, text in shown(report).items():
        assert "30 September 2028" in " ".join(text.split()), form
        assert "31 March 2029 - 6 months" in " ".join(text.split()), form


# ---------------------------------------------------------------------- duties
@pytest.mark.parametrize(
    ("given", "party", "kinds", "rights", "kept"),
    [
        ({}, "", [], False, True),
        ({}, "tenant", [], False, True),
        ({}, "brackenfold", [], False, True),
        ({}, "landlord", [], False, False),
        ({"who": "both parties"}, "landlord", [], False, True),
        ({}, "", ["payment"], False, True),
        ({}, "", ["notice"], False, False),
        ({"force": "may"}, "", [], False, False),
        ({"force": "may"}, "", [], True, True),
        ({"force": "may", "by": "within ten days"}, "", [], False, True),
    ],
)
def test_duties_that_the_user_s_choice_lets_through(lease, given, party, kinds, rights, kept):
    words = {"who": "Tenant", "what": "pay", "force": "must", "kind": "payment", "name": "Brackenfold Mills Limited"}
    duty = Duty(lease, cites=(Cite(lease, Span(0, 10)),), **(words | given))
    assert duty_reports.wanted(duty, party, kinds, rights) is kept


def test_a_checklist_has_a_box_a_duty_in_every_form(lease):
    duties = [d for d in api.duties(lease) if d.force != "may"]
    report = duty_reports.duties_report(duties, [lease], [], checklist=True)
    for form, text in shown(report).items():
        assert form == "csv" or text.count("☐") == len(duties) == 4, form  # csv has a row a cell
        assert "not assign" in text, form


def test_duties_as_a_workbook(lease):
    duties = api.duties(lease)
    book = openpyxl.load_workbook(io.BytesIO(duty_reports.duties_workbook(duties, checklist=True)))
    words = [str(cell.value) for row in book.worksheets[0].iter_rows() for cell in row]
    assert any("repair the roof" in w for w in words)
    assert duty_reports.duties_workbook(duties) == duty_reports.duties_workbook(duties)


# ---------------------------------------------------------------------- costs
@pytest.mark.parametrize(
    ("value", "words"),
    [
        (None, ""),
        (Decimal("-3.5"), "−3.50"),
        (1200, "1,200.00"),
        (Decimal("0"), "0.00"),
        (Decimal("1234567.891"), "1,234,567.89"),
    ],
)
def test_money_to_the_cent(value, words):
    assert cost_reports.money(value) == words


def test_costs_in_every_form_say_what_does_not_add_up(bill):
    costs = api.costs([bill])
    report = cost_reports.costs_report(costs, [bill], [], [])
    for form, text in shown(report).items():
        assert "454.00" in text, form
        assert "455.00" in text, form
    assert "\n=Call-out" not in table_csv.render(report)
    assert ",=Call-out" not in table_csv.render(report)


def test_costs_as_a_workbook_add_up_by_formula_and_run_no_words(bill):
    book = openpyxl.load_workbook(io.BytesIO(cost_reports.costs_workbook(api.costs([bill]))))
    cells = [cell for sheet in book for row in sheet.iter_rows() for cell in row]
    formulas = [str(c.value) for c in cells if c.data_type == "f"]
    assert any("SUM" in f for f in formulas)
    assert not any("Call-out" in f for f in formulas)


def test_costs_are_narrowed_to_a_provider_and_a_kind(bill):
    costs = api.costs([bill])
    assert cost_reports.narrowed(costs, [], "calder").bills
    assert not cost_reports.narrowed(costs, [], "wharfe").bills
    assert cost_reports.narrowed(costs, ["hire"], "").bills
    assert not cost_reports.narrowed(costs, ["rent"], "").bills


# ---------------------------------------------------------------------- figures
@pytest.mark.parametrize(
    ("value", "words"),
    [
        (None, "n/a"),
        (Decimal("1234.50"), "1,234.5"),
        (Decimal("-12"), "−12"),
        (Decimal("0"), "0"),
        (Decimal("0.0005"), "0.0005"),
        (Decimal("1000000"), "1,000,000"),
    ],
)
def test_numbers_in_words(value, words):
    assert figure_reports.number_words(value) == words


def test_numbers_stand_under_each_other_at_the_point():
    lined = figure_reports.aligned(["1.5", "12", "3.25"])
    assert {len(t) - len(t.rstrip("\u2007").split(".")[0]) for t in lined} == {3}
    assert figure_reports.aligned(["7", "12"]) == ["7", "12"]


@pytest.mark.parametrize(
    ("unit", "value", "holds"), [("percent", "6.2", "%"), ("GBP", "12", "#,##0"), ("GBP", "12.5", "0.00")]
)
def test_number_formats_of_workbooks(unit, value, holds):
    assert holds in number_format(unit, Decimal(value))


def test_figures_in_every_form_give_value_period_and_page(report):
    shown_report = figure_reports.figures_report([report], api.figures(report), [])
    for form, text in shown(shown_report).items():
        assert "8,412,000" in text or "8412000" in text, form
        assert "2025" in text, form


def test_figures_as_csv_hold_plain_numbers_that_a_program_can_add(report):
    rows = list(csv.DictReader(io.StringIO(figure_reports.figures_csv(api.figures(report)))))
    by_label = {(row["label"], row["period end"]): row for row in rows}
    assert Decimal(by_label["Revenue", "2026-03-31"]["value"]) == 8412000
    assert Decimal(by_label["Cost of sales", "2026-03-31"]["value"]) == -5100000


def test_one_table_is_written_exactly(report):
    rows = list(csv.reader(io.StringIO(figure_reports.table_csv(report, 0))))
    assert rows[0][1:] == ["2026 £'000", "2025 £'000"]
    assert rows[2] == ["Cost of sales", "(5,100)", "(4,900)"]


def test_a_spread_in_a_workbook_works_ratios_out_by_formula(report):
    figures = api.figures(report)
    result = spread([report], figures, "period")
    book = openpyxl.load_workbook(io.BytesIO(figures_workbook(figures, result, ())))
    sheet = book["Spread"]
    rows = {row[0].value: row for row in sheet.iter_rows()}
    assert rows["Revenue"][1].value == 8412000
    assert str(rows["Gross margin"][1].value).startswith("=")
    assert rows["Revenue"][1].comment is not None


@pytest.mark.parametrize(
    "look",
    [
        Look(),
        Look(type="lines"),
        Look(growth=True),
        Look(values=False, title="Sales of yarn", colours=("#000000", "#777777")),
        Look(width=640, height=400),
    ],
)
def test_charts_have_the_size_and_title_asked_for(report, look):
    data = chart_series([report], api.figures(report), ["revenue", "operating profit"])
    drawn = figure_picture(data, look, "png")
    assert struct.unpack(">II", drawn[16:24]) == (look.width, look.height)
    assert drawn == figure_picture(data, look, "png")
    if look.title:
        assert (
            look.title.encode() in figure_picture(data, look, "svg")
            or b"<svg" in figure_picture(data, look, "svg")[:600]
        )


def test_a_waterfall_shows_the_parts_of_a_sum(report):
    data = parts_of_sum(api.figures(report), "gross profit")
    assert data is not None
    assert data.kind == "parts"
    assert [str(point.value) for point in data.series[0].points] == ["8412000", "-5100000", "3312000"]
    assert figure_picture(data, Look(type="waterfall"), "png")[:4] == b"\x89PNG"


def test_no_series_where_nothing_has_such_a_name(report):
    assert chart_series([report], api.figures(report), ["colour of the roof"]) is None
    assert parts_of_sum(api.figures(report), "colour of the roof") is None


def test_every_list_has_plain_json(report, lease, bill):
    everything = {
        "figures": [f.to_dict() for f in api.figures(report)],
        "dates": [d.to_dict() for d in api.dates([lease])],
        "duties": [d.to_dict() for d in api.duties(lease)],
        "checks": [c.to_dict() for c in api.costs([bill]).checks],
    }
    for name, records in everything.items():
        assert records, name
        for record in records:
            json.dumps(record, default=str)
            for cite in record["cites"]:
                assert cite["quote"], name
