"""`yarnex compare`: terms x documents."""

from __future__ import annotations

import typer

from yarnex.cli.common import Run, SheetName, abstracts_of, on_documents


@on_documents
def compare(run: Run, sheet: SheetName = "auto") -> None:
    """Key terms side by side, cited.

    Each cell has its page; differences and gaps are marked.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex compare premises/ -o premises.html
    """
    from yarnex.core.comparing import compare as set_side_by_side
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import compare_report

    run.check_out()
    got = run.read()
    filled = abstracts_of(got.documents, sheet)
    result = set_side_by_side(filled)
    run.deliver(
        lambda: json_form.run(
            "compare", got.documents, got.unread, sheet=sheet, comparison=json_form.comparison(result)
        ),
        lambda: compare_report(result, filled, got.unread),
    )
    raise typer.Exit(got.exit_code)
