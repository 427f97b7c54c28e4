"""What arrows can be, and the trade's words for it."""

from typing import Literal

ShaftMaterial = Literal["wood", "carbon", "aluminium", "cane", "glass"]
SpineStandard = Literal["wood", "thousandths"]
LengthDatum = Literal["groove_to_end", "groove_to_tip", "shaft_only"]
ArrowState = Literal["sound", "cracked"]
Flight = Literal["clean", "stiff", "weak"]
