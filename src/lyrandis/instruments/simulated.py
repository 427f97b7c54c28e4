"""Simulated instruments: they settle on a value with noise, and can be made to fail. Seeded."""

import math
import random

from lyrandis.instruments.instrument import MAKES, InstrumentFault, InstrumentKind, UnpluggedError

SWING = 0.12
"""How far off the first value is, as a share."""
FADES_OVER = 5.0
"""Lines over which the swing falls to a third."""
DRIFT_STEPS = 2.0
"""Steps of the display a drifting instrument moves by, a line."""
UNPLUGGED_AFTER = 6


class Simulated:
    """A stand-in that ships with Lyrandis; nothing is measured."""

    simulated = True

    def __init__(
        self, kind: InstrumentKind, truth: float, *, seed: int, fault: InstrumentFault | None = None
    ) -> None:
        self.kind = kind
        self._truth = truth
        self._fault = fault
        self._world = random.Random(seed)
        self._line = 0

    def read_line(self) -> str:
        """Return the next line of the display."""
        self._line += 1
        if self._fault == "timeout":
            raise TimeoutError
        if self._fault == "unplugged" and self._line > UNPLUGGED_AFTER:
            raise UnpluggedError
        if self._fault == "nonsense" and self._line > 2:
            return "".join(self._world.choice("#?;%~") for _ in range(6))
        make = MAKES[self.kind]
        swing = SWING * self._truth * math.exp(-self._line / FADES_OVER)
        value = self._truth + swing * math.cos(1.3 * self._line)
        value += self._world.gauss(0.0, make.spread) * make.resolution
        if self._fault == "drift":
            value += DRIFT_STEPS * make.resolution * self._line
        shown = round(value / make.resolution) * make.resolution
        unit = next(iter(make.units))
        return f"{shown:.3f} {unit}{' LB' if self._fault == 'low_battery' else ''}"

    def close(self) -> None:
        """Nothing is held."""
