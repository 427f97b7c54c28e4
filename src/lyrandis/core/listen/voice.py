"""How the rig's own braced string sounds by the mechanics: its tension, free length and notes."""

import math
from dataclasses import dataclass

from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.statics import DrawCurve
from lyrandis.core.constants import KG_PER_GRAIN, NEWTONS_PER_LBF, TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.listen.hear import StringVoice
from lyrandis.core.listen.partials import ServedString, partials_hz, shape, tension_of
from lyrandis.core.listen.pitch import StringNote
from lyrandis.core.string.facts import StringFacts
from lyrandis.core.string.numbers import StringNumbers

USUAL_SERVING_MM = 180.0
SERVING_GR_PER_MM = 0.1
"""Assumption: a middle serving of ordinary thread."""
WEIGHED_SD_GR, GUESSED_SHARE = 1.0, 0.08
"""Assumption: a string's mass, weighed or by its strands."""
FREE_SD_MM = 5.0
STATICS_SHARE = 0.04
"""Assumption: tension at brace of a kind of bow, where its draw weight is exact."""


def free_string_mm(curve: DrawCurve) -> float:
    """Return the braced string between where it leaves the limbs [mm].

    On a recurve the string lifts off inside a piece of the computed limb: where its angle to the
    limb passes nought, by straight lines between the pieces' middles, so that it does not jump by
    a piece as the brace changes. Source: geometry of the string lying on the limb.

    >>> from lyrandis.core.bow.statics import BowShape, draw_curve
    >>> round(free_string_mm(draw_curve(BowShape("hunting_recurve", 1575.0, 432.0, 203.0))))
    1351
    """
    state = curve.states[0]
    angle, arm, along = state.p, 0.0, 0.0
    lies = state.p < 0
    middles: list[tuple[float, float]] = []
    for length, compliance, kink in curve.chain.pieces:
        middles.append((along + length / 2, angle))
        along += length
        if lies and angle >= 0:
            lies = False
        if not lies:
            arm += length * math.sin(angle)
        angle += kink - compliance * state.t * arm
        if len(middles) > 1 and middles[-1][1] >= 0:
            break
    half = state.here.half_string
    if len(middles) < 2:
        return 2 * half
    (x0, a0), (x1, a1) = middles[-2:]
    # a stiff tip is one long piece: a string that is clear of it lies nowhere
    stiff_tip = curve.chain.pieces[0][0] > 1.5 * curve.chain.pieces[1][0]
    if a1 <= a0 or (a0 >= 0 and stiff_tip):
        return 2 * half
    lift = x0 - a0 * (x1 - x0) / (a1 - a0)
    return 2 * (half - max(lift, 0.0))


@dataclass(frozen=True)
class BracedString:
    """The string on this rig, braced: what the mechanics say of its sound."""

    served: ServedString
    mass_weighed: bool
    serving_known: bool
    length_told: bool
    tension: Estimate | None
    """By the statics [N]; None while nobody knows the draw weight."""

    @lazy
    def series(self) -> tuple[float, ...]:
        """Its notes over the lowest."""
        waves = shape(self.served)
        return tuple(wave / waves[0] for wave in waves)

    @lazy
    def expected_hz(self) -> float | None:
        """Its lowest note by the statics."""
        if self.tension is None:
            return None
        return float(partials_hz(self.served, self.tension.value, 1)[0])

    @property
    def voice(self) -> StringVoice:
        return StringVoice(self.series, self.expected_hz)

    def tension_by(self, note: StringNote) -> Estimate:
        """Return the tension its note asks for [N].

        Source: `tension_of`.

        >>> from lyrandis.core.example import rig
        >>> from lyrandis.core.listen.pitch import StringNote
        >>> c = rig()
        >>> string = braced_string(c.setup.string, c.string, c.bow, c.archer.drawn_to.value)
        >>> asked = string.tension_by(StringNote(string.expected_hz, 0.3))
        >>> abs(asked.value / string.tension.value - 1) < 0.02
        True
        """
        mass = self.served.mass_kg / KG_PER_GRAIN
        share = WEIGHED_SD_GR / mass if self.mass_weighed else GUESSED_SHARE
        free = FREE_SD_MM / 1000 / self.served.free_m
        return tension_of(
            self.served, Estimate(note.value, note.sd), mass_share=share, free_share=free,
            serving_known=self.serving_known,
        )  # fmt: skip


def braced_string(
    facts: StringFacts, string: StringNumbers, bow: BowNumbers, drawn_mm: float
) -> BracedString | None:
    """Return the rig's string as it stands braced; None where nobody knows its mass.

    Source: `bow/statics.py` for tension and free length; masses as told or Assumption.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> found = braced_string(c.setup.string, c.string, c.bow, c.archer.drawn_to.value)
    >>> round(found.expected_hz)
    102
    """
    mass = facts.told_mass_gr
    if mass is None:
        return None
    curve = bow.likeness.curve
    told = facts.part("serving_mm")
    serving_mm = told or USUAL_SERVING_MM
    serving_gr = min(SERVING_GR_PER_MM * serving_mm, 0.4 * mass)
    served = ServedString(
        free_m=round(free_string_mm(curve) / 1000, 5),
        string_m=round(string.length_mm / 1000, 5),
        mass_kg=round(mass * KG_PER_GRAIN, 9),
        serving_kg=round(serving_gr * KG_PER_GRAIN, 9),
        serving_m=serving_mm / 1000,
    )
    return BracedString(
        served=served,
        mass_weighed=facts.mass_gr is not None,
        serving_known=told is not None,
        length_told=facts.part("string_length_mm") is not None,
        tension=_tension(bow, drawn_mm),
    )


def _tension(bow: BowNumbers, drawn_mm: float) -> Estimate | None:
    weight = bow.weight
    if weight is None:
        return None
    curve = bow.likeness.curve
    force = curve.force.at(min(max(drawn_mm - TRADE_OFFSET_MM, curve.first_mm), curve.last_mm))
    if force <= 0:
        return None
    value = weight.weight.value / force * NEWTONS_PER_LBF * curve.tension.at(curve.first_mm)
    known = 1.0 if bow.likeness.known else 2.0
    return Estimate(value, value * math.hypot(weight.weight.sd / weight.weight.value,
                                              known * STATICS_SHARE))  # fmt: skip


def left_in_bow_j(bow: BowNumbers, arrow: ArrowNumbers) -> float | None:
    """Return the energy an arrow leaves in the bow [J].

    Source: what comes back, less the arrow's own.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> round(left_in_bow_j(c.bow, c.arrow), 1)
    9.1
    """
    if bow.thrust is None or arrow.finished is None:
        return None
    mass = arrow.finished.mass.value
    carried = mass * KG_PER_GRAIN * bow.thrust.speed(mass) ** 2 / 2
    return max(bow.thrust.returned_j - carried, 0.1)
