"""What the next reading should be, said before it is shot, and how it came out."""

import math

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.flight.belief import Axis
from lyrandis.core.flight.choose import FlightTest, likelihood
from lyrandis.core.flight.evidence import GROUP, Saw, Shifted
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.say import TAIL_WORDS
from lyrandis.core.flight.settle import expected
from lyrandis.core.flight.shapes import ExpectedReading, Proof
from lyrandis.core.flight.words import AxisName
from lyrandis.core.phrase import Phrase, mm, phrase

HALF_INCH_MM = MM_PER_IN / 2


BUTT_MM = 600.0
"""Half a butt: bare shafts that may strike anywhere on it are not foretold."""


def expected_reading(flight: FlightNumbers, axis: Axis) -> ExpectedReading:
    """Return what the next tail and bare shafts should be along an axis, as they are seen.

    Source: `expected`.

    >>> from lyrandis.core.computed import with_curves
    >>> from lyrandis.core.example import rig
    >>> flight = with_curves(rig()).flight
    >>> found = expected_reading(flight, flight.belief.upright)
    >>> found.likeliest, found.axis
    ('level', 'upright')
    """
    result = expected(axis, flight.basis.noise)
    upright = axis.name == "upright"
    as_seen = upright or flight.basis.hands.outward_is_left
    tail = result.tail if as_seen else tuple(reversed(result.tail))
    # bare shafts of a stiff shaft strike the outer side, of a low nock high
    off = result.bare_m if upright or not flight.basis.hands.outward_is_left else -result.bare_m
    names = tail_names(axis.name)
    return ExpectedReading(
        axis=axis.name,
        tail=tail,
        likeliest=names[max(range(7), key=lambda i: tail[i])],
        unexpected=tuple(names[i] for i in range(7) if tail[i] < 0.05),
        bare=_bare_words(axis.name, 1000 * off, 2000 * result.bare_sd_m),
    )


def _bare_words(axis: AxisName, off_mm: float, plus_minus_mm: float) -> Phrase | None:
    if plus_minus_mm > BUTT_MM:
        return None
    off, spread = _half_inches(off_mm), _half_inches(plus_minus_mm)
    level = "level with the others" if axis == "upright" else "with the others"
    if off == 0:
        return phrase(f"bare shafts {level}, within {{spread}} at 18 m", spread=mm(spread))
    ways = ("high", "low") if axis == "upright" else ("right", "left")
    return phrase(f"bare shafts {{off}} {ways[off_mm < 0]}, at 18 m", off=mm(off, spread))


def _half_inches(value_mm: float) -> float:
    """Round to half an inch: nobody reads a butt closer."""
    return round(abs(value_mm) / HALF_INCH_MM) * HALF_INCH_MM


def tail_names(axis: AxisName) -> tuple[str, ...]:
    """Return what each class of a tail is called as it is seen, in the order it is drawn.

    Source: words of the trade.

    >>> tail_names("spine")[2:5], tail_names("upright")[3]
    (('slight left', 'straight', 'slight right'), 'level')
    """
    low, high = ("high", "low") if axis == "upright" else ("left", "right")
    sides = [low] * 3 + [""] + [high] * 3
    words = [*TAIL_WORDS[:3], "level" if axis == "upright" else TAIL_WORDS[3], *TAIL_WORDS[4:]]
    return tuple(f"{word} {side}".strip() for word, side in zip(words, sides, strict=True))


def proofs(flight: FlightNumbers) -> tuple[Proof, ...]:
    """Return the readings since the last change, each beside what was said before it."""
    places = [i for i, step in enumerate(flight.belief.steps) if isinstance(step, Shifted)]
    if not places:
        return ()
    changed = flight.belief.steps[places[-1]]
    assert isinstance(changed, Shifted)
    counted = [entry for entry in flight.log if entry.step is not None]
    rows = []
    for at in range(places[-1] + 1, len(flight.belief.steps)):
        step, one = flight.belief.steps[at], counted[at]
        if not isinstance(step, Saw) or one.seen is None or step.test.key == GROUP:
            # a group says too little of itself to be held against what was expected
            continue
        reading = step.spine if changed.axis == "spine" else step.upright
        if reading is None:
            continue
        axis = flight.belief.after(at)[0 if changed.axis == "spine" else 1]
        proof = _proof(flight, axis, step.test, reading, one.seen.reading.say())
        if proof is not None:
            rows.append(proof)
    return tuple(rows)


def _proof(
    flight: FlightNumbers, axis: Axis, test: FlightTest, reading: float, says: Phrase
) -> Proof | None:
    """Return a reading beside what was said before it; None where nothing could be said."""
    seen = expected_reading(flight, axis)
    if test.sees == "bare":
        found = expected(axis, flight.basis.noise, test.distance_m, round(test.arrows))
        chance = math.erfc(abs(reading - found.bare_m) / found.bare_sd_m / math.sqrt(2))
        if seen.bare is None:
            return None
        return Proof(says=says, expected=seen.bare, chance=chance, as_expected=chance >= 0.1)
    likely, _ = likelihood(axis, test, reading, flight.basis.noise)
    chance = float((axis.p * likely).sum())
    if test.sees == "tail":
        words = phrase(f"the tail {seen.likeliest}")
    else:
        some = chance if reading else 1 - chance
        sign = {"mark": "a mark", "slap": "a slap"}[test.sees]
        words = phrase(sign if some >= 0.5 else f"no {sign[2:]}")
    return Proof(says=says, expected=words, chance=chance, as_expected=chance >= 0.05)
