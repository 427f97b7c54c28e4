"""What an archer can record: one discriminated union of readings, inside a dated entry.

Lengths in mm, forces in lbf, masses in grains. Entries are never changed: undo is another entry.
"""

from typing import Annotated, ClassVar, Literal, TypeVar, get_args

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.errors import DomainError

SubjectKind = Literal["archer", "bow", "string", "arrow_set", "rig"]
PartKind = Literal["archer", "bow", "string", "arrow_set"]
Source = Literal["weighed", "measured", "estimated", "told", "simulated"]
Datum = Literal["trade", "pivot", "back", "belly"]
Hold = Literal["split", "three_under", "thumb"]
Anchor = Literal["under_chin", "corner", "cheekbone"]
Hand = Literal["right", "left"]
Purpose = Literal["backyard", "woods", "field", "indoor", "hunting", "distance"]
Family = Literal[
    "selfbow",
    "straight_longbow",
    "reflex_deflex_longbow",
    "hunting_recurve",
    "target_recurve",
    "short_rigid_tip",
    "long_rigid_tip",
    "large_rigid_tip",
]
ShaftMaterial = Literal["wood", "carbon", "aluminium", "cane", "glass"]
SpineStandard = Literal["wood", "thousandths"]
LengthDatum = Literal["groove_to_end", "groove_to_tip", "shaft_only"]
ArrowState = Literal["sound", "cracked"]
Flight = Literal["clean", "stiff", "weak"]
StringMaterial = Literal["polyester", "low_stretch", "linen", "other"]

LimbsAre = Literal["matched", "two_bottoms", "two_tops", "two_makers"]
InspectionItem = Literal[
    "limbs",
    "tips",
    "finish",
    "laminations",
    "string",
    "string_grooves",
    "right_way_up",
    "stringer",
    "twang",
]

SubjectId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$")]
EntryId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9-]{7,63}$")]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
ArrowNumber = Annotated[int, Field(ge=1, le=999)]
Note = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]

_ANY: frozenset[SubjectKind] = frozenset(get_args(SubjectKind))


class _Frozen(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Subject(_Frozen):
    """Whom or what an entry speaks of."""

    kind: SubjectKind
    id: SubjectId


class BaseReading(_Frozen):
    of: ClassVar[frozenset[SubjectKind]]
    """Kinds of subject it can be recorded on."""
    by: ClassVar[Source] = "told"
    """Source assumed when none is given."""
    settles: ClassVar[bool] = True
    """True when a newer one takes the place of an older one; False when they add up."""


_Build = TypeVar("_Build", bound=BaseReading)


def _require_something(build: _Build, field: str) -> _Build:
    if all(value is None for name, value in build if name != "kind"):
        raise DomainError("nothing_given", "No part is named.", "Give at least one part.", field)
    return build


class Named(BaseReading):
    """Gives the subject its name."""

    of = _ANY
    kind: Literal["named"] = "named"
    name: Name


class Noted(BaseReading):
    """Words worth keeping."""

    of = _ANY
    settles = False
    kind: Literal["noted"] = "noted"
    text: Note


class Retraction(BaseReading):
    """Takes back an earlier entry; taking back a retraction puts that entry back."""

    of = _ANY
    settles = False
    kind: Literal["retraction"] = "retraction"
    entry_id: EntryId


class PutAway(BaseReading):
    """Puts a rig away from the switcher, or takes it out again."""

    of = frozenset({"rig"})
    kind: Literal["put_away"] = "put_away"
    away: bool = True


class PartFitted(BaseReading):
    """Names the part now on the rig; no id takes that kind of part off."""

    of = frozenset({"rig"})
    kind: Literal["part_fitted"] = "part_fitted"
    part: PartKind
    part_id: SubjectId | None


class DrawMarked(BaseReading):
    """Draw length read off an arrow marked at full draw."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    settles = False
    kind: Literal["draw_marked"] = "draw_marked"
    draw_length_mm: q.DrawLength
    datum: Datum = "trade"


class DrawOnScale(BaseReading):
    """Where the string at the hook stood, at full draw on a bow scale."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    settles = False
    kind: Literal["draw_on_scale"] = "draw_on_scale"
    hook_position_mm: q.HookPosition
    datum: Datum = "trade"


class DrawStated(BaseReading):
    """A draw length somebody said or supposed."""

    of = frozenset({"archer", "rig"})
    settles = False
    kind: Literal["draw_stated"] = "draw_stated"
    draw_length_mm: q.DrawLength
    datum: Datum = "trade"


class ArmTape(BaseReading):
    """Tape from the fingertip to the hollow at the ball of the shoulder."""

    of = frozenset({"archer"})
    by = "measured"
    settles = False
    kind: Literal["arm_tape"] = "arm_tape"
    arm_length_mm: q.ArmLength


class ArmSpan(BaseReading):
    """Fingertip to fingertip, arms spread."""

    of = frozenset({"archer"})
    by = "measured"
    settles = False
    kind: Literal["arm_span"] = "arm_span"
    arm_span_mm: q.ArmSpan


class HookDepth(BaseReading):
    """How far the string at the hook lies behind the arrow's nock groove at full draw."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    kind: Literal["hook_depth"] = "hook_depth"
    hook_depth_mm: q.HookDepth


class HoldChosen(BaseReading):
    """How the string is held."""

    of = frozenset({"archer", "rig"})
    kind: Literal["hold_chosen"] = "hold_chosen"
    hold: Hold


class AnchorChosen(BaseReading):
    """Where the drawing hand stops."""

    of = frozenset({"archer", "rig"})
    kind: Literal["anchor_chosen"] = "anchor_chosen"
    anchor: Anchor


class HandChosen(BaseReading):
    """The hand that draws the string."""

    of = frozenset({"archer", "rig"})
    kind: Literal["hand_chosen"] = "hand_chosen"
    hand: Hand


class PurposeChosen(BaseReading):
    """What the rig is for."""

    of = frozenset({"archer", "rig"})
    kind: Literal["purpose_chosen"] = "purpose_chosen"
    purpose: Purpose


class WeightWished(BaseReading):
    """The draw weight the archer wishes to hold at full draw."""

    of = frozenset({"archer", "rig"})
    kind: Literal["weight_wished"] = "weight_wished"
    draw_weight_lbf: q.DrawWeight


class BowFamily(BaseReading):
    """What sort of bow it is."""

    of = frozenset({"bow"})
    kind: Literal["bow_family"] = "bow_family"
    family: Family


class BowLength(BaseReading):
    """Unstrung, nock to nock along the back."""

    of = frozenset({"bow"})
    kind: Literal["bow_length"] = "bow_length"
    bow_length_mm: q.BowLength


class RiserLength(BaseReading):
    """The stiff middle, fades included."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["riser_length"] = "riser_length"
    riser_length_mm: q.RiserLength


class BowMark(BaseReading):
    """The weight written on the bow and the draw it is written for."""

    of = frozenset({"bow"})
    kind: Literal["bow_mark"] = "bow_mark"
    draw_weight_lbf: q.DrawWeight
    draw_length_mm: q.DrawLength = MARKED_DRAW_MM


class BowWeighed(BaseReading):
    """One reading of a bow scale.

    `string_at` says where the draw was read: at the scale's hook, or at the arrow's nock groove
    while the hand or tab held the string further back.
    """

    of = frozenset({"bow"})
    by = "weighed"
    settles = False
    kind: Literal["bow_weighed"] = "bow_weighed"
    draw_weight_lbf: q.DrawWeight
    draw_length_mm: q.DrawLength
    datum: Datum = "trade"
    string_at: Literal["hook", "groove"] = "hook"


class DrawLimit(BaseReading):
    """The longest draw the maker allows."""

    of = frozenset({"bow"})
    kind: Literal["draw_limit"] = "draw_limit"
    draw_length_mm: q.DrawLength


class ArrowMinimum(BaseReading):
    """The lightest arrow the bowyer allows, per pound or outright."""

    of = frozenset({"bow"})
    kind: Literal["arrow_minimum"] = "arrow_minimum"
    grains_per_pound: q.GrainsPerPound | None = None
    arrow_mass_gr: q.ArrowMass | None = None

    @model_validator(mode="after")
    def _one_of_them(self) -> "ArrowMinimum":
        if (self.grains_per_pound is None) == (self.arrow_mass_gr is None):
            raise DomainError(
                "one_needed",
                "A bowyer's minimum is either grains per pound or a mass.",
                "Give one of the two, e.g. floor 9 gpp or floor 430 gr.",
                "grains_per_pound",
            )
        return self


class LimbPair(BaseReading):
    """How the two limbs of a bow belong together; what is left out stays as it was."""

    of = frozenset({"bow"})
    kind: Literal["limb_pair"] = "limb_pair"
    pair: LimbsAre | None = None
    upper_lbf: q.DrawWeight | None = None
    lower_lbf: q.DrawWeight | None = None
    upper_length_mm: q.LimbLength | None = None
    lower_length_mm: q.LimbLength | None = None

    @model_validator(mode="after")
    def _both_of_them(self) -> "LimbPair":
        for upper, lower, words in (
            (self.upper_lbf, self.lower_lbf, "weight"),
            (self.upper_length_mm, self.lower_length_mm, "length"),
        ):
            if (upper is None) != (lower is None):
                raise DomainError(
                    "both_needed",
                    f"Only one limb's {words} is given.",
                    "Give both, upper limb first.",
                    "lower_lbf" if words == "weight" else "lower_length_mm",
                )
        return _require_something(self, "pair")


class Inspected(BaseReading):
    """What was looked at before stringing: good, or failing."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["inspected"] = "inspected"
    good: tuple[InspectionItem, ...] = ()
    failing: tuple[InspectionItem, ...] = ()

    @model_validator(mode="after")
    def _each_once(self) -> "Inspected":
        if not self.good and not self.failing:
            raise DomainError(
                "nothing_given", "Nothing was looked at.", "Mark at least one item.", "good"
            )
        if len({*self.good, *self.failing}) < len(self.good) + len(self.failing):
            raise DomainError(
                "twice", "An item is marked twice.", "Mark each item good or failing.", "failing"
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
        return _require_something(self, "window_mm")


class BraceRange(BaseReading):
    """The brace heights the maker allows."""

    of = frozenset({"bow"})
    kind: Literal["brace_range"] = "brace_range"
    low_mm: q.BraceHeight
    high_mm: q.BraceHeight

    @model_validator(mode="after")
    def _in_order(self) -> "BraceRange":
        if self.low_mm > self.high_mm:
            raise DomainError(
                "wrong_order",
                "The lower brace height is above the higher one.",
                "Give the lower first.",
                "low_mm",
            )
        return self


class GripDepth(BaseReading):
    """From the pivot (deepest part of the grip) to the back or belly where the arrow passes."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["grip_depth"] = "grip_depth"
    to: Literal["back", "belly"]
    depth_mm: q.GripDepth


class BraceHeight(BaseReading):
    """String to the deepest part of the grip, or to the back of the riser, at rest."""

    of = frozenset({"rig"})
    by = "measured"
    kind: Literal["brace_height"] = "brace_height"
    brace_height_mm: q.BraceHeight
    datum: Literal["pivot", "back"] = "pivot"


class ArrowSpeed(BaseReading):
    """One chronograph reading at full draw; without a mass, of the arrows on the rig."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    kind: Literal["arrow_speed"] = "arrow_speed"
    speed_mps: q.ArrowSpeed
    arrow_mass_gr: q.ArrowMass | None = None


class StringBuild(BaseReading):
    """How the string is made."""

    of = frozenset({"string"})
    kind: Literal["string_build"] = "string_build"
    material: StringMaterial | None = None
    strands: Annotated[int, Field(ge=4, le=60)] | None = None
    string_length_mm: q.StringLength | None = None
    string_mass_gr: q.PartMass | None = None

    @model_validator(mode="after")
    def _something(self) -> "StringBuild":
        return _require_something(self, "material")


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
        return _require_something(self, "shaft_length_mm")


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


Reading = Annotated[
    Named
    | Noted
    | Retraction
    | PutAway
    | PartFitted
    | DrawMarked
    | DrawOnScale
    | DrawStated
    | ArmTape
    | ArmSpan
    | HookDepth
    | HoldChosen
    | AnchorChosen
    | HandChosen
    | PurposeChosen
    | WeightWished
    | BowFamily
    | BowLength
    | RiserLength
    | BowMark
    | BowWeighed
    | DrawLimit
    | ArrowMinimum
    | LimbPair
    | Inspected
    | BraceRange
    | GripDepth
    | BraceHeight
    | ArrowSpeed
    | StringBuild
    | ArrowMassed
    | ArrowBuild
    | NumberedArrow
    | TaperShot
    | ArrowPass,
    Field(discriminator="kind"),
]
READINGS: tuple[type[BaseReading], ...] = get_args(get_args(Reading)[0])


def topics(reading: BaseReading) -> frozenset[str]:
    """Return what a reading settles; two readings of one topic take each other's place.

    Empty for readings that add up.

    >>> sorted(topics(GripDepth(to="back", depth_mm=44.0)))
    ['grip_depth:back']
    """
    if isinstance(reading, ArrowMassed) and reading.arrow_number is not None:
        return frozenset({f"arrow_mass:{reading.arrow_number}"})
    if not reading.settles:
        return frozenset()
    if isinstance(reading, NumberedArrow):
        given = (name for name, value in reading if value is not None)
        told = (name for name in given if name not in ("kind", "arrow_number"))
        return frozenset(f"numbered_arrow:{reading.arrow_number}:{name}" for name in told)
    if isinstance(reading, ArrowBuild | StringBuild | LimbPair | ArrowPass):
        given = (name for name, value in reading if name != "kind" and value is not None)
        return frozenset(f"{reading.kind}:{name}" for name in given)
    if isinstance(reading, Inspected):
        return frozenset(f"inspected:{item}" for item in (*reading.good, *reading.failing))
    which = getattr(reading, "part", None) or getattr(reading, "to", None)
    kind: str = getattr(reading, "kind", "")
    return frozenset({f"{kind}:{which}" if which else kind})


class EntryDraft(_Frozen):
    """An entry as it is offered for recording."""

    subject: Subject
    reading: Reading
    happened_at: AwareDatetime | None = None
    source: Source | None = None
    note: Note | None = None
    as_typed: Annotated[str, StringConstraints(max_length=400)] | None = None
    id: EntryId | None = None

    @model_validator(mode="after")
    def _subject_fits(self) -> "EntryDraft":
        if self.subject.kind not in self.reading.of:
            wanted = " or ".join(sorted(self.reading.of)).replace("_", " ")
            raise DomainError(
                "wrong_subject",
                f"“{self.reading.kind}” cannot be recorded on {_a(self.subject.kind)}.",
                f"Record it on {_a(wanted)}.",
                "subject",
            )
        return self


def _a(noun: str) -> str:
    noun = noun.replace("_", " ")
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


class Fitted(_Frozen):
    """The parts that were on the rig when one of its entries was made."""

    archer: SubjectId | None = None
    bow: SubjectId | None = None
    string: SubjectId | None = None
    arrow_set: SubjectId | None = None


class Entry(EntryDraft):
    """An entry as recorded: when it happened, when it was written down, in what order."""

    id: EntryId
    seq: int
    happened_at: AwareDatetime
    recorded_at: AwareDatetime
    source: Source
    fitted: Fitted | None = None


class PostedEntry(EntryDraft):
    """A draft or a recorded entry, as a file or a what-if may hold."""

    seq: int | None = None
    recorded_at: AwareDatetime | None = None
    fitted: Fitted | None = None
