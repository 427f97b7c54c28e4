"""A number with its doubt."""

from typing import NamedTuple


class Estimate(NamedTuple):
    """A number and its standard deviation, in the unit its user says."""

    value: float
    sd: float

    @property
    def plus_minus(self) -> float:
        return 2 * self.sd
