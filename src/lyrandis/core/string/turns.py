"""Twists in the string: how much they shorten it, and what brace they give. Lengths in mm.

A strand at radius r goes a helix; over a round bundle the mean of r^2 is D^2/8, so n turns shorten
a string of length L by pi^2 D^2 n^2/(4 L): the first turns do little.
"""

import math
from itertools import pairwise
from typing import Literal, NamedTuple

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.string.length import GainPair
from lyrandis.core.string.words import StringType

MEASURED_BUNDLE_SD_MM = 0.1
"""Assumption: calliper on an unserved bundle, two standard deviations."""
UNMEASURED_BUNDLE = 0.10
"""Assumption: share of a diameter reckoned from strands, one standard deviation: 20 % of the
shortening."""
FEWEST_PER_IN, MOST_PER_IN, SPONGY_PER_IN = 0.15, 0.75, 1.0
"""Assumption: turns per inch of string under which little holds a twisted bundle together, over
which it is spongy and wears, and over which a shorter one is ordered."""
ORDERED_PER_IN = 0.4
"""Turns per inch a new string is ordered for: in the middle of what is good."""
BRACE_READING_SD_MM = 0.5
"""Assumption: one reading of a square, one standard deviation."""

TurnsWord = Literal["apart", "loose", "good", "spongy", "too_many"]


class Bundle(NamedTuple):
    """A string for its turns."""

    length_mm: float
    """As it is now."""
    diameter_mm: Estimate
    turns: float
    kind: StringType


def shortening(length_mm: float, diameter_mm: float, turns: float, before: float = 0.0) -> float:
    """Return how much shorter a string is with `turns` than with `before` [mm].

    Source: mean helix over a round bundle, pi^2 D^2 (n1^2 - n0^2)/(4 L).

    >>> round(shortening(54 * 25.4, 0.10 * 25.4, 20, 10) / 25.4, 4)
    0.1371
    """
    return math.pi**2 * diameter_mm**2 * (turns**2 - before**2) / (4 * length_mm)


def brace_per_turn(bundle: Bundle, gain: Estimate) -> Estimate:
    """Return what the next whole turn adds to the brace [mm], with its sd.

    dh/dn = g pi^2 D^2 n/(2 L), taken from n to n + 1.
    Source: as `shortening`, times the gain.

    >>> string = Bundle(1372.0, Estimate(2.54, 0.05), 10.0, "twisted")
    >>> round(brace_per_turn(string, Estimate(1.1, 0.1)).value, 2)
    0.27
    """
    step = shortening(bundle.length_mm, bundle.diameter_mm.value, bundle.turns + 1, bundle.turns)
    value = gain.value * step
    share = math.hypot(gain.sd / gain.value, 2 * bundle.diameter_mm.sd / bundle.diameter_mm.value)
    return Estimate(value, value * share)


def turns_for(bundle: Bundle, gain: Estimate, wished_mm: float) -> float | None:
    """Return the turns that change the brace by `wished_mm`; None where untwisting cannot do it.

    n1 = sqrt(n0^2 + 4 L dh/(g pi^2 D^2)).
    Source: as `shortening`, solved for the turns.

    >>> string = Bundle(1372.0, Estimate(2.54, 0.05), 10.0, "twisted")
    >>> round(turns_for(string, Estimate(1.1, 0.1), 4.0), 1)
    20.3
    >>> turns_for(string, Estimate(1.1, 0.1), -4.0) is None
    True
    """
    square = bundle.turns**2 + 4 * bundle.length_mm * wished_mm / (
        gain.value * math.pi**2 * bundle.diameter_mm.value**2
    )
    return math.sqrt(square) if square >= 0 else None


def per_inch(turns: float, length_mm: float) -> float:
    """Return turns per inch of string.

    Source: turns over length.

    >>> per_inch(30.0, 60 * 25.4)
    0.5
    """
    return turns / (length_mm / MM_PER_IN)


def turns_word(turns_per_in: float, kind: StringType) -> TurnsWord:
    """Return how a string of so many turns per inch is judged.

    An endless loop holds without turns; a twisted bundle without any comes apart.
    Assumption: the bounds are ours, after the trade's habit.

    >>> [turns_word(x, "twisted") for x in (0.0, 0.1, 0.15, 0.75, 0.8, 1.1)]
    ['apart', 'loose', 'good', 'good', 'spongy', 'too_many']
    >>> turns_word(0.0, "endless")
    'good'
    """
    if kind == "twisted":
        if turns_per_in <= 0:
            return "apart"
        if turns_per_in < FEWEST_PER_IN:
            return "loose"
    if turns_per_in > SPONGY_PER_IN:
        return "too_many"
    return "spongy" if turns_per_in > MOST_PER_IN else "good"


class StringOrder(NamedTuple):
    """What to ask for in the next string [mm]."""

    finished_mm: float
    """On the bow, its turns in it."""
    turns: float
    bare_mm: float
    """The same before any turns: what an endless loop is laid to."""


def next_string(bundle: Bundle, gain: Estimate, wished_mm: float) -> StringOrder:
    """Return the string that gives the wished change of brace with 0.4 turns an inch.

    On the bow it is L - dh/g long; bare, longer by what its turns take.
    Source: as `shortening`.

    >>> string = Bundle(1500.0, Estimate(2.3, 0.05), 60.0, "twisted")
    >>> found = next_string(string, Estimate(1.1, 0.1), 12.0)
    >>> round(found.finished_mm), found.turns, round(found.bare_mm)
    (1489, 23.5, 1494)
    """
    finished = bundle.length_mm - wished_mm / gain.value
    turns = round(2 * ORDERED_PER_IN * finished / MM_PER_IN) / 2
    return StringOrder(
        finished, turns, finished + shortening(finished, bundle.diameter_mm.value, turns)
    )


class TurnedBrace(NamedTuple):
    """The brace as it was read with some turns in the string."""

    turns: float
    brace_mm: float


class TurnedBy(NamedTuple):
    """What a change of turns did to the brace, where nobody knows how many there were."""

    turns_by: float
    gained_mm: float
    since: float = 0.0
    """Turns put in after the second brace was read."""


def inferred_turns(
    changes: tuple[TurnedBy, ...], length_mm: float, diameter: Estimate, gain: Estimate
) -> Estimate | None:
    """Return how many turns are in the string now, from what changes did to its brace.

    dh = g pi^2 D^2 (2 n0 + dn) dn/(4 L), solved for n0; several changes by their doubts. None where
    no change was followed by a brace.
    Source: as `shortening`; two readings of a square.

    >>> by = (TurnedBy(10.0, 2.3 * shortening(1500.0, 2.1, 30.0, 20.0)),)
    >>> found = inferred_turns(by, 1500.0, Estimate(2.1, 0.05), Estimate(2.3, 0.1))
    >>> round(found.value, 1)
    30.0
    """
    # n0 + dn/2 = 2 L dh/(g pi^2 D^2 dn)
    per_mm = 2 * length_mm / (gain.value * math.pi**2 * diameter.value**2)
    share = math.hypot(gain.sd / gain.value, 2 * diameter.sd / diameter.value)
    total = weights = 0.0
    for change in changes:
        middle = max(per_mm * change.gained_mm / change.turns_by, abs(change.turns_by) / 2)
        read = per_mm * BRACE_READING_SD_MM * math.sqrt(2) / abs(change.turns_by)
        weight = 1 / (read**2 + (share * middle) ** 2)
        total += weight * (middle + change.turns_by / 2 + change.since)
        weights += weight
    return Estimate(max(total / weights, 0.0), 1 / math.sqrt(weights)) if weights else None


def pairs_of(
    readings: tuple[TurnedBrace, ...], length_mm: float, diameter_mm: float
) -> tuple[GainPair, ...]:
    """Return what each change of turns between two readings says of the gain.

    Changes that shorten the string by less than a reading's own sd say nothing and are left out.
    Source: as `shortening`; two readings of a square.

    >>> pairs_of((TurnedBrace(10, 180.0), TurnedBrace(30, 191.0)), 1500.0, 2.3)[0].gained_mm
    11.0
    """
    result = []
    for before, after in pairwise(readings):
        if before.turns == after.turns:
            continue
        shorter = shortening(length_mm, diameter_mm, after.turns, before.turns)
        if abs(shorter) >= BRACE_READING_SD_MM:
            gained = after.brace_mm - before.brace_mm
            result.append(GainPair(shorter, gained, BRACE_READING_SD_MM * math.sqrt(2)))
    return tuple(result)
