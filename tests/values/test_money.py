from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from yarnex.core.values.money import find_money, usual_dollar
from yarnex.core.values.types import Money


def read(text: str) -> list[tuple[str, str | None, str | None, str]]:
    return [(f"{f.value.amount:f}", f.value.currency, f.value.per, f.span.of(text)) for f in find_money(text)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("a rent of £12,500.00 a year", [("12500.00", "GBP", "year", "£12,500.00 a year")]),
        ("not above €3 million.", [("3000000", "EUR", None, "€3 million")]),
        ("USD 1,200 per month", [("1200", "USD", "month", "USD 1,200 per month")]),
        ("year 1 £3,000; year 2 £3,300", [("3000", "GBP", None, "£3,000"), ("3300", "GBP", None, "£3,300")]),
        ("12.500,00 € net", [("12500.00", "EUR", None, "12.500,00 €")]),
        ("120 euros a square metre a year", [("120", "EUR", "sq_m_year", "120 euros a square metre a year")]),
        ("$28.50 per square foot", [("28.50", "USD", "sq_ft", "$28.50 per square foot")]),
        ("$41.50 per square foot of Lettable Space", [("41.50", "USD", "sq_ft", "$41.50 per square foot")]),
        (
            "£3.25 per square metre of floor space per annum",
            [("3.25", "GBP", "sq_m_year", "£3.25 per square metre of floor space per annum")],
        ),
        (
            "$2 per square foot of leased area per month",
            [("2", "USD", "sq_ft_month", "$2 per square foot of leased area per month")],
        ),
        ("forty-seven point two million pounds", [("47200000.0", "GBP", None, "forty-seven point two million pounds")]),
        ("£22.50 psf", [("22.50", "GBP", "sq_ft", "£22.50 psf")]),
        ("₹1,00,000 p.a.", [("100000", "INR", "year", "₹1,00,000 p.a.")]),
        ("Rs. 500 each", [("500", "INR", None, "Rs. 500")]),
        ("US$5m and A$2bn", [("5000000", "USD", None, "US$5m"), ("2000000000", "AUD", None, "A$2bn")]),
        ("(a total of $9,377.49)", [("9377.49", "USD", None, "$9,377.49")]),
        ("(£1,204)", [("-1204", "GBP", None, "(£1,204)")]),
        ("-£50", [("-50", "GBP", None, "-£50")]),
        (
            "Six hundred and forty euro (€640) per calendar month",
            [("640", "EUR", "month", "Six hundred and forty euro (€640) per calendar month")],
        ),
        (
            "Nine Thousand One Hundred and 25/100 Dollars ($9,100.25)",
            [("9100.25", "USD", None, "Nine Thousand One Hundred and 25/100 Dollars ($9,100.25)")],
        ),
        ("ten pounds and fifty pence", [("10.5", "GBP", None, "ten pounds and fifty pence")]),
        ("$150.00 for each day of delay", [("150.00", "USD", "day", "$150.00 for each day")]),
    ],
)
def test_reads_amounts(text, expected):
    assert read(text) == expected


@pytest.mark.parametrize(
    "text",
    [
        "clause 12.500",
        "Unit 4",
        "£1,00,0",
        "the usd column",
        "first 500 feet",
        "section 4.2",
        "two years",
        "yours and mine",
        "€ _____",
    ],
)
def test_leaves_other_words_alone(text):
    assert read(text) == []


def test_words_and_figures_are_checked():
    (found,) = find_money("Five thousand euro (€6,000)")
    assert found.value.amount == 5000
    assert "the words say 5,000, the figures 6,000" in found.reading


def test_a_bare_dollar_is_the_one_that_the_document_names():
    assert usual_dollar("AUD 500 and $20") == "AUD"
    assert usual_dollar("US$5 and A$2") == "USD"
    assert next(iter(find_money("$20", "AUD"))).value == Money(Decimal(20), "AUD")


def test_a_dollar_of_nobody_s_has_no_currency():
    found = next(iter(find_money("$20", "")))
    assert found.value == Money(Decimal(20), None)
    assert "whose dollars" in found.reading


@given(st.text("€£$0123456789,. ()milonbUSDaeruyp", max_size=60))
def test_a_quote_read_alone_gives_the_same_value(text):
    for found in find_money(text):
        again = [f.value.amount.copy_abs() for f in find_money(found.span.of(text))]
        assert again == [found.value.amount.copy_abs()]


@given(st.decimals(min_value=0, max_value=10**9, places=2, allow_nan=False), st.sampled_from(["GBP", "EUR", "CHF"]))
def test_every_amount_reads_back(amount, code):
    (found,) = find_money(f"the sum of {code} {amount:,.2f} only")
    assert (found.value.amount, found.value.currency) == (amount, code)
