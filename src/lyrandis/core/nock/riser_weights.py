"""Weights on the riser: where they bring the balance, and which limb's end they slow.

Masses in grams, places in mm from the grip's pivot: x toward the target, y up.
"""

from typing import NamedTuple

BARE_RISER = (1100.0, 10.0, 0.0)
"""Assumption: a bare riser where nobody weighed it: mass, x, y."""
RISER_RADIUS = 0.29
"""Assumption: radius of gyration of a bare riser over its length, that of a rod."""
NEAR_ROOT_MM, NEAR_ROOT_G = 60.0, 50.0
DOWN_MM = 10.0
"""Assumption: from here on mass near the lower limb is warned of."""
STANDARD_GRAVITY = 9.80665


class Weight(NamedTuple):
    """A mass fixed to the riser."""

    mass_g: float
    x_mm: float
    y_mm: float


class Balance(NamedTuple):
    """The riser with its weights on."""

    mass_g: float
    x_mm: float
    y_mm: float
    torque_nm: float
    """That turns the bow forward about the hand."""
    uneven: float
    """Give of the riser at the lower limb's root less the upper's, over both; below 0 the lower
    limb has the heavier seat."""
    down_mm: float
    """How far the weights bring the balance down."""
    near_lower_g: float
    """Mass close to the root of the lower limb."""

    @property
    def slows_lower(self) -> bool:
        """True where the lower end is slowed enough to be warned of."""
        return self.near_lower_g >= NEAR_ROOT_G or self.down_mm > DOWN_MM


def balance_of(
    weights: tuple[Weight, ...],
    riser_length_mm: float,
    bare: tuple[float, float, float] = BARE_RISER,
) -> Balance:
    """Return balance, torque and unevenness of a riser with weights.

    The centre of mass by moments; torque g sum m x; give at a limb root y in recoil
    A(y) = 1/M + (y - y_c)^2/I.
    Source: a rigid body pushed off its centre; the bare riser is Assumption where not told.

    >>> found = balance_of((Weight(150.0, 30.0, -150.0),), 450.0)
    >>> round(found.y_mm), found.slows_lower
    (-18, True)
    >>> balance_of((), 450.0).uneven
    0.0
    """
    mass, bare_x, bare_y = bare
    total = mass + sum(weight.mass_g for weight in weights)
    x = (mass * bare_x + sum(weight.mass_g * weight.x_mm for weight in weights)) / total
    y = (mass * bare_y + sum(weight.mass_g * weight.y_mm for weight in weights)) / total
    inertia = mass * ((RISER_RADIUS * riser_length_mm) ** 2 + (bare_y - y) ** 2)
    inertia += sum(
        weight.mass_g * ((weight.x_mm - x) ** 2 + (weight.y_mm - y) ** 2) for weight in weights
    )
    root = riser_length_mm / 2
    low, up = (1 / total + (end - y) ** 2 / inertia for end in (-root, root))
    near = sum(weight.mass_g for weight in weights if abs(weight.y_mm + root) <= NEAR_ROOT_MM)
    moment = total * x / 1e6
    return Balance(
        total, x, y, STANDARD_GRAVITY * moment, (low - up) / (low + up), bare_y - y, near
    )
