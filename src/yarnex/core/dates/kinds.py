"""The vocabulary of dated items: kinds by their words, the words for a document's own date, names of days."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts

KIND = {"kind": Field("text", True), "label": Field("text", True), "words": Field("texts", True)}
ANCHOR = {"names": Field("texts", True), "terms": Field("texts", True)}


@dataclass(frozen=True, slots=True)
class DateVocabulary:
    kinds: tuple[tuple[str, re.Pattern[str]], ...]
    document_words: tuple[str, ...]
    anchors: tuple[tuple[str, tuple[str, ...]], ...]  # a name, longest first -> ids of terms


@lru_cache(maxsize=1)
def date_vocabulary() -> DateVocabulary:
    """The vocabulary that ships with the tool. Raises PackError for mistakes in it."""
    text, name = pack_text("vocabulary", "date_kinds")
    entry = load_entries(text, name)
    faults: list[str] = []
    for item in entry.get("kinds", []):
        check_keys(item, KIND, name, faults)
    for item in entry.get("anchors", []):
        check_keys(item, ANCHOR, name, faults)
    if faults:
        raise PackError("\n".join(faults))
    kinds = tuple((item["kind"], _pattern(texts(item, "words"))) for item in entry["kinds"] if isinstance(item, Entry))
    anchors = [(n, texts(item, "terms")) for item in entry["anchors"] for n in texts(item, "names")]
    return DateVocabulary(kinds, texts(entry, "document_words"), tuple(sorted(anchors, key=lambda a: -len(a[0]))))


def _pattern(words: tuple[str, ...]) -> re.Pattern[str]:
    forms = [re.escape(w).replace(r"\*", r"\w*").replace(r"\ ", r"\s+") for w in words]
    return re.compile(rf"\b(?:{'|'.join(forms)})\b", re.IGNORECASE)


def kind_of(words: str) -> str:
    """The kind that the words around a date show; "mention" where none does."""
    return next((kind for kind, form in date_vocabulary().kinds if form.search(words)), "mention")
