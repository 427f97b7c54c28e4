"""The shot for the page: the arrow from above round the riser, and its nock from the side.

Lengths in mm, x along the line of the string from the plate's station (- behind it), y outward from
the string's line; deflections in tenths of a mm.
"""

from dataclasses import replace
from functools import lru_cache
from typing import Literal

import numpy as np

from lyrandis.core.arrow.beam import MODES, Modes
from lyrandis.core.arrow.bend import NOMINAL, Bent, Shot, Side, bend
from lyrandis.core.arrow.match import Clearance, Stiffness, clearance_of
from lyrandis.core.arrow.matched import SpineMatch, match_of
from lyrandis.core.arrow.shooting import Shooting
from lyrandis.core.arrow.spine import GRAVITY, STIFFNESS_PER_POUND
from lyrandis.core.drawn import Drawn
from lyrandis.core.numeric import Array, Steps

STATIONS = 25
FRAMES = 56
SHOW_DT = 40e-6
BEYOND_M = 0.18
TOO_WEAK, TOO_STIFF = 0.7, 1.6
"""Shares of the matched spine shown beside it."""
REST_STIFFNESS, REST_DAMPING = 5e3, 4.0
Which = Literal["own", "matched", "weak", "stiff"]


class ShownArrow(Drawn):
    """One arrow through the shot: `aside` holds, per frame, y at every station [0.1 mm]."""

    which: Which
    spine_lbf: float
    word: Stiffness
    aside: tuple[tuple[int, ...], ...]
    plate_n: tuple[float, ...]
    """Force on the plate per frame, rear contact left in."""
    fletching_gap_mm: float
    """Least room between shaft and plate while the fletching passes; below 0 it presses."""
    clearance: Clearance


class SideView(Drawn):
    """The nock's and shaft's height through the shot: trend only, not calibrated."""

    nock_height_mm: float
    """Lift over square it is set at."""
    read: bool
    """False where nobody recorded it and the usual start stands here."""
    aside: tuple[tuple[int, ...], ...]


class ShotDrawing(Drawn):
    """The shot from release to clear of the bow."""

    arrows: tuple[ShownArrow, ...]
    times_ms: tuple[float, ...]
    nock_mm: tuple[float, ...]
    """Place of the nock groove per frame."""
    stations_mm: tuple[float, ...]
    """Stations along the arrow, from the nock groove."""
    exit_frame: int
    """First frame after the string has let go."""
    pass_frame: int
    """First frame with the tail past the plate."""
    draw_mm: float
    brace_mm: float
    face_mm: float
    """Face the arrow lies on, from the string's line; + is outward."""
    diameter_mm: float
    fletching_from_mm: float
    fletching_length_mm: float
    outward_is_left: bool
    plunger: bool
    side: SideView
    assumed: tuple[str, ...]


def shot_drawing(
    shooting: Shooting, *, lift_mm: float, lift_read: bool, outward_is_left: bool
) -> ShotDrawing:
    """Return the drawing of a rig's shot.

    Shows the archer's own shaft, the matched one, and one far on either side.

    Source: the computed shot; frames evenly spread over its time.

    >>> from lyrandis.core.example import rig
    >>> set_at = {"lift_mm": 3.0, "lift_read": True, "outward_is_left": True}
    >>> drawing = shot_drawing(rig().arrow.shooting, **set_at)
    >>> drawing.arrows[0].which
    'own'
    """
    shot = shooting.shot
    own = shooting.own_lbf
    match = match_of(shot, shooting.habit, own)
    spines: list[tuple[Which, float]] = [] if own is None else [("own", own)]
    spines += [
        ("matched", match.matched),
        ("weak", TOO_WEAK * match.matched),
        ("stiff", TOO_STIFF * match.matched),
    ]
    height = lift_mm
    bent = _recorded(shot, tuple(spine for _, spine in spines), height / 1000)
    frames = _frames(bent)
    modes = bent.modes[0]
    stations = np.linspace(0.0, shot.beam.length, STATIONS)
    shapes, _ = modes.at(stations)
    stroke = bent.strokes[0]
    station = shot.push.draw - stroke.x
    return ShotDrawing(
        arrows=tuple(
            _shown(which, spine, match, shot, bent, column, frames, shapes)
            for column, (which, spine) in enumerate(spines)
        ),
        times_ms=tuple(round(float(i * stroke.dt * 1000), 2) for i in frames),
        nock_mm=tuple(round(float(-station[i] * 1000), 1) for i in frames),
        stations_mm=tuple(round(float(s * 1000), 1) for s in stations),
        exit_frame=int(np.argmax(frames >= stroke.exit)),
        pass_frame=int(np.argmax(station[frames] <= 0)),
        draw_mm=shot.push.draw * 1000,
        brace_mm=shot.push.brace * 1000,
        face_mm=round(shot.side.offset * 1000 - shooting.sheet.diameter_mm / 2, 2),
        diameter_mm=shooting.sheet.diameter_mm,
        fletching_from_mm=shot.beam.fletching_from * 1000,
        fletching_length_mm=round(shot.beam.fletching_length * 1000, 1),
        outward_is_left=outward_is_left,
        plunger=shot.side.plunger,
        side=SideView(
            nock_height_mm=height,
            read=lift_read,
            aside=_side_view(bent, height / 1000, shapes, frames),
        ),
        assumed=shooting.assumed,
    )


@lru_cache(maxsize=4)
def _recorded(shot: Shot, spines: tuple[float, ...], height: float) -> Bent:
    """Return the shot from above and, as a second set-up, in the upright plane: rest below,
    gravity, no push of the fingers."""
    rest = Side(offset=-height, stiffness=REST_STIFFNESS, damping=REST_DAMPING)
    upright = replace(shot, side=rest, gravity=GRAVITY, fingers=False)
    return bend(
        (shot, upright),
        STIFFNESS_PER_POUND * np.array([spines, spines]),
        releases=NOMINAL,
        clean=False,
        dt=SHOW_DT,
        record=True,
        beyond=BEYOND_M,
    )


def _frames(bent: Bent) -> Steps:
    """Return the steps to show: evenly spread over time, ends included."""
    return np.linspace(0, len(bent.strokes[0].x) - 1, FRAMES).round().astype(np.intp)


def _tenths(shapes: Array, state: Array) -> tuple[tuple[int, ...], ...]:
    """Return deflections in tenths of a mm for frames x stations."""
    aside = np.rint(state[:, :MODES] @ shapes.T * 1e4).astype(int)
    return tuple(tuple(row) for row in aside.tolist())


def _shown(
    which: Which,
    spine: float,
    match: SpineMatch,
    shot: Shot,
    bent: Bent,
    column: int,
    frames: Steps,
    shapes: Array,
) -> ShownArrow:
    state = bent.history.state[:, 0, :, column]
    plate = bent.history.plate[:, 0, column]
    return ShownArrow(
        which=which,
        spine_lbf=round(spine, 1),
        word=match.word(spine),
        aside=_tenths(shapes, state[frames]),
        plate_n=tuple(round(float(force), 1) for force in plate[frames]),
        fletching_gap_mm=round(_fletching_gap(shot, bent.modes[0], bent, state) * 1000, 1),
        clearance=clearance_of(float(bent.rear_impulse[0, column])),
    )


def _fletching_gap(shot: Shot, modes: Modes, bent: Bent, state: Array) -> float:
    """Return the least room between shaft and plate while the fletching is beside it [m]."""
    station = shot.push.draw - bent.strokes[0].x
    first = shot.beam.fletching_from
    beside = (station >= first) & (station <= first + shot.beam.fletching_length)
    at, _ = modes.at(station[beside])
    return float(np.min(np.sum(at * state[beside, :MODES], axis=1)) - shot.side.offset)


def _side_view(
    bent: Bent, height: float, shapes: Array, frames: Steps
) -> tuple[tuple[int, ...], ...]:
    """Return the own shaft's height above the rest's top through the shot [0.1 mm]."""
    rows = _tenths(shapes, bent.history.state[frames, 1, :, 0])
    lift = round(height * 1e4)
    return tuple(tuple(y + lift for y in row) for row in rows)
