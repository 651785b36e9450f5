"""Sheets: YAML in, checked `Sheet` out. Every mistake is reported with its line."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.phrases import Phrase, PhraseError, compile_phrase
from yarnex.core.terms.computed import RULES
from yarnex.core.terms.model import TYPES, Sheet, Term

SHEET_KEYS = {
    "sheet": Field("text", True), "label": Field("text", True), "kinds": Field("texts"), "terms": Field("entries", True),
    "note": Field("text"),
}  # fmt: skip
TERM_KEYS = {
    "id": Field("text", True), "label": Field("text", True), "group": Field("text"), "type": Field("text", True, TYPES),
    "names": Field("texts"), "headings": Field("texts"), "cues": Field("texts"), "clause_cues": Field("texts"), "requires": Field("texts"), "within": Field("texts"), "value_says": Field("texts"), "not": Field("texts"), "units": Field("texts"),
    "yes": Field("texts"), "no": Field("texts"), "items": Field("text", False, ("date", "day", "text")),
    "compute": Field("text", False, tuple(sorted(RULES))), "several": Field("flag"), "expected": Field("flag"),
    "near": Field("texts"), "by": Field("text", False, ("landlord", "tenant")), "hint": Field("text"),
}  # fmt: skip
PHRASE_KEYS = (
    "names",
    "headings",
    "cues",
    "clause_cues",
    "requires",
    "within",
    "value_says",
    "not",
    "yes",
    "no",
    "near",
)


def load_sheet(name: str) -> Sheet:
    """The sheet that ships under this name, or the one in a file. Raises PackError with every mistake."""
    return parse_sheet(*pack_text("sheets", name))


@lru_cache(maxsize=8)
def parse_sheet(text: str, shown: str) -> Sheet:
    """A sheet from its YAML. shown: the name for messages."""
    entry = load_entries(text, shown)
    faults: list[str] = []
    check_keys(entry, SHEET_KEYS, shown, faults)
    terms: list[Term] = []
    seen: set[str] = set()
    for item in entry.get("terms") or []:
        before = len(faults)
        check_keys(item, TERM_KEYS, shown, faults)
        if not isinstance(item, Entry):
            continue
        phrases = {key: _phrases(item, key, shown, faults) for key in PHRASE_KEYS}
        if item.get("id") in seen:
            faults.append(f"{shown}, line {item.line}: the id {item.get('id')!r} stands twice")
        seen.add(str(item.get("id")))
        if len(faults) == before:
            terms.append(_term(item, phrases))
    if faults:
        raise PackError("\n".join(faults))
    return Sheet(entry["sheet"], entry["label"], texts(entry, "kinds"), tuple(terms))


def _phrases(item: Entry, key: str, shown: str, faults: list[str]) -> tuple[Phrase, ...]:
    out = []
    value: Any = item.get(key, [])
    for text in [value] if isinstance(value, str) else value:
        if not isinstance(text, str):
            continue
        try:
            out.append(compile_phrase(text))
        except PhraseError as error:
            faults.append(f"{shown}, line {item.line}, {key}: {error}")
    return tuple(out)


def _term(item: Entry, phrases: dict[str, tuple[Phrase, ...]]) -> Term:
    return Term(
        id=item["id"], label=item["label"], group=item.get("group", ""), type=item["type"],
        names=phrases["names"], headings=phrases["headings"], cues=phrases["cues"], excludes=phrases["not"],
        units=texts(item, "units"), yes=phrases["yes"], no=phrases["no"], items=item.get("items", "text"),
        compute=item.get("compute", ""), several=item.get("several", False), expected=item.get("expected", False),
        near=phrases["near"], by=item.get("by", ""), clause_cues=phrases["clause_cues"], requires=phrases["requires"], within=phrases["within"],
        value_says=phrases["value_says"],
    )  # fmt: skip
