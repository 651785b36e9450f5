"""Report -> Markdown: tables in pipes, cites as numbered notes under each section."""

from __future__ import annotations

from yarnex.core.document import Cite
from yarnex.output.report import Card, Cell, Report, Section
from yarnex.output.safe import visible
from yarnex.output.wording import one_line


def render(report: Report) -> str:
    out = [f"# {_plain(report.title)}", ""]
    if report.about:
        out += [_plain(report.about) + ".", ""]
    out += [f"> {_plain(w)}" for w in report.warnings]
    if report.warnings:
        out.append("")
    notes: list[Cite] = []
    for section in report.sections:
        out += _section(section, notes)
    if notes:
        out += ["## Quoted passages", ""]
        for i, cite in enumerate(notes, start=1):
            out.append(
                f"{i}. [{_plain(cite.document.name)}]({cite.target}), {_plain(cite.place)}: “{_plain(one_line(cite.quote))}”"
            )
        out.append("")
    return "\n".join(out)


def _plain(text: str) -> str:
    """Words that cannot become markup."""
    text = visible(one_line(text)).replace("\\", "\\\\")
    for mark in "|*_`<>[]#":
        text = text.replace(mark, "\\" + mark) if mark != "#" else text
    return text


def _marks(cites: tuple[Cite, ...], notes: list[Cite]) -> str:
    out = []
    for cite in cites:
        place = next((i for i, c in enumerate(notes) if c.document is cite.document and c.span == cite.span), None)
        if place is None:
            notes.append(cite)
            place = len(notes) - 1
        page = f"p. {cite.pages[0]} " if cite.pages[0] else ""
        out.append(f"{page}({place + 1})")
    return f" [{', '.join(out)}]" if out else ""


def _cell(cell: Cell, notes: list[Cite]) -> str:
    text = "<br>".join(_plain(line) for line in cell.text.split("\n"))
    if cell.quote:
        text += f" “{_plain(cell.quote)}”"
    text += _marks(cell.cites, notes)
    for note in cell.notes:
        text += f"<br>({_plain(note)})"
    return text


def _section(section: Section, notes: list[Cite]) -> list[str]:
    out = [f"## {_plain(section.title)}", ""] if section.title else []
    out += [_plain(line) + "\n" for line in section.lead]
    if section.table is not None and section.table.rows:
        group = ""
        out.append("| " + " | ".join(map(_plain, section.table.heads)) + " |")
        rules = [" ---: |" if i in section.table.numeric else " --- |" for i in range(len(section.table.heads))]
        out.append("|" + "".join(rules))
        for row in section.table.rows:
            if row.group and row.group != group:
                group = row.group
                out.append(f"| **{_plain(group)}** |" + " |" * (len(section.table.heads) - 1))
            out.append("| " + " | ".join(_cell(c, notes) for c in row.cells) + " |")
        out.append("")
    for card in section.cards:
        out += _card(card, notes)
    out += [f"- {_plain(line)}" for line in section.lines]
    if section.lines:
        out.append("")
    return out


def _card(card: Card, notes: list[Cite]) -> list[str]:
    out = [f"### {_plain(card.title)} ({_plain(card.about)})", ""]
    out += [f"- {_plain(name)}: {_plain(text)}" for name, text in card.body]
    out += [f"- {_plain(note)}" for note in card.notes]
    if card.cites:
        out.append("- Evidence:" + _marks(card.cites, notes))
    return [*out, ""]
