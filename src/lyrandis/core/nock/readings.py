"""What is recorded at the nock and on the riser. Lengths in mm, masses in grams."""

from typing import Annotated, Literal

from pydantic import model_validator

from lyrandis.core import quantities as q
from lyrandis.core.constants import GRAINS_PER_GRAM
from lyrandis.core.errors import DomainError
from lyrandis.core.nock.words import (
    BOW_KIT_WORDS,
    LIMB_PLACE_WORDS,
    NOCK_DATUM_WORDS,
    NOCK_FLIGHT_WORDS,
    BowKit,
    LimbPlace,
    NockDatum,
    NockFlight,
)
from lyrandis.core.phrase import Figure, Phrase, count, gap, phrase, plain
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import BaseReading, Name, require_something

BoltTurns = Annotated[float, Quantity("bolt_turns")]


class NockHeight(BaseReading):
    """Where the arrow's nock stands on the string, above square."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["nock_height"] = "nock_height"
    height_mm: q.NockHeightMm
    datum: NockDatum

    def total_of(self) -> str:
        return "nock"

    def total(self) -> Figure:
        return gap(self.height_mm)

    def changed_by(self, amount: float) -> "NockHeight":
        return NockHeight(height_mm=round(self.height_mm + amount, 6), datum=self.datum)

    def say(self) -> Phrase:
        return phrase(
            f"Nock height {{height}}, {NOCK_DATUM_WORDS[self.datum]}", height=gap(self.height_mm)
        )


class NockLocked(BaseReading):
    """The nock height is found and fixed, or free to be moved again."""

    of = frozenset({"rig"})
    needs = frozenset({"bow", "string"})
    kind: Literal["nock_locked"] = "nock_locked"
    locked: bool = True

    def say(self) -> Phrase:
        return phrase("Nock height fixed" if self.locked else "Nock height free again")


class NockShot(BaseReading):
    """A lift that was shot, and what the flight said of it."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = frozenset({"bow", "string"})
    kind: Literal["nock_shot"] = "nock_shot"
    lift_mm: q.NockHeightMm
    flew: NockFlight

    def say(self) -> Phrase:
        return phrase(f"Lift {{lift}}: {NOCK_FLIGHT_WORDS[self.flew]}", lift=gap(self.lift_mm))


class ArrowNock(BaseReading):
    """The plastic or self nock of the arrows: how thick it is, and how wide its groove."""

    of = frozenset({"arrow_set"})
    by = "measured"
    merges = True
    kind: Literal["arrow_nock"] = "arrow_nock"
    outside_mm: q.NockOutside | None = None
    groove_mm: q.NockGroove | None = None

    @model_validator(mode="after")
    def _something(self) -> "ArrowNock":
        return require_something(self, "outside_mm")

    def say(self) -> Phrase:
        parts, figures = [], {}
        for name, value, words in (
            ("outside", self.outside_mm, "{outside} thick"),
            ("groove", self.groove_mm, "groove {groove}"),
        ):
            if value is not None:
                parts.append(words)
                figures[name] = gap(value)
        return phrase("Arrow's nock: " + ", ".join(parts), **figures)


class TillerGaps(BaseReading):
    """String to both limbs, square from the string, at the same place on each."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["tiller_gaps"] = "tiller_gaps"
    upper_mm: q.TillerGap
    lower_mm: q.TillerGap
    place: LimbPlace
    lower_place: LimbPlace | None = None
    """Where on the lower limb, when that is told apart."""

    @property
    def more_mm(self) -> float:
        """Upper less lower gap."""
        return round(self.upper_mm - self.lower_mm, 6)

    @model_validator(mode="after")
    def _alike(self) -> "TillerGaps":
        if self.lower_place is not None and self.lower_place != self.place:
            raise DomainError(
                "unlike_places",
                f"The upper gap was taken at {LIMB_PLACE_WORDS[self.place]}, the lower at "
                f"{LIMB_PLACE_WORDS[self.lower_place]}.",
                "Measure both at the same place on each limb.",
                "lower_place",
            )
        return self

    def say(self) -> Phrase:
        return phrase(
            f"Tiller gaps at {LIMB_PLACE_WORDS[self.place]}: upper {{upper}}, lower {{lower}}",
            upper=gap(self.upper_mm),
            lower=gap(self.lower_mm),
        )


class TillerTold(BaseReading):
    """How much more the upper tiller gap is than the lower, told as one number."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["tiller_told"] = "tiller_told"
    more_mm: q.TillerMore
    place: LimbPlace | None = None
    """Where on the limbs, if it was said."""

    def say(self) -> Phrase:
        at = f" at {LIMB_PLACE_WORDS[self.place]}" if self.place else ""
        if self.more_mm == 0:
            return phrase(f"Tiller even{at}")
        way = "more" if self.more_mm > 0 else "less"
        return phrase(
            f"Tiller{at}: upper gap {{by}} {way} than the lower", by=gap(abs(self.more_mm))
        )


class LimbsInLine(BaseReading):
    """How far the string lies off the middle of each limb's root, + to the arrow's side."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["limbs_in_line"] = "limbs_in_line"
    upper_mm: q.Aside
    lower_mm: q.Aside

    def say(self) -> Phrase:
        return phrase(
            "String off the limbs' middles: upper {upper}, lower {lower}",
            upper=gap(self.upper_mm),
            lower=gap(self.lower_mm),
        )


class CentreShot(BaseReading):
    """How far the point stands outside the string's line, seen from behind."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "arrow_set"})
    kind: Literal["centre_shot"] = "centre_shot"
    out_mm: q.Aside

    def say(self) -> Phrase:
        return phrase("Point {out} outside the string's line", out=gap(self.out_mm))


class LimbBolts(BaseReading):
    """Turns the limb bolts are out from fully in; what is left out stays as it was."""

    of = frozenset({"bow"})
    by = "measured"
    merges = True
    kind: Literal["limb_bolts"] = "limb_bolts"
    upper_turns: BoltTurns | None = None
    lower_turns: BoltTurns | None = None
    most_turns: BoltTurns | None = None
    """The maker's most."""

    @model_validator(mode="after")
    def _something(self) -> "LimbBolts":
        return require_something(self, "upper_turns")

    def total_of(self) -> str | None:
        return None if self.upper_turns is None or self.lower_turns is None else "bolts"

    def total(self) -> Figure:
        return count(((self.upper_turns or 0.0) + (self.lower_turns or 0.0)) / 2)

    def changed_by(self, amount: float) -> "LimbBolts":
        upper, lower = (self.upper_turns or 0.0), (self.lower_turns or 0.0)
        return LimbBolts(upper_turns=upper + amount, lower_turns=lower + amount)

    def say(self) -> Phrase:
        parts: list[str] = []
        figures: dict[str, Figure] = {}
        for name, value, words in (
            ("upper", self.upper_turns, "upper {upper} turns out"),
            ("lower", self.lower_turns, "lower {lower} turns out"),
            ("most", self.most_turns, "maker's most {most}"),
        ):
            if value is not None:
                parts.append(words)
                figures[name] = count(value)
        return phrase("Limb bolts: " + ", ".join(parts), **figures)


class RiserWeight(BaseReading):
    """A weight on the riser and where it sits from the grip's pivot; no mass takes it off."""

    of = frozenset({"rig"})
    by = "weighed"
    needs = frozenset({"bow"})
    keyed_by = ("place",)
    kind: Literal["riser_weight"] = "riser_weight"
    place: Name
    """What the archer calls it, e.g. lower insert."""
    mass_g: q.RiserMass
    forward_mm: q.Forward = 20.0
    up_mm: q.Upward

    def total_of(self) -> str:
        return "riser_weight"

    def total(self) -> Figure:
        return Figure(self.mass_g, "g")

    def changed_by(self, amount: float) -> "RiserWeight":
        mass_g = round(self.mass_g + amount / GRAINS_PER_GRAM, 3)
        return self.model_copy(update={"mass_g": mass_g})

    def say(self) -> Phrase:
        place = plain(self.place)
        if self.mass_g == 0:
            return phrase(f"Riser weight {place}: taken off")
        return phrase(
            f"Riser weight {place}: {self.mass_g:g} g, {{up}} up, {{forward}} forward",
            up=gap(self.up_mm),
            forward=gap(self.forward_mm),
        )


class RiserSide(BaseReading):
    """The riser seen from the side; what is left out stays as it was."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "archer"})
    merges = True
    kind: Literal["riser_side"] = "riser_side"
    shelf_under_rest_mm: q.UnderRest | None = None
    grip_under_rest_mm: q.UnderRest | None = None
    """From the rest (or shelf, or hand) down to the mark for the top of the hand."""
    hand_at_full_mm: q.HandAtFull | None = None
    """How far the hand's top stands over its mark at full draw; - lower."""

    @model_validator(mode="after")
    def _something(self) -> "RiserSide":
        return require_something(self, "grip_under_rest_mm")

    def say(self) -> Phrase:
        parts, figures = [], {}
        for name, value, words in (
            ("shelf", self.shelf_under_rest_mm, "shelf {shelf} under the rest"),
            ("grip", self.grip_under_rest_mm, "grip mark {grip} under the rest"),
        ):
            if value is not None:
                parts.append(words)
                figures[name] = gap(value)
        if self.hand_at_full_mm is not None:
            where = "under" if self.hand_at_full_mm < 0 else "over"
            parts.append(f"hand {{hand}} {where} its mark at full draw")
            figures["hand"] = gap(abs(self.hand_at_full_mm))
        return phrase(", ".join(parts).capitalize(), **figures)


class UsualCrawl(BaseReading):
    """How far under the nock the hook stands for the shots made most; 0 without a crawl."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    kind: Literal["usual_crawl"] = "usual_crawl"
    crawl_mm: q.Crawl

    def say(self) -> Phrase:
        if self.crawl_mm == 0:
            return phrase("No crawl")
        return phrase("Usual crawl {crawl}", crawl=gap(self.crawl_mm))


class BowKitTold(BaseReading):
    """What can be set on the bow beside its string and its nock."""

    of = frozenset({"bow"})
    kind: Literal["bow_kit"] = "bow_kit"
    kit: BowKit

    def say(self) -> Phrase:
        return phrase(f"On this bow {BOW_KIT_WORDS[self.kit]}")


NockReading = (
    NockHeight
    | NockLocked
    | NockShot
    | ArrowNock
    | TillerGaps
    | TillerTold
    | LimbsInLine
    | CentreShot
    | LimbBolts
    | RiserWeight
    | RiserSide
    | UsualCrawl
    | BowKitTold
)
