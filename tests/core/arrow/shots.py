"""The three reference rigs of the arrow's mechanics, in an archer's units."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from lyrandis.core.arrow.beam import Beam
from lyrandis.core.arrow.bend import Release, Shot, Side
from lyrandis.core.arrow.practice import RigHabit, habit_of
from lyrandis.core.arrow.shooting import CHAIN_GR, STRING_GR
from lyrandis.core.arrow.spine import M_PER_IN, STIFFNESS_PER_POUND
from lyrandis.core.arrow.stroke import simple_push
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import KG_PER_GRAIN, NEWTONS_PER_LBF


@dataclass(frozen=True)
class Case:
    weight_lbf: float
    brace_in: float
    bend: float
    string_gr: float
    bow_in: float
    offset_mm: float
    gr_per_in: float
    diameter_mm: float
    damping: float
    nock_gr: float
    fletching_gr: float
    fletching_in: float
    length_in: float
    tip_gr: float
    draw_in: float = 26.25
    kept_gr: float = 40.0
    limbs_gr: float = 180.0
    plunger: bool = False

    def but(self, **changes: Any) -> "Case":
        return replace(self, **changes)

    @property
    def shot(self) -> Shot:
        """As a rig is shot: the string told in K0 only."""
        kept_gr = self.kept_gr + (self.string_gr - STRING_GR) / 3
        return self._shot(string_gr=CHAIN_GR, kept_gr=kept_gr)

    def habit(self, family: Family) -> RigHabit:
        """What practice asks beyond the shot; the string is of polyester."""
        return habit_of(
            family, low_stretch=False, thumb=False, diameter_mm=self.diameter_mm, weight_doubt=0.0
        )

    @property
    def plain(self) -> Shot:
        """As the reference text has it: the string's own mass along the line."""
        return self._shot(string_gr=self.string_gr, kept_gr=self.kept_gr)

    @property
    def plain_releases(self) -> tuple[Release, ...]:
        """Nine releases of the reference text: one chain, the string's own, and one factor."""
        return tuple(
            Release(push, length, self.string_gr * KG_PER_GRAIN)
            for push in (0.8, 1.0, 1.2)
            for length in (0.8, 1.0, 1.25)
        )

    def _shot(self, string_gr: float, kept_gr: float) -> Shot:
        push = simple_push(
            draw=self.draw_in * M_PER_IN,
            brace=self.brace_in * M_PER_IN,
            weight=self.weight_lbf * NEWTONS_PER_LBF,
            bend=self.bend,
            string=string_gr * KG_PER_GRAIN,
            bow_length=self.bow_in * M_PER_IN,
            kept=kept_gr * KG_PER_GRAIN,
            limbs=self.limbs_gr * KG_PER_GRAIN,
        )
        beam = Beam(
            length=self.length_in * M_PER_IN,
            mass_per_length=self.gr_per_in * KG_PER_GRAIN / M_PER_IN,
            tip=self.tip_gr * KG_PER_GRAIN,
            nock=self.nock_gr * KG_PER_GRAIN,
            fletching=self.fletching_gr * KG_PER_GRAIN,
            fletching_from=M_PER_IN,
            fletching_length=self.fletching_in * M_PER_IN,
        )
        side = Side(self.offset_mm / 1000, plunger=self.plunger)
        return Shot(push, beam, side, self.damping)


RECURVE = Case(45, 8.25, 0.25, 100, 66, 1.5, 8.0, 7.0, 0.015, 9, 18, 3, 29, 115)
LONGBOW = Case(44.5, 7.0, 0.12, 110, 68, 8.5, 11.0, 8.8, 0.03, 8, 30, 5, 29.75, 125)
WOOD = Case(43, 6.5, 0.15, 110, 66, 7.0, 9.7, 8.6, 0.03, 8, 30, 5, 28.5, 100)
REFERENCE = {"recurve": RECURVE, "longbow": LONGBOW, "wood": WOOD}


def ei(*spines_lbf: float) -> np.ndarray[Any, np.dtype[np.float64]]:
    """EI of some spines, as `bend` wants them for one set-up."""
    return STIFFNESS_PER_POUND * np.array([spines_lbf], dtype=float)
