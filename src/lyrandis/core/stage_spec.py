"""A stage specification: what it adds to the jot line, the rulebook, the rail and the next step.

A spec collects what its folder says; it computes nothing itself.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.drawn import Drawn
from lyrandis.core.estimate import Estimate
from lyrandis.core.hearing.table import Word
from lyrandis.core.look_over import LooksOver
from lyrandis.core.phrase import Figure, Phrase
from lyrandis.core.reading import StageKey
from lyrandis.core.setup import Setup


@dataclass(frozen=True, slots=True)
class Target:
    """A number worth being sure of, which a doubt is a doubt of."""

    key: str
    name: str
    value: Estimate
    figure: Callable[[float], Figure]
    sharp_enough: float
    """A ± below this share of it is not worth another evening."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """One cause of the ± on a target, and the reading that would shrink it."""

    of: Target
    share: float
    """Relative standard deviation it puts on the target now."""
    after: float
    """The same after the reading."""
    step: j.NextStep


@dataclass(frozen=True, slots=True)
class Ask:
    """Something worth telling when nothing is missing, wrong or vague."""

    turn: int
    """Asks of all stages come in this order."""
    step: Callable[[Computed], j.NextStep | None]
    """The step, or None when it is told already."""


class Page(Drawn):
    """Geometry of a stage's own pages, asked for apart from the assessment."""


@dataclass(frozen=True, slots=True)
class StageSpec:
    """One stage of the order of work."""

    key: StageKey
    name: str
    needs: tuple[StageKey, ...]
    """Stages whose numbers it stands on: the backbone of the order of work."""
    words: tuple[Word, ...]
    """What is said of it: the rows of its words."""
    plain_words: str
    """Nouns of the stage that say nothing beside one of its rows."""
    bare: tuple[str, ...]
    """Words that a bare number is offered as first, where it is typed on this stage."""
    rules: tuple[j.Rule, ...]
    judge: Callable[[Computed], list[j.Finding]]
    stage: Callable[[Computed, list[j.Finding]], j.Standing]
    missing: Callable[[Computed], j.NextStep | None]
    page: Callable[[Computed], Page]
    left_changed: Callable[[Computed], j.NextStep | None] = lambda _: None
    """What was changed for a trial and is not put back yet: it goes before all else."""
    under_way: Callable[[Computed], j.NextStep | None] = lambda _: None
    """What is begun and not finished: it goes before what would only be better."""
    settles: frozenset[str] = frozenset()
    """Rules whose findings are what it is under way to settle: they wait for it."""
    waits: Callable[[Computed], bool] = lambda _: False
    """True while something heavy it stands on is still being worked out."""
    doubts: Callable[[Computed], list[Doubt]] = lambda _: []
    unchecked: Callable[[Computed], tuple[j.Unchecked, ...]] = lambda _: ()
    """What nobody has looked at yet, for the answer to: may I shoot this?"""
    looks_over: LooksOver | None = None
    """The part that is looked over here, and how it was last found."""
    asks: tuple[Ask, ...] = ()
    no_readings: Mapping[str, tuple[str, str]] = field(default_factory=dict)
    """Words people offer that nothing is reckoned from: why not, and what to measure instead."""
    applies: Callable[[Setup], bool] = lambda _: True
    """False where a rig has no such stage: a plain bow has no empty one in its rail."""


def plain_ask(
    turn: int,
    wanted: Callable[[Setup], bool],
    title: str,
    tells: str,
    stage: StageKey,
    control: str,
    *,
    assumed: bool = True,
) -> Ask:
    """Return an ask for a plain fact, made while the setup lacks it.

    `assumed` says whether something stands in its place until then.
    """
    in_place = ", and something is assumed in its place" if assumed else ""
    step = j.NextStep(
        title=Phrase(template=title),
        why=Phrase(template=f"It is not told yet{in_place}."),
        tells=Phrase(template=tells),
        minutes=1,
        action=j.Action(label="Enter it", stage=stage, control=control),
    )
    return Ask(turn, lambda c: step if wanted(c.setup) else None)
