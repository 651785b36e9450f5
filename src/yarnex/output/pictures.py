"""Series and timelines -> pictures (PNG or SVG) by matplotlib; the same input gives the same bytes.

Colours are those of Okabe and Ito's palette, which colour-blind readers tell apart; hatching keeps them apart in grey print.
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from yarnex.core.document import Cite
from yarnex.core.figures.series import ChartData, Point
from yarnex.output.figure_reports import number_words

COLOURS = ("#0072B2", "#E69F00", "#009E73", "#CC79A7", "#56B4E9", "#D55E00", "#999999", "#F0E442")
HATCHES = ("", "//", "..", "xx", "\\\\", "++", "oo", "--")
TYPES = ("bars", "lines", "waterfall")
INK, FAINT = "#222222", "#D8DCE2"
SCALES = ((Decimal(10) ** 9, "billion"), (Decimal(10) ** 6, "million"), (Decimal(10) ** 3, "thousand"))


@dataclass(frozen=True, slots=True)
class Look:
    """What the user may choose. width, height: pixels at 100 dots an inch."""

    type: str = "bars"
    title: str = ""
    width: int = 1280
    height: int = 800
    colours: tuple[str, ...] = COLOURS
    values: bool = True
    growth: bool = False


def figure_picture(data: ChartData, look: Look, form: str) -> bytes:
    """The chart as bytes. form: "png" or "svg"."""
    figure, axes = _canvas(look)
    values = [p.value for s in data.series for p in s.points]
    if data.kind == "parts":  # small parts stay legible beside a large sum
        values = [v for v in values if abs(v) * 100 < _top(data)] or values
    factor, word = _scale(values, data.unit)
    if data.kind == "parts":
        _waterfall(axes, data, look, factor)
    elif look.type == "lines":
        _lines(axes, data, look, factor)
    else:
        _bars(axes, data, look, factor)
    unit = " ".join(filter(None, [data.unit.replace("percent", "%"), word]))
    _dress(figure, axes, look.title or data.title, unit, len(data.series) > 1)
    notes = (
        data.notes if look.type != "lines" or axes.get_ylim()[0] <= 0 else (*data.notes, "the axis does not begin at 0")
    )
    _foot(figure, [p.cite for s in data.series for p in s.points], notes, look)
    return picture_bytes(figure, form)


def _canvas(look: Look) -> tuple[Any, Any]:
    from matplotlib.figure import Figure

    figure = Figure(figsize=(look.width / 100, look.height / 100), dpi=100, facecolor="white")
    return figure, figure.add_subplot()


def _scale(values: Sequence[Decimal], unit: str) -> tuple[Decimal, str]:
    """One scale for all values, the largest in which the biggest has at least one digit before the point."""
    top = max((abs(v) for v in values), default=Decimal(0))
    if " a " in unit or unit in ("percent", "pence", "times"):
        return Decimal(1), ""
    return next(((f, w) for f, w in SCALES if top >= f), (Decimal(1), ""))


def _shown(value: Decimal, factor: Decimal, top: Decimal) -> str:
    """A value at the chart's scale; all of one chart with as many decimals, told by the largest."""
    if factor == 1:
        return number_words(value)
    return f"{value / factor:,.{1 if top >= 10 * factor else 2}f}".replace("-", "−")


def _top(data: ChartData) -> Decimal:
    return max((abs(p.value) for s in data.series for p in s.points), default=Decimal(0))


def _labels(data: ChartData) -> list[str]:
    """The places on the axis, in the order in which the series have them."""
    keys: dict[str, Any] = {}
    for series in data.series:
        for point in series.points:
            keys.setdefault(point.label, point.figure.period.end.toordinal() if point.figure.period else 0)
    times = all(s.points[i].figure.period for s in data.series for i in range(len(s.points)))
    by_time = times and len({p.figure.period for s in data.series[:1] for p in s.points}) > 1
    return sorted(keys, key=lambda k: keys[k]) if by_time else list(keys)


def _bars(axes: Any, data: ChartData, look: Look, factor: Decimal) -> None:
    labels = _labels(data)
    many = len(data.series)
    width = 0.8 / many
    for i, series in enumerate(data.series):
        held = {p.label: p for p in series.points}
        places = [j for j, label in enumerate(labels) if label in held]
        points = [held[labels[j]] for j in places]
        xs = [j + (i - (many - 1) / 2) * width for j in places]
        bars = axes.bar(
            xs,
            [float(p.value / factor) for p in points],
            width * 0.92,
            label=series.name,
            color=look.colours[i % len(look.colours)],
            edgecolor="white",
            hatch=HATCHES[i % len(HATCHES)] if many > 1 else "",
        )
        if look.values:
            size = 11 if many * len(labels) <= 14 else 9
            axes.bar_label(
                bars, [_shown(p.value, factor, _top(data)) for p in points], padding=3, fontsize=size, color=INK
            )
        if look.growth:
            _growth(axes, xs, points, factor)
    axes.set_xticks(range(len(labels)), [_wrapped(x) for x in labels])
    axes.axhline(0, color=INK, linewidth=0.8)
    axes.margins(y=0.16)


def _growth(axes: Any, xs: Sequence[float], points: Sequence[Point], factor: Decimal) -> None:
    """Growth against the point before, inside each bar."""
    for before, (x, point) in zip(points, list(zip(xs, points, strict=True))[1:], strict=False):
        if before.value > 0:
            change = (point.value / before.value - 1) * 100
            axes.annotate(
                f"{change:+.1f} %".replace("-", "−"),
                (x, float(point.value / factor) / 2),
                ha="center",
                va="center",
                fontsize=10,
                color="white",
                bbox={"boxstyle": "round,pad=0.25", "facecolor": INK, "edgecolor": "none", "alpha": 0.75},
            )


def _lines(axes: Any, data: ChartData, look: Look, factor: Decimal) -> None:
    labels = _labels(data)
    for i, series in enumerate(data.series):
        held = {p.label: p for p in series.points}
        places = [j for j, label in enumerate(labels) if label in held]
        points = [held[labels[j]] for j in places]
        ys = [float(p.value / factor) for p in points]
        axes.plot(
            places,
            ys,
            label=series.name,
            color=look.colours[i % len(look.colours)],
            linewidth=2.4,
            marker="osD^vPX*"[i % 8],
            markersize=7,
            linestyle=("-", "--", "-.", ":")[i % 4],
        )
        if look.values:
            for x, y, p in zip(places, ys, points, strict=True):
                axes.annotate(
                    _shown(p.value, factor, _top(data)),
                    (x, y),
                    textcoords="offset points",
                    xytext=(0, 9),
                    ha="center",
                    fontsize=10,
                    color=INK,
                )
    axes.set_xticks(range(len(labels)), [_wrapped(x) for x in labels])
    axes.margins(x=0.08, y=0.18)


def _waterfall(axes: Any, data: ChartData, look: Look, factor: Decimal) -> None:
    """Parts from left to right, each beginning where the last ended; then the total from nothing."""
    *parts, total = data.series[0].points
    level = Decimal(0)
    for i, point in enumerate(parts):
        bottom = min(level, level + point.value)
        colour = look.colours[0] if point.value >= 0 else look.colours[1]
        axes.bar(
            i,
            float(abs(point.value) / factor),
            0.7,
            bottom=float(bottom / factor),
            color=colour,
            hatch="" if point.value >= 0 else "//",
            edgecolor="white",
        )
        level += point.value
        axes.plot([i + 0.35, i + 0.65], [float(level / factor)] * 2, color=INK, linewidth=0.8)
        if look.values:
            axes.annotate(
                _shown(point.value, factor, _top(data)),
                (
                    i,
                    float(
                        (bottom if point.value < 0 and bottom + abs(point.value) == 0 else bottom + abs(point.value))
                        / factor
                    ),
                ),
                textcoords="offset points",
                xytext=(0, -14) if point.value < 0 and bottom + abs(point.value) == 0 else (0, 4),
                ha="center",
                fontsize=10,
                color=INK,
            )
    axes.bar(len(parts), float(total.value / factor), 0.7, color="#444444")
    if look.values:
        axes.annotate(
            _shown(total.value, factor, _top(data)),
            (len(parts), float(total.value / factor)),
            textcoords="offset points",
            xytext=(0, 4 if total.value >= 0 else -14),
            ha="center",
            fontsize=11,
            fontweight="bold",
            color=INK,
        )
    labels = [_wrapped(p.label, 14) for p in data.series[0].points]
    axes.set_xticks(
        range(len(labels)),
        labels,
        fontsize=9 if len(labels) <= 8 else 7.5,
        rotation=0 if len(labels) <= 9 else 40,
        ha="center" if len(labels) <= 9 else "right",
    )
    axes.axhline(0, color=INK, linewidth=0.8)
    axes.margins(y=0.14)


def _wrapped(label: str, width: int = 18) -> str:
    import textwrap

    return "\n".join(line for part in label.split("\n") for line in textwrap.wrap(part, width)) or label


def _dress(figure: Any, axes: Any, title: str, unit: str, legend: bool) -> None:
    axes.set_title(title, loc="left", fontsize=17, fontweight="bold", color=INK, pad=26 if legend else 16)
    axes.set_ylabel(unit, fontsize=11, color=INK)
    axes.spines[["top", "right", "left"]].set_visible(False)
    axes.yaxis.grid(True, color=FAINT, linewidth=0.8)
    axes.set_axisbelow(True)
    axes.tick_params(length=0, labelsize=11, colors=INK)
    axes.yaxis.set_major_formatter(lambda v, _: f"{v:,.10g}".replace("-", "−"))
    if legend:
        axes.legend(loc="lower left", bbox_to_anchor=(0, 1.0), ncols=4, frameon=False, fontsize=11, borderaxespad=0.2)


def _foot(figure: Any, cites: Sequence[Cite], notes: Sequence[str], look: Look) -> None:
    """The foot line: each document with its pages, then what was left out."""
    import textwrap

    pages: dict[str, list[str]] = {}
    for cite in cites:
        page = cite.cell or str(cite.pages[0] or cite.place)
        held = pages.setdefault(cite.document.name, [])
        if page not in held:
            held.append(page)
    words = [
        f"{name} p. {', '.join(sorted(p, key=lambda x: (len(x), x)))}"
        if all(x.isdigit() for x in p)
        else f"{name} {', '.join(p[:6])}"
        for name, p in pages.items()
    ]
    text = "Source: " + "; ".join(words) + ("" if not notes else ". " + "; ".join(notes))
    lines = textwrap.wrap(text, max(60, look.width // 8))[:4]
    deep = 0.2 if look.type == "waterfall" else 0.14
    figure.subplots_adjust(left=0.08, right=0.97, top=0.89, bottom=deep + 0.025 * (len(lines) - 1))
    figure.text(0.02, 0.018, "\n".join(lines), fontsize=9, color="#666666", va="bottom")


def picture_bytes(figure: Any, form: str) -> bytes:
    """The picture in a format; nothing but what is drawn goes into the file."""
    import matplotlib

    matplotlib.rcParams["svg.hashsalt"] = "yarnex"
    buffer = io.BytesIO()
    figure.savefig(buffer, format=form, metadata={"Date": None} if form == "svg" else {"Software": None})
    return buffer.getvalue()
