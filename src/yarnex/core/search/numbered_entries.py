"""Entries that a paper numbers through, in whatever style each stands: "Site 4 – Mill Lane", "07 Weir Yard. …", "Low Shed (site 12)"."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.search.roster_model import RosterItem, RosterOffer
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.passages import Passages
from yarnex.core.words import stems_of

FEWEST, MOST_MISSING = 5, 0.2  # entries, and the share of the numbers up to the last that may be missing
_name = r"[A-Z][\w’'&-]*(?:[ \u00a0](?:[A-Z][\w’'&-]*|of|the|and|on|upon)){0,5}"
_opening = pattern(rf"0?(?P<number>\d{{1,3}})[.)]?\s+(?P<name>{_name})[.:]\s")


def numbered_entries(passages: Passages, of: str) -> RosterOffer | None:
    """All entries that carry a number and the word asked for, or open a paragraph of the same series; by number, once each.

    of: what is listed, "numbered sites"; its last word is the one that stands beside the numbers. None where the numbers
    do not run on from one, or are few.
    """
    noun = re.findall(r"[A-Za-z]+", of)[-1:] or [""]
    one = re.sub(r"(?<=[^s])s\Z", "", noun[0].lower())
    if len(one) < 3:
        return None
    one = f"(?i:{one})"
    found: dict[int, tuple[str, Span]] = {}
    named = 0
    for form in (
        rf"\b{one}\s+(?P<number>\d{{1,3}}),\s+(?P<name>{_name}),",
        rf"\b{one}\s+(?P<number>\d{{1,3}})\s*[–—:-]\s*(?P<name>{_name})",
        rf"(?P<name>{_name})\s+\(\s*{one}\s+(?P<number>\d{{1,3}})\)",
    ):
        for m in re.finditer(form, passages.text):
            number = int(m["number"])
            if number not in found:
                found[number] = m["name"].strip(" ."), Span(*m.span())
                named += 1
    if named < 2:
        return None  # nothing shows that the numbers are those of what is asked for
    for number, name, span in _openings(passages):
        known = found.setdefault(number, (name, span))
        if known[0].lower() == name.lower() and span.start < known[1].start:
            found[number] = name, span
    numbers = sorted(found)
    if len(numbers) < FEWEST or len(numbers) < (1 - MOST_MISSING) * numbers[-1]:
        return None
    document = passages.document
    items = [RosterItem(on_one_line(found[n][0]), (Cite(document, found[n][1]),), str(n)) for n in numbers]
    return RosterOffer(1.3, f"the entries numbered as {noun[0].lower()}", items)


def _openings(passages: Passages) -> Iterator[tuple[int, str, Span]]:
    """Paragraphs that open with a number and a name, where their numbers rise through the paper."""
    last = 0
    for _, block in passages.blocks:
        m = _opening.match(block.span.of(passages.text)) if block.kind != "table" else None
        if m is not None and int(m["number"]) > last and stems_of(m["name"]):
            last = int(m["number"])
            yield last, m["name"], Span(block.span.start, block.span.start + m.end("name"))
