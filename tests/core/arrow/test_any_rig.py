"""Any believable rig is shot, judged, drawn and tried without a fault, and says finite numbers."""

import math
from typing import Any

from hypothesis import example, given, settings
from hypothesis import strategies as st

from lyrandis.core.arrow.show import shot_drawing
from lyrandis.core.arrow.spine_board import spine_board
from lyrandis.core.arrow.taper_plan import TaperAsked, plan_taper
from lyrandis.core.arrow.trial import Tried, trial
from lyrandis.core.assessment import assess
from lyrandis.core.computed import compute
from lyrandis.core.setup import fold
from tests.entries import entries

FAMILIES = (
    "selfbow", "straight longbow", "reflex deflex longbow", "hunting recurve", "target recurve",
    "short rigid tip", "long rigid tip", "large rigid tip",
)  # fmt: skip


@st.composite
def rigs(draw: st.DrawFn) -> list[str]:
    """Jot lines of a rig, from the sensible to the barely believable."""
    number = lambda low, high: round(draw(st.floats(low, high)), 1)  # noqa: E731
    said = [
        f"draw {number(20, 34)}",
        f"hold {draw(st.sampled_from(['split', 'three under', 'thumb']))}",
        f"family {draw(st.sampled_from(FAMILIES))}",
        f"bow {number(48, 72)}",
        f"scale {number(8, 140)}lb @ {number(22, 32)}",
        f"brace {number(4.5, 9.5)}",
        f"shaft {number(15, 44)}in {number(2, 24)}gpi",
        f"point {number(0, 400)}",
        f"diameter {number(3, 14)}mm",
        f"window {number(0, 24)}mm" if draw(st.booleans()) else f"window {number(0, 14)}mm past",
    ]
    if draw(st.booleans()):
        said.append(f"spine {number(16, 158)}lb")
    if draw(st.booleans()):
        said.append(f"arrow 1 {number(110, 2400)}gr")
    if draw(st.booleans()):
        said.append("window plunger")
    if draw(st.booleans()):
        said += ["material wood", f"taper tail {number(0, 20)}in {number(3, 14)}mm"]
    return said


def finite(value: Any) -> bool:
    """No number anywhere in a dumped answer is NaN or infinite."""
    if isinstance(value, float):
        return math.isfinite(value)
    if isinstance(value, dict):
        return all(finite(one) for one in value.values())
    return not isinstance(value, list | tuple) or all(finite(one) for one in value)


FAR_PAST_ITS_POINT = [
    "draw 26.0", "family straight longbow", "bow 48.0", "brace 9.0", "scale 122.0lb @ 22.0",
    "shaft 15.0in 2.0gpi", "point 0.0", "diameter 3.0mm", "window 0.0mm", "hold split",
]  # fmt: skip
"""A weight worked out beyond what any scale reads: its slider must still be allowed."""


@settings(deadline=None, max_examples=25)
@given(rigs())
@example(FAR_PAST_ITS_POINT)
def test_any_rig_is_judged_and_shot(said: list[str]) -> None:
    setup = fold(entries(*said))
    assert finite(assess(setup).model_dump())
    c = compute(setup)
    if c.arrow.shooting is None:
        return
    drawing = shot_drawing(c.arrow.shooting, lift_mm=3.0, lift_read=True, outward_is_left=True)
    if drawing is not None:
        assert finite(drawing.model_dump())
    answer = trial(c, Tried(point_gr=150.0, window_mm=2.0))
    assert finite(answer.model_dump())
    ends = {}
    for name in Tried.model_fields:
        knob = getattr(answer, name)
        assert knob.low <= knob.now <= knob.high
        ends[name] = knob.low
    Tried(**ends)  # what a slider can ask is never refused
    asked = TaperAsked(
        tail_taper_mm=100.0, tail_diameter_mm=max(4.0, 0.8 * c.arrow.sheet.diameter_mm)
    )
    if c.arrow.sheet.diameter_mm >= 4.0:
        assert finite(plan_taper(c.arrow.sheet, c.arrow.shooting, asked).model_dump())


@settings(deadline=None, max_examples=6)
@given(rigs())
def test_any_rig_has_a_board(said: list[str]) -> None:
    c = compute(fold(entries(*said)))
    if c.arrow.shooting is not None:
        board = spine_board(c)
        assert finite(board.model_dump())
        order = ["easy", "new", "never"]
        undo = [order.index(way.undo) for way in board.ways]
        assert undo == sorted(undo)
