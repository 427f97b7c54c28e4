"""The numbers of the bow: its weight, where it stacks, what it stores and what it gives."""

import math
from dataclasses import dataclass

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.words import Hold
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.likeness import Likeness
from lyrandis.core.bow.stack import Stack
from lyrandis.core.bow.stack_read import stack_of_rig
from lyrandis.core.bow.thrust import Calibration, Thrust, calibrate, thrust_of
from lyrandis.core.bow.weight import DrawWeight, draw_weight_at
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate


@dataclass(frozen=True, slots=True)
class BowNumbers:
    """Lengths in mm, weights in lbf, masses in grains, energies in joules."""

    likeness: Likeness
    weight: DrawWeight | None
    """At the archer's own draw; at the marked draw while that is unknown."""
    own_weight: DrawWeight | None
    """The same, only where the archer's draw is known."""
    stack: Stack
    """True draws to the pivot: of the curve its scale shows, else of its kind's limbs."""
    stack_margin_mm: Estimate | None
    """From the string at the hook to the onset of stack; below 0 it stacks."""
    thrust: Thrust | None
    """At the archer's own draw, drawn to the chronograph where there is a reading."""
    mechanical: Thrust | None
    """The same by the mechanics alone."""
    calibration: Calibration | None

    @property
    def weight_is_own(self) -> bool:
        return self.own_weight is not None


def numbers(
    facts: BowFacts,
    *,
    archer_facts: ArcherFacts,
    likeness: Likeness,
    archer: ArcherNumbers,
    string_gr: float | None,
    arrow_gr: float | None,
    hold: Hold | None = None,
    silencers_gr: float = 0.0,
) -> BowNumbers:
    """Return the bow's numbers; None where something is missing.

    `silencers_gr` is what of the silencers moves with the arrow.

    `archer_facts` hold the bow's measured grip depths; `arrow_gr` stands in for a chronograph
    reading that has no mass of its own.
    """
    at = archer.drawn_to
    weight = draw_weight_at(facts, archer_facts, at=at, hook=archer.hook, likeness=likeness)
    own = weight if archer.draw else None
    mechanical = thrust_of(own, at, string_gr, hold, silencers_gr) if own else None
    calibration = calibrate(mechanical, facts.speeds, arrow_gr) if mechanical else None
    felt = facts.stack_felt.reading.draw_length_mm if facts.stack_felt else None
    stack = stack_of_rig(likeness, weight, archer.at_hook, felt)
    return BowNumbers(
        likeness=likeness,
        weight=weight,
        own_weight=own,
        stack=stack,
        stack_margin_mm=_margin(stack, archer.at_hook),
        thrust=calibration.after if calibration else mechanical,
        mechanical=mechanical,
        calibration=calibration,
    )


def _margin(stack: Stack, at_hook: Estimate | None) -> Estimate | None:
    if at_hook is None or stack.onset_mm is None:
        return None
    margin = stack.onset_mm + TRADE_OFFSET_MM - at_hook.value
    return Estimate(margin, math.hypot(stack.onset_sd_mm, at_hook.sd))
