"""A shaft's taper: its diameter along its length, over that of the middle. Lengths in mm."""

from itertools import pairwise

from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.words import ShaftMaterial

Profile = tuple[tuple[float, float], ...]
"""Knots (place along the shaft [m], diameter over the middle's); () for a parallel shaft."""

DIAMETER_MM: dict[ShaftMaterial | None, float] = {
    "wood": 8.7, "cane": 8.0, "carbon": 7.0, "aluminium": 7.9, "glass": 8.0, None: 8.0,
}  # fmt: skip
"""Assumption: usual diameters where none is given."""


def fill(profile: Profile) -> float:
    """Return the mean of diameter squared over the middle's squared, along the shaft.

    Source: integral of the squared diameter ratio.

    >>> fill(((0.0, 1.0), (1.0, 1.0)))
    1.0
    """
    if not profile:
        return 1.0
    total = 0.0
    for (a, ra), (b, rb) in pairwise(profile):
        total += (b - a) * (ra * ra + ra * rb + rb * rb) / 3
    return total / (profile[-1][0] - profile[0][0])


def taper_profile(
    length_mm: float,
    diameter_mm: float,
    *,
    tail: tuple[float, float] | None,
    head: tuple[float, float] | None,
) -> Profile:
    """Return the profile's knots of a shaft tapered at its ends; () when it stays parallel.

    `tail` and `head` are (length of the taper, diameter at the end) in mm. Tapers that would meet
    are cut short in proportion.

    Source: straight tapers, the trade's way of planing.

    >>> taper_profile(750.0, 8.0, tail=(250.0, 7.0), head=None)
    ((0.0, 0.875), (0.25, 1.0), (0.75, 1.0))
    """
    back = tail[0] if tail else 0.0
    front = head[0] if head else 0.0
    if back + front > length_mm:
        back, front = (x * length_mm / (back + front) for x in (back, front))
    if back + front <= 0:
        return ()
    knots = []
    if tail and back > 0:
        knots.append((0.0, tail[1] / diameter_mm))
    else:
        knots.append((0.0, 1.0))
    if back > 0:
        knots.append((back / 1000, 1.0))
    if front > 0 and length_mm - front > back + 1e-6:
        knots.append(((length_mm - front) / 1000, 1.0))
    knots.append((length_mm / 1000, head[1] / diameter_mm if head and front > 0 else 1.0))
    return tuple((round(s, 5), round(ratio, 5)) for s, ratio in knots)


def profile_of(arrows: ArrowFacts, length_mm: float) -> Profile:
    """Return the profile of the shafts as they are told; () when parallel.

    Source: as `taper_profile`.

    >>> from lyrandis.core.example import setup
    >>> profile_of(setup().arrows, 749.0)
    ()
    """
    middle, _ = arrows.part("shaft_diameter_mm")
    middle = middle or DIAMETER_MM[arrows.material]
    ends = {}
    for end in ("tail", "head"):
        long, _ = arrows.part(f"{end}_taper_mm")
        across, _ = arrows.part(f"{end}_diameter_mm")
        ends[end] = (long, across) if long and across else None
    return taper_profile(length_mm, middle, tail=ends["tail"], head=ends["head"])
