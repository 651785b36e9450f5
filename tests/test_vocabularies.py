"""The words by which dates, duties, charges and lines of accounts are told apart, each as people write and say them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.costs.kinds import cost_vocabulary, kind_of_charge, role_of
from yarnex.core.costs.model import ROLES
from yarnex.core.dates.kinds import date_vocabulary, kind_of
from yarnex.core.duties.kinds import duty_vocabulary, kind_of_duty
from yarnex.core.figures.lines import line_vocabulary, lines_meant


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("rent is payable on 1 May", "payment"),
        ("first instalment falls due on 3 May", "payment"),
        ("the loan matures on 1 June", "payment"),
        ("the offer stands until 3 May", "end"),
        ("the lease expires on 3 June", "end"),
        ("cover ends on 2 May", "end"),
        ("takes effect on 1 July", "start"),
        ("drawdown on 3 June", "start"),
        ("the works begin on 4 June", "start"),
        ("must be delivered by 4 May", "deadline"),
        ("notice to be given before 5 May", "notice"),
        ("representations by 5 July", "notice"),
        ("the rent review date is 1 May", "review"),
        ("this deed is dated 4 May", "document"),
        ("issued on 3 May", "document"),
        ("the roof was seen on 4 May", "mention"),
        ("", "mention"),
    ],
)
def test_what_a_day_is_for(words, kind):
    assert kind_of(words) == kind


@pytest.mark.parametrize(
    ("words", "force", "kind"),
    [
        ("pay the rent on the usual quarter days", "must", "payment"),
        ("indemnify the lender against any loss", "must", "payment"),
        ("insure the building for its full value", "must", "insurance"),
        ("give notice of any damage within seven days", "must", "notice"),
        ("end the lease on six months' notice", "may", "notice"),
        ("not assign the lease", "must_not", "restriction"),
        ("not use the premises for dwelling", "must_not", "restriction"),
        ("keep the terms of this agreement confidential", "must", "confidentiality"),
        ("deliver audited accounts within 120 days", "must", "reporting"),
        ("keep records for six years", "must", "reporting"),
        ("repair the roof", "must", "upkeep"),
        ("let the landlord enter to inspect", "must", "access"),
        ("comply with the law", "must", "compliance"),
        ("deliver the goods to the mill", "must", "delivery"),
        ("return the drums at the end", "must", "delivery"),
        ("train the staff of the customer", "must", "other"),
    ],
)
def test_what_a_duty_is_about(words, force, kind):
    assert kind_of_duty(words, force) == kind


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("Call-out on Sunday", "labour"),
        ("Labour, 3 h", "labour"),
        ("Cleaning of carpets", "labour"),
        ("Copper pipe", "materials"),
        ("Paint", "materials"),
        ("Mileage", "travel"),
        ("Travel to site", "travel"),
        ("Room and board", "travel"),
        ("Hire of pump", "hire"),
        ("Scaffolding hire", "hire"),
        ("Storage, 4 weeks", "storage"),
        ("X-ray of left hand", "treatment"),
        ("Physiotherapy session", "treatment"),
        ("Blood test", "treatment"),
        ("Consultation with Dr Lund", "treatment"),
        ("Aspirin 500 mg", "medication"),
        ("Ambulance", "transport"),
        ("Courier", "transport"),
        ("Postage", "transport"),
        ("Legal advice", "fees"),
        ("Court fee", "fees"),
        ("Survey report", "fees"),
        ("Software licence", "fees"),
        ("Repair of gate", "repair"),
        ("A thing without a name", "other"),
    ],
)
def test_what_a_charge_is_for(words, kind):
    assert kind_of_charge(words) == kind


@pytest.mark.parametrize(
    ("label", "role"),
    [
        ("Subtotal", "subtotal"),
        ("Net", "subtotal"),
        ("Sum before tax", "subtotal"),
        ("Total excluding VAT", "subtotal"),
        ("Total due", "total"),
        ("Amount due NZ$", "total"),
        ("Balance due", "total"),
        ("To pay", "total"),
        ("Grand total", "total"),
        ("Total including VAT", "total"),
        ("VAT at 20%", "tax"),
        ("GST 15%", "tax"),
        ("Sales tax", "tax"),
        ("Less: discount", "adjustment"),
        ("Credit", "adjustment"),
        ("Adjustment", "adjustment"),
        ("Paid with thanks", "payment"),
        ("Payment received 3 May", "payment"),
        ("Deposit received", "payment"),
        ("Call-out", "charge"),
        ("Taxi to the site", "charge"),
        ("Net curtains", "charge"),
        ("Totaliser valve", "charge"),
    ],
)
def test_which_lines_of_a_bill_are_charges(label, role):
    assert role_of(label) == role


@pytest.mark.parametrize(
    ("name", "lines"),
    [
        ("turnover", ["revenue"]),
        ("sales", ["revenue"]),
        ("revenue", ["revenue"]),
        ("PAT", ["profit", "profit_owners"]),
        ("profit after tax", ["profit", "profit_owners"]),
        ("net income", ["profit", "profit_owners"]),
        ("EBITDA", ["ebitda"]),
        ("EBIT", ["operating_profit"]),
        ("operating profit", ["operating_profit"]),
        ("cost of sales", ["cost_of_sales"]),
        ("EPS", ["eps_basic", "eps_diluted"]),
        ("earnings per share", ["eps_basic", "eps_diluted"]),
        ("dividend per share", ["dividend_per_share"]),
        ("capex", ["capex", "ppe_purchases"]),
        ("cash", ["cash"]),
        ("equity", ["total_equity"]),
        ("net assets", ["net_assets"]),
        ("total assets", ["total_assets"]),
        ("net debt", ["net_debt"]),
        ("gearing", ["gearing"]),
        ("goodwill", ["goodwill"]),
        ("share capital", ["share_capital"]),
        ("trade debtors", ["receivables"]),
        ("stock", ["inventories"]),
        ("inventories", ["inventories"]),
        ("headcount", ["employees"]),
        ("free cash flow", ["free_cash_flow"]),
        ("depreciation", ["depreciation"]),
        ("R&D", ["research_costs"]),
        ("gross margin", ["gross_margin"]),
        ("colour of the roof", []),
    ],
)
def test_lines_of_accounts_as_people_name_them(name, lines):
    assert [line.id for line in lines_meant(name)] == lines


def test_debt_is_asked_with_each_of_its_meanings():
    assert {line.id for line in lines_meant("debt")} == {"borrowings", "borrowings_current", "borrowings_noncurrent"}


@given(st.text(max_size=60))
def test_any_label_has_one_kind_and_one_role(words):
    kinds = {kind for kind, _ in cost_vocabulary().kinds} | {"other"}
    assert kind_of_charge(words) in kinds
    assert role_of(words) in ROLES
    assert kind_of(words) in {kind for kind, _ in date_vocabulary().kinds} | {"mention"}


@pytest.mark.parametrize("vocabulary", [cost_vocabulary, date_vocabulary, duty_vocabulary, line_vocabulary])
def test_a_vocabulary_is_read_once(vocabulary):
    assert vocabulary() is vocabulary()
