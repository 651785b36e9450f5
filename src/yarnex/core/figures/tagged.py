"""Inline XBRL facts -> figures (Inline XBRL 1.1, XBRL 2.1): exact values with concept, context and dimensions."""

from __future__ import annotations

import re
from datetime import date, timedelta
from decimal import Decimal, InvalidOperation

from yarnex.core.document import Document, Span
from yarnex.core.document.model import TaggedFact
from yarnex.core.document.sentences import sentences
from yarnex.core.document.table_paths import row_label, row_path
from yarnex.core.figures.headings import row_span
from yarnex.core.figures.lines import line_of
from yarnex.core.figures.model import Figure, FigurePeriod
from yarnex.core.figures.sentences import label_in_sentence
from yarnex.core.patterns import pattern
from yarnex.core.values.numbers import read_words

# Transformation Registry 4 and 5 of XBRL International: formats in which a comma is the decimal mark, and fixed values.
COMMA_DECIMAL = ("num-comma-decimal", "numcommadecimal", "numcomma", "numdotcomma", "numspacecomma")
ZEROS = ("fixed-zero", "zerodash", "numdash", "fixedzero")
NILS = ("fixed-empty", "nocontent")


def fact_value(fact: TaggedFact) -> Decimal | None:
    """The exact value of a numeric fact: transformed, scaled and signed; None where it is nil or does not transform."""
    if fact.nil:
        return None
    kind = fact.format.rpartition(":")[2].lower()
    if kind in ZEROS:
        return Decimal(0)
    words = fact.printed.strip()
    if kind in ("num-word-en", "numwordsen"):
        value = Decimal(0) if words.lower() in ("no", "none", "nil", "zero") else read_words(words)
    else:
        bare = re.sub(r"[\s'’\u00a0\u202f£$€()]", "", words)
        bare = bare.replace(".", "").replace(",", ".") if kind in COMMA_DECIMAL else bare.replace(",", "")
        if bare in ("-", "–", "—", ""):
            return Decimal(0) if bare else None
        try:
            value = Decimal(bare.lstrip("-−"))
        except InvalidOperation:
            return None
    if value is None:
        return None
    value = value.scaleb(fact.scale)
    return -value if fact.negative else value


def _unit(unit: str) -> tuple[str, str]:
    """Unit and what it is per: "iso4217:GBP" is ("GBP", ""), "GBP/shares" is ("GBP", "share")."""
    parts = [p.rpartition(":")[2] for p in re.split(r"\s*/\s*", unit)]
    first = {"pure": "", "shares": "shares"}.get(parts[0].lower(), parts[0])
    return first, (
        "share" if len(parts) > 1 and parts[1].lower().startswith("share") else parts[1] if len(parts) > 1 else ""
    )


def _period(fact: TaggedFact) -> FigurePeriod | None:
    if not fact.end:
        return None
    end = date.fromisoformat(fact.end[:10])
    if not fact.start:
        return FigurePeriod(end)
    start = date.fromisoformat(fact.start[:10])
    days = (end - start).days + 1
    after = end + timedelta(days=1)
    months = (after.year - start.year) * 12 + after.month - start.month
    whole = after.day == start.day
    return FigurePeriod(
        end, months if whole else round(days / 30.44), 0 if whole or days not in (364, 371) else days // 7
    )


def concept_words(concept: str) -> str:
    """A concept's name as words: "ifrs-full:CashAndCashEquivalents" is "Cash and cash equivalents"."""
    name = concept.rpartition(":")[2]
    words = re.sub(r"(?<=[a-z0-9])(?=[A-Z])|(?<=[A-Z])(?=[A-Z][a-z])", " ", name).split()
    return " ".join([words[0], *(w if w.isupper() and len(w) > 1 else w.lower() for w in words[1:])]) if words else name


COMPANY = pattern(r"separate|parent|company|standalone|unconsolidated", re.IGNORECASE)
CONSOLIDATED = pattern(r"consolidated", re.IGNORECASE)
SEGMENT = pattern(r"segment", re.IGNORECASE)
EARLIER = pattern(r"previously\s*(?:stated|reported)|aspreviously|priorperiod.*original", re.IGNORECASE)


def _basis(fact: TaggedFact, consolidated: bool) -> tuple[str, str]:
    """Basis and the member that splits a total: told by the dimensions, whole where there is none."""
    basis, member = "consolidated" if consolidated else "", ""
    for axis, value in fact.dimensions:
        named = concept_words(value).removesuffix(" member")
        if EARLIER.search(re.sub(r"\s", "", value)):
            basis = f"{basis}, previously stated" if basis else "previously stated"
        elif COMPANY.search(value) and not CONSOLIDATED.search(value.replace("Unconsolidated", "")):
            basis = "company"
        elif SEGMENT.search(axis):
            basis, member = "segment", named
        elif not CONSOLIDATED.search(value):
            member = named
    return basis, member


def _label(document: Document, fact: TaggedFact) -> tuple[str, tuple[str, ...], int, int, int]:
    """The document's own label: that of the row, else the words of the concept."""
    if fact.span is not None and (found := document.cell_at(fact.span)) is not None:
        table, cell = found
        label = row_label(table, cell.row, document.text)
        if label:
            place = document.tables.index(table)
            return label, row_path(table, cell.row, document.text), place, cell.row, cell.column
    if fact.span is not None and (block := document.block_at(fact.span.start)) is not None:
        text = block.span.of(document.text)
        for sentence in sentences(text, semicolons=False):
            start = block.span.start + sentence.start
            if start <= fact.span.start < start + sentence.end - sentence.start:
                inside = Span(fact.span.start - start, fact.span.end - start)
                said = label_in_sentence(re.sub(r"[£$€](?=\d)", " ", sentence.of(text)), inside)
                if said:
                    label = said[:1].upper() + said[1:]
                    return label, (label,), -1, -1, -1
    return concept_words(fact.concept), (concept_words(fact.concept),), -1, -1, -1


def tagged_figures(document: Document) -> list[Figure]:
    """The numeric facts of a document. Facts that it hides are left out; they have no words to quote."""
    consolidated = (
        any("consolidated" in v.lower() for f in document.tagged for _, v in f.dimensions)
        or "onsolidated" in document.text
    )
    out: list[Figure] = []
    for fact in document.tagged:
        if not fact.numeric or fact.span is None or fact.hidden:
            continue
        label, path, table, row, column = _label(document, fact)
        label = re.sub(r"\s*\((?:pence|cents|£’000|%)\)\Z", "", label)
        basis, member = _basis(fact, consolidated)
        unit, per = _unit(fact.unit)
        if not fact.dimensions and not fact.unit.lower().startswith("iso4217"):
            basis = ""  # a count of shares or people is no group amount
        if member and member.lower() not in label.lower():
            label = f"{label} – {member}"
        elif "previously stated" in basis and "report" not in label.lower():
            label = f"{label}, previously stated"
        line = line_of(path[-1] if path else label, path[:-1]) or line_of(concept_words(fact.concept))
        around = row_span(document.tables[table], row) if table >= 0 else None
        if around is None:
            block = document.block_at(fact.span.start)
            around = block.span if block else None
        out.append(
            Figure(
                document=document, span=fact.span, label=label, path=path, value=fact_value(fact), as_printed=" ".join(fact.printed.split()), unit=unit,
                per=per, scale=Decimal(1).scaleb(fact.scale), period=_period(fact), statement=line.statement if line else "note", basis=basis,
                item=line.id if line and not member else "", source="tagged", concept=fact.concept, dimensions=fact.dimensions, table=table,
                row=row, column=column, around=around,
            )
        )  # fmt: skip
    return out
