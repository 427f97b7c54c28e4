"""What keeps grains per pound vague: each cause of its ±, and the reading that would shrink it.

Grains per pound is the number archer, bow and arrow lead to, so worth is measured on it.
"""

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import METHOD_SD_IN
from lyrandis.core.archer.stage import ENTER_HOOK, MARK_ARROW
from lyrandis.core.archer.words import Hold
from lyrandis.core.arrow.judge_mass import WEIGH_ARROW
from lyrandis.core.arrow.judge_spine import schools_apart
from lyrandis.core.arrow.mass import SCALE_SD_GR
from lyrandis.core.bow.judge_weight import WEIGH
from lyrandis.core.bow.weight import SCALE_SD_LBF, DrawWeight
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, gpp, mm, phrase, spine
from lyrandis.core.reading import AsideStep
from lyrandis.core.stage_spec import Doubt, Target

SHARP_ENOUGH = 0.025
MEASURED_HOOK_SD_MM = MM_PER_IN / 16


MATCH_SHARP_ENOUGH = 0.10
RECORD_BARE = j.Action(label="Record the hits", stage="flight", control="hits")
BARE_SHAFT = 0.05
"""Assumption: what a bare shaft beside fletched ones leaves of the doubt on the match, one sd."""


def doubts(c: Computed) -> list[Doubt]:
    """Return the causes of the ± on grains per pound, and of the schools' on the match."""
    return [*_doubts_of_gpp(c), *_doubt_of_match(c)]


def _doubt_of_match(c: Computed) -> list[Doubt]:
    """Where the schools disagree over the shafts, their flight settles it, once it is begun."""
    apart, match = schools_apart(c), c.match
    if c.flight.facts.seen:
        return []
    if apart is None or match is None:
        return []
    off = Estimate(match.matched, apart * match.matched)
    of = Target("match", "The spine this rig wants", off, spine, MATCH_SHARP_ENOUGH)
    why = phrase(
        "The mechanics and practice disagree over your shafts. Shoot one bare beside two "
        "fletched at 18 m, at a clear backstop, and see which side it strikes."
    )
    step = _step(phrase("Shoot one bare shaft"), why, 10, RECORD_BARE)
    return [Doubt(of, apart, BARE_SHAFT, step)]


def _doubts_of_gpp(c: Computed) -> list[Doubt]:
    draw, weight, finished = c.archer.draw, c.bow.weight, c.arrow.finished
    if draw is None or weight is None or finished is None or c.arrow.gpp is None:
        return []
    of = Target("gpp", "Grains per pound", c.arrow.gpp, gpp, SHARP_ENOUGH)
    per_mm = weight.slope.value / MM_PER_IN / weight.weight.value
    hold = c.setup.archer.hold
    return [
        _doubt_of_weight(of, weight),
        _doubt_of_draw(of, draw.length, per_mm),
        _doubt_of_hook(of, c.archer.hook, per_mm, hold.reading.hold if hold else None),
        _doubt_of_mass(of, finished.mass),
    ]


def _doubt_of_weight(of: Target, weight: DrawWeight) -> Doubt:
    at = mm(weight.at_mm)
    why = phrase(
        "Its weight at your draw is the least sure number here. Hang it on a scale and "
        "read it with the string at {at}, pivot + {1 3/4 in}.",
        at=at,
    )
    step = _step(phrase("Weigh the bow at {at}", at=at), why, 5, WEIGH, "scale")
    now = weight.weight.value
    return Doubt(of, weight.bow_sd / now, min(weight.bow_sd, SCALE_SD_LBF) / now, step)


def _doubt_of_draw(of: Target, draw: Estimate, per_mm: float) -> Doubt:
    why = phrase(
        "Your draw is uncertain by {pm}, and the bow's weight with it.", pm=mm(draw.plus_minus)
    )
    step = _step(phrase("Mark an arrow at full draw"), why, 5, MARK_ARROW, "draw")
    marked = min(draw.sd, METHOD_SD_IN["draw_marked"] * MM_PER_IN)
    return Doubt(of, per_mm * draw.sd, per_mm * marked, step)


def _doubt_of_hook(of: Target, hook: Estimate, per_mm: float, hold: Hold | None) -> Doubt:
    why = phrase(
        "At full draw, have someone measure from the nock groove back to the string "
        f"at your {'thumb' if hold == 'thumb' else 'fingers'}. It is taken as {hook} until then.",
        hook=mm(hook.value, hook.plus_minus),
    )
    step = _step(phrase("Measure your hook depth"), why, 3, ENTER_HOOK, "hook")
    return Doubt(of, per_mm * hook.sd, per_mm * min(hook.sd, MEASURED_HOOK_SD_MM), step)


def _doubt_of_mass(of: Target, mass: Estimate) -> Doubt:
    why = phrase("Its mass is not off a scale yet.")
    step = _step(phrase("Weigh a finished arrow"), why, 2, WEIGH_ARROW, "arrow_mass")
    return Doubt(of, mass.sd / mass.value, SCALE_SD_GR / mass.value, step)


def _step(
    title: Phrase, why: Phrase, minutes: int, action: j.Action, aside: AsideStep | None = None
) -> j.NextStep:
    return j.NextStep(
        title=title, why=why, tells=phrase(""), minutes=minutes, action=action, aside=aside
    )
