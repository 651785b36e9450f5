"""`yarnex abstract`: the sheet of each document's kind, filled."""

from __future__ import annotations

import typer

from yarnex.cli.common import (
    AsJson,
    Docs,
    Force,
    NoColor,
    Out,
    Quiet,
    SheetName,
    Why,
    abstracts_of,
    check_out,
    deliver,
    read_docs,
    shown_to_user,
)


def abstract(
    docs: Docs = None, sheet: SheetName = "lease", why: Why = False, as_json: AsJson = False, out: Out = None, force: Force = False,
    quiet: Quiet = False, no_color: NoColor = False,
) -> None:  # fmt: skip
    """Key terms of each document, cited.

    What was not found is listed.
    Given together with its amendment, a lease shows the terms in force. Exit code 1 where a document or page could not be read.

    Example: yarnex abstract premises/canal-works.pdf
    """
    with shown_to_user():
        from yarnex.output import as_json as json_form
        from yarnex.output.reports import abstract_report

        check_out(out, docs, force)
        got = read_docs(docs, quiet)
        filled = abstracts_of(got.documents, sheet)
        deliver(
            lambda: json_form.run(
                "abstract", got.documents, got.unread, sheet=sheet, findings=json_form.findings(filled), relations=json_form.relations(filled)
            ),
            lambda: abstract_report(filled, why=why, unread=got.unread),
            as_json=as_json, out=out, no_color=no_color, quiet=quiet,
        )  # fmt: skip
        raise typer.Exit(got.exit_code)
