"""The one thing most worth doing: danger first, then what is missing, then what is least sure.

Worth is measured on grains per pound, the number the first three stages lead to: the reading that
takes most off its ± comes first.
"""

import math
from dataclasses import dataclass

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import METHOD_SD_IN
from lyrandis.core.arrow.judge_mass import WEIGH_ARROW
from lyrandis.core.arrow.mass import SCALE_SD_GR
from lyrandis.core.bow.judge_weight import WEIGH
from lyrandis.core.bow.weight import SCALE_SD_LBF, DrawWeight
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, gpp, lbf_per_in, mm, phrase
from lyrandis.core.reading import StageKey

SHARP_ENOUGH = 0.025
"""A ± on grains per pound below this share is not worth another evening."""
MEASURED_HOOK_SD_MM = MM_PER_IN / 16

_MARK_ARROW = j.Action(label="Enter the draw", stage="archer", control="draw")
_HOOK = j.Action(label="Enter the hook depth", stage="archer", control="hook")


_STOPS = {
    "arrow-floor": "These arrows are too light",
    "arrow-length": "These arrows are too short",
    "past-draw-limit": "Drawn past the maker's limit",
    "stack-margin": "Drawn far into stack",
    "limb-pair": "These limbs are no pair",
    "inspection": "Not to be drawn",
    "arrow-cracked": "A cracked arrow",
    "spine-and-mass": "Too light and too weak",
}


@dataclass(frozen=True)
class Doubt:
    """One cause of the ± on grains per pound, and the reading that would shrink it."""

    share: float
    """Relative standard deviation it puts on grains per pound now."""
    after: float
    """The same after the reading."""
    step: j.NextStep


def next_step(c: Computed, findings: list[j.Finding]) -> j.NextStep:
    """Return the next step for a rig with these findings."""
    return (
        _from_finding(findings, "stop")
        or _missing(c)
        or _from_finding(findings, "mend")
        or _sharpen(c)
        or _tell(c)
        or _keep(c)
    )


def _from_finding(findings: list[j.Finding], severity: j.Severity) -> j.NextStep | None:
    for finding in findings:
        if finding.severity == severity and finding.action:
            stop = severity == "stop"
            return j.NextStep(
                title=phrase(_STOPS.get(finding.id, "Stop") if stop else finding.action.label),
                why=finding.sentence,
                tells=phrase(
                    "Nothing else is worth doing on this rig until it is put right."
                    if stop
                    else "It tells whether what follows from this number still holds."
                ),
                minutes=5,
                action=finding.action,
            )
    return None


def _missing(c: Computed) -> j.NextStep | None:
    if c.archer.draw is None:
        return j.NextStep(
            title=phrase("Measure your draw"),
            why=phrase(
                "Everything else follows from it. Draw a light bow with a long arrow and have the "
                "shaft marked above the deepest part of the grip."
            ),
            tells=phrase(
                "It gives your draw length: the mark's distance from the nock, plus 1¾ in."
            ),
            minutes=5,
            action=_MARK_ARROW,
        )
    if c.bow.weight is None:
        return j.NextStep(
            title=phrase("Weigh the bow"),
            why=phrase("There is no weight for this bow yet. Its mark will do to begin with."),
            tells=phrase("It tells what you hold at your own draw."),
            minutes=5,
            action=WEIGH,
        )
    if c.arrow.finished is None:
        return j.NextStep(
            title=phrase("Weigh a finished arrow"),
            why=phrase("An arrow too light for its bow is half a dry fire."),
            tells=phrase(
                "It gives grains per pound, against the lightest this bow should be given."
            ),
            minutes=2,
            action=WEIGH_ARROW,
        )
    return None


def _sharpen(c: Computed) -> j.NextStep | None:
    """Return the reading that takes most off the ± of grains per pound, if it is worth it."""
    doubts = _doubts(c)
    if not doubts or c.arrow.gpp is None:
        return None
    if 2 * math.hypot(*(doubt.share for doubt in doubts)) < SHARP_ENOUGH:
        return None
    best = max(doubts, key=lambda doubt: doubt.share**2 - doubt.after**2)
    if best.share < 1.2 * best.after:
        return None
    after = math.hypot(best.after, *(doubt.share for doubt in doubts if doubt is not best))
    sharper = Estimate(c.arrow.gpp.value, after * c.arrow.gpp.value)
    tells = phrase(
        "Grains per pound would go from ± {before} to about ± {after}.",
        before=gpp(c.arrow.gpp.plus_minus),
        after=gpp(sharper.plus_minus),
    )
    return best.step.model_copy(update={"tells": tells})


def _doubts(c: Computed) -> list[Doubt]:
    if (
        c.archer.draw is None
        or c.bow.weight is None
        or c.arrow.finished is None
        or c.arrow.gpp is None
    ):
        return []
    per_mm = c.bow.weight.slope.value / MM_PER_IN / c.bow.weight.weight.value
    return [
        _doubt_of_weight(c.bow.weight),
        _doubt_of_draw(c.archer.draw.length, per_mm),
        _doubt_of_hook(c.archer.hook, per_mm),
        _doubt_of_mass(c.arrow.finished.mass),
    ]


def _doubt_of_weight(weight: DrawWeight) -> Doubt:
    at = mm(weight.at_mm)
    why = phrase(
        "Its weight at your draw is the least sure number here. Hang it on a scale and "
        "read it with the string at {at}, pivot + 1¾ in.",
        at=at,
    )
    step = _step(phrase("Weigh the bow at {at}", at=at), why, 5, WEIGH)
    now = weight.weight.value
    return Doubt(weight.bow_sd / now, min(weight.bow_sd, SCALE_SD_LBF) / now, step)


def _doubt_of_draw(draw: Estimate, per_mm: float) -> Doubt:
    why = phrase(
        "Your draw is uncertain by {pm}, and the bow's weight with it.", pm=mm(draw.plus_minus)
    )
    step = _step(phrase("Mark an arrow at full draw"), why, 5, _MARK_ARROW)
    marked = min(draw.sd, METHOD_SD_IN["draw_marked"] * MM_PER_IN)
    return Doubt(per_mm * draw.sd, per_mm * marked, step)


def _doubt_of_hook(hook: Estimate, per_mm: float) -> Doubt:
    why = phrase(
        "At full draw, have someone measure from the nock groove back to the string "
        "at your fingers. It is taken as {hook} until then.",
        hook=mm(hook.value, hook.plus_minus),
    )
    step = _step(phrase("Measure your hook depth"), why, 3, _HOOK)
    return Doubt(per_mm * hook.sd, per_mm * min(hook.sd, MEASURED_HOOK_SD_MM), step)


def _doubt_of_mass(mass: Estimate) -> Doubt:
    why = phrase("Its mass is not off a scale yet.")
    step = _step(phrase("Weigh a finished arrow"), why, 2, WEIGH_ARROW)
    return Doubt(mass.sd / mass.value, SCALE_SD_GR / mass.value, step)


def _step(title: Phrase, why: Phrase, minutes: int, action: j.Action) -> j.NextStep:
    return j.NextStep(title=title, why=why, tells=phrase(""), minutes=minutes, action=action)


_ASKS: tuple[tuple[str, str, str, StageKey, str, str], ...] = (
    ("archer", "hold", "Say how you hold the string", "archer", "hold",
     "It gives the hook depth to expect."),
    ("archer", "hand", "Say which hand draws", "archer", "hand",
     "It puts left and right the way you see them."),
    ("bow", "family", "Say what sort of bow it is", "bow", "family",
     "It gives the curve, the stack and the floor of its kind."),
    ("bow", "length", "Enter the bow's length", "bow", "bow",
     "It says where this bow stacks and what it stores."),
    ("arrows", "spine_told", "Enter the shafts' spine", "arrow", "spine",
     "It tells whether they are stiff or weak for this rig, and how to close the gap."),
    ("arrows", "passes", "Measure the window", "arrow", "window",
     "It moves the spine this rig wants by about a pound per mm."),
    ("bow", "draw_limit", "Enter the maker's longest draw", "bow", "limit",
     "It tells whether your draw is inside it."),
    ("bow", "inspections", "Look the bow over", "bow", "inspection",
     "It clears limbs, string and tips before the next shot."),
    ("bow", "arrow_minimum", "Ask the bowyer for the lightest arrow", "bow", "floor",
     "It puts a floor from the one who knows in place of the usual one."),
)  # fmt: skip
"""Plain facts worth telling, in order: where they stand, what to ask, where, what it gives."""


def _tell(c: Computed) -> j.NextStep | None:
    """Ask for the plain facts that sharpen what is said, one at a time."""
    for part, fact, title, stage, control, tells in _ASKS:
        if not getattr(getattr(c.setup, part), fact):
            return j.NextStep(
                title=phrase(title),
                why=phrase("It is not told yet, and something is assumed in its place."),
                tells=phrase(tells),
                minutes=1,
                action=j.Action(label="Enter it", stage=stage, control=control),
            )
    return None


def _keep(c: Computed) -> j.NextStep:
    if c.bow.weight is not None and len(c.bow.weight.points) < 3:
        return j.NextStep(
            title=phrase("Weigh at two more draws"),
            why=phrase(
                "All three stages are settled. Two inches either side of your draw would show how "
                "the weight grows."
            ),
            tells=phrase(
                "It sharpens weight per inch, now {slope}.",
                slope=lbf_per_in(c.bow.weight.slope.value, 2 * c.bow.weight.slope.sd),
            ),
            minutes=10,
            action=WEIGH,
        )
    return j.NextStep(
        title=phrase("Number and weigh the rest"),
        why=phrase("All three stages are settled and nothing is in doubt. The set is next."),
        tells=phrase("It shows which arrows belong together."),
        minutes=15,
        action=WEIGH_ARROW,
    )
