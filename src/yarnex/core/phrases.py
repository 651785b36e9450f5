"""The small phrase language of sheets and rulebooks, turned into patterns.

    not less than <value> ... prior [written] notice (from|by) the tenant

Words match words, any case, over any white space and commas, with either kind of apostrophe. `...` is up to 120 characters of the
same sentence, `[...]` may be left out, `(a|b)` is one or the other, `word*` any ending, `<value>` the place of the
value that is looked for. "tenant" also means lessee and licensee, "landlord" lessor and licensor.
"""

from __future__ import annotations

import re
from functools import cached_property, lru_cache

from yarnex.core.patterns import compiled_as_before, pattern

SLOT = "<value>"
LEAD_END = r"\s*[\"“'‘(]?\s*"  # a value may stand in quotation marks or brackets
FOLLOW_START = r"[\"”'’),]*\s*\(?\s*"
_brackets = pattern(r"[()\[\]|]")
_token = pattern(r"\.\.\.|<value>|[()\[\]|]|\s+|[^\s()\[\]|]+?(?=\.\.\.|<value>|[()\[\]|\s]|\Z)")


class PhraseError(ValueError):
    """A phrase that does not follow the language."""


class Phrase:
    """A phrase; its patterns are made when first needed, as most phrases are ruled out by a word they need.

    shipped: it is of the program's own packs, which tests check; any other is checked at once.
    """

    def __init__(self, text: str, shipped: bool = False) -> None:
        self.text = text
        self.shipped = shipped
        self.has_slot = SLOT in text
        if not shipped and _brackets.search(text):
            self._sources  # noqa: B018 - mistakes are told when a sheet is read; only brackets can be wrong

    def __reduce__(self) -> tuple[object, tuple[str, bool]]:
        return compile_phrase, (self.text, self.shipped)  # its patterns are not sent to other processes

    @cached_property
    def needed(self) -> tuple[tuple[str, ...], ...]:
        """One word of each group stands in any text that matches, in lower case."""
        return _needs(self.text)

    @cached_property
    def _sources(self) -> tuple[str, str]:
        """The patterns of what stands before and after the slot."""
        before, _, after = self.text.partition(SLOT)
        lead = _source(before.rstrip()) + (r"\s*" if before.rstrip().endswith("...") else "")
        return lead, _source(after.lstrip())

    @property
    def _lead(self) -> str:
        return self._sources[0]

    @property
    def _follow(self) -> str:
        return self._sources[1]

    @cached_property
    def whole(self) -> re.Pattern[str]:
        """The pattern of a phrase without a slot."""
        return self._compiled(self._lead)

    @cached_property
    def lead(self) -> re.Pattern[str]:
        """What stands before the slot, anywhere."""
        return self._compiled(self._lead + LEAD_END)

    @cached_property
    def before(self) -> re.Pattern[str]:
        """What stands before the slot, at the end of a text."""
        return self._compiled(self._lead + LEAD_END + r"\Z")

    @cached_property
    def after(self) -> re.Pattern[str]:
        """What stands after the slot, at the start of a text."""
        return self._compiled(FOLLOW_START + self._follow)

    @cached_property
    def closing(self) -> re.Pattern[str] | None:
        """What stands after the slot, anywhere; None where nothing needs to."""
        return self._compiled(r"\s*,?\s*\(?\s*" + self._follow) if self._follow else None

    def _compiled(self, source: str) -> re.Pattern[str]:
        """The words of a user's own sheet are not kept for the next run."""
        return compiled_as_before(source, int(re.IGNORECASE)) if self.shipped else re.compile(source, re.IGNORECASE)

    def search(self, text: str) -> re.Match[str] | None:
        """Where a phrase without a slot stands in `text`."""
        return self.whole.search(text) if self._may(text) else None

    def match(self, text: str) -> re.Match[str] | None:
        """A phrase without a slot at the start of `text`."""
        return self.whole.match(text) if self._may(text) else None

    def fullmatch(self, text: str) -> re.Match[str] | None:
        """A phrase without a slot that is the whole of `text`."""
        return self.whole.fullmatch(text) if self._may(text) else None

    def may_stand_in(self, low: str) -> bool:
        """A quick first test on a text in lower case: False only where the phrase cannot match."""
        for group in self.needed:  # plain loops: this is asked millions of times
            for word in group:
                if word in low:
                    break
            else:
                return False
        return True

    def _may(self, text: str) -> bool:
        return not self.has_slot and self.may_stand_in(text.lower())


def _source(part: str) -> str:
    out: list[str] = []
    depth: list[str] = []
    if re.search(r"[A-Za-z][\[(]|[\])][A-Za-z]", part):
        raise PhraseError(f"a bracket inside a word in {part!r}: brackets stand for whole words")
    for m in _token.finditer(part):
        token = m.group()
        if token == "...":
            out.append(r"[^;]{0,120}?")
        elif token.isspace() and part[m.end() :].startswith("["):
            out.append(r"[\s,]*")  # what follows may be left out, and the space before it
        elif token.isspace() and part[m.end() :].startswith("..."):
            out.append(
                r"\)?:?[\s,]+" if out and not out[-1].endswith("{0,120}?") else r"\s*"
            )  # a bracket may close there, or a colon stand
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
            out.append(r")[\s,]*)?")
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
    return "".join(out).replace(r"[\s,]*)?[\s,]+", r"[\s,]*)?")


# What other drafting calls the two sides of a letting: a phrase that says one means them all.
ROLES = {
    "tenant": "(?:tenant|lessee|licensee|subtenant|sublessee)", "landlord": "(?:landlord|lessor|licensor|sublandlord|sublessor)",
    "tenant's": "(?:tenant|lessee|licensee|subtenant|sublessee)['’]s", "landlord's": "(?:landlord|lessor|licensor|sublandlord|sublessor)['’]s",
}  # fmt: skip


ROLE_WORDS = {"tenant": ("tenant", "lessee", "licensee"), "landlord": ("landlord", "lessor", "licensor")}


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


def _needs(text: str) -> tuple[tuple[str, ...], ...]:
    """What any text that matches must hold, in lower case: one of each group of words; longest words first."""
    groups: list[tuple[str, ...]] = []
    rest = re.sub(r"<value>|\.\.\.", " ", text)
    while re.search(r"\[[^\[\]]*\]", rest):
        rest = re.sub(r"\[[^\[\]]*\]", " ", rest)  # may be left out
    for m in re.finditer(r"\(([^()]*)\)|([^\s()]+)", rest):
        alternatives = m[1].split("|") if m[1] is not None else [m[2]]
        found: list[str] = []
        for alternative in alternatives:
            words = [w for w in alternative.split() if re.fullmatch(r"[A-Za-z]+\*?", w)]
            if not words:
                found = []
                break
            longest = max(words, key=len).rstrip("*").lower()
            found += ROLE_WORDS.get(longest, (longest,))
        if found:
            groups.append(tuple(found))
    depth_is_plain = "(" not in re.sub(r"\([^()]*\)", "", rest)
    return tuple(sorted(groups, key=lambda g: -min(map(len, g)))) if depth_is_plain else ()


@lru_cache(maxsize=8192)
def compile_phrase(text: str, shipped: bool = False) -> Phrase:
    """A phrase ready to match. Raises PhraseError with what is wrong in it; where it is of the program's own packs, once it
    is first used.
    """
    if not text.strip():
        raise PhraseError("an empty phrase")
    if text.count(SLOT) > 1:
        raise PhraseError(f"{SLOT} more than once in {text!r}")
    return Phrase(text, shipped)


def says(phrases: tuple[Phrase, ...], text: str) -> re.Match[str] | None:
    """The first match of any phrase without a slot in `text`."""
    low = text.lower()
    for phrase in phrases:
        if not phrase.has_slot and phrase.may_stand_in(low):
            m = phrase.whole.search(text)
            if m:
                return m
    return None
