"""Numbers in sentences -> figures: "revenue rose 8 % to €48.2 million in the year to 31 December 2025"."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date
from decimal import Decimal

from dateutil.relativedelta import relativedelta

from yarnex.core.document import Document, Span
from yarnex.core.document.model import Block
from yarnex.core.document.sentences import sentences
from yarnex.core.document.table_paths import row_label
from yarnex.core.figures.calendar import QUALIFIERS, YearEnds, ended_periods, read_heading, year_ends
from yarnex.core.figures.headings import over_table
from yarnex.core.figures.lines import Line, line_of, line_vocabulary, name_key, unit_fits
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.figures.tables import FLOW_WORDS, STOCK_WORDS, TOTALS
from yarnex.core.patterns import pattern
from yarnex.core.values.dates import find_dates
from yarnex.core.values.money import find_money, usual_dollar
from yarnex.core.values.percent import find_percents
from yarnex.core.values.quantities import find_quantities

# What joins a thing measured to its amount.
_joins = r"(?:was|were|is|are|stood\s+at|stands\s+at|amounted\s+to|amounts\s+to|totalled|totaled|came\s+to|comes\s+to|reached|of|at|equals?|remained(?:\s+at)?|has\s+been|had\s+been)"
_moves = r"(?:rose|fell|grew|increased|decreased|declined|improved|dropped|climbed|went\s+up|went\s+down|came\s+down|slipped|widened|narrowed|was\s+up|was\s+down|is\s+up|is\s+down|up|down|has\s+risen|has\s+fallen)"
_by = r"(?:\s+(?:slightly|sharply|again|further|strongly|by|only|to|from|a|an|the|about|some|around|nearly|almost|over|just|more|less|than|under|per\s+cent|percentage|points?|%|\d[\d.,]*|[£$€]\s?[\d.,]+\s?(?:million|billion|m|bn|pence|p)?))*?"
_about = r"(?:(?:about|approximately|some|around|nearly|almost|over|just|only|more\s+than|less\s+than|at\s+least|up\s+to|a\s+total\s+of|a\s+record)\s+){0,2}"
_link = pattern(
    rf"\s*(?:,\s*)?(?:\([^()]{{1,60}}\)\s*)?(?:(?<![A-Za-z]){_joins}\s+{_about}|(?<![A-Za-z]){_moves}{_by}\s+to\s+{_about}|:\s*{_about})\Z",
    re.IGNORECASE,
)
_label = pattern(r"(?:(?<=[\s(“])|\A)(?P<label>(?:[A-Za-z][\w’'&/-]*\s+){0,8}[A-Za-z][\w’'&/-]*)\Z")
_heads_amount = pattern(r"\A\W*(?P<label>[A-Za-z][\w’'&/ -]{2,48}?)\s+\Z")
_starts = pattern(
    r"\A(?:the|our|its|their|a|an|group|company|group’s|company’s|total\s+of|with|and|while|of|in|at|by|to|for|that|this|whose|where|which|also|but|however|when|after|before|under|as|from|on|during|is|was|were|are|has|had|be|been|we|it|they|he|she|i|there|held|holds|recorded|showed|reported|earned|paid)\s+",
    re.IGNORECASE,
)
_comparative = pattern(r"\s*\((?:(?P<when>[^():]{2,40}):\s*)(?P<value>[^():;]{1,30})\)")
_in_brackets = pattern(r"\A\s*,?\s*(?:compared\s+(?:with|to)|against|from)\s+", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Amount:
    span: Span
    value: Decimal
    unit: str


def figures_in_sentences(document: Document) -> list[Figure]:
    """Amounts that a sentence names by a label and a verb ("the allowance was £39,870,000"); others are left alone."""
    ends = year_ends(document.text)
    dollar = usual_dollar(document.text)
    parts = segment_names(document)
    out: list[Figure] = []
    for block in document.blocks:
        if block.table >= 0 or block.kind not in ("paragraph", "item", "note"):
            continue
        text = block.span.of(document.text)
        if not re.search(r"\d", text):
            continue
        part = _part_around(document, block, parts)
        for sentence in sentences(text, semicolons=False):
            out += _of_sentence(document, block, text, sentence, ends, dollar, part)
    return out


def segment_names(document: Document) -> tuple[str, ...]:
    """The names of the rows of tables of segments."""
    ends, dollar = year_ends(document.text), usual_dollar(document.text)
    names: list[str] = []
    for table in document.tables:
        if over_table(document, table, ends, dollar).statement == "segments":
            for row in range(table.header_rows, table.rows):
                label = row_label(table, row, document.text)
                if label and not TOTALS.match(label) and line_of(label) is None and len(label) < 50:
                    names.append(label)
    return tuple(dict.fromkeys(names))


def _part_around(document: Document, block: Block, parts: tuple[str, ...]) -> str:
    """The segment whose heading stands over a block, or that the block's own opening names; "" where there is none."""
    path = document.section_path(block.span.start)
    heads = [s.heading for s in reversed(path)][:1]
    opening = block.span.of(document.text)[:60]
    for part in parts:
        if any(part.lower() == h.lower() or part.lower() in h.lower() for h in heads) or re.match(
            rf"(?:[•\-–]\s*)?{re.escape(part)}\b", opening
        ):
            return part
    return ""


def _amounts(words: str, dollar: str) -> list[Amount]:
    found = [Amount(f.span, f.value.amount, f.value.currency or "") for f in find_money(words, dollar)]
    found += [Amount(f.span, f.value.value, "percent") for f in find_percents(words)]
    found += [Amount(f.span, f.value.value, f.value.unit or "") for f in find_quantities(words)]
    out: list[Amount] = []
    for amount in sorted(found, key=lambda a: (a.span.start, -a.span.end)):
        if not out or amount.span.start >= out[-1].span.end:
            out.append(amount)
    return out


def _of_sentence(
    document: Document, block: Block, text: str, sentence: Span, ends: YearEnds, dollar: str, part: str
) -> Iterator[Figure]:
    words = sentence.of(text)
    base = block.span.start + sentence.start
    amounts = _amounts(words, dollar)
    for amount in amounts:
        named = (
            _named(words, amount.span.start)
            or _attributive(words, amount)
            or _headed(words, amount.span.start, opens=sentence.start == 0)
        )
        if named is None:
            continue
        label, start = named
        line = _line_in(label)
        if line is None and not _worth_naming(label):
            continue
        if line is not None and not unit_fits(line, amount.unit):
            continue
        following = next((a.span.start for a in amounts if a.span.start >= amount.span.end), len(words))
        clause = words[start:following]
        stock = line.nature == "stock" if line else bool(STOCK_WORDS.search(label))
        period, assumed = _period_in(
            clause,
            words[:start],
            ends,
            stock,
            line is not None or bool(STOCK_WORDS.search(label) or FLOW_WORDS.search(label)),
        )
        marks = tuple(n for n in ("target", "pro forma") if re.search(QUALIFIERS[n], clause, re.IGNORECASE))
        if re.search(
            r"\b(?:forecast|guidance|outlook|will\s+be|expect(?:s|ed)?\b|is\s+expected)\b", words, re.IGNORECASE
        ):
            marks = ("forecast", *marks)
        span = Span(base + amount.span.start, base + amount.span.end)
        basis = _basis(words, document, base)
        if part and line is not None and not re.search(r"\b(?:Group|group)\b", clause):
            label, line, basis = f"{label} – {part}", None, "segment"
        made = Figure(
            document=document, span=span, label=label[:1].upper() + label[1:], path=(label[:1].upper() + label[1:],), value=amount.value,
            as_printed=" ".join(span.of(document.text).split()), unit=amount.unit, per="share" if line and line.nature == "share" else "",
            hint="the sentence names no period; the report’s own is taken" if assumed else "", period=period, statement="text", basis=basis, item=line.id if line else "", marks=marks, source="sentence",
            scale=_scale(span.of(document.text)), around=Span(base, base + len(words)),
        )  # fmt: skip
        yield made
        yield from _compared(document, base, words, amount, made, ends, dollar)


CUTS = pattern(
    r"\b(?:is|are|was|were|has|have|had|will|shall|may|must|can|could|would|should|agreed|received|said|expects?|see|do|does|did|and|that|which|while|but|where|to|by|when|whose|than|if)\s+",
    re.IGNORECASE,
)
SOFT_CUTS = pattern(r"\b(?:over|as|with|including|excluding|against|through|into|about|measured)\s+", re.IGNORECASE)
OF_WHOLE_YEAR = pattern(r"\bfor\s+the\s+(?:full\s+|whole\s+|financial\s+)?year\b", re.IGNORECASE)
POINTERS = frozenset(
    ["there", "it", "this", "that", "which", "they", "we", "he", "she", "these", "those", "both", "each"]
)


def _named(words: str, start: int) -> tuple[str, int] | None:
    """The words before a verb that give an amount its name, and where they begin; None where no such words stand there."""
    before = words[:start]
    link = _link.search(before)
    if link is None:
        return None
    aside = re.match(
        r"((?:the\s+|our\s+)?[A-Za-z][\w’' -]{2,50}?),\s[^.]*\d[^,.]*,\s*(?:is|was|were|are)\s\Z", before, re.IGNORECASE
    )
    if aside is not None:  # "Gearing, measured as … of £1 million, was 65.5 per cent"
        return _bare(aside[1], aside.start(1))
    m = _label.search(before[: link.start()])
    of = bool(re.match(r"\s*of\b", link.group(), re.IGNORECASE))
    return _bare(m["label"], m.start("label"), of) if m else None


def _bare(label: str, at: int, of: bool = False) -> tuple[str, int] | None:
    """A label without articles, verbs and the words before them; never cut inside the name of a standard line.

    of: the amount is joined to it by "of", and so belongs to its last words.
    """

    def led(label: str, at: int) -> tuple[str, int]:
        while (lead := _starts.match(label)) is not None:
            label, at = label[lead.end() :], at + lead.end()
        return label, at

    label, at = led(label, at)
    for cuts in (CUTS, SOFT_CUTS):
        while line_of(label) is None and (cut := cuts.search(label)) is not None:
            if cuts is SOFT_CUTS and not of and _begins_with_line(label):
                break  # "Revenue for 2024 as first reported"
            label, at = led(label[cut.end() :], at + cut.end())
    label = re.sub(r"\s+(?:at|on|in|for|of)\s*\Z", "", label).strip(" ,")
    if line_of(label) is None and (article := list(re.finditer(r"\b(?:a|an|its|our|their)\s+", label, re.IGNORECASE))):
        label, at = label[article[-1].end() :], at + article[-1].end()  # "declared an interim dividend"
    return (label, at) if len(label) > 2 and label.lower() not in POINTERS else None


def _begins_with_line(label: str) -> bool:
    parts = label.split()
    return any(line_of(" ".join(parts[:n])) is not None for n in range(1, min(len(parts), 6)))


def label_in_sentence(words: str, span: Span) -> str:
    """What a sentence calls an amount in it: the words before its verb, else those behind it; "" where neither tells."""
    named = _named(words, span.start)
    if named is not None:
        return named[0]
    behind = re.match(r"\s+((?:[a-z][\w-]*\s+){0,4}[a-z][\w-]*)\s*[.,;)]", words[span.end :])
    return behind[1] if behind else ""


def _attributive(words: str, amount: Amount) -> tuple[str, int] | None:
    """ "a $400 million revolving facility": the noun behind an amount with an article before it."""
    if amount.unit in ("percent", "") or not re.search(
        r"\b(?:a|an|our|its|the)\s+(?:new\s+|committed\s+)?\Z", words[: amount.span.start], re.IGNORECASE
    ):
        return None
    m = re.match(
        r"\s+((?:[a-z][\w-]*\s+){0,4}(?:facility|loan|bond|bonds|notes|programme|program|overdraft|mortgage|revolver))\b",
        words[amount.span.end :],
    )
    return (m[1], amount.span.end) if m else None


def _headed(words: str, start: int, *, opens: bool) -> tuple[str, int] | None:
    """ "• Revenue £48.6 million (2027: £46.1 million)": the name of a standard line right before an amount, without a verb, where the
    two open a paragraph or a point of a list (opens); None elsewhere."""
    m = _heads_amount.match(words[:start]) if opens else None
    if m is None or CUTS.search(m["label"] + " ") or line_of(m["label"]) is None:
        return None
    return m["label"], m.start("label")


OF_THE_PERIOD = pattern(
    r"\s+(?:for|in|at|of)\s+the\s+(?:financial\s+|full\s+|first\s+|second\s+)?(?:half[- ]year|half|year|period|quarter)(?:[- ]end)?\s*\Z",
    re.IGNORECASE,
)  # "turnover for the half year", "net borrowings at the period end"


def _line_in(label: str) -> Line | None:
    """The standard line that a label is, or ends with ("the Group’s net debt")."""
    found = line_of(label) or line_of(OF_THE_PERIOD.sub("", label))
    if found is not None:
        return found
    parts = label.split()
    vocabulary = line_vocabulary().by_name
    for cut in range(1, min(len(parts), 4)):
        key = name_key(" ".join(parts[cut:]))
        if (
            key in vocabulary
            and len(parts) - cut >= 2
            and re.fullmatch(
                r"(?:group|company|total|consolidated|reported|statutory|annual|our|net)(?:’s)?",
                parts[cut - 1],
                re.IGNORECASE,
            )
        ):
            return vocabulary[key][0]
    return None


_nouns = pattern(
    r"\b(?:revenue|sales|profit|loss|cost|costs|income|expense|debt|cash|borrowings|assets?|liabilit\w+|equity|ratio|margin|rate|value|capital|dividends?|earnings|facilit\w+"
    r"|loan|allowance|provision|surplus|deficit|exposure|commitments?|charge|price|fee|spend|spending|investment|headroom|cover|gearing|leakage|employees|customers|share|volume|production|capacity"
    r"|order\s+book|backlog|yield|turnover|return|limit|obligation|guarantee|purchases|receivables|payables|stock|inventor\w+|penalt\w+|claims?|salary|remuneration|bonus|excess)\b",
    re.IGNORECASE,
)


GENERIC = pattern(
    r"profits?|loss(?:es)?|costs?|rate|value|price|share|capital|fees?|charges?|claims?|income|limit|return|capacity|production|exposure|facility|loan",
    re.IGNORECASE,
)


def _worth_naming(label: str) -> bool:
    """True where the words are a thing that is measured, and not the tail of some phrase."""
    if " " not in label and GENERIC.fullmatch(label):
        return False
    return (
        bool(_nouns.search(label))
        and len(label.split()) <= 7
        and not re.match(r"(?:one|two|each|any|some|more|less|up|end|part|number)\b", label, re.IGNORECASE)
    )


def _scale(printed: str) -> Decimal:
    m = re.search(r"\d\s?(billion|bn|million|mn?|thousand|k|crore|lakh)\b", printed, re.IGNORECASE)
    factors = {"b": 1_000_000_000, "m": 1_000_000, "t": 1_000, "k": 1_000, "c": 10_000_000, "l": 100_000}
    return Decimal(factors[m[1][0].lower()]) if m else Decimal(1)


def _basis(words: str, document: Document, offset: int) -> str:
    """Whose amount a sentence tells, where it or the headings over it say so."""
    if re.search(r"\b(?:the\s+)?company(?:’s)?\s+(?:alone|itself|only)|\bparent\s+company\b", words, re.IGNORECASE):
        return "company"
    heads = " ".join(s.name.lower() for s in document.section_path(offset))
    held = next((basis for name, basis in line_vocabulary().bases if name in heads), "")
    return held or ("consolidated" if re.search(r"\b(?:consolidated|the\s+Group)\b", words) else "")


def _period_in(clause: str, before: str, ends: YearEnds, stock: bool, known: bool) -> tuple[FigurePeriod | None, bool]:
    """The period that the clause, else what stands before it, names; for amounts of accounts (known) else the one that the report
    is on, and whether that was assumed. stock: measured at a date."""
    for words in (clause, before):
        for _, _, period in ended_periods(words, ends.order)[:1]:
            return (FigurePeriod(period.end) if stock else period), False
        day = next(find_dates(words, ends.order), None)
        if day is not None and re.search(
            r"\b(?:at|on|as\s+of|to)\s+(?:the\s+)?\Z", words[: day.span.start], re.IGNORECASE
        ):
            return FigurePeriod(day.value.day), False
        m = re.search(
            r"\b(?:in|for|during|of)\s+((?:the\s+)?(?:first\s+half|second\s+half|(?:first|second|third|fourth)\s+quarter|H[12]|Q[1-4])?[\s\w]{0,12}?(?:FY\s?)?(?:20\d\d(?:[/–-]\d\d)?))\b",
            words,
            re.IGNORECASE,
        )
        if m:
            found = read_heading(m[1], ends)
            if found.period is not None:
                return (FigurePeriod(found.period.end) if stock else found.period), False
    if ends.main is None or not known:
        return None, False
    if not stock and (ends.main.months or 12) < 12 and OF_WHOLE_YEAR.search(clause):
        return None, False  # a report on a quarter that expects "about £16 million for the year"
    return (FigurePeriod(ends.main.end) if stock else ends.main), True


def _compared(
    document: Document, base: int, words: str, amount: Amount, made: Figure, ends: YearEnds, dollar: str
) -> Iterator[Figure]:
    """The comparative in brackets behind an amount: "£24.8 million (2024: £24.4 million)"."""
    m = _comparative.match(words, amount.span.end)
    if m is None or made.period is None:
        return
    other = next(iter(_amounts(m["value"], dollar)), None)
    if other is None or other.unit != amount.unit:
        return
    when = read_heading(m["when"], ends)
    period = when.period
    if period is None and (year_told := re.fullmatch(r"20\d\d", m["when"].strip())) is not None:
        period = FigurePeriod(date(int(year_told[0]), 12, 31))  # the same months of that year
    if period is None:
        return
    if made.period.months != period.months or not when.sure:
        year = period.end.year
        same = made.period.end
        period = (
            FigurePeriod(same + relativedelta(years=year - same.year), made.period.months)
            if year < same.year
            else replace(period, months=made.period.months)
        )
    span = Span(base + m.start("value") + other.span.start, base + m.start("value") + other.span.end)
    yield replace(
        made,
        span=span,
        value=other.value,
        as_printed=" ".join(span.of(document.text).split()),
        period=period,
        scale=_scale(span.of(document.text)),
    )
