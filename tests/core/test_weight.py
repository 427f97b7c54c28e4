"""Draw weight: the rule from the mark, the fit to weighed points, the inverse."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.archer.draw import Estimate
from lyrandis.core.bow.weight import DrawWeight, draw_weight_at, mark_to_ask_for
from lyrandis.core.setup import fold
from tests.entries import entries

IN = 25.4
SHARP = Estimate(28 * IN, 0.0)
NO_HOOK = Estimate(0.0, 0.0)


def weight(*said: str, at: float = 28.0, hook: float = 0.0) -> DrawWeight:
    bow = fold(entries(*said)).bow
    found = draw_weight_at(bow, Estimate(at * IN, 0.0), Estimate(hook * IN, 0.0))
    assert found is not None
    return found


def test_no_mark_and_no_point_gives_no_weight() -> None:
    assert draw_weight_at(fold(entries("bow 62")).bow, SHARP, NO_HOOK) is None


@pytest.mark.parametrize("inches", [-3, -1, 0, 1, 2])
def test_from_the_mark_a_45_lb_bow_gains_two_to_three_pounds_an_inch(inches: int) -> None:
    """The trade's rule for an ordinary bow."""
    change = weight("mark 45", at=28 + inches).weight.value - 45
    assert 2 * abs(inches) <= abs(change) <= 3 * abs(inches)
    assert change * inches >= 0


def test_from_the_mark_the_spread_covers_two_to_three_pounds_an_inch() -> None:
    slope = weight("mark 45").slope
    assert slope.value - slope.plus_minus == pytest.approx(2.0, abs=0.01)
    assert slope.value + slope.plus_minus == pytest.approx(3.0, abs=0.01)


def test_weighed_points_take_the_marks_place() -> None:
    found = weight("mark 60", "scale 40 @ 28")
    assert found.basis == "weighed"
    assert found.weight.value == pytest.approx(40.0)
    assert found.mark is not None


def test_points_on_a_straight_line_are_reproduced() -> None:
    found = weight("scale 35 @ 26", "scale 37.5 @ 27", "scale 40 @ 28", "scale 42.5 @ 29")
    assert found.weight.value == pytest.approx(40.0, abs=0.1)
    assert 40 / 18 < found.slope.value < 2.5  # between the rule and the points
    assert found.slope.value + found.slope.plus_minus > 2.5
    assert found.at(27 * IN).value == pytest.approx(37.5, abs=0.2)


def test_one_point_and_the_rule_match_the_closed_form_posterior() -> None:
    """One point at distance dx: level = W + b dx, variance = s^2 + bend^2 + (sd_b dx)^2."""
    found = weight("scale 36 @ 26", at=28)
    slope = 36 / 18
    bend = 0.004 * 36 * 2**2 / 2
    assert found.weight.value == pytest.approx(36 + 2 * slope)
    assert found.bow_sd == pytest.approx((0.4**2 + bend**2 + (0.1 * slope * 2) ** 2) ** 0.5)


@pytest.mark.parametrize(
    ("at_28", "slope"), [(47.0, 2.83), (45.0, 2.57), (45.0, 2.49), (40.0, 2.00), (45.0, 2.42)]
)
def test_the_rule_covers_the_computed_slopes_of_real_families(at_28: float, slope: float) -> None:
    """Slopes at 28 in of five families, from the design's reference table of computed bows."""
    found = weight(f"mark {at_28}")
    assert abs(found.slope.value - slope) <= found.slope.plus_minus


def test_two_reference_points_predict_a_third_within_the_band() -> None:
    """Reflex-deflex 60 in, 45 lb: 40.2 at 26 and 45.0 at 28 must allow 50.6 at 30 (computed)."""
    found = weight("scale 40.2 @ 26", "scale 45 @ 28", at=30)
    assert abs(found.weight.value - 50.6) <= found.weight.plus_minus


def test_a_point_read_at_the_groove_stands_further_back() -> None:
    at_hook = weight("scale 40 @ 27", at=28, hook=0.5)
    at_groove = weight("scale 40 @ 27 groove", at=28, hook=0.5)
    assert at_groove.points[0].draw_mm - at_hook.points[0].draw_mm == pytest.approx(0.5 * IN)
    assert at_groove.weight.value < at_hook.weight.value


def test_uncertain_draw_widens_the_weight() -> None:
    bow = fold(entries("scale 40 @ 28")).bow
    loose = draw_weight_at(bow, Estimate(28 * IN, IN), NO_HOOK)
    sharp = draw_weight_at(bow, SHARP, NO_HOOK)
    assert loose is not None
    assert sharp is not None
    slope = 40 / 18
    assert loose.weight.sd**2 == pytest.approx(sharp.weight.sd**2 + slope**2)


def test_the_band_widens_away_from_the_points() -> None:
    found = weight("scale 40 @ 28")
    spreads = [found.at((28 + inch) * IN).sd for inch in (0, 1, 2, 4)]
    assert spreads == sorted(spreads)
    assert spreads[0] < spreads[-1]


@given(st.floats(15, 120), st.floats(20, 34))
def test_the_mark_to_ask_for_holds_the_wished_weight(hold: float, at: float) -> None:
    """The inverse undone: a bow with that mark holds the wish at that draw."""
    mark = mark_to_ask_for(hold, Estimate(at * IN, 0.0)).value
    if 1 <= mark <= 200:
        assert weight(f"mark {mark:.6f}", at=at).weight.value == pytest.approx(hold, rel=1e-4)


@given(st.floats(10, 100), st.floats(20, 27), st.floats(27.2, 33))
def test_weight_rises_with_draw_whatever_the_evidence(lbs: float, low: float, high: float) -> None:
    assert weight(f"scale {lbs:.3f} @ 27", at=low).weight.value < (
        weight(f"scale {lbs:.3f} @ 27", at=high).weight.value
    )
