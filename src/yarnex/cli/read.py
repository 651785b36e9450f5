"""`yarnex read`: what these documents are, and what of them could be read."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, on_documents

EachPage = Annotated[
    bool, typer.Option("--each-page", help="A line for each page: its printed number, how it was read, its words.")
]
Changes = Annotated[
    bool, typer.Option("--changes", help="Tracked changes and comments, with their authors and places.")
]


@on_documents
def read(run: Run, each_page: EachPage = False, changes: Changes = False) -> None:
    """What each document is, and what was read.

    One line a document: kind, title, date, share read, what was not and why; copies and near copies are said.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex read premises/
    """
    from yarnex.core.comparing.copies import copies_among
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import read_report

    run.check_out()
    got = run.read(keep_empty=True, quiet=True if not run.docs else run.quiet)
    copies = copies_among(got.documents)
    run.deliver(
        lambda: json_form.run(
            "read", got.documents, got.unread, passed_over=got.passed, copies=json_form.copies(copies)
        ),
        lambda: read_report(got.documents, got.unread, got.passed, copies, each_page=each_page, changes=changes),
    )
    raise typer.Exit(got.exit_code)
