"""Agreements of other kinds than leases: conditions, changes within a paper, particulars, amendments, screening, drafts."""

from __future__ import annotations

from datetime import date

import pytest

from yarnex.core.document import Span
from yarnex.core.terms import abstract, abstract_all, load_sheet
from yarnex.core.terms.abstract import sheet_for
from yarnex.core.terms.conditions import condition_of, with_its_start
from yarnex.core.terms.drafting import propose, to_yaml
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.screening import missed, screen
from yarnex.core.terms.sheets import parse_sheet
from yarnex.output.wording import said, to_check

SERVICES = """SERVICES AGREEMENT

This Agreement is made on 3 March 2025 between:

(1) Hebble Carding Limited (the "Supplier"); and

(2) Ash and Dean Looms Limited (the "Customer").

1. Term

1.1 This Agreement starts on 1 April 2025 and continues for an initial term of three years. It then renews for successive periods of one year unless either party gives at least ninety days' notice before the end of the term.

2. Fees

2.1 The fees are £41,000 a year. The Customer shall pay each invoice within thirty days of its date.

3. Liability

3.1 The total liability of each party shall not exceed the greater of £80,000 and the fees paid in that year.

4. Ending

4.1 Either party may terminate if the other commits a material breach and does not remedy it within twenty days of notice.

5. Law

5.1 This Agreement is governed by the law of Scotland, whose courts have exclusive jurisdiction.

Special terms

6.1 In clause 4.1 the words "twenty days" are replaced by "thirty-five days".

6.2 For the first year only, clause 2.1 applies as if the words "thirty days" read "sixty days".
"""


@pytest.fixture
def services(document):
    return abstract(document(SERVICES), sheet_for(document(SERVICES)))


@pytest.mark.parametrize(
    ("term", "state", "value"),
    [
        ("supplier", "stated", "Hebble Carding Limited"), ("customer", "stated", "Ash and Dean Looms Limited"), ("term", "stated", "3 years"),
        ("commencement_date", "stated", "1 April 2025"), ("term_end", "computed", "31 March 2028"), ("non_renewal_by", "computed", "1 January 2028"),
        ("renewal_term", "stated", "1 year"), ("non_renewal_notice", "stated", "90 days"), ("fees", "stated", "£41,000 a year"),
        ("liability_cap", "stated", "£80,000"), ("governing_law", "stated", "Scotland"), ("jurisdiction_exclusive", "stated", "yes"),
        ("cure_period", "amended", "35 days"), ("payment_terms", "stated", "30 days"), ("non_compete", "not_found", "not found"),
    ],
)  # fmt: skip
def test_terms_of_a_services_agreement(services, term, state, value):
    finding = services.finding(term)
    assert (finding.state, said(finding)) == (state, value)


STARTS = [
    ("Invoices are paid within 30 days of receipt.", "30 days", "within 30 days of receipt"),
    ("Bills are paid 35 days after the end of the quarter in which they were sent, in euro.", "35 days", "35 days after the end of the quarter"),
    ("Notice of not less than six months before the end of the Term is needed.", "six months", "not less than six months before the end of the Term"),
    ("Accounts are sent twenty days after the audit is completed and signed.", "twenty days", "twenty days after the audit is completed"),
    ("If rent is unpaid 21 days after the due date the Landlord may re-enter.", "21 days", "21 days after the due date"),
    ("An engineer comes within four hours of a call between May and August.", "four hours", "within four hours of a call between May and August"),
    ("Within 14 days of notice requiring it to do so the Tenant shall pay.", "14 days", "Within 14 days of notice"),
    ("Staff have 25 days of leave.", "25 days", "25 days"),
    ("The term is five years.", "five years", "five years"),
]  # fmt: skip


@pytest.mark.parametrize(("sentence", "length", "whole"), STARTS)
def test_a_length_of_time_is_told_with_what_it_runs_from(sentence, length, whole):
    at = sentence.index(length)
    assert with_its_start(sentence, Span(at, at + len(length)), 0).of(sentence) == whole


def test_a_length_of_time_does_not_run_on_into_the_next_cell():
    row = "within 30 days of the invoice date\tOrder number"
    assert with_its_start(row, Span(7, 14), 0).of(row) == "within 30 days of the invoice date"


def test_a_value_is_given_with_its_condition(services):
    assert any(
        "the greater of £80,000 and the fees paid in that year" in w for w in services.finding("liability_cap").working
    )


def test_an_exception_stands_beside_the_rule(services):
    finding = services.finding("payment_terms")
    assert any("but “sixty days” in a special case" in w for w in finding.working)
    assert len(finding.cites) == 2


@pytest.mark.parametrize(
    ("sentence", "value", "condition"),
    [
        ("The fee is £500, provided that the goods arrive in May.", "£500", "provided that the goods arrive in May"),
        (
            "It ends on 1 May 2030, or if later when the loan is repaid.",
            "1 May 2030",
            "or if later when the loan is repaid",
        ),
        (
            "It starts on the earlier of 1 May 2030 and the opening.",
            "1 May 2030",
            "the earlier of 1 May 2030 and the opening",
        ),
        ("The fee is £500; unless the moon is full, it is paid in May.", "£500", ""),
        ("The fee is £500.", "£500", ""),
    ],
)
def test_conditions(document, sentence, value, condition):
    passages = Passages(document(sentence))
    kind = "money" if "£" in value else "date"
    assert condition_of(passages, passages.values(kind)[0].span) == condition


PARTICULARS = """# Order form

| Item | Particular |
| --- | --- |
| Order number | H-77 |
| Spindle oil | £320.00 |
| Forklift licence held | Yes |
| Cost centre | ________ |

| Service | Response | Price (£) |
| --- | --- | --- |
| Winder repair | 4 hours | 95.00 |
| Card clothing | 2 days | 410.00 |
"""


def test_what_no_term_asks_for_stands_under_its_own_label(document):
    paper = document(PARTICULARS, "order.md")
    filled = abstract(paper, sheet_for(paper))
    rows = {f.term.label: (f.state, said(f)) for f in filled.findings if f.term.id.startswith("other_")}
    assert rows["Spindle oil"] == ("stated", "£320")
    assert rows["Forklift licence held"] == ("stated", "yes")
    assert rows["Cost centre"] == ("blank", "left blank")
    assert rows["Winder repair: Response"] == ("stated", "4 hours")
    assert rows["Card clothing: Price (£)"] == ("stated", "£410")


LATER = """# Contract of employment

Hebble Carding Limited (the "Company") employs Dr Ada Thorne (the "Employee") as Dye Master from 5 May 2020.

| Particular | Term |
| --- | --- |
| Salary | £38,000 a year |

# Variation of terms

| Subject | From 1 June 2024 |
| --- | --- |
| Salary | £44,500 a year |
"""


def test_a_later_part_of_the_same_paper_wins(document):
    paper = document(LATER, "contract.md")
    finding = abstract(paper, sheet_for(paper)).finding("salary")
    assert (finding.state, said(finding)) == ("amended", "£44,500 a year")
    assert "applies from 1 June 2024; before: “£38,000 a year”" in finding.working[0]
    assert [(f.role, f.text) for f in finding.further] == [("before", "£38,000 a year")]


CHANGE = """AMENDMENT TO SERVICES AGREEMENT

This Amendment is dated 9 September 2026 and takes effect on 1 January 2027. It amends the Services Agreement dated 3 March 2025 between Hebble Carding Limited and Ash and Dean Looms Limited.

1. The fees are £47,500 a year.
"""


@pytest.mark.parametrize(
    ("as_of", "state", "value"),
    [
        (None, "amended", "£47,500 a year"),
        (date(2027, 2, 1), "amended", "£47,500 a year"),
        (date(2026, 12, 31), "stated", "£41,000 a year"),
    ],
)
def test_terms_in_force_on_a_day(document, as_of, state, value):
    papers = [document(SERVICES, "main.txt"), document(CHANGE, "change.txt")]
    main, change = abstract_all(papers, as_of=as_of)
    assert change.amends == "main.txt"
    finding = main.finding("fees")
    assert (finding.state, said(finding)) == (state, value)
    assert bool(main.not_yet) is (state == "stated")


SCREEN = """sheet: "s"
label: "S"
terms:
  - {id: "law", label: "Law", type: "text", cues: ["governed by the law of <value>"], required: true, allowed: ["Scotland", "Ireland"]}
  - {id: "cap", label: "Cap", type: "money", cues: ["liability ... exceed <value>"], required: true}
"""


def test_screening(document):
    sheet = parse_sheet(SCREEN, "s.yaml")
    papers = [
        document("DEED\n\nThis is governed by the law of Ireland. The liability shall not exceed £5.", "a.txt"),
        document("DEED\n\nThis is governed by the law of Norway. The liability shall not exceed £5.", "b.txt"),
        document("DEED\n\nThis is governed by the law of Ireland.", "c.txt"),
    ]
    judged = screen(abstract_all(papers, sheet))
    assert [s.stays for s in judged] == [True, False, False]
    assert judged[1].lacks[0].why == "says 'Norway'; allowed: Scotland, Ireland"
    assert judged[2].lacks[0].term.id == "cap"


DETAILS = """sheet: "s"
label: "S"
terms:
  - {id: "fee", label: "Fee", type: "money", cues: ["fee of <value>"]}
  - {id: "fee_due", label: "Fee due", type: "duration", cues: ["fee ... within <value>"], detail_of: "fee"}
  - {id: "fee_late", label: "Late fee", type: "money", cues: ["late fee of <value>"], detail_of: "fee", required: true}
  - {id: "court", label: "Court", type: "text", cues: ["courts of <value>"]}
"""


@pytest.mark.parametrize(
    ("words", "lacking"),
    [
        ("Nothing is charged.", [("fee", 2), ("fee_late", 0), ("court", 0)]),
        ("The courts of Ireland decide. A fee of £5 is charged.", [("fee_due", 0), ("fee_late", 0)]),
    ],
)
def test_details_of_what_is_lacking_are_not_missed_one_by_one(document, words, lacking):
    filled = abstract(document(f"NOTE\n\n{words}"), parse_sheet(DETAILS, "s.yaml"))
    assert [(f.term.id, details) for f, details in missed(filled.findings)] == lacking


def test_a_draft_proposes_what_papers_share(document):
    papers = [
        document(
            f"# Moisture report {n}\n\nBale number: {n}\n\nMoisture: {10 + n}%\n\nTested on: {n} May 2026\n\nRemark {n}: none of note\n",
            f"{n}.md",
        )
        for n in (1, 2, 3)
    ]
    proposed = propose(papers)
    labels = {p.label: p.types.most_common(1)[0][0] for p in proposed}
    assert labels["Moisture"] == "percent"
    assert labels["Tested on"] == "date"
    assert not any("Remark" in label for label in labels)
    sheet = parse_sheet(to_yaml(proposed, "moisture", 3), "draft.yaml")
    assert said(abstract(papers[1], sheet).finding("moisture")) == "12 %"


def test_weak_evidence_is_marked_for_a_look(services):
    assert not to_check(services.finding("cure_period"))
    assert {f.term.id for f in services.findings if to_check(f)} <= {"jurisdiction"}


ORDER = """# Services agreement

This Agreement is made between Hebble Carding Limited (the "Supplier") and Ash Looms Limited (the "Customer").

## 1 Payment

1.1 The Customer shall pay each invoice within thirty days of its date.

1.2 The special terms prevail over the clauses, and the clauses over the schedules.

## Schedule 1

The Customer shall pay each invoice within forty days of its date.
"""


def test_the_order_of_precedence_decides_between_parts(document):
    paper = document(ORDER, "order.md")
    finding = abstract(paper, sheet_for(paper)).finding("payment_terms")
    assert (finding.state, said(finding)) == ("stated", "30 days")
    assert "prevails over “forty days”" in finding.working[0]
    other = document(
        ORDER.replace(
            "1.2 The special terms prevail over the clauses, and the clauses over the schedules.",
            "1.2 Scots law applies.",
        )
    )
    assert abstract(other, sheet_for(other)).finding("payment_terms").state == "conflicting"


def test_a_term_defined_elsewhere_is_followed(document):
    text = """# Order form

| Item | Particular |
| --- | --- |
| Initial term | 24 months |
| Start date | 1 May 2026 |

# Terms

"Initial Term" has the meaning given in the Order Form. This software subscription continues for the Initial Term.
"""
    paper = document(text, "order.md")
    filled = abstract(paper, sheet_for(paper))
    assert said(filled.finding("initial_term")) == "24 months"
    assert said(filled.finding("initial_term_end")) == "30 April 2028"


@pytest.mark.parametrize(
    ("words", "state", "value"),
    [
        ("unless the Order Form says otherwise", "stated", "40 days"),
        ("unless otherwise agreed in an order form", "stated", "40 days"),
        ("whatever the Order Form says", "conflicting", "40 days"),
    ],
)
def test_a_rule_that_gives_way_to_another_part_is_no_conflict(document, words, state, value):
    paper = document(
        "SERVICES AGREEMENT AND ORDER FORM\n\nPayment terms: within 40 days of the invoice\n\n"
        f"GENERAL TERMS\n\n4.1 The Customer shall pay each invoice within 25 days of its date {words}."
    )
    finding = abstract(paper, load_sheet("services")).finding("payment_terms")
    assert (finding.state, said(finding)) == (state, value)
    if state == "stated":
        assert words in finding.working[0]
