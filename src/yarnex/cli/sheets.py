"""`yarnex sheets`: the lists of terms: shown, copied out, checked, drafted."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from yarnex.cli.common import FORCE, SomeDocs, deliver, read_quietly, say, shown_to_user

app = typer.Typer(
    name="sheets", no_args_is_help=True, help="The sheets: the terms that are looked for in each kind of document. List, show, copy, check or draft one.",
)  # fmt: skip
AsJson = Annotated[bool, typer.Option("--json", help="Print JSON to standard output.")]
Name = Annotated[str, typer.Argument(help="A sheet by name, or a YAML file.")]


@app.command("list")
def list_sheets(as_json: AsJson = False) -> None:
    """The sheets that ship, with the kinds of document that they are for."""
    from yarnex.core.terms import load_sheet
    from yarnex.core.terms.sheets import shipped_sheets
    from yarnex.output.reports import sheets_report

    with shown_to_user():
        sheets = [load_sheet(name) for name in shipped_sheets()]
        entries = [
            {
                "sheet": s.name,
                "label": s.label,
                "kinds": list(s.kinds),
                "terms": len(s.terms),
                "include": list(s.include),
            }
            for s in sheets
        ]
        deliver(
            lambda: {"sheets": entries},
            lambda: sheets_report(sheets),
            as_json=as_json,
            out=None,
            no_color=False,
            quiet=True,
        )


@app.command()
def show(name: Name, as_json: AsJson = False) -> None:
    """The terms of a sheet, with how documents call them.

    Example: yarnex sheets show loan
    """
    from yarnex.core.terms import load_sheet
    from yarnex.output.reports import sheet_report

    with shown_to_user():
        sheet = load_sheet(name)
        terms = [
            {
                "id": t.id,
                "label": t.label,
                "group": t.group,
                "type": t.type,
                "required": t.required,
                "names": [p.text for p in t.names],
                "hint": t.hint,
            }
            for t in sheet.terms
        ]
        deliver(
            lambda: {"sheet": sheet.name, "label": sheet.label, "kinds": list(sheet.kinds), "terms": terms},
            lambda: sheet_report(sheet),
            as_json=as_json,
            out=None,
            no_color=False,
            quiet=True,
        )


@app.command()
def copy(
    name: Name,
    file: Annotated[Path, typer.Argument(help="The YAML file to write.")],
    force: Annotated[bool, FORCE] = False,
) -> None:
    """Copy a sheet into a file of your own, to edit and use with --sheet.

    Example: yarnex sheets copy loan my-loans.yaml
    """
    from yarnex.core.packs import pack_text
    from yarnex.output import write

    with shown_to_user():
        text, _ = pack_text("sheets", name)
        write.check_out(file, [], force, (".yaml", ".yml"))
        write.write(file, text)
        say(f"written: {file.as_posix()}")


@app.command()
def check(file: Annotated[Path, typer.Argument(help="The YAML file.")]) -> None:
    """Check a sheet of your own: every mistake with its line and what was expected.

    Exit code 2 where there are mistakes.
    """
    from yarnex.core.figures.headlines import check_figures_of
    from yarnex.core.terms import load_sheet

    with shown_to_user():
        sheet = load_sheet(str(file))
        check_figures_of(sheet, file.as_posix())
        say(f"{file.as_posix()}: a sound sheet of {len(sheet.terms)} terms")


@app.command()
def draft(
    docs: SomeDocs = None,
    name: Annotated[str, typer.Option("--name", help="The name of the new sheet.")] = "draft",
    share: Annotated[
        int, typer.Option("--share", min=1, max=100, help="Per cent of the documents that must state a term.")
    ] = 50,
    out: Annotated[
        Path | None, typer.Option("-o", "--out", help="Write to this .yaml file.", show_default=False)
    ] = None,
    force: Annotated[bool, FORCE] = False,
) -> None:
    """Propose a sheet from what documents of one kind state: labels, definitions, headed clauses that several share.

    Example: yarnex sheets draft reports/ --name mill-report -o mill-report.yaml
    """
    from yarnex.core.errors import YarnexError
    from yarnex.core.terms.drafting import propose, to_yaml
    from yarnex.output import write

    with shown_to_user():
        if out is not None:
            write.check_out(out, [], force, (".yaml", ".yml"))
        got = read_quietly(docs)
        proposed = propose(got.documents, share / 100)
        if not proposed:
            raise YarnexError(
                "nothing that these documents state under a label or heading",
                where="draft",
                do="lower --share, or name other documents",
            )
        text = to_yaml(proposed, name, len(got.documents))
        if out is None:
            print(text, end="")
        else:
            write.write(out, text)
            say(f"written: {out.as_posix()}, {len(proposed)} terms; edit it, then use --sheet {out.as_posix()}")
        raise typer.Exit(got.exit_code)
