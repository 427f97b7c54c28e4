"""The smallest circle that holds all the places of an end."""

from collections.abc import Sequence
from itertools import combinations

_SAME = 1e-9


def enclosing_radius(places: Sequence[complex]) -> float:
    """Return the radius of the smallest circle that holds all places, x + iy in any one unit.

    Two places span it or three lie on it; all are tried, n^4 for at most some twenty places.
    Source: geometry of the smallest enclosing circle.

    >>> enclosing_radius([0j, 6 + 0j, 3 + 1j]), round(enclosing_radius([0j, 6 + 0j, 3 + 4j]), 3)
    (3.0, 3.125)
    """
    circles = [((a + b) / 2, abs(a - b) / 2) for a, b in combinations(places, 2)]
    circles += [circle for three in combinations(places, 3) if (circle := _round(*three))]
    holds = [
        radius
        for centre, radius in circles
        if all(abs(place - centre) <= radius * (1 + _SAME) + _SAME for place in places)
    ]
    return min(holds, default=0.0)


def _round(a: complex, b: complex, c: complex) -> tuple[complex, float] | None:
    """Return the circle through three places; None where they lie in line."""
    # centre - a = i (b'|c'|^2 - c'|b'|^2) / (2 Im(conj(b') c')), b' = b - a, c' = c - a
    b, c = b - a, c - a
    cross = (b.conjugate() * c).imag
    if abs(cross) < _SAME:
        return None
    centre = 1j * (b * abs(c) ** 2 - c * abs(b) ** 2) / (2 * cross)
    return a + centre, abs(centre)
