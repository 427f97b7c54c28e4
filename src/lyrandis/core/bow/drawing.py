"""Geometry of the bow's drawings: the bow on the bench, its draw curve, the efficiency knee.

Lengths in mm; draws on the trade datum with the string at the hook; x toward the archer and y up
the limb, from the pivot. Weights in lbf, energies in joules, masses in grains, speeds in m/s.
"""

import math
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Literal

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.likeness import usual_shape
from lyrandis.core.bow.statics import BowShape, DrawCurve, draw_curve, leaving_point, limb_at
from lyrandis.core.bow.thrust import Clocked, Thrust
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.bow.words import Family
from lyrandis.core.computed import Computed
from lyrandis.core.constants import JOULES_PER_LBF_MM, MM_PER_IN, TRADE_OFFSET_MM
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Phrase

LIMB_POINTS = 13
"""Joints of a limb that a drawing is given: enough for a smooth curve through them."""
MOST_POINTS = 24
MOST_SPEEDS = 12
_CHART_HIGH_MM = 34 * MM_PER_IN
_KNEE_GPP = tuple(3 + 0.75 * step for step in range(24))


Place = tuple[float, ...]
"""x and y; of open length because the web types of a pair do not survive the client."""


@dataclass(frozen=True, slots=True)
class BowPose:
    """The bow at one draw: upper limb from root to tip, and where the string leaves it."""

    draw_mm: float
    limb: tuple[Place, ...]
    leaves: Place
    finger_angle_deg: float
    tip_angle_deg: float
    weight_lbf: float | None
    lbf_per_in: float | None
    energy_j: float | None


class BenchDrawing(Drawn):
    """The bow to scale, from brace to the end of its draw."""

    family: Family
    bow_length_mm: float
    riser_length_mm: float
    brace_height_mm: float
    string_length_mm: float
    assumed: tuple[str, ...]
    """Which of family, length, riser and brace nobody has told."""
    refused: Phrase | None
    rigid_tip: bool
    """True when the last piece of the limb is a rigid tip."""
    unstrung: tuple[Place, ...]
    poses: tuple[BowPose, ...]
    ends: Literal["asked", "string_angle", "tip_angle"]
    own_mm: float | None
    own_plus_minus_mm: float | None
    onset_mm: float | None
    onset_plus_minus_mm: float
    limit_mm: float | None
    weight_plus_minus_lbf: float | None


@dataclass(frozen=True, slots=True)
class WeightSample:
    """The draw curve at one string position."""

    draw_mm: float
    weight_lbf: float
    low_lbf: float
    high_lbf: float


class WeighedPoint(Drawn):
    """One weighed point, and how far it stands off the curve."""

    entry: str
    draw_mm: float
    weight_lbf: float
    expected_lbf: float
    typed_draw_mm: float
    string_at: str
    is_mark: bool
    left_out: bool
    unusable: bool


class WeightDrawing(Drawn):
    """Draw weight against string position, brace to beyond the draw."""

    line: tuple[WeightSample, ...]
    points: tuple[WeighedPoint, ...]
    more: int
    own_mm: float | None
    own_plus_minus_mm: float | None
    limit_mm: float | None
    onset_mm: float | None
    stored_j: float | None
    basis: str


@dataclass(frozen=True, slots=True)
class KneeSample:
    """What an arrow of some mass gets from this bow."""

    mass_gr: float
    share: float
    speed_mps: float
    speed_plus_minus_mps: float
    left_j: float
    before_mps: float | None
    """Speed before the chronograph had its say."""


class SpeedReading(Drawn):
    """One chronograph reading beside the mechanics and the fit."""

    entry: str
    mass_gr: float
    speed_mps: float
    before_mps: float
    fitted_mps: float
    impossible: bool
    off: bool


class CrawledSpeed(Drawn):
    """What the crawls say of the speed, beside bow and chronograph."""

    marks: int
    other_marks: int
    """Crawls with other arrows that are in the whole too."""
    mass_gr: float
    said_mps: float
    said_plus_minus_mps: float
    """By bow and chronograph."""
    alone_mps: float | None
    alone_plus_minus_mps: float | None
    together_mps: float
    together_plus_minus_mps: float
    apart: bool
    """True where they lie apart beyond both doubts."""


class KneeDrawing(Drawn):
    """Arrow mass across: share of energy to the arrow, speed, energy left in the bow."""

    weight_lbf: float
    stored_j: float
    samples: tuple[KneeSample, ...]
    arrow_gr: float | None
    floor_gr: float
    floor_plus_minus_gr: float
    bowyer_gr: float | None
    readings: tuple[SpeedReading, ...]
    more: int
    crawled: CrawledSpeed | None


def bench_drawing(c: Computed) -> BenchDrawing:
    """Return the bow on the bench."""
    likeness, weight = c.bow.likeness, c.bow.weight
    curve, shape = likeness.curve, likeness.shape
    limit = c.setup.bow.draw_limit
    refused = likeness.refused
    energy = weight.fitted.areas() if weight else None
    poses = tuple(
        BowPose(
            draw_mm=draw + TRADE_OFFSET_MM,
            limb=limb,
            leaves=leaves,
            finger_angle_deg=finger,
            tip_angle_deg=tip,
            weight_lbf=weight.fitted.y[index] if weight else None,
            lbf_per_in=weight.fitted.dy[index] * MM_PER_IN if weight else None,
            energy_j=energy[index] * JOULES_PER_LBF_MM if energy else None,
        )
        for index, (draw, limb, leaves, finger, tip) in enumerate(_poses(shape))
    )
    return BenchDrawing(
        family=shape.family,
        bow_length_mm=shape.bow_length_mm,
        riser_length_mm=shape.riser_length_mm,
        brace_height_mm=shape.brace_height_mm,
        string_length_mm=curve.string_length_mm,
        assumed=likeness.assumed,
        refused=refused.sentence() if refused else None,
        rigid_tip=_has_rigid_tip(curve),
        unstrung=_thinned([(point.x, point.y) for point in limb_at(curve, None)], curve),
        poses=poses,
        ends=curve.ends,
        own_mm=c.archer.at_hook.value if c.archer.at_hook else None,
        own_plus_minus_mm=c.archer.at_hook.plus_minus if c.archer.at_hook else None,
        onset_mm=_trade(c.bow.stack.onset_mm),
        onset_plus_minus_mm=2 * c.bow.stack.onset_sd_mm,
        limit_mm=limit.reading.draw_length_mm if limit else None,
        weight_plus_minus_lbf=weight.weight.plus_minus if weight else None,
    )


class HeldBow(Drawn):
    """The bow at full draw, for a drawing of the draw itself."""

    family: Family
    riser_length_mm: float
    limb: tuple[Place, ...]
    """The upper limb from root to tip."""
    leaves: Place
    """Where the string leaves it."""
    hook_mm: float
    """The string at the hook, behind the pivot."""


def held_bow(c: Computed) -> HeldBow:
    """Return the bow at the archer's draw, held inside what the mechanics solve.

    >>> from lyrandis.core.example import rig
    >>> held_bow(rig()).family
    'hunting_recurve'
    """
    curve = c.bow.likeness.curve
    at = min(max(c.archer.drawn_to.value - TRADE_OFFSET_MM, curve.first_mm), curve.last_mm)
    leaves = leaving_point(curve, at)
    limb: list[Place] = [(point.x, point.y) for point in limb_at(curve, at)]
    return HeldBow(
        family=curve.shape.family,
        riser_length_mm=curve.shape.riser_length_mm,
        limb=_thinned(limb, curve),
        leaves=(round(leaves.x, 1), round(leaves.y, 1)),
        hook_mm=at,
    )


class Silhouette(Drawn):
    """A kind of bow unstrung: half of it, from the middle of the riser to the tip."""

    family: Family
    bow_length_mm: float
    riser_length_mm: float
    limb: tuple[Place, ...]


@cache
def silhouettes() -> tuple[Silhouette, ...]:
    """Return each kind of bow unstrung, of its usual length.

    >>> [one.bow_length_mm / 25.4 for one in silhouettes()][:3]
    [66.0, 68.0, 62.0]
    """
    result = []
    for key in FAMILIES:
        shape = usual_shape(key)
        curve = draw_curve(shape)
        limb: list[Place] = [(point.x, point.y) for point in limb_at(curve, None)]
        result.append(
            Silhouette(
                family=key,
                bow_length_mm=shape.bow_length_mm,
                riser_length_mm=shape.riser_length_mm,
                limb=_thinned(limb, curve),
            )
        )
    return tuple(result)


def _trade(pivot_mm: float | None) -> float | None:
    return None if pivot_mm is None else pivot_mm + TRADE_OFFSET_MM


Pose = tuple[float, tuple[Place, ...], Place, float, float]


@lru_cache(maxsize=64)
def _poses(shape: BowShape) -> tuple[Pose, ...]:
    """Return draw, limb, leaving point, finger and tip angle [deg] of every solved draw."""
    curve = draw_curve(shape)
    result = []
    for state in curve.states:
        limb: list[Place] = [(point.x, point.y) for point in limb_at(curve, state.draw)]
        leaves = leaving_point(curve, state.draw)
        result.append(
            (
                state.draw,
                _thinned(limb, curve),
                (round(leaves.x, 1), round(leaves.y, 1)),
                round(math.degrees(curve.finger_angle(state.draw)), 2),
                round(math.degrees(max(state.p, 0.0)), 2),
            )
        )
    return tuple(result)


def _has_rigid_tip(curve: DrawCurve) -> bool:
    return FAMILIES[curve.shape.family].rigid_tip_in > 0


def _thinned(limb: list[Place], curve: DrawCurve) -> tuple[Place, ...]:
    """Keep some joints of the working limb, evenly spread, and both ends of a rigid tip."""
    rigid = 1 if _has_rigid_tip(curve) else 0
    working = len(limb) - 1 - rigid
    kept = [round(index * working / (LIMB_POINTS - 1)) for index in range(LIMB_POINTS)]
    kept += range(working + 1, len(limb))
    return tuple((round(limb[i][0], 1), round(limb[i][1], 1)) for i in kept)


def weight_drawing(c: Computed) -> WeightDrawing | None:
    """Return the draw curve with its points, or None without a weight."""
    weight = c.bow.weight
    if weight is None:
        return None
    evidence = sorted(
        (*weight.points, *weight.unusable),
        key=lambda point: (point is weight.left_out, point.recorded.entry.happened_at),
    )
    points = sorted(evidence[-MOST_POINTS:], key=lambda point: point.draw_mm)
    more = len(evidence) - len(points)
    if weight.mark is not None and weight.mark not in points:
        points.append(weight.mark)
    limit = c.setup.bow.draw_limit
    return WeightDrawing(
        line=tuple(_samples(weight, _trade(c.bow.stack.onset_mm))),
        points=tuple(
            WeighedPoint(
                entry=point.recorded.entry.id,
                draw_mm=point.draw_mm,
                weight_lbf=point.weight.value,
                expected_lbf=weight.curve_at(point.draw_mm),
                typed_draw_mm=point.recorded.reading.draw_length_mm,
                string_at=getattr(point.recorded.reading, "string_at", "hook"),
                is_mark=point.recorded.reading.kind == "bow_mark",
                left_out=point is weight.left_out,
                unusable=point in weight.unusable,
            )
            for point in points
        ),
        more=more,
        own_mm=c.archer.at_hook.value if c.archer.at_hook else None,
        own_plus_minus_mm=c.archer.at_hook.plus_minus if c.archer.at_hook else None,
        limit_mm=limit.reading.draw_length_mm if limit else None,
        onset_mm=_trade(c.bow.stack.onset_mm),
        stored_j=c.bow.thrust.stored_j.value if c.bow.thrust else None,
        basis=weight.basis,
    )


def _samples(curve: DrawWeight, onset_mm: float | None) -> list[WeightSample]:
    """Return the curve where it was solved, under an inch apart, as far as it is of use."""
    far = max(curve.at_mm, *(point.draw_mm for point in curve.points)) + 3 * MM_PER_IN
    high = min(max(far, (onset_mm or 0) + 1.5 * MM_PER_IN), _CHART_HIGH_MM)
    samples = []
    for x in curve.fitted.x:
        draw = x + TRADE_OFFSET_MM
        weight = curve.at(draw)
        samples.append(
            WeightSample(
                draw_mm=round(draw, 2),
                weight_lbf=round(weight.value, 3),
                low_lbf=round(max(weight.value - weight.plus_minus, 0.0), 3),
                high_lbf=round(weight.value + weight.plus_minus, 3),
            )
        )
        if draw > high and len(samples) > 2:
            break
    return samples


def knee_drawing(c: Computed) -> KneeDrawing | None:
    """Return the efficiency knee, or None while weight at the archer's draw is unknown."""
    if c.bow.thrust is None or c.bow.weight is None:
        return None
    weight = c.bow.weight.weight.value
    before = c.bow.calibration.before if c.bow.calibration and c.bow.calibration.used else None
    readings = c.bow.calibration.readings if c.bow.calibration else ()
    floor = c.arrow.floor
    stated = floor.basis == "bowyer"
    return KneeDrawing(
        weight_lbf=weight,
        stored_j=c.bow.thrust.stored_j.value,
        samples=tuple(_knee_sample(c.bow.thrust, before, gpp * weight) for gpp in _KNEE_GPP),
        arrow_gr=c.arrow.finished.mass.value if c.arrow.finished else None,
        floor_gr=weight * (floor.computed.per_pound.value if stated else floor.grains_per_pound),
        floor_plus_minus_gr=floor.computed.per_pound.plus_minus * weight,
        bowyer_gr=floor.grains_per_pound * weight if stated else None,
        readings=tuple(_speed_reading(reading) for reading in readings[-MOST_SPEEDS:]),
        more=max(len(readings) - MOST_SPEEDS, 0),
        crawled=_crawled(c),
    )


def _crawled(c: Computed) -> CrawledSpeed | None:
    result, said, finished = c.crawls.checks.speed_by_marks, c.crawls.basis.speed, c.arrow.finished
    if result is None or said is None or finished is None:
        return None
    return CrawledSpeed(
        marks=result.marks,
        other_marks=len(c.crawls.before.marks.counting) if c.crawls.before else 0,
        mass_gr=finished.mass.value,
        said_mps=said.value,
        said_plus_minus_mps=said.plus_minus,
        alone_mps=result.alone.value if result.alone else None,
        alone_plus_minus_mps=result.alone.plus_minus if result.alone else None,
        together_mps=result.together.value,
        together_plus_minus_mps=result.together.plus_minus,
        apart=result.apart,
    )


def _knee_sample(thrust: Thrust, before: Thrust | None, mass_gr: float) -> KneeSample:
    speed = thrust.speed_estimate(mass_gr)
    return KneeSample(
        mass_gr=round(mass_gr, 2),
        share=round(thrust.efficiency(mass_gr), 5),
        speed_mps=round(speed.value, 4),
        speed_plus_minus_mps=round(speed.plus_minus, 4),
        left_j=round(thrust.left_behind(mass_gr), 4),
        before_mps=round(before.speed(mass_gr), 4) if before else None,
    )


def _speed_reading(clocked: Clocked) -> SpeedReading:
    return SpeedReading(
        entry=clocked.recorded.entry.id,
        mass_gr=clocked.mass_gr,
        speed_mps=clocked.recorded.reading.speed_mps,
        before_mps=clocked.before.value,
        fitted_mps=clocked.fitted,
        impossible=clocked.impossible,
        off=clocked.off,
    )
