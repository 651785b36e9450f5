"""A cell's stored value and its number format -> the words that the cell shows (ECMA-376 part 1, 18.8.31).

Covers what reports use: decimals, thousands, scaling commas, per cent, signs and words in the format, sections for
negative and zero, dates and times. A format that is not understood shows the plain value.
"""

from __future__ import annotations

import re
from datetime import date, datetime, time, timedelta
from decimal import ROUND_HALF_UP, Decimal, InvalidOperation

from yarnex.core.patterns import pattern

TOKEN = pattern(r'"[^"]*"|\\.|_.|\*.|\[[^\]]*\]|.', re.DOTALL)
MONTHS = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def shown(value: object, format: str) -> str:
    """What a cell shows.

    >>> shown(0.125, "0.0%")
    '12.5%'
    >>> shown(-1204, "#,##0;(#,##0)")
    '(1,204)'
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    if isinstance(value, datetime | date | time | timedelta):
        return _moment(value, format)
    if not isinstance(value, int | float | Decimal):
        return str(value)
    try:
        number = Decimal(repr(value)) if isinstance(value, float) else Decimal(value)
    except InvalidOperation:
        return str(value)
    if not number.is_finite():
        return str(value)
    try:
        return _number(number, format)
    except (ValueError, InvalidOperation, IndexError):
        return plain(number)


def plain(number: Decimal) -> str:
    """A number without a format: as many digits as it needs, at most eleven, as spreadsheets show it."""
    if number == number.to_integral_value() and abs(number) < Decimal(10) ** 11:
        return f"{number.to_integral_value():f}"
    digits = max(0, 10 - max(0, number.adjusted()))
    return (
        f"{round(number, min(digits, 10)):f}".rstrip("0").rstrip(".")
        if number.adjusted() < 11
        else f"{number.normalize():E}"
    )


def _sections(format: str) -> list[list[str]]:
    out: list[list[str]] = [[]]
    for token in TOKEN.findall(format):
        if token == ";":
            out.append([])
        else:
            out[-1].append(token)
    return out


def _number(number: Decimal, format: str) -> str:
    if not format or format.lower() == "general":
        return plain(number)
    sections = _sections(format)
    if len(sections) > 1 and number < 0:
        section, number = sections[1], -number
    elif len(sections) > 2 and number == 0:
        section = sections[2]
    else:
        section = sections[0]
    if any(t in "/eE" for t in section if len(t) == 1) and any(t in "0#?" for t in section if len(t) == 1):
        return plain(number)  # fractions and powers: the plain value says no less
    slots = [i for i, t in enumerate(section) if t in ("0", "#", "?")]
    if not slots:
        return "".join(_literal(t) for t in section).strip()
    per_cent = sum(t == "%" for t in section)
    number *= Decimal(100) ** per_cent
    first, last = slots[0], slots[-1]
    point = next((i for i, t in enumerate(section) if t == "." and first - 1 <= i <= last), None)
    after = last + 1
    while after < len(section) and section[after] == ",":
        number /= 1000
        after += 1
    before_point = section[first : point if point is not None else last + 1]
    thousands = "," in before_point
    decimals = [t for t in section[point + 1 : last + 1] if t in ("0", "#", "?")] if point is not None else []
    whole = max(1 if "0" in before_point else 0, sum(t == "0" for t in before_point))
    number = number.quantize(Decimal(1).scaleb(-len(decimals)), ROUND_HALF_UP)
    sign = "-" if number < 0 else ""
    digits = f"{abs(number):f}"
    left, _, right = digits.partition(".")
    left = left.lstrip("0").rjust(whole, "0")
    if thousands and left:
        left = f"{int(left):,}".rjust(whole, "0")
    needed = len("".join(decimals).rstrip("#?"))
    while len(right) > needed and right.endswith("0"):
        right = right[:-1]
    middle = left + ("." + right if right else "")
    head = "".join(_literal(t) for t in section[: min(first, point if point is not None else first)])
    tail = "".join(_literal(t) for t in section[after:])
    return f"{sign}{head}{middle}{tail}".strip()


def _literal(token: str) -> str:
    if token.startswith('"'):
        return token[1:-1]
    if token.startswith("\\"):
        return token[1:]
    if token.startswith("[$"):
        return token[2:-1].split("-")[0]
    if token.startswith(("[", "*", "#", "?")):
        return ""
    if token.startswith("_"):
        return " "
    return token


def _moment(value: datetime | date | time | timedelta, format: str) -> str:
    """Dates and times; without a format for them, ISO 8601."""
    if isinstance(value, timedelta):
        seconds = int(value.total_seconds())
        return f"{seconds // 3600}:{seconds % 3600 // 60:02d}:{seconds % 60:02d}"
    first = _sections(format)[0] if format and format.lower() != "general" else []
    code = "".join(t for t in first if not t.startswith("[") or t.lower().startswith(("[h", "[m", "[s")))
    bare = "".join(t for t in first if not t.startswith(('"', "\\", "[")))
    if not re.search(r"[dmyhs]", bare, re.IGNORECASE):
        if isinstance(value, datetime):
            return value.date().isoformat() if value.time() == time() else value.isoformat(" ", "minutes")
        return value.isoformat()
    twelve = re.search(r"am/pm|a/p", code, re.IGNORECASE) is not None
    out: list[str] = []
    last = ""
    pieces = re.findall(r'"[^"]*"|\\.|am/pm|a/p|y+|m+|d+|h+|s+(?:\.0+)?|_.|\*.|.', code, re.IGNORECASE)
    for place, piece in enumerate(pieces):
        low = piece.lower()
        clock = value.time() if isinstance(value, datetime) else value if isinstance(value, time) else time()
        day = value if isinstance(value, date) else date(1899, 12, 31)
        minute = low[0] == "m" and (
            last == "h" or next((p[0].lower() for p in pieces[place + 1 :] if p[0].lower() in "ymdhs"), "") == "s"
        )
        if low in ("am/pm", "a/p"):
            out.append("AM" if clock.hour < 12 else "PM")
        elif low[0] == "y":
            out.append(f"{day.year % 100:02d}" if len(low) <= 2 else f"{day.year:04d}")
        elif low[0] == "m" and minute:
            out.append(f"{clock.minute:02d}")
        elif low[0] == "m":
            name = MONTHS[day.month - 1]
            out.append([str(day.month), f"{day.month:02d}", name[:3], name, name[0]][min(len(low), 5) - 1])
        elif low[0] == "d":
            name = DAYS[day.weekday()]
            out.append([str(day.day), f"{day.day:02d}", name[:3], name][min(len(low), 4) - 1])
        elif low[0] == "h":
            hour = (clock.hour % 12 or 12) if twelve else clock.hour
            out.append(f"{hour:02d}" if len(low) > 1 else str(hour))
        elif low[0] == "s":
            out.append(f"{clock.second:02d}" if len(low) > 1 else str(clock.second))
        else:
            out.append(_literal(piece))
        last = low[0] if low[0] in "ymdhs" else last
    return "".join(out).strip()
