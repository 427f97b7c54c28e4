"""Judging the archer's draw, hook and hold; every finding with its sum."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import Draw, DrawReading
from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.words import HOLD_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, mm, phrase

SCATTER_TO_MEND = 2.0
"""Readings spread twice as far as their errors explain: one of them is something else."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="draw-readings",
        stage="archer",
        title="Which draw reading counts",
        statement="A draw measured on this rig outranks the archer's general one; an arrow drawn "
        "and marked outranks tape, arm span and hearsay. Readings of one rank are averaged, each "
        "weighted by how well it repeats. What is outranked stays as a cross-check.",
        school="Measuring practice",
        source="Weighted least squares. Tape and span are first guesses by trade convention; the "
        "± of each way of measuring is Lyrandis's own assumption.",
    ),
    j.Rule(
        id="draw-agreement",
        stage="archer",
        title="Readings of one draw should agree",
        statement="Readings may spread as far as their own errors explain. Twice that, and one of "
        "them was misread, taken to another datum, or drawn in another way.",
        school="Measuring practice",
        source="Ratio of observed to expected spread, as used in metrology.",
    ),
    j.Rule(
        id="draw-datum",
        stage="archer",
        title="One datum for draw length",
        statement="Draw length is kept as pivot + 1 3/4 in: from the string at the nock "
        "groove to the deepest part of the grip, plus 1 3/4 in. Readings to the pivot, back or "
        "belly are converted with the grip's measured depth, or an assumed one with its ±.",
        school="Trade convention",
        source="Used for bows sold by draw length. Assumed grip depths are Lyrandis's own.",
    ),
    j.Rule(
        id="hook-depth",
        stage="archer",
        title="The hook is further back than the nock",
        statement="Fingers and thumb hold the string behind the arrow's nock groove, by about "
        "1/2 in to 1 in. The bow is drawn to the hook: weigh it there.",
        school="Mechanics",
        source="String geometry: depth = e tan γ, with e from groove to hook and γ the string's "
        "angle. Assumed by hold until measured.",
    ),
)


_MEASURE = j.Action(label="Measure it on an arrow", stage="archer", control="draw")
_LOOK = j.Action(label="Look at the readings", stage="archer", control="readings")
_HOOK = j.Action(label="Measure the hook depth", stage="archer", control="hook")
_finding = partial(j.found, "archer")


def reading_line(reading: DrawReading) -> Phrase:
    """Return one line of a sum: a reading on the trade datum, its ± and what was read."""
    said = reading.recorded.reading.say()
    here = ", on this rig" if reading.recorded.on_rig else ""
    return phrase(
        f"{{trade}} from: {said.template}{here}",
        trade=mm(reading.length.value, reading.length.plus_minus),
        **said.figures,
    )


def reading_lines(readings: tuple[DrawReading, ...]) -> tuple[Phrase, ...]:
    """Return the lines of the newest readings, and how many more there are."""
    return j.shortened(
        [reading_line(reading) for reading in readings[-j.MOST_LINES :]], len(readings)
    )


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the archer."""
    draw, at_hook = c.archer.draw, c.archer.at_hook
    if draw is None or at_hook is None:
        return []
    return [
        *_judge_draw(draw),
        *_judge_beside(draw),
        *_judge_datum(draw, c.setup.archer),
        *_judge_hook(c, draw, at_hook),
    ]


def _judge_draw(draw: Draw) -> list[j.Finding]:
    figure = mm(draw.length.value, draw.length.plus_minus)
    count = len(draw.used)
    where = " on this rig" if draw.basis == "rig" else ""
    if _end_unknown(draw):
        return []
    if draw.basis == "guess":
        return [_draw_finding(draw, "draw-guess", "watch", "draw-readings", _MEASURE, phrase(
            "A draw of {draw} is a first guess. An arrow drawn and marked settles it.", draw=figure
        ))]  # fmt: skip
    if draw.scatter > SCATTER_TO_MEND:
        return [_draw_finding(draw, "draw-scatter", "mend", "draw-agreement", _LOOK, phrase(
            f"The draw readings spread {draw.scatter:.1f} times what measuring explains: "
            "{draw}. Take back the one that was something else.",
            draw=figure,
        ))]  # fmt: skip
    return [_draw_finding(draw, "draw-settled", "good", "draw-readings", None, phrase(
        f"Draw {{draw}}, from {count} measured reading{'s' * (count > 1)}{where}.", draw=figure
    ))]  # fmt: skip


def _draw_finding(
    draw: Draw,
    finding: str,
    severity: j.Severity,
    rule: str,
    action: j.Action | None,
    sentence: Phrase,
) -> j.Finding:
    how = "Weighted by 1/±², they give" if len(draw.used) > 1 else "One reading:"
    line = phrase(
        f"{how} {{draw}} on pivot + {{1 3/4 in}}.",
        draw=mm(draw.length.value, draw.length.plus_minus),
    )
    return _finding(
        finding, severity, sentence, (*reading_lines(draw.used), line), action, rule=rule
    )


def _judge_beside(draw: Draw) -> list[j.Finding]:
    """Compare outranked readings with the draw: further off than both errors is worth a look."""
    result = []
    for reading in draw.beside:
        gap = reading.length.value - draw.length.value
        allowed = 2 * (reading.length.sd**2 + draw.length.sd**2) ** 0.5
        if abs(gap) <= allowed:
            continue
        side = "longer" if gap > 0 else "shorter"
        result.append(
            _finding(
                f"draw-beside-{reading.recorded.entry.id}",
                "watch",
                phrase(
                    f"An outranked reading is {{gap}} {side} than the draw in use. "
                    "Check that both were taken to the same datum.",
                    gap=mm(abs(gap)),
                ),
                (
                    reading_line(reading),
                    phrase(
                        "{gap} apart, where {allowed} is explained.",
                        gap=mm(abs(gap)),
                        allowed=mm(allowed),
                    ),
                ),
                _LOOK,
                rule="draw-agreement",
            )
        )
    return result


def _end_unknown(draw: Draw) -> list[j.Finding]:
    """Ask for a draw that was read to a known place, where one in use was not."""
    unsure = [reading for reading in draw.used if reading.shared == "unsure"]
    if not unsure:
        return []
    sentence = phrase(
        "It is not known what your draw of {draw} was measured to: read to the grip itself it is "
        "{offset} more.",
        draw=mm(draw.length.value, draw.length.plus_minus),
        offset=mm(TRADE_OFFSET_MM),
    )
    lines = reading_lines(tuple(unsure))
    return [_finding("datum-unknown", "watch", sentence, lines, _MEASURE, rule="draw-datum")]


def _judge_datum(draw: Draw, archer: ArcherFacts) -> list[j.Finding]:
    if unknown := _end_unknown(draw):
        return unknown
    for reading in draw.used:
        assumed = {"back": archer.back_depth, "belly": archer.belly_depth}
        if reading.shared in assumed and assumed[reading.shared] is None:
            return [
                _finding(
                    "grip-assumed",
                    "watch",
                    phrase(
                        f"The draw was read to the {reading.shared}, and this bow's grip depth is "
                        "assumed. Measure pivot to "
                        f"{reading.shared} to take {{pm}} off the ±.",
                        pm=mm(2 * reading.shared_sd),
                    ),
                    (reading_line(reading),),
                    j.Action(label="Enter the grip depth", stage="archer", control="grip"),
                    rule="draw-datum",
                )
            ]
    return []


def _judge_hook(c: Computed, draw: Draw, at_hook: Estimate) -> list[j.Finding]:
    archer = c.setup.archer
    hook = mm(c.archer.hook.value, c.archer.hook.plus_minus)
    hold = HOLD_WORDS[archer.hold.reading.hold] if archer.hold else "a hold not yet told"
    lines = (
        phrase("Nock groove at {draw}.", draw=mm(draw.length.value)),
        phrase(
            "Plus hook depth {hook}: the string at the hook stands at {at}.",
            hook=hook,
            at=mm(at_hook.value, at_hook.plus_minus),
        ),
    )
    if archer.hook_depth is None:
        return [
            _finding(
                "hook-assumed",
                "watch",
                phrase(
                    f"For {hold} the hook is taken to be {{hook}} behind the nock. "
                    "Weigh the bow with the string at {at}.",
                    hook=hook,
                    at=mm(at_hook.value),
                ),
                lines,
                _HOOK,
                rule="hook-depth",
            )
        ]
    return [
        _finding(
            "hook-measured",
            "good",
            phrase(
                "Your hook is {hook} behind the nock: weigh with the string at {at}.",
                hook=hook,
                at=mm(at_hook.value),
            ),
            lines,
            rule="hook-depth",
        )
    ]
