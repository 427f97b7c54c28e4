"""What is asked apart: planning of point-on, and what a wrong guess costs."""

import pytest

from lyrandis.core.crawls.plan import EYE_MM
from lyrandis.core.crawls.plan_board import plan_board
from lyrandis.core.crawls.range_board import ANGLES, range_board
from lyrandis.core.errors import DomainError
from lyrandis.core.example import rig as bare_rig
from tests.core.crawls.test_crawl_stage import GOOD, rig


def test_a_lower_anchor_shoots_point_on_further_and_crawls_deeper() -> None:
    lines = plan_board(rig(*GOOD)).anchors
    ons = [line.point_on_m for line in lines]
    assert all(on is not None for on in ons)
    assert ons == sorted(ons, key=lambda on: on or 0)
    assert [line.deepest_mm for line in lines] == sorted(line.deepest_mm for line in lines)
    assert [line.now for line in lines] == [False, True, False]


def test_the_present_anchor_is_the_tables_own() -> None:
    c = rig(*GOOD)
    now = next(line for line in plan_board(c).anchors if line.now)
    assert c.crawls.fit is not None
    assert c.crawls.fit.point_on is not None
    # the table's deep term is left out of a plan
    assert now.point_on_m == pytest.approx(c.crawls.fit.point_on.value, abs=0.2)


def test_another_anchor_moves_the_eye_by_what_faces_have_between_the_two() -> None:
    c = rig(*GOOD)
    lines = {line.key: line for line in plan_board(c).anchors}
    moved = EYE_MM["under_chin"]["three_under"].value - EYE_MM["corner"]["three_under"].value
    deeper = lines["under_chin"].near_mm - lines["corner"].near_mm
    assert deeper == pytest.approx(moved / c.crawls.kappa.value, rel=0.02)


def test_long_and_heavy_arrows_bring_point_on_nearer() -> None:
    lines = {line.key: line.point_on_m or 0 for line in plan_board(rig(*GOOD)).arrows}
    assert lines["longer"] < lines["now"] < lines["shorter"]
    assert lines["heavier"] < lines["now"] < lines["lighter"]


def test_a_crawl_no_hand_reaches_and_a_margin_that_is_used_up_are_said() -> None:
    board = plan_board(rig("hold split", "anchor chin", "usualcrawl 20mm", "crawltable 2m 40m 2m"))
    chin = next(line for line in board.anchors if line.key == "under_chin")
    assert chin.too_deep
    assert chin.margin_mm is not None
    cheek = next(line for line in board.anchors if line.key == "cheekbone")
    assert not cheek.too_deep
    assert cheek.margin_mm is not None
    assert cheek.margin_mm > chin.margin_mm


def test_what_a_wished_point_on_needs_is_said_in_its_own_unit() -> None:
    needs = {one.lever: one.says.text("metric") for one in plan_board(rig(*GOOD), 50.0).needs}
    assert set(needs) == {"eye", "speed", "tip"}
    assert "over yours" in needs["eye"]
    assert "more" in needs["speed"]
    assert "shorter" in needs["tip"]
    far = {one.lever for one in plan_board(rig(*GOOD), 100.0).needs}
    assert far < {"eye", "speed", "tip"}


@pytest.mark.parametrize("board", [plan_board, range_board])
def test_without_a_speed_it_is_said_what_is_missing(board) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(DomainError) as refused:
        board(bare_rig(["draw 28", "crawl 20m 34mm"]))
    assert refused.value.code == "nothing_to_shoot"
    assert "weight" in refused.value.instruction


def test_the_board_of_ranges_goes_as_far_as_the_table_may_and_has_both_sides() -> None:
    found = range_board(rig(*GOOD))
    assert found.distances[0] == 5
    assert found.distances[-1] == 60
    for row in found.guesses:
        assert len(row.nearer_mm) == len(row.further_mm) == len(found.distances)
        for near, far in zip(row.nearer_mm, row.further_mm, strict=True):
            assert (near is None) == (far is None)
            if near is not None and far is not None:
                assert near > 0 > far
    assert [one.degrees for one in found.slopes[0].slopes] == list(ANGLES)


def test_marks_make_the_speed_and_with_it_the_misses_surer() -> None:
    shares = [range_board(rig("usualcrawl 20mm", *GOOD[:n])).speed_share for n in (0, 2, 5)]
    assert shares == sorted(shares, reverse=True)


def test_hunters_are_told_that_the_number_is_no_limit() -> None:
    assert range_board(rig("purpose hunting", *GOOD)).hunts
    assert not range_board(rig("purpose field", *GOOD)).hunts
