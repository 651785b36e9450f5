"""Figures by the names that people use: "profit after tax", "debt", "EPS"."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from yarnex.core.figures.lines import Line, lines_meant, name_key
from yarnex.core.figures.model import Figure

PLACES = ("financial_position", "profit_or_loss", "cash_flows", "comprehensive_income", "per_share", "indicators", "summary", "segments", "changes_in_equity", "note", "text")  # fmt: skip


@dataclass(frozen=True, slots=True)
class Meant:
    """What a name may mean, and the figures of it. line: None where the words were matched with labels."""

    name: str
    line: Line | None
    figures: tuple[Figure, ...]


def figures_named(figures: Sequence[Figure], name: str) -> tuple[Meant, ...]:
    """The figures that a name means, the more exact meaning first; each meaning of an ambiguous name on its own.

    A known line brings its figures; other words bring those whose label or path holds all of them.
    """
    out: list[Meant] = []
    for line in lines_meant(name):
        held = [f for f in figures if f.item == line.id]
        if held:
            out.append(Meant(name, line, tuple(sorted(held, key=by_rank))))
    if out:
        return tuple(out)
    key = set(name_key(name).split())
    exact = [f for f in figures if set(name_key(f.label).split()) == key]
    held = exact or [f for f in figures if key and key <= set(name_key(" ".join((*f.path, f.label))).split())]
    return (Meant(name, None, tuple(sorted(held, key=by_rank))),) if held else ()


def by_rank(figure: Figure) -> tuple[object, ...]:
    """Newest period first; tagged before printed; statements before notes, summaries and sentences; the finest first."""
    end = -figure.period.end.toordinal() if figure.period else 0
    order = PLACES.index(figure.statement) if figure.statement in PLACES else len(PLACES)
    return (
        end,
        figure.basis not in ("consolidated", ""),
        figure.source != "tagged",
        order,
        figure.rounding,
        figure.span.start,
    )


def best_of_each_period(figures: Sequence[Figure]) -> tuple[Figure, ...]:
    """One figure for each period and basis: the first by rank."""
    seen: dict[tuple[object, str], Figure] = {}
    for figure in sorted(figures, key=by_rank):
        if "target" in figure.marks or "forecast" in figure.marks:
            continue
        seen.setdefault((figure.period, figure.basis or "consolidated"), figure)
    return tuple(seen.values())
