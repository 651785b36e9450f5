"""Report -> the terminal: tables that wrap well at 100 columns, quotes and pages visible, plain when piped."""

from __future__ import annotations

import os
import sys
from typing import IO

from rich import box
from rich.console import Console
from rich.padding import Padding
from rich.table import Table as RichTable
from rich.text import Text

from yarnex.core.document import Cite
from yarnex.output.report import Card, Cell, Report, Section
from yarnex.output.safe import visible
from yarnex.output.wording import one_line

STYLES = {
    "high": "bold red", "medium": "yellow", "low": "cyan", "strength": "green", "conflicting": "red", "blank": "yellow", "redacted": "yellow",
    "amended": "magenta", "computed": "cyan", "not_found": "dim", "unread": "red", "differs": "yellow", "gap": "yellow", "unparsed": "yellow",
}  # fmt: skip
QUOTE = 170  # characters of a quote in a table
CARD_QUOTE = 320  # and in a card, where it is the evidence
PLAIN_WIDTH = 100  # columns where the output is no terminal


def console_for(file: IO[str], no_color: bool = False) -> Console:
    """A console that is plain, and of one width, where the file is no terminal."""
    if not file.isatty():
        width = int(os.environ.get("COLUMNS", PLAIN_WIDTH))
        return Console(
            file=file, width=max(60, width), no_color=True, force_terminal=False, highlight=False, legacy_windows=False
        )
    return Console(file=file, no_color=no_color, highlight=False)


def show(report: Report, *, no_color: bool = False, file: IO[str] | None = None) -> None:
    """Print a report."""
    console = console_for(file or sys.stdout, no_color)
    console.print(
        Text(visible(report.title), style="bold"),
        Text(visible(report.about), style="dim") if report.about else "",
        sep="  ",
    )
    for section in report.sections:
        _section(console, section)


def _section(console: Console, section: Section) -> None:
    if section.title:
        console.print()
        console.print(Text(visible(section.title), style="bold underline"))
    for line in section.lead:
        console.print(Text(visible(line), style="dim"))
    if section.table is not None and section.table.rows:
        table = RichTable(box=box.SIMPLE_HEAD, show_edge=False, pad_edge=False, padding=(0, 1, 0, 0), expand=True)
        weights = section.table.weights or tuple(1 for _ in section.table.heads)
        numeric = section.table.numeric
        for place, (head, weight) in enumerate(zip(section.table.heads, weights, strict=True)):
            table.add_column(
                Text(visible(head)),
                ratio=weight,
                overflow="fold",
                justify="right" if place in numeric else "left",
                no_wrap=False,
            )
        group = ""
        for row in section.table.rows:
            if row.group and row.group != group:
                group = row.group
                table.add_row(Text(visible(group), style="bold"), *["" for _ in section.table.heads[1:]])
            many = len(section.table.heads) > 3
            cells = [_number(c) if i in numeric else _cell(c, i == 0, many) for i, c in enumerate(row.cells)]
            table.add_row(*cells)
        console.print(table)
    for card in section.cards:
        _card(console, card)
    for line in section.lines:
        console.print(Text(visible(line)))


def _number(cell: Cell) -> Text:
    """A number alone; its places stand in a column of their own."""
    return Text(visible(cell.text), style=STYLES.get(cell.state, ""), no_wrap=True)


def _place(cite: Cite, short: bool) -> str:
    first, last = cite.pages
    if short and first:
        return f"p. {first}" if last in (None, first) else f"pp. {first}-{last}"
    return cite.place


def _cell(cell: Cell, first: bool, many: bool) -> Text:
    style = STYLES.get(cell.state, "")
    out = Text(
        visible(cell.text),
        style="" if first else style if cell.state in ("not_found", "blank", "redacted", "unread") else "",
    )
    if cell.quote:
        out.append(f"\n“{visible(cell.quote)}”" if not many else "", style="italic")
    for note in cell.notes:
        out.append("\n" + visible(note), style=style if first else "dim")
    if cell.cites and many:
        out.append(" [" + ", ".join(dict.fromkeys(visible(_place(c, True)) for c in cell.cites)) + "]", style="dim")
        if cell.state in ("computed", "amended", "conflicting"):
            out.append(f" {cell.state}", style=style)
    elif cell.cites:
        for cite in cell.cites:
            quote = one_line(cite.quote)
            said = one_line(cell.text)
            out.append(f"\n[{visible(_place(cite, False))}]", style="dim")
            if (quote not in (said, cell.quote) and said[:60] not in quote[:90]) or len(said) < 30:
                out.append(f" “{visible(cut_quote(quote, cell.quote or said))}”", style="dim")
    return out


def cut_quote(quote: str, words: str = "", limit: int = QUOTE) -> str:
    """A quote of some `limit` characters that keeps the words it is quoted for in sight.

    >>> cut_quote("one two three four five six", "five", 16)
    '… four five …'
    """
    if len(quote) <= limit:
        return quote
    at = quote.lower().find(words.lower()) if words and len(words) < limit else -1
    if at < 0 or at + len(words) < limit - 2:  # a blank must follow, or the cut takes the last word
        return quote[: limit - 2].rsplit(" ", 1)[0] + " …"
    end = min(len(quote), at + len(words) + limit // 6)
    tail = quote[at + len(words) : end]
    if end < len(quote):
        tail = tail.rpartition(" ")[0] + " …"
    lead = quote[max(0, end - limit) : at].partition(" ")[2]
    return f"… {lead}{quote[at : at + len(words)]}{tail}"


def _card(console: Console, card: Card) -> None:
    head = Text.assemble((f"{card.tag.upper()}  ", STYLES.get(card.tag, "")))
    head.append(visible(card.title), style="bold")
    head.append(f"  {visible(card.about)}", style="dim")
    console.print()
    console.print(head)
    for name, text in card.body:
        console.print(Padding(Text.assemble((f"{name}: ", "dim"), visible(text)), (0, 0, 0, 2)))
    for note in card.notes:
        console.print(Padding(Text(visible(note)), (0, 0, 0, 2)))
    for cite in card.cites:
        console.print(
            Padding(
                Text.assemble(
                    (f"[{visible(cite.place)}] ", "dim"),
                    (f"“{visible(cut_quote(one_line(cite.quote), limit=CARD_QUOTE))}”", "italic"),
                ),
                (0, 0, 0, 2),
            )
        )
