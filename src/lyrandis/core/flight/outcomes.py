"""What a test may show, in the words of one who looks: each with the outcomes it gathers."""

import math
from typing import Literal

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.flight.choose import FlightTest
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.words import AxisName
from lyrandis.core.phrase import Phrase, mm, phrase

Gathered = tuple[Phrase, list[int], float]
"""What is seen, which outcomes of the table that is, and one reading that stands for it."""


def side_word(flight: FlightNumbers, *, stiff: bool, of: Literal["tail", "bare"]) -> str:
    """Return the side a stiff or a weak reading shows to, as it is seen from behind.

    Source: a stiff tail points to the inner side, stiff bare shafts strike the outer one.

    >>> from lyrandis.core.example import rig
    >>> side_word(rig().flight, stiff=True, of="tail")
    'right'
    """
    outer_left = flight.basis.hands.outward_is_left
    left = outer_left if (of == "bare") == stiff else not outer_left
    return "left" if left else "right"


def gathered(flight: FlightNumbers, axis: AxisName, test: FlightTest, count: int) -> list[Gathered]:
    """Return what a test may show on an axis, `count` outcomes in all.

    Source: the classes of the tail and the bins of bare shafts, as they are seen from behind.

    >>> from lyrandis.core.example import rig
    >>> from lyrandis.core.flight.choose import PLAIN_TESTS
    >>> [what.text() for what, _, _ in gathered(rig().flight, "spine", PLAIN_TESTS[5], 2)]
    ['a mark', 'no mark']
    """
    if test.sees in ("mark", "slap"):
        some, none = ("a mark", "no mark") if test.sees == "mark" else ("a slap", "no slap")
        return [(phrase(some), [1], 1.0), (phrase(none), [0], 0.0)]
    if test.sees == "tail":
        return _tails(flight, *_sides(flight, axis, "tail"))
    return _bares(test, count, *_sides(flight, axis, "bare"))


def _sides(
    flight: FlightNumbers, axis: AxisName, of: Literal["tail", "bare"]
) -> tuple[str, str, str]:
    """Return the words for a reading of minus, of nought and of plus."""
    if axis == "upright":
        if of == "tail":
            return "high", "level", "low"
        return "low", "with the others", "high"
    middle = "straight" if of == "tail" else "with the others"
    return (
        side_word(flight, stiff=False, of=of), middle, side_word(flight, stiff=True, of=of),
    )  # fmt: skip


def _tails(flight: FlightNumbers, weak: str, middle: str, stiff: str) -> list[Gathered]:
    length = flight.upstream.arrow.sheet.length_mm
    slight, clear = (f"{length * math.sin(math.radians(deg)):.0f} mm" for deg in (1.0, 2.5))
    return [
        (phrase(f"{weak}, past {clear}"), [0, 1], 1.0),
        (phrase(f"{weak}, {slight} to {clear}"), [2], 2.0),
        (phrase(f"{middle}, within {slight}"), [3], 3.0),
        (phrase(f"{stiff}, {slight} to {clear}"), [4], 4.0),
        (phrase(f"{stiff}, past {clear}"), [5, 6], 5.0),
    ]


def _bares(test: FlightTest, count: int, weak: str, middle: str, stiff: str) -> list[Gathered]:
    half, share = count // 2, test.distance_m / 18.0
    near, far = mm(4 * MM_PER_IN * share), mm(12 * MM_PER_IN * share)
    bins = list(range(count))
    between = "{near} to {far}"
    return [
        (phrase(f"{weak}, past {{far}}", far=far), bins[: half - 3], -0.4 * share),
        (phrase(f"{weak}, {between}", near=near, far=far), bins[half - 3 : half - 1],
         -0.2 * share),
        (phrase(f"{middle}, within {{near}}", near=near), bins[half - 1 : half + 1], 0.0),
        (phrase(f"{stiff}, {between}", near=near, far=far), bins[half + 1 : half + 3],
         0.2 * share),
        (phrase(f"{stiff}, past {{far}}", far=far), bins[half + 3 :], 0.4 * share),
    ]  # fmt: skip
