"""One document made ready to be asked: its lines, its sheet filled as far as asked for, its figures, bills, people and days."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cached_property, lru_cache, partial
from typing import TYPE_CHECKING

from yarnex.core.document import Document
from yarnex.core.errors import PackError
from yarnex.core.packs import load_entries, pack_text
from yarnex.core.patterns import pattern
from yarnex.core.phrases import SLOT
from yarnex.core.prepared import prepared
from yarnex.core.search.question import Question, stems_asked
from yarnex.core.search.roster_model import RosterItem
from yarnex.core.terms import Finding, Sheet, Term, abstract
from yarnex.core.terms.abstract import Abstract, sheet_for
from yarnex.core.terms.by_words import Idea, Matcher, ideas_of, matcher_of
from yarnex.core.terms.computed import WORKS_WITH
from yarnex.core.terms.identity import SALUTATION, identify
from yarnex.core.terms.particulars import other_particulars
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.values_in_lines import LineValues, line_values_of
from yarnex.core.values.parties import is_organisation
from yarnex.core.words import stem, stems_of
from yarnex.core.words.synonyms import Stems

if TYPE_CHECKING:
    from yarnex.core.costs import Bill
    from yarnex.core.dates import DatedItem
    from yarnex.core.figures import Figure
    from yarnex.core.search.meaning import SentenceModel
    from yarnex.core.search.weighing import Answer

A_PERSON = pattern(r"\b(?:he|she)\b", re.IGNORECASE)
WHO = 0.6  # how much the role of the person counts whom a question only calls he or she
HEAD = 1200  # characters in which a paper says what it is
ITSELF_SAID = ("it", "this", "document", "paper")
Way = tuple[frozenset[str], float]
PAPERS = frozenset(stems_of("agreement contract deal arrangement document paper"))
ANYTHING = 4  # terms that a lone word may ask for
EVERYDAY = 0.9  # what being like an everyday question counts, beside being like a term's own name
ITSELF = 0.5  # how much the name of the paper itself counts in a question: "when does the lease end?"


class Inquiry:
    """One document, ready to be asked; what is costly is made when first needed, and of the sheet only the terms asked for.

    model: a sentence-embedding model by which what comes near to a question in meaning gains on what does not.
    passages: those of the document, where they were made before.
    """

    def __init__(
        self, document: Document, sheet: Sheet | None = None, model: SentenceModel | None = None,
        passages: Passages | None = None,
    ) -> None:  # fmt: skip
        self.document = document
        self._model = model
        self.sheet = sheet or sheet_for(document)
        self.passages = passages or Passages(document)
        self._filled: dict[str, Finding] = {}
        self.answered: dict[Question, list[Answer]] = {}  # the question last asked, which the next may lean on
        self.of_others: dict[
            str, list[Answer]
        ] = {}  # by its words, what is said of another party than the one it asks about

    @cached_property
    def figures(self) -> tuple[Figure, ...]:
        """The document's figures, where it is a paper that reports any."""
        from yarnex.core.figures.reporting import reports_figures

        if not reports_figures(self.document):
            return ()
        from yarnex.core.figures import figures_of

        return figures_of(self.document)

    @cached_property
    def bills(self) -> tuple[Bill, ...]:
        from yarnex.core.costs.bills import bills_of

        return bills_of(self.document)

    @cached_property
    def people(self) -> list[RosterItem]:
        from yarnex.core.search.people import people_of

        return people_of(self.document)

    @cached_property
    def dates(self) -> tuple[DatedItem, ...]:
        """Days that are worked out from others."""
        from yarnex.core.dates.anchors import Anchors
        from yarnex.core.dates.relative import relative_items

        filled = Abstract(
            self.document,
            self.sheet,
            tuple(self.fill([t for t in self.sheet.terms if t.type in ("date", "duration")])),
            self.passages,
        )
        return tuple(relative_items(Anchors(filled)))

    @cached_property
    def matcher(self) -> Matcher:
        return matcher_of(self.passages)

    @cached_property
    def values(self) -> LineValues:
        return line_values_of(self.passages)

    @cached_property
    def names(self) -> list[tuple[Term, tuple[Way, ...]]]:
        """The sheet's terms with the ways in which people ask for them; not those that list every value of a type."""
        return [(t, ways_of(t)) for t in self.sheet.terms if all(c.text != SLOT for c in t.cues)]

    def particulars(self, wanted: Callable[[str], bool]) -> list[Finding]:
        """What stands under labels of the document's own that are wanted."""
        if not self.sheet.particulars:
            return []
        lists = self.sheet.particulars == "all"
        return list(other_particulars((), self.passages, lists=lists, wanted=wanted))

    def asked(self, question: Question) -> Question:
        """The question as asked of this paper: words for the paper itself count less, those of the file's name not at all."""
        if question.kinds[0] == "yes_no":  # "Depositor" is a party: it tells of no deposit
            ideas = tuple(
                replace(i, ways=tuple(w for w in i.ways if not self._only_a_party(i, w[0]))) for i in question.ideas
            )
            question = replace(question, ideas=ideas)
        if A_PERSON.search(question.text) and self.person:  # "what notice must she give?": the Executive
            have = {i.name for i in question.ideas}
            who = tuple(replace(i, weight=WHO * i.weight) for i in ideas_of(self.person) if i.name not in have)
            question = replace(question, ideas=(*question.ideas, *who))
        own = PAPERS | frozenset(stems_of(identify(self.document).kind.replace("_", " ")))
        question = replace(
            question,
            ideas=tuple(replace(i, weight=i.weight * ITSELF) if own.issuperset(i.name) else i for i in question.ideas),
        )
        named = frozenset(stems_of(self.document.name.replace(".", " ").replace("_", " ").replace("-", " ")))
        kept = tuple(
            i
            for i in question.ideas
            if not named.issuperset(i.name) or any(w in self.matcher.lines.postings for w in i.name)
        )
        return replace(question, ideas=kept) if kept and len(kept) < len(question.ideas) else question

    @cached_property
    def person(self) -> str:
        """The role of the only party that is a person; "" where there is none or several."""
        found = [role for role, name in self.values.roles.items() if not is_organisation(name) and role[:1].isupper()]
        return found[0] if len(found) == 1 else ""

    def nearness_to(self, question: Question) -> Callable[[Sequence[str]], list[float]] | None:
        """How near to a question some texts are in meaning; None without a model."""
        return partial(self._model.alike, question.text) if self._model is not None else None

    def is_called(self, noun: str) -> bool:
        """Whether a noun may stand for the paper itself: "it", "the document", or what it calls itself at its head."""
        head = self.document.text[:HEAD] + " " + identify(self.document).label
        if noun.lower() == "letter" and SALUTATION.search(self.document.text[: 2 * HEAD]):
            return True
        return noun.lower() in ITSELF_SAID or stem(noun) in stems_of(head)

    def says(self, idea: Idea | None) -> bool:
        """Whether the paper names something in any of the words for it; True where nothing is asked for by name."""
        return idea is None or self.matcher.names(idea)

    def _only_a_party(self, idea: Idea, way: Stems) -> bool:
        """True for another form of a single word that is the name of a party here."""
        return (
            way in self.sides
            and way != idea.name
            and len(way) == len(idea.name) == 1
            and way[0].startswith(idea.name[0])
        )

    @cached_property
    def sides(self) -> frozenset[tuple[str, ...]]:
        """The stems of the roles that the paper gives its parties."""
        return frozenset(stems_of(role) for role in self.values.roles)

    def fill(self, terms: Sequence[Term]) -> list[Finding]:
        """The findings of some terms; those that others are worked out from are filled with them."""
        wanted = [t for t in terms if t.id not in self._filled]
        if wanted:
            needed = {t.id for t in wanted}.union(*(WORKS_WITH.get(t.compute, ()) for t in wanted))
            part = tuple(t for t in self.sheet.terms if t.id in needed and t.id not in self._filled)
            sheet = replace(self.sheet, terms=part, particulars="")
            for finding in abstract(self.document, sheet, self.passages, self._filled, mentions=False).findings:
                self._filled[finding.term.id] = self._reported(finding) or finding
        return [self._filled[t.id] for t in terms]

    def _reported(self, finding: Finding) -> Finding | None:
        """The finding from the statements, for a headline figure of a report."""
        if not finding.term.figure or not self.figures:
            return None
        from yarnex.core.figures.headlines import headline

        return headline(finding, self.figures)


def ways_of(term: Term) -> tuple[Way, ...]:
    """The stems of a term's label, of its other names and of everyday questions for it, each with what being like it counts."""
    ways = dict.fromkeys((frozenset(stems_of(w)) for w in (term.label, *term.asked, term.id.replace("_", " "))), 1.0)
    for way in everyday_questions().get(term.id, ()):
        ways.setdefault(way, EVERYDAY)
    return tuple((way, worth) for way, worth in ways.items() if way)


@lru_cache(maxsize=1)
def everyday_questions() -> dict[str, tuple[frozenset[str], ...]]:
    """For a term's id the stems of the questions in `packs/vocabulary/questions.yaml`. Raises PackError for mistakes in it."""
    return prepared("questions", _from_pack)


def _from_pack() -> dict[str, tuple[frozenset[str], ...]]:
    text, name = pack_text("vocabulary", "questions")
    entry = load_entries(text, name).get("terms", {})
    faults = [f"{name}: {k}: write questions with ; between them" for k, v in entry.items() if not isinstance(v, str)]
    if faults:
        raise PackError("\n".join(faults))
    ways = {term: tuple(stems_asked(q) for q in questions.split(";")) for term, questions in entry.items()}
    # a lone word that asks for many terms asks for none: "what do they pay?"
    asked_of = Counter(way for mine in ways.values() for way in set(mine) if len(way) == 1)
    return {term: tuple(w for w in mine if asked_of[w] <= ANYTHING) for term, mine in ways.items()}
