"""The small phrase language of sheets and rulebooks, turned into patterns.

    not less than <value> ... prior [written] notice (from|by) the tenant

Words match words, any case, over any white space and commas, with either kind of apostrophe. `...` is up to 120 characters of the
same sentence, `[...]` may be left out, `(a|b)` is one or the other, `word*` any ending, `<value>` the place of the
value that is looked for. "tenant" also means lessee and licensee, "landlord" lessor and licensor.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

SLOT = "<value>"
LEAD_END = r"\s*[\"“'‘(]?\s*\Z"  # a value may stand in quotation marks or brackets
FOLLOW_START = r"[\"”'’)]*\s*"
_token = re.compile(r"\.\.\.|<value>|[()\[\]|]|\s+|[^\s()\[\]|]+?(?=\.\.\.|<value>|[()\[\]|\s]|\Z)")


class PhraseError(ValueError):
    """A phrase that does not follow the language."""


@dataclass(frozen=True, slots=True)
class Phrase:
    """A compiled phrase. whole: for phrases without a slot; before and after: the two sides of the slot.

    key: a word that must stand in any text that matches (lower case), "" where there is none; a quick first test.
    """

    text: str
    whole: re.Pattern[str] | None
    before: re.Pattern[str] | None
    after: re.Pattern[str] | None
    key: str

    @property
    def has_slot(self) -> bool:
        return self.before is not None


def _source(part: str) -> str:
    out: list[str] = []
    depth: list[str] = []
    if re.search(r"[A-Za-z][\[(]|[\])][A-Za-z]", part):
        raise PhraseError(f"a bracket inside a word in {part!r}: brackets stand for whole words")
    for m in _token.finditer(part):
        token = m.group()
        if token == "...":
            out.append(r"[^;]{0,120}?")
        elif token.isspace():
            out.append(r"[\s,]+" if out and not out[-1].endswith("{0,120}?") else r"\s*")
        elif token == "[":
            depth.append("[")
            out.append("(?:(?:")
        elif token == "(":
            depth.append("(")
            out.append("(?:")
        elif token == "]":
            if not depth or depth.pop() != "[":
                raise PhraseError(f"] without [ in {part!r}")
            out.append(r")\s*)?")
        elif token == ")":
            if not depth or depth.pop() != "(":
                raise PhraseError(f") without ( in {part!r}")
            out.append(")")
        elif token == "|":
            if not depth:
                raise PhraseError(f"| outside brackets in {part!r}")
            out.append("|")
        else:
            out.append(_word(token))
    if depth:
        raise PhraseError(f"a bracket is left open in {part!r}")
    return "".join(out).replace(r"\s*)?[\s,]+", r"\s*)?")


# What other drafting calls the two sides of a letting: a phrase that says one means them all.
ROLES = {
    "tenant": "(?:tenant|lessee|licensee|subtenant|sublessee)", "landlord": "(?:landlord|lessor|licensor|sublandlord|sublessor)",
    "tenant's": "(?:tenant|lessee|licensee|subtenant|sublessee)['’]s", "landlord's": "(?:landlord|lessor|licensor|sublandlord|sublessor)['’]s",
}  # fmt: skip


def _word(token: str) -> str:
    if token.lower() in ROLES:
        return rf"\b{ROLES[token.lower()]}\b"
    open_end = token.endswith("*")
    bare = token.rstrip("*")
    source = re.escape(bare).replace("'", "['’]").replace('"', '["“”]')
    source = source.replace(r"\-", "[-–—]")
    head = r"\b" if bare[:1].isalnum() else ""
    tail = r"[\w'’-]*" if open_end else (r"\b" if bare[-1:].isalnum() else "")
    return head + source + tail


def _key(text: str) -> str:
    """The longest word outside brackets."""
    outside = re.sub(r"\([^()]*\)|\[[^\[\]]*\]|<value>|\.\.\.", " ", text)
    words = [
        w.rstrip("*").lower() for w in outside.split() if re.fullmatch(r"[A-Za-z]+\*?", w) and w.lower() not in ROLES
    ]
    return max(words, key=len, default="")


@lru_cache(maxsize=8192)
def compile_phrase(text: str) -> Phrase:
    """A phrase ready to match. Raises PhraseError with what is wrong in it."""
    if not text.strip():
        raise PhraseError("an empty phrase")
    if text.count(SLOT) > 1:
        raise PhraseError(f"{SLOT} more than once in {text!r}")
    if SLOT in text:
        before, after = text.split(SLOT)
        lead = _source(before.rstrip())
        if before.rstrip().endswith("..."):
            lead += r"\s*"
        follow = _source(after.lstrip())
        return Phrase(
            text,
            None,
            re.compile(lead + LEAD_END, re.IGNORECASE),
            re.compile(FOLLOW_START + follow, re.IGNORECASE),
            _key(text),
        )
    return Phrase(text, re.compile(_source(text), re.IGNORECASE), None, None, _key(text))


def says(phrases: tuple[Phrase, ...], text: str) -> re.Match[str] | None:
    """The first match of any phrase without a slot in `text`."""
    low = text.lower()
    for phrase in phrases:
        if phrase.whole is not None and (not phrase.key or phrase.key in low):
            m = phrase.whole.search(text)
            if m:
                return m
    return None
