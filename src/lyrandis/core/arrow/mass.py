"""Finished arrow mass, weighed or from parts, and grains per pound. Masses in grains."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from statistics import fmean
from typing import Any, Literal

from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.readings import ArrowBuild, ArrowMassed
from lyrandis.core.arrow.spine import thousandths
from lyrandis.core.arrow.taper import fill, profile_of
from lyrandis.core.arrow.words import LengthDatum, ShaftMaterial
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.readings import ArrowMinimum
from lyrandis.core.bow.schools import SCHOOL_BAND_GPP, held_in_band
from lyrandis.core.bow.thrust import ComputedFloor
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN
from lyrandis.core.effective import Recorded
from lyrandis.core.estimate import Estimate
from lyrandis.core.memo import memo_by_equality

MassBasis = Literal["weighed", "told", "estimated", "parts"]

SCALE_SD_GR = 0.5
"""Assumption: a grain scale, one standard deviation."""
TOLD_MASS_SHARE = 0.03
ESTIMATED_MASS_SHARE = 0.08
"""Assumption: a supposed finished mass."""

# Assumption: usual parts where none is given, (mean, sd) in grains (per inch for the shaft).
SHAFT_GR_PER_IN: dict[ShaftMaterial | None, tuple[float, float]] = {
    "wood": (10.5, 1.2),
    "carbon": (8.5, 0.9),
    "aluminium": (9.5, 1.2),
    "cane": (10.0, 1.5),
    "glass": (13.0, 2.0),
    None: (9.5, 1.5),
}
POINT_GR = (110.0, 15.0)
INSERT_GR: dict[ShaftMaterial | None, tuple[float, float]] = {
    "carbon": (15.0, 5.0),
    "aluminium": (20.0, 6.0),
    "wood": (0.0, 0.0),
    "cane": (0.0, 0.0),
    "glass": (15.0, 6.0),
    None: (8.0, 8.0),
}
ARROW_NOCK_GR = (9.0, 1.0)
FLETCHING_GR = (24.0, 4.0)
WRAP_GR = (0.0, 0.0)
SHAFT_BEYOND_DRAW_IN = (1.25, 0.5)
_DATUM_MM: dict[LengthDatum, tuple[float, float]] = {
    "groove_to_end": (0.0, 0.0),
    "groove_to_tip": (-19.0, 4.0),
    "shaft_only": (10.0, 3.0),
}
"""Assumption: a point stands 3/4 in out of the shaft, a nock's groove 10 mm behind it."""
PART_SD_SHARE = 0.01
"""Assumption: a part's stated mass against the same part on a scale, one standard deviation."""

UNDER_TOLD_GPP = 0.5
"""An arrow further under a told least than this is refused."""
DANGER_GPP: dict[Family, float] = {
    "target_recurve": 5.3, "hunting_recurve": 6.0, "reflex_deflex_longbow": 6.0,
    "straight_longbow": 7.0, "selfbow": 7.5,
}  # fmt: skip
"""Assumption: at or under what makers of each kind allow; lighter arrows are refused [gr/lbf]."""
STATIC_DANGER_UNDER_GPP = 1.0
"""Static tips: their bowyers hold their own table as the limit, so danger begins this far under."""
NATURAL_DANGER_GPP = DANGER_GPP["selfbow"]
"""Natural limbs of any kind are refused from a selfbow's line on."""
MEND_OVER_DANGER_GPP = 0.5
BOTH_OVER_DANGER_GPP = 1.0
"""Light and weak together is refused this far above the danger line already."""
NEVER_GOOD_GPP = 6.0
"""Under this no word makes an arrow good."""


@dataclass(frozen=True)
class Part:
    """One part of the arrow: its mass, and whether anybody gave it."""

    name: str
    mass: Estimate
    given: bool


@dataclass(frozen=True)
class ArrowMass:
    """Finished mass of the set."""

    mass: Estimate
    basis: MassBasis
    lightest_gr: float
    heaviest_gr: float
    weighed: tuple[Recorded[ArrowMassed], ...]
    parts: tuple[Part, ...]
    parts_mass: Estimate | None
    stale: Recorded[ArrowBuild] | None
    """A change of parts made after the arrows were weighed."""


@dataclass(frozen=True)
class Floor:
    """The lightest arrow per pound that this bow should be given."""

    grains_per_pound: float
    basis: Literal["bowyer", "computed", "school"]
    """Whose word binds: the bowyer's, the mechanics', or an end of the school's band."""
    plus_minus: float
    computed: ComputedFloor
    """What the mechanics say, beside the word that binds."""
    band: tuple[float, float]
    """What the school allows this kind of bow, low and high [gr/lbf]."""
    family: Family
    natural: bool = False
    """True where the limbs were told to be all natural."""
    recorded: Recorded[ArrowMinimum] | None = None

    @property
    def told(self) -> bool:
        """True where maker or bowyer gave it."""
        return self.basis == "bowyer"

    @property
    def danger(self) -> float:
        """Grains per pound under which an arrow is refused: what breaks bows."""
        if self.told:
            return self.grains_per_pound - UNDER_TOLD_GPP
        line = DANGER_GPP.get(self.family)
        if line is None:
            return self.grains_per_pound - STATIC_DANGER_UNDER_GPP
        return max(line, NATURAL_DANGER_GPP) if self.natural else line

    @property
    def both_below(self) -> float:
        """Grains per pound under which an arrow that is weak as well is refused."""
        return self.grains_per_pound if self.told else self.danger + BOTH_OVER_DANGER_GPP


def parts_of(arrows: ArrowFacts, draw_mm: float | None) -> tuple[Part, ...]:
    """Return the arrow's parts with their masses; parts nobody gave take usual values.

    Empty when no shaft or point is known. The shaft's length defaults to a little over the draw.

    Assumption: usual parts where none is given.

    >>> from lyrandis.core.example import setup
    >>> [part.name for part in parts_of(setup().arrows, 711.2) if part.given]
    ['shaft', 'point']
    """
    material = arrows.material
    known = ("shaft_length_mm", "shaft_gr_per_in", "shaft_gr", "point_gr")
    if all(arrows.part(name)[0] is None for name in known):
        return ()
    return (
        _shaft_part(arrows, draw_mm),
        _part(arrows, "point", "point_gr", POINT_GR),
        _part(arrows, "insert", "insert_gr", INSERT_GR[material]),
        _part(arrows, "arrow nock", "arrow_nock_gr", ARROW_NOCK_GR),
        _part(arrows, "fletching", "fletching_gr", FLETCHING_GR),
        _part(arrows, "wrap", "wrap_gr", WRAP_GR),
    )


def shaft_length(arrows: ArrowFacts) -> Estimate | None:
    """Return the shaft's length from the nock groove to its end [mm], whatever it was told from.

    Assumption: a point stands 3/4 in out of the shaft, a nock's groove 10 mm behind it.

    >>> from lyrandis.core.example import setup
    >>> round(shaft_length(setup(["shaft 30 tip"]).arrows).value, 1)
    743.0
    """
    told, _ = arrows.part("shaft_length_mm")
    if told is None:
        return None
    datum, _ = arrows.part("length_datum")
    beyond, sd = _DATUM_MM[datum or "groove_to_end"]
    return Estimate(told + beyond, sd)


def beyond_draw(draw_mm: float | None) -> Estimate:
    """Return the length a shaft is supposed to have: a little over the draw [mm].

    Assumption: an inch and a quarter beyond the draw.

    >>> round(beyond_draw(711.2).value / 25.4, 2)
    29.25
    """
    beyond, sd = SHAFT_BEYOND_DRAW_IN
    return Estimate((draw_mm or MARKED_DRAW_MM) + beyond * MM_PER_IN, sd * MM_PER_IN)


def _shaft_part(arrows: ArrowFacts, draw_mm: float | None) -> Part:
    weighed, _ = arrows.part("shaft_gr")
    if weighed:
        return Part("shaft", Estimate(weighed, PART_SD_SHARE * weighed), True)
    length = shaft_length(arrows)
    per_inch, _ = arrows.part("shaft_gr_per_in")
    inches = length or beyond_draw(draw_mm)
    long, long_sd = inches.value / MM_PER_IN, inches.sd / MM_PER_IN
    per = (
        Estimate(per_inch, PART_SD_SHARE * per_inch)
        if per_inch
        else usual_per_inch(arrows.material, arrows.part("spine_lbf")[0])
    )
    tapered = fill(profile_of(arrows, inches.value))
    value = long * per.value * tapered
    mass = Estimate(value, tapered * math.hypot(long * per.sd, per.value * long_sd))
    return Part("shaft", mass, length is not None and per_inch is not None)


def usual_per_inch(material: ShaftMaterial | None, spine_lbf: float | None) -> Estimate:
    """Return what shafts of a material and stiffness usually weigh [gr per inch].

    wood 8.5 + .055 (spine - 45); carbon 10.6 - .0072 (thousandths - 340), held in 5.2 to 12;
    aluminium 8.5, cane 9.5. Without a spine the material's middle.
    Assumption: middles of what is sold, good to 7.5 % (docs/CALIBRATION.md).

    >>> usual_per_inch("wood", 55.0)
    Estimate(value=9.05, sd=0.67875)
    >>> usual_per_inch(None, 55.0)
    Estimate(value=9.5, sd=1.5)
    """
    usual = USUAL_GR_PER_IN.get(material) if material else None
    if usual is None or spine_lbf is None:
        return Estimate(*SHAFT_GR_PER_IN[material])
    value = usual(spine_lbf)
    return Estimate(round(value, 6), round(USUAL_SHARE * value, 9))


USUAL_SHARE = 0.075
LIGHTEST_WOOD = 5.5
LIGHTEST_CARBON, HEAVIEST_CARBON = 5.2, 12.0
USUAL_GR_PER_IN: dict[ShaftMaterial, Callable[[float], float]] = {
    "wood": lambda spine: max(8.5 + 0.055 * (spine - 45), LIGHTEST_WOOD),
    "carbon": lambda spine: min(
        max(10.6 - 0.0072 * (thousandths(spine) - 340), LIGHTEST_CARBON), HEAVIEST_CARBON
    ),
    "aluminium": lambda _: 8.5,
    "cane": lambda _: 9.5,
}


def _part(arrows: ArrowFacts, name: str, field: str, usual: tuple[float, float]) -> Part:
    given, _ = arrows.part(field)
    if given is None:
        return Part(name, Estimate(*usual), False)
    return Part(name, Estimate(given, PART_SD_SHARE * given), True)


def sum_of(parts: tuple[Part, ...]) -> Estimate | None:
    """Return the sum of the parts, or None when there are none.

    Source: sums of independent errors.

    >>> point = Part("point", Estimate(100.0, 3.0), True)
    >>> sum_of((point, Part("shaft", Estimate(200.0, 4.0), True)))
    Estimate(value=300.0, sd=5.0)
    """
    if not parts:
        return None
    return Estimate(
        sum(part.mass.value for part in parts), math.hypot(*(part.mass.sd for part in parts))
    )


@memo_by_equality
def arrow_mass_of(arrows: ArrowFacts, draw_mm: float | None) -> ArrowMass | None:
    """Return the finished mass: weighed if anything was, else as told, else from the parts.

    Source: the scale first; standard error of a mean.

    >>> from lyrandis.core.example import setup
    >>> arrow_mass_of(setup(["arrow 1 400gr", "arrow 2 404gr"]).arrows, None).mass.value
    402.0
    """
    parts = parts_of(arrows, draw_mm)
    parts_mass = sum_of(parts)
    out = arrows.out_of_use
    masses = [m for m in arrows.masses if m.reading.arrow_number not in out]
    weighed = tuple(m for m in masses if m.source not in ("told", "estimated"))
    told = tuple(m for m in masses if m.source == "told")
    guessed = tuple(m for m in masses if m.source == "estimated")
    ways: tuple[tuple[MassBasis, tuple[Recorded[ArrowMassed], ...], float], ...] = (
        ("weighed", weighed, 0.0),
        ("told", told, TOLD_MASS_SHARE),
        ("estimated", guessed, ESTIMATED_MASS_SHARE),
    )
    for basis, group, share in ways:
        if basis == "estimated" and parts_mass is not None:
            break
        if group:
            grains = [recorded.reading.arrow_mass_gr for recorded in group]
            mean, stale = _mean(grains, share), _changed_since(arrows, group)
            more = _put_on(arrows, draw_mm, mean, group) if stale else Estimate(0.0, 0.0)
            return ArrowMass(
                mass=Estimate(mean.value + more.value, math.hypot(mean.sd, more.sd)),
                basis=basis,
                lightest_gr=min(grains) + more.value,
                heaviest_gr=max(grains) + more.value,
                weighed=group,
                parts=parts,
                parts_mass=parts_mass,
                stale=stale,
            )
    if parts_mass is None:
        return None
    return ArrowMass(
        mass=parts_mass,
        basis="parts",
        lightest_gr=parts_mass.value,
        heaviest_gr=parts_mass.value,
        weighed=(),
        parts=parts,
        parts_mass=parts_mass,
        stale=None,
    )


def _put_on(
    arrows: ArrowFacts, draw_mm: float | None, mean: Estimate, group: Sequence[Recorded[Any]]
) -> Estimate:
    """Return what a change of parts put on since the weighing [gr], the deduced shaft kept."""
    newest = max((m.entry.happened_at, m.entry.seq) for m in group)
    before = [b for b in arrows.builds if (b.entry.happened_at, b.entry.seq) <= newest]
    since = arrows.builds[len(before) :]
    # what was first told after the weighing was so before it: told then goes first, else told first
    then = replace(arrows, builds=(*reversed(since), *before))
    was, now = ({p.name: p.mass for p in parts_of(a, draw_mm)} for a in (then, arrows))
    if not was:
        return Estimate(0.0, 0.0)
    shaft = deduced_shaft(mean.value, sum(m.value for n, m in was.items() if n != "shaft"))
    longer = shaft * (now["shaft"].value / was["shaft"].value - 1)
    others = [(now[name], was[name]) for name in now if name != "shaft"]
    doubt = (math.hypot(a.sd, b.sd) for a, b in others if a.value != b.value)
    return Estimate(longer + sum(a.value - b.value for a, b in others), math.hypot(*doubt))


def deduced_shaft(finished_gr: float, others_gr: float) -> float:
    """Return what a finished arrow leaves for its shaft [gr], whatever it comes to.

    Source: difference of masses; no shaft is lighter than `LEAST_SHAFT_GR`.

    >>> deduced_shaft(470.0, 160.0), deduced_shaft(150.0, 160.0)
    (310.0, 60.0)
    """
    return max(finished_gr - others_gr, LEAST_SHAFT_GR)


LEAST_SHAFT_GR = 60.0
"""Assumption: no shaft that is shot weighs less."""


def _mean(masses: list[float], share: float) -> Estimate:
    """Return the mean with its standard error, never better than the scale or the hearsay."""
    mean = fmean(masses)
    count = len(masses)
    squares = sum((mass - mean) ** 2 for mass in masses)
    error = math.sqrt(squares / (count - 1) / count) if count > 1 else 0.0
    return Estimate(mean, math.hypot(SCALE_SD_GR, error, share * mean))


def _changed_since(
    arrows: ArrowFacts, weighed: tuple[Recorded[ArrowMassed], ...]
) -> Recorded[ArrowBuild] | None:
    """Return the last change to a part's mass that came after the newest weighing."""
    newest = max((m.entry.happened_at, m.entry.seq) for m in weighed)
    fields = (
        "shaft_length_mm",
        "shaft_gr_per_in",
        "shaft_gr",
        "point_gr",
        "insert_gr",
        "arrow_nock_gr",
        "fletching_gr",
        "wrap_gr",
        "tail_taper_mm",
        "head_taper_mm",
    )
    for index in range(len(arrows.builds) - 1, 0, -1):
        build = arrows.builds[index]
        if (build.entry.happened_at, build.entry.seq) <= newest:
            break
        before = ArrowFacts(builds=arrows.builds[:index])
        changed = (
            name
            for name in fields
            if (value := getattr(build.reading, name)) is not None
            and _before(before, name) not in (None, value)
        )
        if any(True for _ in changed):
            return build
    return None


def _before(arrows: ArrowFacts, name: str) -> float | None:
    """Return what a part was; a taper nobody spoke of was none."""
    told: float | None = arrows.part(name)[0]
    return 0.0 if told is None and name.endswith("_taper_mm") else told


def grains_per_pound(mass: Estimate, weight: Estimate) -> Estimate:
    """Return arrow mass over draw weight [gr/lbf], relative errors added in quadrature.

    Source: definition; propagation of relative errors.

    >>> round(grains_per_pound(Estimate(468.0, 0.0), Estimate(42.6, 0.0)).value, 2)
    10.99
    """
    value = mass.value / weight.value
    return Estimate(value, value * math.hypot(mass.sd / mass.value, weight.sd / weight.value))


def floor_of(
    bow: BowFacts, weight: Estimate | None, computed: ComputedFloor, family: Family
) -> Floor:
    """Return the bowyer's minimum if there is one, else the computed floor held in the school's
    band for the kind [gr/lbf].

    Source: the bowyer's word goes before the mechanics (trade convention).

    >>> from lyrandis.core.example import setup
    >>> light = ComputedFloor(Estimate(5.2, 0.5), 60.0, 45.0)
    >>> floor_of(setup(["floor 9 gpp"]).bow, None, light, "target_recurve").grains_per_pound
    9.0
    >>> floor = floor_of(setup([]).bow, None, light, "target_recurve")
    >>> floor.grains_per_pound, floor.basis
    (6.5, 'school')
    """
    stated, band = bow.arrow_minimum, SCHOOL_BAND_GPP[family]
    if stated is not None:
        least = stated.reading.grains_per_pound
        if least is None and weight is not None and stated.reading.arrow_mass_gr is not None:
            least = stated.reading.arrow_mass_gr / weight.value
        if least is not None:
            return Floor(least, "bowyer", 0.0, computed, band, family, recorded=stated)
    held = held_in_band(computed.per_pound.value, family)
    inside = held == computed.per_pound.value
    return Floor(
        held,
        "computed" if inside else "school",
        computed.per_pound.plus_minus,
        computed,
        band,
        family=family,
        natural=bow.limbs_made is not None and bow.limbs_made.reading.made == "natural",
    )
