"""How many strands: strength at the shot's peak, thickness in the arrow's nock, and mass.

SI in the sums: tex is grams per kilometre; tensions in newtons.
"""

import math
from typing import Literal, NamedTuple

from lyrandis.core.bow.statics import DrawCurve
from lyrandis.core.bow.thrust import Thrust
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.estimate import Estimate
from lyrandis.core.string.turns import MEASURED_BUNDLE_SD_MM, UNMEASURED_BUNDLE
from lyrandis.core.string.words import StringMaterial

PACKED = 0.75
"""Assumption: share of a twisted bundle's section that is fibre."""
KEPT_AT_LOOPS = 0.8
"""Assumption: what loops and servings leave of a strand's strength."""
FACTOR_OF_SAFETY = 4.0
"""Assumption: for wear, one strand cut, ageing: just over 2 is left in a dry fire for polyester."""
PEAK_SHARE = 0.5
"""Assumption: share of the energy left behind that stretches the string as it comes home; hand and
limbs keep the rest. Between a quarter and all of it."""
THREADS_MM = (0.36, 0.46, 0.53, 0.64)
"""Serving threads of the trade."""
SERVED = 1.6
"""Two walls of serving thread, flattened to 0.8 of it."""
MORE_THAN_LEAST = 4
"""Strands beyond the least that are still thought of for the fit in the nock."""
SAME_FIT_MM = 0.05
FEWEST_STRANDS, MOST_STRANDS = 6, 40
FEW_STRANDS = 12
"""To this many, one slack strand is a twelfth of the string."""
GROOVES_MM: dict[str, float] = {"small": 2.5, "large": 2.8}
"""Assumption: widths of the arrow's nock groove where nobody has measured."""

StrandFibre = Literal["polyester", "low_stretch"]


class Fibre(NamedTuple):
    """One strand of a fibre."""

    tex: float
    strength_n: float
    modulus_n_per_tex: float
    density_kg_m3: float


FIBRES: dict[StringMaterial, Fibre] = {
    "polyester": Fibre(222.0, 222.0, 9.0, 1380.0),
    "low_stretch": Fibre(110.0, 360.0, 80.0, 970.0),
}
"""Assumption: high-tenacity fibres in the trade's usual strands; others have no numbers, ask the
maker."""


class Tensions(NamedTuple):
    """Tension of the string in newtons: at brace, at full draw, at the shot's peak, dry-fired."""

    brace_n: float
    full_n: float
    peak_n: float
    dry_fire_n: float


def bundle_diameter(fibre: Fibre, strands: int) -> float:
    """Return the diameter of a twisted bundle [mm]: sqrt(4 n A/(0.75 pi)).

    Source: area of n strands, packed; A = tex/density.

    >>> [round(bundle_diameter(FIBRES["polyester"], n), 2) for n in (12, 16, 20)]
    [1.81, 2.09, 2.34]
    """
    area = fibre.tex * 1e-6 / fibre.density_kg_m3 * 1e6
    return math.sqrt(4 * strands * area / (math.pi * PACKED))


def diameter_of(
    material: StringMaterial | None, strands: int | None, measured_mm: float | None
) -> Estimate | None:
    """Return the bundle's diameter, measured or reckoned from its strands; None where neither is.

    Source: as `bundle_diameter`; the doubts are Assumption.

    >>> [round(x, 2) for x in diameter_of("polyester", 16, None)]
    [2.09, 0.21]
    """
    if measured_mm is not None:
        return Estimate(measured_mm, MEASURED_BUNDLE_SD_MM / 2)
    fibre = FIBRES.get(material) if material else None
    if fibre is None or strands is None:
        return None
    diameter = bundle_diameter(fibre, strands)
    return Estimate(diameter, UNMEASURED_BUNDLE * diameter)


def tensions_of(
    curve: DrawCurve,
    root_stiffness: float,
    pivot_mm: float,
    thrust: Thrust,
    arrow_gr: float,
    fibre: Fibre,
    strands: int,
) -> Tensions:
    """Return the string's tensions through a shot of a bow drawn to `pivot_mm`.

    At the end of the shot part of what is left behind stretches the string:
    T = sqrt(Tb^2 + 2 phi k E), k = n tex modulus/L. Dry-fired, all that comes back is left.
    `root_stiffness` is EI of the limb's root [lbf mm2].
    Source: energy of a spring stretched from brace tension; phi is Assumption.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> curve, pivot = c.bow.likeness.curve, c.archer.drawn_to.value - 44.45
    >>> stiff = c.bow.weight.weight.value / curve.force.at(pivot)
    >>> found = tensions_of(curve, stiff, pivot, c.bow.thrust, 400.0, FIBRES["polyester"], 16)
    >>> found.dry_fire_n > found.peak_n > found.brace_n > found.full_n
    True
    """
    to_newtons = root_stiffness * NEWTONS_PER_LBF
    brace = to_newtons * curve.tension.at(curve.first_mm)
    full = to_newtons * curve.tension.at(min(pivot_mm, curve.last_mm))
    spring = strands * fibre.tex * fibre.modulus_n_per_tex / (curve.string_length_mm / 1000)
    virtual = thrust.virtual_mass_gr
    left = thrust.returned_j * virtual / (arrow_gr + virtual)
    peaks = (
        math.sqrt(brace**2 + 2 * PEAK_SHARE * spring * energy)
        for energy in (left, thrust.returned_j)
    )
    return Tensions(brace, full, *peaks)


def factor_of_safety(tensions: Tensions, fibre: Fibre, strands: int) -> float:
    """Return how many times the string holds the most it is asked for in a shot.

    Source: strength of n strands, loops taken off, over the larger of peak and full draw.

    >>> found = Tensions(400.0, 250.0, 600.0, 1200.0)
    >>> round(factor_of_safety(found, FIBRES["polyester"], 16), 2)
    4.74
    """
    strength = strands * fibre.strength_n * KEPT_AT_LOOPS
    return strength / max(tensions.peak_n, tensions.full_n)


def served_diameter(bundle_mm: float, thread_mm: float) -> float:
    """Return the thickness of a served string [mm].

    Source: bundle and two walls of thread, flattened to 0.8.

    >>> round(served_diameter(2.09, 0.46), 2)
    2.83
    """
    return bundle_mm + SERVED * thread_mm


class StrandAdvice(NamedTuple):
    """How many strands, and the thread that makes them fit the arrow's nock."""

    least: int
    strands: int
    thread_mm: float
    served_mm: float
    groove_mm: float


def strand_advice(least: int, fibre: Fibre, groove_mm: float) -> StrandAdvice:
    """Return the even number of strands, least to least + 4, that fits the nock best.

    Among those whose best thread comes as near the groove within 0.05 mm, the most strands.
    Source: as `served_diameter`; the choice is Assumption.

    >>> strand_advice(13, FIBRES["polyester"], 2.8).strands
    16
    """
    even = range(least + least % 2, least + MORE_THAN_LEAST + 1, 2)
    fits = []
    for strands in even:
        bundle = bundle_diameter(fibre, strands)
        thread = min(THREADS_MM, key=lambda mm: abs(served_diameter(bundle, mm) - groove_mm))
        served = served_diameter(bundle, thread)
        fits.append(StrandAdvice(least, strands, thread, served, groove_mm))
    nearest = min(abs(fit.served_mm - groove_mm) for fit in fits)
    near = [fit for fit in fits if abs(fit.served_mm - groove_mm) <= nearest + SAME_FIT_MM]
    return near[-1]
