"""Geometry for the drawings: it is what was computed, in order, and inside the page."""

import pytest

from tests.entries import drawn

IN = 25.4


def test_the_draw_drawing_of_nothing_still_has_a_grip() -> None:
    drawing = drawn().draw
    assert drawing.draw_mm is None
    assert drawing.readings == ()
    assert drawing.back_mm == drawing.trade_mm == pytest.approx(1.75 * IN)


def test_the_draw_drawing_marks_what_counts_and_what_stands_beside() -> None:
    drawing = drawn("span 70", "draw 28", "grip 2 back", "hook 1").draw
    assert [(mark.method, mark.used) for mark in drawing.readings] == [
        ("draw_marked", True),
        ("arm_span", False),
    ]
    assert drawing.back_mm == pytest.approx(2 * IN)
    assert drawing.hook_mm == pytest.approx(IN)


def test_no_weight_no_weight_drawing() -> None:
    assert drawn("draw 28").weight is None


def test_the_weight_line_rises_inside_its_band_and_reaches_past_the_points() -> None:
    drawing = drawn("draw 28", "hook 1/2", "scale 27 @ 20", "scale 40 @ 28", "limit 30").weight
    assert drawing is not None
    weights = [sample.weight_lbf for sample in drawing.line]
    assert weights == sorted(weights)
    assert all(s.low_lbf <= s.weight_lbf <= s.high_lbf for s in drawing.line)
    assert drawing.line[0].draw_mm <= 20 * IN
    assert drawing.line[-1].draw_mm >= 28.5 * IN
    assert drawing.own_mm == pytest.approx(28.5 * IN)
    assert drawing.limit_mm == pytest.approx(30 * IN)


def test_a_weighed_bow_keeps_its_mark_in_the_drawing() -> None:
    drawing = drawn("draw 28", "mark 45", "scale 40 @ 28").weight
    assert drawing is not None
    assert [point.is_mark for point in drawing.points] == [False, True]
    only_mark = drawn("draw 28", "mark 45").weight
    assert only_mark is not None
    assert [point.is_mark for point in only_mark.points] == [True]


def test_residuals_are_scale_less_line() -> None:
    assessment = drawn("draw 28", "hook 0", "scale 38 @ 27", "scale 42 @ 28", "scale 43 @ 29")
    assert assessment.weight is not None
    off = [point.weight_lbf - point.expected_lbf for point in assessment.weight.points]
    assert sum(off) == pytest.approx(0.0, abs=0.5)
    assert max(off) == off[1]


def test_long_histories_are_drawn_short_and_say_how_much_is_left_out() -> None:
    said = ["draw 28", "scale 40 @ 28", "arrow 400gr"] * 70 + ["span 70"] * 8
    drawings = drawn(*said)
    assert drawings.weight is not None
    shown = (drawings.draw.readings, drawings.weight.points, drawings.floor.arrows)
    assert [len(one) for one in shown] == [12 + 6, 24, 60]
    assert (drawings.draw.more, drawings.weight.more, drawings.floor.more) == (60, 46, 10)


def test_every_weighed_arrow_is_a_tick_with_its_own_grains_per_pound() -> None:
    drawing = drawn(
        "draw 28", "hook 1/2", "scale 40 @ 28 1/2", "arrow 1 400gr", "arrow 2 440gr"
    ).floor
    ticks = [(tick.number, tick.grains_per_pound) for tick in drawing.arrows]
    assert ticks == [(1, pytest.approx(10.0)), (2, pytest.approx(11.0))]
    assert drawing.stop_below == 6.0


def test_the_floor_drawing_without_a_draw_has_no_grains_per_pound() -> None:
    drawing = drawn("scale 40 @ 28", "arrow 1 400gr").floor
    assert drawing.weight_lbf is None
    assert drawing.grains_per_pound is None
    assert drawing.arrows[0].grains_per_pound is None


def test_part_bars_add_up_to_the_sum_of_parts() -> None:
    drawing = drawn("draw 28", "shaft 30 9gpi", "point 125", "arrow 1 430gr").arrow
    assert sum(part.mass_gr for part in drawing.parts) == pytest.approx(drawing.parts_gr)
    assert drawing.weighed_gr == 430.0
    assert {part.name for part in drawing.parts if part.given} == {"shaft", "point"}
