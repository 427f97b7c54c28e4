"""The archer on the page: draw, hook, grip depths and habits, with the stage's mark."""

from collections.abc import Mapping
from typing import Any

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import BACK_DEPTH_IN, BELLY_DEPTH_IN, Draw, grip_depth
from lyrandis.core.archer.readings import GripDepth
from lyrandis.core.archer.rules import SCATTER_TO_MEND
from lyrandis.core.archer.words import ANCHOR_WORDS, HAND_WORDS, HOLD_WORDS, PURPOSE_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.effective import Recorded
from lyrandis.core.phrase import Phrase, mm, phrase
from lyrandis.core.reading import BaseReading
from lyrandis.core.stage_spec import plain_ask

CAUTIONS = (
    j.Caution(id="light-bow", text="Measure draw on a light bow, never past its maker's limit."),
    j.Caution(id="dry-fire", text="Never let go of a string without an arrow on it."),
    j.Caution(
        id="pain", text="Pain or doubt about a weight: stop, and see a coach or a physician."
    ),
)


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the archer's stage: draw, hook and habits."""
    draw = _draw_value(c)
    return j.Standing(
        mark=_mark(c),
        headline=draw.key,
        detail=_detail(c),
        answer=_answer(c),
        moved=next(
            (f.sentence for f in findings if f.id == "draw-scatter"),
            None,
        ),
        values=(draw, *_hook_values(c), *_habits(c)),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if c.archer.draw is None:
        return "unset"
    if c.archer.draw.basis == "guess":
        return "estimated"
    return "in_doubt" if c.archer.draw.scatter > SCATTER_TO_MEND else "settled"


def _detail(c: Computed) -> Phrase | None:
    if c.archer.draw is None:
        return None
    said = "on this rig" if c.archer.draw.basis == "rig" else None
    said = said or ("first guess" if c.archer.draw.basis == "guess" else None)
    return phrase("± {pm}" + (f", {said}" if said else ""), pm=mm(c.archer.draw.length.plus_minus))


def _answer(c: Computed) -> Phrase:
    draw = c.archer.draw
    if draw is None:
        return phrase("Your draw is not measured yet.")
    figure = mm(draw.length.value, draw.length.plus_minus)
    if draw.basis == "guess":
        return phrase("Your draw is about {draw}, a first guess.", draw=figure)
    count = len(draw.used)
    where = " on this rig" if draw.basis == "rig" else ""
    return phrase(
        f"Your draw is {{draw}}{where}, measured {'once' if count == 1 else f'{count} times'}.",
        draw=figure,
    )


def _draw_value(c: Computed) -> j.Value:
    label = "Draw length"
    draw = c.archer.draw
    if draw is None:
        return j.Value(key="draw_length", label=label, missing="No draw reading yet")
    sources = [reading.recorded.source for reading in draw.used]
    return j.Value(
        key="draw_length",
        label=label,
        figure=mm(draw.length.value, draw.length.plus_minus),
        origin=j.weakest("estimated", *sources) if draw.basis == "guess" else j.weakest(*sources),
        entries=tuple(reading.recorded.entry.id for reading in draw.used),
    )


def _hook_values(c: Computed) -> list[j.Value]:
    recorded = c.setup.archer.hook_depth
    hook = j.Value(
        key="hook_depth",
        label="Hook depth",
        figure=mm(c.archer.hook.value, c.archer.hook.plus_minus),
        origin=recorded.source if recorded else "rule",
        entries=(recorded.entry.id,) if recorded else (),
    )
    depths = [
        _depth_value("back_depth", "Pivot to back", c.setup.archer.back_depth, BACK_DEPTH_IN),
        _depth_value("belly_depth", "Pivot to belly", c.setup.archer.belly_depth, BELLY_DEPTH_IN),
    ]
    if c.archer.at_hook is None:
        return [hook, *depths]
    at_hook = j.Value(
        key="draw_at_hook",
        label="String at the hook",
        figure=mm(c.archer.at_hook.value, c.archer.at_hook.plus_minus),
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
        choice_value("hold", "Hold", archer.hold, HOLD_WORDS),
        choice_value("anchor", "Anchor", archer.anchor, ANCHOR_WORDS),
        choice_value("hand", "Drawing hand", archer.hand, HAND_WORDS),
        choice_value("purpose", "Purpose", archer.purpose, PURPOSE_WORDS),
    ]


def choice_value(
    key: str, label: str, recorded: Recorded[BaseReading] | None, words: Mapping[Any, str]
) -> j.Value:
    """Return the value of a choice whose reading has a field named like the key."""
    if recorded is None:
        return j.Value(key=key, label=label, missing="Not told yet")
    choice = str(getattr(recorded.reading, key))
    return j.Value(
        key=key,
        label=label,
        text=words[choice],
        choice=choice,
        origin=recorded.source,
        entries=(recorded.entry.id,),
    )


MARK_ARROW = j.Action(label="Enter the draw", stage="archer", control="draw")
ENTER_HOOK = j.Action(label="Enter the hook depth", stage="archer", control="hook")
ASKS = (
    plain_ask(
        1,
        lambda setup: setup.archer.hold is None,
        "Say how you hold the string",
        "It gives the hook depth to expect.",
        "archer",
        "hold",
    ),
    plain_ask(
        2,
        lambda setup: setup.archer.hand is None,
        "Say which hand draws",
        "It puts left and right the way you see them.",
        "archer",
        "hand",
    ),
)


def unchecked(c: Computed) -> tuple[j.Unchecked, ...]:
    """Return what of the archer is only a guess, or not told."""
    left: list[j.Unchecked] = []
    draw = c.archer.draw
    if draw is None or draw.basis == "guess" or draw.length.plus_minus > VAGUE_DRAW_MM:
        step = None if draw is None else _mark_draw(draw)
        left.append(j.Unchecked(what=phrase("your draw"), step=step, turn=1))
    if c.setup.archer.hand is None:
        hand = j.Action(label="Say which hand", stage="archer", control="hand")
        step = j.NextStep(
            title=phrase("Say which hand draws"),
            why=phrase("Left and right are said the way you see them."),
            tells=phrase(""),
            minutes=1,
            action=hand,
        )
        left.append(j.Unchecked(what=phrase("which hand draws"), step=step))
    return tuple(left)


VAGUE_DRAW_MM = MM_PER_IN / 2
"""A draw known no better than this is marked on an arrow first of all."""


def _mark_draw(draw: Draw) -> j.NextStep:
    """Ask for a draw marked on an arrow, naming what rests on it."""
    return j.NextStep(
        title=phrase("Mark an arrow at full draw"),
        why=phrase(
            "Your draw is only known to {pm}; the bow's weight, the arrow's length and its spine "
            "rest on it.",
            pm=mm(draw.length.plus_minus),
        ),
        tells=phrase(""),
        minutes=5,
        action=MARK_ARROW,
        aside="draw",
    )


def missing(c: Computed) -> j.NextStep | None:
    """Ask for a draw: nothing else can be worked out without one."""
    if c.archer.draw is not None:
        return None
    return j.NextStep(
        title=phrase("Measure your draw"),
        why=phrase(
            "Everything else follows from it. Draw a light bow with a long arrow and have the "
            "shaft marked above the deepest part of the grip."
        ),
        tells=phrase(
            "It gives your draw length: the mark's distance from the nock, plus {1 3/4 in}."
        ),
        minutes=5,
        action=MARK_ARROW,
        aside="draw",
    )
