"""Who speaks in a transcript that is written as paragraphs: "00:14 Ada Thorne: Good morning.", "Ada Thorne (chair): ..."."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.paragraphs import Draft

TURN = pattern(
    r"(?P<open>[\[(]?)(?P<clock>\d{1,2}:\d{2}(?::\d{2})?)(?:[.,]\d{1,3})?[\])]?\s*[-–—]?\s*(?P<who>[A-Z][\w.'’ -]{1,48}?)\s*[:–—-]\s"
)


# "Ada Thorne (chair): Good morning."
NAMED_TURN = pattern(
    r"(?P<who>(?:(?:Mr|Mrs|Ms|Dr)\.? )?[A-Z][\w.'’-]+(?: [A-Z][\w.'’-]*){0,3}|[A-Z][A-Z.'’-]+(?: [A-Z.'’-]+){0,3}|Speaker \d+)(?:\s*\([^()]{2,60}\)|, [\w ,&-]{2,60})?:\s+(?=\S)"
)
TURNS, AGAIN = 5, 2  # named turns that make a transcript; speakers who speak more than once
SHARE = 0.4  # of the paragraphs that must be turns


def _named_turns(drafts: Sequence[Draft]) -> list[tuple[Draft, str]]:
    """Paragraphs that open with a speaker's name, where enough do and the same names come again: labels of a form do not."""
    paragraphs = [d for d in drafts if d.kind == "paragraph"]
    turns = [(d, m["who"]) for d in paragraphs if (m := NAMED_TURN.match(d.text))]
    times = Counter(who for _, who in turns)
    again = [who for who, count in times.items() if count > 1]
    if len(turns) < max(TURNS, SHARE * len(paragraphs)) or len(again) < AGAIN or len(times) > 0.7 * len(turns):
        return []
    return turns


def mark_turns(drafts: Sequence[Draft]) -> None:
    """Paragraphs that open with a name, as transcripts do, know their speaker; with a clock time before it, their time too."""
    if any(kind == "speaker" for draft in drafts for _, _, kind, _ in draft.marks):
        return  # the file tells them
    turns = [(d, m) for d in drafts if d.kind == "paragraph" and (m := TURN.match(d.text))]
    if len(turns) < 3:
        for draft, who in _named_turns(drafts):
            draft.marks.append((0, len(draft.text), "speaker", who))
        return
    for draft, m in turns:
        parts = m["clock"].split(":")
        seconds = sum(int(p) * 60**i for i, p in enumerate(reversed(parts))) * (
            60 if len(parts) == 2 and not m["open"] else 1
        )
        length = len(draft.text)
        draft.marks += [(0, length, "time", str(seconds)), (0, length, "speaker", m["who"].strip())]
