"""`yarnex duties`: who must do what by when; requirements as a checklist."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, known_kind, on_documents

PARTY = typer.Option("--party", help="Only the duties of this party, by role or name.", show_default=False)
KIND = typer.Option(
    "--kind", help="Only this kind: payment, notice, insurance, reporting, restriction, upkeep …", show_default=False
)
CHECKLIST = typer.Option("--checklist", help="As boxes to tick, with deadlines.")
RIGHTS = typer.Option("--rights", help="All that parties may do; else only what they may do within a time.")
REQUIREMENTS = typer.Option("--requirements", help="What a call, guideline or policy asks for, numbered as printed.")


@on_documents
def duties(
    run: Run, party: Annotated[str, PARTY] = "", kind: Annotated[list[str] | None, KIND] = None, checklist: Annotated[bool, CHECKLIST] = False,
    rights: Annotated[bool, RIGHTS] = False, requirements: Annotated[bool, REQUIREMENTS] = False,
) -> None:  # fmt: skip
    """Who must, or must not, do what, by when and on what condition, each with section and words.

    Duties in passive voice and in lists are given to the party that their words, lead-in or heading name; where only what
    stands around tells, “told by context” is said.

    Exit code 1 where nothing was found, or where a page could not be read.

    Example: yarnex duties premises/canal-works.pdf --party tenant --checklist
    """
    from yarnex.core.duties import duties_of, requirements_of
    from yarnex.core.duties.kinds import duty_vocabulary
    from yarnex.output import as_json as json_form
    from yarnex.output import duty_reports as reports

    known_kind(kind, [*(k for k, _ in duty_vocabulary().kinds), "other"])
    run.check_out(workbook=True)
    got = run.read()
    if requirements:
        asked = [r for d in got.documents for r in requirements_of(d)]
        run.deliver(
            lambda: json_form.run("duties", got.documents, got.unread, requirements=[r.to_dict() for r in asked]),
            lambda: reports.requirements_report(asked, got.documents, got.unread),
            lambda folder: reports.requirements_workbook(asked, folder),
        )
        raise typer.Exit(got.exit_code or int(not asked))
    found = [d for document in got.documents for d in duties_of(document)]
    shown = [d for d in found if reports.wanted(d, party, kind or [], rights)]
    run.deliver(
        lambda: json_form.run("duties", got.documents, got.unread, duties=[d.to_dict() for d in shown]),
        lambda: reports.duties_report(shown, got.documents, got.unread, checklist=checklist),
        lambda folder: reports.duties_workbook(shown, folder, checklist=checklist),
    )
    raise typer.Exit(got.exit_code or int(not shown))
