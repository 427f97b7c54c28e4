"""Tiller and limb bolts: how the two limbs share the pull. Gaps in mm, weights in lbf."""

import math
from typing import Literal, NamedTuple

from lyrandis.core.archer.words import Hold
from lyrandis.core.estimate import Estimate

BANDS_MM: dict[Hold, tuple[float, float, float]] = {
    "split": (4.5, 3.0, 6.0),
    "three_under": (2.0, 0.0, 4.0),
    "thumb": (-0.5, -3.0, 1.0),
}
"""Assumption: upper less lower gap by the trade's habit: target, and the band round it."""
TILLER_PER_CRAWL = 0.1
NEAR_EVEN_MM = 2.0
WALKING_MM = 30.0
"""From this usual crawl on a string walker's tiller is near even."""
WATCH_MM, MEND_MM = 2.0, 5.0
"""Outside the band by so much. Convention."""

PER_DEGREE = 0.0190
"""Weight per degree of the limbs' root lean, from the statics of a 68 in target recurve, as ln."""
TURN_PITCH_MM, TURN_LEVER_MM = 1.25, 60.0
"""Assumption: pitch of a limb bolt, and its distance from the pocket's fulcrum."""
TURN_SD = 0.30
"""One standard deviation of what a turn does, as a share, before own weighings."""
WEIGHED_SD = 0.01
"""Assumption: two weighings before and after, as a share of the weight."""


class TillerBand(NamedTuple):
    """Upper less lower gap wanted [mm]."""

    target_mm: float
    low_mm: float
    high_mm: float

    def outside(self, tiller_mm: float) -> float:
        """Return how far a tiller lies outside the band; nought inside.

        Source: distance to the nearer end.

        >>> TillerBand(2.0, 0.0, 4.0).outside(-1.5)
        1.5
        """
        return max(self.low_mm - tiller_mm, tiller_mm - self.high_mm, 0.0)


def tiller_band(hold: Hold, crawl_mm: float = 0.0) -> TillerBand:
    """Return the tiller wanted for a hold and, under the arrow, the usual crawl.

    Walking the string: 2 mm less a tenth of the crawl; from 30 mm near even.
    Source: habit of the trade; statics agree in sign, not in size (docs/MECHANICS.md).

    >>> tiller_band("split")
    TillerBand(target_mm=4.5, low_mm=3.0, high_mm=6.0)
    >>> tiller_band("three_under", 40.0)
    TillerBand(target_mm=-2.0, low_mm=-2.0, high_mm=2.0)
    """
    target, low, high = BANDS_MM[hold]
    if hold != "thumb" and crawl_mm > 0:
        target = BANDS_MM["three_under"][0] - TILLER_PER_CRAWL * crawl_mm
        if crawl_mm >= WALKING_MM:
            target = max(target, -NEAR_EVEN_MM)
            return TillerBand(target, -NEAR_EVEN_MM, NEAR_EVEN_MM)
        low, high = target - NEAR_EVEN_MM, target + NEAR_EVEN_MM
    return TillerBand(target, low, high)


TillerWord = Literal["good", "watch", "mend"]


def tiller_word(tiller_mm: float, band: TillerBand) -> TillerWord:
    """Return how a tiller is judged: outside the band by 2 mm Watch, by 5 Mend.

    Assumption: the steps are our convention, twice a reading's ± and more.

    >>> [tiller_word(x, TillerBand(2.0, 0.0, 4.0)) for x in (5.9, 6.0, 9.0)]
    ['good', 'watch', 'mend']
    """
    outside = band.outside(tiller_mm)
    if outside >= MEND_MM:
        return "mend"
    return "watch" if outside >= WATCH_MM else "good"


def turn_effect(pitch_mm: float = TURN_PITCH_MM, lever_mm: float = TURN_LEVER_MM) -> Estimate:
    """Return what a turn of both bolts adds to the weight, as ln, with its sd.

    A turn leans the root by 57.3 pitch/lever degrees; a degree is 1.9 % of weight.
    Source: statics with the root lean changed; pitch and lever are Assumption.

    >>> round(turn_effect().value, 4)
    0.0227
    """
    per_turn = PER_DEGREE * math.degrees(pitch_mm / lever_mm)
    return Estimate(per_turn, TURN_SD * per_turn)


class BoltPair(NamedTuple):
    """Both bolts turned, and what the scale said before and after."""

    turns: float
    before_lbf: float
    after_lbf: float


def own_turn_effect(model: Estimate, pairs: tuple[BoltPair, ...]) -> Estimate:
    """Return what a turn does, drawn to the archer's own weighings, which outrank the model.

    Source: normal observations of ln(after/before)/turns, weighted by their variances.

    >>> own = own_turn_effect(turn_effect(), (BoltPair(-2.0, 40.0, 37.6),))
    >>> round(own.value, 3)
    0.027
    """
    weight, total = 1 / model.sd**2, model.value / model.sd**2
    for pair in pairs:
        if pair.turns == 0:
            continue
        sd = WEIGHED_SD * math.sqrt(2) / abs(pair.turns)
        weight += 1 / sd**2
        total += math.log(pair.after_lbf / pair.before_lbf) / pair.turns / sd**2
    return Estimate(total / weight, 1 / math.sqrt(weight))


def turns_for_weight(weight_lbf: float, wished_lbf: float, effect: Estimate) -> float:
    """Return the turns of both bolts that bring the weight to a wish, in quarters; + is in.

    Source: turns = ln(wish/weight)/effect.

    >>> turns_for_weight(40.0, 38.0, turn_effect())
    -2.25
    """
    return round(4 * math.log(wished_lbf / weight_lbf) / effect.value) / 4
