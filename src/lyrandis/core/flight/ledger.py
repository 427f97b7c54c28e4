"""What each reading did to every cause: one row a reading, the model being the first."""

import math

from lyrandis.core.flight.belief import Axis
from lyrandis.core.flight.evidence import NOT_COUNTED_WORDS, Shifted, SittingStep
from lyrandis.core.flight.history import LogLine
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.shapes import NOCK_ORDER, SHAFT_ORDER, LedgerRow
from lyrandis.core.phrase import Phrase, gap, phrase, spine

MOST_PULL = 3.0
"""Pulls are drawn up to e^3 times as likely."""


def ledger(flight: FlightNumbers) -> tuple[LedgerRow, ...]:
    """Return one row for the model and one for every reading and change, in order.

    Source: differences of the belief step by step.

    >>> from lyrandis.core.computed import with_curves
    >>> from lyrandis.core.example import rig
    >>> len(ledger(with_curves(rig()).flight))
    1
    """
    assert flight.belief.spine is not None
    first, first_up = flight.belief.after(0)
    even = 1 / len(SHAFT_ORDER)
    model = flight.upstream.arrow.model
    wants = model.matched if model else 0.0
    says = (
        phrase("The model, before any shot")
        if flight.basis.own_lbf is None
        else phrase("The model, before any shot: rig for {wants}, shafts {own}",
                    wants=spine(wants), own=spine(flight.basis.own_lbf))
    )  # fmt: skip
    rows = [
        LedgerRow(
            entry_id=None,
            at=None,
            says=says,
            beside="tunings with other arrows in it" if flight.belief.tunings else "",
            pulls=tuple(_pull(first.chances()[key], even) for key in SHAFT_ORDER),
            nock_pulls=tuple(_pull(first_up.chances()[key], even) for key in NOCK_ORDER)
            if flight.belief.looked_up
            else None,
            counted=True,
            odd=False,
            changed=False,
        )
    ]
    odd = flight.verdict.surprising
    taken = 0
    for entry in flight.log:
        if entry.step is not None:
            before, after = flight.belief.after(taken), flight.belief.after(taken + 1)
            taken += 1
            rows.append(_row(flight, entry, before, after, odd=entry is odd))
        else:
            rows.append(_uncounted(entry))
    return tuple(rows)


def _pull(after: float, before: float) -> float:
    result = math.log(max(after, 1e-6) / max(before, 1e-6))
    return round(max(-MOST_PULL, min(MOST_PULL, result)), 3)


def _row(
    flight: FlightNumbers, one: LogLine, before: tuple[Axis, Axis], after: tuple[Axis, Axis], *,
    odd: bool,
) -> LedgerRow:  # fmt: skip
    pulls, nock = (
        tuple(_pull(b.chances()[key], a.chances()[key]) for key in order)
        for a, b, order in zip(before, after, (SHAFT_ORDER, NOCK_ORDER), strict=True)
    )
    changed = isinstance(one.step, Shifted)
    return LedgerRow(
        entry_id=one.seen.entry.id if one.seen else one.entry_id,
        at=one.at[0],
        says=one.seen.reading.say() if one.seen else _change_says(one.step),
        beside="",
        pulls=pulls,
        nock_pulls=nock if flight.belief.looked_up else None,
        counted=True,
        odd=odd,
        changed=changed,
    )


def _change_says(step: SittingStep | None) -> Phrase:
    assert isinstance(step, Shifted)
    if step.axis == "upright":
        return phrase(f"Nock moved {{by}} {'down' if step.by > 0 else 'up'}",
                      by=gap(abs(step.by) * 2))  # fmt: skip
    way = "stiffer" if step.by > 0 else "weaker"
    return phrase(f"Changed on the rig: the arrow reads {way}, {abs(step.by):.1f} tenths")


def _uncounted(one: LogLine) -> LedgerRow:
    says = one.seen.reading.say() if one.seen else phrase("A change before the readings that count")
    why = NOT_COUNTED_WORDS[one.why_not] if one.why_not else ""
    return LedgerRow(
        entry_id=one.seen.entry.id if one.seen else one.entry_id,
        at=one.at[0],
        says=says,
        beside=f"not counted: {why}" if why else "",
        pulls=(),
        nock_pulls=None,
        counted=False,
        odd=False,
        changed=False,
    )
