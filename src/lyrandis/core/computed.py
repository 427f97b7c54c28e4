"""What follows from a setup before anything is judged: the numbers the rules look at."""

import math
from dataclasses import dataclass

from lyrandis.core.archer.draw import Draw, draw_of, hook_depth
from lyrandis.core.arrow.build import BuildSheet, build_sheet
from lyrandis.core.arrow.mass import (
    ArrowMass,
    Floor,
    arrow_mass_of,
    floor_of,
    grains_per_pound,
)
from lyrandis.core.arrow.match import SpineMatch, match_spine
from lyrandis.core.arrow.shooting import Shooting, shooting_of
from lyrandis.core.bow.likeness import Likeness, brace_to_pivot, likeness_of
from lyrandis.core.bow.stack import Stack, stack_of
from lyrandis.core.bow.thrust import Calibration, Thrust, calibrate, floor_per_pound, thrust_of
from lyrandis.core.bow.weight import DrawWeight, draw_weight_at
from lyrandis.core.constants import MARKED_DRAW_MM, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.setup import Setup


@dataclass(frozen=True)
class Computed:
    """Lengths in mm (trade datum), weights in lbf, masses in grains."""

    setup: Setup
    likeness: Likeness
    draw: Draw | None
    hook: Estimate
    at_hook: Estimate | None
    """String position at the hook, at full draw."""
    weight: DrawWeight | None
    """At the archer's own draw; at the marked draw while that is unknown."""
    stack: Stack
    """True draws to the pivot: of the fitted curve, or of the bow's kind before weighing."""
    thrust: Thrust | None
    """At the archer's own draw, drawn to the chronograph where there is a reading."""
    calibration: Calibration | None
    arrow: ArrowMass | None
    sheet: BuildSheet
    shooting: Shooting | None
    """The rig's own shot; None until draw and weight are known."""
    match: SpineMatch | None
    gpp: Estimate | None
    floor: Floor

    @property
    def weight_is_own(self) -> bool:
        return self.draw is not None

    @property
    def pivot_mm(self) -> float | None:
        """The string at the hook from the pivot, at full draw."""
        return self.at_hook.value - TRADE_OFFSET_MM if self.at_hook else None

    @property
    def stack_margin_mm(self) -> Estimate | None:
        """From the string at the hook to the onset of stack; below 0 it stacks."""
        if self.at_hook is None or self.stack.onset_mm is None:
            return None
        margin = self.stack.onset_mm + TRADE_OFFSET_MM - self.at_hook.value
        return Estimate(margin, math.hypot(self.stack.onset_sd_mm, self.at_hook.sd))


def compute(setup: Setup) -> Computed:
    """Return the numbers that follow from a setup; None where something is missing."""
    likeness = likeness_of(setup.bow, brace_to_pivot(setup.string, setup.archer))
    draw, hook = _drawn(setup, likeness)
    at_hook = _behind(draw.length, hook) if draw else None
    at = at_hook or Estimate(MARKED_DRAW_MM, 0.0)
    weight = draw_weight_at(setup.bow, setup.archer, at=at, hook=hook, likeness=likeness)
    arrow = arrow_mass_of(setup.arrows, draw.length.value if draw else None)
    own = weight if draw else None
    mechanical = thrust_of(own, at, _string_gr(setup)) if own else None
    calibration = None
    if mechanical is not None:
        calibration = calibrate(mechanical, setup.bow.speeds, arrow.mass.value if arrow else None)
    thrust = calibration.after if calibration else mechanical
    sheet = build_sheet(setup.arrows, arrow, draw.length.value if draw else None)
    shooting = None
    if own and thrust and mechanical and draw and at_hook:
        shooting = shooting_of(
            setup,
            sheet=sheet,
            weight=own,
            thrust=thrust,
            mechanical=mechanical,
            draw=draw.length,
            at_hook=at_hook,
        )
    return Computed(
        setup=setup,
        likeness=likeness,
        draw=draw,
        hook=hook,
        at_hook=at_hook,
        weight=weight,
        stack=stack_of(likeness.curve, weight.fitted if weight else None, known=likeness.known),
        thrust=thrust,
        calibration=calibration,
        arrow=arrow,
        sheet=sheet,
        shooting=shooting,
        match=match_spine(shooting.shot, shooting.own_lbf) if shooting else None,
        gpp=grains_per_pound(arrow.mass, own.weight) if arrow and own else None,
        floor=floor_of(
            setup.bow, own.weight if own else None, floor_per_pound(own, thrust, likeness)
        ),
    )


def _drawn(setup: Setup, likeness: Likeness) -> tuple[Draw | None, Estimate]:
    """Return draw and hook depth; the hook follows from the string's angle where nobody measured.

    The angle needs the draw, and a draw read on a scale needs the hook: the usual hook depth gives
    the first, and one round settles it to a sixty-fourth of an inch.
    """
    hook = hook_depth(setup.archer)
    draw = draw_of(setup.archer, hook)
    if setup.archer.hook_depth is not None or draw is None or not likeness.known:
        return draw, hook
    pivot = draw.length.value + hook.value - TRADE_OFFSET_MM
    curve = likeness.curve
    angle = curve.gamma.at(min(max(pivot, curve.first_mm), curve.last_mm))
    hook = hook_depth(setup.archer, angle)
    return draw_of(setup.archer, hook), hook


def _behind(draw: Estimate, hook: Estimate) -> Estimate:
    return Estimate(draw.value + hook.value, math.hypot(draw.sd, hook.sd))


def _string_gr(setup: Setup) -> float | None:
    builds = reversed(setup.string.builds)
    return next((b.reading.string_mass_gr for b in builds if b.reading.string_mass_gr), None)
