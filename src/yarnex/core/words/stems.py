"""Words cut to their stems, so that "renewals" is found by "renew"."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import NamedTuple

from yarnex.core.patterns import pattern

# Words that say nothing about what is asked for. "not", "no", "before" and "after" are kept out of it on purpose.
_stop = """
    a about according against also am an and another any anybody anyone anything are as at be because been being between both but by can
    concerning could did do does doing done down during each either etc every everybody everyone everything for from get gets give given gives
    got had has have having he her here hereby herein hereof hereto hers him his how however i if in into is it
    its itself just least less many may me mentioned might more most much must my neither nor of off on only
    onto or other our ours out over own per please provide provides regard regarding relation respect said same
    say saying says set shall she should show showed shown so some somebody someone something specified stated still such tell than that the their
    theirs them then there therein thereof thereto these they this those through to told too under under-mentioned up
    upon us very via was we were what when where whereas whether which while who whom whose why will with would
    yet you your yours
"""
STOP_WORDS = frozenset(_stop.split())
_word = pattern(r"[^\W\d_]+(?:[’'][^\W\d_]+)?|\d+(?:[.,]\d+)*", re.UNICODE)
_possessive = pattern(r"'s?\Z")
_irregular = {
    "paid": "pay", "sold": "sell", "bought": "buy", "held": "hold", "kept": "keep", "left": "leav", "rang": "ring", "began": "begin", "begun": "begin",
    "expiry": "expir", "expiration": "expir", "renewal": "renew", "paying": "pay", "payable": "pay", "payment": "pay", "payments": "pay",
    "termination": "termin", "commencement": "commenc", "people": "person", "persons": "person", "men": "man", "women": "woman", "children": "child", "criteria": "criterion", "indices": "index", "appendices": "appendix", "annexes": "annex", "memoranda": "memorandum", "addenda": "addendum",
    "lent": "lend", "lender": "lender", "borrower": "borrow", "borrowings": "borrow", "notification": "notifi", "maintenance": "maintain", "assignment": "assign",
    "written": "write", "wrote": "write", "drawn": "draw", "undrawn": "undrawn", "spent": "spend", "built": "build", "made": "make", "sent": "send", "given": "give",
    "found": "find", "brought": "bring", "rose": "rise", "risen": "rise", "fell": "fall", "fallen": "fall", "grew": "grow", "grown": "grow", "growth": "grow",
    "metre": "meter", "metres": "meter", "kilometre": "kilomet", "kilometres": "kilomet", "litre": "liter", "litres": "liter", "licence": "licens", "licences": "licens",
    "cheque": "check", "programme": "program", "centre": "center", "authorised": "author", "organisation": "organiz", "recognised": "recogn",
    "instalment": "instal", "installment": "instal", "instalments": "instal", "installments": "instal", "labour": "labor", "favour": "favor", "favoured": "favor",
    "insurer": "insurer", "insurers": "insurer", "insured": "insured", "employer": "employer", "employee": "employe", "employees": "employe",
    "heading": "heading", "headings": "heading", "auditor": "auditor", "auditors": "auditor", "guarantor": "guarantor", "director": "director", "directors": "director",
}  # fmt: skip

_verbs = """
    arise arose arisen; awake awoke awoken; bear borne; beat beaten; become became; bend bent; bid bade bidden; bite bitten; bleed bled; blow
    blew blown; break broke broken; breed bred; burn burnt; catch caught; choose chose chosen; cling clung; come came; creep crept; deal dealt;
    dig dug; drink drank drunk; drive drove driven; eat ate eaten; feed fed; fight fought; flee fled; fly flew flown; forbid forbade forbidden;
    feel felt; foresee foresaw foreseen; forget forgot forgotten; forgive forgave forgiven; freeze froze frozen; get got gotten; give gave; go went gone; hang hung; hear heard; hide
    hid hidden; know knew known; lay laid; lead led; lean leant; leap leapt; learn learnt; lie lain; lose lost; mean meant; meet met; mislead
    misled; mistake mistook mistaken; misunderstand misunderstood; outgrow outgrew outgrown; overcome overcame; override overrode overridden;
    oversee oversaw overseen; overtake overtook overtaken; prove proven; rebuild rebuilt; repay repaid; resell resold; rewrite rewrote
    rewritten; ride rode ridden; run ran; see seen; seek sought; shake shook shaken; shine shone; show shown; shrink shrank shrunk; sink sank
    sunk; sit sat; sleep slept; slide slid; smell smelt; speak spoken; speed sped; spill spilt; spoil spoilt; spring sprang sprung; stand stood;
    steal stole stolen; stick stuck; strike struck; swear swore sworn; sweep swept; swell swollen; swim swam swum; swing swung; take took taken;
    teach taught; tear tore torn; tell told; think thought; throw threw thrown; undergo underwent undergone; understand understood; undertake
    undertook undertaken; undo undid undone; uphold upheld; wake woke woken; wear wore worn; weave wove woven; weep wept; win won; withdraw
    withdrew withdrawn; withhold withheld
"""  # a verb and its irregular past forms; those that are words of their own too ("found", "left", "saw") are not here


class Token(NamedTuple):
    """A word: its stem and its place in the text that was cut up."""

    stem: str
    start: int
    end: int


@lru_cache(maxsize=1)
def _stem_word() -> Callable[[str], str]:
    import Stemmer

    return Stemmer.Stemmer("english").stemWord  # type: ignore[no-any-return]


@lru_cache(maxsize=1)
def _past_forms() -> dict[str, str]:
    groups = [group.split() for group in _verbs.split(";")]
    return {form: verb for verb, *forms in groups for form in forms}


@lru_cache(maxsize=65536)
def stem(word: str) -> str:
    """The stem of an English word in any case (Porter's second algorithm, with a few irregular forms before it).

    >>> stem("Renewals") == stem("renewed"), stem("paid") == stem("payable")
    (True, True)
    """
    low = word.lower()
    if "'" in low or "’" in low:
        low = _possessive.sub("", low.replace("’", "'"))
    if low in _irregular:
        return _irregular[low]
    if not low[:1].isalpha():
        return low
    low = _past_forms().get(low, low)
    return _stem_word()(low)


def tokens(text: str) -> Iterator[Token]:
    """The words and numbers of a text with their stems, left to right; a hyphen parts words."""
    for m in _word.finditer(text):
        word = m.group()
        yield Token(stem(word) if word not in NUMBER_SIGNS else _stem_at(text, m), m.start(), m.end())


SHORT_NAME = 16  # letters of a name made of such words only, "Set-up", that is not nothing
HYPHENED = pattern(r"[^\W\d_]-[^\W\d_]")


def stems_of(text: str, *, stop: bool = False) -> tuple[str, ...]:
    """The stems of a text in order; stop: keep words that carry no meaning too."""
    telling = tuple(
        stem(word) if word not in NUMBER_SIGNS else _stem_at(text, m)
        for m in _word.finditer(text)
        if (word := m.group()) and (stop or word.lower() not in STOP_WORDS)
    )
    if telling or len(text) > SHORT_NAME or not HYPHENED.search(text):
        return telling
    return tuple(_stem_at(text, m) for m in _word.finditer(text))


# "Policy no. 4471", "SERIAL NO" as a label, "No. 12"
_number_sign = pattern(r"(?<=[^\W\d_] )nos?(?:\.?\s*(?:\Z|[:\t\n])|\.\s*[\w\[█_])|nos?\.\s*\d", re.IGNORECASE)


NUMBER_SIGNS = frozenset(("no", "No", "NO", "nO", "nos", "Nos", "NOS", "nOS", "noS", "NoS", "nOs", "NOs"))


def _stem_at(text: str, word: re.Match[str]) -> str:
    """The stem of a word; "no." where it is short for number is that."""
    low = word.group().lower()
    if low in ("no", "nos") and _number_sign.match(text, word.start()):
        return "number"
    return stem(word.group())
