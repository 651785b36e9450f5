"""The number with which a clause, an item or a schedule opens: "4.5", "(a)", "Schedule 2"."""

from __future__ import annotations

import re

from yarnex.core.patterns import pattern

CLAUSE = pattern(
    r"""(?P<number>
      (?:(?:(?:section|clause|article|paragraph|item|part|rule)\s+)|(?:(?:art|sec|cl|para)\.\s*|§{1,2}\s*)(?=\d))(?:\d{1,3}(?:\.\d{1,3}){0,4}|[ivxlc]{1,7}|[a-z])\b\.?
    | \d{1,3}(?:\.\d{1,3}){1,4}\.?
    | \d{1,3}\.(?=\s)
    | \d{1,2}\)(?=\s)
    | \((?:\d{1,3}|[a-z]{1,2}|[ivxl]{1,6}|[A-Z])\)
    | [a-zA-Z]\)(?=\s)
    | [A-Z]\.(?=\s+[A-Z“"])
    | (?:schedule|exhibit|appendix|annex|annexure|attachment)\s+(?:\d{1,3}|[ivxlc]{1,6}|[a-z])\b
    | (?:(?:first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth)\s+(?:schedule|appendix|annex))\b
    | [•●▪◦‣∙·–—](?=\s)
    )\s*(?P<rest>.*)""",
    re.IGNORECASE | re.VERBOSE | re.DOTALL,
)


def number_of(text: str) -> tuple[str, str]:
    """A clause number at the start of a text and the rest; ("", text) where there is none.

    >>> number_of("4.5 Repair. To put")
    ('4.5', 'Repair. To put')
    """
    m = CLAUSE.match(text)
    if not m:
        return "", text
    number = m["number"].strip()
    if number.isdigit() or (number[0].isalpha() and number[1:2] == ")" and not m["rest"]):
        return "", text
    if len(number) > 3 and number[0].isalpha() and re.match(r"[a-z,;)]", m["rest"]):
        return "", text  # "Section 4.2 of the Lease is deleted"
    return number.rstrip("."), m["rest"]
