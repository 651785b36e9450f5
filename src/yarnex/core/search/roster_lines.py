"""Lists in running text: "(1) fire; (2) flood; and (3) theft", and names parted by semicolons behind a colon.

In: a paragraph and where it begins. Out: the places of its items, in order, each with its number or letter.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

from yarnex.core.document import Span
from yarnex.core.patterns import pattern

MARKER = pattern(r"(?<![\w.])\((?P<mark>\d{1,2}|[a-z]|[ivx]{2,5})\)\s*")
ROMAN = ("i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x", "xi", "xii", "xiii", "xiv", "xv")
TAIL = pattern(r"[\s,;]*(?:\b(?:and|or)\b)?[\s,;]*\Z")
STOP = pattern(r"\.(?=\s+[A-Z(“\"]|\s*\Z)")
BEHIND_COLON = pattern(r":\s+(?P<rest>[^:]+?)(?:\.(?=\s+[A-Z(]|\s*\Z)|\Z)", re.DOTALL)
LEADING = pattern(r"\s*(?:(?:and|or)\s+)?")
FEWEST = 3
LONGEST_PART = 120  # characters of a part behind a colon that is still a name with a word or two


def numbered_items(words: str) -> list[tuple[str, Span]]:
    """The items of the longest list in some words whose marks count on from (1), (a) or (i), with their marks; [] for under three.

    Places are counted from the start of the words. The last item ends with its sentence.
    """
    best: list[tuple[str, Span]] = []
    markers = list(MARKER.finditer(words))
    for place, first in enumerate(markers):
        for count in _ways_to_count(first["mark"]):
            run = _run(markers[place:], count)
            if len(run) >= max(FEWEST, len(best) + 1):
                best = _items(words, run)
    return best


def parts_behind_colon(words: str) -> list[Span]:
    """The short parts, with semicolons between them, behind a colon; [] for fewer than three or where one is long."""
    m = BEHIND_COLON.search(words)
    if m is None or m["rest"].count(";") < FEWEST - 1 or MARKER.search(m["rest"]):
        return []
    out: list[Span] = []
    at = m.start("rest")
    for part in m["rest"].split(";"):
        lead = LEADING.match(part)
        start = at + (lead.end() if lead else 0)
        end = at + len(part.rstrip(" .\n"))
        if end - start > LONGEST_PART:
            return []
        if end > start:
            out.append(Span(start, end))
        at += len(part) + 1
    return out if len(out) >= FEWEST else []


def _ways_to_count(mark: str) -> list[Sequence[str]]:
    """The rows of marks that may begin with this one: numbers, letters, Roman numerals."""
    if mark == "1":
        return [[str(n) for n in range(1, 100)]]
    if mark == "a":
        return [[chr(c) for c in range(ord("a"), ord("z") + 1)]]
    return [ROMAN] if mark == "i" else []


def _run(markers: Sequence[re.Match[str]], count: Sequence[str]) -> list[re.Match[str]]:
    """The markers that count on, each the next one; those of a list inside an item are passed over."""
    out: list[re.Match[str]] = []
    for marker in markers:
        if len(out) < len(count) and marker["mark"] == count[len(out)]:
            out.append(marker)
    return out


def _items(words: str, run: Sequence[re.Match[str]]) -> list[tuple[str, Span]]:
    out: list[tuple[str, Span]] = []
    ends = [m.start() for m in run[1:]]
    stop = STOP.search(words, run[-1].end())
    for marker, end in zip(run, [*ends, stop.start() if stop else len(words)], strict=True):
        tail = TAIL.search(words[marker.end() : end])
        out.append((marker["mark"], Span(marker.end(), marker.end() + (tail.start() if tail else end - marker.end()))))
    return out
