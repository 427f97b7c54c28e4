"""Anchors and arrows side by side: where point-on lies, and how deep the near crawls then go."""

from collections.abc import Sequence

from lyrandis.core.archer.words import ANCHOR_WORDS, Anchor
from lyrandis.core.bow.two_limbs import crawl_draw
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.crawls.fit import FitRow
from lyrandis.core.crawls.plan import DEEPEST_MM, EYE_MM, Need, as_seen, needs, planned
from lyrandis.core.crawls.readings import said_distance
from lyrandis.core.crawls.rules import SHORT_BOW_MM
from lyrandis.core.crawls.sight import Sight
from lyrandis.core.crawls.words import DistanceUnit
from lyrandis.core.drawn import Drawn
from lyrandis.core.errors import DomainError
from lyrandis.core.nock.height import HEIGHT_PER_CRAWL, CrawlShare, one_nock, start_lift, two_nocks
from lyrandis.core.numeric import border
from lyrandis.core.phrase import Phrase, gap, gr, mm, mps, phrase, plain

WISHED_M = 50.0
MORE_POINT_GR, LONGER_MM = 50.0, MM_PER_IN
USUAL_GPI = 8.0
"""Assumption: a shaft's mass an inch where it is not told [gr]."""
ANCHORS: tuple[Anchor, ...] = ("cheekbone", "corner", "under_chin")


class PlanLine(Drawn):
    """One way to anchor, or one arrow."""

    key: str
    says: Phrase
    now: bool
    point_on_m: float | None
    near_mm: float
    """Crawl at 10 m."""
    deepest_mm: float
    """Crawl at the table's nearest distance."""
    too_deep: bool
    """Deeper than a hand reaches."""
    margin_mm: float | None
    """Left before stack at the deepest crawl, the bow held square: the worst case."""


class PlanNeed(Drawn):
    """What one change alone would have to be for the wished point-on."""

    lever: str
    says: Phrase


class NockFor(Drawn):
    """A nock height, and the crawls it is set for."""

    crawl_mm: float
    lift_mm: float
    """Where to begin: the hold's start and 0.13 mm more for each mm of crawl."""
    from_says: str
    to_says: str
    """The nearest and the furthest distance shot from it."""


class NockPlanned(Drawn):
    """Which nock height the planned crawls favour, and whether two serve better."""

    one: NockFor
    error_mm: float
    """What is left of the height's error over the table, root mean square."""
    two: tuple[NockFor, ...] | None
    """Low and high; only where the second nock takes a millimetre off that."""
    two_error_mm: float | None
    own_lift_mm: float | None
    fixed: bool
    """True where the archer's own height is found and fixed: it stands."""


class PlanBoard(Drawn):
    """Anchors, arrows, bows and what a wished point-on needs."""

    unit: DistanceUnit
    wished_m: float
    nearest_m: float
    anchors: tuple[PlanLine, ...]
    arrows: tuple[PlanLine, ...]
    bows: tuple[PlanLine, ...]
    """The archer's other rigs, each with its own arrows; this one first."""
    needs: tuple[PlanNeed, ...]
    nocks: NockPlanned | None
    deep_mm: float | None
    """The crawl at which the lower limb reaches the onset of stack, the bow held square."""
    deepest_mm: float
    """The table's deepest."""
    short_bow: bool


def plan_board(
    c: Computed, wished_m: float = WISHED_M, other_rigs: Sequence[Computed] = ()
) -> PlanBoard:
    """Return anchors, arrows and bows side by side, and what a point-on at `wished_m` needs.

    `other_rigs` are the archer's other ones; those without a table are left out.

    Raises `DomainError` where no table can be had yet. Another anchor moves the eye by what usual
    faces have between the two; another arrow flies as fast as the bow's mechanics say.
    Source: `plan` and the crawl's sight.

    >>> from lyrandis.core.example import rig
    >>> found = plan_board(rig())
    >>> [line.key for line in found.anchors]
    ['cheekbone', 'corner', 'under_chin']
    >>> found.anchors[0].point_on_m < found.anchors[2].point_on_m
    True
    """
    crawls, sight = c.crawls, c.crawls.table.own_sight
    if sight is None or crawls.basis.speed is None:
        raise DomainError(
            "nothing_to_shoot",
            "Point-on follows from the arrow's speed, which is not known yet.",
            f"Enter {', and '.join(crawls.basis.lacks) or 'what the crawls need'} first.",
        )
    kappa, length = crawls.basis.kappa.value, c.setup.bow.length
    usual = EYE_MM[crawls.basis.anchor][crawls.basis.hold].value
    anchors = []
    for anchor in ANCHORS:
        eye = sight.eye_mm + EYE_MM[anchor][crawls.basis.hold].value - usual
        anchors.append(
            _line(c, anchor, phrase(ANCHOR_WORDS[anchor].capitalize()),
                  sight._replace(eye_mm=max(eye, 10.0)), now=anchor == crawls.basis.anchor)
        )  # fmt: skip
    return PlanBoard(
        unit=crawls.basis.unit,
        wished_m=wished_m,
        nearest_m=crawls.table.distances_m[0],
        anchors=tuple(anchors),
        arrows=_arrows(c, sight),
        bows=_bows(c, sight, other_rigs),
        nocks=nocks_for(c),
        deep_mm=_deep(c),
        deepest_mm=max((row.crawl_mm for row in crawls.table.rows), default=0.0),
        short_bow=length is not None and length.reading.back_mm <= SHORT_BOW_MM,
        needs=tuple(_need(need) for need in needs(as_seen(sight, kappa), kappa, wished_m)),
    )


def _arrows(c: Computed, sight: Sight) -> tuple[PlanLine, ...]:
    """Return the present arrow, a longer one, and one with a heavier and a lighter point."""
    result = [_line(c, "now", phrase("As they are"), sight, now=True)]
    thrust, finished = c.bow.thrust, c.arrow.finished
    if thrust is None or finished is None:
        return tuple(result)
    gpi = c.setup.arrows.part("shaft_gr_per_in")[0] or USUAL_GPI
    mass = finished.mass.value
    for key, says, longer, heavier in (
        ("longer", phrase("{by} longer", by=mm(LONGER_MM)), LONGER_MM, gpi),
        ("shorter", phrase("{by} shorter", by=mm(LONGER_MM)), -LONGER_MM, -gpi),
        ("heavier", phrase("{by} more point", by=gr(MORE_POINT_GR)), 0.0, MORE_POINT_GR),
        ("lighter", phrase("{by} less point", by=gr(MORE_POINT_GR)), 0.0, -MORE_POINT_GR),
    ):
        if mass + heavier <= mass / 2:
            continue
        share = thrust.speed(mass + heavier) / thrust.speed(mass)
        other = sight._replace(
            speed_mps=sight.speed_mps * share,
            tip_mm=sight.tip_mm + longer,
            drag=sight.drag * mass / (mass + heavier),
        )
        result.append(_line(c, key, says, other, now=False))
    return tuple(result)


def _bows(c: Computed, sight: Sight, others: Sequence[Computed]) -> tuple[PlanLine, ...]:
    """Return the archer's rigs, each by its own bow, arrows and marks."""
    result = [
        _line(other, other.setup.rig or str(number), _name(other), own, now=False)
        for number, other in enumerate(others)
        for own in (other.crawls.table.own_sight,)
        if own is not None
    ]
    if not result:
        return ()
    return (_line(c, "now", _name(c), sight, now=True), *result)


def _name(c: Computed) -> Phrase:
    return Phrase(plain(c.setup.name or "A rig without a name"))


def nocks_for(c: Computed) -> NockPlanned | None:
    """Return which nock height the table's crawls favour, each of its distances shot as often.

    Source: `one_nock`, `two_nocks`, `start_lift`; a height that is found and fixed stands.

    >>> from lyrandis.core.example import rig
    >>> nocks_for(rig()).one.from_says
    '5 m'
    """
    rows = [row for row in c.crawls.table.rows if 0 <= row.crawl_mm <= DEEPEST_MM]
    if not rows:
        return None
    nock = c.nock.arrow_nock.value
    # an arrow's width more is the most a crawl asks for
    shares = [CrawlShare(min(row.crawl_mm, nock / HEIGHT_PER_CRAWL), 1.0) for row in rows]
    one, two = one_nock(shares), two_nocks(shares)

    def at(crawl_mm: float, of: Sequence[FitRow]) -> NockFor:
        return NockFor(
            crawl_mm=crawl_mm,
            lift_mm=start_lift(c.crawls.basis.hold, crawl_mm, nock).lift_mm,
            from_says=said_distance(min(row.distance_m for row in of), c.crawls.basis.unit),
            to_says=said_distance(max(row.distance_m for row in of), c.crawls.basis.unit),
        )

    both = None
    if two is not None:
        low, high = two.crawls_mm
        near_low = [row for row in rows if row.crawl_mm - low <= high - row.crawl_mm]
        near_high = [row for row in rows if row not in near_low]
        both = (at(low, near_low), at(high, near_high))
    return NockPlanned(
        one=at(one.crawls_mm[0], rows),
        error_mm=one.error_mm,
        two=both,
        two_error_mm=two.error_mm if two else None,
        own_lift_mm=c.nock.lift.value if c.nock.lift else None,
        fixed=c.nock.fixed,
    )


def _deep(c: Computed) -> float | None:
    """Return the crawl that uses up the margin before stack, to a hand's reach at most."""
    margin, length = c.bow.stack_margin_mm, c.setup.bow.length
    if margin is None or length is None:
        return None
    bow_mm = length.reading.back_mm
    if margin.value <= 0:
        return 0.0
    if crawl_draw(bow_mm, DEEPEST_MM) <= margin.value:
        return None
    spare = margin.value
    return border(lambda deep: crawl_draw(bow_mm, deep) < spare, 0.0, DEEPEST_MM, steps=20)[1]


def _line(c: Computed, key: str, says: Phrase, sight: Sight, *, now: bool) -> PlanLine:
    result = planned(as_seen(sight, c.crawls.basis.kappa.value), c.crawls.table.distances_m[0])
    margin, length = c.bow.stack_margin_mm, c.setup.bow.length
    left = None
    if margin is not None and length is not None:
        left = margin.value - crawl_draw(length.reading.back_mm, result.deepest_mm)
    return PlanLine(
        key=key,
        says=says,
        now=now,
        point_on_m=result.point_on_m,
        near_mm=result.near_mm,
        deepest_mm=result.deepest_mm,
        too_deep=result.deepest_mm > DEEPEST_MM,
        margin_mm=left,
    )


def _need(one: Need) -> PlanNeed:
    way = "more" if one.by > 0 else "less"
    if one.lever == "eye":
        higher = "over" if one.by > 0 else "under"
        return PlanNeed(lever="eye", says=phrase(
            f"An eye {{eye}} over the nock, {{by}} {higher} yours: another anchor.",
            eye=gap(one.value), by=gap(abs(one.by))))  # fmt: skip
    if one.lever == "speed":
        return PlanNeed(lever="speed", says=phrase(
            f"An arrow at {{speed}}, {{by}} {way}.", speed=mps(one.value),
            by=mps(abs(one.by))))  # fmt: skip
    return PlanNeed(lever="tip", says=phrase(
        f"An arrow {{by}} {'longer' if one.by > 0 else 'shorter'} to its point.",
        by=mm(abs(one.by))))  # fmt: skip
