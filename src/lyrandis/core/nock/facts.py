"""What is in force at the nock and on the riser."""

from dataclasses import dataclass

from lyrandis.core.effective import EffectiveReadings, Recorded, when
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
    TillerTold,
    UsualCrawl,
)


@dataclass(frozen=True)
class NockFacts:
    height: Recorded[NockHeight] | None = None
    fixed: Recorded[NockLocked] | None = None
    shots: tuple[Recorded[NockShot], ...] = ()
    arrow_nock: Recorded[ArrowNock] | None = None
    tiller: Recorded[TillerGaps] | Recorded[TillerTold] | None = None
    """The newest, read as two gaps or told as one number."""
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


def _tiller(
    readings: EffectiveReadings,
) -> Recorded[TillerGaps] | Recorded[TillerTold] | None:
    gaps, told = readings.last(TillerGaps), readings.last(TillerTold)
    if gaps is None or told is None:
        return gaps or told
    return told if when(told.entry) > when(gaps.entry) else gaps


def facts(readings: EffectiveReadings) -> NockFacts:
    """Return what is in force at the nock and on the riser."""
    return NockFacts(
        height=readings.last(NockHeight),
        fixed=readings.last(NockLocked),
        shots=readings.all(NockShot),
        arrow_nock=readings.merged(ArrowNock),
        tiller=_tiller(readings),
        in_line=readings.last(LimbsInLine),
        centre_shot=readings.last(CentreShot),
        bolts=readings.merged(LimbBolts),
        bolt_log=readings.all(LimbBolts),
        weights=tuple(
            recorded for recorded in readings.keyed(RiserWeight) if recorded.reading.mass_g > 0
        ),
        side=readings.merged(RiserSide),
        crawl=readings.last(UsualCrawl),
        kit=readings.last(BowKitTold),
    )
