"""What a string can be, and the trade's words for it."""

from typing import Literal

StringMaterial = Literal["polyester", "low_stretch", "linen", "other"]

STRING_MATERIAL_WORDS: dict[StringMaterial, str] = {
    "polyester": "polyester",
    "low_stretch": "low-stretch fibre",
    "linen": "linen",
    "other": "other",
}

StringType = Literal["endless", "twisted"]

STRING_TYPE_WORDS: dict[StringType, str] = {
    "endless": "endless loop",
    "twisted": "twisted bundles",
}

Tail = Literal["straight", "left", "right", "high", "low"]
"""Where the arrow's tail pointed, seen from behind."""

BraceDatum = Literal["pivot", "back", "plunger"]

BRACE_DATUM_WORDS: dict[BraceDatum, str] = {
    "pivot": "",
    "back": " to the back",
    "plunger": " to the plunger's line",
}
"""Where a brace was read to, said behind it; the deepest grip goes without saying."""
