"""The arrow across its line: flexing round the bow from release until its tail is past the plate.

SI units. y > 0 is the side the arrow lies on (the archer's left for a right-handed finger release);
the bow stands on the other. Batched: one time loop for several set-ups (C), each with several
stiffnesses and releases (columns N). Leapfrog on q (8 modes) and z (5 nodes of the string).

The string's chain across the line has a mass and a stiffness of its own: it rings near the arrow's
modes, and nobody knows either closely. Each release therefore has its own (docs/CALIBRATION.md).
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from lyrandis.core.arrow.beam import MODES, Beam, Modes, modes_of
from lyrandis.core.arrow.stroke import STRING_FACTOR, StringPush, Stroke, stroke_of
from lyrandis.core.constants import GRAINS_PER_GRAM
from lyrandis.core.numeric import Array

STRING_NODES = 5
SPRINGS = STRING_NODES + 1
_PLACES = MODES + STRING_NODES
SERVING_KG = 0.0003
"""Assumption: nocking point and the serving in the arrow's nock."""
GUIDE_PUSH, GUIDE_LENGTH = 0.006, 0.012
GUIDE_STIFFNESS, GUIDE_DAMPING = 2e4, 6.0
PLUNGER_PRELOAD, PLUNGER_STIFFNESS, PLUNGER_DAMPING = 4.0, 3e3, 4.0
BEND_DT = 20e-6
STIFFEST_STEP = 1.0
"""Most (w dt)^2 that leapfrog is given: overtones of shafts no bow shoots are held there."""
READ_AHEAD_M = 6.0
"""The kick is the lean the tail shows this far on."""
_KG_PER_GRAIN = 1 / GRAINS_PER_GRAM / 1000
CHAIN_KG = 120 * _KG_PER_GRAIN
"""Mass of the chain that stands for the string across the line."""


class Release(NamedTuple):
    """One way the string lets go: the fingers' push and its way as shares, and the chain."""

    push: float
    """How far the fingers push the nock aside, over the usual 6 mm."""
    length: float
    """Over how long a way, over the usual 12 mm."""
    chain: float = CHAIN_KG
    """Mass of the string's chain [kg]."""
    factor: float = STRING_FACTOR
    """Lateral stiffness of the string over its geometry."""


_CHAINS_GR = (120.0, 130.0, 145.0)
_FACTORS = (2.6, 3.0, 2.8)
RELEASES: tuple[Release, ...] = tuple(
    Release(push, length, _CHAINS_GR[(i + j) % 3] * _KG_PER_GRAIN, _FACTORS[(i + 2 * j) % 3])
    for i, push in enumerate((0.8, 1.0, 1.2))
    for j, length in enumerate((0.8, 1.0, 1.25))
)
"""Nine releases: an orthogonal array of push, length, chain and factor, each at three levels, every
two of them meeting once. Of the arrays this one comes nearest to shooting all 81 together."""
PUSHES: tuple[Release, ...] = tuple(
    Release(push, length) for push in (0.8, 1.0, 1.2) for length in (0.8, 1.0, 1.25)
)
"""The same pushes and lengths with the nominal string: for kicks and contact, not for the match."""
NOMINAL: tuple[Release, ...] = (Release(1.0, 1.0),)


@dataclass(frozen=True)
class Side:
    """What the arrow leans on as it passes the bow, one-sided."""

    offset: float
    """From the string's line to the arrow's centreline at the plate [m]; + is outward."""
    stiffness: float = 4e4
    damping: float = 8.0
    plunger: bool = False
    doubt: float = 0.0005
    """One standard deviation of the offset [m]; the shot itself does not feel it."""


@dataclass(frozen=True)
class Shot:
    """One set-up: what pushes, the arrow, what it leans on, its damping."""

    push: StringPush
    beam: Beam
    side: Side
    damping: float
    gravity: float = 0.0
    fingers: bool = True
    """False in a plane the fingers do not push in."""


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
class BendHistory:
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
    history: BendHistory
    """Empty unless recorded."""


@dataclass(frozen=True)
class _Tables:
    """All that is linear, per step and set-up, with speeds counted as ways per step (w = v dt).

    `law` (T, C, 13, 26) gives from the state the changes of w by the push, the fingers' and the
    plate's spring and damper on what they touch, gap + offset and its rate, and the nock's place.
    """

    law: Array
    phi: Array
    """Modes at the plate, times dt^2 (T, C, MODES, 1)."""
    acting: Array
    """1 where the plate acts at all (T, C, 1)."""
    touching: list[bool]
    rear_dt: Array
    """Step length while the tail half is beside the plate, else 0 (T, C, 1)."""
    rear: list[bool]
    passing: dict[int, list[int]]
    """Set-ups whose tail passes the plate, by step."""
    taut: list[Array]
    """Stiffness of one spring of the chain by step on the string, times dt^2 (C, 1, 1)."""
    exit: int
    let_go: int
    """The first step at which no finger pushes any more."""
    dt: Array
    x: Array
    v: Array

    @property
    def steps(self) -> int:
        return max(self.passing) + 1


_FINGER, _PLATE, _GAP, _GAP_RATE, _NOCK = range(MODES, MODES + 5)
_ROWS = MODES + 5


def bend(
    shots: tuple[Shot, ...],
    stiffness: Array,
    *,
    releases: tuple[Release, ...] | tuple[tuple[Release, ...], ...] = RELEASES,
    clean: bool | tuple[bool, ...] = True,
    dt: float = BEND_DT,
    record: bool = False,
    beyond: float = 0.0,
) -> Bent:
    """Shoot every set-up with every stiffness and release.

    `stiffness` is EI of the shaft's middle [N m2], (C, S). Columns run stiffness by release, so
    N = S x releases; the releases may be given for each stiffness, as many of each. With `clean`
    (for all, or per stiffness) the plate lets the tail half pass: the kick is then that of the
    flexing alone. With `record` the whole run is kept, and goes on `beyond` [m] past the plate.
    Range: fingers or thumb, plates from 5 mm past to 15 mm short of centre.
    Source: docs/MECHANICS.md, the arrow on the string.

    >>> from lyrandis.core.example import rig
    >>> shot = rig().arrow.shooting.shot
    >>> bent = bend((shot,), np.array([[12.0, 24.0]]), releases=NOMINAL)
    >>> bool(bent.kick[0, 1] > bent.kick[0, 0])
    False
    """
    modes = tuple(modes_of(shot.beam) for shot in shots)
    strokes = _strokes(shots, modes, dt, beyond)
    columns = _columns(releases, stiffness.shape[1])
    each = len(columns) // stiffness.shape[1]
    pushed = [column.length * GUIDE_LENGTH for column in columns if column.push]
    lets_pass = np.broadcast_to(np.asarray(clean), stiffness.shape[1:])
    tables = _tables(shots, modes, strokes, bool(lets_pass.all()), max(pushed, default=0.0))
    struck = np.repeat(~lets_pass, each).astype(float)
    ei = np.repeat(stiffness, each, axis=1)
    march = _March(shots, modes, tables, ei, columns, struck, record)
    for step in range(len(tables.x) if record else tables.steps):
        march.step(step)
    return march.done(strokes)


def _columns(
    releases: tuple[Release, ...] | tuple[tuple[Release, ...], ...], count: int
) -> tuple[Release, ...]:
    """Return the release of every column."""
    if isinstance(releases[0], Release):
        return releases * count
    return tuple(item for each in releases for item in each)


def _strokes(
    shots: tuple[Shot, ...], modes: tuple[Modes, ...], dt: float, beyond: float
) -> tuple[Stroke, ...]:
    """Return the strokes, all with as many steps on the string as the first."""
    first = stroke_of(shots[0].push, modes[0].mass, dt=dt, beyond=beyond)
    rest = (
        stroke_of(shot.push, item.mass, dt=dt, steps=first.exit, beyond=beyond)
        for shot, item in zip(shots[1:], modes[1:], strict=True)
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
    dt = np.array([stroke.dt for stroke in strokes])
    station = np.array([shot.push.draw for shot in shots]) - x
    length = np.array([shot.beam.length for shot in shots])
    behind = length / 2 if clean else 0.0
    law = np.zeros((steps, len(shots), _ROWS, 2 * _PLACES))
    phi = np.zeros((steps, len(shots), MODES))
    for c, (shot, item) in enumerate(zip(shots, modes, strict=True)):
        phi[:, c], slope = item.at(np.clip(station[:, c], 0.0, shot.beam.length))
        law[:, c, :MODES, :MODES] = dt[c] ** 2 * a[:, c, None, None] * item.geometric
        law[:, c, _NOCK, :MODES] = item.shapes[0]
        touch = -v[:, c, None] * slope
        _touches(law[:, c], shot.side, item.shapes[0], phi[:, c], touch, dt[c])
    acting = (station < length) & (station > behind)
    rear = (station > 0) & (station <= length / 2) & acting
    return _Tables(
        law=law,
        phi=(phi * dt[:, None] ** 2)[..., None],
        acting=acting.astype(float)[..., None],
        touching=(acting.sum(axis=1) > 0).tolist(),
        rear_dt=(rear * dt)[..., None],
        rear=(rear.sum(axis=1) > 0).tolist(),
        passing=_by_step(np.argmax(station <= 0, axis=0)),
        taut=list((SPRINGS * ky * dt**2)[: strokes[0].exit + 1, :, None, None]),
        exit=strokes[0].exit,
        let_go=int(np.argmax(x.min(axis=1) >= longest)),
        dt=dt[:, None, None],
        x=x[..., None],
        v=v[..., None],
    )


def _touches(
    law: Array, side: Side, at_nock: Array, at_plate: Array, turn: Array, dt: float
) -> None:
    """Put in what fingers and plate feel: spring times place and damper times speed."""
    speed = slice(_PLACES, _PLACES + MODES)
    law[:, _FINGER, :MODES] = GUIDE_STIFFNESS * at_nock
    law[:, _FINGER, speed] = GUIDE_DAMPING * at_nock / dt
    law[:, _GAP, :MODES] = at_plate
    law[:, _GAP_RATE, :MODES] = turn
    law[:, _GAP_RATE, speed] = at_plate / dt
    law[:, _PLATE] = side.stiffness * law[:, _GAP] + side.damping * law[:, _GAP_RATE]


def _blank(steps: int, state: tuple[int, ...], shape: tuple[int, ...]) -> BendHistory:
    return BendHistory(*(np.zeros((steps, *size)) for size in (state, shape, shape)))


def _by_step(passed_at: npt.NDArray[np.intp]) -> dict[int, list[int]]:
    result: dict[int, list[int]] = {}
    for c, step in enumerate(passed_at.tolist()):
        result.setdefault(step, []).append(c)
    return result


def _padded(row: Array, steps: int) -> Array:
    return np.concatenate([row, np.full(steps - len(row), row[-1])])


class _March:
    """The state, one step at a time; speeds are kept as ways per step."""

    def __init__(
        self,
        shots: tuple[Shot, ...],
        modes: tuple[Modes, ...],
        tables: _Tables,
        stiffness: Array,
        releases: tuple[Release, ...],
        struck: Array,
        record: bool,
    ) -> None:
        self.shots, self.modes, self.tables = shots, modes, tables
        self.count = len(shots)
        self.columns = len(releases)
        self._give(stiffness, releases)
        pushes = np.array([release.push for release in releases]) * GUIDE_PUSH
        self.fingers = np.array([[float(shot.fingers)] for shot in shots])
        self.push = self.fingers * pushes
        self.run = np.array([release.length for release in releases]) * GUIDE_LENGTH
        self.guided, self.within = self._guide()
        shape = (self.count, self.columns)
        self.state = self._at_rest()
        self.place, self.way = self.state[:, :_PLACES], self.state[:, _PLACES:]
        self.bent, self.moving = self.place[:, :MODES], self.way[:, :MODES]
        self.felt = np.zeros((self.count, _ROWS, self.columns))
        self.modal = self.felt[:, :MODES]
        self.part = np.zeros((self.count, MODES, self.columns))
        self.line = np.zeros((self.count, STRING_NODES + 2, self.columns))
        """Places of nock, string nodes and the string's fixed end."""
        self.pull = np.zeros((self.count, SPRINGS, self.columns))
        self.turn = np.zeros((self.count, STRING_NODES, self.columns))
        self.nock = np.zeros((self.count, 1, self.columns))
        self.taut = [taut * self.factor for taut in tables.taut]
        self.plate = np.zeros(shape)
        self.struck = struck
        """0 in the columns whose tail the plate lets pass."""
        self.kick, self.impulse = np.zeros(shape), np.zeros(shape)
        self.turned = np.zeros((3, *shape))
        self.end = np.zeros_like(self.state)
        self.record = record
        self.history = _blank(len(tables.x) if record else 0, self.state.shape, shape)

    def _give(self, stiffness: Array, releases: tuple[Release, ...]) -> None:
        """Lay out stiffness and damping of the modes, side, and the string's mass at the nock."""
        dt = self.tables.dt
        w2 = np.stack([mode.w2 for mode in self.modes])[:, :, None]
        w2 = w2 * stiffness[:, None, :]
        damping = np.array([shot.damping for shot in self.shots])[:, None, None]
        in_steps = np.minimum(w2 * dt**2, STIFFEST_STEP)
        self.spring = -in_steps
        self.damper = -2 * damping * np.sqrt(in_steps)
        chain = np.array([release.chain for release in releases])
        self.factor = np.array([release.factor for release in releases]) / STRING_FACTOR
        self.per_node = SPRINGS / chain
        at_nock = np.stack([mode.shapes[0] for mode in self.modes])
        # the nock's share of the string rides on the arrow: M = 1 + m phi0 phi0^T, by its inverse
        node, square = chain / 12 + SERVING_KG, (at_nock**2).sum(axis=1)[:, None, None]
        self.share = node / (1 + node * square)
        self.kept = 1 - self.share * square
        self.nock_row, self.nock_column = at_nock[:, None, :], at_nock[:, :, None]
        self.at_nock = at_nock[:, :, None] * dt**2
        sides = [shot.side for shot in self.shots]
        self.offset = np.array([side.offset for side in sides])[:, None]
        self.hard = np.array([side.stiffness for side in sides])[:, None]
        self.resting = self.hard * self.offset
        self.plunger = np.array([side.plunger for side in sides])[:, None]
        self.any_plunger = bool(self.plunger.any())
        masses = np.sqrt([mode.mass for mode in self.modes])
        gravity = np.array([shot.gravity for shot in self.shots])
        self.weight = (gravity * masses)[:, None] * dt[:, :, 0] ** 2
        self.heavy = bool(self.weight.any())

    def _at_rest(self) -> Array:
        """Return the state at full draw: straight, nock on the string's line, touching the side."""
        state = np.zeros((self.count, 2 * _PLACES, self.columns))
        for c, (shot, item) in enumerate(zip(self.shots, self.modes, strict=True)):
            lean = shot.side.offset / shot.push.draw
            state[c, 0] = lean * item.centre * np.sqrt(item.mass)
            state[c, 1] = lean * np.sqrt(item.inertia)
        return state

    def step(self, i: int) -> None:
        t = self.tables
        np.matmul(t.law[i], self.state, out=self.felt)
        self.modal += np.multiply(self.spring, self.bent, out=self.part)
        self.modal += np.multiply(self.damper, self.moving, out=self.part)
        if t.touching[i]:
            self._lean(i)
        if self.heavy:
            self.modal[:, 0] -= self.weight
        if i < t.let_go:
            finger = np.maximum(self.guided[i] - self.felt[:, _FINGER], 0.0)
            finger *= self.within[i]
            self.modal += self.at_nock * finger[:, None, :]
            if self.record:
                self.history.guide[i] = finger
        if self.record:
            self.history.state[i] = self.state
            self.history.plate[i] = self.plate if t.touching[i] else 0.0
        for c in t.passing.get(i, ()):
            self._pass(c)
        if i <= t.exit:
            self._string(i)
        self.moving += self.modal
        self.place += self.way

    def _string(self, i: int) -> None:
        """Let the string's chain pull at the nock and at its own nodes, and ride on the arrow."""
        # spring k: 6 ky (y_k - y_k+1); node: z_tt = 6 (pull before - pull behind) / chain
        # modes: f - phi0 pull, less the nock's ride, is f - phi0 (share phi0.f + kept pull)
        line, pull, nock = self.line, self.pull, self.nock
        line[:, :1] = self.felt[:, _NOCK:]
        line[:, 1:-1] = self.place[:, MODES:]
        np.subtract(line[:, :-1], line[:, 1:], out=pull)
        pull *= self.taut[i]
        np.matmul(self.nock_row, self.modal, out=nock)
        nock *= self.share
        nock += self.kept * pull[:, :1]
        self.modal -= np.matmul(self.nock_column, nock, out=self.part)
        np.subtract(pull[:, :-1], pull[:, 1:], out=self.turn)
        self.turn *= self.per_node
        self.way[:, MODES:] += self.turn

    def _lean(self, i: int) -> None:
        """Add the plate's push."""
        t, plate = self.tables, self.plate
        np.subtract(self.resting, self.felt[:, _PLATE], out=plate)
        np.maximum(plate, 0.0, out=plate)
        if self.any_plunger:
            gap, rate = self.felt[:, _GAP] - self.offset, self.felt[:, _GAP_RATE]
            soft = np.minimum(-self.hard * gap, PLUNGER_PRELOAD - PLUNGER_STIFFNESS * gap)
            soft = np.where(gap < 0, soft - PLUNGER_DAMPING * rate, 0.0)
            np.copyto(plate, np.where(self.plunger, soft, plate))
        if self.count > 1:
            plate *= t.acting[i]
        if t.rear[i]:
            plate *= np.where(t.rear_dt[i] > 0, self.struck, 1.0) if self.count > 1 else self.struck
            self.impulse += plate * t.rear_dt[i]
        self.modal += np.multiply(t.phi[i], plate[:, None, :], out=self.part)

    def _guide(self) -> tuple[Array, Array]:
        """Return what the fingers' one-sided guide presses with, and 1 where it still does.

        Per step before the fingers let go, set-up and column.
        """
        until = self.tables.let_go
        x, v = self.tables.x[:until], self.tables.v[:until]
        # guide = push sin^2(pi x / 2 run); its rate = push pi / (2 run) sin(pi x / run) v
        phase = np.pi * x / (2 * self.run)
        guide = self.push * np.sin(phase) ** 2
        guide_rate = self.push * np.pi / (2 * self.run) * np.sin(2 * phase) * v
        pressed = GUIDE_STIFFNESS * guide + GUIDE_DAMPING * guide_rate
        return pressed, (x < self.run) * self.fingers

    def _pass(self, c: int) -> None:
        """Note how set-up `c` leaves."""
        one, state, dt = self.modes[c], self.state[c], float(self.tables.dt[c, 0, 0])
        speed = float(self.tables.v[-1, c, 0])
        theta = state[1] / np.sqrt(one.inertia)
        omega = state[_PLACES + 1] / np.sqrt(one.inertia) / dt
        aside = state[_PLACES] / np.sqrt(one.mass) / dt
        self.kick[c] = theta - aside / speed + omega * READ_AHEAD_M / speed
        self.turned[:, c] = theta, omega, aside
        self.end[c] = state
        self.end[c, _PLACES:] /= dt

    def done(self, strokes: tuple[Stroke, ...]) -> Bent:
        theta, omega, aside = self.turned
        end = Passed(
            theta, omega, aside, self.end[:, :MODES], self.end[:, _PLACES : _PLACES + MODES]
        )
        if self.record:
            self.history.state[:, :, _PLACES:] /= self.tables.dt
        return Bent(self.kick, self.impulse, end, strokes, self.modes, self.history)
