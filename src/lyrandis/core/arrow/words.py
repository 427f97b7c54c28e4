"""What arrows can be, and the trade's words for it."""

from typing import Literal

ShaftMaterial = Literal["wood", "carbon", "aluminium", "cane", "glass"]
SpineStandard = Literal["wood", "thousandths"]
LengthDatum = Literal["groove_to_end", "groove_to_tip", "shaft_only"]
ArrowState = Literal["sound", "cracked"]
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
