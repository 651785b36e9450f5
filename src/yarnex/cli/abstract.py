"""`yarnex abstract`: the sheet of each document's kind, filled."""

from __future__ import annotations

import typer

from yarnex.cli.common import Run, SheetName, Why, abstracts_of, on_documents


@on_documents
def abstract(run: Run, sheet: SheetName = "lease", why: Why = False) -> None:
    """Key terms of each document, cited.

    What was not found is listed.
    Given together with its amendment, a lease shows the terms in force. Exit code 1 where a document or page could not be read.

    Example: yarnex abstract premises/canal-works.pdf
    """
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import abstract_report

    run.check_out()
    got = run.read()
    filled = abstracts_of(got.documents, sheet)
    run.deliver(
        lambda: json_form.run(
            "abstract",
            got.documents,
            got.unread,
            sheet=sheet,
            findings=json_form.findings(filled),
            relations=json_form.relations(filled),
        ),
        lambda: abstract_report(filled, why=why, unread=got.unread),
    )
    raise typer.Exit(got.exit_code)
