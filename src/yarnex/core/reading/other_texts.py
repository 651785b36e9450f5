"""Formats read through another program or library into one that has a reader: RTF, and DOC by LibreOffice."""

from __future__ import annotations

import shutil
import subprocess
import tempfile
from dataclasses import replace
from pathlib import Path

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.structure import structure

OFFICE_SECONDS = 120


def read_rtf(data: bytes, path: str, sha256: str) -> Document:
    """The words of an RTF file; its tables come as cells in a row, its pages are not recorded."""
    from striprtf.striprtf import rtf_to_text

    from yarnex.core.reading.text import line_drafts

    if not data.lstrip().startswith(b"{\\rtf"):
        raise UnreadableError("not an RTF file", where=path, do="save it again")
    try:
        words = rtf_to_text(data.decode("latin-1"), encoding="cp1252", errors="replace")
    except (ValueError, KeyError, IndexError, TypeError, AttributeError, RecursionError, LookupError):
        raise UnreadableError(
            "not a complete RTF file", where=path, do="open it in a word processor and save it again"
        ) from None
    lines = [
        ("  " * 2).join(c.strip() for c in line.split("|")) if line.count("|") > 1 else line
        for line in words.split("\n")
    ]
    spaced = [
        line for one in lines for line in ((one, "") if len(one) > 90 else (one,))
    ]  # a paragraph is one line of RTF
    problem = Problem("read without its pages and looks, which RTF does not give", serious=False)
    return assemble(structure(line_drafts(spaced)), path=path, format="rtf", sha256=sha256, problems=[problem])


def read_doc(data: bytes, path: str, sha256: str) -> Document:
    """A Word 97 file, turned into .docx by LibreOffice where that is installed."""
    from yarnex.core.reading.docx import read_docx

    program = shutil.which("soffice") or shutil.which("libreoffice")
    if program is None:
        raise UnreadableError(
            "the old Word format (.doc)", where=path, do="install LibreOffice, or save it as .docx in a word processor"
        )
    with tempfile.TemporaryDirectory(prefix="yarnex-") as folder:
        source = Path(folder) / "in.doc"
        source.write_bytes(data)
        command = [
            program,
            "--headless",
            "--norestore",
            f"-env:UserInstallation=file://{folder}/profile",
            "--convert-to",
            "docx",
            "--outdir",
            folder,
            str(source),
        ]
        try:
            subprocess.run(command, capture_output=True, timeout=OFFICE_SECONDS, check=False)
            made = (Path(folder) / "in.docx").read_bytes()
        except (OSError, subprocess.TimeoutExpired):
            raise UnreadableError(
                "LibreOffice could not open it", where=path, do="save it as .docx in a word processor"
            ) from None
    document = read_docx(made, path, sha256)
    said = Problem("turned into .docx by LibreOffice to be read", serious=False)
    return replace(document, format="doc", problems=(*document.problems, said))
