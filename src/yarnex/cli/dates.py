"""`yarnex dates`: deadlines and events."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import AsOf, Run, day, known_kind, on_documents

FROM = typer.Option("--from", help="Only from this day on, as YYYY-MM-DD.", show_default=False)
TO = typer.Option("--to", help="Only up to this day, as YYYY-MM-DD.", show_default=False)
ABOUT = typer.Option("--about", help="Only items whose words or quote hold these words.", show_default=False)
KIND = typer.Option(
    "--kind",
    help="Only this kind: deadline, notice, payment, start, end, review, document or event; may be given several times.",
    show_default=False,
)
GAP = typer.Option("--gap", min=1, help="Say gaps of more than so many days between events.", show_default=False)
ALARM = typer.Option(
    "--alarm", help="In a calendar file: days before a deadline on which to be reminded.", show_default="30, 7 and 1"
)
TOGETHER = typer.Option(
    "--together", help="Make one chronology of all documents: the same event told by several is given once."
)


@on_documents
def dates(
    run: Run, from_: Annotated[str | None, FROM] = None, to: Annotated[str | None, TO] = None, about: Annotated[str, ABOUT] = "",
    kind: Annotated[list[str] | None, KIND] = None, gap: Annotated[int | None, GAP] = None, alarm: Annotated[list[int] | None, ALARM] = None,
    together: Annotated[bool, TOGETHER] = False, as_of: AsOf = None,
) -> None:  # fmt: skip
    """Dated events and deadlines, worked out where they are relative, with the working.

    Agreements give their days and what is counted from them; records give what happened, in order, with the time. Rules whose
    first day is not known stand last. -o x.ics writes a calendar, -o x.png a timeline.

    Exit code 1 where nothing dated was found, or where a page could not be read.

    Example: yarnex dates premises/canal-works.pdf --as-of 2026-01-15
    """
    from datetime import date

    from yarnex.core.dates import dates_of_all
    from yarnex.core.dates.gather import together as one_chronology
    from yarnex.core.dates.model import KINDS
    from yarnex.core.errors import YarnexError
    from yarnex.output import as_json as json_form
    from yarnex.output import date_reports as reports

    def bound(words: str | None, option: str) -> date | None:
        try:
            return date.fromisoformat(words) if words else None
        except ValueError:
            raise YarnexError(f"{words!r} is no day", where=option, do="write it as YYYY-MM-DD") from None

    first, last = bound(from_, "--from"), bound(to, "--to")
    known_kind(kind, KINDS)
    today = day(as_of)
    run.check_out(workbook=True, more=(".ics", ".png", ".svg"))
    got = run.read()
    items = dates_of_all(got.documents)
    if together:
        items = one_chronology(items)
    kept = [i for i in items if reports.wanted(i, first, last, about, kind or [])]
    alarms = tuple(alarm or (30, 7, 1))
    run.deliver(
        lambda: json_form.run("dates", got.documents, got.unread, as_of=today.isoformat(), dates=[i.to_dict() for i in kept]),
        lambda: reports.dates_report(kept, got.documents, got.unread, today, gap=gap),
        lambda folder: reports.dates_workbook(kept, today, folder),
        plain_csv=lambda: reports.dates_csv(kept, today),
        more={
            ".ics": lambda: reports.calendar_file(kept, alarms), ".png": lambda: reports.timeline(kept, today, "png"),
            ".svg": lambda: reports.timeline(kept, today, "svg"),
        },
    )  # fmt: skip
    raise typer.Exit(got.exit_code or int(not kept))
