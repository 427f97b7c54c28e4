"""The numbers at the nock: lift, a height to begin at, tiller and its band, balance. In mm."""

from dataclasses import dataclass
from itertools import pairwise, zip_longest

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.words import Hold
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.words import LiesOn
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.constants import MARKED_DRAW_MM, TRADE_OFFSET_MM
from lyrandis.core.effective import when
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.nock.facts import NockFacts
from lyrandis.core.nock.height import (
    FlownHeight,
    HeightShot,
    HeightStart,
    Schools,
    lift_of,
    nock_diameter,
    schools_of,
    start_lift,
)
from lyrandis.core.nock.off_hand import clearance_over_hand
from lyrandis.core.nock.riser_weights import Balance, Weight, balance_of
from lyrandis.core.nock.tiller import (
    BoltPair,
    TillerBand,
    own_turn_effect,
    tiller_band,
    turn_effect,
)
from lyrandis.core.nock.words import BowKit

ASSUMED_HOLD: Hold = "split"
TILLER_SD_MM = 1.0
"""Assumption: of a tiller, two gaps of 0.7 mm each."""


@dataclass(frozen=True)
class NockNumbers:
    """What follows from the facts at the nock; reckoned when it is asked for."""

    facts: NockFacts
    archer: ArcherFacts
    bow_facts: BowFacts
    bow: BowNumbers
    arrows: ArrowFacts
    flown: tuple[FlownHeight, ...] = ()
    """Heights that were shot on the flight's pages."""

    @property
    def hold(self) -> Hold | None:
        return self.archer.hold.reading.hold if self.archer.hold else None

    @property
    def kit(self) -> BowKit:
        """What can be set: as told, else by the kind of bow."""
        if self.facts.kit is not None:
            return self.facts.kit.reading.kit
        return "full" if self.bow.likeness.shape.family == "target_recurve" else "plain"

    @property
    def lies_on(self) -> LiesOn:
        """What the arrow lies on: as told, else by what can be set and the hold."""
        told, _ = self.arrows.passing("lies_on")
        if told is not None:
            on: LiesOn = told
            return on
        if self.kit != "plain" or self.arrows.passing("plunger")[0]:
            return "rest"
        return "hand" if self.hold == "thumb" else "shelf"

    @property
    def off_the_hand(self) -> bool | None:
        """True where the arrow was told to lie on the hand, None where it is only likely."""
        told, _ = self.arrows.passing("lies_on")
        if told is not None:
            return bool(told == "hand")
        return None if self.lies_on == "hand" else False

    @lazy
    def hand_clearance(self) -> Estimate | None:
        """How far the arrow's tail passes over the hand; None where it does not lie on it."""
        if self.lift is None or self.lies_on != "hand":
            return None
        side = self.facts.side.reading if self.facts.side else None
        return clearance_over_hand(
            self.lift,
            mark_under_mm=(side.grip_under_rest_mm or 0.0) if side else 0.0,
            hand_over_mark_mm=side.hand_at_full_mm if side else None,
        )

    @lazy
    def arrow_nock(self) -> Estimate:
        """Outside diameter of the arrow's nock."""
        told = self.facts.arrow_nock
        measured = told.reading.outside_mm if told else None
        return nock_diameter(self.arrows.part("shaft_diameter_mm")[0], measured)

    @lazy
    def lift(self) -> Estimate | None:
        """Underside of the arrow at the string over square."""
        read = self.facts.height
        if read is None:
            return None
        return lift_of(read.reading.height_mm, read.reading.datum, self.arrow_nock)

    @property
    def fixed(self) -> bool:
        """True when the height is found and fixed: nothing overwrites it."""
        return self.facts.fixed is not None and self.facts.fixed.reading.locked

    @lazy
    def start(self) -> HeightStart:
        """Where to begin searching."""
        hold = self.hold or ASSUMED_HOLD
        return start_lift(hold, self.facts.crawl_mm, self.arrow_nock.value)

    @lazy
    def schools(self) -> Schools:
        shots = [HeightShot(shot.reading.lift_mm, shot.reading.flew) for shot in self.facts.shots]
        shots += [HeightShot(shot.lift_mm, shot.flew) for shot in self.flown]
        return schools_of(shots)

    @lazy
    def tiller(self) -> Estimate | None:
        """Upper less lower gap."""
        read = self.facts.tiller
        if read is None:
            return None
        return Estimate(read.reading.more_mm, TILLER_SD_MM)

    @lazy
    def band(self) -> TillerBand:
        """Tiller wanted for the hold and the usual crawl."""
        return tiller_band(self.hold or ASSUMED_HOLD, self.facts.crawl_mm)

    @lazy
    def turn(self) -> Estimate:
        """What a turn of both bolts does, as ln of the weight: own weighings outrank."""
        return own_turn_effect(turn_effect(), self.bolt_pairs)

    @lazy
    def bolt_pairs(self) -> tuple[BoltPair, ...]:
        """Own weighings before and after both bolts were turned alike, in order."""
        turned = [
            (when(item.entry), (item.reading.upper_turns + item.reading.lower_turns) / 2)
            for item in self.facts.bolt_log
            if item.reading.upper_turns is not None and item.reading.lower_turns is not None
        ]
        if len(turned) < 2 or self.bow.weight is None:
            return ()
        curve, at = self.bow.weight.fitted, MARKED_DRAW_MM - TRADE_OFFSET_MM
        weighed = [
            (when(point.recorded.entry), point.weight.value * curve.at(at)
             / max(curve.at(point.draw_mm - TRADE_OFFSET_MM), 1e-9))
            for point in self.bow.weight.points
            if point.recorded.reading.kind == "bow_weighed"
        ]  # fmt: skip
        spells: list[tuple[float, float]] = []
        ends = [at for at, _ in turned[1:]]
        for (start, out), end in zip_longest(turned, ends):
            inside = [w for t, w in weighed if t >= start and (end is None or t < end)]
            if inside:
                spells.append((out, sum(inside) / len(inside)))
        return tuple(
            BoltPair(before[0] - after[0], before[1], after[1])
            for before, after in pairwise(spells)
            if before[0] != after[0]
        )

    @lazy
    def balance(self) -> Balance | None:
        """The riser with its weights; None without any."""
        if not self.facts.weights:
            return None
        weights = tuple(
            Weight(weight.reading.mass_g, weight.reading.forward_mm, weight.reading.up_mm)
            for weight in self.facts.weights
        )
        return balance_of(weights, self.bow.likeness.shape.riser_length_mm)


def numbers(
    facts: NockFacts,
    *,
    archer_facts: ArcherFacts,
    bow_facts: BowFacts,
    arrow_facts: ArrowFacts,
    bow: BowNumbers,
) -> NockNumbers:
    """Return the numbers at the nock."""
    return NockNumbers(facts, archer_facts, bow_facts, bow, arrow_facts)
