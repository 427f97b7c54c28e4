"""Speed by ear: release and strike in one recording, and what the sound's own way takes."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.sound import Sound, frames, level, levels
from lyrandis.core.numeric import Array

RELEASE_RISE_DB, RELEASE_BEFORE_MS, RELEASE_NEAR_MS = 10.0, 30, 60
STRIKE_FROM_S, STRIKE_TO_S = 0.110, 0.850
STRIKE_MEAN_MS, STRIKE_BEFORE_MS, STRIKE_RISE_DB = 4, 12, 6.0
PICK_S = 0.012
"""Half of the window an onset is refined in."""
ONSET_SD_S = 0.0005
"""Assumption: one standard deviation of an onset, of a millisecond 95 in a hundred."""
WARM_SD_C, DISTANCE_SD_M, DRAG_SD = 2.0, 0.025, 0.25
WINDOW_SHARE = 0.15
"""The mechanics' speed is trusted so far, to look for the strike."""


@dataclass(frozen=True)
class HeardShot:
    """Release and strike of one shot [s]; each may be moved by hand."""

    release_s: float
    strike_s: float
    over_db: float
    """How far the strike rises out of what was before."""
    other_s: float | None = None
    """Where the strike would be without the mechanics' word, if elsewhere."""


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


def launch_mps(release_s: float, strike_s: float, where: Range, drag: float) -> Estimate:
    """Return the speed an arrow left the string with, with its doubt [m/s].

    t = (e^{k s} - 1)/(k v0), s = d - arrow length: its tip is that far ahead when the string stops.
    Source: drag as the square of speed; propagation of errors by differences.

    >>> found = launch_mps(0.0, 0.4, Range(18.0, 0.75), 0.0018)
    >>> round(found.value, 1), round(found.sd / found.value, 4)
    (50.3, 0.0047)
    """

    def speed(release: float, strike: float, at: Range, k: float) -> float:
        way = at.butt_m - at.arrow_m
        return math.expm1(k * way) / (k * flight_s(release, strike, at))

    value = speed(release_s, strike_s, where, drag)
    warmer = replace(where, celsius=where.celsius + WARM_SD_C)
    further = replace(where, butt_m=where.butt_m + DISTANCE_SD_M)
    off = (
        speed(release_s, strike_s, warmer, drag) - value,
        speed(release_s, strike_s, further, drag) - value,
        speed(release_s, strike_s, where, drag * (1 + DRAG_SD)) - value,
        speed(release_s, strike_s + math.sqrt(2) * ONSET_SD_S, where, drag) - value,
    )
    return Estimate(value, math.sqrt(sum(item**2 for item in off)))


def heard_shot(
    sound: Sound,
    where: Range,
    drag: float,
    expected_mps: float | None = None,
    *,
    near_s: float | None = None,
) -> HeardShot | None:
    """Return release and strike of a recording that holds one shot; None where either is missing.

    The release is the first strong rise, the strike the largest later one; `near_s` is about where
    the release was found, for a strike that is the louder of the two. With a speed from the
    mechanics it is looked for where that arrow would strike, 15 % about, and another one is told
    beside. Source: our own; median 0.7 % off at 20 dB over the room, on made-up shots.

    >>> heard_shot(Sound(np.zeros(16000), 16000.0), Range(18.0, 0.75), 0.0018) is None
    True
    """
    power = frames(sound)
    if len(power) < 200 or power.max() <= 0:
        return None
    ms = sound.per_ms / sound.rate
    about = None if near_s is None else round(near_s / ms)
    release = _release(levels(power), power, about)
    if release is None:
        return None
    at = _picked(sound, release * ms)
    rises = _rises(power)
    first, last = round((at + STRIKE_FROM_S) / ms), round((at + STRIKE_TO_S) / ms)
    free = _strike(rises, first, last)
    if expected_mps is None:
        chosen, other = free, None
    else:
        way = where.butt_m - where.arrow_m
        flown = math.expm1(drag * way) / (drag * expected_mps)
        release_m, strike_m = where.ways_m
        heard = flown - (release_m - strike_m) / sound_mps(where.celsius)
        near, far = (at + heard * (1 + side * WINDOW_SHARE) for side in (-1, 1))
        chosen = _strike(rises, max(round(near / ms), first), round(far / ms))
        other = free if chosen is not None and free != chosen else None
    if chosen is None:
        return None
    strike = _picked(sound, chosen * ms)
    return HeardShot(at, strike, float(rises[chosen]), None if other is None else other * ms)


def _release(said: Array, power: Array, about: int | None) -> int | None:
    """Return the frame the loudest sound began in, walked back while it rises."""
    first = 0 if about is None else max(about - RELEASE_NEAR_MS, 0)
    last = None if about is None else about + RELEASE_NEAR_MS
    at = first + int(np.argmax(power[first:last]))
    while at > RELEASE_BEFORE_MS:
        before = float(np.median(said[at - RELEASE_BEFORE_MS : at]))
        if said[at] < before + RELEASE_RISE_DB:
            break
        at -= 1
    return at if at < len(said) - 1 else None


def _rises(power: Array) -> Array:
    """Return how far a 4 ms mean at each frame stands over the median of the 12 ms before [dB]."""
    mean = np.convolve(power, np.ones(STRIKE_MEAN_MS) / STRIKE_MEAN_MS, mode="full")
    ahead = mean[STRIKE_MEAN_MS - 1 :]
    result = np.zeros(len(power))
    for at in range(STRIKE_BEFORE_MS, len(power)):
        before = float(np.median(power[at - STRIKE_BEFORE_MS : at]))
        result[at] = level(float(ahead[at])) - level(before)
    return result


def _strike(rises: Array, first: int, last: int) -> int | None:
    window = rises[max(first, 0) : last]
    if not len(window) or window.max() < STRIKE_RISE_DB:
        return None
    return max(first, 0) + int(np.argmax(window))


def _picked(sound: Sound, near_s: float) -> float:
    """Return an onset to the sample: where the variance changes most (Akaike's criterion)."""
    part = sound.part(near_s - PICK_S, near_s + PICK_S).samples
    count = len(part)
    if count < 16:
        return near_s
    squares = np.cumsum(part**2)
    sums = np.cumsum(part)
    at = np.arange(4, count - 4)
    left = np.maximum(squares[at - 1] / at - (sums[at - 1] / at) ** 2, 1e-18)
    rest = count - at
    right = np.maximum(
        (squares[-1] - squares[at - 1]) / rest - ((sums[-1] - sums[at - 1]) / rest) ** 2, 1e-18
    )
    least = at * np.log(left) + rest * np.log(right)
    return max(near_s - PICK_S, 0.0) + float(at[int(np.argmin(least))]) / sound.rate


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
