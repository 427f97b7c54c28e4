"""The numbers of the archer: draw length, hook depth, and where the string stands at full draw."""

import math
from dataclasses import dataclass

from lyrandis.core.archer.draw import Draw, draw_of, hook_depth
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.constants import MARKED_DRAW_MM, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate


@dataclass(frozen=True, slots=True)
class ArcherNumbers:
    """Lengths in mm, on the trade datum."""

    draw: Draw | None
    hook: Estimate
    at_hook: Estimate | None
    """String position at the hook, at full draw."""

    @property
    def pivot_mm(self) -> float | None:
        """The string at the hook from the pivot, at full draw."""
        return self.at_hook.value - TRADE_OFFSET_MM if self.at_hook else None

    @property
    def draw_mm(self) -> float | None:
        return self.draw.length.value if self.draw else None

    @property
    def drawn_to(self) -> Estimate:
        """Where the bow is judged: at the own draw, at the marked draw until that is known."""
        return self.at_hook or Estimate(MARKED_DRAW_MM, 0.0)


def numbers(facts: ArcherFacts, *, likeness: Likeness) -> ArcherNumbers:
    """Return draw and hook depth; the hook follows from the string's angle where nobody measured.

    The angle needs the draw, and a draw read on a scale needs the hook: the usual hook depth gives
    the first, and one round settles it to a sixty-fourth of an inch.
    """
    hook = hook_depth(facts)
    draw = draw_of(facts, hook)
    if facts.hook_depth is None and draw is not None and likeness.known:
        pivot = draw.length.value + hook.value - TRADE_OFFSET_MM
        curve = likeness.curve
        angle = curve.gamma.at(min(max(pivot, curve.first_mm), curve.last_mm))
        hook = hook_depth(facts, angle)
        draw = draw_of(facts, hook)
    return ArcherNumbers(draw, hook, _behind(draw.length, hook) if draw else None)


def _behind(draw: Estimate, hook: Estimate) -> Estimate:
    return Estimate(draw.value + hook.value, math.hypot(draw.sd, hook.sd))
