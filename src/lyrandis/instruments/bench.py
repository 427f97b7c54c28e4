"""What a simulated instrument would find on a rig: the rig's own numbers, a little off."""

import random

from lyrandis.core.computed import Computed
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.instruments.instrument import InstrumentKind

USUAL: dict[InstrumentKind, float] = {
    "bow_scale": 40.0, "grain_scale": 420.0, "spine_gauge": 52.0, "chronograph": 52.0,
    "bow_square": 195.0, "calliper": 2.1,
}  # fmt: skip
"""Assumption: what is shown where the rig says nothing of it."""
MOST_OFF: dict[InstrumentKind, float] = {
    "bow_scale": 0.01, "grain_scale": 0.008, "spine_gauge": 0.03, "chronograph": 0.01,
    "bow_square": 0.003, "calliper": 0.02,
}  # fmt: skip
"""Assumption: how far the thing itself lies from what is known of it, one sd as a share."""


def truth_of(kind: InstrumentKind, c: Computed, draw_mm: float | None, seed: int) -> float:
    """Return what is there to be measured; the same seed gives the same thing."""
    value = _known(kind, c, draw_mm)
    if value is None or value <= 0:
        value = USUAL[kind]
    return value * (1 + random.Random(f"{kind}-{seed}").gauss(0.0, MOST_OFF[kind]))


def _known(kind: InstrumentKind, c: Computed, draw_mm: float | None) -> float | None:
    arrow = c.arrow.finished.mass.value if c.arrow.finished else None
    if kind == "grain_scale":
        return arrow
    if kind == "spine_gauge":
        spine: float | None = c.setup.arrows.part("spine_lbf")[0]
        return spine
    if kind == "chronograph":
        return c.bow.thrust.speed(arrow) if c.bow.thrust and arrow else None
    if kind == "bow_square":
        return c.string.brace.value if c.string.brace else None
    if kind == "calliper":
        return c.string.diameter.value if c.string.diameter else None
    if c.bow.weight is None:
        return None
    at = c.archer.drawn_to.value if draw_mm is None else draw_mm
    return c.bow.weight.fitted.at(at - TRADE_OFFSET_MM)
