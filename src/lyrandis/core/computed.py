"""What follows from a setup before anything is judged: the numbers the rules look at."""

from dataclasses import dataclass

from lyrandis.core.archer.numbers import ArcherNumbers
from lyrandis.core.archer.numbers import numbers as archer_numbers
from lyrandis.core.arrow.mass import arrow_mass_of
from lyrandis.core.arrow.numbers import ArrowNumbers
from lyrandis.core.arrow.numbers import numbers as arrow_numbers
from lyrandis.core.bow.likeness import brace_to_pivot, likeness_of
from lyrandis.core.bow.numbers import BowNumbers
from lyrandis.core.bow.numbers import numbers as bow_numbers
from lyrandis.core.setup import Setup


@dataclass(frozen=True, slots=True)
class Computed:
    """A setup and the numbers of each stage."""

    setup: Setup
    archer: ArcherNumbers
    bow: BowNumbers
    arrow: ArrowNumbers


def compute(setup: Setup) -> Computed:
    """Return the numbers that follow from a setup; None where something is missing.

    Explicit on purpose, for mechanics do not run in the order of work: the bow's likeness comes
    before the archer's hook, and the arrow's mass before what a chronograph says of the bow.
    """
    brace_mm = brace_to_pivot(setup.string, setup.archer)
    likeness = likeness_of(setup.bow, brace_mm)
    archer = archer_numbers(setup.archer, likeness)
    finished = arrow_mass_of(setup.arrows, archer.draw_mm)
    bow = bow_numbers(
        setup.bow,
        setup.archer,
        likeness=likeness,
        archer=archer,
        string_gr=setup.string.told_mass_gr,
        hold=setup.archer.hold.reading.hold if setup.archer.hold else None,
        arrow_gr=finished.mass.value if finished else None,
    )
    arrow = arrow_numbers(
        setup.arrows,
        finished,
        archer=archer,
        bow=bow,
        bow_facts=setup.bow,
        string=setup.string,
        brace_mm=brace_mm,
    )
    return Computed(setup, archer, bow, arrow)
