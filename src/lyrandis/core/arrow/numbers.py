"""The numbers of the arrows: mass, grains per pound, floor, build, shot and match."""

from dataclasses import dataclass

from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.arrow.build import BuildSheet, build_sheet
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import ArrowMass, Floor, floor_of, grains_per_pound
from lyrandis.core.arrow.matched import SpineMatch, match_of
from lyrandis.core.arrow.quiver import QuiverArrow, quiver_of
from lyrandis.core.arrow.shooting import Shooting, shooting_of
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.thrust import floor_per_pound
from lyrandis.core.estimate import Estimate
from lyrandis.core.lazy import lazy
from lyrandis.core.string.facts import StringFacts


@dataclass(frozen=True)
class ArrowNumbers:
    """Masses in grains, spines in pounds of the wood scale, lengths in mm."""

    finished: ArrowMass | None
    sheet: BuildSheet
    shooting: Shooting | None
    """The rig's own shot; None until draw and weight are known."""
    model: SpineMatch | None
    """The computed match; the one in force is `Computed.match`."""
    gpp: Estimate | None
    floor: Floor
    facts: ArrowFacts

    @lazy
    def quiver(self) -> tuple[QuiverArrow, ...]:
        """The numbered arrows."""
        return quiver_of(self.facts)


def numbers(
    facts: ArrowFacts,
    *,
    finished: ArrowMass | None,
    archer: ArcherNumbers,
    bow: BowNumbers,
    bow_facts: BowFacts,
    string: StringFacts,
    brace_mm: float | None,
    thumb: bool,
) -> ArrowNumbers:
    """Return the arrows' numbers, `finished` being their mass; None where something is missing."""
    sheet = build_sheet(facts, finished, archer.draw_mm)
    shooting = shooting_of(
        facts, sheet=sheet, archer=archer, bow=bow, string=string, brace_mm=brace_mm, thumb=thumb
    )
    own = bow.own_weight
    return ArrowNumbers(
        finished=finished,
        sheet=sheet,
        shooting=shooting,
        model=match_of(shooting.shot, shooting.habit, shooting.own_lbf) if shooting else None,
        gpp=grains_per_pound(finished.mass, own.weight) if finished and own else None,
        floor=floor_of(
            bow_facts,
            own.weight if own else None,
            floor_per_pound(archer.pivot_mm, bow.likeness, bow.calibration, string.told_mass_gr),
            bow.likeness.shape.family,
        ),
        facts=facts,
    )
