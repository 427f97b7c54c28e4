"""Spine by a tap: a shaft held where it does not swing rings at its own notes.

Mass held, every note of a free beam goes with the root of its stiffness: f_n = sqrt(EI) r_n, r_n of
the same beam as built. One number explains the whole comb.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.sound import Sound
from lyrandis.core.numeric import Array

FROM_S, TO_S, WEIGHT_S = 0.008, 0.600, 0.150
POINTS = 1 << 18
LN_STEP, LN_MEDIAN, MOST_NEPERS = 0.0005, 0.20, 6.0
"""Step of the grid of log frequency, width of the running median on it."""
EI_NM2 = (1.5, 10.0)
"""Every arrow shaft that is shot."""
LINES, LINE_SHARE = 4, 0.04
STANDS_NEPERS = 2.0
"""A line that stands out less is not heard."""
LEAST_LINES = 2
LINE_SD = 0.003
"""Assumption: a line's own place against the beam's, one standard deviation as a share."""
APART_SHARE = 0.015
"""Lines that lie further from their common place, as notes, are no comb."""
FITS_BETTER = 1.2
"""So many times better another comb fits that it is asked for: with the point on, or without."""
LEAST_OVER_DB = 15.0
"""A tap that stands out of the room by less is refused."""


class HeardLine(NamedTuple):
    """A line of the comb, and the stiffness it asks for."""

    number: int
    hz: float
    stands: float
    """How far over what lies round it [nepers]."""
    ei_nm2: float


@dataclass(frozen=True)
class Tapped:
    """A shaft's stiffness by one tap."""

    ei: Estimate
    """N m2; the ring's own, the shaft's mass and length not in its doubt."""
    lines: tuple[HeardLine, ...]
    apart: float = 0.0
    """How far the line furthest off lies from their common place, as a share of its note."""
    fits: float = 0.0
    """How far the comb's lines stand out together [nepers]: of two combs the better fits more."""


def tapped(
    sound: Sound, onset_s: float, per_root_ei: Sequence[float], doubts: Sequence[float] = ()
) -> Tapped | None:
    """Return the stiffness a tapped shaft rings with; None where fewer than two lines are heard.

    `per_root_ei` are the notes f_n/sqrt(EI) of the beam as built, `doubts` how well each is known.
    The spectrum from 8 to 600 ms, fading with 150 ms, over log frequency and freed of its slope;
    the comb of four notes that fits best, then each line within 4 % at its own maximum, weighed by
    how much it stands out and how well it is known. Source: our own.

    >>> at, notes = np.arange(20000) / 44100, (60.0, 165.4, 324.2)
    >>> ring = sum(np.sin(2 * np.pi * 2.05 * r * at) * np.exp(-5 * at) / n
    ...            for n, r in enumerate(notes, 1))
    >>> round(tapped(Sound(ring, 44100.0), 0.0, notes).ei.value, 1)
    4.2
    """
    part = sound.part(onset_s + FROM_S, onset_s + TO_S)
    if len(part.samples) < 64:
        return None
    fading = np.exp(-np.arange(len(part.samples)) / (WEIGHT_S * part.rate))
    power = np.abs(np.fft.rfft(part.samples * fading, POINTS)) ** 2
    low = math.log(per_root_ei[0] * math.sqrt(EI_NM2[0])) - LN_MEDIAN
    high = math.log(min(per_root_ei[-1] * math.sqrt(EI_NM2[1]), 0.45 * part.rate)) + LN_MEDIAN
    ln_hz = np.arange(low, high, LN_STEP)
    hz = np.exp(ln_hz)
    log_power = np.log(np.maximum(power, 1e-30))
    said = np.interp(hz, np.arange(len(power)) * (part.rate / POINTS), log_power)
    stands = np.clip(said - _median(said), 0.0, MOST_NEPERS)
    notes = per_root_ei[:LINES]
    tried = np.arange(math.log(EI_NM2[0]), math.log(EI_NM2[1]), 2 * LN_STEP)
    score = np.zeros(len(tried))
    for note in notes:
        score += np.interp(math.log(note) + tried / 2, ln_hz, stands, right=0.0)
    best = float(tried[int(np.argmax(score))])
    fits = float(score.max())
    lines = [_line(number, note, best, ln_hz, stands) for number, note in enumerate(notes, 1)]
    heard = [line for line in lines if line is not None]
    if len(heard) < LEAST_LINES:
        return None
    known = np.array([doubts[line.number - 1] if doubts else 0.0 for line in heard])
    own = 4 * (LINE_SD**2 + known**2)
    weight = np.array([line.stands for line in heard]) / own
    logs = np.log([line.ei_nm2 for line in heard])
    value = float((weight * logs).sum() / weight.sum())
    scatter = math.sqrt(float((weight * (logs - value) ** 2).sum() / weight.sum()))
    share = math.hypot(scatter / math.sqrt(len(heard)), 1 / math.sqrt(float((1 / own).sum())))
    ei = math.exp(value)
    apart = float(np.abs(logs - value).max()) / 2
    return Tapped(Estimate(ei, ei * share), tuple(heard), apart, fits)


def _median(said: Array) -> Array:
    """Return the running median over a fifth in log frequency, worked out in steps."""
    half, step = round(LN_MEDIAN / 2 / LN_STEP), 20
    at = np.arange(0, len(said), step)
    told = np.array([np.median(said[max(item - half, 0) : item + half + 1]) for item in at])
    result: Array = np.interp(np.arange(len(said)), at, told)
    return result


def _line(number: int, note: float, ln_ei: float, ln_hz: Array, stands: Array) -> HeardLine | None:
    """Return one line at its own maximum; None where nothing stands out, or beyond the spectrum."""
    near = math.log(note) + ln_ei / 2
    inside = np.nonzero(np.abs(ln_hz - near) < LINE_SHARE / 2)[0]
    if not len(inside):
        return None
    at = inside[int(np.argmax(stands[inside]))]
    if stands[at] < STANDS_NEPERS:
        return None
    hz = math.exp(float(ln_hz[at]))
    return HeardLine(number, hz, float(stands[at]), (hz / note) ** 2)
