"""Stack: where the weight climbs steeply near the end of the limbs' travel.

Draws in mm, true to the pivot. The slope of a draw curve falls from brace, has one minimum, and
rises again. Stack is said to begin where it has grown to 1.6 times that minimum (felt from 1.5): a
convention of Lyrandis, taken to be within about an inch of practitioners' limits. The folk "string
at a right angle to the tip" holds for straight limbs only and is not used.
"""

from dataclasses import dataclass
from functools import lru_cache

from lyrandis.core.bow.hermite import Hermite
from lyrandis.core.bow.statics import BowShape, DrawCurve, draw_curve
from lyrandis.core.constants import MM_PER_IN

ONSET = 1.6
FELT = 1.5
SEARCH_FROM = 0.35
"""The minimum is searched beyond this share of the stroke: before it a recurve's string lifts."""
ONSET_SD_MM = MM_PER_IN / 2
"""One standard deviation of the onset against what archers report (within an inch as a rule)."""
UNKNOWN_ONSET_SD_MM = 1.25 * MM_PER_IN
"""The same where family or length is not told."""
_STEP_MM = MM_PER_IN / 4
_HALF = 2
"""Steps in half an inch: the slope is that over an inch."""


@dataclass(frozen=True)
class Stack:
    """Where stack is felt and where it begins; None where the curve ends before it."""

    least_slope: float
    """In the curve's own unit of force, per mm."""
    least_at_mm: float
    felt_mm: float | None
    onset_mm: float | None
    onset_sd_mm: float = ONSET_SD_MM
    felt: bool = False
    """True where its archer said where it is felt."""
    read: bool = False
    """True where the scale shows it: slopes are then in pounds, else in the kind's own unit."""


def stack_of(curve: DrawCurve, climbs: Hermite | None = None, *, known: bool = True) -> Stack:
    """Return the stack of a bow; of `climbs`, a curve fitted to it, where one is given.

    The slope is that over an inch, so that the pieces a limb is computed in do not show. Scanned in
    quarters of an inch and found by straight line between them. `known` says whether the
    bow's kind was told; the onset is less sure where it was not.

    Assumption: onset at 1.6 times the least slope, our convention (see the module).

    >>> shape = BowShape("hunting_recurve", 1575.0, 432.0, 203.0)
    >>> round(stack_of(draw_curve(shape)).onset_mm / 25.4, 1)
    28.6
    """
    force = (climbs or curve.force).at

    first, last = curve.first_mm, curve.last_mm
    start = first + SEARCH_FROM * (last - first)
    count = int((last - start) / _STEP_MM)
    xs = [start + index * _STEP_MM for index in range(count + 1)]
    # (F(x + half an inch) - F(x - half an inch)) / an inch, cut off where the curve ends
    grid = [start + index * _STEP_MM for index in range(-_HALF, count + 1 + _HALF)]
    ends = [min(max(x, first), last) for x in grid]
    forces = [force(x) for x in ends]
    slopes = [
        (forces[index + 2 * _HALF] - forces[index]) / (ends[index + 2 * _HALF] - ends[index])
        for index in range(count + 1)
    ]
    low = min(range(len(xs)), key=slopes.__getitem__)
    least = slopes[low]

    def reaches(share: float) -> float | None:
        for index in range(low + 1, len(xs)):
            if slopes[index] >= share * least:
                run = slopes[index] - slopes[index - 1]
                back = (slopes[index] - share * least) / run if run > 0 else 0.0
                return xs[index] - back * _STEP_MM
        return None

    sd = ONSET_SD_MM if known else UNKNOWN_ONSET_SD_MM
    return Stack(least, xs[low], reaches(FELT), reaches(ONSET), sd)


@lru_cache(maxsize=512)
def typical_stack(shape: BowShape) -> Stack:
    """Return the stack of a family's typical shape. Errors: those of `draw_curve`.

    Assumption: as `stack_of`.

    >>> round(typical_stack(BowShape("hunting_recurve", 1575.0, 432.0, 203.0)).onset_mm / 25.4, 1)
    28.6
    """
    return stack_of(draw_curve(shape))
