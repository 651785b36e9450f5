"""Events of records: dated entries, clock times under them, days told without a year, "the next morning", mails and calls."""

from __future__ import annotations

import re
from datetime import date, timedelta

from yarnex.core.dates.kinds import kind_of
from yarnex.core.dates.model import DatedItem
from yarnex.core.dates.wording import sentence_span, short_what, who_in
from yarnex.core.document import Block, Cite, Document, Span
from yarnex.core.document.cite import clock
from yarnex.core.patterns import pattern
from yarnex.core.terms.identity import document_date
from yarnex.core.terms.passages import Passages
from yarnex.core.values import add_duration, find_dates, find_durations
from yarnex.core.values.dates import MONTHS, SHORT, date_order
from yarnex.core.values.numbers import ORDINAL_WORDS, read_words

RECORD_KINDS = frozenset(
    ["record", "incident_report", "email", "letter", "interview", "transcript", "minutes", "statement", "invoice", "inspection_report", "clinical_record", "claim", "statement_of_loss", "study", "memo", "report", "results_call", "estimate", "unknown", "statement_of_account", "witness_statement", "notice"]
)  # fmt: skip
_month = "|".join([*MONTHS, *(m for m in SHORT if m not in MONTHS)])
DAY_MONTH = pattern(
    rf"\b(?:(?:(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day,?\s+)?(?:the\s+)?(?P<d1>\d{{1,2}})(?:st|nd|rd|th)?\s+(?:of\s+)?(?P<m1>{_month})|(?P<m2>{_month})\s+(?P<d2>\d{{1,2}})(?:st|nd|rd|th)?|(?:the\s+)?(?P<d3>{ORDINAL_WORDS})\s+(?:day\s+)?of\s+(?P<m3>{_month}))\b(?!\s*,?\s*(?:of\s+)?(?:19|20)\d\d)(?!\s*[–-]\s*\d)",
    re.IGNORECASE,
)
MONTH_YEAR = pattern(
    rf"\b(?:in|since|from|during|until|of|by)\s+(?:early\s+|late\s+|mid-?)?(?P<m>{_month})\s+(?P<y>(?:19|20)\d\d)\b",
    re.IGNORECASE,
)
YEAR = pattern(r"\b(?:in|since|during)\s+(?P<y>(?:19|20)\d\d)\b(?!\s*[-–/]\s*\d)", re.IGNORECASE)
THREAD = pattern(r"\A(?:Sent|Date):\s", re.IGNORECASE)
WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
WEEKDAY = pattern(rf"\b(?P<day>{'|'.join(WEEKDAYS)})\b(?!\s*,?\s*(?:the\s+)?\d)", re.IGNORECASE)
_hour = "one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|midday|noon|midnight|1[0-2]|[1-9]"
SPOKEN = pattern(
    rf"\b(?P<part>quarter|half|five|ten|twenty|twenty-five)\s+(?P<side>past|to)(?:\s+(?P<hour>{_hour}))?\b",
    re.IGNORECASE,
)
TIME = pattern(
    r"(?<![\d.:£$€,])(?P<h>[01]?\d|2[0-3])[:.](?P<m>[0-5]\d)(?![\d:]|\.\d|\s*(?:%|per\s+cent|million|m\b|bn|pence|hours?|metres?|points))\s*(?P<half>a\.?m\.?|p\.?m\.?|hrs?\b|h\b)?|(?<![\d.,:])(?P<h2>1[0-2]|[1-9])\s*(?P<half2>a\.?m\.?|p\.?m\.?)(?!\w)",
    re.IGNORECASE,
)
ENTRY = pattern(
    r"\A\s*(?:(?:Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day,?\s+)?(?:Date(?:d)?(?:\s+of\s+[\w ]{3,30})?\s*:?\s*)?",
    re.IGNORECASE,
)
NEXT_DAY = pattern(
    r"\b(?:the\s+)?(?P<which>next|following|same|previous)\s+(?:day|morning|afternoon|evening|night)\b|\b(?P<yesterday>yesterday)\b|\b(?P<today>today|this\s+morning|this\s+afternoon)\b|\b(?P<tomorrow>tomorrow)\b",
    re.IGNORECASE,
)
LATER = pattern(r"\s+(?:later|afterwards)\b", re.IGNORECASE)


def is_record(kind: str) -> bool:
    """True for papers that tell what happened, rather than what is agreed."""
    return kind in RECORD_KINDS or kind.endswith(("_record", "_report", "email", "interview"))


def events_of(passages: Passages) -> list[DatedItem]:
    """Events in the order of the text. A sentence that names no day belongs to the dated entry that it stands under."""
    document = passages.document
    own = document_date(document)
    base = date.fromisoformat(own) if own else None
    out: list[DatedItem] = []
    if document.format == "eml" and base is not None:
        out += _mail(passages, base)
    last = base
    entry: date | None = None
    entry_section = -2
    told = False  # whether the text itself has named a day yet
    named_in = -1  # the block in which it last did
    for _, block in passages.blocks:
        text = block.span.of(document.text)
        if document.format == "eml" and block.table >= 0 and re.match(r"From:", text):
            continue  # the head of the mail itself, which stands as an item of its own
        header = THREAD.match(text) if _after_from(document, block) else None
        if header is not None and (day := next(find_dates(text, date_order(document.text)), None)) is not None:
            base = last = day.value.day
            entry = None
            out.append(_in_thread(passages, block, base))
            continue
        opening = _entry_date(document, block, text)
        if opening is not None:
            entry, entry_section, last = opening, block.section, opening
            out.append(_entry(passages, block, opening))
        elif block.section != entry_section and block.kind == "heading":
            entry = None
        for span in _parts(passages, block):
            here = block.span.start == named_in
            items, found = _of_sentence(passages, span, last, None if here else entry, base, told or here)
            if found != last or any(i.state == "stated" and i.day is not None and not i.reading for i in items):
                told, named_in = True, block.span.start
            last = found
            out += items
    return out


def _after_from(document: Document, block: Block) -> bool:
    """True where the line of a sender stands right above: the head of a mail quoted in another."""
    place = document.block_index_at(block.span.start)
    return any(re.match(r"From:\s", b.span.of(document.text)) for b in document.blocks[max(0, place - 2) : place + 1])


def _in_thread(passages: Passages, block: Block, day: date) -> DatedItem:
    """A mail quoted in another: who sent it, its day and time, and its first words."""
    document = passages.document
    place = document.block_index_at(block.span.start)
    around = document.blocks[max(0, place - 2) : place]
    sender = next((m[1].strip() for b in around if (m := re.match(r"From:\s*(.{2,60})", b.span.of(document.text)))), "")
    end = block.span.end
    for later in document.blocks[place + 1 : place + 8]:
        words = later.span.of(document.text)
        if re.match(r"(?:From|Sent|Date):", words) or end - block.span.start > 900:
            break
        end = later.span.end
    span = Span(block.span.start, end)
    what = f"mail{f' from {sender}' if sender else ''}"
    return DatedItem(
        document,
        day,
        what,
        "event",
        "stated",
        (Cite(document, span),),
        sender.partition("<")[0].strip(),
        time_in(block.span.of(document.text)),
        weight=2,
    )


def _parts(passages: Passages, block: Block) -> list[Span]:
    if block.table >= 0:
        table = passages.document.tables[block.table]
        rows = [table.row_cells(r) for r in range(table.rows)]
        return [Span(min(c.span.start for c in cells), max(c.span.end for c in cells)) for cells in rows if cells]
    return [s.span for s in passages.sentences if block.span.start <= s.span.start < block.span.end] or [block.span]


def _entry_date(document: Document, block: Block, text: str) -> date | None:
    """The day of an entry that opens with it: a heading, a paragraph or a row that begins with a date."""
    if block.table >= 0:
        return None
    lead = ENTRY.match(text)
    start = lead.end() if lead else 0
    found = next(find_dates(text[start : start + 40], date_order(document.text)), None)
    return found.value.day if found is not None and found.span.start == 0 else None


def entries_of(document: Document) -> list[tuple[Span, int]]:
    """The entries that open with a day: the span of the day's own words and the end of the block that tells of it.

    Where days stand as headings, those alone are the entries.
    """
    blocks = [b for b in document.blocks if b.kind != "furniture"]
    opened: list[tuple[bool, Span, int]] = []
    for place, block in enumerate(blocks):
        text = block.span.of(document.text)
        if _entry_date(document, block, text) is None:
            continue
        day = next(find_dates(text, date_order(document.text)))
        end = block.span.end
        if not text[day.span.end :].strip(" .:–-") and place + 1 < len(blocks):
            end = blocks[place + 1].span.end
        opened.append(
            (block.kind == "heading", Span(block.span.start + day.span.start, block.span.start + day.span.end), end)
        )
    headed = [x for x in opened if x[0]]
    return [(span, end) for _, span, end in (headed if len(headed) > 1 else opened)]


def _entry(passages: Passages, block: Block, day: date) -> DatedItem:
    """The entry as an event: the words behind its date, else those of the block under it."""
    document = passages.document
    span = block.span
    if re.match(r"\s*Date", span.of(document.text)):
        return DatedItem(
            document,
            day,
            short_what(span.of(document.text), 0, 20),
            "document",
            "stated",
            (Cite(document, span),),
            "",
            weight=2,
        )
    opening = next(find_dates(span.of(document.text), date_order(document.text)))
    if len(span.of(document.text)[opening.span.end :].strip(" :–-.")) < 12:  # a date alone heads what follows
        place = document.block_index_at(span.start) + 1
        if (
            place < len(document.blocks)
            and document.blocks[place].table < 0
            and document.blocks[place].kind != "heading"
        ):
            span = Span(span.start, document.blocks[place].span.end)
    words = " ".join(span.of(document.text).split())
    first = next(
        (
            s
            for s in passages.sentences
            if block.span.start <= s.span.start < span.end and len(s.span.of(document.text)) > 20
        ),
        None,
    )
    shown = short_what(first.span.of(document.text), 0, 20) if first is not None else short_what(words, 0, 20)
    end = min(span.end, block.span.start + 500)
    return DatedItem(
        document,
        day,
        shown,
        "event",
        "stated",
        (Cite(document, Span(block.span.start, max(end, block.span.start + 1))),),
        who_in(document, words),
        weight=2,
    )


def _mail(passages: Passages, sent: date) -> list[DatedItem]:
    """The mail itself, with its opening words."""
    document = passages.document
    subject = dict(document.properties).get("subject", "")
    sender = dict(document.properties).get("from", "")
    body = [s for s in passages.sentences if len(s.span.of(document.text)) > 25][:3]
    span = Span(body[0].span.start, body[-1].span.end) if body else Span(0, min(len(document.text), 200))
    what = f"mail{f' from {sender}' if sender else ''}{f': {subject}' if subject else ''}"
    return [
        DatedItem(
            document,
            sent,
            short_what(what, 0, 30),
            "document",
            "stated",
            (Cite(document, span),),
            sender.partition("<")[0].strip(),
            weight=1,
        )
    ]


PARTS = {"quarter": 15, "half": 30, "five": 5, "ten": 10, "twenty": 20, "twenty-five": 25}


def spoken_time(words: str) -> tuple[str, str]:
    """A clock time in words as HH:MM, and a remark where half of the day is not told; "" where there is none.

    >>> spoken_time("Twenty to six.")[0], spoken_time("at quarter past")[0]
    ('05:40', '')
    """
    m = SPOKEN.search(words)
    if m is None or not m["hour"]:
        return "", ""
    name = m["hour"].lower()
    hour = {"midday": 12, "noon": 12, "midnight": 0}.get(
        name, int(read_words(name) or 0) if not name.isdigit() else int(name)
    )
    minutes = hour * 60 + PARTS[m["part"].lower()] * (1 if m["side"].lower() == "past" else -1)
    evening = bool(re.search(r"\b(?:evening|afternoon|night|p\.?m)\b", words, re.IGNORECASE))
    if evening and hour < 12:
        minutes += 720
    shown = f"{minutes // 60 % 24:02d}:{minutes % 60:02d}"
    return shown, "" if evening or re.search(
        r"\bmorning\b", words, re.IGNORECASE
    ) else "whether morning or evening is not told"


def time_in(words: str) -> str:
    """The first clock time of a text as HH:MM, "" where there is none.

    >>> time_in("at 8.10 a.m."), time_in("by 5.52 on the Sunday"), time_in("20:15 arrived"), time_in("paid 12.50")
    ('08:10', '05:52', '20:15', '')
    """
    for m in TIME.finditer(words):
        hour = int(m["h"] or m["h2"])
        minute = m["m"] or "00"
        half = (m["half"] or m["half2"] or "").lower().replace(".", "")
        before = words[max(0, m.start() - 14) : m.start()].lower()
        dotted = m["h"] and words[m.start("h") + len(m["h"])] == "."
        if (
            dotted
            and not half
            and not re.search(r"\b(?:at|by|until|till|from|about|around|before|after|past|since)\s+\Z", before)
        ):
            continue  # a decimal, or a clause
        if (
            dotted
            and not half
            and not re.match(r"\s*(?:on|hours|this|that|the|,|\.|\Z|and|in|when|[A-Z])", words[m.end() :])
        ):
            continue
        if half == "pm" and hour < 12:
            hour += 12
        if half == "am" and hour == 12:
            hour = 0
        return f"{hour:02d}:{minute}"
    return ""


def _of_sentence(
    passages: Passages, span: Span, last: date | None, entry: date | None, base: date | None, told: bool
) -> tuple[list[DatedItem], date | None]:
    document = passages.document
    words = span.of(document.text)
    out: list[DatedItem] = []
    time = time_in(words)
    remark = ""
    if not time:
        time, remark = spoken_time(words)
    cite = (Cite(document, span),)
    who = who_in(document, words)
    full = list(find_dates(words, date_order(document.text)))
    for place, found in enumerate(full):
        at = found.span.start
        near = (
            time
            if len(full) == 1
            else time_in(words[at : (full[place + 1].span.start if place + 1 < len(full) else len(words))])
        )
        out.append(
            DatedItem(
                document,
                found.value.day,
                short_what(words, at, found.span.end),
                _kind(words, at),
                "stated",
                cite,
                who,
                near,
                reading=found.reading,
                weight=1,
            )
        )
        last = found.value.day
    for m in DAY_MONTH.finditer(words):
        if any(f.span.start <= m.start() < f.span.end for f in full) or (last or base) is None:
            continue
        day = _with_year(m, last or base)  # type: ignore[arg-type]
        if day is not None and not re.match(r"\s*(?:,\s*)?\d", words[m.end() : m.end() + 3]):
            out.append(
                DatedItem(
                    document,
                    day,
                    short_what(words, m.start(), m.end()),
                    _kind(words, m.start()),
                    "stated",
                    cite,
                    who,
                    time,
                    reading=f"the year is not told; {day.year} is that of the dates around it",
                    weight=1,
                )
            )
            last = day
    if not out:
        said = _relative(words, last, entry or base)
        if said is not None:
            day, why = said
            out.append(
                DatedItem(document, day, short_what(words, 0, 40), "event", "computed", cite, who, time, working=(why,))
            )
            last = day
        elif told and last is not None and (named := WEEKDAY.search(words)) is not None and document.format != "eml":
            wanted = WEEKDAYS.index(named["day"].lower())
            close = last
            day = min(
                (close + timedelta(days=n) for n in range(-3, 4)),
                key=lambda d: ((d.weekday() - wanted) % 7, abs((d - close).days)),
            )
            out.append(
                DatedItem(
                    document,
                    day,
                    short_what(words, 0, 40),
                    "event",
                    "computed",
                    cite,
                    who,
                    time,
                    working=(f"the {named['day']} nearest to {last.isoformat()}, the day named before",),
                    reading=remark,
                )
            )
        elif time and entry is not None:
            out.append(
                DatedItem(
                    document,
                    entry,
                    short_what(words, 0, 40),
                    "event",
                    "stated",
                    cite,
                    who,
                    time,
                    reading="the day is that of the entry above",
                )
            )
        elif time and last is not None and (told or document.format != "eml"):
            out.append(
                DatedItem(
                    document,
                    last,
                    short_what(words, 0, 40),
                    "event",
                    "stated",
                    cite,
                    who,
                    time,
                    reading="; ".join(filter(None, ["the day is the last one named before", remark])),
                )
            )
        elif time and document.format == "eml":
            out.append(
                DatedItem(
                    document,
                    None,
                    short_what(words, 0, 40),
                    "event",
                    "rule",
                    cite,
                    who,
                    time,
                    notes=("the day is not told",),
                )
            )
    if not full:
        out += _imprecise(document, words, cite, who)
    return out, last


TO_BE_DONE = pattern(
    r"\b(?:must|shall|should|will|needs?\s+to|has\s+to|have\s+to|(?:is|are)\s+to|to\s+be|please|deadline|due|target|no\s+later|not\s+later|latest|expected|required|within|(?:fit|keep|send|install|replace|repair|submit|provide|complete|return)\b)",
    re.IGNORECASE,
)


def _kind(words: str, at: int) -> str:
    kind = kind_of(words[max(0, at - 90) : at + 60])
    if kind == "deadline" and not TO_BE_DONE.search(words):
        return "event"  # told of the past: "agreed by mail on 3 May"
    return kind if kind in ("deadline", "payment", "notice", "end", "document") else "event"


def _with_year(m: re.Match[str], near: date) -> date | None:
    """A day without its year: in the year that brings it nearest to the dates around it."""
    name = (m["m1"] or m["m2"] or m["m3"]).lower()
    month = MONTHS.get(name) or SHORT.get(name, 0)
    number = int(m["d1"] or m["d2"] or read_words(m["d3"]) or 0)
    made = []
    for year in (near.year - 1, near.year, near.year + 1):
        try:
            made.append(date(year, month, number))
        except ValueError:
            continue
    return min(made, key=lambda d: (abs((d - near).days), d)) if made else None


def _relative(words: str, last: date | None, base: date | None) -> tuple[date, str] | None:
    """ "the next morning", "three days later", "yesterday": counted from the last day named, or from the document's own."""
    m = NEXT_DAY.search(words)
    if m:
        if m["yesterday"] or m["today"] or m["tomorrow"]:
            if base is None:
                return None
            day = base - timedelta(days=1) if m["yesterday"] else base + timedelta(days=1) if m["tomorrow"] else base
            return day, f"{m.group()} from {base.isoformat()}, the date of the paper"
        if last is None:
            return None
        moved = {"next": 1, "following": 1, "same": 0, "previous": -1}[m["which"].lower()]
        return last + timedelta(days=moved), f"{m.group()} counted from {last.isoformat()}, the day named before"
    for length in find_durations(words):
        if LATER.match(words[length.span.end :]) and last is not None:
            counted = add_duration(last, length.value)
            if counted is not None:
                return counted, f"{length.span.of(words)} later counted from {last.isoformat()}, the day named before"
    return None


def _imprecise(document: Document, words: str, cite: tuple[Cite, ...], who: str) -> list[DatedItem]:
    """Months and years told without a day, kept as such."""
    out = []
    for m in MONTH_YEAR.finditer(words):
        name = m["m"].lower()
        out.append(
            DatedItem(
                document,
                date(int(m["y"]), MONTHS.get(name) or SHORT[name], 1),
                short_what(words, m.start(), m.end()),
                "event",
                "stated",
                cite,
                who,
                precision="month",
            )
        )
    if not out:
        for m in YEAR.finditer(words):
            out.append(
                DatedItem(
                    document,
                    date(int(m["y"]), 1, 1),
                    short_what(words, m.start(), m.end()),
                    "event",
                    "stated",
                    cite,
                    who,
                    precision="year",
                )
            )
    return out


def spoken_at(document: Document, offset: int) -> str:
    """The time code at which words of a recording are said, "" elsewhere."""
    mark = document.mark_at("time", offset)
    return clock(float(mark.value)) if mark else ""


__all__ = ["events_of", "is_record", "sentence_span", "spoken_at", "time_in"]
