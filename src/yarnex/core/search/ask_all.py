"""Many questions, many documents: one list of findings for each pair, and question lists from files."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from yarnex.core.document import Document
from yarnex.core.errors import YarnexError
from yarnex.core.patterns import pattern
from yarnex.core.search.answers import ask
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.passage_index import index_beside
from yarnex.core.search.question import Question, understand
from yarnex.core.side_by_side import worked_at
from yarnex.core.terms import Finding
from yarnex.core.terms.keeping import key_of_content

MOST_QUESTIONS = 500
BLANK = pattern(r"\{(?P<name>document|name|title)\}")


@dataclass(frozen=True, slots=True)
class Asked:
    """A question and the findings of each document, in the order of the documents; of each, best first."""

    question: Question
    findings: tuple[tuple[Finding, ...], ...]

    @property
    def answered(self) -> bool:
        return any(found[0].found for found in self.findings)


def ask_all(
    documents: Sequence[Document], questions: Sequence[tuple[str, str]], limit: int = 4, processes: int = 1,
    model: tuple[Path, str] | None = None, store: Path | None = None,
) -> tuple[Asked, ...]:  # fmt: skip
    """Ask each question (id, words) of each document. A question that opens with "And" leans on the one before it.

    Blanks in braces are filled for each document: {name} is its file's name, {title} its title. processes: how many work at
    the documents; the answers are the same. model: folder and pooling of a sentence-embedding model, by which what comes near
    to the question in meaning gains. store: the file of the store of readings, beside which is kept what is made of a document
    before it is asked, for later runs; None keeps nothing. Raises YarnexError where the model's folder holds none that serves.
    """
    asked = _understood(questions, documents[-1] if documents else None)  # what is learnt of words, the processes share
    one = partial(_ask_one, questions=questions, limit=limit, model=model, store=store)
    answers = [found for _, found in worked_at(one, ((d.path, d) for d in documents), min(processes, len(documents)))]
    return tuple(Asked(q, tuple(found[i] for found in answers)) for i, q in enumerate(asked))


Answers = list[tuple[Finding, ...]]  # of one document, one entry a question


def _understood(questions: Sequence[tuple[str, str]], document: Document | None) -> list[Question]:
    out: list[Question] = []
    for name, words in questions:
        out.append(
            understand(_filled(words, document) if document else words, name, out[-1] if out and document else None)
        )
    return out


def _ask_one(
    document: Document, questions: Sequence[tuple[str, str]], limit: int, model: tuple[Path, str] | None = None,
    store: Path | None = None,
) -> Answers:  # fmt: skip
    from yarnex.core.search.meaning import sentence_model

    index, key = (index_beside(store), key_of_content(document)) if store is not None else (None, "")
    try:
        made = index.passages_of(document, key) if index is not None else None
        inquiry = Inquiry(document, model=sentence_model(*model) if model is not None else None, passages=made)
        answers = [tuple(ask(inquiry, question, limit)) for question in _understood(questions, document)]
        if index is not None and made is None and key:
            index.keep(key, inquiry.passages)
        return answers
    finally:
        if index is not None:
            index.close()


def _filled(words: str, document: Document) -> str:
    from yarnex.core.terms.identity import identify

    values = {"document": document.path, "name": document.name}
    if "{title}" in words:
        values["title"] = identify(document).title_text
    return BLANK.sub(lambda m: values.get(m["name"], m.group()), words)


def read_questions(path: Path) -> list[tuple[str, str]]:
    """Questions from a file: a JSON or YAML list of {id, question} or of texts, or one question a line.

    Raises YarnexError with what is wrong and what to do.
    """
    import json

    import yaml

    where = path.as_posix()
    try:
        text = path.read_text("utf-8")
    except FileNotFoundError:
        raise YarnexError("no such file", where=where, do="name a file with one question a line") from None
    except (OSError, UnicodeDecodeError) as error:
        raise YarnexError(f"cannot be read ({error})", where=where, do="name a text, JSON or YAML file") from None
    listed: Any = None
    if path.suffix.lower() == ".json":
        try:
            listed = json.loads(text)
        except json.JSONDecodeError as error:
            raise YarnexError(
                f"not JSON ({error.msg})", where=f"{where}, line {error.lineno}", do="mend that line"
            ) from None
    elif path.suffix.lower() in (".yaml", ".yml"):
        try:
            listed = yaml.safe_load(text)
        except yaml.YAMLError as error:
            mark = getattr(error, "problem_mark", None)
            line = f", line {mark.line + 1}" if mark else ""
            raise YarnexError("not YAML", where=where + line, do="mend that line") from None
    else:
        listed = [line.strip() for line in text.splitlines() if line.strip() and not line.lstrip().startswith("#")]
    if isinstance(listed, dict):
        listed = listed.get("questions")
    if not isinstance(listed, list) or not listed:
        raise YarnexError(
            "no list of questions", where=where, do='write one a line, or a list of {"id": …, "question": …}'
        )
    if len(listed) > MOST_QUESTIONS:
        raise YarnexError(
            f"{len(listed)} questions, at most {MOST_QUESTIONS} at a time", where=where, do="part the list"
        )
    out = []
    for place, item in enumerate(listed, start=1):
        words = item.get("question") if isinstance(item, dict) else item
        if not isinstance(words, str) or not words.strip():
            raise YarnexError(
                f"entry {place} holds no question", where=where, do='give it as text or as {"id": …, "question": …}'
            )
        name = str(item.get("id", place)) if isinstance(item, dict) else str(place)
        out.append((name, words.strip()))
    return out
