"""The values of a wanted type that a line holds: what `core.values` finds, and what only a table or a role can tell.

A bare figure in a cell takes its currency, scale or unit from the heading of its column or from the table's caption;
a count is no clause number, year, page or part of another value; a role ("the Landlord") stands for its party.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import replace
from datetime import date
from decimal import Decimal
from functools import cached_property

from yarnex.core.document import Span, Table
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.terms.lines import Line
from yarnex.core.terms.loose_values import DAY_ALONE, MILLIONS, OF_THINGS, SOME_MILLIONS, days_without_year, fractions
from yarnex.core.terms.passages import Passages
from yarnex.core.values import (
    DateValue,
    Duration,
    Found,
    ListOf,
    Money,
    Party,
    Percent,
    Quantity,
    Schedule,
    Value,
    YesNo,
    find_organisations,
    find_quantities,
)
from yarnex.core.values.money import CODES, SIGNS
from yarnex.core.values.numbers import WORDS, read_digits, read_number
from yarnex.core.words import stem
from yarnex.core.words.thesaurus import known_thesaurus

BARE = pattern(r"(?P<open>[(\[])?\s*(?P<minus>[-−–])?\s*(?P<digits>\d[\d.,  '’]*)\s*(?P<close>[)\]])?(?:\s*[*†‡])?")
REFERENCE = pattern(
    r"(?:\b(?:clauses?|sections?|articles?|paragraphs?|parts?|schedules?|annex(?:es)?|appendix|exhibits?|items?|notes?|pages?|conditions?|rules?|provisions?|no\.?|nos\.?|number|numbered|ref\.?"
    r"|regulations?|tables?|figures?|suites?|units?|stages?|phases?|series|version|endorsements?|exclusions?|premises|extensions?|lines?|steps?|questions?|lots?|zones?|floors?|levels?|rooms?|crates?|boxes|box|bays?|gates?|sheds?|years?|month|week|day|quarter)"
    r"(?:\s+[\dA-Z][\w.()]*\s*(?:,|and|or|to|–|-))*\s*|[#§/]|\b[A-Z]{1,5}[-–]?|\d[.:/-])\Z",
    re.IGNORECASE,
)
MONEY_HEAD = pattern(
    r"\b(?:amount|price|cost|fee|fees|total|sum|charge|paid|due|balance|rent|premium|limit|value|presented|allowed|instalment|payment|interest|capital|estimate|excess|deductible|retention|deposit|insured|discount|rebate|levy|cover)s?\b",
    re.IGNORECASE,
)
# "by Wednesday 19 August, as the board meets on the 20th"
THE_NTH = pattern(
    r"\b(?:on|by|from|until|to|and)\s+(?P<nth>the\s+(?P<day>[12]?\d|3[01])(?:st|nd|rd|th))\b(?!\s+(?:of\b|\w*day\b|[A-Z]|anniversary|century|floor))"
)
# Heads of a table of rates of exchange, "For €1", and the labels of its rows.
OF_ONE = pattern(
    r"\b(?:for|per|to)\s+(?:(?:[€£$]|EUR|GBP|USD)\s?1(?![\d.,])|1(?:\.0+)?\s?(?:[€£$]|EUR|GBP|USD|euro|pound|dollar)\b)",
    re.IGNORECASE,
)
A_CURRENCY = pattern(
    r"(?:[A-Z]{2,3}\s)?(?:\w+\s){0,2}(?:dollars?|pounds?(?:\s+sterling)?|euros?|kron(?:e|a|or|er)|francs?|yen|rupees?|yuan|renminbi|rand|zloty|forint|lira)(?:\s+\([A-Z]{3}\))?|[A-Z]{3}/[A-Z]{3}",
    re.IGNORECASE,
)
# Columns of a workbook that hold sums, though no currency is named in it.
OF_LEDGER = pattern(
    r"\b(?:net|gross|vat|gst|tax|amount|total|price|cost|fee|balance|debit|credit|paid|due|value|rent|premium|salary|budget|spend|charge)s?\b",
    re.IGNORECASE,
)
IN_PENCE = pattern(r"[(,]\s*(?P<unit>p|pence|c|cents?)(?:\s+per\s+share)?\s*\)?\s*\Z")
BORN = pattern(r"\b(?:birth|born(?:\s+on)?|d\.?o\.?b\.?)\W*\Z", re.IGNORECASE)
BEHIND = pattern(r"\b(?:had|was|were|did|ago|since|\w{2,}ed)\b[^.;]*\Z", re.IGNORECASE)
AHEAD = pattern(
    r"\bby\s+(?:(?:noon|midnight|close\s+of\s+business|the\s+end\s+of|\d[\d.:]*\s*[ap]\.?m\.?)\s+(?:on\s+|of\s+)?)?(?:\w+day,?\s+)?(?:the\s+)?\Z"
    r"|\b(?:until|till|before|not\s+later\s+than|no\s+later\s+than|must|shall|will|due|deadline|expires?|lapses?)\b[^.;]*\Z",
    re.IGNORECASE,
)
WORKBOOKS = ("csv", "tsv", "xlsx", "ods")
TOTAL = pattern(r"\b(?:total|sum)s?\b", re.IGNORECASE)
FIGURES = pattern(r"\d[.,]\d{2}\b|\d[,.' ]\d{3}\b")  # pence or thousands: a sum rather than a count
NOTHING = pattern(r"nil|none|free|waived|no\s+charge|free\s+of\s+charge", re.IGNORECASE)
YEAR = pattern(r"(?:19|20)\d\d")
SCALE = pattern(
    r"(?P<thousand>['’‘]000s?\b|\bthousands?\b|(?<=[€£$])\s?(?:k|000s?)\b)|(?P<million>\bmillions?\b|(?<=[€£$])\s?mn?\b)|(?P<billion>\bbillions?\b|(?<=[€£$])\s?bn\b)|(?P<lakh>\blakhs?\b)|(?P<crore>\bcrores?\b)",
    re.IGNORECASE,
)
HOUSE_NUMBER = pattern(r"(?<![\w.,/-])\d{1,5}[A-Za-z]?\s+\Z")  # what follows it is a street
STREET = pattern(
    r"[a-z]?,?\s+(?:[A-Z][\w’'-]+\s+){1,3}(?:Street|Road|Lane|Avenue|Square|Quay|Terrace|Place|Drive|Way|Row|Close|Court|Crescent|Boulevard|Parade|Hill|Wharf|Gate|Yard|Mews|Walk|Park|House|St|Rd|Ave)\b"
)
UNIT_CELL = pattern(
    r"(?:[£€$¥₹]|US\$|NZ\$|A\$|Rs\.?|[A-Z]{3})\s?(?:[’']?000s?|m|mn|million|bn|billion|k|thousand)?", re.IGNORECASE
)
PENCE = pattern(r"[-−(]?\d[\d,. ’']*[.,]\d\d\)?")
PENCE_THERE = pattern(r"(?<![\d.,])\d[\d,.’']*[.,]\d\d(?![\d.,])")
BILLED = 3  # sums of a bill, at the least
OF_A_BILL = pattern(r"\b(?:total|net|vat|gst|tax|to\s+pay|due|balance|subtotal|sub-total)\b", re.IGNORECASE)
PAID_EACH = pattern(
    r"\b(?:(monthly|yearly|annual|annually|weekly|daily|quarterly|hourly)|(?:per|an?|each)\s+(?:(?:lease|contract|policy|calendar|financial|fiscal|licen[cs]e)\s+)?(month|year|annum|week|day|quarter|hour))\b|\b(p\.?a)\b",
    re.IGNORECASE,
)
EACH = {
    "monthly": "month", "yearly": "year", "annual": "year", "annually": "year", "weekly": "week", "daily": "day", "quarterly": "quarter",
    "hourly": "hour", "month": "month", "year": "year", "annum": "year", "week": "week", "day": "day", "quarter": "quarter", "hour": "hour",
    "p.a": "year", "pa": "year",
}  # fmt: skip
# The figures under or beside it are percentages; "GST 15%" tells one of its own.
OF_PERCENTS = pattern(r"(?<!\d)(?<!\d\s)%|(?<!\d)(?<!\d\s)\bper\s?cent\b|\bpercentage\b", re.IGNORECASE)
OF_A_DAY = ("correspondence", "record", "minutes", "study")  # sheets of papers that tell of the days around their date
SCALES = {"thousand": 1_000, "million": 1_000_000, "billion": 1_000_000_000, "lakh": 100_000, "crore": 10_000_000}
TIME_HEAD = pattern(
    r"(?<!\bper )(?<!\ba )(?<!\beach )\b(?P<unit>hours?|business days?|working days?|days?|weeks?|months?|years?|minutes?)\b",
    re.IGNORECASE,
)
_sign = pattern(
    rf"(?:{'|'.join(re.escape(s) for s in sorted(SIGNS, key=len, reverse=True))}|\b(?:{'|'.join(CODES)})\b)"
)
_sign_of_all = pattern(rf"(?:{_sign.pattern})(?!\s?(?!000s?\b)[\d(])")  # of no sum of its own: "all prices in €"
_person = pattern(
    r"(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof(?:essor)?|Sir|Dame|Lord|Lady|Hon)\.?\s+)?(?:[A-Z][a-zà-ÿ]+(?:[-’'][A-Z][a-zà-ÿ]+)*|[A-Z]\.)(?:\s+(?:(?:de|van|von|der|den|la|le|du|O[’']|Mac|Mc)\s*)?[A-Z][\wà-ÿ]*(?:[-’'][A-Z]?[\wà-ÿ]+)*){1,3}"
)
LABEL_BEHIND = pattern(r"\s+(?:Title|Name|By|Its|Date|Signature|Position|Tel|Email|Phone)\Z")
# "..., and the Executive six."
AND_SO_MANY = pattern(
    rf"[^.;]{{0,40}}?\band\s+(?!(?:in|under|of)\b)(?:[\w’'-]+\s+){{1,5}}?(?<!clause\s)(?<!section\s)(?<!schedule\s)(?<!part\s)(?<!item\s)(?<!page\s)(?<!article\s)(?<!no\s)(?P<count>{WORDS}|\d{{1,3}})\s*(?=[.;,)]|\Z)",
    re.IGNORECASE,
)
# "... settled by one arbitrator."
COUNTS_ONE = pattern(r"\b(?:by|before|with|only|has|have|had|are|is|be|of|includes?)\s+\Z", re.IGNORECASE)
ONE_THING = pattern(r"\s+(?!(?:another|other|of|or|and|party|year|month|day|half)\b)[a-z]{4,}\s*(?:[.;,)]|\Z)")
PRINTED_NUMBER = pattern(
    r"\W*(?:(?:clause|section|article|part|item|no\.?)\s+)?(?:\d[\d.]*|[A-Za-z]{1,4}(?=[.)]))[.)]*\s", re.IGNORECASE
)
SOLE = pattern(r"\b(?:an?|the)\s+(?P<one>sole|single)\s+[a-z]{4,}", re.IGNORECASE)
NOR_MORE = pattern(
    rf"\b(?P<count>{WORDS}|\d{{1,3}})(?:\s+\([^)]{{1,12}}\))?,?\s+(?:nor|or|and\s+not|but\s+not|and\s+no|but\s+no)\s+(?:more|later|longer|earlier|less)\s+than\s+\Z",
    re.IGNORECASE,
)
IN_ANY = pattern(
    r"\b(?:in|within|during)\s+(?:any|each|every)\s+(?:period\s+of\s+|rolling\s+|consecutive\s+)?\Z", re.IGNORECASE
)
ADDRESS = pattern(r"\S+@\S+|\b(?:https?://|www\.)\S+")  # of mail and pages, which hold names in small letters
RATIO = pattern(r"\b(?:gearing|leverage|ratio|cover)\b|%", re.IGNORECASE)
OF_MEASURE = pattern(  # a column of areas, weights or the like holds no sums
    r"\b(?:sq\.?|square)\s*(?:f(?:ee)?t|m(?:et(?:re|er)s?)?)\b|\b(?:sq\s?m|sq\s?ft|m²|kg|tonnes?|km|miles|kWh|MWh|lit(?:re|er)s?|hectares?|acres?)\b\s*\)?\s*\Z",
    re.IGNORECASE,
)
# Words with capitals that no person or firm is called by alone.
_not_names = pattern(
    r"\b(?:Dear|The|This|That|These|Those|Each|Any|All|If|In|On|At|By|For|To|From|And|Or|As|Section|Clause|Schedule|Part|Article|Agreement|Lease|Premises|Date|Term|Notice|Act|Regulations?|Rent|Year|Day|Period|Days"
    r"|January|February|March|April|May|June|July|August|September|October|November|December|Monday|Tuesday|Wednesday|Thursday|Friday|Saturday|Sunday|Total|Page|Confidential|Information|Services?|Products?|Fees?"
    r"|Report|Statements?|Policy|Insurance|Interest|Price|Business|Working|Contract|Order|Event|Default|Party|Parties|Street|Road|Avenue|Square|House|Court|Suite|Floor|Unit|Draft|Board|Committee|Group|Directors?|Officer|Executive|Financial|Chief|Senior|Chair|Secretary|Manager|Head|Signator(?:y|ies)|Authori[sz]ed)\b"
)

# Firms that are named without their legal form, by the trade that their names end in: "Pennard Metering Services".
TRADE_NAME = pattern(
    r"\b[A-Z][\w’'-]+(?:\s+(?:(?:and|&|of)\s+)?[A-Z][\w’'-]+){0,2}\s+(?:(?:and|&)\s+)?(?:Services|Systems|Partners|Associates|Solutions|Consulting|Consultants|Engineers|Engineering|Surveyors|Surveying|Architects|Solicitors|Adjusters|Adjusting"
    r"|Brokers|Insurance|Underwriting|Freight|Haulage|Logistics|Couriers|Builders|Roofing|Plumbing|Heating|Electrical|Instruments|Laborator(?:y|ies)|Labs|Clinic|Nurseries|Motors|Garages?|Removals|Storage|Studios?|Press|Technologies|Technology|Energy"
    r"|Shipping|Marine|Lines|Institute|Agency|Bros|Brothers|Sons|Ventures|Bank|Hire|Cleaning|Catering|Security)\b(?!\s+(?:Act|Regulations?|Agreement|Order|Directive))"
)
_places = pattern(  # what names of places end in, and names of persons do not
    r"\b(?:Rooms?|Stores?|Mill|Yard|Quay|Wharf|Building|Annexe|Annex|Bay|Block|Wing|Station|Works|Site|Basement|Gallery|Harbour|Harbor|Estate|Centre|Center|Tower|Storey|Corridor|Kitchen|Office|Factory"
    r"|Plant|Depot|Terminal|Airport|Warehouse|Shed|Avenue|Valley|River|Street|Road|Lane|Terrace|Crescent|Parade|Drive|Boulevard)\Z|\s[A-Z]\Z"
)


def line_values_of(passages: Passages) -> LineValues:
    """The values by line of a document, the same whenever asked for."""
    made: LineValues | None = passages.__dict__.get("_line_values")
    if made is None:
        made = passages.__dict__["_line_values"] = LineValues(passages)
    return made


class LineValues:
    """One document's values by line and type."""

    def __init__(self, passages: Passages) -> None:
        self.passages = passages
        self.text = passages.text
        self._of_several: dict[tuple[str, ...], Callable[[Line], list[Found[Value]]]] = {}

    def finder(self, kind: str) -> Callable[[Line], list[Found[Value]]] | None:
        """What finds values of a type in a line; None for types whose answer is the line's own words."""
        return {
            "money": self.money, "percent": self.percents, "number": self.numbers, "duration": self.durations,
            "date": self.dates, "party": self.parties,
        }.get(kind)  # fmt: skip

    def any_of(self, kinds: Sequence[str]) -> Callable[[Line], list[Found[Value]]] | None:
        """What finds values of any of some types in a line, left to right; None where none of them is found so."""
        finders = [f for f in map(self.finder, kinds) if f is not None]
        if len(finders) < 2:
            return finders[0] if finders else None
        return self._of_several.setdefault(
            tuple(kinds), lambda line: sorted((found for f in finders for found in f(line)), key=lambda f: f.span)
        )

    # ------------------------------------------------------------------ types
    def dates(self, line: Line) -> list[Found[Value]]:
        """Full dates; in letters and records, where there are none, days without a year as those nearest the paper's date."""
        found = self.passages.values_in("date", line.values)
        if found:
            return self._with_days_beside(line, found)
        if self.written is None:
            return found
        near: list[Found[Value]] = [
            Found(
                DateValue(day),
                _moved(span, line.values.start),
                f"no year said; {day.year} is nearest to {self.written}, the paper's date",
            )
            for day, span in days_without_year(line.values.of(self.text), self.written, lies=_lies)
        ]
        return sorted((*near, *self._in_the_same_month(line, near)), key=lambda f: f.span)

    def _with_days_beside(self, line: Line, found: list[Found[Value]]) -> list[Found[Value]]:
        """The dates of a line with the days beside them that leave out the year: "on 7 August 2026 to holders on 10 July"."""
        day = next((f.value.day for f in found if isinstance(f.value, DateValue)), None)
        if day is None or line.kind == "cell":
            return found
        more: list[Found[Value]] = []
        for other, span in days_without_year(line.values.of(self.text), day):
            place = _moved(span, line.values.start)
            if not any(f.span.overlaps(place) for f in found):
                more.append(Found(DateValue(other), place, f"no year said; {other.year} as the date beside it"))
        return sorted((*found, *more, *self._in_the_same_month(line, [*found, *more])), key=lambda f: f.span)

    def _in_the_same_month(self, line: Line, found: Sequence[Found[Value]]) -> list[Found[Value]]:
        """The days of a line that name no month, "the 20th", in that of the day before them."""
        same: list[Found[Value]] = []
        for m in THE_NTH.finditer(self.text, line.values.start, line.values.end) if found else ():
            dated = [f.value.day for f in found if isinstance(f.value, DateValue) and f.span.end <= m.start()]
            if dated and dated[-1] is not None:
                with suppress(ValueError):  # no such day in that month
                    day = DateValue(dated[-1].replace(day=int(m["day"])))
                    same.append(Found(day, Span(*m.span("nth")), "the month of the day before it"))
        return same

    @cached_property
    def written(self) -> date | None:
        """The day of a letter, mail, transcript or record; None for papers of other kinds, whose days may come each year."""
        from yarnex.core.terms.identity import SALUTATION, document_date, identify
        from yarnex.core.terms.sheets import sheet_for_kind

        document = self.passages.document
        letter = SALUTATION.search(document.text[:2500]) is not None
        if sheet_for_kind(identify(document).kind) not in OF_A_DAY and not self.passages.is_spoken and not letter:
            return None
        if day := document_date(document):
            return date.fromisoformat(day)
        dates = self.passages.values("date")  # a record without a date of its own: the first day that it tells of
        first = next(
            (d.value for d in dates if not BORN.search(self.text, max(0, d.span.start - 24), d.span.start)), None
        )
        return first.day if isinstance(first, DateValue) else None

    def money(self, line: Line) -> list[Found[Value]]:
        found = self.passages.values_in("money", line.values)
        if line.kind != "cell":
            return found or self._bare_money(line)
        if found:
            return self._paid_each(line, found)
        figure = self._figure(line)
        if figure is None and NOTHING.fullmatch(line.values.of(self.text).strip()) and self.usual_currency:
            head = self._heads(line)[0]
            figure = (Decimal(0), line.values) if MONEY_HEAD.search(head) and not TOTAL.search(line.label) else None
        if figure is None or (YEAR.fullmatch(line.values.of(self.text).strip()) and figure[0] < 2100):
            return []
        head, caption = self._heads(line)
        if RATIO.search(line.label) or (OF_MEASURE.search(head) and not _sign.search(head)):
            return []
        if IN_PENCE.search(line.label):
            return []  # "Dividend (p)" in a table of millions
        if OF_ONE.search(head) or OF_ONE.search(line.label) or A_CURRENCY.fullmatch(line.label.strip()):
            return []  # a rate of exchange
        if re.search(
            r"%|per\s?cent|(?<!\bper )(?<!\ba )\b(?:months?|days|hours|weeks|years?|no\.?|number|quantity|qty|page|note)\b",
            head,
            re.IGNORECASE,
        ) and not _sign.search(head):
            return []
        beside = self._beside(line)
        sign = _sign.search(head) or _sign.search(beside) or _sign_of_all.search(caption)
        label = TOTAL.sub("", line.label) if head.strip() else line.label  # the total of a column of things is no sum
        if sign is None and not MONEY_HEAD.search(head + " " + label) and not FIGURES.search(line.values.of(self.text)):
            return []
        currency = self.passages.currency(sign.group()) if sign else self.usual_currency
        ledger = OF_LEDGER.search(head) is not None and self.passages.document.format in WORKBOOKS
        if currency is None and not ledger and not self._is_bill(line):
            return []
        scale = SCALE.search(head) or SCALE.search(beside) or SCALE.search(caption)
        factor = SCALES[str(scale.lastgroup)] if scale else 1
        reading = f"printed in {scale.lastgroup}s" if scale else ""
        return self._paid_each(line, [Found(Money(figure[0] * factor, currency), figure[1], reading)])

    def _is_bill(self, line: Line) -> bool:
        """True for a sum in pounds and pence, or the like, in a table of such sums with a total, in a paper that names no currency."""
        found = self.passages.document.cell_at(line.values)
        if found is None or not PENCE.fullmatch(line.values.of(self.text).strip()):
            return False
        words = found[0].span.of(self.text)
        return len(PENCE_THERE.findall(words)) >= BILLED and OF_A_BILL.search(words) is not None

    def _paid_each(self, line: Line, found: list[Found[Value]]) -> list[Found[Value]]:
        """The sums of a cell, for each month or year where the heading of its column says so: "Monthly instalment"."""
        heads = PAID_EACH.findall(self._heads(line)[0])
        each = {EACH[next(w for w in words if w).lower()] for words in heads}
        if len(each) != 1:
            return found
        per = each.pop()
        return [
            replace(f, value=replace(f.value, per=per)) if isinstance(f.value, Money) and f.value.per is None else f
            for f in found
        ]

    @property
    def usual_currency(self) -> str | None:
        """The currency of nearly all the document's sums."""
        return self.passages.usual_currency

    def _bare_money(self, line: Line) -> list[Found[Value]]:
        """Millions with no currency named as sums in the document's usual one; none where it has no usual one."""
        if self.usual_currency is None or not SOME_MILLIONS.search(line.values.of(self.text)):
            return []
        said = f"no currency said; taken as {self.usual_currency}, the usual one here"
        return [
            Found(Money(f.value.value, self.usual_currency), f.span, said)
            for f in self.passages.values_in("count", line.values)
            if isinstance(f.value, Quantity)
            and f.value.value >= 10_000
            and MILLIONS.search(f.span.of(self.text))
            and not OF_THINGS.match(self.text, f.span.end)
        ]

    def percents(self, line: Line) -> list[Found[Value]]:
        found = self.passages.values_in("percent", line.values)
        if not found:
            found = [
                Found(Percent(v), _moved(s, line.values.start), f"{w} = {v} %")
                for v, s, w in fractions(line.values.of(self.text))
            ]
        if found or line.kind != "cell":
            return found
        figure = self._figure(line)
        head = self._heads(line)[0] + " " + line.label
        if figure is not None and OF_PERCENTS.search(head):
            return [Found(Percent(figure[0]), figure[1])]
        return []

    def durations(self, line: Line) -> list[Found[Value]]:
        found = self.passages.values_in("duration", line.values)
        if len(found) > 1:  # "thirteen weeks in any twelve months": the latter only frames the former
            told = [
                f
                for f in found
                if not IN_ANY.search(self.text, max(line.values.start, f.span.start - 24), f.span.start)
            ]
            found = told or found
        if found or line.kind != "cell":
            lower = [f for one in found for f in self._lower_bound(line, one)]
            return sorted([*found, *lower, *self._same_unit(line, found[-1])], key=lambda f: f.span) if found else found
        figure = self._figure(line)
        head = self._heads(line)[0] + " " + line.label
        unit = TIME_HEAD.search(head)
        if unit and re.search(r"\d[ -]*\Z", head[: unit.start()]):
            return []  # the label tells a length of its own
        if unit and YEAR.fullmatch(line.values.of(self.text).strip()):
            return []  # the year itself
        if figure is not None and unit:
            name = re.sub(r"\s+|working", lambda m: "_" if m.group().isspace() else "business", unit["unit"].lower())
            return [Found(Duration(figure[0], name if name.endswith("s") else name + "s"), figure[1])]
        return []

    def _lower_bound(self, line: Line, upper: Found[Value]) -> list[Found[Value]]:
        """What stands before a length of time with its unit left out: "not less than 60 nor more than 120 days"."""
        m = NOR_MORE.search(self.text, max(line.values.start, upper.span.start - 48), upper.span.start)
        count = read_number(m["count"])[0] if m is not None else None
        if m is None or count is None or not isinstance(upper.value, Duration):
            return []
        unit = upper.value.unit
        return [Found(Duration(count, unit), Span(*m.span("count")), f"{unit.replace('_', ' ')}, as behind it")]

    def _same_unit(self, line: Line, before: Found[Value]) -> list[Found[Value]]:
        """What follows a length of time with its unit left out: "the Company gives nine months and the Executive six"."""
        m = AND_SO_MANY.search(self.text, before.span.end, line.values.end)
        count = read_number(m["count"])[0] if m is not None else None
        if m is None or count is None or not isinstance(before.value, Duration):
            return []
        unit = before.value.unit
        return [Found(Duration(count, unit), Span(*m.span("count")), f"{unit.replace('_', ' ')}, as before it")]

    def numbers(self, line: Line) -> list[Found[Value]]:
        """Quantities with their unit, and counts that are part of nothing else."""
        found = list(self.passages.values_in("number", line.values))
        taken = [f.span for f in found]
        for kind in ("money", "percent", "date", "duration"):
            taken += [f.span for f in self.passages.values_in(kind, line.values)]
        block = self.passages.document.blocks[line.block]
        days = list(DAY_ALONE.finditer(line.values.of(self.text)))
        for count in self.passages.values_in("count", line.values):
            if any(count.span.overlaps(t) for t in taken):
                continue
            before = self.text[max(line.values.start, count.span.start - 24) : count.span.start]
            after = self.text[count.span.end : count.span.end + 3]
            words = count.span.of(self.text)
            if STREET.match(self.text, count.span.end):
                continue  # the number of a house
            closed = after[:1] == ")" and not before.rstrip().endswith("(")  # "(last year: nine)", and no "(9)"
            if REFERENCE.search(before) or re.match(
                r"[./:-]\d|\w|\)", after.strip(" ")[:2] if after[:1] != " " and not closed else ""
            ):
                continue
            if any(
                count.span.start < line.values.start + day.end() and line.values.start + day.start() < count.span.end
                for day in days
            ):
                continue  # "Friday 26 June"
            if (
                (block.kind == "heading" or block.heading)
                and count.span.start == block.span.start
                and after[:1] in " .)"
            ):
                continue  # the heading's own number
            if YEAR.fullmatch(words) or (block.number and self._in_its_number(block.span.start, count.span.start)):
                continue
            if words.lower() in ("one", "a") and not (
                re.match(r"\s+\(1\)", self.text[count.span.end : count.span.end + 5])
                or (COUNTS_ONE.search(before) and ONE_THING.match(self.text, count.span.end))
            ):
                continue
            found.append(count)
        if (
            line.kind == "cell"
            and len(found) == 1
            and isinstance(found[0].value, Quantity)
            and found[0].value.unit is None
        ):
            if any(f.reading for f in self.money(line)):
                return []  # a sum that is printed in thousands or millions counts nothing
            if self.durations(line):
                return []  # its label says of what it is a length: "average life, years"
            unit = self._unit_of_cell(line)
            if unit and self._figure(line) is not None:
                found = [
                    Found(
                        Quantity(found[0].value.value, unit),
                        found[0].span,
                        f"the unit stands beside or over it: {unit}",
                    )
                ]
        found += [
            Found(Quantity(Decimal(1)), Span(*m.span("one")), "one")
            for m in SOLE.finditer(self.text, line.values.start, line.values.end)
        ]
        return sorted(found, key=lambda f: f.span)

    def _in_its_number(self, start: int, at: int) -> bool:
        """True for a place in the number that a paragraph opens with as printed: "(b)", "12.3", whatever stands above it."""
        printed = PRINTED_NUMBER.match(self.text, start)
        return printed is not None and at < printed.end()

    def _beside(self, line: Line) -> str:
        """The currency and scale that stand in a cell of their own in the row: "£m"."""
        found = self.passages.document.cell_at(line.values)
        if found is None:
            return ""
        table, cell = found
        words = (c.span.of(self.text).strip() for c in table.row_cells(cell.row) if c is not cell)
        return next((w for w in words if w and UNIT_CELL.fullmatch(w)), "")

    def _unit_of_cell(self, line: Line) -> str | None:
        """The unit that stands over a cell, in its row's label, or in a cell of its own in the row."""
        if (small := IN_PENCE.search(line.label)) is not None:
            return "pence" if small["unit"].startswith("p") else "cents"
        places = [self._heads(line)[0], line.label]
        found = self.passages.document.cell_at(line.values)
        if found is not None:
            table, cell = found
            places += [
                c.span.of(self.text)
                for c in table.row_cells(cell.row)
                if c is not cell and len(c.span.of(self.text)) < 12
            ]
        for words in places:
            inner = re.search(r"[(\[]([^()\[\]]{1,16})[)\]]\s*\Z|,\s*([^,]{1,16})\Z", words.strip())
            for part in (words.strip(), (inner[1] or inner[2]).strip() if inner else ""):
                if not part or part[:1].isdigit():
                    continue
                quantities = list(find_quantities(f"1 {part}"))
                if (
                    len(quantities) == 1
                    and quantities[0].span.end == len(part) + 2
                    and isinstance(quantities[0].value, Quantity)
                ):
                    return quantities[0].value.unit
        return None

    def parties(self, line: Line) -> list[Found[Value]]:
        """Organisations and persons by name, and roles that stand for a party."""
        words = line.values.of(self.text)
        out: list[Found[Value]] = []
        for found in find_organisations(words):
            out.append(Found(found.value, _moved(found.span, line.values.start)))
        spoken = self.passages.is_spoken  # who speaks is not what is said
        for m in _person.finditer(words):
            name = LABEL_BEHIND.sub("", m.group())  # "Orrin Pask Title: Manager"
            span = _moved(Span(m.start(), m.start() + len(name)), line.values.start)
            if (
                " " in name
                and not (spoken and m.start() == 0 and words[m.start() + len(name) :][:2] == ": ")
                and not _not_names.search(name)
                and not HOUSE_NUMBER.search(words, 0, m.start())
                and not _places.search(name)
                and self._is_name(name)
                and not any(o.span.overlaps(span) for o in out)
            ):
                out.append(Found(Party(name), span))
        for m in TRADE_NAME.finditer(words):
            span = _moved(Span(*m.span()), line.values.start)
            first = m.group().split()[0].lower()
            if (
                not known_thesaurus().near((stem(first),))
                and first not in self._common_words
                and not any(o.span.overlaps(span) for o in out)
            ):
                out.append(Found(Party(m.group()), span))
        for role, name in self.roles.items():
            for m in re.finditer(rf"\b{re.escape(role)}\b(?!['’]s)", words):
                span = _moved(Span(*m.span()), line.values.start)
                if not any(o.span.overlaps(span) for o in out):
                    out.append(Found(Party(name), span, f"{role} is {name}"))
        return sorted(out, key=lambda f: f.span)

    # ------------------------------------------------------------------ helpers
    @cached_property
    def roles(self) -> dict[str, str]:
        """Roles with the party that has each, as the document's own opening says."""
        told = ((party.role, party.name) for party, _, _ in self.passages.roles)
        return {role.title() if role.isupper() and len(role) > 3 else role: name for role, name in told}  # "HIRER"

    @cached_property
    def _common_words(self) -> set[str]:
        """Words that the document also writes with a small first letter: no surnames, as a rule."""
        return set(re.findall(r"\b[a-zà-ÿ]{2,}\b", ADDRESS.sub(" ", self.text)))

    def _is_name(self, words: str) -> bool:
        """True where the last word of capitalised words is used as nothing but a name, and no definition has them."""
        last = words.split()[-1].lower()
        return last not in self._common_words and self.passages.defined(words) is None

    def _figure(self, line: Line) -> tuple[Decimal, Span] | None:
        """The bare figure that is all a cell holds."""
        words = line.values.of(self.text)
        m = BARE.fullmatch(words.strip())
        if m is None:
            return None
        value = read_digits(m["digits"].strip())
        if value is None:
            return None
        below = bool(m["minus"] or (m["open"] and m["close"]))
        start = line.values.start + words.index(m["digits"].strip())
        return (-value if below else value), Span(start, start + len(m["digits"].strip()))

    def _heads(self, line: Line) -> tuple[str, str]:
        """The heading over a cell, and the words that stand over its table."""
        document = self.passages.document
        found = document.cell_at(line.values)
        if found is None:
            return "", ""
        table, cell = found
        return " ".join(column_path(table, cell, self.text)), self._caption(table)

    def _caption(self, table: Table) -> str:
        corner = table.at(0, 0)
        corner_words = corner.span.of(self.text) if corner is not None and table.header_rows else ""
        return self.text[max(0, table.span.start - 160) : table.span.start] + " " + corner_words


def _lies(before: str) -> int:
    """1 where what leads to a day tells that it is still to come, "by 31 March"; -1 where it is past; 0 where it does not tell."""
    if AHEAD.search(before[-80:]):
        return 1
    return -1 if BEHIND.search(before[-80:]) else 0


def _moved(span: Span, by: int) -> Span:
    return Span(span.start + by, span.end + by)


TYPES = {
    DateValue: "date", Money: "money", Percent: "percent", Quantity: "number", Duration: "duration", Party: "party", YesNo: "yes_no",
    ListOf: "list", Schedule: "schedule",
}  # fmt: skip


def of_type(value: object) -> str:
    """The name of a value's type, as sheets write it."""
    return TYPES.get(type(value), "text")
