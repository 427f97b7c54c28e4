"""Bow families as data: the typical shape, stiffness and mass of each, with where it comes from.

Lengths in inches, angles in degrees, as bowyers speak of them; `statics.py` converts once.
"""

from dataclasses import dataclass

from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.quantities import within


@dataclass(frozen=True)
class Bend:
    """Reflex built into the limb: `deg` of it, growing from `start` to `end` of the limb."""

    deg: float
    start: float = 0.0
    end: float = 1.0
    power: int = 1


@dataclass(frozen=True)
class FamilyShape:
    """A typical bow of one family."""

    riser_in: float
    """Stiff middle, fades included."""
    usual_length_in: float
    """Length taken where none is told."""
    brace_in: float
    root_x_in: float
    """Limb root from the pivot, toward the archer."""
    root_lean_deg: float
    """Lean of the limb at its root; + is deflex."""
    bends: tuple[Bend, ...]
    tip_stiffness: float
    """Bending stiffness at the end of the working limb over that at the root."""
    rigid_tip_in: float
    rigid_tip_deg: float
    root_width_in: float
    tip_width_in: float
    modulus_psi: float
    density_lb_in3: float
    string_gr: float
    tip_gr: float
    tip_gr_per_in: float
    """Mass of a rigid tip per inch of it."""
    onset_share: float
    """Stack onset by the one-line rule: (onset - 1 3/4 in - brace) over limb length."""
    lengths_in: tuple[float, float]
    """Bow lengths for which the shape is meant."""
    provenance: str
    risers_in: tuple[float, float] = (0.0, 40.0)
    """Stiff middles the kind is made with, whatever its length."""

    def riser_for(self, bow_length_mm: float) -> float:
        """Return the riser assumed for a bow of some length [mm]: it scales with the bow.

        Assumption: the usual riser's share of the usual length, within what the kind is made with.

        >>> round(FAMILIES["hunting_recurve"].riser_for(1524.0) / 25.4, 1)
        15.6
        """
        low, high = self.risers_in
        share = self.riser_in / self.usual_length_in
        return min(max(share * bow_length_mm, low * MM_PER_IN), high * MM_PER_IN)

    @property
    def lengths_mm(self) -> tuple[float, float]:
        """The same in mm."""
        low, high = self.lengths_in
        return low * MM_PER_IN, high * MM_PER_IN

    def has_length(self, bow_length_mm: float) -> bool:
        """Return True for a length the shape is meant for, both ends included.

        Source: the shape's own range of lengths.

        >>> FAMILIES["hunting_recurve"].has_length(round(66 * 25.4, 6))
        True
        """
        return within(bow_length_mm, *self.lengths_mm)


_TUNED = (
    "Assumption: plausible values for a typical bow of the family, tuned to usual weights, angles "
    "and speeds; not fitted to measured bows and not the drawing of any one."
)

FAMILIES: dict[Family, FamilyShape] = {
    "selfbow": FamilyShape(
        8, 66, 6, -0.5, 1.0, (), 0.25, 0, 0,
        1.7, 0.55, 1.5e6, 0.025, 150, 10, 0, 0.78, (48, 80), _TUNED,
    ),
    "straight_longbow": FamilyShape(
        9, 68, 6.75, -0.4, 0.0, (), 0.35, 0, 0,
        1.25, 0.55, 3.5e6, 0.038, 130, 25, 0, 0.83, (52, 80), _TUNED, (8, 10),
    ),
    "reflex_deflex_longbow": FamilyShape(
        15, 62, 7, -0.9, 0.0, (Bend(38, 0.2, 1.0),), 0.30, 0, 0,
        1.4, 0.55, 3.8e6, 0.040, 115, 25, 0, 0.91, (52, 72), _TUNED,
    ),
    "hunting_recurve": FamilyShape(
        15.6, 60, 7.75, 0.4, 0.0, (Bend(76, 0.36, 1.0, 2),), 0.20, 0, 0,
        1.75, 0.7, 4.2e6, 0.042, 110, 30, 0, 0.92, (48, 72), _TUNED,
    ),
    "target_recurve": FamilyShape(
        27, 68, 8.75, 1.8, 6.5, (Bend(77, 0.32, 1.0, 2),), 0.20, 0, 0,
        1.7, 0.7, 5.0e6, 0.042, 105, 30, 0, 0.92, (62, 74), _TUNED,
    ),
    "short_rigid_tip": FamilyShape(
        6, 54, 6.5, -0.5, 0.0, (Bend(10),), 0.40, 4.5, 35,
        1.3, 0.9, 3.5e6, 0.042, 120, 10, 60, 0.85, (46, 66), _TUNED,
    ),
    "long_rigid_tip": FamilyShape(
        6, 54, 6.5, -0.5, 0.0, (Bend(5),), 0.45, 8, 40,
        1.3, 0.9, 3.5e6, 0.042, 130, 10, 70, 0.85, (46, 66), _TUNED,
    ),
    "large_rigid_tip": FamilyShape(
        7, 58, 7, -0.5, 0.0, (), 0.50, 11, 50,
        1.6, 1.1, 3.5e6, 0.042, 150, 10, 80, 0.85, (50, 62), _TUNED,
    ),
}  # fmt: skip
