"""A second implementation of gated contact and belief, from the text alone: plain loops, no arrays.

Shares nothing with the core but the table of the example. Slow on purpose: what it gives is what
the core has to give.
"""

import math
from collections.abc import Callable, Iterator
from itertools import product

INDEX = [float(i) for i in range(-5, 13)]
T_C = [-2.8, -3.0, -2.8, -2.2, -1.2, 0, 1.4, 2.8, 4.2, 5.3, 5.8, 5.9, 6.2, 6.7, 7.2, 7.3, 6.8, 6.2]
T_F = [-3.7, -3.1, -2.8, -2.2, -1.2, 0, 1.4, 2.8, 4.2, 5.3, 5.8, 0, -5.3, -7.1, -7.5, -6.7, -5.7,
       -4.5]  # fmt: skip
B_C = [
    -0.32,
    -0.33,
    -0.30,
    -0.23,
    -0.12,
    0,
    0.15,
    0.30,
    0.44,
    0.56,
    0.61,
    0.60,
    0.59,
    0.59,
    0.61,
    0.60,
    0.56,
    0.49,
]
B_F = [-.57, -.49, -.30, -.23, -.12, 0, .15, .30, .44, .56, .49, -.20, -.57, -.62, -.58, -.49, -.31,
       0]  # fmt: skip
I = [3.6, 0.1, 0, 0, 0, 0, 0, 0, 0, 0, 0.2, 15.0, 31.2, 41.7, 50.6, 55.3, 57.5, 55.0]  # noqa: E741
WAYS = ([("both", k) for k in (-3, -1.5, 0, 1.5, 3)] + [("tail", k) for k in (-2, 0, 2)]
        + [("always", 0), ("never", 0)])  # fmt: skip
SHARES = {"both": 0.64, "tail": 0.21, "always": 0.05, "never": 0.10}
GAINS, ZEROS, PUSHES = (math.exp(-0.606), 1.0, math.exp(0.606)), (-0.78, 0.0, 0.78), (0.3, 1.0, 1.7)
THIRDS, QUARTERS = (1 / 6, 4 / 6, 1 / 6), (0.25, 0.5, 0.25)
POWER = 0.7
Cell = tuple[float, tuple[str, float], int, int, int, int]
Likely = Callable[[Cell], float]


def at(row: list[float], x: float) -> float:
    x = min(max(x, INDEX[0]), INDEX[-1])
    i = min(int(x - INDEX[0]), len(INDEX) - 2)
    return row[i] + (row[i + 1] - row[i]) * (x - INDEX[i])


def onset() -> float:
    base = min(I[4:7])
    for step in range(221):
        x = 1 + 0.05 * step
        more = abs((at(T_F, x) - at(T_C, x)) - (at(T_F, 0) - at(T_C, 0)))
        if at(I, x) > base + 6 or more > 1.5:
            return x
    return 12.0


ONSET = onset()


def read(clean: list[float], struck: list[float], x: float, way: tuple[str, float], *,
         bare: bool = False) -> float:  # fmt: skip
    kind, k = way

    def gap(where: float) -> float:
        return at(struck, where) - at(clean, where)

    if kind == "never":
        return at(clean, x)
    if kind == "always":
        return at(clean, x) + gap(x)
    if x <= 0:
        return at(clean, x) + gap(x) - gap(0)
    if bare and kind == "tail":
        return at(clean, x)
    gate = 1 / (1 + math.exp(-(x - max(ONSET + k, 1) - 0.75) / 0.375))
    return at(clean, x) + gap(x - k) * gate


def tail(x: float, way: tuple[str, float]) -> float:
    return read(T_C, T_F, x, way)


def bare(x: float, way: tuple[str, float]) -> float:
    return read(B_C, B_F, x, way, bare=True)


def impulse(x: float, way: tuple[str, float]) -> float:
    """In N s."""
    kind, k = way
    if kind == "never":
        return 5e-4
    if kind == "always":
        return max(at(I, x) / 1000, 2e-4)
    base = min(*I[4:7], 2.5)
    if x <= 0:
        return max((base + max(at(I, x) - at(I, 0), 0)) / 1000, 2e-4)
    gate = 1 / (1 + math.exp(-(x - max(ONSET + k, 1) - 0.75) / 0.375))
    return max((base + max(at(I, x - k) - base, 0) * gate) / 1000, 2e-4)


def cells() -> Iterator[Cell]:
    xs = [-8.25 + 0.5 * i for i in range(45)]
    return product(xs, WAYS, range(3), range(3), range(3), range(3))


def prior(centre: float) -> dict[Cell, float]:
    def bell(off: float, sd: float) -> float:
        return math.exp(-0.5 * (off / sd) ** 2) / sd

    def chance(way: tuple[str, float]) -> float:
        of = [math.exp(-0.5 * (k / 2) ** 2) for kind, k in WAYS if kind == way[0]]
        return SHARES[way[0]] * math.exp(-0.5 * (way[1] / 2) ** 2) / sum(of)

    p = {
        cell: (0.9 * bell(cell[0] - centre, 1.8) + 0.1 * bell(cell[0] - centre, 5.0))
        * chance(cell[1]) * THIRDS[cell[2]] * THIRDS[cell[3]] * THIRDS[cell[4]] * QUARTERS[cell[5]]
        for cell in cells()
    }  # fmt: skip
    total = sum(p.values())
    return {cell: value / total for cell, value in p.items()}


def below(z: float) -> float:
    return 0.5 * math.erfc(-z / math.sqrt(2))


def tail_reads(seen: int, push: float = 0.0, *, exact: bool = False) -> Likely:
    """An ordinary archer's three arrows at 2.3 m: class 0 to 6."""
    edges = [-math.inf, -5, -2.5, -1, 1, 2.5, 5, math.inf]
    sd = math.sqrt((1.2**2 + 0.7**2) / 3 + 0.5**2)
    zero = at(T_C, 0.5) - at(T_C, -0.5)

    def likely(cell: Cell) -> float:
        x, way, g, dt, _, h = cell
        moved = x + push * (1 if exact else PUSHES[h])
        mean = GAINS[g] * tail(moved, way) + zero * ZEROS[dt]
        inside = below((edges[seen + 1] - mean) / sd) - below((edges[seen] - mean) / sd)
        return 0.97 * inside + 0.03 / 7

    return likely


def bare_reads(gap: float) -> Likely:
    """An ordinary archer's three bare and three fletched at 18 m."""
    sd = math.sqrt(2 * 0.10**2 / 3 + 0.04**2)
    zero = at(B_C, 0.5) - at(B_C, -0.5)

    def likely(cell: Cell) -> float:
        x, way, g, _, db, _ = cell
        off = gap - GAINS[g] * bare(x, way) - zero * ZEROS[db]
        near = math.exp(-0.5 * (off / sd) ** 2) / sd
        return 0.95 * near + 0.05 * math.exp(-0.5 * (off / (4 * sd)) ** 2) / (4 * sd)

    return likely


def mark_reads(seen: int) -> Likely:
    def likely(cell: Cell) -> float:
        some = 0.05 + 0.75 / (1 + (0.005 / impulse(cell[0], cell[1])) ** 2.5)
        return some if seen else 1 - some

    return likely


def after(
    p: dict[Cell, float], off: float, likely: Likely, null: float
) -> tuple[dict[Cell, float], float]:
    told = {cell: likely(cell) for cell in p}
    evidence = sum(p[cell] * told[cell] for cell in p)
    new = {cell: p[cell] * told[cell] ** POWER for cell in p}
    total = sum(new.values())
    off = off * null / (off * null + (1 - off) * evidence)
    return {cell: value / total for cell, value in new.items()}, off


def chances(p: dict[Cell, float]) -> dict[str, float]:
    found = dict.fromkeys(("tuned", "weak", "stiff", "false_weak"), 0.0)
    for (x, way, *_), chance in p.items():
        if x < -1:
            found["weak"] += chance
        elif x <= 1:
            found["tuned"] += chance
        else:
            found["false_weak" if tail(x, way) < -1 else "stiff"] += chance
    return found
