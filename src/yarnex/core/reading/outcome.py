"""What reading one file gives: a document, or the reason why there is none."""

from __future__ import annotations

from dataclasses import dataclass

from yarnex.core.document import Document
from yarnex.core.errors import UnreadableError


@dataclass(frozen=True, slots=True)
class Reading:
    """The outcome for one document: read, or why not. path: where it is, inside its archive or mail too."""

    path: str
    document: Document | None
    error: UnreadableError | None = None
