"""What a bow is taken to be: a typical bow of its family with its own lengths and brace height.

Lengths in mm. What nobody has told is assumed and named; what cannot be is refused with a reason,
and the family's usual bow stands in for it, so that the weight is never lost to a slip.
"""

from dataclasses import dataclass

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.families import FAMILIES
from lyrandis.core.bow.statics import BowShape, DrawCurve, draw_curve
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.errors import DomainError
from lyrandis.core.string.braces import brace_read_to_pivot
from lyrandis.core.string.facts import StringFacts

ASSUMED_FAMILY: Family = "reflex_deflex_longbow"
"""The middle of the families in weight per inch and stack."""


@dataclass(frozen=True)
class Likeness:
    """The computed bow that stands for the archer's."""

    curve: DrawCurve
    assumed: tuple[str, ...]
    """Which of family, length, riser and brace nobody has told."""
    refused: DomainError | None = None
    """Why what was told cannot be computed; the family's usual bow then stands in."""

    @property
    def shape(self) -> BowShape:
        return self.curve.shape

    @property
    def known(self) -> bool:
        """True when family and length are told and can be computed."""
        return self.refused is None and not {"family", "length"} & set(self.assumed)


def brace_to_pivot(string: StringFacts, archer: ArcherFacts) -> float | None:
    """Return the brace height to the pivot [mm], or None when none is recorded.

    Source: the trade's datums of brace: deepest grip, or back or plunger less the grip's depth.

    >>> from lyrandis.core.example import setup
    >>> told = setup(["brace 9 1/2 back", "grip 1 1/2 back"])
    >>> round(brace_to_pivot(told.string, told.archer) / 25.4, 2)
    8.0
    """
    if string.brace_height is None:
        return None
    read = string.brace_height.reading
    return brace_read_to_pivot(read.brace_height_mm, read.datum, archer).value


USUAL_BRACE_IN = 0.75
FAR_BRACE_IN = 1.25
FAR_FROM_TOLD_IN = 1.0
"""Assumption: a kind is braced within 3/4 in of its usual height; a reading more than 1 1/4 in
outside that, or an inch outside what the maker told, was misread or is of a wrong string."""


def usual_braces(bow: BowFacts) -> tuple[float, float]:
    """Return brace heights the bow may have: the maker's, else its kind's, else any kind's [mm].

    Assumption: `USUAL_BRACE_IN` round the kind's usual brace.

    >>> from lyrandis.core.example import setup
    >>> [round(x / 25.4, 2) for x in usual_braces(setup(["family selfbow"]).bow)]
    [5.25, 6.75]
    """
    if bow.brace_range is not None:
        return bow.brace_range.reading.low_mm, bow.brace_range.reading.high_mm
    kinds = [bow.family.reading.family] if bow.family else list(FAMILIES)
    usual = [FAMILIES[kind].brace_in for kind in kinds]
    return (min(usual) - USUAL_BRACE_IN) * MM_PER_IN, (max(usual) + USUAL_BRACE_IN) * MM_PER_IN


def brace_far_off(bow: BowFacts, brace_mm: float) -> bool:
    """Return whether a brace is so far off that nothing is ordered or judged from it.

    Source: `usual_braces`; how far is Assumption.

    >>> from lyrandis.core.example import setup
    >>> bow = setup(["family straight longbow"]).bow
    >>> [brace_far_off(bow, inches * 25.4) for inches in (3.5, 5.0, 6.5, 8.5, 11.0)]
    [True, False, False, False, True]
    """
    low, high = usual_braces(bow)
    far = (FAR_FROM_TOLD_IN if bow.brace_range else FAR_BRACE_IN) * MM_PER_IN
    return not low - far <= brace_mm <= high + far


def usual_shape(family: Family, bow_length_mm: float | None = None) -> BowShape:
    """Return the family's usual bow, or one of some length with the riser it is assumed to have.

    Assumption: typical bows of their kind, our own figures.

    >>> usual_shape("selfbow").bow_length_mm / 25.4
    66.0
    """
    usual = FAMILIES[family]
    length = usual.usual_length_in * MM_PER_IN if bow_length_mm is None else bow_length_mm
    return BowShape(
        family,
        length,
        usual.riser_for(length),
        usual.brace_in * MM_PER_IN,
    )


def likeness_of(bow: BowFacts, brace_mm: float | None) -> Likeness:
    """Return the computed bow that stands for the one on the rig, braced at `brace_mm`.

    Assumption: what nobody has told is the family's usual.

    >>> from lyrandis.core.example import setup
    >>> likeness_of(setup(["family selfbow", "bow 66"]).bow, None).assumed
    ('riser', 'brace')
    """
    assumed = []
    if bow.family is None:
        assumed.append("family")
    family = bow.family.reading.family if bow.family else ASSUMED_FAMILY
    told = bow.length.reading.back_mm if bow.length else None
    usual = usual_shape(family, told)
    length, riser, brace = usual.bow_length_mm, usual.riser_length_mm, usual.brace_height_mm
    if told is None:
        assumed.append("length")
    if bow.riser_length is None:
        assumed.append("riser")
    else:
        riser = bow.riser_length.reading.riser_length_mm
    if brace_mm is not None:
        brace = brace_mm
    else:
        assumed.append("brace")
        if bow.brace_range is not None:
            brace = (bow.brace_range.reading.low_mm + bow.brace_range.reading.high_mm) / 2
    try:
        return Likeness(draw_curve(BowShape(family, length, riser, brace)), tuple(assumed))
    except DomainError as refused:
        return Likeness(draw_curve(usual_shape(family)), tuple(assumed), refused)
