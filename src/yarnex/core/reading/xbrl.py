"""Inline XBRL 1.1 in a page -> tagged facts, with context, unit, scale, sign, format, nesting and continuation.

Only what is tagged is kept; what the numbers mean is left to the stage that reads figures. XBRL 2.1 contexts and
units are read from ix:resources. Nothing outside the page (schemas, label files) is opened.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from lxml import etree

from yarnex.core.document import Document, Span, TaggedFact

IX = "http://www.xbrl.org/2013/inlineXBRL"
XBRLI = "http://www.xbrl.org/2003/instance"
XBRLDI = "http://xbrl.org/2006/xbrldi"
NIL = "{http://www.w3.org/2001/XMLSchema-instance}nil"
FACTS = ("nonFraction", "nonNumeric", "fraction")


@dataclass(frozen=True, slots=True)
class Context:
    entity: str
    start: str
    end: str
    dimensions: tuple[tuple[str, str], ...]


def _text(element: etree._Element | None) -> str:
    return " ".join("".join(str(t) for t in element.itertext()).split()) if element is not None else ""


def _contexts(root: etree._Element) -> dict[str, Context]:
    out = {}
    for item in root.iter(f"{{{XBRLI}}}context"):
        end = _text(item.find(f".//{{{XBRLI}}}instant")) or _text(item.find(f".//{{{XBRLI}}}endDate"))
        dimensions = tuple(
            (member.get("dimension") or "", _text(member))
            for kind in ("explicitMember", "typedMember")
            for member in item.iter(f"{{{XBRLDI}}}{kind}")
        )
        out[item.get("id") or ""] = Context(
            _text(item.find(f".//{{{XBRLI}}}identifier")), _text(item.find(f".//{{{XBRLI}}}startDate")), end, dimensions
        )
    return out


def _units(root: etree._Element) -> dict[str, str]:
    """Units by id: "iso4217:GBP", or "iso4217:GBP/xbrli:shares" for a ratio."""
    out = {}
    for item in root.iter(f"{{{XBRLI}}}unit"):
        over = item.find(f".//{{{XBRLI}}}unitDenominator")
        parts = [_text(m) for m in item.iter(f"{{{XBRLI}}}measure") if over is None or over not in m.iterancestors()]
        under = [_text(m) for m in over.iter(f"{{{XBRLI}}}measure")] if over is not None else []
        out[item.get("id") or ""] = "*".join(parts) + ("/" + "*".join(under) if under else "")
    return out


@dataclass(slots=True)
class InlineXbrl:
    """The tagged facts of one page; `key_of` names an element while the page is read, `facts` gives the result."""

    root: etree._Element
    keys: dict[etree._Element, str] = field(default_factory=dict)

    def key_of(self, element: etree._Element) -> str:
        """A name for a tagged element, kept as a mark on the words that it covers."""
        return self.keys.setdefault(element, str(len(self.keys)))

    def facts(self, document: Document) -> list[TaggedFact]:
        """All facts of the page in its order; spans are those of the marks set while reading."""
        spans: dict[str, Span] = {}
        for mark in document.marks:
            if mark.kind == "tagged":
                known = spans.get(mark.value)
                spans[mark.value] = (
                    Span(min(known.start, mark.span.start), max(known.end, mark.span.end)) if known else mark.span
                )
        contexts, units = _contexts(self.root), _units(self.root)
        rest = {e.get("id") or "": e for e in self.root.iter(f"{{{IX}}}continuation")}
        out = []
        for element in self.root.iter(*(f"{{{IX}}}{kind}" for kind in FACTS)):
            context = contexts.get(element.get("contextRef") or "", Context("", "", "", ()))
            scale = element.get("scale") or "0"
            outer = next((a for a in element.iterancestors(*(f"{{{IX}}}{kind}" for kind in FACTS))), None)
            out.append(
                TaggedFact(
                    concept=element.get("name") or "", printed=_printed(element, rest), span=spans.get(self.keys.get(element, "")),
                    numeric=not element.tag.endswith("nonNumeric"), entity=context.entity, start=context.start, end=context.end,
                    dimensions=context.dimensions, unit=units.get(element.get("unitRef") or "", ""),
                    scale=int(scale) if scale.lstrip("+-").isdigit() and len(scale) < 4 else 0, negative=element.get("sign") == "-",
                    format=element.get("format") or "", decimals=element.get("decimals") or "", nil=element.get(NIL) in ("true", "1"),
                    hidden=next(element.iterancestors(f"{{{IX}}}hidden"), None) is not None, identity=element.get("id") or "",
                    inside=(outer.get("id") or outer.get("name") or "") if outer is not None else "",
                )
            )  # fmt: skip
        return out


def _printed(element: etree._Element, rest: dict[str, etree._Element]) -> str:
    """The words of a fact with its continuations (ix:exclude left out)."""
    parts: list[str] = []
    seen: set[str] = set()
    here: etree._Element | None = element
    while here is not None:
        parts.append(" ".join("".join(_pieces(here)).split()))
        following = here.get("continuedAt") or ""
        if following in seen:
            break
        seen.add(following)
        here = rest.get(following)
    return " ".join(p for p in parts if p)


def _pieces(element: etree._Element) -> list[str]:
    out = [element.text or ""]
    for child in element:
        if child.tag != f"{{{IX}}}exclude":
            out += _pieces(child)
        out.append(child.tail or "")
    return out
