"""The arrow across its line: flexing round the bow from release until its tail is past the plate.

SI units. y > 0 is the side the arrow lies on (the archer's left for a right-handed finger release);
the bow stands on the other. Batched: one time loop for several set-ups (C), each with several
stiffnesses and releases (columns N). Leapfrog on q (8 modes) and z (5 nodes of the string).
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from lyrandis.core.arrow.beam import MODES, Array, Beam, Modes, modes_of
from lyrandis.core.arrow.stroke import Push, Stroke, stroke_of

STRING_NODES = 5
SPRINGS = STRING_NODES + 1
_PLACES = MODES + STRING_NODES
SERVING_KG = 0.0003
"""Assumption: nocking point and the serving in the arrow's nock."""
GUIDE_PUSH, GUIDE_LENGTH = 0.006, 0.012
GUIDE_STIFFNESS, GUIDE_DAMPING = 2e4, 6.0
PLUNGER_PRELOAD, PLUNGER_STIFFNESS, PLUNGER_DAMPING = 4.0, 3e3, 4.0
DT = 20e-6
READ_AHEAD_M = 6.0
"""The kick is the lean the tail shows this far on."""
RELEASES: tuple[tuple[float, float], ...] = tuple(
    (push, length) for push in (0.8, 1.0, 1.2) for length in (0.8, 1.0, 1.25)
)
"""Nine releases: how far the fingers push the nock aside, and over how long a way."""
NOMINAL: tuple[tuple[float, float], ...] = ((1.0, 1.0),)
NO_FINGERS: tuple[tuple[float, float], ...] = ((0.0, 1.0),)


@dataclass(frozen=True)
class Side:
    """What the arrow leans on as it passes the bow, one-sided."""

    offset: float
    """From the string's line to the arrow's centreline at the plate [m]; + is outward."""
    stiffness: float = 4e4
    damping: float = 8.0
    plunger: bool = False


@dataclass(frozen=True)
class Shot:
    """One set-up: what pushes, the arrow, what it leans on, its damping."""

    push: Push
    beam: Beam
    side: Side
    damping: float
    gravity: float = 0.0


@dataclass(frozen=True)
class Passed:
    """The arrow's state as its tail passes the plate: arrays (C, N), modes (C, MODES, N)."""

    theta: Array
    omega: Array
    aside: Array
    """Speed aside [m/s]."""
    q: Array
    q_t: Array


@dataclass(frozen=True)
class History:
    """Every step of the run: state (T, C, 26, N) as q, z, q_t, z_t; forces (T, C, N) in newtons."""

    state: Array
    plate: Array
    guide: Array


@dataclass(frozen=True)
class Bent:
    """What the shots gave; arrays (C, N)."""

    kick: Array
    """Lean of the tail six metres on, of the rigid motion [rad]; + is stiff (tip outward)."""
    rear_impulse: Array
    """Impulse of the plate on the tail half [N s]."""
    passed: Passed
    strokes: tuple[Stroke, ...]
    modes: tuple[Modes, ...]
    history: History | None


@dataclass(frozen=True)
class _Tables:
    """All that is linear, per step and set-up.

    `law` (T, C, 17, 26) gives from the state the modal forces of push and string, the string's
    accelerations, and y(0), gap + offset, gap rate, y_t(0).
    """

    law: Array
    phi: Array
    active: Array
    rear: Array
    passing: dict[int, list[int]]
    """Set-ups whose tail passes the plate, by step."""
    exit: int
    let_go: int
    """The first step at which no finger pushes any more."""
    dt: Array
    x: Array
    v: Array

    @property
    def steps(self) -> int:
        return max(self.passing) + 1


def bend(
    shots: tuple[Shot, ...],
    stiffness: Array,
    *,
    releases: tuple[tuple[float, float], ...] = RELEASES,
    clean: bool = True,
    dt: float = DT,
    record: bool = False,
    beyond: float = 0.0,
) -> Bent:
    """Shoot every set-up with every stiffness and release.

    `stiffness` is EI of the shaft's middle [N m2], (C, S). Columns run stiffness by release, so
    N = S x releases. With `clean` the plate lets the tail half pass: the kick is then that of the
    flexing alone. With `record` the whole run is kept, and goes on `beyond` [m] past the
    plate. Range: fingers or thumb, plates from 5 mm
    past to 15 mm short of centre. Source: docs/MECHANICS.md, the arrow on the string.
    """
    modes = tuple(modes_of(shot.beam) for shot in shots)
    strokes = _strokes(shots, modes, dt, beyond)
    pushed = [length * GUIDE_LENGTH for push, length in releases if push]
    tables = _tables(shots, modes, strokes, clean, max(pushed, default=0.0))
    march = _March(shots, modes, tables, stiffness, releases, record)
    for step in range(len(tables.x) if record else tables.steps):
        march.step(step)
    return march.done(strokes)


def _strokes(
    shots: tuple[Shot, ...], modes: tuple[Modes, ...], dt: float, beyond: float
) -> tuple[Stroke, ...]:
    """Return the strokes, all with as many steps on the string as the first."""
    first = stroke_of(shots[0].push, modes[0].mass, dt=dt, beyond=beyond)
    rest = (
        stroke_of(shot.push, one.mass, dt=dt, steps=first.exit, beyond=beyond)
        for shot, one in zip(shots[1:], modes[1:], strict=True)
    )
    return (first, *rest)


def _tables(
    shots: tuple[Shot, ...],
    modes: tuple[Modes, ...],
    strokes: tuple[Stroke, ...],
    clean: bool,
    longest: float,
) -> _Tables:
    steps = max(len(stroke.x) for stroke in strokes)
    x, v, a, ky = (
        np.stack([_padded(getattr(s, name), steps) for s in strokes], axis=1)
        for name in ("x", "v", "a", "ky")
    )
    station = np.array([shot.push.draw for shot in shots]) - x
    length = np.array([shot.beam.length for shot in shots])
    ahead = station < length
    behind = length / 2 if clean else 0.0
    law = np.zeros((steps, len(shots), _PLACES + 4, 2 * _PLACES))
    phi = np.zeros((steps, len(shots), MODES))
    for c, (shot, one) in enumerate(zip(shots, modes, strict=True)):
        phi[:, c], slope = one.at(np.clip(station[:, c], 0.0, shot.beam.length))
        law[:, c] = _law(shot, one, a[:, c], ky[:, c])
        law[:, c, _PLACES, :MODES] = law[:, c, _PLACES + 3, _PLACES : _PLACES + MODES] = one.shapes[
            0
        ]
        law[:, c, _PLACES + 1, :MODES] = law[:, c, _PLACES + 2, _PLACES : _PLACES + MODES] = phi[
            :, c
        ]
        law[:, c, _PLACES + 2, :MODES] = -v[:, c, None] * slope
    return _Tables(
        law=law,
        phi=phi[..., None],
        active=(ahead & (station > behind)).astype(float)[..., None],
        rear=((station > 0) & (station <= length / 2)).astype(float)[..., None],
        passing=_by_step(np.argmax(station <= 0, axis=0)),
        exit=strokes[0].exit,
        let_go=int(np.argmax(x.min(axis=1) >= longest)),
        dt=np.array([stroke.dt for stroke in strokes])[:, None, None],
        x=x[..., None],
        v=v[..., None],
    )


def _blank(steps: int, state: tuple[int, ...], shape: tuple[int, ...]) -> History:
    return History(*(np.zeros((steps, *size)) for size in (state, shape, shape)))


def _by_step(passed_at: npt.NDArray[np.intp]) -> dict[int, list[int]]:
    found: dict[int, list[int]] = {}
    for c, step in enumerate(passed_at.tolist()):
        found.setdefault(step, []).append(c)
    return found


def _padded(row: Array, steps: int) -> Array:
    return np.concatenate([row, np.full(steps - len(row), row[-1])])


def _law(shot: Shot, modes: Modes, a: Array, ky: Array) -> Array:
    """Return the linear forces per step: a Kg on the modes, and the string's chain of springs."""
    push = np.zeros((_PLACES + 4, 2 * _PLACES))
    push[:MODES, :MODES] = modes.geometric
    chain = np.zeros_like(push)
    at_nock = modes.shapes[0]
    chain[:MODES, :MODES] = -SPRINGS * np.outer(at_nock, at_nock)
    chain[:MODES, MODES] = SPRINGS * at_nock
    per_mass = SPRINGS / (shot.push.string / SPRINGS)
    for node in range(STRING_NODES):
        row = MODES + node
        chain[row, row] = -2 * per_mass
        if node:
            chain[row, row - 1] = per_mass
        else:
            chain[row, :MODES] = per_mass * at_nock
        if node < STRING_NODES - 1:
            chain[row, row + 1] = per_mass
    law: Array = a[:, None, None] * push + ky[:, None, None] * chain
    return law


class _March:
    """The state, one step at a time."""

    def __init__(
        self,
        shots: tuple[Shot, ...],
        modes: tuple[Modes, ...],
        tables: _Tables,
        stiffness: Array,
        releases: tuple[tuple[float, float], ...],
        record: bool,
    ) -> None:
        self.shots, self.modes, self.tables = shots, modes, tables
        self.count = len(shots)
        self.columns = stiffness.shape[1] * len(releases)
        self._give(stiffness, releases)
        self._fingers(stiffness.shape[1], releases)
        self.state = self._at_rest()
        shape = (self.count, self.columns)
        self.kick, self.impulse = np.zeros(shape), np.zeros(shape)
        self.turned = np.zeros((3, *shape))
        self.end = np.zeros_like(self.state)
        self.history = _blank(len(tables.x), self.state.shape, shape) if record else None

    def _give(self, stiffness: Array, releases: tuple[tuple[float, float], ...]) -> None:
        """Lay out stiffness and damping of the modes, side, and the string's mass at the nock."""
        w2 = np.stack([one.w2 for one in self.modes])[:, :, None]
        w2 = w2 * np.repeat(stiffness, len(releases), axis=1)[:, None, :]
        damping = np.array([shot.damping for shot in self.shots])[:, None, None]
        self.own = np.zeros((self.count, 2 * _PLACES, self.columns))
        self.own[:, :MODES] = -w2
        self.own[:, _PLACES : _PLACES + MODES] = -2 * damping * np.sqrt(w2)
        node = np.array([shot.push.string / 12 + SERVING_KG for shot in self.shots])
        at_nock = np.stack([one.shapes[0] for one in self.modes])
        share = node / (1 + node * (at_nock**2).sum(axis=1))
        self.unload = np.eye(MODES) - share[:, None, None] * (
            at_nock[:, :, None] * at_nock[:, None, :]
        )
        self.at_nock = at_nock[:, :, None]
        sides = [shot.side for shot in self.shots]
        self.offset = np.array([side.offset for side in sides])[:, None]
        self.hard = np.array([side.stiffness for side in sides])[:, None]
        self.dull = np.array([side.damping for side in sides])[:, None]
        self.plunger = np.array([side.plunger for side in sides])[:, None]
        self.any_plunger = bool(self.plunger.any())
        weight = [
            shot.gravity * np.sqrt(one.mass)
            for shot, one in zip(self.shots, self.modes, strict=True)
        ]
        self.weight = np.array(weight)[:, None]
        self.heavy = bool(self.weight.any())

    def _fingers(self, stiffnesses: int, releases: tuple[tuple[float, float], ...]) -> None:
        self.push = np.tile([push for push, _ in releases], stiffnesses) * GUIDE_PUSH
        self.run = np.tile([length for _, length in releases], stiffnesses) * GUIDE_LENGTH

    def _at_rest(self) -> Array:
        """Return the state at full draw: straight, nock on the string's line, touching the side."""
        state = np.zeros((self.count, 2 * _PLACES, self.columns))
        for c, (shot, one) in enumerate(zip(self.shots, self.modes, strict=True)):
            lean = shot.side.offset / shot.push.draw
            state[c, 0] = lean * one.centre * np.sqrt(one.mass)
            state[c, 1] = lean * np.sqrt(one.inertia)
        return state

    def step(self, i: int) -> None:
        t, state = self.tables, self.state
        law = t.law[i] @ state
        bent = self.own * state
        force = law[:, :_PLACES]
        force += bent[:, :_PLACES]
        force += bent[:, _PLACES:]
        plate = self._plate(law[:, _PLACES + 1] - self.offset, law[:, _PLACES + 2])
        plate *= t.active[i]
        modal = force[:, :MODES]
        modal += t.phi[i] * plate[:, None, :]
        if self.heavy:
            modal[:, 0] -= self.weight
        if i <= t.exit:
            if i < t.let_go:
                finger = self._finger(i, law[:, _PLACES], law[:, _PLACES + 3])
                modal += self.at_nock * finger[:, None, :]
                if self.history:
                    self.history.guide[i] = finger
            force[:, :MODES] = self.unload @ modal
        if self.history:
            self.history.state[i] = state
            self.history.plate[i] = plate
        self.impulse += plate * (t.rear[i] * t.dt[:, :, 0])
        for c in t.passing.get(i, ()):
            self._pass(c)
        force *= t.dt
        state[:, _PLACES:] += force
        state[:, :_PLACES] += t.dt * state[:, _PLACES:]

    def _plate(self, gap: Array, gap_rate: Array) -> Array:
        plate: Array = np.maximum(-self.hard * gap - self.dull * gap_rate, 0.0)
        if self.any_plunger:
            soft = np.minimum(-self.hard * gap, PLUNGER_PRELOAD - PLUNGER_STIFFNESS * gap)
            soft = np.where(gap < 0, soft - PLUNGER_DAMPING * gap_rate, 0.0)
            plate = np.where(self.plunger, soft, plate)
        return plate

    def _finger(self, i: int, y: Array, rate: Array) -> Array:
        """Return the force of the fingers, a one-sided guide, on the nock."""
        x, v = self.tables.x[i], self.tables.v[i]
        phase = np.pi * x / (2 * self.run)
        guide = self.push * np.sin(phase) ** 2
        guide_rate = self.push * np.pi / (2 * self.run) * np.sin(2 * phase) * v
        force = GUIDE_STIFFNESS * (guide - y) + GUIDE_DAMPING * (guide_rate - rate)
        pushed: Array = np.where(x < self.run, np.maximum(force, 0.0), 0.0)
        return pushed

    def _pass(self, c: int) -> None:
        """Note how set-up `c` leaves."""
        one, state = self.modes[c], self.state[c]
        speed = float(self.tables.v[-1, c, 0])
        theta = state[1] / np.sqrt(one.inertia)
        omega = state[_PLACES + 1] / np.sqrt(one.inertia)
        aside = state[_PLACES] / np.sqrt(one.mass)
        self.kick[c] = theta - aside / speed + omega * READ_AHEAD_M / speed
        self.turned[:, c] = theta, omega, aside
        self.end[c] = state

    def done(self, strokes: tuple[Stroke, ...]) -> Bent:
        theta, omega, aside = self.turned
        end = Passed(
            theta, omega, aside, self.end[:, :MODES], self.end[:, _PLACES : _PLACES + MODES]
        )
        return Bent(self.kick, self.impulse, end, strokes, self.modes, self.history)
