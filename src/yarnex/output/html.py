"""Report -> one HTML file that stands alone: no network, no script; cites open the passage beside the table."""

from __future__ import annotations

from dataclasses import dataclass

from jinja2 import Environment, PackageLoader, select_autoescape

from yarnex._version import __version__
from yarnex.core.document import Cite
from yarnex.output.report import Report
from yarnex.output.safe import visible
from yarnex.output.wording import one_line

CONTEXT = 220  # characters of the document shown on each side of a quote


@dataclass(frozen=True, slots=True)
class Passage:
    """A quoted passage with what stands before and after it."""

    number: int
    document: str
    place: str
    target: str
    before: str
    quote: str
    after: str


class Passages:
    """Numbers the cites of a report in the order in which they are met; the same passage has one number."""

    def __init__(self) -> None:
        self.seen: dict[tuple[str, int, int], int] = {}
        self.items: list[Passage] = []

    def number(self, cite: Cite) -> int:
        key = (cite.document.path, cite.span.start, cite.span.end)
        if key not in self.seen:
            self.seen[key] = len(self.items) + 1
            self.items.append(_passage(cite, len(self.items) + 1))
        return self.seen[key]

    def label(self, cite: Cite) -> str:
        first, last = cite.pages
        if first:
            return f"p. {first}" if last in (None, first) else f"pp. {first}–{last}"
        if line := cite.document.line_of(cite.span):
            return f"line {line}"
        block = cite.document.block_at(cite.span.start)
        number = block.number if block else ""
        if number and len(number) < 12:
            return f"cl. {number}" if number[:1].isdigit() else number
        return f"para. {cite.paragraph}"


def _passage(cite: Cite, number: int) -> Passage:
    text = cite.document.text
    block_start = cite.document.block_at(cite.span.start)
    start = max(block_start.span.start if block_start else 0, cite.span.start - CONTEXT)
    last = cite.document.block_at(max(cite.span.start, cite.span.end - 1))
    end = min(last.span.end if last else len(text), cite.span.end + CONTEXT)
    before, after = text[start : cite.span.start], text[cite.span.end : end]
    if block_start and start > block_start.span.start:
        before = "… " + before.split(" ", 1)[-1]
    if last and end < last.span.end:
        after = after.rsplit(" ", 1)[0] + " …"
    return Passage(number, cite.document.name, cite.place, cite.target, before, cite.quote, after)


def render(report: Report) -> str:
    """The page as text. The same report gives the same page."""
    environment = Environment(
        loader=PackageLoader("yarnex.output", "templates"),
        autoescape=select_autoescape(["html"]),
        trim_blocks=True,
        lstrip_blocks=True,
    )
    environment.filters["visible"] = lambda text: visible(str(text))
    environment.filters["one_line"] = lambda text: visible(one_line(str(text)))
    passages = Passages()
    template = environment.get_template("report.html")
    return template.render(report=report, passages=passages, version=__version__)
