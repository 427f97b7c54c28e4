"""Draw weight: the computed curve fitted to scale or mark, its band, outliers, the inverse."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.bow.likeness import Likeness, brace_to_pivot, likeness_of
from lyrandis.core.bow.weight import (
    TILT_SD_PER_IN,
    DrawWeight,
    draw_weight_at,
    mark_to_ask_for,
)
from lyrandis.core.bow.weight_fit import RESIDUAL_IN, RESIDUAL_SD
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import Setup, fold
from tests.entries import entries

IN = 25.4
RECURVE = ("family hunting recurve", "bow 58", "riser 15", "brace 7 3/4")


def _likeness(setup: Setup) -> Likeness:
    return likeness_of(setup.bow, brace_to_pivot(setup.string, setup.archer))


def draw_weight(*said: str, at: Estimate, hook: float = 0.0) -> DrawWeight | None:
    setup = fold(entries(*said))
    return draw_weight_at(
        setup.bow, setup.archer, at=at, hook=Estimate(hook * IN, 0.0), likeness=_likeness(setup)
    )


def weight(*said: str, at: float = 28.0, hook: float = 0.0) -> DrawWeight:
    found = draw_weight(*said, at=Estimate(at * IN, 0.0), hook=hook)
    assert found is not None
    return found


def likeness(*said: str) -> Likeness:
    return _likeness(fold(entries(*said)))


def test_no_mark_and_no_point_gives_no_weight() -> None:
    assert draw_weight("bow 62", at=Estimate(28 * IN, 0.0)) is None


def test_a_draw_that_is_not_past_brace_has_no_weight() -> None:
    assert draw_weight("mark 45", "brace 9", at=Estimate(10 * IN, 0.0)) is None


@pytest.mark.parametrize("inches", [-3, -1, 1, 2])
def test_from_the_mark_a_45_lb_bow_gains_two_to_three_pounds_an_inch(inches: int) -> None:
    """The trade's rule for an ordinary bow."""
    change = weight("mark 45", *RECURVE, at=28 + inches).weight.value - 45
    assert 1.9 * abs(inches) <= abs(change) <= 3.1 * abs(inches)
    assert change * inches > 0


def test_before_weighing_the_kind_gives_the_slope_and_the_scale_may_say_otherwise() -> None:
    """A wall near full draw doubles it: two standard deviations reach from none to twice."""
    slope = weight("mark 45", *RECURVE).slope
    assert slope.value == pytest.approx(2.49, abs=0.03)
    assert slope.plus_minus == pytest.approx(2.46, abs=0.1)


def test_weighed_points_take_the_marks_place() -> None:
    found = weight("mark 60", "scale 40 @ 28")
    assert found.basis == "weighed"
    assert found.weight.value == pytest.approx(40.0)
    assert found.mark is not None


def test_points_of_the_computed_bow_are_reproduced() -> None:
    """Reference values of a 58 in recurve, 45 lb at 28 in, in; the same curve out."""
    said = ("scale 29.1 @ 20", "scale 36.3 @ 24", "scale 40.4 @ 26", "scale 45.0 @ 28")
    found = weight(*RECURVE, *said)
    assert found.fit.tilt.value == pytest.approx(0.0, abs=0.001)
    assert found.at(30 * IN).value == pytest.approx(50.4, abs=0.15)
    assert found.slope.value == pytest.approx(2.49, abs=0.03)


def test_points_that_climb_faster_tilt_the_curve_and_keep_its_height() -> None:
    said = ("scale 38 @ 26", "scale 45 @ 28", "scale 53 @ 30", "scale 41.4 @ 27")
    found = weight(*RECURVE, *said)
    assert found.fit.tilt.value > 0.005
    assert found.weight.value == pytest.approx(45.0, abs=0.3)
    assert found.slope.value > weight(*RECURVE, "scale 45 @ 28").slope.value + 0.4


def test_one_point_and_the_family_match_the_closed_form_posterior() -> None:
    """Over dx: var(ln W) = (s/W)^2 + 2 A^2 (1 - exp(-dx^2/2 l^2)) + (sd_tilt dx)^2."""
    found = weight(*RECURVE, "scale 40.4 @ 26", at=28)
    residual = 2 * RESIDUAL_SD**2 * (1 - math.exp(-((2 / RESIDUAL_IN) ** 2) / 2))
    expected = math.sqrt((0.4 / 40.4) ** 2 + residual + (2 * TILT_SD_PER_IN) ** 2)
    assert found.weight.value == pytest.approx(45.0, abs=0.15)
    assert found.bow_sd / found.weight.value == pytest.approx(expected, rel=1e-4)


def test_two_points_predict_a_third_within_the_band() -> None:
    """Reflex-deflex 60 in, 45 lb: 40.2 at 26 and 45.0 at 28 must allow 50.6 at 30 (computed)."""
    said = ("family reflex deflex", "bow 60", "riser 15", "scale 40.2 @ 26", "scale 45 @ 28")
    found = weight(*said, at=30)
    assert abs(found.weight.value - 50.6) <= found.weight.plus_minus


def test_a_bow_of_unknown_kind_is_less_sure_of_its_slope() -> None:
    told, untold = weight("mark 45", *RECURVE).slope, weight("mark 45").slope
    assert untold.sd / untold.value > 1.05 * told.sd / told.value


@pytest.mark.parametrize("wrong", ["scale 52 @ 26", "scale 33 @ 26"])
def test_one_wrong_point_of_five_is_named_and_left_out(wrong: str) -> None:
    good = ("scale 29.1 @ 20", "scale 36.3 @ 24", "scale 45.0 @ 28", "scale 50.4 @ 30")
    found, clean = weight(*RECURVE, *good, wrong), weight(*RECURVE, *good)
    assert found.left_out is not None
    assert found.left_out.draw_mm == pytest.approx(26 * IN)
    assert found.weight == clean.weight


def test_a_wrong_point_of_three_is_named_and_stays() -> None:
    found = weight(*RECURVE, "scale 29.1 @ 20", "scale 45.0 @ 28", "scale 70 @ 30")
    assert found.off is not None
    assert found.left_out is None


@pytest.mark.parametrize("wrong", ["scale 70 @ 30", "scale 34 @ 30"])
def test_the_reading_next_to_full_draw_is_never_left_out(wrong: str) -> None:
    """It is named, and the ± reaches both it and what the others say."""
    good = ("scale 29.1 @ 20", "scale 36.3 @ 24", "scale 40.4 @ 26", "scale 45.0 @ 28")
    found, others = weight(*RECURVE, *good, wrong, at=30), weight(*RECURVE, *good, at=30)
    assert found.off is found.points[-1]
    assert found.left_out is None
    assert abs(found.weight.value - others.weight.value) <= found.weight.plus_minus
    assert abs(found.weight.value - found.points[-1].weight.value) <= found.weight.plus_minus


def test_a_wall_at_the_end_is_followed() -> None:
    """Reference of any-rig 1: 55.7, where the kind alone would say 51."""
    rising = ((20, 26), (24, 36), (26, 41), (27, 43.5), (28, 49), (29, 56))
    said = [f"scale {lbs} @ {draw}" for draw, lbs in rising]
    found = weight("family hunting recurve", "bow 62", *said, at=29)
    assert found.weight.value == pytest.approx(55.7, abs=0.3)
    assert found.off is None


def test_a_bow_that_is_not_of_its_kind_is_what_it_weighs() -> None:
    """Reference of any-rig 1: 58.2, where the kind made 65.8 of it."""
    read = ((20, 32.5), (24, 41), (26, 45.5), (28, 50), (30, 54), (32, 58))
    said = [f"scale {lbs} @ {draw}" for draw, lbs in read]
    found = weight("family hunting recurve", "bow 48", *said, at=32)
    assert found.weight.value == pytest.approx(58.2, abs=0.3)
    assert found.left_out is None


def test_two_readings_of_one_draw_that_contradict_are_both_kept() -> None:
    found = weight(*RECURVE, "scale 38 @ 28", "scale 50 @ 28")
    assert found.apart is not None
    assert 38 < found.weight.value < 50
    assert found.weight.plus_minus == pytest.approx(6.0, abs=0.5)
    assert weight(*RECURVE, "scale 44 @ 28", "scale 45 @ 28 1/8").apart is None


def test_of_three_readings_of_one_draw_the_odd_one_is_left_out() -> None:
    found = weight(*RECURVE, "scale 44 @ 28", "scale 52 @ 28", "scale 44.5 @ 28")
    assert found.apart is None
    assert found.left_out is not None
    assert found.left_out.weight.value == 52
    assert found.weight.value == pytest.approx(44.25, abs=0.1)


def test_good_points_are_not_named() -> None:
    found = weight(*RECURVE, "scale 29.4 @ 20", "scale 36.0 @ 24", "scale 45.3 @ 28")
    assert found.off is None


def test_a_point_at_rest_is_set_aside_and_kept() -> None:
    """Braced at 9 1/2 in, the string rests at 11 1/4 in on the trade datum."""
    said = ("family hunting recurve", "bow 58", "brace 9 1/2", "scale 12 @ 14", "scale 3lb @ 12")
    found = weight(*said)
    assert [point.draw_mm / IN for point in found.points] == pytest.approx([14])
    assert [point.draw_mm / IN for point in found.unusable] == pytest.approx([12])


def test_a_point_read_at_the_groove_stands_further_back() -> None:
    at_hook = weight("scale 40 @ 27", at=28, hook=0.5)
    at_groove = weight("scale 40 @ 27 groove", at=28, hook=0.5)
    assert at_groove.points[0].draw_mm - at_hook.points[0].draw_mm == pytest.approx(0.5 * IN)
    assert at_groove.weight.value < at_hook.weight.value


def test_uncertain_draw_widens_the_weight_by_its_slope() -> None:
    loose = draw_weight(*RECURVE, "scale 40 @ 28", at=Estimate(28 * IN, IN))
    sharp = weight(*RECURVE, "scale 40 @ 28")
    assert loose is not None
    assert loose.weight.sd**2 == pytest.approx(sharp.weight.sd**2 + sharp.slope.value**2)


def test_the_band_widens_away_from_the_points() -> None:
    found = weight("scale 40 @ 28")
    spreads = [found.at((28 + inch) * IN).sd for inch in (0, 1, 2, 4)]
    assert spreads == sorted(spreads)
    assert spreads[0] < spreads[-1]


def test_weight_is_nothing_at_brace() -> None:
    found = weight(*RECURVE, "scale 45 @ 28")
    assert found.at(7.75 * IN + TRADE_OFFSET_MM).value == pytest.approx(0.0, abs=1e-6)
    assert found.at(5 * IN).value == 0.0


@given(st.floats(15, 120), st.floats(20, 34))
def test_the_mark_to_ask_for_holds_the_wished_weight(hold: float, at: float) -> None:
    """The inverse undone: a bow with that mark holds the wish at that draw."""
    mark = mark_to_ask_for(hold, Estimate(at * IN, 0.0), likeness()).value
    if 1 <= mark <= 200:
        assert weight(f"mark {mark:.6f}lb", at=at).weight.value == pytest.approx(hold, rel=1e-4)


@given(st.floats(10, 100), st.floats(20, 27), st.floats(27.2, 33))
def test_weight_rises_with_draw_whatever_the_evidence(lbs: float, low: float, high: float) -> None:
    assert weight(f"scale {lbs:.3f} @ 27", at=low).weight.value < (
        weight(f"scale {lbs:.3f} @ 27", at=high).weight.value
    )
