"""`yarnex show`: the passage behind a cite, in its context."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from yarnex.cli.common import FORCE, NO_COLOR, NO_STORE, QUIET, SCANS, Run, read_one, say, shown_to_user

Doc = Annotated[Path, typer.Argument(help="The document.", show_default=False)]
PageNumber = Annotated[int | None, typer.Option("--page", min=1, help="File page, from 1.", show_default=False)]
SectionWords = Annotated[
    str | None, typer.Option("--section", help="A clause number, or words of a heading.", show_default=False)
]
Quote = Annotated[
    str | None, typer.Option("--quote", help="Words to find and mark; any white space, any case.", show_default=False)
]
Picture = Annotated[
    Path | None,
    typer.Option("--png", help="Write a picture of the page with the words marked (PDF only).", show_default=False),
]


def show(
    document: Doc, page: PageNumber = None, section: SectionWords = None, quote: Quote = None, png: Picture = None,
    scans: Annotated[str, SCANS] = "recognise", no_store: Annotated[bool, NO_STORE] = False, force: Annotated[bool, FORCE] = False,
    quiet: Annotated[bool, QUIET] = False, no_color: Annotated[bool, NO_COLOR] = False,
) -> None:  # fmt: skip
    """The passage behind a cite.

    A page, a section, or the place where words stand, with what surrounds it.

    Exit code 1 where the page, section or words are not in the document.

    Example: yarnex show premises/canal-works.pdf --page 4 --quote "Initial Rent"
    """
    with shown_to_user():
        from yarnex.core.document.passage import find_passage
        from yarnex.output.passage import picture, show_passage

        read = read_one(document, Run(scans=scans, no_store=no_store, quiet=quiet))
        found = find_passage(read, page=page, section=section, quote=quote)
        if found is None:
            wanted = ", ".join(
                filter(
                    None,
                    [
                        f"page {page}" if page else "",
                        f"section {section!r}" if section else "",
                        f"the words {quote!r}" if quote else "",
                    ],
                )
            )
            say(f"{read.path}: {wanted or 'nothing asked for'} not found in it; it has {len(read.pages) or 'no'} pages")
            raise typer.Exit(1)
        show_passage(found, no_color=no_color)
        if png is not None:
            picture(found, png, document, force)
            if not quiet:
                say(f"written: {png.as_posix()}")
