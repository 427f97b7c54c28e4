"""Geometry of the bow's pages: bench, draw curve, efficiency knee, condition."""

from typing import Literal

from lyrandis.core.bow.assembly import Assembly, assembly_of
from lyrandis.core.bow.condition import Condition, condition_of
from lyrandis.core.bow.drawing import (
    BenchDrawing,
    KneeDrawing,
    WeightDrawing,
    bench_drawing,
    knee_drawing,
    weight_drawing,
)
from lyrandis.core.computed import Computed
from lyrandis.core.stage_spec import Page


class BowPage(Page):
    """What the bow's pages draw."""

    stage: Literal["bow"] = "bow"
    bench: BenchDrawing
    shaft_length_mm: float | None
    """The arrow laid on the drawn bow."""
    weight: WeightDrawing | None
    knee: KneeDrawing | None
    condition: Condition
    assembly: Assembly


def page(c: Computed) -> BowPage:
    """Return the geometry of the bow's pages."""
    return BowPage(
        bench=bench_drawing(c),
        shaft_length_mm=c.setup.arrows.part("shaft_length_mm")[0],
        weight=weight_drawing(c),
        knee=knee_drawing(c),
        condition=condition_of(c),
        assembly=assembly_of(c),
    )
