"""The room: what sounds between the takes, as a spectrum that band powers are freed of."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.listen.sound import Sound, cells_hz, gains
from lyrandis.core.listen.takes import Take
from lyrandis.core.numeric import Array

BLOCK_S = 0.064
BEFORE_S, AFTER_S = 0.06, 1.25
KEPT_SHARE = 0.15
"""No band power falls under this share of the noise: a drowned band looks drowned."""


@dataclass(frozen=True, eq=False)
class RoomNoise:
    """The noise between takes, as power of each cell of a transform."""

    hz: Array
    power: Array

    def of_band(self, low: float, high: float) -> float:
        """Return the noise power of a band [full scale squared], edges in Hz.

        Source: Parseval's theorem.

        >>> RoomNoise(np.array([100.0, 500.0, 2000.0]), np.ones(3)).of_band(300.0, 1000.0)
        1.0
        """
        return float((self.power * gains(self.hz, low, high) ** 2).sum())


def room_of(sound: Sound, takes: Sequence[Take]) -> RoomNoise:
    """Return the noise of a recording: the quieter half of the blocks between takes.

    Blocks of 64 ms under a Hann window, outside -60 ms to +1.25 s of every onset; where takes leave
    nothing, of the whole. Source: mean periodogram.

    >>> hiss = np.random.default_rng(1).normal(0, 0.1, 32000)
    >>> round(room_of(Sound(hiss, 16000.0), ()).of_band(90.0, 7000.0), 4)
    0.0081
    """
    size = round(BLOCK_S * sound.rate)
    window = np.hanning(size)
    blocks = [
        sound.samples[at : at + size]
        for at in range(0, len(sound.samples) - size + 1, size)
        if not any(
            take.onset_s - BEFORE_S < (at + size) / sound.rate and at / sound.rate
            < take.onset_s + AFTER_S for take in takes
        )
    ]  # fmt: skip
    if not blocks:
        count = max(len(sound.samples) // size, 1)
        blocks = [sound.samples[at * size : (at + 1) * size] for at in range(count)]
        blocks = [block for block in blocks if len(block) == size] or [np.zeros(size)]
    spectra = np.abs(np.fft.rfft(np.array(blocks) * window, axis=1)) ** 2
    # one-sided, so that the sum over cells is the mean square
    spectra *= 2 / (size * (window**2).sum())
    loud = spectra.sum(axis=1)
    quiet = spectra[loud <= float(np.median(loud))]
    return RoomNoise(cells_hz(size, sound.rate), quiet.mean(axis=0))
