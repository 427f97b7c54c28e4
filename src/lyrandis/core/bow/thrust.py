"""What the bow gives: stored energy, how arrow and bow share it, and what a chronograph says.

Masses in grains, energies in joules, speeds in m/s, draws in mm. v = sqrt(2 R / (m + K)) with
R = E (1 - h), the energy that comes back, and K, the bow's virtual mass. Both start from the
mechanics with their doubt and are drawn to the archer's own chronograph readings.
"""

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import NamedTuple

from lyrandis.core.archer.words import Hold
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.moving_mass import moving_mass
from lyrandis.core.bow.readings import ArrowSpeed
from lyrandis.core.bow.statics import BowShape, draw_curve
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import (
    JOULES_PER_LBF_MM,
    KG_PER_GRAIN,
    MARKED_DRAW_MM,
    MM_PER_IN,
    TRADE_OFFSET_MM,
)
from lyrandis.core.effective import Recorded
from lyrandis.core.estimate import Estimate

LOST: dict[Family, float] = {
    "selfbow": 0.22, "straight_longbow": 0.10, "reflex_deflex_longbow": 0.07,
    "hunting_recurve": 0.06, "target_recurve": 0.06,
    "short_rigid_tip": 0.08, "long_rigid_tip": 0.08, "large_rigid_tip": 0.29,
}  # fmt: skip
"""Assumption: share of the stored energy that neither the arrow nor the masses of K carry away, by
kind; from everyday speeds at 10 gr/lb: selfbows 140 to 155 fps, longbows 150 to 165, recurves 172
to 182. With 15 % lost a selfbow would give 160. Large static tips give 140 to 155: what their swing
takes when the string lies down on them is a loss, since as moving mass it would need 220 gr an inch
and lift the floor out of the trade's band."""
LOST_BY_FINGERS, LOST_BY_THUMB = 0.02, 0.01
"""Assumption: what the release takes."""
RETURNED_SD = 0.05
"""One standard deviation of an uncalibrated E (1 - h): with K, speed is good to 5 % as a rule."""
VIRTUAL_MASS_SD = 0.075
"""One standard deviation of an uncalibrated virtual mass, as a share (within 15 % as a rule)."""
UNKNOWN_WIDENS = 2.0
"""Where family or length is not told, both are this much less sure."""
CHRONOGRAPH_SD = 0.012
"""Assumption: one chronograph reading, the archer's own repeat in it, as a share of speed."""
LEAST_EAR_SD = 0.006
"""No speed by ear counts for more than this: what several shots share stays."""
TOLD_SPEED_SD = 0.04
"""Assumption: a speed from hearsay."""
SPEED_OFF = 3.5
SPEED_AGREES = 2.5
"""A reading this many standard deviations off what bow and other readings allow is named."""
FLOOR_TIMES = 4.2
"""The lightest sensible arrow over the virtual mass: it then takes 81 % of what comes back."""
FLOOR_SD_GPP = 0.5
"""A computed floor is indicative to one grain per pound either way."""
USUAL_WEIGHT_LBF = 45.0
"""Assumption: what a usual bow of any kind weighs at 28 in; floors are reckoned of it."""


@dataclass(frozen=True)
class Thrust:
    """What the bow gives at full draw, with the doubt of ln R and ln K."""

    stored_j: Estimate
    returned_j: float
    virtual_mass_gr: float
    returned_sd: float
    virtual_mass_sd: float
    correlation: float = 0.0

    def speed(self, arrow_gr: float) -> float:
        """Return the arrow's speed [m/s]: sqrt(2 R/(m + K)).

        Source: energy shared between arrow and virtual mass.

        >>> bow = Thrust(Estimate(53.9, 0.0), 53.9 * 0.94, 113.0, 0.0, 0.0)
        >>> round(bow.speed(423.0), 1)
        54.0
        """
        return math.sqrt(2 * self.returned_j / ((arrow_gr + self.virtual_mass_gr) * KG_PER_GRAIN))

    def speed_estimate(self, arrow_gr: float) -> Estimate:
        """Return the arrow's speed with its sd [m/s], first order in ln R and ln K.

        Source: propagation of errors to first order.

        >>> bow = Thrust(Estimate(53.9, 0.0), 50.7, 113.0, 0.05, 0.075)
        >>> round(bow.speed_estimate(423.0).sd, 2)
        1.42
        """
        return Estimate(self.speed(arrow_gr), self.speed(arrow_gr) * self._speed_share(arrow_gr))

    def _speed_share(self, arrow_gr: float) -> float:
        share = self.virtual_mass_gr / (arrow_gr + self.virtual_mass_gr)
        a, b = self.returned_sd / 2, -share * self.virtual_mass_sd / 2
        return math.sqrt(max(a * a + b * b + 2 * self.correlation * a * b, 0.0))

    def arrow_energy(self, arrow_gr: float) -> float:
        """Return the arrow's kinetic energy [J]: R m/(m + K).

        Source: kinetic energy at the speed of `speed`.

        >>> round(Thrust(Estimate(53.9, 0.0), 50.7, 113.0, 0.0, 0.0).arrow_energy(423.0), 1)
        40.0
        """
        return self.returned_j * arrow_gr / (arrow_gr + self.virtual_mass_gr)

    def efficiency(self, arrow_gr: float) -> float:
        """Return the share of the stored energy that leaves with the arrow.

        Source: arrow's energy over stored energy.

        >>> round(Thrust(Estimate(53.9, 0.0), 50.7, 113.0, 0.0, 0.0).efficiency(423.0), 3)
        0.742
        """
        return self.arrow_energy(arrow_gr) / self.stored_j.value

    def left_behind(self, arrow_gr: float) -> float:
        """Return the energy left in bow, string and hand [J]: E - m v^2/2.

        Source: conservation of energy.

        >>> round(Thrust(Estimate(53.9, 0.0), 50.7, 113.0, 0.0, 0.0).left_behind(423.0), 1)
        13.9
        """
        return self.stored_j.value - self.arrow_energy(arrow_gr)


@dataclass(frozen=True)
class Clocked:
    """One chronograph reading beside what the mechanics expected and what the fit says."""

    recorded: Recorded[ArrowSpeed]
    mass_gr: float
    before: Estimate
    """Speed by the mechanics alone."""
    fitted: float
    impossible: bool
    """It would carry more energy than the bow stores."""
    off: bool
    """It does not go with bow and other readings."""
    aside: bool = False
    """Off, and no other reading agrees with it: it waits for a second."""


@dataclass(frozen=True)
class Calibration:
    """Thrust before and after the archer's chronograph readings."""

    before: Thrust
    after: Thrust
    readings: tuple[Clocked, ...]

    @property
    def used(self) -> tuple[Clocked, ...]:
        return tuple(r for r in self.readings if not r.impossible and not r.aside)


def returned(family: Family, hold: Hold | None = None) -> float:
    """Return the share of the stored energy that comes back.

    Assumption: losses by kind and release (`LOST`).

    >>> round(returned("selfbow"), 2), round(returned("short_rigid_tip", "thumb"), 2)
    (0.76, 0.91)
    """
    release = LOST_BY_THUMB if hold == "thumb" else LOST_BY_FINGERS
    return 1 - LOST[family] - release


def thrust_of(
    weight: DrawWeight,
    at: Estimate,
    string_gr: float | None,
    hold: Hold | None = None,
    silencers_gr: float = 0.0,
) -> Thrust:
    """Return what the bow gives with the string drawn to `at` (trade datum, at the hook).

    E is the area under the fitted curve from brace; K from the moving masses of its shape, with
    `silencers_gr`, what of the silencers moves with the arrow.

    Source: work of the drawing force; kinetic energy of limbs and string.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> round(thrust_of(c.bow.weight, c.archer.at_hook, 104.0).stored_j.value, 1)
    57.5
    """
    pivot = at.value - TRADE_OFFSET_MM
    energy = weight.fitted.integral().at(pivot) * JOULES_PER_LBF_MM
    likeness = weight.likeness
    root_stiffness = weight.weight.value / likeness.curve.force.at(pivot)
    widens = 1.0 if likeness.known else UNKNOWN_WIDENS
    doubt = _energy_doubt(weight, at, energy)
    return Thrust(
        stored_j=Estimate(energy, energy * doubt),
        returned_j=energy * returned(likeness.shape.family, hold),
        virtual_mass_gr=moving_mass(likeness.shape).virtual_mass(pivot, root_stiffness, string_gr)
        + silencers_gr,
        returned_sd=math.hypot(doubt, RETURNED_SD * widens),
        virtual_mass_sd=VIRTUAL_MASS_SD * widens,
    )


def typical_thrust(
    shape: BowShape, pivot_mm: float, weight_lbf: float, *, segments: int | None = None
) -> Thrust:
    """Return what a typical bow of a shape gives when it holds a weight at a draw.

    Errors: those of `draw_curve`.

    Source: as `thrust_of`, of a computed bow; hysteresis is Assumption.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> round(typical_thrust(shape, 667.0, 45.0).stored_j.value, 1)
    55.0
    """
    curve = draw_curve(shape, segments=segments)
    stiffness = weight_lbf / curve.force.at(pivot_mm)
    energy = stiffness * curve.energy.at(pivot_mm) * JOULES_PER_LBF_MM
    moving = moving_mass(shape, segments=segments)
    return Thrust(
        stored_j=Estimate(energy, 0.0),
        returned_j=energy * returned(shape.family),
        virtual_mass_gr=moving.virtual_mass(pivot_mm, stiffness, None),
        returned_sd=RETURNED_SD,
        virtual_mass_sd=VIRTUAL_MASS_SD,
    )


class ComputedFloor(NamedTuple):
    """The computed floor, and the two figures it comes from."""

    per_pound: Estimate
    """[gr/lbf]"""
    virtual_mass_gr: float
    """Of the kind's usual weight."""
    weight_lbf: float
    """The kind's usual weight at this draw."""


@lru_cache(maxsize=512)
def usual_floor(
    shape: BowShape, pivot_mm: float, *, segments: int | None = None, string_gr: float | None = None
) -> ComputedFloor:
    """Return the floor of a kind of bow drawn to `pivot_mm`, of whatever weight it is.

    A stronger bow is made wider as well as thicker, so its virtual mass per pound is near that of a
    usual one: 45 lb at 28 in. Of that, 4.2 times the virtual mass, per pound at this draw.
    Errors: those of `draw_curve`.

    Assumption: the share left behind and the usual weight, our own (docs/MECHANICS.md).

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> round(usual_floor(shape, 667.0).per_pound.value, 1)
    7.8
    """
    curve = draw_curve(shape, segments=segments)
    force = curve.force
    pivot_mm = min(max(pivot_mm, curve.first_mm + MM_PER_IN), curve.last_mm)
    stiffness = USUAL_WEIGHT_LBF / force.at(MARKED_DRAW_MM - TRADE_OFFSET_MM)
    moving = moving_mass(shape, segments=segments)
    mass = moving.virtual_mass(pivot_mm, stiffness, string_gr)
    weight = stiffness * force.at(pivot_mm)
    return ComputedFloor(Estimate(FLOOR_TIMES * mass / weight, FLOOR_SD_GPP), mass, weight)


def floor_per_pound(
    pivot_mm: float | None,
    likeness: Likeness,
    calibration: "Calibration | None",
    string_gr: float | None,
) -> ComputedFloor:
    """Return the computed floor of the bow on the rig; at the marked draw while that is unknown.

    A chronograph that finds its virtual mass larger or smaller than its kind's moves the floor as
    much.

    Assumption: as `usual_floor`; good to a grain per pound either way.

    >>> from lyrandis.core.example import rig
    >>> bow = rig().bow
    >>> round(floor_per_pound(667.0, bow.likeness, None, 104.0).per_pound.value, 1)
    7.7
    """
    pivot = MARKED_DRAW_MM - TRADE_OFFSET_MM if pivot_mm is None else pivot_mm
    usual = usual_floor(likeness.shape, round(pivot, 1), string_gr=string_gr)
    moved = 1.0
    if calibration is not None:
        moved = calibration.after.virtual_mass_gr / calibration.before.virtual_mass_gr
    sd = FLOOR_SD_GPP * (1.0 if likeness.known else 1.5)
    return ComputedFloor(
        Estimate(usual.per_pound.value * moved, sd), usual.virtual_mass_gr * moved, usual.weight_lbf
    )


def _energy_doubt(weight: DrawWeight, at: Estimate, energy: float) -> float:
    """Return the sd of ln E from the fit's curve and from the draw itself.

    d ln E / d ln W(x) is the share of the work that is done there.
    """
    fitted, pivot = weight.fitted, at.value - TRADE_OFFSET_MM
    inside = [(x, force) for x, force in zip(fitted.x, fitted.y, strict=True) if x <= pivot]
    work = sum(force for _, force in inside) or 1.0
    variance = weight.fit.variance_of(
        [x + TRADE_OFFSET_MM for x, _ in inside], [force / work for _, force in inside]
    )
    drawn = fitted.at(pivot) * JOULES_PER_LBF_MM * at.sd / energy
    return math.hypot(math.sqrt(max(variance, 0.0)), drawn)


def calibrate(
    thrust: Thrust, readings: tuple[Recorded[ArrowSpeed], ...], usual_gr: float | None
) -> Calibration | None:
    """Draw R and K to chronograph readings; None when there is none to use.

    MAP of (ln R, ln K) under the mechanics' doubt, by Gauss-Newton on
    ln v = (ln 2R - ln(m + K))/2. `usual_gr` stands in for a reading without a mass of its own.
    A reading that carries more than the stored energy and its doubt is set aside; one that lies
    beyond 3.5 standard deviations on either side waits until a second agrees with it.

    Source: maximum a posteriori by Gauss-Newton; the priors are Assumption.

    >>> from lyrandis.core.example import rig
    >>> bow = rig().bow
    >>> calibrate(bow.mechanical, (), None) is None
    True
    """
    clocked = []
    for recorded in readings:
        mass = recorded.reading.arrow_mass_gr or usual_gr
        if mass is None:
            continue
        before = thrust.speed_estimate(mass)
        carried = mass * KG_PER_GRAIN * recorded.reading.speed_mps**2 / 2
        most = thrust.stored_j.value + 2 * thrust.stored_j.sd
        clocked.append(
            Clocked(recorded, mass, before, before.value, impossible=carried > most, off=False)
        )
    if not clocked:
        return None
    clocked = [replace(reading, aside=_stands_alone(reading, clocked)) for reading in clocked]
    used = [reading for reading in clocked if not reading.impossible and not reading.aside]
    after = _drawn_to(thrust, used) if used else thrust
    return Calibration(
        before=thrust,
        after=after,
        readings=tuple(_beside(after, reading) for reading in clocked),
    )


def _speed_sd(reading: Clocked) -> float:
    ear = reading.recorded.reading.ear
    if ear is not None:
        return max(ear.half / 2 / reading.recorded.reading.speed_mps, LEAST_EAR_SD)
    hearsay = reading.recorded.source in ("told", "estimated")
    return TOLD_SPEED_SD if hearsay else CHRONOGRAPH_SD


def _off_by(reading: Clocked) -> float:
    return math.log(reading.recorded.reading.speed_mps / reading.before.value)


def _is_off(reading: Clocked) -> bool:
    expected = reading.before.sd / reading.before.value
    return abs(_off_by(reading)) > SPEED_OFF * math.hypot(expected, _speed_sd(reading))


def _stands_alone(one: Clocked, readings: list[Clocked]) -> bool:
    """Return whether a reading is off and no other one agrees with it within both their sd."""
    if one.impossible or not _is_off(one):
        return False
    return not any(
        abs(_off_by(other) - _off_by(one))
        <= SPEED_AGREES * math.hypot(_speed_sd(one), _speed_sd(other))
        for other in readings
        if other is not one and not other.impossible
    )


def _beside(after: Thrust, reading: Clocked) -> Clocked:
    fitted = after.speed(reading.mass_gr)
    return replace(reading, fitted=fitted, off=_is_off(reading) and not reading.impossible)


def _drawn_to(thrust: Thrust, readings: list[Clocked]) -> Thrust:
    # J = sum w (ln v - (ln 2R - ln(m + K))/2)^2 + priors
    # d ln v/d ln R = 1/2, d ln v/d ln K = -K/(2 (m + K))
    ln_r, ln_k = math.log(thrust.returned_j), math.log(thrust.virtual_mass_gr)
    prior_r, prior_k = 1 / thrust.returned_sd**2, 1 / thrust.virtual_mass_sd**2
    r, k = ln_r, ln_k
    a, b, c = prior_r, 0.0, prior_k
    for _ in range(8):
        mass_k = math.exp(k)
        a, b, c = prior_r, 0.0, prior_k
        gr, gk = prior_r * (ln_r - r), prior_k * (ln_k - k)
        for reading in readings:
            weight = 1 / _speed_sd(reading) ** 2
            total = reading.mass_gr + mass_k
            expected = (math.log(2) + r - math.log(total * KG_PER_GRAIN)) / 2
            gap = math.log(reading.recorded.reading.speed_mps) - expected
            dr, dk = 0.5, -mass_k / total / 2
            a += weight * dr * dr
            b += weight * dr * dk
            c += weight * dk * dk
            gr += weight * dr * gap
            gk += weight * dk * gap
        determinant = a * c - b * b
        r += (c * gr - b * gk) / determinant
        k += (a * gk - b * gr) / determinant
    determinant = a * c - b * b
    sd_r, sd_k = math.sqrt(c / determinant), math.sqrt(a / determinant)
    return replace(
        thrust,
        returned_j=math.exp(r),
        virtual_mass_gr=math.exp(k),
        returned_sd=sd_r,
        virtual_mass_sd=sd_k,
        correlation=-b / determinant / (sd_r * sd_k),
    )
