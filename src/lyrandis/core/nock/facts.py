"""What is in force at the nock and on the riser."""

from dataclasses import dataclass

from lyrandis.core.nock.readings import (
    ArrowNock,
    BowKitTold,
    CentreShot,
    LimbBolts,
    LimbsInLine,
    NockHeight,
    NockLocked,
    NockShot,
    RiserSide,
    RiserWeight,
    TillerGaps,
    UsualCrawl,
)
from lyrandis.core.pile import Pile, Recorded


@dataclass(frozen=True)
class NockFacts:
    height: Recorded[NockHeight] | None = None
    fixed: Recorded[NockLocked] | None = None
    shots: tuple[Recorded[NockShot], ...] = ()
    arrow_nock: Recorded[ArrowNock] | None = None
    tiller: Recorded[TillerGaps] | None = None
    in_line: Recorded[LimbsInLine] | None = None
    centre_shot: Recorded[CentreShot] | None = None
    bolts: Recorded[LimbBolts] | None = None
    bolt_log: tuple[Recorded[LimbBolts], ...] = ()
    weights: tuple[Recorded[RiserWeight], ...] = ()
    side: Recorded[RiserSide] | None = None
    crawl: Recorded[UsualCrawl] | None = None
    kit: Recorded[BowKitTold] | None = None

    @property
    def crawl_mm(self) -> float:
        """The crawl shot most; 0 where nobody walks the string."""
        return self.crawl.reading.crawl_mm if self.crawl else 0.0


def facts(pile: Pile) -> NockFacts:
    """Return what is in force at the nock and on the riser."""
    return NockFacts(
        height=pile.last(NockHeight),
        fixed=pile.last(NockLocked),
        shots=pile.all(NockShot),
        arrow_nock=pile.merged(ArrowNock),
        tiller=pile.last(TillerGaps),
        in_line=pile.last(LimbsInLine),
        centre_shot=pile.last(CentreShot),
        bolts=pile.merged(LimbBolts),
        bolt_log=pile.all(LimbBolts),
        weights=tuple(one for one in pile.keyed(RiserWeight) if one.reading.mass_g > 0),
        side=pile.merged(RiserSide),
        crawl=pile.last(UsualCrawl),
        kit=pile.last(BowKitTold),
    )
