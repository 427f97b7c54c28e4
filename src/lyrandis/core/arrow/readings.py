"""What is recorded of the arrows, and of where they pass the bow.

Lengths in mm, masses in grains, spines in pounds of the wood scale.
"""

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import StringConstraints, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.arrow.words import (
    FLIGHT_WORDS,
    LENGTH_DATUM_WORDS,
    LIES_ON_WORDS,
    QUILL_WORDS,
    SHAFT_MATERIAL_WORDS,
    ArrowState,
    Flight,
    LengthDatum,
    LiesOn,
    Quill,
    ShaftMaterial,
    SpineStandard,
)
from lyrandis.core.by_ear import ByEar
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, gap, gr, gr_per_in, mm, phrase, plain, spine
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import BaseReading, require_something

ArrowNumber = Annotated[int, Quantity("arrow_number")]

_BUILD_FIGURES: tuple[tuple[str, str, Callable[[float], Figure]], ...] = (
    ("shaft_length_mm", "shaft {}", mm),
    ("shaft_gr_per_in", "{}", gr_per_in),
    ("shaft_gr", "bare shaft {}", gr),
    ("shaft_diameter_mm", "diameter {}", gap),
    ("spine_lbf", "spine {}", spine),
    ("tail_taper_mm", "tail taper {} long", mm),
    ("tail_diameter_mm", "{} at the tail", gap),
    ("head_taper_mm", "head taper {} long", mm),
    ("head_diameter_mm", "{} at the head", gap),
    ("point_gr", "point {}", gr),
    ("insert_gr", "insert {}", gr),
    ("arrow_nock_gr", "arrow nock {}", gr),
    ("fletching_gr", "fletching {}", gr),
    ("fletching_length_mm", "fletching {} long", mm),
    ("wrap_gr", "wrap {}", gr),
)


class ArrowMassed(BaseReading):
    """One finished arrow on the grain scale, or the usual mass of the set when unnumbered."""

    of = frozenset({"arrow_set"})
    by = "weighed"
    keyed_by = ("arrow_number",)
    kind: Literal["arrow_mass"] = "arrow_mass"
    arrow_mass_gr: q.ArrowMassGr
    arrow_number: ArrowNumber | None = None

    def say(self) -> Phrase:
        which = "Arrow" if self.arrow_number is None else f"Arrow {self.arrow_number}:"
        return phrase(f"{which} {{mass}} finished", mass=gr(self.arrow_mass_gr))


class ArrowBuild(BaseReading):
    """Parts of the arrow; what is left out stays as it was.

    `spine_standard` says how the spine was read; it is stored in pounds of the wood scale.
    A taper runs from its end's diameter to the middle's over its length; 0 takes it off.
    """

    of = frozenset({"arrow_set"})
    merges = True
    kind: Literal["arrow_build"] = "arrow_build"
    material: ShaftMaterial | None = None
    shaft_length_mm: q.ShaftLength | None = None
    length_datum: LengthDatum | None = None
    shaft_gr_per_in: q.ShaftGrainsPerInch | None = None
    shaft_gr: q.ShaftMass | None = None
    shaft_diameter_mm: q.ShaftDiameter | None = None
    spine_lbf: q.SpineLbf | None = None
    spine_half_lbf: q.SpineHalf | None = None
    """Half of the group the shafts were sold in; the spine is its middle."""
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

    def total_of(self) -> str | None:
        return None if self.point_gr is None else "point"

    def total(self) -> Figure:
        return gr(self.point_gr or 0.0)

    def changed_by(self, amount: float) -> "ArrowBuild":
        return ArrowBuild(point_gr=(self.point_gr or 0.0) + amount)

    def say(self) -> Phrase:
        parts = [SHAFT_MATERIAL_WORDS[self.material]] if self.material else []
        figures: dict[str, Figure] = {}
        for field, said, figure in _BUILD_FIGURES:
            value = getattr(self, field)
            if value is not None:
                parts.append(said.replace("{}", f"{{{field}}}"))
                figures[field] = figure(value)
        if self.spine_lbf is not None and self.spine_half_lbf is not None:
            figures["spine_lbf"] = spine(self.spine_lbf, self.spine_half_lbf)
        if self.length_datum and self.length_datum != "groove_to_end":
            parts.append(f"length: {LENGTH_DATUM_WORDS[self.length_datum]}")
        return phrase("Arrow parts: " + ", ".join(parts), **figures)


class NumberedArrow(BaseReading):
    """What one numbered arrow is like; what is left out stays as it was.

    `straight_mm` is the run-out when spun; `nock_turn_deg` how far its nock is turned from the
    cock feather square to the string.
    """

    of = frozenset({"arrow_set"})
    by = "measured"
    merges = True
    keyed_by = ("arrow_number",)
    kind: Literal["numbered_arrow"] = "numbered_arrow"
    arrow_number: ArrowNumber
    spine_lbf: q.SpineLbf | None = None
    spine_standard: SpineStandard | None = None
    straight_mm: q.RunOut | None = None
    nock_turn_deg: q.NockTurn | None = None
    state: ArrowState | None = None
    quill: Quill | None = None
    """How the feathers' front ends are, where a finger ran over them."""
    retired: bool | None = None
    remark: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] | None = None
    spine_ear: ByEar | None = None
    """Given where the spine was heard: the shaft was tapped and rang."""

    @model_validator(mode="after")
    def _something(self) -> "NumberedArrow":
        if not self.told():
            raise DomainError(
                "nothing_given",
                "Nothing is said of this arrow.",
                "Give its spine, straightness, nock turn, state, quill or a remark.",
                "arrow_number",
            )
        return self

    def say(self) -> Phrase:
        parts: list[str] = []
        figures: dict[str, Figure] = {}
        if self.spine_lbf is not None:
            half = self.spine_ear.half if self.spine_ear else None
            parts.append("spine {spine}" + (" by ear" if self.spine_ear else ""))
            figures["spine"] = spine(self.spine_lbf, half)
        if self.straight_mm is not None:
            parts.append("run-out {straight}")
            figures["straight"] = gap(self.straight_mm)
        if self.nock_turn_deg is not None:
            parts.append("nock turned {turn}")
            figures["turn"] = Figure(value=self.nock_turn_deg, unit="deg")
        if self.state is not None:
            sound = self.state == "sound"
            parts.append("flexed and looked at, sound" if sound else "cracked, out of the set")
        if self.quill is not None:
            parts.append(QUILL_WORDS[self.quill])
        if self.retired is not None:
            parts.append("retired" if self.retired else "back in the set")
        if self.remark:
            parts.append(plain(self.remark))
        return phrase(f"Arrow {self.arrow_number}: " + ", ".join(parts), **figures)


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

    def say(self) -> Phrase:
        ends = []
        figures: dict[str, Figure] = {}
        for end in ("tail", "head"):
            length = getattr(self, f"{end}_taper_mm")
            across = getattr(self, f"{end}_diameter_mm")
            if length and across:
                ends.append(f"{end} {{{end}}} to {{{end}_end}}")
                figures |= {end: mm(length), f"{end}_end": gap(across)}
        tapered = ", ".join(ends) if ends else "parallel"
        return phrase(f"Taper shot: {tapered}; {FLIGHT_WORDS[self.flew]}", **figures)


class ArrowPass(BaseReading):
    """Where the arrow passes the bow; what is left out stays as it was.

    `window_mm` runs from the string's plane to the face the arrow lies on: + where the wood stands
    short of centre, - where it is cut past it. `track_mm` is how far the string itself runs to the
    arrow's side of the bow's middle.
    """

    of = frozenset({"bow"})
    by = "measured"
    merges = True
    kind: Literal["arrow_pass"] = "arrow_pass"
    window_mm: q.Window | None = None
    track_mm: q.StringTrack | None = None
    plunger: bool | None = None
    lies_on: LiesOn | None = None

    @model_validator(mode="after")
    def _something(self) -> "ArrowPass":
        return require_something(self, "window_mm")

    def say(self) -> Phrase:
        parts: list[str] = []
        figures: dict[str, Figure] = {}
        if self.window_mm is not None:
            where = "short of" if self.window_mm > 0 else "past"
            parts.append(f"{{window}} {where} centre" if self.window_mm else "cut to centre")
            figures["window"] = gap(abs(self.window_mm))
        if self.track_mm is not None:
            where = "to the arrow's side" if self.track_mm >= 0 else "away from the arrow"
            parts.append(f"string tracks {{track}} {where}")
            figures["track"] = gap(abs(self.track_mm))
        if self.plunger is not None:
            parts.append("plunger" if self.plunger else "hard side plate")
        if self.lies_on is not None:
            parts.append(f"lies on {LIES_ON_WORDS[self.lies_on]}")
        return phrase("Arrow pass: " + ", ".join(parts), **figures)


ArrowReading = ArrowMassed | ArrowBuild | NumberedArrow | TaperShot | ArrowPass
