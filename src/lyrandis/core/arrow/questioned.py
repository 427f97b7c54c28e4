"""A bare number that would make an arrow nobody shoots: a mass, or the number on the shaft?"""

import re

from lyrandis.core.arrow.readings import ArrowMassed
from lyrandis.core.entries import Reading
from lyrandis.core.errors import DomainError, Guess
from lyrandis.core.phrase import gpp, gr, phrase

NO_ARROW_GPP = (5.0, 22.0)
"""Convention: outside it no arrow is shot. Light bows do shoot arrows of twenty grains a pound."""
HEAVY_GPP = 14.0
_ROUND = 50
"""Past 14 gr/lb a round number of 500 or more is rather what stands on shafts."""
_WITH_UNIT = re.compile(r"\d\s*(?:gr|grains?|gn|g|grams?|oz)\b", re.IGNORECASE)


def question_mass(reading: Reading, text: str, weight_lbf: float | None) -> None:
    """Raise `DomainError` with both meanings for a bare mass that is absurd on this weight.

    Never for a mass with its unit, nor where the bow's weight is not known.

    Assumption: the bounds are conventions; the archer has the last word.

    >>> question_mass(ArrowMassed(arrow_mass_gr=420), "arrow 420", 40.0)
    >>> question_mass(ArrowMassed(arrow_mass_gr=700), "arrow 700gr", 24.0)
    """
    if not isinstance(reading, ArrowMassed) or weight_lbf is None or _WITH_UNIT.search(text):
        return
    mass = reading.arrow_mass_gr
    ratio = mass / weight_lbf
    round_number = mass >= 500 and mass % _ROUND == 0 and ratio > HEAVY_GPP
    if NO_ARROW_GPP[0] <= ratio <= NO_ARROW_GPP[1] and not round_number:
        return
    which = "" if reading.arrow_number is None else f"{reading.arrow_number} "
    guesses = [Guess(f"arrow {which}{mass:.4g}gr", f"{mass:.4g} grains, on a scale")]
    if mass <= 160:
        guesses.append(Guess(f"arrow {which}{mass:.4g}g", f"{mass:.4g} grams, on a scale"))
    if 200 <= mass <= 2000:
        spine = f"arrow {which}spine {mass:.4g}" if which else f"spine {mass:.4g}"
        guesses.insert(0, Guess(spine, f"{mass:.4g} is the number on the shaft"))
    raise DomainError(
        "which_quantity",
        phrase(
            "{mass} on this bow would be {ratio}: no usual arrow.", mass=gr(mass), ratio=gpp(ratio)
        ),
        "Say what it is.",
        guesses=tuple(guesses),
    )
