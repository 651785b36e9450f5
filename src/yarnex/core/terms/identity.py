"""What kind of document this is, its title in its own words, and the words that show it."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.document import Cite, Document, Span
from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.phrases import Phrase, compile_phrase
from yarnex.core.values import DateValue, date_order, find_dates

SHAPE = {
    "kind": Field("text", True), "label": Field("text", True), "titles": Field("texts"), "words": Field("texts"),
    "example": Field("text"), "not": Field("text"),
}  # fmt: skip
OPENING = 6000  # characters looked at for the words of a kind


@dataclass(frozen=True, slots=True)
class Kind:
    name: str
    label: str
    titles: tuple[Phrase, ...]
    words: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class Identity:
    """kind: "lease", "amendment" ... or "unknown". title: None where no line reads as one. why: the evidence."""

    kind: str
    label: str
    title: Cite | None
    dated: Cite | None
    why: tuple[str, ...]

    @property
    def title_text(self) -> str:
        """The title on one line, "" where none was found."""
        return re.sub(r"\s+", " ", self.title.quote) if self.title else ""


@lru_cache(maxsize=1)
def known_kinds() -> tuple[Kind, ...]:
    """The kinds that the vocabulary names. Raises PackError for mistakes in it."""
    text, name = pack_text("vocabulary", "kinds")
    entry = load_entries(text, name)
    faults: list[str] = []
    out = []
    for item in entry.get("kinds", []):
        check_keys(item, SHAPE, name, faults)
        if isinstance(item, Entry) and not faults:
            out.append(
                Kind(
                    item["kind"], item["label"], tuple(map(compile_phrase, texts(item, "titles"))),
                    tuple(map(compile_phrase, texts(item, "words"))),
                )
            )  # fmt: skip
    if faults:
        raise PackError("\n".join(faults))
    return tuple(out)


@lru_cache(maxsize=256)
def identify(document: Document) -> Identity:
    """Kind, title and date of a document, from its opening words. Unknown is an answer."""
    opening = document.text[: min(OPENING, document.body_end)].lower()
    title = _title(document)
    title_words = title.of(document.text) if title else ""
    best: Kind | None = None
    best_score = 0.0
    best_why: tuple[str, ...] = ()
    for kind in known_kinds():
        why = []
        score = 0.0
        for phrase in kind.titles:
            if m := phrase.search(title_words):
                score += 10
                why.append(f"the title says {m.group()!r}")
                break
        for phrase in kind.words:
            if m := phrase.search(opening):
                score += 0.5
                why.append(f"it says {re.sub(chr(92) + 's+', ' ', m.group())!r}")
        if (
            min(score, 10 + (score > 10) * 0.1) > best_score
        ):  # among titles that fit, the first kind listed is the narrowest
            best, best_score, best_why = kind, min(score, 10.1), tuple(why)
    dated = _dated(document)
    cite = Cite(document, title) if title else None
    if best is None or best_score < 1:
        return Identity("unknown", "Unknown kind", cite, dated, ("neither title nor wording names a known kind",))
    return Identity(best.name, best.label, cite, dated, best_why)


def _title(document: Document) -> Span | None:
    """The line among the first that names a kind of document and little else; else the first heading."""
    first_heading = None
    named: Span | None = None
    for block in document.blocks[:30]:
        if block.kind in ("furniture", "table", "note"):
            continue
        words = block.span.of(document.text)
        if len(words) > 140 or len(words) < 3:
            continue
        letters = [c for c in words if c.isalpha()]
        loud = letters and (
            sum(c.isupper() for c in letters) > 0.7 * len(letters) or block.kind == "heading" or words.istitle()
        )
        short = len(words.split()) <= 14 and not words.endswith((".", ";", ",")) and not block.number[:1].isdigit()
        if (
            block.kind == "heading"
            and first_heading is None
            and not re.fullmatch(r"(?:table of )?contents", words, re.IGNORECASE)
        ):
            first_heading = block.span
        if named is None and short and (loud or len(words.split()) <= 8):
            for kind in known_kinds():
                if any(p.search(words) for p in kind.titles):
                    named = block.span
                    break
    return named or first_heading


def _dated(document: Document) -> Cite | None:
    """The date that the document gives itself: the first one near its top, introduced as its date."""
    end = min(3500, document.body_end)
    text = document.text[:end]
    order = date_order(document.text)
    found = list(find_dates(text, order))
    for item in found:
        before = text[max(0, item.span.start - 50) : item.span.start]
        if re.search(
            r"(?:(?:\A|\n|\b(?:lease|deed|agreement|contract|licence|letter)\s)\W*date:?|\b(?:dated:?|made|entered into|effective(?: date:?)?|as of|executed)\b)(?:\s+(?:as of|on|this|the|and|entered|into|made)\b)*[\s:,]*\Z",
            before,
            re.IGNORECASE,
        ):
            return Cite(document, item.span)
    lone = [i for i in found if i.span.start < 1200 and _stands_alone(document, i.span)]
    return Cite(document, lone[0].span) if lone else None


def _stands_alone(document: Document, day: Span) -> bool:
    """True where a date has a line to itself, but for a place or a word or two: "Thrapsley, 3 April 2026"."""
    block = document.block_at(day.start)
    if block is None:
        return False
    rest = document.text[block.span.start : day.start] + document.text[day.end : block.span.end]
    if ":" in rest:  # "Commencement date: 1 May" dates something else
        return bool(re.fullmatch(r"\W*dated?\W*", rest, re.IGNORECASE))
    return len(rest.split()) <= 2 and not re.search(r"[“”\"]|\bmeans\b", rest)


def document_date(document: Document) -> str:
    """The ISO form of the document's own date, "" where none was found."""
    dated = identify(document).dated
    if dated is None:
        return ""
    value = next(iter(find_dates(dated.quote, date_order(document.text))), None)
    return value.value.day.isoformat() if value and isinstance(value.value, DateValue) else ""
