"""The demo documents: one made-up scenario, Brackenfold Mills choosing new premises."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path

PREMISES = ("canal-works.pdf", "canal-works-amendment.docx", "fellgate-park.docx", "northbridge-yard.pdf")
REPORTS = ("annual-report-2026.pdf", "half-year-report-2025.pdf")
CLAIM = ("incident-report.txt", "claim-mail.eml", "flood-bills.pdf", "claim-statement.pdf")
CONTRACTS = ("aire-facility.docx", "fleece-supply.docx")


def copy_documents(folder: Path, names: tuple[str, ...] = PREMISES) -> list[Path]:
    """Copy demo documents into a folder, which is made: those on the premises, or CONTRACTS, REPORTS, CLAIM. Returns their paths."""
    folder.mkdir(parents=True, exist_ok=True)
    out = []
    for name in names:
        path = folder / name
        path.write_bytes((files("yarnex.demo") / "documents" / name).read_bytes())
        out.append(path)
    return out
