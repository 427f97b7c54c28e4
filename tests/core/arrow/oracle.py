"""A second way to the same shot: the whole finite-element arrow and string, implicit Newmark.

Independent of the modes, of leapfrog, and of the batched tables; it shares only the run along the
line. Slow, and only for tests.
"""

from itertools import pairwise

import numpy as np

from lyrandis.core.arrow.beam import Beam, assemble, modes_of
from lyrandis.core.arrow.bend import (
    GUIDE_DAMPING,
    GUIDE_LENGTH,
    GUIDE_PUSH,
    GUIDE_STIFFNESS,
    READ_AHEAD_M,
    SERVING_KG,
    Release,
    Shot,
)
from lyrandis.core.arrow.stroke import STRING_FACTOR, stroke_of

NODES = 5


def _shape(nodes: np.ndarray, s: float, size: int) -> tuple[np.ndarray, np.ndarray]:  # type: ignore[type-arg]
    """Rows that give y and y_s at s from the nodal values."""
    i = min(max(int(np.searchsorted(nodes, s, side="right")) - 1, 0), len(nodes) - 2)
    h = nodes[i + 1] - nodes[i]
    x = (s - nodes[i]) / h
    y, slope = np.zeros(size), np.zeros(size)
    at = slice(2 * i, 2 * i + 4)
    y[at] = [1 - 3 * x**2 + 2 * x**3, h * (x - 2 * x**2 + x**3), 3 * x**2 - 2 * x**3,
             h * (x**3 - x**2)]  # fmt: skip
    slope[at] = [(6 * x**2 - 6 * x) / h, 1 - 4 * x + 3 * x**2, (6 * x - 6 * x**2) / h,
                 3 * x**2 - 2 * x]  # fmt: skip
    return y, slope


def kick_of(
    shot: Shot, stiffness: float, *, release: Release, clean: bool, dt: float = 10e-6
) -> float:
    """The kick [deg] by Newmark's average acceleration, contacts found by iterating."""
    beam: Beam = shot.beam
    push, run, weight, factor = release
    m = assemble(beam)
    arrow = len(m.mass)
    modes = modes_of(beam, elastic=arrow - 2)
    stroke = stroke_of(shot.push, modes.mass, dt=dt)
    size = arrow + NODES
    mass = np.zeros((size, size))
    mass[:arrow, :arrow] = m.mass
    mass[0, 0] += weight / 12 + SERVING_KG
    for node in range(NODES):
        mass[arrow + node, arrow + node] = weight / 6
    chain = np.zeros((size, size))
    links = [0, *range(arrow, arrow + NODES)]
    for a, b in pairwise(links):
        chain[np.ix_([a, b], [a, b])] += 6 * np.array([[1.0, -1.0], [-1.0, 1.0]])
    chain[links[-1], links[-1]] += 6
    rigid_and_bent = np.empty((arrow, arrow))
    rigid_and_bent[0::2], rigid_and_bent[1::2] = modes.shapes, modes.slopes
    w = np.sqrt(stiffness * np.maximum(modes.w2, 0.0))
    spread = m.mass @ rigid_and_bent
    damping = np.zeros((size, size))
    damping[:arrow, :arrow] = (spread * (2 * shot.damping * w)) @ spread.T

    q = np.zeros(size)
    lean = shot.side.offset / shot.push.draw
    q[0:arrow:2], q[1:arrow:2] = lean * m.nodes, lean
    v, a = np.zeros(size), np.zeros(size)
    last_half = beam.length / 2 if clean else 0.0
    free_mass = mass.copy()
    free_mass[0, 0] -= weight / 12 + SERVING_KG
    for i in range(1, len(stroke.x)):
        x, speed = stroke.x[i], stroke.v[i]
        station = shot.push.draw - x
        on = i <= stroke.exit
        stiff = np.zeros((size, size))
        stiff[:arrow, :arrow] = stiffness * m.stiffness - stroke.a[i] * m.geometric
        ky = factor / STRING_FACTOR * stroke.ky[i] * (2 if i == stroke.exit else 1)
        stiff += (ky if on else 0.0) * chain
        matrix_mass = mass if on else free_mass
        force = np.zeros(size)
        damp = damping.copy()
        y_at, slope_at = _shape(m.nodes, min(max(station, 0.0), beam.length), size)
        touching = fingers = True
        for _ in range(4):
            k, c, f = stiff.copy(), damp.copy(), force.copy()
            if touching and last_half < station < beam.length:
                k += np.outer(
                    y_at, shot.side.stiffness * y_at - shot.side.damping * speed * slope_at
                )
                c += shot.side.damping * np.outer(y_at, y_at)
                f += shot.side.stiffness * shot.side.offset * y_at
            reach = run * GUIDE_LENGTH
            if fingers and on and x < reach and push:
                phase = np.pi * x / (2 * reach)
                guide = push * GUIDE_PUSH * np.sin(phase) ** 2
                rate = push * GUIDE_PUSH * np.pi / (2 * reach) * np.sin(2 * phase) * speed
                k[0, 0] += GUIDE_STIFFNESS
                c[0, 0] += GUIDE_DAMPING
                f[0] += GUIDE_STIFFNESS * guide + GUIDE_DAMPING * rate
            step = stroke.dt
            effective = k + 2 / step * c + 4 / step**2 * matrix_mass
            load = f + matrix_mass @ (4 / step**2 * q + 4 / step * v + a) + c @ (2 / step * q + v)
            new = np.linalg.solve(effective, load)
            new_v = 2 / step * (new - q) - v
            gap = y_at @ new - shot.side.offset
            gap_rate = y_at @ new_v - speed * (slope_at @ new)
            touches = -shot.side.stiffness * gap - shot.side.damping * gap_rate > 0
            pushes = True
            if on and x < reach and push:
                pushes = GUIDE_STIFFNESS * (guide - new[0]) + GUIDE_DAMPING * (rate - new_v[0]) > 0
            if touches == touching and pushes == fingers:
                break
            touching, fingers = bool(touches), bool(pushes)
        a = 4 / step**2 * (new - q) - 4 / step * v - a
        q, v = new, new_v
        if i == stroke.exit:
            a[arrow:] = 0.0
        if station <= 0:
            break
    one = np.zeros(arrow)
    one[0::2] = 1.0
    arm = np.empty(arrow)
    arm[0::2], arm[1::2] = m.nodes - modes.centre, 1.0
    theta = float(arm @ m.mass @ q[:arrow]) / modes.inertia
    omega = float(arm @ m.mass @ v[:arrow]) / modes.inertia
    aside = float(one @ m.mass @ v[:arrow]) / modes.mass
    speed = stroke.exit_speed
    return float(np.degrees(theta - aside / speed + omega * READ_AHEAD_M / speed))
