"""The rule-of-thumb school of spine: draw weight, and pounds added for length, point and string.

Spines in pounds of the wood scale, lengths in mm, masses in grains. A school of its own, shown
beside the mechanics and never mixed with them.
"""

from dataclasses import dataclass

from lyrandis.core.constants import MM_PER_IN

PER_INCH = 5.0
FROM_LENGTH_IN = 28.0
PER_25_GR = 5.0
FROM_POINT_GR = 125.0
LOW_STRETCH = 5.0
SHORT_OF_CENTRE = ((1.0, 0.0), (6.0, -5.0), (99.0, -10.0))
"""Window short of centre up to so many mm: so many pounds. Numbers put to a saying, by us."""
PAST_CENTRE = 10.0
_AT_CENTRE_MM = 1.0


@dataclass(frozen=True)
class ThumbTerm:
    """One line of the rule's sum."""

    name: str
    pounds: float


@dataclass(frozen=True)
class ThumbRule:
    """What the rule says a rig wants, term by term."""

    wants: float
    terms: tuple[ThumbTerm, ...]

    def pounds(self, name: str) -> float:
        """Return what one term adds [lb]; 0 for a term that does not apply.

        Source: the rule's own terms.

        >>> told = {"tip_gr": 125.0, "window_mm": 3.0, "low_stretch": False}
        >>> rule = thumb_rule(weight_lbf=45.0, length_mm=736.6, **told)
        >>> round(rule.pounds("length over 28 in"), 6)
        5.0
        """
        return next((term.pounds for term in self.terms if term.name == name), 0.0)


def thumb_rule(
    *,
    weight_lbf: float,
    length_mm: float,
    tip_gr: float,
    window_mm: float,
    low_stretch: bool,
) -> ThumbRule:
    """Return the spine by rule of thumb [lb of the wood scale].

    weight + 5 per inch over 28 + 5 per 25 gr over 125 + 5 for a low-stretch string, less for a
    window short of centre, more for one cut past it. Range: finger-shot wood and carbon arrows of
    usual build. Source: a saying of the trade in several versions; these figures are our choice.

    >>> thumb_rule(weight_lbf=45, length_mm=29 * 25.4, tip_gr=150, window_mm=0,
    ...            low_stretch=True).wants
    60.0
    """
    terms = (
        ThumbTerm("draw weight", weight_lbf),
        ThumbTerm("length over 28 in", PER_INCH * (length_mm / MM_PER_IN - FROM_LENGTH_IN)),
        ThumbTerm("point over 125 gr", PER_25_GR * (tip_gr - FROM_POINT_GR) / 25),
        ThumbTerm("low-stretch string", LOW_STRETCH if low_stretch else 0.0),
        ThumbTerm("window", _window(window_mm)),
    )
    return ThumbRule(round(sum(term.pounds for term in terms), 6), terms)


def _window(window_mm: float) -> float:
    if window_mm < -_AT_CENTRE_MM:
        return PAST_CENTRE
    return next(pounds for limit, pounds in SHORT_OF_CENTRE if window_mm <= limit)
