"""`yarnex flags`: the rulebook applied."""

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


def flags(
    docs: Docs = None, rules: RulesName = "lease", sheet: SheetName = "lease", as_of: AsOf = None, as_json: AsJson = False, out: Out = None,
    force: Force = False, quiet: Quiet = False, no_color: NoColor = False,
) -> None:  # fmt: skip
    """Risks, gaps and strengths, cited.

    Each with the reason, what to ask for, and the passage.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex flags premises/
    """
    with shown_to_user():
        from yarnex.core.flags import apply_rules, load_rulebook
        from yarnex.core.terms import load_sheet
        from yarnex.output import as_json as json_form
        from yarnex.output.reports import flags_report

        today = day(as_of)
        book = load_rulebook(rules, load_sheet(sheet))
        check_out(out, docs, force)
        got = read_docs(docs, quiet)
        filled = abstracts_of(got.documents, sheet)
        raised = apply_rules(filled, book, today)
        deliver(
            lambda: json_form.run("flags", got.documents, got.unread, rulebook=book.name, as_of=today.isoformat(), flags=json_form.flags(raised)),
            lambda: flags_report(raised, filled, book.label, got.unread),
            as_json=as_json, out=out, no_color=no_color, quiet=quiet,
        )  # fmt: skip
        raise typer.Exit(got.exit_code)
