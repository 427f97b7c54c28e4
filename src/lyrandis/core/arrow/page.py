"""Geometry of the arrow's pages: floor, parts and profile, quiver.

Lengths in mm, masses in grains, weights in lbf, grains per pound in gr/lbf.
"""

from datetime import datetime
from typing import Literal

from lyrandis.core.arrow.floor_schools import FloorVoice, floor_schools
from lyrandis.core.arrow.quiver import QuiverArrow, Safety
from lyrandis.core.arrow.words import Quill
from lyrandis.core.bow.words import LengthTaken, LimbsMade
from lyrandis.core.computed import Computed
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Phrase
from lyrandis.core.stage_spec import Page

MOST_ARROWS = 60
"""What one drawing and its table can show and still be read; the logbook holds the rest."""


class ArrowTick(Drawn):
    """One weighed arrow on the mass axis."""

    entry: str
    number: int | None
    mass_gr: float
    grains_per_pound: float | None


class FloorSaid(Drawn):
    """One voice on the lightest arrow [gr/lbf]."""

    voice: FloorVoice
    low: float
    high: float
    because: Phrase
    binds: bool


class FloorDrawing(Drawn):
    """Grains per pound against the floor."""

    grains_per_pound: float | None
    plus_minus: float | None
    floor: float
    floor_plus_minus: float
    floor_basis: Literal["bowyer", "computed", "school"]
    stop_below: float
    schools: tuple[FloorSaid, ...]
    """Who asks for how much, the voice that binds first."""
    limbs_made: LimbsMade | None
    length_taken: LengthTaken | None
    length_told_mm: float | None
    """As it was told, strung or along the back."""
    weight_lbf: float | None
    arrows: tuple[ArrowTick, ...]
    more: int


class PartBar(Drawn):
    """One part of the arrow's mass."""

    name: str
    mass_gr: float
    plus_minus_gr: float
    given: bool


class ArrowDrawing(Drawn):
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


class QuiverRow(Drawn):
    """One numbered arrow of the set."""

    number: int
    mass_gr: float | None
    spine_lbf: float | None
    straight_mm: float | None
    nock_turn_deg: float | None
    safety: Safety
    quill: Quill | None
    retired: bool
    remark: str | None
    looked_at: datetime | None


class ArrowPage(Page):
    """What the arrow's pages draw."""

    stage: Literal["arrow"] = "arrow"
    floor: FloorDrawing
    arrow: ArrowDrawing
    quiver: tuple[QuiverRow, ...]
    off_the_hand: bool | None
    """True where the arrow was told to lie on the hand, None where it only may."""


def page(c: Computed) -> ArrowPage:
    """Return the geometry of the arrow's pages."""
    return ArrowPage(
        floor=_floor(c),
        arrow=_arrow(c),
        quiver=tuple(_row(arrow) for arrow in c.arrow.quiver),
        off_the_hand=c.nock.off_the_hand,
    )


def _row(one: QuiverArrow) -> QuiverRow:
    return QuiverRow(**{name: getattr(one, name) for name in QuiverRow.model_fields})


def _floor(c: Computed) -> FloorDrawing:
    bow = c.setup.bow
    weight = c.bow.weight.weight.value if c.bow.weight and c.bow.weight_is_own else None
    out = c.setup.arrows.out_of_use
    masses = [m for m in c.setup.arrows.masses if m.reading.arrow_number not in out]
    return FloorDrawing(
        grains_per_pound=c.arrow.gpp.value if c.arrow.gpp else None,
        plus_minus=c.arrow.gpp.plus_minus if c.arrow.gpp else None,
        floor=c.arrow.floor.grains_per_pound,
        floor_plus_minus=c.arrow.floor.plus_minus,
        floor_basis=c.arrow.floor.basis,
        stop_below=c.arrow.floor.danger,
        schools=tuple(
            FloorSaid(**said._asdict())
            for said in floor_schools(
                c.arrow.floor, bow, c.bow.likeness.shape.bow_length_mm, c.bow.stack_margin_mm
            )
        ),
        limbs_made=bow.limbs_made.reading.made if bow.limbs_made else None,
        length_taken=bow.length.reading.taken if bow.length else None,
        length_told_mm=bow.length.reading.bow_length_mm if bow.length else None,
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
