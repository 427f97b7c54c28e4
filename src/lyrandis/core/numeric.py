"""The arrays the mechanics and the inference work on, and what several of them reckon alike."""

import math
from collections.abc import Callable

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
"""Numbers in double precision, of any shape."""
Complex = npt.NDArray[np.complex128]
"""A spectrum."""
Steps = npt.NDArray[np.intp]
"""Places in another array."""


def border(
    holds: Callable[[float], bool], low: float, high: float, steps: int = 40
) -> tuple[float, float]:
    """Return the two numbers between which something ceases to hold.

    It holds at `low` and not at `high`, and changes once between them. Each step halves what is
    between. Source: bisection.

    >>> low, high = border(lambda x: x * x < 2, 1.0, 2.0)
    >>> round(low, 9), round(high, 9)
    (1.414213562, 1.414213562)
    """
    for _ in range(steps):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low, high


_FARTHEST_SD = 30.0


def normal_below(z: Array) -> Array:
    """Return the chance that a standard normal value lies below z; good to 1e-7.

    Any shape, z in standard deviations.
    Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26.

    >>> [round(float(share), 4) for share in normal_below(np.array([-1.96, 0.0, 1.0]))]
    [0.025, 0.5, 0.8413]
    """
    # erf(x) = 1 - (a1 t + ... + a5 t^5) exp(-x^2), t = 1/(1 + p x)
    x = np.minimum(np.abs(z), _FARTHEST_SD) / math.sqrt(2)
    t = 1 / (1 + 0.3275911 * x)
    a1, a2, a3, a4, a5 = 0.254829592, -0.284496736, 1.421413741, -1.453152027, 1.061405429
    tail = ((((a5 * t + a4) * t + a3) * t + a2) * t + a1) * t * np.exp(-x * x) / 2
    below: Array = np.where(z < 0, tail, 1 - tail)
    return below
