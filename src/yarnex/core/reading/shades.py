"""Colours in plain words: reports code cells by colour, and a person must be able to read which."""

from __future__ import annotations

import colorsys
import re

NAMED = {
    "white": (255, 255, 255), "black": (0, 0, 0), "red": (255, 0, 0), "green": (0, 128, 0), "lime": (0, 255, 0), "blue": (0, 0, 255),
    "yellow": (255, 255, 0), "orange": (255, 165, 0), "amber": (255, 191, 0), "grey": (128, 128, 128), "gray": (128, 128, 128),
    "lightgrey": (211, 211, 211), "lightgray": (211, 211, 211), "silver": (192, 192, 192), "pink": (255, 192, 203), "purple": (128, 0, 128),
    "lightgreen": (144, 238, 144), "lightblue": (173, 216, 230), "lightyellow": (255, 255, 224), "navy": (0, 0, 128), "teal": (0, 128, 128),
    "brown": (165, 42, 42), "gold": (255, 215, 0),
}  # fmt: skip
HUES = (
    (15, "red"),
    (48, "orange"),
    (70, "yellow"),
    (165, "green"),
    (200, "turquoise"),
    (255, "blue"),
    (290, "purple"),
    (345, "pink"),
    (361, "red"),
)


def parse_colour(said: str) -> tuple[int, int, int] | None:
    """A colour as style sheets and office files write it; None where it is none, or transparent.

    >>> parse_colour("#ff8000")
    (255, 128, 0)
    """
    text = said.strip().lower().split("!")[0].strip()
    if m := re.match(r"#?([0-9a-f]{6})(?:[0-9a-f]{2})?\Z", text):
        return int(m[1][:2], 16), int(m[1][2:4], 16), int(m[1][4:], 16)
    if m := re.match(r"#([0-9a-f])([0-9a-f])([0-9a-f])\Z", text):
        return int(m[1] * 2, 16), int(m[2] * 2, 16), int(m[3] * 2, 16)
    if m := re.match(r"rgba?\(\s*(\d{1,3})\s*,\s*(\d{1,3})\s*,\s*(\d{1,3})\s*(?:,\s*([\d.]+)\s*)?\)", text):
        if m[4] is not None and m[4].strip(".0") == "":
            return None
        return min(255, int(m[1])), min(255, int(m[2])), min(255, int(m[3]))
    return NAMED.get(text.split(" ")[0])


def colour_name(colour: tuple[int, int, int]) -> str:
    """A colour in plain words, "" for white and what the eye takes for it.

    >>> colour_name((198, 239, 206))
    'light green'
    """
    hue, light, rich = colorsys.rgb_to_hls(*(c / 255 for c in colour))
    if light > 0.97:
        return ""
    if max(colour) - min(colour) < 24 or rich < 0.12:
        return "black" if light < 0.12 else "dark grey" if light < 0.4 else "grey" if light < 0.75 else "light grey"
    name = next(n for limit, n in HUES if hue * 360 < limit)
    if name == "orange" and light < 0.35:
        return "brown"
    return f"light {name}" if light > 0.7 else f"dark {name}" if light < 0.28 else name
