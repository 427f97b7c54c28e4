"""Release and strike in a recording of shots at a butt: where each is, and how well that is known.

The limbs swell for some milliseconds after the string is home, so the loudest instant is late: the
release is where the high notes begin, the same in all shots of one recording. The strike is where
several bands rise at once, as long after the release in each of them.
"""

import math
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
"""A second beginning so soon after, rising out of what was before, about as loud as the first."""
STRIKE_FROM_S, STRIKE_TO_S = 0.10, 0.95
BANDS_HZ = ((60.0, 150.0), (150.0, 400.0), (400.0, 1200.0), (1200.0, 5000.0))
SMOOTH_S = 0.003
RISES_S = ((0.004, 0.015), (0.020, 0.020))
"""Means after and before: of a hard blow and of a soft one."""
MOST_RISE_DB, STRIKE_RISE_DB = 12.0, 7.0
CLEAR_DB = 8.0
"""Of bands that rise so much the highest tells best when."""
TOGETHER_S = 0.012
"""Strikes of one recording lie within so much of each other, counted from their releases."""
ONSET_SD_S = 0.002
"""Assumption: one standard deviation of an onset."""
LOOSE_SD_S = 0.007
"""Assumption: the same where the loose may have been taken for the string home."""
SOFT_RISE_S, SOFT_SHARE, TOO_SOFT_S = 0.008, 0.35, 0.060
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


def strikes(shots: Sequence[_Shot], found: Sequence[Home | None]) -> list[HeardShot | None]:
    """Return the shots with their strikes, as long after each release as in the others.

    The butt is the same, so its blows rise alike: in the middle of what each shows.
    Source: our own.

    >>> strikes([], [])
    []
    """
    scores = [None if home is None else _scores(shot, home)
              for shot, home in zip(shots, found, strict=True)]  # fmt: skip
    told = [score for score in scores if score is not None]
    if not told:
        return [None] * len(shots)
    wide = _steps(TOGETHER_S)
    near = np.mean([_highest(score, wide) for score in told], axis=0)
    # of a stretch as high the middle: where the strikes themselves lie
    together = int(np.argmax(near + 0.1 * np.mean(told, axis=0)))
    low = max(together - wide, 0)
    feet: list[tuple[float, float] | None] = []
    for shot, home, score in zip(shots, found, scores, strict=True):
        foot = None
        if home is not None and score is not None:
            at = low + int(np.argmax(score[low : together + wide + 1]))
            if score[at] >= STRIKE_RISE_DB:
                foot = _foot(shot, home.at_s + STRIKE_FROM_S + at * STEP_S)
        feet.append(foot)
    rises = [foot[1] for foot in feet if foot is not None]
    rise = float(np.median(rises)) if rises else 0.0
    sd = max(ONSET_SD_S, SOFT_SHARE * rise if rise > SOFT_RISE_S else 0.0)
    result: list[HeardShot | None] = []
    for home, score, foot in zip(found, scores, feet, strict=True):
        if home is None or score is None or foot is None:
            result.append(None)
            continue
        own = int(np.argmax(score))
        other = home.at_s + STRIKE_FROM_S + own * STEP_S if abs(own - together) > 2 * wide else None
        over = float(score[low : together + wide + 1].max())
        result.append(HeardShot(home.at_s, foot[0] - rise / 2, over, rise, other, home.sd_s, sd))
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
    """Return the middle of a strike's rise, and how long it rises [s].

    In the highest band that rises clearly; freed of what the band and its mean
    lengthen it by:  R^2 = ((t50 - t15)^2 - d^2)/.246^2, of a rise like (1 - cos)/2.
    """
    at = _steps(near_s - shot.start_s)
    told: list[tuple[float, float, float]] = []
    for power, (low_hz, high_hz) in zip(shot.bands, BANDS_HZ, strict=True):
        low, high = max(at - _steps(0.012), 0), at + _steps(0.05)
        before = power[max(low - _steps(0.02), 0) : low]
        part = power[low:high]
        if len(part) < 4 or not len(before):
            continue
        base = float(before.mean())
        amplitude = np.sqrt(np.maximum(part - base, 0.0))
        top = float(amplitude.max())
        gain = 10 * math.log10(max(float(part.max()), 1e-14) / max(base, 1e-14))
        t15, t50 = _crossings(amplitude / max(top, 1e-12))
        blurred = math.hypot(0.4 / (high_hz - low_hz), 0.3 * SMOOTH_S)
        rise = math.sqrt(max(((t50 - t15) * STEP_S) ** 2 - blurred**2, 0.0)) / 0.246
        told.append((gain, (low + t50) * STEP_S, rise))
    if not told:
        return near_s, 0.0
    clear = [one for one in told if one[0] >= CLEAR_DB]
    _, middle, rise = clear[-1] if clear else max(told)
    # the mean over 3 ms is half way up in amplitude a quarter of that too soon
    return shot.start_s + middle + SMOOTH_S / 4, rise


def _crossings(rising: Array) -> tuple[float, float]:
    """Return where an amplitude last leaves 15 % of its height, and first crosses half.

    Between steps too.
    """
    half = int(np.argmax(rising >= 0.5))
    under = np.nonzero(rising[:half] < 0.15)[0]
    low = int(under[-1]) + 1 if len(under) else 0

    def between(at: int, share: float) -> float:
        if at == 0:
            return 0.0
        before, here = float(rising[at - 1]), float(rising[at])
        return at - 1 + (share - before) / max(here - before, 1e-9)

    return between(low, 0.15), between(half, 0.5)


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
    return strikes(shots, homes(shots))
