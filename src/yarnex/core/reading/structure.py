"""Headings, numbers and levels for formats that may mark headings themselves, in one step that their readers share."""

from __future__ import annotations

from yarnex.core.document.clause_numbers import number_of
from yarnex.core.reading.layout.headings import contents_of, full_numbers, mark_headings, run_in_heading
from yarnex.core.reading.layout.paragraphs import Draft

ENOUGH = 2  # headings that the file marks itself before its word is taken for all of them


def structure(drafts: list[Draft]) -> list[Draft]:
    """Drafts with numbers, headings and levels. Where the file marks headings, bold paragraphs are none."""
    if sum(d.kind == "heading" for d in drafts) < ENOUGH:
        drafts = mark_headings(drafts, frozenset(), frozenset())
    else:
        inside = contents_of(drafts)
        above = 0
        for place, draft in enumerate(drafts):
            if place in inside:
                if draft.kind == "heading":
                    draft.level = draft.level or 1
                continue
            if draft.kind == "heading":
                above = draft.level or 1
                if not draft.number:
                    draft.number, rest = number_of(draft.text)
                    draft.heading = rest.strip(" .:") if draft.number and rest.strip(" .:") else draft.text
                    draft.number = draft.number if draft.heading != draft.text else ""
            elif draft.kind == "paragraph" and not draft.level:
                draft.number, rest = number_of(draft.text) if not draft.number else (draft.number, draft.text)
                if draft.number:
                    draft.heading = run_in_heading(draft, draft.number, rest)
                    bare = draft.number.split()[-1]
                    depth = bare.strip(".").count(".") + 1 if bare[:1].isdigit() else 0
                    draft.level = max(above + 1, depth) if depth else 9
    full_numbers(drafts)
    return drafts
