"""What a sentence-embedding model adds to `find`, by how much its nearness weighs.

    python bench/meaning.py MODEL FOLDER...

MODEL is a folder with model.onnx and tokenizer.json; each FOLDER is one as bench/answers.py takes them. For each weight it
tells of how many questions that have an answer the first choice is right.
"""

from __future__ import annotations

import json
import os
import sys
from collections import Counter
from pathlib import Path

from answers import is_right

from yarnex.core.binder import read_kept, store_for
from yarnex.core.reading import ReadOptions
from yarnex.core.search import weighing
from yarnex.core.search.answers import answers_of
from yarnex.core.search.inquiry import Inquiry
from yarnex.core.search.meaning import SentenceModel
from yarnex.core.search.question import understand

WEIGHTS = (0.0, 1.0, 2.0, 4.0, 8.0)


def main() -> None:
    model = SentenceModel(Path(sys.argv[1]))
    for folder in map(Path, sys.argv[2:]):
        folder = folder.resolve()
        facts = [
            f for f in json.loads((folder / "key.json").read_text("utf-8"))["facts"] if f["answer"]["type"] != "absent"
        ]
        os.chdir(folder)
        store = store_for(folder, print)
        papers = {r.path: r.document for r in read_kept(sorted({f["document"] for f in facts}), ReadOptions(), store)}
        right: Counter[float] = Counter()
        for weight in WEIGHTS:
            weighing.MEANING = weight
            asked = {path: Inquiry(paper, model=model) for path, paper in papers.items() if paper is not None}
            before = {}
            for fact in facts:
                if (inquiry := asked.get(fact["document"])) is None:
                    continue
                question = understand(fact["question"], "", before.get(fact["document"]))
                before[fact["document"]] = question
                answers = answers_of(inquiry, inquiry.asked(question))
                right[weight] += bool(answers) and is_right(fact, answers[0])
        print(folder.name, len(facts), " ".join(f"{w:g}: {right[w]}" for w in WEIGHTS))


if __name__ == "__main__":
    main()
