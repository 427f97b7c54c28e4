"""The build sheet: lengths by datum, masses that meet the scale, balance, taper, spine."""

import pytest

from lyrandis.core.arrow.build import build_sheet, spine_of
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import arrow_mass_of, parts_of, shaft_length
from lyrandis.core.arrow.questioned import question_mass
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.errors import DomainError
from lyrandis.core.jot import parse
from lyrandis.core.setup import fold
from tests.entries import entries

DRAW = 28 * 25.4
PARTS = (
    "material wood", "shaft 30 9.7gpi", "point 125", "insert 0", "arrownock 8", "fletching 30",
    "wrap 0", "diameter 11/32",
)  # fmt: skip


def arrows(*said: str) -> ArrowFacts:
    return fold(entries(*said)).arrows


def sheet_of(*said: str):  # type: ignore[no-untyped-def]
    setup = arrows(*said)
    return build_sheet(setup, arrow_mass_of(setup, DRAW), DRAW)


def test_parts_alone_give_mass_balance_and_forward() -> None:
    sheet = sheet_of(*PARTS)
    assert sheet.mass_gr == pytest.approx(30 * 9.7 + 125 + 8 + 30, abs=0.1)
    # nock at 0, shaft at 15 in, feathers from 1 in to 6 in, point at 30 in
    balance = (291 * 15 + 125 * 30 + 30 * 3.5) / 454
    assert sheet.balance_mm == pytest.approx(25.4 * balance, abs=0.1)
    assert sheet.forward == pytest.approx(balance / 30 - 0.5, abs=1e-3)
    assert sheet.unexplained_gr is None
    assert sheet.frequency_hz is None
    assert sheet.assumed == ()


def test_what_the_scale_says_beyond_the_parts_is_put_into_the_shaft_and_shown() -> None:
    sheet = sheet_of(*PARTS, "arrow 1 465gr")
    assert sheet.mass_gr == pytest.approx(465, abs=0.1)
    assert sheet.unexplained_gr == pytest.approx(11.0, abs=0.1)
    assert sheet.beam.tip == pytest.approx(sheet_of(*PARTS).beam.tip)
    assert not sheet.unbelievable


@pytest.mark.parametrize("weighed", [250, 900, 1200])
def test_the_arrow_that_is_shot_is_the_arrow_that_was_weighed(weighed: int) -> None:
    sheet = sheet_of(*PARTS, f"arrow 1 {weighed}gr")
    assert sheet.mass_gr == pytest.approx(weighed, abs=0.1)
    assert sheet.unbelievable


def test_no_shaft_is_lighter_than_any_that_is_shot() -> None:
    sheet = sheet_of(*PARTS, "arrow 1 150gr")
    shaft = sheet.beam.mass_per_length * sheet.beam.length
    assert shaft == pytest.approx(60 * KG_PER_GRAIN, rel=1e-3)


@pytest.mark.parametrize(
    ("before", "after", "more"),
    [
        ("point 125", "point 100", -25.0),
        ("fletching 30", "fletching 18", -12.0),
        ("insert 0", "insert 20", 20.0),
    ],
)
def test_a_part_changed_after_the_weighing_keeps_the_deduced_shaft(
    before: str, after: str, more: float
) -> None:
    said = (*PARTS, before, "arrow 1 470gr")
    was, now = sheet_of(*said), sheet_of(*said, after)
    assert was.mass_gr == pytest.approx(470, abs=0.1)
    assert now.mass_gr == pytest.approx(470 + more, abs=0.1)
    assert now.beam.mass_per_length == pytest.approx(was.beam.mass_per_length, rel=1e-4)


def test_a_shaft_cut_after_the_weighing_keeps_its_make() -> None:
    said = (*PARTS, "shaft 30", "arrow 1 470gr")
    was, now = sheet_of(*said), sheet_of(*said, "shaft 29")
    assert now.beam.mass_per_length == pytest.approx(was.beam.mass_per_length, rel=1e-3)
    per_inch = was.beam.mass_per_length / KG_PER_GRAIN * 0.0254
    assert now.mass_gr == pytest.approx(470 - per_inch, abs=0.5)


def test_parts_told_after_the_weighing_are_no_change() -> None:
    said = ("material wood", "arrow 1 470gr", "shaft 30", "point 125")
    assert sheet_of(*said).mass_gr == pytest.approx(470, abs=0.1)


@pytest.mark.parametrize(
    ("said", "length_mm"),
    [("shaft 30", 762.0), ("shaft 30 tip", 743.0), ("shaft 30 bare", 772.0)],
)
def test_length_is_brought_to_one_datum(said: str, length_mm: float) -> None:
    length = shaft_length(arrows(said))
    assert length is not None
    assert length.value == pytest.approx(length_mm)
    assert (length.sd > 0) == (said != "shaft 30")


def test_a_weighed_bare_shaft_outranks_grains_per_inch() -> None:
    parts = {part.name: part for part in parts_of(arrows(*PARTS, "bareshaft 300gr"), DRAW)}
    assert parts["shaft"].mass.value == 300
    assert parts["shaft"].given


def test_a_taper_takes_mass_off_the_shaft() -> None:
    plain, tapered = sheet_of(*PARTS), sheet_of(*PARTS, "taper tail 10in 7mm")
    assert tapered.tapered
    assert tapered.mass_gr < plain.mass_gr - 5
    assert tapered.balance_mm > plain.balance_mm
    assert not sheet_of(*PARTS, "taper tail 10in 7mm", "taper none").tapered


def test_a_shaft_without_a_point_is_a_practice_shaft() -> None:
    assert sheet_of(*PARTS, "point 0").pointless
    assert not sheet_of(*PARTS).pointless


def test_what_nobody_gave_is_named() -> None:
    assert sheet_of("arrow 431gr").assumed == ("length", "parts", "diameter")


def test_the_numbered_arrows_spines_outrank_the_label() -> None:
    told = spine_of(arrows("spine 500"))
    assert told is not None
    assert (told.basis, told.standard) == ("told", "thousandths")
    assert told.value.value == pytest.approx(63.0, abs=0.01)
    measured = spine_of(arrows("spine 500", "arrow 1 spine 58lb", "arrow 2 spine 62lb"))
    assert measured is not None
    assert (measured.basis, measured.value.value, measured.spread) == ("measured", 60.0, 4.0)
    without = spine_of(
        arrows("arrow 1 spine 58lb", "arrow 2 spine 90lb", "arrow 2 cracked", "spine 500")
    )
    assert without is not None
    assert without.value.value == 58.0


def test_a_deflection_is_a_measurement_of_the_same_shaft() -> None:
    wood = spine_of(arrows("deflection 1/2"))
    trade = spine_of(arrows("deflection 12.7mm @ 28in 880g"))
    assert wood is not None
    assert trade is not None
    assert wood.value.value == pytest.approx(52.0)
    assert trade.value.value == pytest.approx(63.0, abs=0.01)
    assert trade.standard == "thousandths"


def test_ring_rises_with_spine_and_falls_with_length() -> None:
    ring = sheet_of(*PARTS, "spine 50lb").frequency_hz
    stiffer = sheet_of(*PARTS, "spine 72lb").frequency_hz
    longer = sheet_of(*PARTS, "spine 50lb", "shaft 33 9.7gpi").frequency_hz
    assert stiffer == pytest.approx(ring * (72 / 50) ** 0.5, rel=1e-6)
    assert longer < ring


def test_retired_arrows_count_no_more() -> None:
    setup = arrows("arrow 1 460gr", "arrow 2 440gr", "arrow 3 462gr", "arrow 2 cracked")
    mass = arrow_mass_of(setup, DRAW)
    assert mass is not None
    assert (mass.lightest_gr, mass.mass.value) == (460, 461)
    back = arrows("arrow 1 460gr", "arrow 2 440gr", "arrow 2 retired", "arrow 2 back")
    again = arrow_mass_of(back, DRAW)
    assert again is not None
    assert again.lightest_gr == 440


# a bare number that is no mass


@pytest.mark.parametrize(
    ("text", "weight_lbf", "offered"),
    [
        ("arrow 700", 24.0, {"spine 700", "arrow 700gr"}),
        ("arrow 4 700", 24.0, {"arrow 4 spine 700", "arrow 4 700gr"}),
        ("arrow 700", 40.0, {"spine 700", "arrow 700gr"}),  # round, and heavy
        ("arrow 690", 40.0, None),
        ("arrow 700", 50.0, None),  # 14.0 to the pound
        ("arrow 700gr", 24.0, None),
        ("arrow 700 grains", 24.0, None),
        ("arrow 700", None, None),
        ("arrow 352", 16.0, None),  # 22.0: a light bow's usual arrow
        ("arrow 353", 16.0, {"spine 353", "arrow 353gr"}),
        ("arrow 150", 30.0, None),  # 5.0
        ("arrow 149", 30.0, {"arrow 149gr", "arrow 149g"}),
        ("spine 700", 24.0, None),
    ],
)
def test_a_bare_number_that_makes_no_arrow_is_questioned_both_ways(
    text: str, weight_lbf: float | None, offered: set[str] | None
) -> None:
    reading = parse(text).reading
    if offered is None:
        question_mass(reading, text, weight_lbf)
        return
    with pytest.raises(DomainError) as caught:
        question_mass(reading, text, weight_lbf)
    assert {guess.text for guess in caught.value.guesses} == offered
    for guess in offered:
        question_mass(parse(guess).reading, guess, weight_lbf)  # each answer is taken
