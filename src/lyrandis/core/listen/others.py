"""Takes that sound like another bow: a neighbour's shots in a club, or a door."""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from lyrandis.core.listen.features import Features
from lyrandis.core.listen.sound import levels
from lyrandis.core.numeric import Array

EDGES_HZ: Array = np.geomspace(120.0, 7000.0, 13)
"""Twelve bands, some half an octave each."""
HEARD_S = 0.08
LEAST_TO_TELL = 3
APART_DB, APART_TIMES = 6.5, 1.7
"""Assumption: so far from its own bow's takes, and so many times further than they from each
other, a take is of another bow. Chosen on made-up clubs."""


def of_another_bow(heard: Sequence[Features]) -> tuple[int, ...]:
    """Return the numbers of takes that sound like another bow than most and the loudest.

    Their spectra over the first 80 ms, level and all, lie far from the take that lies in the middle
    of the others. Fewer than three takes tell nothing. Source: our own.

    >>> of_another_bow(())
    ()
    """
    if len(heard) < LEAST_TO_TELL:
        return ()
    spectra = np.array([_spectrum(item) for item in heard])
    apart = np.sqrt(((spectra[:, None] - spectra) ** 2).mean(axis=2))
    loud = np.array([item.peak for item in heard])
    # in the middle: half of the others lie within so much; of two such the louder is one's own
    within = np.sort(apart, axis=1)[:, 1 + (len(heard) - 1) // 2 - 1]
    middle = int(np.argmin(within - 0.3 * (loud - loud.max())))
    usual = float(np.median(np.sort(apart[middle])[1 : 1 + max(len(heard) // 2, 1)]))
    limit = max(APART_DB, APART_TIMES * usual)
    return tuple(number for number, off in enumerate(apart[middle], 1) if off > limit)


def _spectrum(item: Features) -> Array:
    """Return how loud each band is in a take's beginning [dB]."""
    part = item.sound.part(item.take.onset_s - 0.005, item.take.onset_s + HEARD_S)
    power = np.abs(np.fft.rfft(part.samples * np.hanning(len(part.samples)))) ** 2
    hz = np.fft.rfftfreq(len(part.samples), 1 / part.rate)
    bands = np.array([
        power[(hz >= low) & (hz < high)].mean() if ((hz >= low) & (hz < high)).any() else 0.0
        for low, high in pairwise(EDGES_HZ.tolist())
    ])  # fmt: skip
    return levels(bands / max(len(part.samples), 1))
