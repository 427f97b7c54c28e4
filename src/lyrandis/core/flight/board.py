"""The board of evidence: causes, what each reading says, the next test, corrections, the proof.

It needs the rig's own curves, so it is asked for apart from the page.
"""

import math
from typing import Literal

from lyrandis.core.arrow.judge_spine import STIFFNESS_WORDS
from lyrandis.core.arrow.matched import asked
from lyrandis.core.computed import Computed, Reckoner, with_curves
from lyrandis.core.errors import DomainError
from lyrandis.core.flight.belief import Axis
from lyrandis.core.flight.choose import (
    ENOUGH,
    SAID_FROM,
    FlightTest,
    Worth,
    bits,
    outcomes,
    surest,
    verdict,
)
from lyrandis.core.flight.correct import CorrectionLever, levers_of
from lyrandis.core.flight.evidence import Saw, Shifted, reckon, stepped
from lyrandis.core.flight.keep import kept_as
from lyrandis.core.flight.ledger import ledger
from lyrandis.core.flight.numbers import FlightNumbers
from lyrandis.core.flight.outcomes import gathered
from lyrandis.core.flight.plan import change_of, near_says
from lyrandis.core.flight.proof import expected_reading, proofs
from lyrandis.core.flight.say import (
    MEANS,
    cause_word,
    put_back,
    said_words,
    strikes_says,
    sure_of,
    sure_word,
    test_how,
    test_title,
)
from lyrandis.core.flight.schools import schools
from lyrandis.core.flight.settle import near_of, shown
from lyrandis.core.flight.shapes import (
    NOCK_ORDER,
    SHAFT_ORDER,
    Cause,
    Correction,
    ExpectedReading,
    FlightBoard,
    LeverLine,
    Outcome,
    TestLine,
    TunedMatch,
)
from lyrandis.core.flight.stage import flight_word, is_near, said
from lyrandis.core.flight.suspects import suspects
from lyrandis.core.flight.words import AxisName
from lyrandis.core.judgement import recordable
from lyrandis.core.phrase import Phrase, percent, phrase, spine

MOST_ALTERNATIVES = 5
LEAST_CHANCE = 0.01


def board(c: Computed, reckoner: Reckoner = reckon) -> FlightBoard:
    """Return the board of a rig; its curves are reckoned here if they are not there yet.

    Raises `DomainError` where the shot is not known.
    Source: the belief (docs/MECHANICS.md, the flight).

    >>> from lyrandis.core.example import rig
    >>> board(rig()).counted
    0
    """
    c = with_curves(c, reckoner)
    flight = c.flight
    if flight.belief.axes is None or flight.belief.sitting is None:
        raise DomainError(
            "nothing_to_shoot",
            "The flight needs a computed shot with a match.",
            "Enter draw, the bow's weight and the arrow's parts.",
        )
    spine_axis, upright = flight.belief.axes
    before = _before(flight)
    ranked = flight.tests.ranked
    best = ranked[0] if ranked else None
    off = max(axis.off for axis in flight.belief.axes)
    sentence, under = _sentence(c, flight)
    return FlightBoard(
        sentence=sentence,
        under=under,
        verdict=flight_word(c),
        nock=said("upright", flight.verdict.nock),
        causes=_causes(spine_axis, before[0] if before else None, flight.verdict.contradicts),
        nock_causes=_causes(upright, before[1] if before else None, flight.verdict.contradicts)
        if flight.belief.looked_up
        else None,
        ledger=ledger(flight),
        off=off if flight.belief.counted > 1 else None,
        off_says=_off_says(off) if flight.belief.counted > 1 else None,
        said_from=SAID_FROM,
        counted=flight.belief.counted,
        next=_test(c, best) if best else None,
        outcomes=_outcomes(flight, best.test) if best else (),
        others=tuple(_test(c, option) for option in ranked[1 : 1 + MOST_ALTERNATIVES]),
        enough=flight.belief.counted > 0 and (flight.verdict.sure is not None or not ranked),
        correction=_correction(c, flight),
        proofs=proofs(flight),
        expected_now=_expected_now(flight),
        tuned=flight.verdict.tuned,
        nock_tuned=flight.verdict.nock_tuned,
        near=_near(c, flight),
        differs=flight.differs,
        match=_match(flight),
        suspects=suspects(c),
        schools=schools(c),
    )


def _near(c: Computed, flight: FlightNumbers) -> Phrase | None:
    near = flight.due.near
    if near is None or any(lever.first for lever in levers_of(c)):
        return None
    return near_says(near.within)


def _expected_now(flight: FlightNumbers) -> ExpectedReading | None:
    """Return what the next reading should be after a change, in the plane that was changed."""
    if not flight.belief.steps or not isinstance(flight.belief.steps[-1], Shifted):
        return None
    changed = flight.belief.steps[-1].axis
    axis = flight.belief.spine if changed == "spine" else flight.belief.upright
    return None if axis is None else expected_reading(flight, axis)


def _before(flight: FlightNumbers) -> tuple[Axis, Axis] | None:
    return flight.belief.after(len(flight.belief.steps) - 1) if flight.belief.steps else None


def _causes(axis: Axis, before: Axis | None, contradicts: bool) -> tuple[Cause, ...]:
    chances = axis.chances()
    earlier = before.chances() if before is not None else None
    best, _ = surest(axis)
    order = SHAFT_ORDER if axis.name == "spine" else NOCK_ORDER
    return tuple(
        Cause(
            key=key,
            name=cause_word(axis.name, key),
            chance=shown(key, chances[key]),
            before=shown(key, earlier[key]) if earlier else None,
            word=sure_word(chances[key]),
            leads=key == best and not contradicts,
        )
        for key in order
    )


def _sentence(c: Computed, flight: FlightNumbers) -> tuple[Phrase, Phrase | None]:
    """Return what may be told a friend, and what is sure nevertheless."""
    verdict = flight.verdict
    if flight.basis.needs:
        return phrase("Kept, and not weighed yet"), None
    if not flight.belief.counted:
        return phrase("No shot seen yet"), _match_says(c, flight)
    if verdict.contradicts or verdict.said is None:
        return (
            phrase("The readings contradict each other"),
            phrase("Nothing is said of the cause until it is known what changed between them."),
        )
    if verdict.tuned:
        return _tuned_sentence(flight)
    if is_near(c):
        return phrase("Kept as near as this bow can be told"), near_says(
            near_of(_spine(flight)).within
        )
    said_now = verdict.said
    if said_now.chance >= SAID_FROM:
        return (
            phrase(f"{said_words(said_now).capitalize()}, {sure_of(said_now)}: {{chance}}",
                   chance=percent(said_now.chance)),
            strikes_says(said_now) or phrase(MEANS[said_now.cause]),
        )  # fmt: skip
    chances = _spine(flight).chances()
    best, second = sorted(chances, key=lambda name: -chances[name])[:2]
    names = f"{cause_word('spine', best)} or {cause_word('spine', second)}"
    return phrase(f"Not enough to say: {names}"), strikes_says(said_now)


def _spine(flight: FlightNumbers) -> Axis:
    assert flight.belief.spine is not None
    return flight.belief.spine


def _match_says(c: Computed, flight: FlightNumbers) -> Phrase | None:
    """Return what the match says of the shafts: before any shot nothing else is known."""
    own = flight.basis.own_lbf
    if c.match is None or own is None:
        return None
    return phrase(
        f"By the match your shafts are {STIFFNESS_WORDS[c.match.word(own)]}: {{own}}, where "
        "{low} to {high} would do.",
        own=spine(own), low=spine(asked(c.match.low)), high=spine(asked(c.match.high)),
    )  # fmt: skip


def _tuned_sentence(flight: FlightNumbers) -> tuple[Phrase, Phrase]:
    """Return that it is tuned: the shaft alone where the nock is not known to be right."""
    within = "Within a tenth of the stiffness this rig wants, about four times in five"
    if flight.belief.upright is None or not flight.belief.looked_up:
        return phrase("The shaft is tuned"), phrase(f"{within}. High and low were not looked at.")
    if flight.verdict.nock_tuned:
        return phrase("Tuned: shaft and nock"), phrase(f"{within}; the nock within 2 mm.")
    nock = flight.belief.upright.chances()["tuned"]
    return (
        phrase("The shaft is tuned"),
        phrase(
            f"{within}. The nock is within 2 mm at {{nock}}: not sure enough to say.",
            nock=percent(shown("tuned", nock)),
        ),
    )


def _off_says(off: float) -> Phrase:
    if off > 0.5:
        return phrase("They do not agree: {off} that something else changed.", off=percent(off))
    return phrase("They agree well enough: {off} that something else changed. Over half, nothing "
                  "is said.", off=percent(off))  # fmt: skip


def _test(c: Computed, worth: Worth) -> TestLine:
    test = worth.test
    change = change_of(c, test)
    return TestLine(
        key=test.key,
        title=test_title(test, change),
        how=test_how(test, change),
        minutes=round(test.minutes),
        bits=round(worth.bits, 3),
        trial=change,
        back=put_back(change) if change else None,
        sees=test.sees,
        distance_m=test.distance_m,
        arrows=test.arrows,
    )


def _outcomes(flight: FlightNumbers, test: FlightTest) -> tuple[Outcome, ...]:
    """Return what a test may show, gathered into what an archer tells apart, and the cause then.

    Of shaft and nock it is told of the one that the test tells more of.
    """
    assert flight.belief.sitting is not None
    noise = flight.basis.noise
    axis = max(flight.belief.sitting.axes.values(), key=lambda axis: bits(axis, test, noise))
    joint = outcomes(axis, test, noise)
    result = []
    for what, picked, reading in gathered(flight, axis.name, test, len(joint)):
        chance = float(joint[picked].sum())
        if chance < LEAST_CHANCE:
            continue
        after = stepped(axis, _read(axis.name, test, reading), flight.basis.noise)
        best, sure = surest(after)
        odd = verdict(after) == "contradict"
        result.append(
            Outcome(
                what=what,
                chance=chance,
                cause="readings differ" if odd else cause_word(axis.name, best),
                sure=shown(best, sure),
                enough=sure >= ENOUGH and not odd,
            )
        )
    return tuple(result)


def _read(axis: AxisName, test: FlightTest, reading: float) -> Saw:
    return Saw(test, reading) if axis == "spine" else Saw(test, None, reading)


def _correction(c: Computed, flight: FlightNumbers) -> Correction | None:
    levers = levers_of(c)
    across = flight.due.across
    if not levers or flight.belief.spine is None:
        return None
    own = flight.basis.own_lbf
    result = flight.match.tuning
    first = next((lever for lever in levers if lever.first), None)
    wants = result.matched if result else None
    return Correction(
        sentence=_due(flight, across),
        wants_lbf=wants,
        wants_low_lbf=wants * math.exp(-result.band) if wants and result else None,
        wants_high_lbf=wants * math.exp(result.band) if wants and result else None,
        own_lbf=own,
        levers=tuple(_lever(c, flight, lever, across) for lever in levers),
        expected=_after_lever(flight, first) if first else None,
    )


def _due(flight: FlightNumbers, across: float | None) -> Phrase:
    result, own = flight.match.tuning, flight.basis.own_lbf
    if across is None or result is None or own is None:
        due = "nothing is due" if flight.verdict.tuned else "nothing is due yet"
        return phrase(f"Of the shaft {due}. The nock comes first: it costs nothing to move.")
    side = "stiff" if across < 0 else "weak"
    off = abs(own - result.matched)
    return phrase(
        f"Too {side} by about {off:.0f} lb: this rig's flight wants {{wants}}.",
        wants=spine(result.matched, result.band * result.matched),
    )


_Node = Literal["nock", "string", "arrows", "centre_shot", "brace"]
_NODES: dict[str, _Node] = {
    "nock": "nock", "point": "arrows", "length": "arrows",
    "shafts": "arrows", "plate": "centre_shot", "brace": "brace",
}  # fmt: skip


def _lever(
    c: Computed, flight: FlightNumbers, one: CorrectionLever, across: float | None
) -> LeverLine:
    own = flight.basis.own_lbf if one.axis == "spine" else None
    return LeverLine(
        key=one.key,
        axis=one.axis,
        what=one.what,
        reads_lbf=own * math.exp(one.by / 10) if own else None,
        share=one.by / across if one.axis == "spine" and across else None,
        minutes=one.minutes,
        undo=one.undo,
        records=one.records,
        get=one.get,
        trial=one.trial,
        refused=one.refused,
        reaches=one.reaches,
        first=one.first,
        disturbs=_disturbs(c, one),
    )


def _disturbs(c: Computed, one: CorrectionLever) -> tuple[str, ...]:
    """Return what rests on what a lever moves, each once."""
    keys = one.keys or (one.key,)
    found = (name for key in keys if key in _NODES for name in c.order.resting_on(_NODES[key]))
    return tuple(dict.fromkeys(found))


def _after_lever(flight: FlightNumbers, lever: CorrectionLever) -> ExpectedReading | None:
    """Return what the next reading should be once a lever is moved."""
    axis = flight.belief.spine if lever.axis == "spine" else flight.belief.upright
    if axis is None:
        return None
    shift = Shifted(lever.axis, lever.by, lever.means)
    return expected_reading(flight, stepped(axis, shift, flight.basis.noise))


def _match(flight: FlightNumbers) -> TunedMatch | None:
    result, model, own = flight.match.tuning, flight.upstream.arrow.model, flight.basis.own_lbf
    if result is None or model is None or own is None:
        return None
    if not flight.belief.counted:
        return None
    low, high = result.matched * math.exp(-result.band), result.matched * math.exp(result.band)
    narrower = (high - low) / result.matched < (model.high - model.low) / model.matched
    return TunedMatch(
        matched_lbf=result.matched,
        low_lbf=low,
        high_lbf=high,
        model_lbf=model.matched,
        model_low_lbf=model.low,
        model_high_lbf=model.high,
        own_lbf=own,
        offset=result.offset,
        sd=result.sd,
        in_force=flight.verdict.tuned and flight.match.by_flight,
        kept=flight.match.kept,
        narrower=narrower,
        keeps=recordable(
            "rig",
            kept_as(flight.upstream, result, model.matched, tuned=flight.verdict.tuned),
        ),
        says=phrase(
            "Your flight: {own}; the schools alone said {model}."
            + (
                " The band is narrower now."
                if narrower
                else " It is not narrower yet than the mechanics' own."
            ),
            own=spine(result.matched, result.band * result.matched),
            model=spine(model.matched, (model.high - model.low) / 2),
        ),
    )
