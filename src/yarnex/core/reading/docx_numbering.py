"""numbering.xml -> the numbers that a word processor would print before each paragraph (ECMA-376 part 1, 17.9)."""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from lxml import etree

from yarnex.core.number_names import spelled
from yarnex.core.reading.docx_styles import Style
from yarnex.core.reading.layout.furniture import to_roman
from yarnex.core.reading.names import W, attribute, switched_on


@dataclass(slots=True)
class Level:
    form: str = "decimal"
    text: str = ""
    start: int = 1
    restart: int | None = None  # the level (from 1) after which it starts anew; None: after any higher one
    legal: bool = False  # all numbers in it shown as decimal


@dataclass(slots=True)
class Numbering:
    """Lists of a document and where their counters stand."""

    abstract_of: dict[str, str] = field(default_factory=dict)
    levels: dict[str, dict[int, Level]] = field(default_factory=dict)
    overrides: dict[str, dict[int, int]] = field(default_factory=dict)
    style_lists: dict[str, tuple[str, int]] = field(default_factory=dict)
    counters: dict[str, dict[int, int]] = field(default_factory=dict)
    begun: set[str] = field(default_factory=set)

    def next_number(self, paragraph: etree._Element, style: Style) -> tuple[str, int]:
        """The number printed before this paragraph ("" for none or a bullet) and its depth, 1 at the top.

        Counts the paragraph, so it must be called once for each, in order.
        """
        properties = paragraph.find(f"{W}pPr")
        own = properties.find(f"{W}numPr") if properties is not None else None
        list_id, depth = style.list_id, style.list_level
        if own is not None:
            named = attribute(own.find(f"{W}numId"), "val")
            list_id = named or list_id
            said = attribute(own.find(f"{W}ilvl"), "val")
            depth = int(said) if said.isdigit() else (depth if not named else 0)
        elif list_id and properties is not None:
            called = attribute(properties.find(f"{W}pStyle"), "val")
            linked = self.style_lists.get(called)
            if linked and linked[0] == self.abstract_of.get(list_id):
                depth = linked[1]
        abstract = self.abstract_of.get(list_id, "")
        levels = self.levels.get(abstract)
        if not list_id or list_id == "0" or levels is None or depth not in levels:
            return "", 0
        counters = self.counters.setdefault(abstract, {})
        if list_id not in self.begun:
            self.begun.add(list_id)
            for at, start in self.overrides.get(list_id, {}).items():
                counters[at] = start - 1
        counters[depth] = counters.get(depth, levels[depth].start - 1) + 1
        for deeper in [at for at in counters if at > depth]:
            limit = levels[deeper].restart if deeper in levels else None
            if limit is None or (limit != 0 and depth < limit):
                del counters[deeper]
        return self._shown(levels, counters, depth), depth + 1

    @staticmethod
    def _shown(levels: dict[int, Level], counters: dict[int, int], depth: int) -> str:
        level = levels[depth]
        if level.form in ("bullet", "none"):
            return ""

        def part(m: re.Match[str]) -> str:
            at = int(m[1]) - 1
            other = levels.get(at, Level())
            value = counters.get(at, other.start)
            return _formatted(value, "decimal" if level.legal and at != depth else other.form)

        return re.sub(r"%(\d)", part, level.text).strip().rstrip(".:")


def _formatted(value: int, form: str) -> str:
    if form == "lowerLetter":
        return chr(97 + (value - 1) % 26) * ((value - 1) // 26 + 1)
    if form == "upperLetter":
        return chr(65 + (value - 1) % 26) * ((value - 1) // 26 + 1)
    if form in ("lowerRoman", "upperRoman") and 0 < value < 400:
        return to_roman(value) if form == "lowerRoman" else to_roman(value).upper()
    if form == "decimalZero":
        return f"{value:02d}"
    if form in ("ordinalText", "cardinalText"):
        return spelled(value, ordinal=form == "ordinalText").capitalize() or str(value)
    return str(value)


def read_numbering(root: etree._Element | None) -> Numbering:
    """The lists of a package; none where numbering.xml is missing."""
    out = Numbering()
    if root is None:
        return out
    for abstract in root.iter(f"{W}abstractNum"):
        name = attribute(abstract, "abstractNumId")
        out.levels[name] = {}
        for level in abstract.findall(f"{W}lvl"):
            depth = int(attribute(level, "ilvl") or 0)
            restart = attribute(level.find(f"{W}lvlRestart"), "val")
            out.levels[name][depth] = Level(
                attribute(level.find(f"{W}numFmt"), "val") or "decimal",
                attribute(level.find(f"{W}lvlText"), "val"),
                int(attribute(level.find(f"{W}start"), "val") or 1),
                int(restart) if restart.isdigit() else None,
                switched_on(level.find(f"{W}isLgl")),
            )
            style = attribute(level.find(f"{W}pStyle"), "val")
            if style:
                out.style_lists[style] = (name, depth)
    for listed in root.findall(f"{W}num"):
        name = attribute(listed, "numId")
        out.abstract_of[name] = attribute(listed.find(f"{W}abstractNumId"), "val")
        for override in listed.findall(f"{W}lvlOverride"):
            start = attribute(override.find(f"{W}startOverride"), "val")
            if start.isdigit():
                out.overrides.setdefault(name, {})[int(attribute(override, "ilvl") or 0)] = int(start)
    return out
