"""`yarnex chart`: a picture of figures."""

from __future__ import annotations

from typing import Annotated

import typer

from yarnex.cli.common import Run, on_documents

OF = typer.Option(
    "--of", help="What to draw, as people say it (“revenue”); may be given several times.", show_default=False
)
TYPE = typer.Option("--type", help="bars, lines, or waterfall (the parts of a sum).")
BY = typer.Option("--by", help="What stands side by side: period, segment or company.")
TITLE = typer.Option("--title", help="A title of your own.", show_default=False)
SIZE = typer.Option("--size", help="Pixels, as 1280x800.")
COLOURS = typer.Option("--colours", help="Colours of your own, as #0072B2,#E69F00.", show_default=False)
PLAIN = typer.Option("--no-values", help="No numbers on bars and points.")
GROWTH = typer.Option("--growth", help="Mark growth against the bar before.")
ENDINGS = (".png", ".svg")


@on_documents
def chart(
    run: Run, of: Annotated[list[str] | None, OF] = None, type: Annotated[str, TYPE] = "bars", by: Annotated[str, BY] = "period",
    title: Annotated[str, TITLE] = "", size: Annotated[str, SIZE] = "1280x800", colours: Annotated[str, COLOURS] = "",
    no_values: Annotated[bool, PLAIN] = False, growth: Annotated[bool, GROWTH] = False,
) -> None:  # fmt: skip
    """A picture of figures, with title, unit and the pages they come from.

    Give the file with -o, ending in .png or .svg. Forecasts, targets and other lengths of time are left out, and that is said.

    Exit code 1 where nothing of that name was found, or where a page could not be read.

    Example: yarnex chart reports/annual-report-2025.pdf --of revenue -o revenue.png
    """
    import re

    from yarnex.core.errors import YarnexError
    from yarnex.core.figures.series import WAYS
    from yarnex.output.pictures import COLOURS as PALETTE
    from yarnex.output.pictures import TYPES, Look

    if type not in TYPES:
        raise YarnexError(f"{type!r} is no type", where="--type", do=f"use {', '.join(TYPES)}")
    if by not in WAYS:
        raise YarnexError(f"{by!r} is no way to set figures side by side", where="--by", do=f"use {', '.join(WAYS)}")
    if not of:
        raise YarnexError("nothing to draw", where="--of", do="name a line, as in --of revenue")
    if run.out is None and not run.as_json:
        raise YarnexError("no file for the picture", where="-o", do="name one that ends in .png or .svg")
    shape = re.fullmatch(r"(\d{3,4})x(\d{3,4})", size)
    if shape is None:
        raise YarnexError(f"{size!r} is no size", where="--size", do="write it as 1280x800")
    palette = tuple(c.strip() for c in colours.split(",")) if colours else PALETTE
    if not all(re.fullmatch(r"#[0-9A-Fa-f]{6}", c) for c in palette):
        raise YarnexError(f"{colours!r} are no colours", where="--colours", do="write them as #0072B2,#E69F00")
    run.check_out(only=ENDINGS)
    _draw(run, of, by, Look(type, title, int(shape[1]), int(shape[2]), palette, not no_values, growth))


def _draw(run: Run, of: list[str], by: str, look) -> None:  # type: ignore[no-untyped-def]
    from yarnex.cli.common import say
    from yarnex.core.figures import figures_of
    from yarnex.core.figures.series import chart_series, parts_of_sum
    from yarnex.core.values.types import plain_number
    from yarnex.output import as_json as json_form
    from yarnex.output.pictures import figure_picture

    got = run.read()
    figures = [f for d in got.documents for f in figures_of(d)]
    data = parts_of_sum(figures, of[0]) if look.type == "waterfall" else chart_series(got.documents, figures, of, by)
    if data is None:
        say(
            f"{', '.join(of)}: {'no sum of that name that a table works out' if look.type == 'waterfall' else 'no figures of that name'}; nothing was drawn"
        )
        raise typer.Exit(1)
    for note in data.notes:
        say(note)
    series = [
        {
            "name": s.name,
            "points": [
                {"label": p.label.replace("\n", " "), "value": plain_number(p.value), "figure": p.figure.to_dict()}
                for p in s.points
            ],
        }
        for s in data.series
    ]
    run.deliver(
        lambda: json_form.run(
            "chart",
            got.documents,
            got.unread,
            title=data.title,
            unit=data.unit or None,
            series=series,
            notes=list(data.notes),
        ),
        lambda: None,  # type: ignore[arg-type,return-value]
        more={".png": lambda: figure_picture(data, look, "png"), ".svg": lambda: figure_picture(data, look, "svg")},
    )
    raise typer.Exit(got.exit_code)
