"""How the arrow's nock sits on the served string. In mm."""

import math
from typing import Literal

from lyrandis.core.estimate import Estimate
from lyrandis.core.string.strands import SERVED, served_diameter

GROOVE_SD_MM = 0.05
THREAD_SD_MM = 0.02
"""Assumption: a groove read with a caliper, and a thread as it is sold."""
TIGHT_MM, LOOSE_MM = 0.15, 0.15
"""Assumption: a plastic nock springs over a serving so much thicker, and holds one so much thinner:
it clips on, and falls at a tap."""
FAR_MM = 0.4
"""Assumption: so far beyond that, a nock splits, or drops off a string that is being drawn."""
Fit = Literal["clips", "tight", "loose"]


def slack_of(groove_mm: float, bundle: Estimate, thread_mm: float) -> Estimate:
    """Return the groove's width less the served string's thickness; below 0 it is tight.

    Source: `served_diameter`; doubts in quadrature. Assumption: the doubts of groove and thread.

    >>> slack = slack_of(2.8, Estimate(2.09, 0.02), 0.46)
    >>> round(slack.value, 2), round(slack.plus_minus, 2)
    (-0.03, 0.13)
    """
    sd = math.hypot(GROOVE_SD_MM, bundle.sd, SERVED * THREAD_SD_MM)
    return Estimate(groove_mm - served_diameter(bundle.value, thread_mm), sd)


def fit_of(slack: Estimate) -> tuple[Fit, Literal["good", "watch", "mend"]]:
    """Return how a nock sits and how that is judged; its ± moves the verdict a step down.

    Assumption: `TIGHT_MM`, `LOOSE_MM` and `FAR_MM`; the practice is clip on, fall at a tap.

    >>> [fit_of(Estimate(slack, 0.05)) for slack in (0.0, 0.2, 0.3, 0.7, -0.7)]
    [('clips', 'good'), ('clips', 'good'), ('loose', 'watch'), ('loose', 'mend'), ('tight', 'mend')]
    """
    how: Fit = "loose" if slack.value > 0 else "tight"
    beyond = abs(slack.value) - (LOOSE_MM if how == "loose" else TIGHT_MM) - slack.plus_minus
    if beyond <= 0:
        return "clips", "good"
    return how, "mend" if beyond > FAR_MM else "watch"
