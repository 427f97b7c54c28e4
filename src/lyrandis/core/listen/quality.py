"""What is wrong with a recording, in words that say what to do; and what may still be said."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.listen.features import Features
from lyrandis.core.listen.sound import Array

ALIKE_SAMPLES, ALIKE_SHARE, LOUD = 4, 0.0005, 0.2
FAINT = 0.004
FEW_TAKES = 3
NOISY_DB = 6.0
LOW_RATE_HZ = 15_900.0
PLUCK_SHOT_DB = 3.0
STEADY_TAKES, STEADY_P = 5, 0.05

Trouble = Literal[
    "clipped", "too_quiet", "few_takes", "no_takes", "noisy", "low_rate", "gain_rides"
]
SAYS: dict[Trouble, str] = {
    "clipped": "The recorder was overloaded: move it back or lower its gain.",
    "too_quiet": "Hardly any sound: move nearer.",
    "few_takes": "Fewer than three takes: three at least, five are better.",
    "no_takes": "No pluck or shot found.",
    "noisy": "Too noisy here: go indoors or wait for the wind.",
    "low_rate": "Above 3.6 kHz nothing was recorded: a rattle may be missed.",
    "gain_rides": "The phone seems to adjust its own gain: switch it off.",
}
May = Literal["levels", "rattle", "comparison", "note"]
"""What may be said of a recording."""
FORBIDS: dict[Trouble, frozenset[May]] = {
    "clipped": frozenset({"levels"}),
    "too_quiet": frozenset({"levels", "rattle", "comparison", "note"}),
    "few_takes": frozenset({"comparison"}),
    "no_takes": frozenset({"levels", "rattle", "comparison", "note"}),
    "noisy": frozenset({"levels", "comparison"}),
    "low_rate": frozenset({"rattle"}),
    "gain_rides": frozenset({"levels"}),
}


class Quality(NamedTuple):
    """What is wrong, gravest first."""

    troubles: tuple[Trouble, ...]

    def may(self, what: May) -> bool:
        """Return whether something may be said of the recording all the same."""
        return not any(what in FORBIDS[one] for one in self.troubles)


def quality_of(samples: Array, rate: float, heard: Sequence[Features]) -> Quality:
    """Return what is wrong with a recording, `samples` as they were read, full scale 1.

    Clipped: four samples alike within 0.05 % at its largest, and that over 0.2. Source: our own;
    the check of gain that rides was never tried on a real phone.

    >>> quality_of(np.zeros(48000), 48000.0, ()).troubles
    ('too_quiet', 'no_takes')
    """
    peak = float(np.abs(samples).max(initial=0.0))
    found: list[Trouble] = []
    if peak < FAINT:
        found.append("too_quiet")
    if not heard:
        found.append("no_takes")
    if _clipped(samples, peak):
        found.append("clipped")
    if heard and float(np.median([one.snr for one in heard])) < NOISY_DB:
        found.append("noisy")
    if _rides([one.level for one in heard]):
        found.append("gain_rides")
    if 0 < len(heard) < FEW_TAKES:
        found.append("few_takes")
    if rate < LOW_RATE_HZ:
        found.append("low_rate")
    return Quality(tuple(found))


def _clipped(samples: Array, peak: float) -> bool:
    if peak <= LOUD:
        return False
    at_top = np.abs(samples) >= peak * (1 - ALIKE_SHARE)
    run = np.convolve(at_top.astype(int), np.ones(ALIKE_SAMPLES, dtype=int), mode="valid")
    return bool((run == ALIKE_SAMPLES).any())


def _rides(levels: Sequence[float]) -> bool:
    """Return whether takes of one file grow louder or fainter steadily: Kendall's tau, p < 0.05."""
    count = len(levels)
    if count < STEADY_TAKES:
        return False
    signs = sum(
        float(np.sign(levels[later] - levels[sooner]))
        for sooner in range(count)
        for later in range(sooner + 1, count)
    )
    # the sum's variance where order means nothing: n (n - 1)(2n + 5)/18
    spread = (count * (count - 1) * (2 * count + 5) / 18) ** 0.5
    return bool((abs(signs) - 1) / spread > 1.96)
