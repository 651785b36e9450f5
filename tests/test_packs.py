"""The packs that ship, and what the loaders say of packs with mistakes."""

from __future__ import annotations

import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from yarnex.core.errors import PackError
from yarnex.core.flags import load_rulebook, parse_rulebook
from yarnex.core.packs import load_entries, pack_text
from yarnex.core.phrases import compile_phrase
from yarnex.core.terms import load_sheet, parse_sheet
from yarnex.core.terms.identity import known_kinds
from yarnex.core.terms.sheets import sheet_for_kind, shipped_sheets

ROOT = Path(__file__).parent.parent
SHEET = 'sheet: "s"\nlabel: "S"\nterms:\n'
BOOK = 'rulebook: "r"\nlabel: "R"\nsheet: "lease"\nrules:\n'
RULE = '  - {id: "x", label: "X", severity: "low", why: "w", plain: "p", remedy: "r", when: %s}\n'


def test_the_lease_sheet_covers_what_an_abstractor_wants():
    sheet = load_sheet("lease")
    have = {t.id for t in sheet.terms}
    wanted = """landlord tenant guarantor premises floor_area measurement permitted_use term_length lease_start lease_end rent_start base_rent
    rent_schedule rent_review service_charge deposit deposit_return renewal_options renewal_notice break_right break_notice break_fee repairs
    alterations assignment who_insures taxes parking allowance late_interest holding_over quiet_enjoyment landlord_works governing_law lease_date"""
    assert set(wanted.split()) <= have
    assert len(sheet.terms) == len(have)


@pytest.mark.parametrize("name", shipped_sheets())
def test_every_sheet_that_ships_is_sound(name):
    sheet = load_sheet(name)
    assert len({t.id for t in sheet.terms}) == len(sheet.terms)
    assert len(sheet.terms) >= 15
    assert all(t.group for t in sheet.terms)
    assert all(t.names or t.headings or t.cues or t.yes or t.compute or t.asked for t in sheet.terms)


def test_every_kind_has_a_sheet():
    for kind in known_kinds():
        sheet = load_sheet(sheet_for_kind(kind.name))
        assert kind.name in sheet.kinds
    assert sheet_for_kind("no such kind") == "agreement"


def test_a_sheet_includes_another_and_its_own_terms_come_first():
    sheet = parse_sheet(
        'sheet: "s"\nlabel: "S"\ninclude: ["common"]\nleave_out: ["notices"]\nterms:\n'
        '  - {id: "governing_law", label: "Law of the deal", type: "text"}\n  - {label: "Shelf life (days)", type: "duration"}\n',
        "mine.yaml",
    )
    assert [t.label for t in sheet.terms][:2] == ["Law of the deal", "Shelf life (days)"]
    assert sheet.term("shelf_life_days").type == "duration"
    assert sum(t.id == "governing_law" for t in sheet.terms) == 1
    assert "notices" not in {t.id for t in sheet.terms}


def test_the_rulebook_is_long_enough_and_has_strengths():
    book = load_rulebook("lease", load_sheet("lease"))
    assert sum(r.severity != "strength" for r in book.rules) >= 15
    assert sum(r.severity == "strength" for r in book.rules) >= 5
    assert all(r.why and r.plain for r in book.rules)


def test_the_examples_of_each_kind_hold():
    text, name = pack_text("vocabulary", "kinds")
    entries = {e["kind"]: e for e in load_entries(text, name)["kinds"]}
    for kind in known_kinds():
        example, other = entries[kind.name]["example"], entries[kind.name]["not"]
        assert any(p.search(example) for p in kind.titles), kind.name
        first = next((k for k in known_kinds() if any(p.search(other) for p in k.titles)), None)
        assert first is not kind


@pytest.mark.parametrize("name", shipped_sheets())
def test_the_sheets_that_ship_pass_every_check(name):
    assert parse_sheet(*pack_text("sheets", name)).terms


def test_the_phrases_for_kinds_pass_every_check():
    for kind in known_kinds():
        for phrase in (*kind.titles, *kind.words):
            assert compile_phrase(phrase.text).text == phrase.text


@pytest.mark.parametrize(
    ("terms", "fault"),
    [
        ('  - {id: "a", label: "A", type: "sum"}', "line 4, type: 'sum' is none of date, money"),
        ('  - {id: "a", type: "date"}', "line 4: missing key 'label'"),
        ('  - {id: "a", label: "A", type: "date", colour: "red"}', "unknown key 'colour'"),
        ('  - {id: "a", label: "A", type: "date", names: ["(x"]}', "names: a bracket is left open"),
        (
            '  - {id: "a", label: "A", type: "date"}\n  - {id: "a", label: "B", type: "date"}',
            "line 5: the id 'a' stands twice",
        ),
        (
            '  - {id: "a", label: NO, type: "date"}',
            "line 4: 'NO' would be read as a bool, not as text; put it in quotes",
        ),
        ('  - {id: "a", label: 12:30, type: "date"}', "put it in quotes"),
        ('  - {id: "a", label: 2026-01-01, type: "date"}', "would be read as a timestamp"),
        ('  - {id: "a", label: "A", type: "date", format: "thousands"}', "format: 'thousands' is no form for a date"),
        ('  - {id: "a", label: "A", type: "money", format: "pounds"}', "format: 'pounds' is none of"),
        ('  - {id: "a", label: "A", type: "date", compute: "magic"}', "compute: 'magic' is none of"),
        ('  - {id: "a", label: "A", type: "date", detail_of: "b"}', "line 4, detail_of: 'b' is no term of this sheet"),
        ('  - "just text"', "must be a mapping with keys"),
        ('  - {id: "a", label: "A", type: "date", several: "yes"}', "'yes' is not true or false"),
    ],
)
def test_mistakes_in_a_sheet_are_named_with_their_line(terms, fault):
    with pytest.raises(PackError) as caught:
        parse_sheet(SHEET + terms + "\n", "mine.yaml")
    assert fault in str(caught.value)
    assert "mine.yaml" in str(caught.value)


def test_every_mistake_is_reported_not_only_the_first():
    with pytest.raises(PackError) as caught:
        parse_sheet(SHEET + '  - {id: "a", type: "sum"}\n  - {label: "B", type: "date"}\n', "mine.yaml")
    assert len(str(caught.value).splitlines()) == 2


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        ("sheet: [", "not YAML"),
        ("- a\n- b", "must be a mapping"),
        ("a: 'x'\na: 'y'", "'a' stands twice"),
        ("", "must be a mapping"),
    ],
)
def test_what_is_no_pack_is_said(text, fault):
    with pytest.raises(PackError, match=fault):
        load_entries(text, "mine.yaml")


@pytest.mark.parametrize(
    ("when", "fault"),
    [
        ('{found: "nothing"}', "'nothing' is no term of the sheet 'lease'"),
        ('{says: ["(x"]}', "a bracket is left open"),
        ('{value: "renewal_notice around 6"}', "is no comparison of a term"),
        ('{value: "renewal_notice < blue"}', "is neither a term nor a number"),
        ('{check: "moon"}', "'moon' is no check"),
        ('{found: "deposit", missing: "deposit"}', "needs exactly one of"),
        ('{says: ["x"], by: "bank"}', "neither landlord nor tenant"),
        ('"text"', "a condition must be a mapping"),
    ],
)
def test_mistakes_in_a_rulebook_are_named_with_their_line(when, fault):
    with pytest.raises(PackError) as caught:
        parse_rulebook(BOOK + RULE % when, "rules.yaml", load_sheet("lease"))
    assert fault in str(caught.value)
    assert "rules.yaml, line 5" in str(caught.value)


def test_a_risk_needs_a_remedy():
    rule = RULE.replace(', remedy: "r"', "") % '{found: "deposit"}'
    with pytest.raises(PackError, match="missing key 'remedy'"):
        parse_rulebook(BOOK + rule, "rules.yaml", load_sheet("lease"))


def test_an_unknown_pack_names_those_that_ship():
    with pytest.raises(PackError, match="no such file; name a file or one of: acquisition"):
        load_sheet("spindle")


def test_the_wheel_carries_packs_templates_and_demo(tmp_path):
    subprocess.run(
        [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(tmp_path)],
        cwd=ROOT,
        check=True,
        capture_output=True,
    )
    (wheel,) = tmp_path.glob("*.whl")
    names = zipfile.ZipFile(wheel).namelist()
    for name in (
        "packs/sheets/lease.yaml",
        "packs/rulebooks/lease.yaml",
        "packs/vocabulary/kinds.yaml",
        "packs/vocabulary/line_items.yaml",
        "packs/vocabulary/date_kinds.yaml",
        "packs/vocabulary/duties.yaml",
        "packs/vocabulary/cost_kinds.yaml",
        "output/templates/report.html",
        "py.typed",
    ):
        assert f"yarnex/{name}" in names
    assert sum(n.startswith("yarnex/demo/documents/") for n in names) == 12
