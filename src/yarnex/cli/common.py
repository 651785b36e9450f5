"""What all commands share: options, reading with messages, output in the form asked for, and exit codes."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

if TYPE_CHECKING:
    from yarnex.core.document import Document
    from yarnex.core.errors import UnreadableError
    from yarnex.output.report import Report

Docs = Annotated[
    list[Path] | None, typer.Argument(help="Files or folders; none means the current folder.", show_default=False)
]
AsJson = Annotated[bool, typer.Option("--json", help="Print JSON to standard output.")]
Out = Annotated[
    Path | None,
    typer.Option(
        "-o", "--out", help="Write to this file; its ending gives the format: .md .csv .html .json.", show_default=False
    ),
]
Force = Annotated[bool, typer.Option("--force", help="Replace the output file if it is there.")]
SheetName = Annotated[str, typer.Option("--sheet", help="A sheet by name, or a YAML file.")]
RulesName = Annotated[str, typer.Option("--rules", help="A rulebook by name, or a YAML file.")]
AsOf = Annotated[
    str | None, typer.Option("--as-of", help="The day that counts as today, as YYYY-MM-DD.", show_default="today")
]
Quiet = Annotated[bool, typer.Option("--quiet", help="No progress and no notes, only results and errors.")]
NoColor = Annotated[bool, typer.Option("--no-color", help="No colour in the terminal.")]
Why = Annotated[bool, typer.Option("--why", help="Show the evidence for each finding and its rivals.")]

SOME_UNREAD, WRONG_USE, NOTHING_READ, INTERRUPTED = 1, 2, 3, 130


@dataclass(slots=True)
class Read:
    """What a command has to work with."""

    documents: list[Document] = field(default_factory=list)
    unread: list[UnreadableError] = field(default_factory=list)
    passed: list[str] = field(default_factory=list)

    @property
    def exit_code(self) -> int:
        """1 where a document, or a part of one, could not be read."""
        return SOME_UNREAD if self.unread or any(p.serious for d in self.documents for p in d.problems) else 0


def say(text: str) -> None:
    """A message for the user, on standard error; words of documents cannot forge terminal output."""
    from yarnex.output.safe import visible

    print(visible(text), file=sys.stderr)


@contextmanager
def shown_to_user() -> Iterator[None]:
    """A YarnexError becomes its text on standard error and its exit code; a bug keeps its traceback."""
    from yarnex.core.errors import YarnexError

    try:
        yield
    except YarnexError as error:
        for line in str(error).splitlines():
            say(line)
        raise typer.Exit(error.exit_code) from None


def read_docs(docs: list[Path] | None, quiet: bool, *, keep_empty: bool = False) -> Read:
    """Read the named documents; what cannot be read is said and the others go on. Exits with 3 where none can.

    keep_empty: keep documents in which no page gave text; else they count as not read.
    """
    from yarnex.core.errors import UnreadableError
    from yarnex.core.reading import READABLE, find_files, read_all

    wanted, passed = find_files(docs or [Path()])
    out = Read(passed=passed)
    progress = sys.stderr.isatty() and not quiet
    for place, reading in enumerate(read_all(wanted), start=1):
        if progress:
            print(f"\r\x1b[K{place} of {len(wanted)}  {reading.path}", end="", file=sys.stderr, flush=True)
        if reading.document is not None and not reading.document.words and not keep_empty:
            why = "; ".join(p.what for p in reading.document.problems) or "no text in it"
            do = next((p.do for p in reading.document.problems if p.do), "")
            out.unread.append(
                UnreadableError(f"{why}, 0 of {len(reading.document.pages) or 1} pages read", where=reading.path, do=do)
            )
        elif reading.document is not None:
            out.documents.append(reading.document)
        elif reading.error is not None:
            out.unread.append(reading.error)
    if progress:
        print("\r\x1b[K", end="", file=sys.stderr, flush=True)
    for error in out.unread:
        say(str(error))
    for document in out.documents:
        for problem in document.problems:
            if problem.serious:
                say(f"{document.path}: {problem}; {document.pages_read} of {len(document.pages)} pages read")
    if not out.documents:
        if not wanted:
            say(
                f"{', '.join(p.as_posix() for p in docs or [Path()])}: no documents in it; yarnex reads {', '.join(READABLE)}"
            )
        raise typer.Exit(NOTHING_READ)
    if not any(d.words for d in out.documents):
        say("no text could be read in any of the documents")
        raise typer.Exit(NOTHING_READ)
    if passed and not quiet:
        say(f"passed over, of formats that are not read: {', '.join(passed)}")
    return out


def day(as_of: str | None) -> date:
    """The --as-of day, today where none is given."""
    from yarnex.core.errors import YarnexError

    if as_of is None:
        return date.today()
    try:
        return date.fromisoformat(as_of)
    except ValueError:
        raise YarnexError(f"{as_of!r} is no day", where="--as-of", do="write it as YYYY-MM-DD") from None


def check_out(out: Path | None, docs: list[Path] | None, force: bool) -> None:
    """Refuse an output file that cannot or must not be written, before any reading."""
    if out is not None:
        from yarnex.core.reading import find_files
        from yarnex.output import write

        write.check_out(out, find_files(docs or [Path()])[0], force)


def deliver(
    make_json: Callable[[], dict[str, Any]],
    report: Callable[[], Report],
    *,
    as_json: bool,
    out: Path | None,
    no_color: bool,
    quiet: bool,
) -> None:
    """Give the result in the form asked for: a file, JSON, or the terminal."""
    from yarnex.output import as_json as json_form

    if out is not None:
        from yarnex.output import write

        def rendered(name: str) -> Callable[[], str]:
            def make() -> str:
                from importlib import import_module

                text: str = import_module(f"yarnex.output.{name}").render(report())
                return text

            return make

        renderers = {
            ".md": rendered("markdown"),
            ".csv": rendered("table_csv"),
            ".html": rendered("html"),
            ".json": lambda: json_form.dumps(make_json()),
        }
        write.write(out, write.in_format(out, renderers))
        if not quiet:
            say(f"written: {out.as_posix()}")
    elif as_json:
        print(json_form.dumps(make_json()), end="")
    else:
        from yarnex.output.terminal import show

        show(report(), no_color=no_color)


def abstracts_of(documents: Sequence[Document], sheet: str) -> Any:
    """Filled sheets of the documents, amendments laid over what they amend; says which look like something else."""
    from yarnex.core.terms import abstract_all, load_sheet
    from yarnex.output.reports import misfits

    filled = abstract_all(documents, load_sheet(sheet))
    for line in misfits(filled):
        say(line)
    return filled
