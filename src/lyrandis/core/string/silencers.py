"""What silencers weigh in a shot: mass on the string, that moves as its place does."""

USUAL_PLACE = 0.25
"""Assumption: silencers sit a quarter of the string from either loop where nobody measured it."""


def moved_share(place_mm: float | None, length_mm: float) -> float:
    """Return the share of the silencers' mass that moves with the arrow.

    (1 - |2 p|)^2, p their place from the string's middle over its length: nought at the loops,
    one at the nock, a third on the mean of a bare string.

    Assumption: the string moves in proportion to the distance from its loop.

    >>> moved_share(381.0, 1524.0), round(moved_share(None, 1524.0), 2), moved_share(762.0, 1524.0)
    (0.25, 0.25, 1.0)
    """
    from_loop = USUAL_PLACE * length_mm if place_mm is None else place_mm
    # 1 - |2 p| with |p| = 1/2 - place/L
    lift = min(max(2 * from_loop / length_mm, 0.0), 1.0)
    return lift**2
