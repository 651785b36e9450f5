"""Rulebooks: YAML in, checked rules out. Every mistake is reported with its line."""

from __future__ import annotations

from dataclasses import dataclass

from yarnex.core.errors import PackError
from yarnex.core.flags.conditions import Condition, build
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.terms import Sheet

SEVERITIES = ("high", "medium", "low", "strength")
BOOK = {
    "rulebook": Field("text", True),
    "label": Field("text", True),
    "sheet": Field("text", True),
    "reader": Field("text"),
    "rules": Field("entries", True),
}
RULE = {
    "id": Field("text", True), "label": Field("text", True), "severity": Field("text", True, SEVERITIES), "when": Field("any", True),
    "kinds": Field("texts"), "why": Field("text", True), "plain": Field("text", True), "remedy": Field("text"),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Rule:
    """label: what is the matter. why: the reason. plain: what it means in daily life. remedy: what to ask for."""

    id: str
    label: str
    severity: str
    kinds: tuple[str, ...]
    condition: Condition
    why: str
    plain: str
    remedy: str


@dataclass(frozen=True, slots=True)
class Rulebook:
    name: str
    label: str
    reader: str  # whose interest the rules look after
    rules: tuple[Rule, ...]


def load_rulebook(name: str, sheet: Sheet) -> Rulebook:
    """The rulebook that ships under this name, or the one in a file. Raises PackError with every mistake."""
    text, shown = pack_text("rulebooks", name)
    return parse_rulebook(text, shown, sheet)


def parse_rulebook(text: str, shown: str, sheet: Sheet) -> Rulebook:
    """A rulebook from its YAML; terms are checked against the sheet. shown: the name for messages."""
    entry = load_entries(text, shown)
    faults: list[str] = []
    check_keys(entry, BOOK, shown, faults)
    rules = []
    seen: set[str] = set()
    for item in entry.get("rules") or []:
        before = len(faults)
        check_keys(item, RULE, shown, faults)
        if not isinstance(item, Entry):
            continue
        if item.get("id") in seen:
            faults.append(f"{shown}, line {item.line}: the id {item.get('id')!r} stands twice")
        seen.add(str(item.get("id")))
        condition = build(item.get("when"), sheet, f"{shown}, line {item.line}", faults)
        if item.get("severity") != "strength" and "remedy" not in item:
            faults.append(f"{shown}, line {item.line}: missing key 'remedy' (only a strength does without)")
        if len(faults) == before:
            rules.append(
                Rule(
                    item["id"], item["label"], item["severity"], texts(item, "kinds"), condition, item["why"], item["plain"],
                    item.get("remedy", ""),
                )
            )  # fmt: skip
    if faults:
        raise PackError("\n".join(faults))
    return Rulebook(entry["rulebook"], entry["label"], entry.get("reader", ""), tuple(rules))
