"""`yarnex roster`: every item of a named list."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, Why, on_documents

OF = typer.Option("--of", help="What to list; may also stand before the documents.", show_default=False)
EXPECT = typer.Option("--expect", min=0, help="How many there should be; another count is said.", show_default=False)


@on_documents
def roster(
    run: Run, of: Annotated[str | None, OF] = None, expect: Annotated[int | None, EXPECT] = None, why: Why = False
) -> None:
    """Every item of a named list, once each, in order, with its page.

    Items are taken from tables, lists, headings or names that open paragraphs; gaps in their numbering and items that
    stand twice are said. --why says where they stand and what was left out.

    Exit code 1 where nothing was found, where the count is not the expected one, or where a page could not be read.

    Example: yarnex roster "payments" contracts/aire-facility.docx
    """
    from yarnex.core.errors import YarnexError
    from yarnex.core.search import roster as list_items
    from yarnex.output import as_json as json_form
    from yarnex.output.answer_reports import roster_report

    docs = list(run.docs or [])
    if of is None and docs and not docs[0].exists():
        of = str(docs.pop(0))
    run.docs = docs
    if of is None:
        raise YarnexError("nothing to list", where="roster", do='say what, as in: yarnex roster "directors" report.pdf')
    run.check_out()
    got = run.read()
    lists = [list_items(d, of) for d in got.documents]
    count = sum(len(r.items) for r in lists)
    run.deliver(
        lambda: json_form.run("roster", got.documents, got.unread, **json_form.rosters(lists, of, expect)),
        lambda: roster_report(lists, of, expect, got.unread, why=why),
    )
    raise typer.Exit(got.exit_code or int(count == 0 or (expect is not None and count != expect)))
