"""Boxes of forms: which of the options that they stand beside are ticked."""

from __future__ import annotations

import re
from dataclasses import dataclass

from yarnex.core.document import Span
from yarnex.core.patterns import pattern

_box = pattern(r"(?P<on>[☒☑☓✓✔■◼⬛]|\[\s?[xX✓✔]\s?\])|(?P<off>[☐□▢◻⬜]|\[\s?\])")
_yes = pattern(r"(?:yes|y|true)\b", re.IGNORECASE)
_no = pattern(r"(?:no|n|false)\b", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Option:
    """An option beside a box; its span holds the words alone and may be empty for a box without words."""

    span: Span
    ticked: bool


def find_options(text: str) -> tuple[Option, ...]:
    """The options of a line or cell with boxes, left to right: "☒ Yes ☐ No". No boxes: none.

    Boxes stand after their words where the text ends with one, else before them.
    """
    boxes = list(_box.finditer(text))
    if not boxes:
        return ()
    before = bool(text[boxes[-1].end() :].strip()) or (len(boxes) == 1 and not text[: boxes[0].start()].strip())
    ends = [b.start() for b in boxes[1:]] + [len(text)]
    starts = [0] + [b.end() for b in boxes[:-1]]
    out = []
    for box, start, end in zip(boxes, starts, ends, strict=True):
        first, last = (box.end(), end) if before else (start, box.start())
        words = text[first:last]
        first += len(words) - len(words.lstrip(" :,;/"))
        last = max(first, first + len(text[first:last].rstrip(" ,;/")))
        out.append(Option(Span(first, last), box["on"] is not None))
    return tuple(out)


def ticked_answer(text: str) -> bool | None:
    """What a yes-or-no form says: True or False for the one that is ticked, or for a lone box; None where it is open."""
    options = find_options(text)
    on = [o.span.of(text) for o in options if o.ticked]
    if len(options) == 1 and not options[0].span.of(text):
        return bool(on)
    if len(on) != 1:
        return None
    return True if _yes.match(on[0]) else False if _no.match(on[0]) else None
