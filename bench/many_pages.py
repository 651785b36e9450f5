"""A PDF of 1,000 pages and a folder of 1,000 papers: pages a second, memory, and the same again from the store.

    python bench/many_pages.py [FILE.pdf]

The long PDF is put together from the pages of FILE.pdf (a demo lease without one). Measured in one run, so that the
ratios mean something on any machine: bare text extraction by pdfium; reading in one process; two such files in two
processes; the file again from the store; 1,000 small papers read, and again from the store.
"""

from __future__ import annotations

import io
import resource
import sys
import tempfile
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path

import pikepdf
import pypdfium2 as pdfium

from yarnex.core.binder import Store, read_kept
from yarnex.core.reading import ReadOptions
from yarnex.core.reading.pool import read_many

PAGES = 1000
PAPERS = 1000


def long_pdf(source: Path) -> bytes:
    """A PDF of 1,000 pages made of the pages of another."""
    with pikepdf.open(source) as old, pikepdf.new() as new:
        while len(new.pages) < PAGES:
            new.pages.extend(old.pages[: PAGES - len(new.pages)])
        out = io.BytesIO()
        new.save(out)
    return out.getvalue()


def timed(work: Callable[[], object]) -> float:
    began = time.perf_counter()
    work()
    return time.perf_counter() - began


def bare(path: Path) -> None:
    with pdfium.PdfDocument(path.read_bytes()) as pdf:
        for page in pdf:
            page.get_textpage().get_text_range()


def main() -> None:
    source = (
        Path(sys.argv[1]) if len(sys.argv) > 1 else Path(str(files("yarnex.demo") / "documents" / "canal-works.pdf"))
    )
    options = ReadOptions(scans="skip")
    with tempfile.TemporaryDirectory() as folder:
        here = Path(folder)
        data = long_pdf(source)
        for name in ("a.pdf", "b.pdf"):
            (here / name).write_bytes(data + b"\n%" + name.encode())
        both = [(here / n).as_posix() for n in ("a.pdf", "b.pdf")]
        plain = min(timed(lambda: bare(here / "a.pdf")) for _ in range(3))
        one = timed(lambda: list(read_many(both[:1], options, processes=1)))
        peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
        two = timed(lambda: list(read_many(both, options, processes=2)))
        store = Store(here / "store.sqlite", print)
        list(read_kept(both[:1], options, store))
        again = timed(lambda: list(read_kept(both[:1], options, store)))
        print(f"{PAGES} pages         pages/s   against bare pdfium")
        for label, pages, seconds in (
            ("bare pdfium text", PAGES, plain),
            ("read, one process", PAGES, one),
            ("two files, two processes", 2 * PAGES, two),
            ("again from the store", PAGES, again),
        ):
            print(f"{label:25} {pages / seconds:9.0f} {plain / seconds * pages / PAGES:9.2f}")
        print(f"peak memory of a reading process: {peak:.0f} MB")
        papers = []
        for i in range(PAPERS):
            path = here / f"paper-{i:04d}.txt"
            path.write_text(
                f"LEASE {i}\n\n"
                + "\n\n".join(
                    f"{n}. The Tenant shall keep unit {i}.{n} in repair and pay £{i},{n:03d} a year."
                    for n in range(1, 40)
                )
            )
            papers.append(path.as_posix())
        first = timed(lambda: list(read_kept(papers, options, store)))
        second = timed(lambda: list(read_kept(papers, options, store)))
        print(
            f"{PAPERS} papers: {first / PAPERS * 100:.2f} s a hundred; again from the store {second / PAPERS * 100:.3f} s a hundred"
        )
        store.close()


if __name__ == "__main__":
    main()
