"""What all tests share: small documents made on the spot, and the installed program run as a user would."""

from __future__ import annotations

import io
import os
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from hypothesis import settings

from yarnex.core.document import Document
from yarnex.core.reading.text import read_text
from yarnex.demo import copy_documents

# The first call of a property loads packs, and machines differ: no test is judged by the clock.
settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")

PROGRAM = Path(sys.executable).parent / "yarnex"


@pytest.fixture(scope="session")
def premises(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The folder of demo documents."""
    folder = tmp_path_factory.mktemp("demo") / "premises"
    copy_documents(folder)
    return folder


@pytest.fixture
def document() -> Callable[[str], Document]:
    """A document from the words of a contract."""

    def make(text: str, name: str = "paper.txt") -> Document:
        return read_text(text.encode(), name, "0" * 64, markdown=name.endswith(".md"))

    return make


@pytest.fixture(scope="session", autouse=True)
def own_cache(tmp_path_factory: pytest.TempPathFactory) -> Iterator[None]:
    """What the tests keep between runs is kept apart from what the user's runs keep."""
    with pytest.MonkeyPatch.context() as patch:
        patch.setenv("YARNEX_CACHE", str(tmp_path_factory.mktemp("cache")))
        yield


@pytest.fixture(scope="session")
def compiled(tmp_path_factory: pytest.TempPathFactory) -> dict[str, str]:
    """What lets runs of the program share their compiled modules, as those of an installed one do."""
    return {"PYTHONDONTWRITEBYTECODE": "", "PYTHONPYCACHEPREFIX": str(tmp_path_factory.mktemp("compiled"))}


@pytest.fixture
def yarnex(tmp_path: Path, compiled: dict[str, str]) -> Callable[..., subprocess.CompletedProcess[str]]:
    """The installed program, run in a temporary folder."""

    def run(*arguments: object, cwd: Path | None = None, **options: object) -> subprocess.CompletedProcess[str]:
        environment = options.pop("env", os.environ) | compiled | {"YARNEX_CACHE": str(tmp_path / ".cache")}
        return subprocess.run(
            [str(PROGRAM), *map(str, arguments)],
            cwd=cwd or tmp_path,
            capture_output=True,
            text=True,
            timeout=120,
            env=environment,
            **options,
        )

    return run


@pytest.fixture
def pdf() -> Callable[..., bytes]:
    """A PDF whose pages are drawn by functions that take a reportlab canvas."""
    from reportlab.pdfgen.canvas import Canvas

    def make(*pages: Callable[[Canvas], None], **options: object) -> bytes:
        buffer = io.BytesIO()
        canvas = Canvas(buffer, pagesize=(595, 842), invariant=1, **options)
        for draw in pages:
            canvas.setFont("Times-Roman", 11)
            draw(canvas)
            canvas.showPage()
        canvas.save()
        return buffer.getvalue()

    return make
