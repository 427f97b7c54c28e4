"""Static spine: bending stiffness from a weight on two supports, and the trade's two standards.

Stored in pounds of the wood scale (higher is stiffer). Stiffness EI in N m2.
"""

from typing import Final

from lyrandis.core.constants import KG_PER_LB, MM_PER_IN, NEWTONS_PER_LBF
from lyrandis.core.errors import DomainError

M_PER_IN: Final = MM_PER_IN / 1000
GRAVITY: Final = NEWTONS_PER_LBF / KG_PER_LB
"""Standard gravity [m/s2], exact."""
THOUSANDTHS_SPAN_M: Final = 28 * M_PER_IN
THOUSANDTHS_LOAD_N: Final = 0.880 * GRAVITY
"""Deflection standard: 880 g at the middle of 28 in, read in thousandths of an inch."""
WOOD_SPAN_M: Final = 26 * M_PER_IN
WOOD_LOAD_N: Final = 2 * NEWTONS_PER_LBF
WOOD_INCHES: Final = 26.0
"""Wood standard: 2 lb at the middle of 26 in; pounds = 26 over the deflection in inches."""


def stiffness_from_deflection(load_n: float, span_m: float, deflection_m: float) -> float:
    """Return EI = W S^3/(48 d) [N m2] of a shaft on two supports with the load in the middle.

    Raises `DomainError` unless all three are above zero. Source: Euler-Bernoulli beam.

    >>> round(stiffness_from_deflection(8.630, 0.7112, 0.0127), 3)
    5.093
    """
    if not (load_n > 0 and span_m > 0 and deflection_m > 0):
        raise DomainError(
            "not_bent",
            "Weight, span and deflection must all be above zero.",
            "Give the three as read on the spine gauge.",
            "deflection_mm",
        )
    return load_n * span_m**3 / (48 * deflection_m)


STIFFNESS_PER_POUND: Final = stiffness_from_deflection(
    WOOD_LOAD_N, WOOD_SPAN_M, WOOD_INCHES * M_PER_IN
)
"""EI of one pound of wood spine [N m2]."""
_THOUSANDTHS_POUNDS: Final = (
    stiffness_from_deflection(THOUSANDTHS_LOAD_N, THOUSANDTHS_SPAN_M, M_PER_IN / 1000)
    / STIFFNESS_PER_POUND
)
"""Pounds times thousandths of one and the same shaft, about 31 500."""


def stiffness(spine_lbf: float) -> float:
    """Return EI [N m2] of a spine in pounds on the wood scale.

    Source: simply supported beam loaded in the middle, d = W S^3/(48 EI).

    >>> round(stiffness(52), 3)
    4.203
    """
    return spine_lbf * STIFFNESS_PER_POUND


def pounds(stiffness_nm2: float) -> float:
    """Return pounds on the wood scale from EI [N m2].

    Source: as `stiffness`.

    >>> round(pounds(5.093))
    63
    """
    return stiffness_nm2 / STIFFNESS_PER_POUND


def thousandths(spine_lbf: float) -> float:
    """Return the deflection in thousandths of an inch (28 in, 880 g) of a spine in pounds.

    Source: the two standards of spine, 880 g on 28 in and 2 lb on 26 in.

    >>> round(thousandths(63)), round(thousandths(45))
    (500, 700)
    """
    return _THOUSANDTHS_POUNDS / spine_lbf


def pounds_from_thousandths(deflection: float) -> float:
    """Return pounds on the wood scale of a deflection in thousandths of an inch.

    Source: as `thousandths`.

    >>> round(pounds_from_thousandths(500), 1)
    63.0
    """
    return _THOUSANDTHS_POUNDS / deflection


def pounds_from_reading(load_lbf: float, span_mm: float, deflection_mm: float) -> float:
    """Return pounds on the wood scale from any weight, span and deflection read on a gauge.

    Raises `DomainError` unless all three are above zero.

    Source: as `stiffness`, with any span and load.

    >>> round(pounds_from_reading(2.0, 26 * 25.4, 0.5 * 25.4), 1)
    52.0
    """
    return pounds(
        stiffness_from_deflection(load_lbf * NEWTONS_PER_LBF, span_mm / 1000, deflection_mm / 1000)
    )
