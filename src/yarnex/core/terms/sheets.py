"""Sheets: YAML in, checked `Sheet` out. Every mistake is reported with its line."""

from __future__ import annotations

import re
from dataclasses import fields
from functools import lru_cache
from importlib.resources import files
from typing import Any

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.phrases import Phrase, PhraseError, compile_phrase
from yarnex.core.prepared import prepared
from yarnex.core.terms.computed import RULES
from yarnex.core.terms.model import SIDES, TYPES, Sheet, Term

SHOWN = (
    "YYYY-MM-DD",
    "DD/MM/YYYY",
    "MM/DD/YYYY",
    "D Month YYYY",
    "thousands",
    "millions",
    "whole",
    "months",
    "days",
    "years",
)
SHEET_KEYS = {
    "sheet": Field("text", True), "label": Field("text", True), "kinds": Field("texts"), "terms": Field("entries", True),
    "note": Field("text"), "include": Field("texts"), "leave_out": Field("texts"), "particulars": Field("text", False, ("all", "labels")),
}  # fmt: skip
TERM_KEYS = {
    "id": Field("text"), "label": Field("text", True), "group": Field("text"), "type": Field("text", True, TYPES),
    "names": Field("texts"), "headings": Field("texts"), "cues": Field("texts"), "clause_cues": Field("texts"), "requires": Field("texts"), "within": Field("texts"), "value_says": Field("texts"), "not": Field("texts"), "units": Field("texts"),
    "yes": Field("texts"), "no": Field("texts"), "items": Field("text", False, ("date", "day", "text")),
    "compute": Field("text", False, tuple(sorted(RULES))), "several": Field("flag"), "required": Field("flag"),
    "near": Field("texts"), "detail_of": Field("text"), "by": Field("text", False, tuple(SIDES)), "hint": Field("text"),
    "figure": Field("texts"), "asked": Field("texts"), "format": Field("text", False, SHOWN), "allowed": Field("texts"),
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
    return _shipped(name) if name in shipped_sheets() else parse_sheet(*pack_text("sheets", name))


@lru_cache(maxsize=64)
def _shipped(name: str) -> Sheet:
    """A sheet that ships with the program, from what an earlier run kept of it."""
    *head, terms = prepared(f"sheet-{name}", lambda: _as_plain(parse_sheet(*pack_text("sheets", name), True)))
    title, label, kinds, included, particulars = head
    made = []
    for term in terms:
        given: dict[str, Any] = dict(zip(TERM_FIELDS, term, strict=True))
        made.append(Term(**given | {k: tuple(_known(*phrase) for phrase in given[k]) for k in PHRASES}))
    return Sheet(title, label, kinds, tuple(made), included, particulars)


TERM_FIELDS = tuple(f.name for f in fields(Term))
PHRASES = frozenset(
    ("names", "headings", "cues", "excludes", "yes", "no", "near", "clause_cues", "within", "requires", "value_says")
)


def _known(text: str, needed: tuple[tuple[str, ...], ...]) -> Phrase:
    phrase = compile_phrase(text, True)
    phrase.__dict__["needed"] = needed
    return phrase


def _as_plain(sheet: Sheet) -> tuple[Any, ...]:
    """A sheet as texts, numbers and tuples of them."""
    terms = tuple(
        tuple(
            tuple((p.text, p.needed) for p in getattr(term, key)) if key in PHRASES else getattr(term, key)
            for key in TERM_FIELDS
        )
        for term in sheet.terms
    )
    return sheet.name, sheet.label, sheet.kinds, sheet.include, sheet.particulars, terms


@lru_cache(maxsize=64)
def parse_sheet(text: str, shown: str, shipped: bool = False) -> Sheet:
    """A sheet from its YAML, with the terms of the sheets that it includes. shown: the name for messages. shipped: the
    phrases are of the program's own, which tests check.
    """
    entry = load_entries(text, shown)
    faults: list[str] = []
    check_keys(entry, SHEET_KEYS, shown, faults)
    terms: list[Term] = []
    seen: set[str] = set()
    group = ""
    for item in entry.get("terms") or []:
        before = len(faults)
        check_keys(item, TERM_KEYS, shown, faults)
        if not isinstance(item, Entry):
            continue
        phrases = {key: _phrases(item, key, shown, shipped, faults) for key in PHRASE_KEYS}
        name = item.get("id") or (id_from(item["label"]) if isinstance(item.get("label"), str) else "")
        if name in seen:
            faults.append(f"{shown}, line {item.line}: the id {name!r} stands twice")
        seen.add(name)
        group = item.get("group", group)
        if isinstance(item.get("type"), str) and item.get("format") and not _format_fits(item["format"], item["type"]):
            faults.append(f"{shown}, line {item.line}, format: {item['format']!r} is no form for a {item['type']}")
        if len(faults) == before:
            terms.append(_term(item, name, group, phrases))
    own = {t.id for t in terms}
    included, left_out = texts(entry, "include"), texts(entry, "leave_out")
    for other in included:
        try:
            more = load_sheet(other)
        except PackError as error:
            faults.append(f"{shown}, line {entry.line}, include: {error}")
            continue
        if unknown := set(left_out) - {t.id for t in more.terms}:
            faults.append(
                f"{shown}, line {entry.line}, leave_out: {', '.join(sorted(unknown))} not in the sheet {other!r}"
            )
        terms += [t for t in more.terms if t.id not in seen and t.id not in left_out]
        seen.update(t.id for t in more.terms)
    known = {t.id for t in terms}
    faults += [
        f"{shown}, line {t.line}, detail_of: {t.detail_of!r} is no term of this sheet"
        for t in terms
        if t.id in own and t.detail_of and t.detail_of not in known
    ]
    if not faults and not terms:
        faults.append(f"{shown}, line {entry.line}: a sheet without terms; add at least one")
    if faults:
        raise PackError("\n".join(faults))
    return Sheet(
        entry["sheet"], entry["label"], texts(entry, "kinds"), tuple(terms), included, entry.get("particulars", "")
    )


def id_from(label: str) -> str:
    """A term's id made from its label: "Shelf life (vaccines)" -> "shelf_life_vaccines"."""
    return re.sub(r"\W+", "_", label.lower()).strip("_")


def label_phrase(label: str) -> str:
    """A label as a phrase: signs that mean something in the phrase language become blanks."""
    return " ".join(re.sub(r"[()\[\]|<>*]|\.\.\.", " ", label).split()).lower() or label


def _format_fits(form: str, kind: str) -> bool:
    if kind == "date":
        return "Y" in form
    return form in {"money": ("thousands", "millions", "whole"), "duration": ("months", "days", "years")}.get(kind, ())


@lru_cache(maxsize=1)
def shipped_sheets() -> tuple[str, ...]:
    """Names of the sheets that ship with the tool."""
    folder = files("yarnex") / "packs" / "sheets"
    return tuple(sorted(p.name.removesuffix(".yaml") for p in folder.iterdir() if p.name.endswith(".yaml")))


@lru_cache(maxsize=1)
def _sheet_by_kind() -> dict[str, str]:
    """The sheet for each kind of document, from the heads of the sheets alone: parsing them all would take long."""
    out: dict[str, str] = {}
    for name in shipped_sheets():
        text, _ = pack_text("sheets", name)
        head = re.search(r"^kinds: \[(.*)\]", text, re.MULTILINE)
        for kind in re.findall(r'"([^"]+)"', head[1]) if head else ():
            out[kind] = name
    return out


GENERAL = "agreement"  # for papers whose kind is not known
OTHER = "paper"  # for those of them that are no agreements


def sheet_for_kind(kind: str) -> str:
    """The name of the sheet for a kind of document."""
    return _sheet_by_kind().get(kind, GENERAL)


def _phrases(item: Entry, key: str, shown: str, shipped: bool, faults: list[str]) -> tuple[Phrase, ...]:
    out = []
    value: Any = item.get(key, [])
    for text in [value] if isinstance(value, str) else value:
        if not isinstance(text, str):
            continue
        try:
            out.append(compile_phrase(text, shipped))
        except PhraseError as error:
            faults.append(f"{shown}, line {item.line}, {key}: {error}")
    return tuple(out)


def _term(item: Entry, name: str, group: str, phrases: dict[str, tuple[Phrase, ...]]) -> Term:
    if not any(phrases[k] for k in ("names", "headings", "cues", "yes", "no")) and not item.get("compute"):
        phrases = phrases | {"names": (compile_phrase(label_phrase(item["label"])),)}  # a label is a name, too
    return Term(
        id=name, label=item["label"], group=group, type=item["type"],
        names=phrases["names"], headings=phrases["headings"], cues=phrases["cues"], excludes=phrases["not"],
        units=texts(item, "units"), yes=phrases["yes"], no=phrases["no"], items=item.get("items", "text"),
        compute=item.get("compute", ""), several=item.get("several", False), required=item.get("required", False),
        near=phrases["near"], by=item.get("by", ""), clause_cues=phrases["clause_cues"], requires=phrases["requires"], within=phrases["within"],
        value_says=phrases["value_says"], figure=texts(item, "figure"), asked=texts(item, "asked"), hint=item.get("hint", ""), show=item.get("format", ""),
        allowed=texts(item, "allowed"), line=item.line, detail_of=item.get("detail_of", ""),
    )  # fmt: skip
