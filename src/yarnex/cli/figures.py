"""`yarnex figures`: reported amounts, their checks, and spreads."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from yarnex.cli.common import Run, on_documents

OF = typer.Option(
    "--of",
    help="A line to look for, as people say it (“profit after tax”); may stand before the documents too.",
    show_default=False,
)
CHECK = typer.Option("--check", help="Check sums, identities, repeated figures, comparatives and formulas.")
BY = typer.Option("--by", help="Set standard lines out side by side: period or company.", show_default=False)
BASIS = typer.Option("--basis", help="Only these figures: consolidated, company or segment.", show_default=False)
TABLES = typer.Option("--tables", help="List all tables with page and size.")
TABLE = typer.Option("--table", min=1, help="Write out one table, by its number in --tables.", show_default=False)
BASES = ("consolidated", "company", "segment")


@on_documents
def figures(
    run: Run, of: Annotated[list[str] | None, OF] = None, check: Annotated[bool, CHECK] = False, by: Annotated[str | None, BY] = None,
    basis: Annotated[str | None, BASIS] = None, tables: Annotated[bool, TABLES] = False, table: Annotated[int | None, TABLE] = None,
) -> None:  # fmt: skip
    """Reported amounts with label, period, basis and plain value, each with its page.

    A name among the documents that is no file is a line to look for: yarnex figures report.pdf "profit after tax". What is
    ambiguous is answered with each meaning. --check lists what does not add up or agree; --by sets lines side by side with ratios.

    Exit code 1 where a check failed, where a line was not found, or where a page could not be read.

    Example: yarnex figures reports/ --check
    """
    from yarnex.core.errors import YarnexError

    names = list(of or [])
    docs: list[Path] = []
    for path in run.docs or []:
        (docs if path.exists() or path.suffix else names).append(path if path.exists() or path.suffix else str(path))  # type: ignore[arg-type]
    run.docs = docs
    if by not in (None, "period", "company"):
        raise YarnexError(f"{by!r} is no way to set figures side by side", where="--by", do="use period or company")
    if basis not in (None, *BASES):
        raise YarnexError(f"{basis!r} is no basis", where="--basis", do=f"use {', '.join(BASES)}")
    if tables or table is not None:
        _tables(run, table)
        return
    run.check_out(workbook=True)
    _figures(run, names, check, by, basis)


def _figures(run: Run, names: list[str], check: bool, by: str | None, basis: str | None) -> None:
    from yarnex.core.figures import figures_of
    from yarnex.core.figures.asked import figures_named
    from yarnex.core.figures.checks import check_figures
    from yarnex.core.figures.spread import company_of, spread
    from yarnex.output import as_json as json_form
    from yarnex.output import figure_reports as reports
    from yarnex.output.figure_workbook import figures_workbook
    from yarnex.output.report import Report

    got = run.read()
    every = [f for d in got.documents for f in figures_of(d)]
    shown = [f for f in every if basis is None or f.basis == basis]
    companies = {d.path: company_of(d) for d in got.documents}
    checks = check_figures(every, companies) if check else ()
    side = spread(got.documents, every, by, basis or "consolidated") if by else None
    asked = [
        (name, d, figures_named([f for f in shown if f.document is d], name)) for name in names for d in got.documents
    ]
    listed = [f for _, _, meanings in asked for m in meanings for f in m.figures] if names else shown
    parts = {"figures": [f.to_dict() for f in listed], "checks": [c.to_dict() for c in checks]}

    def report() -> Report:
        if check:
            return reports.checks_report(checks, got.documents, got.unread)
        if side is not None:
            return reports.spread_report(side, got.documents, got.unread)
        if names:
            return reports.meant_report(asked, got.unread, got.documents)
        return reports.figures_report(got.documents, shown, got.unread)

    extra = {"spread": side.to_dict()} if side is not None else {}
    run.deliver(
        lambda: json_form.run("figures", got.documents, got.unread, **parts, **extra),
        report,
        lambda folder: figures_workbook(listed, side, checks, folder),
        plain_csv=None if check or side is not None else lambda: reports.figures_csv(listed),
    )
    missing = bool(names) and not any(meanings for _, _, meanings in asked)
    raise typer.Exit(got.exit_code or int(any(not c.passed for c in checks) or missing))


def _tables(run: Run, number: int | None) -> None:
    from yarnex.core.errors import YarnexError
    from yarnex.core.figures.headings import captions_of
    from yarnex.output import as_json as json_form
    from yarnex.output import figure_reports as reports

    run.check_out()
    got = run.read()
    if number is None:
        entries = [
            {"document": d.path, "table": i, "first_page": d.pages_of(t.span)[0] or None, "last_page": d.pages_of(t.span)[1] or None, "rows": t.rows, "columns": t.columns, "over": list(captions_of(d, t)[:1])}
            for d in got.documents
            for i, t in enumerate(d.tables, start=1)
        ]  # fmt: skip
        run.deliver(
            lambda: json_form.run("figures", got.documents, got.unread, tables=entries),
            lambda: reports.tables_report(got.documents, got.unread),
        )
        raise typer.Exit(got.exit_code)
    document = got.documents[0]
    if len(got.documents) > 1 or number > len(document.tables):
        what = (
            "one document at a time" if len(got.documents) > 1 else f"{document.path} has {len(document.tables)} tables"
        )
        raise YarnexError(what, where=f"--table {number}", do="yarnex figures --tables lists them")
    table = document.tables[number - 1]
    rows = [[" ".join(c.span.of(document.text).split()) for c in table.row_cells(r)] for r in range(table.rows)]
    run.deliver(
        lambda: json_form.run("figures", got.documents, got.unread, table={"number": number, "rows": rows}),
        lambda: reports.one_table(document, number - 1),
        plain_csv=lambda: reports.table_csv(document, number - 1),
    )
    raise typer.Exit(got.exit_code)
