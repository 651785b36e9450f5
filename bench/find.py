"""One question asked of a binder of 10, 100 and 1,000 papers of 30 pages: a whole run of the program, store warm.

    python bench/find.py [MOST]

The papers are made of the demo's clauses in other orders, with other names and numbers. Measured in one run, as seconds and
against the program's own start (`yarnex --version`), so that the ratios mean something on any machine: a question asked of
all the papers, and one asked of the one that comes nearest (`--nearest 1`), which is the time to a first answer.
"""

from __future__ import annotations

import os
import random
import re
import subprocess
import sys
import tempfile
import time
from importlib.resources import as_file, files
from pathlib import Path

from yarnex.core.reading import ReadOptions
from yarnex.core.reading.pool import read_many

SIZES = (10, 100, 1000)
MOST_WHOLE = 100  # papers all of which are asked
PAGES, LETTERS = 30, 2800  # a page holds about so many characters
QUESTIONS = ("How much notice must the tenant give to leave early?", "Which court decides a dispute?")
NAMES = ("Alder", "Birch", "Cedar", "Elm", "Hazel", "Larch", "Maple", "Oak", "Rowan", "Willow")
PROGRAM = [str(Path(sys.executable).with_name("yarnex"))]


def clauses() -> list[str]:
    """The paragraphs of the demo's papers."""
    out: list[str] = []
    with as_file(files("yarnex.demo") / "documents") as folder:
        paths = sorted(p.as_posix() for p in folder.rglob("*") if p.suffix in (".pdf", ".docx", ".txt", ".md"))
        for _, found, _ in read_many(paths, ReadOptions(scans="skip")):
            for reading in found:
                if reading.document is not None:
                    document = reading.document
                    out += [b.span.of(document.text) for b in document.blocks if b.kind == "paragraph"]
    return [c for c in out if len(c) > 40]


def paper(number: int, source: list[str]) -> str:
    """A paper of 30 pages: clauses in an order of its own, with its own names and numbers."""
    chance = random.Random(number)
    name = f"{chance.choice(NAMES)} {chance.choice(NAMES)} Limited"
    pages = [
        f"LEASE OF UNIT {number}\n\nThis lease is made between {name} (the Landlord) and Brackenfold Mills plc (the Tenant).\n"
    ]
    for page in range(PAGES):
        parts: list[str] = []
        while sum(map(len, parts)) < LETTERS:
            words = re.sub(r"\d", lambda _: str(chance.randint(1, 9)), chance.choice(source))
            parts.append(f"{page + 1}.{len(parts) + 1} {words}")
        pages.append("\n\n".join(parts))
    return "\f".join(pages)


def run(arguments: list[str], cache: Path) -> float:
    """Seconds of a run of the program, from start to end; its modules are compiled once, as those of an installed one are."""
    environment = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    environment |= {"YARNEX_CACHE": cache.as_posix(), "PYTHONPYCACHEPREFIX": (cache / "compiled").as_posix()}
    began = time.perf_counter()
    done = subprocess.run([*PROGRAM, *arguments], env=environment, capture_output=True, check=False)
    if done.returncode not in (0, 1):
        raise SystemExit(done.stderr.decode())
    return time.perf_counter() - began


def main() -> None:
    most = int(sys.argv[1]) if len(sys.argv) > 1 else SIZES[-1]
    source = clauses()
    with tempfile.TemporaryDirectory() as temporary:
        here = Path(temporary)
        start = min(run(["--version"], here) for _ in range(3))
        print(f"start of the program alone: {start:.2f} s")
        print(f"{'papers':>6} {'read anew':>9} {'asks all':>8} {'nearest':>8} {'against start':>14}")
        for size in (s for s in SIZES if s <= most):
            folder = here / f"binder-{size}"
            folder.mkdir()
            for number in range(size):
                (folder / f"unit-{number:04}.txt").write_text(paper(number, source), "utf-8")
            read = run(["read", folder.as_posix(), "--quiet"], here)
            whole = (
                run(["find", QUESTIONS[1], folder.as_posix(), "--quiet"], here) if size <= MOST_WHOLE else float("nan")
            )
            run(["find", QUESTIONS[0], folder.as_posix(), "--quiet", "--nearest", "1"], here)
            later = min(
                run(["find", QUESTIONS[1], folder.as_posix(), "--quiet", "--nearest", "1"], here) for _ in range(3)
            )
            print(f"{size:6} {read:9.2f} {whole:8.2f} {later:8.2f} {later / start:14.1f}")


if __name__ == "__main__":
    main()
