"""Report -> CSV (RFC 4180): one line a cell of the result, with its cite in columns of its own."""

from __future__ import annotations

import csv
import io

from yarnex.core.document import Cite
from yarnex.output.report import Report
from yarnex.output.safe import no_formula
from yarnex.output.wording import one_line

HEADS = (
    "part",
    "group",
    "item",
    "about",
    "says",
    "state",
    "own words",
    "page",
    "printed page",
    "section",
    "quote",
    "notes",
    "target",
)


def render(report: Report) -> str:
    """Long form: one row for each term and document, or each flag, so that it can be filtered and pivoted."""
    buffer = io.StringIO()
    writer = csv.writer(buffer, lineterminator="\r\n")
    writer.writerow(HEADS)
    for section in report.sections:
        if section.table is not None:
            for row in section.table.rows:
                item = row.cells[0].text
                pairs = zip(section.table.heads[1:], row.cells[1:], strict=True)
                for head, cell in pairs:
                    if not cell.text and not cell.cites and not cell.notes:
                        continue
                    writer.writerow(
                        _line(
                            [section.title, row.group, item, head, cell.text, cell.state, cell.quote],
                            cell.cites,
                            cell.notes,
                        )
                    )
        for card in section.cards:
            words = " ".join(text for _, text in card.body)
            writer.writerow(
                _line([section.title, card.tag, card.title, card.about, words, card.tag, ""], card.cites, card.notes)
            )
        for line in section.lines:
            writer.writerow(_line([section.title, "", "", "", line, "", ""], (), ()))
    return buffer.getvalue()


def _line(first: list[str], cites: tuple[Cite, ...], notes: tuple[str, ...]) -> list[str]:
    cite = cites[0] if cites else None
    page = str(cite.pages[0] or "") if cite else ""
    place = [page, cite.page_label if cite else "", cite.section if cite else ""]
    quotes = " … ".join(one_line(c.quote) for c in cites)
    return [
        no_formula(one_line(text)) for text in [*first, *place, quotes, "; ".join(notes), cite.target if cite else ""]
    ]
