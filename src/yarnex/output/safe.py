"""Words of a document made safe to show: control and bidirectional characters cannot forge output."""

from __future__ import annotations

import re

from yarnex.core.patterns import pattern

FORGING = pattern("[\x00-\x08\x0b-\x1f\x7f-\x9f\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]")
FORMULA = pattern(r"[=+@\t\r|%-]")


def visible(text: str) -> str:
    """Control characters and those that change the direction of writing are shown as escapes."""
    return FORGING.sub(lambda m: f"\\u{ord(m.group()):04x}", text)


def no_formula(text: str) -> str:
    """A cell that a spreadsheet would run as a formula gets an apostrophe before it (CWE-1236); numbers stay as they are."""
    text = visible(text)
    if text and FORMULA.match(text.lstrip()) and not re.fullmatch(r"\s*[-+]?\d[\d.,]*\s*%?", text):
        return "'" + text
    return text
