"""Blocks -> blocks that know whether they are headings, with number, heading words and level."""

from __future__ import annotations

import itertools
import re
from collections import Counter

from yarnex.core.document.clause_numbers import number_of
from yarnex.core.patterns import pattern
from yarnex.core.reading.layout.furniture import roman_value
from yarnex.core.reading.layout.paragraphs import DIVISION, Draft

MAX_HEADING = 130  # characters
RUN_IN = pattern(r"([A-Z][\w'’“”\" ,;/&()-]{1,70}?)(?:\.\s+(?=[A-Z“\"(\[£$€\d])|(?::|\s[–—-])\s+(?=[A-Z“\"(\[]))")
SHORTENED = pattern(
    r"\b(?:nos?|approx|figs?|vols?|arts?|secs?|st|drs?|mrs?|ms|messrs|pp?|c|ca|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec)\Z",
    re.IGNORECASE,
)  # no title, but a word cut short before a number
NAME = pattern(r"\b(?:LIMITED|LTD|LLC|LLP|INC|PLC|DAC|GMBH|L\.P|BETWEEN|WITNESSETH)\b|\A\W*AND\b|\d")
SMALL = {
    "a",
    "an",
    "and",
    "as",
    "at",
    "by",
    "for",
    "from",
    "in",
    "of",
    "on",
    "or",
    "the",
    "to",
    "with",
    "not",
    "its",
    "under",
}
LABEL = pattern(r"[^:]{1,40}:\s+\S")


def body_size(drafts: list[Draft]) -> float:
    """The size of type in which most words are set."""
    sizes: Counter[float] = Counter()
    for draft in drafts:
        for _, words in draft.lines:
            if not words:
                continue
            sizes[round(words[0].size * 2) / 2] += len(words)
    return sizes.most_common(1)[0][0] if sizes else 10.0


def mark_headings(drafts: list[Draft], outline_titles: frozenset[str], cover_pages: frozenset[int]) -> list[Draft]:
    """Give each draft its number, heading words and level; join a division's number with its title.

    outline_titles: titles of the file's own outline, lower case. cover_pages: pages too empty to hold sections.
    """
    size = body_size(drafts)
    contents = contents_of(drafts)
    for place, draft in enumerate(drafts):
        if place in contents:
            continue
        if draft.kind != "paragraph" or draft.level:
            continue
        text = draft.text
        number, rest = number_of(text)
        draft.number = number
        on_cover = draft.lines[0][0] in cover_pages
        if not on_cover and _is_heading(draft, text, number, rest, size, outline_titles):
            draft.kind, draft.heading = "heading", rest.strip(" .:") if number else text.strip()
        else:
            draft.heading = run_in_heading(draft, number, rest)
    _lone_run_ins(drafts)
    after = drafts[max(contents) + 1] if contents and max(contents) + 1 < len(drafts) else None
    drafts = _join_titles(drafts)
    _set_levels(drafts, size)
    if after is not None and after.kind == "paragraph" and not after.level and not after.number:
        after.level = 1  # what follows the list of contents does not stand under it
    return drafts


CONTENTS = pattern(r"(?:table of )?contents|index|inhalt\Z", re.IGNORECASE)
LEADER = pattern(r"(?:\.\s?){4,}|…")
LED_TO_PAGE = pattern(r"(?:\.\s?){6,}\s*(?:\d{1,3}|[ivxl]{1,6})\Z")
LISTED = pattern(r"\s(?:\d{1,3}|[ivxl]{1,6})\Z")


def contents_of(drafts: list[Draft]) -> frozenset[int]:
    """Places of the drafts that list the document's contents: they name sections but begin none."""
    inside: set[int] = set()
    reading = False
    tabled = False  # the list itself was a table: what follows it without a page number is no entry
    page = 0
    for place, draft in enumerate(drafts):
        if draft.kind == "table":
            if reading and draft.table_page != page:
                reading = False
            tabled = tabled or reading
            continue
        if not draft.lines:
            continue
        text = draft.text
        if CONTENTS.fullmatch(text.strip()):
            reading, tabled, page = True, False, draft.lines[0][0]
            continue  # the word itself heads the page
        if reading and not LEADER.search(text):
            listed = LISTED.search(text) and not draft.bold
            if not listed and (tabled or len(text) > 160 or draft.lines[0][0] != page):
                reading = False
        if reading or (len(text) < 120 and LED_TO_PAGE.search(text)):
            inside.add(place)
    return frozenset(inside)


def _is_heading(draft: Draft, text: str, number: str, rest: str, size: float, titles: frozenset[str]) -> bool:
    if len(text) > MAX_HEADING or len(draft.lines) > 3 or not re.search(r"[A-Za-z]{2}", text):
        return False
    if text.lower() in titles or (number and rest.lower() in titles):
        return True
    if re.search(r"(?:\.\s?){4,}|_{3,}|\$\s?\d|[;,]\Z|\b(?i:and|or|the|of|to)\Z", text) or (
        re.search(r"\s\d{1,3}\Z", text)
        and draft.size <= size
        and not (number and draft.bold)
        and not DIVISION.match(text)
    ):
        return False
    if text[:1].islower() or text.startswith(("(", "[", "“", '"')):
        return False
    if text.endswith(":") and not number:
        return False
    letters = [c for c in text if c.isalpha()]
    words = [w for _, line in draft.lines for w in line][len(number.split()) :]
    bold = draft.bold or (bool(number) and bool(words) and all(w.bold for w in words))
    caps = sum(c.isupper() for c in letters) > 0.85 * len(letters) and len(letters) > 3
    if DIVISION.match(text) and (caps or bold or draft.centred or draft.size > size + 0.6) and len(rest) < 90:
        return True
    if number.startswith("("):
        return bold and caps
    if number and not rest:
        return False
    if LABEL.match(text) and not number:
        return False
    text_end = text.rstrip(" ⁰¹²³⁴⁵⁶⁷⁸⁹")
    ended = text_end.endswith(".") and not text.endswith(("Inc.", "Ltd.", "Co."))
    if draft.size > size * 1.12 and not ended:
        return True
    if bold and len(text) < 100 and not (ended and not number):
        return True
    if caps and number and not ended:
        return True
    if not caps or ended or NAME.search(text):
        return False
    return draft.centred if len(text.split()) > 4 else draft.centred or (len(draft.lines) == 1 and len(letters) > 4)


# "Holidays. 27 days and the eight public holidays.": a title before its paragraph, without a number.
LONE_RUN_IN = pattern(
    r"(?:\d{1,2}\s+(?P<note>[A-Z][\w'’-]*(?:\s[\w'’&,-]+){0,5})|(?P<title>[A-Z][\w'’-]*(?:\s[\w'’&-]+){0,3}))\.\s+(?=[A-Z£$€\d(“\"])"
)  # also "7 Auditor. Fees payable to ...", a note with its number
NO_TITLE = frozenset(
    [
        "yes",
        "no",
        "thanks",
        "ok",
        "okay",
        "right",
        "sure",
        "true",
        "none",
        "sorry",
        "well",
        "hello",
        "correct",
        "agreed",
        "exactly",
        "good",
        "indeed",
        "maybe",
        "perhaps",
        "never",
        "not",
    ]
)
LONE_LEAST, LONE_SHARE = 4, 0.25  # of such paragraphs, and what share of all


def _lone_run_ins(drafts: list[Draft]) -> None:
    """Give paragraphs their title where a paper sets enough of them so, each with a title of its own."""
    paragraphs = [d for d in drafts if d.kind == "paragraph" and not d.number and not d.level]
    found = [(d, m["title"] or m["note"]) for d in paragraphs if not d.heading and (m := LONE_RUN_IN.match(d.text))]
    found = [(d, t) for d, t in found if t.split()[0].lower() not in NO_TITLE and len(d.text) > len(t) + 25]
    titles = {t for _, t in found}
    if len(found) >= LONE_LEAST and len(found) >= LONE_SHARE * len(paragraphs) and len(titles) > 0.8 * len(found):
        for draft, title in found:
            draft.heading = title


# "5.3 Danish law governs.": a short sentence is no title.
SAYS_SOMETHING = pattern(
    r"\s(?:is|are|was|were|has|have|had|may|must|shall|will|can|does|do|did|governs?|applies|apply|runs?|ends|begins|starts|lasts|pays?|gets?|gives?|takes?|bears?|holds?|stays?|remains?|owns?|keeps?|sends?|needs?|follows?|survives?|binds?|prevails?)\b"
)


def run_in_heading(draft: Draft, number: str, rest: str) -> str:
    """Heading words at the start of a clause: set in bold, or a short title closed by a full stop."""
    if not number or number in "•●▪◦‣∙·–—":
        return ""
    words = [w for _, line in draft.lines[:3] for w in line]
    skip = len(number.split())
    bold: list[str] = []
    for word in words[skip:]:
        if not word.bold:
            break
        bold.append(word.text)
    if bold and bold[-1].endswith(","):
        return ""  # a party's name in bold
    if bold and len(bold) < len(words) - skip and len(bold) <= 12 and bold[0][:1].isupper() and bold[0][:1] not in '“"':
        return " ".join(bold).strip(" .:–—-")
    m = RUN_IN.match(rest)
    if m and len(rest) > len(m[1]) + 12 and not SHORTENED.search(m[1]):
        title = m[1].split()
        if len(title) <= 8 and (
            m[1].isupper()
            or sum(w[:1].isupper() or w.lower() in SMALL for w in title) == len(title)
            or (len(title) <= 4 and not SAYS_SOMETHING.search(m[1]))
        ):
            return m[1].strip()
    return ""


def _join_titles(drafts: list[Draft]) -> list[Draft]:
    """ "FOURTH SCHEDULE" on one line and "RENT DEPOSIT" on the next are one heading."""
    out: list[Draft] = []
    for draft in drafts:
        last = out[-1] if out else None
        if (
            last is not None
            and last.kind == draft.kind == "heading"
            and not draft.number
            and DIVISION.match(last.text)
            and (not last.heading or last.heading == last.text)
            and len(last.text) < 30
        ):
            last.number, last.heading = last.text, draft.heading
            last.lines.extend(draft.lines)
            continue
        out.append(draft)
    for draft in out:
        if draft.kind == "heading" and not draft.number and DIVISION.match(draft.text):
            words = draft.text.split()
            named = (
                len(words) >= 2 and not words[0].endswith(":") and (not words[1][:1].islower() or len(words[1]) == 1)
            )
            cut = 2 if named else 1
            draft.number = " ".join(words[:cut]).strip(" .:–—-")
            draft.heading = " ".join(words[cut:]).strip(" .:–—-")
    return out


FRONT = 4  # headings without numbers before the first numbered one


def _set_levels(drafts: list[Draft], size: float) -> None:
    """Levels: divisions at the top, decimal numbers by their depth, below a schedule or its part one deeper.

    In a paper whose main headings have no numbers (a report), numbers count from the heading that they stand under.
    A heading set like the divisions is one of them.
    """
    base = 0  # what numbered clauses stand below: 1 in a schedule, 2 in a part of it
    articles = any(d.kind == "heading" and re.match(r"article\b", d.number, re.IGNORECASE) for d in drafts)
    unnumbered = [d for d in drafts if d.kind == "heading" and not d.number and not d.level]
    largest = max((d.size for d in unnumbered), default=0.0)
    tops = sum(d.size > size * 1.25 for d in unnumbered)
    report = tops >= 4 and not any(
        d.kind == "heading" and d.number[:1].isdigit() and d.size > 0.95 * largest for d in drafts
    )
    first_numbered = next((d.size for d in drafts if d.kind == "heading" and d.number[:1].isdigit()), 0.0)
    before = list(itertools.takewhile(lambda d: not (d.kind == "heading" and d.number[:1].isdigit()), drafts))
    # the few headings before the first numbered one (contents, particulars) stand beside it, not under one another
    front = first_numbered > 0 and sum(d.kind == "heading" for d in before) <= FRONT
    top_size = 0.0  # size of type of the division that is open
    outer = False  # it is a schedule or the like, which may have parts
    for place, draft in enumerate(drafts):
        if draft.kind == "paragraph" and not draft.number and place > 0.6 * len(drafts) and SIGNING.match(draft.text):
            draft.level, base = 1, 0  # the signatures stand in no section
            continue
        if draft.kind not in ("heading", "paragraph") or (draft.kind == "paragraph" and not draft.number):
            continue
        heading = draft.kind == "heading"
        bare = re.sub(r"^(?:section|clause|paragraph|item|rule)\s+", "", draft.number, flags=re.IGNORECASE)
        front = front and not (heading and draft.number)
        if DIVISION.match(draft.number):
            inner = re.match(r"(?:article|part|chapter)\b", draft.number, re.IGNORECASE)
            if not heading:
                continue
            if inner and outer and draft.size < top_size + 0.3:
                draft.level, base = draft.level or 2, 2
            else:
                draft.level = draft.level or 1
                base = 1 if not inner or (not articles and _counts_anew(drafts, place)) else 0
                top_size, outer = draft.size, not inner
        elif draft.level:
            base = 0 if heading and draft.level == 1 else base
        elif bare[:1].isdigit():
            depth = bare.count(".") + 1
            draft.level = depth + 1 if articles and depth == 1 and not base else depth + base
        elif heading and not draft.number:
            like_divisions = top_size and draft.size > top_size - 0.3 and draft.size > size * 1.1
            if front and not base and draft.size > first_numbered - 0.3:
                draft.level = 1
            elif like_divisions or (report and draft.size > size * 1.25):
                draft.level, base, outer = 1, int(report), False
            else:
                draft.level = base + 1 if base else (2 if draft.size <= size * 1.25 else 1)
        else:
            draft.level = 9


SIGNING = pattern(
    r"(?:in witness (?:whereof|of which)|(?:signed|executed|sealed)(?:,? (?:sealed|and delivered|and sealed))* (?:by|for|as|on behalf|in the presence)|"
    r"(?:this|the) (?:deed|agreement|lease|document) (?:has been|is) (?:executed|signed|entered into|delivered)|present when the (?:common )?seal|"
    r"given under the common seal|the parties have (?:signed|executed|set their hands)|as witness\b)",
    re.IGNORECASE,
)


def _counts_anew(drafts: list[Draft], division: int) -> bool:
    """True where clauses under a division are numbered "1.", "2.", not "1.1"."""
    for draft in drafts[division + 1 :]:
        if draft.kind == "heading" and DIVISION.match(draft.number):
            return False
        bare = re.sub(r"^(?:section|clause|paragraph|item|rule)\s+", "", draft.number, flags=re.IGNORECASE)
        if bare[:1].isdigit():
            return "." not in bare.rstrip(".")
    return False


def full_numbers(drafts: list[Draft]) -> None:
    """Letters under a clause get its number before them: "(a)" under "8.2" becomes "8.2(a)"."""
    clause = letter = ""
    for draft in drafts:
        bare = draft.number
        if draft.kind == "heading" and not bare:
            clause = letter = ""
        if not bare or draft.kind not in ("paragraph", "heading", "item"):
            continue
        inner = re.fullmatch(r"\(?([A-Za-z]{1,6})[).]?", bare)
        if inner and not DIVISION.match(bare) and (bare.startswith("(") or bare.endswith(")") or len(bare) <= 2):
            mark = inner[1]
            nested = (
                mark.islower()
                and roman_value(mark)
                and letter
                and not (len(mark) == 1 and ord(mark) == ord(letter) + 1)
            )
            if nested:
                draft.number = f"{clause}({letter})({mark})"
            else:
                letter = mark if len(mark) == 1 else letter
                draft.number = f"{clause}({mark})" if bare.startswith("(") or clause else bare
        elif re.fullmatch(r"\(\d+\)", bare):
            draft.number = f"{clause}{bare}"
        elif bare not in "•●▪◦‣∙·–—":
            clause = "" if DIVISION.match(bare) else re.sub(r"^(?:section|clause)\s+", "", bare, flags=re.IGNORECASE)
            letter = ""
