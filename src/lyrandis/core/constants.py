"""Exact conversion factors and the trade's fixed offsets."""

from typing import Final

MM_PER_IN: Final = 25.4
"""Millimetres in an inch, exact (international inch, 1959)."""

GRAINS_PER_GRAM: Final = 1.0 / 0.06479891
"""Grains in a gram; the grain is 64.79891 mg exactly (international pound, 1959)."""
KG_PER_GRAIN: Final = 1 / GRAINS_PER_GRAM / 1000

NEWTONS_PER_LBF: Final = 4.4482216152605
"""Newtons in a pound-force, exact (0.45359237 kg x 9.80665 m/s2)."""

KG_PER_LB: Final = 0.45359237
"""Kilograms in a pound, exact."""

GRAINS_PER_OUNCE: Final = 437.5
"""Grains in an avoirdupois ounce, exact."""

M_PER_FT: Final = 0.3048
"""Metres in a foot, exact."""

TRADE_OFFSET_MM: Final = 1.75 * MM_PER_IN
"""Trade draw length = true draw to the pivot + 1 3/4 in (trade convention)."""

MARKED_DRAW_MM: Final = 28.0 * MM_PER_IN
"""Draw at which bows are usually marked (trade convention)."""

GRAINS_PER_POUND: Final = 7000.0
"""Grains in a pound, exact."""

JOULES_PER_LBF_MM: Final = NEWTONS_PER_LBF / 1000.0
"""Joules in one lbf over one mm, exact."""

M_PER_YD: Final = 3 * M_PER_FT
"""Metres in a yard, exact."""

PACE_M: Final = 0.76
"""Assumption: a pace, 30 inches."""

USUAL_GPP: Final = 10.0
"""Assumption: grains of arrow per pound of draw weight, where no arrow is known."""
