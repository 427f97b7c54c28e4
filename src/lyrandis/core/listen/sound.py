"""Sound as samples and a rate: one channel at the working rate, bands, frames, noise.

Powers are means of squares, full scale 1; levels are 10 log10 of them. Times in s, notes in Hz.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
import numpy.typing as npt

from lyrandis.core.lazy import lazy
from lyrandis.core.numeric import Array

Samples = npt.NDArray[np.floating[Any]]
"""As they were read, single or double: (samples,) or (samples, channels)."""

WORKING_HZ = 16_000.0
PASS_HZ, STOP_HZ = 7600.0, 7950.0
TOP_HZ, TOP_SHARE = 7000.0, 0.45
LEAST_PAD_S = 0.1
LONG_S, PIECE_S = 60.0, 8
"""Longer recordings are brought to the working rate in pieces."""
TINY = 1e-20
ALIKE_DB = 0.5


@dataclass(frozen=True, eq=False)
class Sound:
    """One channel, full scale 1."""

    samples: Array
    """Double; a whole recording at its own rate may stay single, its parts are double."""
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
        """Return what lies between two instants [s], as much of it as there is.

        Source: definition.

        >>> len(Sound(np.zeros(16000), 16000.0).part(0.75, 2.0).samples)
        4000
        """
        first = max(round(start_s * self.rate), 0)
        some = self.samples[first : max(round(end_s * self.rate), first)]
        return Sound(some.astype(np.float64, copy=False), self.rate)


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
    result: Array = 10 * np.log10(np.maximum(power, TINY))
    return result


FRAME_S = 0.02


def frame_levels(channel: Samples, rate: float) -> Array:
    """Return the level of each whole frame of 20 ms [dB].

    Source: definition.

    >>> frame_levels(np.ones(400), 8000.0).tolist()
    [0.0, 0.0]
    """
    size = max(round(FRAME_S * rate), 1)
    whole = channel[: len(channel) // size * size].reshape(-1, size)
    return levels((whole**2).mean(axis=1, dtype=np.float64))


def standing_out(levels_of: Sequence[Array]) -> int:
    """Return which of some channels stands out most of its own silence, by its frame levels.

    The larger 99th less 15th percentile; of those that stand out alike, the louder.
    Source: definition.

    >>> standing_out([np.full(9, -40.0), np.array([-60.0] * 6 + [-10.0] * 3)])
    1
    """
    spans = []
    for result in levels_of:
        if not len(result):
            result = np.zeros(1)
        loud = float(np.percentile(result, 99))
        spans.append((loud - float(np.percentile(result, 15)), loud))
    widest = max(span for span, _ in spans)
    likely = [number for number, (span, _) in enumerate(spans) if span > widest - ALIKE_DB]
    return max(likely, key=lambda number: spans[number][1])


def best_channel(frames: Samples, rate: float) -> Samples:
    """Return the channel that stands out most of its own silence; never their mean.

    Channels of a phone may cancel. `frames` of shape (samples,) or (samples, channels).
    Source: `standing_out`.

    >>> quiet, loud = np.zeros(4000), np.r_[np.zeros(2000), np.ones(2000)]
    >>> best_channel(np.column_stack([quiet, loud]), 8000.0).max()
    np.float64(1.0)
    """
    if frames.ndim == 1 or frames.shape[1] == 1:
        return frames.reshape(-1)
    return frames[:, standing_out([frame_levels(channel, rate) for channel in frames.T])]


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


def at_working_rate(samples: Samples, rate: float) -> Sound:
    """Return a sound at 16 kHz or, where it was recorded lower, as it is.

    What is not a number is silence, and an offset is taken off. Low pass from 7.6 to 7.95 kHz by
    transform, then the spectrum cut off; the rate that results is exact, a little beside 16 kHz.
    What was read single is transformed single: its rounding lies 130 dB under full scale.
    Source: the sampling theorem.

    >>> tone = np.sin(2 * np.pi * 440 * np.arange(48000) / 48000)
    >>> heard = at_working_rate(tone, 48000.0)
    >>> round(heard.rate), round(float(np.mean(heard.samples**2)), 2)
    (16000, 0.5)
    """
    count = len(samples)
    single = samples.dtype == np.float32
    if rate <= WORKING_HZ * 1.001:
        clean = _without_offset(samples.astype(np.float64))
        return Sound(clean, rate)
    if count > LONG_S * rate and float(rate).is_integer():
        return _in_pieces(samples, rate)
    padded = _smooth(count + round(LEAST_PAD_S * rate))
    whole = np.zeros(padded, dtype=np.float32 if single else np.float64)
    whole[:count] = samples
    whole[:count] = _without_offset(whole[:count])
    kept = round(padded * WORKING_HZ / rate)
    kept -= kept % 2
    result = np.fft.rfft(whole)[: kept // 2 + 1].astype(np.complex128)
    del whole
    hz = np.arange(len(result)) * rate / padded
    result *= np.clip((STOP_HZ - hz) / (STOP_HZ - PASS_HZ), 0.0, 1.0)
    lower = np.fft.irfft(result, kept) * (kept / padded)
    new_rate = rate * kept / padded
    return Sound(lower[: round(count * new_rate / rate)], new_rate)


def _in_pieces(samples: Samples, rate: float) -> Sound:
    """Return a long sound at exactly 16 kHz, brought down eight seconds at a time.

    Each piece has half a second of its neighbours on both sides: there the low pass has rung out
    to 110 dB under what rings. A whole transform of three minutes takes hundreds of megabytes.
    """
    per_s, lower = round(rate), round(WORKING_HZ)
    size, beside = PIECE_S * per_s, per_s // 2
    offset = sum(float(np.nan_to_num(samples[at : at + size], posinf=0.0, neginf=0.0)
                       .sum(dtype=np.float64)) for at in range(0, len(samples), size))  # fmt: skip
    offset /= len(samples)
    count = round(len(samples) * lower / per_s)
    result = np.empty(count)
    hz = np.arange((size + 2 * beside) // 2 + 1) * rate / (size + 2 * beside)
    kept = round((size + 2 * beside) * lower / per_s)
    gain = np.clip((STOP_HZ - hz[: kept // 2 + 1]) / (STOP_HZ - PASS_HZ), 0.0, 1.0)
    for first in range(0, len(samples), size):
        piece = np.zeros(size + 2 * beside)
        start = max(first - beside, 0)
        some = np.nan_to_num(samples[start : first + size + beside], posinf=0.0, neginf=0.0)
        piece[start - (first - beside) :][: len(some)] = some - offset
        spectrum = np.fft.rfft(piece)[: kept // 2 + 1] * gain
        low = np.fft.irfft(spectrum, kept)[lower // 2 :] * (kept / len(piece))
        at = first // per_s * lower
        result[at : at + PIECE_S * lower] = low[: min(PIECE_S * lower, count - at)]
    return Sound(result, WORKING_HZ)


def _without_offset(samples: npt.NDArray[Any]) -> npt.NDArray[Any]:
    """Return own samples without what is not a number, and without their mean; written over."""
    np.nan_to_num(samples, copy=False, nan=0.0, posinf=0.0, neginf=0.0)
    if len(samples):
        samples -= samples.dtype.type(samples.mean(dtype=np.float64))
    return samples


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
    result = np.fft.rfft(sound.samples, padded)[: kept // 2 + 1]
    lower = np.fft.irfft(result, kept) * (kept / padded)
    rate = sound.rate * kept / padded
    return Sound(lower[: round(len(sound.samples) * rate / sound.rate)], rate)


def cells_hz(count: int, rate: float) -> Array:
    """Return the notes of a transform's cells.

    Source: definition.

    >>> cells_hz(4, 8.0).tolist()
    [0.0, 2.0, 4.0]
    """
    result: Array = np.arange(count // 2 + 1, dtype=np.float64) * (rate / count)
    return result


def gains(hz: Array, low: float, high: float) -> Array:
    """Return the gain of a band at each note: flat between two ends, soft at both.

    sin(pi/2 clip((f - 0.9 lo)/0.2 lo)) cos(pi/2 clip((f - 0.95 hi)/0.1 hi)). Source: definition.

    >>> gains(np.array([50.0, 100.0, 200.0, 500.0]), 100.0, 400.0).round(2).tolist()
    [0.0, 0.71, 1.0, 0.0]
    """
    result: Array = np.where((hz > 0.9 * low) & (hz < 1.05 * high), 1.0, 0.0)
    for ends, turn in (((0.9 * low, 1.1 * low), np.sin), ((0.95 * high, 1.05 * high), np.cos)):
        soft = (hz > ends[0]) & (hz < ends[1])
        result[soft] *= turn(np.pi / 2 * (hz[soft] - ends[0]) / (ends[1] - ends[0]))
    return result


def band(sound: Sound, low: float, high: float) -> Sound:
    """Return what of a sound lies in a band.

    Source: `gains`, by transform with a tenth of a second of silence behind it.

    >>> tone = Sound(np.sin(2 * np.pi * 440 * np.arange(16000) / 16000), 16000.0)
    >>> round(float(np.mean(band(tone, 1000.0, 2000.0).samples ** 2)), 3)
    0.0
    """
    if sound.seconds > LONG_S:
        return _band_in_pieces(sound, low, high)
    spectrum, padded = sound.padded
    heard = np.fft.irfft(spectrum * _gains_of(padded, sound.rate, low, high), padded)
    return Sound(heard[: len(sound.samples)], sound.rate)


def _band_in_pieces(sound: Sound, low: float, high: float) -> Sound:
    """Return a band of a long sound, eight seconds at a time with a second on both sides."""
    beside = round(sound.rate)
    size = round(PIECE_S * sound.rate)
    result = np.empty(len(sound.samples))
    for first in range(0, len(result), size):
        start = max(first - beside, 0)
        some = Sound(sound.samples[start : first + size + beside], sound.rate)
        heard = band(some, low, high).samples
        result[first : first + size] = heard[first - start :][:size]
    return Sound(result, sound.rate)


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
    result: Array = (sound.samples[: count * size].reshape(count, size) ** 2).mean(axis=1)
    return result


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
    a, b, c, d = (item**2 for item in _A_HZ)
    result: Array = (
        10 ** (_A_AT_1_KHZ_DB / 20)
        * d
        * f2**2
        / ((f2 + a) * np.sqrt((f2 + b) * (f2 + c)) * (f2 + d))
    )
    return result
