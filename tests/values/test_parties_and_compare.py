from __future__ import annotations

from datetime import date
from decimal import Decimal

import pytest

from yarnex.core.values import (
    DateValue,
    Duration,
    ListOf,
    Money,
    Party,
    Percent,
    Quantity,
    Text,
    YesNo,
    comparable,
    find_organisations,
    find_party_roles,
    find_sides,
    same_value,
)


@pytest.mark.parametrize(
    ("text", "roles"),
    [
        (
            '(1) TEASEL ESTATES LIMITED, a company incorporated in England under number 5, whose office is at 1 Carder Street (the "Landlord");',
            [("TEASEL ESTATES LIMITED", "Landlord")],
        ),
        (
            'made as of June 18, 2024 (the "Amendment Date") by and between CARDER HOLDINGS LLC, a Delaware limited liability company '
            '("Landlord"), and BOBBIN WORKS (UK), LLC, an Ohio limited liability company ("Tenant").',
            [("CARDER HOLDINGS LLC", "Landlord"), ("BOBBIN WORKS (UK), LLC", "Tenant")],
        ),
        ('made between Teasel & Burr Limited of The Old Yard, Thrapsley (the “Licensor”); and', [("Teasel & Burr Limited", "Licensor")]),
        ('is made BETWEEN QUAY DEVELOPMENTS DAC, a company (the "Lessor"), and BRACKENFOLD MILLS LIMITED (the "Lessee").',
         [("QUAY DEVELOPMENTS DAC", "Lessor"), ("BRACKENFOLD MILLS LIMITED", "Lessee")]),
        ('For value received, and to induce it to sign, Brackenfold Holdings Limited ("Guarantor"), whose office', [("Brackenfold Holdings Limited", "Guarantor")]),
        ('(2) Ada Hepplewhite of 3 Mill Lane, Hebblethorpe (the "Tenant")', [("Ada Hepplewhite", "Tenant")]),
        ('the sum of £5 (the "Deposit")', []),
        ("no role here (see clause 4)", []),
    ],
)  # fmt: skip
def test_parties_by_role(text, roles):
    assert [(f.value.name, f.value.role) for f in find_party_roles(text)] == roles
    for found in find_party_roles(text):
        assert found.span.of(text) == found.value.name


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("between Teasel Estates Limited and Low Weir Mill plc", ["Teasel Estates Limited", "Low Weir Mill plc"]),
        ("Carder Commons Associates, L.P., as owner", ["Carder Commons Associates, L.P."]),
        ("a limited company", []),
        ("by Hagg Bank Combing Ltd and Tarn Trust", ["Hagg Bank Combing Ltd", "Tarn Trust"]),
        ("Aire and Dales Commercial Bank PLC", ["Aire and Dales Commercial Bank PLC"]),
        ("Imogen Marr, Company Secretary", []),
        ("audited by Skelf & Moor LLP.", ["Skelf & Moor LLP"]),
        ("the Company shall", []),
    ],
)
def test_organisations(text, names):
    assert [f.value.name for f in find_organisations(text)] == names


D = Decimal


@pytest.mark.parametrize(
    ("a", "b", "same"),
    [
        (Duration(D(12), "months"), Duration(D(1), "years"), True),
        (Duration(D(2), "weeks"), Duration(D(14), "days"), True),
        (Duration(D(10), "business_days"), Duration(D(10), "days"), False),
        (Quantity(D(100), "sq_m"), Quantity(D("1076.4"), "sq_ft"), True),
        (Quantity(D(100), "sq_m"), Quantity(D(1000), "sq_ft"), False),
        (Money(D(1200), "GBP", "year"), Money(D(100), "GBP", "month"), True),
        (Money(D(1200), "GBP", "year"), Money(D(1200), "EUR", "year"), False),
        (Money(D(50), "GBP"), Money(D("50.00"), "GBP"), True),
        (Text("The laws of  Ireland."), Text("the laws of Ireland"), True),
        (Party("TEASEL LIMITED"), Party("Teasel Limited"), True),
        (Percent(D("4.0")), Percent(D(4)), True),
        (YesNo(True), YesNo(False), False),
        (DateValue(date(2026, 1, 1)), DateValue(date(2026, 1, 1)), True),
        (ListOf(("b", "A")), ListOf(("a", "B")), True),
        (DateValue(date(2026, 1, 1)), Percent(D(4)), False),
        (None, None, True),
        (None, Percent(D(4)), False),
    ],
)
def test_values_compared_as_values(a, b, same):
    assert same_value(a, b) is same
    assert same_value(b, a) is same


def test_rent_by_the_square_metre_against_rent_by_the_square_foot():
    changed = comparable(Money(D(95), "EUR", "sq_m_year"), Money(D(9), "EUR", "sq_ft_year"))
    assert changed is not None
    assert changed[0] == Money(D("8.83"), "EUR", "sq_ft_year")
    assert "1 sq_ft = 0.092903 sq_m" in changed[1]


def test_currencies_are_never_turned_into_each_other():
    assert comparable(Money(D(95), "EUR", "month"), Money(D(9), "GBP", "year")) is None
    assert comparable(Money(D(95), "EUR", "month"), Money(D(9), "EUR")) is None


@pytest.mark.parametrize(
    ("text", "name"),
    [
        ("Weir Bank plc 2 Cloth Hall Street", "Weir Bank plc"),
        ("Heddle Tools Ltd 4 Weir Lane", "Heddle Tools Ltd"),
        ("call BM/2026/7. Heddle Werke GmbH, Ring 2", "Heddle Werke GmbH"),
        ("Signed for and on behalf of Kirk & Dyson Storage Ltd", "Kirk & Dyson Storage Ltd"),
        ("Loom & Heddle AB, Sundvik", "Loom & Heddle AB"),
    ],
)
def test_names_end_at_their_legal_form(text, name):
    assert [f.value.name for f in find_organisations(text)] == [name]


@pytest.mark.parametrize("text", ["flasks of 20 KG each", "class AB shares", "the Company 3 days later"])
def test_letters_that_mean_other_things_are_no_legal_forms(text):
    assert not [f for f in find_organisations(text) if f.value.name.endswith(("KG", "AB"))]


@pytest.mark.parametrize(
    ("head", "sides"),
    [
        (
            "IN THE COUNTY COURT AT LEEDS\n\nBETWEEN\n\nALDER MILLS LIMITED    Claimant and\n\nBIRCH LIFTING LIMITED    Defendant\n",
            [("ALDER MILLS LIMITED", "Claimant"), ("BIRCH LIFTING LIMITED", "Defendant")],
        ),
        ("EMPLOYMENT TRIBUNAL\nMr John Tarn  Claimant\nv\nLow Weir Mills plc  Respondent\n", [("Mr John Tarn", "Claimant"), ("Low Weir Mills plc", "Respondent")]),
        ("IN THE HIGH COURT\n(1) ALDER LLC,\n   Plaintiff,\nv.\nBIRCH INC.,\n   Defendants.", [("ALDER LLC", "Plaintiff"), ("BIRCH INC", "Defendants")]),
        ("The court may order the Defendant to pay.", []),
        ("ALDER MILLS LIMITED    Claimant", []),
    ],
)  # fmt: skip
def test_sides_of_a_case(head, sides):
    assert [(f.value.name, f.value.role) for f in find_sides(head)] == sides


def test_the_group_and_the_company_are_no_name():
    assert not list(find_organisations("Fees were paid for the audit of the Group and Company."))


@pytest.mark.parametrize(
    ("text", "roles"),
    [
        (
            'between ALDER & SONS (DEPARTMENT STORES) LTD of 1 Market Place ("the Store") of the one part',
            [("ALDER & SONS (DEPARTMENT STORES) LTD", "Store")],
        ),
        ('the yard let by Alder Mills Limited (the "Property")', []),
        ('Alder shall lend GBP 900,000 and Birch GBP 600,000 (the "Owner Loans")', []),
    ],
)
def test_roles_that_are_names_of_things(text, roles):
    assert [(f.value.name, f.value.role) for f in find_party_roles(text)] == roles
