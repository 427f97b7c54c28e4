"""Spine by tap: made-up shafts that ring in a made-up room, and what is made of them."""

import math

import numpy as np
import pytest

from lyrandis.core.listen.sound import Sound
from lyrandis.core.listen.tap import Tapped, tapped

RATE = 44_100
FREE = (22.3733, 61.6728, 120.9034, 199.8594)
"""Roots of a free bar, squared."""
GPI_KG_M = 6.479891e-5 / 0.0254


def notes(length_in: float, gpi: float) -> list[float]:
    """f_n/sqrt(EI) of a bare, parallel shaft."""
    length, line = length_in * 0.0254, gpi * GPI_KG_M
    return [root / (2 * math.pi) / math.sqrt(line * length**4) for root in FREE]


def rung(
    ei: float, per_root: list[float], rng: np.random.Generator, *, over_db: float, bass_hz: float
) -> Sound:
    """A tap: four lines, each a little off, a click, hum, and hiss so far under it."""
    t = np.arange(round(0.9 * RATE)) / RATE
    u = t - 0.1
    live = u >= 0
    ring = np.zeros_like(t)
    for number, note in enumerate(per_root, 1):
        hz = note * math.sqrt(ei) * (1 + rng.normal(0, 0.003))
        loud = rng.uniform(0.3, 1.0) / number / (1 + (bass_hz / hz) ** 4)
        fade = rng.uniform(0.12, 0.35) / (1 + hz / 900)
        ring[live] += (
            loud * np.sin(2 * np.pi * hz * u[live] + rng.uniform(0, 6)) * np.exp(-u[live] / fade)
        )
    ring[live] += 0.5 * rng.normal(0, 1, live.sum()) * np.exp(-u[live] / 0.003)
    power = float((ring[round(0.108 * RATE) : round(0.4 * RATE)] ** 2).mean())
    hiss = rng.normal(0, 1, len(t)) + 0.7 * np.sin(2 * np.pi * 100 * t)
    return Sound(ring + hiss * math.sqrt(power / 10 ** (over_db / 10) / 1.25), RATE)


def tried(count: int, over_db: float, seed: int) -> tuple[np.ndarray, int]:
    """Return how far stiffness is off, as a share, and how many were not heard."""
    rng = np.random.default_rng(seed)
    off, deaf = [], 0
    for _ in range(count):
        length, gpi = rng.uniform(27, 32), rng.uniform(6, 13)
        ei = rng.uniform(1.8, 9.0)
        sound = rung(ei, notes(length, gpi), rng, over_db=over_db, bass_hz=rng.uniform(30, 120))
        # the shaft is weighed and measured, not quite
        told = notes(length + rng.normal(0, 0.028), gpi * (1 + rng.normal(0, 0.003)))
        found = tapped(sound, 0.1, told)
        if found is None:
            deaf += 1
        else:
            off.append(found.ei.value / ei - 1)
    return np.array(off), deaf


@pytest.mark.parametrize(
    ("over_db", "median", "most"), [(30, 0.01, 0.02), (20, 0.01, 0.02), (10, 0.012, 0.03)]
)
def test_stiffness_is_heard_within_a_per_cent(over_db: float, median: float, most: float) -> None:
    off, deaf = tried(60, over_db, 3)
    assert deaf <= 3
    assert np.median(np.abs(off)) <= median
    assert np.percentile(np.abs(off), 95) <= most
    assert (np.abs(off) > 0.10).sum() == 0, "another comb was taken"


def one(over_db: float = 40.0) -> Tapped:
    rng = np.random.default_rng(1)
    found = tapped(rung(4.203, notes(28.5, 9.7), rng, over_db=over_db, bass_hz=40), 0.1,
                   notes(28.5, 9.7))  # fmt: skip
    assert found is not None
    return found


def test_the_reference_shaft() -> None:
    ratios = [note / notes(28.5, 9.7)[0] for note in notes(28.5, 9.7)]
    assert ratios == pytest.approx([1, 2.757, 5.404, 8.933], abs=0.001)
    found = one()
    assert found.ei.value == pytest.approx(4.203, rel=0.01)
    assert 0.001 < found.ei.sd / found.ei.value < 0.01
    assert [line.number for line in found.lines] == sorted(line.number for line in found.lines)


def test_a_stiffer_shaft_rings_higher_and_a_heavier_one_lower() -> None:
    assert notes(28.5, 11.0)[0] < notes(28.5, 9.7)[0]
    found = one()
    other = tapped(
        rung(5.0, notes(28.5, 9.7), np.random.default_rng(1), over_db=40, bass_hz=40), 0.1,
        notes(28.5, 9.7),
    )  # fmt: skip
    assert other is not None
    assert other.lines[0].hz > found.lines[0].hz


@pytest.mark.parametrize(
    "samples",
    [np.zeros(RATE), np.random.default_rng(2).normal(0, 0.1, RATE), np.zeros(20),
     np.sin(2 * np.pi * 137 * np.arange(RATE) / RATE)],
    ids=["silence", "hiss", "too short", "one tone"],
)  # fmt: skip
def test_what_is_no_tap_is_not_heard(samples: np.ndarray) -> None:
    found = tapped(Sound(samples, RATE), 0.0, notes(28.5, 9.7))
    assert found is None or len(found.lines) >= 2
    if not samples.any() or len(samples) < 100:
        assert found is None
