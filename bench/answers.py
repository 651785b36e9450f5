"""Fit and check the weights by which `find` ranks answers, on questions with known answers.

    python bench/answers.py FOLDER... [--write]

Each folder holds a `key.json`: {"facts": [{"document": "docs/a.pdf", "question": "…", "answer": {"type": "date", "value": "2025-03-01"},
"pages": [2]}]}, with the documents beside it. Types are those of `yarnex find --json`, and `absent` for what the document
does not say, with `any_of` for texts and parties. The model is logistic, on features that are no words; it is checked on
each folder by weights fitted on the others. --write puts the weights fitted on all of them into the packs.
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
from yarnex.core.search.answers import EVIDENCE, Answer, Inquiry, answers_of
from yarnex.core.search.question import understand

RIDGE = 2.0  # how strongly weights are held near nothing
STEPS = 40
WEIGHTS = Path(__file__).parent.parent / "src" / "yarnex" / "packs" / "weights" / "answers.yaml"
HEAD = """# How much each share of evidence weighs for an answer of `find`: a logistic model on features that are no words,
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
        words = " ".join(
            (answer.finding.text if answer.finding else answer.span.of(answer.quote.document.text)).lower().split()
        )
        words += " " + str(answer.value.to_dict().get("value", "")).lower() if answer.value is not None else ""
        return any(str(w).lower() in words for w in wanted.get("any_of") or [wanted.get("value")])
    if answer.value is None:
        return False
    given = answer.value.to_dict()
    if given["type"] != kind and not (kind == "percent" and given["type"] == "number"):
        return False
    if kind in ("list", "schedule"):
        return all(str(i).lower() in json.dumps(given, default=str).lower() for i in wanted.get("items") or ["\0"])
    if kind in ("date", "yes_no"):
        return given.get("value") == wanted.get("value")
    same = abs(float(given["value"]) - float(wanted["value"])) < 0.005
    return (
        same
        and (kind != "duration" or given.get("unit") == wanted.get("unit"))
        and (kind != "money" or wanted.get("currency") in (None, given.get("currency")))
    )


def gathered(folders: list[Path]) -> tuple[np.ndarray, np.ndarray, np.ndarray, list[tuple[str, int]]]:
    """Evidence of every answer, whether it is right, its question; and for each question its type and folder."""
    rows, right, asked, about = [], [], [], []
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
            for answer in answers_of(inquiry, question):
                rows.append(answer.evidence)
                right.append(fact["answer"]["type"] != "absent" and is_right(fact, answer))
                asked.append(len(about))
            about.append((fact["answer"]["type"], place))
    return np.array(rows), np.array(right, float), np.array(asked), about


def fitted(rows: np.ndarray, right: np.ndarray) -> np.ndarray:
    """Weights of a logistic model with a ridge penalty, by Newton's method; the constant is not penalised."""
    weights = np.zeros(rows.shape[1])
    ridge = np.eye(len(weights)) * RIDGE
    ridge[0, 0] = 0.01
    for _ in range(STEPS):
        likely = 1 / (1 + np.exp(-rows @ weights))
        slope = rows.T @ (right - likely) - ridge @ weights
        weights = weights + np.linalg.solve((rows * (likely * (1 - likely))[:, None]).T @ rows + ridge, slope)
    return weights


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("folders", nargs="+", type=Path)
    parser.add_argument("--write", action="store_true")
    given = parser.parse_args()
    rows, right, asked, about = gathered([f.resolve() for f in given.folders])
    folder_of = np.array([about[q][1] for q in asked])
    tops = []
    for place in range(len(given.folders)):
        weights = (
            fitted(rows[folder_of != place], right[folder_of != place])
            if len(given.folders) > 1
            else fitted(rows, right)
        )
        likely = 1 / (1 + np.exp(-rows @ weights))
        for question, (kind, where) in enumerate(about):
            if where == place and len(mine := np.where(asked == question)[0]):
                best = mine[np.argmax(likely[mine])]
                tops.append((float(likely[best]), kind, bool(right[best])))
    said = sum(kind != "absent" for kind, _ in about)
    print(f"{len(about)} questions, {said} of them answered in the documents")
    for least in (0.0, 0.2, 0.3, 0.37, 0.45, 0.6):
        good = sum(ok for s, kind, ok in tops if s >= least and kind != "absent")
        bad = sum(not ok for s, kind, ok in tops if s >= least and kind != "absent")
        invented = sum(s >= least for s, kind, _ in tops if kind == "absent")
        print(f"at least {least:.2f}: right {good}, wrong {bad}, missed {said - good - bad}, invented {invented}")
    if given.write:
        weights = fitted(rows, right)
        lines = "".join(f'  {name}: "{value:.3f}"\n' for name, value in zip(EVIDENCE, weights, strict=True))
        WEIGHTS.write_text(HEAD.format(questions=len(about)) + lines, "utf-8")


if __name__ == "__main__":
    main()
