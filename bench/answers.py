"""Fit and check the weights by which `find` ranks answers, on questions with known answers.

    python bench/answers.py FOLDER... [--also FOLDER...] [--write]

Each folder holds a `key.json`: {"facts": [{"document": "docs/a.pdf", "question": "…", "answer": {"type": "date", "value": "2025-03-01"},
"pages": [2]}]}, with the documents beside it. Types are those of `yarnex find --json`, and `absent` for what the document
does not say, with `any_of` for texts and parties. The model is a conditional logit, on features that are no words; it is checked on
each folder by weights fitted on the others. --also: folders that help to fit, each question counting less, and are not checked:
bench/questions holds some 3,350 of our own, and 960 asked of papers that do not answer them. --write puts the weights fitted on all of them into the packs.
"""

from __future__ import annotations

import argparse
import json
import os
from pathlib import Path
from typing import Any

import numpy as np

from yarnex.core.binder import read_kept, store_for
from yarnex.core.reading import ReadOptions
from yarnex.core.search.answers import answers_of
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.question import understand
from yarnex.core.search.telling import words_told
from yarnex.core.search.weighing import EVIDENCE, Answer

RIDGE = 2.0  # how strongly weights are held near nothing
STEPS = 600
ALSO = 0.3  # what a question of a folder that is not checked counts
ASKED_IN_VAIN = 0.0  # one of them that its paper does not answer: counted, they make `find` too shy on the others
WEIGHTS = Path(__file__).parent.parent / "src" / "yarnex" / "packs" / "weights" / "answers.yaml"
HEAD = """# How much each share of evidence weighs for an answer of `find`: a conditional logit on features that are no words,
# fitted by bench/answers.py on {questions} keyed questions and checked by leaving out one folder of papers at a time.
weights:
"""


def is_right(fact: dict[str, Any], answer: Answer) -> bool:
    """True where an answer has the keyed value and stands on a keyed page."""
    wanted = fact["answer"]
    first, last = answer.quote.pages
    pages = set(fact.get("pages") or [])
    if pages and first is not None and not pages & set(range(first, (last or first) + 1)):
        return False
    kind = wanted["type"]
    if kind in ("blank", "redacted"):
        return answer.finding is not None and answer.finding.state in ("blank", "redacted")
    if kind in ("text", "party"):
        words = " ".join((answer.finding.text if answer.finding else words_told(answer)).lower().split())
        words += " " + str(answer.value.to_dict().get("value", "")).lower() if answer.value is not None else ""
        return any(str(w).lower() in words for w in wanted.get("any_of") or [wanted.get("value")])
    if answer.value is None:
        return False
    given = answer.value.to_dict()
    if kind == "list":
        said = f"{json.dumps(given, default=str)} {answer.finding.text if answer.finding else words_told(answer)}"
        said = " ".join(said.lower().split())
        return all(str(i).lower() in said for i in wanted.get("items") or ["\0"])
    if kind == "schedule":
        sums = [float(r["value"]) for r in given.get("rows", ())]
        return all(any(abs(float(r["value"]) - s) < 0.005 for s in sums) for r in wanted["rows"])
    if given["type"] != kind and not (kind == "percent" and given["type"] == "number"):
        return False
    if kind in ("date", "yes_no"):
        return given.get("value") == wanted.get("value")
    same = abs(float(given["value"]) - float(wanted["value"])) < 0.005
    return (
        same
        and (kind != "duration" or given.get("unit") == wanted.get("unit"))
        and (kind != "money" or wanted.get("currency") in (None, given.get("currency")))
    )


def gathered(folders: list[Path]) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray, list[tuple[str, int]]]:
    """Evidence of every answer, whether it is right, its question, which say the same; for each question its type and folder."""
    rows, right, asked, alike, about = [], [], [], [], []
    for place, folder in enumerate(folders):
        facts = json.loads((folder / "key.json").read_text("utf-8"))["facts"]
        os.chdir(folder)
        store = store_for(folder, print)
        documents = {
            r.document.path: r.document
            for r in read_kept(sorted({f["document"] for f in facts}), ReadOptions(), store)
            if r.document is not None
        }
        inquiries = {path: Inquiry(d) for path, d in documents.items()}
        before: dict[str, Any] = {}
        for fact in facts:
            inquiry = inquiries.get(fact["document"])
            if inquiry is None:
                continue
            question = understand(fact["question"], "", before.get(fact["document"]))
            before[fact["document"]] = question
            answers = answers_of(inquiry, inquiry.asked(question))
            said: dict[str, int] = {}
            for number, answer in enumerate(answers):
                value = (
                    answer.value.to_dict()
                    if answer.value is not None and answer.kind not in ("text", "yes_no")
                    else number
                )
                alike.append(said.setdefault(str((answer.kind, value)), number))
                rows.append(answer.evidence)
                right.append(fact["answer"]["type"] != "absent" and is_right(fact, answer))
                asked.append(len(about))
            about.append((fact["answer"]["type"], place))
    return np.array(rows), np.array(right, float), np.array(asked), np.array(alike), about


def fitted(rows: np.ndarray, right: np.ndarray, asked: np.ndarray, counts: np.ndarray) -> np.ndarray:
    """Weights of the conditional logit: they make likely that one of the right answers is chosen, or none where none is.

    Found by gradient steps (Adam) on evidence of even spread, with a ridge penalty; the constant is not penalised.
    counts: for each row how much its question counts.
    """
    spread = rows.std(0) + 1e-6
    spread[0] = 1.0
    even = rows / spread
    _, question = np.unique(asked, return_inverse=True)
    count = question.max() + 1
    known = np.bincount(question, right, count) > 0
    weights, slow, square = np.zeros(rows.shape[1]), 0.0, 0.0
    held = np.full(len(weights), RIDGE)
    held[0] = 0.0
    for step in range(1, STEPS + 1):
        worth = np.exp(np.clip(even @ weights, -30, 30))
        share = worth / (1.0 + np.bincount(question, worth, count))[question]
        of_right = worth * right / np.maximum(np.bincount(question, worth * right, count), 1e-12)[question]
        slope = even.T @ (counts * (np.where(known[question], of_right, 0.0) - share)) - held * weights
        slow, square = 0.9 * slow + 0.1 * slope, 0.99 * square + 0.01 * slope**2
        weights = weights + 0.03 * (slow / (1 - 0.9**step)) / (np.sqrt(square / (1 - 0.99**step)) + 1e-8)
    return weights / spread


def best_of(rows: np.ndarray, weights: np.ndarray, alike: np.ndarray) -> tuple[int, float]:
    """The row chosen of one question's, and its likelihood; rows that give the same value add up."""
    worth = np.exp(np.clip(rows @ weights, -30, 30))
    shares = np.bincount(alike, worth)[alike] / (1.0 + worth.sum())
    best = int(np.lexsort((-worth, -np.round(shares, 9)))[0])
    return best, float(shares[best])


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("folders", nargs="+", type=Path)
    parser.add_argument("--also", nargs="+", type=Path, default=[])
    parser.add_argument("--write", action="store_true")
    given = parser.parse_args()
    rows, right, asked, alike, about = gathered([f.resolve() for f in (*given.folders, *given.also)])
    folder_of = np.array([about[q][1] for q in asked])
    in_vain = np.array([about[q][0] == "absent" for q in asked])
    counts = np.where(folder_of < len(given.folders), 1.0, np.where(in_vain, ASKED_IN_VAIN, ALSO))
    tops = []
    for place, folder in enumerate(given.folders):
        others = folder_of != place if len(given.folders) + len(given.also) > 1 else folder_of == place
        weights = fitted(rows[others], right[others], asked[others], counts[others])
        for question, (kind, where) in enumerate(about):
            if where == place and len(mine := np.where(asked == question)[0]):
                best, likely = best_of(rows[mine], weights, alike[mine])
                tops.append((likely, kind, bool(right[mine[best]]), folder.name))
    checked = [kind for kind, where in about if where < len(given.folders)]
    said = sum(kind != "absent" for kind in checked)
    print(f"{len(checked)} questions, {said} of them answered in the documents")
    for least in (0.0, 0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.6, 0.7, 0.8, 0.9):
        good = sum(ok for s, kind, ok, _ in tops if s >= least and kind != "absent")
        bad = sum(not ok for s, kind, ok, _ in tops if s >= least and kind != "absent")
        invented = sum(s >= least for s, kind, _, _ in tops if kind == "absent")
        by_folder = ", ".join(
            f"{f.name} {sum(ok for s, k, ok, n in tops if s >= least and k != 'absent' and n == f.name)}"
            for f in given.folders
        )
        print(
            f"at least {least:.2f}: right {good}, wrong {bad}, missed {said - good - bad}, invented {invented} ({by_folder})"
        )
    if given.write:
        weights = fitted(rows, right, asked, counts)
        lines = "".join(f'  {name}: "{value:.3f}"\n' for name, value in zip(EVIDENCE, weights, strict=True))
        WEIGHTS.write_text(HEAD.format(questions=len(about)) + lines, "utf-8")


if __name__ == "__main__":
    main()
