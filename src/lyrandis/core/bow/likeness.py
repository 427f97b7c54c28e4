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
    told = bow.length.reading.bow_length_mm if bow.length else None
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
