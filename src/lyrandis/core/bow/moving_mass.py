"""The mass that moves with the string: what limbs and tips take of the arrow's share.

Masses in grains, lengths in mm, stiffness EI in lbf mm2.

At any draw every grain of limb and tip moves some distance per distance of string; the square of
that share, weighed by the work done there, gives the virtual mass K. Source: kinetic energy of a
mechanism with one degree of freedom. Limb thickness follows from stiffness, width and the
section's modulus (beam bending, EI = E w t^3/12).
"""

import math
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.statics import BowShape, Chain, DrawCurve, draw_curve
from lyrandis.core.constants import GRAINS_PER_POUND, MM_PER_IN


class MovingMass(NamedTuple):
    """Virtual masses of one shape: what limbs, tips and string add, against true draw."""

    limbs: Hermite
    """Work-weighed mean of m* of both limbs, per cube root of the root's EI in lbf mm2 [gr]."""
    tips: Hermite
    """The same of both tips [gr]."""
    string_gr: float

    def virtual_mass(self, draw_mm: float, root_stiffness: float, string_gr: float | None) -> float:
        """Return K [gr] at full draw `draw_mm` for a root EI of `root_stiffness` [lbf mm2].

        Source: K = string/3 + <m*>/2, m* the work-weighed sum of m |dx/dd|^2.

        >>> shape = BowShape("selfbow", 1676.0, 100.0, 165.0)
        >>> moving = moving_mass(shape)
        >>> round(moving.virtual_mass(667.0, 1e-3, 160.0) - moving.virtual_mass(667.0, 1e-3, 100.0))
        20
        """
        string = self.string_gr if string_gr is None else string_gr
        limbs = self.limbs.at(draw_mm) * math.cbrt(root_stiffness)
        return string / 3 + (limbs + self.tips.at(draw_mm)) / 2


@lru_cache(maxsize=256)
def moving_mass(shape: BowShape, *, segments: int | None = None) -> MovingMass:
    """Return how much mass moves with the string, from the static solution of a bow shape.

    m*(d) = sum m_i |dx_i/dd|^2 over both limbs and tips; <m*> = integral(m* F dd)/integral(F dd).
    Exact along the solved draws, second order between them. Errors: those of `draw_curve`.

    Source: kinetic energy of moving rods over draw speed; limb sections are Assumption.

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> stiffness = 45.0 / draw_curve(shape).force.at(667.0)
    >>> round(moving_mass(shape).virtual_mass(667.0, stiffness, None))
    84
    """
    curve = draw_curve(shape, segments=segments)
    rods, tip_rod, tip_gr = _masses(curve)
    limb_shares, tip_shares = [], []
    for index in range(len(curve.states)):
        rates = _rates(curve, index)
        limb_shares.append(2 * sum(m * _rod(a, b) for m, (a, b) in zip(rods, rates, strict=False)))
        tip = tip_gr * _square(rates[-1][1]) + (tip_rod and tip_rod * _rod(*rates[-1]))
        tip_shares.append(2 * tip)
    return MovingMass(
        limbs=_work_mean(curve, limb_shares),
        tips=_work_mean(curve, tip_shares),
        string_gr=FAMILIES[shape.family].string_gr,
    )


def _masses(curve: DrawCurve) -> tuple[list[float], float, float]:
    """Return piece masses root to tip (per cube root of EI), the rigid tip's and the tip's [gr]."""
    family = FAMILIES[curve.shape.family]
    rigid_mm = family.rigid_tip_in * MM_PER_IN
    working = curve.chain.length - rigid_mm
    count = len(curve.chain.pieces) - (1 if rigid_mm else 0)
    density = family.density_lb_in3 * GRAINS_PER_POUND / MM_PER_IN**3
    modulus = family.modulus_psi / MM_PER_IN**2
    rods = []
    for index in range(count):
        u = (index + 0.5) / count
        width = MM_PER_IN * (
            family.root_width_in + u * (family.tip_width_in - family.root_width_in)
        )
        stiffness = family.tip_stiffness + (1 - family.tip_stiffness) * (1 - u)
        thickness = (12 * stiffness / (modulus * width)) ** (1 / 3)
        rods.append(density * width * thickness * working / count)
    return rods, family.tip_gr_per_in * family.rigid_tip_in, family.tip_gr


Rate = tuple[float, float]


def _rates(curve: DrawCurve, index: int) -> list[tuple[Rate, Rate]]:
    """Return how both ends of each piece move per mm of draw, root to tip."""
    state = curve.states[index]
    leans, turns = _turning(curve.chain, state.t, state.p, state.t_rate, state.p_rate)
    vx = vy = 0.0
    rates = []
    for (length, _, _), lean, turn in zip(
        reversed(curve.chain.pieces), reversed(leans), reversed(turns), strict=True
    ):
        inner = (vx, vy)
        vx += length * math.cos(lean) * turn
        vy -= length * math.sin(lean) * turn
        rates.append((inner, (vx, vy)))
    return rates


def _turning(
    chain: Chain, t: float, p: float, t_rate: float, p_rate: float
) -> tuple[list[float], list[float]]:
    """Return each piece's lean and its turning per mm of draw, tip first."""
    phi, phi_t, phi_p = p, 0.0, 1.0
    arm = arm_t = arm_p = 0.0
    lying = p < 0
    angles, turns = [], []
    for length, compliance, kink in chain.pieces:
        angles.append(phi)
        turns.append(phi_t * t_rate + phi_p * p_rate)
        lying = lying and phi < 0
        if not lying:
            dx = length * math.cos(phi)
            arm += length * math.sin(phi)
            arm_t += dx * phi_t
            arm_p += dx * phi_p
        phi += kink - compliance * t * arm
        phi_t -= compliance * (arm + t * arm_t)
        phi_p -= compliance * t * arm_p
    gamma = phi - chain.root_lean
    gamma_rate = phi_t * t_rate + phi_p * p_rate
    return [angle - gamma for angle in angles], [turn - gamma_rate for turn in turns]


def _square(a: Rate) -> float:
    return a[0] * a[0] + a[1] * a[1]


def _rod(a: Rate, b: Rate) -> float:
    """Return the mean square of the rate along a straight rod whose ends move at a and b."""
    return (_square(a) + a[0] * b[0] + a[1] * b[1] + _square(b)) / 3


def _work_mean(curve: DrawCurve, shares: list[float]) -> Hermite:
    """Return the work-weighed mean of a share from brace to each draw, as a curve."""
    energies = curve.energy.y
    total, means = 0.0, [shares[0]]
    for (m0, m1), (e0, e1) in zip(pairwise(shares), pairwise(energies), strict=True):
        total += (m0 + m1) / 2 * (e1 - e0)
        means.append(total / e1)
    x = curve.energy.x
    slopes = [
        (b - a) / (xb - xa) for (a, b), (xa, xb) in zip(pairwise(means), pairwise(x), strict=True)
    ]
    inner = [(a + b) / 2 for a, b in pairwise(slopes)]
    return Hermite(x, tuple(means), (slopes[0], *inner, slopes[-1]))
