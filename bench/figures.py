"""Figures, dates, duties and costs: how long each takes beside reading the same file.

    python bench/figures.py [FILE …]

Each FILE (the demo's annual report and lease without any) is read, then asked for its figures, for the checks on them, for
its dates, duties and costs. Times are medians of five runs in one process, given as shares of bare text extraction and of
reading, so that they mean something on any machine.
"""

from __future__ import annotations

import statistics
import sys
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path

import pypdfium2 as pdfium

import yarnex
from yarnex.core.reading import read_document

RUNS = 5


def median(make: Callable[[], object], work: Callable[[object], object]) -> float:
    """Seconds of work, the median of RUNS after one that warms up, each on what `make` makes anew: nothing is kept from one to the next."""
    times = []
    for _ in range(RUNS + 1):
        made = make()
        began = time.perf_counter()
        work(made)
        times.append(time.perf_counter() - began)
    return statistics.median(times[1:])


def bare(path: Path) -> None:
    with pdfium.PdfDocument(path.read_bytes()) as pdf:
        for page in pdf:
            page.get_textpage().get_text_range()


def main() -> None:
    shipped = Path(str(files("yarnex.demo") / "documents"))
    paths = [Path(p) for p in sys.argv[1:]] or [shipped / "annual-report-2026.pdf", shipped / "canal-works.pdf"]
    for path in paths:
        pages = len(read_document(path).pages)
        print(f"{path.name}: {pages} pages")
        reading = median(lambda p=path: p, read_document)
        if path.suffix.lower() == ".pdf":
            print(f"  {'reading':<22} {reading / median(lambda p=path: p, bare):8.2f} x bare text extraction")
        for name, work in (
            ("figures", yarnex.figures),
            ("figures with checks", lambda d: yarnex.check_figures([d])),
            ("dates", lambda d: yarnex.dates([d])),
            ("duties", yarnex.duties),
            ("costs", lambda d: yarnex.costs([d])),
        ):
            took = median(lambda p=path: read_document(p), work)
            print(f"  {name:<22} {took / reading:8.2f} x reading   {pages / took:8.0f} pages a second")


if __name__ == "__main__":
    main()
