"""Tapped shafts as they are: thick enough to shear, wood stiffer one way than the other, in rooms.

The shaft is a row of stiff pieces with springs for bending and for shear between them; each line is
a pair where the two planes differ, and dies away in two slopes. Sizes are invented.
"""

import math
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.arrow.beam import Beam
from lyrandis.core.arrow.words import ShaftMaterial
from lyrandis.core.listen.brought import Sounded, tap_hearing
from lyrandis.core.listen.shafts import ringing_of

Array = np.ndarray
RATE = 44_100
GRAIN = 6.479891e-5
NAMED = Sounded("0" * 16, "taps", False)
SHEARS = {"carbon": (20.0, 45.0), "wood": (14.0, 26.0), "aluminium": (4.5, 6.0)}
"""E over what shear holds, least and most."""
PLANES = {"carbon": 0.004, "wood": 0.02, "aluminium": 0.002}
"""How far the stiffness of two planes lies from their mean, one standard deviation."""
HOLLOW = {"carbon": 0.78, "wood": 0.0, "aluminium": 0.9}


@lru_cache(maxsize=512)
def thick_notes(
    length: float, line: float, tip: float, radius2: float, shear: float
) -> tuple[float, ...]:
    """Free notes over the root of EI of a row of pieces that bend and shear [Hz/(N m2)^(1/2)].

    `radius2` is the square of the section's radius of gyration, `shear` E over k G.
    """
    count = 90
    dx = length / count
    size = 2 * (count + 1)
    stiff, mass = np.zeros((size, size)), np.zeros(size)
    # EI = 1: bending EI/dx of the turn between ends; shear kGA = EI/(shear r^2)
    bend = np.array([[1.0, -1.0], [-1.0, 1.0]]) / dx
    slip = np.array([-1.0, -dx / 2, 1.0, -dx / 2])
    held = np.outer(slip, slip) / (shear * radius2 * dx)
    for piece in range(count):
        at = np.array([2 * piece, 2 * piece + 1, 2 * piece + 2, 2 * piece + 3])
        stiff[np.ix_(at[[1, 3]], at[[1, 3]])] += bend
        stiff[np.ix_(at, at)] += held
        mass[at[[0, 2]]] += line * dx / 2
        mass[at[[1, 3]]] += line * radius2 * dx / 2
    mass[-2] += tip
    root = 1 / np.sqrt(mass)
    found = np.sqrt(np.maximum(np.linalg.eigvalsh(root[:, None] * stiff * root)[2:6], 0))
    return tuple((found / (2 * math.pi)).tolist())


class TapWorld(NamedTuple):
    """How a shaft is tapped and heard."""

    name: str
    material: ShaftMaterial
    over_db: float = 25.0
    told_as: Literal["right", "wrong"] = "right"
    """A finished shaft told as bare, where it is wrong."""


TAP_WORLDS = (
    TapWorld("carbon", "carbon"),
    TapWorld("wood", "wood"),
    TapWorld("aluminium", "aluminium"),
    TapWorld("carbon, 16 dB over the room", "carbon", 16.0),
    TapWorld("wood, 16 dB over the room", "wood", 16.0),
    TapWorld("wood, 8 dB over the room", "wood", 8.0),
    TapWorld("finished, told as bare", "carbon", told_as="wrong"),
)


class TapHeardSo(NamedTuple):
    """What came of one shaft."""

    off: float | None
    """Stiffness heard over true, less one; None where it was refused."""
    half: float
    over_db: float

    @property
    def inside(self) -> bool:
        return self.off is not None and abs(self.off) <= self.half


def tap_heard(of: TapWorld, seed: int) -> TapHeardSo:
    """Tap a shaft twice, the second time turned a quarter, and listen as the page does."""
    world = np.random.default_rng([seed, len(of.name)])
    length = world.uniform(0.70, 0.80)
    diameter = world.uniform(0.0055, 0.0075) if of.material == "carbon" else world.uniform(
        0.0079, 0.0092) if of.material == "wood" else world.uniform(0.007, 0.0085)  # fmt: skip
    line = world.uniform(7, 11) * GRAIN / 0.0254
    tip = 0.0085 if of.told_as == "wrong" else 0.0
    ei = world.uniform(2.2, 8.0)
    radius2 = diameter**2 * (1 + HOLLOW[of.material] ** 2) / 16
    shear = round(float(world.uniform(*SHEARS[of.material])), 1)
    notes = thick_notes(round(length, 3), round(line, 6), tip, round(radius2, 9), shear)
    plane = world.normal(0, PLANES[of.material])
    samples = np.zeros(round(4.6 * RATE))
    for tap, turned in ((0.9, False), (2.7, True)):
        samples += _rung(notes, ei, plane, tap, world, turned=turned)
    at = round(0.9 * RATE)
    power = float((samples[at : at + round(0.1 * RATE)] ** 2).mean())
    spectrum = np.fft.rfft(world.normal(0, 1, len(samples)))
    hz = np.maximum(np.fft.rfftfreq(len(samples), 1 / RATE), 30.0)
    room = np.fft.irfft(spectrum / np.sqrt(hz), len(samples))
    t = np.arange(len(samples)) / RATE
    room = room / room.std() + 0.4 * np.sin(2 * np.pi * 100 * t) + 0.2 * np.sin(2 * np.pi * 300 * t)
    samples += room / room.std() * math.sqrt(power / 10 ** (of.over_db / 10))
    told_length, told_line = length + world.normal(0, 0.0005), line * (1 + world.normal(0, 0.003))
    beam = Beam(told_length, told_line, 0.0, 0.0)
    comb = ringing_of(beam, of.material, 1000 * diameter)
    with_point = ringing_of(
        Beam(told_length, told_line, 0.0075 + world.normal(0, 0.0005), 0.0), of.material,
        1000 * diameter,
    )  # fmt: skip
    found = tap_hearing(samples * 0.3 / np.abs(samples).max(), RATE, comb, NAMED,
                        otherwise=with_point, again=(2,), quarter=(2,))  # fmt: skip
    said = [tap for tap in found.taps if tap.ring_hz is not None and tap.why_not is None]
    over = found.taps[0].over_db if found.taps else 0.0
    if not said:
        return TapHeardSo(None, 0.0, over)
    rings = np.array([tap.ring_hz for tap in said])
    halves = np.array([tap.half_hz for tap in said])
    heard = (float(rings.mean()) / comb.notes[0]) ** 2
    # a note's half-width is the stiffness's one standard deviation
    return TapHeardSo(heard / ei - 1, 2 * float(halves.mean() / rings.mean()), over)


def _rung(
    notes: tuple[float, ...], ei: float, plane: float, at: float, world: np.random.Generator,
    *, turned: bool,
) -> Array:  # fmt: skip
    t = np.arange(round(4.6 * RATE)) / RATE - at
    live = (t >= 0) & (t < 1.5)
    u = t[live]
    out = np.zeros(len(t))
    # tapped between the planes: mostly one of them, a little of the other
    share = world.uniform(0.0, 0.25)
    for number, note in enumerate(notes, 1):
        loud = world.uniform(0.3, 1.0) / number ** world.uniform(0.5, 1.2)
        for side, size in ((1, 1 - share), (-1, share)):
            off = side * plane * (-1 if turned else 1)
            hz = note * math.sqrt(ei * (1 + off)) * (1 + world.normal(0, 0.0015))
            decay = 0.7 * np.exp(-u * (9 + hz / 60)) + 0.3 * np.exp(-u * (3 + hz / 300))
            out[live] += loud * size * decay * np.sin(2 * np.pi * hz * u + world.uniform(0, 6))
    out[live] += 0.6 * world.normal(0, 1, live.sum()) * np.exp(-u / 0.002)
    return out
