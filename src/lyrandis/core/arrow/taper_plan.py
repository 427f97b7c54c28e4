"""Planning a wooden shaft's taper: from parallel to tapered or barrelled, before wood is taken off.

Lengths in mm, spines in pounds of the wood scale, masses in grains. The middle keeps its stiffness;
the ends lose it with the fourth power of the diameter.
"""

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime
from itertools import pairwise
from typing import Literal

import numpy as np

from lyrandis.core.arrow.beam import Beam, modes_of, static_deflection
from lyrandis.core.arrow.bend import PUSHES, bend
from lyrandis.core.arrow.build import BuildSheet
from lyrandis.core.arrow.match import MATCH_DT
from lyrandis.core.arrow.readings import TaperShot
from lyrandis.core.arrow.shooting import Shooting
from lyrandis.core.arrow.spine import M_PER_IN, WOOD_LOAD_N, WOOD_SPAN_M, stiffness
from lyrandis.core.arrow.taper import taper_profile
from lyrandis.core.arrow.words import Flight
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.effective import Recorded
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import Frozen

_SPAN_NEEDED = WOOD_SPAN_M * 1000
TAPER_STEPS = 7
"""Lengths of taper tried on the way from parallel to the planned one and beyond."""
LEAST_DIAMETER_MM = 4.0

TaperKind = Literal["parallel", "tail", "head", "barrelled"]


class TaperAsked(Frozen):
    """Tapers to try: length and diameter at either end; 0 leaves an end parallel."""

    tail_taper_mm: float = 0.0
    tail_diameter_mm: float | None = None
    head_taper_mm: float = 0.0
    head_diameter_mm: float | None = None


class TaperedShaft(Frozen):
    """What one taper makes of the shaft."""

    tail_taper_mm: float
    head_taper_mm: float
    static_spine_lbf: float | None
    """As the spine gauge would read the finished shaft."""
    mass_gr: float
    """Of the finished arrow."""
    balance_mm: float
    forward: float
    """Balance forward of the middle, share of the length."""
    kick_deg: float | None
    frequency_hz: float | None


class TaperTried(Frozen):
    """A taper that was shot, with what is computed for it."""

    entry: str
    shaft: TaperedShaft
    tail_diameter_mm: float | None
    head_diameter_mm: float | None
    flew: Flight
    happened_at: datetime


class TaperPlan(Frozen):
    """The planned taper, the way to it, and what was shot on the way."""

    kind: TaperKind
    parallel: TaperedShaft
    planned: TaperedShaft
    steps: tuple[TaperedShaft, ...]
    """From parallel outward past the plan, in equal steps of length."""
    tried: tuple[TaperTried, ...]
    shaft_lbf: float | None
    """Spine of the parallel shaft."""
    diameter_mm: float
    length_mm: float
    clean_at: float | None
    """Share of the planned lengths at which the computed kick is gone, if it gets there."""
    profile: tuple[tuple[float, ...], ...]
    """Outline of the planned shaft: place [mm], diameter [mm]."""


def plan_taper(
    sheet: BuildSheet,
    shooting: Shooting | None,
    asked: TaperAsked,
    tried: Sequence[Recorded[TaperShot]] = (),
) -> TaperPlan:
    """Return what a taper makes of the shaft: spine, mass, balance, and the tail's kick.

    The kick is the nine-release mean of the clean shot; it needs a rig and a spine. Long
    tapers bring a stiff shaft's kick down; the first inches mainly take mass off the ends, which
    acts stiffer on a far too stiff one. Size good to about a quarter. Raises
    `DomainError` for a taper longer than the shaft or an end thicker than the middle.

    Source: beam integrals, and the rig's own shot.

    >>> from lyrandis.core.example import rig
    >>> c = rig()
    >>> plan_taper(c.arrow.sheet, None, TaperAsked(tail_taper_mm=200, tail_diameter_mm=5.5)).kind
    'tail'
    """
    _check(sheet, asked)
    plans = [_part(asked, share) for share in np.linspace(0.0, 1.5, TAPER_STEPS).tolist()]
    plans = [plan for plan in plans if _fits(sheet, plan)]
    shots = [TaperAsked.model_validate(_asked_of(trial.reading)) for trial in tried]
    every = [TaperAsked(), asked, *plans, *shots]
    beams = [tapered_beam(sheet, plan) for plan in every]
    kicks = _kicks(shooting, beams)
    shafts = [
        _shaft(sheet, plan, beam, kick)
        for plan, beam, kick in zip(every, beams, kicks, strict=True)
    ]
    steps = tuple(shafts[2 : 2 + len(plans)])
    return TaperPlan(
        kind=_kind(asked),
        parallel=shafts[0],
        planned=shafts[1],
        steps=steps,
        tried=tuple(
            TaperTried(
                entry=item.entry.id,
                shaft=shaft,
                tail_diameter_mm=item.reading.tail_diameter_mm,
                head_diameter_mm=item.reading.head_diameter_mm,
                flew=item.reading.flew,
                happened_at=item.entry.happened_at,
            )
            for item, shaft in zip(tried, shafts[2 + len(plans) :], strict=True)
        ),
        shaft_lbf=sheet.spine.value.value if sheet.spine else None,
        diameter_mm=sheet.diameter_mm,
        length_mm=sheet.length_mm,
        clean_at=_clean_at(steps, asked),
        profile=tuple(
            (s * 1000, ratio * sheet.diameter_mm)
            for s, ratio in beams[1].profile or ((0.0, 1.0), (sheet.length_mm / 1000, 1.0))
        ),
    )


def _asked_of(reading: TaperShot) -> dict[str, float | None]:
    return {name: getattr(reading, name) for name in TaperAsked.model_fields}


def _kind(asked: TaperAsked) -> TaperKind:
    if asked.tail_taper_mm and asked.head_taper_mm:
        return "barrelled"
    if asked.tail_taper_mm:
        return "tail"
    return "head" if asked.head_taper_mm else "parallel"


def _check(sheet: BuildSheet, asked: TaperAsked) -> None:
    for end in ("tail", "head"):
        length = getattr(asked, f"{end}_taper_mm")
        across = getattr(asked, f"{end}_diameter_mm")
        if length < 0 or length > sheet.length_mm:
            raise DomainError(
                "taper_too_long",
                f"The {end} taper cannot be longer than the shaft.",
                "Give the length of the tapered part only.",
                f"{end}_taper_mm",
            )
        if not length:
            continue
        if across is None:
            raise DomainError(
                "missing_diameter",
                f"The {end} taper has no diameter at its end.",
                f"Give the diameter at the {end} end.",
                f"{end}_diameter_mm",
            )
        if not LEAST_DIAMETER_MM <= across <= sheet.diameter_mm:
            raise DomainError(
                "not_a_taper",
                f"{across:.1f} mm at the {end} end is no taper of a {sheet.diameter_mm:.1f} mm "
                "shaft.",
                f"Give {LEAST_DIAMETER_MM:g} mm or more, and no more than the middle.",
                f"{end}_diameter_mm",
            )


def _fits(sheet: BuildSheet, plan: TaperAsked) -> bool:
    return plan.tail_taper_mm + plan.head_taper_mm <= sheet.length_mm


def _part(asked: TaperAsked, share: float) -> TaperAsked:
    return asked.model_copy(
        update={
            "tail_taper_mm": asked.tail_taper_mm * share,
            "head_taper_mm": asked.head_taper_mm * share,
        }
    )


def tapered_beam(sheet: BuildSheet, asked: TaperAsked) -> Beam:
    """Return the arrow with this taper, made from the shaft as it is before tapering.

    Source: as `taper_profile`.

    >>> from lyrandis.core.example import rig
    >>> asked = TaperAsked(tail_taper_mm=200, tail_diameter_mm=5.5)
    >>> len(tapered_beam(rig().arrow.sheet, asked).profile)
    3
    """

    def end(name: str) -> tuple[float, float] | None:
        length = getattr(asked, f"{name}_taper_mm")
        across = getattr(asked, f"{name}_diameter_mm")
        return (length, across) if length and across else None

    profile = taper_profile(sheet.length_mm, sheet.diameter_mm, tail=end("tail"), head=end("head"))
    return replace(sheet.beam, profile=profile)


def _kicks(shooting: Shooting | None, beams: list[Beam]) -> list[float | None]:
    if shooting is None or shooting.own_lbf is None:
        return [None] * len(beams)
    shots = tuple(replace(shooting.shot, beam=beam) for beam in beams)
    ei = np.full((len(shots), 1), stiffness(shooting.own_lbf))
    kick = bend(shots, ei, releases=PUSHES, dt=MATCH_DT).kick.mean(axis=1)
    return [float(degree) for degree in np.degrees(kick)]


def _shaft(sheet: BuildSheet, plan: TaperAsked, beam: Beam, kick: float | None) -> TaperedShaft:
    modes = modes_of(beam)
    spine = sheet.spine.value.value if sheet.spine else None
    static = None
    if spine is not None and sheet.length_mm >= _SPAN_NEEDED:
        deflection = static_deflection(beam, stiffness(spine), WOOD_LOAD_N, WOOD_SPAN_M)
        static = 26.0 * M_PER_IN / deflection
    return TaperedShaft(
        tail_taper_mm=plan.tail_taper_mm,
        head_taper_mm=plan.head_taper_mm,
        static_spine_lbf=static,
        mass_gr=modes.mass / KG_PER_GRAIN,
        balance_mm=modes.centre * 1000,
        forward=modes.centre * 1000 / sheet.length_mm - 0.5,
        kick_deg=kick,
        frequency_hz=modes.frequency(stiffness(spine)) if spine is not None else None,
    )


def _clean_at(steps: tuple[TaperedShaft, ...], asked: TaperAsked) -> float | None:
    """Return the share of the planned lengths at which the kick first changes sign."""
    longest = asked.tail_taper_mm or asked.head_taper_mm
    kicks = [step.kick_deg for step in steps]
    if not longest or any(kick is None for kick in kicks):
        return None
    for here, there in pairwise(steps):
        a, b = here.kick_deg or 0.0, there.kick_deg or 0.0
        if a > 0 >= b:
            at = [step.tail_taper_mm or step.head_taper_mm for step in (here, there)]
            return (at[0] + (at[1] - at[0]) * a / (a - b)) / longest
    return None
