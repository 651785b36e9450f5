"""Results -> Reports: what each command shows, in which order, in neutral form."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import TYPE_CHECKING

from yarnex._version import __version__
from yarnex.core.document import Cite, Document, Span
from yarnex.core.terms import Abstract, Finding, Sheet
from yarnex.core.terms.computed import shown_date
from yarnex.core.terms.identity import document_date, identify
from yarnex.core.terms.model import quoted
from yarnex.core.terms.screening import missed
from yarnex.core.terms.sheets import GENERAL, OTHER
from yarnex.output.report import Card, Cell, Report, Section, Table, TableRow
from yarnex.output.schedule_tables import schedule_sections
from yarnex.output.wording import STATE_WORDS, counted, own_words, said, to_check

if TYPE_CHECKING:
    from yarnex.core.briefing import Briefing
    from yarnex.core.comparing import Comparison, Row
    from yarnex.core.comparing.copies import Copy
    from yarnex.core.document.outline import OutlineEntry
    from yarnex.core.errors import UnreadableError
    from yarnex.core.flags import Flag
    from yarnex.core.terms.screening import Screened

MARKS = {
    "differs": "differs",
    "gap": "missing in some",
    "wording": "",
    "same": "same",
    "nowhere": "not found",
    "single": "",
}


def _dated(document: Document) -> str:
    """The document's own date in words."""
    day = document_date(document)
    return shown_date(date.fromisoformat(day)) if day else "none found"


UNITS = {"page": "page", "slide": "slide", "sheet": "sheet"}


def coverage(document: Document) -> str:
    """The share that was read, in words: "14 of 15 pages"."""
    if not document.pages:
        return "all" if not any(p.serious for p in document.problems) else "in part"
    return f"{document.pages_read} of {counted(len(document.pages), UNITS.get(document.paging, 'page'))}"


def _small(label: str) -> str:
    """A label inside a sentence."""
    return label if label[1:2].isupper() else label[:1].lower() + label[1:]  # "EBITDA" stays as it is


def warnings_of(documents: Sequence[Document], unread: Sequence[UnreadableError]) -> tuple[str, ...]:
    """A line for everything that was not read."""
    lines = [f"Not everything was read: {error}" for error in unread]
    for document in documents:
        for problem in document.problems:
            if problem.serious:
                lines.append(f"Not everything was read: {document.path}: {problem} ({coverage(document)} read)")
    return tuple(lines)


AMENDING = ("amendment", "side_letter")  # read with the sheet of what they amend


def misfits(abstracts: Sequence[Abstract]) -> tuple[str, ...]:
    """A line for every document that does not look like what its sheet is made for."""
    lines = []
    for item in abstracts:
        kind = identify(item.document).kind
        if kind == "unknown" and item.sheet.name == GENERAL:
            lines.append(
                f"{item.document.path}: its kind was not recognised; read with the sheet for agreements in general"
            )
        elif kind == "unknown" and item.sheet.name == OTHER:
            lines.append(f"{item.document.path}: its kind was not recognised; what stands under its own labels is told")
        elif item.sheet.kinds and not item.amends and kind not in (*item.sheet.kinds, *AMENDING):
            label = item.sheet.label.lower()
            lines.append(
                f"{item.document.path}: not recognised as a {label}; read as one all the same, so check that this fits"
            )
    return tuple(lines)


HOW = {"recognised": "recognised", "hidden": "from a hidden text layer"}


def _how_read(document: Document) -> str:
    """How its pages were read where not simply as printed text."""
    said = []
    for source, words in HOW.items():
        count = sum(p.source == source for p in document.pages)
        if count:
            said.append(f"{count} {words}")
    blank = sum(p.state == "blank" for p in document.pages)
    if blank:
        said.append(f"{blank} blank")
    return f" ({', '.join(said)})" if said else ""


def read_report(
    documents: Sequence[Document], unread: Sequence[UnreadableError], passed: Sequence[str], copies: Sequence[Copy] = (), *,
    each_page: bool = False, changes: bool = False,
) -> Report:  # fmt: skip
    """What the documents are and what of them was read."""
    rows = []
    for document in documents:
        identity = identify(document)
        notes = [str(p) for p in document.problems]
        authors = [who for name, who in document.properties if name == "author" and who.lower() not in NOBODY]
        about = [f"by {authors[0]}"] if authors and not identity.parties else []
        if identity.version:
            about.append(f"marked {identity.version.quote!r}")
        if document.parent:
            about.append(f"inside {document.parent}")
        if identity.language not in ("", "en"):
            about.append(f"language: {identity.language}")
        kind = Cell(identity.label, notes=tuple(about))
        parties = " · ".join(p.quote for p in identity.parties)
        title = identity.title_text or "no title found"
        rows.append(
            TableRow(
                (
                    Cell(document.path), kind, Cell(title, notes=(f"parties: {parties}",) if parties else ()), Cell(_dated(document)),
                    Cell(f"{coverage(document)}{_how_read(document)}, {document.words:,} words", notes=tuple(notes)),
                )
            )
        )  # fmt: skip
    rows += [
        TableRow(
            (
                Cell(e.where),
                Cell("not read", state="unread"),
                Cell(),
                Cell(),
                Cell("0", notes=(f"{e.what}; {e.do}".strip("; "),)),
            )
        )
        for e in unread
    ]
    table = Table(("Document", "Kind", "Title", "Date", "Read"), tuple(rows), (8, 4, 7, 4, 8))
    lines = [str(c) for c in copies]
    if passed:
        lines.append(f"{counted(len(passed), 'other file')} of formats that are not read: {', '.join(passed)}")
    sections = [Section("", table=table, lines=tuple(lines))]
    if each_page:
        sections += [_pages_section(d) for d in documents]
    if changes:
        sections += [_changes_section(d) for d in documents]
    return Report("Documents", f"{len(documents)} read", tuple(sections), warnings_of((), unread))


STATES = {"text": "", "no_text": "a picture, not read", "blank": "blank", "failed": "damaged, not read"}
NOBODY = (
    "anonymous",
    "unknown",
    "user",
    "admin",
    "owner",
    "python-docx",
    "openpyxl",
    "un-named",
)  # what programs put in
SOURCES = {"printed": "text", "hidden": "hidden text layer", "recognised": "recognised", "": ""}


def _pages_section(document: Document) -> Section:
    """A line for each page."""
    if not document.pages:
        return Section(f"{document.path}: pages", lines=("This format records no pages.",))
    rows = []
    for page in document.pages:
        how = STATES[page.state] or SOURCES[page.source]
        notes = ([f"turned by {page.turned}°"] if page.turned else []) + (["hidden"] if page.hidden else [])
        rows.append(
            TableRow(
                (
                    Cell(str(page.number)),
                    Cell(page.label or page.name),
                    Cell(", ".join([how, *notes]), state="unread" if page.state in ("no_text", "failed") else ""),
                    Cell(f"{page.words:,}"),
                )
            )
        )
    unit = UNITS.get(document.paging, "page").capitalize()
    return Section(
        f"{document.path}: pages",
        table=Table((unit, "Printed number or name", "How read", "Words"), tuple(rows), (2, 5, 5, 2)),
    )


def _changes_section(document: Document) -> Section:
    """Tracked changes and comments of a document."""
    rows = []
    for change in document.changes:
        place = Cite(document, Span(max(0, change.at - 1), max(1, change.at))).place if document.text else ""
        rows.append(
            TableRow(
                (
                    Cell(change.kind),
                    Cell(change.text),
                    Cell(", ".join(filter(None, [change.author, change.date[:10]]))),
                    Cell(place),
                )
            )
        )
    for mark in document.marks:
        if mark.kind == "comment":
            cite = Cite(document, mark.span)
            rows.append(TableRow((Cell("comment"), Cell(mark.value, cites=(cite,)), Cell(""), Cell(cite.place))))
    if not rows:
        return Section(f"{document.path}: changes and comments", lines=("None recorded in the file.",))
    return Section(
        f"{document.path}: changes and comments",
        table=Table(("What", "Words", "By", "Where"), tuple(rows), (3, 12, 5, 5)),
    )


def outline_report(
    entries: Sequence[tuple[Document, Sequence[OutlineEntry]]], unread: Sequence[UnreadableError] = ()
) -> Report:
    """Sections with their pages, a table for each document."""
    sections = []
    for document, found in entries:
        if not found:
            sections.append(Section(document.path, lines=("No headings found.",)))
            continue
        paged = any(e.first_page for e in found)
        printed = any(e.printed_first and e.printed_first != str(e.first_page) for e in found)
        unit = UNITS.get(document.paging, "page").capitalize()
        heads = ["Section"] + ([f"{unit}s"] if paged else []) + (["Printed"] if printed else [])
        top = min(e.section.level for e in found)
        rows = []
        for entry in found:
            cells = [Cell("\u2003" * min(6, entry.section.level - top) + entry.section.name)]
            if paged:
                cells.append(Cell(_range(entry.first_page, entry.last_page)))
            if printed:
                cells.append(Cell(_range(entry.printed_first, entry.printed_last)))
            rows.append(TableRow(tuple(cells)))
        weights = (14, *(2 for _ in heads[1:]))
        sections.append(
            Section(document.path, (coverage(document) + " read",), Table(tuple(heads), tuple(rows), weights))
        )
    total = sum(len(found) for _, found in entries)
    return Report("Outline", counted(total, "section"), tuple(sections), warnings_of([d for d, _ in entries], unread))


def _range(first: object, last: object) -> str:
    return f"{first or ''}" if first == last or not last else f"{first}-{last}"


def doubts(cites: Sequence[Cite]) -> list[str]:
    """A line for words of the quotes that were recognised from a picture with little certainty."""
    words = list(dict.fromkeys(w for c in cites for w in c.doubtful))
    return [f"recognised with doubt: {', '.join(words[:8])}; check the page"] if words else []


def finding_cell(finding: Finding, note: str = "") -> Cell:
    notes = [*finding.working, *doubts(finding.cites)]
    if note:
        notes.append(note)
    return Cell(said(finding), own_words(finding), finding.cites, tuple(notes), finding.state)


def abstract_report(
    abstracts: Sequence[Abstract], *, why: bool = False, unread: Sequence[UnreadableError] = ()
) -> Report:
    sections = []
    for item in abstracts:
        identity = identify(item.document)
        found = [f for f in item.findings if f.found]
        lacking = missed(item.findings)
        rows = []
        for finding in found:
            cell = finding_cell(finding, "; ".join(finding.why) if why else "")
            rows.append(TableRow((Cell(finding.term.label), cell, state_cell(finding)), finding.term.group))
        about = [f"{identity.label}; {identity.title_text}" if identity.title_text else identity.label]
        about.append(f"Sheet: {item.sheet.label.lower()}. {_tally(found)}")
        if item.amended_by:
            about.append("Shows the terms in force after " + ", ".join(item.amended_by) + ".")
        about += [
            f"Without the changes of {path}, which take effect on {shown_date(day)}." for path, day in item.not_yet
        ]
        if item.amends:
            about.append(f"Changes {item.amends}; abstract both together to see the terms in force.")
        lines = []
        by_group: dict[str, list[str]] = {}
        for finding, details in lacking:
            by_group.setdefault(finding.term.group, []).append(_lacked(finding, details))
        for group, labels in by_group.items():
            lines.append(f"Not found{f', {_small(group)}' if group else ''}: {'; '.join(labels)}.")
        wanted = [f for f, _ in lacking if f.term.required]
        for finding in wanted:
            near = f" Nearest: {quoted(finding.near[0].quote, 140)} ({finding.near[0].place})" if finding.near else ""
            lines.append(f"Required but not found: {_small(finding.term.label)}; {'; '.join(finding.why)}.{near}")
        table = Table(("Term", "What the document says", "State"), tuple(rows), (6, 17, 3))
        sections.append(Section(item.document.path, tuple(about), table, lines=tuple(lines)))
        sections += schedule_sections(item)
    warnings = warnings_of([a.document for a in abstracts], unread) + misfits(abstracts)
    return Report("Abstract", "", tuple(sections), warnings)


def _lacked(finding: Finding, details: int) -> str:
    return _small(finding.term.label) + (f" (and {counted(details, 'detail')} of it)" if details else "")


def state_cell(finding: Finding) -> Cell:
    """The state, and a mark at what should be checked by eye first."""
    words = STATE_WORDS[finding.state]
    return Cell(" · ".join(filter(None, [words, "check" if to_check(finding) else ""])), state=finding.state)


def _tally(found: Sequence[Finding]) -> str:
    """How many terms were found, and how many of them to look at first."""
    check = sum(to_check(f) for f in found)
    looked = f"; {check} marked “check” to be looked at by eye first" if check else ""
    return f"{counted(len(found), 'term')} found{looked}."


def screen_report(screened: Sequence[Screened], unread: Sequence[UnreadableError] = ()) -> Report:
    """Which documents stay and which drop out, and why."""
    rows = []
    for item in screened:
        path = item.abstract.document.path
        if item.stays:
            rows.append(TableRow((Cell(path), Cell("stays"), Cell(""))))
        for lack in item.lacks:
            rows.append(
                TableRow(
                    (
                        Cell(path),
                        Cell("drops out", state="gap"),
                        Cell(lack.term.label, notes=(lack.why,), cites=lack.cites[:1]),
                    )
                )
            )
    out = sum(not s.stays for s in screened)
    about = f"{counted(len(screened), 'document')}, of which {out} drop{'s' * (out == 1)} out"
    table = Table(("Document", "", "Required term"), tuple(rows), (8, 3, 14))
    return Report(
        "Screening", about, (Section("", table=table),), warnings_of([s.abstract.document for s in screened], unread)
    )


def sheets_report(sheets: Sequence[Sheet]) -> Report:
    """The sheets that ship."""
    rows = [
        TableRow(
            (
                Cell(s.name),
                Cell(s.label),
                Cell(", ".join(k.replace("_", " ") for k in s.kinds)),
                Cell(str(len(s.terms))),
            )
        )
        for s in sheets
    ]
    return Report(
        "Sheets",
        f"{counted(len(sheets), 'sheet')} ship",
        (Section("", table=Table(("Name", "For", "Kinds of document", "Terms"), tuple(rows), (6, 6, 11, 2))),),
    )


def sheet_report(sheet: Sheet) -> Report:
    """The terms of a sheet."""
    rows = [
        TableRow(
            (
                Cell(t.id), Cell(t.label, notes=("required",) if t.required else ()), Cell(t.type.replace("_", " ")),
                Cell("; ".join(p.text for p in (t.names or t.headings or t.cues)[:4])[:160]),
            ), t.group,
        )
        for t in sheet.terms
    ]  # fmt: skip
    table = Table(("Id", "Term", "Type", "What documents call it"), tuple(rows), (5, 6, 3, 12))
    return Report(
        f"Sheet: {sheet.name}", f"{sheet.label}; {counted(len(sheet.terms), 'term')}", (Section("", table=table),)
    )


def _comparison_table(comparison: Comparison, rows: Sequence[Row]) -> Table:
    out = []
    for row in rows:
        cells = [finding_cell(c, n) for c, n in zip(row.cells, row.notes, strict=True)]
        mark = MARKS[row.status]
        out.append(
            TableRow(
                (Cell(row.term.label, notes=(mark,) if mark else (), state=row.status), *cells),
                row.term.group,
                row.status,
            )
        )
    heads = ("Term", *(d.name for d in comparison.documents))
    return Table(heads, tuple(out), (4, *(7 for _ in comparison.documents)))


def compare_report(
    comparison: Comparison, abstracts: Sequence[Abstract], unread: Sequence[UnreadableError] = ()
) -> Report:
    shown = [r for r in comparison.rows if r.status != "nowhere"]
    nowhere = [r.term.label for r in comparison.rows if r.status == "nowhere"]
    lead = [f"{d.path} is laid over {base}: its changes are marked as amended." for d, base in comparison.amendments]
    lines = ("Found in none of them: " + ", ".join(map(_small, nowhere)) + ".",) if nowhere else ()
    about = f"{counted(len(comparison.documents), 'document')}; {comparison.tally}"
    section = Section("", tuple(lead), _comparison_table(comparison, shown), lines=lines)
    documents = [*comparison.documents, *(d for d, _ in comparison.amendments)]
    return Report("Comparison", about, (section,), warnings_of(documents, unread) + misfits(abstracts))


def _flag_card(flag: Flag) -> Card:
    body = [("Why", flag.rule.why), ("In practice", flag.rule.plain)]
    if flag.rule.remedy:
        body.append(("Remedy", flag.rule.remedy))
    notes = (*flag.notes, *doubts(flag.cites))
    return Card(flag.rule.severity, flag.rule.label, flag.document.name, tuple(body), flag.cites, notes)


def _flag_sections(flags: Sequence[Flag]) -> list[Section]:
    from yarnex.core.flags.rulebook import SEVERITIES

    titles = {"high": "High", "medium": "Medium", "low": "Low", "strength": "Strengths"}
    sections = []
    for severity in SEVERITIES:
        mine = tuple(_flag_card(f) for f in flags if f.rule.severity == severity)
        if mine:
            sections.append(Section(f"{titles[severity]} ({len(mine)})", cards=mine))
    return sections


def flags_report(
    flags: Sequence[Flag], abstracts: Sequence[Abstract], label: str, unread: Sequence[UnreadableError] = ()
) -> Report:
    documents = [a.document for a in abstracts]
    about = f"{label}; {counted(len(flags), 'point')} in {counted(len(documents), 'document')}"
    sections = _flag_sections(flags) or [Section("", lines=("No rule of the rulebook holds for these documents.",))]
    return Report(
        "Red flags and strengths", about, tuple(sections), warnings_of(documents, unread) + misfits(abstracts)
    )


def briefing_report(briefing: Briefing) -> Report:
    """The document handed over."""
    sections = [Section("Summary", lines=briefing.summary)]
    rows = []
    for document, identity, item in zip(briefing.documents, briefing.identities, briefing.abstracts, strict=True):
        relation = (
            f"amends {item.amends}"
            if item.amends
            else (f"amended by {', '.join(item.amended_by)}" if item.amended_by else "")
        )
        rows.append(
            TableRow(
                (
                    Cell(document.name), Cell(identity.label, notes=(relation,) if relation else ()),
                    Cell(identity.title_text or "no title found", cites=(identity.title,) if identity.title else ()),
                    Cell(_dated(document), cites=(identity.dated,) if identity.dated else ()),
                )
            )
        )  # fmt: skip
    sections.append(
        Section("The documents", table=Table(("Document", "Kind", "Title", "Date"), tuple(rows), (4, 4, 6, 3)))
    )
    shown = [r for r in briefing.comparison.rows if r.status != "nowhere"]
    title = "Key terms side by side" if len(briefing.comparison.documents) > 1 else "Key terms"
    lead = tuple(
        f"{d.name} is laid over {base}; its changes are marked as amended."
        for d, base in briefing.comparison.amendments
    )
    sections.append(Section(title, lead, _comparison_table(briefing.comparison, shown)))
    for section in _flag_sections(briefing.flags):
        sections.append(Section(f"Flags: {section.title}", cards=section.cards))
    dates = [
        TableRow(
            (
                Cell(shown_date(k.day), state="past" if k.past else ""), Cell(k.what, notes=("past",) if k.past else ()),
                Cell(k.finding.document.name), Cell(STATE_WORDS[k.finding.state], cites=k.finding.cites, notes=k.finding.working),
            )
        )
        for k in briefing.dates
    ]  # fmt: skip
    sections.append(
        Section(
            "Key dates",
            (f"As of {shown_date(briefing.as_of)}.",),
            Table(("Date", "What", "Document", "Source"), tuple(dates), (4, 7, 5, 8)),
        )
        if dates
        else Section("Key dates", lines=("No dates were found.",))
    )
    kinds = {
        "unread": "not read", "conflicting": "stated differently in two places", "unparsed": "in words that give no value",
        "blank": "left blank", "redacted": "blacked out", "not_found": "not found",
    }  # fmt: skip
    questions = tuple(
        TableRow(
            (
                Cell(q.what),
                Cell(kinds[q.kind], notes=(q.detail,) if q.detail else (), state=q.kind),
                Cell(q.document, cites=q.cites),
            )
        )
        for q in briefing.questions
    )
    sections.append(
        Section("Open questions", table=Table(("What", "State", "Where"), questions, (6, 9, 9)))
        if questions
        else Section("Open questions", lines=("None.",))
    )
    made = [
        f"yarnex {__version__}; sheet {briefing.abstracts[0].sheet.name}; rulebook {briefing.rulebook.name} ({briefing.rulebook.label}); as of {briefing.as_of.isoformat()}.",
        "Every quoted passage stands in the document at the page given; values marked as worked out carry their working. No language model and no network were used.",
    ]
    files = tuple(
        TableRow(
            (
                Cell(d.path),
                Cell(coverage(d)),
                Cell(f"{d.words:,}"),
                Cell(d.sha256[:16] + "…", notes=tuple(str(p) for p in d.problems)),
            )
        )
        for d in briefing.documents
    ) + tuple(
        TableRow((Cell(e.where), Cell("not read"), Cell("0"), Cell("", notes=(e.what,)))) for e in briefing.unread
    )
    sections.append(
        Section("How this was made", tuple(made), Table(("File", "Read", "Words", "SHA-256"), files, (8, 5, 3, 8)))
    )
    about = f"{counted(len(briefing.comparison.documents), 'document')} compared, {counted(len(briefing.flags), 'point')} raised, as of {shown_date(briefing.as_of)}"
    return Report(
        briefing.title,
        about,
        tuple(sections),
        warnings_of(briefing.documents, briefing.unread) + misfits(briefing.abstracts),
    )
