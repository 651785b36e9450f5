"""`yarnex demo`: the demo documents copied into a folder, and a whole example run on them."""

from __future__ import annotations

import shlex
from pathlib import Path
from typing import Annotated

import typer

from yarnex.cli.common import FORCE, NO_COLOR, say, shown_to_user

Folder = Annotated[Path, typer.Argument(help="The folder to make.")]


def demo(
    folder: Folder = Path("yarnex-demo"),
    force: Annotated[bool, FORCE] = False,
    no_color: Annotated[bool, NO_COLOR] = False,
) -> None:
    """Try it on made-up documents.

    Copies the demo documents into a folder and runs the example of the README on them, saying each command.

    Brackenfold Mills, a wool spinner, chooses new premises: three leases and an amendment, a loan and a supply agreement,
    two reports, and the papers of a claim, all made up.

    Example: yarnex demo yarnex-demo
    """
    with shown_to_user():
        from yarnex.cli.main import app
        from yarnex.core.errors import OutputError
        from yarnex.demo import CLAIM, CONTRACTS, REPORTS, copy_documents

        premises, contracts, reports, claim = (folder / name for name in ("premises", "contracts", "reports", "claim"))
        if folder.exists() and any(folder.iterdir()) and not force:
            raise OutputError("a folder that is not empty", where=folder.as_posix(), do="name another, or add --force")
        copy_documents(premises)
        copy_documents(contracts, CONTRACTS)
        copy_documents(reports, REPORTS)
        copy_documents(claim, CLAIM)
        lease = f"{premises.as_posix()}/canal-works.pdf"
        steps = [
            ["read", premises.as_posix()],
            ["outline", lease, "--depth", "1"],
            ["abstract", lease],
            ["find", "When can the tenant leave early?", lease],
            ["abstract", contracts.as_posix(), "-o", f"{folder.as_posix()}/contracts.xlsx"],
            ["dates", lease, "--as-of", "2026-11-23"],
            ["dates", lease, "-o", f"{folder.as_posix()}/deadlines.ics"],
            ["duties", lease, "--party", "landlord"],
            ["figures", f"{reports.as_posix()}/annual-report-2026.pdf", "operating profit", "net debt"],
            ["figures", reports.as_posix(), "--check"],
            ["chart", reports.as_posix(), "--of", "revenue", "--growth", "-o", f"{folder.as_posix()}/revenue.png"],
            ["dates", claim.as_posix(), "--together", "--as-of", "2026-11-23"],
            ["costs", claim.as_posix()],
            ["compare", premises.as_posix(), "-o", f"{folder.as_posix()}/premises.html"],
            ["flags", premises.as_posix()],
            ["brief", premises.as_posix(), "-o", f"{folder.as_posix()}/briefing.html"],
            ["show", lease, "--page", "4", "--quote", "Initial Rent"],
        ]
        for step in steps:
            say(f"\n$ yarnex {shlex.join(step)}")
            extra = ["--force"] if "-o" in step else []
            code = app([*step, *extra, *(["--no-color"] if no_color else [])], standalone_mode=False)
            if code and step[0] not in ("figures", "costs"):  # these find what was made wrong on purpose
                raise typer.Exit(code)
        say(
            f"\nThe workbook, the comparison and the briefing stand in {folder.as_posix()}; open them in a spreadsheet program and a browser."
        )
