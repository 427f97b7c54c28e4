"""Takes drawn: the wave of each from its onset, as least and most of narrow columns; a spectrogram.

For drawing only; every number comes from the samples themselves.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from lyrandis.core.listen.sound import Sound, levels

FROM_S, TO_S, COLUMN_S = -0.02, 0.2, 0.0005
TRACE_STEPS = 100
"""Full height of a drawing, either way."""
PICTURE_FROM_S, PICTURE_TO_S, HOP_S, WINDOW_S = -0.04, 0.36, 0.004, 0.016
ROWS, LOW_HZ = 56, 80.0
PICTURE_DB = 60.0
OVERVIEW = 480
"""Columns a whole recording is drawn in."""


@dataclass(frozen=True, slots=True)
class Trace:
    """One take: for each column the least and the most, in hundredths of the recording's peak."""

    low: tuple[int, ...]
    high: tuple[int, ...]


def traces(
    sound: Sound,
    onsets_s: Sequence[float],
    *,
    from_s: float = FROM_S,
    to_s: float = TO_S,
    columns: int | None = None,
) -> tuple[Trace, ...]:
    """Return takes from 20 ms before their onsets to 200 ms after, all to one scale.

    Source: definition.

    >>> found = traces(Sound(np.ones(16000), 16000.0), [0.5])
    >>> len(found[0].low), found[0].high[0]
    (440, 100)
    """  # fmt: skip
    count = columns or round((to_s - from_s) / COLUMN_S)
    pieces = []
    for onset in onsets_s:
        edges = np.round((onset + np.linspace(from_s, to_s, count + 1)) * sound.rate).astype(int)
        edges = np.clip(edges, 0, len(sound.samples))
        pieces.append([sound.samples[a : max(b, a + 1)] for a, b in pairwise(edges)])
    peak = max((float(np.abs(item).max(initial=0.0)) for piece in pieces for item in piece),
               default=0.0) or 1.0  # fmt: skip
    return tuple(
        Trace(
            tuple(round(TRACE_STEPS * float(item.min(initial=0.0)) / peak) for item in piece),
            tuple(round(TRACE_STEPS * float(item.max(initial=0.0)) / peak) for item in piece),
        )
        for piece in pieces
    )


def overview(sound: Sound) -> tuple[int, ...]:
    """Return a whole recording's loudness, in hundredths of 60 dB under its loudest.

    Source: definition.

    >>> set(overview(Sound(np.ones(16000), 16000.0)))
    {100}
    """
    if not len(sound.samples):
        return ()
    edges = np.linspace(0, len(sound.samples), OVERVIEW + 1).astype(int)
    power = np.add.reduceat(np.square(sound.samples, dtype=np.float64), edges[:-1])
    said = levels(power / np.maximum(np.diff(edges), 1))
    part = np.clip(1 + (said - said.max()) / PICTURE_DB, 0.0, 1.0)
    return tuple((TRACE_STEPS * part).round().astype(int).tolist())


class Picture(NamedTuple):
    """A spectrogram: rows from low to high, columns in time, 0 to 60 dB under its loudest."""

    from_ms: float
    hop_ms: float
    rows_hz: tuple[float, ...]
    cells: tuple[tuple[int, ...], ...]


def picture(sound: Sound, onset_s: float) -> Picture:
    """Return the spectrogram of one take, notes in steps of equal ratio.

    Source: power of Hann windows of 16 ms, 4 ms apart.

    >>> found = picture(Sound(np.zeros(16000), 16000.0), 0.5)
    >>> len(found.cells), len(found.cells[0])
    (56, 100)
    """
    size = round(WINDOW_S * sound.rate)
    window = np.hanning(size)
    times = np.arange(PICTURE_FROM_S, PICTURE_TO_S - 1e-9, HOP_S)
    edges = LOW_HZ * (sound.top_hz / LOW_HZ) ** (np.arange(ROWS + 1) / ROWS)
    points = 4 * size
    hz = np.fft.rfftfreq(points, 1 / sound.rate)
    powers = np.zeros((ROWS, len(times)))
    rows = np.clip(np.searchsorted(hz, edges), 0, len(hz) - 1)
    for column, time in enumerate(times):
        first = round((onset_s + time - WINDOW_S / 2) * sound.rate)
        part = np.zeros(size)
        inside = sound.samples[max(first, 0) : max(first + size, 0)]
        start = max(-first, 0)
        part[start : start + len(inside)] = inside[: size - start]
        power = np.abs(np.fft.rfft(part * window, points)) ** 2
        for row in range(ROWS):
            powers[row, column] = power[rows[row] : max(rows[row + 1], rows[row] + 1)].mean()
    said = levels(powers)
    top = float(said.max()) if math.isfinite(float(said.max())) else 0.0
    cells = np.clip(said - top + PICTURE_DB, 0, PICTURE_DB).round().astype(int)
    middles = np.sqrt(edges[:-1] * edges[1:])
    return Picture(
        1000 * PICTURE_FROM_S,
        1000 * HOP_S,
        tuple(round(float(middle), 1) for middle in middles),
        tuple(tuple(int(cell) for cell in row) for row in cells),
    )
