"""Draw length: datum conversions, combining, ranks."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core import entries as e
from lyrandis.core.archer.draw import (
    combine,
    draw_of,
    draw_readings,
    draw_to_pivot,
    hook_depth,
    to_trade,
)
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.readings import HoldChosen
from lyrandis.core.archer.words import Datum, Hold
from lyrandis.core.bench_readings import PartFitted
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import fold
from tests.entries import draft, entries

IN = 25.4


def draw_from(*said: str | e.EntryDraft):  # type: ignore[no-untyped-def]
    setup = fold(entries(*said))
    return draw_of(setup.archer)


def test_a_28_inch_trade_draw_is_26_and_a_quarter_to_the_pivot() -> None:
    """The trade convention as the field states it."""
    assert draw_to_pivot(28 * IN, "trade", ArcherFacts()).value == pytest.approx(26.25 * IN)
    assert to_trade(26.25 * IN, "pivot", ArcherFacts()).value == pytest.approx(28 * IN)


def test_back_and_belly_use_the_grips_measured_depth() -> None:
    archer = fold(entries("grip 2 back", "grip 1/2 belly")).archer
    assert to_trade(28 * IN, "back", archer).value == pytest.approx((28 - 2 + 1.75) * IN)
    assert to_trade(26 * IN, "belly", archer).value == pytest.approx((26 + 0.5 + 1.75) * IN)


def test_an_assumed_grip_depth_widens_the_uncertainty() -> None:
    measured = fold(entries("grip 1 3/4 back")).archer
    assert to_trade(28 * IN, "back", ArcherFacts()).sd > to_trade(28 * IN, "back", measured).sd


@given(st.floats(320, 1000), st.sampled_from(["trade", "pivot", "back", "belly"]))
def test_trade_is_always_pivot_plus_one_and_three_quarters(length: float, datum: Datum) -> None:
    archer = ArcherFacts()
    difference = to_trade(length, datum, archer).value - draw_to_pivot(length, datum, archer).value
    assert difference == pytest.approx(1.75 * IN)


def test_no_reading_gives_no_draw() -> None:
    assert draw_from("bow 62") is None


def test_equal_readings_average_and_sharpen_by_the_root_of_their_number() -> None:
    """Standard error of a mean: sd / sqrt(n), the textbook result."""
    one = draw_from("draw 28")
    four = draw_from(*["draw 28"] * 4)
    assert four.length.value == pytest.approx(28 * IN)
    assert four.length.sd == pytest.approx(one.length.sd / 2)


def test_unequal_readings_weigh_by_their_variance() -> None:
    setup = fold(entries("draw said 28", "span 72.5"))
    readings = draw_readings(setup.archer)
    mean, _ = combine(readings)
    w = [1 / 0.5**2, 1 / 0.875**2]
    expected = (28 * w[0] + 29 * w[1]) / sum(w)
    assert mean.value == pytest.approx(expected * IN)


def test_scattered_readings_widen_by_the_birge_ratio() -> None:
    setup = fold(entries("draw 27", "draw 29"))
    mean, scatter = combine(draw_readings(setup.archer))
    assert scatter == pytest.approx(math.sqrt(2 * (1 / 0.125) ** 2))
    assert mean.sd == pytest.approx(scatter * 0.125 * IN / math.sqrt(2))


def test_readings_of_one_assumed_datum_share_its_error() -> None:
    """Ten readings to the back cannot beat the grip depth nobody measured (sd 1/8 in)."""
    draw = draw_from(*["draw 28 back"] * 10)
    assert draw.length.sd >= IN / 8


def test_arm_span_over_two_and_a_half_is_a_guess() -> None:
    draw = draw_from("span 70")
    assert draw.basis == "guess"
    assert draw.length.value == pytest.approx(28 * IN)


def test_an_arrow_drawn_outranks_guesses_which_stay_beside() -> None:
    draw = draw_from("span 75", "draw 28", "draw said 30")
    assert draw.basis == "direct"
    assert draw.length.value == pytest.approx(28 * IN)
    assert {reading.method for reading in draw.beside} == {"arm_span", "draw_stated"}


def test_a_draw_on_this_rig_outranks_the_archers_general_one() -> None:
    draw = draw_from("draw 28", "draw 27 1/2 here")
    assert draw.basis == "rig"
    assert draw.length.value == pytest.approx(27.5 * IN)


def test_a_draw_on_this_rig_with_another_bow_does_not_outrank() -> None:
    other = draft(PartFitted(part="bow", part_id="ash"), on="rig", days=5)
    assert draw_from("draw 28", "draw 27 1/2 here", other).basis == "direct"


def test_string_on_a_scale_is_brought_forward_by_the_hook_depth() -> None:
    draw = draw_from("draw 28 1/2 at hook", "hook 1/2")
    assert draw.length.value == pytest.approx(28 * IN)


def test_a_marked_arrow_that_is_only_hearsay_is_a_guess() -> None:
    assert draw_from("draw 28 ?").basis == "guess"


@pytest.mark.parametrize(
    ("hold", "low", "high"), [("split", 0.3, 0.9), ("three_under", 0.3, 0.9), ("thumb", 0.4, 1.2)]
)
def test_assumed_hook_depth_follows_from_string_geometry(
    hold: Hold, low: float, high: float
) -> None:
    """e tan(gamma): 3/4-1 in (thumb to 1.6 in) at 20-37 degrees, as the mechanics note has it."""
    assumed = hook_depth(fold(entries(HoldChosen(hold=hold))).archer)
    assert low * IN <= assumed.value <= high * IN


def test_measured_hook_depth_takes_the_place_of_the_assumed_one() -> None:
    measured = hook_depth(fold(entries("hold thumb", "hook 1")).archer)
    assert measured.value == pytest.approx(IN)
    assert measured.sd < hook_depth(ArcherFacts()).sd
    assert isinstance(measured, Estimate)
