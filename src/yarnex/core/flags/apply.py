"""Rules over filled sheets -> flags, worst first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from yarnex.core.document import Cite, Document
from yarnex.core.flags.conditions import Subject
from yarnex.core.flags.rulebook import SEVERITIES, Rule, Rulebook
from yarnex.core.terms import Abstract
from yarnex.core.terms.identity import identify


@dataclass(frozen=True, slots=True)
class Flag:
    """A rule that holds for a document, with its evidence. notes: working, and where was looked for what is missing."""

    document: Document
    rule: Rule
    cites: tuple[Cite, ...]
    notes: tuple[str, ...]

    def to_dict(self) -> dict[str, Any]:
        """The flag as a JSON object."""
        return {
            "document": self.document.path, "rule": self.rule.id, "severity": self.rule.severity, "what": self.rule.label,
            "why": self.rule.why, "plain": self.rule.plain, "remedy": self.rule.remedy, "notes": list(self.notes),
            "cites": [cite.to_dict() for cite in self.cites],
        }  # fmt: skip


def apply_rules(abstracts: Sequence[Abstract], book: Rulebook, as_of: date) -> tuple[Flag, ...]:
    """The flags of all documents: by severity, then in the order of the documents and of the rulebook.

    as_of: the day from which "has ended" and the like are judged.
    """
    flags = []
    for abstract in abstracts:
        kind = identify(abstract.document).kind
        for rule in book.rules:
            if rule.kinds and kind not in rule.kinds:
                continue
            evidence = rule.condition(Subject(abstract, as_of))
            if evidence is not None:
                flags.append(
                    Flag(abstract.document, rule, _each_once(evidence.cites), tuple(dict.fromkeys(evidence.notes)))
                )
    flags = [f for f in flags if not _told_already(f, flags)]
    return tuple(sorted(flags, key=lambda f: SEVERITIES.index(f.rule.severity)))


def _told_already(flag: Flag, flags: list[Flag]) -> bool:
    """True where the same rule was raised on another document with this flag's passage: an amendment laid over its base."""
    for other in flags:
        if other is flag or other.rule is not flag.rule or other.document is flag.document or not flag.cites:
            continue
        if all(any(c.document is d.document and c.span == d.span for d in other.cites) for c in flag.cites) and any(
            c.document is not other.document for c in other.cites
        ):
            return True
    return False


def _each_once(cites: tuple[Cite, ...]) -> tuple[Cite, ...]:
    out: list[Cite] = []
    for cite in cites:
        if not any(c.document is cite.document and c.span == cite.span for c in out):
            out.append(cite)
    return tuple(out)
