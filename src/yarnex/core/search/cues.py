"""What the words right around a value say of it: that it is the least or the most, a start or an end, the new or the old.

A question wants one or the other: "from when" wants a start, "to what is it limited" the most that is allowed. A value whose
own words say so fits it, one whose words say the opposite does not.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

from yarnex.core.document import Span
from yarnex.core.number_names import ORDINALS, UNITS
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import WORDS

SEEN = 48  # characters before a value in which such words stand
BEHIND = 48
FILLER = r"(?:\s*(?:a|an|the|that|of|about|approximately|around|some|sum|total|aggregate|equal|to|and including|on|£|€|\$|[\"“‘'(]|\d{1,2}(?:[.:]\d\d)?\s*(?:[ap]\.?m\.?|noon|midnight)\s+on))*\s*\Z"


@dataclass(frozen=True, slots=True)
class Cue:
    """One thing that a value can be. of: what it is one of. asked: words of a question that wants it. said, after: words
    right before and right behind a value that is it.
    """

    name: str
    of: str
    asked: re.Pattern[str]
    said: re.Pattern[str]
    after: re.Pattern[str] | None = None


def _cue(name: str, of: str, asked: str, said: str, after: str = "") -> Cue:
    return Cue(
        name,
        of,
        pattern(rf"\b(?:{asked})\b", re.IGNORECASE),
        pattern(rf"(?:{said}){FILLER}", re.IGNORECASE),
        pattern(rf"\s*\)?,?\s*(?:{after})", re.IGNORECASE) if after else None,
    )


CUES = (
    _cue(
        "least", "bound",
        r"least|minimum|min|how\s+small\s+may|lowest|smallest|fewest|shortest|floor|(?:not|no)\s+(?:be\s+)?(?:less|fewer|lower|under)|needed|below",
        r"\bat\s+least|\b(?:not|no)\s+(?:be\s+)?(?:less|fewer|lower|shorter|smaller)\s+than|\bmin(?:imum|\.|\b)|[≥>]=?|\b(?:less|fewer|lower)\s+than",
        r"or\s+(?:more|above|over|longer|higher)\b|minimum\b|at\s+(?:the\s+)?least\b",
    ),
    _cue(
        "most", "bound",
        r"most|maximum|max|greatest|highest|largest|longest|biggest|tallest|limited|cap|capped|ceiling|up\s+to|at\s+most|how\s+(?:much|large|big|long|high|heavy|loud|many)\s+(?:may|can)\b(?!.*\bnot\b)|(?:not|no)\s+more",
        r"\bup\s+to|\b(?:not|never|no|nor)\s+(?:be\s+|to\s+)?(?:run\s+)?(?:exceed(?:ing)?|more|over|longer|later|higher|larger|greater|taller)(?:\s+than)?|\bmax(?:imum|\.|\b)|\bat\s+most|\blimited\s+to|[≤<]=?|\bcapped\s+at|\bwithin",
        r"or\s+(?:less|below|under|fewer|shorter)\b|maximum\b|at\s+(?:the\s+)?most\b",
    ),
    _cue(
        "threshold", "step",
        r"above|over\s+what|from\s+(?:what|which)\s+(?:size|sum|amount|level|salary|value|price|pay|income|turnover)|beyond|threshold|exceeds?|more\s+than|larger\s+than|bigger\s+than|before\s+.*\b(?:claim|pay)",
        r"\b(?:above|exceed(?:s|ing|ed)?|more\s+than|over|in\s+excess\s+of|greater\s+than|beyond|larger\s+than)",
    ),
    _cue(
        "under", "under",
        r"(?:below|under|beneath)\s+(?:what|which)",
        r"(?:\b(?:below|under|beneath)|(?<!not\s)(?<!no\s)(?<!not be\s)(?<!nor\s)\b(?:less|lower|fewer)\s+than)",
    ),
    _cue(
        "limit", "step",
        r"most|maximum|max|cap|capped|ceiling|limited|at\s+most",
        r"\b(?:no|not|never)\s+(?:be\s+)?more\s+than|\bup\s+to\s+(?:a\s+maximum\s+of)?|\bnot\s+(?:to\s+)?exceed(?:ing)?|\bat\s+most|\bcapped\s+at|\bmax(?:imum)?(?:\s+of)?|\blimited\s+to",
    ),
    _cue(
        "start", "time",
        r"from\s+(?:when|what|which)|since\s+when|begins?|began|begun|starts?|started|commences?|commenced|commencement|opens?|opened",
        r"\b(?:from|since|beginning|commencing|starting|between|with\s+effect\s+from|effective|begins?|began|starts?|commences?|(?:commencement|start)\s+date(?:\s+(?:would\s+be|(?:shall|will)\s+be|is|was))?)(?:\s+(?:on|from|as\s+of))?:?",
    ),
    _cue(
        "end", "time",
        r"ends?|ended|expires?|expired|expiry|expiration|runs?\s+out|until|till|to\s+(?:what|which)\s+date|up\s+to\s+when|finish\w*|closes?|ceases?|lapses?|last\s+day|by\s+(?:when|what|which)|latest|deadline",
        r"(?:\b(?:to|until|till|through|up\s+to|(?:expir\w+|matur\w+|terminat\w+|end)\s+date\s+(?:would\s+(?:be|have\s+been)|(?:shall|will)\s+be|is|was)|expir\w+|matur\w+|terminat\w+|ends?|end\s+date|by|before|(?:no|not)\s+later\s+than)|–|—|(?<=\d)\s?-)(?:\s+on)?:?",
    ),
    _cue(
        "difference", "amount",
        r"by\s+how\s+(?:much|many)|by\s+what|how\s+(?:much|many)\s+(?:more|less|higher|lower|fewer)|how\s+much\s+did\s+.*\b(?:grow|rise|fall|increase|drop|change)|how\s+far\s+did|how\s+fast\s+(?:did|does|has|is)|growth\s+in|rate\s+of\s+growth"
        r"|margin|spread|over\s+(?:the\s+)?(?:sonia|euribor|libor|sofr|base|bank|prime|inflation)\b.*|above\s+(?:the\s+)?(?:base|bank|prime|inflation)",
        r"\bby|\b(?:plus|margin|up|down|rose|grew|fell|increased|decreased|ahead)|\+|\b(?:above|over)\s+(?:the\s+)?(?:\w+\s+){0,2}(?:rate|sonia|euribor|libor|sofr)\s+of",
    ),
    _cue(
        "each", "count",
        r"(?:of|for|does|is|do)\s+(?:one|a\s+single)\b(?!\s+of)|does\s+an?\s+(?:[\w-]+\s+){1,3}cost|(?:price|cost)\s+of\s+an?\s+[\w-]+|each(?!\s+(?:year|month|quarter|week|day))|apiece|unit\s+(?:price|cost|rate)|per\s+(?:unit|piece|item|head|set)",
        r"\b(?:unit\s+(?:price|cost|rate)|price\s+(?:each|per\s+(?:unit|piece|item))|each|apiece)\b(?:\s+(?:is|of))?:?",
        r"(?:(?:USD|EUR|GBP|[£$€])\s+)?(?:each|apiece|per\s+(?:unit|piece|item|set)|a\s+(?:piece|unit|set))\b(?!\s+(?:(?:each|every|per|a)\s+)?(?:year|month|quarter|week|day))",
    ),
    _cue(
        "for_all", "count",
        r"(?:was|were)\s+(?:charged|paid|billed|spent)\s+(?:for|on)|(?:come|comes|came)\s+to|for\s+all|all\s+(?:\w+\s+)?(?:together|of\s+them)|whole\s+(?:order|lot)|extended\s+(?:price|amount)",
        r"\b(?:extended(?:\s+(?:price|amount))?|line\s+total|total\s+price|price\s+for\s+(?:all|the\s+(?:whole|lot)|\w+))\b(?:\s+(?:is|of))?:?",
    ),
    _cue(
        "whole", "share",
        r"altogether|in\s+all|in\s+total|total|totals?|together|overall|combined|in\s+aggregate",
        r"\b(?:in\s+all|in\s+total|totall?ing|altogether|together|total|(?:that|which)\s+makes|combined)\b:?(?:\s+of)?",
        r"in\s+(?:all|total|aggregate)\b|altogether\b|(?:,?\s*subject\s+to\s+[\w ]{3,20}[\d.]*)?,?\s*(?:of\s+which|made\s+up\s+of|comprising|consisting\s+of)\b",
    ),
    _cue("part", "share", r"added|additional|extra|further", r"\b(?:additional|extra|further|added)"),
    _cue(
        "actual", "state",
        r"actual(?:ly)?|in\s+fact|achieved|reached|(?:what|how\s+many\s+times)\s+(?:was|were)\b(?!.*\b(?:least|most|lowest|highest|minimum|maximum|caps?|limits?|targets?|thresholds?|covenants?|required|allowed|agreed|promised|offered|asked|set|due|to\s+be)\b)",
        r"\b(?:actual(?:ly)?|achieved)\b:?",
    ),
    _cue("required", "state", r"required|covenants?|should|ought", r"\b(?:required|should\s+be|ought\s+to\s+be|covenant|limit|target|threshold|must\s+be|at\s+least|less\s+than|more\s+than|exceed)\b:?"),
    _cue(
        "earlier", "phase",
        r"(?:until|till|up\s+to|before|in|during)\s+(?:\d{1,2}\s+\w+\s+)?(?:19|20)\d\d|at\s+first|initially",
        r"\A\b\B",
        r"(?:until|till|up\s+to\s+(?:and\s+including\s+)?\d|before\s+\d)",
    ),
    _cue(
        "later", "phase",
        r"(?:after|from|since|beyond)\s+(?:\d{1,2}\s+\w+\s+)?(?:19|20)\d\d|thereafter|afterwards|later\s+on|after\s+that",
        r"\A\b\B",
        r"(?:\w+\s+){0,2}(?:thereafter|after\s+that|afterwards|from\s+then\s+on|after\s+this)\b",
    ),
    _cue(
        "opening", "balance",
        r"(?:before|prior\s+to|at\s+the\s+(?:start|beginning|outset)|opening|brought\s+forward)",
        r"\b(?:opening|brought\s+forward|b/f|at\s+(?:the\s+)?(?:start|beginning)|before)\b(?:\s+[\w-]+){0,3}",
    ),
    _cue(
        "closing", "balance",
        r"(?:after|following|at\s+the\s+end|closing|carried\s+forward|left|remain\w*|outstanding|still\s+(?:owed|owing|due|to\s+pay)|then\s+owed)",
        r"\b(?:closing|carried\s+forward|c/f|at\s+(?:the\s+)?end|after|outstanding|remaining)\b(?:\s+[\w-]+){0,3}",
    ),
)  # fmt: skip
KINDS = tuple(dict.fromkeys(cue.of for cue in CUES))
TIMES = ("date", "time")

# A text that changes another gives the old value and the new one.
OLD_ASKED = pattern(
    r"\b(?:was|were|did|original(?:ly)?|initial(?:ly)?|before|previous(?:ly)?|formerly|former|old|at\s+first|used\s+to|earlier|without\s+(?:the|this|that|any)\s+(?:amendment|variation|change|extension|supplement|side\s+letter)|but\s+for\s+(?:the|this|that)|when\s+.*\bsigned|had\s+been)\b",
    re.IGNORECASE,
)
NEW_ASKED = pattern(
    r"\b(?:now|new|today|current(?:ly)?|present(?:ly)?|latest|revised|amended|changed|raised|cut|reduced|increased|lowered|extended|replaced|became|become|nowadays|in\s+force|next|successor|succeeds?|incoming|takes?\s+over)\b",
    re.IGNORECASE,
)
NEW_SAID = pattern(
    rf"\b(?:(?:replaced|succeeded|followed)\s+(?:by|with)|replacing\s[^.;]{{1,60}}?\bwith|read(?:s)?(?:\s+as)?|(?:increased|reduced|raised|lowered|changed|amended|extended|cut)\b[^.;]{{0,40}}?\b(?:to|until|through(?:\s+and\s+including)?)|now|instead(?!\s+of)){FILLER}",
    re.IGNORECASE,
)
OLD_SAID = pattern(
    rf"\b(?:from|instead\s+of|in\s+place\s+of|replacing|previously|formerly|originally|was){FILLER}", re.IGNORECASE
)
TO_THE_NEW = pattern(r"[^.;]{0,50}?\bto\b")
OLD_BEHIND = pattern(
    r"\s+(?:(?:will|is\s+to|intends?\s+to|has)\s+)?(?:retire[sd]?|step(?:s|ped)?\s+down|stand(?:s|ing)?\s+down|stood\s+down|resign(?:s|ed)?|leaves?|left)\b|[\s\"”’')%]*[^.;]{0,50}?\b(?:is|are|be|was|were)\s+(?:deleted|replaced|substituted|changed|amended|increased|reduced)"
)
IF_NOT = pattern(
    r"\b(?:would|but\s+for|had\s+(?:it|there|the)\b|should\s+have|could\s+have|otherwise\s+have)\b", re.IGNORECASE
)

NAMED_THING = pattern(
    r"\b(?P<thing>items?|sections?|parts?|phases?|stages?|lots?|options?|years?|premises|suites?|units?|extensions?|schedules?|class|category|tiers?|levels?|groups?|tests?|samples?|sites?|instal?ments?|milestones?|invoices?|appendix|annex|exhibits?|bays?|priority|floors?|periods?|steps?|payments?|quarters?|months?|weeks?|rows?|tables?|questions?|criteri(?:on|a)|requirements?)\s+(?:no\.?\s+|number\s+)?(?P<number>\d{1,4}|[A-Z]\d?|[IVX]{1,4}|one|two|three|four|five|six|seven|eight|nine|ten)\b(?![.,]\d)",
    re.IGNORECASE,
)
ORDINAL_THING = pattern(
    rf"\b(?P<number>{'|'.join(ORDINALS)}|\d{{1,3}}(?:st|nd|rd|th))\s+(?:(?:lease|contract|policy|accounting|financial|further|successive|{'|'.join(UNITS)})\s+)?(?P<thing>[a-z]{{4,}}?)s?\b",
    re.IGNORECASE,
)
ROW_NUMBERS = pattern(
    r"\s*(?:[A-Za-z]+\s+){0,2}?(?P<first>\d{1,3})\b(?:\s*(?P<to>-|–|—|to|through|and|&)\s*(?P<last>\d{1,3})\b)?(?![.,/]\d)"
)
MORE_NUMBERS = pattern(r"(?:\s*(?:,|and|or|&)\s*(?P<number>\d{1,4}|[A-Z]\d?)\b)")


A_CASE = pattern(r"(?:and|but|so)\s+(?:on|for|if|when|where|with|in|at)\b(?!\s+(?:what|which|how)\b)", re.IGNORECASE)


@lru_cache(maxsize=64)
def cues_asked(question: str) -> frozenset[str]:
    """What a question wants a value to be, by the names of CUES."""
    found = frozenset(c.name for c in CUES if c.asked.search(question))
    if A_CASE.match(question):  # "and on sales above the threshold?"
        found -= {"threshold", "under", "limit", "most", "least"}
    return found - {"least"} if "threshold" in found else found  # "above what sum is consent needed"


def cues_said(text: str, value: Span, start: int, end: int) -> frozenset[str]:
    """What the words right around a value say that it is; start, end: the sentence or cell it stands in."""
    before = text[max(start, value.start - SEEN) : value.start]
    if (other := OR_ELSE.search(before)) is not None:  # "not less than twelve months, or nine for seed" bounds both
        before = text[max(start, value.start - SEEN - len(other.group())) : value.start - len(other.group())]
    behind = text[value.end : min(end, value.end + BEHIND)]
    said = {c.name for c in CUES if c.said.search(before) or (c.after is not None and c.after.match(behind))}
    if "threshold" in said and not IF_IT.search(text, max(start, value.start - FAR_BEFORE), value.start):
        said |= {"limit", "most"}  # "no fee above 3%": only as a condition, "if it is more than", it bounds nothing
    if "limit" in said:
        said.add("threshold")
    return frozenset(said)


_number = rf"(?:{WORDS}|\d[\d,.]*)"
OR_ELSE = pattern(
    rf"(?<=\s)[£$€]?{_number}(?:\s+\([^)]{{1,12}}\))?(?:\s?%|\s+[a-z]+(?:\s+[a-z]+)?)?,?\s+or\s+(?:[£$€]\s?)?\Z",
    re.IGNORECASE,
)
FAR_BEFORE = 90  # characters before a value in which its condition opens
IF_IT = pattern(r"\b(?:if|when|where|once|until|unless|exceeding\s+which)\b[^.;]*\Z", re.IGNORECASE)


def cue_fit(asked: frozenset[str], said: frozenset[str], kind: str) -> float:
    """How far what is asked for and what is said agree, -1 to 1. kind: that of the value; only days and times start or end."""
    fit = 0.0
    for of in KINDS:
        if of == "time" and kind not in TIMES:
            continue
        mine = {c.name for c in CUES if c.of == of}
        wanted, is_said = asked & mine, said & mine
        if wanted and is_said:
            fit += 1.0 if wanted & is_said else -1.0
    return max(-1.0, min(1.0, fit))


def change_fit(question: str, text: str, value: Span, start: int, end: int) -> float:
    """1 where a value is the new one of a change and the old one is not asked for, or the other way round; -1 where it is
    the wrong one of the two; 0 where nothing is said to change.
    """
    before = text[max(start, value.start - 90) : value.start]
    behind = text[value.end : min(end, value.end + 70)]
    new = bool(NEW_SAID.search(before))
    from_it = OLD_SAID.search(before) and TO_THE_NEW.match(behind)
    old = not new and bool(from_it or OLD_BEHIND.match(behind))
    if not new and not old:
        return 0.0
    return 1.0 if new is not wants_old(question) else -1.0


def wants_old(question: str) -> bool:
    """True for a question about what held before a change."""
    return bool(OLD_ASKED.search(question)) and not NEW_ASKED.search(question)


def if_not_fit(question: str, text: str, value: Span, start: int) -> float:
    """-1 where a value only would be, or would have been, and the question is about what is, or the other way round; 1
    where both speak of what would be.
    """
    before = text[max(start, value.start - 90) : value.start]
    said = bool(IF_NOT.search(before))
    asked = bool(IF_NOT.search(question)) or "without" in question.lower()
    return 1.0 if said and asked else -1.0 if said else 0.0


def numbered_fit(question: str, words: str, row: str = "") -> float:
    """1 where what a question names by number ("item 3", "the twentieth instalment") is so named in some words or is the
    number of the row; -1 where they name another of the same; else 0. row: its first cell.
    """
    asked = _numbered(question)
    if not asked:
        return 0.0
    fit = 0.0
    here = _numbered(words)
    m = ROW_NUMBERS.match(row) if row else None
    for thing, number in asked:
        same = {n for t, n in here if t == thing}
        if number in same:
            return 1.0
        if same:
            fit = -1.0
        if m is not None and number.isdigit():
            first = int(m["first"])
            if first <= int(number) <= max(first, int(m["last"] or first)):
                return 1.0
            fit = -1.0
    return fit


def counted_in(question: str, heads: str, row: str) -> bool:
    """True for a row that tells what a question counts, "the twentieth instalment": its label says so, or is no more than the
    number in a table with a column of that.

    heads: the heads of the table. row: the row's first cell.
    """
    asked = _numbered(question)
    if any(pair in asked for pair in _numbered(row)):
        return True
    bare = re.fullmatch(r"\W*(?:No\.?\s*)?(?P<number>\d{1,3})\W*", row)
    return bare is not None and any(
        number == bare["number"] and re.search(rf"\b{re.escape(thing)}s?\b", heads, re.IGNORECASE)
        for thing, number in asked
    )


def _numbered(words: str) -> list[tuple[str, str]]:
    """The things that some words name by number, as a word without its plural and the number in figures or capitals."""
    out = []
    for form in (NAMED_THING, ORDINAL_THING):
        for m in form.finditer(words):
            number = m["number"].lower()
            value = ORDINALS.get(number) or UNITS.get(number)
            number = str(value) if value is not None else re.sub(r"(?<=\d)(?:st|nd|rd|th)\Z", "", number).upper()
            thing = m["thing"].lower().rstrip("s")
            out.append((thing, number))
            at = m.end()
            while form is NAMED_THING and (more := MORE_NUMBERS.match(words, at)):
                out.append((thing, more["number"].upper()))
                at = more.end()
    return out
