"""A second way to make a bow sound, which shares nothing with the simulated microphone.

The string is a chain of masses with a served middle and loops on sprung tips; the release a
half-sine blow; a loose part bounces between two stops; a slack strand buzzes while it moves against
the others; the arrow's tail rings at its own bending note; the room throws back images.
"""

import math
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

RATE = 22_050
Array = np.ndarray


@lru_cache(maxsize=64)
def chain_notes(tension: float, mass_kg: float, served: float, tip_kg: float) -> tuple[float, ...]:
    count, free = 240, 1.36
    dx = free / count
    at = (np.arange(count) + 0.5) * dx
    per_m = np.full(count, mass_kg * 0.84 / 1.47)
    per_m[np.abs(at - free / 2) < 0.09] += served
    per_m[(at < 0.06) | (at > free - 0.06)] *= 1.5  # served loops
    mass = np.r_[tip_kg, per_m * dx, tip_kg]
    stiff = np.zeros((count + 2, count + 2))
    for i, gap in enumerate(np.r_[dx / 2, np.full(count - 1, dx), dx / 2]):
        stiff[i : i + 2, i : i + 2] += tension / gap * np.array([[1, -1], [-1, 1]])
    stiff[0, 0] += 900.0
    stiff[-1, -1] += 900.0  # limbs hold their tips
    root = 1 / np.sqrt(mass)
    notes = np.sqrt(np.maximum(np.linalg.eigvalsh(root[:, None] * stiff * root), 0)) / (2 * np.pi)
    return tuple(notes[notes > 55][:12].tolist())


@dataclass
class OtherBow:
    """One bow, its place and phone, drawn from a seed; `take` plays it with a fault."""

    seed: int
    snr_db: float = 20.0
    world: np.random.Generator = field(init=False)

    def __post_init__(self) -> None:
        w = np.random.default_rng([self.seed, 77])
        self.tension = w.uniform(300, 450)
        self.mass = w.uniform(0.0062, 0.0082)
        self.notes = np.array(chain_notes(self.tension, self.mass, 0.0062, w.uniform(0.04, 0.06)))
        self.rings = w.uniform(0.35, 0.9) / (1 + self.notes / w.uniform(500, 900))
        hz = np.array([24.0, 52.0, 118.0, 240.0, 455.0, 980.0]) * w.uniform(0.8, 1.2, 6)
        self.modes = list(zip(hz, w.uniform(0.06, 0.4, 6), w.uniform(0.2, 0.8, 6), strict=True))
        self.part = (w.uniform(1900, 4800), w.uniform(0.004, 0.012), w.uniform(35, 90))
        self.crack = (w.uniform(0.0006, 0.0016), w.uniform(0.2, 0.6), w.uniform(0.006, 0.018))
        self.slap = w.uniform(0.02, 0.12)
        self.shaft_hz = w.uniform(1200, 2600)
        self.images = [(w.uniform(0.003, 0.03), w.uniform(-0.35, 0.35)) for _ in range(8)]
        self.tail = (w.uniform(0.08, 0.2), w.uniform(0.3, 0.7), w.uniform(0.02, 0.2))
        self.presence = (w.uniform(2500, 4500), w.uniform(0.0, 1.0))
        self.bass = w.uniform(50, 130)
        self.wind, self.birds = w.uniform(0, 1), w.uniform(0, 0.2)
        self.outdoors = w.uniform() < 0.4
        self.world = w

    @property
    def ratio(self) -> tuple[float, ...]:
        return tuple((self.notes / self.notes[0]).tolist())

    def _ring(self, out: Array, at: float, hz: float, t60: float, size: float) -> None:
        first = round(at * RATE)
        count = min(round(1.1 * t60 * RATE), len(out) - first)
        if count > 0 and first >= 0:
            u = np.arange(count) / RATE
            phase = self.world.uniform(0, 2 * np.pi)
            out[first : first + count] += (
                size * np.cos(2 * np.pi * hz * u + phase) * 10 ** (-3 * u / t60)
            )

    def _thump(self, out: Array, at: float, half_s: float, size: float) -> None:
        count = max(round(half_s * RATE), 2)
        first = round(at * RATE)
        blow = np.sin(np.pi * np.arange(count) / count)
        if 0 <= first < len(out) - count:
            out[first : first + count] += size * np.diff(np.r_[0, blow]) * 4

    def _hiss(self, out: Array, at: float, t60: float, size: float, smooth: int = 2) -> None:
        first = round(at * RATE)
        count = min(round(1.1 * t60 * RATE), len(out) - first)
        if count > 8 and first >= 0:
            noise = np.convolve(self.world.normal(0, 1, count), np.ones(smooth) / smooth, "same")
            out[first : first + count] += size * noise * 10 ** (-3 * np.arange(count) / RATE / t60)

    def _bounce(self, out: Array, at: float, loose: float, size: float) -> None:
        """A part between two stops that shake at its own note: it hits when they meet."""
        hz, t60, shake = self.part
        x, v, t, gap = 0.0, 0.0, 0.008, 0.3 + 0.3 * self.world.uniform()
        dt = 1 / 8000
        drive = 2 * np.pi * shake
        while t < 0.6:
            swing = 10 ** (-3 * t / 0.75)
            base = swing * math.sin(drive * t)
            rate = swing * drive * math.cos(drive * t)
            x += v * dt
            if abs(x - base) > gap * 0.5:
                side = math.copysign(1.0, x - base)
                speed = abs(v - rate)
                x = base + side * gap * 0.5
                v = rate - 0.6 * (v - rate) + self.world.normal(0, 15)
                hit = size * 0.5 * loose**0.5 * min(speed / drive, 1.5) * self.world.uniform(0.4, 1)
                if speed > 0.1 * drive:
                    self._ring(out, at + t, hz, t60, hit)
                    self._ring(out, at + t, 1.9 * hz, 0.7 * t60, 0.4 * hit)
            t += dt

    def _strings(self, out: Array, at: float, size: float, slack: float) -> None:
        place = 0.5 + self.world.normal(0, 0.04)
        for n, (hz, t60) in enumerate(zip(self.notes, self.rings, strict=True), 1):
            share = abs(math.sin(n * math.pi * place)) / n**1.1 * hz / (hz + 80)
            self._ring(out, at, hz, t60, size * share)
            if slack:
                lower = 1 - 0.015 - 0.04 * slack
                self._ring(out, at, lower * hz, 0.6 * t60, size * (0.25 + 0.3 * slack) / n)
        if slack:
            period = 1 / self.notes[0]
            for k in range(1, 20):
                moves = abs(math.cos(np.pi * k * (1 - (1 - 0.015 - 0.04 * slack))))
                self._hiss(out, at + k * period, 0.004, 0.1 * slack * size * moves * 0.85**k)

    def _play(self, out: Array, what: str, at: float, fault: dict[str, float]) -> None:
        size = 0.1 * 10 ** (self.world.normal(0, 0.9) / 20)
        slack, rattle = fault.get("slack", 0.0), fault.get("rattle", 0.0)
        if what == "pluck":
            self._strings(out, at, size, slack)
            for hz, t60, share in self.modes:
                self._ring(out, at, hz, t60, 0.3 * size * share)
            self._hiss(out, at, 0.005, 0.05 * size)
        else:
            off, light = fault.get("brace", 0.0), fault.get("light", 0.0)
            loud = size * 10 ** (min(11 * off * off, 8) / 20) * math.sqrt(1 + 1.6 * light)
            longer = 1 + 0.8 * abs(off)
            self._strings(out, at, 0.5 * loud, slack)
            for hz, t60, share in self.modes:
                self._ring(out, at, hz, t60 * longer, loud * share * (1 + 0.5 * max(off, 0)))
            half, share, t60 = self.crack
            self._thump(out, at, half / (1 + 1.5 * light), 3 * loud * (1 + 1.5 * light))
            self._hiss(out, at, t60, loud * share * (1 + 2 * light))
            for k in range(1, 6):
                slap = self.slap * (1 + 4 * max(-off, 0) + 1.5 * max(off, 0))
                self._hiss(out, at + k / self.notes[0], 0.009, 3 * slap * loud * 0.7**k, 1)
            for _ in range(int(4 * fault.get("contact", 0.0) + 0.5)):
                when = at + self.world.uniform(-0.01, 0.022)
                self._ring(out, when, self.shaft_hz * self.world.uniform(0.9, 1.3), 0.012,
                           loud * fault["contact"] * self.world.uniform(0.3, 0.8))  # fmt: skip
            size = loud
        if rattle:
            self._bounce(out, at, rattle, size)

    def _phone(self, out: Array) -> Array:
        wet = out.copy()
        if not self.outdoors:
            for delay, share in self.images:
                n = round(delay * RATE)
                wet[n:] += share * out[:-n]
            fast, slow, share = self.tail
            count = round(slow * RATE)
            t = np.arange(count) / RATE
            decay = 0.7 * 10 ** (-3 * t / fast) + 0.3 * 10 ** (-3 * t / slow)
            echo = self.world.normal(0, 1, count) * decay
            echo *= share / math.sqrt((echo**2).sum())
            size = 1 << (len(out) + count).bit_length()
            wet += np.fft.irfft(np.fft.rfft(out, size) * np.fft.rfft(echo, size), size)[: len(out)]
        spectrum = np.fft.rfft(wet)
        hz = np.maximum(np.fft.rfftfreq(len(wet), 1 / RATE), 1e-3)
        spectrum *= (hz / self.bass) ** 3 / np.sqrt(1 + (hz / self.bass) ** 6)
        peak, strength = self.presence
        spectrum *= 1 + strength * np.exp(-((np.log2(hz / peak)) ** 2) * 4)
        spectrum *= 1 / np.sqrt(1 + (hz / 8500) ** 6)
        return np.fft.irfft(spectrum, len(wet))

    def _room(self, count: int) -> Array:
        t = np.arange(count) / RATE
        white = self.world.normal(0, 1, count)
        spectrum = np.fft.rfft(white)
        hz = np.maximum(np.fft.rfftfreq(count, 1 / RATE), 8)
        gust = np.fft.irfft(spectrum / hz, count)
        mixed = self.wind * gust / gust.std() + 0.5 * self.world.normal(0, 1, count)
        mixed += 0.3 * np.sin(2 * np.pi * 100 * t)
        for _ in range(3):
            at = self.world.uniform(0, t[-1])
            chirp = np.sin(2 * np.pi * (3200 * (t - at) + 3000 * (t - at) ** 2))
            mixed += self.birds * chirp * ((t > at) & (t < at + 0.15))
        found = np.fft.rfft(mixed)
        found[(np.fft.rfftfreq(count, 1 / RATE) < 90)] = 0
        return mixed / np.fft.irfft(found, count).std()

    def record(
        self, what: str, takes: int = 4, snr_db: float | None = None, **fault: float
    ) -> tuple[Array, list[float]]:
        """Return samples, and where the takes begin."""
        at = [0.9 + 1.75 * n + self.world.uniform(0, 0.15) for n in range(takes)]
        count = 4096 * math.ceil((at[-1] + 1.5) * RATE / 4096)
        out = np.zeros(count)
        for one in at:
            self._play(out, what, one, fault)
        heard = self._phone(out)
        power = np.mean([
            (heard[round(one * RATE) : round((one + 0.3) * RATE)] ** 2).mean() for one in at
        ])  # fmt: skip
        over = np.fft.rfft(heard)
        over[np.fft.rfftfreq(count, 1 / RATE) < 90] = 0
        snr = self.snr_db if snr_db is None else snr_db
        if not hasattr(self, "noise"):  # the room is what it was, louder shots or not
            self.noise = math.sqrt(power / 10 ** (snr / 10))
        heard = heard + self.noise * self._room(count)
        return np.round(np.clip(heard, -1, 1) * 32767) / 32768, at
