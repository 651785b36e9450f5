"""Amendments laid over what they amend: new values give `amended` findings with both cites, deleted clauses too."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace
from datetime import date

from yarnex.core.document import Cite, Document, Span
from yarnex.core.patterns import pattern
from yarnex.core.terms.abstract import Abstract
from yarnex.core.terms.changes import DELETES, REPLACES, struck_out, with_changes
from yarnex.core.terms.computed import RULES
from yarnex.core.terms.identity import CHANGES_ANOTHER, document_date, identify
from yarnex.core.terms.model import DELETED, Finding, Further, Sheet, before_it, quoted
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.variations import reworded
from yarnex.core.values import (
    DateValue,
    Party,
    Schedule,
    find_dates,
    same_value,
)

KINDS = CHANGES_ANOTHER
DATES = ("lease_date", "agreement_date", "contract_date", "order_date", "document_date")
TAKES_EFFECT = pattern(
    r"\b(?:(?:takes?|have|has|with) effect|is effective|effective (?:from|on|as of)|(?:apply|applies) (?:from|on and after))\b"
)
OWN_TERMS = (
    *DATES,
    "draft_date",
    "governing_law",
    "entire_agreement",
    "broker",
    "signatories",
    "counterparts",
    "parties",
)  # of the amendment itself, not of the lease


def lay_over(abstracts: Sequence[Abstract], as_of: date | None = None) -> tuple[Abstract, ...]:
    """Abstracts with each amendment's changes put into the document that it amends, oldest amendment first.

    as_of: leave out the changes of amendments that take effect after this day; None for all.
    """
    out = list(abstracts)
    changes = [(i, effect_of(a), base) for i, a in enumerate(out) if (base := base_of(a, out)) is not None]
    for place, day, base in sorted(changes, key=lambda c: (c[1].isoformat() if c[1] else "", c[0])):
        if as_of is not None and day is not None and day > as_of:
            out[base] = replace(out[base], not_yet=(*out[base].not_yet, (out[place].document.path, day)))
        else:
            out[base] = _changed(out[base], out[place])
        out[place] = replace(out[place], amends=out[base].document.path)
    return tuple(out)


def effect_of(abstract: Abstract) -> date | None:
    """The day from which a document takes effect: what it says of that, else its own date."""
    for sentence in abstract.passages.sentences[:80]:
        said = TAKES_EFFECT.search(sentence.low)
        if said:
            for found in abstract.passages.values_in("date", sentence.span):
                if isinstance(found.value, DateValue) and found.span.start >= sentence.span.start + said.start():
                    return found.value.day
    for name in DATES:
        finding = abstract.finding(name)
        if finding is not None and isinstance(finding.value, DateValue):
            return finding.value.day
    day = document_date(abstract.document)
    return date.fromisoformat(day) if day else None


def sheets_of_bases(documents: Sequence[Document], chosen: Sequence[Sheet]) -> list[Sheet]:
    """The sheets with those of amendments replaced by the one of what they most likely amend.

    The document that an amendment speaks of most wins: by its title, its date and its parties' names.
    """
    out = list(chosen)
    for place, document in enumerate(documents):
        if identify(document).kind not in KINDS:
            continue
        scores = [
            (_spoken_of(other, document), -i) for i, other in enumerate(documents) if identify(other).kind not in KINDS
        ]
        if scores and max(scores)[0] >= 2:
            out[place] = with_changes(chosen[-max(scores)[1]])
    return out


def _spoken_of(base: Document, amendment: Document) -> int:
    """How many of a document's marks of identity another one names."""
    identity, text = identify(base), amendment.text.lower()
    score = sum(p.quote.lower() in text for p in identity.parties[:4])
    title = identity.title_text.lower()
    score += 2 * (len(title) > 12 and title in text)
    day = document_date(base)
    score += 2 * bool(day and any(f.value.day.isoformat() == day for f in find_dates(amendment.text[:8000])))
    return score


def base_of(amendment: Abstract, abstracts: Sequence[Abstract]) -> int | None:
    """The place of the document that this one amends: the one whose title or date it names and whose parties it shares."""
    if identify(amendment.document).kind not in KINDS:
        return None
    text = amendment.document.text.lower()
    best: tuple[int, int] | None = None
    for place, other in enumerate(abstracts):
        if other is amendment or identify(other.document).kind in KINDS:
            continue
        days = {f.value.day for n in DATES if (f := other.finding(n)) is not None and isinstance(f.value, DateValue)}
        score = 2 * any(
            isinstance(f.value, DateValue) and f.value.day in days for f in amendment.passages.values("date")
        )
        names = {f.value.name.lower() for f in other.findings if isinstance(f.value, Party)}
        score += min(2, sum(name in text for name in names))
        title = identify(other.document).title_text.lower()
        score += len(title) > 12 and title in text
        if score >= 2 and (best is None or score > best[0]):
            best = (score, place)
    return best[1] if best else None


def _changed(base: Abstract, amendment: Abstract) -> Abstract:
    new: list[Finding] = []
    for finding in base.findings:
        other = amendment.finding(finding.term.id)
        new.append(_amended(finding, other, amendment) if other is not None else finding)
    new = [reworded(finding, amendment.passages, amendment.document.name) for finding in new]
    new = _rent_of_new_schedule(new)
    gone = _deleted_clauses(amendment)
    new = _deletions(new, amendment, gone)
    new = _computed_again(new, base.passages)
    return replace(
        base, findings=tuple(new), amended_by=(*base.amended_by, amendment.document.path), deleted_clauses=(*base.deleted_clauses, *gone),
    )  # fmt: skip


def _amended(old: Finding, new: Finding, amendment: Abstract) -> Finding:
    """The finding in force after the amendment."""
    if new.state != "stated" or new.value is None or old.term.id in OWN_TERMS or new.confidence < 0.7:
        return old
    if same_value(old.value, new.value) or old.term.type in ("yes_no",):
        return old
    cite = new.cites[0]
    block = amendment.document.block_at(cite.span.start)
    last = amendment.passages.headings_of(block).rsplit(" / ", 1)[-1] if block else ""
    if re.search(r"recital|background|whereas", last) and old.term.type != "party":
        return old
    if old.term.type == "text" and not (
        DELETES.search(cite.quote) or REPLACES.search(cite.quote) or "shall" in cite.quote
    ):
        return old
    said = f"{new.document.name}, {cite.place}" if cite.place else new.document.name
    if old.term.several and old.found:
        return replace(
            old,
            cites=(*old.cites, cite),
            working=(*old.working, f"also in {said}: {quoted(new.text)}"),
            further=(*old.further, Further("also_stated", new.value, new.text, cite)),
        )
    before = quoted(old.text) if old.found else "nothing found"
    return Finding(
        old.document, old.term, "amended", new.value, new.text, min(new.confidence, 0.9), (*new.cites, *old.cites),
        (f"{said}: now {quoted(new.text)}; before: {before}", *new.working), (*before_it(old), *new.further), why=new.why,
    )  # fmt: skip


def _rent_of_new_schedule(findings: list[Finding]) -> list[Finding]:
    """Where the rent schedule was replaced and the base rent not, the base rent is that of the new first row."""
    schedule = next((f for f in findings if f.term.id == "rent_schedule" and f.state == "amended"), None)
    if schedule is None or not isinstance(schedule.value, Schedule):
        return findings
    row = schedule.value.rows[0]
    out = []
    for finding in findings:
        if finding.term.id == "base_rent" and finding.state in ("stated", "computed") and finding.value != row.amount:
            working = f"first row of the amended schedule, {row.from_} to {row.to}; before: {quoted(finding.text)}"
            finding = replace(
                finding, state="amended", value=row.amount, text=f"{row.amount.amount:,f}", cites=(schedule.cites[0], *finding.cites), working=(working,),
                further=before_it(finding),
                confidence=min(schedule.confidence, 0.85),
            )  # fmt: skip
        out.append(finding)
    return out


def _deleted_clauses(amendment: Abstract) -> dict[str, Span]:
    """Numbers of the clauses that the amendment takes out, with the passage that does it."""
    return dict(struck_out(amendment.passages))


def _deletions(findings: list[Finding], amendment: Abstract, gone: dict[str, Span]) -> list[Finding]:
    """Findings whose clause the amendment deletes become `amended` without a value."""
    out = []
    for finding in findings:
        place = finding.cites[0].section if finding.cites else ""
        numbers = re.findall(r"\d{1,2}(?:\.\d{1,3})+", place)
        hit = next((n for n in numbers if n in gone), None)
        if hit is None or finding.state == "amended" or finding.cites[0].document is amendment.document:
            out.append(finding)
            continue
        cite = Cite(amendment.document, gone[hit])
        working = (f"{amendment.document.name}, {cite.place}: clause {hit} is deleted; before: {quoted(finding.text)}",)
        out.append(
            replace(
                finding,
                state="amended",
                value=None,
                text=f"{DELETED}{quoted(finding.text)})",
                cites=(cite, *finding.cites),
                working=working,
                further=before_it(finding),
            )
        )
    return out


def _computed_again(findings: list[Finding], passages: Passages) -> list[Finding]:
    """Values worked out from others, once more with the amended ones."""
    by_term = {f.term.id: f for f in findings}
    for finding in findings:
        if finding.state == "computed" and finding.term.compute:
            made = RULES[finding.term.compute](finding.term, by_term, passages)
            if made is None:
                by_term[finding.term.id] = Finding(
                    finding.document, finding.term, "not_found", why=("what it was worked out from was amended",)
                )
            elif made.value != finding.value:
                by_term[finding.term.id] = replace(
                    finding, value=made.value, text=made.text, working=made.working, cites=made.cites
                )
        elif finding.state == "not_found" and finding.term.compute:
            made = RULES[finding.term.compute](finding.term, by_term, passages)
            if made is not None:
                by_term[finding.term.id] = Finding(
                    finding.document, finding.term, "computed", made.value, made.text, 0.8, made.cites, made.working
                )
    return [by_term[f.term.id] for f in findings]
