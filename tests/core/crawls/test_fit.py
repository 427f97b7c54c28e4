"""Crawls from marks: reference values, slopes by differences, coverage, outliers, what next."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.fit import (
    LEAST_OTHERS,
    CrawlFit,
    FitMark,
    Prior,
    fit_crawls,
    next_distance,
    odd_one,
    sight_of,
    slopes,
    were_yards,
    without,
)
from lyrandis.core.crawls.sight import crawls_mm
from lyrandis.core.estimate import Estimate
from lyrandis.core.student import student_95
from tests.core.crawls.archers import CHRONOGRAPH, TABLE_M, false_alarms, named, tried

RIG = Prior(Estimate(52.0, 0.06 * 52), Estimate(68.0, 10.0), Estimate(0.0017, 0.25), 780.0, 1.0)
AT = [5.0, 10.0, 20.0, 30.0, 40.0, 50.0]
FOUR = [FitMark(10, 50.0), FitMark(20, 36.5), FitMark(30, 22.0), FitMark(40, 8.0)]
REFERENCE = [
    ([], [59.57, 52.48, 37.86, 22.84, 7.41, -8.45], [10.1, 10.2, 10.64, 11.39, 12.41, 13.68],
     44.71, 8.19),
    ([FitMark(20, 34.0)], [56.15, 48.96, 34.13, 18.89, 3.23, -12.88],
     [3.13, 2.53, 1.97, 2.73, 4.20, 5.94], 42.03, 2.84),
    ([FitMark(10, 50.0), FitMark(40, 8.0)], [57.20, 50.46, 36.58, 22.31, 7.65, -7.42],
     [2.11, 1.83, 1.46, 1.47, 1.88, 2.56], 45.11, 1.46),
    (FOUR, [57.14, 50.39, 36.49, 22.20, 7.53, -7.56], [1.82, 1.52, 1.07, 1.07, 1.56, 2.29],
     45.02, 1.27),
]  # fmt: skip


@pytest.mark.parametrize(("marks", "crawls", "sds", "on", "on_sd"), REFERENCE)
def test_reference_tables(
    marks: list[FitMark], crawls: list[float], sds: list[float], on: float, on_sd: float
) -> None:
    fit = fit_crawls(RIG, marks)
    assert [row.crawl_mm for row in fit.table(AT)] == pytest.approx(crawls, abs=0.05)
    assert fit.sd_mm(np.array(AT)).tolist() == pytest.approx(sds, abs=0.05)
    assert fit.point_on is not None
    assert fit.point_on.value == pytest.approx(on, abs=0.02)
    assert fit.point_on.sd / fit.scale == pytest.approx(on_sd, abs=0.02)


def test_reference_parameters_and_residuals() -> None:
    one = fit_crawls(RIG, [FitMark(20, 34.0)]).sight
    assert (one.speed_mps, one.eye_mm) == pytest.approx((51.625, 64.71), abs=0.005)
    two = fit_crawls(RIG, [FitMark(10, 50.0), FitMark(40, 8.0)])
    assert two.sight == pytest.approx((53.288, 65.29, 0.00168, 780.0, -0.080), abs=0.006)
    assert [one.z for one in two.residuals] == pytest.approx([-0.58, 0.52], abs=0.01)


@given(
    st.lists(st.floats(-1.5, 1.5), min_size=4, max_size=4), st.floats(650, 850), st.floats(4, 60)
)
def test_slopes_against_differences(off: list[float], tip: float, distance: float) -> None:
    theta = RIG.mean + np.array(off) * RIG.sd
    at = np.array([distance])
    found = slopes(at, sight_of(theta, tip))[0]
    for number in range(4):
        step = np.zeros(4)
        step[number] = 1e-5 * RIG.sd[number]
        up, down = (crawls_mm(at, sight_of(theta + way * step, tip))[0] for way in (1, -1))
        assert found[number] == pytest.approx((up - down) / (2 * step[number]), rel=2e-5, abs=2e-5)


@given(st.permutations(FOUR))
def test_the_order_of_marks_does_not_matter(marks: list[FitMark]) -> None:
    assert fit_crawls(RIG, marks).theta == pytest.approx(fit_crawls(RIG, FOUR).theta, abs=1e-6)


@given(st.sampled_from([5, 10, 20, 30, 40]), st.floats(0.1, 6) | st.floats(-6, -0.1))
def test_a_mark_narrows_every_row_and_pulls_towards_itself(distance: int, off: float) -> None:
    before = fit_crawls(RIG, FOUR[:2])
    shot = before.table([distance])[0].crawl_mm + off
    after = fit_crawls(RIG, [*FOUR[:2], FitMark(distance, shot)])
    at = np.array(AT)
    assert (after.sd_mm(at) <= before.sd_mm(at) * 1.05).all()
    moved = after.table([distance])[0].crawl_mm - before.table([distance])[0].crawl_mm
    assert moved * off >= 0
    assert abs(moved) <= abs(off)


def test_one_distance_six_times_still_wants_another() -> None:
    fit = fit_crawls(RIG._replace(deep_sd_mm=2.0), [FitMark(20, 34.0)] * 6)
    rows = fit.table([5, 20, 50])
    assert rows[1].half_mm < 2.5
    assert rows[2].half_mm > 6
    told = next_distance(fit, TABLE_M)
    assert told is not None
    assert told.distance_m >= 35
    assert told.after_mm < told.before_mm


def test_the_first_mark_to_shoot_is_in_the_middle_and_then_near_or_far() -> None:
    first = next_distance(fit_crawls(RIG), TABLE_M)
    assert first is not None
    assert first.distance_m == 30
    after = next_distance(fit_crawls(RIG, [FitMark(30, 22.8)]), TABLE_M)
    assert after is not None
    assert after.distance_m in (5, 40)
    assert next_distance(fit_crawls(RIG, [*FOUR, *FOUR]), TABLE_M) is None


def test_what_is_proposed_lies_within_reach_and_before_point_on() -> None:
    found = next_distance(fit_crawls(RIG), TABLE_M, furthest_m=25)
    assert found is not None
    assert found.distance_m <= 25
    short = RIG._replace(eye=Estimate(40.0, 4.0))
    fit = fit_crawls(short, [FitMark(10, 22.0)])
    proposed = next_distance(fit, TABLE_M)
    assert fit.point_on is not None
    assert proposed is None or proposed.distance_m <= fit.point_on.value


def test_a_course_weighs_the_table() -> None:
    near = next_distance(fit_crawls(RIG, [FitMark(30, 22.8)]), (5, 10, 45), weights=(10, 5, 0.1))
    assert near is not None
    assert near.distance_m == 5


def test_contradicting_marks_are_both_named_and_none_is_left_out() -> None:
    fit = fit_crawls(RIG, [FitMark(20, 34.0), FitMark(20, 50.0)])
    assert [round(one.z, 1) for one in fit.residuals] == [-5.6, 5.7]
    assert odd_one(fit) is not None
    assert len(fit.marks) == 2
    assert odd_one(fit_crawls(RIG, [FitMark(20, 60.0)])) is None, "nothing to compare with"


def test_a_left_out_mark_no_longer_pulls() -> None:
    wild = [*FOUR, FitMark(25, 50.0)]
    fit = fit_crawls(RIG, wild)
    assert odd_one(fit) == LEAST_OTHERS
    assert without(fit, 4).theta == pytest.approx(fit_crawls(RIG, FOUR).theta)


@pytest.mark.parametrize(("count", "off", "least"), [(8, 4.0, 0.85), (5, 5.0, 0.84)])
def test_a_mark_that_does_not_fit_is_named(count: int, off: float, least: float) -> None:
    assert named(100, count, off) >= least
    assert false_alarms(100, count) <= 0.15


@pytest.mark.parametrize("count", [1, 2, 4, 8])
def test_bands_hold_the_truth(count: int) -> None:
    found = tried(120, count, 100 + count)
    assert 0.925 <= found.share <= 0.985
    assert found.covered.min() >= 0.90


@pytest.mark.parametrize("count", [2, 6])
def test_bands_hold_in_a_world_that_is_not_in_the_family(count: int) -> None:
    assert 0.90 <= tried(120, count, 200 + count, richer=True).share <= 0.985


def test_two_best_distances_give_the_table_within_two_millimetres() -> None:
    for speed_sd in (0.058, CHRONOGRAPH):
        assert tried(120, [5.0, 45.0], 7, speed_sd=speed_sd).off_mm < 2.0


def test_a_careless_archer_widens_the_band() -> None:
    careless = tried(120, 6, 8, repeat_mm=4.0, told=False)
    ordinary = tried(120, 6, 8, repeat_mm=2.0, told=False)
    assert careless.half_mm > 1.3 * ordinary.half_mm
    assert careless.share > 0.82, "under-covered, and said so"


def test_yards_are_only_asked_about_where_they_fit_better() -> None:
    sure = RIG._replace(speed=Estimate(52.0, 0.6), eye=Estimate(68.0, 3.0))
    true = fit_crawls(sure)
    yards = [
        FitMark(d, true.table([d * M_PER_YD])[0].crawl_mm, 1.0) for d in (10.0, 20.0, 30.0, 40.0)
    ]
    metres = [FitMark(d, true.table([d])[0].crawl_mm, 1.0) for d in (10.0, 20.0, 30.0, 40.0)]
    assert were_yards(fit_crawls(sure, yards))
    assert not were_yards(fit_crawls(sure, metres))
    assert not were_yards(fit_crawls(sure))


def test_no_band_is_narrower_than_the_floor_and_beyond_point_on_it_grows() -> None:
    fit: CrawlFit = fit_crawls(RIG, FOUR * 12, told=True)
    rows = fit.table([20, 55])
    assert rows[0].half_mm >= 1.96 * 0.5 - 1e-6
    assert rows[1].half_mm >= 1.96 * math.hypot(0.5, 0.08 * abs(rows[1].crawl_mm)) - 1e-6


def test_students_t_where_nobody_told_how_well_they_repeat() -> None:
    assert student_95(6) == pytest.approx(2.4469, abs=1.5e-3)
    assert student_95(12) == pytest.approx(2.1788, abs=1e-3)
    assert fit_crawls(RIG, FOUR).factor == student_95(6)
    assert fit_crawls(RIG, FOUR, told=True).factor == pytest.approx(1.96, abs=1e-3)
    assert fit_crawls(RIG, FOUR[:3]).factor == pytest.approx(1.96, abs=1e-3)
