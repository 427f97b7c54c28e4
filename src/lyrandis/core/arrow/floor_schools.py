"""Who asks for how heavy an arrow: the schools of the lightest arrow, side by side [gr/lbf]."""

from typing import Literal, NamedTuple

from lyrandis.core.arrow.mass import Floor
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.schools import RANGE_AT_28_IN, SCHOOL_BAND_GPP
from lyrandis.core.bow.words import FAMILY_WORDS, LIMBS_MADE_WORDS, LimbsMade
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, mm, phrase

FloorVoice = Literal["bowyer", "mechanics", "kind", "size", "limbs", "stack"]
LIGHTER_LIMBS: frozenset[LimbsMade] = frozenset({"natural", "solid_glass"})
LIGHTER_LIMBS_SHARE = 0.8
"""Assumption: all-natural and solid-glass limbs are allowed a fifth less, a saying of the trade."""
STACKING_SHARE = 0.9
"""Assumption: a bow that stacks at the archer's draw is allowed a tenth less, likewise a saying."""
SIZE_HALF_GPP = 0.5
"""Assumption: a size table of static tips goes by steps of a grain per pound."""


class FloorSchool(NamedTuple):
    """One voice on the lightest arrow."""

    voice: FloorVoice
    low: float
    high: float
    because: Phrase
    binds: bool
    """True for the voice whose number is the floor in force."""


def floor_schools(
    floor: Floor, bow: BowFacts, length_mm: float, margin: Estimate | None
) -> tuple[FloorSchool, ...]:
    """Return who asks for how heavy an arrow, the word that binds first.

    `length_mm` is the bow's along its back; `margin` what is left before stack [mm]. Discounts for
    limbs and stack are only said of a bow they were told or found of, and never bind: they are
    sayings, and the lightest arrow is nothing to guess at.

    Source: `SCHOOL_BAND_GPP`; the computed floor. Assumption: the shares and the size table.

    >>> from lyrandis.core.example import rig
    >>> c = rig(["family short rigid tip", "bow 54", "draw 28"])
    >>> said = floor_schools(c.arrow.floor, c.setup.bow, 54 * MM_PER_IN, None)
    >>> [(one.voice, round(one.low, 2), one.binds) for one in said][1:]
    [('kind', 9.5, False), ('size', 10.25, False)]
    """
    said = []
    if floor.told:
        told = floor.grains_per_pound
        said.append(FloorSchool("bowyer", told, told, phrase("It rules."), True))
    computed = floor.computed.per_pound
    said.append(
        FloorSchool(
            "mechanics",
            computed.value - computed.plus_minus,
            computed.value + computed.plus_minus,
            phrase("An arrow that takes four fifths of what the bow gives back."),
            floor.basis == "computed",
        )
    )
    low, high = floor.band
    kind = FAMILY_WORDS[floor.family]
    said.append(
        FloorSchool(
            "kind",
            low,
            high,
            phrase(f"What the trade gives a {kind}: small ones the low end."),
            floor.basis == "school",
        )
    )
    if floor.family.endswith("rigid_tip"):
        said.append(_by_size(floor, length_mm))
    made = bow.limbs_made.reading.made if bow.limbs_made else None
    if made in LIGHTER_LIMBS:
        because = phrase(f"Limbs of {LIMBS_MADE_WORDS[made]} are allowed a fifth less by some.")
        said.append(_lighter("limbs", floor, LIGHTER_LIMBS_SHARE, because))
    if margin is not None and margin.value < 0:
        because = phrase("A bow that stacks at your draw is allowed a tenth less by some.")
        said.append(_lighter("stack", floor, STACKING_SHARE, because))
    return tuple(sorted(said, key=lambda one: not one.binds))


def _by_size(floor: Floor, length_mm: float) -> FloorSchool:
    """Return what tables by tip and size say: linear from the smallest usual bow to the largest."""
    low, high = SCHOOL_BAND_GPP[floor.family]
    small, large = RANGE_AT_28_IN[floor.family]
    share = min(max((length_mm / MM_PER_IN - small) / (large - small), 0.0), 1.0)
    middle = low + share * (high - low)
    return FloorSchool(
        "size",
        max(middle - SIZE_HALF_GPP, low),
        min(middle + SIZE_HALF_GPP, high),
        phrase("Tables by tip and size, for {length} along the back.", length=mm(length_mm)),
        False,
    )


def _lighter(voice: FloorVoice, floor: Floor, share: float, because: Phrase) -> FloorSchool:
    low, high = floor.band
    return FloorSchool(voice, share * low, share * high, because, False)
