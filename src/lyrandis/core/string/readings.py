"""What is recorded of the string and of the brace it stands at. Lengths in mm, masses in grains."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from lyrandis.core import quantities as q
from lyrandis.core.phrase import Figure, Phrase, gr, mm, phrase
from lyrandis.core.reading import BaseReading, require_something
from lyrandis.core.string.words import STRING_MATERIAL_WORDS, StringMaterial


class StringBuild(BaseReading):
    """How the string is made."""

    of = frozenset({"string"})
    merges = True
    kind: Literal["string_build"] = "string_build"
    material: StringMaterial | None = None
    strands: Annotated[int, Field(ge=4, le=60)] | None = None
    string_length_mm: q.StringLength | None = None
    string_mass_gr: q.PartMass | None = None

    @model_validator(mode="after")
    def _something(self) -> "StringBuild":
        return require_something(self, "material")

    def say(self) -> Phrase:
        figures: dict[str, Figure] = {}
        parts = []
        if self.material:
            parts.append(STRING_MATERIAL_WORDS[self.material])
        if self.strands:
            parts.append(f"{self.strands} strands")
        if self.string_length_mm is not None:
            parts.append("{length} long")
            figures["length"] = mm(self.string_length_mm)
        if self.string_mass_gr is not None:
            parts.append("{mass}")
            figures["mass"] = gr(self.string_mass_gr)
        return phrase("String: " + ", ".join(parts), **figures)


class BraceHeight(BaseReading):
    """String to the deepest part of the grip, or to the back of the riser, at rest."""

    of = frozenset({"rig"})
    by = "measured"
    needs = frozenset({"bow", "string"})
    kind: Literal["brace_height"] = "brace_height"
    brace_height_mm: q.BraceHeight
    datum: Literal["pivot", "back"] = "pivot"

    def say(self) -> Phrase:
        to = " to the back" if self.datum == "back" else ""
        return phrase(f"Brace height {{brace}}{to}", brace=mm(self.brace_height_mm))


StringReading = StringBuild | BraceHeight
