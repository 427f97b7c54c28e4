"""Units: converting between what archers speak and what is stored, and saying it back.

Stored: lengths in mm, forces in lbf, masses in grains. Converted at the edge only.
"""

import math
from datetime import UTC, datetime
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from typing import Literal, get_args

from lyrandis.core.constants import (
    GRAINS_PER_GRAM,
    GRAINS_PER_OUNCE,
    KG_PER_LB,
    M_PER_FT,
    M_PER_YD,
    MM_PER_IN,
    NEWTONS_PER_LBF,
    PACE_M,
)

Unit = Literal[
    "mm", "gap", "lbf", "gr", "gr/lbf", "lbf/in", "gr/in", "m/s", "J", "deg", "%", "count",
    "spine", "Hz", "dB", "ms", "ratio", "day", "m", "s", "h", "g", "/in",
]  # fmt: skip
"""Units a stored figure can have. `gap` is a small length, said in mm in every set of units;
`spine` is pounds of the wood scale, said beside thousandths; `day` is an instant in seconds since
1970, said as the day it was where the reader is, in UTC where nobody is known to read."""

UnitSet = Literal["inch", "centimetre", "metric"]
"""What the archer reads: in-lb-gr, cm-lb-gr or cm-N-g."""
UNIT_SETS: tuple[UnitSet, ...] = get_args(UnitSet)

LENGTH_UNITS_MM: dict[str, float] = {
    **dict.fromkeys(("in", "inch", "inches", '"', "″", "”", "''"), MM_PER_IN),
    **dict.fromkeys(("cm", "centimetre", "centimetres", "centimeter", "centimeters"), 10.0),
    **dict.fromkeys(("mm", "millimetre", "millimetres", "millimeter", "millimeters"), 1.0),
    **dict.fromkeys(("ft", "foot", "feet", "'"), 12 * MM_PER_IN),
    **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), 1000.0),
}
FORCE_UNITS_LBF: dict[str, float] = {
    "lb": 1.0, "lbs": 1.0, "lbf": 1.0, "#": 1.0, "pound": 1.0, "pounds": 1.0,
    **dict.fromkeys(("kg", "kgs", "kgf", "kilo", "kilos"), 1 / KG_PER_LB),
    "n": 1 / NEWTONS_PER_LBF, "newton": 1 / NEWTONS_PER_LBF, "newtons": 1 / NEWTONS_PER_LBF,
}  # fmt: skip
MASS_UNITS_GR: dict[str, float] = {
    **dict.fromkeys(("gr", "grain", "grains", "gn", "grn"), 1.0),
    **dict.fromkeys(("g", "gram", "grams", "gramme", "grammes"), GRAINS_PER_GRAM),
    **dict.fromkeys(("oz", "ounce", "ounces"), GRAINS_PER_OUNCE),
}  # fmt: skip
GPP_UNITS: dict[str, float] = {"gpp": 1.0, "gr/lb": 1.0}
SPEED_UNITS_MPS: dict[str, float] = {
    "fps": M_PER_FT, "ft/s": M_PER_FT, "m/s": 1.0, "mps": 1.0, "km/h": 1 / 3.6,
    "kmh": 1 / 3.6,
}  # fmt: skip
SPINE_UNITS: dict[str, float] = {
    **dict.fromkeys(("lb", "lbs", "lbf", "#", "pound", "pounds"), 1.0),
    **dict.fromkeys(("thou", "thousandths"), 1.0),
}  # fmt: skip
"""Pounds are the wood scale's; thousandths run the other way (see jot_arrow)."""
GPI_UNITS: dict[str, float] = {"gpi": 1.0, "gr/in": 1.0}

DISTANCE_UNITS_M: dict[str, float] = {
    **dict.fromkeys(("m", "metre", "metres", "meter", "meters"), 1.0),
    **dict.fromkeys(("yd", "yds", "y", "yard", "yards"), M_PER_YD),
    **dict.fromkeys(("pace", "paces", "step", "steps"), PACE_M),
    **dict.fromkeys(("ft", "foot", "feet"), M_PER_FT),
    **dict.fromkeys(("km", "kilometre", "kilometres", "kilometer", "kilometers"), 1000.0),
}
"""Of distances that are shot; paced ones are as good as the pace."""
YARDS = frozenset({"yd", "yds", "y", "yard", "yards"})

POUNDS_TIMES_THOUSANDTHS = 26.0 * 1000 * (0.880 / (2 * KG_PER_LB)) * (28 / 26) ** 3
"""Of one and the same shaft, about 31 500. Source: a beam on two supports bends with load times
span cubed; pounds are 26 over the inches under 2 lb on 26 in, thousandths under 880 g on 28 in."""
SPINE_THOUSANDTHS = 31500.0
"""Pounds times thousandths of one shaft, in round figures: only for saying it (see arrow/spine)."""

_PLAIN: dict[Unit, tuple[float, int, str]] = {
    "J": (1.0, 1, "J"), "deg": (1.0, 0, "°"), "%": (1.0, 0, "%"), "gap": (1.0, 1, "mm"),
    "spine": (1.0, 0, "lb"), "Hz": (1.0, 0, "Hz"),
    "dB": (1.0, 1, "dB"), "ms": (1.0, 1, "ms"), "ratio": (1.0, 2, ""),
    "m": (1.0, 1, "m"), "s": (1.0, 1, "s"), "h": (1.0, 0, "h"), "g": (1.0, 0, "g"),
}  # fmt: skip
_SIXTEENTH_MM = MM_PER_IN / 16
LEAST_BOW_LBF = 8.0
"""From here on a force is a draw weight: pounds stand beside newtons, for they are on bows."""
SMALL_LENGTH_MM = 50.0
"""Shorter lengths are said in mm, longer ones in cm."""


def mm_from_in(length_in: float) -> float:
    """Return millimetres from inches.

    >>> round(mm_from_in(28), 6)
    711.2
    """
    return length_in * MM_PER_IN


def in_from_mm(length_mm: float) -> float:
    """Return inches from millimetres.

    >>> round(in_from_mm(695.325), 6)
    27.375
    """
    return length_mm / MM_PER_IN


def sixteenths(length_mm: float) -> str:
    """Write a length as inches to the nearest sixteenth, the way a bench rule reads.

    >>> sixteenths(695.325), sixteenths(1625.6), sixteenths(-3.175), sixteenths(0.4)
    ('27 3/8', '64', '-1/8', '0')
    """
    count = math.floor(abs(length_mm) / _SIXTEENTH_MM + 0.5)
    whole, rest = divmod(count, 16)
    parts = [str(whole)] if whole or not rest else []
    if rest:
        parts.append(str(Fraction(rest, 16)))
    return ("-" if length_mm < 0 < count else "") + " ".join(parts)


def fixed(value: float, places: int) -> str:
    """Write a number with so many decimals, halves away from zero as the page does.

    >>> fixed(558.5, 0), fixed(-0.25, 1), fixed(42.64, 1)
    ('559', '-0.3', '42.6')
    """
    step = Decimal(1).scaleb(-places)
    return str(Decimal(value + 0.0).quantize(step, ROUND_HALF_UP))


def say(
    value: float, unit: Unit, plus_minus: float | None = None, *, units: UnitSet = "inch"
) -> str:
    """Write a stored figure in the archer's units, its ± (if any) before the unit.

    >>> say(695.325, "mm", 3.2)
    '27 3/8 ± 1/8 in'
    >>> say(695.325, "mm", units="centimetre")
    '69.5 cm'
    >>> say(42.64, "lbf", 1.1, units="metric")
    '190 ± 5 N (42.6 lb)'
    >>> say(1764000000.0, "day")
    '24 November 2025'
    """
    if unit == "day":
        return f"{datetime.fromtimestamp(value, UTC):%-d %B %Y}"
    number, spread, label = _in_units(value, unit, plus_minus, units)
    if unit == "spine":
        label = f"lb ({5 * math.floor(SPINE_THOUSANDTHS / value / 5 + 0.5)})"
    elif unit == "lbf" and units == "metric" and value >= LEAST_BOW_LBF:
        label = f"N ({fixed(value, 1)} lb)"
    said = number if spread is None else f"{number} ± {spread}"
    return f"{said}{'' if label == '°' else ' '}{label}".strip()


def _in_units(
    value: float, unit: Unit, plus_minus: float | None, units: UnitSet
) -> tuple[str, str | None, str]:
    if unit == "mm" and units == "inch":
        spread = None if plus_minus is None else sixteenths(max(plus_minus, _SIXTEENTH_MM))
        return sixteenths(value), spread, "in"
    factor, places, label = scale_of(unit, units)
    if unit == "mm" and abs(value) < SMALL_LENGTH_MM:
        factor, places, label = 1.0, 0, "mm"
    spread = None
    if plus_minus is not None:
        least = 10.0**-places
        spread = fixed(max(plus_minus * factor, least), places)
    return fixed(value * factor, places), spread, label


def scale_of(unit: Unit, units: UnitSet) -> tuple[float, int, str]:
    """Return factor, decimal places and label of a stored unit; lengths in cm.

    >>> scale_of("mm", "metric")
    (0.1, 1, 'cm')
    """
    metric = units == "metric"
    if unit == "mm":
        return 0.1, 1, "cm"
    if unit == "lbf":
        return (NEWTONS_PER_LBF, 0, "N") if metric else (1.0, 1, "lb")
    if unit == "gr":
        return (1 / GRAINS_PER_GRAM, 1, "g") if metric else (1.0, 0, "gr")
    if unit == "gr/in":
        return (1 / GRAINS_PER_GRAM / 2.54, 2, "g/cm") if metric else (1.0, 1, "gr/in")
    if unit == "/in":
        return (1.0, 2, "to the inch") if units == "inch" else (1 / 2.54, 2, "to the cm")
    if unit == "lbf/in":
        return (NEWTONS_PER_LBF / 2.54, 1, "N/cm") if metric else (1.0, 1, "lb/in")
    if unit == "gr/lbf":
        return 1.0, 1, "gr/lb"
    if unit == "m/s":
        return (1 / M_PER_FT, 0, "fps") if units == "inch" else (1.0, 1, "m/s")
    if unit in _PLAIN:
        return _PLAIN[unit]
    return 1.0, 0, ""
