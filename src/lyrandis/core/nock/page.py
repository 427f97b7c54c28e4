"""Geometry of the nock's pages: the riser's side, tiller, what stands in line, the balance."""

from typing import Literal

from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.arrow.words import LiesOn
from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn
from lyrandis.core.nock.height import locator_of
from lyrandis.core.nock.readings import TillerGaps
from lyrandis.core.nock.tiller import turns_for_weight
from lyrandis.core.nock.words import NOCK_DATUM_WORDS, BowKit, LimbPlace, NockDatum, NockFlight
from lyrandis.core.stage_spec import Page


class NockShotDrawn(Drawn):
    entry_id: str
    lift_mm: float
    flew: NockFlight
    brace_mm: float | None
    """The brace it was shot at."""
    in_flight: bool = False
    """True where it was seen on the flight's pages."""


class SchoolBand(Drawn):
    """Lifts that a school would set [mm]."""

    low_mm: float
    high_mm: float


class NockSide(Drawn):
    """The riser's side, heights over the square line [mm]."""

    lift_mm: float | None
    lift_plus_minus_mm: float | None
    locator_mm: float | None
    datum: NockDatum | None
    datum_words: str | None
    fixed: bool
    start_mm: float
    start_low_mm: float
    start_high_mm: float
    nock_mm: float
    nock_plus_minus_mm: float
    nock_told: bool
    shaft_mm: float
    brace_mm: float
    brace_told: bool
    shelf_under_rest_mm: float | None
    grip_under_rest_mm: float | None
    rest: LiesOn
    """What the arrow lies on."""
    rest_told: bool
    hand_at_full_mm: float | None
    """The hand's top over its mark at full draw."""
    hand_clearance_mm: float | None
    hand_clearance_plus_minus_mm: float | None
    plunger: bool
    clean: SchoolBand | None
    bare: SchoolBand | None
    shots: tuple[NockShotDrawn, ...]
    mirrored: bool
    """True where the arrow lies on the right: seen from the right side then."""


class TillerDrawing(Drawn):
    upper_mm: float | None
    lower_mm: float | None
    place: LimbPlace | None
    tiller_mm: float | None
    tiller_plus_minus_mm: float | None
    target_mm: float
    low_mm: float
    high_mm: float
    kit: BowKit
    upper_turns: float | None
    lower_turns: float | None
    most_turns: float | None
    turn_share: float
    """What a turn of both bolts adds to the weight."""
    turn_pairs: int
    """Own weighings before and after that it is drawn to."""
    weight_lbf: float | None
    wished_lbf: float | None
    turns_for_wish: float | None


class LineDrawing(Drawn):
    upper_mm: float | None
    lower_mm: float | None
    out_mm: float | None
    most_out_mm: float
    outward_is_left: bool


class WeightDrawn(Drawn):
    place: str
    mass_g: float
    forward_mm: float
    up_mm: float


class BalanceDrawing(Drawn):
    riser_mm: float
    weights: tuple[WeightDrawn, ...]
    mass_g: float | None
    x_mm: float | None
    y_mm: float | None
    torque_nm: float | None
    uneven: float | None
    down_mm: float | None


class NockPage(Page):
    """What the nock's pages draw."""

    stage: Literal["nock"] = "nock"
    side: NockSide
    tiller: TillerDrawing
    line: LineDrawing
    balance: BalanceDrawing


def page(c: Computed) -> NockPage:
    """Return the geometry of the nock's pages."""
    return NockPage(side=_side(c), tiller=_tiller(c), line=_line(c), balance=_balance(c))


def _side(c: Computed) -> NockSide:
    nock, facts = c.nock, c.setup.nock
    lift, start = nock.lift, nock.start
    side = facts.side.reading if facts.side else None
    read = facts.height
    datum = read.reading.datum if read else None
    plunger = bool(c.setup.arrows.passing("plunger")[0])
    over = nock.hand_clearance
    brace = c.string.brace
    return NockSide(
        lift_mm=lift.value if lift else None,
        lift_plus_minus_mm=lift.plus_minus if lift else None,
        locator_mm=locator_of(lift.value, nock.arrow_nock.value) if lift else None,
        datum=datum,
        datum_words=NOCK_DATUM_WORDS[datum] if datum else None,
        fixed=nock.fixed,
        start_mm=start.lift_mm,
        start_low_mm=start.low_mm,
        start_high_mm=start.high_mm,
        nock_mm=nock.arrow_nock.value,
        nock_plus_minus_mm=nock.arrow_nock.plus_minus,
        nock_told=facts.arrow_nock is not None,
        shaft_mm=c.setup.arrows.part("shaft_diameter_mm")[0] or nock.arrow_nock.value - 0.5,
        brace_mm=brace.value if brace else c.bow.likeness.shape.brace_height_mm,
        brace_told=brace is not None,
        shelf_under_rest_mm=side.shelf_under_rest_mm if side else None,
        grip_under_rest_mm=side.grip_under_rest_mm if side else None,
        rest=nock.lies_on,
        rest_told=c.setup.arrows.passing("lies_on")[0] is not None,
        hand_at_full_mm=side.hand_at_full_mm if side else None,
        hand_clearance_mm=over.value if over else None,
        hand_clearance_plus_minus_mm=over.plus_minus if over else None,
        plunger=plunger,
        clean=_band(nock.schools.clean),
        bare=_band(nock.schools.bare),
        shots=_shots(c),
        mirrored=not outward_is_left(c.setup.archer),
    )


def _band(found: tuple[float, float] | None) -> SchoolBand | None:
    return None if found is None else SchoolBand(low_mm=found[0], high_mm=found[1])


def _shots(c: Computed) -> tuple[NockShotDrawn, ...]:
    """Return the heights shot, each with the brace it was shot at."""
    braces = [
        (event.at, event.value)
        for event in c.order.events
        if event.node == "brace" and isinstance(event.value, float)
    ]
    result = []
    for shot in c.setup.nock.shots:
        at = shot.entry.happened_at
        before = [value for when, value in braces if when is not None and when <= at]
        result.append(
            NockShotDrawn(
                entry_id=shot.entry.id,
                lift_mm=shot.reading.lift_mm,
                flew=shot.reading.flew,
                brace_mm=before[-1] if before else None,
            )
        )
    flown = (
        NockShotDrawn(
            entry_id=shot.entry_id,
            lift_mm=shot.lift_mm,
            flew=shot.flew,
            brace_mm=None,
            in_flight=True,
        )
        for shot in c.nock.flown
    )
    return (*result, *flown)


def _tiller(c: Computed) -> TillerDrawing:
    nock, facts = c.nock, c.setup.nock
    read = facts.tiller.reading if facts.tiller else None
    bolts = facts.bolts.reading if facts.bolts else None
    tiller, band = nock.tiller, nock.band
    weight, wished = c.bow.own_weight, c.setup.archer.wished_weight
    turns = None
    if weight is not None and wished is not None:
        wish = wished.reading.draw_weight_lbf
        turns = turns_for_weight(weight.weight.value, wish, nock.turn)
    return TillerDrawing(
        upper_mm=read.upper_mm if isinstance(read, TillerGaps) else None,
        lower_mm=read.lower_mm if isinstance(read, TillerGaps) else None,
        place=read.place if read else None,
        tiller_mm=tiller.value if tiller else None,
        tiller_plus_minus_mm=tiller.plus_minus if tiller else None,
        target_mm=band.target_mm,
        low_mm=band.low_mm,
        high_mm=band.high_mm,
        kit=nock.kit,
        upper_turns=bolts.upper_turns if bolts else None,
        lower_turns=bolts.lower_turns if bolts else None,
        most_turns=bolts.most_turns if bolts else None,
        turn_share=nock.turn.value,
        turn_pairs=len(nock.bolt_pairs),
        weight_lbf=weight.weight.value if weight else None,
        wished_lbf=wished.reading.draw_weight_lbf if wished else None,
        turns_for_wish=turns,
    )


def _line(c: Computed) -> LineDrawing:
    facts = c.setup.nock
    read = facts.in_line.reading if facts.in_line else None
    shaft = c.setup.arrows.part("shaft_diameter_mm")[0] or 7.0
    return LineDrawing(
        upper_mm=read.upper_mm if read else None,
        lower_mm=read.lower_mm if read else None,
        out_mm=facts.centre_shot.reading.out_mm if facts.centre_shot else None,
        most_out_mm=shaft / 2,
        outward_is_left=outward_is_left(c.setup.archer),
    )


def _balance(c: Computed) -> BalanceDrawing:
    balance = c.nock.balance
    return BalanceDrawing(
        riser_mm=c.bow.likeness.shape.riser_length_mm,
        weights=tuple(
            WeightDrawn(
                place=weight.reading.place,
                mass_g=weight.reading.mass_g,
                forward_mm=weight.reading.forward_mm,
                up_mm=weight.reading.up_mm,
            )
            for weight in c.setup.nock.weights
        ),
        mass_g=balance.mass_g if balance else None,
        x_mm=balance.x_mm if balance else None,
        y_mm=balance.y_mm if balance else None,
        torque_nm=balance.torque_nm if balance else None,
        uneven=balance.uneven if balance else None,
        down_mm=balance.down_mm if balance else None,
    )
