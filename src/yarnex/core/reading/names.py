"""Names in WordprocessingML (ECMA-376): the one namespace that the Word reader needs."""

from __future__ import annotations

from lxml import etree

W = "{http://schemas.openxmlformats.org/wordprocessingml/2006/main}"


def attribute(element: etree._Element | None, name: str) -> str:
    """The w: attribute of an element, "" where it or the element is missing."""
    return (element.get(f"{W}{name}") or "") if element is not None else ""


def local_name(element: etree._Element) -> str:
    """The element's name without its namespace."""
    tag = element.tag
    return tag.rsplit("}", 1)[-1] if isinstance(tag, str) else ""


def switched_on(element: etree._Element | None) -> bool:
    """The value of an on/off property: present and not "0", "false" or "off" (ECMA-376 part 1, 17.17.4)."""
    return element is not None and attribute(element, "val").lower() not in ("0", "false", "off", "none")
