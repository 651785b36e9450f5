"""`yarnex abstract`: the sheet of each document's kind, filled."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import AsOf, Run, SheetName, Why, abstracts_of, day, on_documents

Screen = Annotated[bool, typer.Option("--screen", help="Only which documents lack a required term, and why.")]


@on_documents
def abstract(run: Run, sheet: SheetName = "auto", why: Why = False, as_of: AsOf = None, screen: Screen = False) -> None:
    """Key terms of each document, cited.

    Each document is read with the sheet of its kind; `yarnex sheets list` shows them.
    What was not found is listed. Given together with its amendments, an agreement shows the terms in force, or those
    in force on the --as-of day. An .xlsx file has typed cells, schedules and links.

    Exit code 1 where a document or page could not be read, or, with --screen, where a document drops out.

    Example: yarnex abstract premises/canal-works.pdf
    """
    from yarnex.core.terms.screening import screen as judge
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import abstract_report, screen_report

    today = day(as_of) if as_of is not None else None
    run.check_out(workbook=not screen)
    got = run.read()
    filled = abstracts_of(got.documents, sheet, today)
    about = {"sheet": sheet, "as_of": today.isoformat() if today else None}
    if screen:
        judged = judge(filled)
        run.deliver(
            lambda: json_form.run("abstract", got.documents, got.unread, **about, screened=json_form.screened(judged)),
            lambda: screen_report(judged, got.unread),
        )
        raise typer.Exit(got.exit_code or int(any(not s.stays for s in judged)))
    run.deliver(
        lambda: json_form.run(
            "abstract",
            got.documents,
            got.unread,
            **about,
            findings=json_form.findings(filled),
            relations=json_form.relations(filled),
        ),
        lambda: abstract_report(filled, why=why, unread=got.unread),
        lambda folder: _workbook(filled, got.unread, folder),
    )
    raise typer.Exit(got.exit_code)


def _workbook(filled: object, unread: object, folder: str) -> bytes:
    from yarnex.output.workbook import abstract_workbook

    return abstract_workbook(filled, unread, folder)  # type: ignore[arg-type]
