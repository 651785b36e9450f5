"""Days counted from others: "not less than nine months before the Break Date", "within 60 days after the Effective Date".

In: passages and anchors. Out: items with working, or rules where the day that they count from is not known.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

from yarnex.core.dates.anchors import Anchor, Anchors
from yarnex.core.dates.business_days import Calendar, add_business_days, calendar_of
from yarnex.core.dates.kinds import kind_of
from yarnex.core.dates.model import DatedItem
from yarnex.core.dates.recurring import Recurrence, anniversaries, recurrence_in
from yarnex.core.dates.wording import short_what, who_in
from yarnex.core.document import Cite, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.computed import date_by_formula, shown_date, shown_duration
from yarnex.core.terms.passages import Passages
from yarnex.core.values import DateValue, Duration, add_duration, find_dates, find_durations
from yarnex.core.values.dates import date_order
from yarnex.core.values.types import Found

BEHIND = pattern(
    r"[\s,'’]*(?P<notice>(?:prior\s+|previous\s+|written\s+|advance\s+|clear\s+|further\s+)*(?:notice\b(?:\s+in\s+writing)?\s*)?)(?:[a-z]+ly\s+)?(?P<to>before|prior\s+to|preceding|in\s+advance\s+of|after|following|from|of|starting\s+(?:on|from)|beginning\s+(?:on|from|with))\s+(?P<rest>.{2,160})",
    re.IGNORECASE | re.DOTALL,
)
NOTICE = pattern(r"[\s'’]*(?:(?:prior|previous|written|advance|clear)\s+)*notice\b", re.IGNORECASE)
AND_NOT = pattern(
    r"\s*[,(]?\s*(?:and|nor|but|or|to)\s+(?:not\s+)?(?:more|less|later|earlier|fewer)\s+than\s*\Z", re.IGNORECASE
)
TERM_OF = pattern(
    r"\b(?:term|period|tenancy)s?\s+(?:of\s+|\(|(?:of\s+(?:this|the)\s+\w+\s+)?(?:is|shall\s+be|will\s+be|lasts?|runs?)\s+(?:for\s+)?)?\Z",
    re.IGNORECASE,
)
UNKNOWN = pattern(
    r"\A\s*(?:the\s+)?(?:(?:date|day)\s+(?:of|on\s+which)\s+)?(?:\w+['’]s\s+)?(?:written\s+)?(?:receipt|receiving|notice|demand|request|delivery|invoice|being|such|any|that|this|a|an|written|it|they|he|she|occurrence|completion|discovery)\b",
    re.IGNORECASE,
)
BACK = ("before", "prior", "preceding", "in advance")
MORE = pattern(r"\b(?:not|no)\s+(?:earlier|more)\s+than\b|\bnor\s+more\s+than\b|\bat\s+most\b", re.IGNORECASE)
PAYABLE = pattern(
    r"\b(?:payable|payment(?:\s+terms)?|due|pay|terms|net)\b[^.;\n]{0,25}?\b(?:within\s+|:\s*|is\s+|net\s+|in\s+)?\Z",
    re.IGNORECASE,
)
OF_NO_DATE = pattern(
    r"\A\s*(?:the\s+)?(?:\d|base|rent|fee|annual|total|price|sum|amount|charges?|interest|service|salary|cover|work|treatment|operation|training|use)\b",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class _Count:
    length: Found[Duration]
    back: bool
    anchor: Anchor | None
    recurs: Recurrence | None
    rest: str
    last: int  # offset in the sentence up to which its words go


def relative_items(anchors: Anchors) -> list[DatedItem]:
    """Every day of a document that is counted from another."""
    passages = anchors.passages
    calendar = calendar_of(passages)
    out: list[DatedItem] = [_named(anchors, name, anchor) for name, anchor in anchors.derived]
    for span in _places(passages):
        text = span.of(passages.text)
        if not re.search(r"\b(?:days?|weeks?|months?|years?|anniversary|fortnights?)\b", text, re.IGNORECASE):
            continue
        lengths = list(find_durations(text))
        for place, length in enumerate(lengths):
            out += _of_length(anchors, span, text, lengths, place, length, calendar)
        if not lengths or re.search(r"\banniversary\b", text, re.IGNORECASE):
            out += _formula(anchors, span, text)
    return out


def _named(anchors: Anchors, name: str, anchor: Anchor) -> DatedItem:
    """A defined day that follows from others."""
    low = name.lower()
    kind = (
        "end"
        if re.search(r"expir|end|terminat", low)
        else "start"
        if re.search(r"commenc|start|begin", low)
        else "deadline"
    )
    who = who_in(anchors.document, anchor.cites[0].quote)
    return DatedItem(
        anchors.document,
        anchor.day,
        name,
        kind,
        "computed",
        anchor.cites,
        who,
        working=tuple(anchor.why.split("; ")),
        weight=2,
    )


def _places(passages: Passages) -> Iterator[Span]:
    """Sentences, and rows of tables."""
    seen: set[int] = set()
    for _, held in passages.blocks:
        if held.table >= 0:
            table = passages.document.tables[held.table]
            for row in range(table.rows):
                cells = table.row_cells(row)
                if cells:
                    yield Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
    for sentence in passages.sentences:
        block = passages.document.block_at(sentence.span.start)
        if (block is None or block.table < 0) and sentence.span.start not in seen:
            seen.add(sentence.span.start)
            yield sentence.span


def _formula(anchors: Anchors, span: Span, text: str) -> Iterator[DatedItem]:
    """Anniversaries, and last days of the nth month."""
    made = date_by_formula(span, {f.term.id: f for f in anchors.filled.findings}, anchors.passages)
    if made is not None and isinstance(made.value, DateValue) and made.working:
        at = max(text.find(made.text), 0)
        yield DatedItem(
            anchors.document, made.value.day, short_what(text, at, at + len(made.text)), _deadline_kind(text), "computed",
            (Cite(anchors.document, span), *made.cites[1:]), who_in(anchors.document, text), working=made.working,
        )  # fmt: skip


def _deadline_kind(text: str) -> str:
    kind = kind_of(text)
    return kind if kind in ("payment", "notice", "review") else "deadline"


def _of_length(
    anchors: Anchors,
    span: Span,
    text: str,
    lengths: list[Found[Duration]],
    place: int,
    length: Found[Duration],
    calendar: Calendar,
) -> Iterator[DatedItem]:
    document = anchors.document
    count = _counted_from(anchors, span, text, lengths, place)
    if count is None:
        return
    end_of_words = count.last
    what = short_what(text, length.span.start, min(len(text), end_of_words))
    cites: tuple[Cite, ...] = (Cite(document, span),)
    kind = _deadline_kind(text)
    who = who_in(document, text)
    if count.recurs is not None:
        yield from _recurring(anchors, count, what, kind, who, cites, calendar)
        return
    if count.anchor is None:
        if re.search(
            r"\b(?:shall|must|may|within|will|to be|is to|are to|not (?:less|later|more) than|at least)\b",
            text,
            re.IGNORECASE,
        ):
            yield DatedItem(
                document, None, what, kind, "rule", cites, who, notes=(f"counts from: {_rest_words(count.rest)}",)
            )
        return
    day, how = _moved(count.anchor.day, count.length.value, count.back, calendar)
    if day is None or not 1900 <= day.year <= 2150:
        return
    behind = text[length.span.end :]
    term = TERM_OF.search(text[: length.span.start]) and re.match(
        r"[\s)]*(?:from|starting|beginning|commencing)", behind, re.IGNORECASE
    )
    included = re.match(
        r"\s*(?:and\s+including\b|on\b)|.{0,20}\binclu(?:ding|sive)", count.rest, re.IGNORECASE
    ) or re.search(r"\b(?:starting|beginning|commencing)\s+(?:on|from)", behind[:60], re.IGNORECASE)
    if term and included:
        day -= timedelta(days=1)
        how += "; the first day counts, so the last is the day before"
        kind = "end"
    side = "before" if count.back else "after"
    working = tuple(
        filter(
            None,
            [
                count.anchor.why,
                f"{shown_duration(count.length.value)} {side} {shown_date(count.anchor.day)} is {shown_date(day)}{how}",
            ],
        )
    )
    if calendar.cite is not None and count.length.value.unit == "business_days":
        cites += (calendar.cite,)
    yield DatedItem(document, day, what, kind, "computed", (*cites, *count.anchor.cites), who, working=working)


def _rest_words(rest: str) -> str:
    return re.sub(r"\s+", " ", re.split(r"[.;,]", rest)[0]).strip()[:80]


def _counted_from(anchors: Anchors, span: Span, text: str, lengths: list[Found[Duration]], place: int) -> _Count | None:
    """What a length of time is counted from; None where it is a length and no more."""
    length = lengths[place]
    behind = text[length.span.end :]
    m = BEHIND.match(behind)
    if m is None and place + 1 < len(
        lengths
    ):  # "not more than twelve nor less than nine months before …": the second says from what
        between = text[length.span.end : lengths[place + 1].span.start]
        if AND_NOT.search(between) and len(between) < 40:
            later = _counted_from(anchors, span, text, lengths, place + 1)
            return _Count(length, later.back, later.anchor, later.recurs, later.rest, later.last) if later else None
    if (
        m is None
        and (bare := re.match(r"\s*(?:\([^()]{1,20}\)\s*)?", behind))
        and bare.end()
        and BEHIND.match(behind[bare.end() :])
    ):
        m = BEHIND.match(behind[bare.end() :])
    if m is not None:
        to = m["to"].lower()
        rest = m["rest"]
        if to == "of" and re.search(r"\bfirst\s+\Z", text[: length.span.start], re.IGNORECASE):
            return _first_of(anchors, text, length, rest)
        if to == "of" and (
            not re.search(r"\bwithin\s+(?:a\s+further\s+)?\Z", text[: length.span.start], re.IGNORECASE)
            or OF_NO_DATE.match(rest)
        ):
            return None
        back = to.startswith(BACK)
        last = length.span.end + m.start("rest") + min(60, len(rest))
        recurs = recurrence_in(rest, anchors)
        if recurs is not None:
            return _Count(length, back, None, recurs, rest, last)
        rest = (
            re.sub(r"\A(?:and\s+)?(?:including|excluding)\s+", "", rest)
            if to in ("from", "starting on", "starting from")
            else rest
        )
        anchor = anchors.resolve(rest)
        if anchor is None and UNKNOWN.match(rest):
            return _Count(length, back, None, None, rest, last)
        if anchor is None and to == "from" and not re.match(r"\s*(?:the|its|such|date)\b", rest, re.IGNORECASE):
            return None
        return _Count(length, back, anchor, None, m["rest"], last)
    if NOTICE.match(behind):
        return _notice_before_date(anchors, text, length)
    before = text[: length.span.start]
    chained = re.search(r"\bwithin\s+\Z", before, re.IGNORECASE) and re.match(
        r"\s*(?:[,.;)]|and\b|but\b|or\b|\Z)", behind
    )
    if (
        chained
        and place
        and (first := _counted_from(anchors, span, text, lengths, 0)) is not None
        and first.anchor is not None
        and not first.back
    ):
        return _Count(length, False, first.anchor, None, first.rest, length.span.end)
    if PAYABLE.search(before):
        beside = next(find_dates(before, date_order(anchors.document.text)), None)
        if beside is not None:
            return _Count(
                length,
                False,
                Anchor(beside.value.day, f"the same line is dated {shown_date(beside.value.day)}", ()),
                None,
                "",
                length.span.end,
            )
        own = _date_above(anchors, span) or anchors.own_date()
        if own is not None and anchors.filled.sheet.name in ("billing", "letter", "record"):
            return _Count(length, False, own, None, "", length.span.end)
    return None


def _date_above(anchors: Anchors, span: Span) -> Anchor | None:
    """The date that heads the bill in which a line stands: the last one above it on a line of its own or labelled."""
    text = anchors.document.text
    for found in reversed([f for f in anchors.passages.values("date") if span.start - 700 < f.span.start < span.start]):
        before = text[max(0, found.span.start - 12) : found.span.start]
        if isinstance(found.value, DateValue) and re.search(r"(?:\bdate:?\s*|\A|\n\s*)\Z", before, re.IGNORECASE):
            return Anchor(
                found.value.day,
                f"the bill is dated {shown_date(found.value.day)}",
                (Cite(anchors.document, found.span),),
            )
    return None


def _first_of(anchors: Anchors, text: str, length: Found[Duration], rest: str) -> _Count | None:
    """ "during the first 14 days of the period of insurance": the last of them."""
    if not re.search(r"\bfirst\s+\Z", text[: length.span.start], re.IGNORECASE):
        return None
    start = anchors.resolve("start of " + re.sub(r"\A\s*(?:the|this)\s+", "the ", rest)) or (
        anchors.term("period_start", "start_date", "lease_start", "commencement_date")
        if re.match(
            r"\s*(?:the|this)\s+(?:term|period\s+of|hire|lease|subscription|contract|agreement|policy)\b",
            rest,
            re.IGNORECASE,
        )
        else None
    )
    if start is None or length.value.unit != "days":
        return None
    shorter = Found(Duration(length.value.value - 1, "days"), length.span)
    return _Count(
        shorter,
        False,
        Anchor(start.day, f"{start.why}; that day is the first", start.cites),
        None,
        rest,
        length.span.end + 40,
    )


def _notice_before_date(anchors: Anchors, text: str, length: Found[Duration]) -> _Count | None:
    """Notice of a length, in a sentence that names the one day on which what is notified takes effect."""
    if not re.search(
        r"\b(?:determine|terminate|end|break|renew|cancel|exercise|withdraw|leave|quit|surrender|remove)\b",
        text,
        re.IGNORECASE,
    ):
        return None
    rest = text[length.span.end :]
    each = re.search(r"\b(?:any|each|every)\s+anniversary\s+of\s+(.{3,60})", text, re.IGNORECASE)
    if each is not None and (base := anchors.resolve(each[1])) is not None:
        recurs = Recurrence(
            "every year",
            anniversaries(base.day, anchors),
            "; ".join(filter(None, [base.why, "its anniversaries"])),
            base.cites,
        )
        return _Count(length, True, None, recurs, rest, length.span.end + 20)
    days: list[Anchor] = []
    for m in re.finditer(
        r"\b(?:on|at|expiring\s+on|ending\s+on|with\s+effect\s+(?:from|on))\s+(?:the\s+)?", text, re.IGNORECASE
    ):
        if (
            not (length.span.start <= m.start() < length.span.end)
            and (found := anchors.resolve(text[m.end() : m.end() + 80])) is not None
        ):
            days.append(found)
    if len({d.day for d in days}) != 1:
        return (
            _Count(length, True, None, None, "the day on which it takes effect", length.span.end + 20)
            if re.search(r"\bmay\b", text) and rest
            else None
        )
    return _Count(length, True, days[0], None, "the day on which it takes effect", length.span.end + 20)


def _moved(day: date, length: Duration, back: bool, calendar: Calendar) -> tuple[date | None, str]:
    if length.unit == "business_days" and length.value == length.value.to_integral_value():
        count = int(length.value)
        return add_business_days(day, -count if back else count, calendar.free()), f" ({calendar.words})"
    return add_duration(day, length, back=back), ""


MOST = 12  # occurrences of a recurring day that are worked out


def _recurring(
    anchors: Anchors, count: _Count, what: str, kind: str, who: str, cites: tuple[Cite, ...], calendar: Calendar
) -> Iterator[DatedItem]:
    """A rule that comes again: with its days where they are known, else the rule alone."""
    recurs = count.recurs
    assert recurs is not None
    if not recurs.days:
        yield DatedItem(
            anchors.document,
            None,
            what,
            kind,
            "rule",
            cites,
            who,
            recurs=recurs.words,
            notes=(f"counts from: {_rest_words(count.rest)}",),
        )
        return
    for base in recurs.days[:MOST]:
        day, how = _moved(base, count.length.value, count.back, calendar)
        if day is not None:
            side = "before" if count.back else "after"
            working = (
                recurs.why,
                f"{shown_duration(count.length.value)} {side} {shown_date(base)} is {shown_date(day)}{how}",
            )
            yield DatedItem(
                anchors.document,
                day,
                what,
                kind,
                "computed",
                (*cites, *recurs.cites),
                who,
                working=tuple(filter(None, working)),
                recurs=recurs.words,
            )
