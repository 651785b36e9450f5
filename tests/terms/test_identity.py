"""What kind of document it is, its title, date, parties, marks of a draft and language; and copies among documents."""

from __future__ import annotations

import pytest

from tests.samples import SAMPLES
from yarnex.core.comparing.copies import copies_among
from yarnex.core.reading import ReadOptions, read_data
from yarnex.core.terms.identity import document_date, identify, known_kinds, language_of

BODY = "\n\nThis paper is made up of a few words that say nothing of its kind, so that the title alone must tell it."


@pytest.mark.parametrize("kind", known_kinds(), ids=lambda k: k.name)
def test_each_kind_is_known_by_a_title(document, kind):
    import yaml

    from yarnex.core.packs import pack_text

    entries = {k["kind"]: k for k in yaml.safe_load(pack_text("vocabulary", "kinds")[0])["kinds"]}
    paper = document(entries[kind.name]["example"].upper() + BODY)
    assert identify(paper).kind == kind.name


@pytest.mark.parametrize(
    ("text", "kind", "title"),
    [
        ("MASTER HIRE PURCHASE AGREEMENT\n\nThe Owner hires the looms.", "equipment_finance", "MASTER HIRE PURCHASE AGREEMENT"),
        ("DEED OF VARIATION\n\nof a lease.", "amendment", "DEED OF VARIATION"),
        ("Half-year results call\n\nOperator: Good morning.", "results_call", "Half-year results call"),
        ("MILL POLICY\n\nThe policyholder pays a premium. The sum insured and the excess stand below.", "insurance_policy", "MILL POLICY"),
        (
            "YOUR POST\n\nDear Noor\n\nYour post carries a salary. Holidays, pension and sick pay stand below. The trial period is short.",
            "employment",
            "YOUR POST",
        ),
        ("SUPPLY OF SIX LOOMS\n\nInvitation to submit offers, requirements and conditions.\n\nThe Mill wishes to buy.", "call_for_proposals", "SUPPLY OF SIX LOOMS"),
        ("Brackenfold Mills\n12 Weir Lane\n\nDear Ms Teasel\n\nWe write in reply to your note of 3 April.\n\nYours sincerely", "letter", None),
        ("Wool is washed. Then it is combed and spun into yarn at the mill, and sold by the hank.", "unknown", None),
    ],
)  # fmt: skip
def test_kind_and_title(document, text, kind, title):
    identity = identify(document(text))
    assert identity.kind == kind
    assert title is None or identity.title_text == title


@pytest.mark.parametrize(
    ("name", "kind"),
    [
        ("offer.eml", "email"),
        ("rents.xlsx", "spreadsheet"),
        ("deck.pptx", "presentation"),
        ("call.srt", "transcript"),
        ("rents.csv", "spreadsheet"),
    ],
)
def test_the_format_tells_some_kinds(name, kind):
    identity = identify(read_data(SAMPLES[name](), name, ReadOptions("skip"))[0].document)
    assert identity.kind == kind


@pytest.mark.parametrize(
    ("text", "day"),
    [
        ("LEASE\n\nDated 3 April 2026\n\nThe term ends on 2 April 2036.", "2026-04-03"), ("# Report\n\n| Date of report | 16 June 2025 |\n|---|---|\n| By | Ida |", "2025-06-16"),
        ("STATEMENT OF IDA TEASEL\n\nI saw it fall.\n\nSigned: I. Teasel    Dated: 9 May 2026", "2026-05-09"),
        ("Review by the physician\n\nDate of birth: 4 February 1979\n\nHe is well.\n\nDr A. Rowan\nSigned 28 May 2026", "2026-05-28"),
        ("INVITATION\n\nReference 7. Issued 1 September 2025. Offers by 3 October 2025.", "2025-09-01"), ("LEASE\n\nThe term begins on 3 April 2026.", ""),
    ],
)  # fmt: skip
def test_its_own_date(document, text, day):
    assert document_date(document(text, "a.md" if text.startswith("#") else "a.txt")) == day


@pytest.mark.parametrize(
    ("text", "mark"),
    [
        ("LEASE\n\nDraft 2\n\nwords", "Draft 2"),
        ("LEASE (execution version)\n\nwords", "execution version"),
        ("LEASE\n\nThe draft of a ship", "draft"),
        ("LEASE\n\nwords", None),
    ],
)
def test_marks_of_a_draft(document, text, mark):
    version = identify(document(text)).version
    assert (version.quote if version else None) == mark


def test_parties_with_their_roles_come_first(document):
    paper = document(
        'LEASE\n\nbetween (1) TEASEL ESTATES LIMITED (the "Landlord") and (2) BRACKENFOLD MILLS LIMITED (the "Tenant"), agents Fell Limited.'
    )
    assert [p.quote for p in identify(paper).parties] == ["TEASEL ESTATES LIMITED", "BRACKENFOLD MILLS LIMITED"]


@pytest.mark.parametrize(
    ("text", "language"),
    [
        ("The tenant shall pay the rent to the landlord on the first day of each month in advance and shall keep the premises in good repair for the term of this lease.", "en"),
        ("Der Mieter hat die Miete am ersten Tag eines jeden Monats im Voraus zu zahlen und die Räume für die Dauer des Vertrages in gutem Zustand zu halten, auch wenn sie nicht genutzt werden.", "de"),
        ("Le locataire doit payer le loyer au bailleur le premier jour de chaque mois et doit tenir les lieux en bon état pour la durée du bail, sauf ce qui est dit à la clause des réparations.", "fr"),
        ("Too short to tell.", ""),
    ],
)  # fmt: skip
def test_languages(text, language):
    assert language_of(text) == language


def paper(document, name, words):
    return read_data(("LEASE\n\n" + " ".join(words)).encode(), name)[0].document


def test_copies_near_copies_and_repeats(document):
    words = [f"word{i}" for i in range(400)]
    first = paper(document, "a.txt", words)
    changed = paper(document, "b.txt", [*words[:350], *(f"new{i}" for i in range(50))])
    other = paper(document, "c.txt", [f"else{i}" for i in range(400)])
    same = paper(document, "d.txt", words)
    found = copies_among([first, changed, other, same])
    assert (found[0].kind, found[0].first.path, found[0].second.path) == ("same file", "a.txt", "d.txt")
    near = next(c for c in found if c.kind == "near copy")
    assert (near.first.path, near.second.path) == ("a.txt", "b.txt")
    assert 80 <= near.share <= 95
    assert not any("c.txt" in (c.first.path, c.second.path) for c in found if c.kind == "near copy")


def test_a_repeated_page_is_said():
    readings = read_data(SAMPLES["lease.pdf"](), "lease.pdf", ReadOptions("skip"))
    text = "\f".join(
        [
            "RENT\n\n" + "The rent is due. " * 10,
            "REPAIR\n\n" + "Keep it well. " * 10,
            "RENT\n\n" + "The rent is due. " * 10,
        ]
    )
    found = copies_among([read_data(text.encode(), "a.txt")[0].document])
    assert [str(c) for c in found] == ["a.txt: page 3 repeats page 1"]
    assert readings


def test_a_form_of_no_known_kind_is_not_read_as_an_agreement(document):
    from yarnex.core.terms.abstract import sheet_for

    form = document("# Bale intake\n\n| Bales | 64 |\n|---|---|\n| Lorry | KX26 PLD |\n", "form.md")
    deal = document("The parties agree that the Keeper shall store the bales and is liable for each.", "deal.txt")
    assert sheet_for(form).name == "paper"
    assert sheet_for(deal).name == "agreement"
