"""What is recorded of the arrows, and of where they pass the bow.

Lengths in mm, masses in grains, spines in pounds of the wood scale.
"""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.arrow.words import (
    ArrowState,
    Flight,
    LengthDatum,
    ShaftMaterial,
    SpineStandard,
)
from lyrandis.core.errors import DomainError
from lyrandis.core.reading import BaseReading, require_something

ArrowNumber = Annotated[int, Field(ge=1, le=999)]


class ArrowMassed(BaseReading):
    """One finished arrow on the grain scale, or the usual mass of the set when unnumbered."""

    of = frozenset({"arrow_set"})
    by = "weighed"
    settles = False
    kind: Literal["arrow_mass"] = "arrow_mass"
    arrow_mass_gr: q.ArrowMass
    arrow_number: ArrowNumber | None = None


class ArrowBuild(BaseReading):
    """Parts of the arrow; what is left out stays as it was.

    `spine_standard` says how the spine was read; it is stored in pounds of the wood scale.
    A taper runs from its end's diameter to the middle's over its length; 0 takes it off.
    """

    of = frozenset({"arrow_set"})
    kind: Literal["arrow_build"] = "arrow_build"
    material: ShaftMaterial | None = None
    shaft_length_mm: q.ShaftLength | None = None
    length_datum: LengthDatum | None = None
    shaft_gr_per_in: q.ShaftGrainsPerInch | None = None
    shaft_gr: q.ShaftMass | None = None
    shaft_diameter_mm: q.ShaftDiameter | None = None
    spine_lbf: q.Spine | None = None
    spine_standard: SpineStandard | None = None
    tail_taper_mm: q.TaperLength | None = None
    tail_diameter_mm: q.ShaftDiameter | None = None
    head_taper_mm: q.TaperLength | None = None
    head_diameter_mm: q.ShaftDiameter | None = None
    fletching_length_mm: q.FletchingLength | None = None
    point_gr: q.PartMass | None = None
    insert_gr: q.PartMass | None = None
    arrow_nock_gr: q.PartMass | None = None
    fletching_gr: q.PartMass | None = None
    wrap_gr: q.PartMass | None = None

    @model_validator(mode="after")
    def _something(self) -> "ArrowBuild":
        return require_something(self, "shaft_length_mm")


class NumberedArrow(BaseReading):
    """What one numbered arrow is like; what is left out stays as it was.

    `straight_mm` is the run-out when spun; `nock_turn_deg` how far its nock is turned from the
    cock feather square to the string.
    """

    of = frozenset({"arrow_set"})
    by = "measured"
    kind: Literal["numbered_arrow"] = "numbered_arrow"
    arrow_number: ArrowNumber
    spine_lbf: q.Spine | None = None
    spine_standard: SpineStandard | None = None
    straight_mm: q.RunOut | None = None
    nock_turn_deg: q.NockTurn | None = None
    state: ArrowState | None = None
    retired: bool | None = None
    remark: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] | None = None

    @model_validator(mode="after")
    def _something(self) -> "NumberedArrow":
        if all(value is None for name, value in self if name not in ("kind", "arrow_number")):
            raise DomainError(
                "nothing_given",
                "Nothing is said of this arrow.",
                "Give its spine, straightness, nock turn, state or a remark.",
                "arrow_number",
            )
        return self


class TaperShot(BaseReading):
    """One taper tried on a wooden shaft and shot, and how it flew."""

    of = frozenset({"arrow_set"})
    by = "measured"
    settles = False
    kind: Literal["taper_shot"] = "taper_shot"
    tail_taper_mm: q.TaperLength = 0.0
    tail_diameter_mm: q.ShaftDiameter | None = None
    head_taper_mm: q.TaperLength = 0.0
    head_diameter_mm: q.ShaftDiameter | None = None
    flew: Flight

    @model_validator(mode="after")
    def _with_diameters(self) -> "TaperShot":
        for end in ("tail", "head"):
            if getattr(self, f"{end}_taper_mm") and getattr(self, f"{end}_diameter_mm") is None:
                raise DomainError(
                    "missing_diameter",
                    f"The {end} taper has no diameter at its end.",
                    f"Give the diameter at the {end} end.",
                    f"{end}_diameter_mm",
                )
        return self


class ArrowPass(BaseReading):
    """Where the arrow passes the bow; what is left out stays as it was.

    `window_mm` runs from the string's plane to the face the arrow lies on: + where the wood stands
    short of centre, - where it is cut past it. `track_mm` is how far the string itself runs to the
    arrow's side of the bow's middle.
    """

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["arrow_pass"] = "arrow_pass"
    window_mm: q.Window | None = None
    track_mm: q.StringTrack | None = None
    plunger: bool | None = None

    @model_validator(mode="after")
    def _something(self) -> "ArrowPass":
        return require_something(self, "window_mm")


ArrowReading = ArrowMassed | ArrowBuild | NumberedArrow | TaperShot | ArrowPass
