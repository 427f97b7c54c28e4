"""A second, lower pitch beside the string's own: a strand that hangs slack. Only ever a hint.

Each partial's neighbourhood is brought down to nought and a few decaying poles are fitted to all
plucks together; a slack strand sounds the same share lower beside every partial.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.sound import Sound, at_rate
from lyrandis.core.listen.takes import Take
from lyrandis.core.numeric import Array, Complex

LOWERED_HZ, HIGHEST_HZ = 4000.0, 1500.0
PARTIALS = range(2, 10)
HALF_SHARE, HALF_HZ = 0.10, (22.0, 70.0)
TAKE_S, FROM_S, LONG_S = 0.5, 0.012, 0.30
POLES = 3
MAIN_RING_S, SHORT_PENALTY_HZ, LOUD_BONUS_HZ = 0.08, 100.0, 0.05
OFF_SHARE, OFF_HZ = 0.012, 2.0
RING_S, DOWN_DB = (0.06, 1.2), 22.0
SLACK = (0.925, 0.987, 0.001)
"""A slack strand is only ever lower."""
MAYBE, POINTS = 12.0, 15.0


class Beside(NamedTuple):
    """A pole beside a partial."""

    partial: int
    ratio: float
    under_db: float


class Second(NamedTuple):
    """How strongly a second pitch is heard, and how far below the first it lies."""

    strength: float
    ratio: float


def second_pitch(
    sound: Sound, takes: Sequence[Take], series: Sequence[float], note_hz: float
) -> Second:
    """Return the second pitch that fits best beside the string's partials.

    second(q) = sum over partials of the best 22 + min(a, 0) - 12 |r - q|/0.006, over sqrt(8). From
    12 "maybe", from 15 "points to". Source: our own; right when it speaks within 0.003, and found
    in half of made-up slack strands 20 dB over the room.

    >>> second_pitch(Sound(np.zeros(16000), 16000.0), (), (1.0,), 96.0)
    Second(strength=0.0, ratio=1.0)
    """
    result: list[Beside] = []
    for number in PARTIALS:
        if number > len(series):
            break
        hz = series[number - 1] * note_hz
        half = min(max(HALF_SHARE * hz, HALF_HZ[0]), HALF_HZ[1])
        if hz + half < HIGHEST_HZ:
            result += _beside(sound, takes, number, hz, half)
    if not result:
        return Second(0.0, 1.0)
    tried = np.arange(SLACK[0], SLACK[1] + SLACK[2] / 2, SLACK[2])
    strengths = [_strength(result, float(q), note_hz) for q in tried]
    best = int(np.argmax(strengths))
    return Second(strengths[best], round(float(tried[best]), 3))


def _strength(found: Sequence[Beside], q: float, note_hz: float) -> float:
    total = 0.0
    for number in PARTIALS:
        near = 0.0035 + 0.6 / (number * note_hz)
        best = max(
            (
                DOWN_DB + min(item.under_db, 0.0) - 12 * abs(item.ratio - q) / 0.006
                for item in found
                if item.partial == number and abs(item.ratio - q) < near
            ),
            default=0.0,
        )
        total += max(best, 0.0)
    return total / math.sqrt(len(PARTIALS))


def _beside(
    sound: Sound, takes: Sequence[Take], number: int, hz: float, half: float
) -> list[Beside]:
    """Return the poles beside one partial, over all takes."""
    rows, step_s = [], 0.0
    for take in takes:
        low = at_rate(sound.part(take.onset_s, min(take.onset_s + TAKE_S, take.end_s)), LOWERED_HZ)
        step = max(int(low.rate / (2.6 * half)), 1)
        step_s = step / low.rate
        start = round(FROM_S * low.rate)
        rows.append(_brought_down(low, hz, half)[start::step][: int(LONG_S / step_s)])
    shortest = min((len(row) for row in rows), default=0)
    if shortest < 2 * POLES + 4:
        return []
    cut = [row[:shortest] for row in rows]
    poles = _poles(cut)
    if not len(poles):
        return []
    hertz = np.angle(poles) / (2 * np.pi * step_s)
    ring = 6.908 * step_s / np.maximum(-np.log(np.maximum(np.abs(poles), 1e-9)), 1e-9)
    loud = 10 * np.log10(np.maximum(_powers(cut, poles), 1e-30))
    cost = np.abs(hertz) + SHORT_PENALTY_HZ * (ring < MAIN_RING_S) - LOUD_BONUS_HZ * loud
    main = int(np.argmin(cost))
    if abs(hertz[main]) > OFF_SHARE * hz + OFF_HZ:
        return []
    return [
        Beside(number, 1 + float(hertz[i] - hertz[main]) / hz, float(loud[i] - loud[main]))
        for i in range(len(poles))
        if i != main and RING_S[0] <= ring[i] <= RING_S[1] and loud[i] > loud[main] - DOWN_DB
    ]


def _brought_down(low: Sound, hz: float, half: float) -> Complex:
    """Return a partial's neighbourhood, its middle at nought."""
    count = len(low.samples)
    result = np.fft.fft(low.samples)
    at = np.fft.fftfreq(count, 1 / low.rate)
    result *= np.clip((1.25 * half - np.abs(at - hz)) / (0.25 * half), 0.0, 1.0)
    turned: Complex = np.fft.ifft(result) * np.exp(-2j * np.pi * hz * np.arange(count) / low.rate)
    return turned


def _poles(rows: Sequence[Complex]) -> Complex:
    """Return the poles common to all rows: Hankel matrices side by side, three left vectors."""
    half = len(rows[0]) // 2
    sides = [
        np.lib.stride_tricks.sliding_window_view(row, len(row) - half)[: half + 1] for row in rows
    ]
    left, size, _ = np.linalg.svd(np.hstack(sides), full_matrices=False)
    if size[0] <= 1e-12:
        return np.empty(0, dtype=np.complex128)
    vectors = left[:, :POLES]
    result: Complex = np.linalg.eigvals(np.linalg.pinv(vectors[:-1]) @ vectors[1:])
    return result


def _powers(rows: Sequence[Complex], poles: Complex) -> Array:
    """Return the power of each pole, summed over the rows."""
    basis = poles[None, :] ** np.arange(len(rows[0]))[:, None]
    told = [np.abs(np.linalg.lstsq(basis, row, rcond=None)[0]) ** 2 for row in rows]
    result: Array = np.sum(told, axis=0)
    return result
