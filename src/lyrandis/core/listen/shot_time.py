"""Speed by ear: from release and strike to a speed, and what the sound's own way takes."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.shot_marks import ONSET_SD_S

WARM_SD_C, DISTANCE_SD_M, DRAG_SD = 2.0, 0.025, 0.25
PACED_SHARE = 0.02
"""Assumption: a distance in paces, or by a mark nobody measured, one standard deviation."""
SPEED_SHARE = 0.01
"""No speed by ear is better than 2 %: one standard deviation. Chosen on shots of another world."""
EXPECTED_SHARE = 0.03
"""What the mechanics expect is good to 6 % at best: it checks, and decides nothing."""
APART_SD = 2.0


@dataclass(frozen=True)
class Range:
    """Where it was shot and heard. Distances in m, temperature in degrees Celsius."""

    butt_m: float
    """From the braced string."""
    arrow_m: float
    microphone_m: float = 0.4
    """From the bow, or from the butt where it stands there."""
    celsius: float = 15.0
    at_butt: bool = False
    """The microphone stands beside the butt, not beside the archer."""
    taped: bool = True
    """The distance was measured with a tape; else it was paced, or is what a mark says."""

    @property
    def distance_sd_m(self) -> float:
        """How well the distance to the butt is known, one standard deviation."""
        return DISTANCE_SD_M if self.taped else PACED_SHARE * self.butt_m

    @property
    def ways_m(self) -> tuple[float, float]:
        """How far the sound of the release and that of the strike travel."""
        if self.at_butt:
            return self.butt_m, self.microphone_m
        return self.microphone_m, self.butt_m


def sound_mps(celsius: float) -> float:
    """Return the speed of sound in air [m/s].

    c = 331.3 + 0.606 T. Source: dry air, to first order.

    >>> round(sound_mps(20.0), 1)
    343.4
    """
    return 331.3 + 0.606 * celsius


def flight_s(release_s: float, strike_s: float, where: Range) -> float:
    """Return how long an arrow flew: what was heard, less the sound's own ways.

    (t2 - t1) + a/c - b/c, a and b the ways of the two sounds. Source: definition.

    >>> round(flight_s(0.0, 0.4, Range(18.0, 0.75)), 4)
    0.3483
    """
    release_m, strike_m = where.ways_m
    return strike_s - release_s + (release_m - strike_m) / sound_mps(where.celsius)


def launch_mps(
    release_s: float, strike_s: float, where: Range, drag: float,
    onsets_sd_s: float = math.sqrt(2) * ONSET_SD_S,
) -> Estimate:  # fmt: skip
    """Return the speed an arrow left the string with, with its doubt [m/s].

    t = (e^{k s} - 1)/(k v0), s = d - arrow length: its tip is that far ahead when the string stops.
    `onsets_sd_s` is the doubt of release and strike together. Never better than 2 %.
    Source: drag as the square of speed; propagation of errors by differences.

    >>> found = launch_mps(0.0, 0.4, Range(18.0, 0.75), 0.0018)
    >>> round(found.value, 1), round(found.sd / found.value, 4)
    (50.3, 0.01)
    """

    def speed(release: float, strike: float, at: Range, k: float) -> float:
        way = at.butt_m - at.arrow_m
        return math.expm1(k * way) / (k * flight_s(release, strike, at))

    value = speed(release_s, strike_s, where, drag)
    warmer = replace(where, celsius=where.celsius + WARM_SD_C)
    further = replace(where, butt_m=where.butt_m + where.distance_sd_m)
    off = (
        speed(release_s, strike_s, warmer, drag) - value,
        speed(release_s, strike_s, further, drag) - value,
        speed(release_s, strike_s, where, drag * (1 + DRAG_SD)) - value,
        speed(release_s, strike_s + onsets_sd_s, where, drag) - value,
    )
    return Estimate(value, max(math.sqrt(sum(item**2 for item in off)), SPEED_SHARE * value))


def several(speeds: Sequence[Estimate]) -> Estimate:
    """Return the speed of several shots at one distance: they share all but the onsets.

    Source: the mean; the shared part of the doubt stays, the scatter of the shots is divided.

    >>> found = several([Estimate(50.0, 0.35), Estimate(50.4, 0.35), Estimate(49.9, 0.35)])
    >>> round(found.value, 1), round(found.sd, 2)
    (50.1, 0.38)
    """
    values = [speed.value for speed in speeds]
    mean = sum(values) / len(values)
    shared = sum(speed.sd for speed in speeds) / len(speeds)
    if len(values) < 2:
        return Estimate(mean, shared)
    scatter = math.sqrt(sum((value - mean) ** 2 for value in values) / (len(values) - 1))
    return Estimate(mean, math.hypot(shared, scatter / math.sqrt(len(values))))


def agrees(heard: Estimate, expected_mps: float) -> bool:
    """Return whether a speed by ear agrees with what the mechanics expect, good to 6 % at best.

    Source: two standard deviations of both. Assumption: the mechanics' own share.

    >>> agrees(Estimate(50.0, 0.6), 52.0), agrees(Estimate(50.0, 0.6), 56.0)
    (True, False)
    """
    both = math.hypot(heard.sd, EXPECTED_SHARE * expected_mps)
    return abs(heard.value - expected_mps) <= APART_SD * both
