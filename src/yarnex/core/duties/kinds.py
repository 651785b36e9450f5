"""The vocabulary of duties."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.errors import PackError
from yarnex.core.packs import Entry, Field, check_keys, load_entries, pack_text, texts

KIND = {"kind": Field("text", True), "words": Field("texts", True)}
SPEAKER = {"kind": Field("text", True), "we": Field("text", True), "you": Field("text", True)}


@dataclass(frozen=True, slots=True)
class DutyVocabulary:
    kinds: tuple[tuple[str, re.Pattern[str]], ...]
    no_duty: re.Pattern[str]
    lead_ins: re.Pattern[str]
    speakers: dict[str, tuple[str, str]]  # kind of paper -> (we, you)


@lru_cache(maxsize=1)
def duty_vocabulary() -> DutyVocabulary:
    """The vocabulary that ships with the tool. Raises PackError for mistakes in it."""
    text, name = pack_text("vocabulary", "duties")
    entry = load_entries(text, name)
    faults: list[str] = []
    for part, shape in (("kinds", KIND), ("speakers", SPEAKER)):
        for item in entry.get(part, []):
            check_keys(item, shape, name, faults)
    if faults:
        raise PackError("\n".join(faults))
    kinds = tuple((i["kind"], _words(texts(i, "words"))) for i in entry["kinds"] if isinstance(i, Entry))
    speakers = {i["kind"]: (i["we"], i["you"]) for i in entry["speakers"] if isinstance(i, Entry)}
    return DutyVocabulary(
        kinds,
        re.compile(rf"\A(?:{'|'.join(map(_form, texts(entry, 'no_duty')))})\b", re.IGNORECASE),
        _words(texts(entry, "lead_ins")),
        speakers,
    )


def _form(phrase: str) -> str:
    return re.escape(phrase).replace(r"\*", r"\w*").replace(r"\?", ".").replace(r"\ ", r"\s+")


def _words(phrases: tuple[str, ...]) -> re.Pattern[str]:
    return re.compile(rf"\b(?:{'|'.join(map(_form, phrases))})(?!\w)", re.IGNORECASE)


def kind_of_duty(words: str, force: str) -> str:
    """The kind that the words of a duty show; "other" where none does."""
    if force == "must_not" and not re.search(r"\b(?:disclos|confidential)", words, re.IGNORECASE):
        return "restriction"
    return next((kind for kind, form in duty_vocabulary().kinds if form.search(words)), "other")
