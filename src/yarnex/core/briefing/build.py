"""The briefing: documents, summary, comparison, flags, key dates, open questions, and how it was made."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from yarnex.core.comparing import Comparison, compare
from yarnex.core.document import Cite, Document
from yarnex.core.errors import UnreadableError
from yarnex.core.flags import Flag, Rulebook, apply_rules
from yarnex.core.flags.rulebook import SEVERITIES
from yarnex.core.terms import Abstract, Finding
from yarnex.core.terms.identity import Identity, identify
from yarnex.core.values import DateValue


@dataclass(frozen=True, slots=True)
class KeyDate:
    """A day that matters. past: it lies before the as-of date."""

    day: date
    what: str
    finding: Finding
    past: bool


@dataclass(frozen=True, slots=True)
class OpenQuestion:
    """Something that the documents leave open. kind: a finding's state, "unparsed" or "unread"."""

    document: str
    kind: str
    what: str
    cites: tuple[Cite, ...]
    detail: str = ""


@dataclass(frozen=True)
class Briefing:
    title: str
    as_of: date
    abstracts: tuple[Abstract, ...]
    identities: tuple[Identity, ...]
    comparison: Comparison
    flags: tuple[Flag, ...]
    rulebook: Rulebook
    dates: tuple[KeyDate, ...]
    questions: tuple[OpenQuestion, ...]
    summary: tuple[str, ...]
    unread: tuple[UnreadableError, ...]

    @property
    def documents(self) -> tuple[Document, ...]:
        return tuple(a.document for a in self.abstracts)


def brief(
    abstracts: Sequence[Abstract], book: Rulebook, as_of: date, unread: Sequence[UnreadableError] = ()
) -> Briefing:
    """Build the briefing of filled sheets.

    as_of: the day that counts as today. unread: files that could not be read, so that the briefing says so.
    """
    comparison = compare(abstracts)
    flags = apply_rules(abstracts, book, as_of)
    identities = tuple(identify(a.document) for a in abstracts)
    columns = {d.path for d in comparison.documents}
    dates = _key_dates([a for a in abstracts if a.document.path in columns], as_of)
    questions = _open_questions(abstracts, columns, unread)
    title = "Briefing on " + (f"{len(abstracts)} documents" if len(abstracts) != 1 else abstracts[0].document.name)
    summary = _summary(comparison, flags, dates, questions, unread, as_of)
    return Briefing(
        title, as_of, tuple(abstracts), identities, comparison, flags, book, dates, questions, summary, tuple(unread)
    )


def _key_dates(abstracts: Sequence[Abstract], as_of: date) -> tuple[KeyDate, ...]:
    out = []
    for abstract in abstracts:
        for finding in abstract.findings:
            if isinstance(finding.value, DateValue) and finding.usable:
                day = finding.value.day
                out.append(KeyDate(day, finding.term.label, finding, day < as_of))
    return tuple(sorted(out, key=lambda k: (k.day, k.finding.document.path)))


def _open_questions(
    abstracts: Sequence[Abstract], columns: set[str], unread: Sequence[UnreadableError]
) -> tuple[OpenQuestion, ...]:
    out = [OpenQuestion(e.where, "unread", e.what, (), e.do) for e in unread]
    for abstract in abstracts:
        document = abstract.document
        out += [OpenQuestion(document.path, "unread", str(p), ()) for p in document.problems if p.serious]
        if document.path not in columns:
            continue
        for finding in abstract.findings:
            label = finding.term.label
            if finding.state == "conflicting":
                out.append(OpenQuestion(document.path, "conflicting", label, finding.cites, "; ".join(finding.working)))
            elif finding.state in ("blank", "redacted"):
                out.append(OpenQuestion(document.path, finding.state, label, finding.cites))
            elif finding.state == "not_found" and finding.term.required:
                out.append(OpenQuestion(document.path, "not_found", label, finding.near, "; ".join(finding.why)))
            elif finding.state == "stated" and finding.value is None:
                out.append(
                    OpenQuestion(
                        document.path,
                        "unparsed",
                        label,
                        finding.cites,
                        "; ".join(finding.working) or "stated in words that give no value",
                    )
                )
    order = ("unread", "conflicting", "unparsed", "blank", "redacted", "not_found")
    return tuple(sorted(out, key=lambda q: order.index(q.kind)))


def _summary(
    comparison: Comparison, flags: Sequence[Flag], dates: Sequence[KeyDate], questions: Sequence[OpenQuestion],
    unread: Sequence[UnreadableError], as_of: date,
) -> tuple[str, ...]:  # fmt: skip
    """The few lines that a reader in a hurry needs."""
    lines = []
    count = Counter(f.rule.severity for f in flags)
    parts = [f"{count[s]} {s}" if s != "strength" else f"{count[s]} strengths" for s in SEVERITIES if count[s]]
    lines.append("Flags: " + (", ".join(parts) or "none") + ".")
    for document in comparison.documents:
        mine = [f for f in flags if f.document is document and f.rule.severity == "high"]
        high = "; ".join(f.rule.label[:1].lower() + f.rule.label[1:] for f in mine)
        lines.append(f"{document.name}: {high or 'nothing of high severity'}.")
    ahead = [d for d in dates if not d.past]
    if ahead:
        first = ahead[0]
        lines.append(
            f"Next date: {first.day.day} {first.day:%B %Y}, {first.what.lower()} ({first.finding.document.name})."
        )
    if len(comparison.documents) > 1:
        lines.append(f"{comparison.tally}.")
    if questions:
        kinds = Counter(q.kind.replace("_", " ") for q in questions)
        lines.append("Open: " + ", ".join(f"{n} {k}" for k, n in kinds.items()) + ".")
    if unread:
        lines.append(f"{len(unread)} file{'s' * (len(unread) != 1)} could not be read.")
    return tuple(lines)
