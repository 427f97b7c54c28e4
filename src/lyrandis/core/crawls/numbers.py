"""The numbers of the crawls, worked out in order: basis, marks, fit, table, checks."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from lyrandis.core.archer.facts import ArcherFacts
from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.words import Anchor, Hold
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import ArrowMass, arrow_mass_of
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.crawls.basis import CrawlBasis, basis_of
from lyrandis.core.crawls.facts import CrawlFacts, OtherArrows
from lyrandis.core.crawls.marks import Holding, MarkLine, mark_lines
from lyrandis.core.crawls.table import (
    CrawlChecks,
    CrawlTable,
    MarksFit,
    crawl_checks,
    crawl_table,
    fit_marks,
    prior_begun_from,
)


@dataclass(frozen=True)
class CrawlNumbers:
    """What follows of crawls for one set of arrows, held one way."""

    basis: CrawlBasis
    lines: tuple[MarkLine, ...]
    """Every mark of these arrows, as it is taken."""
    marks: MarksFit
    table: CrawlTable
    checks: CrawlChecks
    before: "CrawlNumbers | None"
    """The other set, held the same, whose marks say most of eye and speed."""
    others: "tuple[CrawlNumbers, ...]" = ()
    """The same for the archer's other sets on this bow."""


def numbers(
    facts: CrawlFacts,
    *,
    archer_facts: ArcherFacts,
    arrow_facts: ArrowFacts,
    holding: Holding,
    usual_mm: float,
    arrow_set: str | None,
    other_arrows: Sequence[OtherArrows],
    archer: ArcherNumbers,
    bow: BowNumbers,
    finished: ArrowMass | None,
) -> CrawlNumbers:
    """Return the numbers of the crawls, those of the archer's other sets beside them."""

    def of(
        facts: CrawlFacts,
        arrows: ArrowFacts,
        mass: ArrowMass | None,
        name: str | None,
        others: tuple[CrawlNumbers, ...],
    ) -> CrawlNumbers:
        basis = basis_of(
            facts,
            archer_facts=archer_facts,
            archer=archer,
            bow=bow,
            arrows=arrows,
            finished=mass,
            usual_mm=usual_mm,
            arrow_set=name,
        )
        return _of_set(basis, holding, others)

    others = tuple(
        of(other.crawls, other.arrows, arrow_mass_of(other.arrows, archer.draw_mm), other.id, ())
        for other in other_arrows
    )
    return of(facts, arrow_facts, finished, arrow_set, others)


def _of_set(basis: CrawlBasis, holding: Holding, others: tuple[CrawlNumbers, ...]) -> CrawlNumbers:
    before = _before(basis, others)
    prior = prior_begun_from(basis.rig_prior, before.marks.fit if before else None, basis.kappa)
    lines = mark_lines(basis, holding, prior)
    marks = fit_marks(basis, prior, lines)
    table = crawl_table(basis, marks)
    checks = crawl_checks(basis, marks, table)
    return CrawlNumbers(basis, lines, marks, table, checks, before, others)


def _before(basis: CrawlBasis, others: Sequence[CrawlNumbers]) -> CrawlNumbers | None:
    """Return the other set, held the same, whose marks leave the eye least open."""
    result = [
        (float(other.marks.fit.covariance[1][1]), number)
        for number, other in enumerate(others)
        if other.marks.fit is not None
        and other.marks.counting
        and (other.basis.anchor, other.basis.hold) == (basis.anchor, basis.hold)
    ]
    return others[min(result)[1]] if result else None


def held_as(facts: ArcherFacts, holding: Holding, anchor: Anchor, hold: Hold) -> ArcherFacts:
    """Return the archer's facts with the last reading of another anchor and hold in force."""
    anchors = [item for item in holding.anchors if item.reading.anchor == anchor]
    holds = [item for item in holding.holds if item.reading.hold == hold]
    return replace(
        facts,
        anchor=anchors[-1] if anchors else facts.anchor,
        hold=holds[-1] if holds else facts.hold,
    )
