"""The build sheet: what the arrow weighs, where it balances, how stiff it is and how it rings.

Lengths in mm, masses in grains; the beam it makes is in SI.
"""

from dataclasses import dataclass
from typing import Literal

from lyrandis.core.arrow.beam import Beam, Modes, modes_of
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.mass import ArrowMass, Part, beyond_draw, deduced_shaft, shaft_length
from lyrandis.core.arrow.spine import M_PER_IN, stiffness
from lyrandis.core.arrow.taper import DIAMETER_MM, fill, profile_of
from lyrandis.core.arrow.words import ShaftMaterial, SpineStandard
from lyrandis.core.constants import KG_PER_GRAIN, MM_PER_IN
from lyrandis.core.effective import when
from lyrandis.core.estimate import Estimate

DAMPING: dict[ShaftMaterial | None, float] = {
    "wood": 0.03, "cane": 0.04, "carbon": 0.015, "aluminium": 0.01, "glass": 0.02, None: 0.02,
}  # fmt: skip
"""Assumption: damping of the flexing, as a share of critical; cane comes to rest soonest."""
FLETCHING_LENGTH_IN: dict[ShaftMaterial | None, float] = {
    "wood": 5.0, "cane": 5.0, "carbon": 3.0, "aluminium": 4.0, "glass": 4.0, None: 4.0,
}  # fmt: skip
"""Assumption: usual sizes where none is given."""
FLETCHING_FROM_MM = MM_PER_IN
SPINE_TOLD_SHARE = 0.06
"""Assumption: a shaft's label against a spine gauge, one standard deviation."""
SPINE_MEASURED_SHARE = 0.015
LEAST_GR_PER_IN = 1.0
LEAST_SCALING, MOST_SCALING = 0.5, 1.8
"""A shaft this much lighter or heavier than its parts say is asked about."""


@dataclass(frozen=True)
class Spine:
    """Static spine of the shafts, in pounds of the wood scale."""

    value: Estimate
    basis: Literal["measured", "told"]
    standard: SpineStandard
    entries: tuple[str, ...]
    spread: float = 0.0
    """Stiffest less weakest of the arrows measured."""


@dataclass(frozen=True)
class BuildSheet:
    """The arrow as it stands for the mechanics."""

    length_mm: float
    """Nock groove to the end of the shaft."""
    diameter_mm: float
    material: ShaftMaterial | None
    beam: Beam
    parts: tuple[Part, ...]
    spine: Spine | None
    tapered: bool
    assumed: tuple[str, ...]
    unexplained_gr: float | None
    """What the scale says beyond the parts; None where one of the two is missing."""
    unbelievable: bool
    """The scale and the parts cannot be the same arrow."""
    finished_gr: float | None = None
    """The mass in force, where there is one: the beam is built to it."""

    @property
    def damping(self) -> float:
        return DAMPING[self.material]

    @property
    def modes(self) -> Modes:
        return modes_of(self.beam)

    @property
    def mass_gr(self) -> float:
        """Of the finished arrow: the one number every page shows."""
        return self.modes.mass / KG_PER_GRAIN if self.finished_gr is None else self.finished_gr

    @property
    def balance_mm(self) -> float:
        """From the nock groove."""
        return self.modes.centre * 1000

    @property
    def forward(self) -> float:
        """How far the balance lies forward of the middle, as a share of the length."""
        return self.balance_mm / self.length_mm - 0.5

    @property
    def frequency_hz(self) -> float | None:
        """First natural frequency, free at both ends: a tap on the hung arrow."""
        if self.spine is None:
            return None
        return self.modes.frequency(stiffness(self.spine.value.value))

    @property
    def pointless(self) -> bool:
        """A shaft shot without a point, for practice."""
        return self.beam.tip < 1e-6


def build_sheet(arrows: ArrowFacts, mass: ArrowMass | None, draw_mm: float | None) -> BuildSheet:
    """Return the arrow for the mechanics; what nobody gave takes usual values and is named.

    Assumption: usual sizes where nobody gave any; named in `assumed`.

    >>> from lyrandis.core.example import rig
    >>> round(rig().arrow.sheet.balance_mm)
    465
    """
    assumed = []
    length = shaft_length(arrows)
    if length is None:
        length = beyond_draw(draw_mm)
        assumed.append("length")
    diameter, _ = arrows.part("shaft_diameter_mm")
    parts = {part.name: part for part in (mass.parts if mass else ())}
    if not parts:
        assumed.append("parts")
    tip = sum(_of(parts, name, usual) for name, usual in (("point", 110.0), ("insert", 8.0)))
    nock = _of(parts, "arrow nock", 9.0)
    fletching = _of(parts, "fletching", 24.0) + _of(parts, "wrap", 0.0)
    profile = profile_of(arrows, length.value)
    weighed = mass is not None and mass.basis != "parts"
    shaft = _of(parts, "shaft", 9.5 * length.value / MM_PER_IN)
    fitting, unbelievable = _fitting(shaft, tip + nock + fletching, mass if weighed else None)
    per_inch = fitting / (length.value / MM_PER_IN * fill(profile))
    feather, _ = arrows.part("fletching_length_mm")
    beam = Beam(
        length=round(length.value / 1000, 4),
        mass_per_length=round(max(per_inch, LEAST_GR_PER_IN) * KG_PER_GRAIN / M_PER_IN, 6),
        tip=round(tip * KG_PER_GRAIN, 6),
        nock=round(nock * KG_PER_GRAIN, 6),
        fletching=round(fletching * KG_PER_GRAIN, 6),
        fletching_from=FLETCHING_FROM_MM / 1000,
        fletching_length=(feather or FLETCHING_LENGTH_IN[arrows.material] * MM_PER_IN) / 1000,
        profile=profile,
    )
    parts_mass = mass.parts_mass if mass else None
    return BuildSheet(
        length_mm=length.value,
        diameter_mm=diameter or DIAMETER_MM[arrows.material],
        material=arrows.material,
        beam=beam,
        parts=mass.parts if mass else (),
        spine=spine_of(arrows),
        tapered=bool(profile),
        assumed=(*assumed, *(("diameter",) if diameter is None else ())),
        unexplained_gr=mass.mass.value - parts_mass.value
        if weighed and mass and parts_mass
        else None,
        unbelievable=unbelievable,
        finished_gr=mass.mass.value if mass else None,
    )


def _of(parts: dict[str, Part], name: str, usual: float) -> float:
    return parts[name].mass.value if name in parts else usual


def _fitting(shaft: float, rest: float, mass: ArrowMass | None) -> tuple[float, bool]:
    """Return the shaft's mass that meets the scale, and whether that is to be doubted."""
    if mass is None:
        return shaft, False
    wanted = deduced_shaft(mass.mass.value, rest)
    return wanted, not LEAST_SCALING * shaft <= wanted <= MOST_SCALING * shaft


def spine_of(arrows: ArrowFacts) -> Spine | None:
    """Return the set's static spine: the mean of its numbered arrows, else what is told of it.

    Numbers of shafts that others were put in for count no more.

    Assumption: a label is good to 12 %, a gauge to 3 %, two standard deviations.

    >>> from lyrandis.core.example import setup
    >>> spine_of(setup().arrows).standard
    'thousandths'
    """
    newest: dict[int, tuple[float, SpineStandard | None, str]] = {}
    others = arrows.other_shafts
    since = when(others[-1].recorded.entry) if others else None
    for recorded in arrows.numbered:
        reading = recorded.reading
        if since is not None and when(recorded.entry) < since:
            continue
        if reading.spine_lbf is not None and reading.arrow_number not in arrows.out_of_use:
            newest[reading.arrow_number] = (
                reading.spine_lbf,
                reading.spine_standard,
                recorded.entry.id,
            )
    told, build = arrows.part("spine_lbf")
    standard, _ = arrows.part("spine_standard")
    if newest:
        values = [value for value, _, _ in newest.values()]
        mean = sum(values) / len(values)
        return Spine(
            Estimate(mean, SPINE_MEASURED_SHARE * mean),
            "measured",
            next((s for _, s, _ in newest.values() if s), "wood"),
            tuple(entry for _, _, entry in newest.values()),
            max(values) - min(values),
        )
    if told is None or build is None:
        return None
    measured = build.source in ("measured", "weighed")
    share = SPINE_MEASURED_SHARE if measured else SPINE_TOLD_SHARE
    sd = max(share * told, (build.reading.spine_half_lbf or 0.0) / 2)
    basis: Literal["measured", "told"] = "measured" if measured else "told"
    return Spine(Estimate(told, sd), basis, standard or "wood", (build.entry.id,))
