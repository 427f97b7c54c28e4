"""What follows from a setup before anything is judged: the numbers the rules look at."""

import math
from dataclasses import dataclass

from lyrandis.core.archer.draw import Draw, Estimate, draw_of, hook_depth
from lyrandis.core.arrow.mass import (
    ArrowMass,
    Floor,
    arrow_mass_of,
    floor_of,
    grains_per_pound,
)
from lyrandis.core.bow.weight import DrawWeight, draw_weight_at
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.setup import Setup


@dataclass(frozen=True)
class Computed:
    """Lengths in mm (trade datum), weights in lbf, masses in grains."""

    setup: Setup
    draw: Draw | None
    hook: Estimate
    at_hook: Estimate | None
    """String position at the hook, at full draw."""
    weight: DrawWeight | None
    """At the archer's own draw; at the marked draw while that is unknown."""
    arrow: ArrowMass | None
    gpp: Estimate | None
    floor: Floor

    @property
    def weight_is_own(self) -> bool:
        return self.draw is not None


def compute(setup: Setup) -> Computed:
    """Return the numbers that follow from a setup; None where something is missing."""
    draw = draw_of(setup.archer, setup.bow)
    hook = hook_depth(setup.archer)
    at_hook = _behind(draw.length, hook) if draw else None
    weight = draw_weight_at(setup.bow, at_hook or Estimate(MARKED_DRAW_MM, 0.0), hook)
    arrow = arrow_mass_of(setup.arrows, draw.length.value if draw else None)
    gpp = grains_per_pound(arrow.mass, weight.weight) if arrow and weight and draw else None
    return Computed(
        setup=setup,
        draw=draw,
        hook=hook,
        at_hook=at_hook,
        weight=weight,
        arrow=arrow,
        gpp=gpp,
        floor=floor_of(setup.bow, weight.weight if weight else None),
    )


def _behind(draw: Estimate, hook: Estimate) -> Estimate:
    return Estimate(draw.value + hook.value, math.hypot(draw.sd, hook.sd))
