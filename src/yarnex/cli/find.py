"""`yarnex find`: questions in plain words, answered from the documents."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from yarnex.cli.common import Run, Why, on_documents, say

if TYPE_CHECKING:
    from yarnex.core.binder import Store
    from yarnex.core.binder.keeping import Told
    from yarnex.core.reading import ReadOptions

ASK = typer.Option("--ask", "-a", help="A question; may be given several times.", show_default=False)
LIST = typer.Option(
    "--questions", help="A file with one question a line, or a JSON or YAML list of {id, question}.", show_default=False
)
ALL = typer.Option("--all", help="All places that answer, not only the best.")
MISSING = typer.Option("--only-missing", help="Only what was not found.")
NEAREST = typer.Option(
    "--nearest",
    min=1,
    help="Ask only so many of the documents: those whose words come nearest to the questions.",
    show_default=False,
)
QUOTE = typer.Option(
    "--quote", min=20, help="Give the exact words of the passage, up to so many characters.", show_default=False
)


@on_documents
def find(
    run: Run,
    asked: Annotated[list[str] | None, ASK] = None,
    questions: Annotated[Path | None, LIST] = None,
    every: Annotated[bool, ALL] = False,
    only_missing: Annotated[bool, MISSING] = False,
    quote: Annotated[int | None, QUOTE] = None,
    nearest: Annotated[int | None, NEAREST] = None,
    why: Why = False,
) -> None:
    """Answers to questions in plain words, each with its page and words.

    Each document answers for itself. Where no passage answers, that is said, with the nearest mentions. A question may
    stand before the documents, or be given with --ask; without any, questions worth asking are proposed.

    Exit code 1 where a document or page could not be read, or where nothing answered.

    Example: yarnex find "May the tenant leave early?" premises/
    """
    from yarnex.core.binder import settings_of
    from yarnex.core.search import ask_all, nearest_paths, read_questions
    from yarnex.core.side_by_side import processors
    from yarnex.output import as_json as json_form
    from yarnex.output.answer_reports import answers_workbook, found_report, starters_report

    listed = [(str(i), words) for i, words in enumerate(asked or [], start=1)]
    docs = list(run.docs or [])
    while docs and not docs[0].exists() and _is_question(str(docs[0])):
        listed.append((str(len(listed) + 1), str(docs.pop(0))))
    run.docs = docs
    if questions is not None:
        listed += read_questions(questions)
    run.check_out(workbook=bool(listed))
    settings = settings_of(run.home)
    model = (settings.model, settings.pooling) if settings.model is not None else None
    if model is not None and listed:
        from yarnex.core.search.meaning import sentence_model

        sentence_model(*model)  # one that does not serve is told before anything is read

    def choose(paths: list[str], options: ReadOptions, store: Store | None, told: Told | None) -> list[str]:
        asked_for = [words for _, words in listed]
        return nearest_paths(paths, asked_for, nearest or len(paths), options, store, told, processors())

    got = run.read(choose=choose if nearest is not None and listed else None)
    if got.left_out:
        asked_of = len(got.documents) + len(got.unread)
        say(
            f"asked of the {asked_of} that come nearest, of {asked_of + got.left_out} documents; "
            "leave out --nearest to ask all"
        )
    if not listed:
        from yarnex.core.search.starters import starters

        proposed = starters(got.documents)
        entries = [{"document": d.path, "question": q, "why": reason} for d, q, reason in proposed]
        run.deliver(
            lambda: json_form.run("find", got.documents, got.unread, starters=entries),
            lambda: starters_report(proposed, got.unread),
        )
        raise typer.Exit(got.exit_code)
    results = ask_all(
        got.documents, listed, limit=12 if every else 4, processes=processors(), model=model, store=got.store
    )
    told = {"model": settings.model.as_posix()} if settings.model is not None else {}
    shown = [r for r in results if not r.answered] if only_missing else list(results)
    run.deliver(
        lambda: json_form.run("find", got.documents, got.unread, answers=json_form.answers(shown), **told),
        lambda: found_report(shown, got.documents, got.unread, every=every, quote=quote, why=why),
        lambda folder: answers_workbook(shown, got.documents, folder),
    )
    outside = [r.question.text for r in results if r.question.outside]
    for words in outside:
        say(f"{words!r}: asks about the world, not about these documents; not answered")
    raise typer.Exit(got.exit_code or int(not any(r.answered for r in results)))


def _is_question(words: str) -> bool:
    """True for an argument that reads as a question rather than as a path that is not there."""
    return words.rstrip().endswith("?") or len(words.split()) >= 3
