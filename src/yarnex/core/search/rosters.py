"""Every item of a named list: entries of a list, rows of a table, headings, or names in running text, once each, in order.

In: a document and what the items are ("directors", "sites"). Out: a `Roster` with the items and their cites, what was left
out and why, and the gaps in its numbering.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace

from yarnex.core.document import Block, Cell, Cite, Document, Span, Table
from yarnex.core.document.table_paths import column_path
from yarnex.core.patterns import pattern
from yarnex.core.search.numbered_entries import numbered_entries
from yarnex.core.search.roster_lines import FEWEST, numbered_items, parts_behind_colon
from yarnex.core.search.roster_model import Roster, RosterItem, RosterOffer
from yarnex.core.terms.by_words import ideas_of
from yarnex.core.terms.candidates import on_one_line
from yarnex.core.terms.lines import Line
from yarnex.core.terms.passages import Passages, plain_label
from yarnex.core.terms.values_in_lines import line_values_of
from yarnex.core.words import stem, stems_of

WORD = pattern(r"[^\W\d_]+")
LONGEST = 160  # characters of an item
NUMBER = pattern(r"\A\W*(?P<n>\d{1,3})(?:[.)]|\s|\Z)")
CODE = pattern(r"[A-Z]{1,3}[-.]?\d[\w.-]{0,10}")  # B1, OA-1104: part of an item's name
_ordinal = r"(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth)"
OPENING = pattern(  # "Exhibit B ...", "Endorsement 3 - ...", "SECOND SCHEDULE ..."
    rf"(?:{_ordinal}\s+(?P<after>[a-z]+)|(?P<before>[a-z]+)\s+(?P<number>\d{{1,3}}|[A-Z]|[IVX]{{1,5}}))(?=[\s.,:–—-]|\Z)",
    re.IGNORECASE,
)
LEADER = pattern(r"(?:\.\s?){4,}|…")
TOTAL = pattern(
    r"\s*(?:grand\s+)?(?:sub-?)?totals?(?:\s*[:.]|\s+(?:of|for|amount|due|payable|in|incl\w*|excl\w*|before|after|[£$€\d])|\W*\Z)|\A\W*\Z",
    re.IGNORECASE,
)
TOTAL_ROW = pattern(r"\s*(?:grand\s+)?totals?\b", re.IGNORECASE)
LISTS = pattern(
    r"(?:\b(?:are|were|include|includes|including|namely|comprise|comprises)\b|:)\s*(?P<rest>[^.;:]{8,400})"
)
PEOPLE = (
    "director",
    "person",
    "witness",
    "member",
    "staff",
    "speaker",
    "attende",
    "signatori",
    "offic",
    "provid",
    "parti",
    "contractor",
    "supplier",
    "lender",
    "custom",
    "compani",
    "bidder",
)


OF_THEM = pattern(
    r"(?P<head>[^,.;:()]{3,60}?)\s+(?:of|to|for|from|by|with)\s+(?:the\s+)?[^,.;:()]{3,60}\Z", re.IGNORECASE
)
LEAD_OF_ITS_OWN = 40  # characters of a lead-in that says what the items are without the words over its paragraph
LIST_WORD = pattern(
    r"\b(?:lists?|tables?|schedules?|names?|particulars|details|description|summary|summaries|register|statement|analysis|number|inventory|kinds?|types?|classes|categories)\b",
    re.IGNORECASE,
)


Wanted = list[list[tuple[frozenset[str], float]]]


def roster(document: Document, of: str) -> Roster:
    """The fullest list in the document whose heading, column or lead-in names the items; none where nothing does."""
    from yarnex.core.search.roster_records import from_records

    recorded = from_records(document, of)
    if recorded is not None and recorded.items:
        numbers = [int(i.number) for i in recorded.items if i.number]
        return Roster(document, of, tuple(recorded.items), recorded.source, _gaps(numbers))
    passages = Passages(document)
    wanted = _wanted(of)
    offers = [
        *_tables(passages, wanted),
        *_rows_that_fit(passages, wanted, of),
        *_lists(passages, wanted),
        *_headings(passages, wanted),
        *_in_running_text(passages, wanted),
        *_sentences(passages, wanted, of),
    ]
    offers = [_of_the_part(passages, of, o) for o in offers if len(o.items) >= 2 or o.score > 1]
    if (entries := numbered_entries(passages, QUALIFIER.sub("", of) or of)) is not None:
        offers.append(entries)
    named = _speakers(passages, of) or _parties(passages, of)
    if not offers and named is None:
        return Roster(document, of, ())
    if named is not None:
        offers.insert(0, named)
    besides = _qualified_by(of)
    best = max(
        offers,
        key=lambda o: (
            round(o.score, 3) + min(0.3, 0.01 * len(o.items)) + QUALIFIED * _says_of(o.source, besides),
            len(o.items),
            -o.items[0].cites[0].span.start,
        ),
    )
    items, duplicates = _once(best.items)
    also = _elsewhere(items, [o for o in offers if o is not best])
    also = [i for i in also if not _heads_the_list(i.text, of)] or also
    also = _lettered(also)
    numbers = [int(i.number) for i in items if i.number.isdigit()]
    gaps = _gaps(numbers)
    chosen = [c.span for item in items for c in item.cites]
    left = tuple(
        (item.text, f"stands only in {offer.source}")
        for offer in offers
        if offer is not best and offer.score >= max(0.5, 0.8 * best.score)
        for item in offer.items
        if all(not c.span.overlaps(x) for c in item.cites for x in chosen)
    )
    return Roster(document, of, tuple(also), best.source, gaps, duplicates, left[:20])


LETTERED = pattern(r"\((?:[a-z]|[ivx]{1,4})\)\s")


def _lettered(items: list[RosterItem]) -> list[RosterItem]:
    """The lettered items alone, where they are most of a list: the clauses that follow them are none."""
    lettered = [i for i in items if LETTERED.match(i.text)]
    return lettered if len(lettered) >= FEWEST and len(items) > len(lettered) > 0.6 * len(items) else items


def _heads_the_list(text: str, of: str) -> bool:
    """True for words that are a heading for all of them: "Directors of Weir Holdings plc"."""
    last = re.findall(r"[A-Za-z]+", QUALIFIER.sub("", of) or of)[-1:]
    return bool(last) and re.match(rf"{re.escape(last[0])}\s+of\b", text, re.IGNORECASE) is not None


PART = pattern(
    r"\b(?P<name>part|schedule|section|annex|appendix|exhibit|chapter)\s+(?P<number>[A-Z]|\d{1,3}|[IVX]{1,5})\b",
    re.IGNORECASE,
)


def _of_the_part(passages: Passages, of: str, offer: RosterOffer) -> RosterOffer:
    """The offer with only those items that stand in the part that the request names, "products in Part A"; all where none does."""
    named = PART.search(of)
    if named is None:
        return offer
    label = re.compile(rf"\b{named['name']}\s+{named['number']}\b", re.IGNORECASE)
    inside = []
    for item in offer.items:
        block = passages.document.block_at(item.cites[0].span.start)
        above = passages.headings_of(block) if block is not None else ""
        place = passages.document.block_index_at(item.cites[0].span.start)
        if place and passages.document.blocks[place - 1].kind != "table":  # what stands right over the table
            above += " " + passages.document.blocks[place - 1].span.of(passages.text)[-LONGEST:]
        if label.search(above):
            inside.append(item)
    return replace(offer, items=inside) if inside else offer


def _gaps(numbers: Sequence[int]) -> tuple[str, ...]:
    """The numbers missing between the first and the last of three or more."""
    return tuple(str(n) for n in range(min(numbers), max(numbers)) if n not in numbers) if len(numbers) > 2 else ()


QUALIFIER = pattern(
    r"\s*(?:\([^()]*\)|,|\b(?:at|in|of|from|who|that|which|on|to|with|without|needing|needed|made|named|under|for|beyond|over|above|below|before|after|not|still)\b).*",
    re.IGNORECASE,
)


def _wanted(of: str) -> Wanted:
    """What is asked for, idea by idea, the thing itself last, each with the words for it and what they are worth.

    What qualifies it ("at the date of the report") is left out.
    """
    plain = QUALIFIER.sub("", of) or of
    ideas = [[(frozenset(way), worth) for way, worth in idea.ways] for idea in ideas_of(plain, loosely=False)]
    return ideas or [[(frozenset(stems_of(of, stop=True)), 1.0)]]


OF_WHAT = pattern(r"\b(?:of|from|in|for|to|under|by)\s+(?P<what>[^(),]+)", re.IGNORECASE)
QUALIFIED = 0.3  # what a list gains whose lead-in also says what the items are of: "exclusions from gross takings"


def _qualified_by(of: str) -> Wanted:
    """The ideas of what the items are of or from; none where the request says nothing of it."""
    found = OF_WHAT.search(of)
    ideas = ideas_of(found["what"], loosely=False) if found else ()
    return [[(frozenset(way), worth) for way, worth in idea.ways] for idea in ideas]


def _says_of(source: str, besides: Wanted) -> float:
    """The share of those ideas that the words over a list name."""
    stems = frozenset(stems_of(source))
    told = (max((worth for way, worth in ways if way <= stems), default=0.0) for ways in besides)
    return sum(told) / len(besides) if besides else 0.0


# "Shareholder relations" heads no list of shareholders.
OF_ANOTHER = pattern(
    r"\W*(?:information|reports?|policy|policies|relations|matters|strategy|reviews?|committees?|meetings?|services?|rights|remuneration|calendar|guide|engagement|protection|returns?)\b",
    re.IGNORECASE,
)


def _names(label: str, wanted: Wanted, *, own: bool = False) -> float:
    """How well a label names what is asked for: 1 where it says just that, 0 where it does not name the thing itself.

    own: only by its own words, not by other words for it.
    """
    stems = frozenset(stems_of(label))
    behind = OF_THEM.match(label)
    if behind and not LIST_WORD.search(behind["head"]) and not wanted[-1][0][0] & frozenset(stems_of(behind["head"])):
        return 0.0
    best = [
        max((worth for way, worth in ways if way <= stems and (worth == 1.0 or not own)), default=0.0)
        for ways in wanted
    ]
    if not best[-1]:
        return 0.0
    thing = next((m for m in WORD.finditer(label) if any(way <= {stem(m.group())} for way, _ in wanted[-1])), None)
    if thing is not None and OF_ANOTHER.match(label, thing.end()):
        return 0.0
    besides = sum(best[:-1]) / (len(best) - 1) if len(best) > 1 else 1.0
    return best[-1] * (0.6 + 0.4 * besides) * (0.6 + 0.4 * min(1.0, len(wanted) / max(1, len(stems))))


def _item(passages: Passages, span: Span, number: str = "") -> RosterItem | None:
    words = on_one_line(span.of(passages.text))
    words = words if len(words) <= LONGEST else words[:LONGEST].rsplit(" ", 1)[0] + " …"
    if not re.search(r"[A-Za-z]{2}|\d", words) or TOTAL.match(words):
        return None
    return RosterItem(words, (Cite(passages.document, Span(span.start, min(span.end, span.start + 400))),), number)


def _tables(passages: Passages, wanted: Wanted) -> Iterator[RosterOffer]:
    """Columns whose heading, or first columns of tables whose caption or section, names the items; parts of one table joined."""
    document, text = passages.document, passages.text
    joined: dict[tuple[str, int, int], RosterOffer] = {}
    for block in document.blocks:
        if block.kind != "table":
            continue
        table = document.tables[block.table]
        heads = {
            c: " ".join(column_path(table, cell, text)) for c in range(table.columns) if (cell := _any_cell(table, c))
        }
        above = (
            passages.headings_of(block).rsplit(" / ", 1)[-1]
            + " "
            + text[max(0, table.span.start - 120) : table.span.start]
        )
        heading = plain_label(passages.headings_of(block).rsplit(" / ", 1)[-1])
        exact = _names(heading, wanted, own=True)
        by_caption = max(
            0.75 * max(_names(above.split("\n")[-1], wanted), _names(heading, wanted)),
            0.98 * exact if exact > 0.9 else 0.0,
        )
        worded = [_in_words(table, column, text) for column in range(table.columns)]
        first = next((c for c, words in enumerate(worded[:3]) if words), 0)
        for column in range(table.columns):
            score = 0.95 * _names(heads.get(column, ""), wanted, own=True) if worded[column] else 0.0
            if column == first:
                score = max(score, by_caption)
            if score < 0.35:
                continue
            items: list[RosterItem] = []
            code = ""
            for row in range(table.header_rows, table.rows):
                cell, lead = table.at(row, column), table.at(row, 0)
                if cell is None or cell.span.end <= cell.span.start:
                    continue
                if len(items) > 1 and _is_total(table, row, text):
                    break  # what stands below the total tells of the whole
                number = NUMBER.match(lead.span.of(text)) if lead is not None else None
                made = _item(passages, cell.span, number["n"] if number else "")
                code = lead.span.of(text).strip() if lead is not None and lead is not cell else ""
                if made is not None and CODE.fullmatch(code):
                    made = replace(made, text=f"{code} {made.text}")
                if made is not None:
                    items.append(made)
            if code and CODE.fullmatch(code):
                items += _counted_on(passages, block, code)
            key = (heads.get(column, "") or above[-40:], column, table.columns)
            if key in joined:
                joined[key].items.extend(items)
            else:
                joined[key] = RosterOffer(
                    score, f"a table under {heads.get(column) or plain_label(above.strip())[-60:]!r}", items
                )
    yield from joined.values()


COUNTED = pattern(r"(?P<letters>[A-Z]{1,3}[-.]?)(?P<n>\d{1,3})")


def _counted_on(passages: Passages, table: Block, last: str) -> Iterator[RosterItem]:
    """The paragraphs right below a table that go on with its numbering: "B11 ..." below the row B10."""
    if (counted := COUNTED.fullmatch(last)) is None:
        return
    number = int(counted["n"])
    after = passages.document.blocks[passages.document.blocks.index(table) + 1 :]
    for block in after:
        number += 1
        if block.kind in ("table", "heading") or not re.match(
            rf"{re.escape(counted['letters'])}{number}[\s.:]", block.span.of(passages.text)
        ):
            return
        if (made := _item(passages, block.span)) is not None:
            yield made


YES = pattern(r"(?:yes|y|✓|✔|☑|☒|x|true|required|needed)\Z", re.IGNORECASE)


def _rows_that_fit(passages: Passages, wanted: Wanted, of: str) -> Iterator[RosterOffer]:
    """Rows of a table of such items that meet what the request adds: "goods needing repair" where a column tells that.

    A column named by those words counts where it says yes; any cell counts that holds all of them.
    """
    held = QUALIFIER.search(of)
    more = frozenset(stems_of(of[held.start() :].split("(")[0])) - CONDITION_WORDS if held else frozenset()
    if not more:
        return
    document, text = passages.document, passages.text
    for block in document.blocks:
        if block.kind != "table":
            continue
        table = document.tables[block.table]
        heads = [
            " ".join(column_path(table, cell, text)) if (cell := _any_cell(table, c)) else ""
            for c in range(table.columns)
        ]
        if not any(
            _names(head, wanted, own=True)
            for head in [*heads, plain_label(passages.headings_of(block).rsplit(" / ", 1)[-1])]
        ):
            continue
        telling = {c for c, head in enumerate(heads) if more <= frozenset(stems_of(head))}
        items = []
        for row in range(table.header_rows, table.rows):
            cells = [c for c in table.row_cells(row) if c.span.end > c.span.start]
            fits = [
                c
                for c in cells
                if (c.column in telling and YES.match(c.span.of(text).strip()))
                or (c.column not in telling and more <= frozenset(stems_of(c.span.of(text))))
            ]
            named = [c for c in cells if c not in fits and c.column not in telling]
            if not fits or not named:
                continue
            words = " ".join(on_one_line(c.span.of(text)) for c in named[:3])
            items.append(
                RosterItem(
                    words[:LONGEST],
                    (Cite(document, Span(named[0].span.start, cells[-1].span.end)),),
                    "",
                    f"{heads[fits[0].column]}: {on_one_line(fits[0].span.of(text))}".strip(" :"),
                )
            )
        if items:
            yield RosterOffer(
                1.5, f"the rows of a table that say {of[held.start() :].strip()!r}" if held else "", items
            )


CONDITION_WORDS = frozenset(stems_of("needing that are have has with under made named which who", stop=True))


def _is_total(table: Table, row: int, text: str) -> bool:
    """True for a row that adds up those above: one that says so, or one of numbers without any words."""
    cells = [words for c in table.row_cells(row) if (words := c.span.of(text).strip())]
    return bool(cells) and (
        bool(TOTAL_ROW.match(cells[0])) or (len(cells) > 1 and not any(re.search(r"[A-Za-z]{3}", w) for w in cells))
    )


def _any_cell(table: Table, column: int) -> Cell | None:
    return next((c for r in range(table.header_rows, table.rows) if (c := table.at(r, column)) is not None), None)


def _in_words(table: Table, column: int, text: str) -> bool:
    """True for a column that mostly holds words."""
    cells = [c.span.of(text) for r in range(table.header_rows, table.rows) if (c := table.at(r, column))]
    return sum(bool(re.search(r"[A-Za-z]{3}", c)) for c in cells) > 0.6 * max(1, len(cells))


def _lists(passages: Passages, wanted: Wanted) -> Iterator[RosterOffer]:
    """List items under a lead-in or a heading that names them."""
    text = passages.text
    blocks = [b for _, b in passages.blocks]
    for place, block in enumerate(blocks):
        words = block.span.of(text)
        lead = words[-160:] if words.rstrip().endswith((":", "–", "—")) else ""
        listed = place + 1 < len(blocks) and blocks[place + 1].kind == "item" and block.kind == "paragraph"
        if not lead and listed and BELOW.search(words):  # "The managers are listed below; each ..."
            lead = max(re.split(r"[.;]\s", words), key=lambda s: bool(BELOW.search(s)))
        heading = plain_label(block.heading) if block.heading else ""
        score = max(0.85 * _names(lead, wanted) if lead else 0.0, 0.9 * _names(heading, wanted) if heading else 0.0)
        if score < 0.35:
            continue
        items = []
        for after in blocks[place + 1 :]:
            if after.kind == "heading" and (block.kind != "heading" or after.level <= block.level):
                break
            if after.kind == "item" or after.number:
                number = NUMBER.match(after.span.of(text))
                made = _item(passages, _without(after.span, after.number, text), number["n"] if number else "")
                if made is not None:
                    items.append(made)
            elif items and after.kind == "paragraph" and block.kind != "heading":
                break
        yield RosterOffer(score, f"the list under {(heading or lead.strip())[-60:]!r}", items)


OUTRIGHT = 0.15
BELOW = pattern(r"\b(?:below|following|as\s+follows|listed|are\s+these)\b", re.IGNORECASE)


def _in_running_text(passages: Passages, wanted: Wanted) -> Iterator[RosterOffer]:
    """Items that a paragraph counts, "(1) ...; (2) ...", or parts by semicolons behind a colon, where what leads to them or the
    heading names them.
    """
    text = passages.text
    for _, block in passages.blocks:
        if block.kind in ("table", "heading"):
            continue
        words = block.span.of(text)
        counted = numbered_items(words)
        parts = counted or [("", s) for s in parts_behind_colon(words)]
        if not parts:
            continue
        lead = re.split(r"[.;]\s", words[: parts[0][1].start])[-1]
        defined = f"{block.heading or ''} {lead}" if len(lead) < LEAD_OF_ITS_OWN else lead
        heading = plain_label(passages.headings_of(block).rsplit(" / ", 1)[-1])
        score = max(
            0.9 * _names(lead, wanted),
            _listed_below(lead, wanted),
            0.85 * _names(defined, wanted),
            0.89 * _names(plain_label(block.heading or ""), wanted, own=True),
            0.8 * _names(heading, wanted, own=True),
        )
        if score < 0.35:
            continue
        items = []
        for mark, span in parts:
            made = _item(
                passages,
                Span(block.span.start + span.start, block.span.start + span.end),
                mark if mark.isdigit() else "",
            )
            if made is not None:
                items.append(made)
        yield RosterOffer(score, f"the list in the text after {on_one_line(lead)[-60:]!r}", items)


def _listed_below(lead: str, wanted: Wanted) -> float:
    """How well words name the items that say outright that a list of them follows: "the following holdings:"."""
    said = BELOW.search(lead)
    named = _names(lead[said.start() :], wanted) if said else 0.0
    return min(1.0, named + OUTRIGHT) if named else 0.0


def _without(span: Span, number: str, text: str) -> Span:
    words = span.of(text)
    m = re.match(rf"\s*{re.escape(number)}[.)]?\s*", words) if number else None
    return Span(span.start + m.end(), span.end) if m and m.end() < len(words) else span


def _headings(passages: Passages, wanted: Wanted) -> Iterator[RosterOffer]:
    """Headings that each are an item: under one that names them, or that all begin with the word ("Risk 1, ...")."""
    document = passages.document
    sections = document.sections
    for place, section in enumerate(sections):
        score = 0.88 * _names(section.name, wanted)
        if score >= 0.35:
            items = [
                i for s in sections if s.parent == place and (i := _item(passages, _heading_span(passages, s.span)))
            ]
            numbered = [i for i in items if NUMBER.match(i.text)]
            if len(numbered) >= FEWEST:  # the others are parts of them
                items = numbered
            yield RosterOffer(score, f"the headings under {section.name!r}", items)
    opened: list[RosterItem] = []
    text = passages.text
    for _, block in passages.blocks:
        words = block.span.of(text)[:LONGEST].split("\n")[0]
        m = OPENING.match(words)
        if m is None or block.kind == "table" or LEADER.search(words) or len(wanted) > 2:
            continue
        kind = stems_of(m["before"] or m["after"])
        if not any(way <= frozenset(kind) for way, worth in wanted[-1] if worth == 1.0):
            continue
        stop = re.search(r"\.\s", words[m.end() :])
        end = (
            block.span.end
            if block.kind == "heading"
            else block.span.start + (m.end() + stop.start() if stop else len(words))
        )
        number = m["number"] or ""
        made = _item(passages, Span(block.span.start, min(end, block.span.end)), number if number.isdigit() else "")
        if made is not None:
            opened.append(made)
    yield RosterOffer(0.87, "headings with a number each", opened)


def _heading_span(passages: Passages, span: Span) -> Span:
    block = passages.document.block_at(span.start)
    return (
        block.span
        if block is not None and block.kind == "heading"
        else Span(span.start, min(span.end, span.start + 80))
    )


def _speakers(passages: Passages, of: str) -> RosterOffer | None:
    """Everyone who speaks in a transcript, where that is what is asked for."""
    asked = set(stems_of(of))
    askers = bool({"question", "ask"} & asked) and bool(
        {"person", "who", "analyst", "investor", "name"} & set(stems_of(of, stop=True))
    )
    if not askers and not {"speaker", "speak", "talk", "present", "particip"} & asked:
        return None
    marks = [m for m in passages.document.marks if m.kind == "speaker" and m.value]
    names: dict[str, RosterItem] = {}
    turns: dict[str, list[bool]] = {}
    for mark, after in zip(marks, [*marks[1:], None], strict=True):
        names.setdefault(mark.value, RosterItem(mark.value, (Cite(passages.document, mark.span),)))
        said = passages.text[mark.span.start : after.span.start if after else len(passages.text)]
        turns.setdefault(mark.value, []).append("?" in said)
    if askers:
        kept = [
            item
            for name, item in names.items()
            if 2 * sum(turns[name]) >= len(turns[name]) and "operator" not in name.lower()
        ]
        return RosterOffer(1.0, "the speakers half or more of whose turns hold a question", kept) if kept else None
    return RosterOffer(1.0, "the speakers that the transcript marks", list(names.values())) if names else None


def _parties(passages: Passages, of: str) -> RosterOffer | None:
    """The parties to an agreement with the roles that it gives them, where they are what is asked for."""
    if stems_of(QUALIFIER.sub("", of) or of) != stems_of("parties"):
        return None
    items: dict[str, RosterItem] = {}
    for party, span, sentence in passages.roles:
        role = re.sub(r"\A(?:the|each|an?)\s+", "", party.role, flags=re.IGNORECASE)
        place = sentence if sentence.end - sentence.start < 400 else span
        items.setdefault(party.name.lower(), RosterItem(f"{party.name} ({role})", (Cite(passages.document, place),)))
    return RosterOffer(1.2, "the parties to whom the document gives a role", list(items.values())) if items else None


def _sentences(passages: Passages, wanted: Wanted, of: str) -> Iterator[RosterOffer]:
    """A sentence that lists them: "the sites are A, B and C"; and names of people or firms in sections about them."""
    text = passages.text
    people = any(s.startswith(PEOPLE) for s in stems_of(of))
    values = line_values_of(passages)
    gathered: list[RosterItem] = []
    for sentence in passages.sentences:
        words = sentence.span.of(text)
        m = LISTS.search(words) if _names(words, wanted) else None
        named = _names(" ".join(words[: m.start("rest")].split()[-8:]), wanted) if m else 0.0
        if not named:
            m = None  # the words that lead to the list must name it
        if m and m["rest"].count(",") >= 1:
            items = []
            for part in re.finditer(r"(?:[^,]|,(?=\d{3}\b))+?(?=,(?!\d{3}\b)|\s+and\s+(?=[^,]*\Z)|\Z)", m["rest"]):
                piece = re.sub(r"\A\s*(?:and\s+|the\s+)?", "", part.group())
                if piece.strip():
                    at = sentence.span.start + m.start("rest") + part.start() + part.group().find(piece)
                    made = _item(passages, Span(at, at + len(piece.rstrip(" ."))))
                    if made is not None:
                        items.append(made)
            yield RosterOffer(min(0.55, 0.3 + 0.28 * named), "a sentence that lists them", items)
        last = sentence.headings.rsplit(" / ", 1)[-1]
        if people and _names(last, wanted) > 0.3:
            line = Line(sentence.span, sentence.span, "sentence", sentence.block)
            for found in values.parties(line)[:1]:
                if found.span.start - sentence.span.start < 6:
                    made = _item(passages, found.span)
                    if made is not None:
                        gathered.append(made)
    yield RosterOffer(0.8, "names that open the paragraphs of that section", gathered)


def _key(text: str) -> str:
    return " ".join(re.findall(r"[a-z0-9]+", re.sub(r"\([^()]*\)", " ", text.lower())))[:60]


def _once(items: Sequence[RosterItem]) -> tuple[list[RosterItem], tuple[str, ...]]:
    """Each item once, with all its places; the words of those that stood twice."""
    out: dict[str, RosterItem] = {}
    twice: dict[str, None] = {}
    for item in items:
        key = _key(item.text)
        if key in out:
            twice[item.text] = None
            out[key] = replace(out[key], cites=(*out[key].cites, *item.cites))
        else:
            out[key] = item
    return list(out.values()), tuple(twice)


def _elsewhere(items: Sequence[RosterItem], others: Sequence[RosterOffer]) -> list[RosterItem]:
    """Items with the other lists in which they stand."""
    places: dict[str, list[Cite]] = {}
    for offer in others:
        for item in offer.items:
            places.setdefault(_key(item.text), []).extend(item.cites)
    out = []
    for item in items:
        more = [c for c in places.get(_key(item.text), []) if all(not c.span.overlaps(x.span) for x in item.cites)]
        out.append(replace(item, cites=(*item.cites, *more[:3])))
    return out
