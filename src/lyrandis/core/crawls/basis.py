"""What is known of crawls before any mark: how it is held and counted, eye, speed, prior."""

import math
from dataclasses import dataclass

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import ArrowMass
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.constants import TRADE_OFFSET_MM
from lyrandis.core.crawls.facts import CrawlFacts
from lyrandis.core.crawls.fit import Prior
from lyrandis.core.crawls.notation import FINGER
from lyrandis.core.crawls.plan import (
    EYE_MM,
    KAPPA,
    KAPPA_SD,
    LAUNCH_SD,
    MIRROR_SD_MM,
    drag_of,
)
from lyrandis.core.crawls.readings import CrawlMark, TabStitches
from lyrandis.core.crawls.words import SURE_SD_MM, DistanceUnit, Notation
from lyrandis.core.effective import Recorded, when
from lyrandis.core.estimate import Estimate

POINT_AHEAD = Estimate(22.0, 6.0)
"""Assumption: how far a point stands out of its shaft, where nobody measured to its end."""


@dataclass(frozen=True)
class CrawlBasis:
    """What holds of one set of arrows, held one way, before any mark is looked at."""

    facts: CrawlFacts
    arrow_set: str | None
    arrows: str | None
    """What the set is called."""
    walks: bool
    """True for an archer who walks the string, or has begun to."""
    hold: Hold
    anchor: Anchor
    notation: Notation
    unit: DistanceUnit
    """Of the distances, as the archer tells them."""
    finger: Estimate
    stitch: Estimate | None
    repeat_mm: float
    """One standard deviation of a crawl read off the tab, as told or as usual."""
    told: bool
    """True where the archer's own repeatability is told."""
    kappa: Estimate
    """How far the nock rises per mm of crawl: the string's slope at full draw."""
    eye: Estimate
    """Eye over the nock without a crawl: as measured, else by anchor and hold."""
    speed: Estimate | None
    """The arrow's speed by the bow's mechanics and the chronograph."""
    tip_mm: float | None
    """Nock groove to the point's very end."""
    lacks: tuple[str, ...]
    """What a table cannot do without."""
    rig_prior: Prior | None
    """What the rig and the archer's face alone say of the table."""


def basis_of(
    facts: CrawlFacts,
    *,
    archer_facts: ArcherFacts,
    archer: ArcherNumbers,
    bow: BowNumbers,
    arrows: ArrowFacts,
    finished: ArrowMass | None,
    usual_mm: float,
    arrow_set: str | None,
) -> CrawlBasis:
    """Return what is known of crawls with some arrows before any mark.

    `usual_mm` is the crawl the archer usually shoots with. Source: `prior_of_rig`.

    >>> from lyrandis.core.example import WALKED, rig
    >>> basis = rig(WALKED).crawls.basis
    >>> basis.hold, basis.unit, round(basis.kappa.value, 2), basis.lacks
    ('three_under', 'm', 0.89, ())
    """
    hold = archer_facts.hold.reading.hold if archer_facts.hold else "three_under"
    anchor = archer_facts.anchor.reading.anchor if archer_facts.anchor else "corner"
    habit, stitch = facts.habit, stitch_of(facts.tab)
    kappa = _kappa(archer, bow)
    eye = EYE_MM[anchor][hold]
    if facts.eye is not None and facts.eye.reading.anchor in (None, anchor):
        eye = Estimate(facts.eye.reading.eye_mm, MIRROR_SD_MM)
    speed = None
    if bow.thrust is not None and finished is not None:
        speed = bow.thrust.speed_estimate(finished.mass.value)
    tip_mm = _tip_mm(facts, arrows)
    lacks = []
    if speed is None:
        lacks.append("a draw length, a bow's weight and an arrow's mass")
    if tip_mm is None:
        lacks.append("the arrow's length")
    drag = drag_of(finished.mass.value if finished else None, arrows.part("shaft_diameter_mm")[0])
    return CrawlBasis(
        facts=facts,
        arrow_set=arrow_set,
        arrows=arrows.name,
        walks=usual_mm > 0 or bool(facts.marks or facts.elsewhere),
        hold=hold,
        anchor=anchor,
        notation=habit.notation if habit and habit.notation else ("stitches" if stitch else "mm"),
        unit=habit.unit if habit and habit.unit else _last_unit(facts),
        finger=Estimate(facts.finger.reading.width_mm, 0.3) if facts.finger else FINGER,
        stitch=stitch,
        repeat_mm=habit.repeat_mm if habit and habit.repeat_mm is not None else _USUAL_REPEAT_MM,
        told=habit is not None and habit.repeat_mm is not None,
        kappa=kappa,
        eye=eye,
        speed=speed,
        tip_mm=tip_mm,
        lacks=tuple(lacks),
        rig_prior=prior_of_rig(speed, eye, kappa, drag, tip_mm),
    )


_USUAL_REPEAT_MM = SURE_SD_MM["ordinary"]


def prior_of_rig(
    speed: Estimate | None, eye: Estimate, kappa: Estimate, drag: Estimate, tip_mm: float | None
) -> Prior | None:
    """Return what rig and face say of the table, in seen quantities; None while a part is missing.

    v' = v sqrt(kappa), h' = h/kappa; relative variances add.
    Source: definition of the seen quantities (`plan.seen`).

    >>> eye, kappa, drag = Estimate(68.0, 10.0), Estimate(0.9, 0.02), Estimate(0.0017, 0.25)
    >>> round(prior_of_rig(Estimate(52.0, 2.0), eye, kappa, drag, 780.0).speed.value, 1)
    49.3
    """
    if speed is None or tip_mm is None:
        return None
    root = math.sqrt(kappa.value)
    share = math.hypot(speed.sd / speed.value, LAUNCH_SD, kappa.sd / kappa.value / 2)
    seen_speed, seen_eye = speed.value * root, eye.value / kappa.value
    eye_sd = math.hypot(eye.sd / kappa.value, seen_eye * kappa.sd / kappa.value)
    return Prior(Estimate(seen_speed, seen_speed * share), Estimate(seen_eye, eye_sd), drag, tip_mm)


def stitch_of(tab: Recorded[TabStitches] | None) -> Estimate | None:
    """Return the width of one stitch of a tab [mm], from ten measured; None without a tab.

    Assumption: ten stitches are read to half a millimetre.

    >>> from lyrandis.core.example import RECURVE, rig
    >>> stitch_of(rig((*RECURVE, "stitches 32mm")).setup.crawls.tab).value
    3.2
    """
    return Estimate(tab.reading.ten_mm / 10, 0.05) if tab else None


def meant_unit(facts: CrawlFacts, mark: Recorded[CrawlMark]) -> DistanceUnit:
    """Return what a mark's distance was meant in: as told, or as all until then were said to be.

    Source: definition.

    >>> from lyrandis.core.example import WALKED, rig
    >>> facts = rig(WALKED).setup.crawls
    >>> meant_unit(facts, facts.marks[0])
    'm'
    """
    last = facts.units[-1] if facts.units else None
    if last is not None and when(last.entry) > when(mark.entry):
        return last.reading.unit
    return mark.reading.unit


def _last_unit(facts: CrawlFacts) -> DistanceUnit:
    return meant_unit(facts, facts.marks[-1]) if facts.marks else "m"


def _kappa(archer: ArcherNumbers, bow: BowNumbers) -> Estimate:
    if not bow.likeness.known or archer.draw is None:
        return KAPPA
    curve = bow.likeness.curve
    draw = min(max(archer.drawn_to.value - TRADE_OFFSET_MM, curve.first_mm), curve.last_mm)
    return Estimate(math.cos(curve.gamma.at(draw)), KAPPA_SD)


def _tip_mm(facts: CrawlFacts, arrows: ArrowFacts) -> float | None:
    if facts.reach is not None:
        return facts.reach.reading.reach_mm
    length = arrows.part("shaft_length_mm")[0]
    return None if length is None else float(length) + POINT_AHEAD.value
