"""What moves the match, by how much, and which way of closing a gap is the easiest to undo.

Spines in pounds of the wood scale. Every figure is a computed shot, not a slope off a chart.
"""

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from lyrandis.core.arrow.beam import Beam
from lyrandis.core.arrow.bend import Shot
from lyrandis.core.arrow.matched import matches_of
from lyrandis.core.arrow.practice import RigHabit
from lyrandis.core.arrow.stroke import StringPush
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN

MatchChange = Literal["length", "point", "weight", "window", "brace", "string"]

_M_PER_IN = MM_PER_IN / 1000
CHANGE_STEPS: dict[MatchChange, float] = {
    "length": _M_PER_IN,
    "point": 25 * KG_PER_GRAIN,
    "weight": 1.0,
    "window": 0.001,
    "brace": _M_PER_IN / 4,
    "string": 20 * KG_PER_GRAIN,
}
"""One step of each, as an archer counts: 1 in, 25 gr, 1 lb, 1 mm, 1/4 in, 20 gr (SI; weight lb)."""


def changed(shot: Shot, weight_lbf: float, change: MatchChange, amount: float) -> Shot:
    """Return the shot with one thing changed by `amount` (SI; for weight, pounds).

    Draw weight at full draw is held when the brace moves; a longer shaft keeps its make. What hangs
    on the string moves with the nock: its mass goes into K0.

    Source: the same shot with one input changed.

    >>> from lyrandis.core.example import rig
    >>> shot = rig().arrow.shooting.shot
    >>> changed(shot, 46.0, "point", 0.002).beam.tip > shot.beam.tip
    True
    """
    push, beam, side = shot.push, shot.beam, shot.side
    if change == "length":
        return replace(shot, beam=_lengthened(shot, amount))
    if change == "point":
        return replace(shot, beam=replace(beam, tip=max(round(beam.tip + amount, 7), 0.0)))
    if change == "weight":
        factor = 1 + amount / weight_lbf
        force = tuple(round(f * factor, 3) for f in push.force)
        return replace(shot, push=replace(push, force=force))
    if change == "window":
        return replace(shot, side=replace(side, offset=round(side.offset + amount, 6)))
    if change == "brace":
        return replace(shot, push=_braced(push, amount))
    return replace(shot, push=replace(push, kept=round(push.kept + amount, 7)))


def _lengthened(shot: Shot, amount: float) -> Beam:
    beam = shot.beam
    length = round(beam.length + amount, 5)
    profile = tuple(
        (round(s + amount, 5) if s > beam.length / 2 else s, ratio) for s, ratio in beam.profile
    )
    return replace(beam, length=length, profile=profile)


def _braced(push: StringPush, amount: float) -> StringPush:
    return replace(push, brace=round(push.brace + amount, 5))


@dataclass(frozen=True)
class Sensitivity:
    """How far the match moves for one step of one thing [lb]."""

    change: MatchChange
    pounds: float


@dataclass(frozen=True)
class Moves:
    """What moves the match: one step of everything, and the curve over the point's mass."""

    sensitivities: tuple[Sensitivity, ...]
    points: tuple[tuple[float, float], ...]
    """(point and insert [gr], matched spine)."""


TRIED_POINTS_GR = (60.0, 85.0, 110.0, 135.0, 160.0, 185.0, 210.0)


@lru_cache(maxsize=64)
def moves_of(shot: Shot, habit: RigHabit, weight_lbf: float) -> Moves:
    """Return the sensitivities of the match round a set-up, and its curve over point mass.

    Source: differences of computed matches.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> len(moves_of(c.arrow.shooting.shot, c.arrow.shooting.habit, 46.0).sensitivities)
    6
    """
    stepped = tuple(
        changed(shot, weight_lbf, change, step) for change, step in CHANGE_STEPS.items()
    )
    pointed = tuple(
        replace(shot, beam=replace(shot.beam, tip=round(mass * KG_PER_GRAIN, 7)))
        for mass in TRIED_POINTS_GR
    )
    matched, *result = matches_of((shot, *stepped, *pointed), habit)
    sensitivities = tuple(
        Sensitivity(change, after - matched)
        for change, after in zip(CHANGE_STEPS, result, strict=False)
    )
    return Moves(
        sensitivities, tuple(zip(TRIED_POINTS_GR, result[len(CHANGE_STEPS) :], strict=True))
    )
