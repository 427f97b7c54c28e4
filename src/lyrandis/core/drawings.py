"""Geometry for the page's drawings, computed here and only placed there.

Lengths in mm on the trade datum, weights in lbf, grains per pound in gr/lbf.
"""

from pydantic import BaseModel, ConfigDict

from lyrandis.core.archer.draw import BACK_DEPTH_IN, BELLY_DEPTH_IN, grip_depth
from lyrandis.core.arrow.quiver import QuiverArrow, Safety, quiver_of
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
from lyrandis.core.constants import TRADE_OFFSET_MM

MOST_READINGS = 12
MOST_ARROWS = 60
"""What one drawing and its table can show and still be read; the logbook holds the rest."""


class _Drawing(BaseModel):
    model_config = ConfigDict(frozen=True, allow_inf_nan=False)


class DrawMark(_Drawing):
    """One draw reading on the draw axis."""

    entry: str
    method: str
    draw_mm: float
    plus_minus_mm: float
    used: bool


class DrawDrawing(_Drawing):
    """The drawn arrow seen from the side: offsets from the pivot, and the readings."""

    back_mm: float
    """Pivot to back of the bow."""
    belly_mm: float
    """Pivot to belly, toward the archer."""
    trade_mm: float
    """The trade's 1 3/4 in."""
    draw_mm: float | None
    plus_minus_mm: float | None
    hook_mm: float
    hook_plus_minus_mm: float
    readings: tuple[DrawMark, ...]
    more: int
    """Older readings that are not drawn."""


class ArrowTick(_Drawing):
    """One weighed arrow on the mass axis."""

    entry: str
    number: int | None
    mass_gr: float
    grains_per_pound: float | None


class FloorDrawing(_Drawing):
    """Grains per pound against the floor."""

    grains_per_pound: float | None
    plus_minus: float | None
    floor: float
    floor_plus_minus: float
    floor_basis: str
    stop_below: float
    weight_lbf: float | None
    arrows: tuple[ArrowTick, ...]
    more: int


class PartBar(_Drawing):
    """One part of the arrow's mass."""

    name: str
    mass_gr: float
    plus_minus_gr: float
    given: bool


class ArrowDrawing(_Drawing):
    """The arrow laid out by its parts, and to scale."""

    shaft_length_mm: float | None
    length_mm: float
    """Nock groove to the end of the shaft, as the mechanics have it."""
    diameter_mm: float
    balance_mm: float | None
    fletching_from_mm: float
    fletching_length_mm: float
    profile: tuple[tuple[float, ...], ...]
    """Knots of a tapered shaft: place [mm], diameter [mm]; empty when parallel."""
    pointed: bool
    assumed: tuple[str, ...]
    draw_to_pivot_mm: float | None
    parts: tuple[PartBar, ...]
    parts_gr: float | None
    weighed_gr: float | None


class QuiverRow(_Drawing):
    """One numbered arrow of the set."""

    number: int
    mass_gr: float | None
    spine_lbf: float | None
    straight_mm: float | None
    nock_turn_deg: float | None
    safety: Safety
    retired: bool
    remark: str | None
    looked_at: str | None


class Drawings(_Drawing):
    """Everything the drawings place."""

    draw: DrawDrawing
    bench: BenchDrawing
    weight: WeightDrawing | None
    knee: KneeDrawing | None
    condition: Condition
    floor: FloorDrawing
    arrow: ArrowDrawing
    quiver: tuple[QuiverRow, ...]


def draw_all(c: Computed) -> Drawings:
    """Return the geometry of every drawing for this setup."""
    return Drawings(
        draw=_draw(c),
        bench=bench_drawing(c),
        weight=weight_drawing(c),
        knee=knee_drawing(c),
        condition=condition_of(c),
        floor=_floor(c),
        arrow=_arrow(c),
        quiver=tuple(_row(one) for one in quiver_of(c.setup.arrows)),
    )


def _row(one: QuiverArrow) -> QuiverRow:
    return QuiverRow(**{name: getattr(one, name) for name in QuiverRow.model_fields})


def _draw(c: Computed) -> DrawDrawing:
    archer = c.setup.archer
    used, beside = (c.archer.draw.used, c.archer.draw.beside) if c.archer.draw else ((), ())
    marks = [(reading, True) for reading in used[-MOST_READINGS:]]
    marks += [(reading, False) for reading in beside[-MOST_READINGS // 2 :]]
    return DrawDrawing(
        back_mm=grip_depth(archer.back_depth, BACK_DEPTH_IN).value,
        belly_mm=grip_depth(archer.belly_depth, BELLY_DEPTH_IN).value,
        trade_mm=TRADE_OFFSET_MM,
        draw_mm=c.archer.draw.length.value if c.archer.draw else None,
        plus_minus_mm=c.archer.draw.length.plus_minus if c.archer.draw else None,
        hook_mm=c.archer.hook.value,
        hook_plus_minus_mm=c.archer.hook.plus_minus,
        readings=tuple(
            DrawMark(
                entry=reading.recorded.entry.id,
                method=reading.method,
                draw_mm=reading.length.value,
                plus_minus_mm=reading.length.plus_minus,
                used=counts,
            )
            for reading, counts in marks
        ),
        more=len(used) + len(beside) - len(marks),
    )


def _floor(c: Computed) -> FloorDrawing:
    weight = c.bow.weight.weight.value if c.bow.weight and c.bow.weight_is_own else None
    out = c.setup.arrows.out_of_use
    masses = [m for m in c.setup.arrows.masses if m.reading.arrow_number not in out]
    return FloorDrawing(
        grains_per_pound=c.arrow.gpp.value if c.arrow.gpp else None,
        plus_minus=c.arrow.gpp.plus_minus if c.arrow.gpp else None,
        floor=c.arrow.floor.grains_per_pound,
        floor_plus_minus=c.arrow.floor.plus_minus,
        floor_basis=c.arrow.floor.basis,
        stop_below=c.arrow.floor.stop_below,
        weight_lbf=weight,
        arrows=tuple(
            ArrowTick(
                entry=mass.entry.id,
                number=mass.reading.arrow_number,
                mass_gr=mass.reading.arrow_mass_gr,
                grains_per_pound=mass.reading.arrow_mass_gr / weight if weight else None,
            )
            for mass in masses[-MOST_ARROWS:]
        ),
        more=max(len(masses) - MOST_ARROWS, 0),
    )


def _arrow(c: Computed) -> ArrowDrawing:
    length, _ = c.setup.arrows.part("shaft_length_mm")
    finished, sheet = c.arrow.finished, c.arrow.sheet
    parts = finished.parts if finished else ()
    return ArrowDrawing(
        shaft_length_mm=length,
        length_mm=sheet.length_mm,
        diameter_mm=sheet.diameter_mm,
        balance_mm=sheet.balance_mm if sheet.parts else None,
        fletching_from_mm=sheet.beam.fletching_from * 1000,
        fletching_length_mm=sheet.beam.fletching_length * 1000,
        profile=tuple((s * 1000, ratio * sheet.diameter_mm) for s, ratio in sheet.beam.profile),
        pointed=not sheet.pointless,
        assumed=sheet.assumed,
        draw_to_pivot_mm=c.archer.draw.length.value - TRADE_OFFSET_MM if c.archer.draw else None,
        parts=tuple(
            PartBar(
                name=part.name,
                mass_gr=part.mass.value,
                plus_minus_gr=part.mass.plus_minus,
                given=part.given,
            )
            for part in parts
        ),
        parts_gr=c.arrow.finished.parts_mass.value
        if c.arrow.finished and c.arrow.finished.parts_mass
        else None,
        weighed_gr=c.arrow.finished.mass.value
        if c.arrow.finished and c.arrow.finished.weighed
        else None,
    )
