"""From a rig to a shot: what pushes, what the arrow is, what it passes.

Everything is rounded far below its own error, so that the same rig gives the same shot and a
computed one can be kept.
"""

from dataclasses import dataclass, replace

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.arrow.bend import Shot, Side
from lyrandis.core.arrow.build import BuildSheet
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.practice import RigHabit, habit_of
from lyrandis.core.arrow.stroke import StringPush, simple_push
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import KG_PER_GRAIN, NEWTONS_PER_LBF, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.string.facts import StringFacts

STRING_GR = 105.0
"""Assumption: a string of unknown make."""
CHAIN_GR = 130.0
"""Mass of the string in the calibrated shot, whatever is told; what is told moves K0."""
LIMBS_GR = 180.0
"""K1: what the limbs add at full draw."""
KEPT_GR = 40.0
"""K0: what still moves when the string is home."""
LEAST_KEPT_GR, MOST_KEPT_GR = 0.0, 200.0
BEND_FROM, BEND_PER = 0.087, 0.29
LEAST_BEND, MOST_BEND = -0.2, 0.6
LEAST_TRAVEL_MM = 100.0
WINDOW_MM: dict[Family, float] = {
    "selfbow": 6.0,
    "straight_longbow": 4.0,
    "reflex_deflex_longbow": 2.5,
    "hunting_recurve": 0.0,
    "target_recurve": -2.0,
    "short_rigid_tip": 9.0,
    "long_rigid_tip": 10.0,
    "large_rigid_tip": 11.0,
}
"""Assumption: how far short of centre the face stands where nobody measured it, by family."""
WINDOW_SD_MM, MEASURED_WINDOW_SD_MM = 2.0, 0.5


@dataclass(frozen=True)
class ArrowSide:
    """What the arrow lies against, in mm from the string's plane; + is the arrow's side."""

    window: Estimate
    track_mm: float
    plunger: bool
    offset_mm: float
    """The arrow's centreline at the plate: window less track, and half the shaft's thickness."""
    told: bool


@dataclass(frozen=True)
class Shooting:
    """The rig's own shot, and what had to be assumed for it."""

    shot: Shot
    sheet: BuildSheet
    side: ArrowSide
    speed_mps: float
    weight_lbf: float
    pivot_mm: float
    """The archer's true draw to the pivot, at the nock groove."""
    assumed: tuple[str, ...]
    habit: RigHabit
    """What the practice school asks beyond the shot."""

    @property
    def own_lbf(self) -> float | None:
        """The shafts' own static spine, rounded so that a computed match can be kept."""
        return round(self.sheet.spine.value.value, 1) if self.sheet.spine else None


def arrow_side(arrows: ArrowFacts, family: Family, diameter_mm: float) -> ArrowSide:
    """Return where the arrow lies against the bow: told, or as the family usually has it.

    Source: geometry; the usual window by family is Assumption.

    >>> from lyrandis.core.example import setup
    >>> arrow_side(setup(["window 3mm"]).arrows, "selfbow", 8.0).offset_mm
    7.0
    """
    window, _ = arrows.passing("window_mm")
    track, _ = arrows.passing("track_mm")
    plunger, _ = arrows.passing("plunger")
    told = window is not None
    face = window if told else WINDOW_MM[family]
    return ArrowSide(
        window=Estimate(face, MEASURED_WINDOW_SD_MM if told else WINDOW_SD_MM),
        track_mm=track or 0.0,
        plunger=bool(plunger),
        offset_mm=face - (track or 0.0) + diameter_mm / 2,
        told=told,
    )


def outward_is_left(archer: ArcherFacts) -> bool:
    """Return whether the arrow lies on the archer's left of the bow.

    Right hand with fingers: left. Thumb: the other side of the bow. Left hand: mirrored.

    Source: convention of the trade.

    >>> from lyrandis.core.example import setup
    >>> outward_is_left(setup(["hand right"]).archer)
    True
    """
    left_hand = archer.hand is not None and archer.hand.reading.hand == "left"
    thumb = archer.hold is not None and archer.hold.reading.hold == "thumb"
    return left_hand == thumb


def shooting_of(
    arrows: ArrowFacts,
    *,
    sheet: BuildSheet,
    archer: ArcherNumbers,
    bow: BowNumbers,
    string: StringFacts,
    brace_mm: float | None,
    thumb: bool,
) -> Shooting | None:
    """Return the rig's shot; None without draw and weight, or where brace is not passed.

    The push has the calibrated form F = weight ((1 + c) xi - c xi^2), c following from how much the
    fitted curve stores (`bend_of_curve`), and 40 gr that still move when the string is home. A
    heavier string than usual adds a third of what it is heavier to those 40 gr, and nothing to the
    chain that swings across the line: the calibration never meant to move that. A
    chronograph that shows the bow faster or slower than its kind (`thrust` against `mechanical`)
    moves those 40 gr until the arrow is as much faster or slower. Tuned on the three reference
    rigs: docs/CALIBRATION.md.

    Assumption: the push is calibrated (docs/CALIBRATION.md).

    >>> from lyrandis.core.example import rig
    >>> rig().arrow.shooting.assumed
    ()
    """
    weight, thrust, mechanical = bow.own_weight, bow.thrust, bow.mechanical
    if weight is None or thrust is None or mechanical is None:
        return None
    if archer.draw is None or archer.at_hook is None:
        return None
    shape = weight.likeness.shape
    brace = brace_mm or shape.brace_height_mm
    groove = archer.draw.length.value - TRADE_OFFSET_MM
    hook = archer.at_hook.value - TRADE_OFFSET_MM
    full = weight.fitted.at(hook)
    if groove - brace < LEAST_TRAVEL_MM or full <= 0:
        return None
    assumed = list(sheet.assumed)
    string_gr = string.told_mass_gr
    if string_gr is None:
        assumed.append("string")
        string_gr = STRING_GR
    kept = KEPT_GR + (string_gr - STRING_GR) / 3 + string.silencers_moving_gr
    side = arrow_side(arrows, weight.likeness.shape.family, sheet.diameter_mm)
    if not side.told:
        assumed.append("window")
    if brace_mm is None:
        assumed.append("brace")
    push = _push(weight, groove, brace, full, kept)
    faster = thrust.speed(sheet.mass_gr) / mechanical.speed(sheet.mass_gr)
    push = replace(push, kept=_kept(push, sheet.modes.mass, round(faster, 3)))
    shot = Shot(
        push=push,
        beam=sheet.beam,
        side=Side(
            offset=round(side.offset_mm / 1000, 4),
            plunger=side.plunger,
            doubt=round(side.window.sd / 1000, 4),
        ),
        damping=sheet.damping,
    )
    return Shooting(
        shot=shot,
        sheet=sheet,
        side=side,
        speed_mps=thrust.speed(sheet.mass_gr),
        weight_lbf=full,
        pivot_mm=groove,
        assumed=tuple(assumed),
        habit=habit_of(
            weight.likeness.shape.family,
            low_stretch=string.low_stretch,
            thumb=thumb,
            diameter_mm=sheet.diameter_mm,
            weight_doubt=weight.weight.sd / weight.weight.value,
        ),
    )


def _push(
    weight: DrawWeight, groove_mm: float, brace_mm: float, full_lbf: float, kept_gr: float
) -> StringPush:
    """Return what pushes, drawn to the groove, rounded far below its own error."""
    hook = weight.at_mm - TRADE_OFFSET_MM
    return simple_push(
        draw=round(groove_mm / 1000, 3),
        brace=round(brace_mm / 1000, 3),
        weight=round(full_lbf, 1) * NEWTONS_PER_LBF,
        bend=bend_of_curve(weight, hook, brace_mm),
        string=CHAIN_GR * KG_PER_GRAIN,
        bow_length=round(weight.likeness.shape.bow_length_mm / 1000, 2),
        kept=round(kept_gr) * KG_PER_GRAIN,
        limbs=LIMBS_GR * KG_PER_GRAIN,
    )


def bend_of_curve(weight: DrawWeight, hook_mm: float, brace_mm: float) -> float:
    """Return c of the push from the share of weight x travel that the fitted curve stores.

    share = 1/2 + c_E/6 for the push's own form; the flexing wants c = 0.087 + 0.29 c_E. Calibrated,
    because the string's lateral stiffness was tuned with such gentler curves.

    Assumption: 0.087 and 0.29 are calibrated (docs/CALIBRATION.md).

    >>> from lyrandis.core.example import rig
    >>> bend_of_curve(rig().bow.weight, 679.0, 203.0)
    0.24
    """
    stored = weight.fitted.integral().at(hook_mm)
    share = stored / (weight.fitted.at(hook_mm) * (hook_mm - brace_mm))
    curve = 6 * (share - 0.5)
    return round(min(max(BEND_FROM + BEND_PER * curve, LEAST_BEND), MOST_BEND), 2)


def _kept(push: StringPush, mass: float, faster: float) -> float:
    """Return K0 [kg] that makes the arrow so many times as fast, kept within reason."""
    moved = mass + push.kept + push.string / 3
    kept = moved / faster**2 - mass - push.string / 3
    low, high = LEAST_KEPT_GR * KG_PER_GRAIN, MOST_KEPT_GR * KG_PER_GRAIN
    return round(min(max(kept, low), high), 6)
