"""What one take is like: how loud, how bright, how long each band rings, what rattles in it.

Levels are dB under full scale and mean something only beside others of the same session.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.lazy import lazy
from lyrandis.core.listen.noise import KEPT_SHARE, RoomNoise
from lyrandis.core.listen.sound import (
    Sound,
    a_weight,
    band,
    cells_hz,
    frames,
    gains,
    level,
    levels,
)
from lyrandis.core.listen.takes import Take
from lyrandis.core.numeric import Array

LEVEL_FROM_S, LEVEL_TO_S, LEVEL_LOW_HZ = -0.03, 0.15, 60.0
LOW_HZ, LONG_BEFORE_S = 90.0, 0.1
OCTAVES_HZ = (125.0, 250.0, 500.0, 1000.0, 2000.0, 4000.0)
FIVE_BANDS_HZ = ((70, 250), (250, 700), (700, 1800), (1800, 4000), (4000, 7000))
FIVE_WINDOWS_MS = ((-25, -4), (0, 12), (12, 40), (40, 110), (110, 300))
SPIKE_BAND_HZ, SPIKE_FROM_MS, SPIKE_TO_MS = 1800.0, 30, 350
SPIKE_DB, SPIKE_BASE, SPIKE_AROUND, SPIKE_SAME_DB, SPIKE_MOST_DB = 5.0, 8, 12, 4.0, 20.0
BURSTS_FROM_MS, BURSTS_TO_MS, BURST_DOWN_DB, BURST_NOISE_DB = -21, 46, 12.0, 6.0
SYNC_MS, SLAP_MS, SYNC_MEAN = (6, 150), (3, 60), 25
DECAY_FROM_DB, DECAY_TO_DB, DECAY_FRAMES, DECAY_NOISE = -5.0, -20.0, 4, 1.6


@dataclass(frozen=True)
class Spikes:
    """Short bright bursts while a take rings: those that come back each period, and those that do
    not."""

    rep: float
    """Per 100 ms."""
    unrep: float
    excess: float
    """Their mean height over what lies round them, 20 dB at most."""
    at_ms: tuple[int, ...] = ()
    """When they were, after the onset."""


@dataclass(frozen=True)
class Crack:
    """What is bright round the release: one thump, or several clicks."""

    bursts: int
    spread_ms: float
    """Standard deviation of its power in time."""
    crest_db: float
    """Its highest millisecond over the mean."""
    at_ms: tuple[int, ...] = ()


@dataclass(frozen=True, eq=False)
class Features:
    """One take, listened to in its room. `period_s` is that of the string's lowest note."""

    sound: Sound
    take: Take
    room: RoomNoise
    period_s: float

    def _part(self, start_s: float, end_s: float) -> Sound:
        end = min(self.take.onset_s + end_s, self.take.end_s)
        return self.sound.part(self.take.onset_s + start_s, end)

    @lazy
    def level(self) -> float:
        """A-weighted energy from 30 ms before the onset to 150 after it [dB]."""
        part = self._part(LEVEL_FROM_S, LEVEL_TO_S)
        count = 1 << max(len(part.samples) - 1, 1).bit_length()
        result = np.fft.rfft(part.samples, count)
        hz = cells_hz(count, part.rate)
        weighted = np.abs(result * a_weight(hz) * gains(hz, LEVEL_LOW_HZ, part.top_hz)) ** 2
        energy = (2 * weighted.sum() - weighted[0]) / count
        return level(energy / part.rate)

    @lazy
    def _long(self) -> Sound:
        """The whole take, from a tenth of a second before its onset."""
        return self._part(-min(LONG_BEFORE_S, self.take.onset_s), 2.0)

    @lazy
    def _ringing(self) -> Sound:
        """The take over 90 Hz, from its onset on."""
        early = 0.05
        part = band(self._part(-early, 2.0), LOW_HZ, self.sound.top_hz)
        before = min(early, self.take.onset_s)
        return part.part(before, part.seconds)

    @lazy
    def peak(self) -> float:
        """The largest sample of the first 150 ms [dB]."""
        first = self._ringing.part(0, 0.15).samples
        return level(float(np.abs(first).max(initial=0.0)) ** 2)

    @lazy
    def snr(self) -> float:
        """Mean power of the first 300 ms over the room's [dB]."""
        power = float((self._ringing.part(0, 0.3).samples ** 2).mean())
        noise = self.room.of_band(LOW_HZ, self.sound.top_hz)
        return level(power) - level(noise)

    @lazy
    def centroid(self) -> float:
        """Where its power lies in the spectrum: brightness [Hz]."""
        part = self._part(0.0, 0.25).samples
        falling = np.hanning(2 * len(part))[len(part) :]
        count = 1 << max(len(part) - 1, 1).bit_length()
        power: Array = np.abs(np.fft.rfft(part * falling, count)) ** 2
        hz = cells_hz(count, self.sound.rate)
        power *= gains(hz, LOW_HZ, self.sound.top_hz) ** 2
        return float((power * hz).sum() / max(power.sum(), 1e-30))

    def t60(self, octave_hz: float) -> float | None:
        """Return how long an octave takes to fall by 60 dB [s]; None where it is not measurable.

        From its maximum to where the 10 ms mean falls into the noise; less the noise, integrated
        backwards, a line through -5 to -20 dB. Source: backward integration; here of e^(-8 t),
        which takes 3 ln(10)/8 s.

        >>> from lyrandis.core.listen.noise import room_of
        >>> at = np.arange(40000) / 16000
        >>> tone = np.where(at > 0.5, np.sin(500 * np.pi * at) * np.exp(-8 * (at - 0.5)), 0)
        >>> heard = Sound(tone + 1e-4 * np.cos(at * 9e3), 16000.0)
        >>> take = Take(0.5, 1.8, None)
        >>> found = Features(heard, take, room_of(heard, [take]), 1 / 80)
        >>> round(found.t60(250.0), 2)
        0.86
        """
        low, high = octave_hz / math.sqrt(2), octave_hz * math.sqrt(2)
        if high > self.sound.rate / 2:
            return None
        early = min(LONG_BEFORE_S, self.take.onset_s)
        part = band(self._long, low, high)
        power = frames(part)
        start = round(early * 1000)
        if len(power) <= start + 20:
            return None
        start += int(np.argmax(power[start : start + 60]))
        noise = self.room.of_band(low, high)
        mean = np.convolve(power[start:], np.ones(10) / 10, mode="valid")
        under = np.nonzero(mean < DECAY_NOISE * noise)[0]
        end = start + (int(under[0]) if len(under) else len(mean))
        tail = np.maximum(power[start:end] - noise, 0.0)[::-1].cumsum()[::-1]
        if len(tail) < DECAY_FRAMES or tail[0] <= 0:
            return None
        fall = levels(tail / tail[0])
        used = np.nonzero((fall <= DECAY_FROM_DB) & (fall >= DECAY_TO_DB))[0]
        if len(used) < DECAY_FRAMES or fall.min() > DECAY_TO_DB:
            return None
        ms = self.sound.per_ms / self.sound.rate
        slope = float(np.polyfit(used * ms, fall[used], 1)[0])
        return -60.0 / slope if slope < 0 else None

    @lazy
    def z(self) -> Array:
        """Powers of five bands in five windows [dB], free of the room's noise."""
        result = np.zeros((len(FIVE_BANDS_HZ), len(FIVE_WINDOWS_MS)))
        early = min(0.06, self.take.onset_s)
        whole = self._part(-early, 0.4)
        for b, (low, high) in enumerate(FIVE_BANDS_HZ):
            top = min(high, self.sound.top_hz)
            part = band(whole, low, top) if low < top else None
            noise = self.room.of_band(low, top) if part else 0.0
            for w, (start, end) in enumerate(FIVE_WINDOWS_MS):
                power = 0.0
                if part is not None:
                    heard = part.part(early + start / 1000, early + end / 1000).samples
                    power = float((heard**2).mean()) if len(heard) else 0.0
                result[b, w] = level(max(power - noise, KEPT_SHARE * noise))
        return result

    def d(self, b: int, w: int) -> float:
        """Return how a band falls from its first window to another [dB]: free of gain and phone.

        `b` 0 to 4, `w` 0 to 4. Source: definition.

        >>> from lyrandis.core.listen.noise import room_of
        >>> at = np.arange(40000) / 16000
        >>> tone = np.where(at > 0.5, np.sin(500 * np.pi * at) * np.exp(-8 * (at - 0.5)), 0)
        >>> heard = Sound(tone + 1e-4 * np.cos(at * 9e3), 16000.0)
        >>> take = Take(0.5, 1.8, None)
        >>> found = Features(heard, take, room_of(heard, [take]), 1 / 80)
        >>> found.d(0, 1)
        0.0
        """
        return float(self.z[b, w] - self.z[b, 1])

    @lazy
    def _bright_from(self) -> tuple[Array, int]:
        """Frames of 1 ms over 1.8 kHz from 60 ms before the onset, and which one the onset is."""
        early = min(0.06, self.take.onset_s)
        part = band(self._part(-early, 0.5), SPIKE_BAND_HZ, self.sound.top_hz)
        return frames(part), round(early * 1000)

    @lazy
    def _bright(self) -> tuple[Array, float]:
        """The same from the onset on, and the noise there."""
        power, onset = self._bright_from
        return power[onset:], self.room.of_band(SPIKE_BAND_HZ, self.sound.top_hz)

    @lazy
    def crack(self) -> Crack:
        """What is bright from 21 ms before the onset to 46 after it, smoothed over three ms."""
        power, onset = self._bright_from
        noise = self._bright[1]
        first = max(onset + BURSTS_FROM_MS, 0)
        smooth = np.convolve(power[first : onset + BURSTS_TO_MS + 1], (0.25, 0.5, 0.25), "same")
        if len(smooth) < 3 or smooth.max() <= 0:
            return Crack(0, 0.0, 0.0)
        said = levels(smooth)
        least = max(float(said.max()) - BURST_DOWN_DB, level(noise) + BURST_NOISE_DB)
        inner = said[1:-1]
        peaks = (inner >= said[:-2]) & (inner > said[2:]) & (inner > least)
        at = np.arange(len(smooth), dtype=np.float64)
        weight = smooth / smooth.sum()
        middle = float((weight * at).sum())
        spread = math.sqrt(float((weight * (at - middle) ** 2).sum()))
        crest = float(said.max()) - level(float(smooth.mean()))
        times = tuple(int(item) + 1 + first - onset for item in np.nonzero(peaks)[0])
        return Crack(len(times), spread, crest, times)

    def in_step(self, window_ms: tuple[int, int]) -> float:
        """Return how far bright sound comes back with the string's period: -1 to 1.

        Autocorrelation at one period of the root of the power, less its mean over 25 ms; 0 for a
        window shorter than that. Source: autocorrelation, normed by its value at no lag.

        >>> from lyrandis.core.listen.noise import room_of
        >>> at = np.arange(40000) / 16000
        >>> tone = np.where(at > 0.5, np.sin(500 * np.pi * at) * np.exp(-8 * (at - 0.5)), 0)
        >>> heard = Sound(tone + 1e-4 * np.cos(at * 9e3), 16000.0)
        >>> take = Take(0.5, 1.8, None)
        >>> found = Features(heard, take, room_of(heard, [take]), 1 / 80)
        >>> -1 <= found.in_step((0, 200)) <= 1, found.in_step((0, 30))
        (True, 0.0)
        """
        power = self._bright[0]
        root = np.sqrt(power[window_ms[0] : window_ms[1]])
        lag = round(self.period_s * 1000)
        if len(root) < lag + SYNC_MEAN:
            return 0.0
        root = root - np.convolve(root, np.ones(SYNC_MEAN) / SYNC_MEAN, "same")
        size = float((root**2).sum())
        return float((root[lag:] * root[:-lag]).sum()) / size if size > 0 else 0.0

    @property
    def sync(self) -> float:
        """How far the ring buzzes once a period."""
        return self.in_step(SYNC_MS)

    @property
    def slap(self) -> float:
        """The same right after the release: the string slapping its limbs."""
        return self.in_step(SLAP_MS)

    @property
    def early(self) -> float:
        """Bright sound before the onset over that of the onset [dB]: a click of nock or arrow."""
        return float(self.z[3, 0] - self.z[3, 1])

    @lazy
    def spikes(self) -> Spikes:
        """Short bursts over 1.8 kHz, and whether they come back with the string's period."""
        power, noise = self._bright
        last = min(SPIKE_TO_MS, len(power))
        said = levels(power + 0.3 * noise)
        result = []
        for at in range(SPIKE_FROM_MS, last):
            around = said[max(at - SPIKE_AROUND, 0) : at + SPIKE_AROUND + 1]
            if len(around) < 2 * SPIKE_AROUND + 1:
                continue
            base = float(np.sort(around)[SPIKE_BASE])
            peak = said[at] == around[SPIKE_AROUND - 1 : SPIKE_AROUND + 2].max()
            if peak and said[at] > base + SPIKE_DB and said[at] > level(noise) + SPIKE_DB:
                result.append((at, min(float(said[at]) - base, SPIKE_MOST_DB)))
        span = max(last - SPIKE_FROM_MS, 1) / 100
        again = sum(self._comes_back(said, at) for at, _ in result)
        height = sum(over for _, over in result) / len(result) if result else 0.0
        times = tuple(at for at, _ in result)
        return Spikes(again / span, (len(result) - again) / span, height, times)

    def _comes_back(self, said: Array, at: int) -> bool:
        period = self.period_s * 1000
        for times in (-2, -1, 1, 2):
            near = round(at + times * period)
            window = said[max(near - 1, 0) : near + 2]
            if len(window) and float(window.max()) > said[at] - SPIKE_SAME_DB:
                return True
        return False


def line_of(sound: Sound, takes: Sequence[Take]) -> float:
    """Return how far a single note over 1.5 kHz stands out of what rings with it [dB].

    Mean power spectrum of all takes, 40 to 300 ms, over the running median of 25 cells.
    Source: a loose part rings at its own note.

    >>> line_of(Sound(np.zeros(16000), 16000.0), ())
    0.0
    """
    spectra = []
    for take in takes:
        part = sound.part(take.onset_s + 0.04, min(take.onset_s + 0.3, take.end_s)).samples
        if len(part) > 64:
            spectra.append(np.abs(np.fft.rfft(part * np.hanning(len(part)), 16384)) ** 2)
    if not spectra:
        return 0.0
    cell = max(round(60 * 16384 / sound.rate), 1)
    mean = np.mean(spectra, axis=0)
    count = len(mean) // cell
    said = levels(mean[: count * cell].reshape(count, cell).mean(axis=1))
    hz = (np.arange(count) + 0.5) * 60.0
    padded = np.pad(said, 12, mode="edge")
    middle = np.median(np.lib.stride_tricks.sliding_window_view(padded, 25), axis=1)
    judged = (hz >= 1500) & (hz <= 0.9 * sound.top_hz)
    return float((said - middle)[judged].max()) if judged.any() else 0.0
