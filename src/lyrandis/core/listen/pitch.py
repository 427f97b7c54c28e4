"""The note of a plucked string: one comb for all plucks of a session, in the rig's own series."""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.sound import Sound, at_rate, levels
from lyrandis.core.listen.takes import Take
from lyrandis.core.numeric import Array

FROM_S, TO_S = 0.04, 0.75
LOWERED_HZ, POINTS = 4000.0, 32768
MEDIAN_HZ, MEDIAN_STEP_HZ = 90.0, 8.0
MOST_PEAK_DB = 30.0
GRID, NEAR, FAR = 0.001, 0.8, 1.25
BLIND_HZ = (45.0, 180.0)
"""Where a note is looked for without a rig: it may then be an octave off."""
MOST_PARTIALS, HIGHEST_HZ, BESIDE = 13, 1500.0, 2
FIRST_WEIGHT, EVEN_WEIGHT, FALL = 0.6, 0.5, 0.3
"""Phones lose the fundamental, a pluck in the middle the even ones."""
STANDS_DB, SINGLE_DB, ENOUGH_TAKES, NEAR_HZ, NEAR_SHARE, OFF_SHARE = 8.0, 3.0, 3, 2.0, 0.008, 0.012
"""A partial stands 8 dB out of the mean of three plucks, 3 dB more for each that is missing: in one
pluck alone noise stands out by as much."""
LEAST_SD_HZ = 0.03
CHANGE_SD = 0.001
"""Assumption: a string's note from one evening's pluck to the next, as a share."""
LOW_ONES = -1.5
"""Power of the number a partial counts with: the real series leaves the computed one with it."""


class StringNote(NamedTuple):
    """A string's lowest note, and the partials it was heard in.

    `sd` is that of a repeat on the same rig; how far the series lies beside the computed one stands
    with the tension (`partials.TIPS_SHARE`).
    """

    value: float
    sd: float
    partials: tuple[tuple[int, float], ...] = ()
    """Number and frequency [Hz] of each partial that stood out."""

    @property
    def plus_minus(self) -> float:
        return 2 * self.sd


def note_change(before: StringNote, after: StringNote) -> StringNote | None:
    """Return how many times higher a later note is, by the partials both have.

    The series of the rig drops out, so that it is good to some cents where a note alone is not.
    None where they share fewer than two. Source: mean of the ratios, weighed by number.

    >>> one = StringNote(96.0, 0.1, ((2, 192.0), (3, 288.0)))
    >>> later = StringNote(97.0, 0.1, ((2, 194.0), (3, 291.1), (5, 485.0)))
    >>> round(note_change(one, later).value, 4)
    1.0106
    """
    then, now = dict(before.partials), dict(after.partials)
    both = sorted(then.keys() & now.keys())
    if len(both) < 2:
        return None
    ratio = np.array([now[n] / then[n] for n in both])
    near = np.abs(ratio / np.median(ratio) - 1) <= OFF_SHARE
    ratio, order = ratio[near], np.array(both, dtype=np.float64)[near]
    if len(ratio) < 2:
        return None
    value = float((order * ratio).sum() / order.sum())
    scatter = 1.4826 * float(np.median(np.abs(ratio - np.median(ratio))))
    return StringNote(value, float(np.hypot(scatter / np.sqrt(len(ratio)), CHANGE_SD)))


def note_of(
    sound: Sound, takes: Sequence[Take], series: Sequence[float], expected_hz: float | None
) -> StringNote | None:
    """Return the lowest note of a string over all its plucks; None where it is not heard.

    `series` is f_n/f_1 of the rig's own string (1, 2, 3 ... where nothing is known of it),
    `expected_hz` what the rig's statics say. A weighted comb over the whitened mean spectrum, then
    each partial at its own maximum.
    Source: our own; found in 9 of 10 made-up sessions 20 dB over the room, median 7 cents off.

    >>> at = np.arange(32000) / 16000
    >>> tone = sum(np.sin(2 * np.pi * 96 * n * at) / n for n in (1, 2, 3, 5)) * np.exp(-4 * at)
    >>> tone = tone + np.random.default_rng(1).normal(0, 1e-3, 32000)
    >>> heard = note_of(Sound(tone, 16000.0), [Take(0.0, 1.9, None)], range(1, 14), 100.0)
    >>> round(heard.value, 1)
    96.0
    """
    spectra, cell = [], 0.0
    for take in takes:
        part = sound.part(take.onset_s + FROM_S, min(take.onset_s + TO_S, take.end_s))
        if part.seconds < 0.1:
            continue
        low = at_rate(part, LOWERED_HZ)
        cell = low.rate / POINTS
        window = np.hanning(len(low.samples))
        spectra.append(levels(np.abs(np.fft.rfft(low.samples * window, POINTS)) ** 2))
    if not spectra:
        return None
    whole = np.mean(spectra, axis=0)  # the geometric mean of powers, in dB
    stands = np.mean(
        [np.clip(item - running_median(item, cell), 0.0, MOST_PEAK_DB) for item in spectra], axis=0
    )
    best = _best(stands, cell, series, expected_hz)
    least = STANDS_DB + SINGLE_DB * max(ENOUGH_TAKES - len(spectra), 0)
    return None if best is None else _refined(stands, whole, cell, series, best, least)


def running_median(spectrum: Array, cell_hz: float) -> Array:
    """Return the median over 90 Hz round each cell, worked out every 8 Hz.

    Source: definition.

    >>> running_median(np.r_[np.zeros(100), 50.0, np.zeros(100)], 1.0).max()
    np.float64(0.0)
    """
    half, step = round(MEDIAN_HZ / 2 / cell_hz), max(round(MEDIAN_STEP_HZ / cell_hz), 1)
    at = np.arange(0, len(spectrum), step)
    said = [np.median(spectrum[max(item - half, 0) : item + half + 1]) for item in at]
    result: Array = np.interp(np.arange(len(spectrum)), at, np.array(said, dtype=np.float64))
    return result


def _best(
    stands: Array, cell: float, series: Sequence[float], expected_hz: float | None
) -> float | None:
    low, high = BLIND_HZ if expected_hz is None else (NEAR * expected_hz, FAR * expected_hz)
    tried = low * (1 + GRID) ** np.arange(int(np.log(high / low) / np.log(1 + GRID)) + 1)
    # the largest within two cells on either side
    wide = np.max([np.roll(stands, by) for by in range(-BESIDE, BESIDE + 1)], axis=0)
    score, weights = np.zeros(len(tried)), np.zeros(len(tried))
    for number, ratio in enumerate(series[:MOST_PARTIALS], start=1):
        weight = number**-FALL
        weight *= FIRST_WEIGHT if number == 1 else EVEN_WEIGHT if number % 2 == 0 else 1.0
        hz = ratio * tried
        counts = (hz < HIGHEST_HZ) & (hz < (len(stands) - 3) * cell)
        at = np.minimum(np.round(hz / cell).astype(int), len(stands) - 1)
        score += weight * wide[at] * counts
        weights += weight * counts
    result = score / np.maximum(weights, 1e-9)
    return float(tried[int(np.argmax(result))]) if result.max() > 0 else None


def _refined(
    stands: Array, whole: Array, cell: float, series: Sequence[float], near_hz: float, least: float
) -> StringNote | None:
    """Return the note from each partial that stands out enough, at its own maximum."""
    notes, numbers = [], []
    for number, ratio in enumerate(series[:MOST_PARTIALS], start=1):
        hz = ratio * near_hz
        reach = max(NEAR_HZ, NEAR_SHARE * hz)
        first, last = int((hz - reach) / cell), int((hz + reach) / cell) + 2
        if hz > HIGHEST_HZ or first < 1 or last >= len(whole) - 1:
            continue
        at = first + int(np.argmax(whole[first:last]))
        if stands[at] <= least:
            continue
        a, b, c = whole[at - 1 : at + 2]
        bend = a - 2 * b + c
        off = 0.5 * (a - c) / bend if bend < 0 else 0.0
        notes.append((at + float(np.clip(off, -1, 1))) * cell / ratio)
        numbers.append(number)
    if len(notes) < 2:
        return None
    ratios = np.array(series[:MOST_PARTIALS], dtype=np.float64)
    told, order = np.array(notes), np.array(numbers, dtype=np.float64)
    kept = np.abs(told / np.median(told) - 1) <= OFF_SHARE
    if kept.sum() < 2:
        return None
    told, order = told[kept], order[kept]
    weight = order**LOW_ONES
    value = float((weight * told).sum() / weight.sum())
    scatter = 1.4826 * float(np.median(np.abs(told - np.median(told))))
    hertz = told * ratios[order.astype(int) - 1]
    heard = tuple((int(n), float(hz)) for n, hz in zip(order, hertz, strict=True))
    return StringNote(value, float(np.hypot(scatter / np.sqrt(len(told)), LEAST_SD_HZ)), heard)
