"""What is asked apart: planning of point-on, and what a wrong guess costs."""

import pytest

from lyrandis.core.assessment import judge
from lyrandis.core.bow.drawing import knee_drawing
from lyrandis.core.bow.two_limbs import crawl_draw
from lyrandis.core.crawls.plan import EYE_MM
from lyrandis.core.crawls.plan_board import nocks_for, plan_board
from lyrandis.core.crawls.range_board import ANGLES, range_board
from lyrandis.core.errors import DomainError
from lyrandis.core.example import rig as bare_rig
from lyrandis.core.nock.height import WORTH_TWO_MM
from tests.core.crawls.test_crawl_stage import GOOD, rig
from tests.core.crawls.test_tables import new_set


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
    assert c.crawls.marks.fit is not None
    assert c.crawls.marks.fit.point_on is not None
    # the table's deep term is left out of a plan
    assert now.point_on_m == pytest.approx(c.crawls.marks.fit.point_on.value, abs=0.2)


def test_another_anchor_moves_the_eye_by_what_faces_have_between_the_two() -> None:
    c = rig(*GOOD)
    lines = {line.key: line for line in plan_board(c).anchors}
    moved = EYE_MM["under_chin"]["three_under"].value - EYE_MM["corner"]["three_under"].value
    deeper = lines["under_chin"].near_mm - lines["corner"].near_mm
    assert deeper == pytest.approx(moved / c.crawls.basis.kappa.value, rel=0.02)


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


# bows side by side, nocks, depth


def test_the_archers_other_rigs_stand_beside_this_one_each_with_its_own_table() -> None:
    own, other = rig(*GOOD), rig("usualcrawl 20mm", "scale 38 @ 28", "arrow 1 430gr")
    lines = plan_board(own, 50.0, [other, bare_rig(["draw 28"])]).bows
    assert [line.now for line in lines] == [True, False], "a rig without a table is left out"
    assert lines[1].point_on_m < lines[0].point_on_m, "a weaker bow, a heavier arrow"
    assert plan_board(own).bows == ()


def test_one_nock_is_set_for_the_mean_crawl_and_two_only_where_it_pays() -> None:
    near = nocks_for(rig(*GOOD, "crawltable 15m to 30m every 5m"))
    assert near is not None
    assert near.two is None
    wide = nocks_for(rig(*GOOD, "crawltable 5m to 40m every 5m"))
    assert wide is not None
    assert wide.two is not None
    low, high = wide.two
    assert low.crawl_mm < wide.one.crawl_mm < high.crawl_mm
    assert low.lift_mm < high.lift_mm, "a deeper crawl wants a higher nock"
    assert wide.two_error_mm + WORTH_TWO_MM <= wide.error_mm
    metres = [int(one.split()[0]) for one in (high.from_says, high.to_says, low.from_says)]
    assert metres[0] <= metres[1] < metres[2], "near marks from the deep one"


def test_the_favoured_crawl_is_the_mean_of_the_tables() -> None:
    c = rig(*GOOD, "crawltable 10m to 40m every 10m")
    crawls = [row.crawl_mm for row in c.crawls.table.rows if row.crawl_mm >= 0]
    found = nocks_for(c)
    assert found is not None
    assert found.one.crawl_mm == pytest.approx(sum(crawls) / len(crawls))
    assert found.one.lift_mm == pytest.approx(4 + min(0.13 * found.one.crawl_mm, 7.5), abs=0.01)
    assert (found.own_lift_mm, found.fixed) == (pytest.approx(5.0), False)


@pytest.mark.parametrize(
    ("bow", "draw", "short"), [("48", "24", True), ("58", "26", True), ("66", "28", False)]
)
def test_how_deep_a_bow_lets_one_go_short_ones_included(bow: str, draw: str, short: bool) -> None:
    c = rig(f"bow {bow}", "riser 12", "string 44 16 strands", f"draw {draw}", "mark 40 @ 28",
            "usualcrawl 20mm", "brace 7 grip")  # fmt: skip
    board = plan_board(c)
    assert board.short_bow is short
    margin = c.bow.stack_margin_mm
    assert margin is not None
    if board.deep_mm:
        left = margin.value - crawl_draw(float(bow) * 25.4, board.deep_mm)
        assert left == pytest.approx(0.0, abs=0.05)
    elif board.deep_mm is None:
        assert crawl_draw(float(bow) * 25.4, 120.0) <= margin.value
    else:
        assert margin.value <= 0


# one speed for all


def test_marks_say_of_the_speed_what_they_add_to_the_bows_word() -> None:
    c = rig(*GOOD)
    found, said = c.crawls.checks.speed_by_marks, c.crawls.basis.speed
    assert found is not None
    assert found.alone is not None
    assert found.together.sd < min(said.sd, found.alone.sd)
    low, high = sorted((said.value, found.alone.value))
    assert low - 0.3 <= found.together.value <= high + 0.3
    assert not found.apart
    knee = knee_drawing(c)
    assert knee.crawled.marks == len(GOOD)
    assert knee.crawled.together_mps == found.together.value


def test_one_mark_hardly_tells_a_speed_and_none_says_nothing() -> None:
    one = rig("crawl 20m 36mm").crawls.checks.speed_by_marks
    assert one is not None
    assert one.alone is None
    assert rig("usualcrawl 20mm").crawls.checks.speed_by_marks is None
    assert knee_drawing(rig("usualcrawl 20mm")).crawled is None


def test_a_disagreement_is_told_with_other_arrows_marks_too() -> None:
    slow = ("speed 140 fps 400gr", "speed 141 fps 400gr", "speed 140 fps 400gr")
    told = rig(*slow, *GOOD, *new_set("crawl 10m 46mm", "crawl 20m 34mm", "crawl 40m 8mm"))
    assert told.crawls.before is not None
    assert told.crawls.checks.speed_by_marks.apart
    fine = rig(*GOOD, *new_set("crawl 10m 50mm", "crawl 20m 37.5mm", "crawl 40m 10mm"))
    assert not fine.crawls.checks.speed_by_marks.apart


def test_a_chronograph_far_off_the_marks_is_said_on_both_pages() -> None:
    c = rig(*GOOD, "speed 140 fps 400gr", "speed 141 fps 400gr", "speed 140 fps 400gr")
    found = c.crawls.checks.speed_by_marks
    assert found is not None
    assert found.apart
    assert knee_drawing(c).crawled.apart
    assert "crawl-speed" in {one.id for one in judge(c).findings}
