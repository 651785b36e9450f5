"""Answers weighed against each other, and against there being none: which is likeliest, and how likely it is right.

The model is the conditional logit of choice (D. McFadden, 1974): each answer's evidence adds up to its worth, "not in the
document" has worth 0, and an answer's likelihood is the share of its exp(worth) in the sum of all. Answers in different
places that give the same value speak for each other: their shares add up. Weights: packs/weights/answers.yaml, fitted by
bench/answers.py.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import exp, log

from yarnex.core.document import Cite, Span
from yarnex.core.errors import PackError
from yarnex.core.packs import load_entries, pack_text
from yarnex.core.prepared import prepared
from yarnex.core.terms import Finding
from yarnex.core.values import Quantity, Text, Value, same_rounded, same_value

# Shares that speak for or against an answer; none is a word of any document. Those of "its_…" tell of the line in which
# the answer of a term or a list stands.
EVIDENCE = (
    "one", "score", "coverage", "named", "fit", "missing", "first", "cell", "label", "short", "few", "term", "alike", "confidence", "gap",
    "worked_out", "conflicting", "agreed", "own", "rarest", "pairs", "close", "lead", "exact", "outdone", "in_vain", "rank", "unsure", "text",
    "text_for_value", "its_score", "its_coverage", "its_missing", "its_own", "its_rarest", "its_pairs", "yes_no", "in_range", "unit_fit", "valueless", "second", "year_off", "other_party", "cue_fit", "change", "if_not", "numbered", "other_thing", "outclaimed", "follows", "opposed", "other_column",
)  # fmt: skip
WORTH_AT_MOST = 30.0
CLEARLY = 2.0  # how much more what is said of another party must be worth to speak against what is said of this one


@dataclass(frozen=True, slots=True)
class Answer:
    """What one source offers: a value (None for words), its place, what to quote.

    evidence: shares that speak for or against it, in the order of EVIDENCE. worth: their weighed sum. score: how likely it
    is right, 0 to 1, once weighed.
    """

    kind: str
    value: Value | None
    span: Span
    quote: Cite
    evidence: tuple[float, ...]
    why: str
    finding: Finding | None = None
    working: tuple[str, ...] = ()
    worth: float = 0.0
    score: float = 0.0


# What one step of nearness in meaning (a cosine) weighs where a sentence-embedding model is named. Measured with a small static
# model: of 2,560 questions of our own 1,831 are answered right without it, 1,842 with 1 and 1,850 with 2, and 346, 340 and 342
# wrong; on papers on which the other weights are fitted it costs 5 of 752 with 1 and 8 with 2. See bench/meaning.py.
MEANING = 1.0


def weighed(
    answers: Sequence[Answer],
    nearness: Callable[[Sequence[str]], list[float]] | None = None,
    of_another: Sequence[Answer] = (),
) -> list[Answer]:
    """Best first; answers that say the same in the same place are one, which speaks for them.

    nearness: how near in meaning to the question each of some texts is. It tells which answer is the best, not whether there
    is one: the best keeps the worth of the best. of_another: what the paper says of another party than the one asked about, which
    answers nothing, but takes its share: where it says it of another, it seldom says it of this one elsewhere.
    """
    weights = answer_weights()
    agreed, score, unit = (EVIDENCE.index(name) for name in ("agreed", "score", "unit_fit"))
    out: list[Answer] = []
    for answer in by_worth(answers):
        same = next((i for i, o in enumerate(out) if _same(o, answer)), None)
        if same is None:
            out.append(answer)
        elif (out[same].finding is None) != (answer.finding is None):
            kept = out[same] if out[same].finding is not None else answer
            other = answer if kept is out[same] else out[same]
            # £100 a month, where the month is asked for, and £1,200 a year
            if other.evidence[unit] > kept.evidence[unit]:
                kept, other = other, kept
            evidence = list(kept.evidence)
            evidence[agreed] = max(evidence[agreed], other.evidence[score])
            both = _valued(replace(kept, evidence=tuple(evidence)), weights)
            out[same] = replace(both, worth=max(both.worth, out[same].worth))
    if nearness is not None and out:
        near = nearness([a.quote.quote for a in out])
        moved = [replace(a, worth=a.worth + MEANING * n) for a, n in zip(out, near, strict=True)]
        back = max(a.worth for a in out) - max(a.worth for a in moved)
        out = [replace(a, worth=a.worth + back) for a in moved]
    if of_another and out:
        best = max(a.worth for a in out)
        ahead = [w for w in (_valued(a, weights).worth for a in of_another) if w > best + CLEARLY]
        out = [replace(a, worth=a.worth - log(1.0 + sum(map(exp, ahead)))) for a in out]
    return _shared(sorted(out, key=_by_worth))


def by_worth(answers: Sequence[Answer]) -> list[Answer]:
    """The answers by what their evidence is worth, best first."""
    weights = answer_weights()
    return sorted((_valued(a, weights) for a in answers), key=_by_worth)


def _shared(answers: list[Answer]) -> list[Answer]:
    """Each with its share, those of the same value added up; best first, of the same value the one of most worth."""
    total = 1.0 + sum(exp(a.worth) for a in answers)
    groups: list[list[Answer]] = []
    for answer in answers:
        group = next((g for g in groups if _says_the_same(g[0], answer)), None)
        if group is None:
            groups.append([answer])
        else:
            group.append(answer)
    shares = [sum(exp(a.worth) for a in g) / total for g in groups]
    order = sorted(range(len(groups)), key=lambda i: (-round(shares[i], 6), i))
    first = [replace(groups[i][0], score=shares[i]) for i in order]
    rest = [replace(a, score=shares[i]) for i in order for a in groups[i][1:]]
    return [*first, *rest]


def likely_there(answers: Sequence[Answer]) -> float:
    """How likely it is that the place of the best answer answers, 0 to 1: what else is offered there, as a value of another
    kind or as the words themselves, speaks for the place and only against the kind.
    """
    best = answers[0]
    places = [
        a
        for a in answers[1:]
        if a.kind != best.kind and a.quote.span.overlaps(best.quote.span) and a.score != best.score
    ]
    total = 1.0 + sum(exp(a.worth) for a in answers)
    return best.score + sum(exp(a.worth) for a in places) / total


def _says_the_same(one: Answer, other: Answer) -> bool:
    if one.value is None or other.value is None or one.kind == "yes_no":
        return False  # any sentence is a yes or a no
    if isinstance(one.value, Text) and one.kind in ("text", "list"):
        return False  # the words of two passages are two answers
    return one.kind == other.kind and (same_value(one.value, other.value) or same_rounded(one.value, other.value))


def _by_worth(answer: Answer) -> tuple[float, int, str]:
    return (-round(answer.worth, 6), answer.span.start, answer.kind)


def _valued(answer: Answer, weights: Sequence[float]) -> Answer:
    total = sum(w * x for w, x in zip(weights, answer.evidence, strict=True))
    return replace(answer, worth=max(-WORTH_AT_MOST, min(WORTH_AT_MOST, total)))


def _same(one: Answer, other: Answer) -> bool:
    if not one.quote.span.overlaps(other.quote.span):
        return False
    if one.kind == other.kind and one.kind in ("text", "gap"):
        return True
    if one.value is None or other.value is None:
        return False
    if isinstance(one.value, Text) and isinstance(other.value, Text):
        return one.value.words.strip(" .").lower() == other.value.words.strip(" .").lower()
    if isinstance(one.value, Quantity) and isinstance(other.value, Quantity) and one.value.unit != other.value.unit:
        return False  # "100 sq m (1,076 sq ft)" offers each unit
    return one.kind == other.kind and same_value(one.value, other.value)


@lru_cache(maxsize=1)
def answer_weights() -> tuple[float, ...]:
    """The weights in `packs/weights/answers.yaml`, fitted by bench/answers.py. Raises PackError where one is missing."""
    return prepared("weights", _from_pack)


def _from_pack() -> tuple[float, ...]:
    text, name = pack_text("weights", "answers")
    entry = load_entries(text, name)
    missing = [e for e in EVIDENCE if e not in entry.get("weights", {})]
    if missing:
        raise PackError(f"no weight for {', '.join(missing)}", where=name)
    return tuple(float(entry["weights"][e]) for e in EVIDENCE)
