"""The demo documents: one made-up scenario, Brackenfold Mills choosing new premises."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path

PREMISES = ("canal-works.pdf", "canal-works-amendment.docx", "fellgate-park.docx", "northbridge-yard.pdf")
CONTRACTS = ("aire-facility.docx", "fleece-supply.docx")


def copy_documents(folder: Path, names: tuple[str, ...] = PREMISES) -> list[Path]:
    """Copy demo documents into a folder, which is made: those on the premises, or CONTRACTS. Returns their paths."""
    folder.mkdir(parents=True, exist_ok=True)
    out = []
    for name in names:
        path = folder / name
        path.write_bytes((files("yarnex.demo") / "documents" / name).read_bytes())
        out.append(path)
    return out
