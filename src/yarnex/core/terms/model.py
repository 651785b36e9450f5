"""Terms, sheets and findings."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from yarnex.core.document import Cite, Document
from yarnex.core.phrases import Phrase
from yarnex.core.values import Value

TYPES = ("date", "money", "percent", "number", "duration", "text", "party", "list", "yes_no", "schedule")
SIDES = {  # what a party's side is called in the documents of different trades
    "landlord": "landlord|lessor|licensor|owner", "tenant": "tenant|lessee|licensee|occupier",
    "supplier": "supplier|seller|vendor|provider|contractor|service provider|manufacturer|licensor|consultant",
    "customer": "customer|client|buyer|purchaser|subscriber|distributor|licensee|reseller",
    "lender": "lender|bank|owner|creditor|financier", "borrower": "borrower|debtor|hirer|customer|obligor",
    "employer": "employer|company", "employee": "employee|executive|you", "insurer": "insurer|we|underwriter|company",
    "insured": "insured|policyholder|you", "discloser": "discloser|disclosing party|company", "recipient": "recipient|receiving party",
}  # fmt: skip
DELETED = "deleted (was: "
STATES = ("stated", "computed", "amended", "conflicting", "blank", "redacted", "not_found")


def quoted(text: str, limit: int = 120) -> str:
    """Words of a document inside a sentence of ours: one line, in quotation marks, cut at `limit` characters."""
    text = " ".join(text.split())
    return f"“{text if len(text) <= limit else text[: limit - 2].rsplit(' ', 1)[0] + ' …'}”"


@dataclass(frozen=True, slots=True)
class Term:
    """One thing to look for. Phrases follow `yarnex.core.phrases`.

    names: what labels and definitions call it. headings: of clauses about it. cues: words around the value, strongest
    first. clause_cues: the same, but only in clauses under the headings `within`, or else under `headings`. excludes: a sentence that says one of these is about something else. units: accepted units of a number or
    periods of a sum. yes, no: words that decide a yes_no term. items: what a list holds ("date", "day", "text").
    by: a key of SIDES where only that party's own duty counts.
    compute: the name of the rule that works it out from other terms. several: more than one value is no conflict.
    asked: what people call it, in plain words; hint: where it stands or what it looks like, in plain words. Both are
    sought by their words and other words for them. show: the form in which to print it ("YYYY-MM-DD", "thousands" ...).
    required: a document without it is said to lack it. allowed: the only values that it may have.
    """

    id: str
    label: str
    group: str
    type: str
    names: tuple[Phrase, ...] = ()
    headings: tuple[Phrase, ...] = ()
    cues: tuple[Phrase, ...] = ()
    excludes: tuple[Phrase, ...] = ()
    units: tuple[str, ...] = ()
    yes: tuple[Phrase, ...] = ()
    no: tuple[Phrase, ...] = ()
    items: str = "text"
    compute: str = ""
    several: bool = False
    required: bool = False
    near: tuple[Phrase, ...] = ()
    by: str = ""
    clause_cues: tuple[Phrase, ...] = ()
    within: tuple[Phrase, ...] = ()
    requires: tuple[Phrase, ...] = ()
    value_says: tuple[Phrase, ...] = ()
    asked: tuple[str, ...] = ()
    hint: str = ""
    show: str = ""
    allowed: tuple[str, ...] = ()
    detail_of: str = ""  # the id of the term without which this one is not missed
    figure: tuple[str, ...] = ()  # lines of the statements that it is, the first reported one counts
    line: int = 0  # of the sheet

    @property
    def value_type(self) -> str:
        """The type to look for in the text: a number without units is a count."""
        return "count" if self.type == "number" and not self.units else self.type


@dataclass(frozen=True, slots=True)
class Sheet:
    """The terms to look for in a kind of document, in reading order."""

    name: str
    label: str
    kinds: tuple[str, ...]
    terms: tuple[Term, ...]
    include: tuple[str, ...] = ()
    particulars: str = ""  # "labels": also give what stands opposite labels that no term asks for; "all": and in lists

    def term(self, name: str) -> Term:
        """The term with this id. Raises KeyError."""
        for term in self.terms:
            if term.id == name:
                return term
        raise KeyError(name)


@dataclass(frozen=True, slots=True)
class Candidate:
    """A value that one finder offers: its words, the passage to quote, and how far the evidence goes (0 to 1)."""

    state: str
    value: Value | None
    text: Cite
    quote: Cite
    weight: float
    finder: str
    why: str
    working: tuple[str, ...] = ()


ROLES = ("also_stated", "conflicting", "before", "special_case", "overridden", "year_before")


@dataclass(frozen=True, slots=True)
class Further:
    """Another value that was found for a term, and what it is beside the finding's own.

    role: "also_stated" of a term of which there may be several, or again in another unit; "conflicting"; "before" a change;
    "special_case" to which the finding's own does not apply; "overridden" by what prevails over it; "year_before" of a figure.
    """

    role: str
    value: Value | None
    text: str
    cite: Cite

    def __post_init__(self) -> None:
        if self.role not in ROLES:
            raise ValueError(f"{self.role!r} is no role of a further value")

    def to_dict(self) -> dict[str, Any]:
        """The further value as a JSON object."""
        value = self.value.to_dict() if self.value is not None else None
        return {"role": self.role, "value": value, "text": self.text, "cite": self.cite.to_dict()}


@dataclass(frozen=True, slots=True)
class Finding:
    """What was found for a term. Everything but `not_found` has at least one cite; `computed` has working."""

    document: Document
    term: Term
    state: str
    value: Value | None = None
    text: str = ""
    confidence: float = 0.0
    cites: tuple[Cite, ...] = ()
    working: tuple[str, ...] = ()
    further: tuple[Further, ...] = ()
    near: tuple[Cite, ...] = ()
    why: tuple[str, ...] = ()
    rivals: tuple[Candidate, ...] = field(default=(), repr=False)

    def __post_init__(self) -> None:
        if self.state not in STATES:
            raise ValueError(f"{self.state!r} is no state of a finding")
        if self.state != "not_found" and not self.cites:
            raise ValueError(f"a finding for {self.term.id} without a cite")
        if self.state == "computed" and not self.working:
            raise ValueError(f"a computed finding for {self.term.id} without its working")

    @property
    def found(self) -> bool:
        """True where the document says something, even if blank or blacked out."""
        return self.state != "not_found"

    @property
    def usable(self) -> bool:
        """True where there is a value or words to work with, and no amendment has deleted it."""
        return self.state in ("stated", "computed", "amended", "conflicting") and not self.deleted

    @property
    def deleted(self) -> bool:
        """True where an amendment took the clause out."""
        return self.state == "amended" and self.value is None and self.text.startswith(DELETED)

    def to_dict(self) -> dict[str, Any]:
        """The finding as a JSON object."""
        return {
            "document": self.document.path,
            "term": self.term.id,
            "label": self.term.label,
            "state": self.state,
            "value": self.value.to_dict() if self.value is not None else None,
            "text": self.text,
            "confidence": round(self.confidence, 2),
            "cites": [cite.to_dict() for cite in self.cites],
            "working": list(self.working),
            "further": [further.to_dict() for further in self.further],
            "near": [cite.to_dict() for cite in self.near],
        }


def before_it(old: Finding) -> tuple[Further, ...]:
    """What a finding said before a change, as a further value of the changed one; nothing where it said nothing."""
    return (Further("before", old.value, old.text, old.cites[0]),) if old.usable else ()
