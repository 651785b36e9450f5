"""Tables -> figures: which columns hold numbers, what row and column headings make of each printed number."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from decimal import Decimal
from itertools import pairwise

from yarnex.core.document import Document
from yarnex.core.document.model import Cell, Table
from yarnex.core.document.table_paths import column_path, is_group, row_label, row_path
from yarnex.core.figures.calendar import Heading, YearEnds, before, moved_to, read_heading, year_ends
from yarnex.core.figures.headings import Over, over_table, row_span, whole_scale
from yarnex.core.figures.lines import Line, line_of, line_vocabulary, name_key, unit_fits
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.figures.printed import Printed, read_printed
from yarnex.core.figures.scales import NOTHING, Scale, read_row_unit, read_scale
from yarnex.core.patterns import pattern
from yarnex.core.values.money import usual_dollar

NOTE_COLUMN = pattern(
    r"\Anotes?(?:\s+(?:no\.?|number))?\Z|\Aref\.?\Z|\A#\Z|\Ano\.?\Z|\Apage\Z|\Aitem\Z|\Asched(?:ule)?\.?\Z|\A(?:serial|s\.?)\s*no\.?\Z",
    re.IGNORECASE,
)
NO_AMOUNT = pattern(
    r"\b(?:maturity|maturing|due\s+date|dates?|visited|borrower|name|rank|year\s+(?:built|opened|of)|code|reference|phone|telephone|post\s?code|met\?|when)\b",
    re.IGNORECASE,
)
PER_SHARE = pattern(r"\bper\s+(?:ordinary\s+|equity\s+|common\s+)?(?:share|unit|ads)\b|\beps\b|\bdps\b", re.IGNORECASE)
COUNTS = pattern(
    r"\bnumber\s+of\b|\bheadcount\b|\bemployees\b\Z|\bincidents\b|\binjuries\b|\bcustomers\b\Z|\bholders\b|\bshares\s+(?:held|in\s+issue|outstanding)\b|\bproperties\b|\bscore\b|\bspills\b",
    re.IGNORECASE,
)
CHANGE = pattern(
    r"\A(?:%\s*)?(?:change|growth|movement|variance|increase|decrease|var\.?|yoy|chg\.?)\b.*|.*\b(?:change|variance)\s*(?:\(?%\)?)?\Z",
    re.IGNORECASE,
)
TOTALS = pattern(r"\A(?:the\s+)?(?:group|total|totals|consolidated|sub-?total)\b", re.IGNORECASE)
OPENING = pattern(
    r"\bat\s+(?:the\s+)?(?:start|beginning)\b|\bbeginning\s+of\b|\bopening\b|\bbrought\s+forward\b", re.IGNORECASE
)
CLOSING = pattern(
    r"\bat\s+(?:the\s+)?end\b|\bend\s+of\b|\bclosing\b|\bcarried\s+forward\b|\bat\s+(?:period|year)[\s-]end\b",
    re.IGNORECASE,
)
STOCK_WORDS = pattern(
    r"\b(?:assets?|liabilit|borrowings|loans?\b|bonds?\b|notes\b|facilit|receivables|payables|provisions?\b|allowance|debt|cash|equity|reserves?|surplus|deficit|obligations"
    r"|inventor|stocks?\b|within\s+one\s+year|after\s+(?:more\s+than\s+)?(?:one|five)\s+years?|between\s+(?:one|two)|carrying|net\s+book\s+value|capital\s+value|in\s+issue|outstanding|commitments)",
    re.IGNORECASE,
)
FLOW_WORDS = pattern(
    r"\b(?:income|costs?|charge[sd]?|expense|revenue|sales|profit|loss(?:es)?|depreciation|amortisation|additions|paid|received|used|wages|salaries|dividends?|purchase|proceeds|interest|tax(?:ation)?"
    r"|spend|investment\s+in\s+the|movement|increase|decrease|gain|impairment|repaid|drawn)\b",
    re.IGNORECASE,
)
STOCK_STATEMENTS = ("financial_position",)
FLOW_STATEMENTS = ("profit_or_loss", "comprehensive_income", "cash_flows", "segments", "per_share")


@dataclass(frozen=True, slots=True)
class Column:
    """What a column's headings say. named: its own words, where it is not only a period. change: compares two others."""

    place: int
    heading: Heading
    scale: Scale
    named: str
    change: bool
    note: bool


def figures_in_tables(document: Document) -> list[Figure]:
    """Every amount in the document's tables."""
    ends = year_ends(document.text)
    dollar = usual_dollar(document.text)
    out: list[Figure] = []
    before: Table | None = None
    for place, table in enumerate(document.tables):
        headed = _headed_by(document, table, before)
        out += _of_table(document, place, table, ends, dollar, headed)
        before = headed or table
    return out


def _headed_by(document: Document, table: Table, before: Table | None) -> Table | None:
    """The table on the page before whose headings a table without any goes on under; None for a table of its own."""
    if before is None or table.header_rows or not before.header_rows or not 0 <= before.columns - table.columns <= 2:
        return None
    page, last = document.pages_of(table.span)[0], document.pages_of(before.span)[1]
    between = document.blocks[
        document.block_index_at(before.span.start) + 1 : document.block_index_at(table.span.start)
    ]
    alone = all(b.kind == "furniture" for b in between)
    return before if page and page - last == 1 and alone else None


def _of_table(
    document: Document, place: int, table: Table, ends: YearEnds, dollar: str, headed: Table | None
) -> list[Figure]:
    text = document.text
    over = over_table(document, headed or table, ends, dollar)
    if any(re.fullmatch(r"(?:table of )?contents", c, re.IGNORECASE) for c in over.captions):
        return []
    shift = headed.columns - table.columns if headed else 0
    columns = {c: _column(headed or table, c + (shift if c else 0), text, ends, dollar) for c in range(table.columns)}
    stub = columns[0]
    body = range(table.header_rows, table.rows)
    numbers: dict[tuple[int, int], Printed] = {}
    for cell in table.cells:
        if (
            cell.row >= table.header_rows
            and cell.column > 0
            and (read := read_printed(cell.span.of(text), dollar)) is not None
        ):
            numbers[(cell.row, cell.column)] = read
    wanted = [c for c in range(1, table.columns) if _holds_amounts(columns[c], c, numbers, table, text)]
    if not wanted or len(body) == 0:
        return []
    by_period = [c for c in wanted if columns[c].heading.period is not None]
    if not by_period and (years := _years_above(over.captions, len(wanted))):
        for c, year in zip(wanted, years, strict=True):
            columns[c] = replace(columns[c], heading=read_heading(year, ends))
        by_period = wanted
    statement = _statement(over, table, text, body)
    basis = over.basis or _usual_basis(document)
    general = columns[0].scale.over(over.scale)
    if (
        not general.factor
        and not general.currency
        and statement in (*STOCK_STATEMENTS, *FLOW_STATEMENTS, "changes_in_equity", "note")
    ):
        general = general.over(whole_scale(document, dollar)) if basis else general
    spans_rows = {} if by_period else _row_periods(table, body, text, ends)
    out: list[Figure] = []
    group_scale = NOTHING
    for row in body:
        label = row_label(table, row, text)
        if is_group(table, row, text):
            group_scale = read_row_unit(label, dollar)[0] if label else NOTHING
            if not group_scale.unit and re.search(r"\bpence\b|\bcents\b", label, re.IGNORECASE):
                group_scale = read_scale(label, dollar)
            continue
        path = row_path(table, row, text)
        inner = path[:-1] if label else path
        if not inner:
            group_scale = NOTHING
        row_scale, bare = read_row_unit(label, dollar) if label else (NOTHING, "")
        amounts = [(c, numbers[(row, c)]) for c in wanted if (row, c) in numbers]
        for c, read in amounts:
            at = table.at(row, c)
            if at is None or at.row != row or at.column != c:
                continue
            column = columns[c]
            if column.change:
                continue
            made = _figure(
                document, place, table, at, read, label=bare or label, path=tuple(p for p in inner), column=column, stub=stub,
                scales=(row_scale, group_scale, column.scale, general), over=over, statement=statement, basis=basis, ends=ends,
                row_period=spans_rows.get(row), dated_columns=bool(by_period), dollar=dollar,
            )  # fmt: skip
            if made is not None:
                out.append(made)
    return out


def _years_above(captions: Sequence[str], count: int) -> list[str]:
    """The years of a line over a table that holds nothing but a scale and a year a column; [] where there is none."""
    for caption in captions[:2]:
        bare = _without_scale(re.sub(r"\bnotes?\b", " ", caption, flags=re.IGNORECASE))
        years = re.findall(r"\b(?:19|20)\d\d\b", bare)
        if len(years) == count > 1 and not re.sub(r"\b(?:19|20)\d\d\b", "", bare).strip(" ,;:£$€’'0"):
            return years
    return []


def _column(table: Table, place: int, text: str, ends: YearEnds, dollar: str) -> Column:
    cell = Cell(table.header_rows, place, 1, 1, table.span)
    words = " ".join(column_path(table, cell, text))
    scale = read_scale(words, dollar)
    bare = _without_scale(words)
    heading = read_heading(bare, ends)
    return Column(
        place,
        heading,
        scale,
        heading.rest,
        bool(heading.rest and CHANGE.match(heading.rest)),
        bool(NOTE_COLUMN.match(words.strip())),
    )


_scale_words = pattern(
    r"\(?\s*(?:in\s+)?(?:[£$€₹]|US\$|A\$|Rs\.?|GBP|USD|EUR|INR|AUD|NZD|CAD|CHF)\s*(?:in\s+)?(?:['’‘]?\s?000s?|millions?|thousands?|billions?|crores?|lakhs?|mn|bn|m|k)\b\s*\)?"
    r"|\(?\s*(?:in\s+)?(?:thousands?|millions?|billions?|crores?|lakhs?)(?:\s+of\s+\w+)?\s*\)?\Z|\s[£$€]\s*\Z|['’‘]000s?\b",
    re.IGNORECASE,
)


def _without_scale(words: str) -> str:
    return re.sub(r"\s+", " ", _scale_words.sub(" ", words)).strip(" ,;:")


def _holds_amounts(
    column: Column, place: int, numbers: dict[tuple[int, int], Printed], table: Table, text: str
) -> bool:
    if column.note or NO_AMOUNT.search(column.named):
        return False
    held = [n for (_, c), n in numbers.items() if c == place]
    cells = [c for c in table.cells if c.column == place and c.row >= table.header_rows]
    if not held or len(held) * 2 < len(cells):
        return False
    if all(n.value == 0 or n.value is None for n in held):
        return column.heading.period is not None
    plain = [c.span.of(text).strip() for c in cells]
    if not column.heading.period and not column.named and not column.scale.factor:
        # an unheaded column of small whole numbers before others is one of note references
        if all(re.fullmatch(r"\d{1,2}(?:\([a-z]\))?(?:,\s?\d{1,2})*", p) for p in plain) and any(
            c > place for (_, c) in numbers
        ):
            return False
        if all(re.fullmatch(r"(?:19|20)\d\d", p) for p in plain):
            return False
    return True


def _statement(over: Over, table: Table, text: str, body: range) -> str:
    """The statement that the headings name; where they name two or a note, the one that most rows belong to."""
    votes: dict[str, int] = {}
    for row in body:
        line = line_of(row_label(table, row, text), row_path(table, row, text)[:-1])
        if line is not None and line.statement in (
            "financial_position",
            "profit_or_loss",
            "cash_flows",
            "comprehensive_income",
        ):
            votes[line.statement] = votes.get(line.statement, 0) + 1
    joined = " ".join(over.captions).lower()
    named = {s for words, s in line_vocabulary().statements if re.search(rf"\b{re.escape(words)}\b", joined)}
    if (
        over.statement in ("financial_position", "profit_or_loss")
        and {"financial_position", "profit_or_loss"} <= named
        and votes
    ):
        return max(("financial_position", "profit_or_loss"), key=lambda s: votes.get(s, 0))
    if over.statement:
        return over.statement
    if votes and max(votes.values()) >= 8 and max(votes.values()) * 3 >= len(body):
        return max(votes, key=lambda s: votes[s])
    return "note"


def _usual_basis(document: Document) -> str:
    """Group accounts where the document has consolidated statements or speaks of the Group's; else nothing is said."""
    return "consolidated" if re.search(r"\bconsolidated\b|\bthe\s+Group['’]?s?\b", document.text) else ""


def _row_periods(table: Table, body: range, text: str, ends: YearEnds) -> dict[int, FigurePeriod]:
    """Periods of rows under columns that name things: movements lie between the dated rows around them."""
    out: dict[int, FigurePeriod] = {}
    dated: list[tuple[int, date]] = []
    for row in body:
        said = read_heading(row_label(table, row, text), ends)
        if (
            said.period is not None
            and (said.dated or re.search(r"\b(?:at|as of)\b", row_label(table, row, text), re.IGNORECASE))
            and said.period.end.year > 1950
        ):
            dated.append((row, said.period.end))
            out[row] = FigurePeriod(said.period.end)
    for (first, opening), (last, closing) in pairwise(dated):
        months = _months_between(opening, closing)
        if months > 0:
            for row in range(first + 1, last):
                out.setdefault(row, FigurePeriod(closing, months))
            if opening.day == 1:
                out[first] = FigurePeriod(before(closing, months))
    return out


def _months_between(opening: date, closing: date) -> int:
    months = (closing.year - opening.year) * 12 + closing.month - opening.month
    return months + 1 if opening.day == 1 and closing.day > 20 else months


def _nature(label: str, path: tuple[str, ...], line: Line | None, statement: str, over: Over) -> str:
    """ "stock", "flow" or "" for what a row measures."""
    if statement == "cash_flows":
        return "stock" if OPENING.search(label) or CLOSING.search(label) else "flow"
    if statement in STOCK_STATEMENTS:
        return "stock"
    for head in reversed(path):
        held = next(
            (s for words, s in line_vocabulary().statements if re.search(rf"\b{re.escape(words)}\b", head.lower())), ""
        )
        if held in STOCK_STATEMENTS:
            return "stock"
        if held in FLOW_STATEMENTS and held != "segments":
            return "flow"
    if OPENING.search(label) or CLOSING.search(label) or re.match(r"at\s+\d", label, re.IGNORECASE):
        return "stock"
    if line is not None and line.nature in ("stock", "flow", "share"):
        return "stock" if line.nature == "stock" else "flow"
    if statement in ("profit_or_loss", "comprehensive_income", "per_share"):
        return "flow"
    for words in (label, *reversed(path), *over.captions[:2]):
        stock, flow = STOCK_WORDS.search(words), FLOW_WORDS.search(words)
        if stock and not flow:
            return "stock"
        if flow and not stock:
            return "flow"
    return ""


def _figure(
    document: Document, place: int, table: Table, cell: Cell, read: Printed, *, label: str, path: tuple[str, ...], column: Column, stub: Column,
    scales: tuple[Scale, Scale, Scale, Scale], over: Over, statement: str, basis: str, ends: YearEnds, row_period: FigurePeriod | None,
    dated_columns: bool, dollar: str,
) -> Figure | None:  # fmt: skip
    text = document.text
    named = (
        column.named if not re.fullmatch(r"(?:total|amount|value|figure|note)?", column.named, re.IGNORECASE) else ""
    )
    words = label or (f"Total {path[-1].lower()}" if path and not path[-1].endswith(":") else "Total")
    row_words = read_heading(words, ends)
    segmental = statement == "segments" and bool(label)
    if named and segmental:
        shown = f"{named} – {words}" if not TOTALS.match(words) else named
    elif named and row_period is not None and row_period.months == 0:
        shown = named  # "Share capital" at the date of the row
    elif named and not dated_columns:
        shown = f"{words} – {named}"
    elif named:
        shown = f"{words}, {named}" if name_key(named) != name_key(words) else words
    else:
        shown = words
    if row_period is not None and named:
        whole = name_key(named) in ("total", "group", name_key("total equity"))
        line = line_of(named, path) if not row_period.months else line_of(words, path) if whole else None
    else:
        line = line_of(words, path) or (line_of(named, path) if segmental else None)
        if named and not dated_columns and not segmental:
            line = None  # "Revenue" in a column "Adjustment" is no revenue
    if line is not None and statement == "comprehensive_income" and line.id in ("profit_owners", "profit_minority"):
        line = None  # shares of the comprehensive income
    if line is not None and line.nature == "share" and not _a_share(read, scales, words, path, over):
        line = None
    if re.match(r"(?:total|net)\b", words, re.IGNORECASE) and (line is None or not line.within):
        path = ()  # a total over several groups does not stand under the last of them
    own = [
        m for m in row_words.marks if m not in ("forecast", "target", "actual", "audited", "reviewed")
    ]  # "expected credit losses" is none
    marks = tuple(dict.fromkeys([*column.heading.marks, *own, *over.marks]))
    if "unaudited" in column.heading.marks:
        marks = tuple(m for m in marks if m != "audited")
    if {"restated", "as reported"} <= set(marks) and "as reported" in column.heading.marks:
        marks = tuple(m for m in marks if m != "restated")
    period, hint = _period(
        column,
        stub,
        over,
        row_period,
        row_words,
        ends,
        _nature(label or words, path, line, statement, over),
        label or words,
    )
    unit, per, factor = _unit(read, scales, label, path, named, line, over)
    value = None if read.value is None else read.value * factor
    if line is not None and not unit_fits(line, unit):
        line = None
    if segmental and not TOTALS.match(words):
        basis = "segment"
        line = None
    return Figure(
        document=document, span=cell.span, label=shown, path=(*path, words) if label else (*path,), value=value,
        as_printed=" ".join(cell.span.of(text).split()), unit=unit, per=per, scale=factor, period=period, statement=statement, basis=basis,
        item=line.id if line is not None else "", marks=marks, table=place, row=cell.row, column=cell.column, hint=hint, around=row_span(table, cell.row),
    )  # fmt: skip


def _in_report(heading: Heading, ends: YearEnds) -> Heading:
    """A bare year over a column of an interim report is that year's interim period."""
    main, period = ends.main, heading.period
    if period is None or heading.sure or main is None or main.months in (0, 12) or heading.dated or period.months != 12:
        return heading
    return replace(heading, period=FigurePeriod(moved_to(main.end, period.end.year), main.months))


def _period(
    column: Column,
    stub: Column,
    over: Over,
    row_period: FigurePeriod | None,
    row_words: Heading,
    ends: YearEnds,
    nature: str,
    label: str,
) -> tuple[FigurePeriod | None, str]:
    """The period of a cell, and a remark on how it was told."""
    if row_period is not None:
        return row_period, "from the dates of the rows around it" if row_period.months else ""
    said = column.heading
    if said.period is None and stub.heading.period is not None:
        said = stub.heading
    if said.period is None and row_words.period is not None and row_words.sure:
        said = row_words
    if said.period is None and over.period is not None:
        said = over.period
    if said.period is None:
        return None, ""
    period = _in_report(said, ends).period or said.period
    if OPENING.search(label) and period.months:
        return FigurePeriod(before(period.end, period.months)), "the day before the period begins"
    if nature == "stock":
        return FigurePeriod(period.end), said.hint
    if period.months == 0 and said.dated and nature == "flow":
        months = ends.length_of(period.end) or (
            12 if (period.end.month, period.end.day) == (ends.month, ends.day) else 0
        )
        return replace(period, months=months), said.hint
    if period.months == 0 and said is over.period and nature == "flow":
        return replace(period, months=ends.length_of(period.end)), said.hint
    if column.heading.period is None and said is stub.heading and nature == "flow" and not period.months:
        return replace(period, months=ends.length_of(period.end)), said.hint
    return period, said.hint


def _a_share(
    read: Printed, scales: tuple[Scale, Scale, Scale, Scale], words: str, path: tuple[str, ...], over: Over
) -> bool:
    """True where an amount is one a share: its cell, its unit or a heading says so."""
    small = read.unit in ("pence", "cents") or any(s.unit.startswith(("pence", "cents")) for s in scales)
    return small or any(PER_SHARE.search(w) for w in (words, *path, *over.captions[:1]))


def _unit(
    read: Printed,
    scales: tuple[Scale, Scale, Scale, Scale],
    label: str,
    path: tuple[str, ...],
    named: str,
    line: Line | None,
    over: Over,
) -> tuple[str, str, Decimal]:
    """Unit, what it is per, and multiplier: the cell's own words before the row's, the group's, the column's and the table's."""
    row, group, column, general = scales
    words = f"{label} {' '.join(path[-1:])} {named}"
    share = bool(PER_SHARE.search(words)) or bool(line and line.nature == "share")
    per = "share" if share else ""
    if read.unit in ("percent", "percentage points", "basis points", "times"):
        return read.unit, "", Decimal(1)
    if read.unit in ("pence", "cents"):
        return read.unit, per, Decimal(1)
    if read.unit and read.scale != 1:
        return read.unit, per, read.scale
    found = row.over(group) if row is not NOTHING or group is not NOTHING else NOTHING
    if column.unit and not found.unit and not found.currency:
        found = column
    if found.unit:
        unit = {"%": "percent", "per cent": "percent", "p": "pence", "x": "times"}.get(found.unit, found.unit)
        if unit.startswith(("pence per", "cents per")):
            unit, per = unit.split()[0], "share"
        return unit, per, Decimal(found.factor or 1)
    if found.currency or found.factor:
        currency = found.currency or ("" if COUNTS.search(label) else read.unit)
        return currency, per, Decimal(found.factor or 1)
    wide = column.over(general) if not column.unit else column
    if wide.unit and not read.unit:
        return (
            wide.unit,
            per
            or (
                "share"
                if wide.unit in ("pence", "cents") and any("per share" in c.lower() for c in over.captions)
                else ""
            ),
            Decimal(1),
        )
    if share:
        return read.unit or wide.currency, per, Decimal(1)
    if (line and line.nature == "ratio") or COUNTS.search(label) or COUNTS.search(named):
        return read.unit, "", Decimal(1)
    if re.search(r"(?:,\s*|\()(?:megalit|Ml|tonnes?|kWh|MWh|GWh|km|hours|days|years|times|min)\b", label):
        return "", "", Decimal(1)
    return read.unit or wide.currency, per, (read.scale if read.scale != 1 else Decimal(wide.factor or 1))
