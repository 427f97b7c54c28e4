"""The simulated microphone: takes of this very rig as sound, with hidden faults. Seeded.

A take is a sum of decaying sines and bursts of noise in bands. What a fault sounds like is its
author's belief, no recording's (docs/MECHANICS.md).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.numeric import Array

World = np.random.Generator

RATE = 44_100
FALL = 6.908
"""ln 1000: a ring falls by 60 dB in its T60."""
LIMBS: tuple[tuple[float, float], ...] = (
    (31.0, 0.50), (78.0, 0.32), (165.0, 0.22), (340.0, 0.14), (690.0, 0.09),
)  # fmt: skip
"""Assumption: notes of the limbs [Hz] and how long they ring [s]; no measured modes."""
USUAL_LEFT_J = 15.0
BEFORE_S, APART_S, AFTER_S = 1.0, 1.8, 1.6

RecordingKind = Literal["pluck", "shot", "butt", "taps", "reference"]


@dataclass(frozen=True)
class Faults:
    """What is hidden in the bow. Nought is nothing."""

    brace_in: float = 0.0
    """Off the quiet place, + too high."""
    light: float = 0.0
    """The floor over the arrow's mass, less one."""
    contact: float = 0.0
    rattle: float = 0.0
    slack: float = 0.0


@dataclass(frozen=True)
class PhonePlace:
    """Where it is recorded, and with what."""

    noise_db: float = 30.0
    """Mean power of a take's first 300 ms over the room's noise."""
    away_m: float = 1.5
    room_share: float = 0.15
    room_s: float = 0.3
    high_pass_hz: float = 70.0
    low_pass_hz: float = 9000.0
    tilt_db: float = 0.0
    """A decibel an octave, over 1 kHz."""
    hum: float = 0.2
    gain_rides: bool = False
    gain: float = 1.0
    bits: int = 16


@dataclass(frozen=True)
class Sounding:
    """The rig as it sounds; what the mechanics know of it. SI."""

    notes_hz: tuple[float, ...]
    """The braced string's partials."""
    left_j: float = USUAL_LEFT_J
    """What the arrow leaves in the bow."""
    recurve: float = 1.0
    """How much of the string lies on its limbs: 0 none, 1 a recurve."""
    speed_mps: float = 52.0
    drag: float = 0.0018
    """Of v' = -k v^2 [1/m]."""
    arrow_m: float = 0.75
    taps_hz: tuple[tuple[float, ...], ...] = ()
    """A shaft's free notes, for each of them."""


class Recording(NamedTuple):
    """A simulated recording, and the truth behind it."""

    samples: Array
    rate: int
    onsets_s: tuple[float, ...]
    strikes_s: tuple[float, ...] = ()


class Body(NamedTuple):
    """What is one bow's own and stays from take to take: its limbs' notes, its crack."""

    limbs: tuple[tuple[float, float, float, float], ...]
    """Note [Hz], ring [s], share in a pluck, share in a shot."""
    ring_s: float
    string_share: float
    crack: tuple[float, float, float, float]
    """Ring [s], from [Hz], to [Hz], share."""
    rattle: tuple[float, float]
    """Its note [Hz], ring [s]."""


def body_of(world: World) -> Body:
    """Return a bow's own sound, drawn once."""
    limbs = tuple(
        (hz * world.uniform(0.75, 1.25), ring * world.uniform(0.6, 1.4),
         world.uniform(0.12, 0.4), world.uniform(0.4, 0.9))
        for hz, ring in LIMBS
    )  # fmt: skip
    return Body(
        limbs=limbs,
        ring_s=world.uniform(0.5, 1.1),
        string_share=world.uniform(0.25, 0.6),
        crack=(world.uniform(0.008, 0.025), 250.0, world.uniform(2500.0, 5500.0),
               world.uniform(0.3, 0.8)),
        rattle=(world.uniform(2200.0, 5200.0), world.uniform(0.006, 0.014)),
    )  # fmt: skip


@dataclass
class Track:
    """Sound as it is put together."""

    samples: Array
    world: World = field(repr=False)

    def ring(self, at_s: float, hz: float, t60: float, size: float, phase: float = 0.0) -> None:
        """Add a decaying sine."""
        first = round(at_s * RATE)
        count = min(round(1.2 * t60 * RATE), len(self.samples) - first)
        if count <= 0 or first < 0 or hz >= 0.48 * RATE:
            return
        u = np.arange(count) / RATE
        sine = np.sin(2 * np.pi * hz * u + phase)
        self.samples[first : first + count] += size * sine * np.exp(-FALL * u / t60)

    def burst(self, at_s: float, t60: float, low: float, high: float, size: float) -> None:
        """Add noise of a band that dies away."""
        first = round(at_s * RATE)
        count = min(round(1.2 * t60 * RATE) + 32, len(self.samples) - first)
        if count <= 32 or first < 0:
            return
        hiss = self.world.normal(0.0, 1.0, count)
        spectrum = np.fft.rfft(hiss)
        hz = np.fft.rfftfreq(count, 1 / RATE)
        spectrum *= (
            1 / np.sqrt(1 + (low / np.maximum(hz, 1.0)) ** 8) / np.sqrt(1 + (hz / high) ** 8)
        )
        shaped = np.fft.irfft(spectrum, count)
        shaped *= size / max(float(np.abs(shaped).max()), 1e-12)
        self.samples[first : first + count] += shaped * np.exp(
            -FALL * np.arange(count) / RATE / t60
        )


def _string(track: Track, at: float, rig: Sounding, body: Body, size: float, ring: float) -> None:
    """Add the string, plucked or let go near its middle."""
    place = 0.5 + track.world.normal(0.0, 0.03)
    for n, hz in enumerate(rig.notes_hz, 1):
        share = abs(math.sin(n * math.pi * place)) / n * math.exp(-n / 18) * hz / (hz + 60)
        t60 = body.ring_s * ring / (1 + hz / 700)
        track.ring(at, hz, t60, size * share, track.world.uniform(0, 0.3))


def _limbs(track: Track, at: float, body: Body, size: float, column: int) -> None:
    for limb in body.limbs:
        track.ring(at, limb[0], limb[1], size * limb[column], track.world.uniform(0, 6.3))


def _pluck(track: Track, at: float, rig: Sounding, body: Body, faults: Faults, size: float) -> None:
    _string(track, at, rig, body, size, 1.0)
    _limbs(track, at, body, size, 2)
    track.burst(at, 0.006, 300, 4000, 0.08 * size)
    _slack(track, at, rig, body, faults.slack, size)
    _rattle(track, at, body, faults.rattle, size)


def _shot(track: Track, at: float, rig: Sounding, body: Body, faults: Faults, size: float) -> None:
    off, light = faults.brace_in, faults.light
    low, high = max(-off, 0.0), max(off, 0.0)
    loud = size * math.sqrt(rig.left_j / USUAL_LEFT_J * (1 + 1.5 * light))
    loud *= 10 ** (min(12 * off * off, 9.0) / 20)
    ring = 1 + low + 0.7 * high
    track.burst(at - 0.017, 0.01, 200, 3000, 0.05 * size)
    _string(track, at, rig, body, loud * body.string_share, ring)
    _limbs(track, at, body, loud * (1 + 0.7 * high), 3)
    t60, lowest, highest, share = body.crack
    track.burst(at, t60 / (1 + 1.2 * light), lowest, highest * (1 + 1.75 * light),
                loud * share * (1 + 2 * light))  # fmt: skip
    slap = (0.04 + 0.16 * rig.recurve) * (1 + 5 * low + 1.2 * high) * loud
    for k in range(1, 7):
        track.burst(at + k / rig.notes_hz[0], 0.008, 1200, 6000, slap * 0.7 ** (k - 1))
    _slack(track, at, rig, body, faults.slack, loud * body.string_share)
    _rattle(track, at, body, faults.rattle, loud)
    _contact(track, at, faults.contact, loud)


def _rattle(track: Track, at: float, body: Body, loose: float, size: float) -> None:
    """Add impacts of a loose part while the bow rings."""
    if loose <= 0:
        return
    hz, t60 = body.rattle
    u = 0.012
    while math.exp(-FALL * u / 0.7) > 0.02 / (0.3 + loose):
        hit = 0.64 * loose**0.6 * math.exp(-FALL * u / 0.7) * track.world.uniform(0.15, 1.0)
        track.ring(at + u, hz, t60, hit * size)
        track.ring(at + u, 1.47 * hz, t60, 0.5 * hit * size)
        u += track.world.gamma(3, 0.0045)


def _slack(track: Track, at: float, rig: Sounding, body: Body, slack: float, size: float) -> None:
    """Add a second, lower series, and a buzz once a period."""
    if slack <= 0:
        return
    lower = 1 - 0.02 - 0.04 * slack
    for n, hz in enumerate(rig.notes_hz, 1):
        share = (0.2 + 0.35 * slack) / n * math.exp(-n / 18) * hz / (hz + 60)
        t60 = 0.7 * body.ring_s / (1 + hz / 700)
        track.ring(at, lower * hz, t60, size * share, track.world.uniform(0, 6.3))
    period = 1 / rig.notes_hz[0]
    for k in range(1, round(0.2 / period)):
        fading = math.exp(-3 * k * period / 0.2)
        track.burst(at + k * period, 0.003, 900, 4500, (0.05 + 0.1 * slack) * size * fading)


def _contact(track: Track, at: float, struck: float, size: float) -> None:
    """Add the arrow's tail knocking along the bow."""
    if struck <= 0:
        return
    for _ in range(int(track.world.integers(3, 7))):
        when = at + track.world.uniform(-0.012, 0.024)
        hit = size * struck * track.world.uniform(0.15, 0.7)
        track.ring(when, track.world.uniform(1400, 3000), 0.014, hit)
        track.burst(when, 0.006, 1500, 7500, hit)


def _shaped(samples: Array, place: PhonePlace, world: World) -> Array:
    """Return what the phone hears of it in that room."""
    tail = round(place.room_s * RATE)
    if place.room_share > 0 and tail > 0:
        echo = world.normal(0, 1, tail) * np.exp(-FALL * np.arange(tail) / tail)
        echo *= place.room_share / math.sqrt(float((echo**2).sum()))
        size = 1 << (len(samples) + tail - 1).bit_length()
        wet = np.fft.irfft(np.fft.rfft(samples, size) * np.fft.rfft(echo, size), size)
        samples = samples + wet[: len(samples)]
    spectrum = np.fft.rfft(samples)
    hz = np.maximum(np.fft.rfftfreq(len(samples), 1 / RATE), 1e-3)
    spectrum *= 1 / np.sqrt(1 + (place.high_pass_hz / hz) ** 4)
    spectrum *= 1 / np.sqrt(1 + (hz / place.low_pass_hz) ** 4)
    spectrum *= 10 ** (place.tilt_db * np.log2(np.clip(hz, 60, 16000) / 1000) / 20)
    heard: Array = np.fft.irfft(spectrum, len(samples))
    return heard


def _noise(count: int, hum: float, world: World) -> Array:
    """Return a room's noise of power 1 over 90 Hz: pink, white, and hum."""
    spectrum = np.fft.rfft(world.normal(0, 1, count))
    hz = np.maximum(np.fft.rfftfreq(count, 1 / RATE), 20.0)
    pink = np.fft.irfft(spectrum / np.sqrt(hz), count)
    at = np.arange(count) / RATE
    mixed = pink / pink.std() + 0.3 * world.normal(0, 1, count)
    mixed += hum * (np.sin(2 * np.pi * 100 * at) + 0.5 * np.sin(2 * np.pi * 200 * at))
    over = np.fft.rfft(mixed)
    over[np.fft.rfftfreq(count, 1 / RATE) < 90] = 0
    found: Array = mixed / np.fft.irfft(over, count).std()
    return found


def _riding(samples: Array) -> Array:
    """Return sound whose gain the phone adjusts itself, frame by frame of 5 ms."""
    size = RATE // 200
    gain, found = 1.0, samples.copy()
    for first in range(0, len(samples), size):
        loud = float(np.abs(samples[first : first + size]).max(initial=0.0))
        wished = min(0.3 / max(loud, 1e-4), 8.0)
        gain += (wished - gain) * (0.5 if wished < gain else 0.02)
        found[first : first + size] *= gain
    return found


def _taken(clean: Array, onsets: Sequence[float], place: PhonePlace, world: World) -> Array:
    heard = _shaped(clean, place, world) / max(place.away_m, 0.05)
    powers = [
        float((heard[round(at * RATE) : round((at + 0.3) * RATE)] ** 2).mean()) for at in onsets
    ]
    power = sum(powers) / max(len(powers), 1)
    noise = math.sqrt(power / 10 ** (place.noise_db / 10))
    heard = heard + noise * _noise(len(heard), place.hum, world)
    heard = heard * place.gain
    if place.gain_rides:
        heard = _riding(heard)
    heard = np.clip(heard, -1.0, 1.0)
    steps = 2.0 ** (place.bits - 1)
    found: Array = np.round(heard * (steps - 1)) / steps
    return found


def record(
    kind: RecordingKind,
    rig: Sounding,
    *,
    seed: int,
    take_seed: int | None = None,
    takes: int = 5,
    faults: Faults = Faults(),
    place: PhonePlace = PhonePlace(),
    butt_m: float = 18.0,
    microphone_m: float = 0.4,
    celsius: float = 15.0,
) -> Recording:
    """Return a recording of some takes.

    `seed` draws the bow's own body and the place; `take_seed` the takes themselves, so that the
    same bow can be recorded again.
    """
    body = body_of(np.random.default_rng([seed, 1]))
    world = np.random.default_rng([seed if take_seed is None else take_seed, 2])
    if kind == "taps":
        takes = len(rig.taps_hz)
    apart = APART_S + (1.0 if kind == "butt" else 0.0)
    onsets = [BEFORE_S + apart * number + world.uniform(0, 0.2) for number in range(takes)]
    # a whole number of 8192: quick to transform
    count = 8192 * math.ceil((onsets[-1] + AFTER_S) * RATE / 8192)
    track = Track(np.zeros(count), world)
    strikes: list[float] = []
    # the body's level is 1 a metre off; -14 dB leaves a shot room to be louder
    for number, at in enumerate(onsets):
        size = 0.2 * 10 ** (world.normal(0.0, 1.0) / 20)
        if kind == "pluck":
            _pluck(track, at, rig, body, faults, 0.4 * size)
        elif kind == "reference":
            track.burst(at, 0.05, 300, 3000, size)
        elif kind == "taps":
            _tap(track, at, rig.taps_hz[number], size)
        else:
            _shot(track, at, rig, body, faults, size)
        if kind == "butt":
            strikes.append(_butt(track, at, rig, size, butt_m, microphone_m, celsius))
    samples = _taken(track.samples, onsets, place, world)
    return Recording(samples, RATE, tuple(onsets), tuple(strikes))


def _butt(track: Track, at: float, rig: Sounding, size: float, butt_m: float, microphone_m: float,
          celsius: float) -> float:  # fmt: skip
    """Add the arrow's blow, and return when it is heard."""
    way = butt_m - rig.arrow_m
    # t = (e^{k s} - 1)/(k v)
    flown = math.expm1(rig.drag * way) / (rig.drag * rig.speed_mps * track.world.normal(1, 0.004))
    speed = 331.3 + 0.606 * celsius
    strike = at + flown + (butt_m - microphone_m) / speed
    track.burst(strike, 0.09, 70, 900, 0.5 * size)
    track.ring(strike, track.world.uniform(120, 220), 0.09, 0.4 * size)
    return strike


def _tap(track: Track, at: float, notes: Sequence[float], size: float) -> None:
    """Add a shaft that was tapped near its end."""
    track.burst(at, 0.003, 400, 6000, 0.2 * size)
    for n, hz in enumerate(notes, 1):
        off = track.world.normal(1.0, 0.003)
        t60 = track.world.uniform(0.35, 0.6) / n**0.6
        track.ring(at, hz * off, t60, size / n**0.5, track.world.uniform(0, 6.3))


def as_pcm16(samples: Array) -> bytes:
    """Return samples of full scale 1 as 16-bit little-endian PCM.

    >>> as_pcm16(np.array([0.0, -1.0]))
    b'\\x00\\x00\\x01\\x80'
    """
    return np.clip(np.round(samples * 32767), -32767, 32767).astype("<i2").tobytes()
