"""`yarnex compare`: terms x documents."""

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
    abstracts_of,
    check_out,
    deliver,
    read_docs,
    shown_to_user,
)


def compare(
    docs: Docs = None, sheet: SheetName = "lease", as_json: AsJson = False, out: Out = None, force: Force = False, quiet: Quiet = False,
    no_color: NoColor = False,
) -> None:  # fmt: skip
    """Key terms side by side, cited.

    Each cell has its page; differences and gaps are marked.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex compare premises/ -o premises.html
    """
    with shown_to_user():
        from yarnex.core.comparing import compare as set_side_by_side
        from yarnex.output import as_json as json_form
        from yarnex.output.reports import compare_report

        check_out(out, docs, force)
        got = read_docs(docs, quiet)
        filled = abstracts_of(got.documents, sheet)
        result = set_side_by_side(filled)
        deliver(
            lambda: json_form.run("compare", got.documents, got.unread, sheet=sheet, comparison=json_form.comparison(result)),
            lambda: compare_report(result, filled, got.unread),
            as_json=as_json, out=out, no_color=no_color, quiet=quiet,
        )  # fmt: skip
        raise typer.Exit(got.exit_code)
