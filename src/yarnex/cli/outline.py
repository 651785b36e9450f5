"""`yarnex outline`: the sections of each document with their pages."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, on_documents

Depth = Annotated[int, typer.Option("--depth", min=1, max=9, help="Show sections down to this level.")]


@on_documents
def outline(run: Run, depth: Depth = 9) -> None:
    """The sections of each document, with their pages.

    Numbers are kept as printed; pages are those of the file, and the printed ones where they differ.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex outline premises/canal-works.pdf --depth 1
    """
    from yarnex.core.document.outline import outline_of
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import outline_report

    run.check_out()
    got = run.read()
    entries = [(d, outline_of(d, depth)) for d in got.documents]
    run.deliver(
        lambda: json_form.run(
            "outline", got.documents, got.unread, sections=[e.to_dict() for _, found in entries for e in found]
        ),
        lambda: outline_report(entries, got.unread),
    )
    raise typer.Exit(got.exit_code)
