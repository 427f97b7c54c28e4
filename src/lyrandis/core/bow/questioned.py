"""A weight that no bow of this mark draws: another unit, a slip, or another bow?"""

import re

from lyrandis.core.bow.readings import BowWeighed
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.constants import KG_PER_LB, NEWTONS_PER_LBF
from lyrandis.core.entries import Reading
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.phrase import lbf, mm, phrase

LEAST_SHARE, MOST_SHARE = 0.5, 1.6
"""Convention: a weight under half, or over 1.6, of what mark and scale say there is asked about."""
_WITH_UNIT = re.compile(r"\d\s*(?:(?:lbs?|pounds?|kg|kilos?|n|newtons?)\b|#)", re.IGNORECASE)


def question_weight(reading: Reading, text: str, weight: DrawWeight | None) -> None:
    """Raise `DomainError` with what it may have meant for a weight far from all that is known.

    Never for a weight with its unit: the archer has the last word.
    Assumption: the bounds are conventions.

    >>> from lyrandis.core.example import rig
    >>> known = rig(["draw 28", "mark 40"]).bow.weight
    >>> heavy = BowWeighed(draw_weight_lbf=90, draw_length_mm=711.2)
    >>> question_weight(heavy, "scale 90 lb @ 28", known)
    >>> question_weight(heavy, "scale 90 @ 28", known)
    Traceback (most recent call last):
    lyrandis.core.errors.DomainError: 90.0 lb at 28 in, where mark and scale say 40.0 lb.
    """
    if not isinstance(reading, BowWeighed) or weight is None or _WITH_UNIT.search(text):
        return
    there = weight.curve_at(reading.draw_length_mm)
    said = reading.draw_weight_lbf
    if there <= 0 or LEAST_SHARE * there <= said <= MOST_SHARE * there:
        return
    at = f"@ {reading.draw_length_mm:.0f}mm"
    meant = [
        Guess(f"scale {said:.4g} {unit} {at}", f"{said:.4g} {words}")
        for unit, words, per_lbf in (
            ("kg", "kilograms", KG_PER_LB), ("N", "newtons", NEWTONS_PER_LBF),
        )
        if LEAST_SHARE * there <= said / per_lbf <= MOST_SHARE * there
    ]  # fmt: skip
    meant.append(Guess(f"scale {said:.4g} lb {at}", f"{said:.4g} pounds, as the scale said"))
    raise DomainError(
        "which_quantity",
        phrase(
            "{said} at {at}, where mark and scale say {there}.",
            said=lbf(said),
            at=mm(reading.draw_length_mm),
            there=lbf(there),
        ),
        "Say what it is, or look at weight, draw and bow again.",
        guesses=tuple(meant),
    )
