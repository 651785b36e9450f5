"""`yarnex costs`: charges and payments from bills and statements."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, known_kind, on_documents

KIND = typer.Option(
    "--kind", help="Only charges of this kind: labour, materials, transport, treatment, fees, tax …", show_default=False
)
PROVIDER = typer.Option("--provider", help="Only bills of this provider.", show_default=False)


@on_documents
def costs(run: Run, kind: Annotated[list[str] | None, KIND] = None, provider: Annotated[str, PROVIDER] = "") -> None:
    """Charges and payments line by line, with totals by provider and kind, and what does not add up.

    Bills that stand twice are counted once and said; estimates are listed and not counted. The same bill in a payment
    notice is matched by its number, and days charged that another document contradicts are said.

    Exit code 1 where a bill does not add up or stands twice, where nothing was found, or where a page could not be read.

    Example: yarnex costs claims/bills.pdf
    """
    from yarnex.core.costs import costs_of
    from yarnex.core.costs.kinds import cost_vocabulary
    from yarnex.output import as_json as json_form
    from yarnex.output import cost_reports as reports

    known_kind(kind, [*(k for k, _ in cost_vocabulary().kinds), "other"])
    run.check_out(workbook=True)
    got = run.read()
    found = costs_of(got.documents)
    shown = reports.narrowed(found, kind or [], provider)
    charges = [b.charge_dict(line) for b in shown.bills for line in b.charges if not kind or line.kind in kind]
    run.deliver(
        lambda: json_form.run(
            "costs", got.documents, got.unread, charges=charges, bills=[reports.bill_dict(b) for b in shown.bills], payments=[p.to_dict() for p in shown.payments],
            claimed=[c.to_dict() for c in shown.claims], totals=shown.totals(), checks=[c.to_dict() for c in shown.checks],
        ),
        lambda: reports.costs_report(shown, got.documents, got.unread, kind or []),
        lambda folder: reports.costs_workbook(shown, folder),
    )  # fmt: skip
    nothing = not (found.bills or found.payments or found.claims)
    raise typer.Exit(got.exit_code or int(nothing or any(not c.passed for c in shown.checks)))
