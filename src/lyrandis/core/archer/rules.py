"""Judging the archer's draw, hook and hold; every finding with its sum."""

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import BACK_DEPTH_IN, BELLY_DEPTH_IN, DrawReading, grip_depth
from lyrandis.core.computed import Computed
from lyrandis.core.describe import describe, words
from lyrandis.core.entries import BaseReading, GripDepth
from lyrandis.core.phrase import Phrase, mm, phrase
from lyrandis.core.setup import Recorded

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
        statement="Draw length is kept as pivot + 1¾ in: from the string at the nock groove to the "
        "deepest part of the grip, plus 1¾ in. Readings to the pivot, back or belly are converted "
        "with the grip's measured depth, or an assumed one with its ±.",
        school="Trade convention",
        source="Used for bows sold by draw length. Assumed grip depths are Lyrandis's own.",
    ),
    j.Rule(
        id="hook-depth",
        stage="archer",
        title="The hook is further back than the nock",
        statement="Fingers and thumb hold the string behind the arrow's nock groove, by about half "
        "an inch to an inch. The bow is drawn to the hook: weigh it there.",
        school="Mechanics",
        source="String geometry: depth = e tan γ, with e from groove to hook and γ the string's "
        "angle. Assumed by hold until measured.",
    ),
)

CAUTIONS = (
    j.Caution(id="light-bow", text="Measure draw on a light bow, never past its maker's limit."),
    j.Caution(id="dry-fire", text="Never let go of a string without an arrow on it."),
    j.Caution(
        id="pain", text="Pain or doubt about a weight: stop, and see a coach or a physician."
    ),
)

_MEASURE = j.Action(label="Measure it on an arrow", stage="archer", control="draw")
_HOOK = j.Action(label="Measure the hook depth", stage="archer", control="hook")


def reading_line(reading: DrawReading) -> Phrase:
    """Return one line of a sum: a reading on the trade datum, its ± and what was read."""
    said = describe(reading.recorded.reading)
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
    if c.draw is None:
        return []
    return [*_judge_draw(c), *_judge_beside(c), *_judge_datum(c), *_judge_hook(c)]


def _judge_draw(c: Computed) -> list[j.Finding]:
    assert c.draw is not None
    draw = c.draw
    figure = mm(draw.length.value, draw.length.plus_minus)
    lines = (
        *reading_lines(draw.used),
        phrase(
            "Weighted by 1/±², they give {draw} on pivot + 1¾ in."
            if len(draw.used) > 1
            else "One reading: {draw} on pivot + 1¾ in.",
            draw=figure,
        ),
    )
    if draw.basis == "guess":
        finding = j.Finding(
            id="draw-guess",
            stage="archer",
            severity="watch",
            sentence=phrase(
                "A draw of {draw} is a first guess. An arrow drawn and marked settles it.",
                draw=figure,
            ),
            sum=lines,
            rule="draw-readings",
            action=_MEASURE,
        )
    elif draw.scatter > SCATTER_TO_MEND:
        finding = j.Finding(
            id="draw-scatter",
            stage="archer",
            severity="mend",
            sentence=phrase(
                f"The draw readings spread {draw.scatter:.1f} times what measuring explains: "
                "{draw}. Take back the one that was something else.",
                draw=figure,
            ),
            sum=lines,
            rule="draw-agreement",
            action=j.Action(label="Look at the readings", stage="archer", control="readings"),
        )
    else:
        count = len(draw.used)
        where = " on this rig" if draw.basis == "rig" else ""
        finding = j.Finding(
            id="draw-settled",
            stage="archer",
            severity="good",
            sentence=phrase(
                f"Draw {{draw}}, from {count} measured reading{'s' * (count > 1)}{where}.",
                draw=figure,
            ),
            sum=lines,
            rule="draw-readings",
        )
    return [finding]


def _judge_beside(c: Computed) -> list[j.Finding]:
    """Compare outranked readings with the draw: further off than both errors is worth a look."""
    assert c.draw is not None
    found = []
    for reading in c.draw.beside:
        gap = reading.length.value - c.draw.length.value
        allowed = 2 * (reading.length.sd**2 + c.draw.length.sd**2) ** 0.5
        if abs(gap) <= allowed:
            continue
        side = "longer" if gap > 0 else "shorter"
        found.append(
            j.Finding(
                id=f"draw-beside-{reading.recorded.entry.id}",
                stage="archer",
                severity="watch",
                sentence=phrase(
                    f"An outranked reading is {{gap}} {side} than the draw in use. "
                    "Check that both were taken to the same datum.",
                    gap=mm(abs(gap)),
                ),
                sum=(
                    reading_line(reading),
                    phrase(
                        "{gap} apart, where {allowed} is explained.",
                        gap=mm(abs(gap)),
                        allowed=mm(allowed),
                    ),
                ),
                rule="draw-agreement",
                action=j.Action(label="Look at the readings", stage="archer", control="readings"),
            )
        )
    return found


def _judge_datum(c: Computed) -> list[j.Finding]:
    assert c.draw is not None
    bow = c.setup.bow
    for reading in c.draw.used:
        assumed = {"back": bow.back_depth, "belly": bow.belly_depth}
        if reading.shared in assumed and assumed[reading.shared] is None:
            return [
                j.Finding(
                    id="grip-assumed",
                    stage="archer",
                    severity="watch",
                    sentence=phrase(
                        f"The draw was read to the {reading.shared}, and this bow's grip depth is "
                        "assumed. Measure pivot to "
                        f"{reading.shared} to take {{pm}} off the ±.",
                        pm=mm(2 * reading.shared_sd),
                    ),
                    sum=(reading_line(reading),),
                    rule="draw-datum",
                    action=j.Action(label="Enter the grip depth", stage="archer", control="grip"),
                )
            ]
    return []


def _judge_hook(c: Computed) -> list[j.Finding]:
    assert c.draw is not None
    assert c.at_hook is not None
    archer = c.setup.archer
    hook = mm(c.hook.value, c.hook.plus_minus)
    hold = words(archer.hold.reading.hold) if archer.hold else "a hold not yet told"
    lines = (
        phrase("Nock groove at {draw}.", draw=mm(c.draw.length.value)),
        phrase(
            "Plus hook depth {hook}: the string at the hook stands at {at}.",
            hook=hook,
            at=mm(c.at_hook.value, c.at_hook.plus_minus),
        ),
    )
    if archer.hook_depth is None:
        return [
            j.Finding(
                id="hook-assumed",
                stage="archer",
                severity="watch",
                sentence=phrase(
                    f"For {hold} the hook is taken to be {{hook}} behind the nock. "
                    "Weigh the bow with the string at {at}.",
                    hook=hook,
                    at=mm(c.at_hook.value),
                ),
                sum=lines,
                rule="hook-depth",
                action=_HOOK,
            )
        ]
    return [
        j.Finding(
            id="hook-measured",
            stage="archer",
            severity="good",
            sentence=phrase(
                "Your hook is {hook} behind the nock: weigh with the string at {at}.",
                hook=hook,
                at=mm(c.at_hook.value),
            ),
            sum=lines,
            rule="hook-depth",
        )
    ]


def stage(c: Computed, findings: list[j.Finding]) -> j.Stage:
    """Return the archer's stage: draw, hook and habits."""
    draw = _draw_value(c)
    return j.Stage(
        key="archer",
        number=1,
        name="Archer",
        mark=_mark(c),
        headline=draw,
        detail=_detail(c),
        moved=next(
            (f.sentence.text() for f in findings if f.id == "draw-scatter"),
            None,
        ),
        values=(draw, *_hook_values(c), *_habits(c)),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if c.draw is None:
        return "unset"
    if c.draw.basis == "guess":
        return "estimated"
    return "in_doubt" if c.draw.scatter > SCATTER_TO_MEND else "settled"


def _detail(c: Computed) -> Phrase | None:
    if c.draw is None:
        return None
    said = "on this rig" if c.draw.basis == "rig" else None
    said = said or ("first guess" if c.draw.basis == "guess" else None)
    return phrase("± {pm}" + (f", {said}" if said else ""), pm=mm(c.draw.length.plus_minus))


def _draw_value(c: Computed) -> j.Value:
    label = "Draw length"
    if c.draw is None:
        return j.Value(key="draw_length", label=label, missing="No draw reading yet")
    sources = [reading.recorded.source for reading in c.draw.used]
    return j.Value(
        key="draw_length",
        label=label,
        figure=mm(c.draw.length.value, c.draw.length.plus_minus),
        origin=j.weakest("estimated", *sources) if c.draw.basis == "guess" else j.weakest(*sources),
        entries=tuple(reading.recorded.entry.id for reading in c.draw.used),
        because=reading_lines(c.draw.used),
    )


def _hook_values(c: Computed) -> list[j.Value]:
    recorded = c.setup.archer.hook_depth
    hook = j.Value(
        key="hook_depth",
        label="Hook depth",
        figure=mm(c.hook.value, c.hook.plus_minus),
        origin=recorded.source if recorded else "rule",
        entries=(recorded.entry.id,) if recorded else (),
    )
    depths = [
        _depth_value("back_depth", "Pivot to back", c.setup.bow.back_depth, BACK_DEPTH_IN),
        _depth_value("belly_depth", "Pivot to belly", c.setup.bow.belly_depth, BELLY_DEPTH_IN),
    ]
    if c.at_hook is None:
        return [hook, *depths]
    at_hook = j.Value(
        key="draw_at_hook",
        label="String at the hook",
        figure=mm(c.at_hook.value, c.at_hook.plus_minus),
        origin=j.weakest(hook.origin or "rule", _draw_value(c).origin or "estimated"),
    )
    return [hook, at_hook, *depths]


def _depth_value(
    key: str, label: str, recorded: Recorded[GripDepth] | None, assumed: tuple[float, float]
) -> j.Value:
    depth = grip_depth(recorded, assumed)
    return j.Value(
        key=key,
        label=label,
        figure=mm(depth.value, depth.plus_minus),
        origin=recorded.source if recorded else "rule",
        entries=(recorded.entry.id,) if recorded else (),
    )


def _habits(c: Computed) -> list[j.Value]:
    archer = c.setup.archer
    return [
        choice_value("hold", "Hold", archer.hold),
        choice_value("anchor", "Anchor", archer.anchor),
        choice_value("hand", "Drawing hand", archer.hand),
        choice_value("purpose", "Purpose", archer.purpose),
    ]


def choice_value(key: str, label: str, recorded: Recorded[BaseReading] | None) -> j.Value:
    """Return the value of a choice whose reading has a field named like the key."""
    if recorded is None:
        return j.Value(key=key, label=label, missing="Not told yet")
    choice = str(getattr(recorded.reading, key))
    return j.Value(
        key=key,
        label=label,
        text=words(choice),
        choice=choice,
        origin=recorded.source,
        entries=(recorded.entry.id,),
    )
