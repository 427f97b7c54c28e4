"""Taking one reading: lines are shown as they come until they are still, or something fails."""

import math
import statistics
from collections import deque
from collections.abc import Iterator
from typing import Literal, NamedTuple

from lyrandis.instruments.instrument import (
    MAKES,
    Instrument,
    InstrumentFault,
    Shown,
    UnpluggedError,
    read,
)

STILL = 8
"""Values that must lie close together."""
STILL_STEPS = 2.5
"""How far the last values may lie from their mean, in steps of the display, beside its noise."""
MOST_LINES_READ = 80
MOST_NONSENSE = 3
TREND = 0.75
"""Steps between the first and second half of what is still: more is a drift."""


class Sample(NamedTuple):
    """A value on the display."""

    value: float
    still: bool


class Taken(NamedTuple):
    """A reading that was still."""

    value: float
    plus_minus: float


class Failed(NamedTuple):
    """A reading that did not come, and what to do."""

    fault: InstrumentFault
    instruction: str


SessionStep = Sample | Taken | Failed
FAILURES: dict[InstrumentFault, str] = {
    "drift": "It drifts and does not come to rest. Let it warm up, set it to nought, take it anew.",
    "timeout": "It says nothing. See that it is switched on, and take it anew.",
    "unplugged": "It was unplugged before it was still. Plug it in, and take it anew.",
    "low_battery": "Its battery is low, and it then reads false. Change it, and take it anew.",
    "nonsense": "What it sends makes no sense. See that it is the right instrument and its cable.",
}

SessionEnd = Literal["taken", "failed"]


def take_reading(instrument: Instrument) -> Iterator[SessionStep]:
    """Yield what the display shows until it is still; then the reading, or why there is none.

    The last step is always a `Taken` or a `Failed`, and only one of them.
    """
    make = MAKES[instrument.kind]
    last: deque[float] = deque(maxlen=STILL)
    nonsense = 0
    for _ in range(MOST_LINES_READ):
        try:
            shown = read(instrument.read_line(), instrument.kind)
        except TimeoutError:
            yield Failed("timeout", FAILURES["timeout"])
            return
        except UnpluggedError:
            yield Failed("unplugged", FAILURES["unplugged"])
            return
        if shown is None:
            nonsense += 1
            if nonsense > MOST_NONSENSE:
                yield Failed("nonsense", FAILURES["nonsense"])
                return
            continue
        if shown.low_battery:
            yield Failed("low_battery", FAILURES["low_battery"])
            return
        last.append(shown.value)
        still = _still(last, make.resolution, make.spread)
        yield Sample(shown.value, still)
        if still:
            yield _reading(last, make.resolution)
            return
    yield Failed("drift", FAILURES["drift"])


def _still(last: deque[float], resolution: float, spread: float) -> bool:
    if len(last) < STILL:
        return False
    values = list(last)
    mean = statistics.fmean(values)
    near = all(abs(v - mean) <= (STILL_STEPS + 2 * spread) * resolution for v in values)
    half = STILL // 2
    trend = abs(statistics.fmean(values[half:]) - statistics.fmean(values[:half]))
    return near and trend <= (TREND + spread) * resolution


def _reading(last: deque[float], resolution: float) -> Taken:
    """Return the mean of what was still, to a step, with twice its sd: noise, and half a step."""
    mean = statistics.fmean(last)
    step = resolution / math.sqrt(12)
    sd = math.hypot(statistics.stdev(last) / math.sqrt(len(last)), step)
    return Taken(round(round(mean / resolution) * resolution, 6), 2 * sd)


__all__ = ["FAILURES", "Failed", "Sample", "SessionStep", "Shown", "Taken", "take_reading"]
