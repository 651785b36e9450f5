"""All dated items of documents, in order, each once; what a later paper changed is marked."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from yarnex.core.dates.anchors import Anchors
from yarnex.core.dates.chronology import events_of, is_record
from yarnex.core.dates.model import DatedItem
from yarnex.core.dates.relative import relative_items
from yarnex.core.dates.standing import standing_items
from yarnex.core.dates.stated import stated_items, term_items
from yarnex.core.document import Cite, Document
from yarnex.core.patterns import pattern
from yarnex.core.terms.abstract import Abstract, abstract_all
from yarnex.core.terms.identity import identify
from yarnex.core.values import DateValue, Duration
from yarnex.core.values.dates import MONTHS
from yarnex.core.words import stems_of

MOST_CITES = 8
DAY_WORDS = pattern(
    r"\d+(?::\d+)?|\b(?:date[ds]?|day|"
    + "|".join([*MONTHS, "monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"])
    + r")\b",
    re.IGNORECASE,
)


def dates_of(document: Document) -> tuple[DatedItem, ...]:
    """The dated items of one document, by day; rules without a day last."""
    return dates_of_all([document])


def dates_of_all(documents: Sequence[Document]) -> tuple[DatedItem, ...]:
    """The dated items of all documents, by day. Amendments among them are laid over what they amend."""
    filled = abstract_all(documents)
    out: list[DatedItem] = []
    for item in filled:
        out += _of_document(item)
    out = _superseded(out, filled)
    return tuple(sorted(out, key=_order))


def _of_document(filled: Abstract) -> list[DatedItem]:
    anchors = Anchors(filled)
    if is_record(identify(filled.document).kind):
        found = [*events_of(anchors.passages), *relative_items(anchors)]
        return merged(found)
    own = [i for i in term_items(anchors) if i.cites[0].document is filled.document]
    return merged([*own, *stated_items(anchors), *relative_items(anchors), *standing_items(anchors)])


def merged(items: Sequence[DatedItem]) -> list[DatedItem]:
    """One item for each thing on a day: several mentions of it become cites of the best of them."""
    out: list[DatedItem] = []
    for item in sorted(items, key=lambda i: (-i.weight, i.state == "rule", i.cites[0].span.start)):
        place = next((n for n, held in enumerate(out) if _same(held, item)), None)
        if place is None:
            out.append(item)
        else:
            held = out[place]
            cites = list(held.cites)
            for cite in item.cites:
                if len(cites) < MOST_CITES and all(
                    c.document is not cite.document or not c.span.overlaps(cite.span) for c in cites
                ):
                    cites.append(cite)
            out[place] = replace(
                held,
                cites=tuple(cites),
                time=held.time or item.time,
                working=held.working or item.working,
                who=held.who or item.who,
            )
    return out


def _same(held: DatedItem, item: DatedItem) -> bool:
    if held.document is not item.document or held.day != item.day or held.precision != item.precision:
        return False
    if held.day is None:
        return held.cites[0].span.overlaps(item.cites[0].span) and held.what == item.what
    if held.time and item.time and held.time != item.time:
        return False
    if held.cites[0].span.overlaps(item.cites[0].span):
        return held.what == item.what or (
            held.state == item.state
            or "computed" not in (held.state, item.state)
            or held.weight >= 3
            or held.cites[0].span == item.cites[0].span
        )
    if held.state == "computed" or item.state == "computed":
        return held.weight >= 3 and item.kind == held.kind and item.state == "computed"
    alike = _likeness(held.what, item.what) >= 0.5
    return (
        alike
        or (item.kind == "mention")
        or (held.weight >= 2 and item.weight == 1 and item.kind == held.kind != "event")
    )


def _likeness(one: str, other: str) -> float:
    a, b = (set(stems_of(DAY_WORDS.sub(" ", words))) for words in (one, other))
    return len(a & b) / max(3, min(len(a), len(b)))


def _superseded(items: list[DatedItem], filled: Sequence[Abstract]) -> list[DatedItem]:
    """Days of clauses that an amendment replaced are kept, and marked; so are days counted by a length that it changed."""
    old: list[tuple[Cite, Cite, bool]] = []
    amended_days = set()
    for finding in (f for abstract in filled for f in abstract.findings if f.state == "amended" and len(f.cites) > 1):
        if isinstance(finding.value, DateValue):
            amended_days.add(finding.value.day)
        if isinstance(finding.value, (DateValue, Duration)):
            new, counted = finding.cites[0], isinstance(finding.value, Duration)
            old += [(c, new, counted) for c in finding.cites[1:] if c.document is not new.document]
    out = []
    for item in items:
        by = next((new for cite, new, counted in old if _stood_in(item, cite, counted)), None)
        if by is None or item.day in amended_days:
            out.append(item)
        else:
            note = f"changed by {by.document.path}, {by.place}"
            out.append(replace(item, state="superseded", notes=(*item.notes, note)))
    return out


def _stood_in(item: DatedItem, cite: Cite, counted: bool) -> bool:
    """True where an item was read from a cite; counted: and was worked out, since only its length was changed."""
    wanted = item.state == "computed" and item.weight < 3 if counted else item.state != "rule"
    return wanted and item.document is cite.document and item.cites[0].span.overlaps(cite.span)


def _order(item: DatedItem) -> tuple[object, ...]:
    return (
        item.day is None,
        item.day or date.min,
        item.precision != "day",
        item.time,
        item.document.path,
        item.cites[0].span.start,
    )


def _told_alike(held: DatedItem, item: DatedItem) -> bool:
    """True where two accounts are of one event: by their words, or by the minute and a thing that both name."""
    same_minute = bool(held.time) and held.time == item.time and held.kind == item.kind == "event"
    return _likeness(held.what, item.what) >= (0.3 if same_minute else 0.6)


def together(items: Sequence[DatedItem]) -> tuple[DatedItem, ...]:
    """A chronology of several documents: the same event told by several becomes one with all cites; other times are noted."""
    out: list[DatedItem] = []
    for item in items:
        place = next(
            (n for n, held in enumerate(out) if held.day == item.day is not None and held.day is not None and held.document is not item.document and held.precision == item.precision == "day" and _told_alike(held, item)),
            None,
        )  # fmt: skip
        if place is None:
            out.append(item)
            continue
        held = out[place]
        if held.time and item.time and held.time != item.time:
            note = f"{item.document.name} gives the time as {item.time}"
            out[place] = replace(held, notes=(*held.notes, note))
            out.append(replace(item, notes=(*item.notes, f"{held.document.name} gives the time as {held.time}")))
        else:
            out[place] = replace(held, cites=(*held.cites, *item.cites)[:MOST_CITES], time=held.time or item.time)
    return tuple(out)
