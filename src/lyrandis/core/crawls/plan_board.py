"""Anchors and arrows side by side: where point-on lies, and how deep the near crawls then go."""

from pydantic import BaseModel, ConfigDict

from lyrandis.core.archer.words import ANCHOR_WORDS, Anchor
from lyrandis.core.bow.two_limbs import crawl_draw
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.crawls.plan import DEEPEST_MM, EYE_MM, Need, needs, planned, seen
from lyrandis.core.crawls.sight import Sight
from lyrandis.core.crawls.words import DistanceUnit
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Phrase, gap, gr, mm, mps, phrase

WISHED_M = 50.0
MORE_POINT_GR, LONGER_MM = 50.0, MM_PER_IN
USUAL_GPI = 8.0
"""Assumption: a shaft's mass an inch where it is not told [gr]."""
ANCHORS: tuple[Anchor, ...] = ("cheekbone", "corner", "under_chin")


class _Drawn(BaseModel):
    model_config = ConfigDict(frozen=True, allow_inf_nan=False)


class PlanLine(_Drawn):
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


class PlanNeed(_Drawn):
    """What one change alone would have to be for the wished point-on."""

    lever: str
    says: Phrase


class PlanBoard(_Drawn):
    """Anchors, arrows and what a wished point-on needs."""

    unit: DistanceUnit
    wished_m: float
    nearest_m: float
    anchors: tuple[PlanLine, ...]
    arrows: tuple[PlanLine, ...]
    needs: tuple[PlanNeed, ...]


def plan_board(c: Computed, wished_m: float = WISHED_M) -> PlanBoard:
    """Return anchors and arrows side by side, and what a point-on at `wished_m` needs.

    Raises `DomainError` where no table can be had yet. Another anchor moves the eye by what usual
    faces have between the two; another arrow flies as fast as the bow's mechanics say.

    >>> from lyrandis.core.example import rig
    >>> found = plan_board(rig())
    >>> [line.key for line in found.anchors]
    ['cheekbone', 'corner', 'under_chin']
    >>> found.anchors[0].point_on_m < found.anchors[2].point_on_m
    True
    """
    crawls, sight = c.crawls, c.crawls.own_sight
    if sight is None or crawls.speed is None:
        raise DomainError(
            "nothing_to_shoot",
            "Point-on follows from the arrow's speed, which is not known yet.",
            f"Enter {', and '.join(crawls.lacks) or 'what the crawls need'} first.",
        )
    kappa = crawls.kappa.value
    usual = EYE_MM[crawls.anchor][crawls.hold].value
    anchors = []
    for anchor in ANCHORS:
        eye = sight.eye_mm + EYE_MM[anchor][crawls.hold].value - usual
        anchors.append(
            _line(c, anchor, phrase(ANCHOR_WORDS[anchor].capitalize()),
                  sight._replace(eye_mm=max(eye, 10.0)), now=anchor == crawls.anchor)
        )  # fmt: skip
    return PlanBoard(
        unit=crawls.unit,
        wished_m=wished_m,
        nearest_m=crawls.table_m[0],
        anchors=tuple(anchors),
        arrows=_arrows(c, sight),
        needs=tuple(_need(one) for one in needs(seen(sight, kappa), kappa, wished_m)),
    )


def _arrows(c: Computed, sight: Sight) -> tuple[PlanLine, ...]:
    """Return the present arrow, a longer one, and one with a heavier and a lighter point."""
    found = [_line(c, "now", phrase("As they are"), sight, now=True)]
    thrust, finished = c.bow.thrust, c.arrow.finished
    if thrust is None or finished is None:
        return tuple(found)
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
        found.append(_line(c, key, says, other, now=False))
    return tuple(found)


def _line(c: Computed, key: str, says: Phrase, sight: Sight, *, now: bool) -> PlanLine:
    found = planned(seen(sight, c.crawls.kappa.value), c.crawls.table_m[0])
    margin, length = c.bow.stack_margin_mm, c.setup.bow.length
    left = None
    if margin is not None and length is not None:
        left = margin.value - crawl_draw(length.reading.bow_length_mm, found.deepest_mm)
    return PlanLine(
        key=key,
        says=says,
        now=now,
        point_on_m=found.point_on_m,
        near_mm=found.near_mm,
        deepest_mm=found.deepest_mm,
        too_deep=found.deepest_mm > DEEPEST_MM,
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
