"""Days that a document has names for: its defined dates, the terms of its sheet, its own date.

In: a document's passages and filled sheet. Out: for words such as "the end of the Term", the day they stand for.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date, timedelta

from dateutil.relativedelta import relativedelta

from yarnex.core.dates.kinds import date_vocabulary
from yarnex.core.document import Cite
from yarnex.core.number_names import ORDINALS, counted
from yarnex.core.patterns import pattern
from yarnex.core.terms.abstract import Abstract
from yarnex.core.terms.computed import NTH_MONTH, nth_month_end, shown_date
from yarnex.core.terms.identity import document_date, identify
from yarnex.core.terms.passages import Definition
from yarnex.core.values import DateValue, Value, add_duration, find_dates, find_durations
from yarnex.core.values.dates import date_order
from yarnex.core.values.numbers import read_words
from yarnex.core.values.types import Found
from yarnex.core.words import stems_of

_year_name = r"(?:Lease|Contract|Rent|Licence|License|Term|Operating|Agreement)\s+Year"
_nth_year = pattern(
    rf"(?:(?:last\s+day|end|expiry|expiration)\s+of\s+)?(?:the\s+)?(?:(?P<ordinal>{'|'.join(ORDINALS)}|\d{{1,2}}(?:st|nd|rd|th))\s+{_year_name}|{_year_name}\s+(?P<n>\d{{1,2}}))",
    re.IGNORECASE,
)


GENERIC = frozenset(["date", "dated", "day", "start", "end", "expiry", "effective"])


@dataclass(frozen=True, slots=True)
class Anchor:
    """A day, how it is known, and the cites for it. length: characters of the words that named it."""

    day: date
    why: str
    cites: tuple[Cite, ...]
    length: int = 0


class Anchors:
    """The named days of one document."""

    def __init__(self, filled: Abstract) -> None:
        self.filled = filled
        self.passages = filled.passages
        self.document = filled.document
        self.several: dict[str, tuple[tuple[date, ...], Cite]] = {}  # names of days that stand for more than one
        self.named = self._defined()
        self.derived = self._derived()

    def _defined(self) -> dict[str, Anchor]:
        """Names of days with one day each, by lower-case name."""
        out: dict[str, Anchor] = {}
        for definition in self.passages.definitions:
            name = definition.name.lower()
            if "date" not in name and not re.search(r"\b(?:day|anniversary|deadline|commencement)\b", name):
                continue
            found = self._first_sentence(definition)
            inside = {f.value.day for f in found if isinstance(f.value, DateValue)}
            if len(inside) == 1 or (definition.inline and inside):
                value = found[-1 if definition.inline else 0].value
                if isinstance(value, DateValue):
                    cite = Cite(self.document, definition.sentence)
                    out.setdefault(name, Anchor(value.day, f"{definition.name} is {shown_date(value.day)}", (cite,)))
            elif len(inside) > 1 and not definition.inline and "date" in name:
                self.several.setdefault(name, (tuple(sorted(inside)), Cite(self.document, definition.sentence)))
        for row in self.passages.labelled:
            if (
                not re.search(
                    r"\bdate\b|\bstart|\bend\b|\bexpir|\bcommence|\beffective|\bdrawdown", row.label, re.IGNORECASE
                )
                or len(row.label) > 60
            ):
                continue
            found = self.passages.values_in("date", row.value)
            if len(found) == 1 and isinstance(found[0].value, DateValue):
                out.setdefault(
                    row.label.lower(),
                    Anchor(
                        found[0].value.day,
                        f"{row.label} is {shown_date(found[0].value.day)}",
                        (Cite(self.document, row.row),),
                    ),
                )
        for finding in self.filled.findings:
            if isinstance(finding.value, DateValue) and finding.usable and finding.state != "conflicting":
                anchor = Anchor(
                    finding.value.day, f"{finding.term.label} is {shown_date(finding.value.day)}", finding.cites
                )
                for name in {finding.term.label.lower(), finding.term.id.replace("_", " ")}:
                    out.setdefault(name, anchor)
        return out

    def _first_sentence(self, definition: Definition) -> list[Found[Value]]:
        """The dates in the first sentence of a definition; what follows it says when, not what."""
        found = self.passages.values_in("date", definition.meaning)
        sentence = self.passages.sentence_at(definition.meaning.start)
        if sentence is None or definition.inline:
            return found
        return [f for f in found if f.span.start < sentence.span.end] or found

    def _derived(self) -> list[tuple[str, Anchor]]:
        """Named days that a definition counts from another: with each found, others may follow, so this goes round twice."""
        out: list[tuple[str, Anchor]] = []
        for _ in range(2):
            for definition in self.passages.definitions:
                name = definition.name.lower()
                if "date" not in name or name in self.named or name in self.several:
                    continue
                made = self._by_definition(definition)
                if made is not None:
                    self.named[name] = made
                    out.append((definition.name, made))
        return out

    def _by_definition(self, definition: Definition) -> Anchor | None:
        sentence = self.passages.sentence_at(
            definition.sentence.start if definition.inline else definition.meaning.start
        )
        span = sentence.span if sentence is not None else definition.sentence
        words = span.of(self.document.text)
        cite = Cite(self.document, span)
        m = NTH_MONTH.search(words)
        if m:
            base = self.resolve(m["name"]) if m["name"] else self._named_before(words[: m.start()], definition.name)
            count = int(m["d"]) if m["d"] else int(read_words(m["n"]) or 0)
            if base is not None and count:
                day = nth_month_end(base.day, count, bool(m["full"]))
                return Anchor(
                    day,
                    f"{base.why}; the last day of month {count} counted from it is {shown_date(day)}",
                    (cite, *base.cites),
                )
        for length in find_durations(words):
            behind = re.match(
                r"[\s,]*(?P<to>after|from|following|before|prior\s+to)\s+(?P<rest>.{3,80})",
                words[length.span.end :],
                re.IGNORECASE | re.DOTALL,
            )
            anchor = self.resolve(behind["rest"]) if behind else None
            counted = (
                add_duration(anchor.day, length.value, back=behind["to"].lower().startswith(("before", "prior")))
                if anchor and behind
                else None
            )
            if anchor is not None and counted is not None:
                earlier = (
                    "; the earlier of two, so this is the latest"
                    if re.search(r"\bearlie(?:r|st)\s+(?:of|to)\b", words)
                    else "; the later of two, so this is the earliest"
                    if re.search(r"\blate(?:r|st)\s+(?:of|to)\b", words)
                    else ""
                )
                return Anchor(
                    counted,
                    f"{anchor.why}; {length.span.of(words)} {behind['to'] if behind else 'after'} it is {shown_date(counted)}{earlier}",
                    (cite, *anchor.cites),
                )
        return None

    def _named_before(self, words: str, own: str) -> Anchor | None:
        """The last named day before a "thereafter" other than the one being defined."""
        places = [
            (words.lower().rfind(name), name)
            for name in self.named
            if name != own.lower() and words.lower().rfind(name) >= 0
        ]
        return self.named[max(places)[1]] if places else None

    def term(self, *names: str) -> Anchor | None:
        """The day of the first of these terms that the sheet found."""
        for name in names:
            finding = self.filled.finding(name)
            if (
                finding is not None
                and isinstance(finding.value, DateValue)
                and finding.usable
                and finding.state != "conflicting"
            ):
                return Anchor(
                    finding.value.day, f"{finding.term.label} is {shown_date(finding.value.day)}", finding.cites
                )
        return None

    def own_date(self) -> Anchor | None:
        """The date of the document itself."""
        day = document_date(self.document)
        if not day:
            return None
        dated = identify(self.document).dated
        value = date.fromisoformat(day)
        return Anchor(value, f"the document is dated {shown_date(value)}", (dated,) if dated else ())

    def resolve(self, words: str) -> Anchor | None:
        """The day that the words at the start of `words` stand for; None where they name no known day."""
        lead = re.match(
            r"\s*(?:the\s+|its\s+|his\s+|such\s+|relevant\s+|said\s+|that\s+|then[\s-]+|scheduled\s+|original\s+|current\s+|date\s+of\s+the\s+(?=\d))*",
            words,
            re.IGNORECASE,
        )
        rest = words[lead.end() :] if lead else words
        own = lead.group().lower() if lead else ""
        for found in find_dates(rest[:60], date_order(self.document.text)):
            if found.span.start <= 12 and not re.search(r"[.;]", rest[: found.span.start]):
                return Anchor(found.value.day, "", (), found.span.end)
        low = re.sub(r"\s+", " ", rest.lower())
        nth = _nth_year.match(rest)
        if nth and (made := self._end_of_year(nth)) is not None:
            return made
        m = re.match(
            rf"(?:date\s+(?:of\s+(?:this|the|its)\s*)?)?(?:(?:this|the)\s+)?(?:{'|'.join(date_vocabulary().document_words)})\b(?:\s+date\b)?",
            low,
        )
        if (
            low.startswith(("date of this", "date of its", "today"))
            or (m and ("date" in m.group() or "this" in own))
            or (re.match(r"date\b(?!\s+(?:on|of|by|when|that))", low) and "its" in own)
        ):
            return self.own_date()
        for name in sorted(self.named, key=len, reverse=True):
            if name not in GENERIC and low.startswith(name) and not low[len(name) : len(name) + 1].isalnum():
                return self.named[name]
        for name, terms in date_vocabulary().anchors:
            if low.startswith(name):
                found_term = self.term(*terms)
                if found_term:
                    return found_term
        by = re.match(r"date\s+(?:by|on)\s+which\s+(.{6,70}?)(?:[.,;]|\Z)", low)
        if by is not None:
            return self._row_about(by[1])
        m = re.match(
            r"(?:last\s+day|end|expiry|expiration|start|beginning|date)\s+(?:of|by\s+which|for)\s+(?:the\s+)?(.*)", low
        )
        return (
            self.resolve(m[1])
            if m and len(m[1]) < len(low) and not low.startswith(("end of each", "end of that", "end of any"))
            else None
        )

    def _row_about(self, words: str) -> Anchor | None:
        """The day of the one row that is about something: "the date by which bids must be received" is that of "Bids to be received by"."""
        wanted = set(stems_of(words))
        best: tuple[float, Anchor] | None = None
        for row in self.passages.labelled:
            found = self.passages.values_in("date", row.value)
            shared = len(wanted & set(stems_of(row.label))) / max(1, len(wanted))
            if (
                len(found) == 1
                and isinstance(found[0].value, DateValue)
                and shared >= 0.6
                and (best is None or shared > best[0])
            ):
                best = (
                    shared,
                    Anchor(
                        found[0].value.day,
                        f"{row.label}: {shown_date(found[0].value.day)}",
                        (Cite(self.document, row.row),),
                    ),
                )
        return best[1] if best else None

    def _end_of_year(self, m: re.Match[str]) -> Anchor | None:
        """The last day of the nth year of a lease or contract, counted from its start (or its first full month)."""
        number = counted(m["n"] or m["ordinal"] or "")
        start = (
            self.term("rent_start", "lease_start", "start_date", "commencement_date", "period_start")
            or self.named.get("rent commencement date")
            or self.named.get("commencement date")
        )
        if not number or start is None:
            return None
        day = start.day
        if day.day != 1 and re.search(
            r"(?:first|1st)\s+day\s+of\s+the\s+(?:first\s+full\s+)?(?:calendar\s+)?month|full\s+calendar\s+month",
            self.passages.text,
            re.IGNORECASE,
        ):
            day = day.replace(day=1) + relativedelta(months=1)
        end = day + relativedelta(years=int(number)) - timedelta(days=1)
        return Anchor(end, f"{start.why}; its year {int(number)} ends on {shown_date(end)}", start.cites, m.end())
