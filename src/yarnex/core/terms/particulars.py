"""What a document states under labels of its own that no term of the sheet asked for.

In: the findings so far and the document's passages. Out: a finding for each row of a table of particulars, each
labelled line and each cell of a priced or dated list that is not yet cited, under the document's own words.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterator, Sequence

from yarnex.core.document import Cite, Span, Table
from yarnex.core.document.table_paths import column_path, name_of_row
from yarnex.core.patterns import pattern
from yarnex.core.terms.candidates import cut, on_one_line, shortened
from yarnex.core.terms.identity import identify
from yarnex.core.terms.model import Finding, Further, Term
from yarnex.core.terms.passages import Labelled, Passages, is_only_gap
from yarnex.core.terms.schedules import TOTAL
from yarnex.core.terms.typed_places import more_values, typed_value
from yarnex.core.terms.values_in_lines import YEAR, LineValues, line_values_of
from yarnex.core.values import Schedule, Text, YesNo, same_value
from yarnex.core.values.parties import is_organisation
from yarnex.core.values.ticks import find_options, ticked_answer

GROUP = "Other particulars"
MOST_ROWS = 60  # of a table that is taken as a list of particulars
MOST_COLUMNS = 8
SIGNING = pattern(
    r"(?:.*\b(?:director|secretary|partner|manager),? (?:name|date|signature)|signed(?: (?:for|by) .*)?|signature|by|title|name|date|witness|for and on behalf.*|its|print name|occupation|(?:managing )?director|(?:company )?secretary|partner|authorised signatory|position)\Z",
    re.IGNORECASE,
)
SIGNED_BY_LABEL = pattern(
    r"(?:\w+\s+){0,3}(?:signed|accepted|agreed|approved|acknowledged)(?:\s+(?:as|by|for|on)\b.*)?|i\s+accept\b.*",
    re.IGNORECASE,
)
A_PERSON_OR_GAP = pattern(r"(?:[._…\s-]{4,}|(?:(?:Mr|Mrs|Ms|Dr)\.?\s)?[A-Z][\w’'-]+(?:\s[A-Z][\w’'-]+){1,3}).*")
SIGNED = pattern(  # rows of signatures side by side: "Name A. Smith", "Smith & Co, L.P. By"
    r"\A(?i:name|title|by|its|signed|signature|date|position|capacity)[: ]+[A-Z].*\Z|(?<=[.,)])\s*(?:By|Its|Name|Title)\s*\Z"
)
ORDINAL = pattern(
    r"(?:the\s+)?(?:first|second|third|fourth|fifth|sixth|sevent\s?h|eighth|ninth|tenth|eleventh|twelfth|schedule|part|annex|appendix|exhibit|section|clause|article)?\s*[\divxlA-Z.]{0,4}\s*(?:schedule|part|annex|appendix|exhibit)?",
    re.IGNORECASE,
)
LABEL_LETTERS = 0.5  # share of a label's characters that are letters, spaces left out
SHORT_LABEL, LONGEST_LABEL = 60, 140
LINE_LABELS = 5  # words of a label that opens a line
SHORT_LABELS, LONGEST_TOLD = 2, 320  # words of one before several sentences, and their letters
MAIL_HEAD = pattern(r"from|to|cc|bcc|sent|date|subject|reply-to", re.IGNORECASE)
GLOSSARY = pattern(r"\b(?:glossary|definitions?|interpretation|defined terms|meaning of words)\b", re.IGNORECASE)
OF_NOTES = pattern(r"(?:reason|note (?:no|ref)|ref)s?\.?", re.IGNORECASE)
PAGE = pattern(r"page(?:\s+\d+(?:\s+of\s+\d+)?)?|\d+\s+of\s+\d+", re.IGNORECASE)


def other_particulars(
    findings: Sequence[Finding],
    passages: Passages,
    *,
    lists: bool,
    wanted: Callable[[str], bool] = lambda label: True,
) -> Iterator[Finding]:
    """Findings for what stands under a label and is cited by none of `findings`, in the order of the document.

    lists: cells of tables with several columns too, as in price lists and sections of cover. wanted: told a label, whether
    what stands under it is wanted at all.
    """
    used = [
        c.span
        for f in findings
        if f.found
        for c in (f.cites[:1] if f.term.several and f.term.type == "text" else f.cites)
        if c.document is passages.document
    ]
    values = line_values_of(passages)
    ids: dict[str, int] = {}
    seen: set[Span] = set()
    scheduled = [f.cites[0].span for f in findings if isinstance(f.value, Schedule) and f.cites]
    rows = [row for row in passages.labelled if row.source != "heading" and not _is_aside(row, passages)]
    again = Counter(row.label.lower() for row in rows)
    for row in rows:
        if SIGNING.match(row.label) or (row.source == "line" and not _is_particular(row, passages)):
            continue
        if row.value in seen or _taken(row.value, used, findings):
            continue
        seen.add(row.value)
        if any(s.holds(row.row) for s in scheduled) and not TOTAL.match(row.label):
            continue  # told row by row
        label = _with_heading(row, passages) if again[row.label.lower()] > 1 else row.label
        sure = 0.9 if row.source == "table" else 0.84
        made = _finding(label, row.value, row.row, values, passages, ids, wanted, sure)
        if made is not None:
            yield made
    for table in passages.document.tables if lists else ():
        if table.columns >= 3 and table.header_rows and table.rows <= MOST_ROWS and table.columns <= MOST_COLUMNS:
            if passages.compliance(table) is not None:
                continue  # told row by row, under the names of what is required
            told = [
                (c.span, t)
                for f in findings
                if f.found
                for c, t in [*((c, f.text) for c in f.cites), *((m.cite, m.text) for m in f.further)]
                if c.document is passages.document
            ]
            yield from _cells(table, told, findings, values, passages, ids, wanted, seen)


def _is_aside(row: Labelled, passages: Passages) -> bool:
    """True for the head of a mail, and for what a list of definitions or a glossary says that words mean."""
    if passages.document.format == "eml" and MAIL_HEAD.fullmatch(row.label):
        return True
    block = passages.document.block_at(row.value.start)
    if (
        block is not None
        and GLOSSARY.search(passages.headings_of(block))
        and not re.search(r"\d", row.value.of(passages.text))
    ):
        return True
    meaning = passages.defined(row.label)
    return meaning is not None and not meaning.inline and meaning.meaning.overlaps(row.value)


def _with_heading(row: Labelled, passages: Passages) -> str:
    """A label that stands several times in a paper, with the heading that tells which of them it is."""
    block = passages.document.block_at(row.value.start)
    section = passages.document.sections[block.section] if block is not None and block.section >= 0 else None
    heading = " ".join(section.name.split()) if section is not None else ""
    whole = f"{heading}: {row.label}"
    return whole if heading and len(whole) <= SHORT_LABEL + len(row.label) else row.label


def _is_particular(row: Labelled, passages: Passages) -> bool:
    """True for a short label before a short value in a line that is no sentence and no turn of a speaker."""
    speaker = passages.document.mark_at("speaker", row.row.start)
    if speaker is not None and speaker.value == row.label:
        return False
    words = row.value.of(passages.text)
    several = re.search(r"[a-z]{3}\.\s+[A-Z]", words) is not None
    short = len(row.label.split()) <= (SHORT_LABELS if several else LINE_LABELS)
    return short and len(words) < (LONGEST_TOLD if several else 160)


def _taken(value: Span, used: list[Span], findings: Sequence[Finding]) -> bool:
    return any(
        value.start >= u.start and value.end <= u.end and u.end - u.start < 3 * (value.end - value.start) + 120
        for u in used
    )


def _cells(
    table: Table,
    used: list[tuple[Span, str]],
    findings: Sequence[Finding],
    values: LineValues,
    passages: Passages,
    ids: dict[str, int],
    wanted: Callable[[str], bool],
    seen: set[Span],
) -> Iterator[Finding]:
    """A finding for each cell with a typed value, under the words of its row and column."""
    text = passages.text
    scheduled = any(isinstance(f.value, Schedule) and f.cites[0].span.overlaps(table.span) for f in findings if f.cites)
    for row in range(table.header_rows, table.rows):
        cells = table.row_cells(row)
        label = name_of_row(table, row, text)
        if not label or (scheduled and not TOTAL.match(label)):
            continue
        whole = Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
        for cell in cells:
            if cell.column == 0 or cell.span.end <= cell.span.start or cell.span.of(text).strip() == label:
                continue
            if cell.span in seen:
                continue
            if any(
                u.holds(cell.span) and u.end - u.start < 200 and _says_as_much(t, cell.span.of(text)) for u, t in used
            ):
                continue
            head = " ".join(column_path(table, cell, text))
            if OF_NOTES.fullmatch(head) and cell.span.of(text).strip().isdigit():
                continue  # the number of a note
            made = _finding(
                f"{label}: {head}" if head else label, cell.span, whole, values, passages, ids, wanted, 0.86, typed=True
            )
            if made is not None:
                yield made


def _says_as_much(told: str, cell: str) -> bool:
    """True where a finding told what a cell of its row holds; the row's other cells are still to be told."""
    told, cell = (" ".join(words.split()).lower() for words in (told, cell))
    return cell in told or told in cell


def _finding(
    label: str, value: Span, row: Span, values: LineValues, passages: Passages, ids: dict[str, int], wanted: Callable[[str], bool],
    confidence: float, *, typed: bool = False,
) -> Finding | None:  # fmt: skip
    text = passages.text
    words = on_one_line(value.of(text))
    if not words or SIGNING.match(label) or SIGNED.search(label) or words == label or not _names_something(label):
        return None
    if _is_contents(label, words, passages) or (SIGNED_BY_LABEL.fullmatch(label) and A_PERSON_OR_GAP.fullmatch(words)):
        return None
    if PAGE.fullmatch(words) or PAGE.fullmatch(label):
        return None
    title = identify(passages.document).title
    if title is not None and (title.span.overlaps(value) or row.holds(title.span)):
        return None  # the paper's own name beside the sender's
    if is_organisation(label) and is_organisation(words):
        return None  # two columns of signatures
    name = re.sub(r"\W+", "_", label.lower()).strip("_")[:60] or "row"
    ids[name] = ids.get(name, 0) + 1
    name = f"other_{name}" + (f"_{ids[name]}" if ids[name] > 1 else "")
    if not wanted(label):
        return None
    gaps = passages.gaps_in(value)
    quote = Cite(passages.document, cut(text, row, Span(value.start, min(value.end, value.start + 200))))
    if gaps and (is_only_gap(words) or gaps[0][0].start <= value.start + 1):
        return Finding(
            passages.document, Term(name, label, GROUP, "text"), gaps[0][1], cites=(quote,), confidence=confidence
        )
    ticked = ticked_answer(words)
    if ticked is not None or re.fullmatch(r"(?:yes|no)\W*", words, re.IGNORECASE):
        answer = YesNo(words.lower().startswith("yes") if ticked is None else ticked)
        return Finding(
            passages.document, Term(name, label, GROUP, "yes_no"), "stated", answer, words, confidence, (quote,)
        )
    options = find_options(words)
    if options:
        chosen = "; ".join(o.span.of(words) for o in options if o.ticked)
        return Finding(
            passages.document, Term(name, label, GROUP, "text"), "stated" if chosen else "blank", Text(chosen) if chosen else None,
            chosen, confidence, (quote,), why=("ticked under its own label",) if chosen else ("none of its boxes is ticked",),
        )  # fmt: skip
    kind, found = typed_value(value, values, passages, label)
    if found is not None:
        return Finding(
            passages.document, Term(name, label, GROUP, kind), "stated", found.value, words if len(words) < 80 else found.span.of(text),
            confidence, (quote,), (found.reading,) if found.reading else (),
            tuple(
                Further("also_stated", more.value, more.span.of(text), quote)
                for more in more_values(value, found, values, passages)
                if not same_value(more.value, found.value)
            ),
            why=("stands under its own label",),
        )  # fmt: skip
    if (typed and not YEAR.fullmatch(words)) or len(words) < 2:
        return None
    piece = on_one_line(shortened(text, value).of(text))
    return Finding(
        passages.document, Term(name, label, GROUP, "text"), "stated", Text(piece), piece, confidence, (quote,), why=("stands under its own label",)
    )  # fmt: skip


def _names_something(label: str) -> bool:
    """True for a label in words; labels of a drawing run into each other are numbers for the most part, or very long."""
    solid = re.sub(r"\s", "", label)
    letters = sum(c.isalpha() for c in solid)
    told = len(label) <= SHORT_LABEL or letters >= LABEL_LETTERS * len(solid)
    return bool(re.search(r"[A-Za-z]{2}", label)) and told and len(label) <= LONGEST_LABEL


def _is_contents(label: str, words: str, passages: Passages) -> bool:
    """True for a line of a list of contents: a part's number beside its heading, or a heading beside its page."""
    number = words.strip()
    if number.isdigit() and 0 < int(number) <= len(passages.document.pages):
        return any(name.startswith(label.lower().strip(" .")) for name in passages.section_names)
    heading = words.lower().partition(";")[0].rstrip(" .0123456789")
    return bool(ORDINAL.fullmatch(label)) and any(
        heading in name or name in heading for name in passages.long_section_names
    )
