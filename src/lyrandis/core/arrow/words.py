"""What arrows can be, and the trade's words for it."""

from typing import Literal

ShaftMaterial = Literal["wood", "carbon", "aluminium", "cane", "glass"]
SpineStandard = Literal["wood", "thousandths"]
LengthDatum = Literal["groove_to_end", "groove_to_tip", "shaft_only"]
ArrowState = Literal["sound", "cracked"]
Quill = Literal["bound", "lifts"]
LiesOn = Literal["shelf", "rest", "hand"]
Flight = Literal["clean", "stiff", "weak"]

SHAFT_MATERIAL_WORDS: dict[ShaftMaterial, str] = {
    "wood": "wood",
    "carbon": "carbon",
    "aluminium": "aluminium",
    "cane": "cane",
    "glass": "glass",
}
LENGTH_DATUM_WORDS: dict[LengthDatum, str] = {
    "groove_to_end": "nock groove to shaft end",
    "groove_to_tip": "nock groove to the tip",
    "shaft_only": "the bare shaft alone",
}
FLIGHT_WORDS: dict[Flight, str] = {"clean": "flew clean", "stiff": "still stiff", "weak": "weak"}
LIES_ON_WORDS: dict[LiesOn, str] = {
    "shelf": "the shelf",
    "rest": "a rest",
    "hand": "the hand",
}
QUILL_WORDS: dict[Quill, str] = {
    "bound": "quill ends bound and smooth",
    "lifts": "a quill lifts",
}
