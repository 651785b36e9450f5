"""Names of organisations, and the roles that a document gives them: (the "Landlord")."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from yarnex.core.document import Span
from yarnex.core.patterns import pattern
from yarnex.core.values.types import Found, Party

WORDS_TOO = r"Company|COMPANY|Society|SOCIETY|Trust|TRUST|Council|Bank|BANK|Association|Foundation|Partnership|University"  # that stand inside names too
FORMS = (
    r"Limited|Ltd\b\.?|LIMITED|LTD\b\.?|L\.?L\.?C\b\.?|L\.?L\.?P\b\.?|L\.P\.|LP\b|Inc\b\.?|INC\b\.?|Incorporated|Corporation|Corp\b\.?|CORPORATION|plc|PLC|p\.l\.c\."
    r"|GmbH|AG\b|N\.A\.|S\.A\.|SA\b|S\.r\.l\.|B\.V\.|BV\b|N\.V\.|NV\b|Pty\s+Ltd\b\.?|DAC\b|Co\b\.|CLG\b|CIC\b"
    r"|S\.p\.A\.|SpA\b|S\.?A\.?S\.|SARL\b|S\.L\.|Lda\b\.?|Kft\b\.?|s\.r\.o\.|a\.s\.|sp\. z o\.o\.|Pvt\b\.?|Bhd\b\.?|K\.K\."
    r"|(?<=[a-zé.]\s)(?:AB|ApS|A/S|AS|ASA|Oyj?|KG|SE|SAS|SL)\b"  # letters that mean other things after a number or capitals
    rf"|{WORDS_TOO}"
)
SURE = r"Limited|LIMITED|Ltd\b\.?|LTD\b\.?|plc|PLC|L\.?L\.?C\b\.?|L\.?L\.?P\b\.?|GmbH|B\.V\.|DAC\b|Inc\b\.?"  # also before the number of a house
_word = r"(?!(?:BETWEEN|Between|AND\s+BETWEEN)\b)(?:[A-Z0-9][\w&.'’/-]*|&|\((?:[A-Z][\w .&-]{0,25})\))"
_link = r"(?:of|and|the|for|de|la|von|van|y)"
_organisation = pattern(
    rf"(?<![\w]){_word}(?:\s+(?:{_word}|{_link})){{0,7}}?,?\s+(?:(?:{SURE})(?!\w)|(?:{FORMS})(?!\w|[-–/ ]?\d))(?!\s+(?:[Ss]ecretary|Act\b|[Nn]umber|No\.))"
)
SIGNED_BY = pattern(r"(?:signed(?:\s+by)?|;)\W*\Z", re.IGNORECASE)
_ends_in_word = pattern(rf"\b(?:{WORDS_TOO})\Z")
_no_name = pattern(rf"\sthe\s+(?:{WORDS_TOO})\Z")  # "On 3 May the Company"
_goes_on = pattern(
    rf"(?:[ \u00a0]{_word}){{0,3}}?[ \u00a0](?!(?:{WORDS_TOO})\b)(?:(?:{SURE})(?!\w)|(?:{FORMS})(?!\w|[-–/ ]?\d))|[ \u00a0](?:Company|COMPANY)\b(?!\s+(?:[Ss]ecretary|[Nn]umber|No\.))"  # "Pell Trust Company"
)
ONLY_KINDS = pattern(
    r"(?:(?:The|Group|Company|Parent|Subsidiary|Bank|Trust|Society|Council|Partnership|Association|and|or|of|the|its|&)[\s,]*)+",
    re.IGNORECASE,
)  # "Group and Company"
_role = pattern(
    r"\(\s*(?:(?:hereinafter|herein|hereafter|collectively|individually|together|each|as|called|referred\s+to|known|in\s+this\s+\w+|,|the|a|an|or|with|its|successors|and|assigns)\s+)*"
    r"[\"“”'‘](?:the\s+)?(?P<role>[A-Z][A-Za-z’' -]{2,40}?|you|we|us)[\"”’']",
)
_bare_role = pattern(
    r"\(\s*(?:the|each\s+an?|together,?\s+the)\s+(?P<role>[A-Z][a-z]{2,20}(?:\s[A-Z][a-z]{2,20})?)\s*\)"
)
# "(Seller)" behind a firm's name at the end of a line or before a stop
_role_alone = pattern(
    r"\(\s*(?P<role>(?:(?:Seller|Buyer|Purchaser|Vendor|Tenant|Landlord|Borrower|Lender|Supplier|Customer)['’]s\s+)?"
    r"(?:Seller|Vendor|Buyer|Purchaser|Landlord|Tenant|Lessor|Lessee|Lender|Borrower|Guarantor|Surety|Company|Supplier|Customer|Client|Consultant|Contractor|Licensor|Licensee|Employer|Employee|Executive|Bank|Agent|Distributor|Insurer|Insured|Target|Investor|Owner|Hirer|Principal|Trustee|Parent|Provider|Manufacturer|Carrier|Depositor|Warehouseman|Discloser|Recipient|Assignor|Assignee|Transferor|Transferee|Mortgagor|Mortgagee|Chargor|Issuer|Covenantor|Warrantor)s?)\s*\)"
    r"(?=\s*(?:[;.,]|and\b|\n|\Z))"
)
_start = pattern(
    r"(?:\b(?:between|amongst|among|by\s+and\s+between|by|and|is\s+made|BETWEEN|AND|PARTIES)\b\s*:?\s*|\A|[\n\t;]\s*(?:\d{1,2}[.)]\s+)?|\(\d\)[.:,]?\s*|\A\d\.\s*)"
)
_things = pattern(  # defined in brackets like a party, and no party
    r"(?:existing |expansion |demised |new )?(?:premises|property|properties|building|land|site|unit|suite|store|estate|lease|licence|license|agreement|contract|deed|letter|plan|term|rent|deposit|goods|products?|services?"
    r"|equipment|works?|shares|business|facility|loan|notes?|policy|fund|project|software|materials|documents?|purpose|transaction|event|programme|program|system|vessel|vehicle|report|statement|order form)\Z",
    re.IGNORECASE,
)
_person = pattern(
    r"(?:(?:Mr|Mrs|Ms|Miss|Dr|DR|MR|MRS|MS|Prof|Professor|Sir|Dame)\.?\s+)?[A-Z][\w'’-]*\.?(?:\s[A-Z][\w'’-]*\.?){1,3}"
)
_lead = pattern(r"(?:By\s+and\s+between|Between|By|And|From|To)\s+(?=[A-Z])")
_numbered = pattern(r"\s*(?:and\s+)?\(?\d{1,2}[.)]{1,2}\s*", re.IGNORECASE)
_stop = pattern(
    rf"(?:,\s+(?!(?:{FORMS})(?!\w))|;|\s+\((?!(?:[A-Z]{{2,4}}|[A-Z][a-z]+)\)[,\s])|\s+(?:of|whose|having|a company|acting|incorporated|registered|with|as|c/o|at)\s|\s+[–—-]\s|\Z)"
)


A_SUM = pattern(r"[£$€]|\d,\d{3}\b")  # "Brook Mills GBP 600,000": what is lent is no party


@dataclass(frozen=True, slots=True)
class PartyRole:
    """A party's name and the role given to it ("Landlord")."""

    name: str
    role: str


def find_organisations(text: str) -> Iterator[Found[Party]]:
    """Names that end in a legal form ("... Limited", "..., LLC"), left to right."""
    end = 0
    while m := _organisation.search(text, end):
        start, end = m.start(), m.end()
        end = start + len(_whole(text, m))
        if _no_name.search(text, start, end) or ONLY_KINDS.fullmatch(text, start, end):
            continue
        lead = re.match(
            r"(?:(?:The|This|By|Between|And|As|For|Name|From|To|If|In|Signed\s+(?:for|by)(?:\s+and\s+on\s+behalf\s+of)?)\s+)+",
            m.group(),
        )
        if lead and not re.match(r"The\s+\w+\s+(?:Company|Trust|Bank|Council)", m.group()):
            start += lead.end()
        if number := re.match(r".*\d\.\s+(?=\S)", text[start:end]):  # a sentence ends before the name
            start += number.end()
        start += max(text[start:end].rfind("\n"), text[start:end].rfind("\t")) + 1  # another line, or another cell
        if SIGNED_BY.search(text, max(0, start - 16), start) and (whom := text.find(" for ", start, end)) > 0:
            start = whom + 5  # "Signed: Ella Venn for Tarn Mills Limited"
        name = text[start:end].rstrip(",")
        name = name[:-1] if name.endswith(("LLP.", "LLC.", "LP.")) and "L.P." not in name else name  # a full stop
        yield Found(Party(name), Span(start, start + len(name)))


def is_organisation(words: str) -> bool:
    """True where some words are the name of an organisation and no more, but for a full stop, a comma or a colon."""
    name = words.strip(" ,.:\t\n")
    return bool(name) and any(len(f.value.name) >= len(name) - 2 for f in find_organisations(name))


def find_party_roles(text: str) -> Iterator[Found[PartyRole]]:
    """Each 'NAME, a company ... (the "Role")', left to right; the span is the name's.

    The name opens the clause that the bracketed role closes.
    """
    floor = roles = 0
    bare = {m.start(): m for form in (_bare_role, _role_alone) for m in form.finditer(text)}
    for m in sorted((*_role.finditer(text), *bare.values()), key=lambda m: m.start()):
        clause = text[floor : m.start()]
        place = _name_in(clause)
        if _things.match(m["role"].strip()) and not _is_a_side(clause, place):
            floor = _closed(text, m)
            continue
        if m is bare.get(m.start()) and (place is None or not _organisation.match(place[1])):
            # without quotation marks, only what follows an organisation is a role, or a person beside one that has a role
            listed = roles and "\n\n" not in text[roles : m.start()] and place is not None
            if not (listed and place is not None and _person.fullmatch(clause[place[0] :].strip(" ,"))):
                continue
        if place is None:
            floor = _closed(text, m)
            continue
        begin, name = floor + place[0], place[1]
        if numbered := re.match(r"\d{1,2}[.)]\s+", name):
            begin, name = begin + numbered.end(), name[numbered.end() :]
        if lead := _lead.match(name):
            begin, name = begin + lead.end(), name[lead.end() :]
        if (
            name
            and len(name) < 120
            and len(name.split()) <= 14
            and re.match(r"[A-Z0-9]", name)
            and not A_SUM.search(name)
            and not name.lower().startswith(("this ", "the date", "section "))
        ):
            roles = m.end()
            yield Found(PartyRole(name, m["role"].strip()), Span(begin, begin + len(name)))
        floor = _closed(text, m)


IN_COURT = pattern(r"\b(?:court|tribunal|arbitration|adjudication)\b", re.IGNORECASE)
_side = pattern(
    r"(?:\A|[\n\t]|\b(?:BETWEEN|Between|AND|and)\b:?)[\s-]*(?:\(?\d\)?[.)]?\s+)?(?P<name>(?!BETWEEN\b|Between\b)[A-Z][\w.,'’&()-]*(?:[ ]+(?:[A-Z(][\w.,'’&()-]*|of|and|the|&|plc|ltd|llp|limited)){0,8}?)[,\s.…-]+"
    r"(?P<role>(?:(?:First|Second|Third|1st|2nd|3rd)\s+)?(?:Claimant|Plaintiff|Applicant|Appellant|Petitioner|Pursuer|Defendant|Respondent|Defender|CLAIMANT|PLAINTIFF|APPLICANT|APPELLANT|PETITIONER|DEFENDANT|RESPONDENT)s?)"
    r"(?=\s*(?:$|[\n\t.;,]|\(|[-–]|\b(?:and|AND|v)\b))",
    re.MULTILINE,
)


def find_sides(head: str) -> Iterator[Found[PartyRole]]:
    """The sides of a case as the heading of a court's or tribunal's paper names them, "TARN MILLS LIMITED   Claimant"."""
    if not IN_COURT.search(head):
        return
    for m in _side.finditer(head):
        name = m["name"].strip(" ,.-")
        if len(name.split()) > 1:
            yield Found(PartyRole(name, m["role"].title()), Span(m.start("name"), m.start("name") + len(name)))


SIDE_OPENS = pattern(r"(?:\b(?:between|and)\b:?|\(\d\)\.?|\A\d\.)\s*\Z", re.IGNORECASE)


def _is_a_side(clause: str, place: tuple[int, str] | None) -> bool:
    """True for a firm that a paper opens with as one side, though what it is called is a thing elsewhere: a department "Store"."""
    if place is None or not _organisation.match(place[1]):
        return False
    return SIDE_OPENS.search(clause, max(0, place[0] - 12), place[0]) is not None


def _whole(text: str, name: re.Match[str]) -> str:
    """A name up to its legal form, where it holds a word that ends others: "Calder Bank Plumbing Ltd" is no bank."""
    longer = _goes_on.match(text, name.end()) if _ends_in_word.search(name.group()) else None
    return text[name.start() : longer.end() if longer else name.end()]


def _name_in(clause: str) -> tuple[int, str] | None:
    """Where the party's name begins in the clause before its role, and the name.

    A name stands after "between", "and", a number or a line end; one with a legal form is taken before any other.
    """
    numbered = _numbered.match(clause)
    if numbered and (whole := _organisation.match(clause, numbered.end())):
        return numbered.end(), _whole(clause, whole).rstrip(",")
    inside = list(_organisation.finditer(clause))
    last = _whole(clause, inside[-1]) if inside else ""
    right_before = inside and not clause[inside[-1].start() + len(last) :].strip(" ,")  # of the bracket
    if right_before and not re.search(r"\b(?:and|between)\s", last, re.IGNORECASE):
        return inside[-1].start(), last.rstrip(",")
    starts = [m.end() for m in _start.finditer(clause)]
    for begin in reversed(starts):
        m = _organisation.match(clause, begin)
        if m and not re.search(r"\b(?:and|by and between)\s*\Z", clause[: max(0, begin - 1)]):
            return begin, _whole(clause, m).rstrip(",")
    if inside and re.match(r",?\s+(?:an?|the)\s", clause[inside[-1].start() + len(last) :]):
        return inside[-1].start(), last.rstrip(",")  # "..., a Delaware corporation"
    for begin in reversed(starts):
        rest = clause[begin:]
        stop = _stop.search(rest)
        name = (rest[: stop.start()] if stop else rest).strip(" ,:")
        if name and _titled(name) and (_organisation.match(name) or len(name.split()) > 1):
            return begin, name
    return (inside[-1].start(), inside[-1].group().rstrip(",")) if inside else None


def _closed(text: str, role: re.Match[str]) -> int:
    if text[role.end() - 1] == ")":
        return role.end()
    close = text.find(")", role.end())
    return close + 1 if close >= 0 else role.end()


def _titled(name: str) -> bool:
    """A name's words begin with capitals, but for small linking ones."""
    words = [
        w for w in name.split() if w.lower() not in ("of", "and", "the", "for", "de", "la", "von", "van", "y", "&")
    ]
    return bool(words) and all(w[:1].isupper() or not w[:1].isalpha() for w in words)
