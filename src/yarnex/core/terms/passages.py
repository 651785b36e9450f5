"""A document prepared for finding terms: sentences with their headings, labelled values, definitions, typed values."""

from __future__ import annotations

import re
from bisect import bisect_left, bisect_right
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from itertools import pairwise

from yarnex.core.document import Block, Cell, Document, Span, Table
from yarnex.core.document.sentences import sentences
from yarnex.core.patterns import pattern
from yarnex.core.phrases import Phrase
from yarnex.core.terms.loose_values import OF_THINGS
from yarnex.core.values import (
    DateOrder,
    Found,
    Money,
    PartyRole,
    Quantity,
    Value,
    date_order,
    find_counts,
    find_dates,
    find_durations,
    find_money,
    find_organisations,
    find_party_roles,
    find_percents,
    find_quantities,
    find_sides,
)
from yarnex.core.values.money import SIGNS, usual_dollar
from yarnex.core.values.numbers import SCALES, WORDS

COINS = {  # what shows the currency of a paper that writes no sum with its sign
    "GBP": r"\b(?:pence|pounds sterling|\d\s?p (?:per|a) share)\b", "EUR": r"\beuros?\b", "INR": r"\b(?:rupees|paise)\b",
}  # fmt: skip
CURRENCY_ALONE = pattern(
    r"(?<![\w£€$])(?:EUR|GBP|USD|AUD|CAD|NZD|CHF|INR|SEK|NOK|DKK|[£€$₹])(?=\s*(?:[’']?0{3}s?\b)?[\s)\]]*(?:[\t\n]|\Z))"
)
TWICE = pattern(r"\btwice\b(?=[^.;]{0,40}\b(?:during|in|within|over|a|per|each)\b)", re.IGNORECASE)
A_SUM = 10  # of a currency: less may be a rate of exchange or a price of one
MOSTLY_USED = 0.8  # share of a document's sums that are in its usual currency
SCALE_BEHIND = pattern(r"(?:million|billion)\b", re.IGNORECASE)
PARTED = pattern(r"\bpoint\b|\d\.\d|\b(?:half|quarters?)\Z", re.IGNORECASE)  # "eleven point four", after millions
NOUN_BEHIND = pattern(
    r"\s+(?:per\s?cent|times|pence|pounds|euros?|dollars|(?!(?:a|an|and|or|on|in|over|under|above|below|of|to|from|for|at|by|this|last|next|so|after|before|with|is|was|as|the|it|we|which|half|against|down|up|but|because|when|if)\b)[a-z]+)\b",
    re.IGNORECASE,
)
LEAST_SPOKEN = 10_000  # what a plain number in a transcript must come to to be a sum
OF_SIGNING = pattern(
    r"\b(?:signed|accept(?:ed)?|agreed|approved|acknowledged|confirmed)\b|\A(?:for|by)\b", re.IGNORECASE
)
OPENING = 1200  # letters from the top in which a paper's head stands
TITLE_WORDS, LONGEST_VALUE = (
    4,
    160,
)  # words of a title, and letters of what stands below it, that are a label and its value
FINITE = pattern(
    r"\b(?:is|are|was|were|be|been|has|have|had|may|must|shall|will|can|could|would|should|does|do|did|applies|apply|ends?|begins?|starts?|runs?|lasts?|pays?|takes?|gives?|makes?|says?|means?|includes?)\b",
    re.IGNORECASE,
)
OPENS_WITH_VALUE = pattern(
    rf"(?:(?:from|for|until|within|up\s+to|at\s+(?:least|most)|not\s+(?:less|more)\s+than|a\s+period\s+of)\s+)*(?:[£$€]|[A-Z]{{3}}\s)?(?:\d|{WORDS})",
    re.IGNORECASE,
)
CAPTION_WITHIN = 1500  # letters from the top in which the heading of a case names its sides
HEAD_LABEL = pattern(
    r"(?:to|from|date|dated|attn|attention|(?:our|your)\s+ref(?:erence)?|ref(?:erence)?|(?:invoice|order|quotation|quote|job|account|customer|po|page|tax|vat)(?:\s+(?:no|number|date|ref))?|number|no|page|tel|phone)\.?",
    re.IGNORECASE,
)
HEAD_NUMBER = pattern(  # "No. 4471", "Tax no. 112-884-305"
    r"(?:(?:Invoice|Order|Quotation|Quote|Account|Customer|Tax|GST|VAT|PO|Job|Company|Registration)\s+)?(?:[Nn]o|[Nn]r|[Nn]umber|[Rr]ef|[Rr]eference)\.?:?\s+(?=[A-Z/-]*\d[\w/.-]*\Z)"
)
# "Invoice W-3309 Date 01/07/2029 Customer Brackenfold Mills Due 20/08/2029": what heads a bill, without colons.
_bill_heads = r"(?:Invoice|Statement|Order|Quotation|Date|Invoice\s+date|Due|Due\s+date|Customer|Client|Account|Job|Ref|Terms|Period)"
BILL_HEADS = pattern(rf"(?:\A|(?<=\s)){_bill_heads}(?:\s+(?:[Nn]o|[Nn]umber)\.?)?:?\s+(?=\S)")
LEAST_HEADS = 3
INNER_WORDS = 3  # of a label inside a cell
ADDRESSED = pattern(  # a sender's address or telephone, which is the label of nothing
    r"\d+\w?,?\s+(?:[A-Z][\w’'-]+\s+){1,3}(?:Road|Street|Lane|Avenue|Place|Drive|Quay|Way|Square|Row|Close|Terrace|Court)\b|\+?0?\d[\d ()-]{6,}\Z"
)
LONGEST_CELL = 160  # letters of a form's cell
BLANK = pattern(
    r"(?:[€£$]\s?)?_{3,}(?:[\s,/]*(?:20)?_{2,})*|(?:\.\s?){7,}|…{3,}|\[\s*(?:[●•_]|insert\b[^\]]*|tbc|to be (?:confirmed|inserted|completed|agreed)[^\]]*|blank)?\s*\]"
    r"|\bTBC\b|\bto be (?:advised|inserted|confirmed)\b"
    r"|(?:(?<=[\n\t])|(?<=:\s))to be (?:assigned|appointed|nominated|named|agreed|decided|determined)(?=\s*(?:[\n\t]|\Z))",
    re.IGNORECASE,
)
LEFT_TO_BE = pattern(r"to\s+be\s+(?:assigned|appointed|nominated|named|agreed|decided|determined)\W*", re.IGNORECASE)
LED_TO = pattern(
    r"(?<=[.…\s])[ \t]*(?:\d{1,3}|[ivxl]{1,6})(?![\w.])(?=[ \t]*(?:\n|\Z|[A-Z\d]))"
)  # dots that lead to a page
BLACKED_OUT = pattern(r"█[█\s]*|\[(?:redacted|withheld)\]", re.IGNORECASE)
# "Name: Ann Venn Telephone:": a form's place for what reaches somebody, with nothing behind it.
NOTHING_BEHIND = pattern(
    r"(?:\A|\s)(?:tele)?(?:phone|fax)(?:\s+(?:no\.?|number))?\s*:[ \t]*(?=\n|\Z)|(?:\A|\s)(?:mobile|e-?mail)(?:\s+(?:no\.?|number|address))?\s*:[ \t]*(?=\n|\Z)",
    re.IGNORECASE,
)


def is_only_gap(words: str) -> bool:
    """True for words of which, but for what is left blank or blacked out, no more is there than a short name of what it is: "IBAN".

    >>> is_only_gap("IBAN ██████"), is_only_gap("£____"), is_only_gap("the Seller, ____ of Leeds")
    (True, True, False)
    """
    if BLANK.fullmatch(words.strip()) or LEFT_TO_BE.fullmatch(words.strip()):
        return True
    left = BLANK.sub("", BLACKED_OUT.sub("", words)).strip(" .,:;€£$/20")
    return len(left) < 4 or re.fullmatch(r"[A-Z]{2,5}", left) is not None


_quoted = r"[\"“”](?P<{0}>[^\"“”]{{2,60}})[\"”“]"
_definition = pattern(
    rf"(?:(?:\A(?:\s*[(\[]?[\dA-Za-z]{{1,3}}(?:\.\d{{1,3}})*[.)\]]?\s+)?(?:[Tt]he\s+)?|[\n;.:]\s*|\bIn this \w+,?\s+|\b[Tt]he\s+|\b[Tt]he first\s+){_quoted.format('name')}(?:\s*(?:and|or|,)\s*[\"“][^\"“”]{{2,60}}[\"”])?)\s*(?:\([^()]{{1,60}}\)\s*)?,?\s*"
    r"(?P<verb>(?:shall\s+|will\s+)?(?:means?\b|have\s+the\s+meanings?|has\s+the\s+meaning)|(?:is|are|includes?)\b|:)\s*(?:,?\s*in relation to[^,]{3,80},\s*)?",
)
_plain_definition = pattern(  # definitions of a list that sets its terms in bold: no quotation marks
    r"\A(?P<name>[A-Z][\w'’&/-]*(?:\s+(?:(?:of|and|the|for|to|in|or|per|on)\s+)?[A-Z][\w'’&/-]*){0,6})\s*(?:\([^()]{1,40}\)\s*)?"
    r"(?P<verb>(?:shall\s+)?means?\b|ha(?:s|ve)\s+the\s+meanings?|[–—]\s)\s*(?:,?\s*(?:for|in relation to)\s[^,]{2,60},\s*)?"
)
_inline = pattern(
    rf"\((?:(?:the|this|such|each,?\s+an?|an?|together,?\s+the|collectively,?\s+the|being\s+the|said)\s+)*{_quoted.format('name')}[^()]{{0,60}}\)"
)
TITLED = 900  # characters of a paragraph whose title is a label for what it says
_label_line = pattern(r"(?P<label>[A-Z][\w'’/&.,() -]{1,55}?)\s*(?::\s+|\t)(?=\S)")
_next_label = pattern(
    r"(?<=[a-z\d)]{2}[.;])\s+(?=[A-Z][\w'’/&,() -]{1,55}?:\s+\S)|\s+(?=(?:Our|Your|My)\s+(?:ref|reference)\b\.?\s*:\s+\S)"
    r"|(?<=\w)\s+(?=[A-Z][a-z]+(?:\s(?!plc\b|ltd\b)[a-z]+){1,3}:\s+\S)"
    r"|(?<=\w)\s+(?=(?:For|By|Signed|Agreed)(?:\s[a-z]+){0,3}\s[A-Z]\w+(?:\s[A-Z][\w.]+){0,3}:\s+\S)"  # "For the Mill: A. Venn For the House: B. Orr"
    r"|(?<=\d)\s+(?=[A-Z][a-z]{3,}:\s+\S)"  # "First seen: 2 May 2026 Discharged: 9 June 2026"
    r"|(?<=[\w)])\s+(?=(?:To|From|Date|Due|Cc|Subject|Re|Attn|By|Ref|Tel|Fax)\s?:\s+\S)"
    r"|\s+[·•|]\s+"  # "Owner: Finance · Version 4 · Next review: May 2028"
)
BEHIND_A_SENTENCE = 3  # words of a label that stands behind a sentence
_sentence_in_label = pattern(r"(?<=[a-z]{3})\.\s+(?=[A-Z])")
_number_only = pattern(r"[(\[]?\d{1,3}(?:\.\d{1,3})*[.)\]]?|\(?[a-z]\)")


@dataclass(frozen=True, slots=True)
class Sentence:
    """A sentence, its block, the headings above it and its own words in lower case."""

    span: Span
    block: int
    headings: str
    low: str


@dataclass(frozen=True, slots=True)
class Labelled:
    """A label and what stands opposite or after it; row: both together, for quoting."""

    label: str
    value: Span
    row: Span
    source: str  # "table" or "line"


@dataclass(frozen=True, slots=True)
class Definition:
    """A defined term. meaning: the words that define it; for inline ones, the sentence before its name."""

    name: str
    meaning: Span
    sentence: Span
    inline: bool


_leading = pattern(
    r"\A(?:(?:section|part|clause|article|chapter|item|line|box|field|no\.?)\s+[\dA-Z]{1,4}\s*[.:–—-]?\s+(?=[A-Z])|[A-Z][.)]?\s+(?=[A-Z][a-z])|[(\[]?\d{1,3}(?:\.\d{1,3})*[.)\]]?\s+(?!(?:jan|feb|mar|apr|may|june?|july?|aug|sept?|oct|nov|dec)[a-z]*\.?\s))",
    re.IGNORECASE,
)


LABEL_TAIL = pattern(
    r"[\s,]+(?:(?:EUR|GBP|USD|AUD|CAD|NZD|CHF|INR|SEK|NOK|DKK|[£€$₹])|(?:a|per|each)\s+(?:year|annum|month|quarter|week|day|hour)|p\.?\s?[am]\.?|once|excl?\.?\s+\w+|incl?\.?\s+\w+)\Z",
    re.IGNORECASE,
)


def bare_label(label: str) -> str:
    """A label without the currency, the period or the like that ends it: "Total EUR", "Fee a year"."""
    return LABEL_TAIL.sub("", label)


def plain_label(text: str) -> str:
    """A label without its number, brackets, colon and stars: "Section 3 Exclusions", "B. Scope" and "4.2 Term (years)"."""
    lead = _leading.match(text)
    if lead and (text[lead.end() : lead.end() + 1].isupper() or lead.group().strip("([ ")[:1].isdigit()):
        text = text[lead.end() :]
    text = re.sub(r"\([^()]*\)|[*:†]+", " ", text)
    return re.sub(r"\s+", " ", text).strip(" .,-–—")


def _counts(text: str) -> Iterator[Found[Quantity]]:
    for found in find_counts(text):
        yield Found(Quantity(found.value), found.span, found.reading)
    for m in TWICE.finditer(text):
        yield Found(Quantity(Decimal(2)), Span(*m.span()))


_opens_with_figure = pattern(r"[+–−-]?\s?(?:[£$€¥₹]|[A-Z]{2,3}\$?)?\s?\(?\d")
REQUIRED = pattern(r"(?:requirement|required|specification|specified|asked|call|wanted)s?\b", re.IGNORECASE)
OFFERED = pattern(
    r"(?:offer(?:ed)?|proposed|proposal|our (?:offer|product|response)|bid|tendered)\b",
    re.IGNORECASE,
)
FIGURE_ASKED = pattern(  # where the figure that is required begins
    r"\s*[:,]?\s*(?:\b(?:min(?:imum)?|max(?:imum)?|at\s+(?:least|most)|not\s+(?:more|less)\s+than|no\s+(?:more|less)\s+than|up\s+to|within|of)\b\.?|[≥≤<>])?\s*(?<![A-Za-z])\d",
    re.IGNORECASE,
)
MOST_ROWS_READ, ROW_WORDS = 40, 40  # of a table whose rows are read as sentences; of such a row
MORE_THAN_A_VALUE = pattern(
    r"[^\d\n]{0,12}\d[\d.,]*[^\n\d]*[a-z]{2,}(?:\s[a-z]+)*", re.IGNORECASE
)  # "74,200.00 EUR each"
_gap = pattern(r"[\s:]*")
HEADS_A_COLUMN = pattern(  # a first row that names columns, though it is set like the rows below it
    r"(?:item|parameter|particular|detail|property|feature|characteristic|subject|measure|metric)s?\t(?!.*\d[\d.,]*\s?(?:%|[a-z]{1,3}\b))[^:]*|quantity\t\D.*",
    re.IGNORECASE,
)


VALUE_STARTS = (
    "_value_starts"  # under which, where an earlier run has found them, passages hold where values of each type begin
)


class Passages:
    """One document's passages; everything is worked out once, when first asked for."""

    def __init__(self, document: Document) -> None:
        self.document = document
        self.text = document.text

    @cached_property
    def low(self) -> str:
        """The whole text in lower case."""
        return self.text.lower()

    def possible(self, phrases: Iterable[Phrase]) -> list[Phrase]:
        """The phrases that may stand somewhere in this document: most are ruled out at once."""
        return [p for p in phrases if p.may_stand_in(self.low)]

    @cached_property
    def _holding(self) -> dict[str, frozenset[int]]:
        return {}

    def places_of(self, phrase: Phrase) -> Sequence[int]:
        """The places, among `sentences` and after them `row_sentences`, of those that hold what a phrase needs, in order."""
        held: frozenset[int] | None = None
        for group in phrase.needed:
            some = frozenset().union(*(self._places_with(word) for word in group))
            held = some if held is None else held & some
            if not held:
                return ()
        return sorted(held) if held is not None else range(len(self._lows))

    def sentences_for(self, phrases: Iterable[Phrase]) -> Iterator[Sentence]:
        """The sentences in which one of some phrases may stand, in order."""
        places = sorted({p for phrase in phrases for p in self.places_of(phrase) if p < len(self.sentences)})
        return (self.sentences[p] for p in places)

    @cached_property
    def _lows(self) -> list[str]:
        return [s.low for s in (*self.sentences, *self.row_sentences)]

    def _places_with(self, word: str) -> frozenset[int]:
        if word not in self._holding:
            there = word in self.low
            self._holding[word] = (
                frozenset(i for i, low in enumerate(self._lows) if word in low) if there else frozenset()
            )
        return self._holding[word]

    @cached_property
    def headings(self) -> list[str]:
        """For each section, its own and its parents' headings, lower case."""
        out: list[str] = []
        for section in self.document.sections:
            above = out[section.parent] + " / " if section.parent >= 0 else ""
            out.append(above + section.name.lower())
        return out

    def headings_of(self, block: Block) -> str:
        return self.headings[block.section] if block.section >= 0 else ""

    @cached_property
    def blocks(self) -> list[tuple[int, Block]]:
        """Blocks of the text proper: no running headers."""
        return [(i, b) for i, b in enumerate(self.document.blocks) if b.kind != "furniture"]

    @cached_property
    def sentences(self) -> list[Sentence]:
        out = []
        for place, block in self.blocks:
            if block.kind == "table":
                continue
            start = block.span.start
            words = block.span.of(self.text)
            for span in sentences(words):
                if (
                    block.heading
                    and block.kind != "heading"
                    and plain_label(span.of(words)).lower().endswith(plain_label(block.heading).lower())
                    and span.start < 30 + len(block.heading)
                    and span.end - span.start < len(block.heading) + 24
                ):
                    continue  # the run-in heading itself
                out.append(
                    Sentence(
                        Span(start + span.start, start + span.end),
                        place,
                        self.headings_of(block),
                        span.of(words).lower(),
                    )
                )
        return out

    @cached_property
    def row_sentences(self) -> list[Sentence]:
        """Rows of two-part tables whose second part is more than a value, and short rows of wider ones with such a cell, read
        as sentences."""
        out = []
        for row in self.labelled:
            if row.source == "table" and len(row.value.of(self.text).split()) > 3:
                place = self.document.block_index_at(row.row.start)
                headings = self.headings_of(self.document.blocks[place])
                out.append(Sentence(row.row, place, headings, row.row.of(self.text).lower()))
        for place, block in self.blocks:
            table = self.document.tables[block.table] if block.kind == "table" else None
            if table is None or table.columns < 3 or table.rows > MOST_ROWS_READ:
                continue
            headings = self.headings_of(block)
            for row_place in range(table.header_rows, table.rows):
                cells = [c.span for c in table.row_cells(row_place) if c.span.end > c.span.start]
                if len(cells) > 2 and any(MORE_THAN_A_VALUE.match(c.of(self.text)) for c in cells[1:]):
                    whole = Span(min(c.start for c in cells), max(c.end for c in cells))
                    if len(whole.of(self.text).split()) <= ROW_WORDS:
                        out.append(Sentence(whole, place, headings, whole.of(self.text).lower()))
        return out

    @cached_property
    def _sentence_starts(self) -> list[int]:
        return [s.span.start for s in self.sentences]

    def sentence_at(self, offset: int) -> Sentence | None:
        """The sentence that holds an offset, None in tables."""
        place = bisect_right(self._sentence_starts, offset) - 1
        if place >= 0 and offset < self.sentences[place].span.end:
            return self.sentences[place]
        return None

    # -------------------------------------------------------------- typed values
    @cached_property
    def _values(self) -> dict[tuple[str, int], list[Found[Value]]]:
        return {}

    @cached_property
    def _all_values(self) -> dict[str, list[Found[Value]]]:
        return {}

    @cached_property
    def dollar(self) -> str:
        """The currency (ISO 4217) of a bare dollar sign in this document, "" where nothing tells it."""
        return usual_dollar(self.text)

    @cached_property
    def date_order(self) -> DateOrder:
        """The order in which this document writes the parts of dates in figures."""
        return date_order(self.text)

    def currency(self, sign: str) -> str | None:
        """The currency (ISO 4217) of a sign or code that stands over a column or in a caption; None of a "$" of nobody's."""
        return (self.dollar or None) if sign == "$" else SIGNS.get(sign, sign)

    @cached_property
    def finders(self) -> dict[str, Callable[[str], Iterator[Found[Value]]]]:
        """What finds the values of a type in words of this document, by its own order of dates and its own dollar."""
        return {
            "date": lambda t: find_dates(t, self.date_order),
            "money": lambda t: find_money(t, self.dollar if "$" in t else "USD"),
            "percent": find_percents,
            "number": find_quantities,
            "duration": find_durations,
            "count": _counts,
        }

    def values(self, kind: str) -> list[Found[Value]]:
        """All values of a type, left to right, with places in the linear text."""
        if kind not in self._all_values:
            self._all_values[kind] = [f for place in range(len(self._pieces)) for f in self._values_of(kind, place)]
        return self._all_values[kind]

    def _values_of(self, kind: str, place: int) -> list[Found[Value]]:
        """The values of a type in one paragraph or cell."""
        if (kind, place) not in self._values:
            if kind == "money" and self.is_spoken:
                self._values[kind, place] = sorted(
                    (*self._signed_money(place), *self._spoken_money(place)), key=lambda f: f.span
                )
                return self._values[kind, place]
            piece = self._pieces[place]
            found = [
                Found(v.value, Span(piece.start + v.span.start, piece.start + v.span.end), v.reading)
                for v in self.finders[kind](piece.of(self.text))
            ]
            self._values[kind, place] = self._lone(found, place) if kind == "count" else found
        return self._values[kind, place]

    @cached_property
    def is_spoken(self) -> bool:
        """True for a transcript: speakers leave out the currency, "we paid five million"."""
        return any(m.kind == "speaker" for m in self.document.marks)

    @cached_property
    def usual_currency(self) -> str | None:
        """The currency of nearly all the document's sums."""
        told = [
            f.value
            for place in range(len(self._pieces))
            for f in self._signed_money(place)
            if isinstance(f.value, Money) and f.value.currency
        ]
        sums = [v for v in told if v.amount >= A_SUM] or told  # "one euro seventeen" is a rate of exchange
        count = Counter(v.currency for v in sums)
        if not count:  # "Amount EUR" over a column, "Total £" beside a sum
            marks = Counter(self.currency(m.group()) for m in CURRENCY_ALONE.finditer(self.text))
            if marks:
                return marks.most_common(1)[0][0]
            return next((code for code, words in COINS.items() if re.search(words, self.text)), None)
        top, times = count.most_common(1)[0]
        return top if times >= MOSTLY_USED * sum(count.values()) else None

    def _signed_money(self, place: int) -> list[Found[Value]]:
        """The sums of one paragraph or cell that stand with a sign or code."""
        if ("signed", place) not in self._values:
            piece = self._pieces[place]
            self._values["signed", place] = [
                Found(v.value, Span(piece.start + v.span.start, piece.start + v.span.end), v.reading)
                for v in self.finders["money"](piece.of(self.text))
            ]
        return self._values["signed", place]

    def _spoken_money(self, place: int) -> list[Found[Value]]:
        """Large plain numbers in a paragraph of a transcript as sums in its usual currency; none where it has no usual one."""
        if self.usual_currency is None:
            return []
        piece, currency = self._pieces[place], self.usual_currency
        taken = [f.span for kind in ("date", "percent", "duration", "number") for f in self._values_of(kind, place)]
        taken += [f.span for f in self._signed_money(place)]
        out: list[Found[Value]] = []
        times = ""  # what the sum before is counted in
        for found in _counts(piece.of(self.text)):
            span = Span(piece.start + found.span.start, piece.start + found.span.end)
            words = span.of(self.text)
            if any(span.overlaps(t) for t in taken):
                scale = SCALE_BEHIND.search(words)
                times = scale.group().lower() if scale else ""
                continue
            if found.value.value >= LEAST_SPOKEN and not OF_THINGS.match(self.text, span.end):
                said = f"no currency said; taken as {currency}, the usual one here"
                out.append(Found(Money(found.value.value, currency), span, said))
                scale = SCALE_BEHIND.search(words)
                times = scale.group().lower() if scale else ""
            elif times and PARTED.search(words) and not NOUN_BEHIND.match(self.text, span.end):
                said = f"{times} and {currency} as for the sum before"
                out.append(Found(Money(found.value.value * SCALES[times], currency), span, said))
        return out

    def _lone(self, counts: list[Found[Value]], place: int) -> list[Found[Value]]:
        """Counts that are no part of a date, a sum, a share or a length of time."""
        if not counts:
            return []
        taken = [f.span for kind in ("date", "money", "percent", "duration") for f in self._values_of(kind, place)]
        out = []
        for count in counts:
            coded = re.search(r"[A-Za-z][-–]?\Z", self.text[max(0, count.span.start - 2) : count.span.start])
            if not coded and not any(count.span.overlaps(t) for t in taken):
                out.append(count)
        return out

    @cached_property
    def _pieces(self) -> list[Span]:
        """Paragraphs and cells, left to right: no value goes beyond one."""
        out: list[Span] = []
        for _, block in self.blocks:
            out += [c.span for c in self.document.tables[block.table].cells] if block.kind == "table" else [block.span]
        return sorted(out)

    def values_in(self, kind: str, span: Span) -> list[Found[Value]]:
        """Values of a type that lie in `span`; only the paragraphs and cells there are looked through."""
        known = self.__dict__.get(VALUE_STARTS, {}).get(kind)
        if known is not None:
            first = bisect_left(known, span.start)
            if first == len(known) or known[first] >= span.end:
                return []
        place = max(0, bisect_right(self._pieces, span.start, key=lambda p: p.start) - 1)
        out: list[Found[Value]] = []
        while place < len(self._pieces) and self._pieces[place].start < span.end:
            out += [f for f in self._values_of(kind, place) if f.span.start >= span.start and f.span.end <= span.end]
            place += 1
        return out

    @cached_property
    def section_names(self) -> frozenset[str]:
        """The names of the sections in lower case, without the point behind them."""
        return frozenset(s.name.lower().strip(" .") for s in self.document.sections)

    @cached_property
    def long_section_names(self) -> frozenset[str]:
        """Those of more than a few letters, as they stand."""
        return frozenset(s.name.lower() for s in self.document.sections if len(s.name) > 4)

    @cached_property
    def gaps(self) -> list[tuple[Span, str]]:
        """Blank form lines and blacked-out stretches, with their state."""
        body = self.text[: self.document.body_end]
        out = [(Span(m.start(), m.start() + len(m.group().rstrip())), "redacted") for m in BLACKED_OUT.finditer(body)]
        out += [(Span(*m.span()), "blank") for m in BLANK.finditer(body) if not LED_TO.match(body, m.end())]
        out += [
            (Span(m.end() - 1, m.end()), "blank") for m in NOTHING_BEHIND.finditer(body) if self._ends_there(m.end())
        ]
        return sorted(out)

    def _ends_there(self, place: int) -> bool:
        """True where a paragraph ends that is no cell, and nothing that could be a number or address follows it."""
        block = self.document.block_at(place - 1)
        if block is None or block.kind == "table" or self.text[place : block.span.end].strip():
            return False
        following = self.text[block.span.end : block.span.end + 24].strip()
        return not re.match(r"[+(]?\d[\d ()/-]{4,}|\S+@", following)

    def gaps_in(self, span: Span) -> list[tuple[Span, str]]:
        first = bisect_left(self.gaps, span.start, key=lambda g: g[0].start)
        last = bisect_left(self.gaps, span.end, key=lambda g: g[0].start)
        return [g for g in self.gaps[first:last] if g[0].end <= span.end + 1]  # a sentence may end inside a row of dots

    # -------------------------------------------------------------- labels
    @cached_property
    def title_start(self) -> int:
        """Where the paper's title begins; 0 where it has none."""
        from yarnex.core.terms.identity import identify

        title = identify(self.document).title
        return title.span.start if title is not None else 0

    @cached_property
    def labelled(self) -> list[Labelled]:
        """Labels with their values: rows of two-part tables, and lines that read "Label: value"."""
        out: list[Labelled] = []
        above: Block | None = None
        for place, block in self.blocks:
            titled, above = above, block if block.kind == "heading" else None
            if block.kind == "table":
                out += self._table_rows(block)
                continue
            text = block.span.of(self.text)
            start = block.span.start
            if (
                titled is not None
                and block.kind == "paragraph"
                and (part := self._under_title(titled, block)) is not None
            ):
                out.append(part)
            if block.kind == "heading" or len(text) > 900:
                continue
            skip = len(block.number) + 1 if block.number and text.startswith(block.number.split("(")[0] or "\0") else 0
            skip = len(re.match(r"[\s.)]*", text[skip:]).group()) + skip if skip else 0  # type: ignore[union-attr]
            m = _label_line.match(text, skip)
            other = _sentence_in_label.search(m["label"]) if m else None
            if other is not None:
                m = _label_line.match(text, skip + other.end())  # "It was not audited. Next report: 11 May 2027"
                m = m if m and len(m["label"].split()) <= BEHIND_A_SENTENCE else None
            if m and m.end() < len(text) and m["label"].count("(") == m["label"].count(")"):
                signed = OF_SIGNING.search(m["label"]) is not None or "___" in text  # the day is that of a signature
                ends = [
                    n.start()
                    for n in _next_label.finditer(text, m.end())
                    if not (signed and text.startswith("Date", n.end()))
                ]
                ends.append(len(text))
                row = block.span if other is None else Span(start + m.start(), block.span.end)
                out.append(Labelled(plain_label(m["label"]), Span(start + m.end(), start + ends[0]), row, "line"))
                for begin, end in pairwise(ends):  # "Carding: £900. Washing: £80."
                    at = begin + len(text[begin:end]) - len(text[begin:end].lstrip(" \n·•|"))
                    if (n := _label_line.match(text, at)) and n.end() < end:
                        row = Span(start + at, start + end)
                        out.append(Labelled(plain_label(n["label"]), Span(start + n.end(), start + end), row, "line"))
            elif block.heading and len(text) < TITLED and text.find(block.heading) >= 0:
                at = text.find(block.heading) + len(block.heading)
                at += len(re.match(r"[\s.:–—-]*", text[at:]).group())  # type: ignore[union-attr]
                if at < len(text):
                    end = self._end_of_items(place) if text.rstrip().endswith(":") else block.span.end
                    row = Span(block.span.start, end)
                    out.append(Labelled(plain_label(block.heading), Span(start + at, end), row, "heading"))
        return out

    def _end_of_items(self, place: int) -> int:
        """Where the items end that a paragraph leads to."""
        blocks = self.document.blocks
        end, level = blocks[place].span.end, blocks[place].level
        for after in blocks[place + 1 :]:
            if after.kind != "item" or 0 < after.level <= level or after.span.end - blocks[place].span.start > TITLED:
                break
            end = after.span.end
        return end

    def _under_title(self, title: Block, block: Block) -> Labelled | None:
        """What a title is the label of: "Guarantee" above "24 months from the test, not beyond 30 from delivery." """
        first = next(iter(sentences(block.span.of(self.text), semicolons=False)), None)
        label = plain_label(title.heading or title.span.of(self.text))
        if first is None or not label or len(label.split()) > TITLE_WORDS:
            return None
        value = Span(block.span.start + first.start, block.span.start + first.end)
        words = value.of(self.text)
        if (
            len(words) > LONGEST_VALUE
            or not OPENS_WITH_VALUE.match(words)
            or FINITE.search(words)
            or words.rstrip().endswith(":")
        ):
            return None
        return Labelled(label, value, Span(title.span.start, value.end), "heading")

    def _table_rows(self, block: Block) -> Iterator[Labelled]:
        table = self.document.tables[block.table]
        if (cards := self._figures_over_captions(table)) is not None:
            yield from cards
            return
        if (columns := self.compliance(table)) is not None:
            yield from self._offered(table, *columns)
            return
        paired = self._in_pairs(table)
        inside = self._labels_inside(table)
        yield from inside.values()
        beside = self._is_side_form(table)
        for row in range(table.header_rows):
            head = table.row_cells(row)
            yield from self._bill_heads(head[0]) if len(head) == 1 else ()
        for row in range(0 if beside else table.header_rows, table.rows):
            if beside:
                yield from self._pairs_of(table, row, 1)
                continue
            if inside and any(c in inside for c in ((row, c.column) for c in table.row_cells(row))):
                continue
            if paired:
                yield from self._pairs_of(table, row)
                continue
            cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
            named = [(c, m) for c in cells if (m := self.document.mark_at("label", c.span.start))]
            for cell, mark in named:
                start = mark.span.end + len(_gap.match(self.text, mark.span.end).group())  # type: ignore[union-attr]
                if start < cell.span.end:
                    label = plain_label(mark.span.of(self.text))
                    yield Labelled(label, Span(start, cell.span.end), cell.span, "table")
            if named:
                continue
            if len(cells) >= 3 and _number_only.fullmatch(cells[0].span.of(self.text)):
                cells = cells[1:]
            if len(cells) == 2 and ADDRESSED.match(cells[0].span.of(self.text)):
                continue
            if len(cells) == 2:
                label = plain_label(cells[0].span.of(self.text))
                if row == 0 and table.rows > 2 and HEADS_A_COLUMN.fullmatch(f"{label}\t{cells[1].span.of(self.text)}"):
                    continue
                if label and len(label) < 70:
                    yield Labelled(label, cells[1].span, Span(cells[0].span.start, cells[1].span.end), "table")
                    yield from self._inner_labels(cells[1])

    def _inner_labels(self, cell: Cell) -> list[Labelled]:
        """The labels inside a cell that holds several: "Seller: A. Venn. Buyer: Weir Mills plc."."""
        words = cell.span.of(self.text)
        if words.count(":") < 2 or _label_line.match(words) is None:
            return []
        starts = [0, *(m.end() for m in _next_label.finditer(words)), len(words)]
        out = []
        for begin, end in pairwise(starts):
            m = _label_line.match(words, begin)
            if m is None or m.end() >= end or len(m["label"].split()) > INNER_WORDS:
                return []
            value = words[m.end() : end].rstrip(" .;,\n")
            out.append(
                Labelled(
                    plain_label(m["label"]),
                    Span(cell.span.start + m.end(), cell.span.start + m.end() + len(value)),
                    cell.span,
                    "line",
                )
            )
        return out if len(out) > 1 else []

    def _bill_heads(self, cell: Cell) -> list[Labelled]:
        """What a line that heads a bill says, where three or more of its words are labels."""
        words = cell.span.of(self.text)
        found = list(BILL_HEADS.finditer(words))
        if len(found) < LEAST_HEADS or found[0].start():
            return []
        out = []
        for head, end in zip(found, [*(m.start() for m in found[1:]), len(words)], strict=True):
            value = Span(cell.span.start + head.end(), cell.span.start + len(words[:end].rstrip()))
            if value.end > value.start:
                out.append(Labelled(plain_label(head.group()), value, cell.span, "line"))
        return out

    def _figures_over_captions(self, table: Table) -> list[Labelled] | None:
        """Two rows of which one holds figures and the other what they are called, as on a slide; None for other tables."""
        if table.rows != 2 or table.columns < 2:
            return None
        rows = [[c for c in table.row_cells(r) if c.span.end > c.span.start] for r in (0, 1)]
        figures = [all(_opens_with_figure.match(c.span.of(self.text)) for c in row) for row in rows]
        named = [all(not re.search(r"\d", c.span.of(self.text)) for c in row) for row in rows]
        if len(rows[0]) != len(rows[1]) or len(rows[0]) < 2:
            return None
        if not ((figures[0] and named[1]) or (figures[1] and named[0])):
            return None
        values, labels = rows if figures[0] else reversed(rows)
        return [
            Labelled(plain_label(name.span.of(self.text)), value.span, value.span, "table")
            for name, value in zip(labels, values, strict=True)
        ]

    def compliance(self, table: Table) -> tuple[int, int] | None:
        """The columns of what is required and of what is offered, where a table sets them side by side."""
        if not table.header_rows or table.columns < 3:
            return None
        heads = {c.column: c.span.of(self.text) for c in table.row_cells(table.header_rows - 1)}
        asked = next((c for c, words in heads.items() if REQUIRED.match(words)), None)
        given = next((c for c, words in heads.items() if OFFERED.match(words)), None)
        return (asked, given) if asked is not None and given is not None else None

    def is_required(self, span: Span) -> bool:
        """True for what stands in the column of what is required, beside one of what is offered: it is nobody's offer."""
        found = self.document.cell_at(span)
        columns = self.compliance(found[0]) if found is not None else None
        return found is not None and columns is not None and found[1].column == columns[0]

    def _offered(self, table: Table, asked: int, given: int) -> Iterator[Labelled]:
        """What is offered under the name of what is required: "Warranty 24 months | 36 months" is a warranty of 36 months."""
        for row in range(table.header_rows, table.rows):
            name, value = table.at(row, asked), table.at(row, given)
            if name is None or value is None or value.span.end <= value.span.start:
                continue
            label = plain_label(FIGURE_ASKED.split(name.span.of(self.text), maxsplit=1)[0])
            if label and len(label) < 70:
                yield Labelled(label, value.span, Span(name.span.start, max(name.span.end, value.span.end)), "table")

    def _in_pairs(self, table: Table) -> bool:
        """True for a form of four or six columns in which labels and values take turns."""
        if table.columns not in (4, 5, 6, 7) or table.header_rows > 1:
            return False
        rows = [[c for c in table.row_cells(r) if c.span.end > c.span.start] for r in range(table.rows)]
        whole = [row for row in rows if len(row) in (4, 6)]
        if not whole or len(whole) < 0.5 * len(rows):
            return False
        labels = [c.span.of(self.text) for row in whole for c in row[::2]]
        values = [c.span.of(self.text) for row in whole for c in row[1::2]]
        as_labels = all(
            len(t.split()) <= 6 and not re.search(r"\d", t) and re.search(r"[A-Za-z]{2}", t) for t in labels
        )
        typed = sum(bool(re.search(r"\d", t)) for t in values)
        colons = sum(t.rstrip().endswith(":") for t in labels)
        return as_labels and (
            colons > 0.5 * len(labels) or (typed >= 0.4 * len(values) and len(set(labels)) == len(labels))
        )

    def _labels_inside(self, table: Table) -> dict[tuple[int, ...], Labelled]:
        """The cells of a form that each read "Label: value", by row and column, and the further labels of such a cell.

        Where few of the table's cells do: those of rows in which every cell does, and those at the head of a paper that read
        "No. 4471", "Date: 11 May 2026" or "To: A. Venn" beside the sender's name and address.
        """
        cells = [c for r in range(table.rows) for c in table.row_cells(r) if c.span.end > c.span.start]
        found: dict[tuple[int, ...], Labelled] = {}
        for cell in cells:
            words = cell.span.of(self.text)
            m = _label_line.match(words) if len(words) < LONGEST_CELL and "\n" not in words.strip() else None
            if m is None or not words[m.end() :].strip():
                continue
            ends = [n.start() for n in _next_label.finditer(words, m.end())] + [len(words)]
            value = Span(cell.span.start + m.end(), cell.span.start + ends[0])
            found[cell.row, cell.column] = Labelled(plain_label(m["label"]), value, cell.span, "line")
            for begin, end in pairwise(ends):  # "Date of birth: 3 June 1968   Our ref: TA/2219"
                at = begin + len(words[begin:end]) - len(words[begin:end].lstrip())
                if (n := _label_line.match(words, at)) and n.end() < end:
                    value = Span(cell.span.start + n.end(), cell.span.start + end)
                    found[cell.row, cell.column, at] = Labelled(plain_label(n["label"]), value, cell.span, "line")
        places = {key[:2] for key in found}
        if len(places) >= 2 and len(places) >= 0.6 * len(cells):
            return found
        if table.columns > 3 or table.header_rows:
            return {}
        whole = {
            r
            for r in range(table.rows)
            if len(row := [c for c in cells if c.row == r]) > 1 and all((r, c.column) in places for c in row)
        }
        known = {key: row for key, row in found.items() if key[0] in whole}
        if not self._heads_a_paper(table):
            return known
        head = {key: row for key, row in found.items() if HEAD_LABEL.fullmatch(row.label)}
        for cell in cells:
            m = HEAD_NUMBER.match(cell.span.of(self.text))
            if m is not None and (cell.row, cell.column) not in head:
                value = Span(cell.span.start + m.end(), cell.span.end)
                head[cell.row, cell.column] = Labelled(plain_label(m.group()), value, cell.span, "line")
        return known | head if len(head) > 1 else known

    def _heads_a_paper(self, table: Table) -> bool:
        """True for what stands near the top of a paper, or right below a title, as on each bill of a file of bills."""
        place = self.document.block_index_at(table.span.start)
        before = self.document.blocks[place - 1] if place else None
        return table.span.start <= OPENING or (before is not None and before.kind == "heading")

    def _is_side_form(self, table: Table) -> bool:
        """True for three columns of which the last two are labels and their values, as beside an address."""
        if table.columns != 3 or table.header_rows > 1 or table.rows < 2:
            return False
        names = [c.span.of(self.text) for r in range(table.rows) for c in table.row_cells(r) if c.column == 1]
        values = [c.span.of(self.text) for r in range(table.rows) for c in table.row_cells(r) if c.column == 2]
        first = [c.span.of(self.text) for r in range(table.rows) for c in table.row_cells(r) if c.column == 0]
        as_labels = all(len(n.split()) <= 4 and not re.search(r"\d", n) and n[:1].isupper() for n in names)
        typed = sum(bool(re.search(r"\d", v)) for v in values)
        return (
            as_labels
            and len(names) == len(values) == table.rows
            and len(set(names)) == len(names)
            and typed >= 0.6 * len(values)
            and not any(re.fullmatch(r"[\d.,%£$€ ]+", v) for v in values)
            and (len(first) < table.rows or ":" in " ".join(first))
        )

    def _pairs_of(self, table: Table, row: int, start: int = 0) -> Iterator[Labelled]:
        cells = [c for c in table.row_cells(row) if c.span.end > c.span.start and c.column >= start]
        for name, value in zip(cells[::2], cells[1::2], strict=False):
            label = plain_label(name.span.of(self.text))
            if label and len(label) < 70:
                kind = "line" if start else "table"
                yield Labelled(label, value.span, Span(name.span.start, value.span.end), kind)

    # -------------------------------------------------------------- definitions
    @cached_property
    def definitions(self) -> list[Definition]:
        out: list[Definition] = []
        for _, block in self.blocks:
            if block.kind == "table":
                continue
            text = block.span.of(self.text)
            start = block.span.start
            plain = _plain_definition.match(text)
            if plain and plain.end() < len(text) and block.kind != "heading":
                whole = Span(start + plain.end(), start + len(text.rstrip()))
                out.append(Definition(plain["name"], whole, Span(start, whole.end), False))
            for m in _definition.finditer(text):
                sentence = next(
                    (s for s in sentences(text, semicolons=False) if s.start <= m.start("name") < s.end), None
                )
                # a definition may run over several sentences: the block's end, or the next definition's start
                following = _definition.search(text, m.end())
                end = following.start("name") - 1 if following else len(text)
                means = "mean" in m["verb"]
                stop = end if means else (sentence.end if sentence else end)
                stop = max(stop, m.end())
                piece = (
                    re.sub(r"\s+(?:The|the|and|In this \w+,?)\Z|\s+\Z", "", text[m.end() : stop])
                    if following
                    else text[m.end() : stop].rstrip()
                )
                whole = Span(start + m.start("name") - 1, start + m.end() + len(piece))
                if piece:
                    out.append(
                        Definition(m["name"].strip(), Span(start + m.end(), start + m.end() + len(piece)), whole, False)
                    )
            for m in _inline.finditer(text):
                sentence = next((s for s in sentences(text) if s.start <= m.start() < s.end), None)
                if sentence is not None:
                    before = Span(start + sentence.start, start + m.start())
                    out.append(
                        Definition(m["name"].strip(), before, Span(start + sentence.start, start + sentence.end), True)
                    )
        return out

    def defined(self, name: str) -> Definition | None:
        """The definition of exactly this term, in any case; a full one before an inline one."""
        return self._defined.get(name.lower())

    @cached_property
    def _defined(self) -> dict[str, Definition]:
        out: dict[str, Definition] = {}
        for definition in sorted(self.definitions, key=lambda d: d.inline):
            out.setdefault(definition.name.lower(), definition)
        return out

    # -------------------------------------------------------------- parties
    @cached_property
    def roles(self) -> list[tuple[PartyRole, Span, Span]]:
        """Parties with the role that the document gives them: role, span of the name, span to quote."""
        out = []
        for _, block in self.blocks:
            if block.kind in ("table", "heading"):
                continue
            for found in find_party_roles(block.span.of(self.text)):
                start = block.span.start
                span = Span(start + found.span.start, start + found.span.end)
                sentence = self.sentence_at(span.start)
                out.append((found.value, span, sentence.span if sentence else block.span))
        for found in find_sides(self.text[:CAPTION_WITHIN]):
            sentence = self.sentence_at(found.span.start)
            out.append((found.value, found.span, sentence.span if sentence else found.span))
        named = {party.role for party, _, _ in out}
        for row in self.labelled:
            words = row.value.of(self.text)
            first = (
                next(find_organisations(words), None) if row.source == "table" and len(row.label.split()) <= 3 else None
            )
            if first is not None and first.span.start == 0 and row.label not in named and row.label[:1].isupper():
                span = Span(row.value.start, row.value.start + first.span.end)
                out.append((PartyRole(first.value.name, row.label), span, row.row))
        return out
