"""What the next reading should be, said before it is shot, and how it came out."""

import math

from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.flight.belief import Axis
from lyrandis.core.flight.choose import likelihood
from lyrandis.core.flight.evidence import GROUP, Saw, Shifted
from lyrandis.core.flight.history import LogLine
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.say import TAIL_WORDS
from lyrandis.core.flight.settle import expected
from lyrandis.core.flight.shapes import ExpectedReading, Proof
from lyrandis.core.phrase import Phrase, mm, phrase

HALF_INCH_MM = MM_PER_IN / 2


def expected_reading(flight: FlightNumbers, axis: Axis) -> ExpectedReading:
    result = expected(axis, flight.basis.noise)
    tail = result.tail if flight.basis.hands.outward_is_left else tuple(reversed(result.tail))
    right = -result.bare_m if flight.basis.hands.outward_is_left else result.bare_m
    names = _tail_names()
    return ExpectedReading(
        tail=tail,
        likeliest=names[max(range(7), key=lambda i: tail[i])],
        unexpected=tuple(names[i] for i in range(7) if tail[i] < 0.05),
        bare=_bare_words(1000 * right, 2000 * result.bare_sd_m),
        bare_right_mm=1000 * right,
        bare_plus_minus_mm=2000 * result.bare_sd_m,
    )  # fmt: skip


def _bare_words(right_mm: float, plus_minus_mm: float) -> Phrase:
    off, spread = _half_inches(right_mm), _half_inches(plus_minus_mm)
    if off == 0:
        return phrase("bare shafts with the others, within {spread} at 18 m", spread=mm(spread))
    way = "right" if right_mm > 0 else "left"
    return phrase(f"bare shafts {{off}} {way}, at 18 m", off=mm(off, spread))


def _half_inches(value_mm: float) -> float:
    """Round to half an inch: nobody reads a butt closer."""
    return round(abs(value_mm) / HALF_INCH_MM) * HALF_INCH_MM


def _tail_names() -> tuple[str, ...]:
    sides = ["left"] * 3 + [""] + ["right"] * 3
    return tuple(f"{word} {side}".strip() for word, side in zip(TAIL_WORDS, sides, strict=True))


def changed_last(flight: FlightNumbers) -> bool:
    return bool(flight.belief.steps) and isinstance(flight.belief.steps[-1], Shifted)


def proofs(flight: FlightNumbers) -> tuple[Proof, ...]:
    """Return the readings since the last change, each beside what was said before it."""
    places = [i for i, step in enumerate(flight.belief.steps) if isinstance(step, Shifted)]
    if not places:
        return ()
    counted = [entry for entry in flight.log if entry.step is not None]
    rows = []
    for at in range(places[-1] + 1, len(flight.belief.steps)):
        step, one = flight.belief.steps[at], counted[at]
        if not isinstance(step, Saw) or one.seen is None or step.spine is None:
            continue
        if step.test.key == GROUP:
            # it says too little of itself to be held against what was expected
            continue
        axis = flight.belief.after(at)[0]
        rows.append(_proof(flight, axis, step, one))
    return tuple(rows)


def _proof(flight: FlightNumbers, axis: Axis, step: Saw, one: LogLine) -> Proof:
    assert one.seen is not None
    assert step.spine is not None
    if step.test.sees == "bare":
        found = expected(axis, flight.basis.noise, step.test.distance_m, round(step.test.arrows))
        off = (step.spine - found.bare_m) / found.bare_sd_m
        chance = math.erfc(abs(off) / math.sqrt(2))
        seen = expected_reading(flight, axis)
        return Proof(says=one.seen.reading.say(), expected=seen.bare, chance=chance,
                     as_expected=chance >= 0.1)  # fmt: skip
    likely, _ = likelihood(axis, step.test, step.spine, flight.basis.noise)
    chance = float((axis.p * likely).sum())
    if step.test.sees == "tail":
        words = phrase(f"the tail {expected_reading(flight, axis).likeliest}")
        return Proof(says=one.seen.reading.say(), expected=words, chance=chance,
                     as_expected=chance >= 0.05)  # fmt: skip
    some = chance if step.spine else 1 - chance
    sign = {"mark": "a mark", "slap": "a slap"}[step.test.sees]
    expects = phrase(sign if some >= 0.5 else f"no {sign[2:]}")
    return Proof(says=one.seen.reading.say(), expected=expects, chance=chance,
                 as_expected=chance >= 0.05)  # fmt: skip
