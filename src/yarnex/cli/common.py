"""What all commands share: options, reading with messages, output in the form asked for, and exit codes."""

from __future__ import annotations

import functools
import inspect
import sys
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from yarnex.core.prepared import keep_nothing

if TYPE_CHECKING:
    from yarnex.core.binder import Store
    from yarnex.core.binder.keeping import Told
    from yarnex.core.document import Document
    from yarnex.core.errors import UnreadableError
    from yarnex.core.reading import Reading, ReadOptions
    from yarnex.output.report import Report

    Choose = Callable[[list[str], ReadOptions, Store | None, Told | None], list[str]]

SheetName = Annotated[
    str, typer.Option("--sheet", help="A sheet by name, or a YAML file; auto: the one for each document's kind.")
]
RulesName = Annotated[str, typer.Option("--rules", help="A rulebook by name, or a YAML file.")]
AsOf = Annotated[
    str | None, typer.Option("--as-of", help="The day that counts as today, as YYYY-MM-DD.", show_default="today")
]
Why = Annotated[bool, typer.Option("--why", help="Show the evidence for each finding and its rivals.")]

SomeDocs = Annotated[
    list[Path] | None, typer.Argument(help="Files or folders; none means the current folder.", show_default=False)
]
DOCS = typer.Argument(help="Files or folders; none means the current folder.", show_default=False)
PAGES = typer.Option(
    "--pages", help="Only these file pages, such as 20-23 or 3,7-9 (slides, sheets).", show_default=False
)
SECTION = typer.Option("--section", help="Only this section: its number, or words of its heading.", show_default=False)
SCANS = typer.Option("--scans", help="Pictures of text: recognise, tesseract (that program), or skip.")
NO_STORE = typer.Option("--no-store", help="Read every file anew, and keep no reading for the next run.")
AS_JSON = typer.Option("--json", help="Print JSON to standard output.")
OUT = typer.Option(
    "-o",
    "--out",
    help="Write to this file; its ending gives the format: .md .csv .html .json, .xlsx where it fits.",
    show_default=False,
)
FORCE = typer.Option("--force", help="Replace the output file if it is there.")
QUIET = typer.Option("--quiet", help="No progress and no notes, only results and errors.")
NO_COLOR = typer.Option("--no-color", help="No colour in the terminal.")
SHARED: dict[str, tuple[Any, Any]] = {  # name -> type with its help, default
    "pages": (Annotated[str | None, PAGES], None), "section": (Annotated[str | None, SECTION], None),
    "scans": (Annotated[str, SCANS], "recognise"), "no_store": (Annotated[bool, NO_STORE], False),
    "as_json": (Annotated[bool, AS_JSON], False), "out": (Annotated[Path | None, OUT], None), "force": (Annotated[bool, FORCE], False),
    "quiet": (Annotated[bool, QUIET], False), "no_color": (Annotated[bool, NO_COLOR], False),
}  # fmt: skip

SOME_UNREAD, WRONG_USE, NOTHING_READ, INTERRUPTED = 1, 2, 3, 130


def known_kind(asked: list[str] | None, kinds: Sequence[str]) -> None:
    """Raises YarnexError for a --kind that is none of `kinds`."""
    from yarnex.core.errors import YarnexError

    unknown = [k for k in asked or [] if k not in kinds]
    if unknown:
        raise YarnexError(f"{unknown[0]!r} is no kind", where="--kind", do=f"use {', '.join(kinds)}")


@dataclass(slots=True)
class Read:
    """What a command has to work with."""

    documents: list[Document] = field(default_factory=list)
    unread: list[UnreadableError] = field(default_factory=list)
    passed: list[str] = field(default_factory=list)
    without: list[str] = field(default_factory=list)  # read, but without the pages or section asked for
    left_out: int = 0  # documents that were not chosen
    store: Path | None = None  # the file in which readings are kept

    @property
    def exit_code(self) -> int:
        """1 where a document, or a part of one, could not be read."""
        return (
            SOME_UNREAD
            if self.unread or self.without or any(p.serious for d in self.documents for p in d.problems)
            else 0
        )


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


@dataclass(slots=True)
class Run:
    """What all commands on documents are given: which documents, how to read them, and where the result goes."""

    docs: list[Path] | None = None
    pages: str | None = None
    section: str | None = None
    scans: str = "recognise"
    no_store: bool = False
    as_json: bool = False
    out: Path | None = None
    force: bool = False
    quiet: bool = False
    no_color: bool = False

    @property
    def home(self) -> Path:
        """The folder whose binder and settings are used: the one that is named, else where the program is run."""
        folders = [p for p in self.docs or [Path()] if p.is_dir()]
        return folders[0] if len(folders) == 1 else Path()

    def check_out(self, *, workbook: bool = False, more: tuple[str, ...] = (), only: tuple[str, ...] = ()) -> None:
        """Refuse an output file that cannot or must not be written, before any reading.

        workbook: .xlsx may be asked for. more: other endings that may be. only: these and no others.
        """
        if self.out is not None:
            from yarnex.core.reading import find_files
            from yarnex.output import write

            formats = only or (*write.FORMATS, *([".xlsx"] if workbook else []), *more)
            write.check_out(self.out, find_files(self.docs or [Path()])[0], self.force, formats)

    def read(self, *, keep_empty: bool = False, quiet: bool | None = None, choose: Choose | None = None) -> Read:
        """Read the named documents; what cannot be read is said and the others go on. Exits with 3 where none can.

        keep_empty: keep documents in which no page gave text; else they count as not read. choose: told the paths, which
        of them to read.
        """
        return read_docs(self, keep_empty=keep_empty, quiet=self.quiet if quiet is None else quiet, choose=choose)

    def deliver(
        self,
        make_json: Callable[[], dict[str, Any]],
        report: Callable[[], Report],
        workbook: Callable[[str], bytes] | None = None,
        plain_csv: Callable[[], str] | None = None,
        more: dict[str, Callable[[], str | bytes]] | None = None,
    ) -> None:
        """Give the result in the form asked for: a file, JSON, or the terminal.

        plain_csv: instead of the report cell for cell. more: other file formats, by ending.
        """
        deliver(
            make_json,
            report,
            as_json=self.as_json,
            out=self.out,
            no_color=self.no_color,
            quiet=self.quiet,
            workbook=workbook,
            more={**({".csv": plain_csv} if plain_csv else {}), **(more or {})},
        )


def on_documents(command: Callable[..., None]) -> Callable[..., None]:
    """Give a command that takes a Run the arguments and options that all commands on documents share.

    The command's own options stand first in its help. A YarnexError is shown as its text, with its exit code.
    """
    own = [p for p in inspect.signature(command, eval_str=True).parameters.values() if p.name != "run"]
    kind = inspect.Parameter.POSITIONAL_OR_KEYWORD
    docs = inspect.Parameter("docs", kind, default=None, annotation=Annotated[list[Path] | None, DOCS])
    shared = [inspect.Parameter(n, kind, default=default, annotation=a) for n, (a, default) in SHARED.items()]

    @functools.wraps(command)
    def told(**given: Any) -> None:
        run = Run(given.pop("docs"), **{n: given.pop(n) for n in SHARED})
        if run.no_store:
            keep_nothing()
        with shown_to_user():
            command(run, **given)

    parameters = [docs, *own, *shared]
    told.__signature__ = inspect.Signature(parameters)  # type: ignore[attr-defined]
    told.__annotations__ = {p.name: p.annotation for p in parameters}
    return told


def read_docs(run: Run, *, keep_empty: bool, quiet: bool, choose: Choose | None = None) -> Read:
    """What `Run.read` does."""
    from yarnex.core.errors import UnreadableError, YarnexError
    from yarnex.core.reading import READABLE, ReadOptions, find_files
    from yarnex.core.reading.files import SCANS as ways

    if run.scans not in ways:
        raise YarnexError(f"{run.scans!r} is no way to read scans", where="--scans", do=f"use {', '.join(ways)}")
    narrow = _narrower(run)
    wanted, passed = find_files(run.docs or [Path()])
    out = Read(passed=passed)
    for reading in _readings(wanted, ReadOptions(run.scans), run, quiet, choose and _counted(choose, out), out):
        document = reading.document
        if document is not None and narrow is not None and document.words:
            document = narrow(document)
            if document is None:
                out.without.append(reading.path)
                continue
        if document is not None and not document.words and not keep_empty:
            why = "; ".join(p.what for p in document.problems) or "no text in it"
            do = next((p.do for p in document.problems if p.do), "")
            out.unread.append(
                UnreadableError(f"{why}, 0 of {len(document.pages) or 1} pages read", where=reading.path, do=do)
            )
        elif document is not None:
            out.documents.append(document)
        elif reading.error is not None:
            out.unread.append(reading.error)
    for error in out.unread:
        say(str(error))
    for path in out.without:
        say(f"{path}: {_asked_for(run)} not in it; left out")
    for document in out.documents:
        for problem in document.problems:
            if problem.serious:
                read = f"; {document.pages_read} of {len(document.pages)} pages read" if document.pages else ""
                say(f"{document.path}: {problem}{read}")
    if not out.documents:
        if not wanted:
            say(
                f"{', '.join(p.as_posix() for p in run.docs or [Path()])}: no documents in it; yarnex reads {', '.join(READABLE)}"
            )
        raise typer.Exit(NOTHING_READ)
    if not any(d.words for d in out.documents):
        say("no text could be read in any of the documents")
        raise typer.Exit(NOTHING_READ)
    if passed and not quiet:
        say(f"passed over, of formats that are not read: {', '.join(passed)}")
    return out


def read_one(path: Path, run: Run) -> Document:
    """One document; of a mail or an archive the first. Raises UnreadableError."""
    from yarnex.core.errors import UnreadableError
    from yarnex.core.reading import ReadOptions, find_files

    (wanted,), _ = find_files([path]) if not path.is_dir() else ([path.as_posix()], [])
    run.docs = [path]
    readings = list(_readings([wanted], ReadOptions(run.scans), run, run.quiet))
    for reading in readings:
        if reading.document is not None:
            return reading.document
    raise next(
        (r.error for r in readings if r.error is not None), UnreadableError("no document in it", where=path.as_posix())
    )


def _asked_for(run: Run) -> str:
    said = [f"section {run.section!r}" if run.section else "", f"pages {run.pages}" if run.pages else ""]
    return " on ".join(filter(None, said))


def _narrower(run: Run) -> Callable[[Document], Document | None] | None:
    """A function that cuts a document down to the pages and section asked for (None: it has no such part)."""
    if run.pages is None and run.section is None:
        return None
    from yarnex.core.document.narrowing import narrowed, page_spans, parse_pages, section_spans
    from yarnex.core.errors import YarnexError

    try:
        pages = parse_pages(run.pages) if run.pages is not None else None
    except ValueError as error:
        raise YarnexError(
            f"{error} is no page or range of pages", where="--pages", do="write 12, 20-23 or 3,7-9"
        ) from None
    section = run.section

    def narrow(document: Document) -> Document | None:
        if pages is not None:
            spans = page_spans(document, pages)
            if not spans:
                return None
            document = narrowed(document, spans)
        if section is not None:
            spans = section_spans(document, section)
            if not spans:
                return None
            document = narrowed(document, spans)
        return document if document.text[: document.body_end].strip() else None

    return narrow


def _counted(choose: Choose, out: Read) -> Choose:
    """The same choice; how many paths it leaves out is noted."""

    def chosen(paths: list[str], options: ReadOptions, store: Store | None, told: Told | None) -> list[str]:
        kept = choose(paths, options, store, told)
        out.left_out = len(paths) - len(kept)
        return kept

    return chosen


def _readings(
    wanted: list[str],
    options: ReadOptions,
    run: Run,
    quiet: bool,
    choose: Choose | None = None,
    out: Read | None = None,
) -> Iterator[Reading]:
    """Readings from the store or from the files, with progress on a terminal."""
    from yarnex.core.binder import read_kept, store_for

    store = None if run.no_store else store_for(run.home, say)
    if out is not None:
        out.store = store.file if store is not None else None
    shown = sys.stderr.isatty() and not quiet
    began = time.monotonic()

    def told(done: int, path: str, page: int, of: int) -> None:
        spent = time.monotonic() - began
        rest = f"  about {_span_of_time(spent / done * (len(wanted) - done))} left" if done and spent > 3 else ""
        where = f"  page {page} of {of}" if of > 1 else ""
        print(f"\r\x1b[K{done} of {len(wanted)}  {_visible(path)}{where}{rest}", end="", file=sys.stderr, flush=True)

    try:
        if choose is not None:
            wanted = choose(wanted, options, store, told if shown else None)
        yield from read_kept(wanted, options, store, told if shown else None)
    finally:
        if store is not None:
            store.close()
        if shown:
            print("\r\x1b[K", end="", file=sys.stderr, flush=True)


def _span_of_time(seconds: float) -> str:
    return f"{max(1, round(seconds))} s" if seconds < 90 else f"{round(seconds / 60)} min"


def _visible(text: str) -> str:
    from yarnex.output.safe import visible

    return visible(text)


def day(as_of: str | None) -> date:
    """The --as-of day, today where none is given."""
    from yarnex.core.errors import YarnexError

    if as_of is None:
        return date.today()
    try:
        return date.fromisoformat(as_of)
    except ValueError:
        raise YarnexError(f"{as_of!r} is no day", where="--as-of", do="write it as YYYY-MM-DD") from None


def deliver(
    make_json: Callable[[], dict[str, Any]],
    report: Callable[[], Report],
    *,
    as_json: bool,
    out: Path | None,
    no_color: bool,
    quiet: bool,
    workbook: Callable[[str], bytes] | None = None,
    more: dict[str, Callable[[], str | bytes]] | None = None,
) -> None:
    """Give the result in the form asked for: a file, JSON, or the terminal. workbook: takes the file's folder."""
    from yarnex.output import as_json as json_form

    if out is not None:
        from yarnex.output import write

        def rendered(name: str) -> Callable[[], str]:
            def make() -> str:
                from importlib import import_module

                text: str = import_module(f"yarnex.output.{name}").render(report())
                return text

            return make

        renderers: dict[str, Callable[[], str | bytes]] = {
            ".md": rendered("markdown"),
            ".csv": rendered("table_csv"),
            ".html": rendered("html"),
            ".json": lambda: json_form.dumps(make_json()),
        }
        renderers |= more or {}
        if workbook is not None:
            folder = out.parent.as_posix()
            renderers[".xlsx"] = lambda: workbook("" if folder == "." else folder)
        write.write(out, write.in_format(out, renderers))
        if not quiet:
            say(f"written: {out.as_posix()}")
    elif as_json:
        print(json_form.dumps(make_json()), end="")
    else:
        from yarnex.output.terminal import show

        show(report(), no_color=no_color)


def read_quietly(docs: list[Path] | None) -> Read:
    """Read documents for a command that takes no reading options."""
    return Run(docs).read()


def abstracts_of(documents: Sequence[Document], sheet: str, as_of: date | None = None) -> Any:
    """Filled sheets of the documents, amendments laid over what they amend; says which look like something else."""
    from yarnex.core.figures.headlines import with_headlines
    from yarnex.core.terms import abstract_all
    from yarnex.output.reports import misfits

    filled = tuple(with_headlines(a) for a in abstract_all(documents, sheet, as_of))
    for line in misfits(filled):
        say(line)
    return filled
