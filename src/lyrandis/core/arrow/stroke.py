"""The arrow along its line: from release until the string lets go, and free after. SI units.

u is how far the nock stands behind its braced place, x how far it has come since release.
"""

from dataclasses import dataclass

import numpy as np

from lyrandis.core.numeric import Array

RETURNED = 0.97
"""Share of the draw force that comes back."""
_GRID = 1201


@dataclass(frozen=True)
class StringPush:
    """What pushes: force on the nock against u/u0, and what moves with the arrow."""

    draw: float
    """Nock groove to the side plate's station at full draw [m]."""
    brace: float
    """Nock groove to the same station at rest [m]."""
    force: tuple[float, ...]
    """Draw force [N] at evenly spaced u/u0 from 0 to 1."""
    string: float
    """Mass of the string [kg]."""
    kept: float
    """K0: mass that still moves with the nock when the string is home, string apart [kg]."""
    limbs: float
    """K1: what the limbs add at full draw, falling with (u/u0)^2 [kg]."""
    bow_length: float

    @property
    def u0(self) -> float:
        return self.draw - self.brace


def simple_push(
    *,
    draw: float,
    brace: float,
    weight: float,
    bend: float,
    string: float,
    bow_length: float,
    kept: float,
    limbs: float,
) -> StringPush:
    """Return a push with F = weight ((1 + c) xi - c xi^2), c = `bend`.

    Assumption: the push's form; tuned in docs/CALIBRATION.md.

    >>> told = {"string": 0.0065, "bow_length": 1.6, "kept": 0.0026, "limbs": 0.0}
    >>> push = simple_push(draw=0.65, brace=0.19, weight=200.0, bend=0.4, **told)
    >>> round(push.force[-1])
    200
    """
    xi = np.linspace(0.0, 1.0, 101)
    force = weight * ((1 + bend) * xi - bend * xi**2)
    return StringPush(draw, brace, tuple(force.tolist()), string, kept, limbs, bow_length)


@dataclass(frozen=True)
class Stroke:
    """The run of one arrow over time steps of equal length; index 0 is release.

    `exit` is the step at which the string lets go, itself still counted with half its stiffness;
    beyond it `a` and `ky` are 0.
    """

    dt: float
    exit: int
    x: Array
    v: Array
    a: Array
    ky: Array
    """Lateral stiffness of the string at the nock [N/m]."""
    exit_speed: float
    time_on_string: float

    def station(self, draw: float) -> Array:
        """Return s_c, the plate's place along the shaft [m]; below 0 the tail is past it.

        Source: geometry.

        >>> from lyrandis.core.example import rig
        >>> shot = rig().arrow.shooting.shot
        >>> float(stroke_of(shot.push, 0.026, dt=4e-5).station(shot.push.draw)[0]) == shot.push.draw
        True
        """
        return draw - self.x


STRING_FACTOR = 2.8
"""Calibrated, and not explained by geometry alone: see docs/MECHANICS.md."""
HALF_STRING = 0.475
"""Length of the string over that of the bow, halved once more below."""


def stroke_of(
    push: StringPush, mass: float, *, dt: float, steps: int | None = None, beyond: float = 0.0
) -> Stroke:
    """Return the run of an arrow of `mass` [kg] until its tail is past the plate.

    Energy is exact: v^2 = 2 W/(m + K(u)), K = K0 + string/3 + K1 (u/u0)^2. Time is the integral of
    du/v over p with x = u0 p^2, where the integrand is smooth; the step is fitted so that the
    string lets go on one. `steps` on the string may be given instead of `dt`; `beyond` [m] lets the
    run go on past the plate.

    Source: work and kinetic energy, v^2 = 2 W/(m + K0 + string/3 + K1 xi^2).

    >>> from lyrandis.core.example import rig
    >>> shot = rig().arrow.shooting.shot
    >>> round(float(stroke_of(shot.push, 0.026, dt=4e-5).v[-1])) > 40
    True
    """
    u0 = push.u0
    p = np.linspace(0.0, 1.0, _GRID)
    u = u0 * (1 - p**2)
    force, work = _force_and_work(push, u)
    moved = mass + push.kept + push.string / 3 + push.limbs * (u / u0) ** 2
    v = np.sqrt(np.maximum(2 * work / moved, 0.0))
    with np.errstate(invalid="ignore", divide="ignore"):
        rate = 2 * u0 * p / v
    rate[0] = 2 * np.sqrt(u0 * moved[0] / (2 * force[0]))
    step = p[1] - p[0]
    time = np.concatenate([[0.0], np.cumsum((rate[1:] + rate[:-1]) / 2 * step)])
    time -= _trapezium_error(rate, step) * p
    total = float(time[-1])
    count = steps or int(np.ceil(total / dt))
    dt = total / count
    t = np.arange(count + 1) * dt
    at = np.interp(t, time, p)
    u_t = u0 * (1 - at**2)
    u_t[-1] = 0.0
    force_t, work_t = _force_and_work(push, u_t)
    moved_t = mass + push.kept + push.string / 3 + push.limbs * (u_t / u0) ** 2
    v_t = np.sqrt(np.maximum(2 * work_t / moved_t, 0.0))
    over_u = (_force_over_u(push, u_t, force_t) + push.limbs * v_t**2 / u0**2) / moved_t
    ky = (
        STRING_FACTOR * (mass + push.string / 3) * over_u * u0 / (HALF_STRING * push.bow_length / 2)
    )
    speed = float(v_t[-1])
    rest = int(np.ceil((push.brace + beyond) / speed / dt)) + 1
    after = np.arange(1, rest + 1) * dt * speed
    gone = np.zeros(rest)
    ky[-1] /= 2
    return Stroke(
        dt=dt,
        exit=count,
        x=np.concatenate([u0 - u_t, u0 + after]),
        v=np.concatenate([v_t, np.full(rest, speed)]),
        a=np.concatenate([over_u * u_t, gone]),
        ky=np.concatenate([ky, gone]),
        exit_speed=speed,
        time_on_string=total,
    )


def _trapezium_error(rate: Array, step: float) -> float:
    """Return what the trapezium rule is off over the whole run (end slopes, Euler-Maclaurin)."""
    first = (-3 * rate[0] + 4 * rate[1] - rate[2]) / (2 * step)
    last = (3 * rate[-1] - 4 * rate[-2] + rate[-3]) / (2 * step)
    return float(step**2 / 12 * (last - first))


def _force_and_work(push: StringPush, u: Array) -> tuple[Array, Array]:
    """Return the force on the nock at u, and the work it has done from full draw to there."""
    grid = np.linspace(0.0, push.u0, len(push.force))
    force = RETURNED * np.asarray(push.force)
    step = grid[1] - grid[0]
    up_to = np.concatenate([[0.0], np.cumsum((force[1:] + force[:-1]) / 2 * step)])
    here = np.interp(u, grid, force)
    i = np.clip((u / step).astype(int), 0, len(grid) - 2)
    done = up_to[i] + (u - grid[i]) * (force[i] + here) / 2
    return here, up_to[-1] - done


def _force_over_u(push: StringPush, u: Array, force: Array) -> Array:
    step = push.u0 / (len(push.force) - 1)
    at_rest = RETURNED * push.force[1] / step
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(u > step, force / u, at_rest)
