"""`yarnex brief`: the briefing that is handed over."""

from __future__ import annotations

import typer

from yarnex.cli.common import (
    AsJson,
    AsOf,
    Docs,
    Force,
    NoColor,
    Out,
    Quiet,
    RulesName,
    SheetName,
    abstracts_of,
    check_out,
    day,
    deliver,
    read_docs,
    shown_to_user,
)


def brief(
    docs: Docs = None, rules: RulesName = "lease", sheet: SheetName = "lease", as_of: AsOf = None, as_json: AsJson = False, out: Out = None,
    force: Force = False, quiet: Quiet = False, no_color: NoColor = False,
) -> None:  # fmt: skip
    """A briefing to hand over.

    What the documents are, the cited comparison, flags by severity, key dates, open questions, how it was made.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex brief premises/ -o briefing.html
    """
    with shown_to_user():
        from yarnex.core.briefing import brief as build
        from yarnex.core.flags import load_rulebook
        from yarnex.core.terms import load_sheet
        from yarnex.output import as_json as json_form
        from yarnex.output.reports import briefing_report

        today = day(as_of)
        book = load_rulebook(rules, load_sheet(sheet))
        check_out(out, docs, force)
        got = read_docs(docs, quiet)
        made = build(abstracts_of(got.documents, sheet), book, today, got.unread)
        deliver(
            lambda: json_form.run("brief", got.documents, got.unread, briefing=json_form.briefing(made)),
            lambda: briefing_report(made),
            as_json=as_json, out=out, no_color=no_color, quiet=quiet,
        )  # fmt: skip
        raise typer.Exit(got.exit_code)
