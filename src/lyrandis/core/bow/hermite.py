"""A curve through points with known slopes: value, slope and area, as plain floats.

Ours because the page's work asks for single values thousands of times; an array library answers
each in ten times the time and is slow to start.
"""

from bisect import bisect_right
from dataclasses import dataclass


@dataclass(frozen=True)
class Hermite:
    """Piecewise cubic through (x, y) with slopes dy; x rises."""

    x: tuple[float, ...]
    y: tuple[float, ...]
    dy: tuple[float, ...]

    def _place(self, x: float) -> tuple[int, float, float]:
        """Return the piece, the share of the way through it, and its width."""
        piece = min(max(bisect_right(self.x, x) - 1, 0), len(self.x) - 2)
        width = self.x[piece + 1] - self.x[piece]
        return piece, (x - self.x[piece]) / width, width

    def at(self, x: float) -> float:
        """Return the value; beyond either end, along the end's tangent.

        Source: cubic Hermite interpolation.

        >>> Hermite((0.0, 1.0), (0.0, 1.0), (0.0, 2.0)).at(0.5)
        0.25
        """
        if x < self.x[0]:
            return self.y[0] + self.dy[0] * (x - self.x[0])
        if x > self.x[-1]:
            return self.y[-1] + self.dy[-1] * (x - self.x[-1])
        # h00 y0 + h10 h y0' + h01 y1 + h11 h y1', t the share of the way through the piece
        i, t, h = self._place(x)
        return (
            (1 + 2 * t) * (1 - t) ** 2 * self.y[i]
            + t * (1 - t) ** 2 * h * self.dy[i]
            + t * t * (3 - 2 * t) * self.y[i + 1]
            + t * t * (t - 1) * h * self.dy[i + 1]
        )

    def slope(self, x: float) -> float:
        """Return the slope; beyond either end, the end's.

        Source: derivative of cubic Hermite interpolation.

        >>> Hermite((0.0, 1.0), (0.0, 1.0), (0.0, 2.0)).slope(0.5)
        1.0
        """
        i, t, h = self._place(min(max(x, self.x[0]), self.x[-1]))
        return (
            6 * t * (1 - t) * (self.y[i + 1] - self.y[i]) / h
            + (1 - t) * (1 - 3 * t) * self.dy[i]
            + t * (3 * t - 2) * self.dy[i + 1]
        )

    def areas(self) -> tuple[float, ...]:
        """Return the area from the first point up to each point: the cubics' own integral.

        Source: integral of cubic Hermite interpolation.

        >>> Hermite((0.0, 1.0), (0.0, 1.0), (0.0, 2.0)).areas()[1]
        0.33333333333333337
        """
        areas = [0.0]
        for i in range(len(self.x) - 1):
            h = self.x[i + 1] - self.x[i]
            mean = (self.y[i] + self.y[i + 1]) / 2 + h * (self.dy[i] - self.dy[i + 1]) / 12
            areas.append(areas[-1] + h * mean)
        return tuple(areas)

    def integral(self) -> "Hermite":
        """Return the area under this curve as a curve of its own.

        Source: integral of cubic Hermite interpolation.

        >>> Hermite((0.0, 1.0), (2.0, 2.0), (0.0, 0.0)).integral().at(1.0)
        2.0
        """
        return Hermite(self.x, self.areas(), self.y)
