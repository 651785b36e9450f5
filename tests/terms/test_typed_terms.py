"""One sentence and the term that it fills, for the typed terms of reports, records, letters, bids, bills and agreements."""

from __future__ import annotations

import pytest

from yarnex.core.reading import ReadOptions, read_all
from yarnex.core.terms import abstract
from yarnex.core.terms.passages import Passages
from yarnex.core.terms.sheets import load_sheet

CASES = [
    ("report", "margins", "The loan bears interest at compounded SONIA plus 1.85 per cent.", "1.85"),
    ("report", "commitment_fee", "A commitment fee of 0.4 per cent is paid on the unused part.", "0.4"),
    ("report", "average_life", "The weighted average life of debt was 6.4 years.", "6.4"),
    ("report", "covenant_gearing", "Net debt may not exceed 62 per cent of the value of the mill.", "62"),
    ("report", "cross_default", "A default is an event of default under the notes if the amount exceeds £3 million.", "3000000"),
    ("report", "distributable_reserves", "The Company's distributable reserves were £8.2 million.", "8200000"),
    ("report", "dividend_total", "With the interim dividend of 2.10 pence that makes 6.30 pence for the year.", "6.30"),
    ("report", "new_facilities", "On 3 May 2026 the Company signed a £12 million term facility with two banks.", "12000000"),
    ("report", "claims", "The former carrier began proceedings on 3 May 2026 for £1.9 million.", "1900000"),
    ("report", "counterclaims", "The Company has counterclaimed £640,000.", "640000"),
    ("report", "hearing_date", "A hearing is listed for 9 November 2026.", "2026-11-09"),
    ("report", "impairment_headroom", "The recoverable amount of the carding unit exceeds the carrying amount by £2.7 million.", "2700000"),
    ("report", "clawback", "Bonuses may be clawed back for three years.", "3"),
    ("report", "bonus_maximum", "The annual bonus may be up to 80 per cent of salary.", "80"),
    ("report", "audit_partner", "Edwin Marrick (Senior statutory auditor)", "Edwin Marrick"),
    ("record", "number_counted", "I count 37 bales in the loft.", "37"),
    ("record", "depth", "The loft was under about 60 mm of water.", "60"),
    ("record", "earlier_events", "There have been no earlier leaks in the loft.", "False"),
    ("record", "quotation_valid_for", "The quotation is good for 45 days.", "45"),
    ("record", "overrun_allowed", "An estimate may be exceeded by up to 12 per cent without notice.", "12"),
    ("record", "indemnity_cover", "My professional indemnity cover is £750,000.", "750000"),
    ("correspondence", "own_share", "The excess is £2,500 for each event.", "2500"),
    ("correspondence", "authority", "Reasonable costs will be met without prior approval up to £4,000.", "4000"),
    ("proposal", "paid_on_order", "We ask for 25% with order and the rest on delivery.", "25"),
    ("proposal", "travel_rate", "Travel is charged at £0.55 per km.", "0.55"),
    ("billing", "limit_of_time", "Storage of bales is paid for not more than 20 weeks.", "20"),
    ("billing", "tax_registered", "The customer is not registered for VAT.", "False"),
    ("equipment_finance", "cures_allowed", "This right may not be used more than three times.", "3"),
    ("distribution", "buy_back_price", "The Supplier shall buy back the stock at eighty per cent of its cost.", "80"),
    ("software", "suspension_after", "The Service may be suspended if a bill remains unpaid fifteen days after a reminder.", "15"),
    ("lease", "stacking_height", "To stack goods no higher than 3.1 metres.", "3.1"),
    ("lease", "clear_within", "The Tenant shall clear the Shed within ten days.", "10"),
    ("employment", "death_benefit", "Cover for death in service is three times salary.", "3"),
    ("common", "change_of_control_fee", "On a change of control the lender may require a fee of 1.5 per cent.", "1.5"),
]  # fmt: skip


@pytest.mark.parametrize(("sheet", "term", "sentence", "value"), CASES, ids=[c[1] for c in CASES])
def test_a_sentence_fills_the_term(document, sheet, term, sentence, value):
    filled = abstract(document(f"# Paper\n\n{sentence}\n", "paper.md"), load_sheet(sheet))
    found = next(f for f in filled.findings if f.term.id == term)
    assert found.value is not None, found
    given = found.value.to_dict()["value"]
    assert str(given) == value or float(given) == float(value)


def test_sums_as_spoken_are_values_of_a_transcript(tmp_path):
    path = tmp_path / "call.vtt"
    path.write_text(
        "WEBVTT\n\n00:00:01.000 --> 00:00:09.000\n<v Ada Firth>We paid two point four million for the shed, and £300,000 for the looms.\n",
        encoding="utf-8",
    )
    passages = Passages(next(iter(read_all([path], ReadOptions()))).document)
    assert passages.is_spoken
    assert [int(f.value.amount) for f in passages.values("money")] == [2400000, 300000]
