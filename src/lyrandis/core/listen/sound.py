"""Sound as samples and a rate: one channel at the working rate, bands, frames, noise.

Powers are means of squares, full scale 1; levels are 10 log10 of them. Times in s, notes in Hz.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
import numpy.typing as npt

from lyrandis.core.lazy import lazy

Array = npt.NDArray[np.float64]
Samples = npt.NDArray[np.floating[Any]]
"""As they were read, single or double: (samples,) or (samples, channels)."""

WORKING_HZ = 16_000.0
PASS_HZ, STOP_HZ = 7600.0, 7950.0
TOP_HZ, TOP_SHARE = 7000.0, 0.45
LEAST_PAD_S = 0.1
TINY = 1e-20
ALIKE_DB = 0.5


@dataclass(frozen=True, eq=False)
class Sound:
    """One channel, full scale 1."""

    samples: Array
    rate: float

    @property
    def seconds(self) -> float:
        return len(self.samples) / self.rate

    @property
    def top_hz(self) -> float:
        """The highest note that is judged."""
        return min(TOP_HZ, TOP_SHARE * self.rate)

    @lazy
    def per_ms(self) -> int:
        """Samples of a millisecond, rounded: cut off, 15,999.9 Hz would drift by 25 ms in 5 s."""
        return round(self.rate / 1000)

    @lazy
    def padded(self) -> tuple[npt.NDArray[np.complex128], int]:
        """Its spectrum with a tenth of a second of silence behind it, and the length of both."""
        count = _smooth(len(self.samples) + round(LEAST_PAD_S * self.rate))
        return np.fft.rfft(self.samples, count), count

    def part(self, start_s: float, end_s: float) -> "Sound":
        """Return what lies between two instants, as much of it as there is."""
        first = max(round(start_s * self.rate), 0)
        return Sound(self.samples[first : max(round(end_s * self.rate), first)], self.rate)


def level(power: float) -> float:
    """Return a power in dB under full scale.

    Source: definition.

    >>> round(level(0.5), 1)
    -3.0
    """
    return 10 * math.log10(max(power, TINY))


def levels(power: Array) -> Array:
    """Return powers in dB.

    Source: definition.

    >>> levels(np.array([1.0, 0.1])).tolist()
    [0.0, -10.0]
    """
    found: Array = 10 * np.log10(np.maximum(power, TINY))
    return found


def best_channel(frames: Samples, rate: float) -> Array:
    """Return the channel that stands out most of its own silence; never their mean.

    The larger 99th less 15th percentile of 20 ms frame levels. Channels of a phone may cancel.
    `frames` of shape (samples, channels). Source: definition.

    >>> quiet, loud = np.zeros(4000), np.r_[np.zeros(2000), np.ones(2000)]
    >>> best_channel(np.column_stack([quiet, loud]), 8000.0).max()
    np.float64(1.0)
    """
    if frames.ndim == 1 or frames.shape[1] == 1:
        return frames.reshape(-1).astype(np.float64)
    size = max(round(0.02 * rate), 1)
    spans = []
    for channel in frames.T:
        whole = channel[: len(channel) // size * size].reshape(-1, size)
        said = levels((whole**2).mean(axis=1)) if len(whole) else np.zeros(1)
        loud = float(np.percentile(said, 99))
        spans.append((loud - float(np.percentile(said, 15)), loud))
    widest = max(span for span, _ in spans)
    # of those that stand out alike, the louder
    likely = [number for number, (span, _) in enumerate(spans) if span > widest - ALIKE_DB]
    chosen = max(likely, key=lambda number: spans[number][1])
    found: Array = frames[:, chosen].astype(np.float64)
    return found


def _smooth(length: int) -> int:
    """Return the next length that is quick to transform: 2^a 3^b 5^c."""
    best = 1 << max(length - 1, 1).bit_length()
    fives = 1
    while fives < best:
        threes = fives
        while threes < best:
            twos = threes
            while twos < length:
                twos *= 2
            best = min(best, twos)
            threes *= 3
        fives *= 5
    return best


def at_working_rate(samples: Array, rate: float) -> Sound:
    """Return a sound at 16 kHz or, where it was recorded lower, as it is.

    What is not a number is silence, and an offset is taken off. Low pass from 7.6 to 7.95 kHz by
    transform, then the spectrum cut off; the rate that results is exact, a little beside 16 kHz.
    Source: the sampling theorem.

    >>> tone = np.sin(2 * np.pi * 440 * np.arange(48000) / 48000)
    >>> heard = at_working_rate(tone, 48000.0)
    >>> round(heard.rate), round(float(np.mean(heard.samples**2)), 2)
    (16000, 0.5)
    """
    clean = np.nan_to_num(np.asarray(samples, dtype=np.float64), nan=0.0, posinf=0.0, neginf=0.0)
    clean = clean - clean.mean() if len(clean) else clean
    if rate <= WORKING_HZ * 1.001:
        return Sound(clean, rate)
    padded = _smooth(len(clean) + round(LEAST_PAD_S * rate))
    kept = round(padded * WORKING_HZ / rate)
    kept -= kept % 2
    found = np.fft.rfft(clean, padded)[: kept // 2 + 1]
    hz = np.arange(len(found)) * rate / padded
    found *= np.clip((STOP_HZ - hz) / (STOP_HZ - PASS_HZ), 0.0, 1.0)
    lower = np.fft.irfft(found, kept) * (kept / padded)
    new_rate = rate * kept / padded
    return Sound(lower[: round(len(clean) * new_rate / rate)], new_rate)


def at_rate(sound: Sound, wished_hz: float) -> Sound:
    """Return a sound at about a lower rate, its spectrum cut off there.

    Source: the sampling theorem; the rate that results is exact.

    >>> tone = Sound(np.sin(2 * np.pi * 440 * np.arange(16000) / 16000), 16000.0)
    >>> round(at_rate(tone, 4000.0).rate)
    4000
    """
    if wished_hz >= sound.rate:
        return sound
    padded = _smooth(len(sound.samples))
    kept = round(padded * wished_hz / sound.rate)
    kept -= kept % 2
    found = np.fft.rfft(sound.samples, padded)[: kept // 2 + 1]
    lower = np.fft.irfft(found, kept) * (kept / padded)
    rate = sound.rate * kept / padded
    return Sound(lower[: round(len(sound.samples) * rate / sound.rate)], rate)


def cells_hz(count: int, rate: float) -> Array:
    """Return the notes of a transform's cells.

    Source: definition.

    >>> cells_hz(4, 8.0).tolist()
    [0.0, 2.0, 4.0]
    """
    found: Array = np.arange(count // 2 + 1, dtype=np.float64) * (rate / count)
    return found


def gains(hz: Array, low: float, high: float) -> Array:
    """Return the gain of a band at each note: flat between two ends, soft at both.

    sin(pi/2 clip((f - 0.9 lo)/0.2 lo)) cos(pi/2 clip((f - 0.95 hi)/0.1 hi)). Source: definition.

    >>> gains(np.array([50.0, 100.0, 200.0, 500.0]), 100.0, 400.0).round(2).tolist()
    [0.0, 0.71, 1.0, 0.0]
    """
    rise = np.clip((hz - 0.9 * low) / (0.2 * low), 0, 1)
    fall = np.clip((hz - 0.95 * high) / (0.1 * high), 0, 1)
    found: Array = np.sin(np.pi / 2 * rise) * np.cos(np.pi / 2 * fall)
    return found


def band(sound: Sound, low: float, high: float) -> Sound:
    """Return what of a sound lies in a band.

    Source: `gains`, by transform with a tenth of a second of silence behind it.

    >>> tone = Sound(np.sin(2 * np.pi * 440 * np.arange(16000) / 16000), 16000.0)
    >>> round(float(np.mean(band(tone, 1000.0, 2000.0).samples ** 2)), 3)
    0.0
    """
    spectrum, padded = sound.padded
    heard = np.fft.irfft(spectrum * _gains_of(padded, sound.rate, low, high), padded)
    return Sound(heard[: len(sound.samples)], sound.rate)


@lru_cache(maxsize=64)
def _gains_of(count: int, rate: float, low: float, high: float) -> Array:
    return gains(cells_hz(count, rate), low, high)


def frames(sound: Sound, ms: int = 1) -> Array:
    """Return the power of each frame of so many ms; the last, incomplete one left out.

    Source: definition.

    >>> frames(Sound(np.ones(48), 16000.0)).tolist()
    [1.0, 1.0, 1.0]
    """
    size = sound.per_ms * ms
    count = len(sound.samples) // size
    found: Array = (sound.samples[: count * size].reshape(count, size) ** 2).mean(axis=1)
    return found


# A weighting: the curve of IEC 61672, 0 dB at 1 kHz
_A_HZ = (20.598997, 107.65265, 737.86223, 12194.217)
_A_AT_1_KHZ_DB = 1.9997


def a_weight(hz: Array) -> Array:
    """Return the gain of A weighting at each note.

    Source: IEC 61672-1, the analytic curve.

    >>> (20 * np.log10(a_weight(np.array([100.0, 1000.0, 8000.0])))).round(2).tolist()
    [-19.14, 0.0, -1.15]
    """
    f2 = hz**2
    a, b, c, d = (one**2 for one in _A_HZ)
    found: Array = (
        10 ** (_A_AT_1_KHZ_DB / 20)
        * d
        * f2**2
        / ((f2 + a) * np.sqrt((f2 + b) * (f2 + c)) * (f2 + d))
    )
    return found
