"""Answers from the figures of a report: the line that a question names, for the period and the entity that it means."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from datetime import date

from yarnex.core.figures import Figure, FigurePeriod
from yarnex.core.figures.asked import by_rank
from yarnex.core.figures.calendar import moved_to, read_heading, year_ends
from yarnex.core.figures.headlines import figure_value
from yarnex.core.figures.lines import CONTEXT_ONLY, Line, line_vocabulary, name_key
from yarnex.core.patterns import pattern
from yarnex.core.search.from_lists import Offer
from yarnex.core.values import Money, Percent
from yarnex.core.words import stems_of

YEAR_BEFORE = pattern(
    r"\b(?:last|previous|prior)\s+year(?:'s)?\b|\ba\s+year\s+(?:before|earlier)\b|\bthe\s+year\s+before\b|\bcomparative\b",
    re.IGNORECASE,
)
OWN = pattern(r"\b(?:parent(?:\s+company)?|company\s+alone|holding\s+company|on\s+its\s+own|separate)\b", re.IGNORECASE)
HALF = pattern(r"\b(?:half[\s-]?year|six\s+months|interim|first\s+half|H1)\b", re.IGNORECASE)
FULL = pattern(r"\b(?:full[\s-]year|whole\s+year|twelve\s+months|annual|for\s+the\s+year)\b", re.IGNORECASE)
MONTH_OF = pattern(
    r"\b(?:at|in|by|to|of)\s+(?:the\s+end\s+of\s+)?((?:January|February|March|April|May|June|July|August|September|October|November|December)\s+20\d\d)\b",
    re.IGNORECASE,
)
CHANGES = pattern(
    r"\b(?:by\s+how\s+much|how\s+much\s+(?:more|less|higher|lower)|rise|rose|fall|fell|grow|grew|increase|decrease|change|cut|exceed)",
    re.IGNORECASE,
)


def lines_named(words: str) -> list[tuple[Line, frozenset[str]]]:
    """The standard lines that a question names, the longest names first, each with the stems that name it."""
    plain = re.sub(r"[’']s\b|[?!,;]", " ", words)
    parts = plain.split()
    out: list[tuple[Line, frozenset[str]]] = []
    taken: set[int] = set()
    vocabulary = line_vocabulary().by_name
    for length in range(min(8, len(parts)), 0, -1):
        for start in range(len(parts) - length + 1):
            places = set(range(start, start + length))
            key = name_key(" ".join(parts[start : start + length]))
            if places & taken or not key or key in CONTEXT_ONLY or key not in vocabulary:
                continue
            taken |= places
            stems = frozenset(stems_of(" ".join(parts[start : start + length])))
            out += [(line, stems) for line in vocabulary[key]]
    return out


def of_figures(figures: Sequence[Figure], words: str, ideas: frozenset[str]) -> Iterator[Offer]:
    """The figures of the lines that a question names, for the period and basis that it names, else the report's own."""
    if not figures or CHANGES.search(words):
        return
    document = figures[0].document
    basis = ("company",) if OWN.search(words) else ("consolidated", "", "consolidated, previously stated")
    for line, stems in lines_named(words):
        held = [
            f
            for f in figures
            if f.item == line.id and f.value is not None and f.basis in basis and not {"as reported"} & set(f.marks)
        ]
        period = wanted_period(document.text, words, line.nature, held)
        if period is not None:
            held = [
                f
                for f in held
                if f.period is not None
                and (f.period == period or (f.period.end == period.end and (not f.period.months or not period.months)))
            ]
        if not held:
            continue
        best = min(held, key=by_rank)
        value = figure_value(best)
        if value is None:
            continue
        left = ideas - stems - PERIOD_STEMS
        alike = len(ideas - left) / max(1, len(ideas))
        kind = "money" if isinstance(value, Money) else "percent" if isinstance(value, Percent) else "number"
        when = f" ({best.period.words})" if best.period else ""
        yield Offer(kind, value, best.as_printed, best.cites, alike, f"the figure {best.label!r}{when}")


PERIOD_STEMS = frozenset(
    stems_of(
        "year half period end first second last previous march september june december january month group at for in 2023 2024 2025 2026 2027 full company parent whole"
    )
)


def wanted_period(text: str, words: str, nature: str, held: Sequence[Figure]) -> FigurePeriod | None:
    """The period that a question is about: the one it names, the year before where it says so, else the report's own."""
    ends = year_ends(text)
    month = MONTH_OF.search(words)
    said = read_heading(month[1] if month else re.sub(r"[?]", " ", words), ends)
    stock = nature in ("stock", "ratio")
    told = [f.period for f in held if f.period is not None]
    if said.period is not None and (said.period.end in {p.end for p in told}):
        return (
            FigurePeriod(said.period.end)
            if stock
            else said.period
            if said.period.months
            else next((p for p in told if p.end == said.period.end), None)
        )
    main = ends.main or (max(told, key=lambda p: (p.end, p.months)) if told else None)
    if main is None:
        return None
    months = main.months
    if HALF.search(words) and any(p.months == 6 for p in told):
        months = 6
    elif FULL.search(words) and any(p.months == 12 for p in told):
        months = 12
    end: date = main.end
    if months != main.months:
        ended = [p.end for p in told if p.months == months]
        end = max(ended, default=end)
    if YEAR_BEFORE.search(words):
        end = moved_to(end, end.year - 1)
    return FigurePeriod(end) if stock else FigurePeriod(end, months)
