"""Who signs, and for whom: the blocks of signatures that close a paper."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from yarnex.core.document import Cite, Document, Span, Table
from yarnex.core.patterns import pattern
from yarnex.core.values.parties import is_organisation

LINES = 7  # short paragraphs that one block of signatures may run over
SHORT = 110  # letters of such a paragraph
_other = (
    r"(?!(?:Title|Position|Capacity|Date|Name|By|Its|Witness|Director|Secretary|Address|Telephone|Signed|For|Print)\b)"
)
_name = (
    rf"(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof|Sir|Dame)\.?\s)?{_other}[A-Z][\w’'-]*\.?"
    rf"(?:[ \u00a0](?:(?:van|von|der|den|de|la|le|du|ter)[ ])*{_other}[A-Z][\w’'-]*\.?){{1,3}}"
)
_labelled = pattern(
    rf"\b(?:Print(?:ed)?\s+)?Name:?\s*(?P<who>{_name})(?:\s*[,;]?\s*(?:Title|Position|Capacity|Office|Role):?\s*(?P<post>[A-Z][\w ,&-]{{2,50}}?)(?=\s*(?:\Z|Date|Name|By|Witness|\n)))?"
)
_signed = pattern(
    rf"\(?\b[Ss](?:igned|IGNED)\)?\s+(?:as\s+a\s+deed\s+)?(?:by\s+)?(?P<who>{_name})(?:,?\s+(?P<post>(?:[A-Z]?[a-z]+\s){{0,3}}(?:[Dd]irector|[Ss]ecretary|[Mm]anager|[Pp]artner|[Oo]fficer|[Cc]hair\w*|[Aa]ttorney|[Tt]rustee)))?"
)
_posted = pattern(
    rf"(?P<who>{_name}),\s+(?P<post>(?:[A-Z][\w&-]*\s){{0,4}}(?:Director|Secretary|Manager|Partner|Officer|Chair\w*|Attorney|Trustee|Signatory|President|Principal|(?:Head|Chief|Controller|Treasurer|Clerk)(?:\s(?:of|to)(?:\s[A-Z][\w&-]*){{1,3}})?))\b"
)
_for = pattern(
    r"\b(?:[Ss]igned\s+)?(?:[Ff]or|FOR)\s+(?:and\s+on\s+behalf\s+of\s+)?(?P<party>(?:the\s+)?[A-Z][\w&.,’'() -]{2,70}?)(?=\s*(?:[:\n_.…]|\Z|by\b|By\b|Name\b|[Ss]igned\b|\t|[A-Z][\w’'-]*\.?\s[A-Z][\w’'-]*,))"
)
_role = pattern(
    r"(?<!\w)(?!(?:Name|Title|Position|Capacity|Date|Witness|Address|Signed|Print)\b)(?P<party>(?:[A-Z]{4,}|[A-Z][a-z]{3,})(?:[ ](?!Title|Name)[A-Z][A-Za-z]+)?):[ \t]*\n?[ \t]*"
    r"(?P<firm>[A-Z][\w&.,’'() -]{2,70}?)(?=[ \t]+(?:By|Name|Signed|_{3,})|[ \t]*\n|[ \t]*\Z)"
)
_no_person = pattern(
    r"\b(?:Limited|Ltd|LLC|LLP|L\.P|Inc|plc|PLC|Company|Corporation|Agreement|Lease|Landlord|Tenant|Lessor|Lessee|Supplier|Customer|Date|Title|Director|Witness|Signature|Authori[sz]ed)\b"
)
_opens = pattern(
    r"\(?\b(?:signed|executed|(?-i:Agreed|Accepted|Countersigned)\s+(?:for|by|on\s+behalf)|for and on behalf|by:|name:|(?-i:For\s+[A-Z][\w&]*\s|For\s+(?:the\s+)?[A-Z][\w&]*:\s+[A-Z])|(?-i:[A-Z]{5,}:(?:\s+[A-Z]|\s*\Z)))",
    re.IGNORECASE,
)


SIGNED_FOR = pattern(
    rf"\b(?:[Ss]igned|SIGNED|[Aa]greed|[Aa]ccepted|[Cc]ountersigned)\s+(?:for|by|on\s+behalf\s+of|for\s+and\s+on\s+behalf\s+of)\s+(?P<party>(?:the\s+)?[A-Z][\w&.,’'() -]{{1,60}}?)(?:\s+by(?:\s+(?:its|two|the)\s+[a-z ]{{3,30}}?)?)?\s*:\s*(?P<who>{_name})(?:,\s+(?P<post>[A-Z][\w&-]*(?:\s(?:(?:of|and|for|to)\s)?[A-Z][\w&-]*){{0,3}}?)(?=\s*(?:\Z|\n|\s{{2,}}|Signed\b)))?"
)


# "Signed: A. Smith, Director, Brackenfold Mills plc"
SIGNED_OF = pattern(
    rf"\b[Ss]igned:\s*(?P<who>(?:Dr\.?\s)?{_name}),\s+(?P<post>[A-Z][\w&-]*(?:\s[A-Z][\w&-]*){{0,3}}),\s+(?P<party>[A-Z][\w&.,’'() -]{{2,60}}?\b(?:plc|PLC|Ltd|Limited|LLC|LLP|Inc|GmbH|AG|BV|SA|SAS|Oy|AB|AS)\b)"
)
# "For the Mill: A. Smith, Director    For the House: B. Jones"
FOR_EACH = pattern(
    rf"\bFor\s+(?P<party>(?:the\s+)?[A-Z][\w&.’'() -]{{1,60}}?)\s*:\s*(?P<who>{_name})(?:,\s+(?P<post>[A-Z][\w&-]*(?:\s(?!For\b)[A-Z][\w&-]*){{0,3}}))?"
)
# "Signed: A. Smith for the Landlord; B. Jones for the Tenant"
EACH_FOR = pattern(
    rf"(?P<who>{_name})\s+for\s+(?P<party>(?:the\s+)?[A-Z][\w&]*(?:\s[A-Z][\w&.’'()]*){{0,4}})(?P<post>)"
)
# "Signed as a deed A. Smith - B. Jones - witness: C. Orr"
IN_A_ROW = pattern(rf"\b[Ss]igned(?:\s+as\s+a\s+deed)?:?\s+(?P<all>{_name}(?:\s+[-–—/·|]\s+{_name})+)")
BY = pattern(r"\s+By:")
NAMED = pattern(r"\b(?:Name|Title):|/s/")
FIRM_BY = pattern(r"[A-Z][^\n]{3,80}?\s+By:\s")


@dataclass(frozen=True, slots=True)
class Signatory:
    """A person who signs. party: the words that say for whom, "" where none do; post: "Director", "" where none is given."""

    name: str
    party: str
    post: str
    cite: Cite


def signatories_of(document: Document) -> tuple[Signatory, ...]:
    """Those whose names stand in the paper's blocks of signatures, in order, each once for each party."""
    out: dict[tuple[str, str], Signatory] = {}
    for spans in _blocks(document):
        for found in _in_block(document, spans):
            out.setdefault((found.name, found.party), found)
    return tuple(out.values())


def _blocks(document: Document) -> Iterator[list[Span]]:
    """Columns of tables, and runs of short paragraphs, that may be signed."""
    blocks = [b for b in document.blocks if b.kind not in ("furniture", "note")]
    done = 0  # blocks that a run has taken
    for place, block in enumerate(blocks):
        if place < done:
            continue
        words = block.span.of(document.text)
        if block.kind == "table":
            table = document.tables[block.table]
            if table.rows <= 10 and table.columns <= 4 and _opens.search(words):
                yield from _columns(table)
        elif len(words) < 2 * SHORT and (_opens.match(words) or FIRM_BY.match(words)):
            above = blocks[place - 1] if place else None
            named = above is not None and above.kind != "table" and is_organisation(above.span.of(document.text))
            run = [above.span, block.span] if above is not None and named else [block.span]
            for after in blocks[place + 1 : place + LINES]:
                line = after.span.of(document.text)
                if (
                    after.kind == "table"
                    or len(line) > SHORT
                    or (FIRM_BY.match(line) and any(NAMED.search(s.of(document.text)) for s in run))  # the next party's
                    or (_opens.match(line) and not re.match(r"(?:by|name):", line, re.IGNORECASE))
                ):
                    break
                run.append(after.span)
            done = place + len(run) - bool(named)
            yield run


def _columns(table: Table) -> Iterator[list[Span]]:
    for column in range(table.columns):
        cells = [c.span for r in range(table.rows) for c in table.row_cells(r) if c.column == column]
        if cells:
            yield cells


def _in_block(document: Document, spans: list[Span]) -> Iterator[Signatory]:
    text = "\n".join(s.of(document.text) for s in spans)
    several = list(SIGNED_FOR.finditer(text))
    several += [m for m in SIGNED_OF.finditer(text) if not any(m.start() == o.start() for o in several)]
    for pairs in (FOR_EACH, EACH_FOR):
        found = list(pairs.finditer(text))
        if not several and len(found) > 1:
            several = found
    if not several and (row := IN_A_ROW.search(text)) is not None:
        for who in re.split(r"\s+[-–—/·|]\s+", row["all"]):
            place = _place(document, spans, who)
            if place is not None and not _no_person.search(who):
                yield Signatory(who, "", "", Cite(document, place))
        return
    if several:  # "Signed for the Seller: A. Smith, Director    Signed for the Buyer: B. Jones, Chair"
        for one in several:
            who = one["who"].strip(" ,.")
            place = _place(document, spans, who)
            if place is not None and not _no_person.search(who) and not who.isupper():
                yield Signatory(who, one["party"].strip(" ,."), (one["post"] or "").strip(" ,."), Cite(document, place))
        return
    party = ""
    if m := _role.search(text):
        party = f"{m['party'].title()}: {m['firm'].strip(' ,.')}"
    elif m := _for.search(text):
        party = m["party"].strip(" ,.")
    elif is_organisation(first := BY.split(text.split("\n")[0])[0]):
        party = first.strip(" ,.:")
    for form in (_labelled, _posted, _signed):
        for m in form.finditer(text):
            who = m["who"].strip(" ,.")
            if _no_person.search(who) or who.isupper():
                continue
            place = _place(document, spans, who)
            if place is not None:
                yield Signatory(who, party, (m["post"] or "").strip(" ,."), Cite(document, place))
                return


def _place(document: Document, spans: list[Span], words: str) -> Span | None:
    """The cell or line in which words stand."""
    return next((s for s in spans if words in " ".join(s.of(document.text).split())), None)
