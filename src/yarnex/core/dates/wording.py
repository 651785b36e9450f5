"""What a dated item is called and whom it concerns, in the document's own words."""

from __future__ import annotations

import re
from functools import lru_cache

from yarnex.core.document import Document, Span
from yarnex.core.terms.passages import Passages

LONGEST = 120
ROLES = (
    "Tenant", "Landlord", "Lessee", "Lessor", "Guarantor", "Licensee", "Licensor", "Customer", "Supplier", "Distributor", "Owner", "Employee", "Employer", "Company",
    "Recipient", "Discloser", "Borrower", "Lender", "Insurer", "Policyholder", "Insured", "Seller", "Buyer", "Purchaser", "Vendor", "Contractor", "Client", "Consultant",
    "Agent", "Surety", "Manufacturer", "Principal", "Franchisee", "Franchisor", "Board", "Group", "Bank", "Hirer", "Mortgagor", "Mortgagee", "Assignor", "Assignee",
)  # fmt: skip


def short_what(text: str, start: int, end: int) -> str:
    """A sentence on one line, cut around the place that matters where it is long."""
    words = re.sub(r"\s+", " ", text).strip()
    if len(words) <= LONGEST:
        return words
    piece = re.sub(r"\s+", " ", text[start:end]).strip()
    at = max(words.find(piece), 0)
    first = max(0, at - (LONGEST - len(piece)) * 2 // 3)
    last = min(len(words), first + LONGEST)
    first = max(0, last - LONGEST)
    cut = words[first:last]
    if first:
        cut = "… " + cut.partition(" ")[2]
    if last < len(words):
        cut = cut.rpartition(" ")[0] + " …"
    return cut


@lru_cache(maxsize=64)
def role_names(document: Document) -> tuple[str, ...]:
    """The roles that a document uses for its parties: those it defines, and the usual ones that it writes with a capital."""
    defined = [r.role for r, _, _ in Passages(document).roles]
    written = [r for r in ROLES if document.text.count(r) >= 2]
    usual = [r for r in written if len(re.findall(rf"\b{r}(?:’s|'s)?\b", document.text)) >= 2]
    return tuple(dict.fromkeys([*defined, *usual]))


def who_in(document: Document, words: str) -> str:
    """The first role that a sentence names, "" where it names none."""
    found = [(m.start(), r) for r in role_names(document) if (m := re.search(rf"\b{re.escape(r)}\b", words))]
    return min(found)[1] if found else ""


def sentence_span(passages: Passages, offset: int) -> Span:
    """The sentence or row around an offset, the block where neither is known."""
    document = passages.document
    block = document.block_at(offset)
    if block is not None and block.table >= 0:
        table = document.tables[block.table]
        for cell in table.cells:
            if cell.span.start <= offset < cell.span.end:
                cells = table.row_cells(cell.row)
                return Span(min(c.span.start for c in cells), max(c.span.end for c in cells))
    sentence = passages.sentence_at(offset)
    if sentence is not None:
        return sentence.span
    return block.span if block else Span(offset, offset + 1)
