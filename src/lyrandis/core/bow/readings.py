"""What is recorded of a bow: its kind, lengths, weights, limits and condition.

Lengths in mm, forces in lbf, masses in grains, speeds in m/s.
"""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.archer.words import DATUM_WORDS, Datum
from lyrandis.core.bow.words import (
    ASSEMBLY_WORDS,
    BOW_MADE_WORDS,
    FAMILY_WORDS,
    INSPECTION_WORDS,
    LENGTH_TAKEN_WORDS,
    LIMBS_ARE_WORDS,
    LIMBS_MADE_WORDS,
    AssemblyStep,
    BowMade,
    Family,
    InspectionItem,
    LengthTaken,
    LimbsAre,
    LimbsMade,
)
from lyrandis.core.by_ear import ByEar
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, gpp, gr, lbf, mm, mps, phrase
from lyrandis.core.reading import BaseReading, PartKind, require_something


class BowFamily(BaseReading):
    """What sort of bow it is."""

    of = frozenset({"bow"})
    kind: Literal["bow_family"] = "bow_family"
    family: Family

    def say(self) -> Phrase:
        return phrase(f"Family: {FAMILY_WORDS[self.family]}")


STRUNG_SHORTER_MM = 3 * MM_PER_IN
"""Assumption: a strung bow spans its string, which is usually 3 in shorter than the bow's back."""


class BowLength(BaseReading):
    """Nock to nock, along the back unless it was taken of the strung bow."""

    of = frozenset({"bow"})
    kind: Literal["bow_length"] = "bow_length"
    bow_length_mm: q.BowLengthMm
    taken: LengthTaken | None = None
    """Not told: along the back, as the trade has it."""

    @property
    def back_mm(self) -> float:
        """The length along the back, which everything is reckoned with."""
        strung = self.taken == "strung"
        return round(self.bow_length_mm + STRUNG_SHORTER_MM * strung, 6)

    def say(self) -> Phrase:
        how = f", {LENGTH_TAKEN_WORDS[self.taken]}" if self.taken else ""
        return phrase(f"Bow length {{length}}{how}", length=mm(self.bow_length_mm))


class RiserLength(BaseReading):
    """The stiff middle, fades included."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["riser_length"] = "riser_length"
    riser_length_mm: q.RiserLengthMm

    def say(self) -> Phrase:
        return phrase("Riser {length}", length=mm(self.riser_length_mm))


class BowMark(BaseReading):
    """The weight written on the bow and the draw it is written for."""

    of = frozenset({"bow"})
    kind: Literal["bow_mark"] = "bow_mark"
    draw_weight_lbf: q.DrawWeightLbf
    draw_length_mm: q.DrawLength = MARKED_DRAW_MM

    def say(self) -> Phrase:
        return phrase(
            "Marked {weight} at {draw}",
            weight=lbf(self.draw_weight_lbf),
            draw=mm(self.draw_length_mm),
        )


class BowWeighed(BaseReading):
    """One reading of a bow scale.

    `string_at` says where the draw was read: at the scale's hook, or at the arrow's nock groove
    while the hand or tab held the string further back.
    """

    of = frozenset({"bow"})
    by = "weighed"
    settles = False
    kind: Literal["bow_weighed"] = "bow_weighed"
    draw_weight_lbf: q.DrawWeightLbf
    draw_length_mm: q.DrawLength
    datum: Datum = "trade"
    string_at: Literal["hook", "groove"] = "hook"

    def say(self) -> Phrase:
        where = "the hook" if self.string_at == "hook" else "the nock groove"
        return phrase(
            f"Draw weight {{weight}} with {where} at {{draw}}{DATUM_WORDS[self.datum]}",
            weight=lbf(self.draw_weight_lbf),
            draw=mm(self.draw_length_mm),
        )


class DrawLimit(BaseReading):
    """The longest draw the maker allows."""

    of = frozenset({"bow"})
    kind: Literal["draw_limit"] = "draw_limit"
    draw_length_mm: q.DrawLength

    def say(self) -> Phrase:
        return phrase("Maker's limit {draw} of draw", draw=mm(self.draw_length_mm))


class StackFelt(BaseReading):
    """Where the archer feels the weight climb: the string at the hook, as a draw length."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["stack_felt"] = "stack_felt"
    draw_length_mm: q.DrawLength

    def say(self) -> Phrase:
        return phrase("Stack felt from {draw}", draw=mm(self.draw_length_mm))


class ArrowMinimum(BaseReading):
    """The lightest arrow the bowyer allows, per pound or outright."""

    of = frozenset({"bow"})
    kind: Literal["arrow_minimum"] = "arrow_minimum"
    grains_per_pound: q.GrainsPerPound | None = None
    arrow_mass_gr: q.ArrowMassGr | None = None

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

    def say(self) -> Phrase:
        figure = (
            gr(self.arrow_mass_gr)
            if self.arrow_mass_gr is not None
            else gpp(self.grains_per_pound or 0.0)
        )
        return phrase("Bowyer's minimum arrow {least}", least=figure)


class LimbPair(BaseReading):
    """How the two limbs of a bow belong together; what is left out stays as it was."""

    of = frozenset({"bow"})
    merges = True
    kind: Literal["limb_pair"] = "limb_pair"
    pair: LimbsAre | None = None
    upper_lbf: q.DrawWeightLbf | None = None
    lower_lbf: q.DrawWeightLbf | None = None
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
        return require_something(self, "pair")

    def say(self) -> Phrase:
        parts: list[str] = []
        figures: dict[str, Figure] = {}
        if self.pair:
            parts.append(LIMBS_ARE_WORDS[self.pair])
        if self.upper_lbf is not None and self.lower_lbf is not None:
            parts.append("upper {upper}, lower {lower}")
            figures |= {"upper": lbf(self.upper_lbf), "lower": lbf(self.lower_lbf)}
        if self.upper_length_mm is not None and self.lower_length_mm is not None:
            parts.append("upper {long} long, lower {longer}")
            figures |= {"long": mm(self.upper_length_mm), "longer": mm(self.lower_length_mm)}
        return phrase("Limbs: " + ", ".join(parts), **figures)


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

    def topics(self) -> frozenset[str]:
        return frozenset(f"inspected:{item}" for item in (*self.good, *self.failing))

    def say(self) -> Phrase:
        said = [INSPECTION_WORDS[item][1] for item in self.failing]
        if self.good:
            said.append(f"{len(self.good)} good")
        return phrase("Looked over: " + "; ".join(said))


class BowMadeAs(BaseReading):
    """Whether the bow is in one piece or to be taken down."""

    of = frozenset({"bow"})
    kind: Literal["bow_made"] = "bow_made"
    made: BowMade

    def say(self) -> Phrase:
        return phrase(f"Bow made {BOW_MADE_WORDS[self.made]}")


class LimbsMadeOf(BaseReading):
    """What the limbs are made of."""

    of = frozenset({"bow"})
    kind: Literal["limbs_made"] = "limbs_made"
    made: LimbsMade

    def say(self) -> Phrase:
        return phrase(f"Limbs {LIMBS_MADE_WORDS[self.made]}")


class PutTogether(BaseReading):
    """Steps of putting the bow together that were done."""

    of = frozenset({"bow"})
    by = "measured"
    kind: Literal["put_together"] = "put_together"
    done: Annotated[tuple[AssemblyStep, ...], Field(min_length=1)]

    def topics(self) -> frozenset[str]:
        return frozenset(f"put_together:{step}" for step in self.done)

    def say(self) -> Phrase:
        if len(self.done) == 1:
            return phrase(f"Put together: {ASSEMBLY_WORDS[self.done[0]][0]}")
        return phrase(f"Put together: {len(self.done)} steps done")


class BraceRange(BaseReading):
    """The brace heights the maker allows."""

    of = frozenset({"bow"})
    kind: Literal["brace_range"] = "brace_range"
    low_mm: q.BraceHeightMm
    high_mm: q.BraceHeightMm

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

    def say(self) -> Phrase:
        return phrase("Maker's brace {low} to {high}", low=mm(self.low_mm), high=mm(self.high_mm))


class ArrowSpeed(BaseReading):
    """One speed at full draw, by chronograph or by ear; without a mass, of the rig's arrows."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = frozenset({"archer", "bow"})
    kind: Literal["arrow_speed"] = "arrow_speed"
    speed_mps: q.ArrowSpeedMps
    arrow_mass_gr: q.ArrowMassGr | None = None
    ear: ByEar | None = None
    """Given where it was heard: release and strike in one recording."""

    def needed(self) -> frozenset[PartKind]:
        """Without a mass of its own it is of the arrows that were on the rig."""
        return (
            self.needs if self.arrow_mass_gr is not None else frozenset({*self.needs, "arrow_set"})
        )

    def say(self) -> Phrase:
        of = "" if self.arrow_mass_gr is None else ", an arrow of {mass}"
        mass = gr(self.arrow_mass_gr or 0.0)
        by = "Chronograph" if self.ear is None else "Speed by ear"
        half = None if self.ear is None else self.ear.half
        return phrase(f"{by} {{speed}}{of}", speed=mps(self.speed_mps, half), mass=mass)


BowReading = (
    BowFamily
    | BowLength
    | RiserLength
    | BowMark
    | BowWeighed
    | DrawLimit
    | StackFelt
    | ArrowMinimum
    | LimbPair
    | Inspected
    | BowMadeAs
    | LimbsMadeOf
    | PutTogether
    | BraceRange
    | ArrowSpeed
)
