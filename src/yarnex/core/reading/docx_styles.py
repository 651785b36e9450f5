"""styles.xml -> what the reader needs of each paragraph style: bold, heading level, list numbering."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace

from lxml import etree

from yarnex.core.reading.names import W, attribute, switched_on


@dataclass(frozen=True, slots=True)
class Style:
    bold: bool = False
    heading_level: int = 0  # 1 to 9; 0 for text
    list_id: str = ""
    list_level: int = 0


@dataclass(slots=True)
class Styles:
    """Paragraph and character styles by id, with what they are based on worked in."""

    paragraph: dict[str, Style] = field(default_factory=dict)
    bold_characters: frozenset[str] = frozenset()
    default: str = ""

    def of(self, paragraph: etree._Element) -> Style:
        """The style of a paragraph with its own outline level put in."""
        properties = paragraph.find(f"{W}pPr")
        name = attribute(properties.find(f"{W}pStyle"), "val") if properties is not None else ""
        style = self.paragraph.get(name or self.default, Style())
        own = properties.find(f"{W}outlineLvl") if properties is not None else None
        if own is not None and attribute(own, "val").isdigit() and int(attribute(own, "val")) < 9:
            return replace(style, heading_level=int(attribute(own, "val")) + 1)
        return style

    def run_bold(self, run: etree._Element, inherited: bool) -> bool:
        """Whether a run is set in bold."""
        properties = run.find(f"{W}rPr")
        if properties is None:
            return inherited
        own = properties.find(f"{W}b")
        if own is not None:
            return switched_on(own)
        return inherited or attribute(properties.find(f"{W}rStyle"), "val") in self.bold_characters


def read_styles(root: etree._Element | None) -> Styles:
    """The styles of a package; none at all where styles.xml is missing."""
    out = Styles()
    if root is None:
        return out
    raw = {attribute(s, "styleId"): s for s in root.iter(f"{W}style")}
    out.bold_characters = frozenset(
        name for name, s in raw.items() if attribute(s, "type") == "character" and switched_on(s.find(f"{W}rPr/{W}b"))
    )

    def resolve(name: str, depth: int = 0) -> Style:
        element = raw.get(name)
        if element is None or depth > 20:
            return Style()
        style = resolve(attribute(element.find(f"{W}basedOn"), "val"), depth + 1)
        bold = element.find(f"{W}rPr/{W}b")
        if bold is not None:
            style = replace(style, bold=switched_on(bold))
        level = element.find(f"{W}pPr/{W}outlineLvl")
        called = re.fullmatch(r"heading (\d)", attribute(element.find(f"{W}name"), "val").lower())
        if level is not None and attribute(level, "val").isdigit():
            value = int(attribute(level, "val"))
            style = replace(style, heading_level=value + 1 if value < 9 else 0)
        elif called:
            style = replace(style, heading_level=int(called[1]))
        elif attribute(element.find(f"{W}name"), "val").lower() == "title":
            style = replace(style, heading_level=1)
        numbered = element.find(f"{W}pPr/{W}numPr")
        if numbered is not None:
            listed = attribute(numbered.find(f"{W}numId"), "val") or style.list_id
            depth_said = attribute(numbered.find(f"{W}ilvl"), "val")
            style = replace(style, list_id=listed, list_level=int(depth_said or 0))
        return style

    for name, element in raw.items():
        if attribute(element, "type") == "paragraph":
            out.paragraph[name] = resolve(name)
            if attribute(element, "default") in ("1", "true"):
                out.default = name
    return out
