"""A third way to make a bow sound, of another structure than the other two.

Every mode dies away in two slopes; upper and lower limb beat against each other and swell after the
string is home; the loose is heard faintly before; the room is diffuse; a butt is stiff or soft; a
phone may ride its gain and may have put the recording through a coder. Sizes are invented.
"""

import math
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

import numpy as np

Array = np.ndarray
RATE = 44_100
Butt = Literal["stiff", "soft"]
GRAVITY_DRAG = 0.0018


def mdct_coded(samples: Array, coarse_db: float, top_hz: float) -> Array:
    """Put a sound through a coder: half-overlapped cosine blocks, each rounded to its own steps.

    What a block's loudest part makes necessary lies over the whole block: noise before an onset.
    """
    half = 1024
    n = np.arange(2 * half)
    k = np.arange(half)
    window = np.sin(np.pi * (n + 0.5) / (2 * half))
    basis = np.cos(np.pi / half * (n[:, None] + 0.5 + half / 2) * (k[None, :] + 0.5))
    padded = np.concatenate([np.zeros(half), samples, np.zeros(2 * half)])
    firsts = range(0, len(padded) - 2 * half, half)
    blocks = np.stack([padded[first : first + 2 * half] for first in firsts])
    lines = (blocks * window) @ basis
    last = round(top_hz / (RATE / 2) * half)
    bands = np.unique(np.geomspace(4, last, 22).astype(int))
    lines[:, last:] = 0.0
    for low, high in zip(np.r_[0, bands[:-1]], bands, strict=True):
        part = lines[:, low:high]
        step = np.abs(part).max(axis=1, keepdims=True, initial=0.0) * 10 ** (-coarse_db / 20) * 2
        step = np.where(step > 0, step, 1.0)
        lines[:, low:high] = np.round(part / step) * step
    back = window * (lines @ basis.T) * (2 / half)
    out = np.zeros(len(padded))
    for first, block in zip(firsts, back, strict=True):
        out[first : first + 2 * half] += block
    return out[half : half + len(samples)]


def gain_ridden(samples: Array, target: float, most: float, back_s: float) -> Array:
    """Let a phone hold the loudness: down within two milliseconds, up again by and by."""
    frame = RATE // 1000
    count = len(samples) // frame
    peak = np.abs(samples[: count * frame].reshape(count, frame)).max(axis=1)
    gain, level = np.empty(count), 0.0
    for at in range(count):
        toward = 0.6 if peak[at] > level else 1 - math.exp(-1e-3 / back_s)
        level += toward * (peak[at] - level)
        gain[at] = min(target / max(level, 1e-6), most)
    whole = np.interp(np.arange(len(samples)), (np.arange(count) + 0.5) * frame, gain)
    return np.clip(samples * whole, -1, 1)


class Shots(NamedTuple):
    """Shots at a butt, and what is true of them."""

    samples: Array
    homes_s: list[float]
    strikes_s: list[float]
    speed_mps: float
    butt_m: float
    celsius: float


@dataclass
class ThirdBow:
    """One bow, its butt, its place and its phone, drawn from a seed."""

    seed: int
    butt: Butt = "stiff"
    coded: bool = False
    rides: bool = False
    over_db: float = 25.0
    """How far the strike stands over the room's noise."""
    world: np.random.Generator = field(init=False)

    def __post_init__(self) -> None:
        w = self.world = np.random.default_rng([self.seed, 303])
        self.speed = w.uniform(38, 65)
        self.stroke = w.uniform(0.012, 0.020)
        """From the loose to the string home."""
        self.loose = w.uniform(0.01, 0.2)
        self.swell = w.uniform(0.004, 0.018)
        limb = np.array([27.0, 61.0, 135.0, 290.0, 610.0]) * w.uniform(0.8, 1.25, 5)
        self.limbs = [
            (hz * (1 + side * w.uniform(0.01, 0.04)), w.uniform(0.05, 0.12), w.uniform(0.2, 0.6),
             w.uniform(0.2, 0.9))
            for hz in limb for side in (-1, 1)
        ]  # fmt: skip
        base = w.uniform(80, 110)
        self.strings = [
            (base * n * (1 + 0.0012 * n * n), w.uniform(0.03, 0.1), w.uniform(0.2, 0.7),
             0.5 / n * w.uniform(0.5, 1.5))
            for n in range(1, 10)
        ]  # fmt: skip
        self.crack = (w.uniform(900, 3500), w.uniform(0.004, 0.02), w.uniform(0.15, 0.6))
        self.room_t60 = w.uniform(0.15, 0.7)
        self.room_share = w.uniform(0.05, 0.4)
        self.thud = w.uniform(60, 180) if self.butt == "soft" else w.uniform(110, 420)
        self.rise = w.uniform(0.010, 0.035) if self.butt == "soft" else w.uniform(0.0005, 0.002)
        self.struck = w.uniform(0.08, 0.5)
        self.bass = w.uniform(40, 150)

    def _modes(
        self, out: Array, at: float, modes: list[tuple[float, float, float, float]], loud: float,
        swell_s: float = 0.0,
    ) -> None:  # fmt: skip
        """Sines that die quickly at first and slowly then; they may swell before they die."""
        first = round(at * RATE)
        u = np.arange(max(min(len(out) - first, RATE), 0)) / RATE
        up = 1 - np.exp(-u / swell_s) if swell_s else 1.0
        for hz, quick, slow, size in modes:
            decay = 0.7 * np.exp(-u / quick) + 0.3 * np.exp(-u / slow)
            phase = self.world.uniform(0, 2 * np.pi)
            out[first : first + len(u)] += (
                loud * size * up * decay * np.sin(2 * np.pi * hz * u + phase)
            )

    def _burst(self, out: Array, at: float, hz: float, fade: float, loud: float,
               rise: float = 0.0) -> None:  # fmt: skip
        """Noise round a frequency, with an attack."""
        first = round(at * RATE)
        count = min(round((6 * fade + rise) * RATE), len(out) - first)
        if count <= 8:
            return
        u = np.arange(count) / RATE
        spectrum = np.fft.rfft(self.world.normal(0, 1, count))
        near = np.fft.rfftfreq(count, 1 / RATE) / hz
        noise = np.fft.irfft(spectrum * near / (0.4 + near**2) ** 1.2, count)
        noise /= max(float(noise.std()), 1e-9)
        # an attack as a raised cosine over its own length, then a decay
        up = np.where(u < rise, 0.5 - 0.5 * np.cos(np.pi * u / max(rise, 1e-6)), 1.0)
        out[first : first + count] += loud * noise * up * np.exp(-np.maximum(u - rise, 0) / fade)

    def _shot(self, out: Array, home: float, loud: float) -> None:
        self._burst(out, home - self.stroke, 1800, 0.003, loud * self.loose * 0.3)
        self._modes(out, home, self.limbs, 0.5 * loud, self.swell)
        self._modes(out, home, self.strings, 0.25 * loud, 0.001)
        hz, fade, size = self.crack
        self._burst(out, home, hz, fade, loud * size)

    def _strike(self, out: Array, at: float, loud: float) -> None:
        self._burst(out, at, self.thud, 0.05 if self.butt == "soft" else 0.03, loud, self.rise)
        if self.butt == "stiff":
            self._burst(out, at, 1200, 0.008, 0.4 * loud)

    def _place(self, dry: Array) -> Array:
        count = round(1.2 * self.room_t60 * RATE)
        t = np.arange(count) / RATE
        tail = self.world.normal(0, 1, count) * 10 ** (-3 * t / self.room_t60)
        tail[: round(0.004 * RATE)] = 0.0  # no first echoes: the room is diffuse
        tail *= self.room_share / math.sqrt(float((tail**2).sum()))
        size = 1 << (len(dry) + count).bit_length()
        wet = np.fft.irfft(np.fft.rfft(dry, size) * np.fft.rfft(tail, size), size)[: len(dry)] + dry
        spectrum = np.fft.rfft(wet)
        hz = np.maximum(np.fft.rfftfreq(len(wet), 1 / RATE), 1e-3)
        spectrum *= (hz / self.bass) ** 2 / (1 + (hz / self.bass) ** 2)
        spectrum /= np.sqrt(1 + (hz / 9000) ** 4)
        return np.fft.irfft(spectrum, len(wet))

    def _phone(self, heard: Array) -> Array:
        heard = heard * (0.5 / max(float(np.abs(heard).max()), 1e-9))
        if self.rides:
            heard = gain_ridden(heard, 0.15, 6.0, self.world.uniform(0.05, 0.3))
        if self.coded:
            heard = mdct_coded(heard, self.world.uniform(16, 26), 13_000)
        return np.round(np.clip(heard, -1, 1) * 32767) / 32768

    def _hiss(self, count: int) -> Array:
        spectrum = np.fft.rfft(self.world.normal(0, 1, count))
        hz = np.maximum(np.fft.rfftfreq(count, 1 / RATE), 20.0)
        noise = np.fft.irfft(spectrum / np.sqrt(hz), count)
        return noise / noise.std()

    def shots(self, count: int = 3, butt_m: float = 18.0, arrow_m: float = 0.75) -> Shots:
        """Shots at a butt, a microphone 0.4 m from the bow."""
        w = self.world
        celsius = w.uniform(5, 28)
        sound = 331.3 + 0.606 * celsius
        dry = np.zeros(round((1.0 + 2.4 * count) * RATE))
        homes, strikes = [], []
        for number in range(count):
            home = 0.8 + 2.4 * number + w.uniform(0, 0.3)
            # dv/dt = -k v^2: the tip is an arrow's length ahead when the string is home
            way, k = butt_m - arrow_m, GRAVITY_DRAG
            own = self.speed * (1 + w.normal(0, 0.004))
            flown = math.expm1(k * way) / (k * own)
            heard, struck = home + 0.4 / sound, home + flown + butt_m / sound
            loud = 10 ** (w.normal(0, 0.8) / 20)
            self._shot(dry, heard, loud)
            self._strike(dry, struck, self.struck * 10 ** (w.normal(0, 1.0) / 20))
            homes.append(heard)
            strikes.append(struck)
        wet = self._place(dry)
        at = round(strikes[0] * RATE)
        struck_power = float((wet[at : at + round(0.08 * RATE)] ** 2).mean())
        wet = wet + self._hiss(len(wet)) * math.sqrt(struck_power / 10 ** (self.over_db / 10))
        return Shots(self._phone(wet), homes, strikes, self.speed, butt_m, celsius)

    def bow_alone(
        self, what: Literal["pluck", "shot"], takes: int = 5, *, louder: float = 1.0,
        rattle: float = 0.0,
    ) -> Array:  # fmt: skip
        """Plucks or shots with no butt in hearing; a loose part knocks while limbs swing."""
        w = self.world
        dry = np.zeros(round((1.2 + 1.8 * takes) * RATE))
        for number in range(takes):
            at = 0.8 + 1.8 * number + w.uniform(0, 0.1)
            loud = louder * 10 ** (w.normal(0, 0.8) / 20)
            if what == "shot":
                self._shot(dry, at, loud)
            else:
                self._modes(dry, at, self.strings, 0.3 * loud, 0.0005)
                self._modes(dry, at, self.limbs, 0.05 * loud)
            after = 0.01
            while rattle and after < 0.5:
                self._burst(dry, at + after, 3100, 0.003,
                            0.4 * rattle * loud * math.exp(-after / 0.2))  # fmt: skip
                after += w.gamma(3, 0.005)
        wet = self._place(dry)
        power = float((wet[round(0.8 * RATE) : round(1.1 * RATE)] ** 2).mean())
        wet = wet + self._hiss(len(wet)) * math.sqrt(power / 10 ** (self.over_db / 10))
        return self._phone(wet)
