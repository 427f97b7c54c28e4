"""What an instrument is: something that sends lines, and what is read in them.

A line is `<number> <unit>`, with ` LB` behind it while its battery is low. A real driver is one
class with `read_line`: it returns the next line, raises `TimeoutError` when nothing came in time,
and `UnpluggedError` when the device is gone. See `serial_line.py`.
"""

import re
from dataclasses import dataclass
from typing import Literal, NamedTuple, Protocol

from lyrandis.core.constants import (
    GRAINS_PER_GRAM,
    KG_PER_LB,
    M_PER_FT,
    MM_PER_IN,
    NEWTONS_PER_LBF,
)
from lyrandis.core.units import Unit

InstrumentKind = Literal[
    "bow_scale", "grain_scale", "spine_gauge", "chronograph", "bow_square", "calliper"
]  # fmt: skip
InstrumentFault = Literal["drift", "timeout", "unplugged", "low_battery", "nonsense"]


@dataclass(frozen=True)
class Make:
    """One kind of instrument: what it measures, in which stored unit, how finely."""

    name: str
    measures: str
    unit: Unit
    resolution: float
    """One step of its display, in the stored unit."""
    spread: float
    """Standard deviation of its noise, in steps."""
    units: dict[str, float]
    """Units its lines may carry, each over the stored one."""


MAKES: dict[InstrumentKind, Make] = {
    "bow_scale": Make(
        "Bow scale", "draw weight", "lbf", 0.1, 0.6,
        {"lb": 1.0, "n": 1 / NEWTONS_PER_LBF, "kg": 1 / KG_PER_LB},
    ),
    "grain_scale": Make(
        "Grain scale", "mass of an arrow", "gr", 0.1, 0.6, {"gr": 1.0, "g": GRAINS_PER_GRAM}
    ),
    "spine_gauge": Make("Spine gauge", "static spine of a shaft", "spine", 0.5, 0.6, {"lb": 1.0}),
    "chronograph": Make(
        "Chronograph", "arrow speed", "m/s", 0.1, 2.0, {"m/s": 1.0, "fps": M_PER_FT}
    ),
    "bow_square": Make("Bow square", "brace height", "mm", 0.5, 0.5, {"mm": 1.0, "in": MM_PER_IN}),
    "calliper": Make("Calliper", "thickness", "gap", 0.01, 1.0, {"mm": 1.0, "in": MM_PER_IN}),
}  # fmt: skip
"""Assumption: steps and noise of ordinary bench instruments."""


class UnpluggedError(Exception):
    """The device is gone."""


class Instrument(Protocol):
    """Something that sends lines."""

    kind: InstrumentKind
    simulated: bool

    def read_line(self) -> str:
        """Return the next line; see the module."""

    def close(self) -> None:
        """Let go of the device."""


class Shown(NamedTuple):
    """What the display shows, in the stored unit."""

    value: float
    low_battery: bool


_LINE = re.compile(r"^\s*([-+]?\d{1,6}(?:\.\d{1,6})?)\s*([a-z/]{1,4})(\s+LB)?\s*$", re.IGNORECASE)


def read(line: str, kind: InstrumentKind) -> Shown | None:
    """Return what a line shows, None for one that makes no sense.

    >>> read("431.2 gr", "grain_scale")
    Shown(value=431.2, low_battery=False)
    >>> read("#?9;", "grain_scale") is None
    True
    """
    found = _LINE.match(line)
    factor = MAKES[kind].units.get(found[2].lower()) if found else None
    if found is None or factor is None:
        return None
    return Shown(float(found[1]) * factor, bool(found[3]))
