"""The demo documents: one made-up scenario, Brackenfold Mills choosing new premises."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path

DOCUMENTS = ("canal-works.pdf", "canal-works-amendment.docx", "fellgate-park.docx", "northbridge-yard.pdf")


def copy_documents(folder: Path) -> list[Path]:
    """Copy the demo documents into a folder, which is made. Returns their paths."""
    folder.mkdir(parents=True, exist_ok=True)
    out = []
    for name in DOCUMENTS:
        path = folder / name
        path.write_bytes((files("yarnex.demo") / "documents" / name).read_bytes())
        out.append(path)
    return out
