"""The reference signals: 16 kHz, 7 s, no seed; written out from their formulas."""

import numpy as np

from lyrandis.core.numeric import Array

RATE = 16_000.0
AT = (0.6, 2.2, 3.8, 5.4)


def q(count: int) -> Array:
    """A noise that is the same everywhere: frac(43758.5453 sin(12.9898 k)) - 1/2."""
    said = 43758.5453 * np.sin(12.9898 * np.arange(count))
    return said - np.floor(said) - 0.5


def _strings(t: Array, start: float, amplitude: float, base: float, ring: float) -> Array:
    u = t - start
    live = u >= 0
    found = np.zeros_like(t)
    for n in range(1, 14, 2):
        decay = ring * 0.8 / (1 + 96 * n / 700)
        found[live] += (
            amplitude * 0.25 / n * np.sin(2 * np.pi * base * n * u[live])
            * np.exp(-6.908 * u[live] / decay)
        )  # fmt: skip
    return found


def r1(rate: float = RATE, seconds: float = 7.0) -> Array:
    t = np.arange(round(rate * seconds)) / rate
    found = 0.001 * q(len(t))
    for start in AT:
        found += _strings(t, start, 1.0, 96.0, 1.0)
    return found


def r2() -> Array:
    t = np.arange(round(RATE * 7.0)) / RATE
    return r1() + sum(_strings(t, start, 0.4, 96.0 * 0.96, 0.7) for start in AT)


def r3() -> Array:
    t = np.arange(round(RATE * 7.0)) / RATE
    found = r1()
    for start in AT:
        for j in range(20):
            after = 0.015 + 0.013 * (j + 0.35 * np.sin(7 * j))
            u = t - start - after
            live = u >= 0
            found[live] += (
                0.06 * np.exp(-after / 0.15) * np.sin(2 * np.pi * 3400 * u[live])
                * np.exp(-6.908 * u[live] / 0.010)
            )  # fmt: skip
    return found


def r9() -> Array:
    t = np.arange(round(RATE * 7.0)) / RATE
    found = r1()
    for start in AT:
        u = t - start - 0.31
        live = u >= 0
        found[live] += 0.08 * np.sin(2 * np.pi * 180 * u[live]) * np.exp(-6.908 * u[live] / 0.09)
    return found
