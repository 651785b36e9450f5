"""Pages per second of reading (one process) against bare text extraction by pdfium on the same file, in one run.

    python bench/reading.py [FILE.pdf ...]

Without files the demo PDFs are read. Both are run in turn several times and the best of each is compared, so that the
machine's other work matters little. Aim: at least a third of pdfium's own speed.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path

import pypdfium2 as pdfium

from yarnex.core.reading import read_document

ROUNDS = 7


def bare(path: Path) -> None:
    """The text of every page, and nothing else."""
    with pdfium.PdfDocument(path.read_bytes()) as pdf:
        for page in pdf:
            page.get_textpage().get_text_range()


def best(work: Callable[[Path], object], path: Path) -> float:
    times = []
    for _ in range(ROUNDS):
        began = time.perf_counter()
        work(path)
        times.append(time.perf_counter() - began)
    return min(times)


def main() -> None:
    named = [Path(a) for a in sys.argv[1:]]
    paths = named or [Path(str(f)) for f in (files("yarnex.demo") / "documents").iterdir() if f.name.endswith(".pdf")]
    print(f"{'file':32} {'pages':>5} {'read p/s':>9} {'bare p/s':>9} {'ratio':>6}")
    for path in sorted(paths):
        pages = len(pdfium.PdfDocument(path.read_bytes()))
        read, plain = best(read_document, path), best(bare, path)
        print(f"{path.name[:32]:32} {pages:5} {pages / read:9.0f} {pages / plain:9.0f} {plain / read:6.2f}")


if __name__ == "__main__":
    main()
