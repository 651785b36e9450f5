"""The vocabulary of bills: kinds of charges, and labels of lines that are no charges."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts
from yarnex.core.patterns import pattern

KIND = {"kind": Field("text", True), "words": Field("texts", True)}


@dataclass(frozen=True, slots=True)
class CostVocabulary:
    kinds: tuple[tuple[str, re.Pattern[str]], ...]
    labels: dict[str, frozenset[str]]


@lru_cache(maxsize=1)
def cost_vocabulary() -> CostVocabulary:
    """The vocabulary that ships with the tool. Raises PackError for mistakes in it."""
    text, name = pack_text("vocabulary", "cost_kinds")
    entry = load_entries(text, name)
    faults: list[str] = []
    for item in entry.get("kinds", []):
        check_keys(item, KIND, name, faults)
    if faults:
        raise PackError("\n".join(faults))
    kinds = []
    for item in entry["kinds"]:
        if isinstance(item, Entry):
            forms = "|".join(re.escape(w).replace(r"\*", r"\w*").replace(r"\ ", r"\s+") for w in texts(item, "words"))
            kinds.append((item["kind"], re.compile(rf"\b(?:{forms})(?!\w)", re.IGNORECASE)))
    return CostVocabulary(
        tuple(kinds), {k: frozenset(texts(entry, k)) for k in ("subtotal", "total", "payment", "adjustment")}
    )


TAX = pattern(
    r"\A(?:plus\s+|add\s+)?(?:vat|gst|hst|pst|sales\s+tax|tax|iva|tva|mwst|btw)\b[^A-Za-z]*(?:at|@)?[^A-Za-z]*(?:%|per\s?cent)?\s*(?:on\s+[\d.,]+)?\Z",
    re.IGNORECASE,
)


def role_of(label: str) -> str:
    """What a line of a bill is, by its label: "charge" unless its words say otherwise.

    >>> role_of("GST 15%"), role_of("Total due"), role_of("Sub-total"), role_of("Labour, 3 hours")
    ('tax', 'total', 'subtotal', 'charge')
    """
    low = re.sub(r"\s+", " ", label.lower()).strip(" :.-–")
    bare = re.sub(r"\s*(?:\(.*?\)|[£$€]|nz\$|us\$|a\$|\b(?:gbp|eur|usd|nzd|aud)\b)\s*", " ", low).strip(" :.-–")
    if TAX.match(low):
        return "tax"
    labels = cost_vocabulary().labels
    for role in ("subtotal", "total", "payment", "adjustment"):
        if low in labels[role] or bare in labels[role]:
            return role
    if re.match(r"(?:grand\s+)?total\b", low) and len(low.split()) <= 5:
        return "subtotal" if re.search(r"\b(?:excl|ex|before|net)\b", low) else "total"
    if re.match(r"(?:less:?\s+)?(?:paid|payments?)\b", low):
        return "payment"
    return "adjustment" if re.match(r"(?:less|discount|credit|excess|rebate)\b", low) else "charge"


def kind_of_charge(words: str, role: str = "charge") -> str:
    """The kind of a charge by its words; "other" where none shows."""
    if role == "tax":
        return "tax"
    return next((kind for kind, form in cost_vocabulary().kinds if kind != "tax" and form.search(words)), "other")
