"""Dated items -> Reports, CSV, workbook, calendar (RFC 5545) and timeline."""

from __future__ import annotations

import csv
import hashlib
import io
from collections.abc import Sequence
from datetime import UTC, date, datetime, timedelta
from typing import Any

from yarnex._version import __version__
from yarnex.core.dates.model import DatedItem
from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError
from yarnex.core.terms.computed import shown_date
from yarnex.output.report import Cell, Report, Section, Table, TableRow
from yarnex.output.reports import warnings_of
from yarnex.output.safe import no_formula, visible
from yarnex.output.wording import counted, one_line
from yarnex.output.workbook import Forms, link_to, new_book

STATE_WORDS = {"stated": "", "computed": "worked out", "rule": "rule", "superseded": "superseded"}
SHOWN_AGAIN = 3  # occurrences of a recurring day that a list shows


def wanted(item: DatedItem, first: date | None, last: date | None, about: str, kinds: Sequence[str]) -> bool:
    """True for an item that the user's choice lets through. A rule without a day is left out where days are asked for."""
    if (first or last) and item.day is None:
        return False
    if item.day is not None and ((first and (item.until or item.day) < first) or (last and item.day > last)):
        return False
    if kinds and item.kind not in kinds:
        return False
    low = f"{item.what} {item.who} {' '.join(c.quote for c in item.cites)}".lower()
    return all(word in low for word in about.lower().split())


def day_words(item: DatedItem) -> str:
    """The day in words at its own precision: "1 March 2025", "March 2025", "2025"."""
    if item.day is None:
        return "not fixed"
    if item.precision == "year":
        return str(item.day.year)
    if item.precision == "month":
        return f"{item.day:%B %Y}"
    words = f"{item.day:%a} {shown_date(item.day)}"
    return f"{words} {item.time}".strip()


def standing(item: DatedItem, today: date) -> str:
    """Where a day stands against today: "past", "within 30 days", "within 90 days", "later"."""
    if item.day is None:
        return ""
    if item.day < today:
        return "past"
    left = (item.day - today).days
    return "within 30 days" if left <= 30 else "within 90 days" if left <= 90 else "later"


def collapsed(items: Sequence[DatedItem], today: date) -> list[tuple[DatedItem, str]]:
    """Items with a remark; of days that come again the next ones are shown, and how many more there are."""
    groups: dict[tuple[str, str, int], list[DatedItem]] = {}
    for item in items:
        if item.recurs and item.day is not None and item.state == "computed":
            groups.setdefault((item.document.path, item.what, item.cites[0].span.start), []).append(item)
    out: list[tuple[DatedItem, str]] = []
    for item in items:
        held = (
            groups.get((item.document.path, item.what, item.cites[0].span.start), [])
            if item.recurs and item.day is not None
            else []
        )
        if len(held) > SHOWN_AGAIN + 1:
            ahead = [h for h in held if h.day and h.day >= today][:SHOWN_AGAIN] or held[-SHOWN_AGAIN:]
            if item not in ahead:
                continue
            last = held[-1].day
            out.append(
                (
                    item,
                    f"{item.recurs}: {len(held)} days from {held[0].day} to {last}; {'the next ones' if ahead[0].day and ahead[0].day >= today else 'the last ones'} are shown"
                    if item is ahead[0]
                    else item.recurs,
                )
            )
        else:
            out.append((item, item.recurs))
    return out


def dates_report(
    items: Sequence[DatedItem],
    documents: Sequence[Document],
    unread: Sequence[UnreadableError],
    today: date,
    *,
    gap: int | None = None,
) -> Report:
    """Days in order, in groups by where they stand against today; then rules whose day is not fixed."""
    many = len(documents) > 1
    shown = collapsed(items, today)
    dated = [(i, r) for i, r in shown if i.day is not None]
    rules = [(i, r) for i, r in shown if i.day is None]
    events = bool(dated) and sum(i.kind == "event" for i, _ in dated) * 2 >= len(dated)
    rows = []
    before: DatedItem | None = None
    for item, remark in dated:
        if (
            gap
            and before is not None
            and before.day
            and item.day
            and (item.day - before.day).days > gap
            and item.precision == before.precision == "day"
        ):
            rows.append(
                TableRow(
                    (
                        Cell(""),
                        Cell(f"{(item.day - before.day).days} days without an event"),
                        *(Cell() for _ in range(2 + many)),
                    ),
                    group="" if events else standing(item, today),
                )
            )
        rows.append(_row(item, remark, many, "" if events else standing(item, today)))
        before = item
    heads = ("Day", "What", "Who", "Kind", *(["Document"] if many else []))
    weights = (5, 14, 4, 4, *([6] if many else []))
    sections = (
        [Section("", table=Table(heads, tuple(rows), weights))] if rows else [Section("", lines=("No dated items.",))]
    )
    if rules:
        sections.append(
            Section(
                "Rules whose first day is not known",
                table=Table(heads, tuple(_row(i, r, many, "") for i, r in rules), weights),
            )
        )
    return Report(
        "Dates",
        f"{counted(len(dated), 'day')} and {counted(len(rules), 'rule')}, as of {shown_date(today)}",
        tuple(sections),
        warnings_of(documents, unread),
    )


def _row(item: DatedItem, remark: str, many: bool, group: str) -> TableRow:
    also = [f"also told by {c.document.path}, {c.place}" for c in item.cites if c.document is not item.document]
    notes = tuple(filter(None, [*item.working, remark, item.reading, *item.notes, *also]))
    state = "amended" if item.state == "superseded" else "computed" if item.state == "computed" else ""
    kind = " ".join(
        filter(None, [item.kind, STATE_WORDS[item.state] if item.state in ("superseded", "computed") else ""])
    )
    document = [Cell(item.document.path)] if many else []
    return TableRow(
        (
            Cell(day_words(item)),
            Cell(
                one_line(item.what),
                cites=tuple(c for c in item.cites if c.document is item.document),
                notes=notes,
                state=state,
            ),
            Cell(item.who),
            Cell(kind),
            *document,
        ),
        group=group,
    )


def dates_csv(items: Sequence[DatedItem], today: date) -> str:
    """A row an item (RFC 4180)."""
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n")
    writer.writerow(
        [
            "date",
            "time",
            "precision",
            "what",
            "kind",
            "who",
            "state",
            "standing",
            "recurs",
            "working",
            "document",
            "page",
            "place",
            "quote",
            "target",
        ]
    )
    for i in items:
        cite = i.cites[0]
        words = [
            i.what,
            i.kind,
            i.who,
            i.state,
            standing(i, today),
            i.recurs,
            "; ".join([*i.working, *i.notes]),
            i.document.path,
        ]
        writer.writerow(
            [
                i.day.isoformat() if i.day else "",
                i.time,
                i.precision,
                *map(no_formula, map(one_line, words)),
                str(cite.pages[0] or ""),
                no_formula(cite.place),
                no_formula(one_line(cite.quote)),
                cite.target,
            ]
        )
    return buffer.getvalue()


def dates_workbook(items: Sequence[DatedItem], today: date, folder: str = "") -> bytes:
    """Real dates, the words, and the page as a link."""
    buffer = io.BytesIO()
    book = new_book(buffer, "Dates")
    forms = Forms(book)
    sheet: Any = book.add_worksheet("Dates")
    heads = [
        "Day",
        "Time",
        "What",
        "Kind",
        "Who",
        "State",
        "Against today",
        "Again",
        "Working",
        "Document",
        "Page",
        "Words of the document",
    ]
    sheet.write_row(0, 0, heads, forms.get(bold=True, bg_color="#E4E8EE", bottom=1))
    for place, width in enumerate([13, 8, 50, 12, 16, 12, 15, 14, 50, 26, 12, 70]):
        sheet.set_column(place, place, width)
    for row, i in enumerate(items, start=1):
        if i.day and i.precision == "day":
            sheet.write_datetime(
                row, 0, datetime(i.day.year, i.day.month, i.day.day), forms.get(num_format="yyyy-mm-dd", align="left")
            )
        else:
            sheet.write_string(row, 0, day_words(i), forms.get())
        sheet.write_row(
            row,
            1,
            [
                i.time,
                one_line(i.what),
                i.kind,
                i.who,
                i.state,
                standing(i, today),
                i.recurs,
                "; ".join([*i.working, i.reading, *i.notes]).strip("; "),
                i.document.path,
            ],
            forms.get(),
        )
        link_to(sheet, forms, row, 10, i.cites[0], folder)
        sheet.write_string(row, 11, one_line(i.cites[0].quote)[:2000], forms.get(font_color="#444444"))
    sheet.freeze_panes(1, 1)
    sheet.autofilter(0, 0, max(1, len(items)), len(heads) - 1)
    book.close()
    return buffer.getvalue()


STAMP = datetime(2000, 1, 1, tzinfo=UTC)  # the same input gives the same file
IN_CALENDAR = ("deadline", "notice", "payment", "start", "end", "review")


def calendar_file(items: Sequence[DatedItem], alarms: Sequence[int]) -> bytes:
    """An iCalendar file (RFC 5545): a whole-day entry for each deadline, with alarms, a stable UID, and the cite.

    Days of events, of documents themselves and superseded ones are left out.
    """
    from icalendar import Alarm, Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", f"-//Yarnex//{__version__}//EN")
    calendar.add("version", "2.0")
    for item in items:
        if item.day is None or item.kind not in IN_CALENDAR or item.state == "superseded" or item.precision != "day":
            continue
        entry = Event()
        cite = item.cites[0]
        key = f"{item.document.sha256}|{cite.span.start}|{item.kind}|{item.day.isoformat()}|{item.what}"
        entry.add("uid", f"{hashlib.sha256(key.encode()).hexdigest()[:32]}@yarnex")
        entry.add("dtstamp", STAMP)
        entry.add("dtstart", item.day)
        entry.add("dtend", item.day + timedelta(days=1))
        who = f" ({item.who})" if item.who else ""
        entry.add("summary", visible(one_line(item.what)) + who)
        told = [f"{item.document.name}, {cite.place}", f"“{one_line(cite.quote)[:600]}”", *item.working, *item.notes]
        entry.add("description", visible("\n".join(told)))
        entry.add("categories", [item.kind])
        entry.add("transp", "TRANSPARENT")
        for days in sorted(set(alarms), reverse=True):
            alarm = Alarm()
            alarm.add("action", "DISPLAY")
            alarm.add("description", visible(one_line(item.what)))
            alarm.add("trigger", timedelta(days=-days))
            entry.add_component(alarm)
        calendar.add_component(entry)
    made: bytes = calendar.to_ical()
    return made


MOST_DRAWN = 40
DRAWN_KINDS = (
    "deadline",
    "event",
    "payment",
    "start",
    "notice",
    "end",
    "review",
    "document",
    "mention",
)  # each with its own sign and colour


def day_number(day: date | None) -> int:
    return day.toordinal() if day else 0


def timeline(items: Sequence[DatedItem], today: date, form: str) -> bytes:
    """A timeline: days from top to bottom at their distance, each with what it is and its page; today is marked."""
    from matplotlib.figure import Figure

    from yarnex.output.pictures import COLOURS, INK, picture_bytes

    drawn = [i for i, _ in collapsed(items, today) if i.day is not None and i.state != "superseded"]
    found = len(drawn)
    if found > MOST_DRAWN:
        drawn = [i for i in drawn if i.kind != "mention"]
    if len(drawn) > MOST_DRAWN:
        drawn = sorted(drawn, key=lambda i: (-i.weight, i.state != "computed", i.day))[:MOST_DRAWN]
        drawn.sort(key=lambda i: (i.day or date.min, i.time))
    height = max(8.0, 0.34 * len(drawn) + 2.2)
    figure = Figure(figsize=(12.8, height), dpi=100, facecolor="white")
    axes = figure.add_subplot()
    left_out = found - len(drawn)
    several = len({i.document.name for i in drawn}) > 1
    signs = {k: ("osD^vPX*h"[n], COLOURS[n % len(COLOURS)]) for n, k in enumerate(DRAWN_KINDS)}
    first, last = (day_number(drawn[0].day), day_number(drawn[-1].day)) if drawn else (0, 1)
    reach = max(last - first, 1)
    for n, item in enumerate(drawn):
        y = len(drawn) - 1 - n
        x = (day_number(item.day) - first) / reach
        axes.plot([x * 0.22, 0.26], [y, y], color="#D8DCE2", linewidth=0.8, zorder=1)
        marker, colour = signs.get(item.kind, signs["mention"])
        axes.plot(x * 0.22, y, marker=marker, color=colour, markersize=8, zorder=3)
        place = item.cites[0].pages[0]
        name = item.document.name if len(item.document.name) <= 28 else item.document.name[:26] + " …"
        page = f"  {name}" * several + (f"  p. {place}" if place else "")
        most = 62 if several else 78
        axes.text(0.27, y, day_words(item), fontsize=9.5, va="center", color=INK, fontweight="bold")
        words = one_line(item.what)
        axes.text(
            0.45,
            y,
            (words if len(words) <= most else words[: most - 2].rpartition(" ")[0] + " …"),
            fontsize=9.5,
            va="center",
            color=INK,
        )
        axes.text(1.0, y, f"{item.kind}{page}", fontsize=8.5, va="center", ha="right", color="#666666")
    scale = "%Y" if reach > 1200 else "%b %Y" if reach > 60 else "%-d %b %Y"
    if drawn and first <= day_number(today) <= last:
        x = (day_number(today) - first) / reach * 0.22
        axes.axvline(x, color="#D55E00", linewidth=1.2, linestyle="--", zorder=2)
        axes.text(x, len(drawn) - 0.35, "as of", fontsize=8.5, ha="center", color="#D55E00")
    for day_x, words, side in (
        ((0.0, drawn[0].day.strftime(scale), "left"), (0.22, drawn[-1].day.strftime(scale), "right"))
        if drawn and drawn[0].day and drawn[-1].day
        else ()
    ):
        axes.text(day_x, -0.9, words, fontsize=9, ha=side, color="#666666")
    axes.set_xlim(-0.02, 1.01)
    axes.set_ylim(-1.2, max(len(drawn), 1))
    axes.axis("off")
    axes.set_title("Timeline", loc="left", fontsize=16, fontweight="bold", color=INK)
    names = sorted({i.document.name for i in drawn})
    note = f"; {left_out} more left out" if left_out else ""
    figure.text(0.02, 0.01, f"Source: {', '.join(names)[:150]}{note}", fontsize=9, color="#666666")
    figure.subplots_adjust(left=0.02, right=0.98, top=1 - 0.5 / height, bottom=0.35 / height)
    return picture_bytes(figure, form)
