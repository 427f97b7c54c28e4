"""The tip as a sight: reference rows, full integration, range errors, slopes, planning."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.crawls.notation import FINGER, fingers, from_steps, in_steps
from lyrandis.core.crawls.plan import EYE_MM, as_seen, needs, planned
from lyrandis.core.crawls.ranges import ends_m, furthest_m, miss, on_slope
from lyrandis.core.crawls.sight import (
    Sight,
    crawls_mm,
    drop_m,
    flown_mm,
    height_mm,
    high_per_mm,
    point_on_m,
    zeroed,
)
from lyrandis.core.estimate import Estimate

DISTANCES = [5, 10, 15, 20, 25, 30, 40, 50, 60, 70]
ROWS = [
    (60.0, 80.0, [73.7, 68.4, 62.9, 57.4, 51.8, 46.2, 34.7, 22.9, 10.8, -1.6]),
    (43.0, 80.0, [67.7, 57.3, 46.7, 36.0, 25.0, 14.0, -8.7, -32.0, -56.3, -81.5]),
    (55.0, 64.0, [56.5, 50.1, 43.7, 37.1, 30.5, 23.7, 10.0, -4.0, -18.5, -33.3]),
]
SIGHTS = st.builds(
    Sight, st.floats(40, 66), st.floats(40, 125), st.floats(0.0008, 0.003), st.floats(650, 850),
    st.floats(-4, 4),
)  # fmt: skip


def over(distance: float, sight: Sight) -> float:
    return float(zeroed(np.array([distance]), sight).over_mm[0])


@pytest.mark.parametrize(("speed", "eye", "row"), ROWS)
def test_reference_rows_of_crawls(speed: float, eye: float, row: list[float]) -> None:
    found = crawls_mm(np.array(DISTANCES, dtype=float), Sight(speed, eye, 0.0016, 780.0))
    assert found.tolist() == pytest.approx(row, abs=0.055)


@pytest.mark.parametrize(
    ("distance", "speed", "drag", "off"),
    [(20, 55, 0.0016, 0.0), (50, 55, 0.0016, -0.4), (90, 55, 0.0016, -8.6), (50, 43, 0.0025, -3.0),
     (90, 43, 0.0025, -87.0)],
)  # fmt: skip
def test_the_flat_fire_against_full_integration(
    distance: float, speed: float, drag: float, off: float
) -> None:
    sight = Sight(speed, 64.0, drag, 780.0)
    assert flown_mm(distance, over(distance, sight), sight) == pytest.approx(off, abs=0.5)


def test_without_drag_an_arrow_falls_as_a_stone() -> None:
    assert drop_m(np.array([30.0]), 50.0, 0.0)[0] == pytest.approx(0.5 * 9.80665 * 0.36)
    assert drop_m(np.array([30.0]), 50.0, 1e-5)[0] == pytest.approx(
        drop_m(np.array([30.0]), 50.0, 0.0)[0], rel=3e-4
    )


@given(SIGHTS, st.floats(3, 60))
def test_a_zeroed_arrow_strikes_the_mark(sight: Sight, distance: float) -> None:
    sight = sight._replace(deep_mm=0.0)
    at = over(distance, sight)
    if at / sight.tip_mm < 0.35:
        assert height_mm(np.array([distance]), at, sight)[0] == pytest.approx(0, abs=0.02)


@given(SIGHTS)
def test_the_further_the_shallower_and_nought_at_point_on(sight: Sight) -> None:
    table = crawls_mm(np.arange(4.0, 60.0), sight._replace(deep_mm=0.0))
    assert (np.diff(table) < 0).all()
    on = point_on_m(sight)
    if on is not None:
        assert crawls_mm(np.array([on]), sight)[0] == pytest.approx(0, abs=1e-3)


@pytest.mark.parametrize(
    ("speed", "rows"),
    [
        (43.0, {10: (5.6, 3.9, -6.1, -19.3), 30: (34.3, 15.5, -17.8, -49.0),
                50: (66.3, 28.4, -31.0, -82.2)}),
        (55.0, {20: (12.0, 5.8, -7.2, -20.6), 30: (20.9, 9.4, -10.8, -29.8),
                40: (30.2, 13.2, -14.7, -39.5)}),
        (60.0, {10: (2.9, 2.0, -3.1, -9.9), 50: (33.5, 14.4, -15.7, -41.6)}),
    ],
)  # fmt: skip
def test_reference_costs_of_a_wrong_guess(
    speed: float, rows: dict[int, tuple[float, float, float, float]]
) -> None:
    sight = Sight(speed, 64.0, 0.0016, 780.0)
    for distance, (near5, near2, far2, far5) in rows.items():
        five, two = miss(sight, distance, 5.0), miss(sight, distance, 2.0)
        assert five is not None
        assert two is not None
        found = [five.nearer_mm, two.nearer_mm, two.further_mm, five.further_mm]
        assert found == pytest.approx([10 * c for c in (near5, near2, far2, far5)], abs=0.6)


@given(SIGHTS, st.floats(1, 8), st.floats(60, 400))
def test_the_furthest_distance_is_where_the_worse_side_leaves_the_circle(
    sight: Sight, guess: float, circle: float
) -> None:
    end = furthest_m(sight, guess, circle)
    if end is None or end >= 119:
        return
    inside, outside = miss(sight, end - 0.05, guess), miss(sight, end + 0.05, guess)
    if inside is not None:
        assert -inside.further_mm <= circle + 1e-6
    assert outside is not None
    assert -outside.further_mm > circle


def test_a_guess_that_reaches_the_archer_costs_nothing_that_can_be_said() -> None:
    assert miss(Sight(55.0, 64.0, 0.0016, 780.0), 5.0, 5.0) is None


@pytest.mark.parametrize(
    ("degrees", "more"), [(10, 0.3), (20, 1.8), (30, 4.6), (-10, 0.9), (-20, 3.1), (-30, 6.3)]
)
def test_reference_slopes_at_30_m(degrees: float, more: float) -> None:
    found = on_slope(Sight(55.0, 64.0, 0.0016, 780.0), 30.0, degrees)
    assert found.more_mm == pytest.approx(more, abs=0.055)
    assert found.costs_mm > 0, "level ground's crawl shoots high, up and down"


@pytest.mark.parametrize(
    ("speed", "distance", "most"), [(43.0, 15.0, 1.0), (43.0, 30.0, 12.0), (43.0, 50.0, 1.0),
                                    (55.0, 30.0, 3.0), (55.0, 50.0, 29.1)],
)  # fmt: skip
@pytest.mark.parametrize("degrees", [-30, -20, 20, 30])
def test_a_crawl_for_a_slope_strikes_by_full_integration(
    speed: float, distance: float, most: float, degrees: float
) -> None:
    sight = Sight(speed, 64.0, 0.0016, 780.0)
    found = on_slope(sight, distance, degrees)
    at = over(distance, sight) - found.more_mm
    assert abs(flown_mm(distance, at, sight, up_rad=math.radians(degrees))) <= most


def test_the_cosine_alone_is_not_enough_for_a_slow_arrow() -> None:
    """57 cm low uphill, 36 cm high downhill at 50 m."""
    sight = Sight(43.0, 64.0, 0.0016, 780.0)
    cosine = sight._replace(speed_mps=43.0 / math.sqrt(math.cos(math.radians(30))))
    at = over(50.0, cosine)
    up, down = (flown_mm(50.0, at, sight, up_rad=math.radians(a)) for a in (30, -30))
    assert up == pytest.approx(-570, abs=15)
    assert down == pytest.approx(360, abs=15)


PLANS = {
    ("cheekbone", "three_under"): [(20, 21), (25, 26), (31, 29)],
    ("cheekbone", "split"): [(26, 34), (33, 39), (41, 43)],
    ("corner", "three_under"): [(31, 46), (40, 51), (49, 54)],
    ("corner", "split"): [(40, 66), (51, 71), (63, 74)],
    ("under_chin", "three_under"): [(55, 100), (69, 105), (84, 109)],
    ("under_chin", "split"): [(61, 116), (77, 121), (94, 124)],
}


@pytest.mark.parametrize(("way", "row"), PLANS.items())
def test_reference_anchors(way: tuple[str, str], row: list[tuple[int, int]]) -> None:
    eye = EYE_MM[way[0]][way[1]].value  # type: ignore[index]
    for speed, (on, near) in zip((46, 52, 58), row, strict=True):
        found = planned(as_seen(Sight(speed, eye, 0.0017, 780.0), 0.88))
        assert found.point_on_m == pytest.approx(on, abs=0.6)
        assert found.near_mm == pytest.approx(near, abs=0.6)


@pytest.mark.parametrize(
    ("change", "on"),
    [({}, 39.6), ({"tip_mm": 805.4}, 38.4), ({"speed_mps": 52 * 0.98}, 38.1),
     ({"eye_mm": 70}, 46.0), ({"drag": 0.0017 * 1.3}, 39.1)],
)  # fmt: skip
def test_what_moves_point_on(change: dict[str, float], on: float) -> None:
    own = Sight(52.0, 60.0, 0.0017, 780.0)._replace(**change)
    assert point_on_m(as_seen(own, 0.88)) == pytest.approx(on, abs=0.11)


@given(st.floats(46, 60), st.floats(45, 110), st.floats(30, 60))
def test_what_a_wished_point_on_needs_gives_it(speed: float, eye: float, wished: float) -> None:
    base = as_seen(Sight(speed, eye, 0.0017, 780.0), 0.88)
    for need in needs(base, 0.88, wished):
        other = {
            "eye": as_seen(Sight(speed, need.value, 0.0017, 780.0), 0.88),
            "speed": as_seen(Sight(need.value, eye, 0.0017, 780.0), 0.88),
            "tip": as_seen(Sight(speed, eye, 0.0017, need.value), 0.88),
        }[need.lever]
        assert point_on_m(other) == pytest.approx(wished, abs=0.01)


@given(st.floats(60, 110), st.floats(10, 50), st.floats(-300, 300))
def test_a_corrected_crawl_strikes(eye: float, distance: float, high: float) -> None:
    """Within a hundredth of what it was off by, the table's own geometry."""
    sight = Sight(54.0, eye, 0.0017, 780.0)
    true = float(crawls_mm(np.array([distance]), sight)[0])
    shot = true - high * 0.78 / (distance - 0.78)
    at = height_mm(np.array([distance]), sight.eye_mm - shot, sight)[0]
    assert shot + float(at) / high_per_mm(distance, 780.0, 1.0) == pytest.approx(
        true, abs=0.1 + 0.02 * abs(true - shot)
    )


@given(st.floats(0, 110), st.floats(5, 50))
def test_a_rounded_crawl_is_at_most_half_a_step_off(crawl: float, distance: float) -> None:
    found = in_steps(crawl, FINGER.value, parts=4, high_per_mm=high_per_mm(distance, 780.0, 0.88))
    assert abs(found.off_mm) <= FINGER.value / 8 + 1e-9
    assert found.off_mm * found.high_mm <= 0, "deeper strikes lower"


def test_fingers_in_words_and_their_doubt() -> None:
    assert fingers(2.75) == "two and three quarters fingers"
    assert fingers(-0.5) == "a half finger above"
    assert fingers(7.25) == "seven and a quarter fingers"
    assert fingers(8.5) == "8.5 fingers"
    assert from_steps(2.0, Estimate(19.0, 1.5), 0.0).sd == 3.0


def test_a_slow_arrows_table_ends_sooner_and_no_table_is_steep() -> None:
    assert ends_m(Sight(55.0, 64.0, 0.0016, 780.0), 90.0) == 90.0
    assert ends_m(Sight(44.9, 64.0, 0.0016, 780.0), 90.0) == 70.0
    steep = ends_m(Sight(30.0, 64.0, 0.003, 700.0), 90.0)
    assert over(steep, Sight(30.0, 64.0, 0.003, 700.0)) / 700.0 <= 0.35
