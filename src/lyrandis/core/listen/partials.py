"""The braced string's own notes: a served string between two limb tips that give way.

Bare string of mass mu a metre, its middle served and heavier (mu2), each end on an effective mass M
of limb tip and outer limb. All notes scale as the square root of the tension exactly, so one note
tells the tension, and the series f_n/f_1 depends on the rig alone. Lengths in m, masses in kg,
tension in N.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.estimate import Estimate
from lyrandis.core.numeric import Array

TIP_KG, TIP_SD_KG = 0.050, 0.015
"""Assumption: what of a limb swings with its string: a recurve's tip and the outer limb."""
SCAN_FROM, SCAN_STEP = 0.55 * math.pi, 0.004
"""Where the scan for notes begins [rad over the free length], and its step [rad/m]."""
MOST_PARTIALS = 13
TIPS_SHARE = 0.05
"""Assumption: tips and loops; another string of 240 masses showed 4 % of tension."""
SERVING_SHARE = 0.02
"""Assumption: a guessed serving, as a share of tension."""


@dataclass(frozen=True)
class ServedString:
    """A string as it stands braced."""

    free_m: float
    """Between where it leaves the limbs."""
    string_m: float
    """Loop to loop."""
    mass_kg: float
    serving_kg: float
    serving_m: float
    tip_kg: float = TIP_KG

    @property
    def bare_kg_m(self) -> float:
        return (self.mass_kg - self.serving_kg) / self.string_m

    @property
    def served_kg_m(self) -> float:
        return self.bare_kg_m + (self.serving_kg / self.serving_m if self.serving_m else 0.0)


@lru_cache(maxsize=32)
def shape(string: ServedString, count: int = MOST_PARTIALS) -> tuple[float, ...]:
    """Return the wave numbers [rad/m] of a string's first partials, on its bare part.

    a = (L - l_serv)/2, b = l_serv/2, k2 = k sqrt(mu2/mu), theta = k a - atan(mu/(k M)); odd
    k cos(theta) cos(k2 b) = k2 sin(theta) sin(k2 b), even k cos(theta) sin(k2 b) =
    -k2 sin(theta) cos(k2 b). Source: waves on three lengths of string with point masses at the
    ends; against the eigenvalues of a chain of 240 masses within 2 cents to the eleventh.

    >>> plain = ServedString(1.36, 1.47, 0.007, 0.0, 0.0, 1e9)
    >>> [round(k * 1.36 / math.pi, 3) for k in shape(plain, 3)]
    [1.0, 2.0, 3.0]
    """
    mu, mu2 = string.bare_kg_m, string.served_kg_m
    a, b = (string.free_m - string.serving_m) / 2, string.serving_m / 2
    last = (count + 1.5) * math.pi / string.free_m
    k = np.arange(SCAN_FROM / string.free_m, last, SCAN_STEP)
    k2 = k * math.sqrt(mu2 / mu)
    theta = k * a - np.arctan(mu / (k * string.tip_kg))
    odd = k * np.cos(theta) * np.cos(k2 * b) - k2 * np.sin(theta) * np.sin(k2 * b)
    even = k * np.cos(theta) * np.sin(k2 * b) + k2 * np.sin(theta) * np.cos(k2 * b)
    result = sorted([*_crossings(k, odd), *_crossings(k, even)])
    return tuple(result[:count])


def _crossings(k: Array, value: Array) -> list[float]:
    """Return where a function changes its sign, by straight lines between samples."""
    at = np.nonzero(value[:-1] * value[1:] < 0)[0]
    share = value[at] / (value[at] - value[at + 1])
    return [float(item) for item in k[at] + share * (k[at + 1] - k[at])]


def partials_hz(string: ServedString, tension_n: float, count: int = MOST_PARTIALS) -> Array:
    """Return the notes of a braced string [Hz].

    f = k sqrt(T/mu)/(2 pi). Source: `shape`.

    >>> string = ServedString(1.36, 1.47, 110 * 6.479891e-5, 18 * 6.479891e-5, 0.18, 0.045)
    >>> partials_hz(string, 370.0, 3).round(3).tolist()
    [95.404, 220.632, 295.087]
    """
    wave = math.sqrt(tension_n / string.bare_kg_m)
    result: Array = np.array(shape(string, count)) * wave / (2 * math.pi)
    return result


def tension_of(
    string: ServedString,
    note_hz: Estimate,
    *,
    mass_share: float,
    free_share: float,
    serving_known: bool = True,
) -> Estimate:
    """Return the tension a braced string's lowest note asks for [N].

    T = mu (2 pi f/k1)^2; its share^2 = (2 sf/f)^2 + (sm/m)^2 + (2 sL/L)^2 + 0.05^2 (+ 0.02^2 where
    the serving is guessed). `mass_share`, `free_share` are standard deviations of the string's mass
    and its free length. Source: `shape`; propagation of errors.

    >>> string = ServedString(1.36, 1.47, 110 * 6.479891e-5, 18 * 6.479891e-5, 0.18, 0.045)
    >>> told = tension_of(string, Estimate(95.404, 0.05), mass_share=0.009, free_share=0.004)
    >>> round(told.value), round(told.plus_minus / told.value, 2)
    (370, 0.1)
    """
    value = string.bare_kg_m * (2 * math.pi * note_hz.value / shape(string)[0]) ** 2
    share = math.sqrt(
        (2 * note_hz.sd / note_hz.value) ** 2
        + mass_share**2
        + (2 * free_share) ** 2
        + TIPS_SHARE**2
        + (0.0 if serving_known else SERVING_SHARE) ** 2
    )
    return Estimate(value, value * share)
