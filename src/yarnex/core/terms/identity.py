"""What kind of document this is, its title in its own words, and the words that show it."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.document import Block, Cite, Document, Span, Table
from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.patterns import pattern
from yarnex.core.phrases import Phrase, compile_phrase
from yarnex.core.terms.letterhead import subject_of
from yarnex.core.values import DateValue, date_order, find_dates
from yarnex.core.values.dates import DateOrder
from yarnex.core.values.parties import find_organisations, find_party_roles

SHAPE = {
    "kind": Field("text", True), "label": Field("text", True), "titles": Field("texts"), "words": Field("texts"),
    "example": Field("text"), "not": Field("text"),
}  # fmt: skip
OPENING = 4000  # characters looked at for the words of a kind


@dataclass(frozen=True, slots=True)
class Kind:
    name: str
    label: str
    titles: tuple[Phrase, ...]
    words: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class Identity:
    """kind: "lease", "amendment" ... or "unknown". title: None where no line reads as one. why: the evidence.

    parties: names of organisations that the opening gives, each once. version: words that mark a draft, version or
    copy, None where there are none. language: ISO 639-1 code, "" where the text is too short to tell.
    """

    kind: str
    label: str
    title: Cite | None
    dated: Cite | None
    why: tuple[str, ...]
    parties: tuple[Cite, ...] = ()
    version: Cite | None = None
    language: str = ""

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
                    item["kind"], item["label"], tuple(compile_phrase(t, True) for t in texts(item, "titles")),
                    tuple(compile_phrase(w, True) for w in texts(item, "words")),
                )
            )  # fmt: skip
    if faults:
        raise PackError("\n".join(faults))
    return tuple(out)


FORMAT_KINDS = {
    "eml": ("email", "it is a mail"), "vtt": ("transcript", "it is a captioned recording"), "srt": ("transcript", "it is a captioned recording"),
    "pptx": ("presentation", "it is a file of slides"), "odp": ("presentation", "it is a file of slides"),
    "xlsx": ("spreadsheet", "it is a workbook"), "ods": ("spreadsheet", "it is a workbook"), "csv": ("spreadsheet", "it is a table of data"),
    "tsv": ("spreadsheet", "it is a table of data"),
}  # fmt: skip
FORMAT_LABELS = {
    "transcript": "Transcript",
    "spreadsheet": "Spreadsheet",
    "presentation": "Presentation",
    "email": "E-mail",
}
GENERAL = ("agreement", "letter", "policy")  # named by a word that narrower kinds have in their names too
INSURANCE = "insurance_policy"
EMPLOYMENT = "employment"
NAMED_OFTEN = 5  # times that a paper names the agreement that it changes
CHANGES_ANOTHER = ("amendment", "side_letter")
AGREEMENTS = (
    "licence", "lease", "confidentiality", "software", EMPLOYMENT, "consultancy", "distribution", "services", "supply", "guarantee",
    "loan", "equipment_finance", "share_purchase",
)  # fmt: skip
SHOWS_INSURANCE, SHOWS_EMPLOYMENT = 3, 4  # of their words
SHOWS_AGREEMENT = 0.75  # of all words of a kind
SHOWS_TURNS = 3  # speakers near the top
SPOKEN = ("results_call", "interview", "minutes")
LETTER = (
    5.8  # what a salutation counts for: less than a heading that names a narrow kind, more than the word "agreement"
)
FORMAT_FIRST = ("email", "spreadsheet", "presentation")  # a mail about an invoice is a mail


def identify(document: Document) -> Identity:
    """Kind, title, date, parties, version and language of a document, from its opening. Unknown is an answer."""
    if document.whole is not None:
        return identify(document.whole)
    known: Identity | None = document.__dict__.get(KNOWN)
    if known is None:
        known = document.__dict__[KNOWN] = _identity(document)
    return known


KNOWN = "_identity"  # under which what a document is stays with it


def _identity(document: Document) -> Identity:
    opening = document.text[: min(OPENING, document.body_end)]
    small = opening.lower()
    title = _title(document)
    title_words = title.of(document.text) if title else ""
    by_format, evidence = FORMAT_KINDS.get(document.format, ("", ""))
    heads = " ".join(_opening_words(document, b) for b in document.blocks[:6])[:SUBTITLE]
    if SALUTATION.search(opening[:2500]) and (about := subject_of(document)) is not None:
        heads = f"{heads} {about.quote}"
    headings = ((10.0, title_words, title_words.lower(), "the title says"), (6.0, heads, heads.lower(), "it is headed"))
    best: Kind | None = None
    best_score = 0.0
    best_why: tuple[str, ...] = ()
    insurance: tuple[Kind, tuple[str, ...]] | None = None
    employment: tuple[Kind, tuple[str, ...]] | None = None
    likeliest: tuple[float, Kind, tuple[str, ...]] | None = None  # of the narrower agreements, by wording alone
    for kind in known_kinds():
        why = []
        score = 0.0
        for weight, where, low, said in headings:
            found = [m.group() for phrase in kind.titles if phrase.may_stand_in(low) and (m := phrase.search(where))]
            if found:  # the kind named in most words is the narrowest
                words = max(found, key=len)
                score = weight + min(len(words), 60) / 100 - (kind.name in GENERAL) + 0.6 * (kind.name == "amendment")
                why.append(f"{said} {words!r}")
                break
        hits = [m.group() for phrase in kind.words if phrase.may_stand_in(small) and (m := phrase.search(small))]
        why += [f"it says {re.sub(chr(92) + 's+', ' ', hit)!r}" for hit in hits]
        if not score:
            score = 0.5 * len(hits)
            if kind.name == "letter" and SALUTATION.search(opening[:2500]):
                score = max(score + 1.5, LETTER)
                why.insert(0, "it opens like a letter")
        if kind.name == by_format and by_format in FORMAT_FIRST:
            score += 20
            why.insert(0, evidence)
        if score > best_score:
            best, best_score, best_why = kind, score, tuple(why)
        if kind.name == INSURANCE and len(hits) >= SHOWS_INSURANCE:
            insurance = kind, tuple(why)
        if kind.name == EMPLOYMENT and len(hits) >= SHOWS_EMPLOYMENT:
            employment = kind, tuple(why)
        share = len(hits) / len(kind.words)
        if kind.name in AGREEMENTS and share >= SHOWS_AGREEMENT and (likeliest is None or share > likeliest[0]):
            likeliest = share, kind, tuple(why)
    if insurance is not None and best is not None and best.name == "policy":
        best, best_why = insurance  # what is called just a policy, and speaks of premiums and excesses
    if employment is not None and best is not None and best.name == "letter":
        best, best_why = employment  # a letter that offers a post
    if likeliest is not None and best is not None and best.name == "agreement":
        best, best_why = likeliest[1:]  # what is called just an agreement, and speaks throughout like a narrower one
    named = (best.name, best.label, best_why) if best is not None else ("unknown", "Unknown kind", NO_EVIDENCE)
    spoken = by_format == "transcript" and named[0] not in SPOKEN
    turns = sum(m.kind == "speaker" and m.span.start < len(opening) for m in document.marks) >= SHOWS_TURNS
    if (spoken or (turns and named[0] not in SPOKEN)) and (call := _results_call(heads)):
        named = call.name, call.label, (evidence or "speakers take turns", "it is headed as a call on results")
    elif by_format and (best_score < 6 or by_format == "spreadsheet" or spoken):
        named = by_format, FORMAT_LABELS[by_format], (evidence,)
    elif best_score < ENOUGH:
        named = "unknown", "Unknown kind", NO_EVIDENCE
    cite = Cite(document, title) if title else None
    return Identity(
        *named[:2],
        cite,
        _dated(document),
        named[2],
        _parties(document, opening),
        _version(document, small),
        language_of(opening[:2500]),
    )


def _opening_words(document: Document, block: Block) -> str:
    """The words of one of the first blocks; of a table its first cell, where that is as short as a title."""
    if block.kind != "table":
        return block.span.of(document.text)
    first = next(iter(document.tables[block.table].cells), None)
    words = first.span.of(document.text) if first is not None else ""
    return words if 0 < len(words) <= SHORT_CELL else ""


SHORT_CELL = 40
LEAST_WORDS, LEAST_SHARE = 2, 0.4  # of the words of a kind, for what an amendment amends


@lru_cache(maxsize=256)
def kind_amended(document: Document) -> str:
    """The kind of agreement that an amendment or side letter speaks like, and so most likely changes; "" where none shows.

    Of those like which it speaks, the one that it names most often; where it speaks like none, as letters of "we" and
    "you" do, one that it names again and again.
    """
    small = document.text[: min(OPENING, document.body_end)].lower()
    best = ("", (0, 0.0))
    called = ("", NAMED_OFTEN - 1)
    for kind in known_kinds():
        if kind.name in AGREEMENTS:
            hits = sum(p.may_stand_in(small) and p.search(small) is not None for p in kind.words)
            share = hits / len(kind.words)
            times = max(sum(1 for _ in p.whole.finditer(small)) for p in kind.titles if not p.has_slot)
            called = max(called, (kind.name, times), key=lambda c: c[1])
            if hits >= LEAST_WORDS and share >= LEAST_SHARE:
                best = max(best, (kind.name, (times, share)), key=lambda b: b[1])
    return best[0] or called[0]


def _results_call(heads: str) -> Kind | None:
    """The kind of a call on results, where the first lines name one."""
    return next((k for k in known_kinds() if k.name == "results_call" and any(p.search(heads) for p in k.titles)), None)


NO_EVIDENCE = ("neither title nor wording names a known kind",)
SUBTITLE = 420  # characters of the first lines that may name the kind where the title does not
SALUTATION = pattern(r"^Dear\s+\S", re.MULTILINE)
ENOUGH = 1.5  # score from which wording alone, without a title, shows a kind
DRAFT = pattern(
    r"\b(?:(?:first|second|third|final|revised|working|agreed)\s+draft|draft(?:\s+(?:no\.?\s*)?\d+(?:\.\d+)?)?|execution (?:version|copy)|engrossment|version\s+\d+(?:\.\d+)*|v\d+(?:\.\d+)+|rev(?:ision)?\.?\s+[a-z0-9]{1,3}\b|copy received|without prejudice|subject to contract)(?![\w-])",
)


def _version(document: Document, opening: str) -> Cite | None:
    """Words near the top, or in headers and footers, that mark a draft, version or copy."""
    if m := DRAFT.search(opening[:1500]):
        return Cite(document, Span(*m.span()))
    for block in document.blocks:
        if block.kind == "furniture" and (m := DRAFT.search(block.span.of(document.text).lower())):
            return Cite(document, Span(block.span.start + m.start(), block.span.start + m.end()))
    return None


def _parties(document: Document, opening: str) -> tuple[Cite, ...]:
    """Names of organisations in the opening, each once, at most four; those with a role first."""
    spans = [f.span for f in find_party_roles(opening)] or [f.span for f in find_organisations(opening[:2500])]
    out: list[Cite] = []
    seen: set[str] = set()
    for span in spans:
        said = span.of(document.text)
        name = re.sub(r"\W+", " ", said).strip().lower()
        whole = (
            len(name.split()) >= 2
            and name.split()[0] not in ("the", "a", "this", "our")
            and said[:1].isalpha()
            and not re.search(r"[\t\n]|\d{2}", said)
        )
        if whole and not any(name in known or known in name for known in seen):
            seen.add(name)
            out.append(Cite(document, span))
    return tuple(out[:4])


COMMON_WORDS = {  # the commonest short words of each language: what they tell apart is enough for a whole page
    "en": "the of and to in is for that shall with by be or on as this are at from it", "de": "der die das und ist nicht von zu den mit für auf im eine wird sich des dem ein",
    "fr": "le la les des et est une pour dans que qui sur par au avec pas du ce sont", "es": "el los las del que en una por con para es se no al como su más la",
    "it": "il di che la per una del non con della sono le nel alla dei gli è da", "nl": "de het een van en is dat op te zijn voor met niet aan er om ook bij",
    "pt": "o os as do da que em uma para com não por é dos na no se ao", "da": "og det at en den til er som på de med af ikke der for et har",
    "sv": "och det att en som är på av för med den till inte har de ett om",
}  # fmt: skip


def language_of(text: str) -> str:
    """ISO 639-1 code of the language whose commonest words make up most of a text; "" where that says too little."""
    words = re.findall(r"[^\W\d_]+", text.lower())
    if len(words) < 30:
        return ""
    counts: Counter[str] = Counter()
    for word, times in Counter(words).items():
        for code in _common().get(word, ()):
            counts[code] += times
    best = max(COMMON_WORDS, key=lambda c: counts[c])
    return best if counts[best] > 0.1 * len(words) else ""


@lru_cache(maxsize=1)
def _common() -> dict[str, tuple[str, ...]]:
    """Languages by word."""
    out: dict[str, tuple[str, ...]] = {}
    for code, words in COMMON_WORDS.items():
        for word in dict.fromkeys(words.split()):
            out[word] = (*out.get(word, ()), code)
    return out


TITLE_AMONG = 10  # blocks of words from the top


def _title(document: Document) -> Span | None:
    """The line among the first that names a kind of document and little else; else the first heading or a mail's subject."""
    if document.format == "eml":
        return _subject(document)
    first_heading = first_line = None
    turns = document.format in ("vtt", "srt") or any(m.kind == "speaker" for m in document.marks[:5])
    named: Span | None = None
    looked_at = 0
    for block in document.blocks[:30]:
        if block.kind == "table" and looked_at == 0 and document.format != "eml" and named is None:
            named = _title_in(document, document.tables[block.table])
        if block.kind in ("furniture", "note", "table"):
            continue
        looked_at += 1
        if (named and first_heading) or (looked_at > TITLE_AMONG and (first_heading or first_line)):
            break
        words = block.span.of(document.text)
        if len(words) > 140 or len(words) < 3 or (turns and document.mark_at("speaker", block.span.start)):
            continue
        page = document.page(document.pages_of(block.span)[0])
        if (document.paging == "sheet" and block.kind == "heading" and block.level == 1) or (
            page is not None and page.hidden
        ):
            continue  # a sheet's name, or what the file hides
        front = document.pages_of(block.span)[0] <= 1
        letters = [c for c in words if c.isalpha()]
        loud = letters and (
            sum(c.isupper() for c in letters) > 0.7 * len(letters) or block.kind == "heading" or words.istitle()
        )
        short = (
            len(words.split()) <= 16
            and (turns or not words.endswith((".", ";", ",")))
            and not block.number[:1].isdigit()
        )
        if (
            block.kind == "heading"
            and first_heading is None
            and not re.fullmatch(r"(?:table of )?contents", words, re.IGNORECASE)
        ):
            first_heading = block.span
        if first_line is None and short:
            first_line = block.span
        if (
            named is None
            and short
            and not block.number
            and (loud or len(words.split()) <= 8 or (front and document.pages))
        ):
            low = words.lower()
            for kind in known_kinds():
                if any(p.may_stand_in(low) and p.search(words) for p in kind.titles):
                    named = block.span
                    break
    if turns or document.paging == "sheet":
        return named or first_line
    late = first_heading is not None and first_line is not None and document.pages_of(first_heading)[0] > 1
    return named or (first_line if late and document.pages_of(first_line or Span(0, 1))[0] == 1 else first_heading)


def _title_in(document: Document, table: Table) -> Span | None:
    """A cell in the first rows of the table with which a paper opens, beside the sender's name, that names a kind of document."""
    for cell in table.cells:
        words = cell.span.of(document.text)
        letters = [c for c in words if c.isalpha()]
        loud = letters and sum(c.isupper() for c in letters) > 0.7 * len(letters)
        if cell.row < 2 and (loud or words.istitle()) and len(words.split()) <= 8 and not words.endswith((":", ".")):
            for kind in known_kinds():
                low = words.lower()
                if any(p.may_stand_in(low) and p.search(words) for p in kind.titles):
                    return cell.span
    return None


def _subject(document: Document) -> Span | None:
    """The words of a mail's subject line."""
    for table in document.tables[:1]:
        for cell in table.cells:
            if cell.column == 0 and cell.span.of(document.text).lower() == "subject:":
                beside = table.at(cell.row, 1)
                return beside.span if beside is not None else None
    return None


LABEL_OF_DATE = pattern(
    r"(?:date|dated|date of (?:this |the )?(?:agreement|lease|deed|licence|license|contract|letter|statement|report|invoice|notice|order|policy|offer|document|issue|amendment|memorandum|quotation|estimate|tender|bill)"
    r"|(?:issue|invoice|order|statement|report|letter|policy|contract|agreement|bill|offer|quotation) date)",
    re.IGNORECASE,
)


def _dated(document: Document) -> Cite | None:
    """The date that the document gives itself: the first one near its top, introduced as its date."""
    end = min(2500, document.body_end)
    text = document.text[:end]
    order = date_order(document.text)
    for table in document.tables:
        if table.span.start > end:
            break
        for cell in table.cells:
            if LABEL_OF_DATE.fullmatch(cell.span.of(document.text).strip(" :")) and (
                beside := table.at(cell.row, cell.column + cell.column_span)
            ):
                day = next(iter(find_dates(beside.span.of(document.text), order)), None)
                if day is not None:
                    return Cite(document, Span(beside.span.start + day.span.start, beside.span.start + day.span.end))
    found = list(find_dates(text, order))
    lone = [i for i in found if i.span.start < 1200 and _stands_alone(document, i.span)]
    for item in found:
        if lone and lone[0].span.start < item.span.start:
            break  # "the agreement dated 3 July" is another paper than the letter that names it below its own date
        before = text[max(0, item.span.start - 50) : item.span.start]
        if re.search(
            r"(?:(?:\A|\n|\b(?:lease|deed|agreement|contract|licence|letter)\s)\W*date:?|\b(?:dated:?|made|entered into|effective(?: date:?)?|as of|executed|issued|held|date of (?:report|issue|letter|statement))\b)(?:\s+(?:as of|on|this|the|and|entered|into|made|(?:mon|tues|wednes|thurs|fri|satur|sun)day,?)(?!\w))*[\s:,]*\Z",
            before,
            re.IGNORECASE,
        ):
            return Cite(document, item.span)
    if any(m.kind == "speaker" for m in document.marks):  # "It is the ninth of May 2026, I am speaking with ..."
        for item in found:
            if item.span.start < 600 and SAYS_THE_DAY.search(text, 0, item.span.start):
                return Cite(document, item.span)
    parts = [i for i in found if i.span.start < 600 and _a_part_of_its_own(text, i.span)]
    heads = [i for i in found if i.span.start < 600 and _in_an_address(document, i.span)]
    best = next(iter([*lone, *parts, *heads]), None)
    return Cite(document, best.span) if best else _dated_at_its_end(document, order)


SIGNED_ON = pattern(
    r"(?:\bdated|(?:\A|[\n\t_;]|\s\s)\s*date|\bsigned(?:\s+as\s+a\s+deed)?(?:\s+on)?|\bdate\s+of\s+(?:signature|statement|report))\s*:?\s*(?:this\s+)?\Z",
    re.IGNORECASE,
)
END_WITHIN = 1200  # characters from the end in which a paper may be signed and dated


def _dated_at_its_end(document: Document, order: DateOrder) -> Cite | None:
    """The date beside the signature at the end of a paper that has none at its top: "Signed: G. Tarn   Dated: 9 May 2026"."""
    start = max(0, document.body_end - END_WITHIN)
    for item in find_dates(document.text[start : document.body_end], order):
        at = start + item.span.start
        if SIGNED_ON.search(document.text, max(0, at - 40), at):
            return Cite(document, Span(at, start + item.span.end))
    return None


def _a_part_of_its_own(text: str, day: Span) -> bool:
    """True where a date stands between full stops, commas or line ends: "Mill Lane 7, Thrapsley. 3 April 2026, 09.40." """
    before, after = text[max(0, day.start - 3) : day.start], text[day.end : day.end + 3]
    return bool(re.search(r"(?:\A|\n|[.,·|])\s*\Z", before) and re.match(r"\s*(?:[.,·|\n]|\Z)", after))


def _in_an_address(document: Document, day: Span) -> bool:
    """True where a date ends or follows the sender's address in a line of names: "Mill Lane 7, Thrapsley 3 April 2026"."""
    block = document.block_at(day.start)
    if block is None or block not in document.blocks[:4] or block.kind == "table":
        return False
    before = block.span.of(document.text)[: day.start - block.span.start]
    words = re.findall(r"[^\W\d][\w.'’-]+", before)
    address = re.search(r"\d\w?,\s|\b\d{1,4}[a-zA-Z]?\s+[A-Z]|,\s*[A-Z]{1,2}\d", before) and not re.search(
        r"[:;“\"]", before
    )
    return bool(address) and len(words) <= 16 and sum(w[:1].islower() for w in words) <= 0.3 * len(words)


SAYS_THE_DAY = pattern(
    r"\b(?:it(?:[’']s|\s+is)|(?:today|this)\s+is|today[’']s|recorded\s+on|now)\s+(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day,?\s+)?(?:the\s+)?\Z",
    re.IGNORECASE,
)
OF_ANOTHER_DAY = pattern(
    r"\b(?:due|pay\w*|expir\w*|valid|start\w*|end\w*|deliver\w*|renew\w*|matur\w*|born|birth|deadline|closing|until|by|from)\b",
    re.IGNORECASE,
)
REFERENCE = pattern(r"\b(?:(?:our|your|my)\s+)?ref(?:erence)?\b\.?\s*(?:no\.?\s*)?:?\s*[A-Z\d][\w./-]*", re.IGNORECASE)
OF_A_DAY = pattern(
    r"\b(?:mon|tues|wednes|thurs|fri|satur|sun)day\b,?|\b\d{1,2}[.:]\d\d\b\s*(?:[ap]\.?\s?m\b\.?|noon|hours|hrs)?",
    re.IGNORECASE,
)  # what may stand beside a date: "Thursday 5 June, 9.30 a.m."


def _stands_alone(document: Document, day: Span) -> bool:
    """True where a date has a line to itself, but for a place or a word or two: "Thrapsley, 3 April 2026"."""
    block = document.block_at(day.start)
    if block is None:
        return False
    if (in_table := document.cell_at(day)) is not None and in_table[1].column and in_table[0].columns == 2:
        label = in_table[0].at(in_table[1].row, 0)
        if (
            label is not None
            and (words := label.span.of(document.text).strip(" :"))
            and not LABEL_OF_DATE.fullmatch(words)
        ):
            return False  # it is the day of something else
    start = document.text.rfind("\n", block.span.start, day.start) + 1 or block.span.start
    end = document.text.find("\n", day.end, block.span.end)
    rest = document.text[start : day.start] + document.text[day.end : end if end >= 0 else block.span.end]
    rest = REFERENCE.sub(" ", OF_A_DAY.sub(" ", rest))
    if OF_ANOTHER_DAY.search(rest):
        return False
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
