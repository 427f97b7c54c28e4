"""What is in force of crawls: the marks made with these arrows on this bow, and those of others."""

from dataclasses import dataclass

from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.crawls.readings import (
    ArrowReach,
    CrawlCounted,
    CrawlHabit,
    CrawlMark,
    CrawlUnits,
    EyeHeight,
    FingerWidth,
    TabStitches,
)
from lyrandis.core.effective import EffectiveReadings, Recorded


@dataclass(frozen=True)
class CrawlFacts:
    marks: tuple[Recorded[CrawlMark], ...] = ()
    """Made with the archer, bow and arrows that are on the rig."""
    elsewhere: tuple[Recorded[CrawlMark], ...] = ()
    """Made on this rig with other arrows, or by another archer, or on another bow."""
    units: tuple[Recorded[CrawlUnits], ...] = ()
    counted: tuple[Recorded[CrawlCounted], ...] = ()
    finger: Recorded[FingerWidth] | None = None
    tabs: tuple[Recorded[TabStitches], ...] = ()
    """Every tab that was measured: crawls in stitches stay those of the tab they were read from."""
    eye: Recorded[EyeHeight] | None = None
    reach: Recorded[ArrowReach] | None = None
    habit: CrawlHabit | None = None

    @property
    def tab(self) -> Recorded[TabStitches] | None:
        """The tab that is worn now."""
        return self.tabs[-1] if self.tabs else None


@dataclass(frozen=True)
class OtherArrows:
    """Another set this archer has crawled with on this bow, and what is in force of it."""

    id: str
    arrows: ArrowFacts
    crawls: CrawlFacts


def facts(readings: EffectiveReadings) -> CrawlFacts:
    """Return what is in force of crawls."""
    habit = readings.merged(CrawlHabit)
    elsewhere = [other for other in readings.others if isinstance(other.reading, CrawlMark)]
    return CrawlFacts(
        marks=readings.all(CrawlMark),
        elsewhere=tuple(Recorded(item.reading, item.entry) for item in elsewhere),  # type: ignore[arg-type]
        units=readings.all(CrawlUnits),
        counted=readings.keyed(CrawlCounted),
        finger=readings.last(FingerWidth),
        tabs=readings.all(TabStitches),
        eye=readings.last(EyeHeight),
        reach=readings.last(ArrowReach),
        habit=habit.reading if habit else None,
    )
