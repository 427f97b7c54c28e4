"""Nock height, tiller, bolts, riser weights, and the bow drawn off its middle."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.archer.words import Hold
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.two_limbs import drawn_off_middle, extra_draw, worst_extra_draw
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.nock import height as h
from lyrandis.core.nock import tiller as t
from lyrandis.core.nock.riser_weights import Weight, balance_of

IN = MM_PER_IN
AT_28 = 26.25 * IN


def bow(family: Family, length: float, riser: float, brace: float) -> BowShape:
    return BowShape(family, length * IN, riser * IN, brace * IN)


RECURVE_58 = bow("hunting_recurve", 58, 15, 7.75)
BOWS = (
    RECURVE_58, bow("target_recurve", 68, 27, 8.75), bow("reflex_deflex_longbow", 62, 15, 7),
    bow("straight_longbow", 68, 14, 6.75),
)  # fmt: skip


# the kernel


@pytest.mark.parametrize("shape", BOWS, ids=lambda shape: shape.family)
def test_in_the_middle_it_is_the_present_curve(shape: BowShape) -> None:
    curve, both = draw_curve(shape), drawn_off_middle(shape, AT_28, 0.0)
    assert both is not None
    assert both.force == pytest.approx(curve.force.at(AT_28), rel=1e-6)
    assert both.angles == pytest.approx((curve.gamma.at(AT_28),) * 2, abs=1e-6)
    assert both.line == pytest.approx(0.0, abs=1e-7)


@pytest.mark.parametrize("shape", BOWS, ids=lambda shape: shape.family)
@pytest.mark.parametrize("offset", [12.0, 47.0, 80.0])
def test_the_other_way_is_the_mirror(shape: BowShape, offset: float) -> None:
    for held in ("free", "square"):
        below = drawn_off_middle(shape, AT_28, offset, held=held)
        above = drawn_off_middle(shape, AT_28, -offset, held=held)
        assert below is not None
        assert above is not None
        assert below.tensions == pytest.approx(above.tensions[::-1], rel=1e-6)
        assert below.angles == pytest.approx(above.angles[::-1], rel=1e-6)
        assert below.share == pytest.approx(-above.share, abs=1e-7)


def test_the_reference_bow_sixty_below() -> None:
    root = 45 / draw_curve(RECURVE_58).force.at(AT_28)
    found = drawn_off_middle(RECURVE_58, AT_28, 60.0)
    assert found is not None
    assert found.force * root == pytest.approx(45.05, abs=0.02)
    assert [x * root for x in found.tensions] == pytest.approx([47.9, 44.8], abs=0.05)
    assert [math.degrees(x) for x in found.angles] == pytest.approx([25.5, 32.5], abs=0.1)
    assert math.degrees(found.line) == pytest.approx(-6.93, abs=0.02)
    assert found.share == pytest.approx(-0.044, abs=0.001)
    assert found.moment * root == pytest.approx(0.0, abs=0.01)


EXTRA = [
    (bow("hunting_recurve", 54, 14, 7.75), (0.27, 0.55, 0.85, 1.17)),
    (RECURVE_58, (0.24, 0.49, 0.75, 1.03)),
    (bow("hunting_recurve", 62, 18, 7.75), (0.22, 0.45, 0.69, 0.94)),
    (bow("hunting_recurve", 66, 18, 7.75), (0.20, 0.41, 0.62, 0.85)),
    (BOWS[1], (0.18, 0.36, 0.56, 0.76)),
    (BOWS[2], (0.24, 0.49, 0.74, 1.01)),
    (BOWS[3], (0.20, 0.42, 0.63, 0.86)),
]


@pytest.mark.parametrize(("shape", "expected"), EXTRA)
def test_a_heeled_grip_bends_the_lower_limb_further(
    shape: BowShape, expected: tuple[float, ...]
) -> None:
    for offset, inches in zip((20, 40, 60, 80), expected, strict=True):
        found = worst_extra_draw(shape, AT_28, offset)
        assert found is not None
        assert found / IN == pytest.approx(inches, abs=0.03)
        assert extra_draw(shape.bow_length_mm, offset) == pytest.approx(found, rel=0.17)


def test_a_stiffer_lower_limb_straightens_a_hook_above_the_middle() -> None:
    even = drawn_off_middle(RECURVE_58, AT_28, -40.0)
    stiffer = drawn_off_middle(RECURVE_58, AT_28, -40.0, ratio=1.05)
    assert even is not None
    assert stiffer is not None
    assert even.line > stiffer.line


def test_draw_weight_hardly_cares_where_the_hook_is() -> None:
    root = 45 / draw_curve(RECURVE_58).force.at(AT_28)
    for held, most in (("free", 0.2), ("square", 0.7)):
        found = drawn_off_middle(RECURVE_58, AT_28, 80.0, held=held)  # type: ignore[arg-type]
        assert found is not None
        assert 0 < found.force * root - 45 < most


# nock height


@pytest.mark.parametrize(
    ("hold", "crawl", "lift"),
    [("split", 0, 3.0), ("three_under", 0, 4.0), ("thumb", 0, 0.5), ("three_under", 30, 7.9),
     ("three_under", 60, 11.8), ("three_under", 200, 12.0)],
)  # fmt: skip
def test_a_height_to_begin_with(hold: Hold, crawl: float, lift: float) -> None:
    start = h.start_lift(hold, crawl, 8.0)
    assert start.lift_mm == pytest.approx(lift)
    assert start.low_mm < start.lift_mm < start.high_mm


def test_the_start_for_split_fingers_lies_where_the_trade_puts_its_locator() -> None:
    locator = h.locator_of(h.start_lift("split", 0, 8.0).lift_mm, 8.0)
    assert 3 / 8 <= locator / IN <= 1 / 2


@given(st.floats(-10, 30), st.floats(5, 12))
def test_either_way_of_reading_gives_the_same_lift(lift: float, nock: float) -> None:
    known = Estimate(nock, 0.1)
    over = h.lift_of(h.locator_of(lift, nock), "locator_over", known)
    assert over.value == pytest.approx(lift)
    assert over.sd > h.lift_of(lift, "lift", known).sd


def test_schools_by_what_was_shot() -> None:
    shot = h.HeightShot
    assert h.schools_of([]) == h.Schools(None, None)
    assert h.schools_of([shot(4, "bounced")]) == h.Schools(None, None)
    assert h.schools_of([shot(6, "clean")]).clean == (6, 6)
    assert h.schools_of([shot(4, "bounced"), shot(6, "clean"), shot(8, "clean")]).clean == (4, 6)
    # a height that bounced is never the lowest that flew clean, nor is one under it
    assert h.schools_of([shot(4, "clean"), shot(4, "bounced")]).clean is None
    assert h.schools_of([shot(4, "clean"), shot(5, "bounced")]).clean is None
    assert h.schools_of([shot(4, "clean"), shot(5, "bounced"), shot(7, "clean")]).clean == (5, 7)
    assert h.schools_of([shot(4, "bounced"), shot(4, "clean")]).clean == (4, 4)
    assert h.schools_of([shot(5, "bare_high"), shot(8, "bare_low")]).bare == (5, 8)
    assert h.schools_of([shot(8, "bare_high"), shot(5, "bare_low")]).bare is None
    level = h.schools_of([shot(5, "bare_high"), shot(7, "bare_level"), shot(8, "bare_low")])
    assert level.bare == (7, 7)


@given(st.lists(st.tuples(st.floats(0, 80), st.floats(0.5, 20)), min_size=2, max_size=8))
def test_two_nocks_are_the_best_of_all_cuts(shares: list[tuple[float, float]]) -> None:
    crawls = [h.CrawlShare(*one) for one in shares]
    one, two = h.one_nock(crawls), h.two_nocks(crawls)
    if two is None:
        return
    assert one.error_mm - two.error_mm >= h.WORTH_TWO_MM
    settings = np.linspace(0, 80, 161)
    total = sum(c.shots for c in crawls)
    nearest = min(
        sum(c.shots * min((c.crawl_mm - a) ** 2, (c.crawl_mm - b) ** 2) for c in crawls)
        for a in settings for b in settings[::8]
    )  # fmt: skip
    assert two.error_mm <= h.HEIGHT_PER_CRAWL * math.sqrt(nearest / total) + 0.02


def test_one_nock_is_enough_where_crawls_lie_close() -> None:
    assert h.two_nocks([h.CrawlShare(20, 5), h.CrawlShare(30, 5)]) is None


# tiller and bolts


@pytest.mark.parametrize(
    ("hold", "crawl", "tiller", "word"),
    [
        ("split", 0, 3.0, "good"), ("split", 0, 1.1, "good"), ("split", 0, 1.0, "watch"),
        ("split", 0, -2.0, "mend"), ("three_under", 0, 5.9, "good"),
        ("three_under", 0, 6.0, "watch"),
        ("three_under", 22, 4.5, "watch"), ("three_under", 40, 2.0, "good"),
        ("three_under", 40, 4.0, "watch"), ("thumb", 0, -2.9, "good"), ("thumb", 0, 6.0, "mend"),
    ],
)  # fmt: skip
def test_tiller_by_hold(hold: Hold, crawl: float, tiller: float, word: str) -> None:
    assert t.tiller_word(tiller, t.tiller_band(hold, crawl)) == word


def test_the_band_holds_its_target_and_falls_with_the_crawl() -> None:
    bands = [t.tiller_band("three_under", crawl) for crawl in range(0, 61, 5)]
    assert all(band.low_mm <= band.target_mm <= band.high_mm for band in bands)
    assert all(a.target_mm >= b.target_mm for a, b in pairwise(bands))


def test_bolts_move_the_weight_as_the_statics_do() -> None:
    effect = t.turn_effect()
    assert 40 * (math.exp(effect.value) - 1) == pytest.approx(0.9, abs=0.05)
    turns = t.turns_for_weight(40.0, 37.0, effect)
    assert 40 * math.exp(turns * effect.value) == pytest.approx(37.0, abs=0.15)
    own = t.own_turn_effect(effect, (t.BoltPair(-2, 40, 37), t.BoltPair(0, 40, 40)))
    assert effect.value < own.value < math.log(40 / 37) / 2
    assert own.sd < effect.sd


# riser weights


def test_mass_in_the_middle_changes_no_balance_and_low_mass_is_warned_of() -> None:
    middle = balance_of((Weight(200, 20, 0),), 450)
    assert middle.y_mm == 0
    assert middle.uneven == 0
    assert not middle.slows_lower
    low = balance_of((Weight(60, 20, -200),), 450)
    assert low.slows_lower
    assert low.uneven < 0
    assert balance_of((Weight(49, 20, -200),), 450).slows_lower is False
    mirrored = balance_of((Weight(60, 20, 200),), 450)
    assert mirrored.uneven == pytest.approx(-low.uneven)


@given(
    st.lists(st.tuples(st.floats(1, 400), st.floats(-50, 300), st.floats(-200, 200)), max_size=4)
)
def test_balance_is_that_of_the_moments(weights: list[tuple[float, float, float]]) -> None:
    found = balance_of(tuple(Weight(*one) for one in weights), 450)
    mass = 1100 + sum(one[0] for one in weights)
    assert found.mass_g == pytest.approx(mass)
    moment = 1100 * 10 + sum(one[0] * one[1] for one in weights)
    assert found.torque_nm == pytest.approx(9.80665 * moment / 1e6)
    assert -1 < found.uneven < 1
