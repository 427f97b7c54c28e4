"""Release and strike in a recording of shots at a butt: where each is, and how well that is known.

The limbs swell for some milliseconds after the string is home, so the loudest instant is late: the
release is where the high notes begin, the same in all shots of one recording. The strike is where
several bands rise at once, as long after the release in each of them.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.sound import Sound, band
from lyrandis.core.numeric import Array

STEP_S = 0.0005
BEFORE_S, AFTER_S = 0.10, 1.10
"""What is looked at of a shot, round the onset of its take."""
HIGH_HZ = (1200.0, 6500.0)
"""Limbs and string are lower; what is left is the string's own crack."""
HOME_FROM_S, HOME_TO_S = 0.045, 0.035
UNDER_PEAK_DB, OVER_NOISE_DB = 10.0, 8.0
ALIKE_S, LEAST_DB = 0.025, -25.0
"""Shots are laid over each other within so much; what is fainter says nothing."""
LATER_S, AS_LOUD_DB = (0.008, 0.025), 6.0
FRESH_S, FRESH_DB = 0.004, 6.0
"""A second beginning so soon after, rising out of what was before and about as loud as the first."""
STRIKE_FROM_S, STRIKE_TO_S = 0.10, 0.95
BANDS_HZ = ((60.0, 150.0), (150.0, 400.0), (400.0, 1200.0), (1200.0, 5000.0))
SMOOTH_S = 0.003
RISES_S = ((0.004, 0.015), (0.020, 0.020))
"""Means after and before: of a hard blow and of a soft one."""
MOST_RISE_DB, STRIKE_RISE_DB = 12.0, 7.0
TOGETHER_S = 0.012
"""Strikes of one recording lie within so much of each other, counted from their releases."""
ONSET_SD_S = 0.002
"""Assumption: one standard deviation of an onset."""
LOOSE_SD_S = 0.007
"""Assumption: the same where the loose may have been taken for the string home."""
SOFT_RISE_S, SOFT_SHARE, TOO_SOFT_S = 0.006, 0.35, 0.045
"""A strike that rises more slowly is of a soft butt; its doubt is a share of the rise."""


@dataclass(frozen=True)
class HeardShot:
    """Release and strike of one shot [s]; each may be moved by hand."""

    release_s: float
    strike_s: float
    over_db: float = 0.0
    """How far the strike rises out of what was before."""
    rise_s: float = 0.0
    """How long the strike takes to rise."""
    other_s: float | None = None
    """Another place that would do as well."""
    release_sd_s: float = ONSET_SD_S
    strike_sd_s: float = ONSET_SD_S

    @property
    def soft(self) -> bool:
        """True where the strike rises slowly: a soft butt."""
        return self.rise_s > SOFT_RISE_S


class Home(NamedTuple):
    """Where the string comes home in a shot."""

    at_s: float
    sd_s: float


class _Shot(NamedTuple):
    """One shot's envelopes, a row a band, at steps of half a millisecond."""

    start_s: float
    high: Array
    bands: Array


def envelope(sound: Sound, low_hz: float, high_hz: float, smooth_s: float = 0.001) -> Array:
    """Return the power of a band at steps of half a millisecond, a mean over a little time.

    Source: definition.

    >>> tone = np.sin(2 * np.pi * 500 * np.arange(8000) / 16000)
    >>> round(float(envelope(Sound(tone, 16000.0), 400.0, 700.0, 0.004)[500]), 2)
    0.5
    """
    power = np.concatenate([[0.0], np.cumsum(band(sound, low_hz, high_hz).samples ** 2)])
    centres = np.arange(0.0, sound.seconds, STEP_S) * sound.rate
    half = smooth_s * sound.rate / 2
    last = len(power) - 1
    low, high = (np.clip(centres + side * half, 0, last) for side in (-1, 1))
    at = np.arange(len(power))
    mean: Array = (np.interp(high, at, power) - np.interp(low, at, power)) / np.maximum(
        high - low, 1.0
    )
    return np.maximum(mean, 0.0)


def _steps(seconds: float) -> int:
    return round(seconds / STEP_S)


def _decibels(power: Array) -> Array:
    return 10 * np.log10(np.maximum(power, 1e-14))


def homes(shots: Sequence[_Shot]) -> list[Home | None]:
    """Return where the string comes home in each shot of a recording, the same place in all.

    The high notes of all shots are laid over each other; where their mean begins is the release.
    Source: our own.

    >>> homes([])
    []
    """
    around = [_around(shot) for shot in shots]
    known = [number for number, said in enumerate(around) if said is not None]
    if not known:
        return [None] * len(shots)
    loud = {number: np.maximum(said, LEAST_DB) for number, said in enumerate(around)
            if said is not None}  # fmt: skip
    lags = _lags([loud[number] for number in known])
    mean = np.mean([_moved(loud[n], lag) for n, lag in zip(known, lags, strict=True)], axis=0)
    first, doubtful = _begins(mean)
    sd = LOOSE_SD_S if doubtful else ONSET_SD_S
    result: list[Home | None] = [None] * len(shots)
    for number, lag in zip(known, lags, strict=True):
        at = shots[number].start_s + BEFORE_S - HOME_FROM_S + (first + lag) * STEP_S
        result[number] = Home(at, sd)
    return result


def _around(shot: _Shot) -> Array | None:
    """Return the high notes round a take's onset in dB under their peak; None where none stand."""
    first, last = _steps(BEFORE_S - HOME_FROM_S), _steps(BEFORE_S + HOME_TO_S)
    said = _decibels(shot.high)
    if len(said) < last:
        return None
    part = said[first:last]
    peak, noise = float(part.max()), float(np.median(said[:first]))
    if peak < noise + OVER_NOISE_DB:
        return None
    return np.asarray(np.where(part > noise + OVER_NOISE_DB / 2, part - peak, -99.0))


def _lags(loud: Sequence[Array]) -> list[int]:
    """Return by how many steps each shot lies later than the first, laid over their mean."""
    most = _steps(ALIKE_S)
    lags = [0] * len(loud)
    for _ in range(2 if len(loud) > 1 else 0):
        for number, said in enumerate(loud):
            others = [_moved(one, lag) for n, (one, lag) in enumerate(zip(loud, lags, strict=True))
                      if n != number]  # fmt: skip
            target = np.mean(others, axis=0)
            off = [float(np.abs(_moved(said, lag) - target).mean()) for lag in range(-most, most)]
            lags[number] = int(np.argmin(off)) - most
    middle = lags[0]
    return [lag - middle for lag in lags]


def _moved(said: Array, lag: int) -> Array:
    """Return an envelope moved so many steps sooner."""
    result = np.full(len(said), LEAST_DB)
    if lag >= 0:
        result[: len(said) - lag] = said[lag:]
    else:
        result[-lag:] = said[:lag]
    return result


def _begins(said: Array) -> tuple[int, bool]:
    """Return the step a shot begins at, and whether it may be that only the loose was heard before.

    Where a fresh beginning follows within a bow's stroke and is about as loud, the first was the
    loose, lifted by a phone that rides its gain.
    """
    first = int(np.argmax(said >= said.max() - UNDER_PEAK_DB))
    low, high = (first + _steps(after) for after in LATER_S)
    loudest = float(said[first:low].max(initial=LEAST_DB))
    wide, gap = _steps(FRESH_S), 1
    for at in range(low, min(high, len(said) - wide)):
        before = float(np.mean(said[at - wide - gap : at - gap]))
        here = float(said[at : at + wide].max())
        fresh = said[at] > before + FRESH_DB
        if fresh and here > before + FRESH_DB + 2 and here > loudest - AS_LOUD_DB:
            return at, True
    return first, False


def strikes(
    shots: Sequence[_Shot], found: Sequence[Home | None]
) -> list[tuple[HeardShot | None, float | None]]:
    """Return the shots with their strikes, as long after each release as in the others.

    Source: our own.

    >>> strikes([], [])
    []
    """
    scores = [None if home is None else _scores(shot, home)
              for shot, home in zip(shots, found, strict=True)]  # fmt: skip
    told = [score for score in scores if score is not None]
    if not told:
        return [(None, None)] * len(shots)
    common = np.mean(told, axis=0)
    wide = _steps(TOGETHER_S)
    blurred = [_highest(score, wide) for score in told]
    together = int(np.argmax(np.mean(blurred, axis=0) + 0.1 * common))
    result: list[tuple[HeardShot | None, float | None]] = []
    for shot, home, score in zip(shots, found, scores, strict=True):
        if home is None or score is None:
            result.append((None, None))
            continue
        low = max(together - wide, 0)
        at = low + int(np.argmax(score[low : together + wide + 1]))
        if score[at] < STRIKE_RISE_DB:
            result.append((None, None))
            continue
        own = int(np.argmax(score))
        near_s = home.at_s + STRIKE_FROM_S + at * STEP_S
        start, rise = _foot(shot, near_s)
        other = None
        if abs(own - at) > 2 * wide:
            other = home.at_s + STRIKE_FROM_S + own * STEP_S
        sd = max(ONSET_SD_S, SOFT_SHARE * rise if rise > SOFT_RISE_S else 0.0)
        heard = HeardShot(home.at_s, start, float(score[at]), rise, other, home.sd_s, sd)
        result.append((heard, rise))
    return result


def _scores(shot: _Shot, home: Home) -> Array:
    """Return how strongly a strike begins, at each step after the release [dB, bands together]."""
    first = _steps(home.at_s - shot.start_s + STRIKE_FROM_S)
    count = _steps(STRIKE_TO_S - STRIKE_FROM_S)
    total = np.zeros(count)
    for power in shot.bands:
        sums = np.concatenate([[0.0], np.cumsum(power)])
        floor = float(np.percentile(power, 10))
        best = np.zeros(count)
        for after_s, before_s in RISES_S:
            after, before = _steps(after_s), _steps(before_s)
            at = first + np.arange(count)
            inside = (at + after < len(sums)) & (at - before >= 0)
            at = np.where(inside, at, before)
            late = (sums[np.minimum(at + after, len(sums) - 1)] - sums[at]) / after
            soon = (sums[at] - sums[at - before]) / before
            rise = _decibels(late + floor) - _decibels(soon + floor)
            best = np.maximum(best, np.where(inside, np.clip(rise, 0.0, MOST_RISE_DB), 0.0))
        total += best
    return total / 2


def _highest(score: Array, wide: int) -> Array:
    """Return the highest of a stretch to either side of each step."""
    padded = np.pad(score, wide, constant_values=0.0)
    windows = np.lib.stride_tricks.sliding_window_view(padded, 2 * wide + 1)
    return np.asarray(windows.max(axis=1))


def _foot(shot: _Shot, near_s: float) -> tuple[float, float]:
    """Return where a strike begins to rise, and how long it rises [s].

    Amplitude over what was before, in the band that rises most; from its tenth and its half the
    foot of a rise like (1 - cos)/2:  t0 = t10 - .69 (t50 - t10).
    """
    at = _steps(near_s - shot.start_s)
    best: tuple[float, float, float] | None = None
    for power in shot.bands:
        low, high = max(at - _steps(0.012), 0), at + _steps(0.05)
        before = power[max(low - _steps(0.02), 0) : low]
        part = power[low:high]
        if len(part) < 4 or not len(before):
            continue
        base = float(before.mean())
        gain = float(part.max()) / max(base, 1e-14)
        amplitude = np.sqrt(np.maximum(part - base, 0.0))
        peak = int(np.argmax(amplitude))
        rising = amplitude[: peak + 1] / max(float(amplitude[peak]), 1e-12)
        t10, t50, t90 = (_crosses(rising, share) for share in (0.15, 0.5, 0.9))
        told = (gain, (low + t10 - 0.6 * (t50 - t10)) * STEP_S, (t90 - t10) * STEP_S)
        if best is None or told[0] > best[0]:
            best = told
    if best is None:
        return near_s, 0.0
    # the envelope's own mean over 3 ms begins half of that sooner
    return shot.start_s + best[1] + SMOOTH_S / 2, max(best[2] - SMOOTH_S / 2, 0.0)


def _crosses(rising: Array, share: float) -> float:
    """Return where a rise crosses a share of its height for the last time before its peak."""
    under = np.nonzero(rising < share)[0]
    if not len(under):
        return 0.0
    last = int(under[-1])
    if last + 1 >= len(rising):
        return float(last)
    low, high = float(rising[last]), float(rising[last + 1])
    return last + (share - low) / max(high - low, 1e-9)


def heard_shots(
    sound: Sound, onsets_s: Sequence[float], ends_s: Sequence[float]
) -> list[HeardShot | None]:
    """Return release and strike of each shot of a recording; None where either is missing.

    Source: `homes`, `strikes`.

    >>> heard_shots(Sound(np.zeros(32000), 16000.0), [0.5], [1.6])
    [None]
    """
    shots = []
    for onset, end in zip(onsets_s, ends_s, strict=True):
        start = max(onset - BEFORE_S, 0.0)
        first = round(start * sound.rate) / sound.rate
        part = sound.part(start, min(onset + AFTER_S, end))
        padded = onset - BEFORE_S
        front = round((start - padded) * sound.rate)
        if front > 0:
            part = Sound(np.concatenate([np.zeros(front), part.samples]), sound.rate)
            first -= front / sound.rate
        if part.seconds < BEFORE_S + STRIKE_FROM_S:
            shots.append(_Shot(first, np.zeros(0), np.zeros((0, 0))))
            continue
        rows = np.array([envelope(part, low, high, SMOOTH_S) for low, high in BANDS_HZ])
        shots.append(_Shot(first, envelope(part, *HIGH_HZ), rows))
    return [heard for heard, _ in strikes(shots, homes(shots))]
