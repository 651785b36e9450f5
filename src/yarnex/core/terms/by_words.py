"""Answers by plain words: what is asked for in a label, a hint or a question, sought in all lines of a document.

The words asked for become ideas, each with the other words for it; a line counts by the share of the ideas, weighed by
how rare they are, that it names itself or stands under; a value in it by how close it stands to those words.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

from yarnex.core.document import Cite, Span
from yarnex.core.document.table_paths import column_path
from yarnex.core.number_names import ORDINALS, UNITS
from yarnex.core.patterns import pattern
from yarnex.core.phrases import says
from yarnex.core.terms.candidates import TYPED, candidate, fits, on_one_line, shortened
from yarnex.core.terms.lines import Line, Lines
from yarnex.core.terms.measures import period_asked, units_asked, units_named
from yarnex.core.terms.model import Candidate, Term
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import line_values_of
from yarnex.core.terms.wording import is_others_duty
from yarnex.core.values import Found, Money, Quantity, Text, Value
from yarnex.core.words import STOP_WORDS, Token, known_synonyms, known_thesaurus, stem, tokens
from yarnex.core.words.synonyms import PARTICLES

SYNONYM = 0.75
PHRASE = 0.85
FEW_OTHERS, LOOSE = 14, 0.8
NEARLY = (0.8, 0.5, 0.4)  # what the thesaurus's words are worth: derived ones, those for a main sense, for another
EVERYDAY = 0.5  # what a word of everyday speech is worth that means nearly the same
NEAR_WORDS = 40  # of them
SAY_LITTLE = frozenset(map(stem, ("period", "date", "time", "day", "year", "amount", "number", "term")))  # of a phrase
PART = 0.45  # one word of a phrase that means something as a whole
HINTED = 0.25
NAMED = 0.3  # how much a line gains whose label is just what is asked for
UNIT_FITS, UNIT_MISFITS = 0.15, 0.4
BOUND = pattern(
    r"\b(?:min|max|at least|at most|up to|not (?:more|less) than|minimum|maximum)\.?\s*(?:of\s+)?\Z", re.IGNORECASE
)
BOUND_STEMS = {
    stem(w) for w in ("minimum", "maximum", "least", "most", "required", "requirement", "limit", "cap", "floor")
}
WANTED_HEAD = pattern(
    r"\b(?:requirement|required|wanted|specified|target|limit|budget|previous|prior)\b", re.IGNORECASE
)
OTHERWISE = pattern(
    r"\b(?:longer|extended|extension|optional|option|extra|previous|previously|former|formerly|original|originally|earlier|instead)\b",
    re.IGNORECASE,
)
APART, SCATTERED = 30, 0.4  # characters between the words of a phrase, and what it is worth where they stand apart
SIDE_BY_SIDE = 28  # characters between two words that belong together
OTHERS_WORD = 40  # how much farther a word may stand from a value than from another one, as `_parted` counts, to be said of it too
SAYS = pattern(
    r"\s(?:is|are|was|were|has|have|does|do|did|shall|may|must|cannot|will)\s"
)  # a heading that is a sentence
# "26.0 per cent (2024: 25.8 per cent)": what is in the brackets is for comparison.
COMPARED = pattern(
    r"\((?:(?:[\w ]{0,24}\s)?(?P<year>(?:19|20)\d\d(?:[/-]\d\d)?)|before|previously|earlier|(?:last|previous|prior|the)\s+(?:year|quarter|half|month|period|time)(?:\s+before)?|a\s+year\s+(?:ago|before|earlier))"
    r"\s*:\s*(?:(?:about|some|around)\s+)?(?:[£$€]\s?)?\Z"
)
# "down from 12.4 million", "against eight a year ago": what was before, which only a question for it wants.
BEFORE_IT = pattern(
    r"\b(?:(?:down|up|eased|rose|risen|fell|fallen|rises|falls|grew|grown|improved|slipped|(?:in|de)creased|reduced|raised|cut|lowered|changed|moved)\s+(?:\w+\s+)?from|against|compared\s+(?:with|to)|versus|vs\.?|previously|formerly|instead\s+of|rather\s+than)\s+(?:the\s+|about\s+|some\s+)?(?:[£$€]\s?)?\Z",
    re.IGNORECASE,
)
EARLIER = frozenset(
    stem(w)
    for w in [
        "previous",
        "prior",
        "preceding",
        "earlier",
        "former",
        "formerly",
        "ago",
        "original",
        "originally",
        "before",
    ]
)
OF_BEFORE = 0.15  # for or against such a value
OF_LABEL = 0.85  # how much a word of the label of a row or of the head of a column counts at the least
# "... for A and nine months for B": the second value opens another part.
ANOTHER = pattern(r"\b(?:and|or|but)\s+(?:(?:for|of|to|by)\s+)?(?:[£$€]\s?)?\Z")
# "... audited accounts within 120 days of the year end and management accounts within 30 days": what is ahead of the first value
# is said of the second one less surely.
NEW_SUBJECT_OPENS = pattern(
    r"(?:\band\b|\bor\b|[;,])\s+(?:the\s+)?[a-z]+(?:\s+[a-z]+){0,2}\s+(?:within|by|not\s+later\s+than|is|are|of|at)\s[^.;]{0,24}\Z"
)
NEW_SUBJECT = 24.0
OF_IT = pattern(r"\s+of\s+(?:(?:the|its|their|our|each|any|all)\s+)?")
NEARLY_AS_SURE = 0.2  # how much less surely another word may name a thing and still tell where it stands
SECONDS_OF = 3  # best lines whose other values are hits too
MOST_TELLING, UNSAID = 7.0, 0.7
LOOKED_AT = 40  # lines whose values are weighed


@dataclass(frozen=True, slots=True)
class Idea:
    """One thing asked for: the stems that name it, each alternative with what a match by it is worth."""

    name: tuple[str, ...]
    ways: tuple[tuple[tuple[str, ...], float], ...]
    weight: float = 1.0
    carried: bool = False  # over from the question before, which was about something else of the same kind


@dataclass(frozen=True, slots=True)
class Hit:
    """A line that answers, the value in it (None where the line itself is the answer), and the evidence."""

    line: Line
    found: Found[Value] | None
    score: float
    coverage: float
    missing: tuple[str, ...]
    named: float = 0.0  # how far the line's label is just what is asked for
    own: float = 0.0  # share of what is asked for that the line itself names
    rarest: float = 0.0  # how far it names the rarest thing asked for
    pairs: float = 0.0  # share of the things asked for side by side that stand side by side in it
    fit: float = 0.0  # what the value's unit and the words right around it say
    second: bool = False  # another value of the same line fits better
    outclaimed: float = 0.0  # how much more of what is asked for goes with another value of the line


_NOTHING = Text("")


@lru_cache(maxsize=4096)
def ideas_of(words: str, *, loosely: bool = True) -> tuple[Idea, ...]:
    """What some words ask for: phrases that the vocabulary knows are one idea, every other word is one.

    loosely: words of everyday speech and of the thesaurus that mean nearly the same are other ways to name it too.
    """
    synonyms = known_synonyms()
    found = telling_words(words)
    stems = [t.stem for t in found]
    out: list[Idea] = []
    seen: set[tuple[str, ...]] = set()
    place = 0
    while place < len(stems):
        for length in range(min(synonyms.longest, len(stems) - place), 0, -1):
            key = tuple(stems[place : place + length])
            others = synonyms.of(key)
            if length == 1 or synonyms.knows(key):
                break
        place += length
        if key in seen:
            continue
        seen.add(key)
        ways: dict[tuple[str, ...], float] = {key: 1.0}
        loose = 1.0 if len(others) <= FEW_OTHERS else LOOSE  # a word with many others means many things
        for other in (*others, *_numeral(words[found[place - length].start : found[place - 1].end])):
            ways.setdefault(other, (SYNONYM if len(other) == 1 else PHRASE) * loose)
        for other in synonyms.everyday.get(key, ()) if loosely else ():
            ways.setdefault(other, EVERYDAY)
        for other, nearness in known_thesaurus().near(key)[:NEAR_WORDS] if loosely else ():
            ways.setdefault(other, DOER_OF if _does(key, other) else NEARLY[nearness])
        if length > 1:
            for part in key:
                if part not in PARTICLES and part not in SAY_LITTLE:  # "up" says nothing of "go up"
                    ways.setdefault((part,), PART)
        out.append(Idea(key, tuple(ways.items()), 1.0))
    return tuple(out)


DOER_OF = 0.5  # what a deed is worth where who does it is named, and the other way round: "building" for a builder


def _does(one: tuple[str, ...], other: tuple[str, ...]) -> bool:
    """True for the stems of a deed and of who does it: "build" and "builder"."""
    if len(one) != 1 or len(other) != 1:
        return False
    short, long = sorted((one[0], other[0]), key=len)
    return long.startswith(short.rstrip("ei")) and long[len(short.rstrip("ei")) :] in ("er", "or")


def telling_words(words: str) -> list[Token]:
    """The words that say something, and the particles that give a verb its sense."""
    said = _with_particles([(t, words[t.start : t.end].lower()) for t in tokens(words)])
    return [t for i, (t, word) in enumerate(said) if word not in STOP_WORDS or _completes(said, i)]


WHEN_WORDS = frozenset(["early", "late", "later", "again", "first", "sooner", "straight", "yearly", "today"])


def _with_particles(said: list[tuple[Token, str]]) -> list[tuple[Token, str]]:
    """Words in which a particle stands behind its verb, though the object came between: "hand the keys over"."""
    synonyms = known_synonyms()
    out = list(said)
    for place in range(len(out) - 2, 0, -1):
        at = place + 1  # of a particle; its verb stands two to four words before it
        if out[at][1] not in PARTICLES or (at + 1 < len(out) and out[at + 1][1] not in STOP_WORDS | WHEN_WORDS):
            continue
        for verb in range(at - 2, max(-1, at - 5), -1):
            pair = (out[verb][0].stem, out[at][0].stem)
            if out[verb][1] not in STOP_WORDS and out[verb][1] not in PARTICLES and synonyms.knows(pair):
                out.insert(verb + 1, out.pop(at))
                break
    return out


def _completes(said: Sequence[tuple[Token, str]], place: int) -> bool:
    """True for a particle that makes another verb of the word before it, or a phrase with the one behind ("run out"), and for
    that verb.
    """
    token, word = said[place]
    synonyms = known_synonyms()
    if word not in PARTICLES:  # a word that says little by itself, "set", says something with its particle: "set off"
        after = said[place + 1] if place + 1 < len(said) else None
        return after is not None and after[1] in PARTICLES and synonyms.knows((token.stem, after[0].stem))
    before = place > 0 and synonyms.knows((said[place - 1][0].stem, token.stem))
    behind = place + 1 < len(said) and synonyms.knows((token.stem, said[place + 1][0].stem))
    return bool(before or behind)


def _said(line: Line, way: tuple[str, ...]) -> float:
    """How far a line, or what it stands under, says a word or phrase; the words of a phrase must stand together in it."""
    factor = min(1.0 if w in line.own else line.around.get(w, 0.0) for w in way)
    if len(way) > 1 and factor == 1.0:
        spread = APART * (len(way) - 1)
        first, *rest = (line.own[w] for w in way)
        if not any(all(any(abs(x - y) <= spread for y in other) for other in rest) for x in first):
            return SCATTERED
    return factor


def _numeral(word: str) -> tuple[tuple[str, ...], ...]:
    """The figure for a number in words, as rows are numbered: "the third year" is year 3."""
    value = ORDINALS.get(word.lower()) or UNITS.get(word.lower())
    return ((str(value),),) if value else ()


class Matcher:
    """The lines of one document, asked."""

    def __init__(self, lines: Lines) -> None:
        self.lines = lines
        self.passages = lines.passages
        self._weights: dict[tuple[tuple[str, ...], float], float] = {}
        self._here: dict[Idea, Idea] = {}
        self._inside: dict[Callable[[Line], list[Found[Value]]], dict[int, list[Found[Value]]]] = {}

    def here(self, idea: Idea) -> Idea:
        """The idea with only those ways to name it of which each word stands somewhere in this document."""
        if idea not in self._here:
            postings = self.lines.postings
            ways = tuple((way, worth) for way, worth in idea.ways if all(w in postings for w in way))
            self._here[idea] = replace(idea, ways=ways)
        return self._here[idea]

    def names(self, idea: Idea) -> bool:
        """Whether some line names an idea, all its words together and not only one of them."""
        return any(
            factor > SCATTERED for way, worth in self.here(idea).ways if worth > PART for _, factor in self._saying(way)
        )

    def _saying(self, way: tuple[str, ...]) -> Iterable[tuple[int, float]]:
        """The places of the lines that say a word or phrase, or stand under it, with how far they do, as `_said` has it."""
        if len(way) == 1:
            return self.lines.naming(way[0]).items()
        first, *rest = map(self.lines.naming, way)
        out = []
        for place, factor in first.items():
            for other in rest:
                factor = min(factor, other.get(place, 0.0))
            if factor == 1.0:
                factor = _said(self.lines.lines[place], way)
            if factor:
                out.append((place, factor))
        return out

    def weight(self, idea: Idea) -> float:
        """How much an idea tells in this document: rare words tell more, up to a bound; what stands nowhere in it, in no other
        words either, less, as people often call a thing otherwise.
        """
        key = (idea.name, idea.weight)
        if key not in self._weights:
            said = any(all(w in self.lines.postings for w in way) for way, worth in idea.ways if worth > PART)
            rarity = sum(map(self.lines.rarity, idea.name)) / len(idea.name)
            told = min(MOST_TELLING, rarity * (1 + 0.25 * (len(idea.name) - 1)))
            self._weights[key] = idea.weight * told * (1.0 if said else UNSAID)
        return self._weights[key]

    def ranked(
        self, ideas: Sequence[Idea], values: Callable[[Line], list[Found[Value]]] | None, *, limit: int = 10,
        hint: Sequence[Idea] = (), seconds: int = 0,
    ) -> list[Hit]:  # fmt: skip
        """The best lines for the ideas; with `values`, only those that hold one, and the value that fits best.

        hint: ideas that speak for a line without which it counts all the same. seconds: how many more values of a line
        are hits of their own; `limit` counts lines.
        """
        weights = [self.weight(i) for i in ideas]
        total = sum(weights)
        if not total:
            return []
        asked = {w for idea in ideas for way, _ in idea.ways for w in way}
        ideas = [self.here(i) for i in ideas]
        rough: dict[int, float] = {}
        for idea, weight in zip(ideas, weights, strict=True):
            best: dict[int, float] = {}
            for way, worth in idea.ways:
                for place, factor in self._saying(way):
                    if factor * worth > best.get(place, 0.0):
                        best[place] = factor * worth
            for place, factor in best.items():
                rough[place] = rough.get(place, 0.0) + weight * factor
        order = sorted(rough, key=lambda p: (-rough[p], p))
        hits: list[Hit] = []
        looked = 0
        known = self._inside.setdefault(values, {}) if values is not None else {}
        for place in order:
            line = self.lines.lines[place]
            if line.kind != "cell" and self.lines.text[line.span.start : line.span.end].rstrip().endswith("?"):
                continue  # a question answers none
            if values is None:
                if line.kind == "heading" and not SAYS.search(self.lines.text, line.span.start, line.span.end):
                    continue
                found = [Hit(line, None, rough[place] / total, rough[place] / total, ())]
            else:
                inside = known.get(place)
                if inside is None:
                    inside = known[place] = values(line)
                if not inside:
                    continue
                found = self._values_by_fit(line, inside, ideas, weights, total, asked)[: 1 + seconds]
            looked += 1
            if line.names:
                named = self._named(line, ideas, weights) / total
                found = [replace(h, score=h.score + NAMED * named, named=named) for h in found]
            hits += found
            if looked >= LOOKED_AT:
                break
        if hint:
            hits = [replace(h, score=h.score + HINTED * self._hinted(h.line, hint)) for h in hits]
        hits.sort(key=lambda h: (h.second, -round(h.score, 6), h.line.span.start))
        first = hits[:limit] if not seconds else [h for h in hits if not h.second][:limit]
        lines = {id(h.line) for h in first[:SECONDS_OF]} if seconds else set()
        kept = [*first, *(h for h in hits if h.second and id(h.line) in lines)]
        return [self._told(h, ideas, weights, total) for h in kept]

    def at(
        self, ideas: Sequence[Idea], place: Span, value: Span | None,
        values: Callable[[Line], list[Found[Value]]] | None = None,
    ) -> Hit | None:  # fmt: skip
        """How well the lines at a place name the ideas, with the value that stands in it; None where no line is there.

        values: finds the values of its kind, beside which the one that stands there is weighed.
        """
        weights = [self.weight(i) for i in ideas]
        total = sum(weights)
        asked = {w for idea in ideas for way, _ in idea.ways for w in way}
        ideas = [self.here(i) for i in ideas]
        best: Hit | None = None
        for line in self.lines.at(place if value is None else value):
            if not total:
                continue
            if value is not None and line.values.start <= value.start and value.end <= line.values.end:
                others = [f for f in values(line) if not f.span.overlaps(value)] if values is not None else []
                found = [Found(_NOTHING, value), *others]
                hits = self._values_by_fit(line, found, ideas, weights, total, asked)
                hit = replace(next(h for h in hits if h.found is found[0]), second=False)
            else:
                said = sum(w * self.named_at(line, i) for i, w in zip(ideas, weights, strict=True)) / total
                missing = tuple(" ".join(i.name) for i in ideas if self.named_at(line, i) < 0.3)
                hit = Hit(line, None, said, said, missing)
            if line.names:
                named = self._named(line, ideas, weights) / total
                hit = replace(hit, score=hit.score + NAMED * named, named=named)
            if best is None or hit.score > best.score + 1e-9:
                best = hit
        return self._told(best, ideas, weights, total) if best is not None else None

    def each_at(
        self, ideas: Sequence[Idea], value: Span, values: Callable[[Line], list[Found[Value]]] | None
    ) -> list[Hit]:  # fmt: skip
        """A hit for each value of the line in which a value stands; none where it stands in no line."""
        weights = [self.weight(i) for i in ideas]
        asked = {w for idea in ideas for way, _ in idea.ways for w in way}
        here = [self.here(i) for i in ideas]
        for line in self.lines.at(value):
            if (
                line.values.start <= value.start
                and value.end <= line.values.end
                and values
                and (inside := values(line))
            ):
                return self._values_by_fit(line, inside, here, weights, sum(weights) or 1.0, asked)
        return []

    def claimed(self, hit: Hit, ideas: Sequence[Idea], values: Callable[[Line], list[Found[Value]]] | None) -> Hit:
        """The hit with the value of its line with which what is asked for goes, where that is clearly another one."""
        if hit.outclaimed < OUTCLAIMED or hit.found is None or values is None:
            return hit
        others = self.each_at(ideas, hit.found.span, values)
        best = min(others, key=lambda h: h.outclaimed, default=hit)
        return replace(hit, found=best.found, fit=best.fit, outclaimed=best.outclaimed)

    def named_at(self, line: Line, idea: Idea) -> float:
        """How far a line, or what it stands under, names an idea."""
        return max(
            (worth * _said(line, way) for way, worth in self.here(idea).ways),
            default=0.0,
        )

    def _told(self, hit: Hit, ideas: Sequence[Idea], weights: Sequence[float], total: float) -> Hit:
        """The hit with what its line says of the ideas taken singly and in pairs."""
        line = hit.line
        places: list[list[int]] = []
        own = rarest = 0.0
        top = max(weights)
        for idea, weight in zip(ideas, weights, strict=True):
            best, at = 0.0, []
            for way, worth in idea.ways:
                said = worth * _said(line, way)
                if all(w in line.own for w in way):
                    if said > best:
                        best, at = said, line.own[way[0]]
                elif said:
                    near = said
                    rarest = max(rarest, near) if weight == top else rarest
            own += weight * best
            rarest = max(rarest, best) if weight == top else rarest
            places.append(at)
        together = list(pairwise(places))
        pairs = sum(any(abs(x - y) < SIDE_BY_SIDE for x in a for y in b) for a, b in together)
        return replace(hit, own=own / total, rarest=rarest, pairs=pairs / max(1, len(together)))

    def _hinted(self, line: Line, hint: Sequence[Idea]) -> float:
        """The share of a hint's ideas that a line or what it stands under names."""
        said = sum(any(all(w in line.own or w in line.around for w in way) for way, _ in idea.ways) for idea in hint)
        return said / len(hint)

    def _named(self, line: Line, ideas: Sequence[Idea], weights: Sequence[float]) -> float:
        """The weight of the ideas that a line's label names, times the share of the label that they make up."""
        names = set(line.names)
        used: set[str] = set()
        covered = 0.0
        for idea, weight in zip(ideas, weights, strict=True):
            best = 0.0
            for way, worth in idea.ways:
                if names.issuperset(way):
                    used.update(way)
                    best = max(best, worth)
            covered += weight * best
        return covered * len(used) / len(names)

    def _values_by_fit(
        self, line: Line, inside: list[Found[Value]], ideas: Sequence[Idea], weights: Sequence[float], total: float,
        asked: set[str],
    ) -> list[Hit]:  # fmt: skip
        """A hit for each value in a line, the one that fits best first. asked: all words for what is asked for."""
        out: list[Hit] = []
        names = [w for idea in ideas for w in idea.name]
        wanted = units_named(names) or units_asked(names)
        for found in inside:
            score = covered = 0.0
            missing = []
            for idea, weight in zip(ideas, weights, strict=True):
                top = plain = 0.0
                for way, worth in idea.ways:
                    factor, close = self._way(line, way, found.span)
                    top = max(top, factor * close * worth)
                    plain = max(plain, factor * worth)
                score += weight * top
                covered += weight * plain
                if plain < 0.3:
                    missing.append(" ".join(idea.name))
            fit = self._fit(line, found, wanted, asked)
            out.append(Hit(line, found, score / total + fit, covered / total, tuple(missing), fit=fit))
        main = [
            i for i, f in enumerate(inside)
            if not COMPARED.search(self.lines.text, max(line.span.start, f.span.start - 60), f.span.start)
        ]  # fmt: skip
        if len(main) > 1:
            claims = dict(zip(main, self._claims(line, [inside[i].span for i in main], ideas, weights), strict=True))
            most = max(claims.values())
            out = [replace(hit, outclaimed=max(0.0, most - claims.get(i, most)) / total) for i, hit in enumerate(out)]
        out.sort(key=lambda h: -round(h.score, 9))
        return [out[0], *(replace(h, second=True) for h in out[1:])]

    def _claims(
        self, line: Line, values: Sequence[Span], ideas: Sequence[Idea], weights: Sequence[float]
    ) -> list[float]:
        """The weight of the ideas that go with each of several values of a sentence: "12 months for A and 9 for B".

        What is named ahead of all of them is said of each; else a word goes with the value from which least parts it.
        """
        first = min(v.start for v in values)
        claims = [0.0] * len(values)
        for idea, weight in zip(ideas, weights, strict=True):
            if any(min(line.around.get(w, 0.0) for w in way) >= OF_LABEL for way, _ in idea.ways):
                continue  # the label of the row says it of each
            costs = [float("inf")] * len(values)
            said = [] if idea.carried else [(w, worth) for w, worth in idea.ways if all(x in line.own for x in w)]
            top = max((worth for _, worth in said), default=0.0)
            for way in (w for w, worth in said if worth >= top - NEARLY_AS_SURE):
                for i, value in enumerate(values):  # a phrase is as far as the farthest of its words
                    cost = max(self._nearest(line.own[w], value, values, first) for w in way)
                    costs[i] = min(costs[i], cost)
            least = min(costs)
            if top and least < float("inf"):
                for i, cost in enumerate(costs):
                    claims[i] += weight * top * max(0.0, 1 - (cost - least) / OTHERS_WORD)
        return claims

    def _nearest(self, places: Sequence[int], value: Span, values: Sequence[Span], first: int) -> float:
        """How much parts a value from the nearest of a word's places, of which those inside values do not count."""
        free = [at for at in places if not any(v.start <= at < v.end for v in values)]
        ahead = min((v.end for v in values if v.end <= value.start), default=0)
        new = NEW_SUBJECT if ahead and NEW_SUBJECT_OPENS.search(self.lines.text, ahead, value.start) else 0.0
        return min((new if at < first else self._parted(at, value, values) for at in free), default=float("inf"))

    def _parted(self, at: int, value: Span, values: Sequence[Span]) -> float:
        """How much parts a word from a value: characters, and more for what ends a part of the sentence between them."""
        start, end = (at, value.start) if at < value.start else (value.end, at + 12)
        between = self.lines.text[start : end if at < value.start else at]
        if at >= value.start and OF_IT.fullmatch(between):
            return 0.0  # "65% of the price at 2.4 points over base"
        breaks = 60 * len(re.findall(r"[;:]|\.\s", between)) + 25 * between.count(", ")
        joined = 25 * len(re.findall(r"\b(?:and|or|but|that|which)\s", between))
        reach = end if at < value.start else at
        passed = 60 * sum(start <= v.start and v.end <= reach and v != value for v in values)
        opens = 40 if at < value.start and ANOTHER.search(between) else 0
        return end - start + breaks + joined + passed + opens

    def _fit(self, line: Line, found: Found[Value], wanted: frozenset[str], asked: set[str]) -> float:
        """What the value's unit, and the words right around it, say for it (above 0) or against it."""
        out = 0.0
        if wanted and isinstance(found.value, Quantity):
            out += UNIT_FITS if found.value.unit in wanted else -UNIT_MISFITS
        if isinstance(found.value, Money) and (period := period_asked(asked)):
            out += 0.08 if found.value.per == period else (-0.15 if found.value.per else 0.0)
        text = self.lines.text
        before = text[max(line.values.start, found.span.start - 24) : found.span.start]
        if BOUND.search(before) and not asked & BOUND_STEMS:
            out -= 0.06
        if line.kind == "cell" and WANTED_HEAD.search(self._head(line)) and not asked & BOUND_STEMS:
            out -= 0.12
        if BEFORE_IT.search(text, max(line.values.start, found.span.start - 40), found.span.start):
            out += OF_BEFORE if asked & EARLIER else -OF_BEFORE
        around = text[max(line.span.start, found.span.start - 60) : min(line.span.end, found.span.end + 40)]
        if any(m.group().lower() for m in OTHERWISE.finditer(around) if stem(m.group()) not in asked):
            out -= 0.1
        return out

    def _head(self, line: Line) -> str:
        found = self.passages.document.cell_at(line.values)
        return " ".join(column_path(*found, self.lines.text)) if found is not None else ""

    def _way(self, line: Line, way: tuple[str, ...], value: Span) -> tuple[float, float]:
        """How well a line names these stems, and how close to the value (1 close by, less the farther away)."""
        factor, close = 1.0, 1.0
        for word in way:
            places = line.own.get(word)
            if places:
                near = 0.0
                for at in places:
                    if value.start <= at < value.end:
                        distance = 60  # a word of the value itself says little about what it is
                    elif at < value.start:
                        distance = self._distance(at, value.start)
                    else:
                        distance = self._distance(value.end, at) + 12
                    near = max(near, 1 / (1 + max(0, distance - 25) / 160))
                close = min(close, near)
            else:
                around = line.around.get(word, 0.0)
                if not around:
                    return 0.0, 0.0
                factor = min(factor, around)
                close = min(close, 0.9)
        return min(factor, _said(line, way)), close

    def _distance(self, start: int, end: int) -> int:
        """Characters between two places; a part of the sentence that ends between them doubles it."""
        between = self.lines.text[start:end]
        other_half = bool(re.search(r"[^,;:]\s(?:and|or)\s+(?:of\s+|to\s+|not\s+\w+\s+than\s+)?\Z", between))
        return (end - start) + 40 * (len(re.findall(r"[;:]|, (?:and|or|but|provided)\b|\.\s", between)) + other_half)


# ------------------------------------------------------------------ as a finder of terms
FULL = 0.72  # share of what is asked for that a line must name
GUIDED = 0.95  # what a line must score for a term that has wording of its own to go by
FULL_OWN = 0.55  # the same, for a term that an analyst gave only a label
OF_ITS_LABEL = 0.6  # how far a label must be what is asked for where the term's own names name none
OUTCLAIMED = 0.3  # share of what is asked for by which another value of the sentence has more of it
SEEN = {"sentence", "cell", "named"}


def matcher_of(passages: Passages) -> Matcher:
    """The matcher of a document, made when first asked for."""
    made: Matcher | None = passages.__dict__.get("_matcher")
    if made is None:
        made = Matcher(Lines(passages))
        hold_matcher(passages, made)
    return made


def hold_matcher(passages: Passages, matcher: Matcher) -> None:
    """Let a document's passages hold this matcher of theirs."""
    passages.__dict__["_matcher"] = matcher


LEAST_WEIGHT = 0.63  # of a value beside other words than the term's own


def from_plain_words(term: Term, passages: Passages) -> Iterator[Candidate]:
    """Lines that say what the term's label, its other names or its hint say, with a value of the term's type close by."""
    if term.type not in (*TYPED, "party", "text") or (term.type == "text" and not (term.asked or term.hint)):
        return
    if term.type == "party" and term.names:
        return  # who has a role is told where the parties and their roles are named
    if term.compute and term.type == "date":
        return  # a date that is worked out when not stated: a day that merely stands near its words is another one
    matcher = matcher_of(passages)
    values = line_values_of(passages).finder(term.type)
    guided = bool(term.cues or term.headings)
    strict = guided or (term.type == "text" and bool(term.names))  # a passage that no label names must say it all
    for words in dict.fromkeys((term.label, *(() if guided else term.asked))):
        ideas = ideas_of(words)
        if len(ideas) < 2 and not (ideas and len(ideas[0].name) > 1) and words == term.label and term.names:
            continue  # a label of one word says too little; its names say more
        if len(ideas) == 1 and len(ideas[0].name) == 1 and guided:
            continue  # and so do its headings and the words around it
        for hit in matcher.ranked(ideas, values, limit=3, hint=ideas_of(term.hint) if term.hint else ()):
            hit = matcher.claimed(hit, ideas, values)
            if (
                hit.coverage < (FULL if guided or term.names else FULL_OWN)
                or hit.line.kind not in SEEN
                or len(hit.missing) > len(ideas) // 3
                or (strict and hit.score < GUIDED)
                or (term.names and hit.line.kind == "cell" and hit.line.names and hit.named < OF_ITS_LABEL)
            ):
                continue
            if hit.found is not None and not fits(term, hit.found.value):
                continue
            span = hit.found.span if hit.found is not None else hit.line.span
            around = passages.text[max(hit.line.span.start, span.start - 60) : min(hit.line.span.end, span.end + 60)]
            if says(term.excludes, around) or (term.by and is_others_duty(hit.line.span.of(passages.text), term.by)):
                continue
            if term.requires and not says(term.requires, hit.line.span.of(passages.text)):
                continue
            weight = 0.45 + 0.21 * min(1.3, hit.score)
            if hit.found is not None and weight < LEAST_WEIGHT:
                continue
            why = f"the words for {words!r} stand there"
            if hit.found is not None:
                yield candidate(passages, term, hit.found, weight, "words", why)
            elif hit.line.size >= 4:
                cite = Cite(passages.document, shortened(passages.text, hit.line.span))
                yield Candidate("stated", Text(on_one_line(cite.quote)), cite, cite, weight - 0.06, "words", why)
