"""Finished mass, grains per pound and the floor."""

import pytest

from lyrandis.core import entries as e
from lyrandis.core.arrow.judge_mass import floor_severity
from lyrandis.core.arrow.mass import (
    arrow_mass_of,
    floor_of,
    grains_per_pound,
    parts_of,
    sum_of,
)
from lyrandis.core.bow.thrust import ComputedFloor
from lyrandis.core.bow.words import Family
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import fold
from tests.entries import entries


def mass(*said: str | e.EntryDraft):  # type: ignore[no-untyped-def]
    return arrow_mass_of(fold(entries(*said)).arrows, 28 * 25.4)


def test_nothing_known_gives_no_mass() -> None:
    assert mass("bow 62") is None


def test_parts_add_up() -> None:
    said = ("shaft 30 9gpi", "point 125", "insert 15", "arrownock 9", "fletching 24", "wrap 0")
    found = mass(*said)
    assert found.basis == "parts"
    assert found.mass.value == pytest.approx(30 * 9 + 125 + 15 + 9 + 24)
    assert all(part.given for part in found.parts)


def test_parts_nobody_gave_are_usual_and_widen_the_sum() -> None:
    sparse = sum_of(parts_of(fold(entries("shaft 30 9gpi", "point 125")).arrows, None))
    full = mass("shaft 30 9gpi", "point 125", "insert 8", "arrownock 9", "fletching 24").mass
    assert sparse is not None
    assert sparse.value == pytest.approx(full.value)
    assert sparse.sd > full.sd


def test_without_a_length_the_shaft_is_a_little_longer_than_the_draw() -> None:
    found = mass("material wood", "point 125")
    assert found.parts[0].mass.value == pytest.approx((28 + 1.25) * 10.5)
    assert not found.parts[0].given


def test_a_weighed_arrow_outranks_its_parts() -> None:
    found = mass("shaft 30 9gpi", "arrow 1 442gr")
    assert found.basis == "weighed"
    assert found.mass.value == 442.0
    assert found.parts_mass is not None


def test_parts_outrank_a_supposed_mass_but_not_a_told_one() -> None:
    assert mass("shaft 30 9gpi", "arrow 400gr ?").basis == "parts"
    told = entries("shaft 30 9gpi", "arrow 400gr")
    told[-1] = told[-1].model_copy(update={"source": "told"})
    assert arrow_mass_of(fold(told).arrows, None).basis == "told"  # type: ignore[union-attr]


def test_the_mean_carries_its_standard_error() -> None:
    found = mass("arrow 1 430gr", "arrow 2 440gr")
    assert found.mass.value == 435.0
    assert found.mass.sd == pytest.approx((0.5**2 + 5.0**2) ** 0.5)
    assert (found.lightest_gr, found.heaviest_gr) == (430.0, 440.0)


@pytest.mark.parametrize(
    ("said", "stale"),
    [
        (("point 100", "arrow 1 430gr", "point 125"), True),
        (("point 100", "arrow 1 430gr", "point 100"), False),
        (("arrow 1 430gr", "point 125"), False),
        (("point 100", "arrow 1 430gr", "material wood"), False),
        (("point 100", "arrow 1 430gr", "point 125", "arrow 1 455gr"), False),
        (("point 100", "arrow 1 430gr", "point 125", "insert 20"), True),
    ],
)
def test_a_changed_part_puts_older_weighings_in_doubt(said: tuple[str, ...], stale: bool) -> None:
    assert (mass(*said).stale is not None) is stale


def test_grains_per_pound_adds_relative_errors_in_quadrature() -> None:
    gpp = grains_per_pound(Estimate(400.0, 12.0), Estimate(40.0, 1.6))
    assert gpp.value == 10.0
    assert gpp.sd == pytest.approx(10 * (0.03**2 + 0.04**2) ** 0.5)


@pytest.mark.parametrize(
    ("said", "floor", "basis"),
    [
        (("floor 9 gpp", "family large rigid tip"), 9.0, "bowyer"),
        (("floor 430gr",), 10.75, "bowyer"),
        (("family long rigid tip",), 12.0, "computed"),
        (("family large rigid tip",), 13.0, "school"),
        ((), 9.5, "school"),
    ],
)
def test_the_bowyers_minimum_goes_before_the_computed_floor(
    said: tuple[str, ...], floor: float, basis: str
) -> None:
    bow, computed = fold(entries(*said)).bow, ComputedFloor(Estimate(12.0, 0.5), 128.0, 45.0)
    family = bow.family.reading.family if bow.family else "reflex_deflex_longbow"
    found = floor_of(bow, Estimate(40.0, 0.0), computed, family)
    assert (found.grains_per_pound, found.basis) == (floor, basis)
    assert found.computed == computed


@pytest.mark.parametrize("least", [7.0, 8.3, 9.0, 11.1])
def test_an_arrow_exactly_at_a_told_least_is_good(least: float) -> None:
    """For every 2 lb from 20 to 70, whatever the last bit of the division says."""
    bow = fold(entries(f"floor {least} gpp")).bow
    for pounds in range(20, 71, 2):
        weight = pounds + 0.3
        floor = floor_of(
            bow, Estimate(weight, 0.0), ComputedFloor(Estimate(8.0, 0.5), 90.0, 45.0), "selfbow"
        )
        per_pound = grains_per_pound(Estimate(least * weight, 0.5), Estimate(weight, 0.4))

        for under, expected in ((0.0, "good"), (0.1, "mend"), (0.5, "mend"), (0.6, "stop")):
            light = Estimate(per_pound.value - under, per_pound.sd)
            fit = "watch" if expected == "mend" else expected
            unknown = "watch" if under else "good"
            assert floor_severity(light, floor, known=True, fit=False) == expected
            assert floor_severity(light, floor, known=True, fit=True) == fit
            assert floor_severity(light, floor, known=False, fit=False) == unknown


DANGERS = [
    ("target_recurve", 5.3), ("hunting_recurve", 6.0), ("reflex_deflex_longbow", 6.0),
    ("straight_longbow", 7.0), ("selfbow", 7.5),
]  # fmt: skip


@pytest.mark.parametrize(("family", "danger"), DANGERS)
def test_danger_is_one_line_and_economy_another(family: Family, danger: float) -> None:
    """Both sides of each line, and the ± taken off first."""
    computed = ComputedFloor(Estimate(9.0, 0.5), 120.0, 45.0)
    floor = floor_of(fold(entries()).bow, Estimate(40.0, 0.0), computed, family)

    def said(gpp: float, sd: float = 0.0, known: bool = True) -> str:
        return floor_severity(Estimate(gpp, sd), floor, known=known, fit=True)

    assert (said(danger - 0.01), said(danger + 0.01)) == ("stop", "mend")
    assert (said(danger + 0.49), said(danger + 0.51)) == ("mend", "watch")
    assert said(floor.grains_per_pound - 0.11) in ("watch", "mend")
    assert said(max(floor.grains_per_pound, danger + 0.5)) == "good"
    # a ± that reaches over a border steps one down; a supposed mass never more than Watch
    assert said(danger - 0.1, sd=0.1) == "mend"
    assert said(danger - 1.0, known=False) == "watch"


def test_static_tips_are_refused_a_grain_under_their_floor() -> None:
    computed = ComputedFloor(Estimate(12.0, 0.5), 150.0, 45.0)
    floor = floor_of(fold(entries()).bow, Estimate(40.0, 0.0), computed, "long_rigid_tip")
    assert floor.danger == pytest.approx(11.0)
