"""Yes or no: what the words of a line or a term say to a question that asks for one.

In: the question and the words that answer it. Out: a `YesNo`. A denial makes it no, but where the question asks for what the
words except, or denies it itself.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

from yarnex.core.patterns import pattern
from yarnex.core.search.opposites import contrary
from yarnex.core.search.question import Question
from yarnex.core.terms.by_words import Idea, telling_words
from yarnex.core.terms.lines import Line
from yarnex.core.terms.passages import Passages
from yarnex.core.values import YesNo
from yarnex.core.values.ticks import ticked_answer
from yarnex.core.words import stems_of

YES = pattern(
    r"(?:[\w .'’-]{2,40}:\s+)?(?P<yes>yes|yeah|yep|correct|that['’]s right|i did|we did|i was|it was)\b|(?:[\w .'’-]{2,40}:\s+)?(?P<no>no|nope|never)\b(?!\.\s?\d|\s+(?:later|less|more))",
    re.IGNORECASE,
)
# In a conversation the one who is asked tells of his own deeds: "I didn't go down at two".
DENIES = pattern(
    r"(?:\A|[.!?:,]\s+)(?:no,\s+)?(?:i|we)\s+(?:did\s+not|didn['’]t|do\s+not|don['’]t|have\s+not|haven['’]t|was\s+not|wasn['’]t|never)\b",
    re.IGNORECASE,
)
NO = pattern(
    r"\b(?:not(?!\s+(?:less|more|later|earlier|fewer|exceed\w*|only|unreasonabl\w+|limited\s+to|be\s+unreasonabl\w+))|no(?!\s+(?:later|less|more|fewer))|never|none|neither|nor|cannot|[a-z]+n['’]t|nothing|nobody|excluded|excludes|prohibited|refused?|unable|rul(?:e[sd]?|ing)\s+out|den(?:y|ies|ied)|(?:outside|beyond)\s+(?:of\s+)?(?:the|its)\s+scope|falls?\s+outside|out\s+of\s+scope|waive[sd]?|(?:by|for)\s+others\b|non-\w+)\b",
    re.IGNORECASE,
)
UNCONDITIONAL = pattern(
    r"\b(?:automatic(?:ally)?|freely|unconditional(?:ly)?|as\s+of\s+right|outright|at\s+will|without\s+(?:first\s+)?(?:asking|any(?:one|body)['’]?s?\b|consent|permission|approval|leave\b|conditions?))",
    re.IGNORECASE,
)
NEEDS_LEAVE = pattern(
    r"\b(?:need|needs|needed|require[sd]?|must\b.*\b(?:ask|get|obtain|have))\b.*\b(?:permission|consent|approval|leave|ask)\b|\b(?:is|are)\b.*\b(?:permission|consent|approval|leave)\s+(?:needed|required)\b",
    re.IGNORECASE,
)
WITHOUT_LEAVE = pattern(
    r"\bwithout\s+(?:(?:the|any|its|his|her|our|your|their|prior|first|written|landlord['’]s|further)\s+)*(?:\w+['’]s?\s+)?(?:consent|permission|approval|leave|asking)\b",
    re.IGNORECASE,
)
ONLY_IF = pattern(
    r"\bonly\s+(?:if|with|where|when|after|once)\b|\bunless\b|(?<!not\s)\bsubject\s+to\b|\bprovided\s+that\b|\bwith\s+(?:the\s+)?(?:prior\s+)?(?:written\s+)?consent\b",
    re.IGNORECASE,
)
PERSONAL = pattern(r"\bpersonal\s+to\b", re.IGNORECASE)
OF_OTHERS = pattern(
    r"\b(?:assignees?|successors?|buyers?|purchasers?|transferees?|anyone|anybody|others?|another|sub-?tenants?|heirs?|new\s+(?:owner|tenant))\b",
    re.IGNORECASE,
)
# Headings and lead-ins under which stands what is left out, and cells that say so of their row.
LEAVES_OUT = pattern(
    r"\b(?:exclusions?|excluded|excludes|excluding|exceptions?|prohibit\w*|forbidden|(?:is|are|do|does|will|shall|may|must|can)\s+not|cannot|won['’]t|don['’]t|doesn['’]t|not\s+(?:covered|insured|included|permitted|allowed|paid|payable|part\b))",
    re.IGNORECASE,
)
SAYS_NO = pattern(
    r"(?:not\s+(?:insured|covered|included|applicable|available|provided|permitted|allowed|required|payable)|uninsured|excluded|excl\.?|no|none|nil|n/?a|without|[✗✘×☐])\.?",
    re.IGNORECASE,
)
SAYS_YES = pattern(
    r"(?:yes|insured|covered|included|incl\.?|applicable|available|provided|permitted|allowed|[✓✔☒☑])\.?", re.IGNORECASE
)
DEED = pattern(r"\b(?:is|are|was|were|shall|will|must|may|can|has|have|does|do)\b", re.IGNORECASE)
CASE = pattern(r"\b(?:where|if|when|in\s+case)\b(?P<case>.+)", re.IGNORECASE)
EXCEPT = pattern(r"\b(?:except|unless|save|other\s+than|apart\s+from)\b(?P<rest>[^.;]+)", re.IGNORECASE)
PART_ENDS = pattern(r"[,;:]\s")
BARE_ITEM, MOST_ITEMS = 120, 15  # letters of an item that is no sentence; items of a list
MOST_OF_CASE = 0.6  # share of the words of a case that must stand in the exception


OF_LEAVE = pattern(
    r"(?:and\s+|but\s+|so\s+)?(?:(?:may|can|could)\b|(?:is|are)\b.*\b(?:allowed|permitted|free|entitled)\b)",
    re.IGNORECASE,
)
ALLOWS = pattern(r"\b(?:may|can|is\s+free\s+to|is\s+entitled\s+to|are\s+allowed)\b(?!\s+not)", re.IGNORECASE)
EXCEPT_FOR = pattern(
    r"\b(?:except|save|other\s+than|apart\s+from|but\s+(?=(?:the|a|an|either|it|he|she|they|you|we)\b[^.;]*\bmay\b))\b(?P<rest>[^.;]+)",
    re.IGNORECASE,
)


def decided_by_exception(question: Question, sentence: str) -> YesNo | None:
    """What a sentence says to a question about just what it excepts: "neither may assign, except that the Buyer may to its
    lenders"; None where the question asks for nothing that only the exception names.
    """
    exception = EXCEPT_FOR.search(sentence)
    if exception is None or len(question.ideas) < 2 or not OF_LEAVE.match(question.text):
        return None
    rule, rest = frozenset(stems_of(sentence[: exception.start()])), frozenset(stems_of(exception["rest"]))

    def says(stems: frozenset[str], idea: Idea) -> bool:
        return any(worth >= IN_WORDS and stems.issuperset(way) for way, worth in idea.ways)

    only_there = [i for i in question.ideas if i.weight >= 1.0 and says(rest, i) and not says(rule, i)]
    if not only_there:
        return None
    asks_no = bool(NO.search(question.text))
    if ALLOWS.search(exception["rest"]):
        return YesNo((len(NO.findall(exception["rest"])) % 2 == 0) is not asks_no)
    denied = len(NO.findall(sentence[: exception.start()])) % 2 == 1
    return YesNo(denied is not asks_no)


IN_WORDS = 0.7  # what a way to name a thing must be worth


def decided_by_term(question: Question, words: str) -> YesNo:
    """What a term's words say to a question: that they stand there is a yes, unless they deny it."""
    opening = words[:160]
    if contrary(question.text, opening) and not NO.search(opening):  # "is VAT included": "plus VAT"
        return YesNo(bool(NO.search(question.text)))
    if PERSONAL.search(opening) or _is_excepted(question.text, words) or UNCONDITIONAL.search(question.text):
        return _decided(question, words, opening)
    return YesNo(not NO.search(opening) or bool(NO.search(question.text)))


def yes_or_no(passages: Passages, line: Line, question: Question) -> YesNo:
    """Yes, unless the clause that answers denies it, or the question does, or it holds only on a condition."""
    places = [p for idea in question.ideas for way, _ in idea.ways for w in way for p in line.own.get(w, ())]
    if (ticked := ticked_answer(line.values.of(passages.text))) is not None:
        return YesNo(ticked is not bool(NO.search(question.text)))
    plain = YES.match(text := passages.text, line.values.start, line.values.end)
    if plain is not None and (plain["no"] or passages.document.marks):
        return YesNo((plain["yes"] is not None) is not bool(NO.search(question.text)))
    if (excepted := decided_by_exception(question, line.values.of(text))) is not None:
        return excepted
    if (only := ONLY_THESE.search(line.values.of(text))) is not None and _not_among(question, only):
        return YesNo(bool(NO.search(question.text)))
    if _is_left_out(passages, line):
        return YesNo(bool(LEAVES_OUT.search(question.text)))
    if (contrast := BUT_NOT.search(text, line.values.start, line.values.end)) is not None and places:
        behind = (
            max(_surest(question, line)) >= contrast.start()
        )  # "includes water but not gas": which of them is asked after
        if behind or not NO.search(text, line.values.start, contrast.start()):
            return YesNo((not behind) is not bool(NO.search(question.text)))
    middle = sum(places) // len(places) if places else line.values.start
    start = max(line.values.start, middle - 120)
    near = text[start : min(line.values.end, middle + 120)]
    if contrary(question.text, near) and not NO.search(near):
        return YesNo(bool(NO.search(question.text)))
    if not NO.search(near) and _stands_behind_without(question, text, line):
        return YesNo(bool(NO.search(question.text)))
    if (
        len(NO.findall(near)) > 1
    ):  # "as it cannot be told, nothing is set aside": only what denies the deed itself counts
        near = _part_with_most(text, start, min(line.values.end, middle + 120), places)
    return _decided(question, line.values.of(text), near)


# "It shall be returned, without interest": what is asked after stands behind the word.
WITHOUT = pattern(
    r"\b(?:without|free\s+(?:of|from)|(?<!not\s)exempt\s+from)\s+(?:(?:any|the|further|extra|prior|paying)\s+)*\Z",
    re.IGNORECASE,
)


def _stands_behind_without(question: Question, text: str, line: Line) -> bool:
    """True where a line names what is asked after only to say that it is without it."""
    if WITHOUT_LEAVE.search(question.text) or re.search(r"\bwithout\b|\bfree\b", question.text, re.IGNORECASE):
        return False
    named = _surest(question, line)
    return any(WITHOUT.search(text, max(line.values.start, at - 32), at) for at in named)


def _surest(question: Question, line: Line) -> list[int]:
    """Where the ideas of a question are named in a line, each by the surest of its ways that stand there."""
    out: list[int] = []
    for idea in question.ideas:
        said = [(worth, way) for way, worth in idea.ways if any(w in line.own for w in way)]
        top = max((worth for worth, _ in said), default=0.0)
        out += [p for worth, way in said if worth == top for w in way for p in line.own.get(w, ())]
    return out


BUT_NOT = pattern(
    r",?\s+but\s+not\s+(?!more|less|later|earlier|only|to\b|if|until|unless|where|when|before|after|for\b|so\b)(?=[a-z])"
)
# "Only the points on costs and law are binding."
ONLY_THESE = pattern(
    r"\bonly\s+(?!(?:if|with|where|when|after|once|while|until|as|to|for|by|in|on|at|because)\b)(?P<these>[^.;:]{3,160}?)\s+(?:is|are|was|were|shall\s+be|will\s+be|may|can|must)\s+(?P<so>[^.;]{3,80})",
    re.IGNORECASE,
)


def _not_among(question: Question, only: re.Match[str]) -> bool:
    """True where a question asks of something whether it is what only other things are."""
    these, so = frozenset(stems_of(only["these"])), frozenset(stems_of(only["so"]))

    def says(stems: frozenset[str], idea: Idea) -> bool:
        return any(worth >= IN_WORDS and stems.issuperset(way) for way, worth in idea.ways)

    told = [i for i in question.ideas if says(so, i)]
    asked = [i for i in question.ideas if i not in told and i.weight >= 1.0]
    return bool(told) and bool(asked) and not any(says(these, i) for i in asked)


def _is_left_out(passages: Passages, line: Line) -> bool:
    """True for what a row calls "not covered", and for a bare item of a list that tells what is not."""
    document, words = passages.document, line.values.of(passages.text)
    if line.kind == "cell":
        found = document.cell_at(line.values)
        row = found[0].row_cells(found[1].row) if found is not None else ()
        said = [c.span.of(passages.text).strip() for c in row]
        return any(map(SAYS_NO.fullmatch, said)) and not any(
            map(SAYS_YES.fullmatch, said)
        )  # else several things in a row
    block = document.blocks[line.block]
    if block.kind not in ("item", "paragraph") or len(words) > BARE_ITEM or DEED.search(words) or NO.search(words):
        return False
    heading = document.sections[block.section].heading if block.section >= 0 else ""
    if LEAVES_OUT.search(heading):
        return True
    for before in reversed(document.blocks[max(0, line.block - MOST_ITEMS) : line.block]):
        lead = before.span.of(passages.text).rstrip()
        if lead.endswith(":"):
            return LEAVES_OUT.search(lead[-BARE_ITEM:]) is not None
        if before.kind not in ("item", "paragraph") or len(lead) > BARE_ITEM or lead.endswith("."):
            return False
    return False


def _part_with_most(text: str, start: int, end: int, places: Sequence[int]) -> str:
    """The part of a stretch, between commas and the like, in which most of some places stand; the last of them that has as many."""
    ends = [m.start() for m in PART_ENDS.finditer(text, start, end)]
    parts = list(zip([start, *ends], [*ends, end], strict=True))
    first, last = max(reversed(parts), key=lambda p: sum(p[0] <= at < p[1] for at in places))
    return text[first:last]


def _decided(question: Question, words: str, near: str) -> YesNo:
    """What some words say to a question: a denial makes it no, but where it asks for what they except, or denies it itself.

    "Automatically" is denied by "only if"; "may another use it" by "personal to". near: the part of the words to read.
    """
    if UNCONDITIONAL.search(question.text) and ONLY_IF.search(words):
        return YesNo(False)
    if NEEDS_LEAVE.search(question.text) and (free := WITHOUT_LEAVE.search(words)) is not None:
        return YesNo(len(NO.findall(words[: free.start()])) % 2 == 1)  # "may not ... without consent" needs it
    denied = len(NO.findall(near)) % 2 == 1
    if PERSONAL.search(near) and not PERSONAL.search(question.text) and OF_OTHERS.search(question.text):
        denied = True
    return YesNo((denied is not _is_excepted(question.text, words)) is bool(NO.search(question.text)))


def _is_excepted(question: str, words: str) -> bool:
    """True where the case that a question puts is the one that some words except: "where the law requires it"."""
    case, exception = CASE.search(question), EXCEPT.search(words)
    if case is None or exception is None:
        return False
    put = [t.stem for t in telling_words(case["case"])]
    said = frozenset(stems_of(exception["rest"]))
    return bool(put) and sum(w in said for w in put) >= MOST_OF_CASE * len(put)
