"""Who sends a paper: the organisation of its letterhead, its header or footer, or the address at its top."""

from __future__ import annotations

import re
from collections.abc import Iterator

from yarnex.core.document import Block, Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.values.parties import find_organisations

HEAD_BLOCKS = 6  # blocks from the top among which a letterhead stands
TO = pattern(
    r"(?:\A|[\n\t.;]\s*)(?:to|for|attention|attn\.?|fao|bill(?:ed)? to|prepared for|submitted to|client|customer|buyer)\b\W*\Z",
    re.IGNORECASE,
)
# "Weir & Sons, Mill Lane 7, Thrapsley": a name, then a street with its number
ADDRESSED = pattern(
    r"(?P<name>[A-Z][\w&.'’-]*(?:[ \u00a0](?:[A-Z][\w&.'’-]*|&|and|of|de|und|et|y|och|og)){1,6}),\s+(?=(?:[\w.'’-]+\s){0,3}\d{1,4}[a-zA-Z]?\b,|\d{1,4}[a-zA-Z]?\s+(?!(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)[a-z]*\.?\s+(?:19|20)\d\d)[A-Z])"
)
PARTED = pattern(r"\s+[–—|·•-]\s+|\s{2,}|\t")
LOUD_NAME = pattern(r"[A-Z][\w.'’-]*(?:\s(?:[A-Z][\w.'’-]*|&|AND|and|of|OF))*\s(?:&|AND|and)\s[\w.'’ -]+")


def issuer_of(document: Document) -> Cite | None:
    """The name of the organisation that sends the paper, as printed; None where its top, header and footer name none.

    Names that follow "to" or "for" are those of the reader, not of the sender.
    """
    return next(_names(document), None)


def _names(document: Document) -> Iterator[Cite]:
    body = [b for b in document.blocks if b.kind not in ("furniture", "note", "table")][:HEAD_BLOCKS]
    furniture = [b for b in document.blocks if b.kind == "furniture"][:4]
    for block in (*body[:2], *furniture, *body[2:]):
        words = block.span.of(document.text)
        for found in find_organisations(words):
            if len(found.value.name.split()) > 1 and not TO.search(words[: found.span.start]):
                yield _cite(document, block, found.span)
        if (m := ADDRESSED.match(words)) and block.kind != "furniture":
            yield _cite(document, block, Span(*m.span("name")))
        if block.kind == "furniture":
            first = PARTED.split(words.strip())[0]
            if _is_name(first):
                start = words.index(first)
                yield _cite(document, block, Span(start, start + len(first)))
        elif block in body[:2] and (m := LOUD_NAME.fullmatch(words.strip())) and len(words.split()) <= 7:
            yield _cite(document, block, Span(words.index(m.group()), words.index(m.group()) + len(m.group())))


def _is_name(words: str) -> bool:
    """Two to six words of which all but the linking ones begin with capitals, with a sign that joins names."""
    parts = words.split()
    return 2 <= len(parts) <= 6 and "&" in parts and all(p[:1].isupper() or p in ("&", "and", "of") for p in parts)


def _cite(document: Document, block: Block, inside: Span) -> Cite:
    return Cite(document, Span(block.span.start + inside.start, block.span.start + inside.end))


CLOSE = pattern(
    r"\b(?:yours (?:sincerely|faithfully|truly|ever|respectfully)|(?:very |most )?(?:sincerely|respectfully)(?: yours)?|(?:with )?(?:kind|best|warm|friendly)(?:est)? (?:regards|wishes|greetings)|regards|signed for and on behalf of [^\n,]+)\b[\s,.]*",
    re.IGNORECASE,
)
PERSON = pattern(
    r"(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof|Sir|Dame)\.?\s)?[A-Z][\w.'’-]*(?:\s(?:(?:van|von|der|den|de|la|le|du|ter)\s)*[A-Z][\w.'’-]*){1,3}"
)
SALUTATION = pattern(
    r"(?:Dear\s+[^\n.:]{2,60}|(?:Ladies and )?Gentlemen|To whom it may concern)[,:]?\s*", re.IGNORECASE
)
ADDRESS_LINES = 10  # lines above a salutation among which the address of the reader stands
NOT_A_NAME = pattern(
    r"\d|@|\b(?:ref|reference|date|dated|by\s+(?:e-?mail|post|hand|courier)|private|confidential|strictly|urgent|without\s+prejudice|subject\s+to|street|road|lane|court|terrace|avenue|square|drive|tel|phone)\b",
    re.IGNORECASE,
)


def addressee_of(document: Document) -> Cite | None:
    """To whom a letter goes: the organisation, else the person, that opens the address above "Dear ..."; None where none does.

    The sender's own name, and the lines of an address, are not it.
    """
    salutation = next((m for m in DEAR.finditer(document.text[:LETTER_HEAD])), None)
    if salutation is None:
        return None
    sender = issuer_of(document)
    lines: list[Span] = []
    start = 0
    for line in document.text[: salutation.start()].split("\n"):
        lines.append(Span(start, start + len(line)))
        start += len(line) + 1
    above = [s for s in lines if s.of(document.text).strip()][-ADDRESS_LINES:]
    persons: list[Cite] = []
    for span in above:
        words = span.of(document.text)
        for found in find_organisations(words):
            name = " ".join(found.value.name.split())
            if sender is None or name.lower() != " ".join(sender.quote.split()).lower():
                return Cite(document, Span(span.start + found.span.start, span.start + found.span.end))
        stripped = words.strip()
        inside = sender is not None and span.overlaps(sender.span)
        m = PERSON.match(stripped)
        alone = m is not None and re.match(r"\Z|,|\s+\d", stripped[m.end() :])
        if m and alone and not inside and not NOT_A_NAME.search(m.group()) and not stripped.isupper():
            at = span.start + words.index(m.group())
            persons.append(Cite(document, Span(at, at + len(m.group()))))
    greeted = set(salutation.group().split())
    return next((p for p in persons if greeted & set(p.quote.split())), persons[0] if persons else None)


DEAR = pattern(r"^Dear\s+\S[^\n]{0,60}", re.MULTILINE)
LETTER_HEAD = 2500  # characters at the top among which a letter is addressed
AFTER_CLOSE = 3  # blocks below the close among which the name stands


def signature_of(document: Document) -> Cite | None:
    """Who signs a letter: the name below "Yours sincerely" and the like, and the post below it; None without a close."""
    blocks = [b for b in document.blocks if b.kind not in ("furniture", "note")]
    for place in range(len(blocks) - 1, -1, -1):
        words = blocks[place].span.of(document.text)
        close = next((m for m in CLOSE.finditer(words) if m.start() < 4 or words[m.start() - 2] in ".\n,"), None)
        if close is None:
            continue
        rest = words[close.end() :]
        if rest.strip():
            found = PERSON.match(rest)
            start = blocks[place].span.start + close.end()
            end = start + min(len(rest.rstrip()), 90)
            return Cite(document, Span(start, end)) if found is not None else None
        return _signed_below(document, blocks[place + 1 : place + 1 + AFTER_CLOSE])
    return _at_the_end(document, blocks[-2:])


# "David Venn ACII\nPartner": the last lines of a report that has no close.
NAME_AND_POST = pattern(
    r"(?:(?:Mr|Mrs|Ms|Miss|Dr|Prof)\.?\s)?[A-Z][\w’'-]+(?:\s[A-Z][\w.’'-]*){1,3}(?:,?\s(?:[A-Z]\w*[A-Z]\w*,?\s?)+|\s*[,\n])\s*"
    r"(?:(?:[A-Z][\w&-]*|of|and|for)\s){0,5}(?:Partner|Director|Manager|Surveyor|Engineer|Adjuster|Consultant|Surgeon|Physician|Officer|Secretary|Chair\w*|Head|President|Associate|Principal|Inspector|Auditor|Assessor|Therapist|Analyst|Technician)\s*"
)


def _at_the_end(document: Document, blocks: list[Block]) -> Cite | None:
    if len(blocks) < 2 or any(b.kind not in ("paragraph", "heading") for b in blocks):
        return None
    for first in (blocks[-1], blocks[-2]):  # on one line, or on two
        span = Span(first.span.start, blocks[-1].span.end)
        if NAME_AND_POST.fullmatch(span.of(document.text)) is not None:
            return Cite(document, span)
    return None


def _signed_below(document: Document, blocks: list[Block]) -> Cite | None:
    for i, block in enumerate(blocks):
        words = block.span.of(document.text)
        if block.kind == "table" or len(words) > 80 or PERSON.match(words) is None or words.isupper():
            continue
        end = block.span.end
        below = blocks[i + 1].span.of(document.text) if i + 1 < len(blocks) else ""
        if below and blocks[i + 1].kind != "table" and len(below.split()) <= 6 and not re.search(r"\d|[.;:]\Z", below):
            end = blocks[i + 1].span.end  # the post
        return Cite(document, Span(block.span.start, end))
    return None


def subject_of(document: Document) -> Cite | None:
    """The line that says what a letter is about: a short one below the salutation, or one that opens with "Re"."""
    blocks = [b for b in document.blocks if b.kind not in ("furniture", "note", "table")][:20]
    for block, after in zip(blocks, [*blocks[1:], None], strict=True):
        words = block.span.of(document.text)
        if m := re.match(r"(?:re|subject|concerning)\b\s*[:.]\s*(?=\S)", words, re.IGNORECASE):
            return Cite(document, Span(block.span.start + m.end(), block.span.end))
        if after is not None and SALUTATION.fullmatch(words):
            line = after.span.of(document.text)
            if len(line.split()) <= 16 and not line.rstrip().endswith((".", ",", ":", ";", "?", "!")):
                return Cite(document, after.span)
            return None
    return None
