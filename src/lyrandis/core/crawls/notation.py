"""A crawl in the archer's own notation: fingers by feel, stitches of the tab, millimetres."""

import math
from typing import NamedTuple

from lyrandis.core.estimate import Estimate

FINGER = Estimate(19.0, 1.5)
"""Assumption: a finger's width across the tab where nobody measured."""
FEEL_PARTS, STITCH_PARTS = 4, 2
"""A crawl is said to the quarter finger and the half stitch."""
_WORDS = ("no", "one", "two", "three", "four", "five", "six", "seven")
_PARTS = {1: "a quarter", 2: "a half", 3: "three quarters"}


class Rounded(NamedTuple):
    """A crawl in a notation, rounded as it is said, and what that costs."""

    steps: float
    off_mm: float
    """How much deeper the rounded crawl is."""
    high_mm: float
    """Where that strikes at the mark, + high."""


def in_steps(crawl_mm: float, step_mm: float, *, parts: int, high_per_mm: float) -> Rounded:
    """Return a crawl in steps of the tab or of fingers, to one of so many parts of a step.

    `high_per_mm` is how far higher the arrow strikes for a millimetre less.
    Source: definition of rounding; `sight.high_per_mm`.

    >>> found = in_steps(34.0, 19.0, parts=4, high_per_mm=21.7)
    >>> found.steps, round(found.off_mm, 2), round(found.high_mm / 10, 1)
    (1.75, -0.75, 1.6)
    """
    count = round(crawl_mm / step_mm * parts) / parts
    off = count * step_mm - crawl_mm
    return Rounded(count, off, -off * high_per_mm)


def fingers(count: float) -> str:
    """Return fingers in words, to the quarter.

    Source: words of the trade.

    >>> [fingers(count) for count in (0.0, 0.25, 1.0, 1.5, 2.75)]
    ['no crawl', 'a quarter finger', 'one finger', 'one and a half fingers', \
'two and three quarters fingers']
    """
    quarters = round(abs(count) * 4)
    whole, part = divmod(quarters, 4)
    above = " above" if count < 0 and quarters else ""
    if not quarters:
        return "no crawl"
    if whole >= len(_WORDS):
        return f"{quarters / 4:g} fingers{above}"
    if not whole:
        return f"{_PARTS[part]} finger{above}"
    if not part:
        return f"{_WORDS[whole]} finger{'s' * (whole > 1)}{above}"
    return f"{_WORDS[whole]} and {_PARTS[part]} fingers{above}"


_SIGNS = {0: "", 1: "¼", 2: "½", 3: "¾"}


def in_figures(count: float) -> str:
    """Return a count to the quarter, as it is written on a tab.

    Source: habit of the trade.

    >>> [in_figures(count) for count in (0.0, 0.25, 1.0, 2.75, -0.5)]
    ['0', '¼', '1', '2¾', '−½']
    """
    quarters = round(abs(count) * 4)
    whole, part = divmod(quarters, 4)
    sign = "−" if count < 0 and quarters else ""
    return f"{sign}{whole if whole or not part else ''}{_SIGNS[part]}"


def from_steps(count: float, step: Estimate, read_sd: float) -> Estimate:
    """Return what a count of steps measures [mm]: the step's own doubt and the reading's.

    Source: propagation of errors.

    >>> found = from_steps(2.75, Estimate(19.0, 0.3), 0.125)
    >>> found.value, round(found.sd, 2)
    (52.25, 2.51)
    """
    return Estimate(count * step.value, math.hypot(count * step.sd, read_sd * step.value))
