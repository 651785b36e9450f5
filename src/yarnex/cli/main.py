"""`yarnex`: the commands put together, and the ways in which a run can end."""

from __future__ import annotations

import atexit
import errno
import gc
import os
import sys
from typing import Annotated

import typer

from yarnex.cli.abstract import abstract
from yarnex.cli.brief import brief
from yarnex.cli.chart import chart
from yarnex.cli.common import INTERRUPTED, WRONG_USE
from yarnex.cli.compare import compare
from yarnex.cli.costs import costs
from yarnex.cli.dates import dates
from yarnex.cli.demo import demo
from yarnex.cli.duties import duties
from yarnex.cli.figures import figures
from yarnex.cli.find import find
from yarnex.cli.flags import flags
from yarnex.cli.outline import outline
from yarnex.cli.read import read
from yarnex.cli.roster import roster
from yarnex.cli.sheets import app as sheets
from yarnex.cli.show import show
from yarnex.core.patterns import keep_patterns

# Typer may carry its own copy of Click, so the base of its errors is taken from the one that it shows.
CommandError: type[typer.BadParameter] = next(  # what Typer raises for wrong use, BadParameter among others
    c for c in typer.BadParameter.__mro__ if c.__name__ == "ClickException"
)

app = typer.Typer(
    name="yarnex", no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False, rich_markup_mode=None,
    help="Key terms, comparisons and red flags from your documents, each with its page and words. Runs on this machine only.",
)  # fmt: skip
for command in (
    read,
    outline,
    show,
    abstract,
    figures,
    dates,
    duties,
    costs,
    chart,
    find,
    roster,
    compare,
    flags,
    brief,
    demo,
):
    app.command()(command)
app.add_typer(sheets)


def _version(asked: bool) -> None:
    if asked:
        from yarnex._version import __version__

        print(f"yarnex {__version__}")
        raise typer.Exit()


@app.callback()
def options(
    version: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Show the version and stop.")
    ] = False,
) -> None:
    """Key terms, comparisons and red flags from your documents, each with its page and words. Runs on this machine only.

    Exit codes: 0 done; 1 done, with something unread or left open that you must see; 2 wrong use; 3 nothing could be read; 130 interrupted.
    """


def main() -> None:
    """Run the command line; always ends the process with one of the documented exit codes."""
    gc.set_threshold(200_000, 20, 20)  # a run makes much that stays until its end: looking for waste often is time lost
    atexit.register(gc.freeze)  # the process ends: nothing need be looked through for waste once more
    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(encoding="utf-8", errors="replace")
    try:
        code = app(standalone_mode=False)
        sys.stdout.flush()
        keep_patterns()
    except (KeyboardInterrupt, typer.Abort):
        code = INTERRUPTED
    except CommandError as error:
        said = error.format_message()
        nothing_asked = type(error).__name__ == "NoArgsIsHelpError"
        print(said if nothing_asked else f"{said} Try 'yarnex --help'.", file=sys.stderr)
        code = WRONG_USE
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # the reader of a pipe went away: no more to say
        code = 0
    except OSError as error:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT, errno.EIO):
            raise
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        print(
            f"standard output: cannot be written ({error.strerror}); free space or use another place", file=sys.stderr
        )
        code = WRONG_USE
    if code == INTERRUPTED:
        print("\ninterrupted; no output file was written or changed", file=sys.stderr)
    sys.exit(code if isinstance(code, int) else 0)


if __name__ == "__main__":
    main()
