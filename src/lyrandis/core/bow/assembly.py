"""Putting a bow together: the steps in order, for one-piece and take-down bows."""

from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from lyrandis.core.bow.readings import PutTogether
from lyrandis.core.bow.words import ASSEMBLY_WORDS, AssemblyStep, BowMade, Family
from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn
from lyrandis.core.effective import Recorded

ONLY_TAKE_DOWN: frozenset[AssemblyStep] = frozenset({"limbs_seated", "bolts_tight"})
USUALLY_TAKE_DOWN: frozenset[Family] = frozenset({"target_recurve"})


class StepDone(Drawn):
    """A step of putting a bow together, and when it was last done."""

    step: AssemblyStep
    words: str
    how: str
    done_at: datetime | None


class Assembly(Drawn):
    """The list for this bow."""

    made: BowMade
    told: bool
    steps: tuple[StepDone, ...]


def steps_for(made: BowMade) -> tuple[AssemblyStep, ...]:
    """Return the steps in order; a one-piece bow has no limbs to seat.

    Source: practice of the trade.

    >>> len(steps_for("take_down")) - len(steps_for("one_piece"))
    2
    """
    whole: tuple[AssemblyStep, ...] = tuple(ASSEMBLY_WORDS)
    if made == "take_down":
        return whole
    return tuple(step for step in whole if step not in ONLY_TAKE_DOWN)


def made_as(c: Computed) -> tuple[BowMade, Literal["told", "taken"]]:
    """Return how the bow is made: told, else by its kind and by what can be set on it.

    Assumption: bows with limb bolts are taken down, others are in one piece.

    >>> from lyrandis.core.example import rig
    >>> made_as(rig())
    ('one_piece', 'taken')
    """
    told = c.setup.bow.made
    if told is not None:
        return told.reading.made, "told"
    family = c.bow.likeness.shape.family
    adjustable = c.nock.kit == "full" or family in USUALLY_TAKE_DOWN
    return ("take_down" if adjustable else "one_piece"), "taken"


def assembly_of(c: Computed) -> Assembly:
    """Return the list of steps of the bow on the rig, as they were last done."""
    made, known = made_as(c)
    done = _done(c.setup.bow.together)
    return Assembly(
        made=made,
        told=known == "told",
        steps=tuple(
            StepDone(
                step=step,
                words=ASSEMBLY_WORDS[step][0],
                how=ASSEMBLY_WORDS[step][1],
                done_at=done.get(step),
            )
            for step in steps_for(made)
        ),
    )


def _done(told: Sequence[Recorded[PutTogether]]) -> dict[AssemblyStep, datetime]:
    return {step: recorded.entry.happened_at for recorded in told for step in recorded.reading.done}
