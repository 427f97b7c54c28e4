"""What is recorded of the string and of the brace it stands at. Lengths in mm, masses in grains."""

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.by_ear import ByEar
from lyrandis.core.errors import DomainError
from lyrandis.core.phrase import Figure, Phrase, count, gap, gr, mm, phrase
from lyrandis.core.quantities import Quantity
from lyrandis.core.reading import BaseReading, require_something
from lyrandis.core.string.words import (
    BRACE_DATUM_WORDS,
    STRING_MATERIAL_WORDS,
    STRING_TYPE_WORDS,
    BraceDatum,
    StringMaterial,
    StringType,
    Tail,
)

Turns = Annotated[float, Quantity("turns"), AfterValidator(lambda turns: round(2 * turns) / 2)]
Rating = Annotated[float, Quantity("rating")]
TakesDb = Annotated[tuple[Annotated[float, Quantity("take_level")], ...], Field(max_length=24)]
Ratings = Annotated[tuple[Rating, ...], Field(max_length=12)]


class StringBuild(BaseReading):
    """How the string is made; what is left out stays as it was."""

    of = frozenset({"string"})
    merges = True
    kind: Literal["string_build"] = "string_build"
    material: StringMaterial | None = None
    string_type: StringType | None = None
    strands: Annotated[int, Quantity("strands")] | None = None
    string_length_mm: q.StringLengthMm | None = None
    string_mass_gr: q.PartMass | None = None
    bundle_mm: q.BundleDiameter | None = None
    """Diameter of the unserved bundle."""
    thread_mm: q.ThreadDiameter | None = None
    """Diameter of the serving thread."""
    serving_mm: q.ServingLength | None = None
    """Length of the middle serving."""
    silencers_gr: q.PartMass | None = None
    """Both silencers together."""
    silencers_mm: q.SilencerPlace | None = None
    """From the loop's end to the silencer, along the string."""

    @model_validator(mode="after")
    def _something(self) -> "StringBuild":
        return require_something(self, "material")

    def total_of(self) -> str | None:
        return None if self.silencers_gr is None else "silencers"

    def total(self) -> Figure:
        return gr(self.silencers_gr or 0.0)

    def changed_by(self, amount: float) -> "StringBuild":
        return StringBuild(silencers_gr=(self.silencers_gr or 0.0) + amount)

    def say(self) -> Phrase:
        measured: tuple[tuple[str, str, float | None, Callable[[float], Figure]], ...] = (
            ("length", "{length} long", self.string_length_mm, mm),
            ("mass", "{mass}", self.string_mass_gr, gr),
            ("bundle", "bundle {bundle}", self.bundle_mm, gap),
            ("thread", "serving thread {thread}", self.thread_mm, gap),
            ("serving", "serving {serving}", self.serving_mm, mm),
            ("silencers", "silencers {silencers}", self.silencers_gr, gr),
            ("place", "silencers {place} from the loops", self.silencers_mm, mm),
        )
        parts = []
        if self.material:
            parts.append(STRING_MATERIAL_WORDS[self.material])
        if self.string_type:
            parts.append(STRING_TYPE_WORDS[self.string_type])
        if self.strands:
            parts.append(f"{self.strands} strands")
        figures: dict[str, Figure] = {}
        for name, words, value, figure in measured:
            if value is not None:
                parts.append(words)
                figures[name] = figure(value)
        return phrase("String: " + ", ".join(parts), **figures)


class StringTurns(BaseReading):
    """How many turns are in the string now, counted the way the bundle is laid."""

    of = frozenset({"string"})
    by = "measured"
    kind: Literal["string_turns"] = "string_turns"
    turns: Turns

    def total_of(self) -> str:
        return "turns"

    def total(self) -> Figure:
        return count(self.turns)

    def changed_by(self, amount: float) -> "StringTurns":
        return StringTurns(turns=self.turns + amount)

    def say(self) -> Phrase:
        return phrase("{turns} turns in the string", turns=count(self.turns))


TurnsChanged = Annotated[
    float, Quantity("turns_by"), AfterValidator(lambda turns: round(2 * turns) / 2)
]


class StringTurned(BaseReading):
    """Turns put into the string (+) or taken out (-), however many were in it."""

    of = frozenset({"string"})
    by = "measured"
    settles = False
    kind: Literal["string_turned"] = "string_turned"
    turns_by: TurnsChanged

    @model_validator(mode="after")
    def _some(self) -> "StringTurned":
        if self.turns_by == 0:
            raise DomainError(
                "nothing_given", "No turn was put in or taken out.", "Give how many.", "turns_by"
            )
        return self

    def changes(self) -> tuple[str, float]:
        return "turns", self.turns_by

    def say(self) -> Phrase:
        put = "put in" if self.turns_by > 0 else "taken out"
        by = abs(self.turns_by)
        return phrase(f"{{turns}} turn{'' if by == 1 else 's'} {put}", turns=count(by))


class StringStrung(BaseReading):
    """The bow was strung or unstrung with this string: its hours strung count."""

    of = frozenset({"string"})
    by = "measured"
    settles = False
    kind: Literal["string_strung"] = "string_strung"
    strung: bool

    def say(self) -> Phrase:
        return phrase("Strung" if self.strung else "Unstrung")


class StringSettled(BaseReading):
    """Whether the string is known to have settled, as one that has been shot for weeks."""

    of = frozenset({"string"})
    kind: Literal["string_settled"] = "string_settled"
    settled: bool = True

    def say(self) -> Phrase:
        return phrase("The string has settled" if self.settled else "The string is new")


class BraceHeight(BaseReading):
    """String to the deepest part of the grip, the back, or the plunger's line, at rest."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["brace_height"] = "brace_height"
    brace_height_mm: q.BraceHeightMm
    datum: BraceDatum = "pivot"
    hours_strung: q.HoursStrung | None = None
    """Hours this string has been strung, where the archer counts them."""

    def total_of(self) -> str:
        return "brace"

    def total(self) -> Figure:
        return mm(self.brace_height_mm)

    def changed_by(self, amount: float) -> "BraceHeight":
        height = round(self.brace_height_mm + amount, 6)
        return BraceHeight(brace_height_mm=height, datum=self.datum)

    def say(self) -> Phrase:
        after = "" if self.hours_strung is None else f" after {self.hours_strung:g} h strung"
        return phrase(
            f"Brace height {{brace}}{BRACE_DATUM_WORDS[self.datum]}{after}",
            brace=mm(self.brace_height_mm),
        )


class BraceTried(BaseReading):
    """A brace height that was shot, and how it sounded and felt."""

    of = frozenset({"rig"})
    by = "measured"
    settles = False
    needs = frozenset({"bow", "string"})
    kind: Literal["brace_tried"] = "brace_tried"
    brace_height_mm: q.BraceHeightMm
    datum: BraceDatum = "pivot"
    sound: Ratings = ()
    shock: Ratings = ()
    turns: Turns | None = None
    tail: Tail | None = None
    """Where the tail pointed, if it was looked at."""
    takes_db: TakesDb = ()
    """How loud each recorded shot was, against any one level."""
    ear: ByEar | None = None
    """The recording they are of."""

    @model_validator(mode="after")
    def _heard(self) -> "BraceTried":
        if not self.sound and not self.shock and not self.takes_db:
            raise DomainError(
                "nothing_given",
                "Neither sound nor hand shock is rated.",
                "Rate at least one of them, 0 still to 10 harsh, or record the shots.",
                "sound",
            )
        return self

    def say(self) -> Phrase:
        parts = [
            f"{name} {' '.join(f'{rating:g}' for rating in ratings)}"
            for name, ratings in (("sound", self.sound), ("shock", self.shock))
            if ratings
        ]
        if self.takes_db:
            count = len(self.takes_db)
            parts.append(f"{count} shot{'' if count == 1 else 's'} recorded")
        if self.tail is not None:
            parts.append(f"tail {self.tail}")
        return phrase(
            f"Tried brace {{brace}}{BRACE_DATUM_WORDS[self.datum]}: " + ", ".join(parts),
            brace=mm(self.brace_height_mm),
        )


StringReading = (
    StringBuild
    | StringTurns
    | StringTurned
    | StringStrung
    | StringSettled
    | BraceHeight
    | BraceTried
)
