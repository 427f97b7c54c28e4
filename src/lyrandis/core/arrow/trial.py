"""Try before cutting: the numbers of an arrow and rig that are not recorded.

Lengths in mm, masses in grains, weights in lbf, spines in pounds of the wood scale.
"""

import math
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from lyrandis.core import judgement as j
from lyrandis.core.arrow.beam import modes_of
from lyrandis.core.arrow.bend import Shot
from lyrandis.core.arrow.closing import changed
from lyrandis.core.arrow.judge_mass import (
    FIT_INDEX,
    floor_severity,
    length_severity,
    mass_is_known,
)
from lyrandis.core.arrow.match import Clearance, Stiffness
from lyrandis.core.arrow.matched import match_of
from lyrandis.core.arrow.shooting import Shooting
from lyrandis.core.arrow.spine_board import shot_of
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.quantities import BraceHeightMm, PartMass, ShaftLength, Window
from lyrandis.core.reading import Frozen

MOST_DRAWN_LBF = 1000.0
"""A weight worked out far past the weighed point may be more than any scale reads."""


class Tried(Frozen):
    """What is tried; what is left out stays as it is on the rig."""

    shaft_length_mm: ShaftLength | None = None
    point_gr: PartMass | None = None
    draw_weight_lbf: Annotated[float, Field(ge=1, le=MOST_DRAWN_LBF)] | None = None
    brace_height_mm: BraceHeightMm | None = None
    window_mm: Window | None = None
    string_added_gr: Annotated[float, Field(ge=-60, le=120)] | None = None


class TrialNumbers(Frozen):
    """What the arrow would be and do."""

    matched_lbf: float
    low_lbf: float
    high_lbf: float
    index: float | None
    word: Stiffness | None
    clearance: Clearance | None
    mass_gr: float
    grains_per_pound: float
    floor_severity: j.Severity
    speed_mps: float
    balance_mm: float
    forward: float
    beyond_pivot_mm: float
    """Shaft ahead of the pivot at full draw; below 0 it falls behind the rest."""
    too_short: j.Severity | None


class TrialRange(Frozen):
    """Ends of a slider, and where it stands on the rig now."""

    low: float
    high: float
    step: float
    now: float


class Trial(Frozen):
    """The numbers as tried beside the numbers now, and the sliders' ranges."""

    tried: TrialNumbers
    now: TrialNumbers
    own_lbf: float | None
    floor_gpp: float
    shaft_length_mm: TrialRange
    point_gr: TrialRange
    draw_weight_lbf: TrialRange
    brace_height_mm: TrialRange
    window_mm: TrialRange
    string_added_gr: TrialRange
    assumed: tuple[str, ...]


def trial(c: Computed, tried: Tried) -> Trial:
    """Return the numbers of what is tried. Nothing is recorded.

    Shot anew, like the rig's own; the draw weight is held while the brace moves. Raises
    `DomainError` until draw and weight are known.

    Source: as the rig's own shot.

    >>> from lyrandis.core.example import rig
    >>> found = trial(rig(), Tried())
    >>> found.now == found.tried
    True
    """
    shooting, _ = shot_of(c)
    pivot = shooting.pivot_mm
    now = _Standing.of(shooting)
    there = _Standing(
        shaft_length_mm=_or(tried.shaft_length_mm, now.shaft_length_mm),
        point_gr=_or(tried.point_gr, now.point_gr),
        draw_weight_lbf=_or(tried.draw_weight_lbf, now.draw_weight_lbf),
        brace_height_mm=_or(tried.brace_height_mm, now.brace_height_mm),
        window_mm=_or(tried.window_mm, now.window_mm),
        string_added_gr=_or(tried.string_added_gr, 0.0),
    )
    return Trial(
        tried=_numbers(c, shooting, now, there, pivot),
        now=_numbers(c, shooting, now, now, pivot),
        own_lbf=shooting.own_lbf,
        floor_gpp=c.arrow.floor.grains_per_pound,
        assumed=shooting.assumed,
        **_ranges(now, pivot),
    )


@dataclass(frozen=True)
class _Standing:
    """Where all sliders stand."""

    shaft_length_mm: float
    point_gr: float
    draw_weight_lbf: float
    brace_height_mm: float
    window_mm: float
    string_added_gr: float = 0.0

    @classmethod
    def of(cls, shooting: Shooting) -> "_Standing":
        given = {part.name: part.mass.value for part in shooting.sheet.parts}
        tip = shooting.shot.beam.tip / KG_PER_GRAIN
        return cls(
            shaft_length_mm=shooting.shot.beam.length * 1000,
            point_gr=given.get("point", tip - given.get("insert", 0.0)),
            draw_weight_lbf=shooting.weight_lbf,
            brace_height_mm=shooting.shot.push.brace * 1000,
            window_mm=shooting.side.window.value,
        )


def _or(asked: float | None, standing: float) -> float:
    return standing if asked is None else asked


def _shot(shooting: Shooting, now: _Standing, there: _Standing) -> Shot:
    shot, weight = shooting.shot, now.draw_weight_lbf
    shot = changed(shot, weight, "length", (there.shaft_length_mm - now.shaft_length_mm) / 1000)
    shot = changed(shot, weight, "point", (there.point_gr - now.point_gr) * KG_PER_GRAIN)
    shot = changed(shot, weight, "weight", there.draw_weight_lbf - weight)
    shot = changed(shot, weight, "brace", (there.brace_height_mm - now.brace_height_mm) / 1000)
    shot = changed(shot, weight, "window", (there.window_mm - now.window_mm) / 1000)
    return changed(shot, weight, "string", there.string_added_gr * KG_PER_GRAIN)


def _numbers(
    c: Computed, shooting: Shooting, now: _Standing, there: _Standing, pivot: float
) -> TrialNumbers:
    same = there == now
    shot = shooting.shot if same else _shot(shooting, now, there)
    match = match_of(shot, shooting.habit, shooting.own_lbf)
    modes = modes_of(shot.beam)
    was = modes_of(shooting.shot.beam).mass
    mass = shooting.sheet.mass_gr + (modes.mass - was) / KG_PER_GRAIN
    gpp = mass / there.draw_weight_lbf
    standing = match_of(shooting.shot, shooting.habit, shooting.own_lbf).shot.exit_speed
    own = shooting.own_lbf
    length = there.shaft_length_mm
    beyond, draw = length - pivot, c.archer.draw
    return TrialNumbers(
        matched_lbf=match.matched,
        low_lbf=match.low,
        high_lbf=match.high,
        index=match.index(own) if own else None,
        word=match.word(own) if own else None,
        clearance=match.shot.clearance,
        mass_gr=mass,
        grains_per_pound=gpp,
        floor_severity=floor_severity(
            Estimate(gpp, 0.0),
            c.arrow.floor,
            known=mass_is_known(c),
            fit=own is not None and match.index(own) >= FIT_INDEX,
        ),
        speed_mps=match.shot.exit_speed * shooting.speed_mps / standing,
        balance_mm=modes.centre * 1000,
        forward=modes.centre * 1000 / length - 0.5,
        beyond_pivot_mm=beyond,
        too_short=length_severity(Estimate(beyond, draw.length.sd), marked=draw.basis == "direct")
        if draw
        else None,
    )


def _ranges(now: _Standing, pivot: float) -> dict[str, TrialRange]:
    """Return the sliders' ranges: what is worth trying, within what can be asked."""
    eighth = MM_PER_IN / 8
    return {
        "shaft_length_mm": _range(
            max(min(pivot - MM_PER_IN / 2, now.shaft_length_mm - 2 * MM_PER_IN), 15 * MM_PER_IN),
            min(now.shaft_length_mm + 3 * MM_PER_IN, 45 * MM_PER_IN), eighth, now.shaft_length_mm,
        ),
        "point_gr": _range(0.0, max(250.0, now.point_gr + 50), 5.0, now.point_gr),
        "draw_weight_lbf": _range(
            max(now.draw_weight_lbf - 15, 5.0), now.draw_weight_lbf + 15, 0.5, now.draw_weight_lbf
        ),
        "brace_height_mm": _range(
            max(now.brace_height_mm - 1.25 * MM_PER_IN, 3 * MM_PER_IN),
            min(now.brace_height_mm + 1.25 * MM_PER_IN, 12 * MM_PER_IN),
            MM_PER_IN / 16, now.brace_height_mm,
        ),
        "window_mm": _range(min(-5.0, now.window_mm), max(14.0, now.window_mm), 0.5, now.window_mm),
        "string_added_gr": _range(0.0, 60.0, 5.0, 0.0),
    }  # fmt: skip


def _range(low: float, high: float, step: float, now: float) -> TrialRange:
    """Return a slider whose steps meet the place it stands at."""
    below = max(math.floor((now - low) / step + 1e-9), 0)
    above = max(math.floor((high - now) / step + 1e-9), 0)
    return TrialRange(low=now - below * step, high=now + above * step, step=step, now=now)
