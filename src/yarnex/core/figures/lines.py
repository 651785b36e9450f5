"""Standard lines of accounts: which one a label is, and which ones a person means by a name."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.patterns import pattern
from yarnex.core.words import stems_of

ITEM = {
    "id": Field("text", True), "label": Field("text", True), "nature": Field("text", True, ("flow", "stock", "share", "ratio", "count")),
    "statement": Field("text", True), "names": Field("texts", True), "within": Field("texts"), "without": Field("texts"),
}  # fmt: skip
NAMED = {"statement": Field("text"), "basis": Field("text"), "names": Field("texts", True)}


@dataclass(frozen=True, slots=True)
class Line:
    """A standard line. within: headings of which one must stand over a label that alone could be another line."""

    id: str
    label: str
    nature: str
    statement: str
    names: tuple[str, ...]
    within: tuple[str, ...] = ()
    without: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Vocabulary:
    lines: dict[str, Line]
    by_name: dict[str, tuple[Line, ...]]
    statements: tuple[tuple[str, str], ...]  # words of a heading -> statement, longest first
    bases: tuple[tuple[str, str], ...]


# "Earnings per share, NOK"
UNIT_BEHIND = pattern(
    r",\s*(?:eur|usd|gbp|nok|sek|dkk|isk|chf|pln|czk|huf|inr|aud|nzd|cad|jpy|cny|hkd|sgd|zar|brl|mxn|aed|[£$€]|p|pence|cents|%)(?:\s?(?:m|bn|million|thousand|000))?\Z"
)


def plain_label(label: str) -> str:
    """A label without case, note marks, and the words that say nothing of what it is.

    >>> plain_label("Net debt¹ at period end")
    'net debt at period end'
    """
    words = label.lower().replace("’", "'").replace("–", "-").replace("—", "-").replace("‑", "-")
    words = re.sub(r"[¹²³⁴⁵⁶⁷⁸⁹⁰*†‡§]+", "", words)
    words = (
        re.sub(r"(?<=\w)\s*\([^()]*\)\s*\Z", "", words.strip()) if not re.search(r"current\)\s*\Z", words) else words
    )
    words = re.sub(r"\A(?:less|add|plus|of which)\s*:\s*", "", words)
    words = UNIT_BEHIND.sub("", words)
    return re.sub(r"\s+", " ", words).strip(" .:;,-")


@lru_cache(maxsize=4096)
def name_key(label: str) -> str:
    """A form in which the same name in singular, plural or other spelling is the same."""
    return " ".join(stems_of(re.sub(r"[^\w&]+", " ", plain_label(label))))


@lru_cache(maxsize=1)
def line_vocabulary() -> Vocabulary:
    """The lines and headings that ship with the tool. Raises PackError for mistakes in the file."""
    text, name = pack_text("vocabulary", "line_items")
    entry = load_entries(text, name)
    faults: list[str] = []
    lines: dict[str, Line] = {}
    for item in entry.get("items", []):
        check_keys(item, ITEM, name, faults)
        if isinstance(item, Entry) and not faults:
            lines[item["id"]] = Line(
                item["id"], item["label"], item["nature"], item["statement"], texts(item, "names"),
                tuple(map(name_key, texts(item, "within"))), tuple(map(name_key, texts(item, "without"))),
            )  # fmt: skip
    named: dict[str, list[tuple[str, str]]] = {"statements": [], "bases": []}
    for part, key in (("statements", "statement"), ("bases", "basis")):
        for item in entry.get(part, []):
            check_keys(item, NAMED, name, faults)
            named[part] += [(words.lower(), item[key]) for words in texts(item, "names")] if not faults else []
    if faults:
        raise PackError("\n".join(faults))
    by_name: dict[str, list[Line]] = {}
    for line in lines.values():
        for words in (*line.names, line.label):
            held = by_name.setdefault(name_key(words), [])
            if line not in held:
                held.append(line)
    for pairs in named.values():
        pairs.sort(key=lambda p: -len(p[0]))
    return Vocabulary(
        lines, {k: tuple(v) for k, v in by_name.items()}, tuple(named["statements"]), tuple(named["bases"])
    )


CONTEXT_ONLY = frozenset(map(name_key, ["basic", "diluted", "owners of the company", "owners of the parent", "basic earnings", "diluted earnings",
    "equity holders of the parent", "equity holders of the company", "shareholders of the company", "non-controlling interest",
    "non-controlling interests", "minority interest", "minority interests"]))  # fmt: skip  # names that need their heading


def _stands_under(line: Line, over: Sequence[str]) -> bool:
    """True where one of the line's own headings stands over it; "current" is not found inside "non-current"."""
    return any(head == o or (head in o and "current" not in head) for head in line.within for o in over)


def line_of(label: str, path: Sequence[str] = ()) -> Line | None:
    """The standard line that a label is, told by the headings over it where the label alone leaves it open."""
    key = name_key(label)
    found = line_vocabulary().by_name.get(key, ())
    over = [name_key(p) for p in path]
    headed = [line for line in found if line.within and _stands_under(line, over)]
    alone = [line for line in found if not line.within and not any(head in over for head in line.without)]
    left = [line for line in found if line.within] if key not in CONTEXT_ONLY else []
    return next(iter([*headed, *alone, *left]), None)


def lines_meant(name: str) -> tuple[Line, ...]:
    """The standard lines that a person may mean by a name; the more exact first. Empty where none is known."""
    vocabulary = line_vocabulary()
    exact = vocabulary.by_name.get(name_key(name), ())
    if exact:
        more = {
            "eps_basic": ("eps_diluted",),
            "profit": ("profit_owners",),
            "capex": ("ppe_purchases",),
            "borrowings": ("borrowings_current", "borrowings_noncurrent"),
        }
        extra = [
            vocabulary.lines[i] for line in exact[:1] for i in more.get(line.id, ()) if vocabulary.lines[i] not in exact
        ]
        return (*exact, *extra)
    return ()


def unit_fits(line: Line, unit: str) -> bool:
    """False where a number's unit shows that it cannot be the line that its label names."""
    money = len(unit) == 3 and unit.isupper()
    if line.nature in ("flow", "stock"):
        return money or unit == ""
    if line.nature == "share":
        return money or unit in ("pence", "cents", "")
    if line.nature == "ratio":
        return unit in ("percent", "times", "")
    return not money and unit != "percent"
