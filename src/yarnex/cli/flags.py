"""`yarnex flags`: the rulebook applied."""

from __future__ import annotations

import typer

from yarnex.cli.common import AsOf, RulesName, Run, SheetName, abstracts_of, day, on_documents


@on_documents
def flags(run: Run, rules: RulesName = "lease", sheet: SheetName = "lease", as_of: AsOf = None) -> None:
    """Risks, gaps and strengths, cited.

    Each with the reason, what to ask for, and the passage.

    Exit code 1 where a document or a page could not be read.

    Example: yarnex flags premises/
    """
    from yarnex.core.flags import apply_rules, load_rulebook
    from yarnex.core.terms import load_sheet
    from yarnex.output import as_json as json_form
    from yarnex.output.reports import flags_report

    today = day(as_of)
    book = load_rulebook(rules, load_sheet(sheet))
    run.check_out()
    got = run.read()
    filled = abstracts_of(got.documents, sheet)
    raised = apply_rules(filled, book, today)
    run.deliver(
        lambda: json_form.run(
            "flags",
            got.documents,
            got.unread,
            rulebook=book.name,
            as_of=today.isoformat(),
            flags=json_form.flags(raised),
        ),
        lambda: flags_report(raised, filled, book.label, got.unread),
    )
    raise typer.Exit(got.exit_code)
