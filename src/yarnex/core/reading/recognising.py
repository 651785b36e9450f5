"""A picture of a page -> words with boxes and certainty, drawn lines and black bars (optical character recognition).

The engine is RapidOCR on ONNX Runtime, whose models are part of its package, so nothing is fetched; Tesseract is used
where it is chosen. Boxes are straightened (deskewed) for the layout; `Recognised.skew` says by how much the page lay
askew. What is ours here: which way up the page is, words out of lines, sizes, weight, bars, rules, struck words.
"""

from __future__ import annotations

import csv
import io
import math
import re
import shutil
import subprocess
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from statistics import median
from typing import Any

from yarnex.core.errors import YarnexError
from yarnex.core.reading.layout.words import REDACTED, Rule, Word

LONG_SIDE = 1600  # pixels of the longer side that the engine is given
MANY_LINES = 8  # long ones that show together how far a page lies askew
MOST_SKEW = 3.0  # degrees
POOR = 0.72  # mean certainty under which other ways up are tried
MAX_PIXELS = 120_000_000
TESSERACT_SECONDS = 180
EVEN = 0.24  # lines whose height differs by less than this share from the usual one are of the same size of type
LETTERS = 0.78  # of a line's box: the box stands off from its letters
HEAVIER = 1.13  # strokes thicker than this many times the usual ones are bold
Line = tuple[str, float, list[tuple[str, float, list[tuple[float, float]]]], list[tuple[float, float]]]


@dataclass(slots=True)
class Recognised:
    """Marks of a page in points from its top left corner, straightened. turned: degrees clockwise it lay turned."""

    words: list[Word]
    rules: list[Rule]
    skew: float = 0.0
    turned: int = 0
    struck: list[str] = field(default_factory=list)


Recogniser = Callable[[Any, float], Recognised]


def recogniser(scans: str, threads: int = 0) -> Recogniser | None:
    """A function (picture, pixels a point) -> Recognised; None for "skip". Raises YarnexError for a wrong or missing engine."""
    if scans == "skip":
        return None
    if scans == "recognise":
        return lambda picture, scale: recognise(picture, scale, lambda image: _rapid_lines(image, threads))
    if scans == "tesseract":
        program = shutil.which("tesseract")
        if program is None:
            raise YarnexError(
                "Tesseract is not installed", where="--scans tesseract", do="install it, or leave --scans out"
            )
        return lambda picture, scale: recognise(picture, scale, lambda image: _tesseract_lines(image, str(program)))
    raise YarnexError(f"{scans!r} is no way to read scans", where="--scans", do="use recognise, tesseract or skip")


def recognise(picture: Any, scale: float, read_lines: Callable[[Any], list[Line]]) -> Recognised:
    """Words, rules and bars of a page's picture (a PIL image with `scale` pixels a point)."""
    import numpy as np

    grey = np.asarray(picture.convert("L"))
    if grey.size > MAX_PIXELS or min(grey.shape) < 8:
        return Recognised([], [])
    shrink = min(1.0, LONG_SIDE / max(grey.shape))
    turned, lines, image = _upright(grey, shrink, read_lines)
    if not lines:
        return Recognised([], [])
    scale *= shrink
    height, width = image.shape
    ink = _ink(image)
    angle = _skew(lines, ink)
    turn = _turner(angle, width / 2, height / 2)
    words = _words(lines, turn, ink)
    bars, rules = _drawn(image, angle)
    struck = _struck(words, rules, _straightened(ink, angle))
    words = _with_boxes(words, _straightened(ink, angle))
    gone = {id(w) for w in struck}
    kept = _with_bars([w for w in words if id(w) not in gone], bars)
    factor = 1 / scale
    return Recognised(
        [w._replace(x0=w.x0 * factor, top=w.top * factor, x1=w.x1 * factor, bottom=w.bottom * factor, size=w.size * factor) for w in kept],
        [Rule(r.x0 * factor, r.top * factor, r.x1 * factor, r.bottom * factor) for r in rules],
        angle, turned, [w.text for w in struck],
    )  # fmt: skip


def _upright(grey: Any, shrink: float, read_lines: Callable[[Any], list[Line]]) -> tuple[int, list[Line], Any]:
    """Degrees by which the page lay turned, its lines when upright, and the upright picture."""
    import cv2
    import numpy as np

    image = cv2.resize(grey, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA) if shrink < 1 else grey
    best: tuple[float, int, list[Line], Any] | None = None
    lines = read_lines(image)
    if not lines:
        return 0, [], image
    standing = sum(_tall(box) for text, _, _, box in lines if len(text) > 3)
    lying = sum(not _tall(box) for text, _, _, box in lines if len(text) > 3)
    first = _merit(lines)
    if standing <= lying and first >= POOR:
        return 0, lines, image
    turns = (90, 270) if standing > lying else (180,)
    best = (first if standing <= lying else 0.0), 0, lines, image
    for degrees in turns:
        other = np.ascontiguousarray(np.rot90(image, degrees // 90))
        found = read_lines(other)
        merit = _merit(found)
        if merit > best[0] + 0.05:
            best = merit, degrees, found, other
    return best[1], best[2], best[3]


def _tall(box: Sequence[tuple[float, float]]) -> bool:
    xs, ys = [p[0] for p in box], [p[1] for p in box]
    return max(ys) - min(ys) > 1.5 * (max(xs) - min(xs))


def _merit(lines: list[Line]) -> float:
    """Mean certainty, each line weighing as many letters as it has."""
    letters = sum(len(text) for text, *_ in lines)
    return sum(score * len(text) for text, score, *_ in lines) / letters if letters else 0.0


# ------------------------------------------------------------------ engines
@lru_cache(maxsize=2)
def _rapid(threads: int) -> Any:
    import logging

    logging.getLogger("RapidOCR").setLevel(logging.CRITICAL)
    from rapidocr import RapidOCR

    settings: dict[str, Any] = {
        "Global.log_level": "critical",
        "Global.use_cls": False,
        "Global.max_side_len": LONG_SIDE,
    }
    if threads:
        settings["EngineConfig.onnxruntime.intra_op_num_threads"] = threads
    return RapidOCR(params=settings)


def _rapid_lines(image: Any, threads: int) -> list[Line]:
    import cv2

    result = _rapid(threads)(cv2.cvtColor(image, cv2.COLOR_GRAY2BGR), use_cls=False, return_word_box=True)
    if result is None or result.boxes is None or result.txts is None:
        return []
    pieces = result.word_results or [()] * len(result.txts)
    out: list[Line] = []
    for text, score, box, parts in zip(result.txts, result.scores, result.boxes, pieces, strict=False):
        split = [
            (str(p[0]), float(p[1]), [(float(x), float(y)) for x, y in p[2]]) for p in parts if p and p[2] is not None
        ]
        out.append((str(text), float(score), split, [(float(x), float(y)) for x, y in box]))
    return out


def _tesseract_lines(image: Any, program: str) -> list[Line]:
    """Lines by Tesseract, from its table of words."""
    from PIL import Image

    buffer = io.BytesIO()
    Image.fromarray(image).save(buffer, "PNG")
    try:
        done = subprocess.run(
            [program, "stdin", "stdout", "--psm", "3", "tsv"],
            input=buffer.getvalue(),
            capture_output=True,
            timeout=TESSERACT_SECONDS,
            check=False,
        )
    except (OSError, subprocess.TimeoutExpired):
        return []
    lines: dict[tuple[str, ...], list[tuple[str, float, list[tuple[float, float]]]]] = {}
    for row in csv.DictReader(
        io.StringIO(done.stdout.decode("utf-8", "replace")), delimiter="\t", quoting=csv.QUOTE_NONE
    ):
        text = (row.get("text") or "").strip()
        if not text or row.get("level") != "5":
            continue
        x, y, w, h = (float(row[k] or 0) for k in ("left", "top", "width", "height"))
        box = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)]
        lines.setdefault((row["block_num"], row["par_num"], row["line_num"]), []).append(
            (text, float(row["conf"] or 0) / 100, box)
        )
    out: list[Line] = []
    for words in lines.values():
        points = [p for _, _, box in words for p in box]
        x0, y0, x1, y1 = (
            min(p[0] for p in points),
            min(p[1] for p in points),
            max(p[0] for p in points),
            max(p[1] for p in points),
        )
        out.append(
            (
                " ".join(w for w, _, _ in words),
                sum(s for _, s, _ in words) / len(words),
                words,
                [(x0, y0), (x1, y0), (x1, y1), (x0, y1)],
            )
        )
    return out


# ------------------------------------------------------------------ straightening
def _skew(lines: list[Line], ink: Any) -> float:
    """Degrees by which lines rise (negative) or fall to the right: the median over long lines.

    Where there are few, the angle at which the ink of the page falls into the sharpest rows (the projection profile).
    """
    angles = []
    for text, _, _, box in lines:
        (x0, y0), (x1, y1) = box[0], box[1]
        if len(text) > 12 and x1 - x0 > 100:
            angles.append(math.degrees(math.atan2(y1 - y0, x1 - x0)))
    if len(angles) >= MANY_LINES:
        return median(angles)
    return _skew_of_ink(ink)


def _skew_of_ink(ink: Any) -> float:
    """The angle, in degrees within MOST_SKEW, at which the rows of ink are sharpest; 0 for a page with hardly any ink."""
    import numpy as np

    ys, xs = np.nonzero(ink)
    if len(xs) < 500:
        return 0.0
    every = max(1, len(xs) // 40_000)
    ys, xs = ys[::every].astype(float), xs[::every].astype(float)

    def sharpness(angle: float) -> float:
        rows = np.bincount((ys - xs * math.tan(math.radians(angle)) + 2 * ink.shape[1]).astype(int) // 2)
        return float((rows.astype(float) ** 2).sum())

    steps = round(4 * MOST_SKEW)
    coarse = _sharpest([k / 4 for k in range(-steps, steps + 1)], sharpness)
    return round(_sharpest([coarse + k / 20 for k in range(-5, 6)], sharpness), 2)


def _sharpest(angles: list[float], sharpness: Callable[[float], float]) -> float:
    return max(angles, key=sharpness)


def _turner(angle: float, cx: float, cy: float) -> Callable[[float, float], tuple[float, float]]:
    """A function that turns a point back by the page's skew around the page's middle."""
    if abs(angle) < 0.05:
        return lambda x, y: (x, y)
    cosine, sine = math.cos(math.radians(-angle)), math.sin(math.radians(-angle))
    return lambda x, y: (cx + (x - cx) * cosine - (y - cy) * sine, cy + (x - cx) * sine + (y - cy) * cosine)


# ------------------------------------------------------------------ words
def _words(lines: list[Line], turn: Callable[[float, float], tuple[float, float]], ink: Any) -> list[Word]:
    """Lines -> words, sizes evened out over the page, thick strokes taken for bold."""
    found: list[tuple[list[Word], float, float, float]] = []
    for text, score, pieces, box in lines:
        points = [turn(*p) for p in box]
        left, right = (points[0][0] + points[3][0]) / 2, (points[1][0] + points[2][0]) / 2
        middle = sum(p[1] for p in points) / 4
        tall = max(2.0, (math.dist(points[0], points[3]) + math.dist(points[1], points[2])) / 2)
        tokens = _tokens(text)
        if not tokens or right <= left:
            continue
        places = _place(tokens, pieces, turn, left, right, score)
        words = [
            Word(token, x0, middle, x1, middle, tall, False, max(1, min(99, round(100 * sure))))
            for token, (x0, x1, sure) in zip(tokens, places, strict=True)
        ]
        found.append((words, middle, tall, _stroke(ink, box) if len(text) > 3 else 0.0))
    usual = median([tall for words, _, tall, _ in found for _ in words]) if found else 0.0
    strokes = [stroke for words, _, tall, stroke in found if stroke and abs(tall - usual) < EVEN * usual for _ in words]
    thin = median(strokes) if len(strokes) > 20 else 0.0
    out: list[Word] = []
    for words, middle, tall, stroke in sorted(found, key=lambda f: (f[1], f[0][0].x0)):
        even = abs(tall - usual) < EVEN * usual
        size = LETTERS * (usual if even else tall)
        bold = bool(thin) and stroke > HEAVIER * thin * (1 if even else tall / usual)
        out += [w._replace(top=middle - size / 2, bottom=middle + size / 2, size=size, bold=bold) for w in words]
    return out


def _tokens(text: str) -> list[str]:
    """The words of a line; where the engine dropped the blank after a clause number or comma, the two are parted."""
    out: list[str] = []
    for token in text.split():
        parts = re.sub(r"(?<=^)(\(?\d{1,2}(?:\.\d{1,2})*[.)])(?=[A-Z][a-z])", r"\1 ", token)
        parts = (
            re.sub(r"(?<=[a-z]{2}[,;:])(?=[A-Za-z]{2})", " ", parts)
            if "://" not in parts and "@" not in parts
            else parts
        )
        out += parts.split()
    return out


def _place(
    tokens: list[str], pieces: list[tuple[str, float, list[tuple[float, float]]]], turn: Callable[[float, float], tuple[float, float]],
    left: float, right: float, score: float,
) -> list[tuple[float, float, float]]:  # fmt: skip
    """Left and right edge and certainty of each token, from the engine's own pieces where they spell the line."""
    spelled = "".join(p[0] for p in pieces).replace(" ", "")
    whole = "".join(tokens)
    out: list[tuple[float, float, float]] = []
    if spelled == whole:
        edges: list[tuple[float, float, float]] = []  # one entry a letter
        for text, sure, box in pieces:
            letters = len(text.replace(" ", ""))
            points = [turn(*p) for p in box]
            x0, x1 = min(p[0] for p in points), max(p[0] for p in points)
            edges += [(x0 + (x1 - x0) * i / letters, x0 + (x1 - x0) * (i + 1) / letters, sure) for i in range(letters)]
        at = 0
        for token in tokens:
            mine = edges[at : at + len(token)]
            at += len(token)
            out.append((mine[0][0], mine[-1][1], min(m[2] for m in mine)))
        for i in range(1, len(out)):  # pieces may overlap by a pixel or two; words must not
            if out[i][0] < out[i - 1][1]:
                cut = (out[i][0] + out[i - 1][1]) / 2
                out[i - 1] = (out[i - 1][0], max(out[i - 1][0] + 1, cut - 1), out[i - 1][2])
                out[i] = (cut + 1, max(cut + 2, out[i][1]), out[i][2])
        return out
    length = len(" ".join(tokens))
    at = 0
    for token in tokens:
        out.append((left + (right - left) * at / length, left + (right - left) * (at + len(token)) / length, score))
        at += len(token) + 1
    return out


def _ink(image: Any) -> Any:
    """Dark pixels as ones, by Otsu's threshold over neighbourhoods (uneven light)."""
    import cv2

    return cv2.adaptiveThreshold(image, 1, cv2.ADAPTIVE_THRESH_MEAN_C, cv2.THRESH_BINARY_INV, 31, 15)


def _stroke(ink: Any, box: list[tuple[float, float]]) -> float:
    """Mean thickness of a line's strokes in pixels: twice the area of its ink over the length of its edge."""
    import cv2

    xs, ys = [p[0] for p in box], [p[1] for p in box]
    crop = ink[max(0, int(min(ys))) : int(max(ys)) + 1, max(0, int(min(xs))) : int(max(xs)) + 1]
    area = int(crop.sum())
    if area < 20:
        return 0.0
    inner = int(cv2.erode(crop, None).sum())
    return 2 * area / max(1, area - inner)


# ------------------------------------------------------------------ bars and rules
def _straightened(image: Any, angle: float, ground: int = 0) -> Any:
    """The picture turned back by its skew."""
    import cv2

    height, width = image.shape
    if abs(angle) < 0.05:
        return image
    matrix = cv2.getRotationMatrix2D((width / 2, height / 2), angle, 1.0)
    return cv2.warpAffine(image, matrix, (width, height), borderValue=ground)


BOX_SIDES = 0.9  # share of each side of a form's box that is ink
EMPTY, FULL = 0.05, 0.85  # share of a box's inside that is ink: less is empty, more is a bullet or a blot


def _with_boxes(words: list[Word], ink: Any) -> list[Word]:
    """Words with the boxes of forms, as signs that say whether each is ticked, in place of what was recognised of them."""
    import cv2

    usual = median([w.size for w in words]) if words else 0.0
    if usual < 8:
        return words
    contours, _ = cv2.findContours(ink, cv2.RETR_LIST, cv2.CHAIN_APPROX_SIMPLE)
    found: list[Word] = []
    for contour in contours:
        x, y, wide, tall = cv2.boundingRect(contour)
        if not (0.5 * usual <= wide <= 1.5 * usual and 0.8 <= wide / tall <= 1.25):
            continue
        corners = cv2.approxPolyDP(contour, 0.06 * cv2.arcLength(contour, True), True)
        if len(corners) != 4 or cv2.contourArea(contour) < 0.85 * (wide - 1) * (tall - 1):
            continue
        if any(_is_letter_of(w, x + wide / 2, y + tall / 2, wide) for w in words):
            continue
        part = ink[y : y + tall, x : x + wide]
        band = max(2, wide // 8)
        sides = part[:band].max(0), part[-band:].max(0), part[:, :band].max(1), part[:, -band:].max(1)
        if min(float(s.mean()) for s in sides) < BOX_SIDES:
            continue
        inside = part[2 * band : -2 * band, 2 * band : -2 * band]
        share = float(inside.mean()) if inside.size else 1.0
        middle = x + wide / 2, y + tall / 2
        if share > FULL or any(math.dist(middle, ((f.x0 + f.x1) / 2, (f.top + f.bottom) / 2)) < wide for f in found):
            continue
        sign = "☐" if share < EMPTY else "☒"
        found.append(Word(sign, x, middle[1] - usual / 2, x + wide, middle[1] + usual / 2, usual, False, 80))
    return [w for w in words if not any(_is_of_box(w, f) for f in found)] + found if found else words


def _is_letter_of(word: Word, x: float, y: float, wide: float) -> bool:
    """True where a point lies in a word of several letters, away from its ends."""
    inside = word.x0 + 0.2 * wide < x < word.x1 - 0.2 * wide and word.top < y < word.bottom
    return inside and sum(c.isalnum() for c in word.text) > 1


def _is_of_box(word: Word, box: Word) -> bool:
    """True for what was recognised of a box alone: no wider, and in the same place."""
    level = abs(word.top + word.bottom - box.top - box.bottom) < box.size
    return level and word.x0 > box.x0 - 0.5 * box.size and word.x1 < box.x1 + 0.5 * box.size


def _drawn(image: Any, angle: float) -> tuple[list[tuple[float, float, float, float]], list[Rule]]:
    """Black bars and ruled lines of a picture, straightened."""
    import cv2
    import numpy as np

    height, width = image.shape
    image = _straightened(image, angle, 255)
    dark = _ink(image)
    kernel: Any = np.ones((9, 25), np.uint8)
    solid = cv2.morphologyEx((image < 80).astype(np.uint8), cv2.MORPH_OPEN, kernel)
    count, _, stats, _ = cv2.connectedComponentsWithStats(solid, connectivity=8)
    bars = []
    for i in range(1, count):
        x, y, w, h, area = (int(v) for v in stats[i])
        inside = 0.05 * width < x and x + w < 0.95 * width  # holes and shadows stand at the edges
        if w >= 2 * h and area > 0.92 * w * h and h < 0.04 * max(image.shape) and w < 0.9 * width and inside:
            bars.append((float(x), float(y), float(x + w), float(y + h)))
    rules: list[Rule] = []
    for size, level in (((1, max(40, width // 30)), True), ((max(30, height // 60), 1), False)):
        thick = cv2.dilate(dark, np.ones((3, 1) if level else (1, 3), np.uint8))
        lines = cv2.morphologyEx(thick, cv2.MORPH_OPEN, np.ones(size, np.uint8))
        count, _, stats, _ = cv2.connectedComponentsWithStats(lines, connectivity=8)
        for i in range(1, count):
            x, y, w, h, _ = (int(v) for v in stats[i])
            if (h if level else w) > 14:
                continue
            if any(b[0] - 3 <= x and x + w <= b[2] + 3 and b[1] - 3 <= y and y + h <= b[3] + 3 for b in bars):
                continue
            rules.append(Rule(x, y + h / 2, x + w, y + h / 2) if level else Rule(x + w / 2, y, x + w / 2, y + h))
    return bars, rules


def _struck(words: list[Word], rules: list[Rule], ink: Any) -> list[Word]:
    """Words through whose middle a line is drawn: one row of pixels is dark from end to end."""
    import cv2
    import numpy as np

    out = []
    level = [r for r in rules if r.horizontal]
    thick = cv2.dilate(ink, np.ones((2, 1), np.uint8))
    for word in words:
        middle, tall = (word.top + word.bottom) / 2, word.bottom - word.top
        if not re.search(r"\w", word.text):
            continue
        for rule in level:
            covered = min(word.x1, rule.x1) - max(word.x0, rule.x0)
            if abs(rule.top - middle) < 0.2 * tall and covered > 0.7 * (word.x1 - word.x0):
                band = thick[int(middle - 0.2 * tall) : int(middle + 0.2 * tall) + 1, int(word.x0) : int(word.x1) + 1]
                if band.size and float(band.mean(axis=1).max()) > 0.94:
                    out.append(word)
                break
    return out


def _with_bars(words: list[Word], bars: list[tuple[float, float, float, float]]) -> list[Word]:
    """Words with marks for the bars put where they stand in the reading order; what shows under a bar goes."""
    if not bars:
        return words
    size = median([w.size for w in words]) if words else 12.0
    kept = list(words)
    for x0, top, x1, bottom in bars:
        kept = [w for w in kept if not (x0 <= (w.x0 + w.x1) / 2 <= x1 and top <= (w.top + w.bottom) / 2 <= bottom)]
        middle = (top + bottom) / 2
        line = [i for i, w in enumerate(kept) if w.top <= middle <= w.bottom]
        near = [i for i in line if kept[i].x1 <= x0 + 3]
        model = kept[near[-1]] if near else kept[line[0]] if line else None
        letters = max(3, min(20, round((x1 - x0) / max(size * 0.55, 3))))
        bar = Word(
            REDACTED * letters,
            x0,
            model.top if model else top,
            x1,
            model.bottom if model else bottom,
            model.size if model else size,
            False,
        )
        place = max(near, key=lambda i: kept[i].x1) + 1 if near else (line[0] if line else len(kept))
        kept.insert(place, bar)
    return kept
