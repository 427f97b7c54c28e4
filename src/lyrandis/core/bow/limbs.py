"""Two limbs that do not belong together: how far apart they are, and what that does to the shot.

Lengths in mm, stiffness differences as shares. The string pulls both limbs alike, so the weaker one
bends further; let go, the stiffer one is home first and throws the arrow's tail up or down.
"""

import math
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.bow.readings import LimbPair
from lyrandis.core.bow.words import LimbsAre
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.judgement import Severity

WATCH_ABOVE, MEND_ABOVE, STOP_ABOVE = 0.03, 0.08, 0.20
"""Stiffness apart as a share. Lyrandis convention: makers pair limbs within about a pound in forty;
past a fifth the weaker limb is drawn as if the bow were drawn inches further than it is."""
MARKS_APART_LBF = 3.0
"""Marks are a pound or so wrong each: light limbs this little apart are only watched."""
LENGTHS_APART_MM = 0.98 * MM_PER_IN
"""Limbs an inch apart, measured to the eighth, are no pair."""
TWO_OF_A_KIND = 0.05
"""Assumption: bottom limbs are built about this much stiffer than top limbs (1/8 to 1/4 in of
tiller), so two of a kind are even where a pair leans on purpose."""
TWO_MAKERS = 0.06
"""Assumption: limbs of two makers with the same mark are apart as far as marks are wrong."""
TIME_ON_STRING_MS = 15.0
"""Assumption: an arrow's usual time on the string, 14 to 16 ms."""
_OF_KIND: dict[LimbsAre | None, float] = {
    "two_bottoms": TWO_OF_A_KIND,
    "two_tops": TWO_OF_A_KIND,
    "two_makers": TWO_MAKERS,
}


@dataclass(frozen=True)
class Mismatch:
    """How far apart two limbs are and what follows."""

    share: float
    """Stiffness apart over their mean; + when the upper limb is the stiffer."""
    by_weight: float
    by_length: float
    by_kind: float
    apart_ms: float
    """How much later the weaker limb comes home."""
    severity: Severity

    @property
    def stiffer(self) -> str:
        return "upper" if self.share > 0 else "lower"

    @property
    def nock_travels(self) -> Literal["up", "down"] | None:
        """Which way the nock goes on its way home: toward the weaker limb; None where unknown.

        Statics of two limbs (`drawn_off_middle`): drawn, the hook stands on the stiffer limb's
        side of its place at rest. They are far too soft in size: the way is all that is said.
        """
        if not (self.by_weight or self.by_length):
            return None
        return "down" if self.share > 0 else "up"


def mismatch_of(pair: LimbPair) -> Mismatch:
    """Return how far apart two limbs are.

    Stiffness goes with the marked weight and with the inverse cube of length (cantilever); of the
    two the larger counts, and limbs an inch apart are no pair whatever their marks. A limb's
    pace goes with the square root of its stiffness, so times differ by half the share.

    Assumption: shares and times are our conventions (docs/MECHANICS.md).

    >>> found = mismatch_of(LimbPair(upper_lbf=38.0, lower_lbf=42.0))
    >>> round(found.share, 3), round(found.apart_ms, 2), found.stiffer, found.severity
    (-0.1, 0.75, 'lower', 'mend')
    """
    by_weight = by_length = 0.0
    if pair.upper_lbf is not None and pair.lower_lbf is not None:
        by_weight = _apart(pair.upper_lbf, pair.lower_lbf)
    if pair.upper_length_mm is not None and pair.lower_length_mm is not None:
        by_length = 3 * _apart(pair.lower_length_mm, pair.upper_length_mm)
    # a limb's mark was taken with its length in it: the two do not cancel, the larger one counts
    known = max((by_weight, by_length), key=abs)
    by_kind = math.copysign(_OF_KIND.get(pair.pair, 0.0), known)
    share = known + by_kind
    severity = severity_of(abs(share))
    if severity == "mend" and known == by_weight and _marks_apart(pair) <= MARKS_APART_LBF:
        severity = "watch"
    if _inches_apart(pair) and severity in ("good", "watch"):
        severity = "mend"
    return Mismatch(
        share=share,
        by_weight=by_weight,
        by_length=by_length,
        by_kind=by_kind,
        apart_ms=TIME_ON_STRING_MS * abs(share) / 2,
        severity=severity,
    )


def _marks_apart(pair: LimbPair) -> float:
    return abs((pair.upper_lbf or 0.0) - (pair.lower_lbf or 0.0))


def _inches_apart(pair: LimbPair) -> bool:
    upper, lower = pair.upper_length_mm, pair.lower_length_mm
    return upper is not None and lower is not None and abs(upper - lower) > LENGTHS_APART_MM


def severity_of(apart: float) -> Severity:
    """Return how a stiffness difference is judged.

    Assumption: 3, 8 and 20 % are our conventions.

    >>> [severity_of(share) for share in (0.02, 0.05, 0.1, 0.25)]
    ['good', 'watch', 'mend', 'stop']
    """
    if apart > STOP_ABOVE:
        return "stop"
    if apart > MEND_ABOVE:
        return "mend"
    return "watch" if apart > WATCH_ABOVE else "good"


def _apart(one: float, other: float) -> float:
    return (one - other) / ((one + other) / 2)
