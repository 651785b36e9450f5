"""`yarnex read`: what these documents are, and what of them could be read."""

from __future__ import annotations

import typer

from yarnex.cli.common import AsJson, Docs, Force, NoColor, Out, Quiet, check_out, deliver, read_docs, shown_to_user


def read(
    docs: Docs = None,
    as_json: AsJson = False,
    out: Out = None,
    force: Force = False,
    quiet: Quiet = False,
    no_color: NoColor = False,
) -> None:
    """What each document is, and what was read.

    One line a document: kind, title, date, pages, and what could not be read.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex read premises/
    """
    with shown_to_user():
        from yarnex.output import as_json as json_form
        from yarnex.output.reports import read_report

        check_out(out, docs, force)
        got = read_docs(docs, quiet=True, keep_empty=True)
        deliver(
            lambda: json_form.run("read", got.documents, got.unread, passed_over=got.passed),
            lambda: read_report(got.documents, got.unread, got.passed),
            as_json=as_json, out=out, no_color=no_color, quiet=quiet,
        )  # fmt: skip
        raise typer.Exit(got.exit_code)
