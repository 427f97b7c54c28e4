"""What a wrong guess of the distance and a slope cost this rig, for every distance of a course."""

from lyrandis.core.computed import Computed
from lyrandis.core.constants import M_PER_YD
from lyrandis.core.crawls.ranges import Slope, ends_m, miss, on_slope
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.words import DistanceUnit
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError

FROM, TO, STEP = 5, 60, 1
GUESSES = (1, 2, 3, 4, 5, 6, 7, 8, 9, 10)
ANGLES = (30.0, 20.0, 10.0, -10.0, -20.0, -30.0)
SLOPES_EVERY = 5


class GuessRow(Drawn):
    """A guess wrong by so much: where it strikes at each distance."""

    by: float
    """In the archer's unit."""
    nearer_mm: tuple[float | None, ...]
    """The mark stands nearer: + high. None where it would stand behind the archer."""
    further_mm: tuple[float | None, ...]
    """The mark stands further: - low."""


class SlopeRow(Drawn):
    """Slopes at one distance."""

    distance: float
    says: str
    slopes: tuple[Slope, ...]


class RangeBoard(Drawn):
    """What a wrong guess and a slope cost."""

    unit: DistanceUnit
    marks: int
    """Crawls the speed stands on."""
    speed_share: float
    """± of the speed, two standard deviations as a share; misses go with its square."""
    distances: tuple[float, ...]
    """In the archer's unit."""
    guesses: tuple[GuessRow, ...]
    slopes: tuple[SlopeRow, ...]
    hunts: bool


def range_board(c: Computed) -> RangeBoard:
    """Return what a wrong guess and a slope cost.

    Raises `DomainError` where no table can be had yet.
    Source: `miss`, `on_slope`, in the arrow's own speed.

    >>> from lyrandis.core.example import rig
    >>> found = range_board(rig())
    >>> found.distances[0], len(found.guesses), found.guesses[4].nearer_mm[0] is None
    (5.0, 10, True)
    """
    crawls, sight = c.crawls, c.crawls.table.own_sight
    if sight is None or crawls.marks.fit is None:
        raise DomainError(
            "nothing_to_shoot",
            "What a wrong distance costs follows from the arrow's speed, which is not known yet.",
            f"Enter {', and '.join(crawls.basis.lacks) or 'what the crawls need'} first.",
        )
    per = M_PER_YD if crawls.basis.unit == "yd" else 1.0
    last = ends_m(sight, TO * per) / per
    distances = [float(number) for number in range(FROM, int(last + 1e-6) + 1, STEP)]
    guesses = []
    for by in GUESSES:
        result = [miss(sight, distance * per, by * per) for distance in distances]
        guesses.append(
            GuessRow(
                by=by,
                nearer_mm=tuple(item.nearer_mm if item else None for item in result),
                further_mm=tuple(item.further_mm if item else None for item in result),
            )
        )
    slopes = [
        SlopeRow(
            distance=distance,
            says=said_distance(distance * per, crawls.basis.unit),
            slopes=tuple(on_slope(sight, distance * per, way) for way in ANGLES),
        )
        for distance in distances
        if distance % SLOPES_EVERY == 0 and distance >= 10
    ]
    purpose = c.setup.archer.purpose
    return RangeBoard(
        unit=crawls.basis.unit,
        marks=len(crawls.marks.counting),
        speed_share=2 * float(crawls.marks.fit.covariance[0][0]) ** 0.5,
        distances=tuple(distances),
        guesses=tuple(guesses),
        slopes=tuple(slopes),
        hunts=purpose is not None and purpose.reading.purpose == "hunting",
    )
