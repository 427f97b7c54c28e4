"""The numbers of the crawls: what the rig says before any mark, the marks, and the table."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Literal, NamedTuple

import numpy as np

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.readings import AnchorChosen, HoldChosen
from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import ArrowMass, arrow_mass_of
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.constants import M_PER_YD, TRADE_OFFSET_MM
from lyrandis.core.crawls.facts import CrawlFacts
from lyrandis.core.crawls.fit import (
    LEAST_OTHERS,
    LEFT_OUT_Z,
    Fit,
    Mark,
    Next,
    Prior,
    Row,
    fit_crawls,
    next_distance,
    odd_one,
    were_yards,
)
from lyrandis.core.crawls.notation import FINGER, from_steps
from lyrandis.core.crawls.plan import (
    DEEPEST_MM,
    EYE_MM,
    KAPPA,
    KAPPA_SD,
    LAUNCH_SD,
    MIRROR_SD_MM,
    drag_of,
)
from lyrandis.core.crawls.ranges import ends_m, own
from lyrandis.core.crawls.readings import CrawlMark, TabStitches
from lyrandis.core.crawls.sight import MM, Sight, crawls_mm, high_per_mm
from lyrandis.core.crawls.words import (
    FEEL_SD_MM,
    STRUCK_SD,
    STRUCK_SDS,
    SURE_SD_MM,
    DistanceUnit,
    Notation,
)
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.pile import Recorded, when
from lyrandis.core.remember import remembered

if TYPE_CHECKING:
    from lyrandis.core.setup import Setup

POINT_AHEAD = Estimate(22.0, 6.0)
"""Assumption: how far a point stands out of its shaft, where nobody measured to its end."""
GUESSED_SHARE = 0.1
"""Assumption: a guessed distance is good to a tenth, one standard deviation."""
GROUP_AT_20_M = 80.0
"""Assumption: one standard deviation of an arrow's height at 20 m [mm], growing with distance."""
TRUSTED_HIT_MM = 400.0
EYE_KEPT_SD_MM = 2.0
"""Assumption: what another set's nocks and points move the eye's height by."""
SPEED_KEPT_SD = 0.012
"""Assumption: how far two sets differ from what the bow's mechanics say of their speeds' ratio."""
FINGER_READ, STITCH_READ = 0.125, 0.25
"""One standard deviation of a count by feel, and of one read off a tab."""
USUAL_TABLE = (5.0, 50.0, 5.0)
MOST_ROWS = 120
SWAPPED_SDS = 3.0
APART_SDS = 2.5
"""From here the marks' speed and the bow's are said to disagree."""
MOST_SHARE_ALONE = 0.15
"""A speed that marks alone leave more open than this share is not said."""

WhyNot = Literal["other_anchor", "no_tab", "left_out", "off", "too_deep"]
WHY_NOT_WORDS: dict[WhyNot, str] = {
    "other_anchor": "made with another anchor or hold",
    "no_tab": "counts once the tab's stitches are measured",
    "left_out": "left out by you",
    "off": "does not fit the others",
    "too_deep": "deeper than a hand reaches",
}


class MarkLine(NamedTuple):
    """A mark as it is taken: how deep, how far, and why not where it does not count."""

    recorded: Recorded[CrawlMark]
    distance_m: float
    unit: DistanceUnit
    crawl: Estimate | None
    why_not: WhyNot | None = None

    @property
    def mark(self) -> Mark | None:
        if self.crawl is None:
            return None
        return Mark(self.distance_m, self.crawl.value, self.crawl.sd)


_fit = remembered(fit_crawls)
_next = remembered(next_distance)
_yards = remembered(were_yards)


@remembered
def _table(fit: Fit, distances_m: tuple[float, ...]) -> tuple[Row, ...]:
    return fit.table(distances_m)


@dataclass(frozen=True)
class CrawlNumbers:
    """What follows from the facts of crawls; reckoned when it is asked for."""

    facts: CrawlFacts
    archer_facts: ArcherFacts
    anchors: tuple[Recorded[AnchorChosen], ...]
    holds: tuple[Recorded[HoldChosen], ...]
    arrows: ArrowFacts
    archer: ArcherNumbers
    bow: BowNumbers
    finished: ArrowMass | None
    usual_mm: float
    others: "tuple[CrawlNumbers, ...]" = ()
    """The same for the archer's other sets on this bow."""
    arrow_set: str | None = None

    @property
    def walks(self) -> bool:
        """True for an archer who walks the string, or has begun to."""
        return self.usual_mm > 0 or bool(self.facts.marks or self.facts.elsewhere)

    @property
    def hold(self) -> Hold:
        told = self.archer_facts.hold
        return told.reading.hold if told else "three_under"

    @property
    def anchor(self) -> Anchor:
        told = self.archer_facts.anchor
        return told.reading.anchor if told else "corner"

    @property
    def notation(self) -> Notation:
        habit = self.facts.habit
        if habit is not None and habit.notation is not None:
            return habit.notation
        return "stitches" if self.facts.tab else "mm"

    @property
    def unit(self) -> DistanceUnit:
        habit = self.facts.habit
        if habit is not None and habit.unit is not None:
            return habit.unit
        return self.lines[-1].unit if self.lines else "m"

    @property
    def finger(self) -> Estimate:
        told = self.facts.finger
        return Estimate(told.reading.width_mm, 0.3) if told else FINGER

    @property
    def stitch(self) -> Estimate | None:
        return _stitch(self.facts.tab)

    @lazy
    def kappa(self) -> Estimate:
        """How far the nock rises per mm of crawl: the string's slope at full draw."""
        if not self.bow.likeness.known or self.archer.draw is None:
            return KAPPA
        curve = self.bow.likeness.curve
        draw = min(max(self.archer.drawn_to.value - TRADE_OFFSET_MM, curve.first_mm), curve.last_mm)
        return Estimate(math.cos(curve.gamma.at(draw)), KAPPA_SD)

    @lazy
    def eye(self) -> Estimate:
        """Eye over the nock without a crawl: as measured, else by anchor and hold."""
        told = self.facts.eye
        if told is not None and told.reading.anchor in (None, self.anchor):
            return Estimate(told.reading.eye_mm, MIRROR_SD_MM)
        return EYE_MM[self.anchor][self.hold]

    @lazy
    def before(self) -> "CrawlNumbers | None":
        """The other set, held the same, whose marks say most of eye and speed."""
        found = [
            (float(one.fit.covariance[1][1]), number, one)
            for number, one in enumerate(self.others)
            if one.fit is not None
            and one.counting
            and (one.anchor, one.hold) == (self.anchor, self.hold)
        ]
        return min(found)[2] if found else None

    @lazy
    def speed(self) -> Estimate | None:
        """The arrow's speed by the bow's mechanics and the chronograph."""
        if self.bow.thrust is None or self.finished is None:
            return None
        return self.bow.thrust.speed_estimate(self.finished.mass.value)

    @lazy
    def tip_mm(self) -> float | None:
        """Nock groove to the point's very end."""
        if self.facts.reach is not None:
            return self.facts.reach.reading.reach_mm
        length = self.arrows.part("shaft_length_mm")[0]
        return None if length is None else float(length) + POINT_AHEAD.value

    @lazy
    def lacks(self) -> tuple[str, ...]:
        """What a table cannot do without."""
        found = []
        if self.speed is None:
            found.append("a draw length, a bow's weight and an arrow's mass")
        if self.tip_mm is None:
            found.append("the arrow's length")
        return tuple(found)

    @lazy
    def prior(self) -> Prior | None:
        """What is believed of the table before any mark of these arrows, in seen quantities.

        From the rig; and from marks with other arrows, which tell the eye, and how much faster or
        slower this bow shoots than its mechanics say.
        """
        own = self.rig_prior
        old = self.before.fit if self.before else None
        if own is None or old is None:
            return own
        kept = old.scale**2 * old.covariance[:2, :2]
        share = math.sqrt(float(kept[0][0]) + SPEED_KEPT_SD**2)
        speed = own.speed.value * math.exp(old.theta[0]) / old.prior.speed.value
        return own._replace(
            speed=Estimate(speed, speed * share),
            eye=Estimate(
                float(old.theta[1]),
                math.sqrt(float(kept[1][1]) + (EYE_KEPT_SD_MM / self.kappa.value) ** 2),
            ),
            together=float(kept[0][1]),
        )

    @lazy
    def rig_prior(self) -> Prior | None:
        """What the rig and the archer's face alone say."""
        if self.speed is None or self.tip_mm is None:
            return None
        kappa, root = self.kappa, math.sqrt(self.kappa.value)
        share = math.hypot(self.speed.sd / self.speed.value, LAUNCH_SD, kappa.sd / kappa.value / 2)
        speed, eye = self.speed.value * root, self.eye.value / kappa.value
        mass = self.finished.mass.value if self.finished else None
        return Prior(
            Estimate(speed, speed * share),
            Estimate(eye, math.hypot(self.eye.sd / kappa.value, eye * kappa.sd / kappa.value)),
            drag_of(mass, self.arrows.part("shaft_diameter_mm")[0]),
            self.tip_mm,
        )

    @lazy
    def told(self) -> bool:
        """True where the archer's own repeatability is told."""
        return self.facts.habit is not None and self.facts.habit.repeat_mm is not None

    @property
    def repeat_mm(self) -> float:
        """One standard deviation of a crawl read off the tab, as told or as usual."""
        repeat = self.facts.habit.repeat_mm if self.facts.habit else None
        return repeat if repeat is not None else SURE_SD_MM["ordinary"]

    @lazy
    def lines(self) -> tuple[MarkLine, ...]:
        """Every mark of these arrows, as it is taken."""
        out = {one.reading.mark for one in self.facts.counted if not one.reading.counted}
        return tuple(self._line(one, out) for one in self.facts.marks)

    def _line(self, one: Recorded[CrawlMark], out: set[str]) -> MarkLine:
        reading, at = one.reading, when(one.entry)
        unit = reading.unit
        for meant in self.facts.units:
            if when(meant.entry) > at:
                unit = meant.reading.unit
        distance = reading.distance_m
        if unit != reading.unit:
            distance *= M_PER_YD if unit == "yd" else 1 / M_PER_YD
        crawl = self._crawl(reading, distance, _stitch(self.facts.tab_at(at)))
        why: WhyNot | None = None
        if one.entry.id in out:
            why = "left_out"
        elif self._held_otherwise(one):
            why = "other_anchor"
        elif crawl is None:
            why = "no_tab"
        elif crawl.value > DEEPEST_MM:
            why = "too_deep"
        return MarkLine(one, distance, unit, crawl, why)

    def held(self, anchor: Anchor, hold: Hold) -> "CrawlNumbers":
        """Return the same arrows' numbers with another anchor and hold."""
        anchors = [one for one in self.anchors if one.reading.anchor == anchor]
        holds = [one for one in self.holds if one.reading.hold == hold]
        as_held = replace(
            self.archer_facts,
            anchor=anchors[-1] if anchors else self.archer_facts.anchor,
            hold=holds[-1] if holds else self.archer_facts.hold,
        )
        return replace(self, archer_facts=as_held)

    def held_at(self, one: Recorded[CrawlMark]) -> tuple[Anchor, Hold]:
        """Return anchor and hold when a mark was made, as far as they were told."""
        at = when(one.entry)
        anchors = [was.reading.anchor for was in self.anchors if when(was.entry) <= at]
        holds = [was.reading.hold for was in self.holds if when(was.entry) <= at]
        return anchors[-1] if anchors else self.anchor, holds[-1] if holds else self.hold

    def _held_otherwise(self, one: Recorded[CrawlMark]) -> bool:
        """Return whether anchor or hold were others when a mark was made."""
        return self.held_at(one) != (self.anchor, self.hold)

    def _crawl(
        self, reading: CrawlMark, distance_m: float, stitch: Estimate | None
    ) -> Estimate | None:
        """Return the crawl that would have struck, with how well it is known [mm].

        `stitch` is that of the tab which was worn.
        """
        scale = SURE_SD_MM[reading.sure] / SURE_SD_MM["ordinary"]
        usual = scale * self.repeat_mm
        if reading.crawl_mm is not None:
            crawl, sd = reading.crawl_mm, usual
        elif reading.fingers is not None:
            crawl, sd = from_steps(reading.fingers, self.finger, FINGER_READ)
            sd = math.hypot(sd, scale * FEEL_SD_MM)
        elif stitch is not None and reading.stitches is not None:
            crawl, sd = from_steps(reading.stitches, stitch, STITCH_READ)
            sd = math.hypot(sd, usual)
        else:
            return None
        tip = self.tip_mm
        if tip is None or distance_m <= tip / MM:
            return Estimate(crawl, sd)
        struck = self._struck(reading, distance_m)
        if struck is not None:
            high = high_per_mm(distance_m, tip, self.kappa.value)
            crawl += struck.value / high
            sd = math.hypot(sd, struck.sd / high)
        if reading.guessed and self.prior is not None:
            sd = math.hypot(sd, self._per_metre(distance_m) * GUESSED_SHARE * distance_m)
        return Estimate(crawl, sd)

    def _struck(self, reading: CrawlMark, distance_m: float) -> Estimate | None:
        """Return where the arrows struck [mm], + high; None where the crawl was right."""
        group = GROUP_AT_20_M * distance_m / 20 / math.sqrt(reading.arrows)
        if reading.struck is not None:
            return Estimate(STRUCK_SDS[reading.struck] * group, STRUCK_SD * group)
        if reading.high_mm is None:
            return None
        if abs(reading.high_mm) > TRUSTED_HIT_MM:
            group = math.hypot(group, 0.25 * reading.high_mm)
        return Estimate(reading.high_mm, group)

    def _per_metre(self, distance_m: float) -> float:
        assert self.prior is not None
        sight = Sight(self.prior.speed.value, self.prior.eye.value, self.prior.drag.value,
                      self.prior.tip_mm)  # fmt: skip
        near, far = crawls_mm(np.array([distance_m - 0.5, distance_m + 0.5]), sight).tolist()
        return float(abs(far - near))

    @lazy
    def whole(self) -> Fit | None:
        """The fit of all marks that may count."""
        if self.prior is None:
            return None
        marks = tuple(one.mark for one in self.lines if one.why_not is None and one.mark)
        return _fit(self.prior, marks, told=self.told)

    @lazy
    def odd(self) -> MarkLine | None:
        """The mark that does not fit the others, if there is one."""
        if self.whole is None:
            return None
        number = odd_one(self.whole)
        if number is None:
            return None
        return [one for one in self.lines if one.why_not is None and one.mark][number]

    @lazy
    def odd_z(self) -> float:
        number = odd_one(self.whole) if self.whole else None
        return self.whole.residuals[number].z if self.whole and number is not None else 0.0

    @lazy
    def dropped(self) -> MarkLine | None:
        """The same where enough others remain to leave it out; said, and one tap counts it."""
        if self.odd is None or self.whole is None or abs(self.odd_z) <= LEFT_OUT_Z:
            return None
        kept = {one.reading.mark for one in self.facts.counted if one.reading.counted}
        if self.odd.recorded.entry.id in kept or len(self.whole.marks) - 1 < LEAST_OTHERS:
            return None
        return self.odd

    @lazy
    def fit(self) -> Fit | None:
        """The table's fit: every mark that counts, what is dropped left out."""
        if self.whole is None or self.dropped is None or self.prior is None:
            return self.whole
        marks = tuple(one.mark for one in self.counting if one.mark)
        return _fit(self.prior, marks, told=self.told)

    @lazy
    def counting(self) -> tuple[MarkLine, ...]:
        """The marks the table stands on."""
        return tuple(
            one
            for one in self.lines
            if one.why_not is None and one.mark is not None and one is not self.dropped
        )

    @lazy
    def own_sight(self) -> Sight | None:
        """The arrow's own sight by the table: for where it strikes, not for where to hook."""
        return own(self.fit, self.kappa.value) if self.fit else None

    @lazy
    def table_m(self) -> tuple[float, ...]:
        """The distances of the table that is wanted, as far as it can be trusted."""
        first, last, step = USUAL_TABLE
        habit = self.facts.habit
        if habit is not None:
            per = M_PER_YD if habit.unit == "yd" else 1.0
            first, last, step = (one * per for one in (first, last, step))
            first, last = habit.from_m or first, habit.to_m or last
            step = habit.step_m or step
        if self.own_sight is not None:
            last = ends_m(self.own_sight, last)
        count = min(int((last - first) / step + 1e-6) + 1, MOST_ROWS)
        return tuple(first + number * step for number in range(max(count, 1)))

    @lazy
    def rows(self) -> tuple[Row, ...]:
        return _table(self.fit, self.table_m) if self.fit else ()

    @lazy
    def next(self) -> Next | None:
        """The distance whose mark would tell most."""
        return _next(self.fit, self.table_m, furthest_m=self.table_m[-1]) if self.fit else None

    @lazy
    def ask_yards(self) -> bool:
        return self.fit is not None and self.unit == "m" and _yards(self.fit)

    @lazy
    def one_distance(self) -> bool:
        """True while all marks stand at one distance."""
        return len({round(one.distance_m) for one in self.counting}) == 1

    @lazy
    def swapped(self) -> tuple[MarkLine, MarkLine] | None:
        """Two marks of which the longer distance has the deeper crawl, beyond their doubt."""
        ordered = sorted(self.counting, key=lambda one: one.distance_m)
        for near, far in _pairs(ordered):
            if near.crawl is None or far.crawl is None or far.distance_m - near.distance_m < 2:
                continue
            sd = math.hypot(near.crawl.sd, far.crawl.sd)
            if far.crawl.value - near.crawl.value > SWAPPED_SDS * sd:
                return near, far
        return None

    @lazy
    def half_mm(self) -> float | None:
        """Half of the table's band, root mean square over the rows that are shot with a crawl."""
        halves = [row.half_mm for row in self.rows if row.crawl_mm >= 0]
        if not halves:
            return None
        return math.sqrt(sum(one**2 for one in halves) / len(halves))

    @lazy
    def speed_off(self) -> float | None:
        """How far the marks' speed lies off what bow and chronograph say, in sds of both."""
        rig = self.rig_prior
        if self.fit is None or rig is None or len(self.counting) < 2:
            return None
        said = self.fit.theta[0] - math.log(rig.speed.value)
        before = rig.speed.sd / rig.speed.value
        after = math.sqrt(float(self.fit.covariance[0][0]))
        # of two that share the prior: the marks' own share of it
        apart = math.sqrt(max(before**2 - after**2, 1e-12))
        return float(said) / apart

    @lazy
    def speed_by_marks(self) -> "MarkedSpeed | None":
        """What the marks say of the arrow's speed, with the bow's word and without it."""
        fit, prior, own_sight = self.fit, self.prior, self.own_sight
        if fit is None or prior is None or own_sight is None or not self.counting:
            return None
        before = prior.speed.sd / prior.speed.value
        after = math.sqrt(float(fit.covariance[0][0]))
        root = math.sqrt(self.kappa.value)
        apart = self.speed_off is not None and abs(self.speed_off) >= APART_SDS
        together = Estimate(own_sight.speed_mps, own_sight.speed_mps * fit.scale * after)
        # precisions add: what the marks alone say is what they add to the prior
        weight = 1 / after**2 - 1 / before**2
        if weight * MOST_SHARE_ALONE**2 < 1:
            return MarkedSpeed(len(self.counting), together, None, apart)
        log = (fit.theta[0] / after**2 - math.log(prior.speed.value) / before**2) / weight
        alone = math.exp(float(log)) / root
        by_marks = Estimate(alone, alone * fit.scale / math.sqrt(weight))
        return MarkedSpeed(len(self.counting), together, by_marks, apart)


class MarkedSpeed(NamedTuple):
    """An arrow's speed as crawls have it [m/s]."""

    marks: int
    together: Estimate
    """With bow and chronograph."""
    alone: Estimate | None
    """By the marks alone; None where they hardly tell."""
    apart: bool
    """True where it lies off what bow and chronograph say beyond both doubts."""


def _stitch(tab: Recorded[TabStitches] | None) -> Estimate | None:
    return Estimate(tab.reading.ten_mm / 10, 0.05) if tab else None


def _pairs(lines: Sequence[MarkLine]) -> list[tuple[MarkLine, MarkLine]]:
    return [(a, b) for at, a in enumerate(lines) for b in lines[at + 1 :]]


def numbers(
    setup: "Setup", *, archer: ArcherNumbers, bow: BowNumbers, finished: ArrowMass | None
) -> CrawlNumbers:
    """Return the numbers of the crawls, those of the archer's other sets beside them."""
    own = CrawlNumbers(
        setup.crawls,
        archer_facts=setup.archer,
        anchors=setup.order.anchors,
        holds=setup.order.holds,
        arrows=setup.arrows,
        archer=archer,
        bow=bow,
        finished=finished,
        usual_mm=setup.nock.crawl_mm,
        arrow_set=setup.fitted.arrow_set,
    )
    others = tuple(
        replace(
            own,
            facts=other.crawls,
            arrows=other.arrows,
            finished=arrow_mass_of(other.arrows, archer.draw_mm),
            arrow_set=other.id,
        )
        for other in setup.other_arrows
    )
    return replace(own, others=others) if others else own
