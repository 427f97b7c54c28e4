"""Shafts that were tapped: from the ring to stiffness and spine, and which of them match.

Lengths in m, masses in kg, stiffness EI in N m2; spines in pounds of the wood scale.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from lyrandis.core.arrow.beam import Beam, modes_of
from lyrandis.core.arrow.build import BuildSheet
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.readings import NumberedArrow
from lyrandis.core.arrow.spine import pounds, stiffness
from lyrandis.core.arrow.words import ShaftMaterial
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.effective import Recorded
from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.readings import ShaftTapped
from lyrandis.core.listen.words import TappedState

STIFFER = {"wood": Estimate(1.06, 0.02), "cane": Estimate(1.06, 0.02)}
OTHERWISE = Estimate(1.01, 0.005)
"""Assumption: how much stiffer a shaft rings than it bends slowly."""
GAUGE_SHARE = 0.005
"""Assumption: of a ratio by a shaft measured both ways, one standard deviation, beside the
gauge's own."""
MASS_SD_GR, LENGTH_SD_MM = 0.5, 0.5
UNWEIGHED_SHARE, UNWEIGHED_SHARED = 0.01, 0.02
"""Assumption: of a shaft nobody weighed: its own, beside its fellows, and what all share."""
LEAST_TAP_SHARE: dict[str, float] = {"wood": 0.02, "cane": 0.02}
OTHER_TAP_SHARE = 0.01
"""No ring tells stiffness better than this, one standard deviation, however often it is tapped:
wood has a stiffer plane. Chosen on shafts of another world."""
HOLLOW: dict[str, float] = {"carbon": 0.8, "aluminium": 0.9, "glass": 0.7}
"""Assumption: inner over outer diameter; the others are full."""
SHEAR: dict[str, Estimate] = {
    "carbon": Estimate(30.0, 10.0), "glass": Estimate(20.0, 6.0), "aluminium": Estimate(5.2, 0.5),
}  # fmt: skip
USUAL_SHEAR = Estimate(19.0, 5.0)
"""Assumption: Young's modulus over what holds against shear, E/(k G); of wood and cane the last."""
TOLD_APART = 0.2
"""A ring that asks for a stiffness so far off the told spine: was the point on?"""
UNEVEN_SHARE = 0.02
"""Stiffness apart by more after a quarter turn: uneven round its axis."""
COMBS = 4


@lru_cache(maxsize=256)
def per_root_ei(beam: Beam) -> tuple[float, ...]:
    """Return the free notes of a beam over the root of its stiffness [Hz/(N m2)^(1/2)].

    Source: `modes_of`.

    >>> bare = Beam(0.7239, 9.7 * 6.479891e-5 / 0.0254, 0.0, 0.0)
    >>> notes = per_root_ei(bare)
    >>> [round(one / notes[0], 2) for one in notes]
    [1.0, 2.76, 5.4, 8.94]
    """
    return tuple((np.sqrt(modes_of(beam).w2[2 : 2 + COMBS]) / (2 * math.pi)).tolist())


class Ringing(NamedTuple):
    """The notes a shaft rings with, over the root of its stiffness, and how well each is known."""

    notes: tuple[float, ...]
    """Hz/(N m2)^(1/2)."""
    doubts: tuple[float, ...]
    """Of each line, a share, one standard deviation: what shear takes off is only roughly known."""
    floor: float
    """No ring tells stiffness better, one standard deviation, a share."""


@lru_cache(maxsize=256)
def ringing_of(beam: Beam, material: str | None, diameter_mm: float) -> Ringing:
    """Return the notes of a shaft that bends and shears.

    f = f_bend / sqrt(1 + (r/L)^2 (q^2 + 6 q + (E/kG) (q^2 - 2 q))), q about (n + 1/2) pi, r the
    section's radius of gyration. Source: Goens' solution of Timoshenko's beam, free at both ends;
    taken for a finished shaft too (Assumption).

    >>> bare = Beam(0.7239, 9.7 * 6.479891e-5 / 0.0254, 0.0, 0.0)
    >>> thick, thin = ringing_of(bare, "carbon", 7.4), per_root_ei(bare)
    >>> [round(100 * (a / b - 1), 1) for a, b in zip(thick.notes, thin)]
    [-0.2, -0.8, -1.6, -2.8]
    """
    shear = SHEAR.get(material or "", USUAL_SHEAR)
    hollow = HOLLOW.get(material or "", 0.0)
    radius2 = (diameter_mm / 1000) ** 2 * (1 + hollow**2) / 16
    q = (np.arange(1, COMBS + 1) + 0.5) * math.pi
    slender = radius2 / beam.length**2
    held, turned = slender * (q**2 - 2 * q), slender * (q**2 + 6 * q)
    whole = 1 + shear.value * held + turned
    notes = np.array(per_root_ei(beam)) / np.sqrt(whole)
    doubts = shear.sd * held / whole / 2
    floor = LEAST_TAP_SHARE.get(material or "", OTHER_TAP_SHARE)
    return Ringing(tuple(notes.tolist()), tuple(doubts.tolist()), floor)


def ringing_as_tapped(sheet: BuildSheet, state: TappedState, mass_gr: float | None) -> Ringing:
    """Return the notes of the shaft as it was tapped.

    Source: `beam_as_tapped`, `ringing_of`.

    >>> from lyrandis.core.example import rig
    >>> len(ringing_as_tapped(rig().arrow.sheet, "bare", 240.0).notes)
    4
    """
    return ringing_of(beam_as_tapped(sheet, state, mass_gr), sheet.material, sheet.diameter_mm)


@lru_cache(maxsize=64)
def resting_nodes(beam: Beam) -> tuple[float, float]:
    """Return where the lowest note stands still, from the nock's end [m]: hold it there.

    Source: the zeros of the first mode of `modes_of`; 22.4 % from the ends of a bare shaft.

    >>> bare = Beam(1.0, 0.03, 0.0, 0.0)
    >>> [round(one, 3) for one in resting_nodes(bare)]
    [0.224, 0.776]
    """
    modes = modes_of(beam)
    at = np.linspace(0.0, beam.length, 401)
    shape = modes.at(at)[0][:, 2]
    turns = np.nonzero(shape[:-1] * shape[1:] < 0)[0]
    places = [
        float(at[i] + (at[i + 1] - at[i]) * shape[i] / (shape[i] - shape[i + 1])) for i in turns
    ]
    return (
        (places[0], places[-1]) if len(places) > 1 else (0.224 * beam.length, 0.776 * beam.length)
    )


def first_mode(beam: Beam, points: int = 25) -> tuple[float, ...]:
    """Return how the lowest note swings along a shaft, largest 1, from the nock's end.

    Source: `modes_of`.

    >>> len(first_mode(Beam(1.0, 0.03, 0.0, 0.0)))
    25
    """
    shape = modes_of(beam).at(np.linspace(0.0, beam.length, points))[0][:, 2]
    return tuple((shape / np.abs(shape).max()).round(4).tolist())


def beam_as_tapped(sheet: BuildSheet, state: TappedState, mass_gr: float | None) -> Beam:
    """Return the shaft as it was tapped: bare, or finished; its own mass put into the shaft.

    Source: the build sheet; a bare shaft carries nothing.

    >>> from lyrandis.core.example import rig
    >>> bare = beam_as_tapped(rig().arrow.sheet, "bare", 240.0)
    >>> round(bare.mass_per_length * bare.length / KG_PER_GRAIN), bare.tip
    (240, 0.0)
    """
    beam = sheet.beam
    if state == "bare":
        beam = Beam(beam.length, beam.mass_per_length, 0.0, 0.0, profile=beam.profile)
    if mass_gr is None:
        return beam
    lumps = beam.tip + beam.nock + beam.fletching
    now = modes_of(beam).mass - lumps
    wanted = mass_gr * KG_PER_GRAIN - lumps
    if wanted <= 0.2 * now:
        return beam
    scaled = round(beam.mass_per_length * wanted / now, 7)
    return Beam(beam.length, scaled, beam.tip, beam.nock, beam.fletching, beam.fletching_from,
                beam.fletching_length, beam.profile)  # fmt: skip


class Spined(NamedTuple):
    """A shaft that was tapped, and what that says."""

    number: int
    entry_id: str
    state: TappedState
    mass_gr: float | None
    weighed: bool
    ring_hz: float
    taps: int
    spine: Estimate | None
    """Its doubt is what sets it apart from the others; None where its mass is not known."""
    uneven: float | None
    """Stiffness after a quarter turn over before, where both were tapped and differ."""
    apart: float | None = None
    """Spine over the told one less one, where they lie over 20 % apart: was the point on?"""


@dataclass(frozen=True)
class TappedSet:
    """The shafts of one set that were tapped."""

    shafts: tuple[Spined, ...]
    ratio: Estimate
    """How much stiffer they ring than a gauge finds."""
    calibrated: tuple[int, ...]
    """Shafts that were measured both ways."""
    shared: float
    """Relative standard deviation that all have in common."""


def own_mass(arrows: ArrowFacts, sheet: BuildSheet, told: ShaftTapped) -> tuple[float | None, bool]:
    """Return a tapped shaft's mass [gr], and whether it was weighed itself.

    Source: as recorded with the tap, else the arrow's own on the scale, else as the set's parts.

    >>> from lyrandis.core.example import rig
    >>> tap = dict(at_s=1, ring_hz=90, half_hz=0.3, lines=4)
    >>> told = ShaftTapped(arrow_number=1, mark="0" * 16, taps=(tap,), state="finished")
    >>> own_mass(rig().setup.arrows, rig().arrow.sheet, told)
    (400.0, True)
    """
    if told.mass_gr is not None:
        return told.mass_gr, True
    if told.state == "finished":
        for mass in reversed(arrows.masses):
            if mass.reading.arrow_number == told.arrow_number:
                return mass.reading.arrow_mass_gr, True
        return None, False
    whole = arrows.part("shaft_gr")[0]
    if whole is not None:
        return float(whole), False
    if arrows.part("shaft_gr_per_in")[0] is not None:
        return sheet.beam.mass_per_length * sheet.beam.length / KG_PER_GRAIN, False
    return None, False


def tapped_set(
    arrows: ArrowFacts, sheet: BuildSheet, told: Sequence[Recorded[ShaftTapped]]
) -> TappedSet | None:
    """Return what the taps say of a set; None where none was tapped.

    EI = (f/r)^2 of the beam as tapped, over how much stiffer its kind rings; a shaft that a gauge
    measured too calibrates the rest. Source: Euler-Bernoulli beam; ratios are Assumption.

    >>> from lyrandis.core.example import rig
    >>> tapped_set(rig().setup.arrows, rig().arrow.sheet, ()) is None
    True
    """
    if not told:
        return None
    rung = [(recorded, *_rung(arrows, sheet, recorded.reading)) for recorded in told]
    gauge = _by_gauge(arrows)
    both = [
        (item.reading.arrow_number, ei.value / stiffness(gauge[item.reading.arrow_number]))
        for item, ei, _, _ in rung
        if ei is not None and item.reading.arrow_number in gauge
    ]
    ratio = _ratio(sheet.material, [found for _, found in both])
    # EI ~ f^2 m L^3 of a bare shaft
    length = 3 * LENGTH_SD_MM / sheet.length_mm
    label = arrows.part("spine_lbf")[0]
    shafts = tuple(
        Spined(
            number=item.reading.arrow_number,
            entry_id=item.entry.id,
            state=item.reading.state,
            mass_gr=mass,
            weighed=weighed,
            ring_hz=item.reading.ring_hz,
            taps=len(item.reading.taps),
            spine=None
            if ei is None
            else Estimate(pounds(ei.value / ratio.value), pounds(ei.sd / ratio.value)),
            uneven=_uneven(item.reading),
            apart=None
            if ei is None
            else _apart(
                pounds(ei.value / ratio.value), gauge.get(item.reading.arrow_number, label)
            ),
        )
        for item, ei, mass, weighed in rung
    )
    guessed = UNWEIGHED_SHARED if any(not shaft.weighed for shaft in shafts) else 0.0
    shared = math.hypot(ratio.sd / ratio.value, length, guessed)
    return TappedSet(shafts, ratio, tuple(number for number, _ in both), shared)


def _rung(
    arrows: ArrowFacts, sheet: BuildSheet, told: ShaftTapped
) -> tuple[Estimate | None, float | None, bool]:
    mass, weighed = own_mass(arrows, sheet, told)
    if mass is None:
        return None, None, False
    ringing = ringing_as_tapped(sheet, told.state, mass)
    ei = (told.ring_hz / ringing.notes[0]) ** 2
    taps = np.array([tap.ring_hz for tap in told.taps])
    own = np.mean([tap.half_hz / 2 / tap.ring_hz for tap in told.taps])
    scatter = float(taps.std(ddof=1) / taps.mean()) if len(taps) > 1 else 0.0
    ring = 2 * max(float(own), scatter) / math.sqrt(len(taps))
    scale = MASS_SD_GR / mass if weighed else UNWEIGHED_SHARE
    share = math.sqrt(max(ring, ringing.floor) ** 2 + scale**2)
    return Estimate(ei, ei * share), mass, weighed


def _apart(spine_lbf: float, told_lbf: float | None) -> float | None:
    if not told_lbf or abs(spine_lbf / told_lbf - 1) <= TOLD_APART:
        return None
    return spine_lbf / told_lbf - 1


def _by_gauge(arrows: ArrowFacts) -> dict[int, float]:
    """Return the spines a gauge measured, by number; those by ear do not count."""
    result: dict[int, float] = {}
    for arrow in arrows.numbered:
        reading: NumberedArrow = arrow.reading
        if reading.spine_lbf is not None and reading.spine_ear is None:
            result[reading.arrow_number] = reading.spine_lbf
    return result


def _ratio(material: ShaftMaterial | None, both: Sequence[float]) -> Estimate:
    usual = STIFFER.get(material or "", OTHERWISE)
    if not both:
        return usual
    # each is as good as the gauge and what one ring repeats by; the usual ratio is one more reading
    own = math.hypot(0.015, GAUGE_SHARE)
    weights = [1 / usual.sd**2, *[1 / own**2 for _ in both]]
    values = [usual.value, *both]
    total = sum(weights)
    mean = sum(w * v for w, v in zip(weights, values, strict=True)) / total
    return Estimate(mean, math.hypot(1 / math.sqrt(total), GAUGE_SHARE))


def _uneven(told: ShaftTapped) -> float | None:
    """Return stiffness after a quarter turn over before; None where even, or not tapped so."""
    before = [tap.ring_hz for tap in told.taps if not tap.quarter]
    after = [tap.ring_hz for tap in told.taps if tap.quarter]
    if not before or not after:
        return None
    ratio = (float(np.mean(after)) / float(np.mean(before))) ** 2
    return ratio if abs(ratio - 1) > UNEVEN_SHARE else None


class Band(NamedTuple):
    """The place of a band of some width that holds the most shafts."""

    low: float
    high: float
    numbers: tuple[int, ...]


def best_band(shafts: Sequence[Spined], width_lbf: float) -> Band | None:
    """Return where a band of spine holds the most shafts; of equals, those nearest together.

    Source: each shaft's own spine as the band's lower edge, tried in turn.

    >>> def one(n, lb): return Spined(n, "", "bare", 1, True, 1, 1, Estimate(lb, 0.2), None)
    >>> best_band([one(1, 60.0), one(2, 61.0), one(3, 64.0), one(4, 61.4)], 1.5).numbers
    (1, 2, 4)
    """
    known = sorted((shaft.spine.value, shaft.number) for shaft in shafts if shaft.spine is not None)
    best: tuple[int, float, Band] | None = None
    for low, _ in known:
        inside = [(lb, number) for lb, number in known if low <= lb <= low + width_lbf + 1e-9]
        spread = inside[-1][0] - inside[0][0]
        slack = (width_lbf - spread) / 2
        band = Band(low - slack, low - slack + width_lbf, tuple(sorted(n for _, n in inside)))
        if best is None or (len(inside), -spread) > (best[0], best[1]):
            best = (len(inside), -spread, band)
    return best[2] if best else None


TAP_PLACE_MM = 0.4 * MM_PER_IN
"""From the end: where to tap."""
