"""`yarnex brief`: the briefing that is handed over."""

from __future__ import annotations

import typer

from yarnex.cli.common import AsOf, RulesName, Run, SheetName, abstracts_of, day, on_documents


@on_documents
def brief(run: Run, rules: RulesName = "lease", sheet: SheetName = "lease", as_of: AsOf = None) -> None:
    """A briefing to hand over.

    What the documents are, the cited comparison, flags by severity, key dates, open questions, how it was made.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex brief premises/ -o briefing.html
    """
    from yarnex.core.briefing import brief as build
    from yarnex.core.flags import load_rulebook
    from yarnex.core.terms import load_sheet
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import briefing_report

    today = day(as_of)
    book = load_rulebook(rules, load_sheet(sheet))
    run.check_out()
    got = run.read()
    made = build(abstracts_of(got.documents, sheet), book, today, got.unread)
    run.deliver(
        lambda: json_form.run("brief", got.documents, got.unread, briefing=json_form.briefing(made)),
        lambda: briefing_report(made),
    )
    raise typer.Exit(got.exit_code)
