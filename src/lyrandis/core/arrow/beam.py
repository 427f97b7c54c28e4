"""The arrow as a flexing beam: free-free modes by finite elements. SI units throughout.

s runs from the arrow's nock groove (0) to the end of the shaft (L); the point is a lump there.
EI(s) = EI_middle * profile^4 and mass per length = mass_middle * profile^2, profile the diameter
over the middle's, linear between its knots: a parallel shaft has profile 1.
"""

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from lyrandis.core.numeric import Array

ELEMENTS = 16
ELASTIC = 6
"""Elastic modes kept beside the two rigid ones."""
MODES = 2 + ELASTIC
_GAUSS_X, _GAUSS_W = np.polynomial.legendre.leggauss(5)
_NEAR = 1e-6
_SHORTEST = 0.003
"""Shortest element [m]."""


@dataclass(frozen=True)
class Beam:
    """An arrow's lengths and masses; its stiffness is given apart."""

    length: float
    mass_per_length: float
    """Of the shaft's middle [kg/m]."""
    tip: float
    """Point and insert [kg], at s = length."""
    nock: float
    """The arrow's own nock [kg], at s = 0."""
    fletching: float = 0.0
    fletching_from: float = 0.0254
    fletching_length: float = 0.1016
    profile: tuple[tuple[float, float], ...] = ()
    """Knots (s [m], diameter over the middle's); empty for a parallel shaft."""

    def diameter_ratio(self, s: Array) -> Array:
        """Return the diameter over the middle's at places s [m] from the nock groove.

        Source: straight tapers between knots.

        >>> from lyrandis.core.example import rig
        >>> float(rig().arrow.sheet.beam.diameter_ratio(np.array([0.3]))[0])
        1.0
        """
        if not self.profile:
            return np.ones_like(s)
        at, ratio = zip(*self.profile, strict=True)
        ratios: Array = np.interp(s, at, ratio)
        return ratios

    def mass_at(self, s: Array) -> Array:
        """Return shaft and fletching mass per length [kg/m] at s.

        Source: mass goes with the diameter's square.

        >>> from lyrandis.core.example import rig
        >>> float(rig().arrow.sheet.beam.mass_at(np.array([0.3]))[0]) > 0
        True
        """
        mass = self.mass_per_length * self.diameter_ratio(s) ** 2
        if self.fletching:
            end = self.fletching_from + self.fletching_length
            on = (s > self.fletching_from) & (s < end)
            mass = mass + on * (self.fletching / self.fletching_length)
        return mass

    def cuts(self) -> list[float]:
        """Return the stations where mass or taper changes, inside the shaft.

        Source: the beam's own parts.

        >>> from lyrandis.core.example import rig
        >>> len(rig().arrow.sheet.beam.cuts())
        2
        """
        stations = [s for s, _ in self.profile]
        if self.fletching:
            stations += [self.fletching_from, self.fletching_from + self.fletching_length]
        return [s for s in stations if _NEAR < s < self.length - _NEAR]


@dataclass(frozen=True)
class Modes:
    """Mass-normalised free-free modes: two rigid, then the elastic ones in order.

    `shapes` and `slopes` hold the modes at the mesh's nodes (nodes x MODES); `w2` is the square of
    the angular frequency per unit of EI (MODES, zero for the rigid ones).
    """

    nodes: Array
    shapes: Array
    slopes: Array
    w2: Array
    geometric: Array
    """Kg = integral(mass ahead * phi_s phi_s): times the acceleration, the push's softening."""
    mass: float
    centre: float
    """Balance point [m] from the nock groove."""
    inertia: float
    """About the balance point [kg m2]."""

    def at(self, s: Array) -> tuple[Array, Array]:
        """Return modes and their slopes at stations s (each len(s) x MODES), inside the shaft.

        Source: Hermite shape functions of the elements.

        >>> from lyrandis.core.example import rig
        >>> shapes, slopes = rig().arrow.sheet.modes.at(np.array([0.0, 0.3]))
        >>> shapes.shape
        (2, 8)
        """
        i = np.clip(np.searchsorted(self.nodes, s, side="right") - 1, 0, len(self.nodes) - 2)
        h = self.nodes[i + 1] - self.nodes[i]
        xi = (s - self.nodes[i]) / h
        value, slope = _hermite(xi, h)
        local = np.stack(
            [self.shapes[i], self.slopes[i], self.shapes[i + 1], self.slopes[i + 1]], axis=1
        )
        return np.einsum("pk,pkm->pm", value, local), np.einsum("pk,pkm->pm", slope, local)

    def frequency(self, stiffness: float) -> float:
        """Return the first natural frequency [Hz], free at both ends.

        Source: omega^2 = lambda EI of the free-free beam.

        >>> from lyrandis.core.example import rig
        >>> modes = rig().arrow.sheet.modes
        >>> round(modes.frequency(20.0) / modes.frequency(5.0), 6)
        2.0
        """
        return float(np.sqrt(stiffness * self.w2[2]) / (2 * np.pi))


def _hermite(xi: Array, h: Array | float) -> tuple[Array, Array]:
    """Return the four Hermite cubics and their slopes in s at xi in [0, 1]."""
    value = np.stack(
        [
            1 - 3 * xi**2 + 2 * xi**3,
            h * (xi - 2 * xi**2 + xi**3),
            3 * xi**2 - 2 * xi**3,
            h * (xi**3 - xi**2),
        ],
        axis=-1,
    )
    slope = np.stack(
        [
            (6 * xi**2 - 6 * xi) / h,
            1 - 4 * xi + 3 * xi**2,
            (6 * xi - 6 * xi**2) / h,
            3 * xi**2 - 2 * xi,
        ],
        axis=-1,
    )
    return value, slope


def _curvature(xi: Array, h: float) -> Array:
    return np.stack(
        [(12 * xi - 6) / h**2, (6 * xi - 4) / h, (6 - 12 * xi) / h**2, (6 * xi - 2) / h], axis=-1
    )


def mesh(beam: Beam, elements: int = ELEMENTS) -> Array:
    """Return the nodes: evenly spaced, and one more wherever mass or taper changes.

    An even node close to a cut gives way to it, and of two cuts close together one stands: a very
    short element would drown the others in rounding.

    Source: finite elements end where mass or taper changes.

    >>> plain = Beam(0.75, 0.012, 0.0086, 0.0006, 0.0016, 0.03, 0.1)
    >>> len(mesh(plain)) >= ELEMENTS
    True
    """
    cuts: list[float] = []
    for cut in sorted(beam.cuts()):
        if _SHORTEST < cut < beam.length - _SHORTEST and (not cuts or cut - cuts[-1] > _SHORTEST):
            cuts.append(cut)
    even = np.linspace(0.0, beam.length, elements + 1)
    apart = [all(abs(s - cut) > _SHORTEST for cut in cuts) for s in even]
    return np.array(sorted({*even[apart].tolist(), *cuts}))


@dataclass(frozen=True)
class Matrices:
    """Finite-element matrices over (y, slope) at every node, free at both ends."""

    nodes: Array
    stiffness: Array
    """For EI_middle = 1."""
    mass: Array
    geometric: Array


def assemble(beam: Beam, elements: int = ELEMENTS) -> Matrices:
    """Return stiffness (for EI_middle = 1), consistent mass, and the push's geometric matrix.

    Source: Hermite beam elements of Euler and Bernoulli, Gauss quadrature.

    >>> from lyrandis.core.example import rig
    >>> beam = rig().arrow.sheet.beam
    >>> len(assemble(beam).mass) == 2 * len(mesh(beam))
    True
    """
    nodes = mesh(beam, elements)
    size = 2 * len(nodes)
    stiff, mass, geometric = (np.zeros((size, size)) for _ in range(3))
    ahead = beam.tip
    for i in range(len(nodes) - 2, -1, -1):
        a, h = nodes[i], nodes[i + 1] - nodes[i]
        xi = (_GAUSS_X + 1) / 2
        w = _GAUSS_W * h / 2
        s = a + xi * h
        value, slope = _hermite(xi, h)
        bend = _curvature(xi, h)
        per_length = beam.mass_at(s)
        stiff_here = beam.diameter_ratio(s) ** 4
        at = slice(2 * i, 2 * i + 4)
        stiff[at, at] += (bend.T * (w * stiff_here)) @ bend
        mass[at, at] += (value.T * (w * per_length)) @ value
        geometric[at, at] += (slope.T * (w * _ahead(beam, s, a + h, ahead))) @ slope
        ahead += float(w @ per_length)
    mass[0, 0] += beam.nock
    mass[-2, -2] += beam.tip
    return Matrices(nodes, stiff, mass, geometric)


def _ahead(beam: Beam, s: Array, end: float, beyond: float) -> Array:
    """Return the mass ahead of stations s inside one element that ends at `end`."""
    half = (end - s) / 2
    inner = s[:, None] + half[:, None] * (_GAUSS_X + 1)
    ahead: Array = beyond + half * (beam.mass_at(inner) @ _GAUSS_W)
    return ahead


@lru_cache(maxsize=256)
def modes_of(beam: Beam, *, elements: int = ELEMENTS, elastic: int = ELASTIC) -> Modes:
    """Return the free-free modes: exact translation and rotation, then `elastic` bending modes.

    Hermite cubic elements, five-point Gauss, generalised symmetric eigenproblem by Cholesky.
    Source: Euler-Bernoulli beam, consistent mass. Uniform: beta L = 4.73004, 7.85320, 10.99561.

    >>> from lyrandis.core.example import rig
    >>> round(modes_of(rig().arrow.sheet.beam).frequency(17.5))
    126
    """
    m = assemble(beam, elements)
    size = len(m.mass)
    one = np.zeros(size)
    one[0::2] = 1.0
    arm = np.empty(size)
    arm[0::2] = m.nodes
    arm[1::2] = 1.0
    total = float(one @ m.mass @ one)
    centre = float(one @ m.mass @ arm) / total
    turn = arm - centre * one
    inertia = float(turn @ m.mass @ turn)
    lower = np.linalg.cholesky(m.mass)
    inverse = np.linalg.inv(lower)
    values, vectors = np.linalg.eigh(inverse @ m.stiffness @ inverse.T)
    bending = inverse.T @ vectors[:, 2 : 2 + elastic]
    bending *= np.where(bending[-2] < 0, -1.0, 1.0)
    basis = np.column_stack([one / np.sqrt(total), turn / np.sqrt(inertia), bending])
    return Modes(
        nodes=m.nodes,
        shapes=basis[0::2],
        slopes=basis[1::2],
        w2=np.concatenate([[0.0, 0.0], values[2 : 2 + elastic]]),
        geometric=basis.T @ m.geometric @ basis,
        mass=total,
        centre=centre,
        inertia=inertia,
    )


def static_deflection(beam: Beam, stiffness: float, load: float, span: float) -> float:
    """Return the deflection [m] at the middle of a span centred on the shaft, load there.

    d = integral(M^2/(W EI)) over the span (unit-load theorem), M = W x/2 from either support.
    Used for tapered shafts; parallel ones give W S^3/(48 EI) exactly.

    Source: unit-load theorem.

    >>> from lyrandis.core.example import rig
    >>> round(static_deflection(rig().arrow.sheet.beam, 15.0, 8.63, 0.7112) * 1000, 2)
    4.31
    """
    start = (beam.length - span) / 2
    stations = [start, start + span / 2, start + span, *beam.cuts()]
    edges = sorted({s for s in stations if start <= s <= start + span})
    total = 0.0
    for a, b in pairwise(edges):
        s = a + (b - a) * (_GAUSS_X20 + 1) / 2
        arm = np.minimum(s - start, start + span - s) / 2
        flexibility = 1 / (stiffness * beam.diameter_ratio(s) ** 4)
        total += float((_GAUSS_W20 * (b - a) / 2) @ (arm**2 * flexibility))
    return load * total


_GAUSS_X20, _GAUSS_W20 = np.polynomial.legendre.leggauss(20)
